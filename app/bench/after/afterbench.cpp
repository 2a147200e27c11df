// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/afterbench.h"

#include "bench/after/filterpage.h"
#include "bench/after/heardpage.h"
#include "bench/after/oilpage.h"
#include "bench/after/recheckpage.h"
#include "bench/after/shelfpage.h"
#include "paint/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace mildpath {

AfterBench::AfterBench(OpenBuild &open, QWidget *parent)
    : Bench(open, Place::After, parent)
    , m_title(new QLabel(this))
    , m_subtitle(new QLabel(this))
    , m_stack(new QStackedWidget(this))
    , m_filter(new FilterPage(open, m_stack))
    , m_oil(new OilPage(open, m_stack))
    , m_recheck(new RecheckPage(open, m_stack))
    , m_heard(new HeardPage(open, m_stack))
    , m_shelf(new ShelfPage(open, m_stack))
{
    auto *column = new QVBoxLayout(this);
    makePageButtons(makeHead(column, m_title, m_subtitle));
    m_subtitle->setObjectName(QStringLiteral("afterRun.subtitle"));
    for (QWidget *page : { static_cast<QWidget *>(m_filter), static_cast<QWidget *>(m_oil),
                           static_cast<QWidget *>(m_recheck), static_cast<QWidget *>(m_heard),
                           static_cast<QWidget *>(m_shelf) })
        m_stack->addWidget(page);
    column->addWidget(m_stack, 1);
    const auto changed = [this] {
        showWords();
        Q_EMIT panelChanged();
    };
    connect(m_filter, &FilterPage::changed, this, changed);
    connect(m_oil, &OilPage::changed, this, changed);
    connect(m_recheck, &RecheckPage::changed, this, changed);
    connect(m_heard, &HeardPage::changed, this, changed);
    connect(m_shelf, &ShelfPage::changed, this, changed);
    connect(m_heard, &HeardPage::benchAsked, this, &AfterBench::benchAsked);
    connect(m_shelf, &ShelfPage::openAsked, this, &AfterBench::openAsked);
    markPage(m_page);
}

QStringList AfterBench::pages() const
{
    return { tr("Filter"), tr("Oil"), tr("Re-check"), tr("Heard"), tr("Shelf") };
}

void AfterBench::showPage(int page)
{
    m_page = page;
    markPage(page);
    m_stack->setCurrentIndex(page);
    refresh();
    Q_EMIT panelChanged();
}

void AfterBench::showWords()
{
    const QString titles[] = { tr("Filter cuts"), tr("Used oil"), tr("Opened again"), tr("Heard"),
                               tr("Shelf of builds") };
    const QString words[] = { m_filter->about(), m_oil->about(), m_recheck->about(),
                              m_heard->about(), m_shelf->about() };
    m_title->setText(titles[m_page]);
    m_subtitle->setText(words[m_page]);
}

void AfterBench::refresh()
{
    setTone(m_subtitle, Theme::current().muted);
    switch (m_page) {
    case Filter:
        m_filter->refresh();
        break;
    case Oil:
        m_oil->refresh();
        break;
    case Recheck:
        m_recheck->refresh();
        break;
    case Heard:
        m_heard->refresh();
        break;
    default:
        m_shelf->refresh();
    }
    showWords();
}

PanelContent AfterBench::panel() const
{
    PanelContent out;
    switch (m_page) {
    case Filter:
        m_filter->panel(out);
        break;
    case Oil:
        m_oil->panel(out);
        break;
    case Recheck:
        m_recheck->panel(out);
        break;
    case Heard:
        m_heard->panel(out);
        break;
    default:
        m_shelf->panel(out);
    }
    return out;
}

void AfterBench::takeFocus()
{
    if (m_page == Filter)
        m_filter->takeFocus();
    else if (m_page == Oil)
        m_oil->takeFocus();
    else if (m_page == Heard)
        m_heard->takeFocus();
    else if (m_page == Shelf)
        m_shelf->takeFocus();
}

} // namespace mildpath
