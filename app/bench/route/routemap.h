// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/rules.h"
#include "bench/route/routelabels.h"
#include "bench/route/routelayout.h"
#include "open/openbuild.h"

#include <QWidget>

#include <optional>

namespace mildpath {

/// The circuit as lines with stops: width is flow, tone is pressure. A click selects a stop.
class RouteMap : public QWidget
{
    Q_OBJECT
public:
    explicit RouteMap(OpenBuild &open, QWidget *parent = nullptr);

    /// What to draw; nothing when the point has no solution.
    /// @param before  what it was before faults were imagined: figures then tell both
    void setResult(std::optional<OperatingResult> result,
                   std::optional<OperatingResult> before = {});
    /// Centre of a stop's first point, for tests and for scrolling to it.
    QPointF placeOf(const QString &stop) const;
    const RouteLayout &layout() const { return m_layout; }
    /// What stands at the points of the layout, in their order.
    const std::vector<RouteLabel> &labels() const { return m_labels; }

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;

private:
    void relayout();
    void paintReturns(QPainter &p) const;
    void paintLine(QPainter &p, const RouteLine &line) const;
    void paintPoint(QPainter &p, const RoutePoint &point, const RouteLabel &label) const;
    /// The words of all points, where they have room.
    void label();
    QRectF captionArea(const QPointF &where, const QString &name) const;
    QRectF galleryArea() const;
    void paintGauge(QPainter &p) const;
    void paintKey(QPainter &p) const;
    Mark markOf(const QString &stop) const;
    QString figureOf(const RoutePoint &point, const OperatingResult &result) const;
    QString figures(const RoutePoint &point) const;
    bool suffers(const RoutePoint &point, double share) const;
    bool starves(const RoutePoint &point) const;
    const RoutePoint *pointAt(QPointF where) const;

    OpenBuild &m_open;
    RouteLayout m_layout;
    std::vector<RouteLabel> m_labels;
    std::optional<OperatingResult> m_result, m_before;
    double m_mostFlow = 1;
};

} // namespace mildpath
