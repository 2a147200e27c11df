// SPDX-License-Identifier: GPL-3.0-or-later
// Feed holes, grooves, rotors, relief, seal and pickup: formulas and what they do in the engine.
#include "assess/circuitof.h"
#include "assess/crankfeeds.h"
#include "bearing/feed.h"
#include "checks/assessment.h"
#include "checksfixture.h"
#include "circuit/elementtypes.h"
#include "document/edit.h"
#include "pump/relief.h"
#include "pump/rotor.h"
#include "pump/suction.h"
#include "study/dressing.h"
#include "study/feedcover.h"
#include "testing.h"

#include <random>

using namespace mildpath;

namespace tst_feed {

namespace {

Build changed(Build b, const std::string &stop, const std::map<std::string, double> &values)
{
    for (const auto &[key, value] : values) {
        auto next = applyEdit(b, SetStopValue { stop, key, value });
        if (!next)
            qFatal("%s", said(next.error().message).c_str());
        b = std::move(*next);
    }
    return b;
}

Build plain()
{
    return loadTemplate("inline-four-wet-sump")->build;
}

double mainPressure(const OperatingResult &r, const char *name)
{
    for (const PointPressure &p : r.points)
        if (p.name == name)
            return p.pressure_pa;
    return -1;
}

} // namespace

class TestFeed : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void overlap_isThatOfRandomPoints_data();
    void overlap_isThatOfRandomPoints();
    void overlap_hasItsLimits();
    void offsetFor_undoesTheOverlap();
    void halfGroove_isHalfTheLandsOfAFullOne();
    void holeFlow_meetsTheReferenceSolution_data();
    void holeFlow_meetsTheReferenceSolution();
    void feedFraction_followsGrooveAndEntries_data();
    void feedFraction_followsGrooveAndEntries();
    void coveredHole_starvesUnseenByTheGauge();
    void anyCover_hasAForecast();
    void coveredHole_isJudgedByItsShare_data();
    void coveredHole_isJudgedByItsShare();
    void groove_feedsTheCircuit();
    void bevel_losesPressure();
    void spring_setsTheRelief();
    void everyTooth_touchesTheInnerRotor_data();
    void everyTooth_touchesTheInnerRotor();
    void rotorChambers_sweepTheDisplacement();
    void oRing_verdicts_data();
    void oRing_verdicts();
    void pickupGap_followsTheQuarterRule();
    void dressing_stopsBeforeTheRotorsBind();
    void pumpOptions_knowThatTheSpringDoesNothing();
    void scores_wantDressing_data();
    void scores_wantDressing();
    void gasket_holdsUntilSeen();
};

void TestFeed::overlap_isThatOfRandomPoints_data()
{
    QTest::addColumn<double>("d1");
    QTest::addColumn<double>("d2");
    QTest::addColumn<double>("offset");
    QTest::newRow("equal holes") << 6.0 << 6.0 << 2.0;
    QTest::newRow("unequal holes") << 6.0 << 4.0 << 3.0;
    QTest::newRow("a sliver") << 5.0 << 5.0 << 4.6;
    QTest::newRow("nearly one inside the other") << 7.0 << 5.0 << 1.2;
}

void TestFeed::overlap_isThatOfRandomPoints()
{
    QFETCH(double, d1);
    QFETCH(double, d2);
    QFETCH(double, offset);
    // An independent count: points thrown at the first circle's square.
    std::mt19937 random(1);
    std::uniform_real_distribution<double> at(-d1 / 2, d1 / 2);
    int both = 0;
    constexpr int throws = 400000;
    for (int i = 0; i < throws; ++i) {
        const double x = at(random), y = at(random);
        both += x * x + y * y < d1 * d1 / 4 && (x - offset) * (x - offset) + y * y < d2 * d2 / 4;
    }
    const double area = d1 * d1 * both / throws;
    verifyClose(holeOverlap(d1, d2, offset).area_m2, area, 0.02, 0.02);
}

