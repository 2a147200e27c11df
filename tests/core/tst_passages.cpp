// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include "assess/cleanmarks.h"
#include "document/edit.h"
#include "passage/cleaningplan.h"
#include "passage/plugs.h"
#include "quantity/json.h"
#include "storage/templates.h"

#include <algorithm>

using namespace mildpath;

namespace tst_passages {

namespace {

PassageEnd hole(const std::string &stop = {})
{
    return { "hole", "", 0, false, stop, {} };
}
PassageEnd blind()
{
    return { "blind", "", 0, false, "", {} };
}
PassageEnd plugged()
{
    return { "plug", "", 0, false, "", {} };
}
PassageEnd joint(const std::string &passage, double at_mm)
{
    return { "joint", passage, at_mm, false, "", {} };
}

Passage drilling(const std::string &id, double l_mm, PassageEnd a, PassageEnd b, double d_mm = 8)
{
    Passage p;
    p.id = p.name = id;
    p.d_mm = d_mm;
    p.l_mm = l_mm;
    p.ends = { std::move(a), std::move(b) };
    return p;
}

Plug plug(const std::string &id, const std::string &passage, double at_mm,
          const std::string &behind = {})
{
    Plug p;
    p.id = p.name = id;
    p.kind = "cup";
    p.passage = passage;
    p.at_mm = at_mm;
    p.d_mm = 10;
    p.behind = behind;
    return p;
}

/// A gallery plugged at both ends, a hidden plug behind the rear one, two feeds and a pocket.
struct Metal
{
    std::vector<Passage> passages { drilling("gallery", 300, plugged(), plugged()),
                                    drilling("feed_1", 50, joint("gallery", 50), hole("main_1")),
                                    drilling("feed_2", 50, joint("gallery", 200), hole("main_2")),
                                    drilling("pocket", 40, joint("gallery", 120), plugged()) };
    std::vector<Plug> plugs { plug("front", "gallery", 0), plug("rear", "gallery", 300),
                              plug("inner", "gallery", 260, "rear"), plug("ball", "pocket", 40) };

    PassageNetwork network() const { return PassageNetwork(passages, plugs); }
    CleaningPlan plan(const CleaningWishes &wishes = {}) const
    {
        return planCleaning(network(), wishes);
    }
};

std::set<std::string> names(const std::vector<int> &plugs, const Metal &metal)
{
    std::set<std::string> out;
    for (const int p : plugs)
        out.insert(metal.plugs[static_cast<size_t>(p)].id);
    return out;
}

double total(const CleaningPlan &plan)
{
    double mm = 0;
    for (const LeftLength &l : plan.left)
        mm += l.length.length_mm();
    return mm;
}

} // namespace

class TestPassages : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void plan_isTheFewest();
    void pluggedGallery_isEnteredWhereFewestPlugsComeOut();
    void hiddenPlug_bringsItsOuterOneAlong();
    void plugThatStays_leavesWhatItClosesWithTheReason();
    void deadEnd_isLeftWithTheReason();
    void restrictor_stopsTheBrushAndLetsTheFlushThrough();
    void bend_isFlushedNotBrushed();
    void step_stopsABrushThatFillsTheWiderBore();
    void step_stopsABrushThatFillsTheWiderBore_data();
    void drawAll_takesEveryPlugThatMayComeOut();
    void brushGoesAwayFromWhatIsFed();
    void pocket_isWhereNoOilPasses();
    void swarf_isStoppedByPlugsThatAreIn();
    void everyTemplate_isCoveredWhole_data();
    void everyTemplate_isCoveredWhole();
    void templates_nameEverythingAndHideNothing();
    void split_keepsWhatMeetsEachPart();
    void split_isRefusedWhereSomethingSits();
    void split_doesNotChangeThePlan();
    void faults_haveAPlace_data();
    void faults_haveAPlace();
    void tapDrills_leaveTheThread();
    void plugs_areDrawnWithTheRightTap_data();
    void plugs_areDrawnWithTheRightTap();
    void edits_keepWhatHasAHistory();
    void edits_writeAndReadTheSame();
};

