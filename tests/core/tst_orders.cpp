// SPDX-License-Identifier: GPL-3.0-or-later
// What is to buy and to send, what is under way, and how the plan takes it.
#include "checks/buying.h"
#include "checksfixture.h"
#include "clirun.h"
#include "plan/orders.h"
#include "plan/timed.h"
#include "plan/workplan.h"
#include "quantity/dates.h"
#include "report/daysheet.h"
#include "testing.h"

#include <QtTest>

#include <algorithm>

namespace mildpath {
namespace tst_orders {

using fixture::By;

class TestOrders : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void days_areTypedAndTold_data();
    void days_areTypedAndTold();
    void alikeThings_areOneRow();
    void shellsOfOneClass_areSummedOverTheFamily();
    void rows_areWantedOnlyWhereAChecksAsks();
    void ordered_isUnderWayUntilItCame();
    void orderedTooLittle_wantsAnotherLook();
    void lateOrder_isTheNextThing();
    void sheet_isOutOnceItWasSent();
    void promisedDay_standsBeforeTheUsual();
    void sheets_goTogether();
    void ownThing_keepsItsRow();
    void list_isToldAsPublished();
    void orders_areCheckedAsTheyAreRead();
    void clock_cutsPausesAndTypedTimesWin();
    void machining_saysWhatFallsBack();
};

namespace {

constexpr const char *today = "2026-01-05";

struct Seen
{
    explicit Seen(Build b, const std::string &day = today)
        : build(std::make_unique<const Build>(std::move(b)))
        , assessment(*build, day)
        , plan(planOf(*build, assessment.checks, day + "T08:00"))
        , orders(ordersOf(*build, assessment, assessment.checks, plan))
    {
    }
    const ToBuy *row(const std::string &id) const
    {
        const auto at = std::ranges::find(orders.buy, id, [](const ToBuy &b) { return b.row.id; });
        return at == orders.buy.end() ? nullptr : &*at;
    }
    const Check *check(const char *id) const { return assessment.checks.find(id); }

