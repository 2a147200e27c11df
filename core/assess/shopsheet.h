// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/cleanmarks.h"

#include <string>
#include <vector>

namespace mildpath {

/// The sheet that goes to the machine shop with the parts.
struct ShopSheet
{
    struct Work
    {
        std::string id; ///< of the shop job
        std::string what, note;
        std::vector<std::string> dirties; ///< passages its swarf gets into as the plugs are now
        std::string prove; ///< on return

        /// Work that dirties passages leaves them to be checked again.
        Mark mark() const;
    };
    struct PlugRow
    {
        std::string name, where, kind;
        Phrase size;
        bool out; ///< goes there without it
        std::string say; ///< "in, must come out before the tank" …
    };
    std::string build, engine, date;
    std::vector<Work> work;
    std::vector<PlugRow> plugs; ///< of the parts that go
    std::vector<std::string> prove; ///< what is to be shown when it comes back
    std::vector<std::string> cautions;
    std::set<std::string> parts; ///< that go: the drawing shows these
};
/// @param date  as printed; the core has no clock
ShopSheet shopSheet(const Build &build, const std::string &date);

} // namespace mildpath
