// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/logbook.h"

#include "bearing/thermal.h"
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "document/dimensions.h"
#include "document/enginevalue.h"
#include "quantity/rounding.h"
#include "quantity/units.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

namespace mildpath {
namespace {

class Checker
{
public:
    explicit Checker(const Build &build)
        : m_build(build)
    {
    }

    std::vector<Error> run()
    {
        if (m_build.name.empty())
            add("/name", "is empty");
        materials();
        circuit();
        stops();
        oilAndUse();
        limits();
        readings();
        proofs();
        fastening();
        shells();
        parts();
        twoValues();
        onceOnly();
        origins();
        checkHeat(m_build, m_errors);
        passages();
        checkPlumbing(m_build, m_errors);
        checkSump(m_build, m_errors);
        checkValues(m_build.start.values, startKeys(), "/start/values", m_errors);
        checkValues(m_build.finish.values, finishKeys(), "/finish/values", m_errors);
        checkValues(m_build.after.values, afterKeys(), "/after/values", m_errors);
        checkLogs(m_build, m_errors);
        return std::move(m_errors);
    }

private:
    void add(const std::string &place, Phrase message)
    {
        m_errors.push_back({ place, std::move(message) });
    }

    void material(const std::string &key, const std::string &id)
    {
        if (findMaterial(id))
            return;
        std::string known;
        for (const Material &m : materialTable())
            known += (known.empty() ? "" : ", ") + std::string(m.id);
        add("/engine/materials/" + key, "unknown material \"" + id + "\"; known: " + known);
    }

    void materials()
    {
        material("block", m_build.engine.block);
        material("crank", m_build.engine.crank);
        material("rod", m_build.engine.rod);
        if (!m_build.engine.mainCap.empty())
            material("main_cap", m_build.engine.mainCap);
        const double f = m_build.engine.mainCapFraction;
        if (!(f >= 0 && f <= 1))
            add("/engine/materials/main_cap_fraction", "must be 0 to 1");
    }

    void circuit()
    {
        const auto network = Network::compile(wholeCircuit(m_build));
        if (!network) {
            add("/circuit" + network.error().place, network.error().message);
            return;
        }
        m_nodes.insert(network->nodes().begin(), network->nodes().end());
        if (!m_build.circuit.taps.contains(m_build.gaugeTap))
            add("/circuit/gauge_tap", "\"" + m_build.gaugeTap + "\" is not one of the taps");
    }

    void stops()
    {
        std::set<std::string> ids, owned;
        for (size_t i = 0; i < m_build.engine.stops.size(); ++i) {
            const Stop &s = m_build.engine.stops[i];
            const std::string place = "/engine/stops/" + std::to_string(i);
            if (!ids.insert(s.id).second)
                add(place + "/id", "\"" + s.id + "\" is used twice");
            for (size_t p = 0; p < s.points.size() && !m_nodes.empty(); ++p)
                if (!m_nodes.contains(s.points[p].node))
                    add(place + "/points/" + std::to_string(p) + "/node",
                        "the circuit has no node \"" + s.points[p].node + "\"");
            for (size_t e = 0; e < s.elements.size(); ++e) {
                const std::string where = place + "/elements/" + std::to_string(e);
                if (!m_build.circuit.find(s.elements[e]))
                    add(where, "the circuit has no element \"" + s.elements[e] + "\"");
                else if (!owned.insert(s.elements[e]).second)
                    add(where, "\"" + s.elements[e] + "\" belongs to another stop already");
            }
            for (const auto &[key, value] : s.values)
                stopValue(s, key, value, place + "/values/" + key);
            if (const Family *family = findFamily(wordOf(s.kind)); family && family->shells)
                shelledStop(s, place);
        }
        if (m_build.engine.stops.empty())
            add("/engine/stops", "is empty");
    }

    void stopValue(const Stop &s, const std::string &key, double v, const std::string &place)
    {
        const NumberKey *known = findStopKey(s.kind, key);
        if (!known)
            add(place, "is not a number of a stop of kind \"" + std::string(wordOf(s.kind)) + "\"");
        else if (!known->allows(v))
            add(place, known->refusal(v));
    }

