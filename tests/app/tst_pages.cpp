// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/openbuild.h"
#include "paint/figure.h"
#include "paint/theme.h"
#include "plot/chartview.h"
#include "testing.h"
#include "window/window.h"

#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <QUndoStack>

// What holds for every page of every bench, whatever it shows: on each demo, in each way of showing
// numbers, in a small and a large window.

using namespace mildpath;

namespace tst_pages {

/// A page by the place of its bench and its number there.
struct PageOf
{
    Place place;
    int page;
    QString name;
};

std::vector<ChartView *> visibleCharts(const QWidget &bench)
{
    std::vector<ChartView *> out;
    for (ChartView *view : bench.findChildren<ChartView *>())
        if (view->isVisible())
            out.push_back(view);
    return out;
}

/// All that is written on a chart but the numbers of its axes.
QString chartWords(const Chart &chart)
{
    QStringList out { chart.title, QStringLiteral("1 ") + chart.x.title(),
                      QStringLiteral("1 ") + chart.y.title() };
    for (const ChartLine &l : chart.lines)
        out << l.name;
    for (const ChartDot &d : chart.dots)
        out << d.name;
    for (const ChartZone &z : chart.zones)
        out << z.name;
    for (const ChartMark &m : chart.marks)
        out << m.text;
    return out.join(u'\n');
}

class TestPages : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void cleanupTestCase();
    void everyPage_saysWholeThingsTwiceAlike_data() { pagesAndDemos(); }
    void everyPage_saysWholeThingsTwiceAlike();
    void everyPage_fitsTheSmallestWindow_data() { pagesAndDemos(); }
    void everyPage_fitsTheSmallestWindow();
    void everyPage_keepsItsWordsApartAndFollowsTheUnits_data() { pagesAndDemos(); }
    void everyPage_keepsItsWordsApartAndFollowsTheUnits();
    void everyPage_followsUndo_data() { pages(); }
    void everyPage_followsUndo();
    void everyPage_isReachedByItsButton_data() { pages(); }
    void everyPage_isReachedByItsButton();
    void everyPage_survivesAnotherBuild_data() { pages(); }
    void everyPage_survivesAnotherBuild();
    void everyPage_worksOnABareBuild_data();
    void everyPage_worksOnABareBuild();
    void everyButton_hasWords_data() { pages(); }
    void everyButton_hasWords();
    void ids_areUniqueAndStay();
    void imports_haveIdsAndWords();
    void unknownPage_changesNothing();

private:
    MainWindow &windowOf(const QString &demo)
    {
        auto &window = m_windows[demo];
        if (!window) {
            window = std::make_unique<MainWindow>(QString());
            window->resize(1280, 800);
            const auto folder = demoBuildPath().parent_path();
            window->openCopy(
                QString::fromStdString((folder / (demo.toStdString() + ".mildpath")).string()));
            window->show();
            QApplication::processEvents();
        }
        return *window;
    }
    static QStringList demos()
    {
        return { QStringLiteral("harbour-fire-pump"),
                 QStringLiteral("harbour-fire-pump-history"),
                 QStringLiteral("harbour-fire-pump-started"),
                 QStringLiteral("harbour-launch-turbo"),
                 QStringLiteral("harbour-standby"),
                 QStringLiteral("harbour-tender-alloy") };
    }
    const QList<PageOf> &allPages()
    {
        if (m_pages.isEmpty())
            for (const Bench *bench : windowOf(demos().front()).benches()) {
                const QStringList names = bench->pages();
                for (int i = 0; i < std::max<int>(1, static_cast<int>(names.size())); ++i)
                    m_pages << PageOf { bench->place(), i,
                                        bench->title() + QStringLiteral(", ")
                                            + names.value(i, QStringLiteral("alone")) };
            }
        return m_pages;
    }
    void pages()
    {
        QTest::addColumn<int>("page");
        for (int i = 0; i < allPages().size(); ++i)
            QTest::newRow(qPrintable(allPages()[i].name)) << i;
    }
    void pagesAndDemos()
    {
        QTest::addColumn<int>("page");
        QTest::addColumn<QString>("demo");
        for (int i = 0; i < allPages().size(); ++i)
            for (const QString &demo : { demos()[i % 2], demos()[2 + i % 4] })
                QTest::addRow("%s: %s", qPrintable(allPages()[i].name), qPrintable(demo))
                    << i << demo;
    }
    Bench &show(MainWindow &window, int page)
    {
        const PageOf &p = allPages()[page];
        window.showBench(p.place);
        Bench &bench = *window.currentBench();
        bench.showPage(p.page);
        QApplication::processEvents();
        return bench;
    }
    /// What stands in units of its own in any system: formulas and their sources, oil for people
    /// who pour it, instruments by what is engraved on them.
    static QStringList allowedWords()
    {
        return { QStringLiteral(
                     "[^\\n]*(?:Source|common practice|JCGM|DIN|ISO|SAE|Own choice)[^\\n]*"),
                 QStringLiteral("The fill is [^\\n]*"),
                 // Somebody's own words in a demo's job for the shop stay as they were written.
                 QStringLiteral("only if out of line by more than 0\\.03 mm") };
    }
    /// Every word of a panel: texts, details, labels, values.
    static QString panelWords(const PanelContent &content)
    {
        QStringList out;
        for (const PanelItem &i : content)
            std::visit(
                [&]<class T>(const T &item) {
                    if constexpr (requires { item.label; })
                        out << item.label;
                    if constexpr (requires { item.text; })
                        out << item.text;
                    if constexpr (requires { item.detail; })
                        out << item.detail;
                    if constexpr (requires { item.value.text(); })
                        out << item.value.text();
                    if constexpr (requires { item.before.text(); })
                        out << item.before.text() << item.after.text();
                },
                i);
        return plainly(out.join(u'\n'));
    }
    /// Words on the bench itself.
    static QStringList labelsOf(const QWidget &bench)
    {
        QStringList out;
        for (const QLabel *label : bench.findChildren<QLabel *>())
            if (label->isVisible() && !label->text().isEmpty())
                out << label->text();
        return out;
    }

