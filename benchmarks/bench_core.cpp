// SPDX-License-Identifier: GPL-3.0-or-later
// One solve, one full assessment, and how many Newton steps they take.
#include "assess/cleanmarks.h"
#include "assess/operatingmodel.h"
#include "bearing/fedfilm.h"
#include "bearing/shells.h"
#include "bearing/warmfilm.h"
#include "checks/assessment.h"
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "diagnose/remedies.h"
#include "diagnose/trials.h"
#include "diagnose/whatif.h"
#include "document/logbook.h"
#include "plan/orders.h"
#include "plan/workplan.h"
#include "stopwatch.h"
#include "storage/buildfile.h"
#include "storage/templates.h"
#include "study/dressing.h"
#include "study/room.h"
#include "study/sampling.h"

#include <cstdlib>

using namespace mildpath;

namespace {

/// Steps over a grid of speeds and temperatures, cold and from the neighbouring speed.
void printSteps(const Network &network)
{
    const Oil oils[] = { { 44, 8.3, 848 }, { 105, 14.2, 878 }, { 310, 24.2, 898 } };
    int coldInner = 0, coldTotal = 0, coldUsual = 0, neighbour = 0, failed = 0;
    for (const Oil &oil : oils)
        for (double t = -10; t <= 150; t += 10) {
            SolveState walking;
            for (double rpm = 600; rpm <= 7500; rpm += 100) {
                const auto cold = network.solve({ oil, rpm, t });
                const auto warm = network.solve({ oil, rpm, t }, &walking);
                if (!cold || !warm) {
                    ++failed;
                    continue;
                }
                coldInner = std::max(coldInner, cold->mostStepsInOneRound);
                coldTotal = std::max(coldTotal, cold->newtonSteps);
                if (t >= 20 && t <= 120)
                    coldUsual = std::max(coldUsual, cold->newtonSteps);
                if (rpm > 600)
                    neighbour = std::max(neighbour, warm->newtonSteps);
            }
        }
    std::printf("Newton steps: cold inner %d, cold total 20-120 C %d, anywhere %d, neighbouring "
                "speed %d, failures %d\n",
                coldInner, coldUsual, coldTotal, neighbour, failed);
}

/// What if, remedies, and the table the diagnosis works on: 30 faults at 12 severities, read at six
/// places, each under a condition of its own.
void printFaults(const Build &build, const Assessment &assessment)
{
    const Fault fault { "relief_stuck_open", "relief", 0, 0.5 };
    const double one = measure("what if, before and after", 200, [&](int) {
        static_cast<void>(whatIf(build, assessment.sizes, { fault }, 3000, 100));
    });
    std::printf("what if / frame %.2f\n", one / 16000);
    measure("remedies compared", 20,
            [&](int) { static_cast<void>(compareRemedies(build, assessment.sizes)); });
    std::vector<Guess> guesses;
    for (const Suspect &s : suspectsOf(build))
        if (severitiesOf(s).size() == severitySteps && guesses.size() < 30 * severitySteps)
            for (const double severity : severitiesOf(s)) {
                Guess g = s.faults;
                g.front().severity = severity;
                guesses.push_back(std::move(g));
            }
    const std::vector<Condition> six { { 800, 20 },  { 3000, 20 }, { 800, 60 },
                                       { 3000, 60 }, { 800, 100 }, { 3000, 100 } };
    const double table = measure("30 faults × 12 severities × 6 readings", 5, [&](int) {
        static_cast<void>(Signatures::make(build, assessment.sizes, guesses, six));
    });
    std::printf("%zu guesses, of the 1 s aimed at %.2f\n", guesses.size(), table / 1e6);
    Build read = build;
    for (const Condition &c : six) {
        GaugeReading r;
        r.tap = build.gaugeTap;
        r.rpm = c.rpm;
        r.oil_c = c.oil_c;
        r.pressure_kpa = 250;
        read.gaugeReadings.push_back(r);
        read.gaugeReadings.back().id = std::to_string(read.gaugeReadings.size());
    }
    const double whole = measure("diagnosis with pairs and next steps", 3,
                                 [&](int) { static_cast<void>(diagnose(read, assessment.sizes)); });
    std::printf("whole diagnosis, of 1 s %.2f\n", whole / 1e6);
}

/// One bearing: solvers, table, the curve a circuit prepares.
void printFilms()
{
    measure("film, 360 × 24, plain", 20, [](int) { static_cast<void>(solveFilm(0.7, 0.4)); });
    measure("film, 360 × 24, fed, mass conserving", 6, [](int) {
        static_cast<void>(solveFedFilm({ 0.7, 0.4, 30, { FilmFeed::Kind::Hole, -0.8, 0, 0.2 } }));
    });
    const FilmLine line(0.4);
    double sum = 0;
    const double thousand = measure("film from the table, a thousand times", 200, [&](int) {
        for (int i = 0; i < 1000; ++i)
            sum += line.at(-4 + 0.006 * i).sideFlow;
    });
    std::printf("table / 0.3 µs %.2f%s\n", thousand / 1000 / 0.3, sum < 0 ? " " : "");
}

/// A logbook of 2 000 events read and derived; the plan of the largest template.
void printCleaning(Build build)
{
    measure("derive the demo's passages and plugs", 200, [&](int) {
        static_cast<void>(readBook(PassageNetwork(build.passages, build.plugs), build.events,
                                   stopKindsOf(build)));
    });
    build.events.clear();
    while (build.events.size() < 2000)
        for (const Passage &p : build.passages)
            for (const char *kind : { "machining", "brush", "look" }) {
                CleanEvent e;
                e.id = "e" + std::to_string(build.events.size() + 1);
                e.kind = kind;
                e.target = p.id;
                e.result = e.kind == "brush" ? "white" : e.kind == "look" ? "through" : "";
                e.means = e.kind == "look" ? "light" : "";
                e.at = "2026-03-10T10:00:00";
                e.by = "bench";
                build.events.push_back(std::move(e));
            }
    const std::string text = buildText(build);
    const double load = measure("load a build with 2 000 events", 20,
                                [&](int) { static_cast<void>(parseBuild(text)); });
    const double derive = measure("derive its passages' states", 20, [&](int) {
        static_cast<void>(readBook(PassageNetwork(build.passages, build.plugs), build.events,
                                   stopKindsOf(build)));
    });
    const Build v8 = loadTemplate("v8-dry-sump")->build;
    const double plan = measure("cleaning plan, dry-sump V8", 50,
                                [&](int) { static_cast<void>(cleaningPlanOf(v8)); });
    std::printf("2 000 events, load and derive / 50 ms %.2f; cleaning plan / frame %.2f\n",
                (load + derive) / 50000, plan / 16000);
}

/// What the list of checks adds to the numbers it is read from, on the largest template.
void printChecks()
{
    Build b = loadTemplate("v12-one-cam")->build;
    Job job;
    job.id = "q1";
    job.kinds = { "N" };
    job.by = "A";
    b.jobs.push_back(job);
    const Figures figures(b);
    const double numbers = measure("figures, v12", 20, [&](int) { static_cast<void>(Figures(b)); });
    const double states = measure("  of these, thirteen states", 20, [&](int) {
        static_cast<void>(operatingStates(b, figures.sizes, figures.operating, {}));
    });
    const CheckList list = listChecks(b, figures, "2026-04-01");
    const double alone = measure("  the list alone", 50, [&](int) {
        static_cast<void>(listChecks(b, figures, "2026-04-01"));
    });
    std::printf(
        "%zu checks; figures and list / figures without the states %.2f; list / 5 ms %.2f\n",
        list.all().size(), (numbers + alone) / (numbers - states), alone / 5000);
    const double plan = measure(
        "  its plan", 50, [&](int) { static_cast<void>(planOf(b, list, "2026-04-01T09:00")); });
    const WorkPlan planned = planOf(b, list, "2026-04-01T09:00");
    const double orders = measure("  what it orders", 50, [&](int) {
        static_cast<void>(ordersOf(b, figures, list, planned));
    });
    auto model = OperatingModel::make(b, figures.sizes, b.use.hotOil_c);
    static_cast<void>(model->at(b.use.hotIdle_rpm, OperatingModel::Detail::Values));
    const double solve = measure("  a warm solve", 200, [&](int) {
        static_cast<void>(model->at(b.use.hotIdle_rpm, OperatingModel::Detail::Values));
    });
    std::printf("plan / 5 ms %.2f; plan / warm solve %.1f; orders / warm solve %.1f\n", plan / 5000,
                plan / solve, orders / solve);
}

void printForecasts(const Build &build)
{
    const auto sizes = judgeSizes(build);
    auto model = OperatingModel::make(build, sizes, build.use.hotOil_c);
    const double solve = measure("  a warm solve, films and all", 500, [&](int i) {
        const double rpm = build.use.hotIdle_rpm * (i % 2 ? 1.0 : 1.01);
        static_cast<void>(model->pressures(rpm, model->oil(), {}));
    });
    Sampling sampling = usualSampling(build);
    sampling.samples = 2000;
    const double bands = measure("2 000 builds × 3 temperatures × 8 speeds", 1, [&](int) {
        static_cast<void>(sampleForecast(build, sizes, sampling));
    });
    constexpr double scale_us = 25; // a warm solve of the machine the aim is set for
    std::printf("a point / warm solve %.2f; all, where a warm solve takes 25 µs, / 2 s %.2f\n",
                bands / solve / 48000, bands / solve * scale_us / 2e6);
    for (const TemplateInfo &t : listTemplates()) {
        const Build b = loadTemplate(t.name)->build;
        const double whole
            = measure(("assess " + t.name).c_str(), 20, [&](int) { static_cast<void>(assess(b)); });
        std::printf("  / frame %.2f, %zu elements\n", whole / 16000, b.circuit.elements.size());
    }
    printChecks();
}

/// Steps from a solved circuit to one whose pump or mains are 2 % larger.
void printStepsAfterEdit(const Circuit &circuit)
{
    const Network before = *Network::compile(circuit);
    for (const char *what : { "pump displacement", "all mains" }) {
        Circuit changed = circuit;
        for (Element &e : changed.elements) {
            if (e.kind == ElementKind::Pump && std::string_view(what).starts_with("pump"))
                e.values["displacement_m3"] = 1.02 * pumpDisplacement_m3(e);
            if (e.id.starts_with("main_") && isBearing(e)
                && std::string_view(what).starts_with("all"))
                e.values["clearance_um"] *= 1.02;
        }
        const Network after = *Network::compile(changed);
        int most = 0, solves = 0, beyond4 = 0;
        for (const Oil &oil :
             { Oil { 44, 8.3, 848 }, Oil { 105, 14.2, 878 }, Oil { 310, 24.2, 898 } })
            for (double t = 20; t <= 120; t += 5)
                for (double rpm = 600; rpm <= 7500; rpm += 100) {
                    SolveState state;
                    static_cast<void>(before.solve({ oil, rpm, t }, &state));
                    const auto s = after.solve({ oil, rpm, t }, &state);
                    most = std::max(most, s ? s->newtonSteps : 999);
                    beyond4 += !s || s->newtonSteps > 4;
                    ++solves;
                }
        std::printf("Newton steps, warm, after %s +2 %%: at most %d, above 4 in %d of %d solves\n",
                    what, most, beyond4, solves);
    }
}

} // namespace

