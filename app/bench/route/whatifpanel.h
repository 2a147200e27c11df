// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/whatif.h"
#include "open/openbuild.h"
#include "shell/panel.h"

#include <optional>

namespace mildpath {

/// Faults imagined at a stop and elsewhere: what can happen here, how bad, what follows, and what
/// the gauge would show; kept with the build or thrown away.
/// @param result  of what is imagined; absent: nothing is, or it has no solution
void whatIfPanel(OpenBuild &open, const Stop &stop, const std::optional<WhatIf> &result,
                 PanelContent &out);

/// "Main 2: shell spun, 98 % covered; …": what is imagined, in one line.
QString imaginedText(const OpenBuild &open);

} // namespace mildpath
