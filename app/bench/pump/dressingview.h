// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/chartview.h"
#include "study/dressing.h"

#include <optional>

namespace mildpath {

/// Hot idle against end clearance, running the way the work goes: from what is there down to where
/// rotors may bind.
class DressingView : public ChartView
{
    Q_OBJECT
public:
    explicit DressingView(QWidget *parent = nullptr);
    void setPlan(std::optional<DressingPlan> plan);

private:
    void redraw();

    std::optional<DressingPlan> m_plan;
};

} // namespace mildpath
