// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/judgement.h"

#include <vector>

namespace mildpath {

/// What keeps the start shut, or was signed off, of one kind of check: they are told and signed
/// for together.
struct GateGroup
{
    const CheckKind *kind;
    std::vector<const Check *> checks; ///< of the list, in oil order
    int holds = 0; ///< of them

    /// The worst of them.
    Mark mark() const;
    /// "Main 1 to 5": the first two by name, the rest counted.
    Phrase where() const;
};

/// The gate before the first start as the list of checks has it. It must not outlive the judgement.
struct StartGate
{
    const CheckList *list;
    std::vector<GateGroup> open; ///< what shuts it, in the order of the work
    std::vector<const Check *> signedOff; ///< passed by signature, to be read aloud

    bool mayStart() const { return list->gate(CheckGate::Fire).open; }
    int openChecks() const { return list->gate(CheckGate::Fire).openChecks; }
    int holds() const { return list->gate(CheckGate::Fire).holds; }
    Phrase says() const { return list->says(CheckGate::Fire); }
    Mark mark() const { return list->markOf(CheckGate::Fire); }
};

StartGate gateOf(const Judgement &judgement);

} // namespace mildpath
