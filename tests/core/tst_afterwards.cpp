// SPDX-License-Identifier: GPL-3.0-or-later
// Read against forecast, and which uncertain input would explain the difference.
#include "checks/assessment.h"
#include "document/edit.h"
#include "entries.h"
#include "start/afterwards.h"
#include "start/corridor.h"
#include "testing.h"

using namespace mildpath;

namespace tst_afterwards {

class TestAfterwards : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void residuals_ofTheOwnForecastAreNothing();
    void explanation_findsWhatWasMoved_data();
    void explanation_findsWhatWasMoved();
    void explanation_isSilentAboutNoise();
    void calibration_movesTheForecastNotTheMeasured();

private:
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

void TestAfterwards::explanation_findsWhatWasMoved_data()
{
    QTest::addColumn<QString>("input");
    QTest::addColumn<double>("amount");
    QTest::newRow("thinner oil") << "oil" << -0.08;
    QTest::newRow("gauge reads low") << "gauge" << -5.0;
    QTest::newRow("all a little higher") << "model" << 0.08;
}

void TestAfterwards::explanation_findsWhatWasMoved()
{
    QFETCH(QString, input);
    QFETCH(double, amount);
    // Readings of an engine that is off in this one thing.
    Build off = m_build;
    Calibration c;
    c.input = input.toStdString();
    c.amount = amount;
    off = withEntry(std::move(off), c);
    Build b = m_build;
    for (const auto &[rpm, oil] :
         { std::pair(800.0, 20.0), std::pair(2000.0, 40.0), std::pair(800.0, 100.0),
           std::pair(3000.0, 100.0), std::pair(1200.0, 100.0) }) {
        const auto there = assessAt(off, m_assessment.sizes, rpm, oil);
        double kpa = there->gauge.value_pa / 1e3;
        kpa = input == "model" ? kpa * (1 + amount) : input == "gauge" ? kpa + amount : kpa;
        b = withEntry(std::move(b), reading(b, rpm, oil, kpa));
    }
    const auto found = explanationsOf(b, m_assessment.sizes);
    QVERIFY(found.has_value());
    const auto mine = std::find_if(found->begin(), found->end(), [&](const Explanation &e) {
        return e.input == input.toStdString();
    });
    QVERIFY(mine != found->end());
    verifyClose(mine->amount, amount, 0.05, 0, input);
    QVERIFY(mine->after < 0.05 * mine->before);
    QVERIFY(mine->explains);
    // Taken, the same readings are as forecast, and the live corridor agrees.
    const Build taken = withEntry(b, calibrationOf(b, *mine));
    const auto again = residualsOf(taken, m_assessment.sizes);
    QVERIFY(again.has_value());
    for (const Residual &r : *again)
        QVERIFY2(std::abs(r.residual_pa) < 0.02e5, qPrintable(QString::number(r.residual_pa)));
    PressureMap map(std::make_shared<const Build>(taken), m_assessment.sizes);
    verifyClose(map.at(800, 100)->value_pa, (*again)[2].expected.value_pa, 0.01, 0, input);
}

void TestAfterwards::explanation_isSilentAboutNoise()
{
    // A reading far off in one place and right in the others: no single input explains it.
    Build b = m_build;
    for (const auto &[rpm, oil, factor] :
         { std::tuple(800.0, 20.0, 1.0), std::tuple(2000.0, 60.0, 0.55),
           std::tuple(3000.0, 100.0, 1.0) }) {
        const auto there = assessAt(b, m_assessment.sizes, rpm, oil);
        b = withEntry(std::move(b), reading(b, rpm, oil, factor * there->gauge.value_pa / 1e3));
    }
    const auto found = explanationsOf(b, m_assessment.sizes);
    QVERIFY(found.has_value());
    for (const Explanation &e : *found)
        QVERIFY2(!e.explains, e.name.c_str());
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
