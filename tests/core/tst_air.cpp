// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/air.h"
#include "calc/catalogue.h"
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "testing.h"

#include <set>

#include <QRegularExpression>

using namespace mildpath;

namespace tst_air {

class TestAir : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void elevenRows_eachWithWhatItRestsOn();
    void fill_isAccountedFor();
    void states_areThoseOfTheCalculator();
    void rows_answerToTheirInputs_data();
    void rows_answerToTheirInputs();
    void unknown_isNeverLow();
    void olderFile_hasNoSump_andSaysSo();
    void wrongSump_isRefusedWithItsPlace_data();
    void wrongSump_isRefusedWithItsPlace();
    void edits_goThroughTheJournal_data();
    void edits_goThroughTheJournal();
    void tooMuch_dipsTheCrank_andHolds();
    void farTooMuch_overflows_withThePlace();
    void advice_bringsTheFillIntoItsWindow_data();
    void advice_bringsTheFillIntoItsWindow();
    void holdUp_isHeadsWallsAndSpray();
    void levels_areSeparateNumbers();
    void benchFill_makesThePanThatWasMeasured();
    void everyTemplate_hasASumpThatStands_data();
    void everyTemplate_hasASumpThatStands();
    void everyShape_isAPan_data();
    void everyShape_isAPan();
    void harderTurn_uncoversWhereItSays();
    void baffle_isATrade();
    void doors_helpInATurn_notOnASlope();
    void coolant_holdsAndOverridesTheRest();
    void leak_underTheOil_drawsNoAir();
    void drySump_isJudgedByItsTank();
};

namespace {

Build with(Build build, const Edit &edit)
{
    const auto out = applyEdit(build, edit);
    if (!out)
        QTest::qFail(said(out.error().message).c_str(), __FILE__, __LINE__);
    return out.value_or(build);
}
Build withValue(const Build &build, const char *key, double value)
{
    return with(build, SetSumpValue { key, value });
}
Build withUse(Build build, const char *key, double value)
{
    return *applyEdit(build, SetUse { key, value });
}
AirState stateOf(const AirReport &air, const char *id)
{
    return air.row(id)->state;
}
} // namespace

void TestAir::elevenRows_eachWithWhatItRestsOn()
{
    const AirReport air = assess(demoBuild()).air;
    QCOMPARE(air.rows.size(), size_t(11));
    // The seven contributions of aeration-risk, each met by a row.
    std::set<std::string_view> met;
    for (const AirRow &r : air.rows) {
        met.insert(r.contribution);
        QVERIFY2(!r.quantity.empty() || r.state == AirState::Unknown, r.id.c_str());
        QVERIFY2(r.state == AirState::Low || !r.reason.empty() || !r.quantity.empty(),
                 r.id.c_str());
        if (r.state == AirState::Watch || r.state == AirState::High)
            QVERIFY2(!r.remedy.empty(), r.id.c_str());
    }
    QCOMPARE(met,
             (std::set<std::string_view> { "windage", "uncovering", "suction_leak", "air_release",
                                           "residence", "drainback", "coolant" }));
}

void TestAir::states_areThoseOfTheCalculator()
{
    const Build build = demoBuild();
    const AirReport air = assess(build).air;
    const AirCase *running = air.find("running"), *left = air.find("turn_left");
    QVERIFY(running && left);
    const Json in { { "crank_clearance_mm", running->clearance_m * 1e3 },
                    { "allowance_mm", running->wind.allowance_m * 1e3 },
                    { "submergence_mm", running->submergence_m * 1e3 },
                    { "dip_limit_mm", running->wanted.dip_m * 1e3 },
                    { "required_mm", running->wanted.required_m * 1e3 },
                    { "release_void_fraction", air.releaseShare },
                    { "dynamic_holdup_l", air.heldRunning_m3 * 1e3 },
                    { "fill_l", *build.sump.own("fill_l") },
                    { "coolant", build.sump.coolant } };
    const auto out = runCalculator(*findCalculator("aeration-risk"), in);
    QVERIFY(out);
    for (const auto &[key, row] :
         { std::pair("windage_state", "windage"), std::pair("uncovering_state", "vortex"),
           std::pair("air_release_state", "release"), std::pair("drainback_state", "drainback") })
        QCOMPARE((*out)[key].get<std::string>(), std::string(airStateWord(stateOf(air, row))));
    // Drain-back leads the demo: a litre of 4.6 is on its way.
    QCOMPARE(air.leading()->id, std::string("drainback"));
    QCOMPARE(air.overall, AirState::Watch);
}

