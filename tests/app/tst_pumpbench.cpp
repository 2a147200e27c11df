// SPDX-License-Identifier: GPL-3.0-or-later
// The Pump bench by its widgets, and readings as tables in and out of the window.
#include "assess/circuitof.h"
#include "benchfixture.h"
#include "checks/assessment.h"

#include "bench/pump/rotorview.h"

#include <QAction>
#include <QCheckBox>
#include <QClipboard>
#include <QFile>
#include <QPushButton>
#include <QTemporaryDir>

using namespace mildpath;

namespace tst_pumpbench {

class TestPumpBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void pump_takesEveryLobe();
    void pump_labelsTakeTheGapInHand();
    void pump_gasketIsTickedInThePanel();
    void pump_springSetsTheRelief();
    void pump_showsItsGasket();
    void pump_movesWhatItsRotorsGiveUnlessEntered();
    void readings_arePastedFromASpreadsheet();
    void readings_areCopiedAsATable();
    void tables_comeInWholeOrNotAtAll();
    void readings_goOutAndComeBack();
};

void TestPumpBench::pump_takesEveryLobe()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    PumpBench &bench = pump();
    bench.takeFocus();
    for (const char *um : { "80", "82", "84", "0.0033 in" }) {
        QWidget *cell = QApplication::focusWidget();
        QTest::keyClicks(cell, QString::fromLatin1(um));
        QTest::keyClick(cell, Qt::Key_Return);
    }
    const GaugedSize *tips = assessment().size("pump", "pump_tip", 1);
    verifyClose(tips->cold_um.value, 84, 1e-6);
    QCOMPARE(markWord(tips->mark), markWord(Mark::Proven));
    // On to the end clearance, and the plan follows what is entered.
    QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("100"));
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    QCOMPARE(build().readings.back().family, std::string("pump_end"));
    QTRY_VERIFY(find<QLabel>("dressing")->text().contains(QStringLiteral("remove")));
}

void TestPumpBench::pump_labelsTakeTheGapInHand()
{
    pump();
    auto *view = find<RotorPictureView>("rotorView");
    int found = 0;
    connect(view, &RotorPictureView::chosen, this, [&] { ++found; });
    for (int x = 4; x < view->width(); x += 16)
        for (int y = 4; y < view->height(); y += 16)
            QTest::mouseClick(view, Qt::LeftButton, {}, QPoint(x, y));
    QVERIFY(found > 20);
    QVERIFY(view->accessibleName().contains(QStringLiteral("widest")));
}

void TestPumpBench::pump_gasketIsTickedInThePanel()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    pump();
    const auto evident = [&] { return assessment().checks.find("pgask@pump")->evident; };
    QCOMPARE(evident(), Evident::None);
    inPanel<QCheckBox>(QStringLiteral("check.pump_gasket"))->click();
    QCOMPARE(evident(), Evident::Yes);
    inPanel<QCheckBox>(QStringLiteral("check.pump_gasket"))->click();
    QCOMPARE(evident(), Evident::No); // seen, and not so
}

void TestPumpBench::pump_springSetsTheRelief()
{
    pump();
    type(inPanel<QuantityField>(QStringLiteral("stop.relief.shim_mm")), QStringLiteral("1"));
    // k (x0 + shim)/A = 6 (8.8 + 1)/(π/4 12²). Force balance, textbook.
    verifyClose(
        circuitOf(build(), assessment().sizes, allAt(100)).find("relief")->value("crack_kpa"),
        6e6 * 9.8e-3 / (3.14159265 / 4 * 144e-6) / 1e6, 1e-4);
    auto *lift = inPanel<QuantityField>(QStringLiteral("stop.relief.full_lift_mm"));
    const double before = build().engine.find("relief")->value("full_lift_mm");
    type(lift, QStringLiteral("-2"));
    QCOMPARE(build().engine.find("relief")->value("full_lift_mm"), before);
}

void TestPumpBench::pump_showsItsGasket()
{
    pump();
    auto *button = find<QPushButton>("showGasket");
    auto *picture = find<QWidget>("gasketPicture");
    QVERIFY(!picture->isVisible());
    button->click();
    QVERIFY(picture->isVisible() && !find<QWidget>("dressingView")->isVisible());
    button->click();
    QVERIFY(!picture->isVisible());
}

