// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

/// The pressure to expect, what would mend it, and what readings say is wrong.
class ForecastBench : public PagedBench
{
    Q_OBJECT
public:
    ForecastBench(OpenBuild &open, QWidget *parent);
};

} // namespace mildpath
