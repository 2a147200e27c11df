// SPDX-License-Identifier: GPL-3.0-or-later
// Traces of a bore: exact surfaces, the filter, what strokes do, what is refused.
#include "assess/finishreport.h"
#include "testing.h"

#include <numbers>
#include <random>

using namespace mildpath;

namespace tst_finish {

class TestFinish : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void exactSurfaces_giveExactParameters_data();
    void exactSurfaces_giveExactParameters();
    void twoLineQuantiles_giveTheirSlopes();
    void ramp_isOneProcess();
    void meanLine_passesASineByItsWavelength_data();
    void meanLine_passesASineByItsWavelength();
    void meanLine_isTheSumOfItsWeights();
    void tiltAndBend_leaveTheRoughnessAlone();
    void deepValleys_doNotPullTheTwoStepMeanLine();
    void strokes_leaveValleysUntilTheyReachThem();
    void strokes_ownVoRisesThoughNothingWasAdded();
    void badTrace_isRefusedWithItsPlace_data();
    void badTrace_isRefusedWithItsPlace();
    void flatPlateau_isSaidToBeFlat();
    void oneTrace_scattersAsTheReportSays();
    void change_countsOnlyBeyondThatScatter();
    void retention_hasBothUnits();
};

namespace {

std::vector<double> ramp(size_t n, double height)
{
    std::vector<double> z;
    for (size_t i = 0; i < n; ++i)
        z.push_back(height * static_cast<double>(i) / static_cast<double>(n - 1));
    return z;
}

std::vector<double> normalHeights(size_t n)
{
    std::vector<double> z;
    for (size_t i = 0; i < n; ++i)
        z.push_back(normalQuantile((static_cast<double>(i) + 0.5) / static_cast<double>(n)));
    return z;
}

/// A plateau-honed wall: the lower of two random surfaces (µm), one height a micrometre.
std::vector<double> wall(unsigned seed, size_t n = 5601)
{
    std::mt19937 random(seed);
    std::normal_distribution<double> normal;
    const auto surface = [&](size_t reach) {
        std::vector<double> raw(n + 2 * reach), out;
        for (double &v : raw)
            v = normal(random);
        for (size_t i = 0; i < n; ++i) {
            double sum = 0;
            for (size_t k = 0; k <= 2 * reach; ++k)
                sum += raw[i + k];
            out.push_back(sum / std::sqrt(static_cast<double>(2 * reach + 1)));
        }
        return out;
    };
    const std::vector<double> fine = surface(4), coarse = surface(12);
    std::vector<double> z;
    const double lift = (1.5 - 0.15) * normalQuantile(0.85);
    for (size_t i = 0; i < n; ++i)
        z.push_back(std::min(0.15 * fine[i], lift + 1.5 * coarse[i]));
    return z;
}

FinishedTrace finished(std::span<const double> z, ProfileFilter filter = ProfileFilter::TwoStep,
                       double spacing_um = 1)
{
    auto out = finishTrace(z, spacing_um, 800, filter);
    if (!out)
        qFatal("%s", said(out.error().message).c_str());
    return std::move(*out);
}

} // namespace

void TestFinish::exactSurfaces_giveExactParameters_data()
{
    QTest::addColumn<std::vector<double>>("z");
    QTest::addColumn<double>("rtol");
    QTest::addColumn<double>("ra");
    QTest::addColumn<double>("rq");
    QTest::addColumn<double>("rk");
    QTest::addColumn<double>("rpk");
    QTest::addColumn<double>("mr1");
    QTest::addColumn<double>("mr2");
    QTest::addColumn<double>("vo");
    // Exact: Rk = H N/(N − 1), Ra = H/4, Rq = H/√12 for N → ∞.
    QTest::newRow("ramp of 1 µm") << ramp(2000, 1) << 1e-3 << 0.25 << 0.288675 << 2000.0 / 1999
                                  << 0.0 << 0.0 << 100.0 << 0.0;
    std::vector<double> triangle = ramp(1000, 3), down = ramp(1000, 3);
    triangle.insert(triangle.end(), down.rbegin(), down.rend());
    QTest::newRow("triangle of 3 µm")
        << triangle << 2e-3 << 0.75 << 0.866025 << 3.0 << 0.0 << 0.0 << 100.0 << 0.0;
    // Exact integral of the normal distribution, evaluated with a general numerical library.
    QTest::newRow("normal, 1 µm") << normalHeights(200000) << 2e-4 << 0.797885 << 1.0 << 2.5740
                                  << 0.9450 << 9.905 << 90.095 << 0.00468;
}

