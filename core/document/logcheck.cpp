// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/logbook.h"

#include "circuit/elementtypes.h"
#include "quantity/rounding.h"
#include "rules/rules.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

class LogChecker
{
public:
    LogChecker(const Build &build, std::vector<Error> &errors)
        : m_build(build)
        , m_errors(errors)
    {
        for (const Stop &s : build.engine.stops)
            m_stops.insert(s.id);
        for (const Passage &p : build.passages)
            m_passages.insert(p.id);
        for (const Plug &p : build.plugs)
            m_plugs.insert(p.id);
    }

    void run()
    {
        forEachLog([this](const auto &log) {
            const auto &list = m_build.*log.list;
            std::set<std::string_view> ids;
            for (size_t i = 0; i < list.size(); ++i) {
                m_place = "/" + std::string(log.key) + "/" + std::to_string(i);
                if (!list[i].replaces.empty() && !ids.contains(list[i].replaces))
                    add("/replaces", "there is no earlier entry \"" + list[i].replaces + "\"");
                if (!ids.insert(list[i].id).second)
                    add("/id", "\"" + list[i].id + "\" is used twice");
                for (size_t k = 0; k < list[i].photos.size(); ++k)
                    if (list[i].photos[k].empty()
                        || list[i].photos[k].find_first_of("/\\") != std::string::npos)
                        add("/photos/" + std::to_string(k), "must be a plain file name");
                check(list[i]);
            }
        });
    }

private:
    void add(const std::string &key, Phrase message)
    {
        m_errors.push_back({ m_place + key, std::move(message) });
    }
    void stop(const std::string &id, bool mayBeEmpty = false)
    {
        if (!(mayBeEmpty && id.empty()) && !m_stops.contains(id))
            add("/stop", "there is no stop \"" + id + "\"");
    }

