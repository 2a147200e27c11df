// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"
#include "study/looks.h"

#include <string>
#include <vector>

namespace mildpath {

class RowList;

/// What is looked at again once the engine is handed over: how often, how near it is, and how far
/// the engine ran.
class LooksPage : public Page
{
    Q_OBJECT
public:
    LooksPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "looks", tr("Next looks") } }; }
    QString title() const override { return tr("Next looks"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    const LookToCome *chosen() const;
    void formPanel(PanelContent &out);
    void ranPanel(PanelContent &out);
    void keep(NextLook look);
    void noteRun();

    RowList *m_rows;
    std::vector<LookToCome> m_looks;
    std::string m_chosen; ///< item; empty: a new one is described
    NextLook m_typed;
    Act m_ran;
};

} // namespace mildpath
