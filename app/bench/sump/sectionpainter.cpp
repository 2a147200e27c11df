// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/sectionpainter.h"

#include "paint/text.h"

#include <algorithm>

namespace mildpath {

QColor oilColour()
{
    const Theme &t = Theme::current();
    QColor c = t.oil[1];
    c.setAlphaF(t.dark ? 0.55F : 0.85F);
    return c;
}

void paintSmallSection(QPainter &p, const QRectF &area, const SmallSection &s)
{
    const Theme &t = Theme::current();
    double left = 1e9, right = -1e9, top = 0;
    for (const SectionPoint c : s.section.profile) {
        left = std::min(left, c.x_m);
        right = std::max(right, c.x_m);
        top = std::max(top, c.z_m);
    }
    const double scale = std::min(area.width() / (right - left), area.height() / top);
    const QPointF origin(area.center().x() - (left + right) / 2 * scale,
                         area.bottom() - (area.height() - top * scale) / 2);
    const auto at = [&](SectionPoint c) {
        return QPointF(origin.x() + c.x_m * scale, origin.y() - c.z_m * scale);
    };
    const auto polygon = [&](const Profile &profile) {
        QPolygonF out;
        for (const SectionPoint c : profile)
            out << at(c);
        return out;
    };
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    if (s.surface) {
        p.setPen(Qt::NoPen);
        p.setBrush(oilColour());
        p.drawPolygon(polygon(clippedBelow(s.section.profile, *s.surface)), Qt::WindingFill);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolygon(polygon(s.section.profile));
    p.setPen(QPen(t.hold, 1.2));
    for (const Sweep &w : s.section.sweeps)
        if (w.radius_m > 0)
            p.drawEllipse(at(w.centre), w.radius_m * scale, w.radius_m * scale);
    if (s.section.sweeps.size() >= 2 && s.section.sweeps.front().radius_m == 0)
        p.drawLine(at(s.section.sweeps[0].centre), at(s.section.sweeps[1].centre));
    const QPointF mouth = at(s.section.mouth);
    p.setPen(Qt::NoPen);
    p.setBrush(t.ink);
    p.drawPolygon(
        QPolygonF { { mouth + QPointF(-5, 0), mouth + QPointF(5, 0), mouth + QPointF(0, -8) } });
    if (s.numbers)
        for (size_t i = 0; i < s.section.profile.size(); ++i) {
            const QPointF c = at(s.section.profile[i]);
            // On the side of the corner that lies outside the pan.
            const double reach = 12 / scale;
            QPointF side(0, -12);
            for (const SectionPoint d : { SectionPoint { -reach, -reach },
                                          { reach, -reach },
                                          { reach, reach },
                                          { -reach, reach } })
                if (!contains(
                        s.section.profile,
                        { s.section.profile[i].x_m + d.x_m, s.section.profile[i].z_m + d.z_m })) {
                    side = QPointF(d.x_m, -d.z_m) * scale;
                    break;
                }
            drawLine(p, QRectF(c + side - QPointF(9, 8), QSizeF(18, 16)), Qt::AlignCenter,
                     QString::number(i + 1), textFont(TextSize::Small), t.muted);
        }
    p.restore();
}

} // namespace mildpath
