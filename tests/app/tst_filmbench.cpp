// SPDX-License-Identifier: GPL-3.0-or-later
#include "benchfixture.h"
#include "checks/assessment.h"

#include "bench/film/ballcard.h"
#include "bench/film/filmbench.h"
#include "bench/film/fuelcard.h"
#include "bench/film/oilchart.h"
#include "bench/film/stribeckview.h"
#include "bench/forecast/forecastbench.h"
#include "bench/route/routebench.h"
#include "entry/quantityfield.h"
#include "plot/chartview.h"
#include "shell/readoutstrip.h"
#include "study/contacts.h"
#include "study/room.h"
#include "window/newbuild.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSlider>

using namespace mildpath;

namespace tst_filmbench {

/// Oil, films and the engine itself, through the widgets.
class TestFilmBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void sliders_moveTheContacts();
    void petrol_showsWhatItCosts();
    void ballsRace_givesTheUnknownOil();
    void unknownOil_landsOnTheListAndInTheEngine();
    void oils_areChosenBesideEachOther();
    void journals_areTriedAtAnotherSize();
    void dataSheet_isEnteredInPlace();
    void tappet_isAChoice();
    void bearingsFloat_fromTheCoresSpeed();
    void stop_becomesSomethingElseOnTheRoute();
    void stop_isAddedAndUndone();
    void refusal_isSaidBesideTheField();
    void gauge_movesWithTheChoice();
    void charts_showTheCoresNumbers();
    void forecast_showsDrawnBands();
    void ownRule_isDrawn();
    void oilOnTheRoute_keepsItsDataSheet();
    void newBuild_saysWhatItMakes();
    void newBuild_refusesWhatCannotBe();

private:
    void film()
    {
        m_window->showBench(Place::Film);
        QApplication::processEvents();
    }
    /// The Route with its engine editor on this stop.
    void editor(const char *stop)
    {
        m_window->showBench(Place::Route);
        m_window->openBuild().selectStop(QString::fromLatin1(stop));
        auto *button = find<QPushButton>("changeEngine");
        if (!button->isChecked())
            button->click();
        QApplication::processEvents();
    }
    /// Chooses by its words, as a person does.
    void choose(const char *combo, const QString &words)
    {
        auto *c = inPanel<QComboBox>(QString::fromLatin1(combo));
        QVERIFY2(c, combo);
        const int index = c->findText(words);
        QVERIFY2(index >= 0, qPrintable(words));
        c->setCurrentIndex(index);
        Q_EMIT c->activated(index);
        QApplication::processEvents();
    }
    const Contact &contact(const char *id)
    {
        for (const Contact &c : static_cast<StribeckView *>(find<QWidget>("stribeck"))->contacts())
            if (c.id == id)
                return c;
        qFatal("no such contact");
    }
};

void TestFilmBench::sliders_moveTheContacts()
{
    film();
    auto *speed = find<QSlider>("filmSpeed"), *oil = find<QSlider>("filmOil");
    QCOMPARE(speed->value(), 3000);
    const double before = contact("big_ends").filmParameter;
    const auto asked = contactsOf(build(), *assessAt(build(), assessment().sizes, 3000, 100));
    const auto rods = std::ranges::find(asked, "big_ends", &Contact::id);
    verifyClose(before, rods->filmParameter, 1e-9);
    // At full load beside it, and thinner.
    QVERIFY(contact("big_ends_full").filmParameter < before);
    oil->setValue(130);
    QVERIFY(contact("big_ends").filmParameter < before);
    oil->setValue(100);
    speed->setValue(900);
    QVERIFY(contact("cam").filmParameter < 1);
    QVERIFY(find<QWidget>("stribeck")->accessibleName().contains(QStringLiteral("boundary")));
}

void TestFilmBench::petrol_showsWhatItCosts()
{
    film();
    auto *slider = find<QSlider>("fuelSlider");
    auto *chart = static_cast<OilChart *>(find<QWidget>("oilChart"));
    QVERIFY(!chart->oils().join(u' ').contains(QStringLiteral("petrol")));
    slider->setValue(5);
    QVERIFY(chart->oils().contains(QStringLiteral("with 5 % petrol")));
    verifyClose(static_cast<FuelCard *>(find<QWidget>("fuelCard"))->fraction(), 0.05, 1e-12);
    // Only looked at: the build keeps its oil.
    QCOMPARE(build().oil.oil.kv100_mm2_s, 14.2);
}

