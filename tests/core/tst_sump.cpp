// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/drainback.h"
#include "sump/drive.h"
#include "sump/fillwindow.h"
#include "sump/gas.h"
#include "sump/intake.h"
#include "sump/level.h"
#include "sump/priming.h"
#include "sump/risk.h"
#include "sump/threads.h"
#include "sump/windage.h"
#include "testing.h"

#include <cmath>
#include <random>

using namespace mildpath;

namespace tst_sump {

class TestSump : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void clippedOil_isTheFill_whateverThePan();
    void symmetricPan_answersAlikeBothWays();
    void moreOil_neverUncoversSooner();
    void box_asAPolygon_isTheClosedForm();
    void orderOfThePoints_doesNotMatter();
    void wrongProfile_isSaidWithItsPlace_data();
    void wrongProfile_isSaidWithItsPlace();
    void benchFill_holdsWhatWasMeasured_data();
    void benchFill_holdsWhatWasMeasured();
    void benchFill_thatFalls_isRefused();
    void wedgeTable_isAQuadratic();
    void tableAndItsInverse_agree();
    void overflow_isAnError();
    void slice_tiltedByNothing_showsThePansLevel();
    void windowLimits_areWhereTheLimitsAreReached();
    void compartment_asANumericalIntegralSaysIt_data();
    void compartment_asANumericalIntegralSaysIt();
    void compartment_comesBack_asANumericalIntegralSaysIt();
    void handbookValues_data();
    void handbookValues();
    void windage_ranksByGapAndSpeed();
    void threads_tellTheTrap_data();
    void threads_tellTheTrap();
    void overall_isNeverLowWithGaps();
    void drive_slowPartStays_sloshGoes();
    void drain_emptiesAsTorricelliSays();
    void dryPump_liftsLessWhenWorn();
};

namespace {

using Random = std::mt19937;

double draw(Random &random, double from, double to)
{
    return std::uniform_real_distribution(from, to)(random);
}

/// A random pan without crossings: corners round a middle, by rising angle.
Profile randomPan(Random &random)
{
    Profile out;
    const int corners = 3 + static_cast<int>(draw(random, 0, 9));
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * pi * (i + draw(random, 0.05, 0.95)) / corners;
        const double r = draw(random, 0.05, 0.3);
        out.push_back({ r * std::cos(angle), r * std::sin(angle) });
    }
    return out;
}

/// Stepped, with a bowl in the middle: symmetric about x = 0.2.
Profile bowl()
{
    return { { 0, 0.06 },    { 0.12, 0.06 }, { 0.14, 0 },  { 0.26, 0 },
             { 0.28, 0.06 }, { 0.4, 0.06 },  { 0.4, 0.3 }, { 0, 0.3 } };
}

} // namespace

void TestSump::clippedOil_isTheFill_whateverThePan()
{
    Random random(1);
    for (int i = 0; i < 2000; ++i) {
        const Profile pan = randomPan(random);
        const double whole = profileArea_m2(pan), area = draw(random, 0, 1) * whole;
        const double tilt = draw(random, -1.5, 1.5);
        const auto surface = surfaceOver(pan, tilt, area);
        QVERIFY(surface);
        verifyClose(areaBelow_m2(pan, *surface), area, 1e-9, 1e-12, QString::number(i));
        // What is drawn is what is computed.
        verifyClose(profileArea_m2(clippedBelow(pan, *surface)), area, 1e-9, 1e-12,
                    QString::number(i));
    }
}

void TestSump::symmetricPan_answersAlikeBothWays()
{
    Random random(2);
    const SectionPoint mouth { 0.2, 0.01 };
    for (int i = 0; i < 200; ++i) {
        const double tilt = draw(random, 0, 1.4),
                     area = draw(random, 0.001, 0.9) * profileArea_m2(bowl());
        const auto left = surfaceOver(bowl(), tilt, area), right = surfaceOver(bowl(), -tilt, area);
        QVERIFY(left && right);
        verifyClose(left->depthOf_m(mouth), right->depthOf_m(mouth), 1e-9, 1e-9,
                    QString::number(i));
    }
}

