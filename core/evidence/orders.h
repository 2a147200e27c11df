// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"
#include "quantity/sharedlist.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What was ordered or sent out, and when it is promised. That it came is said of its check.

/// A thing to buy, or a job for the shop: where it stands. The last entry of a row counts.
struct Order : Record
{
    std::string row; ///< of the list of things to buy, or the id of a job for the shop
    std::string state = "ordered"; ///< see orderStates()
    std::string from; ///< supplier or shop
    std::string promised; ///< ISO 8601 day; empty: nobody promised one
    std::string what, size; ///< of a thing to buy, as it was asked for
    std::optional<double> count; ///< pieces, or litres of oil
    std::vector<std::string> places; ///< what it is for: ids of stops, plugs, sets of bolts, parts
    bool operator==(const Order &) const = default;

    bool isOut() const { return state == "ordered"; }
};
/// "wanted": to be ordered or sent; "ordered": it is under way.
std::span<const std::string_view> orderStates();

/// The order that counts of each row, in the order the rows were first named.
std::vector<const Order *> ordersOf(const SharedList<Order> &orders);
/// @return null where the row was never ordered, or that was taken back
const Order *orderOf(const SharedList<Order> &orders, std::string_view row);

template <> const RecordType &recordType<Order>();

} // namespace mildpath
