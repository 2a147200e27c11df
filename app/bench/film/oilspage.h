// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"
#include "study/oilsbeside.h"

namespace mildpath {

/// A row an oil: hot idle, films, heat, cold and the additive, side by side.
class OilsView : public QWidget
{
    Q_OBJECT
public:
    explicit OilsView(OpenBuild &open, QWidget *parent = nullptr);
    /// @param oils  null: not worked out yet
    void setOils(const std::vector<OilBeside> *oils, const QString &problem);
    void choose(int row);

Q_SIGNALS:
    void picked(int row);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Columns;
    double rowHeight() const;
    void paintRow(QPainter &p, int row, const Columns &at) const;
    void paintHead(QPainter &p, const Columns &at) const;

    OpenBuild &m_open;
    const std::vector<OilBeside> *m_oils = nullptr;
    QString m_problem;
    int m_chosen = -1;
};

/// All oils beside each other in this engine.
class OilsPage : public Page
{
    Q_OBJECT
public:
    explicit OilsPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override
    {
        return { { "oils", tr("Oils beside each other") } };
    }
    QString title() const override { return tr("Oils in this engine"); }
    QString about() const override;
    void refresh() override;
    void reset() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    const std::vector<OilBeside> *oils() const;

    OilsView *m_view;
    std::shared_ptr<const Answered<Result<std::vector<OilBeside>>>> m_answer;
    int m_chosen = -1;
};

} // namespace mildpath
