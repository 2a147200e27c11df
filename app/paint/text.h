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

/// Paints a number with its unit behind it in muted type, right edge at `right`.
/// @return width used
double drawFigure(QPainter &painter, QPointF rightBaseline, const Shown &value, const QFont &font,
                  const QColor &colour, const QColor &unitColour);

/// Colours a label's text.
void setTone(QLabel *label, const QColor &colour);

/// Round numbers of a unit between two SI values, some `count` of them, as SI values.
std::vector<double> niceTicks(double from_si, double to_si, const std::string &unit,
                              Dimension dimension, int count);

/// A card: panel with one hairline round it.
void drawCard(QPainter &painter, const QRectF &area);

} // namespace mildpath