    std::map<QString, std::unique_ptr<MainWindow>> m_windows;
    QList<PageOf> m_pages;
};

void TestPages::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
    freshSettings();
    Figure::setSystem(UnitSystem::Metric);
}

void TestPages::cleanupTestCase()
{
    m_windows.clear();
}

/// Shown once, for showing takes the time.
void TestPages::everyPage_saysWholeThingsTwiceAlike()
{
    QFETCH(int, page);
    QFETCH(QString, demo);
    Bench &bench = show(windowOf(demo), page);
    QVERIFY(!labelsOf(bench).isEmpty());
    const QString words = panelWords(bench.panel());
    QVERIFY2(words.size() > 3, qPrintable(words));
    const auto *title = bench.findChild<QLabel *>();
    QVERIFY(title && !title->text().isEmpty());
    const QString all = words + u'\n' + labelsOf(bench).join(u'\n');
    // What a number or a text looks like that was never filled in.
    static const QRegularExpression halves(
        QStringLiteral("\\bnan\\b|\\binf\\b|%[0-9]|-0\\.0*\\b(?![0-9])|\\d{7,}\\.\\d|\\(\\)|  ,|"
                       "undefined|\\bnull\\b"));
    const auto found = halves.match(all);
    QVERIFY2(!found.hasMatch(),
             qPrintable(all.mid(std::max<qsizetype>(0, found.capturedStart() - 40), 120)));
    bench.refresh();
    const QString once = panelWords(bench.panel());
    bench.refresh();
    QCOMPARE(panelWords(bench.panel()), once);
}

void TestPages::everyPage_fitsTheSmallestWindow()
{
    QFETCH(int, page);
    QFETCH(QString, demo);
    MainWindow &window = windowOf(demo);
    window.resize(1100, 700);
    Bench &bench = show(window, page);
    // Buttons of the head row stand side by side, each with room for its words.
    QList<QRect> taken;
    for (const QPushButton *button :
         bench.findChildren<QPushButton *>(QRegularExpression(QStringLiteral("^page[0-9]+$")))) {
        const QRect r = button->geometry();
        for (const QRect &other : taken)
            QVERIFY2(!r.intersects(other), qPrintable(button->text()));
        taken << r;
        QVERIFY2(button->fontMetrics().horizontalAdvance(button->text()) <= r.width(),
                 qPrintable(button->text()));
    }
    window.resize(1280, 800);
}

