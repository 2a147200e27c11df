// SPDX-License-Identifier: GPL-3.0-or-later
// The real window, driven by keys and clicks: type, undo, save, reopen, refuse, recover.
#include "bench/clearances/clearancebench.h"
#include "bench/clearances/readingspage.h"
#include "bench/route/routemap.h"
#include "checks/assessment.h"
#include "entry/readingentry.h"
#include "plot/chartview.h"
#include "start/gate.h"
#include "testing.h"
#include "window/screenshots.h"
#include "window/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QPushButton>
#include <QSlider>
#include <QStandardPaths>
#include <QTemporaryDir>

#include <memory>

using namespace mildpath;

namespace tst_window {

class TestWindow : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void init();
    void cleanup();
    void typedReading_reachesEveryBench();
    void refusedReading_saysWhyAndKeepsTheOld();
    void typedText_survivesARefresh();
    void everythingUndoes();
    void enter_walksThePlanAndTheEngine();
    void savedBuild_reopensTheSame();
    void badFile_leavesTheOpenBuild_data();
    void badFile_leavesTheOpenBuild();
    void crash_offersTheRest();
    void sliders_moveTheMap();
    void oilChoice_isAnEdit();
    void fittedSpring_canBeChangedInPlace();
    void proof_marksTheStop();
    void name_isChangedInPlace();
    void selection_isOneEverywhere();
    void stripCell_opensItsBench();
    void imperial_isReadAndShown();
    void benches_switchByKeys();
    void everyBench_rendersInBothThemes();

private:
    Bench *bench(const char *title)
    {
        m_window->showBench(placeOf(title).value());
        return m_window->currentBench();
    }
    ReadingEntry &entry(const char *stop)
    {
        m_window->openBuild().selectStop(QString::fromLatin1(stop));
        auto &e = static_cast<ClearanceBench *>(bench("clearances"))->readings().entry();
        QApplication::processEvents();
        return e;
    }
    void type(QuantityField *field, const QString &text)
    {
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
    }
    QString shownIn(const char *cell)
    {
        return m_window->findChild<ReadoutCell *>(QString::fromLatin1(cell))
            ->readout()
            .value.number;
    }
    QString panelText()
    {
        QStringList lines;
        for (const QWidget *w : m_window->sidePanel().widget()->findChildren<QWidget *>(
                 QString(), Qt::FindDirectChildrenOnly))
            lines << w->accessibleName();
        return lines.join(QLatin1Char('\n'));
    }
    double hotIdle() { return m_window->openBuild().assessment().operating.hotIdle.gauge.value_pa; }

    std::unique_ptr<MainWindow> m_window;
    std::unique_ptr<QTemporaryDir> m_folder;
};

void TestWindow::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
    applyTheme(*qApp, ThemeChoice::Light);
}

void TestWindow::init()
{
    Figure::setSystem(UnitSystem::Metric);
    m_folder = std::make_unique<QTemporaryDir>();
    m_window = std::make_unique<MainWindow>(m_folder->filePath(QStringLiteral("state")));
    QVERIFY(m_window->openFile(qs(demoBuildPath().string())));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
}

void TestWindow::cleanup()
{
    m_window.reset();
}

void TestWindow::typedReading_reachesEveryBench()
{
    const double before = hotIdle();
    const QString stripBefore = shownIn("hotIdleGauge");
    for (const char *main : { "main_1", "main_2", "main_3", "main_4", "main_5" }) {
        type(entry(main).cell(0), QStringLiteral("0.11 mm"));
        type(entry(main).cell(3), QStringLiteral("4.33 thou"));
    }
    QVERIFY(hotIdle() < before - 0.3e5);
    const QString figure = Figure::pressure(hotIdle()).number;
    QVERIFY(figure != stripBefore);
    QCOMPARE(shownIn("hotIdleGauge"), figure);
    QVERIFY(panelText().contains(figure)); // Clearances
    bench("forecast");
    QVERIFY2(panelText().contains(QStringLiteral("Hot idle ") + figure), qPrintable(panelText()));
    bench("route");
    m_window->openBuild().selectStop(QStringLiteral("main_gallery"));
    verifyClose(
        assessAt(m_window->openBuild().build(), m_window->openBuild().assessment().sizes, 800, 100)
            ->gauge.value_pa,
        hotIdle(), 1e-6);
    QCOMPARE(
        m_window->findChild<ReadoutCell *>(QStringLiteral("hotIdleGauge"))->readout().was.isEmpty(),
        false);
}

