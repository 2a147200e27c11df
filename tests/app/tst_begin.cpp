// SPDX-License-Identifier: GPL-3.0-or-later
// The first page, who works, what is ordered and what falls back.
#include "begin/beginpage.h"
#include "begin/firstquestions.h"
#include "begin/tiles.h"
#include "bench/work/orderpage.h"
#include "bench/work/waitscard.h"
#include "bench/work/worklanes.h"
#include "benchfixture.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "document/logbook.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "plan/timed.h"
#include "plan/workplan.h"
#include "quantity/dates.h"
#include "shell/fallback.h"
#include "shell/nextcard.h"
#include "window/whoworks.h"

#include <QCheckBox>
#include <QClipboard>
#include <QDialogButtonBox>
#include <QTemporaryDir>

namespace mildpath {
namespace tst_begin {

class TestBegin : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init()
    {
        freshSettings();
        OpenBuild::setClock({});
    }
    void cleanup()
    {
        m_window.reset();
        OpenBuild::setClock({});
    }

    void firstDay_offersEnginesAndPractice();
    void lastBuild_isShownAndGoneOnWith();
    void damagedFile_staysWithItsReason();
    void firstQuestions_becomeOneEdit();
    void firstQuestions_leftAloneChangeNothing();
    void worker_isAskedOnceADay();
    void worker_isNeverTheAccount();
    void orders_arePlacedByHand();
    void orderedLate_headsTheRailTheDayAfter();
    void handsTaken_areSeenAndCorrected();
    void instruments_areChosenWithTheirUncertainty();
    void failure_tellsWhatFallsBackBeforeItIsRecorded();
    void whatRuns_standsWhereWhatIsNextStands();

private:
    void begin(const QStringList &recent = {})
    {
        QSettings().setValue(recentFilesKey, recent);
        m_window = std::make_unique<MainWindow>(QString());
        m_window->begin();
        m_window->show();
        QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
        m_window->activateWindow();
    }
    void press(const char *name)
    {
        auto *b = m_window->findChild<QPushButton *>(QString::fromLatin1(name));
        QVERIFY2(b && b->isVisible(), name);
        QTest::mouseClick(b, Qt::LeftButton);
        QApplication::processEvents();
    }
    QString copyOfDemo(const QTemporaryDir &folder, const char *name)
    {
        const QString path = folder.filePath(QString::fromLatin1(name));
        QFile::copy(qs(demoBuildPath().string()), path);
        QFile(path).setPermissions(QFile::ReadOwner | QFile::WriteOwner);
        return path;
    }
    /// Does something in the dialog that comes up next.
    template <class Dialog> void whenAsked(std::function<void(Dialog &)> act)
    {
        auto *timer = new QTimer(this);
        connect(timer, &QTimer::timeout, this, [timer, act = std::move(act)] {
            if (auto *dialog = qobject_cast<Dialog *>(QApplication::activeModalWidget())) {
                timer->deleteLater();
                act(*dialog);
            }
        });
        timer->start(20);
    }
};

void TestBegin::firstDay_offersEnginesAndPractice()
{
    begin();
    QVERIFY(m_window->isBeginning());
    EngineTiles &tiles = m_window->beginPage().tiles();
    QVERIFY(tiles.count() >= 12);
    QVERIFY(tiles.hasFocus()); // nothing to go on with
    QVERIFY(!m_window->findChild<QPushButton *>(QStringLiteral("begin.goOn"))->isVisible());
    // Keys walk them; each says what it is.
    const std::string usual = tiles.chosen();
    QCOMPARE(usual, std::string("inline-four-wet-sump"));
    QSet<QString> seen { qs(usual) };
    for (const int key : { Qt::Key_Right, Qt::Key_Down, Qt::Key_Left, Qt::Key_Up, Qt::Key_Up }) {
        QTest::keyClick(&tiles, static_cast<Qt::Key>(key));
        seen.insert(qs(tiles.chosen()));
        QVERIFY(!tiles.about().isEmpty());
    }
    QVERIFY(seen.size() >= 4);
    for (int i = 0; i < tiles.count(); ++i)
        for (int k = 0; k < i; ++k)
            QVERIFY(!tiles.areaOf(i).intersects(tiles.areaOf(k)));
    // Nothing of a bench can be done yet.
    QTest::keyClick(m_window.get(), Qt::Key_F7);
    QVERIFY(m_window->isBeginning());
    // A practice copy never writes to what is shipped.
    press("begin.practise");
    QVERIFY(!m_window->isBeginning());
    QVERIFY(document().path().isEmpty());
    QCOMPARE(build().name, demoBuild().name);
}

void TestBegin::lastBuild_isShownAndGoneOnWith()
{
    QTemporaryDir folder;
    const QString last = copyOfDemo(folder, "last.mildpath");
    const QString other = copyOfDemo(folder, "other.mildpath");
    begin({ last, other });
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->beginPage().busy(), 60000);
    const auto *name = m_window->findChild<QLabel *>(QStringLiteral("begin.name"));
    QCOMPARE(name->text(), qs(demoBuild().name));
    const auto words = [&] {
        QString out;
        for (const QLabel *l : m_window->beginPage().findChildren<QLabel *>())
            out += l->text() + u'\n';
        return out;
    };
    QVERIFY2(words().contains(QStringLiteral("Main 4")), qPrintable(words())); // it holds
    QVERIFY(words().contains(QStringLiteral("can be done now")));
    const auto *goOn = m_window->findChild<QPushButton *>(QStringLiteral("begin.goOn"));
    QVERIFY(goOn->isEnabled() && goOn->hasFocus());
    QTest::keyClick(const_cast<QPushButton *>(goOn), Qt::Key_Space);
    QVERIFY(!m_window->isBeginning());
    QCOMPARE(document().path(), last);
    // Back to the page; going on with what is open still loses nothing.
    QVERIFY(document().edit(Rename { "changed meanwhile" }));
    m_window->begin();
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->beginPage().busy(), 60000);
    press("begin.goOn");
    QVERIFY(!m_window->isBeginning());
    QCOMPARE(build().name, std::string("changed meanwhile"));
    document().giveUp();
}

