// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/engine/enginebench.h"

#include "bench/engine/enginepage.h"

namespace mildpath {

EngineBench::EngineBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Engine, QStringLiteral("engine"), parent)
{
    addPage(new EnginePage(open, this));
}

} // namespace mildpath
