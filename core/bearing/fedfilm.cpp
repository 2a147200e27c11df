// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/fedfilm.h"

#include "bearing/blocklines.h"
#include "bearing/filmtable.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int mostRounds = 80;
/// What a broken film loses of itself per step: rows that no feed reaches run dry instead of
/// keeping oil nobody brought.
constexpr double dries = 1e-9;

double turned(double angle_rad)
{
    return std::remainder(angle_rad, 2 * pi);
}

/// One discrete film. Cell (i, j) stands at th = i dTheta, z = j dz; the edge at z = 1 is outside.
class FedProblem
{
public:
    FedProblem(const FedJournal &b, FilmGrid grid)
        : m_bearing(b)
        , m_grid(grid)
        , m_n(grid.around)
        , m_m(grid.along)
        , m_dTheta(2 * pi / grid.around)
        , m_dz(1.0 / grid.along)
        , m_twoLands(b.feed.kind == FilmFeed::Kind::FullGroove)
        , m_shareOfLength(m_twoLands ? 1 - b.feed.widthRatio : 1)
        , m_across(std::pow(1 / (b.lengthRatio * m_shareOfLength), 2))
        , m_size(static_cast<size_t>(m_n * m_m))
        , m_fed(m_size, 0)
        , m_x(m_size, 0.0)
    {
        for (int i = 0; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j)
                m_fed[at(i, j)] = isFed(i * m_dTheta, j * m_dz);
    }

    FedFilm solve(std::vector<char> &full)
    {
        if (full.size() != m_size)
            full = firstGuess();
        FedFilm out {};
        BlockLines lines(m_n, m_m);
        for (int round = 0; round < mostRounds && !out.settled; ++round) {
            solveWhere(full, lines);
            out.settled = !contradicts(full);
        }
        measure(full, out);
        return out;
    }

private:
    size_t at(int i, int j) const { return static_cast<size_t>(((i + m_n) % m_n) * m_m + j); }
    double film(double theta) const { return 1 + m_bearing.eccentricityRatio * std::cos(theta); }
    double cubed(double theta) const { return std::pow(film(theta), 3); }
    double width(int j) const { return j == 0 ? m_dz / 2 : m_dz; }

    bool isFed(double theta, double z) const
    {
        const FilmFeed &f = m_bearing.feed;
        if (m_twoLands)
            return z == 0;
        const double away = std::abs(turned(theta - f.center_rad));
        const double half = f.widthRatio; // of half the bearing, like z
        if (f.kind == FilmFeed::Kind::Hole) {
            // Round on the shell: what is along in halves of L is around in radii.
            const double around = away / m_bearing.lengthRatio;
            return std::hypot(around, z) <= half + 1e-9;
        }
        return away <= f.arc_rad / 2 + 1e-9 && z <= half + 1e-9;
    }

    std::vector<char> firstGuess() const
    {
        std::vector<char> out(m_size, 1);
        if (m_n < 80 || m_m < 8)
            return out;
        const FilmGrid half { m_n / 2, m_m / 2 };
        std::vector<char> coarse;
        FedProblem(m_bearing, half).solve(coarse);
        for (int i = 0; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j)
                out[at(i, j)] = coarse[static_cast<size_t>((i / 2) % half.around * half.along
                                                           + std::min(j / 2, half.along - 1))];
        return out;
    }

    /// Content or pressure of every cell, with these cells full.
    void solveWhere(const std::vector<char> &full, BlockLines &lines)
    {
        for (int i = 0; i < m_n; ++i) {
            const auto line = static_cast<size_t>(i);
            lines.clear(line);
            for (int j = 0; j < m_m; ++j)
                writeCell(i, j, full, lines);
        }
        std::vector<Eigen::VectorXd> answer(static_cast<size_t>(m_n));
        lines.solveRound(answer);
        for (int i = 0; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j)
                m_x[at(i, j)] = answer[static_cast<size_t>(i)][j];
    }

