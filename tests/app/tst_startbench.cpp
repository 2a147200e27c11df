// SPDX-License-Identifier: GPL-3.0-or-later
// The bench of the first start through its widgets.
#include "assess/believed.h"
#include "checks/assessment.h"
#include "checks/cost.h"
#include "startfixture.h"

#include "entry/rowlist.h"

#include "bench/start/afterpage.h"
#include "bench/start/alarmsound.h"
#include "bench/start/rehearsalpage.h"
#include "devices/pseudoterminal.h"
#include "devices/senderline.h"
#include "entry/rowlist.h"
#include "storage/runfile.h"

#include <QSignalSpy>
#include <QTextBrowser>

using namespace mildpath;

namespace tst_startbench {

class TestStartBench : public QObject, protected StartFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { openDemo(); }
    void cleanup() { m_window.reset(); }
    void gate_isSignedInPlaceAndOpensTheStart();
    void card_stepsAndChoicesAreRecordedAndUndone();
    void card_valuesMoveTheForecast();
    void primingPressure_isAReadingOfTheDrilledPump();
    void record_withoutSenderOrGateSaysWhy();
    void lowPressure_alarmsWithPictureAndSound();
    void silentSender_alarms();
    void space_stopsFromAnyBenchAndSaysWhatToSwitchOff();
    void marksAndNotes_goIntoTheRun();
    void readings_areKeptBesideTheBuild();
    void unfinishedLog_isOfferedAndTaken();
    void unfinishedLog_ofAnUnsavedBuildStaysKept();
    void import_choosesColumnsInPlace();
    void rehearsal_fromHidingToDebrief();
    void afterwards_offersToUseReadingsAndTakesThemBack();
    void trace_staysSmallAndKeepsSpikes();
    void sheet_isVectorsOnBothPapers();
};