void TestSump::moreOil_neverUncoversSooner()
{
    Random random(3);
    for (int i = 0; i < 300; ++i) {
        const Profile pan = randomPan(random);
        const double tilt = draw(random, -1.4, 1.4), whole = profileArea_m2(pan);
        const SectionPoint mouth { draw(random, -0.1, 0.1), draw(random, -0.2, 0.1) };
        double last = -1e9;
        for (double share = 0.05; share < 1; share += 0.05) {
            const auto surface = surfaceOver(pan, tilt, share * whole);
            QVERIFY(surface);
            QVERIFY(surface->depthOf_m(mouth) >= last - 1e-12);
            last = surface->depthOf_m(mouth);
        }
    }
}

void TestSump::box_asAPolygon_isTheClosedForm()
{
    Random random(4);
    for (int i = 0; i < 300; ++i) {
        const double l = draw(random, 0.1, 0.6), w = draw(random, 0.1, 0.4);
        const double volume = draw(random, 0.0005, 0.008), tilt = draw(random, -1.2, 1.2);
        const SectionPoint mouth { draw(random, 0.01, 0.99) * l, 0.008 };
        const TiltedBox box = tiltedBox(l, w, 0.1, volume, mouth, tilt);
        // Walls that go on upwards: high enough for any of these.
        const Profile pan { { 0, 0 }, { l, 0 }, { l, 5 }, { 0, 5 } };
        const auto surface = surfaceOver(pan, tilt, volume / w);
        QVERIFY(surface);
        if (box.atPickup_m > 1e-9)
            verifyClose(surface->depthOf_m(mouth), box.submergence_m, 1e-9, 1e-9,
                        QString::number(i));
        else
            QVERIFY(surface->heightAt_m(mouth.x_m) <= 1e-9);
    }
    // Both formulas meet where the floor just falls dry (geometry).
    const double tilt = 0.5, h0 = 0.3 * std::tan(tilt) / 2;
    verifyClose(tiltedBox(0.3, 0.2, 0.1, h0 * 0.3 * 0.2, { 0.1, 0 }, tilt).low_m, 0, 0, 1e-12,
                QStringLiteral("low end"));
}

void TestSump::orderOfThePoints_doesNotMatter()
{
    Profile turned = bowl();
    std::reverse(turned.begin(), turned.end());
    const auto a = surfaceOver(bowl(), 0.7, 0.02), b = surfaceOver(turned, 0.7, 0.02);
    verifyClose(a->offset_m, b->offset_m, 1e-12, 0, QStringLiteral("offset"));
}

void TestSump::wrongProfile_isSaidWithItsPlace_data()
{
    QTest::addColumn<QList<double>>("points");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("word");
    const auto row = [](const char *what, QList<double> p, const char *place, const char *word) {
        QTest::newRow(what) << p << QString::fromLatin1(place) << QString::fromLatin1(word);
    };
    row("two points", { 0, 0, 1, 0 }, "", "three points");
    row("a bow tie", { 0, 0, 1, 1, 1, 0, 0, 1 }, "2", "crosses");
    row("a corner twice", { 0, 0, 1, 0, 1, 0, 1, 1 }, "2", "stands where");
    row("folds back on itself", { 0, 0, 2, 0, 1, 0, 1, 1 }, "1", "crosses");
    row("touches itself", { 0, 0, 4, 0, 4, 4, 2, 0, 0, 4 }, "2", "crosses");
    row("not a number", { 0, 0, 1, 0, 1, std::nan("") }, "2", "number");
}

