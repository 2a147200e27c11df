// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/remedies.h"
#include "shell/page.h"

#include <QWidget>

#include <optional>

class QLabel;

namespace mildpath {

/// Remedies one under the other: what each does to the needle and to the bearing worst off, both as
/// arrows from where they stand now, with power and what goes over the relief.
class RemedyChart : public QWidget
{
    Q_OBJECT
public:
    explicit RemedyChart(QWidget *parent = nullptr);
    /// @param table  stays while it is shown; null: none
    void setTable(const RemedyTable *table);
    void choose(int row);

Q_SIGNALS:
    void picked(int row);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    double rowHeight() const;
    double xOf(double pa) const;
    void paintRow(QPainter &p, int i) const;

    const RemedyTable *m_table = nullptr;
    double m_from_pa = 0, m_to_pa = 1e5;
    int m_chosen = -1;
};

/// All remedies compared on this engine, with what is imagined on it.
class RemedyPage : public Page
{
    Q_OBJECT
public:
    explicit RemedyPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "remedies", tr("Remedies") } }; }
    QString title() const override { return tr("Remedies compared"); }
    void refresh() override;
    PanelContent panel() override;

private:
    const RemedyTable *table() const; ///< null: none
    void wishPanel(const Remedy &r, PanelContent &out);

    QLabel *m_with;
    RemedyChart *m_chart;
    std::shared_ptr<const Answered<Result<RemedyTable>>> m_answer; ///< shown
    int m_chosen = -1;
    RemedyWishes m_wishes; ///< kept while the window is open
};

} // namespace mildpath
