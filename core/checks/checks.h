// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "checks/catalogue.h"
#include "checks/evidence.h"
#include "checks/places.h"

#include <array>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Figures;
class OwnKinds;

// One list of everything that must be true of this engine before it turns, fires, is loaded or is
// handed over. Marks, findings, gates, the start-up checklist and the sheet are views of it;
// nothing else says "may start", "done" or "holds". docs/theory/checks.md tells the rules.

/// How a check stands. In the order of how bad it is.
enum class CheckState : unsigned char { Proven, SignedOff, NotDone, LookAgain, Hold };
/// In JSON: "proven", "signed_off", "not_done", "look_again", "hold".
template <> std::span<const std::string_view> enumWords<CheckState>();

/// A signature on a check, and whether it still counts.
struct CheckSignature
{
    SignOff signOff;
    Phrase voidBecause; ///< empty: it counts
};

struct Check
{
    const CheckKind *kind;
    CheckPlace place;
    bool asked = false;
    bool none = false; ///< answered: this engine has none of it
    CheckState state = CheckState::NotDone;
    Phrase reason {}; ///< one line, with the figure or the date
    Phrase next {}; ///< what to do; empty: what the statement says
    Evident evident = Evident::None; ///< what the evidence says, signatures apart
    bool onAssumed = false; ///< good, and resting on sizes nobody measured: never green
    CheckClass cls {}; ///< promoted where it is
    std::vector<size_t> after {}; ///< asked checks that come first: index into the list
    std::vector<Evidence> timeline {}; ///< in order of time
    std::vector<CheckSignature> signatures {}; ///< in order of entry
    std::optional<double> margin {}, expanded {}; ///< of its figure: how far inside, and U
    /// The day what it waits for should be here, and whether somebody promised it; empty: nothing
    /// is under way.
    std::string due {};
    bool promised = false;

    std::string id() const { return std::string(kind->id) + "@" + place.id; }
    /// "Main 3: clearance inside its limits".
    Phrase statement() const;
    /// What it waits for is on its way: nothing was said since it was ordered or sent.
    bool isUnderWay() const { return !due.empty() && evident == Evident::None; }
    /// And should have been here before that day (ISO 8601; empty: no day is late).
    bool isLate(std::string_view today) const { return isUnderWay() && due < today; }
    /// Neither proven nor signed off.
    bool isOpen() const { return state >= CheckState::NotDone; }
};

class CheckList;

/// The one way from a state to shape and word.
Mark markOf(CheckState state);
/// The same, hollow where it is good on sizes nobody measured.
Mark markOf(const Check &check);

struct GateState
{
    bool open = false;
    int openChecks = 0; ///< asked ones before it that keep it shut
    int holds = 0; ///< of these, those that hold
    int signedOff = 0; ///< passed by signature
};

class CheckList
{
public:
    /// @param own  kinds of one's own the checks point to
    CheckList(std::vector<Check> checks, std::vector<SignOff> stray,
              std::shared_ptr<const OwnKinds> own);

    /// Every check the engine has, asked or not, in the order of the catalogue and of the oil.
    const std::vector<Check> &all() const { return m_checks; }
    /// The kinds of the catalogue and those of one's own, in the order of the work.
    std::vector<const CheckKind *> kinds() const;
    /// @return null for an id there is not
    const Check *find(std::string_view id) const;
    const GateState &gate(CheckGate gate) const { return m_gates[static_cast<size_t>(gate)]; }
    /// The worst asked check; proven where none is asked.
    CheckState worst() const;
    int count(CheckState state) const; ///< asked ones
    /// Signatures that belong to no check: void, and said once.
    const std::vector<SignOff> &stray() const { return m_stray; }
    /// Whether a check counts for one mark of a stop: what may stay open, only when it is wrong.
    static bool counts(const Check &check, std::string_view stop, Aspect aspect);
    /// Whether an asked check keeps its gate, and those after it, shut.
    static bool shuts(const Check &check);
    /// The worst of what shuts it; signed off where it was passed by signature.
    Mark markOf(CheckGate gate) const;
    /// What a gate says for itself: "May turn", "Closed: 12 checks open, 3 of them hold".
    Phrase says(CheckGate gate) const;

private:
    std::vector<Check> m_checks;
    std::vector<SignOff> m_stray;
    std::shared_ptr<const OwnKinds> m_own;
    std::array<GateState, 4> m_gates;
};

/// The worst of these kinds at a place, of those that are asked; not asked where none is.
Mark worstAsked(const CheckList &checks, std::initializer_list<std::string_view> kinds,
                std::string_view place);

/// Id of the check a step of the start-up checklist is evidence for; empty: none of the whole
/// engine.
std::string checkOfStep(std::string_view step);

/// Ids of checks that are wrong and whose harm is the worst: no signature passes them.
using PromotedChecks = std::set<std::string>;

/// Ids of checks that were proven or signed off in one list and are open in another of the same
/// engine: what falls back.
std::vector<std::string> fallenBack(const CheckList &before, const CheckList &after);

/// The list by itself, without solving anything.
/// @param figures  of the build; both must outlive the list
/// @param today    ISO 8601 day; empty: proofs do not grow old
CheckList listChecks(const Build &build, const Figures &figures, std::string_view today,
                     const PromotedChecks &promoted = {});
/// What is wrong, solved as bad as it was found (checks/cost.h).
PromotedChecks promotedChecks(const Build &build, const Figures &figures, const CheckList &list);
/// The list with what is wrong solved: how bad it is decides who may sign for it.
CheckList checksOf(const Build &build, const Figures &figures, std::string_view today);

} // namespace mildpath
