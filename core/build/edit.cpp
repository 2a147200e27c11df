// SPDX-License-Identifier: GPL-3.0-or-later
#include "build/edit.h"

#include "circuit/elementtypes.h"
#include "quantity/rounding.h"

#include <algorithm>

namespace mildpath {
namespace {

template <class... Ts> struct Overloaded : Ts...
{
    using Ts::operator()...;
};
template <class... Ts> Overloaded(Ts...) -> Overloaded<Ts...>;

/// The document, or the first thing the edit made wrong.
Result<Build> checked(Build &&build)
{
    if (auto errors = validateBuild(build); !errors.empty())
        return tl::unexpected(errors.front());
    return std::move(build);
}

Result<Build> enterReading(Build out, Reading r)
{
    if (!r.value_um)
        return fail("value_um", "is missing");
    if (auto ok = checkClearanceReading(*r.value_um); !ok)
        return tl::unexpected(ok.error());
    r.id = nextReadingId(out);
    if (const Reading *standing = readingAt(out, r.stop, r.station, r.angle_deg))
        r.replaces = standing->id;
    out.readings.push_back(std::move(r));
    return checked(std::move(out));
}

Result<Build> withdrawReading(Build out, const WithdrawReading &e)
{
    const Reading *standing = readingAt(out, e.stop, e.station, e.angle_deg);
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

Result<Build> setUse(Build out, const SetUse &e)
{
    for (const UseKey &key : useKeys())
        if (key.key == e.key) {
            out.use.*key.member = e.value;
            return checked(std::move(out));
        }
    return fail("use/" + e.key, "is not known");
}

Result<Build> setLimit(Build out, const SetLimit &e)
{
    const auto it = out.limits.find(e.kind);
    if (it == out.limits.end())
        return fail("limits/" + e.kind, "has no limits");
    if (e.key == "min_um")
        it->second.min_um = e.value;
    else if (e.key == "max_um")
        it->second.max_um = e.value;
    else if (e.key == "target_um")
        it->second.target_um = e.value;
    else
        return fail("limits/" + e.kind + "/" + e.key, "is not known");
    return checked(std::move(out));
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
    return checked(std::move(out));
}

std::string stopName(const Build &build, const std::string &id)
{
    const Stop *s = build.engine.find(id);
    return s ? s->name : id;
}

std::string position(const Build &build, const std::string &stop, int station, double angle_deg)
{
    return stopName(build, stop) + ", " + (station == 1 ? "front" : "rear") + " "
        + formatPlain(angle_deg, 0) + "°";
}

} // namespace

Result<void> checkClearanceReading(double value_um)
{
    if (!(value_um > 0))
        return fail("",
                    "a clearance is above zero; " + formatPlain(value_um, 1)
                        + " µm would be a press fit");
    if (!(value_um <= mostClearanceReading_um))
        return fail("",
                    formatPlain(value_um / 1000, 2)
                        + " mm cannot be a bearing clearance (at most 1 mm)");
    return {};
}

Result<Build> applyEdit(const Build &build, const Edit &edit)
{
    return std::visit(Overloaded {
                          [&](const EnterReading &e) { return enterReading(build, e.reading); },
                          [&](const WithdrawReading &e) { return withdrawReading(build, e); },
                          [&](const SetOil &e) {
                              Build out = build;
                              out.oil = e.oil;
                              return checked(std::move(out));
                          },
                          [&](const SetUse &e) { return setUse(build, e); },
                          [&](const SetLimit &e) { return setLimit(build, e); },
                          [&](const SetElementValue &e) { return setElementValue(build, e); },
                          [&](const AddProof &e) {
                              Build out = build;
                              out.proofs.push_back(e.proof);
                              out.proofs.back().id = nextProofId(build);
                              return checked(std::move(out));
                          },
                          [&](const Rename &e) {
                              Build out = build;
                              out.name = e.name;
                              return checked(std::move(out));
                          },
                      },
                      edit);
}

std::string describeEdit(const Build &build, const Edit &edit)
{
    return std::visit(
        Overloaded {
            [&](const EnterReading &e) {
                return position(build, e.reading.stop, e.reading.station, e.reading.angle_deg)
                    + ": " + formatPlain(e.reading.value_um.value_or(0), 1) + " µm";
            },
            [&](const WithdrawReading &e) {
                return position(build, e.stop, e.station, e.angle_deg) + " taken back";
            },
            [&](const SetOil &e) { return "oil " + e.oil.grade; },
            [&](const SetUse &e) {
                for (const UseKey &key : useKeys())
                    if (key.key == e.key)
                        return std::string(key.meaning) + " " + formatPlain(e.value, 0) + " "
                            + std::string(key.unit);
                return e.key;
            },
            [&](const SetLimit &e) {
                const StopKind *kind = findStopKind(e.kind);
                return (kind ? std::string(kind->plural) : e.kind) + ": "
                    + e.key.substr(0, e.key.find('_')) + " " + formatPlain(e.value, 1) + " µm";
            },
            [&](const SetElementValue &e) {
                const Element *element = build.circuit.find(e.element);
                const ElementKey *key = element ? findElementKey(element->type, e.key) : nullptr;
                return (key ? std::string(key->meaning) : e.key) + " " + formatPlain(e.value, 1)
                    + " " + std::string(unitOfKey(e.key));
            },
            [&](const AddProof &e) {
                return stopName(build, e.proof.stop) + " " + e.proof.aspect + " "
                    + (e.proof.verdict == "proven"     ? "proven"
                           : e.proof.verdict == "hold" ? "holds the start"
                                                       : "look again");
            },
            [&](const Rename &e) { return "name " + e.name; },
        },
        edit);
}

Json editToJson(const Edit &edit)
{
    return std::visit(
        Overloaded {
            [](const EnterReading &e) {
                return Json { { "edit", "reading" }, { "reading", readingToJson(e.reading) } };
            },
            [](const WithdrawReading &e) {
                return Json { { "edit", "withdraw" },   { "stop", e.stop },
                              { "station", e.station }, { "angle_deg", e.angle_deg },
                              { "by", e.by },           { "at", e.at } };
            },
            [](const SetOil &e) {
                return Json { { "edit", "oil" }, { "oil", oilToJson(e.oil) } };
            },
            [](const SetUse &e) {
                return Json { { "edit", "use" }, { "key", e.key }, { "value", e.value } };
            },
            [](const SetLimit &e) {
                return Json {
                    { "edit", "limit" }, { "kind", e.kind }, { "key", e.key }, { "value", e.value }
                };
            },
            [](const SetElementValue &e) {
                return Json { { "edit", "element" },
                              { "element", e.element },
                              { "key", e.key },
                              { "value", e.value } };
            },
            [](const AddProof &e) {
                return Json { { "edit", "proof" }, { "proof", proofToJson(e.proof) } };
            },
            [](const Rename &e) {
                return Json { { "edit", "rename" }, { "name", e.name } };
            },
        },
        edit);
}

Result<Edit> editFromJson(const Json &json)
{
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    const std::string kind = in.text("edit");
    std::optional<Edit> out;
    if (kind == "reading")
        out = EnterReading { readingFromJson(in.object("reading"), "/reading", errors) };
    else if (kind == "withdraw")
        out = WithdrawReading { in.text("stop"), in.integer("station", 1), in.number("angle_deg"),
                                in.text("by", ""), in.text("at", "") };
    else if (kind == "oil")
        out = SetOil { oilFromJson(in.object("oil"), "/oil", errors) };
    else if (kind == "use")
        out = SetUse { in.text("key"), in.number("value") };
    else if (kind == "limit")
        out = SetLimit { in.text("kind"), in.text("key"), in.number("value") };
    else if (kind == "element")
        out = SetElementValue { in.text("element"), in.text("key"), in.number("value") };
    else if (kind == "proof")
        out = AddProof { proofFromJson(in.object("proof"), "/proof", errors) };
    else if (kind == "rename")
        out = Rename { in.text("name") };
    else
        in.error("edit", "unknown edit \"" + kind + "\"");
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return *out;
}

} // namespace mildpath
