// SPDX-License-Identifier: GPL-3.0-or-later
#include "benchfixture.h"
#include "checks/assessment.h"

#include "assess/cleanmarks.h"
#include "bench/passages/foundpage.h"
#include "bench/passages/historychain.h"
#include "bench/passages/passagebench.h"
#include "bench/passages/passagemap.h"
#include "bench/passages/planlist.h"
#include "bench/passages/shoppage.h"
#include "bench/passages/spreadpage.h"
#include "entry/photostrip.h"
#include "entry/quantityfield.h"
#include "entry/rowlist.h"
#include "quantity/json.h"
#include "report/shopsheetdocument.h"
#include "storage/templates.h"

#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPdfWriter>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTextBrowser>
#include <QUndoStack>

using namespace mildpath;

namespace tst_passagebench {

/// Passages, plugs, finds, failure and machine shop, through the widgets.
class TestPassageBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup() { m_window.reset(); }
    void map_isChosenFromByClickAndKey();
    void stopOnTheRail_bringsItsPassage();
    void plan_saysTheSameAsTheCore();
    void brushAndLight_proveAPassage();
    void machining_isRecordedAndUndone();
    void storage_takesItsDays();
    void event_isTakenBack();
    void passage_isRenamedResizedAndCut();
    void drillingAndPlugs_areAddedAndTakenOut();
    void entry_isDatedByHand();
    void badSize_isRefusedBesideTheField();
    void pluggedHole_isLedgeredToSeen();
    void leavingAPlug_asksWhy();
    void plugOnTheMap_opensItsLedger();
    void school_isRecordedAndDrawsMore();
    void find_isToldAndSettled();
    void sign_isSetAndUndone();
    void photo_isKeptBesideTheBuildAndMissedWhenGone();
    void failure_marksPartsAndListsWhatToBuy();
    void againstTheRule_wantsAReason();
    void shopJob_goesOntoTheSheetAndComesBack();
    void sheet_isAPdfOfVectors();
    void emptyBuild_offersTheUsualPassages();
    void everything_survivesSavingAndReopening();
    void hiddenMap_outlivesItsDocument();

private:
    PassageBench &bench(int page = 0)
    {
        m_window->showBench(Place::Passages);
        auto &b = static_cast<PassageBench &>(*m_window->currentBench());
        b.showPage(page);
        QApplication::processEvents();
        return b;
    }
    PassageMap &map() { return *find<PassageMap>("passageMap"); }
    void takePassage(const char *id)
    {
        const Passage *p = findPassage(build().passages, id);
        map().setPart(p->part);
        clickAt(&map(), map().middleOf(id));
    }
    PassageState state(const char *id)
    {
        for (const PassageState &s : assessment().cleaning.passages)
            if (s.passage == id)
                return s;
        return {};
    }
    QString title()
    {
        const PanelContent content = m_window->currentBench()->panel();
        return std::get<PanelTitle>(content.front()).text;
    }
};

void TestPassageBench::map_isChosenFromByClickAndKey()
{
    bench();
    takePassage("main_3_feed");
    QCOMPARE(title(), QStringLiteral("Main 3 feed"));
    QCOMPARE(m_window->openBuild().selectedStop(), QStringLiteral("main_3"));
    QTest::keyClick(&map(), Qt::Key_Right);
    QVERIFY(title() != QStringLiteral("Main 3 feed"));
    QTest::keyClick(&map(), Qt::Key_Left);
    QCOMPARE(title(), QStringLiteral("Main 3 feed"));
    QVERIFY(map().accessibleName().contains(QStringLiteral("Main 3 feed: proven")));
}

