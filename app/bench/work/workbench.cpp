// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/workbench.h"

#include "bench/work/instrumentspage.h"
#include "bench/work/orderpage.h"
#include "bench/work/ownpage.h"
#include "bench/work/todaypage.h"
#include "bench/work/workpage.h"

namespace mildpath {

WorkBench::WorkBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Work, QStringLiteral("work"), parent)
{
    addPage(new WorkPage(open, this));
    addPage(new TodayPage(open, this));
    addPage(new OrderPage(open, this));
    addPage(new InstrumentsPage(open, this));
    addPage(new OwnPage(open, this));
}

} // namespace mildpath
