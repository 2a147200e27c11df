// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/sizes.h"

#include "assess/circuitof.h"

#include "assess/limits.h"
#include "document/enginevalue.h"
#include "pump/rotor.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

/// Standard uncertainty of a reading: instruments, and the spread of its repeats.
double uncertaintyOf(const Reading &r)
{
    double variance = r.u_um * r.u_um + r.journalU_um * r.journalU_um;
    if (const auto n = static_cast<double>(r.repeats_um.size()); n > 1) {
        double sum = 0, squares = 0;
        for (const double v : r.repeats_um)
            sum += v;
        for (const double v : r.repeats_um)
            squares += (v - sum / n) * (v - sum / n);
        variance += squares / (n - 1) / n;
    }
    return std::sqrt(variance);
}

ReadingUse useOf(const Reading &r, const Family &family)
{
    return family.plan == PlanKind::Shell ? readingUse(r.angle_deg) : ReadingUse::Clearance;
}

JudgedReading judgeReading(const Reading &r, const SizeItem &item, const JournalParts &parts,
                           const std::optional<Limits> &limits)
{
    const double u = uncertaintyOf(r);
    double at20 = *r.value_um;
    if (parts.journal_mm > 0) {
        const PartsWhileGauging gauging { .bore = { r.housing_c },
                                          .journal = { r.journal_c },
                                          .boreExpansion_per_k = parts.housing.per_k,
                                          .journalExpansion_per_k = parts.journal.per_k };
        const double journal_m = r.journal_mm.value_or(parts.journal_mm) * 1e-3;
        const ClearanceAt20 c = r.bore_mm
            ? clearanceFromTwoInstruments(*r.bore_mm * 1e-3, journal_m, 0, 0, gauging)
            : clearanceFromZeroedGauge(*r.value_um * 1e-6, journal_m, 0, 0, gauging);
        at20 = c.clearance.value_m * 1e6;
    }
    JudgedReading out { r.id,        r.method, r.station, r.angle_deg,
                        *r.value_um, at20,     u,         useOf(r, *item.family),
                        false,       false };
    if (r.overOilHole)
        out.use = ReadingUse::Never;
    if (limits && r.method != "drop_feel") {
        const double margin = unlikelyWidths * (limits->max_um - limits->min_um);
        const bool counts = out.use == ReadingUse::Clearance || out.use == ReadingUse::Form;
        out.pastLimit = counts && (at20 > limits->max_um || at20 < limits->min_um);
        out.unlikely
            = at20 > limits->max_um + margin || at20 < std::min(1.0, limits->min_um - margin);
    }
    return out;
}

/// How the shells depart from a round bore, by the deciding method's readings.
/// What was read with other shells says nothing of these.
ShellLeak shapeOf(const Build &build, const GaugedSize &size,
                  const std::vector<const Reading *> &entered)
{
    const std::string now = fittedShells(build, size.family, size.stop);
    std::set<std::string> ofOthers;
    for (const Reading *r : entered)
        if (!r->shells.empty() && !now.empty() && r->shells != now)
            ofOthers.insert(r->id);
    ShellLeak out { usualShells() };
    const Element *e = build.circuit.find(size.element);
    std::vector<PositionReading> readings;
    double u_m = 0;
    for (const JudgedReading &r : size.readings)
        if (r.method == size.method() && r.use != ReadingUse::Never && !ofOthers.contains(r.id)) {
            readings.push_back({ r.angle_deg, r.station, r.at20_um * 1e-6 });
            out.read = out.read || r.use != ReadingUse::Clearance;
            u_m = std::max(u_m, r.u_um * 1e-6);
        }
    if (readings.empty() || !e)
        return out;
    const double length_m = e->value("width_mm") * 1e-3;
    const auto read = shellShape(readings, length_m, usualStationsApart * length_m, u_m);
    if (!read)
        return out;
    out.shape.eccentric_m = read->eccentric_m;
    out.shape.taper_m = read->taper_m;
    out.shape.bell_m = read->bell_m;
    return out;
}

