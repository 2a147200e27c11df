// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "diagnose/diagnosis.h"
#include "diagnose/remedies.h"
#include "open/openbuild.h"
#include "open/questions.h"
#include "study/dressing.h"
#include "study/room.h"
#include "testing.h"

#include <QSignalSpy>
#include <QThread>

#include <atomic>

using namespace mildpath;

namespace tst_answers {

/// One store of answers: shared, cancelled when nobody wants them, gone with the document.
class TestAnswers : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void init();
    void cleanup() { m_open.reset(); }
    void question_isWorkedOutOnceForAllWhoAsk();
    void newestSettings_areAnsweredAlone();
    void settings_areKeptApart();
    void edit_voidsAnAnswerAndShowsItUntilTheNext();
    void anotherDocument_forgetsWhatWasSaid();
    void givenUp_isNeverAnswered();
    void onTheSpot_isSharedLikeTheRest();
    void answer_outlivesTheDocumentItPointsInto();
    void everyQuestion_saysWhatTheCoreSays_data();
    void everyQuestion_saysWhatTheCoreSays();

private:
    Answers &answers() { return m_open->answers(); }
    /// Counts how often it was worked out; slow enough to be cancelled.
    Question<int> counting(std::string settings, int result, int slow_ms = 20)
    {
        return { "counting", std::move(settings), [=, this](const AskedAbout &, Progress &p) {
                    ++m_worked;
                    for (int i = 0; i < slow_ms && !p.cancel; ++i)
                        QThread::msleep(1);
                    m_cancelled += p.cancel;
                    return result;
                } };
    }

    std::unique_ptr<OpenBuild> m_open;
    std::atomic<int> m_worked, m_cancelled;
};

void TestAnswers::init()
{
    m_worked = m_cancelled = 0;
    m_open = std::make_unique<OpenBuild>(QString());
    QVERIFY(m_open->open(demoBuild(), {}));
}

void TestAnswers::question_isWorkedOutOnceForAllWhoAsk()
{
    QSignalSpy answered(&answers(), &Answers::answered);
    for (int i = 0; i < 5; ++i)
        QVERIFY(!answers().ask(counting("", 7)));
    QVERIFY(answers().isBusy() && answers().progress("counting"));
    QTRY_COMPARE(answered.size(), 1);
    QCOMPARE(answers().ask(counting("", 7))->answer, 7);
    QCOMPARE(m_worked.load(), 1);
    QVERIFY(!answers().isBusy() && !answers().progress("counting"));
}

void TestAnswers::newestSettings_areAnsweredAlone()
{
    QSignalSpy answered(&answers(), &Answers::answered);
    QVERIFY(!answers().ask(counting("1", 1, 5000)));
    QTRY_COMPARE(m_worked.load(), 1);
    QVERIFY(!answers().ask(counting("2", 2)));
    QTRY_COMPARE(answered.size(), 1);
    QTRY_COMPARE(m_cancelled.load(), 1);
    QVERIFY(!answers().find(counting("1", 1)));
    QCOMPARE(answers().find(counting("2", 2))->answer, 2);
    QTest::qWait(50); // nothing more is to come
    QCOMPARE(answered.size(), 1);
}

void TestAnswers::settings_areKeptApart()
{
    const RoomConditions a { -20, 100, 800, 1 };
    RoomConditions b = a;
    b.coldestStart_c = std::nextafter(-20.0, 0.0);
    QVERIFY(ask::room("main", a).settings != ask::room("main", b).settings);
    QVERIFY(ask::room("main", a).settings != ask::room("big_end", a).settings);
    const Fault fault { "shell_spun", "main_2", 0, 0.5 };
    Fault worse = fault;
    worse.severity = 0.6;
    QVERIFY(ask::remedies({ fault }, {}).settings != ask::remedies({ worse }, {}).settings);
    QVERIFY(ask::remedies({ fault }, {}).settings != ask::remedies({}, {}).settings);
    QVERIFY(ask::remedies({ fault, worse }, {}).settings
            != ask::remedies({ worse, fault }, {}).settings);
}

