// SPDX-License-Identifier: GPL-3.0-or-later
// The command line as a shell sees it: output, error text, exit code.
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "testing.h"

#include "clirun.h"

#include "assess/cleanmarks.h"

#include <QProcess>
#include <QTemporaryDir>

#include <set>

using namespace mildpath;

namespace tst_cli {

namespace {

QString demo()
{
    return QString::fromStdString(demoBuildPath().string());
}
QString circuit()
{
    return dataFile("inline_four_circuit.json");
}

} // namespace

class TestCli : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyVerb_explainsItself();
    void wrongCalls_exitWith2_data();
    void wrongCalls_exitWith2();
    void calc_runsAndDescribes();
    void newBuild_validatesAndIsNotOverwritten();
    void newBuild_comesFromAPlan();
    void forecast_takesAnOwnOil();
    void assess_exitsWith1WhenSomethingHolds();
    void export_writesEveryReading();
    void planCleaning_saysTheSameInWordsAndJson();
    void drawPassages_givesABareBuildItsUsualOnes();
    void drawLines_givesADrySumpItsUsualOnes();
    void forecast_takesFaultsAndDraws();
    void whatIf_isTheForecastWithTheFault();
    void remedies_nameWhatOnlyMovesTheNeedle();
    void diagnose_saysTheSameInWordsAndJson();
    void tryDiagnosis_countsItsTrials();
    void compareFlows_saysWhatForbidsIt();
    void assess_tellsTheAirSide();
    void replay_saysTheSameAsTableAndJson();
    void start_saysTheSameInWordsAndJson();
    void report_isWrittenWithItsPictures();
    void validate_namesMissingPhotos();
    void forecast_givesTheAssessmentsFigures();
    void solve_givesTheContractsKeys();
    void solve_takesOilEditsAndHeatBalance();
    void unreadableFile_exitsWith3();
};

void TestCli::everyVerb_explainsItself()
{
    QCOMPARE(run({ QStringLiteral("--help") }).code, 0);
    for (const char *verb :
         { "calc",   "templates",     "new",           "validate",   "assess",        "forecast",
           "solve",  "plan-cleaning", "draw-passages", "draw-lines", "what-if",       "remedies",
           "oils",   "diagnose",      "try-diagnosis", "verdicts",   "compare-flows", "export",
           "replay", "start",         "report" }) {
        const CliRun r = run({ QString::fromLatin1(verb), QStringLiteral("--help") });
        QCOMPARE(r.code, 0);
        QVERIFY(r.out.contains("usage: mildpath-cli " + QByteArray(verb)));
    }
}

void TestCli::wrongCalls_exitWith2_data()
{
    QTest::addColumn<QString>("call");
    QTest::addColumn<QString>("says");
    const auto row = [](const QString &call, const char *says) {
        QTest::newRow(qPrintable(call)) << call << QString::fromLatin1(says);
    };
    row(QStringLiteral("dance"), "not a verb");
    row(QStringLiteral("calc nothing"), "no such calculator");
    row(QStringLiteral("solve"), "circuit file");
    row(QStringLiteral("solve %1 --oil-temp-c 100").arg(circuit()), "--rpm");
    row(QStringLiteral("solve %1 --rpm fast --oil-temp-c 100").arg(circuit()), "not a number");
    row(QStringLiteral("solve %1 --rpm 0 --oil-temp-c 100").arg(circuit()), "rpm");
    row(QStringLiteral("solve %1 --rpm 800 --oil-temp-c 100 --oil {}").arg(circuit()),
        "kv40_mm2_s");
    row(QStringLiteral("solve %1 --rpm 800 --oil-temp-c 100 --speed 3").arg(circuit()),
        "not an option");
    row(QStringLiteral("forecast %1 --oil lard").arg(demo()), "on the shelf");
    row(QStringLiteral("forecast %1 --rpm 800:600:100").arg(demo()), "FROM:TO:STEP");
    row(QStringLiteral("assess"), "one build file");
    row(QStringLiteral("validate %1").arg(circuit()), "/format");
    row(QStringLiteral("new --template nothing -o /tmp/never.mildpath"), "no template");
    row(QStringLiteral("new --template inline-six-iron --plan x.json -o /tmp/never.mildpath"),
        "--plan");
    row(QStringLiteral("new -o /tmp/never.mildpath"), "--template");
    row(QStringLiteral("what-if %1").arg(demo()), "--fault");
    row(QStringLiteral("what-if %1 --fault gremlins").arg(demo()), "there is no \"gremlins\"");
    row(QStringLiteral("what-if %1 --fault pump_worn --rpm fast").arg(demo()), "not a number");
    row(QStringLiteral("forecast %1 --fault pump_worn=7").arg(demo()), "from 0 to 1");
    row(QStringLiteral("forecast %1 --samples 3").arg(demo()), "16");
    row(QStringLiteral("forecast %1 --samples 1e12").arg(demo()), "--samples");
    row(QStringLiteral("forecast %1 --samples 100 --seed -1").arg(demo()), "--seed");
    row(QStringLiteral("replay %1").arg(demo()), "FILE DRIVE.csv");
    row(QStringLiteral("replay %1 %2").arg(demo(), dataFile("norris.csv")), "time_s");
    row(QStringLiteral("remedies %1 --fault swarf@attic").arg(demo()), "attic");
    row(QStringLiteral("try-diagnosis %1 --trials 0").arg(demo()), "at least 1");
    row(QStringLiteral("try-diagnosis %1 --seed 1.5").arg(demo()), "whole number");
    row(QStringLiteral("compare-flows %1").arg(demo()), "two build files");
}

