// SPDX-License-Identifier: GPL-3.0-or-later
// A crank entered through the real widgets: with the keyboard only, and by a gauge on a serial line
// with nobody at the keyboard.
#include "bench/clearances/clearancebench.h"
#include "bench/clearances/readingspage.h"
#include "checks/assessment.h"
#include "devices/serialgauge.h"
#include "entry/readingentry.h"
#include "testing.h"
#include "window/window.h"

#include <QApplication>
#include <QLabel>
#include <QProcess>
#include <QSettings>
#include <QSignalSpy>
#include <QStandardPaths>
#include <QTemporaryDir>

#include <cstdlib>
#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

using namespace mildpath;

namespace tst_gauge {

namespace {

/// The far end of a serial line: what is written here the gauge link hears.
class Line
{
public:
    Line()
        : m_master(posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK))
    {
        grantpt(m_master);
        unlockpt(m_master);
        m_path = QString::fromLocal8Bit(ptsname(m_master));
        m_slave = open(ptsname(m_master), O_RDWR | O_NOCTTY);
        termios raw {};
        tcgetattr(m_slave, &raw);
        cfmakeraw(&raw);
        tcsetattr(m_slave, TCSANOW, &raw);
    }
    ~Line() { unplug(); }
    const QString &path() const { return m_path; }
    void send(const QByteArray &bytes)
    {
        for (qsizetype at = 0; at < bytes.size();) {
            const auto n = write(m_master, bytes.constData() + at,
                                 static_cast<size_t>(std::min<qsizetype>(2000, bytes.size() - at)));
            if (n > 0)
                at += n;
            QCoreApplication::processEvents();
        }
    }
    void unplug()
    {
        for (int *fd : { &m_slave, &m_master })
            if (*fd >= 0)
                close(std::exchange(*fd, -1));
    }

private:
    int m_master, m_slave = -1;
    QString m_path;
};

} // namespace

class TestGauge : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void init();
    void cleanup() { m_window.reset(); }
    void keyboard_entersACrankInFewKeys();
    void gauge_entersACrankByItself();
    void repeats_areAveragedWithTheirSpread();
    void garbage_isSaidAndNotTaken();
    void tenThousandReadingsASecond_areBorne();
    void wrongUnit_isSaid();
    void unpluggedGauge_isSaidAndFoundAgain();
    void pressedKey_givesEachLineAsAReading();
    void slowStream_settlesToo();
    void missingPort_isSaid();
    void impossibleReading_isNotTaken();

private:
    ReadingEntry &entryAt(const char *stop)
    {
        m_window->openBuild().selectStop(QString::fromLatin1(stop));
        m_window->showBench(Place::Clearances);
        QApplication::processEvents();
        auto &e = static_cast<ClearanceBench *>(m_window->currentBench())->readings().entry();
        e.takeFocus();
        return e;
    }
    QString message(ReadingEntry &e)
    {
        return e.findChild<QLabel *>(QStringLiteral("entryMessage"))->text();
    }
    size_t readings() { return m_window->openBuild().build().readings.size(); }
    /// Torques every cap, so that readings are not flagged.
    void torqueAll();

    std::unique_ptr<MainWindow> m_window;
};

void TestGauge::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
    freshSettings();
}

void TestGauge::init()
{
    m_window = std::make_unique<MainWindow>(QString());
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
    m_window->activateWindow();
}

void TestGauge::torqueAll()
{
    EditAll all;
    Build torqued = m_window->openBuild().build();
    for (const TorqueCard &card : m_window->openBuild().build().torqueCards)
        while (const auto next = torqueState(torqued, card).tighten) {
            TorqueTick t;
            t.card = card.id;
            t.fastener = next->fastener;
            t.stage = next->stage;
            all.edits.push_back(TickFastener { t });
            torqued = *applyEdit(torqued, all.edits.back());
        }
    QVERIFY(m_window->openBuild().edit(std::move(all)));
}

void TestGauge::keyboard_entersACrankInFewKeys()
{
    torqueAll();
    m_window->openBuild().selectStop(QStringLiteral("main_1"));
    int keys = 0;
    QTest::keyClick(m_window.get(), Qt::Key_2, Qt::ControlModifier);
    ++keys;
    QApplication::processEvents();
    for (int i = 0; i < 30; ++i) {
        QWidget *cell = QApplication::focusWidget();
        QVERIFY(qobject_cast<QuantityField *>(cell));
        QTest::keyClicks(cell, QString::number(45 + i % 7)); // digits only
        QTest::keyClick(cell, Qt::Key_Return);
        ++keys;
    }
    QVERIFY2(keys < 40, qPrintable(QString::number(keys)));
    const Assessment &a = m_window->openBuild().assessment();
    for (int main = 1; main <= 5; ++main) {
        const GaugedSize *s = a.size("main_" + std::to_string(main));
        QCOMPARE(s->readings.size(), 6u);
        QCOMPARE(markWord(s->mark), markWord(Mark::Proven));
    }
    QCOMPARE(a.family("main")->readings, 10);
}