void TestStartBench::gate_isSignedInPlaceAndOpensTheStart()
{
    start();
    step("gate");
    QVERIFY(panelText().contains(QStringLiteral("May not fire")));
    clickInPanel("gate.checks");
    auto *rows = find<RowList>("checkRows");
    QVERIFY(rows && rows->isVisible());
    const auto take = [&](const QString &name) {
        for (size_t i = 0; i < rows->rows().size(); ++i)
            if (rows->rows()[i].cells.front().trimmed() == name) {
                Q_EMIT rows->picked(static_cast<int>(i));
                QApplication::processEvents();
                return;
            }
        QFAIL(qPrintable(name));
    };
    take(QStringLiteral("Clearance inside its limits; cap at its last stage, loosened in reverse"));
    take(QStringLiteral("Main 4"));
    // Without a reason nobody has signed; with one it takes two.
    choose(inPanel<QComboBox>(QStringLiteral("check.signer")), QStringLiteral("J. Moor"));
    clickInPanel("check.sign");
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("three words")));
    QCOMPARE(standing(build().signOffs).size(), size_t(0));
    typeInPanel(QStringLiteral("check.why"), QStringLiteral("kept for the first hour only"));
    clickInPanel("check.sign");
    QCOMPARE(document().judgement().checks.find("clr@main_4")->state, CheckState::Hold);
    choose(inPanel<QComboBox>(QStringLiteral("check.signer")), QStringLiteral("T. Quill"));
    clickInPanel("check.sign");
    QCOMPARE(document().judgement().checks.find("clr@main_4")->state, CheckState::SignedOff);
    QVERIFY(panelText().contains(QStringLiteral("J. Moor and T. Quill")));
    document().undoStack().undo();
    QCOMPARE(document().judgement().checks.find("clr@main_4")->state, CheckState::Hold);
    // A figure in any unit, against the limits.
    typeInPanel(QStringLiteral("check.value"), QStringLiteral("3 thou"));
    typeInPanel(QStringLiteral("check.u"), QStringLiteral("2 µm"));
    choose(inPanel<QComboBox>(QStringLiteral("check.by")), QStringLiteral("J. Moor"));
    clickInPanel("check.yes");
    QVERIFY(std::abs(build().checkEntries.back().value.value_or(0) - 76.2) < 1e-6);
    QVERIFY(std::abs(build().checkEntries.back().u.value_or(0) - 1) < 1e-6);
    document().undoStack().undo();
    // A family in one entry, with an exception.
    take(QStringLiteral("Preservative off; shells, journals, thrust faces oiled"));
    choose(inPanel<QComboBox>(QStringLiteral("check.by")), QStringLiteral("J. Moor"));
    typeInPanel(QStringLiteral("check.except"), QStringLiteral("Main 2"));
    choose(inPanel<QComboBox>(QStringLiteral("check.means")),
           QStringLiteral("a photo older than the closing"));
    clickInPanel("check.yes");
    QCOMPARE(build().checkEntries.back().except, std::vector<std::string> { "main_2" });
    // What was seen on another day, and days nobody could have seen it on.
    const size_t entries = build().checkEntries.size();
    for (const char *on : { "31 Feb", "2999-01-01" }) {
        typeInPanel(QStringLiteral("check.on"), QString::fromLatin1(on));
        clickInPanel("check.yes");
        QVERIFY2(m_window->messageBar().text().contains(QString::fromLatin1(on)), on);
        QCOMPARE(build().checkEntries.size(), entries);
    }
    typeInPanel(QStringLiteral("check.on"), QStringLiteral("2026-01-05"));
    clickInPanel("check.yes");
    QCOMPARE(build().checkEntries.back().at, std::string("2026-01-05T12:00:00"));
    // What it would cost is solved behind one's back.
    take(QStringLiteral("Clearance inside its limits; cap at its last stage, loosened in reverse"));
    take(QStringLiteral("Main 4"));
    QTRY_VERIFY(panelText().contains(QStringLiteral("If it were false")));
    QTRY_VERIFY(!panelText().contains(QStringLiteral("Being solved")));
    const auto fault = faultBehind(build(), *assessment().checks.find("clr@main_4"));
    QVERIFY(fault.has_value());
    QVERIFY(panelText().contains(qs(costOf(build(), assessment().sizes, *fault).text)));
    // And where to mend it.
    clickInPanel("check.go");
    QCOMPARE(m_window->currentBench()->title(), QStringLiteral("Clearances"));
}

void TestStartBench::card_stepsAndChoicesAreRecordedAndUndone()
{
    start();
    seen("oil_in");
    QVERIFY(lastStep("oil_in"));
    QVERIFY(!lastStep("oil_in")->by.empty() && !lastStep("oil_in")->at.empty());
    step("prefill");
    QVERIFY(panelText().contains(QStringLiteral("unfiltered oil"))); // both schools speak
    QVERIFY(panelText().contains(QStringLiteral("saves seconds")));
    choose(inPanel<QComboBox>(QStringLiteral("card.answer")), QStringLiteral("half full"));
    QCOMPARE(choiceOf(build(), "prefill_filter"), std::string("half"));
    document().undoStack().undo();
    QCOMPARE(choiceOf(build(), "prefill_filter"), std::string());
    step("oil_in");
    clickInPanel("card.takeBack");
    QVERIFY(!lastStep("oil_in"));
    step("leaks");
    QVERIFY(panelText().contains(QStringLiteral("after the start")));
    QVERIFY(!inPanel<QPushButton>(QStringLiteral("card.done")));
}

void TestStartBench::card_valuesMoveTheForecast()
{
    start();
    seen("fuel_off");
    step("prime");
    const double before = *primeForecast(build(), assessment()).time.time_s;
    type(inPanel<QuantityField>(QStringLiteral("start.filter_l")), QStringLiteral("0.9 l"));
    QCOMPARE(*build().start.own("filter_l"), 0.9);
    QVERIFY(*primeForecast(build(), assessment()).time.time_s > before + 10);
    // A value that cannot be is refused, the old one kept.
    type(inPanel<QuantityField>(QStringLiteral("start.filter_l")), QStringLiteral("90 l"));
    QCOMPARE(*build().start.own("filter_l"), 0.9);
}

