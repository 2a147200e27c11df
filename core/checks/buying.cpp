// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/buying.h"

#include "assess/figures.h"
#include "document/document.h"
#include "document/logbook.h"
#include "passage/plugs.h"
#include "quantity/dates.h"
#include "study/shellplan.h"

#include <algorithm>
#include <array>
#include <set>

namespace mildpath {
namespace {

/// What a failure wants new and nobody has replaced yet.
bool isWantedNew(const SpreadItem &item)
{
    return (!item.buy.empty() || item.done == "replaced") && item.mark != Mark::Proven;
}

class Buyer
{
public:
    Buyer(const Build &build, const Figures &figures)
        : m_build(build)
        , m_figures(figures)
    {
    }

    std::vector<BuyRow> run()
    {
        plugs();
        for (const std::string_view family : shelled)
            shells(std::string(family));
        bolts();
        oneEach();
        oil();
        afterFailure();
        return std::move(m_out);
    }

private:
    static constexpr std::array<std::string_view, 2> shelled { "main", "big_end" };
    static constexpr int halvesEach = 2;

    /// The row of this id, made where there is none yet: alike things are summed.
    BuyRow &row(std::string id, std::string what, Phrase size, std::string_view check)
    {
        const auto same = std::ranges::find(m_out, id, &BuyRow::id);
        if (same != m_out.end())
            return *same;
        return m_out.emplace_back(
            BuyRow { std::move(id), std::move(what), std::move(size), 0, false, check, {} });
    }
    static void add(BuyRow &to, const std::string &place, int pieces)
    {
        to.count += pieces;
        const auto at = std::ranges::find(to.places, place);
        if (at != to.places.end()) {
            to.each[static_cast<size_t>(at - to.places.begin())] += pieces;
            return;
        }
        to.places.push_back(place);
        to.each.push_back(pieces);
    }

    void plugs()
    {
        for (const Plug &p : m_build.plugs) {
            const PlugKind *kind = findPlugKind(p.kind);
            const std::string what(kind ? kind->name : std::string_view(p.kind));
            Phrase size = p.thread;
            if (p.thread.empty() && p.d_mm > 0)
                size = { "buy.bore", "for a bore of {0}", { asLength(p.d_mm) } };
            std::string bore = p.thread;
            if (bore.empty())
                bore = std::to_string(static_cast<int>(p.d_mm * 100 + 0.5));
            add(row("plugs_" + asId(p.kind) + "_" + asId(bore), capitalised(what), size, "plugin"),
                p.id, 1);
        }
    }

    /// Halves by class where classes are described; else as many as there are bearings.
    void shells(const std::string &family)
    {
        std::vector<const GaugedSize *> sizes;
        for (const GaugedSize &s : m_figures.sizes)
            if (s.family == family)
                sizes.push_back(&s);
        if (sizes.empty())
            return;
        const std::string name = family == "main" ? "Main" : "Big-end";
        const auto choice = shellChoice(m_build, m_figures.sizes, family);
        if (!choice) {
            BuyRow &r = row("shells_" + family, name + " bearing half shells",
                            "class not chosen yet", "tang");
            r.restsOn = "shell";
            for (const GaugedSize *s : sizes)
                add(r, s->stop, halvesEach);
            return;
        }
        for (size_t i = 0; i < choice->stops.size(); ++i)
            for (const int half :
                 { choice->best.journals[i].upper, choice->best.journals[i].lower }) {
                const ShellClass &c = choice->classes[static_cast<size_t>(half)];
                BuyRow &r
                    = row("shells_" + family + "_" + asId(c.name),
                          name + " bearing half shells, " + c.name,
                          { "buy.wall", "wall {0}", { asLength(c.wall_m * 1e3, 3) } }, "tang");
                r.restsOn = "shell";
                add(r, choice->stops[i], 1);
            }
    }

    void bolts()
    {
        for (const TorqueCard &c : m_build.torqueCards)
            if (c.singleUse() && !c.fasteners.empty())
                add(row("bolts_" + c.id, c.name + ", new bolts", "they stretch: used once",
                        "bolts"),
                    c.id, static_cast<int>(c.fasteners.size()));
    }

