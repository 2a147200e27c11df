// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/rounding.h"
#include "quantity/sharedlist.h"
#include "quantity/units.h"
#include "testing.h"

#include <random>

// Units against the factors of the standards, numbers as text, and the shared list against a plain
// vector that is told the same.

using namespace mildpath;

namespace tst_values {

class TestValues : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void factors_areThoseOfTheStandards_data();
    void factors_areThoseOfTheStandards();
    void unitsOfOneKind_areConsistent_data();
    void unitsOfOneKind_areConsistent();
    void unitsOfAnotherKind_areRefused_data();
    void unitsOfAnotherKind_areRefused();
    void numbers_areWrittenForPeople_data();
    void numbers_areWrittenForPeople();
    void digits_followTheUncertainty_data();
    void digits_followTheUncertainty();
    void rounding_isToTheNearest_data();
    void rounding_isToTheNearest();
    void whatIsWritten_isReadBack_data();
    void whatIsWritten_isReadBack();
    void sharedList_isAVectorToTheReader_data();
    void sharedList_isAVectorToTheReader();
    void copies_doNotSeeLaterChanges();
    void iterators_goBothWays();
    void copies_shareWhatNeitherChanged();
};

// NIST SP 811 (2008), appendix B.8, unless a row says otherwise; from memory.
void TestValues::factors_areThoseOfTheStandards_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<Dimension>("dimension");
    QTest::addColumn<double>("si");
    const auto row = [](const char *text, Dimension d, double si) {
        QTest::newRow(text) << QString::fromUtf8(text) << d << si;
    };
    row("1 in", Dimension::Length, 0.0254);
    row("1 thou", Dimension::Length, 2.54e-5);
    row("1 mil", Dimension::Length, 2.54e-5);
    row("1 tenth", Dimension::Length, 2.54e-6);
    row("1 mm", Dimension::Length, 1e-3);
    row("1 cm", Dimension::Length, 1e-2);
    row("1 µm", Dimension::Length, 1e-6);
    row("1 m", Dimension::Length, 1);
    row("2.375 inch", Dimension::Length, 0.060325);
    row("1 in2", Dimension::Area, 6.4516e-4);
    row("1 cm²", Dimension::Area, 1e-4);
    row("1 mm2", Dimension::Area, 1e-6);
    row("1 l", Dimension::Volume, 1e-3);
    row("1 cc", Dimension::Volume, 1e-6);
    row("1 US qt", Dimension::Volume, 9.463529e-4);
    row("1 US gal", Dimension::Volume, 3.785412e-3);
    row("1 imp gal", Dimension::Volume, 4.546090e-3); // Weights and Measures Act 1985, exact
    row("1 imp qt", Dimension::Volume, 1.1365225e-3); // a quarter of it
    row("1 l/min", Dimension::VolumeFlow, 1.6666667e-5);
    row("1 gpm", Dimension::VolumeFlow, 6.309020e-5);
    row("1 l/s", Dimension::VolumeFlow, 1e-3);
    row("1 bar", Dimension::Pressure, 1e5);
    row("1 psi", Dimension::Pressure, 6.894757e3);
    row("1 kg/cm2", Dimension::Pressure, 9.80665e4);
    row("1 mbar", Dimension::Pressure, 100);
    row("1 kPa", Dimension::Pressure, 1e3);
    row("1 MPa", Dimension::Pressure, 1e6);
    row("32 °F", Dimension::Temperature, 0);
    row("212 °F", Dimension::Temperature, 100);
    row("-40 °F", Dimension::Temperature, -40);
    row("61 °F", Dimension::Temperature, 16.1111111);
    row("273.15 K", Dimension::Temperature, 0);
    row("9 °F", Dimension::TemperatureDifference, 5);
    row("7 K", Dimension::TemperatureDifference, 7);
    row("1 cSt", Dimension::KinematicViscosity, 1e-6);
    row("1 mm²/s", Dimension::KinematicViscosity, 1e-6);
    row("1 cP", Dimension::DynamicViscosity, 1e-3);
    row("1 mPa·s", Dimension::DynamicViscosity, 1e-3);
    row("1 g/cm3", Dimension::Density, 1000);
    row("1 kg/m³", Dimension::Density, 1);
    row("1 rpm", Dimension::Speed, 1);
    row("1 N·m", Dimension::Torque, 1);
    row("1 ft-lb", Dimension::Torque, 1.355818);
    row("1 in-lb", Dimension::Torque, 0.1129848);
    row("1 min", Dimension::Time, 60);
    row("1 h", Dimension::Time, 3600);
    row("180 °", Dimension::Angle, 3.14159265);
    row("1 rad", Dimension::Angle, 1);
    row("11.7 1e-6/K", Dimension::Expansion, 11.7e-6);
}

