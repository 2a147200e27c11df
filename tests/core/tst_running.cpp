// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/circuitof.h"
#include "assess/crankfeeds.h"
#include "assess/figuremarks.h"
#include "assess/growth.h"
#include "assess/operatingmodel.h"
#include "circuit/elementtypes.h"
#include "circuit/laws.h"
#include "document/dimensions.h"
#include "document/edit.h"
#include "document/engineplan.h"
#include "document/recipes.h"
#include "oil/grades.h"
#include "oil/shear.h"
#include "storage/templates.h"
#include "testing.h"

#include <array>
#include <random>

// Builds as they run: crank feeds by windows, the leak of real shells, oil under shear, warm
// journals, what tears, and over all templates that nothing fails and nothing jumps.

using namespace mildpath;

namespace tst_running {

class TestRunning : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyTemplate_idlesHotAsItShould_data();
    void everyTemplate_idlesHotAsItShould();
    void everyTemplate_isSolvedFromColdToHot_data();
    void everyTemplate_isSolvedFromColdToHot();
    void gauge_fallsWithWarmthAndClearance_data();
    void gauge_fallsWithWarmthAndClearance();
    void runningCircuit_isWhatWasForecast();
    void grooves_feedTheRodsOfARacingFour();
    void shells_leakByTheirShape();
    void oils_areNoThickerUnderShear();
    void shear_thinsTheFilm();
    void warmJournals_closeTheRods();
    void flowFactor_isTheFlow();
    void plan_saysVentAndBushes();
    void groovesDeeperThanTheShell_areRefused();
    void journalsGroove_hasItsOwnWidth();
    void pump_losesToAirThickOilAndShear();
    void mains_knowWhichRodsTheyFeed();
    void driedPassage_isSaid();
    void vacuum_isNeverBeyondNothing();
    void effects_areThoseOfAMovedBuild();
};

namespace {

Build templateBuild(const QString &name)
{
    return loadTemplate(name.toStdString())->build;
}

void templateRows()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

OperatingResult at(const Build &b, double rpm, double oil_c)
{
    return assessAt(b, judgeSizes(b), rpm, oil_c).value();
}

/// The inlet is fed and the relief valve is shut.
bool plain(const Build &b, const OperatingResult &r)
{
    double inlet = 0;
    for (const Element &e : b.circuit.elements)
        if (e.kind == ElementKind::Pump)
            inlet = r.nodePressure_pa.at(e.from);
    return !r.reliefOpen() && r.reliefFlow_m3_s < 1e-4 * r.pumpFlow_m3_s && inlet > -55e3;
}

/// A small four that turns fast: journals of 36 mm, drillings of 4, relief at 5 bar.
Build racingFour()
{
    EnginePlan plan;
    plan.cylinders = 4;
    plan.bore_mm = 67;
    plan.stroke_mm = 42.5;
    plan.valveGear = "two_cams";
    plan.solidLifters = true;
    plan.block = "cast_aluminium";
    plan.hotIdle_rpm = 1200;
    plan.most_rpm = 14000;
    Build b = planBuild(plan).value();
    for (Element &e : b.circuit.elements) {
        if (e.kind == ElementKind::CrankDrilling) {
            e.values["d_mm"] = 4;
            e.values["r_in_mm"] = 18;
            e.values["r_out_mm"] = 40;
        }
        if (e.id == "relief") {
            e.values["crack_kpa"] = 500;
            e.values["full_kpa"] = 730;
        }
    }
    for (Stop &s : b.engine.stops)
        if (s.kind == StopKind::Main)
            for (const std::string &id : s.elements)
                if (Element *e = b.circuit.find(id); e && e->kind == ElementKind::FilmBearing)
                    e->values["d_mm"] = 36;
    return b;
}

Build grooved(Build b, double groove_deg, bool inJournal)
{
    for (Stop &s : b.engine.stops)
        if (s.kind == StopKind::Main) {
            s.values["groove_deg"] = groove_deg;
            s.values["shell_hole_mm"] = 4;
            if (inJournal)
                s.values["journal_groove"] = 1;
        }
    return b;
}

double leastFed(const Build &b, double rpm)
{
    const OperatingResult r = at(b, rpm, 100);
    return r.leastFed()->fedShare;
}

} // namespace

void TestRunning::everyTemplate_idlesHotAsItShould_data()
{
    templateRows();
}

