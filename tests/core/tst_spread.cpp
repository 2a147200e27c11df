// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "checks/buying.h"
#include "checksfixture.h"
#include "testing.h"

#include "assess/shopsheet.h"
#include "assess/spread.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "storage/passagetables.h"
#include "storage/photos.h"
#include "storage/templates.h"

#include <QFile>
#include <QTemporaryDir>

#include <algorithm>

using namespace mildpath;

namespace tst_spread {

namespace {

Build templateBuild(const char *name)
{
    return loadTemplate(name)->build;
}
Build failedAt(Build b, const std::string &stop)
{
    BearingFailure f;
    f.stop = stop;
    f.by = "tester";
    return applyEdit(b, AddEntry { f }).value();
}
Build repaired(const Build &b, const std::string &item, const char *done, const char *note = "")
{
    Repair r;
    r.failure = b.failures.front().id;
    r.item = item;
    r.done = done;
    r.note = note;
    r.by = "tester";
    return applyEdit(b, AddEntry { r }).value();
}
const SpreadItem *itemOf(const std::vector<Spread> &spreads, std::string_view id)
{
    for (const SpreadItem &i : spreads.front().items)
        if (i.id == id)
            return &i;
    return nullptr;
}
DebrisFind find(const char *size, const char *colour, const char *hardness, const char *magnetic)
{
    DebrisFind f;
    f.size = size;
    f.colour = colour;
    f.hardness = hardness;
    f.magnetic = magnetic;
    return f;
}

} // namespace

class TestSpread : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void failedBigEnd_marksTheOilsWayInOrder_data();
    void failedBigEnd_marksTheOilsWayInOrder();
    void everythingTheOilFeeds_isMarked();
    void everyPart_hasItsRule_data();
    void everyPart_hasItsRule();
    void unresolved_holdsTheStart();
    void bought_namesWhatTheRuleReplaces();
    void magnet_isNowhereOffered();
    void debris_isToldByTheTradesRules_data();
    void debris_isToldByTheTradesRules();
    void copper_holdsUntilItIsSettled();
    void signs_holdOrWantALook();
    void shopSheet_saysWhatTheJobReaches();
    void shopSheet_listsPlugsInAndOut();
    void workThatCameBack_isOffTheSheet();
    void tables_defuseFormulas();
    void photos_goWithTheBuild();
    void brokenReferences_haveAPlace_data();
    void brokenReferences_haveAPlace();
};

void TestSpread::failedBigEnd_marksTheOilsWayInOrder_data()
{
    QTest::addColumn<QString>("name");
    QTest::addColumn<QString>("failed");
    QTest::addColumn<QStringList>("order");
    QTest::newRow("wet sump with a cooler")
        << "inline-three-turbo"
        << "big_end_2"
        << QStringList { QStringLiteral("big_end_2"),        QStringLiteral("crank"),
                         QStringLiteral("main_3"),           QStringLiteral("main_gallery"),
                         QStringLiteral("sump_pickup"),      QStringLiteral("pump"),
                         QStringLiteral("filter"),           QStringLiteral("cooler"),
                         QStringLiteral("main_1"),           QStringLiteral("intake_cam"),
                         QStringLiteral("intake_cam_phaser") };
    QTest::newRow("dry sump: scavenge and tank come before the pump")
        << "v8-dry-sump"
        << "big_end_5"
        << QStringList { QStringLiteral("big_end_5"),    QStringLiteral("crank"),
                         QStringLiteral("main_gallery"), QStringLiteral("scavenge"),
                         QStringLiteral("tank"),         QStringLiteral("sump_pickup"),
                         QStringLiteral("pump"),         QStringLiteral("line_out"),
                         QStringLiteral("filter"),       QStringLiteral("cooler"),
                         QStringLiteral("line_back"),    QStringLiteral("main_1") };
    QTest::newRow("lifters first: their galleries come before the far mains")
        << "v8-lifters-first"
        << "big_end_1"
        << QStringList { QStringLiteral("big_end_1"),    QStringLiteral("crank"),
                         QStringLiteral("main_gallery"), QStringLiteral("sump_pickup"),
                         QStringLiteral("pump"),         QStringLiteral("filter"),
                         QStringLiteral("lifters_left"), QStringLiteral("main_4") };
    QTest::newRow("a main: its own gallery, no crank's pin")
        << "inline-four-wet-sump"
        << "main_2" << QStringList { QStringLiteral("main_2"),       QStringLiteral("crank"),
                                     QStringLiteral("main_gallery"), QStringLiteral("sump_pickup"),
                                     QStringLiteral("pump"),         QStringLiteral("filter"),
                                     QStringLiteral("main_1") };
}

