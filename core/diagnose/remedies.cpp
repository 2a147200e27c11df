// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/remedies.h"

#include "assess/circuitof.h"
#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "circuit/elementtypes.h"
#include "oil/grades.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

struct Trial
{
    std::string id, name;
    Phrase what;
    CircuitChange change;
    std::string missing; ///< why it cannot be done here; empty: it can
};

class Shelf
{
public:
    explicit Shelf(const Build &build)
        : m_build(build)
    {
    }

    std::vector<Trial> all()
    {
        externalLine();
        pushrods();
        cams();
        simple();
        return std::move(m_out);
    }

private:
    std::vector<std::string> elements(StopKind stopKind, ElementKind kind, bool toSump) const
    {
        std::vector<std::string> out;
        for (const Stop &s : m_build.engine.stops)
            for (const std::string &id : s.elements)
                if (const Element *e = m_build.circuit.find(id);
                    e && s.kind == stopKind && e->kind == kind && (e->to == sumpNode) == toSump)
                    out.push_back(id);
        return out;
    }
    void add(std::string id, std::string name, Phrase what, CircuitChange change,
             std::string missing = {})
    {
        m_out.push_back({ std::move(id), std::move(name), std::move(what), std::move(change),
                          std::move(missing) });
    }

    void externalLine()
    {
        const Stop *pump = m_build.engine.ofKind(StopKind::Pump);
        if (pump)
            add("external_line", "Line from pump to gauge port",
                { "remedy.line",
                  "{0} bore, {1}",
                  { asLength(6, 0), Quantity { 0.8, Shows::Distance, 0, 1 } } },
                faultChange(m_build, { { "external_line", pump->id, 0, 1 } }));
    }

    void pushrods()
    {
        const auto rods = elements(StopKind::Lifter, ElementKind::Pipe, true);
        const auto meters = elements(StopKind::Lifter, ElementKind::Orifice, false);
        const Quantity restrictor = asLength(pushrodRestrictor_mm, 1);
        const std::string missing = rods.empty() ? "the circuit has no pushrods of its own" : "";
        const Stop *lifters = m_build.engine.ofKind(StopKind::Lifter);
        add("pushrods_hydraulic", "Pushrods restricted, hydraulic",
            { "remedy.pushrods", "{0} in each pushrod", { restrictor } },
            faultChange(m_build, { { "pushrods_restricted", lifters ? lifters->id : "", 0, 1 } }),
            missing);
        const auto solid = [rods, meters](Circuit &c, double lash_mm, bool restricted) {
            // No meter: the lifter passes what its pushrod's bore would. Whenever there is lash
            // the oil leaves at the pushrod's seat, before the restrictor.
            for (const std::string &id : rods) {
                Element *rod = c.find(id);
                if (!rod)
                    continue;
                for (const std::string &m : meters)
                    if (Element *meter = c.find(m); meter && meter->to == rod->from)
                        meter->values["d_mm"] = rod->value("d_mm");
                if (restricted)
                    rod->values["k"] += restrictorLoss(rod->value("d_mm"), pushrodRestrictor_mm);
                if (lash_mm > 0) {
                    Element gap { "lash@" + id,
                                  ElementKind::Annulus,
                                  rod->from,
                                  std::string(sumpNode),
                                  { { "d_mm", pushrodSeat_mm },
                                    { "clearance_um", 2e3 * lash_mm },
                                    { "l_mm", 1 },
                                    { "duty", lashOpen } },
                                  {} };
                    c.elements.push_back(std::move(gap));
                }
            }
        };
        const Quantity lash = asLength(usualLash_mm, 2);
        add(
            "solid_lifters", "Solid lifters, plain pushrods",
            { "remedy.solid", "no meter, {0} lash", { lash } },
            [solid](Circuit &c, Oil &) -> Result<void> {
                solid(c, usualLash_mm, false);
                return {};
            },
            missing);
        add(
            "solid_restricted", "Solid lifters, pushrods restricted",
            { "remedy.solid_restricted", "no meter, {0} lash, {1} rods", { lash, restrictor } },
            [solid](Circuit &c, Oil &) -> Result<void> {
                solid(c, usualLash_mm, true);
                return {};
            },
            missing);
    }