void TestPassages::plan_isTheFewest()
{
    const CleaningPlan p = Metal().plan();
    QCOMPARE(p.pulls, 4);
    QCOMPARE(p.flushes, 0);
    QVERIFY(p.minimal);
    verifyClose(p.covered_mm, 440, 1e-12);
    verifyClose(p.passable_mm, 440, 1e-12);
    QVERIFY(p.left.empty());
    // Galleries come after the drillings that bring dirt into them.
    const auto at = [&](int passage) {
        return std::find_if(p.steps.begin(), p.steps.end(),
                            [&](const CleaningStep &s) { return s.in.passage == passage; });
    };
    QVERIFY(at(1) < at(0) && at(2) < at(0));
}

void TestPassages::pluggedGallery_isEnteredWhereFewestPlugsComeOut()
{
    Metal metal;
    metal.plugs.erase(metal.plugs.begin() + 2); // nothing hidden
    // From either end it takes one plug; the ball has to come out for its own drilling.
    QCOMPARE(metal.plan().draw.size(), size_t(2));
    metal.plugs.push_back(plug("inner", "gallery", 20, "front"));
    // Now the front end costs two plugs, the rear as well, for the brush must pass the inner one.
    const CleaningPlan p = metal.plan();
    QCOMPARE(p.pulls, 4);
    QCOMPARE(names(p.draw, metal), (std::set<std::string> { "front", "inner", "ball" }));
}

void TestPassages::hiddenPlug_bringsItsOuterOneAlong()
{
    const Metal metal;
    const CleaningPlan p = metal.plan();
    QCOMPARE(names(p.draw, metal), (std::set<std::string> { "rear", "inner", "ball" }));
    const auto place = [&](const char *id) {
        return std::find_if(p.draw.begin(), p.draw.end(),
                            [&](int i) { return metal.plugs[static_cast<size_t>(i)].id == id; });
    };
    QVERIFY(place("rear") < place("inner")); // the outer one comes out first
}

void TestPassages::plugThatStays_leavesWhatItClosesWithTheReason()
{
    const Metal metal;
    const CleaningPlan p = metal.plan({ { { 3, "hardened" } }, {}, false });
    QCOMPARE(p.pulls, 3);
    QCOMPARE(p.left.size(), size_t(1));
    verifyClose(total(p), 40, 1e-12);
    QCOMPARE(p.left[0].why, std::string("ball stays in (hardened)"));
    // An outer plug that stays keeps the one behind it in as well.
    const CleaningPlan rear = metal.plan({ { { 1, "" } }, {}, false });
    QVERIFY(!names(rear.draw, metal).contains("inner"));
    verifyClose(total(rear), 40, 1e-12);
}

void TestPassages::deadEnd_isLeftWithTheReason()
{
    Metal metal;
    metal.passages[3].ends[1] = blind();
    metal.plugs.pop_back();
    const CleaningPlan p = metal.plan();
    verifyClose(total(p), 40, 1e-12);
    QVERIFY(p.left[0].why.find("dead end") != std::string::npos);
    // Entered from outside, a blind drilling is brushed to its end.
    metal.passages[3].ends[0] = hole();
    QCOMPARE(metal.plan().left.size(), size_t(0));
    const CleaningPlan open = metal.plan();
    QVERIFY(std::any_of(open.steps.begin(), open.steps.end(), [](const CleaningStep &s) {
        return s.word == "to the blind end" && !s.out;
    }));
}

