// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/spread.h"
#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;

namespace mildpath {

/// What the oil of a failed bearing touched, as stations along its way, row by row; chosen by click
/// or arrow keys.
class SpreadWay : public QWidget
{
    Q_OBJECT
public:
    explicit SpreadWay(QWidget *parent);
    void setItems(const std::vector<SpreadItem> &items);
    void choose(int item);
    QRectF stationArea(int item) const;

Q_SIGNALS:
    void picked(int item);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    int perRow() const;
    std::vector<SpreadItem> m_items;
    int m_chosen = -1;
};

/// After a bearing failure: where it was, what was touched, what is done with each part, and what
/// to buy.
class SpreadPage : public Page
{
    Q_OBJECT
public:
    explicit SpreadPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "failure", tr("Bearing failure") } }; }
    QString title() const override { return tr("Bearing failure"); }
    void refresh() override;
    PanelContent panel() override;
    /// The shopping list as text, a line each.
    QString shoppingText() const;

private:
    void proposeFailure();
    void recordFailure();
    void recordRepair(const std::string &done);
    const Spread *spread() const;
    const SpreadItem *item() const;

    QComboBox *m_where;
    QLabel *m_summary, *m_refusal, *m_shopping;
    class FallBackNote *m_fallBack;
    QPushButton *m_copy;
    SpreadWay *m_way;
    std::string m_item;
    std::string m_note; ///< for the next repair that is against the rule
};

} // namespace mildpath
