// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/elimination.h"
#include "testing.h"

#include <Eigen/Dense>

#include <random>

using namespace mildpath;

namespace tst_elimination {

class TestElimination : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void solution_agreesWithGeneralLibrary_data();
    void solution_agreesWithGeneralLibrary();
    void nodeWithoutAnything_isReported();
};

void TestElimination::solution_agreesWithGeneralLibrary_data()
{
    QTest::addColumn<int>("size");
    QTest::addColumn<int>("loops");
    QTest::newRow("one unknown") << 1 << 0;
    QTest::newRow("tree") << 40 << 0;
    QTest::newRow("ring and branches") << 40 << 6;
    QTest::newRow("well meshed") << 30 << 60;
}

/// Eigen's dense LDLT is the general-purpose reference.
void TestElimination::solution_agreesWithGeneralLibrary()
{
    QFETCH(int, size);
    QFETCH(int, loops);
    std::mt19937 random(20240607); // fixed: the same matrices in every run
    std::uniform_real_distribution<double> strength(-3, 3);
    const auto node = [&] { return static_cast<int>(random() % static_cast<unsigned>(size)); };
    std::vector<std::pair<int, int>> pairs;
    for (int i = 1; i < size; ++i)
        pairs.emplace_back(i, static_cast<int>(random() % static_cast<unsigned>(i)));
    for (int i = 0; i < loops; ++i)
        pairs.emplace_back(node(), node());

    const Elimination elimination(size, pairs);
    Elimination::Values values = elimination.zero();
    Eigen::MatrixXd dense = Eigen::MatrixXd::Zero(size, size);
    for (int i = 0; i < size; ++i) {
        values.diagonal[static_cast<size_t>(i)] += 1e-3;
        dense(i, i) += 1e-3;
    }
    for (const auto &[a, b] : pairs) {
        if (a == b)
            continue;
        const double g = std::pow(10, strength(random));
        values.diagonal[static_cast<size_t>(a)] += g;
        values.diagonal[static_cast<size_t>(b)] += g;
        values.offDiagonal[static_cast<size_t>(elimination.slot(a, b))] -= g;
        dense(a, a) += g;
        dense(b, b) += g;
        dense(a, b) -= g;
        dense(b, a) -= g;
    }
    Eigen::VectorXd right(size);
    for (int i = 0; i < size; ++i)
        right(i) = strength(random);
    const Eigen::VectorXd expected = dense.ldlt().solve(right);
    std::vector<double> x(right.data(), right.data() + size);
    QCOMPARE(elimination.factorize(values), -1);
    elimination.solve(values, x);
    for (int i = 0; i < size; ++i)
        verifyClose(x[static_cast<size_t>(i)], expected(i), 1e-6, 1e-9);
}

void TestElimination::nodeWithoutAnything_isReported()
{
    const Elimination elimination(3, std::vector<std::pair<int, int>> { { 0, 1 } });
    Elimination::Values values = elimination.zero();
    values.diagonal = { 1, 1, 0 };
    QCOMPARE(elimination.factorize(values), 2);
}

} // namespace tst_elimination

MILDPATH_TEST(tst_elimination, TestElimination)
#include "tst_elimination.moc"
