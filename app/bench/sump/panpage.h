// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class PairTable;

/// Both sections corner by corner, usual shapes to begin with, or sections from litres poured into
/// the bare pan.
class PanPage : public QWidget
{
    Q_OBJECT
public:
    explicit PanPage(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    void panel(PanelContent &out) const;

private:
    QWidget *makeTable(const QString &title, const QString &about, QWidget *picture,
                       PairTable *table);
    void store(PanWay way, const std::vector<std::pair<double, double>> &rows);
    void storeFill(const std::vector<std::pair<double, double>> &rows);
    void makeShape();

    OpenBuild &m_open;
    PairTable *m_along, *m_across, *m_fill;
    QWidget *m_preview[2];
    QComboBox *m_shape;
    QLabel *m_from;
};

} // namespace mildpath