void TestValues::factors_areThoseOfTheStandards()
{
    QFETCH(QString, text);
    QFETCH(Dimension, dimension);
    QFETCH(double, si);
    const auto parsed = parseQuantity(text.toStdString(), dimension, "");
    QVERIFY2(parsed, parsed ? "" : said(parsed.error().message).c_str());
    verifyClose(parsed->si, si, 1e-6, 1e-9);
}

void TestValues::unitsOfOneKind_areConsistent_data()
{
    QTest::addColumn<QString>("symbol");
    QTest::addColumn<Dimension>("dimension");
    for (const Unit &u : unitTable()) {
        const QString symbol
            = QString::fromUtf8(u.symbol.data(), static_cast<qsizetype>(u.symbol.size()));
        QTest::addRow("%s, %d", qPrintable(symbol), static_cast<int>(u.dimension))
            << symbol << u.dimension;
    }
}

void TestValues::unitsOfOneKind_areConsistent()
{
    QFETCH(QString, symbol);
    QFETCH(Dimension, dimension);
    const std::string unit = symbol.toStdString();
    for (const double number : { -40.0, 0.0, 1.0, 57.25, 1234.5 }) {
        const double si = fromUnit(number, unit, dimension);
        verifyClose(toUnit(si, unit, dimension), number, 1e-12, 1e-9);
        // Typed with its unit it is the same whatever the field takes without one.
        const auto typed = parseQuantity(
            QString::number(number, 'g', 12).toStdString() + " " + unit, dimension, "");
        QVERIFY(typed);
        verifyClose(typed->si, si, 1e-9, 1e-12);
        const auto bare
            = parseQuantity(QString::number(number, 'g', 12).toStdString(), dimension, unit);
        QVERIFY(bare);
        verifyClose(bare->si, si, 1e-9, 1e-12);
    }
}

void TestValues::unitsOfAnotherKind_areRefused_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<Dimension>("dimension");
    const auto row = [](const char *text, Dimension d) {
        QTest::newRow(text) << QString::fromUtf8(text) << d;
    };
    row("5 bar", Dimension::Length);
    row("5 mm", Dimension::Pressure);
    row("5 psi", Dimension::Temperature);
    row("5 °C", Dimension::Pressure);
    row("5 l", Dimension::VolumeFlow);
    row("5 l/min", Dimension::Volume);
    row("5 rpm", Dimension::Torque);
    row("5 Nm", Dimension::Speed);
    row("5 cSt", Dimension::DynamicViscosity);
    row("5 cP", Dimension::KinematicViscosity);
    row("5 s", Dimension::Angle);
    row("5 kg/m3", Dimension::Expansion);
}

void TestValues::unitsOfAnotherKind_areRefused()
{
    QFETCH(QString, text);
    QFETCH(Dimension, dimension);
    const auto parsed = parseQuantity(text.toStdString(), dimension, "");
    QVERIFY(!parsed);
    QVERIFY(!parsed.error().message.empty());
}

