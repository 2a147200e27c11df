// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include "build/edit.h"
#include "quantity/json.h"


namespace mildpath {

std::string textOf(const char *name)
{
    return readTextFile(dataFile(name).toStdString()).value();
}

Json jsonOf(const char *name)
{
    return parseJson(textOf(name)).value();
}

QList<QStringList> rowsOf(const char *name)
{
    QList<QStringList> rows;
    const QStringList lines
        = QString::fromStdString(textOf(name)).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
    for (const QString &line : lines.mid(1))
        rows << line.split(QLatin1Char(','));
    return rows;
}

Circuit inlineFour()
{
    std::vector<Error> errors;
    Circuit c = circuitFromJson(jsonOf("inline_four_circuit.json"), "", errors);
    return errors.empty() ? c : Circuit {};
}

Build demoBuild()
{
    return loadBuild(demoBuildPath()).value().build;
}

Build withPlugsSeen(Build build)
{
    for (const Plug &p : std::vector<Plug>(build.plugs)) {
        CleanEvent e;
        e.kind = "plug_seen";
        e.scope = "plug";
        e.target = p.id;
        e.by = "tester";
        build = applyEdit(build, PassageEdit(AddEntry { e })).value();
    }
    return build;
}

} // namespace mildpath
