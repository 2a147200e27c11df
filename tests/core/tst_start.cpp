// SPDX-License-Identifier: GPL-3.0-or-later
// From the gate to the run card: holds and signatures, the prime forecast, corridors, alarms.
#include "checks/assessment.h"
#include "checksfixture.h"
#include "circuit/elementtypes.h"
#include "document/edit.h"
#include "start/alarms.h"
#include "start/runcard.h"
#include "testing.h"

using namespace mildpath;

namespace tst_start {

class TestStart : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void gate_isAViewOfTheList();
    void signature_inAFileNeedsNameAndReason();
    void card_keepsTheStartShutUntilAllBeforeItIsDone();
    void card_judgesWhatWasRead_data();
    void card_judgesWhatWasRead();
    void card_recordsBothSchools_data();
    void card_recordsBothSchools();
    void prime_addsUpBoresAndFilter();
    void prime_followsTheCalculator();
    void prime_halfAFilterSavesItsShare();
    void prime_dryPumpHighOverTheOilNeverLifts();
    void corridor_beginsBetweenTheTwoTimesAndEndsInTheBand();
    void causes_whatIsProvenComesLast();
    void map_agreesWithTheForecastBetweenItsPoints();
    void alarms_data();
    void alarms();
    void alarm_burstsAddUp();
    void alarm_starterMustCool();
    void startValues_areCheckedByRange_data();
    void startValues_areCheckedByRange();
};

namespace {

Build with(Build build, const Edit &edit)
{
    auto out = applyEdit(build, edit);
    if (!out)
        qFatal("%s: %s", out.error().place.c_str(), said(out.error().message).c_str());
    return std::move(*out);
}
Build withEntry(Build build, LogEntry entry)
{
    std::visit(
        [](Record &r) {
            r.by = r.by.empty() ? "tester" : r.by;
            r.at = "2026-03-01T10:00:00";
        },
        entry);
    return with(std::move(build), AddEntry { std::move(entry) });
}
Build withStep(Build build, const char *step, const char *outcome = "done")
{
    CardStep s;
    s.step = step;
    s.outcome = outcome;
    return withEntry(std::move(build), s);
}
Build withChoice(Build build, std::string_view question, const char *answer)
{
    Choice c;
    c.question = question;
    c.answer = answer;
    return with(std::move(build), Choose { c });
}
/// Everything the job asks answered, and signed off where it is only unsure.
Build allSigned(Build build)
{
    build.cardSteps = {};
    fixture::By by(std::move(build));
    by.as("A").says("clr", { "main_4" }).says("plugin").says("plugseen", {}, "yes", "camera");
    fixture::settleEverything(by);
    return by.build();
}

/// Gate, forecast and card of a build, kept together as they point into each other.
struct Judged
{
    explicit Judged(Build b)
        : build(std::move(b))
        , assessment(assess(build))
        , gate(gateOf(assessment))
        , prime(primeForecast(build, assessment))
        , card(runCardOf(build, assessment, prime, gate))
    {
    }
    Judged(const Judged &) = delete;
    Judged &operator=(const Judged &) = delete;

    Build build;
    const Assessment assessment;
    StartGate gate;
    PrimeForecast prime;
    RunCard card;
};

} // namespace

void TestStart::gate_isAViewOfTheList()
{
    const Judged before(demoBuild());
    QVERIFY(before.assessment.holds() >= 2 && !before.gate.mayStart());
    int open = 0, holds = 0;
    for (const GateGroup &g : before.gate.open) {
        open += static_cast<int>(g.checks.size());
        holds += g.holds;
        for (const Check *c : g.checks)
            QVERIFY(CheckList::shuts(*c) && c->kind == g.kind);
    }
    QCOMPARE(open, before.gate.openChecks());
    QCOMPARE(holds, before.gate.holds());
    QCOMPARE(before.gate.mark(), Mark::Hold);
    const Judged after(allSigned(demoBuild()));
    QVERIFY2(after.gate.mayStart(), said(after.gate.says()).c_str());
    QCOMPARE(after.gate.mark(), after.gate.signedOff.empty() ? Mark::Proven : Mark::SignedOff);
    QVERIFY(after.gate.open.empty());
    // A signature taken back leaves its check open.
    QVERIFY(!after.gate.signedOff.empty());
    Build back = after.build;
    for (const SignOff &o : after.build.signOffs)
        if (o.check == after.gate.signedOff.front()->id())
            back = with(back, TakeBackEntry { "signoffs", o.id, "tester", "2026-03-02" });
    QVERIFY(!Judged(std::move(back)).gate.mayStart());
}

