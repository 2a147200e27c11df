// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/orders.h"

#include "assess/figures.h"
#include "document/document.h"
#include "document/logbook.h"
#include "passage/cleaningplan.h"
#include "plan/workplan.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

class Orderer
{
public:
    Orderer(const Build &build, const Figures &figures, const CheckList &list, const WorkPlan &plan)
        : m_build(build)
        , m_figures(figures)
        , m_list(list)
        , m_plan(plan)
    {
    }

    Orders run()
    {
        m_rows = buyRowsOf(m_build, m_figures);
        parts();
        for (const BuyRow &r : m_rows)
            buy(r);
        own();
        send();
        together();
        return std::move(m_out);
    }

private:
    /// Parts that are new to this engine: each is bought.
    void parts()
    {
        for (const Check &c : m_list.all())
            if (c.kind->id == "newpart" && c.asked) {
                BuyRow r;
                r.id = "part_" + c.place.id;
                r.what = c.place.name;
                r.count = 1;
                r.check = c.kind->id;
                r.places = { c.place.id };
                r.each = { 1 };
                m_rows.push_back(std::move(r));
            }
    }

    /// The row for the places that still ask for it; what was ordered stays as it was.
    void buy(const BuyRow &row)
    {
        ToBuy out;
        out.order = orderOf(m_build.orders, row.id);
        out.row = row;
        out.row.places.clear();
        out.row.each.clear();
        double count = 0;
        double latest_d = INFINITY;
        for (size_t i = 0; i < row.places.size(); ++i) {
            const Check *c = wantedAt(row.check, row.places[i]);
            if (!c)
                continue;
            out.row.places.push_back(row.places[i]);
            if (!row.each.empty()) {
                out.row.each.push_back(row.each[i]);
                count += row.each[i];
            }
            out.names.push_back(c->place.name);
            latest_d = std::min(latest_d, latestBefore(*c));
            const Check *rests
                = row.restsOn.empty() ? nullptr : wantedAt(row.restsOn, row.places[i]);
            if (rests && !out.restsOn)
                out.restsOn = rests;
        }
        if (out.row.places.empty() && !out.order)
            return;
        if (!row.each.empty())
            out.row.count = count;
        finish(std::move(out), latest_d);
    }
    void finish(ToBuy out, double latest_d)
    {
        if (out.order) {
            out.hand = m_list.find("hand@" + out.order->row);
            if (out.order->count)
                out.row.count = *out.order->count;
            out.differs = orderDiffers(*out.order, m_rows);
        }
        if (!out.order && std::isfinite(latest_d))
            out.latest = m_plan.dayOf(latest_d - findCheckKind("hand")->waitDays);
        m_out.buy.push_back(std::move(out));
    }

    /// What was written down by hand, and what no longer follows from the build.
    void own()
    {
        for (const Order *o : mildpath::ordersOf(m_build.orders)) {
            const bool known = isShopJob(m_build, o->row)
                || std::ranges::find(m_out.buy, o->row, [](const ToBuy &b) { return b.row.id; })
                    != m_out.buy.end();
            if (known)
                continue;
            ToBuy out;
            out.order = o;
            out.row.id = o->row;
            out.row.what = o->what.empty() ? o->row : o->what;
            out.row.size = o->size;
            out.row.count = o->count.value_or(1);
            out.row.places = o->places;
            finish(std::move(out), INFINITY);
        }
    }

    void send()
    {
        for (const ShopJob *j : standing(m_build.shopJobs)) {
            ToSend out { j, firstEntry(m_build.shopJobs, *j).id };
            out.order = orderOf(m_build.orders, out.id);
            out.ask = m_list.find("ask@" + out.id);
            out.back = m_list.find("back@" + out.id);
            out.mark = worstAsked(m_list, { "ask", "back" }, out.id);
            if (out.ask && out.ask->isOpen())
                if (const PlannedCheck *row = m_plan.find(*out.ask)) {
                    out.ready = row->now;
                    out.hands_min = handsBefore(*out.ask);
                    if (const auto latest_d = row->latest_d())
                        out.latest = m_plan.dayOf(*latest_d);
                }
            m_out.send.push_back(std::move(out));
        }
    }

