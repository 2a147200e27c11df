// SPDX-License-Identifier: GPL-3.0-or-later

// Writes core/bearing/filmtabledata.inc from the solver: run it again when solveFilm() changes.
//   build/release/tools/make-film-table > core/bearing/filmtabledata.inc

#include "bearing/filmtable.h"

#include <math.h>

#include <boost/math/interpolators/makima.hpp>

#include <array>
#include <cmath>
#include <cstdio>
#include <thread>
#include <vector>

using namespace mildpath;
using boost::math::interpolators::makima;

namespace {

struct Line
{
    double logLow, logHigh; ///< ln S at the greatest and least eccentricity
    std::array<std::array<double, filmTableLoads>, filmTableQuantities> values;
};

Line lineAt(double lengthRatio)
{
    constexpr int places = 160;
    std::vector<double> logS;
    std::array<std::vector<double>, filmTableQuantities> q;
    const double from = logit(mostEccentricity), to = logit(leastEccentricity);
    for (int i = 0; i < places; ++i) {
        const double eps = fromLogit(from + (to - from) * i / (places - 1));
        const FilmSolution f = solveFilm(eps, lengthRatio);
        logS.push_back(std::log(f.sommerfeld));
        q[0].push_back(logit(eps));
        q[1].push_back(std::log(f.frictionVariable / (2 * pi * pi * f.sommerfeld)));
        q[2].push_back(f.inflowVariable * f.sideFlowRatio / (2 * pi * eps));
        q[3].push_back(f.attitude_rad);
        q[4].push_back(f.pressureRatio);
    }
    Line out { logS.front(), logS.back(), {} };
    for (size_t k = 0; k < q.size(); ++k) {
        const makima<std::vector<double>> curve(std::vector<double>(logS), std::move(q[k]));
        for (int i = 0; i < filmTableLoads; ++i) {
            const double share = static_cast<double>(i) / (filmTableLoads - 1);
            const double x = std::min(out.logHigh, out.logLow + (out.logHigh - out.logLow) * share);
            out.values[k][static_cast<size_t>(i)] = curve(x);
        }
    }
    return out;
}

} // namespace

int main()
{
    std::array<Line, filmTableLengths> lines;
    const auto work = [&](int first) {
        for (int i = first; i < filmTableLengths; i += 2)
            lines[static_cast<size_t>(i)] = lineAt(filmTableLength(i));
    };
    std::thread other(work, 1);
    work(0);
    other.join();
    std::puts("// SPDX-License-Identifier: GPL-3.0-or-later");
    std::puts("// Written by tools/make_film_table.cpp from solveFilm(); not by hand.");
    const auto row = [&](const char *open, auto value) {
        std::printf("%s", open);
        for (const Line &line : lines)
            std::printf("%.7g,", value(line));
        std::puts("},");
    };
    std::puts("constexpr double filmTableEnds[2][filmTableLengths] {");
    row("{", [](const Line &l) { return l.logLow; });
    row("{", [](const Line &l) { return l.logHigh; });
    std::puts("};");
    std::puts("constexpr double filmTableValues[filmTableQuantities][filmTableLoads]"
              "[filmTableLengths] {");
    for (size_t k = 0; k < filmTableQuantities; ++k) {
        std::puts("{");
        for (size_t i = 0; i < filmTableLoads; ++i)
            row("{", [&](const Line &l) { return l.values[k][i]; });
        std::puts("},");
    }
    std::puts("};");
}
