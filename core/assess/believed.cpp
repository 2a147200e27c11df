// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/believed.h"

#include "assess/growth.h"
#include "assess/narrowed.h"
#include "evidence/band.h"
#include "rules/rules.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <functional>
#include <set>

namespace mildpath {
namespace {

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

} // namespace

bool Believed::nothingExplains() const
{
    constexpr double tooRare = 0.01;
    return m_pValue < tooRare;
}

Result<std::vector<ReadAt>> readAt(OperatingModel &model, const Turned &turned,
                                   std::span<const std::string> nodes)
{
    const double du_rpm = std::max(readingSpeed_rpm, readingSpeedShare * turned.rpm);
    const auto here = model.effectsAt(turned, nodes);
    if (!here)
        return tl::unexpected(here.error());
    const auto faster
        = model.pressures({ turned.rpm + du_rpm, turned.pumpAlone }, model.oil(), nodes);
    if (!faster)
        return tl::unexpected(faster.error());
    const auto &inputs = model.inputList();
    std::vector<ReadAt> out;
    for (size_t n = 0; n < nodes.size(); ++n) {
        ReadAt &at = out.emplace_back(ReadAt { (*here)[n].value_pa, (*here)[n].ln, 0 });
        if (!(at.forecast_pa > 0) || !((*faster)[n] > 0))
            continue;
        const double bySpeed = std::log((*faster)[n] / at.forecast_pa);
        double byTemperature = 0;
        for (size_t i = 0; i < inputs.size(); ++i)
            if (inputs[i].oil_k != 0) {
                byTemperature += at.ln[i] / inputs[i].oil_k * readingTemperature_k;
                at.ln[i] = 0;
            }
        at.own_ln = std::hypot(bySpeed, byTemperature);
    }
    return out;
}

std::optional<ReadAt> whilePriming(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const std::vector<Read> reads = counting(build);
    if (std::ranges::any_of(reads, [&](const Read &r) { return wasRunning(build, *r.reading); }))
        return std::nullopt;
    const auto tap = build.circuit.taps.find(build.gaugeTap);
    auto model = OperatingModel::make(build, sizes, primeOil_c(build));
    if (!model || tap == build.circuit.taps.end() || !(primeTurn(build).crank_rpm > 0))
        return std::nullopt;
    auto out = readAt(*model, primeTurn(build).turned(), std::span(&tap->second, 1));
    return out && out->front().forecast_pa > 0 ? std::optional(std::move(out->front()))
                                               : std::nullopt;
}

Result<Believed> Believed::by(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const std::vector<Read> reads = counting(build);
    if (reads.empty())
        return fail("readings", "no gauge reading that counts");
    const Build plain = withoutReadings(build);
    Believed out;
    std::vector<double> z, jacobian, precision;
    for (int pass = 0; pass < 2; ++pass) {
        std::vector<double> prior;
        std::vector<BandReading> rows;
        jacobian.clear();
        for (size_t i = 0; i < reads.size(); ++i) {
            const GaugeReading &read = *reads[i].reading;
            auto model
                = OperatingModel::possible(plain, sizes, settledTemperatures(plain, read.oil_c), z);
            if (!model)
                return tl::unexpected(model.error());
            const Turned turned = turnedAt(plain, read.rpm, read.byDrill);
            const auto seen = readAt(*model, turned, std::span(&reads[i].node, 1));
            if (!seen)
                return tl::unexpected(seen.error());
            const ReadAt &at = seen->front();
            if (!(at.forecast_pa > 0))
                return fail("readings", "the forecast has no pressure where one was read");
            // r = ln y − h(z) + J z: the forecast taken back to z = 0 along its slope.
            double ln = std::log(at.forecast_pa);
            if (!z.empty()) {
                ln += commonPart_ln(model->inputList(), z);
                for (size_t k = 0; k < z.size(); ++k)
                    ln -= at.ln[k] * z[k];
            }
            prior.push_back(std::exp(ln));
            jacobian.insert(jacobian.end(), at.ln.begin(), at.ln.end());
            const double y = read.pressure_kpa * 1e3;
            rows.push_back({ i, y, std::hypot(read.u_kpa * 1e3, at.own_ln * y) });
            if (const auto r = model->at(turned, OperatingModel::Detail::Values); r && pass == 0)
                out.m_onRelief += r->reliefOpen();
            if (pass == 0 && i == 0)
                for (const UncertainInput &input : model->inputList())
                    out.m_calibration.believed.push_back({ input.cause, 0, {} });
        }
        const auto update
            = updateBand(prior, jacobian, jacobian.size() / reads.size(), rows, bandModelOwn_ln);
        if (!update)
            return tl::unexpected(update.error());
        z = update->inputs;
        precision = update->precision;
        if (pass == 0) {
            out.m_chi2 = update->chi2;
            out.m_pValue = update->p_value;
            out.m_calibration.off = update->offProbability;
        }
    }
    out.keep(z, jacobian, precision);
    for (const Read &r : reads)
        out.m_calibration.readings.push_back(r.reading->id);
    return out;
}

/// C = I − JᵀS⁻¹J = I − W Wᵀ with S⁻¹ = L Lᵀ and W = JᵀL.
void Believed::keep(const std::vector<double> &z, const std::vector<double> &jacobian,
                    const std::vector<double> &precision)
{
    const auto n = static_cast<Eigen::Index>(z.size()),
               m = static_cast<Eigen::Index>(jacobian.size()) / n;
    using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
    const Eigen::Map<const RowMajor> j(jacobian.data(), m, n), s(precision.data(), m, m);
    const Eigen::MatrixXd root = Eigen::MatrixXd(s).llt().matrixL();
    const Eigen::MatrixXd w = j.transpose() * root;
    for (Eigen::Index i = 0; i < n; ++i) {
        BelievedInput &input = m_calibration.believed[static_cast<size_t>(i)];
        input.z = z[static_cast<size_t>(i)];
        for (Eigen::Index k = 0; k < m; ++k)
            input.narrows.push_back(w(i, k));
    }
    m_calibration.input = "readings";
}

std::vector<BelievedInput> Believed::moved() const
{
    constexpr double noticed = 0.05;
    std::vector<BelievedInput> out;
    for (const BelievedInput &b : m_calibration.believed)
        if (std::abs(b.z) >= noticed)
            out.push_back({ b.cause, b.z, {} });
    std::ranges::stable_sort(out, std::greater {},
                             [](const BelievedInput &b) { return std::abs(b.z); });
    // Of one cause the farthest speaks.
    std::set<std::string> said;
    std::erase_if(out, [&](const BelievedInput &b) { return !said.insert(b.cause).second; });
    return out;
}

Build Believed::applied(const Build &build) const
{
    Build out = withoutReadings(build);
    Calibration c = m_calibration;
    c.id = "believed";
    c.at = lastMended(build) + "~"; // after all that was mended
    out.calibrations.push_back(std::move(c));
    return out;
}

Result<void> Believed::update(const Build &build, const std::vector<GaugedSize> &sizes,
                              std::vector<ForecastLine> &lines) const
{
    const Build with = applied(build);
    for (ForecastLine &line : lines) {
        auto model = OperatingModel::make(with, sizes, line.oil_c);
        if (!model)
            return tl::unexpected(model.error());
        line.updated.clear();
        for (const double rpm : line.rpm) {
            const auto r = model->at(rpm, OperatingModel::Detail::Ranges);
            if (!r)
                return tl::unexpected(r.error());
            line.updated.push_back(r->gauge);
        }
    }
    return {};
}

Result<BelievedIdle> believedIdle(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const auto believed = Believed::by(build, sizes);
    if (!believed)
        return tl::unexpected(believed.error());
    const auto idle = [&](const Build &b) -> Result<LikelyPressure> {
        auto model = OperatingModel::make(b, sizes, b.use.hotOil_c);
        if (!model)
            return tl::unexpected(model.error());
        const auto r = model->at(b.use.hotIdle_rpm, OperatingModel::Detail::Ranges);
        if (!r)
            return tl::unexpected(r.error());
        return r->gauge;
    };
    const auto with = idle(believed->applied(build)), alone = idle(withoutReadings(build));
    if (!with || !alone)
        return tl::unexpected(with ? alone.error() : with.error());
    BelievedIdle out { *alone,
                       *with,
                       believed->readings().size(),
                       believed->onRelief(),
                       believed->offProbability(),
                       believed->nothingExplains(),
                       believed->moved(),
                       believed->calibration() };
    out.calibration.note = render(believedText(out), fileStyle);
    return out;
}

std::vector<BelievedInput> BelievedIdle::told() const
{
    constexpr size_t few = 5;
    if (nothingExplains)
        return {};
    return { moved.begin(),
             moved.begin() + static_cast<std::ptrdiff_t>(std::min(few, moved.size())) };
}

Phrase movedText(const BelievedInput &input)
{
    return { "believed.moved",
             input.z > 0 ? "{0}: up, {1} of its uncertainty" : "{0}: down, {1} of its uncertainty",
             { input.cause, asNumber(std::abs(input.z), 1) } };
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
    const Phrase off { "believed.off",
                       "{0}; {1} left for something that is not on this list",
                       { both, asShare(idle.offProbability) } };
    if (idle.onRelief == 0)
        return off;
    return { "believed.relief",
             idle.onRelief == 1 ? "{0}; {1} reading on the relief valve tells of that only"
                                : "{0}; {1} readings on the relief valve tell of that only",
             { off, asCount(idle.onRelief) } };
}

} // namespace mildpath
