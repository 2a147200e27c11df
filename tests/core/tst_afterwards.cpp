// SPDX-License-Identifier: GPL-3.0-or-later
// Read against forecast, and which uncertain input would explain the difference.
#include "checks/assessment.h"
#include "document/edit.h"
#include "entries.h"
#include "start/afterwards.h"
#include "start/corridor.h"
#include "storage/buildfile.h"
#include "testing.h"

using namespace mildpath;

namespace tst_afterwards {

class TestAfterwards : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void residuals_ofTheOwnForecastAreNothing();
    void readings_nameWhatWasMoved_data();
    void readings_nameWhatWasMoved();
    void readings_thatNothingExplainsNameNothing();
    void usedReadings_moveAndNarrowTheForecast();
    void usedReadings_endWithARepair();
    void calibration_movesTheForecastNotTheMeasured();

private:
    /// An engine whose oil is another than said, by a share of its viscosity.
    Build withOil(double thicker) const
    {
        Calibration c;
        c.input = "oil";
        c.amount = thicker;
        return withEntry(m_build, c);
    }
    Build readOn(const Build &off) const;

    const Build m_build = [] {
        Build out = demoBuild();
        out.gaugeReadings.clear();
        return out;
    }();
    const Assessment m_assessment { m_build };
};

void TestAfterwards::residuals_ofTheOwnForecastAreNothing()
{
    Build b = m_build;
    for (const auto &[rpm, oil] : { std::pair(800.0, 20.0), std::pair(2000.0, 60.0) }) {
        const auto there = assessAt(b, m_assessment.sizes, rpm, oil);
        b = withEntry(std::move(b), reading(b, rpm, oil, there->gauge.value_pa / 1e3));
    }
    const auto all = residualsOf(b, m_assessment.sizes);
    QVERIFY(all && all->size() == 2);
    for (const Residual &r : *all) {
        QVERIFY(std::abs(r.residual_pa) < 100);
        QCOMPARE(r.mark, Mark::Proven);
        QVERIFY(r.expected.low_pa < r.expected.value_pa);
    }
}

void TestAfterwards::readings_nameWhatWasMoved_data()
{
    QTest::addColumn<double>("amount");
    QTest::newRow("thinner oil") << -0.15;
    QTest::newRow("thicker oil") << 0.15;
}

/// Read at five places on an engine that is off in one thing.
Build TestAfterwards::readOn(const Build &off) const
{
    Build b = m_build;
    for (const auto &[rpm, oil] :
         { std::pair(800.0, 20.0), std::pair(2000.0, 40.0), std::pair(800.0, 100.0),
           std::pair(3000.0, 100.0), std::pair(1200.0, 100.0) }) {
        const auto there = assessAt(off, m_assessment.sizes, rpm, oil);
        b = withEntry(std::move(b), reading(b, rpm, oil, there->gauge.value_pa / 1e3));
    }
    return b;
}

void TestAfterwards::readings_nameWhatWasMoved()
{
    QFETCH(double, amount);
    const auto against = readAgainstForecast(readOn(withOil(amount)), m_assessment.sizes);
    QVERIFY(against && against->believed && against->residuals.size() == 5);
    const BelievedIdle &b = *against->believed;
    QVERIFY(!b.nothingExplains && b.offProbability < 0.1);
    const auto mine = std::ranges::find(b.moved, "how thick the oil is", &BelievedInput::cause);
    QVERIFY(mine != b.moved.end() && mine->z * amount > 0);
    QVERIFY(!b.told().empty());
}

void TestAfterwards::readings_thatNothingExplainsNameNothing()
{
    // A reading far off in one place and right in the others.
    Build b = m_build;
    for (const auto &[rpm, oil, factor] :
         { std::tuple(800.0, 20.0, 1.0), std::tuple(2000.0, 60.0, 0.4),
           std::tuple(3000.0, 100.0, 1.0) }) {
        const auto there = assessAt(b, m_assessment.sizes, rpm, oil);
        b = withEntry(std::move(b), reading(b, rpm, oil, factor * there->gauge.value_pa / 1e3));
    }
    const auto against = readAgainstForecast(b, m_assessment.sizes);
    QVERIFY(against && against->believed);
    QVERIFY(against->believed->nothingExplains && against->believed->told().empty());
}

