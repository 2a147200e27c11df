// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/crankinflow.h"
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "testing.h"

#include <random>

// Oil through a turning crank: what a window lets in, against figures of an independent
// computation, by itself and in a circuit.

using namespace mildpath;

namespace tst_crankflow {

class TestCrankFlow : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void inCircuit_passesWhatTheWindowLets_data();
    void inCircuit_passesWhatTheWindowLets();
    void slopes_areThoseOfTheFlow();
    void supply_crossesTheNeedWithoutFailure();
    void withoutAWindow_theOlderLawStands();
};

namespace {

/// A main held at a pressure, a drilling, and a pin that leaks through a gap.
Circuit oneRod(double main_kpa, std::optional<double> share)
{
    Circuit c;
    c.fixed_kpa["main"] = main_kpa;
    c.elements.push_back({ "pump",
                           ElementKind::Pump,
                           "in",
                           "out",
                           { { "displacement_m3", 6.8e-6 },
                             { "rotor_length_mm", 12 },
                             { "tip_clearance_um", 90 },
                             { "end_clearance_um", 76 },
                             { "body_clearance_um", 160 },
                             { "tip_land_mm", 1 },
                             { "end_path_width_mm", 90 },
                             { "end_path_length_mm", 6 },
                             { "body_path_length_mm", 35 },
                             { "inlet_port_mm2", 130 },
                             { "inlet_port_cd", 0.6 },
                             { "release_pressure_abs_kpa", 30 } },
                           {} });
    c.elements.push_back({ "suction",
                           ElementKind::Pipe,
                           std::string(sumpNode),
                           "in",
                           { { "d_mm", 16 }, { "l_mm", 200 }, { "k", 1.5 } },
                           {} });
    c.elements.push_back({ "away",
                           ElementKind::Pipe,
                           "out",
                           std::string(sumpNode),
                           { { "d_mm", 6 }, { "l_mm", 200 }, { "k", 1.5 } },
                           {} });
    Element drill {
        "drill",
        ElementKind::CrankDrilling,
        "main",
        "pin",
        { { "d_mm", 5 }, { "l_mm", 85 }, { "k", 2.5 }, { "r_in_mm", 28 }, { "r_out_mm", 66 } },
        {}
    };
    if (share)
        drill.values["window_share"] = *share;
    else
        drill.values["duty"] = 0.5;
    c.elements.push_back(drill);
    c.elements.push_back({ "film",
                           ElementKind::Annulus,
                           "pin",
                           std::string(sumpNode),
                           { { "d_mm", 48 },
                             { "clearance_um", 80 },
                             { "l_mm", 10 },
                             { "ecc", 0.5 },
                             { "count", 2 } },
                           {} });
    return c;
}

struct Passed
{
    double l_min, pin_kpa;
};
std::optional<Passed> passed(const Circuit &circuit, double rpm = 7200)
{
    const auto network = Network::compile(circuit);
    if (!network)
        return std::nullopt;
    const auto s = network->solve({ { 105, 14.2, 878 }, rpm, 100 });
    if (!s)
        return std::nullopt;
    return Passed { s->flow_m3_s[static_cast<size_t>(network->elementIndex("drill"))]
                        * litresPerMinute,
                    s->pressure_pa[static_cast<size_t>(network->nodeIndex("pin"))] / 1e3 };
}

} // namespace

void TestCrankFlow::inCircuit_passesWhatTheWindowLets_data()
{
    QTest::addColumn<double>("main_kpa");
    QTest::addColumn<double>("share");
    QTest::addColumn<double>("l_min");
    QTest::addColumn<double>("pin_kpa");
    QTest::newRow("hole to hole") << 350.0 << 0.065 << 0.258 << 228.0;
    QTest::newRow("half a groove") << 350.0 << 0.53 << 1.219 << 1077.0;
    QTest::newRow("all the turn") << 350.0 << 1.0 << 1.342 << 1186.0;
    QTest::newRow("below what it takes") << 100.0 << 0.53 << 0.0 << 0.0;
}

