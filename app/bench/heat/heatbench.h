// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class SerialGauge;

/// What heat makes of the clearances: the room it leaves, the way from cold to hot, the metals.
class HeatBench : public PagedBench
{
    Q_OBJECT
public:
    HeatBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
};

} // namespace mildpath