void TestPassages::restrictor_stopsTheBrushAndLetsTheFlushThrough()
{
    Metal metal;
    metal.passages[1].restrictors = { { 20, 1 } };
    const CleaningPlan p = metal.plan();
    QCOMPARE(p.pulls, 4);
    QCOMPARE(p.flushes, 1);
    const CleaningStep &flush = p.steps.back();
    QVERIFY(flush.flush && flush.out);
    verifyClose(p.covered_mm, 440, 1e-12);
}

void TestPassages::bend_isFlushedNotBrushed()
{
    Passage tube = drilling("tube", 200, hole(), hole());
    tube.curved = true;
    const std::vector<Passage> passages { tube };
    const PassageNetwork n(passages, {});
    const CleaningPlan p = planCleaning(n, {});
    QCOMPARE(p.pulls, 0);
    QCOMPARE(p.flushes, 1);
    QCOMPARE(waysToClean(n, {}).front(), CleanBy::Flush);
}

void TestPassages::step_stopsABrushThatFillsTheWiderBore_data()
{
    QTest::addColumn<double>("wide");
    QTest::addColumn<double>("narrow");
    QTest::addColumn<int>("pulls");
    // A brush goes through a bore of 0.6 of its size (own choice, docs/theory/cleaning.md).
    QTest::newRow("one bore") << 8.0 << 8.0 << 1;
    QTest::newRow("8 and 6: the 8 mm brush yields") << 8.0 << 6.0 << 1;
    QTest::newRow("8 and 4: it does not") << 8.0 << 4.0 << 2;
}

void TestPassages::step_stopsABrushThatFillsTheWiderBore()
{
    QFETCH(double, wide);
    QFETCH(double, narrow);
    PassageEnd on = joint("b", 0), back = joint("a", 50);
    on.straight = back.straight = true;
    const std::vector<Passage> passages { drilling("a", 50, hole(), on, wide),
                                          drilling("b", 50, back, hole(), narrow) };
    const CleaningPlan p = planCleaning(PassageNetwork(passages, {}), {});
    QTEST(p.pulls, "pulls");
    for (const CleaningStep &s : p.steps)
        QVERIFY(s.brush_mm >= s.narrowest_mm);
}

void TestPassages::drawAll_takesEveryPlugThatMayComeOut()
{
    const Metal metal;
    CleaningWishes wishes;
    wishes.drawAll = true;
    QCOMPARE(metal.plan(wishes).draw.size(), metal.plugs.size());
    wishes.staying[0] = "fully visible";
    QCOMPARE(metal.plan(wishes).draw.size(), metal.plugs.size() - 1);
}

void TestPassages::brushGoesAwayFromWhatIsFed()
{
    // Between a main and a cam bearing it goes in at the one the oil reaches later.
    const std::vector<Passage> passages { drilling("f", 80, hole("main_1"), hole("cams")) };
    CleaningWishes wishes;
    wishes.rank = { { "main_1", 1 }, { "cams", 2 } };
    QCOMPARE(planCleaning(PassageNetwork(passages, {}), wishes).steps[0].in.end, 1);
    wishes.rank = { { "main_1", 2 }, { "cams", 1 } };
    QCOMPARE(planCleaning(PassageNetwork(passages, {}), wishes).steps[0].in.end, 0);
}

void TestPassages::pocket_isWhereNoOilPasses()
{
    const Metal metal;
    const PassageNetwork n = metal.network();
    const auto pocket = pockets(n);
    double mm = 0;
    for (size_t i = 0; i < pocket.size(); ++i)
        mm += pocket[i] ? n.stretches()[i].length_mm() : 0;
    // Both ends of the gallery beyond its feeds (50 and 100), and the pocket itself (40).
    verifyClose(mm, 190, 1e-12);
}