void TestStartBench::primingPressure_isAReadingOfTheDrilledPump()
{
    start();
    seen("fuel_off");
    step("prime");
    const PrimeForecast prime = primeForecast(build(), assessment());
    QVERIFY(prime.drill);
    const size_t before = build().gaugeReadings.size();
    type(inPanel<QuantityField>(QStringLiteral("card.prime_pressure")), QStringLiteral("-1"));
    QCOMPARE(build().gaugeReadings.size(), before); // refused
    type(inPanel<QuantityField>(QStringLiteral("card.prime_pressure")), QStringLiteral("1.9"));
    QCOMPARE(build().gaugeReadings.size(), before + 1);
    const GaugeReading &r = build().gaugeReadings.back();
    QVERIFY(r.byDrill);
    verifyClose(r.rpm, prime.shaft_rpm, 1e-9);
    verifyClose(r.pressure_kpa, 190, 1e-6);
    QVERIFY(lastStep("prime") && lastStep("prime")->outcome == "done");
    // The panel is another one now; the keyboard stays at its field.
    QCOMPARE(QApplication::focusWidget(),
             static_cast<QWidget *>(inPanel<QuantityField>(QStringLiteral("card.prime_pressure"))));
    QVERIFY(Believed::by(build(), assessment().sizes));
    // One more corrects nothing of the step.
    const std::string gone = lastStep("prime")->id;
    type(inPanel<QuantityField>(QStringLiteral("card.prime_pressure")), QStringLiteral("1.8"));
    QCOMPARE(lastStep("prime")->id, gone);
    QCOMPARE(build().gaugeReadings.size(), before + 2);
    document().undoStack().undo();
    QCOMPARE(build().gaugeReadings.size(), before + 1);
}

void TestStartBench::record_withoutSenderOrGateSaysWhy()
{
    start();
    step("prime");
    click("start.record");
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("ignition and fuel off")));
    QCOMPARE(find<CardList>("start.card")->chosen(), QStringLiteral("fuel_off"));
    clickInPanel("card.done");
    step("prime");
    click("start.record");
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("No sender")));
    step("start");
    click("start.record");
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("May not fire")));
    QCOMPARE(find<CardList>("start.card")->chosen(), QStringLiteral("gate"));
    typeInPanel(QStringLiteral("start.port"), QStringLiteral("/dev/no-such-port"));
    QCOMPARE(m_window->sender().state(), SerialLine::State::Off);
}

