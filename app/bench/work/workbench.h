// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

/// The open checks as the order of the work.
class WorkBench : public PagedBench
{
    Q_OBJECT
public:
    WorkBench(OpenBuild &open, QWidget *parent);
};

} // namespace mildpath
