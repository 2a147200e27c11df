// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;

/// One pass over all fasteners: to a torque, or on by an angle.
struct TorqueStage
{
    double torque_nm = 0; ///< 0: by angle
    double angle_deg = 0;
    bool operator==(const TorqueStage &) const = default;
};

/// A bolt or nut of a torque card, where it sits seen from above (mm; x to the rear, y across).
struct Fastener
{
    std::string stop; ///< whose cap it holds
    double x_mm = 0, y_mm = 0;
    bool operator==(const Fastener &) const = default;
};

/// How a set of caps is tightened.
struct TorqueCard
{
    std::string id; ///< "main_caps"
    std::string name;
    std::string threads; ///< "oiled"
    bool capByCap = false; ///< each cap is a set by itself, as on rods
    bool singleUse = false; ///< the bolts stretch: test bolts for measuring, new ones for the build
    std::vector<TorqueStage> stages;
    std::vector<Fastener> fasteners; ///< in the order they are tightened
    std::string source; ///< "maker"
    ExtraKeys extra {};
    bool operator==(const TorqueCard &) const = default;
};

/// A fastener brought to a stage, or loosened. Append-only.
struct TorqueTick
{
    std::string id;
    std::string card;
    int fastener = 1; ///< from 1, in the order of the card
    int stage = 1; ///< from 1; 0: loosened
    bool newBolt = false; ///< of a single-use set: the one for the build
    std::string by, at;
    ExtraKeys extra {};
    bool operator==(const TorqueTick &) const = default;
};

/// Where a card stands, derived from its ticks.
struct TorqueState
{
    struct Bolt
    {
        int stage = 0; ///< reached
        bool newBolt = false;
    };
    std::vector<Bolt> bolts;
    /// What comes next: fastener from 1 and stage; absent when all are at the last stage.
    struct Next
    {
        int fastener, stage;
    };
    std::optional<Next> tighten; ///< stage by stage, each in the card's order
    std::optional<int> loosen; ///< the reverse; absent when all are loose
    bool halfWay = false; ///< a set is begun and not at its last stage
    bool outOfOrder = false; ///< a bolt ran ahead of its turn since the set was last loose
    bool complete() const { return !tighten; }
    bool allNew() const;
};
TorqueState torqueState(const Build &build, const TorqueCard &card);

/// Whether a stop's cap stands at its last stage. Absent: no card holds it.
std::optional<bool> capTorqued(const Build &build, std::string_view stop);

/// "60 Nm", "+ 90°".
Phrase stageText(const TorqueStage &stage);

template <> const RecordType &recordType<TorqueCard>();
template <> const RecordType &recordType<TorqueTick>();

} // namespace mildpath
