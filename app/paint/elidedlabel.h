// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"

#include <QHelpEvent>
#include <QLabel>
#include <QPainter>
#include <QToolTip>

namespace mildpath {

/// A line of text cut with "…" where it has no room; whole in the hint then.
class ElidedLabel : public QLabel
{
public:
    using QLabel::QLabel;

protected:
    void paintEvent(QPaintEvent *) override
    {
        QPainter painter(this);
        drawLine(painter, rect(), Qt::AlignLeft | Qt::AlignVCenter, text(), font(),
                 palette().color(QPalette::WindowText));
    }
    bool event(QEvent *event) override
    {
        const bool cut = fontMetrics().horizontalAdvance(text()) > width() + 1;
        if (event->type() != QEvent::ToolTip || !cut)
            return QLabel::event(event);
        QToolTip::showText(static_cast<QHelpEvent *>(event)->globalPos(), text(), this);
        return true;
    }
};

} // namespace mildpath
