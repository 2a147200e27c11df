// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "assess/sizes.h"
#include "shell/page.h"

#include <map>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace mildpath {

class ClearanceAxis;
class ReadingEntry;
class SerialGauge;

/// Sizes of the bottom and top end, family by family: every reading on one axis and the entry of
/// the one in hand; the torque card, the choice of shells, the feed holes, and what is ticked and
/// weighed.
class ReadingsPage : public Page
{
    Q_OBJECT
public:
    ReadingsPage(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "readings", tr("Readings") } }; }
    QString title() const override;
    QString about() const override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;
    ReadingEntry &entry() { return *m_entry; }
    const std::string &family() const { return m_family; }
    void chooseFamily(const std::string &id);

private:
    void showFamilies();
    void choose(const QString &stop, int item);
    /// To the next (+1) or former (−1) item in the order of the engine.
    void step(int by);
    const GaugedSize *inHand() const;
    void oilLines(const GaugedSize &c, PanelContent &out) const;
    void limitFields(const GaugedSize &c, PanelContent &out) const;
    void familyLines(PanelContent &out) const;
    void workingLines(const GaugedSize &c, PanelContent &out) const;

    QHBoxLayout *m_familyRow;
    QWidget *m_familyBar;
    ClearanceAxis *m_axis;
    ReadingEntry *m_entry;
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
