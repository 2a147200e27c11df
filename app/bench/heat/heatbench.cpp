// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/heatbench.h"

#include "bench/heat/materialspage.h"
#include "bench/heat/roompage.h"
#include "bench/heat/warmuppage.h"

namespace mildpath {

HeatBench::HeatBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : PagedBench(open, Place::Heat, QStringLiteral("heat"), parent)
{
    addPage(new RoomPage(open, gauge, this));
    addPage(new WarmUpPage(open, this));
    addPage(new MaterialsPage(open, this));
}

} // namespace mildpath
