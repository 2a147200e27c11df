// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/sizes.h"
#include "diagnose/faults.h"
#include "diagnose/whatif.h"
#include "quantity/json.h"
#include "testing.h"

// Every fault the program knows, at every stop of every demo where it can happen: the engine can
// still be solved, oil is neither made nor lost, a worse fault does more, and the words name it.

using namespace mildpath;

namespace tst_faultsweep {

class TestFaultSweep : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void everyKind_happensSomewhere();
    void everyFault_isSolvedAndNamed_data() { demos(); }
    void everyFault_isSolvedAndNamed();
    void noFault_isTheHealthyEngine_data() { demos(); }
    void noFault_isTheHealthyEngine();
    void worse_movesTheGaugeFurther_data();
    void worse_movesTheGaugeFurther();
    void kinds_moveTheGaugeTheirWay_data();
    void kinds_moveTheGaugeTheirWay();
    void oil_isNeitherMadeNorLost_data() { demos(); }
    void oil_isNeitherMadeNorLost();
    void words_areParsedBack_data() { demos(); }
    void words_areParsedBack();
    void unknownFaults_areRefused_data();
    void unknownFaults_areRefused();
    void kinds_haveSenseInTheirNumbers();

private:
    struct Demo
    {
        QString name;
        Build build;
        std::vector<GaugedSize> sizes;
        std::vector<Fault> faults; ///< everything that can happen, at its usual severity
    };
    void demos()
    {
        QTest::addColumn<int>("demo");
        for (size_t i = 0; i < m_demos.size(); ++i)
            QTest::newRow(qPrintable(m_demos[i].name)) << static_cast<int>(i);
    }
    const Demo &here() const
    {
        QFETCH(int, demo);
        return m_demos[static_cast<size_t>(demo)];
    }
    Result<WhatIf> with(const Demo &d, const Fault &fault, double rpm = 0, double oil_c = 0) const
    {
        return whatIf(d.build, d.sizes, { fault }, rpm > 0 ? rpm : d.build.use.hotIdle_rpm,
                      oil_c > 0 ? oil_c : d.build.use.hotOil_c);
    }
    std::vector<Demo> m_demos;
};

void TestFaultSweep::initTestCase()
{
    for (const char *name : { "harbour-fire-pump", "harbour-launch-turbo" }) {
        const auto loaded
            = loadBuild(demoBuildPath().parent_path() / (std::string(name) + ".mildpath"));
        QVERIFY(loaded);
        Demo d { QString::fromLatin1(name), loaded->build, judgeSizes(loaded->build), {} };
        for (const Stop &stop : d.build.engine.stops)
            for (const Fault &f : faultsAt(d.build, stop))
                d.faults.push_back(f);
        m_demos.push_back(std::move(d));
    }
}

void TestFaultSweep::everyKind_happensSomewhere()
{
    std::set<std::string> seen;
    for (const Demo &d : m_demos)
        for (const Fault &f : d.faults)
            seen.insert(f.kind);
    QStringList never;
    for (const FaultKind &k : faultKinds())
        if (!seen.contains(std::string(k.id)))
            never << QString::fromUtf8(k.id.data(), static_cast<qsizetype>(k.id.size()));
    // A dry sump has faults of its own; no demo is one.
    QVERIFY2(never.size() <= 4, qPrintable(never.join(u' ')));
}

void TestFaultSweep::everyFault_isSolvedAndNamed()
{
    const Demo &d = here();
    QVERIFY(d.faults.size() > 20);
    for (const Fault &f : d.faults) {
        const auto r = with(d, f);
        QVERIFY2(r, (faultId(f) + ": " + (r ? "" : said(r.error().message))).c_str());
        QVERIFY(std::isfinite(r->after.gauge.value_pa));
        for (const PointPressure &p : r->after.points)
            QVERIFY2(std::isfinite(p.pressure_pa) && p.pressure_pa > -101325, p.name.c_str());
        QVERIFY(!r->gauge.empty());
        const std::string name = faultName(d.build, f);
        QVERIFY(!name.empty());
        const FaultKind &kind = *findFaultKind(f.kind);
        QVERIFY(kind.measure == Measure::OnOff || kind.measure == Measure::Restrictor
                || !severityText(d.build, f).empty());
    }
}

void TestFaultSweep::noFault_isTheHealthyEngine()
{
    const Demo &d = here();
    for (size_t i = 0; i < d.faults.size(); i += 2) {
        const Fault &f = d.faults[i];
        const FaultKind &kind = *findFaultKind(f.kind);
        // What is left of a lost jet has lost its valve whatever its bore.
        if (!graded(kind) || kind.measure == Measure::Jet_mm)
            continue;
        const auto r = with(d, Fault { f.kind, f.stop, f.item, 0 });
        QVERIFY2(r, faultId(f).c_str());
        verifyClose(r->after.gauge.value_pa, r->before.gauge.value_pa, 2e-3, 50,
                    QString::fromStdString(faultId(f)));
    }
}

void TestFaultSweep::worse_movesTheGaugeFurther_data()
{
    QTest::addColumn<QString>("fault");
    for (const char *f :
         { "mains_worn", "big_ends_worn", "pump_worn", "swarf@main_1", "swarf@rocker_shaft",
           "relief_stuck_open", "suction_air", "pickup_blocked", "fuel_in_oil", "lifter_bores_worn",
           "cams_worn", "oil_too_thin", "bypass_leaking" })
        QTest::newRow(f) << QString::fromLatin1(f);
}

