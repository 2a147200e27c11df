// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/cleanmarks.h"
#include "shell/openbuild.h"

#include <QWidget>

#include <memory>
#include <vector>

namespace mildpath {

/// The cleaning plan of a part, line by line; pulls that are alike stand on one line. Hovering or
/// choosing a line shows it on the map.
class PlanList : public QWidget
{
    Q_OBJECT
public:
    explicit PlanList(OpenBuild &open, QWidget *parent = nullptr);

    /// Makes the plan anew where passages, plugs or what stays changed, and shows this part of it.
    void refresh(const std::string &part);
    const CleaningPlan &plan() const { return m_plan->plan; }
    /// "7 pulls and 2 flushes reach every length; P4 and P5 must come out first".
    QString headline() const { return m_headline; }
    /// The line a passage is cleaned by becomes the chosen one.
    void choosePassage(const std::string &passage);
    int lines() const { return static_cast<int>(m_lines.size()); }
    QString lineText(int line) const { return m_lines[static_cast<size_t>(line)].what; }
    QString lineDetail(int line) const { return m_lines[static_cast<size_t>(line)].how; }

Q_SIGNALS:
    /// A step of the plan to draw, by index; −1: none.
    void stepShown(int step, int number);
    void passageChosen(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void leaveEvent(QEvent *) override;

private:
    struct Line
    {
        Mark mark;
        QString number, what, how;
        std::vector<size_t> steps; ///< empty: what is left
        std::string passage; ///< the first it is about
    };
    void makeLines(const std::string &part);
    void addLeft(const std::string &part);
    QString placeName(const CleaningStep &step) const;
    Mark markOfStep(const CleaningStep &step) const;
    QString needs(const CleaningStep &step) const;
    int lineAt(double y) const;
    void show(int line);

    OpenBuild &m_open;
    std::shared_ptr<const Build> m_build; ///< the plan refers to its passages
    std::unique_ptr<BuildPlan> m_plan;
    QString m_headline;
    std::vector<Line> m_lines;
    int m_chosen = -1, m_hovered = -1;
};

} // namespace mildpath