/// A hole at the crown sees no joint; one in the journal passes it. The eccentricity is what such
/// bearings usually run with.
void setLeak(const Build &build, const std::vector<const Reading *> &entered, GaugedSize &out)
{
    constexpr double mainRuns = 0.6, rodRuns = 0.8;
    const Element *e = build.circuit.find(out.element);
    const double upright_um = out.runningAt(build.use.hotOil_c);
    out.leak = shapeOf(build, out, entered);
    const Stop *stop = build.engine.find(out.stop);
    double extent_deg = e ? e->value("groove_deg") : 0;
    if (stop && stop->kind == StopKind::Main)
        extent_deg = stop->value("journal_groove") > 0 ? 360 : shellGroove_deg(build, *stop);
    if (!e || !(upright_um > 0) || (extent_deg == 0 && !(e->value("hole_in_journal") > 0)))
        return;
    ShellLeak &leak = *out.leak;
    leak.bearing = { e->value("d_mm") * 1e-3, e->value("width_mm") * 1e-3,
                     e->value("groove_width_mm") * 1e-3, extent_deg * pi / 180,
                     out.family == "main" ? mainRuns : rodRuns };
    const double now = leak.factorAt(upright_um);
    ShellLeak other = leak;
    other.shape.eccentric_m += usualEccentricU_m;
    leak.byEccentric_ln = std::log(other.factorAt(upright_um) / now);
    other.shape = leak.shape;
    other.shape.reliefDepth_m += usualReliefU_m;
    leak.byRelief_ln = std::log(other.factorAt(upright_um) / now);
}

/// "47.6 ± 2.6 µm"
Quantity withU(const Measured &um)
{
    return withUncertainty(asClearance(um.value, um.standardUncertainty));
}

/// What one method's readings make of the size.
std::optional<MethodResult> resultOf(const Method &method, const GaugedSize &size,
                                     const Family &family, std::optional<BoreForm> &form)
{
    MethodResult out;
    out.method = method.id;
    std::vector<PositionReading> positions;
    std::vector<StripReading> strips;
    double u = 0;
    bool upright = false;
    for (const JudgedReading &r : size.readings) {
        if (r.method != method.id || r.use == ReadingUse::Never)
            continue;
        // Only shells have a parting line that readings keep away from; elsewhere the angle says
        // nothing.
        positions.push_back({ family.plan == PlanKind::Shell ? r.angle_deg : uprightAngle_deg,
                              r.station, r.at20_um * 1e-6 });
        if (r.use != ReadingUse::Clearance)
            continue;
        upright = true;
        ++out.readings;
        strips.push_back({ { r.at20_um * 1e-6 }, false });
        // One instrument's error is common to its readings, so their number does not shrink it.
        u = std::max(u, r.u_um);
    }
    if (!upright)
        return std::nullopt;
    const auto found = boreForm(positions);
    if (!found)
        return std::nullopt;
    form = *found;
    double value = form->mean_m * 1e6;
    if (family.summary == Summary::Widest)
        value = form->largest_m * 1e6;
    if (method.id == "plastic_strip") {
        // Where the strip lay along the axis matters, so the tightest place is the clearance.
        const auto strip = stripClearance(strips, usualStripStep_um * 1e-6);
        if (!strip)
            return std::nullopt;
        value = strip->clearance.value_m * 1e6;
        out.taper_um = strip->taper_m * 1e6;
    }
    out.value_um = { value, u };
    out.low_um = value - 2 * u;
    out.high_um = value + 2 * u;
    return out;
}

MethodResult resultOfFeel(const Reading &r)
{
    const DropFeel &feel = *findDropFeel(r.feel);
    const double middle = (feel.low_um + std::min(feel.high_um, 100.0)) / 2;
    return {
        r.method,     1, { middle, (feel.high_um - feel.low_um) / std::sqrt(12.0) }, feel.low_um,
        feel.high_um, 0
    };
}

