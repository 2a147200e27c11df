// SPDX-License-Identifier: GPL-3.0-or-later
// What the list of checks is made of: evidence, figures, the catalogue, and its published form.
#include "checks/checks.h"
#include "checksfixture.h"
#include "clirun.h"
#include "quantity/json.h"
#include "testing.h"

#include <QtTest>

#include <array>
#include <map>
#include <set>
#include <utility>

namespace mildpath {
namespace tst_checkrules {

using fixture::By;

class TestCheckRules : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void evidence_comesToOneVerdict_data();
    void evidence_comesToOneVerdict();
    void figure_isJudgedAlikeOnBothSides_data();
    void figure_isJudgedAlikeOnBothSides();
    void catalogue_hasNoCircleAndNoUnknownWord();
    void jobs_askWhatTheCatalogueSays_data();
    void jobs_askWhatTheCatalogueSays();
    void counts_areThoseWrittenDownByHand();
    void checks_areToldAsPublished();
};

void TestCheckRules::evidence_comesToOneVerdict_data()
{
    using K = Evidence::Kind;
    QTest::addColumn<QList<int>>("kinds");
    QTest::addColumn<int>("evident");
    const auto row = [](const char *name, std::initializer_list<K> kinds, Evident evident) {
        QList<int> list;
        for (const K k : kinds)
            list << static_cast<int>(k);
        QTest::newRow(name) << list << static_cast<int>(evident);
    };
    row("nothing", {}, Evident::None);
    row("yes", { K::Yes }, Evident::Yes);
    row("no", { K::No }, Evident::No);
    row("mended", { K::No, K::Yes }, Evident::Yes);
    row("broken", { K::Yes, K::Breaks }, Evident::No);
    row("broken with nothing before", { K::Breaks }, Evident::No);
    row("undone", { K::Yes, K::Undoes }, Evident::No);
    row("undone with nothing before", { K::Undoes }, Evident::None);
    row("broken and proven", { K::Yes, K::Breaks, K::Yes }, Evident::Yes);
    row("aged", { K::Yes, K::Ages }, Evident::Unsure);
    row("aged with nothing before", { K::Ages }, Evident::None);
    row("aged and looked at", { K::Yes, K::Ages, K::Yes }, Evident::Yes);
    row("wrong stays wrong when it ages", { K::No, K::Ages }, Evident::No);
    row("broken, then aged", { K::Yes, K::Breaks, K::Ages }, Evident::No);
    row("aged, then undone", { K::Yes, K::Ages, K::Undoes }, Evident::No);
    row("only half seen", { K::Unsure }, Evident::Unsure);
    row("seen wrong by the same", { K::Yes, K::No }, Evident::No);
}

void TestCheckRules::evidence_comesToOneVerdict()
{
    QFETCH(const QList<int>, kinds);
    QFETCH(const int, evident);
    std::vector<Evidence> timeline;
    for (const int k : kinds) {
        Evidence e;
        e.kind = static_cast<Evidence::Kind>(k);
        e.by = "A";
        e.text = "so";
        timeline.push_back(std::move(e));
    }
    QCOMPARE(static_cast<int>(findsOf(timeline).evident), evident);
    // Two who disagree with nothing done between leave it unsure, whoever came last.
    if (!timeline.empty() && findsOf(timeline).evident == Evident::Yes) {
        Evidence no;
        no.kind = Evidence::Kind::No;
        no.by = "B";
        timeline.insert(timeline.end() - 1, no);
        QCOMPARE(findsOf(timeline).evident, Evident::Unsure);
    }
}

void TestCheckRules::figure_isJudgedAlikeOnBothSides_data()
{
    QTest::addColumn<double>("value");
    QTest::addColumn<double>("expanded");
    QTest::addColumn<int>("evident");
    const auto row = [](const char *name, double v, double u, Evident e) {
        QTest::newRow(name) << v << u << static_cast<int>(e);
        // The same on the other side of 35 to 65.
        QTest::newRow(qPrintable(QString("%1, mirrored").arg(name)))
            << 100 - v << u << static_cast<int>(e);
    };
    row("in the middle", 50, 2, Evident::Yes);
    row("on the limit, sure", 65, 0, Evident::Yes);
    row("on the limit, as converted", 65 + 1e-12, 0, Evident::Yes);
    row("as far inside as its uncertainty", 63, 2, Evident::Yes);
    row("nearer than its uncertainty", 63.1, 2, Evident::Unsure);
    row("outside within its uncertainty", 66, 2, Evident::Unsure);
    row("outside by its uncertainty", 67, 2, Evident::Unsure);
    row("outside by more", 67.1, 2, Evident::No);
    row("outside, sure", 65.1, 0, Evident::No);
    row("wider than the tolerance", 50, 20, Evident::Unsure);
}

void TestCheckRules::figure_isJudgedAlikeOnBothSides()
{
    QFETCH(const double, value);
    QFETCH(const double, expanded);
    QFETCH(const int, evident);
    QCOMPARE(static_cast<int>(evidentOf({ value, expanded, 35, 65 })), evident);
}

/// No check may come after itself, whatever engine it stands on; every word of the table is known.
void TestCheckRules::catalogue_hasNoCircleAndNoUnknownWord()
{
    std::set<std::string_view> ids;
    for (const CheckKind &k : checkKinds()) {
        QVERIFY2(ids.insert(k.id).second, k.id.data());
        for (const CheckKind::After &a : k.comesAfter())
            QVERIFY2(a.kind, k.id.data());
        QVERIFY(!k.placeWords().empty() && !k.statement.empty() && k.minutes >= 0);
        for (const char job : k.jobs)
            QVERIFY2(QString("NFRSBDO").contains(QChar(job).toUpper()), k.id.data());
        for (const char by : k.by)
            QVERIFY2(QString("GBLWDPC+").contains(by), k.id.data());
    }
    std::map<const CheckKind *, int> colour; // 1: on the way, 2: done
    const std::function<bool(const CheckKind *)> closes = [&](const CheckKind *k) {
        if (colour[k] == 1)
            return true;
        if (colour[k] == 2)
            return false;
        colour[k] = 1;
        for (const CheckKind::After &a : k->comesAfter())
            if (closes(a.kind))
                return true;
        colour[k] = 2;
        return false;
    };
    for (const CheckKind &k : checkKinds())
        QVERIFY2(!closes(&k), k.id.data());
}

void TestCheckRules::jobs_askWhatTheCatalogueSays_data()
{
    QTest::addColumn<QString>("job");
    QTest::addColumn<QStringList>("asked");
    QTest::addColumn<QStringList>("notAsked");
    QTest::newRow("new build") << "N"
                               << QStringList { "clean@main_gallery", "clr@main_1", "bore@main_1",
                                                "pport@pump", "used@engine" }
                               << QStringList { "number@engine", "oldcut@engine" };
    QTest::newRow("freshen-up") << "R"
                                << QStringList { "number@engine", "clr@main_1", "jrnl@main_1" }
                                << QStringList { "bore@main_1", "clean@main_gallery",
                                                 "bush@cam_bearings#1" };
    QTest::newRow("single repair")
        << "S" << QStringList { "kring@sump_pickup", "klock@sump_pickup", "pan@sump_pickup",
                                "oilin@engine",      "fire@engine",       "dry@engine" }
        << QStringList { "clr@main_1", "idle@engine", "solved@engine", "clean@main_gallery",
                         "rfree@relief" };
    QTest::newRow("short block") << "B"
                                 << QStringList { "clr@main_1", "kring@sump_pickup", "idle@engine" }
                                 << QStringList { "jrnl@main_1", "card@main_caps", "float@x" };
    QTest::newRow("oil change") << "O"
                                << QStringList { "job@engine",   "oldcut@engine", "filt@filter",
                                                 "oilok@engine", "oilin@engine",  "fire@engine",
                                                 "leaks@engine", "again@engine" }
                                << QStringList { "clr@main_1", "pan@sump_pickup", "press@engine" };
}

void TestCheckRules::jobs_askWhatTheCatalogueSays()
{
    QFETCH(const QString, job);
    QFETCH(const QStringList, asked);
    QFETCH(const QStringList, notAsked);
    const By b(fixture::newBuild(job.toStdString(), false, "inline-four-wet-sump",
                                 job == "S" ? std::vector<std::string> { "sump_pickup", "pan" }
                                            : std::vector<std::string> {}));
    for (const QString &id : asked)
        QVERIFY2(b.state(id.toStdString()) != "not asked"
                     && b.state(id.toStdString()) != "no such check",
                 qPrintable(id));
    for (const QString &id : notAsked)
        QVERIFY2(b.state(id.toStdString()) == "not asked"
                     || b.state(id.toStdString()) == "no such check",
                 qPrintable(id));
}

/// The published form of the list: programs read it.
/// The iron inline-four as its template has it, counted from the catalogue's own columns: 5 mains,
/// 4 rods, 4 small ends and 5 cam bearings, 8 lifters and rockers, 4 cylinders, 42 passages of
/// which one is a restrictor and 6 end blind, 9 plugs, caps of mains and rods. No oil line, tank,
/// turbocharger or rolling bearing; nothing bought, sent out or found.
void TestCheckRules::counts_areThoseWrittenDownByHand()
{
    struct Row
    {
        const char *kinds;
        std::array<int, 7> asked; // by the jobs below
    };
    const std::string_view jobs = "NFRSBDO";
    static const std::vector<Row> rows {
        { "job oilin fire leaks again", { 1, 1, 1, 1, 1, 1, 1 } },
        { "number", { 0, 1, 1, 0, 0, 0, 0 } },
        { "oldcut", { 0, 1, 1, 1, 0, 1, 1 } },
        { "sign", { 0, 19, 19, 0, 0, 0, 0 } },
        { "crack", { 2, 2, 0, 0, 0, 0, 0 } },
        { "plugout plugin bore bush", { 9, 9, 0, 0, 0, 0, 0 } },
        { "clean", { 42, 42, 0, 0, 42, 0, 0 } },
        { "restr camhole cambed top", { 1, 1, 0, 0, 0, 0, 0 } },
        { "pocket", { 6, 6, 0, 0, 0, 0, 0 } },
        { "newpart", { 4, 0, 0, 0, 0, 0, 0 } },
        { "wash crank", { 4, 4, 4, 0, 4, 0, 0 } },
        { "drain tools runout asked bolts thrust rearseal used", { 1, 1, 1, 0, 0, 0, 0 } },
        { "final jets", { 3, 3, 3, 0, 0, 0, 0 } },
        { "plugseen", { 9, 9, 0, 0, 9, 0, 0 } },
        { "jrnl shell tang crush capway lube", { 9, 9, 9, 0, 0, 0, 0 } },
        { "clr film", { 9, 9, 9, 0, 9, 0, 0 } },
        { "lifclr lift", { 8, 8, 0, 0, 0, 0, 0 } },
        { "piston", { 4, 4, 4, 0, 0, 0, 0 } },
        { "feed groove", { 5, 5, 5, 0, 0, 0, 0 } },
        { "cold heat", { 18, 18, 18, 0, 18, 0, 0 } },
        { "float pflat ptip pend pport rfree rseat rspring pgask pdrive kring klock kgap panfit "
          "baffle ptight pan",
          { 1, 1, 1, 0, 1, 0, 0 } },
        { "card lash", { 2, 2, 2, 0, 0, 0, 0 } },
        { "torq turns", { 2, 2, 2, 0, 2, 0, 0 } },
        { "blank gauge solved idle over air off press dry watch cut", { 1, 1, 1, 0, 1, 1, 0 } },
        { "filt oilok", { 1, 1, 1, 0, 1, 1, 1 } },
        { "need", { 13, 13, 13, 0, 13, 13, 0 } },
        { "speed", { 14, 14, 14, 0, 14, 14, 0 } },
        { "pick cidle fast warm hidle noise explain sheet", { 1, 1, 1, 1, 1, 1, 0 } },
        { "seelif seeroc", { 8, 8, 8, 0, 8, 8, 0 } },
        { "seejet", { 3, 3, 3, 0, 3, 3, 0 } },
    };
    const std::array<int, 7> sums { 360, 377, 262, 14, 206, 73, 8 };
    for (size_t j = 0; j < jobs.size(); ++j) {
        By b(fixture::newBuild(std::string(1, jobs[j])));
        std::map<std::string, int> asked;
        for (const Check &c : b.list().all())
            asked[std::string(c.kind->id)] += c.asked;
        int sum = 0;
        for (const Row &r : rows)
            for (const QString &kind : QString::fromLatin1(r.kinds).split(u' ')) {
                int &here = asked[kind.toStdString()];
                QVERIFY2(here == r.asked[j],
                         qPrintable(QStringLiteral("%1 of job %2: %3")
                                        .arg(kind, QString(QLatin1Char(jobs[j])))
                                        .arg(here)));
                sum += std::exchange(here, 0);
            }
        QCOMPARE(sum, sums[j]);
        for (const auto &[kind, n] : asked)
            QVERIFY2(n == 0, kind.c_str());
    }
}

void TestCheckRules::checks_areToldAsPublished()
{
    const Json all
        = run({ QStringLiteral("checks"), QString::fromStdString(demoBuildPath().string()),
                QStringLiteral("--json"), QStringLiteral("--today"), QStringLiteral("2026-04-01") })
              .json();
    std::set<std::string> ids;
    for (const Json &c : all["checks"]) {
        QVERIFY(ids.insert(c["id"].get<std::string>()).second);
        QCOMPARE(c["id"].get<std::string>(),
                 c["kind"].get<std::string>() + "@" + c["place"].get<std::string>());
        QVERIFY(fromWord<CheckState>(c["state"].get<std::string>()));
        QVERIFY(fromWord<CheckClass>(c["class"].get<std::string>()));
        QVERIFY(fromWord<CheckGate>(c["gate"].get<std::string>()));
        QVERIFY(!c["reason"].get<std::string>().empty());
    }
    for (const char *gate : { "turn", "fire", "load", "handover" }) {
        const Json &g = all["gates"][gate];
        QVERIFY(!g["open"].get<bool>() && g["open_checks"].get<int>() >= g["holds"].get<int>());
    }
    const auto count = [&](std::initializer_list<const char *> options) {
        QStringList words { QStringLiteral("checks"),
                            QString::fromStdString(demoBuildPath().string()),
                            QStringLiteral("--json") };
        for (const char *o : options)
            words << QLatin1String(o);
        return run(words).json()["checks"].size();
    };
    QVERIFY(count({ "--all" }) > ids.size());
    QVERIFY(count({ "--open" }) < ids.size());
    QVERIFY(count({ "--gate", "turn" }) < count({ "--gate", "fire" }));
    QCOMPARE(run({ QStringLiteral("checks"), QString::fromStdString(demoBuildPath().string()),
                   QStringLiteral("--gate"), QStringLiteral("wash") })
                 .code,
             2);
    QCOMPARE(run({ QStringLiteral("checks"), QString::fromStdString(demoBuildPath().string()),
                   QStringLiteral("--today"), QStringLiteral("tomorrow") })
                 .code,
             2);
}

} // namespace tst_checkrules
MILDPATH_TEST(tst_checkrules, TestCheckRules)
} // namespace mildpath
#include "tst_checkrules.moc"
