// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/types.h"

namespace mildpath {

/// How much of the film's warmth above its oil a journal takes on: x = 0.7 G_f/(G_f + G_o).
/// Two nodes: the film gives through 4 k_oil π D L/C (k_oil 0.13 W/m K), the journal away through
/// its own metal, 4 k_s (π D²/4)/L (k_s 45 W/m K), in series with its cheeks, 600 · 4 D² W/K. 0.7
/// because the journal feels the whole turn. Own choice.
/// @param clearance  diametral, > 0
double journalWarmthShare(double diameter_m, double length_m, DiametralClearance clearance);
/// The same of housing or rod: 0.4 of the film's rise. Own choice.
inline constexpr double housingWarmthShare = 0.4;
/// T_j = T_oil + x (T_film − T_oil).
double journalTemperature_c(double share, double film_c, double oil_c);

} // namespace mildpath
