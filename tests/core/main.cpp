// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include <QCoreApplication>

int main(int argc, char **argv)
{
    QCoreApplication app(argc, argv);
    return mildpath::runTestClasses(argc, argv);
}
