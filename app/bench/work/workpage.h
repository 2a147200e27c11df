// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/work/waitscard.h"
#include "bench/work/worklanes.h"
#include "open/answers.h"
#include "shell/page.h"

#include <memory>

namespace mildpath {

/// What is left to prove, in the order of the work.
class WorkPage : public Page
{
    Q_OBJECT
public:
    WorkPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "plan", tr("Plan") } }; }
    QString title() const override { return tr("What is left to prove"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override { m_lanes->setFocus(Qt::OtherFocusReason); }

protected:
    void keyPressEvent(QKeyEvent *event) override;

private:
    const Check *chosen() const;
    void timePanel(const Check &check, PanelContent &out);
    void firstPanel(const Check &check, PanelContent &out) const;

    WorkLanes *m_lanes;
    WaitsCard *m_waits;
    std::shared_ptr<const Answered<WorkPlan>> m_plan;
};

} // namespace mildpath
