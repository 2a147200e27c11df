// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/filmbench.h"

#include "bench/film/filmpage.h"
#include "bench/film/oilspage.h"

namespace mildpath {

FilmBench::FilmBench(OpenBuild &open, QWidget *parent)
    : PagedBench(open, Place::Film, QStringLiteral("film"), parent)
{
    addPage(new FilmPage(open, this));
    addPage(new OilsPage(open, this));
}

} // namespace mildpath
