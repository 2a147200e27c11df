// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/airreport.h"
#include "assess/finding.h"
#include "assess/operating.h"
#include "quantity/extrakeys.h"
#include "rules/rules.h"

#include <span>

namespace mildpath {

/// The sections as the document has them, in metres.
Profile profileOf(const std::vector<PanPoint> &points);
/// The pan as a prism of its own section, the one along the engine where it is known; absent
/// without one or without its width.
std::optional<PanPrism> panOf(const Sump &sump);
/// The section a turn of this kind is seen in; absent where it or the pickup's place is not known.
/// Where mouth to floor was not measured the mouth stands on the floor: see pickupGap_m().
std::optional<HungSection> sectionOf(const Build &build, PanWay way);
/// Mouth to floor as measured; absent without.
std::optional<double> pickupGap_m(const Build &build);

/// Which way a case tips the oil: acceleration over g and the standing tilt, with their sign.
struct TurnWay
{
    PanWay way;
    double accel_g = 0;
    double incline_rad = 0;
};
/// The oil in one section in a turn, with so much of it in the pan.
struct TurnedOil
{
    OilSurface surface;
    double submergence_m = 0; ///< of the mouth
    double clearance_m = 0; ///< of what is swept, the least
};
/// Errors: `volume_l` when it overflows, `incline_deg` when it tips too far.
Result<TurnedOil> turnOil(const PanPrism &pan, const HungSection &section, const TurnWay &turn,
                          double volume_m3);

/// Levels, turns, the eleven ways air gets in, and the fill window of a document whose forecast
/// stands. Never fails: what cannot be said names what is missing.
AirReport judgeAir(const Build &build, const Operating &operating);

/// What to do about the fill, in a sentence; empty where nothing is known of it.
struct FillAdvice
{
    Mark mark;
    Phrase text;
};
std::optional<FillAdvice> fillAdvice(std::optional<double> fill_l, const AirReport &air);
/// A row as a mark: low is proven; high holds the start where running on the level does harm, and
/// wants another look elsewhere.
Mark markOf(const AirReport &air, const AirRow &row);
/// The worst that is known leads; without a leader, what is unknown is not done.
Mark markOf(const AirReport &air);
/// The mouth in one case: short of the wanted cover it is to be checked again in a turn, on the
/// level it holds; waves nearer to the crank than the margin are to be checked again too.
/// @param gapKnown  whether the mouth's height over the floor was measured; not done without
Mark markOf(const AirCase &c, bool gapKnown);
Json airToJson(const AirReport &air);
std::string airText(const AirReport &air, const UnitStyle &style);

} // namespace mildpath