    void shelledStop(const Stop &s, const std::string &place)
    {
        if (const double d = journalOf_mm(m_build, s); d > 0 && !(d > 5 && d <= 500))
            add(place, { "", "a bearing's journal {0}", { mustBe(5, 500, d, "mm") } });
        int bearings = 0;
        for (const std::string &id : s.elements)
            if (const Element *e = m_build.circuit.find(id))
                bearings += isBearing(*e);
        if (bearings != 1)
            add(place + "/elements", "a gauged bearing needs exactly one element of type bearing");
        if (s.points.size() != 1)
            add(place + "/points", "a gauged bearing needs exactly one point");
        if (const double wall_mm = s.value("shell_wall_mm");
            wall_mm > 0 && s.value("groove_depth_mm") >= wall_mm)
            add(place + "/values/groove_depth_mm", "must be less than the wall of the shell");
        for (const std::string &id : s.elements)
            if (const Element *e = m_build.circuit.find(id);
                e && isBearing(*e) && s.value("journal_groove_width_mm") >= e->value("width_mm"))
                add(place + "/values/journal_groove_width_mm",
                    "must be less than the width of the bearing");
    }

    void oilAndUse()
    {
        const Oil &o = m_build.oil.oil;
        if (const auto line = waltherLine(o.kv40_mm2_s, o.kv100_mm2_s); !line)
            add("/oil/" + line.error().place, line.error().message);
        checkRanges(recordType<ChosenOil>(), &m_build.oil, "/oil", m_errors);
        if (!(o.rho15_kg_m3 >= 600 && o.rho15_kg_m3 <= 1200))
            add("/oil/rho15_kg_m3", mustBe(600, 1200, o.rho15_kg_m3, "kg/m³"));
        std::set<std::string> names;
        for (size_t i = 0; i < m_build.ownOils.size(); ++i) {
            const ChosenOil &own = m_build.ownOils[i];
            const std::string place = "/own_oils/" + std::to_string(i);
            if (const auto line = waltherLine(own.oil.kv40_mm2_s, own.oil.kv100_mm2_s); !line)
                add(place + "/" + line.error().place, line.error().message);
            checkRanges(recordType<ChosenOil>(), &own, place, m_errors);
            if (!(own.oil.rho15_kg_m3 >= 600 && own.oil.rho15_kg_m3 <= 1200))
                add(place + "/rho15_kg_m3", "must be 600 to 1200");
            if (own.grade.empty() || !names.insert(own.grade).second)
                add(place + "/grade", "is empty or used twice");
        }
        checkRanges(recordType<Engine>(), &m_build.engine, "/engine", m_errors);
        checkRanges(recordType<Use>(), &m_build.use, "/use", m_errors);
        if (!(m_build.use.most_rpm > m_build.use.hotIdle_rpm))
            add("/use/most_rpm", "must be above hot_idle_rpm");
    }

    void limits()
    {
        for (const auto &[kind, l] : m_build.limits) {
            const std::string place = "/limits/" + kind;
            const auto alone = kind.find('@');
            if (!findFamily(kind.substr(0, alone)))
                add(place, "is nothing that is gauged");
            if (alone != std::string::npos && !m_build.engine.find(kind.substr(alone + 1)))
                add(place, "there is no such bearing");
            if (!(l.min_um >= 0 && l.max_um <= mostClearanceReading_um))
                add(place,
                    { "limits.range",
                      "limits must lie within {0}",
                      { QuantityRange { asWholeClearance(0), asWholeClearance(1000) } } });
            if (!(l.min_um < l.max_um))
                add(place + "/max_um",
                    { "limits.order",
                      "must be above the minimum ({0}), is {1}",
                      { asLimit(l.min_um), asLimit(l.max_um) } });
            if (l.target_um && !(*l.target_um > 0 && *l.target_um <= mostClearanceReading_um))
                add(place + "/target_um",
                    mustBe(QuantityRange { asWholeClearance(0), asWholeClearance(1000) },
                           asLimit(*l.target_um)));
        }
    }

