// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/rules.h"
#include "assess/sizes.h"
#include "bearing/contact.h"

namespace mildpath {

/// Where a pair of surfaces runs on the curve of Stribeck.
struct Contact
{
    std::string id; ///< mains, big_ends, both also _full; rings_mid, rings_top, cam
    std::string name;
    double filmParameter = 0; ///< λ
    Regime regime = Regime::Boundary;
    /// Smallest film; absent where only the regime may be said (rings).
    std::optional<double> film_m;
    Phrase detail; ///< what it was taken for
    bool fullLoad = false; ///< of the crank: with the engine at full load, else without load
    bool ofTheCrank() const { return id.starts_with("mains") || id.starts_with("big_ends"); }
};

/// How a camshaft meets its followers. The builder's choice under the question "tappet".
enum class Tappet { Flat, Roller };
Tappet tappetOf(const Build &build);

/// Surfaces and shapes of what rubs.
struct ContactShapes
{
    double journalRq_um, shellRq_um;
    double ringRq_um, boreRq_um;
    double camRq_um, tappetRq_um;
    double ringPressure_pa;
    double baseRadius_mm, lift_mm, noseFall_mm; ///< −s'' over the nose
    double springLoad_n, camWidth_mm, rollerRadius_mm;
};

/// As the document says, else as usual (finishKeys()).
ContactShapes shapesOf(const Build &build);

/// Contacts at an operating point, by its films: mains and big-ends the one least well off, rings
/// at the middle and the top of the stroke, the cam's nose on its tappet. Above idle the crank's
/// stand twice, without load and at full load. Without bore and stroke,
/// displacement stands for them; without cams there is no cam.
std::vector<Contact> contactsOf(const Build &build, const OperatingResult &point,
                                const ContactShapes &shapes);
inline std::vector<Contact> contactsOf(const Build &build, const OperatingResult &point)
{
    return contactsOf(build, point, shapesOf(build));
}

/// Mains and big-ends have to float at speed: mixed is to be checked again, boundary holds. Rings
/// at the ends of their stroke and the cam's nose run on chemistry in any engine: they never hold.
Mark markOf(const Contact &contact);
/// Mains and big-ends together: the worst regime and its mark.
struct CrankFilms
{
    Regime regime = Regime::FullFilm;
    Mark mark = Mark::Proven;
};
CrankFilms crankFilms(const std::vector<Contact> &contacts);

/// Lowest speed from which mains and big-ends float (λ > 3) at this oil temperature; absent when
/// not up to the highest. Errors: as Network::solve.
Result<std::optional<double>> floatsFrom_rpm(const Build &build,
                                             const std::vector<GaugedSize> &sizes, double oil_c);

/// The oil with this share of petrol by mass; its density as it was.
Oil dilutedOil(const Oil &oil, double fuelFraction);

/// Whether the oil's winter grade was tested as cold as the coldest start. Colder, oil is thicker
/// than its viscosity line says: to be checked again, crankingLeeway_k colder it holds.
struct CrankingTest
{
    double tested_c; ///< of a grade without a winter test unwintered_c is taken
    bool winter; ///< the grade names one
    Mark mark;
};
CrankingTest crankingTestOf(const Build &build);

/// The high-shear viscosity of the data sheet against the floor of the grade it claims (SAE J300).
struct HighShear
{
    std::optional<std::string> grade; ///< whose floor it reaches
    double floor_pa_s = 0; ///< of that grade
    Mark mark = Mark::NotDone; ///< not done: not on the sheet
};
HighShear highShearOf(const ChosenOil &oil);

/// Phosphorus wanted, mg/kg. Common practice throughout, no source.
struct AntiWearAdvice
{
    double least_mg_kg, most_mg_kg;
    Phrase text;
    Mark mark; ///< of the oil at hand; not done when its phosphorus is not known
};
AntiWearAdvice antiWearAdvice(const Build &build);

} // namespace mildpath