void TestCli::wrongCalls_exitWith2()
{
    QFETCH(QString, call);
    QFETCH(QString, says);
    const CliRun r = run(call.split(QLatin1Char(' ')));
    QCOMPARE(r.code, 2);
    QVERIFY2(r.err.contains(says.toUtf8()), r.err.constData());
    QVERIFY(r.out.isEmpty());
}

void TestCli::calc_runsAndDescribes()
{
    QVERIFY(run({ QStringLiteral("calc") }).out.contains("pump-delivery"));
    const CliRun r
        = run({ QStringLiteral("calc"), QStringLiteral("annulus-leak") },
              R"({"d_mm":22,"clearance_um":40,"l_mm":14,"ecc":0.7,"dp_kpa":300,"mu_pa_s":0.0117})");
    QCOMPARE(r.code, 0);
    verifyClose(r.json()["flow_l_min"].get<double>(), 0.008785, 1e-4);
    const CliRun d = run(
        { QStringLiteral("calc"), QStringLiteral("annulus-leak"), QStringLiteral("--describe") });
    QCOMPARE(d.json()["name"].get<std::string>(), std::string("annulus-leak"));
    const CliRun bad
        = run({ QStringLiteral("calc"), QStringLiteral("annulus-leak") }, R"({"d_mm":-1})");
    QCOMPARE(bad.code, 2);
    QVERIFY(bad.err.contains("d_mm"));
    QCOMPARE(run({ QStringLiteral("calc"), QStringLiteral("annulus-leak") }, "{").code, 2);
}

void TestCli::newBuild_comesFromAPlan()
{
    QTemporaryDir folder;
    const QString plan = folder.filePath(QStringLiteral("plan.json"));
    const QString file = folder.filePath(QStringLiteral("made.mildpath"));
    const auto make = [&](const char *json) {
        QFile f(plan);
        if (!f.open(QIODevice::WriteOnly))
            return CliRun { -1, {}, {} };
        f.write(json);
        f.close();
        return run({ QStringLiteral("new"), QStringLiteral("--plan"), plan, QStringLiteral("-o"),
                     file, QStringLiteral("--force") });
    };
    QCOMPARE(make(R"({"layout": "flat", "cylinders": 4, "valve_gear": "one_cam"})").code, 0);
    const auto made = loadBuild(file.toStdString());
    QVERIFY(made);
    QCOMPARE(made->build.engine.layout, std::string("flat-4"));
    const CliRun bad = make(R"({"layout": "flat", "cylinders": 5})");
    QCOMPARE(bad.code, 2);
    QVERIFY2(bad.err.contains("cylinders"), bad.err.constData());
    QCOMPARE(make("{").code, 2);
    QCOMPARE(make(R"({"sails": 3})").code, 2);
    QCOMPARE(loadBuild(file.toStdString())->build.engine.layout, std::string("flat-4"));
}

