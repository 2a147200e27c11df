// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/screenshots.h"

#include "window/window.h"

#include <QDir>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QPixmap>
#include <QTimer>

#include <algorithm>

namespace mildpath {

QStringList renderBenches(MainWindow &window, const QString &folder, QSize size, QString &error)
{
    QStringList files;
    if (!QDir().mkpath(folder)) {
        error = QStringLiteral("%1: cannot be made").arg(folder);
        return {};
    }
    window.resize(size);
    window.show();
    int number = 0;
    const auto shoot = [&](const QString &name) {
        // Layouts settle at once; what is drawn finer once the keys rest comes a little later.
        QEventLoop settle;
        QTimer::singleShot(800, &settle, &QEventLoop::quit);
        settle.exec();
        // What takes longer is waited for.
        QElapsedTimer waiting;
        waiting.start();
        while (window.openBuild().answers().isBusy() && waiting.elapsed() < 60000) {
            QTimer::singleShot(100, &settle, &QEventLoop::quit);
            settle.exec();
        }
        const QString plain = name.toLower()
                                  .replace(QStringLiteral(" & "), QStringLiteral("-and-"))
                                  .replace(u' ', u'-');
        const QString path
            = QDir(folder).filePath(QStringLiteral("%1-%2.png").arg(++number).arg(plain));
        if (!window.grab().save(path)) {
            error = QStringLiteral("%1: cannot be written").arg(path);
            return false;
        }
        files << path;
        return true;
    };
    for (Bench *bench : window.benches()) {
        window.showBench(bench->place());
        const QStringList pages = bench->pages();
        for (int page = 0; page < std::max<int>(1, static_cast<int>(pages.size())); ++page) {
            if (!pages.isEmpty())
                bench->showPage(page);
            const QString name = page == 0 ? bench->title() : bench->title() + u' ' + pages[page];
            if (!shoot(name))
                return {};
        }
    }
    return files;
}

} // namespace mildpath
