// SPDX-License-Identifier: GPL-3.0-or-later
// Recorded runs: files that survive a kill, tables of other loggers, traces; the sender's lines.
#include "devices/linestream.h"
#include "devices/senderline.h"
#include "storage/files.h"
#include "storage/runfile.h"
#include "testing.h"

#include <QTemporaryDir>

#include <csignal>
#include <random>
#include <sys/wait.h>
#include <unistd.h>

using namespace mildpath;

namespace tst_runfile {

class TestRunFile : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void kill9_losesNothingThatWasRead();
    void unfinished_isNotOneThatIsStillWritten();
    void csv_bothWays();
    void import_readsOtherLoggers_data();
    void import_readsOtherLoggers();
    void import_saysWhatIsWrongAndWhere_data();
    void import_saysWhatIsWrongAndWhere();
    void trace_keepsEverySpike();
    void senderLine_isUnderstood_data();
    void senderLine_isUnderstood();
    void senderLine_allOrNothing_data();
    void senderLine_allOrNothing();
    void senderLine_bothWays();
    void senderLine_noiseNeverPasses();
    void lineStream_cutsAnywhere();
};

namespace {

std::filesystem::path folderOf(const QTemporaryDir &dir)
{
    return dir.path().toStdString();
}

} // namespace

void TestRunFile::kill9_losesNothingThatWasRead()
{
    QTemporaryDir dir;
    int toParent[2];
    QVERIFY(pipe(toParent) == 0);
    const pid_t child = fork();
    if (child == 0) {
        auto file = RunFile::start(folderOf(dir), "start", "20260301T100000");
        for (int i = 0; file; ++i) {
            if (!file->append({ i * 0.02, 300.0 + i, 800.0, 20.0 }))
                _exit(1);
            if (i == 100)
                static_cast<void>(file->mark({ i * 0.02, "knock, \"cold\"" }));
            // Told only once it is written.
            if (write(toParent[1], &i, sizeof i) != sizeof i)
                _exit(1);
            usleep(1000);
        }
        _exit(1);
    }
    int last = 0;
    while (last < 150)
        QVERIFY(read(toParent[0], &last, sizeof last) == sizeof last);
    kill(child, SIGKILL);
    waitpid(child, nullptr, 0);
    close(toParent[1]);
    for (int more = 0; read(toParent[0], &more, sizeof more) == sizeof more;)
        last = more;
    close(toParent[0]);
    const auto found = findUnfinishedRuns(folderOf(dir));
    QCOMPARE(found.size(), size_t(1));
    QCOMPARE(found.front().kind, std::string("start"));
    const RunImport &run = found.front().run;
    QVERIFY(run.errors.empty());
    QVERIFY(run.points.size() >= static_cast<size_t>(last) + 1);
    QCOMPARE(*run.points[static_cast<size_t>(last)].pressure_kpa, 300.0 + last);
    QCOMPARE(run.marks.size(), size_t(1));
    QCOMPARE(run.marks.front().text, std::string("knock, \"cold\""));
    // A line the power cut short is left out, the rest stays.
    const auto text = readTextFile(found.front().path);
    QVERIFY(writeTextFile(folderOf(dir) / "start-x-1.csv", *text + "9.9,12"));
    const auto again = findUnfinishedRuns(folderOf(dir));
    QCOMPARE(again.size(), size_t(2));
    for (const UnfinishedRun &u : again)
        QCOMPARE(u.run.points.size(), run.points.size());
}

void TestRunFile::unfinished_isNotOneThatIsStillWritten()
{
    QTemporaryDir dir;
    auto file = RunFile::start(folderOf(dir), "prime", "d");
    QVERIFY(file.has_value());
    QVERIFY(file->append({ 0, 1.0, 2.0, 3.0 }));
    QVERIFY(findUnfinishedRuns(folderOf(dir)).empty());
    {
        const RunFile gone = std::move(*file);
    }
    QCOMPARE(findUnfinishedRuns(folderOf(dir)).size(), size_t(1));
    // Two on one day do not write over each other.
    auto a = RunFile::start(folderOf(dir), "prime", "d"),
         b = RunFile::start(folderOf(dir), "prime", "d");
    QVERIFY(a && b && a->path() != b->path());
    // Set aside it is no unfinished one.
    QVERIFY(b->append({ 0, 1.0, 2.0, 3.0 }));
    QVERIFY(b->setAside());
    QVERIFY(std::filesystem::exists(folderOf(dir) / "kept" / b->path().filename()));
    a->discard();
    QVERIFY(!std::filesystem::exists(a->path()));
    QVERIFY(!RunFile::start("/proc/nowhere", "prime", "d"));
}

