// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "study/room.h"

#include <QTimer>
#include <QWidget>

class QPushButton;

namespace mildpath {

/// The map "room to choose": cold clearance against oil, hot-idle contours, both forbidden sides
/// and this build. Coarse at once, fine from a thread of its own; a newer question gives the older
/// up.
class RoomView : public QWidget
{
    Q_OBJECT
public:
    explicit RoomView(OpenBuild &open, QWidget *parent = nullptr);
    /// Asks for the map of the build as it is now. Another question than before is answered
    /// coarsely at once; for a changed build the old map stands until the fine one is there.
    void ask(const std::string &family, const RoomConditions &conditions);
    /// Edges of the fitted oil's room; null: not known.
    void setRoom(const Room *room);
    /// Another document: what is shown is of the one before.
    void forget();
    /// What is shown; null before the first answer.
    const RoomMap *map() const { return m_map; }

protected:
    void paintEvent(QPaintEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    bool event(QEvent *event) override;

private:
    void giveUp();
    void take(std::shared_ptr<const Answered<Result<RoomMap>>> answer);
    QRectF area() const;
    double x(double um) const;
    QRectF rowArea(size_t row) const;
    void paintRow(QPainter &p, size_t row) const;
    void paintContours(QPainter &p, size_t row) const;
    void paintHere(QPainter &p) const;
    void paintEdges(QPainter &p) const;
    void paintEdge(QPainter &p, double um, const QRectF &band, const QString &word) const;
    void paintFrame(QPainter &p) const;
    QString tipAt(QPointF at) const;

    OpenBuild &m_open;
    std::shared_ptr<const Answered<Result<RoomMap>>> m_answer; ///< shown
    const RoomMap *m_map = nullptr; ///< of it
    QString m_problem;
    std::vector<RoomEdge> m_edges;
    std::optional<double> m_pressureLow_um;
    std::optional<std::pair<std::string, RoomConditions>> m_asked;
    QTimer m_slow;
    QPushButton *m_cancel;
};

} // namespace mildpath
