// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"
#include "study/feedcover.h"

#include <QColor>
#include <QWidget>

namespace mildpath {

/// The drilling in the block and the hole in the shell as they meet, main by main, and what
/// covering a hole would do.
class FeedPage : public Page
{
    Q_OBJECT
public:
    explicit FeedPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "feed_holes", tr("Feed holes") } }; }
    QString title() const override { return tr("Feed holes"); }
    void refresh() override;
    PanelContent panel() override;
    QPointF placeOf(const QString &stop) const;

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    /// One pressure of a sweep's point.
    struct Bar
    {
        QString name;
        double pa;
        QColor colour;
    };
    static std::vector<Bar> barsOf(const CoverPoint &point);
    std::vector<const Stop *> mains() const;
    const Stop *inHand() const;
    QRectF holeArea(size_t i, size_t count) const;
    void paintHole(QPainter &p, const Stop &stop, const QRectF &area) const;
    void paintSweep(QPainter &p, const QRectF &area) const;

    std::string m_stop;
    const std::vector<CoverPoint> &sweep() const; ///< empty: none

    std::shared_ptr<const Answered<Result<std::vector<CoverPoint>>>> m_sweep; ///< shown
};

} // namespace mildpath
