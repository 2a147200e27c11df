// SPDX-License-Identifier: GPL-3.0-or-later
// The Heat bench by its widgets.
#include "benchfixture.h"
#include "checks/assessment.h"
#include "study/room.h"

#include "bench/heat/heatbench.h"
#include "bench/heat/roomview.h"
#include "plot/chartview.h"
#include "study/heatlog.h"

#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>
#include <QSlider>
#include <QTemporaryDir>

using namespace mildpath;

namespace tst_heatbench {

class TestHeatBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init()
    {
        open();
        QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-alloy")));
        m_window->openBuild().selectStop(QStringLiteral("main_2"));
        heat();
    }
    void cleanup() { m_window.reset(); }
    void log_isTypedRowByRow();
    void log_saysWhatCannotBe();
    void log_takesTheShopsUnits();
    void log_refusesWhatIsNoReading();
    void log_isTakenBackAndUndone();
    void correctedPoint_keepsItsThermometer();
    void fit_isUsedByChoiceAndGivenUp();
    void log_survivesTheFile();
    void journal_thatWarmedAlong_isTicked();
    void map_isThereAtOnceAndFinerSoon();
    void sliders_askAgainAndLeaveTheBuildAlone();
    void map_changesTheFamily();
    void panel_tellsColdHotAndLevers();
    void panel_changesTheQuestion();
    void pictures_sayTheirFigures();
    void map_ofAnotherDocument_isItsOwn();
    void warmUp_followsItsSlider();
    void materials_areChosenInPlace();
    void materials_takeOwnExpansions();

private:
    HeatBench &heat(int page = 0)
    {
        m_window->showBench(Place::Heat);
        auto &bench = static_cast<HeatBench &>(*m_window->currentBench());
        bench.showPage(page);
        QApplication::processEvents();
        return bench;
    }
    QuantityField *cell(int row, const char *id)
    {
        return find<QuantityField>(
            QStringLiteral("heat.%1.%2").arg(row).arg(QLatin1String(id)).toUtf8());
    }
    QString say() { return find<QLabel>("heatSay")->text(); }
    QString fit() { return find<QLabel>("heatFit")->text(); }
    RoomView &room() { return *find<RoomView>("roomView"); }
    /// Four cells with Enter after each, from where the focus is.
    void typeRow(std::initializer_list<const char *> texts)
    {
        for (const char *text : texts) {
            QTest::keyClicks(QApplication::focusWidget(), QString::fromUtf8(text));
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
            QApplication::processEvents();
        }
    }
    /// A clean log on main 2, typed.
    void typeLog()
    {
        m_window->currentBench()->takeFocus();
        typeRow({ "20", "20", "20", "46" });
        typeRow({ "59", "60", "61", "99.2" });
        typeRow({ "89", "90", "91", "139.1" });
    }
    QString panelText(const QString &part)
    {
        QApplication::processEvents();
        for (const QWidget *w : m_window->sidePanel().findChildren<QWidget *>())
            if (w->accessibleName().contains(part))
                return w->accessibleName();
        return {};
    }
};

void TestHeatBench::log_isTypedRowByRow()
{
    QVERIFY(document().pickWorker("A. Reed"));
    typeLog();
    const auto points = standingHeatPoints(build(), "main_2");
    QCOMPARE(points.size(), size_t(3));
    QCOMPARE(points[1]->spots_c, (std::vector<double> { 59, 60, 61 }));
    verifyClose(*points[2]->reading_um, 139.1, 1e-9);
    QVERIFY(!points[0]->by.empty() && !points[0]->at.empty());
    // Nothing was struck: the points grew cell by cell.
    QCOMPARE(build().heatPoints.size(), size_t(3));
    QVERIFY2(fit().contains(QStringLiteral("×10⁻⁶/K")), qPrintable(fit()));
    QVERIFY(fit().contains(QStringLiteral("running"))
            && fit().contains(QStringLiteral("cold journal")));
    // The next row waits.
    QCOMPARE(QApplication::focusWidget(), cell(3, "spot0"));
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Backspace);
    QCOMPARE(QApplication::focusWidget(), cell(2, "reading"));
}

