// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/heatlog.h"

#include <boost/math/distributions/students_t.hpp>

#include <algorithm>
#include <cmath>
#include <functional>

namespace mildpath {
namespace {

/// Bore, shell and journal of the stop as far as the log needs them.
struct Bore
{
    JournalParts parts;
    double housing_um; ///< bore behind the shells
    double shell_um_per_k; ///< what two walls take off the growth
    double journal_um_per_k;
    double slope_um_per_k, leastSlope_um_per_k, mostSlope_um_per_k; ///< journal cold
};

double slopeFor(const Bore &b, const std::function<double(const Expansion &)> &value)
{
    const JournalParts &p = b.parts;
    double a = value(p.housing);
    if (p.cap && !p.effective)
        a = (1 - p.capFraction) * a + p.capFraction * value(*p.cap);
    return b.housing_um * a - b.shell_um_per_k;
}

/// Half the range an expansion may lie in: rectangular limits back from their standard uncertainty.
double halfRange(const Expansion &e)
{
    return e.own ? 2 * e.u_per_k : std::sqrt(3.0) * e.u_per_k;
}

Bore boreOf(const Build &build, const SizeItem &item, double cold_um)
{
    Bore b;
    b.parts = journalPartsOf(build, item);
    const double wall_um = b.parts.shellWall_mm * 1e3;
    b.housing_um = b.parts.journal_mm * 1e3 + cold_um + 2 * wall_um;
    b.shell_um_per_k = 2 * wall_um * ThermalBearing {}.shellExpansion_per_k;
    b.journal_um_per_k = b.parts.journal_mm * 1e3 * b.parts.journal.per_k;
    b.slope_um_per_k = slopeFor(b, [](const Expansion &e) { return e.per_k; });
    b.leastSlope_um_per_k = slopeFor(
        b, [](const Expansion &e) { return (e.per_k - halfRange(e)) * (1 - expansionLeeway); });
    b.mostSlope_um_per_k = slopeFor(
        b, [](const Expansion &e) { return (e.per_k + halfRange(e)) * (1 + expansionLeeway); });
    return b;
}

/// Reading as if the journal had stood at 20 °C.
double coldJournal_um(const Bore &bore, const HeatPoint &p, double metal_c)
{
    return *p.reading_um + bore.journal_um_per_k * ((p.journalWithBlock ? metal_c : p.zero_c) - 20);
}

class LogJudge
{
public:
    LogJudge(const Build &build, const std::vector<GaugedSize> &sizes, HeatLog &out)
        : m_out(out)
        , m_band(infraredBand(build))
        , m_points(standingHeatPoints(build, out.stop))
    {
        for (const GaugedSize &s : sizes)
            if (s.stop == out.stop && s.family == "main")
                m_size = &s;
        for (const SizeItem &i : sizeItems(build))
            if (m_size && i.stop->id == out.stop && i.family->id == "main")
                m_bore = boreOf(build, i, m_size->circuit_um);
    }

    void run()
    {
        for (const HeatPoint *p : m_points)
            m_out.points.push_back(temperatureOf(*p));
        findReference();
        for (size_t i = 0; i < m_points.size(); ++i)
            judge(*m_points[i], m_out.points[i]);
        fit();
    }

private:
    JudgedHeatPoint temperatureOf(const HeatPoint &p)
    {
        JudgedHeatPoint out;
        out.id = p.id;
        out.reading_um = p.reading_um;
        if (p.spots_c.empty())
            return out;
        std::vector<double> spots;
        const SpotSurface &surface = *findSurface(p.surface);
        for (const double read_c : p.spots_c) {
            if (surface.id == "contact") {
                spots.push_back(read_c);
                continue;
            }
            const auto t = trueTemperature({ .reading = { read_c },
                                             .surroundings = { p.surroundings_c },
                                             .emissivity = surface.emissivity,
                                             .instrumentEmissivity = p.instrumentEmissivity,
                                             .band = m_band });
            if (!t) {
                out.verdict = { "", "{0} {1}", { asTemperature(read_c), t.error().message } };
                out.mark = Mark::LookAgain;
                return out;
            }
            spots.push_back(t->temperature.value);
            out.amplification = std::max(out.amplification, t->amplification);
        }
        const auto [least, most] = std::minmax_element(spots.begin(), spots.end());
        out.spread_k = *most - *least;
        double sum = 0;
        for (const double s : spots)
            sum += s;
        out.metal_c = sum / static_cast<double>(spots.size());
        if (p.reading_um)
            out.running_um = coldJournal_um(m_bore, p, *out.metal_c)
                - m_bore.journal_um_per_k * (*out.metal_c - 20);
        return out;
    }

