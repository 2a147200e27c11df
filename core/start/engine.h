// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "diagnose/trials.h"
#include "start/prime.h"

#include <map>
#include <memory>
#include <optional>
#include <random>
#include <string>
#include <tuple>
#include <vector>

namespace mildpath {

struct Assessment;

// An engine that is played: it is primed, started, warms and runs, and a sender reads it. Its truth
// is never the forecast's own model: clearances, oil, gauge and the model's common factor are drawn
// within their uncertainties, by a stated seed. What is own choice: docs/theory/start.md.

enum class Turning { Still, Drill, Starter, Running };

struct SimulatedOptions
{
    std::vector<Fault> faults {}; ///< hidden
    unsigned seed = 1;
    bool offModel = true; ///< draws the truth; false: the forecast's own engine, for tests
    std::optional<double> oil_c {}; ///< at the beginning; absent: as the build primes
    bool full = false; ///< primed already
    double noise_kpa = 1.5; ///< of the sender, standard
    double dropouts = 0; ///< share of readings that never come
};

/// What a played outlet has got so far.
struct OutletFill
{
    std::string stop;
    int outlet; ///< from 1, see flowOutlets()
    double filled = 0; ///< 0…1
    std::string_view saw() const; ///< flows, weak, dry
};

class SimulatedEngine
{
public:
    /// Errors: as OperatingModel::make; of the faults.
    static Result<SimulatedEngine> make(const Build &build, const Assessment &assessment,
                                        const SimulatedOptions &options);

    /// @param rpm  of the pump's shaft for a drill, of the crank otherwise
    void turn(Turning how, double rpm);
    Turning turning() const { return m_turning; }
    /// Lets time go on. @param dt_s  any; taken in steps of at most 0.05 s
    void advance(double dt_s);

    double time_s() const { return m_t_s; }
    double crank_rpm() const { return m_crank_rpm; }
    double oil_c() const { return m_oil_c; }
    bool primed() const { return m_toFill_m3 <= 0 && m_suction_m3 <= 0; }
    /// What the sender says now; absent when the line is lost.
    std::optional<RunPoint> read();
    /// What another gauge would show at a tap, with an error of its own (Pa).
    double readTap(const std::string &tap);
    /// Points that have a need, as they are now; pressures without the crank's column.
    const std::vector<PointPressure> &points() const { return m_points; }
    const std::vector<OutletFill> &outlets() const { return m_outlets; }
    const std::vector<Fault> &faults() const { return m_options.faults; }
    /// The last thing that had no solution; empty: nothing.
    const Phrase &trouble() const { return m_trouble; }

private:
    struct Sample
    {
        std::map<std::string, double> taps; ///< Pa
        std::vector<PointPressure> points;
    };
    SimulatedEngine() = default;
    void draw(const Assessment &assessment);
    const Sample &sample(int rpmStep, int oilStep);
    void settle();
    void step(double dt_s);
    void fill(double dt_s);
    double normal() { return std::normal_distribution<double>()(*m_random); }

    SimulatedOptions m_options;
    std::shared_ptr<const Build> m_build;
    std::vector<GaugedSize> m_sizes;
    std::vector<double> m_z; ///< of the inputs of its forecast; empty: as forecast
    double m_common = 1, m_gaugeOwn_pa = 0, m_rise_s = 1, m_warmer = 1;
    std::map<std::string, double> m_tapOwn_pa;
    std::shared_ptr<std::mt19937_64> m_random;
    std::map<int, std::optional<OperatingModel>> m_models;
    std::map<std::tuple<bool, int, int>, Sample> m_samples; ///< pump alone, speed, oil
    PrimeForecast m_prime;
    double m_toFill_m3 = 0, m_suction_m3 = 0, m_swept_m3 = 0; ///< swept: of a turn of the shaft
    double m_ratio = 1; ///< shaft over crank
    bool m_neverLifts = false;
    Turning m_turning = Turning::Still;
    bool m_pumpAlone = false; ///< a drill turns it, or did until it was let go of
    double m_asked_rpm = 0; ///< of the crank
    double m_t_s = 0, m_crank_rpm = 0, m_oil_c = 20,
           m_level = 0; ///< level: 0…1 of the steady pressure
    double m_gauge_pa = 0;
    std::map<std::string, double> m_taps_pa;
    std::vector<PointPressure> m_points;
    std::vector<OutletFill> m_outlets;
    Phrase m_trouble;
};

} // namespace mildpath
