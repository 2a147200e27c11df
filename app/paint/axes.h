// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"

#include <optional>

namespace mildpath {

/// One direction of a picture: numbers to pixels.
struct Axis
{
    double from = 0, to = 1; ///< numbers
    double start = 0, end = 1; ///< pixels; the end of an upright axis lies above its start
    bool log = false;

    double at(double value) const;
    double valueAt(double pixel) const;
    /// Round numbers along it, some `count`; a logarithmic axis gets decades with 2 and 5.
    std::vector<double> ticks(int count) const;
    /// Makes the numbers begin and end with some air.
    void widen(double share);
};

/// Hairlines with their numbers under (along) or left of (upright) an area.
void drawAlong(QPainter &painter, const Axis &axis, const QRectF &area, const QString &name,
               int count = 6);
void drawUpright(QPainter &painter, const Axis &axis, const QRectF &area, const QString &name,
                 int count = 5);
/// As many decimals as the ticks need.
QString tickText(double value, double step);

} // namespace mildpath
