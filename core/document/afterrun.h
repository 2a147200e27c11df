// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/valuekey.h"

namespace mildpath {

/// Bore finish: filter, rings and piston, valley volume wanted. Groups: trace, ring, valley.
std::span<const NumberKey> finishKeys();
/// What is looked at after a run. Groups: filter, oil, seal.
std::span<const NumberKey> afterKeys();

/// Sections by name: "finish", "after". @return empty for another name
std::span<const NumberKey> sectionKeys(std::string_view section);

/// A number of a section; absent takes it away.
struct SetSectionValue
{
    std::string section;
    std::string key;
    std::optional<double> value;
    bool operator==(const SetSectionValue &) const = default;
};

} // namespace mildpath
