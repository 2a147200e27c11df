// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/finishbench.h"

#include "bench/finish/finishpage.h"
#include "bench/finish/sealpage.h"
#include "paint/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace mildpath {

FinishBench::FinishBench(OpenBuild &open, QWidget *parent)
    : Bench(open, Place::BoreFinish, parent)
    , m_title(new QLabel(this))
    , m_subtitle(new QLabel(this))
    , m_stack(new QStackedWidget(this))
    , m_trace(new FinishPage(open, m_stack))
    , m_seal(new SealPage(open, m_stack))
{
    auto *column = new QVBoxLayout(this);
    makePageButtons(makeHead(column, m_title, m_subtitle));
    m_subtitle->setObjectName(QStringLiteral("finish.subtitle"));
    m_stack->addWidget(m_trace);
    m_stack->addWidget(m_seal);
    column->addWidget(m_stack, 1);
    const auto changed = [this] {
        showWords();
        Q_EMIT panelChanged();
    };
    connect(m_trace, &FinishPage::changed, this, changed);
    connect(m_seal, &SealPage::changed, this, changed);
    markPage(m_page);
}

QStringList FinishBench::pages() const
{
    return { tr("Traces"), tr("Ring seal") };
}

void FinishBench::showPage(int page)
{
    m_page = page;
    markPage(page);
    m_stack->setCurrentIndex(page);
    refresh();
    Q_EMIT panelChanged();
}

QString FinishBench::importTrace(const QString &path)
{
    showPage(Trace);
    return m_trace->importTrace(path);
}

void FinishBench::showWords()
{
    m_title->setText(m_page == Trace ? tr("The wall of the bore") : tr("How the rings seal"));
    m_subtitle->setText(m_page == Trace ? m_trace->about() : m_seal->about());
}

void FinishBench::refresh()
{
    setTone(m_subtitle, Theme::current().muted);
    if (m_page == Trace)
        m_trace->refresh();
    else
        m_seal->refresh();
    showWords();
}

PanelContent FinishBench::panel() const
{
    PanelContent out;
    if (m_page == Trace)
        m_trace->panel(out);
    else
        m_seal->panel(out);
    return out;
}

void FinishBench::takeFocus()
{
    if (m_page == Seal)
        m_seal->takeFocus();
}

} // namespace mildpath
