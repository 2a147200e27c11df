// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/valuekey.h"

namespace mildpath {
const ValueKey *findValueKey(std::span<const ValueKey> keys, std::string_view key)
{
    for (const ValueKey &k : keys)
        if (k.key == key)
            return &k;
    return nullptr;
}

std::optional<double> ownValue(const OwnValues &values, std::string_view key)
{
    const auto it = values.find(std::string(key));
    return it == values.end() ? std::nullopt : std::optional(it->second);
}

std::optional<double> valueOf(const OwnValues &values, std::span<const ValueKey> keys,
                              std::string_view key)
{
    if (const auto v = ownValue(values, key))
        return v;
    const ValueKey *k = findValueKey(keys, key);
    return k ? k->usual : std::nullopt;
}

Result<void> setValue(OwnValues &values, std::span<const ValueKey> keys, const std::string &what,
                      const std::string &key, std::optional<double> value)
{
    if (!findValueKey(keys, key))
        return fail(what + "/" + key, "is nothing a " + what + " has");
    if (value)
        values[key] = *value;
    else
        values.erase(key);
    return {};
}

Phrase describeValue(std::span<const ValueKey> keys, const std::string &key,
                     std::optional<double> value)
{
    const ValueKey *k = findValueKey(keys, key);
    const std::string name = k ? std::string(k->meaning) : key;
    if (!value)
        return name + " removed";
    return { "", "{0} {1}", { name, ofFileUnit(*value, k ? k->unit : "") } };
}

void checkValues(const OwnValues &values, std::span<const ValueKey> keys, const std::string &place,
                 std::vector<Error> &errors)
{
    for (const auto &[key, value] : values) {
        const ValueKey *k = findValueKey(keys, key);
        if (!k)
            errors.push_back({ place + "/" + key, "is not known here" });
        else if (!(value >= k->least && value <= k->most))
            errors.push_back(
                { place + "/" + key,
                  { "", "{0} {1}", { k->meaning, mustBe(k->least, k->most, value, k->unit) } } });
    }
}

} // namespace mildpath
