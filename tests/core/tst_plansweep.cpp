// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/lines.h"
#include "checks/assessment.h"
#include "circuit/elementtypes.h"
#include "diagnose/whatif.h"
#include "document/dimensions.h"
#include "document/engineplan.h"
#include "passage/passage.h"
#include "report/buildsheet.h"
#include "storage/readingtable.h"
#include "testing.h"

#include <random>
#include <set>

// Engines described in every combination of words: each is a whole build that validates, is solved
// from idle to its limit, survives its file and fills a sheet.

using namespace mildpath;

namespace tst_plansweep {

class TestPlanSweep : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyLayout_isAnEngine_data();
    void everyLayout_isAnEngine();
    void everyCrank_hasTheMainsAsked_data();
    void everyCrank_hasTheMainsAsked();
    void wrongMains_areRefusedWithTheRange();
    void plugMissing_leavesTheMainsInSeries();
    void pumpsByDisplacement_moveAsMuch();
    void oldPumpsPort_wantsItsCap();
    void tankReturns_areJoinedOrPlugged();
    void turboAtTheFilter_leavesTheBlock();
    void squirtHoles_areOneMoreHoleEach();
    void hollowCams_carryTheirOil();
    void phaserOfItsOwn_doesNotHangOnTheCam();
    void idlers_haveTheirNeed();
    void mixedWords_makeWholeBuilds_data();
    void mixedWords_makeWholeBuilds();
    void size_scalesWhatFollowsFromIt_data();
    void size_scalesWhatFollowsFromIt();
    void senselessPlans_areRefused_data();
    void senselessPlans_areRefused();
    void sheet_holdsWhatTheBuildHolds_data();
    void sheet_holdsWhatTheBuildHolds();

private:
    static void isWhole(const Build &b)
    {
        const auto faults = validateBuild(b);
        QVERIFY2(faults.empty(),
                 faults.empty() ? "" : (faults[0].place + ": " + said(faults[0].message)).c_str());
        const Assessment a = assess(b);
        QVERIFY2(!a.operating.unsolved,
                 a.operating.unsolved ? said(a.operating.unsolved->message).c_str() : "");
        QVERIFY(a.operating.hotIdle.gauge.value_pa > 2e4
                && a.operating.hotIdle.gauge.value_pa < 8e5);
        // Nowhere below the vapour of hot oil, nowhere above what the relief lets through by far.
        for (const PointPressure &p : a.operating.hotIdle.points)
            QVERIFY2(p.pressure_pa > -9e4 && p.pressure_pa < 2e6, p.name.c_str());
        double shares = 0;
        for (const OilShare &s : a.operating.hotIdle.shares)
            shares += s.ofSwept;
        verifyClose(shares, 1, 1e-3);
        const auto back = parseBuild(buildText(b));
        QVERIFY(back);
        QVERIFY(back->build == b);
        std::set<std::string> ids;
        for (const Stop &s : b.engine.stops)
            QVERIFY2(ids.insert(s.id).second, s.id.c_str());
    }
};

void TestPlanSweep::everyLayout_isAnEngine_data()
{
    QTest::addColumn<QString>("layout");
    QTest::addColumn<int>("cylinders");
    for (const LayoutChoice &l : layoutChoices())
        for (const int n : l.cylinders)
            QTest::addRow("%s, %d", std::string(l.layout).c_str(), n)
                << QString::fromUtf8(l.layout.data(), static_cast<qsizetype>(l.layout.size())) << n;
}

