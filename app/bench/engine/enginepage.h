// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/engine/valuetable.h"
#include "document/enginesheet.h"
#include "shell/page.h"
#include "storage/enginepaste.h"

#include <optional>
#include <set>

namespace mildpath {

class QuantityField;

/// The engine's sizes: families of like parts as rows and what fits no column as lists, each number
/// with where it comes from, typed in place.
class EnginePage : public Page
{
    Q_OBJECT
public:
    EnginePage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override
    {
        return { { "sizes", tr("Sizes") }, { "more", tr("Pump, valves, use") } };
    }
    void showTab(int tab) override;
    QString title() const override { return tr("The engine"); }
    QString about() const override;
    void refresh() override;
    PanelContent panel() override;
    void reset() override;
    void takeFocus() override;

private:
    /// What a row of the table is.
    struct Line
    {
        int family = -1, member = -1; ///< member −1: what the family shares
        int list = -1, entry = -1;
    };
    bool eventFilter(QObject *watched, QEvent *event) override;
    void makeFamilies(std::vector<ValueTable::Row> &rows);
    void makeLists(std::vector<ValueTable::Row> &rows);
    ValueTable::Cell cellOf(const EngineCell &cell) const;
    QString shownValue(const std::string &at, std::optional<double> value) const;
    const Line *line() const;
    const EngineFamily *family() const;
    /// The numbers the chosen cell stands for; nothing where it is none.
    EngineCell chosenCell() const;
    void edit(QKeyEvent *typed);
    void endEdit();
    void store(double si, bool down);
    void set(double value, Origin origin);
    void setOrigin(Origin origin);
    void takeAway();
    void makeAlike();
    void paste();
    void copy();
    void say(const Result<void> &done);
    void chosenPanel(PanelContent &out);
    void sourcePanel(const EngineCell &cell, PanelContent &out);
    void pastePanel(PanelContent &out);

    ValueTable *m_table;
    QuantityField *m_field = nullptr;
    int m_tab = 0;
    std::vector<EngineFamily> m_families;
    std::vector<EngineList> m_lists;
    std::vector<Line> m_lines;
    std::set<std::string> m_opened; ///< families shown part by part
    Origin m_origin = Origin::Shop; ///< of what is entered next
    struct Unlikely
    {
        std::string at;
        double value;
        Phrase why;
    };
    std::optional<Unlikely> m_unlikely; ///< typed, and asked about
    std::optional<EnginePaste> m_paste; ///< read, and not yet taken
    QString m_said;
    Tone m_saidTone = Tone::Good;
};

} // namespace mildpath
