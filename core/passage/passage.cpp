// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/passage.h"

#include "passage/plugs.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

constexpr std::array<PassagePart, 16> parts { {
    { "block", "block" },
    { "head", "head" },
    { "head_left", "left head" },
    { "head_right", "right head" },
    { "crank", "crank" },
    { "rods", "rods" },
    { "cam", "camshafts" },
    { "pump", "pump" },
    { "pickup", "pickup" },
    { "filter_head", "filter head" },
    { "timing_cover", "timing cover" },
    { "cooler", "cooler" },
    { "lines", "lines" },
    { "tank", "tank" },
    { "turbo", "turbocharger" },
    { "rocker_gear", "rocker gear" },
} };

class Checker
{
public:
    Checker(std::span<const Passage> passages, std::span<const Plug> plugs)
        : m_passages(passages)
        , m_plugs(plugs)
    {
    }

    std::vector<Error> run()
    {
        std::set<std::string_view> ids;
        for (size_t i = 0; i < m_passages.size(); ++i) {
            m_place = "/passages/" + std::to_string(i);
            if (m_passages[i].id.empty())
                add("/id", "is empty");
            if (!ids.insert(m_passages[i].id).second)
                add("/id", "\"" + m_passages[i].id + "\" is used twice");
            passage(m_passages[i]);
        }
        std::set<std::string_view> plugIds;
        for (size_t i = 0; i < m_plugs.size(); ++i) {
            m_place = "/plugs/" + std::to_string(i);
            if (m_plugs[i].id.empty())
                add("/id", "is empty");
            if (!plugIds.insert(m_plugs[i].id).second)
                add("/id", "\"" + m_plugs[i].id + "\" is used twice");
            plug(m_plugs[i]);
        }
        return std::move(m_errors);
    }

private:
    void add(const std::string &key, Phrase message)
    {
        m_errors.push_back({ m_place + key, std::move(message) });
    }

    /// Where it meets something, on another passage. @return whether that can be
    bool other(const std::string &key, const Passage &self, const std::string &id, double at_mm)
    {
        const Passage *o = findPassage(m_passages, id);
        if (!o)
            add(key + "/passage", "there is no passage \"" + id + "\"");
        else if (o->id == self.id)
            add(key + "/passage", "is the passage itself");
        else if (!(at_mm >= 0 && at_mm <= o->l_mm))
            add(key + "/at_mm",
                { "", "{0}: the length of \"{1}\"", { mustBe(0, o->l_mm, at_mm, "mm"), id } });
        else
            return true;
        return false;
    }

    bool gateAt(const std::string &passage, double at_mm) const
    {
        for (const Plug &p : m_plugs)
            if (p.passage == passage && samePlace(p.at_mm, at_mm))
                return true;
        const Passage *o = findPassage(m_passages, passage);
        return o
            && std::any_of(o->restrictors.begin(), o->restrictors.end(),
                           [&](const Restrictor &r) { return samePlace(r.at_mm, at_mm); });
    }

    void passage(const Passage &p)
    {
        if (!isPart(p.part))
            add("/part", "there is no part \"" + p.part + "\"");
        if (p.made != "drilled" && p.made != "cast" && p.made != "tube")
            add("/made", "must be drilled, cast or tube, is \"" + p.made + "\"");
        if (!(p.d_mm >= 0.3 && p.d_mm <= 200))
            add("/d_mm",
                mustBe(QuantityRange { asLength(0.3, 1), asLength(200, 1) }, asLength(p.d_mm, 2)));
        if (!(p.l_mm >= 1 && p.l_mm <= 10000))
            add("/l_mm", mustBe(1, 10000, p.l_mm, "mm"));
        for (int e = 0; e < 2; ++e)
            end(p, p.ends[static_cast<size_t>(e)], e == 0 ? 0 : p.l_mm,
                "/ends/" + std::to_string(e));
        for (size_t i = 0; i < p.crossings.size(); ++i) {
            const Crossing &c = p.crossings[i];
            const std::string key = "/crossings/" + std::to_string(i);
            if (!(c.at_mm > 0 && c.at_mm < p.l_mm))
                add(key + "/at_mm", "must be inside the passage");
            if (other(key, p, c.passage, c.there_mm)
                && (gateAt(p.id, c.at_mm) || gateAt(c.passage, c.there_mm)))
                add(key, "lies where a plug or restrictor sits");
        }
        for (size_t i = 0; i < p.restrictors.size(); ++i) {
            const Restrictor &r = p.restrictors[i];
            const std::string key = "/restrictors/" + std::to_string(i);
            if (!(r.at_mm > 0 && r.at_mm < p.l_mm))
                add(key + "/at_mm", "must be inside the passage");
            if (!(r.d_mm > 0.05 && r.d_mm < p.d_mm))
                add(key + "/d_mm",
                    { "passage.restrictor",
                      "must be above {0} and below the passage's diameter",
                      { asLength(0.05, 2) } });
        }
        if (!p.splitFrom.empty()
            && (!findPassage(m_passages, p.splitFrom) || p.splitFrom == p.id || p.splitAfter < 0))
            add("/split_from", "there is no other passage \"" + p.splitFrom + "\"");
    }

