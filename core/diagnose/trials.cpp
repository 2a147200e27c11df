// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/trials.h"

#include "assess/growth.h"
#include "assess/operatingmodel.h"
#include "quantity/parallel.h"

#include <algorithm>
#include <cmath>
#include <random>
#include <set>

namespace mildpath {
namespace {

using Random = std::mt19937_64;

double normal(Random &random)
{
    return std::normal_distribution<double>()(random);
}

/// Pressures of one true engine at the plan's places. Empty: no solution.
class Truth
{
public:
    Truth(const Build &build, const std::vector<GaugedSize> &sizes, const TrialPlan &plan)
        : m_build(build)
        , m_sizes(sizes)
        , m_plan(plan)
    {
    }

    /// @param random  null: on the model; else an engine off it by all that the forecast does not
    ///                know (assess/uncertain.h)
    std::vector<double> pressures(const Guess &guess, Random *random) const
    {
        std::vector<double> z;
        const CircuitChange change = faultChange(m_build, guess);
        std::map<double, OperatingModel> models;
        std::vector<double> out;
        for (const auto &[tap, c] : m_plan.readings) {
            if (!models.contains(c.oil_c)) {
                const PartTemperatures parts = settledTemperatures(m_build, c.oil_c);
                if (random && z.empty()) {
                    const auto plain = OperatingModel::make(m_build, m_sizes, parts);
                    for (size_t i = 0; plain && i < plain->inputs(); ++i)
                        z.push_back(normal(*random));
                }
                auto model = OperatingModel::possible(m_build, m_sizes, parts, z, change);
                if (!model)
                    return {};
                models.emplace(c.oil_c, std::move(*model));
            }
            OperatingModel &model = models.at(c.oil_c);
            const std::string node = m_build.circuit.taps.at(tap);
            const auto p = model.pressures(turnedAt(m_build, c.rpm, c.byDrill), model.oil(),
                                           std::span(&node, 1));
            if (!p)
                return {};
            const double common_ln = z.empty() ? 0 : commonPart_ln(model.inputList(), z);
            out.push_back(p->front() * std::exp(common_ln));
        }
        return out;
    }

private:
    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    const TrialPlan &m_plan;
};

/// What a gauge shows of a true pressure, with the model's errors on top.
void addNoise(std::vector<ReadPoint> &read, const std::vector<double> &truth, const TrialPlan &plan,
              Random &random)
{
    // Off the model the truth has it already.
    const double common = plan.offModel ? 1 : 1 + bandModelCommon_ln * normal(random);
    std::map<std::string, double> offset;
    for (size_t i = 0; i < read.size(); ++i) {
        // Off the model a share of the gauge's uncertainty is its own, alike in all its readings.
        const double own = plan.offModel ? gaugeOwnShare : 0;
        double y = truth[i] * common * (1 + bandModelOwn_ln * normal(random));
        y += read[i].gauge_pa * std::sqrt(1 - own * own) * normal(random);
        if (plan.offModel)
            y += read[i].gauge_pa * own
                * offset.try_emplace(plan.readings[i].first, normal(random)).first->second;
        read[i].value_pa = std::max(0.0, y); // a gauge has a stop
    }
}

class Trials
{
public:
    Trials(const Build &build, const std::vector<GaugedSize> &sizes, const TrialPlan &plan,
           const Diagnoser &diagnoser, std::vector<ReadPoint> places, Progress *progress)
        : m_build(build)
        , m_truth(build, sizes, plan)
        , m_plan(plan)
        , m_diagnoser(diagnoser)
        , m_places(std::move(places))
        , m_covariances(diagnoser.covariancesAt(m_places))
        , m_progress(progress)
    {
    }

    TrialRow row(const Guess &guess, size_t suspect, unsigned seed) const
    {
        TrialRow out;
        out.fault = guess.empty() ? Fault {} : guess.front();
        out.name = guess.empty() ? "Nothing wrong" : faultName(m_build, out.fault);
        Random random(seed);
        std::vector<double> truth = m_truth.pressures(guess, nullptr);
        if (truth.empty())
            return out;
        out.distance = m_diagnoser.distanceOf(truth, m_places);
        out.plainDistance = plainDistance(truth);
        out.seen = out.distance >= seenDistance;
        const bool never = !guess.empty() && saysItCannotTell(suspect, out.fault.severity);
        for (int i = 0; i < m_plan.trials; ++i) {
            if (m_plan.offModel) {
                truth = m_truth.pressures(guess, &random);
                if (truth.empty())
                    continue;
            }
            std::vector<ReadPoint> read = m_places;
            addNoise(read, truth, m_plan, random);
            count(out, suspect, read);
            out.saidSo += never;
        }
        return out;
    }

private:
    /// By gauge and model errors alone: the wider set of what readings can be said to see.
    double plainDistance(std::vector<double> truth) const
    {
        std::vector<double> healthy, gauges;
        for (size_t i = 0; i < m_places.size(); ++i) {
            const ReadPoint &p = m_places[i];
            healthy.push_back(m_diagnoser.signatures().healthy(p.condition, p.tap));
            gauges.push_back(p.gauge_pa);
            truth[i] -= healthy.back();
        }
        return std::sqrt(
            Covariance(healthy, gauges, bandModelOwn_ln, bandModelCommon_ln).quadratic(truth));
    }

