// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "shell/page.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

class RowList;

/// Everything the job asks, by stage and kind: what is open, and where each is answered and signed
/// for. A family is answered in one entry, with exceptions.
class ChecksPage : public Page
{
    Q_OBJECT
public:
    ChecksPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "checks", tr("Checks") } }; }
    QString title() const override { return tr("What must be true before it turns and fires"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;
    /// Takes a photo in for the answer being typed. @return why not; empty: taken
    QString addPhoto(const QString &file);

private:
    /// A row of the list: a stage, a kind of check, or one of its places.
    struct Item
    {
        Stage stage;
        const CheckKind *kind = nullptr;
        std::string place {};
    };
    /// What was typed for an answer and not yet recorded.
    struct Typed
    {
        std::string by, seenBy, means, except, note, why;
        std::string on; ///< the day, where it was not today
        std::vector<std::string> photos; ///< taken in beside the build
        std::optional<double> value_m, u_m; ///< of a clearance, its expanded uncertainty
        std::optional<double> minutes; ///< of hands
    };
    struct TypedJob
    {
        std::vector<std::string> kinds;
        std::string by, number, jobNumber, customer, shop, scope, person, role;
        double hours_d = Person {}.hours_d;
        bool alone = false, begun = false;
    };

    const CheckList &list() const;
    void choose(const std::string &check);
    void rowsOf(const CheckKind &kind, std::vector<Item> &items) const;
    const Item *chosen() const;
    /// The asked checks of the chosen row.
    std::vector<const Check *> chosenChecks() const;

    void jobPanel(PanelContent &out);
    void twoValuesPanel(PanelContent &out);
    void peoplePanel(PanelContent &out);
    void stagePanel(Stage stage, PanelContent &out) const;
    void answerPanel(const Item &item, PanelContent &out);
    void photoPanel(PanelContent &out);
    void statePanel(const std::vector<const Check *> &checks, PanelContent &out) const;
    void signPanel(const std::vector<const Check *> &checks, PanelContent &out);
    PanelChoice person(const QString &id, const QString &label, std::string Typed::*which,
                       bool mayBeNobody);
    PanelField clearance(const QString &id, const QString &label,
                         std::optional<double> Typed::*which);

    Result<void> answer(const std::string &says);
    /// The day typed, else now (ISO 8601). Errors: no day, or one to come.
    Result<std::string> answeredAt() const;
    void recordJob();
    void signChosen();
    void say(const Result<void> &done);

    RowList *m_rows;
    std::vector<Item> m_items;
    std::string m_kind = "job", m_place; ///< chosen; place empty: all of the kind
    Typed m_typed;
    TypedJob m_job;
};

} // namespace mildpath
