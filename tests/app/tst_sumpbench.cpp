// SPDX-License-Identifier: GPL-3.0-or-later
// Sump & air by its widgets, and the gas laid over the forecast.
#include "benchfixture.h"
#include "checks/assessment.h"
#include "study/gaseffect.h"
#include "study/senders.h"

#include "bench/sump/casesheet.h"
#include "bench/sump/fillbar.h"
#include "bench/sump/senderviews.h"
#include "bench/sump/sumpbench.h"
#include "bench/sump/sumpview.h"
#include "bench/sump/turnspage.h"
#include "entry/quantityfield.h"
#include "entry/rowlist.h"

#include <QCheckBox>
#include <QFile>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>

using namespace mildpath;

namespace tst_sumpbench {

class TestSumpBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void panel_saysTheElevenRows();
    void turnSlider_tiltsTheOil();
    void fill_isDraggedAndUndone();
    void fill_thatCannotBe_isRefusedWithTheReason();
    void fill_isNudgedByKey();
    void fillField_takesQuarts();
    void corner_isTypedInTheTable();
    void wrongCorner_isRefused_andTheOldOneStays();
    void benchFill_makesThePan();
    void shape_isMade_savedAndOpenedAgain();
    void use_isChosenAndUndoneInOne();
    void caseChosen_showsItsSection();
    void drive_isReplayed_orSaysWhatIsWrong();
    void thread_tellsTheTrap();
    void strip_leadsToTheBench();
    void tank_standsForADrySump();
    void noSump_saysWhatIsMissing();
    void gas_isLaidOverTheForecast();

private:
    SumpBench &sump(int at = 0) { return page<SumpBench>("sump", at); }
    void typeCell(const char *table, int row, int column, const QString &text)
    {
        auto *t = find<QTableWidget>(table);
        QVERIFY(t && t->isVisible());
        // The editor of the cell before this one goes once events are sent out.
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        t->setCurrentCell(row, column);
        t->editItem(t->item(row, column));
        auto *editor = t->findChild<QLineEdit *>();
        QVERIFY(editor);
        editor->selectAll();
        QTest::keyClicks(editor, text);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
    }
    QString reason(const char *table)
    {
        auto *l = find<QLabel>((QByteArray(table) + ".reason").constData());
        return l && l->isVisible() ? l->text() : QString();
    }
};

void TestSumpBench::panel_saysTheElevenRows()
{
    sump();
    const QString said = panelText();
    for (const AirRow &r : assessment().air.rows) {
        QVERIFY2(said.contains(qs(r.name)), r.id.c_str());
        QVERIFY2(said.contains(qs(r.quantity)), r.id.c_str());
    }
    QVERIFY(said.contains(QStringLiteral("Worst known: watch")));
    // No share of air anywhere: the ring's squeeze is the only percentage.
    for (const AirRow &r : assessment().air.rows)
        QVERIFY2(r.id == "oring" || !(qs(r.quantity) + qs(r.reason)).contains(u'%'), r.id.c_str());
    QVERIFY(find<QLabel>("sump.subtitle")->text().contains(QStringLiteral("left here")));
}

void TestSumpBench::turnSlider_tiltsTheOil()
{
    sump();
    click("sump.across");
    auto *view = find<SumpView>("sumpView");
    auto *slider = find<QSlider>("sump.turn");
    slider->setFocus();
    for (int i = 0; i < 35; ++i)
        QTest::keyClick(slider, Qt::Key_Right);
    QVERIFY(view->oil());
    // The picture shows what the core says of this turn.
    const AirCase *left = assessment().air.find("turn_left");
    verifyClose(view->oil()->submergence_m, left->submergence_m, 1e-9, 0, QStringLiteral("depth"));
    verifyClose(view->oil()->surface.tilt_rad, std::atan(0.35), 1e-12, 0, QStringLiteral("tilt"));
    // A turn is looked at, not written down.
    QVERIFY(!document().isModified());
    choose(find<QComboBox>("sump.level"), QStringLiteral("at rest, as filled"));
    QVERIFY(view->oil()->submergence_m > left->submergence_m);
}

