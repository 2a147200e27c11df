// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/stripchart.h"

#include "document/families.h"
#include "paint/text.h"

#include <QMouseEvent>

namespace mildpath {
namespace {

constexpr int steps = 6, first = 2; // 25.4 to 88.9 µm in steps of half a thou

} // namespace

StripChart::StripChart(QWidget *parent)
    : QWidget(parent)
{
    setFixedSize(158, 160);
    setToolTip(tr("A sketch: read the width against the chart on the strip's own envelope, at its "
                  "widest. Crank not turned, strip away from the oil hole."));
    setAccessibleName(tr("Chart of a plastic strip; the figures can be typed"));
}

double StripChart::stepAt(int row) const
{
    return (first + row) * usualStripStep_um;
}

QRectF StripChart::rowArea(int row) const
{
    return { 0, 18.0 + 23 * row, static_cast<double>(width()), 23 };
}

void StripChart::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawLine(p, QRectF(0, 0, width(), 16), Qt::AlignVCenter, tr("crushed width, a sketch"),
             textFont(TextSize::Small), t.muted);
    for (int row = 0; row < steps; ++row) {
        const QRectF area = rowArea(row);
        // One volume of wire, pressed flat: the thinner, the wider.
        const double width = 88.0 * stepAt(0) / stepAt(row);
        p.setPen(Qt::NoPen);
        p.setBrush(t.proven);
        p.drawRoundedRect(QRectF(92 / 2.0 - width / 2, area.center().y() - 6, width, 12), 2, 2);
        drawLine(p, QRectF(100, area.top(), 56, area.height()), Qt::AlignVCenter,
                 Figure::clearance(stepAt(row)).text(), textFont(TextSize::Normal), t.ink);
    }
}

void StripChart::mousePressEvent(QMouseEvent *event)
{
    for (int row = 0; row < steps; ++row)
        if (rowArea(row).contains(event->position()))
            Q_EMIT chosen(stepAt(row));
}

} // namespace mildpath
