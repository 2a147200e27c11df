// SPDX-License-Identifier: GPL-3.0-or-later
// A drive over the pan and its table; gas laid over the forecast; where a sender sees oil.
#include "assess/replay.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "storage/drivetable.h"
#include "study/gaseffect.h"
#include "study/senders.h"
#include "testing.h"

using namespace mildpath;

namespace tst_drive {

class TestDrive : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void gas_costsPressureAndStiffness();
    void senders_seeOilThatMoves();
    void drive_heldStill_isTheSteadyTurn();
    void drive_quickerThanOil_isMarked();
    void driveTable_saysWhatIsWrongAndWhere_data();
    void driveTable_saysWhatIsWrongAndWhere();
};

namespace {

Build withValue(const Build &build, const char *key, double value)
{
    return applyEdit(build, SetSumpValue { key, value }).value();
}

} // namespace

void TestDrive::gas_costsPressureAndStiffness()
{
    const Build build = demoBuild();
    const Assessment a = assess(build);
    const auto none = gasEffect(build, a.sizes, a.operating, 0),
               some = gasEffect(build, a.sizes, a.operating, 0.1);
    QVERIFY(none && some);
    verifyClose(none->idleAfter.value_pa, a.operating.hotIdle.gauge.value_pa, 1e-4, 0,
                QStringLiteral("no gas"));
    QCOMPARE(none->stiffness, 1.0);
    QVERIFY(some->idleAfter.value_pa < a.operating.hotIdle.gauge.value_pa);
    // Less liquid by the share at most: a first estimate from above (mass balance).
    QVERIFY(some->idleAfter.value_pa > 0.75 * a.operating.hotIdle.gauge.value_pa);
    // One part in a hundred at 1 atm makes oil some 150 times softer (Wood 1930).
    const auto trace = gasEffect(build, a.sizes, a.operating, 0.01);
    verifyClose(1 / trace->stiffness, 150, 0.05, 0, QStringLiteral("stiffness"));
    QVERIFY(trace->stiffnessAtGauge > trace->stiffness);
    QVERIFY(!gasEffect(build, a.sizes, a.operating, 0.7));
}

void TestDrive::senders_seeOilThatMoves()
{
    const Build build = demoBuild();
    const auto a = assess(build);
    const auto places = senderPlaces(build, a.operating, a.air);
    const auto named = [&](const std::string &part) {
        return *std::find_if(places.begin(), places.end(), [&](const SenderPlace &p) {
            return p.name.find(part) != p.name.npos;
        });
    };
    // The gauge's own drilling is a dead end: good for pressure, not for temperature.
    QCOMPARE(named("Rear main gallery").mark, Mark::LookAgain);
    QVERIFY(named("Rear main gallery").filtered);
    QVERIFY(!named("Filter housing").filtered);
    QCOMPARE(named("bowl of the pan").mark, Mark::Proven);
    QVERIFY(named("bowl of the pan").idle_m3_s > 1.0 / 60000);
}

void TestDrive::drive_heldStill_isTheSteadyTurn()
{
    const Build build = demoBuild();
    const Assessment a = assess(build);
    std::vector<DriveMoment> drive;
    for (int i = 0; i < 100; ++i)
        drive.push_back({ i * 0.1, build.use.turn_g, 0 });
    const auto r = replayDrive(build, a.air, drive);
    QVERIFY(r);
    verifyClose(
        r->moments[50].cover_m,
        std::min(a.air.find("turn_left")->submergence_m, a.air.find("running")->submergence_m),
        1e-9, 1e-9, QStringLiteral("cover"));
    QCOMPARE(r->notModelled, 0.0);
    QVERIFY(r->uncovered.empty());
    // Hard enough, it draws air, and says for how long.
    for (DriveMoment &m : drive)
        m.lateral_g = m.time_s > 3 && m.time_s < 7 ? 2.5 : 0;
    const auto hard = replayDrive(withValue(build, "fill_l", 3),
                                  assess(withValue(build, "fill_l", 3)).air, drive);
    QVERIFY(hard && !hard->uncovered.empty());
    QVERIFY(hard->uncovered_s > 2.5 && hard->uncovered_s < 5);
}

void TestDrive::drive_quickerThanOil_isMarked()
{
    const Build build = demoBuild();
    std::vector<DriveMoment> drive;
    for (int i = 0; i < 400; ++i)
        drive.push_back({ i * 0.02, i % 2 ? 1.0 : -1.0, 0 });
    const auto r = replayDrive(build, assess(build).air, drive);
    QVERIFY(r);
    QVERIFY(r->notModelled > 0.9);
    Build blind = build;
    blind.sump.across.clear();
    const auto none = replayDrive(blind, assess(blind).air, drive);
    QVERIFY(!none);
    QCOMPARE(none.error().place, std::string("/sump/across_mm"));
}

void TestDrive::driveTable_saysWhatIsWrongAndWhere_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<int>("moments");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *what, const char *text, int moments, const char *place) {
        QTest::newRow(what) << QString::fromUtf8(text) << moments << QString::fromLatin1(place);
    };
    row("comma", "time_s,lateral_g\n0,0.1\n0.5,0.2\n", 2, "");
    row("tabs, other columns, any order", "lap\tlongitudinal_g\ttime_s\n1\t-0.3\t0\n1\t0.4\t1\n", 2,
        "");
    row("a mark before the header", "\xEF\xBB\xBFtime_s,lateral_g\r\n0,0\r\n1,0\r\n", 2, "");
    row("no time", "t,lateral_g\n0,1\n", 0, "line 1");
    row("a word", "time_s,lateral_g\n0,0\n1,left\n", 1, "line 3, lateral_g");
    row("time stands still", "time_s,lateral_g\n0,0\n0,0.1\n", 1, "line 3, time_s");
    row("metres a second squared", "time_s,lateral_g\n0,0\n1,9.8\n", 1, "line 3, lateral_g");
    row("one moment", "time_s,lateral_g\n0,0\n", 1, "line 2");
    row("a cell short", "time_s,lateral_g\n0,0\n1\n", 1, "line 3, lateral_g");
}

void TestDrive::driveTable_saysWhatIsWrongAndWhere()
{
    QFETCH(QString, text);
    QFETCH(int, moments);
    QFETCH(QString, place);
    const DriveImport in = driveFromTable(text.toStdString());
    QCOMPARE(static_cast<int>(in.moments.size()), moments);
    QCOMPARE(in.errors.empty(), place.isEmpty());
    if (!place.isEmpty())
        QCOMPARE(QString::fromStdString(in.errors.front().place), place);
}

} // namespace tst_drive

MILDPATH_TEST(tst_drive, TestDrive)
#include "tst_drive.moc"