void TestWindow::refusedReading_saysWhyAndKeepsTheOld()
{
    ReadingEntry &e = entry("main_2");
    const auto standing = [&] {
        return *readingAt(m_window->openBuild().build(), gaugePlace("main_2", 1, 90))->value_um;
    };
    const double old = standing();
    const int edits = m_window->openBuild().undoStack().count();
    auto *message = e.findChild<QLabel *>(QStringLiteral("entryMessage"));
    for (const auto &[text, why] :
         { std::pair("abc", "not a number"), std::pair("-5", "above zero"),
           std::pair("9 mm", "cannot be") }) {
        type(e.cell(0), QString::fromLatin1(text));
        QVERIFY2(message->text().contains(QString::fromLatin1(why)), qPrintable(message->text()));
        QCOMPARE(standing(), old);
        QVERIFY(e.cell(0)->hasFocus());
    }
    QCOMPARE(m_window->openBuild().undoStack().count(), edits);
    // Unlikely but possible: kept and marked.
    type(e.cell(0), QStringLiteral("200"));
    QCOMPARE(standing(), 200.0);
    e.cell(0)->setFocus();
    QVERIFY(m_window->openBuild().assessment().size("main_2")->readings.size() == 6);
    const auto &readings = m_window->openBuild().assessment().size("main_2")->readings;
    QVERIFY(std::any_of(readings.begin(), readings.end(),
                        [](const JudgedReading &r) { return r.unlikely; }));
}

void TestWindow::typedText_survivesARefresh()
{
    QuantityField *cell = entry("main_2").cell(1);
    cell->setFocus();
    cell->selectAll();
    QTest::keyClicks(cell, QStringLiteral("2.1 th"));
    QVERIFY(m_window->openBuild().edit(SetUse { "hot_oil_c", 97 })); // from elsewhere
    QCOMPARE(cell->text(), QStringLiteral("2.1 th"));
    QTest::keyClicks(cell, QStringLiteral("ou"));
    QTest::keyClick(cell, Qt::Key_Return);
    verifyClose(*readingAt(m_window->openBuild().build(), gaugePlace("main_2", 1, 60))->value_um,
                53.34, 1e-9);
}

void TestWindow::everythingUndoes()
{
    const Build before = m_window->openBuild().build();
    const double pressure = hotIdle();
    type(entry("main_1").cell(0), QStringLiteral("2.3 thou"));
    type(entry("big_end_4").cell(0), QStringLiteral("58"));
    verifyClose(*readingAt(m_window->openBuild().build(), gaugePlace("main_1", 1, 90))->value_um,
                58.42, 1e-9);
    auto *undo = m_window->findChild<QAction *>(QStringLiteral("undo"));
    QVERIFY(undo->text().contains(QStringLiteral("Big-end 4")));
    undo->trigger();
    undo->trigger();
    QVERIFY(m_window->openBuild().build() == before);
    QCOMPARE(hotIdle(), pressure);
    QVERIFY(!m_window->openBuild().isModified());
    m_window->findChild<QAction *>(QStringLiteral("redo"))->trigger();
    verifyClose(*readingAt(m_window->openBuild().build(), gaugePlace("main_1", 1, 90))->value_um,
                58.42, 1e-9);
}

void TestWindow::enter_walksThePlanAndTheEngine()
{
    ReadingEntry &e = entry("big_end_4");
    e.cell(0)->setFocus();
    for (int i = 0; i < 6; ++i) {
        QVERIFY(e.cell(static_cast<size_t>(i))->hasFocus());
        QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("5%1").arg(i));
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    }
    const GaugedSize *c = m_window->openBuild().assessment().size("big_end_4");
    QCOMPARE(c->readings.size(), 6u);
    // Its cap was never torqued, so the figure is kept and flagged.
    QVERIFY(c->measured && c->mark == Mark::LookAgain);
    QVERIFY(QString::fromStdString(said(c->verdict)).contains(QStringLiteral("without the cap")));
    // Past the end of a bearing it goes on with the next one; back again with Backspace in an empty
    // cell.
    ReadingEntry &f = entry("main_1");
    f.cell(5)->setFocus();
    QTest::keyClick(f.cell(5), Qt::Key_Return);
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("main_2"));
    QVERIFY(f.cell(0)->hasFocus());
}

