// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "checksfixture.h"
#include "report/assessmentreport.h"
#include "testing.h"

#include "assess/cleanmarks.h"
#include "document/edit.h"
#include "passage/cleaning.h"
#include "quantity/json.h"
#include "storage/buildfile.h"

#include <algorithm>

using namespace mildpath;

namespace tst_cleaning {

namespace {

/// A build with nothing recorded about its passages.
Build bare()
{
    Build b = demoBuild();
    b.events.clear();
    b.finds.clear();
    b.signs.clear();
    return b;
}

CleanEvent entry(const char *kind, const std::string &target, const char *result = "",
                 const char *scope = "passage")
{
    CleanEvent e;
    e.kind = kind;
    e.scope = scope;
    e.target = target;
    e.result = result;
    if (e.kind == "look")
        e.means = "light";
    e.by = "tester";
    return e;
}
CleanEvent at(CleanEvent e, const char *when)
{
    e.at = when;
    return e;
}
CleanEvent stored(double days, bool covered, const std::string &target)
{
    CleanEvent e = entry("storage", target);
    e.days = days;
    e.covered = covered;
    return e;
}

Build with(Build b, const std::vector<CleanEvent> &events)
{
    for (const CleanEvent &e : events)
        b = applyEdit(b, AddEntry { e }).value();
    return b;
}

CleaningBook bookOf(const Build &b)
{
    return readBook(PassageNetwork(b.passages, b.plugs), b.events, stopKindsOf(b));
}
PassageState stateOf(const Build &b, const std::string &passage)
{
    for (const PassageState &s : bookOf(b).passages)
        if (s.passage == passage)
            return s;
    return {};
}
std::set<std::string> inState(const Build &b, CleanState state)
{
    std::set<std::string> out;
    for (const PassageState &s : bookOf(b).passages)
        if (s.state == state)
            out.insert(s.passage);
    return out;
}

const std::string gallery = "main_gallery";

/// The bare block with the gallery's plugs drawn: what goes through it gets to both ends.
Build opened()
{
    return with(bare(),
                { entry("plug_out", "main_gallery_front", "", "plug"),
                  entry("plug_out", "main_gallery_rear", "", "plug") });
}

} // namespace

class TestCleaning : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void proof_asksForBrushAndFarEnd_data();
    void proof_asksForBrushAndFarEnd();
    void magnet_isNoProof();
    void washedPassage_agesOpenSoonerThanCovered_data();
    void washedPassage_agesOpenSoonerThanCovered();
    void assembledPassage_doesNotAge();
    void boringTheMains_dirtiesWhatIsOpenToThem();
    void plugsThatAreIn_keepSwarfOut();
    void undo_restoresAll();
    void assembledParts_passSwarfOn();
    void deck_dirtiesWhatOpensToTheHead();
    void movedClock_changesNothing();
    void eventDatedByHand_goesWhereItBelongs();
    void correction_standsWhereItsEventStood();
    void takenBack_isAsIfItHadNotBeen();
    void renamed_keepsItsHistory();
    void split_bothPartsKeepWhatWasBefore();
    void badEvents_areRefused_data();
    void badEvents_areRefused();
    void hiddenPlug_holdsThoughTheOuterOneIsIn();
    void plug_isSeenUntilItIsDrawn();
    void stopsMark_isTheWorstOfItsPassages();
    void twoThousandEvents_deriveTheSame();
};

void TestCleaning::proof_asksForBrushAndFarEnd_data()
{
    QTest::addColumn<std::vector<CleanEvent>>("events");
    QTest::addColumn<QString>("state");
    const auto row = [](const char *name, std::vector<CleanEvent> events, const char *state) {
        QTest::newRow(name) << events << QString::fromLatin1(state);
    };
    const CleanEvent white = entry("brush", gallery, "white"),
                     grey = entry("brush", gallery, "grey"),
                     seen = entry("look", gallery, "through"),
                     blocked = entry("look", gallery, "blocked"),
                     bored = entry("machining", "bore_mains", "", "job"),
                     tank = entry("hot_tank", "block", "", "part");
    row("nothing", {}, "nothing_done");
    row("a hot tank proves nothing", { tank }, "begun");
    row("white brush alone does not", { white }, "begun");
    row("light alone does not", { seen }, "begun");
    row("both do", { white, seen }, "clean");
    row("in either order", { seen, white }, "clean");
    row("the last brush counts", { white, seen, grey }, "grey");
    row("and again white", { white, seen, grey, white }, "clean");
    row("the far end not seen", { white, blocked }, "blocked");
    row("machined after it was proven", { white, seen, bored }, "dirty");
    row("machined, then a tank only", { white, seen, bored, tank }, "begun");
    row("machined, then proven anew", { white, seen, bored, white, seen }, "clean");
    row("old proof does not outlast machining", { seen, bored, white }, "begun");
}

