// SPDX-License-Identifier: GPL-3.0-or-later
// Looks to come after the hand-over, checks of one's own, and weights: each from what is written
// down to the list, the plan and the next build.
#include "checksfixture.h"
#include "plan/workplan.h"
#include "storage/keptchecks.h"
#include "study/looks.h"
#include "study/weights.h"
#include "testing.h"

#include <QTemporaryDir>
#include <QtTest>

#include <algorithm>

namespace mildpath {
namespace tst_looks {

using fixture::By;

class TestLooks : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void look_isDueByWhatIsOverFirst_data();
    void look_isDueByWhatIsOverFirst();
    void look_lookedAtBeginsAgain();
    void hours_ofAnEntryCountWhereTheySayMore();
    void due_isTheNextThing();
    void look_isRefused_data();
    void look_isRefused();
    void own_standsInTheListAndPlan();
    void own_stageFollowsWhatItComesAfter_data();
    void own_stageFollowsWhatItComesAfter();
    void own_isAnsweredAndFallsBack();
    void own_thatWouldWaitForItselfIsRefused();
    void own_goesAlongWithItsTemplate();
    void weights_ofPiecesAreAddedUp();
    void weights_apartAreNotAsAsked();
    void weights_areSetWithTheirSource_data();
    void weights_areSetWithTheirSource();
};

namespace {

constexpr const char *set = "2026-01-01T10:00:00";

template <class Entry> Build with(const Build &build, Entry e, const std::string &at = set)
{
    e.by = "A";
    e.at = at;
    const auto done = applyEdit(build, AddEntry { e });
    if (!done)
        qFatal("%s", said(done.error().message).c_str());
    return *done;
}

Build looked(const NextLook &look)
{
    return with(fixture::newBuild("N"), look);
}

Act ran(double hours, double km = 0, int days = 0, int passes = 0)
{
    Act a;
    a.act = "ran";
    if (hours > 0)
        a.ran_h = hours;
    if (km > 0)
        a.ran_km = km;
    if (days > 0)
        a.trackDays = days;
    if (passes > 0)
        a.passes = passes;
    return a;
}

NextLook every(double hours, double km = 0, int days = 0, int trackDays = 0, int passes = 0)
{
    NextLook l;
    l.item = "Baffle";
    if (hours > 0)
        l.every_h = hours;
    if (km > 0)
        l.every_km = km;
    if (days > 0)
        l.everyDays = days;
    if (trackDays > 0)
        l.everyTrackDays = trackDays;
    if (passes > 0)
        l.everyPasses = passes;
    return l;
}

OwnCheck own(const std::string &text, std::vector<std::string> after = {})
{
    OwnCheck c;
    c.text = text;
    c.after = std::move(after);
    return c;
}

std::string idOfLastOwn(const Build &b)
{
    return b.ownChecks.back().id;
}

Weighing weighing(const std::string &part, int item, double grams)
{
    Weighing w;
    w.part = part;
    w.item = item;
    w.grams = grams;
    return w;
}

const WeightSpread &spreadOf(const std::vector<WeightSpread> &all, const std::string &part)
{
    return *std::ranges::find(all, part, &WeightSpread::part);
}

} // namespace

void TestLooks::look_isDueByWhatIsOverFirst_data()
{
    QTest::addColumn<NextLook>("look");
    QTest::addColumn<std::vector<Act>>("runs");
    QTest::addColumn<QString>("today");
    QTest::addColumn<bool>("due");
    QTest::addColumn<QString>("says");
    const auto row = [](const char *name, const NextLook &look, std::vector<Act> runs,
                        const char *today, bool due, const char *says) {
        QTest::newRow(name) << look << std::move(runs) << QString::fromLatin1(today) << due
                            << QString::fromUtf8(says);
    };
    row("hours left", every(20), { ran(6), ran(6.5) }, "2026-01-10", false, "in 7.5 h");
    row("hours just over", every(20), { ran(12), ran(8) }, "2026-01-10", true, "due: 20 h of 20 h");
    row("days before hours", every(20, 0, 30), { ran(2) }, "2026-02-05", true,
        "due: 35 days of 30 days");
    row("hours before days", every(20, 0, 300), { ran(22) }, "2026-02-05", true,
        "due: 22 h of 20 h");
    row("a way", every(0, 5000), { ran(0, 1800), ran(0, 1700) }, "2026-02-05", false, "in 1500 km");
    row("track days", every(0, 0, 0, 6), { ran(3, 0, 2), ran(3, 0, 2) }, "2026-02-05", false,
        "in 2 track days");
    row("passes", every(0, 0, 0, 0, 100), { ran(0, 0, 0, 101) }, "2026-02-05", true,
        "due: 101 passes of 100 passes");
    row("no running noted: days alone", every(20, 0, 30), {}, "2026-01-11", false,
        "in 20 days (no running noted since Thu 1 Jan)");
    row("no running noted and no days", every(20), {}, "2026-01-11", false,
        "no running noted since Thu 1 Jan: when it is due cannot be said");
    row("no day is known", every(0, 0, 30), {}, "", false,
        "no running noted since Thu 1 Jan: when it is due cannot be said");
}

void TestLooks::look_isDueByWhatIsOverFirst()
{
    QFETCH(const NextLook, look);
    QFETCH(const std::vector<Act>, runs);
    QFETCH(const QString, today);
    QFETCH(const bool, due);
    QFETCH(const QString, says);
    Build b = looked(look);
    int day = 1;
    for (const Act &a : runs)
        b = with(b, a, "2026-01-0" + std::to_string(++day) + "T10:00:00");
    const auto looks = looksToCome(b, today.toStdString());
    QCOMPARE(looks.size(), size_t(1));
    QCOMPARE(looks.front().isDue(), due);
    QCOMPARE(plainly(QString::fromStdString(said(looks.front().says))), says);
    const Assessment a(b, today.toStdString());
    const Check *again = a.checks.find("again@engine");
    QVERIFY(again);
    QCOMPARE(QString::fromUtf8(wordOf(again->state).data()),
             due ? QStringLiteral("look_again") : QStringLiteral("proven"));
}

void TestLooks::look_lookedAtBeginsAgain()
{
    Build b = with(looked(every(20)), ran(25), "2026-01-05T10:00:00");
    QVERIFY(looksToCome(b, "2026-01-06").front().isDue());
    b = with(b, every(20), "2026-01-07T10:00:00");
    QVERIFY(!looksToCome(b, "2026-01-08").front().isDue());
    b = with(b, ran(7), "2026-01-08T10:00:00");
    verifyClose(*looksToCome(b, "2026-01-09").front().ran.hours_h, 7, 1e-12);
    // Said to be looked at no more, it is gone.
    QVERIFY(looksToCome(with(b, every(0), "2026-01-09T10:00:00"), "2026-03-01").empty());
}

void TestLooks::hours_ofAnEntryCountWhereTheySayMore()
{
    Build b = with(fixture::newBuild("N"), ran(3), "2026-01-01T09:00:00");
    b = with(b, every(20), set);
    FilterCut cut;
    cut.engine_h = 15;
    cut.filter_h = 15;
    cut.area_cm2 = 400;
    b = with(b, cut, "2026-01-05T10:00:00"); // 3 before, so 12 since
    verifyClose(*ranSince(b, set).hours_h, 12, 1e-12);
    b = with(b, ran(2), "2026-01-06T10:00:00");
    verifyClose(*ranSince(b, set).hours_h, 14, 1e-12);
    cut.engine_h = cut.filter_h = 10; // says less than what is known
    b = with(b, cut, "2026-01-07T10:00:00");
    verifyClose(*ranSince(b, set).hours_h, 14, 1e-12);
}

void TestLooks::due_isTheNextThing()
{
    By by(fixture::newBuild("O"));
    by.as("A").person("A");
    const NextLook look = every(10);
    Build b = with(by.build(), look);
    const Build begun = b;
    const Assessment asked(begun, "2026-01-02");
    for (const Check &c : asked.checks.all())
        if (c.asked && c.kind->id != "again" && c.kind->id != "job") {
            CheckEntry e;
            e.kind = c.kind->id;
            e.places = { c.place.id };
            b = with(b, e);
        }
    const Assessment before(b, "2026-01-02");
    QVERIFY(planOf(b, before.checks, "2026-01-02T08:00").rows.empty());
    QVERIFY(before.checks.gate(CheckGate::Handover).open);
    b = with(b, ran(11), "2026-01-03T10:00:00");
    const Assessment after(b, "2026-01-04");
    const WorkPlan plan = planOf(b, after.checks, "2026-01-04T08:00");
    QVERIFY(plan.next());
    QCOMPARE(QString::fromStdString(said(doText(*plan.next()))),
             QStringLiteral("Baffle: due: 11 h of 10 h"));
}

void TestLooks::look_isRefused_data()
{
    QTest::addColumn<NextLook>("look");
    QTest::addColumn<QString>("place");
    NextLook nameless = every(20);
    nameless.item = " ";
    QTest::newRow("of nothing") << nameless << "/next_looks/0/item";
    NextLook never = every(0, 0, 30);
    never.everyDays = 0;
    QTest::newRow("every 0 days") << never << "/next_looks/0/every_days";
    NextLook back = every(20);
    back.every_h = -1;
    QTest::newRow("hours below nothing") << back << "/next_looks/0/every_h";
}

void TestLooks::look_isRefused()
{
    QFETCH(const NextLook, look);
    QFETCH(const QString, place);
    const auto done = applyEdit(fixture::newBuild("N"), AddEntry { look });
    QVERIFY(!done);
    QCOMPARE(QString::fromStdString(done.error().place), place);
}

void TestLooks::own_standsInTheListAndPlan()
{
    Build b = fixture::newBuild("N");
    const size_t before = Assessment(b, "").checks.all().size();
    OwnCheck c = own("PCV orifice is the 2 mm one", { "clean" });
    c.place = "pump";
    c.cls = "!";
    c.minutes = 25;
    b = with(b, c);
    const std::string first = idOfLastOwn(b);
    b = with(b, own("Windage tray trial fitted", { first, "turns" }));
    const Assessment a(b, "2026-01-02");
    QCOMPARE(a.checks.all().size(), before + 2);
    const Check *one = a.checks.find("own@" + first);
    const Check *two = a.checks.find("own@" + idOfLastOwn(b));
    QVERIFY(one && two && one->asked && two->asked);
    QCOMPARE(QString::fromStdString(said(one->statement())),
             QStringLiteral("Pump: PCV orifice is the 2 mm one"));
    QVERIFY(one->cls == CheckClass::Never && CheckList::shuts(*one));
    // Every passage of the pump comes first; then every card's turning, and the other of one's own.
    QVERIFY(!one->after.empty() && !two->after.empty());
    for (const size_t i : one->after)
        QCOMPARE(a.checks.all()[i].kind->id, std::string_view("clean"));
    QVERIFY(std::ranges::any_of(two->after, [&](size_t i) { return &a.checks.all()[i] == one; }));
    const WorkPlan plan = planOf(b, a.checks, "2026-01-02T08:00");
    const PlannedCheck *row = plan.find(*one);
    QVERIFY(row && plan.find(*two));
    verifyClose(row->minutes, 25 * std::exp(0.045 + 0.08), 0.5); // as an untimed kind
    QVERIFY(plan.find(*two)->time.start_d >= row->time.done_d - 1e-9);
    // Taken back it is gone.
    TakeBackEntry back { "own_checks", first, "A", set };
    QVERIFY(!Assessment(*applyEdit(b, back), "").checks.find("own@" + first));
}

void TestLooks::own_stageFollowsWhatItComesAfter_data()
{
    QTest::addColumn<QString>("stage");
    QTest::addColumn<QStringList>("after");
    QTest::addColumn<int>("is");
    QTest::addColumn<int>("gate");
    const auto row = [](const char *name, const char *stage, const QStringList &after, Stage is,
                        CheckGate gate) {
        QTest::newRow(name) << QString::fromLatin1(stage) << after << static_cast<int>(is)
                            << static_cast<int>(gate);
    };
    row("nothing said", "", {}, Stage::Assemble, CheckGate::Turn);
    row("the later of two", "", { "clean", "pan" }, Stage::Suction, CheckGate::Turn);
    row("after the prime", "", { "press" }, Stage::Prime, CheckGate::Fire);
    row("no earlier than what it comes after", "clean", { "press" }, Stage::Prime, CheckGate::Fire);
    row("as it was said", "after", { "clean" }, Stage::After, CheckGate::Handover);
}

void TestLooks::own_stageFollowsWhatItComesAfter()
{
    QFETCH(const QString, stage);
    QFETCH(const QStringList, after);
    QFETCH(const int, is);
    QFETCH(const int, gate);
    OwnCheck c = own("Seen");
    c.stage = stage.toStdString();
    for (const QString &id : after)
        c.after.push_back(id.toStdString());
    const Build b = with(fixture::newBuild("N"), c);
    const Assessment a(b, "");
    const Check *check = a.checks.find("own@" + idOfLastOwn(b));
    QVERIFY(check);
    QCOMPARE(static_cast<int>(check->kind->stage), is);
    QCOMPARE(static_cast<int>(check->kind->gate()), gate);
    QVERIFY(!planOf(b, a.checks, "2026-01-02T08:00").problem); // whatever its gate waits for
    // It stands among the kinds of its stage.
    const auto kinds = a.checks.kinds();
    QVERIFY(std::ranges::is_sorted(kinds, {}, &CheckKind::stage));
    QVERIFY(std::ranges::find(kinds, check->kind) != kinds.end());
}

void TestLooks::own_isAnsweredAndFallsBack()
{
    OwnCheck c = own("Oil thrower is on");
    c.place = "pump";
    By by(with(fixture::newBuild("N"), c));
    const std::string place = idOfLastOwn(by.build()), id = "own@" + place;
    by.as("A").person("A").person("B");
    QCOMPARE(by.state(id), QStringLiteral("not_done"));
    by.says("own", { place });
    QCOMPARE(by.state(id), QStringLiteral("proven"));
    by.act("taken_off", { "pump" }); // what it is fitted to came off
    QCOMPARE(by.state(id), QStringLiteral("hold"));
    by.says("own", { place });
    QCOMPARE(by.state(id), QStringLiteral("proven"));
    by.says("own", { place }, "no");
    QCOMPARE(by.state(id), QStringLiteral("hold"));
    // Said anew it stays the same check.
    by.change([&](Build &b) {
        OwnCheck again = b.ownChecks.back();
        again.replaces = again.id;
        again.text = "Oil thrower is on, dish outward";
        b = with(b, again);
    });
    QCOMPARE(by.state(id), QStringLiteral("hold"));
    QVERIFY(by.list().find(id)->kind->statement.ends_with("dish outward"));
}

void TestLooks::own_thatWouldWaitForItselfIsRefused()
{
    Build b = with(fixture::newBuild("N"), own("A is so"));
    const std::string a = idOfLastOwn(b);
    b = with(b, own("B is so", { a }));
    const std::string second = idOfLastOwn(b);
    b = with(b, own("C is so", { second, "clean" }));
    OwnCheck again = own("A is so", { idOfLastOwn(b) });
    again.replaces = a;
    const auto done = applyEdit(b, AddEntry { again });
    QVERIFY(!done);
    QCOMPARE(QString::fromStdString(said(done.error().message)),
             QStringLiteral("would wait for itself: B is so, after A is so, after C is so, "
                            "after B is so"));
    again.after = { a };
    QVERIFY(!applyEdit(b, AddEntry { again })); // after itself
    again.after = { "clean" };
    QVERIFY(applyEdit(b, AddEntry { again }).has_value());
    QVERIFY(!applyEdit(b, AddEntry { own("  ") }));
    QVERIFY(!applyEdit(b, AddEntry { own("Said goodbye", { "sheet" }) }));
}

void TestLooks::own_goesAlongWithItsTemplate()
{
    QTemporaryDir home;
    qputenv("XDG_DATA_HOME", home.path().toUtf8());
    Build b = fixture::newBuild("N");
    QCOMPARE(b.fromTemplate, std::string("inline-four-wet-sump"));
    b = with(b, own("A is so"));
    const std::string a = idOfLastOwn(b);
    b = with(b, own("B is so", { a }));
    OwnCheck again = own("A is really so");
    again.replaces = a;
    b = with(b, again);
    QVERIFY(keepOwnChecks(b));
    Build next = loadTemplate("inline-four-wet-sump")->build;
    QCOMPARE(takeKeptChecks(next).value(), 2);
    next = fixture::withJob(next, "N");
    const Assessment is(next, "");
    QVERIFY(is.checks.find("own@" + a));
    QCOMPARE(is.checks.find("own@" + a)->kind->statement, std::string_view("A is really so"));
    QCOMPARE(is.checks.find("own@" + b.ownChecks[1].id)->after.size(), size_t(1));
    Build other = loadTemplate("flat-four")->build;
    QCOMPARE(takeKeptChecks(other).value(), 0);
    other.fromTemplate.clear();
    QVERIFY(!keepOwnChecks(other));
    // A damaged file is told, and nothing is lost by it.
    std::filesystem::resize_file(keptChecksFile(), 20);
    Build untouched = loadTemplate("inline-four-wet-sump")->build;
    QVERIFY(!takeKeptChecks(untouched));
    QVERIFY(untouched.ownChecks.empty());
    QVERIFY(!keepOwnChecks(b));
    qunsetenv("XDG_DATA_HOME");
}

void TestLooks::weights_ofPiecesAreAddedUp()
{
    Build b = fixture::newBuild("N");
    WeighedPart together;
    together.tolerance_g = 1;
    together.source = "shop";
    together.pieces = { "piston", "rod" };
    b = applyEdit(b, SetWeighedPart { "assembly", together }).value();
    for (int item = 1; item <= 4; ++item) {
        b = applyEdit(b, WeighPart { weighing("piston", item, 400 + item) }).value();
        b = applyEdit(b, WeighPart { weighing("rod", item, 600 - item) }).value();
    }
    const auto added = judgeWeights(b);
    const WeightSpread &sum = spreadOf(added, "assembly");
    QCOMPARE(sum.addedUp.size(), size_t(4));
    verifyClose(sum.spread_g, 0, 1e-12); // heavy pistons on light rods
    QVERIFY(sum.mark == Mark::Proven && spreadOf(added, "piston").mark == Mark::LookAgain);
    // On the scales as a whole it weighs what they say.
    b = applyEdit(b, WeighPart { weighing("assembly", 3, 1001.2) }).value();
    const auto weighed = judgeWeights(b);
    const WeightSpread &whole = spreadOf(weighed, "assembly");
    QVERIFY(!whole.addedUp.contains(3) && whole.heaviest == 3);
    QVERIFY(whole.mark == Mark::LookAgain);
    verifyClose(whole.spread_g, 1.2, 1e-9);
}

void TestLooks::weights_apartAreNotAsAsked()
{
    By by(fixture::newBuild("N"));
    by.as("A").person("A").person("B").says("asked");
    QCOMPARE(by.state("asked@engine"), QStringLiteral("proven"));
    by.change([](Build &b) {
        for (const auto &[item, grams] : { std::pair(1, 418.0), std::pair(2, 421.5) })
            b = applyEdit(b, WeighPart { weighing("piston", item, grams) }).value();
    });
    QCOMPARE(by.state("asked@engine"), QStringLiteral("look_again"));
    QCOMPARE(by.reason("asked@engine"),
             QStringLiteral("Pistons: 3.5 g apart, 2.0 g allowed: 2 is the heaviest, 1 the "
                            "lightest"));
    by.change([](Build &b) {
        b = applyEdit(b, SetWeighedPart { "piston", WeighedPart { 4.0, "maker", {}, {} } }).value();
    });
    QCOMPARE(by.state("asked@engine"), QStringLiteral("proven"));
}

void TestLooks::weights_areSetWithTheirSource_data()
{
    QTest::addColumn<QString>("part");
    QTest::addColumn<double>("tolerance");
    QTest::addColumn<double>("grams");
    QTest::addColumn<bool>("taken");
    QTest::newRow("a part in own words") << "Crank with flywheel" << 5.0 << 30000.0 << true;
    QTest::newRow("nothing named") << "  " << 5.0 << 30.0 << false;
    QTest::newRow("within nothing") << "rod" << 0.0 << 600.0 << false;
    QTest::newRow("within a kilogram and more") << "rod" << 1000.1 << 600.0 << false;
    QTest::newRow("weighs nothing") << "rod" << 2.0 << 0.0 << false;
    QTest::newRow("100 kg") << "rod" << 2.0 << 100000.0 << false;
    QTest::newRow("just under") << "rod" << 2.0 << 99999.0 << true;
}

void TestLooks::weights_areSetWithTheirSource()
{
    QFETCH(const QString, part);
    QFETCH(const double, tolerance);
    QFETCH(const double, grams);
    QFETCH(const bool, taken);
    const Build plain = fixture::newBuild("N");
    const WeighedPart about { tolerance, "maker's sheet", {}, {} };
    const auto done = applyEdit(plain, SetWeighedPart { part.toStdString(), about });
    const auto weighed = done
        ? applyEdit(*done, WeighPart { weighing(part.toStdString(), 1, grams) })
        : tl::unexpected(done.error());
    QCOMPARE(weighed.has_value(), taken);
    if (!taken)
        return;
    const auto weights = judgeWeights(*weighed);
    QCOMPARE(spreadOf(weights, part.toStdString()).source, std::string("maker's sheet"));
    // What was weighed stays in the list; what was not goes.
    QVERIFY(!applyEdit(*weighed, SetWeighedPart { part.toStdString(), {} }));
    const auto gone = applyEdit(*done, SetWeighedPart { part.toStdString(), {} });
    QVERIFY(gone && !gone->weighedParts.contains(part.toStdString()));
}

} // namespace tst_looks
MILDPATH_TEST(tst_looks, TestLooks)
} // namespace mildpath

#include "tst_looks.moc"
