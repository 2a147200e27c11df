// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/checks.h"

#include "assess/figures.h"
#include "checks/board.h"
#include "checks/cost.h"
#include "diagnose/faults.h"
#include "document/logbook.h"

#include <algorithm>
#include <cctype>
#include <map>

namespace mildpath {

template <> std::span<const std::string_view> enumWords<CheckState>()
{
    static constexpr std::array<std::string_view, 5> words { "proven", "signed_off", "not_done",
                                                             "look_again", "hold" };
    return words;
}

template <> std::span<const std::string_view> enumWords<CheckGate>()
{
    static constexpr std::array<std::string_view, 4> words { "turn", "fire", "load", "handover" };
    return words;
}

template <> std::span<const std::string_view> enumWords<CheckClass>()
{
    static constexpr std::array<std::string_view, 4> words { "0", "1", "2", "!" };
    return words;
}

Mark markOf(CheckState state)
{
    switch (state) {
    case CheckState::Proven:
        return Mark::Proven;
    case CheckState::SignedOff:
        return Mark::SignedOff;
    case CheckState::NotDone:
        return Mark::NotDone;
    case CheckState::LookAgain:
        return Mark::LookAgain;
    case CheckState::Hold:
        break;
    }
    return Mark::Hold;
}

Mark markOf(const Check &check)
{
    return check.state == CheckState::Proven && check.onAssumed ? Mark::Assumed
                                                                : markOf(check.state);
}

Phrase Check::statement() const
{
    std::string text(kind->statement);
    if (place.id == wholeEngine)
        return text;
    if (kind->id != ownKind) // in one's own words as they are
        text[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(text[0])));
    return named(place.name, text);
}

bool CheckList::shuts(const Check &check)
{
    if (!check.asked || !check.isOpen())
        return false;
    return check.cls != CheckClass::Open || check.state == CheckState::Hold;
}

CheckList::CheckList(std::vector<Check> checks, std::vector<SignOff> stray,
                     std::shared_ptr<const OwnKinds> own)
    : m_checks(std::move(checks))
    , m_stray(std::move(stray))
    , m_own(std::move(own))
{
    for (size_t g = 0; g < m_gates.size(); ++g) {
        GateState &gate = m_gates[g];
        for (const Check &c : m_checks) {
            if (!c.asked || static_cast<size_t>(c.kind->gate()) > g)
                continue;
            gate.signedOff += c.state == CheckState::SignedOff;
            if (!shuts(c))
                continue;
            ++gate.openChecks;
            gate.holds += c.state == CheckState::Hold;
        }
        gate.open = gate.openChecks == 0;
    }
}

std::vector<const CheckKind *> CheckList::kinds() const
{
    std::vector<const CheckKind *> out;
    for (const CheckKind &k : checkKinds())
        if (k.id != ownKind)
            out.push_back(&k);
    for (const OwnKinds::Own &o : m_own->all())
        out.push_back(&o.kind);
    std::ranges::stable_sort(out, {}, &CheckKind::stage);
    return out;
}

const Check *CheckList::find(std::string_view id) const
{
    const auto at = std::find_if(m_checks.begin(), m_checks.end(),
                                 [&](const Check &c) { return c.id() == id; });
    return at == m_checks.end() ? nullptr : &*at;
}

CheckState CheckList::worst() const
{
    CheckState out = CheckState::Proven;
    for (const Check &c : m_checks)
        if (c.asked)
            out = std::max(out, c.state);
    return out;
}

int CheckList::count(CheckState state) const
{
    return static_cast<int>(std::count_if(m_checks.begin(), m_checks.end(), [&](const Check &c) {
        return c.asked && c.state == state;
    }));
}

bool CheckList::counts(const Check &check, std::string_view stop, Aspect aspect)
{
    return check.asked && check.kind->aspect == aspect && check.place.stop == stop
        && (check.cls != CheckClass::Open || check.state == CheckState::Hold);
}