void TestCleaning::proof_asksForBrushAndFarEnd()
{
    QFETCH(std::vector<CleanEvent>, events);
    QFETCH(QString, state);
    const PassageState s = stateOf(with(opened(), events), gallery);
    QCOMPARE(QString::fromUtf8(cleanStateId(s.state).data()), state);
    QCOMPARE(s.missing.empty(), state == u"clean");
    QCOMPARE(s.chain.size(), events.size());
}

void TestCleaning::magnet_isNoProof()
{
    for (const std::string_view m : farEndMeans())
        QVERIFY(m.find("magnet") == std::string_view::npos);
    CleanEvent e = entry("look", gallery, "through");
    e.means = "magnet";
    QVERIFY(!applyEdit(bare(), AddEntry { e }));
}

void TestCleaning::washedPassage_agesOpenSoonerThanCovered_data()
{
    QTest::addColumn<double>("days");
    QTest::addColumn<bool>("covered");
    QTest::addColumn<bool>("ages");
    // One day open, three weeks covered: own choice, docs/theory/cleaning.md.
    QTest::newRow("an afternoon, open") << 0.4 << false << false;
    QTest::newRow("a day, open") << 1.0 << false << false;
    QTest::newRow("more than a day, open") << 1.5 << false << true;
    QTest::newRow("three weeks, covered") << 21.0 << true << false;
    QTest::newRow("a day more, covered") << 22.0 << true << true;
    QTest::newRow("the winter, covered") << 90.0 << true << true;
}

void TestCleaning::washedPassage_agesOpenSoonerThanCovered()
{
    QFETCH(double, days);
    QFETCH(bool, covered);
    QFETCH(bool, ages);
    const Build b = with(opened(),
                         { entry("brush", gallery, "white"), entry("look", gallery, "through"),
                           stored(days, covered, gallery) });
    QCOMPARE(stateOf(b, gallery).state, ages ? CleanState::Aged : CleanState::Clean);
    QCOMPARE(stateOf(b, gallery).missing.empty(), !ages);
    // The final wash mends it, storage after it counts anew.
    const Build washed = with(b, { entry("wash", "block", "", "part") });
    QCOMPARE(stateOf(washed, gallery).state, CleanState::Clean);
    QCOMPARE(stateOf(with(washed, { stored(days, covered, gallery) }), gallery).state,
             ages ? CleanState::Aged : CleanState::Clean);
}

void TestCleaning::assembledPassage_doesNotAge()
{
    const Build b = with(opened(),
                         { entry("brush", gallery, "white"), entry("look", gallery, "through"),
                           entry("assembly", "block", "", "part"), stored(300, false, gallery) });
    QCOMPARE(stateOf(b, gallery).state, CleanState::Clean);
}

void TestCleaning::boringTheMains_dirtiesWhatIsOpenToThem()
{
    const Build b = with(bare(), { entry("machining", "bore_mains", "", "job") });
    const auto dirty = inState(b, CleanState::Dirty);
    for (const char *yes :
         { "main_1_feed", "main_5_feed", "main_gallery", "cam_feed_3", "lifter_gallery",
           "lifter_gallery_riser", "blind_tapping", "gallery_feed", "cooling_jets_feed_2" })
        QVERIFY2(dirty.contains(yes), yes);
    // Other parts are not there, and what opens elsewhere in the block is not met.
    for (const char *no : { "big_end_1_drilling", "pump_passage", "rocker_shaft_block_feed",
                            "rocker_shaft_head_feed", "filter_in", "relief_bore" })
        QVERIFY2(!dirty.contains(no), no);
}

