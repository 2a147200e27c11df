// SPDX-License-Identifier: GPL-3.0-or-later
// A bore trace of 100 000 points filtered, and dragged through more strokes to the repainted
// pictures; a shelf of 500 builds opened and compared; what is said of filter and oil.
#include "assess/cutreport.h"
#include "assess/oilreport.h"
#include "bench/finish/finishbench.h"
#include "bench/finish/finishpage.h"
#include "checks/assessment.h"
#include "document/edit.h"
#include "plot/chartview.h"
#include "shelf/compare.h"
#include "stopwatch.h"
#include "storage/templates.h"
#include "window/window.h"

#include <QApplication>
#include <QSlider>
#include <QTemporaryDir>

#include <random>

using namespace mildpath;

namespace {

std::vector<double> wall(size_t n)
{
    std::mt19937 random(1);
    std::normal_distribution<double> fine(0, 0.15), coarse(1.4, 1.5);
    std::vector<double> z(n);
    for (double &v : z)
        v = std::min(fine(random), coarse(random));
    return z;
}

void finish(MainWindow &window)
{
    constexpr size_t points = 100000;
    const std::vector<double> z = wall(points);
    measure("filter and read 100 000 heights", 9,
            [&](int) { static_cast<void>(finishTrace(z, 0.5, 800, ProfileFilter::TwoStep)); });
    BoreTrace trace;
    trace.spacing_um = 0.5;
    trace.z = Heights(z);
    Build build = window.openBuild().build();
    build.boreTraces.clear();
    window.openBuild().open(*applyEdit(build, AddEntry { trace }), {});
    window.showBench(Place::BoreFinish);
    FinishPage &page = (*window.findChild<FinishBench *>()).trace();
    while (!page.scene().trace)
        QApplication::processEvents(QEventLoop::WaitForMoreEvents);
    auto *slider = page.findChild<QSlider *>(QStringLiteral("finish.strokes"));
    const double median = measure("strokes slid to the repainted pictures", 60, [&](int i) {
        slider->setValue(100 + 10 * i);
        page.findChild<QWidget *>(QStringLiteral("traceView"))->repaint();
        for (ChartView *chart : page.findChildren<ChartView *>())
            chart->paintNow();
    });
    std::printf("  %.0f a second\n", 1e6 / median);
}

void shelf()
{
    const QTemporaryDir dir;
    const std::filesystem::path folder = dir.path().toStdString();
    for (int i = 0; i < 500; ++i)
        std::filesystem::copy_file(demoBuildPath(),
                                   folder / ("build" + std::to_string(i) + ".mildpath"));
    std::vector<ShelfEntry> entries;
    measure("a shelf of 500 builds opened", 5, [&](int) { entries = openShelf(folder); });
    measure("main clearances of 500 builds compared", 1,
            [&](int) { static_cast<void>(compareOnShelf(entries, "size.main")); });
    measure("hot idle of 500 builds compared", 1,
            [&](int) { static_cast<void>(compareOnShelf(entries, "hot_idle")); });
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
    const auto history = demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath";
    if (!window.openFile(qs(history.string())))
        return EXIT_FAILURE;
    window.show();
    std::printf("%-40s %10s %12s\n", "", "median µs", "95 % µs");
    const Build build = window.openBuild().build();
    measure("an assessment", 20, [&](int) { static_cast<void>(assess(build)); });
    measure("filter cuts and used oil judged", 50, [&](int) {
        static_cast<void>(reportCuts(build));
        static_cast<void>(reportOil(build));
    });
    finish(window);
    shelf();
    return EXIT_SUCCESS;
}
