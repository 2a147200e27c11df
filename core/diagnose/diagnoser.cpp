// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/diagnosis.h"

#include "assess/believed.h"
#include "assess/narrowed.h"

#include "diagnose/faultplaces.h"
#include "rules/rules.h"

#include <Eigen/Eigenvalues>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace mildpath {
namespace {

/// Share of what the forecast does not know that is left out.
constexpr double untold = 1e-4;

/// Nodes a gauge can be put on.
bool isTap(const Build &build, const std::string &node)
{
    return std::any_of(build.circuit.taps.begin(), build.circuit.taps.end(),
                       [&](const auto &tap) { return tap.second == node; });
}

/// Swarf in one of several drillings: which of them no gauge can say while no tap lies between
/// them, or where they leave one node for the crankcase side by side.
std::string stretchOf(const Build &build, const Stop &stop, const std::vector<std::string> &items,
                      int item)
{
    std::string stretch = stop.id + ".1";
    const auto all = narrowable(build, stop);
    for (int i = 0; i < item && static_cast<size_t>(i) < items.size(); ++i) {
        const Element &e = *all[static_cast<size_t>(i)];
        if (i > 0 && isTap(build, e.from))
            stretch = stop.id + "." + std::to_string(i + 1);
        if (i == item - 1 && e.to == sumpNode)
            stretch = std::string(wordOf(e.kind)) + " from " + e.from;
    }
    return stretch;
}

/// Kinds of stops that take swarf: it lies in each as likely. Of all other faults the kind's prior
/// is shared out to its places.
double priorOf(const FaultKind &kind, const std::vector<Suspect> &places,
               const std::vector<StopKind> &stopKinds, size_t i)
{
    const bool byStop = kind.id == "swarf";
    // The main gallery is drilled, plugged and rarely seen through; branches hold less.
    const double prior = byStop && stopKinds[i] != StopKind::Gallery ? kind.prior / 3 : kind.prior;
    const auto sharing = byStop ? std::count(stopKinds.begin(), stopKinds.end(), stopKinds[i])
                                : static_cast<long>(places.size());
    return prior / static_cast<double>(sharing);
}

/// One suspect a place a kind can sit.
void addKind(const Build &build, const FaultKind &kind, std::vector<Suspect> &out)
{
    std::vector<Suspect> places;
    std::vector<StopKind> stopKinds;
    for (const Stop &stop : build.engine.stops) {
        if (!happensAt(kind, stop))
            continue;
        Fault f { std::string(kind.id), stop.id, 0, 1 };
        if (!checkFaults(build, { f }))
            continue;
        const auto items = faultItems(build, kind, stop);
        // Of jets, and of a bearing's few drillings, one stands for all.
        const bool each
            = items.size() > 1 && (stop.kind == StopKind::Gallery || stop.kind == StopKind::Lifter);
        for (int item = each ? 1 : 0; item <= (each ? static_cast<int>(items.size()) : 0); ++item) {
            f.item = item;
            const bool swarf = kind.id == "swarf" && !items.empty();
            places.push_back(
                { { f }, 0, swarf ? stretchOf(build, stop, items, std::max(1, item)) : "" });
            stopKinds.push_back(stop.kind);
        }
        if (kind.wholeFamily)
            break;
    }
    for (size_t i = 0; i < places.size(); ++i)
        places[i].prior = priorOf(kind, places, stopKinds, i);
    out.insert(out.end(), places.begin(), places.end());
}

/// What a guess predicts for readings.
std::vector<double> predictedAt(const Signatures &s, size_t guess, std::span<const ReadPoint> read)
{
    std::vector<double> out;
    for (const ReadPoint &p : read)
        out.push_back(s.at(guess, p.condition, p.tap));
    return out;
}

std::vector<double> gaugesOf(std::span<const ReadPoint> read)
{
    std::vector<double> out;
    for (const ReadPoint &p : read)
        out.push_back(p.gauge_pa);
    return out;
}

} // namespace