void TestSump::wrongProfile_isSaidWithItsPlace()
{
    QFETCH(QList<double>, points);
    QFETCH(QString, place);
    QFETCH(QString, word);
    Profile p;
    for (qsizetype i = 0; i + 1 < points.size(); i += 2)
        p.push_back({ points[i], points[i + 1] });
    const auto ok = checkProfile(p);
    QVERIFY(!ok);
    QCOMPARE(QString::fromStdString(ok.error().place), place);
    QVERIFY2(QString::fromStdString(said(ok.error().message)).contains(word),
             said(ok.error().message).c_str());
    QVERIFY(checkProfile(bowl()));
}

void TestSump::benchFill_holdsWhatWasMeasured_data()
{
    QTest::addColumn<QList<double>>("steps"); // mm, litres
    QTest::newRow("box") << QList<double> { 20, 1, 40, 2, 60, 3 };
    QTest::newRow("bowl, then shelf") << QList<double> { 30, 0.8, 60, 1.7, 70, 3.2, 90, 6.4 };
    QTest::newRow("narrows above") << QList<double> { 20, 2, 40, 3, 60, 3.2, 80, 3.3 };
    QTest::newRow("leaps between layers") << QList<double> { 10, 0.01, 20, 3, 30, 3.01 };
    QTest::newRow("begins with nothing at 0") << QList<double> { 0, 0, 25, 1.5, 50, 4 };
}

void TestSump::benchFill_holdsWhatWasMeasured()
{
    QFETCH(QList<double>, steps);
    std::vector<FillStep> fill;
    for (qsizetype i = 0; i + 1 < steps.size(); i += 2)
        fill.push_back({ steps[i] * 1e-3, steps[i + 1] * 1e-3 });
    const double length = 0.4;
    const auto section = sectionFromFill(fill, length);
    QVERIFY(section);
    QVERIFY(checkProfile(*section));
    for (const FillStep &s : fill)
        verifyClose(areaBelow_m2(*section, { 0, s.height_m }) * length, s.volume_m3, 1e-9, 1e-12,
                    QString::number(s.height_m));
}

void TestSump::benchFill_thatFalls_isRefused()
{
    const FillStep falling[] { { 0.02, 0.002 }, { 0.04, 0.001 } };
    const auto bad = sectionFromFill(falling, 0.4);
    QVERIFY(!bad);
    QCOMPARE(QString::fromStdString(bad.error().place), QStringLiteral("2"));
    const FillStep sinking[] { { 0.04, 0.002 }, { 0.02, 0.003 } };
    QVERIFY(QString::fromStdString(said(sectionFromFill(sinking, 0.4).error().message))
                .contains(u"heights"));
}

void TestSump::wedgeTable_isAQuadratic()
{
    // V = A h²/(2 H) of a wedge: geometry.
    const auto t = HeightTable::make({ 0, 0.1 }, { 0, 0.04 });
    QVERIFY(t);
    verifyClose(t->volumeBelow_m3(0.05), 0.04 * 0.05 * 0.05 / 0.2, 1e-12, 0,
                QStringLiteral("half"));
    verifyClose(*t->level_m(0.04 * 0.05 * 0.05 / 0.2), 0.05, 1e-12, 0, QStringLiteral("back"));
}

void TestSump::tableAndItsInverse_agree()
{
    Random random(5);
    for (int i = 0; i < 200; ++i) {
        std::vector<double> h { 0 }, a { draw(random, 0, 0.05) };
        for (int k = 0; k < 5; ++k) {
            h.push_back(h.back() + draw(random, 0.005, 0.05));
            a.push_back(draw(random, 0.001, 0.1));
        }
        const auto t = HeightTable::make(h, a);
        QVERIFY(t);
        const double v = draw(random, 0, 1) * t->whole_m3();
        const auto level = t->level_m(v);
        QVERIFY(level);
        verifyClose(t->volumeBelow_m3(*level), v, 1e-9, 1e-15, QString::number(i));
    }
}

void TestSump::overflow_isAnError()
{
    const auto t = HeightTable::make({ 0, 0.1 }, { 0.04, 0.04 });
    QCOMPARE(QString::fromStdString(t->level_m(0.0041).error().place), QStringLiteral("fill_l"));
    const auto s = surfaceOver(bowl(), 0, 2 * profileArea_m2(bowl()));
    QVERIFY(!s);
    QCOMPARE(QString::fromStdString(s.error().place), QStringLiteral("volume_l"));
}

