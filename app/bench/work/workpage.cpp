// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/workpage.h"

#include "checks/assessment.h"
#include "open/questions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "plan/timed.h"
#include "quantity/dates.h"
#include "shell/costitems.h"

#include <QKeyEvent>
#include <QVBoxLayout>

#include <cmath>

namespace mildpath {

WorkPage::WorkPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_lanes(new WorkLanes(this))
    , m_waits(new WaitsCard(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(scrolled(m_lanes, this), 1);
    column->addWidget(m_waits);
    m_waits->hide();
    connect(m_waits, &WaitsCard::listAsked, this,
            [this] { Q_EMIT pageAsked(QStringLiteral("order")); });
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
    m_waits->show(m_plan ? ordersOf(*m_plan->about.build, *m_plan->about.assessment,
                                    m_plan->about.assessment->checks, m_plan->answer)
                         : Orders {},
                  m_plan ? &m_plan->answer : nullptr);
    if (m_lanes->chosen().empty() && m_plan)
        if (const PlannedCheck *next = m_plan->answer.next())
            m_lanes->choose(next->check->id());
}

/// O and S go to the lists to order and to send, P to what is printed of today.
void WorkPage::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_O || event->key() == Qt::Key_S)
        Q_EMIT pageAsked(QStringLiteral("order"));
    else if (event->key() == Qt::Key_P)
        Q_EMIT pageAsked(QStringLiteral("today"));
    else
        Page::keyPressEvent(event);
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
    QString out = tr("%1 of %2 proven · %3 now")
                      .arg(asked - static_cast<int>(plan.rows.size()))
                      .arg(asked)
                      .arg(plan.nowCount());
    if (plan.showsHours())
        out += tr(" · %1 left (%2)")
                   .arg(inWords(asHours(plan.hours.likely_h)),
                        inWords(QuantityRange { asHours(plan.hours.low_h),
                                                asHours(plan.hours.high_h) }));
    if (plan.start_d && plan.showsHours())
        out += tr(" · start about %1").arg(qs(nearDayText(plan.startDay(plan.start_d->likely_h))));
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
    timePanel(*c, out);
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Proven when") });
    out.push_back(PanelText { qs(provenWhen(*c->kind)) });
    addCost(m_open, { c }, out);
    if (c->isOpen())
        firstPanel(*c, out);
    return out;
}

/// How long hands were at it, by the clock of its entries or as somebody says; to be corrected.
void WorkPage::timePanel(const Check &check, PanelContent &out)
{
    const auto taken = handsTaken(*m_plan->about.build, m_plan->about.assessment->checks, check);
    if (!taken && check.isOpen())
        return;
    out.push_back(PanelField {
        QStringLiteral("work.minutes"),
        taken && !taken->typed ? tr("Hands took by the clock, min") : tr("Hands took, min"),
        Dimension::Number, "", 0, taken ? std::optional(std::round(taken->minutes)) : std::nullopt,
        [this, id = check.id()](double minutes) -> Result<void> {
            TimeTaken t;
            t.checks = { id };
            t.minutes = minutes;
            const auto done = m_open.record(t);
            return done ? Result<void> {} : tl::unexpected(done.error());
        },
        tr("minutes; pauses over half an hour are left out. It teaches the plan how long such work "
           "takes here") });
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
