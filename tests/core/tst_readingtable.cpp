// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "document/edit.h"
#include "storage/readingtable.h"
#include "testing.h"

using namespace mildpath;

namespace tst_readingtable {

class TestReadingTable : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void cells_followTheStandard_data();
    void cells_followTheStandard();
    void formulas_areDefused_data();
    void formulas_areDefused();
    void exportedReadings_comeBackTheSame();
    void columns_mayStandInAnyOrder();
    void wrongLines_areAllNamed();
    void pastedNumbers_areRead_data();
    void pastedNumbers_areRead();
};

void TestReadingTable::cells_followTheStandard_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QList<QByteArrayList>>("cells");
    // Source: RFC 4180, section 2.
    QTest::newRow("two lines") << QByteArray("a,b\r\nc,d\r\n")
                               << QList<QByteArrayList> { { "a", "b" }, { "c", "d" } };
    QTest::newRow("last line without an end")
        << QByteArray("a,b\nc,d") << QList<QByteArrayList> { { "a", "b" }, { "c", "d" } };
    QTest::newRow("quotes") << QByteArray("\"a,x\",\"b \"\"q\"\"\"\n")
                            << QList<QByteArrayList> { { "a,x", "b \"q\"" } };
    QTest::newRow("line break in quotes")
        << QByteArray("\"a\nb\",c\n") << QList<QByteArrayList> { { "a\nb", "c" } };
    QTest::newRow("empty cells") << QByteArray(",,\n") << QList<QByteArrayList> { { "", "", "" } };
}

void TestReadingTable::cells_followTheStandard()
{
    QFETCH(QByteArray, text);
    QFETCH(QList<QByteArrayList>, cells);
    const auto rows = cellsOf(text.toStdString(), ',');
    QVERIFY(rows);
    QCOMPARE(static_cast<qsizetype>(rows->size()), cells.size());
    for (qsizetype r = 0; r < cells.size(); ++r) {
        QByteArrayList got;
        for (const std::string &c : (*rows)[static_cast<size_t>(r)])
            got << QByteArray::fromStdString(c);
        QCOMPARE(got, cells[r]);
        // Written again it is read the same.
        QByteArrayList written;
        for (const QByteArray &c : cells[r])
            written << QByteArray::fromStdString(cellText(c.toStdString(), ','));
        const auto again = cellsOf(written.join(',').toStdString(), ',');
        QVERIFY(again && again->size() == 1);
        QCOMPARE(again->front(), (*rows)[static_cast<size_t>(r)]);
    }
    const auto open = cellsOf("a\n\"b", ',');
    QVERIFY(!open && open.error().place == "line 2");
}

void TestReadingTable::formulas_areDefused_data()
{
    QTest::addColumn<QString>("cell");
    QTest::addColumn<QString>("written");
    QTest::newRow("formula") << QStringLiteral("=2+5") << QStringLiteral("'=2+5");
    QTest::newRow("call") << QStringLiteral("@SUM(A1)") << QStringLiteral("'@SUM(A1)");
    QTest::newRow("minus and words") << QStringLiteral("-x") << QStringLiteral("'-x");
    QTest::newRow("a negative number stays") << QStringLiteral("-2.5") << QStringLiteral("-2.5");
    QTest::newRow("plain words") << QStringLiteral("bore gauge 2")
                                 << QStringLiteral("bore gauge 2");
    QTest::newRow("with a comma") << QStringLiteral("=a,b") << QStringLiteral("\"'=a,b\"");
}

void TestReadingTable::formulas_areDefused()
{
    QFETCH(QString, cell);
    QFETCH(QString, written);
    QCOMPARE(QString::fromStdString(cellText(cell.toStdString(), ',')), written);
}

