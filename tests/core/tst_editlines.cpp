// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"
#include "document/logbook.h"
#include "sample.h"

#include <set>

using namespace mildpath;

namespace tst_editlines {

/// Edits as lines of the journal: written, read, damaged.
class TestEditLines : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void everyKind_hasAWordOfItsOwn();
    void everyEdit_isALineOfTheJournal_data();
    void everyEdit_isALineOfTheJournal();
    void damagedLines_areRefusedWithTheirPlace_data();
    void damagedLines_areRefusedWithTheirPlace();
    void shellEdits_keepTheFormOfTheirLines_data();
    void shellEdits_keepTheFormOfTheirLines();
};

void TestEditLines::everyKind_hasAWordOfItsOwn()
{
    std::set<std::string_view> words;
    for (const EditKind *kind : editKinds()) {
        QVERIFY2(words.insert(kind->record->name).second, std::string(kind->record->name).c_str());
        const auto fresh = kind->make();
        QVERIFY(kind->same(fresh.get(), kind->make().get()));
        const Edit edit(*kind, fresh);
        QCOMPARE(editToJson(edit)["edit"].get<std::string>(), std::string(kind->record->name));
        QVERIFY(edit == Edit(*kind, kind->make()));
    }
    QVERIFY(!(Edit(Rename { "a" }) == Edit(Rename { "b" })));
    QVERIFY(!(Edit(Rename { "a" }) == Edit(DropOil { "a" })));
}

void TestEditLines::everyEdit_isALineOfTheJournal_data()
{
    QTest::addColumn<QString>("line");
    const auto usual = [](const RecordType &type) {
        return std::none_of(type.fields.begin(), type.fields.end(),
                            [](const Field &f) { return f.shape == MemberShape::Custom; })
            && type.name != "add_entry";
    };
    // Edits that are plain records, as lines filled by chance.
    for (const EditKind *kind : editKinds()) {
        const RecordType &type = *kind->record;
        if (!usual(type))
            continue;
        Json line = Json::object();
        line["edit"] = type.name;
        line.update(Sample(9).of(type));
        QTest::newRow(std::string(type.name).c_str()) << QString::fromStdString(line.dump());
    }
    forEachLog([](const auto &log) {
        using Entry = typename std::decay_t<decltype(log)>::Entry;
        Json object = Sample(10).of(recordType<Entry>());
        Entry entry {};
        std::vector<Error> errors;
        readRecord(recordType<Entry>(), &entry, object, "", errors);
        dropUnwritten(recordType<Entry>(), &entry, object);
        const Json line { { "edit", "add_entry" }, { "log", log.key }, { "entry", object } };
        QTest::newRow(std::string(log.key).c_str()) << QString::fromStdString(line.dump());
    });
}

void TestEditLines::everyEdit_isALineOfTheJournal()
{
    QFETCH(QString, line);
    const Json json = *parseJson(line.toStdString());
    const auto edit = editFromJson(json);
    QVERIFY2(edit, edit ? "" : (edit.error().place + ": " + said(edit.error().message)).c_str());
    const Json written = editToJson(*edit);
    const auto again = editFromJson(written);
    QVERIFY(again);
    QVERIFY(*again == *edit);
    QCOMPARE(QString::fromStdString(written["edit"].get<std::string>()),
             QString::fromStdString(json["edit"].get<std::string>()));
    // Alone and as one of several it is the same edit.
    const EditAll all { "both", { *edit, *edit } };
    const auto both = editFromJson(editToJson(all));
    QVERIFY(both);
    QVERIFY(*both == Edit(all));
}

