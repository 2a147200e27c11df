// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/logbook.h"
#include "sample.h"
#include "storage/cells.h"
#include "storage/drivetable.h"
#include "storage/evidencetables.h"
#include "storage/passagetables.h"
#include "storage/readingtable.h"
#include "storage/recordtable.h"
#include "storage/runfile.h"
#include "storage/starttables.h"
#include "storage/tracefile.h"
#include "testing.h"

#include <functional>

// Tables of other programs and of this one: separators, marks, decimal signs, columns in any order,
// and what is wrong in them named by line and column.

using namespace mildpath;

namespace tst_tables {

class TestTables : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void entries_comeBackFromTheirTable_data();
    void entries_comeBackFromTheirTable();
    void cells_areFullNumbers();
    void exports_areTables_data();
    void exports_areTables();
    void numbers_areUnderstood_data();
    void numbers_areUnderstood();
    void separators_areSeen_data();
    void separators_areSeen();
    void cuts_areTakenHoweverTheyAreWritten_data();
    void cuts_areTakenHoweverTheyAreWritten();
    void wrongCuts_areNamed_data();
    void wrongCuts_areNamed();
    void samples_areTaken();
    void wrongSamples_areNamed_data();
    void wrongSamples_areNamed();
    void kindsOfTable_areTold_data();
    void kindsOfTable_areTold();
    void drives_areRead_data();
    void drives_areRead();
    void traces_areRead_data();
    void traces_areRead();
    void runs_areRead_data();
    void runs_areRead();
    void ownTables_comeBack();

private:
    Build m_history;
};

