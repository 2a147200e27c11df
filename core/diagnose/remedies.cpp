// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/remedies.h"

#include "assess/circuitof.h"
#include "assess/crankfeeds.h"
#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "circuit/elementtypes.h"
#include "oil/grades.h"
#include "rules/rules.h"
#include "study/contacts.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// A lifter metered by its edge passes about as much as a hole of this size. Own choice, no source.
constexpr double edgeMeter_mm = 0.8;
/// Less supply at the highest speed by this share is said. Own choice.
constexpr double lessAtMost = 0.05;

struct Trial
{
    std::string id, name;
    Phrase what;
    CircuitChange change;
    std::string missing; ///< why it cannot be done here; empty: it can
    std::optional<RemedySize> size {};
};

class Shelf
{
public:
    Shelf(const Build &build, const RemedyWishes &wishes)
        : m_build(build)
        , m_wishes(wishes)
    {
    }

    std::vector<Trial> all()
    {
        externalLine();
        if (m_build.engine.ofKind(StopKind::Lifter))
            pushrods();
        cams();
        pumps();
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
             std::string missing = {}, std::optional<RemedySize> size = {})
    {
        m_out.push_back({ std::move(id), std::move(name), std::move(what), std::move(change),
                          std::move(missing), std::move(size) });
    }
    /// As wished, else usual.
    RemedySize sized(const char *id, std::string meaning, std::string_view unit, double usual,
                     double least, double most) const
    {
        const auto own = m_wishes.sizes.find(id);
        const double value = own == m_wishes.sizes.end() ? usual : own->second;
        return { std::move(meaning), unit, std::clamp(value, least, most), least, most };
    }

    void externalLine()
    {
        const Stop *pump = m_build.engine.ofKind(StopKind::Pump);
        if (!pump)
            return;
        const RemedySize bore
            = sized("external_line", "bore of the line", "mm", helperLineBore_mm, 3, 16);
        const CircuitChange usual = faultChange(m_build, { { "external_line", pump->id, 0, 1 } });
        add(
            "external_line", "Line from pump to gauge port",
            { "remedy.line",
              "{0} bore, {1}",
              { asLength(bore.value, 0),
                Quantity { helperLineLength_mm / 1e3, Shows::Distance, 0, 1 } } },
            [usual, d_mm = bore.value](Circuit &c, Oil &oil) -> Result<void> {
                const size_t before = c.elements.size();
                auto ok = usual(c, oil);
                for (size_t i = before; ok && i < c.elements.size(); ++i)
                    c.elements[i].values["d_mm"] = d_mm;
                return ok;
            },
            {}, bore);
    }

