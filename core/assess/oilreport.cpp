// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/oilreport.h"

#include "assess/figures.h"
#include "document/logbook.h"
#include "oil/blending.h"

#include "quantity/hours.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

std::string joined(const std::vector<std::string> &words)
{
    std::string out;
    for (size_t i = 0; i < words.size(); ++i)
        out += (i == 0 ? "" : i + 1 == words.size() ? " and " : ", ") + words[i];
    return out;
}

std::string nameOf(const std::string &symbol)
{
    const OilElement *k = findOilElement(symbol);
    return k ? std::string(k->name) : symbol;
}

/// Elements that say more together. Common practice, no source.
struct Group
{
    std::array<std::string_view, 3> symbols;
    size_t least;
    std::string_view says, action;
    bool holds;
};
constexpr std::array groups {
    Group { { "Cu", "Pb", "Sn" },
            2,
            "bearings",
            "Do not run it on. Cut the filter, then caps off the big-ends, mains next",
            true },
    Group {
        { "Fe", "Cr", "" }, 2, "bores and rings", "Look at bores, air filter and blow-by", false },
    Group { { "Si", "Al", "" }, 2, "dirt drawn in", "Look at air filter and its joints", false },
    Group { { "Na", "K", "" },
            2,
            "coolant",
            "Pressure-test the cooling system cold, within its cap rating, never open it hot; look "
            "at the head gasket",
            false },
};

class Reporter
{
public:
    explicit Reporter(const Build &build)
        : m_build(build)
    {
        m_used = standing(build.oilSamples);
        std::erase_if(m_used, [](const OilSample *s) { return s->of != "used"; });
        std::ranges::stable_sort(m_used, {}, [](const OilSample *s) { return s->engine_h; });
    }

    OilReport run()
    {
        findSump();
        for (const OilElement &k : knownOilElements())
            for (const OilSample *s : m_used)
                if (s->elements.contains(std::string(k.symbol))) {
                    m_out.symbols.emplace_back(k.symbol);
                    break;
                }
        for (const OilSample *s : m_used)
            for (const auto &[symbol, value] : s->elements)
                if (!findOilElement(symbol)
                    && std::ranges::find(m_out.symbols, symbol) == m_out.symbols.end())
                    m_out.symbols.push_back(symbol);
        for (size_t i = 0; i < m_used.size(); ++i)
            sample(i);
        return std::move(m_out);
    }

private:
    void findSump()
    {
        const auto own = ownValue(m_build.after.values, "sump_kg");
        const auto fill_l = m_build.sump.own("fill_l");
        if (own) {
            m_out.sump_kg = own;
            m_out.sumpFrom = "as entered";
        } else if (fill_l) {
            m_out.sump_kg = *fill_l * m_build.oil.oil.rho15_kg_m3 / 1000;
            m_out.sumpFrom
                = { "oil.from_fill", "from the sump's fill of {0}", { asVolume(*fill_l, 1) } };
        } else
            m_out.sumpFrom = "not known: enter the oil in the engine";
    }

    /// The sample before it on the same fill; null: the fill began with new oil.
    const OilSample *sameFillBefore(size_t i) const
    {
        const OilSample &s = *m_used[i];
        for (size_t j = i; j-- > 0;) {
            const OilSample &b = *m_used[j];
            if (b.engine_h < s.engine_h && b.oil == s.oil
                && std::abs((s.engine_h - s.oil_h) - (b.engine_h - b.oil_h)) <= sameFill_h)
                return &b;
        }
        return nullptr;
    }

