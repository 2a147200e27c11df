// SPDX-License-Identifier: GPL-3.0-or-later
// Readings by every method: which decides, what they are worth, when they disagree.
#include "bearing/thermal.h"
#include "checks/assessment.h"
#include "checksfixture.h"
#include "document/edit.h"
#include "pump/rotor.h"
#include "quantity/json.h"
#include "report/assessmentreport.h"
#include "study/weights.h"
#include "testing.h"

using namespace mildpath;

namespace tst_sizes {

namespace {

Build plain()
{
    return loadTemplate("inline-four-wet-sump")->build;
}

Build with(Build build, const std::vector<Reading> &readings)
{
    for (const Reading &r : readings) {
        auto next = applyEdit(build, EnterReading { r });
        if (!next)
            qFatal("%s %s", next.error().place.c_str(), said(next.error().message).c_str());
        build = std::move(*next);
    }
    return build;
}

Reading by(const std::string &method, const std::string &stop, double um, double u_um,
           int station = 1)
{
    Reading r = gaugeReading(stop, station, 90, um);
    r.method = method;
    r.u_um = u_um;
    return r;
}

Reading of(const std::string &family, const std::string &stop, const std::string &method, double um,
           double u_um, int station = 1, int item = 1)
{
    Reading r = by(method, stop, um, u_um, station);
    r.family = family;
    r.item = item;
    return r;
}

std::vector<Reading> bothEnds(const std::string &method, const std::string &stop, double um,
                              double u_um)
{
    return { by(method, stop, um, u_um, 1), by(method, stop, um, u_um, 2) };
}

} // namespace

class TestSizes : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void strongestMethod_decides();
    void weakerMethod_neverStrikesAStronger();
    void disagreement_isAFinding_data();
    void disagreement_isAFinding();
    void strip_isReadAtItsTightest();
    void strip_isACheckUnlessChosen();
    void feel_isABandAndNoFigure();
    void twoInstruments_addTheirUncertainties();
    void holdBySomebody_standsBesideTheFigures();
    void looseCap_isFlagged();
    void limitInsideTheUncertainty_isNoPass_data();
    void limitInsideTheUncertainty_isNoPass();
    void widestLobe_isJudgedCubeMeanFlows();
    void everyLobe_isAskedFor();
    void endFloat_shrinksInAnAlloyBlock();
    void family_isSummedUp();
    void assessText_namesEveryFamily();
    void badReadings_areRefused_data();
    void badReadings_areRefused();
    void templates_knowTheirFamilies();
    void weights_areHeldToATolerance();
    void looseWeight_isNotProven();
};

void TestSizes::strongestMethod_decides()
{
    auto readings = bothEnds("zeroed_bore_gauge", "main_1", 50, 1.3);
    for (const Reading &r : bothEnds("plastic_strip", "main_1", 53, 3.7))
        readings.push_back(r);
    const auto a = assess(with(plain(), readings));
    const GaugedSize *s = a.size("main_1");
    verifyClose(s->cold_um.value, 50, 1e-9); // never averaged with the strip
    QCOMPARE(s->method(), std::string("zeroed_bore_gauge"));
    QCOMPARE(s->methods.size(), 2u);
    QCOMPARE(markWord(s->mark), markWord(Mark::Proven));
    // The order of entry does not matter.
    std::reverse(readings.begin(), readings.end());
    QCOMPARE(assess(with(plain(), readings)).size("main_1")->cold_um.value, s->cold_um.value);
}

void TestSizes::weakerMethod_neverStrikesAStronger()
{
    const Build b = with(
        plain(),
        { by("zeroed_bore_gauge", "main_1", 50, 1.3), by("plastic_strip", "main_1", 63, 3.7) });
    QVERIFY(b.readings[1].replaces.empty());
    QCOMPARE(standingReadings(b).size(), 2u);
}

