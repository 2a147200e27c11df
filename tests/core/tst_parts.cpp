// SPDX-License-Identifier: GPL-3.0-or-later
// Torque cards, shells, weights, choices and stop numbers in the document: what is refused and
// where, and what an older file becomes.
#include "checks/assessment.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "storage/buildfile.h"
#include "testing.h"

#include <QProcess>

#include <fcntl.h>
#include <functional>
#include <unistd.h>

using namespace mildpath;

namespace tst_parts {

namespace {

using Damage = std::function<void(Json &)>;

Json demoJson()
{
    return parseJson(readTextFile(demoBuildPath()).value()).value();
}

size_t stopAt(const Json &j, const char *id)
{
    const Json &stops = j["engine"]["stops"];
    for (size_t i = 0; i < stops.size(); ++i)
        if (stops[i]["id"] == id)
            return i;
    qFatal("no stop %s", id);
}

} // namespace

class TestParts : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void damage_isNamedWithItsPlace_data();
    void damage_isNamedWithItsPlace();
    void stopNumbers_keepTheirRange_data();
    void stopNumbers_keepTheirRange();
    void versionTwo_keepsItsReadings();
    void everyFamily_isInTheSchema();
    void everyCheck_belongsToAKindOfStop();
    void methods_standInOrderOfStrength();
    void plan_asksEveryPlaceOnce();
    void secondAnswer_stands();
    void simulatedGauge_playsWhatItIsTold_data();
    void simulatedGauge_playsWhatItIsTold();
    void simulatedGauge_refusesNonsense();
};

void TestParts::damage_isNamedWithItsPlace_data()
{
    QTest::addColumn<Damage>("damage");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *name, Damage damage, const char *place) {
        QTest::newRow(name) << damage << QString::fromLatin1(place);
    };
    row(
        "card without stages", [](Json &j) { j["torque_cards"][0]["stages"] = Json::array(); },
        "/torque_cards/0");
    row(
        "stage of torque and angle",
        [](Json &j) { j["torque_cards"][0]["stages"][0]["angle_deg"] = 30; },
        "/torque_cards/0/stages/0");
    row(
        "bolt of no stop", [](Json &j) { j["torque_cards"][0]["fasteners"][2]["stop"] = "main_9"; },
        "/torque_cards/0/fasteners/2/stop");
    row(
        "two cards of one name", [](Json &j) { j["torque_cards"][1]["id"] = "main_caps"; },
        "/torque_cards/1/id");
    row(
        "tick of no card", [](Json &j) { j["torque_ticks"][3]["card"] = "head"; },
        "/torque_ticks/3/card");
    row(
        "tick of no bolt", [](Json &j) { j["torque_ticks"][3]["fastener"] = 40; },
        "/torque_ticks/3/fastener");
    row(
        "two ticks of one id", [](Json &j) { j["torque_ticks"][3]["id"] = "t1"; },
        "/torque_ticks/3/id");
    row(
        "shells of no family", [](Json &j) { j["shells"]["lifter"] = j["shells"]["main"]; },
        "/shells/lifter");
    row(
        "wall like a tree", [](Json &j) { j["shells"]["main"]["shells"][1]["wall_mm"] = 200; },
        "/shells/main/shells/1/wall_mm");
    row(
        "half a half", [](Json &j) { j["shells"]["main"]["shells"][1]["halves"] = 1.5; },
        "/shells/main/shells/1/halves");
    row(
        "fitted shell nobody has",
        [](Json &j) { j["shells"]["main"]["fitted"]["main_1"]["upper"] = "gold"; },
        "/shells/main/fitted/main_1");
    row(
        "undersize below nothing", [](Json &j) { j["shells"]["main"]["undersizes_mm"][0] = -1; },
        "/shells/main/undersizes_mm");
    row(
        "weightless rod", [](Json &j) { j["weighings"][0]["grams"] = 0; }, "/weighings/0/grams");
    row(
        "weight as text", [](Json &j) { j["weighings"][0]["grams"] = "612 g"; },
        "/weighings/0/grams");
    row(
        "tolerance of nothing", [](Json &j) { j["weighed_parts"]["rod"]["tolerance_g"] = 0; },
        "/weighed_parts/rod/tolerance_g");
    row(
        "limits of nothing gauged", [](Json &j) { j["limits"]["piston"] = j["limits"]["main"]; },
        "/limits/piston");
    row(
        "number of another kind of stop",
        [](Json &j) { j["engine"]["stops"][stopAt(j, "filter")]["values"]["lobes"] = 4; },
        "/engine/stops/3/values/lobes");
    row(
        "number as text",
        [](Json &j) { j["engine"]["stops"][stopAt(j, "pump")]["values"]["lobes"] = "four"; },
        "/engine/stops/1/values/lobes");
    row(
        "reading of no method", [](Json &j) { j["readings"][0]["method"] = "guess"; },
        "/readings/0/method");
    row(
        "repeats as one number", [](Json &j) { j["readings"][0]["repeats_um"] = 48; },
        "/readings/0/repeats_um");
    row(
        "bore of a tunnel", [](Json &j) { j["readings"][0]["bore_mm"] = 6000; },
        "/readings/0/bore_mm");
}

