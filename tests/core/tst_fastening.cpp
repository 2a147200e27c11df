// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "document/fastening.h"
#include "quantity/json.h"
#include "report/buildsheet.h"
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
    void begunAndNotFinished_isAHold();
    void sheet_printsStagesAsTheManualHasThem();
    void cap_isTorquedAtTheLastStageOnly();
    void testBolts_areNotForTheBuild();
    void manual_isReadAsItStands_data();
    void manual_isReadAsItStands();
    void wrongStages_areRefused_data();
    void wrongStages_areRefused();
    void units_areConvertedByTheStandards();
    void outerBolts_comeAfter();
    void changedCard_flagsWhatWasTicked();
    void cards_areMadeCopiedAndTakenOff();
    void olderCards_areReadAsBefore();
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

void TestFastening::begunAndNotFinished_isAHold()
{
    Build b = plain();
    QCOMPARE(QString::fromStdString(fixture::stateOf(b, "torq@main_caps")),
             QStringLiteral("not_done"));
    b = tightened(b, "main_caps");
    QVERIFY(fixture::stateOf(b, "torq@main_caps") != "hold");
    b = tick(b, "main_caps", 10, 0); // one loosened again
    QCOMPARE(QString::fromStdString(fixture::stateOf(b, "torq@main_caps")), QStringLiteral("hold"));
    const fixture::By by(fixture::withJob(b, "N"));
    QVERIFY(said(by.list().find("torq@main_caps")->reason).find("9 of 10") != std::string::npos);
}

void TestFastening::sheet_printsStagesAsTheManualHasThem()
{
    Build b = plain();
    TorqueCard mains = card(b, "main_caps"), outer = card(b, "rod_caps");
    mains.stages = *readStages("30 N m, 60 N m, +90°", "N m");
    mains.source = "manufacturer";
    outer.stages = *readStages("16 lb ft, then 33 lb ft", "N m");
    for (const TorqueCard &c : { mains, outer })
        b = applyEdit(b, PutTorqueCard { c }).value();
    std::string all;
    for (const SheetBlock &block : buildSheet(b, assess(b), "29 November 2026", {}).blocks)
        if (const auto *t = std::get_if<SheetTable>(&block))
            for (const auto &row : t->rows)
                for (const SheetCell &cell : row)
                    all += said(cell.text) + "|";
    for (const char *wanted :
         { "30 N m, then 60 N m, then +90°", "16 lb ft, then 33 lb ft", "manufacturer" })
        QVERIFY2(all.find(wanted) != std::string::npos, wanted);
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

void TestFastening::manual_isReadAsItStands_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("shown");
    QTest::newRow("newton metres and an angle")
        << QStringLiteral("30 N m, 60 N m, +90°") << QStringLiteral("30 N m, 60 N m, +90°");
    QTest::newRow("pounds") << QStringLiteral("22 lb ft, 44 lb ft")
                            << QStringLiteral("22 lb ft, 44 lb ft");
    QTest::newRow("kilogrammes") << QStringLiteral("2.5 kg m then 5.25")
                                 << QStringLiteral("2.5 kg m, 5.25 kg m");
    QTest::newRow("the unit once")
        << QStringLiteral("20; 40; 90 deg; 90 deg") << QStringLiteral("20 N m, 40 N m, +90°, +90°");
    QTest::newRow("twice, then an angle")
        << QStringLiteral("60 N m, 60 N m, +45°") << QStringLiteral("60 N m, 60 N m, +45°");
}

void TestFastening::manual_isReadAsItStands()
{
    QFETCH(const QString, text);
    QFETCH(const QString, shown);
    const auto stages = readStages(text.toStdString(), "N m");
    QVERIFY2(stages, stages ? "" : said(stages.error().message).c_str());
    QCOMPARE(plainly(QString::fromStdString(said(stagesText(*stages))))
                 .replace(QStringLiteral(" °"), QStringLiteral("°")),
             shown);
    // What is shown is read as the same, to the last digit; and so is what a file keeps.
    const auto again = readStages(said(stagesText(*stages)), "lb ft");
    QVERIFY(again && *again == *stages);
    TorqueCard c = plain().torqueCards.front();
    c.stages = *stages;
    const Build b = applyEdit(plain(), PutTorqueCard { c }).value();
    QVERIFY(parseBuild(buildText(b))->build == b);
    QVERIFY(card(b, c.id.c_str()).stages == *stages);
}

void TestFastening::wrongStages_areRefused_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("row");
    QTest::newRow("nothing") << QString() << QStringLiteral("stages");
    QTest::newRow("an angle first") << QStringLiteral("+90°, 30 N m") << QStringLiteral("stage 1");
    QTest::newRow("more than a turn")
        << QStringLiteral("30 N m, +361°") << QStringLiteral("stage 2");
    QTest::newRow("less than before")
        << QStringLiteral("60 N m, 30 N m") << QStringLiteral("stage 2");
    QTest::newRow("less in another unit")
        << QStringLiteral("60 N m, 40 lb ft") << QStringLiteral("stage 2");
    QTest::newRow("no number") << QStringLiteral("30 N m, tight") << QStringLiteral("stage 2");
    QTest::newRow("a pressure") << QStringLiteral("30 bar") << QStringLiteral("stage 1");
    QTest::newRow("a ship's") << QStringLiteral("3000 N m") << QStringLiteral("stage 1");
}

