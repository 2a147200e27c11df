// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/json.h"

#include <optional>
#include <string>

namespace mildpath {

/// Writes what there is: an absent number or an empty text leaves no key.
inline void put(Json &out, const char *key, const std::optional<double> &value)
{
    if (value)
        out[key] = *value;
}
inline void put(Json &out, const char *key, const std::string &value)
{
    if (!value.empty())
        out[key] = value;
}

} // namespace mildpath