void TestAfterwards::usedReadings_moveAndNarrowTheForecast()
{
    const Build off = withOil(-0.15);
    const Build b = readOn(off);
    const BelievedIdle believed = *readAgainstForecast(b, m_assessment.sizes)->believed;
    const Build used = withEntry(b, believed.calibration);
    const Assessment after = assess(used);
    const LikelyPressure now = after.operating.hotIdle.gauge;
    // What stood beside the forecast is the forecast now, everywhere.
    verifyClose(now.value_pa, believed.with.value_pa, 1e-6);
    verifyClose(now.low_pa, believed.with.low_pa, 1e-6);
    verifyClose(now.high_pa, believed.with.high_pa, 1e-6);
    const double truth = assessAt(off, m_assessment.sizes, 800, 100)->gauge.value_pa;
    verifyClose(now.value_pa, truth, 0.03);
    QVERIFY(now.low_pa < truth && truth < now.high_pa);
    const LikelyPressure before = believed.alone;
    QVERIFY(std::log(now.high_pa / now.low_pa) < 0.6 * std::log(before.high_pa / before.low_pa));
    QCOMPARE(after.size("main_1")->cold_um.value, m_assessment.size("main_1")->cold_um.value);
    // Used once: reckoned from the same readings again it is the same.
    const BelievedIdle again = *readAgainstForecast(used, m_assessment.sizes)->believed;
    verifyClose(again.with.value_pa, believed.with.value_pa, 1e-9);
    PressureMap map(std::make_shared<const Build>(used), m_assessment.sizes);
    verifyClose(map.at(800, 100)->value_pa, now.value_pa, 0.01);
    // Saved and read again it moves the forecast as before.
    const auto read = parseBuild(buildText(used));
    QVERIFY(read);
    verifyClose(assess(read->build).operating.hotIdle.gauge.value_pa, now.value_pa, 1e-9);
    const auto back = applyEdit(used, TakeBackEntry { "calibrations", "a1", "t", "x" });
    QCOMPARE(assess(*back).operating.hotIdle.gauge.value_pa,
             m_assessment.operating.hotIdle.gauge.value_pa);
}

void TestAfterwards::usedReadings_endWithARepair()
{
    const Build off = withOil(-0.15);
    const Build b = readOn(off);
    Build used = withEntry(b, readAgainstForecast(b, m_assessment.sizes)->believed->calibration);
    Opening opened;
    used = withEntry(std::move(used), opened);
    QCOMPARE(assess(used).operating.hotIdle.gauge.value_pa,
             m_assessment.operating.hotIdle.gauge.value_pa);
    QVERIFY(!readAgainstForecast(used, m_assessment.sizes)->believed);
}

void TestAfterwards::calibration_movesTheForecastNotTheMeasured()
{
    Calibration c;
    c.input = "main";
    c.amount = 5;
    const Build b = withEntry(m_build, c);
    const Assessment after = assess(b);
    QVERIFY(after.operating.hotIdle.gauge.value_pa
            < m_assessment.operating.hotIdle.gauge.value_pa - 1000);
    QCOMPARE(after.size("main_1")->cold_um.value, m_assessment.size("main_1")->cold_um.value);
    QCOMPARE(after.holds(), m_assessment.holds());
    const auto back = applyEdit(b, TakeBackEntry { "calibrations", "a1", "t", "x" });
    QCOMPARE(assess(*back).operating.hotIdle.gauge.value_pa,
             m_assessment.operating.hotIdle.gauge.value_pa);
    // What is no input is refused.
    c.input = "moon";
    c.by = "t";
    QVERIFY(!applyEdit(m_build, AddEntry { c }));
}

} // namespace tst_afterwards

MILDPATH_TEST(tst_afterwards, TestAfterwards)
#include "tst_afterwards.moc"
