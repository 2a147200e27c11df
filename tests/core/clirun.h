// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/json.h"
#include "testing.h"

#include <QProcess>

namespace mildpath {

/// What a shell sees of a call of the command line.
struct CliRun
{
    int code;
    QByteArray out, err;
    /// What was printed as programs read it: plain spaces and signs.
    QByteArray plain() const
    {
        return QByteArray(out).replace("\u00A0", " ").replace("\u202F", "").replace("\u2212", "-");
    }
    Json json() const { return parseJson(out.toStdString()).value(); }
};

inline CliRun run(const QStringList &arguments, const QByteArray &input = {})
{
    QProcess process;
    process.start(QString::fromUtf8(cliProgram), arguments);
    process.write(input);
    process.closeWriteChannel();
    process.waitForFinished(30000);
    return { process.exitCode(), process.readAllStandardOutput(), process.readAllStandardError() };
}

} // namespace mildpath