void TestTables::initTestCase()
{
    const auto loaded
        = loadBuild(demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath");
    QVERIFY(loaded);
    m_history = loaded->build;
}

void TestTables::entries_comeBackFromTheirTable_data()
{
    QTest::addColumn<int>("seed");
    for (int seed = 1; seed <= 8; ++seed)
        QTest::addRow("%d", seed) << seed;
}

/// What is one value comes back as it was, whatever kind of entry it is of.
void TestTables::entries_comeBackFromTheirTable()
{
    QFETCH(int, seed);
    forEachLog([&](const auto &log) {
        using Entry = typename std::remove_cvref_t<decltype(log)>::Entry;
        const RecordType &type = recordType<Entry>();
        std::vector<Error> errors;
        const Entry was
            = fromJson<Entry>(Sample(static_cast<unsigned>(seed)).of(type), "/here", errors);
        SharedList<Entry> list;
        list.push_back(was);
        std::vector<Error> faults;
        TableReader table(recordsToCsv(list), faults);
        QCOMPARE(table.rows(), size_t(1));
        Entry is = was; // lists and maps are not the table's
        for (const Field &f : type.fields)
            if (f.shape == MemberShape::Number)
                f.setNumber(&is, 0);
            else if (f.shape == MemberShape::Text && f.key != "id" && f.key != "replaces"
                     && !f.words)
                static_cast<std::string *>(const_cast<void *>(f.at(&is)))->clear();
        table.read(0, type, &is, {});
        const Json before = toJson(was), after = toJson(is);
        for (const Field &f : type.fields) {
            const std::string key(f.key);
            if (before.contains(key) && table.column(f.key) >= 0)
                QVERIFY2(before[key] == after[key], (std::string(type.name) + "/" + key).c_str());
        }
    });
}

void TestTables::cells_areFullNumbers()
{
    SharedList<GaugeReading> list;
    GaugeReading r;
    r.id = "g1";
    r.tap = "main_gallery";
    r.rpm = 812.5;
    r.oil_c = 98;
    r.pressure_kpa = 140.0123456789;
    list.push_back(r);
    const std::string csv = recordsToCsv(list);
    for (const char *cell : { ",812.5,", ",98,", ",140.0123456789," })
        QVERIFY2(csv.find(cell) != std::string::npos, csv.c_str());
    std::vector<Error> errors;
    TableReader table("rpm,oil_temp_c,pressure_kpa,tap\n900,hot,1e9,main_gallery\n", errors);
    GaugeReading back;
    table.read(0, recordType<GaugeReading>(), &back, {});
    QCOMPARE(back.rpm, 900.0);
    QCOMPARE(errors.size(), size_t(2));
    QCOMPARE(errors[0].place, std::string("line 2, oil_temp_c"));
    QCOMPARE(errors[1].place, std::string("line 2, pressure_kpa"));
    QVERIFY(said(errors[1].message).find("must be") != std::string::npos);
}

void TestTables::exports_areTables_data()
{
    QTest::addColumn<QByteArray>("csv");
    QTest::addColumn<int>("entries");
    const auto row = [](const char *name, const std::string &csv, size_t entries) {
        QTest::newRow(name) << QByteArray::fromStdString(csv) << static_cast<int>(entries);
    };
    row("readings", readingsToCsv(m_history), m_history.readings.size());
    row("filter cuts", filterCutsToCsv(m_history), m_history.filterCuts.size());
    row("oil samples", oilSamplesToCsv(m_history), m_history.oilSamples.size());
    row("seal checks", sealChecksToCsv(m_history), m_history.sealChecks.size());
    row("passages", passagesToCsv(m_history), m_history.passages.size());
    row("plugs", plugsToCsv(m_history), m_history.plugs.size());
    row("events", eventsToCsv(m_history), m_history.events.size());
    row("signatures", signOffsToCsv(m_history), m_history.signOffs.size());
    row("card steps", cardStepsToCsv(m_history), m_history.cardSteps.size());
    row("gauge readings", gaugeReadingsToCsv(m_history), m_history.gaugeReadings.size());
}

void TestTables::exports_areTables()
{
    QFETCH(QByteArray, csv);
    QFETCH(int, entries);
    const auto rows = cellsOf(csv.toStdString(), ',');
    QVERIFY(rows);
    QVERIFY(rows->size() >= 1);
    // Every row has a cell for every column, and columns have names of their own.
    const auto &header = rows->front();
    std::set<std::string> names(header.begin(), header.end());
    QCOMPARE(names.size(), header.size());
    QVERIFY(!names.contains(""));
    for (const auto &row : *rows)
        QCOMPARE(row.size(), header.size());
    QVERIFY(static_cast<int>(rows->size()) - 1 >= entries
            || entries == static_cast<int>(m_history.readings.size()));
    QVERIFY(!csv.contains("nan") && !csv.contains("inf,"));
    QVERIFY(csv.endsWith('\n'));
}

void TestTables::numbers_areUnderstood_data()
{
    QTest::addColumn<QString>("cell");
    QTest::addColumn<bool>("comma");
    QTest::addColumn<double>("value");
    const auto row = [](const char *cell, bool comma, double value) {
        QTest::addRow("'%s'%s", cell, comma ? ", comma" : "")
            << QString::fromUtf8(cell) << comma << value;
    };
    const double none = std::nan("");
    row("12.5", false, 12.5);
    row(" 12.5 ", false, none); // cells are trimmed before
    row("-3", false, -3);
    row("+3", false, 3);
    row("1e3", false, 1000);
    row("12,5", true, 12.5);
    row("12,5", false, none);
    row("12.5.1", false, none);
    row("", false, none);
    row("twelve", false, none);
    row("12 mm", false, none);
    row("nan", false, none);
    row("inf", false, none);
    row("0x10", false, none);
    row("1e999", false, none);
}

void TestTables::numbers_areUnderstood()
{
    QFETCH(QString, cell);
    QFETCH(bool, comma);
    QFETCH(double, value);
    const auto read = numberOfCell(cell.toStdString(), comma);
    QCOMPARE(read.has_value(), std::isfinite(value));
    if (read)
        QCOMPARE(*read, value);
}

void TestTables::separators_areSeen_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<char>("separator");
    QTest::newRow("comma") << QByteArray("a,b,c\n1,2,3\n") << ',';
    QTest::newRow("semicolon") << QByteArray("a;b;c\n1,5;2;3\n") << ';';
    QTest::newRow("tab") << QByteArray("a\tb\tc\n1\t2\t3\n") << '\t';
    QTest::newRow("tab with commas inside") << QByteArray("a\tb, c\n1\t2,5\n") << '\t';
}

void TestTables::separators_areSeen()
{
    QFETCH(QByteArray, text);
    QFETCH(char, separator);
    QCOMPARE(separatorOf(text.toStdString()), separator);
}