/// Words on a chart cover neither each other nor what its page marked on it; in one system nothing
/// speaks the other: panel, labels, and what pictures say of themselves. Shown once, for what is
/// worked out behind takes the time.
void TestPages::everyPage_keepsItsWordsApartAndFollowsTheUnits()
{
    QFETCH(int, page);
    QFETCH(QString, demo);
    MainWindow &window = windowOf(demo);
    show(window, page);
    QTRY_VERIFY_WITH_TIMEOUT(!window.openBuild().answers().isBusy(), 60000);
    for (const QSize size : { QSize(1280, 800), QSize(1100, 700) }) {
        window.resize(size);
        QApplication::processEvents();
        for (ChartView *view : visibleCharts(*window.currentBench())) {
            view->grab();
            std::vector<QRectF> kept = view->blocked();
            for (const QRectF &word : view->words()) {
                for (const QRectF &other : kept) {
                    const QRectF both = other.intersected(word);
                    QVERIFY2(both.width() * both.height() < 12, qPrintable(view->objectName()));
                }
                kept.push_back(word);
            }
        }
    }
    window.resize(1280, 800);
    QApplication::processEvents();
    const auto words = [&] { return panelWords(window.currentBench()->panel()); };
    QTRY_VERIFY_WITH_TIMEOUT(!window.openBuild().answers().isBusy(), 60000);
    const QString before = words();
    for (const UnitSystem system : { UnitSystem::Imperial, UnitSystem::Metric }) {
        window.setUnits(system);
        QApplication::processEvents();
        Bench &bench = *window.currentBench();
        QStringList all { panelWords(bench.panel()), labelsOf(bench).join(u'\n') };
        for (const ChartView *chart : visibleCharts(bench))
            all << chartWords(chart->chart());
        for (const QWidget *w : bench.findChildren<QWidget *>())
            if (w->isVisible())
                all << w->accessibleName() << w->accessibleDescription() << w->toolTip();
        const QString foreign = foreignUnit(all.join(u'\n'), system, allowedWords());
        QVERIFY2(foreign.isEmpty(), qPrintable(foreign));
    }
    QCOMPARE(words(), before);
}

void TestPages::everyPage_followsUndo()
{
    QFETCH(int, page);
    MainWindow &window = windowOf(demos()[0]);
    Bench &bench = show(window, page);
    OpenBuild &open = window.openBuild();
    QTRY_VERIFY_WITH_TIMEOUT(!open.answers().isBusy(), 60000);
    const QString before = panelWords(bench.panel());
    QVERIFY(open.edit(SetUse { "hot_oil_c", 121 }));
    QVERIFY(open.edit(SetUse { "hot_idle_rpm", 910 }));
    QApplication::processEvents();
    static_cast<void>(bench.panel());
    open.undoStack().undo();
    open.undoStack().undo();
    QApplication::processEvents();
    bench.refresh();
    QTRY_VERIFY_WITH_TIMEOUT(!open.answers().isBusy(), 60000);
    QCOMPARE(panelWords(bench.panel()), before);
}

void TestPages::everyPage_isReachedByItsButton()
{
    QFETCH(int, page);
    MainWindow &window = windowOf(demos()[0]);
    const PageOf &p = allPages()[page];
    window.showBench(p.place);
    Bench &bench = *window.currentBench();
    if (bench.pages().isEmpty())
        return;
    bench.showPage((p.page + 1) % static_cast<int>(bench.pages().size()));
    auto *button = bench.findChild<QPushButton *>(QStringLiteral("page%1").arg(p.page));
    QVERIFY(button && button->isVisible());
    QTest::mouseClick(button, Qt::LeftButton);
    QApplication::processEvents();
    QVERIFY(button->isChecked());
    int checked = 0;
    for (const QPushButton *other :
         bench.findChildren<QPushButton *>(QRegularExpression(QStringLiteral("^page[0-9]+$"))))
        checked += other->isChecked();
    QCOMPARE(checked, 1);
    // The keyboard can go on from there.
    bench.takeFocus();
    QVERIFY(!bench.focusWidget() || bench.isAncestorOf(bench.focusWidget()));
}

