// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routebench.h"

#include "bench/route/flowpage.h"
#include "bench/route/linespage.h"
#include "bench/route/mappage.h"

namespace mildpath {

RouteBench::RouteBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Route, QStringLiteral("route"), parent)
    , m_map(addPage(new MapPage(open, this)))
{
    column()->setContentsMargins(12, 6, 12, 4);
    addPage(new LinesPage(open, this));
    addPage(new FlowPage(open, this));
    connect(&open, &OpenBuild::mapWanted, this, [this] { showPage(m_map, 1); });
}

} // namespace mildpath
