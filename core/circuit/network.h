// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/circuit.h"
#include "circuit/elimination.h"
#include "circuit/laws.h"
#include "circuit/solvestate.h"
#include "circuit/turned.h"
#include "circuit/warning.h"
#include "oil/viscosity.h"

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// How the oil in a bearing is warmed.
enum class BearingTemperature {
    Default, ///< the circuit's BearingRise
    Energy, ///< balance of Petroff loss and the bearing's own flow; 80 K at most
};

/// Where the engine runs.
struct OperatingPoint
{
    Oil oil;
    Turned turned;
    double sumpTemperature_c; ///< −60…300; outside −20…150 the viscosity is extrapolated (warning)
    BearingTemperature bearingTemperature = BearingTemperature::Default;
    bool operator==(const OperatingPoint &) const = default;

    /// A crank at rest lets pass what one does that a hand turns: bearings lie on their shells, and
    /// of a turn each window is open for its share.
    double crank_rpm() const { return turned.pumpAlone ? 1 : turned.rpm; }
};

/// Film curves prepared for one operating point: half the cost of a solve. For solving that point
/// again where most laws are the same objects (Network::withLaws()).
struct KnownCurves
{
    OperatingPoint point;
    std::vector<std::pair<const Law *, std::shared_ptr<const WarmCurve>>> curves; ///< per element
};

/// A solved operating point. Vectors are in the network's node and element order.
struct Solution
{
    std::vector<double> pressure_pa; ///< per node, gauge
    std::vector<double> flow_m3_s; ///< per element, from → to
    std::vector<double> lagged; ///< per element: pump fill (m³/s), crank gate (0…1)
    std::vector<double> oilTemperature_c; ///< per element
    std::vector<OilState> oil; ///< per element, at that temperature
    std::vector<Prepared> prepared; ///< per element
    std::vector<std::shared_ptr<const FilmOil>> filmOil; ///< one a supply temperature
    Elimination::Values factor; ///< of the last Jacobian, lagged values held
    /// Per element: what its lagged value does to its flow, and how that answers to the pressure
    /// before it.
    struct LagAnswer
    {
        double flowPer = 0, slope = 0;
    };
    std::vector<LagAnswer> lagAnswer;
    std::optional<ShearThinning> shear; ///< of oil that thins
    const ShearThinning *thinning() const { return shear ? &*shear : nullptr; }
    double void_m3_s = 0; ///< what tears off where oil runs out; 0 where it does not
    int emptyNode = -1; ///< where most of it does
    int newtonSteps = 0; ///< in all, coupled ones included
    int mostStepsInOneRound = 0;
    int rounds = 0; ///< of the lagged values
    double massErrorRelative = 0; ///< largest node imbalance over pump flow
    std::vector<Warning> warnings;
};

/// A compiled circuit: nodes numbered, laws made, elimination order found. Immutable; solving is
/// const and keeps its state in SolveState.
///
/// Model: every element gives Q(dp), monotone; the sum of flows leaving each free node is 0. The
/// Jacobian is symmetric positive definite, but for crank drillings fed by windows, which make an
/// M-function of it: either way the solution is unique and damped Newton reaches it. Pump fill
/// (with air), crank gates and heat balances are not part of that convex problem: they are lagged
/// around it, and near the answer fill and gates join the Newton step. Not for transients,
/// gas-softened oil or networks with more than one pressure pump.
class Network
{
public:
    /// Errors: place is a JSON pointer below the circuit: unknown type, value out of range,
    /// duplicate id, no or several pumps, a node without a way to a fixed node (named), a tap at a
    /// node that does not exist.
    static Result<Network> compile(const Circuit &circuit);

    /// Steady state.
    /// Stops when the largest node imbalance is at most 1e-9 of the pump's flow and the lagged
    /// values have settled (fill 1e-6 relative, gates 1e-4, film temperature 0.02 K).
    /// Errors: `rpm`, `oil_temp_c`, `kv…` out of range; place = the worst node when it does not
    /// converge (message id "solver.none").
    Result<Solution> solve(const OperatingPoint &point, SolveState *state = nullptr) const;

    /// The same circuit with other laws for some elements: for many draws of one circuit.
    /// @param factors  of their flows, multiplied to what they are
    Network withLaws(const std::vector<std::pair<int, std::shared_ptr<const Law>>> &laws,
                     const std::vector<std::pair<int, double>> &factors = {}) const;

    /// The film curves of a solution; this network must outlive them.
    std::shared_ptr<const KnownCurves> curvesOf(const Solution &solution,
                                                const OperatingPoint &point) const;

