// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "oil/fallingball.h"
#include "open/openbuild.h"
#include "paint/card.h"

#include <optional>

class QGridLayout;
class QLabel;
class QPushButton;

namespace mildpath {

class ArrowCombo;
class QuantityField;

/// An unknown oil timed against the build's own: two glasses, two balls.
class BallCard : public CardWidget
{
    Q_OBJECT
public:
    explicit BallCard(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    const std::optional<RacedBall> &result() const { return m_result; }

protected:
    void paintEvent(QPaintEvent *) override;

private:
    QuantityField *field(const QString &name, const QString &label, Dimension dimension,
                         const char *unit, int decimals, std::optional<double> si, double least,
                         double most);
    void work();
    void judge(const ChosenOil &reference, const OilState &known);
    void keep();
    /// What the unknown is timed against: chosen, else the build's own.
    ChosenOil reference() const;

    OpenBuild &m_open;
    QuantityField *m_known, *m_unknown, *m_ball, *m_glass, *m_fall, *m_temperature;
    QLabel *m_found, *m_grade, *m_remark;
    QPushButton *m_keep;
    QGridLayout *m_grid;
    int m_fields = 0;
    ArrowCombo *m_reference;
    std::optional<RacedBall> m_result;
};

} // namespace mildpath
