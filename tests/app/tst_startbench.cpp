// SPDX-License-Identifier: GPL-3.0-or-later
// The bench of the first start through its widgets; and the whole job, from opening the demo to the
// build sheet, with the simulated engine on a serial line.
#include "benchfixture.h"
#include "enginesim.h"

#include "bench/start/afterpage.h"
#include "bench/start/alarmsound.h"
#include "bench/start/cardlist.h"
#include "bench/start/livetrace.h"
#include "bench/start/rehearsalpage.h"
#include "bench/start/startbench.h"
#include "bench/start/startpage.h"
#include "bench/passages/passagebench.h"
#include "bench/passages/passagemap.h"
#include "devices/pseudoterminal.h"
#include "devices/senderline.h"
#include "devices/serialsender.h"
#include "entry/rowlist.h"
#include "shell/rail.h"
#include "shell/readoutstrip.h"
#include "storage/runfile.h"

#include <QCheckBox>
#include <QDropEvent>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenuBar>
#include <QMimeData>
#include <QSignalSpy>
#include <QTabBar>
#include <QTextBrowser>
#include <QTemporaryDir>

using namespace mildpath;

class TestStartBench : public QObject, protected BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init();
    void cleanup() { m_window.reset(); }
    void gate_isSignedInPlaceAndOpensTheStart();
    void card_stepsAndChoicesAreRecordedAndUndone();
    void card_valuesMoveTheForecast();
    void record_withoutSenderOrGateSaysWhy();
    void lowPressure_alarmsWithPictureAndSound();
    void silentSender_alarms();
    void space_stopsFromAnyBenchAndSaysWhatToSwitchOff();
    void marksAndNotes_goIntoTheRun();
    void readings_areKeptBesideTheBuild();
    void unfinishedLog_isOfferedAndTaken();
    void import_choosesColumnsInPlace();
    void rehearsal_fromHidingToDebrief();
    void afterwards_offersACalibrationAndTakesItBack();
    void plugMissing_isFoundFromWhatIsSeen();
    void sheet_isVectorsOnBothPapers();
    void wholeJob();

private:
    void openAt(const QString &file);
    StartBench &start(int bench = 0) { return page<StartBench>("First start", bench); }
    LiveTrace &trace() { return *find<LiveTrace>("start.trace"); }
    void step(const char *id);
    void seen(const char *id)
    {
        step(id);
        clickInPanel("card.done");
    }
    void goTo(const char *bench, int page);
    void walkTo(const char *stop);
    void typeInPanel(const QString &name, const QString &text);
    void listen(const QString &port)
    {
        typeInPanel(QStringLiteral("start.port"), port);
        QCOMPARE(m_window->sender().state(), SerialLine::State::Listening);
    }
    void signAll();
    void readyToStart();
    QAction *menuEntry(const QString &text);
    void saveSheet(const QString &path);
    const CardStep *lastStep(const char *id)
    {
        const CardStep *out = nullptr;
        for (const CardStep *s : standing(build().cardSteps))
            if (s->step == id)
                out = s;
        return out;
    }

    std::unique_ptr<QTemporaryDir> m_dir;
    QString m_file;
};

void TestStartBench::init()
{
    m_dir = std::make_unique<QTemporaryDir>();
    m_file = m_dir->filePath(QStringLiteral("build.mildpath"));
    QVERIFY(QFile::copy(qs(demoBuildPath().string()), m_file));
    QFile::setPermissions(m_file, QFile::ReadOwner | QFile::WriteOwner);
    openAt(m_file);
}

