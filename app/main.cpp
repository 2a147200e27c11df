// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/startup.h"

#include <QApplication>

int main(int argc, char **argv)
{
    // Pictures are made without a display; Qt must know before it looks for one.
    for (int i = 1; i < argc; ++i)
        if ((QByteArray(argv[i]).startsWith("--screenshots")
             || QByteArray(argv[i]).startsWith("--report"))
            && !qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
            qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    return mildpath::runApplication(app);
}