void TestWindow::savedBuild_reopensTheSame()
{
    const QString path = m_folder->filePath(QStringLiteral("mine.mildpath"));
    type(entry("main_3").cell(0), QStringLiteral("2.3 thou"));
    QVERIFY(m_window->openBuild().isModified());
    QVERIFY(m_window->saveTo(path));
    QVERIFY(!m_window->openBuild().isModified());
    const Build saved = m_window->openBuild().build();
    const double pressure = hotIdle();
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-alloy")));
    QVERIFY(m_window->openFile(path));
    QVERIFY(m_window->openBuild().build() == saved);
    QCOMPARE(hotIdle(), pressure);
}

void TestWindow::badFile_leavesTheOpenBuild_data()
{
    QTest::addColumn<QByteArray>("content");
    QTest::addColumn<QString>("says");
    const QByteArray whole = QByteArray::fromStdString(buildText(demoBuild()));
    QTest::newRow("empty") << QByteArray() << QStringLiteral("empty");
    QTest::newRow("truncated") << whole.left(whole.size() / 2) << QStringLiteral("line ");
    QTest::newRow("binary") << QByteArray("\x89PNG\r\n\x1a\n\0\0", 10)
                            << QStringLiteral("not JSON");
    QTest::newRow("newer version") << QByteArray(whole).replace(
        "\"version\": " + QByteArray::number(buildVersion), "\"version\": 77")
                                   << QStringLiteral("newer");
    QTest::newRow("senseless") << QByteArray(whole).replace("\"kv40_mm2_s\": 105",
                                                            "\"kv40_mm2_s\": 1")
                               << QStringLiteral("/oil/kv40_mm2_s");
}

void TestWindow::badFile_leavesTheOpenBuild()
{
    QFETCH(QByteArray, content);
    QFETCH(QString, says);
    type(entry("main_3").cell(0), QStringLiteral("61"));
    const Build open = m_window->openBuild().build();
    const QString path = m_folder->filePath(QStringLiteral("bad.mildpath"));
    QVERIFY(writeTextFile(path.toStdString(), content.toStdString()));
    QVERIFY(!m_window->openFile(path));
    QVERIFY2(m_window->messageBar().text().contains(says),
             qPrintable(m_window->messageBar().text()));
    QVERIFY(m_window->openBuild().build() == open);
    QVERIFY(m_window->openBuild().undoStack().canUndo());
}

void TestWindow::crash_offersTheRest()
{
    type(entry("main_3").cell(0), QStringLiteral("61"));
    type(entry("main_3").cell(3), QStringLiteral("62"));
    const Build lost = m_window->openBuild().build();
    // What a killed process leaves: its journal, held by nobody.
    const std::filesystem::path state = m_folder->filePath(QStringLiteral("state")).toStdString();
    const std::filesystem::path after = m_folder->filePath(QStringLiteral("after")).toStdString();
    std::filesystem::copy(state, after);

    MainWindow next(qs(after.string()));
    QVERIFY(next.openTemplate(QStringLiteral("inline-four-alloy")));
    next.show();
    next.offerRecovery();
    QVERIFY(
        next.messageBar().text().contains(QStringLiteral("(never saved), 2 edits, the last on")));
    next.messageBar().findChild<QPushButton *>(QStringLiteral("answer0"))->click();
    QVERIFY(next.openBuild().build() == lost);
    QVERIFY(next.openBuild().isModified());
    QVERIFY(next.messageBar().text().isEmpty());
    next.openBuild().giveUp();
    MainWindow third(qs(after.string()));
    third.openTemplate(QStringLiteral("inline-four-alloy"));
    third.offerRecovery();
    QVERIFY(third.messageBar().text().isEmpty());
}