/// Methods that contradict the deciding one beyond what both leave open.
Phrase disagreementOf(const GaugedSize &size)
{
    const MethodResult &a = size.methods.front();
    for (size_t i = 1; i < size.methods.size(); ++i) {
        const MethodResult &b = size.methods[i];
        const bool band = b.method == "drop_feel";
        const double apart = std::abs(a.value_um.value - b.value_um.value);
        const double open
            = 2 * std::hypot(a.value_um.standardUncertainty, b.value_um.standardUncertainty);
        const bool contradicts = band ? a.low_um > b.high_um || a.high_um < b.low_um : apart > open;
        if (!contradicts)
            continue;
        const Quantity most = asLimit(std::min(b.high_um, mostClearanceReading_um));
        const Phrase theirs = !band ? Phrase("", "{0}", { withU(b.value_um) })
            : b.low_um > 0 ? Phrase("", "{0}", { QuantityRange { asLimit(b.low_um), most } })
                           : Phrase("size.up_to", "up to {0}", { most });
        return { "size.disagree",
                 "{0} says {1}, {2} {3}",
                 { findMethod(b.method)->name, theirs, findMethod(a.method)->name,
                   withU(a.value_um) } };
    }
    return {};
}

class SizeJudge
{
public:
    SizeJudge(const Build &build, GaugedSize &size, const Family &family)
        : m_build(build)
        , m_size(size)
        , m_family(family)
    {
    }

    void run(const std::vector<const Reading *> &readings)
    {
        if (!m_size.measured) {
            notMeasured();
            return;
        }
        if (!m_size.limits) {
            say(Mark::LookAgain, "no limits to judge by",
                "Enter the manufacturer's limits on Engine");
            return;
        }
        againstLimits();
        if (m_size.mark != Mark::Proven)
            return;
        reserve(readings);
    }

private:
    void say(Mark mark, Phrase verdict, Phrase next)
    {
        m_size.mark = mark;
        m_size.verdict = std::move(verdict);
        m_size.next = std::move(next);
    }

    void notMeasured()
    {
        const bool felt = !m_size.methods.empty();
        if (felt)
            say(Mark::LookAgain, "drop test only: it gives a range, not a figure",
                "Measure it upright, front and rear");
        else if (m_size.limits && m_size.known)
            say(Mark::NotDone,
                { "size.assumed",
                  "not measured; the middle of the limits, {0}, is assumed",
                  { asLimit(m_size.cold_um.value) } },
                m_family.plan == PlanKind::Shell ? "Measure it upright, front and rear"
                                                 : "Measure it");
        else
            say(Mark::NotDone, "not measured", "Measure it");
    }

    Phrase value() const
    {
        return { "size.value",
                 m_family.summary == Summary::Widest ? "widest {0}" : "{0}",
                 { withU(m_size.cold_um) } };
    }

    Phrase remedy(bool wide) const
    {
        if (m_family.shells)
            return wide ? "Measure again; then swap the shells or have the journal checked"
                        : "Measure again; look for dirt behind the shell; then swap the shells";
        if (m_family.stopKind == StopKind::Pump)
            return wide ? "Measure again; then dress the faces or fit new rotors"
                        : "Measure again; rotors may bind";
        return wide ? "Measure again; then a new part or a bush, by a qualified shop"
                    : "Measure again; then have it opened by a qualified shop";
    }