void TestParts::damage_isNamedWithItsPlace()
{
    QFETCH(Damage, damage);
    QFETCH(QString, place);
    Json j = demoJson();
    QVERIFY(parseBuild(j.dump()));
    damage(j);
    const auto loaded = parseBuild(j.dump());
    QVERIFY(!loaded);
    QStringList places;
    for (const Error &e : loaded.error().errors) {
        places << QString::fromStdString(e.place);
        QVERIFY(!e.message.empty());
    }
    QVERIFY2(places.contains(place), qPrintable(places.join(u' ')));
}

void TestParts::stopNumbers_keepTheirRange_data()
{
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QString>("key");
    for (const NumberKey &k : stopKeys())
        QTest::addRow("%s %s", std::string(k.group).c_str(), std::string(k.key).c_str())
            << QString::fromUtf8(k.group.data(), static_cast<qsizetype>(k.group.size()))
            << QString::fromUtf8(k.key.data(), static_cast<qsizetype>(k.key.size()));
}

void TestParts::stopNumbers_keepTheirRange()
{
    QFETCH(QString, kind);
    QFETCH(QString, key);
    const NumberKey &k
        = *findStopKey(fromWord<StopKind>(kind.toStdString()).value(), key.toStdString());
    Build b = k.group == "scavenge" || k.group == "tank" ? loadTemplate("v8-dry-sump")->build
                                                         : demoBuild();
    b.readings.clear(); // readings of a third lifter keep a count from falling to two
    const Stop *stop = b.engine.ofKind(fromWord<StopKind>(k.group).value());
    QVERIFY(stop);
    const auto set = [&](double v) {
        return applyEdit(b, SetStopValue { stop->id, key.toStdString(), v }).has_value();
    };
    QVERIFY(!set(k.most * 1.01 + 0.01));
    QVERIFY(!set(k.least - 0.01));
    QCOMPARE(set(k.least), !k.aboveLeast);
    QVERIFY(!set(std::nan("")));
    QVERIFY(!applyEdit(b, SetStopValue { stop->id, "colour", 1 }));
    QVERIFY(!applyEdit(b, SetStopValue { "nowhere", key.toStdString(), 1 }));
}

void TestParts::versionTwo_keepsItsReadings()
{
    Json old = demoJson();
    old["version"] = 2;
    for (const char *key :
         { "torque_cards", "torque_ticks", "shells", "weighings", "weighed_parts", "choices" })
        old.erase(key);
    Json kept = Json::array();
    for (Json &r : old["readings"]) {
        if (r["family"] != "main" && r["family"] != "big_end")
            continue;
        if (r["method"] != "zeroed_bore_gauge")
            continue;
        for (const char *key : { "family", "item", "cap_torqued", "shells" })
            r.erase(key);
        kept.push_back(r);
    }
    old["readings"] = kept;
    const auto loaded = parseBuild(old.dump());
    QVERIFY2(loaded, loaded ? "" : said(loaded.error().errors.front().message).c_str());
    QCOMPARE(loaded->fileVersion, 2);
    const auto then = assess(loaded->build), now = assess(demoBuild());
    for (int main = 1; main <= 5; ++main) {
        const std::string id = "main_" + std::to_string(main);
        QCOMPARE(then.size(id)->cold_um.value, now.size(id)->cold_um.value);
        QCOMPARE(markWord(then.size(id)->mark), markWord(now.size(id)->mark));
    }
}

void TestParts::everyFamily_isInTheSchema()
{
    const Json schema = parseJson(readTextFile(std::string(testDataFolder)
                                               + "/../../docs/format/mild-path-build.schema.json")
                                      .value())
                            .value();
    const Json &reading = schema["properties"]["readings"]["items"]["properties"];
    const auto has = [](const Json &list, std::string_view word) {
        return std::find(list.begin(), list.end(), word) != list.end();
    };
    for (const Family &f : families())
        QVERIFY2(has(reading["family"]["enum"], f.id), std::string(f.id).c_str());
    for (const Method &m : methods())
        QVERIFY2(has(reading["method"]["enum"], m.id), std::string(m.id).c_str());
    for (const DropFeel &f : dropFeels())
        QVERIFY(has(reading["feel"]["enum"], f.id));
    QCOMPARE(schema["properties"]["version"]["const"].get<int>(), buildVersion);
}

void TestParts::everyCheck_belongsToAKindOfStop()
{
    QSet<QString> ids;
    for (const TickKind &c : tickKinds()) {
        QVERIFY(c.aspect == "size" || c.aspect == "clean" || c.aspect == "flow");
        QVERIFY(c.reason.size() > 10); // ticked with the reason
        const QString id = QString::fromUtf8(c.id.data(), static_cast<qsizetype>(c.id.size()));
        QVERIFY(!ids.contains(id));
        ids << id;
        QCOMPARE(findTickKind(c.id), &c);
    }
}

