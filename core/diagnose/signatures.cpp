// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/signatures.h"

#include "assess/calibrated.h"
#include "assess/circuitof.h"
#include "assess/operating.h"
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "quantity/parallel.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace mildpath {
namespace {

/// The healthy engine at one oil temperature: its circuit as it runs, and where its solutions lie.
struct Base
{
    Circuit circuit;
    std::optional<Network> network;
    std::vector<size_t> conditions; ///< those at this temperature
    std::vector<SolveState> states; ///< by `conditions`
};

/// The network of a changed circuit: of the same laws but for the elements that changed, where only
/// their dimensions did.
Result<Network> networkOf(const Base &base, const Circuit &changed)
{
    const auto &was = base.circuit.elements, &is = changed.elements;
    std::vector<std::pair<int, std::shared_ptr<const Law>>> laws;
    bool alike = was.size() == is.size();
    for (size_t i = 0; alike && i < is.size(); ++i) {
        if (was[i] == is[i])
            continue;
        // Another kind of element, other ends or another share of the time belong to the network.
        alike = was[i].kind == is[i].kind && was[i].from == is[i].from && was[i].to == is[i].to
            && was[i].value("count") == is[i].value("count")
            && was[i].value("duty") == is[i].value("duty");
        if (alike)
            laws.emplace_back(static_cast<int>(i), makeLaw(is[i]));
    }
    if (alike)
        return base.network->withLaws(laws);
    return Network::compile(changed);
}

} // namespace

Result<Signatures> Signatures::make(const Build &build, const std::vector<GaugedSize> &sizes,
                                    std::vector<Guess> guesses, std::vector<Condition> conditions,
                                    Progress *progress)
{
    Signatures out;
    out.m_guesses = std::move(guesses);
    out.m_conditions = std::move(conditions);
    std::vector<std::string> nodes;
    for (const auto &[tap, node] : build.circuit.taps) {
        out.m_taps.push_back(tap);
        nodes.push_back(node);
    }
    const size_t taps = nodes.size(), all = out.m_conditions.size();
    out.m_healthy_pa.resize(all * taps);
    out.m_pressure_pa.assign(out.m_guesses.size() * all * taps,
                             std::numeric_limits<double>::quiet_NaN());
    std::vector<Oil> oils;
    std::vector<Turned> turned;
    std::map<double, Base> bases;
    for (size_t c = 0; c < all; ++c) {
        const std::string &grade = out.m_conditions[c].oil;
        const auto oil = grade.empty() ? std::optional(build.oil) : findOil(build, grade);
        if (!oil)
            return fail("oil", "there is no oil \"" + grade + "\" on the shelf");
        oils.push_back(runningOil(*oil));
        calibrate(build, oils.back());
        turned.push_back(turnedAt(build, out.m_conditions[c].rpm, out.m_conditions[c].byDrill));
        bases[out.m_conditions[c].oil_c].conditions.push_back(c);
    }
    for (auto &[oil_c, base] : bases) {
        base.circuit = circuitOf(build, sizes, settledTemperatures(build, oil_c));
        calibrate(build, base.circuit);
        auto network = Network::compile(base.circuit);
        if (!network)
            return tl::unexpected(network.error());
        base.network = std::move(*network);
        for (const size_t c : base.conditions) {
            SolveState state;
            const OperatingPoint point { oils[c], turned[c], oil_c };
            const auto s = base.network->solve(point, &state);
            if (!s)
                return tl::unexpected(s.error());
            for (size_t t = 0; t < taps; ++t)
                out.m_healthy_pa[c * taps + t]
                    = s->pressure_pa[static_cast<size_t>(base.network->nodeIndex(nodes[t]))];
            state.formerRpm = 0;
            if (!out.m_guesses.empty())
                state.curves = base.network->curvesOf(*s, point);
            base.states.push_back(std::move(state));
        }
    }
    if (progress)
        progress->whole += static_cast<int>(out.m_guesses.size());
    const auto solve = [&](size_t g) {
        for (const auto &[oil_c, base] : bases) {
            Circuit circuit = base.circuit;
            // The oil is changed at each condition, the circuit once.
            Oil unused = runningOil(build.oil);
            for (const Fault &f : out.m_guesses[g])
                if (!applyFault(build, f, circuit, unused))
                    return;
            const auto network = networkOf(base, circuit);
            if (!network)
                return;
            const bool alike = circuit.elements.size() == base.circuit.elements.size();
            SolveState last;
            for (size_t i = 0; i < base.conditions.size(); ++i) {
                const size_t c = base.conditions[i];
                Oil oil = oils[c];
                for (const Fault &f : out.m_guesses[g])
                    applyOilFault(f, oil);
                SolveState state = alike ? base.states[i] : last;
                auto s = network->solve({ oil, turned[c], oil_c }, &state);
                if (!s) {
                    SolveState fresh;
                    s = network->solve({ oil, turned[c], oil_c }, &fresh);
                    state = std::move(fresh);
                }
                if (!s)
                    continue;
                for (size_t t = 0; t < taps; ++t)
                    out.m_pressure_pa[(g * all + c) * taps + t]
                        = s->pressure_pa[static_cast<size_t>(network->nodeIndex(nodes[t]))];
                last = std::move(state);
            }
        }
    };
    onAllCores([&](unsigned first, unsigned step) {
        for (size_t g = first; g < out.m_guesses.size(); g += step) {
            if (progress && progress->cancel)
                return;
            solve(g);
            if (progress)
                ++progress->done;
        }
    });
    if (progress && progress->cancel)
        return fail("cancelled", "given up");
    return out;
}

} // namespace mildpath
