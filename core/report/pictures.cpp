// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/pictures.h"

#include "assess/forecast.h"
#include "checks/assessment.h"
#include "quantity/dates.h"
#include "quantity/rounding.h"
#include "report/summarypictures.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

using Point = Svg::Point;

/// Round steps over a range, some `count` of them.
double stepOf(double range, int count)
{
    const double rough = range / count, ten = std::pow(10, std::floor(std::log10(rough)));
    for (const double m : { 1.0, 2.0, 5.0 })
        if (rough <= m * ten)
            return m * ten;
    return 10 * ten;
}

int decimalsOf(double step)
{
    return step >= 1 ? 0 : step >= 0.1 ? 1 : 2;
}

/// An area with an axis below and one at its left.
class Plot
{
public:
    Plot(Svg &svg, double left, double top, double right, double bottom)
        : m_svg(svg)
        , m_left(left)
        , m_top(top)
        , m_right(right)
        , m_bottom(bottom)
    {
    }
    void range(double x0, double x1, double y0, double y1)
    {
        m_x0 = x0;
        m_x1 = x1;
        m_y0 = y0;
        m_y1 = y1;
    }
    double x(double v) const { return m_left + (v - m_x0) / (m_x1 - m_x0) * (m_right - m_left); }
    double y(double v) const { return m_bottom - (v - m_y0) / (m_y1 - m_y0) * (m_bottom - m_top); }
    Point at(double vx, double vy) const { return { x(vx), y(vy) }; }

    void xAxis(std::string_view name, int count = 8) const
    {
        const double step = stepOf(m_x1 - m_x0, count);
        for (double v = std::ceil(m_x0 / step - 1e-9) * step; v <= m_x1 + 1e-9 * step; v += step) {
            m_svg.line({ x(v), m_top }, { x(v), m_bottom }, Svg::hairline, 0.6);
            m_svg.text({ x(v), m_bottom + 14 }, formatNumber(v, decimalsOf(step)), 10, Svg::muted,
                       Svg::Anchor::Middle);
        }
        m_svg.text({ m_right, m_bottom + 28 }, name, 10, Svg::muted, Svg::Anchor::End);
    }
    void yAxis(std::string_view name, int count = 5) const
    {
        const double step = stepOf(m_y1 - m_y0, count);
        for (double v = std::ceil(m_y0 / step - 1e-9) * step; v <= m_y1 + 1e-9 * step; v += step) {
            m_svg.line({ m_left, y(v) }, { m_right, y(v) }, Svg::hairline, 0.6);
            m_svg.text({ m_left - 6, y(v) + 4 }, formatNumber(v, decimalsOf(step)), 10, Svg::muted,
                       Svg::Anchor::End);
        }
        m_svg.text({ m_left, m_top - 6 }, name, 10, Svg::muted);
    }
    double left() const { return m_left; }
    double right() const { return m_right; }
    double top() const { return m_top; }
    double bottom() const { return m_bottom; }

private:
    Svg &m_svg;
    double m_left, m_top, m_right, m_bottom;
    double m_x0 = 0, m_x1 = 1, m_y0 = 0, m_y1 = 1;
};

/// Limits of a family's picture: everything that is drawn, and a little room.
std::pair<double, double> clearanceRange(const std::vector<const GaugedSize *> &sizes)
{
    double low = 1e9, high = -1e9;
    for (const GaugedSize *s : sizes) {
        const double u = 2 * s->cold_um.standardUncertainty;
        low = std::min(low, s->cold_um.value - u);
        high = std::max(high, s->cold_um.value + u);
        if (s->limits) {
            low = std::min(low, s->limits->min_um);
            high = std::max(high, s->limits->max_um);
        }
        for (const JudgedReading &r : s->readings) {
            low = std::min(low, r.at20_um);
            high = std::max(high, r.at20_um);
        }
    }
    const double room = std::max(2.0, 0.08 * (high - low));
    return { low - room, high + room };
}

} // namespace

