// SPDX-License-Identifier: GPL-3.0-or-later
#include "build/logbook.h"

#include "quantity/overloaded.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

/// An id no entry of the list has. Entries are numbered on, so the first try nearly always is free.
template <class T> std::string freeId(const std::vector<T> &list, std::string_view prefix)
{
    for (size_t n = list.size() + 1;; ++n) {
        const std::string id = std::string(prefix) + std::to_string(n);
        if (std::none_of(list.rbegin(), list.rend(), [&](const T &r) { return r.id == id; }))
            return id;
    }
}

template <class T> bool stands(const std::vector<T> &list, const std::string &id)
{
    const auto all = standing(list);
    return std::any_of(all.begin(), all.end(), [&](const T *r) { return r->id == id; });
}

std::string nameOfStop(const Build &build, const std::string &id)
{
    const Stop *s = build.engine.find(id);
    return s ? s->name : id;
}

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
    void add(const std::string &key, std::string message)
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
    void check(const DebrisFind &f) { stop(f.stop, true); }
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
    }
    void check(const FlowSeen &f)
    {
        stop(f.stop);
        const Stop *s = m_build.engine.find(f.stop);
        const int outlets = s ? static_cast<int>(flowOutlets(m_build, *s).size()) : 0;
        if (s && (f.outlet < 0 || f.outlet > outlets))
            add("/outlet", "must be 0 to " + std::to_string(outlets));
        const auto word = [&](std::span<const std::string_view> words, const std::string &is,
                              const char *key) {
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
        if (s.faults.empty())
            add("/faults", "is empty");
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

std::string_view logOf(const LogEntry &entry)
{
    std::string_view out;
    std::visit(
        [&]<class T>(const T &) {
            forEachLog([&](const auto &log) {
                if constexpr (std::is_same_v<typename std::decay_t<decltype(log)>::Entry, T>)
                    out = log.key;
            });
        },
        entry);
    return out;
}

Result<Build> addEntry(Build build, const AddEntry &edit)
{
    Result<void> ok;
    std::visit(
        [&]<class T>(T entry) {
            forEachLog([&](const auto &log) {
                if constexpr (std::is_same_v<typename std::decay_t<decltype(log)>::Entry, T>) {
                    auto &list = build.*log.list;
                    if (!entry.replaces.empty() && !stands(list, entry.replaces)) {
                        ok = fail("replaces", "there is no entry \"" + entry.replaces
                                      + "\" that stands");
                        return;
                    }
                    entry.id = freeId(list, log.prefix);
                    list.push_back(std::move(entry));
                }
            });
        },
        edit.entry);
    if (!ok)
        return tl::unexpected(ok.error());
    return build;
}

Result<Build> takeBackEntry(Build build, const TakeBackEntry &e)
{
    Result<void> ok = fail("log", "there is no list \"" + e.log + "\"");
    forEachLog([&](const auto &log) {
        if (log.key != e.log)
            return;
        auto &list = build.*log.list;
        if (!stands(list, e.id)) {
            ok = fail("id", "there is no entry \"" + e.id + "\" that stands");
            return;
        }
        auto entry = *std::find_if(list.begin(), list.end(),
                                   [&](const auto &r) { return r.id == e.id; });
        entry.replaces = e.id;
        entry.id = freeId(list, log.prefix);
        entry.takenBack = true;
        entry.by = e.by;
        entry.at = e.at;
        list.push_back(std::move(entry));
        ok = {};
    });
    if (!ok)
        return tl::unexpected(ok.error());
    return build;
}

std::string targetName(const Build &build, const CleanEvent &e)
{
    if (e.scope == "passage") {
        const Passage *p = findPassage(build.passages, e.target);
        return p ? p->name : e.target;
    }
    if (e.scope == "plug") {
        const Plug *p = findPlug(build.plugs, e.target);
        return p ? p->name : e.target;
    }
    if (e.scope == "job") {
        const MachiningJob *j = findMachiningJob(e.target);
        return j ? std::string(j->name) : e.target;
    }
    return e.scope == "part" ? std::string(partName(e.target)) : "the whole engine";
}

std::string describeEntry(const Build &build, const LogEntry &entry)
{
    return std::visit(
        Overloaded {
            [&](const CleanEvent &e) {
                const EventKind *k = findEventKind(e.kind);
                const std::string on = targetName(build, e);
                if (e.scope == "job")
                    return on;
                return on + ": " + (k ? std::string(k->name) : e.kind)
                    + (e.result.empty() ? "" : ", " + e.result);
            },
            [&](const DebrisFind &f) {
                return "found in " + (f.stop.empty() ? f.place : nameOfStop(build, f.stop)) + ": "
                    + f.colour + " " + f.size;
            },
            [&](const Sign &s) {
                const SignKind *k = findSignKind(s.sign);
                return nameOfStop(build, s.stop) + ": "
                    + (k ? std::string(k->text) : s.sign) + (s.there ? "" : ", not there");
            },
            [&](const BearingFailure &f) { return nameOfStop(build, f.stop) + " failed"; },
            [&](const Repair &r) { return nameOfStop(build, r.item) + " " + r.done; },
            [&](const ShopJob &j) {
                const MachiningJob *k = findMachiningJob(j.job);
                return "for the machine shop: " + (k ? std::string(k->name) : j.note);
            },
            [&](const GaugeReading &r) {
                return tapName(build, r.tap) + ", " + formatPlain(r.rpm, 0) + " rev/min: "
                    + formatPlain(r.pressure_kpa / 100, 2) + " bar";
            },
            [&](const Symptom &s) {
                const SymptomKind *k = findSymptomKind(s.symptom);
                return (k ? std::string(k->text) : s.symptom) + (s.there ? "" : ", not there");
            },
            [&](const FlowSeen &f) { return nameOfStop(build, f.stop) + ": oil " + f.saw; },
            [&](const Scenario &s) { return "what if: " + s.name; },
            [&](const SignOff &s) { return "signed: " + s.said; },
            [&](const CardStep &s) {
                std::string step = s.step;
                std::replace(step.begin(), step.end(), '_', ' ');
                return "run card, " + step
                    + (s.outcome == "done"         ? ""
                           : s.outcome == "not_so" ? ": not so"
                                                   : ": skipped");
            },
            [&](const RunLog &r) {
                return "recorded " + r.kind + ", " + formatPlain(r.seconds, 0) + " s";
            },
            [&](const Calibration &c) { return "forecast calibrated: " + c.input; },
        },
        entry);
}

void checkLogs(const Build &build, std::vector<Error> &errors)
{
    LogChecker(build, errors).run();
}

bool isCalibrated(std::string_view input)
{
    return input == "oil" || input == "gauge" || input == "model" || findFamily(input);
}

std::string tapName(const Build &build, const std::string &tap)
{
    std::string out = tap;
    std::replace(out.begin(), out.end(), '_', ' ');
    if (!out.empty())
        out[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[0])));
    return tap == build.gaugeTap ? out + " (gauge)" : out;
}

std::vector<std::string> flowOutlets(const Build &build, const Stop &stop)
{
    std::vector<std::string> out;
    if (stop.points.size() > 1)
        for (const StopPoint &p : stop.points)
            out.push_back(p.name);
    if (!out.empty())
        return out;
    // Jets and rockers have no points of their own; each hole or gap to the crankcase is one.
    if (stop.kind == "jet" || stop.kind == "rocker")
        for (const std::string &id : stop.elements)
            if (const Element *e = build.circuit.find(id); e && e->to == sumpNode)
                for (int i = 0; i < static_cast<int>(e->value("count", 1)); ++i)
                    out.push_back((stop.kind == "jet" ? "Jet " : "Rocker ")
                                  + std::to_string(out.size() + 1));
    if (out.empty())
        out.push_back(stop.name);
    return out;
}

std::map<std::string, std::string> stopKindsOf(const Build &build)
{
    std::map<std::string, std::string> out;
    for (const Stop &s : build.engine.stops)
        out[s.id] = s.kind;
    return out;
}

} // namespace mildpath