std::vector<Suspect> suspectsOf(const Build &build)
{
    std::vector<Suspect> out { { {}, healthyPrior }, { {}, 0, {}, true } };
    for (const FaultKind &k : faultKinds())
        if (k.prior > 0)
            addKind(build, k, out);
    double sum = 0;
    for (const Suspect &s : out)
        sum += s.prior;
    for (Suspect &s : out)
        s.prior = s.unlisted ? offPrior : s.prior / sum * (1 - offPrior);
    return out;
}

std::vector<double> severitiesOf(const Suspect &suspect)
{
    if (suspect.faults.empty() || !graded(*findFaultKind(suspect.faults.front().kind)))
        return { 1 };
    std::vector<double> out;
    for (int i = 1; i <= severitySteps; ++i)
        out.push_back(static_cast<double>(i) / severitySteps);
    return out;
}

std::vector<Condition> usualConditions(const Build &build)
{
    constexpr double cold_c = 20; // a shop's morning
    const Use &u = build.use;
    return { { u.hotIdle_rpm, cold_c },
             { u.highSpeed_rpm, cold_c },
             { u.hotIdle_rpm, u.hotOil_c },
             { u.highSpeed_rpm, u.hotOil_c },
             { u.most_rpm, u.hotOil_c } };
}

std::vector<Guess> Diagnoser::guesses() const
{
    std::vector<Guess> out;
    for (const Suspect &s : m_suspects)
        for (const double severity : severitiesOf(s)) {
            Guess g = s.faults;
            for (Fault &f : g)
                f.severity = severity;
            out.push_back(std::move(g));
        }
    return out;
}

Result<Diagnoser> Diagnoser::make(const Build &build, const std::vector<GaugedSize> &sizes,
                                  std::vector<Condition> conditions, Progress *progress)
{
    Diagnoser out;
    out.m_suspects = suspectsOf(build);
    std::vector<Guess> guesses = out.guesses();
    size_t first = 0;
    for (const Suspect &s : out.m_suspects) {
        out.m_first.push_back(first);
        first += severitiesOf(s).size();
        out.m_words.push_back(s.faults.empty() ? std::vector<std::string> {}
                                               : faultWords(build, s.faults.front()));
    }
    out.m_first.push_back(guesses.size());
    auto signatures
        = Signatures::make(build, sizes, std::move(guesses), std::move(conditions), progress);
    if (!signatures)
        return tl::unexpected(signatures.error());
    out.m_signatures = std::move(*signatures);
    const Signatures &s = out.m_signatures;
    for (size_t g = 0; g < s.guesses(); ++g)
        for (size_t c = 0; c < s.conditions().size(); ++c)
            if (!s.taps().empty() && std::isnan(s.at(g, c, 0))) {
                ++out.m_unsolved;
                break;
            }
    if (auto ok = out.findDirections(build, sizes); !ok)
        return tl::unexpected(ok.error());
    out.findGroups();
    return out;
}

