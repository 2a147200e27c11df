// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/narrowed.h"
#include "assess/operatingmodel.h"
#include "assess/uncertain.h"
#include "circuit/network.h"

#include <map>
#include <mutex>
#include <optional>
#include <utility>

namespace mildpath {

/// A compiled model and how it is judged: operatingmodel.cpp; what it does not know:
/// operatingdoubt.cpp.
class OperatingModel::Inside
{
public:
    /// What an input's standard deviation does to one element, ready to be asked at any solution.
    struct Effect
    {
        enum class Kind {
            Flow, ///< its flow by `by`, in logarithm
            Clearance, ///< of a film, by `by` µm
            Warmth, ///< of a film's clearance by its warmth, by `by` µm/K
            Form, ///< of a film's feed, by `by` in logarithm
            Law, ///< `raised` in its place
        } kind;
        int element;
        double by = 0;
        std::shared_ptr<const Law> raised {};
    };
    /// Pressure changes at one node by one standard deviation of each input (Pa).
    using Changes = std::vector<double>;
    struct Filmed
    {
        BearingFilm film;
        int element;
        double fullLoad_n = 0, fullLoad_n_per_krpm2 = 0; ///< 0: not known
    };
    struct Watched
    {
        PointPressure point;
        StopNeed need; ///< none: 0 at either speed
        int node;
        int crankDrilling; ///< element that feeds it through the crank, −1
        std::vector<int> crankFed; ///< drillings it feeds
        std::vector<int> taken {}; ///< elements of the stop that lead on from here
        double outlets = 0; ///< how many of them the need of one is for
        bool needsNothing = false; ///< on purpose
    };
    void fillFed(const Watched &w, const Solution &solution, PointPressure &p) const;
    Steps flowSteps(const Solution &solution, const OperatingPoint &point) const;
    /// @param steps  flowSteps() at the solution; null: no ranges
    OperatingResult judge(const Solution &solution, const OperatingPoint &point, Detail detail,
                          const Steps *steps) const;
    /// For each of these nodes.
    std::vector<Changes> changesBy(const Steps &steps, const Solution &solution,
                                   std::span<const int> nodes) const;
    /// What the model leaves out of all pressures, as readings have it.
    void asRead(LikelyPressure &pressure) const;
    void asRead(OperatingResult &result) const;
    DoubtfulPressure doubtful(double value_pa, const Changes &changes) const;
    /// A relief valve or a jet opens between a value at the gauge and an edge of its range.
    bool valveTowards(const Solution &solution, double value_pa, double edge_pa) const;
    void findValves();
    double flowTaken_m3_s(const Watched &w, const Solution &solution) const;
    void share(const Solution &solution, OperatingResult &out) const;
    void findWatched(const Build &build);
    void findFilmed(const Build &build);
    void fillFilms(const Solution &solution, const OperatingPoint &point,
                   OperatingResult &out) const;

    Circuit m_circuit {};
    std::optional<Network> m_network {};
    Oil m_oil {};
    double m_oil_c = 0;
    double m_floor_pa = 0, m_hotIdle_rpm = 0, m_most_rpm = 0;
    int m_gaugeNode = -1;
    std::vector<UncertainInput> m_inputs {};
    Narrowed m_narrowed {};
    /// What the inputs do, made when it is first asked for.
    struct Effects
    {
        std::vector<std::vector<Effect>> ofInput;
        /// Per element: a film's law with a clearance one micrometre wider.
        std::map<int, std::shared_ptr<const Law>> wider;
    };
    const Effects &effects() const;
    void findEffects() const;
    mutable std::once_flag m_effectsMade {};
    mutable Effects m_effects {};
    /// Relief valves and jets: where they begin to open, and stand open.
    struct Valve
    {
        int element;
        double opens_pa, open_pa;
    };
    std::vector<Valve> m_valves {};
    std::vector<Watched> m_watched {};
    std::vector<Filmed> m_filmed {};
    std::vector<int> m_crankDrillings {};
    std::vector<int> m_groupOf {}; ///< element → index into oilGroups(), −1
};

} // namespace mildpath
