// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/figure.h"
#include "testing.h"

// Numbers as people see them in each system of units. Worked by hand with 1 in = 25.4 mm,
// 1 psi = 6 894.757 Pa, 1 US gal = 3.785 412 l (NIST SP 811, from memory).

using namespace mildpath;

namespace tst_figure {

using Make = Shown (*)(double);

class TestFigure : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void cleanup() { Figure::setSystem(UnitSystem::Metric); }
    void everySystem_showsItsOwn_data();
    void everySystem_showsItsOwn();
    void clearances_showWhatIsKnown_data();
    void clearances_showWhatIsKnown();
    void bareNumbers_areInTheUnitsShown_data();
    void bareNumbers_areInTheUnitsShown();
    void changes_haveTheirSign_data();
    void changes_haveTheirSign();

private:
    static Shown make(const QString &what, double value)
    {
        const std::map<QString, Make> all {
            { QStringLiteral("pressure"), Figure::pressure },
            { QStringLiteral("temperature"), Figure::temperature },
            { QStringLiteral("flow"), Figure::flow },
            { QStringLiteral("volume"), Figure::volume },
            { QStringLiteral("speed"), Figure::speed },
            { QStringLiteral("share"), Figure::percent },
            { QStringLiteral("limit"), Figure::limit },
            { QStringLiteral("change"), Figure::pressureChange },
        };
        return all.at(what)(value);
    }
};

void TestFigure::everySystem_showsItsOwn_data()
{
    QTest::addColumn<QString>("what");
    QTest::addColumn<double>("value");
    QTest::addColumn<QString>("metric");
    QTest::addColumn<QString>("imperial");
    QTest::addColumn<QString>("both");
    const auto row = [](const char *what, double value, const char *metric, const char *imperial,
                        const char *both) {
        QTest::addRow("%s %g", what, value)
            << QString::fromLatin1(what) << value << QString::fromUtf8(metric)
            << QString::fromUtf8(imperial) << QString::fromUtf8(both);
    };
    row("pressure", 0, "0.00 bar", "0.0 psi", "0.00 bar · 0.0 psi");
    row("pressure", 70e3, "0.70 bar", "10.2 psi", "0.70 bar · 10.2 psi");
    row("pressure", 144e3, "1.44 bar", "20.9 psi", "1.44 bar · 20.9 psi");
    row("pressure", 401e3, "4.01 bar", "58.2 psi", "4.01 bar · 58.2 psi");
    row("pressure", -4e3, "\u22120.04 bar", "\u22120.6 psi", "\u22120.04 bar · \u22120.6 psi");
    row("pressure", 1.5e6, "15.00 bar", "217.6 psi", "15.00 bar · 217.6 psi");
    row("pressure", 1.6e6, "> 15 bar", "> 218 psi", "> 15 bar · > 218 psi");
    row("temperature", -12, "\u221212 °C", "10 °F", "\u221212 °C · 10 °F");
    row("temperature", 0, "0 °C", "32 °F", "0 °C · 32 °F");
    row("temperature", 100, "100 °C", "212 °F", "100 °C · 212 °F");
    row("temperature", 130.4, "130 °C", "267 °F", "130 °C · 267 °F");
    row("flow", 1e-3 / 60, "1.00 L/min", "0.264 US gpm", "1.00 L/min · 0.264 US gpm");
    row("flow", 20e-3 / 60, "20.00 L/min", "5.283 US gpm", "20.00 L/min · 5.283 US gpm");
    row("volume", 4.6e-3, "4.60 L", "4.86 US qt", "4.60 L · 4.86 US qt");
    row("volume", 1e-3, "1.00 L", "1.06 US qt", "1.00 L · 1.06 US qt");
    row("speed", 800, "800 rpm", "800 rpm", "800 rpm");
    row("speed", 3181.4, "3\u202F181 rpm", "3\u202F181 rpm", "3\u202F181 rpm");
    row("share", 0.354, "35%", "35%", "35%");
    row("share", 1, "100%", "100%", "100%");
    row("limit", 65, "65 µm", "2.56 thou", "65 µm · 2.56 thou");
    row("limit", 47.5, "47.5 µm", "1.87 thou", "47.5 µm · 1.87 thou");
    row("limit", 25.4, "25.4 µm", "1.00 thou", "25.4 µm · 1.00 thou");
}