// Each row by the input it rests on: the number that changes, the state that follows. Limits: own
// choice (sump/risk.h); which way they go is common practice.
void TestAir::rows_answerToTheirInputs_data()
{
    QTest::addColumn<QString>("row");
    QTest::addColumn<QString>("key");
    QTest::addColumn<double>("value");
    QTest::addColumn<QString>("state");
    const auto row
        = [](const char *what, const char *id, const char *key, double value, const char *state) {
              QTest::newRow(what) << QString::fromLatin1(id) << QString::fromLatin1(key) << value
                                  << QString::fromLatin1(state);
          };
    row("crank well clear", "windage", "fill_l", 4.6, "low");
    row("crank within two allowances", "windage", "fill_l", 6.0, "watch");
    row("crank within one", "windage", "fill_l", 7.6, "high");
    row("a turn throws it at the crank", "windage", "turn_g", 1.3, "high");
    row("a slope that never ends", "uncovering", "heel_deg", 60, "high");
    row("a lower crank", "windage", "crank_z_mm", 178, "watch");
    row("a longer throw", "windage", "sweep_radius_mm", 120, "high");
    row("mouth covered", "vortex", "fill_l", 4.6, "low");
    row("less than wanted", "vortex", "fill_l", 2.9, "watch");
    row("gas is drawn", "vortex", "fill_l", 2.3, "high");
    row("turn takes the oil away", "uncovering", "fill_l", 3.3, "watch");
    row("tested tight", "leak", "leak_mm2", 0, "low");
    row("a pinhole over the oil", "leak", "leak_mm2", 0.05, "low");
    row("a large hole over the oil", "leak", "leak_mm2", 20, "high");
    row("ring with its squeeze", "oring", "oring_set", 0, "low");
    row("ring that has set", "oring", "oring_set", 0.5, "watch");
    row("ring that is dead", "oring", "oring_set", 0.8, "high");
    row("ring loose in its gland", "oring", "oring_set", 1.2, "high");
    row("time enough", "residence", "fill_l", 4.6, "low");
    row("drains as they are", "drainback", "drain_holes", 4, "watch");
    row("a small floor to stand on", "drainback", "pool_area_mm2", 12000, "low");
    row("one drain, and it floods", "drainback", "drain_holes", 1, "watch");
    row("a large floor to stand on", "drainback", "pool_area_mm2", 130000, "high");
    row("crankcase breathes", "crankcase", "crankcase_kpa", 0, "low");
    row("crankcase blows", "crankcase", "crankcase_kpa", 0.25, "watch");
    row("crankcase holds it all up", "crankcase", "crankcase_kpa", 0.6, "high");
}

void TestAir::rows_answerToTheirInputs()
{
    QFETCH(QString, row);
    QFETCH(QString, key);
    QFETCH(double, value);
    QFETCH(QString, state);
    // The joint above the oil, so that a hole draws air.
    Build build = withValue(demoBuild(), "joint_z_mm", 150);
    if (key == QLatin1String("turn_g") || key == QLatin1String("heel_deg")) {
        build = withUse(build, key.toLatin1().constData(), value);
    } else if (findSumpKey(key.toStdString())) {
        build = withValue(build, key.toLatin1().constData(), value);
    } else {
        const auto edited
            = applyEdit(build, SetStopValue { "sump_pickup", key.toStdString(), value });
        QVERIFY(edited);
        build = *edited;
    }
    const AirReport air = assess(build).air;
    const AirRow *r = air.row(row.toStdString());
    QVERIFY(r);
    QVERIFY2(
        airStateWord(r->state) == state.toStdString(),
        (std::string(airStateWord(r->state)) + ": " + said(r->quantity) + "; " + said(r->reason))
            .c_str());
    // The worst leads, whatever it is.
    QVERIFY(air.overall == AirState::High || r->state != AirState::High);
    QVERIFY(air.leading() || air.overall == AirState::Low);
}