void TestFeed::overlap_hasItsLimits()
{
    verifyClose(holeOverlap(6, 6, 0).ofSmaller, 1, 1e-12);
    verifyClose(holeOverlap(6, 4, 1).ofSmaller, 1, 1e-12); // inside
    QCOMPARE(holeOverlap(6, 4, 5).area_m2, 0.0); // side by side
    double last = 2;
    for (double e = 0; e < 6; e += 0.01) {
        const double now = holeOverlap(6, 5, e).ofSmaller;
        QVERIFY2(now <= last + 1e-9,
                 qPrintable(QString::number(e) + u' ' + QString::number(now - last)));
        verifyClose(now, holeOverlap(5, 6, e).ofSmaller, 1e-9, 1e-9); // either way round
        last = now;
    }
}

void TestFeed::offsetFor_undoesTheOverlap()
{
    for (const double share : { 0.95, 0.7, 0.5, 0.2, 0.05 })
        verifyClose(holeOverlap(6, 5, offsetFor(6, 5, share)).ofSmaller, share, 1e-9);
    verifyClose(offsetFor(6, 5, 1), 0.5, 1e-12);
}

void TestFeed::halfGroove_isHalfTheLandsOfAFullOne()
{
    FedBearing b { 60e-3, 22e-3, { 60e-6 }, 0.01, 400e3, 0.0, 0 };
    const auto full = grooveFlow(b, 4e-3, 360, 0), half = grooveFlow(b, 4e-3, 180, 0);
    verifyClose(half->pressure_m3_s - half->ends_m3_s, full->pressure_m3_s / 2, 1e-9);
    // Concentric, ε = 0.6: (1 + 1.5 ε²) more. Textbook.
    b.eccentricityRatio = 0.6;
    verifyClose(grooveFlow(b, 4e-3, 360, 0)->pressure_m3_s, full->pressure_m3_s * 1.54, 1e-9);
    QVERIFY(!grooveFlow(b, 4e-3, 330, 0));
    QVERIFY(!grooveFlow(b, 30e-3, 360, 0));
}

void TestFeed::holeFlow_meetsTheReferenceSolution_data()
{
    QTest::addColumn<double>("ratio"); // d/L
    QTest::addColumn<double>("k"); // Q μ/(p h³), independent two-dimensional SciPy solution
    QTest::newRow("0.1") << 0.1 << 0.2007;
    QTest::newRow("0.2") << 0.2 << 0.2781;
    QTest::newRow("0.4") << 0.4 << 0.4469;
}

void TestFeed::holeFlow_meetsTheReferenceSolution()
{
    QFETCH(double, ratio);
    QFETCH(double, k);
    const FedBearing b { 60e-3, 20e-3, { 60e-6 }, 0.01, 300e3, 0.0, 0 };
    const auto q = holeFlow(b, ratio * 20e-3, 0);
    const double h = 30e-6;
    verifyClose(q->pressure_m3_s * 0.01 / (300e3 * h * h * h), k, 0.025);
    QVERIFY(!holeFlow(b, 17e-3, 0));
}

void TestFeed::feedFraction_followsGrooveAndEntries_data()
{
    QTest::addColumn<int>("groove");
    QTest::addColumn<double>("deg");
    QTest::addColumn<int>("entries");
    QTest::addColumn<double>("share");
    // R = 15 mm, drilling 5 mm, feed hole 6 mm: holes of 19.19 and 23.07 degrees. Plain geometry.
    QTest::newRow("hole meets hole") << int(FeedGroove::None) << 0.0 << 1 << 42.258 / 360;
    QTest::newRow("half groove") << int(FeedGroove::Partial) << 180.0 << 1 << 0.5533;
    QTest::newRow("half groove, drilled across") << int(FeedGroove::Partial) << 180.0 << 2 << 1.0;
    QTest::newRow("full groove") << int(FeedGroove::Full) << 360.0 << 1 << 1.0;
    QTest::newRow("groove in the journal") << int(FeedGroove::Journal) << 0.0 << 1 << 1.0;
}

void TestFeed::feedFraction_followsGrooveAndEntries()
{
    QFETCH(int, groove);
    QFETCH(double, deg);
    QFETCH(int, entries);
    QFETCH(double, share);
    verifyClose(feedFraction(static_cast<FeedGroove>(groove), deg, 15e-3, 5e-3, 6e-3, entries),
                share, 1e-3);
}