    void readings()
    {
        // Places that exist, asked once: a build may hold hundreds of readings.
        std::set<std::tuple<std::string, std::string_view, int>> places;
        for (const SizeItem &i : sizeItems(m_build))
            places.emplace(i.stop->id, i.family->id, i.item);
        std::set<std::string> ids;
        for (size_t i = 0; i < m_build.readings.size(); ++i) {
            const Reading &r = m_build.readings[i];
            const std::string place = "/readings/" + std::to_string(i);
            const Family *family = findFamily(r.family);
            if (!m_build.engine.find(r.stop))
                add(place + "/stop", "there is no stop \"" + r.stop + "\"");
            else if (!family)
                add(place + "/family",
                    "\"" + r.family + "\" is nothing that is gauged at \"" + r.stop + "\"");
            else if (!places.contains({ r.stop, family->id, r.item }))
                add(place + "/item",
                    "\"" + r.stop + "\" has no " + std::string(family->plural) + " number "
                        + std::to_string(r.item));
            else
                method(r, *family, place);
            if (!r.replaces.empty() && !ids.contains(r.replaces))
                add(place + "/replaces", "there is no earlier reading \"" + r.replaces + "\"");
            if (!ids.insert(r.id).second)
                add(place + "/id", "\"" + r.id + "\" is used twice");
            readingNumbers(r, place);
        }
    }

    void method(const Reading &r, const Family &family, const std::string &place)
    {
        if (std::find(family.methods.begin(), family.methods.end(), r.method)
            == family.methods.end()) {
            std::string known;
            for (const std::string_view m : family.methods)
                known += (known.empty() ? "" : ", ") + std::string(m);
            add(place + "/method",
                "\"" + r.method + "\" does not measure " + std::string(family.plural)
                    + "; known: " + known);
        }
        if (r.method == "drop_feel" && !findDropFeel(r.feel))
            add(place + "/feel", "must be hangs, smooth or drops, is \"" + r.feel + "\"");
    }

    void readingNumbers(const Reading &r, const std::string &place)
    {
        const bool zero = r.value_um && r.family != "run_out" && *r.value_um == 0;
        if (r.value_um && (zero || !(*r.value_um >= 0 && *r.value_um <= mostClearanceReading_um)))
            add(place + "/value_um",
                { "reading.range",
                  "must be above 0 and at most {0}, is {1}",
                  { asWholeClearance(mostClearanceReading_um), asClearance(*r.value_um) } });
        for (const auto &[key, u] :
             { std::pair("u_um", r.u_um), std::pair("journal_u_um", r.journalU_um) })
            if (!(u >= 0 && u <= 100))
                add(place + "/" + key, mustBe(0, 100, u, "µm"));
        for (const auto &[key, d] :
             { std::pair("bore_mm", r.bore_mm), std::pair("journal_mm", r.journal_mm) })
            if (d && !(*d > 1 && *d <= 600))
                add(place + "/" + key, mustBe(1, 600, *d, "mm"));
        if (!(r.angle_deg >= 0 && r.angle_deg <= 360))
            add(place + "/angle_deg",
                { "", "{0} from the parting line", { mustBe(0, 360, r.angle_deg, "°") } });
        if (!(r.station >= 1 && r.station <= 12))
            add(place + "/station", "must be 1 to 12");
        for (const auto &[key, t] :
             { std::pair("housing_temp_c", r.housing_c), std::pair("journal_temp_c", r.journal_c) })
            if (!(t >= -40 && t <= 200))
                add(place + "/" + key, mustBe(-40, 200, t, "°C"));
    }

    void proofs()
    {
        std::set<std::string> ids;
        for (size_t i = 0; i < m_build.proofs.size(); ++i) {
            const Proof &p = m_build.proofs[i];
            const std::string place = "/proofs/" + std::to_string(i);
            if (!ids.insert(p.id).second)
                add(place + "/id", "\"" + p.id + "\" is used twice");
            if (!m_build.engine.find(p.stop))
                add(place + "/stop", "there is no stop \"" + p.stop + "\"");
            if (p.aspect != "size" && p.aspect != "clean" && p.aspect != "flow")
                add(place + "/aspect", "must be size, clean or flow, is \"" + p.aspect + "\"");
            if (p.verdict != "proven" && p.verdict != "look_again" && p.verdict != "hold")
                add(place + "/verdict",
                    "must be proven, look_again or hold, is \"" + p.verdict + "\"");
        }
    }

