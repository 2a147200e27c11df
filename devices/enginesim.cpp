// SPDX-License-Identifier: GPL-3.0-or-later
// mildpath-engine-sim: an engine on a pseudo-terminal. Reads a build, hides faults in it, draws its
// own truth within the build's uncertainties, and sends what a sender would, by the protocol of
// docs/sender-protocol.md. Who stands at the drill and the switch types on standard input, or a
// script does.

#include "checks/assessment.h"
#include "devices/pseudoterminal.h"
#include "devices/senderline.h"
#include "document/logbook.h"
#include "start/engine.h"
#include "storage/buildfile.h"

#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <poll.h>
#include <sstream>
#include <thread>
#include <unistd.h>

using namespace mildpath;

namespace {

struct Options
{
    std::string file, link, faults, script;
    SimulatedOptions engine;
    double rate = 10, fast = 1;
    double garbage = 0;
};

int usage(const std::string &why)
{
    std::fprintf(
        stderr,
        "%s\n"
        "mildpath-engine-sim FILE.mildpath [--fault KIND@STOP[=SEVERITY],…] [--seed N]\n"
        "  [--rate HZ] [--noise KPA] [--dropouts SHARE] [--garbage SHARE] [--oil-temp-c T]\n"
        "  [--full] [--on-model] [--fast FACTOR] [--link PATH] [--play \"drill 250 20; still 5; "
        "…\"]\n"
        "Prints the port's path. Takes orders on standard input, one a line, or from --play with\n"
        "seconds behind each: drill RPM · crank RPM · run RPM · still · look · quit.\n"
        "\"look\" prints which lifters and rockers have filled.\n",
        why.c_str());
    return 2;
}

std::optional<double> number(const std::string &text)
{
    char *end = nullptr;
    const double out = std::strtod(text.c_str(), &end);
    return !text.empty() && *end == 0 && std::isfinite(out) && out >= 0 ? std::optional(out)
                                                                        : std::nullopt;
}

/// One option with a value. @return why it cannot be; empty: taken
std::string take(Options &o, const std::string &key, const std::string &value)
{
    if (key == "--fault")
        o.faults = value;
    else if (key == "--link")
        o.link = value;
    else if (key == "--play")
        o.script = value;
    else if (key == "--oil-temp-c") {
        char *end = nullptr;
        o.engine.oil_c = std::strtod(value.c_str(), &end);
        if (*end != 0 || !(*o.engine.oil_c >= -40 && *o.engine.oil_c <= 150))
            return key + ": must be -40 to 150";
    } else {
        const auto n = number(value);
        if (!n)
            return key + ": \"" + value + "\" is not a number from 0";
        if (key == "--seed")
            o.engine.seed = static_cast<unsigned>(*n);
        else if (key == "--rate" && *n > 0)
            o.rate = *n;
        else if (key == "--fast" && *n > 0)
            o.fast = *n;
        else if (key == "--noise")
            o.engine.noise_kpa = *n;
        else if (key == "--dropouts")
            o.engine.dropouts = *n;
        else if (key == "--garbage")
            o.garbage = *n;
        else
            return key + ": unknown, or its value cannot be";
    }
    return {};
}

std::string parse(int argc, char **argv, Options &o)
{
    for (int i = 1; i < argc; ++i) {
        const std::string key = argv[i];
        if (key == "--full") {
            o.engine.full = true;
        } else if (key == "--on-model") {
            o.engine.offModel = false;
        } else if (key.substr(0, 2) != "--" && o.file.empty()) {
            o.file = key;
        } else if (i + 1 >= argc) {
            return key + ": needs a value";
        } else if (const std::string why = take(o, key, argv[++i]); !why.empty()) {
            return why;
        }
    }
    return o.file.empty() ? "a build is missing" : "";
}

void tell(const Build &build, const SimulatedEngine &engine)
{
    for (const OutletFill &o : engine.outlets()) {
        const auto names = flowOutlets(build, *build.engine.find(o.stop));
        std::printf("%s: %s\n", names[static_cast<size_t>(o.outlet - 1)].c_str(),
                    std::string(o.saw()).c_str());
    }
    std::fflush(stdout);
}

/// @return false: quit
bool order(const std::string &text, const Build &build, SimulatedEngine &engine)
{
    std::istringstream in(text);
    std::string word;
    double rpm = 0;
    in >> word >> rpm;
    if (word == "quit")
        return false;
    if (word == "drill" || word == "crank" || word == "run")
        engine.turn(word == "drill"       ? Turning::Drill
                        : word == "crank" ? Turning::Starter
                                          : Turning::Running,
                    rpm);
    else if (word == "still")
        engine.turn(Turning::Still, 0);
    else if (word == "look")
        tell(build, engine);
    else if (!word.empty())
        std::fprintf(stderr, "\"%s\" is no order\n", word.c_str());
    return true;
}

class Play
{
public:
    Play(const Options &options, const Build &build, SimulatedEngine &engine, PseudoTerminal &port)
        : m_options(options)
        , m_build(build)
        , m_engine(engine)
        , m_port(port)
        , m_random(options.engine.seed + 17)
    {
        std::istringstream in(options.script);
        for (std::string part; std::getline(in, part, ';');)
            m_script.push_back(part);
    }

