// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/figure.h"
#include "assess/rules.h"

#include "quantity/rounding.h"

#include <cmath>

namespace mildpath {
namespace {

UnitSystem chosen = UnitSystem::Metric;

Shown shown(double si, Dimension dimension, const char *metric, int metricDecimals,
            const char *imperial, int imperialDecimals)
{
    const auto figure = [&](const char *unit, int decimals) {
        return qs(formatNumber(toUnit(si, unit, dimension), decimals));
    };
    if (chosen == UnitSystem::Imperial)
        return { figure(imperial, imperialDecimals), QString::fromUtf8(imperial), {} };
    Shown out { figure(metric, metricDecimals), QString::fromUtf8(metric), {} };
    if (chosen == UnitSystem::Both)
        out.second = figure(imperial, imperialDecimals) + u' ' + QString::fromUtf8(imperial);
    return out;
}

} // namespace

QString Shown::text() const
{
    QString out = unit.isEmpty() ? number : number + u' ' + unit;
    if (!second.isEmpty())
        out += QStringLiteral(" · ") + second;
    return out;
}

UnitSystem Figure::system()
{
    return chosen;
}
void Figure::setSystem(UnitSystem system)
{
    chosen = system;
}

Shown Figure::clearance(double um, double u_um)
{
    return shown(um * 1e-6, Dimension::Length, "µm", std::min(1, decimalsFor(u_um, 1)), "thou", 2);
}

Shown Figure::limit(double um)
{
    return shown(um * 1e-6, Dimension::Length, "µm", um == std::round(um) ? 0 : 1, "thou", 2);
}

Shown Figure::pressure(double pa)
{
    if (pa > beyondStrength_pa) {
        Shown most = shown(beyondStrength_pa, Dimension::Pressure, "bar", 0, "psi", 0);
        most.number.prepend(QStringLiteral("> "));
        if (!most.second.isEmpty())
            most.second.prepend(QStringLiteral("> "));
        return most;
    }
    return shown(pa, Dimension::Pressure, "bar", 2, "psi", 1);
}

Shown Figure::pressureChange(double pa)
{
    // "0.00" and "−0.00" say the same; which of them it is depends on rounding noise.
    const double quiet = std::abs(pa) < 50 ? 0 : pa;
    Shown out = shown(quiet, Dimension::Pressure, "bar", 2, "psi", 1);
    if (quiet > 0)
        out.number.prepend(u'+');
    return out;
}

Shown Figure::temperature(double c)
{
    return shown(c, Dimension::Temperature, "°C", 0, "°F", 0);
}

Shown Figure::flow(double m3_s)
{
    return shown(m3_s, Dimension::VolumeFlow, "l/min", 2, "gpm", 3);
}

Shown Figure::volume(double m3)
{
    return shown(m3, Dimension::Volume, "l", 2, "US qt", 2);
}

Shown Figure::speed(double rpm)
{
    return { qs(formatNumber(rpm, 0)), QStringLiteral("rev/min"), {} };
}

Shown Figure::percent(double share)
{
    return { qs(formatNumber(100 * share, 0)), QStringLiteral("%"), {} };
}

std::string Figure::clearanceUnit()
{
    return chosen == UnitSystem::Imperial ? "thou" : "µm";
}
std::string Figure::pressureUnit()
{
    return chosen == UnitSystem::Imperial ? "psi" : "bar";
}
std::string Figure::volumeUnit()
{
    return chosen == UnitSystem::Imperial ? "US qt" : "l";
}
std::string Figure::temperatureUnit()
{
    return chosen == UnitSystem::Imperial ? "°F" : "°C";
}

} // namespace mildpath
