// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/replay.h"
#include "plot/chart.h"
#include "shell/page.h"

#include <QWidget>

#include <optional>
#include <vector>

class QLabel;

namespace mildpath {

class CaseSheet;
class ChartView;
class RowList;

/// Every turn and slope the use names, what it does to pickup and crank; the baffle's two schools;
/// a drive from a file replayed over the pan.
class TurnsPage : public Page
{
    Q_OBJECT
public:
    explicit TurnsPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "turns", tr("Cornering") } }; }
    QString title() const override { return tr("Cornering"); }
    void refresh() override;
    PanelContent panel() override;
    /// Replays a drive. @return what is wrong with the file; empty: nothing
    QString replay(const QString &path);
    void reset() override;

Q_SIGNALS:
    void caseChosen(const QString &id);

private:
    static ChartLine quickStripe(const Replay &r, const Axis &y);
    PanelChoice useChoice() const;
    void baffleChoice(PanelContent &out) const;
    void showTrade();
    void showReplay();
    void ask();

    CaseSheet *m_sheet;
    RowList *m_list;
    QLabel *m_shut, *m_steady, *m_file, *m_problem;
    ChartView *m_chart;
    std::vector<DriveMoment> m_drive;
    QString m_name;
    std::optional<Replay> m_replay;
};

} // namespace mildpath
