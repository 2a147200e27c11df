// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"

#include "circuit/elementtypes.h"
#include "document/dimensions.h"
#include "oil/grades.h"
#include "oil/shear.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <set>

namespace mildpath {
namespace {

/// By kind.
constexpr std::array<AboutStopKind, static_cast<size_t>(StopKind::Plug) + 1> kinds { {
    { "Oil tank", 0 },
    { "Sump and pickup", 0 },
    { "Scavenge stages", 0 },
    { "Pump", 0 },
    { "Relief valve", 1 },
    { "External lines", 0 },
    { "Oil cooler", 0 },
    { "Filter", 0 },
    { "Galleries", 0 },
    { "Main bearings", 1 },
    { "Big-end bearings", 2 },
    { "Small-end bushes", 2 },
    { "Balance shaft bearings", 1 },
    { "Idlers", 1 },
    { "Cam bearings", 1 },
    { "Rockers", 2 },
    { "Lifters", 1 },
    { "Cooling jets", 1 },
    { "Chain oiling", 1 },
    { "Chain tensioner", 1 },
    { "Cam phasers", 2 },
    { "Turbochargers", 1 },
    { "Plugs", 1 },
} };

/// Ids already used by records of one kind, however they look.
template <class Record>
std::string nextId(const SharedList<Record> &records, const std::string &prefix)
{
    size_t number = records.size() + 1;
    const auto used = [&](const std::string &id) {
        return std::any_of(records.begin(), records.end(),
                           [&](const Record &r) { return r.id == id; });
    };
    while (used(prefix + std::to_string(number)))
        ++number;
    return prefix + std::to_string(number);
}

} // namespace

const AboutStopKind &aboutStopKind(StopKind kind)
{
    return kinds[static_cast<size_t>(kind)];
}

const Stop *Engine::find(std::string_view id) const
{
    for (const Stop &s : stops)
        if (s.id == id)
            return &s;
    return nullptr;
}

Build::Build() = default;
Build::Build(const Build &) = default;
Build::Build(Build &&) noexcept = default;
Build &Build::operator=(const Build &) = default;
Build &Build::operator=(Build &&) noexcept = default;
Build::~Build() = default;
bool Build::operator==(const Build &) const = default;

double Stop::value(const std::string &key, double fallback) const
{
    const auto it = values.find(key);
    return it == values.end() ? fallback : it->second;
}

Oil runningOil(const ChosenOil &oil)
{
    return thinning(oil.oil, oil.grade, oil.hths_mpa_s);
}

std::optional<ChosenOil> findOil(const Build &build, std::string_view name)
{
    for (const ChosenOil &o : build.ownOils)
        if (o.grade == name)
            return o;
    if (const ShelfOil *shelf = findShelfOil(name))
        return ChosenOil { std::string(shelf->grade), shelf->oil, shelf->hths_mpa_s };
    return std::nullopt;
}

ReadingPlace placeOf(const Reading &r)
{
    return { r.stop, r.family, r.item, r.method, r.station, r.angle_deg };
}

const Stop *Engine::ofKind(StopKind kind) const
{
    for (const Stop &s : stops)
        if (s.kind == kind)
            return &s;
    return nullptr;
}

std::vector<const Reading *> standingReadings(const Build &build)
{
    std::set<std::string_view> struck;
    for (const Reading &r : build.readings)
        if (!r.replaces.empty())
            struck.insert(r.replaces);
    std::vector<const Reading *> out;
    for (const Reading &r : build.readings)
        if (r.value_um && !struck.contains(r.id))
            out.push_back(&r);
    return out;
}

const Reading *readingAt(const Build &build, const ReadingPlace &place)
{
    const Reading *last = nullptr;
    for (const Reading *r : standingReadings(build))
        if (placeOf(*r) == place)
            last = r;
    return last;
}

std::string fittedShells(const Build &build, const std::string &family, const std::string &stop)
{
    const auto stock = build.shells.find(family);
    if (stock == build.shells.end())
        return {};
    const auto fitted = stock->second.fitted.find(stop);
    if (fitted == stock->second.fitted.end() || fitted->second.upper.empty())
        return {};
    return fitted->second.upper + "/" + fitted->second.lower;
}

std::string choiceOf(const Build &build, std::string_view question)
{
    std::string answer;
    for (const Choice &c : build.choices)
        if (c.question == question)
            answer = c.answer;
    return answer;
}

const Job *currentJob(const Build &build)
{
    const auto all = standing(build.jobs);
    return all.empty() ? nullptr : all.back();
}

const Proof *standingProof(const Build &build, std::string_view stop, std::string_view aspect)
{
    const Proof *last = nullptr;
    for (const Proof &p : build.proofs)
        if (p.stop == stop && p.aspect == aspect && p.check.empty())
            last = &p;
    return last;
}

const Proof *standingCheck(const Build &build, std::string_view stop, std::string_view check)
{
    const Proof *last = nullptr;
    for (const Proof &p : build.proofs)
        if (p.stop == stop && p.check == check)
            last = &p;
    return last;
}

void settleTwoValues(Build &build, std::string_view element, std::string_view key)
{
    std::erase_if(build.twoValues,
                  [&](const TwoValues &t) { return t.element == element && t.key == key; });
}

Phrase twoValuesText(const Build &build, const TwoValues &two)
{
    const Element *e = build.circuit.find(two.element);
    const Plug *plug = findPlug(build.plugs, two.element);
    const NumberKey *key = e ? findElementKey(e->kind, two.key)
        : plug               ? findStopKey(StopKind::Plug, two.key)
                             : nullptr;
    std::string where = two.element == "engine" ? "The engine" : two.element;
    for (const Stop &s : build.engine.stops)
        if (std::ranges::find(s.elements, two.element) != s.elements.end()
            || (plug && plug->stop == s.id))
            where = s.name;
    return { "two.values",
             "{0}, {1}: {2} counts, {3} was written as well",
             { where, key ? std::string(key->meaning) : "displacement",
               ofFileUnit(countedValue(build, two), unitOfKey(two.key)),
               ofFileUnit(two.other, unitOfKey(two.key)) } };
}

double countedValue(const Build &build, const TwoValues &two)
{
    if (const Plug *plug = findPlug(build.plugs, two.element))
        return plug->d_mm;
    const Element *e = build.circuit.find(two.element);
    return e ? e->value(two.key) : displacement_l(build.engine);
}

double journalOf_mm(const Build &build, const Stop &stop)
{
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id); e && isBearing(*e))
            return e->value("d_mm");
    return 0;
}

std::string nextReadingId(const Build &build)
{
    return nextId(build.readings, "r");
}
std::string nextProofId(const Build &build)
{
    return nextId(build.proofs, "p");
}
std::string nextTickId(const Build &build)
{
    return nextId(build.ticks, "t");
}
std::string nextHeatPointId(const Build &build)
{
    return nextId(build.heatPoints, "h");
}
std::string nextWeighingId(const Build &build)
{
    return nextId(build.weighings, "w");
}

} // namespace mildpath
