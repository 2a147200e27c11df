// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"

#include <QPainter>

namespace mildpath {

/// The colour oil is filled with.
QColor oilColour();

/// A section drawn small: outline, oil, what is swept, the pickup. For looking at many at once.
struct SmallSection
{
    HungSection section;
    std::optional<OilSurface> surface {};
    bool numbers = false; ///< at the corners
};
void paintSmallSection(QPainter &p, const QRectF &area, const SmallSection &s);

} // namespace mildpath
