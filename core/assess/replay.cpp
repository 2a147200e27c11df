// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/replay.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

void findUncovered(Replay &out)
{
    const Uncovered *open = nullptr;
    for (size_t i = 0; i < out.moments.size(); ++i) {
        const ReplayMoment &m = out.moments[i];
        if (m.cover_m >= out.dip_m) {
            open = nullptr;
            continue;
        }
        if (!open) {
            out.uncovered.push_back({ m.time_s, m.time_s, m.cover_m });
            open = &out.uncovered.back();
        }
        Uncovered &u = out.uncovered.back();
        u.to_s = i + 1 < out.moments.size() ? out.moments[i + 1].time_s : m.time_s;
        u.least_m = std::min(u.least_m, m.cover_m);
    }
    for (const Uncovered &u : out.uncovered)
        out.uncovered_s += u.to_s - u.from_s;
    for (size_t i = 0; i + 1 < out.moments.size(); ++i)
        if (out.moments[i].cover_m < out.wanted_m)
            out.short_s += out.moments[i + 1].time_s - out.moments[i].time_s;
}

} // namespace

Mark markOf(const Replay &replay)
{
    return replay.short_s > 0 ? Mark::LookAgain : Mark::Proven;
}

Result<Replay> replayDrive(const Build &build, const AirReport &air,
                           std::span<const DriveMoment> drive)
{
    if (air.problem)
        return tl::unexpected(*air.problem);
    if (drive.size() < 2)
        return fail("time_s", "a drive needs at least two moments");
    const AirCase *running = air.find("running");
    const auto pan = panOf(build.sump);
    if (!running || !pan || !air.slosh_s)
        return fail("/sump", "the pan holds no running level to tilt");
    if (!pickupGap_m(build))
        return fail("/engine/stops", "mouth to floor of the pickup is not measured");
    const auto along = sectionOf(build, PanWay::Along), across = sectionOf(build, PanWay::Across);
    const auto any = [&](double DriveMoment::*signal) {
        return std::any_of(drive.begin(), drive.end(),
                           [&](const DriveMoment &m) { return m.*signal != 0; });
    };
    if (any(&DriveMoment::lateral_g) && !across)
        return fail("/sump/across_mm", "turns need the section across");
    if (any(&DriveMoment::longitudinal_g) && !along)
        return fail("/sump/along_mm", "braking needs the section along");
    Replay out;
    out.slosh_s = *air.slosh_s;
    out.dip_m = running->wanted.dip_m;
    out.wanted_m = running->wanted.required_m;
    out.least_m = 1e9;
    const std::vector<DriveMoment> slow = smoothed(drive, out.slosh_s);
    const double incline = build.use.incline_deg * pi / 180;
    double quick_s = 0;
    for (size_t i = 0; i < slow.size(); ++i) {
        ReplayMoment m { slow[i].time_s,         1e9, PanWay::Along, slow[i].lateral_g,
                         slow[i].longitudinal_g, true };
        const std::tuple<const std::optional<HungSection> *, PanWay, double, double> sections[]
            = { { &along, PanWay::Along, m.longitudinal_g, incline },
                { &across, PanWay::Across, m.lateral_g, 0.0 } };
        for (const auto &[section, way, g, lean] : sections) {
            if (!*section)
                continue;
            const auto oil = turnOil(*pan, **section, { way, g, lean }, running->volume_m3);
            if (!oil)
                return tl::unexpected(oil.error());
            if (oil->submergence_m < m.cover_m) {
                m.cover_m = oil->submergence_m;
                m.way = way;
            }
        }
        m.modelled = std::abs(drive[i].lateral_g - slow[i].lateral_g) <= quickSignal_g
            && std::abs(drive[i].longitudinal_g - slow[i].longitudinal_g) <= quickSignal_g;
        if (!m.modelled && i + 1 < slow.size())
            quick_s += slow[i + 1].time_s - slow[i].time_s;
        if (m.cover_m < out.least_m) {
            out.least_m = m.cover_m;
            out.leastAt_s = m.time_s;
        }
        out.moments.push_back(m);
    }
    out.notModelled = quick_s / (slow.back().time_s - slow.front().time_s);
    findUncovered(out);
    return out;
}

} // namespace mildpath
