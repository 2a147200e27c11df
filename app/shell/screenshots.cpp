// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/screenshots.h"

#include "shell/window.h"

#include <QDir>
#include <QEventLoop>
#include <QPixmap>
#include <QTimer>

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
    for (Bench *bench : window.benches()) {
        window.showBench(bench->title());
        // Layouts settle at once; what is drawn finer once the keys rest comes a little later.
        QEventLoop settle;
        QTimer::singleShot(400, &settle, &QEventLoop::quit);
        settle.exec();
        const QString path = QDir(folder).filePath(
            QStringLiteral("%1-%2.png").arg(++number).arg(bench->title().toLower()));
        if (!window.grab().save(path)) {
            error = QStringLiteral("%1: cannot be written").arg(path);
            return {};
        }
        files << path;
    }
    return files;
}

} // namespace mildpath
