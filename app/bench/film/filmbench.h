// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

/// The oil against heat and grades, and all oils beside each other.
class FilmBench : public PagedBench
{
    Q_OBJECT
public:
    FilmBench(OpenBuild &open, QWidget *parent);
};

} // namespace mildpath
