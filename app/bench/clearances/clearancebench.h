// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

class QLabel;
class QPushButton;

namespace mildpath {

class ClearanceAxis;
class ReadingEntry;

/// Mains and big-ends: every bearing of a family on one axis, and the entry of the one in hand.
class ClearanceBench : public Bench
{
    Q_OBJECT
public:
    ClearanceBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    ReadingEntry &entry() { return *m_entry; }

private:
    struct Family
    {
        std::string kind;
        QPushButton *button;
        QString lastStop; ///< where one was when last in this family
    };
    void chooseFamily(size_t index);
    /// To the next (+1) or former (−1) bearing in the order of the engine.
    void step(int by);
    void workingLines(const BearingClearance &c, PanelContent &out) const;
    void limitFields(const BearingClearance &c, PanelContent &out) const;

    QLabel *m_title, *m_subtitle;
    ClearanceAxis *m_axis;
    ReadingEntry *m_entry;
    std::vector<Family> m_families;
    std::string m_kind;
    QString m_stop; ///< gauged stop in hand
};

} // namespace mildpath