void TestCli::forecast_takesAnOwnOil()
{
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("own.mildpath"));
    const Build b
        = applyEdit(demoBuild(), KeepOil { { "Shedoil", { 160, 18.5, 884 }, 4.9 } }).value();
    QVERIFY(saveBuild(file.toStdString(), b));
    const auto gauge = [&](const char *oil) {
        const CliRun r
            = run({ QStringLiteral("forecast"), file, QStringLiteral("--rpm"),
                    QStringLiteral("800"), QStringLiteral("--oil-temp-c"), QStringLiteral("100"),
                    QStringLiteral("--oil"), QString::fromLatin1(oil) });
        return r.out;
    };
    QVERIFY(!gauge("Shedoil").isEmpty());
    QCOMPARE(gauge("Shedoil"), gauge("20W-50")); // the same figures under another name
    QVERIFY(gauge("Shedoil") != gauge("15W-40"));
}

void TestCli::newBuild_validatesAndIsNotOverwritten()
{
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("fresh.mildpath"));
    const QStringList call { QStringLiteral("new"), QStringLiteral("--template"),
                             QStringLiteral("inline-four-alloy"), QStringLiteral("-o"), file };
    QCOMPARE(run(call).code, 0);
    QCOMPARE(run({ QStringLiteral("validate"), file }).code, 0);
    QCOMPARE(run(call).code, 3);
    QCOMPARE(run(call + QStringList { QStringLiteral("--force") }).code, 0);
    QVERIFY(run({ QStringLiteral("templates") }).out.contains("inline-four-wet-sump"));
}

void TestCli::assess_exitsWith1WhenSomethingHolds()
{
    const CliRun r = run({ QStringLiteral("assess"), demo(), QStringLiteral("--json") });
    QCOMPARE(r.code, 1);
    verifyClose(r.json()["hot_idle"]["gauge"]["kpa"].get<double>(),
                assess(demoBuild()).operating.hotIdle.gauge.value_pa / 1e3, 0, 0.006);
    // A fresh build says what the job is first; one whose every check is answered may fire.
    const QString fresh = QString::fromStdString(listTemplates().front().path.string());
    const CliRun shut = run({ QStringLiteral("checks"), fresh });
    QCOMPARE(shut.code, 1);
    QVERIFY2(shut.out.contains("Say what the job is"), shut.out.constData());
    QCOMPARE(run({ QStringLiteral("assess"), fresh }).code, 1);
    fixture::By by(fixture::withJob(loadBuild(fresh.toStdString())->build, "N"));
    fixture::settleEverything(by);
    QTemporaryDir folder;
    const QString answered = folder.filePath(QStringLiteral("answered.mildpath"));
    QVERIFY(saveBuild(answered.toStdString(), by.build()));
    for (const char *verb : { "assess", "start", "checks" })
        QCOMPARE(run({ QLatin1String(verb), answered }).code, 0);
}

void TestCli::export_writesEveryReading()
{
    QTemporaryDir folder;
    const QString into = folder.filePath(QStringLiteral("a/b"));
    QCOMPARE(run({ QStringLiteral("export"), demo(), QStringLiteral("--csv"), into }).code, 0);
    const auto text = readTextFile((into + QStringLiteral("/readings.csv")).toStdString());
    QVERIFY(text);
    const QString csv = QString::fromStdString(*text);
    QCOMPARE(csv.count(QStringLiteral("\r\n")),
             static_cast<qsizetype>(demoBuild().readings.size()) + 1);
    QVERIFY(csv.startsWith(QStringLiteral("id,stop,family")));
    for (const char *other :
         { "passages", "plugs", "events", "orders", "signoffs", "run_card", "gauge_readings" })
        QVERIFY2(readTextFile(
                     (into + u'/' + QLatin1String(other) + QStringLiteral(".csv")).toStdString()),
                 other);
    QCOMPARE(run({ QStringLiteral("export"), demo() }).code, 2);
    QCOMPARE(run({ QStringLiteral("export"), demo(), QStringLiteral("--csv"),
                   QStringLiteral("/proc/nowhere") })
                 .code,
             3);
}

