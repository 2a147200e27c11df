// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/checklog.h"
#include "shell/page.h"

#include <string>
#include <vector>

namespace mildpath {

class RowList;

/// Checks of one's own: what this type of engine is known for, or one's own order of assembly. They
/// stand in the list and in the plan as all others do.
class OwnPage : public Page
{
    Q_OBJECT
public:
    OwnPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "own", tr("Own checks") } }; }
    QString title() const override { return tr("Checks of one's own"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    const OwnCheck *chosen() const;
    void wherePanel(PanelContent &out);
    void afterPanel(PanelContent &out);
    QString nameOf(const std::string &before) const;
    void keep();
    void keepWithTemplate();

    RowList *m_rows;
    std::vector<std::string> m_ids; ///< by row, as first written down
    std::string m_chosen; ///< such an id; empty: a new one is described
    OwnCheck m_typed;
    QString m_said; ///< about keeping them
};

} // namespace mildpath
