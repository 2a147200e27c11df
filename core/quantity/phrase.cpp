// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/phrase.h"

#include "quantity/rounding.h"
#include "quantity/units.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <charconv>
#include <cmath>

namespace mildpath {
namespace {

struct OneUnit
{
    std::string_view label;
    int decimals; ///< usual
};
struct Showing
{
    Shows as;
    Dimension dimension; ///< Number: the value is in the unit already
    OneUnit metric, imperial;
};

// Units by what the trade writes in each system; digits: three or so at the usual size.
constexpr auto showings = std::to_array<Showing>({
    { Shows::Clearance, Dimension::Length, { "µm", 1 }, { "thou", 2 } },
    { Shows::Roughness, Dimension::Length, { "µm", 2 }, { "µin", 0 } },
    { Shows::Length, Dimension::Length, { "mm", 1 }, { "in", 3 } },
    { Shows::Area, Dimension::Area, { "mm²", 0 }, { "in²", 3 } },
    { Shows::MediumArea, Dimension::Area, { "cm²", 0 }, { "in²", 1 } },
    { Shows::Volume, Dimension::Volume, { "L", 2 }, { "US qt", 2 } },
    { Shows::SmallVolume, Dimension::Volume, { "cm³", 1 }, { "in³", 2 } },
    { Shows::Flow, Dimension::VolumeFlow, { "L/min", 2 }, { "US gpm", 3 } },
    { Shows::GasFlow, Dimension::VolumeFlow, { "L/min", 0 }, { "cfm", 1 } },
    { Shows::Pressure, Dimension::Pressure, { "bar", 2 }, { "psi", 1 } },
    { Shows::CasePressure, Dimension::Pressure, { "kPa", 1 }, { "inHg", 1 } },
    { Shows::ContactPressure, Dimension::Pressure, { "MPa", 0 }, { "psi", 0 } },
    { Shows::Temperature, Dimension::Temperature, { "°C", 0 }, { "°F", 0 } },
    { Shows::TemperatureDifference, Dimension::TemperatureDifference, { "°C", 0 }, { "°F", 0 } },
    { Shows::Speed, Dimension::Speed, { "rpm", 0 }, { "rpm", 0 } },
    { Shows::SurfaceSpeed, Dimension::SurfaceSpeed, { "m/s", 1 }, { "ft/s", 0 } },
    { Shows::Distance, Dimension::Length, { "m", 0 }, { "ft", 0 } },
    { Shows::Journey, Dimension::Length, { "km", 0 }, { "mi", 0 } },
    { Shows::Torque, Dimension::Torque, { "N·m", 0 }, { "lb·ft", 0 } },
    { Shows::SpringRate, Dimension::SpringRate, { "N/mm", 1 }, { "lb/in", 0 } },
    { Shows::Force, Dimension::Force, { "N", 0 }, { "lbf", 0 } },
    { Shows::Acceleration, Dimension::Number, { "g", 2 }, { "g", 2 } },
    { Shows::Mass, Dimension::Number, { "g", 0 }, { "g", 0 } },
    { Shows::Density, Dimension::Number, { "kg/m³", 0 }, { "kg/m³", 0 } },
    { Shows::Time, Dimension::Time, { "s", 0 }, { "s", 0 } },
    { Shows::Minutes, Dimension::Number, { "min", 0 }, { "min", 0 } },
    { Shows::Hours, Dimension::Number, { "h", 0 }, { "h", 0 } },
    { Shows::Angle, Dimension::Number, { "°", 0 }, { "°", 0 } },
    { Shows::KinematicViscosity, Dimension::KinematicViscosity, { "cSt", 1 }, { "cSt", 1 } },
    { Shows::DynamicViscosity, Dimension::DynamicViscosity, { "mPa·s", 1 }, { "mPa·s", 1 } },
    { Shows::Concentration, Dimension::Number, { "ppm", 0 }, { "ppm", 0 } },
    { Shows::Expansion, Dimension::Expansion, { "×10⁻⁶/K", 1 }, { "×10⁻⁶/°F", 1 } },
    { Shows::ValleyVolume, Dimension::Number, { "µm³/µm²", 3 }, { "µm³/µm²", 3 } },
    { Shows::Share, Dimension::Number, { "%", 0 }, { "%", 0 } },
    { Shows::Number, Dimension::Number, { "", 1 }, { "", 1 } },
    { Shows::Count, Dimension::Number, { "", 0 }, { "", 0 } },
});

/// A row with its units looked up.
struct Resolved
{
    const Showing *row;
    const Unit *units[2]; ///< metric, imperial; null: as it is
};

const Unit *unitOf(const Showing &row, const OneUnit &one)
{
    const std::string_view symbol = row.as == Shows::Share ? "%" : one.label;
    if (row.dimension == Dimension::Number && row.as != Shows::Share)
        return nullptr;
    const Unit *unit = findUnit(symbol, row.dimension);
    assert(unit);
    return unit;
}

const Resolved &resolved(Shows as)
{
    static const auto all = [] {
        std::array<Resolved, showings.size()> out {};
        for (size_t i = 0; i < showings.size(); ++i)
            out[i] = { &showings[i],
                       { unitOf(showings[i], showings[i].metric),
                         unitOf(showings[i], showings[i].imperial) } };
        return out;
    }();
    const Resolved &found = all[static_cast<size_t>(as)];
    assert(found.row->as == as);
    return found;
}

/// Number and unit, kept together at the end of a line; percent and degrees stand close.
std::string withUnit(const std::string &number, std::string_view unit, bool plain)
{
    if (unit.empty() || unit == "%" || unit == "°")
        return number + std::string(unit);
    return number + (plain ? " " : "\u00A0") + std::string(unit);
}

/// One kind of quantity in one system.
class Writer
{
public:
    Writer(Shows as, bool imperial, bool plain)
        : m_kind(resolved(as))
        , m_imperial(imperial)
        , m_plain(plain)
    {
    }
    std::string_view label() const { return one(m_imperial).label; }
    double number(double value) const
    {
        const Unit *u = m_kind.units[m_imperial];
        return u ? value / u->scale - u->offset : value;
    }
    double value(double number) const
    {
        const Unit *u = m_kind.units[m_imperial];
        return u ? (number + u->offset) * u->scale : number;
    }
    /// What a difference of one is in the unit: offsets of temperatures fall out.
    double perUnit() const { return perUnit(m_imperial); }

