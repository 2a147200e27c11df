// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QSize>
#include <QString>
#include <QStringList>

namespace mildpath {

class MainWindow;

/// Renders every bench of the window to `folder`/N-bench.png at `size`.
/// @return the files written; empty with `error` set when one could not be.
QStringList renderBenches(MainWindow &window, const QString &folder, QSize size, QString &error);

} // namespace mildpath