void TestPlanSweep::everyLayout_isAnEngine()
{
    QFETCH(QString, layout);
    QFETCH(int, cylinders);
    EnginePlan plan;
    plan.layout = layout.toStdString();
    plan.cylinders = cylinders;
    plan.name = "Sweep";
    const auto b = planBuild(plan);
    QVERIFY2(b, b ? "" : said(b.error().message).c_str());
    isWhole(*b);
    int mains = 0, bigEnds = 0;
    for (const Stop &s : b->engine.stops) {
        mains += s.kind == StopKind::Main;
        bigEnds += s.kind == StopKind::BigEnd;
    }
    QCOMPARE(mains, plan.mainCount());
    QCOMPARE(bigEnds, cylinders);
    QCOMPARE(b->engine.cylinders, cylinders);
    // Displacement is that of bore and stroke.
    const double litres = cylinders * 3.14159265 / 4 * 0.91 * 0.91 * 0.91; // dm³
    verifyClose(displacement_l(b->engine), litres, 0.02);
}

void TestPlanSweep::everyCrank_hasTheMainsAsked_data()
{
    QTest::addColumn<QString>("layout");
    QTest::addColumn<int>("cylinders");
    QTest::addColumn<int>("mains");
    for (const LayoutChoice &l : layoutChoices())
        for (const int n : l.cylinders) {
            EnginePlan plan;
            plan.layout = l.layout;
            plan.cylinders = n;
            for (int m = leastMains(plan); m <= mostMains(plan); ++m)
                QTest::addRow("%s, %d, %d mains", plan.layout.c_str(), n, m)
                    << QString::fromStdString(plan.layout) << n << m;
        }
}

void TestPlanSweep::everyCrank_hasTheMainsAsked()
{
    QFETCH(const QString, layout);
    QFETCH(const int, cylinders);
    QFETCH(const int, mains);
    EnginePlan plan;
    plan.layout = layout.toStdString();
    plan.cylinders = cylinders;
    plan.mains = mains;
    const auto b = planBuild(plan);
    QVERIFY2(b, b ? "" : said(b.error().message).c_str());
    isWhole(*b);
    std::set<std::string> feeding; // mains whose oil goes on to a rod
    int count = 0;
    for (const Stop &s : b->engine.stops)
        count += s.kind == StopKind::Main;
    QCOMPARE(count, mains);
    for (const Element &e : b->circuit.elements)
        if (e.kind == ElementKind::CrankDrilling)
            feeding.insert(e.from);
    // Every bay's rods are fed from a main beside it: at least half of the mains feed one.
    QVERIFY(2 * static_cast<int>(feeding.size()) >= mains - 1);
    QVERIFY(parseBuild(buildText(*b))->build == *b);
}

void TestPlanSweep::wrongMains_areRefusedWithTheRange()
{
    EnginePlan plan;
    for (const int mains : { -1, 1, 6, 9, 10 }) {
        plan.mains = mains;
        const auto b = planBuild(plan);
        QVERIFY(!b);
        QCOMPARE(b.error().place, std::string("mains"));
        QVERIFY2(said(b.error().message).find("2 to 5") != std::string::npos,
                 said(b.error().message).c_str());
    }
}

/// Mains behind a lifter gallery in series keep their oil when its last plug is missing, and the
/// last lifters do not; beside it they lose it with them.
void TestPlanSweep::plugMissing_leavesTheMainsInSeries()
{
    EnginePlan plan;
    plan.layout = "vee";
    plan.cylinders = 8;
    plan.bore_mm = 102;
    plan.stroke_mm = 88;
    plan.overhead = "pushrods";
    const auto worst = [&](const char *order) {
        plan.order = order;
        const Build b = planBuild(plan).value();
        const auto what
            = whatIf(b, judgeSizes(b), { { "plug_missing", "lifter_plug_right", 0, 1 } }, 700, 20);
        std::pair<double, std::vector<std::string>> out { 1e9, {} };
        for (const PointPressure &p : what->after.points) {
            const StopKind kind = b.engine.find(p.stop)->kind;
            if (kind == StopKind::Main || kind == StopKind::BigEnd)
                out.first = std::min(out.first, p.ratio());
            if (kind == StopKind::Lifter && p.ratio() < 1)
                out.second.push_back(p.name);
        }
        return out;
    };
    const auto series = worst("lifters_series"), beside = worst("lifters_first");
    QVERIFY2(series.first >= 1 && series.first < 1.8, qPrintable(QString::number(series.first)));
    QVERIFY2(beside.first < 0.6, qPrintable(QString::number(beside.first)));
    QVERIFY(series.second.size() >= 4 && series.second.size() <= 6);
    QCOMPARE(series.second.back(), std::string("Lifter 16"));
    QVERIFY(beside.second.size() >= 8);
}

