// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "document/fastening.h"
#include "testing.h"

using namespace mildpath;

namespace tst_fastening {

namespace {

Build plain()
{
    return loadTemplate("inline-four-wet-sump")->build;
}

const TorqueCard &card(const Build &b, const char *id)
{
    for (const TorqueCard &c : b.torqueCards)
        if (c.id == id)
            return c;
    qFatal("no card %s", id);
}

Build tick(const Build &b, const char *id, int fastener, int stage, bool fresh = false)
{
    TorqueTick t;
    t.card = id;
    t.fastener = fastener;
    t.stage = stage;
    t.newBolt = fresh;
    auto next = applyEdit(b, TickFastener { t });
    if (!next)
        qFatal("%s", said(next.error().message).c_str());
    return std::move(*next);
}

Build tightened(Build b, const char *id, bool fresh = false)
{
    while (const auto next = torqueState(b, card(b, id)).tighten)
        b = tick(b, id, next->fastener, next->stage, fresh);
    return b;
}

} // namespace

class TestFastening : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void stages_goThroughTheWholeSet();
    void rods_areTightenedCapByCap();
    void loosening_isTheReverse();
    void outOfTurn_isSaidUntilLoose();
    void cap_isTorquedAtTheLastStageOnly();
    void testBolts_areNotForTheBuild();
    void wrongTicks_areRefused_data();
    void wrongTicks_areRefused();
};

void TestFastening::stages_goThroughTheWholeSet()
{
    Build b = plain();
    std::vector<std::pair<int, int>> order;
    while (const auto next = torqueState(b, card(b, "main_caps")).tighten) {
        order.push_back({ next->stage, next->fastener });
        b = tick(b, "main_caps", next->fastener, next->stage);
    }
    QCOMPARE(order.size(), 30u); // ten bolts, three stages
    QVERIFY(std::is_sorted(order.begin(), order.end()));
    QVERIFY(!torqueState(b, card(b, "main_caps")).outOfOrder);
    // From the middle outward: the first pair holds the centre main. Common practice, no source.
    QCOMPARE(card(b, "main_caps").fasteners.front().stop, std::string("main_3"));
}

void TestFastening::rods_areTightenedCapByCap()
{
    Build b = plain();
    for (int i = 0; i < 4; ++i) { // two bolts, two stages: one rod
        const auto next = torqueState(b, card(b, "rod_caps")).tighten;
        b = tick(b, "rod_caps", next->fastener, next->stage);
    }
    QCOMPARE(capTorqued(b, "big_end_1"), std::optional(true));
    QCOMPARE(capTorqued(b, "big_end_2"), std::optional(false));
    QVERIFY(!torqueState(b, card(b, "rod_caps")).halfWay);
}

void TestFastening::loosening_isTheReverse()
{
    Build b = tightened(plain(), "main_caps");
    for (int expected = 10; expected >= 1; --expected) {
        const auto last = torqueState(b, card(b, "main_caps")).loosen;
        QCOMPARE(*last, expected);
        b = tick(b, "main_caps", *last, 0);
    }
    QVERIFY(!torqueState(b, card(b, "main_caps")).loosen);
    QCOMPARE(capTorqued(b, "main_1"), std::optional(false));
}

void TestFastening::outOfTurn_isSaidUntilLoose()
{
    Build b = tick(plain(), "main_caps", 5, 1);
    QVERIFY(torqueState(b, card(b, "main_caps")).outOfOrder);
    QCOMPARE(fixture::stateOf(b, "torq@main_caps"), "look_again");
    b = tick(b, "main_caps", 5, 0);
    QVERIFY(!torqueState(b, card(b, "main_caps")).outOfOrder);
}

void TestFastening::cap_isTorquedAtTheLastStageOnly()
{
    Build b = plain();
    QCOMPARE(capTorqued(b, "main_3"), std::optional(false));
    QVERIFY(!capTorqued(b, "cam_bearings").has_value()); // no card holds it
    b = tightened(b, "main_caps");
    QCOMPARE(capTorqued(b, "main_3"), std::optional(true));
    b = tick(b, "main_caps", 2, 0);
    QCOMPARE(capTorqued(b, "main_3"), std::optional(false));
    QCOMPARE(capTorqued(b, "main_1"), std::optional(true));
}

void TestFastening::testBolts_areNotForTheBuild()
{
    const auto bolts = [](const Build &b) { return fixture::stateOf(b, "bolts@main_caps"); };
    QCOMPARE(bolts(plain()), "not_done");
    QCOMPARE(bolts(tightened(plain(), "main_caps")), "not_done");
    QCOMPARE(bolts(tightened(plain(), "main_caps", true)), "proven");
    // These may be used again: nobody asks for new ones.
    QCOMPARE(fixture::stateOf(tightened(plain(), "rod_caps"), "bolts@rod_caps"), "no such check");
}

void TestFastening::wrongTicks_areRefused_data()
{
    QTest::addColumn<QString>("card");
    QTest::addColumn<int>("fastener");
    QTest::addColumn<int>("stage");
    QTest::newRow("no such card") << QStringLiteral("head") << 1 << 1;
    QTest::newRow("no such bolt") << QStringLiteral("main_caps") << 11 << 1;
    QTest::newRow("bolt nought") << QStringLiteral("main_caps") << 0 << 1;
    QTest::newRow("no such stage") << QStringLiteral("main_caps") << 1 << 4;
    QTest::newRow("stage below loose") << QStringLiteral("main_caps") << 1 << -1;
}

void TestFastening::wrongTicks_areRefused()
{
    QFETCH(QString, card);
    QFETCH(int, fastener);
    QFETCH(int, stage);
    TorqueTick t;
    t.card = card.toStdString();
    t.fastener = fastener;
    t.stage = stage;
    QVERIFY(!applyEdit(plain(), TickFastener { t }));
}

} // namespace tst_fastening

MILDPATH_TEST(tst_fastening, TestFastening)
#include "tst_fastening.moc"
