// SPDX-License-Identifier: GPL-3.0-or-later
// What a forecast does not know: what is asked, what narrows it, what readings make of it.
#include "assess/believed.h"
#include "assess/circuitof.h"
#include "assess/growth.h"
#include "assess/narrowed.h"
#include "assess/operatingmodel.h"
#include "checks/assessment.h"
#include "checks/verdictreport.h"
#include "checks/verdicttable.h"
#include "diagnose/diagnosis.h"
#include "document/edit.h"
#include "document/enginevalue.h"
#include "entries.h"
#include "start/afterwards.h"
#include "storage/buildfile.h"
#include "storage/templates.h"
#include "testing.h"

#include <set>

using namespace mildpath;

namespace tst_doubts {

namespace {

/// The gauge read while a drill primes the build.
Build primed(const Build &b, double pressure_pa)
{
    GaugeReading r;
    r.tap = b.gaugeTap;
    r.byDrill = true;
    r.rpm = primeTurn(b).shaft_rpm;
    r.oil_c = primeOil_c(b);
    r.pressure_kpa = pressure_pa / 1e3;
    r.by = "check";
    r.at = "2026-11-30T10:00:00";
    return applyEdit(b, AddEntry { r }).value();
}

} // namespace

class TestDoubts : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void reliefsReturn_isAskedAndFollowed();
    void coldSuction_isAmongTheDeepest();
    void gaugedTemplates_areSureBeforePriming_data();
    void gaugedTemplates_areSureBeforePriming();
    void wideRanges_nameWhatNarrowsThem();
    void primingIsNamed_byWhatItWouldLeave();
    void readings_areBelievedAsFarAsTheyGo();
    void readingOfAnotherOil_doesNotCount();
    void primingByDrill_narrowsTheRunningEngine();
    void causesOfWideRanges_areGatheredByWhatNarrowsThem();
    void untilItRuns_primingIsAmongTheNextReadings();
};

void TestDoubts::reliefsReturn_isAskedAndFollowed()
{
    const Build b = demoBuild();
    const auto to
        = [&](const char *where) { return applyEdit(b, SetReliefReturn { where }).value(); };
    const auto relief = [](const Build &build) {
        const Circuit c = circuitOf(build, judgeSizes(build), settledTemperatures(build, 100));
        const Stop *s = build.engine.ofKind(StopKind::Relief);
        return c.find(s->elements.front())->to;
    };
    QCOMPARE(relief(to("sump")), std::string(sumpNode));
    QVERIFY(relief(to("inlet")) != sumpNode);
    QCOMPARE(relief(to("unknown")), relief(to("inlet"))); // the forecast takes the inlet
    QVERIFY(!applyEdit(b, SetReliefReturn { "moon" }));
    const auto deepest = [](const Build &build) {
        double out = 1e9;
        for (const SuctionPoint &p : assess(build).operating.suction)
            out = std::min(out, p.inlet_pa);
        return out;
    };
    // To the sump all of it comes through the pickup; as long as nobody knows, so it is reckoned.
    QVERIFY(deepest(to("sump")) < deepest(to("inlet")) - 1000);
    verifyClose(deepest(to("unknown")), deepest(to("sump")), 0.02);
    const auto asked = [](const Build &build) {
        const Assessment a = assess(build);
        return std::ranges::any_of(
            a.findings, [](const Finding &f) { return f.id.starts_with("relief_return@"); });
    };
    QVERIFY(asked(to("unknown")) && !asked(to("sump")) && !asked(b));
    // Entered on the circuit, the question is answered.
    const Stop *s = b.engine.ofKind(StopKind::Relief);
    const auto entered = applyEdit(
        to("unknown"),
        SetEngineValue { "circuit/" + s->elements.front() + "/to_sump", 1, Origin::Shop });
    QVERIFY(entered && entered->use.reliefReturnsTo.empty());
    QVERIFY(!asked(*entered));
    const auto read = parseBuild(buildText(to("unknown")));
    QVERIFY(read);
    QCOMPARE(read->build.use.reliefReturnsTo, std::string("unknown"));
}

