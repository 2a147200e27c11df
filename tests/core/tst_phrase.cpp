// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/dates.h"
#include "quantity/phrase.h"
#include "testing.h"

// Sentences with quantities in each system of units. Figures by hand: 1 psi = 6 894.757 Pa,
// 1 in = 25.4 mm, 1 US qt = 0.946 353 L (NIST SP 811, from memory).

using namespace mildpath;

namespace tst_phrase {

class TestPhrase : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void cleanup() { setPatternSource(nullptr); }
    void quantities_areShownInEachSystem_data();
    void quantities_areShownInEachSystem();
    void digits_followUncertainty_data();
    void digits_followUncertainty();
    void ranges_areWrittenToOneDigitOfTheirHalfWidth_data();
    void ranges_areWrittenToOneDigitOfTheirHalfWidth();
    void shownUnits_goThereAndBack();
    void plainStyle_isAscii();
    void sentences_areFilledIn_data();
    void sentences_areFilledIn();
    void words_areNeverTakenForPatterns();
    void translations_areFoundById();
    void phrases_areComparedByWhatTheySay();
    void numberAndUnit_neverPart();
    void fields_takeTheReadersUnit_data();
    void fields_takeTheReadersUnit();
    void fileUnits_becomeQuantities_data();
    void fileUnits_becomeQuantities();
    void lists_leaveOutWhatIsEmpty();
    void dates_areForPeople_data();
    void dates_areForPeople();
};

void TestPhrase::quantities_areShownInEachSystem_data()
{
    QTest::addColumn<QString>("metric");
    QTest::addColumn<QString>("imperial");
    QTest::addColumn<QString>("both");
    QTest::addColumn<int>("row");
    int n = 0;
    const auto row
        = [&n](const char *name, const char *metric, const char *imperial, const char *both) {
              QTest::newRow(name) << QString::fromUtf8(metric) << QString::fromUtf8(imperial)
                                  << QString::fromUtf8(both) << n++;
          };
    row("pressure", "1.44 bar", "20.9 psi", "1.44 bar · 20.9 psi");
    row("clearance", "52.0 µm", "2.05 thou", "52.0 µm · 2.05 thou");
    row("length", "13.3 mm", "0.524 in", "13.3 mm · 0.524 in");
    row("length to the hundredth", "13.30 mm", "0.5236 in", "13.30 mm · 0.5236 in");
    row("whole millimetres", "450 mm", "17.72 in", "450 mm · 17.72 in");
    row("temperature", "\u221212 °C", "10 °F", "\u221212 °C · 10 °F");
    row("difference", "10 °C", "18 °F", "10 °C · 18 °F");
    row("volume", "4.60 L", "4.86 US qt", "4.60 L · 4.86 US qt");
    row("speed", "3\u202F181 rpm", "3\u202F181 rpm", "3\u202F181 rpm");
    row("time", "38 s", "38 s", "38 s");
    row("time to the tenth", "2.4 s", "2.4 s", "2.4 s");
    row("share", "35%", "35%", "35%");
    row("count", "4", "4", "4");
    row("torque", "60 N·m", "44 lb·ft", "60 N·m · 44 lb·ft");
    row("flow", "20.00 L/min", "5.283 US gpm", "20.00 L/min · 5.283 US gpm");
    row("crankcase", "\u22123.4 kPa", "\u22121.0 inHg", "\u22123.4 kPa · \u22121.0 inHg");
    row("blow-by", "28 L/min", "1.0 cfm", "28 L/min · 1.0 cfm");
    row("roughness", "0.30 µm", "12 µin", "0.30 µm · 12 µin");
    row("area", "645 mm²", "1.000 in²", "645 mm² · 1.000 in²");
    row("small volume", "16.4 cm³", "1.00 in³", "16.4 cm³ · 1.00 in³");
    row("spring rate", "10.0 N/mm", "57 lb/in", "10.0 N/mm · 57 lb/in");
    row("angle", "45°", "45°", "45°");
    row("a rise", "+0.12 bar", "+1.7 psi", "+0.12 bar · +1.7 psi");
    row("a rise too small to show", "0.00 bar", "0.0 psi", "0.00 bar · 0.0 psi");
    row("with its uncertainty", "47.6 ± 2.6 µm", "1.87 ± 0.10 thou",
        "47.6 ± 2.6 µm · 1.87 ± 0.10 thou");
}

