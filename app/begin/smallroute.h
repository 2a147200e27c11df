// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <QPainter>
#include <QRectF>

#include <map>

namespace mildpath {

/// The oil's way of an engine as a small picture: its lines, its stops as rings, or as their marks.
/// Nothing is written in it.
/// @param marks  by stop; empty: rings
void drawSmallRoute(QPainter &painter, const Build &build, const QRectF &area,
                    const std::map<std::string, Mark> &marks = {});

} // namespace mildpath