    const TorqueCard *cardOf(const std::string &id) const
    {
        const auto it = std::ranges::find(m_build.torqueCards, id, &TorqueCard::id);
        return it == m_build.torqueCards.end() ? nullptr : &*it;
    }
    void fastening()
    {
        std::set<std::string> cards, ids;
        for (size_t i = 0; i < m_build.torqueCards.size(); ++i) {
            const TorqueCard &c = m_build.torqueCards[i];
            const std::string place = "/torque_cards/" + std::to_string(i);
            if (!cards.insert(c.id).second)
                add(place + "/id", "\"" + c.id + "\" is used twice");
            if (c.stages.empty() || c.fasteners.empty())
                add(place, "needs stages and fasteners");
            for (size_t k = 0; k < c.stages.size(); ++k)
                if (!c.stages[k].unit.empty() && !findUnit(c.stages[k].unit, Dimension::Torque))
                    add(place + "/stages/" + std::to_string(k) + "/unit",
                        "\"" + c.stages[k].unit + "\" is no unit of torque");
            if (m_errors.empty())
                if (const auto ok = checkStages(c.stages); !ok && ok.error().place != "stages")
                    add(place + "/stages/"
                            + std::to_string(std::stoi(ok.error().place.substr(6)) - 1),
                        ok.error().message);
            if (c.uses < 0 || c.uses > 99)
                add(place + "/uses", "must be 0 to 99");
            if (!c.after.empty()
                && (c.after == c.id || !cardOf(c.after) || cardOf(c.after)->after == c.id))
                add(place + "/after", "there is no card \"" + c.after + "\" that comes first");
            std::set<std::tuple<std::string, double, double>> bolts;
            for (size_t k = 0; k < c.fasteners.size(); ++k)
                if (!bolts.insert({ c.fasteners[k].stop, c.fasteners[k].x_mm, c.fasteners[k].y_mm })
                         .second)
                    add(place + "/fasteners/" + std::to_string(k), "is listed twice");
            for (size_t k = 0; k < c.fasteners.size(); ++k)
                if (!m_build.engine.find(c.fasteners[k].stop))
                    add(place + "/fasteners/" + std::to_string(k) + "/stop",
                        "there is no stop \"" + c.fasteners[k].stop + "\"");
        }
        for (size_t i = 0; i < m_build.ticks.size(); ++i) {
            const TorqueTick &t = m_build.ticks[i];
            const std::string place = "/torque_ticks/" + std::to_string(i);
            const auto card = std::find_if(m_build.torqueCards.begin(), m_build.torqueCards.end(),
                                           [&](const TorqueCard &c) { return c.id == t.card; });
            if (!ids.insert(t.id).second)
                add(place + "/id", "\"" + t.id + "\" is used twice");
            if (card == m_build.torqueCards.end())
                add(place + "/card", "there is no torque card \"" + t.card + "\"");
            else if (t.fastener < 1 || t.fastener > static_cast<int>(card->fasteners.size()))
                add(place + "/fastener", "is not on the card");
            else if (t.stage < 0
                     || (t.edition == card->edition
                         && t.stage > static_cast<int>(card->stages.size())))
                add(place + "/stage", "is not on the card");
        }
    }

    void shells()
    {
        for (const auto &[family, stock] : m_build.shells) {
            const std::string place = "/shells/" + family;
            const Family *known = findFamily(family);
            if (!known || !known->shells)
                add(place, "is no family of bearings with shells");
            for (size_t i = 0; i < stock.shells.size(); ++i) {
                const ShellStockRow &row = stock.shells[i];
                const std::string where = place + "/shells/" + std::to_string(i);
                if (row.name.empty())
                    add(where + "/name", "is empty");
                if (!(row.wall_mm > 0.3 && row.wall_mm <= 20))
                    add(where + "/wall_mm",
                        mustBe(QuantityRange { asLength(0.3, 1), asLength(20, 1) },
                               asLength(row.wall_mm, 3)));
                if (row.halves && !(*row.halves >= 0 && *row.halves <= 1000))
                    add(where + "/halves", "must be 0 to 1000");
            }
            for (const auto *classes : { &stock.housings, &stock.journals })
                for (const SizeClass &c : *classes)
                    if (c.name.empty() || !(c.least_mm > 1 && c.most_mm <= 600)
                        || !(c.least_mm < c.most_mm))
                        add(place,
                            { "shells.class",
                              "class \"{0}\" needs a name and a range within {1}, least below most",
                              { c.name, QuantityRange { asLength(1), asLength(600) } } });
            for (const auto &[stop, fitted] : stock.fitted) {
                if (!m_build.engine.find(stop))
                    add(place + "/fitted/" + stop, "there is no such stop");
                for (const std::string &name : { fitted.upper, fitted.lower })
                    if (!name.empty() && !stock.find(name))
                        add(place + "/fitted/" + stop, "there is no shell \"" + name + "\"");
            }
            for (const double u : stock.undersizes_mm)
                if (!(u > 0 && u <= 3))
                    add(place + "/undersizes_mm",
                        { "shells.undersize", "must be above 0 and at most {0}", { asLength(3) } });
        }
    }