    void sample(size_t i)
    {
        const OilSample &s = *m_used[i];
        JudgedSample out { .id = s.id,
                           .engine_h = s.engine_h,
                           .elements = {},
                           .viscosity = {},
                           .remarks = {},
                           .verdict = {} };
        const OilSample *before = sameFillBefore(i);
        out.stretch_h = before ? s.engine_h - before->engine_h : s.oil_h;
        out.firstHours = s.engine_h <= *valueOf(m_build.after.values, afterKeys(), "first_hours_h");
        const OilSample *baseline = baselineOf(m_build, s);
        if (i > 0 && m_used[i - 1]->engine_h == s.engine_h) {
            out.usable = false;
            out.remarks.push_back("taken at the same hours as " + m_used[i - 1]->id
                                  + ": correct one of them; it is left out of the trend");
        }
        if (before && s.added_kg < before->added_kg) {
            out.usable = false;
            out.remarks.push_back("less oil added since the fill than at " + before->id
                                  + ": one of them is wrong; it is left out of the trend");
        }
        if (!baseline)
            out.remarks.push_back(
                "no analysis of the new oil" + (s.oil.empty() ? "" : " “" + s.oil + "”")
                + ": what its additives bring cannot be told from wear. Send a sample of it");
        if (!m_out.sump_kg)
            out.remarks.push_back({ "", "oil in the engine {0}", { m_out.sumpFrom } });
        for (const std::string &symbol : m_out.symbols)
            if (const auto it = s.elements.find(symbol); it != s.elements.end())
                out.elements.push_back(element(s, before, baseline, out, symbol, it->second));
        viscosity(s, baseline, out);
        judge(s, out);
        m_out.samples.push_back(std::move(out));
    }

    JudgedElement element(const OilSample &s, const OilSample *before, const OilSample *baseline,
                          const JudgedSample &sample, const std::string &symbol, double mg_kg)
    {
        JudgedElement e { .symbol = symbol, .mg_kg = mg_kg, .verdict = {} };
        const OilElement *kind = findOilElement(symbol);
        if (baseline)
            if (const auto b = baseline->elements.find(symbol); b != baseline->elements.end())
                e.baseline_mg_kg = b->second;
        e.assumed = !e.baseline_mg_kg && kind && kind->additive.empty();
        if (!e.baseline_mg_kg && !e.assumed) {
            e.verdict = "not judged: new oil may carry it, and it was not analysed";
            return e;
        }
        if (!m_out.sump_kg || !sample.usable) {
            e.verdict = sample.usable ? "no rate: oil in the engine not known" : "left out";
            return e;
        }
        const double b = e.baseline_mg_kg.value_or(0);
        double start = b, added = s.added_kg;
        if (before) {
            if (const auto c = before->elements.find(symbol); c != before->elements.end())
                start = c->second;
            added -= before->added_kg;
        }
        e.wear = wearRate({ .sump_kg = *m_out.sump_kg,
                            .element_mg_kg = mg_kg,
                            .baseline_mg_kg = b,
                            .start_mg_kg = start,
                            .hours_h = sample.stretch_h,
                            .added_kg = added });
        std::vector<double> &history = m_history[symbol];
        e.earlier = history.size();
        if (!history.empty())
            e.pattern = ownPattern(history, e.wear->per100h_mg_kg, sample.stretch_h);
        judgeElement(kind, e);
        // A rate that rang is no part of the pattern until somebody settled it.
        if (!sample.firstHours && (!e.alarm || !s.settled.empty()))
            history.push_back(e.wear->per100h_mg_kg);
        return e;
    }

    static void judgeElement(const OilElement *kind, JudgedElement &e)
    {
        const auto ppm = [](double mg_kg) {
            return Quantity { mg_kg, Shows::Concentration, 0, 1 };
        };
        const Phrase rate { "oil.rate", "{0} in 100 h", { ppm(e.wear->per100h_mg_kg) } };
        if (e.wear->belowBaseline) {
            e.mark = Mark::Proven;
            e.verdict = "less than in the new oil: its additive, scatter, or another oil";
            return;
        }
        if (kind && !kind->wear) {
            e.mark = Mark::Proven;
            e.verdict = "the oil's own: " + std::string(kind->additive);
            return;
        }
        if (!e.pattern || !e.pattern->z) {
            e.verdict = { "oil.few",
                          "{0}; fewer than {1} earlier samples to compare with",
                          { rate, asCount(leastHistory) } };
            return;
        }
        const double z = *e.pattern->z;
        e.alarm = z > alarmZ;
        e.mark = z > watchZ ? Mark::LookAgain : Mark::Proven;
        e.verdict = { "oil.against_own",
                      "{0} against its own {1}: {2}",
                      { rate, ppm(e.pattern->median),
                        z > alarmZ        ? "above its usual range"
                            : z > watchZ  ? "watch"
                            : z < -alarmZ ? "below its usual range"
                                          : "as before" } };
    }