void TestEditLines::damagedLines_areRefusedWithTheirPlace_data()
{
    QTest::addColumn<QString>("line");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *name, const char *line, const char *place) {
        QTest::newRow(name) << QString::fromUtf8(line) << QString::fromLatin1(place);
    };
    row("no word", R"({"key": "rpm"})", "/edit");
    row("a word that is none", R"({"edit": "paint"})", "/edit");
    row("a word that is a number", R"({"edit": 3})", "/edit");
    row("use without a value", R"({"edit": "use", "key": "hot_oil_c"})", "/value");
    row("use with a text", R"({"edit": "use", "key": "hot_oil_c", "value": "hot"})", "/value");
    row("reading without its record", R"({"edit": "reading"})", "/reading/id");
    row("second reading damaged",
        R"({"edit": "readings", "readings": [{"id": "r1", "stop": "a"}, {"id": "r2"}]})",
        "/readings/1/stop");
    row("entry of no list", R"({"edit": "add_entry", "log": "gossip", "entry": {}})", "/log");
    row("entry without its stop",
        R"({"edit": "add_entry", "log": "signs", "entry": {"id": "s1", "sign": "x"}})",
        "/entry/stop");
    row("second edit of several",
        R"({"edit": "all", "name": "n", "edits": [{"edit": "draw_lines"}, {"edit": "use"}]})",
        "/edits/1/key");
    row("several within several",
        R"({"edit": "all", "name": "n", "edits": [{"edit": "all", "name": "m", "edits": []}]})",
        "/edits/0");
    row("shells of nothing",
        R"({"edit": "fit_shells", "family": "main", "stop": "a", "stock": {}})", "/stock");
    row("row of shells of nothing", R"({"edit": "shell_row", "family": "main", "stock": {}})",
        "/stock");
    row("class of nothing", R"({"edit": "size_class", "family": "main", "stock": {}})", "/stock");
    row("passage with one end",
        R"({"edit": "passage", "passage": {"id": "p", "part": "b", "d_mm": 1, "l_mm": 1,
            "ends": []}})",
        "/passage/ends");
    row("pan with a broken corner", R"({"edit": "pan", "along_mm": [[1]]})", "/along_mm/0");
    row("limit without its family", R"({"edit": "limit", "key": "min_um", "value": 1})", "/kind");
    row("point of a block without a stop", R"({"edit": "heat_point", "point": {"id": "t1"}})",
        "/point/stop");
    row("expansion without its number",
        R"({"edit": "expansion", "material": "steel", "expansion": {}})", "/expansion/per_k");
    row("tick without its card",
        R"({"edit": "tick", "tick": {"id": "t", "fastener": 1, "stage": 1}})", "/tick/card");
}

void TestEditLines::damagedLines_areRefusedWithTheirPlace()
{
    QFETCH(QString, line);
    QFETCH(QString, place);
    const auto edit = editFromJson(*parseJson(line.toStdString()));
    QVERIFY(!edit);
    QCOMPARE(QString::fromStdString(edit.error().place), place);
}

void TestEditLines::shellEdits_keepTheFormOfTheirLines_data()
{
    QTest::addColumn<QString>("line");
    const auto row = [](const char *name, const char *line) {
        QTest::newRow(name) << QString::fromUtf8(line);
    };
    row("fitted", R"({"edit": "fit_shells", "family": "main", "stop": "main_2",
         "stock": {"fitted": {"main_2": {"upper": "green", "lower": "brown"}}}})");
    row("a row", R"({"edit": "shell_row", "family": "main",
         "stock": {"shells": [{"name": "green", "wall_mm": 1.992, "halves": 4}]}})");
    row("a class of journals", R"({"edit": "size_class", "family": "main",
         "stock": {"journal_classes": [{"name": "A", "least_mm": 54.98, "most_mm": 54.984}]}})");
    row("a class of housings", R"({"edit": "size_class", "family": "main",
         "stock": {"housing_classes": [{"name": "2", "least_mm": 59, "most_mm": 59.006}]}})");
}

void TestEditLines::shellEdits_keepTheFormOfTheirLines()
{
    QFETCH(QString, line);
    const Json json = *parseJson(line.toStdString());
    const auto edit = editFromJson(json);
    QVERIFY(edit);
    const Json written = editToJson(*edit);
    // Every key of the line is in what is written, with its value; the stock has more, empty ones.
    for (const auto &[key, value] : json.items()) {
        if (key != "stock") {
            QVERIFY(written[key] == value);
            continue;
        }
        for (const auto &[part, rows] : value.items())
            QVERIFY2(written["stock"][part] == rows, written.dump().c_str());
    }
    QVERIFY(*editFromJson(written) == *edit);
}

} // namespace tst_editlines

MILDPATH_TEST(tst_editlines, TestEditLines)
#include "tst_editlines.moc"
