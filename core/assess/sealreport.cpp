// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/sealreport.h"

#include "assess/oilreport.h"
#include "assess/rules.h"
#include "document/dimensions.h"
#include "evidence/sealing.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace mildpath {
namespace {

bool near(const std::optional<double> &a, const std::optional<double> &b, double share)
{
    return a.has_value() == b.has_value() && (!a || std::abs(*a - *b) <= share * std::abs(*a));
}

bool alike(const SealPair &p, const SealCheck &c)
{
    constexpr double speed = 0.02, load = 5;
    return p.kind == c.kind && near(p.rpm, c.rpm, speed)
        && std::abs(p.load_percent - c.load_percent) <= load
        && (c.kind != "vacuum"
            || (near(p.pump_rpm, c.pump_rpm, speed) && near(p.relief_kpa, c.relief_kpa, speed)));
}

double normalised(const Build &build, const SealCheck &c)
{
    if (c.kind == "vacuum")
        return c.value;
    return 100
        * blowByFraction(blowByAtReference_l_min(c.value, c.gas_c, c.gas_kpa),
                         displacement_l(build.engine), c.rpm);
}

void judge(const Build &build, SealPair &p)
{
    if (p.before.values.empty() || p.after.values.empty()) {
        p.verdict = p.before.values.empty() ? "nothing read before at this speed and load"
                                            : "nothing read after at this speed and load";
        return;
    }
    const double before = p.before.mean(), after = p.after.mean();
    p.change = after - before;
    const auto own = [&](const SealMean &m) {
        return m.scatter().value_or(
            m.mean() * *valueOf(build.after.values, afterKeys(), "seal_scatter_percent") / 100);
    };
    p.scatter = std::hypot(own(p.before), own(p.after));
    p.counts = std::abs(*p.change) > p.scatter;
    const bool better = p.kind == "vacuum" ? *p.change > 0 : *p.change < 0;
    p.mark = !p.counts || better ? Mark::Proven : Mark::LookAgain;
    const auto shown = [&](double v) {
        return p.kind == "vacuum" ? Quantity { v * 1e3, Shows::CasePressure, 0, 1 }
                                  : asShare(v / 100, 2);
    };
    p.verdict = { "seal.change",
                  !p.counts    ? "{0} → {1}: no more than the readings scatter ({2})"
                      : better ? "{0} → {1}: seals better"
                               : "{0} → {1}: seals worse",
                  { shown(before), shown(after), shown(p.scatter) } };
    if (p.kind == "vacuum" && p.counts)
        append(p.verdict,
               *p.change > 0 ? "less blow-by or a tighter case, vacuum cannot tell which"
                             : "more blow-by or a leak into the case");
}

/// Fuel in the oil rising while the vacuum falls.
bool fuelRises(const Build &build)
{
    std::vector<double> fuel;
    const OilReport oil = reportOil(build);
    for (const JudgedSample &j : oil.samples)
        for (const OilSample &s : build.oilSamples)
            if (s.id == j.id && s.fuel_percent)
                fuel.push_back(*s.fuel_percent);
    return fuel.size() > 1 && fuel.back() > fuel[fuel.size() - 2];
}

} // namespace

double SealMean::mean() const
{
    return std::accumulate(values.begin(), values.end(), 0.0)
        / static_cast<double>(std::max<size_t>(1, values.size()));
}

std::optional<double> SealMean::scatter() const
{
    if (values.size() < 2)
        return std::nullopt;
    double squares = 0;
    for (const double v : values)
        squares += (v - mean()) * (v - mean());
    return std::sqrt(squares / static_cast<double>(values.size() - 1));
}

SealReport reportSeal(const Build &build)
{
    SealReport out;
    for (const SealCheck *c : standing(build.sealChecks)) {
        if (c->kind == "blow_by" && !(displacement_l(build.engine) > 0)) {
            out.remarks.push_back("blow-by needs the engine's displacement");
            break;
        }
        auto it = std::ranges::find_if(out.pairs, [&](const SealPair &p) { return alike(p, *c); });
        if (it == out.pairs.end()) {
            out.pairs.push_back({ .kind = c->kind,
                                  .rpm = c->rpm,
                                  .load_percent = c->load_percent,
                                  .pump_rpm = c->pump_rpm,
                                  .relief_kpa = c->relief_kpa,
                                  .before = {},
                                  .after = {} });
            it = out.pairs.end() - 1;
        }
        (c->phase == "before" ? it->before : it->after).values.push_back(normalised(build, *c));
    }
    std::ranges::stable_sort(out.pairs, [](const SealPair &a, const SealPair &b) {
        return std::tie(a.kind, a.rpm, a.load_percent) < std::tie(b.kind, b.rpm, b.load_percent);
    });
    bool vacuumFell = false;
    for (SealPair &p : out.pairs) {
        judge(build, p);
        vacuumFell = vacuumFell || (p.kind == "vacuum" && p.counts && *p.change < 0);
    }
    if (vacuumFell && fuelRises(build))
        out.remarks.push_back("Fuel in the oil rises while the vacuum falls: that points at the "
                              "film on the wall, not at the rings alone");
    return out;
}

} // namespace mildpath
