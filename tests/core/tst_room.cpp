// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/finding.h"
#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "oil/grades.h"
#include "quantity/json.h"
#include "report/assessmentreport.h"
#include "study/contacts.h"
#include "study/room.h"
#include "testing.h"

using namespace mildpath;

namespace tst_room {

/// The heat compromise: growth by parts, room to choose, warm-up, the crank's oil.
class TestRoom : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void growth_agreesWithTheLaw_data();
    void growth_agreesWithTheLaw();
    void hybridHousing_growsBetweenItsMetals();
    void expansionsUncertainty_widensTheBand();
    void alloy_takesTheOilFromTheRods();
    void iron_doesNothingOfTheKind();
    void map_isTheCircuitsOwnAnswer_data();
    void map_isTheCircuitsOwnAnswer();
    void map_fallsWithClearanceAndRisesWithViscosity();
    void coarseMap_liesOnTheFine();
    void cancelledMap_saysSo();
    void map_withoutTheFamily_saysSo();
    void hopelessBuild_hasNoRoom();
    void roomsEdges_justHold_data();
    void roomsEdges_justHold();
    void filmsEdge_isWhereLambdaIsTwo();
    void levers_openWhatTheySay();
    void spring_doesNothingWhileTheReliefIsShut();
    void preheat_isWhatTheFloorAsks();
    void coldStart_saysHowWarmToPreheat();
    void housingsThatGrowLess_closeHot();
    void warmUp_endsAtHotIdle_data();
    void warmUp_endsAtHotIdle();
    void warmUp_alloyClosesBehindTheBlock();
};

namespace {

Build templateBuild(const char *name)
{
    return loadTemplate(name)->build;
}

GaugedSize familySize(const std::vector<GaugedSize> &sizes, const std::string &family)
{
    for (const GaugedSize &s : sizes)
        if (s.family == family)
            return s;
    qFatal("no such family");
}

/// Hot idle with every bearing of a family moved and another oil.
OperatingResult hotIdle(Build b, std::vector<GaugedSize> sizes, const std::string &family,
                        double by_um, const ChosenOil &oil)
{
    for (GaugedSize &s : sizes)
        if (s.family == family)
            s.circuit_um += by_um;
    b.oil = oil;
    auto model = OperatingModel::make(b, sizes, b.use.hotOil_c);
    return model->at(b.use.hotIdle_rpm, OperatingModel::Detail::Values).value();
}

} // namespace

void TestRoom::growth_agreesWithTheLaw_data()
{
    QTest::addColumn<QString>("family");
    QTest::addColumn<double>("housing_c");
    QTest::addColumn<double>("journal_c");
    QTest::newRow("main hot") << "main" << 98.0 << 100.0;
    QTest::newRow("main in frost") << "main" << -20.0 << -20.0;
    QTest::newRow("block ahead of the crank") << "main" << 60.0 << 10.0;
    QTest::newRow("rod") << "big_end" << 98.0 << 100.0;
}

void TestRoom::growth_agreesWithTheLaw()
{
    QFETCH(QString, family);
    QFETCH(double, housing_c);
    QFETCH(double, journal_c);
    const Build b = templateBuild("inline-four-alloy");
    const GaugedSize s = familySize(judgeSizes(b), family.toStdString());
    const Stop &stop = *b.engine.find(s.stop);
    const bool main = s.family == "main";
    const ThermalClearance law = thermalClearance(
        { .cold = { s.circuit_um * 1e-6 },
          .journalDiameter_m = journalOf_mm(b, stop) * 1e-3,
          .shellWall_m = stop.value("shell_wall_mm") * 1e-3,
          .housingExpansion_per_k
          = findMaterial(main ? b.engine.block : b.engine.rod)->expansion_per_k,
          .housing = { housing_c },
          .journalExpansion_per_k = findMaterial(b.engine.crank)->expansion_per_k,
          .journal = { journal_c },
          .cap = {} });
    PartTemperatures t = allAt(500); // what does not count must not matter
    (main ? t.block_c : t.rod_c) = housing_c;
    t.journal_c = journal_c;
    verifyClose(s.at(t), law.clearance.value_m * 1e6, 0, 1e-6);
}

