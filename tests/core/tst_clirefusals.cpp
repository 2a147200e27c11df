// SPDX-License-Identifier: GPL-3.0-or-later
// What the command line must not do: write over a build, crash on a file, keep a rule to itself.
#include "clirun.h"

#include <QTemporaryDir>

using namespace mildpath;

namespace tst_clirefusals {

class TestCliRefusals : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void outputs_neverGoOverABuild();
    void outOfReachInput_isRefusedWithItsPlace();
    void rules_areAllTold();
};

void TestCliRefusals::outputs_neverGoOverABuild()
{
    QTemporaryDir folder;
    const QString build = folder.filePath(QStringLiteral("mine.mildpath"));
    const QString html = folder.filePath(QStringLiteral("sheet.html"));
    QVERIFY(saveBuild(build.toStdString(), demoBuild()));
    const auto report = [&](const QString &to, const QStringList &more = {}) {
        return run(QStringList { QStringLiteral("report"), build, QStringLiteral("-o"), to }
                   + more);
    };
    for (const QStringList &more : { QStringList(), QStringList { QStringLiteral("--force") } }) {
        const CliRun over = report(build, more);
        QCOMPARE(over.code, 3);
        QVERIFY(over.err.contains("is a build and is not written over"));
        QCOMPARE(report(QStringLiteral("/dev/null"), more).code, 3);
    }
    QCOMPARE(readTextFile(build.toStdString()).value(), buildText(demoBuild()));
    QCOMPARE(report(html).code, 0);
    QVERIFY(report(html).err.contains("--force writes over it"));
    QCOMPARE(report(html, { QStringLiteral("--force") }).code, 0);
    const QStringList tables { QStringLiteral("export"), build, QStringLiteral("--csv"),
                               folder.filePath(QStringLiteral("tables")) };
    QCOMPARE(run(tables).code, 0);
    QCOMPARE(run(tables).code, 3);
    QCOMPARE(run(tables + QStringList { QStringLiteral("--force") }).code, 0);
}

void TestCliRefusals::outOfReachInput_isRefusedWithItsPlace()
{
    // Each value is in range; together they cannot be computed.
    const auto drop = [](const char *permeance, const char *area) {
        return run({ QStringLiteral("calc"), QStringLiteral("filter-drop") },
                   QByteArray(R"({"flow_l_min":30,"mu_pa_s":0.01,"rho_kg_m3":850,)")
                       + R"("bypass_crack_kpa":100,"bypass_full_kpa":150,"permeance_m3":)"
                       + permeance + R"(,"bypass_full_area_mm2":)" + area + "}");
    };
    const CliRun tiny = drop("1e-320", "100");
    QCOMPARE(tiny.code, 2);
    QVERIFY2(tiny.err.startsWith("permeance_m3: "), tiny.err.constData());
    const CliRun shut = drop("7e-10", "1e-308");
    QCOMPARE(shut.code, 2);
    QVERIFY2(shut.err.startsWith("bypass_full_area_mm2: "), shut.err.constData());
    // Small, but a number: Darcy alone, 5e-4 m³/s × 0.01 Pa·s / 7e-10 m³ = 7143 Pa.
    const CliRun small = drop("7e-10", "1e-9");
    QCOMPARE(small.code, 0);
    verifyClose(small.json()["dp_kpa"].get<double>(), 7.142857, 1e-6);
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("x.mildpath"));
    const std::string whole = buildText(demoBuild());
    const std::string head = whole.substr(0, whole.rfind('}'));
    const std::pair<std::string, const char *> bad[] = {
        { head + ",\"readings\":[]}", "stands here twice" },
        { head + ",\"x\":1e999}", "larger than any" },
        { head + ",\"x\":" + std::string(80000, '[') + std::string(80000, ']') + "}",
          "nested deeper than 64" },
    };
    for (const auto &[text, says] : bad) {
        QVERIFY(writeTextFile(path.toStdString(), text));
        const CliRun r = run({ QStringLiteral("validate"), path });
        QCOMPARE(r.code, 2);
        QVERIFY2(r.err.contains(says) && r.err.contains("line "), r.err.constData());
    }
    Json many = toJson(demoBuild());
    for (Json &stop : many["engine"]["stops"])
        if (stop["kind"] == "small_end")
            stop["values"]["items"] = 1e8;
    QVERIFY(writeTextFile(path.toStdString(), many.dump()));
    const CliRun r = run({ QStringLiteral("validate"), path });
    QCOMPARE(r.code, 2);
    QVERIFY2(r.err.contains("/values/items: how many must be 1"), r.err.constData());
}

void TestCliRefusals::rules_areAllTold()
{
    const CliRun text = run({ QStringLiteral("rules") });
    QCOMPARE(text.code, 0);
    QVERIFY(text.out.contains("assess.beyondStrength_pa  1500000 Pa  above this no pressure"));
    QVERIFY(text.out.contains("fault.feed_hole_covered.prior  0.07"));
    const CliRun table = run({ QStringLiteral("rules"), QStringLiteral("--markdown") });
    QCOMPARE(table.out.count('\n'), text.out.count('\n') + 2); // head and line
    for (const QByteArray &row : table.out.split('\n').mid(2))
        QVERIFY2(row.isEmpty() || !row.contains("|  |  |"), row.constData()); // each says something
}

} // namespace tst_clirefusals

MILDPATH_TEST(tst_clirefusals, TestCliRefusals)
#include "tst_clirefusals.moc"
