// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/route/routelayout.h"

#include <QFont>

namespace mildpath {

/// What is written at a point of the map, and where. Empty texts: there was no room.
struct RouteLabel
{
    QString name, figure;
    QRectF nameArea, figureArea;
    Qt::Alignment align = Qt::AlignHCenter;
};

/// What could be written at a point.
struct RouteWords
{
    QString name;
    QString brief; ///< where the name has no room; empty: nothing shorter
    QString figure;
    QFont nameFont, figureFont;
};

/// Finds room for the words of every point: off each other, off the points and off what else is
/// `taken`, off the passages where that can be. A name that has no room becomes its brief one, then
/// nothing; a figure gives way last.
std::vector<RouteLabel> placeLabels(const RouteLayout &layout, const std::vector<RouteWords> &words,
                                    const std::vector<QRectF> &taken);

} // namespace mildpath