    void againstLimits()
    {
        const Limits &l = *m_size.limits;
        const double u = m_size.cold_um.expanded();
        LimitedFigure figure { m_size.cold_um.value, u, {}, l.max_um };
        if (l.min_um > 0)
            figure.least = l.min_um;
        const bool wide = l.max_um - figure.value < figure.value - l.min_um;
        const auto past = std::find_if(
            m_size.readings.begin(), m_size.readings.end(),
            [&](const JudgedReading &r) { return r.pastLimit && r.method == m_size.method(); });
        const Evident evident = evidentOf(figure);
        if (evident == Evident::No && wide)
            say(Mark::Hold,
                { "size.over", "{0} is above the maximum of {1}", { value(), asLimit(l.max_um) } },
                remedy(true));
        else if (evident == Evident::No)
            say(Mark::Hold,
                { "size.under", "{0} is below the minimum of {1}", { value(), asLimit(l.min_um) } },
                remedy(false));
        else if (evident == Evident::Unsure)
            say(Mark::LookAgain,
                { "size.across",
                  "{0} is too close to the limit of {1} to judge: measure again",
                  { value(), asLimit(wide ? l.max_um : l.min_um) } },
                "Measure again, or with a better instrument");
        else if (past != m_size.readings.end())
            say(Mark::LookAgain,
                { "size.one_past",
                  "{0} at one position is past the limit of {1}",
                  { asClearance(past->at20_um),
                    asLimit(past->at20_um > l.max_um ? l.max_um : l.min_um) } },
                m_family.shells
                    ? "The mean is inside. Measure that position again; then swap the shells"
                    : "The mean is inside. Measure that place again");
        else
            say(Mark::Proven,
                l.min_um > 0
                    ? Phrase("size.inside", "{0} is inside {1}",
                             { value(), QuantityRange { asLimit(l.min_um), asLimit(l.max_um) } })
                    : Phrase("size.within", "{0} is within {1}", { value(), asLimit(l.max_um) }),
                "");
    }

    /// What keeps a good figure from being proof.
    void reserve(const std::vector<const Reading *> &readings)
    {
        const Method *method = findMethod(m_size.method());
        bool first = false, second = false, loose = false, swapped = false;
        const std::string now = fittedShells(m_build, m_size.family, m_size.stop);
        for (const Reading *r : readings) {
            if (r->method != m_size.method())
                continue;
            if (useOf(*r, m_family) == ReadingUse::Clearance && !r->overOilHole)
                (r->station == 1 ? first : second) = true;
            loose = loose || r->capTorqued == false;
            swapped = swapped || (!r->shells.empty() && !now.empty() && r->shells != now);
        }
        const Phrase so = value();
        const auto but = [&](std::string_view pattern, Phrase::Argument more = "") {
            return Phrase("", pattern, { so, std::move(more) });
        };
        if (loose)
            say(Mark::LookAgain, but("{0}, measured without the cap at its torque"),
                "Torque the cap as for the build and measure again");
        else if (swapped)
            say(Mark::LookAgain, but("{0} was measured with other shells; now {1} are fitted", now),
                "Measure again with the shells that stay");
        else if (!m_size.disagreement.empty())
            say(Mark::LookAgain, m_size.disagreement, "They disagree: find out which is wrong");
        else if (method->onlyCheck && choiceOf(m_build, "strip_counts") != "yes")
            say(Mark::LookAgain, but("{0} by {1}: a cross-check, no more", method->name),
                "Measure it with a bore gauge or two instruments");
        else if (m_family.plan == PlanKind::Shell && (!first || !second))
            say(Mark::LookAgain, but("{0} upright at one end only"),
                first ? "Measure it upright at the rear too"
                      : "Measure it upright at the front too");
        else if (m_family.plan == PlanKind::Lobes && missingLobes(readings) > 0)
            say(Mark::LookAgain,
                but("{0}, {1} of the lobes not measured", asCount(missingLobes(readings))),
                "The widest lobe is what counts: measure them all");
    }

    int missingLobes(const std::vector<const Reading *> &readings) const
    {
        const auto plan = readingPlan(m_family, *m_build.engine.find(m_size.stop));
        int missing = 0;
        for (const ReadingPosition &p : plan)
            missing += std::none_of(readings.begin(), readings.end(), [&](const Reading *r) {
                return r->station == p.station && r->method == m_size.method();
            });
        return missing;
    }

    const Build &m_build;
    GaugedSize &m_size;
    const Family &m_family;
};