void TestBegin::damagedFile_staysWithItsReason()
{
    QTemporaryDir folder;
    const QString bad = folder.filePath(QStringLiteral("bad.mildpath"));
    QFile file(bad);
    QVERIFY(file.open(QFile::WriteOnly) && file.write("{ \"format\": ") > 0);
    file.close();
    QVERIFY(QFile::copy(qs(demoBuildPath().string()), bad + QStringLiteral(".bak")));
    begin({ copyOfDemo(folder, "good.mildpath"), bad,
            folder.filePath(QStringLiteral("gone.mildpath")) });
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->beginPage().busy(), 60000);
    const auto rows
        = m_window->beginPage().findChildren<QPushButton *>(QStringLiteral("begin.other"));
    QCOMPARE(rows.size(), 2);
    QVERIFY(!rows[0]->isEnabled() && !rows[1]->isEnabled());
    press("begin.older"); // the copy kept beside it opens
    QVERIFY(!m_window->isBeginning());
    QCOMPARE(build().name, demoBuild().name);
}

void TestBegin::firstQuestions_becomeOneEdit()
{
    begin();
    whenAsked<FirstQuestions>([](FirstQuestions &ask) {
        const auto line = [&](const char *name) {
            auto *l = ask.findChild<QLineEdit *>(QString::fromLatin1(name));
            l->setFocus();
            l->selectAll();
            return l;
        };
        QTest::keyClicks(line("first.name"), QStringLiteral("Quay four"));
        QTest::keyClicks(line("first.worker"), QStringLiteral("A. Reed"));
        QTest::keyClicks(line("first.number"), QStringLiteral("Q-44"));
        ask.findChild<QCheckBox *>(QStringLiteral("first.job.R"))->click();
        auto *next = ask.findChild<QPushButton *>(QStringLiteral("first.next"));
        for (int page = 1; page < 5; ++page) {
            QTest::mouseClick(next, Qt::LeftButton);
            QCOMPARE(ask.page(), page);
            if (page == 1) {
                QTest::keyClicks(line("first.most"), QStringLiteral("5200"));
                QTest::keyClick(line("first.most"), Qt::Key_Return);
                QTest::keyClicks(line("first.idle"), QStringLiteral("750"));
                QTest::keyClick(line("first.idle"), Qt::Key_Return);
                ask.findChild<QComboBox *>(QStringLiteral("first.load"))->setCurrentIndex(2);
            } else if (page == 2) {
                QTest::keyClicks(line("first.coldest"), QStringLiteral("-21"));
                QTest::keyClick(line("first.coldest"), Qt::Key_Return);
                auto *oil = ask.findChild<QComboBox *>(QStringLiteral("first.oil"));
                oil->setCurrentIndex(oil->findText(QStringLiteral("10W-40")));
            } else if (page == 4) {
                QTest::keyClicks(line("first.pump"), QStringLiteral("9.5"));
                QTest::keyClick(line("first.pump"), Qt::Key_Return);
                QTest::keyClicks(line("first.opens"), QStringLiteral("4.1"));
                QTest::keyClick(line("first.opens"), Qt::Key_Return);
                QTest::keyClicks(line("first.full"), QStringLiteral("6.2"));
                QTest::keyClick(line("first.full"), Qt::Key_Return);
                ask.findChild<QComboBox *>(QStringLiteral("first.returns"))->setCurrentIndex(3);
            } else if (page == 3) {
                QTest::keyClicks(line("first.most.main"), QStringLiteral("60"));
                QTest::keyClick(line("first.most.main"), Qt::Key_Return);
            }
        }
        QTest::mouseClick(next, Qt::LeftButton);
    });
    QTest::keyClick(&m_window->beginPage().tiles(), Qt::Key_Return);
    QVERIFY(!m_window->isBeginning());
    QCOMPARE(build().name, std::string("Quay four"));
    const Job *job = currentJob(build());
    QVERIFY(job && job->kinds == std::vector<std::string> { "R" } && job->number == "Q-44");
    QCOMPARE(job->by, std::string("A. Reed"));
    QCOMPARE(document().pickedWorker(), std::string("A. Reed"));
    QCOMPARE(build().use.most_rpm, 5200.0);
    QCOMPARE(build().use.hotIdle_rpm, 750.0);
    QCOMPARE(build().use.coldestStart_c, -21.0);
    QCOMPARE(build().oil.grade, std::string("10W-40"));
    QCOMPARE(build().use.fullLoadPeak_kpa, std::optional(11000.0)); // boosted, or diesel
    QCOMPARE(build().use.reliefReturnsTo, std::string("unknown"));
    for (const Element &e : build().circuit.elements)
        if (e.kind == ElementKind::Pump)
            verifyClose(e.value("displacement_m3"), 9.5e-6, 1e-9);
    const Stop *relief = build().engine.ofKind(StopKind::Relief);
    QVERIFY(relief);
    for (const std::string &id : relief->elements)
        if (const Element *e = build().circuit.find(id); e->kind == ElementKind::Relief) {
            verifyClose(e->value("crack_kpa"), 410, 1e-9);
            verifyClose(e->value("full_kpa"), 620, 1e-9);
        }
    const Limits &main = build().limits.at("main");
    QCOMPARE(main.max_um, 60.0);
    QCOMPARE(main.source, std::string("maker"));
    // Of the others nobody said anything.
    const auto fresh = loadTemplate("inline-four-wet-sump");
    QCOMPARE(build().limits.at("big_end"), fresh->build.limits.at("big_end"));
    QVERIFY(assessment().checks.find("job@engine")->state == CheckState::Proven);
    document().undoStack().undo();
    QVERIFY(!currentJob(build()));
    QVERIFY(build().name != "Quay four" && build().use.most_rpm != 5200.0);
}

