// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/circuitof.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "document/engineplan.h"
#include "document/recipes.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

namespace tst_engine {

/// Engines described in words, and stops put in, taken out, fed otherwise.
class TestEngine : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyLayout_makesABuildThatRuns_data();
    void everyLayout_makesABuildThatRuns();
    void everyOption_changesTheEngine_data();
    void everyOption_changesTheEngine();
    void impossiblePlan_namesItsMember_data();
    void impossiblePlan_namesItsMember();
    void plan_comesFromJson();
    void templates_assessFromIdleToTheirLimit_data();
    void templates_assessFromIdleToTheirLimit();
    void addedStop_feedsAndGoesAgain_data();
    void addedStop_feedsAndGoesAgain();
    void inlineStop_costsPressureBehindItOnly();
    void thermostat_opensTheCooler();
    void branch_isFedFromElsewhere();
    void kind_changesInPlace();
    void recordsAndDependants_keepAStop();
    void frame_staysAsItIs();
    void gauge_goesAnywhere();
    void alikeSizes_changeTogether();
    void loads_followBoreStrokeAndBays();
    void turbo_needsMoreAtSpeed();
    void fasterCrank_starvesFromASpeed();
    void olderBearings_becomeFilms();
    void documents_keepOilsAndEngineNumbers();
};

namespace {

OperatingResult at(const Build &b, double rpm, double oil_c)
{
    const auto sizes = judgeSizes(b);
    return assessAt(b, sizes, rpm, oil_c).value();
}

double pressureAt(const OperatingResult &r, const std::string &stop)
{
    for (const PointPressure &p : r.points)
        if (p.stop == stop)
            return p.pressure_pa;
    return -1;
}

Build plain()
{
    return loadTemplate("inline-four-wet-sump")->build;
}

} // namespace

void TestEngine::everyLayout_makesABuildThatRuns_data()
{
    QTest::addColumn<QString>("layout");
    QTest::addColumn<int>("cylinders");
    QTest::addColumn<QString>("gear");
    for (const LayoutChoice &l : layoutChoices())
        for (const int n : l.cylinders)
            for (const char *gear : { "pushrods", "one_cam", "two_cams" })
                QTest::addRow("%s %d %s", std::string(l.layout).c_str(), n, gear)
                    << QString::fromUtf8(l.layout.data(), static_cast<qsizetype>(l.layout.size()))
                    << n << QString::fromLatin1(gear);
}

void TestEngine::everyLayout_makesABuildThatRuns()
{
    QFETCH(QString, layout);
    QFETCH(int, cylinders);
    QFETCH(QString, gear);
    EnginePlan p;
    p.layout = layout.toStdString();
    p.cylinders = cylinders;
    p.valveGear = gear.toStdString();
    const auto b = planBuild(p);
    QVERIFY2(b, b ? "" : (b.error().place + " " + said(b.error().message)).c_str());
    const auto count = [&](const char *kind) {
        return std::count_if(b->engine.stops.begin(), b->engine.stops.end(),
                             [&](const Stop &s) { return wordOf(s.kind) == kind; });
    };
    QCOMPARE(count("main"), p.mainCount());
    QCOMPARE(count("big_end"), cylinders);
    const OperatingResult idle = at(*b, 800, 100);
    QVERIFY(idle.gauge.value_pa > 0.5e5 && idle.gauge.value_pa < 4e5);
    QVERIFY(idle.films.size() >= static_cast<size_t>(p.mainCount() + cylinders));
    // All that is swept is accounted for.
    double shares = 0;
    for (const OilShare &s : idle.shares)
        shares += s.ofSwept;
    verifyClose(shares, 1, 1e-6);
}

