// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include "plot/chart.h"
#include "plot/charttable.h"
#include "plot/chartview.h"
#include "plot/labels.h"

#include <QApplication>
#include <QClipboard>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>

using namespace mildpath;

namespace tst_chart {

/// The chart kit: axes in the unit shown, words apart, lines read off, figures as a table.
class TestChart : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void cleanup() { Figure::setSystem(UnitSystem::Metric); }
    void axis_isRoundInTheUnitShown_data();
    void axis_isRoundInTheUnitShown();
    void scale_bendsAndStraightens_data();
    void scale_bendsAndStraightens();
    void axis_takesOneCountOfDecimals();
    void roundedUp_coversInTheUnitShown();
    void height_isBetweenThePoints();
    void label_takesTheFreePlace();
    void label_keepsOffTheCurve();
    void table_holdsEveryLineAndDot();
    void table_goesToTheClipboard();
    void arrows_readTheLinesOff();
    void pointer_readsAndLeaves();
    void reversed_axisRunsTheOtherWay();
};

Chart twoLines()
{
    Chart c;
    c.x = { 0, 4000, 0, 1, Shows::Speed };
    c.y = { 0, 5e5, 0, 1, Shows::Pressure };
    c.lines = { { QStringLiteral("hot"), Qt::red, { 0, 2000, 4000 }, { 1e5, 2e5, 4e5 } },
                { QStringLiteral("cold"),
                  Qt::blue,
                  { 0, 4000 },
                  { 3e5, 3e5 },
                  { 2.5e5, 2.5e5 },
                  { 3.5e5, 3.5e5 } } };
    c.dots = { { 1000, 1.5e5, Qt::black, QStringLiteral("read") } };
    return c;
}

void TestChart::axis_isRoundInTheUnitShown_data()
{
    QTest::addColumn<int>("system");
    QTest::addColumn<int>("as");
    QTest::addColumn<double>("from");
    QTest::addColumn<double>("to");
    QTest::addColumn<QString>("ticks");
    const auto row
        = [](const char *name, UnitSystem s, Shows as, double from, double to, const char *ticks) {
              QTest::newRow(name) << static_cast<int>(s) << static_cast<int>(as) << from << to
                                  << QString::fromUtf8(ticks);
          };
    row("bar", UnitSystem::Metric, Shows::Pressure, 0, 5e5, "0 1 2 3 4 5");
    row("psi, not bars converted", UnitSystem::Imperial, Shows::Pressure, 0, 5e5, "0 20 40 60");
    row("fahrenheit, not 32 68 104", UnitSystem::Imperial, Shows::Temperature, -20, 140,
        "0 50 100 150 200 250");
    row("thou", UnitSystem::Imperial, Shows::Clearance, 0, 80e-6, "0 1 2 3");
    row("below nothing", UnitSystem::Metric, Shows::Temperature, -40, 0, "−40 −30 −20 −10 0");
}

void TestChart::axis_isRoundInTheUnitShown()
{
    QFETCH(int, system);
    QFETCH(int, as);
    QFETCH(double, from);
    QFETCH(double, to);
    Figure::setSystem(static_cast<UnitSystem>(system));
    const Axis axis { from, to, 0, 100, static_cast<Shows>(as) };
    QStringList ticks;
    for (const double v : axis.ticks()) {
        ticks << axis.tick(v);
        QVERIFY(v >= from - 1e-9 && v <= to * (1 + 1e-9) + 1e-9);
    }
    QTEST(ticks.join(u' '), "ticks");
    QCOMPARE(axis.title(), unitOf(static_cast<Shows>(as)));
}

void TestChart::scale_bendsAndStraightens_data()
{
    QTest::addColumn<int>("scale");
    QTest::addColumn<double>("from");
    QTest::addColumn<double>("to");
    QTest::newRow("linear") << static_cast<int>(Scale::Linear) << -3.0 << 8.0;
    QTest::newRow("log") << static_cast<int>(Scale::Log) << 0.05 << 60.0;
    QTest::newRow("viscosity") << static_cast<int>(Scale::Viscosity) << 3e-6 << 4e-3;
    QTest::newRow("temperature") << static_cast<int>(Scale::Kelvin) << -20.0 << 150.0;
    QTest::newRow("quantile") << static_cast<int>(Scale::Quantile) << 0.001 << 0.999;
}

void TestChart::scale_bendsAndStraightens()
{
    QFETCH(int, scale);
    QFETCH(double, from);
    QFETCH(double, to);
    const Axis axis { from, to, 300, 20, Shows::Number, static_cast<Scale>(scale) };
    double before = 1e9;
    for (int i = 0; i <= 20; ++i) {
        const double pixel = 300 - 14.0 * i;
        const double value = axis.valueAt(pixel);
        verifyClose(axis.at(value), pixel, 1e-9);
        verifyClose(axis.straight(axis.bent(value)), value, 1e-9);
        QVERIFY(axis.at(value) < before);
        before = axis.at(value);
    }
    verifyClose(axis.valueAt(300), from, 1e-9);
    verifyClose(axis.valueAt(20), to, 1e-9);
}

void TestChart::axis_takesOneCountOfDecimals()
{
    const Axis axis { 1.33e5, 1.52e5, 0, 100, Shows::Pressure, Scale::Linear, {}, 5 };
    QStringList ticks;
    for (const double v : axis.ticks())
        ticks << axis.tick(v);
    QCOMPARE(ticks.join(u' '), QStringLiteral("1.35 1.40 1.45 1.50"));
}

