// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"
#include "document/engineplan.h"
#include "document/logbook.h"
#include "quantity/json.h"
#include "sample.h"

#include <functional>

// What holds for every record however it is described: each of them is filled by chance from its
// own description, written, read and damaged. Nothing here knows what a record is for.

using namespace mildpath;

namespace tst_records {

/// A kind of record, and one of it to work on.
struct Kind
{
    const RecordType *type;
    std::function<std::shared_ptr<void>()> make;
};

template <class T> Kind kindOf()
{
    return { &recordType<T>(),
             [] { return std::static_pointer_cast<void>(std::make_shared<T>()); } };
}

std::vector<Kind> logKinds()
{
    std::vector<Kind> out;
    forEachLog([&]<class L>(const L &) { out.push_back(kindOf<typename L::Entry>()); });
    return out;
}

/// Every kind that a file holds, the logbook's included.
const std::vector<Kind> &fileKinds()
{
    static const std::vector<Kind> all = [] {
        std::vector<Kind> out {
            kindOf<Stop>(),         kindOf<Engine>(),     kindOf<Use>(),
            kindOf<Limits>(),       kindOf<ChosenOil>(),  kindOf<Reading>(),
            kindOf<Proof>(),        kindOf<TorqueCard>(), kindOf<TorqueTick>(),
            kindOf<ShellStock>(),   kindOf<Weighing>(),   kindOf<Choice>(),
            kindOf<Heat>(),         kindOf<HeatPoint>(),  kindOf<OwnExpansion>(),
            kindOf<Passage>(),      kindOf<Plug>(),       kindOf<ExternalLine>(),
            kindOf<Plumbing>(),     kindOf<Sump>(),       kindOf<Start>(),
            kindOf<ValueSection>(), kindOf<EnginePlan>(),
        };
        for (const Kind &k : logKinds())
            out.push_back(k);
        return out;
    }();
    return all;
}

class TestRecords : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyMember_isWrittenAsItWasRead_data();
    void kinds_haveOneWordEach();
    void unknownKind_isRefusedWithItsPlace();
    void everyMember_isWrittenAsItWasRead();
    void aNewRecord_leavesOutWhatSaysNothing_data() { kinds(); }
    void aNewRecord_leavesOutWhatSaysNothing();
    void whatMustBeThere_isMissedByItsPlace_data() { kinds(); }
    void whatMustBeThere_isMissedByItsPlace();
    void theWrongKind_isNamedByItsPlace_data() { kinds(); }
    void theWrongKind_isNamedByItsPlace();
    void unknownKeys_areKeptOrRefused_data() { kinds(); }
    void unknownKeys_areKeptOrRefused();
    void numbersPastTheirRange_areNamed_data() { kinds(); }
    void numbersPastTheirRange_areNamed();
    void everyMember_saysWhatItMeans_data() { kinds(); }
    void everyMember_saysWhatItMeans();
    void keys_areUniqueAndUnitSuffixed_data() { kinds(); }
    void keys_areUniqueAndUnitSuffixed();
    void rows_tellWhichOneIsWrong_data();
    void rows_tellWhichOneIsWrong();
    void notAnObject_isNamed_data() { kinds(); }
    void notAnObject_isNamed();

private:
    void kinds()
    {
        QTest::addColumn<int>("kind");
        for (size_t i = 0; i < fileKinds().size(); ++i)
            QTest::newRow(std::string(fileKinds()[i].type->name).c_str()) << static_cast<int>(i);
    }
    static const Kind &kindHere()
    {
        QFETCH(int, kind);
        return fileKinds()[static_cast<size_t>(kind)];
    }
};

void TestRecords::everyMember_isWrittenAsItWasRead_data()
{
    QTest::addColumn<int>("kind");
    QTest::addColumn<unsigned>("seed");
    for (size_t i = 0; i < fileKinds().size(); ++i)
        for (const unsigned seed : { 1U, 2U, 3U, 4U })
            QTest::addRow("%s, %u", std::string(fileKinds()[i].type->name).c_str(), seed)
                << static_cast<int>(i) << seed;
}