void TestFeed::coveredHole_starvesUnseenByTheGauge()
{
    const Build b = plain();
    const auto a = assess(b);
    const double covered[] = { 0, 0.5, 0.8, 0.9, 0.95 };
    const auto sweep = coverSweep(b, a.sizes, *b.engine.find("main_2"), covered);
    QVERIFY(sweep);
    const auto &p = *sweep;
    double lastFall = 0;
    for (size_t i = 1; i < p.size(); ++i) {
        QVERIFY(p[i].main_pa < p[i - 1].main_pa);
        QVERIFY(*p[i].bigEnd_pa < *p[i - 1].bigEnd_pa);
        QVERIFY(p[i].gauge_pa >= p[i - 1].gauge_pa - 1); // the needle never falls
        // Per hundredth covered it falls ever faster.
        const double fall = (p[i - 1].main_pa - p[i].main_pa) / (p[i].covered - p[i - 1].covered);
        QVERIFY(fall > lastFall);
        lastFall = fall;
    }
    // Small at first: half covered costs a few hundredths; then steep.
    QVERIFY(p[1].main_pa > 0.98 * p[0].main_pa);
    QVERIFY(p[4].main_pa < 0.96 * p[0].main_pa);
    QVERIFY(*p[4].bigEnd_pa < 0.96 * *p[0].bigEnd_pa);
    // A main that feeds no rod has no rod's pressure to lose.
    int feedNone = 0;
    for (const Stop &s : b.engine.stops)
        if (s.kind == StopKind::Main) {
            const auto at = coverSweep(b, a.sizes, s, covered);
            QVERIFY(at);
            QCOMPARE(at->front().bigEnd_pa.has_value(), !rodsFedBy(b, s).empty());
            feedNone += !at->front().bigEnd_pa;
        }
    QVERIFY(feedNone > 0);
}

void TestFeed::anyCover_hasAForecast()
{
    for (const char *main : { "main_1", "main_3", "main_5" })
        for (const double share : { 0.0, 1e-4, 1e-3, 2e-3, 0.01, 0.02, 0.1 }) {
            const Build b = changed(plain(), main,
                                    { { "block_hole_mm", 6 },
                                      { "shell_hole_mm", 5 },
                                      { "hole_offset_mm", offsetFor(6, 5, share) } });
            const auto a = assess(b);
            QVERIFY2(!a.operating.unsolved,
                     qPrintable(QString::fromLatin1(main) + u' ' + QString::number(share)));
        }
}

void TestFeed::coveredHole_isJudgedByItsShare_data()
{
    QTest::addColumn<double>("share");
    QTest::addColumn<Mark>("mark");
    QTest::newRow("fully open") << 1.0 << Mark::Proven;
    QTest::newRow("0.71") << 0.71 << Mark::Proven;
    QTest::newRow("0.69") << 0.69 << Mark::LookAgain;
    QTest::newRow("0.61") << 0.61 << Mark::LookAgain;
    QTest::newRow("0.59") << 0.59 << Mark::LookAgain;
    QTest::newRow("half covered") << 0.5 << Mark::LookAgain;
    QTest::newRow("quite shut") << 0.0 << Mark::LookAgain;
}

void TestFeed::coveredHole_isJudgedByItsShare()
{
    QFETCH(double, share);
    QFETCH(Mark, mark);
    const Build b = changed(plain(), "main_2",
                            { { "block_hole_mm", 6 },
                              { "shell_hole_mm", 6 },
                              { "hole_offset_mm", offsetFor(6, 6, share) } });
    const auto a = assess(b);
    QCOMPARE(a.feedHoles.size(), 1u);
    QCOMPARE(markWord(a.feedHoles[0].mark), markWord(mark));
    QVERIFY(!a.operating.unsolved);
    // It holds only where the bearing is solved to starve by it.
    QCOMPARE(fixture::stateOf(b, "feed@main_2"), share > 0 ? markId(mark) : "hold");
}

