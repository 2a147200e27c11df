// SPDX-License-Identifier: GPL-3.0-or-later
// What must hold whatever the numbers: tried over speeds, temperatures, oils and changed
// dimensions.
#include "checks/assessment.h"
#include "document/edit.h"
#include "testing.h"

using namespace mildpath;

namespace tst_invariants {

namespace {

struct Change
{
    const char *name;
    const char *element; ///< id, or a stem that several ids begin with
    const char *key;
    double factor;
};

/// Larger of these lets more oil out, or brings less: pressure at the gauge must not rise.
const Change leaks[] = {
    { "wider mains", "main_", "clearance_um", 1.3 },
    { "wider big-ends", "big_end_", "clearance_um", 1.3 },
    { "wider cams", "cam_", "clearance_um", 1.3 },
    { "worn lifter bores", "lifter_bore_", "clearance_um", 2 },
    { "larger chain jet", "chain_jet", "d_mm", 1.3 },
    { "larger restrictor", "lifter_restrictor", "d_mm", 1.3 },
    { "worn tips", "pump", "tip_clearance_um", 1.3 },
    { "worn ends", "pump", "end_clearance_um", 1.5 },
    { "worn body", "pump", "body_clearance_um", 1.5 },
    { "clogged filter", "filter_media", "permeance_m3", 0.3 },
    { "smaller pump", "pump", "displacement_m3", 0.9 },
    { "narrow gallery feed", "gallery_feed", "d_mm", 0.6 },
    { "narrow strainer", "strainer", "d_mm", 0.5 },
};

Circuit with(const Change &change)
{
    Circuit c = inlineFour();
    for (Element &e : c.elements)
        if (e.id.starts_with(change.element) && e.values.contains(change.key))
            e.values[change.key] *= change.factor;
    return c;
}

double gauge(const Circuit &c, const OperatingPoint &point)
{
    const auto network = Network::compile(c);
    const auto s = network->solve(point);
    return s ? s->pressure_pa[static_cast<size_t>(network->nodeIndex("tap_rear"))] : std::nan("");
}

} // namespace

class TestInvariants : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void whatLeaksMore_neverRaisesTheGauge_data();
    void whatLeaksMore_neverRaisesTheGauge();
    void morePumpMoreSpeedThickerOil_raiseIt();
    void blockedStrainer_starvesThePump();
    void heatBalance_staysWithinItsCap();
    void likelyRange_widensWithDoubt();
    void readingsAtOtherTemperatures_giveTheSameClearance();
    void moreReadingsOfOneGauge_makeNoBetterGauge();
    void everyEdit_undoesByItsInverse();
    void strikingAReading_bringsBackWhatStoodBefore();
    void assessmentOfEveryTemplate_isComplete_data();
    void assessmentOfEveryTemplate_isComplete();
    void forecastOfTheDemo_hasNoGaps();
};

void TestInvariants::whatLeaksMore_neverRaisesTheGauge_data()
{
    QTest::addColumn<int>("row");
    for (size_t i = 0; i < std::size(leaks); ++i)
        QTest::newRow(leaks[i].name) << static_cast<int>(i);
}

void TestInvariants::whatLeaksMore_neverRaisesTheGauge()
{
    QFETCH(int, row);
    const Circuit changed = with(leaks[row]), healthy = inlineFour();
    QVERIFY(changed != healthy);
    bool felt = false;
    for (const double t : { 20.0, 60.0, 100.0, 130.0 })
        for (const double rpm : { 700.0, 2000.0, 4500.0 }) {
            const OperatingPoint point { referenceOil(40), rpm, t };
            const double before = gauge(healthy, point), after = gauge(changed, point);
            QVERIFY2(after <= before * (1 + 1e-6),
                     qPrintable(QStringLiteral("%1 rev/min, %2 C").arg(rpm).arg(t)));
            felt = felt || after < before * 0.999;
        }
    QVERIFY(felt);
}

