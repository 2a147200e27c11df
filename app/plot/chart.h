// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/axis.h"

#include <QColor>
#include <QStringList>

#include <optional>
#include <vector>

namespace mildpath {

/// A curve, with its band where `low` and `high` are given: as long as `x` or empty.
struct ChartLine
{
    QString name; ///< written at the curve; empty: nothing is
    QColor colour;
    std::vector<double> x, y, low {}, high {};
    Qt::PenStyle pen = Qt::SolidLine;
    double labelAt = 0.4; ///< share of the width where the name would like to stand
    double width = 2.4; ///< 0: its band alone
};

enum class DotShape { Round, Ring, Square, Cross };

/// A measured or marked point.
struct ChartDot
{
    double x, y;
    QColor colour;
    QString name {}; ///< written beside it; empty: nothing is
    DotShape shape = DotShape::Round;
};

/// A stretch of one or both axes in a tone: without an end it goes to the edge.
struct ChartZone
{
    QString name;
    QColor fill, ink;
    std::optional<double> fromX {}, toX {}, fromY {}, toY {};
};

/// A line across at one number of an axis, with a word.
struct ChartMark
{
    Qt::Orientation along; ///< Vertical: upright at a number of x
    double value;
    QString text;
    QColor colour;
    Qt::PenStyle pen = Qt::DotLine;
    bool top = false; ///< an upright's word stands over the chart, not at its foot
};

/// What a chart shows, in the core's numbers.
struct Chart
{
    Axis x, y;
    QString title {}; ///< over it, and a card round it; empty: neither
    std::vector<ChartLine> lines {};
    std::vector<ChartDot> dots {};
    std::vector<ChartZone> zones {};
    std::vector<ChartMark> marks {};
    bool legend = false; ///< names of the lines stand in a list, not at the curves
    double headRoom = 0; ///< pixels more over the area
    double rightRoom = 12; ///< pixels right of the area
};

/// The same as figures: a column each for x, every line, its band, every kind of dot.
struct ChartTable
{
    QStringList head;
    std::vector<QStringList> rows;
};
ChartTable tableOf(const Chart &chart);

/// The line's height at x, or an edge of its band's; nothing outside its ends.
std::optional<double> heightAt(const ChartLine &line, double x);
std::optional<double> heightAt(const ChartLine &line, const std::vector<double> &edge, double x);

/// Round highest number of an axis for values up to `most`.
double roundedUp(double most, Shows as, int count = 6);

} // namespace mildpath
