// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class PairTable;

/// Both sections corner by corner, usual shapes to begin with, or sections from litres poured into
/// the bare pan.
class PanPage : public Page
{
    Q_OBJECT
public:
    explicit PanPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "pan", tr("Pan") } }; }
    QString title() const override { return tr("The pan's shape"); }
    void refresh() override;
    PanelContent panel() override;

private:
    QWidget *makeTable(const QString &title, const QString &about, QWidget *picture,
                       PairTable *table);
    void store(PanWay way, const std::vector<std::pair<double, double>> &rows);
    void storeFill(const std::vector<std::pair<double, double>> &rows);
    void makeShape();

    PairTable *m_along, *m_across, *m_fill;
    QWidget *m_preview[2];
    QComboBox *m_shape;
    QLabel *m_from;
};

} // namespace mildpath
