// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/startup.h"

#include "report/buildsheetdocument.h"
#include "report/shopsheetdocument.h"
#include "storage/templates.h"
#include "window/screenshots.h"
#include "window/window.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QSettings>

#include <cstdio>

namespace mildpath {
namespace {

void complain(const QString &text)
{
    std::fprintf(stderr, "%s\n", qPrintable(text));
}

ThemeChoice themeChoice(const QString &name, const QSettings &settings)
{
    if (name == QStringLiteral("dark"))
        return ThemeChoice::Dark;
    if (name == QStringLiteral("light"))
        return ThemeChoice::Light;
    return static_cast<ThemeChoice>(
        settings.value(QStringLiteral("window/theme"), static_cast<int>(ThemeChoice::Light))
            .toInt());
}

UnitSystem unitChoice(const QString &name, const QSettings &settings)
{
    if (name == QStringLiteral("imperial"))
        return UnitSystem::Imperial;
    if (name == QStringLiteral("both"))
        return UnitSystem::Both;
    if (name == QStringLiteral("metric"))
        return UnitSystem::Metric;
    return static_cast<UnitSystem>(settings.value(QStringLiteral("window/units"), 0).toInt());
}

int writeSheet(const OpenBuild &open, const QString &path)
{
    const auto done
        = writeShopSheet(open.build(), open.assessment(), OpenBuild::now().substr(0, 10), path);
    if (!done)
        complain(qs(done.error()));
    return done ? 0 : 3;
}

int writeReport(const OpenBuild &open, const QString &path, const QString &paper)
{
    if (path.isEmpty() || (paper != QStringLiteral("a4") && paper != QStringLiteral("letter"))) {
        complain(QStringLiteral("--report: needs -o FILE.pdf or FILE.html; --paper a4 or letter"));
        return 2;
    }
    const auto done
        = writeBuildSheet(open.build(), open.assessment(), OpenBuild::now().substr(0, 10),
                          paper == QStringLiteral("a4") ? Paper::A4 : Paper::Letter, path);
    if (!done)
        complain(qs(done.error()));
    return done ? 0 : 3;
}

bool imagine(OpenBuild &open, const QString &names)
{
    std::vector<Fault> faults;
    for (const QString &name : names.split(u','))
        if (const auto fault = parseFault(open.build(), name.toStdString())) {
            faults.push_back(*fault);
        } else {
            complain(QStringLiteral("--what-if: ") + qs(fault.error().message));
            return false;
        }
    const auto ok = open.imagine(std::move(faults));
    if (!ok)
        complain(QStringLiteral("--what-if: ") + qs(ok.error().message));
    return ok.has_value();
}

bool replay(MainWindow &window, const QString &file)
{
    const bool ok = window.importFile(QStringLiteral("drive"), file);
    if (!ok)
        complain(window.messageBar().text());
    return ok;
}

int writePictures(MainWindow &window, const QString &folder, const QString &size)
{
    const QStringList numbers = size.split(u'x');
    QString error;
    const QStringList files = renderBenches(
        window, folder, QSize(numbers.value(0).toInt(), numbers.value(1).toInt()), error);
    for (const QString &name : files)
        std::printf("%s\n", qPrintable(name));
    if (!error.isEmpty())
        complain(error);
    return error.isEmpty() ? 0 : 3;
}

} // namespace

QString journalFolder()
{
    const QString state = qEnvironmentVariable("XDG_STATE_HOME",
                                               QDir::homePath() + QStringLiteral("/.local/state"));
    return state + QStringLiteral("/mildpath");
}

int runApplication(QApplication &app)
{
    QApplication::setOrganizationName(QStringLiteral("mildpath"));
    QApplication::setApplicationName(QStringLiteral("mildpath"));
    QCommandLineParser parser;
    parser.setApplicationDescription(
        QStringLiteral("Proves an engine's lubrication system during a build."));
    parser.addHelpOption();
    const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo build."));
    const QCommandLineOption shots(QStringLiteral("screenshots"),
                                   QStringLiteral("Render every bench as PNG into DIR and end."),
                                   QStringLiteral("DIR"));
    const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("Size of the pictures."),
                                  QStringLiteral("WxH"), QStringLiteral("1280x800"));
    const QCommandLineOption theme(QStringLiteral("theme"), QStringLiteral("light or dark."),
                                   QStringLiteral("NAME"));
    const QCommandLineOption units(QStringLiteral("units"),
                                   QStringLiteral("metric, imperial or both."),
                                   QStringLiteral("NAME"));
    const QCommandLineOption stop(QStringLiteral("stop"), QStringLiteral("Select this stop."),
                                  QStringLiteral("ID"));
    const QCommandLineOption imagined(QStringLiteral("what-if"),
                                      QStringLiteral("Imagine these faults, comma between them."),
                                      QStringLiteral("KIND@STOP[=SEVERITY]"));
    const QCommandLineOption drive(QStringLiteral("replay"),
                                   QStringLiteral("Replay a drive (CSV of g) over the pan."),
                                   QStringLiteral("FILE.csv"));
    const QCommandLineOption sheet(QStringLiteral("shop-sheet"),
                                   QStringLiteral("Write the machine-shop sheet as PDF and end."),
                                   QStringLiteral("FILE.pdf"));
    const QCommandLineOption build(QStringLiteral("report"),
                                   QStringLiteral("Write the build sheet of FILE and end."),
                                   QStringLiteral("FILE"));
    const QCommandLineOption out(QStringLiteral("o"),
                                 QStringLiteral("Where the build sheet goes: .pdf or .html."),
                                 QStringLiteral("OUT"));
    const QCommandLineOption paper(QStringLiteral("paper"),
                                   QStringLiteral("Paper of the build sheet: a4 or letter."),
                                   QStringLiteral("SIZE"), QStringLiteral("a4"));
    const QCommandLineOption sender(QStringLiteral("sender"),
                                    QStringLiteral("Listen to a sender on this port."),
                                    QStringLiteral("PORT"));
    parser.addOptions({ demo, shots, size, theme, units, stop, imagined, drive, sheet, build, out,
                        paper, sender });
    parser.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("Build to open."),
                                 QStringLiteral("[FILE]"));
    parser.process(app);

    const QSettings settings;
    // Both end by themselves: nothing is kept for a next start.
    const bool pictures = parser.isSet(shots) || parser.isSet(sheet) || parser.isSet(build);
    const ThemeChoice look = themeChoice(parser.value(theme), settings);
    applyTheme(app, look); // before the first widget measures its text
    Figure::setSystem(unitChoice(parser.value(units), settings));

    MainWindow window(pictures ? QString() : journalFolder());
    window.setTheme(look);
    const QString file
        = parser.isSet(build) ? parser.value(build) : parser.positionalArguments().value(0);
    const QString path = file.isEmpty() ? qs(demoBuildPath().string()) : file;
    if (parser.isSet(demo) || pictures || !file.isEmpty()) {
        // Pictures and sheets only look.
        const auto open = [&] {
            return pictures && !isShipped(path.toStdString()) ? window.openReadOnly(path)
                                                              : window.openFile(path);
        };
        if (!open()) {
            complain(window.messageBar().text());
            if (pictures)
                return 2;
            window.begin();
            open(); // the reason stands over the first page
        }
    } else {
        window.begin();
    }
    if (parser.isSet(build))
        return writeReport(window.openBuild(), parser.value(out), parser.value(paper));
    if (parser.isSet(sheet))
        return writeSheet(window.openBuild(), parser.value(sheet));
    if (parser.isSet(stop))
        window.openBuild().selectStop(parser.value(stop));
    if (parser.isSet(imagined) && !imagine(window.openBuild(), parser.value(imagined)))
        return 2;
    if (parser.isSet(drive) && !replay(window, parser.value(drive)))
        return 2;
    if (parser.isSet(sender) && !window.connectSender(parser.value(sender)))
        complain(window.messageBar().text());
    if (pictures)
        return writePictures(window, parser.value(shots), parser.value(size));
    window.restoreGeometry(settings.value(QStringLiteral("window/geometry")).toByteArray());
    window.show();
    if (!window.isBeginning()) // there it stands at each build
        window.offerRecovery();
    return app.exec();
}

} // namespace mildpath