void TestFeed::groove_feedsTheCircuit()
{
    const Build b = plain();
    const auto base = assess(b).operating.hotIdle;
    const auto full = assess(changed(b, "main_2", { { "groove_deg", 360 } })).operating.hotIdle;
    // Twice the groove, twice what pressure drives out there (what rotation draws stays), so less
    // elsewhere; the rod is fed all the turn.
    QVERIFY(full.elementFlow_m3_s.at("main_2") > 1.2 * base.elementFlow_m3_s.at("main_2"));
    QVERIFY(full.gauge.value_pa < base.gauge.value_pa);
    const Build crossed = changed(b, "main_2", { { "cross_drilled", 1 } });
    verifyClose(*feedShareOfTurn(crossed, *crossed.engine.find("main_2")), 1, 1e-12);
    QVERIFY(!feedShareOfTurn(b, *b.engine.find("main_2")).has_value()); // nothing entered
    const auto fed = assess(crossed).operating.highSpeed;
    QVERIFY(mainPressure(fed, "Big-end 2") + 1
            >= mainPressure(assess(b).operating.highSpeed, "Big-end 2"));
}

void TestFeed::bevel_losesPressure()
{
    const Build b = plain();
    const auto base = assess(b);
    const auto small = assess(changed(b, "main_3", { { "thrust_bevel_mm2", 0.05 } }));
    const auto large = assess(changed(b, "main_3", { { "thrust_bevel_mm2", 1.5 } }));
    QVERIFY(small.operating.hotIdle.gauge.value_pa < base.operating.hotIdle.gauge.value_pa);
    QVERIFY(large.operating.hotIdle.gauge.value_pa < 0.9 * small.operating.hotIdle.gauge.value_pa);
    // Its oil counts with the mains.
    verifyClose(large.operating.hotIdle.shares[0].flow_m3_s
                    - base.operating.hotIdle.shares[0].flow_m3_s,
                large.operating.hotIdle.elementFlow_m3_s.at("oil_bevel@main_3"), 0.25);
    // Without a groove that reaches the parting line it gets no oil.
    const auto dry
        = assess(changed(b, "main_3", { { "thrust_bevel_mm2", 1.5 }, { "groove_deg", 0 } }));
    QVERIFY(!dry.operating.hotIdle.elementFlow_m3_s.contains("oil_bevel@main_3"));
}

void TestFeed::spring_setsTheRelief()
{
    const std::map<std::string, double> spring { { "plunger_d_mm", 12 },
                                                 { "spring_rate_n_per_mm", 6 },
                                                 { "free_length_mm", 50 },
                                                 { "fitted_length_mm", 41 },
                                                 { "full_lift_mm", 4 } };
    const Build b = changed(plain(), "relief", spring);
    const auto a = assess(b);
    const Circuit c = circuitOf(b, a.sizes, allAt(100));
    // k x0/A = 6 × 9/(π/4 12²) N/mm² = 477.5 kPa. Force balance, textbook.
    verifyClose(c.find("relief")->value("crack_kpa"), 477.46, 1e-4);
    verifyClose(c.find("relief")->value("full_kpa"), 689.67, 1e-4);
    const Build shimmed = changed(b, "relief", { { "shim_mm", 1 } });
    verifyClose(circuitOf(shimmed, a.sizes, allAt(100)).find("relief")->value("crack_kpa"),
                477.46 + 53.052, 1e-4);
    const Build bound = changed(b, "relief", { { "solid_length_mm", 38 } });
    const auto held = assess(bound);
    QVERIFY(std::any_of(held.fits.begin(), held.fits.end(), [](const FitVerdict &f) {
        return f.id == "relief_spring" && f.mark == Mark::Hold;
    }));
    QVERIFY(!reliefSetting({ 12e-3, 6e3, 40e-3, 41e-3, 0, 0, 4e-3, 0 })); // loose spring
}

void TestFeed::everyTooth_touchesTheInnerRotor_data()
{
    QTest::addColumn<int>("lobes");
    for (const int n : { 3, 4, 6, 9 })
        QTest::addRow("%d lobes in %d", n, n + 1) << n;
}

void TestFeed::everyTooth_touchesTheInnerRotor()
{
    QFETCH(int, lobes);
    const RotorSet set = rotorSetFor(lobes, 6.8e-6, 12e-3).value();
    for (int step = 0; step < 24; ++step) {
        const RotorPicture p = rotorPicture(set, 0.13 * step, 400);
        for (const PlanePoint &tooth : p.toothCentres) {
            double nearest = 1;
            for (const PlanePoint &i : p.inner)
                nearest = std::min(nearest, std::hypot(i.x - tooth.x, i.y - tooth.y));
            // Generated by rolling: the profile lies one tooth radius away from every tooth,
            // always.
            verifyClose(nearest, set.toothRadius_m, 2e-4);
        }
    }
    QVERIFY(!rotorSetFor(2, 6.8e-6, 12e-3));
    QVERIFY(!rotorSetFor(4, 0, 12e-3));
}