void TestFinish::exactSurfaces_giveExactParameters()
{
    QFETCH(std::vector<double>, z);
    QFETCH(double, rtol);
    QFETCH(double, ra);
    QFETCH(double, rq);
    QFETCH(double, rk);
    QFETCH(double, rpk);
    QFETCH(double, mr1);
    QFETCH(double, mr2);
    QFETCH(double, vo);
    const FinishedTrace t = finished(z, ProfileFilter::None);
    verifyClose(t.amplitudes.ra_um, ra, rtol, 0, "Ra");
    verifyClose(t.amplitudes.rq_um, rq, rtol, 0, "Rq");
    verifyClose(t.core.rk_um, rk, rtol, 0, "Rk");
    verifyClose(t.core.rpk_um, rpk, rtol, 1e-9, "Rpk");
    verifyClose(t.core.rvk_um, rpk, rtol, 1e-9, "Rvk"); // the same upside down
    verifyClose(100 * t.core.mr1, mr1, rtol, 1e-9, "Mr1");
    verifyClose(100 * t.core.mr2, mr2, rtol, 1e-9, "Mr2");
    verifyClose(t.core.vo_mm3_cm2(), vo, 1e-3, 1e-9, "Vo");
    QCOMPARE(t.amplitudes.sections, 1);
}

void TestFinish::twoLineQuantiles_giveTheirSlopes()
{
    std::vector<double> z;
    for (const double s : normalHeights(20000))
        z.push_back(std::min(-0.15 * s, (1.5 - 0.15) * normalQuantile(0.8) - 1.5 * s));
    const PlateauFit fit = plateauFit(finished(z, ProfileFilter::None).curve);
    QVERIFY(fit.twoProcess);
    verifyClose(fit.rpq_um, 0.150, 2e-3);
    verifyClose(*fit.rvq_um, 1.500, 2e-3);
    verifyClose(*fit.rmq_percent, 80.0, 2e-3);
}

void TestFinish::ramp_isOneProcess()
{
    const PlateauFit fit = plateauFit(finished(ramp(2000, 1), ProfileFilter::None).curve);
    QVERIFY(!fit.twoProcess);
    QVERIFY(!fit.rvq_um && !fit.rmq_percent);
    QVERIFY(fit.rpq_um > 0);
}

void TestFinish::meanLine_passesASineByItsWavelength_data()
{
    QTest::addColumn<double>("wavelengths");
    QTest::addColumn<double>("passes");
    // ISO 16610-21: 2^-(λc/λ)².
    QTest::newRow("the cut-off") << 1.0 << 0.5;
    QTest::newRow("half of it") << 0.5 << 0.0625;
    QTest::newRow("twice") << 2.0 << 0.840896;
}

void TestFinish::meanLine_passesASineByItsWavelength()
{
    QFETCH(double, wavelengths);
    QFETCH(double, passes);
    std::vector<double> z;
    for (int i = 0; i < 8001; ++i)
        z.push_back(std::cos(2 * std::numbers::pi * (i - 4000) / (800 * wavelengths)));
    verifyClose(gaussianMeanLine(z, 1, 800)[4000], passes, 1e-3, 2e-4);
}

void TestFinish::meanLine_isTheSumOfItsWeights()
{
    // Summed one by one, ends and all: the transform changes nothing but the time it takes.
    const std::vector<double> z = wall(3, 400);
    const double alpha = std::sqrt(std::log(2.0) / std::numbers::pi);
    const std::vector<double> line = gaussianMeanLine(z, 5, 250);
    for (const size_t i : { size_t(0), size_t(7), size_t(200), size_t(399) }) {
        double above = 0, below = 0;
        for (size_t k = 0; k < z.size(); ++k) {
            const double x = 5.0 * (static_cast<double>(k) - static_cast<double>(i));
            if (std::abs(x) > 250)
                continue;
            const double w = std::exp(-std::numbers::pi * std::pow(x / (alpha * 250), 2));
            above += w * z[k];
            below += w;
        }
        verifyClose(line[i], above / below, 1e-10, 1e-12);
    }
}

