// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/network.h"
#include "storage/buildfile.h"
#include "storage/files.h"
#include "storage/templates.h"

#include <QString>
#include <QtTest>

#include <cmath>

namespace mildpath {

/// |actual − expected| ≤ rtol |expected| + atol, with the figures when not. QCOMPARE on doubles
/// asks for 1e-12 and calls any two tiny numbers equal.
inline void verifyClose(double actual, double expected, double rtol, double atol = 0,
                        const QString &what = {})
{
    const bool close = std::abs(actual - expected) <= rtol * std::abs(expected) + atol;
    QVERIFY2(close,
             qPrintable(QStringLiteral("%1 is %2, expected %3")
                            .arg(what)
                            .arg(actual, 0, 'g', 9)
                            .arg(expected, 0, 'g', 9)));
}

/// Instrumented code runs some ten times as long: what is repeated for its statistics is then
/// repeated less, over the same code.
#ifdef __SANITIZE_ADDRESS__
inline constexpr bool sanitized = true;
#else
inline constexpr bool sanitized = false;
#endif

/// Where the data of the tests and the programs they start stand.
extern const char *const testDataFolder, *const cliProgram, *const gaugeSimProgram,
                                                                *const engineSimProgram;

inline QString dataFile(const char *name)
{
    return QString::fromUtf8(testDataFolder) + QLatin1Char('/') + QString::fromLatin1(name);
}

std::string textOf(const char *name);

/// A JSON file of the test data; wants quantity/json.h.
Json jsonOf(const char *name);

/// What is written of an assessment of it; wants quantity/json.h.
Json jsonOfAssessment(const Build &build);

/// Rows of a CSV file without its header; cells as text.
QList<QStringList> rowsOf(const char *name);

/// As on a first day, but that it was said who works.
void freshSettings();

/// A sentence of the core as files and programs get it: metric, plain digits.
inline std::string said(const Phrase &phrase)
{
    return render(phrase, fileStyle);
}

/// Text of a widget with plain spaces, for comparing.
inline QString plainly(QString text)
{
    return text.replace(QChar(0xA0), u' ');
}

/// The first figure of a text in units of the other system ("65 µm" where psi and thou are asked
/// for); empty: none. What is a name or somebody's own words is cut out first: `allowed`.
QString foreignUnit(QString text, UnitSystem asked, const QStringList &allowed = {});

/// The inline-four of the reference tables.
Circuit inlineFour();

Build demoBuild();

/// The build with every plug seen in its place.
Build withPlugsSeen(Build build);

/// Place of a bore gauge reading at a main or big-end of the demo's naming.
inline ReadingPlace gaugePlace(const std::string &stop, int station, double angle_deg)
{
    return { stop, stop.substr(0, stop.rfind('_')), 1, "zeroed_bore_gauge", station, angle_deg };
}

/// A bore gauge reading there, everything at 20 °C.
inline Reading gaugeReading(const std::string &stop, int station, double angle_deg, double um)
{
    Reading r;
    r.stop = stop;
    r.family = gaugePlace(stop, 1, 90).family;
    r.station = station;
    r.angle_deg = angle_deg;
    r.value_um = um;
    r.by = "tester";
    r.at = "2026-01-01T10:00:00";
    return r;
}

/// The first size of a stop; points into the build.
inline SizeItem sizeItem(const Build &build, const std::string &stop)
{
    for (const SizeItem &i : sizeItems(build))
        if (i.stop->id == stop)
            return i;
    return {};
}

/// Oils of the reference tables, by grade.
inline Oil referenceOil(int grade)
{
    if (grade == 30)
        return { 68.0, 10.5, 872 };
    return grade == 50 ? Oil { 160.0, 18.5, 884 } : Oil { 105.0, 14.2, 878 };
}

/// Puts a class of tests under a name; see MILDPATH_TEST.
bool addTestClass(const char *name, QObject *(*make)());
/// Runs the classes named first on the command line, or all; what follows is for the test library.
/// @return how many tests failed
int runTestClasses(int argc, char **argv);

} // namespace mildpath

/// Registers a class of namespace tst_NAME under NAME: its entry of CTest.
#define MILDPATH_TEST(space, Class)                                                                \
    namespace space {                                                                              \
    [[maybe_unused]] const bool registered                                                         \
        = mildpath::addTestClass(#space, []() -> QObject * { return new Class; });                 \
    }
