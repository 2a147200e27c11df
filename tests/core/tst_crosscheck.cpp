// SPDX-License-Identifier: GPL-3.0-or-later
// The solver against answers found another way: a linear network by a general library, single
// elements by hand, and a whole engine by a plain method that shares nothing with it but the
// element laws.
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "testing.h"

#include <Eigen/Dense>

#include <random>

using namespace mildpath;

namespace tst_crosscheck {

namespace {

const Oil oil { 105, 14.2, 878 };

Element element(const std::string &id, ElementKind kind, const std::string &from,
                const std::string &to, std::map<std::string, double> values)
{
    return { id, kind, from, to, std::move(values), {} };
}

/// A pump without slip to speak of and without an inlet limit: delivers what it sweeps.
Element steadyPump(const std::string &from, const std::string &to, double displacement_m3)
{
    return element("pump", ElementKind::Pump, from, to,
                   { { "displacement_m3", displacement_m3 },
                     { "rotor_length_mm", 1 },
                     { "tip_clearance_um", 0 },
                     { "end_clearance_um", 0 },
                     { "body_clearance_um", 0 },
                     { "tip_land_mm", 1 },
                     { "end_path_width_mm", 1 },
                     { "end_path_length_mm", 1 },
                     { "body_path_length_mm", 1 } });
}

double viscosityAt(double t)
{
    return oilState(*waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s), oil.rho15_kg_m3, { t })
        .dynamicViscosity_pa_s;
}

} // namespace

class TestCrosscheck : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void linearRing_agreesWithGeneralLibrary();
    void twoHolesInSeries_shareThePressureByHand();
    void parallelBranches_shareTheFlowByHand();
    void fixedNode_isHeld();
    void countAndDuty_multiply();
    void wholeEngine_balancesByNodewiseBisection();
};

void TestCrosscheck::linearRing_agreesWithGeneralLibrary()
{
    // A ring of 20 nodes with branches, all filter medium: linear, so Eigen's dense LU is the
    // reference.
    constexpr int ring = 20;
    std::mt19937 random(11); // fixed
    std::uniform_real_distribution<double> exponent(-11, -9);
    const double mu = viscosityAt(60);
    Circuit c;
    c.elements.push_back(steadyPump("sump", "n0", 6e-6));
    Eigen::MatrixXd a = Eigen::MatrixXd::Zero(ring, ring);
    Eigen::VectorXd b = Eigen::VectorXd::Zero(ring);
    const auto join = [&](int i, int k) {
        const double permeance = std::pow(10, exponent(random));
        const std::string to = k < 0 ? "sump" : "n" + std::to_string(k);
        c.elements.push_back(element("e" + std::to_string(c.elements.size()), ElementKind::Media,
                                     "n" + std::to_string(i), to,
                                     { { "permeance_m3", permeance } }));
        const double g = permeance / mu;
        a(i, i) += g;
        if (k >= 0) {
            a(k, k) += g;
            a(i, k) -= g;
            a(k, i) -= g;
        }
    };
    for (int i = 0; i < ring; ++i) {
        join(i, (i + 1) % ring);
        if (i % 4 == 1)
            join(i, -1);
        if (i % 5 == 2)
            join(i, (i + 7) % ring);
    }
    b(0) = 6e-6 * 2000 / 60;
    const Eigen::VectorXd expected = a.partialPivLu().solve(b);
    const auto network = Network::compile(c);
    QVERIFY2(network, network ? "" : said(network.error().message).c_str());
    const auto s = network->solve({ oil, 2000, 60 });
    QVERIFY(s);
    for (int i = 0; i < ring; ++i)
        verifyClose(
            s->pressure_pa[static_cast<size_t>(network->nodeIndex("n" + std::to_string(i)))],
            expected(i), 1e-7);
}

void TestCrosscheck::twoHolesInSeries_shareThePressureByHand()
{
    // Large holes, thin oil: dp = ρ Q²/(2 Cd² A²), so a hole of half the area takes four times the
    // drop.
    Circuit c;
    c.elements = { steadyPump("sump", "a", 20e-6),
                   element("wide", ElementKind::Orifice, "a", "b", { { "d_mm", 6 } }),
                   element("narrow", ElementKind::Orifice, "b", "sump",
                           { { "d_mm", 6 / std::sqrt(2.0) } }) };
    const auto network = Network::compile(c);
    const auto s = network->solve({ oil, 6000, 140 });
    const double pa = s->pressure_pa[static_cast<size_t>(network->nodeIndex("a"))];
    const double pb = s->pressure_pa[static_cast<size_t>(network->nodeIndex("b"))];
    verifyClose(pb / (pa - pb), 4, 0.01);
    const double q = 20e-6 * 6000 / 60, area = pi / 4 * 36e-6, rho = 878 * (1 - 0.0007 * 125);
    verifyClose(pa - pb, rho * q * q / (2 * 0.49 * area * area), 0.01);
}