void TestSizes::disagreement_isAFinding_data()
{
    QTest::addColumn<double>("strip");
    QTest::addColumn<bool>("disagrees");
    // 2 √(1.3² + 3.7²) = 7.84 µm
    QTest::newRow("the same") << 50.0 << false;
    QTest::newRow("within what both leave open") << 57.7 << false;
    QTest::newRow("beyond it") << 58.0 << true;
    QTest::newRow("beyond it, below") << 42.0 << true;
}

void TestSizes::disagreement_isAFinding()
{
    QFETCH(double, strip);
    QFETCH(bool, disagrees);
    auto readings = bothEnds("zeroed_bore_gauge", "main_1", 50, 1.3);
    readings.push_back(by("plastic_strip", "main_1", strip, 3.7));
    const auto a = assess(with(plain(), readings));
    QCOMPARE(a.size("main_1")->disagreement.empty(), !disagrees);
    QCOMPARE(markWord(a.size("main_1")->mark),
             markWord(disagrees ? Mark::LookAgain : Mark::Proven));
    QCOMPARE(fixture::stateOf(with(plain(), readings), "clr@main_1"),
             disagrees ? "look_again" : "proven");
}

void TestSizes::strip_isReadAtItsTightest()
{
    auto readings = bothEnds("plastic_strip", "main_1", 51, 3.7);
    readings[1].value_um = 46;
    Reading overHole = by("plastic_strip", "main_1", 38, 3.7, 3);
    overHole.overOilHole = true;
    readings.push_back(overHole);
    const auto a = assess(with(plain(), readings));
    const GaugedSize *s = a.size("main_1");
    verifyClose(s->cold_um.value, 46, 1e-9); // common practice; the worked example's figures
    verifyClose(s->methods.front().taper_um, 5, 1e-9);
    QCOMPARE(s->methods.front().readings, 2); // not the one over the oil hole
}

void TestSizes::strip_isACheckUnlessChosen()
{
    Build b = with(plain(), bothEnds("plastic_strip", "main_1", 50, 3.7));
    QCOMPARE(markWord(assess(b).size("main_1")->mark), markWord(Mark::LookAgain));
    Choice c;
    c.question = "strip_counts";
    c.answer = "yes";
    b = applyEdit(b, Choose { c }).value();
    QCOMPARE(markWord(assess(b).size("main_1")->mark), markWord(Mark::Proven));
}

void TestSizes::feel_isABandAndNoFigure()
{
    Reading feel = by("drop_feel", "big_end_1", 40, 5.8);
    feel.feel = "smooth";
    Build b = with(plain(), { feel });
    const auto alone = assess(b);
    QVERIFY(!alone.size("big_end_1")->measured);
    QCOMPARE(markWord(alone.size("big_end_1")->mark), markWord(Mark::LookAgain));
    verifyClose(alone.size("big_end_1")->cold_um.value,
                assess(plain()).size("big_end_1")->cold_um.value, 1e-12);
    // 30 to 50 µm: a gauge at 49 fits, one at 60 does not.
    QVERIFY(assess(with(b, bothEnds("zeroed_bore_gauge", "big_end_1", 49, 1.3)))
                .size("big_end_1")
                ->disagreement.empty());
    QVERIFY(!assess(with(b, bothEnds("zeroed_bore_gauge", "big_end_1", 60, 1.3)))
                 .size("big_end_1")
                 ->disagreement.empty());
    for (const DropFeel &f : dropFeels())
        QVERIFY(f.high_um - f.low_um >= 20);
}

void TestSizes::twoInstruments_addTheirUncertainties()
{
    Reading r = by("two_instruments", "main_1", 0, 2);
    r.value_um.reset();
    r.bore_mm = 60.050;
    r.journal_mm = 60.000;
    r.journalU_um = 2;
    Reading rear = r;
    rear.station = 2;
    const auto a = assess(with(plain(), { r, rear }));
    const GaugedSize *s = a.size("main_1");
    verifyClose(s->cold_um.value, 50, 1e-6);
    // A micrometer and a gauge of 2 µm each give U = 5.7 µm. Source: JCGM 100 "GUM", 2008, eq. 10.
    verifyClose(s->cold_um.expanded(), 5.657, 1e-3);
}

