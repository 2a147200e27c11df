// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/faults.h"

/// What kinds of fault do to the running circuit (docs/theory/diagnosis.md): the table of kinds
/// names one each.
namespace mildpath::act {

Result<void> leavePlugOut(const FaultAt &at);
Result<void> narrow(const FaultAt &at);
Result<void> cover(const FaultAt &at);
Result<void> widenBearings(const FaultAt &at);
Result<void> widenAnnuli(const FaultAt &at);
Result<void> restrictPushrods(const FaultAt &at);
Result<void> loseJet(const FaultAt &at);
Result<void> holdValveOpen(const FaultAt &at);
Result<void> leakPastValve(const FaultAt &at);
Result<void> holdValveShut(const FaultAt &at);
Result<void> clogMedia(const FaultAt &at);
Result<void> swapLines(const FaultAt &at);
Result<void> nothing(const FaultAt &at);
Result<void> drawAir(const FaultAt &at);
Result<void> blockMouth(const FaultAt &at);
Result<void> foldHose(const FaultAt &at);
Result<void> leavePortOpen(const FaultAt &at);
Result<void> widenPump(const FaultAt &at);
Result<void> runLineToGauge(const FaultAt &at);
Result<void> froth(const FaultAt &at);

} // namespace mildpath::act