void TestRoom::hybridHousing_growsBetweenItsMetals()
{
    const Build iron = templateBuild("inline-four-wet-sump");
    const Build hybrid = applyEdit(iron, SetMaterial { "main_cap", "cast_aluminium", 0.5 }).value();
    const Build alloy = applyEdit(iron, SetMaterial { "block", "cast_aluminium", {} }).value();
    const PartTemperatures hot = settledTemperatures(iron, 100);
    const auto running = [&](const Build &b) { return familySize(judgeSizes(b), "main").at(hot); };
    QVERIFY(running(iron) < running(hybrid) && running(hybrid) < running(alloy));
    verifyClose(running(hybrid), (running(iron) + running(alloy)) / 2, 0, 0.1);
    // Some 64 mm, 11e-6 apart, 78 K: the bore goes 55 µm out of round.
    const GaugedSize mixed = familySize(judgeSizes(hybrid), "main");
    verifyClose(mixed.growth.spread_um(hot), 64e3 * 11e-6 * 78, 0.01);
    QCOMPARE(familySize(judgeSizes(iron), "main").growth.spread_um(hot), 0.0);
    const auto band = [](const Build &b) {
        const LikelyPressure p = assess(b).operating.hotIdle.gauge;
        return (p.high_pa - p.low_pa) / p.value_pa;
    };
    // Measured throughout, so that what is assumed does not drown it.
    const Build measured = demoBuild();
    const Build measuredHybrid
        = applyEdit(measured, SetMaterial { "main_cap", "cast_aluminium", 0.5 }).value();
    QVERIFY(band(measuredHybrid) > 1.4 * band(measured));
}

void TestRoom::expansionsUncertainty_widensTheBand()
{
    const Build b = templateBuild("inline-four-alloy");
    const auto width = [](const Build &build) {
        const Assessment a = assess(build);
        return a.operating.hotIdle.gauge.high_pa - a.operating.hotIdle.gauge.low_pa;
    };
    OwnExpansion own;
    own.per_k = findMaterial("cast_aluminium")->expansion_per_k;
    own.source = "maker";
    const Build sure = applyEdit(b, SetExpansion { "cast_aluminium", own }).value();
    own.u_per_k = 2e-6;
    const Build unsure = applyEdit(b, SetExpansion { "cast_aluminium", own }).value();
    QVERIFY(width(sure) < width(b));
    QVERIFY(width(b) < width(unsure));
}

void TestRoom::alloy_takesTheOilFromTheRods()
{
    const Build b = templateBuild("inline-four-alloy");
    const std::array oil { 20.0, 60.0, 100.0, 120.0 };
    const auto over = crankOilOver(b, judgeSizes(b), 800, oil);
    QVERIFY(over);
    for (size_t i = 1; i < oil.size(); ++i) {
        QVERIFY((*over)[i].mains_um > (*over)[i - 1].mains_um + 10);
        QVERIFY((*over)[i].bigEndsShare < (*over)[i - 1].bigEndsShare);
    }
    QVERIFY(over->back().bigEndsShare < 0.5 * over->front().bigEndsShare);
    // The forecast carries it along, hotter by hotter.
    const Assessment a = assess(b);
    QVERIFY(a.forecast.lines[0].bigEndsOfCrank.front()
            > 1.5 * a.forecast.lines[1].bigEndsOfCrank.front());
    QVERIFY(a.forecast.lines[1].bigEndsOfCrank.front()
            > a.forecast.lines[2].bigEndsOfCrank.front());
    const Json json = jsonOfAssessment(b);
    QVERIFY(json["forecast"][0]["points"][0].contains("big_ends_of_crank_oil"));
}

void TestRoom::iron_doesNothingOfTheKind()
{
    const Build b = templateBuild("inline-four-wet-sump");
    const std::array oil { 20.0, 60.0, 100.0, 120.0 };
    const auto over = crankOilOver(b, judgeSizes(b), 800, oil);
    QVERIFY(over);
    for (size_t i = 1; i < oil.size(); ++i)
        QVERIFY((*over)[i].mains_um < (*over)[i - 1].mains_um);
    const double cold = over->front().bigEndsShare, hot = over->back().bigEndsShare;
    // The films' own warmth and the way in through the crank move it; the alloy block moves it to a
    // third.
    verifyClose(hot, cold, 0.3);
}