    int decimals(const Quantity &q) const
    {
        const int usual = one(m_imperial).decimals;
        if (q.u > 0)
            return std::min(usual, decimalsFor(q.u * perUnit(), usual));
        if (q.decimals < 0)
            return usual;
        if (!m_imperial)
            return q.decimals;
        return asFineAs(q.decimals);
    }
    /// Decimals of as fine a step as so many in the metric unit, or up to 1.6 times as coarse; no
    /// more than usual where those of the metric unit are no more.
    int asFineAs(int metricDecimals) const
    {
        const double step = std::pow(10, -metricDecimals) / perUnit(false) * perUnit(m_imperial);
        const int most = metricDecimals <= one(false).decimals ? one(m_imperial).decimals : 5;
        return std::clamp(static_cast<int>(std::lround(0.3 - std::log10(step))), 0, most);
    }
    std::string figure(double inUnit, int decimals) const
    {
        return m_plain ? formatPlain(inUnit, decimals) : formatNumber(inUnit, decimals);
    }
    std::string text(const Quantity &q) const
    {
        const int digits = decimals(q);
        std::string out = figure(number(q.value), digits);
        if (q.form == Form::Change && std::round(number(q.value) * std::pow(10, digits)) > 0)
            out.insert(0, "+");
        if (q.form == Form::PlusMinus && q.u > 0)
            out += " ± " + figure(2 * q.u * perUnit(), digits);
        return out;
    }
    std::string text(const QuantityRange &r) const
    {
        const double half = std::abs(r.high.value - r.low.value) * perUnit() / 2;
        int digits = std::max(decimals(r.low), decimals(r.high));
        if (r.low.decimals < 0 && r.low.u <= 0 && half > 0)
            digits = std::clamp(static_cast<int>(-std::floor(std::log10(half))), 0, digits);
        const std::string low = figure(number(r.low.value), digits);
        const std::string high = figure(number(r.high.value), digits);
        return low == high ? low : low + " to " + high;
    }
    std::string joined(const std::string &number) const
    {
        return withUnit(number, label(), m_plain);
    }

private:
    const OneUnit &one(bool imperial) const
    {
        return imperial ? m_kind.row->imperial : m_kind.row->metric;
    }
    double perUnit(bool imperial) const
    {
        const Unit *u = m_kind.units[imperial];
        return u ? 1 / u->scale : 1;
    }

