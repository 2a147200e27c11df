// SPDX-License-Identifier: GPL-3.0-or-later
// Files of traces, tables of cuts and samples, and a folder of builds.
#include "checks/assessment.h"
#include "document/dimensions.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "shelf/compare.h"
#include "storage/evidencetables.h"
#include "storage/photos.h"
#include "storage/tracefile.h"
#include "testing.h"

#include <QTemporaryDir>

#include <numbers>

using namespace mildpath;

namespace tst_evidencefiles {

class TestEvidenceFiles : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void traceFile_isUnderstood_data();
    void traceFile_isUnderstood();
    void traceFile_faultsNameTheirLine_data();
    void traceFile_faultsNameTheirLine();
    void unevenStep_isMadeEvenAndSaid();
    void trace_survivesTheFile();
    void brokenHeights_areRefused();
    void samples_goOutAndComeBack();
    void cuts_goOutAndComeBack();
    void table_faultsNameTheirRow_data();
    void table_faultsNameTheirRow();
    void formula_inACellIsDefused();
    void shelf_showsDamageAndHarmsNothing();
    void shelf_searches();
    void shelf_comparesByTheSameFunctions();
    void shelf_loadsNoPhotos();
    void shelf_tableIsCsv();

private:
    std::filesystem::path file(const char *name) const
    {
        return std::filesystem::path(m_dir.path().toStdString()) / name;
    }
    Build m_history;
    QTemporaryDir m_dir;
};

void TestEvidenceFiles::initTestCase()
{
    const auto demo = demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath";
    const auto history = loadBuild(demo);
    QVERIFY(history && m_dir.isValid());
    m_history = history->build;
    std::filesystem::copy_file(demo, file("a-history.mildpath"));
    std::filesystem::copy_file(demoBuildPath(), file("b-demo.mildpath"));
    const std::string text = *readTextFile(demo);
    QVERIFY(writeTextFile(file("c-cut-short.mildpath"), text.substr(0, text.size() / 2)));
    QVERIFY(writeTextFile(file("d-empty.mildpath"), ""));
    QVERIFY(writeTextFile(file("e-other.mildpath"), R"({"format":"something","version":1})"));
    QVERIFY(writeTextFile(file("f-newer.mildpath"),
                          R"({"format":"mild-path-build","version":999,"name":"From tomorrow"})"));
    // Whole JSON, and no engine: found out only when it is opened.
    QVERIFY(writeTextFile(file("g-senseless.mildpath"),
                          R"({"format":"mild-path-build","version":10,"name":"Hollow"})"));
    QVERIFY(writeTextFile(file("notes.txt"), "not a build"));
}

void TestEvidenceFiles::traceFile_isUnderstood_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<int>("columns");
    QTest::addColumn<double>("spacing");
    QTest::addColumn<double>("third");
    const auto rows = [](const QString &head, const QString &row, double step) {
        QString out = head;
        for (int i = 0; i < 500; ++i)
            out += row.arg(i * step, 0, 'f', 6).arg(i == 2 ? 0.75 : 0.25, 0, 'f', 3);
        return out;
    };
    QTest::newRow("x in mm, z in µm") << rows("x_mm,z_um\n", "%1,%2\n", 0.002) << 2 << 2.0 << 0.75;
    QTest::newRow("both in µm, blanks")
        << rows("# traced\nx (um) z (um)\n", "  %1   %2\r\n", 2) << 2 << 2.0 << 0.75;
    QTest::newRow("z in nm, tabs")
        << rows("x [mm]\tz [nm]\n", "%1\t%2\n", 0.002) << 2 << 2.0 << 0.00075;
    QString comma = rows("x mm;z µm\n", "%1;%2\n", 0.002);
    comma.replace(u'.', u',');
    QTest::newRow("decimal commas") << comma << 2 << 2.0 << 0.75;
    QString single;
    for (int i = 0; i < 500; ++i)
        single += i == 2 ? "0.75\n" : "-0.25\n";
    QTest::newRow("one column") << single << 1 << 3.0 << 0.75;
}

void TestEvidenceFiles::traceFile_isUnderstood()
{
    QFETCH(QString, text);
    QFETCH(int, columns);
    QFETCH(double, spacing);
    QFETCH(double, third);
    TraceFormat format = guessTraceFormat(text.toStdString());
    QCOMPARE(format.columns, columns);
    if (columns == 1) {
        const TraceImport asked = traceFromText(text.toStdString(), format);
        QCOMPARE(asked.errors.front().place, std::string("spacing"));
        format.spacing_um = spacing;
    }
    const TraceImport trace = traceFromText(text.toStdString(), format);
    QVERIFY2(trace.errors.empty(),
             trace.errors.empty()
                 ? ""
                 : (trace.errors[0].place + " " + said(trace.errors[0].message)).c_str());
    QCOMPARE(trace.z_um.size(), size_t(500));
    verifyClose(trace.spacing_um, spacing, 1e-9);
    verifyClose(trace.z_um[2], third, 1e-9);
    QVERIFY(trace.said.empty());
}