void TestGauge::gauge_entersACrankByItself()
{
    torqueAll();
    QStringList plan;
    std::vector<double> expected;
    for (int i = 0; i < 30; ++i) {
        expected.push_back(45 + 0.5 * (i % 9));
        plan << QString::number(expected.back());
    }
    QProcess sim;
    sim.start(QString::fromUtf8(gaugeSimProgram),
              { QStringLiteral("--plan"), plan.join(u','), QStringLiteral("--rate"),
                QStringLiteral("200"), QStringLiteral("--rest"), QStringLiteral("0.15"),
                QStringLiteral("--noise"), QStringLiteral("0.2"), QStringLiteral("--outliers"),
                QStringLiteral("0.01"), QStringLiteral("--dropouts"), QStringLiteral("0.01"),
                QStringLiteral("--wait"), QStringLiteral("--follow") });
    QVERIFY(sim.waitForReadyRead(5000));
    const QString port = QString::fromLocal8Bit(sim.readLine()).trimmed();
    m_window->gauge().setSettling({ .hold_s = 0.12 });
    connect(&m_window->gauge(), &SerialGauge::settled, &sim, [&] { sim.write("taken\n"); });
    entryAt("main_1");
    QVERIFY(m_window->connectGauge(port));
    sim.write("go\n");
    // Nobody touches the keyboard from here on.
    QTRY_COMPARE_WITH_TIMEOUT(readings(), 30u, 60000);
    const Build &b = m_window->openBuild().build();
    for (size_t i = 0; i < 30; ++i) {
        const Reading &r = b.readings[i];
        QCOMPARE(r.stop, "main_" + std::to_string(1 + i / 6));
        verifyClose(*r.value_um, expected[i], 0, 0.5, QString::number(i));
    }
    sim.closeWriteChannel();
    sim.waitForFinished(5000);
}

void TestGauge::repeats_areAveragedWithTheirSpread()
{
    torqueAll();
    ReadingEntry &e = entryAt("main_2");
    e.setRepeats(3);
    for (const char *text : { "48", "50", "49" }) {
        QTest::keyClicks(e.cell(0), QString::fromLatin1(text));
        QTest::keyClick(e.cell(0), Qt::Key_Return);
    }
    QCOMPARE(readings(), 1u);
    const Reading &r = m_window->openBuild().build().readings.front();
    verifyClose(*r.value_um, 49, 1e-9);
    QCOMPARE(r.repeats_um, (std::vector<double> { 48, 50, 49 }));
    // s = 1, n = 3, gauge 1.3: u = √(1.69 + 1/3). Source: JCGM 100 "GUM", 2008, 4.2.3.
    verifyClose(m_window->openBuild().assessment().size("main_2")->cold_um.standardUncertainty,
                std::sqrt(1.69 + 1.0 / 3), 1e-9);
    QVERIFY(e.cell(1)->hasFocus());
}

void TestGauge::garbage_isSaidAndNotTaken()
{
    Line line;
    ReadingEntry &e = entryAt("main_1");
    QVERIFY(m_window->connectGauge(line.path()));
    for (int i = 0; i < 300; ++i)
        line.send("\x02\x7f?##E4 \xff\xfe\r\n58\x01.4 mm\r\n");
    line.send("+0.0584 m"); // half a line, and then nothing
    QTest::qWait(400);
    QCOMPARE(readings(), 0u);
    QVERIFY2(message(e).contains(QStringLiteral("is not a reading"))
                 || message(e).contains(QStringLiteral("no length")),
             qPrintable(message(e)));
    QCOMPARE(m_window->gauge().state(), SerialGauge::State::Listening);
}

