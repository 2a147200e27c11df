// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

/// The engine as it is described: its sizes and where each comes from.
class EngineBench : public PagedBench
{
    Q_OBJECT
public:
    EngineBench(OpenBuild &open, QWidget *parent);
};

} // namespace mildpath
