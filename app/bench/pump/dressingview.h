// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "study/dressing.h"

#include <QWidget>

#include <optional>

namespace mildpath {

/// Hot idle against end clearance, running the way the work goes: from what is there down to where
/// rotors may bind.
class DressingView : public QWidget
{
    Q_OBJECT
public:
    explicit DressingView(QWidget *parent = nullptr);
    void setPlan(std::optional<DressingPlan> plan);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    std::optional<DressingPlan> m_plan;
};

} // namespace mildpath
