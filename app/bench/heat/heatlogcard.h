// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/card.h"
#include "study/heatlog.h"

#include <functional>

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace mildpath {

class QuantityField;
class SerialGauge;

/// The heated-block log of one main: temperatures over the block, gauge reading, what it would run
/// with, verdict; and what the growth proves.
class HeatLogCard : public CardWidget
{
    Q_OBJECT
public:
    static constexpr int spots = 3;
    /// @param gauge  a settled reading goes into the focused cell; null: none
    HeatLogCard(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    /// Shows the log of a main.
    void setLog(const HeatLog &log);
    /// First cell of the first row that is not complete.
    void takeFocus();

private:
    struct Row
    {
        std::vector<QuantityField *> spots;
        QLabel *metal, *spread;
        QComboBox *surface;
        QuantityField *reading, *zero;
        QLabel *running;
        QWidget *mark;
    };
    void makeHead(QGridLayout *grid);
    void addRow();
    void connectRow(const Row &r, size_t row);
    void showRow(size_t row);
    void showVerdict();
    void watch(QuantityField *field, size_t row);
    const HeatPoint *point(size_t row) const;
    /// Writes the row's point, changed.
    bool store(size_t row, const std::function<void(HeatPoint &)> &change);
    void storeSpots(size_t row);
    void takeBack(size_t row);
    void moveOn(QuantityField *from, size_t row, int by);
    std::vector<QuantityField *> cells(size_t row) const;
    void say(const QString &text, const QColor &colour);

    OpenBuild &m_open;
    HeatLog m_log;
    std::vector<Row> m_rows;
    QGridLayout *m_grid;
    QLabel *m_title, *m_hint, *m_say, *m_fit;
    QPushButton *m_use;
};

} // namespace mildpath