    /// What the growth counts from: the clearance gauged at 20 °C, or the smallest of the log.
    void findReference()
    {
        if (m_size && m_size->measured) {
            m_reference = { 20, m_size->cold_um.value };
            m_referenceU_um = m_size->cold_um.standardUncertainty;
            return;
        }
        for (size_t i = 0; i < m_points.size(); ++i) {
            const JudgedHeatPoint &j = m_out.points[i];
            if (!j.metal_c || !j.reading_um)
                continue;
            const double cold = coldJournal_um(m_bore, *m_points[i], *j.metal_c);
            if (!m_reference || cold < m_reference->second) {
                m_reference = { *j.metal_c, cold };
                m_referenceU_um = m_points[i]->u_um;
                m_referenceId = j.id;
            }
        }
    }

    void say(JudgedHeatPoint &j, Mark mark, Phrase verdict)
    {
        j.mark = mark;
        j.verdict = std::move(verdict);
    }

    void judge(const HeatPoint &p, JudgedHeatPoint &j)
    {
        if (!j.verdict.empty())
            return;
        if (!j.metal_c)
            return say(j, Mark::NotDone, "take its temperature, at three spots");
        if (!j.reading_um)
            return say(j, Mark::NotDone, "measure the bore");
        const double cold_um = coldJournal_um(m_bore, p, *j.metal_c);
        j.grown_um = cold_um - m_reference->second;
        j.growthSays_c = m_reference->first + j.grown_um / m_bore.slope_um_per_k;
        if (j.id != m_referenceId && !possible(p, j))
            return;
        if (j.amplification > mostInfraredAmplification)
            return say(j, Mark::LookAgain,
                       { "heat.bright",
                         "a reading error counts {0} times on bright metal: aim at a dull or "
                         "painted spot, or use a contact probe",
                         { asNumber(j.amplification, 1) } });
        if (j.spread_k > evenSpread_k)
            return say(j, Mark::LookAgain,
                       { "heat.uneven",
                         "{0} over the block: not settled, let the heat even out",
                         { asTemperatureDifference(j.spread_k) } });
        j.counts = true;
        if (p.spots_c.size() < 2)
            return say(j, Mark::LookAgain, "one spot says nothing of how even it is: take three");
        say(j, Mark::Proven, "even, and the growth agrees");
    }