void TestFaultSweep::worse_movesTheGaugeFurther()
{
    QFETCH(QString, fault);
    const Demo &d = m_demos.front();
    auto f = parseFault(d.build, fault.toStdString());
    if (!f) // not on this engine, or known by another word
        QSKIP(said(f.error().message).c_str());
    double before = 0;
    for (const double severity : { 0.2, 0.5, 0.8, 1.0 }) {
        f->severity = severity;
        const auto r = with(d, *f);
        QVERIFY(r);
        const double moved = std::abs(r->after.gauge.value_pa - r->before.gauge.value_pa);
        QVERIFY2(
            moved >= before - 200,
            qPrintable(
                QStringLiteral("%1 Pa at %2, %3 before").arg(moved).arg(severity).arg(before)));
        before = moved;
    }
}

void TestFaultSweep::kinds_moveTheGaugeTheirWay_data()
{
    QTest::addColumn<QString>("fault");
    QTest::addColumn<int>("way");
    // Leaks drain the gallery; what is shut before its outlets lets the pressure rise there.
    const std::pair<const char *, int> rows[] = {
        { "mains_worn", -1 },        { "big_ends_worn", -1 },     { "pump_worn", -1 },
        { "relief_stuck_open", -1 }, { "lifter_bores_worn", -1 }, { "cams_worn", -1 },
        { "fuel_in_oil", -1 },       { "oil_too_thin", -1 },      { "oil_too_thick", 1 },
        { "shell_spun@main_2", 1 },  { "swarf@rocker_shaft", 1 },
    };
    for (const auto &[fault, way] : rows)
        QTest::newRow(fault) << QString::fromLatin1(fault) << way;
}

void TestFaultSweep::kinds_moveTheGaugeTheirWay()
{
    QFETCH(QString, fault);
    QFETCH(int, way);
    const Demo &d = m_demos.front();
    auto f = parseFault(d.build, fault.toStdString());
    if (!f)
        QSKIP(said(f.error().message).c_str());
    f->severity = 1;
    const auto r = with(d, *f);
    QVERIFY(r);
    const double moved = r->after.gauge.value_pa - r->before.gauge.value_pa;
    QVERIFY2(moved * way > 0, qPrintable(QString::number(moved)));
}

/// What the pump sweeps goes out at the outlets, over the relief or back through its own gaps.
void TestFaultSweep::oil_isNeitherMadeNorLost()
{
    const Demo &d = here();
    for (size_t i = 0; i < d.faults.size(); i += 3) {
        const auto r = with(d, d.faults[i], 2500, 90);
        QVERIFY(r);
        double shares = 0;
        for (const OilShare &s : r->after.shares)
            shares += s.flow_m3_s;
        verifyClose(shares, r->after.sweptFlow_m3_s, 0.02, 1e-7,
                    QString::fromStdString(faultId(d.faults[i])));
    }
}

void TestFaultSweep::words_areParsedBack()
{
    const Demo &d = here();
    for (Fault f : d.faults) {
        const FaultKind &kind = *findFaultKind(f.kind);
        if (graded(kind))
            f.severity = 0.6;
        std::string text = faultId(f);
        if (graded(kind))
            text += "=0.6";
        const auto back = parseFault(d.build, text);
        QVERIFY2(back, text.c_str());
        QCOMPARE(back->kind, f.kind);
        QCOMPARE(back->item, f.item);
        if (!kind.wholeFamily)
            QCOMPARE(back->stop, f.stop);
        if (graded(kind))
            QCOMPARE(back->severity, 0.6);
    }
}

void TestFaultSweep::unknownFaults_areRefused_data()
{
    QTest::addColumn<QString>("text");
    for (const char *text : { "", "gremlins", "swarf@attic", "swarf@main_1=7", "swarf@main_1=-1",
                              "swarf@main_1=much", "swarf@main_1.99", "mains_worn@pump", "=1",
                              "@main_1", "swarf@", "swarf@main_1=", "swarf@main_1=nan" })
        QTest::newRow(*text ? text : "nothing") << QString::fromLatin1(text);
}

void TestFaultSweep::unknownFaults_areRefused()
{
    QFETCH(QString, text);
    const auto f = parseFault(m_demos.front().build, text.toStdString());
    QVERIFY(!f);
    QVERIFY(!f.error().message.empty());
}

void TestFaultSweep::kinds_haveSenseInTheirNumbers()
{
    std::set<std::string_view> ids, names;
    for (const FaultKind &k : faultKinds()) {
        QVERIFY2(ids.insert(k.id).second, std::string(k.id).c_str());
        QVERIFY2(names.insert(k.name).second, std::string(k.name).c_str());
        QVERIFY(k.usual >= 0 && k.usual <= 1);
        QVERIFY(k.prior >= 0 && k.prior < 0.5);
        QVERIFY(k.most >= 0);
        QVERIFY(!k.stopKinds.empty());
        QVERIFY(k.lookedForAs.empty() || findFaultKind(k.lookedForAs));
        QVERIFY(k.amount(0) == 0 || !graded(k));
        if (graded(k) && k.most > 0)
            QVERIFY2(k.amount(1) >= k.amount(0.5), std::string(k.id).c_str());
    }
    QVERIFY(!findFaultKind("gremlins"));
}

} // namespace tst_faultsweep

MILDPATH_TEST(tst_faultsweep, TestFaultSweep)
#include "tst_faultsweep.moc"
