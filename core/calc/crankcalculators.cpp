// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/crankfeed.h"
#include "bearing/feed.h"
#include "bearing/filmtable.h"
#include "bearing/warmfilm.h"
#include "calc/inputs.h"
#include "circuit/hydraulics.h"
#include "oil/viscosity.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <array>

namespace mildpath {
namespace {

constexpr CalcInput fromMinus100(std::string_view key, std::string_view meaning)
{
    return { .key = key, .meaning = meaning, .unit = "kPa", .required = false, .least = -100 };
}
constexpr CalcInput mouth(std::string_view key, std::string_view meaning)
{
    return { .key = key,
             .meaning = meaning,
             .unit = "mm",
             .kind = CalcKind::Numbers,
             .required = false,
             .least = -1000,
             .most = 1000 };
}

constexpr std::array crankFeedInputs {
    notNegative("speed_rpm", "speed", "rev/min"),
    length("main_radius_mm", "radius of the main journal"),
    optional(positive("density_kg_m3", "density of the oil", "kg/m³"), 850),
    optional(
        notNegative("r_min_mm", "nearest the drilling comes to the axis; 0: through it", "mm")),
    mouth("main_hole_xy_mm", "mouth at the main, axis at 0, 0"),
    mouth("pin_hole_xy_mm", "mouth at the pin"),
    optional(notNegative("pin_exit_radius_mm", "radius of the mouth at the pin", "mm")),
    fromMinus100("keep_kpa", "pressure to be kept where the drilling is nearest the axis"),
    fromMinus100("main_kpa", "pressure at the main"),
    CalcInput { .key = "groove",
                .meaning = "how the main hands the oil over",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "none|partial|full|journal" },
    optional(length("drilling_diameter_mm", "bore of the crank's drilling")),
    optional(length("feed_hole_diameter_mm", "feed hole of an ungrooved shell")),
    within(optional(positive("groove_angle_deg", "arc of a partial groove", "°"), 180), 0, 360),
    CalcInput { .key = "entries",
                .meaning = "entries joined inside the journal",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 2 },
};
constexpr std::array crankFeedOutputs {
    CalcOutput { "r_min_mm", "nearest the drilling comes to the axis", "mm" },
    CalcOutput { "required_main_kpa", "pressure at the main the column needs", "kPa" },
    CalcOutput { "rule_of_thumb_kpa", "10 psi per 1 000 rev/min, common practice", "kPa" },
    CalcOutput { "pin_fed", "whether the column stands; with main_kpa", "" },
    CalcOutput { "pin_pressure_kpa", "at the pin; null when not fed or not asked", "kPa" },
    CalcOutput { "feed_fraction", "share of a turn that is fed; with groove", "" },
};

Result<std::optional<std::array<double, 2>>> mouthOf(const CalcArguments &in, const char *key)
{
    const auto xy = in.numbers(key);
    if (!in.has(key))
        return std::nullopt;
    if (xy.size() != 2)
        return fail(key, "must be two numbers, x and y");
    return std::array { xy[0] * 1e-3, xy[1] * 1e-3 };
}

Result<double> feedShare(const CalcArguments &in, double radius_m)
{
    const std::string groove = in.text("groove");
    const auto needed = [&](const char *key) -> Result<double> {
        const auto v = in.optionalNumber(key);
        if (!v)
            return fail(key, "is needed with groove \"" + groove + "\"");
        return *v * 1e-3;
    };
    FeedGroove kind = groove == "full" ? FeedGroove::Full
        : groove == "journal"          ? FeedGroove::Journal
        : groove == "partial"          ? FeedGroove::Partial
                                       : FeedGroove::None;
    double drilling = 0, hole = 0;
    if (kind == FeedGroove::Partial || kind == FeedGroove::None) {
        const auto d = needed("drilling_diameter_mm");
        if (!d)
            return d;
        drilling = *d;
    }
    if (kind == FeedGroove::None) {
        const auto d = needed("feed_hole_diameter_mm");
        if (!d)
            return d;
        hole = *d;
    }
    return feedFraction(kind, in.number("groove_angle_deg"), radius_m, drilling, hole,
                        static_cast<int>(in.number("entries")));
}

Result<Json> runCrank(const CalcArguments &in)
{
    const double R = in.mm("main_radius_mm"), omega = radPerSecond(in.number("speed_rpm"));
    const double rho = in.number("density_kg_m3");
    const auto main = mouthOf(in, "main_hole_xy_mm"), pin = mouthOf(in, "pin_hole_xy_mm");
    if (!main || !pin)
        return tl::unexpected(main ? pin.error() : main.error());
    if (main->has_value() != pin->has_value())
        return fail(*main ? "pin_hole_xy_mm" : "main_hole_xy_mm", "both mouths are needed");
    if (*main && in.has("r_min_mm"))
        return fail("r_min_mm", "follows from the two mouths: give one or the other");
    double nearest = in.optionalNumber("r_min_mm").value_or(0) * 1e-3;
    auto exit = in.optionalNumber("pin_exit_radius_mm");
    if (exit)
        *exit *= 1e-3;
    if (*main) {
        nearest = nearestToAxis_m(**main, **pin);
        if (!exit)
            exit = std::hypot((**pin)[0], (**pin)[1]);
    }
    if (!(nearest <= R))
        return fail("r_min_mm", "cannot be more than the main's radius");
    const double keep = in.optionalNumber("keep_kpa").value_or(0) * 1e3;
    const double required = crankFeedRequired_pa(rho, omega, R, nearest, keep);
    Json out = { { "r_min_mm", nearest * 1e3 },
                 { "required_main_kpa", required / 1e3 },
                 { "rule_of_thumb_kpa", crankRuleOfThumb_pa(in.number("speed_rpm")) / 1e3 } };
    if (const auto given = in.optionalNumber("main_kpa")) {
        const bool fed = *given * 1e3 >= required;
        out["pin_fed"] = fed;
        out["pin_pressure_kpa"] = fed && exit
            ? Json(crankPinPressure_pa(rho, omega, R, *exit, *given * 1e3) / 1e3)
            : Json();
    }
    if (in.has("groove")) {
        const auto share = feedShare(in, R);
        if (!share)
            return tl::unexpected(share.error());
        out["feed_fraction"] = *share;
    }
    return out;
}

constexpr std::array heatInputs {
    length("journal_diameter_mm", "journal diameter"),
    length("length_mm", "length of the bearing"),
    positive("diametral_clearance_um", "diametral clearance, running", "µm"),
    positive("speed_rpm", "speed", "rev/min"),
    positive("load_n", "steady load", "N"),
    temperature("oil_inlet_c", "oil that comes in"),
    positive("viscosity_40_mm2_s", "kinematic viscosity at 40 °C", "mm²/s"),
    within(notNegative("viscosity_100_mm2_s", "kinematic viscosity at 100 °C", "mm²/s"), 1, 1e12),
    optional(positive("density_kg_m3", "density, taken as constant", "kg/m³"), 850),
    optional(positive("specific_heat_j_kg_k", "specific heat", "J/(kg K)"), 2000),
    optional(positive("flow_l_min", "oil that leaves; the side leakage unless given", "l/min")),
    within(optional(notNegative("temp_weight", "film above inlet, of the oil's rise", ""), 0.8), 0,
           1),
    within(optional(notNegative("heat_to_oil_fraction", "share of the loss the oil takes", ""), 1),
           0, 1),
};
constexpr std::array heatOutputs {
    CalcOutput { "effective_temp_c", "of the film", "°C" },
    CalcOutput { "effective_viscosity_pa_s", "of the film", "Pa·s" },
    CalcOutput { "oil_rise_k", "of the oil that leaves", "K" },
    CalcOutput { "oil_outlet_c", "of the oil that leaves", "°C" },
    CalcOutput { "power_w", "loss at the effective viscosity", "W" },
    CalcOutput { "petroff_power_w", "loss of a centred journal", "W" },
    CalcOutput { "flow_l_min", "oil that leaves", "l/min" },
    CalcOutput { "eccentricity_ratio", "eccentricity over radial clearance", "" },
    CalcOutput { "min_film_um", "smallest film", "µm" },
};

/// One bearing with all that its balance turns on.
struct Balance
{
    LoadedBearing bearing;
    WaltherLine line;
    double rho, heat, weight, share, inlet_c;
    std::optional<double> flow_m3_s;
    FilmLine film;

