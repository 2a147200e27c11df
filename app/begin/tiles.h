// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <QWidget>

#include <string>
#include <vector>

namespace mildpath {

/// The engines one may begin from, each as a small picture of its oil's way. Arrows walk them,
/// Enter makes one.
class EngineTiles : public QWidget
{
    Q_OBJECT
public:
    explicit EngineTiles(QWidget *parent);
    /// Reads them; nothing where they are there.
    void load();
    /// Of the one chosen: what it is, in a line.
    QString about() const;
    std::string chosen() const;
    int count() const { return static_cast<int>(m_tiles.size()); }
    QRectF areaOf(int tile) const;

Q_SIGNALS:
    void picked(); ///< another one is chosen
    void made(); ///< Enter, or a double click

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseDoubleClickEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    struct Tile
    {
        std::string name; ///< of the template
        QString title, about, counts;
        Build build;
    };
    void choose(int tile);
    int tileAt(QPointF at) const;

    std::vector<Tile> m_tiles;
    int m_chosen = 0;
};

} // namespace mildpath