void TestSumpBench::fill_isDraggedAndUndone()
{
    sump();
    auto *bar = find<FillBar>("fillBar");
    auto *view = find<SumpView>("sumpView");
    const double before = view->oil()->submergence_m;
    const auto at = [&](double litres) {
        return QPoint(static_cast<int>(std::lround(bar->xOf(litres))), 62);
    };
    QTest::mousePress(bar, Qt::LeftButton, {}, at(4.6));
    QTest::mouseMove(bar, at(5.5));
    // The picture follows; the document does not until the button is let go.
    QVERIFY(view->oil()->submergence_m > before);
    QVERIFY(!document().isModified());
    QTest::mouseRelease(bar, Qt::LeftButton, {}, at(5.5));
    QApplication::processEvents();
    verifyClose(*build().sump.own("fill_l"), 5.5, 0, 0.051, QStringLiteral("fill"));
    QVERIFY(document().isModified());
    document().undoStack().undo();
    QCOMPARE(*build().sump.own("fill_l"), 4.6);
    QApplication::processEvents();
    verifyClose(view->oil()->submergence_m, before, 1e-12, 0, QStringLiteral("back"));
}

void TestSumpBench::fill_thatCannotBe_isRefusedWithTheReason()
{
    QVERIFY(document().edit(SetSumpValue { "static_holdup_l", 4.55 }));
    sump();
    auto *bar = find<FillBar>("fillBar");
    bar->setFocus();
    QTest::keyClick(bar, Qt::Key_Left);
    QTest::keyClick(bar, Qt::Key_Left); // less than never comes back
    QCOMPARE(*build().sump.own("fill_l"), 4.55);
    QVERIFY2(bar->toolTip().contains(QStringLiteral("more than was poured in")),
             qPrintable(bar->toolTip()));
}

void TestSumpBench::fill_isNudgedByKey()
{
    sump();
    auto *bar = find<FillBar>("fillBar");
    bar->setFocus();
    QTest::keyClick(bar, Qt::Key_Right);
    QTest::keyClick(bar, Qt::Key_Right);
    verifyClose(*build().sump.own("fill_l"), 4.7, 1e-9, 0, QStringLiteral("fill"));
}

void TestSumpBench::fillField_takesQuarts()
{
    sump();
    type(inPanel<QuantityField>(QStringLiteral("sump.fill_l")), QStringLiteral("5 imp qt"));
    verifyClose(*build().sump.own("fill_l"), 5.68261, 1e-5, 0, QStringLiteral("imperial"));
    type(inPanel<QuantityField>(QStringLiteral("sump.fill_l")), QStringLiteral("5 US qt"));
    verifyClose(*build().sump.own("fill_l"), 4.731765, 1e-5, 0, QStringLiteral("US"));
    // A value that cannot be is refused with the reason; the old one stays.
    type(inPanel<QuantityField>(QStringLiteral("sump.static_holdup_l")), QStringLiteral("40"));
    QCOMPARE(*build().sump.own("static_holdup_l"), 0.5);
    bool said = false;
    for (const QLabel *l : m_window->sidePanel().findChildren<QLabel *>())
        said = said || l->text().contains(QStringLiteral("more than was poured in"));
    QVERIFY(said);
}

void TestSumpBench::corner_isTypedInTheTable()
{
    sump(2);
    const double before = assessment().air.level("rest_cold")->level_m;
    typeCell("pan.along", 1, 0, QStringLiteral("100")); // the bowl begins further forward
    typeCell("pan.along", 2, 0, QStringLiteral("125"));
    QCOMPARE(build().sump.along[1], (PanPoint { 100, 70 }));
    QCOMPARE(build().sump.shape, std::string()); // typed over: no preset any more
    QVERIFY(assessment().air.level("rest_cold")->level_m < before);
    QVERIFY(find<QLabel>("pan.from")->text().contains(QStringLiteral("typed")));
}

void TestSumpBench::wrongCorner_isRefused_andTheOldOneStays()
{
    sump(2);
    const auto old = build().sump.along;
    typeCell("pan.along", 1, 0, QStringLiteral("460")); // beyond the rear wall: sides cross
    QCOMPARE(build().sump.along, old);
    QVERIFY2(reason("pan.along").contains(QStringLiteral("crosses")),
             qPrintable(reason("pan.along")));
    QCOMPARE(find<QTableWidget>("pan.along")->item(1, 0)->text(), QStringLiteral("220"));
    typeCell("pan.along", 1, 0, QStringLiteral("a lot"));
    QVERIFY(reason("pan.along").contains(QStringLiteral("Row 2")));
    QCOMPARE(build().sump.along, old);
}