    void writeCell(int i, int j, const std::vector<char> &full, BlockLines &lines) const
    {
        const auto line = static_cast<size_t>(i);
        const auto fullAt = [&](int a, int b) { return full[at(a, b)] || m_fed[at(a, b)]; };
        if (m_fed[at(i, j)]) {
            lines.line(line)(j, j) = 1;
            lines.right(line)[j] = 1;
            return;
        }
        const double th = i * m_dTheta, w = width(j);
        const double east = cubed(th + m_dTheta / 2) / m_dTheta * w;
        const double west = cubed(th - m_dTheta / 2) / m_dTheta * w;
        const double over = m_across * cubed(th) * m_dTheta / m_dz;
        const double drag = m_bearing.bearingNumber * w;
        const double out = drag * film(th + m_dTheta / 2), in = drag * film(th - m_dTheta / 2);
        double &own = lines.line(line)(j, j);
        double &right = lines.right(line)[j];
        if (fullAt(i, j)) {
            own = east + west + over * (j > 0 ? 2 : 1);
            right -= out;
        } else {
            own = out + dries;
        }
        if (fullAt(i - 1, j)) {
            lines.before(line)[j] = -west;
            right += in;
        } else {
            lines.before(line)[j] = -in;
        }
        if (fullAt(i + 1, j))
            lines.behind(line)[j] = -east;
        if (j + 1 < m_m && fullAt(i, j + 1))
            lines.line(line)(j, j + 1) = -over;
        if (j > 0 && fullAt(i, j - 1))
            lines.line(line)(j, j - 1) = -over;
    }

    /// Switches the cells that contradict what they were taken for.
    bool contradicts(std::vector<char> &full) const
    {
        bool any = false;
        for (size_t k = 0; k < m_size; ++k) {
            if (m_fed[k])
                continue;
            const char now = full[k] ? m_x[k] >= 0 : m_x[k] > 1 + 1e-9;
            any = any || now != full[k];
            full[k] = now;
        }
        return any;
    }

    void measure(const std::vector<char> &full, FedFilm &out) const
    {
        const FedJournal &b = m_bearing;
        out.grid = m_grid;
        out.pressure.resize(m_size);
        out.content.resize(m_size);
        for (size_t k = 0; k < m_size; ++k) {
            const bool filled = full[k] || m_fed[k];
            out.pressure[k] = filled ? std::max(0.0, m_x[k]) : 0;
            out.content[k] = filled ? 1 : std::clamp(m_x[k], 0.0, 1.0);
        }
        double sine = 0, cosine = 0, side = 0, shear = 0, wedge = 0, area = 0, whole = 0;
        for (int i = 0; i < m_n; ++i) {
            const double th = i * m_dTheta;
            for (int j = 0; j < m_m; ++j) {
                const size_t k = at(i, j);
                const double p = out.pressure[k], a = m_dTheta * width(j);
                sine += p * std::sin(th) * a;
                cosine += p * std::cos(th) * a;
                whole += a;
                area += out.content[k] >= 1 ? a : 0;
                if (!m_fed[k])
                    shear += out.content[k] / film(th) * a;
                wedge += film(th + m_dTheta / 2) * (out.pressure[at(i + 1, j)] - p) * width(j);
                if (p > out.peakPressure) {
                    out.peakPressure = p;
                    out.peakAngle_rad = th;
                }
            }
            side += cubed(th) * out.pressure[at(i, m_m - 1)] / m_dz * m_dTheta;
        }
        const double w = std::hypot(sine, cosine);
        out.load = w / 2 * m_shareOfLength;
        out.attitude_rad = std::atan2(sine, -cosine);
        // Radius over the length of half the bearing, or of one land.
        out.sideFlow = std::sqrt(m_across) / 6 * side;
        out.feedFlow = std::sqrt(m_across) / 6 * fedIn(out);
        out.fullShare = area / whole;
        const double drag = b.bearingNumber > 0 ? 3 / b.bearingNumber * wedge : 0;
        out.frictionOverPetroff = (shear + drag) / (2 * pi) * m_shareOfLength;
    }

