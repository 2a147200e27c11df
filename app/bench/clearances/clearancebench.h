// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/assessment.h"
#include "shell/bench.h"

#include <map>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QStackedWidget;

namespace mildpath {

class ClearanceAxis;
class FeedPage;
class PartsPage;
class ReadingEntry;
class SerialGauge;
class ShellPage;
class TorquePage;

/// Sizes of the bottom and top end, family by family: every reading on one axis and the entry of
/// the one in hand; the torque card, the choice of shells, the feed holes, and what is ticked and
/// weighed.
class ClearanceBench : public Bench
{
    Q_OBJECT
public:
    enum Page { Readings, Torque, Shells, FeedHoles, Parts };

    ClearanceBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    void takeFocus() override;
    QStringList pages() const override;
    void showPage(int page) override;
    ReadingEntry &entry() { return *m_entry; }
    const std::string &family() const { return m_family; }
    void chooseFamily(const std::string &id);

private:
    void makePages();
    void showFamilies();
    void choose(const QString &stop, int item);
    /// To the next (+1) or former (−1) item in the order of the engine.
    void step(int by);
    const GaugedSize *inHand() const;
    void oilLines(const GaugedSize &c, PanelContent &out) const;
    void limitFields(const GaugedSize &c, PanelContent &out) const;
    void familyLines(PanelContent &out) const;
    void workingLines(const GaugedSize &c, PanelContent &out) const;

    QLabel *m_title, *m_subtitle;
    QHBoxLayout *m_familyRow;
    QWidget *m_familyBar;
    QStackedWidget *m_stack;
    ClearanceAxis *m_axis;
    ReadingEntry *m_entry;
    TorquePage *m_torque;
    ShellPage *m_shells;
    FeedPage *m_feed;
    PartsPage *m_parts;
    struct FamilyTab
    {
        std::string family;
        QPushButton *button;
    };
    std::vector<FamilyTab> m_tabs;
    struct Place
    {
        std::string stop;
        int item = 1;
    };
    std::map<std::string, Place> m_last; ///< where one was in each family
    std::string m_family = "main", m_stop;
    int m_item = 1;
};

} // namespace mildpath