void TestCleaning::plugsThatAreIn_keepSwarfOut()
{
    // A screw plug fitted into the riser's foot: the lifter gallery is behind it then.
    Build b = bare();
    Plug p;
    p.id = p.name = "foot";
    p.kind = "screw";
    p.passage = "lifter_gallery_riser";
    p.at_mm = 10;
    p.d_mm = 6;
    b = applyEdit(b, PutPlug { p }).value();
    const CleanEvent bored = entry("machining", "bore_mains", "", "job");
    QVERIFY(!inState(with(b, { bored }), CleanState::Dirty).contains("lifter_gallery"));
    const CleanEvent drawn = entry("plug_out", "foot", "", "plug");
    QVERIFY(inState(with(b, { drawn, bored }), CleanState::Dirty).contains("lifter_gallery"));
    // What counts is where the plug was when the boring was done.
    QVERIFY(!inState(with(b, { bored, drawn }), CleanState::Dirty).contains("lifter_gallery"));
}

void TestCleaning::undo_restoresAll()
{
    const Build before = demoBuild();
    const Build after = with(before, { entry("machining", "bore_mains", "", "job") });
    QVERIFY(assess(after).holds() > assess(before).holds() + 5);
    QCOMPARE(assessmentText(before, assess(before), {}),
             assessmentText(before, assess(demoBuild()), {}));
    const Build back
        = applyEdit(after, TakeBackEntry { "events", after.events.back().id, "t", "" }).value();
    QCOMPARE(assess(back).holds(), assess(before).holds());
}

void TestCleaning::assembledParts_passSwarfOn()
{
    const CleanEvent drilled = entry("machining", "rocker_shaft_block_feed");
    const std::string head = "rocker_shaft_head_feed";
    QVERIFY(!inState(with(bare(), { drilled }), CleanState::Dirty).contains(head));
    const std::vector<CleanEvent> together { entry("assembly", "", "", "all"), drilled };
    QVERIFY(inState(with(bare(), together), CleanState::Dirty).contains(head));
    const std::vector<CleanEvent> apart { entry("assembly", "", "", "all"),
                                          entry("taken_apart", "head", "", "part"), drilled };
    QVERIFY(!inState(with(bare(), apart), CleanState::Dirty).contains(head));
}

void TestCleaning::deck_dirtiesWhatOpensToTheHead()
{
    const auto dirty
        = inState(with(bare(), { entry("machining", "deck", "", "job") }), CleanState::Dirty);
    QCOMPARE(dirty, (std::set<std::string> { "rocker_shaft_block_feed" }));
}

void TestCleaning::movedClock_changesNothing()
{
    const std::vector<CleanEvent> right {
        at(entry("brush", gallery, "white"), "2026-03-01T10:00"),
        at(entry("look", gallery, "through"), "2026-03-01T10:05"),
        at(entry("machining", "bore_mains", "", "job"), "2026-03-02T09:00"),
        at(entry("brush", gallery, "white"), "2026-03-03T10:00")
    };
    std::vector<CleanEvent> wrong = right;
    wrong[1].at = "1970-01-01T00:05"; // a flat battery
    wrong[2].at = "2031-03-02T09:00"; // set wrongly
    QCOMPARE(stateOf(with(bare(), wrong), gallery).state,
             stateOf(with(bare(), right), gallery).state);
    QVERIFY(clockWentBack(with(bare(), wrong).events));
    const auto findings = assess(with(bare(), wrong)).findings;
    QVERIFY(std::any_of(findings.begin(), findings.end(),
                        [](const Finding &f) { return f.id == "clock"; }));
    QVERIFY(!clockWentBack(with(bare(), right).events));
}

void TestCleaning::eventDatedByHand_goesWhereItBelongs()
{
    const Build b = with(opened(),
                         { at(entry("brush", gallery, "white"), "2026-03-03T10:00"),
                           at(entry("look", gallery, "through"), "2026-03-03T10:05") });
    CleanEvent bored = at(entry("machining", "bore_mains", "", "job"), "2026-03-01T09:00");
    bored.dated = true; // written down afterwards
    QCOMPARE(stateOf(with(b, { bored }), gallery).state, CleanState::Clean);
    bored.at = "2026-03-04T09:00";
    QCOMPARE(stateOf(with(b, { bored }), gallery).state, CleanState::Dirty);
}

