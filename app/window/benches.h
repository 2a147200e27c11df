// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

class QWidget;

namespace mildpath {

class Bench;
class OpenBuild;
class SerialGauge;
class SerialSender;

/// Every bench there is, in the order of their tabs: the only place that knows them by their types.
std::vector<Bench *> makeBenches(OpenBuild &open, SerialGauge *gauge, SerialSender *sender,
                                 QWidget *parent);

} // namespace mildpath