void TestAir::unknown_isNeverLow()
{
    Build build = demoBuild();
    build.sump = {};
    const AirReport air = assess(build).air;
    QVERIFY(air.problem);
    for (const char *id : { "windage", "uncovering", "vortex", "leak", "residence", "drainback",
                            "crankcase", "foreign" }) {
        QCOMPARE(stateOf(air, id), AirState::Unknown);
        QVERIFY(!air.row(id)->reason.empty() || !air.row(id)->quantity.empty());
    }
    QCOMPARE(air.overall, AirState::Unknown);
    QVERIFY(!air.window);
    // The pickup's gap alone: the crank is judged, the mouth is not.
    Build gapless = demoBuild();
    for (Stop &s : gapless.engine.stops)
        s.values.erase("pickup_gap_mm");
    const AirReport half = assess(gapless).air;
    QCOMPARE(stateOf(half, "windage"), AirState::Low);
    QVERIFY(stateOf(half, "uncovering") != AirState::Low);
    QVERIFY(!half.window);
}

void TestAir::olderFile_hasNoSump_andSaysSo()
{
    Json old = toJson(demoBuild());
    old["version"] = 7;
    old.erase("sump");
    const auto loaded = parseBuild(old.dump());
    QVERIFY(loaded);
    QCOMPARE(loaded->build.sump, Sump {});
    QVERIFY(!loaded->olderText.empty()); // kept as .bak when it is saved over
    QCOMPARE(assess(loaded->build).air.overall, AirState::Unknown);
}

void TestAir::wrongSump_isRefusedWithItsPlace_data()
{
    QTest::addColumn<QString>("edit");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("word");
    const auto row = [](const char *what, const char *edit, const char *place, const char *word) {
        QTest::newRow(what) << QString::fromUtf8(edit) << QString::fromLatin1(place)
                            << QString::fromUtf8(word);
    };
    row("a key no sump has", R"({"edit":"sump","key":"colour","value":3})", "sump/colour",
        "nothing a sump has");
    row("a fill below nothing", R"({"edit":"sump","key":"fill_l","value":-1})",
        "/sump/values/fill_l", "must be");
    row("more held than poured", R"({"edit":"sump","key":"static_holdup_l","value":20})",
        "/sump/values/static_holdup_l", "more than");
    row("pickup outside the pan", R"({"edit":"sump","key":"pickup_along_mm","value":2000})",
        "/sump/values/pickup_along_mm", "outside the pan");
    row("crank under the floor", R"({"edit":"sump","key":"crank_z_mm","value":20})",
        "/sump/values/crank_z_mm", "under the floor");
    row("marks upside down", R"({"edit":"sump","key":"stick_low_mm","value":90})",
        "/sump/values/stick_high_mm", "above the low");
    row("a section that crosses itself",
        R"({"edit":"pan","along_mm":[[0,0],[400,300],[400,0],[0,300]],"across_mm":[],"shape":""})",
        "/sump/along_mm/2", "crosses");
    row("a floor in the air",
        R"({"edit":"pan","along_mm":[[0,10],[400,10],[400,300],[0,300]],"across_mm":[],"shape":""})",
        "/sump/along_mm", "height 0");
    row("a word for nothing", R"({"edit":"foreign","fuel":false,"word":"maybe"})", "/sump/coolant",
        "suspected");
}

void TestAir::wrongSump_isRefusedWithItsPlace()
{
    QFETCH(QString, edit);
    QFETCH(QString, place);
    QFETCH(QString, word);
    const Build build = demoBuild();
    const auto e = editFromJson(*parseJson(edit.toStdString()));
    QVERIFY(e);
    const auto out = applyEdit(build, *e);
    QVERIFY(!out);
    QCOMPARE(QString::fromStdString(out.error().place), place);
    QVERIFY2(QString::fromStdString(said(out.error().message)).contains(word),
             said(out.error().message).c_str());
}

