// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"
#include "quantity/json.h"
#include "study/heatlog.h"
#include "study/room.h"
#include "testing.h"

using namespace mildpath;

namespace tst_heatlog {

/// The heated-block log: what it accepts, what it refuses to believe, what it proves.
class TestHeatLog : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void cleanLog_givesTheExpansionBack_data();
    void cleanLog_givesTheExpansionBack();
    void running_isReadingLessTheJournalsGrowth();
    void point_isJudged_data();
    void point_isJudged();
    void wrongPoint_doesNotMoveTheFit();
    void log_withTooLittle_saysSo_data();
    void log_withTooLittle_saysSo();
    void noisyPoints_widenTheUncertainty();
    void withoutColdReading_theSmallestIsTheReference();
    void fitInUse_replacesTheHandbooks();
    void journalWarmedAlong_isTakenOut();
    void infraredBand_isAChoice();
    void correction_strikesAndKeeps();
    void unfinishedPoint_isFilledIn();
    void badPoint_isRefused_data();
    void badPoint_isRefused();
    void settings_surviveTheFile();
    void edits_surviveTheJournal();
};

namespace {

constexpr double shellSteel = 11.7e-6;

/// The alloy template with main 3 gauged at 45 µm.
Build alloyBuild(bool gauged = true)
{
    Build b = loadTemplate("inline-four-alloy")->build;
    if (gauged)
        for (const int station : { 1, 2 })
            b = applyEdit(b, EnterReading { gaugeReading("main_3", station, 90, 45) }).value();
    return b;
}

/// What a gauge zeroed at 20 °C reads in main 3 at a block temperature.
double reads_um(const Build &b, double block_c, double expansion, double cold_um = 45)
{
    const Stop &s = *b.engine.find("main_3");
    const double housing_um = journalOf_mm(b, s) * 1e3 + cold_um + 2e3 * s.value("shell_wall_mm");
    return cold_um
        + (housing_um * expansion - 2e3 * s.value("shell_wall_mm") * shellSteel) * (block_c - 20);
}

HeatPoint heatPoint(std::vector<double> spots, std::optional<double> reading,
                    const std::string &surface = "dull")
{
    HeatPoint p;
    p.stop = "main_3";
    p.spots_c = std::move(spots);
    p.surface = surface;
    p.reading_um = reading;
    p.by = "tester";
    p.at = "2026-01-01T10:00:00";
    return p;
}

Build withPoints(Build b, const std::vector<HeatPoint> &points)
{
    for (const HeatPoint &p : points)
        b = applyEdit(b, EnterHeatPoint { p }).value();
    return b;
}

HeatLog logOf(const Build &b)
{
    return judgeHeatLog(b, judgeSizes(b), "main_3");
}

Build cleanLog(double expansion)
{
    const Build b = alloyBuild();
    std::vector<HeatPoint> points;
    for (const double c : { 20.0, 45.0, 70.0, 95.0 })
        points.push_back(heatPoint({ c - 1, c, c + 1 }, reads_um(b, c, expansion)));
    return withPoints(b, points);
}

} // namespace

void TestHeatLog::cleanLog_givesTheExpansionBack_data()
{
    QTest::addColumn<double>("expansion");
    QTest::newRow("as the handbook says") << 21.5e-6;
    QTest::newRow("a little less") << 20.4e-6;
    QTest::newRow("a little more") << 22.6e-6;
}

void TestHeatLog::cleanLog_givesTheExpansionBack()
{
    QFETCH(double, expansion);
    const HeatLog log = logOf(cleanLog(expansion));
    QVERIFY2(log.fit, said(log.verdict).c_str());
    QCOMPARE(log.mark, Mark::Proven);
    verifyClose(log.expansion_per_k, expansion, 1e-9);
    for (const JudgedHeatPoint &p : log.points)
        QVERIFY2(p.counts && p.mark == Mark::Proven, said(p.verdict).c_str());
    // Of 25 K steps a gauge good to 1.3 µm and spots good to 1 K leave a few per cent.
    QVERIFY(*log.expansionU_per_k > 0.1e-6 && *log.expansionU_per_k < 1.5e-6);
}

void TestHeatLog::running_isReadingLessTheJournalsGrowth()
{
    const Build b = cleanLog(21.5e-6);
    const HeatLog log = logOf(b);
    const double journal_um = journalOf_mm(b, *b.engine.find("main_3")) * 1e3;
    for (const JudgedHeatPoint &p : log.points)
        verifyClose(*p.running_um, *p.reading_um - journal_um * shellSteel * (*p.metal_c - 20), 0,
                    1e-6);
    // Hot, the reading overstates the running clearance by 53 µm, half of it again.
    QVERIFY(*log.points.back().reading_um > 1.4 * *log.points.back().running_um);
    // What it would run with is what the size itself says at that temperature.
    const auto sizes = judgeSizes(b);
    for (const GaugedSize &s : sizes)
        if (s.stop == "main_3" && s.family == "main")
            verifyClose(*log.points.back().running_um, s.at(allAt(95)), 0, 0.3);
    verifyClose(log.gauge_um_per_k - log.running_um_per_k, journal_um * shellSteel, 1e-9);
}

