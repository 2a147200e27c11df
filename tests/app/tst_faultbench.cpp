// SPDX-License-Identifier: GPL-3.0-or-later
#include "benchfixture.h"

#include "bench/forecast/diagnosispage.h"
#include "bench/forecast/forecastbench.h"
#include "bench/forecast/remedypage.h"
#include "bench/route/flowpage.h"
#include "bench/route/linespage.h"
#include "bench/route/routebench.h"
#include "bench/route/routemap.h"
#include "diagnose/whatif.h"
#include "entry/rowlist.h"
#include "quantity/json.h"

#include <QCheckBox>
#include <QProcess>
#include <QSlider>
#include <QTemporaryDir>
#include <QUndoStack>

using namespace mildpath;

/// What if, lines, flow seen, remedies and finding the fault, through the widgets.
class TestFaultBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void everyStop_offersItsFaults();
    void whatIf_showsBeforeAndAfter();
    void whatIf_isNotInTheDocumentUntilKept();
    void severalFaults_areImaginedTogether();
    void item_isChosenAmongMany();
    void scenario_survivesSavingAndIsTakenOff();
    void otherDocument_forgetsWhatWasImagined();
    void usualLines_areDrawnAndSeen();
    void swappedLines_holdTheStart();
    void port_isCappedAndJoined();
    void filterBuild_turnsItsPorts();
    void flow_isRecordedOutletByOutlet();
    void flow_isTakenBackAndUndone();
    void flow_walksByKeys();
    void flows_compareWithAnotherBuild();
    void remedies_areThoseOfTheCore();
    void remedies_takeWhatIsImagined();
    void reading_isRecordedAndJudged();
    void readingAgain_correctsTheFirst();
    void badReading_isRefused();
    void symptom_isSaidAndUnsaid();
    void diagnosis_agreesWithTheCommandLine();
    void candidate_opensAsWhatIf();
    void nextReading_fillsTheForm();
    void everything_survivesSavingAndReopening();

private:
    RouteBench &route(int page)
    {
        m_window->showBench(QStringLiteral("Route"));
        auto &b = static_cast<RouteBench &>(*m_window->currentBench());
        b.showPage(page);
        QApplication::processEvents();
        return b;
    }
    ForecastBench &forecast(int page)
    {
        m_window->showBench(QStringLiteral("Forecast"));
        auto &b = static_cast<ForecastBench &>(*m_window->currentBench());
        b.showPage(page);
        QApplication::processEvents();
        return b;
    }
    OpenBuild &document() { return m_window->openBuild(); }
    void select(const char *stop)
    {
        document().selectStop(QString::fromLatin1(stop));
        QApplication::processEvents();
    }
    void imagine(const QString &fault)
    {
        choose(inPanel<QComboBox>(QStringLiteral("whatIf.add")), fault);
    }
    void slide(const QString &id, int value)
    {
        auto *slider = inPanel<QSlider>(id);
        QVERIFY2(slider, qPrintable(id));
        slider->setValue(value);
        QApplication::processEvents();
    }
    /// Words of the panel, joined.
    QString panelText()
    {
        QStringList out;
        for (const PanelItem &i : m_window->currentBench()->panel())
            std::visit(
                [&]<class T>(const T &item) {
                    if constexpr (requires { item.text; })
                        out << item.text;
                    if constexpr (requires { item.detail; })
                        out << item.detail;
                },
                i);
        return out.join(u'\n');
    }
    const PanelChange *change(const PanelContent &content, const QString &label)
    {
        for (const PanelItem &i : content)
            if (const auto *c = std::get_if<PanelChange>(&i); c && c->label == label)
                return c;
        return nullptr;
    }
    const Diagnosis *diagnosis()
    {
        auto *page = find<DiagnosisPage>("diagnosisPage");
        auto *cancel = find<QPushButton>("cancelDiagnosis");
        [&] { QTRY_VERIFY_WITH_TIMEOUT(page->shown() && !cancel->isVisible(), 60000); }();
        return page->shown();
    }
    void readGauge(const QString &tap, const char *rpm, const char *oil, const char *pressure)
    {
        choose(inPanel<QComboBox>(QStringLiteral("reading.tap")), tap);
        type(inPanel<QuantityField>(QStringLiteral("reading.rpm")), QString::fromLatin1(rpm));
        type(inPanel<QuantityField>(QStringLiteral("reading.oil")), QString::fromLatin1(oil));
        type(inPanel<QuantityField>(QStringLiteral("reading.pressure")),
             QString::fromLatin1(pressure));
    }
};