// Figures of an independent computation of the same law (Newton on a main and a rod).
void TestCrankFlow::inCircuit_passesWhatTheWindowLets()
{
    QFETCH(double, main_kpa);
    QFETCH(double, share);
    QFETCH(double, l_min);
    QFETCH(double, pin_kpa);
    const auto p = passed(oneRod(main_kpa, share));
    QVERIFY(p);
    verifyClose(p->l_min, l_min, 0.003, 1e-9);
    verifyClose(p->pin_kpa, pin_kpa, 0.003, 0.01);
}

void TestCrankFlow::slopes_areThoseOfTheFlow()
{
    std::mt19937 random(3);
    const auto in = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    int flowing = 0;
    for (int i = 0; i < 400; ++i) {
        CrankInflow d { .passage = { in(3, 8) * 1e-3, in(40, 120) * 1e-3, 10e-6, 2.5 },
                        .rIn_m = in(15, 40) * 1e-3,
                        .rOut_m = in(45, 90) * 1e-3,
                        .closest_m = 0 };
        d.closest_m = in(0, 1) * d.rIn_m;
        d.windowShare = in(0.03, 1);
        d.mouths = i % 2 + 1;
        d.openMean = in(0.3, 1);
        if (i % 3 == 0) {
            d.slotWidth_m = in(2, 5) * 1e-3;
            d.slotDepth_m = in(0.5, 1.5) * 1e-3;
            d.slotLength_m = in(10, 60) * 1e-3;
        }
        const auto at = inflowConditions(d, { 840, in(0.004, 0.3) }, radPerSecond(in(500, 14000)));
        const double main = in(0, 9e5), pin = in(0, 2e6);
        const CrankFlow q = crankFlow(d, at, main, pin);
        QVERIFY(q.flow_m3_s >= 0 && q.byMain >= 0 && q.byPin <= 0);
        if (!(q.flow_m3_s > 0))
            continue;
        ++flowing;
        const double h = 1;
        if (main - at.need_pa < 10 * h)
            continue;
        const auto flow = [&](double m, double p) { return crankFlow(d, at, m, p).flow_m3_s; };
        verifyClose((flow(main + h, pin) - flow(main - h, pin)) / (2 * h), q.byMain, 1e-3, 1e-16);
        verifyClose((flow(main, pin + h) - flow(main, pin - h)) / (2 * h), q.byPin, 1e-3, 1e-16);
    }
    QVERIFY(flowing > 150);
}

/// Through the pressure at which the oil begins to enter, at every speed: a solution each time, and
/// never less oil by more pressure.
void TestCrankFlow::supply_crossesTheNeedWithoutFailure()
{
    for (const double rpm : { 800.0, 3000.0, 7200.0, 12000.0 })
        for (const double share : { 0.06, 0.53, 1.0 }) {
            double before = -1;
            for (double main = 1; main <= 500; main += 7) {
                const auto p = passed(oneRod(main, share), rpm);
                QVERIFY2(p, qPrintable(QStringLiteral("%1 at %2").arg(main).arg(rpm)));
                QVERIFY(p->l_min >= before - 1e-9);
                before = p->l_min;
            }
            QVERIFY(before > 0);
        }
}

/// A circuit file that says nothing of windows keeps the column by its gate, flow scaled by duty.
void TestCrankFlow::withoutAWindow_theOlderLawStands()
{
    const auto old = passed(oneRod(350, std::nullopt));
    QVERIFY(old);
    const auto low = passed(oneRod(100, std::nullopt));
    QVERIFY(low && low->l_min > 0); // the gate is only partly shut
    QVERIFY(std::abs(old->l_min - passed(oneRod(350, 0.5))->l_min) > 0.01);
}

} // namespace tst_crankflow

MILDPATH_TEST(tst_crankflow, TestCrankFlow)
#include "tst_crankflow.moc"