SheetPicture clearancePicture(const Build &, const Assessment &assessment,
                              const std::string &family, const UnitStyle &style)
{
    const auto shownUm
        = [&](double um) { return inShownUnit(um * 1e-6, Shows::Clearance, style.system); };
    std::vector<const GaugedSize *> sizes;
    for (const GaugedSize &s : assessment.sizes)
        if (s.family == family && s.known)
            sizes.push_back(&s);
    if (sizes.empty())
        return {};
    constexpr double row = 22, top = 14;
    Svg svg(sheetPictureWidth, top + row * static_cast<double>(sizes.size()) + 38);
    Plot plot(svg, 110, top, sheetPictureWidth - 120,
              top + row * static_cast<double>(sizes.size()));
    const auto [low, high] = clearanceRange(sizes);
    plot.range(shownUm(low), shownUm(high), 0, 1);
    const auto x = [&](double um) { return plot.x(shownUm(um)); };
    plot.xAxis(render({ "picture.clearance",
                        "{0} {1} at {2}",
                        { shownUnit(Shows::Clearance, style.system), findFamily(family)->quantity,
                          asTemperature(20) } },
                      style));
    for (size_t i = 0; i < sizes.size(); ++i) {
        const GaugedSize &s = *sizes[i];
        const double y = top + row * (static_cast<double>(i) + 0.5);
        svg.text({ 22, y + 4 }, s.name, 11, Svg::ink);
        svg.mark({ 10, y }, 11, s.mark);
        if (s.limits) {
            svg.rect({ x(s.limits->min_um), y - 7 }, x(s.limits->max_um) - x(s.limits->min_um), 14,
                     Svg::inside);
            for (const double edge : { s.limits->min_um, s.limits->max_um })
                svg.line({ x(edge), y - 7 }, { x(edge), y + 7 }, Svg::proven, 1.2);
        }
        for (const JudgedReading &r : s.readings)
            svg.circle({ x(r.at20_um), y }, 2.4, "none", Svg::muted);
        const double u = 2 * s.cold_um.standardUncertainty;
        svg.line({ x(s.cold_um.value - u), y }, { x(s.cold_um.value + u), y },
                 s.measured ? Svg::ink : Svg::muted, 1.6, s.measured ? "" : "3 3");
        svg.circle({ x(s.cold_um.value), y }, 3.6, s.measured ? Svg::ink : Svg::muted);
        svg.text({ plot.right() + 10, y + 4 },
                 render({ "picture.size",
                          s.measured ? "{0}" : "{0} assumed",
                          { withUncertainty(
                              asClearance(s.cold_um.value, s.cold_um.standardUncertainty)) } },
                        style),
                 11, s.measured ? Svg::ink : Svg::muted);
    }
    return picture(std::string(findFamily(family)->plural),
                   "rings: readings; dot and line: value ± U (k = 2); green: limits", svg);
}

SheetPicture forecastPicture(const Build &build, const Assessment &assessment,
                             const UnitStyle &style)
{
    if (assessment.forecast.lines.empty() || assessment.operating.unsolved)
        return {};
    Svg svg(sheetPictureWidth, 320);
    Plot plot(svg, 44, 22, sheetPictureWidth - 96, 280);
    const auto shown = [&](double pa) { return inShownUnit(pa, Shows::Pressure, style.system); };
    double most = 0, slowest = 1e9, fastest = 0;
    for (const ForecastLine &l : assessment.forecast.lines)
        for (size_t i = 0; i < l.rpm.size(); ++i) {
            most = std::max(most, shown(l.gauge[i].high_pa));
            slowest = std::min(slowest, l.rpm[i]);
            fastest = std::max(fastest, l.rpm[i]);
        }
    const auto readings = standing(build.gaugeReadings);
    for (const GaugeReading *r : readings)
        most = std::max(most, shown(r->pressure_kpa * 1e3));
    plot.range(slowest, fastest, 0, most * 1.05);
    plot.xAxis(shownUnit(Shows::Speed, style.system));
    plot.yAxis(std::string(shownUnit(Shows::Pressure, style.system)) + " at the pressure gauge");
    const std::string_view tones[] = { "#3f6f94", Svg::oil, "#9e5a2f" };
    const std::string_view bands[] = { "#dfe8ef", Svg::band, "#f1e0d3" };
    double lastLabel = -1e9;
    for (size_t k = 0; k < assessment.forecast.lines.size() && k < 3; ++k) {
        const ForecastLine &l = assessment.forecast.lines[k];
        std::vector<Point> band, line;
        for (size_t i = 0; i < l.rpm.size(); ++i) {
            band.push_back(plot.at(l.rpm[i], shown(l.gauge[i].high_pa)));
            line.push_back(plot.at(l.rpm[i], shown(l.gauge[i].value_pa)));
        }
        for (size_t i = l.rpm.size(); i-- > 0;)
            band.push_back(plot.at(l.rpm[i], shown(l.gauge[i].low_pa)));
        svg.area(band, bands[k]);
        svg.polyline(line, tones[k], 1.8);
    }
    for (size_t k = 0; k < assessment.forecast.lines.size() && k < 3; ++k) {
        const ForecastLine &l = assessment.forecast.lines[k];
        // From the top down, apart from each other where the lines end together.
        const double y = std::max(plot.y(shown(l.gauge.back().value_pa)) + 4, lastLabel + 13);
        svg.text({ plot.right() + 8, y },
                 render({ "picture.oil", "oil {0}", { asTemperature(l.oil_c) } }, style), 11,
                 tones[k]);
        lastLabel = y;
    }
    const double floor = shown(build.use.hotIdleFloor_kpa * 1e3);
    svg.line(plot.at(slowest, floor), plot.at(fastest, floor), Svg::hold, 1, "5 4");
    svg.text({ plot.right() + 8, plot.y(floor) + 4 }, "minimum", 11, Svg::hold);
    for (const GaugeReading *r : readings)
        if (r->tap == build.gaugeTap && !r->byDrill && r->rpm >= slowest && r->rpm <= fastest)
            svg.circle(plot.at(r->rpm, shown(r->pressure_kpa * 1e3)), 4, "#ffffff", Svg::ink);
    return picture("Pressure forecast at the gauge",
                   readings.empty() ? "bands: likely range"
                                    : "bands: likely range; rings: read on the engine",
                   svg);
}

