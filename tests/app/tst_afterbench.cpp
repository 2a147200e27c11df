// SPDX-License-Identifier: GPL-3.0-or-later
// The bench After run as hands use it: cuts and samples typed, settled, taken back; the engine
// opened again; noises; the shelf.
#include "bench/after/afterbench.h"
#include "bench/after/cutviews.h"
#include "bench/after/filterpage.h"
#include "bench/after/heardpage.h"
#include "bench/after/oillanes.h"
#include "bench/after/oilpage.h"
#include "bench/after/recheckpage.h"
#include "bench/after/shelfpage.h"
#include "checks/assessment.h"
#include "entry/rowlist.h"
#include "historyfixture.h"

#include <QTemporaryDir>

using namespace mildpath;

namespace tst_afterbench {

class TestAfterBench : public QObject, HistoryFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { openHistory(); }
    void cleanup() { m_window.reset(); }
    void cut_isTypedJudgedSettledAndUndone();
    void cut_withoutHoursIsRefusedAndKept();
    void cut_atHoursThatAreThereIsRefused();
    void cutPicture_isWalkedByClickAndKey();
    void cutTable_isTakenWholeOrNotAtAll();
    void sample_isTypedAsTheLaboratoryWritesIt();
    void elements_areReadOrRefused_data();
    void elements_areReadOrRefused();
    void newOil_asksForNoHours();
    void oilPanel_namesPartsAndForecast();
    void opening_andReadingsAfterItStandApart();
    void passageMadeOtherwise_isComparedKeptAndMade();
    void noise_goesIntoTheDiagnosis();
    void shelf_opensComparesAndOpensABuild();
    void everything_survivesSaving();

private:
    AfterBench &bench(const char *at) { return page<AfterBench>("after", at); }
    const Build &build() { return document().build(); }
};

void TestAfterBench::cut_isTypedJudgedSettledAndUndone()
{
    bench("filter");
    const size_t before = build().filterCuts.size();
    enter("cut.engine_hours_h", "290");
    enter("cut.filter_hours_h", "50 h");
    enter("cut.area_cm2", "40000 mm2"); // any unit of its kind
    enter("cut.note", "second season");
    enter("cut.bright.pleats", "1");
    enter("cut.copper.pleats", "2");
    enter("cut.copper.largest", "0.3");
    click("cut.record");
    QCOMPARE(said("cut.refusal"), QString());
    QCOMPARE(build().filterCuts.size(), before + 1);
    const FilterCut &cut = build().filterCuts.back();
    QCOMPARE(cut.area_cm2, 400.0);
    QCOMPARE(cut.count("copper"), std::optional(2));
    QCOMPARE(cut.count("magnetic"), std::optional<int>());
    QVERIFY(!cut.by.empty() && !cut.at.empty());
    QVERIFY(panelText().contains(u"copper colour: bearings first"));
    const int holds = document().assessment().holds();
    writeWord("cut.settled", "shells of big-end 3 renewed");
    QCOMPARE(document().assessment().holds(), holds - 1);
    QCOMPARE(standing(build().filterCuts).back()->settled,
             std::string("shells of big-end 3 renewed"));
    document().undoStack().undo();
    document().undoStack().undo();
    QCOMPARE(build().filterCuts.size(), before);
}

void TestAfterBench::cut_withoutHoursIsRefusedAndKept()
{
    bench("filter");
    const size_t before = build().filterCuts.size();
    enter("cut.bright.pleats", "4");
    click("cut.record");
    QVERIFY(said("cut.refusal").contains(u"hours"));
    QCOMPARE(find<QLineEdit>("cut.bright.pleats")->text(), QStringLiteral("4")); // nothing lost
    enter("cut.engine_hours_h", "300");
    enter("cut.filter_hours_h", "10");
    enter("cut.area_cm2", "400");
    enter("cut.bright.pleats", "4.5");
    click("cut.record");
    QCOMPARE(build().filterCuts.size(), before);
    enter("cut.engine_hours_h", "-5");
    enter("cut.bright.pleats", "4");
    click("cut.record");
    QVERIFY2(!said("cut.refusal").isEmpty(), "negative hours");
    QCOMPARE(build().filterCuts.size(), before);
}

