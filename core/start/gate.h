// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/rules.h"

namespace mildpath {

struct Assessment;

/// A hold that stands between the build and its first start.
struct GateHold
{
    const Finding *finding; ///< of the assessment
    /// The signature that lets it pass; null: none. One given when the finding said something else
    /// does not count: see `outdated`.
    const SignOff *signature = nullptr;
    const SignOff *outdated = nullptr; ///< the last one for this hold that no longer fits its text
    bool open() const { return signature == nullptr; }
    /// Signed for, it lets the start pass but stays to be checked again.
    Mark mark() const;
};

struct StartGate
{
    std::vector<GateHold> holds; ///< in the order of the findings
    int open() const;
    bool mayStart() const { return open() == 0; }
    /// The worst of its holds; without one, what nobody has looked at yet is not done.
    /// @param notDone  of the assessment
    Mark mark(int notDone) const;
    const GateHold *find(std::string_view finding) const;
};

/// Every hold of the assessment with what was signed for it. The gate, the run card and the report
/// all read this; it must not outlive build and assessment.
StartGate gateOf(const Build &build, const Assessment &assessment);

/// A signature for a hold. Errors: `by`, `note` when empty.
Result<SignOff> signFor(const Finding &hold, const std::string &by, const std::string &why);

} // namespace mildpath
