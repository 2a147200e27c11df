// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operatingmodel.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "oil/blending.h"
#include "oil/grades.h"
#include "oil/shear.h"
#include "study/contacts.h"
#include "study/sampling.h"
#include "testing.h"

#include <thread>

using namespace mildpath;

namespace tst_sampling {

/// Bands from many possible builds; contacts on the friction curve; oils thinned by fuel and shear.
class TestSampling : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void sameSeed_sameBands();
    void bands_holdTheBuildAndItsFirstOrderRange();
    void measuring_narrowsTheBand();
    void betweenSpeeds_theCurveIsAsCloseAsSaid();
    void cancelled_saysSo();
    void wrongQuestion_namesItsKey();
    void regimes_followTheirLimits_data();
    void regimes_followTheirLimits();
    void contacts_standWhereTheirFilmsAre();
    void speedFloatsTheBearings();
    void tappets_changeTheContactAndTheAdvice();
    void petrol_thinsAsTheRuleSays();
    void shear_takesNothingFromAMonograde();
    void lineContact_followsTheNumericalSolution_data();
    void lineContact_followsTheNumericalSolution();
    void gradeWindows_holdEveryShelfOil();
    void ownOils_areKeptUsedAndDropped();
};

void TestSampling::sameSeed_sameBands()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    Sampling s { 64, 7, { 100 }, { 800, 2000, 4000, 6000 } };
    const auto one = sampleForecast(b, sizes, s), two = sampleForecast(b, sizes, s);
    QVERIFY(one && two);
    QCOMPARE(one->failed, 0);
    QVERIFY(one->lines.front().low_pa == two->lines.front().low_pa);
    QVERIFY(one->lines.front().high_pa == two->lines.front().high_pa);
    s.seed = 8;
    QVERIFY(sampleForecast(b, sizes, s)->lines.front().low_pa != one->lines.front().low_pa);
}

void TestSampling::bands_holdTheBuildAndItsFirstOrderRange()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const Sampling s { 600, 1, { 100 }, { 800, 2000, 4500, 6000 } };
    const auto sampled = sampleForecast(b, sizes, s);
    QVERIFY(sampled);
    auto model = OperatingModel::make(b, sizes, 100.0);
    const SampledLine &line = sampled->lines.front();
    for (size_t i = 0; i < s.rpm.size(); ++i) {
        const LikelyPressure p = model->at(s.rpm[i])->gauge;
        QVERIFY(line.low_pa[i] < p.value_pa && p.value_pa < line.high_pa[i]);
        verifyClose(line.middle_pa[i], p.value_pa, 0.04);
        // Where nothing opens or shuts the first-order range is the same thing (JCGM 100 against
        // JCGM 101).
        if (i == 0) {
            verifyClose(line.high_pa[i] - line.low_pa[i], p.high_pa - p.low_pa, 0.15);
        }
    }
}

void TestSampling::measuring_narrowsTheBand()
{
    const Sampling s { 400, 1, { 100 }, { 800, 2000, 4500, 6000 } };
    const Build demo = demoBuild(), fresh = loadTemplate("inline-four-wet-sump")->build;
    const auto width = [&](const Build &b) {
        const auto r = sampleForecast(b, judgeSizes(b), s);
        return (r->lines.front().high_pa[0] - r->lines.front().low_pa[0])
            / r->lines.front().middle_pa[0];
    };
    QVERIFY(width(demo) < width(fresh));
}

void TestSampling::betweenSpeeds_theCurveIsAsCloseAsSaid()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    Sampling s = usualSampling(b);
    QCOMPARE(s.rpm.size(), size_t(8));
    QCOMPARE(s.oil_c.size(), size_t(3));
    s.samples = 32;
    const auto r = sampleForecast(b, sizes, s);
    QVERIFY(r->interpolationError > 0 && r->interpolationError < 0.08);
    QCOMPARE(r->lines[1].at(SampledLine::Edge::Low, s.rpm[3]), r->lines[1].low_pa[3]);
}