void TestHeatBench::correctedPoint_keepsItsThermometer()
{
    typeLog();
    const double was = standingHeatPoints(build(), "main_2").front()->instrumentEmissivity;
    QVERIFY(m_window->openBuild().edit(SetHeat { "instrument_emissivity", 0.8 }).has_value());
    QApplication::processEvents();
    // Only the gauge's reading is corrected: the temperature was taken with the old setting.
    type(cell(0, "reading"), QStringLiteral("44"));
    const auto points = standingHeatPoints(build(), "main_2");
    const auto corrected = std::find_if(points.begin(), points.end(), [](const HeatPoint *p) {
        return p->reading_um && *p->reading_um == 44;
    });
    QVERIFY(corrected != points.end());
    QCOMPARE((*corrected)->instrumentEmissivity, was);
    // A temperature taken anew belongs to the setting of now.
    cell(3, "spot0")->setFocus();
    typeRow({ "80", "81", "82", "150" });
    for (const HeatPoint *p : standingHeatPoints(build(), "main_2"))
        if (p->spots_c.front() == 80)
            QCOMPARE(p->instrumentEmissivity, 0.8);
}

void TestHeatBench::log_saysWhatCannotBe()
{
    typeLog();
    typeRow({ "35", "36", "37", "138" });
    QVERIFY2(say().contains(QStringLiteral("cannot be")), qPrintable(say()));
    QVERIFY(say().contains(QStringLiteral("dull or painted spot")));
    const QString before = fit();
    // Bare metal, said so: corrected far up, but not to be trusted.
    auto *surface = find<QComboBox>("heat.3.surface");
    for (int i = 0; i < surface->count(); ++i)
        if (surface->itemText(i) == QStringLiteral("bare alloy")) {
            surface->setCurrentIndex(i);
            Q_EMIT surface->activated(i);
        }
    QCOMPARE(standingHeatPoints(build(), "main_2").back()->surface,
             std::string("machined_aluminium"));
    QVERIFY(!say().contains(QStringLiteral("Every point agrees")));
    QCOMPARE(fit(), before);
}

void TestHeatBench::log_takesTheShopsUnits()
{
    m_window->currentBench()->takeFocus();
    typeRow({ "61 °F", "61 °F", "61 °F", "2.3 thou" });
    const HeatPoint p = *standingHeatPoints(build(), "main_2").front();
    verifyClose(p.spots_c[0], 16.11, 0, 0.01);
    verifyClose(*p.reading_um, 58.42, 0, 0.001);
}

void TestHeatBench::log_refusesWhatIsNoReading()
{
    type(cell(0, "spot0"), QStringLiteral("900"));
    QVERIFY2(say().contains(QStringLiteral("200")), qPrintable(say()));
    type(cell(0, "reading"), QStringLiteral("55 mm"));
    QVERIFY2(say().contains(QStringLiteral("1 mm")), qPrintable(say()));
    QVERIFY(build().heatPoints.empty());
}

void TestHeatBench::log_isTakenBackAndUndone()
{
    typeLog();
    auto *reading = cell(2, "reading");
    reading->setFocus();
    reading->selectAll();
    QTest::keyClick(reading, Qt::Key_Delete);
    QTest::keyClick(reading, Qt::Key_Return);
    QApplication::processEvents();
    QCOMPARE(standingHeatPoints(build(), "main_2").size(), size_t(2));
    QCOMPARE(build().heatPoints.size(), size_t(4)); // struck, and kept
    m_window->openBuild().undoStack().undo();
    QCOMPARE(standingHeatPoints(build(), "main_2").size(), size_t(3));
    QVERIFY(m_window->openBuild().undoStack().redoText().contains(QStringLiteral("withdrawn")));
}

void TestHeatBench::fit_isUsedByChoiceAndGivenUp()
{
    typeLog();
    const double before = assessment().size("main_2")->running_um;
    auto *use = find<QPushButton>("useFit");
    QVERIFY(use->isVisible());
    QVERIFY(build().expansions.empty()); // never by itself
    use->click();
    QVERIFY(build().expansions.contains(std::string(mainHousing)));
    QVERIFY(std::abs(assessment().size("main_2")->running_um - before) > 0.01);
    QVERIFY(use->text().contains(QStringLiteral("handbook")));
    use->click();
    QVERIFY(build().expansions.empty());
    QCOMPARE(assessment().size("main_2")->running_um, before);
}

void TestHeatBench::log_survivesTheFile()
{
    typeLog();
    const QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("warm.mildpath"));
    QVERIFY(m_window->openBuild().save(path));
    const SharedList<HeatPoint> points = build().heatPoints;
    const QString shown = fit();
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-alloy")));
    QVERIFY(build().heatPoints.empty());
    QVERIFY(m_window->openFile(path));
    m_window->openBuild().selectStop(QStringLiteral("main_2"));
    heat();
    QVERIFY(build().heatPoints == points);
    QCOMPARE(fit(), shown);
    QCOMPARE(cell(1, "reading")->value().value_or(0), 99.2e-6);
}