void TestFastening::wrongStages_areRefused()
{
    QFETCH(const QString, text);
    QFETCH(const QString, row);
    const auto stages = readStages(text.toStdString(), "N m");
    QVERIFY(!stages);
    QCOMPARE(QString::fromStdString(stages.error().place), row);
    QVERIFY(!said(stages.error().message).empty());
}

/// By NIST SP 811: 1 lbf·ft = 1.355 818 N m, 1 kgf·m = 9.806 65 N m.
void TestFastening::units_areConvertedByTheStandards()
{
    verifyClose(readStages("1 lb ft", "N m")->front().torque_nm(), 1.355818, 1e-6);
    verifyClose(readStages("1 kg m", "N m")->front().torque_nm(), 9.80665, 1e-9);
}

void TestFastening::outerBolts_comeAfter()
{
    TorqueCard outer = card(plain(), "main_caps");
    outer.id.clear();
    outer.name = "Outer";
    outer.after = "main_caps";
    outer.stages = *readStages("22 N m", "N m");
    for (Fastener &f : outer.fasteners)
        f.y_mm *= 1.7;
    Build b = applyEdit(plain(), PutTorqueCard { outer }).value();
    const std::string id = b.torqueCards.back().id;
    QCOMPARE(torqueState(b, card(b, id.c_str())).waitsFor, std::string("Main caps"));
    QVERIFY(torqueState(tick(b, id.c_str(), 1, 1), card(b, id.c_str())).outOfOrder);
    b = tightened(b, "main_caps");
    // The cap is held by both sets: it stands when both do.
    QCOMPARE(capTorqued(b, "main_3"), std::optional(false));
    QVERIFY(torqueState(b, card(b, id.c_str())).waitsFor.empty());
    b = tightened(b, id.c_str());
    QCOMPARE(capTorqued(b, "main_3"), std::optional(true));
    QVERIFY(!torqueState(b, card(b, id.c_str())).outOfOrder);
}

void TestFastening::changedCard_flagsWhatWasTicked()
{
    Build b = tightened(plain(), "main_caps");
    TorqueCard c = card(b, "main_caps");
    c.name = "Mains"; // another name is no other card
    b = applyEdit(b, PutTorqueCard { c }).value();
    QVERIFY(!torqueState(b, card(b, "main_caps")).older);
    c = card(b, "main_caps");
    c.stages = *readStages("35 N m, 70 N m, +60°", "N m");
    b = applyEdit(b, PutTorqueCard { c }).value();
    const TorqueState state = torqueState(b, card(b, "main_caps"));
    QVERIFY(state.older && !state.complete());
    QCOMPARE(capTorqued(b, "main_3"), std::optional(false));
    QVERIFY(fixture::stateOf(b, "torq@main_caps") != "proven");
    // Loosened in reverse, whatever they had; tightened anew all is well.
    while (const auto last = torqueState(b, card(b, "main_caps")).loosen)
        b = tick(b, "main_caps", *last, 0);
    b = tightened(b, "main_caps");
    QVERIFY(!torqueState(b, card(b, "main_caps")).older);
    QCOMPARE(capTorqued(b, "main_3"), std::optional(true));
}

void TestFastening::cards_areMadeCopiedAndTakenOff()
{
    const Build was = plain();
    TorqueCard c = card(was, "rod_caps");
    c.id.clear();
    const Build b = applyEdit(was, PutTorqueCard { c }).value();
    QCOMPARE(b.torqueCards.size(), was.torqueCards.size() + 1);
    const std::string id = b.torqueCards.back().id;
    QVERIFY(id != "rod_caps");
    const auto off = applyEdit(b, DropTorqueCard { id });
    QVERIFY(off && *off == was);
    QVERIFY(!applyEdit(tick(b, id.c_str(), 1, 1), DropTorqueCard { id }));
    c.id = "rod_caps";
    c.fasteners.push_back(c.fasteners.front());
    QVERIFY(!applyEdit(b, PutTorqueCard { c })); // a bolt twice
    c.id = "nobody's";
    QVERIFY(!applyEdit(b, PutTorqueCard { c }));
    QCOMPARE(cardSource(card(was, "rod_caps")),
             std::string("starting value, not the manufacturer's"));
}

void TestFastening::olderCards_areReadAsBefore()
{
    Json old = toJson(plain());
    old["version"] = 12;
    for (Json &c : old["torque_cards"]) {
        c["single_use"] = c.value("uses", 0) == 1;
        c.erase("uses");
        for (Json &s : c["stages"])
            if (s.contains("torque")) {
                s["torque_nm"] = s["torque"];
                s.erase("torque");
            }
    }
    const auto loaded = parseBuild(old.dump());
    QVERIFY2(loaded, loaded ? "" : said(loaded.error().errors.front().message).c_str());
    QVERIFY(loaded->build.torqueCards == plain().torqueCards);
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