void TestEngine::everyOption_changesTheEngine_data()
{
    QTest::addColumn<QString>("option");
    QTest::addColumn<QString>("kind");
    QTest::newRow("jets") << "jets"
                          << "jet";
    QTest::newRow("tensioner") << "tensioner"
                               << "tensioner";
    QTest::newRow("phasers") << "phasers"
                             << "phaser";
    QTest::newRow("turbo") << "turbo"
                           << "turbo";
    QTest::newRow("cooler") << "cooler"
                            << "cooler";
    QTest::newRow("dry sump") << "dry_sump"
                              << "scavenge";
    QTest::newRow("remote filter") << "remote_filter"
                                   << "line";
    QTest::newRow("chain jet") << "chain_jet"
                               << "chain";
    QTest::newRow("balance shafts") << "balance_shafts"
                                    << "balance_shaft";
}

void TestEngine::everyOption_changesTheEngine()
{
    QFETCH(QString, option);
    QFETCH(QString, kind);
    Json json = { { "valve_gear", "one_cam" }, { "tensioner", false } };
    std::vector<Error> errors;
    const Build without = planBuild(fromJson<EnginePlan>(json, "", errors)).value();
    json[option.toStdString()] = true;
    const Build with = planBuild(fromJson<EnginePlan>(json, "", errors)).value();
    QVERIFY(errors.empty());
    QVERIFY(!without.engine.ofKind(fromWord<StopKind>(kind.toStdString()).value())
            && with.engine.ofKind(fromWord<StopKind>(kind.toStdString()).value()));
    QVERIFY(at(with, 800, 100).gauge.value_pa > 0.5e5);
}

void TestEngine::impossiblePlan_namesItsMember_data()
{
    QTest::addColumn<QString>("key");
    QTest::addColumn<QString>("json");
    QTest::newRow("layout") << "layout"
                            << R"({"layout": "ring"})";
    QTest::newRow("cylinders") << "cylinders"
                               << R"({"layout": "vee", "cylinders": 5})";
    QTest::newRow("bore") << "bore_mm"
                          << R"({"bore_mm": 3})";
    QTest::newRow("speed") << "most_rpm"
                           << R"({"most_rpm": 90000})";
    QTest::newRow("oil") << "oil"
                         << R"({"oil": "75W-90 gear"})";
    QTest::newRow("material") << "/engine/materials/block"
                              << R"({"block": "cheese"})";
    QTest::newRow("valves") << "valve_gear"
                            << R"({"valve_gear": "sleeves"})";
}

void TestEngine::impossiblePlan_namesItsMember()
{
    QFETCH(QString, key);
    QFETCH(QString, json);
    std::vector<Error> errors;
    const auto b = planBuild(fromJson<EnginePlan>(*parseJson(json.toStdString()), "", errors));
    QVERIFY(!b);
    QCOMPARE(QString::fromStdString(b.error().place), key);
}

void TestEngine::plan_comesFromJson()
{
    std::vector<Error> errors;
    const EnginePlan p = fromJson<EnginePlan>(
        *parseJson(R"({"layout": "vee", "cylinders": 8, "dry_sump": true, "most_rpm": 7000})"), "",
        errors);
    QVERIFY(errors.empty());
    QVERIFY(p.drySump && p.cylinders == 8 && p.mainCount() == 5 && p.most_rpm == 7000);
    static_cast<void>(fromJson<EnginePlan>(*parseJson(R"({"wings": 2})"), "", errors));
    QCOMPARE(errors.size(), size_t(1));
    QVERIFY(errors.front().place.find("wings") != std::string::npos);
}

void TestEngine::templates_assessFromIdleToTheirLimit_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::addRow("%s", t.name.c_str()) << QString::fromStdString(t.name);
    QVERIFY(listTemplates().size() >= 8);
}

