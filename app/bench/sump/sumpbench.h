// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/sump/sumpview.h"
#include "shell/bench.h"

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QStackedWidget;

namespace mildpath {

class FillBar;
class PanPage;
class SenderPage;
class TurnsPage;

/// The sump and the ways air gets in: the pan in section with its levels, tilted by a slider; turns
/// and slopes; the pan's own shape; where a sender sits.
class SumpBench : public Bench
{
    Q_OBJECT
public:
    SumpBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    QStringList pages() const override;
    void showPage(int page) override;
    TurnsPage &turns() { return *m_turns; }

private:
    enum Page { Section, Turns, Pan, Sender };
    QWidget *makeSection();
    void chooseWay(PanWay way);
    void draw();
    void showCase(const QString &id);
    void dragFill(double litres);
    void rows(PanelContent &out) const;
    void levels(PanelContent &out) const;
    void fields(PanelContent &out) const;

    QLabel *m_title, *m_subtitle, *m_turnLabel, *m_turnText;
    QStackedWidget *m_stack;
    SumpView *m_view;
    FillBar *m_bar;
    QSlider *m_turn;
    QComboBox *m_level;
    QPushButton *m_along, *m_across;
    TurnsPage *m_turns;
    PanPage *m_pan;
    SenderPage *m_sender;
    int m_page = Section;
    PanWay m_way = PanWay::Along;
    std::string m_shown = "running"; ///< level drawn
    std::optional<double> m_fill_l; ///< while the fill is dragged
    AirReport m_air; ///< of the document, or of the dragged fill
};

} // namespace mildpath
