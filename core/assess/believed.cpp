// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/believed.h"

#include "assess/growth.h"
#include "evidence/band.h"
#include "rules/rules.h"

#include <Eigen/Dense>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// The last day that something was opened or mended: what was read before is of another engine.
std::string lastMended(const Build &build)
{
    std::string out;
    for (const Repair *r : standing(build.repairs))
        out = std::max(out, r->at);
    for (const Opening *o : standing(build.openings))
        out = std::max(out, o->at);
    return out;
}

struct Read
{
    const GaugeReading *reading;
    std::string node;
};

std::vector<Read> counting(const Build &build)
{
    const std::string from = lastMended(build);
    std::vector<Read> out;
    for (const GaugeReading *r : standing(build.gaugeReadings)) {
        const auto tap = build.circuit.taps.find(r->tap);
        const bool ownOil = r->oil.empty() || r->oil == build.oil.grade;
        if (tap != build.circuit.taps.end() && r->at > from && r->pressure_kpa > 0 && r->rpm > 0
            && ownOil)
            out.push_back({ r, tap->second });
    }
    return out;
}

/// A reading's forecast, what the inputs do to it, and what it is good to itself.
struct Seen
{
    double forecast_pa;
    std::vector<double> ln;
    double u_ln; ///< beside what the model leaves out of it
};

/// A reading brings its temperature with it: that input is none of the build's here.
Result<Seen> seenBy(OperatingModel &model, const Read &read)
{
    const double rpm = read.reading->rpm;
    const double du_rpm = std::max(readingSpeed_rpm, readingSpeedShare * rpm);
    const auto here = model.effectsAt(rpm, std::span(&read.node, 1));
    if (!here)
        return tl::unexpected(here.error());
    const auto faster = model.effectsAt(rpm + du_rpm, std::span(&read.node, 1));
    if (!faster)
        return tl::unexpected(faster.error());
    Seen out { here->front().value_pa, here->front().ln, 0 };
    if (!(out.forecast_pa > 0))
        return fail("readings", "the forecast has no pressure where one was read");
    const double bySpeed = std::log(faster->front().value_pa / out.forecast_pa);
    double byTemperature = 0;
    const auto &inputs = model.inputList();
    for (size_t i = 0; i < inputs.size(); ++i)
        if (inputs[i].oil_k != 0) {
            byTemperature += out.ln[i] / inputs[i].oil_k * readingTemperature_k;
            out.ln[i] = 0;
        }
    const double own = read.reading->u_kpa / read.reading->pressure_kpa;
    out.u_ln = std::sqrt(own * own + bySpeed * bySpeed + byTemperature * byTemperature);
    return out;
}

/// The build moved by z, but for the oil's temperature.
CircuitChange movedBy(std::vector<UncertainInput> inputs, std::vector<double> z)
{
    for (UncertainInput &i : inputs)
        i.oil_k = 0;
    return
        [inputs = std::move(inputs), z = std::move(z)](Circuit &circuit, Oil &oil) -> Result<void> {
            PossibleBuild moved = possibleBuild(circuit, oil, 0, inputs, z);
            circuit = std::move(moved.circuit);
            oil = moved.oil;
            return {};
        };
}

double commonPart(const std::vector<UncertainInput> &inputs, const std::vector<double> &z)
{
    double out = 0;
    for (size_t i = 0; i < inputs.size(); ++i)
        out += inputs[i].pressure_ln * z[i];
    return out;
}

Result<OperatingModel> shifted(const Build &build, const std::vector<GaugedSize> &sizes,
                               double oil_c, const std::vector<double> &z)
{
    const PartTemperatures parts = settledTemperatures(build, oil_c);
    const auto inputs
        = uncertainInputs(build, sizes, parts, runningCircuit(build, sizes, parts).circuit);
    return OperatingModel::make(build, sizes, parts, movedBy(inputs, z));
}

} // namespace

bool Believed::nothingExplains() const
{
    constexpr double tooRare = 0.01;
    return m_pValue < tooRare;
}

Result<Believed> Believed::by(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const std::vector<Read> reads = counting(build);
    if (reads.empty())
        return fail("readings", "no gauge reading that counts");
    Believed out(build, sizes);
    for (int pass = 0; pass < 2; ++pass) {
        std::vector<double> prior, jacobian;
        std::vector<BandReading> rows;
        for (size_t i = 0; i < reads.size(); ++i) {
            auto model = out.m_z.empty()
                ? OperatingModel::make(build, sizes, reads[i].reading->oil_c)
                : shifted(build, sizes, reads[i].reading->oil_c, out.m_z);
            if (!model)
                return tl::unexpected(model.error());
            const auto seen = seenBy(*model, reads[i]);
            if (!seen)
                return tl::unexpected(seen.error());
            // r = ln y − h(z) + J z: the forecast taken back to z = 0 along its slope.
            double ln = std::log(seen->forecast_pa);
            if (!out.m_z.empty()) {
                ln += commonPart(model->inputList(), out.m_z);
                for (size_t k = 0; k < out.m_z.size(); ++k)
                    ln -= seen->ln[k] * out.m_z[k];
            }
            prior.push_back(std::exp(ln));
            jacobian.insert(jacobian.end(), seen->ln.begin(), seen->ln.end());
            const double y = reads[i].reading->pressure_kpa * 1e3;
            rows.push_back({ i, y, seen->u_ln * y });
        }
        const size_t inputs = jacobian.size() / reads.size();
        const auto update = updateBand(prior, jacobian, inputs, rows, bandModelOwn_ln);
        if (!update)
            return tl::unexpected(update.error());
        out.m_z = update->inputs;
        out.m_jacobian = jacobian;
        if (pass == 0) {
            out.m_chi2 = update->chi2;
            out.m_pValue = update->p_value;
            out.m_off = update->offProbability;
        }
        out.m_precision = update->precision;
    }
    for (const Read &r : reads)
        out.m_readings.push_back(r.reading->id);
    return out;
}