void TestEngine::templates_assessFromIdleToTheirLimit()
{
    QFETCH(QString, name);
    const Build b = loadTemplate(name.toStdString())->build;
    const Assessment a = assess(b);
    QVERIFY(!a.operating.unsolved);
    // Only what nobody has seen yet may hold a fresh build: the pump's gasket, and plugs.
    for (const Finding &f : a.findings)
        QVERIFY2(f.mark != Mark::Hold || f.stop == "pump" || f.id.starts_with("plug_"),
                 said(f.text).c_str());
    std::vector<double> rpm;
    for (double n = 600; n < b.use.most_rpm; n += 300)
        rpm.push_back(n);
    rpm.push_back(b.use.most_rpm);
    const auto lines = forecastLines(b, a.sizes, { -10, 20, 60, 100, 130 }, rpm);
    QVERIFY2(lines, lines ? "" : said(lines.error().message).c_str());
    // Hotter oil, less pressure at idle; colder still, the suction sets it.
    for (size_t t = 3; t < lines->size(); ++t)
        QVERIFY((*lines)[t].gauge.front().value_pa < (*lines)[t - 1].gauge.front().value_pa);
}

void TestEngine::addedStop_feedsAndGoesAgain_data()
{
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QString>("behind");
    for (const char *kind :
         { "turbo", "jet", "chain", "balance_shaft", "rocker", "phaser", "plug" })
        QTest::newRow(kind) << QString::fromLatin1(kind) << "main_gallery";
    for (const char *kind : { "cooler", "line", "filter" })
        for (const char *behind : { "pump", "filter" })
            QTest::addRow("%s behind %s", kind, behind)
                << QString::fromLatin1(kind) << QString::fromLatin1(behind);
}

void TestEngine::addedStop_feedsAndGoesAgain()
{
    QFETCH(QString, kind);
    QFETCH(QString, behind);
    const Build before = plain();
    const auto with = applyEdit(
        before,
        AddStop { fromWord<StopKind>(kind.toStdString()).value(), "", behind.toStdString() });
    QVERIFY2(with, with ? "" : said(with.error().message).c_str());
    QCOMPARE(with->engine.stops.size(), before.engine.stops.size() + 1);
    const double was = at(before, 800, 100).gauge.value_pa;
    const double is = at(*with, 800, 100).gauge.value_pa;
    if (kind == QStringLiteral("plug"))
        verifyClose(is, was, 1e-9);
    else
        QVERIFY(is < was);
    // The new stop stands right behind the other; taking it out leaves the same oil.
    size_t place = 0;
    while (with->engine.stops[place].id != behind.toStdString())
        ++place;
    const Stop &made = with->engine.stops[place + 1];
    const auto gone = applyEdit(*with, RemoveStop { made.id });
    QVERIFY2(gone, gone ? "" : said(gone.error().message).c_str());
    verifyClose(at(*gone, 800, 100).gauge.value_pa, was, 1e-9);
    QCOMPARE(gone->engine.stops.size(), before.engine.stops.size());
}

void TestEngine::inlineStop_costsPressureBehindItOnly()
{
    const Build before = plain();
    const Build with = applyEdit(before, AddStop { StopKind::Line, "Long hose", "filter" }).value();
    const OperatingResult was = at(before, 3000, 60), is = at(with, 3000, 60);
    QVERIFY(pressureAt(is, "main_gallery") < pressureAt(was, "main_gallery"));
    QVERIFY(pressureAt(is, "filter") > pressureAt(is, "main_gallery"));
    QCOMPARE(with.engine.find("line")->name, std::string("Long hose"));
}

void TestEngine::thermostat_opensTheCooler()
{
    const Build b = applyEdit(plain(), AddStop { StopKind::Cooler, "", "filter" }).value();
    const auto share = [&](double oil_c) {
        const OperatingResult r = at(b, 3000, oil_c);
        return r.elementFlow_m3_s.at("cooler_matrix") / r.pumpFlow_m3_s;
    };
    QVERIFY(share(40) < 0.02);
    QVERIFY(share(100) > 0.3);
    Build wrong = b;
    wrong.circuit.find("cooler_thermostat")->values["full_c"] = 60;
    QVERIFY(!validateBuild(wrong).empty());
}