void TestParts::methods_standInOrderOfStrength()
{
    // Zeroed gauge over two instruments over blade over strip over feel: common practice, no
    // source.
    int last = 99;
    for (const char *id :
         { "zeroed_bore_gauge", "two_instruments", "feeler", "plastic_strip", "drop_feel" }) {
        QVERIFY(findMethod(id)->strength < last);
        last = findMethod(id)->strength;
    }
    for (const Family &f : families())
        for (const std::string_view m : f.methods)
            QVERIFY(findMethod(m));
    QVERIFY(!findMethod("guess") && !findFamily("pistons") && !findDropFeel("floats"));
}

void TestParts::plan_asksEveryPlaceOnce()
{
    const Build b = demoBuild();
    for (const SizeItem &item : sizeItems(b)) {
        std::set<std::pair<int, double>> places;
        for (const ReadingPosition &p : readingPlan(*item.family, *item.stop)) {
            QVERIFY(places.emplace(p.station, p.angle_deg).second);
            QVERIFY(!p.name.empty());
        }
        QVERIFY(!places.empty());
    }
    Stop pump;
    pump.values["lobes"] = 6;
    QCOMPARE(readingPlan(*findFamily("pump_tip"), pump).size(), 6u);
}

void TestParts::secondAnswer_stands()
{
    Build b = demoBuild();
    for (const char *answer : { "yes", "no" }) {
        Choice c;
        c.question = "strip_counts";
        c.answer = answer;
        b = applyEdit(b, Choose { c }).value();
    }
    QCOMPARE(b.choices.size(), 2u);
    QCOMPARE(choiceOf(b, "strip_counts"), std::string("no"));
    QCOMPARE(choiceOf(b, "other"), std::string());
}

void TestParts::simulatedGauge_playsWhatItIsTold_data()
{
    QTest::addColumn<QString>("unit");
    QTest::addColumn<QByteArray>("line");
    QTest::newRow("millimetres") << QStringLiteral("mm") << QByteArray("+0.0480 mm\r\n");
    QTest::newRow("micrometres") << QStringLiteral("um") << QByteArray("+48.0 um\r\n");
    QTest::newRow("inch") << QStringLiteral("in") << QByteArray("+0.001890 in\r\n");
    QTest::newRow("thou") << QStringLiteral("thou") << QByteArray("+1.890 thou\r\n");
}

void TestParts::simulatedGauge_playsWhatItIsTold()
{
    QFETCH(QString, unit);
    QFETCH(QByteArray, line);
    QProcess sim;
    sim.start(QString::fromUtf8(gaugeSimProgram),
              { QStringLiteral("--plan"), QStringLiteral("48"), QStringLiteral("--noise"),
                QStringLiteral("0"), QStringLiteral("--rate"), QStringLiteral("200"),
                QStringLiteral("--rest"), QStringLiteral("0.2"), QStringLiteral("--unit"), unit,
                QStringLiteral("--wait") });
    QVERIFY(sim.waitForReadyRead(5000));
    // Never a blocking read: a silent gauge must fail the test, not hold it.
    const QByteArray path = sim.readLine().trimmed();
    const int port = open(path.constData(), O_RDONLY | O_NOCTTY | O_NONBLOCK);
    QVERIFY2(port >= 0, path.constData());
    sim.write("go\n");
    QVERIFY(sim.waitForBytesWritten(1000));
    QByteArray heard;
    for (int i = 0; i < 300 && heard.count(line) < 10; ++i) {
        char part[256];
        if (const auto n = read(port, part, sizeof part); n > 0)
            heard.append(part, static_cast<qsizetype>(n));
        QTest::qWait(10);
    }
    close(port);
    QVERIFY2(heard.count(line) >= 10, heard.constData());
    sim.kill();
    sim.waitForFinished(5000);
}

void TestParts::simulatedGauge_refusesNonsense()
{
    const QStringList wrong[] = { {},
                                  { QStringLiteral("--plan"), QStringLiteral("48,many") },
                                  { QStringLiteral("--plan"), QStringLiteral("48"),
                                    QStringLiteral("--unit"), QStringLiteral("ell") },
                                  { QStringLiteral("--plan"), QStringLiteral("48"),
                                    QStringLiteral("--rate"), QStringLiteral("0") },
                                  { QStringLiteral("--plan") } };
    for (const QStringList &arguments : wrong) {
        QProcess sim;
        sim.start(QString::fromUtf8(gaugeSimProgram), arguments);
        QVERIFY(sim.waitForFinished(5000));
        QCOMPARE(sim.exitCode(), 2);
        QVERIFY(sim.readAllStandardError().contains("--plan"));
    }
}

} // namespace tst_parts

MILDPATH_TEST(tst_parts, TestParts)
#include "tst_parts.moc"