void TestPlanSweep::pumpsByDisplacement_moveAsMuch()
{
    EnginePlan plan;
    const auto turn = [&](const char *pump) {
        plan.pump = pump;
        const Build b = planBuild(plan).value();
        for (const Element &e : b.circuit.elements)
            if (e.kind == ElementKind::Pump)
                return std::pair(pumpDisplacement_m3(e), e.values.contains("displacement_m3"));
        return std::pair(0.0, false);
    };
    QVERIFY(!turn("gerotor").second);
    for (const char *pump : { "gear", "vane" }) {
        QVERIFY(turn(pump).second);
        verifyClose(turn(pump).first, turn("gerotor").first, 1e-3);
    }
    plan.pump = "piston";
    QVERIFY(!planBuild(plan));
}

void TestPlanSweep::oldPumpsPort_wantsItsCap()
{
    EnginePlan plan;
    plan.oldPumpPort = true;
    QCOMPARE(planBuild(plan).error().place, std::string("old_pump_port"));
    plan.drySump = true;
    Build b = planBuild(plan).value();
    isWhole(b);
    // Planned, and seen by nobody.
    QVERIFY(b.plumbing.capOf("engine.old_pump") && b.plumbing.capOf("engine.old_pump")->by.empty());
    QVERIFY(judgeLines(b).faults.empty());
    b = applyEdit(b, CapPort { "engine.old_pump", false }).value();
    const LinesReport open = judgeLines(b);
    QCOMPARE(open.faults.size(), size_t(1));
    QCOMPARE(markWord(open.faults[0].mark), markWord(Mark::Hold));
    QVERIFY(said(open.faults[0].text).find("old pump's port") != std::string::npos);
    b = applyEdit(b, CapPort { "engine.old_pump", true, "A. Fitter", "2026-01-01" }).value();
    QVERIFY(judgeLines(b).faults.empty());
    QCOMPARE(parseBuild(buildText(b))->build.plumbing.capped.front().by, std::string("A. Fitter"));
    ExternalLine line;
    line.from = "engine.old_pump";
    line.to = "tank.in";
    QVERIFY(!judgeLines(applyEdit(b, PutLine { line }).value()).faults.empty());
}

void TestPlanSweep::tankReturns_areJoinedOrPlugged()
{
    EnginePlan plan;
    plan.drySump = true;
    plan.tankReturns = 2;
    Build b = planBuild(plan).value();
    isWhole(b);
    QVERIFY(judgeLines(b).faults.empty());
    const auto second = std::find_if(b.plumbing.lines.begin(), b.plumbing.lines.end(),
                                     [](const ExternalLine &l) { return l.to == "tank.in_2"; });
    QVERIFY(second != b.plumbing.lines.end());
    b = applyEdit(b, DropLine { second->id }).value();
    QCOMPARE(judgeLines(b).faults.size(), size_t(2)); // both its ends stand open
    for (const char *port : { "tank.in_2", "scavenge.out_2" })
        b = applyEdit(b, CapPort { port, true }).value();
    QVERIFY(judgeLines(b).faults.empty());
}

void TestPlanSweep::turboAtTheFilter_leavesTheBlock()
{
    EnginePlan plan;
    plan.turbo = true;
    const Build gallery = planBuild(plan).value();
    plan.turboFeed = "filter";
    const Build filter = planBuild(plan).value();
    isWhole(filter);
    QVERIFY(findPort(portsOf(gallery), "engine.turbo_feed"));
    QVERIFY(findPort(portsOf(filter), "filter.turbo_feed"));
    QVERIFY(!findPort(portsOf(filter), "engine.turbo_feed"));
    const auto at = [](const Build &b) {
        const OperatingResult idle = hotIdleAlone(b).value();
        for (const PointPressure &p : idle.points)
            if (p.stop == "turbo")
                return p.pressure_pa;
        return 0.0;
    };
    QVERIFY(at(filter) > at(gallery)); // nearer the pump
}