/// What the forecast does not know (assess/uncertain.h) moves readings together: as few directions
/// as hold all but a ten-thousandth of it.
Result<void> Diagnoser::findDirections(const Build &build, const std::vector<GaugedSize> &sizes)
{
    std::vector<std::string> nodes;
    for (const std::string &tap : m_signatures.taps())
        nodes.push_back(build.circuit.taps.at(tap));
    std::vector<std::vector<double>> rows;
    for (const Condition &c : m_signatures.conditions()) {
        // The readings at hand speak for themselves.
        Build plain = withoutReadings(build);
        if (const auto oil = c.oil.empty() ? std::nullopt : findOil(build, c.oil))
            plain.oil = *oil;
        auto model = OperatingModel::make(plain, sizes, c.oil_c);
        if (!model)
            return tl::unexpected(model.error());
        auto seen = readAt(*model, turnedAt(plain, c.rpm, c.byDrill), nodes);
        if (!seen)
            return tl::unexpected(seen.error());
        for (ReadAt &at : *seen) {
            m_own.push_back(at.own_ln);
            rows.push_back(std::move(at.ln));
        }
    }
    if (rows.empty())
        return {};
    const auto m = static_cast<Eigen::Index>(rows.size());
    Eigen::MatrixXd together(m, m);
    for (Eigen::Index i = 0; i < m; ++i)
        for (Eigen::Index k = 0; k <= i; ++k) {
            const auto &a = rows[static_cast<size_t>(i)], &b = rows[static_cast<size_t>(k)];
            together(i, k) = together(k, i)
                = std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
        }
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(together);
    const double whole = solver.eigenvalues().sum();
    double left = whole;
    for (Eigen::Index i = m; i-- > 0 && left > untold * whole;) {
        const double value = solver.eigenvalues()(i);
        if (!(value > 0))
            break;
        const Eigen::VectorXd v = std::sqrt(value) * solver.eigenvectors().col(i);
        m_directions.emplace_back(v.data(), v.data() + v.size());
        left -= value;
    }
    return {};
}

Covariance Diagnoser::covarianceAt(std::span<const double> predicted,
                                   std::span<const ReadPoint> places, bool off) const
{
    const size_t taps = m_signatures.taps().size();
    std::vector<std::vector<double>> directions;
    for (const std::vector<double> &relative : m_directions) {
        std::vector<double> v;
        for (size_t i = 0; i < places.size(); ++i)
            v.push_back(predicted[i] * relative[places[i].condition * taps + places[i].tap]);
        directions.push_back(std::move(v));
    }
    for (size_t t = 0; t < taps; ++t) {
        std::vector<double> v(places.size(), 0.0);
        int readings = 0;
        for (size_t i = 0; i < places.size(); ++i)
            if (places[i].tap == t) {
                v[i] = gaugeOwnShare * places[i].gauge_pa;
                ++readings;
            }
        if (readings > 0)
            directions.push_back(std::move(v));
    }
    std::vector<double> eye = gaugesOf(places);
    for (size_t i = 0; i < eye.size(); ++i)
        eye[i] = std::hypot(eye[i] * std::sqrt(1 - gaugeOwnShare * gaugeOwnShare),
                            m_own[places[i].condition * taps + places[i].tap] * predicted[i]);
    // What is common to all readings is among the directions.
    return { predicted, eye, off ? std::hypot(bandModelOwn_ln, offEach_ln) : bandModelOwn_ln,
             off ? offCommon_ln : 0, directions };
}

Covariance Diagnoser::covarianceOf(size_t guess, std::span<const double> predicted,
                                   std::span<const ReadPoint> places) const
{
    const auto of = std::ranges::upper_bound(m_first, guess) - m_first.begin() - 1;
    return covarianceAt(predicted, places, m_suspects[static_cast<size_t>(of)].unlisted);
}

bool Diagnoser::alike(size_t a, size_t b, std::span<const ReadPoint> places) const
{
    // Every severity of one is matched by some severity of the other, or by nothing wrong.
    std::vector<double> healthy;
    for (const ReadPoint &p : places)
        healthy.push_back(m_signatures.healthy(p.condition, p.tap));
    const Covariance s = covarianceAt(healthy, places);
    const auto matched = [&](const std::vector<double> &h, size_t by) {
        const auto near = [&](const std::vector<double> &other) {
            std::vector<double> r = h;
            for (size_t i = 0; i < r.size(); ++i)
                r[i] -= other[i];
            return s.quadratic(r) <= toldApart * toldApart;
        };
        if (near(healthy))
            return true;
        for (size_t g = m_first[by]; g < m_first[by + 1]; ++g)
            if (near(predictedAt(m_signatures, g, places)))
                return true;
        return false;
    };
    for (const auto &[from, to] : { std::pair(a, b), std::pair(b, a) })
        for (size_t g = m_first[from]; g < m_first[from + 1]; ++g)
            if (!matched(predictedAt(m_signatures, g, places), to))
                return false;
    return true;
}

