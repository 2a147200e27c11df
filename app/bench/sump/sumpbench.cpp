// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/sumpbench.h"

#include "bench/sump/panpage.h"
#include "bench/sump/sectionpage.h"
#include "bench/sump/senderpage.h"
#include "bench/sump/turnspage.h"
#include "storage/drivetable.h"

namespace mildpath {

SumpBench::SumpBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Sump, QStringLiteral("sump"), parent)
    , m_section(addPage(new SectionPage(open, this)))
    , m_turns(addPage(new TurnsPage(open, this)))
{
    addPage(new PanPage(open, this));
    addPage(new SenderPage(open, this));
    connect(m_turns, &TurnsPage::caseChosen, this, [this](const QString &id) {
        m_section->showCase(id);
        showPage(m_section);
    });
}

std::vector<Import> SumpBench::imports()
{
    return { { QStringLiteral("drive"), tr("Replay a &drive…"), tr("Tables (*.csv)"), isDriveTable,
               [this](const QString &path) -> Import::Taken {
                   showPage(m_turns);
                   const QString why = m_turns->replay(path);
                   return { why.isEmpty(), why };
               } } };
}

} // namespace mildpath
