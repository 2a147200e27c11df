// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/filmtable.h"

#include <Eigen/Core>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <optional>

namespace mildpath {
namespace {

/// A symmetric positive definite band matrix, solved in place by LDLᵀ. A general sparse solver
/// takes eight times as long: the film is a few dozen cells wide and hundreds long.
class Band
{
public:
    void start(int size, int width)
    {
        m_size = size;
        m_rows = width + 1;
        m_a.setZero(static_cast<Eigen::Index>(size) * m_rows);
    }
    /// Entry `below` places below the diagonal of a column.
    double &at(int column, int below)
    {
        return m_a[static_cast<Eigen::Index>(column) * m_rows + below];
    }
    /// @param x  the right side; afterwards the answer in its first `size` places
    void solve(Eigen::VectorXd &x)
    {
        for (int k = 0; k < m_size; ++k) {
            const int reach = std::min(m_rows - 1, m_size - 1 - k);
            const double pivot = at(k, 0);
            for (int r = 1; r <= reach; ++r) {
                const double factor = at(k, r) / pivot;
                if (factor == 0)
                    continue;
                column(k + r, 0, reach - r + 1) -= factor * column(k, r, reach - r + 1);
                x[k + r] -= factor * x[k];
            }
        }
        for (int k = m_size - 1; k >= 0; --k) {
            const int reach = std::min(m_rows - 1, m_size - 1 - k);
            x[k] = (x[k] - column(k, 1, reach).dot(x.segment(k + 1, reach))) / at(k, 0);
        }
    }

private:
    Eigen::Map<Eigen::VectorXd> column(int k, int from, int count)
    {
        return { &at(k, from), count };
    }

    int m_size = 0, m_rows = 1;
    Eigen::VectorXd m_a;
};

/// The discrete film: unknowns p(i, j), i = 1…around − 1, j = 0…along − 1; p = 0 at th = 0, 2 pi
/// and at the edge.
class FilmProblem
{
public:
    FilmProblem(double eccentricity, double lengthRatio, FilmGrid grid)
        : m_eps(eccentricity)
        , m_n(grid.around)
        , m_m(grid.along)
        , m_dTheta(2 * pi / grid.around)
        , m_dz(1.0 / grid.along)
        , m_across(1 / (lengthRatio * lengthRatio))
        , m_size((m_n - 1) * m_m)
    {
    }

    /// @param full  where the film was full in a like problem; afterwards, where it is in this one
    FilmSolution solve(std::vector<char> &full)
    {
        if (full.size() != static_cast<size_t>(m_size))
            full = firstGuess();
        assemble();
        findFilm(full);
        return measure();
    }

private:
    /// From a grid of half as many cells each way; where that is too coarse, a little past the
    /// narrowest place.
    std::vector<char> firstGuess() const
    {
        std::vector<char> out(static_cast<size_t>(m_size), 0);
        if (m_n < 80 || m_m < 8) {
            std::fill(out.begin(), out.begin() + (m_n / 2 + m_n / 16) * m_m, 1);
            return out;
        }
        std::vector<char> coarse;
        const FilmGrid half { m_n / 2, m_m / 2 };
        FilmProblem(m_eps, 1 / std::sqrt(m_across), half).solve(coarse);
        for (int i = 1; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j) {
                const int line = std::clamp((i + 1) / 2, 1, half.around - 1);
                out[static_cast<size_t>(index(i, j))] = coarse[static_cast<size_t>(
                    (line - 1) * half.along + std::min(j / 2, half.along - 1))];
            }
        return out;
    }

    double film(double theta) const { return 1 + m_eps * std::cos(theta); }
    double cubed(double theta) const { return std::pow(film(theta), 3); }
    double width(int j) const { return j == 0 ? m_dz / 2 : m_dz; }
    int index(int i, int j) const { return (i - 1) * m_m + j; }

