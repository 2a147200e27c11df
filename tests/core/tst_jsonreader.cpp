// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/json.h"
#include "quantity/jsonreader.h"
#include "testing.h"

#include <QTemporaryDir>

using namespace mildpath;

namespace tst_jsonreader {

class TestJsonReader : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void wrongTypes_areCollectedWithTheirPlace();
    void absentAndNull_giveTheFallback();
    void leftOver_isWhatNobodyRead();
    void parseErrors_tellLineAndColumn_data();
    void parseErrors_tellLineAndColumn();
    void keyOrder_isKept();
    void writtenFile_replacesWhole();
    void writtenFile_keepsNothingBehind();
    void largeOrMissingFile_isRefused();
};

void TestJsonReader::wrongTypes_areCollectedWithTheirPlace()
{
    const Json json = *parseJson(R"({"n":"x","t":5,"b":1,"a":{},"o":[],"i":2.5})");
    std::vector<Error> errors;
    JsonReader in(json, "/here", errors);
    QCOMPARE(in.number("n", 7), 7.0);
    QCOMPARE(in.text("t", "word"), std::string("word"));
    QCOMPARE(in.boolean("b", true), true);
    QVERIFY(in.array("a").empty());
    QVERIFY(in.object("o").empty());
    QCOMPARE(in.integer("i", 3), 3);
    in.number("missing");
    in.text("missing too");
    QStringList places;
    for (const Error &e : errors)
        places << QString::fromStdString(e.place);
    QCOMPARE(places,
             (QStringList {
                 QStringLiteral("/here/n"), QStringLiteral("/here/t"), QStringLiteral("/here/b"),
                 QStringLiteral("/here/a"), QStringLiteral("/here/o"), QStringLiteral("/here/i"),
                 QStringLiteral("/here/missing"), QStringLiteral("/here/missing too") }));
    std::vector<Error> notAnObject;
    JsonReader list(*parseJson("[1]"), "", notAnObject);
    QCOMPARE(notAnObject.size(), 1u);
    QCOMPARE(list.number("x", 1), 1.0);
}

void TestJsonReader::absentAndNull_giveTheFallback()
{
    const Json json = *parseJson(R"({"n":null})");
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    QCOMPARE(in.number("n", 4), 4.0);
    QCOMPARE(in.number("absent", 5), 5.0);
    QCOMPARE(in.optionalNumber("n"), std::nullopt);
    QVERIFY(errors.empty());
    QVERIFY(!in.has("n"));
}

void TestJsonReader::leftOver_isWhatNobodyRead()
{
    const Json json = *parseJson(R"({"a":1,"b":{"c":2},"d":[3]})");
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    in.number("a");
    QCOMPARE(in.leftOver().dump(), std::string(R"({"b":{"c":2},"d":[3]})"));
}

void TestJsonReader::parseErrors_tellLineAndColumn_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("says");
    QTest::newRow("empty") << QString() << QStringLiteral("line 1, column 1")
                           << QStringLiteral("empty");
    QTest::newRow("blank") << QStringLiteral(" \n ") << QStringLiteral("line 1")
                           << QStringLiteral("empty");
    QTest::newRow("third line") << QStringLiteral("{\n\"a\":1,\n\"b\" 2}")
                                << QStringLiteral("line 3, column 5") << QStringLiteral("not JSON");
    QTest::newRow("cut off") << QStringLiteral("{\n\"a\":1") << QStringLiteral("line 2")
                             << QStringLiteral("complete");
    QTest::newRow("number too large")
        << QStringLiteral("{\"a\":1e999}") << QStringLiteral("line 1, column 6")
        << QStringLiteral("larger than any");
    QTest::newRow("a key twice") << QStringLiteral("{\"a\":1,\n \"a\":2}")
                                 << QStringLiteral("line 2, column 2") << QStringLiteral("twice");
    QTest::newRow("a key twice, one level down is another")
        << QStringLiteral("{\"a\":{\"a\":1},\"b\":[{\"a\":1},{\"a\":1,\"a\":2}]}")
        << QStringLiteral("line 1, column 34") << QStringLiteral("twice");
    QTest::newRow("nested without end")
        << QString(80000, u'[') << QStringLiteral("line 1, column 65")
        << QStringLiteral("64 levels");
    QTest::newRow("after the end")
        << QStringLiteral("{} x") << QStringLiteral("line 1") << QStringLiteral("not JSON");
}

void TestJsonReader::parseErrors_tellLineAndColumn()
{
    QFETCH(QString, text);
    QFETCH(QString, place);
    QFETCH(QString, says);
    const auto json = parseJson(text.toStdString());
    QVERIFY(!json);
    QVERIFY2(QString::fromStdString(json.error().place).contains(place),
             json.error().place.c_str());
    QVERIFY2(QString::fromStdString(said(json.error().message)).contains(says),
             said(json.error().message).c_str());
}

void TestJsonReader::keyOrder_isKept()
{
    const std::string text = R"({"zebra":1,"apple":2,"mango":3})";
    QCOMPARE(parseJson(text)->dump(), text);
}

void TestJsonReader::writtenFile_replacesWhole()
{
    QTemporaryDir folder;
    const std::filesystem::path path = folder.filePath(QStringLiteral("f.txt")).toStdString();
    QVERIFY(writeTextFile(path, std::string(100000, 'x')));
    QVERIFY(writeTextFile(path, "short"));
    QCOMPARE(readTextFile(path).value(), std::string("short"));
}

void TestJsonReader::writtenFile_keepsNothingBehind()
{
    QTemporaryDir folder;
    QVERIFY(writeTextFile(folder.filePath(QStringLiteral("f.txt")).toStdString(), "x"));
    int files = 0;
    for ([[maybe_unused]] const auto &entry :
         std::filesystem::directory_iterator(folder.path().toStdString()))
        ++files;
    QCOMPARE(files, 1);
}

void TestJsonReader::largeOrMissingFile_isRefused()
{
    QTemporaryDir folder;
    const std::filesystem::path path = folder.filePath(QStringLiteral("huge")).toStdString();
    QVERIFY(writeTextFile(path, ""));
    std::filesystem::resize_file(path, 65u << 20); // sparse: takes no room
    QVERIFY(said(readTextFile(path).error().message).find("larger") != std::string::npos);
    QVERIFY(said(readTextFile("/nonexistent").error().message).find("cannot be read")
            != std::string::npos);
    QVERIFY(said(readTextFile("/tmp").error().message).find("folder") != std::string::npos);
}

} // namespace tst_jsonreader

MILDPATH_TEST(tst_jsonreader, TestJsonReader)
#include "tst_jsonreader.moc"
