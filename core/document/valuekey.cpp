// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/valuekey.h"

namespace mildpath {

std::optional<double> ownValue(const OwnValues &values, std::string_view key)
{
    const auto it = values.find(std::string(key));
    return it == values.end() ? std::nullopt : std::optional(it->second);
}

std::optional<double> valueOf(const OwnValues &values, std::span<const NumberKey> keys,
                              std::string_view key)
{
    if (const auto v = ownValue(values, key))
        return v;
    const NumberKey *k = findKey(keys, key);
    return k ? k->usual : std::nullopt;
}

Result<void> setValue(OwnValues &values, std::span<const NumberKey> keys, const std::string &what,
                      const std::string &key, std::optional<double> value)
{
    if (!findKey(keys, key))
        return fail(what + "/" + key, "is nothing a " + what + " has");
    if (value)
        values[key] = *value;
    else
        values.erase(key);
    return {};
}

Phrase describeValue(std::span<const NumberKey> keys, const std::string &key,
                     std::optional<double> value)
{
    const NumberKey *k = findKey(keys, key);
    const std::string name = k ? std::string(k->meaning) : key;
    if (!value)
        return name + " removed";
    return { "", "{0} {1}", { name, ofFileUnit(*value, unitOfKey(key)) } };
}

void checkValues(const OwnValues &values, std::span<const NumberKey> keys, const std::string &place,
                 std::vector<Error> &errors)
{
    for (const auto &[key, value] : values) {
        const NumberKey *k = findKey(keys, key);
        if (!k)
            errors.push_back({ place + "/" + key, "is not known here" });
        else if (!k->allows(value))
            errors.push_back({ place + "/" + key, k->refusal(value) });
    }
}

} // namespace mildpath
