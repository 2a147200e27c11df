// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/air.h"

#include "quantity/json.h"

#include <cmath>

namespace mildpath {
namespace {

Json number(double v, int decimals = 2)
{
    const double scale = std::pow(10, decimals);
    return std::round(v * scale) / scale;
}
Json orNull(const std::optional<double> &v, double scale, int decimals)
{
    return v ? number(*v * scale, decimals) : Json();
}

Json windowJson(const FillWindow &w)
{
    return { { "fill_min_l", number(w.least_m3 * 1e3, 3) },
             { "fill_max_l", number(w.most_m3 * 1e3, 3) },
             { "feasible", w.feasible() } };
}

} // namespace

Json airToJson(const AirReport &air)
{
    Json out { { "overall_state", airStateWord(air.overall) } };
    if (air.problem)
        out["problem"] = { { "place", air.problem->place }, { "reason", air.problem->message } };
    out["rows"] = Json::array();
    for (const AirRow &r : air.rows)
        out["rows"].push_back({ { "id", r.id },
                                { "name", r.name },
                                { "state", airStateWord(r.state) },
                                { "contribution", r.contribution },
                                { "quantity", r.quantity },
                                { "reason", r.reason },
                                { "remedy", r.remedy } });
    out["levels"] = Json::array();
    for (const AirLevel &l : air.levels)
        out["levels"].push_back({ { "id", l.id },
                                  { "volume_l", number(l.volume_m3 * 1e3, 3) },
                                  { "level_mm", number(l.level_m * 1e3, 2) },
                                  { "note", l.note } });
    out["held"] = Json::array();
    for (const HeldOil &h : air.held)
        out["held"].push_back({ { "id", h.id },
                                { "volume_l", orNull(h.volume_m3, 1e3, 3) },
                                { "at_rest", h.still },
                                { "why", h.why } });
    out["cases"] = Json::array();
    for (const AirCase &c : air.cases)
        out["cases"].push_back({ { "id", c.id },
                                 { "section", c.way == PanWay::Along ? "along" : "across" },
                                 { "accel_g", c.accel_g },
                                 { "incline_deg", number(c.incline_rad * 180 / pi, 3) },
                                 { "submergence_mm", number(c.submergence_m * 1e3, 2) },
                                 { "dip_limit_mm", number(c.wanted.dip_m * 1e3, 2) },
                                 { "required_mm", number(c.wanted.required_m * 1e3, 2) },
                                 { "crank_clearance_mm",
                                   c.clearance_m < 1e6 ? number(c.clearance_m * 1e3, 2) : Json() },
                                 { "allowance_mm", number(c.wind.allowance_m * 1e3, 2) },
                                 { "uncovers_g", orNull(c.uncovers_g, 1, 3) } });
    if (air.window) {
        out["fill_window"] = windowJson(*air.window);
        out["fill_window"]["limiting_min"] = air.leastName;
        out["fill_window"]["limiting_max"] = air.mostName;
    }
    if (air.edge)
        out["fill_edge"] = windowJson(*air.edge);
    return out;
}

std::string airText(const AirReport &air, const UnitStyle &style)
{
    std::string out = "Air: " + std::string(airStateWord(air.overall)) + "\n";
    if (air.problem)
        out += render({ "", "  {0} ({1})\n", { air.problem->message, air.problem->place } }, style);
    for (const AirRow &r : air.rows) {
        out += "  " + std::string(airStateWord(r.state));
        out += std::string(r.state == AirState::Unknown ? 2 : 9 - airStateWord(r.state).size(),
                           ' ');
        const Phrase said = named(r.name, joinedBy({ r.quantity, r.reason }, "{*|; }"));
        out += render(joinedBy({ said, r.remedy }, "{*|. }"), style) + "\n";
    }
    if (air.window)
        out += "  "
            + render({ "fill.window",
                       air.window->feasible()
                           ? "fill {0} ({1}) to {2} ({3})"
                           : "fill {0} ({1}) to {2} ({3}): no fill works for both",
                       { asVolume(air.window->least_m3 * 1e3), air.leastName,
                         asVolume(air.window->most_m3 * 1e3), air.mostName } },
                     style)
            + "\n";
    return out;
}

} // namespace mildpath