    /// The report's own words for a fault of this severity: readings tell it from some severity on,
    /// or never, and there is something that would.
    bool saysItCannotTell(size_t suspect, double severity) const
    {
        const auto from = m_diagnoser.seenFrom(suspect, m_places);
        return (!from || severity < *from)
            && !looksFor(m_build, m_diagnoser.suspects()[suspect].faults.front()).empty();
    }

    void count(TrialRow &out, size_t suspect, const std::vector<ReadPoint> &read) const
    {
        const auto posterior = m_diagnoser.byGroup(m_diagnoser.weights(read, {}, m_covariances));
        const double mine = posterior[m_diagnoser.groupOf(suspect)];
        size_t ahead = 0, leader = 0;
        for (size_t g = 0; g < posterior.size(); ++g) {
            ahead += posterior[g] > mine;
            if (posterior[g] > posterior[leader])
                leader = g;
        }
        ++out.trials;
        out.first += ahead == 0;
        out.firstThree += ahead < 3;
        const Suspect &led = m_diagnoser.suspects()[m_diagnoser.groups()[leader].front()];
        out.blamed += !led.faults.empty() && posterior[leader] >= sureEnough;
        ++out.ledBy[led.unlisted             ? "unlisted"
                        : led.faults.empty() ? "nothing"
                                             : led.faults.front().kind];
        if (m_progress)
            ++m_progress->done;
    }

