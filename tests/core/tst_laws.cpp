// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/elementtypes.h"
#include "circuit/hydraulics.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

namespace tst_laws {

class TestLaws : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void friction_agreesWithPublishedLaws_data();
    void friction_agreesWithPublishedLaws();
    void frictionTimesReynoldsSquared_growsThroughout();
    void passageFlow_isTheInverseOfPassageDrop();
    void slopes_agreeWithDifferences_data();
    void slopes_agreeWithDifferences();
    void laggedSlopes_agreeWithDifferences();
    void doubledClearance_leaksEightfold();
    void holeAtLowReynolds_followsCreepingFlow();
    void reliefAtCrackingPressure_isOpenAsAgreed();
    void everyType_hasKeysAndMeanings();
};

namespace {

const OilState hotOil { 826, 0.0117 };

Element elementOf(const char *json)
{
    std::vector<Error> errors;
    return elementFromJson(*parseJson(json), "", errors);
}

} // namespace

void TestLaws::friction_agreesWithPublishedLaws_data()
{
    QTest::addColumn<double>("re");
    QTest::addColumn<double>("roughness");
    QTest::addColumn<double>("expected");
    QTest::addColumn<double>("tolerance");
    // Colebrook–White solved with SciPy; Churchill differs from it by up to 2 % by design.
    QTest::newRow("Colebrook 5e3") << 5e3 << 1e-3 << 0.038495 << 0.02;
    QTest::newRow("Colebrook 2e4") << 2e4 << 1e-3 << 0.027946 << 0.01;
    QTest::newRow("Colebrook 1e5") << 1e5 << 1e-3 << 0.022175 << 0.01;
    QTest::newRow("Colebrook smooth 1e4") << 1e4 << 0.0 << 0.030883 << 0.01;
    // Churchill's own values, computed with SciPy.
    QTest::newRow("Churchill 5e3") << 5e3 << 1e-3 << 0.039138 << 2e-5;
    QTest::newRow("Churchill 2300") << 2300.0 << 1e-3 << 64 / 2300.0 * 1.1086 << 1e-4;
    QTest::newRow("laminar 1000") << 1000.0 << 1e-3 << 0.064 << 1e-6;
    QTest::newRow("laminar 0.01") << 0.01 << 1e-3 << 6400.0 << 1e-12;
}

void TestLaws::friction_agreesWithPublishedLaws()
{
    QFETCH(double, re);
    QFETCH(double, roughness);
    QFETCH(double, expected);
    QFETCH(double, tolerance);
    verifyClose(churchillFriction(re, roughness).factor, expected, tolerance);
}

void TestLaws::frictionTimesReynoldsSquared_growsThroughout()
{
    for (const double roughness : { 0.0, 1e-3, 0.05 }) {
        double before = 0;
        for (double re = 400; re < 1e6; re *= 1.003) {
            const double now = churchillFriction(re, roughness).factor * re * re;
            QVERIFY2(now > before, qPrintable(QString::number(re)));
            before = now;
        }
    }
}

void TestLaws::passageFlow_isTheInverseOfPassageDrop()
{
    const Conduit p { 6e-3, 55e-3, 10e-6, 2.3 };
    for (const double dp : { -4e5, -10.0, 1e-3, 50.0, 3e3, 2e4, 1e5, 9e5 }) {
        const FlowSlope q = passageFlow(p, dp, hotOil);
        verifyClose(passageDrop(p, q.flow_m3_s, hotOil).total_pa(), dp, 1e-9);
        // A start anywhere leads to the same flow.
        verifyClose(passageFlow(p, dp, hotOil, std::abs(q.flow_m3_s) * 0.3).flow_m3_s, q.flow_m3_s,
                    1e-12);
    }
    QCOMPARE(passageFlow(p, 0, hotOil).flow_m3_s, 0.0);
}

void TestLaws::slopes_agreeWithDifferences_data()
{
    QTest::addColumn<QString>("json");
    const auto row = [](const char *name, const char *json) {
        QTest::newRow(name) << QString::fromLatin1(json);
    };
    row("pipe", R"({"id":"x","type":"pipe","from":"a","to":"b","d_mm":6,"l_mm":55,"k":2.3})");
    row("orifice",
        R"({"id":"x","type":"orifice","from":"a","to":"b","d_mm":1.2,"l_mm":2,"cd":0.75})");
    row("annulus",
        R"({"id":"x","type":"annulus","from":"a","to":"b","d_mm":22,"clearance_um":36,"l_mm":14,"ecc":0.7})");
    row("grooved bearing",
        R"({"id":"x","type":"bearing","from":"a","to":"b","d_mm":60,"width_mm":20,"groove_width_mm":3.5,
        "clearance_um":50,"groove_deg":180,"speed_flow":1})");
    row("bearing with a hole",
        R"({"id":"x","type":"bearing","from":"a","to":"b","d_mm":50,"width_mm":20,"groove_deg":0,
        "hole_mm":5,"clearance_um":56,"ecc":0.8,"speed_flow":1})");
    row("crank drilling",
        R"({"id":"x","type":"crank_drilling","from":"a","to":"b","d_mm":5,"l_mm":95,"r_in_mm":30,"r_out_mm":70})");
    row("media", R"({"id":"x","type":"media","from":"a","to":"b","permeance_m3":7e-10})");
    row("check",
        R"({"id":"x","type":"check","from":"a","to":"b","d_mm":11,"open_kpa":6,"open_width_kpa":6})");
    row("jet",
        R"({"id":"x","type":"jet","from":"a","to":"b","d_mm":1.3,"l_mm":6,"open_kpa":190,"open_width_kpa":40})");
    row("relief",
        R"({"id":"x","type":"relief","from":"a","to":"b","crack_kpa":470,"full_kpa":700,"full_area_mm2":60})");
    row("jammed relief",
        R"({"id":"x","type":"relief","from":"a","to":"b","crack_kpa":470,"full_kpa":700,"full_area_mm2":60,
        "stuck_open_fraction":0.1})");
    row("pump",
        R"({"id":"x","type":"pump","from":"a","to":"b","displacement_m3":6.8e-6,"rotor_length_mm":12,
        "tip_clearance_um":90,"end_clearance_um":76,"body_clearance_um":160,"tip_land_mm":1,"end_path_width_mm":90,
        "end_path_length_mm":6,"body_path_length_mm":35})");
}

