// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"
#include "quantity/json.h"
#include "quantity/jsonreader.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
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
    for (Stop &stop : build.engine.stops)
        if (stop.id == plug.stop)
            stop.values.erase("plug_bore_mm"); // it stands in the ledger
    settleTwoValues(build, plug.id, "plug_bore_mm");
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
    // Its stop keeps the size of the hole.
    for (Stop &stop : build.engine.stops)
        if (stop.id == plug->stop)
            stop.values["plug_bore_mm"] = plug->d_mm;
    std::erase_if(build.twoValues, [&](const TwoValues &t) { return t.element == id; });
    std::erase_if(build.plugs, [&](const Plug &p) { return p.id == id; });
    return build;
}

Result<Build> drawUsual(Build build)
{
    if (!build.passages.empty())
        return fail("passages", "there are passages already");
    putUsualPassages(build);
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

void readEntryOf(void *record, const Json &json, const std::string &place,
                 std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    const std::string list = in.text("log");
    bool known = false;
    forEachLog([&]<class L>(const L &log) {
        if (log.key != list)
            return;
        known = true;
        static_cast<AddEntry *>(record)->entry
            = fromJson<typename L::Entry>(in.object("entry"), place + "/entry", errors);
    });
    if (!known)
        in.error("log", "there is no list \"" + list + "\"");
}

Json writeEntry(const void *edit)
{
    const auto &added = *static_cast<const AddEntry *>(edit);
    Json out = Json::object();
    out["log"] = logOf(added.entry);
    out["entry"] = std::visit([](const auto &entry) { return toJson(entry); }, added.entry);
    return out;
}

} // namespace

/// Which list an entry goes to is said beside it: it is read and written as a whole.
template <> const RecordType &recordType<AddEntry>()
{
    static const RecordType type = Describe<AddEntry>("add_entry");
    return type;
}

template <> const EditKind &editKind<AddEntry>()
{
    static const EditKind kind = asAWhole(kindOf<AddEntry>(
                                              [](Build build, const AddEntry &e) -> Result<Build> {
                                                  return addEntry(std::move(build), e);
                                              },
                                              [](const Build &build, const AddEntry &e) -> Phrase {
                                                  return describeEntry(build, e.entry);
                                              }),
                                          readEntryOf, writeEntry);
    return kind;
}

template <> const RecordType &recordType<TakeBackEntry>()
{
    static const RecordType type = Describe<TakeBackEntry>("take_back")
                                       .must<&TakeBackEntry::log>("log", "key of the list")
                                       .must<&TakeBackEntry::id>("id", "of the entry")
                                       .field<&TakeBackEntry::by>("by", "who took it back")
                                       .field<&TakeBackEntry::at>("at", "when");
    return type;
}

template <> const EditKind &editKind<TakeBackEntry>()
{
    static const EditKind kind = kindOf<TakeBackEntry>(
        [](Build build, const TakeBackEntry &e) -> Result<Build> {
            return takeBackEntry(std::move(build), e);
        },
        [](const Build &build, const TakeBackEntry &e) -> Phrase {
            return Phrase("edit.withdrawn", "{0}, withdrawn", { entryById(build, e) });
        });
    return kind;
}

Edit setBore(const Passage &passage, double d_mm)
{
    if (passage.elements.empty()) {
        PutPassage put { passage };
        put.passage.d_mm = d_mm;
        return put;
    }
    EditAll all { "passage " + passage.name, {} };
    for (const std::string &id : passage.elements)
        all.edits.emplace_back(SetElementValue { id, "d_mm", d_mm });
    return all;
}

template <> const RecordType &recordType<PutPassage>()
{
    static const RecordType type
        = Describe<PutPassage>("passage").must<&PutPassage::passage>("passage", "the passage");
    return type;
}

template <> const EditKind &editKind<PutPassage>()
{
    static const EditKind kind = kindOf<PutPassage>(
        [](Build build, const PutPassage &e) -> Result<Build> {
            put(build.passages, e.passage);
            return build;
        },
        [](const Build &, const PutPassage &e) -> Phrase { return "passage " + e.passage.name; });
    return kind;
}

template <> const RecordType &recordType<DropPassage>()
{
    static const RecordType type
        = Describe<DropPassage>("drop_passage").must<&DropPassage::passage>("passage", "its id");
    return type;
}

template <> const EditKind &editKind<DropPassage>()
{
    static const EditKind kind = kindOf<DropPassage>(
        [](Build build, const DropPassage &e) -> Result<Build> {
            return dropPassage(std::move(build), e.passage);
        },
        [](const Build &build, const DropPassage &e) -> Phrase {
            return "passage " + passageName(build, e.passage) + " taken out";
        });
    return kind;
}

template <> const RecordType &recordType<CutPassage>()
{
    static const RecordType type = Describe<CutPassage>("cut_passage")
                                       .must<&CutPassage::passage>("passage", "its id")
                                       .must<&CutPassage::at_mm>("at_mm", "where")
                                       .in("mm");
    return type;
}

template <> const EditKind &editKind<CutPassage>()
{
    static const EditKind kind = kindOf<CutPassage>(
        [](Build build, const CutPassage &e) -> Result<Build> {
            return cutPassage(std::move(build), e);
        },
        [](const Build &build, const CutPassage &e) -> Phrase {
            return Phrase("edit.cut", "{0} cut at {1}",
                          { passageName(build, e.passage), asLength(e.at_mm, 0) });
        });
    return kind;
}

template <> const RecordType &recordType<PutPlug>()
{
    static const RecordType type
        = Describe<PutPlug>("plug").must<&PutPlug::plug>("plug", "the plug");
    return type;
}

template <> const EditKind &editKind<PutPlug>()
{
    static const EditKind kind = kindOf<PutPlug>(
        [](Build build, const PutPlug &e) -> Result<Build> {
            return putPlug(std::move(build), e.plug);
        },
        [](const Build &, const PutPlug &e) -> Phrase { return "plug " + e.plug.name; });
    return kind;
}

template <> const RecordType &recordType<DropPlug>()
{
    static const RecordType type
        = Describe<DropPlug>("drop_plug").must<&DropPlug::plug>("plug", "its id");
    return type;
}

template <> const EditKind &editKind<DropPlug>()
{
    static const EditKind kind = kindOf<DropPlug>(
        [](Build build, const DropPlug &e) -> Result<Build> {
            return dropPlug(std::move(build), e.plug);
        },
        [](const Build &build, const DropPlug &e) -> Phrase {
            const Plug *p = findPlug(build.plugs, e.plug);
            return "plug " + (p ? p->name : e.plug) + " taken off the list";
        });
    return kind;
}

template <> const RecordType &recordType<DrawPassages>()
{
    static const RecordType type = Describe<DrawPassages>("draw_passages");
    return type;
}

template <> const EditKind &editKind<DrawPassages>()
{
    static const EditKind kind = kindOf<DrawPassages>(
        [](Build build, const DrawPassages &) -> Result<Build> {
            return drawUsual(std::move(build));
        },
        [](const Build &, const DrawPassages &) -> Phrase {
            return std::string("usual passages");
        });
    return kind;
}

std::span<const EditKind *const> passageEdits()
{
    static const std::array kinds { &editKind<AddEntry>(),   &editKind<TakeBackEntry>(),
                                    &editKind<PutPassage>(), &editKind<DropPassage>(),
                                    &editKind<CutPassage>(), &editKind<PutPlug>(),
                                    &editKind<DropPlug>(),   &editKind<DrawPassages>() };
    return kinds;
}

} // namespace mildpath
