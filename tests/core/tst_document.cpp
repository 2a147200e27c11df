// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"
#include "document/enginevalue.h"
#include "quantity/json.h"
#include "testing.h"

#include <QTemporaryDir>

#include <random>

using namespace mildpath;

namespace tst_document {

class TestDocument : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyShippedBuild_loadsAndSavesTheSame_data();
    void everyShippedBuild_loadsAndSavesTheSame();
    void unknownKeys_survive();
    void olderVersion_isMigratedAndKept();
    void everyOlderVersion_becomesTheSameDocument_data();
    void everyOlderVersion_becomesTheSameDocument();
    void badFiles_sayWhereAndWhy_data();
    void badFiles_sayWhereAndWhy();
    void everyTruncation_isRefused();
    void damagedFiles_neverCrash();
    void unreadableFile_isNotBadInput();
    void failedSave_leavesTheOldFile();
    void correction_strikesAndKeeps();
    void withdrawal_keepsTheReading();
    void clearanceReadings_mustBePossible_data();
    void clearanceReadings_mustBePossible();
    void edits_surviveJson_data();
    void edits_surviveJson();
    void senselessEdits_areRefused_data();
    void senselessEdits_areRefused();
};

namespace {

Reading reading(double um, int station = 1, double angle = 90)
{
    Reading r;
    r.stop = "main_1";
    r.station = station;
    r.angle_deg = angle;
    r.value_um = um;
    r.by = "tester";
    return r;
}

Json demoJson()
{
    return toJson(demoBuild());
}

} // namespace

void TestDocument::everyShippedBuild_loadsAndSavesTheSame_data()
{
    QTest::addColumn<QString>("path");
    for (const TemplateInfo &t : listTemplates())
        QTest::newRow(t.name.c_str()) << QString::fromStdString(t.path.string());
    QTest::newRow("demo") << QString::fromStdString(demoBuildPath().string());
}

void TestDocument::everyShippedBuild_loadsAndSavesTheSame()
{
    QFETCH(QString, path);
    const auto loaded = loadBuild(path.toStdString());
    QVERIFY2(loaded, loaded ? "" : said(loaded.error().errors.front().message).c_str());
    const auto again = parseBuild(buildText(loaded->build));
    QVERIFY(again);
    QVERIFY(again->build == loaded->build);
    QCOMPARE(buildText(again->build), buildText(loaded->build));
}

void TestDocument::unknownKeys_survive()
{
    Json json = demoJson();
    json["shop_colour"] = "green";
    json["engine"]["serial"] = 4711;
    json["engine"]["stops"][3]["note"] = { { "a", 1 } };
    json["circuit"]["elements"][0]["supplier"] = "shelf 3";
    json["readings"][0]["humidity"] = 0.4;
    json["events"][0]["weather"] = "frost";
    json["passages"][2]["casting_mark"] = "B7";
    json["plugs"][1]["maker"] = "unknown";
    const auto loaded = parseBuild(json.dump());
    QVERIFY(loaded);
    const Json back = toJson(loaded->build);
    QCOMPARE(back["shop_colour"], json["shop_colour"]);
    QCOMPARE(back["engine"]["serial"], json["engine"]["serial"]);
    QCOMPARE(back["engine"]["stops"][3]["note"], json["engine"]["stops"][3]["note"]);
    QCOMPARE(back["circuit"]["elements"][0]["supplier"],
             json["circuit"]["elements"][0]["supplier"]);
    QCOMPARE(back["readings"][0]["humidity"], json["readings"][0]["humidity"]);
    QCOMPARE(back["events"][0]["weather"], json["events"][0]["weather"]);
    QCOMPARE(back["passages"][2]["casting_mark"], json["passages"][2]["casting_mark"]);
    QCOMPARE(back["plugs"][1]["maker"], json["plugs"][1]["maker"]);
}

void TestDocument::olderVersion_isMigratedAndKept()
{
    Json old = demoJson();
    old["version"] = 1;
    old["oil"] = "20W-50";
    const std::string text = old.dump();
    QTemporaryDir folder;
    const auto path = folder.filePath(QStringLiteral("old.mildpath")).toStdString();
    QVERIFY(writeTextFile(path, text));
    const auto loaded = loadBuild(path);
    QVERIFY(loaded);
    QCOMPARE(loaded->fileVersion, 1);
    QCOMPARE(loaded->build.oil.oil.kv100_mm2_s, 18.5);
    QVERIFY(saveBuild(path, loaded->build, loaded->olderText));
    QCOMPARE(readTextFile(path + ".bak").value(), text);
    QCOMPARE(loadBuild(path)->fileVersion, buildVersion);
}