void TestPhrase::quantities_areShownInEachSystem()
{
    QFETCH(QString, metric);
    QFETCH(QString, imperial);
    QFETCH(QString, both);
    QFETCH(int, row);
    const Quantity all[] = {
        asPressure(144e3),
        asClearance(52),
        asLength(13.3),
        asLength(13.3, 2),
        asLength(450, 0),
        asTemperature(-12),
        asTemperatureDifference(10),
        asVolume(4.6),
        asSpeed(3181.4),
        asTime(38),
        asTime(2.4, 1),
        asShare(0.354),
        asCount(4),
        { 60, Shows::Torque },
        { 20e-3 / 60, Shows::Flow },
        { -3386.389, Shows::CasePressure },
        { 28.316846592e-3 / 60, Shows::GasFlow },
        { 0.3e-6, Shows::Roughness },
        { 645.16e-6, Shows::Area },
        { 16.387e-6, Shows::SmallVolume },
        { 1e4, Shows::SpringRate },
        { 45, Shows::Angle },
        asChange(asPressure(12e3)),
        asChange(asPressure(20)),
        withUncertainty(asClearance(47.6, 1.3)),
    };
    const auto text = [&](UnitSystem system) {
        return QString::fromStdString(shown(all[row], { system, false }).text())
            .replace(QChar(0xA0), u' ');
    };
    QCOMPARE(text(UnitSystem::Metric), metric);
    QCOMPARE(text(UnitSystem::Imperial), imperial);
    QCOMPARE(text(UnitSystem::Both), both);
}

void TestPhrase::digits_followUncertainty_data()
{
    QTest::addColumn<double>("u_um");
    QTest::addColumn<QString>("metric");
    QTest::newRow("fine") << 1.3 << QStringLiteral("52.1");
    QTest::newRow("coarse") << 8.7 << QStringLiteral("52");
    QTest::newRow("finer than is ever shown") << 0.01 << QStringLiteral("52.1");
}

void TestPhrase::digits_followUncertainty()
{
    QFETCH(double, u_um);
    QFETCH(QString, metric);
    QCOMPARE(QString::fromStdString(shown(asClearance(52.06, u_um), {}).number), metric);
}

void TestPhrase::ranges_areWrittenToOneDigitOfTheirHalfWidth_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<double>("low");
    QTest::addColumn<double>("high");
    QTest::addColumn<int>("system");
    const auto row = [](const char *text, double low, double high, UnitSystem system) {
        QTest::newRow(text) << QString::fromUtf8(text) << low << high << static_cast<int>(system);
    };
    row("1.2 to 1.6 bar", 1.193e5, 1.637e5, UnitSystem::Metric);
    row("17 to 24 psi", 1.193e5, 1.637e5, UnitSystem::Imperial);
    row("1.2 to 1.6 bar · 17 to 24 psi", 1.193e5, 1.637e5, UnitSystem::Both);
    row("1.37 to 1.44 bar", 1.371e5, 1.443e5, UnitSystem::Metric);
    row("1.40 bar", 1.4e5, 1.4e5, UnitSystem::Metric);
    row("\u22120.3 to 0.2 bar", -0.31e5, 0.22e5, UnitSystem::Metric);
}

void TestPhrase::ranges_areWrittenToOneDigitOfTheirHalfWidth()
{
    QFETCH(QString, text);
    QFETCH(double, low);
    QFETCH(double, high);
    QFETCH(int, system);
    const Phrase p("t", "{0}", { QuantityRange { asPressure(low), asPressure(high) } });
    const std::string said = render(p, { static_cast<UnitSystem>(system) });
    QCOMPARE(QString::fromStdString(said).replace(QChar(0xA0), u' '), text);
}

void TestPhrase::shownUnits_goThereAndBack()
{
    for (int as = 0; as <= static_cast<int>(Shows::Count); ++as)
        for (const UnitSystem system : { UnitSystem::Metric, UnitSystem::Imperial }) {
            const auto kind = static_cast<Shows>(as);
            const double back = inShownUnit(fromShownUnit(3.7, kind, system), kind, system);
            QVERIFY2(std::abs(back - 3.7) < 1e-9, std::string(shownUnit(kind, system)).c_str());
        }
}