void TestFilmBench::ballsRace_givesTheUnknownOil()
{
    film();
    auto *card = static_cast<BallCard *>(find<QWidget>("ballCard"));
    QVERIFY(!card->result());
    type(find<QuantityField>("ballKnown"), QStringLiteral("8.5"));
    QVERIFY(!card->result());
    type(find<QuantityField>("ballUnknown"), QStringLiteral("10.6 s"));
    QVERIFY(card->result());
    verifyClose(card->result()->viscosityRatio, 10.6 / 8.5, 0.02); // all but creeping
    QVERIFY(find<QLabel>("ballFound")->text().contains(QStringLiteral("1.2")));
    QVERIFY(find<QPushButton>("ballKeep")->isEnabled());
    // A big ball leaves creeping flow and its wall is known for that only: no grade, nothing kept.
    type(find<QuantityField>("ballSize"), QStringLiteral("9 mm"));
    type(find<QuantityField>("ballKnown"), QStringLiteral("1.2"));
    type(find<QuantityField>("ballUnknown"), QStringLiteral("1.5"));
    QVERIFY(card->result() && card->result()->reynolds > 1);
    QVERIFY(!find<QPushButton>("ballKeep")->isEnabled());
    QVERIFY(find<QLabel>("ballGrade")->text().contains(QStringLiteral("no one grade")));
    type(find<QuantityField>("ballGlass"), QStringLiteral("12"));
    QVERIFY(!card->result()); // a ball that all but fills the glass is no race
}

void TestFilmBench::unknownOil_landsOnTheListAndInTheEngine()
{
    film();
    auto *keep = find<QPushButton>("ballKeep");
    QVERIFY(!keep->isEnabled());
    type(find<QuantityField>("ballKnown"), QStringLiteral("8.5"));
    type(find<QuantityField>("ballUnknown"), QStringLiteral("6.8"));
    keep->click();
    QCOMPARE(build().ownOils.size(), size_t(1));
    const auto &raced = static_cast<BallCard *>(find<QWidget>("ballCard"))->result();
    verifyClose(raced->viscosityRatio, 0.8, 0.03);
    verifyClose(build().ownOils.front().oil.kv100_mm2_s, 14.2 * raced->viscosityRatio, 1e-9);
    const QString name = qs(build().ownOils.front().grade);
    const double before = assessment().operating.hotIdle.gauge.value_pa;
    inPanel<QPushButton>(QStringLiteral("useOil.") + name)->click();
    QCOMPARE(qs(build().oil.grade), name);
    QVERIFY(assessment().operating.hotIdle.gauge.value_pa < before);
    inPanel<QPushButton>(QStringLiteral("dropOil.") + name)->click();
    QVERIFY(build().ownOils.empty());
    m_window->openBuild().undoStack().undo();
    QCOMPARE(build().ownOils.size(), size_t(1));
}

void TestFilmBench::oils_areChosenBesideEachOther()
{
    film();
    m_window->currentBench()->showPage(QStringLiteral("oils"));
    QApplication::processEvents();
    auto *view = find<QWidget>("oilsBeside");
    QTRY_VERIFY_WITH_TIMEOUT(view->accessibleName().contains(QStringLiteral("10W-60")), 60000);
    QVERIFY(!find<QSlider>("filmSpeed")->isVisible()); // that is the other page's
    view->setFocus();
    const std::string before = build().oil.grade;
    QTest::keyClick(view, Qt::Key_Down); // the next thicker one
    clickInPanel("useOilBeside");
    QVERIFY(build().oil.grade != before);
    QVERIFY(build().oil.oil.kv100_mm2_s > 14);
    document().undoStack().undo();
    QCOMPARE(build().oil.grade, before);
}

