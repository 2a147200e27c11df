// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "bearing/shells.h"

#include <string>
#include <vector>

namespace mildpath {

struct GaugedSize;

/// Shells for a family: what is there to choose from and what is best.
struct ShellPlan
{
    std::vector<ShellClass> classes;
    std::vector<std::string> stops; ///< in order; as `spaces`
    std::vector<JournalSpace> spaces;
    std::vector<std::string> from; ///< how each space is known
    ShellSelection best;
    std::vector<RegrindStep> regrind; ///< of the journal furthest outside; empty when all fit
    std::string regrindFor;
    OperatingResult hotIdle; ///< with these shells
};
/// Which shells are best, by the sizes alone: no pressure is worked out.
/// Errors: `shells` without classes, `limits`, `journals` naming a bearing of which nothing is
/// known; as selectShells().
Result<ShellPlan> shellChoice(const Build &build, const std::vector<GaugedSize> &sizes,
                              const std::string &family);
/// The same with the hot idle they give. Errors: as shellChoice().
Result<ShellPlan> shellPlan(const Build &build, const std::vector<GaugedSize> &sizes,
                            const std::string &family);

} // namespace mildpath
