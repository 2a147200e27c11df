// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "clirun.h"
#include "report/buildsheet.h"
#include "start/alarms.h"

// No sentence keeps units of its own: whatever the command line, the sheet and the alarms say, they
// say in the units asked for.

using namespace mildpath;

namespace tst_units {

class TestUnits : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void verbs_speakTheUnitsAskedFor_data();
    void verbs_speakTheUnitsAskedFor();
    void sheets_speakTheUnitsAskedFor_data();
    void sheets_speakTheUnitsAskedFor();
    void alarms_speakTheUnitsAskedFor();
    void unknownSystem_isRefused();
    void both_showsMetricFirst();

private:
    static QString demo(const QString &name)
    {
        return QString::fromStdString(
            (demoBuildPath().parent_path() / (name + QStringLiteral(".mildpath")).toStdString())
                .string());
    }
    /// Words of people who made the demos, which nobody translates.
    static QStringList ownWords()
    {
        return { QStringLiteral("2\\.7 L (alloy )?inline-four"),
                 QStringLiteral("pickup 7 mm off the floor") };
    }
};

void TestUnits::verbs_speakTheUnitsAskedFor_data()
{
    QTest::addColumn<QString>("verb");
    QTest::addColumn<QString>("name");
    QTest::addColumn<UnitSystem>("system");
    for (const char *verb : { "assess", "plan-cleaning", "start", "after", "diagnose" })
        for (const char *name :
             { "harbour-fire-pump", "harbour-fire-pump-history", "harbour-fire-pump-started",
               "harbour-launch-turbo", "harbour-standby", "harbour-tender-alloy" })
            for (const UnitSystem system : { UnitSystem::Metric, UnitSystem::Imperial })
                if (!sanitized || std::string_view(name) == "harbour-standby")
                    QTest::addRow("%s %s %s", verb, name,
                                  system == UnitSystem::Metric ? "metric" : "imperial")
                        << QString::fromLatin1(verb) << QString::fromLatin1(name) << system;
}

void TestUnits::verbs_speakTheUnitsAskedFor()
{
    QFETCH(QString, verb);
    QFETCH(QString, name);
    QFETCH(UnitSystem, system);
    const CliRun said = run(
        { verb, demo(name), QStringLiteral("--units"),
          system == UnitSystem::Metric ? QStringLiteral("metric") : QStringLiteral("imperial") });
    const QString text = QString::fromUtf8(said.out + said.err);
    QVERIFY(!text.isEmpty());
    const QString foreign = foreignUnit(text, system, ownWords());
    QVERIFY2(foreign.isEmpty(), qPrintable(foreign));
}

void TestUnits::sheets_speakTheUnitsAskedFor_data()
{
    QTest::addColumn<QString>("name");
    QTest::addColumn<UnitSystem>("system");
    for (const char *name :
         { "harbour-fire-pump", "harbour-fire-pump-history", "harbour-fire-pump-started",
           "harbour-launch-turbo", "harbour-standby", "harbour-tender-alloy" })
        for (const UnitSystem system : { UnitSystem::Metric, UnitSystem::Imperial })
            QTest::addRow("%s %s", name, system == UnitSystem::Metric ? "metric" : "imperial")
                << QString::fromLatin1(name) << system;
}

void TestUnits::sheets_speakTheUnitsAskedFor()
{
    QFETCH(QString, name);
    QFETCH(UnitSystem, system);
    const auto loaded = loadBuild(demo(name).toStdString());
    QVERIFY(loaded);
    const BuildSheet sheet
        = buildSheet(loaded->build, assess(loaded->build), "2026-03-02", { system, false });
    QString html = QString::fromStdString(sheetToHtml(sheet, Paper::A4));
    html.remove(QRegularExpression(QStringLiteral("<style>.*</style>"),
                                   QRegularExpression::DotMatchesEverythingOption));
    html.replace(QRegularExpression(QStringLiteral("<[^>]*>")), QStringLiteral("\n"));
    // The notes of a build are its owner's words.
    for (const std::string &words : { loaded->build.notes })
        if (!words.empty())
            html.remove(QString::fromStdString(words));
    const QString foreign = foreignUnit(html, system, ownWords());
    QVERIFY2(foreign.isEmpty(), qPrintable(foreign));
}

/// Each kind of alarm, raised by readings.
void TestUnits::alarms_speakTheUnitsAskedFor()
{
    std::vector<Alarm> all;
    const auto take = [&](AlarmWatch &watch, const RunPoint &p,
                          const std::optional<LikelyPressure> &expected = {}) {
        for (Alarm &a : watch.take(p, expected))
            all.push_back(std::move(a));
    };
    AlarmLimits limits = startLimits(demoBuild());
    AlarmWatch running(limits);
    take(running, { 0, 300, 800, 60 });
    for (int i = 1; i <= 40; ++i)
        take(running, { i * 0.5, 40, 800, 60 });
    take(running, { 25, 1700, 3000, 170 });
    for (int i = 0; i < 40; ++i)
        take(running, { 26 + i * 0.5, 200, 3000, 60 }, LikelyPressure { 4e5, 3.5e5, 4.5e5 });
    for (Alarm &a : running.tick(90))
        all.push_back(std::move(a));
    limits.priming = true;
    limits.stop_s = 20;
    limits.burst_s = 10;
    limits.rest_s = 30;
    AlarmWatch priming(limits);
    for (int i = 0; i < 60; ++i)
        take(priming, { i * 0.5, 0, 200, 20 });
    std::set<AlarmKind> kinds;
    for (const Alarm &a : all) {
        kinds.insert(a.kind);
        for (const UnitSystem system : { UnitSystem::Metric, UnitSystem::Imperial }) {
            const QString text = QString::fromStdString(render(a.text, { system }));
            QVERIFY2(foreignUnit(text, system).isEmpty(), qPrintable(text));
        }
    }
    QCOMPARE(kinds.size(), size_t(7));
}

void TestUnits::unknownSystem_isRefused()
{
    const CliRun r = run({ QStringLiteral("assess"), demo(QStringLiteral("harbour-fire-pump")),
                           QStringLiteral("--units"), QStringLiteral("stones") });
    QCOMPARE(r.code, 2);
    QVERIFY(r.err.contains("metric, imperial or both"));
}

void TestUnits::both_showsMetricFirst()
{
    const QString text = QString::fromUtf8(
        run({ QStringLiteral("assess"), demo(QStringLiteral("harbour-fire-pump")),
              QStringLiteral("--units"), QStringLiteral("both") })
            .plain());
    static const QRegularExpression idle(
        QStringLiteral("Hot idle \\(100 °C · 212 °F, 800 rpm\\): pressure gauge [\\d.]+ bar · "
                       "[\\d.]+ psi, likely [\\d.]+ to [\\d.]+ bar · \\d+ to \\d+ psi"));
    QVERIFY2(idle.match(text).hasMatch(), qPrintable(text.section(u'\n', 0, 3)));
}

} // namespace tst_units

MILDPATH_TEST(tst_units, TestUnits)
#include "tst_units.moc"