void TestHeatBench::journal_thatWarmedAlong_isTicked()
{
    typeLog();
    const double cold = *judgeHeatLog(build(), assessment().sizes, "main_2").points[2].running_um;
    auto *tick = inPanel<QCheckBox>(QStringLiteral("journalWithBlock"));
    QVERIFY(tick && !tick->isChecked());
    tick->click();
    const HeatLog log = judgeHeatLog(build(), assessment().sizes, "main_2");
    QVERIFY(standingHeatPoints(build(), "main_2")[2]->journalWithBlock);
    // Then nothing is to be taken off, and 139 µm at 90 °C cannot be.
    QVERIFY(*log.points[2].running_um > cold + 30);
    QVERIFY(!log.points[2].counts);
}

void TestHeatBench::map_isThereAtOnceAndFinerSoon()
{
    QVERIFY(room().map());
    QVERIFY(room().map()->cold_um.size() >= 10);
    QTRY_VERIFY(room().map()->cold_um.size() >= 40);
    QCOMPARE(room().map()->rows.size(), size_t(12)); // engine oils of the shelf
    QVERIFY(room().accessibleName().contains(QStringLiteral("15W-40")));
    // The same figures as the strip: this build's own point.
    const RoomMap &m = *room().map();
    const RoomRow &r = m.rows[static_cast<size_t>(m.hereRow)];
    size_t right = 1;
    while (m.cold_um[right] < m.here_um)
        ++right;
    QVERIFY(r.gauge_pa[right] <= assessment().operating.hotIdle.gauge.value_pa
            && r.gauge_pa[right - 1] >= assessment().operating.hotIdle.gauge.value_pa);
}

void TestHeatBench::sliders_askAgainAndLeaveTheBuildAlone()
{
    const Build before = build();
    auto *hot = find<QSlider>("hotSlider");
    auto *reset = find<QPushButton>("asBuilt");
    QVERIFY(!reset->isEnabled());
    const double was = room().map()->rows[4].gauge_pa[3];
    hot->setValue(hot->value() + 25);
    QCOMPARE(room().map()->conditions.hotOil_c, 125.0);
    QCOMPARE(room().map()->cold_um.size(), size_t(10)); // coarse at once
    QVERIFY(room().map()->rows[4].gauge_pa[3] < was);
    QTRY_VERIFY(room().map()->cold_um.size() > 10);
    // Many steps in a row: the last question is the one answered.
    for (int v = 60; v <= 140; v += 4)
        hot->setValue(v);
    QTRY_VERIFY(room().map()->cold_um.size() > 10);
    QCOMPARE(room().map()->conditions.hotOil_c, 140.0);
    QVERIFY(build() == before);
    reset->click();
    QTRY_COMPARE(room().map()->conditions.hotOil_c, before.use.hotOil_c);
    QVERIFY(!reset->isEnabled());
}

void TestHeatBench::map_changesTheFamily()
{
    find<QPushButton>("room_big_end")->click();
    QCOMPARE(room().map()->family, std::string("big_end"));
    QTRY_VERIFY(!panelText(QStringLiteral("big-ends cold")).isEmpty());
}

void TestHeatBench::panel_tellsColdHotAndLevers()
{
    QTRY_VERIFY(!panelText(QStringLiteral("Turns free down to")).isEmpty());
    QVERIFY(!panelText(QStringLiteral("Hot mains")).isEmpty());
    QVERIFY(!panelText(QStringLiteral("of the crank's oil")).isEmpty());
    QVERIFY(!panelText(QStringLiteral("relief valve is shut at hot idle")).isEmpty());
    QVERIFY(
        panelText(QStringLiteral("relief spring +1.0 bar")).contains(QStringLiteral("nothing")));
    QVERIFY(!panelText(QStringLiteral("Hot metal looks cold")).isEmpty());
}

void TestHeatBench::panel_changesTheQuestion()
{
    type(inPanel<QuantityField>(QStringLiteral("use.coldest_start_c")), QStringLiteral("-35"));
    QCOMPARE(build().use.coldestStart_c, -35.0);
    QTRY_VERIFY(!panelText(QStringLiteral("Preheat to")).isEmpty());
    QCOMPARE(find<QSlider>("startSlider")->value(), -35);
    type(inPanel<QuantityField>(QStringLiteral("heat.instrument_emissivity")),
         QStringLiteral("0.9"));
    QCOMPARE(build().heat.instrumentEmissivity, 0.9);
}

