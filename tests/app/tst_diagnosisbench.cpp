// SPDX-License-Identifier: GPL-3.0-or-later
#include "benchfixture.h"
#include "checks/assessment.h"
#include "diagnose/diagnosis.h"

#include "bench/forecast/diagnosispage.h"
#include "bench/forecast/forecastbench.h"
#include "bench/forecast/remedypage.h"
#include "bench/route/routebench.h"
#include "entry/rowlist.h"
#include "quantity/json.h"

#include <QCheckBox>
#include <QProcess>
#include <QSlider>
#include <QTemporaryDir>
#include <QUndoStack>

using namespace mildpath;

namespace tst_diagnosisbench {

/// Remedies and finding the fault, through the widgets.
class TestDiagnosisBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void remedies_areThoseOfTheCore();
    void remedies_takeWhatIsImagined();
    void reading_isRecordedAndJudged();
    void readingAgain_correctsTheFirst();
    void badReading_isRefused();
    void readingByDrill_saysSo();
    void symptom_isSaidAndUnsaid();
    void diagnosis_agreesWithTheCommandLine();
    void candidate_opensAsWhatIf();
    void nextReading_fillsTheForm();
    void everything_survivesSavingAndReopening();

private:
    RouteBench &route(int at) { return page<RouteBench>("route", at); }
    ForecastBench &forecast(int at) { return page<ForecastBench>("forecast", at); }
    const Diagnosis *diagnosis()
    {
        auto *page = find<DiagnosisPage>("diagnosisPage");
        auto *cancel = find<QPushButton>("cancelDiagnosis");
        [&] { QTRY_VERIFY_WITH_TIMEOUT(page->shown() && !cancel->isVisible(), 60000); }();
        return page->shown();
    }
    void readGauge(const QString &tap, const char *rpm, const char *oil, const char *pressure)
    {
        choose(inPanel<QComboBox>(QStringLiteral("reading.tap")), tap);
        type(inPanel<QuantityField>(QStringLiteral("reading.rpm")), QString::fromLatin1(rpm));
        type(inPanel<QuantityField>(QStringLiteral("reading.oil")), QString::fromLatin1(oil));
        type(inPanel<QuantityField>(QStringLiteral("reading.pressure")),
             QString::fromLatin1(pressure));
    }
};

void TestDiagnosisBench::remedies_areThoseOfTheCore()
{
    ForecastBench &b = forecast(1);
    const auto core = compareRemedies(build(), assessment().sizes);
    QVERIFY(core);
    auto *chart = find<RemedyChart>("remedyChart");
    QTRY_VERIFY(chart->accessibleName().contains(
        QStringLiteral("pressure gauge reads higher, bearings gain nothing")));
    for (const Remedy &r : core->remedies)
        QVERIFY(
            chart->accessibleName().contains(qs(r.name) + QStringLiteral(": ") + qs(r.verdict)));
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Down);
    const PanelContent content = b.panel();
    const PanelChange *gauge = change(content, QStringLiteral("gauge"));
    QVERIFY(gauge);
    QCOMPARE(gauge->before.text(), Figure::pressure(core->now.gauge_pa).text());
    QCOMPARE(gauge->after.text(), Figure::pressure(core->remedies[0].figures.gauge_pa).text());
    QVERIFY(
        panelText().contains(QStringLiteral("pressure gauge reads higher, bearings gain nothing")));
}

void TestDiagnosisBench::remedies_takeWhatIsImagined()
{
    forecast(1);
    auto *with = find<QLabel>("remedy.with");
    QVERIFY(!with->text().contains(QStringLiteral("With what is imagined")));
    document().imagine({ *parseFault(build(), "lifter_bores_worn=1") });
    QApplication::processEvents();
    QVERIFY(with->text().contains(QStringLiteral("Lifter bores worn")));
    const auto core = compareRemedies(build(), assessment().sizes, document().imagined());
    auto *chart = find<RemedyChart>("remedyChart");
    QString verdict;
    for (const Remedy &r : core->remedies)
        if (r.id == "bushed_lifters")
            verdict = qs(r.name) + QStringLiteral(": ") + qs(r.verdict);
    QTRY_VERIFY(chart->accessibleName().contains(verdict));
}

