// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"
#include "document/logbook.h"
#include "quantity/json.h"

namespace mildpath {
namespace {

Stop stopFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Stop s;
    s.id = in.text("id");
    s.name = in.text("name", s.id);
    s.kind = in.text("kind");
    const Json &points = in.array("points");
    for (size_t i = 0; i < points.size(); ++i) {
        JsonReader point(points[i], in.placeOf("points") + "/" + std::to_string(i), errors);
        const std::string node = point.text("node");
        s.points.push_back({ point.text("name", s.name), node });
    }
    const Json &elements = in.array("elements");
    for (size_t i = 0; i < elements.size(); ++i) {
        if (elements[i].is_string())
            s.elements.push_back(elements[i].get<std::string>());
        else
            in.error("elements/" + std::to_string(i), "must be an element's id");
    }
    s.journal_mm = in.number("journal_mm", 0);
    s.shellWall_mm = in.number("shell_wall_mm", 0);
    s.plugBore_mm = in.number("plug_bore_mm", 0);
    const Json &values = in.object("values");
    JsonReader valueReader(values, in.placeOf("values"), errors);
    for (const auto &[key, value] : values.items())
        s.values[key] = valueReader.number(key);
    s.extra = in.leftOver();
    return s;
}

Json stopToJson(const Stop &s)
{
    Json out = { { "id", s.id }, { "name", s.name }, { "kind", s.kind } };
    out["points"] = Json::array();
    for (const StopPoint &p : s.points)
        out["points"].push_back({ { "name", p.name }, { "node", p.node } });
    out["elements"] = s.elements;
    if (s.journal_mm != 0)
        out["journal_mm"] = s.journal_mm;
    if (s.shellWall_mm != 0)
        out["shell_wall_mm"] = s.shellWall_mm;
    if (s.plugBore_mm != 0)
        out["plug_bore_mm"] = s.plugBore_mm;
    if (!s.values.empty())
        out["values"] = s.values;
    out.update(s.extra.json());
    return out;
}

Engine engineFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Engine e;
    e.name = in.text("name", "");
    e.layout = in.text("layout", "");
    e.cylinders = in.integer("cylinders", 0);
    e.displacement_l = in.number("displacement_l", 0);
    e.bore_mm = in.number("bore_mm", 0);
    e.stroke_mm = in.number("stroke_mm", 0);
    e.reciprocating_g = in.number("reciprocating_g", 0);
    e.rotating_g = in.number("rotating_g", 0);
    JsonReader materials(in.object("materials"), in.placeOf("materials"), errors);
    e.block = materials.text("block");
    e.crank = materials.text("crank");
    e.rod = materials.text("rod");
    e.mainCap = materials.text("main_cap", "");
    e.mainCapFraction = materials.number("main_cap_fraction", e.mainCapFraction);
    const Json &stops = in.array("stops");
    if (!in.has("stops"))
        in.error("stops", "is missing");
    for (size_t i = 0; i < stops.size(); ++i)
        e.stops.push_back(
            stopFromJson(stops[i], in.placeOf("stops") + "/" + std::to_string(i), errors));
    e.extra = in.leftOver();
    return e;
}

Json engineToJson(const Engine &e)
{
    Json out = { { "name", e.name },
                 { "layout", e.layout },
                 { "cylinders", e.cylinders },
                 { "displacement_l", e.displacement_l } };
    for (const auto &[key, value] :
         { std::pair("bore_mm", e.bore_mm), std::pair("stroke_mm", e.stroke_mm),
           std::pair("reciprocating_g", e.reciprocating_g), std::pair("rotating_g", e.rotating_g) })
        if (value > 0)
            out[key] = value;
    out["materials"] = { { "block", e.block }, { "crank", e.crank }, { "rod", e.rod } };
    if (!e.mainCap.empty()) {
        out["materials"]["main_cap"] = e.mainCap;
        out["materials"]["main_cap_fraction"] = e.mainCapFraction;
    }
    out.update(e.extra.json());
    out["stops"] = Json::array();
    for (const Stop &s : e.stops)
        out["stops"].push_back(stopToJson(s));
    return out;
}