void TestSpread::failedBigEnd_marksTheOilsWayInOrder()
{
    QFETCH(QString, name);
    QFETCH(QString, failed);
    QFETCH(QStringList, order);
    const auto spreads = spreadsOf(failedAt(templateBuild(qPrintable(name)), failed.toStdString()));
    QCOMPARE(spreads.size(), size_t(1));
    const auto &items = spreads.front().items;
    long before = -1;
    for (const QString &id : order) {
        const auto it = std::find_if(items.begin(), items.end(),
                                     [&](const SpreadItem &i) { return i.id == id.toStdString(); });
        QVERIFY2(it != items.end(), qPrintable(id));
        QVERIFY2(it - items.begin() > before, qPrintable(id));
        before = it - items.begin();
    }
    QCOMPARE(items.front().id, failed.toStdString());
}

void TestSpread::everythingTheOilFeeds_isMarked()
{
    for (const TemplateInfo &t : listTemplates()) {
        const Build b = templateBuild(t.name.c_str());
        const auto spreads = spreadsOf(failedAt(b, "big_end_1"));
        for (const Stop &s : b.engine.stops)
            if (!s.elements.empty())
                QVERIFY2(itemOf(spreads, s.id), (t.name + " " + s.id).c_str());
        std::set<std::string> ids;
        for (const SpreadItem &i : spreads.front().items) {
            QVERIFY2(ids.insert(i.id).second, i.id.c_str()); // each once
            QVERIFY(!i.rule.empty() && !i.reason.empty() && !i.choices.empty());
        }
    }
}

void TestSpread::everyPart_hasItsRule_data()
{
    // Common practice, no source: what settles a part that had bearing metal through it.
    QTest::addColumn<QString>("kind");
    QTest::addColumn<bool>("cleaned");
    QTest::addColumn<bool>("flushed");
    QTest::addColumn<bool>("replaced");
    QTest::newRow("cooler: replace") << "cooler" << false << false << true;
    QTest::newRow("cam phaser: replace") << "phaser" << false << false << true;
    QTest::newRow("solenoid: replace unless surely clean") << "solenoid" << true << false << true;
    QTest::newRow("pan: clean under every baffle or replace") << "pickup" << true << false << true;
    QTest::newRow("journal-bearing turbo: flush") << "turbo" << false << true << true;
    QTest::newRow("head: caps out, cleaned") << "head" << true << false << false;
    QTest::newRow("filter: replace") << "filter" << false << false << true;
}

void TestSpread::everyPart_hasItsRule()
{
    QFETCH(QString, kind);
    const SpreadRule &rule = spreadRule(kind.toStdString());
    QCOMPARE(rule.kind, std::string_view(kind.toStdString()));
    QTEST(settles(rule, "cleaned"), "cleaned");
    QTEST(settles(rule, "flushed"), "flushed");
    QTEST(settles(rule, "replaced"), "replaced");
    QVERIFY(!settles(rule, "looked at with a magnet"));
}

void TestSpread::unresolved_holdsTheStart()
{
    const Build fresh = templateBuild("inline-three-turbo");
    Build b = failedAt(fresh, "big_end_2");
    const int items = static_cast<int>(spreadsOf(b).front().items.size());
    const auto spreadHolds = [](const Build &build) {
        int n = 0;
        const auto spreads = spreadsOf(build);
        const fixture::By by(fixture::withJob(build, "N")); // lists the checks once
        for (const SpreadItem &i : spreads.front().items)
            n += by.state("spread@" + i.id) == QStringLiteral("hold");
        return n;
    };
    QCOMPARE(spreadHolds(b), items);
    // What was chosen for a part proves nothing; a new one does.
    b = repaired(b, "pump", "cleaned");
    QCOMPARE(spreadHolds(b), items);
    b = repaired(b, "main_1", "replaced");
    QCOMPARE(spreadHolds(b), items - 1);
    // Against the rule it stays a hold; with a reason somebody signed, it is for another look.
    b = repaired(b, "cooler", "flushed");
    QCOMPARE(itemOf(spreadsOf(b), "cooler")->mark, Mark::Hold);
    b = repaired(b, "cooler", "flushed", "opened and seen through, no other to be had");
    QCOMPARE(itemOf(spreadsOf(b), "cooler")->mark, Mark::LookAgain);
    b = repaired(b, "cooler", "replaced");
    QCOMPARE(itemOf(spreadsOf(b), "cooler")->mark, Mark::Proven);
    // The failure taken back takes all of it along.
    b = applyEdit(b, TakeBackEntry { "failures", b.failures.front().id, "t", "" }).value();
    QCOMPARE(assess(b).holds(), assess(fresh).holds());
}