void TestSampling::cancelled_saysSo()
{
    const Build b = demoBuild();
    Progress progress;
    progress.cancel = true;
    const auto r = sampleForecast(b, judgeSizes(b), usualSampling(b), &progress);
    QVERIFY(!r);
    QCOMPARE(r.error().place, std::string("cancelled"));
    QVERIFY(progress.done < progress.whole);
}

void TestSampling::wrongQuestion_namesItsKey()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    QCOMPARE(sampleForecast(b, sizes, { 3, 1, { 100 }, { 1, 2, 3, 4 } }).error().place,
             std::string("samples"));
    QCOMPARE(sampleForecast(b, sizes, { 100, 1, { 100 }, { 3000, 800, 900, 1000 } }).error().place,
             std::string("rpm"));
}

void TestSampling::regimes_followTheirLimits_data()
{
    QTest::addColumn<double>("lambda");
    QTest::addColumn<QString>("regime");
    QTest::newRow("0.99") << 0.99 << "boundary";
    QTest::newRow("1") << 1.0 << "mixed";
    QTest::newRow("3") << 3.0 << "mixed";
    QTest::newRow("3.01") << 3.01 << "full_film";
}

void TestSampling::regimes_followTheirLimits()
{
    QFETCH(double, lambda);
    QFETCH(QString, regime);
    QCOMPARE(QString::fromLatin1(regimeId(regimeOf(lambda))), regime);
    // The curve falls to a valley near 3 and rises slowly behind it (ranges common practice).
    QVERIFY(stribeckFriction(0.1) > 0.08 && stribeckFriction(0.1) < 0.15);
    QVERIFY(stribeckFriction(4) < 0.01 && stribeckFriction(30) > stribeckFriction(8));
}

void TestSampling::contacts_standWhereTheirFilmsAre()
{
    const Build b = demoBuild();
    const Assessment a = assess(b);
    const auto contacts = contactsOf(b, a.operating.highSpeed);
    QCOMPARE(contacts.size(), size_t(7)); // mains and big-ends also at full load
    double thinnest = 1;
    for (const BearingFilm &f : a.operating.highSpeed.films)
        if (f.family == "big_end")
            thinnest = std::min(thinnest, f.smallest_m);
    const auto find = [&](const char *id) {
        return *std::find_if(contacts.begin(), contacts.end(),
                             [&](const Contact &c) { return c.id == id; });
    };
    verifyClose(find("big_ends").filmParameter, thinnest / std::hypot(0.15e-6, 0.30e-6), 1e-9);
    verifyClose(find("rings_mid").filmParameter, 10 * find("rings_top").filmParameter, 1e-9);
    QVERIFY(!find("rings_mid").film_m); // a regime, never a figure
    QVERIFY(find("cam").regime == Regime::Boundary);
    Build bare = b;
    bare.engine.stops.erase(
        std::remove_if(bare.engine.stops.begin(), bare.engine.stops.end(),
                       [](const Stop &s) { return s.kind == StopKind::CamBearing; }),
        bare.engine.stops.end());
    QCOMPARE(contactsOf(bare, a.operating.highSpeed).size(), size_t(6));
}

void TestSampling::speedFloatsTheBearings()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const auto from = floatsFrom_rpm(b, sizes, 100);
    QVERIFY(from && *from);
    auto model = OperatingModel::make(b, sizes, 100.0);
    const auto crankFloats = [&](double rpm) {
        for (const Contact &c : contactsOf(b, *model->at(rpm)))
            if ((c.id == "mains" || c.id == "big_ends") && c.regime != Regime::FullFilm)
                return false;
        return true;
    };
    QVERIFY(crankFloats(**from + 20));
    if (**from > 320)
        QVERIFY(!crankFloats(**from - 20));
    // Thinner, hotter oil floats them later.
    QVERIFY(!*floatsFrom_rpm(b, sizes, 140) || **floatsFrom_rpm(b, sizes, 140) > **from);
}