void TestPhrase::plainStyle_isAscii()
{
    const UnitStyle plain { UnitSystem::Metric, true };
    QCOMPARE(shown(asSpeed(3181.4), plain).number, std::string("3181"));
    QCOMPARE(shown(asTemperature(-12), plain).number, std::string("-12"));
    QCOMPARE(shown(asPressure(-0.4), plain).number, std::string("0.00"));
}

void TestPhrase::sentences_areFilledIn_data()
{
    QTest::addColumn<QString>("text");
    QTest::addColumn<int>("row");
    const char *const texts[] = {
        "0.62 bar is under the minimum of 0.80 bar",
        "Main 4: 71.3 µm",
        "1 reading, 1 of them withdrawn",
        "3 readings, 2 of them withdrawn",
        "0 readings, 0 of them withdrawn",
        "stays {2} and {x} and {",
        "because Main 4: 71.3 µm, look again",
        "no argument at all",
    };
    for (int i = 0; i < 8; ++i)
        QTest::newRow(texts[i]) << QString::fromUtf8(texts[i]) << i;
}

void TestPhrase::sentences_areFilledIn()
{
    QFETCH(QString, text);
    QFETCH(int, row);
    const auto readings = [](double n, double withdrawn) {
        return Phrase("t", "{0} {0|reading|readings}, {1} of them withdrawn",
                      { asCount(n), asCount(withdrawn) });
    };
    const Phrase size("t", "{0}: {1}", { "Main 4", asClearance(71.3, 1.3) });
    const Phrase all[] = {
        { "t", "{0} is under the minimum of {1}", { asPressure(62e3), asPressure(80e3) } },
        size,
        readings(1, 1),
        readings(3, 2),
        readings(0, 0),
        { "t", "stays {2} and {x} and {", { asCount(1) } },
        { "t", "because {0}, look again", { size } },
        { "t", "no argument at all" },
    };
    QCOMPARE(QString::fromStdString(render(all[row])).replace(QChar(0xA0), u' '), text);
}

/// A name somebody typed may hold braces.
void TestPhrase::words_areNeverTakenForPatterns()
{
    const Phrase p("t", "{0} and {1}", { "Main {1}", "{0|a|b}" });
    QCOMPARE(render(p), std::string("Main {1} and {0|a|b}"));
}

void TestPhrase::translations_areFoundById()
{
    setPatternSource([](std::string_view id) -> std::string {
        return id == "alarm.low" ? "{1} wanted, {0} there" : "";
    });
    const Phrase known("alarm.low", "{0} is under {1}", { asPressure(62e3), asPressure(80e3) });
    QCOMPARE(QString::fromStdString(render(known)).replace(QChar(0xA0), u' '),
             QStringLiteral("0.80 bar wanted, 0.62 bar there"));
    QCOMPARE(render({ "other", "as written" }), std::string("as written"));
}

void TestPhrase::phrases_areComparedByWhatTheySay()
{
    const Phrase a("t", "{0}", { asPressure(62e3) });
    QVERIFY(a == Phrase("t", "{0}", { asPressure(62e3) }));
    QVERIFY(!(a == Phrase("t", "{0}", { asPressure(63e3) })));
    QVERIFY(!(a == Phrase("u", "{0}", { asPressure(62e3) })));
    QVERIFY(Phrase().empty() && !a.empty());
}

void TestPhrase::numberAndUnit_neverPart()
{
    const std::string text
        = render({ "t", "at {0} and {1}", { asSpeed(5000), asTemperature(-20) } });
    QVERIFY(text.find("000\u00A0rpm") != std::string::npos);
    QVERIFY(text.find("20\u00A0°C") != std::string::npos);
}

void TestPhrase::fields_takeTheReadersUnit_data()
{
    QTest::addColumn<QString>("metric");
    QTest::addColumn<int>("decimals");
    QTest::addColumn<QString>("shown");
    QTest::addColumn<int>("fine");
    const auto row = [](const char *metric, int decimals, const char *shown, int fine) {
        QTest::addRow("%s to %d", metric, decimals)
            << QString::fromUtf8(metric) << decimals << QString::fromUtf8(shown) << fine;
    };
    row("mm", 1, "in", 3);
    row("mm", 4, "in", 5);
    row("µm", 0, "thou", 2);
    row("µm", 3, "µin", 2);
    row("bar", 2, "psi", 1);
    row("l", 2, "US qt", 2);
    row("°C", 0, "°F", 0);
    row("K", 0, "°F", 0);
    row("rev/min", 0, "rpm", 0);
    row("mm²/s", 1, "cSt", 1);
    row("furlong", 3, "furlong", 3); // none of the table
    row("", 2, "", 2);
}

