// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/passagebench.h"

#include "bench/passages/foundpage.h"
#include "bench/passages/metalpage.h"
#include "bench/passages/shoppage.h"
#include "bench/passages/spreadpage.h"

namespace mildpath {

PassageBench::PassageBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Passages, QStringLiteral("passages"), parent)
{
    addPage(new MetalPage(open, this));
    addPage(new FoundPage(open, this));
    addPage(new SpreadPage(open, this));
    addPage(new ShopPage(open, this));
}

} // namespace mildpath