void TestFaultBench::everyStop_offersItsFaults()
{
    route(1);
    for (const Stop &stop : build().engine.stops) {
        document().selectStop(qs(stop.id));
        QApplication::processEvents();
        const auto faults = faultsAt(build(), stop);
        auto *combo = inPanel<QComboBox>(QStringLiteral("whatIf.add"));
        QCOMPARE(combo ? combo->count() : 0, static_cast<int>(faults.size()));
        if (stop.kind != "small_end")
            QVERIFY2(combo, stop.id.c_str());
    }
}

void TestFaultBench::whatIf_showsBeforeAndAfter()
{
    RouteBench &b = route(1);
    select("main_2");
    imagine(QStringLiteral("shell spun"));
    const auto core = whatIf(build(), assessment(), document().imagined(), 800, 100);
    QVERIFY(core);
    const PanelContent content = b.panel();
    const PanelChange *main = change(content, QStringLiteral("Main 2"));
    QVERIFY(main);
    double before = 0, after = 0;
    for (size_t i = 0; i < core->after.points.size(); ++i)
        if (core->after.points[i].name == "Main 2") {
            before = core->before.points[i].pressure_pa;
            after = core->after.points[i].pressure_pa;
        }
    QCOMPARE(main->before.text(), Figure::pressure(before).text());
    QCOMPARE(main->after.text(), Figure::pressure(after).text());
    QVERIFY(after < 0.8 * before);
    QVERIFY(panelText().contains(QStringLiteral("does not show")));
    QVERIFY(find<QLabel>("route.subtitle")->text().contains(QStringLiteral("98 % covered")));
    // Less of it does less, and the slider stays in the hand while what is said below changes.
    const auto *held = inPanel<QSlider>(QStringLiteral("whatIf.0.severity"));
    slide(QStringLiteral("whatIf.0.severity"), 50);
    QCOMPARE(inPanel<QSlider>(QStringLiteral("whatIf.0.severity")), held);
    QCOMPARE(document().imagined().front().severity, 0.5);
    const PanelContent half = b.panel();
    QVERIFY(change(half, QStringLiteral("Main 2"))->after.text() != main->after.text());
    clickInPanel("whatIf.0.away");
    QVERIFY(document().imagined().empty());
    QVERIFY(find<QLabel>("route.subtitle")->text().isEmpty());
}

void TestFaultBench::whatIf_isNotInTheDocumentUntilKept()
{
    route(1);
    const size_t before = build().scenarios.size();
    select("relief");
    imagine(QStringLiteral("relief stuck open"));
    QVERIFY(!document().isModified());
    QCOMPARE(build().scenarios.size(), before);
    // The strip goes on telling the engine as it is.
    QCOMPARE(assessment().hotIdle.gauge.value_pa, document().assessment().hotIdle.gauge.value_pa);
    clickInPanel("whatIf.keep");
    QCOMPARE(build().scenarios.size(), before + 1);
    QVERIFY(build().scenarios.back().faults == document().imagined());
    document().undoStack().undo();
    QCOMPARE(build().scenarios.size(), before);
    QVERIFY(!document().imagined().empty()); // still on the map
    clickInPanel("whatIf.drop");
    QVERIFY(document().imagined().empty());
}

