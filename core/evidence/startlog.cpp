// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/startlog.h"

#include "evidence/jsonput.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 3> outcomes { "done", "not_so", "skipped" };
constexpr std::array<std::string_view, 3> kinds { "prime", "start", "run" };

Json orNone(const std::optional<double> &value)
{
    return value ? Json(*value) : Json();
}

std::vector<RunPoint> traceFromJson(JsonReader &in)
{
    std::vector<RunPoint> out;
    const Json &all = in.array("trace");
    for (size_t i = 0; i < all.size(); ++i) {
        const Json &p = all[i];
        const bool whole = p.is_array() && p.size() == 4 && p[0].is_number()
            && std::all_of(p.begin(), p.end(),
                           [](const Json &v) { return v.is_number() || v.is_null(); });
        if (!whole) {
            in.error("trace/" + std::to_string(i),
                     "must be seconds, kPa, rev/min and °C, null for what was not said");
            continue;
        }
        const auto at = [&](size_t k) {
            return p[k].is_null() ? std::nullopt : std::optional(p[k].get<double>());
        };
        out.push_back({ p[0].get<double>(), at(1), at(2), at(3) });
    }
    return out;
}

} // namespace

std::span<const std::string_view> cardOutcomes()
{
    return outcomes;
}

std::span<const std::string_view> runKinds()
{
    return kinds;
}

std::vector<RunPoint> thinned(std::span<const RunPoint> points, size_t most)
{
    if (points.size() <= most)
        return { points.begin(), points.end() };
    // Two points a stretch: its lowest and its highest pressure, so that no spike is lost.
    std::vector<RunPoint> out;
    const size_t stretches = std::max<size_t>(1, most / 2);
    const auto pressure = [](const RunPoint &p) { return p.pressure_kpa.value_or(-1); };
    for (size_t k = 0; k < stretches; ++k) {
        const auto from
            = points.begin() + static_cast<std::ptrdiff_t>(k * points.size() / stretches);
        const auto to
            = points.begin() + static_cast<std::ptrdiff_t>((k + 1) * points.size() / stretches);
        const auto [low, high]
            = std::minmax_element(from, to, [&](const RunPoint &a, const RunPoint &b) {
                  return pressure(a) < pressure(b);
              });
        out.push_back(*std::min(low, high));
        if (low != high)
            out.push_back(*std::max(low, high));
    }
    return out;
}

void summariseRun(std::span<const RunPoint> points, RunLog &out)
{
    out.readings = static_cast<int>(points.size());
    out.seconds = points.empty() ? 0 : points.back().t_s;
    out.firstPressure_s.reset();
    out.most_kpa = 0;
    for (const RunPoint &p : points) {
        if (!p.pressure_kpa)
            continue;
        if (!out.firstPressure_s && *p.pressure_kpa >= firstPressure_kpa)
            out.firstPressure_s = p.t_s;
        out.most_kpa = std::max(out.most_kpa, *p.pressure_kpa);
    }
    out.trace = thinned(points, mostTracePoints);
}

SignOff signOffFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    SignOff s;
    readRecord(in, s);
    s.hold = in.text("hold");
    s.said = in.text("said", "");
    s.extra = in.leftOver();
    return s;
}

Json signOffToJson(const SignOff &s)
{
    Json out = recordToJson(s);
    out["hold"] = s.hold;
    out["said"] = s.said;
    out.update(s.extra.json());
    return out;
}

CardStep cardStepFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    CardStep s;
    readRecord(in, s);
    s.step = in.text("step");
    s.outcome = in.text("outcome", "done");
    s.pressure_kpa = in.optionalNumber("pressure_kpa");
    s.rpm = in.optionalNumber("rpm");
    s.oil_c = in.optionalNumber("oil_temp_c");
    s.seconds = in.optionalNumber("time_s");
    s.extra = in.leftOver();
    return s;
}

Json cardStepToJson(const CardStep &s)
{
    Json out = recordToJson(s);
    out["step"] = s.step;
    out["outcome"] = s.outcome;
    put(out, "pressure_kpa", s.pressure_kpa);
    put(out, "rpm", s.rpm);
    put(out, "oil_temp_c", s.oil_c);
    put(out, "time_s", s.seconds);
    out.update(s.extra.json());
    return out;
}

RunLog runLogFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    RunLog r;
    readRecord(in, r);
    r.kind = in.text("kind");
    r.source = in.text("source", "");
    r.tap = in.text("tap");
    r.file = in.text("file", "");
    r.stopped = in.text("stopped", "");
    r.readings = in.integer("readings", 0);
    r.seconds = in.number("time_s", 0);
    r.firstPressure_s = in.optionalNumber("first_pressure_s");
    r.most_kpa = in.number("most_kpa", 0);
    r.trace = traceFromJson(in);
    const Json &marks = in.array("marks");
    for (size_t i = 0; i < marks.size(); ++i) {
        JsonReader one(marks[i], in.placeOf("marks") + "/" + std::to_string(i), errors);
        r.marks.push_back({ one.number("time_s"), one.text("text", "") });
    }
    r.extra = in.leftOver();
    return r;
}

Json runLogToJson(const RunLog &r)
{
    Json out = recordToJson(r);
    out["kind"] = r.kind;
    put(out, "source", r.source);
    out["tap"] = r.tap;
    put(out, "file", r.file);
    put(out, "stopped", r.stopped);
    out["readings"] = r.readings;
    out["time_s"] = r.seconds;
    put(out, "first_pressure_s", r.firstPressure_s);
    out["most_kpa"] = r.most_kpa;
    out["trace"] = Json::array();
    for (const RunPoint &p : r.trace)
        out["trace"].push_back({ p.t_s, orNone(p.pressure_kpa), orNone(p.rpm), orNone(p.oil_c) });
    out["marks"] = Json::array();
    for (const RunMark &m : r.marks)
        out["marks"].push_back({ { "time_s", m.t_s }, { "text", m.text } });
    out.update(r.extra.json());
    return out;
}

Calibration calibrationFromJson(const Json &json, const std::string &place,
                                std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Calibration c;
    readRecord(in, c);
    c.input = in.text("input");
    c.amount = in.number("amount");
    c.z = in.number("z", 0);
    const Json &readings = in.array("readings");
    for (size_t i = 0; i < readings.size(); ++i)
        if (readings[i].is_string())
            c.readings.push_back(readings[i].get<std::string>());
        else
            in.error("readings/" + std::to_string(i), "must be the id of a gauge reading");
    c.extra = in.leftOver();
    return c;
}

Json calibrationToJson(const Calibration &c)
{
    Json out = recordToJson(c);
    out["input"] = c.input;
    out["amount"] = c.amount;
    out["z"] = c.z;
    out["readings"] = c.readings;
    out.update(c.extra.json());
    return out;
}

} // namespace mildpath