// Hot idle 1.2 to 2 bar on its own oil; pumps move 1.7 to 3.5 l/min a thousand turns and litre, of
// small engines up to 8. Two are a little outside, where the one wish stands against the other.
void TestRunning::everyTemplate_idlesHotAsItShould()
{
    QFETCH(QString, name);
    const Build b = templateBuild(name);
    const OperatingResult idle = at(b, b.use.hotIdle_rpm, 100);
    const double bar = idle.gauge.value_pa / 1e5;
    QVERIFY2(bar > 1.195 && bar < 2.005, qPrintable(QString::number(bar)));
    for (const BearingFilm &f : idle.films)
        QVERIFY2(f.carried, f.element.c_str());
    for (const Element &e : b.circuit.elements)
        if (e.kind == ElementKind::Pump) {
            const double moves
                = pumpDisplacement_m3(e) * 1e6 * e.value("drive_ratio") / displacement_l(b.engine);
            const double most = b.engine.cylinders <= 3 ? 8 : 3.75;
            QVERIFY2(moves > 1.4 && moves < most, qPrintable(QString::number(moves)));
        }
}

void TestRunning::everyTemplate_isSolvedFromColdToHot_data()
{
    templateRows();
}

void TestRunning::everyTemplate_isSolvedFromColdToHot()
{
    QFETCH(QString, name);
    const Build b = templateBuild(name);
    const auto sizes = judgeSizes(b);
    for (double oil_c = -40; oil_c <= 150; oil_c += sanitized ? 38 : 19) {
        auto model = OperatingModel::make(b, sizes, oil_c);
        QVERIFY(model);
        for (const double rpm : { 300.0, 800.0, 2000.0, b.use.most_rpm, 1.1 * b.use.most_rpm }) {
            const auto r = model->at(rpm, OperatingModel::Detail::Nodes);
            QVERIFY2(r, r ? "" : said(r.error().message).c_str());
            for (const auto &[node, pa] : r->nodePressure_pa)
                QVERIFY2(pa > -atmosphere_pa, node.c_str());
        }
    }
}

void TestRunning::gauge_fallsWithWarmthAndClearance_data()
{
    templateRows();
}

void TestRunning::gauge_fallsWithWarmthAndClearance()
{
    QFETCH(QString, name);
    const Build b = templateBuild(name);
    const auto sizes = judgeSizes(b);
    const auto gauge = [&](const std::vector<GaugedSize> &with, double rpm, double oil_c) {
        auto model = OperatingModel::make(b, with, oil_c);
        return model->at(rpm, OperatingModel::Detail::Nodes).value();
    };
    for (const double rpm : { b.use.hotIdle_rpm, 2000.0 }) {
        std::optional<OperatingResult> before;
        for (double oil_c = 60; oil_c <= 140; oil_c += 20) {
            const OperatingResult now = gauge(sizes, rpm, oil_c);
            if (before && plain(b, *before) && plain(b, now))
                QVERIFY2(now.gauge.value_pa < before->gauge.value_pa,
                         qPrintable(QString::number(oil_c)));
            before = now;
        }
    }
    std::set<std::string> families;
    for (const GaugedSize &s : sizes)
        if (s.known && !s.element.empty() && findFamily(s.family)->elementKey == "clearance_um")
            families.insert(s.family);
    QVERIFY(families.size() >= 2);
    for (const std::string &family : families) {
        const OperatingResult now = gauge(sizes, b.use.hotIdle_rpm, 100),
                              wide = gauge(movedBy(sizes, family, 10), b.use.hotIdle_rpm, 100);
        if (plain(b, now) && plain(b, wide))
            QVERIFY2(wide.gauge.value_pa < now.gauge.value_pa + 1, family.c_str());
    }
}

void TestRunning::runningCircuit_isWhatWasForecast()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    const RunningCircuit running = runningCircuit(b, sizes, settledTemperatures(b, 100));
    const auto network = Network::compile(running.circuit);
    QVERIFY(network);
    const auto s = network->solve({ running.oil, 800, 100 });
    QVERIFY(s);
    const int tap = network->nodeIndex(b.circuit.taps.at(b.gaugeTap));
    verifyClose(s->pressure_pa[static_cast<size_t>(tap)], at(b, 800, 100).gauge.value_pa, 1e-4);
    for (const Element &e : running.circuit.elements)
        if (e.kind == ElementKind::CrankDrilling)
            QVERIFY(e.values.contains("window_share") && !e.values.contains("duty"));
}