void TestTables::cuts_areTakenHoweverTheyAreWritten_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::newRow("plain") << QByteArray(
        "engine_hours_h,filter_hours_h,area_cm2,bright_pleats,copper_can\n20,18,400,7,2\n");
    QTest::newRow("other order") << QByteArray(
        "copper_can,area_cm2,bright_pleats,filter_hours_h,engine_hours_h\n2,400,7,18,20\n");
    QTest::newRow("semicolons") << QByteArray(
        "engine_hours_h;filter_hours_h;area_cm2;bright_pleats;copper_can\n20;18;400;7;2\n");
    QTest::newRow("tabs") << QByteArray(
        "engine_hours_h\tfilter_hours_h\tarea_cm2\tbright_pleats\tcopper_can\n20\t18\t400\t7\t2\n");
    QTest::newRow("carriage returns") << QByteArray(
        "engine_hours_h,filter_hours_h,area_cm2,bright_pleats,copper_can\r\n20,18,400,7,2\r\n");
    QTest::newRow("byte order mark") << QByteArray(
        "\xEF\xBB\xBF"
        "engine_hours_h,filter_hours_h,area_cm2,bright_pleats,copper_can\n20,18,400,7,2\n");
    QTest::newRow("quotes and blanks") << QByteArray(
        "engine_hours_h, filter_hours_h ,area_cm2,bright_pleats,copper_can\n\"20\", 18,400,7,2\n");
    QTest::newRow("no end of line") << QByteArray(
        "engine_hours_h,filter_hours_h,area_cm2,bright_pleats,copper_can\n20,18,400,7,2");
    QTest::newRow("empty lines") << QByteArray(
        "engine_hours_h,filter_hours_h,area_cm2,bright_pleats,copper_can\n\n20,18,400,7,2\n\n");
}

void TestTables::cuts_areTakenHoweverTheyAreWritten()
{
    QFETCH(QByteArray, text);
    const CutImport in = cutsFromTable(demoBuild(), text.toStdString());
    QVERIFY2(in.errors.empty(),
             in.errors.empty() ? "" : (in.errors[0].place + said(in.errors[0].message)).c_str());
    QCOMPARE(in.cuts.size(), size_t(1));
    const FilterCut &c = in.cuts.front();
    QCOMPARE(c.engine_h, 20.0);
    QCOMPARE(c.filter_h, 18.0);
    QCOMPARE(c.area_cm2, 400.0);
    QCOMPARE(c.count("bright", "pleats").value(), 7);
    QCOMPARE(c.count("copper", "can").value(), 2);
    QVERIFY(!c.count("magnetic"));
}

void TestTables::wrongCuts_areNamed_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("place");
    const QByteArray head("engine_hours_h,filter_hours_h,area_cm2,bright_pleats\n");
    QTest::newRow("a word for hours") << head + "long,18,400,7\n"
                                      << QStringLiteral("line 2, engine_hours_h");
    QTest::newRow("half a particle") << head + "20,18,400,7.5\n"
                                     << QStringLiteral("line 2, bright_pleats");
    QTest::newRow("fewer than none") << head + "20,18,400,-7\n"
                                     << QStringLiteral("line 2, bright_pleats");
    QTest::newRow("second line") << head + "20,18,400,7\n21,,400,7\n"
                                 << QStringLiteral("line 3, filter_hours_h");
    QTest::newRow("no area") << QByteArray("engine_hours_h,filter_hours_h,bright_pleats\n1,1,1\n")
                             << QStringLiteral("line 2, area_cm2");
}

void TestTables::wrongCuts_areNamed()
{
    QFETCH(QByteArray, text);
    QFETCH(QString, place);
    const CutImport in = cutsFromTable(demoBuild(), text.toStdString());
    QVERIFY(!in.errors.empty());
    const QString at = QString::fromStdString(in.errors.front().place);
    QVERIFY2(at.startsWith(place), qPrintable(at));
    QVERIFY(!in.errors.front().message.empty());
}

void TestTables::samples_areTaken()
{
    const SampleImport in = samplesFromTable(
        demoBuild(),
        "engine_hours_h,oil_hours_h,oil,Fe,Cu,Pb,kv100_mm2_s\n50,50,15W-40,21,9,4,13.6\n"
        "100,50,15W-40,24,11,,13.2\n");
    QVERIFY2(in.errors.empty(), in.errors.empty() ? "" : said(in.errors[0].message).c_str());
    QCOMPARE(in.samples.size(), size_t(2));
    QCOMPARE(in.samples[0].elements.at("Fe"), 21.0);
    QCOMPARE(in.samples[1].elements.at("Cu"), 11.0);
    QVERIFY(!in.samples[1].elements.contains("Pb")); // an empty cell is not a zero
    QCOMPARE(*in.samples[1].kv100_mm2_s, 13.2);
}

void TestTables::wrongSamples_areNamed_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("place");
    const QByteArray head("engine_hours_h,oil_hours_h,oil,Fe\n");
    QTest::newRow("a word for iron") << head + "50,50,x,much\n" << QStringLiteral("line 2, Fe");
    QTest::newRow("less than none") << head + "50,50,x,-3\n" << QStringLiteral("line 2, Fe");
    QTest::newRow("no hours") << head + "50,,x,3\n" << QStringLiteral("line 2, oil_hours_h");
    QTest::newRow("a word for hours") << head + "ten,5,x,3\n"
                                      << QStringLiteral("line 2, engine_hours_h");
}

