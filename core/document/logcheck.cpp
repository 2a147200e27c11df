// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/logbook.h"

#include "circuit/elementtypes.h"
#include "quantity/dates.h"
#include "quantity/rounding.h"
#include "rules/rules.h"

#include <algorithm>
#include <map>
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
                checkRanges(recordType<std::remove_cvref_t<decltype(list[i])>>(), &list[i], m_place,
                            m_errors);
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
    }
    void check(const DebrisFind &f) { stop(f.stop, true); }
    void check(const Sign &s) { stop(s.stop); }
    void check(const BearingFailure &f) { stop(f.stop); }
    void check(const Repair &r)
    {
        if (std::none_of(m_build.failures.begin(), m_build.failures.end(),
                         [&](const BearingFailure &f) { return f.id == r.failure; }))
            add("/failure", "there is no failure \"" + r.failure + "\"");
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
        if (!r.oil.empty() && !findOil(m_build, r.oil))
            add("/oil", "there is no oil \"" + r.oil + "\" on the shelf");
    }
    void check(const FlowSeen &f)
    {
        stop(f.stop);
        const Stop *s = m_build.engine.find(f.stop);
        const int outlets = s ? static_cast<int>(flowOutlets(m_build, *s).size()) : 0;
        if (s && (f.outlet < 0 || f.outlet > outlets))
            add("/outlet", "must be 0 to " + std::to_string(outlets));
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
            else if (!findElementKey(e->kind, s.changes[i].key))
                add(at + "/key",
                    "a " + std::string(elementType(e->kind).meaning) + " has no "
                        + s.changes[i].key);
        }
        for (size_t i = 0; i < s.faults.size(); ++i) {
            const std::string at = "/faults/" + std::to_string(i);
            if (!m_stops.contains(s.faults[i].stop))
                add(at + "/stop", "there is no stop \"" + s.faults[i].stop + "\"");
        }
    }

    void check(const SignOff &s)
    {
        if (s.hold.empty() && s.check.empty())
            add("/check", "names no check");
        if (s.by.empty())
            add("/by", "somebody must sign");
        if (s.note.empty())
            add("/note", "must say why it may pass");
    }
    void check(const CardStep &s)
    {
        if (s.step.empty())
            add("/step", "names no step");
    }
    void check(const RunLog &r)
    {
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
            add("/input",
                "must be readings, oil, gauge, model or a family, is \"" + c.input + "\"");
        if (c.input == "oil" || c.input == "model")
            amount("/amount", c.amount, -0.9, 3);
    }
    void check(const Job &j)
    {
        if (j.kinds.empty())
            add("/kinds", "names no job");
        for (size_t i = 0; i < j.kinds.size(); ++i)
            if (!findJobKind(j.kinds[i]))
                add("/kinds/" + std::to_string(i),
                    "must be one of N F R S B D O, is \"" + j.kinds[i] + "\"");
        if (j.alone && blank(j.by))
            add("/by", "who works alone says so by name");
    }
    void check(const Person &p)
    {
        if (blank(p.name))
            add("/name", "is empty");
    }
    void check(const CheckEntry &e)
    {
        if (e.kind.empty())
            add("/kind", "names no kind of check");
        if (e.u && !e.value)
            add("/u", "goes with a value, and there is none");
    }
    void check(const Act &a)
    {
        const bool ran = a.act == "ran" && (a.ran_h || a.ran_km || a.trackDays || a.passes);
        if (a.places.empty() && a.instrument.empty() && !ran)
            add("/places", "names nothing it was done to");
        if (const ActKind *k = findActKind(a.act); k && k->letter == 'i' && a.instrument.empty())
            add("/instrument", "says which instrument, and is empty");
    }
    void check(const Order &o)
    {
        if (blank(o.row))
            add("/row", "names nothing");
        day("/promised", o.promised);
    }
    void check(const TimeTaken &t)
    {
        if (t.checks.empty())
            add("/checks", "names no check");
    }
    void check(const Instrument &i)
    {
        if (blank(i.name))
            add("/name", "is empty");
        day("/checked", i.checked);
    }
    void check(const OwnCheck &c)
    {
        if (blank(c.text))
            add("/text", "says nothing");
        if (std::ranges::find(c.after, "sheet") != c.after.end())
            add("/after", "nothing comes after the hand-over");
        if (!stands(m_build.ownChecks, c.id))
            return;
        if (const std::string circle = circleFrom(c); !circle.empty())
            add("/after", "would wait for itself: " + circle);
    }
    /// The way an own check comes back to itself by what comes before it: "A, after B, after A".
    /// Kinds of check never come after one's own, so own checks alone can close a circle.
    std::string circleFrom(const OwnCheck &start) const
    {
        const auto &all = m_build.ownChecks;
        const OwnCheck *self = &firstEntry(all, start);
        std::map<std::string, std::string> way { { self->id, start.text } };
        std::vector<const OwnCheck *> open { &start };
        while (!open.empty()) {
            const OwnCheck *c = open.back();
            open.pop_back();
            const std::string so = way.at(firstEntry(all, *c).id);
            for (const std::string &id : c->after) {
                if (id == self->id)
                    return so + ", after " + start.text;
                for (const OwnCheck *other : standing(all))
                    if (firstEntry(all, *other).id == id
                        && way.emplace(id, so + ", after " + other->text).second)
                        open.push_back(other);
            }
        }
        return {};
    }
    void check(const NextLook &l)
    {
        if (blank(l.item))
            add("/item", "is empty");
    }
    void day(const char *key, const std::string &day)
    {
        if (!day.empty() && !isDay(day))
            add(key, "must be a day as 2026-03-21, is \"" + day + "\"");
    }
    static bool blank(const std::string &s)
    {
        return s.find_first_not_of(" \t") == std::string::npos;
    }
    void check(const FilterCut &c)
    {
        if (c.filter_h == 0)
            add("/filter_hours_h", "must be above 0: a filter that saw no oil says nothing");
        if (c.filter_h > c.engine_h)
            add("/filter_hours_h", "is more than the engine has run");
        std::set<std::pair<std::string_view, std::string_view>> seen;
        for (size_t i = 0; i < c.counts.size(); ++i) {
            const DebrisCount &d = c.counts[i];
            const std::string at = "/counts/" + std::to_string(i);
            if (!seen.insert({ d.kind, d.where }).second)
                add(at, d.kind + " in the " + d.where + " is counted twice");
        }
    }
    void check(const OilSample &s)
    {
        if (s.of == "used" && s.oil_h == 0)
            add("/oil_hours_h", "must be above 0: oil that did not run is new oil");
        if (s.oil_h > s.engine_h)
            add("/oil_hours_h", "is more than the engine has run");
    }
    void check(const Opening &o)
    {
        if (o.readings < 0 || o.readings > static_cast<int>(m_build.readings.size()))
            add("/readings",
                "must be 0 to " + std::to_string(m_build.readings.size())
                    + ", the readings there are");
    }
    void check(const BoreTrace &t)
    {
        if (t.bore < 1 || t.bore > m_build.engine.cylinders)
            add("/bore", "must be 1 to " + std::to_string(m_build.engine.cylinders));
        if (t.z.size() < 100)
            add("/z_um", "has fewer than 100 heights");
    }
    /// Where the description's ranges and words say all.
    template <class Plain> void check(const Plain &) { }
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