void TestFaultBench::severalFaults_areImaginedTogether()
{
    RouteBench &b = route(1);
    select("pump");
    imagine(QStringLiteral("pump worn"));
    const QString one = change(b.panel(), QStringLiteral("gauge"))->after.text();
    select("relief");
    imagine(QStringLiteral("relief stuck open"));
    QCOMPARE(document().imagined().size(), size_t(2));
    QVERIFY(change(b.panel(), QStringLiteral("gauge"))->after.text() != one);
    // The same again is refused beside the choice.
    imagine(QStringLiteral("relief stuck open"));
    QCOMPARE(document().imagined().size(), size_t(2));
    // Worse and worse: stops starve one after the other, the panel grows below the slider.
    const auto *held = inPanel<QSlider>(QStringLiteral("whatIf.1.severity"));
    QVERIFY(held);
    slide(QStringLiteral("whatIf.0.severity"), 5);
    slide(QStringLiteral("whatIf.1.severity"), 1);
    const size_t items = b.panel().size();
    slide(QStringLiteral("whatIf.1.severity"), 100);
    QVERIFY(b.panel().size() > items);
    QCOMPARE(inPanel<QSlider>(QStringLiteral("whatIf.1.severity")), held);
}

void TestFaultBench::item_isChosenAmongMany()
{
    route(1);
    select("main_gallery");
    imagine(QStringLiteral("swarf in the way"));
    choose(inPanel<QComboBox>(QStringLiteral("whatIf.0.item")), QStringLiteral("gallery 34"));
    QCOMPARE(faultId(document().imagined().front()), std::string("swarf@main_gallery.4"));
}

void TestFaultBench::scenario_survivesSavingAndIsTakenOff()
{
    route(1);
    select("filter");
    imagine(QStringLiteral("filter clogged"));
    slide(QStringLiteral("whatIf.0.severity"), 40);
    clickInPanel("whatIf.keep");
    QTemporaryDir dir;
    const QString path = dir.filePath(QStringLiteral("kept.mildpath"));
    QVERIFY(document().save(path));
    QVERIFY(m_window->openFile(path));
    QVERIFY(document().imagined().empty());
    route(1);
    choose(inPanel<QComboBox>(QStringLiteral("whatIf.kept")),
           qs(build().scenarios.back().name));
    QCOMPARE(document().imagined().front().kind, std::string("filter_clogged"));
    QCOMPARE(document().imagined().front().severity, 0.4);
    const size_t standingBefore = standing(build().scenarios).size();
    clickInPanel("whatIf.takeBack");
    QCOMPARE(standing(build().scenarios).size(), standingBefore - 1);
}

void TestFaultBench::otherDocument_forgetsWhatWasImagined()
{
    route(1);
    select("pump");
    imagine(QStringLiteral("pump worn"));
    QVERIFY(m_window->openTemplate(QStringLiteral("v6-four-cam")));
    QVERIFY(document().imagined().empty());
    QVERIFY(find<QLabel>("route.subtitle")->text().isEmpty());
}

void TestFaultBench::usualLines_areDrawnAndSeen()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("v8-dry-sump")));
    route(2);
    auto *list = find<RowList>("lines.list");
    QCOMPARE(list->rows().size(), build().plumbing.lines.size());
    QVERIFY(find<QLabel>("lines.verdict")->text().contains(QStringLiteral("0 of 9 seen")));
    clickAt(list, QPointF(60, RowList::rowHeight * 4.5));
    clickInPanel("line.seen");
    QVERIFY(!build().plumbing.lines[4].by.empty());
    QVERIFY(find<QLabel>("lines.verdict")->text().contains(QStringLiteral("1 of 9 seen")));
    // All off, then drawn anew.
    while (!build().plumbing.lines.empty()) {
        clickAt(list, QPointF(60, RowList::rowHeight * 0.5));
        clickInPanel("line.drop");
    }
    clickInPanel("lines.draw");
    QCOMPARE(build().plumbing.lines.size(), size_t(9));
}