void TestEvidenceFiles::traceFile_faultsNameTheirLine_data()
{
    QTest::addColumn<QString>("change");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("says");
    QTest::newRow("not a number") << "0.004,n/a"
                                  << "line 4"
                                  << "no number";
    QTest::newRow("a unit in the cell") << "0.004,0.25 um"
                                        << "line 4"
                                        << "header";
    QTest::newRow("height missing") << "0.004,"
                                    << "line 4"
                                    << "gap";
    QTest::newRow("line missing") << ""
                                  << "line 4"
                                  << "gap";
    QTest::newRow("place goes back") << "0.001,0.25"
                                     << "line 4"
                                     << "does not rise";
    QTest::newRow("a jump") << "0.400,0.25"
                            << "line 4"
                            << "jumps";
    QTest::newRow("infinite") << "0.004,inf"
                              << "line 4"
                              << "no number";
    QTest::newRow("a third cell") << "0.004,0.25,9"
                                  << "line 4"
                                  << "3 cells";
}

void TestEvidenceFiles::traceFile_faultsNameTheirLine()
{
    QFETCH(QString, change);
    QFETCH(QString, place);
    QFETCH(QString, says);
    QString text = "x_mm,z_um\n";
    for (int i = 0; i < 500; ++i)
        text += i == 2 ? change + '\n' : QStringLiteral("%1,0.25\n").arg(i * 0.002, 0, 'f', 3);
    const TraceImport t = traceFromText(text.toStdString(), guessTraceFormat(text.toStdString()));
    QVERIFY(!t.errors.empty());
    QCOMPARE(QString::fromStdString(t.errors.front().place), place);
    QVERIFY2(QString::fromStdString(said(t.errors.front().message)).contains(says),
             said(t.errors.front().message).c_str());
    QVERIFY(t.z_um.empty() || t.errors.front().place == "spacing");
    // Units mixed up: 1 m of bore.
    QString metre = "x_um,z_um\n";
    for (int i = 0; i < 500; ++i)
        metre += QStringLiteral("%1,0.25\n").arg(i * 0.002, 0, 'f', 3);
    const TraceImport mixed
        = traceFromText(metre.toStdString(), guessTraceFormat(metre.toStdString()));
    QVERIFY(!mixed.errors.empty());
    QVERIFY(said(mixed.errors.front().message).find("units mixed") != std::string::npos);
}

void TestEvidenceFiles::unevenStep_isMadeEvenAndSaid()
{
    QString text = "x_mm,z_um\n";
    for (int i = 0; i < 500; ++i) {
        const double x = i * 0.002 + (i % 2 ? 0.0002 : 0);
        text += QStringLiteral("%1,%2\n").arg(x, 0, 'f', 6).arg(10 * x, 0, 'f', 6);
    }
    const TraceImport t = traceFromText(text.toStdString(), guessTraceFormat(text.toStdString()));
    QVERIFY(t.errors.empty());
    QVERIFY(said(t.said).find("interpolated") != std::string::npos);
    for (size_t i = 1; i < t.z_um.size(); ++i) // a straight line stays one
        verifyClose(t.z_um[i] - t.z_um[i - 1], 10 * t.spacing_um / 1000, 1e-3, 1e-6);
}

void TestEvidenceFiles::trace_survivesTheFile()
{
    const BoreTrace &trace = m_history.boreTraces.front();
    std::vector<Error> errors;
    QVERIFY(fromJson<BoreTrace>(toJson(trace), "", errors) == trace);
    const std::vector<double> z(trace.z.um().begin(), trace.z.um().end());
    const std::string csv = traceToCsv(trace.spacing_um, z);
    const TraceImport back = traceFromText(csv, guessTraceFormat(csv));
    QVERIFY(back.errors.empty());
    QCOMPARE(back.z_um, z);
    verifyClose(back.spacing_um, trace.spacing_um, 1e-9);
    // A document is copied without copying its heights.
    const Build copy = m_history;
    QVERIFY(copy.boreTraces.front().z.um().data() == trace.z.um().data());
}