void TestStart::signature_inAFileNeedsNameAndReason()
{
    Build bad = demoBuild();
    SignOff empty;
    empty.id = "o1";
    bad.signOffs.push_back(empty);
    const auto errors = validateBuild(bad);
    for (const char *key : { "check", "by", "note" })
        QVERIFY2(std::any_of(
                     errors.begin(), errors.end(),
                     [&](const Error &e) { return e.place == std::string("/signoffs/0/") + key; }),
                 key);
}

void TestStart::card_keepsTheStartShutUntilAllBeforeItIsDone()
{
    const auto why = [](const Build &b) {
        const Judged j(b);
        const CardItem *start = j.card.find("start");
        return start->locked ? start->why : std::string();
    };
    Build build = demoBuild();
    QVERIFY(QString::fromStdString(said(why(build))).startsWith("May not fire"));
    build = allSigned(std::move(build));
    QCOMPARE(why(build), std::string());
    // One lifter dry, and it is shut again.
    FlowSeen dry;
    dry.stop = "lifter_gallery";
    dry.outlet = 6;
    dry.saw = "dry";
    dry.means = "drill";
    dry.at = "2026-10-01T10:00:00";
    const Build one = with(build, AddEntry { dry });
    QVERIFY(QString::fromStdString(said(why(one))).contains("1 of them holds"));
    // Nothing read before the engine ran.
    QVERIFY(Judged(build).card.find("hot_idle")->locked);
    build = withStep(std::move(build), "start");
    QVERIFY(!Judged(build).card.find("hot_idle")->locked);
}

void TestStart::card_judgesWhatWasRead_data()
{
    QTest::addColumn<double>("share");
    QTest::addColumn<QString>("mark");
    // Of the expected pressure at hot idle, some 1.4 bar with a floor of 0.8, likely two thirds to
    // four thirds of it.
    QTest::newRow("as forecast") << 1.0 << "proven";
    QTest::newRow("under the band") << 0.6 << "look_again";
    QTest::newRow("over the band") << 1.6 << "look_again";
    QTest::newRow("under the floor") << 0.45 << "hold";
}

void TestStart::card_judgesWhatWasRead()
{
    QFETCH(double, share);
    QFETCH(QString, mark);
    Build build = withStep(demoBuild(), "start");
    const Assessment a = assess(build);
    CardStep s;
    s.step = "hot_idle";
    s.pressure_kpa = share * a.operating.hotIdle.gauge.value_pa / 1e3;
    s.rpm = build.use.hotIdle_rpm;
    s.oil_c = build.use.hotOil_c;
    const Judged j(withEntry(std::move(build), s));
    QCOMPARE(QString::fromStdString(std::string(markId(j.card.find("hot_idle")->mark))), mark);
}

void TestStart::card_recordsBothSchools_data()
{
    QTest::addColumn<QString>("step");
    QTest::addColumn<QString>("question");
    // Questions practitioners answer differently: JOB table "where practitioners disagree",
    // common practice, no source.
    QTest::newRow("filter") << "prefill"
                            << "prefill_filter";
    QTest::newRow("pump") << "packing"
                          << "pump_packing";
    QTest::newRow("drill or starter") << "prime_by"
                                      << "prime_by";
}

void TestStart::card_recordsBothSchools()
{
    QFETCH(QString, step);
    QFETCH(QString, question);
    const Judged j(demoBuild());
    const CardItem *item = j.card.find(step.toStdString());
    QVERIFY(item && item->answers.size() >= 2);
    QCOMPARE(item->mark, Mark::NotDone);
    for (const CardAnswer &answer : item->answers) {
        QVERIFY(!answer.reason.empty()); // each school with its reason
        const Judged chosen(
            withChoice(demoBuild(), question.toStdString(), std::string(answer.id).c_str()));
        QCOMPARE(chosen.card.find(step.toStdString())->mark, Mark::Proven);
        QCOMPARE(chosen.card.find(step.toStdString())->said, std::string(answer.text));
    }
}