    /// Sheets that are ready go together, and one that lacks less than a day's hands, and less
    /// than the others can wait, is waited for.
    void together()
    {
        double slack_d = INFINITY, day_min = 0, lacks_min = 0;
        for (const WorkHand &h : m_plan.hands)
            day_min = std::max(day_min, h.hours_d * 60);
        for (const ToSend &s : m_out.send)
            if (s.ready)
                slack_d = std::min(slack_d, slackOf(*s.ask));
        std::vector<Phrase> names;
        for (ToSend &s : m_out.send) {
            const bool open = s.ask && s.ask->isOpen();
            s.soon = open && !s.ready && slack_d < INFINITY && s.hands_min < day_min
                && s.hands_min / day_min < slack_d;
            if (s.soon)
                lacks_min = std::max(lacks_min, s.hands_min);
            if (s.ready || s.soon)
                names.emplace_back(s.what());
        }
        if (names.size() < 2)
            return;
        const Phrase all = joinedBy(names, "{*|, }");
        m_out.together = lacks_min > 0
            ? Phrase("order.together_in", "{0}: together, in {1}", { all, asMinutes(lacks_min) })
            : Phrase("order.together", "{0}: together, now", { all });
    }
    double slackOf(const Check &check) const
    {
        const PlannedCheck *row = m_plan.find(check);
        return row ? row->time.slack_d.value_or(INFINITY) : INFINITY;
    }

    /// Minutes of everything open that comes before.
    double handsBefore(const Check &check) const
    {
        double out = 0;
        std::set<size_t> seen;
        std::vector<size_t> open(check.after.begin(), check.after.end());
        while (!open.empty()) {
            const size_t i = open.back();
            open.pop_back();
            const Check &c = m_list.all()[i];
            if (!c.isOpen() || !seen.insert(i).second)
                continue;
            if (const PlannedCheck *row = m_plan.find(c))
                out += row->minutes;
            open.insert(open.end(), c.after.begin(), c.after.end());
        }
        return out;
    }

    /// The check that asks for something at a place, open; null: nothing does.
    const Check *wantedAt(std::string_view kind, const std::string &place) const
    {
        for (const Check &c : m_list.all())
            if (c.asked && c.isOpen() && c.kind->id == kind && c.place.isMeantBy(place))
                return &c;
        return nullptr;
    }
    double latestBefore(const Check &check) const
    {
        const PlannedCheck *row = m_plan.find(check);
        return row ? row->latest_d().value_or(INFINITY) : INFINITY;
    }

    const Build &m_build;
    const Figures &m_figures;
    const CheckList &m_list;
    const WorkPlan &m_plan;
    std::vector<BuyRow> m_rows;
    Orders m_out;
};

/// How a row of the list stands, by its check.
Phrase stateBy(const Check *check, const char *otherwise)
{
    return check ? check->reason : Phrase(otherwise);
}

} // namespace

Mark ToBuy::mark() const
{
    return hand ? markOf(*hand) : Mark::NotDone;
}

Phrase ToBuy::state() const
{
    if (!differs.empty())
        return differs;
    return hand && !hand->isOpen() ? Phrase("in hand") : stateBy(hand, "not ordered");
}

Phrase ToBuy::size() const
{
    if (order && !order->size.empty())
        return order->size;
    if (!restsOn)
        return row.size;
    return row.size.empty()
        ? Phrase("order.rests", "once it is said: {0}", { restsOn->statement() })
        : Phrase("order.size_rests", "{0}; not before: {1}", { row.size, restsOn->statement() });
}

std::string ToSend::what() const
{
    return shopJobName(*job);
}

Phrase ToSend::state() const
{
    if (!job->event.empty())
        return "back";
    if (!order || !order->isOut())
        return ready ? Phrase("can be sent now") : stateBy(ask, "not sent");
    return stateBy(back, "sent");
}

