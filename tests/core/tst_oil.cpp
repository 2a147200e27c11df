// SPDX-License-Identifier: GPL-3.0-or-later
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

} // namespace tst_oil

MILDPATH_TEST(tst_oil, TestOil)
#include "tst_oil.moc"
