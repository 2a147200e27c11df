// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/background.h"
#include "shell/bench.h"
#include "testing.h"

#include <QLabel>
#include <QPushButton>
#include <QSignalSpy>

// A bench of two made-up pages: who is asked what, and when.

using namespace mildpath;

namespace tst_pagedbench {

/// Keeps what it was asked for.
class NotingPage : public Page
{
    Q_OBJECT
public:
    NotingPage(OpenBuild &open, std::vector<PageTab> tabs, QWidget *parent)
        : Page(open, parent)
        , m_tabs(std::move(tabs))
    {
    }
    std::vector<PageTab> tabs() const override { return m_tabs; }
    void showTab(int tab) override { asked << QStringLiteral("tab %1").arg(tab); }
    QString title() const override { return QStringLiteral("Title of ") + m_tabs.front().name; }
    QString about() const override { return said; }
    void refresh() override { asked << QStringLiteral("refresh"); }
    PanelContent panel() override { return { PanelHeading { m_tabs.front().name } }; }
    void reset() override { asked << QStringLiteral("reset"); }
    void leave() override { asked << QStringLiteral("leave"); }
    void takeFocus() override { asked << QStringLiteral("focus"); }

    QStringList asked;
    QString said = QStringLiteral("a word");

private:
    std::vector<PageTab> m_tabs;
};

class NotingBench : public PagedBench
{
    Q_OBJECT
public:
    explicit NotingBench(OpenBuild &open)
        : PagedBench(open, Place::Route, QStringLiteral("noting"), nullptr)
        , first(addPage(new NotingPage(
              open, { { "one", QStringLiteral("One") }, { "two", QStringLiteral("Two") } }, this)))
        , second(addPage(new NotingPage(open, { { "three", QStringLiteral("Three") } }, this)))
    {
    }
    NotingPage *first, *second;
};

class TestPagedBench : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void init()
    {
        m_open = std::make_unique<OpenBuild>(QString(), nullptr);
        m_bench = std::make_unique<NotingBench>(*m_open);
        m_bench->first->asked.clear();
        m_bench->second->asked.clear();
    }
    void buttons_showTheirTabs();
    void leaving_isToldToThePageLeftOnly();
    void anotherBuild_resetsEveryPageOnce();
    void changes_areHeardFromThePageShown();
    void words_followThePage();
    void background_answersTheNewestQuestionOnly();

private:
    static QStringList asked(const QString &all) { return all.split(u',', Qt::SkipEmptyParts); }
    std::unique_ptr<OpenBuild> m_open;
    std::unique_ptr<NotingBench> m_bench;
};

void TestPagedBench::buttons_showTheirTabs()
{
    QCOMPARE(m_bench->pages(), asked(QStringLiteral("One,Two,Three")));
    m_bench->findChild<QPushButton *>(QStringLiteral("page1"))->click();
    QCOMPARE(m_bench->first->asked, asked(QStringLiteral("tab 1,refresh")));
    QVERIFY(m_bench->second->asked.isEmpty());
    m_bench->showPage(QStringLiteral("three"));
    QCOMPARE(m_bench->currentPage(), static_cast<Page *>(m_bench->second));
    QVERIFY(m_bench->findChild<QPushButton *>(QStringLiteral("page2"))->isChecked());
    QVERIFY(!m_bench->findChild<QPushButton *>(QStringLiteral("page1"))->isChecked());
    Q_EMIT m_bench->first->tabAsked(0);
    QCOMPARE(m_bench->currentPage(), static_cast<Page *>(m_bench->first));
}

void TestPagedBench::leaving_isToldToThePageLeftOnly()
{
    m_bench->showPage(1); // the same page's other tab: it is not left
    QVERIFY(!m_bench->first->asked.contains(QStringLiteral("leave")));
    m_bench->showPage(2);
    QVERIFY(m_bench->first->asked.contains(QStringLiteral("leave")));
    QVERIFY(!m_bench->second->asked.contains(QStringLiteral("leave")));
    m_bench->takeFocus();
    QVERIFY(m_bench->second->asked.contains(QStringLiteral("focus")));
}

void TestPagedBench::anotherBuild_resetsEveryPageOnce()
{
    QVERIFY(m_open->open(demoBuild(), {}));
    QCOMPARE(m_bench->first->asked.count(QStringLiteral("reset")), 1);
    QCOMPARE(m_bench->second->asked.count(QStringLiteral("reset")), 1);
}

void TestPagedBench::changes_areHeardFromThePageShown()
{
    QSignalSpy panel(m_bench.get(), &Bench::panelChanged);
    Q_EMIT m_bench->second->changed();
    QCOMPARE(panel.size(), 0); // not shown: nobody sees its panel
    Q_EMIT m_bench->first->changed();
    QCOMPARE(panel.size(), 1);
    Q_EMIT m_bench->first->aboutChanged();
    QCOMPARE(panel.size(), 1);
    // What a page wants of the window goes through, shown or not.
    QSignalSpy said(m_bench.get(), &Bench::complained);
    Q_EMIT m_bench->second->complained(QStringLiteral("an alarm"));
    QCOMPARE(said.size(), 1);
}

void TestPagedBench::words_followThePage()
{
    auto *about = m_bench->findChild<QLabel *>(QStringLiteral("noting.subtitle"));
    m_bench->refresh();
    QCOMPARE(about->text(), QStringLiteral("a word"));
    m_bench->first->said = QStringLiteral("another");
    Q_EMIT m_bench->first->aboutChanged();
    QCOMPARE(about->text(), QStringLiteral("another"));
    const PanelContent content = m_bench->panel();
    QCOMPARE(std::get<PanelHeading>(content.front()).text, QStringLiteral("One"));
}

void TestPagedBench::background_answersTheNewestQuestionOnly()
{
    Background background;
    QList<int> answers;
    for (int i = 1; i <= 5; ++i)
        background.ask(
            [i](Progress &p) {
                for (int k = 0; k < 200 && !p.cancel; ++k)
                    QThread::msleep(1);
                return i;
            },
            [&](int answer) { answers << answer; });
    QVERIFY(background.progress());
    QTRY_COMPARE(answers, QList<int> { 5 });
    QVERIFY(!background.progress());
    background.ask([](Progress &) { return 6; }, [&](int answer) { answers << answer; });
    background.giveUp();
    QTest::qWait(50); // nothing is to come
    QCOMPARE(answers, QList<int> { 5 });
}

} // namespace tst_pagedbench

MILDPATH_TEST(tst_pagedbench, TestPagedBench)
#include "tst_pagedbench.moc"
