// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"

#include <QRectF>
#include <QString>

#include <vector>

namespace mildpath {

/// How numbers lie along an axis.
enum class Scale {
    Linear,
    Log, ///< equal ratios, equal ways
    Viscosity, ///< log log (ν + 0.7), of ν in mm²/s: oils are straight lines (ASTM D341)
    Quantile, ///< of the normal distribution, from shares of one: a normal spread is a line
    Kelvin, ///< log of the absolute temperature, from °C: goes with Viscosity
};

/// One direction of a picture: numbers to pixels, its round ticks and their words. Numbers are the
/// core's (Pa, m, rev/min, °C …), ticks and words those of the unit shown.
struct Axis
{
    double from = 0, to = 1; ///< numbers
    double start = 0, end = 1; ///< pixels; the end of an upright axis lies above its start
    Shows as = Shows::Number;
    Scale scale = Scale::Linear;
    QString name {}; ///< empty: the unit shown
    int count = 6; ///< so many ticks, about; none: 0
    std::vector<double> own {}; ///< ticks chosen by hand, numbers as above

    double at(double value) const;
    double valueAt(double pixel) const;
    /// The number where the scale is straight: what a plotting library draws linearly.
    double bent(double value) const;
    double straight(double bent) const;
    /// Round numbers of the unit shown; a logarithmic axis gets decades with 2 and 5.
    std::vector<double> ticks() const;
    QString tick(double value) const;
    /// "2 000 rev/min"
    QString inWords(double value) const;
    QString title() const;
    /// Makes the numbers begin and end with some air.
    void widen(double share);
    /// The same between other pixels.
    Axis between(double first, double last) const;
};

/// Hairlines with their numbers under (along) or left of (upright) an area, and the axis' name.
void drawAlong(QPainter &painter, const Axis &axis, const QRectF &area);
void drawUpright(QPainter &painter, const Axis &axis, const QRectF &area);

} // namespace mildpath
