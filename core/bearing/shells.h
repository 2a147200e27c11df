// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// One size of shell on the shelf.
struct ShellClass
{
    std::string name; ///< colour or mark
    double wall_m; ///< of one half
    std::optional<int> halves {}; ///< in stock; absent: as many as wanted
};

/// Where a clearance may lie and should.
struct ClearanceAim
{
    DiametralClearance least, most, target;
};
/// A journal that wants shells: everything but the walls.
struct JournalSpace
{
    std::string name;
    double space_m; ///< housing bore less journal, diametral; two walls go in
    std::optional<ClearanceAim> own {}; ///< absent: as all
};

struct ShellChoice
{
    int upper, lower; ///< index of the class; adjacent or the same
    DiametralClearance clearance;
    double deviation_m; ///< from the target
    bool outside; ///< of the limits
};

struct ShellSelection
{
    std::vector<ShellChoice> journals; ///< as given
    int outside; ///< how many lie outside the limits
    double largestDeviation_m;
    double sumOfSquares_m2;
};

/// The assignment of shells that is best by: fewest journals outside the limits, then smallest
/// largest deviation from the target, then smallest sum of squared deviations. Two halves of a
/// journal are of one class or of two whose walls are neighbours by size. Exact: dynamic
/// programming over what is left in stock, once per goal.
/// @param classes any order, walls distinct
/// Errors: `classes` (none, more than 12, two of one wall), `journals` (none, more than 20),
/// `stock` when there are not enough halves, a target outside the limits is allowed.
Result<ShellSelection> selectShells(const std::vector<ShellClass> &classes,
                                    const std::vector<JournalSpace> &journals,
                                    const ClearanceAim &aim);

/// A regrind step: the journal goes down by `undersize`, each shell's wall grows by half of it.
struct RegrindStep
{
    double undersize_m; ///< on the diameter
    double wall_m; ///< of the undersize shell
    double journalLeast_m, journalMost_m; ///< to grind to, for the limits
    double journalTarget_m;
};

/// @param housing_m bore without shells; @param wall_m standard wall
std::vector<RegrindStep> regrindSteps(double housing_m, double wall_m, DiametralClearance least,
                                      DiametralClearance most, DiametralClearance target,
                                      const std::vector<double> &undersizes_m);

} // namespace mildpath
