// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"

#include <QLabel>
#include <QPainter>

namespace mildpath {

/// A line of text cut with "…" where it has no room; whole in the tooltip then.
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
        const bool cut = fontMetrics().horizontalAdvance(text()) > width() + 1;
        setToolTip(cut ? text() : QString());
    }
};

} // namespace mildpath
