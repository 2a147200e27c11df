// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/parts.h"

#include <algorithm>

namespace mildpath {
const ShellStockRow *ShellStock::find(const std::string &name) const
{
    const auto it = std::find_if(shells.begin(), shells.end(),
                                 [&](const ShellStockRow &s) { return s.name == name; });
    return it == shells.end() ? nullptr : &*it;
}

} // namespace mildpath
