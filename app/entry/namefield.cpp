// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/namefield.h"

#include <QStyleOptionFrame>
#include <QStylePainter>

namespace mildpath {

void NameField::paintEvent(QPaintEvent *event)
{
    QStyleOptionFrame frame;
    initStyleOption(&frame);
    const QRect inside
        = style()->subElementRect(QStyle::SE_LineEditContents, &frame, this).adjusted(2, 0, -2, 0);
    if (hasFocus() || fontMetrics().horizontalAdvance(text()) <= inside.width()) {
        QLineEdit::paintEvent(event);
        return;
    }
    QStylePainter p(this);
    p.drawPrimitive(QStyle::PE_PanelLineEdit, frame);
    p.setPen(palette().color(QPalette::Text));
    p.drawText(inside, Qt::AlignVCenter | Qt::AlignLeft,
               fontMetrics().elidedText(text(), Qt::ElideRight, inside.width()));
}

} // namespace mildpath
