// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace mildpath {

/// Call before a burst of arithmetic that follows painting.
///
/// The toolkit's painting code may leave the upper halves of the vector registers in use; scalar
/// code built for the baseline processor then runs at less than half its speed (measured:
/// docs/performance.md). Clearing them costs a few cycles. Does nothing on processors without such
/// registers.
void clearVectorState();

} // namespace mildpath
