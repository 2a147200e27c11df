// SPDX-License-Identifier: GPL-3.0-or-later
// Lines outside the engine: every way to join them wrong is caught; oil seen to flow; the new parts
// of the document through its file.
#include "assess/flowproof.h"
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "document/engineplan.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

namespace tst_lines {

namespace {

Build drySump()
{
    Build b = loadTemplate("v8-dry-sump")->build;
    b.plumbing.lines = usualLines(b);
    return b;
}

/// The wet-sump four with its filter away from the block and everything joined right.
Build remoteFilter(const std::string &build = "spin_on")
{
    Build b = *applyEdit(demoBuild(), SetFilter { true, build });
    b.plumbing.lines = usualLines(b);
    return b;
}

ExternalLine &line(Build &b, const std::string &from)
{
    for (ExternalLine &l : b.plumbing.lines)
        if (l.from == from)
            return l;
    qFatal("no line from %s", from.c_str());
}

/// The demo with nothing seen to flow yet.
Build unseen()
{
    Build b = demoBuild();
    b.flows.clear();
    return b;
}

QStringList idsOf(const LinesReport &r)
{
    QStringList out;
    for (const LineFault &f : r.faults)
        out << QString::fromStdString(f.id);
    return out;
}

FlowSeen seen(const std::string &stop, int outlet, const std::string &saw)
{
    FlowSeen f;
    f.stop = stop;
    f.outlet = outlet;
    f.saw = saw;
    f.means = "pressure_pot";
    f.oil = "15W-40";
    f.filter = "new spin-on";
    f.oil_c = 20;
    f.by = "tester";
    return f;
}

Build with(Build b, const LogEntry &entry)
{
    return *applyEdit(b, AddEntry { entry });
}

} // namespace

class TestLines : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void usualLines_areRight_data();
    void usualLines_areRight();
    void nothingWritten_saysNothing();
    void wrongJoints_areCaught_data();
    void wrongJoints_areCaught();
    void filterWay_followsItsBuild_data();
    void filterWay_followsItsBuild();
    void swappedFilter_holdsAndStarves();
    void trace_followsTheOil();
    void coolerBeforeFilter_isAsGood();
    void gaugeOnFilterHead_isSaid();
    void lineEdits_goThroughJsonAndBack();
    void openPort_isNotClosedByACapElsewhere();
    void sparePorts_wantCapOrLine();
    void lineEdits_refuse_data();
    void lineEdits_refuse();
    void badPlumbing_isNamedWithItsPlace();
    void flowOutlets_areNamed();
    void flowSeen_provesOnlyWhenAllFlow();
    void flowSeen_takesTheLastWord();
    void enginesCompare_onlyAlike();
    void newEntries_goThroughTheFile();
    void badEntries_areNamedWithTheirPlace_data();
    void badEntries_areNamedWithTheirPlace();
    void olderFile_isLifted();
};

void TestLines::usualLines_areRight_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

void TestLines::usualLines_areRight()
{
    QFETCH(QString, name);
    Build b = loadTemplate(name.toStdString())->build;
    b.plumbing.lines = usualLines(b);
    b.plumbing.capped = usualCaps(b);
    LinesReport r = judgeLines(b);
    QVERIFY2(r.faults.empty(), r.faults.empty() ? "" : said(r.faults.front().text).c_str());
    if (hasLines(b) && b.engine.ofKind(StopKind::Tank))
        QVERIFY(r.trace.reachesEngine && r.trace.throughFilter && !r.trace.filterReversed);
}

void TestLines::nothingWritten_saysNothing()
{
    Build b = drySump();
    b.plumbing.lines.clear();
    QVERIFY(judgeLines(b).faults.empty());
    QVERIFY(!judgeLines(b).written);
    QVERIFY(judgeLines(demoBuild()).faults.empty());
}