int main()
{
    const auto loaded = loadBuild(demoBuildPath());
    if (!loaded) {
        std::fprintf(stderr, "the demo build cannot be read\n");
        return EXIT_FAILURE;
    }
    const Build &build = loaded->build;
    const auto network = Network::compile(build.circuit);
    const Oil oil = build.oil.oil;
    std::printf("%-46s %10s %10s\n", "µs", "median", "p95");
    SolveState idle, fast;
    const double warm = measure("solve, warm, hot idle, speed moved by 1 %", 5000, [&](int i) {
        static_cast<void>(network->solve({ oil, i % 2 ? 800.0 : 808.0, 100 }, &idle));
    });
    measure("solve, warm, 3 000 rev/min, moved by 1 %", 5000, [&](int i) {
        static_cast<void>(network->solve({ oil, i % 2 ? 3000.0 : 3030.0, 100 }, &fast));
    });
    const double cold = measure("solve, cold start", 2000, [&](int) {
        static_cast<void>(network->solve({ oil, 3000, 100 }));
    });
    measure("compile a circuit", 500,
            [&](int) { static_cast<void>(Network::compile(build.circuit)); });
    const double whole
        = measure("assess the demo build", 200, [&](int) { static_cast<void>(assess(build)); });
    std::vector<ShellClass> shells;
    for (int i = 0; i < 5; ++i)
        shells.push_back({ std::to_string(i), (2000 + 4 * i) * 1e-6, 4 });
    std::vector<JournalSpace> journals;
    for (int i = 0; i < 7; ++i)
        journals.push_back({ "m", (4045 + 5 * i) * 1e-6 });
    const double selection = measure("shells for 7 mains, 5 classes in stock", 50, [&](int) {
        static_cast<void>(selectShells(shells, journals, { { 35e-6 }, { 65e-6 }, { 48e-6 } }));
    });
    std::printf("shells / 50 ms %.2f\n", selection / 50000);
    const Assessment assessment = assess(build);
    printFaults(build, assessment);
    const double plan = measure("dressing plan", 50, [&](int) {
        static_cast<void>(dressingPlan(build, assessment.sizes));
    });
    std::printf("dressing plan / frame %.2f\n", plan / 16000);
    const auto mapOf = [&](int columns) {
        return measure(("room to choose, " + std::to_string(columns) + " × 9 points").c_str(), 30,
                       [&](int) {
                           static_cast<void>(roomMap(build, assessment.sizes, "main",
                                                     conditionsOf(build), columns));
                       });
    };
    const double coarse = mapOf(10), fine = mapOf(40);
    std::printf("room: coarse / frame %.2f, 40 × 9 / 300 ms %.2f\n", coarse / 16000, fine / 300000);
    const double room = measure("room with its levers", 30, [&](int) {
        static_cast<void>(roomOf(build, assessment.sizes, "main", conditionsOf(build)));
    });
    std::vector<double> times;
    for (int i = 0; i < 41; ++i)
        times.push_back(1.125 * i * i);
    const double warmUp = measure("warm-up, 41 moments", 30, [&](int) {
        static_cast<void>(warmUpRun(build, assessment.sizes, 800, times));
    });
    std::printf("room with levers / frame %.2f, warm-up / frame %.2f\n", room / 16000,
                warmUp / 16000);
    std::printf(
        "ratios: cold / warm solve %.1f, assess / warm solve %.0f, assess / frame (16 ms) %.2f\n",
        cold / warm, whole / warm, whole / 16000);
    printCleaning(build);
    printFilms();
    printForecasts(build);
    printSteps(*network);
    printStepsAfterEdit(build.circuit);
    return EXIT_SUCCESS;
}