void TestRecords::everyMember_isWrittenAsItWasRead()
{
    QFETCH(unsigned, seed);
    const Kind &k = kindHere();
    Json object = Sample(seed).of(*k.type);
    // Members that go with one kind only are tried with each.
    if (k.type == &recordType<SealCheck>() && seed % 2)
        object["kind"] = "vacuum";
    if (k.type == &recordType<OilSample>() && seed % 2)
        object["of"] = "used";
    const auto record = k.make();
    std::vector<Error> errors;
    readRecord(*k.type, record.get(), object, "/here", errors);
    // A whole object of a kind that takes only some of its members names the others or keeps them.
    QVERIFY2(errors.empty(), errors.empty() ? "" : errors.front().place.c_str());
    dropUnwritten(*k.type, record.get(), object);
    const auto clean = k.make();
    readRecord(*k.type, clean.get(), object, "/here", errors);
    QVERIFY(errors.empty());
    const Json written = writeRecord(*k.type, clean.get());
    QCOMPARE(QString::fromStdString(written.dump(1)), QString::fromStdString(object.dump(1)));
    // Once more: what was written reads as the same record.
    const auto again = k.make();
    readRecord(*k.type, again.get(), written, "/here", errors);
    QVERIFY(errors.empty());
    for (const Field &f : k.type->fields)
        if (f.same)
            QVERIFY2(f.same(clean.get(), again.get()), std::string(f.key).c_str());
}

void TestRecords::aNewRecord_leavesOutWhatSaysNothing()
{
    const Kind &k = kindHere();
    const QStringList keys = keysWritten(*k.type, k.make().get());
    for (const Field &f : k.type->fields) {
        const QString key = QString::fromUtf8(f.key.data(), static_cast<int>(f.key.size()));
        if (f.onlyIfSet)
            QVERIFY2(!keys.contains(key), qPrintable(key));
        else if (!f.when)
            QVERIFY2(keys.contains(key), qPrintable(key));
    }
}

void TestRecords::whatMustBeThere_isMissedByItsPlace()
{
    const Kind &k = kindHere();
    const Json whole = Sample(5).of(*k.type);
    for (const Field &f : k.type->fields) {
        if (!f.required)
            continue;
        Json object = whole;
        object.erase(std::string(f.key));
        const auto record = k.make();
        std::vector<Error> errors;
        readRecord(*k.type, record.get(), object, "/here", errors);
        if (f.when && !f.when(record.get())) // not asked for
            continue;
        QVERIFY2(hasPlace(errors, "/here/" + std::string(f.key))
                     || f.shape == MemberShape::Record, // its own members are missed
                 std::string(f.key).c_str());
        QVERIFY(!errors.empty());
    }
}

void TestRecords::theWrongKind_isNamedByItsPlace()
{
    const Kind &k = kindHere();
    for (const Field &f : k.type->fields) {
        if (f.shape == MemberShape::Custom)
            continue;
        Json object = Sample(6).of(*k.type);
        const bool isList = f.shape == MemberShape::Numbers || f.shape == MemberShape::Texts
            || f.shape == MemberShape::Records;
        // A list where there is none, and a truth where there is one.
        object[std::string(f.key)] = isList ? Json(true) : Json::array({ 1, 2 });
        const auto record = k.make();
        std::vector<Error> errors;
        readRecord(*k.type, record.get(), object, "/here", errors);
        if (f.when && !f.when(record.get()))
            continue;
        const std::string place = "/here/" + std::string(f.key);
        const bool named = std::any_of(errors.begin(), errors.end(), [&](const Error &e) {
            return e.place.starts_with(place) && said(e.message).find("must") != std::string::npos;
        });
        QVERIFY2(named || (f.entries && f.entries->fixed && hasPlace(errors, place)),
                 place.c_str());
    }
}

void TestRecords::unknownKeys_areKeptOrRefused()
{
    const Kind &k = kindHere();
    Json object = Sample(7).of(*k.type);
    object["from_a_newer_version"] = { { "deep", 1 } };
    const auto record = k.make();
    std::vector<Error> errors;
    readRecord(*k.type, record.get(), object, "/here", errors);
    if (k.type->extra) {
        QVERIFY(errors.empty());
        const Json written = writeRecord(*k.type, record.get());
        QVERIFY(written.contains("from_a_newer_version"));
        QCOMPARE(written["from_a_newer_version"]["deep"].get<int>(), 1);
    } else {
        QVERIFY2(k.type->strict, "neither keeps nor refuses what it does not know");
        QVERIFY(hasPlace(errors, "/here/from_a_newer_version"));
    }
}

void TestRecords::numbersPastTheirRange_areNamed()
{
    const Kind &k = kindHere();
    for (const Field &f : k.type->fields) {
        if (!f.isRanged() || f.shape != MemberShape::Number)
            continue;
        const double step = std::max(1e-3, (f.most - f.least) * 1e-3);
        const std::pair<double, bool> tries[] = { { f.least, !f.aboveLeast },
                                                  { f.most, true },
                                                  { f.least - step, false },
                                                  { f.most + step, false },
                                                  { std::nan(""), false } };
        for (const auto &[value, allowed] : tries) {
            const auto record = k.make();
            std::vector<Error> errors;
            readRecord(*k.type, record.get(), Sample(8).of(*k.type), "", errors);
            errors.clear();
            if (f.when && !f.when(record.get()))
                continue;
            f.setNumber(record.get(), value);
            checkRanges(*k.type, record.get(), "/here", errors);
            const std::string place = "/here/" + std::string(f.key);
            QVERIFY2(hasPlace(errors, place) != allowed, place.c_str());
            // In the unit people read: "7 bar" where a file has kPa.
            const std::string unit
                = said(asPhrase(ofFileUnit(7, f.unit))).substr(said(asPhrase(asCount(7))).size());
            for (const Error &e : errors)
                if (e.place == place)
                    QVERIFY2(said(e.message).ends_with(unit.substr(unit.rfind(' ') + 1)),
                             said(e.message).c_str());
        }
    }
}