    void cams()
    {
        // What leads into the cam bearings from outside their own stop.
        std::vector<std::string> feeds;
        for (const Stop &s : m_build.engine.stops) {
            if (s.kind != StopKind::CamBearing)
                continue;
            std::vector<std::string> within;
            for (const StopPoint &p : s.points)
                within.push_back(p.node);
            for (const std::string &id : s.elements)
                if (const Element *e = m_build.circuit.find(id); e
                    && (e->kind == ElementKind::Pipe || e->kind == ElementKind::Orifice)
                    && std::find(within.begin(), within.end(), e->to) != within.end()
                    && std::find(within.begin(), within.end(), e->from) == within.end())
                    feeds.push_back(id);
        }
        add(
            "cam_restrictors", "Restrictors to the cam bearings",
            { "remedy.cams", "{0} in each feed", { asLength(camRestrictor_mm) } },
            [feeds](Circuit &c, Oil &) -> Result<void> {
                for (const std::string &id : feeds)
                    if (Element *e = c.find(id)) {
                        if (e->kind == ElementKind::Pipe)
                            e->values["k"] += restrictorLoss(e->value("d_mm"), camRestrictor_mm);
                        else
                            e->values["d_mm"] = std::min(e->value("d_mm"), camRestrictor_mm);
                    }
                return {};
            },
            feeds.empty() ? "no cam bearing is fed by a drilling of its own" : "");
    }

    void simple()
    {
        const auto bores = elements(StopKind::Lifter, ElementKind::Annulus, true);
        add(
            "bushed_lifters", "Lifter bores bushed",
            { "remedy.bushed", "{0} in the bush", { asWholeClearance(bushed_um) } },
            [bores](Circuit &c, Oil &) -> Result<void> {
                for (const std::string &id : bores)
                    if (Element *e = c.find(id))
                        e->values["clearance_um"] = std::min(e->value("clearance_um"), bushed_um);
                return {};
            },
            bores.empty() ? "there are no lifter bores" : "");
        add("big_pump", "High-volume pump",
            { "remedy.rotors", "{0} longer rotors", { asShare(longerRotors - 1) } },
            [](Circuit &c, Oil &) -> Result<void> {
                lengthenRotors(c, longerRotors);
                return {};
            });
        const Stop *relief = m_build.engine.ofKind(StopKind::Relief);
        add(
            "stiff_spring", "Stiffer relief spring",
            { "", "{0}", { asChange(asPressure(stiffer_kpa * 1e3, 1)) } },
            [this](Circuit &c, Oil &) -> Result<void> {
                stiffenSpring(m_build, c, stiffer_kpa);
                return {};
            },
            relief ? "" : "there is no relief valve");
        const ShelfOil *thicker = nextThickerOil(m_build.oil.oil);
        add(
            "thicker_oil", "Thicker oil", thicker ? std::string(thicker->grade) : "",
            [thicker](Circuit &, Oil &oil) -> Result<void> {
                oil = thicker->oil;
                return {};
            },
            thicker ? "" : "the shelf has no thicker one");
        add("grooves", "Grooves all round the mains", "full groove, rods fed all the turn",
            [this](Circuit &c, Oil &) -> Result<void> {
                for (Element &e : c.elements) {
                    if (e.kind == ElementKind::CrankDrilling)
                        e.values["duty"] = 1;
                    if (isBearing(e) && ofStop(e.id, StopKind::Main))
                        e.values["groove_deg"] = 360;
                }
                return {};
            });
        add("mains_tighter", "Mains tighter",
            { "remedy.tighter", "{0} tighter, all of them", { asWholeClearance(tighter_um) } },
            [this](Circuit &c, Oil &) -> Result<void> {
                for (Element &e : c.elements)
                    if (isBearing(e) && ofStop(e.id, StopKind::Main))
                        e.values["clearance_um"]
                            = std::max(1.0, e.value("clearance_um") - tighter_um);
                return {};
            });
    }

    bool ofStop(const std::string &element, StopKind kind) const
    {
        return std::any_of(
            m_build.engine.stops.begin(), m_build.engine.stops.end(), [&](const Stop &s) {
                return s.kind == kind
                    && std::find(s.elements.begin(), s.elements.end(), element) != s.elements.end();
            });
    }

    const Build &m_build;
    std::vector<Trial> m_out;
};

