// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/progress.h"
#include "checks/checks.h"
#include "evidence/flow.h"

#include <array>
#include <map>
#include <optional>
#include <string>

namespace mildpath {

struct GaugedSize;

// What it would cost if a check were false, though nobody noticed: the fault it guards against, put
// into the circuit and solved where it shows worst. docs/theory/checks.md.

struct CheckCost
{
    /// 3: something falls below its need and the gauge is silent, or pressure passes what parts
    /// stand · 2: it falls, and the gauge shows it · 1: something loses a tenth · 0: none of these.
    int harm = 0;
    std::string state; ///< where it is worst, by its id: see stateKinds(); or "prime"
    std::string stop; ///< the worst stop; empty: none
    double ratio = 0; ///< of what it gets to what it needs
    double gauge_pa = 0; ///< change at the gauge there
    Phrase text;
};

/// The fault a check guards against, as bad as its evidence says, else as bad as is usual; absent:
/// the circuit knows none.
std::optional<Fault> faultBehind(const Build &build, const Check &check);
/// Solved at hot idle, hot at the highest speed, at the coldest start, 2 000, and when priming; the
/// engine without it once for all faults. Never fails: a state that cannot be solved is left out.
class FaultCosts
{
public:
    /// @param build, sizes  outlive this
    FaultCosts(const Build &build, const std::vector<GaugedSize> &sizes);
    CheckCost of(const Fault &fault);

private:
    struct At
    {
        std::string_view state;
        Turned turned;
        double oil_c;
    };
    using Results = std::array<std::optional<OperatingResult>, 4>;
    Results solved(const Build &build, const CircuitChange &change) const;

    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    std::array<At, 4> m_at;
    std::optional<Results> m_before;
};
inline CheckCost costOf(const Build &build, const std::vector<GaugedSize> &sizes,
                        const Fault &fault)
{
    return FaultCosts(build, sizes).of(fault);
}

/// Of every asked check that has one, by its id; one solve for each fault. Takes seconds.
std::map<std::string, CheckCost> costsOf(const Build &build, const Figures &figures,
                                         const CheckList &list, Progress *progress = nullptr);

} // namespace mildpath