    void run()
    {
        using Clock = std::chrono::steady_clock;
        const auto period = std::chrono::duration<double>(1 / m_options.rate);
        auto next = Clock::now();
        while (orders()) {
            m_engine.advance(m_options.fast / m_options.rate);
            if (!send())
                return;
            next += std::chrono::duration_cast<Clock::duration>(period);
            std::this_thread::sleep_until(next);
        }
    }

private:
    bool orders()
    {
        if (!m_options.script.empty()) {
            while (m_engine.time_s() >= m_until_s) {
                if (m_at == m_script.size())
                    return false;
                const std::string &text = m_script[m_at++];
                if (!order(text, m_build, m_engine))
                    return false;
                // The last number of an order is how long it lasts.
                const auto number_ = text.find_last_of(" ");
                m_until_s += number_ == std::string::npos
                    ? 0
                    : number(text.substr(number_ + 1)).value_or(0);
            }
            return true;
        }
        pollfd input { STDIN_FILENO, POLLIN, 0 };
        while (poll(&input, 1, 0) > 0 && (input.revents & (POLLIN | POLLHUP))) {
            std::string line;
            if (!std::getline(std::cin, line) || !order(line, m_build, m_engine))
                return false;
            if (std::cin.rdbuf()->in_avail() <= 0 && poll(&input, 1, 0) <= 0)
                break;
        }
        return true;
    }

    bool send()
    {
        const auto reading = m_engine.read();
        const double trouble = std::uniform_real_distribution<double>()(m_random);
        if (trouble < m_options.garbage)
            return m_port.send("p=\x02?##\r\n");
        if (!reading)
            return true;
        return m_port.send(
            senderLine({ *reading->pressure_kpa * 1e3, reading->rpm, reading->oil_c, reading->t_s })
            + "\r\n");
    }

    const Options &m_options;
    const Build &m_build;
    SimulatedEngine &m_engine;
    PseudoTerminal &m_port;
    std::mt19937 m_random;
    std::vector<std::string> m_script;
    size_t m_at = 0;
    double m_until_s = 0;
};

} // namespace

int main(int argc, char **argv)
{
    Options options;
    if (const std::string why = parse(argc, argv, options); !why.empty())
        return usage(why);
    std::signal(SIGHUP, SIG_IGN);
    const auto loaded = loadBuild(options.file);
    if (!loaded) {
        for (const Error &e : loaded.error().errors)
            std::fprintf(stderr, "%s: %s: %s\n", options.file.c_str(), e.place.c_str(),
                         render(e.message).c_str());
        return 2;
    }
    std::istringstream names(options.faults);
    for (std::string name; std::getline(names, name, ',');) {
        const auto fault = parseFault(loaded->build, name);
        if (!fault)
            return usage("--fault: " + render(fault.error().message));
        options.engine.faults.push_back(*fault);
    }
    auto engine = SimulatedEngine::make(loaded->build, assess(loaded->build), options.engine);
    if (!engine)
        return usage(engine.error().place + ": " + render(engine.error().message));
    PseudoTerminal port;
    if (const std::string why = port.open(options.link); !why.empty()) {
        std::fprintf(stderr, "%s\n", why.c_str());
        return 3;
    }
    std::printf("%s\n", port.path().c_str());
    std::fflush(stdout);
    Play(options, loaded->build, *engine, port).run();
    if (!engine->trouble().empty())
        std::fprintf(stderr, "%s\n", render(engine->trouble()).c_str());
    return 0;
}