    /// What the fed cells give to their neighbours, drag and pressure, less what they take.
    double fedIn(const FedFilm &f) const
    {
        double out = 0;
        for (int i = 0; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j) {
                if (!m_fed[at(i, j)])
                    continue;
                const double th = i * m_dTheta, w = width(j);
                const double east = film(th + m_dTheta / 2), west = film(th - m_dTheta / 2);
                const double p = f.pressure[at(i, j)];
                const double over = m_across * cubed(th) * m_dTheta / m_dz;
                out += w * m_bearing.bearingNumber * (east - f.content[at(i - 1, j)] * west);
                out -= w * std::pow(east, 3) / m_dTheta * (f.pressure[at(i + 1, j)] - p);
                out += w * std::pow(west, 3) / m_dTheta * (p - f.pressure[at(i - 1, j)]);
                out += over * (p - (j + 1 < m_m ? f.pressure[at(i, j + 1)] : 0));
                if (j > 0)
                    out += over * (p - f.pressure[at(i, j - 1)]);
            }
        return out / m_across;
    }

    FedJournal m_bearing;
    FilmGrid m_grid;
    int m_n, m_m;
    double m_dTheta, m_dz;
    bool m_twoLands;
    double m_shareOfLength, m_across;
    size_t m_size;
    std::vector<char> m_fed;
    std::vector<double> m_x; ///< pressure where full, content elsewhere
};

} // namespace

FedFilm solveFedFilm(const FedJournal &bearing, FilmGrid grid)
{
    std::vector<char> full;
    return FedProblem(bearing, grid).solve(full);
}

Result<FedLoadedFilm> fedFilmUnderLoad(const FedLoadedBearing &b, FilmGrid grid)
{
    const double r = b.bearing.journalDiameter_m / 2, c = b.bearing.clearance.value_m / 2;
    const double omega = 2 * pi * b.bearing.speed_rpm / 60;
    const double mu = b.bearing.viscosity_pa_s;
    const double wanted
        = b.bearing.load_n / (b.feed_pa * b.bearing.journalDiameter_m * b.bearing.length_m);
    FedJournal at { .eccentricityRatio = 0,
                    .lengthRatio = b.bearing.length_m / b.bearing.journalDiameter_m,
                    .bearingNumber = 6 * mu * omega * std::pow(r / c, 2) / b.feed_pa,
                    .feed = { b.kind, 0, b.arc_rad, b.widthRatio } };
    double attitude = pi / 4;
    std::vector<char> full;
    FedFilm film {};
    // The feed keeps its place in the shell while the journal finds its own.
    const auto carried = [&](double eps) {
        at.eccentricityRatio = eps;
        constexpr int mostTurns = 12;
        for (int i = 0; i < mostTurns; ++i) {
            at.feed.center_rad = turned(b.feedFromLoad_rad - attitude - pi);
            film = FedProblem(at, grid).solve(full);
            const double miss = turned(film.attitude_rad - attitude);
            attitude += 0.8 * miss;
            if (std::abs(miss) < 0.005)
                break;
        }
        return std::log(std::max(film.load, 1e-12) / wanted);
    };
    double low = 0.02, high = mostEccentricity;
    double atLow = carried(low);
    if (atLow < 0) {
        const double atHigh = carried(high);
        if (atHigh < 0)
            return fail("load_n", "no film carries this load: the eccentricity would pass 0.99");
        std::uintmax_t most = 30;
        const auto root = boost::math::tools::toms748_solve(
            carried, low, high, atLow, atHigh, boost::math::tools::eps_tolerance<double>(10), most);
        low = (root.first + root.second) / 2;
        carried(low);
    }
    FedLoadedFilm out {};
    out.eccentricityRatio = low;
    out.smallestFilm_m = c * (1 - low);
    out.feedFlow_m3_s = film.feedFlow * b.feed_pa * c * c * c / mu;
    out.peak_pa = film.peakPressure * b.feed_pa;
    out.loss_w = film.frictionOverPetroff * 2 * pi * mu * omega * omega * r * r * r
        * b.bearing.length_m / c;
    out.film = std::move(film);
    return out;
}

} // namespace mildpath
