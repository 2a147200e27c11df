// SPDX-License-Identifier: GPL-3.0-or-later
// A whole job led by what is next: every asked check is answered when its turn comes, none before
// what comes first, until the gate of the first start is open and the engine is handed over.
#include "checks/visible.h"
#include "checksfixture.h"
#include "plan/workplan.h"
#include "quantity/dates.h"
#include "testing.h"

#include <QtTest>

#include <algorithm>

namespace mildpath {
namespace tst_ledplan {

class TestLedPlan : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void job_isLedToItsEnd_data();
    void job_isLedToItsEnd();
};

namespace {

/// Does what the plan says is next, as a builder and a second person would.
class Builder
{
public:
    explicit Builder(const std::string &kinds, const std::string &engine)
        : m_build(fixture::newBuild(kinds, false, engine))
    {
        for (const char *name : { "A", "B" }) {
            Person p;
            p.name = name;
            m_build.people.push_back(p);
            m_build.people.back().id = std::string("p") + name;
        }
    }

    /// @return how many checks were answered; negative: it stood still
    int run(CheckGate until)
    {
        int done = 0;
        constexpr int most = 1500;
        for (int step = 0; step < most; ++step) {
            const Assessment now(m_build, m_at.substr(0, 10));
            m_list = &now.checks;
            if (now.checks.gate(until).open)
                return done;
            const WorkPlan plan = planOf(m_build, now.checks, m_at);
            const PlannedCheck *next = nextOf(plan);
            if (!next) {
                m_stuck = "nothing can be done";
                return -1;
            }
            const Check &c = *next->check;
            // Nothing that must come first is open.
            for (const size_t before : c.after)
                if (now.checks.all()[before].isOpen()) {
                    m_stuck = c.id() + " before " + now.checks.all()[before].id();
                    return -1;
                }
            if (!answer(c, now)) {
                m_stuck = c.id() + ": " + said(c.reason);
                return -1;
            }
            ++done;
        }
        m_stuck = "no end";
        return -1;
    }
    const std::string &stuck() const { return m_stuck; }
    const Build &build() const { return m_build; }

private:
    const PlannedCheck *nextOf(const WorkPlan &plan) const
    {
        for (const PlannedCheck &r : plan.rows)
            if (r.now && !m_tried.contains(r.check->id()))
                return &r;
        return nullptr;
    }

    /// Each thing takes a minute.
    std::string moment()
    {
        ++m_minute;
        char text[32];
        std::snprintf(text, sizeof text, "2026-02-02T%02d:%02d:00", 8 + m_minute / 60 % 14,
                      m_minute % 60);
        m_at = text;
        return m_at;
    }
    template <class Entry> bool record(Entry e)
    {
        e.by = "A";
        e.at = moment();
        const auto done = applyEdit(m_build, AddEntry { e });
        if (!done) {
            m_stuck = said(done.error().message);
            return false;
        }
        m_build = *done;
        return true;
    }

    bool answer(const Check &c, const Assessment &now)
    {
        m_tried.insert(c.id()); // a second time would find what the first did not mend
        if (takesFigure(c))
            return read(c, now);
        if (isAnsweredInList(c)) {
            CheckEntry e;
            e.kind = c.kind->id;
            e.places = { c.place.id };
            e.seenBy = "B";
            e.means = "camera"; // sees behind what is closed as well
            return record(e);
        }
        return sign(c);
    }

    bool read(const Check &c, const Assessment &now)
    {
        const std::string family = sizeFamilyOf(m_build, c);
        const GaugedSize *size = now.size(c.place.stop, family, std::max(1, c.place.item));
        CheckEntry e;
        e.kind = c.kind->id;
        e.places = { c.place.id };
        e.means = "gauge";
        if (size && size->limits) {
            e.value = (size->limits->min_um + size->limits->max_um) / 2;
            e.u = 0.5;
        }
        return record(e);
    }

    /// What is computed and still open by its turn: unsure of something nobody can measure here.
    bool sign(const Check &c)
    {
        for (const char *by : { "A", "B" }) {
            const Assessment now(m_build, m_at.substr(0, 10));
            const Check *open = now.checks.find(c.id());
            if (!open || !open->isOpen())
                return true;
            const auto signs = signChecks(m_build, now.checks, { c.id() }, by,
                                          "looked at together and accepted", "fire");
            if (!signs)
                return false;
            for (SignOff s : *signs) {
                s.at = moment();
                const auto done = applyEdit(m_build, AddEntry { s });
                if (!done)
                    return false;
                m_build = *done;
            }
        }
        return true;
    }

    Build m_build;
    const CheckList *m_list = nullptr;
    std::string m_at = "2026-02-02T08:00:00", m_stuck;
    std::set<std::string> m_tried;
    int m_minute = 0;
};

} // namespace

void TestLedPlan::job_isLedToItsEnd_data()
{
    QTest::addColumn<QString>("kinds");
    QTest::addColumn<QString>("engine");
    QTest::newRow("new build") << "N"
                               << "inline-four-wet-sump";
    QTest::newRow("freshen-up") << "R"
                                << "inline-four-wet-sump";
    QTest::newRow("oil change") << "O"
                                << "v6-four-cam";
    QTest::newRow("short block") << "B"
                                 << "inline-three-turbo";
    QTest::newRow("single") << "N"
                            << "single-air-cooled";
}

void TestLedPlan::job_isLedToItsEnd()
{
    QFETCH(QString, kinds);
    QFETCH(QString, engine);
    if (sanitized && kinds != u"O")
        QSKIP("the same code, minutes long");
    Builder builder(kinds.toStdString(), engine.toStdString());
    const int fired = builder.run(CheckGate::Fire);
    QVERIFY2(fired > 0, builder.stuck().c_str());
    // Nothing of the run itself was asked before the engine might run.
    QVERIFY(Assessment(builder.build(), "2026-02-02").checks.find("leaks@engine")->isOpen());
    const int more = builder.run(CheckGate::Handover);
    QVERIFY2(more > 0, builder.stuck().c_str());
    const Assessment end(builder.build(), "2026-02-02");
    int asked = 0;
    for (const Check &c : end.checks.all())
        asked += c.asked;
    qInfo("%d checks answered before it fired, %d after; %d asked", fired, more, asked);
    QVERIFY(end.checks.count(CheckState::Hold) == 0);
}

} // namespace tst_ledplan
MILDPATH_TEST(tst_ledplan, TestLedPlan)
} // namespace mildpath

#include "tst_ledplan.moc"