// Source: common practice, no source: out of one part goes into the
// next.
void TestLines::wrongJoints_areCaught_data()
{
    QTest::addColumn<QString>("id");
    QTest::addColumn<std::function<void(Build &)>>("spoil");
    const auto row = [](const char *name, const char *id, std::function<void(Build &)> spoil) {
        QTest::newRow(name) << QString::fromLatin1(id) << spoil;
    };
    row("out to out", "out_to_out", [](Build &b) { line(b, "tank.out").to = "scavenge.out"; });
    row("in to in", "in_to_in", [](Build &b) { line(b, "tank.out").from = "engine.in"; });
    row("missing", "open_port", [](Build &b) {
        b.plumbing.lines.pop_back(), b.plumbing.lines.erase(b.plumbing.lines.begin());
    });
    row("capped", "capped", [](Build &b) { b.plumbing.capped = { { "engine.in", "", "" } }; });
    row("one filter line at the wrong port", "out_to_out",
        [](Build &b) { line(b, "pump.out").to = "filter.centre"; });
    row("both filter lines swapped", "lines_swapped", [](Build &b) {
        line(b, "pump.out").to = "filter.centre";
        line(b, "filter.centre").from = "filter.rim";
    });
    row("no vacuum", "no_vacuum", [](Build &b) { line(b, "tank.out").rating = "pressure"; });
    row("vacuum not known", "vacuum_unknown", [](Build &b) { line(b, "tank.out").rating = ""; });
    row("gauge on the filter", "gauge_on_filter",
        [](Build &b) { line(b, "engine.gauge").from = "filter.gauge"; });
    row("scavenge and pressure", "wrong_stage", [](Build &b) {
        line(b, "tank.out").to = "scavenge.in_1";
        line(b, "pan.out_1").to = "pump.in";
    });
    row("gauge line joined to oil", "wrong_stage",
        [](Build &b) { line(b, "cooler.b").to = "gauge.in"; });
    row("two at one port", "port_twice", [](Build &b) {
        ExternalLine l = line(b, "tank.out");
        l.id = "x";
        b.plumbing.lines.push_back(l);
    });
    row("past the filter", "no_filter", [](Build &b) {
        line(b, "pump.out").to = "cooler.a";
        std::erase_if(b.plumbing.lines,
                      [](const ExternalLine &l) { return l.from == "filter.centre"; });
    });
    row("round by the turbocharger", "no_way", [](Build &b) {
        // Every port is joined, out into in, and yet the pump's oil never gets to the engine: it
        // feeds the turbocharger, and the engine feeds itself through the cooler.
        Stop turbo;
        turbo.id = "turbo";
        turbo.name = "Turbocharger";
        turbo.kind = StopKind::Turbo;
        b.engine.stops.push_back(turbo);
        b.plumbing.lines = usualLines(b);
        line(b, "filter.centre").to = "turbo.in";
        line(b, "engine.turbo_feed").to = "cooler.a";
    });
}

void TestLines::wrongJoints_areCaught()
{
    QFETCH(QString, id);
    QFETCH(std::function<void(Build &)>, spoil);
    Build b = drySump();
    QVERIFY(judgeLines(b).faults.empty());
    spoil(b);
    const LinesReport r = judgeLines(b);
    if (id == QLatin1String("no_way"))
        QVERIFY(!r.trace.reachesEngine);
    QVERIFY2(idsOf(r).contains(id), qPrintable(idsOf(r).join(QLatin1Char(' '))));
    for (const LineFault &f : r.faults) {
        QVERIFY(!f.text.empty() && !f.reason.empty() && !f.action.empty());
    }
    // One of the checks of the lines says so.
    const fixture::By by(fixture::withJob(b, "N"));
    bool speaks = false;
    for (const Check &c : by.list().all())
        speaks = speaks
            || ((c.kind->id == "lway" || c.kind->id == "blank" || c.kind->id == "gauge")
                && c.state >= CheckState::LookAgain)
            || (c.kind->id == "lhose" && c.state != CheckState::Proven);
    QVERIFY(speaks);
    const bool lookOnly
        = id == QLatin1String("vacuum_unknown") || id == QLatin1String("gauge_on_filter");
    QCOMPARE(r.faults.front().mark, lookOnly ? Mark::LookAgain : Mark::Hold);
}