void TestFinish::tiltAndBend_leaveTheRoughnessAlone()
{
    std::vector<double> flat = wall(5), laid = flat;
    for (size_t i = 0; i < laid.size(); ++i) {
        const double x = static_cast<double>(i) / static_cast<double>(laid.size());
        laid[i] += 30 * x + 8 * x * x;
    }
    const FinishedTrace a = finished(flat), b = finished(laid);
    verifyClose(b.core.rk_um, a.core.rk_um, 0.02);
    verifyClose(b.core.rvk_um, a.core.rvk_um, 0.02);
    // A parabola taken off first leaves a parabola's worth of nothing.
    std::vector<double> parabola;
    for (int i = 0; i < 500; ++i)
        parabola.push_back(3 + 0.01 * i + 1e-4 * i * i);
    for (const double rest : withoutParabola(parabola))
        QVERIFY(std::abs(rest) < 1e-9);
}

void TestFinish::deepValleys_doNotPullTheTwoStepMeanLine()
{
    // A smooth plateau with wide valleys: one filter lets the line sink into them, the plateau
    // beside them rises over it.
    std::vector<double> z(6000, 0);
    std::mt19937 random(1);
    std::normal_distribution<double> fine(0, 0.02);
    for (size_t i = 0; i < z.size(); ++i)
        z[i] = fine(random) - (i % 1000 < 120 ? 4 : 0);
    const double gauss = finished(z, ProfileFilter::Gaussian).core.rk_um,
                 twoStep = finished(z, ProfileFilter::TwoStep).core.rk_um;
    QVERIFY2(twoStep < 0.6 * gauss, qPrintable(QStringLiteral("%1 %2").arg(twoStep).arg(gauss)));
}

void TestFinish::strokes_leaveValleysUntilTheyReachThem()
{
    const FinishedTrace t = finished(wall(11));
    const double reach = t.curve.at(0.01) - t.core.c2_um;
    double before = 1e9;
    for (const double part : { 0.1, 0.5, 0.9, 1.1, 1.5, 2.0 }) {
        const auto stroked = strokeTrace(t, part * reach);
        QVERIFY(stroked);
        const double left = stroked->cut.valleyLeft_um3_um2;
        if (part < 1)
            verifyClose(left, t.core.vo_um3_um2, 1e-9);
        else
            QVERIFY(left < t.core.vo_um3_um2);
        QVERIFY(left <= before + 1e-12);
        before = left;
        QVERIFY(stroked->amplitudes.ra_um < t.amplitudes.ra_um + 1e-12);
    }
    const auto tooMuch = strokeTrace(t, 100);
    QVERIFY(!tooMuch);
    QCOMPARE(tooMuch.error().place, std::string("truncate_depth_um"));
}

void TestFinish::strokes_ownVoRisesThoughNothingWasAdded()
{
    // Why the cut wall's own Vo is never shown as its oil.
    const FinishedTrace t = finished(wall(11));
    const auto stroked = strokeTrace(t, 0.9 * (t.curve.at(0.01) - t.core.c2_um));
    QVERIFY(stroked);
    QVERIFY(stroked->core.vo_um3_um2 > 1.05 * t.core.vo_um3_um2);
    QVERIFY(stroked->cut.valleyLeft_um3_um2 <= t.core.vo_um3_um2 * (1 + 1e-12));
}

void TestFinish::badTrace_isRefusedWithItsPlace_data()
{
    QTest::addColumn<int>("points");
    QTest::addColumn<double>("spacing");
    QTest::addColumn<int>("filter");
    QTest::addColumn<QString>("place");
    QTest::newRow("shorter than two cut-offs") << 1500 << 1.0 << 2 << "z_um";
    QTest::newRow("just long enough") << 1601 << 1.0 << 2 << "";
    QTest::newRow("too few without a filter") << 99 << 1.0 << 0 << "z_um";
    QTest::newRow("step too coarse") << 4000 << 16.5 << 2 << "spacing_um";
    QTest::newRow("a fiftieth is fine") << 4000 << 16.0 << 2 << "";
    QTest::newRow("no step") << 4000 << 0.0 << 2 << "spacing_um";
}