void TestSizes::holdBySomebody_standsBesideTheFigures()
{
    Build b = with(plain(), bothEnds("zeroed_bore_gauge", "main_1", 50, 1.3));
    QCOMPARE(fixture::stateOf(b, "clr@main_1"), "proven");
    Proof p { "", "main_1", "size", "hold", "journal scored", "t", "2027-01-01", "", {} };
    b = applyEdit(b, AddProof { p }).value();
    QCOMPARE(fixture::stateOf(b, "clr@main_1"), "hold");
    p.verdict = "proven";
    b = applyEdit(b, AddProof { p }).value();
    QCOMPARE(fixture::stateOf(b, "clr@main_1"), "proven");
}

void TestSizes::looseCap_isFlagged()
{
    auto readings = bothEnds("zeroed_bore_gauge", "main_1", 50, 1.3);
    readings[1].capTorqued = false;
    const auto a = assess(with(plain(), readings));
    QCOMPARE(markWord(a.size("main_1")->mark), markWord(Mark::LookAgain));
    QVERIFY(said(a.size("main_1")->verdict).find("without the cap") != std::string::npos);
    readings[1].capTorqued = true;
    QCOMPARE(markWord(assess(with(plain(), readings)).size("main_1")->mark),
             markWord(Mark::Proven));
}

void TestSizes::limitInsideTheUncertainty_isNoPass_data()
{
    QTest::addColumn<QString>("family");
    QTest::addColumn<QString>("stop");
    QTest::addColumn<QString>("method");
    QTest::addColumn<double>("um");
    QTest::addColumn<double>("u");
    QTest::newRow("lifter") << QStringLiteral("lifter") << QStringLiteral("lifter_gallery")
                            << QStringLiteral("two_instruments") << 45.0 << 1.5;
    QTest::newRow("end float") << QStringLiteral("end_float") << QStringLiteral("main_3")
                               << QStringLiteral("feeler") << 350.0 << 7.2;
    QTest::newRow("run-out") << QStringLiteral("run_out") << QStringLiteral("main_3")
                             << QStringLiteral("dial_indicator") << 38.0 << 2.9;
    QTest::newRow("pump end") << QStringLiteral("pump_end") << QStringLiteral("pump")
                              << QStringLiteral("feeler") << 115.0 << 7.2;
}

void TestSizes::limitInsideTheUncertainty_isNoPass()
{
    QFETCH(QString, family);
    QFETCH(QString, stop);
    QFETCH(QString, method);
    QFETCH(double, um);
    QFETCH(double, u);
    const auto a = assess(with(
        plain(), { of(family.toStdString(), stop.toStdString(), method.toStdString(), um, u) }));
    const GaugedSize *s = a.size(stop.toStdString(), family.toStdString(), 1);
    QVERIFY(s->cold_um.value < s->limits->max_um);
    QCOMPARE(markWord(s->mark), markWord(Mark::LookAgain));
    QVERIFY2(said(s->verdict).find("to judge: measure again") != std::string::npos,
             said(s->verdict).c_str());
}

void TestSizes::widestLobe_isJudgedCubeMeanFlows()
{
    std::vector<Reading> lobes;
    const double tips[] = { 80, 85, 90, 135 };
    for (int i = 0; i < 4; ++i)
        lobes.push_back(of("pump_tip", "pump", "feeler", tips[i], 5, i + 1));
    const auto a = assess(with(plain(), lobes));
    const GaugedSize *s = a.size("pump", "pump_tip", 1);
    verifyClose(s->cold_um.value, 135, 1e-9);
    QCOMPARE(markWord(s->mark), markWord(Mark::Hold)); // one lobe past 120 is enough
    const double cube
        = std::cbrt((80.0 * 80 * 80 + 85.0 * 85 * 85 + 90.0 * 90 * 90 + 135.0 * 135 * 135) / 4);
    verifyClose(s->circuit_um, cube, 1e-9);
    // Four lobes alike are one pump with that clearance.
    const double same[] = { 97, 97, 97 };
    verifyClose(effectiveTipClearance(same), 97, 1e-12);
}

