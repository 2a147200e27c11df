// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/corridor.h"

#include <cmath>

namespace mildpath {
namespace {

constexpr double mapFirstSpeed_rpm = 30, mapSpeedStep = 1.04, mapOilStep_k = 3;
constexpr double coldest_c = -40, aboveHot_k = 50, overMost = 1.2;

LikelyPressure between(const LikelyPressure &a, const LikelyPressure &b, double share)
{
    return { std::lerp(a.value_pa, b.value_pa, share), std::lerp(a.low_pa, b.low_pa, share),
             std::lerp(a.high_pa, b.high_pa, share) };
}

} // namespace

PressureMap::PressureMap(std::shared_ptr<const Build> build, std::vector<GaugedSize> sizes)
    : m_build(std::move(build))
    , m_sizes(std::move(sizes))
{
}

const std::optional<LikelyPressure> &PressureMap::solved(int rpmStep, int oilStep)
{
    const auto [it, fresh] = m_solved.try_emplace({ rpmStep, oilStep });
    if (!fresh)
        return it->second;
    const auto [model, first] = m_models.try_emplace(oilStep);
    if (first)
        if (auto made = OperatingModel::make(*m_build, m_sizes, oilStep * mapOilStep_k))
            model->second = std::move(*made);
    if (model->second)
        if (const auto r = model->second->at(mapFirstSpeed_rpm * std::pow(mapSpeedStep, rpmStep),
                                             OperatingModel::Detail::Ranges))
            it->second = asGaugeShows(*m_build, r->gauge);
    return it->second;
}

std::optional<LikelyPressure> PressureMap::at(double rpm, double oil_c)
{
    if (!(rpm >= mapFirstSpeed_rpm && rpm <= overMost * m_build->use.most_rpm && oil_c >= coldest_c
          && oil_c <= m_build->use.hotOil_c + aboveHot_k))
        return std::nullopt;
    const double speed = std::log(rpm / mapFirstSpeed_rpm) / std::log(mapSpeedStep);
    const double oil = oil_c / mapOilStep_k;
    const int n = static_cast<int>(std::floor(speed)), t = static_cast<int>(std::floor(oil));
    std::optional<LikelyPressure> rows[2];
    for (const int dt : { 0, 1 }) {
        const auto a = solved(n, t + dt), b = solved(n + 1, t + dt);
        if (!a || !b)
            return std::nullopt;
        rows[dt] = between(*a, *b, speed - n);
    }
    return between(*rows[0], *rows[1], oil - t);
}

} // namespace mildpath
