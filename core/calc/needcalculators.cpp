// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "circuit/need.h"
#include "quantity/types.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

constexpr std::array needInputs {
    CalcInput { .key = "kind",
                .meaning = "what is fed",
                .unit = "",
                .kind = CalcKind::Text,
                .choices = "main|big_end|cam_bearing|rocker|lifter|tensioner|phaser|chain|turbo|"
                           "balance_shaft" },
    positive("rpm", "speed of the crankshaft", "rev/min"),
    positive("hot_idle_rpm", "hot idle", "rev/min"),
    positive("most_rpm", "highest speed", "rev/min"),
    optional(notNegative("floor_kpa", "the user's own minimum at hot idle", "kPa"), 70),
    optional(notNegative("crank_need_kpa", "what its crank drilling takes at this speed", "kPa"),
             0),
    CalcInput { .key = "ball_bearing",
                .meaning = "a turbocharger on ball bearings",
                .unit = "",
                .kind = CalcKind::Boolean,
                .required = false },
    optional(
        positive("peak_kpa", "full-load peak in the cylinder, of a turbocharged engine", "kPa")),
};
constexpr std::array needOutputs {
    CalcOutput { "need_kpa", "pressure needed at the feed; null: none", "kPa" },
    CalcOutput { "need_l_min", "oil needed by one of them; null: any", "l/min" },
    CalcOutput { "reason", "what decides", "" },
};

/// The load on a turbocharger's bearings against that of the usual full load (own choice).
double loadFactor(double peak_kpa)
{
    constexpr double usual_kpa = 6500, fixed = 0.7, least = 0.75, most = 1.2;
    return std::clamp(fixed + (1 - fixed) * peak_kpa / usual_kpa, least, most);
}

Result<Json> runNeed(const CalcArguments &in)
{
    const double idle_rpm = in.number("hot_idle_rpm"), most_rpm = in.number("most_rpm");
    if (!(idle_rpm < most_rpm))
        return fail("most_rpm", "must be above hot idle");
    const auto kind = fromWord<StopKind>(in.text("kind"));
    const bool ball = in.boolean("ball_bearing");
    if (ball && *kind != StopKind::Turbo)
        return fail("ball_bearing", "belongs to a turbocharger");
    StopNeed need = ball ? ballBearingTurboNeed() : *stopNeed(*kind);
    if (in.has("peak_kpa")) {
        if (*kind != StopKind::Turbo)
            return fail("peak_kpa", "belongs to a turbocharger");
        need.most_pa *= loadFactor(in.number("peak_kpa"));
    }
    const double rpm = in.number("rpm"), floor_pa = in.kpa("floor_kpa");
    double pa = needAt_pa(need, rpm, idle_rpm, most_rpm, floor_pa);
    const char *reason = need.atLeastFloor ? "the user's minimum" : "by speed, for its kind";
    if (need.atLeastFloor && in.kpa("crank_need_kpa") > pa) {
        pa = in.kpa("crank_need_kpa");
        reason = "what the crank drilling takes";
    }
    const double l_min = needFlowAt_m3_s(need, rpm, idle_rpm, most_rpm) * litresPerMinute;
    return Json { { "need_kpa", pa > 0 ? Json(pa / 1e3) : Json() },
                  { "need_l_min", l_min > 0 ? Json(l_min) : Json() },
                  { "reason", pa > 0 ? reason : "an oil flow, no pressure of its own" } };
}

} // namespace

const Calculator stopNeedCalculator {
    "stop-need",
    "What a fed part needs",
    "Least pressure, and of some the oil flow, at a part's feed at a speed",
    "need(n) = idle + (most − idle) · clip((n − n_idle)/(n_most − n_idle), 0, 1);  bearings of "
    "crank and rods: max(minimum, crank drilling);  turbocharger: most × clip(0.7 + 0.3 p/6500, "
    "0.75, 1.2)",
    "common practice, no source; the load factor is an own choice",
    needInputs,
    needOutputs,
    runNeed
};

} // namespace mildpath
