// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/summarypictures.h"

#include "checks/assessment.h"
#include "document/logbook.h"
#include "quantity/rounding.h"
#include "report/pictures.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double nameLeft = 22, markAt = 10;

/// The sizes of a family that have limits.
std::vector<const GaugedSize *> limited(const Assessment &assessment, const std::string &family)
{
    std::vector<const GaugedSize *> out;
    for (const GaugedSize &s : assessment.sizes)
        if (s.family == family && s.known && s.limits && s.limits->max_um > s.limits->min_um)
            out.push_back(&s);
    return out;
}

} // namespace

SheetPicture sizesPicture(const Assessment &assessment, const UnitStyle &style)
{
    std::vector<std::pair<const Family *, std::vector<const GaugedSize *>>> rows;
    for (const FamilySummary &f : assessment.families)
        if (auto sizes = limited(assessment, f.family); !sizes.empty())
            rows.emplace_back(findFamily(f.family), std::move(sizes));
    if (rows.empty())
        return {};
    constexpr double row = 20, top = 14, left = 180, right = sheetPictureWidth - 190, height = 12;
    Svg svg(sheetPictureWidth, top + row * static_cast<double>(rows.size()) + 4);
    svg.text({ left, top - 4 }, "least", 9, Svg::muted, Svg::Anchor::Middle);
    svg.text({ right, top - 4 }, "most", 9, Svg::muted, Svg::Anchor::Middle);
    svg.text({ sheetPictureWidth - 2, top - 4 },
             std::string("limits, ") + std::string(shownUnit(Shows::Clearance, style.system)), 9,
             Svg::muted, Svg::Anchor::End);
    for (size_t i = 0; i < rows.size(); ++i) {
        const auto &[family, sizes] = rows[i];
        const double y = top + row * (static_cast<double>(i) + 0.5);
        Mark worst = Mark::NotAsked;
        double least = INFINITY, most = -INFINITY;
        svg.rect({ left, y - height / 2 }, right - left, height, Svg::inside);
        for (const double edge : { left, right })
            svg.line({ edge, y - height / 2 }, { edge, y + height / 2 }, Svg::proven, 1.2);
        for (size_t k = 0; k < sizes.size(); ++k) {
            const GaugedSize &s = *sizes[k];
            worst = worse(worst, s.mark);
            least = std::min(least, s.cold_um.value);
            most = std::max(most, s.cold_um.value);
            const double span = s.limits->max_um - s.limits->min_um;
            // A little past either limit; what lies farther stands at the edge of the picture.
            const auto x = [&](double um) {
                return left
                    + std::clamp((um - s.limits->min_um) / span, -0.12, 1.12) * (right - left);
            };
            const double u = 2 * s.cold_um.standardUncertainty;
            // Many alike are spread over the height of their row.
            const double spread = sizes.size() < 2
                ? 0
                : (static_cast<double>(k) / static_cast<double>(sizes.size() - 1) - 0.5)
                    * (height - 3);
            const std::string_view tone = s.mark == Mark::Hold ? Svg::hold
                : s.mark == Mark::LookAgain                    ? Svg::lookAgain
                                                               : Svg::ink;
            if (s.measured) {
                svg.line({ x(s.cold_um.value - u), y + spread },
                         { x(s.cold_um.value + u), y + spread }, tone, 0.9);
                svg.circle({ x(s.cold_um.value), y + spread }, 2.4, tone);
            } else {
                svg.circle({ x(s.cold_um.value), y + spread }, 2.4, "#ffffff", Svg::muted);
            }
        }
        svg.mark({ markAt, y }, 11, worst);
        svg.text({ nameLeft, y + 4 }, family->plural, 10.5, Svg::ink);
        const GaugedSize &first = *sizes.front();
        const auto number = [&](double um) {
            const double shown = inShownUnit(um * 1e-6, Shows::Clearance, style.system);
            return formatNumber(shown, style.system == UnitSystem::Imperial ? 2 : 0);
        };
        const std::string range
            = least == most ? number(least) : number(least) + " to " + number(most);
        svg.text({ right + 96, y + 4 }, range, 10.5, Svg::ink, Svg::Anchor::End, true);
        svg.text({ sheetPictureWidth - 2, y + 4 },
                 number(first.limits->min_um) + " to " + number(first.limits->max_um), 10.5,
                 Svg::muted, Svg::Anchor::End);
    }
    return picture("Every size between its limits",
                   "dot and line: value ± U (k = 2); ring: assumed", svg);
}

