// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plan/workplan.h"

#include <QWidget>

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct Build;
class CheckList;

/// The stages of the work as lanes, each check its mark, in the order it is done; what can be done
/// now stands in a pill. Of many alike the marks are counted. From the chosen one lines lead to
/// what must come first.
class WorkLanes : public QWidget
{
    Q_OBJECT
public:
    explicit WorkLanes(QWidget *parent);
    /// @param plan  must outlive what is shown; null: being worked out
    void setPlan(const CheckList *list, const WorkPlan *plan);
    void choose(const std::string &check);
    const std::string &chosen() const { return m_chosen; }
    /// Middle of a check's mark, for clicks; null where it is not shown.
    QPointF placeOf(const std::string &check) const;

Q_SIGNALS:
    void picked(const std::string &check);
    void goAsked(const std::string &check);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseDoubleClickEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    /// One mark: a check, or several alike of one state.
    struct Spot
    {
        std::vector<const Check *> checks;
        Mark mark;
        bool now;
        QRectF area;
        bool critical = false; ///< any delay delays the first start
        double markX() const { return area.left() + 8; }
    };
    /// The checks of one kind in a lane.
    struct Group
    {
        const CheckKind *kind;
        std::vector<Spot> spots;
        QRectF area;
    };
    struct Lane
    {
        Stage stage;
        std::vector<Group> groups {};
        double top = 0, height = 0;
        int open = 0, asked = 0;
        double minutes = 0;
        std::optional<CheckGate> opens {}; ///< gate that stands before this lane
    };

    void lay();
    void addGroup(Lane &lane, const CheckKind &kind) const;
    void paintLane(QPainter &p, const Lane &lane) const;
    void paintSpot(QPainter &p, const Spot &spot, bool chosen) const;
    void paintHours(QPainter &p) const;
    void paintWays(QPainter &p) const;
    bool showsHours() const;
    double lanesRight() const; ///< where the hours begin
    void paintGate(QPainter &p, const Lane &lane) const;
    void paintLegend(QPainter &p) const;
    const Spot *spotAt(QPointF at) const;
    const Spot *spotOf(std::string_view check) const;
    std::vector<const Spot *> spots() const;

    const CheckList *m_list = nullptr;
    const WorkPlan *m_plan = nullptr;
    std::vector<Lane> m_lanes;
    std::string m_chosen;
};

} // namespace mildpath