    void pushrods()
    {
        const auto rods = elements(StopKind::Lifter, ElementKind::Pipe, true);
        const auto meters = elements(StopKind::Lifter, ElementKind::Orifice, false);
        if (rods.empty())
            return; // no pushrod of this engine carries oil
        const RemedySize hole = sized("pushrods_hydraulic", "hole of the restrictor", "mm",
                                      pushrodRestrictor_mm, 0.3, 3);
        add(
            "pushrods_hydraulic", "Pushrods restricted, hydraulic",
            { "remedy.pushrods", "{0} in each pushrod", { asLength(hole.value, 1) } },
            [rods, d_mm = hole.value](Circuit &c, Oil &) -> Result<void> {
                for (const std::string &id : rods)
                    if (Element *rod = c.find(id))
                        rod->values["k"] += restrictorLoss(rod->value("d_mm"), d_mm);
                return {};
            },
            {}, hole);
        const RemedySize meter = sized("solid_lifters", "hole of the meter; 0: metered by the edge",
                                       "mm", solidMeter_mm, 0, 3);
        const auto solid = [rods, meters](Circuit &c, double meter_mm, double restrictor_mm) {
            // The meter comes first, the lash after it: whenever there is lash the oil leaves at
            // the pushrod's seat, before a restrictor in the rod.
            for (const std::string &id : rods) {
                Element *rod = c.find(id);
                if (!rod)
                    continue;
                for (const std::string &m : meters)
                    if (Element *metering = c.find(m); metering && metering->to == rod->from)
                        metering->values["d_mm"] = meter_mm;
                if (restrictor_mm > 0)
                    rod->values["k"] += restrictorLoss(rod->value("d_mm"), restrictor_mm);
                Element gap { "lash@" + id,
                              ElementKind::Annulus,
                              rod->from,
                              std::string(sumpNode),
                              { { "d_mm", pushrodSeat_mm },
                                { "clearance_um", 2e3 * usualLash_mm },
                                { "l_mm", 1 },
                                { "duty", lashOpen } },
                              {} };
                c.elements.push_back(std::move(gap));
            }
        };
        // Metered by its edge a lifter passes oil while its groove meets the gallery: that share
        // of the turn the meter's own hole would be open as wide as the pushrod.
        const double hole_mm = meter.value > 0 ? meter.value : edgeMeter_mm;
        const Quantity lash = asLength(usualLash_mm, 2);
        const Phrase metered = meter.value > 0
            ? Phrase("remedy.meter", "meter {0}", { asLength(meter.value, 1) })
            : Phrase("metered by the edge");
        add(
            "solid_lifters", "Solid lifters, plain pushrods",
            { "remedy.solid", "{0}, {1} lash", { metered, lash } },
            [solid, hole_mm](Circuit &c, Oil &) -> Result<void> {
                solid(c, hole_mm, 0);
                return {};
            },
            {}, meter);
        add("solid_restricted", "Solid lifters, pushrods restricted",
            { "remedy.solid_restricted",
              "{0}, {1} lash, {2} rods",
              { metered, lash, asLength(hole.value, 1) } },
            [solid, hole_mm, d_mm = hole.value](Circuit &c, Oil &) -> Result<void> {
                solid(c, hole_mm, d_mm);
                return {};
            });
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
        const RemedySize hole
            = sized("cam_restrictors", "hole of the restrictor", "mm", camRestrictor_mm, 0.3, 5);
        add(
            "cam_restrictors", "Restrictors to the cam bearings",
            { "remedy.cams", "{0} in each feed", { asLength(hole.value) } },
            [feeds, d_mm = hole.value](Circuit &c, Oil &) -> Result<void> {
                for (const std::string &id : feeds)
                    if (Element *e = c.find(id)) {
                        if (e->kind == ElementKind::Pipe)
                            e->values["k"] += restrictorLoss(e->value("d_mm"), d_mm);
                        else
                            e->values["d_mm"] = std::min(e->value("d_mm"), d_mm);
                    }
                return {};
            },
            feeds.empty() ? "no cam bearing is fed by a drilling of its own" : "", hole);
    }

    void pumps()
    {
        const RemedySize longer
            = sized("big_pump", "rotors longer by", "", longerRotors - 1, 0.02, 1);
        add(
            "big_pump", "High-volume pump",
            { "remedy.rotors", "{0} longer rotors", { asShare(longer.value) } },
            [factor = 1 + longer.value](Circuit &c, Oil &) -> Result<void> {
                lengthenRotors(c, factor);
                return {};
            },
            {}, longer);
        const RemedySize shorter
            = sized("small_pump", "rotors shorter by", "", 1 - shorterRotors, 0.02, 0.6);
        add(
            "small_pump", "Smaller pump",
            { "remedy.shorter", "{0} shorter rotors", { asShare(shorter.value) } },
            [factor = 1 - shorter.value](Circuit &c, Oil &) -> Result<void> {
                lengthenRotors(c, factor);
                return {};
            },
            {}, shorter);
        const Stop *relief = m_build.engine.ofKind(StopKind::Relief);
        const RemedySize spring
            = sized("stiff_spring", "opens later by", "kPa", stiffer_kpa, 10, 500);
        add(
            "stiff_spring", "Stiffer relief spring",
            { "", "{0}", { asChange(asPressure(spring.value * 1e3, 1)) } },
            [this, kpa = spring.value](Circuit &c, Oil &) -> Result<void> {
                stiffenSpring(m_build, c, kpa);
                return {};
            },
            relief ? "" : "there is no relief valve", spring);
    }