void TestInvariants::morePumpMoreSpeedThickerOil_raiseIt()
{
    const Circuit c = inlineFour();
    const auto at = [&](double rpm, double t, int grade) {
        return gauge(c, { referenceOil(grade), rpm, t });
    };
    QVERIFY(at(900, 100, 40) > at(800, 100, 40));
    QVERIFY(at(800, 90, 40) > at(800, 100, 40));
    QVERIFY(at(800, 100, 50) > at(800, 100, 40));
    QVERIFY(gauge(with({ "", "pump", "displacement_m3", 1.2 }), { referenceOil(40), 800, 100 })
            > at(800, 100, 40));
}

void TestInvariants::blockedStrainer_starvesThePump()
{
    // Below the release pressure the pump takes what comes through the strainer, no more.
    Circuit c = inlineFour();
    double before = 1e9;
    for (const double hole : { 20.0, 10.0, 8.0, 6.0 }) {
        c.find("strainer")->values["d_mm"] = hole;
        const auto network = Network::compile(c);
        const auto s = network->solve({ referenceOil(40), 6000, 60 });
        QVERIFY2(s, s ? "" : said(s.error().message).c_str());
        const double inlet = s->pressure_pa[static_cast<size_t>(network->nodeIndex("inlet"))];
        QVERIFY(inlet < before && inlet > -atmosphere_pa);
        before = inlet;
    }
}

void TestInvariants::heatBalance_staysWithinItsCap()
{
    const auto network = Network::compile(inlineFour());
    for (const double t : { -10.0, 20.0, 100.0 })
        for (const double rpm : { 800.0, 6000.0 }) {
            const auto s = network->solve({ referenceOil(50), rpm, t, BearingTemperature::Energy });
            QVERIFY2(s, s ? "" : said(s.error().message).c_str());
            for (size_t e = 0; e < network->elementCount(); ++e) {
                const double rise = s->oilTemperature_c[e] - t;
                QVERIFY2(rise >= 0 && rise <= 80, network->elementId(static_cast<int>(e)).c_str());
            }
        }
}

void TestInvariants::likelyRange_widensWithDoubt()
{
    Build sure = demoBuild(), unsure = demoBuild();
    unsure.readings.change([](Reading &r) { r.u_um = 8; });
    const LikelyPressure a = assess(sure).operating.hotIdle.gauge,
                         b = assess(unsure).operating.hotIdle.gauge;
    // Readings that are less sure leave more to what shells usually are.
    verifyClose(a.value_pa, b.value_pa, 0.005);
    QVERIFY(b.high_pa - b.low_pa > a.high_pa - a.low_pa);
}

void TestInvariants::readingsAtOtherTemperatures_giveTheSameClearance()
{
    // The same bearing gauged in a cold shop: an iron bore on a steel journal reads a little more
    // there, by D (αj − αh) ΔT, and comes out the same at 20 °C.
    const Build base = loadTemplate("inline-four-wet-sump")->build;
    const auto cold_um = [&](double shop_c, double read_um) {
        Reading r;
        r.stop = "main_1";
        r.value_um = read_um;
        r.housing_c = r.journal_c = shop_c;
        return assess(applyEdit(base, EnterReading { r }).value()).size("main_1")->cold_um.value;
    };
    const double difference = 60e3 * (11.7e-6 - 10.5e-6) * 20;
    verifyClose(cold_um(0, 50 + difference), cold_um(20, 50), 0, 0.03);
}

void TestInvariants::moreReadingsOfOneGauge_makeNoBetterGauge()
{
    const auto a = assess(demoBuild());
    for (const GaugedSize &c : a.sizes)
        if (c.measured && c.method() == "zeroed_bore_gauge")
            verifyClose(c.cold_um.standardUncertainty, 1.3, 1e-9);
}

