// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/rounding.h"
#include "quantity/units.h"
#include "testing.h"

#include <QLocale>
#include <numeric>
#include <random>

using namespace mildpath;

namespace tst_quantity {

class TestQuantity : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void percents_addUp();
    void text_isUnderstood_data();
    void text_isUnderstood();
    void badText_isRefusedWithReason_data();
    void badText_isRefusedWithReason();
    void everyUnit_survivesThereAndBack();
    void temperatureDifference_isNotATemperature();
    void decimalPoint_doesNotFollowTheUsersLanguage();
    void decimals_followUncertainty_data();
    void decimals_followUncertainty();
    void thousands_areGroupedThin();
    void negativeZero_isZero();
};

void TestQuantity::text_isUnderstood_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<Dimension>("dimension");
    QTest::addColumn<QString>("unit");
    QTest::addColumn<double>("si");
    // Inch, pound-force, gallon: exact by international definition (1959 agreement), from memory.
    const auto row = [](const char *text, Dimension d, const char *unit, double si) {
        QTest::newRow(text) << QString::fromUtf8(text) << d << QString::fromUtf8(unit) << si;
    };
    row("2.3 thou", Dimension::Length, "µm", 2.3 * 25.4e-6);
    row("0.058 mm", Dimension::Length, "µm", 58e-6);
    row("58", Dimension::Length, "µm", 58e-6);
    row("58 um", Dimension::Length, "mm", 58e-6);
    row("58μm", Dimension::Length, "mm", 58e-6); // Greek mu
    row("0.0023\"", Dimension::Length, "µm", 58.42e-6);
    row(" +2.3  thou ", Dimension::Length, "µm", 58.42e-6);
    row("12 psi", Dimension::Pressure, "bar", 82737.0875);
    row("1.2 bar", Dimension::Pressure, "psi", 1.2e5);
    row("61 °F", Dimension::Temperature, "°C", 16.1111111);
    row("61 F", Dimension::Temperature, "°C", 16.1111111);
    row("291.15 K", Dimension::Temperature, "°C", 18);
    row("\u221210", Dimension::Temperature, "°C", -10);
    row("5 qt", Dimension::Volume, "l", 4.73176473e-3);
    row("5 imp qt", Dimension::Volume, "l", 5.6826125e-3);
    row("11.7 cP", Dimension::DynamicViscosity, "Pa·s", 0.0117);
    row("60 ft-lb", Dimension::Torque, "N·m", 81.349);
    row("3 gpm", Dimension::VolumeFlow, "l/min", 3 * 3.785411784e-3 / 60);
    row("1e3 rpm", Dimension::Speed, "rev/min", 1000);
}

void TestQuantity::text_isUnderstood()
{
    QFETCH(QString, text);
    QFETCH(Dimension, dimension);
    QFETCH(QString, unit);
    QFETCH(double, si);
    const auto parsed = parseQuantity(text.toStdString(), dimension, unit.toStdString());
    QVERIFY2(parsed, parsed ? "" : said(parsed.error().message).c_str());
    verifyClose(parsed->si, si, 1e-6);
}

void TestQuantity::badText_isRefusedWithReason_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("reason");
    QTest::newRow("word") << QStringLiteral("abc") << QStringLiteral("not a number");
    QTest::newRow("empty") << QStringLiteral("  ") << QStringLiteral("nothing entered");
    QTest::newRow("unit of another kind")
        << QStringLiteral("12 psi") << QStringLiteral("not a unit here");
    QTest::newRow("unknown unit") << QStringLiteral("3 cubits")
                                  << QStringLiteral("not a unit here");
    QTest::newRow("comma") << QStringLiteral("2,3") << QStringLiteral("comma");
    QTest::newRow("too large for a number") << QStringLiteral("1e999") << QStringLiteral("finite");
    QTest::newRow("infinity") << QStringLiteral("inf") << QStringLiteral("finite");
    QTest::newRow("two numbers") << QStringLiteral("5 6") << QStringLiteral("not a unit here");
}

