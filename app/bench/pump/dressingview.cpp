// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/pump/dressingview.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

DressingView::DressingView(QWidget *parent)
    : ChartView(parent)
{
    setObjectName(QStringLiteral("dressingView"));
    setMinimumHeight(120);
}

void DressingView::setPlan(std::optional<DressingPlan> plan)
{
    m_plan = std::move(plan);
    setAccessibleName(m_plan ? tr("hot idle %1 now, %2 when dressed to %3")
                                   .arg(Figure::pressure(m_plan->now.gauge_pa).text(),
                                        Figure::pressure(m_plan->stop.gauge_pa).text(),
                                        Figure::limit(std::round(m_plan->stop.end_um)).text())
                             : tr("no dressing plan"));
    redraw();
}

void DressingView::redraw()
{
    Chart chart;
    chart.x.count = chart.y.count = 0;
    if (!m_plan || m_plan->points.size() < 2)
        return setChart(std::move(chart));
    const Theme &t = Theme::current();
    ChartLine hotIdle { {}, t.warm, {}, {} };
    hotIdle.width = 2;
    double low = 1e300, high = 0;
    for (const DressingPoint &d : m_plan->points) {
        hotIdle.x.push_back(d.end_um * 1e-6);
        hotIdle.y.push_back(d.gauge_pa);
        low = std::min(low, d.gauge_pa);
        high = std::max(high, d.gauge_pa);
    }
    // Steps of a twentieth of a bar at least, so that nothing looks like a cliff that is none.
    const double step = high - low > 0.25e5 ? 0.1e5 : 0.05e5;
    chart.x = { hotIdle.x.front(), hotIdle.x.back(), 0, 1, Shows::Clearance };
    chart.x.count = 5;
    chart.x.name = tr("end clearance, %1").arg(unitOf(Shows::Clearance));
    chart.y = { std::floor(low / step - 0.5) * step, std::ceil(high / step + 0.5) * step, 0, 1,
                Shows::Pressure };
    chart.y.count = 5;
    chart.y.name = tr("%1, hot idle").arg(unitOf(Shows::Pressure));
    if (const double bind = rotorsBind_um * 1e-6; bind > chart.x.to)
        chart.zones.push_back({ tr("rotors may bind"), t.holdFill, t.hold,
                                std::min(bind, chart.x.from), chart.x.to });
    // Worked from wide to narrow; the plotting library wants its numbers rising.
    std::reverse(hotIdle.x.begin(), hotIdle.x.end());
    std::reverse(hotIdle.y.begin(), hotIdle.y.end());
    chart.lines.push_back(std::move(hotIdle));
    const DressingPoint &now = m_plan->now, &stop = m_plan->stop;
    chart.dots.push_back(
        { now.end_um * 1e-6, now.gauge_pa, t.selection, tr("now"), DotShape::Ring });
    if (m_plan->take_um() > 0.5)
        chart.dots.push_back({ stop.end_um * 1e-6, stop.gauge_pa, t.selection, tr("stop here") });
    setChart(std::move(chart));
}

} // namespace mildpath