void TestEvidenceFiles::brokenHeights_areRefused()
{
    Json json = toJson(m_history.boreTraces.front());
    json["z_um"] = "0.1 0.2 x 0.3";
    std::vector<Error> errors;
    static_cast<void>(fromJson<BoreTrace>(json, "/bore_traces/0", errors));
    QCOMPARE(errors.size(), size_t(1));
    QCOMPARE(errors.front().place, std::string("/bore_traces/0/z_um"));
    QVERIFY(said(errors.front().message).find("height 3") != std::string::npos);
}

void TestEvidenceFiles::samples_goOutAndComeBack()
{
    Build bare = m_history;
    bare.oilSamples.clear();
    const SampleImport in = samplesFromTable(bare, oilSamplesToCsv(m_history));
    QVERIFY(in.errors.empty());
    QCOMPARE(in.samples.size(), m_history.oilSamples.size());
    for (size_t i = 0; i < in.samples.size(); ++i) {
        OilSample want = m_history.oilSamples[i];
        want.id.clear(); // given anew
        QVERIFY2(in.samples[i] == want, want.at.c_str());
    }
    QVERIFY(isSampleTable(oilSamplesToCsv(m_history)));
    QVERIFY(!isCutTable(oilSamplesToCsv(m_history)));
}

void TestEvidenceFiles::cuts_goOutAndComeBack()
{
    Build bare = m_history;
    bare.filterCuts.clear();
    const CutImport in = cutsFromTable(bare, filterCutsToCsv(m_history));
    QVERIFY(in.errors.empty());
    QCOMPARE(in.cuts.size(), m_history.filterCuts.size());
    for (size_t i = 0; i < in.cuts.size(); ++i) {
        QCOMPARE(in.cuts[i].engine_h, m_history.filterCuts[i].engine_h);
        QCOMPARE(in.cuts[i].count("bright"), m_history.filterCuts[i].count("bright"));
        QCOMPARE(in.cuts[i].count("copper", "can"), m_history.filterCuts[i].count("copper", "can"));
    }
    // Into a build that has them already: every row is said.
    QCOMPARE(cutsFromTable(m_history, filterCutsToCsv(m_history)).errors.size(), in.cuts.size());
}

void TestEvidenceFiles::table_faultsNameTheirRow_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("says");
    const QString head = "engine_hours_h,oil_hours_h,Fe_mg_kg,Cu\n50,50,12,3\n";
    QTest::newRow("negative hours") << head + "-5,20,3,1\n"
                                    << "line 3, engine_hours_h"
                                    << "is -5";
    QTest::newRow("two at one time") << head + "50,20,3,1\n"
                                     << "line 3, engine_hours_h"
                                     << "there already: line 2";
    QTest::newRow("at one time with the build") << head + "65,20,3,1\n"
                                                << "line 3, engine_hours_h"
                                                << "sample m2";
    QTest::newRow("a unit of its own") << head + "90,20,3 mg/l,1\n"
                                       << "line 3, Fe_mg_kg"
                                       << "one unit";
    QTest::newRow("column in another unit")
        << QString("engine_hours_h,oil_hours_h,Fe (%)\n50,50,1\n") << "line 1, Fe (%)"
        << "is in %";
    QTest::newRow("no number") << head + "90,20,low,1\n"
                               << "line 3, Fe_mg_kg"
                               << "no number";
    QTest::newRow("hours missing") << head + "90,,3,1\n"
                                   << "line 3, oil_hours_h"
                                   << "missing";
    QTest::newRow("nothing in it") << head + "90,20,,\n"
                                   << "line 3"
                                   << "neither";
    QTest::newRow("header alone") << QString("engine_hours_h,oil_hours_h,Fe\n") << "line 2"
                                  << "no samples";
}

void TestEvidenceFiles::table_faultsNameTheirRow()
{
    QFETCH(QString, text);
    QFETCH(QString, place);
    QFETCH(QString, says);
    const SampleImport in = samplesFromTable(m_history, text.toStdString());
    QVERIFY(!in.errors.empty());
    QCOMPARE(QString::fromStdString(in.errors.front().place), place);
    QVERIFY2(QString::fromStdString(said(in.errors.front().message)).contains(says),
             said(in.errors.front().message).c_str());
}

void TestEvidenceFiles::formula_inACellIsDefused()
{
    Build b = m_history;
    b.oilSamples.front().note = "=1+1";
    QVERIFY(oilSamplesToCsv(b).find(",'=1+1") != std::string::npos);
}