    void check(const CleanEvent &e)
    {
        const EventKind *kind = findEventKind(e.kind);
        if (!kind) {
            add("/kind", "there is no kind of event \"" + e.kind + "\"");
            return;
        }
        if ((kind->does == Does::Plug) != (e.scope == "plug"))
            add("/scope", "\"" + e.scope + "\" does not go with " + e.kind);
        if (e.scope == "job" && kind->does != Does::Dirties)
            add("/scope", "only machining is a job");
        const bool known = (e.scope == "all" && e.target.empty())
            || (e.scope == "passage" && m_passages.contains(e.target))
            || (e.scope == "plug" && m_plugs.contains(e.target))
            || (e.scope == "job" && findMachiningJob(e.target))
            || (e.scope == "part" && isPart(e.target));
        if (!known)
            add("/target", "there is no " + e.scope + " \"" + e.target + "\"");
        if (kind->results.empty() && !e.result.empty())
            add("/result", "\"" + e.result + "\" does not go with " + e.kind);
        if (!kind->results.empty()
            && std::find(kind->results.begin(), kind->results.end(), e.result)
                == kind->results.end())
            add("/result", "\"" + e.result + "\" does not go with " + e.kind);
        const auto means = farEndMeans();
        if (kind->does == Does::Looks
            && std::find(means.begin(), means.end(), e.means) == means.end())
            add("/means", "must be light, wire, fluid or camera, is \"" + e.means + "\"");
        if (!(e.days >= 0 && e.days <= 36500))
            add("/days", "must be 0 to 36 500");
    }
    void check(const DebrisFind &f)
    {
        stop(f.stop, true);
        const std::array<std::string_view, 2> yesNo { "yes", "no" };
        word("/size", f.size, debrisSizes());
        word("/colour", f.colour, debrisColours());
        word("/hardness", f.hardness, debrisHardnesses());
        word("/magnetic", f.magnetic, yesNo);
    }
    /// One of a few words, or none.
    void word(const std::string &key, const std::string &is, std::span<const std::string_view> of)
    {
        if (is.empty() || std::find(of.begin(), of.end(), is) != of.end())
            return;
        std::string known;
        for (const std::string_view w : of)
            known += (known.empty() ? "" : ", ") + std::string(w);
        add(key, "\"" + is + "\" is not a word for it; known: " + known);
    }
    void check(const Sign &s)
    {
        stop(s.stop);
        if (!findSignKind(s.sign))
            add("/sign", "there is no sign \"" + s.sign + "\"");
    }
    void check(const BearingFailure &f) { stop(f.stop); }
    void check(const Repair &r)
    {
        if (std::none_of(m_build.failures.begin(), m_build.failures.end(),
                         [&](const BearingFailure &f) { return f.id == r.failure; }))
            add("/failure", "there is no failure \"" + r.failure + "\"");
        if (r.done != "cleaned" && r.done != "flushed" && r.done != "replaced")
            add("/done", "must be cleaned, flushed or replaced, is \"" + r.done + "\"");
    }
    void check(const ShopJob &j)
    {
        if (!j.job.empty() && !findMachiningJob(j.job))
            add("/job", "there is no job \"" + j.job + "\"");
        if (j.job.empty() && j.note.empty())
            add("/note", "says what is to be done, and is empty");
    }
    void check(const GaugeReading &r)
    {
        if (!m_build.circuit.taps.contains(r.tap))
            add("/tap", "there is no gauge tap \"" + r.tap + "\"");
        if (!(r.rpm > 0 && r.rpm <= mostGaugeReading_rpm))
            add("/rpm", "must be above 0 and at most 20 000");
        if (!(r.oil_c >= -60 && r.oil_c <= 200))
            add("/oil_temp_c", "must be -60 to 200");
        if (!(r.pressure_kpa >= 0 && r.pressure_kpa <= mostGaugeReading_kpa))
            add("/pressure_kpa", "must be 0 to 5 000");
        if (!(r.u_kpa > 0 && r.u_kpa <= 500))
            add("/u_kpa", "must be above 0 and at most 500");
        if (!r.oil.empty() && !findOil(m_build, r.oil))
            add("/oil", "there is no oil \"" + r.oil + "\" on the shelf");
    }
    void check(const Symptom &s)
    {
        if (!findSymptomKind(s.symptom))
            add("/symptom", "there is no symptom \"" + s.symptom + "\"");
        const auto word = [&](std::span<const NoiseWord> words, const std::string &is,
                              const char *key) {
            if (!is.empty() && std::none_of(words.begin(), words.end(), [&](const NoiseWord &w) {
                    return w.id == is;
                }))
                add(key, "\"" + is + "\" is not a word for it");
        };
        word(noiseSounds(), s.sound, "/sound");
        word(noiseTimes(), s.heard, "/heard");
        amount("/gone_above_rpm", s.gone_above_rpm, 1, mostGaugeReading_rpm);
    }
    void check(const FlowSeen &f)
    {
        stop(f.stop);
        const Stop *s = m_build.engine.find(f.stop);
        const int outlets = s ? static_cast<int>(flowOutlets(m_build, *s).size()) : 0;
        if (s && (f.outlet < 0 || f.outlet > outlets))
            add("/outlet", "must be 0 to " + std::to_string(outlets));
        const auto word
            = [&](std::span<const std::string_view> words, const std::string &is, const char *key) {
                  if (std::find(words.begin(), words.end(), is) == words.end())
                      add(key, "\"" + is + "\" is not a word for it");
              };
        word(flowSights(), f.saw, "/saw");
        word(flowMeans(), f.means, "/means");
        const std::pair<const char *, const std::optional<double> *> amounts[] = {
            { "/pressure_kpa", &f.pressure_kpa },
            { "/caught_l", &f.litres },
            { "/time_s", &f.seconds },
        };
        for (const auto &[key, value] : amounts)
            if (*value && !(**value > 0 && **value <= 10000))
                add(key, "must be above 0 and at most 10 000");
    }
    void check(const Scenario &s)
    {
        if (s.faults.empty() && s.changes.empty())
            add("/faults", "is empty");
        for (size_t i = 0; i < s.changes.size(); ++i) {
            const std::string at = "/changes/" + std::to_string(i);
            const Element *e = m_build.circuit.find(s.changes[i].element);
            if (!e)
                add(at + "/element", "there is no element \"" + s.changes[i].element + "\"");
            else if (!findElementKey(e->type, s.changes[i].key))
                add(at + "/key", "a " + e->type + " has no " + s.changes[i].key);
        }
        for (size_t i = 0; i < s.faults.size(); ++i) {
            const std::string at = "/faults/" + std::to_string(i);
            if (!m_stops.contains(s.faults[i].stop))
                add(at + "/stop", "there is no stop \"" + s.faults[i].stop + "\"");
            if (!(s.faults[i].severity >= 0 && s.faults[i].severity <= 1))
                add(at + "/severity", "must be 0 to 1");
        }
    }

