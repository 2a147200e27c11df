// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/startbench.h"

#include "bench/start/afterpage.h"
#include "bench/start/checkspage.h"
#include "bench/start/rehearsalpage.h"
#include "bench/start/startpage.h"
#include "quantity/rounding.h"
#include "storage/runfile.h"

#include <QFile>

namespace mildpath {

StartBench::StartBench(OpenBuild &open, SerialSender *sender, QWidget *parent)
    : PagedBench(open, Place::Start, QStringLiteral("start"), parent)
    , m_start(addPage(new StartPage(open, sender, this)))
{
    addPage(new RehearsalPage(open, this));
    addPage(new AfterPage(open, this));
    Page *checks = addPage(new ChecksPage(open, this));
    connect(m_start, &StartPage::checksAsked, this, [this, checks] { showPage(checks); });
}

std::vector<Import> StartBench::imports()
{
    return { { QStringLiteral("run"),
               tr("Import a &log of a run…"),
               tr("Tables (*.csv *.tsv *.txt *.prn)"),
               {},
               [this](const QString &path) -> Import::Taken {
                   showPage(m_start);
                   const QString why = m_start->showImport(path);
                   return { why.isEmpty(), why };
               } } };
}

/// A log that was not finished: the program ended while it was recorded.
void StartBench::offerLeftOvers()
{
    const auto found
        = findUnfinishedRuns((m_open.stateFolder() + QStringLiteral("/runs")).toStdString());
    if (found.empty())
        return;
    const UnfinishedRun run = found.front();
    const Answer take { tr("Take it"), [this, run] {
                           if (const auto ok = m_start->takeUnfinished(run); !ok)
                               Q_EMIT complained(qs(ok.error().message));
                       } };
    const Answer giveUp { tr("Give it up"),
                          [path = qs(run.path.string())] { QFile::remove(path); } };
    Q_EMIT asked(tr("A log was not finished: %1 over %2 s. Take it into this build?")
                     .arg(counted(run.run.points.size(), tr("reading"), tr("readings")),
                          qs(formatNumber(run.run.points.back().t_s, 0))),
                 { take, giveUp });
}

} // namespace mildpath