    /// One of each: gasket, ring, filter, seals.
    void oneEach()
    {
        for (const Stop &s : m_build.engine.stops) {
            if (s.kind == StopKind::Pump)
                add(row("gasket_" + s.id, "Gasket of the oil pump", {}, "pgask"), s.id, 1);
            if (s.kind == StopKind::Pickup) {
                Phrase size;
                if (const double cord = s.value("oring_section_mm"); cord > 0)
                    size = { "buy.cord", "section {0}", { asLength(cord) } };
                add(row("ring_" + s.id, "Ring of the pickup", size, "kring"), s.id, 1);
            }
            if (s.kind == StopKind::Filter)
                add(row("filter_" + s.id, s.name, {}, "filt"), s.id, 1);
        }
        if (m_build.engine.ofKind(StopKind::Main))
            add(row("seals_crank", "Crank seals, front and rear", {}, "rearseal"), "crank", 2);
    }

    /// One fill and what the filter takes.
    void oil()
    {
        const auto fill = m_build.sump.own("fill_l");
        if (m_build.oil.grade.empty() || !fill)
            return;
        BuyRow &r = row("oil_" + asId(m_build.oil.grade), "Oil " + m_build.oil.grade,
                        "one fill and the filter's", "oilok");
        r.count = *fill + m_build.start.value("filter_l").value_or(0);
        r.litres = true;
        r.places = { "oil" };
    }

    void afterFailure()
    {
        for (const Spread &spread : m_figures.spreads)
            for (const SpreadItem &i : spread.items) {
                const Stop *stop = m_build.engine.find(i.stop);
                const bool hasRow = stop
                    && (stop->kind == StopKind::Main || stop->kind == StopKind::BigEnd
                        || stop->kind == StopKind::Filter);
                if (hasRow || !isWantedNew(i))
                    continue;
                const std::string what = i.buy.empty() ? i.name : i.buy;
                BuyRow &r = row("after_" + asId(what), capitalised(what), {}, "spread");
                if (std::ranges::find(r.places, i.id) == r.places.end())
                    add(r, i.id, 1);
            }
    }

    const Build &m_build;
    const Figures &m_figures;
    std::vector<BuyRow> m_out;
};

} // namespace

std::vector<BuyRow> buyRowsOf(const Build &build, const Figures &figures)
{
    return Buyer(build, figures).run();
}

std::vector<BuyRow> boughtAfterFailure(const Build &build, const Figures &figures)
{
    std::set<std::string> wanted;
    for (const Spread &spread : figures.spreads)
        for (const SpreadItem &i : spread.items)
            if (isWantedNew(i))
                wanted.insert({ i.id, i.stop });
    wanted.erase("");
    std::vector<BuyRow> out;
    for (const BuyRow &row : buyRowsOf(build, figures)) {
        if (row.check != "tang" && row.check != "filt" && row.check != "spread")
            continue;
        BuyRow here = row;
        here.places.clear();
        here.each.clear();
        here.count = 0;
        for (size_t i = 0; i < row.places.size(); ++i)
            if (wanted.contains(row.places[i])) {
                here.places.push_back(row.places[i]);
                here.each.push_back(row.each[i]);
                here.count += row.each[i];
            }
        if (!here.places.empty())
            out.push_back(std::move(here));
    }
    return out;
}

Phrase buyAmount(const BuyRow &row)
{
    return row.litres ? asPhrase(asVolume(row.count, 1)) : asPhrase(asNumber(row.count, 0));
}

Phrase buyLine(const BuyRow &row)
{
    if (row.size.empty())
        return { "buy.line", "{0} × {1}", { buyAmount(row), row.what } };
    return { "buy.line_size", "{0} × {1}, {2}", { buyAmount(row), row.what, row.size } };
}

Phrase orderDiffers(const Order &order, const std::vector<BuyRow> &rows)
{
    const auto row = std::ranges::find(rows, order.row, &BuyRow::id);
    if (row == rows.end()) {
        // What was thought of by hand is wanted as long as it stands; a class that nobody wants
        // any more is not.
        return order.row.starts_with("shells_") ? Phrase("no longer what is wanted") : Phrase();
    }
    if (row->each.empty() || !order.count)
        return {};
    double wanted = 0;
    for (size_t i = 0; i < row->places.size(); ++i)
        if (std::ranges::find(order.places, row->places[i]) != order.places.end())
            wanted += row->each[i];
    if (wanted <= *order.count)
        return {};
    return { "buy.more",
             "{0} wanted now, {1} ordered",
             { asCount(static_cast<int>(wanted)), asNumber(*order.count, 0) } };
}

std::optional<Underway> underway(const Order *order, int usualDays)
{
    if (!order || !order->isOut())
        return std::nullopt;
    Underway out { order->at, order->promised, !order->promised.empty(), order->from };
    if (!out.promised)
        out.due = dayAfter(std::string_view(order->at).substr(0, 10), usualDays);
    return out;
}

} // namespace mildpath