void TestAir::edits_goThroughTheJournal_data()
{
    QTest::addColumn<int>("index");
    for (int i = 0; i < 5; ++i)
        QTest::addRow("%d", i) << i;
}

void TestAir::edits_goThroughTheJournal()
{
    QFETCH(int, index);
    const Edit edits[] = { SetPan { { { 0, 0 }, { 300.5, 0 }, { 300.5, 400 }, { 0, 400 } },
                                    {},
                                    { { 10, 0.5 } },
                                    "flat",
                                    { { "fill_l", 4 } } },
                           SetSumpValue { "fill_l", 5.25 }, SetSumpValue { "fill_l", std::nullopt },
                           SetForeign { true, "suspected" }, SetForeign { false, "" } };
    const Edit edit = edits[index];
    const auto back = editFromJson(editToJson(edit));
    QVERIFY(back);
    QCOMPARE(*back, edit);
    QVERIFY(!describeEdit(demoBuild(), edit).empty());
}

void TestAir::tooMuch_dipsTheCrank_andHolds()
{
    const Assessment a = assess(withValue(demoBuild(), "fill_l", 10));
    QCOMPARE(stateOf(a.air, "windage"), AirState::High);
    QVERIFY(a.air.find("running")->clearance_m < 0);
    QCOMPARE(fixture::stateOf(withValue(demoBuild(), "fill_l", 10), "air@engine"), "hold");
    QCOMPARE(fixture::stateOf(demoBuild(), "air@engine"), "look_again");
}

void TestAir::farTooMuch_overflows_withThePlace()
{
    const Assessment a = assess(withValue(demoBuild(), "fill_l", 60));
    QVERIFY(a.air.problem);
    QCOMPARE(a.air.problem->place, std::string("/sump/values/fill_l"));
    QVERIFY(said(a.air.problem->message).find("more than the section holds") != std::string::npos);
    QCOMPARE(fixture::stateOf(withValue(demoBuild(), "fill_l", 60), "air@engine"), "hold");
}

void TestAir::advice_bringsTheFillIntoItsWindow_data()
{
    QTest::addColumn<double>("fill_l");
    QTest::addColumn<QString>("word");
    QTest::newRow("too little") << 2.0 << "more";
    QTest::newRow("right") << 4.6 << "Fill is fine";
    QTest::newRow("too much") << 8.0 << "less";
}

void TestAir::advice_bringsTheFillIntoItsWindow()
{
    QFETCH(double, fill_l);
    QFETCH(QString, word);
    const Build build = withValue(demoBuild(), "fill_l", fill_l);
    const AirReport air = assess(build).air;
    const auto advice = fillAdvice(fill_l, air);
    QVERIFY(advice);
    QVERIFY2(QString::fromStdString(said(advice->text)).contains(word), said(advice->text).c_str());
    // Poured to the ends of the window, what limits is just met.
    const auto ended = [&](double m3, bool least) {
        const AirReport there = assess(withValue(build, "fill_l", m3 * 1e3)).air;
        double margin = 1e9;
        for (const AirCase &c : there.cases)
            margin = std::min(margin,
                              least ? c.submergence_m - c.wanted.required_m
                                    : c.clearance_m - c.wind.allowance_m);
        return margin;
    };
    QVERIFY(std::abs(ended(air.window->least_m3, true)) < 1e-6);
    QVERIFY(std::abs(ended(air.window->most_m3, false)) < 2e-4);
}