Mark CheckList::markOf(CheckGate which) const
{
    if (gate(which).open)
        return gate(which).signedOff > 0 ? Mark::SignedOff : Mark::Proven;
    Mark out = Mark::Proven;
    for (const Check &c : m_checks)
        if (shuts(c) && c.kind->gate() <= which)
            out = worse(out, mildpath::markOf(c));
    return out;
}

Phrase CheckList::says(CheckGate which) const
{
    static constexpr std::array<std::string_view, 4> verbs { "turn", "fire", "be loaded",
                                                             "be handed over" };
    const GateState &g = gate(which);
    const std::string_view verb = verbs[static_cast<size_t>(which)];
    if (!g.open && g.holds > 0)
        return { "gate.held",
                 "May not {0}: {1} {1|check|checks} open, {2} of them {2|holds|hold}",
                 { verb, asCount(g.openChecks), asCount(g.holds) } };
    if (!g.open)
        return { "gate.shut",
                 "May not {0}: {1} {1|check|checks} open",
                 { verb, asCount(g.openChecks) } };
    if (g.signedOff == 0)
        return { "gate.open", "Nothing holds: it may {0}", { verb } };
    return { "gate.signed", "May {0}: {1} signed off", { verb, asCount(g.signedOff) } };
}

CheckList listChecks(const Build &build, const Figures &figures, std::string_view today,
                     const PromotedChecks &promoted)
{
    CheckBoard board(build, figures, today);
    for (Check &c : board.checks)
        if (promoted.contains(c.id()))
            c.cls = CheckClass::Never;
    laySizes(board);
    layWork(board);
    layStart(board);
    layComputed(board);
    layEntries(board);
    layActs(board);
    markAsked(board);
    linkAfter(board);
    settle(board);
    std::vector<SignOff> stray;
    for (const SignOff *s : standing(build.signOffs)) {
        const auto known = std::any_of(board.checks.begin(), board.checks.end(),
                                       [&](const Check &c) { return c.id() == s->check; });
        if (!known)
            stray.push_back(*s);
    }
    return CheckList(std::move(board.checks), std::move(stray), board.own);
}

Mark worstAsked(const CheckList &checks, std::initializer_list<std::string_view> kinds,
                std::string_view place)
{
    std::optional<Mark> out;
    for (const std::string_view kind : kinds)
        if (const Check *c = checks.find(std::string(kind) + "@" + std::string(place));
            c && c->asked)
            out = out ? worse(*out, markOf(*c)) : markOf(*c);
    return out.value_or(Mark::NotAsked);
}

std::vector<std::string> fallenBack(const CheckList &before, const CheckList &after)
{
    std::vector<std::string> out;
    for (const Check &c : before.all()) {
        if (!c.asked || c.isOpen())
            continue;
        const std::string id = c.id();
        if (const Check *then = after.find(id); then && then->asked && then->isOpen())
            out.push_back(id);
    }
    return out;
}

PromotedChecks promotedChecks(const Build &build, const Figures &figures, const CheckList &list)
{
    PromotedChecks out;
    if (figures.operating.unsolved)
        return out;
    std::map<std::string, int> harms; // by fault
    FaultCosts costs(build, figures.sizes);
    for (const Check &c : list.all()) {
        if (!c.asked || c.evident != Evident::No || c.cls == CheckClass::Never)
            continue;
        const auto fault = faultBehind(build, c);
        if (!fault)
            continue;
        auto [harm, fresh]
            = harms.try_emplace(faultId(*fault) + "=" + std::to_string(fault->severity));
        if (fresh)
            harm->second = costs.of(*fault).harm;
        if (harm->second == 3)
            out.insert(c.id());
    }
    return out;
}

CheckList checksOf(const Build &build, const Figures &figures, std::string_view today)
{
    CheckList plain = listChecks(build, figures, today);
    const PromotedChecks promoted = promotedChecks(build, figures, plain);
    return promoted.empty() ? plain : listChecks(build, figures, today, promoted);
}

} // namespace mildpath