void TestAfterBench::cut_atHoursThatAreThereIsRefused()
{
    bench("filter");
    const size_t before = build().filterCuts.size();
    enter("cut.engine_hours_h", "215");
    enter("cut.filter_hours_h", "50");
    enter("cut.area_cm2", "400");
    enter("cut.bright.pleats", "1");
    click("cut.record");
    QVERIFY(said("cut.refusal").contains(u"215"));
    QCOMPARE(build().filterCuts.size(), before);
}

void TestAfterBench::cutPicture_isWalkedByClickAndKey()
{
    bench("filter");
    QVERIFY(panelText().contains(u"Cut at 215 h"));
    auto *chart = find<CutChart>("cutChart");
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Left);
    QVERIFY(panelText().contains(u"Cut at 165 h"));
    clickAt(chart, QPointF(chart->width() - 40, chart->height() / 2.0));
    QVERIFY(panelText().contains(u"Cut at 215 h"));
    QVERIFY(chart->accessibleDescription().contains(u"copper colour: bearings first"));
    auto *comparison = find<CutComparison>("cutComparison");
    QVERIFY(comparison->accessibleDescription().contains(u"5.0 times"));
    choose(inPanel<QComboBox>(QStringLiteral("cut.against")), QStringLiteral("the cut at 65 h"));
    QVERIFY(comparison->accessibleDescription().contains(u"magnetic: 1.0 times"));
    choose(inPanel<QComboBox>(QStringLiteral("cut.against")),
           QStringLiteral("the like one before"));
    QVERIFY(comparison->accessibleDescription().contains(u"5.0 times"));
}

void TestAfterBench::cutTable_isTakenWholeOrNotAtAll()
{
    bench("filter");
    QTemporaryDir dir;
    const auto file = [&](const char *text) {
        const QString path = dir.filePath(QStringLiteral("cuts.csv"));
        [&] { QVERIFY(writeTextFile(path.toStdString(), text)); }();
        return path;
    };
    const size_t before = build().filterCuts.size();
    QVERIFY(!m_window->importFile(QStringLiteral("evidence"),
                                  file("engine_hours_h,filter_hours_h,area_cm2,bright_pleats\n"
                                       "300,50,400,2\n340,-1,400,1\n")));
    QCOMPARE(build().filterCuts.size(), before);
    QVERIFY(m_window->messageBar().text().contains(u"line 3, filter_hours_h"));
    // What the table cannot see, the document does: nothing is left behind either.
    QVERIFY(!m_window->importFile(QStringLiteral("evidence"),
                                  file("engine_hours_h,filter_hours_h,area_cm2,bright_pleats\n"
                                       "300,50,400,2\n340,400,400,1\n")));
    QCOMPARE(build().filterCuts.size(), before);
    QVERIFY(m_window->importFile(QStringLiteral("evidence"),
                                 file("engine_hours_h,filter_hours_h,area_cm2,bright_pleats\n"
                                      "300,50,400,2\n340,40,400,1\n")));
    QCOMPARE(build().filterCuts.size(), before + 2);
}

void TestAfterBench::sample_isTypedAsTheLaboratoryWritesIt()
{
    bench("oil");
    const size_t before = build().oilSamples.size();
    enter("oil.oil", "15W-40, drum 3");
    enter("oil.engine_hours_h", "290");
    enter("oil.oil_hours_h", "50");
    enter("oil.oil_added_kg", "0.3");
    enter("oil.fuel_percent", "0.5");
    enter("oil.kv100_mm2_s", "13.8");
    enter("oil.elements", "Fe 13, Cu: 4; Pb 2 Zn 1105"); // Enter in the last field records
    QCOMPARE(said("oil.refusal"), QString());
    QCOMPARE(build().oilSamples.size(), before + 1);
    QCOMPARE(build().oilSamples.back().elements.at("Cu"), 4.0);
    QVERIFY(panelText().contains(u"Sample at 290 h"));
    // After two samples that rang this one is as this engine's own.
    QVERIFY(panelText().contains(u"as this engine's own"));
    enter("oil.engine_hours_h", "290");
    enter("oil.oil_hours_h", "20");
    enter("oil.elements", "Fe 3");
    QVERIFY(said("oil.refusal").contains(u"290"));
    QCOMPARE(build().oilSamples.size(), before + 1);
}