void TestAir::holdUp_isHeadsWallsAndSpray()
{
    const Build build = withValue(demoBuild(), "in_flight_l", 0.2);
    const AirReport air = assess(build).air;
    double sum = 0;
    for (const HeldOil &h : air.held)
        if (!h.still) {
            QVERIFY(h.volume_m3);
            sum += *h.volume_m3;
        }
    verifyClose(air.heldRunning_m3, sum, 1e-12, 0, QStringLiteral("sum of the causes"));
    // Conservation: what was poured is in the pan, on its way, or never back.
    const double grown = 1 + 0.0007 * (build.use.hotOil_c - 20);
    verifyClose(air.level("running")->volume_m3 + air.heldRunning_m3
                    + *build.sump.own("static_holdup_l") * 1e-3,
                *build.sump.own("fill_l") * 1e-3 * grown, 1e-9, 0, QStringLiteral("litres"));
    // A cause that is not known is said, and nothing is made up for it.
    Build less = build;
    less.sump.values.erase("wall_area_m2");
    const AirReport open = assess(less).air;
    QVERIFY(!open.heldKnown);
    QVERIFY(said(open.level("running")->note).find("at most") != std::string::npos);
}

void TestAir::levels_areSeparateNumbers()
{
    const AirReport air = assess(demoBuild()).air;
    const auto mm = [&](const char *id) { return air.level(id)->level_m * 1e3; };
    QVERIFY(mm("rest_hot") > mm("rest_cold")); // oil grows
    QVERIFY(mm("running") < mm("idle")
            && mm("idle") < mm("rest_hot")); // the more it turns, the more is up
    QVERIFY(mm("bench") > mm("rest_cold")); // nothing held in the filter yet
    const double stick = air.level("stick_high")->volume_m3 - air.level("stick_low")->volume_m3;
    QVERIFY(stick > 0.5e-3 && stick < 2.5e-3);
    QVERIFY(air.level("drained")->volume_m3 > 0);
}

void TestAir::benchFill_makesThePanThatWasMeasured()
{
    const Build build = demoBuild();
    const std::vector<BenchFill> steps { { 20, 1.0 }, { 40, 2.1 }, { 60, 3.3 }, { 80, 5.2 } };
    const auto edit = panFromBenchFill(build.sump, steps);
    QVERIFY(edit);
    const Build made = with(build, *edit);
    const PanPrism pan = *panOf(made.sump);
    for (const BenchFill &s : steps)
        verifyClose(areaBelow_m2(pan.profile, { 0, s.height_mm * 1e-3 }) * pan.width_m * 1e3,
                    s.litres, 1e-3, 0, QString::number(s.height_mm));
    // The bare pan with 3.3 l stands at 60 mm.
    verifyClose(assess(withValue(made, "fill_l", 3.3)).air.level("bench")->level_m * 1e3, 60, 1e-3,
                0, QStringLiteral("bench"));
    Sump narrow = build.sump;
    narrow.values.erase("pan_width_mm");
    QCOMPARE(panFromBenchFill(narrow, steps).error().place, std::string("pan_width_mm"));
    QVERIFY(panFromBenchFill(build.sump, { { 20, 2 }, { 40, 1 } })
                .error()
                .place.starts_with("bench_fill/"));
}

void TestAir::everyTemplate_hasASumpThatStands_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

void TestAir::everyTemplate_hasASumpThatStands()
{
    QFETCH(QString, name);
    const auto loaded = loadTemplate(name.toStdString());
    QVERIFY(loaded);
    const Build *build = &loaded->build;
    const AirReport air = assess(*build).air;
    QVERIFY2(!air.problem, air.problem ? said(air.problem->message).c_str() : "");
    if (build->engine.ofKind(StopKind::Tank)) {
        QVERIFY(air.tank && air.tank->level_m > 0.1 && air.tank->level_m < air.tank->high_m);
        return;
    }
    QCOMPARE(stateOf(air, "windage"), AirState::Low);
    const AirLevel *rest = air.level("rest_cold");
    QVERIFY(rest
            && rest->level_m * 1e3
                < *build->sump.own("crank_z_mm") - *build->sump.own("sweep_radius_mm"));
}

void TestAir::everyShape_isAPan_data()
{
    QTest::addColumn<QString>("shape");
    for (const PanShape &s : panShapes())
        QTest::newRow(s.id.data()) << QString::fromUtf8(s.id.data());
}