void TestLines::filterWay_followsItsBuild_data()
{
    QTest::addColumn<QString>("build");
    QTest::addColumn<QString>("in");
    QTest::newRow("spin-on") << "spin_on"
                             << "filter.rim";
    QTest::newRow("cartridge") << "cartridge"
                               << "filter.rim";
    QTest::newRow("inside out") << "inside_out"
                                << "filter.centre";
    QTest::newRow("arrow") << "arrow"
                           << "filter.rim";
}

void TestLines::filterWay_followsItsBuild()
{
    QFETCH(QString, build);
    QFETCH(QString, in);
    Build b = remoteFilter(build.toStdString());
    QCOMPARE(QString::fromStdString(line(b, "engine.out").to), in);
    QVERIFY(judgeLines(b).faults.empty());
    // The other make of filter on the same lines is the wrong way round.
    b.plumbing.filterBuild = build == QLatin1String("inside_out") ? "spin_on" : "inside_out";
    QVERIFY(idsOf(judgeLines(b)).contains(QStringLiteral("lines_swapped")));
}

/// Seen on engines: the gauge on the filter head reads well, the bearings get nothing.
void TestLines::swappedFilter_holdsAndStarves()
{
    Build b = remoteFilter();
    line(b, "engine.out").to = "filter.centre";
    line(b, "filter.centre").from = "filter.rim";
    const Assessment wrong = assess(b);
    QCOMPARE(fixture::stateOf(b, "lway@" + line(b, "engine.out").id), "hold");
    // Forecast of it as it is joined: relief pressure ahead of the filter, nothing behind.
    QVERIFY(wrong.operating.hotIdle.nodePressure_pa.at("filt_in") > 4e5);
    QVERIFY(wrong.operating.hotIdle.gauge.value_pa < 2e3);
    for (const PointPressure &p : wrong.operating.hotIdle.points)
        if (p.stop.starts_with("main_") && p.stop != "main_gallery")
            QVERIFY(p.pressure_pa < 2e3);
    QVERIFY(assess(fixture::withJob(b, "N")).holds() > 0);
}

void TestLines::trace_followsTheOil()
{
    const LinesReport r = judgeLines(drySump());
    const std::vector<std::string> way { "pump.out", "filter.rim", "filter.centre",
                                         "cooler.a", "cooler.b",   "engine.in" };
    QVERIFY(r.trace.ports == way);
}

void TestLines::coolerBeforeFilter_isAsGood()
{
    Build b = drySump();
    line(b, "pump.out").to = "cooler.a";
    line(b, "filter.centre").to = "engine.in";
    line(b, "cooler.b").to = "filter.rim";
    const LinesReport r = judgeLines(b);
    QVERIFY2(r.faults.empty(), qPrintable(idsOf(r).join(QLatin1Char(' '))));
    QVERIFY(r.trace.reachesEngine && r.trace.throughFilter);
    for (const ExternalLine &l : b.plumbing.lines)
        QVERIFY(markOf(r, l) == Mark::NotDone); // right, and nobody looked
    b.plumbing.lines.front().by = "A. Shop";
    QCOMPARE(markOf(judgeLines(b), b.plumbing.lines.front()), Mark::Proven);
}

void TestLines::gaugeOnFilterHead_isSaid()
{
    Build b = demoBuild();
    QVERIFY(!gaugeOnFilterHead(b));
    b.gaugeTap = "filter_housing";
    QVERIFY(gaugeOnFilterHead(b));
    QCOMPARE(fixture::stateOf(b, "gauge@engine"), "look_again");
}

void TestLines::lineEdits_goThroughJsonAndBack()
{
    ExternalLine l;
    l.from = "tank.out";
    l.to = "pump.in";
    l.rating = "suction";
    l.bore_mm = 19;
    l.by = "tester";
    const std::vector<Edit> edits { PutLine { l }, DropLine { "l1" },
                                    CapPort { "engine.in", true, "tester", "2026-01-01" },
                                    SetFilter { true, "arrow" }, DrawLines {} };
    for (const Edit &e : edits) {
        const auto back = editFromJson(editToJson(Edit(e)));
        QVERIFY(back);
        QVERIFY(*back == Edit(e));
        QVERIFY(!describeEdit(drySump(), Edit(e)).empty());
    }
}