void TestRoom::map_isTheCircuitsOwnAnswer_data()
{
    QTest::addColumn<QString>("family");
    QTest::addColumn<int>("row");
    QTest::addColumn<int>("column");
    QTest::newRow("mains, thinnest, tight") << "main" << 0 << 0;
    QTest::newRow("mains, thick, wide") << "main" << 8 << 39;
    QTest::newRow("mains, middle") << "main" << 4 << 17;
    QTest::newRow("big-ends") << "big_end" << 5 << 30;
}

void TestRoom::map_isTheCircuitsOwnAnswer()
{
    QFETCH(QString, family);
    QFETCH(int, row);
    QFETCH(int, column);
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    Progress progress;
    const auto map = roomMap(b, sizes, family.toStdString(), conditionsOf(b), 40, &progress);
    QVERIFY(map);
    const size_t oils = 12; // of the shelf, for engines
    QCOMPARE(map->rows.size(), oils);
    QCOMPARE(map->cold_um.size(), size_t(40));
    QCOMPARE(progress.done.load(), static_cast<int>(40 * oils));
    QCOMPARE(progress.whole.load(), static_cast<int>(40 * oils));
    QVERIFY(map->rows[static_cast<size_t>(map->hereRow)].grade == b.oil.grade);
    const RoomRow &r = map->rows[static_cast<size_t>(row)];
    const auto c = static_cast<size_t>(column);
    const OperatingResult asked
        = hotIdle(b, sizes, family.toStdString(), map->cold_um[c] - map->here_um,
                  findOil(b, r.grade).value());
    verifyClose(r.gauge_pa[c], asked.gauge.value_pa, 1e-6);
    verifyClose(r.ratio[c], asked.points[static_cast<size_t>(asked.weakest)].ratio(), 1e-6);
}

void TestRoom::map_fallsWithClearanceAndRisesWithViscosity()
{
    const Build b = templateBuild("inline-four-alloy");
    const auto map = roomMap(b, judgeSizes(b), "main", conditionsOf(b), 12);
    QVERIFY(map);
    for (size_t row = 0; row < map->rows.size(); ++row)
        for (size_t c = 0; c < map->cold_um.size(); ++c) {
            if (c > 0)
                QVERIFY(map->rows[row].gauge_pa[c] < map->rows[row].gauge_pa[c - 1]);
            if (row > 0
                && map->rows[row].oil.kv100_mm2_s > 1.05 * map->rows[row - 1].oil.kv100_mm2_s)
                QVERIFY(map->rows[row].gauge_pa[c] > map->rows[row - 1].gauge_pa[c] * 0.999);
        }
    // A contour is met where the pressure is, from whichever side.
    const RoomRow &r = map->rows[6];
    const double middle = (r.gauge_pa.front() + r.gauge_pa.back()) / 2;
    const auto crossing = map->crossings_um(r, middle);
    QCOMPARE(crossing.size(), size_t(1));
    const OperatingResult there = hotIdle(b, judgeSizes(b), "main", crossing.front() - map->here_um,
                                          findOil(b, r.grade).value());
    verifyClose(there.gauge.value_pa, middle, 0.01);
    QVERIFY(map->crossings_um(r, 50e5).empty());
}

void TestRoom::coarseMap_liesOnTheFine()
{
    const Build b = templateBuild("inline-four-alloy");
    const auto sizes = judgeSizes(b);
    const auto coarse = roomMap(b, sizes, "main", conditionsOf(b), 10);
    const auto fine = roomMap(b, sizes, "main", conditionsOf(b), 55);
    for (size_t row = 0; row < coarse->rows.size(); ++row) {
        for (size_t c = 0; c < 10; ++c)
            verifyClose(coarse->rows[row].gauge_pa[c], fine->rows[row].gauge_pa[6 * c], 1e-6);
        const auto a = coarse->most_um(coarse->rows[row]), z = fine->most_um(fine->rows[row]);
        QCOMPARE(a.has_value(), z.has_value());
        if (a)
            verifyClose(*a, *z, 0, 1.5);
    }
}