void TestSampling::tappets_changeTheContactAndTheAdvice()
{
    const Build flat = demoBuild();
    Choice c;
    c.question = "tappet";
    c.answer = "roller";
    Build roller = applyEdit(flat, Choose { c }).value();
    const Assessment a = assess(flat);
    const auto cam = [&](const Build &b) { return contactsOf(b, a.operating.highSpeed).back(); };
    QCOMPARE(cam(flat).name, std::string("cam on flat tappet"));
    QVERIFY(cam(roller).filmParameter > cam(flat).filmParameter);
    QVERIFY(antiWearAdvice(flat).least_mg_kg > antiWearAdvice(roller).least_mg_kg);
    QVERIFY(antiWearAdvice(flat).mark == Mark::NotDone);
    Build thin = flat;
    thin.oil.phosphorus_mg_kg = 700;
    QVERIFY(antiWearAdvice(thin).mark == Mark::LookAgain);
    roller.oil.phosphorus_mg_kg = 700;
    QVERIFY(antiWearAdvice(roller).mark == Mark::Proven);
}

void TestSampling::petrol_thinsAsTheRuleSays()
{
    const Oil oil { 105, 14.2, 878 };
    QCOMPARE(dilutedOil(oil, 0).kv100_mm2_s, 14.2);
    // About a grade per 4 to 5 % (common practice): from a 40 to a 30.
    const Oil fouled = dilutedOil(oil, 0.05);
    QVERIFY(fouled.kv100_mm2_s > 9.3 && fouled.kv100_mm2_s < 12.5);
    QVERIFY(fouled.kv40_mm2_s < 80);
    double before = 14.2;
    for (double x = 0.01; x <= 0.2; x += 0.01) {
        const double now = dilutedOil(oil, x).kv100_mm2_s;
        QVERIFY(now < before);
        before = now;
    }
    verifyClose(fuelBlend(14, 0.4, 1).kv_mm2_s, 0.4, 1e-9); // identity: nothing but fuel
}

void TestSampling::shear_takesNothingFromAMonograde()
{
    const auto mono = shearThinning(0.0034, 0.0034);
    QVERIFY(mono && mono->newtonian);
    QCOMPARE(mono->viscosity_pa_s(0.02, 1e7), 0.02);
    const auto multi = shearThinning(0.0044, 0.0037);
    QVERIFY(multi && !multi->newtonian);
    verifyClose(multi->viscosity_pa_s(0.0044, 1e6), 0.0037, 1e-9);
    QVERIFY(multi->viscosity_pa_s(0.012, 1e6) < 0.012);
    verifyClose(multi->viscosity_pa_s(0.012, 1), 0.012, 1e-4);
    QCOMPARE(shearThinning(0.004, 0.005).error().place, std::string("hths_pa_s"));
    QCOMPARE(shearThinning(0.004, 0.0019).error().place, std::string("hths_pa_s"));
}

void TestSampling::lineContact_followsTheNumericalSolution_data()
{
    // Newton solution of the elastohydrodynamic line contact with Barus' law, 300–1000 nodes; the
    // last four lie on the change to the rigid film.
    QTest::addColumn<double>("u");
    QTest::addColumn<double>("g");
    QTest::addColumn<double>("w");
    QTest::addColumn<double>("film");
    QTest::addColumn<double>("within");
    const double rows[][5] = { { 1e-11, 5000, 2e-5, 2.13e-5, 0.05 },
                               { 3e-11, 5000, 2e-5, 4.43e-5, 0.05 },
                               { 1e-11, 3500, 2e-5, 1.75e-5, 0.05 },
                               { 1e-11, 5000, 4e-5, 2.01e-5, 0.05 },
                               { 2e-11, 4500, 5e-5, 3.00e-5, 0.05 } };
    for (const auto &r : rows)
        QTest::addRow("U %g G %g W %g", r[0], r[1], r[2]) << r[0] << r[1] << r[2] << r[3] << r[4];
}