void TestPassageBench::stopOnTheRail_bringsItsPassage()
{
    bench();
    m_window->openBuild().selectStop(QStringLiteral("big_end_2"));
    QApplication::processEvents();
    QCOMPARE(title(), QStringLiteral("Big-end 2 drilling"));
    QCOMPARE(map().part(), std::string("crank"));
    m_window->openBuild().selectStop(QStringLiteral("lifter_rear_plug"));
    QApplication::processEvents();
    QCOMPARE(title(), QStringLiteral("Lifter gallery"));
    // A stop without passages leaves what is in hand.
    m_window->openBuild().selectStop(QStringLiteral("small_ends"));
    QApplication::processEvents();
    QCOMPARE(title(), QStringLiteral("Lifter gallery"));
}

void TestPassageBench::plan_saysTheSameAsTheCore()
{
    bench();
    takePassage("main_gallery");
    auto *list = find<PlanList>("planList");
    const BuildPlan core = cleaningPlanOf(build());
    QVERIFY(list->plan().steps.size() == core.plan.steps.size());
    QCOMPARE(list->plan().pulls, core.plan.pulls);
    int inBlock = 0;
    for (const CleaningStep &s : core.plan.steps)
        inBlock += build().passages[static_cast<size_t>(s.in.passage)].part == "block" && !s.flush;
    QVERIFY2(list->headline().contains(QStringLiteral("%1 brush passes").arg(inBlock)),
             qPrintable(list->headline()));
    // The line of the passage in hand is the chosen one, and a click on another takes that.
    QVERIFY(list->rows()[static_cast<size_t>(list->chosen())].cells[1].contains(
        QStringLiteral("Main gallery")));
    int row = -1;
    for (size_t i = 0; i < list->rows().size(); ++i)
        if (list->rows()[i].cells[1].startsWith(QStringLiteral("Chain jet feed")))
            row = static_cast<int>(i);
    clickAt(list, QPointF(120, RowList::rowHeight * (row + 0.5)));
    QCOMPARE(title(), QStringLiteral("Chain jet feed"));
}

void TestPassageBench::brushAndLight_proveAPassage()
{
    bench();
    takePassage("chain_jet_feed");
    QVERIFY(state("chain_jet_feed").state != CleanState::Clean);
    click("record.white");
    QVERIFY(find<HistoryChain>("historyChain")
                ->accessibleName()
                .contains(QStringLiteral("Brush, white")));
    QVERIFY(state("chain_jet_feed").state != CleanState::Clean);
    click("record.light");
    QCOMPARE(assessment().marksOf("chain_jet")->clean, Mark::Proven);
    QCOMPARE(state("chain_jet_feed").state, CleanState::Clean);
    QVERIFY(!build().events.back().by.empty() && !build().events.back().at.empty());
    click("record.blocked");
    QCOMPARE(assessment().marksOf("chain_jet")->clean, Mark::Hold);
}

void TestPassageBench::machining_isRecordedAndUndone()
{
    bench();
    takePassage("main_1_feed");
    const Build before = build();
    const int holds = assessment().holds();
    choose(inPanel<QComboBox>(QStringLiteral("event.what")),
           QStringLiteral("Mains line-bored or honed"));
    QVERIFY(!inPanel<QComboBox>(QStringLiteral("event.on"))); // the job says where
    clickInPanel("event.record");
    QCOMPARE(state("main_1_feed").state, CleanState::Dirty);
    QVERIFY(assessment().holds() > holds + 5);
    m_window->openBuild().undoStack().undo();
    QVERIFY(build() == before);
    QCOMPARE(assessment().holds(), holds);
    m_window->openBuild().undoStack().redo();
    QCOMPARE(state("main_1_feed").state, CleanState::Dirty);
}

void TestPassageBench::storage_takesItsDays()
{
    bench();
    takePassage("main_gallery");
    choose(inPanel<QComboBox>(QStringLiteral("event.what")), QStringLiteral("Stored, open"));
    choose(inPanel<QComboBox>(QStringLiteral("event.on")), QStringLiteral("all of the block"));
    type(inPanel<QuantityField>(QStringLiteral("event.days")), QStringLiteral("9"));
    clickInPanel("event.record");
    QCOMPARE(build().events.back().scope, std::string("part"));
    QCOMPARE(build().events.back().days, 9.0);
    QCOMPARE(state("main_2_feed").state, CleanState::Aged);
    QVERIFY(said(state("main_2_feed").reason).find("9 days") != std::string::npos);
}