void TestAir::everyShape_isAPan()
{
    QFETCH(QString, shape);
    const Build build = demoBuild();
    const Sump made = shapedSump(shape.toStdString(), usualPanSizes(build.engine, 4.6));
    const Build other
        = with(build, SetPan { made.along, made.across, {}, made.shape, made.values });
    const AirReport air = assess(other).air;
    QVERIFY2(!air.problem, air.problem ? said(air.problem->message).c_str() : "");
    QVERIFY(air.find("turn_left") && air.find("running"));
    QVERIFY(air.find("running")->submergence_m > 0);
}

void TestAir::harderTurn_uncoversWhereItSays()
{
    const Build build = withUse(withValue(demoBuild(), "fill_l", 3.4), "turn_g", 1.2);
    const AirReport air = assess(build).air;
    const AirCase *left = air.find("turn_left");
    QVERIFY(left && left->uncovers_g && left->wanted_g);
    QVERIFY(*left->wanted_g < *left->uncovers_g);
    const auto depthAt = [&](double g) {
        return turnOil(*panOf(build.sump), *sectionOf(build, PanWay::Across),
                       { PanWay::Across, g, 0 }, left->volume_m3)
            ->submergence_m;
    };
    verifyClose(depthAt(*left->uncovers_g), left->wanted.dip_m, 0, 2e-4,
                QStringLiteral("at the limit"));
    QVERIFY(depthAt(*left->uncovers_g + 0.02) < left->wanted.dip_m);
    QCOMPARE(stateOf(air, "uncovering"),
             left->submergence_m < left->wanted.dip_m ? AirState::High : AirState::Watch);
}

void TestAir::baffle_isATrade()
{
    const Build small = withValue(demoBuild(), "baffle_opening_mm2", 300);
    const Build large = withValue(demoBuild(), "baffle_opening_mm2", 1200);
    const auto a = assess(small).air.baffle, b = assess(large).air.baffle;
    QVERIFY(a && b && a->shut_s && b->shut_s);
    verifyClose(*a->shut_s, *b->shut_s, 1e-12, 0,
                QStringLiteral("doors shut, their size does not matter"));
    QVERIFY(a->costs_m > b->costs_m);
    QVERIFY(a->costsCold_m > b->costsCold_m && b->costsCold_m > 0);
    // Shut, the compartment's own oil over the draw: A (h0 − h)/q.
    const AirReport air = assess(small).air;
    const double flow
        = *small.sump.own("compartment_area_mm2") * 1e-6 * (a->start_m - a->limit_m) / *a->shut_s;
    QVERIFY(flow * litresPerMinute > 3 && flow * litresPerMinute < 60);
    QVERIFY(!assess(with(small, SetSumpValue { "compartment_area_mm2", std::nullopt })).air.baffle);
}

void TestAir::doors_helpInATurn_notOnASlope()
{
    // Turns shorter than the doors hold: a bare mouth in them is a watch.
    Build build
        = withUse(withUse(withValue(demoBuild(), "fill_l", 3.4), "heel_deg", 0), "turn_g", 2.5);
    build = withUse(build, "turn_s", 0.1);
    const AirReport shut = assess(build).air;
    QVERIFY(shut.find("turn_left")->submergence_m < shut.find("turn_left")->wanted.dip_m);
    QCOMPARE(stateOf(shut, "uncovering"), AirState::Watch);
    QCOMPARE(stateOf(assess(withUse(build, "turn_s", 60)).air, "uncovering"), AirState::High);
    // A slope goes on: the same doors do not save it, and the turn does not hide it.
    const AirReport slope = assess(withUse(build, "heel_deg", 60)).air;
    QVERIFY(slope.find("heel_left")->submergence_m < slope.find("heel_left")->wanted.dip_m);
    QCOMPARE(stateOf(slope, "uncovering"), AirState::High);
    QVERIFY(said(slope.row("uncovering")->reason).find("leaning") != std::string::npos);
    // Nothing is said of braking without a section along.
    Build across = withUse(withUse(demoBuild(), "turn_g", 0), "braking_g", 0.5);
    across.sump.along.clear();
    const AirReport half = assess(across).air;
    QVERIFY(stateOf(half, "uncovering") != AirState::Low);
    QVERIFY(said(half.row("uncovering")->reason).find("braking is not judged")
            != std::string::npos);
}

