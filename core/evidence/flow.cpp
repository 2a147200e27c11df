// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/flow.h"

#include "evidence/jsonput.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

// Own choice: likely 0.8, possible 0.3, otherwise 0.05 (diagnose/diagnosis.h).
const std::array<SymptomKind, 8> symptoms { {
    { "rattle_cold",
      "rattle, first seconds cold",
      { "suction_air", "drain_back_leaking" },
      { "relief_stuck_open", "mains_worn", "pump_worn" } },
    { "tapping_warm",
      "tapping, warm idle only",
      { "lifter_plug_missing", "lifter_bores_worn" },
      { "cams_worn", "pump_worn", "mains_worn" } },
    { "last_lifters_dry",
      "last lifters do not fill",
      { "lifter_plug_missing", "lifter_swarf" },
      { "lifter_bores_worn" } },
    { "gauge_zero",
      "gauge steady at zero",
      { "pump_gasket", "lines_swapped" },
      { "relief_stuck_open", "suction_air" } },
    { "falls_in_turns",
      "pressure falls in turns",
      { "pickup_uncovers", "low_fill" },
      { "suction_air" } },
    { "foam",
      "foam on the stick",
      { "overfill", "suction_air" },
      { "coolant_in_oil", "pump_gasket" } },
    { "knock_hot",
      "knock hot, metals normal",
      {},
      { "big_ends_worn", "relief_stuck_open", "oil_too_thin" } },
    { "noise_other", "another noise", {}, {} },
} };

constexpr std::array sounds {
    NoiseWord { "rattle", "rattle" }, NoiseWord { "tapping", "tapping" },
    NoiseWord { "knock", "knock" },   NoiseWord { "whine", "whine" },
    NoiseWord { "squeal", "squeal" },
};
constexpr std::array times {
    NoiseWord { "first_seconds_cold", "first seconds, cold" },
    NoiseWord { "cold_idle", "at cold idle" },
    NoiseWord { "warm_idle", "at warm idle only" },
    NoiseWord { "hot_load", "hot, under load" },
    NoiseWord { "always", "always" },
};

constexpr std::array<std::string_view, 4> means { "pressure_pot", "drill", "starter", "running" };
constexpr std::array<std::string_view, 3> sights { "flows", "weak", "dry" };

} // namespace

std::span<const SymptomKind> symptomKinds()
{
    return symptoms;
}

const SymptomKind *findSymptomKind(std::string_view id)
{
    const auto it = std::find_if(symptoms.begin(), symptoms.end(),
                                 [&](const SymptomKind &s) { return s.id == id; });
    return it == symptoms.end() ? nullptr : &*it;
}

std::span<const NoiseWord> noiseSounds()
{
    return sounds;
}

std::span<const NoiseWord> noiseTimes()
{
    return times;
}

std::string_view symptomOf(std::string_view sound, std::string_view heard)
{
    if (sound == "rattle" && heard == "first_seconds_cold")
        return "rattle_cold";
    if (sound == "tapping" && heard == "warm_idle")
        return "tapping_warm";
    if (sound == "knock" && heard == "hot_load")
        return "knock_hot";
    return otherNoise;
}

std::span<const std::string_view> flowMeans()
{
    return means;
}
std::span<const std::string_view> flowSights()
{
    return sights;
}

GaugeReading gaugeReadingFromJson(const Json &json, const std::string &place,
                                  std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    GaugeReading r;
    readRecord(in, r);
    r.tap = in.text("tap");
    r.rpm = in.number("rpm");
    r.oil_c = in.number("oil_temp_c");
    r.pressure_kpa = in.number("pressure_kpa");
    r.u_kpa = in.number("u_kpa", GaugeReading::usualGaugeU_kpa);
    r.oil = in.text("oil", "");
    r.extra = in.leftOver();
    return r;
}

