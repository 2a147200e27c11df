// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/stopkind.h"
#include "passage/passagenetwork.h"

#include <QPointF>
#include <QRectF>
#include <QString>

#include <map>
#include <string>
#include <vector>

namespace mildpath {

/// A passage as it is drawn: a straight line, end 0 at `a`.
struct DrawnPassage
{
    int passage; ///< index in the network
    QPointF a, b;
    bool gallery; ///< drawn along; the others stand
    bool beside; ///< meets no gallery: its name stands along it
    QString label; ///< what its far end opens to, or its name
    QRectF labelArea {}; ///< empty: nobody needs it, or there is no room

    /// A place along the passage.
    QPointF at(const Passage &p, double mm) const { return a + (b - a) * (mm / p.l_mm); }
};

/// How the passages of one part lie in an area. By rule, not by hand: galleries along, on one scale
/// of millimetres, brought in line where a riser joins two; what branches off them stands where it
/// meets them, upward what goes to cam, head and pistons, downward what goes to crank, filter
/// and drive; what meets no gallery stands beside them.
struct PassageLayout
{
    std::vector<DrawnPassage> passages;
    const DrawnPassage *find(int passage) const;
};
PassageLayout layOutPart(const PassageNetwork &network, std::string_view part, const QRectF &area,
                         const std::map<std::string, std::string> &stopNames,
                         const std::map<std::string, StopKind> &stopKinds);

/// Where a plug's name stands, its place on a drawn passage given.
QRectF plugLabelArea(const DrawnPassage &passage, QPointF at, bool hidden);

/// Parts the passages run through, in the order they are listed.
std::vector<std::string> partsOf(std::span<const Passage> passages);

} // namespace mildpath