void TestGauge::tenThousandReadingsASecond_areBorne()
{
    Line line;
    entryAt("main_1");
    m_window->gauge().setSettling({ .hold_s = 0.3 });
    QVERIFY(m_window->connectGauge(line.path()));
    QSignalSpy moved(&m_window->gauge(), &SerialGauge::moved);
    QElapsedTimer clock;
    clock.start();
    // A needle that never rests: whatever arrives, nothing may be taken.
    for (int i = 0; i < 20000; ++i)
        line.send("+0." + QByteArray::number(1000 + i % 900) + " mm\r\n");
    QTest::qWait(100);
    QCOMPARE(readings(), 0u);
    // At most one repaint a frame was asked for.
    QVERIFY2(moved.size() <= clock.elapsed() / 15 + 2, qPrintable(QString::number(moved.size())));
    QVERIFY(moved.size() > 0);
    // And it is still all there: a rest is taken.
    for (int i = 0; i < 60; ++i) {
        line.send("+0.0500 mm\r\n");
        QTest::qWait(10);
    }
    QCOMPARE(readings(), 1u);
}

void TestGauge::wrongUnit_isSaid()
{
    Line line;
    ReadingEntry &e = entryAt("main_1");
    QVERIFY(m_window->connectGauge(line.path()));
    for (int i = 0; i < 30; ++i)
        line.send("21.5 C\r\n");
    QTRY_VERIFY(message(e).contains(QStringLiteral("unit")));
    QCOMPARE(readings(), 0u);
}

void TestGauge::unpluggedGauge_isSaidAndFoundAgain()
{
    // A link stands for the port's name, as it does for a real cable.
    QTemporaryDir folder;
    const QString name = folder.filePath(QStringLiteral("gauge"));
    auto line = std::make_unique<Line>();
    QVERIFY(QFile::link(line->path(), name));
    ReadingEntry &e = entryAt("main_1");
    m_window->gauge().setSettling({ .hold_s = 0.1 });
    QVERIFY(m_window->connectGauge(name));
    line->send("\r\n+0.0500 mm\r\n+0.05");
    QFile::remove(name);
    line.reset();
    QTRY_COMPARE_WITH_TIMEOUT(m_window->gauge().state(), SerialGauge::State::Lost, 5000);
    QVERIFY2(message(e).contains(QStringLiteral("gone")), qPrintable(message(e)));
    QCOMPARE(readings(), 0u);
    QTest::keyClicks(e.cell(0), QStringLiteral("51")); // the keyboard works on
    QTest::keyClick(e.cell(0), Qt::Key_Return);
    QCOMPARE(readings(), 1u);
    Line again;
    QVERIFY(QFile::link(again.path(), name));
    QTRY_COMPARE_WITH_TIMEOUT(m_window->gauge().state(), SerialGauge::State::Listening, 5000);
    for (int i = 0; i < 40; ++i) {
        again.send("+0.0520 mm\r\n");
        QTest::qWait(10);
    }
    QTRY_COMPARE(readings(), 2u);
    verifyClose(*m_window->openBuild().build().readings.back().value_um, 52, 1e-6);
}

void TestGauge::pressedKey_givesEachLineAsAReading()
{
    Line line;
    ReadingEntry &e = entryAt("main_1");
    m_window->gauge().setSends(SerialGauge::Sends::ByKey);
    QVERIFY(m_window->connectGauge(line.path()));
    QTest::qWait(300); // nobody presses at once
    line.send("+0.0480 mm\r\n");
    QTRY_COMPARE(readings(), 1u);
    line.send("+0.0480 mm\r\n"); // the same figure at the next position
    QTRY_COMPARE(readings(), 2u);
    QVERIFY(e.cell(2)->hasFocus());
    line.send("+0.05"); // a press that breaks off
    QTest::qWait(50);
    QCOMPARE(readings(), 2u);
}

void TestGauge::slowStream_settlesToo()
{
    Line line;
    entryAt("main_1");
    QVERIFY(m_window->connectGauge(line.path()));
    for (int i = 0; i < 7; ++i) {
        line.send("+0.0480 mm\r\n");
        QTest::qWait(400); // two or three lines a second
    }
    QCOMPARE(readings(), 1u);
}

void TestGauge::missingPort_isSaid()
{
    QVERIFY(!m_window->connectGauge(QStringLiteral("/nowhere/gauge")));
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("/nowhere/gauge")));
    QCOMPARE(m_window->gauge().state(), SerialGauge::State::Off);
}

void TestGauge::impossibleReading_isNotTaken()
{
    Line line;
    ReadingEntry &e = entryAt("main_1");
    m_window->gauge().setSettling({ .hold_s = 0.1 });
    QVERIFY(m_window->connectGauge(line.path()));
    for (int i = 0; i < 40; ++i) {
        line.send("-0.0040 mm\r\n");
        QTest::qWait(10);
    }
    QTRY_VERIFY(message(e).contains(QStringLiteral("not taken")));
    QCOMPARE(readings(), 0u);
}

} // namespace tst_gauge

MILDPATH_TEST(tst_gauge, TestGauge)
#include "tst_gauge.moc"