SheetPicture readAgainstPicture(const std::vector<Residual> &residuals, const UnitStyle &style)
{
    if (residuals.empty())
        return {};
    constexpr size_t mostRows = 8;
    const size_t n = std::min(mostRows, residuals.size());
    const size_t first = residuals.size() - n; // the last ones
    constexpr double row = 20, top = 6, left = 250, right = sheetPictureWidth - 150, height = 12;
    const auto shown = [&](double pa) { return inShownUnit(pa, Shows::Pressure, style.system); };
    double most = 0.1;
    for (size_t i = first; i < residuals.size(); ++i)
        most = std::max({ most, shown(residuals[i].expected.high_pa),
                          shown(residuals[i].reading->pressure_kpa * 1e3) });
    const auto x = [&](double value) { return left + value / (1.05 * most) * (right - left); };
    Svg svg(sheetPictureWidth, top + row * static_cast<double>(n) + 20);
    const double bottom = top + row * static_cast<double>(n);
    const double step = most > 40 ? 20 : most > 4 ? 1 : 0.5;
    for (double v = 0; v <= 1.05 * most; v += step) {
        svg.line({ x(v), top }, { x(v), bottom }, Svg::hairline, 0.6);
        svg.text({ x(v), bottom + 12 }, formatNumber(v, step < 1 ? 1 : 0), 9, Svg::muted,
                 Svg::Anchor::Middle);
    }
    svg.text({ right, bottom + 12 }, shownUnit(Shows::Pressure, style.system), 9, Svg::muted);
    for (size_t i = first; i < residuals.size(); ++i) {
        const Residual &r = residuals[i];
        const double y = top + row * (static_cast<double>(i - first) + 0.5);
        svg.mark({ markAt, y }, 11, r.mark);
        svg.text({ nameLeft, y + 4 },
                 render({ "picture.read_at",
                          "{0}, {1}",
                          { turnedText(r.reading->rpm, r.reading->byDrill),
                            asTemperature(r.reading->oil_c) } },
                        style),
                 10.5, Svg::ink);
        const double low = x(shown(r.expected.low_pa)), high = x(shown(r.expected.high_pa));
        svg.rect({ low, y - height / 2 }, high - low, height, Svg::inside);
        for (const double edge : { low, high })
            svg.line({ edge, y - height / 2 }, { edge, y + height / 2 }, Svg::proven, 1.2);
        svg.circle({ x(shown(r.reading->pressure_kpa * 1e3)), y }, 3.4, Svg::ink);
        svg.text({ sheetPictureWidth - 2, y + 4 },
                 render({ "picture.read_of",
                          "{0} of {1}",
                          { asPressure(r.reading->pressure_kpa * 1e3),
                            QuantityRange { asPressure(r.expected.low_pa),
                                            asPressure(r.expected.high_pa) } } },
                        style),
                 10.5, Svg::ink, Svg::Anchor::End);
    }
    return picture("Read against forecast", "green: nine builds in ten; dot: read", svg);
}

SheetPicture plugsPicture(const Build &build, const Assessment &assessment)
{
    const auto &plugs = assessment.cleaning.plugs;
    if (plugs.empty() && assessment.cleaning.passages.empty())
        return {};
    constexpr size_t perRow = 16;
    constexpr double each = sheetPictureWidth / perRow, high = 32;
    const size_t rows = (plugs.size() + perRow - 1) / perRow;
    Svg svg(sheetPictureWidth, high * static_cast<double>(rows) + 20);
    for (size_t i = 0; i < plugs.size(); ++i) {
        const Plug *plug = findPlug(build.plugs, plugs[i].plug);
        const double cx = each * (static_cast<double>(i % perRow) + 0.5);
        const double y = high * static_cast<double>(i / perRow) + 9;
        svg.mark({ cx, y }, 11,
                 worstAsked(assessment.checks, { "plugin", "plugseen" }, plugs[i].plug));
        const std::string name = plug ? plug->name : plugs[i].plug;
        constexpr size_t most = 8;
        svg.text({ cx, y + 17 }, name.size() > most ? plug->id : name, 9,
                 plug && plug->hidden() ? Svg::ink : Svg::muted, Svg::Anchor::Middle,
                 plug && plug->hidden());
    }
    int asked = 0, clean = 0;
    for (const Check &c : assessment.checks.all())
        if (c.asked && c.kind->id == "clean") {
            ++asked;
            clean += c.state == CheckState::Proven;
        }
    svg.text({ 4, svg.height() - 6 },
             std::to_string(clean) + " of " + std::to_string(asked)
                 + " passages brushed white or flushed clear, far end seen",
             10.5, Svg::ink);
    return picture("Plugs in and seen, passages seen through", "bold: hidden behind another", svg);
}

} // namespace mildpath