void TestSump::slice_tiltedByNothing_showsThePansLevel()
{
    const PanPrism pan { bowl(), 0.25 };
    const HungSection slice {
        { { -0.1, 0 }, { 0.1, 0 }, { 0.13, 0.3 }, { -0.13, 0.3 } }, {}, {}, true
    };
    const HungSection own { bowl(), {}, {} };
    for (const double litres : { 0.5, 2.0, 4.0, 9.0 }) {
        const auto a = surfaceIn(pan, own, 0, litres * 1e-3),
                   b = surfaceIn(pan, slice, 0, litres * 1e-3);
        QVERIFY(a && b);
        verifyClose(a->offset_m, b->offset_m, 1e-9, 1e-12, QString::number(litres));
    }
}

void TestSump::windowLimits_areWhereTheLimitsAreReached()
{
    // Put the limiting fill in: the mouth must be just as deep, the crank just as clear as wanted.
    Random random(6);
    const PanPrism pan { bowl(), 0.25 };
    const HungSection own { bowl(), { 0.2, 0.01 }, { { { 0.2, 0.25 }, 0.08 } } };
    HungSection slice = own;
    slice.slice = true;
    slice.profile = { { 0.05, 0 }, { 0.35, 0 }, { 0.4, 0.3 }, { 0, 0.3 } };
    const FillTaken taken { 0.0006, 0.0001 };
    for (int i = 0; i < 100; ++i) {
        const HungSection &s = i % 2 ? slice : own;
        const FillCase use { &s, draw(random, -0.5, 0.5), 0.0005, 1.05, 0.02, 0.012 };
        const CaseLimits limits = limitsOf(pan, taken, use);
        const auto inPan = [&](double fill) {
            return fill * use.expansion - taken.static_m3 - use.held_m3 + taken.displaced_m3;
        };
        const auto least = surfaceIn(pan, s, use.tilt_rad, inPan(limits.least_m3));
        const auto most = surfaceIn(pan, s, use.tilt_rad, inPan(limits.most_m3));
        QVERIFY(least && most);
        if (inPan(limits.least_m3) > taken.displaced_m3 + 1e-9)
            verifyClose(least->depthOf_m(s.mouth), use.submergence_m, 1e-6, 1e-9,
                        QString::number(i));
        verifyClose(clearance_m(*most, s.sweeps[0]), use.allowance_m, 1e-6, 1e-9,
                    QString::number(i));
    }
}

void TestSump::compartment_asANumericalIntegralSaysIt_data()
{
    QTest::addColumn<double>("opening_mm2");
    QTest::addColumn<double>("draw_l_min");
    QTest::addColumn<double>("outside_mm");
    QTest::newRow("shut") << 0.0 << 32.0 << 60.0;
    QTest::newRow("open") << 300.0 << 32.0 << 60.0;
    QTest::newRow("oil piled outside") << 250.0 << 45.0 << 75.0;
}

void TestSump::compartment_asANumericalIntegralSaysIt()
{
    QFETCH(double, opening_mm2);
    QFETCH(double, draw_l_min);
    QFETCH(double, outside_mm);
    const Compartment c {
        0.01, 0.06, 0.03, draw_l_min / 60000, opening_mm2 * 1e-6, outside_mm * 1e-3
    };
    double h = c.start_m, t = 0;
    constexpr double dt = 1e-5;
    while (h > c.limit_m && t < 20) {
        h += dt
            * (-c.draw_m3_s
               + c.discharge * c.opening_m2 * std::sqrt(2 * gravity_m_s2 * (c.outside_m - h)))
            / c.area_m2;
        t += dt;
    }
    const Uncovering u = pickupUncovers(c);
    QVERIFY(u.time_s);
    verifyClose(*u.time_s, t, 1e-3, 0, QStringLiteral("time"));
}