SheetPicture sharesPicture(const Assessment &assessment, const UnitStyle &style)
{
    std::vector<OilShare> shares;
    for (const OilShare &s : assessment.operating.hotIdle.shares)
        if (s.ofSwept >= 0.0005) // what the engine has not got goes without saying
            shares.push_back(s);
    if (shares.empty())
        return {};
    constexpr double row = 20;
    Svg svg(sheetPictureWidth, 8 + row * static_cast<double>(shares.size()));
    double most = 0.01;
    for (const OilShare &s : shares)
        most = std::max(most, s.ofSwept);
    for (size_t i = 0; i < shares.size(); ++i) {
        const double y = 4 + row * static_cast<double>(i);
        svg.text({ 4, y + 13 }, shares[i].name, 11);
        svg.rect({ 190, y + 3 }, 360 * shares[i].ofSwept / most, row - 7, Svg::oil);
        svg.text({ 590, y + 13 }, render(asShare(shares[i].ofSwept), style), 11, Svg::ink,
                 Svg::Anchor::End);
        svg.text({ 656, y + 13 }, render(asFlow(shares[i].flow_m3_s), style), 11, Svg::ink,
                 Svg::Anchor::End);
    }
    return picture("Where the oil goes at hot idle", "shares of what the pump sweeps", svg);
}

SheetPicture runPicture(const RunLog &run, const PrimeForecast &prime, double floor_pa,
                        const UnitStyle &style)
{
    const auto shown = [&](double pa) { return inShownUnit(pa, Shows::Pressure, style.system); };
    if (run.trace.size() < 2)
        return {};
    Svg svg(sheetPictureWidth, 250);
    Plot plot(svg, 44, 22, sheetPictureWidth - 30, 210);
    const bool priming = run.kind == "prime";
    const double last = std::max(1.0, run.trace.back().t_s);
    double most = shown(run.most_kpa * 1e3);
    if (priming)
        most = std::max(most, shown(prime.steady.high_pa));
    const bool minutes = last > 300;
    const double unit = minutes ? 60 : 1;
    plot.range(0, last / unit, 0, std::max(1.0, 1.1 * most));
    if (priming && prime.time.time_s) {
        std::vector<Point> band;
        constexpr int steps = 120;
        for (int i = 0; i <= steps; ++i)
            band.push_back(plot.at(last * i / steps, shown(prime.upper_pa(last * i / steps))));
        for (int i = steps; i >= 0; --i)
            band.push_back(plot.at(last * i / steps, shown(prime.lower_pa(last * i / steps))));
        svg.area(band, Svg::band);
    }
    plot.xAxis(minutes ? "minutes" : "seconds");
    plot.yAxis(shownUnit(Shows::Pressure, style.system));
    if (!priming) {
        svg.line(plot.at(0, shown(floor_pa)), plot.at(last / unit, shown(floor_pa)), Svg::hold, 1,
                 "5 4");
    }
    std::vector<Point> line;
    for (const RunPoint &p : run.trace)
        if (p.pressure_kpa)
            line.push_back(plot.at(p.t_s / unit, shown(*p.pressure_kpa * 1e3)));
    svg.polyline(line, Svg::ink, 1.3);
    for (const RunMark &m : run.marks) {
        svg.line(plot.at(m.t_s / unit, 0), { plot.x(m.t_s / unit), plot.top() }, Svg::selection,
                 0.8, "2 3");
        svg.text({ plot.x(m.t_s / unit) + 3, plot.top() + 10 }, m.text, 10, Svg::selection);
    }
    const std::string title = priming ? "Priming" : run.kind == "start" ? "First start" : "Run";
    return picture(title + ", " + dayText(run.at),
                   priming ? "band: likely range" : "dashed: minimum for hot idle", svg);
}

std::vector<SheetPicture> sheetPictures(const Build &build, const Assessment &assessment,
                                        const UnitStyle &style)
{
    std::vector<SheetPicture> out;
    const auto add = [&](SheetPicture p) {
        if (!p.svg.empty())
            out.push_back(std::move(p));
    };
    if (const auto residuals = residualsOf(build, assessment.sizes))
        add(readAgainstPicture(*residuals, style));
    add(sizesPicture(assessment, style));
    add(plugsPicture(build, assessment));
    for (const FamilySummary &f : assessment.families)
        add(clearancePicture(build, assessment, f.family, style));
    add(forecastPicture(build, assessment, style));
    add(sharesPicture(assessment, style));
    const PrimeForecast prime = primeForecast(build, assessment);
    for (const RunLog *r : standing(build.runs))
        add(runPicture(*r, prime, build.use.hotIdleFloor_kpa * 1e3, style));
    return out;
}

} // namespace mildpath
