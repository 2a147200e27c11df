// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operatingmodel.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// A speed and oil temperature at which an engine is always judged.
struct StateKind
{
    std::string_view id; ///< "cold_2000"
    std::string_view name; ///< "Coldest start, 2 000": for people
    bool warmedUp; ///< thick oil passes little: flows are judged once it is warm
    bool reliefShut; ///< as if its piston stuck; holds nothing by itself
};
/// In the order they are told.
std::span<const StateKind> stateKinds();

inline constexpr double fast_rpm = 2000; ///< of cold starts and of the first run

/// The engine in one of them.
struct OperatingState
{
    const StateKind *kind;
    OperatingResult result;
    double pumpOut_pa = 0; ///< gauge
    double filterIn_pa = 0, element_pa = 0; ///< at the filter's inlet, over its element
    double coolerIn_pa = 0; ///< 0 without a cooler
    double inletAbs_pa = 0; ///< at the pump's inlet, absolute
    double lowestAbs_pa = 0; ///< anywhere
    double fillShare = 1; ///< of what the pump sweeps
};

/// All of them. Never fails: what cannot be solved is left out.
/// @param solved  of the same build: its states are not solved again
/// @param models  of the same build, by oil temperature; more are made as they are wanted
std::vector<OperatingState> operatingStates(const Build &build,
                                            const std::vector<GaugedSize> &sizes,
                                            const Operating &solved,
                                            std::map<double, OperatingModel> models);
/// @return null where it was not solved
const OperatingState *stateOf(const std::vector<OperatingState> &states, std::string_view id);

} // namespace mildpath