void TestRunFile::csv_bothWays()
{
    const std::vector<RunPoint> points { { 0, 0.0, 0.0, 20.0 },
                                         { 0.1, 123.45, 812.0, std::nullopt },
                                         { 0.2, std::nullopt, 812.0, 20.1 } };
    const std::vector<RunMark> marks { { 0.1, "" }, { 0.2, "=knock" } };
    const auto table = runTable(runToCsv(points, marks));
    QVERIFY(table.has_value());
    const RunImport run = runFromTable(*table, guessColumns(*table));
    QVERIFY(run.errors.empty());
    QVERIFY(run.points == points);
    QCOMPARE(run.marks.size(), size_t(2));
    QCOMPARE(run.marks[0].text, std::string());
    // A spreadsheet must not take a note for a formula.
    QVERIFY(runToCsv(points, marks).find(",'=knock") != std::string::npos);
}

void TestRunFile::import_readsOtherLoggers_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<double>("seconds");
    QTest::addColumn<double>("kpa");
    QTest::addColumn<double>("oil");
    // 40 psi = 275.79 kPa, 68 °F = 20 °C (exact by definition).
    QTest::newRow("psi, ms, °F") << "Time (ms),Oil pressure (psi),RPM,Oil temp (F)\n"
                                    "1000,40,800,68\n3000,40,800,68\n"
                                 << 2.0 << 275.790 << 20.0;
    QTest::newRow("bar, semicolons, decimal commas") << "time [s];p [bar];n;oil temp [°C]\n"
                                                        "0,5;2,5;800;20,5\n1,5;2,5;800;20,5\n"
                                                     << 1.0 << 250.0 << 20.5;
    QTest::newRow("tabs, minutes") << "time min\tpressure kPa\trev/min\ttemp\n"
                                      "0\t300\t800\t20\n2\t300\t800\t20\n"
                                   << 120.0 << 300.0 << 20.0;
}

void TestRunFile::import_readsOtherLoggers()
{
    QFETCH(QString, text);
    QFETCH(double, seconds);
    QFETCH(double, kpa);
    QFETCH(double, oil);
    const auto table = runTable(text.toStdString());
    QVERIFY(table.has_value());
    const RunImport run = runFromTable(*table, guessColumns(*table));
    QVERIFY2(run.errors.empty(),
             run.errors.empty() ? "" : said(run.errors.front().message).c_str());
    QCOMPARE(run.points.size(), size_t(2));
    QCOMPARE(run.points.front().t_s, 0.0); // the log's own beginning
    verifyClose(run.points.back().t_s, seconds, 1e-9, 0, QStringLiteral("seconds"));
    verifyClose(*run.points.back().pressure_kpa, kpa, 1e-5, 0, QStringLiteral("kPa"));
    verifyClose(*run.points.back().oil_c, oil, 1e-9, 1e-9, QStringLiteral("oil"));
    QCOMPARE(*run.points.back().rpm, 800.0);
}

void TestRunFile::import_saysWhatIsWrongAndWhere_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("place");
    const QString head = QStringLiteral("time_s,pressure_kpa,rpm\n");
    QTest::newRow("no number") << head + "0,1,2\n1,high,2\n"
                               << "line 3, pressure_kpa";
    QTest::newRow("time goes back") << head + "5,1,2\n4,1,2\n"
                                    << "line 3, time_s";
    QTest::newRow("time missing") << head + "0,1,2\n,1,2\n"
                                  << "line 3, time_s";
    QTest::newRow("speed that cannot be") << head + "0,1,-5\n"
                                          << "line 2, rpm";
    QTest::newRow("no pressure column") << QStringLiteral("time_s,rpm\n0,1\n") << "pressure";
    QTest::newRow("rows without anything") << head + ",,\n,,\n"
                                           << "line 2";
}

void TestRunFile::import_saysWhatIsWrongAndWhere()
{
    QFETCH(QString, text);
    QFETCH(QString, place);
    const auto table = runTable(text.toStdString());
    QVERIFY(table.has_value());
    const RunImport run = runFromTable(*table, guessColumns(*table));
    QVERIFY(!run.errors.empty());
    QCOMPARE(QString::fromStdString(run.errors.front().place), place);
    QVERIFY(!run.errors.front().message.empty());
}

void TestRunFile::trace_keepsEverySpike()
{
    std::vector<RunPoint> points;
    for (int i = 0; i < 90000; ++i)
        points.push_back({ i * 0.02, 300.0, 800.0, 60.0 });
    points[12345].pressure_kpa = 12.0;
    points[70001].pressure_kpa = 900.0;
    RunLog run;
    summariseRun(points, run);
    QVERIFY(run.trace.size() <= mostTracePoints);
    const auto has = [&](double kpa) {
        return std::any_of(run.trace.begin(), run.trace.end(),
                           [&](const RunPoint &p) { return *p.pressure_kpa == kpa; });
    };
    QVERIFY(has(12) && has(900));
    QVERIFY(std::is_sorted(run.trace.begin(), run.trace.end(),
                           [](const RunPoint &a, const RunPoint &b) { return a.t_s < b.t_s; }));
    QCOMPARE(run.most_kpa, 900.0);
    QCOMPARE(run.readings, 90000);
    QCOMPARE(*run.firstPressure_s, 0.0);
}