void TestFilmBench::journals_areTriedAtAnotherSize()
{
    film();
    auto *by = inPanel<QuantityField>(QStringLiteral("film.journalsBy"));
    QVERIFY(by);
    const auto mains = [&] {
        const PanelContent content = m_window->currentBench()->panel();
        const PanelChange *c = change(
            content, QStringLiteral("mains, ") + Figure::speed(build().use.highSpeed_rpm).text());
        return c ? std::pair(c->before.number.toDouble(), c->after.number.toDouble())
                 : std::pair(0.0, 0.0);
    };
    const auto [now, ground] = mains();
    QVERIFY(now > 0 && ground < now); // half a millimetre off, to begin with
    type(by, QStringLiteral("2 mm"));
    QVERIFY(mains().second > now);
    QCOMPARE(mains().first, now);
    type(inPanel<QuantityField>(QStringLiteral("film.journalsBy")), QStringLiteral("90 mm"));
    QVERIFY(mains().second > now); // refused, and what stood stands
}

void TestFilmBench::dataSheet_isEnteredInPlace()
{
    film();
    type(inPanel<QuantityField>(QStringLiteral("oil.kv100")), QStringLiteral("15.1 cSt"));
    verifyClose(build().oil.oil.kv100_mm2_s, 15.1, 1e-9);
    QCOMPARE(build().oil.grade, std::string("15W-40, own figures"));
    type(inPanel<QuantityField>(QStringLiteral("oil.hths")), QStringLiteral("4.1"));
    verifyClose(*build().oil.hths_mpa_s, 4.1, 1e-9);
    // A viscosity above that at 40 °C cannot be: refused, and the old one stays.
    type(inPanel<QuantityField>(QStringLiteral("oil.kv100")), QStringLiteral("200"));
    verifyClose(build().oil.oil.kv100_mm2_s, 15.1, 1e-9);
    inPanel<QPushButton>(QStringLiteral("keepOil"))->click();
    QCOMPARE(build().ownOils.size(), size_t(1));
}

void TestFilmBench::tappet_isAChoice()
{
    film();
    QCOMPARE(contact("cam").name, std::string("cam on flat tappet"));
    choose("tappet", QStringLiteral("rollers"));
    QCOMPARE(contact("cam").name, std::string("cam on roller"));
    QCOMPARE(choiceOf(build(), "tappet"), std::string("roller"));
}

void TestFilmBench::bearingsFloat_fromTheCoresSpeed()
{
    film();
    const auto from = floatsFrom_rpm(build(), assessment().sizes, build().use.hotOil_c);
    const QString wanted = QStringLiteral("full film from ") + Figure::speed(**from).text();
    const auto said = [&] {
        for (const PanelItem &i : m_window->currentBench()->panel())
            if (const auto *v = std::get_if<PanelVerdict>(&i); v && v->detail.contains(wanted))
                return true;
        return false;
    };
    QTRY_VERIFY(said());
}

void TestFilmBench::stop_becomesSomethingElseOnTheRoute()
{
    editor("tensioner");
    choose("stopKind", QStringLiteral("Turbocharger"));
    QVERIFY(!build().engine.find("tensioner") && build().engine.ofKind(StopKind::Turbo));
    m_window->openBuild().undoStack().undo();
    QVERIFY(build().engine.find("tensioner"));
}

void TestFilmBench::stop_isAddedAndUndone()
{
    editor("filter");
    const double before = assessment().operating.hotIdle.gauge.value_pa;
    choose("addBehind", QStringLiteral("Oil cooler"));
    QVERIFY(build().engine.find("cooler"));
    QVERIFY(assessment().operating.hotIdle.gauge.value_pa < before);
    m_window->openBuild().selectStop(QStringLiteral("cooler"));
    auto *name = inPanel<QLineEdit>(QStringLiteral("stopName"));
    QVERIFY(name);
    name->setText(QStringLiteral("Heat exchanger"));
    QTest::keyClick(name, Qt::Key_Return);
    QCOMPARE(build().engine.find("cooler")->name, std::string("Heat exchanger"));
    type(inPanel<QuantityField>(QStringLiteral("cooler_thermostat.open_c")), QStringLiteral("80"));
    QCOMPARE(build().circuit.find("cooler_thermostat")->value("open_c"), 80.0);
    inPanel<QPushButton>(QStringLiteral("removeStop"))->click();
    QVERIFY(!build().engine.find("cooler"));
    verifyClose(assessment().operating.hotIdle.gauge.value_pa, before, 1e-6);
}