void TestPhrase::fields_takeTheReadersUnit()
{
    QFETCH(QString, metric);
    QFETCH(int, decimals);
    QFETCH(QString, shown);
    QFETCH(int, fine);
    const ShownField imperial = shownField(metric.toStdString(), decimals, UnitSystem::Imperial);
    QCOMPARE(QString::fromStdString(imperial.unit), shown);
    QCOMPARE(imperial.decimals, fine);
    QCOMPARE(shownField(metric.toStdString(), decimals, UnitSystem::Metric).decimals, decimals);
}

void TestPhrase::fileUnits_becomeQuantities_data()
{
    QTest::addColumn<double>("number");
    QTest::addColumn<QString>("unit");
    QTest::addColumn<QString>("metric");
    QTest::addColumn<QString>("imperial");
    const auto row = [](double n, const char *unit, const char *metric, const char *imperial) {
        QTest::addRow("%g %s", n, unit) << n << QString::fromUtf8(unit) << QString::fromUtf8(metric)
                                        << QString::fromUtf8(imperial);
    };
    row(400, "kPa", "4.00 bar", "58.0 psi"); // of the circuit: people read bar
    row(25.4, "mm", "25.4 mm", "1.000 in");
    row(50.8, "µm", "50.8 µm", "2.00 thou");
    row(-20, "°C", "-20 °C", "-4 °F");
    row(10, "K", "10 °C", "18 °F");
    row(0.35, "g", "0.35 g", "0.35 g"); // of turning, no mass
    row(2.7, "l", "2.70 L", "2.85 US qt");
    row(7, "", "7", "7");
    row(48, "", "48", "48");
}

void TestPhrase::fileUnits_becomeQuantities()
{
    QFETCH(double, number);
    QFETCH(QString, unit);
    QFETCH(QString, metric);
    QFETCH(QString, imperial);
    const Quantity q = ofFileUnit(number, unit.toStdString());
    QCOMPARE(QString::fromStdString(render(q, fileStyle)), metric);
    QCOMPARE(QString::fromStdString(render(q, { UnitSystem::Imperial, true })), imperial);
}

void TestPhrase::lists_leaveOutWhatIsEmpty()
{
    QCOMPARE(render(joinedBy({ "a", {}, "b" })), std::string("a, b"));
    QCOMPARE(render(joinedBy({ {}, {} })), std::string());
    Phrase p = "a";
    append(p, {});
    QCOMPARE(render(p), std::string("a"));
    append(p, "b");
    append(p, "c", "{*|, }");
    QCOMPARE(render(p), std::string("a; b, c"));
    QCOMPARE(render(named("Main 4", mustBe(5, 500, 0.3, "mm")), fileStyle),
             std::string("Main 4: must be 5 to 500 mm, is 0.3 mm"));
}

void TestPhrase::dates_areForPeople_data()
{
    QTest::addColumn<QString>("iso");
    QTest::addColumn<QString>("text");
    const char *const rows[][2] = {
        { "2026-03-12T14:05:00+01:00", "12 Mar 2026, 14:05" },
        { "2026-12-01", "1 Dec 2026" },
        { "", "" },
        { "last week", "last week" },
        { "2026-13-01", "2026-13-01" },
        { "2026-02-xx", "2026-02-xx" },
    };
    for (const auto &[iso, text] : rows)
        QTest::newRow(*iso ? iso : "nothing")
            << QString::fromLatin1(iso) << QString::fromLatin1(text);
}

void TestPhrase::dates_areForPeople()
{
    QFETCH(QString, iso);
    QFETCH(QString, text);
    QCOMPARE(QString::fromStdString(dayText(iso.toStdString())), text);
}

} // namespace tst_phrase

MILDPATH_TEST(tst_phrase, TestPhrase)
#include "tst_phrase.moc"
