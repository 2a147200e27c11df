// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/buying.h"
#include "checks/checks.h"
#include "evidence/failure.h"
#include "quantity/json.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct PlannedCheck;
struct WorkPlan;

// What is to be ordered and sent out, by when, and how it stands: one list from the plan of the
// work. docs/theory/plan.md.

/// A thing to buy, or that was ordered.
struct ToBuy
{
    BuyRow row; ///< for the checks that are open
    const Order *order = nullptr; ///< null: not ordered
    const Check *hand = nullptr; ///< whether it came; null: not ordered
    Phrase differs {}; ///< what was ordered is no longer what is wanted; empty: it is
    const Check *restsOn = nullptr; ///< open check its size comes from; null: it is known
    std::string latest {}; ///< day (ISO 8601) to order it by; empty: the start does not wait for it
    std::vector<std::string> names {}; ///< of the places that still want it

    Mark mark() const;
    Phrase state() const; ///< "to be ordered", "ordered since …; due …", "in hand"
    Phrase size() const; ///< with what it rests on
    bool isOpen() const { return !hand || hand->isOpen(); }
    bool isUnderWay() const { return isOpen() && order && order->isOut(); }
    bool isToOrder() const { return isOpen() && !isUnderWay(); }
};

/// A job for the machine shop.
struct ToSend
{
    const ShopJob *job;
    std::string id; ///< of its order
    const Order *order = nullptr;
    const Check *ask = nullptr, *back = nullptr; ///< null where the job does not ask them
    bool ready = false; ///< nothing open comes before the sheet
    bool soon = false; ///< worth waiting for: less than a day's hands, and less than others' slack
    double hands_min = 0; ///< of what comes before the sheet
    std::string latest {}; ///< day to send it by

    std::string what() const;
    Mark mark = Mark::NotAsked; ///< of its two checks
    Phrase state() const;
    bool isUnderWay() const { return job->event.empty() && order && order->isOut(); }
    bool isToSend() const { return job->event.empty() && !isUnderWay(); }
};

struct Orders
{
    std::vector<ToBuy> buy;
    std::vector<ToSend> send;
    /// "Grind the crank and bore the mains together, in 40 min"; empty: nothing goes together.
    Phrase together {};
};
/// @param list  of the build; it and the plan must outlive the result
Orders ordersOf(const Build &build, const Figures &figures, const CheckList &list,
                const WorkPlan &plan);

/// An order for a row, as it is asked for now.
Order orderFor(const ToBuy &row);
Order orderFor(const ToSend &row);
/// Id of a row for something thought of by hand, that no order has yet.
std::string ownRowId(const Build &build, std::string_view what);
/// As text to send: a line each; only what is not in hand.
std::string ordersText(const Orders &orders, const UnitStyle &style);
/// As a table, headings first: kind (buy, send), row, what, size, count, unit, latest, state, from,
/// promised.
std::vector<std::vector<std::string>> ordersTable(const Orders &orders);
/// {"buy": [{"row", "what", "size", "count", "litres", "latest", "state", "from", "promised",
/// "rests_on"}], "send": [{"row", "what", "latest", "ready", "state", …}], "together"}
Json ordersToJson(const Orders &orders);

} // namespace mildpath
