// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/signing.h"

#include "document/logbook.h"

#include <algorithm>
#include <cctype>

namespace mildpath {
namespace {

std::string lower(std::string_view text)
{
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

} // namespace

std::optional<int> signaturesNeeded(const Check &check, bool alone)
{
    switch (check.cls) {
    case CheckClass::Never:
        if (check.kind->isComputed() && check.evident == Evident::Unsure)
            return alone ? 1 : 2;
        return std::nullopt;
    case CheckClass::Two:
        return alone ? 1 : 2;
    case CheckClass::One:
    case CheckClass::Open:
        return 1;
    }
    return std::nullopt;
}

Phrase whatLacksReason(const std::string &reason, std::string_view statement)
{
    int words = 0, letters = 0, inWord = 0;
    const auto end = [&] {
        words += inWord >= 2;
        inWord = 0;
    };
    for (const char ch : reason) {
        // A byte beyond ASCII is part of a letter.
        const auto byte = static_cast<unsigned char>(ch);
        if (std::isalpha(byte) || byte >= 0x80) {
            ++letters;
            ++inWord;
        } else if (std::isspace(byte)) {
            end();
        }
    }
    end();
    if (words < 3 || letters < 15)
        return "A reason has three words at least, of fifteen letters in all";
    if (lower(reason) == lower(statement))
        return "That is the statement itself; say why it may pass";
    return {};
}

Signing::Signing(const Build &build)
    : m_job(currentJob(build))
{
    for (const Person *p : standing(build.people))
        m_people.insert(p->name);
    for (const SignOff *s : standing(build.signOffs))
        if (!s->check.empty())
            m_byCheck[s->check].push_back(s);
}

Phrase Signing::whyVoid(const Check &check, const SignOff &s) const
{
    if (!m_people.contains(s.by))
        return s.by + " is not among the people of this engine";
    if (Phrase lacks = whatLacksReason(s.note, check.kind->statement); !lacks.empty())
        return lacks;
    if (m_job && m_job->at > s.at)
        return "the job was said anew since";
    if (const auto was = fromWord<CheckState>(s.state); was && check.state > *was)
        return "it stands worse than when it was signed";
    if (s.value && check.margin
        && *check.margin < *s.value - check.expanded.value_or(2 * s.u.value_or(0)))
        return "its figure moved to the bad side";
    for (const Evidence &e : check.timeline)
        if ((e.kind == Evidence::Kind::Breaks || e.kind == Evidence::Kind::Undoes) && e.at > s.at)
            return "something was done to it since";
    return {};
}

void Signing::apply(Check &check) const
{
    const auto at = m_byCheck.find(check.id());
    if (at == m_byCheck.end())
        return;
    for (const SignOff *s : at->second)
        check.signatures.push_back({ *s, whyVoid(check, *s) });
    if (check.state == CheckState::Proven)
        return;
    const auto needed = signaturesNeeded(check, m_job && m_job->alone);
    if (!needed)
        return;
    std::vector<const SignOff *> valid;
    for (const CheckSignature &s : check.signatures)
        if (s.voidBecause.empty()
            && std::none_of(valid.begin(), valid.end(),
                            [&](const SignOff *v) { return v->by == s.signOff.by; }))
            valid.push_back(&s.signOff);
    // Of two, one did not make the evidence.
    const std::string maker = check.timeline.empty() ? "" : check.timeline.back().by;
    const bool other = *needed < 2
        || std::any_of(valid.begin(), valid.end(),
                       [&](const SignOff *s) { return s->by != maker; });
    if (static_cast<int>(valid.size()) < *needed || !other) {
        if (!valid.empty())
            check.reason = { "check.one_of_two",
                             "{0}; signed by {1}, 1 of 2",
                             { check.reason, valid.front()->by } };
        return;
    }
    std::string names;
    for (const SignOff *s : valid)
        names += (names.empty() ? "" : s == valid.back() ? " and " : ", ") + s->by;
    const bool alone = *needed == 1 && m_job && m_job->alone && check.cls >= CheckClass::Two;
    check.state = CheckState::SignedOff;
    check.reason = { "check.signed",
                     alone ? "signed alone by {0}: {1}" : "signed off by {0}: {1}",
                     { names, valid.back()->note } };
}

Result<SignOff> signCheck(const Build &build, const CheckList &list, const std::string &check,
                          const std::string &by, const std::string &why, const std::string &gate)
{
    const Check *c = list.find(check);
    if (!c || !c->asked)
        return fail("check", "there is no check \"" + check + "\" asked on this engine");
    if (c->state == CheckState::Proven)
        return fail("check", "it is proven: there is nothing to sign for");
    const Job *job = currentJob(build);
    if (!signaturesNeeded(*c, job && job->alone))
        return fail("check",
                    c->kind->cls == CheckClass::Never
                        ? "nobody may sign for this: prove it, or change what is asked"
                        : "nobody may sign for this: oil did not come, or the harm is too great");
    const auto people = standing(build.people);
    if (std::none_of(people.begin(), people.end(), [&](const Person *p) { return p->name == by; }))
        return fail("by",
                    by.empty() ? Phrase("Who signs?")
                               : Phrase(by + " is not among the people of this engine"));
    for (const CheckSignature &s : c->signatures)
        if (s.voidBecause.empty() && s.signOff.by == by)
            return fail("by", by + " has signed already: another person has to");
    if (Phrase lacks = whatLacksReason(why, c->kind->statement); !lacks.empty())
        return fail("note", std::move(lacks));
    SignOff out;
    out.by = by;
    out.note = why;
    out.check = check;
    out.said = render(c->reason, fileStyle);
    // A signature that is one of two is given for what stands beneath it.
    out.state = wordOf(c->state == CheckState::SignedOff ? CheckState::Hold : c->state);
    out.value = c->margin;
    if (c->expanded)
        out.u = *c->expanded / 2;
    out.gate = gate;
    return out;
}

Result<std::vector<SignOff>> signChecks(const Build &build, const CheckList &list,
                                        const std::vector<std::string> &checks,
                                        const std::string &by, const std::string &why,
                                        const std::string &gate)
{
    std::vector<SignOff> out;
    std::optional<Error> first;
    for (const std::string &id : checks) {
        auto sign = signCheck(build, list, id, by, why, gate);
        if (sign)
            out.push_back(std::move(*sign));
        else if (!first || sign.error().place != "check")
            first = sign.error();
    }
    if (out.empty())
        return first ? tl::unexpected(*first)
                     : Result<std::vector<SignOff>>(fail("check", "there is nothing to sign for"));
    return out;
}

} // namespace mildpath