void TestAfterBench::elements_areReadOrRefused_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<int>("found");
    QTest::newRow("commas") << QStringLiteral("Fe 32, Cu 18, Pb 9") << 3;
    QTest::newRow("lower case, equals") << QStringLiteral("fe=32 cu=1.5") << 2;
    QTest::newRow("nothing") << QStringLiteral("") << 0;
    QTest::newRow("no such element") << QStringLiteral("Xx 3") << -1;
    QTest::newRow("twice") << QStringLiteral("Fe 3, Fe 4") << -1;
    QTest::newRow("a word") << QStringLiteral("Fe low") << -1;
    QTest::newRow("a unit") << QStringLiteral("Fe 3 %") << -1;
}

void TestAfterBench::elements_areReadOrRefused()
{
    QFETCH(QString, text);
    QFETCH(int, found);
    const auto out = elementsFromText(text);
    QCOMPARE(out ? static_cast<int>(out->size()) : -1, found);
    if (!out)
        QVERIFY(!out.error().message.empty());
}

void TestAfterBench::newOil_asksForNoHours()
{
    bench("oil");
    choose(find<QComboBox>("oil.of"), QStringLiteral("the new oil"));
    QVERIFY(!find<QLineEdit>("oil.engine_hours_h")->isVisible());
    enter("oil.oil", "15W-40, drum 4");
    enter("oil.elements", "Zn 1150, Mo 44");
    QCOMPARE(build().oilSamples.back().of, std::string("new"));
    QVERIFY(panelText().contains(u"Sample at 240 h")); // the picture stays with oil that ran
}

void TestAfterBench::oilPanel_namesPartsAndForecast()
{
    bench("oil");
    const QString text = panelText();
    QVERIFY(text.contains(u"copper and lead: bearings"));
    QVERIFY(text.contains(u"Common practice: from bearings"));
    QVERIFY(text.contains(u"fuel explains"));
    auto *lanes = find<OilLanes>("oilLanes");
    lanes->setFocus();
    QTest::keyClick(lanes, Qt::Key_Left);
    QVERIFY(panelText().contains(u"Sample at 215 h"));
    for (int i = 0; i < 8; ++i)
        QTest::keyClick(lanes, Qt::Key_Down);
    QVERIFY(panelText().contains(u"New oil may carry it: anti-wear"));
    // Without the new oil nothing is taken for wear, and that is said.
    for (const OilSample *s : standing(build().oilSamples))
        if (s->of == "new")
            QVERIFY(document().takeBack("oil_samples", s->id));
    QApplication::processEvents();
    QVERIFY(panelText().contains(u"no analysis of the new oil"));
}

void TestAfterBench::opening_andReadingsAfterItStandApart()
{
    bench("recheck");
    QVERIFY(panelText().contains(u"Big-end 3"));
    enter("opening.engine_hours_h", "300");
    enter("opening.note", "look again");
    click("opening.record");
    QVERIFY(panelText().contains(u"Opened at 300 h"));
    EnterReadings some;
    for (const int station : { 1, 2 })
        some.readings.push_back(gaugeReading("main_2", station, 90, 61));
    QVERIFY(document().edit(some));
    QApplication::processEvents();
    auto *view = find<RecheckView>("recheckView");
    QVERIFY2(view->accessibleDescription().startsWith(u"Main 2"),
             qPrintable(view->accessibleDescription()));
    clickAt(view, QPointF(60, 18));
    QCOMPARE(document().selectedStop(), QStringLiteral("main_2"));
    choose(find<QComboBox>("openings"), QStringLiteral("opened at 240 h"));
    QVERIFY(view->accessibleDescription().contains(u"Big-end 3"));
}

void TestAfterBench::passageMadeOtherwise_isComparedKeptAndMade()
{
    bench("recheck");
    auto *element = find<QComboBox>("modified.element");
    element->setCurrentIndex(element->findData(QStringLiteral("gallery_feed")));
    enter("modified.value", "5");
    click("modified.compare");
    QTRY_VERIFY(said("modified.said").contains(u"as it was"));
    const size_t scenarios = build().scenarios.size();
    clickInPanel("modified.keep");
    QCOMPARE(build().scenarios.size(), scenarios + 1);
    QCOMPARE(build().scenarios.back().changes.front().value, 5.0);
    QVERIFY(build().circuit.find("gallery_feed")->value("d_mm") == 13.0);
    // It stays in sight, and is not offered to be kept twice.
    QTRY_VERIFY(said("modified.said").contains(u"as it was"));
    QTRY_VERIFY(!inPanel<QPushButton>(QStringLiteral("modified.keep")));
    QVERIFY(inPanel<QPushButton>(QStringLiteral("modified.make")));
    clickInPanel("modified.make");
    QCOMPARE(build().circuit.find("gallery_feed")->value("d_mm"), 5.0);
    document().undoStack().undo();
    QCOMPARE(build().circuit.find("gallery_feed")->value("d_mm"), 13.0);
    enter("modified.value", "-3");
    click("modified.compare");
    QTRY_VERIFY(!said("modified.refusal").isEmpty());
}