/// Swapped filter lines: pressure at the filter's head, none at the bearings, and a hold.
void TestFaultBench::swappedLines_holdTheStart()
{
    route(2);
    inPanel<QCheckBox>(QStringLiteral("filter.remote"))->click();
    QApplication::processEvents();
    QVERIFY(build().plumbing.remoteFilter);
    clickInPanel("lines.draw");
    const int before = assessment().holds();
    const auto turn = [&](int row, const char *end, const QString &to) {
        clickAt(find<RowList>("lines.list"), QPointF(60, RowList::rowHeight * (row + 0.5)));
        choose(inPanel<QComboBox>(QString::fromLatin1(end)), to);
    };
    turn(0, "line.to", QStringLiteral("Filter head, centre thread"));
    turn(1, "line.from", QStringLiteral("Filter head, ring of holes"));
    QVERIFY(assessment().lines.trace.filterReversed);
    QVERIFY(panelText().contains(QStringLiteral("check valve shuts")));
    QVERIFY(assessment().holds() > before);
    QCOMPARE(assessment().marksOf("filter")->flow, Mark::Hold);
    QVERIFY(assessment().hotIdle.nodePressure_pa.at("filt_in") > 4e5);
    QVERIFY(assessment().hotIdle.gauge.value_pa < 2e3);
    QVERIFY(find<QLabel>("lines.verdict")->text().contains(QStringLiteral("holds the start")));
    document().undoStack().undo();
    document().undoStack().undo();
    QCOMPARE(assessment().holds(), before);
}

void TestFaultBench::port_isCappedAndJoined()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("v8-dry-sump")));
    route(2);
    auto *diagram = find<LinesDiagram>("linesDiagram");
    clickAt(diagram, diagram->placeOf("engine.in"));
    auto *cap = inPanel<QCheckBox>(QStringLiteral("port.capped"));
    QVERIFY(cap);
    cap->click();
    QApplication::processEvents();
    QVERIFY(build().plumbing.capped == std::vector<std::string> { "engine.in" });
    QVERIFY(panelText().contains(QStringLiteral("Capped")));
    inPanel<QCheckBox>(QStringLiteral("port.capped"))->click();
    QApplication::processEvents();
    QVERIFY(build().plumbing.capped.empty());
    choose(inPanel<QComboBox>(QStringLiteral("port.join")), QStringLiteral("Tank, return"));
    QCOMPARE(build().plumbing.lines.back().from, std::string("engine.in"));
    QVERIFY(panelText().contains(QStringLiteral("In to in")));
    QVERIFY(panelText().contains(QStringLiteral("Two lines at")));
}

void TestFaultBench::filterBuild_turnsItsPorts()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("v8-dry-sump")));
    route(2);
    choose(inPanel<QComboBox>(QStringLiteral("filter.build")),
           QStringLiteral("cartridge, inside to outside"));
    QVERIFY(panelText().contains(QStringLiteral("lines are swapped")));
    choose(inPanel<QComboBox>(QStringLiteral("filter.build")),
           QStringLiteral("cartridge, outside to inside"));
    QVERIFY(!panelText().contains(QStringLiteral("swapped")));
}

void TestFaultBench::flow_isRecordedOutletByOutlet()
{
    route(3);
    auto *board = find<FlowBoard>("flowBoard");
    clickAt(board, board->placeOf("lifter_gallery", 7));
    QCOMPARE(document().selectedStop(), QStringLiteral("lifter_gallery"));
    choose(inPanel<QComboBox>(QStringLiteral("flow.means")), QStringLiteral("drill on the pump"));
    type(inPanel<QuantityField>(QStringLiteral("flow.oil_c")), QStringLiteral("70 °F"));
    clickInPanel("flow.dry");
    const FlowSeen &f = build().flows.back();
    QCOMPARE(f.stop, std::string("lifter_gallery"));
    QCOMPARE(f.outlet, 7);
    QCOMPARE(f.saw, std::string("dry"));
    QCOMPARE(f.means, std::string("drill"));
    QCOMPARE(f.oil, build().oil.grade);
    verifyClose(*f.oil_c, 21.11, 0.001);
    QCOMPARE(assessment().marksOf("lifter_gallery")->flow, Mark::Hold);
    // The next keeps how it is looked for.
    clickAt(board, board->placeOf("lifter_gallery", 8));
    clickInPanel("flow.flows");
    QCOMPARE(build().flows.back().outlet, 8);
    QCOMPARE(build().flows.back().means, std::string("drill"));
    QVERIFY(build().flows.back().oil_c);
}