void TestSizes::everyLobe_isAskedFor()
{
    std::vector<Reading> lobes;
    for (int i = 1; i <= 3; ++i)
        lobes.push_back(of("pump_tip", "pump", "feeler", 85, 5, i));
    const auto three = assess(with(plain(), lobes));
    QCOMPARE(markWord(three.size("pump", "pump_tip", 1)->mark), markWord(Mark::LookAgain));
    lobes.push_back(of("pump_tip", "pump", "feeler", 85, 5, 4));
    QCOMPARE(markWord(assess(with(plain(), lobes)).size("pump", "pump_tip", 1)->mark),
             markWord(Mark::Proven));
}

void TestSizes::endFloat_shrinksInAnAlloyBlock()
{
    const Reading r = of("end_float", "main_3", "dial_indicator", 150, 2.9);
    const auto iron = assess(with(plain(), { r }));
    const auto alloy = assess(with(loadTemplate("inline-four-alloy")->build, { r }));
    const GaugedSize *hot = alloy.size("main_3", "end_float", 1);
    // w (aj (Tj − 20) − ah (Th − 20)), w = 27 mm, 100 and 98 °C; linear expansion, textbook.
    const Material *housing = findMaterial(loadTemplate("inline-four-alloy")->build.engine.block);
    verifyClose(hot->running_um, 150 + 27e3 * (11.7e-6 * 80 - housing->expansion_per_k * 78), 1e-3);
    QVERIFY(hot->running_um < 140 && iron.size("main_3", "end_float", 1)->running_um > 150);
}

void TestSizes::family_isSummedUp()
{
    std::vector<Reading> all = bothEnds("zeroed_bore_gauge", "main_1", 50, 1.3);
    for (const Reading &r : bothEnds("plastic_strip", "main_2", 46, 3.7))
        all.push_back(r);
    Reading flank = gaugeReading("main_1", 1, 60, 53);
    all.push_back(flank);
    const auto a = assess(with(plain(), all));
    const FamilySummary *f = a.family("main");
    QCOMPARE(f->items, 5);
    QCOMPARE(f->measured, 2);
    QCOMPARE(f->readings, 4); // the flank tells form only
    verifyClose(f->mean_um, 48, 1e-9);
    verifyClose(f->least_um, 46, 1e-9);
    verifyClose(f->most_um, 50, 1e-9);
    verifyClose(f->outOfRound_um, 3, 1e-9);
    verifyClose(f->expanded_um, 7.4, 1e-9);
    QCOMPARE(f->weakestMethod, std::string("plastic strip"));
    QCOMPARE(said(f->verdict), std::string("1 check again, 3 not done, 1 proven"));
}

void TestSizes::assessText_namesEveryFamily()
{
    const Build b = demoBuild();
    const QString text = QString::fromStdString(assessmentText(b, assess(b), fileStyle));
    for (const FamilySummary &f : assess(b).families) {
        const QString name = QString::fromUtf8(findFamily(f.family)->plural.data());
        const qsizetype at = text.indexOf(name + u':');
        QVERIFY2(at > 0, qPrintable(name));
        const QString line = text.mid(at, text.indexOf(u'\n', at) - at);
        if (f.measured > 0)
            for (const char *word :
                 { "n ", "mean", "range", "taper", "out-of-round", "U (k = 2)", "weakest method" })
                QVERIFY2(line.contains(QLatin1String(word)), qPrintable(line));
    }
    const Json json = jsonOfAssessment(b);
    QCOMPARE(json["families"].size(), assess(b).families.size());
}

