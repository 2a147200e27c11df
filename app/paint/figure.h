// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include "quantity/units.h"

#include <QCoreApplication>
#include <QString>

namespace mildpath {

/// A number as shown, unit apart (it is set in muted type).
struct Shown
{
    QString number;
    QString unit;
    QString second; ///< the other system's figure when both are shown, else empty
    QString text() const;
};
Shown shown(const Quantity &quantity);
Shown shown(const QuantityRange &range);

/// With its unit: "13.3 mm".
inline QString inWords(const Quantity &quantity)
{
    return shown(quantity).text();
}
inline QString inWords(const QuantityRange &range)
{
    return shown(range).text();
}
/// "1 sample", "3 samples".
template <class N> QString counted(N n, const QString &one, const QString &many)
{
    return inWords(asCount(n)) + u' ' + (n == N(1) ? one : many);
}
/// A number in the unit of a file: "0.41 mm".
inline QString inFileUnit(double number, std::string_view unit)
{
    return inWords(ofFileUnit(number, unit));
}
/// The unit a kind of quantity is shown in, and a value in it: for axes.
QString unitOf(Shows as);
double numberOf(double value, Shows as);

/// The one place where numbers become text for people.
class Figure
{
public:
    static UnitSystem system();
    /// How the core's sentences are rendered.
    static UnitStyle style() { return { system(), false }; }
    static void setSystem(UnitSystem system);

    /// Diametral clearance given in µm; decimals by its standard uncertainty.
    static Shown clearance(double um, double u_um = 0);
    /// A limit or target given in µm, as it was given.
    static Shown limit(double um);
    /// Gauge pressure; above what filter cans stand no figure is shown.
    static Shown pressure(double pa);
    static Shown temperature(double c);
    static Shown flow(double m3_s);
    static Shown volume(double m3); ///< litres; US quarts beside or instead
    static Shown speed(double rpm);
    static Shown percent(double share);
    /// "+0.12 bar": a change of pressure, signed.
    static Shown pressureChange(double pa);

    /// Unit a clearance field takes when none is typed.
    static std::string clearanceUnit();
    static std::string pressureUnit();
    static std::string temperatureUnit();
    static std::string volumeUnit();
};

/// Words of free functions, translated; classes have a tr() of their own.
inline QString tr(const char *text)
{
    return QCoreApplication::translate("mildpath", text);
}

inline QString qs(const std::string &s)
{
    return QString::fromStdString(s);
}
QString qs(const Phrase &phrase);
/// "place: why"
QString qs(const Error &error);
inline QString qs(const char *s)
{
    return QString::fromUtf8(s);
}
inline QString qs(std::string_view s)
{
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

} // namespace mildpath