void TestStartBench::lowPressure_alarmsWithPictureAndSound()
{
    PseudoTerminal port;
    QVERIFY2(port.open({}).empty(), "no pseudo-terminal");
    readyToStart();
    listen(qs(port.path()));
    QTest::qWait(300);
    step("start");
    click("start.record");
    auto *sound = find<StartPage>("startPage")->findChild<AlarmSound *>();
    QSignalSpy rang(sound, &AlarmSound::rang);
    double ms = 0;
    const auto say = [&](double kpa) {
        ms += 50;
        port.send(senderLine({ kpa * 1e3, 800, 40, ms / 1e3 }) + "\r\n");
        QTest::qWait(50);
    };
    for (int i = 0; i < 12; ++i)
        say(300);
    QVERIFY(trace().scene().alarm.isEmpty());
    QVERIFY(lastStep("start")); // pressure came: on the card at once
    // One lost line rings nothing.
    say(0);
    say(300);
    QTest::qWait(300);
    QCOMPARE(rang.count(), 0);
    // Truly low: picture and sound with the second reading, within 0.3 s of the first on the log's
    // clock. How long it takes on the wall is for the benchmark.
    const LiveLog &log = find<StartPage>("startPage")->log();
    std::optional<double> called_s;
    connect(&log, &LiveLog::alarmed, this, [&](const Alarm &a) {
        if (a.kind == AlarmKind::LowPressure && !called_s)
            called_s = a.t_s;
    });
    ms += 50;
    const double low_s = ms / 1e3;
    port.send(senderLine({ 40e3, 800, 40, low_s }) + "\r\n"
              + senderLine({ 40e3, 800, 40, low_s + 0.05 }) + "\r\n");
    ms += 50;
    QTRY_VERIFY(!trace().scene().alarm.isEmpty());
    QCOMPARE(rang.count(), 1);
    QVERIFY(trace().scene().alarm.contains(QStringLiteral("below your minimum")));
    const double began_s = 0.05; // of the sender's clock, at the log's first reading
    QVERIFY2(called_s && *called_s <= low_s - began_s + 0.3,
             qPrintable(QString::number(called_s.value_or(-1))));
    // Back above, it is over.
    for (int i = 0; i < 4; ++i)
        say(300);
    QTRY_VERIFY(trace().scene().alarm.isEmpty());
    QVERIFY(!sound->isOn());
}

void TestStartBench::silentSender_alarms()
{
    PseudoTerminal port;
    QVERIFY(port.open({}).empty());
    readyToStart();
    listen(qs(port.path()));
    QTest::qWait(300);
    step("start");
    click("start.record");
    for (int i = 0; i < 6; ++i) {
        port.send("p=300kPa n=800 t=40C\r\n");
        QTest::qWait(60);
    }
    QTRY_VERIFY_WITH_TIMEOUT(trace().scene().alarm.contains(QStringLiteral("Sender silent")), 3000);
    port.send("p=300kPa n=800 t=40C\r\n");
    QTRY_VERIFY(trace().scene().alarm.isEmpty());
}

void TestStartBench::space_stopsFromAnyBenchAndSaysWhatToSwitchOff()
{
    PseudoTerminal port;
    QVERIFY(port.open({}).empty());
    start();
    seen("fuel_off");
    step("prime");
    listen(qs(port.path()));
    QTest::qWait(300);
    click("start.record");
    for (int i = 0; i < 5; ++i) {
        port.send("p=0kPa n=250 t=20C\r\n");
        QTest::qWait(40);
    }
    QVERIFY(find<StartPage>("startPage")->log().recording());
    // The stop is counted down before it is due.
    QTRY_VERIFY(trace().scene().under.contains(QStringLiteral("stop in")));
    QVERIFY(trace().scene().stopAt_s.has_value());
    m_window->showBench(Place::Forecast);
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    start();
    QVERIFY(!find<StartPage>("startPage")->log().recording());
    QVERIFY(trace().scene().say.contains(QStringLiteral("Switch off")));
    QCOMPARE(build().runs.size(), size_t(1));
    QCOMPARE(build().runs.back().kind, std::string("prime"));
    QCOMPARE(lastStep("prime")->outcome, std::string("not_so"));
}

void TestStartBench::marksAndNotes_goIntoTheRun()
{
    PseudoTerminal port;
    QVERIFY(port.open({}).empty());
    start();
    seen("fuel_off");
    step("prime");
    listen(qs(port.path()));
    QTest::qWait(300);
    click("start.record");
    for (int i = 0; i < 4; ++i) {
        port.send("p=120kPa n=250 t=20C\r\n");
        QTest::qWait(40);
    }
    QTest::keyClick(m_window.get(), Qt::Key_M);
    QTest::keyClick(m_window.get(), Qt::Key_N);
    auto *note = find<QLineEdit>("start.note");
    QVERIFY(note->isVisible());
    note->setFocus();
    QTest::keyClicks(note, QStringLiteral("rattle at the front")); // a space is a space here
    QTest::keyClick(note, Qt::Key_Return);
    QVERIFY(find<StartPage>("startPage")->log().recording());
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    const RunLog &run = build().runs.back();
    QCOMPARE(run.marks.size(), size_t(2));
    QCOMPARE(run.marks[1].text, std::string("rattle at the front"));
    QVERIFY(run.readings >= 3);
    QCOMPARE(run.tap, build().gaugeTap);
}

