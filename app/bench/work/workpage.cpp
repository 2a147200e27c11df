// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/workpage.h"

#include "checks/assessment.h"
#include "open/questions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "shell/costitems.h"

#include <QVBoxLayout>

namespace mildpath {

WorkPage::WorkPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_lanes(new WorkLanes(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_lanes, this), 1);
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (!isVisible()
            || (topic != qs(ask::plan().topic) && topic != qs(ask::checkCosts().topic)))
            return;
        refresh();
        Q_EMIT changed();
    });
    connect(m_lanes, &WorkLanes::picked, this, [this](const std::string &check) {
        m_lanes->choose(check);
        if (const Check *c = chosen(); c && !c->place.stop.empty())
            m_open.selectStop(qs(c->place.stop));
        Q_EMIT changed();
    });
    connect(m_lanes, &WorkLanes::goAsked, &m_open, &OpenBuild::wantCheck);
}

void WorkPage::reset()
{
    m_lanes->choose({});
    m_plan.reset();
}

/// What is drawn and what is said belong to the same plan: it keeps its own list.
void WorkPage::refresh()
{
    if (auto plan = m_open.answers().latest(ask::plan()))
        m_plan = plan;
    m_lanes->setPlan(m_plan ? &m_plan->about.assessment->checks : nullptr,
                     m_plan ? &m_plan->answer : nullptr);
    if (m_lanes->chosen().empty() && m_plan)
        if (const PlannedCheck *next = m_plan->answer.next())
            m_lanes->choose(next->check->id());
}

const Check *WorkPage::chosen() const
{
    return m_plan ? m_plan->about.assessment->checks.find(m_lanes->chosen()) : nullptr;
}

QString WorkPage::about() const
{
    if (!m_plan)
        return {};
    int asked = 0;
    for (const Check &c : m_plan->about.assessment->checks.all())
        asked += c.asked;
    const WorkPlan &plan = m_plan->answer;
    QString out = tr("%1 of %2 proven · %3 can be done now")
                      .arg(asked - static_cast<int>(plan.rows.size()))
                      .arg(asked)
                      .arg(plan.nowCount());
    if (plan.showsHours())
        out += tr(" · %1 left, %2")
                   .arg(inWords(asHours(plan.hours.likely_h)),
                        inWords(QuantityRange { asHours(plan.hours.low_h),
                                                asHours(plan.hours.high_h) }));
    return out;
}

PanelContent WorkPage::panel()
{
    PanelContent out;
    const Check *c = chosen();
    if (!c) {
        out.push_back(
            PanelText { m_plan ? tr("Choose a check.") : tr("Being worked out…"), Tone::Muted });
        return out;
    }
    const PlannedCheck *row = m_plan->answer.find(c->id());
    out.push_back(PanelTitle { qs(c->place.name), qs(aboutStage(c->kind->stage).name) });
    if (!aboutStage(c->kind->stage).caution.empty())
        out.push_back(PanelText { qs(aboutStage(c->kind->stage).caution), Tone::Warn });
    out.push_back(PanelVerdict { markOf(*c), qs(c->kind->statement), qs(c->reason) });
    if (c->isOpen()) {
        if (row && c->kind->minutes > 0)
            out.push_back(PanelRow { tr("Hands, about"), shown(asMinutes(row->minutes)) });
        out.push_back(PanelButton { QStringLiteral("work.go"), tr("Go there (Enter)"),
                                    [this, id = c->id()] { m_open.wantCheck(id); } });
    }
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Proven when") });
    out.push_back(PanelText { qs(provenWhen(*c->kind)) });
    addCost(m_open, { c }, out);
    if (c->isOpen())
        firstPanel(*c, out);
    return out;
}

void WorkPage::firstPanel(const Check &check, PanelContent &out) const
{
    const CheckList &list = m_plan->about.assessment->checks;
    std::vector<const Check *> before;
    for (const size_t i : check.after)
        if (list.all()[i].isOpen())
            before.push_back(&list.all()[i]);
    out.push_back(PanelRule {});
    if (before.empty()) {
        out.push_back(PanelText { tr("Nothing comes first: it can be done now.") });
        return;
    }
    out.push_back(PanelHeading { tr("First") });
    constexpr size_t most = 4;
    for (size_t i = 0; i < std::min(most, before.size()); ++i)
        out.push_back(
            PanelVerdict { markOf(*before[i]), qs(before[i]->statement()), qs(before[i]->reason) });
    if (before.size() > most)
        out.push_back(PanelText { tr("and %1 more").arg(before.size() - most), Tone::Muted });
    if (const PlannedCheck *row = m_plan->answer.find(check.id()); row && !row->waitsFor.empty())
        out.push_back(PanelText { qs(waitText(*row)), Tone::Muted });
}

} // namespace mildpath
