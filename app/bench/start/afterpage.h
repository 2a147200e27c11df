// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/livelog.h"
#include "open/background.h"
#include "shell/page.h"
#include "start/afterwards.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class LiveTrace;

/// Residuals with what they point into.
struct AfterAnswer
{
    std::shared_ptr<const Build> build;
    std::vector<Residual> residuals;
    std::vector<Explanation> explanations;
};

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
    void ask();
    void showRun();

    Background m_work;
    std::shared_ptr<const AfterAnswer> m_answer;
    QString m_trouble;
    quint64 m_revision = 0;
    QComboBox *m_runs;
    QLabel *m_about;
    LiveTrace *m_trace;
    ResidualView *m_view;
    TraceBuckets m_buckets;
    std::string m_run; ///< id of the one shown
};

} // namespace mildpath