void TestAir::coolant_holdsAndOverridesTheRest()
{
    const Assessment a = assess(with(demoBuild(), SetForeign { false, "confirmed" }));
    QCOMPARE(a.air.overall, AirState::High);
    QVERIFY(a.air.foreign);
    QCOMPARE(fixture::stateOf(with(demoBuild(), SetForeign { false, "confirmed" }), "air@engine"),
             "hold");
    const Assessment fuel = assess(with(demoBuild(), SetForeign { true, "suspected" }));
    QCOMPARE(stateOf(fuel.air, "foreign"), AirState::Watch);
    QCOMPARE(stateOf(assess(with(demoBuild(), SetForeign { true, "" })).air, "foreign"),
             AirState::Unknown);
}

void TestAir::leak_underTheOil_drawsNoAir()
{
    const Build open = withValue(demoBuild(), "leak_mm2", 3);
    const AirReport high = assess(withValue(open, "joint_z_mm", 150)).air;
    const AirReport low = assess(withValue(open, "joint_z_mm", 5)).air;
    QVERIFY(high.leakShare > 0);
    QCOMPARE(low.leakShare, 0.0);
    QCOMPARE(stateOf(low, "leak"), AirState::Watch); // mended all the same
    QVERIFY(said(high.row("leak")->quantity).find("L/min of air") != std::string::npos);
    QCOMPARE(stateOf(assess(withValue(demoBuild(), "leak_mm2", 0)).air, "leak"), AirState::Low);
}

void TestAir::drySump_isJudgedByItsTank()
{
    const Build build = loadTemplate("v8-dry-sump")->build;
    const AirReport air = assess(build).air;
    QVERIFY(air.tank && air.window && air.window->feasible());
    QCOMPARE(stateOf(air, "uncovering"), AirState::Low);
    QVERIFY(air.tank->swirl_m > 0);
    // A wide return turns the oil less: speed by the area, dip by its square.
    const AirReport slow
        = assess(withValue(build, "return_bore_mm", *build.sump.own("return_bore_mm") * 2)).air;
    verifyClose(slow.tank->swirl_m, air.tank->swirl_m / 16, 1e-6, 0, QStringLiteral("swirl"));
    // A soft thin hose folds.
    const AirReport soft
        = assess(withValue(withValue(build, "hose_wall_mm", 0.4), "hose_mpa", 0.5)).air;
    QCOMPARE(stateOf(soft, "release"), AirState::High);
    QVERIFY(said(soft.row("release")->reason).find("folds") != std::string::npos);
    const AirReport dry = assess(withValue(build, "fill_l", 3)).air;
    QVERIFY(stateOf(dry, "uncovering") != AirState::Low);
}

/// What grows or is pushed aside comes to the fill, what stays up goes: the rest is in the pan.
void TestAir::fill_isAccountedFor()
{
    Build b = demoBuild();
    for (const double fill_l : { 4.0, 4.6, 5.5 }) {
        b.sump.values["fill_l"] = fill_l;
        const Assessment a(b);
        QString words = QString::fromStdString(render(a.air.balance));
        words.replace(QChar(0xA0), u' ');
        double sum = 0, left = -1;
        for (const QString &part : words.split(QStringLiteral(" · "))) {
            const auto number = QRegularExpression(QStringLiteral("([0-9.]+) L")).match(part);
            QVERIFY2(number.hasMatch(), qPrintable(words));
            const double l = number.captured(1).toDouble();
            if (part.contains(QStringLiteral("left")))
                left = l;
            else
                sum += part.contains(QStringLiteral("stays"))
                        || part.contains(QStringLiteral("held"))
                    ? -l
                    : l;
        }
        QVERIFY2(left > 0 && std::abs(sum - left) < 0.03, qPrintable(words));
    }
}

} // namespace tst_air

MILDPATH_TEST(tst_air, TestAir)
#include "tst_air.moc"