void TestCleaning::correction_standsWhereItsEventStood()
{
    const Build b = with(bare(),
                         { entry("brush", gallery, "grey"), entry("look", gallery, "through"),
                           entry("machining", "bore_mains", "", "job") });
    CleanEvent right = entry("brush", gallery, "white");
    right.replaces = b.events[0].id;
    // It was white, but before the boring: that stays dirty.
    const Build corrected = with(b, { right });
    QCOMPARE(stateOf(corrected, gallery).state, CleanState::Dirty);
    QCOMPARE(corrected.events.size(), size_t(4)); // both are kept
    right.replaces = "e99";
    QVERIFY(!applyEdit(b, AddEntry { right }));
}

void TestCleaning::takenBack_isAsIfItHadNotBeen()
{
    const Build b
        = with(opened(), { entry("brush", gallery, "white"), entry("look", gallery, "through") });
    const Build more = with(b, { entry("machining", "bore_mains", "", "job") });
    const TakeBackEntry back { "events", more.events.back().id, "tester", "" };
    const Build without = applyEdit(more, back).value();
    QCOMPARE(stateOf(without, gallery).state, CleanState::Clean);
    QVERIFY(!applyEdit(without, back)); // once
    QCOMPARE(without.events.size(), size_t(6));
}

void TestCleaning::renamed_keepsItsHistory()
{
    Build b = demoBuild();
    const PassageState before = stateOf(b, gallery);
    Passage p = *findPassage(b.passages, gallery);
    p.name = "Main oil way";
    b = applyEdit(b, PutPassage { p }).value();
    const PassageState after = stateOf(b, gallery);
    QCOMPARE(after.state, before.state);
    QCOMPARE(after.chain.size(), before.chain.size());
}

void TestCleaning::split_bothPartsKeepWhatWasBefore()
{
    Build b
        = with(opened(), { entry("brush", gallery, "white"), entry("look", gallery, "through") });
    b = applyEdit(b, CutPassage { gallery, 200 }).value();
    const std::string rear = gallery + "_far";
    QCOMPARE(stateOf(b, gallery).state, CleanState::Clean);
    QCOMPARE(stateOf(b, rear).state, CleanState::Clean);
    // From then on each has its own.
    const Build grey = with(b, { entry("brush", gallery, "grey") });
    QCOMPARE(stateOf(grey, gallery).state, CleanState::Grey);
    QCOMPARE(stateOf(grey, rear).state, CleanState::Clean);
    // A part of a part still remembers.
    const Build thrice = applyEdit(b, CutPassage { rear, 100 }).value();
    QCOMPARE(stateOf(thrice, rear + "_far").state, CleanState::Clean);
    // The split survives saving.
    const auto again = parseBuild(buildText(thrice));
    QVERIFY(again);
    QCOMPARE(stateOf(again->build, rear + "_far").chain.size(), size_t(2));
}

void TestCleaning::badEvents_areRefused_data()
{
    QTest::addColumn<QString>("place");
    QTest::addColumn<std::vector<CleanEvent>>("event");
    const auto row = [](const char *name, const char *place, CleanEvent e) {
        QTest::newRow(name) << QString::fromLatin1(place) << std::vector<CleanEvent> { e };
    };
    row("unknown kind", "/kind", entry("prayer", gallery));
    row("unknown passage", "/target", entry("brush", "nowhere", "white"));
    row("unknown job", "/target", entry("machining", "polish_halo", "", "job"));
    row("unknown part", "/target", entry("hot_tank", "gearbox", "", "part"));
    row("brush without result", "/result", entry("brush", gallery));
    row("plug event on a passage", "/scope", entry("plug_out", gallery));
    row("job that is no machining", "/scope", entry("hot_tank", "deck", "", "job"));
    row("days below nothing", "/days", stored(-1, false, gallery));
}

void TestCleaning::badEvents_areRefused()
{
    QFETCH(QString, place);
    QFETCH(std::vector<CleanEvent>, event);
    const Build b = bare();
    const auto done = applyEdit(b, AddEntry { event.front() });
    QVERIFY(!done);
    QCOMPARE(QString::fromStdString(done.error().place), QStringLiteral("/events/0") + place);
}