void TestDoubts::coldSuction_isAmongTheDeepest()
{
    const Build b = demoBuild();
    const auto points = assess(b).operating.suction;
    QCOMPARE(points.size(), size_t(4));
    int cold = 0;
    for (const SuctionPoint &p : points) {
        QVERIFY(p.inlet_pa > -101.3e3 && p.inlet_pa < 20e3);
        cold += p.oil_c == b.use.coldestStart_c;
    }
    QCOMPARE(cold, 2); // idling and fast
}

void TestDoubts::gaugedTemplates_areSureBeforePriming_data()
{
    QTest::addColumn<QString>("name");
    for (const TemplateInfo &t : listTemplates())
        if (!sanitized || t.name.starts_with("v"))
            QTest::newRow(t.name.c_str()) << QString::fromStdString(t.name);
}

/// Gauged throughout at the middle of its limits, a template is enough everywhere: nothing that
/// must never be skipped is unsure, and what is names the way to settle it.
void TestDoubts::gaugedTemplates_areSureBeforePriming()
{
    QFETCH(QString, name);
    Build b = loadTemplate(name.toStdString())->build;
    for (const GaugedSize &s : judgeSizes(b)) {
        Reading r;
        r.stop = s.stop;
        r.family = s.family;
        r.item = s.item;
        r.method = std::string(findFamily(s.family)->methods.front());
        r.value_um = s.circuit_um;
        r.by = "check";
        r.at = "2026-11-30T10:00:00";
        if (auto with = applyEdit(b, EnterReading { r }))
            b = std::move(*with);
    }
    Job job; // a new build: everything is asked
    job.kinds = { "N" };
    b = withEntry(std::move(b), job);
    const Assessment a = assess(b);
    int gauged = 0, computed = 0;
    for (const GaugedSize &s : a.sizes)
        gauged += s.measured;
    QVERIFY(gauged > 0.6 * static_cast<double>(a.sizes.size()));
    for (const Check &c : a.checks.all())
        computed += c.asked && c.kind->by == "C" && c.evident == Evident::Yes;
    QVERIFY2(computed > 5, qPrintable(QString::number(computed)));
    for (const Check &c : a.checks.all())
        if (c.asked && c.evident == Evident::Unsure
            && c.kind->by.find('C') != std::string_view::npos) {
            QVERIFY2(!c.next.empty() || c.kind->id == "air", c.id().c_str());
            QVERIFY2(c.cls != CheckClass::Never, (c.id() + ": " + said(c.reason)).c_str());
        }
}

void TestDoubts::wideRanges_nameWhatNarrowsThem()
{
    const Build b = loadTemplate("inline-four-wet-sump")->build;
    const auto sizes = judgeSizes(b);
    auto model = OperatingModel::make(b, sizes, b.use.hotOil_c);
    const std::string node = b.circuit.taps.at(b.gaugeTap);
    const auto doubts = model->likelyAt(b.use.hotIdle_rpm, std::span(&node, 1));
    const LikelyPressure now = doubts->front().pressure;
    const auto width = [](const LikelyPressure &p) { return std::log(p.high_pa / p.low_pa); };
    DoubtfulPressure gaugedAll = doubts->front();
    std::erase_if(gaugedAll.from, [](const Doubt &d) { return !d.family.empty(); });
    const Narrowing read = narrowest(gaugedAll, 0, nullptr);
    QCOMPARE(read.by, std::string(Narrowing::there));
    QVERIFY(width(read.to) < 0.6 * width(now));
    // Where gauging alone is enough, gauging is named.
    const Narrowing gauged = narrowest(doubts->front(), now.low_pa * 1.0001, nullptr);
    QVERIFY2(said(gauged.what).starts_with("Gauge all "), said(gauged.what).c_str());
    QVERIFY(width(gauged.to) < width(now) && gauged.to.low_pa >= now.low_pa);
}