    void simple()
    {
        const auto bores = elements(StopKind::Lifter, ElementKind::Annulus, true);
        const RemedySize bush
            = sized("bushed_lifters", "clearance in the bush", "µm", bushed_um, 10, 200);
        if (!bores.empty())
            add(
                "bushed_lifters", "Lifter bores bushed",
                { "remedy.bushed", "{0} in the bush", { asWholeClearance(bush.value) } },
                [bores, um = bush.value](Circuit &c, Oil &) -> Result<void> {
                    for (const std::string &id : bores)
                        if (Element *e = c.find(id))
                            e->values["clearance_um"] = std::min(e->value("clearance_um"), um);
                    return {};
                },
                {}, bush);
        const ShelfOil *thicker = nextThickerOil(m_build.oil.oil);
        add(
            "thicker_oil", "Thicker oil", thicker ? std::string(thicker->grade) : "",
            [thicker](Circuit &, Oil &oil) -> Result<void> {
                oil = runningOil(*thicker);
                return {};
            },
            thicker ? "" : "the shelf has no thicker one");
        add("grooves", "Grooves all round the mains", "where a main feeds a rod",
            [this](Circuit &c, Oil &) -> Result<void> {
                for (const Stop &main : m_build.engine.stops) {
                    if (main.kind != StopKind::Main || !feedsRod(c, main))
                        continue;
                    MainGroove groove = mainGroove(m_build, main);
                    if (groove.kind != FeedGroove::Journal)
                        groove = withGrooveAllRound(groove, main);
                    for (Element &e : c.elements) {
                        if (e.kind == ElementKind::CrankDrilling
                            && e.from == main.points.front().node)
                            feedDrillingBy(e, groove, e.value("r_in_mm") * 1e-3);
                        if (isBearing(e)
                            && std::ranges::find(main.elements, e.id) != main.elements.end())
                            e.values["groove_deg"] = 360;
                    }
                }
                return {};
            });
        const RemedySize tight = sized("mains_tighter", "tighter by", "µm", tighter_um, 1, 60);
        add(
            "mains_tighter", "Mains tighter",
            { "remedy.tighter", "{0} tighter, all of them", { asWholeClearance(tight.value) } },
            [this, um = tight.value](Circuit &c, Oil &) -> Result<void> {
                for (Element &e : c.elements)
                    if (isBearing(e) && ofStop(e.id, StopKind::Main))
                        e.values["clearance_um"] = std::max(1.0, e.value("clearance_um") - um);
                return {};
            },
            {}, tight);
    }

