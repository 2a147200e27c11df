// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/finishbench.h"

#include "bench/finish/finishpage.h"
#include "bench/finish/sealpage.h"

namespace mildpath {

FinishBench::FinishBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::BoreFinish, QStringLiteral("finish"), parent)
    , m_trace(addPage(new FinishPage(open, this)))
{
    addPage(new SealPage(open, this));
}

std::vector<Import> FinishBench::imports()
{
    return { { QStringLiteral("trace"),
               tr("Import a bore &trace…"),
               tr("Tables (*.csv *.tsv *.txt *.prn)"),
               {},
               [this](const QString &path) -> Import::Taken {
                   showPage(m_trace);
                   const QString why = m_trace->importTrace(path);
                   return { why.isEmpty(), why };
               } } };
}

} // namespace mildpath
