// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/card.h"
#include "study/contacts.h"

class QLabel;
class QSlider;

namespace mildpath {

/// What petrol in the oil does: viscosity, hot idle, films. Methanol has its caution only.
class FuelCard : public CardWidget
{
    Q_OBJECT
public:
    explicit FuelCard(OpenBuild &open, QWidget *parent = nullptr);
    /// @param idle  this build as it is, at hot idle
    void refresh();
    double fraction() const;

Q_SIGNALS:
    void fuelChanged(double fraction);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    void giveRoom();
    /// No room for a label and two figures side by side.
    bool isNarrow() const { return width() < 250; }
    struct Row
    {
        QString label;
        Shown before, after;
        bool worse;
    };
    void work();

    OpenBuild &m_open;
    QSlider *m_slider;
    QLabel *m_text, *m_methanol;
    std::vector<Row> m_rows;
};

} // namespace mildpath