void TestFaultBench::flow_isTakenBackAndUndone()
{
    route(3);
    select("main_3");
    const size_t before = standing(build().flows).size();
    clickInPanel("flow.weak");
    QCOMPARE(assessment().marksOf("main_3")->flow, Mark::LookAgain);
    clickInPanel(("flow.takeBack." + build().flows.back().id).c_str());
    QCOMPARE(standing(build().flows).size(), before);
    QVERIFY(assessment().marksOf("main_3")->flow != Mark::LookAgain);
    document().undoStack().undo();
    QCOMPARE(assessment().marksOf("main_3")->flow, Mark::LookAgain);
    document().undoStack().undo();
    QCOMPARE(standing(build().flows).size(), before);
}

void TestFaultBench::flow_walksByKeys()
{
    route(3);
    select("cooling_jets");
    auto *board = find<FlowBoard>("flowBoard");
    board->setFocus();
    QTest::keyClick(board, Qt::Key_Right);
    QTest::keyClick(board, Qt::Key_Right);
    QVERIFY(panelText().contains(QStringLiteral("Jet 2")));
    QTest::keyClick(board, Qt::Key_Down);
    QCOMPARE(document().selectedStop(), QStringLiteral("chain_jet"));
    QTest::keyClick(board, Qt::Key_Up);
    QCOMPARE(document().selectedStop(), QStringLiteral("cooling_jets"));
    QVERIFY(board->accessibleName().contains(QStringLiteral("Cooling jets: oil seen at all 4")));
}

void TestFaultBench::flows_compareWithAnotherBuild()
{
    route(3);
    auto *page = find<FlowPage>("flowPage");
    Build other = build();
    other.name = "Second set";
    for (FlowSeen &f : other.flows)
        f.oil = "20W-50";
    QTemporaryDir dir;
    const QString path = dir.filePath(QStringLiteral("second.mildpath"));
    QVERIFY(saveBuild(path.toStdString(), other));
    const QString text = page->compareWith(path);
    QVERIFY(text.contains(QStringLiteral("Second set")));
    QVERIFY(text.contains(QStringLiteral("oil differs: 15W-40 here, 20W-50 there")));
    QVERIFY(find<QLabel>("flow.compared")->isVisible());
    QVERIFY(page->compareWith(dir.filePath(QStringLiteral("none.mildpath")))
                .contains(QStringLiteral("none.mildpath")));
}

void TestFaultBench::remedies_areThoseOfTheCore()
{
    ForecastBench &b = forecast(1);
    const auto core = compareRemedies(build(), assessment());
    QVERIFY(core);
    auto *chart = find<RemedyChart>("remedyChart");
    QTRY_VERIFY(chart->accessibleName().contains(QStringLiteral("needle up, bearing not")));
    for (const Remedy &r : core->remedies)
        QVERIFY(chart->accessibleName().contains(qs(r.name) + QStringLiteral(": ")
                                                 + qs(r.verdict)));
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Down);
    const PanelContent content = b.panel();
    const PanelChange *gauge = change(content, QStringLiteral("gauge"));
    QVERIFY(gauge);
    QCOMPARE(gauge->before.text(), Figure::pressure(core->now.gauge_pa).text());
    QCOMPARE(gauge->after.text(), Figure::pressure(core->remedies[0].figures.gauge_pa).text());
    QVERIFY(panelText().contains(QStringLiteral("needle up, bearing not")));
}

void TestFaultBench::remedies_takeWhatIsImagined()
{
    forecast(1);
    auto *with = find<QLabel>("remedy.with");
    QVERIFY(!with->text().contains(QStringLiteral("With what is imagined")));
    document().imagine({ *parseFault(build(), "lifter_bores_worn=1") });
    QApplication::processEvents();
    QVERIFY(with->text().contains(QStringLiteral("Lifter bores worn")));
    const auto core = compareRemedies(build(), assessment(), document().imagined());
    auto *chart = find<RemedyChart>("remedyChart");
    QString verdict;
    for (const Remedy &r : core->remedies)
        if (r.id == "bushed_lifters")
            verdict = qs(r.name) + QStringLiteral(": ") + qs(r.verdict);
    QTRY_VERIFY(chart->accessibleName().contains(verdict));
}

