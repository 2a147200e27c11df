// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

class QHBoxLayout;
class QLabel;
class QPushButton;
class QStackedWidget;

namespace mildpath {

class FoundPage;
class HistoryChain;
class PassageMap;
class PlanList;
class PlugLedger;
class ShopPage;
class SpreadPage;

/// Passages, plugs and pockets: how they are cleaned and proven, what was found, what a failure
/// spread, and what goes to the machine shop.
class PassageBench : public Bench
{
    Q_OBJECT
public:
    explicit PassageBench(OpenBuild &open, QWidget *parent = nullptr);
    void refresh() override;
    PanelContent panel() const override;
    QStringList pages() const override;
    void showPage(int page) override;
    void takeFocus() override;

private:
    enum Page { Passages, Plugs, Found, Failure, MachineShop };
    void makePages(QWidget *metal);
    void showParts();
    void choosePart(const std::string &part);
    void choosePassage(const std::string &id);
    void choosePlug(const std::string &id);
    void followStop();
    const Passage *passage() const;
    void record(PanelContent &out) const;
    void recordDetails(const CleanEvent &event, PanelContent &out) const;
    void store(CleanEvent event) const;
    Result<void> takeWhen(const QString &text) const;
    void foundHere(PanelContent &out) const;

    QLabel *m_title, *m_subtitle, *m_headline;
    QWidget *m_partBar, *m_metal;
    QHBoxLayout *m_parts;
    std::vector<std::pair<std::string, QPushButton *>> m_partButtons;
    PassageMap *m_map;
    QStackedWidget *m_lower, *m_stack;
    PlanList *m_plan;
    HistoryChain *m_chain;
    PlugLedger *m_plugs;
    FoundPage *m_found;
    SpreadPage *m_spread;
    ShopPage *m_shop;
    QLabel *m_refusal;
    int m_page = Passages;
    std::string m_passage, m_followed;
    mutable int m_what = 0, m_on = 0; ///< what the panel's next record is, and of what
    mutable double m_days = 1;
    mutable QString m_when; ///< empty: now
};

} // namespace mildpath