void TestValues::numbers_areWrittenForPeople_data()
{
    QTest::addColumn<double>("value");
    QTest::addColumn<int>("decimals");
    QTest::addColumn<QString>("people");
    QTest::addColumn<QString>("plain");
    const auto row = [](double value, int decimals, const char *people, const char *plain) {
        QTest::addRow("%g, %d", value, decimals)
            << value << decimals << QString::fromUtf8(people) << QString::fromUtf8(plain);
    };
    row(0, 0, "0", "0");
    row(0, 2, "0.00", "0.00");
    row(-0.0, 1, "0.0", "0.0");
    row(-0.004, 2, "0.00", "0.00");
    row(1.005, 1, "1.0", "1.0");
    row(2.25, 1, "2.2", "2.2");
    row(-3.5, 1, "\u22123.5", "-3.5");
    row(999, 0, "999", "999");
    row(1000, 0, "1\u202F000", "1000");
    row(12345.678, 1, "12\u202F345.7", "12345.7");
    row(-1234567, 0, "\u22121\u202F234\u202F567", "-1234567");
    row(999.96, 1, "1\u202F000.0", "1000.0");
    row(1e-9, 3, "0.000", "0.000");
    row(std::nan(""), 1, "\u2013", "-");
    row(std::numeric_limits<double>::infinity(), 1, "\u2013", "-");
}

void TestValues::numbers_areWrittenForPeople()
{
    QFETCH(double, value);
    QFETCH(int, decimals);
    QFETCH(QString, people);
    QFETCH(QString, plain);
    QCOMPARE(QString::fromStdString(formatNumber(value, decimals)), people);
    if (std::isfinite(value))
        QCOMPARE(QString::fromStdString(formatPlain(value, decimals)), plain);
}

// JCGM 100, 7.2.6: two significant digits of the expanded uncertainty.
void TestValues::digits_followTheUncertainty_data()
{
    QTest::addColumn<double>("u");
    QTest::addColumn<int>("decimals");
    const std::pair<double, int> rows[]
        = { { 100, 0 }, { 50, 0 },   { 5, 0 },    { 4.9, 1 },   { 0.5, 1 },
            { 0.4, 2 }, { 0.05, 2 }, { 0.04, 3 }, { 0.005, 3 }, { 0.004, 4 } };
    for (const auto &[u, decimals] : rows)
        QTest::addRow("%g", u) << u << decimals;
}

void TestValues::digits_followTheUncertainty()
{
    QFETCH(double, u);
    QFETCH(int, decimals);
    QCOMPARE(decimalsFor(u), decimals);
    QVERIFY(decimalsFor(u, 1) <= 1);
    QCOMPARE((Measured { 7, u }.expanded()), 2 * u);
}

void TestValues::rounding_isToTheNearest_data()
{
    QTest::addColumn<double>("value");
    QTest::addColumn<double>("step");
    QTest::addColumn<double>("rounded");
    const auto row = [](double value, double step, double rounded) {
        QTest::addRow("%g by %g", value, step) << value << step << rounded;
    };
    row(7.4, 5, 5);
    row(7.6, 5, 10);
    row(-7.6, 5, -10);
    row(0.26, 0.25, 0.25);
    row(0.38, 0.25, 0.5);
    row(100, 250, 0);
    row(130, 250, 250);
    row(12.34, 0.1, 12.3);
}

void TestValues::rounding_isToTheNearest()
{
    QFETCH(double, value);
    QFETCH(double, step);
    QFETCH(double, rounded);
    verifyClose(roundedToStep(value, step), rounded, 1e-12, 1e-12);
    for (const int decimals : { 0, 1, 2, 3 }) {
        const double r = roundedTo(value, decimals);
        QVERIFY(std::abs(r - value) <= 0.5 * std::pow(10, -decimals) + 1e-12);
        QCOMPARE(roundedTo(r, decimals), r);
    }
}

void TestValues::whatIsWritten_isReadBack_data()
{
    QTest::addColumn<double>("value");
    std::mt19937 random(3);
    std::uniform_real_distribution<double> exponent(-3, 6);
    for (int i = 0; i < 40; ++i) {
        const double v = (i % 2 ? -1 : 1) * std::pow(10, exponent(random));
        QTest::addRow("%.9g", v) << v;
    }
}

void TestValues::whatIsWritten_isReadBack()
{
    QFETCH(double, value);
    for (const int decimals : { 0, 1, 3 }) {
        // As typed from the screen: thin spaces and the true minus are understood.
        const auto read = parseQuantity(formatNumber(value, decimals), Dimension::Number, "");
        const auto plain = parseQuantity(formatPlain(value, decimals), Dimension::Number, "");
        QVERIFY(plain);
        verifyClose(plain->si, value, 0, 0.5 * std::pow(10, -decimals) + 1e-9);
        if (std::abs(value) < 1000) {
            QVERIFY(read);
            QCOMPARE(read->si, plain->si);
        }
    }
}

