// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/sumpview.h"

#include "bench/sump/sectionpainter.h"
#include "paint/text.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

QString wholeMillimetres(double m)
{
    return inWords(asLength(m * 1e3, 0));
}

QPen dashed(const QColor &colour, Qt::PenStyle style)
{
    QPen pen(colour, 1.4, style);
    return pen;
}

} // namespace

SumpView::SumpView(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("sumpView"));
    setMinimumSize(360, 220);
}

void SumpView::setScene(const SumpScene &scene, const AirReport &air)
{
    m_scene = scene;
    m_air = air;
    m_section = sectionOf(m_open.build(), scene.way);
    m_oil.reset();
    const auto pan = panOf(m_open.build().sump);
    if (m_section && pan && scene.volume_m3 > 0)
        if (auto oil = turnOil(*pan, *m_section, { scene.way, scene.accel_g, scene.incline_rad },
                               scene.volume_m3))
            m_oil = *oil;
    QString spoken = tr("pan in section");
    if (m_oil)
        spoken = tr("pan in section, oil tilted %1°, %2 over the mouth")
                     .arg(qs(formatNumber(m_oil->surface.tilt_rad * 180 / pi, 0)),
                          wholeMillimetres(m_oil->submergence_m));
    else if (m_air.tank)
        spoken = tr("oil tank, %1 over its outlet").arg(wholeMillimetres(m_air.tank->level_m));
    setAccessibleName(spoken);
    update();
}

void SumpView::layOut()
{
    double left = 1e9, right = -1e9, top = 0;
    for (const SectionPoint p : m_section->profile) {
        left = std::min(left, p.x_m);
        right = std::max(right, p.x_m);
        top = std::max(top, p.z_m);
    }
    // Along, nothing of interest lies over the crank's centre line.
    if (const auto z = m_open.build().sump.own("crank_z_mm"); z && m_scene.way == PanWay::Along)
        top = std::min(top, *z * 1e-3);
    const QRectF area(110, 12, width() - 230.0, height() - 68.0);
    m_scale = std::min(area.width() / (right - left), area.height() / top);
    m_origin = { area.center().x() - (left + right) / 2 * m_scale,
                 area.bottom() - (area.height() - top * m_scale) / 2 };
}

QPointF SumpView::at(SectionPoint p) const
{
    return { m_origin.x() + p.x_m * m_scale, m_origin.y() - p.z_m * m_scale };
}

void SumpView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (m_air.tank) {
        paintTank(p);
        return;
    }
    if (!m_section) {
        const QString why = m_air.problem ? qs(m_air.problem->message) : tr("no section this way");
        drawLine(p, QRectF(rect()), Qt::AlignCenter, tr("Nothing to draw: %1").arg(why),
                 textFont(TextSize::Body), t.muted);
        return;
    }
    layOut();
    if (m_scene.way == PanWay::Along)
        p.setClipRect(QRectF(0, 10, width(), height()));
    paintOil(p);
    paintPan(p);
    paintSweeps(p);
    paintLevels(p);
    paintPickup(p);
    paintMarks(p);
}

void SumpView::paintOil(QPainter &p) const
{
    if (!m_oil)
        return;
    QPolygonF oil;
    for (const SectionPoint c : clippedBelow(m_section->profile, m_oil->surface))
        oil << at(c);
    p.setPen(Qt::NoPen);
    p.setBrush(oilColour());
    p.drawPolygon(oil, Qt::WindingFill);
}

void SumpView::paintPan(QPainter &p) const
{
    const Theme &t = Theme::current();
    QPolygonF outline;
    for (const SectionPoint c : m_section->profile)
        outline << at(c);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.faint, 1));
    p.drawPolygon(outline);
    // The pan itself, up to its rail, stands out from the crankcase above.
    const auto rail = m_open.build().sump.own("rail_mm");
    p.save();
    if (rail)
        p.setClipRect(QRectF(0, at({ 0, *rail * 1e-3 }).y(), width(), height()));
    p.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolygon(outline);
    p.restore();
    const bool along = m_scene.way == PanWay::Along;
    const double y = height() - 16;
    drawLine(p, QRectF(12, y - 8, 120, 16), Qt::AlignLeft | Qt::AlignVCenter,
             along ? tr("front") : tr("left"), textFont(TextSize::Small), t.muted);
    drawLine(p, QRectF(width() - 132.0, y - 8, 120, 16), Qt::AlignRight | Qt::AlignVCenter,
             along ? tr("rear") : tr("right"), textFont(TextSize::Small), t.muted);
    drawLine(p, QRectF(140, y - 8, width() - 280.0, 16), Qt::AlignCenter,
             along ? tr("along the engine") : tr("across, seen from the flywheel"),
             textFont(TextSize::Small), t.muted);
}

