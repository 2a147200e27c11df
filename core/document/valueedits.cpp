// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include "circuit/elementtypes.h"
#include "document/dimensions.h"
#include "document/enginevalue.h"
#include "document/setvalues.h"
#include "oil/grades.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

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

Phrase describeKey(const RecordType &settings, const std::string &name, double value)
{
    const Field *field = settings.find(name);
    if (!field)
        return name;
    return withValue(std::string(field->meaning), value, field->unit);
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

} // namespace

Result<Build> setUse(Build out, const SetUse &e)
{
    if (auto ok = setKey(out.use, "use", e.key, e.value); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Result<Build> setLimit(Build out, const SetLimit &e)
{
    const auto alone = e.kind.find('@');
    const std::string family = e.kind.substr(0, alone);
    if (!findFamily(family))
        return fail("limits/" + e.kind, "is not known");
    const bool typical = originOf(out, "limits/" + e.kind + "/" + e.key) == Origin::Typical;
    // Of one bearing alone they begin as its family's.
    const Limits *begin = limitsFor(out, family, {});
    const auto it
        = out.limits
              .try_emplace(e.kind,
                           begin && alone != std::string::npos
                               ? *begin
                               : Limits { 0, mostClearanceReading_um, std::nullopt, "builder", {} })
              .first;
    if (e.key == "min_um")
        it->second.min_um = e.value;
    else if (e.key == "max_um")
        it->second.max_um = e.value;
    else if (e.key == "target_um")
        it->second.target_um = e.value;
    else
        return fail("limits/" + e.kind + "/" + e.key, "is not known");
    // Whoever sets one without a word makes them his own.
    if (!e.source.empty() || typical)
        it->second.source = e.source.empty() ? wordOf(Origin::Shop) : std::string_view(e.source);
    return out;
}

Result<Build> setElementValue(Build out, const SetElementValue &e)
{
    Element *element = out.circuit.find(e.element);
    if (!element)
        return fail("circuit/" + e.element, "there is no such element");
    if (!findElementKey(element->kind, e.key))
        return fail("circuit/" + e.element + "/" + e.key,
                    "is not a dimension of a " + std::string(elementType(element->kind).meaning));
    element->values[e.key] = e.value;
    if (const auto follows = journalRadius_mm(out, *element, e.key);
        element->kind == ElementKind::CrankDrilling && e.key.starts_with("r_")
        && follows == e.value)
        element->values.erase(e.key); // as the journals say: it stands there
    settleTwoValues(out, e.element, e.key);
    if (auto ok = checkElementOf(out, *element); !ok)
        return tl::unexpected(ok.error());
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
            dropLooseLines(out);
            return out;
        }
    return fail("stop", "there is no stop \"" + e.stop + "\"");
}

Result<Build> setEngine(Build out, const SetEngine &e)
{
    if (auto ok = setKey(out.engine, "engine", e.key, e.value); !ok)
        return tl::unexpected(ok.error());
    settleTwoValues(out, "engine", "displacement_l");
    return out;
}

/// The same, by somebody's word: whoever enters a number without a source says it himself.
static Result<Build> noted(const Build &build, const std::string &at, Result<Build> set,
                           Origin origin = Origin::Shop)
{
    if (set && aboutValue(build, at)) {
        if (engineValue(*set, at))
            noteOrigin(*set, at, engineValue(build, at), origin);
        else
            set->origins.erase(at);
    }
    return set;
}

template <> const RecordType &recordType<SetOil>()
{
    static const RecordType type
        = Describe<SetOil>("oil").must<&SetOil::oil>("oil", "the oil in the engine");
    return type;
}

template <> const EditKind &editKind<SetOil>()
{
    static const EditKind kind = kindOf<SetOil>(
        [](const Build &build, const SetOil &e) -> Result<Build> {
            Build out = build;
            out.oil = e.oil;
            return out;
        },
        [](const Build &, const SetOil &e) -> Phrase { return "oil " + e.oil.grade; });
    return kind;
}

template <> const RecordType &recordType<SetUse>()
{
    static const RecordType type = Describe<SetUse>("use")
                                       .must<&SetUse::key>("key", "of the use")
                                       .must<&SetUse::value>("value", "in the key's unit");
    return type;
}

template <> const EditKind &editKind<SetUse>()
{
    static const EditKind kind = kindOf<SetUse>(
        [](const Build &build, const SetUse &e) -> Result<Build> {
            return noted(build, "use/" + e.key, setUse(build, e));
        },
        [](const Build &, const SetUse &e) -> Phrase {
            return describeKey(recordType<Use>(), e.key, e.value);
        });
    return kind;
}

template <> const RecordType &recordType<SetReliefReturn>()
{
    static const RecordType type = Describe<SetReliefReturn>("relief_return")
                                       .must<&SetReliefReturn::to>("to", "inlet, sump or unknown");
    return type;
}

template <> const EditKind &editKind<SetReliefReturn>()
{
    static const EditKind kind = kindOf<SetReliefReturn>(
        [](const Build &build, const SetReliefReturn &e) -> Result<Build> {
            if (std::ranges::find(reliefReturns, e.to) == reliefReturns.end())
                return fail("use/relief_returns_to", "must be inlet, sump or unknown");
            Build out = build;
            out.use.reliefReturnsTo = e.to;
            return out;
        },
        [](const Build &, const SetReliefReturn &e) -> Phrase {
            return "relief valve returns to: " + e.to;
        });
    return kind;
}

template <> const RecordType &recordType<SetLimit>()
{
    static const RecordType type = Describe<SetLimit>("limit")
                                       .must<&SetLimit::kind>("kind", "family of clearances")
                                       .must<&SetLimit::key>("key", "min_um, max_um or target_um")
                                       .must<&SetLimit::value>("value", "in the key's unit")
                                       .ifSet<&SetLimit::source>("source", "whose they are");
    return type;
}

template <> const EditKind &editKind<SetLimit>()
{
    static const EditKind kind = kindOf<SetLimit>(
        [](const Build &build, const SetLimit &e) -> Result<Build> {
            const auto whose = fromWord<Origin>(e.source);
            return noted(build, "limits/" + e.kind + "/" + e.key, setLimit(build, e),
                         whose.value_or(Origin::Shop));
        },
        [](const Build &, const SetLimit &e) -> Phrase {
            const Family *family = findFamily(e.kind);
            return withValue((family ? std::string(family->plural) : e.kind) + ": "
                                 + e.key.substr(0, e.key.find('_')),
                             e.value, "µm");
        });
    return kind;
}

template <> const RecordType &recordType<SetElementValue>()
{
    static const RecordType type = Describe<SetElementValue>("element")
                                       .must<&SetElementValue::element>("element", "of the circuit")
                                       .must<&SetElementValue::key>("key", "of its dimension")
                                       .must<&SetElementValue::value>("value", "in the key's unit");
    return type;
}

template <> const EditKind &editKind<SetElementValue>()
{
    static const EditKind kind = kindOf<SetElementValue>(
        [](const Build &build, const SetElementValue &e) -> Result<Build> {
            return noted(build, "circuit/" + e.element + "/" + e.key, setElementValue(build, e));
        },
        [](const Build &build, const SetElementValue &e) -> Phrase {
            const Element *element = build.circuit.find(e.element);
            const NumberKey *key = element ? findElementKey(element->kind, e.key) : nullptr;
            return withValue(key ? std::string(key->meaning) : e.key, e.value, unitOfKey(e.key));
        });
    return kind;
}

template <> const RecordType &recordType<SetStopValue>()
{
    static const RecordType type
        = Describe<SetStopValue>("stop")
              .must<&SetStopValue::stop>("stop", "id")
              .must<&SetStopValue::key>("key", "of this kind of stop")
              .field<&SetStopValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const EditKind &editKind<SetStopValue>()
{
    static const EditKind kind = kindOf<SetStopValue>(
        [](const Build &build, const SetStopValue &e) -> Result<Build> {
            return noted(build, "stops/" + e.stop + "/" + e.key, setStopValue(build, e));
        },
        [](const Build &build, const SetStopValue &e) -> Phrase {
            const Stop *stop = build.engine.find(e.stop);
            const NumberKey *key = stop ? findStopKey(stop->kind, e.key) : nullptr;
            const std::string name
                = stopName(build, e.stop) + ", " + (key ? std::string(key->meaning) : e.key);
            return e.value ? withValue(name, *e.value, unitOfKey(e.key))
                           : Phrase(name + " removed");
        });
    return kind;
}

template <> const RecordType &recordType<Choose>()
{
    static const RecordType type
        = Describe<Choose>("choose").must<&Choose::choice>("choice", "the answer");
    return type;
}

template <> const EditKind &editKind<Choose>()
{
    static const EditKind kind = kindOf<Choose>(
        [](const Build &build, const Choose &e) -> Result<Build> {
            Build out = build;
            out.choices.push_back(e.choice);
            return out;
        },
        [](const Build &, const Choose &e) -> Phrase { return "choice: " + e.choice.answer; });
    return kind;
}

template <> const RecordType &recordType<SetHeat>()
{
    static const RecordType type = Describe<SetHeat>("heat")
                                       .must<&SetHeat::key>("key", "of the heat")
                                       .must<&SetHeat::value>("value", "in the key's unit");
    return type;
}

template <> const EditKind &editKind<SetHeat>()
{
    static const EditKind kind = kindOf<SetHeat>(
        [](const Build &build, const SetHeat &e) -> Result<Build> { return setHeat(build, e); },
        [](const Build &, const SetHeat &e) -> Phrase {
            return describeKey(recordType<Heat>(), e.key, e.value);
        });
    return kind;
}

template <> const RecordType &recordType<SetMaterial>()
{
    static const RecordType type
        = Describe<SetMaterial>("material")
              .must<&SetMaterial::part>("part", "block, crank, rod or main_cap")
              .must<&SetMaterial::material>("material", "id; of a main cap empty: as the block")
              .field<&SetMaterial::fraction>("fraction",
                                             "main cap: its share of the bore's growth");
    return type;
}

template <> const EditKind &editKind<SetMaterial>()
{
    static const EditKind kind = kindOf<SetMaterial>(
        [](const Build &build, const SetMaterial &e) -> Result<Build> {
            return setMaterial(build, e);
        },
        [](const Build &, const SetMaterial &e) -> Phrase {
            return "material of " + e.part + ": "
                + (e.material.empty() ? "as the block" : e.material);
        });
    return kind;
}

template <> const RecordType &recordType<SetExpansion>()
{
    static const RecordType type
        = Describe<SetExpansion>("expansion")
              .must<&SetExpansion::material>("material", "id, or main_housing")
              .field<&SetExpansion::expansion>("expansion", "null: the handbook's again");
    return type;
}

template <> const EditKind &editKind<SetExpansion>()
{
    static const EditKind kind = kindOf<SetExpansion>(
        [](const Build &build, const SetExpansion &e) -> Result<Build> {
            return setExpansion(build, e);
        },
        [](const Build &, const SetExpansion &e) -> Phrase {
            return named("expansion of " + e.material,
                         e.expansion ? asPhrase({ e.expansion->per_k, Shows::Expansion })
                                     : Phrase("the handbook's"));
        });
    return kind;
}

template <> const RecordType &recordType<AddProof>()
{
    static const RecordType type
        = Describe<AddProof>("proof").must<&AddProof::proof>("proof", "what was seen");
    return type;
}

template <> const EditKind &editKind<AddProof>()
{
    static const EditKind kind = kindOf<AddProof>(
        [](const Build &build, const AddProof &e) -> Result<Build> {
            Build out = build;
            out.proofs.push_back(e.proof);
            out.proofs.back().id = nextProofId(build);
            return out;
        },
        [](const Build &build, const AddProof &e) -> Phrase {
            return stopName(build, e.proof.stop) + " " + e.proof.aspect + " "
                + (e.proof.verdict == "proven"     ? "proven"
                       : e.proof.verdict == "hold" ? "holds the start"
                                                   : "check again");
        });
    return kind;
}

template <> const RecordType &recordType<Rename>()
{
    static const RecordType type
        = Describe<Rename>("rename").must<&Rename::name>("name", "of the build");
    return type;
}

template <> const EditKind &editKind<Rename>()
{
    static const EditKind kind = kindOf<Rename>(
        [](const Build &build, const Rename &e) -> Result<Build> {
            Build out = build;
            out.name = e.name;
            return out;
        },
        [](const Build &, const Rename &e) -> Phrase { return "name " + e.name; });
    return kind;
}

template <> const RecordType &recordType<SetEngine>()
{
    static const RecordType type = Describe<SetEngine>("engine")
                                       .must<&SetEngine::key>("key", "of the engine")
                                       .must<&SetEngine::value>("value", "in the key's unit");
    return type;
}

template <> const EditKind &editKind<SetEngine>()
{
    static const EditKind kind = kindOf<SetEngine>(
        [](const Build &build, const SetEngine &e) -> Result<Build> {
            return noted(build, "engine/" + e.key, setEngine(build, e));
        },
        [](const Build &, const SetEngine &e) -> Phrase {
            return describeKey(recordType<Engine>(), e.key, e.value);
        });
    return kind;
}

template <> const RecordType &recordType<KeepOil>()
{
    static const RecordType type
        = Describe<KeepOil>("keep_oil").must<&KeepOil::oil>("oil", "for the build's own list");
    return type;
}

template <> const EditKind &editKind<KeepOil>()
{
    static const EditKind kind = kindOf<KeepOil>(
        [](const Build &build, const KeepOil &e) -> Result<Build> { return keepOil(build, e); },
        [](const Build &, const KeepOil &e) -> Phrase { return "oil " + e.oil.grade + " kept"; });
    return kind;
}

template <> const RecordType &recordType<DropOil>()
{
    static const RecordType type
        = Describe<DropOil>("drop_oil").must<&DropOil::name>("name", "off the build's own list");
    return type;
}

template <> const EditKind &editKind<DropOil>()
{
    static const EditKind kind = kindOf<DropOil>(
        [](const Build &build, const DropOil &e) -> Result<Build> { return dropOil(build, e); },
        [](const Build &, const DropOil &e) -> Phrase {
            return "oil " + e.name + " taken off the list";
        });
    return kind;
}

template <> const RecordType &recordType<SetSectionValue>()
{
    static const RecordType type
        = Describe<SetSectionValue>("section")
              .must<&SetSectionValue::section>("section", "finish or after")
              .must<&SetSectionValue::key>("key", "of the section")
              .field<&SetSectionValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

Result<Build> setSectionValue(Build build, const SetSectionValue &e)
{
    if (sectionKeys(e.section).empty())
        return fail(e.section, "is no part of a build with numbers of its own");
    auto &values = (e.section == "finish" ? build.finish : build.after).values;
    if (const auto ok = setValue(values, sectionKeys(e.section), e.section, e.key, e.value); !ok)
        return tl::unexpected(ok.error());
    return build;
}

template <> const EditKind &editKind<SetSectionValue>()
{
    static const EditKind kind = kindOf<SetSectionValue>(
        [](const Build &build, const SetSectionValue &e) { return setSectionValue(build, e); },
        [](const Build &, const SetSectionValue &e) -> Phrase {
            return describeValue(sectionKeys(e.section), e.key, e.value);
        });
    return kind;
}

template <> const RecordType &recordType<SetStartValue>()
{
    static const RecordType type
        = Describe<SetStartValue>("start")
              .must<&SetStartValue::key>("key", "of the start")
              .field<&SetStartValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const EditKind &editKind<SetStartValue>()
{
    static const EditKind kind = kindOf<SetStartValue>(
        [](const Build &build, const SetStartValue &e) -> Result<Build> {
            Build out = build;
            if (const auto ok = setValue(out.start.values, startKeys(), "start", e.key, e.value);
                !ok)
                return tl::unexpected(ok.error());
            return out;
        },
        [](const Build &, const SetStartValue &e) -> Phrase {
            return describeValue(startKeys(), e.key, e.value);
        });
    return kind;
}

std::span<const EditKind *const> valueEdits()
{
    static const std::array kinds {
        &editKind<SetOil>(),          &editKind<SetUse>(),         &editKind<SetLimit>(),
        &editKind<SetElementValue>(), &editKind<SetStopValue>(),   &editKind<Choose>(),
        &editKind<SetHeat>(),         &editKind<SetMaterial>(),    &editKind<SetExpansion>(),
        &editKind<AddProof>(),        &editKind<Rename>(),         &editKind<SetEngine>(),
        &editKind<KeepOil>(),         &editKind<DropOil>(),        &editKind<SetSectionValue>(),
        &editKind<SetStartValue>(),   &editKind<SetEngineValue>(), &editKind<SetReliefReturn>()
    };
    return kinds;
}

} // namespace mildpath
