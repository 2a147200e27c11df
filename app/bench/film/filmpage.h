// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "shell/page.h"

#include <optional>

class QLabel;
class QSlider;

namespace mildpath {

class BallCard;
class FuelCard;
class OilChart;
class StribeckView;

/// The oil against heat and grades, and where each contact runs on it.
class FilmPage : public Page
{
    Q_OBJECT
public:
    FilmPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "film", tr("This oil") } }; }
    QString title() const override { return tr("Oil against heat"); }
    QString about() const override;
    QWidget *headWidget() override { return m_head; }
    void leave() override { m_head->hide(); }
    void refresh() override;
    void reset() override;
    PanelContent panel() override;

private:
    void solve();
    void verdicts(PanelContent &out) const;
    void frictionLines(PanelContent &out);
    void oilFields(PanelContent &out) const;
    void ownOils(PanelContent &out) const;

    QWidget *m_head;
    QLabel *m_speedText, *m_oilText;
    QSlider *m_speed, *m_oil;
    OilChart *m_chart;
    StribeckView *m_stribeck;
    BallCard *m_ball;
    FuelCard *m_fuel;
    std::optional<OperatingResult> m_result;
    double m_journalsBy_mm = -0.5; ///< a regrind, to compare with
};

} // namespace mildpath