void TestCleaning::hiddenPlug_holdsThoughTheOuterOneIsIn()
{
    Build b = withPlugsSeen(demoBuild());
    const auto hold = [](const Build &build) {
        const std::string inner = "lifter_gallery_rear_inner";
        return fixture::stateOf(build, "plugseen@" + inner) != "proven";
    };
    // It was out all along: seen in its place it cannot have been.
    QVERIFY(hold(b));
    const CleanEvent fitted = entry("plug_in", "lifter_gallery_rear_inner", "", "plug");
    QVERIFY(!applyEdit(b, AddEntry { fitted })); // behind one that is in
    b = with(b,
             { entry("plug_out", "lifter_gallery_rear", "", "plug"), fitted,
               entry("plug_in", "lifter_gallery_rear", "", "plug"),
               entry("plug_seen", "lifter_gallery_rear", "", "plug") });
    QVERIFY(hold(b)); // fitted, and nobody looked
    QCOMPARE(fixture::stateOf(b, "plugin@lifter_gallery_rear"), "look_again"); // closed over it
    for (const PlugState &s : bookOf(b).plugs)
        if (s.plug == "lifter_gallery_rear")
            QCOMPARE(markOf(s), Mark::Proven); // the outer one is in and seen
    CleanEvent seen = entry("plug_seen", "lifter_gallery_rear_inner", "", "plug");
    QVERIFY(!applyEdit(b, AddEntry { seen }));
    seen.means = "camera";
    seen.by = "another"; // not who fitted it
    b = with(b, { seen });
    QVERIFY(!hold(b));
}

void TestCleaning::plug_isSeenUntilItIsDrawn()
{
    const std::string front = "main_gallery_front";
    const auto mark = [&](const std::vector<const char *> &kinds) {
        std::vector<CleanEvent> events;
        for (const char *k : kinds)
            events.push_back(entry(k, front, "", "plug"));
        for (const PlugState &s : bookOf(with(bare(), events)).plugs)
            if (s.plug == front)
                return markOf(s);
        return Mark::NotDone;
    };
    QCOMPARE(mark({}), Mark::Hold);
    QCOMPARE(mark({ "plug_seen" }), Mark::Proven);
    QCOMPARE(mark({ "plug_seen", "plug_out" }), Mark::Hold);
    QCOMPARE(mark({ "plug_seen", "plug_out", "plug_in" }), Mark::Hold);
    QCOMPARE(mark({ "plug_out", "plug_in", "plug_seen" }), Mark::Proven);
    QCOMPARE(mark({ "plug_left" }), Mark::Hold);
    QCOMPARE(mark({ "plug_left", "plug_seen" }), Mark::Proven);
}

void TestCleaning::stopsMark_isTheWorstOfItsPassages()
{
    const Build b = demoBuild();
    const Assessment a = assess(b);
    QCOMPARE(a.marksOf("main_1")->clean, Mark::Proven);
    QCOMPARE(a.marksOf("lifter_gallery")->clean, Mark::Hold); // grey brush
    QCOMPARE(a.marksOf("main_gallery")->clean, Mark::Proven); // its pocket was picked out
    // What has no passage is washed: the pump's own parts.
    QCOMPARE(fixture::stateOf(b, "wash@pump"), "proven");
    // Seen dirty as a whole is not outvoted by clean passages.
    Proof dirty { "", "main_1", "clean", "look_again", "a hair", "t", "", "", {} };
    QCOMPARE(assess(applyEdit(b, AddProof { dirty }).value()).marksOf("main_1")->clean,
             Mark::LookAgain);
}

void TestCleaning::twoThousandEvents_deriveTheSame()
{
    // A long life: every passage brushed and looked through, over and over.
    Build b = bare();
    const auto put = [&](CleanEvent e) {
        e.id = "e" + std::to_string(b.events.size() + 1);
        b.events.push_back(std::move(e));
    };
    for (const Plug &p : b.plugs)
        put(entry("plug_out", p.id, "", "plug"));
    while (b.events.size() < 2000)
        for (const Passage &p : b.passages) {
            put(entry("brush", p.id, "white"));
            put(entry("flush", p.id, "clear"));
            put(entry("look", p.id, "through"));
        }
    const auto again = parseBuild(buildText(b));
    QVERIFY(again);
    QCOMPARE(again->build.events.size(), b.events.size());
    QCOMPARE(inState(again->build, CleanState::Clean).size(), b.passages.size());
}

} // namespace tst_cleaning

MILDPATH_TEST(tst_cleaning, TestCleaning)
#include "tst_cleaning.moc"