void TestSpread::bought_namesWhatTheRuleReplaces()
{
    Build b = failedAt(templateBuild("inline-three-turbo"), "big_end_2");
    const auto wanted = [&](const char *what) {
        const auto list = boughtAfterFailure(b, Figures(b));
        return std::any_of(list.begin(), list.end(),
                           [&](const BuyRow &r) { return r.what == what; });
    };
    QVERIFY(wanted("Filter") && wanted("Oil cooler") && wanted("Cam phasers"));
    QVERIFY(!wanted("Pump")); // cleaned by rule
    b = repaired(b, "filter", "replaced");
    QVERIFY(!wanted("Filter"));
}

void TestSpread::magnet_isNowhereOffered()
{
    for (const SpreadRule &r : spreadRules())
        for (const std::string_view text : { r.rule, r.buy })
            QVERIFY(text.find("magnet") == std::string_view::npos);
    QVERIFY(magnetCaution().find("proves nothing") != std::string_view::npos);
    for (const EventKind &k : eventKinds())
        for (const std::string_view result : k.results)
            QVERIFY(result.find("magnet") == std::string_view::npos);
}

void TestSpread::debris_isToldByTheTradesRules_data()
{
    // Common practice, no source: what is said of what lies in pan and filter.
    QTest::addColumn<QStringList>("seen");
    QTest::addColumn<QString>("likely");
    const auto row = [](const char *name, QStringList seen, const char *likely) {
        QTest::newRow(name) << seen << QString::fromLatin1(likely);
    };
    const auto w = [](const char *a, const char *b, const char *c, const char *d) {
        return QStringList { QString::fromLatin1(a), QString::fromLatin1(b), QString::fromLatin1(c),
                             QString::fromLatin1(d) };
    };
    row("copper colour", w("flake", "copper", "soft", "no"), "copper underlayer");
    row("copper, no magnet tried", w("speck", "copper", "", ""), "copper underlayer");
    row("bright, soft, not magnetic", w("flake", "bright", "soft", "no"), "overlay");
    row("bright curl", w("curl", "bright", "soft", "no"), "light-alloy swarf");
    row("magnetic", w("grit", "grey", "hard", "yes"), "iron or steel");
    row("bright and magnetic", w("curl", "bright", "hard", "yes"), "iron or steel");
    row("black, hard, not magnetic", w("flake", "black", "hard", "no"), "chain guide");
    row("pliable grey", w("lump", "grey", "pliable", "no"), "sealant");
    row("pliable black", w("lump", "black", "pliable", ""), "sealant");
    row("hard grey grit", w("grit", "grey", "hard", "no"), "sand");
    row("fits nothing", w("speck", "black", "soft", ""), "");
}

void TestSpread::debris_isToldByTheTradesRules()
{
    QFETCH(QStringList, seen);
    QFETCH(QString, likely);
    const auto guesses = guessDebris(
        find(qPrintable(seen[0]), qPrintable(seen[1]), qPrintable(seen[2]), qPrintable(seen[3])));
    QCOMPARE(guesses.empty(), likely.isEmpty());
    if (!guesses.empty()) {
        const QString kind = QString::fromStdString(std::string(guesses.front().kind));
        QVERIFY2(kind.contains(likely), qPrintable(kind));
        QVERIFY(!guesses.front().reason.empty());
        // What a magnet takes is no bearing metal.
        QVERIFY(seen[3] != u"yes" || !guesses.front().bearing);
    }
}