void TestFaultBench::reading_isRecordedAndJudged()
{
    forecast(2);
    QCOMPARE(find<QLabel>("diagnosis.verdict")->text().isEmpty(), false);
    QVERIFY(diagnosis());
    readGauge(QStringLiteral("Far lifter gallery"), "820", "95", "0.1");
    QCOMPARE(build().gaugeReadings.size(), size_t(1));
    const GaugeReading &r = build().gaugeReadings.back();
    QCOMPARE(r.tap, std::string("far_lifter_gallery"));
    QCOMPARE(r.rpm, 820.0);
    QCOMPARE(r.oil_c, 95.0);
    verifyClose(r.pressure_kpa, 10, 1e-9);
    QVERIFY(!r.by.empty() && !r.at.empty());
    const Diagnosis *d = diagnosis();
    QTRY_COMPARE(diagnosis()->readings.size(), size_t(1));
    d = diagnosis();
    // One reading alone settles nothing but that something is wrong.
    QVERIFY(d->healthyPosterior < 0.01);
    QVERIFY(find<QLabel>("diagnosis.verdict")->text().contains(QStringLiteral("Not settled")));
    QVERIFY(find<ReadingScale>("readingScale")
                ->accessibleName()
                .contains(QStringLiteral("far lifter gallery, 820 rev/min")));
}

void TestFaultBench::readingAgain_correctsTheFirst()
{
    forecast(2);
    readGauge(QStringLiteral("Filter housing"), "800", "100", "1.4");
    readGauge(QStringLiteral("Filter housing"), "800", "100", "21 psi");
    QCOMPARE(build().gaugeReadings.size(), size_t(2)); // both kept
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(1));
    verifyClose(standing(build().gaugeReadings).front()->pressure_kpa, 144.79, 1e-4);
    auto *scale = find<ReadingScale>("readingScale");
    QTRY_VERIFY(diagnosis()->readings.size() == 1);
    clickAt(scale, QPointF(60, 58));
    clickInPanel("reading.takeBack");
    QVERIFY(standing(build().gaugeReadings).empty());
    document().undoStack().undo();
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(1));
}