void TestCrosscheck::parallelBranches_shareTheFlowByHand()
{
    // Two laminar annuli side by side, one of twice the clearance: eight ninths go through it.
    Circuit c;
    const auto leak = [](const char *id, double um) {
        return element(id, ElementKind::Annulus, "a", "sump",
                       { { "d_mm", 22 }, { "clearance_um", um }, { "l_mm", 14 } });
    };
    c.elements = { steadyPump("sump", "a", 1e-7), leak("tight", 30), leak("loose", 60) };
    const auto network = Network::compile(c);
    const auto s = network->solve({ oil, 1000, 40 });
    const auto flow = [&](const char *id) {
        return s->flow_m3_s[static_cast<size_t>(network->elementIndex(id))];
    };
    verifyClose(flow("loose") / (flow("loose") + flow("tight")), 8.0 / 9, 1e-9);
    verifyClose(flow("loose") + flow("tight"), 1e-7 * 1000 / 60, 1e-9);
}

void TestCrosscheck::fixedNode_isHeld()
{
    // A dry-sump tank at 20 kPa feeds the pump; what leaves the tank is what the pump takes.
    Circuit c;
    c.fixed_kpa["tank"] = 20;
    c.elements = { element("hose", ElementKind::Pipe, "tank", "inlet",
                           { { "d_mm", 16 }, { "l_mm", 500 } }),
                   steadyPump("inlet", "a", 5e-6),
                   element("jet", ElementKind::Orifice, "a", "sump", { { "d_mm", 3 } }) };
    const auto network = Network::compile(c);
    const auto s = network->solve({ oil, 2000, 80 });
    QCOMPARE(s->pressure_pa[static_cast<size_t>(network->nodeIndex("tank"))], 20e3);
    verifyClose(s->flow_m3_s[static_cast<size_t>(network->elementIndex("hose"))], 5e-6 * 2000 / 60,
                1e-8);
    c.fixed_kpa["nowhere"] = 1;
    QVERIFY(!Network::compile(c));
}

void TestCrosscheck::countAndDuty_multiply()
{
    const auto pressure = [](std::map<std::string, double> extra, int copies) {
        Circuit c;
        c.elements = { steadyPump("sump", "a", 5e-6) };
        for (int i = 0; i < copies; ++i) {
            std::map<std::string, double> values { { "d_mm", 1.5 } };
            values.merge(extra);
            c.elements.push_back(
                element("jet" + std::to_string(i), ElementKind::Orifice, "a", "sump", values));
        }
        const auto network = Network::compile(c);
        return network->solve({ oil, 2000, 80 })
            ->pressure_pa[static_cast<size_t>(network->nodeIndex("a"))];
    };
    verifyClose(pressure({ { "count", 3 } }, 1), pressure({}, 3), 1e-9);
    verifyClose(pressure({ { "count", 2 }, { "duty", 0.5 } }, 1), pressure({}, 1), 1e-9);
}

void TestCrosscheck::wholeEngine_balancesByNodewiseBisection()
{
    // Every node of the engine, held by itself while its neighbours keep the solver's pressures:
    // the pressure at which its flows cancel, found by bisection, is the solver's own.
    const Circuit c = inlineFour();
    const auto network = Network::compile(c);
    const OperatingPoint point { oil, 3000, 100 };
    const auto s = network->solve(point);
    for (size_t n = 1; n < network->nodes().size(); ++n) {
        const auto excess = [&](double p) {
            double sum = 0;
            for (size_t e = 0; e < c.elements.size(); ++e) {
                const int from = network->fromNode(static_cast<int>(e)),
                          to = network->toNode(static_cast<int>(e));
                const auto node = static_cast<int>(n);
                if (from != node && to != node)
                    continue;
                const double pFrom = from == node ? p : s->pressure_pa[static_cast<size_t>(from)];
                const double pTo = to == node ? p : s->pressure_pa[static_cast<size_t>(to)];
                double memory = 0;
                const double q = network->law(static_cast<int>(e))
                                     .flow(pFrom - pTo, s->prepared[e], s->lagged[e], memory)
                                     .flow_m3_s
                    * c.elements[e].value("count") * c.elements[e].value("duty");
                sum += from == node ? q : -q;
            }
            return sum;
        };
        double low = -1e5, high = 30e5;
        for (int i = 0; i < 80; ++i)
            (excess((low + high) / 2) > 0 ? high : low) = (low + high) / 2;
        verifyClose(s->pressure_pa[n], (low + high) / 2, 1e-5, 1,
                    QString::fromStdString(network->nodes()[n]));
    }
}

} // namespace tst_crosscheck

MILDPATH_TEST(tst_crosscheck, TestCrosscheck)
#include "tst_crosscheck.moc"
