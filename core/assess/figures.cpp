// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/figures.h"
#include "assess/air.h"
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
    , states(operating.unsolved
                 ? std::vector<OperatingState>()
                 : operatingStates(build, sizes, operating, std::move(predicted.models)))
    , air(judgeAir(build, operating))
{
}

const FamilySummary *Figures::family(std::string_view id) const
{
    return familyOf(families, id);
}

} // namespace mildpath
