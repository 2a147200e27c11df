// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/rounding.h"

namespace mildpath {

/// Hours of an engine for people: "2.0 h", "215 h".
inline std::string hoursText(double h)
{
    return formatPlain(h, h < 10 ? 1 : 0) + " h";
}

} // namespace mildpath
