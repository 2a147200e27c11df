// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/rounding.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <optional>
#include <span>
#include <vector>

namespace mildpath {

/// Diameter at 20 °C of a part measured at another temperature: D / (1 + α (T − 20)).
/// Source: ISO 1 (reference temperature); linear expansion, standard result.
double diameterAt20_m(double diameter_m, double expansion_per_k, Celsius t);

/// How the uncertainty of an instrument was stated.
enum class UncertaintyKind {
    Standard, ///< u
    Expanded, ///< U = 2 u
    Limits, ///< ± a, all values equally likely: u = a/√3
    Resolution, ///< step q: u = q/(2√3)
};

/// Standard uncertainty of a stated one. Source: JCGM 100 "GUM", 2008, 4.3; from memory.
double standardUncertainty(double stated, UncertaintyKind kind);

/// What a clearance reading assumes of the parts while they were gauged.
struct PartsWhileGauging
{
    Celsius bore { 20 };
    Celsius journal { 20 };
    double boreExpansion_per_k = 11.5e-6;
    double journalExpansion_per_k = 11.7e-6;
    double temperatureUncertainty_k = 0; ///< standard, of each part by itself
};

/// A diametral clearance at 20 °C with what it came from.
struct ClearanceAt20
{
    DiametralClearance clearance;
    double standardUncertainty_m;
    double bore20_m;
    double journal20_m;
};

/// Two instruments: bore (shells fitted, bolts at final torque) less journal, each brought to 20 °C
/// with its own temperature. u = √(u_bore² + u_journal² + thermal parts); inputs uncorrelated.
/// Source: JCGM 100 "GUM", 2008, eq. 10. A negative result is interference, not an error.
ClearanceAt20 clearanceFromTwoInstruments(double bore_m, double journal_m, double uBore_m,
                                          double uJournal_m, const PartsWhileGauging &parts);

/// Bore gauge zeroed on the journal: the reading is the clearance, the micrometer's scale error
/// cancels. @param journal_m nominal diameter; `parts.journal` is its temperature when the gauge
/// was zeroed. u = √(u_gauge² + u_zero² + thermal parts).
ClearanceAt20 clearanceFromZeroedGauge(double reading_m, double journal_m, double uGauge_m,
                                       double uZero_m, const PartsWhileGauging &parts);

/// Angular distance of a gauging line from the parting line, 0…90°. Angles are modulo 180°.
double angleFromJoint_deg(double angle_deg);

/// Shells thin toward the joint, so not every reading tells the clearance.
enum class ReadingUse {
    Clearance, ///< 90° from the parting line (within 15°): makes the mean
    Form, ///< 60° or more: counts for taper and out-of-round, not for the mean
    Shape, ///< 30° to 60°: shape information only
    Never, ///< within 30° of the parting line
};

/// A gauging line upright to the parting line (degrees).
inline constexpr double uprightAngle_deg = 90;

/// Source: shell geometry (eccentric wall), own derivation; the thresholds are common practice.
ReadingUse readingUse(double angle_deg);

/// One reading of a bore or of a clearance at a position.
struct PositionReading
{
    double angle_deg; ///< from the parting line
    int station; ///< axial station, counted from the front
    double value_m;
};

/// Form of a bore (or of the clearance in it) from the counted readings.
struct BoreForm
{
    int counted;
    double countedMean_m; ///< of all counted readings
    /// Of the readings 90° from the joint: the clearance for limits and circuit; of all counted
    /// ones if there are none there.
    double mean_m;
    double smallest_m;
    double largest_m;
    double outOfRound_m; ///< largest within one station, over stations
    double taper_m; ///< largest difference between stations at one angle
};

/// @param readings        any number; those nearer the joint than `minAngle_deg` are left out
/// @param minAngle_deg    60 with shells; 0 or 30 for a bare housing (no relief there)
/// Errors: `readings` when none counts.
Result<BoreForm> boreForm(std::span<const PositionReading> readings, double minAngle_deg = 60);

/// One width of a crushed plastic strip, already read from its chart.
struct StripReading
{
    DiametralClearance clearance;
    bool overOilHole; ///< the strip flows into a hole and reads wrong: left out
};

struct StripClearance
{
    DiametralClearance clearance; ///< the smallest usable reading
    double low_m, high_m; ///< half a chart step to each side
    double standardUncertainty_m; ///< step/(2√3)
    double taper_m;
    int used;
};

/// A check, not a replacement for gauge or micrometer; never averaged with them (common practice).
/// Errors: `readings` when none is usable; `step_um` when not above 0.
Result<StripClearance> stripClearance(std::span<const StripReading> readings, double step_m);

} // namespace mildpath