void TestAfterBench::noise_goesIntoTheDiagnosis()
{
    bench("heard");
    choose(find<QComboBox>("heard.sound"), QStringLiteral("rattle"));
    choose(find<QComboBox>("heard.when"), QStringLiteral("first seconds, cold"));
    enter("heard.gone_above_rpm", "1200");
    click("heard.record");
    const Symptom &s = build().symptoms.back();
    QCOMPARE(s.symptom, std::string("rattle_cold"));
    QCOMPARE(*s.gone_above_rpm, 1200.0);
    QVERIFY(panelText().contains(u"suction"));
    // Said again it is corrected: one symptom speaks once.
    enter("heard.gone_above_rpm", "1500");
    click("heard.record");
    int rattles = 0;
    for (const Symptom *one : standing(build().symptoms))
        rattles += one->symptom == "rattle_cold";
    QCOMPARE(rattles, 1);
    clickInPanel("heard.diagnose");
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Forecast"));
    bench("heard");
    choose(find<QComboBox>("heard.sound"), QStringLiteral("whine"));
    choose(find<QComboBox>("heard.when"), QStringLiteral("always"));
    click("heard.record");
    QVERIFY(panelText().contains(u"knows no fault for it"));
}

void TestAfterBench::shelf_opensComparesAndOpensABuild()
{
    QTemporaryDir dir;
    std::filesystem::copy_file(historyPath(),
                               dir.filePath(QStringLiteral("one.mildpath")).toStdString());
    std::filesystem::copy_file(demoBuildPath(),
                               dir.filePath(QStringLiteral("two.mildpath")).toStdString());
    QVERIFY(writeTextFile(dir.filePath(QStringLiteral("torn.mildpath")).toStdString(),
                          "{\"format\": \"mild"));
    ShelfPage &shelf = bench("shelf").shelf();
    shelf.setFolder(dir.path());
    QTRY_VERIFY(!shelf.busy());
    auto *list = find<RowList>("shelf.list");
    QCOMPARE(list->rows().size(), size_t(3));
    QCOMPARE(list->rows()[1].mark, Mark::LookAgain);
    QVERIFY(list->rows()[1].cells[1].contains(u"damaged"));
    auto *quantity = find<QComboBox>("shelf.quantity");
    quantity->setCurrentIndex(quantity->findData(QStringLiteral("size.big_end")));
    click("shelf.compare");
    QTRY_VERIFY(!shelf.busy());
    QVERIFY(list->rows()[0].cells[3].startsWith(u"62."));
    QVERIFY(said("shelf.said").contains(u"2 of 3"));
    QCOMPARE(shelf.exportTable(dir.filePath(QStringLiteral("table.csv"))), QString());
    QVERIFY(readTextFile(dir.filePath(QStringLiteral("table.csv")).toStdString())->find("torn")
            != std::string::npos);
    auto *search = find<QLineEdit>("shelf.search");
    search->setFocus();
    QTest::keyClicks(search, QStringLiteral("240"));
    QCOMPARE(list->rows().size(), size_t(1));
    search->clear();
    QTest::mouseClick(list, Qt::LeftButton, {}, QPoint(60, 2 * RowList::rowHeight + 8));
    QApplication::processEvents();
    clickInPanel("shelf.open");
    QCOMPARE(document().path(), dir.filePath(QStringLiteral("two.mildpath")));
}

void TestAfterBench::everything_survivesSaving()
{
    QTemporaryDir dir;
    const Build before = build();
    QVERIFY(m_window->saveTo(dir.filePath(QStringLiteral("kept.mildpath"))));
    QVERIFY(m_window->openFile(dir.filePath(QStringLiteral("kept.mildpath"))));
    QVERIFY(build() == before);
}

} // namespace tst_afterbench

MILDPATH_TEST(tst_afterbench, TestAfterBench)
#include "tst_afterbench.moc"