void TestTables::wrongSamples_areNamed()
{
    QFETCH(QByteArray, text);
    QFETCH(QString, place);
    const SampleImport in = samplesFromTable(demoBuild(), text.toStdString());
    QVERIFY(!in.errors.empty());
    QVERIFY2(QString::fromStdString(in.errors.front().place).startsWith(place),
             in.errors.front().place.c_str());
}

void TestTables::kindsOfTable_areTold_data()
{
    QTest::addColumn<QByteArray>("header");
    QTest::addColumn<QString>("kind");
    QTest::newRow("cuts") << QByteArray("engine_hours_h,filter_hours_h,area_cm2,bright_pleats\n")
                          << QStringLiteral("cuts");
    QTest::newRow("samples") << QByteArray("engine_hours_h,oil_hours_h,oil,Fe\n")
                             << QStringLiteral("samples");
    QTest::newRow("drive") << QByteArray("time_s,lateral_g\n") << QStringLiteral("drive");
    QTest::newRow("drive, along") << QByteArray("longitudinal_g,time_s\n")
                                  << QStringLiteral("drive");
    QTest::newRow("a recipe") << QByteArray("flour,butter\n") << QString();
    QTest::newRow("nothing") << QByteArray() << QString();
}

void TestTables::kindsOfTable_areTold()
{
    QFETCH(QByteArray, header);
    QFETCH(QString, kind);
    const std::string text = header.toStdString();
    QCOMPARE(isCutTable(text), kind == QStringLiteral("cuts"));
    QCOMPARE(isSampleTable(text), kind == QStringLiteral("samples"));
    QCOMPARE(isDriveTable(text), kind == QStringLiteral("drive"));
}

void TestTables::drives_areRead_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<int>("moments");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *name, const char *text, int moments, const char *place = "") {
        QTest::newRow(name) << QByteArray(text) << moments << QString::fromLatin1(place);
    };
    row("both ways", "time_s,lateral_g,longitudinal_g\n0,0,0\n1,0.3,-0.1\n2,0.2,0\n", 3);
    row("one way", "time_s,lateral_g\n0,0\n1,0.3\n", 2);
    row("other columns", "lap,time_s,lateral_g,speed\n1,0,0,50\n1,0.5,0.4,51\n", 2);
    row("time stands still", "time_s,lateral_g\n0,0\n0,0.3\n", 0, "line 3");
    row("time goes back", "time_s,lateral_g\n5,0\n1,0.3\n", 0, "line 3");
    row("a word", "time_s,lateral_g\n0,left\n", 0, "line 2, lateral_g");
    row("a crash", "time_s,lateral_g\n0,0\n1,9\n", 0, "line 3, lateral_g");
    row("no time", "lateral_g\n0\n", 0, "line 1");
    row("no g", "time_s,speed\n0,1\n", 0, "line 1");
}

void TestTables::drives_areRead()
{
    QFETCH(QByteArray, text);
    QFETCH(int, moments);
    QFETCH(QString, place);
    const DriveImport in = driveFromTable(text.toStdString());
    QCOMPARE(in.errors.empty(), place.isEmpty());
    if (in.errors.empty())
        QCOMPARE(static_cast<int>(in.moments.size()), moments);
    else
        QVERIFY2(QString::fromStdString(in.errors.front().place).startsWith(place),
                 in.errors.front().place.c_str());
}

void TestTables::traces_areRead_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<TraceFormat>("format");
    QTest::addColumn<double>("spacing");
    QTest::addColumn<double>("second");
    const auto row = [](const char *name, const char *text, const TraceFormat &format,
                        double spacing, double second) {
        QTest::newRow(name) << QByteArray(text) << format << spacing << second;
    };
    row("mm and µm", "0 0.1\n1 0.4\n2 0.2\n", { 2, "mm", "µm", {}, false }, 1000, 0.4);
    row("µm and nm", "0 100\n900 400\n1800 200\n", { 2, "µm", "nm", {}, false }, 900, 0.4);
    row("µm and mm", "0 0.0001\n900 0.0004\n1800 0.0002\n", { 2, "µm", "mm", {}, false }, 900, 0.4);
    row("heights alone", "0.1\n0.4\n0.2\n", { 1, "mm", "µm", 800.0, false }, 800, 0.4);
    row("decimal comma", "0;0,1\n1;0,4\n2;0,2\n", { 2, "mm", "µm", {}, true }, 1000, 0.4);
}