void TestDocument::everyOlderVersion_becomesTheSameDocument_data()
{
    QTest::addColumn<QString>("demo");
    QTest::addColumn<int>("version");
    for (const auto &entry : std::filesystem::directory_iterator(demoBuildPath().parent_path()))
        if (entry.path().extension() == ".mildpath")
            for (int v = 1; v <= buildVersion; ++v)
                if (!sanitized || entry.path().stem() == "harbour-standby")
                    QTest::addRow("%s as version %d", entry.path().stem().c_str(), v)
                        << QString::fromStdString(entry.path().string()) << v;
}

/// Byte for byte, except what a step says: films in place of plain bearings, the oil of the shelf.
void TestDocument::everyOlderVersion_becomesTheSameDocument()
{
    QFETCH(QString, demo);
    QFETCH(int, version);
    // As the program writes it: files made by hand leave out what is as usual.
    const std::string text = buildText(loadBuild(demo.toStdString())->build);
    Json old = parseJson(text).value();
    old["version"] = version;
    const bool plain = version <= 4;
    if (plain)
        for (Json &e : old["circuit"]["elements"])
            if (e["type"] == "film_bearing") {
                e["type"] = "bearing";
                e["ecc"] = 0.6;
                for (const char *key : { "hole_in_journal", "load_n", "load_n_per_krpm2" })
                    e.erase(key);
            }
    if (version == 1)
        old["oil"] = "15W-40";
    const auto loaded = parseBuild(old.dump());
    QVERIFY2(loaded, loaded ? "" : said(loaded.error().errors.front().message).c_str());
    QCOMPARE(loaded->fileVersion, version);
    if (!plain) {
        QCOMPARE(QString::fromStdString(buildText(loaded->build)), QString::fromStdString(text));
        return;
    }
    Json is = toJson(loaded->build), was = parseJson(text).value();
    for (const Json &e : is["circuit"]["elements"])
        QVERIFY(e["type"] != "bearing");
    QCOMPARE(is["circuit"]["elements"].size(), was["circuit"]["elements"].size());
    for (Json *one : { &is, &was }) {
        (*one)["circuit"].erase("elements");
        if (version == 1)
            one->erase("oil");
    }
    QCOMPARE(is.dump(), was.dump());
}

void TestDocument::badFiles_sayWhereAndWhy_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("reason");
    const auto row
        = [](const char *name, const std::string &text, const char *place, const char *reason) {
              QTest::newRow(name) << QByteArray::fromStdString(text) << QString::fromLatin1(place)
                                  << QString::fromLatin1(reason);
          };
    const auto changed = [](auto change) {
        Json json = demoJson();
        change(json);
        return json.dump();
    };
    row("empty", "", "line 1", "empty");
    row("binary", std::string("\x7f\x45\x4c\x46\x00\x01\x02", 7), "line 1", "not JSON");
    row("list", "[]", "/", "object");
    row("another program's", R"({"format":"something"})", "/format", "not a build");
    row("newer", changed([](Json &j) { j["version"] = 99; }), "/version", "newer");
    row("no version", changed([](Json &j) { j.erase("version"); }), "/version", "missing");
    row("version is text", changed([](Json &j) { j["version"] = "2"; }), "/version",
        "whole number");
    row("text for a number", changed([](Json &j) { j["readings"][2]["value_um"] = "wide"; }),
        "/readings/2/value_um", "number");
    row("negative clearance", changed([](Json &j) { j["readings"][2]["value_um"] = -3; }),
        "/readings/2/value_um", "above 0");
    row("reading of nothing", changed([](Json &j) { j["readings"][0]["stop"] = "main_9"; }),
        "/readings/0/stop", "no stop");
    row("water for oil", changed([](Json &j) { j["oil"]["kv40_mm2_s"] = 0.7; }), "/oil/kv40_mm2_s",
        "at least 2");
    row("limits crossed", changed([](Json &j) { j["limits"]["main"]["max_um"] = 10; }),
        "/limits/main/max_um", "above the minimum");
    row("unknown material", changed([](Json &j) { j["engine"]["materials"]["block"] = "cheese"; }),
        "/engine/materials/block", "unknown material");
    row("stop at no node",
        changed([](Json &j) { j["engine"]["stops"][1]["points"][0]["node"] = "nowhere"; }),
        "/engine/stops/1/points/0/node", "no node");
    row("element owned twice",
        changed([](Json &j) { j["engine"]["stops"][1]["elements"].push_back("strainer"); }),
        "/engine/stops/1/elements/2", "another stop");
    row("circuit without a way back", changed([](Json &j) {
            j["circuit"]["elements"][0]["from"] = "tank";
            j["circuit"]["elements"][0]["to"] = "isle";
        }),
        "/circuit/elements/0/from", "no way");
    row("gauge nowhere", changed([](Json &j) { j["circuit"]["gauge_tap"] = "x"; }),
        "/circuit/gauge_tap", "taps");
    row("idle above the top", changed([](Json &j) {
            j["use"]["most_rpm"] = 1000;
            j["use"]["hot_idle_rpm"] = 2000;
        }),
        "/use/most_rpm", "above");
    row("proof of nothing known", changed([](Json &j) { j["proofs"][0]["aspect"] = "smell"; }),
        "/proofs/0/aspect", "size, clean or flow");
    row("replaces what is not there",
        changed([](Json &j) { j["readings"][0]["replaces"] = "r99"; }), "/readings/0/replaces",
        "no earlier");
}