void TestHeatLog::point_isJudged_data()
{
    QTest::addColumn<QList<double>>("spots");
    QTest::addColumn<double>("reading_um"); // NaN: the true one at the mean of the spots
    QTest::addColumn<QString>("surface");
    QTest::addColumn<bool>("counts");
    QTest::addColumn<QString>("word");
    const double right = qQNaN();
    QTest::newRow("good") << QList { 69.0, 70.0, 71.0 } << right << "dull" << true << "agrees";
    QTest::newRow("bright metal") << QList { 36.0, 37.0 } << 125.0 << "contact" << false
                                  << "aim at a dull or painted spot";
    QTest::newRow("not settled") << QList { 60.0, 70.0, 80.0 } << right << "dull" << false
                                 << "not settled";
    QTest::newRow("one spot") << QList { 70.0 } << right << "dull" << true << "take three";
    QTest::newRow("skin hot, metal cold")
        << QList { 94.0, 95.0, 96.0 } << 60.0 << "dull" << false << "grown only";
    QTest::newRow("shrunk") << QList { 69.0, 70.0, 71.0 } << 20.0 << "dull" << false << "shrunk";
    QTest::newRow("thou typed as µm")
        << QList { 69.0, 70.0, 71.0 } << 4.4 << "dull" << false << "thou would be";
    QTest::newRow("mm typed as µm")
        << QList { 69.0, 70.0, 71.0 } << 0.111 << "dull" << false << "mm would be";
    QTest::newRow("Fahrenheit typed as Celsius")
        << QList { 157.0, 158.0, 159.0 } << 111.0 << "dull" << false << "°F would be";
    QTest::newRow("emissivity set, but too bright")
        << QList { 29.0, 30.0, 31.0 } << right << "machined_aluminium" << false
        << "on bright metal";
}

void TestHeatLog::point_isJudged()
{
    QFETCH(QList<double>, spots);
    QFETCH(double, reading_um);
    QFETCH(QString, surface);
    QFETCH(bool, counts);
    QFETCH(QString, word);
    const Build b = alloyBuild();
    HeatPoint p = heatPoint({ spots.begin(), spots.end() }, 50, surface.toStdString());
    if (qIsNaN(reading_um)) {
        const HeatLog bare = logOf(withPoints(b, { p }));
        reading_um = reads_um(b, *bare.points.front().metal_c, 21.5e-6);
    }
    p.reading_um = reading_um;
    const HeatLog log = logOf(withPoints(b, { p }));
    const JudgedHeatPoint &j = log.points.front();
    QVERIFY2(QString::fromStdString(said(j.verdict)).contains(word), said(j.verdict).c_str());
    QCOMPARE(j.counts, counts);
    QCOMPARE(j.mark == Mark::Proven, word == QStringLiteral("agrees"));
}

void TestHeatLog::wrongPoint_doesNotMoveTheFit()
{
    const Build good = cleanLog(21.5e-6);
    const HeatLog before = logOf(good);
    const HeatLog after = logOf(withPoints(good, { heatPoint({ 36, 37 }, 130, "contact") }));
    QCOMPARE(after.points.size(), before.points.size() + 1);
    QCOMPARE(after.expansion_per_k, before.expansion_per_k);
    QVERIFY(after.points.back().mark == Mark::LookAgain);
    verifyClose(*after.points.back().growthSays_c, 20 + (130 - 45) / before.gauge_um_per_k, 0, 0.5);
}

void TestHeatLog::log_withTooLittle_saysSo_data()
{
    QTest::addColumn<QList<double>>("temps");
    QTest::addColumn<QString>("word");
    QTest::newRow("empty") << QList<double> {} << "nothing measured warm yet";
    QTest::newRow("one point") << QList { 60.0 } << "one point is no growth";
    QTest::newRow("two equal temperatures") << QList { 60.0, 60.0 } << "one temperature";
}

void TestHeatLog::log_withTooLittle_saysSo()
{
    QFETCH(QList<double>, temps);
    QFETCH(QString, word);
    const Build b = alloyBuild();
    std::vector<HeatPoint> points;
    for (const double c : temps)
        points.push_back(heatPoint({ c, c, c }, reads_um(b, c, 21.5e-6)));
    const HeatLog log = logOf(withPoints(b, points));
    QVERIFY(!log.fit && !log.expansionU_per_k);
    QVERIFY2(QString::fromStdString(said(log.verdict)).contains(word), said(log.verdict).c_str());
    // A stop without a bore that is gauged warm has no log either.
    QVERIFY(!judgeHeatLog(b, judgeSizes(b), "pump").verdict.empty());
}