void TestHeatBench::pictures_sayTheirFigures()
{
    const auto mean = [&](const char *family, const PartTemperatures &t) {
        return Figure::clearance(*meanOf(assessment().sizes, family, t)).text();
    };
    const PartTemperatures hot = settledTemperatures(build(), build().use.hotOil_c);
    const QString chart = find<QWidget>("growthChart")->accessibleName();
    QCOMPARE(plainly(chart),
             plainly(QStringLiteral("mains %1 at 20 °C, %2 hot; big-ends %3, %4 hot")
                         .arg(mean("main", allAt(20)), mean("main", hot),
                              mean("big_end", allAt(20)), mean("big_end", hot))));
    // Panel, strip and map speak of one and the same room.
    const auto room = roomOf(build(), assessment().sizes, "main", conditionsOf(build()));
    QTRY_VERIFY(panelText(QStringLiteral("Room:"))
                    .contains(Figure::limit(std::round(room->most_um)).text()));
    verifyClose(room->gauge_pa, assessment().operating.hotIdle.gauge.value_pa, 1e-6);
    verifyClose(room->least_um, this->room().map()->least_um, 0, 1e-9);
    const auto film = hotFilm(build(), assessment().sizes, conditionsOf(build()), 0);
    QVERIFY(!panelText(Figure::clearance(film->bigEnds_um, 1).number).isEmpty());
}

void TestHeatBench::map_ofAnotherDocument_isItsOwn()
{
    // What lies between the slider's steps is asked for as it is.
    type(inPanel<QuantityField>(QStringLiteral("use.coldest_start_c")), QStringLiteral("-7.6"));
    QTRY_COMPARE(room().map()->conditions.coldestStart_c, -7.6);
    find<QSlider>("hotSlider")->setValue(140);
    QCOMPARE(room().map()->conditions.hotOil_c, 140.0);
    QVERIFY(m_window->openFile(qs(demoBuildPath().string())));
    QApplication::processEvents();
    // At once, not when the finer one comes.
    QCOMPARE(room().map()->conditions.hotOil_c, build().use.hotOil_c);
    verifyClose(room().map()->here_um, *meanOf(assessment().sizes, "main", allAt(20)), 0, 1e-9);
    QVERIFY(!panelText(QStringLiteral("Cold does not close the mains")).isEmpty());
}

void TestHeatBench::warmUp_followsItsSlider()
{
    heat(1);
    auto *chart = find<ChartView>("warmUpChart");
    QCOMPARE(chart->lineCount(), 4);
    auto *speed = find<QSlider>("warmUpSpeed");
    speed->setValue(speed->maximum());
    QTRY_VERIFY(!panelText(Figure::speed(6000).text() + u':').isEmpty());
    type(inPanel<QuantityField>(QStringLiteral("heat.block_at_idle_s")), QStringLiteral("300"));
    QCOMPARE(build().heat.blockAtIdle_s, 300.0);
    QVERIFY(!panelText(QStringLiteral("Mains widest")).isEmpty());
}

void TestHeatBench::materials_areChosenInPlace()
{
    heat(2);
    auto *block = find<QComboBox>("material.block");
    const double alloy = assessment().size("main_1")->running_um;
    block->setCurrentIndex(block->findData(QStringLiteral("grey_iron")));
    Q_EMIT block->activated(block->currentIndex());
    QCOMPARE(build().engine.block, std::string("grey_iron"));
    const double iron = assessment().size("main_1")->running_um;
    QVERIFY(iron < alloy - 40);
    auto *cap = find<QComboBox>("material.main_cap");
    QVERIFY(!find<QuantityField>("material.fraction")->isEnabled());
    cap->setCurrentIndex(cap->findData(QStringLiteral("cast_aluminium")));
    Q_EMIT cap->activated(cap->currentIndex());
    QVERIFY(assessment().size("main_1")->running_um > iron + 15);
    type(find<QuantityField>("material.fraction"), QStringLiteral("20"));
    verifyClose(build().engine.mainCapFraction, 0.2, 1e-9);
    m_window->openBuild().undoStack().undo();
    verifyClose(build().engine.mainCapFraction, 0.5, 1e-9);
}

void TestHeatBench::materials_takeOwnExpansions()
{
    heat(2);
    auto *field = find<QuantityField>("expansion.cast_aluminium");
    const double before = assessment().size("main_1")->running_um;
    type(field, QStringLiteral("20.5"));
    verifyClose(build().expansions.at("cast_aluminium").per_k, 20.5e-6, 1e-9);
    QVERIFY(assessment().size("main_1")->running_um < before - 3);
    type(field, QStringLiteral("2150"));
    verifyClose(build().expansions.at("cast_aluminium").per_k, 20.5e-6, 1e-9);
    find<QPushButton>("handbook.cast_aluminium")->click();
    QVERIFY(build().expansions.empty());
    QCOMPARE(assessment().size("main_1")->running_um, before);
}

} // namespace tst_heatbench

MILDPATH_TEST(tst_heatbench, TestHeatBench)
#include "tst_heatbench.moc"
