// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace mildpath {

/// A shell seen from the end: the gauging lines of the plan, the one being read, and the zone at
/// the parting line where nobody gauges.
class ShellView : public QWidget
{
public:
    explicit ShellView(QWidget *parent = nullptr);
    /// @param angle_deg  gauging line in hand, from the parting line; negative: none
    void setCurrent(double angle_deg);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    double m_angle = -1;
};

} // namespace mildpath