void TestSump::compartment_comesBack_asANumericalIntegralSaysIt()
{
    const Compartment c { 0.01, 0.055, 0.03, 20.0 / 60000, 2500e-6, 0.062 };
    double h = c.limit_m, t = 0;
    constexpr double dt = 1e-5;
    while (h < c.start_m && t < 20) {
        h += dt
            * (-c.draw_m3_s
               + c.discharge * c.opening_m2 * std::sqrt(2 * gravity_m_s2 * (c.outside_m - h)))
            / c.area_m2;
        t += dt;
    }
    const auto back = refills_s(c);
    QVERIFY(back);
    verifyClose(*back, t, 1e-3, 0, QStringLiteral("time"));
    // Thick oil passes a hole worse, thin oil as a sharp edge lets it.
    QVERIFY(baffleCostsThick_m(1e-4, 300e-6, 2e-3) > baffleCostsThick_m(1e-4, 300e-6, 1e-5));
    verifyClose(baffleCostsThick_m(1e-3, 300e-6, 1e-5), baffleCosts_m(1e-3, 300e-6, 0.6), 1e-12, 0,
                QStringLiteral("thin"));
    Compartment stuck = c;
    stuck.opening_m2 = 20e-6;
    QVERIFY(!refills_s(stuck));
}

void TestSump::handbookValues_data()
{
    QTest::addColumn<double>("is");
    QTest::addColumn<double>("expected");
    QTest::addColumn<double>("within");
    const AbsolutePressure air { 101325 };
    // Wood; widely quoted 20 to 24 m/s for water with half its volume of air at 1 atm.
    QTest::newRow("sound in froth, isothermal")
        << aeratedOil(0.5, air, 1, 2.2e9, 998, 20).soundSpeed_m_s << 20.1 << 0.01;
    QTest::newRow("sound in froth, adiabatic")
        << aeratedOil(0.5, air, 1.4, 2.2e9, 998, 20).soundSpeed_m_s << 23.8 << 0.01;
    // 0.04042 p A/√T, gas dynamics textbooks.
    QTest::newRow("choked air, 1 mm²")
        << airLeak(1e-6, { 20000 }, air, 20, 1)->mass_kg_s * 1e3 << 0.2392 << 1e-3;
    QTest::newRow("Bunsen at half pressure, 0 °C")
        << gasAtPressure({ 101325.0 / 2 }, air, 0, 0.09).released << 0.09 << 1e-9;
    QTest::newRow("one g is 45°") << *surfaceTilt_rad(1, 0) * 180 / pi << 45.0 << 1e-12;
    QTest::newRow("turn against incline")
        << *surfaceTilt_rad(0.5, -std::atan(0.5)) + 1 << 1.0 << 1e-12;
    QTest::newRow("rigid to mobile bubble") << riseSpeed_m_s(1e-4, 1e-5, 850, 1, Bubble::Rigid)
            / riseSpeed_m_s(1e-4, 1e-5, 850, 1, Bubble::Mobile)
                                            << 2.0 / 3 << 1e-12;
    QTest::newRow("5 US quarts") << 5 * usQuart_m3 * 1e3 << 4.7318 << 1e-5;
    QTest::newRow("5 imperial quarts") << 5 * imperialQuart_m3 * 1e3 << 5.6826 << 1e-5;
    // Kelvin–Helmholtz onset of air over water, textbooks: about 6.6 m/s.
    QTest::newRow("wind that raises water") << windage({ .radius_m = 0.08,
                                                         .speed_rad_s = 1,
                                                         .gap_m = 0.02,
                                                         .density_kg_m3 = 998,
                                                         .tension_n_m = 0.0728,
                                                         .gasDensity_kg_m3 = 1.2 })
                                                   .onset_m_s
                                            << 6.67 << 2e-3;
    // Slot flow, 20 µm × 15 mm × 1 mm, 101.3 to 80 kPa, 300 K: computed apart.
    QTest::newRow("flattened ring")
        << slotLeak_kg_s(20e-6, 0.015, 0.001, { 80000 }, { 101300 }, 26.85) * 1e3 << 0.0121 << 5e-3;
    // Thin ring buckling, 5 MPa, 4 mm wall, 12 mm radius.
    QTest::newRow("soft hose folds") << hoseFolds_pa(0.004, 0.012, 5e6) << 61.7e3 << 2e-3;
    // ANSI/HI 9.8 in inches: S = D + 0.574 Q/D^1.5, 1 in, 10 US gpm, from memory.
    QTest::newRow("intake in inches")
        << submergence(10 * 3.785411784e-3 / 60, 0.0254, std::nullopt).vortexFree_m / 0.0254 << 6.74
        << 1e-3;
    // Deep water: first slosh of a 300 mm pan, ω² = g π/L.
    QTest::newRow("slosh, deep") << sloshPeriod_s(0.3, 10)
                                 << 2 * pi / std::sqrt(gravity_m_s2 * pi / 0.3) << 1e-9;
    // Nusselt film: 10 l/min over 1 m at 12 mm²/s is 0.85 mm; 0.42 l on half a square metre.
    QTest::newRow("film on walls")
        << wallFilm_m3(10.0 / 60000, 12e-6, 1, 0.5) * 1e3 << 0.42 << 0.02;
    // Jeffreys: to 0.1 mm at 0.3 m below the top, 12 mm²/s, about 37 s.
    QTest::newRow("walls drain") << wallDrains_s(12e-6, 0.3, 1e-4) << 36.7 << 0.01;
}