void TestFeed::rotorChambers_sweepTheDisplacement()
{
    const RotorSet set = rotorSetFor(4, 6.8e-6, 12e-3).value();
    verifyClose(pi * 12e-3
                    * (set.innerTip_m() * set.innerTip_m() - set.innerRoot_m() * set.innerRoot_m()),
                6.8e-6, 1e-9);
    // The profile really has those radii.
    const RotorPicture p = rotorPicture(set, 0, 200);
    double tip = 0, root = 1;
    for (const PlanePoint &i : p.inner) {
        const double r = std::hypot(i.x - p.innerCentre.x, i.y - p.innerCentre.y);
        tip = std::max(tip, r);
        root = std::min(root, r);
    }
    verifyClose(tip, set.innerTip_m(), 1e-6);
    verifyClose(root, set.innerRoot_m(), 1e-6);
}

void TestFeed::oRing_verdicts_data()
{
    QTest::addColumn<double>("section");
    QTest::addColumn<double>("gland");
    QTest::addColumn<double>("set");
    QTest::addColumn<QString>("verdict");
    QTest::newRow("new and well squeezed") << 3.0 << 2.4 << 0.0 << QStringLiteral("ok");
    QTest::newRow("set a little") << 3.0 << 2.4 << 0.4 << QStringLiteral("watch");
    QTest::newRow("set much") << 3.0 << 2.4 << 0.8 << QStringLiteral("high");
    QTest::newRow("flat") << 3.0 << 2.4 << 1.0 << QStringLiteral("no_seal");
    QTest::newRow("loose from the start") << 2.3 << 2.4 << 0.5 << QStringLiteral("no_seal");
    QTest::newRow("crushed") << 3.0 << 1.9 << 0.0 << QStringLiteral("over_squeezed");
}

void TestFeed::oRing_verdicts()
{
    QFETCH(double, section);
    QFETCH(double, gland);
    QFETCH(double, set);
    QFETCH(QString, verdict);
    const ORingFit f = oRingFit({ section * 1e-3, gland * 1e-3, 0, set, {} });
    QCOMPARE(QString::fromUtf8(f.verdict.data()), verdict);
    QVERIFY(compressionSet(3e-3, 2.4e-3, 3.1e-3)->verdict == "swollen");
    QVERIFY(!compressionSet(3e-3, 3e-3, 3e-3));
}

void TestFeed::pickupGap_followsTheQuarterRule()
{
    // A plain cut tube passes its own area at a quarter of its bore: geometry, and the workshop
    // rule.
    verifyClose(pickupGap(16e-3, 16e-3, 4e-3, {}, 850)->areaRatio, 1, 1e-12);
    QVERIFY(pickupGap(16e-3, 16e-3, 4e-3, {}, 850)->verdict == "ok");
    QVERIFY(pickupGap(16e-3, 16e-3, 3.9e-3, {}, 850)->verdict == "tight");
    QVERIFY(pickupGap(16e-3, 16e-3, 8.1e-3, {}, 850)->verdict == "wide");
    QVERIFY(!pickupGap(16e-3, 12e-3, 4e-3, {}, 850));
    Build b = changed(plain(), "sump_pickup", { { "pickup_bore_mm", 16 }, { "pickup_gap_mm", 2 } });
    QCOMPARE(fixture::stateOf(b, "kgap@sump_pickup"), "hold");
}

void TestFeed::dressing_stopsBeforeTheRotorsBind()
{
    const Build b = demoBuild();
    const auto a = assess(b);
    const auto plan = dressingPlan(b, a.sizes);
    QVERIFY(plan);
    const GaugedSize *end = a.size("pump", "pump_end", 1);
    verifyClose(plan->now.end_um, end->cold_um.value, 1e-9);
    verifyClose(plan->now.gauge_pa, a.operating.hotIdle.gauge.value_pa, 1e-4);
    QVERIFY(plan->stop.end_um >= rotorsBind_um + end->cold_um.expanded() - 1e-9);
    QVERIFY(plan->stop.gauge_pa > plan->now.gauge_pa);
    for (size_t i = 1; i < plan->points.size(); ++i)
        QVERIFY(plan->points[i].gauge_pa >= plan->points[i - 1].gauge_pa - 1);
    // The figure the plan promises is what the readings then give.
    Build dressed = b;
    for (const int spot : { 1, 2 }) {
        Reading r = gaugeReading("pump", spot, 90, plan->stop.end_um);
        r.family = "pump_end";
        r.method = "feeler";
        dressed = applyEdit(dressed, EnterReading { r }).value();
    }
    verifyClose(assess(dressed).operating.hotIdle.gauge.value_pa, plan->stop.gauge_pa, 1e-4);
}