void TestWindow::sliders_moveTheMap()
{
    bench("route");
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    auto *speed = m_window->findChild<QSlider *>(QStringLiteral("speedSlider"));
    auto *oil = m_window->findChild<QSlider *>(QStringLiteral("oilSlider"));
    const QString idle = panelText();
    speed->setFocus();
    QTest::keyClick(speed, Qt::Key_PageUp);
    QVERIFY(panelText() != idle);
    oil->setValue(40);
    const auto r = assessAt(m_window->openBuild().build(), m_window->openBuild().assessment().sizes,
                            speed->value(), 40);
    const auto p = std::find_if(r->points.begin(), r->points.end(),
                                [](const PointPressure &x) { return x.name == "Main 2"; });
    QVERIFY(panelText().contains(QStringLiteral("Pressure: ")
                                 + Figure::pressure(p->pressure_pa).text()));
}

void TestWindow::oilChoice_isAnEdit()
{
    bench("route");
    const double before = hotIdle();
    auto *grade = m_window->findChild<QComboBox *>(QStringLiteral("oilGrade"));
    const int thick = grade->findText(QStringLiteral("20W-50"));
    grade->setCurrentIndex(thick);
    Q_EMIT grade->activated(thick);
    QVERIFY(hotIdle() > before + 0.2e5);
    m_window->openBuild().undoStack().undo();
    QCOMPARE(hotIdle(), before);
    QCOMPARE(grade->currentText(), QStringLiteral("15W-40"));
}

void TestWindow::fittedSpring_canBeChangedInPlace()
{
    m_window->openTemplate(QStringLiteral("inline-four-wet-sump")); // its spring is not measured
    bench("route");
    m_window->openBuild().selectStop(QStringLiteral("relief"));
    QApplication::processEvents();
    const double before = hotIdle();
    auto *crack = m_window->findChild<QuantityField *>(QStringLiteral("relief.crack_kpa"));
    QVERIFY(crack);
    type(crack, QStringLiteral("5.5 bar"));
    verifyClose(m_window->openBuild().build().circuit.find("relief")->value("crack_kpa"), 550,
                1e-9);
    verifyClose(hotIdle(), before, 0, 5);
    type(m_window->findChild<QuantityField *>(QStringLiteral("relief.crack_kpa")),
         QStringLiteral("9 bar")); // above full_kpa
    verifyClose(m_window->openBuild().build().circuit.find("relief")->value("crack_kpa"), 550,
                1e-9);
}

void TestWindow::proof_marksTheStop()
{
    bench("route");
    m_window->openBuild().selectStop(QStringLiteral("filter"));
    QApplication::processEvents();
    auto *fitted = m_window->findChild<QCheckBox *>(QStringLiteral("stop.check.filt@filter"));
    QVERIFY(fitted);
    fitted->click();
    const Assessment &now = m_window->openBuild().assessment();
    QCOMPARE(now.checks.find("filt@filter")->state, CheckState::Proven);
    QCOMPARE(shownIn("holds"), QString::number(gateOf(now).holds()));
    QVERIFY(!m_window->openBuild().build().checkEntries.back().by.empty());
}

void TestWindow::name_isChangedInPlace()
{
    auto *name = m_window->findChild<QLineEdit *>(QStringLiteral("buildName"));
    const QString before = name->text();
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, QStringLiteral("Lifeboat spare"));
    QTest::keyClick(name, Qt::Key_Return);
    QCOMPARE(m_window->openBuild().build().name, std::string("Lifeboat spare"));
    QVERIFY(m_window->windowTitle().startsWith(QStringLiteral("Lifeboat spare")));
    name->selectAll();
    QTest::keyClick(name, Qt::Key_Delete);
    QTest::keyClick(name, Qt::Key_Return); // a build needs a name
    QCOMPARE(name->text(), QStringLiteral("Lifeboat spare"));
    m_window->openBuild().undoStack().undo();
    QCOMPARE(name->text(), before);
}

