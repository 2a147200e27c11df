// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/cutreport.h"
#include "shell/page.h"

#include <QWidget>

namespace mildpath {

class CutChart;
class CutComparison;
class EntryForm;
class PhotoStrip;

/// Filters cut open, cut by cut.
class FilterPage : public Page
{
    Q_OBJECT
public:
    FilterPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "filter", tr("Filter cuts") } }; }
    QString title() const override { return tr("Filter cuts"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    void takeFocus() override;
    /// Takes cuts from a table, all or none. @return what was wrong; empty: they were taken
    QString importTable(const std::string &text);
    /// @return why it cannot be; empty: it is kept
    QString addPhoto(const QString &file);

private:
    const CutReport &report() const; ///< of the document as it is
    void makeEntry(QWidget *card);
    void record();
    void againstPanel(PanelContent &out);
    const FilterCut *chosen() const;
    const JudgedCut *judged() const;
    Result<void> amend(FilterCut next);

    std::string m_cut; ///< id of the chosen one
    std::string m_against; ///< id of the one it is compared with; empty: the like one before
    CutChart *m_chart;
    CutComparison *m_comparison;
    EntryForm *m_form;
    PhotoStrip *m_photos;
};

} // namespace mildpath