void TestEngine::branch_isFedFromElsewhere()
{
    const Build b = plain();
    const auto fed = applyEdit(b, FeedStop { "chain_jet", "cam_bearings" });
    QVERIFY(fed);
    QCOMPARE(feederOf(*fed, *fed->engine.find("chain_jet"))->id, std::string("cam_bearings"));
    QVERIFY(at(*fed, 800, 100).elementFlow_m3_s.at("chain_jet")
            < at(b, 800, 100).elementFlow_m3_s.at("chain_jet"));
    const auto round = applyEdit(b, FeedStop { "cam_bearings", "rocker_shaft" });
    QVERIFY(!round && said(round.error().message).find("fed through") != std::string::npos);
    QVERIFY(!applyEdit(b, FeedStop { "main_1", "filter" }));
    QVERIFY(!applyEdit(b, FeedStop { "chain_jet", "cooling_jets" }));
}

void TestEngine::kind_changesInPlace()
{
    const Build b = plain();
    const auto turned = applyEdit(b, TurnStop { "chain_jet", StopKind::Turbo });
    QVERIFY2(turned, turned ? "" : said(turned.error().message).c_str());
    const auto place = [](const Build &build, const char *kind) {
        for (size_t i = 0; i < build.engine.stops.size(); ++i)
            if (wordOf(build.engine.stops[i].kind) == kind)
                return i;
        return size_t(999);
    };
    QCOMPARE(place(*turned, "turbo"), place(b, "chain"));
    QVERIFY(!turned->engine.find("chain_jet"));
    QVERIFY(!applyEdit(b, TurnStop { "main_3", StopKind::Turbo }));
    QVERIFY(!applyEdit(b, TurnStop { "chain_jet", StopKind::Filter }));
    QCOMPARE(applyEdit(b, TurnStop { "chain_jet", StopKind::Chain }).value(), b);
}

void TestEngine::recordsAndDependants_keepAStop()
{
    const Build b = plain();
    const auto rocker = applyEdit(b, RemoveStop { "cam_bearings" });
    QVERIFY(!rocker && said(rocker.error().message).find("Rocker shaft") != std::string::npos);
    Build seen
        = applyEdit(b,
                    AddProof { { "", "chain_jet", "clean", "proven", "washed", "t", "", "", {} } })
              .value();
    const auto kept = applyEdit(seen, RemoveStop { "chain_jet" });
    QVERIFY(!kept && said(kept.error().message).find("1 proofs") != std::string::npos);
    QVERIFY(!applyEdit(seen, TurnStop { "chain_jet", StopKind::Turbo }));
    QVERIFY(applyEdit(b, RemoveStop { "chain_jet" }));
}

void TestEngine::frame_staysAsItIs()
{
    for (const char *stop : { "pump", "main_2", "big_end_1", "main_gallery", "relief" })
        QVERIFY(!applyEdit(plain(), RemoveStop { stop }));
    QVERIFY(!applyEdit(plain(), AddStop { StopKind::Main, "", "main_gallery" }));
    QVERIFY(!applyEdit(plain(), AddStop { StopKind::Cooler, "", "main_gallery" }));
    QVERIFY(!applyEdit(plain(),
                       AddStop { StopKind::Turbo, "", "chain_jet" })); // a jet gives nothing on
    QVERIFY(!applyEdit(plain(), MoveStop { "sump_pickup", -1 }));
    const Build moved = applyEdit(plain(), MoveStop { "chain_jet", 2 }).value();
    verifyClose(at(moved, 800, 100).gauge.value_pa, at(plain(), 800, 100).gauge.value_pa, 1e-9);
    QVERIFY(!applyEdit(plain(), NameStop { "pump", "  " }));
    QCOMPARE(applyEdit(plain(), NameStop { "pump", "Twin pump" })->engine.find("pump")->name,
             std::string("Twin pump"));
}

void TestEngine::gauge_goesAnywhere()
{
    const Build b = plain();
    const Build moved = applyEdit(b, MoveGauge { "lifter_gallery", 7 }).value();
    QCOMPARE(moved.gaugeTap, std::string("far_lifter_gallery")); // the tap that was there
    const Build cam = applyEdit(b, MoveGauge { "cam_bearings", 2 }).value();
    const OperatingResult r = at(cam, 3000, 100);
    verifyClose(r.gauge.value_pa, r.nodePressure_pa.at("c3"), 1e-12);
    QVERIFY(!applyEdit(b, MoveGauge { "cooling_jets", 0 }));
}

