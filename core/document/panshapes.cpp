// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/dimensions.h"
#include "sump/section.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array shapes {
    PanShape { "rear_bowl", "deep at the rear" },
    PanShape { "front_bowl", "deep at the front" },
    PanShape { "flat", "one depth" },
    PanShape { "wedge", "floor sloping to the rear" },
    PanShape { "winged", "deep at the rear, wings at the sides" },
};

std::vector<PanPoint> millimetres(const Profile &profile)
{
    std::vector<PanPoint> out;
    for (const SectionPoint &p : profile)
        out.push_back({ std::round(p.x_m * 1e7) / 1e4, std::round(p.z_m * 1e7) / 1e4 });
    return out;
}

double stepped(double v, double step)
{
    // Divided by a whole number where the step is a part of one: 4.6, not 4.6000000000000005.
    return step < 1 ? std::round(v / step) / std::round(1 / step) : std::round(v / step) * step;
}

} // namespace

std::span<const PanShape> panShapes()
{
    return shapes;
}

PanSizes usualPanSizes(const Engine &e, double fill_l)
{
    const double bore = e.bore_mm > 0 ? e.bore_mm : 90,
                 stroke = e.stroke_mm > 0 ? e.stroke_mm : bore;
    const bool banks = e.layout.starts_with("V") || e.layout.starts_with("flat");
    const int row = std::max(1, banks ? (e.cylinders + 1) / 2 : e.cylinders);
    PanSizes out {};
    out.sweep_mm = stepped(stroke / 2 + 0.42 * bore, 1);
    out.length_mm = stepped(row * 1.12 * bore + 40, 5);
    out.width_mm = stepped(2 * out.sweep_mm + 60, 5);
    out.bowlLength_mm = stepped((row > 1 ? 0.45 : 0.8) * out.length_mm, 5);
    // The bowl takes seven tenths of the fill, the rest stands over the whole length.
    const double bowl_mm2 = out.bowlLength_mm * out.width_mm;
    out.bowlDepth_mm = std::clamp(stepped(0.7 * fill_l * 1e6 / bowl_mm2, 5), 30.0, 400.0);
    const double over = 0.3 * fill_l * 1e6 / (out.length_mm * out.width_mm);
    out.crank_mm = stepped(over + 30 + out.sweep_mm, 1);
    return out;
}

Sump shapedSump(std::string_view shape, const PanSizes &s)
{
    Sump out;
    out.shape = shape;
    const bool flat = shape == "flat", wedge = shape == "wedge";
    // A pan of one depth holds as much as one with a bowl.
    const double depth = flat ? s.bowlDepth_mm * s.bowlLength_mm / s.length_mm
        : wedge               ? 2 * s.bowlDepth_mm * s.bowlLength_mm / s.length_mm
                              : s.bowlDepth_mm;
    const double crank = depth + s.crank_mm, top = crank + s.sweep_mm + 20;
    const double l = s.length_mm, w = s.width_mm / 2, b = l - s.bowlLength_mm;
    const double slope = std::min(25.0, s.bowlLength_mm / 6);
    if (flat)
        out.along = { { 0, 0 }, { l, 0 }, { l, top }, { 0, top } };
    else if (wedge)
        out.along = { { 0, depth }, { l - 60, 0 }, { l, 0 }, { l, top }, { 0, top } };
    else
        out.along
            = { { 0, depth }, { b - slope, depth }, { b, 0 }, { l, 0 }, { l, top }, { 0, top } };
    double pickup = flat ? l / 2 : wedge ? l - 50 : b + s.bowlLength_mm * 0.6;
    if (shape == "front_bowl") {
        for (PanPoint &p : out.along)
            p.x_mm = l - p.x_mm;
        pickup = l - pickup;
    }
    const double foot = std::round(0.8 * w);
    if (shape == "winged")
        out.across = { { -foot, 0 },
                       { foot, 0 },
                       { w, depth * 0.35 },
                       { w * 1.3, depth * 0.35 },
                       { w * 1.3, depth * 0.8 },
                       { w, depth },
                       { w, top },
                       { -w, top },
                       { -w, depth },
                       { -w * 1.3, depth * 0.8 },
                       { -w * 1.3, depth * 0.35 },
                       { -w, depth * 0.35 } };
    else
        out.across
            = { { -foot, 0 }, { foot, 0 }, { w, depth }, { w, top }, { -w, top }, { -w, depth } };
    for (auto *section : { &out.along, &out.across })
        for (PanPoint &p : *section)
            p = { stepped(p.x_mm, 0.5), stepped(p.z_mm, 0.5) };
    out.values = { { "pan_length_mm", l },
                   { "pan_width_mm", s.width_mm },
                   { "pickup_along_mm", stepped(pickup, 5) },
                   { "pickup_across_mm", 0 },
                   { "rail_mm", stepped(depth + s.crank_mm - 20, 1) },
                   { "crank_across_mm", 0 },
                   { "crank_z_mm", stepped(crank, 0.5) },
                   { "sweep_radius_mm", s.sweep_mm },
                   { "crank_from_mm", 30 },
                   { "crank_to_mm", l - 30 } };
    return out;
}