void TestWindow::selection_isOneEverywhere()
{
    bench("route");
    auto *map = m_window->findChild<RouteMap *>(QStringLiteral("routeMap"));
    QTest::mouseClick(map, Qt::LeftButton, {}, map->placeOf(QStringLiteral("big_end_2")).toPoint());
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("big_end_2"));
    auto *rail = m_window->findChild<Rail *>(QStringLiteral("rail"));
    QCOMPARE(rail->currentIndex().data().toString(), QStringLiteral("Big-end 2"));
    rail->setFocus();
    QTest::keyClick(rail, Qt::Key_Down);
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("big_end_3"));
    bench("clearances");
    QVERIFY(m_window->findChild<QPushButton *>(QStringLiteral("family_big_end"))->isChecked());
    m_window->findChild<QPushButton *>(QStringLiteral("family_main"))->click();
    QVERIFY(m_window->openBuild().selectedStop().startsWith(QStringLiteral("main_")));
}

void TestWindow::stripCell_opensItsBench()
{
    QTest::mouseClick(m_window->findChild<ReadoutCell *>(QStringLiteral("hotIdleGauge")),
                      Qt::LeftButton);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Forecast"));
    QTest::mouseClick(m_window->findChild<ReadoutCell *>(QStringLiteral("holds")), Qt::LeftButton);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("First start"));
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("lifter_gallery"));
}

void TestWindow::imperial_isReadAndShown()
{
    m_window->setUnits(UnitSystem::Imperial);
    ReadingEntry &e = entry("main_2");
    type(e.cell(0), QStringLiteral("1.9"));
    verifyClose(*readingAt(m_window->openBuild().build(), gaugePlace("main_2", 1, 90))->value_um,
                1.9 * 25.4, 1e-9);
    verifyClose(shownIn("hotIdleGauge").toDouble(), hotIdle() / 6894.757, 0, 0.06);
    m_window->setUnits(UnitSystem::Both);
    QVERIFY(!m_window->findChild<ReadoutCell *>(QStringLiteral("hotIdleGauge"))
                 ->readout()
                 .value.second.isEmpty());
}

void TestWindow::benches_switchByKeys()
{
    QTest::keyClick(m_window.get(), Qt::Key_4, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Bore finish"));
    QTest::keyClick(m_window.get(), Qt::Key_6, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Passages"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Forecast"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Oil & film"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Sump & air"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("First start"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("After run"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Work"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Engine"));
    QTest::keyClick(m_window.get(), Qt::Key_PageDown, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Oil path"));
    QTest::keyClick(m_window.get(), Qt::Key_E, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Engine"));
    QTest::keyClick(m_window.get(), Qt::Key_F7);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Work"));
    QTest::keyClick(m_window.get(), Qt::Key_9, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Sump & air"));
    QTest::keyClick(m_window.get(), Qt::Key_0, Qt::ControlModifier);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("First start"));
    auto *side = m_window->findChild<QWidget *>(QStringLiteral("panelSide"));
    QTest::keyClick(m_window.get(), Qt::Key_F9);
    QVERIFY(!side->isVisible());
}

void TestWindow::everyBench_rendersInBothThemes()
{
    QList<QImage> light;
    for (const ThemeChoice theme : { ThemeChoice::Light, ThemeChoice::Dark }) {
        m_window->setTheme(theme);
        QString error;
        const QStringList files = renderBenches(
            *m_window, m_folder->filePath(QStringLiteral("pictures")), QSize(1280, 800), error);
        QVERIFY2(error.isEmpty(), qPrintable(error));
        qsizetype pages = 0;
        for (const Bench *b : m_window->benches())
            pages += std::max<qsizetype>(1, b->pages().size());
        QCOMPARE(files.size(), pages);
        for (qsizetype i = 0; i < files.size(); ++i) {
            const QImage picture(files[i]);
            QCOMPARE(picture.size(), QSize(1280, 800));
            if (theme == ThemeChoice::Light)
                light << picture;
            else
                // Beside the benches' own pictures: paper stays white in every theme.
                QVERIFY(picture.pixelColor(640, 68).lightness()
                        < light[i].pixelColor(640, 68).lightness());
        }
    }
    QVERIFY(m_window->findChild<ChartView *>(QStringLiteral("forecastChart"))->lineCount() == 5);
    applyTheme(*qApp, ThemeChoice::Light);
}

} // namespace tst_window

MILDPATH_TEST(tst_window, TestWindow)
#include "tst_window.moc"