void TestEngine::alikeSizes_changeTogether()
{
    const Build b = plain();
    const Build wide
        = applyEdit(b, SetAlike { "cooling_jets", ElementKind::Jet, "d_mm", 2.0 }).value();
    for (const char *id : { "piston_jet_1", "piston_jet_2", "piston_jet_3", "piston_jet_4" })
        QCOMPARE(wide.circuit.find(id)->value("d_mm"), 2.0);
    QVERIFY(at(wide, 3000, 100).gauge.value_pa < at(b, 3000, 100).gauge.value_pa);
    QVERIFY(!applyEdit(b, SetAlike { "cooling_jets", ElementKind::Jet, "d_mm", -1 }));
    QVERIFY(!applyEdit(b, SetAlike { "cooling_jets", ElementKind::Pipe, "d_mm", 5 }));
    QVERIFY(!applyEdit(b, SetAlike { "cooling_jets", ElementKind::Jet, "ecc", 0.5 }));
}

void TestEngine::loads_followBoreStrokeAndBays()
{
    const auto load = [](const Build &b, const std::string &stop) {
        for (const BearingLoad &l : bearingLoads(b, idlePeak_pa(b)))
            if (l.stop == stop)
                return l.still_n;
        return -1.0;
    };
    Build four = plain();
    four.engine.bore_mm = four.engine.stroke_mm = 91.4;
    // 0.25 · 15 bar · π/4 · 91.4² mm²; mains 0.6 × half the sum of their neighbours (mean-load
    // model, own choice).
    const double rod = 0.25 * 15e5 * pi / 4 * 0.0914 * 0.0914;
    verifyClose(load(four, "big_end_2"), rod, 1e-6);
    verifyClose(load(four, "main_1"), 0.3 * rod, 1e-6);
    verifyClose(load(four, "main_3"), 0.6 * rod, 1e-6);
    const Build eight = loadTemplate("v8-lifters-first")->build;
    verifyClose(load(eight, "main_3"), 4 * 0.3 * load(eight, "big_end_1"), 1e-6);
    four = applyEdit(four, SetEngine { "bore_mm", 100 }).value();
    QVERIFY(load(four, "big_end_2") > 1.19 * rod);
    four = applyEdit(four, SetStopValue { "main_3", "load_n", 1234.0 }).value();
    verifyClose(load(four, "main_3"), 1234, 1e-12);
    four = applyEdit(four, SetUse { "combustion_peak_kpa", 6500 }).value();
    QVERIFY(at(four, 3000, 100).films.front().eccentricityRatio
            > at(plain(), 3000, 100).films.front().eccentricityRatio);
}

void TestEngine::turbo_needsMoreAtSpeed()
{
    const Build b = loadTemplate("inline-three-turbo")->build;
    const auto need = [&](double rpm) {
        for (const PointPressure &p : at(b, rpm, 100).points)
            if (p.stop == "turbo")
                return p.need_pa;
        return 0.0;
    };
    QCOMPARE(need(850), 0.7e5);
    // Common practice: 0.7 bar at idle to 2.0 at the highest speed, in between by speed.
    const double most = b.use.most_rpm;
    verifyClose(need((850 + most) / 2), 1.35e5, 1e-9);
    verifyClose(need(most), 2e5, 1e-9);
    QCOMPARE(need(1.2 * most), 2e5);
}

