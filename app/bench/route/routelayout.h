// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <QPointF>
#include <QPolygonF>
#include <QRectF>
#include <QString>

#include <map>
#include <vector>

namespace mildpath {

/// A stretch of the oil's way: where it is drawn and which elements it stands for. Its width is the
/// flow of the first element, its tone the pressure between its two nodes.
struct RouteLine
{
    QString stop; ///< it belongs to
    std::string element;
    std::string fromNode, toNode;
    QPolygonF path;
    bool outlet = false; ///< ends in the crankcase: a jet or a squirter
};

/// A point of a stop on the map.
struct RoutePoint
{
    QString stop;
    std::string node;
    QString name;
    QPointF at;
    enum Label { Right, Above, Below, Left } label; ///< where its words stand best
    bool small = false; ///< one of many alike
    QString brief {}; ///< a word that does where the name has no room
    double away = 0; ///< words stand so much further off
};
/// Of its circle.
inline double radiusOf(const RoutePoint &point)
{
    return point.small ? 7 : 10;
}

/// Where everything of the circuit stands. Laid out from the document alone: the way from the sump
/// up to the gallery on the left, the main gallery across, what it feeds through the mains below
/// it, what it feeds directly above.
struct RouteLayout
{
    std::vector<RouteLine> lines;
    std::vector<RoutePoint> points;
    QPolygonF returns; ///< drain-back, dotted
    std::vector<QPolygonF> joins; ///< what closes a passage, or is oiled by splash: thin
    std::vector<QString> notDrawn; ///< stops that hang on nothing the map knows
    std::vector<QPolygonF> drops; ///< short ones from the bearings down to it
    QPointF gauge; ///< the dial
    QPolygonF gaugeLine;
    QPointF galleryLabel;
    /// Names of whole rows, right-aligned at these places.
    std::vector<std::pair<QPointF, QString>> captions;
    QRectF area;
};

RouteLayout layoutRoute(const Build &build, const QRectF &area);

} // namespace mildpath