    const Build &m_build;
    Truth m_truth;
    const TrialPlan &m_plan;
    const Diagnoser &m_diagnoser;
    std::vector<ReadPoint> m_places;
    std::vector<Covariance> m_covariances;
    Progress *m_progress;
};

struct Task
{
    Guess guess;
    size_t suspect;
};

/// Every fault that can happen at a stop, at every place of it, and nothing wrong: also those
/// that the diagnosis looks for under another name.
std::vector<Task> tasksOf(const Build &build, const Diagnoser &diagnoser, const TrialPlan &plan)
{
    std::vector<Task> out { { {}, 0 } };
    std::set<std::string_view> families;
    for (const Stop &stop : build.engine.stops)
        for (Fault f : faultsAt(build, stop)) {
            const FaultKind &kind = *findFaultKind(f.kind);
            if (kind.wholeFamily && !families.insert(kind.id).second)
                continue;
            const int items = static_cast<int>(faultItems(build, kind, stop).size());
            for (int item = items > 1 ? 1 : 0; item <= (items > 1 ? items : 0); ++item) {
                f.item = item;
                const auto suspect = diagnoser.suspectFor(f);
                if (!suspect)
                    continue;
                for (const double s : graded(kind) ? plan.severities : std::vector<double> { 1 }) {
                    f.severity = s;
                    out.push_back({ { f }, *suspect });
                }
            }
        }
    return out;
}

void sum(TrialReport &out)
{
    for (const TrialRow &r : out.rows) {
        if (r.fault.kind.empty()) {
            out.healthy += r.trials;
            out.healthyFirst += r.first;
            continue;
        }
        const auto add = [&](TrialReport::Seen &to) {
            to.trials += r.trials;
            to.first += r.first;
            to.firstThree += r.firstThree;
        };
        if (r.plainDistance >= seenDistance)
            add(out.plainly);
        if (r.seen) {
            add(out.seen);
        } else {
            out.unseen += r.trials;
            out.unseenSaidSo += r.saidSo;
            out.unseenBlamed += r.blamed;
        }
    }
}

} // namespace

TrialPlan usualTrials(const Build &build)
{
    TrialPlan out;
    for (const Condition &c : usualConditions(build))
        for (const auto &[tap, node] : build.circuit.taps)
            out.readings.emplace_back(tap, c);
    return out;
}

TrialPlan sixReadings(const Build &build)
{
    TrialPlan out;
    const auto all = usualConditions(build);
    std::vector<std::string> taps { build.gaugeTap };
    for (const auto &[tap, node] : build.circuit.taps)
        if (tap == "filter_housing" && tap != build.gaugeTap)
            taps.push_back(tap);
    for (const Condition &c : { all[0], all[2], all[3] })
        for (const std::string &tap : taps)
            out.readings.emplace_back(tap, c);
    return out;
}

Result<TrialReport> runTrials(const Build &build, const std::vector<GaugedSize> &sizes,
                              const TrialPlan &plan, Progress *progress)
{
    std::vector<Condition> conditions;
    for (const auto &[tap, c] : plan.readings)
        if (std::find(conditions.begin(), conditions.end(), c) == conditions.end())
            conditions.push_back(c);
    const auto diagnoser = Diagnoser::make(build, sizes, conditions, progress);
    if (!diagnoser)
        return tl::unexpected(diagnoser.error());
    std::vector<ReadPoint> places;
    const auto &taps = diagnoser->signatures().taps();
    for (const auto &[tap, c] : plan.readings) {
        const auto t = std::find(taps.begin(), taps.end(), tap);
        if (t == taps.end())
            return fail("tap", "there is no gauge tap \"" + tap + "\"");
        const auto at = std::find(conditions.begin(), conditions.end(), c);
        places.push_back({ static_cast<size_t>(at - conditions.begin()),
                           static_cast<size_t>(t - taps.begin()), 0,
                           GaugeReading::usualGaugeU_kpa * 1e3 });
    }
    const std::vector<Task> tasks = tasksOf(build, *diagnoser, plan);
    if (progress)
        progress->whole += static_cast<int>(tasks.size()) * plan.trials;
    TrialReport out;
    out.readings = static_cast<int>(plan.readings.size());
    out.suspects = static_cast<int>(diagnoser->suspects().size());
    out.groups = static_cast<int>(diagnoser->groups().size());
    out.rows.resize(tasks.size());
    const Trials trials(build, sizes, plan, *diagnoser, places, progress);
    onAllCores([&](unsigned first, unsigned step) {
        for (size_t i = first; i < tasks.size() && !(progress && progress->cancel); i += step)
            out.rows[i] = trials.row(tasks[i].guess, tasks[i].suspect,
                                     plan.seed * 7919 + static_cast<unsigned>(i));
    });
    if (progress && progress->cancel)
        return fail("cancelled", "given up");
    sum(out);
    return out;
}

std::string trialsText(const TrialReport &report)
{
    const auto share = [](int part, int whole) {
        return whole > 0 ? render(asShare(1.0 * part / whole), fileStyle) : std::string("-");
    };
    std::string out = "| fault | severity | distance | first | first three | led by instead |\n"
                      "|---|---|---|---|---|---|\n";
    for (const TrialRow &r : report.rows) {
        std::vector<std::pair<int, std::string>> others;
        for (const auto &[kind, n] : r.ledBy)
            if (kind != r.fault.kind && !(kind == "nothing" && r.fault.kind.empty()))
                others.emplace_back(-n, kind);
        std::sort(others.begin(), others.end());
        std::string led;
        for (size_t i = 0; i < std::min<size_t>(3, others.size()); ++i)
            led += (led.empty() ? "" : ", ") + others[i].second + " "
                + share(-others[i].first, r.trials);
        out += "| " + (r.fault.kind.empty() ? "nothing" : faultId(r.fault)) + " | "
            + (r.fault.kind.empty() ? "" : formatPlain(r.fault.severity, 1)) + " | "
            + formatPlain(r.distance, 1) + (r.seen || r.fault.kind.empty() ? "" : " (not seen)")
            + " | " + share(r.first, r.trials) + " | " + share(r.firstThree, r.trials) + " | " + led
            + " |\n";
    }
    const auto told = [&](const TrialReport::Seen &t) {
        return std::to_string(t.trials) + " trials, first " + share(t.first, t.trials)
            + ", among the first three " + share(t.firstThree, t.trials);
    };
    out += "\nSeen by the readings (distance 2 or more): " + told(report.seen)
        + ". With the engine taken as known exactly more count as seen: " + told(report.plainly)
        + ". Not seen: " + std::to_string(report.unseen) + " trials, said so "
        + share(report.unseenSaidSo, report.unseen) + ", something else settled on "
        + share(report.unseenBlamed, report.unseen) + ". Healthy: nothing wrong leads in "
        + share(report.healthyFirst, report.healthy) + ".\n";
    return out;
}

} // namespace mildpath