    /// A main that feeds none is only the worse for a groove.
    static bool feedsRod(const Circuit &c, const Stop &main)
    {
        return !main.points.empty() && std::ranges::any_of(c.elements, [&](const Element &e) {
            return e.kind == ElementKind::CrankDrilling && e.from == main.points.front().node;
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
    const RemedyWishes &m_wishes;
    std::vector<Trial> m_out;
};

/// The main or big-end worst off for its need; null without one.
const PointPressure *worstBearing(const Build &build, const OperatingResult &result)
{
    const PointPressure *out = nullptr;
    for (const PointPressure &p : result.points) {
        const StopKind kind = build.engine.find(p.stop)->kind;
        if ((kind == StopKind::Main || kind == StopKind::BigEnd) && p.need_pa > 0
            && (!out || p.ratio() < out->ratio()))
            out = &p;
    }
    return out;
}

CrankFigures crankOf(const Build &build, const OperatingResult &result)
{
    CrankFigures out;
    out.gauge_pa = result.gauge.value_pa;
    if (const PointPressure *fed = result.leastFed())
        out.fedShare = fed->fedShare;
    for (const Contact &c : contactsOf(build, result))
        if (c.id == "mains_full" || (c.id == "mains" && out.mainFilm_m == 0)) {
            out.mainFilm_m = c.film_m.value_or(0);
            out.filmParameter = c.filmParameter;
        }
    return out;
}

Result<RemedyFigures> figuresOf(const Build &build, const std::vector<GaugedSize> &sizes,
                                const CircuitChange &change)
{
    auto model = OperatingModel::make(build, sizes, build.use.hotOil_c, change);
    if (!model)
        return tl::unexpected(model.error());
    const auto idle = model->at(build.use.hotIdle_rpm, OperatingModel::Detail::Films);
    if (!idle)
        return tl::unexpected(idle.error());
    const auto fast = model->at(build.use.highSpeed_rpm, OperatingModel::Detail::Films);
    if (!fast)
        return tl::unexpected(fast.error());
    const auto most = model->at(build.use.most_rpm, OperatingModel::Detail::Films);
    if (!most)
        return tl::unexpected(most.error());
    RemedyFigures out;
    out.idle = crankOf(build, *idle);
    out.most = crankOf(build, *most);
    if (const PointPressure *p = worstBearing(build, *most)) {
        out.bearingMost = p->name;
        out.bearingMost_pa = p->pressure_pa;
        out.bearingMostRatio = p->ratio();
    }
    out.gauge_pa = idle->gauge.value_pa;
    out.gaugeFast_pa = fast->gauge.value_pa;
    if (const PointPressure *p = worstBearing(build, *idle)) {
        out.bearing = p->name;
        out.bearing_pa = p->pressure_pa;
        out.bearingRatio = p->ratio();
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
    r.helps = !r.needleOnly && bearing > nothing_pa;
    if (r.needleOnly)
        r.verdict = "pressure gauge reads higher, bearings gain nothing";
    else if (std::abs(needle) < nothing_pa && std::abs(bearing) < nothing_pa)
        r.verdict = r.id == "stiff_spring" ? "nothing: relief shut at idle"
                                           : "nothing a pressure gauge could tell";
    else if (r.helps)
        r.verdict = r.figures.power_w > costly * now.power_w ? "helps, and costs power"
                                                             : "helps the bearings";
    else if (bearing < -nothing_pa)
        r.verdict = "lowers bearing pressure";
    else
        r.verdict = "hardly anything";
    // What helps at idle may starve a rod at speed: its need grows with it.
    const double before = now.bearingMostRatio, after = r.figures.bearingMostRatio;
    const bool starves = after < 1 && after < before - 0.01;
    r.helps = r.helps && !starves;
    if (starves)
        append(
            r.verdict,
            { "remedy.most", "{0} short of oil at the highest speed", { r.figures.bearingMost } });
    else if (after < before * (1 - lessAtMost))
        append(r.verdict, "less for the bearings at the highest speed");
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
                                    const std::vector<Fault> &faults, const RemedyWishes &wishes)
{
    const CircuitChange present = faultChange(build, faults);
    const auto now = figuresOf(build, sizes, present);
    if (!now)
        return tl::unexpected(now.error());
    RemedyTable out;
    out.now = *now;
    Shelf shelf(build, wishes);
    const std::vector<Trial> all = shelf.all();
    const auto tried = [&](Remedy r, const std::vector<const Trial *> &trials) {
        const auto change = [&](Circuit &circuit, Oil &oil) -> Result<void> {
            auto ok = present(circuit, oil);
            for (const Trial *t : trials)
                if (ok)
                    ok = t->change(circuit, oil);
            return ok;
        };
        if (const auto figures = figuresOf(build, sizes, change)) {
            r.figures = *figures;
            judge(out.now, r);
        } else {
            r.solved = false;
            r.verdict = figures.error().message;
        }
        out.remedies.push_back(std::move(r));
    };
    std::vector<const Trial *> together;
    for (const Trial &t : all) {
        if (!t.missing.empty()) {
            out.notHere.push_back(t.name + ": " + t.missing);
            continue;
        }
        if (std::ranges::find(wishes.together, t.id) != wishes.together.end())
            together.push_back(&t);
        tried({ t.id, t.name, t.size, t.what, {}, "", false, true }, { &t });
    }
    if (together.size() < 2)
        return out;
    std::vector<Phrase> names;
    for (const Trial *t : together)
        names.push_back(t->name);
    tried({ "together", "Together", {}, joinedBy(names, "{*| + }"), {}, "", false, true },
          together);
    return out;
}

} // namespace mildpath