void TestDiagnosisBench::reading_isRecordedAndJudged()
{
    forecast(2);
    QCOMPARE(find<QLabel>("diagnosis.verdict")->text().isEmpty(), false);
    QVERIFY(diagnosis());
    readGauge(QStringLiteral("Far lifter gallery"), "820", "95", "0.1");
    QCOMPARE(build().gaugeReadings.size(), size_t(1));
    const GaugeReading &r = build().gaugeReadings.back();
    QCOMPARE(r.tap, std::string("far_lifter_gallery"));
    QCOMPARE(r.rpm, 820.0);
    QCOMPARE(r.oil_c, 95.0);
    verifyClose(r.pressure_kpa, 10, 1e-9);
    QVERIFY(!r.by.empty() && !r.at.empty());
    const Diagnosis *d = diagnosis();
    QTRY_COMPARE(diagnosis()->readings.size(), size_t(1));
    d = diagnosis();
    // One reading alone settles nothing but that something is wrong.
    QVERIFY(d->healthyPosterior < 0.01);
    QVERIFY(find<QLabel>("diagnosis.verdict")->text().contains(QStringLiteral("Not certain")));
    QVERIFY(find<ReadingScale>("readingScale")
                ->accessibleName()
                .contains(QStringLiteral("far lifter gallery, 820 rpm")));
}

void TestDiagnosisBench::readingAgain_correctsTheFirst()
{
    forecast(2);
    readGauge(QStringLiteral("Filter housing"), "800", "100", "1.4");
    readGauge(QStringLiteral("Filter housing"), "800", "100", "21 psi");
    QCOMPARE(build().gaugeReadings.size(), size_t(2)); // both kept
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(1));
    verifyClose(standing(build().gaugeReadings).front()->pressure_kpa, 144.79, 1e-4);
    auto *scale = find<ReadingScale>("readingScale");
    QTRY_VERIFY(diagnosis()->readings.size() == 1);
    clickAt(scale, QPointF(60, 58));
    clickInPanel("reading.takeBack");
    QVERIFY(standing(build().gaugeReadings).empty());
    document().undoStack().undo();
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(1));
}

void TestDiagnosisBench::badReading_isRefused()
{
    forecast(2);
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("-3"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("900"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("some"));
    QVERIFY(build().gaugeReadings.empty());
    type(inPanel<QuantityField>(QStringLiteral("reading.rpm")), QStringLiteral("0"));
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("1.2"));
    QCOMPARE(build().gaugeReadings.back().rpm, build().use.hotIdle_rpm); // the old one stayed
}

void TestDiagnosisBench::symptom_isSaidAndUnsaid()
{
    forecast(2);
    const auto combo = [&] { return inPanel<QComboBox>(QStringLiteral("symptom.foam")); };
    choose(combo(), QStringLiteral("yes"));
    QCOMPARE(build().symptoms.size(), size_t(1));
    QVERIFY(build().symptoms.back().there);
    choose(combo(), QStringLiteral("no"));
    QCOMPARE(standing(build().symptoms).size(), size_t(1));
    QVERIFY(!standing(build().symptoms).front()->there);
    choose(combo(), QStringLiteral("not said"));
    QVERIFY(standing(build().symptoms).empty());
    QCOMPARE(combo()->currentText(), QStringLiteral("not said"));
}

/// Window and command line are one computation: the same names and shares in the same order.
void TestDiagnosisBench::diagnosis_agreesWithTheCommandLine()
{
    const QString path = QString::fromStdString(
        (demoBuildPath().parent_path() / "harbour-standby.mildpath").string());
    QVERIFY(m_window->openFile(path));
    forecast(2);
    const Diagnosis *d = diagnosis();
    QVERIFY(d);
    QProcess cli;
    cli.start(QString::fromUtf8(cliProgram),
              { QStringLiteral("diagnose"), path, QStringLiteral("--json") });
    QVERIFY(cli.waitForFinished(60000));
    QCOMPARE(cli.exitCode(), 0);
    const Json json = *parseJson(cli.readAllStandardOutput().toStdString());
    QCOMPARE(find<QLabel>("diagnosis.verdict")->text(), qs(json["verdict"].get<std::string>()));
    QCOMPARE(json["candidates"].size(), d->candidates.size());
    const QString spoken = find<CandidateBars>("candidateBars")->accessibleName();
    for (size_t i = 0; i < d->candidates.size(); ++i) {
        const Json &c = json["candidates"][i];
        QCOMPARE(c["name"].get<std::string>(), d->candidates[i].name);
        QCOMPARE(c["posterior"].get<double>(), d->candidates[i].posterior);
        if (i < find<CandidateBars>("candidateBars")->rows())
            QVERIFY(spoken.contains(qs(c["name"].get<std::string>()) + u' '
                                    + Figure::percent(c["posterior"].get<double>()).text()));
    }
    auto *next = find<RowList>("diagnosis.next");
    QCOMPARE(next->rows().size(), json["next"].size());
    for (size_t i = 0; i < next->rows().size(); ++i)
        QCOMPARE(plainly(next->rows()[i].cells[0]).remove(QChar(0x202F)),
                 qs(json["next"][i]["text"].get<std::string>()));
    QCOMPARE(json["readings"].size(), size_t(6));
}

