// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"

#include <QPainter>
#include <QPointF>

namespace mildpath {

/// Paints a mark: shape first, colour second. Filled circle with tick, diamond, square with bar,
/// open ring. @param size  outer diameter
void drawMark(QPainter &painter, QPointF centre, double size, Mark mark, bool onStrip = false);

} // namespace mildpath
