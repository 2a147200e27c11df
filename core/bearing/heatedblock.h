// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"

#include <optional>
#include <span>

namespace mildpath {

/// A warm block gauged with a gauge that was zeroed on the journal at its own temperature.
struct HeatedBlock
{
    double journalDiameter_m;
    double journalExpansion_per_k;
    Celsius zero; ///< the journal's when the gauge was zeroed
    Celsius block; ///< the housing's when gauged
    Celsius runningJournal; ///< the state asked about
    Celsius runningHousing;
    /// Needed when runningHousing differs from block, and for the clearance at 20 °C.
    std::optional<double> housingExpansion_per_k {};
};

/// What the gauge reads less what the engine runs with, as far as the journal's own growth goes
/// (m):
///   D a_j (Tj_run − T_zero)
double overstatement_m(const HeatedBlock &test);

/// Diametral running clearance behind a reading:
///   C_run = reading + D a_h (Th_run − T_block) − D a_j (Tj_run − T_zero)
/// First order in D: the neglected C a ΔT is below 0.2 µm. May be negative (interference).
/// Source: standard linear-expansion result.
DiametralClearance runningFromReading(const HeatedBlock &test, DiametralClearance reading);
/// The other way round.
DiametralClearance readingFromRunning(const HeatedBlock &test, DiametralClearance running);
/// With everything at 20 °C; needs housingExpansion_per_k.
DiametralClearance at20FromReading(const HeatedBlock &test, DiametralClearance reading);

/// How the readings of a heated block were taken.
enum class GaugedJournal {
    Cold, ///< gauge zeroed on a journal that stayed cold
    WithBlock, ///< journal as warm as the block
};

struct ExpansionFit
{
    double slope_m_per_k;
    double expansion_per_k; ///< of the housing, effective
    std::optional<double> expansionU_per_k; ///< standard; absent: two points without stated u
    double at20_m; ///< what would be read at 20 °C
    std::optional<double> at20U_m;
    std::optional<double> residualSd_m; ///< absent with two points: nothing is left over
};

/// Least squares reading = A + B (T − 20); a = B/D, or B/D + a_j with the journal as warm as the
/// block. u(B) = s/√Sxx, u(A) = s √(1/n + x̄²/Sxx) with the residual sd of n − 2 degrees of freedom
/// as s, or s = √(u_reading² + (B u_T)²) where one of the two is given. For few points multiply by
/// Student's t.
/// @param bore_m  diameter whose growth is read
/// @param temperature_c, reading_m  equally long, two at least
/// @param readingU_m, temperatureU_k  standard; 0 for both: from the residuals
/// Errors: `temps_c` / `readings_um` when too few, of unequal number, all at one temperature, or
/// when the bore would shrink with heat.
/// Source: ordinary least squares, standard textbook result.
Result<ExpansionFit> fitExpansion(double bore_m, std::span<const double> temperature_c,
                                  std::span<const double> reading_m, double readingU_m,
                                  double temperatureU_k, GaugedJournal journal,
                                  double journalExpansion_per_k);

} // namespace mildpath
