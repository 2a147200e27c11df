// SPDX-License-Identifier: GPL-3.0-or-later
// The pages of the Clearances bench, by their widgets.
#include "benchfixture.h"
#include "checks/assessment.h"
#include "study/shellplan.h"

#include "bench/clearances/feedpage.h"
#include "bench/clearances/shellpage.h"
#include "bench/clearances/torquepage.h"
#include "entry/stripchart.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

using namespace mildpath;

namespace tst_sizebenches {

class TestSizeBenches : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void families_areThoseTheEngineHas();
    void family_remembersWhereOneWas();
    void methods_changeTheCells();
    void twoInstruments_takeBoreAndJournal();
    void twoInstruments_wantAJournalFirst();
    void strip_isTakenFromItsChart();
    void stripOverAHole_isKeptNotUsed();
    void feel_isGivenByAWord();
    void looseCap_isFlaggedAtEntry();
    void torqueCard_isTickedByTheSpaceBar();
    void torqueCard_boltsTakeClicks();
    void torqueCard_allLooseIsOneUndo();
    void shells_areWrittenDownAndUndone();
    void shells_stockIsChangedInThePanel();
    void shells_classesAndStampsAreEntered();
    void cells_tellWhoAndWhen();
    void feedHoles_areEnteredInThePanel();
    void feedHoles_showTheGrooveChosen();
    void parts_areTicked();
    void parts_areWeighed();
    void limits_ofANewFamilyCanBeSet();
};

void TestSizeBenches::families_areThoseTheEngineHas()
{
    clearances();
    for (const char *id :
         { "main", "big_end", "small_end", "cam_bearing", "lifter", "end_float", "run_out" })
        QVERIFY2(find<QPushButton>((std::string("family_") + id).c_str()), id);
    QVERIFY(!find<QPushButton>("family_balance_shaft"));
    QVERIFY(!find<QPushButton>("family_pump_tip")); // on its own bench
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-alloy")));
    clearances();
    QVERIFY(find<QPushButton>("family_balance_shaft"));
}

void TestSizeBenches::family_remembersWhereOneWas()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    find<QPushButton>("family_lifter")->click();
    QCOMPARE(bench.family(), std::string("lifter"));
    QCOMPARE(bench.entry().positions(), 1u);
    // Enter past the only position of Lifter 1 goes on to Lifter 2.
    bench.entry().cell(0)->setFocus();
    QTest::keyClick(bench.entry().cell(0), Qt::Key_Return);
    QCOMPARE(bench.family(), std::string("lifter"));
    find<QPushButton>("family_main")->click();
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("main_2"));
    QCOMPARE(bench.entry().positions(), 6u);
}

void TestSizeBenches::methods_changeTheCells()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_1"));
    ReadingEntry &e = bench.entry();
    const auto shown = [&] {
        int count = 0;
        for (size_t i = 0; i < e.positions(); ++i)
            count += e.cell(i)->isVisible();
        return count;
    };
    QCOMPARE(shown(), 6);
    e.setMethod("plastic_strip"); // lies along the shaft: upright, both ends
    QCOMPARE(shown(), 2);
    e.setMethod("drop_feel");
    QCOMPARE(shown(), 0);
    e.setMethod("two_instruments");
    QCOMPARE(shown(), 6);
    QVERIFY(e.findChild<QuantityField *>(QStringLiteral("journalDiameter"))->isVisible());
}

void TestSizeBenches::twoInstruments_takeBoreAndJournal()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_4"));
    ReadingEntry &e = bench.entry();
    e.setMethod("two_instruments");
    type(e.findChild<QuantityField *>(QStringLiteral("journalDiameter")), QStringLiteral("49.994"));
    type(e.cell(0), QStringLiteral("50.049"));
    const Reading r = build().readings.back();
    QVERIFY2(r.bore_mm, qPrintable(message(e)));
    QCOMPARE(*r.bore_mm, 50.049);
    QCOMPARE(*r.journal_mm, 49.994);
    verifyClose(*r.value_um, 55, 1e-6);
    QVERIFY(e.cell(1)->hasFocus());
    type(e.cell(1), QStringLiteral("49.9")); // smaller than the journal
    QVERIFY2(message(e).contains(QStringLiteral("interference fit")), qPrintable(message(e)));
    QCOMPARE(build().readings.back().id, r.id);
}

void TestSizeBenches::twoInstruments_wantAJournalFirst()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("main_1"));
    ReadingEntry &e = bench.entry();
    e.setMethod("two_instruments");
    auto *journal = e.findChild<QuantityField *>(QStringLiteral("journalDiameter"));
    journal->setValue(std::nullopt);
    const size_t before = build().readings.size();
    type(e.cell(0), QStringLiteral("60.055"));
    QCOMPARE(build().readings.size(), before);
    QVERIFY2(message(e).contains(QStringLiteral("journal")), qPrintable(message(e)));
}