void TestPassages::swarf_isStoppedByPlugsThatAreIn()
{
    const Metal metal;
    const PassageNetwork n = metal.network();
    const auto from = [&](const char *passage, double at) {
        return std::vector<int> { n.nodeAt(n.indexOf(passage), at) };
    };
    const auto in = [](int) { return true; };
    const auto out = [](int) { return false; };
    QCOMPARE(n.reached(from("feed_1", 50), in), (std::vector<bool> { true, true, true, true }));
    // From behind the outer plug it only gets into the stub while the inner one is in.
    const std::vector<int> stub { n.stretches()[4].b };
    QCOMPARE(n.reached(stub, in), (std::vector<bool> { true, false, false, false }));
    QCOMPARE(n.reached(stub, out), (std::vector<bool> { true, true, true, true }));
}

void TestPassages::everyTemplate_isCoveredWhole_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

void TestPassages::everyTemplate_isCoveredWhole()
{
    QFETCH(QString, name);
    const Build b = loadTemplate(name.toStdString())->build;
    const BuildPlan p = cleaningPlanOf(b);
    QVERIFY(p.plan.minimal);
    verifyClose(p.plan.covered_mm, p.plan.passable_mm, 1e-12);
    double whole = 0;
    for (const Passage &passage : b.passages)
        whole += passage.l_mm;
    verifyClose(p.plan.passable_mm + total(p.plan), whole, 1e-9);
    for (const LeftLength &l : p.plan.left)
        QVERIFY(!l.why.empty());
    // What the program draws up anew is what the template carries, but for what was added by hand.
    Build bare = b;
    bare.passages.clear();
    bare.plugs.clear();
    const Build drawn = applyEdit(bare, DrawPassages {}).value();
    QVERIFY(drawn.passages.size() <= b.passages.size());
    QVERIFY(std::equal(drawn.passages.begin(), drawn.passages.end(), b.passages.begin()));
    QVERIFY(!applyEdit(b, DrawPassages {}));
}

void TestPassages::templates_nameEverythingAndHideNothing()
{
    const Build b = loadTemplate("v8-dry-sump")->build;
    std::set<std::string> parts;
    for (const Passage &p : b.passages)
        parts.insert(p.part);
    for (const char *part : { "block", "crank", "pump", "pickup", "filter_head", "cooler", "lines",
                              "head_left", "head_right" })
        QVERIFY2(parts.contains(part), part);
    // Every main, big-end and lifter has a way in of its own.
    for (const Stop &s : b.engine.stops) {
        if (s.kind != StopKind::Main && s.kind != StopKind::BigEnd && s.kind != StopKind::Lifter)
            continue;
        QVERIFY2(std::any_of(b.passages.begin(), b.passages.end(),
                             [&](const Passage &p) {
                                 return p.ends[0].stop == s.id || p.ends[1].stop == s.id;
                             }),
                 s.id.c_str());
    }
    QCOMPARE(
        std::count_if(b.plugs.begin(), b.plugs.end(), [](const Plug &p) { return p.hidden(); }), 2);
}

void TestPassages::split_keepsWhatMeetsEachPart()
{
    Metal metal;
    QVERIFY(splitPassage(metal.passages, metal.plugs, "gallery", 150, "rear_half", 7));
    QVERIFY(checkPassages(metal.passages, metal.plugs).empty());
    const Passage *rear = findPassage(metal.passages, "rear_half");
    QVERIFY(rear);
    QCOMPARE(rear->splitFrom, std::string("gallery"));
    QCOMPARE(rear->splitAfter, 7);
    verifyClose(rear->l_mm, 150, 1e-12);
    verifyClose(findPassage(metal.passages, "feed_2")->ends[0].at_mm, 50, 1e-12);
    QCOMPARE(findPassage(metal.passages, "feed_1")->ends[0].passage, std::string("gallery"));
    QCOMPARE(findPlug(metal.plugs, "inner")->passage, std::string("rear_half"));
    verifyClose(findPlug(metal.plugs, "inner")->at_mm, 110, 1e-12);
}

