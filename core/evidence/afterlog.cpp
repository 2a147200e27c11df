// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/afterlog.h"

#include "evidence/jsonput.h"

#include <algorithm>
#include <array>
#include <charconv>

namespace mildpath {
namespace {

// Common practice, no source.
constexpr std::array cutKindRows {
    CutKind { "bright", "bright, soft, not magnetic", "alloy or bearing overlay", false },
    CutKind { "copper", "copper colour", "bearing underlayer, bush", true },
    CutKind { "magnetic", "magnetic", "iron or steel", false },
    CutKind { "black", "black, hard", "burnt oil, guide plastic", false },
    CutKind { "pliable", "pliable, grey or black", "sealant", false },
};
constexpr std::array<std::string_view, 2> phaseWords { "before", "after" };

/// Heights as one text, blanks between: an array would take a line each in a file for people.
std::string heightsText(std::span<const double> z)
{
    std::string out;
    out.reserve(z.size() * 7);
    std::array<char, 32> digits {};
    for (const double v : z) {
        if (!out.empty())
            out += ' ';
        const auto end = std::to_chars(digits.data(), digits.data() + digits.size(), v);
        out.append(digits.data(), end.ptr);
    }
    return out;
}

std::vector<double> heightsOf(JsonReader &in)
{
    const std::string text = in.text("z_um");
    std::vector<double> out;
    out.reserve(text.size() / 6 + 1);
    const char *at = text.data(), *end = at + text.size();
    while (at < end) {
        if (*at == ' ') {
            ++at;
            continue;
        }
        double v = 0;
        const auto read = std::from_chars(at, end, v);
        if (read.ec != std::errc() || (read.ptr < end && *read.ptr != ' ')
            || !(v > -1e6 && v < 1e6)) {
            in.error("z_um", "height " + std::to_string(out.size() + 1) + " is no number");
            return {};
        }
        out.push_back(v);
        at = read.ptr;
    }
    return out;
}

} // namespace

std::span<const CutKind> cutKinds()
{
    return cutKindRows;
}

const CutKind *findCutKind(std::string_view id)
{
    for (const CutKind &k : cutKindRows)
        if (k.id == id)
            return &k;
    return nullptr;
}

std::span<const std::string_view> phases()
{
    return phaseWords;
}

std::optional<int> FilterCut::count(std::string_view kind) const
{
    const auto pleats = count(kind, "pleats"), can = count(kind, "can");
    if (!pleats && !can)
        return std::nullopt;
    return pleats.value_or(0) + can.value_or(0);
}

std::optional<int> FilterCut::count(std::string_view kind, std::string_view where) const
{
    std::optional<int> out;
    for (const DebrisCount &c : counts)
        if (c.kind == kind && c.where == where)
            out = out.value_or(0) + c.count;
    return out;
}

Heights::Heights(std::vector<double> z_um)
    : m_z(std::make_shared<const std::vector<double>>(std::move(z_um)))
{
}

std::span<const double> Heights::um() const
{
    return m_z ? std::span<const double>(*m_z) : std::span<const double>();
}

bool Heights::operator==(const Heights &other) const
{
    return m_z == other.m_z || std::ranges::equal(um(), other.um());
}

FilterCut filterCutFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    FilterCut c;
    readRecord(in, c);
    c.engine_h = in.number("engine_hours_h");
    c.filter_h = in.number("filter_hours_h");
    c.area_cm2 = in.number("area_cm2");
    c.settled = in.text("settled", "");
    const Json &counts = in.array("counts");
    for (size_t i = 0; i < counts.size(); ++i) {
        JsonReader one(counts[i], in.placeOf("counts") + "/" + std::to_string(i), errors);
        c.counts.push_back({ one.text("kind"), one.text("where", "pleats"), one.integer("count", 0),
                             one.optionalNumber("largest_mm") });
    }
    c.extra = in.leftOver();
    return c;
}

Json filterCutToJson(const FilterCut &c)
{
    Json out = recordToJson(c);
    out["engine_hours_h"] = c.engine_h;
    out["filter_hours_h"] = c.filter_h;
    out["area_cm2"] = c.area_cm2;
    out["counts"] = Json::array();
    for (const DebrisCount &d : c.counts) {
        Json one { { "kind", d.kind }, { "where", d.where }, { "count", d.count } };
        put(one, "largest_mm", d.largest_mm);
        out["counts"].push_back(std::move(one));
    }
    put(out, "settled", c.settled);
    out.update(c.extra.json());
    return out;
}

