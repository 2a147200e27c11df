// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/assessment.h"

#include "assess/air.h"
#include "document/logbook.h"

#include <algorithm>

namespace mildpath {

Assessment::Assessment() = default;
Assessment::Assessment(const Assessment &) = default;
Assessment::Assessment(Assessment &&) noexcept = default;
Assessment &Assessment::operator=(const Assessment &) = default;
Assessment &Assessment::operator=(Assessment &&) noexcept = default;
Assessment::~Assessment() = default;

Mark markAgainst(const LikelyPressure &pressure, double least_pa)
{
    if (pressure.value_pa < least_pa)
        return Mark::Hold;
    return pressure.low_pa < least_pa ? Mark::LookAgain : Mark::Proven;
}

std::optional<double> GaugedSize::closesAt_c(double floor_um) const
{
    const double rate = at(allAt(21)) - at(allAt(20));
    if (!(rate > 0))
        return std::nullopt;
    const double t = 20 - (at(allAt(20)) - floor_um) / rate;
    constexpr double coldestOnEarth_c = -80;
    return t < coldestOnEarth_c ? std::nullopt : std::optional(t);
}

std::vector<GaugedSize> movedBy(std::vector<GaugedSize> sizes, const std::string &family,
                                double by_um)
{
    for (GaugedSize &s : sizes)
        if (s.family == family)
            s.circuit_um += by_um;
    return sizes;
}

double OperatingResult::bigEndsOfCrank() const
{
    double mains = 0, bigEnds = 0;
    for (const OilShare &s : shares) {
        if (s.id == "mains")
            mains = s.flow_m3_s;
        if (s.id == "big_ends")
            bigEnds = s.flow_m3_s;
    }
    return mains + bigEnds > 0 ? bigEnds / (mains + bigEnds) : 0;
}

int Assessment::holds() const
{
    return static_cast<int>(std::count_if(findings.begin(), findings.end(),
                                          [](const Finding &f) { return f.mark == Mark::Hold; }));
}

int Assessment::notDone() const
{
    int count = 0;
    for (const StopMarks &m : marks)
        for (const Mark mark : { m.size, m.clean, m.flow })
            count += mark == Mark::NotDone;
    return count;
}

const GaugedSize *Assessment::size(std::string_view stop) const
{
    const auto it = std::find_if(sizes.begin(), sizes.end(),
                                 [&](const GaugedSize &s) { return s.stop == stop; });
    return it == sizes.end() ? nullptr : &*it;
}

const GaugedSize *Assessment::size(std::string_view stop, std::string_view family, int item) const
{
    const auto it = std::find_if(sizes.begin(), sizes.end(), [&](const GaugedSize &s) {
        return s.stop == stop && s.family == family && s.item == item;
    });
    return it == sizes.end() ? nullptr : &*it;
}

const FamilySummary *Assessment::family(std::string_view id) const
{
    const auto it = std::find_if(families.begin(), families.end(),
                                 [&](const FamilySummary &f) { return f.family == id; });
    return it == families.end() ? nullptr : &*it;
}

const StopMarks *Assessment::marksOf(std::string_view stop) const
{
    const auto it = std::find_if(marks.begin(), marks.end(),
                                 [&](const StopMarks &m) { return m.stop == stop; });
    return it == marks.end() ? nullptr : &*it;
}

Assessment assess(const Build &build)
{
    Assessment out;
    out.sizes = judgeSizes(build);
    out.families = summarise(out.sizes);
    out.feedHoles = judgeFeedHoles(build);
    out.fits = judgeFits(build, out.sizes);
    out.cleaning
        = readBook(PassageNetwork(build.passages, build.plugs), build.events, stopKindsOf(build));
    out.spreads = spreadsOf(build);
    out.lines = judgeLines(build);
    fillForecast(build, out);
    out.air = judgeAir(build, out);
    fillMarks(build, out);
    return out;
}

} // namespace mildpath