void TestPassageBench::event_isTakenBack()
{
    bench();
    takePassage("chain_jet_feed");
    click("record.white");
    const size_t events = build().events.size();
    clickInPanel("event.takeBack");
    QCOMPARE(build().events.size(), events + 1); // kept, struck
    QVERIFY(build().events.back().takenBack);
    QVERIFY(state("chain_jet_feed").missing.front().find("white") != std::string::npos);
}

void TestPassageBench::passage_isRenamedResizedAndCut()
{
    bench();
    takePassage("main_gallery");
    auto *name = inPanel<QLineEdit>(QStringLiteral("passage.name"));
    QVERIFY(name);
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, QStringLiteral("Long gallery"));
    QTest::keyClick(name, Qt::Key_Return);
    QCOMPARE(findPassage(build().passages, "main_gallery")->name, std::string("Long gallery"));
    type(inPanel<QuantityField>(QStringLiteral("passage.d")), QStringLiteral("0.5 in"));
    QCOMPARE(findPassage(build().passages, "main_gallery")->d_mm, 12.7);
    const size_t chain = state("main_gallery").chain.size();
    type(inPanel<QuantityField>(QStringLiteral("passage.cut")), QStringLiteral("250"));
    QVERIFY(findPassage(build().passages, "main_gallery_far"));
    QCOMPARE(state("main_gallery_far").chain.size(), chain);
    QVERIFY(map().middleOf("main_gallery_far").x() > map().middleOf("main_gallery").x());
    m_window->openBuild().undoStack().undo();
    QVERIFY(!findPassage(build().passages, "main_gallery_far"));
}

void TestPassageBench::drillingAndPlugs_areAddedAndTakenOut()
{
    bench();
    takePassage("chain_jet_feed");
    const size_t passages = build().passages.size();
    type(inPanel<QuantityField>(QStringLiteral("passage.branch")), QStringLiteral("15"));
    QCOMPARE(build().passages.size(), passages + 1);
    const std::string branch = build().passages.back().id;
    QCOMPARE(build().passages.back().ends[0].at_mm, 15.0);
    takePassage(branch.c_str());
    choose(inPanel<QComboBox>(QStringLiteral("passage.end1")), QStringLiteral("has a plug"));
    QCOMPARE(build().plugs.back().passage, branch);
    QCOMPARE(build().passages.back().ends[1].kind, std::string("plug"));
    type(inPanel<QuantityField>(QStringLiteral("passage.hidden")), QStringLiteral("30"));
    QVERIFY(build().plugs.back().hidden());
    type(inPanel<QuantityField>(QStringLiteral("passage.restrict")), QStringLiteral("10"));
    QCOMPARE(build().passages.back().restrictors.size(), size_t(1));
    type(inPanel<QuantityField>(QStringLiteral("passage.end0.at")), QStringLiteral("20"));
    QCOMPARE(build().passages.back().ends[0].at_mm, 20.0);
    type(inPanel<QuantityField>(QStringLiteral("passage.end0.at")), QStringLiteral("400"));
    QCOMPARE(build().passages.back().ends[0].at_mm, 20.0); // beyond the other's end
    clickInPanel("passage.drop");
    QCOMPARE(build().passages.size(), passages);
    // What has a history, or is joined, is not offered for taking out.
    takePassage("main_gallery");
    QVERIFY(!inPanel<QPushButton>(QStringLiteral("passage.drop")));
}

