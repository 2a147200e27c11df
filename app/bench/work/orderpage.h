// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/answers.h"
#include "plan/orders.h"
#include "shell/page.h"

#include <memory>
#include <string>
#include <variant>
#include <vector>

namespace mildpath {

class RowList;
struct WorkPlan;

/// What is to buy and what goes to the machine shop: by when, with whom it is, when it should be
/// here. A list to send.
class OrderPage : public Page
{
    Q_OBJECT
public:
    OrderPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "order", tr("Orders") } }; }
    QString title() const override { return tr("Order and send"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void leave() override;
    void takeFocus() override;
    QWidget *headWidget() override { return m_head; }
    /// The list as CSV, PDF or HTML, by the ending. @return why not; empty: written
    QString writeTable(const QString &path) const;

protected:
    void keyPressEvent(QKeyEvent *event) override;

private:
    /// A row of the page: a thing to buy, a job to send, or a heading.
    using Item = std::variant<std::monostate, const ToBuy *, const ToSend *>;
    struct Typed
    {
        std::string from, promised; ///< with whom; the day, as typed
        std::string what, size; ///< of a thing thought of by hand
        double count = 1;
    };

    Item chosen() const;
    void buyPanel(const ToBuy &row, PanelContent &out);
    void sendPanel(const ToSend &row, PanelContent &out);
    void ownPanel(PanelContent &out);
    void orderFields(PanelContent &out);
    /// Writes that these are out, all of one day. Errors: the day.
    void placeOrders(std::vector<Order> orders);
    void orderChosen();
    void orderAll();
    void sendTogether();
    void inHand(const ToBuy &row);
    void addOwn();
    void askAndWrite();

    RowList *m_rows;
    QWidget *m_head;
    std::shared_ptr<const Answered<WorkPlan>> m_plan;
    Orders m_orders;
    std::vector<Item> m_items; ///< by row
    std::string m_chosen; ///< row of the order
    Typed m_typed;
};

} // namespace mildpath
