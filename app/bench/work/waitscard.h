// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plan/orders.h"

#include <QString>
#include <QWidget>

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct WorkPlan;

/// What the work waits for, on one calendar: what is to be ordered and by when, what is under way
/// and when it should be here, the first start.
class WaitsCard : public QWidget
{
    Q_OBJECT
public:
    explicit WaitsCard(QWidget *parent);
    /// @param plan  must outlive what is shown; null: nothing is known yet
    void show(const Orders &orders, const WorkPlan *plan);
    int rows() const { return static_cast<int>(m_rows.size()); }

Q_SIGNALS:
    void listAsked(); ///< the page of orders

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Row
    {
        QString name, detail;
        std::string from, to; ///< days
        bool promised = false, late = false, toOrder = false;
    };
    void addToOrder(const Orders &orders);
    void addUnderWay(const Orders &orders);
    QString saidOf(const Row &row) const;
    double xOf(const std::string &day) const;

    std::vector<Row> m_rows; ///< shown
    int m_more = 0; ///< that have no room
    std::string m_today;
    std::optional<std::string> m_start; ///< first start, likely
    int m_days = 7; ///< shown
};

} // namespace mildpath
