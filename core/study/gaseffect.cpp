// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/gaseffect.h"

#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "rules/rules.h"
#include "sump/gas.h"

namespace mildpath {

CircuitChange withGas(double share)
{
    return [share](Circuit &circuit, Oil &) -> Result<void> {
        if (!(share >= 0 && share <= mostGasShare))
            return fail("share", "must be 0 to " + formatPlain(mostGasShare, 1));
        for (Element &e : circuit.elements)
            if (e.kind == ElementKind::Pump) {
                e.values["suction_air_fraction"] = share;
                return {};
            }
        return fail("pump", "there is no pump");
    };
}

Result<GasEffect> gasEffect(const Build &build, const std::vector<GaugedSize> &sizes,
                            const Operating &now, double share)
{
    auto with = OperatingModel::make(build, sizes, build.use.hotOil_c, withGas(share));
    if (!with)
        return tl::unexpected(with.error());
    const auto fast = with->at(build.use.highSpeed_rpm);
    if (!fast)
        return tl::unexpected(fast.error());
    const auto idle = with->at(build.use.hotIdle_rpm);
    if (!idle)
        return tl::unexpected(idle.error());
    GasEffect out {
        share, now.hotIdle.gauge, idle->gauge, now.highSpeed.gauge, fast->gauge, 0, 0, 1, 1
    };
    out.flowBefore_m3_s = now.highSpeed.pumpFlow_m3_s;
    out.flowAfter_m3_s = fast->pumpFlow_m3_s;
    const AbsolutePressure inlet { atmosphere_pa }, gauge { atmosphere_pa + fast->gauge.value_pa };
    const double rho = build.oil.oil.rho15_kg_m3, hot = build.use.hotOil_c;
    out.stiffness = aeratedOil(share, inlet, 1, oilModulus_pa, rho, hot).modulus_pa / oilModulus_pa;
    out.stiffnessAtGauge
        = aeratedOil(shareAt(share, inlet, gauge), gauge, 1, oilModulus_pa, rho, hot).modulus_pa
        / oilModulus_pa;
    return out;
}

Result<GasStudy> studyGas(const Build &build, const std::vector<GaugedSize> &sizes,
                          const Operating &operating, const Forecast &forecast, double share)
{
    if (forecast.lines.empty())
        return fail("forecast", "there is no forecast to lay gas over");
    const auto effect = gasEffect(build, sizes, operating, share);
    if (!effect)
        return tl::unexpected(effect.error());
    auto lines = forecastLines(build, sizes, { build.use.hotOil_c }, forecast.lines.front().rpm,
                               withGas(share));
    if (!lines)
        return tl::unexpected(lines.error());
    return GasStudy { *effect, std::move(lines->front()) };
}

} // namespace mildpath
