// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/section.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double cross(SectionPoint a, SectionPoint b, SectionPoint c)
{
    return (b.x_m - a.x_m) * (c.z_m - a.z_m) - (b.z_m - a.z_m) * (c.x_m - a.x_m);
}

bool within(SectionPoint a, SectionPoint b, SectionPoint p)
{
    return p.x_m >= std::min(a.x_m, b.x_m) && p.x_m <= std::max(a.x_m, b.x_m)
        && p.z_m >= std::min(a.z_m, b.z_m) && p.z_m <= std::max(a.z_m, b.z_m);
}

/// Whether two edges have a point in common.
bool meet(SectionPoint a, SectionPoint b, SectionPoint c, SectionPoint d)
{
    const double abc = cross(a, b, c), abd = cross(a, b, d);
    const double cda = cross(c, d, a), cdb = cross(c, d, b);
    if (((abc > 0) != (abd > 0)) && ((cda > 0) != (cdb > 0)) && abc != 0 && abd != 0 && cda != 0
        && cdb != 0)
        return true;
    return (abc == 0 && within(a, b, c)) || (abd == 0 && within(a, b, d))
        || (cda == 0 && within(c, d, a)) || (cdb == 0 && within(c, d, b));
}

/// Calls `point` for every corner of what lies under the surface.
template <class Point>
void clip(std::span<const SectionPoint> profile, const OilSurface &surface, Point point)
{
    for (size_t i = 0; i < profile.size(); ++i) {
        const SectionPoint a = profile[i], b = profile[(i + 1) % profile.size()];
        const double da = surface.depthOf_m(a), db = surface.depthOf_m(b);
        if (da >= 0)
            point(a);
        if ((da >= 0) != (db >= 0)) {
            const double s = da / (da - db);
            point(SectionPoint { a.x_m + s * (b.x_m - a.x_m), a.z_m + s * (b.z_m - a.z_m) });
        }
    }
}

} // namespace

double profileArea_m2(std::span<const SectionPoint> p)
{
    double twice = 0;
    for (size_t i = 0; i < p.size(); ++i) {
        const SectionPoint a = p[i], b = p[(i + 1) % p.size()];
        twice += a.x_m * b.z_m - b.x_m * a.z_m;
    }
    return std::abs(twice) / 2;
}

double OilSurface::heightAt_m(double x_m) const
{
    return (offset_m + std::sin(tilt_rad) * x_m) / std::cos(tilt_rad);
}

double OilSurface::depthOf_m(SectionPoint p) const
{
    return offset_m + std::sin(tilt_rad) * p.x_m - std::cos(tilt_rad) * p.z_m;
}

Result<double> surfaceTilt_rad(double accel_g, double incline_rad)
{
    const double tilt = std::atan(accel_g) + incline_rad;
    if (!(std::abs(tilt) < 89 * pi / 180))
        return fail("incline_deg", "turn and incline together must tilt the oil by less than 89°");
    return tilt;
}

double areaBelow_m2(std::span<const SectionPoint> profile, const OilSurface &surface)
{
    double twice = 0;
    std::optional<SectionPoint> first, last;
    clip(profile, surface, [&](SectionPoint p) {
        if (last)
            twice += last->x_m * p.z_m - p.x_m * last->z_m;
        else
            first = p;
        last = p;
    });
    if (first)
        twice += last->x_m * first->z_m - first->x_m * last->z_m;
    return std::abs(twice) / 2;
}

Profile clippedBelow(std::span<const SectionPoint> profile, const OilSurface &surface)
{
    Profile out;
    clip(profile, surface, [&](SectionPoint p) { out.push_back(p); });
    return out;
}

Result<OilSurface> surfaceOver(std::span<const SectionPoint> profile, double tilt_rad,
                               double area_m2)
{
    const double whole = profileArea_m2(profile);
    if (!(area_m2 <= whole))
        return fail("volume_l", "is more than the section holds");
    std::vector<double> corners;
    for (const SectionPoint p : profile)
        corners.push_back(-OilSurface { tilt_rad, 0 }.depthOf_m(p));
    std::sort(corners.begin(), corners.end());
    const auto below = [&](double c) { return areaBelow_m2(profile, { tilt_rad, c }); };
    // Between two corners the area is a quadratic of the offset, so three values give it exactly.
    size_t low = 0, high = corners.size() - 1;
    double lowArea = 0, highArea = whole;
    while (high - low > 1) {
        const size_t middle = (low + high) / 2;
        const double at = below(corners[middle]);
        (at < area_m2 ? low : high) = middle;
        (at < area_m2 ? lowArea : highArea) = at;
    }
    const double length = corners[high] - corners[low], wanted = area_m2 - lowArea;
    if (!(length > 0) || !(wanted > 0))
        return OilSurface { tilt_rad, corners[low] };
    const double half = below(corners[low] + length / 2);
    const double b = 2 * (highArea - 2 * half + lowArea) / (length * length);
    const double a = (highArea - lowArea) / length - b * length;
    const double root = a + std::sqrt(std::max(0.0, a * a + 4 * b * wanted));
    const double x = root > 0 ? 2 * wanted / root : length;
    return OilSurface { tilt_rad, corners[low] + std::clamp(x, 0.0, length) };
}

