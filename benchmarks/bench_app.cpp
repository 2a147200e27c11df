// SPDX-License-Identifier: GPL-3.0-or-later
// From the Enter key in a cell to the repainted window, on each bench.
#include "bench/sump/fillbar.h"
#include "stopwatch.h"
#include "storage/templates.h"
#include "window/startup.h"
#include "window/window.h"

#include <QApplication>
#include <QSlider>

using namespace mildpath;

int main(int argc, char **argv)
{
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    applyTheme(app, ThemeChoice::Light);
    const int times = argc > 1 ? std::atoi(argv[1]) : 50;
    MainWindow window({});
    if (!window.openFile(qs(demoBuildPath().string())))
        return EXIT_FAILURE;
    window.show();
    app.processEvents();
    std::printf("%-46s %10s %10s\n", "µs", "median", "p95");
    for (Bench *bench : window.benches()) {
        window.openFile(qs(demoBuildPath().string())); // readings add up; every bench starts alike
        window.showBench(bench->place());
        app.processEvents();
        const QByteArray name
            = QByteArray("reading stored to repainted window, ") + bench->title().toUtf8();
        const double median = measure(name.constData(), times, [&](int i) {
            Reading r;
            r.stop = "main_2";
            r.value_um = 48 + i % 7;
            static_cast<void>(window.openBuild().edit(EnterReading { r }));
            app.processEvents(); // delivers the repaints the edit asked for
        });
        std::printf("  of a frame (16 ms): %.2f\n", median / 16000);
    }
    window.openFile(qs(demoBuildPath().string()));
    window.showBench(Place::Sump);
    app.processEvents();
    auto *turn = window.findChild<QSlider *>(QStringLiteral("sump.turn"));
    auto *bar = window.findChild<FillBar *>(QStringLiteral("fillBar"));
    if (!turn || !bar)
        return EXIT_FAILURE;
    const double slid = measure("turn slid to repainted section", times, [&](int i) {
        turn->setValue(i % 100);
        app.processEvents();
    });
    const double dragged = measure("fill dragged to repainted section", times, [&](int i) {
        Q_EMIT bar->dragged(4 + 0.05 * (i % 20));
        app.processEvents();
    });
    std::printf("  of a frame (16 ms): %.2f, %.2f\n", slid / 16000, dragged / 16000);
    return EXIT_SUCCESS;
}
