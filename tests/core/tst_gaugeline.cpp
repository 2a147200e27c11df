// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/gaugeline.h"
#include "testing.h"

#include <random>

using namespace mildpath;

namespace tst_gaugeline {

class TestGaugeLine : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void line_isUnderstood_data();
    void line_isUnderstood();
    void line_isRefusedWithAReason_data();
    void line_isRefusedWithAReason();
    void halfLines_waitForTheirRest();
    void firstLine_mayHaveBegunBeforeWeListened();
    void anyCutting_givesTheSameReadings();
    void garbage_neverBecomesAReading();
    void endlessLine_isDroppedAndSaid();
    void rest_isTakenOnce();
    void oneOutlier_neitherBreaksNorMakesAReading();
    void drift_neverSettles();
    void noise_settlesToItsMean();
    void gap_needsANewHold();
};

void TestGaugeLine::line_isUnderstood_data()
{
    QTest::addColumn<QString>("line");
    QTest::addColumn<double>("um");
    QTest::newRow("as documented") << QStringLiteral("+0.0584 mm") << 58.4;
    QTest::newRow("with carriage return") << QStringLiteral("+0.0584 mm\r") << 58.4;
    QTest::newRow("no sign") << QStringLiteral("0.0584 mm") << 58.4;
    QTest::newRow("negative") << QStringLiteral("-0.0021 mm") << -2.1;
    QTest::newRow("blank after the sign") << QStringLiteral("+ 0.0584 mm") << 58.4;
    QTest::newRow("no blank before the unit") << QStringLiteral("0.0584mm") << 58.4;
    QTest::newRow("decimal comma") << QStringLiteral("+0,0584 mm") << 58.4;
    QTest::newRow("no unit: millimetres") << QStringLiteral("+0.0584") << 58.4;
    QTest::newRow("micrometres") << QStringLiteral("58.4 um") << 58.4;
    QTest::newRow("micro sign") << QStringLiteral("58.4 µm") << 58.4;
    QTest::newRow("inch") << QStringLiteral("+0.0023 in") << 58.42;
    QTest::newRow("inch mark") << QStringLiteral("0.0023\"") << 58.42;
    QTest::newRow("thou") << QStringLiteral("2.3 thou") << 58.42;
    QTest::newRow("whole number") << QStringLiteral("58 um") << 58.0;
    QTest::newRow("zero") << QStringLiteral("+0.0000 mm") << 0.0;
}

void TestGaugeLine::line_isUnderstood()
{
    QFETCH(QString, line);
    QFETCH(double, um);
    const auto m = parseGaugeLine(line.toStdString());
    QVERIFY2(m, m ? "" : said(m.error().message).c_str());
    verifyClose(*m * 1e6, um, 1e-12, 1e-9);
}

void TestGaugeLine::line_isRefusedWithAReason_data()
{
    QTest::addColumn<QByteArray>("line");
    QTest::newRow("empty") << QByteArray("   ");
    QTest::newRow("words") << QByteArray("ERR 3");
    QTest::newRow("half a number, end lost") << QByteArray("+0.");
    QTest::newRow("half a number, start lost") << QByteArray(".0584 mm");
    QTest::newRow("half a unit") << QByteArray("+0.0584 m");
    QTest::newRow("unit of mass") << QByteArray("58.4 g");
    QTest::newRow("unit of temperature") << QByteArray("21.4 C");
    QTest::newRow("two marks") << QByteArray("0.05.84 mm");
    QTest::newRow("two numbers") << QByteArray("0.0584 0.0584 mm");
    QTest::newRow("hexadecimal") << QByteArray("0x3A um");
    QTest::newRow("exponent") << QByteArray("5.84e-2 mm");
    QTest::newRow("not a number") << QByteArray("nan mm");
    QTest::newRow("beyond any gauge") << QByteArray("58400 mm");
    QTest::newRow("control characters") << QByteArray("\x02\x30.0584 mm");
    QTest::newRow("a byte lost its top bit") << QByteArray("+0.0\xb5"
                                                           "84 mm");
}

void TestGaugeLine::line_isRefusedWithAReason()
{
    QFETCH(QByteArray, line);
    const auto m = parseGaugeLine({ line.constData(), static_cast<size_t>(line.size()) });
    QVERIFY(!m);
    QVERIFY(said(m.error().message).size() > 8);
}

void TestGaugeLine::halfLines_waitForTheirRest()
{
    GaugeStream s;
    QCOMPARE(s.take("\r\n+0.0").readings_m.size(), 0u);
    QCOMPARE(s.take("584 m").readings_m.size(), 0u);
    const auto taken = s.take("m\r\n+0.05");
    QCOMPARE(taken.readings_m.size(), 1u);
    verifyClose(taken.readings_m[0], 58.4e-6, 1e-12);
    // The cable was out: what came before does not join what comes after.
    s.lines().forgetHalfLine();
    const auto after = s.take("99 mm\r\n+0.0601 mm\r\n");
    QCOMPARE(after.readings_m.size(), 1u);
    verifyClose(after.readings_m[0], 60.1e-6, 1e-12);
}

