// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/clearancebench.h"

#include "bench/clearances/feedpage.h"
#include "bench/clearances/partspage.h"
#include "bench/clearances/readingspage.h"
#include "bench/clearances/shellpage.h"
#include "bench/clearances/torquepage.h"

namespace mildpath {

ClearanceBench::ClearanceBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : PagedBench(open, Place::Clearances, QStringLiteral("clearances"), parent)
    , m_readings(addPage(new ReadingsPage(open, gauge, this)))
{
    addPage(new TorquePage(open, this));
    addPage(new ShellPage(open, this));
    addPage(new FeedPage(open, this));
    addPage(new PartsPage(open, this));
}

} // namespace mildpath
