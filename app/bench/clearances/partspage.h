// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/parts.h"
#include "shell/page.h"

#include <QWidget>

class QCheckBox;
class QGridLayout;
class QLabel;

namespace mildpath {

class QuantityField;

/// What is looked at while the bottom end goes together, with the reason, ticked bearing by
/// bearing; and the weights of rods and pistons against each other.
class PartsPage : public Page
{
    Q_OBJECT
public:
    explicit PartsPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "parts", tr("Assembly") } }; }
    QString title() const override { return tr("Assembly"); }
    void refresh() override;
    PanelContent panel() override;
    void reset() override;

protected:
    void paintEvent(QPaintEvent *) override;

private:
    void rebuild();
    void addChecks(StopKind kind, int &row);
    void addWeights(int &row);
    void weightsPanel(PanelContent &out);
    void choosePart(const std::string &part);
    void keepPart(std::optional<WeighedPart> about);

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
    QGridLayout *m_grid;
    QWidget *m_page;
    std::vector<Tick> m_ticks;
    std::vector<Weight> m_weights;
    std::vector<std::pair<std::string, QLabel *>> m_spreads;
    std::string m_part; ///< whose weights the panel tells
    WeighedPart m_about; ///< as it is being said
    std::string m_shape; ///< of the engine the widgets were made for
};

} // namespace mildpath