void TestHeatLog::noisyPoints_widenTheUncertainty()
{
    Build b = alloyBuild();
    std::vector<HeatPoint> points;
    const double noise[] = { 2.5, -3.5, 3, -2 };
    int i = 0;
    for (const double c : { 30.0, 50.0, 70.0, 90.0 })
        points.push_back(heatPoint({ c, c, c }, reads_um(b, c, 21.5e-6) + noise[i++]));
    const HeatLog noisy = logOf(withPoints(b, points)), clean = logOf(cleanLog(21.5e-6));
    QVERIFY(noisy.fit);
    QVERIFY(*noisy.expansionU_per_k > *clean.expansionU_per_k);
    QVERIFY(std::abs(noisy.expansion_per_k - 21.5e-6) < 2 * *noisy.expansionU_per_k);
}

void TestHeatLog::withoutColdReading_theSmallestIsTheReference()
{
    const Build b = alloyBuild(false);
    const HeatLog log = logOf(withPoints(b,
                                         { heatPoint({ 80, 80 }, reads_um(b, 80, 21.5e-6)),
                                           heatPoint({ 21, 21 }, reads_um(b, 21, 21.5e-6)),
                                           heatPoint({ 35, 36 }, 120, "contact") }));
    QVERIFY(log.points[0].counts && log.points[1].counts && !log.points[2].counts);
    QVERIFY(log.fit);
    verifyClose(log.points[0].grown_um, 59 * log.gauge_um_per_k, 0, 0.1);
}

void TestHeatLog::fitInUse_replacesTheHandbooks()
{
    const Build b = cleanLog(20.4e-6);
    const HeatLog log = logOf(b);
    const auto used
        = applyEdit(b, SetExpansion { std::string(mainHousing), expansionFromLog(b, log) });
    QVERIFY(used);
    const auto before = judgeSizes(b), after = judgeSizes(*used);
    for (size_t i = 0; i < before.size(); ++i) {
        const double change = after[i].running_um - before[i].running_um;
        if (before[i].family == "main")
            // 1.1e-6 less on some 64 mm over 78 K
            verifyClose(change, -1.1e-6 * 64e3 * 78, 0.02);
        else
            verifyClose(change, 0, 0, 1e-9);
    }
    QVERIFY(used->expansions.at(std::string(mainHousing)).source.find("4 points")
            != std::string::npos);
    const auto back = applyEdit(*used, SetExpansion { std::string(mainHousing), std::nullopt });
    QCOMPARE(judgeSizes(*back).front().running_um, before.front().running_um);
}

void TestHeatLog::journalWarmedAlong_isTakenOut()
{
    const Build b = alloyBuild();
    const double journal_um = journalOf_mm(b, *b.engine.find("main_3")) * 1e3;
    std::vector<HeatPoint> points;
    for (const double c : { 22.0, 60.0, 90.0 }) {
        HeatPoint p
            = heatPoint({ c, c, c }, reads_um(b, c, 21.5e-6) - journal_um * shellSteel * (c - 20));
        p.journalWithBlock = true;
        points.push_back(p);
    }
    const HeatLog log = logOf(withPoints(b, points));
    QVERIFY2(log.fit, said(log.verdict).c_str());
    verifyClose(log.expansion_per_k, 21.5e-6, 1e-9);
    // Block and crank alike warm: the reading is the running clearance.
    for (const JudgedHeatPoint &p : log.points)
        verifyClose(*p.running_um, *p.reading_um, 0, 1e-6);
}

void TestHeatLog::infraredBand_isAChoice()
{
    Build b = withPoints(alloyBuild(), { heatPoint({ 60, 60, 60 }, 98, "cast_aluminium") });
    const double band = *logOf(b).points.front().metal_c;
    Choice all;
    all.question = infraredBandQuestion;
    all.answer = "total";
    b = applyEdit(b, Choose { all }).value();
    const double total = *logOf(b).points.front().metal_c;
    // The textbook's total radiation corrects less than a band instrument needs.
    QVERIFY(total > 100 && total < band - 2);
}

void TestHeatLog::correction_strikesAndKeeps()
{
    Build b = withPoints(alloyBuild(), { heatPoint({ 60, 60 }, 90) });
    HeatPoint better = heatPoint({ 60, 61 }, 98);
    better.replaces = b.heatPoints.front().id;
    b = applyEdit(b, EnterHeatPoint { better }).value();
    QCOMPARE(b.heatPoints.size(), size_t(2));
    auto standing = standingHeatPoints(b, "main_3");
    QCOMPARE(standing.size(), size_t(1));
    QCOMPARE(*standing.front()->reading_um, 98.0);
    HeatPoint back = *standing.front();
    back.replaces = back.id;
    back.takenBack = true;
    b = applyEdit(b, EnterHeatPoint { back }).value();
    QCOMPARE(b.heatPoints.size(), size_t(3));
    QVERIFY(standingHeatPoints(b, "main_3").empty());
    // What was struck once cannot be struck again.
    QVERIFY(!applyEdit(b, EnterHeatPoint { better }));
}