void TestRoom::cancelledMap_saysSo()
{
    const Build b = demoBuild();
    Progress progress;
    progress.cancel = true;
    const auto map = roomMap(b, judgeSizes(b), "main", conditionsOf(b), 40, &progress);
    QVERIFY(!map);
    QCOMPARE(map.error().place, std::string("cancelled"));
    QVERIFY(progress.done < 360);
}

void TestRoom::map_withoutTheFamily_saysSo()
{
    const Build b = demoBuild();
    const auto map = roomMap(b, judgeSizes(b), "turbo", conditionsOf(b), 10);
    QVERIFY(!map);
    QCOMPARE(map.error().place, std::string("family"));
}

void TestRoom::hopelessBuild_hasNoRoom()
{
    Build b = templateBuild("inline-four-alloy");
    b.use.hotIdleFloor_kpa = 900;
    const auto room = roomOf(b, judgeSizes(b), "main", conditionsOf(b));
    QVERIFY(room);
    QCOMPARE(room->most_um, 0.0); // no figure is made up
    QVERIFY(room->width_um() < 0 && !room->inside());
    const auto map = roomMap(b, judgeSizes(b), "main", conditionsOf(b), 10);
    for (const RoomRow &r : map->rows)
        QVERIFY(!map->most_um(r));
    b.use.hotIdleFloor_kpa = 0;
    for (const char *family : { "main", "big_end" }) {
        const auto wide = roomOf(b, judgeSizes(b), family, conditionsOf(b));
        QVERIFY(wide && wide->most_um > room->least_um && wide->most_um <= mostRoom_um);
    }
}

void TestRoom::roomsEdges_justHold_data()
{
    QTest::addColumn<QString>("name");
    QTest::addColumn<QString>("family");
    QTest::newRow("iron, mains") << "inline-four-wet-sump"
                                 << "main";
    QTest::newRow("alloy, mains") << "inline-four-alloy"
                                  << "main";
    QTest::newRow("alloy, big-ends") << "inline-four-alloy"
                                     << "big_end";
}

void TestRoom::roomsEdges_justHold()
{
    QFETCH(QString, name);
    QFETCH(QString, family);
    const Build b = templateBuild(name.toUtf8());
    const auto sizes = judgeSizes(b);
    const std::string id = family.toStdString();
    const auto room = roomOf(b, sizes, id, conditionsOf(b));
    QVERIFY(room);
    const auto edge = [&](RoomBound bound) {
        return std::ranges::find(room->edges, bound, &RoomEdge::bound)->um;
    };
    const auto at
        = [&](double mean_um) { return hotIdle(b, sizes, id, mean_um - room->here_um, b.oil); };
    // Hot: gauge and weakest stop just have what they need, or do all the way.
    const double floor_pa = b.use.hotIdleFloor_kpa * 1e3;
    const auto gauge = edge(RoomBound::Pressure), need = edge(RoomBound::Need);
    QVERIFY(at(gauge.value_or(mostRoom_um)).gauge.value_pa > 0.998 * floor_pa);
    if (gauge)
        verifyClose(at(*gauge).gauge.value_pa / floor_pa, 1, 0.002);
    QVERIFY(need);
    const OperatingResult weak = at(*need);
    verifyClose(weak.points[static_cast<size_t>(weak.weakest)].ratio(), 1, 0.005);
    // The likely gauge's low end meets the floor before the gauge does.
    QVERIFY(room->pressureLow_um && *room->pressureLow_um < gauge.value_or(mostRoom_um));
    // Tight: the tightest, less what its reading may be off, is at the floor, cold or hot.
    double tightest = 1e9, limitLow = 0, limitHigh = 1e9, journal_mm = 1e9;
    for (const GaugedSize &s : sizes)
        if (s.family == id) {
            const double u_um = s.measured ? s.cold_um.expanded() : 0;
            tightest = std::min(
                { tightest, s.at(allAt(b.use.coldestStart_c)) - u_um, s.running_um - u_um });
            limitLow = std::max(limitLow, s.limits->min_um);
            limitHigh = std::min(limitHigh, s.limits->max_um);
            journal_mm = std::min(journal_mm, s.journal_mm);
        }
    verifyClose(tightest + *edge(RoomBound::Floor) - room->here_um, b.use.coldestClearanceFloor_um,
                0, 1e-6);
    QCOMPARE(*edge(RoomBound::MakerLeast), limitLow);
    QCOMPARE(*edge(RoomBound::Maker), limitHigh);
    // Common practice: 1.5 µm a millimetre of main journal, 2 of big-end.
    verifyClose(*edge(RoomBound::Noise), (id == "main" ? 1.5 : 2.0) * journal_mm, 1e-9);
    // The room lies between the nearest.
    for (const RoomEdge &e : room->edges)
        if (e.um)
            QVERIFY(e.tight() ? *e.um <= room->least_um : *e.um >= room->most_um);
    QCOMPARE(*edge(room->mostBy), room->most_um);
    QCOMPARE(*edge(room->leastBy), room->least_um);
}

