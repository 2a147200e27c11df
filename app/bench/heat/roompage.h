// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "open/background.h"
#include "shell/page.h"
#include "study/heatlog.h"

#include <QTimer>

class QLabel;
class QPushButton;
class QSlider;

namespace mildpath {

class GrowthChart;
class HeatLogCard;
class RoomView;
class SerialGauge;

/// What heat makes of the clearances, and the room that leaves to choose.
class RoomPage : public Page
{
    Q_OBJECT
public:
    RoomPage(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "room", tr("Clearance window") } }; }
    QString title() const override { return tr("Clearance with heat"); }
    QString about() const override;
    void reset() override { forget(); }
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;

private:
    struct Lever
    {
        QSlider *slider;
        QLabel *text;
    };
    void makePage(SerialGauge *gauge);
    QWidget *makeSliders(QWidget *parent);
    RoomConditions sliders() const;
    /// The build's own figures while nobody moved a slider: those are rounded to their steps.
    RoomConditions asked() const;
    bool asInTheBuild() const;
    void forget();
    void resetSliders();
    void showSliders();
    void askRoom();
    /// What takes longer than a keystroke may: room and levers, the crank's oil, films.
    struct Answer
    {
        Result<Room> room = fail("", "");
        std::vector<CrankOil> crankOil;
        std::optional<HotFilm> film;
    };
    static Answer answer(const Build &build, const std::vector<GaugedSize> &sizes,
                         const std::string &family, const RoomConditions &conditions);
    void compute();
    void take(Answer answer);
    std::string logStop() const;
    void verdicts(PanelContent &out) const;
    void filmLines(PanelContent &out) const;
    void leverLines(PanelContent &out) const;
    void journalTick(PanelContent &out) const;
    void infraredLines(PanelContent &out) const;

    std::vector<QPushButton *> m_familyButtons;
    GrowthChart *m_chart;
    RoomView *m_room;
    HeatLogCard *m_log;
    Lever m_start, m_hot, m_idle, m_section;
    QPushButton *m_reset;
    std::string m_family = "main";
    QTimer m_soon;
    std::optional<Room> m_found;
    QString m_problem;
    std::vector<CrankOil> m_crankOil;
    std::optional<HotFilm> m_film;
    std::string m_lastMain;
    Background m_background;
};

} // namespace mildpath