void TestCli::planCleaning_saysTheSameInWordsAndJson()
{
    const CliRun words = run({ QStringLiteral("plan-cleaning"), demo() });
    QCOMPARE(words.code, 0);
    const Json json
        = run({ QStringLiteral("plan-cleaning"), demo(), QStringLiteral("--json") }).json();
    const BuildPlan plan = cleaningPlanOf(demoBuild());
    QCOMPARE(json["pulls"].get<int>(), plan.plan.pulls);
    QCOMPARE(json["steps"].size(), plan.plan.steps.size());
    QVERIFY(words.out.startsWith(QByteArray::number(plan.plan.pulls) + " brush passes"));
    QVERIFY(words.out.contains("Never heat metal wet"));
    QVERIFY(words.out.contains("stays in (hardened ball, far from the machining)"));
    QCOMPARE(run({ QStringLiteral("plan-cleaning") }).code, 2);
}

void TestCli::drawPassages_givesABareBuildItsUsualOnes()
{
    QTemporaryDir folder;
    Build bare = demoBuild();
    bare.passages.clear();
    bare.plugs.clear();
    bare.events.clear();
    const QString in = folder.filePath(QStringLiteral("bare.mildpath"));
    const QString out = folder.filePath(QStringLiteral("drawn.mildpath"));
    QVERIFY(saveBuild(in.toStdString(), bare));
    const auto draw = [&](const QString &from, const QString &to) {
        return run({ QStringLiteral("draw-passages"), from, QStringLiteral("-o"), to }).code;
    };
    QCOMPARE(draw(in, out), 0);
    QVERIFY(loadBuild(out.toStdString())->build.passages.size() > 30);
    QCOMPARE(draw(in, out), 3); // not over an existing file
    QCOMPARE(draw(out, folder.filePath(QStringLiteral("again.mildpath"))), 2); // has some already
    QVERIFY(!QFile::exists(folder.filePath(QStringLiteral("again.mildpath"))));
}

void TestCli::drawLines_givesADrySumpItsUsualOnes()
{
    QTemporaryDir folder;
    Build bare = loadTemplate("v8-dry-sump")->build;
    QVERIFY(!bare.plumbing.lines.empty());
    bare.plumbing.lines.clear();
    const QString in = folder.filePath(QStringLiteral("bare.mildpath"));
    const QString out = folder.filePath(QStringLiteral("drawn.mildpath"));
    QVERIFY(saveBuild(in.toStdString(), bare));
    const QStringList call { QStringLiteral("draw-lines"), in, QStringLiteral("-o"), out };
    QCOMPARE(run(call).code, 0);
    QVERIFY(loadBuild(out.toStdString())->build.plumbing.lines
            == loadTemplate("v8-dry-sump")->build.plumbing.lines);
    QCOMPARE(run(call).code, 3);
}

void TestCli::forecast_takesFaultsAndDraws()
{
    const QStringList base { QStringLiteral("forecast"),     demo(),
                             QStringLiteral("--rpm"),        QStringLiteral("800,1600,2400,3200"),
                             QStringLiteral("--oil-temp-c"), QStringLiteral("100"),
                             QStringLiteral("--json") };
    const auto gauge = [&](const QStringList &more, const char *key) {
        const Json j = run(base + more).json();
        return j["forecast"][0]["points"][0][key].get<double>();
    };
    const double healthy = gauge({}, "kpa");
    const double open = gauge(
        { QStringLiteral("--fault"), QStringLiteral("relief_stuck_open=0.5,pump_worn=0.2") },
        "kpa");
    QVERIFY(open < 0.8 * healthy);
    // Draws: repeatable with their seed, another seed another range about the same value.
    const auto drawn = [&](const char *seed) {
        return gauge({ QStringLiteral("--samples"), QStringLiteral("64"), QStringLiteral("--seed"),
                       QString::fromLatin1(seed) },
                     "likely_low_kpa");
    };
    QCOMPARE(drawn("1"), drawn("1"));
    QVERIFY(drawn("1") != drawn("2"));
    QVERIFY(drawn("1") < healthy);
}

void TestCli::whatIf_isTheForecastWithTheFault()
{
    const QStringList call { QStringLiteral("what-if"), demo(),
                             QStringLiteral("--fault"), QStringLiteral("main2_shell_spun"),
                             QStringLiteral("--rpm"),   QStringLiteral("3000") };
    const Json j = run(call + QStringList { QStringLiteral("--json") }).json();
    QCOMPARE(j["faults"][0]["fault"].get<std::string>(), std::string("shell_spun@main_2"));
    QVERIFY(!j["taps"][0]["shows"].get<bool>());
    for (const Json &p : j["points"])
        if (p["name"] == "Main 2")
            QVERIFY(p["after_kpa"].get<double>() < 0.75 * p["before_kpa"].get<double>());
    const QByteArray text = run(call).plain();
    QVERIFY(text.contains(QByteArray::fromStdString(j["gauge"].get<std::string>())));
}