void TestEngine::fasterCrank_starvesFromASpeed()
{
    Build b = plain();
    // A drilling through the middle of a big journal: the need grows with the square of the speed.
    for (Element &e : b.circuit.elements)
        if (e.kind == ElementKind::CrankDrilling) {
            e.values["r_in_mm"] = 45;
            e.values["closest_mm"] = 0;
        }
    b.use.most_rpm = 12000;
    const auto sizes = judgeSizes(b);
    std::vector<double> rpm;
    for (double n = 1000; n <= 12000; n += 1000)
        rpm.push_back(n);
    const auto lines = forecastLines(b, sizes, { 100 }, rpm);
    QVERIFY(lines && lines->front().crankStarves_rpm);
    const double from = *lines->front().crankStarves_rpm;
    QVERIFY(at(b, from - 60, 100).crankRatio > 1 && at(b, from + 60, 100).crankRatio < 1);
    // ½ ρ ω² R², textbook; ρ at 100 °C by the circuit's law.
    const double omega = 6000 * 2 * pi / 60, rho = 878 * (1 - 0.0007 * 85);
    verifyClose(at(b, 6000, 100).crankNeed_pa, rho * omega * omega * 0.045 * 0.045 / 2, 1e-6);
    QVERIFY(!forecastLines(plain(), sizes, { 100 }, { 800, 3000, 6000 })->front().crankStarves_rpm);
}

void TestEngine::olderBearings_becomeFilms()
{
    Json old = *parseJson(buildText(plain()));
    old["version"] = 4;
    for (Json &e : old["circuit"]["elements"])
        if (e["type"] == "film_bearing") {
            e["type"] = "bearing";
            e["ecc"] = 0.6;
            e["speed_flow"] = 1;
            for (const char *key : { "hole_in_journal", "load_n" })
                e.erase(key);
            if (e["id"] == "cam_1")
                e["groove_deg"] = 330; // between an arc and a full groove: taken as full
        }
    const auto lifted = parseBuild(old.dump());
    QVERIFY(lifted);
    QCOMPARE(lifted->fileVersion, 4);
    const Build &b = lifted->build;
    const Element *rod = b.circuit.find("big_end_2"), *main = b.circuit.find("main_2"),
                  *cam = b.circuit.find("cam_1");
    for (const Element *e : { rod, main, cam }) {
        QCOMPARE(e->kind, ElementKind::FilmBearing);
        QVERIFY(!e->values.contains("ecc") && e->extra.json().empty());
    }
    QCOMPARE(rod->value("hole_in_journal"), 1.0);
    QCOMPARE(main->value("groove_deg"), 180.0);
    QCOMPARE(cam->value("groove_deg"), 360.0);
    QVERIFY(cam->value("load_n") > 0 && main->value("load_n") == 0);
    // Mains and big-ends as in the template; only the cams' load is another, and with it how wide
    // the film is at their holes.
    verifyClose(at(b, 800, 100).gauge.value_pa, at(plain(), 800, 100).gauge.value_pa, 0.05);
}

void TestEngine::documents_keepOilsAndEngineNumbers()
{
    Build b = plain();
    b = applyEdit(b, KeepOil { { "Shed oil", { 90, 13, 870 }, 3.6, 900 } }).value();
    b = applyEdit(b, SetEngine { "rotating_g", 410 }).value();
    b = applyEdit(b, SetUse { "rule_rise_kpa_per_krpm", 80 }).value();
    const auto back = parseBuild(buildText(b));
    QVERIFY(back);
    QVERIFY(back->build == b);
    // What cannot be is named by its place.
    Json json = *parseJson(buildText(b));
    json["own_oils"][0]["kv100_mm2_s"] = 200;
    const auto wrong = parseBuild(json.dump());
    QVERIFY(!wrong);
    QVERIFY(wrong.error().errors.front().place.starts_with("/own_oils/0/"));
    json = *parseJson(buildText(b));
    json["engine"]["bore_mm"] = -3;
    QVERIFY(parseBuild(json.dump()).error().errors.front().place == "/engine/bore_mm");
    json = *parseJson(buildText(b));
    json["circuit"]["elements"][0]["type"] = "whirlpool";
    QVERIFY(!parseBuild(json.dump()));
}

} // namespace tst_engine

MILDPATH_TEST(tst_engine, TestEngine)
#include "tst_engine.moc"
