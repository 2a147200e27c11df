// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/sump.h"
#include "quantity/phrase.h"
#include "quantity/result.h"
#include "sump/fillwindow.h"
#include "sump/intake.h"
#include "sump/risk.h"
#include "sump/windage.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// A level of the oil. Each is its own number; none is another's estimate.
struct AirLevel
{
    std::string id, name;
    double volume_m3;
    double level_m; ///< over the lowest inside point
    Phrase note;
};

/// Oil that is held up somewhere, by cause.
struct HeldOil
{
    std::string id, name;
    std::optional<double> volume_m3; ///< absent: not known
    Phrase why; ///< how it comes, or what is missing
    bool still = false; ///< never back at rest; else only while it runs
};

/// One use the sump must stand.
struct AirCase
{
    std::string id, name;
    PanWay way;
    double accel_g = 0, incline_rad = 0;
    double oil_c = 0, held_m3 = 0;
    double volume_m3 = 0; ///< in the pan
    OilSurface surface {};
    double submergence_m = 0, clearance_m = 0;
    Submergence wanted {};
    Windage wind {};
    CaseLimits limits {}; ///< of the fill
    /// Turns: how hard it may be before the mouth has less than what is wanted, and than the dip.
    std::optional<double> wanted_g {}, uncovers_g {};
};

/// The pickup's compartment in the hardest turn, and what a baffle costs the rest of the time.
struct BaffleTrade
{
    std::optional<double> shut_s; ///< doors shut: time to uncover; absent: never
    std::optional<double> open_s; ///< oil standing outside: time to uncover through the opening
    std::optional<double> refill_s; ///< to come back; absent: it does not
    double costs_m; ///< level it costs in steady running, hot
    double costsCold_m; ///< with cold, thick oil
    double start_m, limit_m; ///< levels over the compartment's floor
};

/// One way air gets into the oil.
struct AirRow
{
    std::string id, name;
    AirState state = AirState::Unknown;
    Phrase quantity; ///< "mouth 30 mm under, 53 wanted"
    Phrase reason; ///< what it means, or which input is missing
    Phrase remedy;
    std::string_view contribution; ///< of `aeration-risk`
};

/// The tank of a dry sump.
struct TankReport
{
    double volume_m3, level_m; ///< over its outlet, running
    double swirl_m; ///< the turning oil dips in the middle
    double stay_s; ///< of the oil in it
    double high_m; ///< outlet to the return's mouth
    std::optional<double> folds_pa; ///< suction at which a plain hose folds
    double suction_pa; ///< deepest in the hose
};

struct AirReport
{
    std::optional<Error> problem; ///< why there is no section to judge; place as in the document
    std::vector<AirLevel> levels;
    std::vector<HeldOil> held;
    double heldRunning_m3 = 0; ///< known causes, at the highest speed
    Phrase balance {}; ///< of the fill, running: where it is; empty where that is not known
    bool heldKnown = false; ///< every cause
    std::vector<AirCase> cases;
    std::optional<FillWindow> window; ///< mouth as deep as wanted, crank clear of the wind
    std::optional<FillWindow> edge; ///< beyond it gas is drawn, or the crank dips
    std::string leastName, mostName; ///< what sets the window's ends
    std::optional<BaffleTrade> baffle;
    std::optional<TankReport> tank;
    std::optional<double> slosh_s; ///< across, else along
    std::vector<AirRow> rows; ///< eleven
    AirState overall = AirState::Unknown;
    double releaseShare = 0, leakShare = 0; ///< of gas at the inlet, at the worst point judged
    bool foreign = false; ///< coolant is certain: the rest does not apply until the oil is changed

    const AirRow *row(std::string_view id) const;
    const AirLevel *level(std::string_view id) const;
    const AirCase *find(std::string_view id) const;
    /// The row that leads: the first of the worst known state; null when nothing is.
    const AirRow *leading() const;
};

} // namespace mildpath