void TestCli::remedies_nameWhatOnlyMovesTheNeedle()
{
    const Json j = run({ QStringLiteral("remedies"), demo(), QStringLiteral("--json") }).json();
    std::set<std::string> needle;
    for (const Json &r : j["remedies"])
        if (r["needle_only"].get<bool>())
            needle.insert(r["id"].get<std::string>());
    QVERIFY(needle == std::set<std::string> { "external_line" });
    const QByteArray table = run({ QStringLiteral("remedies"), demo() }).out;
    QVERIFY(table.contains("pressure gauge reads higher, bearings gain nothing"));
    // A table anybody can read in: the header names what the rows hold, row by row as many cells.
    const QList<QByteArray> rows = table.trimmed().split('\n');
    QVERIFY(rows.front().startsWith("remedy,gauge_bar,"));
    QCOMPARE(rows.size(), static_cast<qsizetype>(j["remedies"].size()) + 2);
}

void TestCli::assess_tellsTheAirSide()
{
    const Json air
        = run({ QStringLiteral("assess"), demo(), QStringLiteral("--json") }).json()["air"];
    QCOMPARE(air["rows"].size(), size_t(11));
    QCOMPARE(air["overall_state"].get<std::string>(), std::string("watch"));
    const QByteArray text = run({ QStringLiteral("assess"), demo() }).plain();
    for (const Json &r : air["rows"])
        QVERIFY(text.contains(QByteArray::fromStdString(r["name"].get<std::string>() + ": "
                                                        + r["quantity"].get<std::string>())));
    // The window's own calculator, asked with what the build says of a level pan, agrees.
    const Build build = demoBuild();
    const AirReport report = assess(build).air;
    verifyClose(air["fill_window"]["fill_min_l"].get<double>(), report.window->least_m3 * 1e3, 1e-3,
                0, QStringLiteral("least"));
    QVERIFY(text.contains("fill 3.37 L (left turn, 0.35 g)"));
}

void TestCli::replay_saysTheSameAsTableAndJson()
{
    const QString drive
        = QString::fromStdString((dataFolder() / "demo/harbour-crossing.csv").string());
    const Json j
        = run({ QStringLiteral("replay"), demo(), drive, QStringLiteral("--json") }).json();
    const QList<QByteArray> rows
        = run({ QStringLiteral("replay"), demo(), drive, QStringLiteral("--csv") })
              .out.trimmed()
              .split('\n');
    QCOMPARE(rows.size(), qsizetype(602)); // a header and every moment
    double least = 1e9, notModelled = 0;
    for (const QByteArray &row : rows.mid(1)) {
        const QList<QByteArray> cells = row.split(',');
        QCOMPARE(cells.size(), qsizetype(6));
        least = std::min(least, cells[1].toDouble());
        notModelled += cells[5].trimmed() == "no" ? 1 : 0;
    }
    verifyClose(least, j["least_mm"].get<double>(), 0, 0.06, QStringLiteral("least"));
    verifyClose(notModelled / 601, j["not_modelled_share"].get<double>(), 0, 0.01,
                QStringLiteral("share"));
    QVERIFY(run({ QStringLiteral("replay"), demo(), drive }).out.contains("Least over the mouth"));
}

void TestCli::diagnose_saysTheSameInWordsAndJson()
{
    const QString standby = QString::fromStdString(
        (demoBuildPath().parent_path() / "harbour-standby.mildpath").string());
    const Json j = run({ QStringLiteral("diagnose"), standby, QStringLiteral("--json") }).json();
    const QByteArray text = run({ QStringLiteral("diagnose"), standby }).plain();
    QVERIFY(text.startsWith(QByteArray::fromStdString(j["verdict"].get<std::string>())));
    double sum = 0;
    for (const Json &c : j["candidates"])
        sum += c["posterior"].get<double>();
    verifyClose(sum, 1, 1e-9);
    QVERIFY(
        text.contains(QByteArray::fromStdString(j["candidates"][0]["name"].get<std::string>())));
    QVERIFY(text.contains(QByteArray::fromStdString(j["next"][0]["text"].get<std::string>())));
    QCOMPARE(j["readings"].size(), size_t(6));
}

