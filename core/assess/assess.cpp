// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/assessment.h"
#include "assess/figuremarks.h"

#include "assess/air.h"
#include "assess/marks.h"
#include "assess/soilings.h"
#include "document/logbook.h"

#include <algorithm>

namespace mildpath {
namespace {

CleaningBook cleaningOf(const Build &build, const std::vector<Spread> &spreads)
{
    const PassageNetwork network(build.passages, build.plugs);
    return readBook(network, build.events, stopKindsOf(build), soilingsOf(build, network, spreads));
}

} // namespace

Figures::Figures(const Build &build)
    : Figures(build, judgeSizes(build))
{
}

Figures::Figures(const Build &build, std::vector<GaugedSize> judged)
    : Figures(build, judged, predict(build, judged))
{
}

Figures::Figures(const Build &build, std::vector<GaugedSize> judged, Predicted predicted)
    : sizes(std::move(judged))
    , families(summarise(sizes))
    , feedHoles(judgeFeedHoles(build))
    , fits(judgeFits(build, sizes))
    , spreads(spreadsOf(build))
    , cleaning(cleaningOf(build, spreads))
    , lines(judgeLines(build))
    , operating(std::move(predicted.operating))
    , forecast(std::move(predicted.forecast))
    , states(operating.unsolved ? std::vector<OperatingState>() : operatingStates(build, sizes))
    , air(judgeAir(build, operating))
{
}

const FamilySummary *Figures::family(std::string_view id) const
{
    return familyOf(families, id);
}

Judgement::Judgement(const Build &build, const Figures &figures)
    : Judgement(judge(build, figures))
{
}

Judgement::Judgement(std::pair<std::vector<StopMarks>, std::vector<Finding>> found)
    : marks(std::move(found.first))
    , findings(std::move(found.second))
{
}

int Judgement::holds() const
{
    return static_cast<int>(std::count_if(findings.begin(), findings.end(),
                                          [](const Finding &f) { return f.mark == Mark::Hold; }));
}

int Judgement::notDone() const
{
    int count = 0;
    for (const StopMarks &m : marks)
        for (const Mark mark : { m.size, m.clean, m.flow })
            count += mark == Mark::NotDone;
    return count;
}

Mark Judgement::worst() const
{
    Mark out = Mark::Proven;
    for (const StopMarks &m : marks)
        out = worse(out, worstMark(&m));
    for (const Finding &f : findings)
        out = worse(out, f.mark);
    return out;
}

const StopMarks *Judgement::marksOf(std::string_view stop) const
{
    const auto it = std::find_if(marks.begin(), marks.end(),
                                 [&](const StopMarks &m) { return m.stop == stop; });
    return it == marks.end() ? nullptr : &*it;
}

Assessment::Assessment(const Build &build)
    : Figures(build)
    , Judgement(build, static_cast<const Figures &>(*this))
{
}

Assessment assess(const Build &build)
{
    return Assessment(build);
}

} // namespace mildpath
