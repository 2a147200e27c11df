// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/assessment.h"
#include "checks/checks.h"
#include "checks/signing.h"
#include "document/edit.h"
#include "document/logbook.h"
#include "testing.h"

#include <memory>
#include <string>
#include <vector>

namespace mildpath::fixture {

inline Build withJob(Build build, const std::string &kinds, bool alone = false,
                     std::vector<std::string> scope = {})
{
    Job j;
    j.id = "q1";
    j.by = "A";
    j.at = "2026-01-01T08:00:00";
    for (const char letter : kinds)
        j.kinds.emplace_back(1, letter);
    j.alone = alone;
    j.scope = std::move(scope);
    build.jobs.push_back(j);
    return build;
}

inline Build newBuild(const std::string &kinds, bool alone = false,
                      const std::string &name = "inline-four-wet-sump",
                      std::vector<std::string> scope = {})
{
    return withJob(loadTemplate(name)->build, kinds, alone, std::move(scope));
}

/// A build and the people who work on it: every entry is a minute after the one before.
class By
{
public:
    explicit By(Build build)
        : m_build(std::move(build))
    {
    }

    By &as(const std::string &who)
    {
        m_who = who;
        return *this;
    }
    By &person(const std::string &name)
    {
        Person p;
        p.name = name;
        return add(p);
    }
    By &clean(const std::string &kind, const std::string &scope, const std::string &target,
              const std::string &result = {}, const std::string &means = {})
    {
        return add(event(kind, scope, target, result, means));
    }
    By &stored(const std::string &part, double days, bool covered)
    {
        CleanEvent e = event("storage", "part", part, {}, {});
        e.days = days;
        e.covered = covered;
        return add(e);
    }
    By &act(const std::string &what, std::vector<std::string> places, bool stopped = false)
    {
        Act a;
        a.act = what;
        a.places = std::move(places);
        a.stopped = stopped;
        return add(a);
    }
    By &says(const std::string &kind, std::vector<std::string> places = {},
             const std::string &says = "yes", const std::string &means = {})
    {
        CheckEntry e;
        e.kind = kind;
        e.places = std::move(places);
        e.says = says;
        e.means = means;
        e.seenBy = m_who == "B" ? "A" : "B";
        return add(e);
    }
    By &figure(const std::string &kind, const std::string &place, double value, double u)
    {
        CheckEntry e;
        e.kind = kind;
        e.places = { place };
        e.value = value;
        e.u = u;
        e.means = "gauge";
        return add(e);
    }
    By &flow(const std::string &stop, int outlet, const std::string &saw)
    {
        FlowSeen f;
        f.stop = stop;
        f.outlet = outlet;
        f.saw = saw;
        f.means = "drill";
        return add(f);
    }
    By &failure(const std::string &stop)
    {
        BearingFailure f;
        f.stop = stop;
        return add(f);
    }
    By &repair(const std::string &item, const std::string &done)
    {
        Repair r;
        r.failure = m_build.failures.back().id;
        r.item = item;
        r.done = done;
        return add(r);
    }
    By &stopValue(const std::string &stop, const std::string &key, double value)
    {
        return take(applyEdit(m_build, SetStopValue { stop, key, value }));
    }
    template <class Change> By &change(Change change)
    {
        change(m_build);
        m_figures.reset();
        m_list.reset();
        return *this;
    }

    /// Why a plug's entry is refused; empty: it is not.
    QString refused(const std::string &kind, const std::string &plug) const
    {
        CleanEvent e = event(kind, "plug", plug, {}, {});
        const auto out = applyEdit(m_build, AddEntry { e });
        return out ? QString() : QString::fromStdString(said(out.error().message));
    }
    /// Signs; why it is refused, else empty.
    QString sign(const std::string &check, const std::string &why)
    {
        auto out = signCheck(m_build, list(), check, m_who, why);
        if (!out)
            return QString::fromStdString(said(out.error().message));
        add(*out);
        return {};
    }