void TestCli::tryDiagnosis_countsItsTrials()
{
    const Json j = run({ QStringLiteral("try-diagnosis"), demo(), QStringLiteral("--trials"),
                         QStringLiteral("1"), QStringLiteral("--six"), QStringLiteral("--json") })
                       .json();
    QCOMPARE(j["readings"].get<int>(), 6);
    int trials = 0;
    for (const Json &r : j["rows"])
        trials += r["trials"].get<int>();
    QCOMPARE(trials,
             j["seen"]["trials"].get<int>() + j["unseen"]["trials"].get<int>()
                 + j["healthy"]["trials"].get<int>());
}

void TestCli::compareFlows_saysWhatForbidsIt()
{
    QTemporaryDir folder;
    Build other = demoBuild();
    other.flows.change([](FlowSeen &f) { f.filter = "old can"; });
    const QString path = folder.filePath(QStringLiteral("other.mildpath"));
    QVERIFY(saveBuild(path.toStdString(), other));
    QVERIFY(
        !run({ QStringLiteral("compare-flows"), demo(), demo() }).out.contains("not comparable"));
    const CliRun r = run({ QStringLiteral("compare-flows"), demo(), path });
    QCOMPARE(r.code, 0);
    QVERIFY(r.out.contains("not comparable: filter differs: new spin-on can here, old can there"));
}

void TestCli::start_saysTheSameInWordsAndJson()
{
    const CliRun words = run({ QStringLiteral("start"), demo() });
    QCOMPARE(words.code, 1); // holds are open
    const CliRun json = run({ QStringLiteral("start"), demo(), QStringLiteral("--json") });
    QCOMPARE(json.code, 1);
    const Json j = json.json();
    QVERIFY(!j["may_start"].get<bool>());
    QCOMPARE(j["open_holds"].get<int>(), assess(demoBuild()).holds());
    for (const Json &hold : j["holds"])
        QVERIFY(words.plain().contains(QByteArray::fromStdString(hold["text"].get<std::string>())));
    QCOMPARE(j["prime"]["causes"].size(), size_t(10));
    QVERIFY(words.plain().contains(QByteArray::number(j["prime"]["volume_l"].get<double>(), 'f', 2)
                                   + " L to fill"));
    QVERIFY(j["prime"]["time_low_s"] < j["prime"]["time_s"]);
    bool gate = false;
    for (const Json &step : j["run_card"])
        gate = gate || (step["step"] == "gate" && step["mark"] == "hold");
    QVERIFY(gate);
}

void TestCli::report_isWrittenWithItsPictures()
{
    QTemporaryDir folder;
    const QString html = folder.filePath(QStringLiteral("sheet.html"));
    const QString svg = folder.filePath(QStringLiteral("svg"));
    const CliRun r = run({ QStringLiteral("report"), demo(), QStringLiteral("-o"), html,
                           QStringLiteral("--paper"), QStringLiteral("letter"),
                           QStringLiteral("--svg"), svg });
    QCOMPARE(r.code, 0);
    const auto text = readTextFile(html.toStdString());
    QVERIFY(text && text->find("size: letter") != std::string::npos);
    const auto files = QDir(svg).entryList({ QStringLiteral("*.svg") });
    QVERIFY(files.size() >= 8);
    QCOMPARE(static_cast<qsizetype>(r.out.count('\n')), files.size());
    QCOMPARE(run({ QStringLiteral("report"), demo() }).code, 2);
    QCOMPARE(run({ QStringLiteral("report"), demo(), QStringLiteral("-o"), html,
                   QStringLiteral("--paper"), QStringLiteral("A5") })
                 .code,
             2);
    QCOMPARE(run({ QStringLiteral("report"), demo(), QStringLiteral("-o"),
                   QStringLiteral("/proc/nowhere/x.html") })
                 .code,
             3);
}

void TestCli::validate_namesMissingPhotos()
{
    QTemporaryDir folder;
    Build b = demoBuild();
    b.finds.front().photos = { "abc.png" };
    const QString path = folder.filePath(QStringLiteral("b.mildpath"));
    QVERIFY(saveBuild(path.toStdString(), b));
    const CliRun r = run({ QStringLiteral("validate"), path });
    QCOMPARE(r.code, 0);
    QVERIFY(r.out.contains("photo abc.png is missing"));
}