void TestRoom::filmsEdge_isWhereLambdaIsTwo()
{
    // Boosted, so that wide big-ends lose their film.
    const Build b
        = loadBuild(demoBuildPath().parent_path() / "harbour-launch-turbo.mildpath")->build;
    const auto sizes = judgeSizes(b);
    const auto room = roomOf(b, sizes, "big_end", conditionsOf(b));
    QVERIFY(room);
    const auto film = std::ranges::find(room->edges, RoomBound::Film, &RoomEdge::bound)->um;
    QVERIFY(film && *film > room->here_um);
    const auto lambda = [&](double mean_um) {
        auto model = OperatingModel::make(b, movedBy(sizes, "big_end", mean_um - room->here_um),
                                          b.use.hotOil_c);
        double least = 1e9;
        for (const double rpm : { b.use.highSpeed_rpm, b.use.most_rpm })
            for (const Contact &c : contactsOf(b, *model->at(rpm)))
                if (c.id == "big_ends_full")
                    least = std::min(least, c.filmParameter);
        return least;
    };
    // To the share the edge is found to; the film may be lost at once there.
    QVERIFY(lambda(*film * 0.995) >= 2 && lambda(*film * 1.005) < 2.01);
}

void TestRoom::levers_openWhatTheySay()
{
    // Without limits near, so that pressure ends the room.
    Build b = templateBuild("inline-four-alloy");
    for (auto &[family, limits] : b.limits) {
        limits.min_um = 1;
        limits.max_um = 200;
        limits.target_um = 45;
    }
    const auto sizes = judgeSizes(b);
    const auto room = roomOf(b, sizes, "main", conditionsOf(b));
    QVERIFY(room && room->levers.size() >= 6);
    QVERIFY(room->mostBy == RoomBound::Pressure || room->mostBy == RoomBound::Need);
    RoomConditions wider = conditionsOf(b);
    wider.pumpSection = 1.2;
    const auto pumped = roomOf(b, sizes, "main", wider);
    const auto lever = [&](const char *beginning) -> const RoomLever & {
        for (const RoomLever &l : room->levers)
            if (said(l.name).starts_with(beginning))
                return l;
        qFatal("no such lever");
    };
    verifyClose(lever("pump").opens_um, pumped->width_um() - room->width_um(), 0, 0.2);
    verifyClose(lever("pump").idleChange, pumped->gauge_pa / room->gauge_pa - 1, 1e-3);
    QVERIFY(lever("pump").opens_um > 0 && lever("thicker").opens_um > 0);
    RoomConditions warm = conditionsOf(b);
    warm.coldestStart_c = 10;
    const auto warmed = roomOf(b, sizes, "main", warm);
    verifyClose(lever("preheat").opens_um, warmed->width_um() - room->width_um(), 0, 0.2);
    verifyClose(lever("preheat").idleChange, 0, 0, 1e-6);
    QVERIFY(lever("mains -8").idleChange > 0);
    QVERIFY(lever("big-ends").opens_um > 0);
}

void TestRoom::spring_doesNothingWhileTheReliefIsShut()
{
    const Build b = templateBuild("inline-four-alloy");
    const auto room = roomOf(b, judgeSizes(b), "main", conditionsOf(b));
    const RoomLever &spring = room->levers.back();
    QVERIFY(said(spring.name).starts_with("relief spring"));
    verifyClose(spring.opens_um, 0, 0, 0.2);
    verifyClose(spring.idleChange, 0, 0, 5e-4);
    QVERIFY(said(spring.remark).starts_with("nothing"));
}

