// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

class QApplication;

namespace mildpath {

/// Folder of the edit journals: $XDG_STATE_HOME/mildpath, by default ~/.local/state/mildpath.
QString journalFolder();

/// The application's command line: --demo, FILE, --screenshots DIR [FILE] [--size WxH]
/// [--theme light|dark] [--units metric|imperial|both] [--stop ID], --report FILE -o OUT,
/// --sender PORT …; --help lists them.
/// @return the exit code: 0 done, 2 bad input, 3 could not read or write
int runApplication(QApplication &app);

} // namespace mildpath
