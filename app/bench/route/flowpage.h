// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/flowproof.h"
#include "shell/page.h"

#include <QWidget>

class QLabel;

namespace mildpath {

/// Every place oil should come out, stop by stop, and what was seen there. A click chooses one, a
/// click on the stop's name all of them; arrow keys walk.
class FlowBoard : public QWidget
{
    Q_OBJECT
public:
    explicit FlowBoard(OpenBuild &open, QWidget *parent = nullptr);
    void choose(const std::string &stop, int outlet);
    void relayout();
    QPointF placeOf(const std::string &stop, int outlet) const; ///< for tests

Q_SIGNALS:
    void picked(const QString &stop, int outlet);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override { relayout(); }
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    /// What is drawn, apart from the document: a hidden board outlives it.
    struct Row
    {
        std::string stop;
        QString name, text;
        double y;
        std::vector<Mark> outlets;
    };
    int perRow() const;
    QPointF spot(const Row &row, int outlet) const;

    OpenBuild &m_open;
    std::vector<Row> m_rows;
    std::string m_stop;
    int m_outlet = 0; ///< 0: all
};

/// What was seen to flow, by what, with what oil; and two engines side by side.
class FlowPage : public Page
{
    Q_OBJECT
public:
    explicit FlowPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "flow", tr("Flow check") } }; }
    QString title() const override { return tr("Flow check"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    /// Shows another build's flows beside these. @return what forbids comparing, or the file's
    /// fault
    QString compareWith(const QString &path);

private:
    void history(const Stop &stop, PanelContent &out) const;
    void conditions(PanelContent &out);
    void record(const std::string &saw);
    void askOther();

    FlowBoard *m_board;
    QLabel *m_summary, *m_compared;
    std::string m_stop;
    int m_outlet = 0;
    /// Of the next record: they stay while one goes from outlet to outlet.
    int m_means = 0;
    std::string m_filter;
    std::optional<double> m_oil_c, m_pressure_kpa, m_litres, m_seconds;
};

} // namespace mildpath