void TestSumpBench::benchFill_makesThePan()
{
    sump(2);
    for (const auto &[row, height, litres] :
         { std::tuple(0, "30", "1.5"), std::tuple(1, "60", "3.2"), std::tuple(2, "80", "5.6") }) {
        typeCell("pan.fill", row, 0, QString::fromLatin1(height));
        typeCell("pan.fill", row, 1, QString::fromLatin1(litres));
    }
    QCOMPARE(build().sump.benchFill.size(), size_t(3));
    const PanPrism pan = *panOf(build().sump);
    verifyClose(areaBelow_m2(pan.profile, { 0, 0.06 }) * pan.width_m * 1e3, 3.2, 1e-3, 0,
                QStringLiteral("litres at 60 mm"));
    typeCell("pan.fill", 2, 1, QStringLiteral("3")); // falls
    QVERIFY(reason("pan.fill").contains(QStringLiteral("litres must rise")));
    QCOMPARE(build().sump.benchFill[2].litres, 5.6);
}

void TestSumpBench::shape_isMade_savedAndOpenedAgain()
{
    sump(2);
    choose(find<QComboBox>("pan.shape"), QStringLiteral("floor sloping to the rear"));
    click("pan.make");
    QCOMPARE(build().sump.shape, std::string("wedge"));
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("wedge.mildpath"));
    QVERIFY(m_window->saveTo(path));
    const Sump made = build().sump;
    QVERIFY(m_window->openFile(qs(demoBuildPath().string())));
    QVERIFY(!(build().sump == made));
    QVERIFY(m_window->openFile(path));
    QCOMPARE(build().sump, made);
}

void TestSumpBench::use_isChosenAndUndoneInOne()
{
    sump(1);
    choose(inPanel<QComboBox>(QStringLiteral("turns.use")), QStringLiteral("track, slicks"));
    QCOMPARE(build().use.turn_g, 1.25);
    QCOMPARE(build().use.heel_deg, 0.0);
    QVERIFY(assessment().air.find("braking"));
    QCOMPARE(inPanel<QComboBox>(QStringLiteral("turns.use"))->currentText(),
             QStringLiteral("track, slicks"));
    document().undoStack().undo();
    QCOMPARE(build().use.turn_g, 0.35);
    QCOMPARE(build().use.heel_deg, 12.0);
}

void TestSumpBench::caseChosen_showsItsSection()
{
    sump(1);
    auto *sheet = find<CaseSheet>("caseSheet");
    int right = -1;
    for (size_t i = 0; i < assessment().air.cases.size(); ++i)
        if (assessment().air.cases[i].id == "turn_right")
            right = static_cast<int>(i);
    QCOMPARE(find<RowList>("turns.list")->rows().size(), assessment().air.cases.size());
    clickAt(sheet, sheet->areaOf(right).center());
    auto *view = find<SumpView>("sumpView");
    QVERIFY(view->isVisible());
    verifyClose(view->oil()->submergence_m,
                assessment().air.cases[static_cast<size_t>(right)].submergence_m, 1e-9, 0,
                QStringLiteral("depth"));
    QVERIFY(view->oil()->surface.tilt_rad < 0);
}

void TestSumpBench::drive_isReplayed_orSaysWhatIsWrong()
{
    SumpBench &bench = sump(1);
    const QString crossing = qs((dataFolder() / "demo/harbour-crossing.csv").string());
    QCOMPARE(bench.findChild<TurnsPage *>()->replay(crossing), QString());
    QApplication::processEvents();
    QVERIFY(find<QLabel>("turns.file")->text().contains(QStringLiteral("601 moments")));
    QVERIFY(panelText().contains(QStringLiteral("Less than wanted")));
    QVERIFY(panelText().contains(QStringLiteral("quicker than oil follows")));
    // Less oil: it draws air, by the same drive.
    QVERIFY(document().edit(SetSumpValue { "fill_l", 3.3 }));
    QApplication::processEvents();
    QVERIFY2(panelText().contains(QStringLiteral("Draws air")), qPrintable(panelText()));
    QTemporaryDir folder;
    QFile bad(folder.filePath(QStringLiteral("bad.csv")));
    QVERIFY(bad.open(QIODevice::WriteOnly));
    bad.write("time_s,lateral_g\n0,0\n1,left\n");
    bad.close();
    QVERIFY(bench.findChild<TurnsPage *>()
                ->replay(bad.fileName())
                .contains(QStringLiteral("line 3, lateral_g")));
    QVERIFY(find<QLabel>("turns.problem")->isVisible());
    QVERIFY(panelText().contains(QStringLiteral("Draws air"))); // the earlier drive stays
}

