// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/shells.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "study/shellplan.h"
#include "testing.h"

#include <algorithm>
#include <random>

using namespace mildpath;

namespace tst_shells {

namespace {

/// Every assignment there is, by the stated order of goals: the oracle.
class Enumeration
{
public:
    Enumeration(std::vector<ShellClass> classes, std::vector<JournalSpace> journals, double least,
                double most, double target)
        : m_classes(std::move(classes))
        , m_journals(std::move(journals))
        , m_least(least)
        , m_most(most)
        , m_target(target)
        , m_left(m_classes.size())
    {
        for (size_t i = 0; i < m_classes.size(); ++i) {
            m_left[i] = m_classes[i].halves.value_or(1000);
            for (size_t k = 0; k < m_classes.size(); ++k)
                if (i == k || neighbours(i, k))
                    m_pairs.push_back({ i, k });
        }
        go(0, 0, 0, 0);
    }
    bool any = false;
    int outside = 0;
    double largest = 0, squares = 0;

private:
    /// No other wall lies between the two.
    bool neighbours(size_t a, size_t b) const
    {
        const double low = std::min(m_classes[a].wall_m, m_classes[b].wall_m);
        const double high = std::max(m_classes[a].wall_m, m_classes[b].wall_m);
        return std::none_of(m_classes.begin(), m_classes.end(),
                            [&](const ShellClass &c) { return c.wall_m > low && c.wall_m < high; });
    }
    void go(size_t journal, int out, double most, double sum)
    {
        if (journal == m_journals.size()) {
            const bool better = !any || out < outside
                || (out == outside
                    && (most < largest - 1e-12 || (most < largest + 1e-12 && sum < squares)));
            if (better) {
                any = true;
                outside = out;
                largest = most;
                squares = sum;
            }
            return;
        }
        for (const auto &[a, b] : m_pairs) {
            if (--m_left[a], --m_left[b]; m_left[a] >= 0 && m_left[b] >= 0) {
                const double c
                    = m_journals[journal].space_m - m_classes[a].wall_m - m_classes[b].wall_m;
                const double d = c - m_target;
                go(journal + 1, out + (c < m_least - 1e-12 || c > m_most + 1e-12),
                   std::max(most, std::abs(d)), sum + d * d);
            }
            ++m_left[a];
            ++m_left[b];
        }
    }

    std::vector<ShellClass> m_classes;
    std::vector<JournalSpace> m_journals;
    double m_least, m_most, m_target;
    std::vector<int> m_left;
    std::vector<std::pair<size_t, size_t>> m_pairs;
};

} // namespace

class TestShells : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void selection_isTheTrueOptimum_data();
    void selection_isTheTrueOptimum();
    void stock_isNeverOverdrawn();
    void impossible_isSaid_data();
    void impossible_isSaid();
    void ownLimits_goBeforeThoseOfAll();
    void regrind_keepsTheClearance();
    void demoPlan_bringsTheWornMainInside();
    void stampedClasses_doWithoutAGauge();
    void otherShells_askForTheGaugeAgain();
};

void TestShells::selection_isTheTrueOptimum_data()
{
    QTest::addColumn<int>("seed");
    for (int seed = 0; seed < 60; ++seed)
        QTest::addRow("%d", seed) << seed;
}

void TestShells::selection_isTheTrueOptimum()
{
    QFETCH(int, seed);
    std::mt19937 random(static_cast<unsigned>(seed));
    const auto uniform = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    std::vector<ShellClass> classes;
    const size_t count = 2 + random() % 4;
    for (size_t i = 0; i < count; ++i)
        classes.push_back(
            { "c" + std::to_string(i),
              (2000 + 4.0 * static_cast<double>(i) + uniform(-1, 1)) * 1e-6,
              random() % 2 ? std::optional<int>(static_cast<int>(random() % 7)) : std::nullopt });
    std::shuffle(classes.begin(), classes.end(), random);
    std::vector<JournalSpace> journals;
    const size_t mains = 1 + random() % 4;
    for (size_t j = 0; j < mains; ++j)
        journals.push_back({ "m", (4050 + uniform(-25, 35)) * 1e-6 });
    const double least = 35e-6, most = 55e-6, target = 46e-6;
    const Enumeration truth(classes, journals, least, most, target);
    const auto found = selectShells(classes, journals, { { least }, { most }, { target } });
    QCOMPARE(found.has_value(), truth.any);
    if (!found)
        return;
    QCOMPARE(found->outside, truth.outside);
    verifyClose(found->largestDeviation_m, truth.largest, 1e-9);
    verifyClose(found->sumOfSquares_m2, truth.squares, 1e-6);
}

void TestShells::stock_isNeverOverdrawn()
{
    std::vector<ShellClass> classes;
    for (int i = 0; i < 5; ++i)
        classes.push_back({ std::string(1, static_cast<char>('a' + i)), (2000 + 4 * i) * 1e-6, 3 });
    std::vector<JournalSpace> journals(7, JournalSpace { "m", 4056e-6 });
    const auto found = selectShells(classes, journals, { { 35e-6 }, { 65e-6 }, { 48e-6 } });
    QVERIFY(found);
    std::vector<int> used(5);
    for (const ShellChoice &c : found->journals) {
        ++used[static_cast<size_t>(c.upper)];
        ++used[static_cast<size_t>(c.lower)];
        QVERIFY(std::abs(c.upper - c.lower) <= 1); // walls stand in order here
    }
    for (const int n : used)
        QVERIFY(n <= 3);
}

