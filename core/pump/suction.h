// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <string_view>

namespace mildpath {

/// A static O-ring in its gland.
struct ORing
{
    double section_m;
    double gland_m; ///< depth
    double stretch = 0; ///< 0…0.5, of the ring's length
    double compressionSet = 0; ///< fraction 0…1.5
    std::optional<double> grooveWidth_m {};
};

struct ORingFit
{
    double stretchedSection_m; ///< w0/√(1 + s)
    double squeeze; ///< fraction of the section
    double sectionAfterSet_m;
    double squeezeAfterSet;
    std::optional<double> glandFill; ///< 0…, with a groove width
    std::string_view verdict; ///< ok | watch | high | no_seal | over_squeezed | overfilled_groove
};

/// Squeeze now and after compression set.
///   w = w0/√(1 + s); squeeze = (w − g)/w; w' = w − C (w − g); fill = (π w²/4)/(g b)
/// Verdict from the squeeze after set: ≤ 0 no_seal, < 8 % high, < 15 % watch; else initial squeeze
/// > 30 % over_squeezed; gland fill > 95 % overfilled_groove. A ring not squeezed takes no set.
/// Source: constant rubber volume; design ranges from seal handbooks, ISO 3601-2, from memory; the
/// verdict's limits are own choice.
ORingFit oRingFit(const ORing &ring);

/// Compression set of a ring or gasket.
struct CompressionSet
{
    double set; ///< (h0 − h2)/(h0 − h1); may pass 1
    double squeeze; ///< (h0 − h1)/h0
    std::string_view verdict; ///< swollen | ok | watch | replace
};

/// Source: ISO 815-1; verdict limits (0, 30, 60 %) own choice. Errors: `h1_mm` when not below h0.
Result<CompressionSet> compressionSet(double fresh_m, double compressed_m, double recovered_m);

/// Gap between the pickup's mouth and the floor of the sump.
struct PickupGap
{
    double areaRatio; ///< 4 D gap/d²: area in over area of the bore
    double equalAreaGap_m;
    double ruleLeast_m, ruleMost_m; ///< a quarter to half the bore (common practice)
    std::string_view verdict; ///< tight | ok | wide
    std::optional<double> velocity_m_s, loss_pa; ///< with a flow
};

/// @param flow_m3_s  absent: no velocity and loss
/// @param lossCoefficient  of ρ v²/2 in the gap, 1.5 (assumption)
/// Source: geometry; "a quarter to half the bore" common practice, no source.
/// Errors: `mouth_diameter_mm` below the bore.
Result<PickupGap> pickupGap(double bore_m, double mouth_m, double gap_m,
                            std::optional<double> flow_m3_s, double density_kg_m3,
                            double lossCoefficient = 1.5);

} // namespace mildpath