    /// A p = b with A symmetric positive definite: what flows out of a cell equals what the wedge
    /// brings.
    void assemble()
    {
        m_east.assign(static_cast<size_t>(m_n), 0.0);
        m_over.assign(static_cast<size_t>(m_n), 0.0);
        m_b = Eigen::VectorXd(m_size);
        m_diagonal = Eigen::VectorXd(m_size);
        for (int i = 0; i < m_n; ++i) {
            m_east[static_cast<size_t>(i)] = cubed((i + 0.5) * m_dTheta) / m_dTheta;
            m_over[static_cast<size_t>(i)] = m_across * cubed(i * m_dTheta) * m_dTheta / m_dz;
        }
        for (int i = 1; i < m_n; ++i)
            for (int j = 0; j < m_m; ++j) {
                const int k = index(i, j);
                const double th = i * m_dTheta;
                m_b[k] = -width(j) * (film(th + m_dTheta / 2) - film(th - m_dTheta / 2));
                m_diagonal[k] = width(j) * (east(i) + east(i - 1)) + over(i) * (j > 0 ? 2 : 1);
            }
    }
    double east(int i) const { return m_east[static_cast<size_t>(i)]; }
    double over(int i) const { return m_over[static_cast<size_t>(i)]; }

    /// Where the film is full: p ≥ 0, A p − b ≥ 0, one of them 0 (primal-dual active set; finite
    /// for such a matrix).
    void findFilm(std::vector<char> &full)
    {
        m_p = Eigen::VectorXd::Zero(m_size);
        constexpr int mostRounds = 60;
        for (int round = 0; round < mostRounds; ++round) {
            solveWhere(full);
            bool changed = false;
            for (int i = 1; i < m_n; ++i)
                for (int j = 0; j < m_m; ++j) {
                    const int k = index(i, j);
                    const char now = m_p[k] - rest(i, j) / m_diagonal[k] > 0;
                    changed = changed || now != full[static_cast<size_t>(k)];
                    full[static_cast<size_t>(k)] = now;
                }
            if (!changed)
                return;
        }
    }

    /// (A p − b) of a cell.
    double rest(int i, int j) const
    {
        const int k = index(i, j);
        double out = m_diagonal[k] * m_p[k] - m_b[k];
        if (i + 1 < m_n)
            out -= width(j) * east(i) * m_p[k + m_m];
        if (i > 1)
            out -= width(j) * east(i - 1) * m_p[k - m_m];
        if (j + 1 < m_m)
            out -= over(i) * m_p[k + 1];
        if (j > 0)
            out -= over(i) * m_p[k - 1];
        return out;
    }

    void solveWhere(const std::vector<char> &full)
    {
        const auto in = [&](int k) { return full[static_cast<size_t>(k)] != 0; };
        int count = 0; // behind the last full cell nothing is to be solved
        for (int k = 0; k < m_size; ++k)
            if (in(k))
                count = k + 1;
        m_band.start(count, m_m);
        m_p.setZero();
        for (int k = 0; k < count; ++k) {
            const int i = k / m_m + 1, j = k % m_m;
            // Cells out of the film stay in the equations with p = 0.
            m_band.at(k, 0) = in(k) ? m_diagonal[k] : 1;
            if (!in(k))
                continue;
            m_p[k] = m_b[k];
            if (j + 1 < m_m && k + 1 < count && in(k + 1))
                m_band.at(k, 1) = -over(i);
            if (k + m_m < count && in(k + m_m))
                m_band.at(k, m_m) = -width(j) * east(i);
        }
        m_band.solve(m_p);
    }