void TestBegin::firstQuestions_leftAloneChangeNothing()
{
    QSettings().remove(QStringLiteral("worker/name")); // nobody worked here before
    begin();
    whenAsked<FirstQuestions>([](FirstQuestions &ask) {
        QTest::mouseClick(ask.findChild<QPushButton *>(QStringLiteral("first.later")),
                          Qt::LeftButton);
    });
    m_window->beginNew(QStringLiteral("flat-four"));
    QCOMPARE(build().engine.layout, std::string("flat-4"));
    QVERIFY(!document().isModified());
    QVERIFY(document().pickedWorker().empty());
}

void TestBegin::worker_isAskedOnceADay()
{
    open();
    QVERIFY(document().pickWorker({})); // nobody yet
    QSettings().remove(QStringLiteral("worker/asked"));
    int asked = 0;
    whenAsked<WhoWorksDialog>([&](WhoWorksDialog &dialog) {
        ++asked;
        auto *other = dialog.findChild<QLineEdit *>(QStringLiteral("who.other"));
        QVERIFY(dialog.findChild<QPushButton *>(QStringLiteral("who0"))); // one of its people
        QTest::keyClicks(other, QStringLiteral("H. Vane"));
        QTest::mouseClick(dialog.findChild<QDialogButtonBox *>()->button(QDialogButtonBox::Ok),
                          Qt::LeftButton);
    });
    DebrisFind found;
    found.colour = "grey";
    found.size = "grit";
    QVERIFY(document().record(found));
    QCOMPARE(asked, 1);
    QCOMPARE(build().finds.back().by, std::string("H. Vane"));
    QVERIFY(
        std::ranges::any_of(build().people, [](const Person &p) { return p.name == "H. Vane"; }));
    QCOMPARE(m_window->findChild<QToolButton *>(QStringLiteral("worker"))->text(),
             QStringLiteral("H. Vane"));
    QVERIFY(document().record(found)); // not asked again: it would stand here for ever
    QCOMPARE(build().finds.back().by, std::string("H. Vane"));
    // Who is not one of an engine's people does not work on it unasked.
    QVERIFY(m_window->openTemplate(QStringLiteral("flat-four")));
    QVERIFY(document().pickedWorker().empty());
}