void TestFilmBench::refusal_isSaidBesideTheField()
{
    editor("chain_jet");
    type(inPanel<QuantityField>(QStringLiteral("chain_jet.d_mm")), QStringLiteral("0"));
    QVERIFY(build().circuit.find("chain_jet")->value("d_mm") > 0.5);
    // Something recorded here: the way out is named instead of offered.
    editor("main_1");
    QVERIFY(!inPanel<QPushButton>(QStringLiteral("removeStop")));
    QVERIFY(!inPanel<QComboBox>(QStringLiteral("stopKind")));
}

void TestFilmBench::gauge_movesWithTheChoice()
{
    editor("lifter_gallery");
    choose("gaugeHere", QStringLiteral("Lifter 8"));
    QCOMPARE(build().gaugeTap, std::string("far_lifter_gallery"));
    for (const PointPressure &p : assessment().operating.hotIdle.points)
        if (p.name == "Lifter 8")
            verifyClose(assessment().operating.hotIdle.gauge.value_pa, p.pressure_pa, 1e-9);
}

/// What a chart holds is what the core says, in the core's numbers.
void TestFilmBench::charts_showTheCoresNumbers()
{
    film();
    const Oil &oil = build().oil.oil;
    const ChartLine own
        = static_cast<ChartView *>(find<QWidget>("oilChart"))->chart().lines.front();
    verifyClose(*heightAt(own, 40), oil.kv40_mm2_s * 1e-6, 1e-6);
    verifyClose(*heightAt(own, 100), oil.kv100_mm2_s * 1e-6, 1e-6);
    auto *friction = static_cast<StribeckView *>(find<QWidget>("stribeck"));
    for (const Contact &c : friction->contacts())
        if (c.filmParameter > 0.05 && c.filmParameter < 60)
            verifyClose(*heightAt(friction->chart().lines.front(), c.filmParameter),
                        std::max(0.0015, stribeckFriction(c.filmParameter)), 0.03);

    m_window->showBench(Place::Forecast);
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->openBuild().answers().isBusy(), 60000);
    const Chart &pressure = find<ChartView>("forecastChart")->chart();
    const OpenBuild &open = m_window->openBuild();
    const Use &use = build().use;
    const auto hot = std::find_if(pressure.lines.begin(), pressure.lines.end(), [&](const auto &l) {
        return l.name == Figure::temperature(use.hotOil_c).text();
    });
    QVERIFY(hot != pressure.lines.end());
    verifyClose(*heightAt(*hot, use.hotIdle_rpm), open.operating().hotIdle.gauge.value_pa, 0.01);
    verifyClose(*heightAt(*hot, use.highSpeed_rpm), open.operating().highSpeed.gauge.value_pa,
                0.01);
    QVERIFY(*heightAt(*hot, hot->low, use.hotIdle_rpm) < *heightAt(*hot, use.hotIdle_rpm));
    QVERIFY(*heightAt(*hot, hot->high, use.hotIdle_rpm) > *heightAt(*hot, use.hotIdle_rpm));
    QCOMPARE(pressure.x.as, Shows::Speed);
    QCOMPARE(pressure.y.as, Shows::Pressure);

    m_window->showBench(Place::Heat);
    QTRY_VERIFY(!m_window->openBuild().answers().isBusy());
    const Chart growth = static_cast<ChartView *>(find<QWidget>("growthChart"))->chart();
    verifyClose(*growth.zones.front().toY, use.coldestClearanceFloor_um * 1e-6, 1e-9);
    const double mains_um
        = *meanOf(open.sizes(), "main", settledTemperatures(build(), use.hotOil_c));
    QVERIFY(std::any_of(growth.dots.begin(), growth.dots.end(), [&](const ChartDot &d) {
        return d.x == use.hotOil_c && std::abs(d.y - mains_um * 1e-6) < 1e-9;
    }));
}

void TestFilmBench::forecast_showsDrawnBands()
{
    m_window->showBench(Place::Forecast);
    auto *cancel = find<QPushButton>("cancelSamples");
    QTRY_VERIFY(cancel->isVisible());
    cancel->click();
    QVERIFY(!cancel->isVisible()); // given up: the first-order bands stay
    const auto subtitle = [&](const QString &words) {
        for (const QLabel *l : m_window->currentBench()->findChildren<QLabel *>())
            if (l->text().contains(words))
                return true;
        return false;
    };
    QVERIFY(subtitle(QStringLiteral("Likely range")));
    m_window->currentBench()->refresh();
    QTRY_VERIFY_WITH_TIMEOUT(subtitle(QStringLiteral("simulated builds (seed 1)")), 60000);
}

