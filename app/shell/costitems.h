// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "shell/panel.h"

#include <vector>

namespace mildpath {

struct Check;

/// "If it were false": of these checks the one that would cost most, solved behind the window;
/// nothing where no fault is behind any of them.
void addCost(OpenBuild &open, const std::vector<const Check *> &checks, PanelContent &out);

} // namespace mildpath