OilSample oilSampleFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    OilSample s;
    readRecord(in, s);
    s.of = in.text("of", "used");
    s.oil = in.text("oil", "");
    s.engine_h = in.number("engine_hours_h", 0);
    s.oil_h = in.number("oil_hours_h", 0);
    s.added_kg = in.number("oil_added_kg", 0);
    const Json &elements = in.object("elements_mg_kg");
    JsonReader each(elements, in.placeOf("elements_mg_kg"), errors);
    for (const auto &[symbol, value] : elements.items())
        s.elements[symbol] = each.number(symbol);
    s.water_percent = in.optionalNumber("water_percent");
    s.fuel_percent = in.optionalNumber("fuel_percent");
    s.kv40_mm2_s = in.optionalNumber("kv40_mm2_s");
    s.kv100_mm2_s = in.optionalNumber("kv100_mm2_s");
    s.settled = in.text("settled", "");
    s.extra = in.leftOver();
    return s;
}

Json oilSampleToJson(const OilSample &s)
{
    Json out = recordToJson(s);
    out["of"] = s.of;
    put(out, "oil", s.oil);
    if (s.of == "used") {
        out["engine_hours_h"] = s.engine_h;
        out["oil_hours_h"] = s.oil_h;
        out["oil_added_kg"] = s.added_kg;
    }
    out["elements_mg_kg"] = s.elements;
    put(out, "water_percent", s.water_percent);
    put(out, "fuel_percent", s.fuel_percent);
    put(out, "kv40_mm2_s", s.kv40_mm2_s);
    put(out, "kv100_mm2_s", s.kv100_mm2_s);
    put(out, "settled", s.settled);
    out.update(s.extra.json());
    return out;
}

Opening openingFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Opening o;
    readRecord(in, o);
    o.engine_h = in.number("engine_hours_h");
    o.readings = in.integer("readings", 0);
    o.extra = in.leftOver();
    return o;
}

Json openingToJson(const Opening &o)
{
    Json out = recordToJson(o);
    out["engine_hours_h"] = o.engine_h;
    out["readings"] = o.readings;
    out.update(o.extra.json());
    return out;
}

SealCheck sealCheckFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    SealCheck s;
    readRecord(in, s);
    s.kind = in.text("kind");
    s.phase = in.text("phase");
    s.rpm = in.number("rpm");
    s.load_percent = in.number("load_percent", 0);
    s.value = in.number(s.kind == "vacuum" ? "vacuum_kpa" : "flow_l_min");
    s.gas_c = in.number("gas_temp_c", s.gas_c);
    s.gas_kpa = in.number("gas_absolute_kpa", s.gas_kpa);
    s.pump_rpm = in.optionalNumber("pump_rpm");
    s.relief_kpa = in.optionalNumber("relief_kpa");
    s.extra = in.leftOver();
    return s;
}

Json sealCheckToJson(const SealCheck &s)
{
    Json out = recordToJson(s);
    out["kind"] = s.kind;
    out["phase"] = s.phase;
    out["rpm"] = s.rpm;
    out["load_percent"] = s.load_percent;
    if (s.kind == "vacuum") {
        out["vacuum_kpa"] = s.value;
        put(out, "pump_rpm", s.pump_rpm);
        put(out, "relief_kpa", s.relief_kpa);
    } else {
        out["flow_l_min"] = s.value;
        out["gas_temp_c"] = s.gas_c;
        out["gas_absolute_kpa"] = s.gas_kpa;
    }
    out.update(s.extra.json());
    return out;
}

BoreTrace boreTraceFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    BoreTrace t;
    readRecord(in, t);
    t.bore = in.integer("bore", 1);
    t.phase = in.text("phase", "before");
    t.place = in.text("place", "");
    t.source = in.text("source", "");
    t.spacing_um = in.number("spacing_um");
    t.z = Heights(heightsOf(in));
    t.extra = in.leftOver();
    return t;
}

Json boreTraceToJson(const BoreTrace &t)
{
    Json out = recordToJson(t);
    out["bore"] = t.bore;
    out["phase"] = t.phase;
    put(out, "place", t.place);
    put(out, "source", t.source);
    out["spacing_um"] = t.spacing_um;
    out["z_um"] = heightsText(t.z.um());
    out.update(t.extra.json());
    return out;
}

} // namespace mildpath
