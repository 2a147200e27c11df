// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace mildpath {

// Sentences with quantities in them, not yet in anybody's units. The core says what is so; window,
// command line and sheet render it in the units their reader has chosen.

enum class UnitSystem { Metric, Imperial, Both };

/// How numbers are written.
struct UnitStyle
{
    UnitSystem system = UnitSystem::Metric;
    /// ASCII digits and spaces only, for what programs read: no thin spaces, hyphen-minus.
    bool plain = false;
    bool operator==(const UnitStyle &) const = default;
};
/// What files and JSON hold: metric, plain.
inline constexpr UnitStyle fileStyle { UnitSystem::Metric, true };

/// What a quantity is shown as: a unit and its usual digits in each system.
enum class Shows {
    Clearance, ///< µm, thou
    Roughness, ///< µm, µin
    Length, ///< mm, in
    Area, ///< mm², in²
    MediumArea, ///< of filter paper: cm², in²
    Volume, ///< L, US qt
    SmallVolume, ///< cm³, in³
    Flow, ///< L/min, US gpm
    GasFlow, ///< L/min, cfm
    Pressure, ///< gauge: bar, psi
    CasePressure, ///< of the crankcase, gauge: kPa, inHg
    ContactPressure, ///< MPa, psi
    Temperature, ///< °C, °F
    TemperatureDifference, ///< °C, °F
    Speed, ///< rpm
    SurfaceSpeed, ///< m/s, ft/s
    Distance, ///< m, ft
    Journey, ///< km, mi
    Torque, ///< N·m, lb·ft
    SpringRate, ///< N/mm, lb/in
    Force, ///< N, lbf
    Acceleration, ///< g
    Mass, ///< g
    Density, ///< kg/m³
    Time, ///< s
    Minutes, ///< min
    Hours, ///< h
    Angle, ///< °
    KinematicViscosity, ///< cSt
    DynamicViscosity, ///< mPa·s
    Concentration, ///< ppm
    Expansion, ///< ×10⁻⁶/K, ×10⁻⁶/°F
    ValleyVolume, ///< µm³/µm²: oil on a honed wall
    Share, ///< of one, in percent
    Number, ///< a ratio
    Count, ///< a whole number
};

enum class Form {
    Value,
    Change, ///< "+0.12 bar": signed
    PlusMinus, ///< "47.6 ± 1.2 µm": with its expanded uncertainty, 95 %
};

/// A number of the core inside a sentence.
struct Quantity
{
    double value; ///< in SI; rev/min, °C, degrees, g, ppm and shares of one as they are
    Shows as;
    /// Standard uncertainty, as `value`: digits follow it. 0: the usual digits of its kind.
    double u = 0;
    /// Decimals in the metric unit; the other unit is as fine. Below 0: by `u`, or the usual ones.
    int decimals = -1;
    Form form = Form::Value;
    bool operator==(const Quantity &) const = default;
};

/// "1.2 to 1.6 bar": both of a kind, to one digit of half their distance (JCGM 100 "GUM", 2008,
/// 7.2.6, and common practice for a range that is itself an estimate) unless decimals are given.
struct QuantityRange
{
    Quantity low, high;
    bool operator==(const QuantityRange &) const = default;
};

// A quantity from a number in the unit the core computes with.
inline Quantity asClearance(double um, double u_um = 0)
{
    return { um * 1e-6, Shows::Clearance, u_um * 1e-6 };
}
/// To the µm, where a tenth would say more than is known.
inline Quantity asWholeClearance(double um)
{
    return { um * 1e-6, Shows::Clearance, 0, 0 };
}
/// A limit or target as it was given: no decimals that nobody wrote.
Quantity asLimit(double um);
inline Quantity asLength(double mm, int decimals = -1)
{
    return { mm * 1e-3, Shows::Length, 0, decimals };
}
inline Quantity asPressure(double pa, int decimals = -1)
{
    return { pa, Shows::Pressure, 0, decimals };
}
inline Quantity asTemperature(double c)
{
    return { c, Shows::Temperature };
}
inline Quantity asTemperatureDifference(double k, int decimals = -1)
{
    return { k, Shows::TemperatureDifference, 0, decimals };
}
inline Quantity asVolume(double l, int decimals = -1)
{
    return { l * 1e-3, Shows::Volume, 0, decimals };
}
inline Quantity asFlow(double m3_s, int decimals = -1)
{
    return { m3_s, Shows::Flow, 0, decimals };
}
inline Quantity asSpeed(double rpm)
{
    return { rpm, Shows::Speed };
}
inline Quantity asTime(double s, int decimals = -1)
{
    return { s, Shows::Time, 0, decimals };
}
inline Quantity asMinutes(double minutes)
{
    return { minutes, Shows::Minutes, 0, 0 };
}
inline Quantity asHours(double hours)
{
    return { hours, Shows::Hours, 0, hours < 10 ? 1 : 0 };
}
inline Quantity asShare(double share, int decimals = -1)
{
    return { share, Shows::Share, 0, decimals };
}
inline Quantity asNumber(double value, int decimals)
{
    return { value, Shows::Number, 0, decimals };
}
template <typename N> Quantity asCount(N n)
{
    return { static_cast<double>(n), Shows::Count };
}
/// With its sign, or with its expanded uncertainty.
inline Quantity asChange(Quantity q)
{
    q.form = Form::Change;
    return q;
}
inline Quantity withUncertainty(Quantity q)
{
    q.form = Form::PlusMinus;
    return q;
}