void TestReadingTable::exportedReadings_comeBackTheSame()
{
    Build b = demoBuild();
    b.readings[0].instrument = "=evil(\"1\"), no. 2";
    const std::string csv = readingsToCsv(b);
    Build empty = b;
    empty.readings.clear();
    const ReadingImport in = readingsFromTable(empty, csv);
    for (const Error &e : in.errors)
        qWarning("%s %s", e.place.c_str(), said(e.message).c_str());
    QVERIFY(in.errors.empty());
    const auto back = applyEdit(empty, EnterReadings { in.readings });
    QVERIFY2(back, back ? "" : said(back.error().message).c_str());
    QCOMPARE(back->readings.size(), b.readings.size());
    for (size_t i = 0; i < b.readings.size(); ++i) {
        Reading was = b.readings[i], is = back->readings[i];
        is.id = was.id;
        is.replaces = was.replaces;
        is.extra = was.extra;
        if (was.bore_mm) // the value follows from the two diameters
            verifyClose(*is.value_um, *was.value_um, 0, 0.051);
        is.value_um = was.value_um;
        QVERIFY2(is == was, was.id.c_str());
    }
    verifyClose(assess(*back).operating.hotIdle.gauge.value_pa,
                assess(b).operating.hotIdle.gauge.value_pa, 1e-4);
}

void TestReadingTable::columns_mayStandInAnyOrder()
{
    const Build b = loadTemplate("inline-four-wet-sump")->build;
    const auto in = readingsFromTable(
        b, "\xEF\xBB\xBFvalue_um\tstation\tstop\n48,5\t1\tmain_1\n49\t2\tmain_1\n");
    QVERIFY(in.errors.empty());
    QCOMPARE(in.readings.size(), 2u);
    QCOMPARE(*in.readings[0].value_um, 48.5);
    QCOMPARE(in.readings[1].station, 2);
    QCOMPARE(in.readings[0].family, std::string("main"));
    QVERIFY(isReadingTable("stop;value_um\n"));
    QVERIFY(!isReadingTable("48\t49\n"));
}

void TestReadingTable::wrongLines_areAllNamed()
{
    const Build b = loadTemplate("inline-four-wet-sump")->build;
    const auto in = readingsFromTable(b,
                                      "stop,value_um,method\n"
                                      "main_1,48,zeroed_bore_gauge\n"
                                      "main_9,48,zeroed_bore_gauge\n"
                                      "main_1,forty,zeroed_bore_gauge\n"
                                      "main_1,48,guess\n"
                                      "main_1,-3,zeroed_bore_gauge\n"
                                      "main_1,48\n");
    QCOMPARE(in.readings.size(), 1u);
    QStringList places;
    for (const Error &e : in.errors)
        places << QString::fromStdString(e.place);
    QCOMPARE(places,
             (QStringList { QStringLiteral("line 3"), QStringLiteral("line 4, value_um"),
                            QStringLiteral("line 5"), QStringLiteral("line 6"),
                            QStringLiteral("line 7") }));
    QVERIFY(!readingsFromTable(b, "stop,colour\nmain_1,red\n").errors.empty());
    QVERIFY(!readingsFromTable(b, "").errors.empty());
}

void TestReadingTable::pastedNumbers_areRead_data()
{
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QList<double>>("numbers");
    QTest::newRow("rows and columns")
        << QByteArray("48\t49\t50\n51\t52\t53\n") << QList<double> { 48, 49, 50, 51, 52, 53 };
    QTest::newRow("a column") << QByteArray("48.5\n49\n") << QList<double> { 48.5, 49 };
    QTest::newRow("decimal commas") << QByteArray("48,5\t49,25") << QList<double> { 48.5, 49.25 };
    QTest::newRow("gaps") << QByteArray("48\t\t50") << QList<double> { 48, 50 };
    QTest::newRow("words") << QByteArray("48\tfront") << QList<double> {};
    QTest::newRow("nothing") << QByteArray("") << QList<double> {};
}

void TestReadingTable::pastedNumbers_areRead()
{
    QFETCH(QByteArray, text);
    QFETCH(QList<double>, numbers);
    const auto got = numbersOf(text.toStdString());
    QCOMPARE(QList<double>(got.begin(), got.end()), numbers);
}

} // namespace tst_readingtable

MILDPATH_TEST(tst_readingtable, TestReadingTable)
#include "tst_readingtable.moc"
