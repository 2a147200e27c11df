// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/circuitof.h"
#include "assess/operating.h"
#include "bearing/filmtable.h"
#include "bearing/journalheat.h"
#include "bearing/load.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "oil/shear.h"
#include "quantity/json.h"
#include "storage/buildfile.h"
#include "study/friction.h"
#include "study/oilsbeside.h"
#include "study/room.h"
#include "testing.h"

using namespace mildpath;

namespace tst_film {

/// The film of a plain bearing against Raimondi and Boyd, its limits, and what it is used for.
class TestFilm : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void film_agreesWithRaimondiAndBoyd_data();
    void film_agreesWithRaimondiAndBoyd();
    void workedDesign_comesOut();
    void lightLoad_isPetroffs_data();
    void lightLoad_isPetroffs();
    void shortBearing_nearsItsLimit();
    void coarseGrid_isClose();
    void tooMuchLoad_isSaid();
    void table_followsTheSolver_data();
    void table_followsTheSolver();
    void meanLoads_growWithPressureAndSpeed();
    void wideMains_runOnThinnerFilms();
    void fullLoad_thinsAndWarmsTheFilms();
    void fullLoadPeak_isByTheKindOfEngine();
    void hotFilm_isLookedAtAgain();
    void oils_standBesideEachOther();
    void journals_costAsTheyGrow();
};

// L/D, eps: S, attitude, friction variable, Q/(rcNL), Qs/Q, P/pmax. `raimondi_boyd.csv` holds an
// independent grid-converged solution and the published figures (Raimondi and Boyd 1958, from
// memory).
void TestFilm::film_agreesWithRaimondiAndBoyd_data()
{
    QTest::addColumn<QList<double>>("row");
    for (const QStringList &cells : rowsOf("raimondi_boyd.csv")) {
        QList<double> row;
        for (const QString &c : cells)
            row << c.toDouble();
        QTest::addRow("L/D %s, eps %s", qPrintable(cells[0]), qPrintable(cells[1])) << row;
    }
}

void TestFilm::film_agreesWithRaimondiAndBoyd()
{
    QFETCH(QList<double>, row);
    const FilmSolution f = solveFilm(row[1], row[0], { 180, 16 });
    const double own[] = { f.sommerfeld,     f.attitude_rad * 180 / pi, f.frictionVariable,
                           f.inflowVariable, f.sideFlowRatio,           f.pressureRatio };
    const char *names[] = { "S", "attitude", "friction", "inflow", "side flow", "pressure" };
    for (int k = 0; k < 6; ++k) {
        const QString name = QString::fromLatin1(names[k]);
        verifyClose(own[k], row[2 + 2 * k], 0.01, 0, name + QStringLiteral(", solver"));
        verifyClose(own[k], row[3 + 2 * k], 0.03, 0, name + QStringLiteral(", published"));
    }
}

// Machine-design textbooks' example (chart readings, from memory): 4 µreyn, 30 rev/s, 500 lbf,
// r = 0.75 in, c = 0.0015 in, L = 1.5 in: h0/c 0.42, phi 53°, Q 4.28, Qs/Q 0.655.
void TestFilm::workedDesign_comesOut()
{
    const auto f = filmUnderLoad({ .journalDiameter_m = 38.1e-3,
                                   .length_m = 38.1e-3,
                                   .clearance = { 76.2e-6 },
                                   .viscosity_pa_s = 0.027579,
                                   .speed_rpm = 1800,
                                   .load_n = 2224.1 });
    QVERIFY(f);
    verifyClose(1 - f->eccentricityRatio, 0.42, 0.02);
    verifyClose(f->attitude_rad * 180 / pi, 53, 0.02);
    verifyClose(f->inflowVariable, 4.28, 0.02);
    verifyClose(f->sideFlowRatio, 0.655, 0.02);
}

void TestFilm::lightLoad_isPetroffs_data()
{
    QTest::addColumn<double>("ratio");
    QTest::addColumn<double>("attitude_deg");
    // Attitudes at vanishing load: 84.9, 88.3, 89.5° (independent computation).
    QTest::newRow("1") << 1.0 << 84.9;
    QTest::newRow("0.5") << 0.5 << 88.3;
    QTest::newRow("0.25") << 0.25 << 89.5;
}