void SumpView::paintLevels(QPainter &p) const
{
    const Theme &t = Theme::current();
    struct Line
    {
        const char *id;
        QColor colour;
        Qt::PenStyle style;
        QString text;
        double y = 0;
    };
    Line lines[] = { { "rest_cold", t.returns, Qt::DashLine, tr("at rest, cold") },
                     { "running", t.warm, Qt::DotLine, tr("running") } };
    double left = 1e9, right = -1e9;
    for (const SectionPoint c : m_section->profile) {
        left = std::min(left, c.x_m);
        right = std::max(right, c.x_m);
    }
    double last = 1e9;
    for (Line &l : lines) {
        const AirLevel *level = m_air.level(l.id);
        if (!level)
            continue;
        const QPointF a = at({ left, level->level_m }), b = at({ right, level->level_m });
        p.setPen(dashed(l.colour, l.style));
        p.drawLine(a + QPointF(4, 0), b - QPointF(4, 0));
        // Names keep apart where levels lie close.
        l.y = std::abs(a.y() - last) < 15 ? last + 15 : a.y();
        last = l.y;
        drawLine(p, QRectF(b.x() + 8, l.y - 8, width() - b.x() - 12, 16),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 tr("%1, %2").arg(l.text, wholeMillimetres(level->level_m)),
                 textFont(TextSize::Small), l.colour);
    }
}

void SumpView::paintSweeps(QPainter &p) const
{
    const Theme &t = Theme::current();
    const Sump &s = m_open.build().sump;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.hold, 1.6));
    const Sweep *nearest = nullptr;
    for (const Sweep &w : m_section->sweeps) {
        if (w.radius_m > 0) {
            const double r = w.radius_m * m_scale;
            p.drawEllipse(at(w.centre), r, r);
        }
        if (m_oil
            && (!nearest || clearance_m(m_oil->surface, w) < clearance_m(m_oil->surface, *nearest)))
            nearest = &w;
    }
    if (m_section->sweeps.empty())
        return;
    if (m_scene.way == PanWay::Along && m_section->sweeps.size() >= 2) {
        const auto z = s.own("crank_z_mm"), r = s.own("sweep_radius_mm");
        const Sweep &a = m_section->sweeps.front(), &b = m_section->sweeps[1];
        const QRectF band(at({ a.centre.x_m, (*z + *r) * 1e-3 }), at(b.centre));
        p.drawRoundedRect(band, 6, 6);
        drawLine(p, QRectF(band.left(), band.bottom() - 22, band.width(), 16), Qt::AlignCenter,
                 tr("crank sweep"), textFont(TextSize::Small), t.hold);
    } else {
        const Sweep &c = m_section->sweeps.front();
        const QPointF middle = at(c.centre);
        p.setPen(QPen(t.hold, 1));
        p.drawLine(middle - QPointF(5, 0), middle + QPointF(5, 0));
        p.drawLine(middle - QPointF(0, 5), middle + QPointF(0, 5));
        drawLine(p, QRectF(middle.x() - 60, middle.y() - c.radius_m * m_scale + 6, 120, 16),
                 Qt::AlignCenter, tr("crank sweep"), textFont(TextSize::Small), t.hold);
    }
    // A tray hangs close under the sweep; what matters of it is how open it is.
    if (const double open = *s.value("tray_open_share"); open < 1) {
        const auto z = s.own("crank_z_mm"), r = s.own("sweep_radius_mm");
        if (z && r) {
            const double level = (*z - *r - 8) * 1e-3, half = (*r * 0.8) * 1e-3;
            const bool along = m_scene.way == PanWay::Along;
            const double from = along ? s.own("crank_from_mm").value_or(0) * 1e-3
                                      : s.own("crank_across_mm").value_or(0) * 1e-3 - half;
            const double to = along ? s.own("crank_to_mm").value_or(0) * 1e-3
                                    : s.own("crank_across_mm").value_or(0) * 1e-3 + half;
            p.setPen(QPen(t.muted, 2.5, Qt::DashLine));
            p.drawLine(at({ from, level }), at({ to, level }));
            drawLine(p, QRectF(at({ from, level }) + QPointF(4, 3), QSizeF(160, 15)),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     tr("tray, %1 open").arg(Figure::percent(open).text()),
                     textFont(TextSize::Small), t.muted);
        }
    }
    if (!nearest || !m_oil)
        return;
    const double tilt = m_oil->surface.tilt_rad, gap = clearance_m(m_oil->surface, *nearest);
    const SectionPoint low { nearest->centre.x_m + std::sin(tilt) * nearest->radius_m,
                             nearest->centre.z_m - std::cos(tilt) * nearest->radius_m };
    const SectionPoint foot { low.x_m + std::sin(tilt) * gap, low.z_m - std::cos(tilt) * gap };
    p.setPen(QPen(gap < 0 ? t.hold : t.muted, 1));
    p.drawLine(at(low), at(foot));
    // Its figure stands beside the pan, over those of the levels, where nothing else is drawn.
    const QPointF middle = (at(low) + at(foot)) / 2;
    double right = -1e9;
    for (const SectionPoint c : m_section->profile)
        right = std::max(right, c.x_m);
    const double wall = at({ right, 0 }).x();
    double y = middle.y();
    if (const AirLevel *rest = m_air.level("rest_cold"))
        y = std::min(y, at({ right, rest->level_m }).y() - 17);
    p.setPen(QPen(t.line, 1, Qt::DotLine));
    p.drawLine(middle, QPointF(wall + 6, y));
    drawLine(p, QRectF(wall + 8, y - 8, width() - wall - 12, 16), Qt::AlignLeft | Qt::AlignVCenter,
             gap < 0 ? tr("crank dips %1").arg(wholeMillimetres(-gap))
                     : tr("%1 to sweep").arg(wholeMillimetres(gap)),
             textFont(TextSize::Small), gap < 0 ? t.hold : t.ink);
}