void TestDiagnosisBench::candidate_opensAsWhatIf()
{
    const QString path = QString::fromStdString(
        (demoBuildPath().parent_path() / "harbour-standby.mildpath").string());
    QVERIFY(m_window->openFile(path));
    forecast(2);
    QVERIFY(diagnosis());
    auto *bars = find<CandidateBars>("candidateBars");
    clickAt(bars, QPointF(40, 8 + 25 * 1.5)); // the second
    const Fault second = diagnosis()->candidates[1].faults.front();
    QVERIFY(panelText().contains(qs(diagnosis()->candidates[1].name)));
    clickInPanel("diagnosis.whatIf");
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Oil path"));
    QVERIFY(document().imagined() == std::vector<Fault> { second });
    QCOMPARE(document().selectedStop(), qs(second.stop));
    QVERIFY(inPanel<QSlider>(QStringLiteral("whatIf.0.severity")));
}

void TestDiagnosisBench::readingByDrill_saysSo()
{
    forecast(2);
    choose(inPanel<QComboBox>(QStringLiteral("reading.turned")),
           QStringLiteral("by a drill, crank at rest"));
    verifyClose(*inPanel<QuantityField>(QStringLiteral("reading.rpm"))->value(),
                *build().start.value("drill_rpm"), 1e-9);
    readGauge(QStringLiteral("Filter housing"), "300", "20", "2.1");
    const GaugeReading &r = build().gaugeReadings.back();
    QVERIFY(r.byDrill && r.rpm == 300);
    const Diagnosis *d = diagnosis();
    QVERIFY(d && !d->readings.empty());
    QVERIFY(said(placeText(build(), r)).find("drill at 300 rpm") != std::string::npos);
}

void TestDiagnosisBench::nextReading_fillsTheForm()
{
    forecast(2);
    const Diagnosis *d = diagnosis();
    QVERIFY(d && !d->next.empty() && !d->next.front().look);
    const NextStep first = d->next.front();
    auto *next = find<RowList>("diagnosis.next");
    clickAt(next, QPointF(60, RowList::rowHeight * 0.5));
    verifyClose(*inPanel<QuantityField>(QStringLiteral("reading.rpm"))->value(),
                first.condition.rpm, 1e-9);
    type(inPanel<QuantityField>(QStringLiteral("reading.pressure")), QStringLiteral("1.4"));
    QCOMPARE(build().gaugeReadings.back().tap, first.id);
    QCOMPARE(build().gaugeReadings.back().oil_c, first.condition.oil_c);
}

void TestDiagnosisBench::everything_survivesSavingAndReopening()
{
    forecast(2);
    readGauge(QStringLiteral("Filter housing"), "800", "100", "1.4");
    choose(inPanel<QComboBox>(QStringLiteral("symptom.gauge_zero")), QStringLiteral("no"));
    route(3);
    select("chain_jet");
    clickInPanel("flow.flows");
    route(2);
    inPanel<QCheckBox>(QStringLiteral("filter.remote"))->click();
    QApplication::processEvents();
    clickInPanel("lines.draw");
    const Build before = build();
    QTemporaryDir dir;
    const QString path = dir.filePath(QStringLiteral("all.mildpath"));
    QVERIFY(document().save(path));
    QVERIFY(m_window->openFile(path));
    QVERIFY(build() == before);
}

} // namespace tst_diagnosisbench

MILDPATH_TEST(tst_diagnosisbench, TestDiagnosisBench)
#include "tst_diagnosisbench.moc"
