// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

class QHBoxLayout;
class QLabel;
class QPushButton;
class QStackedWidget;

namespace mildpath {

class HistoryChain;
class PassageMap;
class PlanList;
class PlugLedger;

/// Passages, plugs and pockets: how they are cleaned and proven, what was found, what a failure
/// spread, and what goes to the machine shop.
class MetalPage : public Page
{
    Q_OBJECT
public:
    explicit MetalPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override
    {
        return { { "passages", tr("Cleaning") }, { "plugs", tr("Plugs") } };
    }
    void showTab(int tab) override;
    QString title() const override { return tr("Passages and plugs"); }
    QString about() const override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    void makePage();
    bool onPlugs() const;
    void showParts();
    void choosePart(const std::string &part);
    void choosePassage(const std::string &id);
    void choosePlug(const std::string &id);
    void followStop();
    const Passage *passage() const;
    void record(PanelContent &out);
    void recordDetails(const CleanEvent &event, PanelContent &out);
    CleanEvent placed(CleanEvent event) const;
    void store(const CleanEvent &event);
    Result<void> takeWhen(const QString &text);
    void foundHere(PanelContent &out);

    QLabel *m_headline;
    QWidget *m_partBar;
    QHBoxLayout *m_parts;
    std::vector<std::pair<std::string, QPushButton *>> m_partButtons;
    PassageMap *m_map;
    QStackedWidget *m_lower;
    PlanList *m_plan;
    HistoryChain *m_chain;
    PlugLedger *m_plugs;
    QLabel *m_refusal;
    class FallBackNote *m_fallBack;
    std::string m_passage, m_followed;
    int m_what = 0, m_on = 0; ///< what the panel's next record is, and of what
    double m_days = 1;
    QString m_when; ///< empty: now
};

} // namespace mildpath