void TestDocument::badFiles_sayWhereAndWhy()
{
    QFETCH(QByteArray, text);
    QFETCH(QString, place);
    QFETCH(QString, reason);
    const auto loaded = parseBuild(text.toStdString());
    QVERIFY(!loaded);
    QVERIFY(!loaded.error().unreadable);
    const Error &e = loaded.error().errors.front();
    QVERIFY2(QString::fromStdString(e.place).contains(place),
             (e.place + ": " + said(e.message)).c_str());
    QVERIFY2(QString::fromStdString(said(e.message)).contains(reason), said(e.message).c_str());
}

void TestDocument::everyTruncation_isRefused()
{
    const std::string text = buildText(demoBuild());
    for (size_t length = 0; length + 2 < text.size(); length += 997)
        QVERIFY2(!parseBuild(text.substr(0, length)), qPrintable(QString::number(length)));
}

void TestDocument::damagedFiles_neverCrash()
{
    const std::string whole = buildText(demoBuild());
    std::mt19937 random(7); // fixed: the same damage in every run
    int refused = 0;
    for (int i = 0; i < 150; ++i) {
        std::string text = whole;
        for (int k = 0; k < 3; ++k)
            text[random() % text.size()] = static_cast<char>(random() % 256);
        const auto loaded = parseBuild(text);
        refused += !loaded;
        QVERIFY(loaded || !loaded.error().errors.front().message.empty());
    }
    QVERIFY(refused > 50);
}

void TestDocument::unreadableFile_isNotBadInput()
{
    QVERIFY(loadBuild("/nonexistent/x.mildpath").error().unreadable);
    QVERIFY(loadBuild("/tmp").error().unreadable);
}

void TestDocument::failedSave_leavesTheOldFile()
{
    QTemporaryDir folder;
    const std::string target = folder.filePath(QStringLiteral("taken")).toStdString();
    QVERIFY(std::filesystem::create_directories(target + "/inside"));
    QVERIFY(!saveBuild(target, demoBuild())); // a folder is in the way
    QVERIFY(std::filesystem::is_directory(target + "/inside"));
    QVERIFY(!saveBuild(folder.filePath(QStringLiteral("no/such/x")).toStdString(), demoBuild()));
    int left = 0;
    for ([[maybe_unused]] const auto &entry :
         std::filesystem::directory_iterator(folder.path().toStdString()))
        ++left;
    QCOMPARE(left, 1); // no half-written file beside it
}

void TestDocument::correction_strikesAndKeeps()
{
    const Build before = loadTemplate("inline-four-wet-sump")->build;
    const Build first = applyEdit(before, EnterReading { reading(50) }).value();
    const Build second = applyEdit(first, EnterReading { reading(58) }).value();
    QCOMPARE(second.readings.size(), 2u);
    QCOMPARE(second.readings[1].replaces, second.readings[0].id);
    QCOMPARE(*readingAt(second, gaugePlace("main_1", 1, 90))->value_um, 58.0);
    QCOMPARE(standingReadings(second).size(), 1u);
    QCOMPARE(*second.readings[0].value_um, 50.0);
}

void TestDocument::withdrawal_keepsTheReading()
{
    const Build one
        = applyEdit(loadTemplate("inline-four-wet-sump")->build, EnterReading { reading(50) })
              .value();
    const Build none
        = applyEdit(one, WithdrawReading { gaugePlace("main_1", 1, 90), "tester", "" }).value();
    QCOMPARE(readingAt(none, gaugePlace("main_1", 1, 90)), nullptr);
    QCOMPARE(none.readings.size(), 2u);
    QVERIFY(validateBuild(none).empty());
    QVERIFY(!applyEdit(none, WithdrawReading { gaugePlace("main_1", 1, 90), "tester", "" }));
}

void TestDocument::clearanceReadings_mustBePossible_data()
{
    QTest::addColumn<double>("um");
    QTest::addColumn<bool>("taken");
    QTest::newRow("usual") << 58.0 << true;
    QTest::newRow("wide but possible") << 400.0 << true;
    QTest::newRow("negative") << -5.0 << false;
    QTest::newRow("zero") << 0.0 << false;
    QTest::newRow("9 mm") << 9000.0 << false;
    QTest::newRow("not a number") << std::nan("") << false;
}