void Diagnoser::findGroups()
{
    std::vector<ReadPoint> places;
    for (size_t c = 0; c < m_signatures.conditions().size(); ++c)
        for (size_t t = 0; t < m_signatures.taps().size(); ++t)
            places.push_back({ c, t, 0, GaugeReading::usualGaugeU_kpa * 1e3 });
    for (size_t s = 0; s < m_suspects.size(); ++s) {
        const auto kind = [&](size_t i) {
            return m_suspects[i].unlisted      ? "unlisted"
                : m_suspects[i].faults.empty() ? ""
                                               : m_suspects[i].faults.front().kind;
        };
        const auto group
            = std::find_if(m_groups.begin(), m_groups.end(), [&](const std::vector<size_t> &g) {
                  const std::string &stretch = m_suspects[s].stretch;
                  return kind(g.front()) == kind(s)
                      && ((!stretch.empty() && m_suspects[g.front()].stretch == stretch)
                          || alike(g.front(), s, places));
              });
        if (group == m_groups.end())
            m_groups.push_back({ s });
        else
            group->push_back(s);
    }
}

size_t Diagnoser::groupOf(size_t suspect) const
{
    for (size_t g = 0; g < m_groups.size(); ++g)
        if (std::find(m_groups[g].begin(), m_groups[g].end(), suspect) != m_groups[g].end())
            return g;
    return m_groups.size();
}

std::vector<double> Diagnoser::byGroup(std::span<const double> weights) const
{
    const std::vector<double> single = bySuspect(weights);
    std::vector<double> out;
    for (const auto &group : m_groups) {
        double sum = 0;
        for (const size_t s : group)
            sum += single[s];
        out.push_back(sum);
    }
    return out;
}

std::optional<size_t> Diagnoser::suspectFor(const Fault &fault) const
{
    const FaultKind *kind = findFaultKind(fault.kind);
    if (!kind)
        return std::nullopt;
    const std::string_view as = kind->lookedForAs.empty() ? kind->id : kind->lookedForAs;
    std::optional<size_t> out;
    for (size_t s = 0; s < m_suspects.size(); ++s) {
        if (m_suspects[s].faults.empty() || m_suspects[s].faults.front().kind != as)
            continue;
        const Fault &f = m_suspects[s].faults.front();
        if (f.stop == fault.stop && f.item == fault.item)
            return s;
        if (f.stop == fault.stop || findFaultKind(as)->wholeFamily)
            out = out ? out : s;
    }
    return out;
}

std::vector<Covariance> Diagnoser::covariancesAt(std::span<const ReadPoint> places) const
{
    std::vector<Covariance> out;
    for (size_t g = 0; g < m_signatures.guesses(); ++g)
        out.push_back(covarianceOf(g, predictedAt(m_signatures, g, places), places));
    return out;
}

std::vector<double> Diagnoser::weights(std::span<const ReadPoint> read,
                                       std::span<const Symptom *const> symptoms) const
{
    return weights(read, symptoms, covariancesAt(read));
}

std::vector<double> Diagnoser::weights(std::span<const ReadPoint> read,
                                       std::span<const Symptom *const> symptoms,
                                       std::span<const Covariance> covariances) const
{
    std::vector<double> y;
    for (const ReadPoint &p : read)
        y.push_back(p.value_pa);
    std::vector<double> logs;
    for (size_t s = 0; s < m_suspects.size(); ++s) {
        double prior = std::log(m_suspects[s].prior / static_cast<double>(guessesOf(s)));
        for (const Symptom *said : symptoms)
            if (const SymptomKind *kind = findSymptomKind(said->symptom)) {
                const double p
                    = m_suspects[s].unlisted ? symptomPossible : symptomChance(*kind, m_words[s]);
                prior += std::log(said->there ? p : 1 - p);
            }
        for (size_t g = m_first[s]; g < m_first[s + 1]; ++g) {
            const double fit = read.empty() ? 0 : covariances[g].logDensity(y);
            logs.push_back(std::isnan(fit) ? -HUGE_VAL : prior + fit);
        }
    }
    const double most = *std::max_element(logs.begin(), logs.end());
    double sum = 0;
    for (double &l : logs) {
        l = std::exp(l - most);
        sum += l;
    }
    for (double &l : logs)
        l /= sum;
    return logs;
}