void TestFilmBench::ownRule_isDrawn()
{
    m_window->showBench(Place::Forecast);
    const int before = find<ChartView>("forecastChart")->lineCount();
    QVERIFY(before >= 5); // three temperatures, crank feed, rule
    type(inPanel<QuantityField>(QStringLiteral("use.rule_base_kpa")), QStringLiteral("1 bar"));
    verifyClose(build().use.ruleBase_kpa, 100, 1e-9);
    verifyClose(leastWanted_pa(build().use, 2000), 1e5 + 2 * 68947.6, 1e-6);
    QCOMPARE(find<ChartView>("forecastChart")->lineCount(), before);
    // The strip below asks the same of the higher speed.
    for (const Readout &r : readoutsOf(build(), assessment(), nullptr))
        if (r.id == QStringLiteral("highSpeedGauge"))
            QVERIFY2(r.detail.endsWith(QStringLiteral("rule ")
                                       + Figure::pressure(1e5 + 3 * 68947.6).number),
                     qPrintable(r.detail));
}

void TestFilmBench::oilOnTheRoute_keepsItsDataSheet()
{
    film();
    type(find<QuantityField>("ballKnown"), QStringLiteral("8"));
    type(find<QuantityField>("ballUnknown"), QStringLiteral("6.6"));
    find<QPushButton>("ballKeep")->click();
    m_window->showBench(Place::Route);
    QApplication::processEvents();
    auto *grade = find<QComboBox>("oilGrade");
    const QString own = qs(build().ownOils.front().grade);
    QVERIFY(grade->findText(own) >= 0);
    const auto take = [&](const QString &name) {
        const int index = grade->findText(name);
        grade->setCurrentIndex(index);
        Q_EMIT grade->activated(index);
        QApplication::processEvents();
    };
    take(own);
    QCOMPARE(qs(build().oil.grade), own);
    take(QStringLiteral("20W-50"));
    QCOMPARE(build().oil.hths_mpa_s, std::optional(4.9)); // typical of the grade, no source
}

void TestFilmBench::newBuild_saysWhatItMakes()
{
    NewBuildDialog dialog;
    const auto combo = [&](const char *name) {
        return dialog.findChild<QComboBox *>(QString::fromLatin1(name));
    };
    QCOMPARE(dialog.plan().cylinders, 4);
    combo("layout")->setCurrentIndex(combo("layout")->findData(QStringLiteral("vee")));
    QCOMPARE(combo("cylinders")->count(), 4);
    combo("cylinders")->setCurrentIndex(combo("cylinders")->findData(QStringLiteral("8")));
    combo("gear")->setCurrentIndex(combo("gear")->findData(QStringLiteral("one_cam")));
    const auto *says = dialog.findChild<QLabel *>(QStringLiteral("newBuildSays"));
    QVERIFY2(says->text().contains(QStringLiteral("V8")), qPrintable(says->text()));
    QCOMPARE(dialog.build().engine.layout, std::string("V8"));
    m_window->openNew(dialog.build());
    QCOMPARE(build().engine.cylinders, 8);
    QVERIFY(!assessment().operating.unsolved);
}

void TestFilmBench::newBuild_refusesWhatCannotBe()
{
    NewBuildDialog dialog;
    auto *bore = dialog.findChild<QuantityField *>(QStringLiteral("bore"));
    type(bore, QStringLiteral("5 mm"));
    const auto *says = dialog.findChild<QLabel *>(QStringLiteral("newBuildSays"));
    QVERIFY(says->text().contains(QStringLiteral("bore")));
    QVERIFY(!dialog.findChild<QPushButton *>(QStringLiteral("makeBuild"))->isEnabled());
    type(bore, QStringLiteral("3.5 in"));
    QVERIFY(dialog.findChild<QPushButton *>(QStringLiteral("makeBuild"))->isEnabled());
    verifyClose(dialog.plan().bore_mm, 88.9, 1e-9);
}

} // namespace tst_filmbench

MILDPATH_TEST(tst_filmbench, TestFilmBench)
#include "tst_filmbench.moc"
