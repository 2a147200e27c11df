// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "document/document.h"

#include <map>
#include <set>
#include <string>
#include <vector>

namespace mildpath {

/// Signatures laid onto checks, by what a signature can do for each.
class Signing
{
public:
    explicit Signing(const Build &build);

    /// Turns the check into a signed one where enough signatures count.
    void apply(Check &check) const;

private:
    Phrase whyVoid(const Check &check, const SignOff &signature) const;

    const Job *m_job;
    std::set<std::string> m_people;
    std::map<std::string, std::vector<const SignOff *>> m_byCheck;
};

/// How many people must sign for a check as it stands; absent: no signature helps.
/// @param alone  whether the builder works alone and said so
std::optional<int> signaturesNeeded(const Check &check, bool alone);
/// A reason is a sentence of its own: three words of two letters or more, fifteen letters in all.
/// @return what is wrong with it; empty: nothing
Phrase whatLacksReason(const std::string &reason, std::string_view statement);

/// A signature for a check, with what stands at it. Errors: `check` unknown or proven, or of a
/// class no signature helps; `by` not among the people, or the same person again; `note` no reason.
Result<SignOff> signCheck(const Build &build, const CheckList &list, const std::string &check,
                          const std::string &by, const std::string &why,
                          const std::string &gate = {});

/// Signatures for a group in one act: those of it somebody may sign for. Errors: as signCheck; when
/// none of them may be signed for.
Result<std::vector<SignOff>> signChecks(const Build &build, const CheckList &list,
                                        const std::vector<std::string> &checks,
                                        const std::string &by, const std::string &why,
                                        const std::string &gate = {});

} // namespace mildpath
