// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "start/runcard.h"

#include <QWidget>

namespace mildpath {

/// The run card as a chain of steps: mark, what to do, what it must show or showed.
class CardList : public QWidget
{
    Q_OBJECT
public:
    explicit CardList(QWidget *parent = nullptr);
    void setCard(const RunCard &card);
    void choose(const QString &step);
    const QString &chosen() const { return m_chosen; }

Q_SIGNALS:
    void picked(const QString &step);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    struct Row
    {
        QString step, text, below, tip;
        Mark mark;
        bool locked;
    };
    double rowTop(size_t row) const;
    int rowAt(double y) const;
    void pick(int row);

    std::vector<Row> m_rows;
    QString m_chosen;
};

} // namespace mildpath