/// Value, uncertainty and what the circuit takes, measured or assumed.
void setValue(const Build &build, const Family &family, GaugedSize &out)
{
    const Element *element = build.circuit.find(out.element);
    if (out.measured) {
        out.cold_um = out.methods.front().value_um;
    } else if (out.limits && out.limits->min_um > 0) {
        out.cold_um = { (out.limits->min_um + out.limits->max_um) / 2,
                        (out.limits->max_um - out.limits->min_um) / std::sqrt(12.0) };
    } else if (element && !family.elementKey.empty()) {
        out.cold_um = { element->value(std::string(family.elementKey)), 0 };
    } else {
        out.known = false;
    }
    out.circuit_um = out.cold_um.value;
    if (out.measured && family.summary == Summary::Widest) {
        std::vector<double> lobes;
        for (const JudgedReading &r : out.readings)
            if (r.method == out.method())
                lobes.push_back(r.at20_um);
        out.circuit_um = effectiveTipClearance(lobes);
    }
}

void setGrowth(const Build &build, const JournalParts &parts, GaugedSize &out)
{
    out.growth = growthOf(parts, out.circuit_um);
    out.settled = build.heat.settled();
    out.running_um = out.runningAt(build.use.hotOil_c);
    out.coldestStart_um = out.at(allAt(build.use.coldestStart_c));
}

GaugedSize judgeSize(const Build &build, const SizeItem &item,
                     const std::vector<const Reading *> &readings)
{
    GaugedSize out;
    const Family &family = *item.family;
    out.stop = item.stop->id;
    out.family = family.id;
    out.item = item.item;
    out.name = item.name;
    out.element = item.element;
    if (const Limits *l = limitsFor(build, out.family, out.stop))
        out.limits = *l;
    const JournalParts parts = journalPartsOf(build, item);
    out.journal_mm = parts.journal_mm;
    if (parts.journal_mm > 0)
        out.rule_um = parts.journal_mm * 1e3 * ruleClearancePerDiameter;
    for (const Reading *r : readings)
        out.readings.push_back(judgeReading(*r, item, parts, out.limits));

    // Strongest first; the order of the table settles a tie.
    std::vector<const Method *> strongest;
    for (const std::string_view id : family.methods)
        strongest.push_back(findMethod(id));
    std::stable_sort(strongest.begin(), strongest.end(),
                     [](const Method *a, const Method *b) { return a->strength > b->strength; });
    const Reading *felt = nullptr;
    for (const Reading *r : readings)
        felt = r->method == "drop_feel" ? r : felt;
    for (const Method *m : strongest) {
        std::optional<BoreForm> form;
        if (m->id == "drop_feel") {
            if (felt)
                out.methods.push_back(resultOfFeel(*felt));
        } else if (auto result = resultOf(*m, out, family, form)) {
            out.measured = true;
            if (out.methods.empty())
                out.form = form;
            out.methods.push_back(std::move(*result));
        }
    }
    setValue(build, family, out);
    setGrowth(build, parts, out);
    if (family.shells)
        setLeak(build, readings, out);
    if (out.measured)
        out.disagreement = disagreementOf(out);
    SizeJudge(build, out, family).run(readings);
    return out;
}

/// "4 proven, 1 holds the start".
Phrase countsOf(const std::map<Mark, int> &counts)
{
    std::vector<Phrase> out;
    for (const Mark m : { Mark::Hold, Mark::LookAgain, Mark::NotDone, Mark::Proven })
        if (const auto it = counts.find(m); it != counts.end())
            out.push_back({ "", "{0} {1}", { asCount(it->second), markWord(m) } });
    return joinedBy(out);
}

} // namespace

double ShellLeak::factorAt(double upright_um) const
{
    if (!(bearing.length_m > 0) || !(upright_um > 0))
        return 1;
    ShellShape here = shape;
    here.upright_m = upright_um * 1e-6;
    return std::clamp(formFactor(bearing, here), 0.2, 10.0);
}

double GaugedSize::runningAt(double oil_c) const
{
    return at(settledAt(oil_c, settled));
}

