// SPDX-License-Identifier: GPL-3.0-or-later
#include "begin/smallroute.h"

#include "bench/route/routelayout.h"
#include "paint/marks.h"
#include "paint/theme.h"

#include <algorithm>

namespace mildpath {

void drawSmallRoute(QPainter &p, const Build &build, const QRectF &area,
                    const std::map<std::string, Mark> &marks)
{
    const Theme &t = Theme::current();
    const RouteLayout layout = layoutRoute(build, area);
    const double ring = std::clamp(area.width() / 60, 2.2, 6.0);
    const double line = std::clamp(area.width() / 110, 1.4, 3.5);
    p.save();
    p.setClipRect(area.adjusted(-2, -6, 2, 4));
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.returns, 1, Qt::DotLine));
    p.drawPolyline(layout.returns);
    for (const RouteLine &l : layout.lines) {
        const bool gallery = l.path.size() > 0 && l.path.boundingRect().width() > area.width() / 3;
        p.setPen(
            QPen(t.oil[3], gallery ? line * 1.6 : line, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
        p.drawPolyline(l.path);
    }
    for (const RoutePoint &point : layout.points) {
        const auto mark = marks.find(point.stop.toStdString());
        const double size = point.small ? ring * 0.7 : ring;
        p.setPen(QPen(t.ink, 1.1));
        p.setBrush(t.panel);
        p.drawEllipse(point.at, size, size);
        if (mark != marks.end() && mark->second != Mark::NotAsked && !point.small) {
            p.drawEllipse(point.at, size * 1.5, size * 1.5);
            drawMark(p, point.at, size * 2.2, mark->second);
        }
    }
    p.restore();
}

} // namespace mildpath