/// As a person does: the file is dropped on the window.
void TestStartBench::openAt(const QString &file)
{
    m_window = std::make_unique<MainWindow>(m_dir->filePath(QStringLiteral("state")));
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
    m_window->activateWindow();
    QMimeData data;
    data.setUrls({ QUrl::fromLocalFile(file) });
    QDragEnterEvent enter(QPoint(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(m_window.get(), &enter);
    QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(m_window.get(), &drop);
    QTRY_COMPARE(document().path(), file);
}

/// By the tab of the bench and the button of its page.
void TestStartBench::goTo(const char *bench, int page)
{
    auto *tabs = m_window->findChild<QTabBar *>(QStringLiteral("benchTabs"));
    for (int i = 0; i < tabs->count(); ++i)
        if (tabs->tabText(i) == QString::fromUtf8(bench))
            QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(i).center());
    QCOMPARE(m_window->currentBench()->title(), QString::fromUtf8(bench));
    if (auto *button = find<QPushButton>(qPrintable(QStringLiteral("page%1").arg(page))))
        QTest::mouseClick(button, Qt::LeftButton);
    QApplication::processEvents();
}

/// Along the rail by its arrow keys.
void TestStartBench::walkTo(const char *stop)
{
    auto *rail = m_window->findChild<Rail *>();
    rail->setFocus();
    for (const Qt::Key key : { Qt::Key_Up, Qt::Key_Down })
        for (int i = 0; i < 40 && document().selectedStop() != QLatin1String(stop); ++i)
            QTest::keyClick(rail, key);
    QCOMPARE(document().selectedStop(), QLatin1String(stop));
    QApplication::processEvents();
}

void TestStartBench::step(const char *id)
{
    auto *list = find<CardList>("start.card");
    list->setFocus();
    for (const Qt::Key key : { Qt::Key_Up, Qt::Key_Down })
        for (int i = 0; i < 30 && list->chosen() != QLatin1String(id); ++i)
            QTest::keyClick(list, key);
    QCOMPARE(list->chosen(), QLatin1String(id));
    QApplication::processEvents();
}

void TestStartBench::typeInPanel(const QString &name, const QString &text)
{
    auto *field = inPanel<QLineEdit>(name);
    QVERIFY2(field, qPrintable(name));
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    QApplication::processEvents();
}

void TestStartBench::signAll()
{
    step("gate");
    for (int i = 0; i < 10; ++i) {
        const Assessment now = assessment();
        QString open;
        for (const GateHold &h : gateOf(build(), now).holds)
            if (h.open() && open.isEmpty())
                open = qs(h.finding->id);
        if (open.isEmpty())
            return;
        typeInPanel(QStringLiteral("gate.who.") + open, QStringLiteral("A. Builder"));
        typeInPanel(QStringLiteral("gate.why.") + open, QStringLiteral("seen by two"));
        clickInPanel(("gate.sign." + open.toStdString()).c_str());
    }
}

void TestStartBench::readyToStart()
{
    start();
    signAll();
    seen("fuel_off");
    step("prime");
    clickInPanel("card.skipped");
    seen("people");
}

void TestStartBench::gate_isSignedInPlaceAndOpensTheStart()
{
    start();
    step("gate");
    const auto gate = gateOf(build(), assessment());
    QVERIFY(gate.open() >= 2);
    const std::string id = gate.holds.front().finding->id;
    // Without a reason nobody has signed.
    clickInPanel(("gate.sign." + id).c_str());
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("why")));
    QCOMPARE(standing(build().signOffs).size(), size_t(0));
    signAll();
    QVERIFY(gateOf(build(), assessment()).mayStart());
    QCOMPARE(build().signOffs.front().by, std::string("A. Builder"));
    QVERIFY(panelText().contains(QStringLiteral("seen by two")));
    // The strip counts what is open, and says that something was signed for.
    document().undoStack().undo();
    QCOMPARE(gateOf(build(), assessment()).open(), 1);
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
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("holds are open")));
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
    // Truly low: within 0.3 s of the reading there is picture and sound.
    QElapsedTimer since;
    ms += 50;
    port.send(senderLine({ 40e3, 800, 40, ms / 1e3 }) + "\r\n");
    since.start();
    QTRY_VERIFY_WITH_TIMEOUT(!trace().scene().alarm.isEmpty(), 2000);
    const qint64 took = since.elapsed();
    QCOMPARE(rang.count(), 1);
    QVERIFY(trace().scene().alarm.contains(QStringLiteral("floor")));
    QVERIFY2(took <= 300, qPrintable(QStringLiteral("%1 ms").arg(took)));
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
    QTRY_VERIFY_WITH_TIMEOUT(trace().scene().alarm.contains(QStringLiteral("says nothing")), 3000);
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
    m_window->showBench(QStringLiteral("Forecast"));
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

