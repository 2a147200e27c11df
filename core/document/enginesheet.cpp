// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/enginesheet.h"

#include "circuit/elementtypes.h"
#include "document/afterrun.h"
#include "document/recipes.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace mildpath {
namespace {

constexpr std::array<EngineColumn, sheetWidth> columns { {
    { "journal", "journal", "mm" },
    { "width", "width", "mm" },
    { "wall", "shell wall", "mm" },
    { "groove", "groove", "mm" },
    { "feed", "feed Ø", "mm" },
    { "hole", "hole Ø", "mm" },
    { "least", "least", "µm" },
    { "most", "most", "µm" },
    { "target", "target", "µm" },
} };
constexpr std::array<const char *, 3> limitKeyOf { "min_um", "max_um", "target_um" };
constexpr size_t firstLimit = static_cast<size_t>(EngineSize::Least);

bool passes(const Element &e)
{
    return e.kind == ElementKind::Pipe || e.kind == ElementKind::Drilling
        || e.kind == ElementKind::CrankDrilling || e.kind == ElementKind::Orifice;
}

/// Builds the rows: each part with its numbers.
class Sheet
{
public:
    explicit Sheet(const Build &build)
        : m_build(build)
    {
        for (const Stop &s : build.engine.stops)
            for (const std::string &id : s.elements)
                if (const Element *e = build.circuit.find(id))
                    m_elements[s.id].push_back(e);
    }

    std::vector<EngineFamily> families()
    {
        for (const SizeItem &item : sizeItems(m_build)) {
            EngineFamily &family = familyOf(std::string(item.family->id), item.family->plural);
            EngineMember m { item.name, item.stop->id, {} };
            if (const Element *e = m_build.circuit.find(item.element);
                e && e->kind != ElementKind::Pump)
                sizesOf(*e, *item.stop, m);
            // A bearing that is its stop may have limits of its own.
            const bool alone
                = item.stop->kind == StopKind::Main || item.stop->kind == StopKind::BigEnd;
            for (size_t i = 0; i < limitKeyOf.size(); ++i) {
                const std::string id(item.family->id);
                family.own[firstLimit + i] = "limits/" + id + "/" + limitKeyOf[i];
                if (alone && item.family->shells)
                    m.at[firstLimit + i]
                        = "limits/" + id + "@" + item.stop->id + "/" + limitKeyOf[i];
            }
            family.members.push_back(std::move(m));
        }
        for (const Stop &s : m_build.engine.stops)
            branch(s);
        return std::move(m_out);
    }

private:
    EngineFamily &familyOf(const std::string &id, std::string_view name)
    {
        const auto it = std::ranges::find(m_out, id, &EngineFamily::id);
        if (it != m_out.end())
            return *it;
        m_out.push_back({ id, std::string(name), {}, {} });
        return m_out.back();
    }
    static std::string &at(EngineMember &m, EngineSize part)
    {
        return m.at[static_cast<size_t>(part)];
    }
    static std::string placeOf(const Element &e, const char *key)
    {
        return "circuit/" + e.id + "/" + key;
    }

    void sizesOf(const Element &e, const Stop &stop, EngineMember &m) const
    {
        at(m, EngineSize::Journal) = placeOf(e, "d_mm");
        at(m, EngineSize::Width) = placeOf(e, isBearing(e) ? "width_mm" : "l_mm");
        if (isBearing(e) && e.value("groove_deg") > 0)
            at(m, EngineSize::Groove) = placeOf(e, "groove_width_mm");
        if (stop.kind == StopKind::Main || stop.kind == StopKind::BigEnd)
            at(m, EngineSize::Wall) = "stops/" + stop.id + "/shell_wall_mm";
        if (stop.kind == StopKind::Main)
            at(m, EngineSize::Hole) = "stops/" + stop.id + "/shell_hole_mm";
        else if (stop.kind == StopKind::BigEnd)
            at(m, EngineSize::Hole) = placeOf(e, "hole_mm");
        for (const Element *other : elementsOf(stop)) {
            if (!passes(*other))
                continue;
            // Along a gallery one part is not fed by the part before it.
            const bool along = std::ranges::any_of(
                stop.points, [&](const StopPoint &p) { return p.node == other->from; });
            if (other->to == e.from && !along)
                at(m, EngineSize::Feed) = placeOf(*other, "d_mm");
            else if (other->from == e.from && other->kind == ElementKind::Orifice)
                at(m, EngineSize::Hole) = placeOf(*other, "d_mm"); // a lifter's meter
        }
    }

