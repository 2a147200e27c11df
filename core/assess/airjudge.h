// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "assess/operating.h"
#include "oil/viscosity.h"
#include "sump/drainback.h"

namespace mildpath {

/// One pass over a document's sump. In two files: levels, turns and window; the eleven rows.
class AirJudge
{
public:
    AirJudge(const Build &build, const Operating &operating);
    AirReport run();

private:
    std::optional<Error> whatIsMissing() const;
    OilState oilAt(double oil_c) const;
    double nuAt(double oil_c) const;
    double expansion(double oil_c) const;
    double throughput(const OperatingResult &at) const;
    double headFlow(const OperatingResult &at) const;
    std::optional<DrainBack> drain(double oil_c, bool withCrankcase = true) const;
    double heldAt(const OperatingResult &at, double oil_c) const;
    double volumeIn(double oil_c, double held_m3) const;
    Phrase balanceOf(double fill_m3, double oil_c) const;
    Windage windAt(double rpm, double gap_m) const;
    double allowanceAt(double rpm, double gap_m) const;
    Submergence wantedAt(const OperatingResult &at, double oil_c) const;
    std::optional<double> limitG(const HungSection &section, const AirCase &c,
                                 double depth_m) const;
    double inletGauge_pa(const OperatingResult &at) const;

    void holdUps();
    void levels();
    void turns();
    void slosh();
    void window();
    void baffle();
    void tank();

    void rows();
    AirRow windageRow() const;
    AirRow scavengeRow() const;
    AirRow uncoveringRow() const;
    AirRow vortexRow() const;
    AirRow leakRow();
    AirRow ringRow();
    AirRow gasketRow() const;
    AirRow suctionRow();
    AirRow residenceRow() const;
    AirRow drainbackRow() const;
    AirRow crankcaseRow() const;
    AirRow foreignRow() const;
    AbsolutePressure inletAt(double nodeGauge_pa, double oil_c) const;
    AbsolutePressure crankcase() const;
    void noteLeak(double mass_kg_s, AbsolutePressure inlet, double oil_c);

    const Build &m_build;
    const Sump &m_sump;
    const Operating &m_operating;
    bool m_solved, m_dry;
    WaltherLine m_oil {};
    std::optional<HungSection> m_along, m_across;
    std::optional<PanPrism> m_pan;
    std::optional<Submergence> m_tankWanted;
    AirReport m_out;
};

} // namespace mildpath