    /// Whether growth and temperature can both be true.
    bool possible(const HeatPoint &p, JudgedHeatPoint &j)
    {
        const double doubt_um = 2 * std::hypot(p.u_um, m_referenceU_um);
        const double doubt_k = 2 * spotU_k + j.spread_k / 2;
        // The journal that warmed along tells little where it grows like the housing.
        const double rise = *j.metal_c - m_reference->first;
        double least = m_bore.leastSlope_um_per_k * rise, most = m_bore.mostSlope_um_per_k * rise;
        if (least > most)
            std::swap(least, most);
        const double slack = doubt_um + doubt_k * m_bore.slope_um_per_k;
        if (j.grown_um >= least - slack && j.grown_um <= most + slack)
            return true;
        const auto say
            = [&](std::string_view pattern, Phrase::Argument first, Phrase::Argument second) {
                  this->say(j, Mark::LookAgain,
                            { "heat.cannot_be",
                              "{0} with {1} cannot be: {2}",
                              { asTemperature(*j.metal_c), asWholeClearance(*p.reading_um),
                                Phrase("", pattern, { std::move(first), std::move(second) }) } });
              };
        const Quantity says = asTemperature(*j.growthSays_c);
        if (const Phrase unit = wrongUnit(p, j); !unit.empty())
            say("{0}", unit, "");
        else if (j.grown_um > most)
            say("the bore has grown {0}, so the metal is near {1}. Bright metal fools an infrared "
                "thermometer: aim at a dull or painted spot, or set its emissivity",
                asWholeClearance(j.grown_um), says);
        else if (j.grown_um < -slack && rise > 0)
            say("the bore would have shrunk by {0} while warming. Measure again; re-zero the bore "
                "gauge before and after",
                asWholeClearance(-j.grown_um), "");
        else
            say("the bore has grown only {0}, enough for {1}. The skin was hot, the metal not yet; "
                "or "
                "the bore gauge warmed in the bore",
                asWholeClearance(j.grown_um), says);
        return false;
    }

    /// A reading or a temperature that fits once it is taken in another unit.
    Phrase wrongUnit(const HeatPoint &p, const JudgedHeatPoint &j) const
    {
        const double expected = m_reference->second
            + m_bore.slope_um_per_k * (*j.metal_c - m_reference->first)
            - (coldJournal_um(m_bore, p, *j.metal_c) - *p.reading_um);
        const auto near = [](double a, double b) { return std::abs(a - b) < 0.15 * std::abs(b); };
        if (near(*p.reading_um * 25.4, expected))
            return meant(*p.reading_um, "thou", asWholeClearance(*p.reading_um * 25.4));
        if (near(*p.reading_um * 1000, expected))
            return meant(*p.reading_um, "mm", asWholeClearance(*p.reading_um * 1000));
        const double asFahrenheit = (*j.metal_c - 32) / 1.8;
        if (*j.metal_c > 50 && std::abs(asFahrenheit - *j.growthSays_c) < 3)
            return meant(*j.metal_c, "°F", asTemperature(asFahrenheit));
        return {};
    }

    /// A figure with the unit that was probably meant, which no reader's choice may change.
    static Phrase meant(double figure, std::string_view unit, const Quantity &is)
    {
        const int decimals = unit == "mm" ? 3 : unit == "thou" ? 1 : 0;
        return { "heat.unit",
                 "{0} {1} would be {2}, which fits: enter the unit with it",
                 { asNumber(figure, decimals), unit, is } };
    }

    void fit()
    {
        std::vector<double> temps, readings;
        double u_um = 0;
        for (size_t i = 0; i < m_points.size(); ++i)
            if (m_out.points[i].counts) {
                temps.push_back(*m_out.points[i].metal_c);
                readings.push_back(coldJournal_um(m_bore, *m_points[i], temps.back()) * 1e-6);
                u_um = std::max(u_um, m_points[i]->u_um);
            }
        if (temps.size() < 2) {
            m_out.verdict = temps.empty() ? "nothing measured warm yet"
                                          : "one point is no growth: measure again, warmer";
            return;
        }
        const auto fit = fitExpansion(m_bore.housing_um * 1e-6, temps, readings, u_um * 1e-6,
                                      spotU_k, GaugedJournal::Cold, 0);
        if (!fit) {
            m_out.mark = Mark::LookAgain;
            m_out.verdict
                = { "",
                    fit.error().place == "temps_c" ? "the temperatures {0}" : "the readings {0}",
                    { fit.error().message } };
            return;
        }
        m_out.fit = *fit;
        m_out.gauge_um_per_k = fit->slope_m_per_k * 1e6;
        m_out.running_um_per_k = m_out.gauge_um_per_k - m_bore.journal_um_per_k;
        m_out.expansion_per_k = fit->expansion_per_k + m_bore.shell_um_per_k / m_bore.housing_um;
        m_out.expansionU_per_k = uncertainty(temps, readings);
        if (m_out.expansionU_per_k)
            m_out.slopeU_um_per_k = *m_out.expansionU_per_k * m_bore.housing_um;
        against();
    }

