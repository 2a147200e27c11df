// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/fallingball.h"
#include "oil/grades.h"
#include "oil/viscosity.h"
#include "testing.h"

using namespace mildpath;

namespace tst_oil {

class TestOil : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void viscosity_meetsBothPointsOfTheSheet();
    void viscosityOfReferenceGrades_agreesWithTable_data();
    void viscosityOfReferenceGrades_agreesWithTable();
    void senselessSheets_nameTheirKey_data();
    void senselessSheets_nameTheirKey();
    void referenceOilsOfTheIndex_matchTheStandardsTable();
    void index_isContinuousWhereTheFitChanges();
    void grade40_hasTwoHighShearMinima();
    void gearAndEngineScales_areDifferentScales();
    void shelf_isSensible();
    void ball_fallsAsItsWakeLetsIt_data();
    void ball_fallsAsItsWakeLetsIt();
    void race_findsTheRatioBeyondCreeping_data();
    void race_findsTheRatioBeyondCreeping();
    void race_thatTellsNothingGivesNoFigure();
};

void TestOil::viscosity_meetsBothPointsOfTheSheet()
{
    for (const ShelfOil &o : oilShelf()) {
        const auto line = waltherLine(o.oil.kv40_mm2_s, o.oil.kv100_mm2_s);
        QVERIFY(line);
        verifyClose(kinematicViscosity_mm2_s(*line, { 40 }), o.oil.kv40_mm2_s, 1e-10);
        verifyClose(kinematicViscosity_mm2_s(*line, { 100 }), o.oil.kv100_mm2_s, 1e-10);
    }
}

void TestOil::viscosityOfReferenceGrades_agreesWithTable_data()
{
    QTest::addColumn<int>("grade");
    QTest::addColumn<double>("t");
    QTest::addColumn<double>("mu");
    // Computed independently with NumPy (docs/theory/circuit.md).
    const double table[][5] = { { 30, 0.16051, 0.026567, 0.0086112, 0.0056773 },
                                { 40, 0.26694, 0.039128, 0.011726, 0.0075146 },
                                { 50, 0.44613, 0.056209, 0.015381, 0.0095512 } };
    const double temperatures[] = { 20, 60, 100, 120 };
    for (const auto &row : table)
        for (int i = 0; i < 4; ++i)
            QTest::addRow("grade %d at %g", static_cast<int>(row[0]), temperatures[i])
                << static_cast<int>(row[0]) << temperatures[i] << row[i + 1];
}

void TestOil::viscosityOfReferenceGrades_agreesWithTable()
{
    QFETCH(int, grade);
    QFETCH(double, t);
    QFETCH(double, mu);
    const Oil oil = referenceOil(grade);
    const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
    verifyClose(oilState(*line, oil.rho15_kg_m3, { t }).dynamicViscosity_pa_s, mu, 5e-5);
}

void TestOil::senselessSheets_nameTheirKey_data()
{
    QTest::addColumn<double>("kv40");
    QTest::addColumn<double>("kv100");
    QTest::addColumn<QString>("key");
    QTest::newRow("thicker hot than cold") << 10.0 << 12.0 << QStringLiteral("kv100_mm2_s");
    QTest::newRow("too thin cold") << 1.0 << 0.9 << QStringLiteral("kv40_mm2_s");
    QTest::newRow("too thin hot") << 5.0 << 0.5 << QStringLiteral("kv100_mm2_s");
    QTest::newRow("not a number") << std::nan("") << 10.0 << QStringLiteral("kv40_mm2_s");
}

void TestOil::senselessSheets_nameTheirKey()
{
    QFETCH(double, kv40);
    QFETCH(double, kv100);
    QFETCH(QString, key);
    const auto line = waltherLine(kv40, kv100);
    QVERIFY(!line);
    QCOMPARE(QString::fromStdString(line.error().place), key);
}

void TestOil::referenceOilsOfTheIndex_matchTheStandardsTable()
{
    // ASTM D2270 table at 10 mm²/s: L 147.7, H 82.87; from memory.
    const auto vi = viscosityIndex(100, 10);
    verifyClose(vi->l_mm2_s, 147.7, 1e-3);
    verifyClose(vi->h_mm2_s, 82.87, 1e-3);
}

void TestOil::index_isContinuousWhereTheFitChanges()
{
    // A mistyped coefficient shows as a jump; the standard's own fit is continuous to 0.19 %.
    for (const double y :
         { 3.8, 4.4, 5.0, 6.4, 7.0, 7.7, 9.0, 12.0, 15.0, 18.0, 22.0, 28.0, 40.0, 55.0, 70.0 }) {
        const auto below = viscosityIndex(1000, y - 1e-9), above = viscosityIndex(1000, y);
        verifyClose(above->l_mm2_s, below->l_mm2_s, 2e-3, 0, QStringLiteral("L at %1").arg(y));
        verifyClose(above->h_mm2_s, below->h_mm2_s, 2e-3, 0, QStringLiteral("H at %1").arg(y));
    }
}

void TestOil::grade40_hasTwoHighShearMinima()
{
    // SAE J300, from memory: 3.5 mPa·s with 0W, 5W, 10W; 3.7 otherwise.
    QCOMPARE(gradeOf(14, 0.0036, std::string("5W"))->engineGrade, std::optional<std::string>("40"));
    QCOMPARE(gradeOf(14, 0.0036, std::string("15W"))->engineGrade, std::nullopt);
    QVERIFY(!gradeOf(14, 0.0036, std::string("7W")));
}

