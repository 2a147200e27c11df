// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/growth.h"
#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace mildpath {

class QuantityField;

/// "grey iron block, steel crank": what shares in the growth.
QString metalsText(const Build &build);

/// What the parts are made of and how their metals expand: the handbook's values beside one's own.
class MaterialsPage : public Page
{
    Q_OBJECT
public:
    MaterialsPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "materials", tr("Materials") } }; }
    QString title() const override { return tr("Metals and temperatures"); }
    QString about() const override { return metalsText(m_open.build()); }
    void refresh() override;
    PanelContent panel() override;

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    struct Row
    {
        std::string id;
        QuantityField *field;
        QLabel *source, *used;
        QPushButton *back;
    };
    void addParts(int &row);
    void addMaterials(int &row);
    void addRow(const std::string &id, const QString &name, const QString &handbook, int row);
    QString usedBy(const std::string &material) const;

    QGridLayout *m_grid;
    std::vector<std::pair<std::string, QComboBox *>> m_parts;
    QuantityField *m_fraction = nullptr;
    QLabel *m_reason;
    std::vector<Row> m_rows;
};

} // namespace mildpath