Orders ordersOf(const Build &build, const Figures &figures, const CheckList &list,
                const WorkPlan &plan)
{
    return Orderer(build, figures, list, plan).run();
}

Order orderFor(const ToBuy &row)
{
    Order out;
    out.row = row.row.id;
    out.what = row.row.what;
    out.size = render(row.row.size, fileStyle);
    out.count = row.row.count;
    out.places = row.row.places;
    if (row.order)
        out.replaces = row.order->id;
    return out;
}

Order orderFor(const ToSend &row)
{
    Order out;
    out.row = row.id;
    if (row.order)
        out.replaces = row.order->id;
    return out;
}

std::string ownRowId(const Build &build, std::string_view what)
{
    const std::string id = "own_" + asId(what);
    std::string out = id;
    for (int n = 2; orderOf(build.orders, out); ++n)
        out = id + "_" + std::to_string(n);
    return out;
}

std::string ordersText(const Orders &orders, const UnitStyle &style)
{
    std::string out;
    const auto line = [&](const Phrase &p) { out += render(p, style) + "\n"; };
    for (const ToBuy &b : orders.buy)
        if (b.isOpen()) {
            const Phrase size = b.size();
            line({ "order.line",
                   size.empty() ? "{0} × {1} ({3})" : "{0} × {1}, {2} ({3})",
                   { buyAmount(b.row), b.row.what, size, b.state() } });
        }
    for (const ToSend &s : orders.send)
        if (s.job->event.empty())
            line({ "order.send", "To the shop: {0} ({1})", { s.what(), s.state() } });
    if (!orders.together.empty())
        line(orders.together);
    return out;
}

std::vector<std::vector<std::string>> ordersTable(const Orders &orders)
{
    std::vector<std::vector<std::string>> rows { { "kind", "row", "what", "size", "count", "unit",
                                                   "latest", "state", "from", "promised" } };
    const auto put = [&](const char *kind, const std::string &id, const std::string &what,
                         const std::string &size, const std::string &count, const char *unit,
                         const std::string &latest, const Phrase &state, const Order *order) {
        rows.push_back({ kind, id, what, size, count, unit, latest, render(state, fileStyle),
                         order ? order->from : "", order ? order->promised : "" });
    };
    for (const ToBuy &b : orders.buy)
        put("buy", b.row.id, b.row.what, render(b.size(), fileStyle),
            formatPlain(b.row.count, b.row.litres ? 1 : 0), b.row.litres ? "l" : "", b.latest,
            b.state(), b.order);
    for (const ToSend &s : orders.send)
        put("send", s.id, s.what(), s.job->note, "1", "", s.latest, s.state(), s.order);
    return rows;
}

Json ordersToJson(const Orders &orders)
{
    Json out { { "buy", Json::array() }, { "send", Json::array() } };
    const auto order = [](Json &row, const Order *o) {
        row["from"] = o ? Json(o->from) : Json();
        row["promised"] = o && !o->promised.empty() ? Json(o->promised) : Json();
    };
    for (const ToBuy &b : orders.buy) {
        Json row { { "row", b.row.id },
                   { "what", b.row.what },
                   { "size", b.size() },
                   { "count", roundedTo(b.row.count, 2) },
                   { "litres", b.row.litres },
                   { "places", b.row.places },
                   { "latest", b.latest.empty() ? Json() : Json(b.latest) },
                   { "rests_on", b.restsOn ? Json(b.restsOn->id()) : Json() },
                   { "state", b.state() } };
        order(row, b.order);
        out["buy"].push_back(std::move(row));
    }
    for (const ToSend &s : orders.send) {
        Json row { { "row", s.id },
                   { "what", s.what() },
                   { "ready", s.ready },
                   { "soon", s.soon },
                   { "hands_min", roundedTo(s.hands_min, 1) },
                   { "latest", s.latest.empty() ? Json() : Json(s.latest) },
                   { "state", s.state() } };
        order(row, s.order);
        out["send"].push_back(std::move(row));
    }
    out["together"] = orders.together.empty() ? Json() : Json(orders.together);
    return out;
}

} // namespace mildpath