void TestSumpBench::thread_tellsTheTrap()
{
    sump(3);
    choose(find<QComboBox>("sender.male"), QStringLiteral("M10x1"));
    choose(find<QComboBox>("sender.female"), QStringLiteral("R 1/8"));
    QVERIFY(find<QLabel>("sender.verdict")->text().contains(QStringLiteral("begins to screw in")));
    QVERIFY(find<QLabel>("sender.detail")->text().contains(QStringLiteral("0.272 mm")));
    choose(find<QComboBox>("sender.female"), QStringLiteral("M10x1"));
    QCOMPARE(find<QLabel>("sender.verdict")->text(), QStringLiteral("Fits"));
    const auto places = senderPlaces(build(), assessment().operating, assessment().air);
    QCOMPARE(find<SenderBars>("sender.places")->places().size(), places.size());
}

void TestSumpBench::strip_leadsToTheBench()
{
    auto *cell = m_window->findChild<ReadoutCell *>(QStringLiteral("airRisk"));
    QVERIFY(cell);
    QCOMPARE(cell->readout().value.number, QStringLiteral("watch"));
    QCOMPARE(cell->readout().detail, QStringLiteral("Drain-back"));
    QTest::mouseClick(cell, Qt::LeftButton);
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Sump & air"));
    QVERIFY(document().edit(SetForeign { false, "confirmed" }));
    QApplication::processEvents();
    QCOMPARE(cell->readout().value.number, QStringLiteral("high"));
    QCOMPARE(cell->readout().was, QStringLiteral("was watch"));
    QCOMPARE(cell->readout().mark, Mark::Hold);
}

void TestSumpBench::tank_standsForADrySump()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("v8-dry-sump")));
    sump();
    QVERIFY(find<SumpView>("sumpView")->accessibleName().contains(QStringLiteral("oil tank")));
    QVERIFY(!find<QSlider>("sump.turn")->isVisible());
    QVERIFY(inPanel<QuantityField>(QStringLiteral("sump.tank_diameter_mm")));
    QVERIFY(panelText().contains(QStringLiteral("Tank outlet uncovers")));
}

void TestSumpBench::noSump_saysWhatIsMissing()
{
    Build bare = build();
    bare.sump = {};
    m_window->openNew(bare);
    for (int page = 0; page < 4; ++page)
        sump(page);
    sump();
    QVERIFY(panelText().contains(QStringLiteral("how much oil is poured in is not said")));
    QVERIFY(!find<SumpView>("sumpView")->oil());
    sump(2);
    click("pan.make");
    type(inPanel<QuantityField>(QStringLiteral("sump.rail_mm")), QStringLiteral("180"));
    sump();
    type(inPanel<QuantityField>(QStringLiteral("sump.fill_l")), QStringLiteral("4.6"));
    QVERIFY(find<SumpView>("sumpView")->oil());
}

void TestSumpBench::gas_isLaidOverTheForecast()
{
    m_window->showBench(Place::Forecast);
    QApplication::processEvents();
    auto *tick = inPanel<QCheckBox>(QStringLiteral("forecast.gas"));
    QVERIFY(tick);
    tick->click();
    QApplication::processEvents();
    auto *slider = inPanel<QSlider>(QStringLiteral("forecast.gasShare"));
    QVERIFY(slider);
    slider->setValue(50); // 15 % of what the pump takes
    QApplication::processEvents();
    const auto effect = gasEffect(build(), assessment().sizes, assessment().operating, 0.15);
    const PanelContent said = m_window->currentBench()->panel();
    const PanelChange *idle = change(said, QStringLiteral("Hot idle"));
    QVERIFY(idle && effect);
    QCOMPARE(idle->after.text(), Figure::pressure(effect->idleAfter.value_pa).text());
    QCOMPARE(idle->before.text(),
             Figure::pressure(assessment().operating.hotIdle.gauge.value_pa).text());
    QVERIFY(panelText().contains(QStringLiteral("estimate")));
    QVERIFY(!document().isModified());
}

} // namespace tst_sumpbench

MILDPATH_TEST(tst_sumpbench, TestSumpBench)
#include "tst_sumpbench.moc"
