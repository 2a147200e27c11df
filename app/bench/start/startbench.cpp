// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/startbench.h"

#include "bench/start/afterpage.h"
#include "bench/start/rehearsalpage.h"
#include "bench/start/startpage.h"
#include "paint/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace mildpath {

StartBench::StartBench(OpenBuild &open, SerialSender *sender, QWidget *parent)
    : Bench(open, Place::Start, parent)
    , m_title(new QLabel(this))
    , m_subtitle(new QLabel(this))
    , m_stack(new QStackedWidget(this))
    , m_start(new StartPage(open, sender, m_stack))
    , m_rehearsal(new RehearsalPage(open, m_stack))
    , m_after(new AfterPage(open, m_stack))
{
    auto *column = new QVBoxLayout(this);
    makePageButtons(makeHead(column, m_title, m_subtitle));
    m_subtitle->setObjectName(QStringLiteral("start.subtitle"));
    m_stack->addWidget(m_start);
    m_stack->addWidget(m_rehearsal);
    m_stack->addWidget(m_after);
    column->addWidget(m_stack, 1);
    const auto changed = [this] {
        showWords();
        Q_EMIT panelChanged();
    };
    connect(m_start, &StartPage::changed, this, changed);
    connect(m_rehearsal, &RehearsalPage::changed, this, changed);
    connect(m_after, &AfterPage::changed, this, changed);
    connect(m_start, &StartPage::complained, this, &StartBench::complained);
    connect(m_start, &StartPage::benchAsked, this, &StartBench::benchAsked);
    connect(&m_start->log(), &LiveLog::changed, this, &StartBench::showWords);
    markPage(m_page);
}

QStringList StartBench::pages() const
{
    return { tr("Live"), tr("Rehearse"), tr("Afterwards") };
}

void StartBench::showPage(int page)
{
    m_page = page;
    markPage(page);
    m_stack->setCurrentIndex(page);
    refresh();
    Q_EMIT panelChanged();
}

void StartBench::showWords()
{
    const QString titles[]
        = { tr("Prime, then start"), tr("Rehearsal"), tr("What the start showed") };
    const QString words[] = { m_start->listening(), m_rehearsal->about(), m_after->about() };
    m_title->setText(titles[m_page]);
    m_subtitle->setText(words[m_page]);
}

void StartBench::refresh()
{
    setTone(m_subtitle, Theme::current().muted);
    if (m_page == Start)
        m_start->refresh();
    else if (m_page == Rehearse)
        m_rehearsal->refresh();
    else
        m_after->refresh();
    showWords();
}

PanelContent StartBench::panel() const
{
    PanelContent out;
    if (m_page == Start)
        m_start->panel(out);
    else if (m_page == Rehearse)
        m_rehearsal->panel(out);
    else
        m_after->panel(out);
    return out;
}

void StartBench::takeFocus()
{
    if (m_page == Start)
        m_start->takeFocus();
}

} // namespace mildpath