    void check(const SignOff &s)
    {
        if (s.hold.empty())
            add("/hold", "names no hold");
        if (s.by.empty())
            add("/by", "somebody must sign");
        if (s.note.empty())
            add("/note", "must say why it may pass");
    }
    void check(const CardStep &s)
    {
        if (s.step.empty())
            add("/step", "names no step");
        const auto words = cardOutcomes();
        if (std::find(words.begin(), words.end(), s.outcome) == words.end())
            add("/outcome", "must be done, not_so or skipped, is \"" + s.outcome + "\"");
        amount("/pressure_kpa", s.pressure_kpa, 0, mostGaugeReading_kpa);
        amount("/rpm", s.rpm, 0, mostGaugeReading_rpm);
        amount("/oil_temp_c", s.oil_c, -60, 200);
        amount("/time_s", s.seconds, 0, 1e6);
    }
    void check(const RunLog &r)
    {
        const auto words = runKinds();
        if (std::find(words.begin(), words.end(), r.kind) == words.end())
            add("/kind", "must be prime, start or run, is \"" + r.kind + "\"");
        if (!m_build.circuit.taps.contains(r.tap))
            add("/tap", "there is no gauge tap \"" + r.tap + "\"");
        if (r.file.find_first_of("/\\") != std::string::npos)
            add("/file", "must be a plain file name");
        for (size_t i = 1; i < r.trace.size(); ++i)
            if (!(r.trace[i].t_s >= r.trace[i - 1].t_s)) {
                add("/trace/" + std::to_string(i), "time goes back");
                break;
            }
    }
    void check(const Calibration &c)
    {
        if (!isCalibrated(c.input))
            add("/input", "must be oil, gauge, model or a family, is \"" + c.input + "\"");
        amount("/amount", c.amount, -500, 500);
        if (c.input == "oil" || c.input == "model")
            amount("/amount", c.amount, -0.9, 3);
    }
    void check(const FilterCut &c)
    {
        amount("/engine_hours_h", c.engine_h, 0, mostHours_h);
        amount("/filter_hours_h", c.filter_h, 0, mostHours_h);
        amount("/area_cm2", c.area_cm2, 0, 1e5);
        if (c.filter_h == 0)
            add("/filter_hours_h", "must be above 0: a filter that saw no oil says nothing");
        if (c.area_cm2 == 0)
            add("/area_cm2", "must be above 0");
        if (c.filter_h > c.engine_h)
            add("/filter_hours_h", "is more than the engine has run");
        std::set<std::pair<std::string_view, std::string_view>> seen;
        for (size_t i = 0; i < c.counts.size(); ++i) {
            const DebrisCount &d = c.counts[i];
            const std::string at = "/counts/" + std::to_string(i);
            if (!findCutKind(d.kind))
                add(at + "/kind", "there is no kind of particle \"" + d.kind + "\"");
            if (d.where != "pleats" && d.where != "can")
                add(at + "/where", "must be pleats or can, is \"" + d.where + "\"");
            if (!seen.insert({ d.kind, d.where }).second)
                add(at, d.kind + " in the " + d.where + " is counted twice");
            if (d.count < 0 || d.count > 1000000)
                add(at + "/count", "must be 0 to 1 000 000");
            amount((at + "/largest_mm").c_str(), d.largest_mm, 0, 100);
        }
    }
    void check(const OilSample &s)
    {
        if (s.of != "used" && s.of != "new")
            add("/of", "must be used or new, is \"" + s.of + "\"");
        amount("/engine_hours_h", s.engine_h, 0, mostHours_h);
        amount("/oil_hours_h", s.oil_h, 0, mostHours_h);
        amount("/oil_added_kg", s.added_kg, 0, 10000);
        if (s.of == "used" && s.oil_h == 0)
            add("/oil_hours_h", "must be above 0: oil that did not run is new oil");
        if (s.oil_h > s.engine_h)
            add("/oil_hours_h", "is more than the engine has run");
        for (const auto &[symbol, mg_kg] : s.elements)
            amount(("/elements_mg_kg/" + symbol).c_str(), mg_kg, 0, 1e6);
        amount("/water_percent", s.water_percent, 0, 100);
        amount("/fuel_percent", s.fuel_percent, 0, 50);
        amount("/kv40_mm2_s", s.kv40_mm2_s, 1, 5000);
        amount("/kv100_mm2_s", s.kv100_mm2_s, 1, 500);
    }
    void check(const Opening &o)
    {
        amount("/engine_hours_h", o.engine_h, 0, mostHours_h);
        if (o.readings < 0 || o.readings > static_cast<int>(m_build.readings.size()))
            add("/readings",
                "must be 0 to " + std::to_string(m_build.readings.size())
                    + ", the readings there are");
    }
    void check(const SealCheck &c)
    {
        if (c.kind != "blow_by" && c.kind != "vacuum")
            add("/kind", "must be blow_by or vacuum, is \"" + c.kind + "\"");
        phase(c.phase);
        amount("/rpm", c.rpm, 1, mostGaugeReading_rpm);
        amount("/load_percent", c.load_percent, 0, 100);
        amount(c.kind == "vacuum" ? "/vacuum_kpa" : "/flow_l_min", c.value, 0,
               c.kind == "vacuum" ? 101 : 10000);
        amount("/gas_temp_c", c.gas_c, -40, 250);
        amount("/gas_absolute_kpa", c.gas_kpa, 50, 200);
        amount("/pump_rpm", c.pump_rpm, 1, mostGaugeReading_rpm);
        amount("/relief_kpa", c.relief_kpa, 0, 101);
    }
    void check(const BoreTrace &t)
    {
        if (t.bore < 1 || t.bore > m_build.engine.cylinders)
            add("/bore", "must be 1 to " + std::to_string(m_build.engine.cylinders));
        phase(t.phase);
        amount("/spacing_um", t.spacing_um, 1e-3, 1000);
        if (t.z.size() < 100)
            add("/z_um", "has fewer than 100 heights");
    }
    void phase(const std::string &word)
    {
        if (word != "before" && word != "after")
            add("/phase", "must be before or after, is \"" + word + "\"");
    }
    void amount(const char *key, const std::optional<double> &value, double least, double most)
    {
        if (value && !(*value >= least && *value <= most))
            add(key, "must be " + formatPlain(least, 0) + " to " + formatPlain(most, 0));
    }

    const Build &m_build;
    std::vector<Error> &m_errors;
    std::set<std::string_view> m_stops, m_passages, m_plugs;
    std::string m_place;
};

} // namespace

void checkLogs(const Build &build, std::vector<Error> &errors)
{
    LogChecker(build, errors).run();
}

} // namespace mildpath
