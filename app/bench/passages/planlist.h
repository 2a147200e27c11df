// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/cleanmarks.h"
#include "entry/rowlist.h"
#include "open/openbuild.h"

#include <memory>
#include <vector>

namespace mildpath {

/// The cleaning plan of a part, line by line; pulls that are alike stand on one line. Hovering or
/// choosing a line shows it on the map.
class PlanList : public RowList
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

Q_SIGNALS:
    /// A step of the plan to draw, by index; −1: none.
    void stepShown(int step, int number);
    void passageChosen(const QString &id);

private:
    struct Line
    {
        Mark mark;
        QString number, what, how;
        std::vector<size_t> steps; ///< empty: what is left
        std::string passage; ///< the first it is about
    };
    void makeLines(const std::string &part);
    bool joinToLast(size_t step, Mark mark, int number);
    void addLeft(const std::string &part);
    QString placeName(const CleaningStep &step) const;
    QString needs(const CleaningStep &step) const;
    void show(int line);
    static int firstNumber(const Line &line);

    OpenBuild &m_open;
    std::unique_ptr<const Build> m_build; ///< the plan refers to its passages
    std::unique_ptr<BuildPlan> m_plan;
    QString m_headline;
    std::vector<Line> m_lines;
};

} // namespace mildpath
