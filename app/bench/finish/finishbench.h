// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class FinishPage;

/// The wall of the bore, and how the rings seal on it.
class FinishBench : public PagedBench
{
    Q_OBJECT
public:
    FinishBench(OpenBuild &open, QWidget *parent);
    std::vector<Import> imports() override;
    FinishPage &trace() { return *m_trace; }

private:
    FinishPage *m_trace;
};

} // namespace mildpath