    void end(const Passage &p, const PassageEnd &e, double here_mm, const std::string &key)
    {
        const bool plugged = std::any_of(m_plugs.begin(), m_plugs.end(), [&](const Plug &plug) {
            return plug.passage == p.id && samePlace(plug.at_mm, here_mm);
        });
        if (e.kind != "plug" && e.kind != "hole" && e.kind != "joint" && e.kind != "blind")
            add(key + "/kind", "must be plug, hole, joint or blind, is \"" + e.kind + "\"");
        if (e.kind == "plug" && !plugged)
            add(key, "says it has a plug, and none sits there");
        if (e.kind != "plug" && plugged)
            add(key, "has a plug, and says it is a " + e.kind);
        if (e.kind == "joint") {
            if (!other(key, p, e.passage, e.at_mm))
                return;
            if (gateAt(e.passage, e.at_mm))
                add(key, "meets \"" + e.passage + "\" where a plug or restrictor sits");
            const Passage &o = *findPassage(m_passages, e.passage);
            if (e.straight && !samePlace(e.at_mm, 0) && !samePlace(e.at_mm, o.l_mm))
                add(key + "/straight", "only the other's end can run on in one line");
        }
        if (e.kind == "hole" && !e.passage.empty())
            other(key, p, e.passage, e.at_mm);
    }

    void plug(const Plug &p)
    {
        if (!findPlugKind(p.kind))
            add("/kind", "there is no kind of plug \"" + p.kind + "\"");
        const Passage *in = findPassage(m_passages, p.passage);
        if (!in)
            return add("/passage", "there is no passage \"" + p.passage + "\"");
        if (!(p.at_mm >= 0 && p.at_mm <= in->l_mm))
            add("/at_mm", mustBe(0, in->l_mm, p.at_mm, "mm"));
        if (!(p.d_mm > 0.5 && p.d_mm <= 200))
            add("/d_mm",
                mustBe(QuantityRange { asLength(0.5, 1), asLength(200, 1) }, asLength(p.d_mm, 2)));
        for (const Plug &o : m_plugs)
            if (&o < &p && o.passage == p.passage && samePlace(o.at_mm, p.at_mm))
                add("/at_mm", "\"" + o.id + "\" sits there already");
        for (const Restrictor &r : in->restrictors)
            if (samePlace(r.at_mm, p.at_mm))
                add("/at_mm", "a restrictor sits there already");
        if (!p.behind.empty()) {
            const Plug *outer = findPlug(m_plugs, p.behind);
            if (!outer || outer->passage != p.passage || outer == &p)
                add("/behind", "there is no plug \"" + p.behind + "\" in this passage");
        }
    }

    std::span<const Passage> m_passages;
    std::span<const Plug> m_plugs;
    std::string m_place;
    std::vector<Error> m_errors;
};