    void viscosity(const OilSample &s, const OilSample *baseline, JudgedSample &out) const
    {
        const double fresh = baseline && baseline->kv100_mm2_s ? *baseline->kv100_mm2_s
                                                               : m_build.oil.oil.kv100_mm2_s;
        if (s.fuel_percent)
            out.fuelLoss = fuelBlend(fresh, petrolAt100_mm2_s, *s.fuel_percent / 100).loss;
        if (!s.kv100_mm2_s)
            return;
        out.viscosityLoss = 1 - *s.kv100_mm2_s / fresh;
        const double loss = *out.viscosityLoss;
        out.viscosityMark = std::abs(loss) > alikeViscosity ? Mark::LookAgain : Mark::Proven;
        out.viscosity = { "oil.viscosity",
                          loss >= 0 ? "at {0} {1} thinner than new" : "at {0} {1} thicker than new",
                          { asTemperature(100), asShare(std::abs(loss)) } };
        if (!out.fuelLoss)
            append(out.viscosity, std::abs(loss) > alikeViscosity ? "fuel was not measured" : "");
        else if (std::abs(loss - *out.fuelLoss) <= alikeViscosity)
            append(out.viscosity,
                   { "oil.fuel_explains",
                     "{0} fuel explains {1}",
                     { asShare(*s.fuel_percent / 100, 1), asShare(*out.fuelLoss) } });
        else if (loss > *out.fuelLoss)
            append(
                out.viscosity,
                { "oil.fuel_explains_part",
                  "fuel explains only {0}: sheared, or another oil, or more fuel than was measured",
                  { asShare(*out.fuelLoss) } });
        else
            append(out.viscosity,
                   { "oil.thickened",
                     "with its fuel it should be {0} thinner: it has thickened, or is another oil",
                     { asShare(*out.fuelLoss) } });
    }

    void judge(const OilSample &s, JudgedSample &out)
    {
        std::vector<std::string> rang;
        for (const JudgedElement &e : out.elements) {
            out.mark = &e == &out.elements.front() ? e.mark : worse(out.mark, e.mark);
            if (e.alarm)
                rang.push_back(e.symbol);
        }
        std::string says, action = "Take the next sample early";
        bool holds = false;
        for (const Group &g : groups) {
            const auto hit
                = [&](std::string_view x) { return std::ranges::find(rang, x) != rang.end(); };
            if (static_cast<size_t>(std::ranges::count_if(g.symbols, hit)) < g.least)
                continue;
            says += (says.empty() ? "" : ", ") + std::string(g.says);
            action = g.action;
            holds = holds || g.holds;
        }
        std::vector<std::string> names;
        for (const std::string &r : rang)
            names.push_back(nameOf(r));
        if (says.empty() && rang.size() == 1)
            if (const OilElement *k = findOilElement(rang.front()))
                says = k->parts;
        if (holds)
            out.mark = Mark::Hold;
        out.verdict = rang.empty() ? (!out.usable                     ? "left out of the trend"
                                          : out.firstHours            ? "first hours, set apart"
                                          : out.mark == Mark::NotDone ? "cannot say yet"
                                                                      : "as this engine's own")
                                   : joined(names) + ": " + says;
        if (!s.settled.empty())
            return;
        const std::string at = hoursText(s.engine_h);
        if (!rang.empty())
            add("wear_in_oil@" + s.id, out.mark,
                { "oil.wear",
                  "{0} in the oil at {1} above this engine's usual range: {2}",
                  { capitalised(joined(names)), at, says } },
                action);
        foreign(s, at, out);
    }