void TestInvariants::everyEdit_undoesByItsInverse()
{
    const Build build = demoBuild();
    const std::pair<Edit, Edit> pairs[] = {
        { SetUse { "hot_oil_c", 95 }, SetUse { "hot_oil_c", build.use.hotOil_c } },
        { SetLimit { "main", "max_um", 70 },
          SetLimit { "main", "max_um", build.limits.at("main").max_um } },
        { SetElementValue { "chain_jet", "d_mm", 1.5 },
          SetElementValue { "chain_jet", "d_mm", build.circuit.find("chain_jet")->value("d_mm") } },
        { SetOil { { "20W-50", { 160, 18.5, 884 }, {} } }, SetOil { build.oil } },
        { Rename { "other" }, Rename { build.name } },
    };
    for (const auto &[there, back] : pairs) {
        const Build changed = applyEdit(build, there).value();
        QVERIFY(!(changed == build));
        // But that somebody has said it since.
        Build again = applyEdit(changed, back).value();
        again.origins = build.origins;
        for (auto &[family, limits] : again.limits)
            limits.source = build.limits.at(family).source;
        QVERIFY(again == build);
    }
}

void TestInvariants::strikingAReading_bringsBackWhatStoodBefore()
{
    const Build base = loadTemplate("inline-four-wet-sump")->build;
    Reading r;
    r.stop = "main_1";
    r.value_um = 50;
    const Build one = applyEdit(base, EnterReading { r }).value();
    const Build none
        = applyEdit(one, WithdrawReading { gaugePlace("main_1", 1, 90), "t", "" }).value();
    const auto before = assess(base), after = assess(none);
    QCOMPARE(after.size("main_1")->measured, false);
    QCOMPARE(after.operating.hotIdle.gauge.value_pa, before.operating.hotIdle.gauge.value_pa);
}

void TestInvariants::assessmentOfEveryTemplate_isComplete_data()
{
    QTest::addColumn<QString>("file");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.path.string());
    QTest::newRow("demo") << QString::fromStdString(demoBuildPath().string());
}

void TestInvariants::assessmentOfEveryTemplate_isComplete()
{
    QFETCH(QString, file);
    const Build build = loadBuild(file.toStdString())->build;
    const Assessment a = assess(build);
    QVERIFY(!a.operating.unsolved);
    QCOMPARE(a.marks.size(), build.engine.stops.size());
    QCOMPARE(a.forecast.lines.size(), 3u);
    for (const ForecastLine &line : a.forecast.lines) {
        QCOMPARE(line.rpm.size(), 14u);
        QCOMPARE(line.gauge.size(), line.rpm.size());
    }
    QVERIFY(a.forecast.otherOils.size() >= 11);
    QCOMPARE(std::count_if(a.forecast.otherOils.begin(), a.forecast.otherOils.end(),
                           [](const OtherOil &o) { return o.fitted; }),
             1);
    QVERIFY(a.forecast.levers.size() >= 6);
    for (const Lever &l : a.forecast.levers)
        QVERIFY2(l.change_pa > -50, said(l.name).c_str()); // every lever named is meant to help
    for (const Finding &f : a.findings)
        QVERIFY(!f.text.empty() && !f.action.empty()
                && (f.stop.empty() || build.engine.find(f.stop)));
}

void TestInvariants::forecastOfTheDemo_hasNoGaps()
{
    const Build build = demoBuild();
    const Assessment a = assess(build);
    const auto lines = forecastLines(build, a.sizes, { 0, 40, 100, 140 },
                                     { 500, 1000, 2000, 3000, 4000, 5000, 6000 });
    QVERIFY(lines);
    for (const ForecastLine &line : *lines)
        for (size_t i = 0; i < line.rpm.size(); ++i) {
            const LikelyPressure &p = line.gauge[i];
            QVERIFY(std::isfinite(p.value_pa) && p.low_pa >= 0 && p.low_pa < p.value_pa
                    && p.value_pa < p.high_pa);
            // Cold and fast the inlet cannot follow; warm, more speed is more pressure.
            QVERIFY(i == 0 || line.oil_c < 40 || p.value_pa > line.gauge[i - 1].value_pa * 0.98);
        }
    QCOMPARE(forecastLines(build, a.sizes, { 100 }, { 0 }).error().place, std::string("rpm"));
    QCOMPARE(forecastLines(build, a.sizes, { 400 }, { 800 }).error().place,
             std::string("oil_temp_c"));
}

} // namespace tst_invariants

MILDPATH_TEST(tst_invariants, TestInvariants)
#include "tst_invariants.moc"