void TestQuantity::badText_isRefusedWithReason()
{
    QFETCH(QString, text);
    QFETCH(QString, reason);
    const auto parsed = parseQuantity(text.toStdString(), Dimension::Length, "µm");
    QVERIFY(!parsed);
    QVERIFY2(QString::fromStdString(said(parsed.error().message)).contains(reason),
             said(parsed.error().message).c_str());
}

void TestQuantity::everyUnit_survivesThereAndBack()
{
    for (const Unit &u : unitTable()) {
        const double si = fromUnit(37.5, u.symbol, u.dimension);
        verifyClose(toUnit(si, u.symbol, u.dimension), 37.5, 1e-12, 0,
                    QString::fromUtf8(u.symbol.data()));
    }
}

void TestQuantity::temperatureDifference_isNotATemperature()
{
    verifyClose(parseQuantity("18 F", Dimension::TemperatureDifference, "K")->si, 10, 1e-12);
    verifyClose(parseQuantity("18 F", Dimension::Temperature, "°C")->si, -7.7777778, 1e-7);
}

void TestQuantity::decimalPoint_doesNotFollowTheUsersLanguage()
{
    const QLocale before;
    QLocale::setDefault(QLocale(QLocale::German));
    const bool set = std::setlocale(LC_NUMERIC, "de_DE.UTF-8") != nullptr;
    const auto parsed = parseQuantity("2.5 mm", Dimension::Length, "mm");
    const std::string shown = formatPlain(2.5, 1);
    if (set)
        std::setlocale(LC_NUMERIC, "C");
    QLocale::setDefault(before);
    verifyClose(parsed->si, 2.5e-3, 1e-15);
    QCOMPARE(shown, std::string("2.5"));
}

void TestQuantity::decimals_followUncertainty_data()
{
    QTest::addColumn<double>("u");
    QTest::addColumn<int>("decimals");
    // GUM 7.2.6: at most two significant digits of the expanded uncertainty (here 2 u).
    QTest::newRow("U 2.6") << 1.3 << 1;
    QTest::newRow("U 17") << 8.66 << 0;
    QTest::newRow("U 0.04") << 0.02 << 3;
    QTest::newRow("U 170") << 85.0 << 0;
    QTest::newRow("not known") << 0.0 << 4;
}

void TestQuantity::decimals_followUncertainty()
{
    QFETCH(double, u);
    QFETCH(int, decimals);
    QCOMPARE(decimalsFor(u), decimals);
}

void TestQuantity::thousands_areGroupedThin()
{
    QCOMPARE(formatNumber(1234567.891, 1), std::string("1\u202F234\u202F567.9"));
    QCOMPARE(formatNumber(-999, 0), std::string("\u2212999"));
    QCOMPARE(formatPlain(-1234.5, 1), std::string("-1234.5"));
}

void TestQuantity::negativeZero_isZero()
{
    QCOMPARE(formatNumber(-0.004, 2), std::string("0.00"));
    QCOMPARE(formatNumber(std::nan(""), 2), std::string("–"));
}

void TestQuantity::percents_addUp()
{
    // 7.3 + 1.9 + 20.8 + 8.4 + 31.3 + 30.3: each rounded by itself they would say 99.
    const std::vector<double> shares { 0.073, 0.019, 0.208, 0.084, 0.313, 0.303 };
    const auto percents = wholePercents(shares);
    QCOMPARE(std::accumulate(percents.begin(), percents.end(), 0), 100);
    QVERIFY(wholePercents({}).empty());
    std::mt19937 random(7);
    for (int n = 1; n < 40; ++n) {
        std::vector<double> parts;
        for (int i = 0; i < n; ++i)
            parts.push_back(std::uniform_real_distribution<double>(0, 1)(random));
        const double sum = std::accumulate(parts.begin(), parts.end(), 0.0);
        for (double &p : parts)
            p /= sum;
        const auto whole = wholePercents(parts);
        QCOMPARE(std::accumulate(whole.begin(), whole.end(), 0), 100);
        for (size_t i = 0; i < parts.size(); ++i)
            QVERIFY(std::abs(whole[i] - 100 * parts[i]) < 1);
    }
}

} // namespace tst_quantity

MILDPATH_TEST(tst_quantity, TestQuantity)
#include "tst_quantity.moc"