Use useFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Use u;
    for (const UseKey &key : useKeys())
        u.*key.member = in.number(std::string(key.key), u.*key.member);
    u.extra = in.leftOver();
    return u;
}

Json useToJson(const Use &u)
{
    Json out = Json::object();
    for (const UseKey &key : useKeys())
        out[std::string(key.key)] = u.*key.member;
    out.update(u.extra.json());
    return out;
}

Limits limitsFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Limits l;
    l.min_um = in.number("min_um");
    l.max_um = in.number("max_um");
    l.target_um = in.optionalNumber("target_um");
    l.source = in.text("source", "");
    l.extra = in.leftOver();
    return l;
}

Json limitsToJson(const Limits &l)
{
    Json out = { { "min_um", l.min_um }, { "max_um", l.max_um } };
    if (l.target_um)
        out["target_um"] = *l.target_um;
    out["source"] = l.source;
    out.update(l.extra.json());
    return out;
}

} // namespace

ChosenOil oilFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    ChosenOil o;
    o.grade = in.text("grade", "");
    o.oil.kv40_mm2_s = in.number("kv40_mm2_s");
    o.oil.kv100_mm2_s = in.number("kv100_mm2_s");
    o.oil.rho15_kg_m3 = in.number("rho15_kg_m3");
    o.hths_mpa_s = in.optionalNumber("hths_mpa_s");
    o.phosphorus_mg_kg = in.optionalNumber("phosphorus_mg_kg");
    o.extra = in.leftOver();
    return o;
}

Json oilToJson(const ChosenOil &o)
{
    Json out = { { "grade", o.grade },
                 { "kv40_mm2_s", o.oil.kv40_mm2_s },
                 { "kv100_mm2_s", o.oil.kv100_mm2_s },
                 { "rho15_kg_m3", o.oil.rho15_kg_m3 } };
    if (o.hths_mpa_s)
        out["hths_mpa_s"] = *o.hths_mpa_s;
    if (o.phosphorus_mg_kg)
        out["phosphorus_mg_kg"] = *o.phosphorus_mg_kg;
    out.update(o.extra.json());
    return out;
}

Reading readingFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Reading r;
    r.id = in.text("id");
    r.stop = in.text("stop");
    r.family = in.text("family", "");
    r.item = in.integer("item", 1);
    r.method = in.text("method", r.method);
    r.station = in.integer("station", r.station);
    r.angle_deg = in.number("angle_deg", r.angle_deg);
    r.value_um = in.optionalNumber("value_um");
    r.u_um = in.number("u_um", r.u_um);
    r.housing_c = in.number("housing_temp_c", r.housing_c);
    r.journal_c = in.number("journal_temp_c", r.journal_c);
    r.bore_mm = in.optionalNumber("bore_mm");
    r.journal_mm = in.optionalNumber("journal_mm");
    r.journalU_um = in.number("journal_u_um", 0);
    r.overOilHole = in.boolean("over_oil_hole", false);
    r.feel = in.text("feel", "");
    const Json &repeats = in.array("repeats_um");
    for (size_t i = 0; i < repeats.size(); ++i) {
        if (repeats[i].is_number())
            r.repeats_um.push_back(repeats[i].get<double>());
        else
            in.error("repeats_um/" + std::to_string(i), "must be a number");
    }
    if (in.has("cap_torqued"))
        r.capTorqued = in.boolean("cap_torqued", false);
    r.shells = in.text("shells", "");
    r.instrument = in.text("instrument", "");
    r.by = in.text("by", "");
    r.at = in.text("at", "");
    r.replaces = in.text("replaces", "");
    r.extra = in.leftOver();
    return r;
}

