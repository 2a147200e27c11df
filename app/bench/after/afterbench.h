// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class FilterPage;
class OilPage;
class ShelfPage;

/// What is looked at after a run, and the shelf of builds.
class AfterBench : public PagedBench
{
    Q_OBJECT
public:
    AfterBench(OpenBuild &open, QWidget *parent);
    std::vector<Import> imports() override;
    FilterPage &filter() { return *m_filter; }
    OilPage &oil() { return *m_oil; }
    ShelfPage &shelf() { return *m_shelf; }

private:
    FilterPage *m_filter;
    OilPage *m_oil;
    ShelfPage *m_shelf;
};

} // namespace mildpath
