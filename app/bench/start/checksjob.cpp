// SPDX-License-Identifier: GPL-3.0-or-later
// What the job is and who works on it, in the panel beside the list of checks.
#include "bench/start/checkspage.h"

#include "document/logbook.h"
#include "paint/text.h"
#include "shell/wordof.h"

#include <algorithm>

namespace mildpath {

void ChecksPage::jobPanel(PanelContent &out)
{
    const Job *job = currentJob(m_open.build());
    if (!m_job.begun) {
        m_job.begun = true;
        if (job) {
            m_job.kinds = job->kinds;
            m_job.by = job->by;
            m_job.number = job->number;
            m_job.jobNumber = job->jobNumber;
            m_job.customer = job->customer;
            m_job.shop = job->shop;
            m_job.alone = job->alone;
            for (const std::string &s : job->scope)
                m_job.scope += (m_job.scope.empty() ? "" : ", ") + s;
        } else {
            m_job.by = m_open.pickedWorker();
        }
    }
    out.push_back(PanelHeading { tr("What is the job?") });
    for (const JobKind &k : jobKinds()) {
        const std::string letter(1, k.letter);
        const auto at = std::find(m_job.kinds.begin(), m_job.kinds.end(), letter);
        const bool on = at != m_job.kinds.end();
        out.push_back(PanelTick { QStringLiteral("job.") + qs(letter), Mark::NotDone,
                                  qs(capitalised(k.name)), tr("taken apart: %1").arg(qs(k.apart)),
                                  on, [this, letter](bool now) {
                                      std::erase(m_job.kinds, letter);
                                      if (now)
                                          m_job.kinds.push_back(letter);
                                      Q_EMIT changed();
                                  } });
    }
    out.push_back(wordOf(m_job, "job.scope", tr("Touches"), &TypedJob::scope));
    out.push_back(wordOf(m_job, "job.number", tr("Engine number"), &TypedJob::number));
    out.push_back(wordOf(m_job, "job.jobNumber", tr("Job number"), &TypedJob::jobNumber));
    out.push_back(wordOf(m_job, "job.customer", tr("Customer"), &TypedJob::customer));
    out.push_back(wordOf(m_job, "job.shop", tr("Workshop"), &TypedJob::shop));
    out.push_back(wordOf(m_job, "job.by", tr("Says"), &TypedJob::by));
    out.push_back(PanelTick { QStringLiteral("job.alone"), Mark::NotDone, tr("Works alone"),
                              tr("one signature then does for two, and is printed so"), m_job.alone,
                              [this](bool on) {
                                  m_job.alone = on;
                                  Q_EMIT changed();
                              } });
    out.push_back(PanelButton { QStringLiteral("job.record"), tr("That is the job"),
                                [this] { recordJob(); } });
    peoplePanel(out);
}

void ChecksPage::peoplePanel(PanelContent &out)
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Who works on it") });
    for (const Person *p : standing(m_open.build().people))
        out.push_back(PanelText {
            qs(p->name) + (p->role.empty() ? QString() : QStringLiteral(", ") + qs(p->role)),
            Tone::Plain });
    out.push_back(wordOf(m_job, "person.name", tr("Name"), &TypedJob::person));
    out.push_back(wordOf(m_job, "person.role", tr("Does"), &TypedJob::role));
    out.push_back(PanelField { QStringLiteral("person.hours"), tr("Hours a day on it"),
                               Dimension::Number, "", 1, m_job.hours_d,
                               [this](double hours) -> Result<void> {
                                   m_job.hours_d = hours;
                                   return {};
                               },
                               qs(recordType<Person>().find("hours_a_day_h")->about()) });
    out.push_back(PanelButton { QStringLiteral("person.add"), tr("Add"), [this] {
                                   Person p;
                                   p.name = m_job.person;
                                   p.role = m_job.role;
                                   p.hours_d = m_job.hours_d;
                                   m_job.person.clear();
                                   m_job.role.clear();
                                   const auto done = m_open.record(p);
                                   say(done ? Result<void> {} : tl::unexpected(done.error()));
                               } });
}

void ChecksPage::recordJob()
{
    Job job;
    job.kinds = m_job.kinds;
    job.number = m_job.number;
    job.jobNumber = m_job.jobNumber;
    job.customer = m_job.customer;
    job.shop = m_job.shop;
    job.alone = m_job.alone;
    job.by = m_job.by;
    for (const QString &part : qs(m_job.scope).split(u',', Qt::SkipEmptyParts)) {
        const std::string wanted = part.trimmed().toStdString();
        std::string id = wanted;
        for (const Stop &s : m_open.build().engine.stops)
            if (s.name == wanted)
                id = s.id;
        job.scope.push_back(id);
    }
    if (const Job *now = currentJob(m_open.build()))
        job.replaces = now->id;
    if (qs(job.by).trimmed().isEmpty()) {
        Q_EMIT complained(tr("Say who says so: the job needs a name"));
        return;
    }
    const bool known = [&] {
        for (const Person *p : standing(m_open.build().people))
            if (p->name == job.by)
                return true;
        return false;
    }();
    std::vector<Edit> edits;
    job.at = OpenBuild::now();
    edits.emplace_back(AddEntry { job });
    if (!known) {
        Person p;
        p.name = job.by;
        p.by = job.by;
        p.at = job.at;
        edits.emplace_back(AddEntry { p });
    }
    m_job.begun = false;
    m_job.scope.clear();
    say(m_open.editAll(tr("the job"), std::move(edits)));
}

} // namespace mildpath