    const std::vector<std::string> &nodes() const { return m_nodes; }
    /// −1 when there is no such node.
    int nodeIndex(std::string_view name) const;
    /// −1 when there is no such element.
    int elementIndex(std::string_view id) const;
    size_t elementCount() const { return m_elements.size(); }
    const std::string &elementId(int element) const;
    int fromNode(int element) const;
    int toNode(int element) const;
    const Law &law(int element) const;
    int pumpElement() const { return m_pump; }
    int reliefElement() const { return m_relief; }

    /// First-order change of a node's pressure per unit of an element's flow change at constant
    /// pressures: one back-substitution for all elements at once (adjoint). Entry e is
    /// dp_node/dQ_e (Pa per m³/s), lagged values following.
    std::vector<double> adjoint(const Solution &solution, int node) const;
    /// The same for several nodes.
    std::vector<std::vector<double>> adjoints(const Solution &solution,
                                              std::span<const int> nodes) const;
    /// A film bearing's film at a solution; absent for other elements and without supply.
    /// @param load_n  in place of its own
    std::optional<WarmFilm> filmAt(int element, const Solution &solution,
                                   const OperatingPoint &point,
                                   std::optional<double> load_n = {}) const;
    /// Flow of an element (all of its count) at another pressure across it, the rest as solved.
    double flowAt(int element, double dp_pa, const Solution &solution) const;
    /// How the flow of an element (all of its count) answers to the pressure across it.
    double slopeAt(int element, const Solution &solution) const;
    /// Flows of all elements at the solution's pressures and fill, were the oil or its temperature
    /// another.
    std::vector<double> flowsAt(const OperatingPoint &point, const Solution &solution) const;
    /// By how much the flow of an element (all of its count) changes at the solution's pressures
    /// when another law of its type stands in its place.
    double flowChange(int element, const Law &law, const Solution &solution,
                      const OperatingPoint &point) const;

private:
    struct Part
    {
        std::string id;
        ElementKind kind;
        int from, to; ///< node
        int freeFrom, freeTo; ///< unknown, −1 when fixed
        int slot; ///< of the pair in the elimination, −1
        double multiplier; ///< count × duty
        double dt_k;
        bool isBearing; ///< of the plain law: warmed by rule or balance
        const FilmBearingLaw *film; ///< null unless its law finds its own warmth
        std::shared_ptr<const Law> law;
    };
    struct Work;

    Result<void> addElements(const Circuit &circuit);
    Result<void> checkPaths(const Circuit &circuit) const;
    int addNode(const std::string &name, std::map<std::string, int, std::less<>> &known);

    /// Of the shaft an element turns with (rad/s): the pump's own drive, or the crank.
    double shaftSpeed_rad_s(size_t element, const OperatingPoint &point) const;
    OilState oilAt(const Part &part, size_t index, const OperatingPoint &point, Work &work) const;
    const FilmOil *filmOilAt(const Part &part, const OperatingPoint &point, Work &work) const;
    void prepareAll(const OperatingPoint &point, const KnownCurves *known, Work &work) const;
    void start(const OperatingPoint &point, const SolveState *state, Work &work) const;
    double evaluate(Work &work) const;
    void runOut(Work &work) const;
    int newton(Work &work, double tolerance) const;
    bool newtonStep(Work &work) const;
    bool bend(Work &work, const Elimination::Values &factor,
              const std::vector<size_t> &answering) const;
    void alongTheSlope(Work &work) const;
    void alongTheImbalance(Work &work) const;
    double unsettled(Work &work) const;
    bool coupledNewton(Work &work) const;
    bool coupledStep(Work &work) const;
    void substituteLagged(Work &work) const;
    bool balanceHeat(const OperatingPoint &point, Work &work) const;
    double pumpFlow(const Work &work) const;
    Solution finish(const OperatingPoint &point, Work &work) const;
    void warn(const OperatingPoint &point, const Work &work, Solution &solution) const;

    /// Where elements and nodes are found by their names; alike in all copies.
    struct Names
    {
        std::map<std::string, int, std::less<>> element, node;
    };
    std::shared_ptr<const Names> m_names;
    std::vector<std::string> m_nodes;
    std::vector<int> m_freeOf; ///< node → unknown, −1 when fixed
    std::vector<int> m_nodeOf; ///< unknown → node
    std::vector<double> m_fixed_pa; ///< per node
    std::vector<Part> m_elements;
    Elimination m_elimination;
    BearingRise m_rise;
    std::vector<Warning> m_compileWarnings;
    std::vector<size_t> m_lagging; ///< elements with a lagged value
    std::vector<size_t> m_supplied; ///< those of them fed through the crank by windows
    int m_pump = -1;
    int m_inletUnknown = -1; ///< before the pump: its fill has its own limit
    int m_relief = -1; ///< first relief valve fed by the pump's outlet
};

} // namespace mildpath