std::vector<GaugedSize> judgeSizes(const Build &build)
{
    std::map<std::tuple<std::string_view, std::string_view, int>, std::vector<const Reading *>> by;
    for (const Reading *r : standingReadings(build))
        by[{ r->stop, r->family, r->item }].push_back(r);
    std::vector<GaugedSize> out;
    for (const SizeItem &item : sizeItems(build)) {
        const auto it = by.find({ item.stop->id, item.family->id, item.item });
        out.push_back(
            judgeSize(build, item, it == by.end() ? std::vector<const Reading *> {} : it->second));
    }
    return out;
}

std::vector<FamilySummary> summarise(const std::vector<GaugedSize> &sizes)
{
    std::vector<FamilySummary> out;
    std::map<Mark, int> counts;
    const Method *weakest = nullptr;
    for (size_t i = 0; i < sizes.size(); ++i) {
        const GaugedSize &s = sizes[i];
        if (out.empty() || out.back().family != s.family) {
            out.push_back({});
            out.back().family = s.family;
            out.back().mark = Mark::Proven;
            counts.clear();
            weakest = nullptr;
        }
        FamilySummary &f = out.back();
        ++f.items;
        ++counts[s.mark];
        f.mark = worse(f.mark, s.mark);
        if (s.measured) {
            const double v = s.cold_um.value;
            f.least_um = f.measured ? std::min(f.least_um, v) : v;
            f.most_um = f.measured ? std::max(f.most_um, v) : v;
            f.mean_um += (v - f.mean_um) / (f.measured + 1);
            ++f.measured;
            f.readings += s.methods.front().readings;
            f.taper_um = std::max(f.taper_um, s.form->taper_m * 1e6);
            f.outOfRound_um = std::max(f.outOfRound_um, s.form->outOfRound_m * 1e6);
            f.expanded_um = std::max(f.expanded_um, s.cold_um.expanded());
            const Method *m = findMethod(s.method());
            if (!weakest || m->strength < weakest->strength)
                weakest = m;
            f.weakestMethod = weakest->name;
        }
        f.verdict = countsOf(counts);
    }
    return out;
}

std::optional<double> GaugedSize::closesAt_c(double floor_um) const
{
    const double rate = at(allAt(21)) - at(allAt(20));
    if (!(rate > 0))
        return std::nullopt;
    const double t = 20 - (at(allAt(20)) - floor_um) / rate;
    constexpr double coldestOnEarth_c = -80;
    return t < coldestOnEarth_c ? std::nullopt : std::optional(t);
}

std::vector<GaugedSize> movedBy(std::vector<GaugedSize> sizes, const std::string &family,
                                double by_um)
{
    for (GaugedSize &s : sizes)
        if (s.family == family)
            s.circuit_um += by_um;
    return sizes;
}

const GaugedSize *sizeOf(const std::vector<GaugedSize> &sizes, std::string_view stop)
{
    const auto it = std::find_if(sizes.begin(), sizes.end(),
                                 [&](const GaugedSize &s) { return s.stop == stop; });
    return it == sizes.end() ? nullptr : &*it;
}

const GaugedSize *sizeOf(const std::vector<GaugedSize> &sizes, std::string_view stop,
                         std::string_view family, int item)
{
    const auto it = std::find_if(sizes.begin(), sizes.end(), [&](const GaugedSize &s) {
        return s.stop == stop && s.family == family && s.item == item;
    });
    return it == sizes.end() ? nullptr : &*it;
}

const GaugedSize *coldestOf(const std::vector<GaugedSize> &sizes)
{
    const GaugedSize *out = nullptr;
    for (const GaugedSize &s : sizes)
        if (findFamily(s.family)->shells && (!out || s.coldestStart_um < out->coldestStart_um))
            out = &s;
    return out;
}

const FamilySummary *familyOf(const std::vector<FamilySummary> &families, std::string_view id)
{
    const auto it = std::find_if(families.begin(), families.end(),
                                 [&](const FamilySummary &f) { return f.family == id; });
    return it == families.end() ? nullptr : &*it;
}

} // namespace mildpath
