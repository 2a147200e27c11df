// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"
#include "study/dressing.h"

#include <QTimer>

#include <optional>

class QLabel;
class QPushButton;

namespace mildpath {

class DressingView;
class GasketPicture;
class ReadingEntry;
class RotorPictureView;
class SerialGauge;

/// The oil pump: its rotors and gaps where they are measured, what dressing would buy, relief, seal
/// and pickup.
class PumpBench : public Bench
{
    Q_OBJECT
public:
    PumpBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    void takeFocus() override;
    ReadingEntry &entry() { return *m_entry; }

private:
    QWidget *makeCard();
    void chooseFamily(const std::string &id);
    /// What takes longer than a keystroke may: plan and options, once the keys rest.
    void showDressing();
    void fitLines(PanelContent &out) const;
    void optionLines(PanelContent &out) const;
    void reliefReturn(PanelContent &out) const;
    void fields(PanelContent &out) const;
    void displacement(PanelContent &out) const;

    QLabel *m_title, *m_subtitle, *m_dressing, *m_why;
    RotorPictureView *m_rotors;
    GasketPicture *m_gasket;
    DressingView *m_view;
    ReadingEntry *m_entry;
    std::vector<std::pair<std::string, QPushButton *>> m_families;
    std::shared_ptr<const Answered<PumpStudy>> m_study; ///< shown
    std::string m_family = "pump_tip";
};

} // namespace mildpath