void TestSampling::lineContact_followsTheNumericalSolution()
{
    QFETCH(double, u);
    QFETCH(double, g);
    QFETCH(double, w);
    QFETCH(double, film);
    QFETCH(double, within);
    const double R = 0.01, E = 206e9 / (1 - 0.09);
    const auto f = lineContactFilm({ .viscosity_pa_s = 0.01,
                                     .entrainment_m_s = u * E * R / 0.01,
                                     .radius1_m = R,
                                     .load_n = w * E * R * 0.02,
                                     .length_m = 0.02,
                                     .pressureViscosity_per_pa = g / E });
    QVERIFY(f);
    verifyClose(f->smallest_m / R, film, within);
    QVERIFY(!lineContactFilm({ .viscosity_pa_s = 0.01,
                               .entrainment_m_s = 1,
                               .radius1_m = 0.02,
                               .radius2_m = -0.01,
                               .load_n = 10,
                               .length_m = 0.01,
                               .pressureViscosity_per_pa = 2e-8 }));
}

void TestSampling::gradeWindows_holdEveryShelfOil()
{
    for (const ShelfOil &o : oilShelf()) {
        const auto windows = o.gearOil ? gearGradeWindows() : engineGradeWindows();
        QVERIFY(std::any_of(windows.begin(), windows.end(), [&](const GradeWindow &w) {
            return o.oil.kv100_mm2_s >= w.atLeast_mm2_s && o.oil.kv100_mm2_s < w.below_mm2_s;
        }));
        // A multigrade thins under shear, and never below its grade's floor.
        if (!o.gearOil) {
            QVERIFY(o.hths_mpa_s);
            const auto g = gradeOf(o.oil.kv100_mm2_s, *o.hths_mpa_s * 1e-3, std::nullopt);
            QVERIFY(g && g->engineGrade);
        }
    }
    QCOMPARE(crankingTested_c("15W-40"), std::optional(-20.0)); // SAE J300, from memory
    QVERIFY(!crankingTested_c("SAE 30"));
}

void TestSampling::ownOils_areKeptUsedAndDropped()
{
    const Build b = demoBuild();
    const ChosenOil own { "Shed oil", { 90, 13, 870 }, 3.6 };
    const Build kept = applyEdit(b, KeepOil { own }).value();
    QCOMPARE(kept.ownOils.size(), size_t(1));
    QCOMPARE(findOil(kept, "Shed oil").value(), own);
    ChosenOil better = own;
    better.oil.kv100_mm2_s = 13.4;
    QCOMPARE(applyEdit(kept, KeepOil { better })->ownOils.front().oil.kv100_mm2_s, 13.4);
    QCOMPARE(applyEdit(kept, DropOil { "Shed oil" })->ownOils.size(), size_t(0));
    // Once a gauge was read with it, it stays: what was read would mean nothing.
    GaugeReading reading;
    reading.tap = b.gaugeTap;
    reading.rpm = 800;
    reading.oil_c = 90;
    reading.pressure_kpa = 120;
    reading.u_kpa = 5;
    reading.oil = "Shed oil";
    const auto read = applyEdit(kept, AddEntry { reading });
    QVERIFY(read);
    const auto dropped = applyEdit(*read, DropOil { "Shed oil" });
    QVERIFY(!dropped);
    QVERIFY(said(dropped.error().message).find("gauge was read") != std::string::npos);
    QVERIFY(!applyEdit(b, KeepOil { { "15W-40", { 90, 13, 870 } } })); // stands on the shelf
    QVERIFY(!applyEdit(b, KeepOil { { " ", { 90, 13, 870 } } }));
    QVERIFY(!applyEdit(b, KeepOil { { "Odd", { 10, 13, 870 } } }));
    QVERIFY(!applyEdit(b, DropOil { "Shed oil" }));
    QVERIFY(findOil(b, "15W-40")->hths_mpa_s == 3.9 && !findOil(b, "nothing"));
}

} // namespace tst_sampling

MILDPATH_TEST(tst_sampling, TestSampling)
#include "tst_sampling.moc"