Sump usualSump(const Build &build)
{
    const double litres = stepped(
        displacement_l(build.engine) > 0 ? 1.2 + 1.4 * displacement_l(build.engine) : 4.5, 0.1);
    const bool dry = build.engine.ofKind(StopKind::Tank);
    // Without a tank the pan holds the fill; with one only what the scavenge stages leave.
    const PanSizes sizes = usualPanSizes(build.engine, dry ? 1.5 : litres);
    Sump out = shapedSump(dry ? "flat" : "rear_bowl", sizes);
    out.values["fill_l"] = dry ? litres + 4 : litres;
    out.values["static_holdup_l"] = 0.5;
    out.values["pump_inlet_z_mm"] = stepped(sizes.bowlDepth_mm + 30, 5);
    out.values["joint_z_mm"] = stepped(sizes.bowlDepth_mm + 15, 5);
    if (!dry)
        return out;
    // A tank twice as high as the oil in it, some way above the pump.
    const double diameter_mm = 180;
    out.values["tank_diameter_mm"] = diameter_mm;
    out.values["tank_height_mm"]
        = stepped(2e6 * (litres + 4) / (pi / 4 * diameter_mm * diameter_mm), 10);
    out.values["tank_outlet_mm"] = 32;
    out.values["tank_over_pump_mm"] = 150;
    out.values["hose_bore_mm"] = 26;
    out.values["hose_wall_mm"] = 4;
    out.values["return_bore_mm"] = 20;
    out.values["held_dry_l"] = 1.5;
    return out;
}

Result<SetPan> panFromBenchFill(const Sump &sump, std::vector<BenchFill> steps)
{
    SetPan out;
    std::vector<FillStep> si;
    for (const BenchFill &s : steps)
        si.push_back({ s.height_mm * 1e-3, s.litres * 1e-3 });
    const auto size = [&](const char *key) { return sump.own(key).value_or(0) * 1e-3; };
    for (const auto &[key, other, section, pickup] :
         { std::tuple("pan_width_mm", "pan_length_mm", &out.along, "pickup_along_mm"),
           std::tuple("pan_length_mm", "pan_width_mm", &out.across, "pickup_across_mm") }) {
        if (!(size(key) > 0))
            return fail(key, "is needed to make a section of litres");
        const auto profile = sectionFromFill(si, size(key));
        if (!profile)
            return fail("bench_fill/" + profile.error().place, profile.error().message);
        // Above what was measured the walls go on straight, over the crank.
        Profile p = *profile;
        const double top
            = sump.own("crank_z_mm").value_or(0) + sump.own("sweep_radius_mm").value_or(0) + 20;
        const size_t half = p.size() / 2;
        if (const double high = top * 1e-3; high > p[half].z_m) {
            const SectionPoint right = p[half - 1], left = p[half];
            p.insert(p.begin() + static_cast<std::ptrdiff_t>(half),
                     { { right.x_m, high }, { left.x_m, high } });
        }
        *section = millimetres(p);
        out.values[pickup] = 0;
    }
    const double half = size("pan_length_mm") / 2 * 1e3;
    out.values["crank_from_mm"] = -half + 30;
    out.values["crank_to_mm"] = half - 30;
    out.values["crank_across_mm"] = 0;
    out.benchFill = std::move(steps);
    return out;
}

} // namespace mildpath