Json gaugeReadingToJson(const GaugeReading &r)
{
    Json out = recordToJson(r);
    out["tap"] = r.tap;
    out["rpm"] = r.rpm;
    out["oil_temp_c"] = r.oil_c;
    out["pressure_kpa"] = r.pressure_kpa;
    out["u_kpa"] = r.u_kpa;
    put(out, "oil", r.oil);
    out.update(r.extra.json());
    return out;
}

Symptom symptomFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Symptom s;
    readRecord(in, s);
    s.symptom = in.text("symptom");
    s.there = in.boolean("there", true);
    s.sound = in.text("sound", "");
    s.heard = in.text("heard", "");
    s.gone_above_rpm = in.optionalNumber("gone_above_rpm");
    s.extra = in.leftOver();
    return s;
}

Json symptomToJson(const Symptom &s)
{
    Json out = recordToJson(s);
    out["symptom"] = s.symptom;
    out["there"] = s.there;
    put(out, "sound", s.sound);
    put(out, "heard", s.heard);
    put(out, "gone_above_rpm", s.gone_above_rpm);
    out.update(s.extra.json());
    return out;
}

FlowSeen flowSeenFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    FlowSeen f;
    readRecord(in, f);
    f.stop = in.text("stop");
    f.outlet = in.integer("outlet", 0);
    f.saw = in.text("saw");
    f.means = in.text("means");
    f.oil = in.text("oil", "");
    f.filter = in.text("filter", "");
    f.oil_c = in.optionalNumber("oil_temp_c");
    f.pressure_kpa = in.optionalNumber("pressure_kpa");
    f.litres = in.optionalNumber("caught_l");
    f.seconds = in.optionalNumber("time_s");
    f.extra = in.leftOver();
    return f;
}

Json flowSeenToJson(const FlowSeen &f)
{
    Json out = recordToJson(f);
    out["stop"] = f.stop;
    if (f.outlet != 0)
        out["outlet"] = f.outlet;
    out["saw"] = f.saw;
    out["means"] = f.means;
    put(out, "oil", f.oil);
    put(out, "filter", f.filter);
    put(out, "oil_temp_c", f.oil_c);
    put(out, "pressure_kpa", f.pressure_kpa);
    put(out, "caught_l", f.litres);
    put(out, "time_s", f.seconds);
    out.update(f.extra.json());
    return out;
}

Scenario scenarioFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Scenario s;
    readRecord(in, s);
    s.name = in.text("name");
    const Json &list = in.array("faults");
    for (size_t i = 0; i < list.size(); ++i) {
        JsonReader one(list[i], in.placeOf("faults") + "/" + std::to_string(i), errors);
        s.faults.push_back({ one.text("kind"), one.text("stop"), one.integer("item", 0),
                             one.number("severity", 1) });
        const Json unknown = one.leftOver();
        for (const auto &[key, value] : unknown.items())
            one.error(key, "is not known");
    }
    const Json &changes = in.array("changes");
    for (size_t i = 0; i < changes.size(); ++i) {
        JsonReader one(changes[i], in.placeOf("changes") + "/" + std::to_string(i), errors);
        s.changes.push_back({ one.text("element"), one.text("key"), one.number("value") });
    }
    s.extra = in.leftOver();
    return s;
}

Json scenarioToJson(const Scenario &s)
{
    Json out = recordToJson(s);
    out["name"] = s.name;
    Json faults = Json::array();
    for (const Fault &f : s.faults) {
        Json one { { "kind", f.kind }, { "stop", f.stop }, { "severity", f.severity } };
        if (f.item != 0)
            one["item"] = f.item;
        faults.push_back(std::move(one));
    }
    out["faults"] = std::move(faults);
    if (!s.changes.empty())
        out["changes"] = Json::array();
    for (const ElementChange &c : s.changes)
        out["changes"].push_back(
            { { "element", c.element }, { "key", c.key }, { "value", c.value } });
    out.update(s.extra.json());
    return out;
}

} // namespace mildpath