void TestSpread::copper_holdsUntilItIsSettled()
{
    const Build fresh = templateBuild("inline-four-wet-sump");
    DebrisFind f = find("flake", "copper", "soft", "no");
    f.stop = "filter";
    Build b = applyEdit(fresh, AddEntry { f }).value();
    const auto copper = [](const Build &build) {
        return fixture::stateOf(build, "find@" + standing(build.finds).back()->id) == "hold";
    };
    QVERIFY(copper(b));
    f.replaces = b.finds.front().id;
    f.settled = "big-end 2, shells renewed";
    b = applyEdit(b, AddEntry { f }).value();
    QVERIFY(!copper(b));
    QCOMPARE(b.finds.size(), size_t(2));
}

void TestSpread::signs_holdOrWantALook()
{
    const Build fresh = templateBuild("inline-four-wet-sump");
    for (const SignKind &k : signKinds()) {
        const Stop *stop = fresh.engine.ofKind(k.stopKind);
        QVERIFY2(stop, k.id.data());
        Sign s;
        s.stop = stop->id;
        s.sign = k.id;
        const Build b = applyEdit(fresh, AddEntry { s }).value();
        // A sign is asked for where an engine was taken down.
        const std::string check = "sign@" + s.stop + "#" + s.sign;
        QCOMPARE(fixture::stateOf(fixture::withJob(b, "R"), check),
                 k.holds ? "hold" : "look_again");
        s.there = false;
        s.replaces = b.signs.front().id;
        const Build notThere = applyEdit(b, AddEntry { s }).value();
        QCOMPARE(fixture::stateOf(fixture::withJob(notThere, "R"), check), "proven");
    }
}

void TestSpread::shopSheet_saysWhatTheJobReaches()
{
    Build b = demoBuild();
    ShopJob j;
    j.job = "bore_mains";
    j.note = "0.02 mm";
    j.prove = "bore sizes in writing";
    b = applyEdit(b, AddEntry { j }).value();
    const ShopSheet s = shopSheet(b, "2026-04-01");
    QCOMPARE(s.work.size(), size_t(1));
    QCOMPARE(s.work[0].what, std::string("Mains line-bored or honed"));
    // The sheet names what the logbook would call dirty.
    CleanEvent e;
    e.kind = "machining";
    e.scope = "job";
    e.target = "bore_mains";
    const Build bored = applyEdit(b, AddEntry { e }).value();
    const Assessment a = assess(bored);
    std::set<std::string> dirty;
    for (const PassageState &p : a.cleaning.passages)
        if (p.state == CleanState::Dirty)
            dirty.insert(findPassage(b.passages, p.passage)->name);
    QCOMPARE(std::set<std::string>(s.work[0].dirties.begin(), s.work[0].dirties.end()), dirty);
    QCOMPARE(s.parts, (std::set<std::string> { "block" }));
    QVERIFY(s.prove.front().find("white") != std::string::npos);
    QVERIFY(s.prove.back().find("in writing") != std::string::npos);
}

void TestSpread::shopSheet_listsPlugsInAndOut()
{
    Build b = demoBuild();
    ShopJob j;
    j.job = "bore_mains";
    b = applyEdit(b, AddEntry { j }).value();
    const ShopSheet s = shopSheet(b, "");
    QCOMPARE(s.plugs.size(), size_t(8)); // all but the pump's relief cap
    int out = 0;
    for (const ShopSheet::PlugRow &p : s.plugs)
        out += p.out;
    QCOMPARE(out, 1);
    QVERIFY(std::any_of(s.plugs.begin(), s.plugs.end(), [](const ShopSheet::PlugRow &p) {
        return p.kind.find("hidden behind P4") != std::string::npos;
    }));
}

void TestSpread::workThatCameBack_isOffTheSheet()
{
    Build b = demoBuild();
    ShopJob j;
    j.note = "crack test";
    b = applyEdit(b, AddEntry { j }).value();
    QCOMPARE(shopSheet(b, "").work.size(), size_t(1));
    j.replaces = b.shopJobs.front().id;
    j.event = "-";
    b = applyEdit(b, AddEntry { j }).value();
    QVERIFY(shopSheet(b, "").work.empty());
    QVERIFY(!applyEdit(b, AddEntry { ShopJob {} })); // says nothing
}

