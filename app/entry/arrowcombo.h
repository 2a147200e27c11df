// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/theme.h"

#include <QComboBox>
#include <QPainter>

namespace mildpath {

/// Flat, with a plain arrow: the style sheet takes the native one away.
class ArrowCombo : public QComboBox
{
public:
    using QComboBox::QComboBox;

protected:
    void paintEvent(QPaintEvent *event) override
    {
        QComboBox::paintEvent(event);
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(Qt::NoPen);
        p.setBrush(Theme::current().muted);
        const QPointF c(width() - 14, height() / 2.0);
        p.drawPolygon(QPolygonF { { c + QPointF(-4, -2), c + QPointF(4, -2), c + QPointF(0, 3) } });
    }
};

} // namespace mildpath