void TestPassages::split_isRefusedWhereSomethingSits()
{
    for (const double at : { 0.2, 50.0, 260.0, 299.8, 400.0 }) {
        Metal metal;
        const Metal before;
        QVERIFY(!splitPassage(metal.passages, metal.plugs, "gallery", at, "x", 0));
        QVERIFY(metal.passages == before.passages);
    }
}

void TestPassages::split_doesNotChangeThePlan()
{
    Metal metal;
    const CleaningPlan before = metal.plan();
    QVERIFY(splitPassage(metal.passages, metal.plugs, "gallery", 150, "x", 0));
    const CleaningPlan after = metal.plan();
    QCOMPARE(after.pulls, before.pulls);
    QCOMPARE(after.draw.size(), before.draw.size());
    verifyClose(after.covered_mm, before.covered_mm, 1e-12);
}

void TestPassages::faults_haveAPlace_data()
{
    QTest::addColumn<QString>("place");
    QTest::addColumn<int>("what");
    QTest::newRow("joins nothing") << "/passages/1/ends/0/passage" << 0;
    QTest::newRow("joins beyond the end") << "/passages/1/ends/0/at_mm" << 1;
    QTest::newRow("no plug where one is said") << "/passages/3/ends/1" << 2;
    QTest::newRow("no such part") << "/passages/0/part" << 3;
    QTest::newRow("wider than the passage") << "/passages/2/restrictors/0/d_mm" << 4;
    QTest::newRow("joins where a plug sits") << "/passages/2/ends/0" << 5;
    QTest::newRow("plug outside") << "/plugs/2/at_mm" << 6;
    QTest::newRow("hidden by nothing") << "/plugs/2/behind" << 7;
    QTest::newRow("one id twice") << "/passages/2/id" << 8;
    QTest::newRow("no length") << "/passages/0/l_mm" << 9;
    QTest::newRow("crosses itself") << "/passages/0/crossings/0/passage" << 10;
}

void TestPassages::faults_haveAPlace()
{
    QFETCH(QString, place);
    QFETCH(int, what);
    Metal m;
    switch (what) {
    case 0:
        m.passages[1].ends[0].passage = "nowhere";
        break;
    case 1:
        m.passages[1].ends[0].at_mm = 400;
        break;
    case 2:
        m.plugs.pop_back();
        break;
    case 3:
        m.passages[0].part = "gearbox";
        break;
    case 4:
        m.passages[2].restrictors = { { 10, 9 } };
        break;
    case 5:
        m.passages[2].ends[0].at_mm = 260;
        break;
    case 6:
        m.plugs[2].at_mm = 301;
        break;
    case 7:
        m.plugs[2].behind = "nobody";
        break;
    case 8:
        m.passages[2].id = "feed_1";
        break;
    case 9:
        m.passages[0].l_mm = std::numeric_limits<double>::quiet_NaN();
        break;
    default:
        m.passages[0].crossings = { { 10, "gallery", 20 } };
    }
    const auto errors = checkPassages(m.passages, m.plugs);
    QVERIFY(std::any_of(errors.begin(), errors.end(), [&](const Error &e) {
        return e.place == place.toStdString() && !e.message.empty();
    }));
    QVERIFY(checkPassages(Metal().passages, Metal().plugs).empty());
}

void TestPassages::tapDrills_leaveTheThread()
{
    // Major diameter less pitch, on drills of 0.1 mm; coarse pitches of ISO 261 (from memory).
    for (const TapSize &t : tapSizes())
        verifyClose(t.drill_mm, t.major_mm - t.pitch_mm, 0, 0.051, t.thread.data());
}

void TestPassages::plugs_areDrawnWithTheRightTap_data()
{
    QTest::addColumn<QString>("kind");
    QTest::addColumn<double>("d");
    QTest::addColumn<QString>("says");
    QTest::newRow("cup of 16") << "cup" << 16.0 << "drill 6.8 mm, tap M8";
    QTest::newRow("ball of 8") << "ball" << 8.0 << "drill 3.3 mm, tap M4";
    QTest::newRow("ball of 4") << "ball" << 4.0 << "left-hand drill";
    QTest::newRow("screw") << "screw" << 14.0 << "fills the socket";
    QTest::newRow("alloy") << "core" << 20.0 << "hot air";
}

