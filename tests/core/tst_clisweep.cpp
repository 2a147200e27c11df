// SPDX-License-Identifier: GPL-3.0-or-later
#include "clirun.h"

#include <QRegularExpression>
#include <QTemporaryDir>

// Every verb of the command line on every demo, and what every verb does with files that are not
// what it wants.

using namespace mildpath;

namespace tst_clisweep {

class TestCliSweep : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void verbs_answerOnEveryDemo_data();
    void verbs_answerOnEveryDemo();
    void wrongFiles_areRefused_data();
    void wrongFiles_areRefused();
    void unknownOptions_areRefused_data();
    void unknownOptions_areRefused();
    void calculators_describeThemselves_data();
    void calculators_describeThemselves();
    void outputs_areWrittenOnceOnly();

private:
    static QString demo(const char *name)
    {
        return QString::fromStdString(
            (demoBuildPath().parent_path() / (std::string(name) + ".mildpath")).string());
    }
    static QStringList verbs()
    {
        return { QStringLiteral("validate"),      QStringLiteral("assess"),
                 QStringLiteral("plan-cleaning"), QStringLiteral("start"),
                 QStringLiteral("after"),         QStringLiteral("remedies"),
                 QStringLiteral("diagnose"),      QStringLiteral("oils"),
                 QStringLiteral("verdicts") };
    }
};

void TestCliSweep::verbs_answerOnEveryDemo_data()
{
    QTest::addColumn<QString>("verb");
    QTest::addColumn<QString>("file");
    for (const QString &verb : verbs())
        for (const char *name :
             { "harbour-fire-pump", "harbour-fire-pump-started", "harbour-launch-turbo",
               "harbour-standby", "harbour-tender-alloy" })
            if (!sanitized || std::string_view(name) == "harbour-standby")
                QTest::addRow("%s %s", qPrintable(verb), name) << verb << demo(name);
}

void TestCliSweep::verbs_answerOnEveryDemo()
{
    QFETCH(QString, verb);
    QFETCH(QString, file);
    const CliRun words = run({ verb, file });
    QVERIFY2(words.code == 0 || words.code == 1
                 || (verb == QStringLiteral("diagnose") && words.code == 2),
             words.err.constData());
    if (words.code == 2) { // nothing was read on the engine yet, and that is said
        QVERIFY(!words.err.isEmpty());
        return;
    }
    QVERIFY(!words.out.isEmpty());
    // What does not go with this engine is said aside.
    QVERIFY(words.err.isEmpty() || verb == QStringLiteral("remedies"));
    static const QRegularExpression halves(QStringLiteral("\\bnan\\b|\\binf\\b|%1|\\b-0\\.0+ "));
    const QString text = QString::fromUtf8(words.out);
    QVERIFY2(!halves.match(text).hasMatch(), qPrintable(halves.match(text).captured()));
    if (verb == QStringLiteral("validate"))
        return;
    const CliRun json = run({ verb, file, QStringLiteral("--json") });
    QCOMPARE(json.code, words.code);
    QVERIFY(json.json().is_object());
    // The same twice, to the last digit.
    QCOMPARE(run({ verb, file, QStringLiteral("--json") }).out, json.out);
}

void TestCliSweep::wrongFiles_areRefused_data()
{
    QTest::addColumn<QString>("verb");
    QTest::addColumn<QByteArray>("content");
    QTest::addColumn<int>("code");
    for (const QString &verb : verbs()) {
        const auto row = [&](const char *what, const QByteArray &content, int code) {
            QTest::addRow("%s %s", qPrintable(verb), what) << verb << content << code;
        };
        row("nothing there", QByteArray(), 3);
        row("empty", "\n", 2);
        row("a picture", QByteArray("\x89PNG\r\n\x1a\n", 8), 2);
        row("another kind", R"({"format": "recipe"})", 2);
        row("newer", R"({"format": "mild-path-build", "version": 999, "name": "x"})", 2);
        row("torn off", R"({"format": "mild-path-build", "version": 10, "na)", 2);
    }
}

void TestCliSweep::wrongFiles_areRefused()
{
    QFETCH(QString, verb);
    QFETCH(QByteArray, content);
    QFETCH(int, code);
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("x.mildpath"));
    if (!content.isEmpty())
        QVERIFY(writeTextFile(path.toStdString(), content.toStdString()));
    const CliRun r = run({ verb, path });
    QCOMPARE(r.code, code);
    QVERIFY(r.out.isEmpty());
    QVERIFY2(r.err.contains("x.mildpath") || !r.err.trimmed().isEmpty(), r.err.constData());
    if (!content.isEmpty()) // and is left as it was
        QCOMPARE(QByteArray::fromStdString(readTextFile(path.toStdString()).value()), content);
}

void TestCliSweep::unknownOptions_areRefused_data()
{
    QTest::addColumn<QString>("verb");
    for (const QString &verb : verbs()
             + QStringList { QStringLiteral("forecast"), QStringLiteral("export"),
                             QStringLiteral("report") })
        QTest::newRow(qPrintable(verb)) << verb;
}

void TestCliSweep::unknownOptions_areRefused()
{
    QFETCH(QString, verb);
    const CliRun r
        = run({ verb, demo("harbour-standby"), QStringLiteral("--colour"), QStringLiteral("red") });
    QCOMPARE(r.code, 2);
    QVERIFY2(r.err.contains("--colour"), r.err.constData());
    QVERIFY(r.out.isEmpty());
}

void TestCliSweep::calculators_describeThemselves_data()
{
    QTest::addColumn<QString>("name");
    int n = 0;
    for (const QByteArray &line : run({ QStringLiteral("calc") }).out.split('\n'))
        if (!line.isEmpty() && (++n % 8 == 0 || !sanitized))
            QTest::newRow(line.left(line.indexOf(' ')).constData())
                << QString::fromUtf8(line.left(line.indexOf(' ')));
}

void TestCliSweep::calculators_describeThemselves()
{
    QFETCH(QString, name);
    const CliRun d = run({ QStringLiteral("calc"), name, QStringLiteral("--describe") });
    QCOMPARE(d.code, 0);
    const Json json = d.json();
    QCOMPARE(json["name"].get<std::string>(), name.toStdString());
    // Nothing in, an unknown key, no JSON: each is refused in words.
    // All it asks may be unknown, and then it says so.
    const bool mayBeEmpty = name == QStringLiteral("aeration-risk");
    for (const char *input :
         { mayBeEmpty ? "3" : "{}", R"({"wings": 2})", "{", "[]", "\"word\"" }) {
        const CliRun r = run({ QStringLiteral("calc"), name }, input);
        QVERIFY2(r.code == 2, input);
        QVERIFY(!r.err.isEmpty() && r.out.isEmpty());
    }
}

void TestCliSweep::outputs_areWrittenOnceOnly()
{
    QTemporaryDir folder;
    const QString out = folder.filePath(QStringLiteral("new.mildpath"));
    const QStringList call { QStringLiteral("new"), QStringLiteral("--template"),
                             QStringLiteral("inline-four-wet-sump"), QStringLiteral("-o"), out };
    QCOMPARE(run(call).code, 0);
    const std::string first = readTextFile(out.toStdString()).value();
    QCOMPARE(run(call).code, 3);
    QCOMPARE(readTextFile(out.toStdString()).value(), first);
    QCOMPARE(run({ QStringLiteral("validate"), out }).code, 0);
    QCOMPARE(run({ QStringLiteral("assess"), out }).out.isEmpty(), false);
}

} // namespace tst_clisweep

MILDPATH_TEST(tst_clisweep, TestCliSweep)
#include "tst_clisweep.moc"
