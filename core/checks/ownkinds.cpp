// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/ownkinds.h"

#include "document/logbook.h"

#include <algorithm>
#include <map>

namespace mildpath {
namespace {

/// The stage that was said, and no earlier than the kinds it comes after.
Stage stageFor(const OwnCheck &own, const CheckKind &usual)
{
    std::optional<Stage> latest = stageOf(own.stage);
    for (const std::string &id : own.after)
        if (const CheckKind *before = findCheckKind(id))
            latest = std::max(latest.value_or(before->stage), before->stage);
    return latest.value_or(usual.stage);
}

CheckClass classOf(const OwnCheck &own)
{
    const auto words = enumWords<CheckClass>();
    const auto at = std::ranges::find(words, own.cls);
    return at == words.end() ? CheckClass::One : static_cast<CheckClass>(at - words.begin());
}

/// Where it stands: at a stop, a passage, a plug or a part; else it is the engine's.
CheckPlace placeFor(const Build &build, const OwnCheck &own, const std::string &id)
{
    CheckPlace out { id, "Own check", {}, { id } };
    if (own.place.empty())
        return out;
    out.ids.push_back(own.place);
    out.name = own.place;
    if (const Stop *s = build.engine.find(own.place)) {
        out.name = s->name;
        out.stop = s->id;
    } else if (const Passage *p = findPassage(build.passages, own.place)) {
        out.name = p->name;
        out.stop = p->stop;
    } else if (const Plug *plug = findPlug(build.plugs, own.place)) {
        out.name = plug->name;
    } else if (isPart(own.place)) {
        out.name = partName(own.place);
    }
    return out;
}

} // namespace

OwnKinds::OwnKinds(const Build &build)
{
    const CheckKind &usual = *findCheckKind(ownKind);
    for (const OwnCheck *own : standing(build.ownChecks)) {
        Own out { usual, placeFor(build, *own, firstEntry(build.ownChecks, *own).id), {} };
        out.kind.statement = kept(own->text);
        out.kind.stage = stageFor(*own, usual);
        out.kind.cls = classOf(*own);
        if (own->minutes)
            out.kind.minutes = static_cast<int>(*own->minutes + 0.5);
        std::string kinds;
        for (const std::string &id : own->after)
            if (findCheckKind(id) && id != ownKind)
                kinds += (kinds.empty() ? "" : " ") + id;
            else
                out.after.push_back(id);
        out.kind.after = kept(std::move(kinds));
        m_all.push_back(std::move(out));
    }
    // Nor earlier than others of one's own; none comes after itself.
    for (size_t pass = 0; pass < m_all.size(); ++pass)
        for (Own &o : m_all)
            for (const Own &before : m_all)
                if (std::ranges::find(o.after, before.place.id) != o.after.end())
                    o.kind.stage = std::max(o.kind.stage, before.kind.stage);
}

} // namespace mildpath