// Plain holes starve the rods at great speed, half a groove does less so, grooves in shell and
// journal feed them. What holes alone give at either speed is what the law says of them.
void TestRunning::grooves_feedTheRodsOfARacingFour()
{
    const Build four = racingFour();
    const Build hole = grooved(four, 0, false), half = grooved(four, 180, false),
                both = grooved(four, 360, true);
    const double holeFast = leastFed(hole, 14000), halfFast = leastFed(half, 14000),
                 bothFast = leastFed(both, 14000);
    QVERIFY2(crankFedMark(holeFast) != Mark::Proven, qPrintable(QString::number(holeFast)));
    QVERIFY2(holeFast < halfFast && halfFast <= bothFast + 1e-9,
             qPrintable(QStringLiteral("%1 %2").arg(halfFast).arg(bothFast)));
    QVERIFY(leastFed(half, 3000) >= 0.8 && leastFed(both, 3000) >= 0.8);
    // What feeds the rods takes from the mains.
    QVERIFY(at(both, 3000, 100).gauge.value_pa < at(hole, 3000, 100).gauge.value_pa);
}

void TestRunning::shells_leakByTheirShape()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    int read = 0;
    for (const GaugedSize &s : sizes)
        if (s.family == "main") {
            QVERIFY(s.leak);
            read += s.leak->read;
            const double now = s.leak->factorAt(s.runningAt(100));
            QVERIFY(now > 1.1 && now < 2);
            QVERIFY(s.leak->factorAt(2 * s.runningAt(100)) < now); // wide gaps hide the shape
            QVERIFY(s.leak->byEccentric_ln > 0 && s.leak->byRelief_ln > 0);
        }
    QVERIFY(read > 0);
}