    /// Rockers on their shaft; jets, turbochargers, phasers by their hole and what leads to it.
    void branch(const Stop &s)
    {
        if (formOf(s.kind) != StopForm::Branch || findFamily(wordOf(s.kind)))
            return;
        int n = 0;
        const auto count = std::ranges::count_if(
            elementsOf(s), [](const Element *e) { return e->to == sumpNode; });
        for (const Element *e : elementsOf(s)) {
            if (e->to != sumpNode)
                continue;
            EngineMember m { count > 1 ? s.name + " " + std::to_string(++n) : s.name, s.id, {} };
            if (e->kind == ElementKind::Annulus || isBearing(*e))
                sizesOf(*e, s, m);
            else if (findElementKey(e->kind, "d_mm")) {
                at(m, EngineSize::Hole) = placeOf(*e, "d_mm");
                for (const Element *other : elementsOf(s))
                    if (other->to == e->from && passes(*other))
                        at(m, EngineSize::Feed) = placeOf(*other, "d_mm");
            }
            familyOf(std::string(wordOf(s.kind)), usualName(s.kind))
                .members.push_back(std::move(m));
        }
    }

    std::vector<const Element *> elementsOf(const Stop &s) const
    {
        const auto it = m_elements.find(s.id);
        return it == m_elements.end() ? std::vector<const Element *> {} : it->second;
    }

    const Build &m_build;
    std::map<std::string, std::vector<const Element *>> m_elements;
    std::vector<EngineFamily> m_out;
};

/// "main_feed" of "main_feed_3", "gallery" of "gallery_12": what like elements have in common.
std::string stemOf(std::string id)
{
    while (!id.empty() && (std::isdigit(static_cast<unsigned char>(id.back())) || id.back() == '_'))
        id.pop_back();
    return id;
}

std::string inWords(std::string id)
{
    std::ranges::replace(id, '_', ' ');
    return id;
}

bool isPrincipal(std::string_view key)
{
    static constexpr std::array<std::string_view, 18> keys {
        "d_mm",         "width_mm",    "hole_mm",   "rotor_length_mm", "eccentricity_mm",
        "inner_tip_mm", "drive_ratio", "crack_kpa", "full_kpa",        "full_area_mm2",
        "open_kpa",     "open_c",      "full_c",    "bore_mm",         "stroke_mm",
        "plug_bore_mm", "stage_cm3",   "to_sump"
    };
    return std::ranges::find(keys, key) != keys.end();
}

/// The commonest of some numbers.
EngineCell shared(const Build &build, const std::vector<std::string> &places)
{
    EngineCell out;
    std::vector<std::optional<double>> values;
    for (const std::string &at : places)
        values.push_back(at.empty() ? std::nullopt : engineValue(build, at));
    size_t best = 0;
    for (size_t i = 0; i < places.size(); ++i) {
        if (places[i].empty())
            continue;
        const auto alike = static_cast<size_t>(std::ranges::count(values, values[i]));
        if (alike > best) {
            best = alike;
            out.value = values[i];
        }
    }
    bool first = true;
    for (size_t i = 0; i < places.size(); ++i) {
        if (places[i].empty())
            continue;
        if (values[i] != out.value) {
            out.differing.push_back(i);
            continue;
        }
        const Origin origin = originOf(build, places[i]);
        out.origin = first ? origin : std::min(out.origin, origin);
        first = false;
        out.at.push_back(places[i]);
    }
    return out;
}

Edit setAll(const std::vector<std::string> &places, double value, Origin origin,
            const std::string &by, const std::string &when)
{
    EditAll all { {}, {} };
    for (const std::string &at : places)
        all.edits.emplace_back(SetEngineValue { at, value, origin, by, when });
    if (all.edits.size() == 1)
        return all.edits.front();
    return all;
}

} // namespace

std::span<const EngineColumn, sheetWidth> sheetColumns()
{
    return columns;
}

std::vector<EngineFamily> sheetFamilies(const Build &build)
{
    return Sheet(build).families();
}

EngineCell sharedCell(const Build &build, const EngineFamily &family, size_t column)
{
    if (const std::string &own = family.own[column]; !own.empty()) {
        EngineCell out;
        out.at = { own };
        out.value = engineValue(build, own);
        out.origin = originOf(build, own);
        for (size_t i = 0; i < family.members.size(); ++i)
            if (const std::string &at = family.members[i].at[column];
                !at.empty() && engineValue(build, at) != out.value)
                out.differing.push_back(i);
        return out;
    }
    std::vector<std::string> places;
    for (const EngineMember &m : family.members)
        places.push_back(m.at[column]);
    return shared(build, places);
}