void TestFeed::pumpOptions_knowThatTheSpringDoesNothing()
{
    const Build b = demoBuild();
    const auto a = assess(b);
    const auto options = pumpOptions(b, a.sizes, nullptr);
    const auto find = [&](const char *name) {
        const auto it = std::find_if(options.begin(), options.end(),
                                     [&](const PumpOption &o) { return said(o.name) == name; });
        return it == options.end() ? nullptr : &*it;
    };
    QCOMPARE(find("dressed to 50 µm"), nullptr);
    const DressingPlan plan = dressingPlan(b, a.sizes).value();
    verifyClose(pumpOptions(b, a.sizes, &plan)[1].gauge_pa, plan.stop.gauge_pa, 1e-4);
    verifyClose(find("as it is")->gauge_pa, a.operating.hotIdle.gauge.value_pa, 1e-4);
    verifyClose(find("spring +1.0 bar")->gauge_pa, a.operating.hotIdle.gauge.value_pa, 1e-4);
    QVERIFY(!find("spring +1.0 bar")->remark.empty());
    QVERIFY(find("rotors 25% longer")->gauge_pa > 1.1 * a.operating.hotIdle.gauge.value_pa);
    QVERIFY(find("rotors 25% longer")->power_w > find("as it is")->power_w);
    // Outlet pressure × swept flow / 0.85, from the forecast's own point and the displacement.
    verifyClose(find("as it is")->power_w,
                mainPressure(a.operating.highSpeed, "Pump outlet")
                    * pumpDisplacement_m3(*b.circuit.find("pump")) * 3000 / 60 / 0.85,
                1e-3);
}

void TestFeed::scores_wantDressing_data()
{
    QTest::addColumn<double>("body");
    QTest::addColumn<double>("cover");
    QTest::addColumn<Mark>("mark");
    QTest::addColumn<QString>("words");
    QTest::newRow("none") << 0.0 << 0.0 << Mark::Proven << QString();
    QTest::newRow("shallow") << 30.0 << 40.0 << Mark::LookAgain << QStringLiteral("body can lose");
    QTest::newRow("deeper than the body can lose")
        << 90.0 << 0.0 << Mark::LookAgain << QStringLiteral("some stays");
    QTest::newRow("deeper than the cover can lose")
        << 0.0 << 300.0 << Mark::LookAgain << QStringLiteral("cover's scores");
}

void TestFeed::scores_wantDressing()
{
    QFETCH(double, body);
    QFETCH(double, cover);
    QFETCH(Mark, mark);
    QFETCH(QString, words);
    const Build b
        = changed(demoBuild(), "pump", { { "body_score_um", body }, { "cover_score_um", cover } });
    for (const FitVerdict &f : assess(b).fits)
        if (f.id == "scoring") {
            QCOMPARE(markWord(f.mark), markWord(mark));
            QVERIFY2(QString::fromStdString(said(f.detail)).contains(words),
                     said(f.detail).c_str());
        }
}

void TestFeed::gasket_holdsUntilSeen()
{
    Build b = plain();
    QCOMPARE(fixture::stateOf(b, "pgask@pump"), "not_done");
    Proof p { "", "pump", "size", "proven", "", "t", "", "pump_gasket", {} };
    b = applyEdit(b, AddProof { p }).value();
    QCOMPARE(fixture::stateOf(b, "pgask@pump"), "proven");
    p.verdict = "hold";
    QCOMPARE(fixture::stateOf(applyEdit(b, AddProof { p }).value(), "pgask@pump"), "hold");
}

} // namespace tst_feed

MILDPATH_TEST(tst_feed, TestFeed)
#include "tst_feed.moc"