void TestRoom::preheat_isWhatTheFloorAsks()
{
    Build b = templateBuild("inline-four-alloy");
    const auto sizes = judgeSizes(b);
    QVERIFY(!roomOf(b, sizes, "main", conditionsOf(b))->preheat_c);
    RoomConditions arctic = conditionsOf(b);
    arctic.coldestStart_c = -40;
    const auto room = roomOf(b, sizes, "main", arctic);
    QVERIFY(room->preheat_c && *room->preheat_c > -40);
    double tightest = 1e9;
    for (const GaugedSize &s : sizes)
        if (s.family == "main")
            tightest = std::min(tightest, s.at(allAt(*room->preheat_c)));
    verifyClose(tightest, b.use.coldestClearanceFloor_um, 0, 1e-6);
}

void TestRoom::coldStart_saysHowWarmToPreheat()
{
    Build b = templateBuild("inline-four-alloy");
    b.use.coldestStart_c = -45;
    const Assessment a = assess(b);
    const std::string id = "cold@" + coldestOf(a.sizes)->stop;
    QCOMPARE(fixture::stateOf(b, id), "hold");
    const std::string action = fixture::nextOf(b, id);
    const auto t = coldestOf(a.sizes)->closesAt_c(b.use.coldestClearanceFloor_um);
    QVERIFY(t);
    QVERIFY2(action.find(formatPlain(std::ceil(*t), 0) + " °C") != std::string::npos,
             action.c_str());
    // A steel rod on a steel journal: cold does nothing.
    for (const GaugedSize &s : a.sizes)
        if (s.family == "big_end")
            QVERIFY(!s.closesAt_c(15));
}

void TestRoom::housingsThatGrowLess_closeHot()
{
    const Build b = templateBuild("inline-four-wet-sump");
    const auto holds = [](const Build &build) {
        int n = 0;
        for (const Stop &s : build.engine.stops)
            n += fixture::stateOf(build, "heat@" + s.id) == "hold";
        return n;
    };
    QCOMPARE(holds(b), 0);
    OwnExpansion own;
    own.per_k = 3e-6;
    own.source = "a metal that hardly grows";
    const Build stiff = applyEdit(b, SetExpansion { "grey_iron", own }).value();
    QCOMPARE(holds(stiff), 5); // every main
}

void TestRoom::warmUp_endsAtHotIdle_data()
{
    QTest::addColumn<QString>("name");
    QTest::newRow("iron") << "inline-four-wet-sump";
    QTest::newRow("alloy") << "inline-four-alloy";
}

void TestRoom::warmUp_endsAtHotIdle()
{
    QFETCH(QString, name);
    const Build b = templateBuild(name.toUtf8());
    const Assessment a = assess(b);
    const std::array times { 0.0, 60.0, 300.0, 1e5 };
    const auto run = warmUpRun(b, a.sizes, b.use.hotIdle_rpm, times);
    QVERIFY(run);
    verifyClose(run->points.back().gauge_pa, a.operating.hotIdle.gauge.value_pa, 1e-6);
    verifyClose(run->points.back().weakest_pa, a.operating.hotIdle.weakestPressure.value_pa, 1e-6);
    verifyClose(run->points.front().parts.oil_c, b.use.coldestStart_c, 1e-9);
    QVERIFY(run->points.front().gauge_pa > run->points.back().gauge_pa);
}

void TestRoom::warmUp_alloyClosesBehindTheBlock()
{
    // The block warms faster than the crank, so the mains open past their settled clearance.
    const Build b = templateBuild("inline-four-alloy");
    const auto sizes = judgeSizes(b);
    const std::array times { 0.0, 300.0, 600.0, 1e5 };
    const auto run = warmUpRun(b, sizes, 800, times);
    const double settled = run->points.back().mains_um;
    QVERIFY(run->points[2].mains_um > settled + 3);
    QVERIFY(run->points[0].mains_um < settled - 40);
    const auto slow = applyEdit(b, SetHeat { "block_at_idle_s", 2000 });
    QVERIFY(warmUpRun(*slow, sizes, 800, times)->points[1].mains_um < run->points[1].mains_um);
}

} // namespace tst_room

MILDPATH_TEST(tst_room, TestRoom)
#include "tst_room.moc"