void TestRecords::everyMember_saysWhatItMeans()
{
    for (const Field &f : kindHere().type->fields) {
        QVERIFY2(!f.meaning.empty(), std::string(f.key).c_str());
        QVERIFY2(f.meaning.back() != '.', std::string(f.key).c_str());
    }
}

void TestRecords::keys_areUniqueAndUnitSuffixed()
{
    const RecordType &type = *kindHere().type;
    const std::map<std::string_view, QString> suffixes {
        { "mm", QStringLiteral("_mm") },       { "µm", QStringLiteral("_um") },
        { "kPa", QStringLiteral("kpa") },      { "°C", QStringLiteral("_c") },
        { "s", QStringLiteral("_s") },         { "g", QStringLiteral("_g") },
        { "rev/min", QStringLiteral("rpm") },  { "mm²/s", QStringLiteral("_mm2_s") },
        { "mPa·s", QStringLiteral("_mpa_s") }, { "kg/m³", QStringLiteral("_kg_m3") },
        { "l/min", QStringLiteral("_l_min") }, { "h", QStringLiteral("_h") },
        { "cm²", QStringLiteral("_cm2") },     { "K", QStringLiteral("_k") },
        { "mg/kg", QStringLiteral("_mg_kg") }, { "kg", QStringLiteral("_kg") },
        { "%", QStringLiteral("_percent") },   { "1/K", QStringLiteral("per_k") },
        { "Nm", QStringLiteral("_nm") },       { "l", QStringLiteral("_l") },
    };
    // Older than the rule, and part of published files.
    const QStringList older { QStringLiteral("grams"), QStringLiteral("litres"),
                              QStringLiteral("rule_rise_kpa_per_krpm") };
    for (const Field &f : type.fields) {
        const QString key = QString::fromUtf8(f.key.data(), static_cast<int>(f.key.size()));
        const auto same = std::count_if(type.fields.begin(), type.fields.end(),
                                        [&](const Field &o) { return o.key == f.key; });
        QVERIFY2(same == 1 || f.when, qPrintable(key));
        const auto suffix = suffixes.find(f.unit);
        if (suffix != suffixes.end() && !older.contains(key))
            QVERIFY2(key.endsWith(suffix->second), qPrintable(key));
    }
}

void TestRecords::rows_tellWhichOneIsWrong_data()
{
    QTest::addColumn<QString>("record");
    QTest::addColumn<QString>("json");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("says");
    const auto row = [](const char *name, const char *record, const char *json, const char *place,
                        const char *says) {
        QTest::newRow(name) << QString::fromLatin1(record) << QString::fromUtf8(json)
                            << QString::fromLatin1(place) << QString::fromUtf8(says);
    };
    row("corner of one number", "sump", R"({"along_mm": [[0, 0], [5]]})", "/along_mm/1",
        "must be a pair of numbers");
    row("corner of three", "sump", R"({"across_mm": [[0, 0, 0]]})", "/across_mm/0",
        "must be a pair of numbers");
    row("corner with a word", "sump", R"({"along_mm": [[0, "x"]]})", "/along_mm/0",
        "must be a pair of numbers");
    row("fill without its litres", "sump", R"({"bench_fill": [[10, null]]})", "/bench_fill/0",
        "must be a height in mm and litres");
    row("trace without a time", "run_log",
        R"({"id": "l1", "kind": "start", "tap": "t", "trace": [[null, 1, 2, 3]]})", "/trace/0",
        "must be seconds, kPa, rev/min and °C, null for what was not said");
    row("trace too short", "run_log",
        R"({"id": "l1", "kind": "start", "tap": "t", "trace": [[0, 1, 2, 3], [1, 2]]})", "/trace/1",
        "must be seconds, kPa, rev/min and °C, null for what was not said");
    row("passage with one end", "passage",
        R"({"id": "p", "part": "block", "d_mm": 8, "l_mm": 90, "ends": [{"kind": "hole"}]})",
        "/ends", "a passage has two ends");
    row("capped port that is no name", "plumbing",
        R"({"capped": [{"port": "pan.a"}, {"by": "x"}]})", "/capped/1/port", "is missing");
    row("photo that is no name", "sign", R"({"id": "s1", "stop": "a", "sign": "b", "photos": [1]})",
        "/photos/0", "must be a file name");
    row("element that is no id", "stop", R"({"id": "s", "kind": "pump", "elements": [{}]})",
        "/elements/0", "must be an element's id");
    row("spot that is no number", "heat_point",
        R"({"id": "t1", "stop": "m", "spots_c": [20, "x"]})", "/spots_c/1", "must be a number");
    row("height that is no number", "bore_trace",
        R"({"id": "z1", "spacing_um": 1, "z_um": "1 2 x"})", "/z_um", "height 3 is no number");
    row("height past all sense", "bore_trace",
        R"({"id": "z1", "spacing_um": 1, "z_um": "1 2000000"})", "/z_um", "height 2 is no number");
    row("fault with an unknown key", "scenario",
        R"({"id": "c1", "name": "n", "faults": [{"kind": "k", "stop": "s", "size": 1}]})",
        "/faults/0/size", "is not known");
    row("value of a section that is text", "section", R"({"values": {"fill_l": "much"}})",
        "/values/fill_l", "must be a number");
    row("item that is half", "weighing", R"({"id": "w", "part": "rod", "item": 1.5, "grams": 500})",
        "/item", "must be a whole number");
}

