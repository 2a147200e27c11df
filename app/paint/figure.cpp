// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/figure.h"
#include "assess/rules.h"

#include <cmath>

namespace mildpath {
namespace {

UnitSystem chosen = UnitSystem::Metric;

Shown asText(const ShownQuantity &q)
{
    return { qs(q.number), qs(q.unit), qs(q.second) };
}

} // namespace

Shown shown(const Quantity &quantity)
{
    return asText(shown(quantity, Figure::style()));
}
Shown shown(const QuantityRange &range)
{
    return asText(shown(range, Figure::style()));
}
QString unitOf(Shows as)
{
    return qs(shownUnit(as, Figure::system()));
}
double numberOf(double value, Shows as)
{
    return inShownUnit(value, as, Figure::system());
}
QString qs(const Error &error)
{
    return qs(error.place.empty() ? error.message : named(error.place, error.message));
}
QString qs(const Phrase &phrase)
{
    return qs(render(phrase, Figure::style()));
}

QString Shown::text() const
{
    return qs(
        ShownQuantity { number.toStdString(), unit.toStdString(), second.toStdString() }.text());
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
    return shown(asClearance(um, u_um));
}

Shown Figure::limit(double um)
{
    return shown(asLimit(um));
}

Shown Figure::pressure(double pa)
{
    if (pa <= beyondStrength_pa)
        return shown(asPressure(pa));
    Shown most = shown(asPressure(beyondStrength_pa, 0));
    most.number.prepend(QStringLiteral("> "));
    if (!most.second.isEmpty())
        most.second.prepend(QStringLiteral("> "));
    return most;
}

Shown Figure::pressureChange(double pa)
{
    return shown(asChange(asPressure(pa)));
}

Shown Figure::temperature(double c)
{
    return shown(asTemperature(c));
}

Shown Figure::flow(double m3_s)
{
    return shown(asFlow(m3_s));
}

Shown Figure::volume(double m3)
{
    return shown(Quantity { m3, Shows::Volume });
}

Shown Figure::speed(double rpm)
{
    return shown(asSpeed(rpm));
}

Shown Figure::percent(double share)
{
    return shown(asShare(share));
}

std::string Figure::clearanceUnit()
{
    return std::string(shownUnit(Shows::Clearance, chosen));
}
std::string Figure::pressureUnit()
{
    return std::string(shownUnit(Shows::Pressure, chosen));
}
std::string Figure::volumeUnit()
{
    return std::string(shownUnit(Shows::Volume, chosen));
}
std::string Figure::temperatureUnit()
{
    return std::string(shownUnit(Shows::Temperature, chosen));
}

} // namespace mildpath
