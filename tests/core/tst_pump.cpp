// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include "pump/delivery.h"

using namespace mildpath;

namespace tst_pump {

namespace {

/// The demo's kind of pump: 6.8 cm³ a turn, gauged by feeler.
PumpGeometry pump(double tip_um = 90, double end_um = 76)
{
    return { .displacement_m3 = 6.8e-6,
             .rotorLength_m = 12e-3,
             .tipClearance_m = tip_um * 1e-6,
             .endClearance_m = end_um * 1e-6,
             .bodyClearance_m = 160e-6,
             .tipLand_m = 1e-3,
             .endPathWidth_m = 90e-3,
             .endPathLength_m = 6e-3,
             .bodyPathLength_m = 35e-3 };
}

constexpr double hot_pa_s = 0.0112;
const PumpInlet port { 130e-6, 0.6, { 30e3 } };

} // namespace

class TestPump : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void leaks_agreeWithReference();
    void clearance_leaksByItsCube_data();
    void clearance_leaksByItsCube();
    void thinnerOil_leaksMore();
    void endClearance_countsOnBothFaces();
    void slowPump_fillsCompletely();
    void fastPump_isLimitedByItsPort();
    void thickOil_fillsLess();
    void inletAtReleasePressure_deliversNothing();
    void withoutAPort_nothingLimits();
    void suctionHole_drawsMoreAirTheDeeperTheVacuum();
    void suctionAir_hasACap();
    void withinWorkshopLimits_slipStaysBearable();
};

void TestPump::leaks_agreeWithReference()
{
    // 160 kPa across the pump, independent SciPy computation (l/min).
    const PumpLeaks l = pumpLeaks(pump(), hot_pa_s);
    const double toLitres = 160e3 * 60000;
    verifyClose(l.tip_m3_s_pa * toLitres, 1.2497, 1e-4);
    verifyClose(l.end_m3_s_pa * toLitres, 0.11758, 1e-4);
    verifyClose(l.body_m3_s_pa * toLitres, 0.025078, 1e-4);
    verifyClose(l.total_m3_s_pa(), l.tip_m3_s_pa + l.end_m3_s_pa + l.body_m3_s_pa, 1e-15);
}

void TestPump::clearance_leaksByItsCube_data()
{
    QTest::addColumn<double>("factor");
    for (const double factor : { 0.5, 1.1, 2.0, 3.0 })
        QTest::addRow("x %g", factor) << factor;
}

void TestPump::clearance_leaksByItsCube()
{
    QFETCH(double, factor);
    const PumpLeaks once = pumpLeaks(pump(), hot_pa_s);
    const PumpLeaks wider = pumpLeaks(pump(90 * factor, 76 * factor), hot_pa_s);
    verifyClose(wider.tip_m3_s_pa / once.tip_m3_s_pa, factor * factor * factor, 1e-12);
    verifyClose(wider.end_m3_s_pa / once.end_m3_s_pa, factor * factor * factor, 1e-12);
    verifyClose(wider.body_m3_s_pa, once.body_m3_s_pa, 1e-15);
}

void TestPump::thinnerOil_leaksMore()
{
    verifyClose(pumpLeaks(pump(), hot_pa_s / 2).total_m3_s_pa(),
                2 * pumpLeaks(pump(), hot_pa_s).total_m3_s_pa(), 1e-12);
}

void TestPump::endClearance_countsOnBothFaces()
{
    // Shared by two faces; all of it on one face would leak four times as much.
    const double w = 90e-3, h = 76e-6, length = 6e-3;
    const double oneFace = w * h * h * h / (12 * hot_pa_s * length);
    verifyClose(oneFace / pumpLeaks(pump(), hot_pa_s).end_m3_s_pa, 4, 1e-12);
}

void TestPump::slowPump_fillsCompletely()
{
    const double swept = 6.8e-6 * 800 / 60;
    const ValueSlope fill = pumpFill_m3_s(swept, port, absolute(GaugePressure { -500 }), 826);
    verifyClose(fill.value, swept, 1e-6);
    QVERIFY(fill.slope >= 0);
}

void TestPump::fastPump_isLimitedByItsPort()
{
    const AbsolutePressure inlet { 60e3 };
    const double limit = 0.6 * 130e-6 * std::sqrt(2 * (60e3 - 30e3) / 826);
    const double fill = pumpFill_m3_s(3 * limit, port, inlet, 826).value;
    QVERIFY(fill < limit && fill > 0.99 * limit);
    // At the limit itself the blend gives 2^(-1/8) of it.
    verifyClose(pumpFill_m3_s(limit, port, inlet, 826).value, limit * std::pow(2, -0.125), 1e-12);
}

void TestPump::thickOil_fillsLess()
{
    // b alone lets (p − release)/b through; with both losses the limit solves a Q² + b Q = Δp.
    const double head = 40e3, a = 826 / (2 * std::pow(0.6 * 130e-6, 2)), b = 2e8, fast = 1;
    const double q = pumpFill_m3_s(fast, port, { 30e3 + head }, 826, b).value;
    verifyClose(a * q * q + b * q, head, 1e-6);
    QVERIFY(q < pumpFill_m3_s(fast, port, { 30e3 + head }, 826).value);
    const double h = 1;
    const auto at = [&](double pa) { return pumpFill_m3_s(3e-4, port, { pa }, 826, b); };
    verifyClose(at(60e3).slope, (at(60e3 + h).value - at(60e3 - h).value) / (2 * h), 1e-5);
}

void TestPump::inletAtReleasePressure_deliversNothing()
{
    QCOMPARE(pumpFill_m3_s(1e-4, port, { 30e3 }, 826).value, 0.0);
    QCOMPARE(pumpFill_m3_s(1e-4, port, { 10e3 }, 826).value, 0.0);
}

void TestPump::withoutAPort_nothingLimits()
{
    QCOMPARE(pumpFill_m3_s(1e-3, {}, { 31e3 }, 826).value, 1e-3);
    QCOMPARE(pumpFill_m3_s(0, port, { 101e3 }, 826).value, 0.0);
}

void TestPump::suctionHole_drawsMoreAirTheDeeperTheVacuum()
{
    double before = 0;
    for (double vacuum = 0; vacuum < 60e3; vacuum += 5e3) {
        const double share = suctionAirShare(1e-3, { atmosphere_pa - vacuum }, 3e-4).value;
        QVERIFY(share >= before);
        before = share;
    }
    QVERIFY(before > 0);
    QCOMPARE(suctionAirShare(1e-3, { atmosphere_pa + 10 }, 3e-4).value, 0.0);
    QCOMPARE(suctionAirShare(0, { 50e3 }, 3e-4).value, 0.0);
}

void TestPump::suctionAir_hasACap()
{
    const ValueSlope share = suctionAirShare(10e-3, { 20e3 }, 1e-5);
    QCOMPARE(share.value, 0.95);
    QCOMPARE(share.slope, 0.0);
}

void TestPump::withinWorkshopLimits_slipStaysBearable()
{
    // Common practice, no source: tip under 0.127 mm, ends under 0.152 mm. A pump at
    // those limits still delivers at hot idle against a bar; one at twice the tip does not.
    const double swept = 6.8e-6 * 800 / 60;
    QVERIFY(swept - pumpLeaks(pump(127, 152), hot_pa_s).total_m3_s_pa() * 1e5 > 0.3 * swept);
    QVERIFY(swept - pumpLeaks(pump(254, 152), hot_pa_s).total_m3_s_pa() * 1e5 < 0);
}

} // namespace tst_pump

MILDPATH_TEST(tst_pump, TestPump)
#include "tst_pump.moc"