    const Resolved &m_kind;
    bool m_imperial, m_plain;
};

template <typename Q> ShownQuantity shownAs(const Q &q, Shows as, const UnitStyle &style)
{
    const Writer first(as, style.system == UnitSystem::Imperial, style.plain);
    const Writer other(as, true, style.plain);
    ShownQuantity out { first.text(q), std::string(first.label()), {} };
    if (style.system == UnitSystem::Both && other.label() != first.label())
        out.second = other.joined(other.text(q));
    return out;
}

template <typename Q> std::string shownText(const Q &q, Shows as, const UnitStyle &style)
{
    const ShownQuantity parts = shownAs(q, as, style);
    const Writer first(as, style.system == UnitSystem::Imperial, style.plain);
    std::string out = first.joined(parts.number);
    if (!parts.second.empty())
        out += (style.plain ? " / " : " · ") + parts.second;
    return out;
}

PatternSource patternSource = nullptr;

std::string argumentText(const Phrase::Argument &argument, const UnitStyle &style)
{
    struct Text
    {
        const UnitStyle &style;
        std::string operator()(const Quantity &q) const { return shownText(q, q.as, style); }
        std::string operator()(const QuantityRange &r) const
        {
            return shownText(r, r.low.as, style);
        }
        std::string operator()(const std::string &word) const { return word; }
        std::string operator()(const Phrase &phrase) const { return render(phrase, style); }
    };
    return std::visit(Text { style }, argument.value);
}

/// Writes one phrase, argument by argument.
class Renderer
{
public:
    Renderer(const Phrase &phrase, const UnitStyle &style)
        : m_phrase(phrase)
        , m_style(style)
    {
    }

    std::string run() const
    {
        const std::string translated
            = patternSource && !m_phrase.id.empty() ? patternSource(m_phrase.id) : std::string();
        const std::string_view pattern = translated.empty() ? m_phrase.pattern : translated;
        std::string out;
        for (size_t i = 0; i < pattern.size();) {
            const size_t end = pattern[i] == '{' ? pattern.find('}', i) : pattern.npos;
            if (end != pattern.npos && insert(pattern.substr(i + 1, end - i - 1), out)) {
                i = end + 1;
                continue;
            }
            out += pattern[i++];
        }
        return out;
    }

private:
    /// @return whether the braces held the place of an argument
    bool insert(std::string_view place, std::string &out) const
    {
        if (place.starts_with("*|")) {
            for (size_t i = 0; i < m_phrase.arguments.size(); ++i)
                out += (i ? std::string(place.substr(2)) : "")
                    + argumentText(m_phrase.arguments[i], m_style);
            return true;
        }
        size_t index = 0;
        const auto read = std::from_chars(place.data(), place.data() + place.size(), index);
        if (read.ec != std::errc() || index >= m_phrase.arguments.size())
            return false;
        const std::string_view rest(read.ptr, static_cast<size_t>(place.end() - read.ptr));
        const Phrase::Argument &argument = m_phrase.arguments[index];
        if (rest.empty()) {
            out += argumentText(argument, m_style);
            return true;
        }
        const Quantity *q = std::get_if<Quantity>(&argument.value);
        const size_t bar = rest.find('|', 1);
        if (rest.front() != '|' || bar == rest.npos || !q)
            return false;
        out += std::round(q->value) == 1 ? rest.substr(1, bar - 1) : rest.substr(bar + 1);
        return true;
    }

