// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/debris.h"
#include "open/openbuild.h"

#include <QWidget>

namespace mildpath {

/// The oil's way as a line with what was found at each stop heaped above it: a grain's tone is its
/// colour, its size its size, square what a magnet takes, round what it does not, open what was not
/// tried.
class FindWay : public QWidget
{
    Q_OBJECT
public:
    explicit FindWay(const OpenBuild &open, QWidget *parent);
    void setFinds(std::vector<const DebrisFind *> finds, int chosen);

Q_SIGNALS:
    void picked(int find);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Grain
    {
        QPointF at;
        double size;
        std::string colour, magnetic;
        QString where;
    };
    void layOut();
    void resizeEvent(QResizeEvent *) override { layOut(); }

    const OpenBuild &m_open;
    std::vector<const DebrisFind *> m_finds; ///< as long as the document stands
    std::vector<Grain> m_grains;
    std::vector<std::pair<double, QString>> m_stops; ///< those with finds
    int m_chosen = -1;
};

} // namespace mildpath