void TestStartBench::readings_areKeptBesideTheBuild()
{
    EngineSim sim;
    QVERIFY(sim.start(m_file, { "--rate", "50" }));
    start();
    seen("fuel_off");
    step("prime");
    listen(sim.port());
    QTest::qWait(400);
    click("start.record");
    sim.order("drill 250");
    const QDir runs(m_dir->filePath(QStringLiteral("state/runs")));
    QTRY_VERIFY(runs.entryList({ QStringLiteral("prime-*.csv") }).size() == 1);
    QTest::qWait(1200);
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    const RunLog &run = build().runs.back();
    QVERIFY(!run.file.empty());
    QFile kept(m_dir->filePath(QStringLiteral("build.files/") + qs(run.file)));
    QVERIFY(kept.open(QIODevice::ReadOnly));
    QCOMPARE(kept.readAll().count('\n'), run.readings + 1);
    QVERIFY(runs.entryList({ QStringLiteral("*.csv") }).isEmpty()); // nothing left behind
    QVERIFY(m_window->save());
    openAt(m_file);
    QCOMPARE(build().runs.size(), size_t(1));
    QVERIFY(!build().runs.back().trace.empty());
}

void TestStartBench::unfinishedLog_isOfferedAndTaken()
{
    const QString runs = m_dir->filePath(QStringLiteral("state/runs"));
    {
        auto file = RunFile::start(runs.toStdString(), "start", "20260301T100000");
        QVERIFY(file.has_value());
        for (int i = 0; i < 50; ++i)
            QVERIFY(file->append({ i * 0.1, 250.0, 800.0, 30.0 }));
    } // as a killed program leaves it: nobody holds it
    m_window->offerRecovery();
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("50 readings")));
    auto *take = m_window->messageBar().findChild<QPushButton *>(QStringLiteral("answer0"));
    QTest::mouseClick(take, Qt::LeftButton);
    QCOMPARE(build().runs.size(), size_t(1));
    QCOMPARE(build().runs.back().readings, 50);
    QVERIFY(QDir(runs).entryList({ QStringLiteral("*.csv") }).isEmpty());
    QVERIFY(QFile::exists(
        m_dir->filePath(QStringLiteral("build.files/") + qs(build().runs.back().file))));
}

void TestStartBench::unfinishedLog_ofAnUnsavedBuildStaysKept()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    const QDir runs(m_dir->filePath(QStringLiteral("state/runs")));
    {
        auto file = RunFile::start(runs.path().toStdString(), "prime", "d");
        QVERIFY(file && file->append({ 0, 1.0, 2.0, 3.0 }));
    }
    m_window->offerRecovery();
    QTest::mouseClick(m_window->messageBar().findChild<QPushButton *>(QStringLiteral("answer0")),
                      Qt::LeftButton);
    QCOMPARE(build().runs.size(), size_t(1));
    QVERIFY(build().runs.back().file.empty());
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("kept")));
    QCOMPARE(QDir(runs.filePath(QStringLiteral("kept"))).entryList(QDir::Files).size(), 1);
    QVERIFY(findUnfinishedRuns(runs.path().toStdString()).empty());
}

