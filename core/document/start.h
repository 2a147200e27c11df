// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/valuekey.h"

namespace mildpath {

/// Numbers of priming and first start.
struct Start : ValueSection ///< by startKeys()
{
    /// As entered; absent where nothing was.
    std::optional<double> own(std::string_view key) const { return ownValue(values, key); }
    /// As entered, or what is usual; absent where neither is.
    std::optional<double> value(std::string_view key) const;
    bool operator==(const Start &) const = default;
};
/// Groups: prime, start.
std::span<const NumberKey> startKeys();

/// A number of the start; absent takes it away.
struct SetStartValue
{
    std::string key;
    std::optional<double> value;
    bool operator==(const SetStartValue &) const = default;
};

template <> const RecordType &recordType<Start>();

} // namespace mildpath
