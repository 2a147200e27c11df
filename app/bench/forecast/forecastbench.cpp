// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/forecastbench.h"

#include "bench/forecast/diagnosispage.h"
#include "bench/forecast/pressurepage.h"
#include "bench/forecast/remedypage.h"
#include "bench/forecast/verdictspage.h"

namespace mildpath {

ForecastBench::ForecastBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Forecast, QStringLiteral("forecast"), parent)
{
    addPage(new PressurePage(open, this));
    addPage(new RemedyPage(open, this));
    addPage(new DiagnosisPage(open, this));
    addPage(new VerdictsPage(open, this));
}

} // namespace mildpath