void TestHeatLog::unfinishedPoint_isFilledIn()
{
    Build b = withPoints(alloyBuild(), { heatPoint({ 60 }, std::nullopt) });
    HeatPoint more = heatPoint({ 60, 61, 62 }, 98);
    more.replaces = b.heatPoints.front().id;
    b = applyEdit(b, EnterHeatPoint { more }).value();
    QCOMPARE(b.heatPoints.size(), size_t(1));
    QVERIFY(b.heatPoints.front().replaces.empty());
    QCOMPARE(*b.heatPoints.front().reading_um, 98.0);
}

void TestHeatLog::badPoint_isRefused_data()
{
    QTest::addColumn<int>("what");
    QTest::addColumn<QString>("place");
    QTest::newRow("a pump") << 0 << "/heat_points/0/stop";
    QTest::newRow("hotter than any bench") << 1 << "/heat_points/0/spots_c/1";
    QTest::newRow("a metre of clearance") << 2 << "/heat_points/0/reading_um";
    QTest::newRow("unknown surface") << 3 << "/heat_points/0/surface";
    QTest::newRow("no such point") << 4 << "replaces";
}

void TestHeatLog::badPoint_isRefused()
{
    QFETCH(int, what);
    QFETCH(QString, place);
    HeatPoint p = heatPoint({ 60, 61 }, 98);
    if (what == 0)
        p.stop = "pump";
    if (what == 1)
        p.spots_c[1] = 600;
    if (what == 2)
        p.reading_um = 1e6;
    if (what == 3)
        p.surface = "mirror";
    if (what == 4)
        p.replaces = "h77";
    const auto done = applyEdit(alloyBuild(), EnterHeatPoint { p });
    QVERIFY(!done);
    QCOMPARE(QString::fromStdString(done.error().place), place);
}

void TestHeatLog::settings_surviveTheFile()
{
    Build b = cleanLog(21e-6);
    b = applyEdit(b, SetHeat { "block_end_c", 85 }).value();
    b = applyEdit(b, SetMaterial { "main_cap", "nodular_iron", 0.4 }).value();
    OwnExpansion own;
    own.per_k = 21.1e-6;
    own.u_per_k = 0.3e-6;
    own.source = "maker";
    b = applyEdit(b, SetExpansion { "cast_aluminium", own }).value();
    const auto read = parseBuild(buildText(b));
    QVERIFY(read);
    QVERIFY(read->build == b);
    // A file of before the heat log opens with the usual settings.
    Json older = toJson(alloyBuild());
    for (const char *key : { "heat", "expansions", "heat_points" })
        older.erase(key);
    older["version"] = 3;
    const auto lifted = parseBuild(older.dump());
    QVERIFY(lifted && lifted->fileVersion == 3 && !lifted->olderText.empty());
    QVERIFY(lifted->build.heat == Heat {});
    QVERIFY(!applyEdit(b, SetHeat { "block_end_c", 900 }));
    QVERIFY(!applyEdit(b, SetHeat { "blocks_end", 90 }));
    QVERIFY(!applyEdit(b, SetMaterial { "block", "cheese", {} }));
    own.per_k = 21.1;
    QVERIFY(!applyEdit(b, SetExpansion { "cast_aluminium", own }));
}

void TestHeatLog::edits_surviveTheJournal()
{
    OwnExpansion own;
    own.per_k = 22e-6;
    own.source = "maker";
    const Edit edits[] = {
        SetHeat { "journal_lag_s", 45 },
        SetMaterial { "main_cap", "", {} },
        SetMaterial { "main_cap", "grey_iron", 0.5 },
        SetExpansion { "cast_aluminium", own },
        SetExpansion { "cast_aluminium", std::nullopt },
        EnterHeatPoint { heatPoint({ 60, 61 }, 98) },
    };
    const Build b = alloyBuild();
    for (const Edit &e : edits) {
        const auto back = editFromJson(editToJson(e));
        QVERIFY2(back, editToJson(e).dump().c_str());
        QVERIFY(*back == e);
        QVERIFY(!describeEdit(b, e).empty());
        QVERIFY(applyEdit(b, *back));
    }
}

} // namespace tst_heatlog

MILDPATH_TEST(tst_heatlog, TestHeatLog)
#include "tst_heatlog.moc"
