// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/stopkind.h"
#include "quantity/record.h"
#include "quantity/sharedlist.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Something found where only oil should be.
struct DebrisFind : Record
{
    std::string stop; ///< where; empty: `place` says it
    std::string place; ///< "under the baffle"
    std::string size; ///< speck, grit, flake, curl, lump
    std::string colour; ///< see debrisColours()
    std::string hardness; ///< hard, soft, pliable; empty: not tried
    std::string magnetic; ///< yes, no; empty: not tried
    std::string settled; ///< what was done about it; empty: open
    bool operator==(const DebrisFind &) const = default;
};

/// Words to choose from.
std::span<const std::string_view> debrisSizes();
std::span<const std::string_view> debrisColours();
std::span<const std::string_view> debrisHardnesses();

/// What a find may be, the likelier first.
struct DebrisGuess
{
    std::string_view kind; ///< "copper underlayer of a bearing"
    std::string_view reason;
    bool bearing; ///< bearing metal may be in it
    bool warning; ///< not to be put down to running in
};
/// Common practice, no source. Empty where the words fit nothing.
std::vector<DebrisGuess> guessDebris(const DebrisFind &find);

template <> const RecordType &recordType<DebrisFind>();

/// Something a part shows when an engine is taken down.
struct SignKind
{
    std::string_view id;
    StopKind stopKind;
    std::string_view text; ///< what is seen
    std::string_view meaning; ///< what it says
    std::string_view action;
    bool holds; ///< until it is settled; otherwise it wants another look
};
/// Common practice, no source.
std::span<const SignKind> signKinds();
const SignKind *findSignKind(std::string_view id);

/// A sign looked for at a stop.
struct Sign : Record
{
    std::string stop;
    std::string sign; ///< see signKinds()
    bool there = true; ///< false: looked for, and not there
    std::string settled; ///< what was done about it; empty: open
    bool operator==(const Sign &) const = default;
};
template <> const RecordType &recordType<Sign>();
/// The last that was said of a sign at a stop; null: not looked for.
const Sign *standingSign(const SharedList<Sign> &signs, std::string_view stop,
                         std::string_view sign);

} // namespace mildpath
