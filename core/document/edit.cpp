// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"

#include "circuit/elementtypes.h"
#include "document/recipes.h"
#include "oil/grades.h"
#include "quantity/overloaded.h"
#include "quantity/rounding.h"

#include <algorithm>

namespace mildpath {
namespace {

/// The document without lines that lead nowhere any more.
Build withLines(Build &&build)
{
    dropLooseLines(build);
    return std::move(build);
}

/// The document, or the first thing the edit made wrong.
Result<Build> checked(Build &&build)
{
    if (auto errors = validateBuild(build); !errors.empty())
        return tl::unexpected(errors.front());
    return std::move(build);
}

/// Adds a reading without looking at the whole document.
Result<void> addReading(Build &out, Reading r)
{
    if (r.bore_mm && r.journal_mm)
        r.value_um = (*r.bore_mm - *r.journal_mm) * 1e3;
    if (!r.value_um)
        return fail("value_um", "is missing");
    if (const Stop *stop = out.engine.find(r.stop); stop && r.family.empty())
        r.family = stop->kind;
    const Family *family = findFamily(r.family);
    if (!family)
        return fail("family", "there is no family \"" + r.family + "\"");
    if (auto ok = checkReadingValue(*family, *r.value_um); !ok)
        return ok;
    r.id = nextReadingId(out);
    if (const Reading *standing = readingAt(out, placeOf(r)))
        r.replaces = standing->id;
    out.readings.push_back(std::move(r));
    return {};
}

Result<Build> enterReadings(Build out, const std::vector<Reading> &readings)
{
    for (const Reading &r : readings)
        if (auto ok = addReading(out, r); !ok)
            return tl::unexpected(ok.error());
    return out;
}

Result<Build> withdrawReading(Build out, const WithdrawReading &e)
{
    const Reading *standing = readingAt(out, e.place);
    if (!standing)
        return fail("readings", "there is no reading at this position");
    Reading r = *standing;
    r.replaces = standing->id;
    r.id = nextReadingId(out);
    r.value_um = std::nullopt;
    r.by = e.by;
    r.at = e.at;
    out.readings.push_back(std::move(r));
    return out;
}

Result<Build> setStopValue(Build out, const SetStopValue &e)
{
    for (Stop &stop : out.engine.stops)
        if (stop.id == e.stop) {
            if (e.value)
                stop.values[e.key] = *e.value;
            else
                stop.values.erase(e.key);
            return withLines(std::move(out));
        }
    return fail("stop", "there is no stop \"" + e.stop + "\"");
}

/// The row of that name, replaced or added.
template <class Row> void putRow(std::vector<Row> &rows, const Row &row)
{
    const auto it
        = std::find_if(rows.begin(), rows.end(), [&](const Row &r) { return r.name == row.name; });
    if (it == rows.end())
        rows.push_back(row);
    else
        *it = row;
}

Result<Build> setShellRow(Build out, const SetShellRow &e)
{
    putRow(out.shells[e.family].shells, e.row);
    return out;
}

/// One number of some settings. Errors: the key is not of them.
template <class Settings>
Result<void> setKey(Settings &settings, const std::string &group, const std::string &name,
                    double value)
{
    const Field *field = recordType<Settings>().find(name);
    if (!field || !field->isRanged())
        return fail(group + "/" + name, "is not known");
    field->setNumber(&settings, value);
    return {};
}

Result<Build> setUse(Build out, const SetUse &e)
{
    if (auto ok = setKey(out.use, "use", e.key, e.value); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Result<Build> setLimit(Build out, const SetLimit &e)
{
    if (!findFamily(e.kind))
        return fail("limits/" + e.kind, "is not known");
    const auto it
        = out.limits
              .try_emplace(e.kind,
                           Limits { 0, mostClearanceReading_um, std::nullopt, "builder", {} })
              .first;
    if (e.key == "min_um")
        it->second.min_um = e.value;
    else if (e.key == "max_um")
        it->second.max_um = e.value;
    else if (e.key == "target_um")
        it->second.target_um = e.value;
    else
        return fail("limits/" + e.kind + "/" + e.key, "is not known");
    return out;
}

Result<Build> setElementValue(Build out, const SetElementValue &e)
{
    Element *element = out.circuit.find(e.element);
    if (!element)
        return fail("circuit/" + e.element, "there is no such element");
    if (!findElementKey(element->type, e.key))
        return fail("circuit/" + e.element + "/" + e.key,
                    "is not a dimension of a " + element->type);
    element->values[e.key] = e.value;
    if (auto ok = checkElement(*element); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Result<Build> setHeat(Build out, const SetHeat &e)
{
    if (auto ok = setKey(out.heat, "heat", e.key, e.value); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Result<Build> setMaterial(Build out, const SetMaterial &e)
{
    Engine &engine = out.engine;
    std::string *part = e.part == "block" ? &engine.block
        : e.part == "crank"               ? &engine.crank
        : e.part == "rod"                 ? &engine.rod
        : e.part == "main_cap"            ? &engine.mainCap
                                          : nullptr;
    if (!part)
        return fail("engine/materials/" + e.part, "is not a part with a material of its own");
    *part = e.material;
    if (e.fraction)
        engine.mainCapFraction = *e.fraction;
    return out;
}

Result<Build> setExpansion(Build out, const SetExpansion &e)
{
    if (e.expansion)
        out.expansions[e.material] = *e.expansion;
    else
        out.expansions.erase(e.material);
    return out;
}

Result<Build> keepOil(Build out, const KeepOil &e)
{
    if (e.oil.grade.find_first_not_of(" \t") == std::string::npos)
        return fail("grade", "an oil on the list needs a name");
    if (findShelfOil(e.oil.grade))
        return fail("grade", "\"" + e.oil.grade + "\" stands on the shelf: take another name");
    const auto same = [&](const ChosenOil &o) { return o.grade == e.oil.grade; };
    const auto it = std::find_if(out.ownOils.begin(), out.ownOils.end(), same);
    if (it == out.ownOils.end())
        out.ownOils.push_back(e.oil);
    else
        *it = e.oil;
    return out;
}

Result<Build> dropOil(Build out, const DropOil &e)
{
    for (const GaugeReading &r : out.gaugeReadings)
        if (r.oil == e.name)
            return fail("grade", "a gauge was read with it; what was read would mean nothing");
    if (std::erase_if(out.ownOils, [&](const ChosenOil &o) { return o.grade == e.name; }) == 0)
        return fail("grade", "there is no oil \"" + e.name + "\" on the list");
    return out;
}

Phrase withValue(const std::string &name, double value, std::string_view unit)
{
    return { "", "{0} {1}", { name, ofFileUnit(value, unit) } };
}

Phrase describeKey(const RecordType &settings, const std::string &name, double value)
{
    const Field *field = settings.find(name);
    if (!field)
        return name;
    return withValue(std::string(field->meaning), value, field->unit);
}

Phrase describeHeatPoint(const HeatPoint &p)
{
    if (p.takenBack)
        return "heated block: a point withdrawn";
    Phrase out = "heated block";
    if (!p.spots_c.empty())
        append(out, asPhrase(asTemperature(p.spots_c.front())), "{*|, }");
    if (p.reading_um)
        append(out, asPhrase(asClearance(*p.reading_um)), "{*|: }");
    return out;
}

std::string stopName(const Build &build, const std::string &id)
{
    const Stop *s = build.engine.find(id);
    return s ? s->name : id;
}

/// "Main 4, front 90°", "Cam 2, rear", "Tips, lobe 3".
std::string placeText(const Build &build, const ReadingPlace &place)
{
    const Family *family = findFamily(place.family);
    std::string name = stopName(build, place.stop);
    for (const SizeItem &i : sizeItems(build))
        if (i.family == family && i.stop->id == place.stop && i.item == place.item)
            name = i.name;
    if (!family || family->plan == PlanKind::Single)
        return name;
    name += ", " + stationName(*family, place.station);
    return family->plan == PlanKind::Shell ? name + " " + formatPlain(place.angle_deg, 0) + "°"
                                           : name;
}

} // namespace

Result<void> checkReadingValue(const Family &family, double value_um)
{
    const bool runOut = family.id == "run_out";
    if (!(runOut ? value_um >= 0 : value_um > 0))
        return fail("",
                    runOut ? Phrase("a run-out is not below zero")
                           : Phrase("reading.press_fit",
                                    "a clearance is above zero; {0} would be an interference fit",
                                    { asClearance(value_um) }));
    if (!(value_um <= mostClearanceReading_um))
        return fail("",
                    { "reading.too_wide",
                      "{0} cannot be {1} (at most {2})",
                      { asLength(value_um / 1000, 2), family.quantity,
                        asLength(mostClearanceReading_um / 1000, 0) } });
    return {};
}

namespace {

/// The edit without a look at what it makes of the whole document.
Result<Build> applied(const Build &build, const Edit &edit)
{
    return std::visit(
        Overloaded {
            [&](const EnterReading &e) { return enterReadings(build, { e.reading }); },
            [&](const EnterReadings &e) { return enterReadings(build, e.readings); },
            [&](const WithdrawReading &e) { return withdrawReading(build, e); },
            [&](const SetOil &e) -> Result<Build> {
                Build out = build;
                out.oil = e.oil;
                return out;
            },
            [&](const SetUse &e) { return setUse(build, e); },
            [&](const SetLimit &e) { return setLimit(build, e); },
            [&](const SetElementValue &e) { return setElementValue(build, e); },
            [&](const SetStopValue &e) { return setStopValue(build, e); },
            [&](const TickFastener &e) -> Result<Build> {
                Build out = build;
                out.ticks.push_back(e.tick);
                out.ticks.back().id = nextTickId(build);
                return out;
            },
            [&](const FitShells &e) -> Result<Build> {
                Build out = build;
                out.shells[e.family].fitted[e.stop] = e.fitted;
                return out;
            },
            [&](const SetShellRow &e) { return setShellRow(build, e); },
            [&](const SetSizeClass &e) -> Result<Build> {
                Build out = build;
                ShellStock &stock = out.shells[e.family];
                putRow(e.journal ? stock.journals : stock.housings, e.sizeClass);
                return out;
            },
            [&](const WeighPart &e) -> Result<Build> {
                Build out = build;
                out.weighings.push_back(e.weighing);
                out.weighings.back().id = nextWeighingId(build);
                return out;
            },
            [&](const Choose &e) -> Result<Build> {
                Build out = build;
                out.choices.push_back(e.choice);
                return out;
            },
            [&](const SetHeat &e) { return setHeat(build, e); },
            [&](const SetMaterial &e) { return setMaterial(build, e); },
            [&](const SetExpansion &e) { return setExpansion(build, e); },
            [&](const EnterHeatPoint &e) -> Result<Build> {
                Build out = build;
                if (auto ok = addHeatPoint(out, e.point); !ok)
                    return tl::unexpected(ok.error());
                return out;
            },
            [&](const AddProof &e) -> Result<Build> {
                Build out = build;
                out.proofs.push_back(e.proof);
                out.proofs.back().id = nextProofId(build);
                return out;
            },
            [&](const Rename &e) -> Result<Build> {
                Build out = build;
                out.name = e.name;
                return out;
            },
            [&](const SetEngine &e) -> Result<Build> {
                Build out = build;
                if (auto ok = setKey(out.engine, "engine", e.key, e.value); !ok)
                    return tl::unexpected(ok.error());
                return out;
            },
            [&](const KeepOil &e) { return keepOil(build, e); },
            [&](const DropOil &e) { return dropOil(build, e); },
            [&](const AddStop &e) { return addStop(build, e); },
            [&](const RemoveStop &e) { return removeStop(build, e).map(withLines); },
            [&](const MoveStop &e) { return moveStop(build, e); },
            [&](const TurnStop &e) { return turnStop(build, e).map(withLines); },
            [&](const FeedStop &e) { return feedStop(build, e); },
            [&](const NameStop &e) { return nameStop(build, e); },
            [&](const MoveGauge &e) { return moveGauge(build, e); },
            [&](const SetAlike &e) { return setAlike(build, e); },
            [&](const PassageEdit &e) { return applyPassageEdit(build, e); },
            [&](const LineEdit &e) { return applyLineEdit(build, e); },
            [&](const SumpEdit &e) { return applySumpEdit(build, e); },
            [&](const SetSectionValue &e) -> Result<Build> {
                Build out = build;
                if (sectionKeys(e.section).empty())
                    return fail(e.section, "is no part of a build with numbers of its own");
                auto &values = (e.section == "finish" ? out.finish : out.after).values;
                if (const auto ok
                    = setValue(values, sectionKeys(e.section), e.section, e.key, e.value);
                    !ok)
                    return tl::unexpected(ok.error());
                return out;
            },
            [&](const SetStartValue &e) -> Result<Build> {
                Build out = build;
                if (const auto ok
                    = setValue(out.start.values, startKeys(), "start", e.key, e.value);
                    !ok)
                    return tl::unexpected(ok.error());
                return out;
            },
            [&](const EditAll &e) -> Result<Build> {
                Build out = build;
                for (const Edit &one : e.edits) {
                    if (std::holds_alternative<EditAll>(one))
                        return fail("edits", "edits made as one cannot be made as one again");
                    auto next = applied(out, one);
                    if (!next)
                        return next;
                    out = std::move(*next);
                }
                return out;
            },
        },
        edit);
}

} // namespace

bool EditAll::operator==(const EditAll &other) const
{
    return name == other.name && edits == other.edits;
}

Result<Build> applyEdit(const Build &build, const Edit &edit)
{
    return applied(build, edit).and_then(checked);
}

Result<Build> replayEdits(const Build &build, std::span<const Edit> edits)
{
    Build out = build;
    for (const Edit &edit : edits) {
        auto next = applied(out, edit);
        if (!next)
            return next;
        out = std::move(*next);
    }
    return checked(std::move(out));
}

Phrase describeEdit(const Build &build, const Edit &edit)
{
    const auto words = Overloaded {
        [&](const EnterReading &e) {
            const Reading &r = e.reading;
            if (!r.feel.empty())
                return named(placeText(build, placeOf(r)), r.feel);
            const double um = r.bore_mm && r.journal_mm ? (*r.bore_mm - *r.journal_mm) * 1e3
                                                        : r.value_um.value_or(0);
            return named(placeText(build, placeOf(r)), asPhrase(asClearance(um)));
        },
        [&](const EnterReadings &e) {
            return Phrase("edit.readings", "{0} {0|reading|readings}",
                          { asCount(e.readings.size()) });
        },
        [&](const WithdrawReading &e) { return placeText(build, e.place) + " withdrawn"; },
        [&](const SetOil &e) { return "oil " + e.oil.grade; },
        [&](const SetUse &e) { return describeKey(recordType<Use>(), e.key, e.value); },
        [&](const SetLimit &e) {
            const Family *family = findFamily(e.kind);
            return withValue((family ? std::string(family->plural) : e.kind) + ": "
                                 + e.key.substr(0, e.key.find('_')),
                             e.value, "µm");
        },
        [&](const SetElementValue &e) {
            const Element *element = build.circuit.find(e.element);
            const NumberKey *key = element ? findElementKey(element->type, e.key) : nullptr;
            return withValue(key ? std::string(key->meaning) : e.key, e.value, unitOfKey(e.key));
        },
        [&](const SetStopValue &e) {
            const Stop *stop = build.engine.find(e.stop);
            const NumberKey *key = stop ? findStopKey(stop->kind, e.key) : nullptr;
            const std::string name
                = stopName(build, e.stop) + ", " + (key ? std::string(key->meaning) : e.key);
            return e.value ? withValue(name, *e.value, unitOfKey(e.key))
                           : Phrase(name + " removed");
        },
        [&](const TickFastener &e) {
            return "bolt " + std::to_string(e.tick.fastener)
                + (e.tick.stage > 0 ? ", stage " + std::to_string(e.tick.stage) : " loosened");
        },
        [&](const FitShells &e) {
            return stopName(build, e.stop) + ", shells " + e.fitted.upper + "/" + e.fitted.lower;
        },
        [&](const SetShellRow &e) { return "shell " + e.row.name; },
        [&](const SetSizeClass &e) {
            return (e.journal ? "journal class " : "housing class ") + e.sizeClass.name;
        },
        [&](const WeighPart &e) {
            return named(e.weighing.part + " " + std::to_string(e.weighing.item),
                         asPhrase(Quantity { e.weighing.grams, Shows::Mass, 0, 1 }));
        },
        [&](const Choose &e) { return "choice: " + e.choice.answer; },
        [&](const SetHeat &e) { return describeKey(recordType<Heat>(), e.key, e.value); },
        [&](const SetMaterial &e) {
            return "material of " + e.part + ": "
                + (e.material.empty() ? "as the block" : e.material);
        },
        [&](const SetExpansion &e) {
            return named("expansion of " + e.material,
                         e.expansion ? asPhrase({ e.expansion->per_k, Shows::Expansion })
                                     : Phrase("the handbook's"));
        },
        [&](const EnterHeatPoint &e) { return describeHeatPoint(e.point); },
        [&](const AddProof &e) {
            return stopName(build, e.proof.stop) + " " + e.proof.aspect + " "
                + (e.proof.verdict == "proven"     ? "proven"
                       : e.proof.verdict == "hold" ? "holds the start"
                                                   : "check again");
        },
        [&](const Rename &e) { return "name " + e.name; },
        [&](const SetEngine &e) { return describeKey(recordType<Engine>(), e.key, e.value); },
        [&](const KeepOil &e) { return "oil " + e.oil.grade + " kept"; },
        [&](const DropOil &e) { return "oil " + e.name + " taken off the list"; },
        [&](const AddStop &e) {
            return (e.name.empty() ? usualName(e.kind) : e.name) + " behind "
                + stopName(build, e.behind);
        },
        [&](const RemoveStop &e) { return stopName(build, e.stop) + " taken out"; },
        [&](const MoveStop &e) {
            return stopName(build, e.stop) + (e.by < 0 ? " earlier" : " later") + " in oil order";
        },
        [&](const TurnStop &e) {
            return stopName(build, e.stop) + " becomes " + usualName(e.kind);
        },
        [&](const FeedStop &e) {
            return stopName(build, e.stop) + " fed from " + stopName(build, e.from);
        },
        [&](const NameStop &e) { return stopName(build, e.stop) + " named " + e.name; },
        [&](const MoveGauge &e) { return "gauge on " + stopName(build, e.stop); },
        [&](const PassageEdit &e) { return describePassageEdit(build, e); },
        [&](const LineEdit &e) { return describeLineEdit(build, e); },
        [&](const SumpEdit &e) { return describeSumpEdit(e); },
        [&](const SetSectionValue &e) {
            return describeValue(sectionKeys(e.section), e.key, e.value);
        },
        [&](const SetStartValue &e) { return describeValue(startKeys(), e.key, e.value); },
        [&](const EditAll &e) { return e.name; },
        [&](const SetAlike &e) {
            const NumberKey *key = findElementKey(e.type, e.key);
            return withValue(stopName(build, e.stop) + ", "
                                 + (key ? std::string(key->meaning) : e.key),
                             e.value, unitOfKey(e.key));
        },
    };
    return std::visit([&](const auto &e) { return Phrase(words(e)); }, edit);
}

} // namespace mildpath
