// SPDX-License-Identifier: GPL-3.0-or-later
// mildpath-gauge-sim: a bench gauge on a pseudo-terminal. Plays a plan of readings the way a person
// takes them: the needle comes in, rocks, rests, is pulled out; with noise, drift, outliers,
// drop-outs, and on wish a cable that comes loose.

#include "devices/pseudoterminal.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <string>
#include <thread>
#include <vector>

#include <poll.h>
#include <unistd.h>

using mildpath::PseudoTerminal;

namespace {

struct Options
{
    std::vector<double> plan_um;
    double noise_um = 0.3, drift_um = 0;
    double outliers = 0, dropouts = 0, garbage = 0; ///< shares of lines
    double rate = 50; ///< lines a second
    double rest_s = 1.0; ///< how long the needle rests
    std::string unit = "mm";
    std::string link; ///< symbolic link to the port's path
    unsigned seed = 1;
    bool wait = false; ///< until a line arrives on standard input
    bool follow = false; ///< the needle rests until a line arrives on standard input
};

int usage(const std::string &why)
{
    std::fprintf(
        stderr,
        "%s\n"
        "mildpath-gauge-sim --plan 48.0,47.5,… [--noise UM] [--drift UM] [--outliers SHARE]\n"
        "  [--dropouts SHARE] [--garbage SHARE] [--rate HZ] [--rest S] [--unit mm|um|in|thou]\n"
        "  [--link PATH] [--seed N] [--wait] [--follow]\n"
        "Prints the port's path, plays the plan (diametral readings in µm), ends.\n",
        why.c_str());
    return 2;
}

bool number(const char *text, double &out)
{
    char *end = nullptr;
    out = std::strtod(text, &end);
    return end != text && *end == 0 && std::isfinite(out);
}

std::string parse(int argc, char **argv, Options &o)
{
    for (int i = 1; i < argc; ++i) {
        const std::string key = argv[i];
        if (key == "--wait" || key == "--follow") {
            (key == "--wait" ? o.wait : o.follow) = true;
            continue;
        }
        if (i + 1 >= argc)
            return key + ": needs a value";
        const char *value = argv[++i];
        double n = 0;
        if (key == "--unit") {
            o.unit = value;
            if (o.unit != "mm" && o.unit != "um" && o.unit != "in" && o.unit != "thou")
                return "--unit: mm, um, in or thou";
        } else if (key == "--link") {
            o.link = value;
        } else if (key == "--plan") {
            std::string rest = value;
            while (!rest.empty()) {
                const auto comma = rest.find(',');
                if (!number(rest.substr(0, comma).c_str(), n))
                    return "--plan: \"" + rest + "\" is not a list of numbers";
                o.plan_um.push_back(n);
                rest = comma == std::string::npos ? "" : rest.substr(comma + 1);
            }
        } else if (!number(value, n) || n < 0) {
            return key + ": \"" + value + "\" is not a number from 0";
        } else if (key == "--noise") {
            o.noise_um = n;
        } else if (key == "--drift") {
            o.drift_um = n;
        } else if (key == "--outliers") {
            o.outliers = n;
        } else if (key == "--dropouts") {
            o.dropouts = n;
        } else if (key == "--garbage") {
            o.garbage = n;
        } else if (key == "--rate" && n > 0) {
            o.rate = n;
        } else if (key == "--rest") {
            o.rest_s = n;
        } else if (key == "--seed") {
            o.seed = static_cast<unsigned>(n);
        } else {
            return key + ": unknown, or its value cannot be";
        }
    }
    return o.plan_um.empty() ? "--plan is missing" : "";
}

class Gauge
{
public:
    Gauge(const Options &options, PseudoTerminal &port)
        : m_o(options)
        , m_port(port)
        , m_random(options.seed)
    {
    }

    void play()
    {
        const double step = 1 / m_o.rate;
        for (size_t i = 0; i < m_o.plan_um.size(); ++i) {
            const double drift
                = m_o.drift_um * static_cast<double>(i) / static_cast<double>(m_o.plan_um.size());
            const double at = m_o.plan_um[i] + drift;
            // In from beyond the travel, rocking through the smallest reading, then at rest.
            const double in_s = std::max(4 * step, m_o.rest_s / 3);
            for (double t = 0; t < in_s; t += step)
                send(at + 400 * (1 - t / in_s) + 30 * std::abs(std::sin(20 * t / in_s)), true);
            for (double t = 0; t < m_o.rest_s || (m_o.follow && !told()); t += step)
                send(at, false);
            for (double t = 0; t < in_s; t += step)
                send(at + 400 * t / in_s + 40, true);
        }
    }

    /// Whether a line, or the end, arrives on standard input within that time (ms; -1: ever); takes
    /// it.
    static bool told(int within_ms = 0)
    {
        pollfd input { STDIN_FILENO, POLLIN, 0 };
        if (poll(&input, 1, within_ms) <= 0)
            return false;
        char c = 0;
        while (read(STDIN_FILENO, &c, 1) == 1 && c != '\n') { }
        return true;
    }

private:
    void send(double um, bool moving)
    {
        std::normal_distribution<double> noise(0, m_o.noise_um);
        std::uniform_real_distribution<double> share(0, 1);
        // A run of trouble is drawn for every line, so one seed gives one story.
        const double trouble = share(m_random), size = share(m_random);
        double value = um
            + (m_o.noise_um > 0 ? std::clamp(noise(m_random), -2 * m_o.noise_um, 2 * m_o.noise_um)
                                : 0);
        if (trouble < m_o.dropouts) {
            pause();
            return;
        }
        if (!moving && trouble < m_o.dropouts + m_o.outliers)
            value += size < 0.5 ? -25 : 25;
        char line[48];
        const char *format = "%+.4f mm\r\n";
        double shown = value / 1e3;
        if (m_o.unit == "um") {
            format = "%+.1f um\r\n";
            shown = value;
        } else if (m_o.unit == "in") {
            format = "%+.6f in\r\n";
            shown = value / 25400;
        } else if (m_o.unit == "thou") {
            format = "%+.3f thou\r\n";
            shown = value / 25.4;
        }
        if (trouble > 1 - m_o.garbage)
            std::snprintf(line, sizeof line, "\x02?E%d##\r\n", static_cast<int>(size * 99));
        else
            std::snprintf(line, sizeof line, format, shown);
        // A reader that does not read must not stop the gauge.
        if (!m_port.send(line))
            std::exit(0);
        pause();
    }

    void pause() const { std::this_thread::sleep_for(std::chrono::duration<double>(1 / m_o.rate)); }

    const Options &m_o;
    PseudoTerminal &m_port;
    std::mt19937 m_random;
};

} // namespace

int main(int argc, char **argv)
{
    Options options;
    if (const std::string why = parse(argc, argv, options); !why.empty())
        return usage(why);
    std::signal(SIGHUP, SIG_IGN);
    PseudoTerminal port;
    if (const std::string why = port.open(options.link); !why.empty()) {
        std::fprintf(stderr, "%s\n", why.c_str());
        return 3;
    }
    std::printf("%s\n", port.path().c_str());
    std::fflush(stdout);
    if (options.wait)
        Gauge::told(-1);
    Gauge(options, port).play();
    return 0;
}