/// What a hole takes is all that changes: no spring, no other hole.
void TestPlanSweep::squirtHoles_areOneMoreHoleEach()
{
    EnginePlan plan;
    const Build without = planBuild(plan).value();
    plan.squirtHoles = true;
    const Build with = planBuild(plan).value();
    isWhole(with);
    QCOMPARE(with.circuit.elements.size(), without.circuit.elements.size() + 4);
    const Build one = applyEdit(without, AddStop { StopKind::Jet, "", "big_end_2" }).value();
    QCOMPARE(one.circuit.elements.size(), without.circuit.elements.size() + 1);
    const Element &hole = one.circuit.elements.back();
    QVERIFY(hole.kind == ElementKind::Orifice && hole.from == "b_2" && hole.to == sumpNode);
    QVERIFY(!hole.values.contains("open_kpa") && hole.value("count") <= 1);
    const double taken = assessAt(one, judgeSizes(one), 800, 100)->elementFlow_m3_s.at(hole.id);
    QVERIFY(taken > 0);
    const auto main = [](const Build &b) { return hotIdleAlone(b)->gauge.value_pa; };
    QVERIFY(main(one) < main(without) && main(with) < main(one));
    QVERIFY(findPassage(with.passages, "rod_squirt_3"));
}

void TestPlanSweep::hollowCams_carryTheirOil()
{
    EnginePlan plan;
    plan.valveGear = "two_cams";
    plan.hollowCams = true;
    const Build b = planBuild(plan).value();
    isWhole(b);
    int bores = 0;
    for (const Passage &p : b.passages)
        bores += p.part == "cam" && p.id.find("_hole_") == std::string::npos;
    QCOMPARE(bores, 2);
    // Through the bore to the last bearing: shut there, the rest runs dry.
    Build shut = b;
    for (Element &e : shut.circuit.elements)
        if (e.id == "intake_cam_hole_1")
            e.values["d_mm"] = 0.1;
    const auto last = [](const Build &of) {
        const OperatingResult idle = hotIdleAlone(of).value();
        for (const PointPressure &p : idle.points)
            if (p.node == "intake_cam_c_5")
                return p.pressure_pa;
        return 0.0;
    };
    QVERIFY(last(b) > 1e4);
    QVERIFY(last(shut) < 0.1 * last(b));
}

void TestPlanSweep::phaserOfItsOwn_doesNotHangOnTheCam()
{
    EnginePlan plan;
    plan.valveGear = "one_cam";
    plan.phasers = true;
    const auto at = [&](const char *feed) {
        plan.phaserFeed = feed;
        const Build b = planBuild(plan).value();
        const OperatingResult idle = hotIdleAlone(b).value();
        for (const PointPressure &p : idle.points)
            if (b.engine.find(p.stop)->kind == StopKind::Phaser)
                return p.pressure_pa;
        return 0.0;
    };
    const double cam = at("cam"), own = at("own");
    QVERIFY(cam > 0 && own > 1.05 * cam);
}

void TestPlanSweep::idlers_haveTheirNeed()
{
    EnginePlan plan;
    plan.idlers = 3;
    const Build b = planBuild(plan).value();
    isWhole(b);
    int idlers = 0;
    const OperatingResult idle = hotIdleAlone(b).value();
    for (const PointPressure &p : idle.points)
        if (b.engine.find(p.stop)->kind == StopKind::Idler) {
            ++idlers;
            verifyClose(p.need_pa, 20e3, 1e-9); // 20 kPa at idle
        }
    QCOMPARE(idlers, 3);
}

