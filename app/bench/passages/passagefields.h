// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "shell/panel.h"

namespace mildpath {

/// A passage as it is in the metal, corrected in place: sizes, ends, what sits in it, what branches
/// off it, and the school of drawing plugs. Adds to a panel.
void addPassageFields(OpenBuild &open, const Passage &passage, PanelContent &out);

/// An id for a new passage or plug, from a beginning.
std::string freePassageId(const Build &build, const std::string &stem);
std::string freePlugId(const Build &build, const std::string &stem);
/// "P10": the next name of a plug.
std::string nextPlugName(const Build &build);

} // namespace mildpath