Json readingToJson(const Reading &r)
{
    Json out = { { "id", r.id },
                 { "stop", r.stop },
                 { "family", r.family },
                 { "item", r.item },
                 { "method", r.method },
                 { "station", r.station },
                 { "angle_deg", r.angle_deg } };
    out["value_um"] = r.value_um ? Json(*r.value_um) : Json();
    out["u_um"] = r.u_um;
    out["housing_temp_c"] = r.housing_c;
    out["journal_temp_c"] = r.journal_c;
    if (r.bore_mm)
        out["bore_mm"] = *r.bore_mm;
    if (r.journal_mm)
        out["journal_mm"] = *r.journal_mm;
    if (r.journalU_um != 0)
        out["journal_u_um"] = r.journalU_um;
    if (r.overOilHole)
        out["over_oil_hole"] = true;
    if (!r.feel.empty())
        out["feel"] = r.feel;
    if (!r.repeats_um.empty())
        out["repeats_um"] = r.repeats_um;
    if (r.capTorqued)
        out["cap_torqued"] = *r.capTorqued;
    if (!r.shells.empty())
        out["shells"] = r.shells;
    out["instrument"] = r.instrument;
    out["by"] = r.by;
    out["at"] = r.at;
    if (!r.replaces.empty())
        out["replaces"] = r.replaces;
    out.update(r.extra.json());
    return out;
}

Proof proofFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Proof p;
    p.id = in.text("id");
    p.stop = in.text("stop");
    p.aspect = in.text("aspect");
    p.check = in.text("check", "");
    p.verdict = in.text("verdict", "proven");
    p.how = in.text("how", "");
    p.by = in.text("by", "");
    p.at = in.text("at", "");
    p.extra = in.leftOver();
    return p;
}

Json proofToJson(const Proof &p)
{
    Json out
        = { { "id", p.id },   { "stop", p.stop }, { "aspect", p.aspect }, { "verdict", p.verdict },
            { "how", p.how }, { "by", p.by },     { "at", p.at } };
    if (!p.check.empty())
        out["check"] = p.check;
    out.update(p.extra.json());
    return out;
}

namespace {

template <class List, class Read>
void readAll(JsonReader &in, const std::string &key, List &out, Read read,
             std::vector<Error> &errors)
{
    const Json &all = in.array(key);
    for (size_t i = 0; i < all.size(); ++i)
        out.push_back(read(all[i], in.placeOf(key) + "/" + std::to_string(i), errors));
}

template <class List, class Write>
void writeAll(Json &out, const char *key, const List &records, Write write)
{
    out[key] = Json::array();
    for (const auto &r : records)
        out[key].push_back(write(r));
}

void readParts(JsonReader &in, Build &b, std::vector<Error> &errors)
{
    readAll(in, "torque_cards", b.torqueCards, torqueCardFromJson, errors);
    readAll(in, "torque_ticks", b.ticks, torqueTickFromJson, errors);
    for (const auto &[family, stock] : in.object("shells").items())
        b.shells[family] = shellStockFromJson(stock, "/shells/" + family, errors);
    readAll(in, "weighings", b.weighings, weighingFromJson, errors);
    const Json &tolerances = in.object("weight_tolerance_g");
    JsonReader tolerance(tolerances, "/weight_tolerance_g", errors);
    for (const auto &[part, value] : tolerances.items())
        b.weightTolerance_g[part] = tolerance.number(part);
    readAll(in, "choices", b.choices, choiceFromJson, errors);
    b.heat = heatFromJson(in.object("heat"), "/heat", errors);
    for (const auto &[id, expansion] : in.object("expansions").items())
        b.expansions[id] = ownExpansionFromJson(expansion, "/expansions/" + id, errors);
    readAll(in, "heat_points", b.heatPoints, heatPointFromJson, errors);
    readAll(in, "passages", b.passages, passageFromJson, errors);
    readAll(in, "plugs", b.plugs, plugFromJson, errors);
    b.plumbing = plumbingFromJson(in.object("plumbing"), "/plumbing", errors);
    b.sump = sumpFromJson(in.object("sump"), "/sump", errors);
    b.start = startFromJson(in.object("start"), "/start", errors);
    b.finish = sectionFromJson(in.object("finish"), "/finish", errors);
    b.after = sectionFromJson(in.object("after"), "/after", errors);
    forEachLog(
        [&](const auto &log) { readAll(in, std::string(log.key), b.*log.list, log.read, errors); });
}

} // namespace

