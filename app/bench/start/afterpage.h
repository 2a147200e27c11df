// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/livelog.h"
#include "shell/page.h"
#include "start/afterwards.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class LiveTrace;

/// Readings against the forecast, with the build they are of.
using AfterAnswer = Answered<Result<ReadAgainst>>;

/// Each reading on one scale: its expected band, and where it fell.
class ResidualView : public QWidget
{
    Q_OBJECT
public:
    explicit ResidualView(QWidget *parent = nullptr);
    void setAnswer(std::shared_ptr<const AfterAnswer> answer);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    std::shared_ptr<const AfterAnswer> m_answer;
};

/// What the start showed: runs, readings against the forecast, and what would explain them.
class AfterPage : public Page
{
    Q_OBJECT
public:
    AfterPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "afterwards", tr("Results") } }; }
    QString title() const override { return tr("Results"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;

private:
    void showRun();
    void believedLines(const BelievedIdle &b, PanelContent &out) const;

    std::shared_ptr<const AfterAnswer> m_answer; ///< null: none
    QString m_trouble; ///< why there is none
    QComboBox *m_runs;
    QLabel *m_about;
    LiveTrace *m_trace;
    ResidualView *m_view;
    TraceBuckets m_buckets;
    std::string m_run; ///< id of the one shown
};

} // namespace mildpath