void TestOil::gearAndEngineScales_areDifferentScales()
{
    // Common practice, no source: a 75W-85 gear oil is the thinner of it and a 20W-50.
    const ShelfOil *gear = findShelfOil("75W-85 gear"), *engine = findShelfOil("20W-50");
    QVERIFY(gear->oil.kv100_mm2_s < engine->oil.kv100_mm2_s);
    QCOMPARE(gradeOf(gear->oil.kv100_mm2_s, std::nullopt, std::nullopt)->gearGrade,
             std::optional<std::string>("85"));
    QCOMPARE(gradeOf(gear->oil.kv100_mm2_s, std::nullopt, std::nullopt)->engineGrade,
             std::optional<std::string>("30"));
}

void TestOil::shelf_isSensible()
{
    for (const ShelfOil &o : oilShelf()) {
        QVERIFY(o.oil.kv40_mm2_s > 2 * o.oil.kv100_mm2_s);
        QVERIFY(o.oil.rho15_kg_m3 > 800 && o.oil.rho15_kg_m3 < 950);
        // The name's last figure is the grade its viscosity falls in.
        if (!o.gearOil) {
            const auto g = gradeOf(o.oil.kv100_mm2_s, std::nullopt, std::nullopt);
            QVERIFY2(o.grade.ends_with(*g->engineGrade), std::string(o.grade).c_str());
        }
    }
}

void TestOil::ball_fallsAsItsWakeLetsIt_data()
{
    QTest::addColumn<double>("ball_mm");
    QTest::addColumn<double>("viscosity_pa_s");
    QTest::addColumn<double>("falls_mm_s");
    QTest::addColumn<double>("creeping_mm_s");
    // Steel in an oil of 860 kg/m³, no wall, computed independently.
    QTest::newRow("5 mm") << 5.0 << 0.10 << 443.0 << 945.0;
    QTest::newRow("3 mm") << 3.0 << 0.20 << 139.0 << 170.0;
    QTest::newRow("2 mm") << 2.0 << 0.25 << 56.1 << 60.5;
}

void TestOil::ball_fallsAsItsWakeLetsIt()
{
    QFETCH(double, ball_mm);
    QFETCH(double, viscosity_pa_s);
    QFETCH(double, falls_mm_s);
    QFETCH(double, creeping_mm_s);
    const double d = ball_mm * 1e-3;
    const double speed = fallSpeed_m_s(viscosity_pa_s, 860, d, 7800);
    verifyClose(speed * 1e3, falls_mm_s, 2e-3);
    // In creeping flow the drag is the oil's own.
    verifyClose(speed * dragViscosity_pa_s(viscosity_pa_s, 860, speed, d) / viscosity_pa_s * 1e3,
                creeping_mm_s, 2e-3);
    verifyClose(faxenFactor(1.0 / 9), 0.769, 1e-3);
}

void TestOil::race_findsTheRatioBeyondCreeping_data()
{
    QTest::addColumn<double>("ball_mm");
    QTest::addColumn<double>("ratio");
    for (const double ball_mm : { 1.0, 2.0, 4.0, 6.0 })
        for (const double ratio : { 0.34, 0.51, 2.2 })
            QTest::addRow("%g mm, %g", ball_mm, ratio) << ball_mm << ratio;
}

void TestOil::race_findsTheRatioBeyondCreeping()
{
    QFETCH(double, ball_mm);
    QFETCH(double, ratio);
    const double d = ball_mm * 1e-3, mu = 0.3, held = 0.9; // wall and rig hold both alike
    FallingBall race { .referenceTime_s = 0,
                       .unknownTime_s = 0,
                       .referenceDensity_kg_m3 = 870,
                       .unknownDensity_kg_m3 = 860,
                       .referenceViscosity_pa_s = mu,
                       .ball_m = d,
                       .glass_m = 0.06,
                       .fall_m = 3 };
    // A ball as much lighter as it is held back.
    const auto time = [&](double viscosity, double density) {
        return race.fall_m
            / fallSpeed_m_s(viscosity, density, d, density + held * (7800 - density));
    };
    race.referenceTime_s = time(mu, 870);
    race.unknownTime_s = time(ratio * mu, 860);
    const auto raced = racedBall(race);
    QVERIFY(raced);
    verifyClose(raced->viscosityRatio, ratio, 1e-6);
    QVERIFY(raced->expandedShare > 0.03);
    // Times alone miss it once the balls are quick.
    if (ball_mm >= 4)
        QVERIFY(std::abs(fallingBall(race)->viscosityRatio / ratio - 1) > 0.03);
}

void TestOil::race_thatTellsNothingGivesNoFigure()
{
    FallingBall race { .referenceTime_s = 8,
                       .unknownTime_s = 12,
                       .referenceDensity_kg_m3 = 865,
                       .unknownDensity_kg_m3 = 865,
                       .referenceViscosity_pa_s = 0.25,
                       .ball_m = 0.0015,
                       .glass_m = 0.04,
                       .fall_m = 0.25 };
    QVERIFY(racedBall(race));
    const auto place = [](const FallingBall &r) { return racedBall(r).error().place; };
    FallingBall quick = race;
    quick.unknownTime_s = 0.9;
    QCOMPARE(place(quick), std::string("time_unknown_s"));
    FallingBall tight = race;
    tight.ball_m = 0.0125;
    QCOMPARE(place(tight), std::string("ball_diameter_m"));
    FallingBall wild = race;
    wild.ball_m = 0.01;
    wild.fall_m = 20;
    wild.referenceViscosity_pa_s = 0.005;
    QCOMPARE(place(wild), std::string("ball_diameter_m"));
}

} // namespace tst_oil

MILDPATH_TEST(tst_oil, TestOil)
#include "tst_oil.moc"