    /// What follows from other sizes may not stand a second time.
    void onceOnly()
    {
        const Engine &e = m_build.engine;
        if (e.displacement_l > 0 && e.bore_mm > 0 && e.stroke_mm > 0)
            add("/engine/displacement_l", "follows from bore and stroke: set those");
        for (size_t i = 0; i < m_build.passages.size(); ++i)
            if (const Passage &p = m_build.passages[i];
                !p.elements.empty() && p.extra.json().contains("d_mm"))
                add("/passages/" + std::to_string(i) + "/d_mm",
                    "is that of its elements: set it there");
        for (const Plug &p : m_build.plugs)
            if (const Stop *stop = e.find(p.stop); stop && stop->has("plug_bore_mm"))
                add("/plugs/" + p.id + "/d_mm", "stands at " + stop->name + " as well");
    }
    void origins()
    {
        for (const auto &[at, origin] : m_build.origins)
            if (!aboutValue(m_build, at))
                add("/sources/" + at, "there is no such number");
    }
    bool isSize(const std::string &of, const std::string &key) const
    {
        if (of == "engine")
            return recordType<Engine>().find(key);
        if (findPlug(m_build.plugs, of))
            return key == "plug_bore_mm";
        const Element *e = m_build.circuit.find(of);
        return e && findElementKey(e->kind, key);
    }
    void twoValues()
    {
        for (size_t i = 0; i < m_build.twoValues.size(); ++i) {
            const TwoValues &t = m_build.twoValues[i];
            if (!isSize(t.element, t.key))
                add("/two_values/" + std::to_string(i),
                    "there is no " + t.key + " of \"" + t.element + "\"");
        }
    }

    void parts()
    {
        for (size_t i = 0; i < m_build.weighings.size(); ++i) {
            const Weighing &w = m_build.weighings[i];
            const std::string place = "/weighings/" + std::to_string(i);
            checkRanges(recordType<Weighing>(), &w, place, m_errors);
            if (!(w.item >= 1 && w.item <= 48))
                add(place + "/item", "must be 1 to 48");
        }
        for (const auto &[part, p] : m_build.weighedParts)
            checkRanges(recordType<WeighedPart>(), &p, "/weighed_parts/" + part, m_errors);
    }

    void passages()
    {
        for (Error &e : checkPassages(m_build.passages, m_build.plugs))
            m_errors.push_back(std::move(e));
        const auto stop = [&](const std::string &place, const std::string &id) {
            if (!id.empty() && !m_build.engine.find(id))
                add(place + "/stop", "there is no stop \"" + id + "\"");
        };
        for (size_t i = 0; i < m_build.passages.size(); ++i) {
            const std::string place = "/passages/" + std::to_string(i);
            stop(place, m_build.passages[i].stop);
            for (size_t e = 0; e < 2; ++e)
                stop(place + "/ends/" + std::to_string(e), m_build.passages[i].ends[e].stop);
        }
        for (size_t i = 0; i < m_build.plugs.size(); ++i)
            stop("/plugs/" + std::to_string(i), m_build.plugs[i].stop);
    }

    const Build &m_build;
    std::set<std::string> m_nodes;
    std::vector<Error> m_errors;
};

} // namespace

std::vector<Error> validateBuild(const Build &build)
{
    return Checker(build).run();
}

} // namespace mildpath
