// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class MapPage;

/// The oil's way: its map, faults imagined on it, lines outside the engine, oil seen to flow.
class RouteBench : public PagedBench
{
    Q_OBJECT
public:
    RouteBench(OpenBuild &open, QWidget *parent);

private:
    MapPage *m_map;
};

} // namespace mildpath