    struct State
    {
        FilmPoint film;
        double viscosity_pa_s, loss_w, petroff_w, flow_m3_s, rise_k;
    };
    State at(double film_c)
    {
        State out {};
        const double r = bearing.journalDiameter_m / 2, c = bearing.clearance.value_m / 2;
        const double omega = radPerSecond(bearing.speed_rpm);
        out.viscosity_pa_s = rho * kinematicViscosity_mm2_s(line, { film_c }) * 1e-6;
        bearing.viscosity_pa_s = out.viscosity_pa_s;
        out.film = film.at(std::log(sommerfeldNumber(bearing)));
        out.petroff_w
            = 2 * pi * out.viscosity_pa_s * omega * omega * r * r * r * bearing.length_m / c;
        out.loss_w = out.film.frictionOverPetroff * out.petroff_w;
        out.flow_m3_s = flow_m3_s.value_or(out.film.sideFlow * r * c * bearing.speed_rpm / 60
                                           * bearing.length_m);
        out.rise_k = share * out.loss_w / (rho * heat * out.flow_m3_s);
        return out;
    }
};

Result<Json> runHeat(const CalcArguments &in)
{
    const auto line
        = waltherLine(in.number("viscosity_40_mm2_s"), in.number("viscosity_100_mm2_s"));
    if (!line)
        return fail("viscosity_100_mm2_s", line.error().message);
    const auto given = in.optionalNumber("flow_l_min");
    const LoadedBearing b { .journalDiameter_m = in.mm("journal_diameter_mm"),
                            .length_m = in.mm("length_mm"),
                            .clearance = { in.um("diametral_clearance_um") },
                            .viscosity_pa_s = 1,
                            .speed_rpm = in.number("speed_rpm"),
                            .load_n = in.number("load_n") };
    Balance balance { b,
                      *line,
                      in.number("density_kg_m3"),
                      in.number("specific_heat_j_kg_k"),
                      in.number("temp_weight"),
                      in.number("heat_to_oil_fraction"),
                      in.number("oil_inlet_c"),
                      given ? std::optional(*given / litresPerMinute) : std::nullopt,
                      FilmLine(b.length_m / b.journalDiameter_m) };
    const auto miss = [&](double film_c) {
        return balance.inlet_c + balance.weight * balance.at(film_c).rise_k - film_c;
    };
    double film_c = balance.inlet_c;
    constexpr double most_c = 300; // of the viscosity's law
    if (miss(film_c) > 0) {
        if (miss(most_c) > 0)
            return fail("load_n",
                        "the oil would pass 300 C: the film cannot carry its own heat off");
        std::uintmax_t tries = 100;
        const auto root = boost::math::tools::toms748_solve(
            miss, film_c, most_c, boost::math::tools::eps_tolerance<double>(40), tries);
        film_c = (root.first + root.second) / 2;
    }
    const auto s = balance.at(film_c);
    if (!s.film.carried)
        return fail("load_n", "no film carries this load: the eccentricity would pass 0.99");
    return Json { { "effective_temp_c", film_c },
                  { "effective_viscosity_pa_s", s.viscosity_pa_s },
                  { "oil_rise_k", s.rise_k },
                  { "oil_outlet_c", balance.inlet_c + s.rise_k },
                  { "power_w", s.loss_w },
                  { "petroff_power_w", s.petroff_w },
                  { "flow_l_min", s.flow_m3_s * litresPerMinute },
                  { "eccentricity_ratio", s.film.eccentricityRatio },
                  { "min_film_um",
                    b.clearance.value_m / 2 * (1 - s.film.eccentricityRatio) * 1e6 } };
}

} // namespace

const Calculator crankFeedCalculator {
    "crank-feed-pressure",
    "Feed into the crank",
    "Pressure a main must have for oil to enter the crank against centrifugal force",
    "p = ½ ρ ω² (R² − r_min²) + keep;  pin: p_main + ½ ρ ω² (r_exit² − R²)",
    "rotating column, textbook, pipe friction left out; 10 psi per 1 000 rev/min is common "
    "practice, "
    "no source: the need grows with the square of the speed",
    crankFeedInputs,
    crankFeedOutputs,
    runCrank
};

const Calculator bearingHeatCalculator {
    "bearing-heat",
    "Warmth of a bearing",
    "How warm a film runs and what it costs, by the balance of its loss and its oil",
    "ρ cp Q ΔT = share · loss;  T_film = T_in + k ΔT",
    "film as bearing-film (table within 0.03 % of the solver); k = 0.8 after Cameron, as in "
    "Stachowiak and Batchelor, Engineering Tribology, from memory",
    heatInputs,
    heatOutputs,
    runHeat
};

} // namespace mildpath
