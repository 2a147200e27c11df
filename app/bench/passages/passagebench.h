// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

/// Passages, plugs and pockets: how they are cleaned and proven, what was found, what a failure
/// spread, what goes to the machine shop.
class PassageBench : public PagedBench
{
    Q_OBJECT
public:
    PassageBench(OpenBuild &open, QWidget *parent);
};

} // namespace mildpath
