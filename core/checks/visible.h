// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/board.h"

#include <string_view>

namespace mildpath {

/// Whether a row may be answered with "none on this engine".
bool mayBeNone(const CheckKind &kind);
/// Whether an answer may bring the figure: a clearance (µm), which then stands against its limits.
bool takesFigure(const Check &check);
/// Of the size a check takes: "main", "lifter"; empty where it takes none.
std::string sizeFamilyOf(const Build &build, const Check &check);
/// Whether it is answered in the list itself: neither read with an instrument at a bench nor
/// computed.
bool isAnsweredInList(const Check &check);
/// A computed one that somebody declares to be so.
bool isDeclared(const CheckKind &kind);
/// In a bought short block the supplier's paper proves sizes and torque.
bool paperIsEnough(const CheckBoard &board, const Check &check);
/// What was said of a place while it lay behind what was closed is no evidence, unless it came by a
/// means that sees there.
void dropUnseen(CheckBoard &board);
/// Whether the part was last put away covered.
bool isCovered(const CheckBoard &board, const Check &check);

} // namespace mildpath
