// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/film.h"

// The interpolator of Boost 1.74 takes isnan from the global namespace.
#include <math.h>

#include <Eigen/SparseCholesky>
#include <boost/math/interpolators/pchip.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <optional>

namespace mildpath {
namespace {

constexpr double leastEccentricity = 0.001, mostEccentricity = 0.99;

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
        if (full.size() != static_cast<size_t>(m_size)) {
            // The film ends a little after its narrowest place.
            full.assign(static_cast<size_t>(m_size), 0);
            std::fill(full.begin(), full.begin() + (m_n / 2 + m_n / 16) * m_m, 1);
        }
        assemble();
        findFilm(full);
        return measure();
    }

private:
    double film(double theta) const { return 1 + m_eps * std::cos(theta); }
    double cubed(double theta) const { return std::pow(film(theta), 3); }
    double width(int j) const { return j == 0 ? m_dz / 2 : m_dz; }
    int index(int i, int j) const { return (i - 1) * m_m + j; }

    /// A p = b with A symmetric positive definite: what flows out of a cell equals what the wedge
    /// brings.
    void assemble()
    {
        m_entries.clear();
        m_b = Eigen::VectorXd(m_size);
        m_diagonal = Eigen::VectorXd::Zero(m_size);
        for (int i = 1; i < m_n; ++i) {
            const double th = i * m_dTheta;
            const double east = cubed(th + m_dTheta / 2), west = cubed(th - m_dTheta / 2);
            const double over = m_across * cubed(th) * m_dTheta / m_dz;
            for (int j = 0; j < m_m; ++j) {
                const int k = index(i, j);
                const double along = width(j) / m_dTheta;
                m_b[k] = -width(j) * (film(th + m_dTheta / 2) - film(th - m_dTheta / 2));
                m_diagonal[k] += along * (east + west) + over * (j > 0 ? 2 : 1);
                if (i + 1 < m_n)
                    m_entries.emplace_back(index(i + 1, j), k, -along * east);
                if (j + 1 < m_m)
                    m_entries.emplace_back(index(i, j + 1), k, -over);
            }
        }
    }

    /// Where the film is full: p ≥ 0, A p − b ≥ 0, one of them 0 (primal-dual active set; finite
    /// for such a matrix).
    void findFilm(std::vector<char> &full)
    {
        m_p = Eigen::VectorXd::Zero(m_size);
        constexpr int mostRounds = 60;
        for (int round = 0; round < mostRounds; ++round) {
            solveWhere(full);
            const Eigen::VectorXd rest = times(m_p) - m_b;
            bool changed = false;
            for (int k = 0; k < m_size; ++k) {
                const char now = m_p[k] - rest[k] / m_diagonal[k] > 0;
                changed = changed || now != full[static_cast<size_t>(k)];
                full[static_cast<size_t>(k)] = now;
            }
            if (!changed)
                return;
        }
    }

    Eigen::VectorXd times(const Eigen::VectorXd &p) const
    {
        Eigen::VectorXd out = m_diagonal.cwiseProduct(p);
        for (const auto &e : m_entries) {
            out[e.row()] += e.value() * p[e.col()];
            out[e.col()] += e.value() * p[e.row()];
        }
        return out;
    }

    void solveWhere(const std::vector<char> &full)
    {
        // Cells out of the film keep their place with p = 0: the pattern stays, and with it the
        // order of elimination.
        std::vector<Eigen::Triplet<double>> kept;
        kept.reserve(m_entries.size() + static_cast<size_t>(m_size));
        Eigen::VectorXd right(m_size);
        for (int k = 0; k < m_size; ++k) {
            const bool in = full[static_cast<size_t>(k)];
            kept.emplace_back(k, k, in ? m_diagonal[k] : 1.0);
            right[k] = in ? m_b[k] : 0;
        }
        for (const auto &e : m_entries) {
            const bool both
                = full[static_cast<size_t>(e.row())] && full[static_cast<size_t>(e.col())];
            kept.emplace_back(e.row(), e.col(), both ? e.value() : 0.0);
        }
        Eigen::SparseMatrix<double> a(m_size, m_size);
        a.setFromTriplets(kept.begin(), kept.end());
        if (!m_analysed)
            m_solver.analyzePattern(a);
        m_analysed = true;
        m_solver.factorize(a);
        m_p = m_solver.solve(right);
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
    std::vector<Eigen::Triplet<double>> m_entries; ///< below the diagonal
    Eigen::VectorXd m_b, m_diagonal, m_p;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower> m_solver;
    bool m_analysed = false;
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

FilmTable::FilmTable(double lengthRatio, FilmGrid grid)
    : m_lengthRatio(lengthRatio)
{
    constexpr double places[] = { 0.99, 0.98, 0.96, 0.94, 0.9, 0.85, 0.8,  0.75, 0.7,
                                  0.6,  0.5,  0.4,  0.3,  0.2, 0.1,  0.05, 0.02, 0.001 };
    std::vector<char> full;
    for (const double eps : places) {
        m_logS.push_back(std::log(FilmProblem(eps, lengthRatio, grid).solve(full).sommerfeld));
        m_logFilm.push_back(std::log(1 - eps));
    }
}

double FilmTable::smallestFilmRatio(double sommerfeld) const
{
    const double x = std::clamp(std::log(sommerfeld), m_logS.front(), m_logS.back());
    return std::exp(boost::math::interpolators::pchip(std::vector<double>(m_logS),
                                                      std::vector<double>(m_logFilm))(x));
}

} // namespace mildpath
