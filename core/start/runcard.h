// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include "start/gate.h"
#include "start/prime.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct Assessment;

/// How a step of the run card is gone through.
enum class CardKind {
    Tick, ///< seen to be so
    Choice, ///< a question both answers of which have their reasons; the answer is recorded
    Prime, ///< a live log of priming, or what was seen
    Watch, ///< outlets looked at one by one
    Gate, ///< nothing holds the start, or what does is signed for
    Start, ///< a live log of the engine running
    Read, ///< the gauge is read
};

/// One answer to a question, with what its school says for it.
struct CardAnswer
{
    std::string_view id, text, reason;
};

struct CardItem
{
    std::string_view id;
    CardKind kind;
    std::string_view group; ///< prime, start, after
    Phrase text; ///< what to do
    Phrase threshold; ///< what it must show; empty: nothing to measure
    std::string_view caution; ///< stands at the step; empty: none
    std::string_view question; ///< of a choice
    std::vector<CardAnswer> answers;
    std::vector<std::string> watched {}; ///< stops whose outlets are watched
    std::optional<LikelyPressure> expected {}; ///< of a reading, at `rpm` and `oil_c`
    double rpm = 0, oil_c = 0; ///< where it is to be read; as read once it was
    const CardStep *done = nullptr; ///< of the build; null: not gone through
    Mark mark = Mark::NotDone;
    Phrase said {}; ///< what was recorded, in words
    std::string by {}, at {}; ///< who went through it, and when
    bool locked = false; ///< may not be gone through yet
    Phrase why {}; ///< why it is locked, or what its mark means
};

struct RunCard
{
    std::vector<CardItem> items; ///< in the order of the work
    const CardItem *find(std::string_view id) const;
    /// First step that is neither gone through nor locked; −1: none.
    int next() const;
};

/// The card of this build: thresholds from the forecast and the user's floor. It must not outlive
/// build, assessment and gate.
RunCard runCardOf(const Build &build, const Assessment &assessment, const PrimeForecast &prime,
                  const StartGate &gate);

/// Everything the start-up checklist goes by.
struct StartCard
{
    StartGate gate;
    PrimeForecast prime;
    RunCard card;
};
/// It must not outlive build and assessment.
StartCard startCardOf(const Build &build, const Assessment &assessment);

} // namespace mildpath