void TestPassageBench::entry_isDatedByHand()
{
    bench();
    takePassage("main_gallery");
    choose(inPanel<QComboBox>(QStringLiteral("event.what")),
           QStringLiteral("Mains line-bored or honed"));
    auto *when = inPanel<QLineEdit>(QStringLiteral("event.when"));
    const auto say = [&](const char *text) {
        when->setFocus();
        when->selectAll();
        QTest::keyClicks(when, QString::fromLatin1(text));
        QTest::keyClick(when, Qt::Key_Return);
        QApplication::processEvents();
    };
    say("next week");
    say("2026-03-01");
    clickInPanel("event.record");
    // Before the brush of the tenth: that proof still stands.
    QVERIFY(build().events.back().dated);
    QCOMPARE(build().events.back().at, std::string("2026-03-01T12:00"));
    QCOMPARE(state("main_gallery").state, CleanState::Clean);
}

void TestPassageBench::badSize_isRefusedBesideTheField()
{
    bench();
    takePassage("main_gallery");
    const double before = findPassage(build().passages, "main_gallery")->l_mm;
    type(inPanel<QuantityField>(QStringLiteral("passage.l")), QStringLiteral("20"));
    QCOMPARE(findPassage(build().passages, "main_gallery")->l_mm, before); // others join it beyond
    type(inPanel<QuantityField>(QStringLiteral("passage.cut")), QStringLiteral("125"));
    QVERIFY(!findPassage(build().passages, "main_gallery_far")); // something meets it there
}

void TestPassageBench::pluggedHole_isLedgeredToSeen()
{
    bench(1);
    auto *rows = find<RowList>("plugRows");
    int inner = -1;
    for (size_t i = 0; i < build().plugs.size(); ++i)
        if (build().plugs[i].hidden())
            inner = static_cast<int>(i);
    clickAt(rows, QPointF(60, RowList::rowHeight * (inner + 0.5)));
    QCOMPARE(title(), QStringLiteral("Plug P5"));
    QVERIFY(assessment().checks.find("plugin@lifter_gallery_rear_inner")->isOpen());
    QVERIFY(!find<QPushButton>("plug.seen")->isEnabled()); // it is out: nobody can have seen it in
    find<QLineEdit>("plugWord")->setText(QStringLiteral("thread paste"));
    const size_t entries = build().events.size();
    click("plug.in"); // the outer one is in: draw it first
    QCOMPARE(build().events.size(), entries);
    int outer = -1;
    for (size_t i = 0; i < build().plugs.size(); ++i)
        if (build().plugs[i].id == build().plugs[static_cast<size_t>(inner)].behind)
            outer = static_cast<int>(i);
    clickAt(rows, QPointF(60, RowList::rowHeight * (outer + 0.5)));
    click("plug.out");
    clickAt(rows, QPointF(60, RowList::rowHeight * (inner + 0.5)));
    find<QLineEdit>("plugWord")->setText(QStringLiteral("thread paste"));
    click("plug.in");
    QCOMPARE(build().events.back().note, std::string("thread paste"));
    const auto seen
        = [&] { return assessment().checks.find("plugseen@lifter_gallery_rear_inner")->evident; };
    QCOMPARE(seen(), Evident::None);
    click("plug.seen");
    QVERIFY(seen() != Evident::None);
    QVERIFY(
        rows->rows()[static_cast<size_t>(inner)].cells.back().contains(QStringLiteral("seen by")));
    click("plug.out");
    QCOMPARE(seen(), Evident::No);
}

void TestPassageBench::leavingAPlug_asksWhy()
{
    bench(1);
    const size_t events = build().events.size();
    click("plug.left");
    QCOMPARE(build().events.size(), events);
    QVERIFY(find<QLabel>("plugRefusal")->text().contains(QStringLiteral("why")));
    find<QLineEdit>("plugWord")->setText(QStringLiteral("fully visible, far from machining"));
    click("plug.left");
    QCOMPARE(build().events.back().kind, std::string("plug_left"));
    QVERIFY(!find<QLabel>("plugRefusal")->isVisible());
}