/// The check of caps: seen where all are, open as soon as one port stands open, whenever the others
/// were seen.
void TestLines::openPort_isNotClosedByACapElsewhere()
{
    EnginePlan plan;
    plan.drySump = plan.oldPumpPort = true;
    plan.tankReturns = 2;
    Build b = planBuild(plan).value();
    const auto blank = [](const Build &of) {
        return QString::fromStdString(fixture::stateOf(of, "blank@engine"));
    };
    const QString planned = blank(b);
    QVERIFY(planned != QStringLiteral("hold"));
    b = *applyEdit(b, CapPort { "engine.old_pump", true, "tester", "2026-01-02T10:00:00" });
    QVERIFY(blank(b) != planned); // somebody saw it
    const auto second = std::ranges::find(b.plumbing.lines, "tank.in_2", &ExternalLine::to);
    QVERIFY(second != b.plumbing.lines.end());
    b = *applyEdit(b, DropLine { second->id });
    QCOMPARE(blank(b), QStringLiteral("hold"));
}

void TestLines::sparePorts_wantCapOrLine()
{
    Build b = *applyEdit(demoBuild(), DrawLines {});
    b = *applyEdit(b, SetFilter { false, "spin_on", 2 });
    QCOMPARE(judgeLines(b).faults.size(), size_t(2));
    QVERIFY(said(judgeLines(b).faults[0].text).find("spare port 1") != std::string::npos);
    for (const char *port : { "filter.spare_1", "filter.spare_2" })
        b = *applyEdit(b, CapPort { port, true, "tester", "2026-01-02" });
    QVERIFY(judgeLines(b).faults.empty());
    b = *applyEdit(b, SetFilter { false, "spin_on", 0 }); // their caps go with them
    QVERIFY(b.plumbing.capped.empty());
    QCOMPARE(applyEdit(b, SetFilter { false, "spin_on", 5 }).error().place, std::string("spares"));
}

void TestLines::lineEdits_refuse_data()
{
    QTest::addColumn<int>("which");
    QTest::addColumn<QString>("place");
    QTest::newRow("unknown port") << 0 << "from";
    QTest::newRow("to itself") << 1 << "to";
    QTest::newRow("rating") << 2 << "rating";
    QTest::newRow("drop unknown") << 3 << "line";
    QTest::newRow("cap unknown") << 4 << "port";
    QTest::newRow("filter unknown") << 5 << "build";
    QTest::newRow("drawn twice") << 6 << "lines";
}

void TestLines::lineEdits_refuse()
{
    QFETCH(int, which);
    QFETCH(QString, place);
    ExternalLine l;
    l.from = which == 0 ? "attic.out" : "tank.out";
    l.to = which == 1 ? "tank.out" : "pump.in";
    l.rating = which == 2 ? "rubber" : "";
    const std::vector<Edit> edits { PutLine { l },
                                    PutLine { l },
                                    PutLine { l },
                                    DropLine { "none" },
                                    CapPort { "attic.out", true },
                                    SetFilter { true, "sieve" },
                                    DrawLines {} };
    const Build b = drySump();
    const auto r = applyEdit(b, Edit(edits[static_cast<size_t>(which)]));
    QVERIFY(!r);
    QCOMPARE(QString::fromStdString(r.error().place), place);
}

void TestLines::badPlumbing_isNamedWithItsPlace()
{
    Build b = drySump();
    b.plumbing.lines[1].id = b.plumbing.lines[0].id;
    b.plumbing.lines[2].to = "attic.in";
    b.plumbing.filterBuild = "sieve";
    b.plumbing.capped = { { "nowhere", "", "" } };
    QStringList places;
    for (const Error &e : validateBuild(b))
        places << QString::fromStdString(e.place);
    for (const char *p : { "/plumbing/filter_build", "/plumbing/lines/1/id", "/plumbing/lines/2/to",
                           "/plumbing/capped/0/port" })
        QVERIFY2(places.contains(QLatin1String(p)), p);
}