void TestPlanSweep::mixedWords_makeWholeBuilds_data()
{
    QTest::addColumn<unsigned>("seed");
    for (unsigned seed = 1; seed <= 12; ++seed)
        QTest::addRow("%u", seed) << seed;
}

void TestPlanSweep::mixedWords_makeWholeBuilds()
{
    QFETCH(unsigned, seed);
    std::mt19937 random(seed);
    const auto chance = [&] { return random() % 2 == 0; };
    const auto layouts = layoutChoices();
    const LayoutChoice &l = layouts[random() % layouts.size()];
    EnginePlan plan;
    plan.name = "Mixed";
    plan.layout = l.layout;
    plan.cylinders = l.cylinders[random() % l.cylinders.size()];
    plan.bore_mm = 60 + static_cast<double>(random() % 60);
    plan.stroke_mm = plan.bore_mm * (0.8 + static_cast<double>(random() % 40) / 100);
    plan.valveGear = std::array { "pushrods", "one_cam", "two_cams" }[random() % 3];
    plan.solidLifters = chance();
    plan.drySump = chance();
    plan.remoteFilter = chance();
    plan.cooler = chance();
    plan.jets = chance();
    plan.tensioner = chance();
    plan.phasers = plan.valveGear != "pushrods" && chance();
    plan.turbo = chance();
    plan.turboFeed = chance() ? "filter" : "gallery";
    plan.phaserFeed = chance() ? "own" : "cam";
    plan.reliefTo = chance() ? "sump" : "inlet";
    plan.hollowCams = chance();
    plan.squirtHoles = chance();
    plan.tankReturns = chance() ? 2 : 1;
    plan.oldPumpPort = plan.drySump && chance();
    plan.idlers = static_cast<int>(random() % 4);
    plan.balanceShafts = plan.layout == "inline" && chance();
    const auto b = planBuild(plan);
    if (!b) { // a combination there is not says which word, and what could stand there
        QVERIFY(!b.error().place.empty() && !b.error().message.empty());
        return;
    }
    isWhole(*b);
    QCOMPARE(b->engine.ofKind(StopKind::Tank) != nullptr, plan.drySump);
    QCOMPARE(b->engine.ofKind(StopKind::Turbo) != nullptr, plan.turbo);
    QCOMPARE(b->engine.ofKind(StopKind::Jet) != nullptr, plan.jets);
    QCOMPARE(b->engine.ofKind(StopKind::Cooler) != nullptr, plan.cooler);
}

void TestPlanSweep::size_scalesWhatFollowsFromIt_data()
{
    QTest::addColumn<double>("bore");
    for (const double bore : { 55.0, 70.0, 91.0, 110.0, 140.0 })
        QTest::addRow("%g mm", bore) << bore;
}

void TestPlanSweep::size_scalesWhatFollowsFromIt()
{
    QFETCH(double, bore);
    EnginePlan plan;
    plan.bore_mm = plan.stroke_mm = bore;
    plan.name = "Scaled";
    const Build b = planBuild(plan).value();
    isWhole(b);
    EnginePlan middling;
    middling.name = "Middling";
    const Build m = planBuild(middling).value();
    const double scale = bore / 91;
    const Stop &main = *b.engine.ofKind(StopKind::Main), &usual = *m.engine.ofKind(StopKind::Main);
    // docs/format/plan.md: journals by the bore to the power of 0.85.
    verifyClose(journalOf_mm(b, main), journalOf_mm(m, usual) * std::pow(scale, 0.85), 0.02);
    verifyClose(displacement_l(b.engine), displacement_l(m.engine) * std::pow(scale, 3), 0.03);
}

void TestPlanSweep::senselessPlans_areRefused_data()
{
    QTest::addColumn<QString>("member");
    const char *const members[]
        = { "layout",    "cylinders",   "bore_mm",    "stroke_mm", "block",
            "main_cap",  "valve_gear",  "order",      "oil",       "overhead",
            "relief_to", "phaser_feed", "turbo_feed", "idlers",    "tank_returns" };
    for (const char *m : members)
        QTest::newRow(m) << QString::fromLatin1(m);
}

