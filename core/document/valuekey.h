// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/numberkey.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Where a usual value comes from when nobody published it.
inline constexpr std::string_view commonPractice = "common practice, no source";
inline constexpr std::string_view assumption = "assumption, no source";
inline constexpr std::string_view ownChoice = "own choice";

using OwnValues = std::map<std::string, double>; ///< by key, as entered

/// As entered; absent where nothing was.
std::optional<double> ownValue(const OwnValues &values, std::string_view key);
/// As entered, or what is usual; absent where neither is.
std::optional<double> valueOf(const OwnValues &values, std::span<const NumberKey> keys,
                              std::string_view key);
/// Sets or takes away. Errors: place = `what`/key, for a key there is not.
Result<void> setValue(OwnValues &values, std::span<const NumberKey> keys, const std::string &what,
                      const std::string &key, std::optional<double> value);
/// "oil poured in 5.2 l"; "… taken away".
Phrase describeValue(std::span<const NumberKey> keys, const std::string &key,
                     std::optional<double> value);
/// Unknown keys and values out of range, at `place`/key.
void checkValues(const OwnValues &values, std::span<const NumberKey> keys, const std::string &place,
                 std::vector<Error> &errors);

/// Numbers of one part of the job that are entered, or taken as usual.
struct ValueSection
{
    OwnValues values;
    ExtraKeys extra {};
    bool operator==(const ValueSection &) const = default;
};

template <> const RecordType &recordType<ValueSection>();

} // namespace mildpath
