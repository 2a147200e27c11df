// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/bench.h"

#include "paint/elidedlabel.h"
#include "paint/text.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>

namespace mildpath {

QHBoxLayout *Bench::makeHead(QVBoxLayout *column, QLabel *title, QLabel *subtitle)
{
    column->setContentsMargins(12, 8, 12, 10);
    column->setSpacing(6);
    auto *head = new QHBoxLayout;
    head->setSpacing(4);
    title->setFont(textFont(TextSize::Title, true));
    title->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Preferred);
    head->addWidget(title);
    head->addSpacing(8);
    subtitle->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    head->addWidget(subtitle, 1);
    column->addLayout(head);
    return head;
}

PagedBench::PagedBench(OpenBuild &open, Place place, const QString &name, QWidget *parent)
    : Bench(open, place, parent)
    , m_column(new QVBoxLayout(this))
    , m_title(new QLabel(this))
    , m_about(new ElidedLabel(this))
    , m_stack(new QStackedWidget(this))
{
    m_about->setObjectName(name + QStringLiteral(".subtitle"));
    m_head = makeHead(m_column, m_title, m_about);
    m_column->addWidget(m_stack, 1);
}

void PagedBench::add(Page *page)
{
    m_stack->addWidget(page);
    if (QWidget *extra = page->headWidget())
        m_head->addWidget(extra);
    int tab = 0;
    for (const PageTab &t : page->tabs()) {
        const int index = static_cast<int>(m_tabs.size());
        auto *button = new QPushButton(QString(t.name).replace(u'&', QStringLiteral("&&")), this);
        button->setObjectName(QStringLiteral("page%1").arg(index));
        button->setCheckable(true);
        button->setChecked(index == 0);
        connect(button, &QPushButton::clicked, this, [this, index] { showPage(index); });
        m_head->addWidget(button);
        m_tabs.push_back({ page, tab++, QString::fromLatin1(t.id), t.name, button });
    }
    connect(page, &Page::changed, this, [this, page] {
        if (page != currentPage())
            return;
        showWords();
        Q_EMIT panelChanged();
    });
    connect(page, &Page::aboutChanged, this, [this, page] {
        if (page == currentPage())
            showWords();
    });
    connect(page, &Page::tabAsked, this, [this, page](int other) { showPage(page, other); });
    connect(page, &Page::pageAsked, this, [this](const QString &id) { showPage(id); });
    connect(page, &Page::benchAsked, this, &Bench::benchAsked);
    connect(page, &Page::openAsked, this, &Bench::openAsked);
    connect(page, &Page::complained, this, &Bench::complained);
}

QStringList PagedBench::pages() const
{
    QStringList out;
    for (const Tab &t : m_tabs)
        out << t.name;
    return out;
}

void PagedBench::showPage(int page)
{
    Page *left = currentPage();
    m_page = page;
    if (left != currentPage())
        left->leave();
    for (size_t i = 0; i < m_tabs.size(); ++i)
        m_tabs[i].button->setChecked(static_cast<int>(i) == page);
    const Tab &t = m_tabs[static_cast<size_t>(page)];
    m_stack->setCurrentWidget(t.page);
    t.page->showTab(t.tab);
    refresh();
    Q_EMIT panelChanged();
}

void PagedBench::showPage(const Page *page, int tab)
{
    for (size_t i = 0; i < m_tabs.size(); ++i)
        if (m_tabs[i].page == page && m_tabs[i].tab == tab)
            showPage(static_cast<int>(i));
}

void PagedBench::showPage(const QString &id)
{
    for (size_t i = 0; i < m_tabs.size(); ++i)
        if (m_tabs[i].id == id)
            showPage(static_cast<int>(i));
}

void PagedBench::showWords()
{
    m_title->setText(currentPage()->title());
    m_about->setText(currentPage()->about());
    setTone(m_about, toneColour(currentPage()->aboutTone()));
}

void PagedBench::refresh()
{
    currentPage()->refresh();
    showWords();
}

PanelContent PagedBench::panel() const
{
    return currentPage()->panel();
}

void PagedBench::reset()
{
    for (const Tab &t : m_tabs)
        if (t.tab == 0)
            t.page->reset();
}

void PagedBench::takeFocus()
{
    currentPage()->takeFocus();
}

} // namespace mildpath
