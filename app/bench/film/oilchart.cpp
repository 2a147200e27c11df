// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/oilchart.h"

#include "oil/grades.h"
#include "paint/text.h"
#include "study/contacts.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double leastC = 0, mostC = 150;
constexpr double leastKv = 3, mostKv = 4000;
constexpr double perCSt = 1e-6; // m²/s

} // namespace

OilChart::OilChart(OpenBuild &open, QWidget *parent)
    : ChartView(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("oilChart"));
    setMinimumSize(330, 200);
}

std::vector<OilChart::Line> OilChart::lines() const
{
    const Theme &t = Theme::current();
    const Build &build = m_open.build();
    const ChosenOil &own = build.oil;
    std::vector<Line> out { { tr("%1, this build").arg(qs(own.grade)), own.oil, t.oil[3], true,
                              false } };
    if (m_fuel > 0)
        out.push_back({ tr("with %1 % petrol").arg(qs(formatNumber(m_fuel * 100, 0))),
                        dilutedOil(own.oil, m_fuel), t.hold, false, false });
    // Its neighbours on the shelf, the oils of one's own, and what people take for like it.
    const ShelfOil *thicker = nextThickerOil(own.oil), *thinner = nullptr;
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil && o.oil.kv100_mm2_s < 0.95 * own.oil.kv100_mm2_s
            && (!thinner || o.oil.kv100_mm2_s > thinner->oil.kv100_mm2_s))
            thinner = &o;
    if (thicker)
        out.push_back({ qs(thicker->grade), thicker->oil, t.selection, false, false });
    if (thinner)
        out.push_back({ qs(thinner->grade), thinner->oil, t.muted, false, false });
    for (const ChosenOil &o : build.ownOils)
        if (o.grade != own.grade && out.size() < 6)
            out.push_back({ qs(o.grade), o.oil, t.proven, false, false });
    if (const ShelfOil *gear = findShelfOil("75W-90 gear"))
        out.push_back({ tr("75W-90 gear oil"), gear->oil, t.hold, false, true });
    return out;
}

QStringList OilChart::oils() const
{
    QStringList out;
    for (const Line &l : lines())
        out << l.name;
    return out;
}

void OilChart::setFuel(double fraction)
{
    m_fuel = fraction;
    redraw();
}

void OilChart::redraw()
{
    Chart chart;
    chart.x = { leastC, mostC, 0, 1, Shows::Temperature, Scale::Kelvin };
    chart.x.count = 8;
    chart.y
        = { leastKv * perCSt, mostKv * perCSt, 0, 1, Shows::KinematicViscosity, Scale::Viscosity };
    for (const double kv : { 3.0, 5.0, 10.0, 20.0, 50.0, 100.0, 500.0, 2000.0 })
        chart.y.own.push_back(kv * perCSt);
    chart.legend = true;
    chart.rightRoom = 132;
    for (const Line &l : lines()) {
        const auto walther = waltherLine(l.oil.kv40_mm2_s, l.oil.kv100_mm2_s);
        if (!walther)
            continue;
        ChartLine line { l.name, l.colour, {}, {} };
        line.width = l.thick ? 2.4 : 1.6;
        line.pen = l.dashed ? Qt::DashLine : Qt::SolidLine;
        for (double c = leastC; c <= mostC; c += 10) {
            line.x.push_back(c);
            line.y.push_back(kinematicViscosity_mm2_s(*walther, { c }) * perCSt);
        }
        chart.lines.push_back(std::move(line));
    }
    setAccessibleName(tr("Viscosity against temperature: ") + oils().join(QStringLiteral(", ")));
    setChart(std::move(chart));
}

/// The grades as boxes on the chart's own scale, the build's own lit.
void OilChart::paintOver(QPainter &p, LabelSpace &)
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const double kv = m_open.build().oil.oil.kv100_mm2_s;
    const QRectF r = area();
    const double left = r.right() + 24;
    const auto up = [&](double mm2_s) { return at(leastC, mm2_s * perCSt).y(); };
    drawLine(p, QRectF(left - 8, 0, 116, 15), Qt::AlignCenter,
             tr("grades at %1").arg(Figure::temperature(100).text()), small, t.ink);
    double lastTop = 0;
    const auto column = [&](std::span<const GradeWindow> windows, double x, const QString &name,
                            const QColor &fill, bool own) {
        double highest = r.bottom();
        for (const GradeWindow &w : windows) {
            // The overlapping thin ones and the thickest lie outside what engines use.
            if (w.below_mm2_s > 35 || w.atLeast_mm2_s < 6 || w.name == "16")
                continue;
            const double top = up(w.below_mm2_s), bottom = up(w.atLeast_mm2_s);
            const bool lit = own && kv >= w.atLeast_mm2_s && kv < w.below_mm2_s;
            const QRectF box(x, top + 1, 44, bottom - top - 2);
            p.fillRect(box, lit ? t.oil[1] : fill);
            QFont font = textFont(TextSize::Small, lit);
            font.setPixelSize(std::min(font.pixelSize(), static_cast<int>(bottom - top) - 1));
            if (bottom - top > 8)
                drawLine(p, QRectF(x, (top + bottom) / 2 - 8, 44, 16), Qt::AlignCenter, qs(w.name),
                         font, t.ink);
            highest = std::min(highest, top);
        }
        drawLine(p, QRectF(x - 4, highest - 17, 52, 15), Qt::AlignCenter, name, small, t.muted);
        lastTop = highest;
    };
    QColor engine = t.oil[0], gear = t.holdFill;
    if (t.dark)
        engine = t.line;
    column(engineGradeWindows(), left, tr("engine"), engine, true);
    column(gearGradeWindows(), left + 52, tr("gear"), gear, false);
    const QPointF here = at(100, kv * perCSt);
    p.setPen(QPen(t.oil[3], 1.2, Qt::DashLine));
    p.drawLine(here, QPointF(left, here.y()));
    drawLine(p, QRectF(left - 12, r.bottom() + 3, 124, 16), Qt::AlignCenter,
             tr("two unlike scales"), small, t.muted);
}

} // namespace mildpath