void TestBegin::worker_isNeverTheAccount()
{
    qputenv("USER", "somebody");
    open();
    QVERIFY(document().pickWorker({}));
    DebrisFind found;
    found.colour = "grey";
    found.size = "grit";
    QVERIFY(document().record(found)); // asked today already, and nobody said
    QVERIFY(build().finds.back().by.empty());
    QCOMPARE(whoText(build().finds.back().by), std::string("name not recorded"));
    QCOMPARE(whoText("unnamed"), std::string("name not recorded"));
    QCOMPARE(whoText("T. Quill"), std::string("T. Quill"));
}

void TestBegin::orders_arePlacedByHand()
{
    open();
    m_window->showPage(Place::Work, QStringLiteral("order"));
    auto *rows = find<RowList>("orderRows");
    QTRY_VERIFY(rows->rows().size() > 4);
    int seals = -1;
    for (size_t i = 0; i < rows->rows().size(); ++i)
        if (rows->rows()[i].cells.front().startsWith(QStringLiteral("Crank seals")))
            seals = static_cast<int>(i);
    QVERIFY(seals > 0);
    clickAt(rows, QPointF(60, (seals + 0.5) * RowList::rowHeight));
    typeInPanel(QStringLiteral("order.from"), QStringLiteral("the harbour store"));
    typeInPanel(QStringLiteral("order.promised"), QStringLiteral("soon"));
    clickInPanel("order.place");
    QVERIFY(build().orders.empty()); // no day
    typeInPanel(QStringLiteral("order.promised"), QStringLiteral("4"));
    clickInPanel("order.place");
    QCOMPARE(build().orders.size(), size_t(1));
    const Order &o = build().orders.back();
    QCOMPARE(o.from, std::string("the harbour store"));
    QCOMPARE(o.promised, dayAfter(OpenBuild::now().substr(0, 10), 4));
    QCOMPARE(*o.count, 2.0);
    QCOMPARE(o.by, std::string("J. Moor"));
    const std::string id = "hand@" + o.row;
    QVERIFY(assessment().checks.find(id)->state == CheckState::NotDone);
    // On the calendar of what the work waits for.
    m_window->showPage(Place::Work, QStringLiteral("plan"));
    auto *waits = find<WaitsCard>("waitsCard");
    const QString promised
        = QStringLiteral("Crank seals, front and rear, the harbour store, promised ")
        + qs(nearDayText(o.promised));
    QTRY_VERIFY(waits->isVisible() && waits->accessibleDescription().contains(promised));
    QVERIFY(waits->accessibleDescription().startsWith(QStringLiteral("To order, ")));
    QTest::mouseClick(waits, Qt::LeftButton); // it leads to the list
    QCOMPARE(m_window->currentBench()->pageId(), QStringLiteral("order"));
    click("order.copy");
    QVERIFY(QApplication::clipboard()->text().contains(QStringLiteral("2 × Crank seals")));
    QTRY_VERIFY(inPanel<QPushButton>(QStringLiteral("order.inHand")));
    clickInPanel("order.inHand");
    QVERIFY(assessment().checks.find(id)->state == CheckState::Proven);
    document().undoStack().undo();
    QVERIFY(assessment().checks.find(id)->state == CheckState::NotDone);
    // Saved and read again it is the same.
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("ordered.mildpath"));
    QVERIFY(document().save(file));
    const auto again = loadBuild(file.toStdString());
    QVERIFY(again && again->build.orders == build().orders);
}

void TestBegin::orderedLate_headsTheRailTheDayAfter()
{
    const QDateTime morning(QDate(2026, 5, 4), QTime(8, 0));
    QDateTime now = morning;
    OpenBuild::setClock([&now] { return now; });
    open();
    QVERIFY(document().pickWorker("J. Moor"));
    Order o;
    o.row = "own_ring";
    o.what = "Ring of the pickup";
    o.from = "the harbour store";
    o.promised = "2026-05-06";
    QVERIFY(document().record(o));
    NextCard &card = m_window->nextCard();
    QTRY_VERIFY(!card.check().empty());
    QVERIFY(card.check() != "hand@own_ring");
    now = morning.addDays(3);
    document().followDay(); // the program was left open over night
    QTRY_COMPARE(card.check(), std::string("hand@own_ring"));
    QVERIFY2(card.text().startsWith(QStringLiteral("Ring the harbour store")),
             qPrintable(card.text()));
}