void TestShells::impossible_isSaid_data()
{
    QTest::addColumn<int>("classes");
    QTest::addColumn<int>("halves");
    QTest::addColumn<int>("journals");
    QTest::addColumn<QString>("place");
    QTest::newRow("no classes") << 0 << 4 << 2 << QStringLiteral("classes");
    QTest::newRow("too many classes") << 13 << 4 << 2 << QStringLiteral("classes");
    QTest::newRow("no journals") << 3 << 4 << 0 << QStringLiteral("journals");
    QTest::newRow("not enough halves") << 2 << 2 << 3 << QStringLiteral("stock");
}

void TestShells::impossible_isSaid()
{
    QFETCH(int, classes);
    QFETCH(int, halves);
    QFETCH(int, journals);
    QFETCH(QString, place);
    std::vector<ShellClass> all;
    for (int i = 0; i < classes; ++i)
        all.push_back({ std::to_string(i), (2000 + i) * 1e-6, halves });
    const auto r = selectShells(all, std::vector<JournalSpace>(static_cast<size_t>(journals)),
                                { { 0 }, { 1 }, { 0.5 } });
    QVERIFY(!r);
    QCOMPARE(QString::fromStdString(r.error().place), place);
}

void TestShells::ownLimits_goBeforeThoseOfAll()
{
    // Two journals alike, walls 2.000 and 2.010 mm: clearances 60 and 40 µm.
    const std::vector<ShellClass> classes { { "thin", 2.000e-3 }, { "thick", 2.010e-3 } };
    const ClearanceAim all { { 30e-6 }, { 50e-6 }, { 40e-6 } };
    std::vector<JournalSpace> journals { { "a", 4.060e-3 }, { "b", 4.060e-3 } };
    journals[1].own = ClearanceAim { { 55e-6 }, { 70e-6 }, { 60e-6 } };
    const auto found = selectShells(classes, journals, all);
    QVERIFY(found);
    QCOMPARE(found->outside, 0);
    verifyClose(found->journals[0].clearance.value_m, 40e-6, 1e-9);
    verifyClose(found->journals[1].clearance.value_m, 60e-6, 1e-9);
}

void TestShells::regrind_keepsTheClearance()
{
    // Journal down by 0.25 mm, each wall up by 0.125: the clearance is as before. Plain geometry.
    const auto steps
        = regrindSteps(64.050e-3, 2.0e-3, { 35e-6 }, { 65e-6 }, { 48e-6 }, { 0.25e-3 });
    QCOMPARE(steps.size(), 1u);
    verifyClose(steps[0].wall_m, 2.125e-3, 1e-12);
    verifyClose(steps[0].journalTarget_m, 64.050e-3 - 4.25e-3 - 48e-6, 1e-12);
    verifyClose(steps[0].journalMost_m - steps[0].journalLeast_m, 30e-6, 1e-9);
}

void TestShells::demoPlan_bringsTheWornMainInside()
{
    const Build b = demoBuild();
    const auto a = assess(b);
    const auto plan = shellPlan(b, a.sizes, "main");
    QVERIFY2(plan, plan ? "" : said(plan.error().message).c_str());
    QCOMPARE(plan->best.outside, 0);
    QCOMPARE(plan->stops.size(), 5u);
    // Thicker shells at the worn main: its clearance goes down by what the walls gain.
    const size_t worn = 3;
    const ShellChoice &c = plan->best.journals[worn];
    const double walls = plan->classes[static_cast<size_t>(c.upper)].wall_m
        + plan->classes[static_cast<size_t>(c.lower)].wall_m - 2 * 2.0e-3;
    verifyClose(c.clearance.value_m * 1e6, a.size("main_4")->cold_um.value - walls * 1e6, 1e-9);
    QVERIFY(plan->hotIdle.gauge.value_pa > a.operating.hotIdle.gauge.value_pa);
}

void TestShells::stampedClasses_doWithoutAGauge()
{
    Build b = demoBuild();
    b.readings.clear();
    const auto plan = shellPlan(b, judgeSizes(b), "main");
    QVERIFY2(plan, plan ? "" : said(plan.error().message).c_str());
    // Main 1: housing 2 (64.049 to 64.055), journal B (59.996 to 60.002): middles 64.052
    // and 59.999.
    verifyClose(plan->spaces[0].space_m, 4.053e-3, 1e-9);
    QVERIFY(plan->from[0].find("stamped") == 0);
    b.shells.at("main").fitted.at("main_2") = {};
    const auto without = shellPlan(b, judgeSizes(b), "main");
    QVERIFY(!without && said(without.error().message).find("Main 2") == 0);
}

void TestShells::otherShells_askForTheGaugeAgain()
{
    Build b = demoBuild();
    FittedShells other = b.shells.at("main").fitted.at("main_1");
    other.upper = "rust";
    b = applyEdit(b, FitShells { "main", "main_1", other }).value();
    const auto a = assess(b);
    QCOMPARE(markWord(a.size("main_1")->mark), markWord(Mark::LookAgain));
    QVERIFY(said(a.size("main_1")->verdict).find("other shells") != std::string::npos);
    other.upper = "no such colour";
    QVERIFY(!applyEdit(b, FitShells { "main", "main_1", other }));
}

} // namespace tst_shells

MILDPATH_TEST(tst_shells, TestShells)
#include "tst_shells.moc"