void TestPassageBench::plugOnTheMap_opensItsLedger()
{
    bench();
    takePassage("lifter_gallery");
    clickAt(&map(), map().placeOf("lifter_gallery_rear_inner"));
    QCOMPARE(title(), QStringLiteral("Plug P5"));
    const PanelContent panel = m_window->currentBench()->panel();
    const bool caution = std::any_of(panel.begin(), panel.end(), [](const PanelItem &i) {
        const auto *t = std::get_if<PanelText>(&i);
        return t && t->text.contains(QStringLiteral("Never heat metal wet"));
    });
    QVERIFY(caution);
}

void TestPassageBench::school_isRecordedAndDrawsMore()
{
    bench();
    takePassage("main_gallery");
    auto *list = find<PlanList>("planList");
    const size_t fewest = list->plan().draw.size();
    choose(inPanel<QComboBox>(QStringLiteral("plan.school")),
           QStringLiteral("all that may come out"));
    QVERIFY(list->plan().draw.size() > fewest);
    QCOMPARE(choiceOf(build(), "plugs_drawn"), std::string("all"));
    QVERIFY(!build().choices.back().by.empty());
}

void TestPassageBench::find_isToldAndSettled()
{
    bench(2);
    const int holds = assessment().holds();
    choose(find<QComboBox>("find.where"), QStringLiteral("Filter"));
    choose(find<QComboBox>("find.size"), QStringLiteral("flake"));
    choose(find<QComboBox>("find.colour"), QStringLiteral("copper"));
    choose(find<QComboBox>("find.magnetic"), QStringLiteral("no"));
    QVERIFY(find<QLabel>("find.guess")->text().contains(QStringLiteral("copper underlayer")));
    click("find.record");
    const int found = assessment().holds();
    QVERIFY(found > holds); // the find, and what it lay in
    QCOMPARE(build().finds.back().stop, std::string("filter"));
    click("find.settle"); // without a word it is not settled
    QVERIFY(!find<QLabel>("find.refusal")->text().isEmpty());
    QCOMPARE(assessment().holds(), found);
    find<QLineEdit>("find.settled")->setText(QStringLiteral("big-end 2 renewed"));
    click("find.settle");
    QCOMPARE(assessment().holds(), found - 1); // what it lay in has to be cleaned yet
    // Nothing said, nothing recorded.
    const size_t finds = build().finds.size();
    click("find.record");
    QCOMPARE(build().finds.size(), finds);
}

void TestPassageBench::sign_isSetAndUndone()
{
    bench(2);
    const int holds = assessment().holds();
    auto *box = find<QComboBox>("sign.main_2.main_worn");
    choose(box, QStringLiteral("there"));
    QCOMPARE(assessment().holds(), holds + 1);
    choose(box, QStringLiteral("not there"));
    QCOMPARE(assessment().holds(), holds);
    choose(box, QStringLiteral("not looked"));
    QVERIFY(!standingSign(build().signs, "main_2", "main_worn"));
    m_window->openBuild().undoStack().undo();
    m_window->openBuild().undoStack().undo();
    QApplication::processEvents();
    QCOMPARE(assessment().holds(), holds + 1);
    QCOMPARE(find<QComboBox>("sign.main_2.main_worn")->currentText(), QStringLiteral("there"));
}

