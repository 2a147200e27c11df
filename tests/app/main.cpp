// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include <QApplication>

int main(int argc, char **argv)
{
    QApplication app(argc, argv);
    app.setAttribute(Qt::AA_Use96Dpi, true);
    return mildpath::runTestClasses(argc, argv);
}
