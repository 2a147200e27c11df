// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/words.h"
#include "quantity/phrase.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace mildpath {

// What must be true of an engine before it may turn, fire, be loaded or be handed over: the one
// catalogue of kinds of check. Which of them an engine has, and how they stand, is worked out from
// it (checks/asked.h, checks/state.h).

/// Where in the work a check belongs; in the order of the work.
enum class Stage : unsigned char {
    Strip,
    Parts,
    Clean,
    Measure,
    Assemble,
    Suction,
    Filling,
    Desk,
    Prime,
    Start,
    After,
};
struct AboutStage
{
    std::string_view name, needs, caution; ///< what to lay out first, what hurts people
};
const AboutStage &aboutStage(Stage stage);

/// @return absent for a word that is none of stageWords()
std::optional<Stage> stageOf(std::string_view word);

/// What a check lets through.
enum class CheckGate : unsigned char { Turn, Fire, Load, Handover };
template <> std::span<const std::string_view> enumWords<CheckGate>();

/// What a signature can do, weakest first: nothing is held open; one person; two; never.
enum class CheckClass : unsigned char { Open, One, Two, Never };
/// In JSON: "0", "1", "2", "!".
template <> std::span<const std::string_view> enumWords<CheckClass>();

/// The mark of a stop it counts for.
enum class Aspect : unsigned char { None, Size, Clean, Flow };

/// One kind of check.
struct CheckKind
{
    /// What comes before.
    struct After
    {
        const CheckKind *kind;
        bool all; ///< every one of the kind, not only that at the same place
    };

    std::string_view id;
    Stage stage;
    /// Words of what it stands at, by blanks: E the engine; main, rod, bush, cam, thrust, lifter,
    /// rocker, jet, pump, relief, pickup, filter, tank, turbo, fed stops; P passages; G plugs; L
    /// lines; T sets of fasteners; X parts; C cylinders; J jobs for the shop; B things to buy;
    /// sign, find, failure what was noted; own checks of one's own.
    std::string_view at;
    Aspect aspect;
    std::string_view statement; ///< true when, in shop words
    /// By what: G figure, B blade, L looked, W looked at by another, D ticked when done, P paper,
    /// C computed; + a photo is wanted.
    std::string_view by;
    /// By what it is spoilt: M F X R break; o v i t c and days (d, d14) age.
    std::string_view spoiltBy;
    std::string_view after; ///< ids by blanks, with * for all of the kind
    int minutes; ///< of work for each
    int waitDays; ///< that pass by themselves
    CheckClass cls;
    /// Jobs that ask it: a capital everywhere, a small letter where it was touched.
    std::string_view jobs;

    CheckGate gate() const;
    /// Whether a job asks it at a place that was touched or not.
    bool asked(char job, bool touched) const;
    std::vector<After> comesAfter() const;
    std::vector<std::string_view> placeWords() const;
    bool isSpoiltBy(char event) const;
    /// Days a proof stays fresh; 0: the usual ones of open or covered.
    std::optional<int> freshDays() const;
    bool isComputed() const { return by.starts_with('C'); }
};
/// Whether a word stands among words divided by blanks.
bool hasWord(std::string_view words, std::string_view word);
/// How a kind is proven, for people: "a figure with its uncertainty, or a paper; with a photo".
Phrase provenWhen(const CheckKind &kind);
/// In the order of the work.
std::span<const CheckKind> checkKinds();
/// Id of every check of one's own: each is a kind by itself (checks/ownkinds.h), in the catalogue
/// stands what they have in common.
inline constexpr std::string_view ownKind = "own";
/// Which row of the catalogue a kind is, counted from 0.
size_t rowOf(const CheckKind &kind);
/// @return null for an unknown id
const CheckKind *findCheckKind(std::string_view id);

} // namespace mildpath