void TestEvidenceFiles::shelf_showsDamageAndHarmsNothing()
{
    const std::string before = *readTextFile(file("c-cut-short.mildpath"));
    const std::vector<ShelfEntry> shelf = openShelf(m_dir.path().toStdString());
    QCOMPARE(shelf.size(), size_t(7)); // the notes are no build
    const auto trouble = [&](size_t i) { return QString::fromStdString(said(shelf[i].trouble)); };
    QVERIFY(!shelf[0].damaged() && !shelf[1].damaged());
    QVERIFY(trouble(2).contains("damaged at byte"));
    QVERIFY(trouble(3).contains("damaged at byte"));
    QVERIFY(trouble(4).contains("not a build"));
    QVERIFY(trouble(5).contains("version 999"));
    const auto rows = compareOnShelf(shelf, "size.big_end");
    QCOMPARE(rows.size(), size_t(7));
    QVERIFY(rows[0].value.value && rows[1].value.value);
    for (size_t i = 2; i < 7; ++i)
        QVERIFY2(!rows[i].trouble.empty() && !rows[i].value.value, rows[i].path.c_str());
    QCOMPARE(*readTextFile(file("c-cut-short.mildpath")), before);
    QVERIFY(openShelf(file("nowhere")).empty());
}

void TestEvidenceFiles::shelf_searches()
{
    const ShelfEntry e = readShelfEntry(file("a-history.mildpath"));
    QCOMPARE(e.name, m_history.name);
    QCOMPARE(e.engine, m_history.engine.name);
    QCOMPARE(e.oil, m_history.oil.grade);
    QCOMPARE(e.displacement_l, displacement_l(m_history.engine));
    QCOMPARE(e.readings, static_cast<int>(m_history.readings.size()));
    QCOMPARE(e.cuts, 6);
    QCOMPARE(e.samples, 6);
    QCOMPARE(e.traces, static_cast<int>(m_history.boreTraces.size()));
    QVERIFY(e.last >= std::string("2026-10-05"));
    for (const char *words : { "", "harbour", "HARBOUR 240", "15w-40 moor", "a-history" })
        QVERIFY2(e.matches(words), words);
    for (const char *words : { "harbour v8", "launch" })
        QVERIFY2(!e.matches(words), words);
}

void TestEvidenceFiles::shelf_comparesByTheSameFunctions()
{
    const auto shelf = openShelf(m_dir.path().toStdString());
    const auto idle = compareOnShelf(std::span(shelf).first(2), "hot_idle");
    verifyClose(*idle[0].value.value, assess(m_history).operating.hotIdle.gauge.value_pa, 1e-12);
    verifyClose(*idle[1].value.value, assess(demoBuild()).operating.hotIdle.gauge.value_pa, 1e-12);
    const auto copper = compareOnShelf(std::span(shelf).first(2), "wear.Cu");
    QVERIFY(*copper[0].value.value > 40);
    QVERIFY(!copper[1].value.value);
    QVERIFY(*compareOnShelf(std::span(shelf).first(1), "rk_um")[0].value.value > 0.1e-6);
    // Every quantity can be asked of every build.
    for (const ShelfQuantity &q : shelfQuantities()) {
        const ShelfValue v = shelfValue(m_history, q.key);
        QVERIFY2(v.value || !v.of.empty(), q.key.c_str());
        if (v.value)
            QVERIFY2(std::isfinite(*v.value), q.key.c_str());
    }
    Progress stopped;
    stopped.cancel = true;
    QVERIFY(compareOnShelf(shelf, "hot_idle", &stopped).empty());
}

void TestEvidenceFiles::shelf_loadsNoPhotos()
{
    // A build that names photos nobody can read is compared all the same.
    Build b = m_history;
    b.filterCuts.front().photos = { "0123456789abcdef.jpg" };
    QVERIFY(saveBuild(file("h-photos.mildpath"), b));
    QCOMPARE(missingPhotos(b, file("h-photos.mildpath")).size(), size_t(1));
    const std::vector<ShelfEntry> one { readShelfEntry(file("h-photos.mildpath")) };
    QVERIFY(!one.front().damaged());
    QVERIFY(compareOnShelf(one, "cut.copper")[0].value.value);
    std::filesystem::remove(file("h-photos.mildpath"));
}

void TestEvidenceFiles::shelf_tableIsCsv()
{
    const auto shelf = openShelf(m_dir.path().toStdString());
    const std::vector<ShelfQuantity> all = shelfQuantities();
    const ShelfQuantity q = *std::ranges::find(all, std::string("size.main"), &ShelfQuantity::key);
    const std::string csv = shelfToCsv(compareOnShelf(shelf, q.key), q);
    QVERIFY(csv.starts_with("file,name,engine,last,"));
    QVERIFY(csv.find("(µm)") != std::string::npos);
    QVERIFY(csv.find("damaged: ") != std::string::npos);
    QCOMPARE(std::ranges::count(csv, '\n'), 8);
}

} // namespace tst_evidencefiles

MILDPATH_TEST(tst_evidencefiles, TestEvidenceFiles)
#include "tst_evidencefiles.moc"