    const Phrase &m_phrase;
    const UnitStyle &m_style;
};

} // namespace

std::string ShownQuantity::text() const
{
    return withUnit(number, unit, false) + (second.empty() ? "" : " · " + second);
}

ShownQuantity shown(const Quantity &quantity, const UnitStyle &style)
{
    return shownAs(quantity, quantity.as, style);
}
ShownQuantity shown(const QuantityRange &range, const UnitStyle &style)
{
    return shownAs(range, range.low.as, style);
}

Quantity asLimit(double um)
{
    return { um * 1e-6, Shows::Clearance, 0, um == std::round(um) ? 0 : 1 };
}

std::string_view shownUnit(Shows as, UnitSystem system)
{
    return Writer(as, system == UnitSystem::Imperial, false).label();
}
double inShownUnit(double value, Shows as, UnitSystem system)
{
    return Writer(as, system == UnitSystem::Imperial, false).number(value);
}
double fromShownUnit(double number, Shows as, UnitSystem system)
{
    return Writer(as, system == UnitSystem::Imperial, false).value(number);
}

namespace {

/// The kind of quantity that is shown in this metric unit, as files spell it; null: none is.
const Showing *showingIn(std::string_view metric)
{
    constexpr std::pair<std::string_view, std::string_view> spelled[] {
        { "l", "L" },
        { "l/min", "L/min" },
        { "rev/min", "rpm" },
        { "mm²/s", "cSt" },
    };
    if (metric.empty())
        return nullptr;
    if (metric == "K")
        return resolved(Shows::TemperatureDifference).row;
    for (const auto &[file, shown] : spelled)
        metric = metric == file ? shown : metric;
    for (const Showing &s : showings)
        if (s.metric.label == metric)
            return &s;
    return nullptr;
}

} // namespace

ShownField shownField(std::string_view metric, int decimals, UnitSystem system)
{
    // Micrometres to the nanometre are heights of a surface, no clearances.
    const bool surface = metric == "µm" && decimals >= 3;
    const Showing *s = surface ? resolved(Shows::Roughness).row : showingIn(metric);
    if (!s)
        return { std::string(metric), decimals };
    const bool imperial = system == UnitSystem::Imperial;
    const Writer writer(s->as, imperial, false);
    return { std::string(writer.label()), imperial ? writer.asFineAs(decimals) : decimals };
}

Quantity ofFileUnit(double number, std::string_view unit)
{
    // Of the circuit; people read bar.
    if (unit == "kPa")
        return asPressure(number * 1e3);
    const Showing *s = showingIn(unit);
    return s ? Quantity { fromShownUnit(number, s->as, UnitSystem::Metric), s->as }
             : asNumber(number, std::abs(number) < 10 && number != std::round(number) ? 2 : 0);
}

Phrase::Phrase() = default;
Phrase::Phrase(std::string_view phraseId, std::string_view text, std::vector<Argument> with)
    : id(phraseId)
    , pattern(text)
    , arguments(std::move(with))
{
}
Phrase::Phrase(std::string words)
{
    if (words.empty())
        return;
    pattern = "{0}";
    arguments.emplace_back(std::move(words));
}
Phrase::Phrase(std::string_view words)
    : Phrase(std::string(words))
{
}
Phrase::Phrase(const char *words)
    : Phrase(std::string(words))
{
}
Phrase::Phrase(const Phrase &) = default;
Phrase::Phrase(Phrase &&) noexcept = default;
Phrase &Phrase::operator=(const Phrase &) = default;
Phrase &Phrase::operator=(Phrase &&) noexcept = default;
Phrase::~Phrase() = default;

bool Phrase::empty() const
{
    return pattern.empty();
}
bool Phrase::operator==(const Phrase &other) const
{
    return id == other.id && pattern == other.pattern && arguments == other.arguments;
}

Phrase::Argument::Argument(const Quantity &quantity)
    : value(quantity)
{
}
Phrase::Argument::Argument(const QuantityRange &range)
    : value(range)
{
}
Phrase::Argument::Argument(std::string word)
    : value(std::move(word))
{
}
Phrase::Argument::Argument(std::string_view word)
    : value(std::string(word))
{
}
Phrase::Argument::Argument(const char *word)
    : value(std::string(word))
{
}
Phrase::Argument::Argument(Phrase phrase)
    : value(std::move(phrase))
{
}

std::string capitalised(std::string_view words)
{
    std::string out(words);
    if (!out.empty())
        out[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[0])));
    return out;
}

std::string asId(std::string_view name)
{
    std::string out;
    for (const char c : name)
        out += std::isalnum(static_cast<unsigned char>(c))
            ? static_cast<char>(std::tolower(static_cast<unsigned char>(c)))
            : '_';
    return out;
}

Phrase asPhrase(const Quantity &quantity)
{
    return { "", "{0}", { quantity } };
}

Phrase named(std::string_view name, Phrase what)
{
    return { "", "{0}: {1}", { name, std::move(what) } };
}

Phrase joinedBy(const std::vector<Phrase> &parts, std::string_view pattern)
{
    Phrase out("", pattern);
    for (const Phrase &p : parts)
        if (!p.empty())
            out.arguments.emplace_back(p);
    if (out.arguments.empty())
        return {};
    return out;
}

Phrase mustBe(const QuantityRange &range, const Quantity &is)
{
    return { "must_be", "must be {0}, is {1}", { range, is } };
}

Phrase mustBe(double least, double most, double is, std::string_view fileUnit)
{
    return mustBe(QuantityRange { ofFileUnit(least, fileUnit), ofFileUnit(most, fileUnit) },
                  ofFileUnit(is, fileUnit));
}

Phrase mustBeAbove(double least, double most, double is, std::string_view fileUnit)
{
    return { "must_be_above",
             "must be above {0}, is {1}",
             { QuantityRange { ofFileUnit(least, fileUnit), ofFileUnit(most, fileUnit) },
               ofFileUnit(is, fileUnit) } };
}

Phrase aboutNumber(std::string_view meaning, double least, double most, std::string_view fileUnit)
{
    constexpr double unlimited = 1e11;
    if (!(most < unlimited) || !(least > -unlimited))
        return { "", "{0}", { meaning } };
    return { "about_number",
             "{0}: {1}",
             { meaning,
               QuantityRange { ofFileUnit(least, fileUnit), ofFileUnit(most, fileUnit) } } };
}

void append(Phrase &to, const Phrase &more, std::string_view pattern)
{
    to = joinedBy({ to, more }, pattern);
}

std::string render(const Phrase &phrase, const UnitStyle &style)
{
    return Renderer(phrase, style).run();
}
std::string render(const Quantity &quantity, const UnitStyle &style)
{
    return shownText(quantity, quantity.as, style);
}

void setPatternSource(PatternSource source)
{
    patternSource = source;
}

} // namespace mildpath
