// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Dense>

#include <vector>

namespace mildpath {

/// The linear equations of a film cut into lines across it: cells of a line hang together along the
/// bearing, lines only cell to like cell, the last with the first.
/// Block elimination line by line: of all orders the one that suits a film a few dozen cells wide
/// and hundreds long.
class BlockLines
{
public:
    /// @param lines  around the bearing  @param cells  in a line
    BlockLines(int lines, int cells)
        : m_lines(static_cast<size_t>(lines))
        , m_cells(cells)
        , m_diagonal(m_lines, Eigen::MatrixXd(cells, cells))
        , m_before(m_lines, Eigen::VectorXd::Zero(cells))
        , m_behind(m_lines, Eigen::VectorXd::Zero(cells))
        , m_right(m_lines, Eigen::VectorXd::Zero(cells))
        , m_carry(m_lines, Eigen::MatrixXd(cells, cells))
    {
    }

    void clear(size_t i)
    {
        m_diagonal[i].setZero();
        m_before[i].setZero();
        m_behind[i].setZero();
        m_right[i].setZero();
    }
    Eigen::MatrixXd &line(size_t i) { return m_diagonal[i]; }
    Eigen::VectorXd &before(size_t i) { return m_before[i]; } ///< factors on the line before
    Eigen::VectorXd &behind(size_t i) { return m_behind[i]; } ///< on the line behind
    Eigen::VectorXd &right(size_t i) { return m_right[i]; }

    /// Solves all lines, the last before the first. The last line is set apart: the rest answers
    /// to it linearly.
    void solveRound(std::vector<Eigen::VectorXd> &x)
    {
        const size_t last = m_lines - 1;
        forward(last);
        // How every line answers to the last one: at once for all its cells.
        std::vector<Eigen::MatrixXd> answer(last);
        Eigen::MatrixXd running = -(m_inverse[0] * m_before[0].asDiagonal());
        answer[0] = running;
        for (size_t i = 1; i < last; ++i) {
            running = -(m_inverse[i] * (m_before[i].asDiagonal() * running));
            if (i + 1 == last)
                running -= m_inverse[i] * m_behind[i].asDiagonal();
            answer[i] = running;
        }
        std::vector<Eigen::VectorXd> fixed(last);
        fixed[last - 1] = m_rest[last - 1];
        for (size_t i = last - 1; i-- > 0;) {
            fixed[i] = m_rest[i] - m_carry[i] * fixed[i + 1];
            answer[i] -= m_carry[i] * answer[i + 1];
        }
        Eigen::MatrixXd own = m_diagonal[last];
        own += m_before[last].asDiagonal() * answer[last - 1];
        own += m_behind[last].asDiagonal() * answer[0];
        const Eigen::VectorXd right = m_right[last] - m_before[last].cwiseProduct(fixed[last - 1])
            - m_behind[last].cwiseProduct(fixed[0]);
        x[last] = own.partialPivLu().solve(right);
        for (size_t i = 0; i < last; ++i)
            x[i] = fixed[i] + answer[i] * x[last];
    }

private:
    void forward(size_t count)
    {
        m_rest.resize(count);
        m_inverse.resize(count);
        for (size_t i = 0; i < count; ++i) {
            Eigen::MatrixXd own = m_diagonal[i];
            Eigen::VectorXd right = m_right[i];
            if (i > 0) {
                own -= m_before[i].asDiagonal() * m_carry[i - 1];
                right -= m_before[i].cwiseProduct(m_rest[i - 1]);
            }
            m_inverse[i] = own.inverse();
            m_carry[i].noalias() = m_inverse[i] * m_behind[i].asDiagonal();
            m_rest[i].noalias() = m_inverse[i] * right;
        }
    }

    size_t m_lines;
    int m_cells;
    std::vector<Eigen::MatrixXd> m_diagonal;
    std::vector<Eigen::VectorXd> m_before, m_behind, m_right;
    std::vector<Eigen::MatrixXd> m_carry, m_inverse;
    std::vector<Eigen::VectorXd> m_rest;
};

} // namespace mildpath