void TestValues::sharedList_isAVectorToTheReader_data()
{
    QTest::addColumn<unsigned>("seed");
    for (unsigned seed = 1; seed <= 12; ++seed)
        QTest::addRow("%u", seed) << seed;
}

void TestValues::sharedList_isAVectorToTheReader()
{
    QFETCH(unsigned, seed);
    std::mt19937 random(seed);
    SharedList<int> list;
    std::vector<int> plain;
    std::vector<std::pair<SharedList<int>, std::vector<int>>> copies;
    for (int step = 0; step < 400; ++step) {
        const int v = static_cast<int>(random() % 1000);
        const size_t at = plain.empty() ? 0 : random() % plain.size();
        switch (random() % 6) {
        case 0:
        case 1:
        case 2:
            list.push_back(v);
            plain.push_back(v);
            break;
        case 3:
            if (!plain.empty()) {
                list[at] = v;
                plain[at] = v;
            }
            break;
        case 4:
            if (random() % 8 == 0) {
                const auto odd = [](int x) { return x % 7 == 0; };
                QCOMPARE(list.eraseIf(odd), std::erase_if(plain, odd));
            }
            break;
        default:
            copies.push_back({ list, plain });
        }
    }
    copies.push_back({ list, plain });
    for (const auto &[shared, vector] : copies) {
        QCOMPARE(shared.size(), vector.size());
        QVERIFY(std::equal(shared.begin(), shared.end(), vector.begin(), vector.end()));
        QCOMPARE(shared.empty(), vector.empty());
        if (!vector.empty()) {
            QCOMPARE(shared.front(), vector.front());
            QCOMPARE(shared.back(), vector.back());
            QCOMPARE(*shared.rbegin(), vector.back());
        }
        QVERIFY(shared == SharedList<int>(vector));
    }
}

void TestValues::copies_doNotSeeLaterChanges()
{
    SharedList<std::string> list;
    for (int i = 0; i < 100; ++i)
        list.push_back(std::to_string(i));
    const SharedList<std::string> before = list;
    list[3] = "changed";
    list[64] = "changed too";
    list.push_back("more");
    list.change([](std::string &s) { s += "!"; });
    QCOMPARE(before.size(), size_t(100));
    for (int i = 0; i < 100; ++i)
        QCOMPARE(before[static_cast<size_t>(i)], std::to_string(i));
    QCOMPARE(list[3], std::string("changed!"));
    QCOMPARE(list.back(), std::string("more!"));
    QVERIFY(!(list == before));
    list.clear();
    QVERIFY(list.empty() && before.size() == 100);
}

void TestValues::iterators_goBothWays()
{
    SharedList<int> list;
    for (int i = 0; i < 70; ++i)
        list.push_back(i * i);
    const auto &read = std::as_const(list);
    QCOMPARE(read.end() - read.begin(), std::ptrdiff_t(70));
    QCOMPARE(*(read.begin() + 33), 33 * 33);
    QCOMPARE(*(read.end() - 1), 69 * 69);
    QCOMPARE(read.begin()[65], 65 * 65);
    QVERIFY(std::is_sorted(read.begin(), read.end()));
    QCOMPARE(std::lower_bound(read.begin(), read.end(), 1600) - read.begin(), std::ptrdiff_t(40));
    int expected = 69;
    for (auto it = read.rbegin(); it != read.rend(); ++it, --expected)
        QCOMPARE(*it, expected * expected);
}

void TestValues::copies_shareWhatNeitherChanged()
{
    SharedList<int> list;
    for (int i = 0; i < 640; ++i)
        list.push_back(i);
    SharedList<int> copy = list;
    const auto &a = std::as_const(list), &b = std::as_const(copy);
    QCOMPARE(&a[0], &b[0]); // the very same memory
    copy[0] = -1;
    QVERIFY(&a[0] != &b[0]); // its own stretch alone is copied
    QCOMPARE(&a[600], &b[600]);
    copy.push_back(7);
    QCOMPARE(&a[320], &b[320]);
}

} // namespace tst_values

MILDPATH_TEST(tst_values, TestValues)
#include "tst_values.moc"