void TestPassages::plugs_areDrawnWithTheRightTap()
{
    QFETCH(QString, kind);
    QFETCH(double, d);
    QFETCH(QString, says);
    Plug p = plug("p", "g", 0);
    p.kind = kind.toStdString();
    p.d_mm = d;
    const DrawingAdvice advice = howToDraw(p);
    QString all;
    for (const Phrase &s : advice.steps)
        all += QString::fromStdString(said(s));
    QVERIFY2(all.contains(says), qPrintable(all));
    // Torch and solvent are never named without the warning; chips are caught where one drills.
    QString cautions;
    for (const std::string &s : advice.cautions)
        cautions += QString::fromStdString(s);
    QVERIFY(cautions.contains(QStringLiteral("Never heat metal wet")));
    QCOMPARE(cautions.contains(QStringLiteral("Grease drill and tap")), kind != u"screw");
}

void TestPassages::edits_keepWhatHasAHistory()
{
    const Build b = demoBuild();
    QVERIFY(!applyEdit(b, DropPassage { "main_gallery" })); // others run into it
    QVERIFY(!applyEdit(b, DropPassage { "main_1_feed" })); // has events
    QVERIFY(applyEdit(b, DropPassage { "chain_jet_feed" }));
    QVERIFY(!applyEdit(b, DropPlug { "lifter_gallery_rear_inner" }));
    Plug p;
    p.id = p.name = "new";
    p.kind = "screw";
    p.passage = "chain_jet_feed";
    p.at_mm = 30;
    p.d_mm = 6;
    const auto with = applyEdit(b, PutPlug { p });
    QVERIFY(with);
    QCOMPARE(findPassage(with->passages, "chain_jet_feed")->ends[1].kind, std::string("plug"));
    const auto without = applyEdit(*with, DropPlug { "new" });
    QVERIFY(without);
    QVERIFY(without->passages == b.passages);
    p.at_mm = 0;
    QVERIFY(!applyEdit(b, PutPlug { p })); // a joint cannot be plugged
    // A stop taken out leaves its drilling in the metal.
    const auto gone = applyEdit(b, RemoveStop { "chain_jet" });
    QVERIFY(gone);
    QVERIFY(findPassage(gone->passages, "chain_jet_feed")->stop.empty());
}

void TestPassages::edits_writeAndReadTheSame()
{
    const Build b = demoBuild();
    CleanEvent e = b.events.front();
    e.note = "said twice";
    DebrisFind f = b.finds.front();
    ShopJob j;
    j.job = "deck";
    Passage drilled = b.passages[3]; // what is an element of the circuit has its bore there
    drilled.elements.clear();
    const Edit all[] = { AddEntry { e },
                         AddEntry { f },
                         AddEntry { b.signs.front() },
                         AddEntry { BearingFailure {} },
                         AddEntry { Repair {} },
                         AddEntry { j },
                         TakeBackEntry { "events", "e3", "t", "now" },
                         PutPassage { drilled },
                         DropPassage { "x" },
                         CutPassage { "main_gallery", 60 },
                         PutPlug { b.plugs[4] },
                         DropPlug { "y" },
                         DrawPassages {} };
    for (const Edit &edit : all) {
        const auto back = editFromJson(editToJson(edit));
        QVERIFY2(back, editToJson(edit).dump().c_str());
        QVERIFY(*back == edit);
        QVERIFY(!describeEdit(b, edit).empty());
    }
    QVERIFY(!editFromJson(Json { { "edit", "add_entry" }, { "log", "gossip" } }));
}

} // namespace tst_passages

MILDPATH_TEST(tst_passages, TestPassages)
#include "tst_passages.moc"