void TestRunFile::senderLine_isUnderstood_data()
{
    QTest::addColumn<QString>("line");
    QTest::addColumn<double>("kpa");
    QTest::addColumn<double>("rpm");
    QTest::addColumn<double>("oil");
    QTest::newRow("all of it") << "p=362.1kPa n=812 t=19.4C ms=12340" << 362.1 << 812.0 << 19.4;
    QTest::newRow("bar") << "p=3.621bar" << 362.1 << -1.0 << -1.0;
    QTest::newRow("psi and °F") << "p=40psi t=212F" << 275.790 << -1.0 << 100.0;
    QTest::newRow("no units") << "n=0 p=5" << 5.0 << 0.0 << -1.0;
    QTest::newRow("unknown keys pass") << "x=7 p=1 lambda=0.98" << 1.0 << -1.0 << -1.0;
    QTest::newRow("below nothing") << "p=-2.5kPa" << -2.5 << -1.0 << -1.0;
    QTest::newRow("checked") << "p=1kPa*19" << 1.0 << -1.0 << -1.0;
}

void TestRunFile::senderLine_isUnderstood()
{
    QFETCH(QString, line);
    QFETCH(double, kpa);
    QFETCH(double, rpm);
    QFETCH(double, oil);
    std::string text = line.toStdString();
    if (const auto star = text.find('*'); star != std::string::npos) {
        // Worked out here by itself: the exclusive or of the bytes before the star.
        unsigned check = 0;
        for (size_t i = 0; i < star; ++i)
            check ^= static_cast<unsigned char>(text[i]);
        text = text.substr(0, star + 1) + QString::asprintf("%02X", check).toStdString();
    }
    const auto r = parseSenderLine(text);
    QVERIFY2(r.has_value(), r ? "" : said(r.error().message).c_str());
    verifyClose(*r->pressure_pa / 1e3, kpa, 1e-5, 0, line);
    QCOMPARE(r->rpm.value_or(-1), rpm);
    verifyClose(r->oil_c.value_or(-1), oil, 1e-9, 1e-9, line);
}

void TestRunFile::senderLine_allOrNothing_data()
{
    QTest::addColumn<QString>("line");
    for (const char *bad : { "", "n=812 t=20C", "p=", "p=3.6.2", "p=362lbs", "p=12kPa n=fast",
                             "p=1e9", "p=nan", "p=12kPa n=-3", "p=12kPa t=900C", "12.3",
                             "p=12kPa*00", "p=12kPa*1", "p =12", "p=1kPa*zz" })
        QTest::newRow(*bad ? bad : "empty") << QString::fromUtf8(bad);
}

void TestRunFile::senderLine_allOrNothing()
{
    QFETCH(QString, line);
    const auto r = parseSenderLine(line.toStdString());
    QVERIFY(!r);
    QVERIFY(!r.error().message.empty());
}

void TestRunFile::senderLine_bothWays()
{
    const SenderReading r { 362100, 812, 19.4, 12.34 };
    const auto back = parseSenderLine(senderLine(r));
    QVERIFY(back.has_value());
    verifyClose(*back->pressure_pa, 362100, 1e-9, 0, QStringLiteral("pressure"));
    verifyClose(*back->clock_s, 12.34, 1e-9, 0, QStringLiteral("clock"));
    QCOMPARE(*back->rpm, 812.0);
}

void TestRunFile::senderLine_noiseNeverPasses()
{
    // One byte of a checked line wrong: it never passes as another reading.
    const std::string good = senderLine({ 362100, 812, 19.4, 12.34 });
    std::mt19937 random(1);
    for (int i = 0; i < 5000; ++i) {
        std::string bad = good;
        const size_t at = random() % (bad.size() - 3);
        const char c = static_cast<char>(33 + random() % 94);
        if (bad[at] == c || c == '*')
            continue;
        bad[at] = c;
        QVERIFY2(!parseSenderLine(bad), bad.c_str());
    }
}

void TestRunFile::lineStream_cutsAnywhere()
{
    const std::string text = "p=1\r\np=2\np=3\r" + std::string(200, 'x') + "\np=4\n";
    for (size_t cut = 0; cut <= text.size(); ++cut) {
        LineStream s(120);
        s.beginsWhole();
        std::vector<std::optional<std::string>> out = s.take(text.substr(0, cut));
        for (auto &line : s.take(text.substr(cut)))
            out.push_back(std::move(line));
        QCOMPARE(out.size(), size_t(5));
        QCOMPARE(*out[0], std::string("p=1"));
        QVERIFY(!out[3]); // too long to be a reading
        QCOMPARE(*out[4], std::string("p=4"));
    }
    // What was joined midway is not trusted.
    LineStream late(120);
    const auto lines = late.take("=362\np=5\n");
    QCOMPARE(lines.size(), size_t(1));
    QCOMPARE(*lines[0], std::string("p=5"));
}

} // namespace tst_runfile

MILDPATH_TEST(tst_runfile, TestRunFile)
#include "tst_runfile.moc"
