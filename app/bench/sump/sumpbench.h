// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class SectionPage;
class TurnsPage;

/// The sump and the ways air gets in: the pan in section, turns and slopes, the pan's own shape,
/// where a sender sits.
class SumpBench : public PagedBench
{
    Q_OBJECT
public:
    SumpBench(OpenBuild &open, QWidget *parent);
    std::vector<Import> imports() override;

private:
    SectionPage *m_section;
    TurnsPage *m_turns;
};

} // namespace mildpath
