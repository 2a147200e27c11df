// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "diagnose/whatif.h"
#include "shell/page.h"

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QVBoxLayout;

namespace mildpath {

class RouteMap;

/// The oil's way at one speed and oil temperature, both on sliders; faults imagined on it; the
/// lines outside the engine; oil seen to flow.
class MapPage : public Page
{
    Q_OBJECT
public:
    MapPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override
    {
        return { { "map", tr("Map") }, { "what_if", tr("What if") } };
    }
    void showTab(int tab) override { m_imagining = tab == 1; }
    QString title() const override;
    QString about() const override;
    Tone aboutTone() const override { return Tone::Warn; }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;

private:
    void makeRow(QVBoxLayout *column);
    void solve();
    void chooseOil(int index);
    void stopFigures(const Stop &stop, PanelContent &out) const;
    void stopReasons(const Stop &stop, PanelContent &out) const;
    void stopFields(const Stop &stop, PanelContent &out) const;
    void stopProofs(const Stop &stop, PanelContent &out) const;
    void stopWorking(const Stop &stop, PanelContent &out) const;
    void stopFilm(const Stop &stop, PanelContent &out) const;

    bool m_imagining = false; ///< the panel makes up faults
    RouteMap *m_map;
    QSlider *m_speed, *m_oil;
    QLabel *m_speedText, *m_oilText;
    QComboBox *m_grade;
    QPushButton *m_change;
    std::optional<OperatingResult> m_result;
    std::optional<WhatIf> m_whatIf; ///< of what is imagined
};

} // namespace mildpath