void TestSump::handbookValues()
{
    QFETCH(double, is);
    QFETCH(double, expected);
    QFETCH(double, within);
    verifyClose(is, expected, within, 0, QString::fromLatin1(QTest::currentDataTag()));
}

void TestSump::windage_ranksByGapAndSpeed()
{
    const auto at = [](double gap, double rpm, double tray) {
        return windage(
            { .radius_m = 0.08, .speed_rad_s = rpm * pi / 30, .gap_m = gap, .trayOpen = tray });
    };
    QVERIFY(*at(0.02, 6000, 1).index > *at(0.03, 6000, 1).index);
    QVERIFY(*at(0.02, 6000, 1).index > *at(0.02, 3000, 1).index);
    QVERIFY(*at(0.02, 6000, 1).index > *at(0.02, 6000, 0.3).index);
    const Windage dips = at(-0.08, 6000, 1); // to the centre: half the circle is under
    QVERIFY(!dips.index);
    QCOMPARE(dips.immersedShare, 0.5);
    QCOMPARE(dips.state, std::string_view("high"));
}

void TestSump::threads_tellTheTrap_data()
{
    QTest::addColumn<QString>("male");
    QTest::addColumn<QString>("female");
    QTest::addColumn<QString>("match");
    QTest::addColumn<bool>("deceptive");
    QTest::newRow("same") << "1/8 NPT"
                          << "1/8 NPT"
                          << "match" << false;
    QTest::newRow("taper into straight") << "R 1/8"
                                         << "G 1/8"
                                         << "engages_different_seal" << false;
    QTest::newRow("inch taper into pipe taper") << "1/8 NPT"
                                                << "R 1/8"
                                                << "mismatch" << true;
    QTest::newRow("metric into inch") << "M10x1"
                                      << "1/8 NPT"
                                      << "mismatch" << true;
    QTest::newRow("far too large") << "1/4 NPT"
                                   << "M10x1"
                                   << "mismatch" << false;
    QTest::newRow("straight of another size") << "G 1/4"
                                              << "R 1/8"
                                              << "mismatch" << false;
}

