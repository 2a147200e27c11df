// SPDX-License-Identifier: GPL-3.0-or-later
// The order of the work and its hours.
#include "checksfixture.h"
#include "clirun.h"
#include "plan/hours.h"
#include "plan/schedule.h"
#include "plan/workplan.h"
#include "report/daysheet.h"
#include "testing.h"

#include <QtTest>

#include <algorithm>
#include <random>
#include <set>

namespace mildpath {
namespace tst_plan {

using fixture::By;

class TestPlan : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void example_comesOutByTheMinute_data();
    void example_comesOutByTheMinute();
    void example_movesWithHoursAndWaits();
    void circle_isRefusedByName();
    void order_isThatOfTryingEverything();
    void hands_areNeverInTwoPlaces();
    void pace_isLearned();
    void pace_coversWhatItSays();
    void everyOpenCheck_isPlannedOrSaysWhy_data();
    void everyOpenCheck_isPlannedOrSaysWhy();
    void next_isDoneAndThenAnother();
    void timedWork_isTakenIn();
    void plan_isToldAsPublished();
    void daySheet_holdsOneDayOfEachPerson();
};

namespace {

/// The worked example of docs/theory/plan.md: 4 h a day from nine.
struct ExampleRow
{
    const char *id;
    double minutes, wait_d;
    std::vector<const char *> after;
    int stage;
};
const std::vector<ExampleRow> &exampleRows()
{
    static const std::vector<ExampleRow> rows {
        { "ask", 15, 5, {}, 1 },
        { "clean", 180, 0, {}, 2 },
        { "bore", 60, 0, { "clean" }, 3 },
        { "ptip", 60, 0, {}, 5 },
        { "back", 30, 0, { "ask" }, 1 },
        { "jrnl", 60, 0, { "back" }, 3 },
        { "shell", 15, 0, { "jrnl", "bore" }, 3 },
        { "hand", 5, 3, { "shell" }, 1 },
        { "clr", 120, 0, { "hand" }, 3 },
        { "final", 120, 0, { "clr", "clean" }, 2 },
        { "torq", 90, 0, { "final", "ptip" }, 4 },
        { "fire", 10, 0, { "torq" }, 9 },
    };
    return rows;
}

std::vector<WorkItem> example(double shop_d = 5)
{
    std::vector<WorkItem> out;
    for (const ExampleRow &r : exampleRows()) {
        WorkItem i;
        i.id = r.id;
        i.minutes = r.minutes;
        i.wait_d = i.id == "ask" ? shop_d : r.wait_d;
        for (const char *before : r.after)
            for (size_t k = 0; k < out.size(); ++k)
                if (out[k].id == before)
                    i.after.push_back(k);
        i.stage = r.stage;
        i.setup = i.row = static_cast<int>(out.size());
        out.push_back(std::move(i));
    }
    return out;
}

int below(std::mt19937 &random, unsigned most)
{
    return static_cast<int>(random() % most);
}

double at(int day, int hour, int minute)
{
    return day + (hour + minute / 60.0) / 24;
}

} // namespace

void TestPlan::example_comesOutByTheMinute_data()
{
    QTest::addColumn<double>("start");
    QTest::addColumn<double>("done");
    QTest::addColumn<double>("slack");
    QTest::newRow("ask") << at(0, 9, 0) << at(5, 9, 15) << 0.0;
    QTest::newRow("clean") << at(0, 9, 15) << at(0, 12, 15) << 4.4375;
    QTest::newRow("bore") << at(0, 12, 15) << at(1, 9, 15) << 4.4375;
    QTest::newRow("ptip") << at(1, 9, 15) << at(1, 10, 15) << 9.2708;
    QTest::newRow("back") << at(5, 9, 15) << at(5, 9, 45) << 0.0;
    QTest::newRow("jrnl") << at(5, 9, 45) << at(5, 10, 45) << 0.0;
    QTest::newRow("shell") << at(5, 10, 45) << at(5, 11, 0) << 0.0;
    QTest::newRow("hand") << at(5, 11, 0) << at(8, 11, 5) << 0.0;
    QTest::newRow("clr") << at(8, 11, 5) << at(9, 9, 5) << 0.0;
    QTest::newRow("final") << at(9, 9, 5) << at(9, 11, 5) << 0.0;
    QTest::newRow("torq") << at(9, 11, 5) << at(9, 12, 35) << 0.0;
    QTest::newRow("fire") << at(9, 12, 35) << at(9, 12, 45) << 0.0;
}

void TestPlan::example_comesOutByTheMinute()
{
    QFETCH(double, start);
    QFETCH(double, done);
    QFETCH(double, slack);
    const auto items = example();
    const std::vector<WorkHand> hands { { "A", 4, 9 } };
    const auto plan = schedule(items, hands);
    QVERIFY(plan.has_value());
    const auto row = std::ranges::find(items, QTest::currentDataTag(), &WorkItem::id);
    const WorkTime &t = plan->times[static_cast<size_t>(row - items.begin())];
    verifyClose(t.start_d, start, 0, 1e-6);
    verifyClose(t.done_d, done, 0, 1e-6);
    verifyClose(t.slack_d.value(), slack, 0, 1e-3);
}

void TestPlan::example_movesWithHoursAndWaits()
{
    const auto fires = [](const std::vector<WorkItem> &items, std::vector<WorkHand> hands) {
        const auto plan = schedule(items, hands);
        return plan ? plan->times.back().done_d : -1;
    };
    verifyClose(fires(example(), { { "A", 7, 9 } }), at(9, 9, 45), 0, 1e-6);
    verifyClose(fires(example(1), { { "A", 4, 9 } }), at(5, 12, 45), 0, 1e-6);
    // A day that was promised stands before the usual one.
    auto promised = example();
    promised[0].due_d = at(7, 9, 0);
    verifyClose(fires(promised, { { "A", 4, 9 } }), at(11, 12, 30), 0, 1e-6);
    // A second pair of hands never makes it later.
    QVERIFY(fires(example(), { { "A", 4, 9 }, { "B", 4, 9 } }) <= at(9, 12, 45) + 1e-9);
    auto given = example();
    given[3].who = "B";
    QVERIFY(!schedule(given, std::vector<WorkHand> { { "A", 4, 9 } }));
    QVERIFY(!schedule(given, {}));
    QCOMPARE(schedule(given, std::vector<WorkHand> { { "A", 4, 9 }, { "B", 4, 9 } })->times[3].hand,
             size_t(1));
}

void TestPlan::circle_isRefusedByName()
{
    auto items = example();
    items[1].after.push_back(9); // clean after final, which is after clean
    const auto plan = schedule(items, std::vector<WorkHand> { { "A", 4, 9 } });
    QVERIFY(!plan);
    QVERIFY(plan.error().place == "clean" || plan.error().place == "final"
            || plan.error().place == "bore");
}

/// On small graphs: no order that keeps one pair of hands busy ends sooner by more than the rules
/// of thumb cost, and ours is one of them.
void TestPlan::order_isThatOfTryingEverything()
{
    std::mt19937 random(20261130);
    for (int round = 0; round < 200; ++round) {
        std::vector<WorkItem> items(6);
        for (size_t i = 0; i < items.size(); ++i) {
            items[i].id = std::string(1, static_cast<char>('a' + i));
            items[i].minutes = 30.0 * (1 + below(random, 4));
            items[i].wait_d = below(random, 4) == 0 ? 1.0 + below(random, 3) : 0;
            items[i].row = static_cast<int>(i);
            for (size_t k = 0; k < i; ++k)
                if (random() % 3 == 0)
                    items[i].after.push_back(k);
        }
        const WorkHand hand { "A", 8, 8 };
        const auto ours = schedule(items, std::vector { hand });
        QVERIFY(ours.has_value());
        // Every order by trying: each row as soon as it can be, one after the other.
        std::vector<size_t> order { 0, 1, 2, 3, 4, 5 };
        double best = 1e9;
        do {
            std::vector<double> done(items.size(), -1);
            double free = 0, end = 0;
            bool valid = true;
            for (const size_t i : order) {
                double ready = free;
                for (const size_t before : items[i].after) {
                    valid = valid && done[before] >= 0;
                    ready = std::max(ready, done[before]);
                }
                if (!valid)
                    break;
                free = afterHands_d(ready, items[i].minutes, hand);
                done[i] = free + items[i].wait_d;
                end = std::max(end, done[i]);
            }
            if (valid)
                best = std::min(best, end);
        } while (std::next_permutation(order.begin(), order.end()));
        QVERIFY2(ours->end_d >= best - 1e-9, "sooner than any order there is");
        QVERIFY2(ours->end_d <= best + 1.01, qPrintable(QString::number(round)));
    }
}

void TestPlan::hands_areNeverInTwoPlaces()
{
    std::mt19937 random(7);
    for (int round = 0; round < 50; ++round) {
        std::vector<WorkItem> items(40);
        for (size_t i = 0; i < items.size(); ++i) {
            items[i].id = "r" + std::to_string(i);
            items[i].minutes = below(random, 90);
            items[i].wait_d = random() % 9 == 0 ? 2 : 0;
            items[i].setup = below(random, 5);
            items[i].place = below(random, 9);
            items[i].stage = static_cast<int>(i / 10);
            if (random() % 4 == 0)
                items[i].who = random() % 2 ? "A" : "B";
            for (size_t k = 0; k < i; ++k)
                if (random() % 12 == 0)
                    items[i].after.push_back(k);
        }
        const std::vector<WorkHand> hands { { "A", 4, 9 }, { "B", 6, 13 } };
        const auto plan = schedule(items, hands);
        QVERIFY(plan.has_value());
        QCOMPARE(plan->order.size(), items.size());
        std::vector<double> free(hands.size(), 0);
        for (const size_t i : plan->order) {
            const WorkTime &t = plan->times[i];
            for (const size_t before : items[i].after)
                QVERIFY(plan->times[before].done_d <= t.start_d + 1e-9);
            QVERIFY(items[i].who.empty() || items[i].who == hands[t.hand].name);
            QVERIFY2(free[t.hand] <= t.start_d + 1e-9, items[i].id.c_str());
            free[t.hand] = t.hands_d;
            const double hour = (t.start_d - std::floor(t.start_d)) * 24;
            QVERIFY(hour >= hands[t.hand].from_h - 1e-6
                    && hour <= hands[t.hand].from_h + hands[t.hand].hours_d + 1e-6);
        }
        const auto again = schedule(items, hands);
        QCOMPARE(again->order, plan->order);
    }
}

void TestPlan::pace_isLearned()
{
    std::vector<TimedWork> timed(12, { "clean", 7.5, 5 });
    timed.insert(timed.end(), 5, { "clr", 7.2, 8 });
    const PaceModel pace(timed);
    verifyClose(pace.builder(), 0.0926, 0, 1e-4);
    const double jobs = std::exp(0.3 * 0.3 / 2);
    verifyClose(pace.factor("clean") / jobs, 1.479, 1e-3);
    verifyClose(pace.factor("clr") / jobs, 0.918, 1e-3);
    verifyClose(pace.factor("torq") / std::exp(0.125), 1.097, 1e-3);
    std::vector<WorkToDo> work { { "clean", 5, 40 }, { "clr", 8, 9 } };
    for (int k = 0; k < 10; ++k)
        work.push_back({ "k" + std::to_string(k), 15, 8 });
    const HoursRange before = PaceModel({}).hours(work), after = pace.hours(work);
    verifyClose(before.likely_h, 27.8, 2e-3);
    verifyClose(before.low_h, 15.4, 3e-3);
    verifyClose(before.high_h, 50.2, 3e-3);
    verifyClose(after.likely_h, 31.2, 2e-3);
    verifyClose(after.low_h, 22.2, 3e-3);
    verifyClose(after.high_h, 43.8, 3e-3);
}

/// Builders drawn anew, quick and slow ones: what is left takes as long as was said, nine in ten.
void TestPlan::pace_coversWhatItSays()
{
    std::mt19937 random(11);
    std::normal_distribution<double> normal;
    for (const double speed : { -0.35, 0.0, 0.35 }) {
        constexpr int builders = 600;
        int within = 0;
        for (int b = 0; b < builders; ++b) {
            const double own = speed + 0.1 * normal(random);
            std::map<std::string, double> kinds;
            for (int k = 0; k < 20; ++k)
                kinds["k" + std::to_string(k)] = 0.40 * normal(random);
            const auto took = [&](const std::string &kind, double usual) {
                return usual * std::exp(own + kinds[kind] + 0.30 * normal(random));
            };
            std::vector<TimedWork> timed;
            for (int k = 0; k < 8; ++k)
                for (int n = 0; n < 4; ++n) {
                    const std::string kind = "k" + std::to_string(k);
                    timed.push_back({ kind, took(kind, 10), 10 });
                }
            std::vector<WorkToDo> work;
            double minutes = 0;
            for (int k = 0; k < 20; ++k) {
                const std::string kind = "k" + std::to_string(k);
                work.push_back({ kind, 10, 6 });
                for (int n = 0; n < 6; ++n)
                    minutes += took(kind, 10);
            }
            const HoursRange said = PaceModel(timed).hours(work);
            within += minutes / 60 >= said.low_h && minutes / 60 <= said.high_h;
        }
        const double share = static_cast<double>(within) / builders;
        QVERIFY2(share >= 0.85 && share <= 0.95,
                 qPrintable(QStringLiteral("speed %1: %2").arg(speed).arg(share)));
    }
}

void TestPlan::everyOpenCheck_isPlannedOrSaysWhy_data()
{
    QTest::addColumn<QString>("name");
    QTest::addColumn<QString>("job");
    for (const char *name : { "inline-four-wet-sump", "v12-one-cam", "flat-six-dry-sump" })
        for (const char *job : { "N", "R", "D" })
            QTest::addRow("%s, %s", name, job) << name << job;
}

void TestPlan::everyOpenCheck_isPlannedOrSaysWhy()
{
    QFETCH(QString, name);
    QFETCH(QString, job);
    By b(fixture::newBuild(job.toStdString(), false, name.toStdString()));
    for (const char *kind : { "job", "number", "oldcut", "tools", "card", "plugout" })
        b.says(kind);
    const CheckList &list = b.list();
    const WorkPlan plan = planOf(b.build(), list, "2026-03-21T09:00");
    QVERIFY(!plan.problem);
    std::set<std::string> ids;
    for (const PlannedCheck &r : plan.rows) {
        QVERIFY2(ids.insert(r.check->id()).second, "planned twice");
        QVERIFY(r.check->asked && r.check->isOpen());
        QCOMPARE(r.now, r.waitsFor.empty());
        for (const size_t before : r.check->after) {
            const Check &c = list.all()[before];
            if (const PlannedCheck *p = plan.find(c.id()))
                QVERIFY(p->time.done_d <= r.time.start_d + 1e-9);
        }
        for (const Check *root : r.waitsFor)
            QVERIFY(plan.find(root->id())->now);
    }
    for (const Check &c : list.all())
        QCOMPARE(ids.contains(c.id()), c.asked && c.isOpen());
    QVERIFY(plan.next() && plan.start_d.has_value());
    QVERIFY(plan.start_d->low_h <= plan.start_d->likely_h
            && plan.start_d->likely_h <= plan.start_d->high_h);
}

void TestPlan::next_isDoneAndThenAnother()
{
    By b(fixture::newBuild("N"));
    const auto next = [&] {
        const WorkPlan plan = planOf(b.build(), b.list(), "2026-03-21T09:00");
        return plan.next() ? plan.next()->check->id() : std::string();
    };
    const std::string first = next();
    QVERIFY(!first.empty());
    b.says(first.substr(0, first.find('@')).c_str());
    QVERIFY(next() != first);
}

void TestPlan::timedWork_isTakenIn()
{
    By b(fixture::newBuild("N"));
    Build build = b.build();
    const WorkPlan before = planOf(build, b.list(), "2026-03-21T09:00");
    QCOMPARE(before.timed, 0);
    QVERIFY(!before.showsHours());
    for (const char *id : { "t1", "t2", "t3" }) {
        CheckEntry e;
        e.id = id;
        e.places = { std::string("main_") + id[1] };
        e.kind = "tang";
        e.by = "J. Moor";
        e.at = "2026-03-20T10:00:00";
        e.minutes = 9; // three times the usual
        build.checkEntries.push_back(e);
    }
    const WorkPlan after = planOf(build, b.list(), "2026-03-21T09:00");
    QCOMPARE(after.timed, 3);
    QVERIFY(after.showsHours());
    QVERIFY(after.hours.likely_h > before.hours.likely_h);
    // All of a kind in one entry: each took its share.
    CheckEntry family = build.checkEntries.back();
    build.checkEntries = {};
    for (const char *id : { "t1", "t2" }) {
        family.id = id;
        family.places.clear();
        family.minutes = 27; // nine places, each as usual
        build.checkEntries.push_back(family);
    }
    const WorkPlan usual = planOf(build, b.list(), "2026-03-21T09:00");
    verifyClose(usual.hours.likely_h, before.hours.likely_h, 0.1);
    const double was = before.hours.high_h / before.hours.low_h;
    QVERIFY(after.hours.high_h / after.hours.low_h < was);
}

void TestPlan::plan_isToldAsPublished()
{
    const QString file = QString::fromStdString(demoBuildPath().string());
    const Json out = run({ QStringLiteral("plan"), file, QStringLiteral("--json"),
                           QStringLiteral("--now"), QStringLiteral("2026-04-01T09:00") })
                         .json();
    QVERIFY(out["next"].is_string());
    QVERIFY(out["rows"].size() > 50);
    for (const Json &r : out["rows"])
        QCOMPARE(r["now"].get<bool>(), r["waits_for"].empty());
    const auto text = run({ QStringLiteral("plan"), file, QStringLiteral("--hours") });
    QCOMPARE(text.code, 0);
    QVERIFY(text.out.contains("Next: ") && text.out.contains("Hands left: about"));
    // Hours are nobody's guess: on a fresh build they are told only when they are asked for.
    const QString fresh = QString::fromStdString(
        (dataFolder() / "templates" / "inline-four-wet-sump.json").string());
    QVERIFY(!run({ QStringLiteral("plan"), fresh }).out.contains("Hands left"));
    QCOMPARE(
        run({ QStringLiteral("plan"), file, QStringLiteral("--now"), QStringLiteral("tomorrow") })
            .code,
        2);
}

void TestPlan::daySheet_holdsOneDayOfEachPerson()
{
    By b(fixture::newBuild("N"));
    b.person("A. Reed").person("B. Holt");
    const WorkPlan plan = planOf(b.build(), b.list(), "2026-03-21T09:00");
    QCOMPARE(plan.hands.size(), size_t(2));
    const auto days = daysOfWork(plan);
    QCOMPARE(days.size(), size_t(2));
    for (const DayOfWork &d : days) {
        QVERIFY(!d.rows.empty());
        double before = 0;
        for (const PlannedCheck *r : d.rows) {
            QVERIFY(r->time.start_d >= before && r->time.start_d < 1);
            before = r->time.start_d;
        }
        QVERIFY(d.minutes > 60); // four hours each, the last may go on tomorrow
    }
    const std::string html = sheetToHtml(daySheet(b.build(), plan, "2026-03-21", {}), Paper::A4);
    for (const char *word : { "A. Reed", "B. Holt", "21 Mar", "qualified shop" })
        QVERIFY2(html.find(word) != std::string::npos, word);
    QVERIFY(html.find(std::string(days[0].rows[0]->check->place.name)) != std::string::npos);
    // Nothing left to do: said, and no heading over nothing.
    WorkPlan done = plan;
    done.rows.clear();
    QVERIFY(daysOfWork(done).empty());
    QVERIFY(
        sheetToHtml(daySheet(b.build(), done, "2026-03-21", {}), Paper::A4).find("Nothing is open")
        != std::string::npos);
}

} // namespace tst_plan
MILDPATH_TEST(tst_plan, TestPlan)
} // namespace mildpath

#include "tst_plan.moc"