    const std::unique_ptr<const Build> build;
    const Assessment assessment;
    WorkPlan plan;
    Orders orders;
};

Order ordered(const std::string &row, const char *at, const char *promised = "")
{
    Order o;
    o.row = row;
    o.by = "A";
    o.at = at;
    o.from = "the harbour store";
    o.promised = promised;
    return o;
}

Build with(const Build &build, LogEntry entry)
{
    const auto done = applyEdit(build, AddEntry { std::move(entry) });
    return done ? *done : build;
}

/// A new build of the iron four whose mains were gauged with the same shells, all of one class.
Build withShells()
{
    Build b = fixture::newBuild("N");
    for (const char *family : { "main", "big_end" }) {
        ShellStock stock;
        stock.shells.push_back({ "green", 2.0, std::nullopt });
        for (const Stop &s : b.engine.stops)
            if (s.kind == (std::string(family) == "main" ? StopKind::Main : StopKind::BigEnd)) {
                stock.fitted[s.id] = { "green", "green", "", "" };
                Reading r;
                r.id = "r" + std::to_string(b.readings.size() + 1);
                r.stop = s.id;
                r.family = family;
                r.value_um = 55;
                r.at = "2026-01-02T09:00:00";
                b.readings.push_back(r);
            }
        b.shells[family] = stock;
    }
    return b;
}

} // namespace

void TestOrders::days_areTypedAndTold_data()
{
    QTest::addColumn<QString>("typed");
    QTest::addColumn<QString>("day"); // empty: refused
    QTest::newRow("iso") << "2026-03-01"
                         << "2026-03-01";
    QTest::newRow("in days") << "5"
                             << "2026-03-03";
    QTest::newRow("today") << "0"
                           << "2026-02-26";
    QTest::newRow("over a leap-less end") << "3"
                                          << "2026-03-01";
    QTest::newRow("no such day") << "2026-02-30"
                                 << "";
    QTest::newRow("a word") << "Friday"
                            << "";
    QTest::newRow("before") << "-2"
                            << "";
    QTest::newRow("with a tail") << "5 weeks"
                                 << "";
}

void TestOrders::days_areTypedAndTold()
{
    QFETCH(QString, typed);
    QFETCH(QString, day);
    const auto got = dayFrom(typed.toStdString(), "2026-02-26");
    QCOMPARE(got.has_value(), !day.isEmpty());
    if (!got)
        return;
    QCOMPARE(*got, day.toStdString());
    QVERIFY(isDay(*got));
    // The week day is the calendar's.
    const QDate date = QDate::fromString(day, Qt::ISODate);
    QCOMPARE(QString::fromStdString(nearDayText(*got)),
             QLocale(QLocale::English).toString(date, QStringLiteral("ddd d MMM")));
    QCOMPARE(*daysBetween("2026-02-26", *got), QDate(2026, 2, 26).daysTo(date));
}

void TestOrders::alikeThings_areOneRow()
{
    const Seen seen(fixture::newBuild("N"));
    // Plugs of one kind and bore are one row; together they are every plug.
    double plugs = 0;
    std::set<std::string> ids;
    for (const BuyRow &r : buyRowsOf(*seen.build, seen.assessment)) {
        QVERIFY2(ids.insert(r.id).second, r.id.c_str());
        QVERIFY(r.count > 0 && !r.what.empty() && findCheckKind(r.check));
        if (r.check == "plugin")
            plugs += r.count;
    }
    QCOMPARE(plugs, static_cast<double>(seen.build->plugs.size()));
    // The bolts of a card that stretch: as many as it has.
    for (const TorqueCard &c : seen.build->torqueCards) {
        const ToBuy *row = seen.row("bolts_" + c.id);
        QCOMPARE(row != nullptr, c.singleUse());
        if (row)
            QCOMPARE(row->row.count, static_cast<double>(c.fasteners.size()));
    }
    // Oil: the fill and the filter's.
    const ToBuy *oil = nullptr;
    for (const ToBuy &b : seen.orders.buy)
        if (b.row.litres)
            oil = &b;
    QVERIFY(oil);
    verifyClose(oil->row.count,
                *seen.build->sump.own("fill_l") + *seen.build->start.value("filter_l"), 1e-12);
}

void TestOrders::shellsOfOneClass_areSummedOverTheFamily()
{
    const Build build = withShells();
    const Seen seen(build);
    const ToBuy *mains = seen.row("shells_main_green"), *rods = seen.row("shells_big_end_green");
    QVERIFY(mains && rods);
    QCOMPARE(mains->row.count, 10.0); // five mains, two halves each
    QCOMPARE(rods->row.count, 8.0);
    QVERIFY(said(buyLine(mains->row)).find("10 × Main bearing half shells, green") == 0);
    // After a failure: the halves of the bearings it reaches, still one row a class.
    BearingFailure f;
    f.stop = "main_2";
    f.at = "2026-01-03T09:00:00";
    const Build failed = with(build, f);
    const auto after = boughtAfterFailure(failed, Figures(failed));
    int rows = 0;
    for (const BuyRow &r : after)
        rows += r.id.starts_with("shells_");
    QVERIFY(rows >= 1 && rows <= 2);
}

void TestOrders::rows_areWantedOnlyWhereAChecksAsks()
{
    // An oil change asks for oil and a filter, and for no shells.
    const Seen change(fixture::newBuild("O"));
    QVERIFY(!change.row("shells_main") && !change.row("seals_crank"));
    QVERIFY(std::ranges::any_of(change.orders.buy, [](const ToBuy &b) { return b.row.litres; }));
    const Seen fresh(fixture::newBuild("N"));
    const ToBuy *shells = fresh.row("shells_main");
    QVERIFY(shells && shells->restsOn); // which class nobody can know yet
    QCOMPARE(shells->restsOn->kind->id, std::string_view("shell"));
    QVERIFY(said(shells->size()).find("class not chosen yet") != std::string::npos);
    // What was proven is wanted no longer.
    By by(fixture::newBuild("N"));
    by.as("A").says("filt");
    QVERIFY(!Seen(by.build()).row("filter_filter"));
}

void TestOrders::ordered_isUnderWayUntilItCame()
{
    const Build fresh = fixture::newBuild("N");
    QVERIFY(!Seen(fresh).check("hand@ring_pickup")); // only what somebody wrote down
    const ToBuy *ring = nullptr;
    const Seen before(fresh);
    for (const ToBuy &b : before.orders.buy)
        if (b.row.check == "kring")
            ring = &b;
    QVERIFY(ring);
    Order o = orderFor(*ring);
    o.at = "2026-01-03T10:00:00";
    const std::string id = "hand@" + o.row;
    const Build out = with(fresh, o);
    const Seen seen(out);
    const Check *hand = seen.check(id.c_str());
    QVERIFY(hand && hand->asked && hand->state == CheckState::NotDone);
    QCOMPARE(hand->due, std::string("2026-01-06")); // three days, as usual
    QVERIFY(!hand->promised);
    const PlannedCheck *row = seen.plan.find(*hand);
    QVERIFY(row && !row->now);
    QVERIFY(row->time.start_d >= 1); // not before the day it is due
    QVERIFY(said(waitText(*row)).find("due Tue 6 Jan") != std::string::npos);
    // The ring's own check waits for it, and for what.
    const PlannedCheck *fitted = seen.plan.find("kring@" + ring->row.places.front());
    QVERIFY(fitted && !fitted->now);
    QVERIFY(std::ranges::find(fitted->waitsFor, hand) != fitted->waitsFor.end());
    // It came: somebody counted it.
    CheckEntry came;
    came.kind = "hand";
    came.places = { o.row };
    came.by = "A";
    came.at = "2026-01-05T09:00:00";
    const Seen after(with(out, came));
    QVERIFY(after.check(id.c_str())->state == CheckState::Proven);
    QCOMPARE(said(after.row(o.row)->state()), std::string("in hand"));
    // Ordered again, it is another lot.
    Order again = orderFor(*after.row(o.row));
    again.at = "2026-01-05T10:00:00";
    QVERIFY(Seen(with(with(out, came), again)).check(id.c_str())->state != CheckState::Proven);
}

void TestOrders::orderedTooLittle_wantsAnotherLook()
{
    const Build build = withShells();
    Order o = orderFor(*Seen(build).row("shells_main_green"));
    o.at = "2026-01-03T10:00:00";
    o.count = 8;
    const Seen few(with(build, o));
    const Check *hand = few.check("hand@shells_main_green");
    QVERIFY(hand && hand->state == CheckState::LookAgain);
    QCOMPARE(said(hand->reason), std::string("10 wanted now, 8 ordered"));
    o.count = 10;
    QVERIFY(Seen(with(build, o)).check("hand@shells_main_green")->state == CheckState::NotDone);
    // Another class is chosen since: what was ordered is not wanted any more.
    Build other = with(build, o);
    other.shells["main"].shells.front().name = "blue";
    for (auto &[stop, fitted] : other.shells["main"].fitted)
        fitted.upper = fitted.lower = "blue";
    QVERIFY(Seen(other).check("hand@shells_main_green")->state == CheckState::LookAgain);
}

void TestOrders::lateOrder_isTheNextThing()
{
    const Build build = fixture::newBuild("N");
    const Seen before(build);
    Order o = orderFor(*before.row("seals_crank"));
    o.at = "2026-01-02T10:00:00";
    o.from = "the harbour store";
    o.promised = "2026-01-04";
    const Seen seen(with(build, o));
    const PlannedCheck *next = seen.plan.next();
    QVERIFY(next && next->late);
    QCOMPARE(next->check->id(), std::string("hand@seals_crank"));
    QCOMPARE(said(next->check->next),
             std::string("Ring the harbour store: Crank seals, front and rear was due Sun 4 Jan"));
    // On the day itself nobody rings yet.
    QVERIFY(!Seen(with(build, o), "2026-01-04").plan.next()->late);
    // A new promise ends it.
    Order moved = o;
    moved.replaces = with(build, o).orders.back().id;
    moved.promised = "2026-01-09";
    QVERIFY(!Seen(with(with(build, o), moved)).plan.next()->late);
}

void TestOrders::sheet_isOutOnceItWasSent()
{
    ShopJob j;
    j.job = "grind_pins";
    j.by = "A";
    j.at = "2026-01-02T09:00:00";
    const Build written = with(fixture::newBuild("N"), j);
    const std::string id = written.shopJobs.back().id;
    const Seen seen(written);
    QVERIFY(seen.check(("ask@" + id).c_str())->state == CheckState::NotDone);
    const Build sent = with(written, ordered(id, "2026-01-03T09:00:00", "2026-01-12"));
    const Seen out(sent);
    QVERIFY(out.check(("ask@" + id).c_str())->state == CheckState::Proven);
    const Check *back = out.check(("back@" + id).c_str());
    QVERIFY(back->state == CheckState::NotDone && back->promised);
    QCOMPARE(back->due, std::string("2026-01-12"));
    QVERIFY(!out.plan.find(*back)->now);
    QVERIFY(said(out.orders.send.front().state()).find("at the shop") == 0);
    QVERIFY(!out.check(("hand@" + id).c_str())); // a job is no thing to buy
    // It came back: the entry changes, its checks keep their names.
    ShopJob home = sent.shopJobs.back();
    home.replaces = home.id;
    home.event = "-";
    home.at = "2026-01-04T09:00:00";
    const Seen done(with(sent, home));
    QVERIFY(done.check(("back@" + id).c_str())->state == CheckState::Proven);
}

void TestOrders::promisedDay_standsBeforeTheUsual()
{
    ShopJob j;
    j.job = "bore_mains";
    j.at = "2026-01-02T09:00:00";
    j.by = "A";
    const Build written = with(fixture::newBuild("N"), j);
    const std::string id = written.shopJobs.back().id;
    const auto startWith = [&](const char *promised) {
        return Seen(with(written, ordered(id, "2026-01-05T07:00:00", promised)))
            .plan.start_d->likely_h;
    };
    const double usual = startWith(""); // eight days
    QVERIFY(startWith("2026-02-20") > usual + 20);
    QVERIFY(startWith("2026-01-06") <= usual);
    // Waits nobody promised are as likely shorter as longer; a promised one is what it is.
    const Seen open(with(written, ordered(id, "2026-01-05T07:00:00", "2026-02-20")));
    QVERIFY(open.plan.start_d->low_h >= 46);
}

void TestOrders::sheets_goTogether()
{
    Build b = fixture::newBuild("F");
    for (const char *job : { "grind_pins", "bore_mains" }) {
        ShopJob j;
        j.job = job;
        j.by = "A";
        j.at = "2026-01-02T09:00:00";
        b = with(b, j);
    }
    const Seen seen(b);
    QCOMPARE(seen.orders.send.size(), size_t(2));
    // Both lack the same: caps and rods are to be numbered first.
    QVERIFY(!seen.orders.send.front().ready);
    By by(b);
    by.as("A").person("A").says("number").says("plugout");
    const Seen ready(by.build());
    QVERIFY(ready.orders.send[0].ready && ready.orders.send[1].ready);
    QVERIFY(said(ready.orders.together).find("together, now") != std::string::npos);
    // One sent, the other goes by itself.
    const Build one = with(by.build(), ordered(ready.orders.send[0].id, "2026-01-04T09:00:00"));
    QVERIFY(Seen(one).orders.together.empty());
}

void TestOrders::ownThing_keepsItsRow()
{
    Build b = fixture::newBuild("N");
    Order o;
    o.row = ownRowId(b, "Feeler blades, new");
    QCOMPARE(o.row, std::string("own_feeler_blades__new"));
    o.state = "wanted";
    o.what = "Feeler blades, new";
    o.at = "2026-01-02T09:00:00";
    b = with(b, o);
    QVERIFY(ownRowId(b, "Feeler blades, new") != o.row);
    const Seen seen(b);
    QVERIFY(seen.row(o.row));
    const Check *hand = seen.check(("hand@" + o.row).c_str());
    QVERIFY(hand && hand->due.empty());
    QVERIFY(seen.plan.find(*hand)->now); // it can be ordered
    QVERIFY(said(hand->reason).find("to be ordered") == 0);
}

void TestOrders::list_isToldAsPublished()
{
    const Seen seen(withShells());
    const auto table = ordersTable(seen.orders);
    for (const auto &row : table)
        QCOMPARE(row.size(), table.front().size());
    QCOMPARE(table.size(), 1 + seen.orders.buy.size() + seen.orders.send.size());
    const std::string text = ordersText(seen.orders, fileStyle);
    for (const ToBuy &b : seen.orders.buy)
        QVERIFY2(text.find(b.row.what) != std::string::npos, b.row.what.c_str());
    const Json json = ordersToJson(seen.orders);
    QCOMPARE(json["buy"].size(), seen.orders.buy.size());
    // On paper: a row for each, wide as a page.
    const BuildSheet sheet = orderSheet(*seen.build, seen.orders, "2026-01-05", {});
    size_t rows = 0;
    for (const SheetBlock &b : sheet.blocks)
        if (const auto *t = std::get_if<SheetTable>(&b)) {
            rows += t->rows.size();
            double wide = 0;
            for (const double w : t->widths)
                wide += w;
            verifyClose(wide, 1, 1e-9);
            for (const auto &row : t->rows)
                QCOMPARE(row.size(), t->head.size());
        }
    QCOMPARE(rows, seen.orders.buy.size() + seen.orders.send.size());
    // The program tells the same.
    const auto told = run(
        { QStringLiteral("orders"), QString::fromStdString(demoBuildPath().string()),
          QStringLiteral("--csv"), QStringLiteral("--now"), QStringLiteral("2026-03-21T08:30") });
    QCOMPARE(told.code, 0);
    QVERIFY(told.out.startsWith("kind,row,what,size,count,unit,latest,state,from,promised"));
    QCOMPARE(run({ QStringLiteral("orders"), QStringLiteral("nowhere.mildpath") }).code, 3);
}

void TestOrders::orders_areCheckedAsTheyAreRead()
{
    Build b = fixture::newBuild("N");
    Order o = ordered("oil", "2026-01-02T09:00:00", "next week");
    const auto refused = applyEdit(b, AddEntry { o });
    QVERIFY(!refused);
    QVERIFY2(said(refused.error().message).find("next week") != std::string::npos,
             said(refused.error().message).c_str());
    o.promised.clear();
    o.row = "  ";
    QVERIFY(!applyEdit(b, AddEntry { o }));
}

void TestOrders::clock_cutsPausesAndTypedTimesWin()
{
    Build b = fixture::newBuild("N");
    for (const char *at : { "2026-01-02T10:00:00", "2026-01-02T10:04:00", "2026-01-02T10:50:00",
                            "2026-01-02T10:55:30" }) {
        Reading r;
        r.id = "r" + std::to_string(b.readings.size() + 1);
        r.stop = "main_3";
        r.family = "main";
        r.station = static_cast<int>(b.readings.size()) + 1;
        r.value_um = 50;
        r.at = at;
        b.readings.push_back(r);
    }
    const Seen seen(b);
    const auto taken = handsTaken(*seen.build, seen.assessment.checks, *seen.check("clr@main_3"));
    QVERIFY(taken && !taken->typed);
    verifyClose(taken->minutes, 4 + 5.5, 1e-9); // the pause of 46 min is none
    QVERIFY(!handsTaken(*seen.build, seen.assessment.checks, *seen.check("clr@main_2")));
    QCOMPARE(timedWork(*seen.build, seen.assessment.checks).size(), size_t(1));
    TimeTaken t;
    t.checks = { "clr@main_3", "clr@main_2" };
    t.minutes = 30;
    const Seen typed(with(b, t));
    const auto half = handsTaken(*typed.build, typed.assessment.checks, *typed.check("clr@main_3"));
    QVERIFY(half && half->typed);
    verifyClose(half->minutes, 15, 1e-12);
    QCOMPARE(typed.plan.timed, 1); // one time, though two places shared it
}

void TestOrders::machining_saysWhatFallsBack()
{
    By by(fixture::newBuild("N"));
    by.as("A").person("A").person("B").says("number");
    Build b = by.build();
    const std::vector<Plug> plugs = b.plugs; // each edit makes the document anew
    for (const Plug &p : plugs) {
        CleanEvent out;
        out.kind = "plug_out";
        out.scope = "plug";
        out.target = p.id;
        out.by = "A";
        out.at = "2026-01-02T09:00:00";
        b = with(b, out);
    }
    for (const char *kind : { "brush", "look" }) {
        CleanEvent e;
        e.kind = kind;
        e.scope = "all";
        e.result = kind == std::string("brush") ? "white" : "through";
        e.means = kind == std::string("look") ? "light" : "";
        e.by = "A";
        e.at = "2026-01-02T10:00:00";
        b = with(b, e);
    }
    CleanEvent cut;
    cut.kind = "machining";
    cut.scope = "job";
    cut.target = "bore_mains";
    cut.by = "A";
    cut.at = "2026-01-03T10:00:00";
    const Seen before(b), after(with(b, cut));
    const auto back = fallenBack(before.assessment.checks, after.assessment.checks);
    int proven = 0;
    for (const Check &c : before.assessment.checks.all())
        if (c.asked && !c.isOpen()) {
            const Check *then = after.check(c.id().c_str());
            const bool listed = std::ranges::find(back, c.id()) != back.end();
            QCOMPARE(listed, then->asked && then->isOpen());
            ++proven;
        }
    QVERIFY2(proven > 10 && !back.empty(), qPrintable(QString::number(proven)));
    QVERIFY(fallenBack(before.assessment.checks, before.assessment.checks).empty());
}

} // namespace tst_orders
MILDPATH_TEST(tst_orders, TestOrders)
} // namespace mildpath

#include "tst_orders.moc"
