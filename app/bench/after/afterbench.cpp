// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/afterbench.h"

#include "bench/after/filterpage.h"
#include "bench/after/heardpage.h"
#include "bench/after/lookspage.h"
#include "bench/after/oilpage.h"
#include "bench/after/recheckpage.h"
#include "bench/after/shelfpage.h"
#include "storage/evidencetables.h"
#include "storage/files.h"

namespace mildpath {

AfterBench::AfterBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::After, QStringLiteral("afterRun"), parent)
    , m_filter(addPage(new FilterPage(open, this)))
    , m_oil(addPage(new OilPage(open, this)))
{
    addPage(new RecheckPage(open, this));
    addPage(new HeardPage(open, this));
    addPage(new LooksPage(open, this));
    m_shelf = addPage(new ShelfPage(open, this));
}

std::vector<Import> AfterBench::imports()
{
    return { { QStringLiteral("evidence"), tr("Import filter &cuts or oil samples…"),
               tr("Tables (*.csv *.tsv *.txt)"),
               [](const std::string &text) { return isCutTable(text) || isSampleTable(text); },
               [this](const QString &path) -> Import::Taken {
                   const auto text = readTextFile(path.toStdString());
                   if (!text)
                       return { false, qs(text.error().message) };
                   const bool cuts = isCutTable(*text);
                   showPage(cuts ? static_cast<Page *>(m_filter) : m_oil);
                   const QString why
                       = cuts ? m_filter->importTable(*text) : m_oil->importTable(*text);
                   return { why.isEmpty(), why.isEmpty() ? tr("It was taken.") : why };
               } } };
}

} // namespace mildpath