void TestSizeBenches::strip_isTakenFromItsChart()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_1"));
    ReadingEntry &e = bench.entry();
    e.setMethod("plastic_strip");
    QApplication::processEvents();
    e.cell(0)->setFocus();
    auto *chart = e.findChild<StripChart *>();
    QVERIFY(chart->isVisible());
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(40, 18 + 23 * 2 + 10)); // the third step
    verifyClose(*build().readings.back().value_um, 4 * usualStripStep_um, 1e-9);
    QCOMPARE(build().readings.back().method, std::string("plastic_strip"));
    // The gauge's figure stands; the strip only compares.
    QCOMPARE(assessment().size("big_end_1")->method(), std::string("zeroed_bore_gauge"));
}

void TestSizeBenches::stripOverAHole_isKeptNotUsed()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_1"));
    ReadingEntry &e = bench.entry();
    e.setMethod("plastic_strip");
    e.findChild<QCheckBox *>(QStringLiteral("overHole"))->setChecked(true);
    type(e.cell(0), QStringLiteral("25"));
    QVERIFY(build().readings.back().overOilHole);
    QVERIFY(message(e).contains(QStringLiteral("not used")));
    QVERIFY(assessment().size("big_end_1")->disagreement.empty());
    QVERIFY(!e.findChild<QCheckBox *>(QStringLiteral("overHole"))->isChecked());
}

void TestSizeBenches::feel_isGivenByAWord()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_1"));
    ReadingEntry &e = bench.entry();
    e.setMethod("drop_feel");
    e.findChild<QPushButton *>(QStringLiteral("feel_drops"))->click();
    QCOMPARE(build().readings.back().feel, std::string("drops"));
    QVERIFY(assessment().size("big_end_1")->disagreement.empty()); // 53 µm drops
    e.findChild<QPushButton *>(QStringLiteral("feel_hangs"))->click();
    QVERIFY(!assessment().size("big_end_1")->disagreement.empty());
    QCOMPARE(build().readings.back().replaces, build().readings[build().readings.size() - 2].id);
}

void TestSizeBenches::looseCap_isFlaggedAtEntry()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("big_end_4")); // its rod was never torqued
    type(bench.entry().cell(0), QStringLiteral("55"));
    QCOMPARE(build().readings.back().capTorqued, std::optional(false));
    QVERIFY(message(bench.entry()).contains(QStringLiteral("torque")));
    m_window->openBuild().selectStop(QStringLiteral("big_end_1"));
    type(bench.entry().cell(0), QStringLiteral("55"));
    QCOMPARE(build().readings.back().capTorqued, std::optional(true));
}

void TestSizeBenches::torqueCard_isTickedByTheSpaceBar()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    clearances("torque");
    auto *page = find<TorquePage>("torquePage");
    page->setFocus();
    QVERIFY(find<QLabel>("nextBolt")
                ->text()
                .contains(QStringLiteral("bolt 1, Main 3, stage 1: 30 N·m")));
    for (int i = 0; i < 10; ++i)
        QTest::keyClick(page, Qt::Key_Space);
    QVERIFY(find<QLabel>("nextBolt")
                ->text()
                .contains(QStringLiteral("bolt 1, Main 3, stage 2: 60 N·m")));
    for (int i = 0; i < 20; ++i)
        QTest::keyClick(page, Qt::Key_Space);
    QVERIFY(find<QLabel>("nextBolt")->text().contains(QStringLiteral("Measure now")));
    QVERIFY(!find<QPushButton>("tickNext")->isEnabled());
    QTest::keyClick(page, Qt::Key_Backspace); // the last one first
    QCOMPARE(build().ticks.back().fastener, 10);
    QCOMPARE(build().ticks.back().stage, 0);
}

void TestSizeBenches::torqueCard_boltsTakeClicks()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    clearances("torque");
    auto *picture = find<BoltPicture>("boltPicture");
    QTest::mouseClick(picture, Qt::LeftButton, {}, picture->placeOf(4).toPoint());
    QCOMPARE(build().ticks.size(), 1u);
    QCOMPARE(build().ticks.back().fastener, 4);
    QVERIFY(find<QLabel>("torqueMessage")->text().contains(QStringLiteral("before its turn")));
    QVERIFY(picture->accessibleName().contains(QStringLiteral("bolt 4 at stage 1 of 3")));
    QTest::mouseClick(picture, Qt::LeftButton, {}, QPoint(2, 2));
    QCOMPARE(build().ticks.size(), 1u);
}

