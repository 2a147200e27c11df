// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/shellform.h"

#include "bearing/feed.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

constexpr double usualEccentric_m = 8e-6, mostEccentric_m = 40e-6;
constexpr int around = 181, roundTheTurn = 721, along = 41;

/// What e adds to a diametral reading at that place.
double growthAt(double fromJoint_deg)
{
    return 2 * (1 - std::cos((90 - fromJoint_deg) * pi / 180));
}

bool isUpright(const PositionReading &r)
{
    return readingUse(r.angle_deg) == ReadingUse::Clearance;
}

double cubed(double h)
{
    return h * h * h;
}

/// The gap at one angle from the crown, −π…π.
class Gap
{
public:
    /// @param reliefShare  of the relief's depth that counts
    Gap(const ShellGeometry &b, const ShellShape &s, double theta, double reliefShare = 1)
        : m_b(b)
        , m_s(s)
    {
        // The crown is the nearer one: its cosine is never negative.
        const double cosine = std::cos(theta);
        m_middle = s.upright_m / 2 * (1 + b.eccentricityRatio * cosine)
            + s.eccentric_m * (1 - std::abs(cosine));
        const double joint = b.diameter_m / 2 * std::abs(pi / 2 - std::abs(theta));
        if (s.reliefLength_m > 0)
            m_middle += reliefShare * s.reliefDepth_m * std::max(0.0, 1 - joint / s.reliefLength_m);
    }
    double at(double z) const
    {
        const double end = 2 * z / m_b.length_m;
        return m_middle + m_s.taper_m * end / 4 + m_s.bell_m * end * end;
    }
    /// 1/⟨h⁻³⟩ over one land.
    double land(double from, double to) const
    {
        const double near = at(from), far = at(to);
        if (m_s.bell_m == 0) // straight between its edges: exact
            return 2 * near * near * far * far / (near + far);
        double sum = 0;
        for (int i = 0; i < along; ++i) {
            const double z = from + (to - from) * i / (along - 1);
            sum += (i == 0 || i == along - 1 ? 0.5 : 1) / cubed(at(z));
        }
        return (along - 1) / sum;
    }

private:
    const ShellGeometry &m_b;
    const ShellShape &m_s;
    double m_middle;
};

double flowOf(const ShellGeometry &b, const ShellShape &shape)
{
    const bool hole = b.extent_rad == 0;
    const double extent = hole ? 2 * pi : b.extent_rad;
    const double inner = b.grooveWidth_m / 2, outer = b.length_m / 2;
    // Alike on both sides of the middle.
    const int places = (hole ? roundTheTurn : around) / 2 + 1;
    const bool even = shape.taper_m == 0; // and both lands alike
    double sum = 0;
    for (int i = 0; i < places; ++i) {
        const Gap gap(b, shape, extent / 2 * i / (places - 1));
        double here = 0;
        if (hole) {
            here = cubed(gap.at(0));
        } else {
            const double front = gap.land(inner, outer);
            here = front + (even ? front : gap.land(-inner, -outer));
        }
        sum += (i == 0 || i == places - 1 ? 0.5 : 1) * here;
    }
    const double integral = sum * extent / (places - 1);
    if (hole)
        return integral / extent;
    const double lands = b.diameter_m / 2 / (outer - inner) * integral;
    if (extent >= 2 * pi - 1e-9)
        return lands;
    const double ends = 2 * cubed(Gap(b, shape, extent / 2, 0.5).at(0));
    return lands + 2 * grooveEndFactor(b.grooveWidth_m / b.length_m) * ends;
}

} // namespace

Result<ShellShape> shellShape(std::span<const PositionReading> readings, double length_m,
                              double stationDistance_m, double u_m)
{
    struct Mean
    {
        double sum = 0;
        int count = 0;
        double value() const { return sum / count; }
    };
    std::map<int, Mean> upright;
    Mean all;
    for (const PositionReading &r : readings)
        if (isUpright(r)) {
            upright[r.station].sum += r.value_m;
            ++upright[r.station].count;
            all.sum += r.value_m;
            ++all.count;
        }
    if (all.count == 0)
        return fail("readings", "none of them is upright");
    ShellShape out;
    out.upright_m = all.value();
    double weighted = 0, weight = 0;
    for (const PositionReading &r : readings)
        if (!isUpright(r)) {
            const double g = growthAt(angleFromJoint_deg(r.angle_deg));
            const auto own = upright.find(r.station);
            const double crown = own == upright.end() ? out.upright_m : own->second.value();
            weighted += g * (r.value_m - crown);
            weight += g * g;
        }
    out.eccentric_m = weight > 0 ? weighted / weight : usualEccentric_m;
    if (weight > 0 && u_m > 0) {
        const double sure = weight / (2 * u_m * u_m),
                     usual = 1 / (usualEccentricU_m * usualEccentricU_m);
        out.eccentric_m = (sure * out.eccentric_m + usual * usualEccentric_m) / (sure + usual);
    }
    out.eccentric_m = std::clamp(out.eccentric_m, 0.0, mostEccentric_m);
    if (upright.size() > 1) {
        const double front = upright.begin()->second.value(),
                     rear = upright.rbegin()->second.value();
        const double stretch = length_m / stationDistance_m;
        out.taper_m = std::abs(front - rear) * stretch;
        if (upright.size() == 3)
            out.bell_m = ((front + rear) / 2 - std::next(upright.begin())->second.value()) / 2
                * stretch * stretch;
    }
    return out;
}

ShellShape usualShells()
{
    return { .eccentric_m = usualEccentric_m, .reliefDepth_m = 15e-6, .reliefLength_m = 6e-3 };
}

double outOfRound_m(std::span<const PositionReading> readings, const ShellShape &shape)
{
    std::map<int, std::pair<double, double>> range;
    for (const PositionReading &r : readings) {
        const double c = r.value_m - shape.eccentric_m * growthAt(angleFromJoint_deg(r.angle_deg));
        const auto [it, isNew] = range.try_emplace(r.station, c, c);
        if (!isNew)
            it->second = { std::min(it->second.first, c), std::max(it->second.second, c) };
    }
    double out = 0;
    for (const auto &[station, r] : range)
        out = std::max(out, r.second - r.first);
    return out;
}

FormLimits usualTaperLimits(DiametralClearance c)
{
    return { std::max(5e-6, 0.10 * c.value_m), std::max(10e-6, 0.20 * c.value_m) };
}

FormLimits usualRoundLimits(DiametralClearance c)
{
    return { std::max(6e-6, 0.12 * c.value_m), std::max(13e-6, 0.25 * c.value_m) };
}

double formFactor(const ShellGeometry &bearing, const ShellShape &shape)
{
    ShellShape round;
    round.upright_m = shape.upright_m;
    return flowOf(bearing, shape) / flowOf(bearing, round);
}

} // namespace mildpath
