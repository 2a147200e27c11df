// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/growth.h"
#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace mildpath {

class QuantityField;

/// What the parts are made of and how their metals expand: the handbook's values beside one's own.
class MaterialsPage : public QWidget
{
    Q_OBJECT
public:
    MaterialsPage(OpenBuild &open, QWidget *parent);
    void refresh();
    PanelContent panel() const;

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

    OpenBuild &m_open;
    QGridLayout *m_grid;
    std::vector<std::pair<std::string, QComboBox *>> m_parts;
    QuantityField *m_fraction = nullptr;
    QLabel *m_reason;
    std::vector<Row> m_rows;
};

} // namespace mildpath