void TestPumpBench::pump_movesWhatItsRotorsGiveUnlessEntered()
{
    pump();
    const auto idle_pa = [this] { return document().operating().hotIdle.gauge.value_pa; };
    const auto rowOf = [this](const QString &label) {
        for (const PanelItem &i : m_window->currentBench()->panel())
            if (const auto *r = std::get_if<PanelRow>(&i); r && r->label == label)
                return r->value.number;
        return QString();
    };
    const QString move = QStringLiteral("The rotors move, a turn");
    QCOMPARE(rowOf(move), QStringLiteral("5.16"));
    const double before = idle_pa();
    typeInPanel(QStringLiteral("pump.rotor_length_mm"), QStringLiteral("13.65"));
    QCOMPARE(rowOf(move), QStringLiteral("7.73")); // half as long again
    QVERIFY(idle_pa() > before);
    typeInPanel(QStringLiteral("pump.displacement_m3"), QStringLiteral("5.157"));
    QVERIFY(idle_pa() < before); // longer rotors leak more
    QCOMPARE(rowOf(move), QStringLiteral("7.73"));
    QVERIFY(!panelText().contains(QStringLiteral("far apart")));
    typeInPanel(QStringLiteral("pump.displacement_m3"), QStringLiteral("2.5"));
    QVERIFY(panelText().contains(QStringLiteral("far apart")));
    typeInPanel(QStringLiteral("pump.displacement_m3"), QStringLiteral("0"));
    QVERIFY(idle_pa() > before);
    // Rotors that cannot be are refused, and what stood stands.
    typeInPanel(QStringLiteral("pump.inner_tip_mm"), QStringLiteral("5"));
    QCOMPARE(rowOf(move), QStringLiteral("7.73"));
}

void TestPumpBench::readings_arePastedFromASpreadsheet()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("main_1"));
    bench.entry().cell(0)->setFocus();
    const int edits = m_window->openBuild().undoStack().count();
    m_window->pasteReadings(QStringLiteral("48\t49\t50\n48,5\t49,5\t50,5\n"));
    QCOMPARE(m_window->openBuild().undoStack().count(), edits + 1); // one step back
    QCOMPARE(*readingAt(build(), gaugePlace("main_1", 2, 120))->value_um, 50.5);
    const Build before = build();
    m_window->pasteReadings(QStringLiteral("48\t-3\n"));
    QVERIFY(build() == before); // one that cannot be, and none is taken
    QVERIFY(message(bench.entry()).contains(QStringLiteral("nothing was changed")));
    m_window->pasteReadings(QStringLiteral("dear sir\n"));
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("no readings")));
}

void TestPumpBench::readings_areCopiedAsATable()
{
    clearances();
    m_window->openBuild().selectStop(QStringLiteral("main_4"));
    m_window->findChild<QAction *>(QStringLiteral("copyReadings"))->trigger();
    const QString text = QApplication::clipboard()->text();
    QCOMPARE(text.count(u'\n'), 2);
    QCOMPARE(text.count(u'\t'), 4);
    m_window->openBuild().selectStop(QStringLiteral("big_end_4"));
    clearances().entry().cell(0)->setFocus();
    m_window->findChild<QAction *>(QStringLiteral("pasteReadings"))->trigger();
    QCOMPARE(*readingAt(build(), gaugePlace("big_end_4", 1, 90))->value_um,
             *readingAt(build(), gaugePlace("main_4", 1, 90))->value_um);
}

void TestPumpBench::tables_comeInWholeOrNotAtAll()
{
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("r.csv"));
    const auto write = [&](const QByteArray &text) {
        QFile f(path);
        QVERIFY(f.open(QIODevice::WriteOnly));
        f.write(text);
    };
    const Build before = build();
    write("stop,value_um,station\nmain_1,48,1\nmain_7,48,1\nmain_1,many,2\n");
    QVERIFY(!m_window->importReadings(path));
    QVERIFY(build() == before);
    const QString said = m_window->messageBar().text();
    QVERIFY2(said.contains(QStringLiteral("line 3")) && said.contains(QStringLiteral("1 more")),
             qPrintable(said));
    write("stop,value_um,station\nmain_1,48,1\nmain_1,49,2\n");
    QVERIFY(m_window->importReadings(path));
    QCOMPARE(*readingAt(build(), gaugePlace("main_1", 2, 90))->value_um, 49.0);
    m_window->openBuild().undoStack().undo();
    QVERIFY(build() == before);
    QVERIFY(!m_window->importReadings(folder.filePath(QStringLiteral("none.csv"))));
}

void TestPumpBench::readings_goOutAndComeBack()
{
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("r.csv"));
    QVERIFY(m_window->exportReadings(path));
    const size_t count = build().readings.size();
    const double pressure = assessment().operating.hotIdle.gauge.value_pa;
    Build empty = build();
    empty.readings.clear();
    m_window->openBuild().open(empty, {});
    QVERIFY(m_window->importReadings(path));
    QCOMPARE(build().readings.size(), count);
    verifyClose(assessment().operating.hotIdle.gauge.value_pa, pressure, 1e-4);
    QVERIFY(!m_window->exportReadings(QStringLiteral("/proc/nowhere/r.csv")));
}

} // namespace tst_pumpbench

MILDPATH_TEST(tst_pumpbench, TestPumpBench)
#include "tst_pumpbench.moc"