/// What a reading while priming would leave is what believing one leaves.
void TestDoubts::primingIsNamed_byWhatItWouldLeave()
{
    Build b = loadTemplate("inline-four-three-main")->build;
    const auto sizes = judgeSizes(b);
    const auto primedThere = whilePriming(b, sizes);
    QVERIFY(primedThere);
    auto model = OperatingModel::make(b, sizes, b.use.hotOil_c);
    const std::string node = b.circuit.taps.at(b.gaugeTap);
    const auto doubts = model->likelyAt(b.use.hotIdle_rpm, std::span(&node, 1));
    const Narrowing named = narrowest(doubts->front(), 0, &*primedThere);
    QCOMPARE(named.by, std::string(Narrowing::priming));
    const auto believed = Believed::by(primed(b, primedThere->forecast_pa), sizes);
    auto with = OperatingModel::make(believed->applied(b), sizes, b.use.hotOil_c);
    const LikelyPressure now = with->at(b.use.hotIdle_rpm)->gauge;
    // But for what is left there for something that is not on the list.
    const auto width = [](const LikelyPressure &p) { return std::log(p.high_pa / p.low_pa); };
    verifyClose(width(named.to), width(now), 0.12);
    // Once it runs it is not primed any more.
    Build ran = primed(b, primedThere->forecast_pa);
    QVERIFY(whilePriming(ran, sizes));
    ran.gaugeReadings.back().byDrill = false;
    ran.gaugeReadings.back().rpm = b.use.hotIdle_rpm;
    QVERIFY(!whilePriming(ran, sizes));
}

void TestDoubts::readings_areBelievedAsFarAsTheyGo()
{
    Build b = demoBuild();
    const auto sizes = judgeSizes(b);
    QVERIFY(!Believed::by(b, sizes));
    auto plain = OperatingModel::make(b, sizes, 100.0);
    const double forecast = plain->at(800)->gauge.value_pa;
    const auto read = [&](double share) {
        Build with = b;
        GaugeReading r;
        r.tap = b.gaugeTap;
        r.rpm = 800;
        r.oil_c = 100;
        r.pressure_kpa = share * forecast / 1e3;
        r.by = "check";
        r.at = "2026-11-30T10:00:00";
        return applyEdit(with, AddEntry { r }).value();
    };
    for (const double share : { 0.8, 1.0, 1.25 }) {
        const Build with = read(share);
        const auto believed = Believed::by(with, sizes);
        QVERIFY2(believed, believed ? "" : said(believed.error().message).c_str());
        auto model = OperatingModel::make(believed->applied(with), sizes, 100.0);
        auto same = OperatingModel::make(with, sizes, 100.0);
        const LikelyPressure now = model->at(800)->gauge, was = same->at(800)->gauge;
        // Between forecast and reading, near the reading; narrower.
        const double moved = std::log(now.value_pa / forecast) / (share == 1 ? 1 : std::log(share));
        QVERIFY2(share == 1 ? std::abs(moved) < 0.02 : moved > 0.6 && moved < 1.01,
                 qPrintable(QString::number(moved)));
        QVERIFY(std::log(now.high_pa / now.low_pa) < 0.67 * std::log(was.high_pa / was.low_pa));
        QVERIFY(!believed->nothingExplains());
    }
    // With the relief valve open it is the valve that is read.
    for (const double rpm : { 800.0, 5800.0 }) {
        GaugeReading r;
        r.tap = b.gaugeTap;
        r.rpm = rpm;
        r.oil_c = 60;
        r.pressure_kpa = assessAt(b, sizes, rpm, 60)->gauge.value_pa / 1e3;
        r.by = "check";
        r.at = "2026-11-30T10:00:00";
        const auto idle = believedIdle(applyEdit(b, AddEntry { r }).value(), sizes);
        QCOMPARE(idle->onRelief, rpm > 1000 ? 1u : 0u);
        QCOMPARE(said(believedText(*idle)).find("relief valve tells of that only")
                     != std::string::npos,
                 rpm > 1000);
    }
    // A third of it is no scatter.
    const auto off = Believed::by(read(0.3), sizes);
    QVERIFY(off->nothingExplains() && off->offProbability() > 0.5);
}

void TestDoubts::readingOfAnotherOil_doesNotCount()
{
    Build b = demoBuild();
    GaugeReading r;
    r.tap = b.gaugeTap;
    r.rpm = 800;
    r.oil_c = 100;
    r.pressure_kpa = 150;
    r.oil = "0W-20";
    r.by = "check";
    r.at = "2026-11-30T10:00:00";
    b = applyEdit(b, AddEntry { r }).value();
    QCOMPARE(Believed::by(b, judgeSizes(b)).error().place, std::string("readings"));
}