void TestPassageBench::photo_isKeptBesideTheBuildAndMissedWhenGone()
{
    QTemporaryDir folder;
    bench(2);
    auto *page = find<FoundPage>("foundPage");
    const QString shot = folder.filePath(QStringLiteral("shot.png"));
    QImage(40, 30, QImage::Format_RGB32).save(shot);
    QVERIFY(page->addPhoto(shot).contains(QStringLiteral("Choose"))); // no find in hand
    clickAt(find<RowList>("findRows"), QPointF(60, 10));
    QVERIFY(m_window->saveTo(folder.filePath(QStringLiteral("one.mildpath"))));
    QCOMPARE(page->addPhoto(shot), QString());
    const std::string name = build().finds.back().photos.front();
    auto *strip = find<PhotoStrip>("photoStrip");
    QCOMPARE(strip->stateOf(name), PhotoStrip::State::There);
    // Another name for the build: the photo goes along.
    QVERIFY(m_window->saveTo(folder.filePath(QStringLiteral("two.mildpath"))));
    const QString kept = folder.filePath(QStringLiteral("two.files/") + qs(name));
    QVERIFY(QFile::exists(kept));
    QFile file(kept);
    QVERIFY(file.open(QIODevice::Append));
    file.write("x");
    file.close();
    QCOMPARE(strip->stateOf(name), PhotoStrip::State::Changed);
    QVERIFY(QFile::remove(kept));
    bench(2);
    QVERIFY(find<PhotoStrip>("photoStrip")->accessibleName().contains(QStringLiteral("missing")));
    const QString text = folder.filePath(QStringLiteral("words.png"));
    QFile words(text);
    QVERIFY(words.open(QIODevice::WriteOnly));
    words.write("no picture");
    words.close();
    QVERIFY(page->addPhoto(text).contains(QStringLiteral("not a picture")));
}

void TestPassageBench::failure_marksPartsAndListsWhatToBuy()
{
    bench(3);
    const int holds = assessment().holds();
    choose(find<QComboBox>("failure.where"), QStringLiteral("Big-end 2"));
    click("failure.record");
    QCOMPARE(assessment().spreads.size(), size_t(1));
    const auto &items = assessment().spreads.front().items;
    const int failed = assessment().holds();
    QVERIFY(failed >= holds + static_cast<int>(items.size()));
    QVERIFY(find<QLabel>("failure.summary")
                ->text()
                .contains(QStringLiteral("%1 of %1 parts").arg(items.size())));
    auto *way = find<SpreadWay>("spreadWay");
    int filter = -1;
    for (size_t i = 0; i < items.size(); ++i)
        if (items[i].id == "filter")
            filter = static_cast<int>(i);
    clickAt(way, way->stationArea(filter).center());
    QCOMPARE(title(), QStringLiteral("Filter"));
    clickInPanel("repair.replaced");
    QCOMPARE(assessment().holds(), failed - 1);
    click("shopping.copy");
    const QString list = QApplication::clipboard()->text();
    QVERIFY(list.contains(QStringLiteral("Main bearing half shells")));
    QVERIFY(!list.contains(QStringLiteral("Filter"))); // bought
    clickInPanel("failure.takeBack");
    QCOMPARE(assessment().holds(), holds);
}

void TestPassageBench::againstTheRule_wantsAReason()
{
    bench(3);
    choose(find<QComboBox>("failure.where"), QStringLiteral("Main 2"));
    click("failure.record");
    auto *way = find<SpreadWay>("spreadWay");
    const auto place = [&] {
        const auto &items = assessment().spreads.front().items;
        for (size_t i = 0; i < items.size(); ++i)
            if (items[i].id == "filter")
                return static_cast<int>(i);
        return -1;
    };
    clickAt(way, way->stationArea(place()).center());
    clickInPanel("repair.flushed");
    const auto mark
        = [&] { return assessment().spreads.front().items[static_cast<size_t>(place())].mark; };
    QCOMPARE(mark(), Mark::Hold);
    auto *note = inPanel<QLineEdit>(QStringLiteral("repair.note"));
    note->setFocus();
    note->setText(QString());
    QTest::keyClicks(note, QStringLiteral("no other to be had"));
    QTest::keyClick(note, Qt::Key_Return);
    clickInPanel("repair.flushed");
    QCOMPARE(mark(), Mark::LookAgain);
}