void TestPlanSweep::senselessPlans_areRefused()
{
    QFETCH(QString, member);
    EnginePlan plan;
    plan.name = "Wrong";
    const RecordType &type = recordType<EnginePlan>();
    const Field *field = type.find(member.toStdString());
    QVERIFY(field);
    void *at = const_cast<void *>(field->at(&plan));
    if (field->shape == MemberShape::Number)
        *static_cast<double *>(at) = -4;
    else if (field->shape == MemberShape::Integer)
        *static_cast<int *>(at) = 37;
    else
        *static_cast<std::string *>(at) = "cheese";
    const auto b = planBuild(plan);
    QVERIFY(!b);
    QVERIFY2(b.error().place.find(member.toStdString()) != std::string::npos,
             (b.error().place + ": " + said(b.error().message)).c_str());
}

void TestPlanSweep::sheet_holdsWhatTheBuildHolds_data()
{
    QTest::addColumn<QString>("demo");
    for (const char *name :
         { "harbour-fire-pump", "harbour-fire-pump-history", "harbour-fire-pump-started",
           "harbour-launch-turbo", "harbour-standby", "harbour-tender-alloy" })
        QTest::newRow(name) << QString::fromLatin1(name);
}

void TestPlanSweep::sheet_holdsWhatTheBuildHolds()
{
    QFETCH(QString, demo);
    const auto loaded
        = loadBuild(demoBuildPath().parent_path() / (demo.toStdString() + ".mildpath"));
    QVERIFY(loaded);
    const Build &b = loaded->build;
    const Assessment a = assess(b);
    const BuildSheet sheet = buildSheet(b, a, "29 November 2026", {});
    QCOMPARE(sheet.title, b.name);
    QVERIFY(!sheet.state.empty() && !sheet.under.empty());
    std::string all;
    int tables = 0;
    for (const SheetBlock &block : sheet.blocks) {
        if (const auto *t = std::get_if<SheetTable>(&block)) {
            ++tables;
            QCOMPARE(t->head.size(), t->widths.size());
            double width = 0;
            for (const double w : t->widths)
                width += w;
            QVERIFY(width > 0.5 && width <= 1.01);
            QVERIFY(!t->rows.empty());
            for (const auto &row : t->rows) {
                QVERIFY(row.size() <= t->head.size());
                for (const SheetCell &c : row)
                    all += said(c.text) + "\n";
            }
        } else if (const auto *h = std::get_if<SheetHeading>(&block)) {
            QVERIFY(!h->text.empty());
        } else if (const auto *text = std::get_if<SheetText>(&block)) {
            all += said(text->text) + "\n";
        }
    }
    QVERIFY(tables >= 3);
    for (const char *wrong : { "nan", "%1", "inf ", "-0.0 " })
        QVERIFY2(all.find(wrong) == std::string::npos, wrong);
    // Who measured stands on it, and every bearing that was measured.
    for (const Stop &s : b.engine.stops)
        if (s.kind == StopKind::Main && a.size(s.id) && a.size(s.id)->measured)
            QVERIFY2(all.find(s.name) != std::string::npos, s.name.c_str());
    for (const Paper paper : { Paper::A4, Paper::Letter }) {
        const std::string html = sheetToHtml(sheet, paper);
        QVERIFY(html.starts_with("<!DOCTYPE html>"));
        QVERIFY(html.find(b.name) != std::string::npos);
        QVERIFY(html.find("<script") == std::string::npos);
        QCOMPARE(QString::fromStdString(html).count(QStringLiteral("<table")),
                 static_cast<qsizetype>(tables));
    }
}

} // namespace tst_plansweep

MILDPATH_TEST(tst_plansweep, TestPlanSweep)
#include "tst_plansweep.moc"