/// A quantity as text, its unit apart: windows set it in muted type.
struct ShownQuantity
{
    std::string number, unit;
    std::string second; ///< the other system's figure with its unit, when both are shown
    /// "1.44 bar · 20.9 psi"; number and unit never part at a line's end.
    std::string text() const;
};
ShownQuantity shown(const Quantity &quantity, const UnitStyle &style);
ShownQuantity shown(const QuantityRange &range, const UnitStyle &style);
/// The unit a field of this kind takes when none is typed.
std::string_view shownUnit(Shows as, UnitSystem system);
/// A value in SI as the number in that unit, and back.
double inShownUnit(double value, Shows as, UnitSystem system);
double fromShownUnit(double number, Shows as, UnitSystem system);

/// What a field shows whose values are in a metric unit ("mm", two decimals): the unit in which
/// people of the system write it, and as fine a step. A unit that is none of the table stays.
struct ShownField
{
    std::string unit;
    int decimals;
};
ShownField shownField(std::string_view metric, int decimals, UnitSystem system);

/// A number in the unit of a file or of a key's suffix ("mm", "kPa", "°C"). A unit that is none of
/// the table: a plain number.
Quantity ofFileUnit(double number, std::string_view unit);

/// A sentence: pattern and what goes into it.
///
/// `{0}` stands for the first argument, `{0|hold|holds}` for the word that goes with its number,
/// `{*|, }` for all arguments with what stands between them. An argument is a quantity, a range of
/// one, a word (a name of the build, never a number), or a phrase.
///
///     Phrase p { "alarm.low", "{0}: below your minimum of {1}", { asPressure(62e3),
///     asPressure(80e3) } };
///     render(p, { UnitSystem::Imperial })  →  "9.0 psi: below your minimum of 11.6 psi"
struct Phrase
{
    struct Argument;

    std::string_view id; ///< stable: "alarm.low"; translations are found by it
    std::string_view pattern; ///< of a literal
    std::vector<Argument> arguments;

    Phrase();
    Phrase(std::string_view phraseId, std::string_view text, std::vector<Argument> with = {});
    /// Words as they are, without figures.
    Phrase(std::string words);
    Phrase(std::string_view words);
    Phrase(const char *words);
    Phrase(const Phrase &);
    Phrase(Phrase &&) noexcept;
    Phrase &operator=(const Phrase &);
    Phrase &operator=(Phrase &&) noexcept;
    ~Phrase();

    bool empty() const;
    bool operator==(const Phrase &other) const;
};
struct Phrase::Argument
{
    std::variant<Quantity, QuantityRange, std::string, Phrase> value;

    Argument(const Quantity &quantity);
    Argument(const QuantityRange &range);
    Argument(std::string word);
    Argument(std::string_view word);
    Argument(const char *word);
    Argument(Phrase phrase);
    bool operator==(const Argument &) const = default;
};

/// A quantity alone.
Phrase asPhrase(const Quantity &quantity);
/// The first letter of a sentence made of names.
std::string capitalised(std::string_view words);
/// A name as part of an id: small letters and digits, the rest underscores.
std::string asId(std::string_view name);
/// "Main 4: 71.3 µm"
Phrase named(std::string_view name, Phrase what);
/// "a, b, c"; those that are empty are left out. The separator is a literal such as "{*|, }".
Phrase joinedBy(const std::vector<Phrase> &parts, std::string_view pattern = "{*|, }");
/// "must be 5 to 500 mm, is 0.3 mm"
Phrase mustBe(const QuantityRange &range, const Quantity &is);
/// The same of numbers in a unit of the file.
Phrase mustBe(double least, double most, double is, std::string_view fileUnit);
/// "must be above 0 to 500 mm, is 0 mm", of numbers in a unit of the file.
Phrase mustBeAbove(double least, double most, double is, std::string_view fileUnit);
/// What a number is and may be, for who asks: "oil's way in: 5 to 500 mm"; without limits, what it
/// is. Numbers in a unit of the file.
Phrase aboutNumber(std::string_view meaning, double least, double most, std::string_view fileUnit);
/// Adds a part: "a; b".
void append(Phrase &to, const Phrase &more, std::string_view pattern = "{*|; }");

/// The sentence in words and figures. A brace that names no argument stays as it is.
std::string render(const Phrase &phrase, const UnitStyle &style = {});
std::string render(const Quantity &quantity, const UnitStyle &style = {});

/// Where patterns in another language come from: id → pattern, empty for "as written".
using PatternSource = std::string (*)(std::string_view id);
/// Set once by the program at its start.
void setPatternSource(PatternSource source);

} // namespace mildpath