    FilmSolution measure() const
    {
        double sine = 0, cosine = 0, wedge = 0, most = 0, side = 0, inflow = 0, shear = 0;
        for (int i = 1; i < m_n; ++i) {
            const double th = i * m_dTheta;
            for (int j = 0; j < m_m; ++j) {
                const double p = m_p[index(i, j)], area = m_dTheta * width(j);
                sine += p * std::sin(th) * area;
                cosine += p * std::cos(th) * area;
                wedge += p * m_eps * std::sin(th) * area;
                most = std::max(most, p);
            }
            side += m_across * cubed(th) * m_p[index(i, m_m - 1)] / m_dz * m_dTheta;
        }
        for (int i = 0; i < m_n; ++i)
            shear += m_dTheta / film((i + 0.5) * m_dTheta);
        for (int j = 0; j < m_m; ++j)
            inflow += width(j)
                * (film(m_dTheta / 2) - cubed(m_dTheta / 2) * m_p[index(1, j)] / m_dTheta);
        // The outermost half cell bears no pressure: it drags oil in at the widest film and keeps
        // what passes the narrowest.
        inflow += m_dz / 2 * (1 + m_eps);
        side += m_dz / 2 * 2 * m_eps;
        const double w = std::hypot(sine, cosine);
        FilmSolution out {};
        out.eccentricityRatio = m_eps;
        out.lengthRatio = 1 / std::sqrt(m_across);
        out.sommerfeld = 1 / (6 * pi * w);
        out.attitude_rad = std::atan2(sine, -cosine);
        out.frictionVariable = (shear + 3 * wedge) / (6 * w);
        out.inflowVariable = pi * inflow;
        out.sideFlowRatio = side / inflow;
        out.pressureRatio = w / (2 * most);
        return out;
    }

    double m_eps;
    int m_n, m_m;
    double m_dTheta, m_dz, m_across;
    int m_size;
    std::vector<double> m_east, m_over; ///< of a line's faces and edges
    Eigen::VectorXd m_b, m_diagonal, m_p;
    Band m_band;
};

} // namespace

FilmSolution solveFilm(double eccentricityRatio, double lengthRatio, FilmGrid grid)
{
    std::vector<char> full;
    return FilmProblem(eccentricityRatio, lengthRatio, grid).solve(full);
}

double sommerfeldNumber(const LoadedBearing &b)
{
    const double pressure = b.load_n / (b.journalDiameter_m * b.length_m);
    return std::pow(b.journalDiameter_m / b.clearance.value_m, 2) * b.viscosity_pa_s * b.speed_rpm
        / 60 / pressure;
}

Result<FilmSolution> filmUnderLoad(const LoadedBearing &bearing, FilmGrid grid)
{
    const double wanted = sommerfeldNumber(bearing);
    const double ratio = bearing.length_m / bearing.journalDiameter_m;
    const FilmSolution light = solveFilm(leastEccentricity, ratio, grid);
    if (wanted >= light.sommerfeld) {
        // So lightly loaded that everything is linear in the eccentricity.
        FilmSolution out = light;
        out.eccentricityRatio *= light.sommerfeld / wanted;
        out.frictionVariable *= wanted / light.sommerfeld;
        out.sideFlowRatio *= light.sommerfeld / wanted;
        out.sommerfeld = wanted;
        return out;
    }
    // First on a coarse grid, then close about what that found.
    const auto root = [&](FilmGrid on, double from, double to, int bits) -> std::optional<double> {
        std::vector<char> full;
        const auto miss = [&](double eps) {
            return std::log(FilmProblem(eps, ratio, on).solve(full).sommerfeld / wanted);
        };
        const double first = miss(from), last = miss(to);
        if (first < 0 || last > 0)
            return std::nullopt;
        std::uintmax_t most = 40;
        const auto [low, high] = boost::math::tools::toms748_solve(
            miss, from, to, first, last, boost::math::tools::eps_tolerance<double>(bits), most);
        return (low + high) / 2;
    };
    const auto rough = root({ 60, 6 }, leastEccentricity, mostEccentricity, 14);
    std::optional<double> eps;
    if (rough)
        eps = root(grid, std::max(leastEccentricity, *rough - 0.02 * (1 - *rough) - 0.005),
                   std::min(mostEccentricity, *rough + 0.02 * (1 - *rough) + 0.005), 24);
    if (!eps)
        eps = root(grid, leastEccentricity, mostEccentricity, 24);
    if (!eps)
        return fail("load_n", "no film carries this load: the eccentricity would pass 0.99");
    return solveFilm(*eps, ratio, grid);
}

} // namespace mildpath