    void foreign(const OilSample &s, const std::string &at, JudgedSample &out)
    {
        if (s.water_percent && *s.water_percent > watchWater_percent) {
            out.mark = worse(out.mark, Mark::LookAgain);
            add("water_in_oil@" + s.id, Mark::LookAgain,
                { "oil.water",
                  "{0} water in the oil at {1}",
                  { asShare(*s.water_percent / 100, 2), at } },
                "Cold short runs, or coolant: check sodium and potassium; pressure-test the "
                "cooling "
                "system cold, within its cap rating, and never open it hot");
        }
        if (s.fuel_percent && *s.fuel_percent > watchFuel_percent) {
            const Mark mark = *s.fuel_percent > holdFuel_percent ? Mark::Hold : Mark::LookAgain;
            out.mark = worse(out.mark, mark);
            add("fuel_in_oil@" + s.id, mark,
                { "oil.fuel",
                  "{0} fuel in the oil at {1}",
                  { asShare(*s.fuel_percent / 100, 1), at } },
                "Change the oil; check mixture, injectors and rings. Oil & film shows what it "
                "costs");
        }
    }

    void add(const std::string &id, Mark mark, Phrase text, Phrase action)
    {
        m_out.findings.push_back({ id, mark, "", std::move(text), std::move(action) });
    }

    const Build &m_build;
    std::vector<const OilSample *> m_used;
    std::map<std::string, std::vector<double>> m_history;
    OilReport m_out;
};

} // namespace

Mark OilReport::lastMark(std::string_view symbol) const
{
    for (auto s = samples.rbegin(); s != samples.rend(); ++s)
        if (const JudgedElement *e = s->element(symbol))
            return e->mark;
    return Mark::NotDone;
}

const JudgedElement *JudgedSample::element(std::string_view symbol) const
{
    const auto it = std::ranges::find_if(
        elements, [&](const JudgedElement &e) { return e.symbol == symbol; });
    return it == elements.end() ? nullptr : &*it;
}

const OilSample *baselineOf(const Build &build, const OilSample &sample)
{
    const OilSample *out = nullptr;
    for (const OilSample *s : standing(build.oilSamples))
        if (s->of == "new" && s->oil == sample.oil)
            out = s;
    return out;
}

OilReport reportOil(const Build &build)
{
    return Reporter(build).run();
}

Result<Oil> oilOfSample(const Build &build, const OilSample &sample)
{
    Oil out = build.oil.oil;
    if (const OilSample *b = baselineOf(build, sample)) {
        out.kv40_mm2_s = b->kv40_mm2_s.value_or(out.kv40_mm2_s);
        out.kv100_mm2_s = b->kv100_mm2_s.value_or(out.kv100_mm2_s);
    }
    if (!sample.kv100_mm2_s && !sample.fuel_percent)
        return fail("kv100_mm2_s", "neither viscosity nor fuel of the sample was measured");
    if (sample.kv100_mm2_s) {
        const double thinner = *sample.kv100_mm2_s / out.kv100_mm2_s;
        out.kv100_mm2_s = *sample.kv100_mm2_s;
        out.kv40_mm2_s = sample.kv40_mm2_s.value_or(out.kv40_mm2_s * thinner);
        return out;
    }
    const double fuel = *sample.fuel_percent / 100;
    out.kv40_mm2_s = fuelBlend(out.kv40_mm2_s, petrolAt40_mm2_s, fuel).kv_mm2_s;
    out.kv100_mm2_s = fuelBlend(out.kv100_mm2_s, petrolAt100_mm2_s, fuel).kv_mm2_s;
    return out;
}

Result<OperatingResult> hotIdleWithSample(const Build &build, const Figures &figures,
                                          const OilSample &sample)
{
    const auto oil = oilOfSample(build, sample);
    if (!oil)
        return tl::unexpected(oil.error());
    return assessAt(build, figures.sizes, build.use.hotIdle_rpm, build.use.hotOil_c,
                    [&](Circuit &, Oil &running) -> Result<void> {
                        running = *oil;
                        return {};
                    });
}

} // namespace mildpath