/// The crank rests while a drill turns the pump: what the gauge shows then is of the same engine.
void TestDoubts::primingByDrill_narrowsTheRunningEngine()
{
    // Neither relief nor jets open at that speed: they alone would hold the pressure.
    const Build b = loadTemplate("inline-four-three-main")->build;
    const auto sizes = judgeSizes(b);
    const PrimeTurn turn = primeTurn(b);
    QVERIFY(turn.drill && turn.turned().pumpAlone);
    auto cold = OperatingModel::make(b, sizes, 20.0);
    const double forecast = cold->at(turn.turned())->gauge.value_pa;
    auto plain = OperatingModel::make(b, sizes, 100.0);
    const LikelyPressure was = plain->at(b.use.hotIdle_rpm)->gauge;
    double before = 0;
    for (const double share : { 0.95, 1.0, 1.05 }) {
        const Build with = primed(b, share * forecast);
        const auto believed = Believed::by(with, sizes);
        QVERIFY2(believed, believed ? "" : said(believed.error().message).c_str());
        auto model = OperatingModel::make(believed->applied(with), sizes, 100.0);
        const LikelyPressure now = model->at(b.use.hotIdle_rpm)->gauge;
        const double width = std::log(now.high_pa / now.low_pa);
        QVERIFY2(width < 0.8 * std::log(was.high_pa / was.low_pa),
                 qPrintable(QString::number(width)));
        QVERIFY(now.value_pa > before); // a higher reading, a higher forecast
        before = now.value_pa;
        // Read against what it was forecast to be, not against a running engine.
        const auto residuals = residualsOf(with, sizes);
        verifyClose(residuals->front().expected.value_pa, forecast, 1e-6);
    }
}

void TestDoubts::causesOfWideRanges_areGatheredByWhatNarrowsThem()
{
    const Build b = loadTemplate("v6-four-cam")->build; // nothing is gauged
    const Figures f(b);
    const VerdictTable table = verdictTable(b, f);
    const VerdictRanges ranges = verdictRanges(b, f, nullptr);
    int past = 0, told = 0;
    for (const VerdictRow &row : table.rows)
        for (size_t k = 0; k < table.states.size(); ++k)
            if (const VerdictRange *r = ranges.find(row.id, table.states[k]->kind->id);
                r && row.cells[k].limit > 0)
                past += reachesPast(row, row.cells[k], *r);
    const auto causes = wideCauses(table, ranges);
    QVERIFY(!causes.empty());
    std::set<std::string> once;
    for (const WideCause &c : causes) {
        QVERIFY(once.insert(c.by).second);
        QVERIFY(c.settled <= c.past && c.past <= c.figures && c.figures > 0);
        QCOMPARE(said(c.action).starts_with("Gauge all "), findFamily(c.by) != nullptr);
        told += c.past;
        QVERIFY(c.settled <= causes.front().settled);
    }
    QCOMPARE(told, past);
    // Files and people are told the same.
    const Json json = verdictsToJson(table, ranges);
    QCOMPARE(json["wide"].size(), causes.size());
    size_t cells = 0, ranged = 0;
    for (const Json &row : json["rows"])
        for (const Json &cell : row["cells"]) {
            ++cells;
            if (cell["low"].is_null())
                continue;
            ++ranged;
            QVERIFY(cell["low"] <= cell["value"] && cell["value"] <= cell["high"]);
        }
    QCOMPARE(cells, static_cast<size_t>(table.inside + table.doubtful + table.beyond));
    QVERIFY(ranged > cells / 2 && ranged <= ranges.cells.size());
    const std::string text = verdictsText(table, ranges, fileStyle);
    for (const WideCause &c : causes)
        QVERIFY(text.find(said(wideText(c))) != std::string::npos);
}

void TestDoubts::untilItRuns_primingIsAmongTheNextReadings()
{
    const auto byDrill = [](const Build &b) {
        const auto d = diagnose(b, judgeSizes(b));
        int out = 0;
        for (const NextStep &n : d->next)
            if (!n.look && n.condition.byDrill) {
                ++out;
                if (said(n.text).find("drill at 250 rpm") == std::string::npos)
                    return -1;
            }
        return out;
    };
    Build b = demoBuild();
    QVERIFY(byDrill(b) > 0);
    b = primed(b, 2e5);
    b.gaugeReadings.back().byDrill = false;
    b.gaugeReadings.back().rpm = b.use.hotIdle_rpm;
    QCOMPARE(byDrill(b), 0);
}

} // namespace tst_doubts

MILDPATH_TEST(tst_doubts, TestDoubts)
#include "tst_doubts.moc"
