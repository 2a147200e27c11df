// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

namespace mildpath {

CheckBoard::CheckBoard(const Build &of, const Figures &numbers, std::string_view day)
    : build(of)
    , figures(numbers)
    , today(day)
    , own(std::make_shared<const OwnKinds>(of))
{
    const auto add = [this](const CheckKind &kind, CheckPlace place) {
        Check c { &kind, std::move(place) };
        c.cls = kind.cls;
        m_byId.emplace(c.id(), checks.size());
        checks.push_back(std::move(c));
    };
    for (const CheckKind &kind : checkKinds()) {
        const size_t first = checks.size();
        for (CheckPlace &place : placesOf(build, kind))
            add(kind, std::move(place));
        if (kind.id == ownKind)
            for (const OwnKinds::Own &o : own->all())
                add(o.kind, o.place);
        m_byKind[kind.id] = { first, checks.size() };
    }
}

Check *CheckBoard::find(std::string_view kind, std::string_view place)
{
    const auto at = m_byId.find(std::string(kind) + "@" + std::string(place));
    return at == m_byId.end() ? nullptr : &checks[at->second];
}

void CheckBoard::say(std::string_view kind, std::string_view place, Evidence evidence)
{
    if (Check *c = find(kind, place))
        c->timeline.push_back(std::move(evidence));
}

void CheckBoard::each(std::string_view kind, const std::function<void(Check &)> &visit)
{
    const auto at = m_byKind.find(kind);
    if (at == m_byKind.end())
        return;
    for (size_t i = at->second.first; i < at->second.second; ++i)
        visit(checks[i]);
}

void CheckBoard::eachAt(std::string_view id, const std::function<void(Check &)> &visit)
{
    if (const auto at = m_byId.find(std::string(id)); at != m_byId.end())
        return visit(checks[at->second]);
    for (Check &c : checks)
        if (c.place.isMeantBy(id))
            visit(c);
}

} // namespace mildpath