void TestFilm::lightLoad_isPetroffs()
{
    QFETCH(double, ratio);
    QFETCH(double, attitude_deg);
    const FilmSolution f = solveFilm(0.001, ratio, { 180, 16 });
    verifyClose(f.frictionVariable, 2 * pi * pi * f.sommerfeld, 1e-4);
    verifyClose(f.attitude_rad * 180 / pi, attitude_deg, 0, 0.1);
}

// Ocvirk's short bearing, exact as L/D → 0 (DuBois and Ocvirk, NACA 1157, 1953).
void TestFilm::shortBearing_nearsItsLimit()
{
    const double eps = 0.4, ratio = 0.06;
    const double ocvirk = std::pow(1 - eps * eps, 2)
        / (pi * eps * std::sqrt(16 * eps * eps + pi * pi * (1 - eps * eps)));
    verifyClose(solveFilm(eps, ratio).sommerfeld * ratio * ratio, ocvirk, 0.02);
}

void TestFilm::coarseGrid_isClose()
{
    for (const double eps : { 0.6, 0.9 })
        verifyClose(solveFilm(eps, 1, { 72, 8 }).sommerfeld, solveFilm(eps, 1).sommerfeld, 0.01);
}

void TestFilm::tooMuchLoad_isSaid()
{
    const auto f = filmUnderLoad({ 50e-3, 20e-3, { 50e-6 }, 0.005, 200, 500000 });
    QVERIFY(!f);
    QCOMPARE(f.error().place, std::string("load_n"));
}

void TestFilm::table_followsTheSolver_data()
{
    QTest::addColumn<double>("load_n");
    for (const double n : { 0.001, 30.0, 200.0, 1000.0, 4000.0, 9000.0 })
        QTest::addRow("%g N", n) << n;
}

void TestFilm::table_followsTheSolver()
{
    QFETCH(double, load_n);
    const LoadedBearing b { 50e-3, 22.5e-3, { 50e-6 }, 0.01, 1000, load_n };
    const auto f = filmUnderLoad(b);
    QVERIFY(f);
    const FilmPoint p = FilmLine(0.45).at(std::log(sommerfeldNumber(b)));
    verifyClose(1 - p.eccentricityRatio, 1 - f->eccentricityRatio, 5e-4);
    verifyClose(p.sideFlow, f->inflowVariable * f->sideFlowRatio, 5e-4);
}

void TestFilm::meanLoads_growWithPressureAndSpeed()
{
    CrankTrain t = squareTrain(2.4e-3, 4);
    verifyClose(t.bore_m, 0.0914, 0.001); // π/4 b³ = 0.6 l
    verifyClose(t.reciprocating_kg, 0.497, 0.01);
    // 0.25 · 15 bar on 65.6 cm²: the speed's part is small at idle.
    const double gas = 0.25 * 15e5 * pi / 4 * t.bore_m * t.bore_m;
    QVERIFY(bigEndMeanLoad_n(t, 800) > gas && bigEndMeanLoad_n(t, 800) < 1.1 * gas);
    verifyClose(bigEndMeanLoad_n(t, 6000) - gas, 4 * (bigEndMeanLoad_n(t, 3000) - gas), 1e-9);
    const double idle = bigEndMeanLoad_n(t, 800);
    t.peakPressure_pa = 65e5;
    QVERIFY(bigEndMeanLoad_n(t, 800) > 3 * idle);
    verifyClose(mainMeanLoad_n(idle, idle), 0.6 * idle, 1e-12);
    verifyClose(mainMeanLoad_n(0, idle), 0.3 * idle, 1e-12);
}