void TestStart::prime_addsUpBoresAndFilter()
{
    // A pipe of 10 × 1000 mm behind the pump holds π/4·0.01²·1 = 78.5 ml; one before it nothing
    // that is to be filled (geometry).
    Build build = demoBuild();
    const double before = primeForecast(build, assess(build)).volume_m3();
    Element pipe;
    pipe.id = "long_pipe";
    pipe.kind = ElementKind::Pipe;
    pipe.from = "g1";
    pipe.to = "dead_end";
    pipe.values = { { "d_mm", 10 }, { "l_mm", 1000 } };
    Build behind = build, ahead = build;
    behind.circuit.elements.push_back(pipe);
    pipe.from = "sump";
    pipe.to = "inlet";
    ahead.circuit.elements.push_back(pipe);
    const Assessment a = assess(build);
    verifyClose(primeForecast(behind, a).volume_m3() - before, 78.54e-6, 1e-3, 0,
                QStringLiteral("behind the pump"));
    verifyClose(primeForecast(ahead, a).volume_m3() - before, 0, 0, 1e-12,
                QStringLiteral("before the pump"));
    // The filter's usual 0.4 l and 0.15 l of lifters are in it.
    QVERIFY(before > 0.55e-3 && before < 1.2e-3);
}

void TestStart::prime_followsTheCalculator()
{
    const Judged j(demoBuild());
    const PrimeForecast &p = j.prime;
    const double swept = pumpDisplacement_m3(*pumpOf(j.build)) * p.shaft_rpm / 60;
    // t = V/(η D n) behind the pump (mass balance), the lift before it; band and stop by two.
    verifyClose(p.time.fill_s, p.volume_m3() / (0.85 * swept), 1e-12, 0, QStringLiteral("fill"));
    QVERIFY(p.time.suction_s && *p.time.suction_s > 0);
    verifyClose(*p.time.time_s, p.time.fill_s + *p.time.suction_s, 1e-12, 0,
                QStringLiteral("time"));
    verifyClose(*p.time.low_s, *p.time.time_s / 2, 1e-12, 0, QStringLiteral("low"));
    verifyClose(*p.time.stop_s, *p.time.time_s * 2, 1e-12, 0, QStringLiteral("stop"));
    // The pump's inlet over the level at rest.
    QVERIFY(p.lift_m > 0.005 && p.lift_m < 0.1);
    QVERIFY(p.dryLift_m && *p.dryLift_m > p.lift_m);
}

void TestStart::prime_halfAFilterSavesItsShare()
{
    const Judged dry(withChoice(demoBuild(), question::prefill, "dry"));
    const Judged half(withChoice(demoBuild(), question::prefill, "half"));
    verifyClose(dry.prime.volume_m3() - half.prime.volume_m3(), 0.2e-3, 1e-9, 0,
                QStringLiteral("half of 0.4 l"));
    QVERIFY(*half.prime.time.time_s < *dry.prime.time.time_s);
}

void TestStart::prime_dryPumpHighOverTheOilNeverLifts()
{
    Build build = with(demoBuild(), SetSumpValue { "pump_inlet_z_mm", 2500 });
    const Judged high(build);
    QVERIFY(!high.prime.time.time_s);
    QVERIFY(QString::fromStdString(said(high.card.find("prime")->threshold)).contains("pack"));
    // Packed it does; the packing stands for the missing oil in its clearances.
    const Judged packed(withChoice(build, question::packing, "packed"));
    QVERIFY(packed.prime.time.time_s.has_value());
}

void TestStart::corridor_beginsBetweenTheTwoTimesAndEndsInTheBand()
{
    const Judged j(demoBuild());
    const PrimeForecast &p = j.prime;
    QCOMPARE(p.upper_pa(*p.time.low_s - 0.1), 0.0);
    QVERIFY(p.upper_pa(*p.time.low_s + 0.5) > 0);
    QCOMPARE(p.lower_pa(*p.time.high_s - 0.1), 0.0);
    // One time constant after it came: 63 % (first-order lag).
    verifyClose(p.upper_pa(*p.time.low_s + quickestRise_s), 0.632 * p.steady.high_pa, 1e-3, 0,
                QStringLiteral("upper"));
    verifyClose(p.lower_pa(*p.time.high_s + slowestRise_s), 0.632 * p.steady.low_pa, 1e-3, 0,
                QStringLiteral("lower"));
    for (double t = 0; t < 100; t += 0.5)
        QVERIFY(p.lower_pa(t) <= p.upper_pa(t));
    verifyClose(p.upper_pa(200), p.steady.high_pa, 1e-9, 0, QStringLiteral("end"));
}