/// Whether anything meets the passage, or sits in it, at that place.
bool occupied(const std::vector<Passage> &passages, const std::vector<Plug> &plugs,
              const Passage &p, double at_mm)
{
    for (const Passage &o : passages) {
        for (const PassageEnd &e : o.ends)
            if (e.kind == "joint" && e.passage == p.id && samePlace(e.at_mm, at_mm))
                return true;
        for (const Crossing &c : o.crossings)
            if ((c.passage == p.id && samePlace(c.there_mm, at_mm))
                || (o.id == p.id && samePlace(c.at_mm, at_mm)))
                return true;
    }
    for (const Restrictor &r : p.restrictors)
        if (samePlace(r.at_mm, at_mm))
            return true;
    return std::any_of(plugs.begin(), plugs.end(), [&](const Plug &plug) {
        return plug.passage == p.id && samePlace(plug.at_mm, at_mm);
    });
}

template <class List> void moveBeyond(List &from, List &to, double at_mm)
{
    for (auto &item : from)
        if (item.at_mm > at_mm) {
            to.push_back(item);
            to.back().at_mm -= at_mm;
        }
    std::erase_if(from, [&](const auto &item) { return item.at_mm > at_mm; });
}

} // namespace

bool samePlace(double a_mm, double b_mm)
{
    return std::abs(a_mm - b_mm) < 0.01;
}

std::span<const PassagePart> passageParts()
{
    return parts;
}

bool isPart(std::string_view id)
{
    return std::any_of(parts.begin(), parts.end(),
                       [&](const PassagePart &p) { return p.id == id; });
}

std::string_view partName(std::string_view id)
{
    for (const PassagePart &p : parts)
        if (p.id == id)
            return p.name;
    return id;
}

const Passage *findPassage(std::span<const Passage> passages, std::string_view id)
{
    for (const Passage &p : passages)
        if (p.id == id)
            return &p;
    return nullptr;
}

const Plug *findPlug(std::span<const Plug> plugs, std::string_view id)
{
    for (const Plug &p : plugs)
        if (p.id == id)
            return &p;
    return nullptr;
}

std::vector<Error> checkPassages(std::span<const Passage> passages, std::span<const Plug> plugs)
{
    return Checker(passages, plugs).run();
}

Result<void> splitPassage(std::vector<Passage> &passages, std::vector<Plug> &plugs,
                          const std::string &id, double at_mm, const std::string &newId,
                          int eventsSoFar)
{
    const auto it = std::find_if(passages.begin(), passages.end(),
                                 [&](const Passage &p) { return p.id == id; });
    if (it == passages.end())
        return fail("passage", "there is no passage \"" + id + "\"");
    if (!(at_mm >= 1 && at_mm <= it->l_mm - 1))
        return fail("at_mm",
                    { "passage.cut",
                      "must leave at least {0} on both sides of {1}",
                      { asLength(1, 0), asLength(it->l_mm) } });
    if (occupied(passages, plugs, *it, at_mm))
        return fail("at_mm", "something meets the passage there: cut beside it");
    Passage &first = *it;
    Passage second = first;
    second.id = newId;
    second.name = first.name + ", far part";
    second.splitFrom = id;
    second.splitAfter = eventsSoFar;
    second.l_mm = first.l_mm - at_mm;
    second.crossings.clear();
    second.restrictors.clear();
    moveBeyond(first.crossings, second.crossings, at_mm);
    moveBeyond(first.restrictors, second.restrictors, at_mm);
    first.l_mm = at_mm;
    first.ends[1] = { "joint", newId, 0, true, "", {} };
    second.ends[0] = { "joint", id, at_mm, true, "", {} };
    for (Passage &o : passages) {
        for (PassageEnd &e : o.ends)
            if (e.passage == id && e.at_mm > at_mm) {
                e.passage = newId;
                e.at_mm -= at_mm;
            }
        for (Crossing &c : o.crossings)
            if (c.passage == id && c.there_mm > at_mm) {
                c.passage = newId;
                c.there_mm -= at_mm;
            }
    }
    for (Plug &plug : plugs)
        if (plug.passage == id && plug.at_mm > at_mm) {
            plug.passage = newId;
            plug.at_mm -= at_mm;
        }
    passages.insert(it + 1, std::move(second));
    return {};
}

} // namespace mildpath
