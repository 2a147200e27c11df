// SPDX-License-Identifier: GPL-3.0-or-later
// Half an hour of a live log at 50 readings a second: what the process grows by, and how long one
// repaint takes along the way. The readings come as fast as they can be taken; every repaint is a
// whole one, as on the screen.
#include "bench/start/livetrace.h"
#include "bench/start/startbench.h"
#include "bench/start/startpage.h"
#include "stopwatch.h"
#include "storage/templates.h"
#include "window/window.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>

#include <cmath>
#include <fstream>
#include <unistd.h>

using namespace mildpath;

namespace {

double residentMiB()
{
    std::ifstream in("/proc/self/statm");
    long whole = 0, resident = 0;
    in >> whole >> resident;
    return static_cast<double>(resident) * static_cast<double>(sysconf(_SC_PAGESIZE)) / (1 << 20);
}

} // namespace

int main(int argc, char **argv)
{
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    applyTheme(app, ThemeChoice::Light);
    const QTemporaryDir state;
    MainWindow window(state.path());
    if (!window.openFile(qs(demoBuildPath().string())))
        return EXIT_FAILURE;
    window.show();
    window.showBench(Place::Start);
    app.processEvents();
    LiveLog &log = (*window.findChild<StartBench *>()).start().log();
    auto *trace = window.findChild<LiveTrace *>(QStringLiteral("start.trace"));
    if (!log.start("start", startLimits(window.openBuild().build())))
        return EXIT_FAILURE;
    constexpr int perSecond = 50, seconds = 30 * 60;
    const double before = residentMiB();
    std::printf("%-40s %10s %12s %10s\n", "", "median µs", "95 % µs", "grown MiB");
    int taken = 0;
    const auto run = [&](int until_s) {
        for (; taken < until_s * perSecond; ++taken) {
            const double t = static_cast<double>(taken) / perSecond;
            log.take(
                { 3e5 + 2e4 * std::sin(t), 800 + 5 * std::sin(3 * t), 20 + 70 * t / seconds, t },
                t);
            if (taken % perSecond == 0)
                app.processEvents();
        }
    };
    for (const int minute : { 1, 10, 20, 30 }) {
        run(minute * 60);
        const int paints = trace->paints();
        const QByteArray name = QByteArray("reading to repainted trace, after ")
            + QByteArray::number(minute) + " min";
        const double median = measure(name.constData(), 60, [&](int i) {
            const double t = static_cast<double>(taken) / perSecond + 0.001 * i;
            log.take({ 3e5, 800, 60, t }, t);
            // What the frame timer would do, at once.
            Q_EMIT log.changed();
            trace->paintNow();
        });
        std::printf("  %d repaints; could be %.0f a second; grown by %.1f MiB\n",
                    trace->paints() - paints, 1e6 / median, residentMiB() - before);
    }
    // A last low reading that no second one follows: from the reading to the alarm.
    {
        const double t = static_cast<double>(taken) / perSecond + 1;
        QElapsedTimer since;
        bool called = false;
        QObject::connect(&log, &LiveLog::alarmed, [&](const Alarm &a) {
            called = called || a.kind == AlarmKind::LowPressure;
        });
        log.take({ 3e5, 800, 60, t }, t);
        log.take({ 2e4, 800, 60, t + 0.1 }, t + 0.1);
        since.start();
        while (!called && since.elapsed() < 2000)
            app.processEvents(QEventLoop::WaitForMoreEvents, 10);
        std::printf("one low reading to its alarm: %lld ms\n",
                    static_cast<long long>(since.elapsed()));
    }
    log.stop(QStringLiteral("benchmark"));
    log.forgetFile();
    return EXIT_SUCCESS;
}
