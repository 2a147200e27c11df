// SPDX-License-Identifier: GPL-3.0-or-later
#include "benchfixture.h"
#include "checks/assessment.h"

#include "bench/route/flowpage.h"
#include "bench/route/linespage.h"
#include "bench/route/routebench.h"
#include "bench/route/routemap.h"
#include "diagnose/whatif.h"
#include "entry/rowlist.h"

#include <QCheckBox>
#include <QSlider>
#include <QTemporaryDir>
#include <QUndoStack>

using namespace mildpath;

namespace tst_faultbench {

/// What if, lines and flow seen, through the widgets.
class TestFaultBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void everyStop_offersItsFaults();
    void scenarioOfAnotherVersion_isRefusedWithTheReason();
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

private:
    RouteBench &route(int at) { return page<RouteBench>("route", at); }
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
        if (stop.kind != StopKind::SmallEnd)
            QVERIFY2(combo, stop.id.c_str());
    }
}

void TestFaultBench::whatIf_showsBeforeAndAfter()
{
    RouteBench &b = route(1);
    select("main_2");
    imagine(QStringLiteral("shell spun"));
    const auto core = whatIf(build(), assessment().sizes, document().imagined(), 800, 100);
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
    QVERIFY(after < 0.95 * before);
    QVERIFY(panelText().contains(QStringLiteral("does not show")));
    QVERIFY(find<QLabel>("route.subtitle")->text().contains(QStringLiteral("98% covered")));
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

void TestFaultBench::scenarioOfAnotherVersion_isRefusedWithTheReason()
{
    // A file may hold a fault this version does not know: it is kept, and cannot be imagined.
    Build b = build();
    Scenario later;
    later.id = "c99";
    later.name = "from later";
    later.faults.push_back({ "gremlins", "pump", 0, 1 });
    b.scenarios.push_back(later);
    m_window->openNew(b);
    const auto ok = document().imagine(build().scenarios.back().faults);
    QVERIFY(!ok);
    QVERIFY(said(ok.error().message).find("gremlins") != std::string::npos);
    QVERIFY(document().imagined().empty());
    route(1);
    choose(inPanel<QComboBox>(QStringLiteral("whatIf.kept")), QStringLiteral("from later"));
    QVERIFY(document().imagined().empty());
    bool said = false;
    for (const QLabel *l : m_window->sidePanel().findChildren<QLabel *>())
        said = said || l->text().contains(QStringLiteral("gremlins"));
    QVERIFY(said);
    QCOMPARE(build().scenarios.back(), later);
}

void TestFaultBench::whatIf_isNotInTheDocumentUntilKept()
{
    route(1);
    const size_t before = build().scenarios.size();
    const double healthy = assessment().operating.hotIdle.gauge.value_pa;
    const auto *cell = m_window->findChild<ReadoutCell *>(QStringLiteral("hotIdleGauge"));
    const QString shown = cell->readout().value.text();
    select("relief");
    imagine(QStringLiteral("relief stuck open"));
    QVERIFY(!document().isModified());
    QCOMPARE(build().scenarios.size(), before);
    // The strip goes on telling the engine as it is.
    QCOMPARE(assessment().operating.hotIdle.gauge.value_pa, healthy);
    QCOMPARE(cell->readout().value.text(), shown);
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
    choose(inPanel<QComboBox>(QStringLiteral("whatIf.kept")), qs(build().scenarios.back().name));
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
    QVERIFY(document().pickWorker("A. Reed"));
    route(2);
    auto *list = find<RowList>("lines.list");
    QCOMPARE(list->rows().size(), build().plumbing.lines.size());
    QVERIFY(find<QLabel>("lines.verdict")->text().contains(QStringLiteral("0 of 9 seen")));
    clickAt(list, QPointF(60, RowList::rowHeight * 4.5));
    clickInPanel("line.seen");
    QVERIFY(!build().plumbing.lines[4].by.empty());
    QVERIFY(find<QLabel>("lines.verdict")->text().contains(QStringLiteral("1 of 9 seen")));
    // Joined otherwise at the desk, it has to be followed by hand again.
    const std::string to = build().plumbing.lines[4].to;
    clickAt(list, QPointF(60, RowList::rowHeight * 4.5));
    auto *end = inPanel<QComboBox>(QStringLiteral("line.to"));
    choose(end, end->itemText(end->currentIndex() == 0 ? 1 : 0));
    QVERIFY(build().plumbing.lines[4].to != to && build().plumbing.lines[4].by.empty());
    document().undoStack().undo();
    QVERIFY(!build().plumbing.lines[4].by.empty());
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
    QCOMPARE(assessment().checks.find("lway@l1")->evident, Evident::No);
    QVERIFY(assessment().operating.hotIdle.nodePressure_pa.at("filt_in") > 4e5);
    QVERIFY(assessment().operating.hotIdle.gauge.value_pa < 2e3);
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
    QCOMPARE(build().plumbing.capped.size(), size_t(1));
    QCOMPARE(build().plumbing.capped.front().port, std::string("engine.in"));
    QVERIFY(!build().plumbing.capped.front().at.empty());
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
    choose(inPanel<QComboBox>(QStringLiteral("filter.spares")), QStringLiteral("2"));
    QCOMPARE(build().plumbing.spares, 2);
    QVERIFY(panelText().contains(QStringLiteral("Not capped: Filter head, spare port 1")));
    document().undoStack().undo();
    QCOMPARE(build().plumbing.spares, 0);
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
    QCOMPARE(standing(build().flows).size(), before + 1);
    clickInPanel(("flow.takeBack." + build().flows.back().id).c_str());
    QCOMPARE(standing(build().flows).size(), before);
    document().undoStack().undo();
    QCOMPARE(standing(build().flows).size(), before + 1);
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
    other.flows.change([](FlowSeen &f) { f.oil = "20W-50"; });
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

} // namespace tst_faultbench

MILDPATH_TEST(tst_faultbench, TestFaultBench)
#include "tst_faultbench.moc"
