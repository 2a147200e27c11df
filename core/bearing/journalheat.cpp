// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/journalheat.h"

namespace mildpath {

double journalWarmthShare(double d, double l, DiametralClearance clearance)
{
    constexpr double oil_w_m_k = 0.13, steel_w_m_k = 45, cheeks_w_m2_k = 600, wholeTurn = 0.7;
    const double film = 4 * oil_w_m_k * pi * d * l / clearance.value_m;
    const double metal = 4 * steel_w_m_k * (pi * d * d / 4) / l, cheeks = cheeks_w_m2_k * 4 * d * d;
    const double away = 1 / (1 / metal + 1 / cheeks);
    return wholeTurn * film / (film + away);
}

double journalTemperature_c(double share, double film_c, double oil_c)
{
    return oil_c + share * (film_c - oil_c);
}

} // namespace mildpath