void TestPassageBench::shopJob_goesOntoTheSheetAndComesBack()
{
    bench(4);
    choose(find<QComboBox>("shop.job"), QStringLiteral("Mains line-bored or honed"));
    find<QLineEdit>("shop.note")->setText(QStringLiteral("to size 64.000"));
    click("shop.add");
    auto *sheet = find<QTextBrowser>("shopSheet");
    QVERIFY(sheet->toPlainText().contains(QStringLiteral("to size 64.000")));
    QVERIFY(sheet->toPlainText().contains(QStringLiteral("Main 3 feed")));
    QVERIFY(sheet->toPlainText().contains(QStringLiteral("hidden behind P4")));
    QCOMPARE(state("main_3_feed").state, CleanState::Clean);
    click("shop.back");
    QCOMPARE(state("main_3_feed").state, CleanState::Dirty);
    QVERIFY(
        !find<QTextBrowser>("shopSheet")->toPlainText().contains(QStringLiteral("to size 64.000")));
    // What says nothing is refused.
    choose(find<QComboBox>("shop.job"), QStringLiteral("Something else"));
    const size_t jobs = build().shopJobs.size();
    click("shop.add");
    QCOMPARE(build().shopJobs.size(), jobs);
    QVERIFY(!find<QLabel>("shop.refusal")->text().isEmpty());
}

void TestPassageBench::sheet_isAPdfOfVectors()
{
    QTemporaryDir folder;
    bench(4);
    click("shop.add");
    const QString path = folder.filePath(QStringLiteral("sheet.pdf"));
    QVERIFY(find<ShopPage>("shopPage")->saveSheet(path));
    QFile file(path);
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QByteArray pdf = file.readAll();
    QVERIFY(pdf.startsWith("%PDF"));
    QVERIFY(pdf.size() > 8000);
    QVERIFY(!pdf.contains("/Subtype /Image")); // drawn, not photographed
    // At a size one can read this much takes two pages of A4.
    const auto pages = pdf.count("/Type /Page") - pdf.count("/Type /Pages");
    QVERIFY2(pages == 2, qPrintable(QString::number(pages)));
    const auto no
        = find<ShopPage>("shopPage")->saveSheet(folder.filePath(QStringLiteral("no/x.pdf")));
    QVERIFY(!no && !no.error().message.empty());
}

void TestPassageBench::emptyBuild_offersTheUsualPassages()
{
    Build bare = build();
    bare.passages.clear();
    bare.plugs.clear();
    bare.events.clear();
    m_window->openNew(bare);
    bench();
    clickInPanel("drawPassages");
    QVERIFY(build().passages.size() > 30);
    click("part.block");
    QVERIFY(map().middleOf("main_gallery").x() > 0);
    m_window->openBuild().undoStack().undo();
    QVERIFY(build().passages.empty());
}

void TestPassageBench::everything_survivesSavingAndReopening()
{
    QTemporaryDir folder;
    bench();
    takePassage("chain_jet_feed");
    click("record.white");
    bench(3);
    click("failure.record");
    bench(4);
    click("shop.add");
    const Build before = build();
    const QString path = folder.filePath(QStringLiteral("kept.mildpath"));
    QVERIFY(m_window->saveTo(path));
    QVERIFY(m_window->openFile(path));
    QVERIFY(build() == before);
    QCOMPARE(assessment().spreads.size(), size_t(1));
}

void TestPassageBench::hiddenMap_outlivesItsDocument()
{
    bench();
    takePassage("main_gallery");
    m_window->showBench(Place::Route);
    QVERIFY(m_window->openTemplate(QStringLiteral("single-air-cooled"))); // fewer passages
    m_window->resize(1180, 760);
    QApplication::processEvents();
    bench();
    QVERIFY(map().middleOf("main_gallery").x() > 0 || map().part() != "block");
    QVERIFY(!m_window->grab().isNull());
    for (const Passage &p : build().passages)
        if (p.part == map().part())
            QVERIFY2(map().middleOf(p.id).x() >= 0, p.id.c_str());
}

} // namespace tst_passagebench

MILDPATH_TEST(tst_passagebench, TestPassageBench)
#include "tst_passagebench.moc"