void TestLines::flowOutlets_areNamed()
{
    const Build b = demoBuild();
    const auto outlets = [&](const char *stop) { return flowOutlets(b, *b.engine.find(stop)); };
    QCOMPARE(outlets("lifter_gallery").size(), size_t(8));
    QCOMPARE(outlets("cooling_jets").size(), size_t(4));
    QCOMPARE(outlets("rocker_shaft").size(), size_t(8)); // one element, eight rockers
    QCOMPARE(outlets("rocker_shaft")[7], std::string("Rocker 8"));
    QCOMPARE(outlets("main_3"), std::vector<std::string> { "Main 3" });
}

void TestLines::flowSeen_provesOnlyWhenAllFlow()
{
    Build b = unseen();
    for (int i = 1; i <= 7; ++i)
        b = with(b, seen("lifter_gallery", i, "flows"));
    FlowProof p = flowProof(b, *b.engine.find("lifter_gallery"));
    QCOMPARE(p.mark, Mark::NotDone);
    QCOMPARE(p.text, std::string("oil seen at 7 of 8"));
    const Build all = with(b, seen("lifter_gallery", 8, "flows"));
    QCOMPARE(flowProof(all, *all.engine.find("lifter_gallery")).mark, Mark::Proven);
    const Build dry = with(b, seen("lifter_gallery", 8, "dry"));
    QCOMPARE(fixture::stateOf(dry, "seelif@lifter_gallery#8"), "hold");
    QCOMPARE(fixture::stateOf(dry, "seelif@lifter_gallery#7"), "proven");
    const Build weak = with(b, seen("lifter_gallery", 8, "weak"));
    QCOMPARE(fixture::stateOf(weak, "seelif@lifter_gallery#8"), "look_again");
}

void TestLines::flowSeen_takesTheLastWord()
{
    Build b = with(unseen(), seen("cooling_jets", 2, "dry"));
    b = with(b, seen("cooling_jets", 0, "flows")); // looked again, all of them
    QCOMPARE(flowProof(b, *b.engine.find("cooling_jets")).mark, Mark::Proven);
    const auto back = applyEdit(b, TakeBackEntry { "flows", b.flows[1].id, "", "" });
    QVERIFY(back);
    QCOMPARE(flowProof(*back, *back->engine.find("cooling_jets")).mark, Mark::Hold);
}

// Source: two engines compare with the same oil and the same filter (common practice, no source).
void TestLines::enginesCompare_onlyAlike()
{
    FlowSeen mine = seen("cooling_jets", 0, "flows");
    mine.litres = 0.5;
    mine.seconds = 60;
    const Build here = with(unseen(), mine);
    FlowComparison c = compareFlows(here, here);
    QVERIFY(c.cautions.empty());
    QCOMPARE(c.pairs.size(), size_t(4));
    verifyClose(*c.pairs[0].here_l_min, 0.5, 1e-12);
    FlowSeen theirs = mine;
    theirs.oil = "20W-50";
    theirs.oil_c = 45;
    c = compareFlows(here, with(unseen(), theirs));
    QCOMPARE(c.cautions.size(), size_t(2));
    QVERIFY(c.cautions[0].find("20W-50") != std::string::npos);
    theirs = mine;
    theirs.filter = "";
    theirs.means = "drill";
    c = compareFlows(here, with(unseen(), theirs));
    QCOMPARE(c.cautions.size(), size_t(2));
    c = compareFlows(here, unseen());
    QVERIFY(c.pairs.empty());
    QCOMPARE(c.onlyOne.size(), size_t(4));
}

void TestLines::newEntries_goThroughTheFile()
{
    Build b = remoteFilter();
    b.plumbing.lines[0].by = "tester";
    b.plumbing.capped = { { "engine.out", "tester", "2026-01-01T10:00:00" } };
    b = with(b, seen("cooling_jets", 2, "weak"));
    GaugeReading g;
    g.tap = "filter_housing";
    g.rpm = 820;
    g.oil_c = 97;
    g.pressure_kpa = 152;
    g.u_kpa = 7;
    g.oil = "0W-20";
    b = with(b, g);
    Symptom s;
    s.symptom = "foam";
    s.there = false;
    s.note = "looked twice";
    b = with(b, s);
    Scenario c;
    c.name = "two at once";
    c.faults = { { "swarf", "main_gallery", 3, 0.5 }, { "pump_worn", "pump", 0, 0.25 } };
    b = with(b, c);
    const auto back = parseBuild(buildText(b));
    QVERIFY2(back, back ? "" : said(back.error().errors.front().message).c_str());
    QVERIFY(back->build == b);
}

