// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/room.h"
#include "shell/openbuild.h"

#include <QThreadPool>
#include <QTimer>
#include <QWidget>

#include <memory>

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
    ~RoomView() override;
    /// Asks for the map of the build as it is now.
    void ask(const std::string &family, const RoomConditions &conditions);
    /// What is shown; null before the first answer.
    const RoomMap *map() const { return m_map ? &*m_map : nullptr; }
    bool working() const { return m_progress != nullptr; }

Q_SIGNALS:
    /// The fine map is there.
    void answered();

protected:
    void paintEvent(QPaintEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    bool event(QEvent *event) override;

private:
    void startFine();
    void giveUp();
    void take(quint64 question, Result<RoomMap> map);
    QRectF area() const;
    double x(double um) const;
    QRectF rowArea(size_t row) const;
    void paintRow(QPainter &p, size_t row) const;
    void paintContours(QPainter &p, size_t row) const;
    void paintHere(QPainter &p) const;
    void paintFrame(QPainter &p) const;
    QString tipAt(QPointF at) const;

    OpenBuild &m_open;
    std::optional<RoomMap> m_map;
    QString m_problem;
    std::string m_family;
    RoomConditions m_conditions {};
    quint64 m_question = 0;
    std::shared_ptr<Progress> m_progress; ///< of the fine map under way
    QThreadPool m_pool;
    QTimer m_soon, m_slow;
    QPushButton *m_cancel;
};

} // namespace mildpath