Result<OperatingModel> Believed::modelAt(double oil_c) const
{
    return shifted(*m_build, *m_sizes, oil_c, m_z);
}

Result<void> Believed::update(std::vector<ForecastLine> &lines) const
{
    for (ForecastLine &line : lines) {
        auto model = modelAt(line.oil_c);
        auto plain = OperatingModel::make(*m_build, *m_sizes, line.oil_c);
        if (!model || !plain)
            return tl::unexpected(model ? plain.error() : model.error());
        line.updated.clear();
        for (const double rpm : line.rpm) {
            const auto gauge = gaugeAt(rpm, *model, *plain);
            if (!gauge)
                return tl::unexpected(gauge.error());
            line.updated.push_back(*gauge);
        }
    }
    return {};
}

Result<BelievedIdle> believedIdle(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const auto believed = Believed::by(build, sizes);
    if (!believed)
        return tl::unexpected(believed.error());
    auto with = believed->modelAt(build.use.hotOil_c);
    auto alone = OperatingModel::make(build, sizes, build.use.hotOil_c);
    if (!with || !alone)
        return tl::unexpected(with ? alone.error() : with.error());
    const auto now = alone->at(build.use.hotIdle_rpm, OperatingModel::Detail::Ranges);
    if (!now)
        return tl::unexpected(now.error());
    const auto gauge = believed->gaugeAt(build.use.hotIdle_rpm, *with, *alone);
    if (!gauge)
        return tl::unexpected(gauge.error());
    return BelievedIdle { now->gauge, *gauge, believed->readings().size(),
                          believed->offProbability(), believed->nothingExplains() };
}

Phrase believedText(const BelievedIdle &idle)
{
    const auto range = [](const LikelyPressure &p) {
        return QuantityRange { asPressure(p.low_pa), asPressure(p.high_pa) };
    };
    const Phrase both { "believed.range",
                        idle.readings == 1 ? "hot idle likely {0}, with {1} reading {2}"
                                           : "hot idle likely {0}, with {1} readings {2}",
                        { range(idle.alone), asCount(idle.readings), range(idle.with) } };
    if (idle.nothingExplains)
        return { "believed.nothing",
                 "{0}; nothing that is uncertain here explains what was read",
                 { both } };
    return { "believed.off",
             "{0}; {1} left for something that is not on this list",
             { both, asShare(idle.offProbability) } };
}

Result<LikelyPressure> Believed::gaugeAt(double rpm, OperatingModel &model,
                                         OperatingModel &plain) const
{
    const std::string node = m_build->circuit.taps.at(m_build->gaugeTap);
    const auto now = model.effectsAt(rpm, std::span(&node, 1));
    if (!now)
        return tl::unexpected(now.error());
    const auto before = plain.effectsAt(rpm, std::span(&node, 1));
    if (!before)
        return tl::unexpected(before.error());
    if (!(now->front().value_pa > 0) || !(before->front().value_pa > 0))
        return LikelyPressure { now->front().value_pa, now->front().value_pa,
                                now->front().value_pa };
    // var = J C Jᵀ + own², C = I − J_rᵀ S⁻¹ J_r
    const auto n = static_cast<Eigen::Index>(m_z.size()),
               m = static_cast<Eigen::Index>(m_readings.size());
    using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
    const Eigen::Map<const RowMajor> jr(m_jacobian.data(), m, n),
        precision(m_precision.data(), m, m);
    const Eigen::Map<const Eigen::VectorXd> j(now->front().ln.data(), n),
        j0(before->front().ln.data(), n);
    const Eigen::VectorXd across = jr * j;
    const double own = bandModelOwn_ln * bandModelOwn_ln;
    const double sd
        = std::sqrt(std::max(0.0, j.squaredNorm() - across.dot(precision * across)) + own);
    const double middle = std::log(now->front().value_pa) + commonPart(model.inputList(), m_z);
    const double offMiddle = std::log(before->front().value_pa),
                 offSd
        = std::sqrt(j0.squaredNorm() + offCommon_ln * offCommon_ln + offEach_ln * offEach_ln);
    // Quantiles of the mixture of both.
    const boost::math::normal known(middle, sd), off(offMiddle, offSd);
    const auto quantile = [&](double share) {
        const auto miss
            = [&](double x) { return (1 - m_off) * cdf(known, x) + m_off * cdf(off, x) - share; };
        const double low = std::min(middle - 8 * sd, offMiddle - 8 * offSd),
                     high = std::max(middle + 8 * sd, offMiddle + 8 * offSd);
        std::uintmax_t most = 60;
        const auto root = boost::math::tools::toms748_solve(
            miss, low, high, boost::math::tools::eps_tolerance<double>(30), most);
        return std::exp((root.first + root.second) / 2);
    };
    return LikelyPressure { std::exp(middle), quantile(0.05), quantile(0.95) };
}

} // namespace mildpath