void TestPages::everyPage_survivesAnotherBuild()
{
    QFETCH(int, page);
    MainWindow window { QString() };
    window.resize(1280, 800);
    const auto path = [](const QString &demo) {
        return QString::fromStdString(
            (demoBuildPath().parent_path() / (demo.toStdString() + ".mildpath")).string());
    };
    QVERIFY(window.openCopy(path(demos()[1])));
    window.show();
    show(window, page);
    // Another engine altogether, with what is chosen still that of the old one.
    QVERIFY(window.openCopy(path(demos()[3])));
    QApplication::processEvents();
    const QString after = panelWords(window.currentBench()->panel());
    Bench &fresh = show(windowOf(demos()[3]), page);
    fresh.refresh();
    QVERIFY(!after.isEmpty());
    // Nothing of the old engine is left standing in the panel.
    for (const char *gone : { "Main 5", "Lifter 8", "Big-end 4" })
        if (!panelWords(fresh.panel()).contains(QLatin1String(gone)))
            QVERIFY2(!after.contains(QLatin1String(gone)), gone);
}

void TestPages::everyPage_worksOnABareBuild_data()
{
    QTest::addColumn<int>("page");
    QTest::addColumn<QString>("name");
    for (int i = 0; i < allPages().size(); ++i)
        for (const char *name : { i % 2 ? "v8-dry-sump" : "single-air-cooled" })
            QTest::addRow("%s: %s", qPrintable(allPages()[i].name), name)
                << i << QString::fromLatin1(name);
}

void TestPages::everyPage_worksOnABareBuild()
{
    QFETCH(int, page);
    QFETCH(QString, name);
    auto &window = m_windows[name];
    if (!window) {
        window = std::make_unique<MainWindow>(QString());
        window->resize(1280, 800);
        QVERIFY(window->openTemplate(name));
        window->show();
    }
    Bench &bench = show(*window, page);
    QVERIFY(panelWords(bench.panel()).size() > 3);
    // Every stop chosen in turn is spoken of without a fault.
    const Build build = window->openBuild().build();
    for (size_t i = 0; i < build.engine.stops.size(); i += 5) {
        window->openBuild().selectStop(qs(build.engine.stops[i].id));
        QApplication::processEvents();
        QVERIFY(!panelWords(bench.panel()).contains(QStringLiteral("nan")));
    }
}

void TestPages::everyButton_hasWords()
{
    QFETCH(int, page);
    Bench &bench = show(windowOf(demos()[1]), page);
    for (const QPushButton *button : bench.findChildren<QPushButton *>()) {
        if (!button->isVisible())
            continue;
        QVERIFY2(!button->text().isEmpty() || !button->accessibleName().isEmpty(),
                 qPrintable(button->objectName()));
        QVERIFY2(button->focusPolicy() != Qt::NoFocus, qPrintable(button->text()));
    }
}

void TestPages::ids_areUniqueAndStay()
{
    std::set<std::pair<Place, QString>> seen;
    for (const Bench *bench : windowOf(demos()[0]).benches())
        for (const Page *page : bench->findChildren<const Page *>())
            for (const PageTab &tab : page->tabs()) {
                const QString id = QString::fromLatin1(tab.id);
                QVERIFY2(seen.insert({ bench->place(), id }).second, tab.id);
                static const QRegularExpression plain(QStringLiteral("^[a-z_]+$"));
                QVERIFY2(plain.match(id).hasMatch(), tab.id);
                QVERIFY(!tab.name.isEmpty());
            }
    QVERIFY(seen.size() >= 30);
}

void TestPages::imports_haveIdsAndWords()
{
    QStringList ids;
    for (Bench *bench : windowOf(demos()[0]).benches())
        for (const Import &import : bench->imports()) {
            QVERIFY(!ids.contains(import.id));
            ids << import.id;
            QVERIFY(import.text.endsWith(u'…') && !import.filter.isEmpty() && import.take);
        }
    QCOMPARE(ids,
             (QStringList { QStringLiteral("trace"), QStringLiteral("drive"), QStringLiteral("run"),
                            QStringLiteral("evidence") }));
    QVERIFY(!windowOf(demos()[0]).importFile(QStringLiteral("gossip"), QStringLiteral("/x.csv")));
}

void TestPages::unknownPage_changesNothing()
{
    MainWindow &window = windowOf(demos()[0]);
    window.showPage(Place::Clearances, QStringLiteral("torque"));
    auto *button = window.currentBench()->findChild<QPushButton *>(QStringLiteral("page1"));
    QVERIFY(button->isChecked());
    window.showPage(Place::Clearances, QStringLiteral("no_such_page"));
    QVERIFY(button->isChecked());
    QCOMPARE(window.currentBench()->place(), Place::Clearances);
}

} // namespace tst_pages

MILDPATH_TEST(tst_pages, TestPages)
#include "tst_pages.moc"
