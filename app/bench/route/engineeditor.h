// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "shell/panel.h"

namespace mildpath {

/// Everything about the engine that can be changed at a stop, for the side panel: its name and
/// kind, what feeds it, its place in oil order, its dimensions, what stands behind it, the gauge.
void engineEditor(OpenBuild &open, const Stop &stop, PanelContent &out);

} // namespace mildpath