void TestFaultBench::badReading_isRefused()
{
    forecast(2);
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("-3"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("900"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("some"));
    QVERIFY(build().gaugeReadings.empty());
    type(inPanel<QuantityField>(QStringLiteral("reading.rpm")), QStringLiteral("0"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("1.2"));
    QCOMPARE(build().gaugeReadings.back().rpm, build().use.hotIdle_rpm); // the old one stayed
}

void TestFaultBench::symptom_isSaidAndUnsaid()
{
    forecast(2);
    const auto combo = [&] { return inPanel<QComboBox>(QStringLiteral("symptom.foam")); };
    choose(combo(), QStringLiteral("yes"));
    QCOMPARE(build().symptoms.size(), size_t(1));
    QVERIFY(build().symptoms.back().there);
    choose(combo(), QStringLiteral("no"));
    QCOMPARE(standing(build().symptoms).size(), size_t(1));
    QVERIFY(!standing(build().symptoms).front()->there);
    choose(combo(), QStringLiteral("not said"));
    QVERIFY(standing(build().symptoms).empty());
    QCOMPARE(combo()->currentText(), QStringLiteral("not said"));
}

/// Window and command line are one computation: the same names and shares in the same order.
void TestFaultBench::diagnosis_agreesWithTheCommandLine()
{
    const QString path = QString::fromStdString(
        (demoBuildPath().parent_path() / "harbour-standby.mildpath").string());
    QVERIFY(m_window->openFile(path));
    forecast(2);
    const Diagnosis *d = diagnosis();
    QVERIFY(d);
    QProcess cli;
    cli.start(QStringLiteral(MILDPATH_CLI), { QStringLiteral("diagnose"), path,
                                              QStringLiteral("--json") });
    QVERIFY(cli.waitForFinished(60000));
    QCOMPARE(cli.exitCode(), 0);
    const Json json = *parseJson(cli.readAllStandardOutput().toStdString());
    QCOMPARE(find<QLabel>("diagnosis.verdict")->text(),
             qs(json["verdict"].get<std::string>()));
    QCOMPARE(json["candidates"].size(), d->candidates.size());
    const QString spoken = find<CandidateBars>("candidateBars")->accessibleName();
    for (size_t i = 0; i < d->candidates.size(); ++i) {
        const Json &c = json["candidates"][i];
        QCOMPARE(c["name"].get<std::string>(), d->candidates[i].name);
        QCOMPARE(c["posterior"].get<double>(), d->candidates[i].posterior);
        if (i < find<CandidateBars>("candidateBars")->rows())
            QVERIFY(spoken.contains(qs(c["name"].get<std::string>()) + u' '
                                    + Figure::percent(c["posterior"].get<double>()).text()));
    }
    auto *next = find<RowList>("diagnosis.next");
    QCOMPARE(next->rows().size(), json["next"].size());
    for (size_t i = 0; i < next->rows().size(); ++i)
        QCOMPARE(next->rows()[i].cells[0], qs(json["next"][i]["text"].get<std::string>()));
    QCOMPARE(json["readings"].size(), size_t(6));
}

void TestFaultBench::candidate_opensAsWhatIf()
{
    const QString path = QString::fromStdString(
        (demoBuildPath().parent_path() / "harbour-standby.mildpath").string());
    QVERIFY(m_window->openFile(path));
    forecast(2);
    QVERIFY(diagnosis());
    auto *bars = find<CandidateBars>("candidateBars");
    clickAt(bars, QPointF(40, 8 + 25 * 1.5)); // the second
    const Fault second = diagnosis()->candidates[1].faults.front();
    QVERIFY(panelText().contains(qs(diagnosis()->candidates[1].name)));
    clickInPanel("diagnosis.whatIf");
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Route"));
    QVERIFY(document().imagined() == std::vector<Fault> { second });
    QCOMPARE(document().selectedStop(), qs(second.stop));
    QVERIFY(inPanel<QSlider>(QStringLiteral("whatIf.0.severity")));
}

void TestFaultBench::nextReading_fillsTheForm()
{
    forecast(2);
    const Diagnosis *d = diagnosis();
    QVERIFY(d && !d->next.empty() && !d->next.front().look);
    const NextStep first = d->next.front();
    auto *next = find<RowList>("diagnosis.next");
    clickAt(next, QPointF(60, RowList::rowHeight * 0.5));
    verifyClose(*inPanel<QuantityField>(QStringLiteral("reading.rpm"))->value(),
                first.condition.rpm, 1e-9);
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("1.4"));
    QCOMPARE(build().gaugeReadings.back().tap, first.id);
    QCOMPARE(build().gaugeReadings.back().oil_c, first.condition.oil_c);
}

void TestFaultBench::everything_survivesSavingAndReopening()
{
    forecast(2);
    readGauge(QStringLiteral("Filter housing"), "800", "100", "1.4");
    choose(inPanel<QComboBox>(QStringLiteral("symptom.gauge_zero")), QStringLiteral("no"));
    route(3);
    select("chain_jet");
    clickInPanel("flow.flows");
    route(2);
    inPanel<QCheckBox>(QStringLiteral("filter.remote"))->click();
    QApplication::processEvents();
    clickInPanel("lines.draw");
    const Build before = build();
    QTemporaryDir dir;
    const QString path = dir.filePath(QStringLiteral("all.mildpath"));
    QVERIFY(document().save(path));
    QVERIFY(m_window->openFile(path));
    QVERIFY(build() == before);
}

QTEST_MAIN(TestFaultBench)
#include "tst_faultbench.moc"