std::vector<double> Diagnoser::bySuspect(std::span<const double> weights) const
{
    std::vector<double> out;
    for (size_t s = 0; s < m_suspects.size(); ++s) {
        double sum = 0;
        for (size_t g = m_first[s]; g < m_first[s + 1]; ++g)
            sum += weights[g];
        out.push_back(sum);
    }
    return out;
}

double Diagnoser::distance(size_t guess, std::span<const ReadPoint> places) const
{
    return distanceOf(predictedAt(m_signatures, guess, places), places);
}

double Diagnoser::distanceOf(std::span<const double> pressure_pa,
                             std::span<const ReadPoint> places) const
{
    std::vector<double> healthy, r;
    for (size_t i = 0; i < places.size(); ++i) {
        healthy.push_back(m_signatures.healthy(places[i].condition, places[i].tap));
        r.push_back(pressure_pa[i] - healthy.back());
    }
    if (r.empty())
        return 0;
    const double q = covarianceAt(healthy, places).quadratic(r);
    return std::isnan(q) ? 0 : std::sqrt(q);
}

std::optional<double> Diagnoser::seenFrom(size_t suspect, std::span<const ReadPoint> places) const
{
    const auto severities = severitiesOf(m_suspects[suspect]);
    for (size_t i = 0; i < severities.size(); ++i)
        if (distance(m_first[suspect] + i, places) >= seenDistance)
            return severities[i];
    return std::nullopt;
}

double Diagnoser::information(std::span<const double> weights, std::span<const ReadPoint> read,
                              const ReadPoint &next) const
{
    constexpr double negligible = 1e-6;
    std::vector<ReadPoint> places(read.begin(), read.end());
    places.push_back(next);
    std::vector<NormalPart> all;
    double within = 0;
    for (const auto &group : m_groups) {
        std::vector<NormalPart> own;
        double mine = 0;
        std::vector<size_t> guesses;
        for (const size_t s : group)
            for (size_t g = m_first[s]; g < m_first[s + 1]; ++g)
                guesses.push_back(g);
        for (const size_t g : guesses) {
            const double at = m_signatures.at(g, next.condition, next.tap);
            if (weights[g] < negligible || std::isnan(at))
                continue;
            // The common errors are partly known from the readings: condition on them. With the new
            // place as last row of S, its mean and variance given the rest.
            std::vector<double> h = predictedAt(m_signatures, g, read);
            std::vector<double> residual;
            for (size_t i = 0; i < read.size(); ++i)
                residual.push_back(read[i].value_pa - h[i]);
            h.push_back(at);
            const auto [mean, variance] = covarianceOf(g, h, places).lastGiven(residual);
            own.push_back({ weights[g], mean, std::sqrt(variance) });
            mine += weights[g];
        }
        if (own.empty())
            continue;
        all.insert(all.end(), own.begin(), own.end());
        for (NormalPart &p : own)
            p.weight /= mine;
        within += mine * mixtureEntropy_bits(own);
    }
    return std::max(0.0, mixtureEntropy_bits(all) - within);
}

double Diagnoser::information(std::span<const double> weights, const Look &look) const
{
    const std::vector<double> p = bySuspect(weights);
    double yes = 0, within = 0;
    for (size_t s = 0; s < m_suspects.size(); ++s) {
        const double shown = wouldShow(look, m_words[s]) ? lookShows : lookMistakes;
        yes += p[s] * shown;
        within += p[s] * binaryEntropy_bits(shown);
    }
    return std::max(0.0, binaryEntropy_bits(yes) - within);
}

} // namespace mildpath
