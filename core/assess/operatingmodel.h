// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/sizes.h"
#include "assess/uncertain.h"
#include "circuit/change.h"
#include "circuit/need.h"
#include "circuit/solvestate.h"
#include "circuit/turned.h"

#include <memory>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

struct OperatingPoint;
struct PartTemperatures;
struct Solution;

/// Something a likely range is wide for.
struct Doubt
{
    std::string cause; ///< "Main 4, as gauged", "Big-end bearings, assumed"
    std::string family; ///< that nobody gauged; empty: anything else
    double share = 0; ///< of the variance
};
struct DoubtfulPressure
{
    LikelyPressure pressure;
    std::vector<Doubt> from; ///< the largest first; shares add up to 1
    /// Of its logarithm: what it has in common with each input, as far as that is still unknown.
    std::vector<double> left_ln {};
    /// The range if one of its causes were none.
    LikelyPressure without(const Doubt &doubt) const;
};

/// A pressure and what one standard deviation of each uncertain input does to its logarithm.
struct NodeEffects
{
    double value_pa;
    std::vector<double> ln;
};

/// What a stop needs: as entered for it, else what its kind usually does.
StopNeed needOf(const Stop &stop);

/// A build's circuit and oil as they are solved: sizes at running temperature, what readings made
/// of them, the oil thinning under shear.
struct RunningCircuit
{
    Circuit circuit;
    Oil oil;
};
RunningCircuit runningCircuit(const Build &build, const std::vector<GaugedSize> &sizes,
                              const PartTemperatures &parts);

/// The document as a circuit with its parts at given temperatures, ready for any speed.
class OperatingModel
{
public:
    /// @param change  done to the circuit before anything is computed; empty: nothing
    /// Errors: as Network::compile; those of the change.
    static Result<OperatingModel> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                       const PartTemperatures &parts,
                                       const CircuitChange &change = {});
    /// With everything settled at this oil temperature.
    static Result<OperatingModel> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                       double oil_c, const CircuitChange &change = {});

    /// One possible build: every uncertain input moved by its z, the oil's temperature not.
    /// @param z  one an input, as inputList() has them; empty: as readings have them
    static Result<OperatingModel> possible(const Build &build, const std::vector<GaugedSize> &sizes,
                                           const PartTemperatures &parts,
                                           const std::vector<double> &z,
                                           const CircuitChange &change = {});

    /// How much of an OperatingResult is wanted; each step costs about as much as a solve.
    enum class Detail {
        Values, ///< gauge and points, no ranges
        Nodes, ///< and the pressure of every node, no ranges
        Films, ///< and what every element and film does, no ranges
        Ranges, ///< values and the likely ranges
        Pressures, ///< and the pressure of every node
        Everything, ///< and what every element and film does
    };
    /// Errors: as Network::solve.
    Result<OperatingResult> at(const Turned &turned, Detail detail = Detail::Everything);
    /// With another oil; ranges are not for that.
    Result<OperatingResult> at(const Turned &turned, const Oil &oil,
                               Detail detail = Detail::Values);

    /// Pressures at some nodes with the ranges nine builds in ten fall in, and what widens them.
    /// @param nodes  names; an unknown one reads 0
    /// Errors: as Network::solve.
    Result<std::vector<DoubtfulPressure>> likelyAt(const Turned &turned,
                                                   std::span<const std::string> nodes);

    /// Pressures at some nodes with what each uncertain input does to them.
    /// Errors: as Network::solve; an unknown node.
    Result<std::vector<NodeEffects>> effectsAt(const Turned &turned,
                                               std::span<const std::string> nodes);

    /// How many independent normal draws make one possible build.
    size_t inputs() const;
    /// What they are, in their order (assess/uncertain.h).
    const std::vector<UncertainInput> &inputList() const;
    /// Gauge pressures (Pa) of one possible build, by speed.
    /// @param z    standard normal, inputs() of them
    /// @param rpm   ascending
    /// @param from  where to start at each of them; empty: from where this model ended
    /// Errors: as Network::solve.
    Result<std::vector<double>> drawn(std::span<const double> z, std::span<const double> rpm,
                                      std::span<const SolveState> from = {}) const;
    const SolveState &state() const { return m_state; }
    /// Pressures (Pa) at some nodes, nothing judged: as quick as a solve.
    /// @param nodes  names; an unknown one reads 0
    /// Errors: as Network::solve.
    Result<std::vector<double>> pressures(const Turned &turned, const Oil &oil,
                                          std::span<const std::string> nodes);
    const Oil &oil() const;

    /// Starts from where another model of the same elements ended.
    void startFrom(const OperatingModel &other) { m_state = other.m_state; }
    void startFrom(const SolveState &state) { m_state = state; }

private:
    class Inside; ///< what stays the same from solve to solve
    explicit OperatingModel(std::shared_ptr<const Inside> inside);

    /// Change of flows by one standard deviation of each input, per input.
    using Steps = std::vector<std::vector<std::pair<int, double>>>;
    void solveEdges(const Solution &solution, const OperatingPoint &point, const Steps &steps,
                    LikelyPressure &gauge) const;

    std::shared_ptr<const Inside> m_inside;
    SolveState m_state;
};

} // namespace mildpath