void TestFilm::wideMains_runOnThinnerFilms()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const auto now = hotFilm(b, sizes, conditionsOf(b), 40);
    QVERIFY(now);
    QVERIFY(now->mains_um > 0 && now->mainsAtCeiling_um < now->mains_um);
    // The same by hand: every big-end under the mean load of a square four of this stroke, by the
    // solver, at the film temperature the circuit found.
    const double stroke = b.engine.stroke_mm * 1e-3, kg = 650 * std::pow(stroke, 3);
    const double omega = 2 * pi * b.use.hotIdle_rpm / 60;
    const double load = 0.25 * 15e5 * pi / 4 * stroke * stroke
        + (0.66 * kg + 0.8 * kg) * stroke / 2 * omega * omega;
    const Assessment a = assess(b);
    const auto line = waltherLine(b.oil.oil.kv40_mm2_s, b.oil.oil.kv100_mm2_s);
    double thinnest = 1e9;
    for (const BearingFilm &film : a.operating.hotIdle.films) {
        if (film.family != "big_end")
            continue;
        verifyClose(film.load_n, load, 1e-6);
        const GaugedSize &s = *a.size(film.stop);
        const Oil oil = runningOil(b.oil);
        const double still
            = oilState(*line, oil.rho15_kg_m3, { film.film_c }).dynamicViscosity_pa_s;
        const ShearThinning law = shearThinningBy(
            oil.highShearRatio, oilState(*line, oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s);
        const double width = b.circuit.find(s.element)->value("width_mm") * 1e-3,
                     d = s.journal_mm * 1e-3;
        // Journal and rod take their shares of the film's warmth.
        const double share = journalWarmthShare(d, width, { s.running_um * 1e-6 });
        const double gap_um = s.running_um
            + (share * s.growth.journal_um_per_k + 0.4 * s.growth.housing_um_per_k)
                * (film.film_c - b.use.hotOil_c);
        // Sheared where it is thin, which lets it sink further, each time an eighth as far.
        double eccentricity = 0.5;
        for (int i = 0; i < 8; ++i) {
            const double thin
                = gap_um / 2 * 1e-6 * std::min(1.0, 1.193 * std::pow(1 - eccentricity, 0.75));
            const double viscosity = law.viscosity_pa_s(still, d / 2 * omega / thin);
            const auto f = filmUnderLoad(
                { d, width, { gap_um * 1e-6 }, viscosity, b.use.hotIdle_rpm, load });
            eccentricity = f->eccentricityRatio;
        }
        thinnest = std::min(thinnest, gap_um / 2 * (1 - eccentricity));
    }
    verifyClose(now->bigEnds_um, thinnest, 2e-3);
    RoomConditions hotter = conditionsOf(b);
    hotter.hotOil_c += 30;
    const auto thin = hotFilm(b, sizes, hotter, 0);
    QVERIFY(thin->bigEnds_um < now->bigEnds_um);
    verifyClose(thin->mains_um, thin->mainsAtCeiling_um, 1e-12);
    Build bare = b;
    bare.engine.cylinders = 0;
    QCOMPARE(hotFilm(bare, sizes, conditionsOf(b), 0).error().place, std::string("engine"));
}

void TestFilm::fullLoad_thinsAndWarmsTheFilms()
{
    const Build b = demoBuild();
    const Assessment a = assess(b);
    for (const BearingFilm &f : a.operating.hotIdle.films)
        QVERIFY(!f.loaded); // an engine that idles is not loaded
    int loaded = 0;
    for (const OperatingResult *r : { &a.operating.highSpeed, &a.operating.mostSpeed })
        for (const BearingFilm &f : r->films) {
            QCOMPARE(f.loaded.has_value(), f.family == "main" || f.family == "big_end");
            if (!f.loaded)
                continue;
            ++loaded;
            QVERIFY(f.loaded->load_n > f.load_n && f.loaded->smallest_m < f.smallest_m);
            QVERIFY(f.loaded->film_c > r->oil_c);
        }
    QCOMPARE(loaded, 18); // five mains and four rods at two speeds
    // With the peak of no load there is no difference.
    const Build same
        = applyEdit(b, SetUse { "full_load_peak_kpa", b.use.combustionPeak_kpa }).value();
    for (const BearingFilm &f : assess(same).operating.highSpeed.films)
        if (f.loaded) {
            verifyClose(f.loaded->load_n, f.load_n, 1e-9);
            verifyClose(f.loaded->smallest_m, f.smallest_m, 1e-3);
        }
    QVERIFY(!applyEdit(b, SetUse { "full_load_peak_kpa", 1e9 }));
}

void TestFilm::fullLoadPeak_isByTheKindOfEngine()
{
    Build b = demoBuild();
    QCOMPARE(fullLoadPeakOf_pa(b), 65e5);
    QCOMPARE(fullLoadPeakOf_pa(
                 loadBuild(demoBuildPath().parent_path() / "harbour-launch-turbo.mildpath")->build),
             110e5);
    b = applyEdit(b, SetUse { "full_load_peak_kpa", 9000 }).value();
    QCOMPARE(fullLoadPeakOf_pa(b), 90e5);
    // A stop's own load is said for all loads.
    for (const BearingLoad &l : bearingLoads(b, 90e5))
        QVERIFY(l.still_n > 0);
}