void TestStartBench::import_choosesColumnsInPlace()
{
    QFile log(m_dir->filePath(QStringLiteral("dash.csv")));
    QVERIFY(log.open(QIODevice::WriteOnly));
    log.write("Stamp;Ch1;Ch2\n0;2,5;800\n1;2,6;805\n2;2,7;810\n");
    log.close();
    QVERIFY(m_window->importFile(QStringLiteral("run"), log.fileName()));
    auto *take = find<QPushButton>("import.take");
    QVERIFY(take->isVisible() && !take->isEnabled()); // no column is named yet
    QVERIFY(find<QLabel>("import.said")->text().contains(QStringLiteral("no column")));
    choose(find<QComboBox>("import.time"), QStringLiteral("Stamp"));
    choose(find<QComboBox>("import.pressure"), QStringLiteral("Ch1"));
    choose(find<QComboBox>("import.rpm"), QStringLiteral("Ch2"));
    choose(find<QComboBox>("import.pressureUnit"), QStringLiteral("bar"));
    QVERIFY(take->isEnabled());
    click("import.take");
    QCOMPARE(build().runs.size(), size_t(1));
    verifyClose(build().runs.back().most_kpa, 270, 1e-9, 0, QStringLiteral("most"));
    QCOMPARE(*build().runs.back().trace.front().rpm, 800.0);
    QCOMPARE(build().runs.back().source, std::string("dash.csv"));
    // A file that is no table is said, and nothing is changed.
    QFile bad(m_dir->filePath(QStringLiteral("bad.csv")));
    QVERIFY(bad.open(QIODevice::WriteOnly));
    bad.write("hello\n");
    bad.close();
    QVERIFY(!m_window->importFile(QStringLiteral("run"), bad.fileName()));
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("header")));
}

void TestStartBench::rehearsal_fromHidingToDebrief()
{
    start(1);
    auto *page_ = find<RehearsalPage>("rehearsalPage");
    QVERIFY(!find<QPushButton>("rehearsal.drill")->isEnabled());
    const Build before = build();
    click("rehearsal.begin");
    QVERIFY(page_->rehearsal());
    QVERIFY(page_->beginWith(*parseFault(build(), "lifter_gallery_plug_missing"), 4).isEmpty());
    click("rehearsal.drill");
    page_->advance(60);
    QVERIFY(!find<LiveTrace>("rehearsal.trace")->scene().trace->all().empty());
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    QCOMPARE(page_->rehearsal()->engine().turning(), Turning::Still);
    click("rehearsal.read");
    QVERIFY(find<QLabel>("rehearsal.saw")->text().contains(QStringLiteral("bar")));
    auto *looks_ = find<RowList>("rehearsal.looks");
    for (size_t i = 0; i < looks().size(); ++i)
        if (looks()[i].id == "watch_lifters")
            clickAt(looks_, QPointF(60, RowList::rowHeight * (static_cast<double>(i) + 0.5)));
    QVERIFY2(find<QLabel>("rehearsal.saw")->text().contains(QStringLiteral("Lifter 8 dry")),
             qPrintable(find<QLabel>("rehearsal.saw")->text()));
    auto *answer = find<QComboBox>("rehearsal.answer");
    const int plug = answer->findText(QStringLiteral("Rear plug"), Qt::MatchContains);
    QVERIFY(plug >= 0);
    answer->setCurrentIndex(plug);
    click("rehearsal.name");
    const QString debrief = find<QTextBrowser>("rehearsal.debrief")->toPlainText();
    QVERIFY2(debrief.contains(QStringLiteral("Found before harm")), qPrintable(debrief));
    QVERIFY(debrief.contains(QStringLiteral("Your way")));
    QVERIFY(debrief.contains(QStringLiteral("shortest way")));
    QVERIFY(build() == before); // a copy was played, not the build
}