Build buildFromJson(const Json &json, std::vector<Error> &errors)
{
    JsonReader in(json, "", errors);
    Build b;
    in.text("format", "");
    in.integer("version", 0);
    b.name = in.text("name");
    b.notes = in.text("notes", "");
    b.engine = engineFromJson(in.object("engine"), "/engine", errors);
    Json circuit = in.object("circuit");
    if (circuit.contains("gauge_tap") && circuit["gauge_tap"].is_string())
        b.gaugeTap = circuit["gauge_tap"].get<std::string>();
    else
        errors.push_back({ "/circuit/gauge_tap", "is missing: the tap the gauge sits on" });
    circuit.erase("gauge_tap");
    b.circuit = circuitFromJson(circuit, "/circuit", errors);
    b.oil = oilFromJson(in.object("oil"), "/oil", errors);
    b.use = useFromJson(in.object("use"), "/use", errors);
    for (const auto &[kind, limits] : in.object("limits").items())
        b.limits[kind] = limitsFromJson(limits, "/limits/" + kind, errors);
    readAll(in, "own_oils", b.ownOils, oilFromJson, errors);
    readAll(in, "readings", b.readings, readingFromJson, errors);
    readAll(in, "proofs", b.proofs, proofFromJson, errors);
    readParts(in, b, errors);
    // Older files name no family: a reading then is of its stop's kind.
    b.readings.change([&](Reading &r) {
        if (const Stop *stop = r.family.empty() ? b.engine.find(r.stop) : nullptr)
            r.family = stop->kind;
    });
    b.extra = in.leftOver();
    return b;
}

Json buildToJson(const Build &b)
{
    Json out = { { "format", buildFormat },
                 { "version", buildVersion },
                 { "name", b.name },
                 { "notes", b.notes } };
    out["engine"] = engineToJson(b.engine);
    out["circuit"] = { { "gauge_tap", b.gaugeTap } };
    out["circuit"].update(circuitToJson(b.circuit));
    out["oil"] = oilToJson(b.oil);
    out["use"] = useToJson(b.use);
    writeAll(out, "own_oils", b.ownOils, oilToJson);
    out["limits"] = Json::object();
    for (const auto &[kind, limits] : b.limits)
        out["limits"][kind] = limitsToJson(limits);
    writeAll(out, "readings", b.readings, readingToJson);
    writeAll(out, "proofs", b.proofs, proofToJson);
    writeAll(out, "torque_cards", b.torqueCards, torqueCardToJson);
    writeAll(out, "torque_ticks", b.ticks, torqueTickToJson);
    out["shells"] = Json::object();
    for (const auto &[family, stock] : b.shells)
        out["shells"][family] = shellStockToJson(stock);
    writeAll(out, "weighings", b.weighings, weighingToJson);
    out["weight_tolerance_g"] = b.weightTolerance_g;
    writeAll(out, "choices", b.choices, choiceToJson);
    out["heat"] = heatToJson(b.heat);
    out["expansions"] = Json::object();
    for (const auto &[id, expansion] : b.expansions)
        out["expansions"][id] = ownExpansionToJson(expansion);
    writeAll(out, "heat_points", b.heatPoints, heatPointToJson);
    writeAll(out, "passages", b.passages, passageToJson);
    writeAll(out, "plugs", b.plugs, plugToJson);
    out["plumbing"] = plumbingToJson(b.plumbing);
    out["sump"] = sumpToJson(b.sump);
    out["start"] = startToJson(b.start);
    out["finish"] = sectionToJson(b.finish);
    out["after"] = sectionToJson(b.after);
    forEachLog([&](const auto &log) { writeAll(out, log.key.data(), b.*log.list, log.write); });
    out.update(b.extra.json());
    return out;
}

} // namespace mildpath
