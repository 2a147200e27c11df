// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/benches.h"

#include "bench/after/afterbench.h"
#include "bench/clearances/clearancebench.h"
#include "bench/engine/enginebench.h"
#include "bench/film/filmbench.h"
#include "bench/finish/finishbench.h"
#include "bench/forecast/forecastbench.h"
#include "bench/heat/heatbench.h"
#include "bench/passages/passagebench.h"
#include "bench/pump/pumpbench.h"
#include "bench/route/routebench.h"
#include "bench/start/startbench.h"
#include "bench/sump/sumpbench.h"
#include "bench/work/workbench.h"

namespace mildpath {

std::vector<Bench *> makeBenches(OpenBuild &open, SerialGauge *gauge, SerialSender *sender,
                                 QWidget *parent)
{
    return { new WorkBench(open, parent),        new EngineBench(open, parent),
             new RouteBench(open, parent),       new ClearanceBench(open, gauge, parent),
             new PumpBench(open, gauge, parent), new FinishBench(open, parent),
             new HeatBench(open, gauge, parent), new PassageBench(open, parent),
             new ForecastBench(open, parent),    new FilmBench(open, parent),
             new SumpBench(open, parent),        new StartBench(open, sender, parent),
             new AfterBench(open, parent) };
}

} // namespace mildpath
