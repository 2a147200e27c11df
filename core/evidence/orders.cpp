// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/orders.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 2> states { "wanted", "ordered" };

} // namespace

std::span<const std::string_view> orderStates()
{
    return states;
}

std::vector<const Order *> ordersOf(const SharedList<Order> &orders)
{
    std::vector<const Order *> out;
    for (const Order *o : standing(orders)) {
        const auto same = std::ranges::find(out, o->row, &Order::row);
        if (same == out.end())
            out.push_back(o);
        else
            *same = o;
    }
    return out;
}

const Order *orderOf(const SharedList<Order> &orders, std::string_view row)
{
    const Order *out = nullptr;
    for (const Order *o : standing(orders))
        if (o->row == row)
            out = o;
    return out;
}

template <> const RecordType &recordType<Order>()
{
    static const RecordType type
        = describeNamelessRecord<Order>("order")
              .must<&Order::row>("row", "a thing to buy, or the id of a job for the shop")
              .field<&Order::state>("state", "wanted: still to be ordered or sent; ordered: out")
              .oneOf([] { return wordsOf(orderStates()); })
              .ifSet<&Order::from>("from", "supplier or shop")
              .ifSet<&Order::promised>("promised", "the day: ISO 8601")
              .ifSet<&Order::what>("what", "of a thing to buy")
              .ifSet<&Order::size>("size", "as it was asked for")
              .ifSet<&Order::count>("count", "pieces, or litres of oil")
              .in("", 0, 1e5)
              .ifSet<&Order::places>("places", "what it is for")
              .of("an id");
    return type;
}

} // namespace mildpath