void TestStart::causes_whatIsProvenComesLast()
{
    const auto order = [](const Build &b) {
        QStringList out;
        for (const PrimeCause &c : primeCauses(b, assess(b)))
            out << QString::fromStdString(std::string(c.id));
        return out;
    };
    Build build = demoBuild();
    build.proofs.clear();
    build.checkEntries = {};
    // With nothing proven: the usual order (common practice, no source).
    const QStringList bare = order(build);
    QCOMPARE(bare.mid(0, 5), QStringList({ "gauge", "oil", "drive", "dry_pump", "pickup" }));
    fixture::By by(build);
    by.as("A").says("rfree").says("rseat");
    const QStringList seen = order(by.build());
    QCOMPARE(seen.front(), QStringLiteral("gauge"));
    QCOMPARE(seen.back(), QStringLiteral("relief"));
    RunLog run;
    run.kind = "prime";
    run.tap = build.gaugeTap;
    run.firstPressure_s = 12;
    QVERIFY(order(withEntry(build, run)).front() != QStringLiteral("gauge"));
}

void TestStart::map_agreesWithTheForecastBetweenItsPoints()
{
    const Build build = demoBuild();
    const Assessment a = assess(build);
    PressureMap map(std::make_shared<const Build>(build), a.sizes);
    for (const auto &[rpm, oil] : { std::pair(800.0, 20.0), std::pair(800.0, 63.0),
                                    std::pair(2000.0, 100.0), std::pair(3333.0, 87.0) }) {
        const auto here = map.at(rpm, oil);
        const auto there = assessAt(build, a.sizes, rpm, oil);
        QVERIFY(here && there);
        // Straight between grid points: far within the model's own 6 %.
        verifyClose(here->value_pa, there->gauge.value_pa, 0.015, 0,
                    QStringLiteral("%1 at %2").arg(rpm).arg(oil));
        QVERIFY(here->low_pa < here->value_pa && here->value_pa < here->high_pa);
    }
    QVERIFY(!map.at(10, 50));
    QVERIFY(!map.at(800, 250));
    QVERIFY(!map.at(20000, 50));
}

namespace {

/// "t:kpa:rpm" each; what the alarms at the end of them are.
std::vector<RunPoint> pointsOf(const QString &text)
{
    std::vector<RunPoint> out;
    for (const QString &part : text.split(' ')) {
        const QStringList n = part.split(':');
        out.push_back({ n[0].toDouble(), n[1].toDouble(),
                        n[2] == QStringLiteral("?") ? std::nullopt : std::optional(n[2].toDouble()),
                        40.0 });
    }
    return out;
}

QString idsOf(const std::vector<Alarm> &alarms)
{
    const char *names[] = { "none", "low", "high", "hot", "starter", "band", "silent" };
    QStringList out;
    for (const Alarm &a : alarms)
        out << QLatin1String(names[static_cast<int>(a.kind)]);
    return out.join(' ');
}

} // namespace

void TestStart::alarms_data()
{
    QTest::addColumn<QString>("readings");
    QTest::addColumn<double>("thenAt");
    QTest::addColumn<QString>("on");
    // Stop after 5 s without pressure, floor 80 kPa from 480 rev/min on.
    QTest::newRow("all well") << "0:0:0 1:0:800 2:300:800 3:310:800" << 3.1 << "";
    QTest::newRow("nothing yet, time left") << "0:0:800 2:0:800 4:0:800" << 4.5 << "";
    QTest::newRow("nothing by the stop time") << "0:0:800 2:0:800 5.1:0:800" << 5.1 << "none";
    QTest::newRow("the time runs out between readings") << "0:0:800 4.6:0:800" << 5.2 << "none";
    QTest::newRow("pressure comes late but comes")
        << "0:0:800 4:0:800 4.9:90:800 6:100:800" << 6.1 << "";
    QTest::newRow("falls under the floor")
        << "0:0:800 1:300:800 2:60:800 2.05:60:800" << 2.05 << "low";
    QTest::newRow("one line lost to the ignition")
        << "0:0:800 1:300:800 2:0:800 2.1:300:800" << 2.3 << "";
    QTest::newRow("a slow sender: confirmed by time")
        << "0:0:800 1:300:800 2:60:800" << 2.25 << "low";
    QTest::newRow("running down is no alarm")
        << "0:0:800 1:300:800 2:60:300 2.1:10:100" << 2.4 << "";
    QTest::newRow("a sender without a speed") << "0:0:? 1:300:? 2:60:? 2.05:60:?" << 2.05 << "low";
    QTest::newRow("beyond what cans stand") << "0:0:800 1:1600:800" << 1.1 << "high";
    QTest::newRow("the sender falls silent") << "0:0:800 1:300:800" << 2.1 << "silent";
}