void TestSizeBenches::torqueCard_allLooseIsOneUndo()
{
    clearances("torque");
    const Build before = build();
    find<QPushButton>("loosenAll")->click();
    QCOMPARE(capTorqued(build(), "main_1"), std::optional(false));
    m_window->openBuild().undoStack().undo();
    QVERIFY(build() == before);
}

void TestSizeBenches::shells_areWrittenDownAndUndone()
{
    clearances("shells");
    const Build before = build();
    const double promised = shellPlan(before, assessment().sizes, "main")->hotIdle.gauge.value_pa;
    QVERIFY(find<QLabel>("shellMessage")->text().contains(QStringLiteral("All within")));
    find<QPushButton>("fitShells")->click();
    QCOMPARE(build().shells.at("main").fitted.at("main_4").upper, std::string("plum"));
    QCOMPARE(build().shells.at("main").fitted.at("main_4").housingClass, std::string("3"));
    // Gauged with the old ones: every changed bearing wants the gauge again.
    QVERIFY(said(assessment().size("main_3")->verdict).find("other shells") != std::string::npos);
    // Gauged anew with what the plan promised, the forecast is what the plan showed.
    const auto plan = shellPlan(before, judgeSizes(before), "main");
    Build gauged = build();
    for (size_t i = 0; i < plan->stops.size(); ++i)
        for (const int station : { 1, 2 }) {
            // Gauged at 21 °C, so that the mean at 20 °C is the plan's.
            Reading r = gaugeReading(plan->stops[i], station, 90,
                                     plan->best.journals[i].clearance.value_m * 1e6);
            gauged = applyEdit(gauged, EnterReading { r }).value();
        }
    verifyClose(assess(gauged).operating.hotIdle.gauge.value_pa, promised, 2e-3);
    m_window->openBuild().undoStack().undo();
    QVERIFY(build() == before);
}

void TestSizeBenches::shells_stockIsChangedInThePanel()
{
    clearances("shells");
    auto *plum = inPanel<QuantityField>(QStringLiteral("stock.plum"));
    type(plum, QStringLiteral("0"));
    QCOMPARE(build().shells.at("main").find("plum")->halves, std::optional(0));
    auto *picture = find<ShellPicture>("shellPicture");
    QVERIFY(!picture->accessibleName().contains(QStringLiteral("plum")));
    type(inPanel<QuantityField>(QStringLiteral("stock.plum")), QStringLiteral("1.5"));
    QCOMPARE(build().shells.at("main").find("plum")->halves, std::optional(0)); // halves come whole
    for (const char *name : { "slate", "ochre", "moss", "rust" })
        type(inPanel<QuantityField>(QStringLiteral("stock.") + QLatin1String(name)),
             QStringLiteral("1"));
    QVERIFY(find<QLabel>("shellMessage")->text().contains(QStringLiteral("not enough halves")));
    QVERIFY(!find<QPushButton>("fitShells")->isEnabled());
}

void TestSizeBenches::shells_classesAndStampsAreEntered()
{
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    clearances("shells");
    const auto enter = [&](int kind, const char *name, const char *from, const char *to) {
        find<QComboBox>("classKind")->setCurrentIndex(kind);
        find<QLineEdit>("className")->setText(QString::fromLatin1(name));
        type(find<QuantityField>("classFrom"), QString::fromLatin1(from));
        if (kind > 0)
            type(find<QuantityField>("classTo"), QString::fromLatin1(to));
        find<QPushButton>("addClass")->click();
    };
    enter(0, "chalk", "2.012", "");
    verifyClose(build().shells.at("main").find("chalk")->wall_mm, 2.012, 1e-12);
    enter(1, "4", "64.061", "64.067");
    QCOMPARE(build().shells.at("main").housings.size(), 4u);
    enter(2, "D", "59.99", "59.98"); // ends before it begins
    QCOMPARE(build().shells.at("main").journals.size(), 3u);
    QVERIFY(find<QLabel>("shellMessage")->text().contains(QStringLiteral("least below most")));
    const auto choose = [&](const char *box, const char *text) {
        auto *combo = find<QComboBox>(box);
        const int index = combo->findText(QString::fromLatin1(text));
        QVERIFY2(index > 0, text);
        combo->setCurrentIndex(index);
        Q_EMIT combo->activated(index);
    };
    choose("stampedHousing", "4");
    QCOMPARE(build().shells.at("main").fitted.at("main_2").housingClass, std::string("4"));
    QCOMPARE(build().shells.at("main").fitted.at("main_2").upper, std::string("moss"));
    choose("fittedUpper", "rust");
    QCOMPARE(fittedShells(build(), "main", "main_2"), std::string("rust/moss"));
    // A click on a row takes that journal in hand.
    auto *picture = find<ShellPicture>("shellPicture");
    QTest::mouseClick(picture, Qt::LeftButton, {}, QPoint(60, picture->height() - 60));
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("main_5"));
}