void TestDocument::clearanceReadings_mustBePossible()
{
    QFETCH(double, um);
    QFETCH(bool, taken);
    QCOMPARE(applyEdit(loadTemplate("inline-four-wet-sump")->build, EnterReading { reading(um) })
                 .has_value(),
             taken);
}

void TestDocument::edits_surviveJson_data()
{
    QTest::addColumn<int>("row");
    for (int i = 0; i < 29; ++i)
        QTest::addRow("%d", i) << i;
}

static TorqueCard outerCard()
{
    TorqueCard out;
    out.name = "Outer";
    out.after = "main_caps";
    out.stages = { { 22, "lb ft", 0 }, { 0, "", 90 } };
    out.fasteners = { { "main_1", 1, 2 } };
    out.source = "shop";
    return out;
}

void TestDocument::edits_surviveJson()
{
    QFETCH(int, row);
    const Edit edits[]
        = { EnterReading { reading(58.25, 2, 120) },
            WithdrawReading { gaugePlace("main_1", 1, 90), "a", "b" },
            SetOil { { "20W-50", { 160, 18.5, 884 }, {} } },
            SetUse { "hot_oil_c", 95 },
            SetLimit { "main", "target_um", 47.5 },
            SetElementValue { "relief", "crack_kpa", 500 },
            AddProof { { "", "pump", "clean", "proven", "washed", "a", "b", "", {} } },
            Rename { "other" },
            EnterReadings { { reading(50), reading(51, 2, 60) } },
            SetStopValue { "main_3", "thrust_bevel_mm2", 0.5 },
            SetStopValue { "main_3", "thrust_bevel_mm2", std::nullopt },
            TickFastener { { "x", "main_caps", 3, 2, true, 0, "a", "b", {} } },
            SetEngineValue { "circuit/main_1/d_mm", 59.5, Origin::Measured, "a", "b" },
            PutTorqueCard { outerCard() },
            DropTorqueCard { "card_3" },
            FitShells { "main", "main_1", { "moss", "rust", "2", "B" } },
            SetShellRow { "main", { "chalk", 2.012, 4 } },
            SetSizeClass { "main", true, { "D", 59.98, 59.99 } },
            Choose { { "strip_counts", "yes", "cheap", "a", "b", {} } },
            SetEngine { "bore_mm", 92.5 },
            KeepOil { { "Shed oil", { 90, 13, 870 }, 3.6, 900 } },
            KeepOil { { "Plain oil", { 90, 13, 870 } } },
            DropOil { "Shed oil" },
            AddStop { StopKind::Turbo, "Turbo 1", "main_gallery" },
            RemoveStop { "chain_jet" },
            MoveStop { "chain_jet", -2 },
            TurnStop { "chain_jet", StopKind::Turbo },
            FeedStop { "chain_jet", "cam_bearings" },
            NameStop { "pump", "Twin pump" },
            MoveGauge { "lifter_gallery", 7 },
            SetAlike { "cooling_jets", ElementKind::Jet, "d_mm", 1.5 },
            SetUse { "rule_base_kpa", 50 } };
    Edit edit = edits[row];
    // A reading without an id is no reading in a file.
    if (const auto *enter = edit.as<EnterReading>()) {
        EnterReading named = *enter;
        named.reading.id = "x";
        edit = named;
    } else if (const auto *several = edit.as<EnterReadings>()) {
        EnterReadings named = *several;
        for (Reading &r : named.readings)
            r.id = "x";
        edit = named;
    } else if (const auto *proof = edit.as<AddProof>()) {
        AddProof named = *proof;
        named.proof.id = "x";
        edit = named;
    }
    const auto back = editFromJson(editToJson(edit));
    QVERIFY2(back, back ? "" : said(back.error().message).c_str());
    QVERIFY(*back == edit);
    QVERIFY(!describeEdit(demoBuild(), edit).empty());
}

void TestDocument::senselessEdits_areRefused_data()
{
    QTest::addColumn<int>("row");
    for (int i = 0; i < 6; ++i)
        QTest::addRow("%d", i) << i;
}

void TestDocument::senselessEdits_areRefused()
{
    QFETCH(int, row);
    const Edit edits[] = { SetUse { "hot_oil_c", 900 },
                           SetUse { "favourite_colour", 1 },
                           SetLimit { "main", "max_um", 5 },
                           SetElementValue { "relief", "crack_kpa", -5 },
                           SetElementValue { "relief", "d_mm", 5 },
                           SetElementValue { "nobody", "d_mm", 5 } };
    const auto out = applyEdit(demoBuild(), edits[row]);
    QVERIFY(!out);
    QVERIFY(!out.error().place.empty() && !out.error().message.empty());
}

} // namespace tst_document

MILDPATH_TEST(tst_document, TestDocument)
#include "tst_document.moc"
