// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/oilreport.h"
#include "shell/page.h"

#include <QWidget>

namespace mildpath {

class EntryForm;
class OilLanes;

/// Oil analyses of this engine against its own history.
class OilPage : public Page
{
    Q_OBJECT
public:
    OilPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "oil", tr("Oil analysis") } }; }
    QString title() const override { return tr("Oil analysis"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    void takeFocus() override;
    /// Takes samples from a table, all or none. @return what was wrong; empty: they were taken
    QString importTable(const std::string &text);

private:
    const OilReport &report() const; ///< of the document as it is
    void makeEntry(QWidget *card);
    void showKind();
    void record();
    const OilSample *chosen() const;
    const JudgedSample *judged() const;
    Result<void> amend(OilSample next);
    void samplePanel(const OilSample &sample, const JudgedSample &judged, PanelContent &out);
    void elementPanel(const JudgedSample &judged, PanelContent &out) const;
    void forecastPanel(const OilSample &sample, PanelContent &out) const;
    void imaginePanel(const OilSample &sample, PanelContent &out) const;

    std::string m_sample, m_element;
    OilLanes *m_lanes;
    EntryForm *m_form;
};

/// "Fe 32, Cu 18": elements as a laboratory's sheet reads them, mg/kg.
/// Errors: what was not understood.
Result<std::map<std::string, double>> elementsFromText(const QString &text);

} // namespace mildpath