void TestSizeBenches::cells_tellWhoAndWhen()
{
    ReadingsPage &bench = clearances();
    m_window->openBuild().selectStop(QStringLiteral("main_1"));
    QuantityField *cell = bench.entry().cell(0);
    QVERIFY2(cell->toolTip().contains(QStringLiteral("J. Moor")), qPrintable(cell->toolTip()));
    type(cell, QStringLiteral("49"));
    QVERIFY(cell->toolTip().contains(QStringLiteral("before: 47.5 µm")));
}

void TestSizeBenches::feedHoles_areEnteredInThePanel()
{
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    clearances("feed_holes");
    const int holds = assessment().holds();
    type(inPanel<QuantityField>(QStringLiteral("stop.main_2.hole_offset_mm")),
         QStringLiteral("3 mm"));
    QCOMPARE(assessment().holds(), holds); // it does not starve: it is for another look
    QCOMPARE(assessment().checks.find("feed@main_2")->evident, Evident::Unsure);
    auto *page = find<FeedPage>("feedPage");
    QTest::mouseClick(page, Qt::LeftButton, {}, page->placeOf(QStringLiteral("main_5")).toPoint());
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("main_5"));
    QVERIFY(page->accessibleName().contains(QStringLiteral("covered")));
}

void TestSizeBenches::feedHoles_showTheGrooveChosen()
{
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    clearances("feed_holes");
    const double before = assessment().operating.hotIdle.gauge.value_pa;
    const auto press = [&](const QString &text) {
        QApplication::processEvents();
        for (QPushButton *b : m_window->sidePanel().findChildren<QPushButton *>())
            if (b->text() == text) {
                b->click();
                return true;
            }
        return false;
    };
    QVERIFY(press(QStringLiteral("Groove all round")));
    QCOMPARE(build().engine.find("main_2")->value("groove_deg"), 360.0);
    QVERIFY(assessment().operating.hotIdle.gauge.value_pa < before);
    QVERIFY(press(QStringLiteral("Journal is drilled across")));
    QVERIFY(press(QStringLiteral("Journal is not drilled across")));
}

void TestSizeBenches::parts_areTicked()
{
    clearances("parts");
    auto *box = find<QCheckBox>("check.big_end_4.rod_caps");
    QVERIFY(box && !box->isChecked());
    box->click();
    QVERIFY(standingCheck(build(), "big_end_4", "rod_caps"));
    QVERIFY(find<QCheckBox>("check.big_end_4.rod_caps")->isChecked());
    box = find<QCheckBox>("check.main_1.main_tangs");
    QVERIFY(box->isChecked());
    box->click(); // seen to be wrong
    QCOMPARE(markWord(assessment().marksOf("main_1")->size), markWord(Mark::LookAgain));
    m_window->openBuild().undoStack().undo();
    QVERIFY(find<QCheckBox>("check.main_1.main_tangs")->isChecked());
}

void TestSizeBenches::parts_areWeighed()
{
    clearances("parts");
    QVERIFY(find<QLabel>("spread.piston")->text().contains(QStringLiteral("check again")));
    type(find<QuantityField>("weight.piston.3"), QStringLiteral("418.4"));
    QVERIFY2(find<QLabel>("spread.piston")->text().contains(QStringLiteral("proven")),
             qPrintable(find<QLabel>("spread.piston")->text()));
    QCOMPARE(build().weighings.back().item, 3);
}

void TestSizeBenches::limits_ofANewFamilyCanBeSet()
{
    clearances().chooseFamily("small_end");
    QApplication::processEvents();
    type(inPanel<QuantityField>(QStringLiteral("limit.small_end.max_um")), QStringLiteral("20"));
    QCOMPARE(build().limits.at("small_end").max_um, 20.0);
    QCOMPARE(markWord(assessment().size("small_ends", "small_end", 4)->mark),
             markWord(Mark::LookAgain));
    Build without = build();
    without.limits.erase("small_end");
    m_window->openBuild().open(without, {});
    clearances().chooseFamily("small_end");
    QApplication::processEvents();
    type(inPanel<QuantityField>(QStringLiteral("limit.small_end.max_um")), QStringLiteral("30"));
    QCOMPARE(build().limits.at("small_end").max_um, 30.0);
}

} // namespace tst_sizebenches

MILDPATH_TEST(tst_sizebenches, TestSizeBenches)
#include "tst_sizebenches.moc"