void TestSpread::tables_defuseFormulas()
{
    Build b = demoBuild();
    Passage p = *findPassage(b.passages, "main_gallery");
    p.name = "=1+1";
    b = applyEdit(b, PutPassage { p }).value();
    const QString csv = QString::fromStdString(passagesToCsv(b));
    QVERIFY(csv.contains(QStringLiteral("'=1+1")));
    QCOMPARE(csv.count(QStringLiteral("\r\n")), static_cast<int>(b.passages.size()) + 1);
    QVERIFY(csv.startsWith(QStringLiteral("id,name,part,stop,made,d_mm,l_mm")));
    QCOMPARE(QString::fromStdString(plugsToCsv(b)).count(QStringLiteral("\r\n")),
             static_cast<int>(b.plugs.size()) + 1);
    QCOMPARE(QString::fromStdString(eventsToCsv(b)).count(QStringLiteral("\r\n")),
             static_cast<int>(b.events.size()) + 1);
}

void TestSpread::photos_goWithTheBuild()
{
    QTemporaryDir folder;
    const auto path = [&](const char *name) {
        return std::filesystem::path(folder.path().toStdString()) / name;
    };
    QFile shot(QString::fromStdString(path("shot.png").string()));
    QVERIFY(shot.open(QIODevice::WriteOnly));
    shot.write("not looked at here");
    shot.close();
    Build b = demoBuild();
    DebrisFind f = find("flake", "black", "hard", "no");
    f.photos = { "abc.png", "gone.png" };
    b = applyEdit(b, AddEntry { f }).value();
    QVERIFY(keepPhoto(path("shot.png"), path("a.mildpath"), "abc.png"));
    QCOMPARE(photoFolder(path("a.mildpath")).filename().string(), std::string("a.files"));
    QCOMPARE(missingPhotos(b, path("a.mildpath")), (std::vector<std::string> { "gone.png" }));
    // Saved elsewhere, they come along; what was missing is missing there as well.
    QVERIFY(copyPhotos(b, path("a.mildpath"), path("b.mildpath")));
    QCOMPARE(missingPhotos(b, path("b.mildpath")), (std::vector<std::string> { "gone.png" }));
    QVERIFY(!keepPhoto(path("none.png"), path("a.mildpath"), "x.png"));
    QVERIFY(!std::filesystem::exists(photoFolder(path("a.mildpath")) / "x.png"));
    f.photos = { "../escape.png" };
    QVERIFY(!applyEdit(b, AddEntry { f }));
}

void TestSpread::brokenReferences_haveAPlace_data()
{
    QTest::addColumn<QString>("place");
    QTest::addColumn<int>("what");
    QTest::newRow("sign at no stop") << "/signs/0/stop" << 0;
    QTest::newRow("unknown sign") << "/signs/0/sign" << 1;
    QTest::newRow("failure at no stop") << "/failures/0/stop" << 2;
    QTest::newRow("repair of no failure") << "/repairs/0/failure" << 3;
    QTest::newRow("repair done how?") << "/repairs/0/done" << 4;
    QTest::newRow("unknown job") << "/shop_jobs/0/job" << 5;
}

void TestSpread::brokenReferences_haveAPlace()
{
    QFETCH(QString, place);
    QFETCH(int, what);
    Build b = templateBuild("single-air-cooled");
    Sign s;
    s.id = "s1";
    s.stop = what == 0 ? "nowhere" : "pump";
    s.sign = what == 1 ? "omen" : "pump_plates";
    b.signs = { s };
    BearingFailure f;
    f.id = "b1";
    f.stop = what == 2 ? "nowhere" : "main_1";
    b.failures = { f };
    Repair r;
    r.id = "d1";
    r.failure = what == 3 ? "b9" : "b1";
    r.item = "pump";
    r.done = what == 4 ? "wiped" : "cleaned";
    b.repairs = { r };
    ShopJob j;
    j.id = "j1";
    j.job = what == 5 ? "magic" : "deck";
    b.shopJobs = { j };
    const auto errors = validateBuild(b);
    QCOMPARE(errors.size(), size_t(1));
    QCOMPARE(QString::fromStdString(errors.front().place), place);
}

} // namespace tst_spread

MILDPATH_TEST(tst_spread, TestSpread)
#include "tst_spread.moc"
