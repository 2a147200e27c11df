// SPDX-License-Identifier: GPL-3.0-or-later
// The next thing to do at the head of the rail: named, gone to, come back from.
#include "bench/work/todaypage.h"
#include "bench/work/worklanes.h"
#include "benchfixture.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "checks/signing.h"
#include "checks/visible.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "plan/workplan.h"
#include "shell/nextcard.h"

namespace mildpath {
namespace tst_next {

class TestNext : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init()
    {
        if (!m_window)
            open();
    }
    /// Rows of a table look at one window as long as none of them changes the build.
    void cleanup()
    {
        if (!QTest::currentDataTag() || document().isModified())
            m_window.reset();
    }

    void next_isThePlansFirst();
    void other_walksWhatCanBeDoneNow();
    void goingThere_andBack();
    void everyKind_isGoneToWhereItIsAnswered_data();
    void everyKind_isGoneToWhereItIsAnswered();
    void next_waitsForWhoTypes();
    void freshBuild_isLedByKeysAlone();
    void lanes_showEveryAskedCheckOnce();
    void lanes_areWalkedByKeysAndClicks();
    void daySheet_isSeenAndWritten();

private:
    /// A dry sump, a turbocharger or neither; a failure, work for the shop, a thing ordered.
    void openEverything()
    {
        auto loaded
            = loadTemplate(QTest::currentDataTag() == QByteArray("tank") ? "flat-six-dry-sump"
                                                                         : "inline-three-turbo");
        QVERIFY(loaded.has_value());
        Build b = loaded->build;
        const auto add = [&](auto entry) {
            entry.by = "J. Moor";
            entry.at = OpenBuild::now();
            const auto done = applyEdit(b, AddEntry { std::move(entry) });
            QVERIFY2(done, done ? "" : render(done.error().message, fileStyle).c_str());
            b = *done;
        };
        Person person;
        person.name = "J. Moor";
        add(person);
        Job job;
        job.kinds = { "N", "F", "D" };
        add(job);
        BearingFailure failure;
        failure.stop = "big_end_1";
        add(failure);
        ShopJob shop;
        shop.job = "grind_pins";
        add(shop);
        Order order;
        order.row = "own_thing";
        order.what = "Thing";
        add(order);
        DebrisFind find;
        find.colour = "grey";
        find.size = "grit";
        add(find);
        OwnCheck own;
        own.text = "Oil thrower is on";
        add(own);
        m_window->openNew(std::move(b));
        QApplication::processEvents();
    }
    NextCard &card() { return m_window->nextCard(); }
    void pressNext()
    {
        QTest::keyClick(m_window.get(), Qt::Key_F8);
        QApplication::processEvents();
    }
    OpenBuild &document() { return m_window->openBuild(); }
};

void TestNext::next_isThePlansFirst()
{
    QTRY_VERIFY(!card().check().empty());
    const auto plan = document().answers().ask(ask::plan());
    QVERIFY(plan);
    QCOMPARE(card().check(), plan->answer.next()->check->id());
    QVERIFY(card().text().contains(qs(plan->answer.next()->check->place.name)));
    QVERIFY(!card().why().isEmpty());
    QVERIFY(card().accessibleName().contains(card().text()));
}

void TestNext::other_walksWhatCanBeDoneNow()
{
    QTRY_VERIFY(!card().check().empty());
    const int now = document().answers().ask(ask::plan())->answer.nowCount();
    const std::string first = card().check();
    QSet<QString> seen;
    for (int i = 0; i < now; ++i) {
        seen.insert(qs(card().check()));
        QTest::keyClick(&card(), Qt::Key_Right);
    }
    QCOMPARE(seen.size(), now);
    QCOMPARE(card().check(), first); // and begins anew
}

void TestNext::goingThere_andBack()
{
    QTRY_VERIFY(!card().check().empty());
    m_window->showPage(Place::Forecast, QStringLiteral("remedies"));
    const QString page = m_window->currentBench()->pageId();
    pressNext();
    QVERIFY(m_window->currentBench()->place() != Place::Forecast);
    pressNext();
    QCOMPARE(m_window->currentBench()->place(), Place::Forecast);
    QCOMPARE(m_window->currentBench()->pageId(), page);
    // A click goes there as well.
    QTest::mouseClick(&card(), Qt::LeftButton, {}, QPoint(40, 40));
    QVERIFY(m_window->currentBench()->place() != Place::Forecast);
}

void TestNext::everyKind_isGoneToWhereItIsAnswered_data()
{
    QTest::addColumn<QString>("kind");
    for (const CheckKind &k : checkKinds())
        QTest::newRow(std::string(k.id).c_str()) << qs(k.id);
}

void TestNext::everyKind_isGoneToWhereItIsAnswered()
{
    QFETCH(QString, kind);
    const auto wanted = [&]() -> const Check * {
        const Check *out = nullptr;
        for (const Check &c : document().judgement().checks.all())
            if (c.asked && c.kind->id == kind.toStdString())
                out = &c;
        return out;
    };
    const Check *check = wanted();
    if (!check) { // on an engine that has it, with all that can be recorded
        openEverything();
        check = wanted();
    }
    // A row that stands only once something speaks of it.
    if (!check && (kind == u"retorq" || kind == u"reopen"))
        QSKIP("asked only where something recorded asks it");
    if (!check && kind == u"roll")
        QSKIP("no template has a rolling bearing");
    QVERIFY2(check, "no engine has it");
    const std::string id = check->id();
    const bool inList = isAnsweredInList(*check);
    m_window->goToCheck(id);
    QApplication::processEvents();
    if (kind == u"again") { // set on a page of its own
        QCOMPARE(m_window->currentBench()->pageId(), QStringLiteral("looks"));
        QVERIFY(inPanel<QPushButton>(QStringLiteral("look.keep")));
        return;
    }
    if (!inList) {
        QCOMPARE(m_window->currentBench()->place(), placeOf(*check->kind));
        return;
    }
    QCOMPARE(m_window->currentBench()->place(), Place::Start);
    if (kind == u"job") {
        QVERIFY(inPanel<QPushButton>(QStringLiteral("job.record")));
        return;
    }
    // Its own statement, and an answer that is taken in.
    QVERIFY(find<RowList>("checkRows")->isVisible());
    QWidget *focus = QApplication::focusWidget();
    QVERIFY(focus && m_window->sidePanel().isAncestorOf(focus));
    choose(inPanel<QComboBox>(QStringLiteral("check.by")), QStringLiteral("J. Moor"));
    clickInPanel("check.yes");
    const CheckEntry &last = document().build().checkEntries.back();
    QCOMPARE(last.kind, kind.toStdString());
    QVERIFY(last.places.empty() || last.places.front() == id.substr(id.find('@') + 1));
}

void TestNext::next_waitsForWhoTypes()
{
    QTRY_VERIFY(!card().check().empty());
    auto *name = m_window->findChild<QLineEdit *>(QStringLiteral("buildName"));
    name->setFocus();
    QTest::keyClicks(name, QStringLiteral("x"));
    const std::string shown = card().check();
    // Somebody's reading comes in by a cable meanwhile, say: what is next has changed.
    for (const char *by : { "J. Moor", "T. Quill" }) {
        auto signs = signChecks(document().build(), document().judgement().checks, { shown }, by,
                                "kept for the first hour only", "fire");
        QVERIFY(signs.has_value());
        for (SignOff &sign : *signs) {
            sign.at = OpenBuild::now();
            QVERIFY(document().record(sign).has_value());
        }
    }
    const auto next = [&]() -> std::string { // empty: being worked out
        const auto plan = document().answers().ask(ask::plan());
        return plan ? plan->answer.next()->check->id() : std::string();
    };
    QTRY_VERIFY(!next().empty() && next() != shown);
    QCOMPARE(card().check(), shown);
    QTest::keyClick(name, Qt::Key_Return);
    QTRY_VERIFY(card().check() == next() && card().check() != shown);
}

/// On a fresh build the job comes first: by F8 and the keys of its fields, nothing else.
void TestNext::freshBuild_isLedByKeysAlone()
{
    QVERIFY(m_window->openTemplate(QStringLiteral("single-air-cooled")));
    QTRY_COMPARE(card().check(), std::string("job@engine"));
    pressNext();
    QCOMPARE(m_window->currentBench()->place(), Place::Start);
    inPanel<QCheckBox>(QStringLiteral("job.N"))->click();
    typeInPanel(QStringLiteral("job.by"), QStringLiteral("A. Reed"));
    typeInPanel(QStringLiteral("job.number"), QStringLiteral("77"));
    clickInPanel("job.record");
    QVERIFY(document().judgement().checks.find("job@engine")->state == CheckState::Proven);
    QTRY_VERIFY(card().check() != "job@engine" && !card().check().empty());
    for (int step = 0; step < 12; ++step) {
        const std::string before = card().check();
        const Check *c = document().judgement().checks.find(before);
        pressNext();
        if (!isAnsweredInList(*c)) {
            card().other();
            continue;
        }
        choose(inPanel<QComboBox>(QStringLiteral("check.by")), QStringLiteral("A. Reed"));
        clickInPanel("check.yes");
        QTRY_VERIFY(card().check() != before);
    }
}

void TestNext::lanes_showEveryAskedCheckOnce()
{
    m_window->showBench(Place::Work);
    auto *lanes = find<WorkLanes>("workLanes");
    QTRY_VERIFY(!lanes->chosen().empty());
    const auto plan = document().answers().ask(ask::plan());
    QVERIFY(plan);
    QCOMPARE(lanes->chosen(), plan->answer.next()->check->id());
    int asked = 0;
    for (const Check &c : document().judgement().checks.all()) {
        QCOMPARE(lanes->placeOf(c.id()).isNull(), !c.asked);
        asked += c.asked;
    }
    const auto *about = find<QLabel>("work.subtitle");
    QVERIFY(about);
    QVERIFY(about->text().contains(QStringLiteral("%1 of %2")
                                       .arg(asked - static_cast<int>(plan->answer.rows.size()))
                                       .arg(asked)));
}

void TestNext::lanes_areWalkedByKeysAndClicks()
{
    m_window->showBench(Place::Work);
    auto *lanes = find<WorkLanes>("workLanes");
    QTRY_VERIFY(!lanes->chosen().empty());
    for (const char *id : { "clr@main_2", "kgap@sump_pickup", "wash@pump" }) {
        QTest::mouseClick(lanes, Qt::LeftButton, {}, lanes->placeOf(id).toPoint());
        QCOMPARE(lanes->chosen(), std::string(id));
    }
    // What the start waits for is said, and only that.
    const auto plan = document().answers().ask(ask::plan());
    QVERIFY(plan && plan->answer.showsHours());
    int critical = 0;
    for (const PlannedCheck &r : plan->answer.rows) {
        lanes->choose(r.check->id());
        critical += r.time.isCritical();
        QCOMPARE(lanes->accessibleDescription().contains(QStringLiteral("no day to spare")),
                 r.time.isCritical());
    }
    QVERIFY(critical > 0 && critical < static_cast<int>(plan->answer.rows.size()));
    // By arrows to the first and then through all of them.
    lanes->setFocus();
    for (int i = 0; i < 400; ++i)
        QTest::keyClick(lanes, Qt::Key_Left);
    QCOMPARE(lanes->chosen().substr(0, 4), std::string("job@"));
    QSet<QString> kinds;
    std::string before;
    while (lanes->chosen() != before) {
        before = lanes->chosen();
        kinds.insert(qs(before.substr(0, before.find('@'))));
        QTest::keyClick(lanes, Qt::Key_Right);
    }
    QSet<QString> asked;
    for (const Check &c : document().judgement().checks.all())
        if (c.asked)
            asked.insert(qs(c.kind->id));
    QCOMPARE(kinds, asked);
    for (int i = 0; i < 60; ++i)
        QTest::keyClick(lanes, Qt::Key_Up);
    QCOMPARE(document().judgement().checks.find(lanes->chosen())->kind->stage, Stage::Strip);
    // An open one says what comes first; Enter goes there.
    QTest::mouseClick(lanes, Qt::LeftButton, {}, lanes->placeOf("final@block").toPoint());
    QCOMPARE(lanes->chosen(), std::string("final@block"));
    QVERIFY(inPanel<QPushButton>(QStringLiteral("work.go")));
    QTest::keyClick(lanes, Qt::Key_Return);
    QApplication::processEvents();
    QCOMPARE(m_window->currentBench()->place(), Place::Start);
    QVERIFY(inPanel<QPushButton>(QStringLiteral("check.yes")));
}

void TestNext::daySheet_isSeenAndWritten()
{
    m_window->showPage(Place::Work, QStringLiteral("today"));
    auto *rows = find<RowList>("todayRows");
    QTRY_VERIFY(rows->rows().size() > 3);
    Q_EMIT rows->picked(1);
    QApplication::processEvents();
    QVERIFY(inPanel<QPushButton>(QStringLiteral("today.go")));
    auto *page = static_cast<TodayPage *>(
        static_cast<PagedBench *>(m_window->currentBench())->currentPage());
    const QTemporaryDir folder;
    for (const char *name : { "today.pdf", "today.html" }) {
        const QString path = folder.filePath(QString::fromLatin1(name));
        QCOMPARE(page->writeSheet(path), QString());
        QVERIFY(QFileInfo(path).size() > 2000);
    }
    QVERIFY(!page->writeSheet(folder.filePath(QStringLiteral("no/such/today.pdf"))).isEmpty());
    clickInPanel("today.go");
    QVERIFY(m_window->currentBench()->place() != Place::Work);
}

} // namespace tst_next
MILDPATH_TEST(tst_next, TestNext)
} // namespace mildpath
#include "tst_next.moc"
