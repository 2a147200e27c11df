// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "open/openbuild.h"

namespace mildpath {

/// Writes down that a point of a stop was seen to be so, or is taken back.
Result<void> tickCheck(OpenBuild &open, const std::string &stop, const TickKind &check, bool so);

} // namespace mildpath
