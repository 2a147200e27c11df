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
    double torque = 0; ///< in `unit`, as it was entered; 0: by angle
    std::string unit; ///< "lb ft", "kg m", "N m"; empty: N m that nobody entered
    double angle_deg = 0;

    double torque_nm() const;
    bool operator==(const TorqueStage &) const = default;
};
/// Stages as a manual has them: "30 N m, 60 N m, +90°"; a bare number is in the unit before it,
/// the first in `unit`. Errors: place "stage 2", what is wrong with it: no number, an angle before
/// any torque or over 360°, less than the stage before.
Result<std::vector<TorqueStage>> readStages(std::string_view text, std::string_view unit);
/// Whether stages can be: as readStages().
Result<void> checkStages(const std::vector<TorqueStage> &stages);
/// The same for people, and to be read again.
Phrase stagesText(const std::vector<TorqueStage> &stages);

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
    std::string washers; ///< under the heads; empty: as the threads
    bool capByCap = false; ///< each cap is a set by itself, as on rods
    int uses = 0; ///< how often a bolt may be used; 0: nobody said. 1: it stretches
    std::string after; ///< the card of the bolts that come before these; empty: none
    int edition = 0; ///< counts changes of what is on the card
    std::vector<TorqueStage> stages;
    std::vector<Fastener> fasteners; ///< in the order they are tightened
    std::string source; ///< a word of Origin; of older files one's own words

    /// Test bolts for measuring, new ones for the build.
    bool singleUse() const { return uses == 1; }
    /// Its figures are a template's to begin with, nobody's for this engine.
    bool isStartingValue() const { return source == "typical"; }
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
    int edition = 0; ///< of the card as it was
    std::string by, at;
    ExtraKeys extra {};
    bool operator==(const TorqueTick &) const = default;
};

/// Where a card stands, derived from its ticks.
struct TorqueState
{
    struct Bolt
    {
        int stage = 0; ///< reached, by the card as it is now
        bool newBolt = false;
        bool older = false; ///< ticked under the card as it was: it is tight, nobody knows how
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
    std::string waitsFor; ///< name of the card whose bolts come first and are not done
    bool older = false; ///< bolts were ticked before the card was changed
    bool outOfOrder = false; ///< a bolt ran ahead of its turn since the set was last loose
    bool complete() const { return !tighten; }
    bool allNew() const;
};
TorqueState torqueState(const Build &build, const TorqueCard &card);

/// Whether a stop's cap stands at its last stage of every card that holds it. Absent: none does.
std::optional<bool> capTorqued(const Build &build, std::string_view stop);

/// Whose figures they are: "manufacturer"; "starting value, not the manufacturer's".
std::string cardSource(const TorqueCard &card);
/// "60 Nm", "+ 90°".
Phrase stageText(const TorqueStage &stage);

template <> const RecordType &recordType<TorqueCard>();
template <> const RecordType &recordType<TorqueTick>();

} // namespace mildpath
