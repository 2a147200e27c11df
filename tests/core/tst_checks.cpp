// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/spread.h"
#include "checks/assessment.h"
#include "checks/checksreport.h"
#include "checks/cost.h"
#include "checks/judgement.h"
#include "checks/signing.h"
#include "checks/verdicttable.h"
#include "checksfixture.h"
#include "quantity/json.h"
#include "testing.h"

#include <QtTest>

namespace mildpath {
namespace tst_checks {

using fixture::By;

class TestChecks : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void passage_isProvenByWhatCouldSee();
    void hiddenPlug_isSeenBeforeItIsHidden();
    void signature_countsByClassAndPerson();
    void signature_needsAReason_data();
    void signature_needsAReason();
    void markOfAStop_isItsWorst_data();
    void markOfAStop_isItsWorst();
    void gates_openByWhatIsAsked();
    void failure_isSettledByProofOrANewPart();
    void everyJob_canBeBroughtThroughAllGates_data();
    void everyJob_canBeBroughtThroughAllGates();
    void whatIsWrong_isSaidByItsCheck_data();
    void whatIsWrong_isSaidByItsCheck();
    void cost_isSolvedWhereNoGaugeShowsIt();
    void verdicts_areThoseOfTheChecks();
    void ranges_saySharesThatAddUp();
    void oldFile_opensClosedAndAsksForTheJob();
    void job_isReadAsOneOrAsAList();
};

/// W1: what a brush proves, what spoils it, what days are counted for.
void TestChecks::passage_isProvenByWhatCouldSee()
{
    By b(fixture::newBuild("N"));
    const auto state = [&] { return b.state("clean@main_gallery"); };
    b.clean("brush", "passage", "main_gallery", "white");
    QCOMPARE(state(), "not_done");
    QVERIFY(b.reason("clean@main_gallery").contains("nothing went"));
    b.clean("plug_out", "plug", "main_gallery_front")
        .clean("plug_out", "plug", "main_gallery_rear");
    b.clean("brush", "passage", "main_gallery", "white");
    b.clean("look", "passage", "main_gallery", "through", "light");
    QCOMPARE(state(), "proven");
    b.act("filed", { "main_3" });
    QCOMPARE(state(), "hold");
    QVERIFY(b.reason("clean@main_gallery").contains("filed", Qt::CaseInsensitive));
    b.clean("brush", "passage", "main_gallery", "white");
    b.clean("look", "passage", "main_gallery", "through", "wire");
    QCOMPARE(state(), "proven");
    // What is no swarf takes it away as well.
    for (const char *act : { "metal_found", "worked_beside" }) {
        b.act(act, { "main_gallery" });
        QVERIFY2(state() != "proven", act);
        b.clean("brush", "passage", "main_gallery", "white");
        b.clean("look", "passage", "main_gallery", "through", "wire");
        QCOMPARE(state(), "proven");
    }
    const std::string riser = "restr@lifter_gallery_riser";
    b.says("restr");
    QCOMPARE(b.state(riser), "proven");
    b.act("replaced", { "lifter_gallery_riser" });
    QCOMPARE(b.state(riser), "hold");
    b.says("restr");
    // A part off the engine, or its holes stopped: no swarf got in.
    b.act("filed", { "main_3" }, true);
    QCOMPARE(state(), "proven");
    for (const char *kind :
         { "clean", "clr", "feed", "camhole", "lifclr", "pocket", "runout", "piston", "wash" })
        b.says(kind);
    b.clean("wash", "part", "block");
    QCOMPARE(b.state("final@block"), "proven");
    b.stored("block", 22, true);
    QCOMPARE(state(), "proven");
    QCOMPARE(b.state("final@block"), "look_again");
}

/// W2: P4 hides P5.
void TestChecks::hiddenPlug_isSeenBeforeItIsHidden()
{
    By b(fixture::newBuild("N"));
    const char *outer = "lifter_gallery_rear", *inner = "lifter_gallery_rear_inner";
    const std::string inOuter = std::string("plugin@") + outer,
                      seenOuter = std::string("plugseen@") + outer;
    const std::string inInner = std::string("plugin@") + inner,
                      seenInner = std::string("plugseen@") + inner;
    QVERIFY2(b.refused("plug_in", inner).contains("draw it first"),
             "a plug behind one that is in cannot be fitted");
    for (const char *kind : { "clean", "final" })
        b.says(kind);
    b.as("A").clean("plug_out", "plug", outer).clean("plug_out", "plug", inner);
    b.as("A").clean("plug_in", "plug", inner).clean("plug_in", "plug", outer);
    b.as("B").clean("plug_seen", "plug", outer);
    QCOMPARE(b.state(seenInner), "not_done");
    QCOMPARE(b.state(inOuter), "look_again");
    QVERIFY(b.reason(inOuter).contains("closed over"));
    QVERIFY(b.as("B").refused("plug_seen", inner).contains("draw it first"));
    b.as("B").clean("plug_seen", "plug", inner, "", "camera");
    QCOMPARE(b.state(seenInner), "proven");
    QCOMPARE(b.state(inOuter), "proven");
    QCOMPARE(b.state(seenOuter), "proven");
    b.as("A").clean("plug_out", "plug", outer);
    QCOMPARE(b.state(inOuter), "hold");
    QCOMPARE(b.state(seenOuter), "hold");
    QCOMPARE(b.state(inInner), "proven");
    QCOMPARE(b.state(seenInner), "proven");
}

/// W3: who may sign for what.
void TestChecks::signature_countsByClassAndPerson()
{
    By b(fixture::newBuild("N"));
    b.person("A").person("B").person("C");
    const std::string clr = "clr@main_4", why = "kept for the first hour only";
    b.as("C").figure("clr", "main_4", 71, 1);
    QCOMPARE(b.state(clr), "hold");
    QCOMPARE(b.as("A").sign(clr, why), "");
    QCOMPARE(b.state(clr), "hold");
    QVERIFY(b.reason(clr).contains("1 of 2"));
    QVERIFY(b.as("A").sign(clr, why).contains("another person"));
    QCOMPARE(b.as("B").sign(clr, why), "");
    QCOMPARE(b.state(clr), "signed_off");
    QVERIFY(b.reason(clr).contains("A and B"));
    b.as("C").figure("clr", "main_4", 70.5, 1);
    QCOMPARE(b.state(clr), "signed_off"); // better leaves it
    b.as("C").figure("clr", "main_4", 74, 1);
    QCOMPARE(b.state(clr), "hold");

    QVERIFY(b.as("A").sign("plugseen@lifter_gallery_rear_inner", why).contains("nobody may sign"));
    QVERIFY(b.as("x").sign("baffle@sump_pickup", why).contains("not among the people"));
    b.as("C").says("baffle", {}, "no");
    QVERIFY(b.as("A").sign("baffle@sump_pickup", "x").contains("three words"));
    QCOMPARE(b.as("A").sign("baffle@sump_pickup", why), "");
    QCOMPARE(b.state("baffle@sump_pickup"), "signed_off");

    // Next to nothing open: the main falls below its need, and no gauge shows it.
    b.stopValue("main_2", "block_hole_mm", 6).stopValue("main_2", "shell_hole_mm", 6);
    b.stopValue("main_2", "hole_offset_mm", 5.98);
    QCOMPARE(b.state("feed@main_2"), "hold");
    QCOMPARE(b.state("need@main_2"), "hold");
    QVERIFY(b.as("A").sign("need@main_2", why).contains("nobody may sign"));

    // Whoever works alone signs once for what else takes two.
    By alone(fixture::newBuild("N", true));
    alone.person("A").as("A").says("clr", { "main_4" }, "no");
    QCOMPARE(alone.as("A").sign(clr, why), "");
    QCOMPARE(alone.state(clr), "signed_off");
    QVERIFY(alone.reason(clr).contains("signed alone"));
}

void TestChecks::signature_needsAReason_data()
{
    QTest::addColumn<QString>("reason");
    QTest::addColumn<bool>("good");
    QTest::newRow("one letter") << "x" << false;
    QTest::newRow("two words") << "absolutely acceptable" << false;
    QTest::newRow("letters too few") << "so it is ok" << false;
    QTest::newRow("words of one letter") << "a b c d e f g h i j k l m n o p" << false;
    QTest::newRow("figures are no letters") << "12 345 678 901 234 567 890" << false;
    QTest::newRow("the statement itself") << "Right cap, right way round" << false;
    QTest::newRow("a sentence") << "measured twice by two people" << true;
    QTest::newRow("another alphabet") << "проверено дважды двумя людьми" << true;
}

void TestChecks::signature_needsAReason()
{
    QFETCH(const QString, reason);
    QFETCH(const bool, good);
    QCOMPARE(whatLacksReason(reason.toStdString(), "Right cap, right way round").empty(), good);
}

void TestChecks::markOfAStop_isItsWorst_data()
{
    QTest::addColumn<QString>("jrnl");
    QTest::addColumn<QString>("clr");
    QTest::addColumn<QString>("bore");
    QTest::addColumn<QString>("mark");
    QTest::newRow("not done is better than look again") << "yes"
                                                        << "near"
                                                        << ""
                                                        << "look_again";
    QTest::newRow("signed is worse than proven") << "signed"
                                                 << "yes"
                                                 << "yes"
                                                 << "signed_off";
    QTest::newRow("holds is the worst") << "no"
                                        << "signed"
                                        << "yes"
                                        << "hold";
}

/// W4.
void TestChecks::markOfAStop_isItsWorst()
{
    By b(fixture::newBuild("N"));
    b.person("A").person("B");
    // All else of its size is proven, so that these three decide.
    for (const char *kind : { "card", "tang", "crush" })
        b.as("C").says(kind);
    QFETCH(const QString, jrnl);
    QFETCH(const QString, clr);
    QFETCH(const QString, bore);
    for (const auto &[kind, how] : { std::pair("jrnl", jrnl), { "clr", clr }, { "bore", bore } }) {
        const std::string id = std::string(kind) + "@main_3";
        if (how == "near")
            b.as("C").figure(kind, "main_3", 64.5, 1);
        else if (!how.isEmpty())
            b.as("C").says(kind, { "main_3" }, how == "yes" ? "yes" : "no");
        if (how == "signed")
            for (const char *who : { "A", "B" })
                QCOMPARE(b.as(who).sign(id, "kept for the first hour only"), "");
    }
    QFETCH(const QString, mark);
    const CheckList list = b.list();
    Mark worst = Mark::Proven;
    for (const char *kind : { "jrnl", "clr", "bore" })
        worst = worse(worst, markOf(*list.find(std::string(kind) + "@main_3")));
    QCOMPARE(QString::fromUtf8(markId(worst).data()), mark);
    const Judgement j(b.build(), Figures(b.build()), {});
    QVERIFY(worse(j.marksOf("main_3")->size, worst) == j.marksOf("main_3")->size);
}

/// W5.
void TestChecks::gates_openByWhatIsAsked()
{
    By none(loadTemplate("inline-four-wet-sump")->build);
    QVERIFY(!none.open(CheckGate::Turn));
    QCOMPARE(none.asked(), 1);
    QCOMPARE(none.state("job@engine"), "not_done");

    By job(fixture::newBuild("N"));
    QCOMPARE(job.state("job@engine"), "proven");
    QVERIFY(!job.open(CheckGate::Turn));
    for (const Check &c : job.list().all())
        if (c.asked && c.kind->id != "job")
            QVERIFY2(c.isOpen(), c.id().c_str());

    // The started demo without its readings: every clearance open, no gate open.
    Build b = demoBuild();
    b.readings.clear();
    By unread(fixture::withJob(std::move(b), "N"));
    for (const Check &c : unread.list().all())
        if (c.kind->id == "clr")
            QVERIFY2(c.isOpen(), c.id().c_str());
    QVERIFY(!unread.open(CheckGate::Turn));

    By all(fixture::newBuild("N"));
    fixture::settleEverything(all);
    QVERIFY2(all.open(CheckGate::Fire), qPrintable(all.firstOpen(CheckGate::Fire)));
    QVERIFY(all.open(CheckGate::Turn));
    QVERIFY(
        QString::fromStdString(said(all.list().says(CheckGate::Turn))).startsWith("May turn: "));
    all.flow("lifter_gallery", 6, "dry");
    QVERIFY(all.open(CheckGate::Turn));
    QVERIFY(!all.open(CheckGate::Fire));
    QCOMPARE(all.firstOpen(CheckGate::Fire), "seelif@lifter_gallery#6");
}

/// W6.
void TestChecks::failure_isSettledByProofOrANewPart()
{
    By b(fixture::newBuild("F", false, "inline-three-turbo"));
    for (const char *kind : { "clean", "wash", "newpart" })
        b.says(kind);
    QCOMPARE(b.state("clean@main_gallery"), "proven");
    b.failure("big_end_3");
    for (const char *id :
         { "spread@main_gallery", "clean@main_gallery", "spread@cooler", "spread@crank" })
        QCOMPARE(b.state(id), "hold");
    b.repair("main_gallery", "cleaned");
    QCOMPARE(b.state("spread@main_gallery"), "hold");
    fixture::brushAllOf(b, "main_gallery");
    QCOMPARE(b.state("clean@main_gallery"), "proven");
    QCOMPARE(b.state("spread@main_gallery"), "proven");
    b.repair("cooler", "flushed");
    QCOMPARE(b.state("spread@cooler"), "hold");
    b.act("replaced", { "crank" });
    QCOMPARE(b.state("spread@crank"), "not_done");
    QVERIFY(b.reason("spread@crank").contains("newpart@crank"));
}

void TestChecks::everyJob_canBeBroughtThroughAllGates_data()
{
    QTest::addColumn<QString>("engine");
    QTest::addColumn<QString>("job");
    QTest::addColumn<bool>("alone");
    QTest::addColumn<QStringList>("scope");
    QStringList engines { "inline-four-wet-sump" };
    if (!sanitized) // the same code on other engines
        engines << "v8-dry-sump"
                << "inline-three-turbo"
                << "single-air-cooled";
    for (const QString &engine : engines)
        for (const char *job : { "N", "F", "R", "S", "B", "D", "O" })
            for (const bool alone : { false, true })
                QTest::addRow("%s, %s, %s", qPrintable(engine), job, alone ? "alone" : "two")
                    << engine << job << alone << QStringList { "sump_pickup", "pan", "pump" };
    QTest::newRow("one pickup ring") << "inline-four-wet-sump"
                                     << "S" << true << QStringList { "sump_pickup", "pan" };
}

/// Nothing an engine is asked for is out of reach of whoever answers it.
void TestChecks::everyJob_canBeBroughtThroughAllGates()
{
    QFETCH(const QString, engine);
    QFETCH(const QString, job);
    QFETCH(const bool, alone);
    QFETCH(const QStringList, scope);
    std::vector<std::string> ids;
    for (const QString &s : scope)
        ids.push_back(s.toStdString());
    By b(fixture::newBuild(job.toStdString(), alone, engine.toStdString(), ids));
    if (job == "F")
        b.failure("main_1");
    if (job == "F") // what is soft or sealed is new
        for (const Spread &spread : spreadsOf(b.build()))
            for (const SpreadItem &i : spread.items)
                if (std::find(i.choices.begin(), i.choices.end(), "replaced") != i.choices.end())
                    b.act("replaced", { i.id });
    fixture::settleEverything(b);
    for (const CheckGate g :
         { CheckGate::Turn, CheckGate::Fire, CheckGate::Load, CheckGate::Handover })
        QVERIFY2(b.open(g),
                 qPrintable(b.firstOpen(g) + ": " + b.reason(b.firstOpen(g).toStdString())));
}

void TestChecks::whatIsWrong_isSaidByItsCheck_data()
{
    using Spoil = std::function<void(Build &)>;
    QTest::addColumn<QString>("engine");
    QTest::addColumn<Spoil>("spoil");
    QTest::addColumn<QString>("check");
    const auto relief = [](double crack_kpa) {
        return Spoil([crack_kpa](Build &b) {
            for (Element &e : b.circuit.elements)
                if (e.id == "relief") {
                    e.values["crack_kpa"] = crack_kpa;
                    e.values["full_kpa"] = 1.25 * crack_kpa;
                }
        });
    };
    const char *four = "inline-four-wet-sump", *turbo = "inline-three-turbo";
    QTest::newRow("relief opens at 1.9 bar") << four << relief(190) << "speed@engine";
    QTest::newRow("relief opens at 20 bar") << four << relief(2000) << "over@engine";
    QTest::newRow("turbocharger short of its own need") << turbo << Spoil([](Build &b) {
        for (Stop &s : b.engine.stops)
            if (s.kind == StopKind::Turbo)
                s.values["need_most_kpa"] = 900;
    }) << "speed@turbo";
    QTest::newRow("rockers short at hot idle") << four << Spoil([](Build &b) {
        for (Stop &s : b.engine.stops)
            if (s.kind == StopKind::Rocker)
                s.values["need_idle_kpa"] = 400;
    }) << "need@rocker_shaft";
    QTest::newRow("one main's feed drilled 1.0 mm") << four << Spoil([](Build &b) {
        for (Element &e : b.circuit.elements)
            if (e.kind == ElementKind::Pipe && e.to == b.engine.find("main_3")->points[0].node)
                e.values["d_mm"] = 1.0;
    }) << "speed@main_3";
    QTest::newRow("a turbocharger that passes too little oil") << turbo << Spoil([](Build &b) {
        for (Element &e : b.circuit.elements)
            if (e.id == "turbo_bearings")
                e.values["d_mm"] = 0.3;
    }) << "need@turbo";
    QTest::newRow("tapered by 28 µm") << four << Spoil([](Build &b) {
        b.readings.push_back(gaugeReading("main_1", 1, 90, 36));
        b.readings.push_back(gaugeReading("main_1", 2, 90, 64));
        b.readings.change([n = 0](Reading &r) mutable { r.id = "r" + std::to_string(++n); });
    }) << "form@main_1";
    QTest::newRow("500 kN on a main") << four << Spoil([](Build &b) {
        for (Stop &s : b.engine.stops)
            if (s.id == "main_3")
                s.values["load_n"] = 500e3;
    }) << "film@main_3";
    QTest::newRow("closes at the coldest start")
        << "inline-four-alloy" << Spoil([](Build &b) { b.use.coldestStart_c = -45; })
        << "cold@main_1";
    QTest::newRow("0.85 bar read where about 4 was likely") << four << Spoil([](Build &b) {
        CardStep s;
        s.id = "k1";
        s.step = "fast";
        s.at = "2026-03-01T10:00:00";
        s.pressure_kpa = 85;
        s.rpm = 2000;
        s.oil_c = 60;
        b.cardSteps.push_back(s);
    }) << "fast@engine";
    QTest::newRow("no circuit that solves")
        << four << Spoil([](Build &b) { b.gaugeTap = "nowhere"; }) << "solved@engine";
    QTest::newRow("gear oil") << four << Spoil([](Build &b) { b.oil.grade = "75W-90 gear"; })
                              << "oilok@engine";
}

void TestChecks::whatIsWrong_isSaidByItsCheck()
{
    QFETCH(const QString, engine);
    QFETCH(const std::function<void(Build &)>, spoil);
    QFETCH(const QString, check);
    const std::string id = check.toStdString();
    By b(fixture::newBuild("N", false, engine.toStdString()));
    const Check *before = b.list().find(id);
    QVERIFY2(!before || before->evident != Evident::No, "nothing is wrong yet");
    b.change([&](Build &build) { spoil(build); });
    QCOMPARE(b.state(id), "hold");
    QVERIFY(!b.open(CheckGate::Handover));
    QVERIFY(!b.reason(id).isEmpty());
}

/// A feed hole nearly shut starves its main and the rod behind it, and the gauge hardly moves; one
/// that costs nothing says so.
void TestChecks::cost_isSolvedWhereNoGaugeShowsIt()
{
    const By b(fixture::newBuild("N"));
    const Figures f(b.build());
    const auto costs = costsOf(b.build(), f, b.list());
    Fault shut;
    shut.kind = "feed_hole_covered";
    shut.stop = "main_2";
    shut.severity = 0.98;
    const CheckCost worst = costOf(b.build(), f.sizes, shut);
    // Two hundredths of the hole let the main have nearly what it wants.
    QCOMPARE(worst.harm, 1);
    QVERIFY(!worst.stop.empty());
    QVERIFY(std::abs(worst.gauge_pa) < 2 * GaugeReading::usualGaugeU_kpa * 1e3);
    QVERIFY(costs.at("plugin@lifter_gallery_rear_inner").harm >= 2);
    // A kind no fault stands behind has none.
    QVERIFY(!costs.contains("card@main_caps"));
    for (const auto &[id, cost] : costs)
        QVERIFY2(cost.harm >= 0 && cost.harm <= 3 && !cost.text.empty(), id.c_str());
}

/// The table of verdicts and the computed checks are one judgement.
void TestChecks::verdicts_areThoseOfTheChecks()
{
    By b(fixture::newBuild("N"));
    for (const double crack_kpa : { 400.0, 190.0, 2000.0 }) {
        b.change([&](Build &build) {
            for (Element &e : build.circuit.elements)
                if (e.id == "relief") {
                    e.values["crack_kpa"] = crack_kpa;
                    e.values["full_kpa"] = 1.25 * crack_kpa;
                }
        });
        const Figures f(b.build());
        const VerdictTable t = verdictTable(b.build(), f);
        QVERIFY(t.states.size() == 10 && t.rows.size() > 6);
        Mark before = Mark::Hold, supply = Mark::Proven, stands = Mark::Proven;
        int cells = 0;
        for (const VerdictRow &r : t.rows) {
            QVERIFY(worse(before, r.worst()) == before); // the worst first
            before = r.worst();
            (r.upper ? stands : supply) = worse(r.upper ? stands : supply, r.worst());
            for (const VerdictCell &c : r.cells) {
                cells += c.mark != Mark::NotAsked;
                if (c.mark != Mark::NotAsked && c.limit > 0)
                    verifyClose(c.ratio, r.upper ? c.limit / c.value : c.value / c.limit, 1e-12);
            }
        }
        QCOMPARE(t.inside + t.doubtful + t.beyond, cells);
        QCOMPARE(stands == Mark::Hold, b.list().find("over@engine")->evident == Evident::No);
        bool starves = false;
        for (const Check &c : b.list().all())
            if (c.kind->id == "need" || c.kind->id == "speed" || c.kind->id == "idle"
                || c.kind->id == "crank")
                starves = starves || c.evident == Evident::No;
        QCOMPARE(supply == Mark::Hold, starves);
    }
}

/// What a range would be without a cause is what it is once that cause is none.
void TestChecks::ranges_saySharesThatAddUp()
{
    const Figures f(fixture::newBuild("N"));
    const Build build = fixture::newBuild("N");
    const VerdictTable t = verdictTable(build, f);
    const VerdictRanges ranges = verdictRanges(build, f, nullptr);
    size_t nodes = 0;
    for (const VerdictRow &r : t.rows)
        for (size_t k = 0; k < r.cells.size(); ++k) {
            const VerdictRange *at = ranges.find(r.id, t.states[k]->kind->id);
            QCOMPARE(at != nullptr, !r.cells[k].node.empty());
            if (!at)
                continue;
            ++nodes;
            QVERIFY(at->low_pa <= r.cells[k].value && r.cells[k].value <= at->high_pa);
            double sum = 0;
            for (const Doubt &d : at->doubtful.from)
                sum += d.share;
            verifyClose(sum, 1, 1e-9);
        }
    QVERIFY(nodes > 50);
    // As the assessment has it, from the same solution.
    const LikelyPressure &idle = f.operating.hotIdle.gauge;
    const VerdictRange &said = *ranges.find("gauge", "hot_idle");
    verifyClose(said.low_pa, idle.low_pa, 1e-6);
    verifyClose(said.high_pa, idle.high_pa, 1e-6);

    const auto cause = std::ranges::find_if(said.doubtful.from,
                                            [](const Doubt &d) { return !d.family.empty(); });
    QVERIFY(cause != said.doubtful.from.end());
    std::vector<GaugedSize> gauged = f.sizes;
    for (GaugedSize &s : gauged)
        if (s.family == cause->family)
            s.cold_um.standardUncertainty = 0;
    auto model = OperatingModel::make(build, gauged, f.operating.hotIdle.oil_c);
    QVERIFY(model.has_value());
    const std::vector<std::string> tap { build.circuit.taps.at(build.gaugeTap) };
    const auto then = model->likelyAt(build.use.hotIdle_rpm, tap);
    QVERIFY(then.has_value());
    // Valves bend it: within a few hundredths.
    verifyClose((*then)[0].pressure.low_pa, said.doubtful.without(*cause).low_pa, 0.03);
}

void TestChecks::oldFile_opensClosedAndAsksForTheJob()
{
    const Build b = demoBuild();
    Build old = b;
    old.jobs = {};
    const Figures f(old);
    const CheckList list = checksOf(old, f, {});
    for (const CheckGate g :
         { CheckGate::Turn, CheckGate::Fire, CheckGate::Load, CheckGate::Handover })
        QVERIFY(!list.gate(g).open);
    const QString text = QString::fromStdString(checksText(old, list, {}, fileStyle));
    QVERIFY(text.contains("Say what the job is"));
}

void TestChecks::job_isReadAsOneOrAsAList()
{
    Json file = Json::parse(buildText(fixture::newBuild("N")));
    QVERIFY(file["job"].is_object());
    const auto one = parseBuild(file.dump());
    QVERIFY(one && one->build.jobs.size() == 1);
    Json job = file["job"];
    job.erase("id");
    file["job"] = Json::array({ job, job });
    const auto two = parseBuild(file.dump());
    QVERIFY(two && two->build.jobs.size() == 2);
    QVERIFY(two->build.jobs[0].id != two->build.jobs[1].id);
    QVERIFY(Json::parse(buildText(two->build))["job"].is_array());
    file["job"] = Json { { "kinds", { "N", "Q" } }, { "by", "A" } };
    const auto bad = parseBuild(file.dump());
    QVERIFY(!bad && bad.error().errors.front().place == "/job/0/kinds/1");
}

} // namespace tst_checks
MILDPATH_TEST(tst_checks, TestChecks)
} // namespace mildpath
#include "tst_checks.moc"
