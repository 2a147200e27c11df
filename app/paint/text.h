// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/figure.h"
#include "paint/theme.h"

#include <QPainter>
#include <QRectF>

#include <string>
#include <vector>

class QLabel;

namespace mildpath {

/// Paints one line of text; `flags` as in QPainter::drawText. Too long a text is cut with "…".
void drawLine(QPainter &painter, const QRectF &area, int flags, const QString &text,
              const QFont &font, const QColor &colour);

/// Pixels a line of text takes, with a breath on both sides.
double widthOf(const QString &text, const QFont &font);

/// Paints a number with its unit behind it in muted type, right edge at `right`.
/// @return width used
double drawFigure(QPainter &painter, QPointF rightBaseline, const Shown &value, const QFont &font,
                  const QColor &colour, const QColor &unitColour);

/// Colours a label's text.
void setTone(QLabel *label, const QColor &colour);

/// Round numbers of the unit shown between two values, some `count` of them, as values.
std::vector<double> niceTicks(double from, double to, Shows as, int count,
                              UnitSystem system = Figure::system());
/// Decimals a round number of the unit shown needs, three at most.
int decimalsOfTick(double value, Shows as, UnitSystem system = Figure::system());
/// A tick's figure in the unit shown, with no more decimals than it needs.
QString tickOf(double value, Shows as, UnitSystem system = Figure::system());

/// A card: panel with one hairline round it.
void drawCard(QPainter &painter, const QRectF &area);

} // namespace mildpath