void TestLines::badEntries_areNamedWithTheirPlace_data()
{
    QTest::addColumn<QString>("list");
    QTest::addColumn<QString>("entry");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *name, const char *list, const char *entry, const char *place) {
        QTest::newRow(name) << QString::fromLatin1(list) << QString::fromLatin1(entry)
                            << QString::fromLatin1(place);
    };
    row("tap", "gauge_readings",
        R"({"id":"g1","tap":"attic","rpm":800,"oil_temp_c":90,"pressure_kpa":100})",
        "/gauge_readings/0/tap");
    row("pressure", "gauge_readings",
        R"({"id":"g1","tap":"filter_housing","rpm":800,"oil_temp_c":90,"pressure_kpa":-1})",
        "/gauge_readings/0/pressure_kpa");
    row("oil", "gauge_readings",
        R"({"id":"g1","tap":"filter_housing","rpm":800,"oil_temp_c":90,"pressure_kpa":1,"oil":"x"})",
        "/gauge_readings/0/oil");
    row("engine at rest", "gauge_readings",
        R"({"id":"g1","tap":"filter_housing","rpm":0,"oil_temp_c":90,"pressure_kpa":100})",
        "/gauge_readings/0/rpm");
    row("uncertainty", "gauge_readings",
        R"({"id":"g1","tap":"filter_housing","rpm":800,"oil_temp_c":90,"pressure_kpa":1,"u_kpa":0})",
        "/gauge_readings/0/u_kpa");
    row("symptom", "symptoms", R"({"id":"y1","symptom":"hum"})", "/symptoms/0/symptom");
    row("outlet", "flows",
        R"({"id":"w1","stop":"cooling_jets","outlet":9,"saw":"flows","means":"drill"})",
        "/flows/0/outlet");
    row("sight", "flows", R"({"id":"w1","stop":"main_1","saw":"sings","means":"drill"})",
        "/flows/0/saw");
    row("means", "flows", R"({"id":"w1","stop":"main_1","saw":"dry","means":"hope"})",
        "/flows/0/means");
    row("caught", "flows",
        R"({"id":"w1","stop":"main_1","saw":"dry","means":"drill","caught_l":-2})",
        "/flows/0/caught_l");
    row("no fault", "scenarios", R"({"id":"c1","name":"x","faults":[]})", "/scenarios/0/faults");
    row("severity", "scenarios",
        R"({"id":"c1","name":"x","faults":[{"kind":"swarf","stop":"main_1","severity":3}]})",
        "/scenarios/0/faults/0/severity");
    row("key of a fault", "scenarios",
        R"({"id":"c1","name":"x","faults":[{"kind":"swarf","stop":"main_1","sevrity":1}]})",
        "/scenarios/0/faults/0/sevrity");
}

void TestLines::badEntries_areNamedWithTheirPlace()
{
    QFETCH(QString, list);
    QFETCH(QString, entry);
    QFETCH(QString, place);
    Json json = toJson(demoBuild());
    json[list.toStdString()] = Json::array({ *parseJson(entry.toStdString()) });
    const auto r = parseBuild(json.dump());
    QVERIFY(!r);
    QStringList places;
    for (const Error &e : r.error().errors)
        places << QString::fromStdString(e.place);
    QVERIFY2(places.contains(place), qPrintable(places.join(QLatin1Char(' '))));
}

void TestLines::olderFile_isLifted()
{
    Json json = toJson(demoBuild());
    json["version"] = 6;
    for (const char *key : { "plumbing", "gauge_readings", "symptoms", "flows", "scenarios" })
        json.erase(key);
    const auto r = parseBuild(json.dump());
    QVERIFY(r);
    QCOMPARE(r->fileVersion, 6);
    QVERIFY(!r->olderText.empty());
    QVERIFY(r->build.plumbing == Plumbing {});
}

} // namespace tst_lines

MILDPATH_TEST(tst_lines, TestLines)
#include "tst_lines.moc"
