// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

#include <map>

class QLabel;

namespace mildpath {

class RowList;

/// Ports of the parts outside the block as they are joined: boxes with ports, lines between them in
/// the tone of what they carry. A click chooses a line or a port.
class LinesDiagram : public QWidget
{
    Q_OBJECT
public:
    explicit LinesDiagram(OpenBuild &open, QWidget *parent = nullptr);
    void choose(const std::string &line, const std::string &port);
    void relayout();
    QPointF placeOf(const std::string &port) const; ///< for tests

Q_SIGNALS:
    void lineChosen(const QString &id);
    void portChosen(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override { relayout(); }
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Box
    {
        QString name;
        QRectF area;
    };
    struct Spot
    {
        Port port;
        QPointF at;
        QPointF out; ///< direction the line leaves in
    };
    void placeParts();
    void placePorts();
    QPainterPath pathOf(const ExternalLine &line) const;
    const Spot *spot(const std::string &port) const;

    OpenBuild &m_open;
    std::map<std::string, Box> m_boxes;
    std::vector<Spot> m_spots;
    std::string m_line, m_port;
};

/// Lines outside the engine: the diagram, the list, and what is wrong with them.
class LinesPage : public Page
{
    Q_OBJECT
public:
    explicit LinesPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "lines", tr("Oil lines") } }; }
    QString title() const override { return tr("Oil lines"); }
    void refresh() override;
    PanelContent panel() override;

private:
    void choose(const std::string &line, const std::string &port);
    void linePanel(const ExternalLine &line, PanelContent &out) const;
    void portPanel(const Port &port, PanelContent &out) const;
    void filterPanel(PanelContent &out) const;
    void faults(PanelContent &out) const;

    LinesDiagram *m_diagram;
    RowList *m_list;
    QLabel *m_verdict;
    QWidget *m_card; ///< of the list; hidden without lines
    std::string m_line, m_port;
};

} // namespace mildpath
