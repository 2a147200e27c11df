// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/answers.h"
#include "report/daysheet.h"
#include "shell/page.h"

#include <memory>
#include <string>
#include <vector>

class QPushButton;

namespace mildpath {

class RowList;
struct WorkPlan;

/// What is done today, person by person, in the order it is done; a sheet to take along.
class TodayPage : public Page
{
    Q_OBJECT
public:
    TodayPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "today", tr("Today") } }; }
    QString title() const override { return tr("Today"); }
    QString about() const override;
    void refresh() override;
    PanelContent panel() override;
    void leave() override;
    void takeFocus() override;
    QWidget *headWidget() override;
    /// The sheet as HTML or PDF, by the ending. @return why not; empty: written
    QString writeSheet(const QString &path) const;

private:
    void askAndWrite();

    RowList *m_rows;
    QPushButton *m_print;
    std::shared_ptr<const Answered<WorkPlan>> m_plan;
    std::vector<const PlannedCheck *> m_items; ///< by row; null: a heading
};

} // namespace mildpath