void TestFigure::everySystem_showsItsOwn()
{
    QFETCH(QString, what);
    QFETCH(double, value);
    QFETCH(QString, metric);
    QFETCH(QString, imperial);
    QFETCH(QString, both);
    const std::pair<UnitSystem, QString> systems[] = { { UnitSystem::Metric, metric },
                                                       { UnitSystem::Imperial, imperial },
                                                       { UnitSystem::Both, both } };
    for (const auto &[system, text] : systems) {
        Figure::setSystem(system);
        const Shown shown = make(what, value);
        QCOMPARE(plainly(shown.text()), text);
        // The number alone is set in bold; its unit is not part of it.
        QVERIFY(!shown.number.contains(shown.unit));
        QCOMPARE(shown.second.isEmpty(), !text.contains(QStringLiteral(" · ")));
    }
}

void TestFigure::clearances_showWhatIsKnown_data()
{
    QTest::addColumn<double>("um");
    QTest::addColumn<double>("u");
    QTest::addColumn<QString>("metric");
    QTest::addColumn<QString>("imperial");
    const auto row = [](double um, double u, const char *metric, const char *imperial) {
        QTest::addRow("%g ± %g", um, u)
            << um << u << QString::fromUtf8(metric) << QString::fromUtf8(imperial);
    };
    row(52, 1.3, "52.0 µm", "2.05 thou");
    row(52.04, 1.3, "52.0 µm", "2.05 thou");
    row(52.06, 1.3, "52.1 µm", "2.05 thou");
    row(52.06, 8.7, "52 µm", "2.05 thou"); // U = 17 µm: no tenths
    row(101, 0, "101.0 µm", "3.98 thou"); // not known how well
    row(9.96, 1, "10.0 µm", "0.39 thou");
    row(0, 1, "0.0 µm", "0.00 thou");
}

void TestFigure::clearances_showWhatIsKnown()
{
    QFETCH(double, um);
    QFETCH(double, u);
    QFETCH(QString, metric);
    QFETCH(QString, imperial);
    QCOMPARE(plainly(Figure::clearance(um, u).text()), metric);
    Figure::setSystem(UnitSystem::Imperial);
    QCOMPARE(plainly(Figure::clearance(um, u).text()), imperial);
}

void TestFigure::bareNumbers_areInTheUnitsShown_data()
{
    QTest::addColumn<UnitSystem>("system");
    QTest::addColumn<QStringList>("units");
    const auto list = [](std::initializer_list<const char *> units) {
        QStringList out;
        for (const char *u : units)
            out << QString::fromUtf8(u);
        return out;
    };
    QTest::newRow("metric") << UnitSystem::Metric << list({ "µm", "bar", "°C", "L" });
    QTest::newRow("imperial") << UnitSystem::Imperial << list({ "thou", "psi", "°F", "US qt" });
    QTest::newRow("both: what is written first")
        << UnitSystem::Both << list({ "µm", "bar", "°C", "L" });
}

void TestFigure::bareNumbers_areInTheUnitsShown()
{
    QFETCH(UnitSystem, system);
    QFETCH(QStringList, units);
    Figure::setSystem(system);
    QCOMPARE(qs(Figure::clearanceUnit()), units[0]);
    QCOMPARE(qs(Figure::pressureUnit()), units[1]);
    QCOMPARE(qs(Figure::temperatureUnit()), units[2]);
    QCOMPARE(qs(Figure::volumeUnit()), units[3]);
    // What is shown can be typed again.
    const auto typed = parseQuantity(Figure::pressure(2.5e5).number.toStdString(),
                                     Dimension::Pressure, Figure::pressureUnit());
    QVERIFY(typed);
    verifyClose(typed->si, 2.5e5, 5e-3);
}

void TestFigure::changes_haveTheirSign_data()
{
    QTest::addColumn<double>("pa");
    QTest::addColumn<QString>("text");
    const auto row = [](double pa, const char *text) {
        QTest::addRow("%g", pa) << pa << QString::fromUtf8(text);
    };
    row(12e3, "+0.12 bar");
    row(-12e3, "\u22120.12 bar");
    row(49, "0.00 bar"); // rounding noise has no sign
    row(-49, "0.00 bar");
    row(0, "0.00 bar");
    row(600, "+0.01 bar");
}

void TestFigure::changes_haveTheirSign()
{
    QFETCH(double, pa);
    QFETCH(QString, text);
    QCOMPARE(plainly(Figure::pressureChange(pa).text()), text);
}

} // namespace tst_figure

MILDPATH_TEST(tst_figure, TestFigure)
#include "tst_figure.moc"