void SumpView::paintPickup(QPainter &p) const
{
    const Theme &t = Theme::current();
    const Sump &s = m_open.build().sump;
    const Stop *stop = m_open.build().engine.ofKind(StopKind::Pickup);
    const double bore = stop ? stop->value("pickup_bore_mm", 16) * 1e-3 : 0.016;
    const double mouth = stop ? stop->value("pickup_mouth_mm", bore * 1e3 * 2) * 1e-3 : 2 * bore;
    const SectionPoint m = m_section->mouth;
    const double top = s.own("pump_inlet_z_mm").value_or(m.z_m * 1e3 + 80) * 1e-3;
    // The mouth is drawn no smaller than one can see.
    const double half = std::max(8.0, mouth / 2 * m_scale),
                 neck = std::max(3.0, bore / 2 * m_scale);
    const QPointF foot = at(m);
    QPolygonF trumpet { { foot + QPointF(-half, 0), foot + QPointF(half, 0),
                          foot + QPointF(neck, -12), foot + QPointF(-neck, -12) } };
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(t.panel);
    p.drawRect(QRectF(QPointF(foot.x() - neck, at({ 0, std::max(top, m.z_m) }).y()),
                      QPointF(foot.x() + neck, foot.y() - 12)));
    p.drawPolygon(trumpet);
    if (const auto z = s.own("baffle_z_mm"), area = s.own("compartment_area_mm2"); z && area) {
        const double wide = std::sqrt(*area) * 1e-3 / 2;
        const QPointF a = at({ m.x_m - wide, *z * 1e-3 }), b = at({ m.x_m + wide, *z * 1e-3 });
        p.setPen(QPen(t.muted, 3, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(a, b);
        p.setPen(QPen(t.muted, 1));
        p.drawLine(a,
                   at({ m.x_m - wide, floorAt_m(m_section->profile, m.x_m - wide).value_or(0) }));
        p.drawLine(b,
                   at({ m.x_m + wide, floorAt_m(m_section->profile, m.x_m + wide).value_or(0) }));
        drawLine(p, QRectF(a.x() + 2, a.y() - 17, 80, 15), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("baffle"), textFont(TextSize::Small), t.muted);
    }
    const auto gap = pickupGap_m(m_open.build());
    QString said = gap ? tr("pickup, %1 off the floor").arg(wholeMillimetres(*gap))
                       : tr("pickup, height not measured");
    QColor tone = t.muted;
    const AirCase *running = m_air.find("running");
    if (m_oil && gap) {
        const double depth = m_oil->submergence_m;
        if (running && depth < running->wanted.dip_m) {
            tone = t.hold;
            said = tr("draws air: %1 over the mouth, gas below %2")
                       .arg(wholeMillimetres(depth), wholeMillimetres(running->wanted.dip_m));
            QPainterPath wave(foot + QPointF(half + 8, -64));
            for (int i = 0; i < 4; ++i)
                wave.quadTo(foot + QPointF(half + 8 + (i % 2 ? -7 : 7), -58 + 12 * i),
                            foot + QPointF(half + 8, -52 + 12 * i));
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(t.hold, 2.2, Qt::DotLine));
            p.drawPath(wave);
        } else if (running && depth < running->wanted.required_m) {
            tone = t.lookAgain;
            said = tr("%1 over the mouth, %2 wanted")
                       .arg(wholeMillimetres(depth), wholeMillimetres(running->wanted.required_m));
        } else {
            said = tr("%1 over the mouth; %2 off the floor")
                       .arg(wholeMillimetres(depth), wholeMillimetres(*gap));
        }
    }
    drawLine(p, QRectF(foot.x() - 190, foot.y() + 12, 380, 16), Qt::AlignCenter, said,
             textFont(TextSize::Small, tone != t.muted), tone);
}

void SumpView::paintMarks(QPainter &p) const
{
    const Theme &t = Theme::current();
    const Sump &s = m_open.build().sump;
    double left = 1e9;
    for (const SectionPoint c : m_section->profile)
        left = std::min(left, c.x_m);
    double last = -1e9;
    for (const auto &[key, word] : { std::pair("stick_high_mm", tr("stick, high")),
                                     std::pair("stick_low_mm", tr("stick, low")) })
        if (const auto z = s.own(key)) {
            const QPointF a = at({ left, *z * 1e-3 });
            p.setPen(QPen(t.ink, 1.5));
            p.drawLine(a - QPointF(10, 0), a);
            // Their names keep apart where the marks lie close.
            const double y = std::max(a.y(), last + 14);
            last = y;
            drawLine(p, QRectF(a.x() - 108, y - 8, 94, 16), Qt::AlignRight | Qt::AlignVCenter, word,
                     textFont(TextSize::Small), t.ink);
        }
    if (const auto rail = s.own("rail_mm")) {
        const QPointF a = at({ left, *rail * 1e-3 });
        drawLine(p, QRectF(a.x() - 108, a.y() - 8, 94, 16), Qt::AlignRight | Qt::AlignVCenter,
                 tr("rail"), textFont(TextSize::Small), t.muted);
    }
}

void SumpView::paintTank(QPainter &p) const
{
    const Theme &t = Theme::current();
    const Sump &s = m_open.build().sump;
    const TankReport &tank = *m_air.tank;
    const double d = s.own("tank_diameter_mm").value_or(150) * 1e-3;
    const double head = tank.high_m * 1.12;
    const double scale = std::min((height() - 130.0) / head, (width() - 420.0) / d);
    const QRectF body(width() / 2.0 - d * scale / 2, 24, d * scale, head * scale);
    const double floor = body.bottom();
    const double level = std::min(tank.level_m * scale, body.height());
    const double swirl = std::min(tank.swirl_m * scale, level);
    // Turning oil: a paraboloid, as far up at the wall as down in the middle.
    QPainterPath oil(QPointF(body.left(), floor));
    oil.lineTo(body.left(), floor - level - swirl);
    oil.quadTo(QPointF(body.center().x(), floor - level + 3 * swirl),
               QPointF(body.right(), floor - level - swirl));
    oil.lineTo(body.right(), floor);
    p.setPen(Qt::NoPen);
    p.setBrush(oilColour());
    p.drawPath(oil);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawRoundedRect(body, 6, 6);
    const double outlet = std::max(6.0, s.own("tank_outlet_mm").value_or(25) * 1e-3 * scale);
    p.drawLine(QPointF(body.center().x() - outlet / 2, floor),
               QPointF(body.center().x() - outlet / 2, floor + 34));
    p.drawLine(QPointF(body.center().x() + outlet / 2, floor),
               QPointF(body.center().x() + outlet / 2, floor + 34));
    const double mouth = floor - tank.high_m * scale;
    p.setPen(QPen(t.returns, 4, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(QPointF(body.right() + 50, mouth), QPointF(body.right() - 6, mouth));
    const QFont small = textFont(TextSize::Small);
    const auto left = [&](double y, const QString &text, const QColor &colour) {
        drawLine(p, QRectF(8, y - 8, body.left() - 20, 16), Qt::AlignRight | Qt::AlignVCenter, text,
                 small, colour);
    };
    left(floor - level, tr("running, %1 over the outlet").arg(wholeMillimetres(tank.level_m)),
         t.warm);
    drawLine(p, QRectF(body.right() + 58, mouth - 8, width() - body.right() - 64, 16),
             Qt::AlignLeft | Qt::AlignVCenter, tr("return from the scavenge stages"), small,
             t.returns);
    if (tank.swirl_m > 0)
        left(floor - level + 18, tr("turning oil dips %1").arg(wholeMillimetres(tank.swirl_m)),
             t.muted);
    drawLine(p, QRectF(0, floor + 40, width(), 16), Qt::AlignCenter,
             tr("to the pressure stage; oil rests %1 s here").arg(qs(formatNumber(tank.stay_s, 1))),
             small, t.ink);
    QString hose
        = tr("suction %1 below the crankcase").arg(Figure::pressure(tank.suction_pa).text());
    if (tank.folds_pa)
        hose += tr("; a plain hose of this wall folds at %1")
                    .arg(Figure::pressure(*tank.folds_pa).text());
    drawLine(p, QRectF(0, floor + 58, width(), 16), Qt::AlignCenter, hose, small, t.muted);
}

} // namespace mildpath
