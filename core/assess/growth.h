// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/thermal.h"
#include "bearing/warmup.h"
#include "document/document.h"

#include <optional>
#include <string_view>

namespace mildpath {

/// The parts around a journal and how they expand.
struct JournalParts
{
    HousingPart part = HousingPart::None;
    Expansion housing {}; ///< effective, where a heated-block test set that of the main housings
    Expansion journal {};
    std::optional<Expansion> cap; ///< of another material than the block
    double capFraction = 0.5;
    bool effective = false; ///< `housing` stands for block and cap together
    double journal_mm = 0; ///< 0: no growth is computed
    double shellWall_mm = 0; ///< 0: not known
    double thrustWidth_mm = 0; ///< end float: the width that grows instead of a diameter
};
JournalParts journalPartsOf(const Build &build, const SizeItem &item);

/// What heat does to a size, linear in the temperatures of the parts around it (µm per kelvin above
/// 20 °C). All 0 for a size that does not grow.
struct Growth
{
    HousingPart part = HousingPart::None;
    double housing_um_per_k = 0, cap_um_per_k = 0;
    double journal_um_per_k = 0; ///< negative where the journal closes it
    double spreadHousing_um_per_k = 0, spreadCap_um_per_k = 0;
    double shell_um_per_k = 0; ///< loss of the shell's press fit, diametral, housing and cap alike
    bool effective = false; ///< the housing's is that of a heated-block test
    /// Standard uncertainty of the expansions, µm per kelvin.
    double housingU_um_per_k = 0, journalU_um_per_k = 0;

    bool grows() const { return housing_um_per_k != 0 || journal_um_per_k != 0; }
    double housing_c(const PartTemperatures &t) const
    {
        return part == HousingPart::Rod ? t.rod_c : t.block_c;
    }
    /// From everything at 20 °C (µm).
    double change_um(const PartTemperatures &t) const;
    /// A hybrid bore goes out of round by up to this (µm).
    double spread_um(const PartTemperatures &t) const;
};
/// @param cold_um  diametral, at 20 °C
Growth growthOf(const JournalParts &parts, double cold_um);

/// As the document has it.
PartTemperatures settledTemperatures(const Build &build, double oil_c);
WarmUp warmUpOf(const Build &build);

} // namespace mildpath
