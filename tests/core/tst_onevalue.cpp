// SPDX-License-Identifier: GPL-3.0-or-later
// A dimension stands in the document once: changed there, everything that uses it moves; where an
// older file said it twice, differently, it is asked which is right.
#include "checksfixture.h"
#include "circuit/elementtypes.h"
#include "document/engineplan.h"
#include "quantity/json.h"
#include "testing.h"

#include <QtTest>

#include <cmath>

namespace mildpath {
namespace tst_onevalue {

class TestOneValue : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void journal_movesWhatUsesIt_data();
    void journal_movesWhatUsesIt();
    void journals_ofTheAlloyFourAreAsReckoned();
    void journals_writtenTwiceAreAskedAbout();
    void journals_writtenTwiceAlikeAreOne();
    void rotors_giveTheDisplacement_data();
    void rotors_giveTheDisplacement();
    void longerRotors_moveMore();
    void pump_wantsADisplacementOrRotors();
};

namespace {

Build withJournals(Build b, const std::string &kind, double mm)
{
    for (const Stop &s : std::vector<Stop>(b.engine.stops))
        if (wordOf(s.kind) == kind)
            for (const std::string &id : s.elements)
                if (const Element *e = b.circuit.find(id); e && isBearing(*e))
                    b = applyEdit(b, SetElementValue { id, "d_mm", mm }).value();
    return b;
}

Element &pumpIn(Build &b)
{
    for (Element &e : b.circuit.elements)
        if (e.kind == ElementKind::Pump)
            return e;
    qFatal("no pump");
}

double hotIdle_bar(const Build &b)
{
    return assess(b).operating.hotIdle.gauge.value_pa / 1e5;
}

} // namespace

void TestOneValue::journal_movesWhatUsesIt_data()
{
    QTest::addColumn<QString>("engine");
    for (const TemplateInfo &t : listTemplates())
        if (!sanitized || t.name.starts_with("inline")) // the same code on other engines
            QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

/// Against the same engine with each consumer's own law at the new journal.
void TestOneValue::journal_movesWhatUsesIt()
{
    QFETCH(const QString, engine);
    const Build was = loadTemplate(engine.toStdString())->build;
    const Stop *stop = was.engine.ofKind(StopKind::BigEnd);
    QVERIFY(stop);
    const double mm = journalOf_mm(was, *stop) * 0.9;
    const Build is = withJournals(was, "big_end", mm);
    QVERIFY(validateBuild(is).empty());
    verifyClose(journalOf_mm(is, *is.engine.find(stop->id)), mm, 1e-12);
    const Assessment before = assess(was), after = assess(is);
    const GaugedSize &a = *before.size(stop->id), &b = *after.size(stop->id);
    verifyClose(b.journal_mm, mm, 1e-12);
    verifyClose(b.rule_um, 0.9 * a.rule_um, 1e-9);
    verifyClose(b.growth.journal_um_per_k, 0.9 * a.growth.journal_um_per_k, 1e-9);
    // A smaller journal wets less surface and leaks less: the gauge rises, and its film is loaded
    // over less area.
    QVERIFY(after.operating.hotIdle.gauge.value_pa > before.operating.hotIdle.gauge.value_pa);
    const auto film = [&](const Assessment &x) {
        for (const BearingFilm &f : x.operating.highSpeed.films)
            if (f.stop == stop->id)
                return f;
        return BearingFilm {};
    };
    QVERIFY(film(after).load_n > 0);
    QVERIFY(film(after).smallest_m < film(before).smallest_m);
}

/// Reckoned by a plain implementation of the laws outside the program: 60 mm mains made 45 mm.
void TestOneValue::journals_ofTheAlloyFourAreAsReckoned()
{
    const Build b = withJournals(loadTemplate("inline-four-alloy")->build, "main", 45);
    const Assessment a = assess(b);
    verifyClose(a.size("main_3")->running_um, 82.5, 0.001);
    // Smaller bearings let less by, for all that they run wider.
    QVERIFY(hotIdle_bar(b) > hotIdle_bar(loadTemplate("inline-four-alloy")->build));
}

void TestOneValue::journals_writtenTwiceAreAskedAbout()
{
    Json old = toJson(fixture::newBuild("N"));
    old["version"] = 11;
    old.erase("weighed_parts");
    std::string element;
    for (Json &s : old["engine"]["stops"])
        if (s["id"] == "main_3") {
            s["journal_mm"] = 58.5;
            element = s["elements"].back().get<std::string>();
        }
    const auto loaded = parseBuild(old.dump());
    QVERIFY2(loaded, loaded ? "" : said(loaded.error().errors.front().message).c_str());
    const Build &b = loaded->build;
    QCOMPARE(b.twoValues.size(), size_t(1));
    verifyClose(b.twoValues.front().other, 58.5, 1e-12);
    QVERIFY(plainly(QString::fromStdString(said(twoValuesText(b, b.twoValues.front()))))
                .contains(QStringLiteral("58.5")));
    verifyClose(journalOf_mm(b, *b.engine.find("main_3")), 60, 1e-12); // the film's counts
    const Assessment a(b, "");
    QVERIFY(a.checks.find("pick@engine")->state != CheckState::Proven);
    QVERIFY(said(a.checks.find("pick@engine")->reason).starts_with("Main 3"));
    // Kept until it is answered, by whichever is right.
    const auto again = parseBuild(buildText(b));
    QVERIFY(again && again->build == b);
    const std::string id = b.twoValues.front().element;
    const Build other = applyEdit(b, SetElementValue { id, "d_mm", 58.5 }).value();
    QVERIFY(other.twoValues.empty());
    verifyClose(journalOf_mm(other, *other.engine.find("main_3")), 58.5, 1e-12);
    const Build same = applyEdit(b, SetElementValue { id, "d_mm", 60 }).value();
    QVERIFY(same.twoValues.empty());
}

void TestOneValue::journals_writtenTwiceAlikeAreOne()
{
    const Build b = fixture::newBuild("N");
    Json old = toJson(b);
    old["version"] = 11;
    for (Json &s : old["engine"]["stops"])
        if (const double mm = journalOf_mm(b, *b.engine.find(s["id"].get<std::string>())); mm > 0)
            s["journal_mm"] = mm;
    const auto loaded = parseBuild(old.dump());
    QVERIFY(loaded);
    QVERIFY(loaded->build.twoValues.empty());
    QVERIFY(buildText(loaded->build) == buildText(b));
}

void TestOneValue::rotors_giveTheDisplacement_data()
{
    QTest::addColumn<QString>("engine");
    QTest::addColumn<double>("turn_cm3");
    QTest::newRow("iron four") << "inline-four-wet-sump" << 5.15665975;
    QTest::newRow("alloy four") << "inline-four-alloy" << 9.46332063;
    QTest::newRow("flat four") << "flat-four" << 7.34704858;
    QTest::newRow("V8, dry sump") << "v8-dry-sump" << 8.07654707;
}

/// The ring between tips and roots of the inner rotor, its length deep.
void TestOneValue::rotors_giveTheDisplacement()
{
    QFETCH(const QString, engine);
    QFETCH(const double, turn_cm3);
    Build b = loadTemplate(engine.toStdString())->build;
    const Element &pump = pumpIn(b);
    QVERIFY(!pump.values.contains("displacement_m3"));
    verifyClose(pumpDisplacement_m3(pump) * 1e6, turn_cm3, 2e-5);
    const double tip = pump.value("inner_tip_mm") / 20, // cm
        root = tip - 2 * pump.value("eccentricity_mm") / 10;
    verifyClose(pumpDisplacement_m3(pump) * 1e6,
                pi * (tip * tip - root * root) * pump.value("rotor_length_mm") / 10, 1e-9);
}

void TestOneValue::longerRotors_moveMore()
{
    Build b = loadTemplate("inline-four-wet-sump")->build;
    const double before = hotIdle_bar(b), turn = pumpDisplacement_m3(pumpIn(b));
    pumpIn(b).values["rotor_length_mm"] *= 2;
    verifyClose(pumpDisplacement_m3(pumpIn(b)), 2 * turn, 1e-12);
    QVERIFY(hotIdle_bar(b) > before * 1.1);
    // Entered it stays as entered, and longer rotors only leak more.
    pumpIn(b).values["displacement_m3"] = turn;
    QVERIFY(hotIdle_bar(b) < before);
    verifyClose(rotorsDisplacement_m3(pumpIn(b)), 2 * turn, 1e-12); // both can be told
}

void TestOneValue::pump_wantsADisplacementOrRotors()
{
    Build b = loadTemplate("inline-four-wet-sump")->build;
    const std::string id = pumpIn(b).id;
    const auto none = applyEdit(b, SetElementValue { id, "eccentricity_mm", 0 });
    QVERIFY(!none);
    QVERIFY(said(none.error().message).starts_with("is missing"));
    QVERIFY(!applyEdit(b, SetElementValue { id, "inner_tip_mm", 6 })); // under two eccentricities
    const auto entered = applyEdit(b, SetElementValue { id, "displacement_m3", 6e-6 });
    QVERIFY(entered);
    QVERIFY(applyEdit(*entered, SetElementValue { id, "eccentricity_mm", 0 }).has_value());
    QVERIFY(applyEdit(*entered, SetElementValue { id, "displacement_m3", 0 }).has_value());
}

} // namespace tst_onevalue
MILDPATH_TEST(tst_onevalue, TestOneValue)
} // namespace mildpath

#include "tst_onevalue.moc"