void TestBegin::handsTaken_areSeenAndCorrected()
{
    open();
    m_window->showPage(Place::Work, QStringLiteral("plan"));
    auto *lanes = find<WorkLanes>("workLanes");
    QTRY_VERIFY(!lanes->chosen().empty());
    Q_EMIT lanes->picked("clr@main_1"); // gauged, six readings some minutes apart
    const auto field = [&] { return inPanel<QuantityField>(QStringLiteral("work.minutes")); };
    QTRY_VERIFY(field());
    const auto taken
        = handsTaken(build(), assessment().checks, *assessment().checks.find("clr@main_1"));
    QVERIFY(taken && !taken->typed);
    QCOMPARE(field()->value(), std::optional(std::round(taken->minutes)));
    type(field(), QStringLiteral("41"));
    QCOMPARE(build().times.back().minutes, 41.0);
    QCOMPARE(build().times.back().checks, std::vector<std::string> { "clr@main_1" });
    QTRY_VERIFY(field() && field()->value() == std::optional(41.0));
    const auto said
        = handsTaken(build(), assessment().checks, *assessment().checks.find("clr@main_1"));
    QVERIFY(said && said->typed && said->minutes == 41);
    document().undoStack().undo();
    QVERIFY(build().times.empty());
}

void TestBegin::instruments_areChosenWithTheirUncertainty()
{
    open();
    m_window->showPage(Place::Work, QStringLiteral("instruments"));
    typeInPanel(QStringLiteral("instrument.name"), QStringLiteral("Bore gauge 7"));
    choose(inPanel<QComboBox>(QStringLiteral("instrument.kind")), QStringLiteral("bore gauge"));
    typeInPanel(QStringLiteral("instrument.u"), QStringLiteral("3"));
    typeInPanel(QStringLiteral("instrument.checked"), QStringLiteral("last spring"));
    clickInPanel("instrument.keep");
    QVERIFY(build().instruments.empty());
    typeInPanel(QStringLiteral("instrument.checked"), QStringLiteral("2026-03-01"));
    clickInPanel("instrument.keep");
    QCOMPARE(build().instruments.size(), size_t(1));
    verifyClose(*build().instruments.back().u, 1.5, 1e-9); // k = 2 was typed
    ReadingEntry &entry = clearances().entry();
    auto *combo = entry.findChild<QComboBox *>(QStringLiteral("instrument"));
    entry.refresh();
    select("main_1");
    select("main_2");
    choose(combo, QStringLiteral("Bore gauge 7"));
    type(entry.cell(0), QStringLiteral("47.6"));
    const Reading &r = build().readings.back();
    QCOMPARE(qs(r.instrument), QStringLiteral("Bore gauge 7"));
    verifyClose(r.u_um, 1.5, 1e-9);
}

void TestBegin::failure_tellsWhatFallsBackBeforeItIsRecorded()
{
    open();
    m_window->showPage(Place::Passages, QStringLiteral("failure"));
    auto *note = find<FallBackNote>("failure.fallBack");
    choose(find<QComboBox>("failure.where"), QStringLiteral("Main 2"));
    QTRY_VERIFY_WITH_TIMEOUT(!note->busy() && note->isVisible(), 60000);
    const std::shared_ptr<const Assessment> before = document().sharedAssessment();
    click("failure.record");
    const auto back = fallenBack(before->checks, assessment().checks);
    QVERIFY(!back.empty());
    // What was told is what came.
    document().undoStack().undo();
    QTRY_VERIFY_WITH_TIMEOUT(!note->busy() && note->isVisible(), 60000);
    QVERIFY2(note->text().contains(QStringLiteral("%1 check").arg(back.size())),
             qPrintable(note->text() + QString::number(back.size())));
}

void TestBegin::whatRuns_standsWhereWhatIsNextStands()
{
    open();
    NextCard &card = m_window->nextCard();
    QTRY_VERIFY(!card.check().empty());
    document().setLive(QStringLiteral("Priming, 12 s turning, 1.2 bar"));
    QVERIFY(card.accessibleName().contains(QStringLiteral("Priming")));
    m_window->showBench(Place::Pump);
    QTest::keyClick(m_window.get(), Qt::Key_F8);
    QCOMPARE(m_window->currentBench()->place(), Place::Start);
    document().setLive({});
    QVERIFY(card.accessibleName().startsWith(QStringLiteral("Next")));
}

} // namespace tst_begin
MILDPATH_TEST(tst_begin, TestBegin)
} // namespace mildpath

#include "tst_begin.moc"