    /// The stated uncertainty, or what the scatter about the line says where that is more.
    std::optional<double> uncertainty(const std::vector<double> &temps,
                                      const std::vector<double> &readings) const
    {
        double u = *m_out.fit->expansionU_per_k;
        if (temps.size() > 2) {
            const auto scatter = fitExpansion(m_bore.housing_um * 1e-6, temps, readings, 0, 0,
                                              GaugedJournal::Cold, 0);
            const boost::math::students_t t(static_cast<double>(temps.size()) - 2);
            // Few points: half the 95 % range of Student's t stands for one standard uncertainty.
            u = std::max(u, *scatter->expansionU_per_k * boost::math::quantile(t, 0.975) / 2);
        }
        return u;
    }

    /// The fit against what the housing is said to be made of.
    void against()
    {
        const double a = m_out.expansion_per_k, u = *m_out.expansionU_per_k;
        const Phrase figure { "", "{0}", { withUncertainty({ a, Shows::Expansion, u }) } };
        const double least
            = (m_bore.leastSlope_um_per_k + m_bore.shell_um_per_k) / m_bore.housing_um;
        const double most = (m_bore.mostSlope_um_per_k + m_bore.shell_um_per_k) / m_bore.housing_um;
        if (a + 2 * u < least || a - 2 * u > most) {
            m_out.mark = Mark::LookAgain;
            m_out.verdict = { "heat.other_metal",
                              "{0}: {1} than this housing can. Check its material, and the unit of "
                              "the readings",
                              { figure, a < least ? "less" : "more" } };
        } else if (2 * u > 0.25 * a) {
            m_out.mark = Mark::LookAgain;
            m_out.verdict = { "heat.wide",
                              "{0}: too wide to say. Measure it warmer, or more often",
                              { figure } };
        } else {
            m_out.mark = Mark::Proven;
            m_out.verdict = figure;
        }
    }

    HeatLog &m_out;
    InfraredBand m_band;
    std::vector<const HeatPoint *> m_points;
    const GaugedSize *m_size = nullptr;
    Bore m_bore {};
    std::optional<std::pair<double, double>> m_reference; ///< °C, µm with the journal at 20 °C
    double m_referenceU_um = 0;
    std::string m_referenceId;
};

} // namespace

InfraredBand infraredBand(const Build &build)
{
    return choiceOf(build, infraredBandQuestion) == "total" ? InfraredBand::Total
                                                            : InfraredBand::Micrometres8To14;
}

HeatLog judgeHeatLog(const Build &build, const std::vector<GaugedSize> &sizes,
                     std::string_view stop)
{
    HeatLog out;
    out.stop = stop;
    const Stop *known = build.engine.find(stop);
    if (!known || known->kind != StopKind::Main) {
        out.verdict = "the bore of a main bearing is gauged warm: choose one";
        return out;
    }
    LogJudge(build, sizes, out).run();
    return out;
}

OwnExpansion expansionFromLog(const Build &build, const HeatLog &log)
{
    const auto points = std::count_if(log.points.begin(), log.points.end(),
                                      [](const JudgedHeatPoint &p) { return p.counts; });
    OwnExpansion out;
    out.per_k = log.expansion_per_k;
    out.u_per_k = log.expansionU_per_k.value_or(0);
    out.source = "heated block, " + build.engine.find(log.stop)->name + ", "
        + std::to_string(points) + " points";
    return out;
}

} // namespace mildpath