void TestAnswers::edit_voidsAnAnswerAndShowsItUntilTheNext()
{
    QVERIFY(!answers().latest(counting("", 1)));
    QTRY_VERIFY(!answers().isBusy());
    QVERIFY(m_open->edit(SetUse { "hot_oil_c", 111 }));
    QVERIFY(!answers().find(counting("", 2)));
    QCOMPARE(answers().latest(counting("", 2))->answer, 1);
    QTRY_COMPARE(answers().latest(counting("", 2))->answer, 2);
    m_open->undoStack().undo();
    QVERIFY(!answers().find(counting("", 3)));
}

void TestAnswers::anotherDocument_forgetsWhatWasSaid()
{
    QCOMPARE(answers().now(counting("", 1))->answer, 1);
    QVERIFY(m_open->open(demoBuild(), {}));
    QVERIFY(!answers().latest(counting("", 2)));
}

void TestAnswers::givenUp_isNeverAnswered()
{
    QSignalSpy answered(&answers(), &Answers::answered);
    QVERIFY(!answers().ask(counting("", 1, 5000)));
    QTRY_COMPARE(m_worked.load(), 1);
    answers().giveUp("counting");
    QVERIFY(!answers().isBusy());
    QTRY_COMPARE(m_cancelled.load(), 1);
    QTest::qWait(50); // nothing is to come
    QCOMPARE(answered.size(), 0);
    answers().giveUp("nobody asked this");
    QCOMPARE(answers().now(counting("", 1, 0))->answer, 1);
}

void TestAnswers::onTheSpot_isSharedLikeTheRest()
{
    QCOMPARE(answers().latestOrNow(counting("", 4))->answer, 4);
    QCOMPARE(answers().ask(counting("", 5))->answer, 4);
    QCOMPARE(m_worked.load(), 1);
    QVERIFY(!answers().isBusy());
}

void TestAnswers::answer_outlivesTheDocumentItPointsInto()
{
    GaugeReading low;
    low.tap = m_open->build().gaugeTap;
    low.rpm = m_open->build().use.hotIdle_rpm;
    low.oil_c = m_open->build().use.hotOil_c;
    low.pressure_kpa = 60;
    QVERIFY(m_open->record(low));
    const auto held = answers().now(ask::diagnosis());
    QVERIFY(held->answer);
    QCOMPARE(held->answer->readings.size(), 1u);
    const std::string before = held->answer->readings.front()->id;
    QVERIFY(m_open->open(Build {}, {}));
    QCOMPARE(held->answer->readings.front()->id, before);
    QVERIFY(held->about.build->engine.find("main_1"));
}

void TestAnswers::everyQuestion_saysWhatTheCoreSays_data()
{
    QTest::addColumn<double>("floor_um");
    QTest::newRow("as it is") << 12.0;
    QTest::newRow("a higher floor") << 25.0;
}

void TestAnswers::everyQuestion_saysWhatTheCoreSays()
{
    QFETCH(double, floor_um);
    QVERIFY(m_open->edit(SetUse { "coldest_clearance_floor_um", floor_um }));
    const Build &b = m_open->build();
    const auto &sizes = m_open->sizes();
    const RoomConditions conditions = conditionsOf(b);
    QVERIFY(!answers().ask(ask::room("main", conditions)));
    QVERIFY(!answers().ask(ask::pump()));
    QTRY_VERIFY_WITH_TIMEOUT(!answers().isBusy(), 60000);
    const auto room = answers().find(ask::room("main", conditions));
    QCOMPARE(room->answer.room->least_um, roomOf(b, sizes, "main", conditions)->least_um);
    QCOMPARE(room->answer.room->most_um, roomOf(b, sizes, "main", conditions)->most_um);
    const auto pump = answers().find(ask::pump());
    QCOMPARE(pump->answer.plan->take_um(), dressingPlan(b, sizes)->take_um());
    QCOMPARE(pump->answer.options.front().gauge_pa, m_open->operating().hotIdle.gauge.value_pa);
}

} // namespace tst_answers

MILDPATH_TEST(tst_answers, TestAnswers)
#include "tst_answers.moc"
