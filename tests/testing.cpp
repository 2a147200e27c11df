// SPDX-License-Identifier: GPL-3.0-or-later
#include "testing.h"

#include "checks/assessment.h"
#include "document/edit.h"
#include "quantity/json.h"
#include "report/assessmentreport.h"
#include "study/beside.h"

#include <QDate>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>

#include <algorithm>
#include <cstdio>
#include <memory>

namespace mildpath {

std::string textOf(const char *name)
{
    return readTextFile(dataFile(name).toStdString()).value();
}

Json jsonOf(const char *name)
{
    return parseJson(textOf(name)).value();
}

Json jsonOfAssessment(const Build &build)
{
    const Assessment a = assess(build);
    return assessmentToJson(build, a, besideAssessment(build, a.sizes));
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

QString foreignUnit(QString text, UnitSystem asked, const QStringList &allowed)
{
    text.replace(QChar(0xA0), u' ')
        .remove(QChar(0x202F))
        .replace(QRegularExpression(QStringLiteral("\\n+")), QStringLiteral(" | "));
    for (const QString &words : allowed)
        text.remove(QRegularExpression(words));
    static const QRegularExpression metric(QStringLiteral(
        "[0-9.] ?(bar|µm|mm²|mm|cm³|cm²|cm|L/min|l/min|L|l|°C|kPa|K|N·m|Nm|N/mm|MPa|N|m/s|m)"
        "(?![\\w/·²³])"));
    static const QRegularExpression imperial(QStringLiteral(
        "[0-9.] ?(psi|thou|in²|in³|in|°F|US qt|US "
        "gpm|gpm|lb·ft|ft-lb|lb/in|lbf|inHg|µin|ft/s|ft|cfm)"
        "(?![\\w/·²³]| "
        "(?:the|a|an|all|one|order|turns?|gear|oil|each|it|its|this|use|both|metal)\\b)"));
    const auto found = (asked == UnitSystem::Imperial ? metric : imperial).match(text);
    return found.hasMatch()
        ? text.mid(std::max<qsizetype>(0, found.capturedStart() - 40), 80 + found.capturedLength())
        : QString();
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
        if (p.hidden()) // behind the one that is in
            e.means = "camera";
        build = applyEdit(build, AddEntry { e }).value();
    }
    return build;
}

namespace {

struct TestClass
{
    QByteArray name;
    QObject *(*make)();
};

std::vector<TestClass> &testClasses()
{
    static std::vector<TestClass> classes;
    return classes;
}

} // namespace

bool addTestClass(const char *name, QObject *(*make)())
{
    testClasses().push_back({ QByteArray(name).mid(int(qstrlen("tst_"))), make });
    return true;
}

void freshSettings()
{
    QStandardPaths::setTestModeEnabled(true);
    QSettings settings;
    settings.clear();
    // J. Moor, of the demo's people, was picked this morning.
    const QString today = QDate::currentDate().toString(Qt::ISODate);
    settings.setValue(QStringLiteral("worker/asked"), today);
    settings.setValue(QStringLiteral("worker/day"), today);
    settings.setValue(QStringLiteral("worker/name"), QStringLiteral("J. Moor"));
}

int runTestClasses(int argc, char **argv)
{
    std::vector<char *> rest { argv, argv + std::min(argc, 1) };
    QByteArrayList wanted;
    for (int i = 1; i < argc; ++i) {
        const bool isClass = std::any_of(testClasses().begin(), testClasses().end(),
                                         [&](const TestClass &c) { return c.name == argv[i]; });
        if (isClass && rest.size() == 1)
            wanted << argv[i];
        else
            rest.push_back(argv[i]);
    }
    // A word that is no class would be taken for a function of every class.
    if (wanted.isEmpty() && rest.size() > 1 && rest[1][0] != '-') {
        std::fprintf(stderr, "there is no test class %s\n", rest[1]);
        return 2;
    }
    int failed = 0;
    for (const TestClass &c : testClasses()) {
        if (!wanted.isEmpty() && !wanted.contains(c.name))
            continue;
        // Settings and state of their own: classes run side by side.
        QCoreApplication::setOrganizationName(QStringLiteral("mildpath-tests"));
        QCoreApplication::setApplicationName(QString::fromUtf8("tst_" + c.name));
        freshSettings();
        const std::unique_ptr<QObject> test(c.make());
        failed += QTest::qExec(test.get(), static_cast<int>(rest.size()), rest.data());
    }
    return failed;
}

} // namespace mildpath