void TestSizes::badReadings_areRefused_data()
{
    QTest::addColumn<QString>("family");
    QTest::addColumn<QString>("stop");
    QTest::addColumn<QString>("method");
    QTest::addColumn<int>("item");
    QTest::addColumn<QString>("place");
    QTest::newRow("no such family") << QStringLiteral("pistons") << QStringLiteral("main_1")
                                    << QStringLiteral("feeler") << 1 << QStringLiteral("family");
    QTest::newRow("a family of another stop")
        << QStringLiteral("lifter") << QStringLiteral("main_1") << QStringLiteral("two_instruments")
        << 1 << QStringLiteral("item");
    QTest::newRow("the ninth of eight")
        << QStringLiteral("lifter") << QStringLiteral("lifter_gallery")
        << QStringLiteral("two_instruments") << 9 << QStringLiteral("item");
    QTest::newRow("a method that cannot measure it")
        << QStringLiteral("main") << QStringLiteral("main_1") << QStringLiteral("dial_indicator")
        << 1 << QStringLiteral("method");
    QTest::newRow("a feel without a word")
        << QStringLiteral("big_end") << QStringLiteral("big_end_1") << QStringLiteral("drop_feel")
        << 1 << QStringLiteral("feel");
}

void TestSizes::badReadings_areRefused()
{
    QFETCH(QString, family);
    QFETCH(QString, stop);
    QFETCH(QString, method);
    QFETCH(int, item);
    QFETCH(QString, place);
    const auto r = applyEdit(plain(),
                             EnterReading { of(family.toStdString(), stop.toStdString(),
                                               method.toStdString(), 50, 1, 1, item) });
    QVERIFY(!r);
    QVERIFY2(QString::fromStdString(r.error().place).endsWith(place), r.error().place.c_str());
}

void TestSizes::templates_knowTheirFamilies()
{
    const auto families = [](const char *name) {
        QStringList out;
        for (const FamilySummary &f : assess(loadTemplate(name)->build).families)
            out << QString::fromStdString(f.family);
        return out;
    };
    const QStringList iron = families("inline-four-wet-sump"),
                      alloy = families("inline-four-alloy");
    for (const char *id : { "main", "big_end", "small_end", "cam_bearing", "lifter", "end_float",
                            "run_out", "pump_tip", "pump_end", "pump_body", "pump_backlash" }) {
        QVERIFY2(iron.contains(QLatin1String(id)), id);
        QVERIFY2(alloy.contains(QLatin1String(id)), id);
    }
    QVERIFY(!iron.contains(QStringLiteral("balance_shaft")));
    QVERIFY(alloy.contains(QStringLiteral("balance_shaft")));
}

void TestSizes::weights_areHeldToATolerance()
{
    const auto parts = judgeWeights(demoBuild());
    for (const WeightSpread &s : parts) {
        if (s.part == "rod")
            QVERIFY(s.mark == Mark::Proven && std::abs(s.spread_g - 1.5) < 1e-9);
        if (s.part == "piston")
            QVERIFY(s.mark == Mark::LookAgain && std::abs(s.spread_g - 3.4) < 1e-9);
    }
    QCOMPARE(parts.size(), 2u);
}

void TestSizes::looseWeight_isNotProven()
{
    Build b = plain();
    for (const int item : { 1, 2 }) {
        Weighing w;
        w.part = "rod";
        w.item = item;
        w.grams = 600 + item * 0.1;
        b = applyEdit(b, WeighPart { w }).value();
    }
    for (const WeightSpread &s : judgeWeights(b))
        if (s.part == "rod")
            QVERIFY(s.mark == Mark::NotDone); // two of four
    Weighing none;
    none.part = "rod";
    QVERIFY(!applyEdit(b, WeighPart { none }));
}

} // namespace tst_sizes

MILDPATH_TEST(tst_sizes, TestSizes)
#include "tst_sizes.moc"
