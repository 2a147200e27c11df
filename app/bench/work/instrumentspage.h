// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/checklog.h"
#include "shell/page.h"

#include <string>
#include <vector>

namespace mildpath {

class RowList;

/// What is measured with in this shop: each instrument once, with how far it is to be trusted.
class InstrumentsPage : public Page
{
    Q_OBJECT
public:
    InstrumentsPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "instruments", tr("Instruments") } }; }
    QString title() const override { return tr("Instruments"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    const Instrument *chosen() const;
    void formPanel(PanelContent &out);
    PanelField figure(const char *id, const QString &label,
                      std::optional<double> Instrument::*which, double times, const QString &about);
    void keep();

    RowList *m_rows;
    std::vector<std::string> m_ids; ///< by row
    std::string m_chosen; ///< id; empty: a new one is described
    Instrument m_typed;
};

} // namespace mildpath