void TestRunning::oils_areNoThickerUnderShear()
{
    for (const ShelfOil &o : oilShelf()) {
        const auto line = waltherLine(o.oil.kv40_mm2_s, o.oil.kv100_mm2_s);
        const double still = oilState(*line, o.oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s;
        if (o.hths_mpa_s)
            QVERIFY2(*o.hths_mpa_s * 1e-3 <= still, std::string(o.grade).c_str());
        QVERIFY(runningOil(o).highShearRatio <= 1);
    }
    // Without a figure: as usual for the grade.
    const Oil oil { 105, 14.2, 878 };
    verifyClose(thinning(oil, "15W-40", std::nullopt).highShearRatio, 0.88, 1e-12);
    verifyClose(thinning(oil, "SAE 40", std::nullopt).highShearRatio, 0.98, 1e-12);
}

// D, L, C, rev/min, load, oil, °C → smallest film by the rule, as computed outside.
void TestRunning::shear_thinsTheFilm()
{
    const FilmBearing bearing(RunningBearing { 52e-3, 19e-3, {} });
    const auto line = waltherLine(105, 14.2);
    const auto mu = [&](double c) { return oilState(*line, 878, { c }).dynamicViscosity_pa_s; };
    const ShearThinning law = *shearThinning(mu(150), 3.9e-3);
    const Running running { { 25e-6 }, 6000, 4000 * 2 * pi / 60 };
    const FilmAt sheared = bearing.at(running, { mu(125), &law }, 0),
                 still = bearing.at(running, { mu(125) }, 0);
    verifyClose(25 * (1 - sheared.film.eccentricityRatio), 3.126, 0.004);
    verifyClose(25 * (1 - still.film.eccentricityRatio), 3.614, 0.004);
    verifyClose(sheared.viscosity_pa_s, law.viscosity_pa_s(mu(125), sheared.shearRate_per_s), 2e-5);
    QVERIFY(sheared.conductance_m3_s_pa > still.conductance_m3_s_pa); // it leaks more besides
}

void TestRunning::warmJournals_closeTheRods()
{
    Build b = templateBuild(QStringLiteral("inline-four-alloy"));
    const auto gap = [](const Build &build) {
        const auto sizes = judgeSizes(build);
        const Circuit c = circuitOf(build, sizes, settledTemperatures(build, 100));
        return std::pair(c.find("big_end_2")->value("film_growth_um_per_k"),
                         c.find("main_2")->value("film_growth_um_per_k"));
    };
    const auto [rod, main] = gap(b);
    QVERIFY(rod < 0); // a steel rod grows no more than its journal, which is warmer
    QVERIFY(main > rod); // the alloy housing opens
    b.heat.journalBelowOil_k = 1; // entered: says it all
    QCOMPARE(gap(b).first, 0.0);
}

void TestRunning::flowFactor_isTheFlow()
{
    Circuit c = inlineFour();
    const auto solved = [&](double factor) {
        for (Element &e : c.elements)
            if (e.kind != ElementKind::Pump)
                e.values["flow_factor"] = factor;
        return Network::compile(c)->solve({ { 105, 14.2, 878 }, 800, 100 }).value();
    };
    const Solution one = solved(1), wide = solved(1.5);
    const auto pump = static_cast<size_t>(Network::compile(c)->pumpElement());
    QVERIFY(wide.flow_m3_s[pump] > one.flow_m3_s[pump]);
    QVERIFY(*std::ranges::max_element(wide.pressure_pa)
            < *std::ranges::max_element(one.pressure_pa));
}

void TestRunning::plan_saysVentAndBushes()
{
    EnginePlan plan;
    const Build usual = planBuild(plan).value();
    QCOMPARE(usual.circuit.find("tensioner_vent")->value("d_mm"), usualVent_mm);
    const auto grooved_ = [](const Build &b) {
        return std::ranges::count_if(b.circuit.elements, [](const Element &e) {
            return e.id.starts_with("cam_bearings_") && e.kind == ElementKind::FilmBearing
                && e.value("groove_deg") == 360;
        });
    };
    QCOMPARE(grooved_(usual), 1); // the one that hands oil on to the rockers
    plan.tensionerVent_mm = 0;
    plan.bushGrooves = true;
    const Build other = planBuild(plan).value();
    QVERIFY(!other.circuit.find("tensioner_vent"));
    QCOMPARE(grooved_(other), static_cast<long>(plan.mainCount()));
}

void TestRunning::groovesDeeperThanTheShell_areRefused()
{
    Build b = applyEdit(demoBuild(), SetStopValue { "main_2", "shell_wall_mm", 1.5 }).value();
    QVERIFY(applyEdit(b, SetStopValue { "main_2", "groove_depth_mm", 1.2 }));
    const auto refused = applyEdit(b, SetStopValue { "main_2", "groove_depth_mm", 1.5 });
    QVERIFY(!refused && refused.error().place.find("groove_depth_mm") != std::string::npos);
}

void TestRunning::journalsGroove_hasItsOwnWidth()
{
    const auto with = [](double shell_deg, double width_mm) {
        Build b = demoBuild();
        for (Stop &s : b.engine.stops)
            if (s.id == "main_2") {
                s.values["groove_deg"] = shell_deg;
                s.values["journal_groove"] = 1;
                s.values["journal_groove_depth_mm"] = 1;
                s.values["groove_depth_mm"] = 1;
                s.values["journal_groove_width_mm"] = width_mm;
            }
        return b;
    };
    const auto slot = [&](const Build &b) {
        const Circuit c = circuitOf(b, judgeSizes(b), settledTemperatures(b, 100));
        const Stop &main = *b.engine.find("main_2");
        std::array<double, 3> out {}; // width and depth of the slot, width the film loses
        for (const Element &e : c.elements) {
            if (e.kind == ElementKind::CrankDrilling && e.from == main.points.front().node)
                out = { e.value("slot_width_mm"), e.value("slot_depth_mm"), out[2] };
            if (isBearing(e) && std::ranges::find(main.elements, e.id) != main.elements.end())
                out[2] = e.value("groove_width_mm");
        }
        return out;
    };
    const auto journal = slot(with(0, 5));
    verifyClose(journal[0], 5, 1e-9);
    verifyClose(journal[1], 1, 1e-9);
    verifyClose(journal[2], 5, 1e-9);
    // Both together pass by the section of both; the film loses the wider one.
    for (const double width_mm : { 2.0, 6.0 }) {
        const Build b = with(360, width_mm);
        const auto both = slot(b);
        const double shell = both[0];
        verifyClose(both[0] * both[1], shell * 1 + width_mm * 1, 1e-9);
        verifyClose(both[2], std::max(shell, width_mm), 1e-9);
    }
    const Build b = with(360, 5);
    const auto refused = applyEdit(b, SetStopValue { "main_2", "journal_groove_width_mm", 59 });
    QVERIFY(!refused && refused.error().place.find("journal_groove_width_mm") != std::string::npos);
}

void TestRunning::pump_losesToAirThickOilAndShear()
{
    const auto delivered = [](const char *key, double value, double oil_c, double ratio) {
        Circuit c = inlineFour();
        for (Element &e : c.elements)
            if (e.kind == ElementKind::Pump) {
                e.values["inner_tip_mm"] = 30;
                e.values[key] = value;
            }
        const auto network = Network::compile(c);
        const auto s = network->solve({ { 105, 14.2, 878, ratio }, 2000, oil_c });
        return s->flow_m3_s[static_cast<size_t>(network->pumpElement())];
    };
    QVERIFY(delivered("entrained_air", 0.1, 100, 1) < delivered("entrained_air", 0, 100, 1));
    QVERIFY(delivered("inlet_port_length_mm", 500, -10, 1)
            < delivered("inlet_port_length_mm", 0, -10, 1));
    // Of oil that thins in its slots more goes back, if the rotors' tips are known.
    const auto slip = [](double tip_mm, double ratio) {
        Circuit c = inlineFour();
        Element pump;
        for (Element &e : c.elements)
            if (e.kind == ElementKind::Pump) {
                e.values["inner_tip_mm"] = tip_mm;
                pump = e;
            }
        const auto law = makeLaw(pump);
        const auto line = waltherLine(105, 14.2);
        const OilState oil = oilState(*line, 878, { 100 });
        const ShearThinning thins
            = shearThinningBy(ratio, oilState(*line, 878, { 150 }).dynamicViscosity_pa_s);
        const Prepared p = law->prepare({ oil, 900, 100, nullptr, ratio < 1 ? &thins : nullptr });
        double memory = 0;
        return -law->flow(-3e5, p, 0, memory).flow_m3_s;
    };
    QVERIFY2(slip(80, 0.6) > 1.02 * slip(80, 1),
             qPrintable(QString::number(slip(80, 0.6) / slip(80, 1))));
    QVERIFY(slip(80, 0.6) > slip(40, 0.6));
    verifyClose(slip(0, 0.6), slip(0, 1), 1e-12);
}

void TestRunning::mains_knowWhichRodsTheyFeed()
{
    const Build b = demoBuild();
    size_t rods = 0, none = 0;
    for (const Stop &s : b.engine.stops)
        if (s.kind == StopKind::Main) {
            const auto fed = rodsFedBy(b, s);
            rods += fed.size();
            none += fed.empty();
        }
    QCOMPARE(rods, size_t(4)); // every rod of an inline-four by one of five mains
    QCOMPARE(none, size_t(1));
}

/// More is drawn from a node than reaches it: said, and no figure beyond nothing.
void TestRunning::driedPassage_isSaid()
{
    Circuit c = inlineFour();
    // A second outlet that is sucked: a tank held far below what oil bears.
    c.elements.push_back(
        { "sucking", ElementKind::Pipe, "dry", "deep", { { "d_mm", 10 }, { "l_mm", 100 } }, {} });
    c.elements.push_back({ "thin", ElementKind::Orifice, "sump", "dry", { { "d_mm", 0.5 } }, {} });
    c.fixed_kpa["deep"] = -400;
    const auto s = Network::compile(c)->solve({ { 105, 14.2, 878 }, 2000, 100 });
    QVERIFY2(s, s ? "" : said(s.error().message).c_str());
    QVERIFY(
        std::ranges::any_of(s->warnings, [](const Warning &w) { return w.id == "oil_runs_out"; }));
}

// A main starved to nothing at great speed: its rods draw, and oil tears instead of pulling.
void TestRunning::vacuum_isNeverBeyondNothing()
{
    Build b = racingFour();
    for (Element &e : b.circuit.elements)
        if (e.id == "main_feed_2")
            e.values["d_mm"] = 0.3;
    const OperatingResult r = at(b, 14000, 100);
    for (const auto &[node, pa] : r.nodePressure_pa)
        QVERIFY2(pa > -atmosphere_pa, node.c_str());
    // Drawn from a thin hole by a pump that wants much more.
    Circuit c = inlineFour();
    for (Element &e : c.elements)
        if (e.id == "strainer")
            e.values["d_mm"] = 0.5;
    const auto s = Network::compile(c)->solve({ { 105, 14.2, 878 }, 6000, 20 });
    QVERIFY(s);
    QVERIFY(*std::ranges::min_element(s->pressure_pa) > -atmosphere_pa);
}

// First order against the same thing solved: half a standard deviation of each input by itself.
void TestRunning::effects_areThoseOfAMovedBuild()
{
    const Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    auto model = OperatingModel::make(b, sizes, 100.0);
    const std::vector<std::string> node { b.circuit.taps.at(b.gaugeTap) };
    const NodeEffects here = model->effectsAt(800, node)->front();
    QCOMPARE(here.ln.size(), model->inputs());
    int felt = 0;
    for (size_t i = 0; i < here.ln.size(); ++i) {
        if (std::abs(here.ln[i]) < 0.01)
            continue;
        ++felt;
        std::vector<double> z(model->inputs(), 0.0);
        const std::vector<double> rpm { 800 };
        z[i] = 0.25;
        const double up = model->drawn(z, rpm)->front();
        z[i] = -0.25;
        const double down = model->drawn(z, rpm)->front();
        verifyClose(std::log(up / down) / 0.5, here.ln[i], 0.15, 0.003,
                    QString::fromStdString(model->inputList()[i].cause));
    }
    QVERIFY(felt >= 6);
}

} // namespace tst_running

MILDPATH_TEST(tst_running, TestRunning)
#include "tst_running.moc"
