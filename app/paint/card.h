// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"

#include <QWidget>

namespace mildpath {

/// A card that carries other widgets.
class CardWidget : public QWidget
{
public:
    using QWidget::QWidget;

protected:
    void paintEvent(QPaintEvent *) override
    {
        QPainter p(this);
        drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
};

} // namespace mildpath
