// SPDX-License-Identifier: GPL-3.0-or-later
// The whole job through the real widgets, from opening the demo to the build sheet, with the
// simulated engine on a serial line; and a hidden fault that no gauge shows.
#include "checks/assessment.h"
#include "startfixture.h"

#include "bench/start/afterpage.h"
#include "diagnose/diagnosis.h"
#include "entry/rowlist.h"

using namespace mildpath;

namespace tst_wholejob {

class TestWholeJob : public QObject, protected StartFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { openDemo(); }
    void cleanup() { m_window.reset(); }
    void plugMissing_isFoundFromWhatIsSeen();
    void wholeJob();

private:
    void saveSheet(const QString &path);
};

void TestWholeJob::plugMissing_isFoundFromWhatIsSeen()
{
    EngineSim sim;
    QVERIFY(sim.start(m_file,
                      { "--fault", "lifter_gallery_plug_missing", "--rate", "40", "--fast", "15",
                        "--seed", "3" }));
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

void TestWholeJob::saveSheet(const QString &path)
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

void TestWholeJob::wholeJob()
{
    // Measure: the main that is past its limit, with the shells that were swapped.
    goTo("clearances", 0);
    walkTo("main_4");
    ReadingEntry &e = *m_window->currentBench()->findChild<ReadingEntry *>();
    for (size_t i = 0; i < e.positions(); ++i)
        if (e.cell(i)->isVisible())
            type(e.cell(i), QStringLiteral("54"));
    QCOMPARE(assessment().marksOf("main_4")->size, Mark::Proven);

    // Clean: the lifter gallery, brushed until it came out white.
    goTo("passages", 0);
    walkTo("lifter_rear_plug");
    const size_t events = build().events.size();
    click("record.white");
    QVERIFY(build().events.size() > events);

    // Prove: the hidden plug goes in and is seen.
    goTo("passages", 1);
    auto *rows = find<RowList>("plugRows");
    for (size_t i = 0; i < build().plugs.size(); ++i)
        if (build().plugs[i].hidden())
            clickAt(rows, QPointF(60, RowList::rowHeight * (static_cast<double>(i) + 0.5)));
    click("plug.in");
    click("plug.seen");

    // Forecast.
    goTo("forecast", 0);
    const LikelyPressure forecast = assessment().operating.hotIdle.gauge;
    QVERIFY(forecast.value_pa > build().use.hotIdleFloor_kpa * 1e3);

    // What still holds is signed for; then prime, with the simulated engine at the other end.
    EngineSim sim;
    QVERIFY(sim.start(m_file,
                      { "--rate", "50", "--fast", "20", "--seed", "11", "--dropouts", "0.02" }));
    goTo("start", 0);
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
    goTo("start", 2);
    auto *after = find<AfterPage>("afterPage");
    QTRY_VERIFY_WITH_TIMEOUT(after->about().contains(QStringLiteral("3")), 60000);

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

} // namespace tst_wholejob

MILDPATH_TEST(tst_wholejob, TestWholeJob)
#include "tst_wholejob.moc"
