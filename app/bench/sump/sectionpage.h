// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/sump/sumpview.h"
#include "shell/page.h"

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;

namespace mildpath {

class FillBar;

/// The sump and the ways air gets in: the pan in section with its levels, tilted by a slider; turns
/// and slopes; the pan's own shape; where a sender sits.
class SectionPage : public Page
{
    Q_OBJECT
public:
    SectionPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "section", tr("Levels") } }; }
    QString title() const override;
    QString about() const override { return m_about; }
    void reset() override;
    /// Shows the level and tilt of one case of driving.
    void showCase(const QString &id);
    void refresh() override;
    PanelContent panel() override;

private:
    void chooseWay(PanWay way);
    void draw();
    void dragFill(double litres);
    void rows(PanelContent &out) const;
    void levels(PanelContent &out) const;
    void fields(PanelContent &out) const;

    QLabel *m_turnLabel, *m_turnText;
    SumpView *m_view;
    FillBar *m_bar;
    QSlider *m_turn;
    QComboBox *m_level;
    QPushButton *m_along, *m_across;
    QString m_about;
    PanWay m_way = PanWay::Along;
    std::string m_shown = "running"; ///< level drawn
    std::optional<double> m_fill_l; ///< while the fill is dragged
    AirReport m_air; ///< of the document, or of the dragged fill
};

} // namespace mildpath