void TestStartBench::afterwards_offersToUseReadingsAndTakesThemBack()
{
    // Read by hand, all a little under the forecast.
    readyToStart();
    seen("start");
    for (const char *id : { "cold_idle", "fast", "hot_idle" }) {
        step(id);
        const auto gate = gateOf(document().judgement());
        const auto prime = primeForecast(build(), assessment());
        const auto card = runCardOf(build(), assessment(), prime, gate);
        const double pa = card.find(id)->expected->value_pa * 0.93;
        type(inPanel<QuantityField>(QStringLiteral("card.pressure")),
             QString::number(pa / 1e5, 'f', 3) + QStringLiteral(" bar"));
        QVERIFY2(lastStep(id), id);
    }
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(3));
    start(2);
    QTRY_VERIFY_WITH_TIMEOUT(panelText().contains(QStringLiteral("Why: what they move")), 60000);
    const LikelyPressure idle = assessment().operating.hotIdle.gauge;
    const double before = idle.value_pa;
    QApplication::processEvents();
    QVERIFY(build().calibrations.empty()); // offered, not taken
    clickInPanel("after.useReadings");
    const LikelyPressure used = assessment().operating.hotIdle.gauge;
    verifyClose(used.value_pa / before, 0.93, 0.03); // as read
    QVERIFY(used.high_pa / used.low_pa < 0.8 * idle.high_pa / idle.low_pa);
    QVERIFY(!m_window->sidePanel().findChild<QPushButton *>(QStringLiteral("after.useReadings")));
    QCOMPARE(standing(build().calibrations).size(), size_t(1));
    QVERIFY(panelText().contains(QStringLiteral("In force")));
    clickInPanel("after.takeBack.a1");
    QVERIFY(standing(build().calibrations).empty());
    QCOMPARE(assessment().operating.hotIdle.gauge.value_pa, before);
}

void TestStartBench::trace_staysSmallAndKeepsSpikes()
{
    TraceBuckets trace;
    for (int i = 0; i < 90000; ++i) {
        LivePoint p { { i * 0.02, 300.0, 800.0, 60.0 }, 250, 350 };
        if (i == 4321)
            p.read.pressure_kpa = 5;
        if (i == 80001)
            p.read.pressure_kpa = 900;
        trace.add(p);
    }
    QVERIFY(trace.all().size() <= TraceBuckets::most);
    QVERIFY(trace.all().size() >= TraceBuckets::most / 2);
    QCOMPARE(trace.most_kpa(), 900.0F);
    QCOMPARE(trace.last_s(), 89999 * 0.02);
    int points = 0;
    float low = 1e9F;
    double before = -1;
    for (const TraceBucket &b : trace.all()) {
        points += b.points;
        low = std::min(low, b.low);
        QVERIFY(b.from_s > before && b.to_s >= b.from_s);
        before = b.to_s;
        QCOMPARE(b.bandLow, 250.0F);
    }
    QCOMPARE(points, 90000);
    QCOMPARE(low, 5.0F);
    trace.clear();
    QVERIFY(trace.all().empty());
}

void TestStartBench::sheet_isVectorsOnBothPapers()
{
    for (const bool letter : { false, true }) {
        const QString path
            = m_dir->filePath(letter ? QStringLiteral("l.pdf") : QStringLiteral("a.pdf"));
        QVERIFY(m_window->writeSheet(path, letter));
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray pdf = file.readAll();
        QVERIFY(pdf.startsWith("%PDF"));
        QVERIFY(!pdf.contains("/Subtype /Image")); // pictures are lines, not dots
        // 595 × 842 points is A4 (ISO 216), 612 × 792 Letter (ANSI X3.151, from memory).
        QVERIFY(pdf.contains(letter ? "612" : "595"));
        QVERIFY(pdf.count("/Type /Page\n") + pdf.count("/Type /Page ") >= 3
                || pdf.count("/Type /Page") >= 4);
    }
    QVERIFY(m_window->writeSheet(m_dir->filePath(QStringLiteral("s.html"))));
    QVERIFY(!m_window->writeSheet(QStringLiteral("/proc/nowhere/s.pdf")));
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("/proc/nowhere")));
}

} // namespace tst_startbench

MILDPATH_TEST(tst_startbench, TestStartBench)
#include "tst_startbench.moc"