void TestCli::forecast_givesTheAssessmentsFigures()
{
    const CliRun r = run({ QStringLiteral("forecast"), demo(), QStringLiteral("--rpm"),
                           QStringLiteral("800:3000:2200"), QStringLiteral("--oil-temp-c"),
                           QStringLiteral("100"), QStringLiteral("--json") });
    QCOMPARE(r.code, 0);
    const auto a = assess(demoBuild());
    const Json points = r.json()["forecast"][0]["points"];
    QCOMPARE(points.size(), 2u);
    verifyClose(points[0]["kpa"].get<double>(), a.operating.hotIdle.gauge.value_pa / 1e3, 0, 0.01);
    verifyClose(points[1]["kpa"].get<double>(), a.operating.highSpeed.gauge.value_pa / 1e3, 0,
                0.01);
    const CliRun thick = run({ QStringLiteral("forecast"), demo(), QStringLiteral("--rpm=800"),
                               QStringLiteral("--oil-temp-c=100"), QStringLiteral("--oil"),
                               QStringLiteral("20W-50") });
    QVERIFY(thick.out.split('\n')[1].split(',')[2].toDouble()
            > points[0]["kpa"].get<double>() + 20);
}

void TestCli::solve_givesTheContractsKeys()
{
    const CliRun r
        = run({ QStringLiteral("solve"), circuit(), QStringLiteral("--rpm"), QStringLiteral("800"),
                QStringLiteral("--oil-temp-c"), QStringLiteral("100") });
    QCOMPARE(r.code, 0);
    const Json j = r.json();
    // Grade 40, 100 °C, 800 rev/min of the reference tables.
    verifyClose(j["node_kpa"]["tap_rear"].get<double>(), 152.7, 0.002);
    verifyClose(j["flow_l_min"]["pump"].get<double>(), 4.02, 0.01);
    QVERIFY(j["newton_iterations"].get<int>() > 0);
    QVERIFY(j["mass_balance_error_relative"].get<double>() < 1e-9);
    QVERIFY(j["warnings"].is_array());
}

void TestCli::solve_takesOilEditsAndHeatBalance()
{
    QTemporaryDir folder;
    const std::string edits = folder.filePath(QStringLiteral("edits.json")).toStdString();
    QVERIFY(writeTextFile(edits, jsonOf("fault_edits.json")["mains_worn"].dump()));
    const QStringList base { QStringLiteral("solve"),        circuit(),
                             QStringLiteral("--rpm"),        QStringLiteral("800"),
                             QStringLiteral("--oil-temp-c"), QStringLiteral("100") };
    const CliRun worn
        = run(base + QStringList { QStringLiteral("--edits"), QString::fromStdString(edits) });
    verifyClose(worn.json()["node_kpa"]["tap_rear"].get<double>(), 75, 0.02, 2);
    const CliRun thick
        = run(base
              + QStringList {
                  QStringLiteral("--oil"),
                  QStringLiteral(R"({"kv40_mm2_s":160,"kv100_mm2_s":18.5,"rho15_kg_m3":884})") });
    verifyClose(thick.json()["node_kpa"]["tap_rear"].get<double>(), 184.3, 0.002);
    // Energy option: +4.2 % at hot idle (independent SciPy computation).
    const CliRun energy = run(
        base + QStringList { QStringLiteral("--bearing-temperature"), QStringLiteral("energy") });
    verifyClose(energy.json()["node_kpa"]["tap_rear"].get<double>() / 152.7, 1.042, 0.003);
}

void TestCli::unreadableFile_exitsWith3()
{
    for (const char *verb : { "validate", "assess", "forecast" }) {
        const CliRun r
            = run({ QString::fromLatin1(verb), QStringLiteral("/nonexistent.mildpath") });
        QCOMPARE(r.code, 3);
        QVERIFY(r.err.contains("/nonexistent.mildpath"));
    }
    QCOMPARE(run({ QStringLiteral("new"), QStringLiteral("--template"),
                   QStringLiteral("inline-four-alloy"), QStringLiteral("-o"),
                   QStringLiteral("/nonexistent/x") })
                 .code,
             3);
}

} // namespace tst_cli

MILDPATH_TEST(tst_cli, TestCli)
#include "tst_cli.moc"