std::optional<double> floorAt_m(std::span<const SectionPoint> profile, double x_m)
{
    std::optional<double> out;
    for (size_t i = 0; i < profile.size(); ++i) {
        const SectionPoint a = profile[i], b = profile[(i + 1) % profile.size()];
        if (x_m < std::min(a.x_m, b.x_m) || x_m > std::max(a.x_m, b.x_m))
            continue;
        const double z = a.x_m == b.x_m ? std::min(a.z_m, b.z_m)
                                        : a.z_m + (x_m - a.x_m) / (b.x_m - a.x_m) * (b.z_m - a.z_m);
        out = std::min(out.value_or(z), z);
    }
    return out;
}

bool contains(std::span<const SectionPoint> profile, SectionPoint p)
{
    bool inside = false;
    for (size_t i = 0; i < profile.size(); ++i) {
        const SectionPoint a = profile[i], b = profile[(i + 1) % profile.size()];
        if (cross(a, b, p) == 0 && within(a, b, p))
            return true;
        if ((a.z_m > p.z_m) != (b.z_m > p.z_m)
            && p.x_m < a.x_m + (p.z_m - a.z_m) / (b.z_m - a.z_m) * (b.x_m - a.x_m))
            inside = !inside;
    }
    return inside;
}

Result<void> checkProfile(std::span<const SectionPoint> p)
{
    const size_t n = p.size();
    if (n < 3)
        return fail("", "needs at least three points");
    for (size_t i = 0; i < n; ++i) {
        if (!std::isfinite(p[i].x_m) || !std::isfinite(p[i].z_m))
            return fail(std::to_string(i), "is not a number");
        if (p[i] == p[(i + 1) % n])
            return fail(std::to_string((i + 1) % n), "stands where the point before it stands");
    }
    for (size_t i = 0; i < n; ++i)
        for (size_t k = i + 1; k < n; ++k) {
            const SectionPoint a = p[i], b = p[i + 1], c = p[k], d = p[(k + 1) % n];
            // Neighbours share a corner; they only may not fold back on each other.
            const bool next = k == i + 1, around = i == 0 && k == n - 1;
            const bool folds = next ? cross(a, b, d) == 0 && (within(a, b, d) || within(b, d, a))
                : around            ? cross(c, a, b) == 0 && (within(c, a, b) || within(a, b, c))
                                    : meet(a, b, c, d);
            if (folds)
                return fail(std::to_string(k),
                            "the side from point " + std::to_string(k + 1)
                                + " crosses the side from point " + std::to_string(i + 1));
        }
    if (!(profileArea_m2(p) > 0))
        return fail("", "encloses nothing");
    return {};
}

Result<Profile> sectionFromFill(std::span<const FillStep> steps, double length_m)
{
    std::vector<FillStep> all(steps.begin(), steps.end());
    if (all.empty() || all.front().height_m > 0)
        all.insert(all.begin(), FillStep { 0, 0 });
    if (all.size() < 2)
        return fail("", "needs at least one height with its litres");
    std::vector<double> layer; // mean width of each
    for (size_t i = 0; i + 1 < all.size(); ++i) {
        const double dh = all[i + 1].height_m - all[i].height_m;
        const double dv = all[i + 1].volume_m3 - all[i].volume_m3;
        if (!(dh > 0) || !(dv > 0))
            return fail(std::to_string(i + 1),
                        dh > 0 ? "the litres must rise" : "the heights must rise");
        layer.push_back(dv / dh / length_m);
    }
    // Widths at the steps, never so wide that the layer beside would have to be narrower than
    // nothing in its middle; the middle takes what makes the layer's volume exact.
    const auto edge = [&](size_t i) {
        if (i == 0 || i == layer.size())
            return layer[i == 0 ? 0 : i - 1];
        return std::min({ (layer[i - 1] + layer[i]) / 2, 1.8 * layer[i - 1], 1.8 * layer[i] });
    };
    Profile right;
    for (size_t i = 0; i < layer.size(); ++i) {
        right.push_back({ edge(i) / 2, all[i].height_m });
        const double middle = 2 * layer[i] - (edge(i) + edge(i + 1)) / 2;
        right.push_back({ middle / 2, (all[i].height_m + all[i + 1].height_m) / 2 });
    }
    right.push_back({ edge(layer.size()) / 2, all.back().height_m });
    Profile out = right;
    for (auto p = right.rbegin(); p != right.rend(); ++p)
        out.push_back({ -p->x_m, p->z_m });
    return out;
}

double sloshPeriod_s(double length_m, double depth_m)
{
    const double k = pi / length_m;
    return 2 * pi / std::sqrt(gravity_m_s2 * k * std::tanh(k * depth_m));
}

TiltedBox tiltedBox(double length_m, double width_m, double wall_m, double volume_m3,
                    SectionPoint mouth, double tilt_rad)
{
    TiltedBox out {};
    const double h0 = volume_m3 / (length_m * width_m), t = std::tan(std::abs(tilt_rad));
    const double x = tilt_rad < 0 ? length_m - mouth.x_m : mouth.x_m;
    out.meanDepth_m = h0;
    if (h0 >= length_m * t / 2) {
        out.low_m = h0 - t * length_m / 2;
        out.high_m = h0 + t * length_m / 2;
        out.atPickup_m = h0 + t * (x - length_m / 2);
    } else {
        const double wet = std::sqrt(2 * h0 * length_m / t);
        out.dryLength_m = length_m - wet;
        out.high_m = t * wet;
        out.atPickup_m = std::max(0.0, t * (x - out.dryLength_m));
    }
    out.submergence_m = (out.atPickup_m - mouth.z_m) * std::cos(tilt_rad);
    out.overRail_m = std::max(0.0, out.high_m - wall_m);
    if (h0 > 0)
        out.slosh_s = sloshPeriod_s(length_m, h0);
    return out;
}

} // namespace mildpath
