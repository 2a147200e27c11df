// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class ReadingEntry;
class ReadingsPage;
class SerialGauge;

/// Sizes of the bottom and top end: readings, torque card, choice of shells, feed holes, matching
/// parts.
class ClearanceBench : public PagedBench
{
    Q_OBJECT
public:
    ClearanceBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    ReadingsPage &readings() { return *m_readings; }

private:
    ReadingsPage *m_readings;
};

} // namespace mildpath