void TestSump::threads_tellTheTrap()
{
    QFETCH(QString, male);
    QFETCH(QString, female);
    QFETCH(QString, match);
    QFETCH(bool, deceptive);
    const Thread *m = findThread(male.toStdString()), *f = findThread(female.toStdString());
    QVERIFY(m && f);
    const ThreadMatch r = matchThreads(*m, *f);
    QCOMPARE(QString::fromUtf8(r.match.data()), match);
    QCOMPARE(r.deceptive, deceptive);
}

void TestSump::overall_isNeverLowWithGaps()
{
    using enum AirState;
    const auto of = [](std::vector<AirState> s) { return overallState(s); };
    QCOMPARE(of({ Low, Low }), Low);
    QCOMPARE(of({ Low, Unknown }), Unknown);
    QCOMPARE(of({ Watch, Unknown }), Watch);
    QCOMPARE(of({ Watch, High, Low }), High);
}

void TestSump::drive_slowPartStays_sloshGoes()
{
    // A steady turn with a wobble of just the window's period: the mean over it takes it out.
    std::vector<DriveMoment> drive;
    constexpr double window = 0.8;
    for (int i = 0; i <= 1000; ++i) {
        const double t = i * 0.01;
        drive.push_back({ t, 0.6 + 0.3 * std::sin(2 * pi * t / window), 0.2 * t });
    }
    const auto slow = smoothed(drive, window);
    for (size_t i = 100; i < 900; ++i) {
        verifyClose(slow[i].lateral_g, 0.6, 0, 2e-3, QString::number(i));
        verifyClose(slow[i].longitudinal_g, drive[i].longitudinal_g, 1e-9, 1e-9,
                    QString::number(i));
    }
}

void TestSump::drain_emptiesAsTorricelliSays()
{
    // No length: t = A/(n Ah) √(2K/g) (√h0 − √h1), Torricelli.
    const DrainBack d { .hole_m = 0.01, .count = 2, .pool_m2 = 0.04, .nu_m2_s = 1e-6 };
    const double hole = 2 * pi * 0.01 * 0.01 / 4;
    verifyClose(*d.time_s(0.03, 0.01),
                0.04 / hole * std::sqrt(2 * 1.5 / gravity_m_s2)
                    * (std::sqrt(0.03) - std::sqrt(0.01)),
                1e-9, 0, QStringLiteral("time"));
    // One kilopascal carries 120 mm of oil of 850 kg/m³.
    DrainBack held = d;
    held.back_pa = 1000;
    QVERIFY(!held.time_s(0.1199, 0.01));
    verifyClose(held.steadyDepth_m(0), 0.12, 1e-3, 0, QStringLiteral("carried"));
    // The pool that passes a supply passes just that.
    verifyClose(d.flow_m3_s(d.steadyDepth_m(1e-4)), 1e-4, 1e-9, 0, QStringLiteral("steady"));
    QCOMPARE(d.holesFor(1e-4, d.steadyDepth_m(1e-4) * 1.0001), std::optional(2));
}

void TestSump::dryPump_liftsLessWhenWorn()
{
    const double swept = 20e-6 * 300 / 60;
    const DryLift tight = dryLift(swept, 2.0 / 60000, 4e5, 0.01, airViscosity_pa_s, 870);
    const DryLift worn = dryLift(swept, 8.0 / 60000, 4e5, 0.01, airViscosity_pa_s, 870);
    verifyClose(tight.lift_m / worn.lift_m, 4, 1e-9, 0, QStringLiteral("lift by slip"));
    Priming p { .volume_m3 = 0.8e-3,
                .swept_m3_s = swept,
                .suction_m3 = 5e-5,
                .lift_m = 0.09,
                .dryLift_m = worn.lift_m };
    QVERIFY(!primeTime(p).time_s); // it never lifts so high
    p.dryLift_m = 1000;
    // Without leakage the air goes at the pump's sweep.
    verifyClose(*primeTime(p).suction_s, 5e-5 / swept, 1e-3, 0, QStringLiteral("suction"));
}

} // namespace tst_sump

MILDPATH_TEST(tst_sump, TestSump)
#include "tst_sump.moc"