Result<RemedyFigures> figuresOf(const Build &build, const std::vector<GaugedSize> &sizes,
                                const CircuitChange &change)
{
    auto model = OperatingModel::make(build, sizes, build.use.hotOil_c, change);
    if (!model)
        return tl::unexpected(model.error());
    const auto idle = model->at(build.use.hotIdle_rpm, OperatingModel::Detail::Everything);
    if (!idle)
        return tl::unexpected(idle.error());
    const auto fast = model->at(build.use.highSpeed_rpm, OperatingModel::Detail::Everything);
    if (!fast)
        return tl::unexpected(fast.error());
    RemedyFigures out;
    out.gauge_pa = idle->gauge.value_pa;
    out.gaugeFast_pa = fast->gauge.value_pa;
    for (const PointPressure &p : idle->points) {
        const StopKind kind = build.engine.find(p.stop)->kind;
        const bool bearing = kind == StopKind::Main || kind == StopKind::BigEnd;
        if (bearing && p.need_pa > 0 && (out.bearing.empty() || p.ratio() < out.bearingRatio)) {
            out.bearing = p.name;
            out.bearing_pa = p.pressure_pa;
            out.bearingRatio = p.ratio();
        }
    }
    for (const OilShare &s : idle->shares)
        if (s.id == "mains" || s.id == "big_ends")
            out.bearingOil_m3_s += s.flow_m3_s;
    if (idle->weakest >= 0) {
        const PointPressure &p = idle->points[static_cast<size_t>(idle->weakest)];
        out.weakest = p.name;
        out.weakest_pa = p.pressure_pa;
        out.weakestRatio = p.ratio();
    }
    out.power_w = pumpPower_w(build, *fast);
    out.relief_m3_s = fast->reliefFlow_m3_s;
    const double share = fast->pumpFlow_m3_s > 0 ? fast->reliefFlow_m3_s / fast->pumpFlow_m3_s : 0;
    out.churn = share < reliefOpenShare ? Churn::None
        : share < muchOver              ? Churn::Some
                                        : Churn::Much;
    return out;
}

void judge(const RemedyFigures &now, Remedy &r)
{
    const double needle = r.figures.gauge_pa - now.gauge_pa;
    const double bearing = r.figures.bearing_pa - now.bearing_pa;
    r.needleOnly = needle > needleUp_pa && bearing < needle / 2;
    if (r.needleOnly)
        r.verdict = "pressure gauge reads higher, bearings gain nothing";
    else if (std::abs(needle) < nothing_pa && std::abs(bearing) < nothing_pa)
        r.verdict = r.id == "stiff_spring" ? "nothing: relief shut at idle"
                                           : "nothing a pressure gauge could tell";
    else if (bearing > nothing_pa)
        r.verdict = r.figures.power_w > costly * now.power_w ? "helps, and costs power"
                                                             : "helps the bearings";
    else if (bearing < -nothing_pa)
        r.verdict = "lowers bearing pressure";
    else
        r.verdict = "hardly anything";
    if (r.figures.churn == Churn::Much && now.churn != Churn::Much)
        append(r.verdict, "relief flow returns hotter with more air");
}

} // namespace

std::string_view churnWord(Churn churn)
{
    switch (churn) {
    case Churn::None:
        return "relief shut";
    case Churn::Some:
        return "some over the relief";
    case Churn::Much:
        return "much over the relief";
    }
    return "";
}

Result<RemedyTable> compareRemedies(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::vector<Fault> &faults)
{
    const CircuitChange present = faultChange(build, faults);
    const auto now = figuresOf(build, sizes, present);
    if (!now)
        return tl::unexpected(now.error());
    RemedyTable out;
    out.now = *now;
    Shelf shelf(build);
    for (Trial &t : shelf.all()) {
        if (!t.missing.empty()) {
            out.notHere.push_back(t.name + ": " + t.missing);
            continue;
        }
        Remedy r { t.id, t.name, t.what, {}, "", false, true };
        const auto both = [&](Circuit &circuit, Oil &oil) -> Result<void> {
            if (auto ok = present(circuit, oil); !ok)
                return ok;
            return t.change(circuit, oil);
        };
        if (const auto figures = figuresOf(build, sizes, both)) {
            r.figures = *figures;
            judge(out.now, r);
        } else {
            r.solved = false;
            r.verdict = figures.error().message;
        }
        out.remedies.push_back(std::move(r));
    }
    return out;
}

} // namespace mildpath