    const Build &build() const { return m_build; }
    const CheckList &list() const
    {
        if (!m_figures)
            m_figures = std::make_unique<Figures>(m_build);
        if (!m_list) {
            m_list = std::make_unique<CheckList>(checksOf(m_build, *m_figures, {}));
        }
        return *m_list;
    }
    QString state(const std::string &id) const
    {
        const Check *c = list().find(id);
        if (!c)
            return QStringLiteral("no such check");
        return c->asked ? QString::fromUtf8(wordOf(c->state).data()) : QStringLiteral("not asked");
    }
    QString reason(const std::string &id) const
    {
        const Check *c = list().find(id);
        return c ? plainly(QString::fromStdString(said(c->reason))) : QString();
    }
    bool open(CheckGate gate) const { return list().gate(gate).open; }
    int asked() const
    {
        int n = 0;
        for (const Check &c : list().all())
            n += c.asked;
        return n;
    }
    /// What keeps a gate shut first; empty: nothing.
    QString firstOpen(CheckGate gate) const
    {
        for (const Check &c : list().all())
            if (CheckList::shuts(c) && c.kind->gate() <= gate)
                return QString::fromStdString(c.id());
        return {};
    }

private:
    std::string now() const
    {
        char text[32];
        std::snprintf(text, sizeof text, "2026-09-%02dT%02d:%02d:00", 2 + m_minute / 1440,
                      m_minute / 60 % 24, m_minute % 60);
        return text;
    }
    CleanEvent event(const std::string &kind, const std::string &scope, const std::string &target,
                     const std::string &result, const std::string &means) const
    {
        CleanEvent e;
        e.kind = kind;
        e.scope = scope;
        e.target = target;
        e.result = result;
        e.means = means;
        e.by = m_who;
        e.at = now();
        return e;
    }
    template <class Entry> By &add(Entry entry)
    {
        ++m_minute;
        entry.by = m_who;
        entry.at = now();
        // No number follows from what is said, signed, or who is there.
        constexpr bool keeps
            = std::is_same_v<
                  Entry,
                  CheckEntry> || std::is_same_v<Entry, SignOff> || std::is_same_v<Entry, Person> || std::is_same_v<Entry, FlowSeen>;
        return take(applyEdit(m_build, AddEntry { std::move(entry) }), keeps);
    }
    By &take(Result<Build> out, bool keepsFigures = false)
    {
        if (!keepsFigures)
            m_figures.reset();
        if (!out)
            qFatal("%s %s", out.error().place.c_str(), said(out.error().message).c_str());
        m_build = std::move(*out);
        m_list.reset();
        return *this;
    }

    Build m_build;
    std::string m_who = "A";
    int m_minute = 0;
    mutable std::unique_ptr<Figures> m_figures;
    mutable std::unique_ptr<CheckList> m_list;
};

/// Brushes a gallery white with its plugs out, looks through, and puts them back seen.
inline void brushAllOf(By &by, const std::string &passage)
{
    std::vector<std::string> plugs;
    for (const Plug &p : by.build().plugs)
        if (p.passage == passage)
            plugs.push_back(p.id);
    by.as("A");
    for (const std::string &p : plugs)
        by.clean("plug_out", "plug", p);
    for (const auto all = by.build().passages; const Passage &p : all)
        if (p.stop == passage || p.id == passage) {
            by.clean("brush", "passage", p.id, "white");
            by.clean("flush", "passage", p.id, "clear");
            by.clean("look", "passage", p.id, "through", "fluid");
        }
    for (const std::string &p : plugs)
        by.clean("plug_in", "plug", p);
    by.as("B");
    for (const std::string &p : plugs)
        by.clean("plug_seen", "plug", p);
}

/// Answers every asked check by entries alone, and signs for what is only unsure.
/// @return rounds it took; 0: it never came to an end
inline int settleEverything(By &by)
{
    const Job *job = currentJob(by.build());
    for (const char *who : { "A", "B", "C" })
        by.as(who).person(who);
    for (int round = 1; round <= 8; ++round) {
        std::set<std::string_view> kinds;
        for (const Check &c : by.list().all())
            if (c.asked && c.isOpen())
                kinds.insert(c.kind->id);
        if (kinds.empty())
            return round;
        for (const CheckKind &k : checkKinds())
            if (kinds.contains(k.id))
                by.as("A").says(std::string(k.id), {}, "yes", "camera");
        std::vector<std::string> open;
        for (const Check &c : by.list().all())
            if (c.asked && c.isOpen() && (round > 1 || c.kind->isComputed())
                && c.evident != Evident::None)
                open.push_back(c.id());
        for (const std::string &id : open)
            for (const char *who : { "B", "C" })
                if (!(job && job->alone) || who[0] == 'B')
                    by.as(who).sign(id, "known, and watched in the first hour");
    }
    return 0;
}

/// How a check stands on a build; one without a job is a new build.
inline std::string stateOf(const Build &build, const std::string &check)
{
    return By(build.jobs.empty() ? withJob(build, "N") : build).state(check).toStdString();
}
/// What is to be done about it.
inline std::string nextOf(const Build &build, const std::string &check)
{
    const By by(build.jobs.empty() ? withJob(build, "N") : build);
    const Check *c = by.list().find(check);
    return c ? said(c->next) : std::string();
}

} // namespace mildpath::fixture
