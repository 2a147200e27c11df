// SPDX-License-Identifier: GPL-3.0-or-later
#include "pump/suction.h"
#include "quantity/types.h"

#include <cmath>

namespace mildpath {

ORingFit oRingFit(const ORing &ring)
{
    ORingFit out {};
    const double w = ring.section_m / std::sqrt(1 + ring.stretch), g = ring.gland_m;
    out.stretchedSection_m = w;
    out.squeeze = (w - g) / w;
    out.sectionAfterSet_m = w > g ? w - ring.compressionSet * (w - g) : w;
    out.squeezeAfterSet = (out.sectionAfterSet_m - g) / out.sectionAfterSet_m;
    if (ring.grooveWidth_m)
        out.glandFill = pi * w * w / 4 / (g * *ring.grooveWidth_m);
    const double e = out.squeezeAfterSet;
    if (e <= 0)
        out.verdict = "no_seal";
    else if (e < 0.08)
        out.verdict = "high";
    else if (e < 0.15)
        out.verdict = "watch";
    else
        out.verdict = out.squeeze > 0.30 ? "over_squeezed" : "ok";
    if (out.glandFill && *out.glandFill > 0.95 && (out.verdict == "ok" || out.verdict == "watch"))
        out.verdict = "overfilled_groove";
    return out;
}

Result<CompressionSet> compressionSet(double h0, double h1, double h2)
{
    if (!(h1 < h0))
        return fail("h1_mm", "must be below the new height h0_mm");
    CompressionSet out { (h0 - h2) / (h0 - h1), (h0 - h1) / h0, "replace" };
    if (out.set < 0)
        out.verdict = "swollen";
    else if (out.set < 0.3)
        out.verdict = "ok";
    else if (out.set < 0.6)
        out.verdict = "watch";
    return out;
}

Result<PickupGap> pickupGap(double bore_m, double mouth_m, double gap_m,
                            std::optional<double> flow_m3_s, double rho, double k)
{
    if (!(mouth_m >= bore_m))
        return fail("mouth_diameter_mm", "must be at least the bore");
    PickupGap out {};
    out.areaRatio = 4 * mouth_m * gap_m / (bore_m * bore_m);
    out.equalAreaGap_m = bore_m * bore_m / (4 * mouth_m);
    out.ruleLeast_m = bore_m / 4;
    out.ruleMost_m = bore_m / 2;
    out.verdict = "ok";
    if (out.areaRatio < 1 - 1e-9)
        out.verdict = "tight";
    else if (gap_m > bore_m / 2 * (1 + 1e-9))
        out.verdict = "wide";
    if (flow_m3_s) {
        out.velocity_m_s = *flow_m3_s / (pi * mouth_m * gap_m);
        out.loss_pa = k * rho * *out.velocity_m_s * *out.velocity_m_s / 2;
    }
    return out;
}

} // namespace mildpath
