// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QCheckBox;
class QGridLayout;
class QLabel;

namespace mildpath {

class QuantityField;

/// What is looked at while the bottom end goes together, with the reason, ticked bearing by
/// bearing; and the weights of rods and pistons against each other.
class PartsPage : public QWidget
{
    Q_OBJECT
public:
    explicit PartsPage(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    PanelContent panel() const;

protected:
    void paintEvent(QPaintEvent *) override;

private:
    void rebuild();
    void addChecks(const std::string &kind, int &row);
    void addWeights(int &row);

    struct Tick
    {
        QCheckBox *box;
        std::string stop, check;
    };
    struct Weight
    {
        QuantityField *field;
        std::string part;
        int item;
    };
    OpenBuild &m_open;
    QGridLayout *m_grid;
    QWidget *m_page;
    std::vector<Tick> m_ticks;
    std::vector<Weight> m_weights;
    std::vector<std::pair<std::string, QLabel *>> m_spreads;
    std::string m_shape; ///< of the engine the widgets were made for
};

} // namespace mildpath