void TestStart::alarms()
{
    QFETCH(QString, readings);
    QFETCH(double, thenAt);
    QFETCH(QString, on);
    Build build = demoBuild();
    AlarmWatch watch(startLimits(build));
    for (const RunPoint &p : pointsOf(readings))
        watch.take(p, std::nullopt);
    watch.tick(thenAt);
    QCOMPARE(idsOf(watch.standing()), on);
}

void TestStart::alarm_burstsAddUp()
{
    // Ten seconds of turning, a minute of rest, ten seconds more: twenty since it first turned.
    AlarmWatch watch({ .priming = true, .stop_s = 18, .hot_c = 1e3 });
    for (double t = 0; t <= 10; t += 0.5)
        watch.take({ t, 0.0, 250.0, 20.0 }, std::nullopt);
    QCOMPARE(*watch.untilStop_s(), 8.0);
    for (double t = 10.5; t < 70; t += 0.5)
        watch.take({ t, 0.0, 0.0, 20.0 }, std::nullopt);
    QVERIFY(watch.standing().empty());
    QVERIFY(!watch.untilStop_s()); // nothing turns
    for (double t = 70; t <= 80; t += 0.5)
        watch.take({ t, 0.0, 250.0, 20.0 }, std::nullopt);
    QCOMPARE(idsOf(watch.standing()), QStringLiteral("none"));
}

void TestStart::alarm_starterMustCool()
{
    // A starter turns for 10 s and cools for a minute: common practice, no source.
    const Build build = withChoice(demoBuild(), question::primeBy, "starter");
    const AlarmLimits limits = primeLimits(build, primeForecast(build, assess(build)));
    QCOMPARE(limits.burst_s, 10.0);
    const Build drilled = demoBuild();
    QCOMPARE(primeLimits(drilled, primeForecast(drilled, assess(drilled))).burst_s, 0.0);
    AlarmWatch watch({ .priming = true, .stop_s = 100, .hot_c = 1e3, .burst_s = 10, .rest_s = 60 });
    double t = 0;
    const auto turn = [&](double seconds, double rpm) {
        for (const double end = t + seconds; t < end; t += 0.5)
            watch.take({ t, 0.0, rpm, 20.0 }, std::nullopt);
    };
    const auto hot = [&] {
        return std::any_of(watch.standing().begin(), watch.standing().end(),
                           [](const Alarm &a) { return a.kind == AlarmKind::StarterHot; });
    };
    turn(9, 200);
    QVERIFY(!hot());
    turn(3, 200);
    QVERIFY(hot());
    turn(20, 0);
    QVERIFY(!hot());
    verifyClose(*watch.restLeft_s(), 40, 0, 1.1, QStringLiteral("rest"));
    turn(1, 200); // too early
    QVERIFY(hot());
    turn(62, 0);
    QVERIFY(!watch.restLeft_s());
    turn(5, 200);
    QVERIFY(!hot());
}

void TestStart::startValues_areCheckedByRange_data()
{
    QTest::addColumn<QString>("key");
    QTest::addColumn<double>("value");
    QTest::addColumn<bool>("good");
    QTest::newRow("drill") << "drill_rpm" << 400.0 << true;
    QTest::newRow("drill too fast") << "drill_rpm" << 30000.0 << false;
    QTest::newRow("not known") << "colour" << 1.0 << false;
    QTest::newRow("filter below nothing") << "filter_l" << -0.1 << false;
}

void TestStart::startValues_areCheckedByRange()
{
    QFETCH(QString, key);
    QFETCH(double, value);
    QFETCH(bool, good);
    const Build build = demoBuild();
    const auto after = applyEdit(build, SetStartValue { key.toStdString(), value });
    QCOMPARE(after.has_value(), good);
    if (!good) {
        QVERIFY(QString::fromStdString(after.error().place).contains(key));
        return;
    }
    QCOMPARE(*after->start.own(key.toStdString()), value);
    const auto away = applyEdit(*after, SetStartValue { key.toStdString(), std::nullopt });
    QVERIFY(!away->start.own(key.toStdString()));
}

} // namespace tst_start

MILDPATH_TEST(tst_start, TestStart)
#include "tst_start.moc"
