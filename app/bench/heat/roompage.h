// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "shell/page.h"
#include "study/heatlog.h"
#include "study/room.h"

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
    const Room *found() const
    {
        return m_study && m_study->answer.room ? &*m_study->answer.room : nullptr;
    }
    std::string logStop() const;
    void verdicts(PanelContent &out) const;
    void edgeLines(PanelContent &out) const;
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
    std::shared_ptr<const Answered<RoomStudy>> m_study; ///< shown
    std::string m_lastMain;
};

} // namespace mildpath
