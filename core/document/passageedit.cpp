// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/passageedit.h"

#include "quantity/overloaded.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// The row of that id, replaced or added.
template <class Row> void put(std::vector<Row> &rows, const Row &row)
{
    const auto it
        = std::find_if(rows.begin(), rows.end(), [&](const Row &r) { return r.id == row.id; });
    if (it == rows.end())
        rows.push_back(row);
    else
        *it = row;
}

bool hasEvents(const Build &build, const std::string &scope, const std::string &id)
{
    return std::any_of(build.events.begin(), build.events.end(),
                       [&](const CleanEvent &e) { return e.scope == scope && e.target == id; });
}

PassageEnd *endOf(Build &build, const Plug &plug)
{
    for (Passage &p : build.passages)
        if (p.id == plug.passage)
            for (int e = 0; e < 2; ++e)
                if (samePlace(plug.at_mm, (e == 0 ? 0 : p.l_mm)))
                    return &p.ends[static_cast<size_t>(e)];
    return nullptr;
}

Result<Build> dropPassage(Build build, const std::string &id)
{
    if (!findPassage(build.passages, id))
        return fail("passage", "there is no passage \"" + id + "\"");
    if (hasEvents(build, "passage", id))
        return fail("passage", "it has events in the logbook and stays");
    for (const Passage &p : build.passages)
        for (const PassageEnd &e : p.ends)
            if (e.passage == id)
                return fail("passage", p.name + " runs into it: change that one first");
    for (const Passage &p : build.passages)
        for (const Crossing &c : p.crossings)
            if (c.passage == id)
                return fail("passage", p.name + " runs through it: change that one first");
    for (const Plug &p : build.plugs)
        if (p.passage == id && hasEvents(build, "plug", p.id))
            return fail("passage", p.name + " in it has events in the logbook");
    std::erase_if(build.plugs, [&](const Plug &p) { return p.passage == id; });
    std::erase_if(build.passages, [&](const Passage &p) { return p.id == id; });
    return build;
}

Result<Build> cutPassage(Build build, const CutPassage &e)
{
    std::string id = e.passage + "_far";
    for (int n = 2; findPassage(build.passages, id); ++n)
        id = e.passage + "_far" + std::to_string(n);
    if (auto ok = splitPassage(build.passages, build.plugs, e.passage, e.at_mm, id,
                               static_cast<int>(build.events.size()));
        !ok)
        return tl::unexpected(ok.error());
    return build;
}

Result<Build> putPlug(Build build, const Plug &plug)
{
    if (const Plug *old = findPlug(build.plugs, plug.id))
        if (PassageEnd *end = endOf(build, *old))
            end->kind = "hole";
    if (PassageEnd *end = endOf(build, plug)) {
        if (end->kind == "joint")
            return fail("at_mm", "the passage runs into another one there");
        end->kind = "plug";
    }
    put(build.plugs, plug);
    return build;
}

Result<Build> dropPlug(Build build, const std::string &id)
{
    const Plug *plug = findPlug(build.plugs, id);
    if (!plug)
        return fail("plug", "there is no plug \"" + id + "\"");
    if (hasEvents(build, "plug", id))
        return fail("plug", "it has events in the logbook and stays");
    for (const Plug &p : build.plugs)
        if (p.behind == id)
            return fail("plug", p.name + " sits behind it: take that one off first");
    if (PassageEnd *end = endOf(build, *plug))
        end->kind = "hole";
    std::erase_if(build.plugs, [&](const Plug &p) { return p.id == id; });
    return build;
}

Result<Build> drawUsual(Build build)
{
    if (!build.passages.empty())
        return fail("passages", "there are passages already");
    PassageSet set = usualPassages(build);
    build.passages = std::move(set.passages);
    build.plugs = std::move(set.plugs);
    return build;
}

std::string passageName(const Build &build, const std::string &id)
{
    const Passage *p = findPassage(build.passages, id);
    return p ? p->name : id;
}

Phrase entryById(const Build &build, const TakeBackEntry &e)
{
    Phrase out;
    forEachLog([&](const auto &log) {
        for (const auto &entry : build.*log.list)
            if (log.key == e.log && entry.id == e.id)
                out = describeEntry(build, entry);
    });
    return out;
}

} // namespace

Result<Build> applyPassageEdit(Build build, const PassageEdit &edit)
{
    return std::visit(
        Overloaded {
            [&](const AddEntry &e) { return addEntry(std::move(build), e); },
            [&](const TakeBackEntry &e) { return takeBackEntry(std::move(build), e); },
            [&](const PutPassage &e) -> Result<Build> {
                put(build.passages, e.passage);
                return std::move(build);
            },
            [&](const DropPassage &e) { return dropPassage(std::move(build), e.passage); },
            [&](const CutPassage &e) { return cutPassage(std::move(build), e); },
            [&](const PutPlug &e) { return putPlug(std::move(build), e.plug); },
            [&](const DropPlug &e) { return dropPlug(std::move(build), e.plug); },
            [&](const DrawPassages &) { return drawUsual(std::move(build)); },
        },
        edit);
}

Phrase describePassageEdit(const Build &build, const PassageEdit &edit)
{
    const auto words = Overloaded {
        [&](const AddEntry &e) { return describeEntry(build, e.entry); },
        [&](const TakeBackEntry &e) {
            return Phrase("edit.withdrawn", "{0}, withdrawn", { entryById(build, e) });
        },
        [&](const PutPassage &e) { return "passage " + e.passage.name; },
        [&](const DropPassage &e) {
            return "passage " + passageName(build, e.passage) + " taken out";
        },
        [&](const CutPassage &e) {
            return Phrase("edit.cut", "{0} cut at {1}",
                          { passageName(build, e.passage), asLength(e.at_mm, 0) });
        },
        [&](const PutPlug &e) { return "plug " + e.plug.name; },
        [&](const DropPlug &e) {
            const Plug *p = findPlug(build.plugs, e.plug);
            return "plug " + (p ? p->name : e.plug) + " taken off the list";
        },
        [&](const DrawPassages &) { return std::string("usual passages"); },
    };
    return std::visit([&](const auto &e) { return Phrase(words(e)); }, edit);
}

} // namespace mildpath