std::vector<size_t> differingMembers(const Build &build, const EngineFamily &family)
{
    std::set<size_t> out;
    for (size_t c = 0; c < sheetWidth; ++c) {
        const EngineCell cell = sharedCell(build, family, c);
        out.insert(cell.differing.begin(), cell.differing.end());
    }
    return { out.begin(), out.end() };
}

std::vector<EngineList> sheetLists(const Build &build)
{
    std::set<std::string> shown;
    for (const EngineFamily &f : sheetFamilies(build))
        for (const EngineMember &m : f.members)
            shown.insert(m.at.begin(), m.at.end());
    std::vector<EngineList> out;
    const auto put = [&](const std::string &list, const std::string &name, const std::string &at,
                         std::string_view key) {
        if (shown.contains(at))
            return;
        auto l = std::ranges::find(out, list, &EngineList::name);
        if (l == out.end())
            l = out.insert(out.end(), { list, {} });
        auto e = std::ranges::find(l->entries, name, &EngineEntry::name);
        if (e == l->entries.end())
            e = l->entries.insert(e, { name, {}, isPrincipal(key) });
        e->at.push_back(at);
    };
    const auto record = [&](const char *list, const char *part, const RecordType &type) {
        for (const Field &f : type.fields)
            if (f.shape == MemberShape::Number && f.isRanged() && f.key != "displacement_l")
                put(list, std::string(f.meaning), part + ("/" + std::string(f.key)), f.key);
    };
    record("Engine", "engine", recordType<Engine>());
    record("Use", "use", recordType<Use>());
    for (const Stop &s : build.engine.stops) {
        const std::string list = usualName(s.kind);
        for (const NumberKey &k : stopKeys())
            if (k.group == wordOf(s.kind) && !k.yesNo)
                put(list, std::string(k.meaning), "stops/" + s.id + "/" + std::string(k.key),
                    k.key);
        for (const std::string &id : s.elements)
            if (const Element *e = build.circuit.find(id))
                for (const NumberKey &k : elementType(e->kind).keys)
                    if (k.typed)
                        put(list, inWords(stemOf(id)) + ", " + std::string(k.meaning),
                            "circuit/" + id + "/" + std::string(k.key), k.key);
        for (const std::string &id : s.elements)
            if (const std::string at = "circuit/" + id + "/to_sump"; aboutValue(build, at))
                put(list, aboutValue(build, at)->meaning, at, "to_sump");
    }
    for (const NumberKey &k : finishKeys())
        if (k.group == "shell" || (k.group == "cam" && build.engine.ofKind(StopKind::CamBearing)))
            put(k.group == "cam" ? "Cams and followers" : "Bearing surfaces",
                std::string(k.meaning), "finish/" + std::string(k.key), k.key);
    return out;
}

EngineCell sharedCell(const Build &build, const EngineEntry &entry)
{
    return shared(build, entry.at);
}

std::vector<std::string> typicalSizes(const Build &build)
{
    std::vector<std::string> out;
    const auto look = [&](const EngineCell &cell, const std::string &name) {
        if (!cell.at.empty() && cell.value && cell.origin == Origin::Typical)
            out.push_back(name);
    };
    for (const EngineFamily &f : sheetFamilies(build))
        for (size_t c = 0; c < sheetWidth; ++c)
            look(sharedCell(build, f, c), f.name + ", " + std::string(columns[c].title));
    for (const EngineList &l : sheetLists(build))
        for (const EngineEntry &e : l.entries)
            if (e.principal)
                look(sharedCell(build, e), l.name + ", " + e.name);
    return out;
}

Phrase typicalText(size_t count)
{
    if (count == 0)
        return {};
    return { count == 1 ? "sheet.typicalOne" : "sheet.typical",
             count == 1 ? "{0} size is a typical value" : "{0} sizes are typical values",
             { asCount(count) } };
}

Edit setShared(const EngineCell &cell, double value, Origin origin, const std::string &by,
               const std::string &when)
{
    return setAll(cell.at, value, origin, by, when);
}

Edit makeAlike(const Build &build, const EngineFamily &family, size_t column, double value,
               Origin origin, const std::string &by, const std::string &when)
{
    EditAll all { {}, {} };
    if (const std::string &own = family.own[column]; !own.empty()) {
        all.edits.emplace_back(SetEngineValue { own, value, origin, by, when });
        for (const size_t i : sharedCell(build, family, column).differing)
            all.edits.emplace_back(SetEngineValue { family.members[i].at[column], std::nullopt });
    } else {
        for (const EngineMember &m : family.members)
            if (!m.at[column].empty())
                all.edits.emplace_back(SetEngineValue { m.at[column], value, origin, by, when });
    }
    return all;
}

} // namespace mildpath