void TestRecords::rows_tellWhichOneIsWrong()
{
    QFETCH(QString, record);
    QFETCH(QString, json);
    QFETCH(QString, place);
    QFETCH(QString, says);
    const auto kind = std::find_if(fileKinds().begin(), fileKinds().end(), [&](const Kind &k) {
        return k.type->name == record.toStdString();
    });
    QVERIFY(kind != fileKinds().end());
    std::vector<Error> errors;
    readRecord(*kind->type, kind->make().get(), *parseJson(json.toStdString()), "", errors);
    QCOMPARE(errors.size(), size_t(1));
    QCOMPARE(QString::fromStdString(errors.front().place), place);
    QVERIFY2(QString::fromStdString(said(errors.front().message)).startsWith(says),
             said(errors.front().message).c_str());
}

void TestRecords::notAnObject_isNamed()
{
    const Kind &k = kindHere();
    for (const char *text : { "[]", "3", "\"word\"", "true" }) {
        std::vector<Error> errors;
        readRecord(*k.type, k.make().get(), *parseJson(text), "/here", errors);
        QVERIFY(hasPlace(errors, "/here"));
        QVERIFY(said(errors.front().message).starts_with("must be an object"));
    }
}

void TestRecords::kinds_haveOneWordEach()
{
    const auto words = enumWords<StopKind>();
    QCOMPARE(everyKind<StopKind>().size(), words.size());
    for (size_t i = 0; i < words.size(); ++i) {
        const StopKind kind = everyKind<StopKind>()[i];
        QCOMPARE(fromWord<StopKind>(wordOf(kind)), std::optional(kind));
        QVERIFY(!aboutStopKind(kind).plural.empty());
        for (size_t k = 0; k < i; ++k)
            QVERIFY(words[i] != words[k]);
    }
    QCOMPARE(wordOf(StopKind::BigEnd), std::string_view("big_end"));
    // The table beside the words stands in the same order.
    QCOMPARE(aboutStopKind(StopKind::Tank).plural, std::string_view("Oil tank"));
    QCOMPARE(aboutStopKind(StopKind::BigEnd).plural, std::string_view("Big-end bearings"));
    QCOMPARE(aboutStopKind(StopKind::BigEnd).level, 2);
    QCOMPARE(aboutStopKind(StopKind::Plug).plural, std::string_view("Plugs"));
    QVERIFY(!fromWord<StopKind>("teapot"));
    QVERIFY(!fromWord<StopKind>(""));
}

void TestRecords::unknownKind_isRefusedWithItsPlace()
{
    for (const Json &kind : { Json("teapot"), Json(), Json(3) }) {
        const Json json { { "id", "x" }, { "kind", kind } };
        std::vector<Error> errors;
        fromJson<Stop>(json, "/engine/stops/4", errors);
        QCOMPARE(errors.size(), size_t(1));
        QCOMPARE(errors[0].place, std::string("/engine/stops/4/kind"));
    }
    std::vector<Error> none;
    const Stop lifter = fromJson<Stop>(Json { { "id", "x" }, { "kind", "lifter" } }, "", none);
    QCOMPARE(lifter.kind, StopKind::Lifter);
    QCOMPARE(toJson(lifter)["kind"], Json("lifter"));
}

} // namespace tst_records

MILDPATH_TEST(tst_records, TestRecords)
#include "tst_records.moc"
