// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <span>
#include <string_view>

namespace mildpath {

/// What an infrared thermometer answers to.
enum class InfraredBand {
    Total, ///< all wavelengths: the textbook's
    Micrometres8To14, ///< what the hand-held ones see
};

struct InfraredReading
{
    Celsius reading;
    Celsius surroundings; ///< of the detector, and what the spot mirrors
    double emissivity; ///< of the spot, above 0 to 1
    double instrumentEmissivity = 0.95; ///< what the instrument is set to
    double emissivityU = 0; ///< standard
    InfraredBand band = InfraredBand::Total;
};

struct InfraredTemperature
{
    Celsius temperature;
    double correction_k; ///< true less read
    double amplification; ///< kelvin of the answer per kelvin of the reading
    double u_k; ///< standard, from the emissivity's alone
    bool usable; ///< the amplification is at most 2
};

/// True temperature of a spot behind an infrared reading.
///   total:    T⁴ = Ta⁴ + (es/e)(Tr⁴ − Ta⁴)
///   8–14 µm:  M(T) = M(Ta) + (es/e)(M(Tr) − M(Ta)), M Planck's exitance in the band
/// Errors: `reading_c` when no temperature would read so little.
/// Source: standard textbook result (grey spot, detector and surroundings at one temperature).
Result<InfraredTemperature> trueTemperature(const InfraredReading &reading);

/// Planck's exitance between 8 and 14 µm over σ: T⁴ (F(14 T) − F(8 T)), in K⁴.
/// @param t  1 K and up
double bandExitance_k4(Kelvin t);

/// What a surface sends of what a black one would. Handbook ranges, from memory; wide.
struct SpotSurface
{
    std::string_view id;
    std::string_view name; ///< short, as in a list; `id` says more
    double emissivity;
    double low, high;
};
std::span<const SpotSurface> surfaces();
/// @return null for an unknown id.
const SpotSurface *findSurface(std::string_view id);

} // namespace mildpath