void TestStartBench::import_choosesColumnsInPlace()
{
    QFile log(m_dir->filePath(QStringLiteral("dash.csv")));
    QVERIFY(log.open(QIODevice::WriteOnly));
    log.write("Stamp;Ch1;Ch2\n0;2,5;800\n1;2,6;805\n2;2,7;810\n");
    log.close();
    QVERIFY(m_window->importRun(log.fileName()));
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
    QVERIFY(!m_window->importRun(bad.fileName()));
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

void TestStartBench::afterwards_offersACalibrationAndTakesItBack()
{
    // Read by hand, all a little under the forecast.
    readyToStart();
    seen("start");
    for (const char *id : { "cold_idle", "fast", "hot_idle" }) {
        step(id);
        const auto gate = gateOf(build(), assessment());
        const auto prime = primeForecast(build(), assessment());
        const auto card = runCardOf(build(), assessment(), prime, gate);
        const double pa = card.find(id)->expected->value_pa * 0.93;
        type(inPanel<QuantityField>(QStringLiteral("card.pressure")),
             QString::number(pa / 1e5, 'f', 3) + QStringLiteral(" bar"));
        QVERIFY2(lastStep(id), id);
    }
    QCOMPARE(standing(build().gaugeReadings).size(), size_t(3));
    start(2);
    QTRY_VERIFY_WITH_TIMEOUT(panelText().contains(QStringLiteral("all readings then fit")), 20000);
    const double before = assessment().hotIdle.gauge.value_pa;
    QApplication::processEvents();
    auto buttons = m_window->sidePanel().findChildren<QPushButton *>(
        QRegularExpression(QStringLiteral("after\\.calibrate\\..*")));
    QVERIFY(!buttons.isEmpty());
    QVERIFY(build().calibrations.empty()); // offered, not taken
    QTest::mouseClick(buttons.front(), Qt::LeftButton);
    QCOMPARE(standing(build().calibrations).size(), size_t(1));
    QVERIFY(panelText().contains(QStringLiteral("In force")));
    clickInPanel("after.takeBack.a1");
    QVERIFY(standing(build().calibrations).empty());
    QCOMPARE(assessment().hotIdle.gauge.value_pa, before);
}

void TestStartBench::plugMissing_isFoundFromWhatIsSeen()
{
    EngineSim sim;
    QVERIFY(sim.start(m_file, { "--fault", "lifter_gallery_plug_missing", "--rate", "40", "--fast",
                                "15", "--seed", "3" }));
    start();
    signAll();
    seen("fuel_off");
    step("prime");
    listen(sim.port());
    QTest::qWait(300);
    click("start.record");
    sim.order("drill 250");
    StartPage &live = start().start();
    QTRY_VERIFY_WITH_TIMEOUT(live.log().watch() && live.log().watch()->firstPressure_s(), 15000);
    QTest::qWait(2500); // some forty seconds of its time: lifters fill
    // The gauge is inside its band while the last lifters get nothing.
    const LikelyPressure band = primeForecast(build(), assessment()).steady;
    const double pa = *live.log().mean(2)->pressure_kpa * 1e3;
    QVERIFY2(pa >= band.low_pa && pa <= band.high_pa, qPrintable(QString::number(pa)));
    const QStringList looks_ = sim.look();
    QVERIFY(looks_.contains(QStringLiteral("Lifter 8: dry")));
    QVERIFY(looks_.contains(QStringLiteral("Lifter 1: flows")));
    sim.order("still");
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    step("lifters");
    for (int i = 1; i <= 8; ++i) {
        const QString saw = looks_.filter(QStringLiteral("Lifter %1:").arg(i)).value(0);
        choose(inPanel<QComboBox>(QStringLiteral("watch.lifter_gallery.%1").arg(i)),
               saw.endsWith(QStringLiteral("flows"))      ? QStringLiteral("oil comes")
                   : saw.endsWith(QStringLiteral("weak")) ? QStringLiteral("only little")
                                                          : QStringLiteral("nothing comes"));
    }
    clickInPanel("watch.tell");
    // What was seen is explained in the panel: the plug leads.
    QTRY_VERIFY_WITH_TIMEOUT(panelText().contains(QStringLiteral("What you saw, explained")),
                             60000);
    QString first;
    bool explained = false;
    for (const PanelItem &i : m_window->currentBench()->panel()) {
        if (const auto *h = std::get_if<PanelHeading>(&i))
            explained = h->text == QStringLiteral("What you saw, explained");
        if (const auto *r = std::get_if<PanelRow>(&i); r && explained && first.isEmpty())
            first = r->label;
    }
    QVERIFY2(first.contains(QStringLiteral("plug missing")), qPrintable(first));
}

QAction *TestStartBench::menuEntry(const QString &text)
{
    for (QAction *menu : m_window->menuBar()->actions())
        for (QAction *a : menu->menu()->actions())
            if (a->text() == text)
                return a;
    qFatal("no menu entry %s", qPrintable(text));
}

/// The menu and its dialog, as a person goes: File, Build sheet, a name, Enter.
void TestStartBench::saveSheet(const QString &path)
{
    QTimer answer;
    connect(&answer, &QTimer::timeout, this, [&] {
        auto *dialog = qobject_cast<QFileDialog *>(QApplication::activeModalWidget());
        if (!dialog)
            return;
        answer.stop();
        auto *name = dialog->findChild<QLineEdit *>(QStringLiteral("fileNameEdit"));
        name->setText(path);
        QTest::keyClick(name, Qt::Key_Return);
    });
    answer.start(50);
    menuEntry(QStringLiteral("&Build sheet, A4…"))->trigger();
}

void TestStartBench::sheet_isVectorsOnBothPapers()
{
    for (const bool letter : { false, true }) {
        const QString path = m_dir->filePath(letter ? QStringLiteral("l.pdf") : QStringLiteral("a.pdf"));
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

void TestStartBench::wholeJob()
{
    // Measure: the main that is past its limit, with the shells that were swapped.
    goTo("Clearances", 0);
    walkTo("main_4");
    ReadingEntry &e = *m_window->currentBench()->findChild<ReadingEntry *>();
    for (size_t i = 0; i < e.positions(); ++i)
        if (e.cell(i)->isVisible())
            type(e.cell(i), QStringLiteral("54"));
    QCOMPARE(assessment().marksOf("main_4")->size, Mark::Proven);

    // Clean: the lifter gallery, brushed until it came out white.
    goTo("Passages", 0);
    walkTo("lifter_rear_plug");
    const size_t events = build().events.size();
    click("record.white");
    QVERIFY(build().events.size() > events);

    // Prove: the hidden plug goes in and is seen.
    goTo("Passages", 1);
    auto *rows = find<RowList>("plugRows");
    for (size_t i = 0; i < build().plugs.size(); ++i)
        if (build().plugs[i].hidden())
            clickAt(rows, QPointF(60, RowList::rowHeight * (static_cast<double>(i) + 0.5)));
    click("plug.in");
    click("plug.seen");

    // Forecast.
    goTo("Forecast", 0);
    const LikelyPressure forecast = assessment().hotIdle.gauge;
    QVERIFY(forecast.value_pa > build().use.hotIdleFloor_kpa * 1e3);

    // What still holds is signed for; then prime, with the simulated engine at the other end.
    EngineSim sim;
    QVERIFY(sim.start(m_file, { "--rate", "50", "--fast", "20", "--seed", "11", "--dropouts",
                                "0.02" }));
    goTo("First start", 0);
    signAll();
    for (const char *id : { "oil_in", "fuel_off", "drive" })
        seen(id);
    step("prefill");
    choose(inPanel<QComboBox>(QStringLiteral("card.answer")), QStringLiteral("put on dry"));
    step("packing");
    choose(inPanel<QComboBox>(QStringLiteral("card.answer")), QStringLiteral("oil poured in"));
    step("prime");
    listen(sim.port());
    QTest::qWait(300);
    click("start.record");
    sim.order("drill 250");
    StartPage &live = *find<StartPage>("startPage");
    QTRY_VERIFY_WITH_TIMEOUT(live.log().watch()->firstPressure_s(), 15000);
    QTest::qWait(1500);
    sim.order("still");
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    QCOMPARE(lastStep("prime")->outcome, std::string("done"));
    for (const char *id : { "lifters", "rockers" }) {
        step(id);
        const auto stops = QString::fromLatin1(id) == QStringLiteral("lifters")
            ? "watch.all.lifter_gallery"
            : "watch.all.rocker_shaft";
        clickInPanel(stops);
    }

    // Start, and the readings the card asks for.
    signAll(); // whatever the day has brought
    seen("people");
    step("start");
    click("start.record");
    sim.order("run 800");
    QTRY_VERIFY_WITH_TIMEOUT(lastStep("start"), 10000);
    QVERIFY(*lastStep("start")->seconds <= *build().start.value("pressure_within_s"));
    QTest::qWait(400);
    step("cold_idle");
    QTest::qWait(200);
    click("start.reading");
    QVERIFY(lastStep("cold_idle") && lastStep("cold_idle")->pressure_kpa);
    sim.order("run 2000");
    QTest::qWait(600);
    step("fast");
    QTest::keyClick(m_window.get(), Qt::Key_R);
    QVERIFY(lastStep("fast"));
    verifyClose(*lastStep("fast")->rpm, 2000, 0.05, 0, QStringLiteral("speed"));
    // Warm up: some twenty minutes of its time.
    QTRY_VERIFY_WITH_TIMEOUT(live.log().latest()->oil_c.value_or(0) > 92, 90000);
    seen("warm_up");
    sim.order("run 800");
    QTest::qWait(1000);
    step("hot_idle");
    click("start.reading");
    QVERIFY(lastStep("hot_idle"));
    QTest::keyClick(m_window.get(), Qt::Key_Space);
    sim.order("still");
    for (const char *id : { "stopped", "leaks", "filter_cut" })
        seen(id);
    QCOMPARE(standing(build().runs).size(), size_t(2));
    QVERIFY(build().runs.back().seconds > 200);

    // What was read stands against the forecast.
    goTo("First start", 2);
    auto *after = find<AfterPage>("afterPage");
    QTRY_VERIFY_WITH_TIMEOUT(after->about().contains(QStringLiteral("3")), 20000);

    // The sheet, by its menu; and everything is there after saving and opening again.
    const QString sheet = m_dir->filePath(QStringLiteral("sheet.pdf"));
    saveSheet(sheet);
    QVERIFY(QFileInfo(sheet).size() > 20000);
    menuEntry(QStringLiteral("&Save"))->trigger();
    QTRY_VERIFY(!document().isModified());
    const Build saved = build();
    openAt(m_file);
    QVERIFY(build() == saved);
    QVERIFY(lastStep("filter_cut"));
}

QTEST_MAIN(TestStartBench)
#include "tst_startbench.moc"