void TestFinish::badTrace_isRefusedWithItsPlace()
{
    QFETCH(int, points);
    QFETCH(double, spacing);
    QFETCH(int, filter);
    QFETCH(QString, place);
    const std::vector<double> z = wall(2, static_cast<size_t>(points));
    const auto out = finishTrace(z, spacing, 800, static_cast<ProfileFilter>(filter));
    QCOMPARE(out ? QString() : QString::fromStdString(out.error().place), place);
    std::vector<double> broken = z;
    broken[17] = std::nan("");
    const auto refused = finishTrace(broken, 1, 800, ProfileFilter::TwoStep);
    QVERIFY(!refused);
    QVERIFY(said(refused.error().message).find("height 18") != std::string::npos);
}

void TestFinish::flatPlateau_isSaidToBeFlat()
{
    std::vector<double> z = wall(2, 3000);
    for (double &v : z)
        v = std::min(v, -0.2); // far more than 40 % at one height
    const auto out = finishTrace(z, 1, 800, ProfileFilter::None);
    QVERIFY(!out);
    QVERIFY(said(out.error().message).find("flat") != std::string::npos);
}

void TestFinish::oneTrace_scattersAsTheReportSays()
{
    const auto spread = [](double (*of)(const FinishedTrace &)) {
        double sum = 0, squares = 0;
        constexpr int n = 20;
        for (unsigned seed = 100; seed < 100 + n; ++seed) {
            const double v = of(finished(wall(seed)));
            sum += v;
            squares += v * v;
        }
        const double mean = sum / n;
        return std::sqrt(squares / n - mean * mean) / mean;
    };
    const double rk = spread([](const FinishedTrace &t) { return t.core.rk_um; });
    const double rvk = spread([](const FinishedTrace &t) { return t.core.rvk_um; });
    QVERIFY2(rk > 0.02 && rk < plateauScatter, qPrintable(QString::number(rk)));
    QVERIFY2(rvk > 0.1 && rvk < 0.4, qPrintable(QString::number(rvk)));
}

void TestFinish::change_countsOnlyBeyondThatScatter()
{
    std::vector<ReadTrace> traces;
    const auto add = [&](const char *phase, unsigned seed, double factor) {
        BoreTrace t;
        t.phase = phase;
        t.spacing_um = 1;
        std::vector<double> z = wall(seed);
        for (double &v : z)
            v *= factor;
        t.z = Heights(std::move(z));
        traces.push_back(readTrace(t, 0.8, ProfileFilter::TwoStep));
    };
    const FinishQuantity &rk = *findFinishQuantity("rk_um"), &rvk = *findFinishQuantity("rvk_um");
    add("before", 1, 1);
    QVERIFY(!changeOf(traces, 1, rk));
    QVERIFY(!trustIn(1).empty() && trustIn(3).empty());
    add("after", 2, 0.5);
    QVERIFY(changeOf(traces, 1, rk)->counts);
    QVERIFY(!changeOf(traces, 1, rvk)->counts); // one trace of valleys says little
    for (const unsigned seed : { 3U, 4U, 5U, 6U, 7U, 8U }) {
        add("before", seed, 1);
        add("after", seed + 20, 0.5);
    }
    QVERIFY(changeOf(traces, 1, rvk)->counts);
    const FinishRange range = rangeOf(traces, 1, "before", rvk);
    QCOMPARE(range.traces, 7);
    QVERIFY(range.least < range.mean && range.mean < range.most);
    QCOMPARE(rangeOf(traces, 2, "before", rvk).traces, 0);
}

void TestFinish::retention_hasBothUnits()
{
    // ISO 13565-2: Vo = (100 − Mr2) Rvk/2000 in mm³/cm²; 1 µm³/µm² = 0.1 mm³/cm².
    const CoreRoughness c = finished(wall(4)).core;
    verifyClose(c.vo_mm3_cm2(), (100 - 100 * c.mr2) * c.rvk_um / 2000, 1e-9);
    verifyClose(c.vo_um3_um2, 10 * c.vo_mm3_cm2(), 1e-12);
}

} // namespace tst_finish

MILDPATH_TEST(tst_finish, TestFinish)
#include "tst_finish.moc"