void TestChart::roundedUp_coversInTheUnitShown()
{
    for (const UnitSystem system : { UnitSystem::Metric, UnitSystem::Imperial }) {
        Figure::setSystem(system);
        for (double most = 0.3e5; most < 20e5; most *= 1.17) {
            const double top = roundedUp(most, Shows::Pressure);
            QVERIFY(top >= most * (1 - 1e-9));
            QVERIFY(top < most * 1.6);
            const double number = numberOf(top, Shows::Pressure) * 10;
            verifyClose(number, std::round(number), 1e-6);
        }
    }
}

void TestChart::height_isBetweenThePoints()
{
    const ChartLine line { {}, Qt::red, { 1, 2, 4 }, { 10, 30, 10 } };
    QVERIFY(!heightAt(line, 0.99));
    QVERIFY(!heightAt(line, 4.01));
    QCOMPARE(*heightAt(line, 1), 10.0);
    QCOMPARE(*heightAt(line, 1.5), 20.0);
    QCOMPARE(*heightAt(line, 3), 20.0);
    QCOMPARE(*heightAt(line, 4), 10.0);
}

void TestChart::label_takesTheFreePlace()
{
    LabelSpace space(QRectF(0, 0, 200, 100));
    const QRectF wanted(50, 50, 40, 16), other(50, 20, 40, 16);
    QCOMPARE(space.findPlace({ wanted, other }), wanted);
    QCOMPARE(space.findPlace({ wanted, other }), other);
    // Outside the area it is pushed in.
    QCOMPARE(space.findPlace({ QRectF(190, 90, 40, 16) }), QRectF(160, 84, 40, 16));
}

void TestChart::label_keepsOffTheCurve()
{
    LabelSpace space(QRectF(0, 0, 200, 100));
    space.avoid(QPolygonF { { QPointF(0, 0), QPointF(200, 100) } });
    const QRectF across(80, 42, 40, 16), clear(20, 70, 40, 16);
    QCOMPARE(space.findPlace({ across, clear }), clear);
    // Where there is no clear place, a line is crossed rather than a word covered.
    QCOMPARE(space.findPlace({ clear, across }), across);
}

void TestChart::table_holdsEveryLineAndDot()
{
    const ChartTable t = tableOf(twoLines());
    QCOMPARE(t.head.size(), 6); // x, hot, cold and its band, read
    QCOMPARE(t.rows.size(), size_t(4)); // 0, 1000, 2000, 4000
    QCOMPARE(t.rows[2][1], inWords(asPressure(2e5)));
    QVERIFY(t.rows[2][2].isEmpty()); // no point of the other line there: nothing is made up
    QCOMPARE(t.rows[1][5], inWords(asPressure(1.5e5)));
    QCOMPARE(t.rows[3][4], inWords(asPressure(3.5e5)));
}

void TestChart::table_goesToTheClipboard()
{
    const ChartTable t = tableOf(twoLines());
    ChartTableDialog dialog(QStringLiteral("x"), t);
    auto *cells = dialog.findChild<QTableWidget *>(QStringLiteral("chart.table"));
    QCOMPARE(cells->item(2, 1)->text(), t.rows[2][1]);
    for (QPushButton *b : dialog.findChildren<QPushButton *>())
        if (b->text() == QStringLiteral("Copy"))
            b->click();
    const QStringList lines = QApplication::clipboard()->text().split(u'\n');
    QCOMPARE(lines.size(), 6);
    QCOMPARE(lines[0].split(u'\t').size(), 6);
    QCOMPARE(lines[3].split(u'\t')[1], t.rows[2][1]);
}

void TestChart::arrows_readTheLinesOff()
{
    ChartView view;
    view.resize(500, 300);
    view.setChart(twoLines());
    view.show();
    view.setFocus();
    const QStringList read = view.readAt(2000);
    QCOMPARE(read.size(), 3);
    QVERIFY(read[1].contains(inWords(asPressure(2e5))));
    QVERIFY2(read[2].contains(inWords(QuantityRange { asPressure(2.5e5), asPressure(3.5e5) })),
             qPrintable(read[2]));
    QVERIFY(!view.pointed());
    QTest::keyClick(&view, Qt::Key_Right);
    const double first = view.pointed().value();
    QTest::keyClick(&view, Qt::Key_Right);
    QVERIFY(view.pointed().value() > first);
    QTest::keyClick(&view, Qt::Key_Escape);
    QVERIFY(!view.pointed());
    bool seen = false;
    QTimer::singleShot(0, &view, [&] {
        if (auto *dialog = view.findChild<ChartTableDialog *>()) {
            seen = true;
            dialog->reject();
        }
    });
    QTest::keyClick(&view, Qt::Key_Return);
    QVERIFY(seen);
}

void TestChart::pointer_readsAndLeaves()
{
    ChartView view;
    view.resize(500, 300);
    view.setChart(twoLines());
    view.show();
    const QPoint there = view.at(3000, 1e5).toPoint();
    QTest::mouseMove(&view, there);
    QTRY_VERIFY(view.pointed());
    verifyClose(*view.pointed(), 3000, 0.01);
    QTest::mouseMove(&view, QPoint(2, 2));
    QTRY_VERIFY(!view.pointed());
}

void TestChart::reversed_axisRunsTheOtherWay()
{
    Chart c = twoLines();
    std::swap(c.x.from, c.x.to);
    ChartView view;
    view.resize(500, 300);
    view.setChart(c);
    QVERIFY(view.at(4000, 0).x() < view.at(0, 0).x());
    QVERIFY(!c.x.ticks().empty());
}

} // namespace tst_chart

MILDPATH_TEST(tst_chart, TestChart)
#include "tst_chart.moc"