void TestGaugeLine::firstLine_mayHaveBegunBeforeWeListened()
{
    GaugeStream s;
    // "584 mm" would be half a metre, "84 um" a false reading: neither is taken.
    const auto taken = s.take("84 um\n58.6 um\n");
    QCOMPARE(taken.readings_m.size(), 1u);
    verifyClose(taken.readings_m[0], 58.6e-6, 1e-12);
}

void TestGaugeLine::anyCutting_givesTheSameReadings()
{
    std::string text = "\n";
    for (int i = 0; i < 200; ++i)
        text += "+0.0" + std::to_string(400 + i) + " mm\r\n";
    GaugeStream whole;
    const auto expected = whole.take(text).readings_m;
    QCOMPARE(expected.size(), 200u);
    std::mt19937 random(3);
    for (int round = 0; round < 50; ++round) {
        GaugeStream s;
        std::vector<double> got;
        for (size_t at = 0; at < text.size();) {
            const size_t length = 1 + random() % 40;
            for (const double v : s.take(std::string_view(text).substr(at, length)).readings_m)
                got.push_back(v);
            at += length;
        }
        QCOMPARE(got, expected);
    }
}

void TestGaugeLine::garbage_neverBecomesAReading()
{
    std::mt19937 random(11);
    GaugeStream s;
    size_t refused = 0;
    for (int i = 0; i < 20000; ++i) {
        std::string line;
        const size_t length = random() % 30;
        for (size_t k = 0; k < length; ++k)
            line += static_cast<char>(128 + random() % 128);
        const auto taken = s.take(line + "\n");
        QVERIFY(taken.readings_m.empty());
        refused += taken.refused;
    }
    QVERIFY(refused > 10000);
}

void TestGaugeLine::endlessLine_isDroppedAndSaid()
{
    GaugeStream s;
    static_cast<void>(s.take("\n"));
    const auto flood = s.take(std::string(1000000, '5'));
    QVERIFY(flood.readings_m.empty());
    const auto end = s.take("\n+0.0500 mm\n");
    QCOMPARE(end.refused, 1u);
    QVERIFY(QString::fromStdString(said(end.reason)).contains(QStringLiteral("64")));
    QCOMPARE(end.readings_m.size(), 1u);
}

void TestGaugeLine::rest_isTakenOnce()
{
    Settler s;
    double t = 0;
    const auto hold = [&](double um, double seconds) {
        int taken = 0;
        for (double end = t + seconds; t < end; t += 0.02)
            taken += s.take(um * 1e-6, t);
        return taken;
    };
    QCOMPARE(hold(300, 0.1), 0);
    QCOMPARE(hold(58, 0.5), 0);
    QCOMPARE(hold(58, 0.5), 1);
    verifyClose(s.settled().mean_m, 58e-6, 1e-9);
    QCOMPARE(hold(58, 5), 0); // still the same rest
    QCOMPARE(hold(60, 5), 0); // a hair's movement is not a new position
    QCOMPARE(hold(200, 0.2), 0);
    QCOMPARE(hold(58, 1), 1); // the same figure at the next position
}

void TestGaugeLine::oneOutlier_neitherBreaksNorMakesAReading()
{
    Settler s;
    double t = 0;
    int taken = 0;
    for (int i = 0; i < 200; ++i, t += 0.02)
        taken += s.take((i % 17 == 9 ? 83 : 58) * 1e-6, t);
    QCOMPARE(taken, 1);
    verifyClose(s.settled().mean_m, 58e-6, 1e-9);
}

void TestGaugeLine::drift_neverSettles()
{
    Settler s;
    int taken = 0;
    for (int i = 0; i < 1000; ++i)
        taken += s.take((50 + 0.06 * i) * 1e-6, 0.02 * i); // 3 µm a second
    QCOMPARE(taken, 0);
}

void TestGaugeLine::noise_settlesToItsMean()
{
    std::mt19937 random(5);
    std::uniform_real_distribution<double> noise(-0.6e-6, 0.6e-6);
    Settler s;
    for (int i = 0; i < 100; ++i)
        if (s.take(58e-6 + noise(random), 0.02 * i))
            break;
    QVERIFY(s.settled().readings >= 30);
    verifyClose(s.settled().mean_m, 58e-6, 0, 0.25e-6);
    QVERIFY(s.settled().spread_m <= 1.2e-6);
}

void TestGaugeLine::gap_needsANewHold()
{
    Settler s;
    int taken = 0;
    for (int i = 0; i < 30; ++i)
        taken += s.take(58e-6, 0.02 * i);
    s.restart();
    for (int i = 30; i < 60; ++i)
        taken += s.take(58e-6, 0.02 * i);
    QCOMPARE(taken, 0);
    for (int i = 60; i < 80; ++i)
        taken += s.take(58e-6, 0.02 * i);
    QCOMPARE(taken, 1);
    s.restart(); // a gap while it rests on a value already taken: not again
    for (int i = 80; i < 200; ++i)
        taken += s.take(58e-6, 0.02 * i);
    QCOMPARE(taken, 1);
}

} // namespace tst_gaugeline

MILDPATH_TEST(tst_gaugeline, TestGaugeLine)
#include "tst_gaugeline.moc"
