// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

namespace mildpath {

class SerialSender;
class StartPage;

/// Priming and first start: live, rehearsed, and what it showed.
class StartBench : public PagedBench
{
    Q_OBJECT
public:
    StartBench(OpenBuild &open, SerialSender *sender, QWidget *parent);
    std::vector<Import> imports() override;
    void offerLeftOvers() override;
    StartPage &start() { return *m_start; }

private:
    StartPage *m_start;
};

} // namespace mildpath
