// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/change.h"
#include "document/document.h"
#include "rules/rules.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// What the severity of a fault is told in.
enum class Measure {
    OnOff, ///< there, or not
    Wider_um, ///< added to the clearances
    Shut, ///< share of the area
    Covered, ///< share of the hole
    Open, ///< share of the valve's area held open
    Leaks, ///< share of the valve's area that leaks
    Plug_mm, ///< hole in the plug's place: `most` is the share of its bore
    Hole_mm, ///< hole to the air
    Jet_mm, ///< bore of what is left of a jet
    Decades, ///< of flow lost
    Air, ///< share of what the pump takes in
    Thinner, ///< share of viscosity lost
    Thicker, ///< share of viscosity gained
    Petrol, ///< share by mass
    Coolant, ///< share by volume
    Restrictor, ///< nothing to tell: fitted in part or in all
};

struct Fault;
struct FaultKind;

/// A fault at a stop, about to be applied.
struct FaultAt
{
    const Build &build;
    const Fault &fault;
    const FaultKind &kind;
    const Stop &stop;
    Circuit &circuit;
    double severity, amount; ///< of one; in the kind's measure
};
/// What a kind of fault does to the circuit.
/// @return an error where the stop has nothing it could befall
using FaultAction = Result<void> (*)(const FaultAt &);

/// A kind of fault: where it can happen, what its severity means and what it does. Severities and
/// priors: own choice, no source; docs/theory/diagnosis.md tells why.
struct FaultKind
{
    std::string_view id;
    std::string_view name; ///< "plug missing"
    Measure measure;
    double most; ///< of its measure, at severity 1; 0 where there is only on and off
    std::vector<StopKind> stopKinds;
    double usual; ///< severity a what-if opens with
    double prior; ///< of the kind as a whole before anything was read; 0: not looked for
    std::string_view lookedForAs; ///< kind that readings cannot tell it from; empty: itself
    bool changesPressure; ///< false: no steady pressure shows it
    bool wholeFamily; ///< one for all stops of its kind
    std::string_view mind; ///< what to mind; empty: nothing
    FaultAction apply; ///< what it does; to each stop of a family

    /// How much it is at a severity, in its measure. The area of a hole grows with severity, not
    /// its bore.
    double amount(double severity) const;
};
std::span<const FaultKind> faultKinds();
/// @return null for an unknown id.
const FaultKind *findFaultKind(std::string_view id);
/// Whether stops of this kind can have it at all.
bool happensAt(const FaultKind &kind, const Stop &stop);
inline bool graded(const FaultKind &kind)
{
    return kind.measure != Measure::OnOff;
}

/// Things of one kind at a stop a fault can befall: drillings, jets, ends of a gallery. Empty where
/// there is only the stop itself.
std::vector<std::string> faultItems(const Build &build, const FaultKind &kind, const Stop &stop);

/// Faults that can happen at a stop, each with its usual severity and item.
std::vector<Fault> faultsAt(const Build &build, const Stop &stop);

/// What a fault does to the running circuit and its oil.
/// Errors: place = kind, stop, item or severity.
Result<void> applyFault(const Build &build, const Fault &fault, Circuit &circuit, Oil &oil);
/// Whether all of them can happen on this engine. Errors: as applyFault.
Result<void> checkFaults(const Build &build, const std::vector<Fault> &faults);
/// What it does to the oil alone; nothing for a fault of the metal.
void applyOilFault(const Fault &fault, Oil &oil);
/// All of them as one change. The build must outlive it.
CircuitChange faultChange(const Build &build, std::vector<Fault> faults);

/// "KIND@STOP[.ITEM][=SEVERITY]"; also KIND alone where the engine has one place for it, and the
/// names of the reference table of the inline-four (lifter_gallery_plug_missing …).
/// Errors: place "fault", what is not known, and what is.
Result<Fault> parseFault(const Build &build, std::string_view text);
std::string faultId(const Fault &fault); ///< without severity
/// "Main 2: feed hole covered"; with the severity where it says something.
std::string faultName(const Build &build, const Fault &fault);
/// The severity in the shop's measure: "54 % of the hole", "1.1 mm hole"; empty for on and off.
Phrase severityText(const Build &build, const Fault &fault);

/// Loss of a sharp hole in a pipe, on the pipe's velocity head: ((D/d)²/0.7)². Textbook, own choice
/// of the coefficient.
double restrictorLoss(double pipe_mm, double hole_mm);
/// Bore of the hole a lost jet leaves: from its own up to the kind's most.
double lostJetBore_mm(const Element &jet, const FaultKind &kind, double severity);

/// Words a symptom or a look knows a fault by: its kind, and with the kind of what it sits behind.
std::vector<std::string> faultWords(const Build &build, const Fault &fault);

} // namespace mildpath