void TestLaws::slopes_agreeWithDifferences()
{
    QFETCH(QString, json);
    const Element e = elementOf(qPrintable(json));
    QVERIFY2(checkElement(e), checkElement(e) ? "" : said(checkElement(e).error().message).c_str());
    const auto law = makeLaw(e);
    const Prepared prepared = law->prepare({ hotOil, radPerSecond(3000), 100 });
    double memory = 0;
    double before = -1e300;
    for (double dp = -6e5; dp <= 8e5; dp += 7919) {
        const LawFlow q = law->flow(dp, prepared, 0.7, memory);
        QVERIFY2(q.flow_m3_s >= before, "flow must not fall as pressure rises");
        before = q.flow_m3_s;
        const double h = 20;
        const double difference = (law->flow(dp + h, prepared, 0.7, memory).flow_m3_s
                                   - law->flow(dp - h, prepared, 0.7, memory).flow_m3_s)
            / (2 * h);
        verifyClose(q.slope_m3_s_pa, difference, 2e-4, 1e-16,
                    QStringLiteral("slope at %1 Pa").arg(dp));
    }
}

void TestLaws::laggedSlopes_agreeWithDifferences()
{
    Element pump = *inlineFour().find("pump");
    for (const double hole : { 0.0, 1.5 }) {
        pump.values["suction_air_hole_mm"] = hole;
        const PumpLaw law { ElementValues(pump, elementType(ElementKind::Pump).keys) };
        const Prepared prepared = law.prepare({ hotOil, radPerSecond(6000), 100 });
        for (double inlet = -60e3; inlet < 20e3; inlet += 3.1e3) {
            const double h = 5;
            const double difference = (law.laggedTarget(inlet + h, prepared).value
                                       - law.laggedTarget(inlet - h, prepared).value)
                / (2 * h);
            verifyClose(law.laggedTarget(inlet, prepared).slope, difference, 1e-4, 1e-14);
        }
    }
    const CrankDrillingLaw crank { ElementValues(*inlineFour().find("crank_drill_1"),
                                                 elementType(ElementKind::CrankDrilling).keys) };
    const Prepared prepared = crank.prepare({ hotOil, radPerSecond(6000), 100 });
    const double at = 0.4 * crank.supplyNeeded_pa(prepared);
    const double difference
        = (crank.laggedTarget(at + 5, prepared).value - crank.laggedTarget(at - 5, prepared).value)
        / 10;
    verifyClose(crank.laggedTarget(at, prepared).slope, difference, 1e-6);
}

void TestLaws::doubledClearance_leaksEightfold()
{
    // Textbook: cube of the clearance; a fully eccentric annulus leaks 2.5 times a centred one.
    const double once = annulusConductance_m3_s_pa(22e-3, { 18e-6 }, 14e-3, 0, 0.0117);
    verifyClose(annulusConductance_m3_s_pa(22e-3, { 36e-6 }, 14e-3, 0, 0.0117) / once, 8, 1e-12);
    verifyClose(annulusConductance_m3_s_pa(22e-3, { 18e-6 }, 14e-3, 1, 0.0117) / once, 2.5, 1e-12);
}

void TestLaws::holeAtLowReynolds_followsCreepingFlow()
{
    // Sampson (1891), from memory: Q = d³ dp/(24 μ).
    const HoleCoefficients k = holeCoefficients(1e-3, 0, 0.7, { 826, 1.0 });
    verifyClose(quadraticFlow(k.a, k.b, 10).flow_m3_s, 1e-9 * 10 / 24, 1e-3);
}

void TestLaws::reliefAtCrackingPressure_isOpenAsAgreed()
{
    verifyClose(valveOpening(0).value, 0.013863, 1e-4); // w ln 2
    verifyClose(valveOpening(-50).value, 0, 0, 1e-12);
    verifyClose(valveOpening(50).value, 1, 1e-12);
}

void TestLaws::everyType_hasKeysAndMeanings()
{
    for (const ElementType &type : elementTypes()) {
        QVERIFY(!type.meaning.empty() && !type.keys.empty());
        for (const NumberKey &key : type.keys)
            QVERIFY2(!key.meaning.empty() && key.least <= key.most, std::string(key.key).c_str());
    }
}

} // namespace tst_laws

MILDPATH_TEST(tst_laws, TestLaws)
#include "tst_laws.moc"