void TestTables::traces_areRead()
{
    QFETCH(QByteArray, text);
    QFETCH(TraceFormat, format);
    QFETCH(double, spacing);
    QFETCH(double, second);
    const TraceImport in = traceFromText(text.toStdString(), format);
    QVERIFY2(in.errors.empty(), in.errors.empty() ? "" : said(in.errors[0].message).c_str());
    QCOMPARE(in.z_um.size(), size_t(3));
    verifyClose(in.spacing_um, spacing, 1e-9);
    verifyClose(in.z_um[1], second, 1e-9);
}

void TestTables::runs_areRead_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<double>("pressure");
    QTest::addColumn<double>("rpm");
    QTest::addColumn<double>("oil");
    const auto row
        = [](const char *name, const char *text, double pressure, double rpm, double oil) {
              QTest::newRow(name) << QByteArray(text) << pressure << rpm << oil;
          };
    const double none = std::nan("");
    row("own names", "time_s,pressure_kpa,rpm,oil_temp_c\n0,100,800,90\n1,120,810,91\n", 120, 810,
        91);
    row("bar", "Time (s),Oil pressure (bar),Engine speed,Oil temp (C)\n0,1,800,90\n1,1.2,810,91\n",
        120, 810, 91);
    row("psi and °F", "time s,oil pressure psi,rpm,oil temp °F\n0,10,800,190\n1,20,810,194\n",
        137.895, 810, 90);
    row("pressure alone", "time_s,pressure_kpa\n0,100\n1,120\n", 120, none, none);
    row("an empty cell", "time_s,pressure_kpa,rpm\n0,100,800\n1,,810\n", none, 810, none);
    row("semicolons and commas", "time_s;pressure_kpa;rpm\n0;100,5;800\n1;120,5;810\n", 120.5, 810,
        none);
}

void TestTables::runs_areRead()
{
    QFETCH(QByteArray, text);
    QFETCH(double, pressure);
    QFETCH(double, rpm);
    QFETCH(double, oil);
    const auto table = runTable(text.toStdString());
    QVERIFY(table);
    const RunImport in = runFromTable(*table, guessColumns(*table));
    QVERIFY2(in.errors.empty(), in.errors.empty() ? "" : said(in.errors[0].message).c_str());
    QCOMPARE(in.points.size(), size_t(2));
    const RunPoint &p = in.points.back();
    QCOMPARE(p.t_s, 1.0);
    const std::pair<std::optional<double>, double> cells[]
        = { { p.pressure_kpa, pressure }, { p.rpm, rpm }, { p.oil_c, oil } };
    for (const auto &[read, expected] : cells) {
        QCOMPARE(read.has_value(), std::isfinite(expected));
        if (read)
            verifyClose(*read, expected, 1e-4);
    }
}

void TestTables::ownTables_comeBack()
{
    const CutImport cuts = cutsFromTable(demoBuild(), filterCutsToCsv(m_history));
    QVERIFY2(cuts.errors.empty(), cuts.errors.empty() ? "" : said(cuts.errors[0].message).c_str());
    QVERIFY(cuts.cuts.size() >= standing(m_history.filterCuts).size());
    const SampleImport samples = samplesFromTable(demoBuild(), oilSamplesToCsv(m_history));
    QVERIFY2(samples.errors.empty(),
             samples.errors.empty() ? "" : said(samples.errors[0].message).c_str());
    QVERIFY(samples.samples.size() >= standing(m_history.oilSamples).size());
    std::vector<RunPoint> points;
    for (int i = 0; i < 20; ++i)
        points.push_back({ i * 0.5, 100.0 + i, 800.0, 90.5 });
    const auto table = runTable(runToCsv(points, std::vector<RunMark> { { 3, "rattle, front" } }));
    QVERIFY(table);
    const RunImport run = runFromTable(*table, guessColumns(*table));
    QVERIFY(run.errors.empty());
    QVERIFY(run.points == points);
    const std::vector<double> z { 0.1, -0.25, 3.125, 0 };
    const std::string trace = traceToCsv(900, z);
    const TraceImport back = traceFromText(trace, guessTraceFormat(trace));
    QVERIFY(back.errors.empty());
    verifyClose(back.spacing_um, 900, 1e-9);
    for (size_t i = 0; i < z.size(); ++i)
        verifyClose(back.z_um[i], z[i], 1e-6, 1e-9);
}

} // namespace tst_tables

Q_DECLARE_METATYPE(mildpath::TraceFormat)

MILDPATH_TEST(tst_tables, TestTables)
#include "tst_tables.moc"