void TestFilm::hotFilm_isLookedAtAgain()
{
    // Peaks that warm a film past 160, then past 180 °C.
    const auto evident = [](double peak_kpa) {
        const Build b = applyEdit(demoBuild(), SetUse { "full_load_peak_kpa", peak_kpa }).value();
        const Assessment a = assess(b);
        double hottest = 0;
        Evident worst = Evident::None;
        for (const BearingFilm &f : a.operating.mostSpeed.films)
            hottest = std::max(hottest, f.loaded ? f.loaded->film_c : 0);
        for (const Check &c : a.checks.all())
            if (c.kind->id == "film")
                worst = std::max(worst, c.evident);
        return std::pair(hottest, worst);
    };
    double before = 0;
    for (const double peak_kpa : { 6500.0, 12000.0, 20000.0, 28000.0 }) {
        if (sanitized && peak_kpa > 6500 && peak_kpa < 28000)
            continue;
        const auto [hottest, worst] = evident(peak_kpa);
        QVERIFY(hottest > before);
        before = hottest;
        QVERIFY2(worst == Evident::No || hottest <= filmHot_c,
                 qPrintable(QString::number(hottest)));
        QVERIFY(worst != Evident::Yes || hottest <= filmWarm_c);
    }
}

void TestFilm::oils_standBesideEachOther()
{
    Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const auto all = oilsBeside(b, sizes);
    QVERIFY(all && all->size() == 12);
    const auto row = [&](const char *grade) {
        return *std::ranges::find_if(*all,
                                     [&](const OilBeside &o) { return o.oil.grade == grade; });
    };
    const OilBeside fitted = row("15W-40"), thin = row("0W-20"), thick = row("10W-60");
    QVERIFY(fitted.fitted && !thin.fitted);
    // The fitted one is the forecast's own.
    const Assessment a = assess(b);
    verifyClose(fitted.gauge_pa, a.operating.hotIdle.gauge.value_pa, 1e-4);
    const auto own = contactsOf(b, a.operating.mostSpeed);
    QCOMPARE(fitted.most.size(), own.size());
    for (size_t i = 0; i < own.size(); ++i)
        verifyClose(fitted.most[i].filmParameter, own[i].filmParameter, 1e-3);
    // Thick oil brings pressure and film, and heat.
    QVERIFY(thin.gauge_pa < fitted.gauge_pa && fitted.gauge_pa < thick.gauge_pa);
    QVERIFY(thin.leastOfTheCrank(true)->filmParameter < thick.leastOfTheCrank(true)->filmParameter);
    QVERIFY(thin.film_c < thick.film_c);
    QVERIFY(thin.cam(false)->filmParameter < thick.cam(false)->filmParameter);
    // SAE J300, from memory: 0W cranks at −35 and pumps at −40 °C.
    QCOMPARE(thin.cranks.tested_c, -35.0);
    QCOMPARE(thin.pumpsTo_c, -40.0);
    b.oil.hths_mpa_s.reset();
    const auto unsure = oilsBeside(b, sizes);
    QVERIFY(std::ranges::any_of(*unsure,
                                [](const OilBeside &o) { return o.fitted && o.shearAssumed; }));
    QCOMPARE(oilsToJson(*all)["oils"].size(), size_t(12));
}

void TestFilm::journals_costAsTheyGrow()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const auto same = crankFriction(b, sizes, 0), ground = crankFriction(b, sizes, -0.5);
    QVERIFY(same && ground && same->size() == 2 && same->front().each.size() == 9);
    for (const CrankFriction &f : *same)
        for (const JournalLoss &j : f.each) {
            QVERIFY(j.now_w > 0);
            verifyClose(j.changed_w, j.now_w, 1e-6);
        }
    for (const CrankFriction &f : *ground)
        QVERIFY(f.of("main").changed_w < f.of("main").now_w);
    QVERIFY(same->back().of("main").now_w > same->front().of("main").now_w);
    // Petroff's cube at one viscosity; with its own heat a doubled journal costs 4.2 to 6.0 times.
    const auto doubled = crankFriction(b, sizes, 60);
    for (const JournalLoss &j : doubled->front().each)
        if (j.family == "main") {
            const double times = j.changed_w / j.now_w;
            QVERIFY2(times > 4 && times < 6.5, qPrintable(QString::number(times)));
        }
}

} // namespace tst_film

MILDPATH_TEST(tst_film, TestFilm)
#include "tst_film.moc"
