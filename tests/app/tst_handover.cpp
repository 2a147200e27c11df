// SPDX-License-Identifier: GPL-3.0-or-later
// What outlasts a build: looks that become due, checks of one's own, weights with their tolerances;
// by the pages they are entered on.
#include "benchfixture.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "entry/rowlist.h"
#include "quantity/json.h"
#include "storage/files.h"
#include "study/looks.h"
#include "study/weights.h"

#include <QCheckBox>
#include <QTemporaryDir>

#include <algorithm>

namespace mildpath {
namespace tst_handover {

class TestHandover : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { open(); }
    void cleanup()
    {
        m_window.reset();
        OpenBuild::setClock({});
    }
    void look_isSetRunsAndBecomesDue();
    void look_wantsAnInterval();
    void run_wantsAFigure();
    void ownCheck_isAddedAnsweredAndTakenOff();
    void ownCheck_isKeptForTheNextBuild();
    void ownCheck_inACircleIsRefused();
    void weights_areSetInThePanel();
    void sizeWrittenTwice_isAskedAbout();

private:
    const std::vector<LookToCome> looks() const
    {
        return looksToCome(m_window->openBuild().build(), OpenBuild::now().substr(0, 10));
    }
    const Check *own()
    {
        const Check *out = nullptr;
        for (const Check &c : document().judgement().checks.all())
            if (c.kind->id == "own")
                out = &c;
        return out;
    }
    void addOwn(const QString &text)
    {
        typeInPanel(QStringLiteral("own.text"), text);
        clickInPanel("own.keep");
    }
    QString rowText(const char *list, int row)
    {
        return find<RowList>(list)->rows()[static_cast<size_t>(row)].cells.join(u'|');
    }
    QString message() const
    {
        QStringList out;
        for (const QLabel *l : m_window->findChildren<QLabel *>())
            if (l->isVisible())
                out << l->text();
        return out.join(u'\n');
    }

    QDateTime m_now { QDate(2026, 6, 1), QTime(9, 0) };
};

void TestHandover::look_isSetRunsAndBecomesDue()
{
    OpenBuild::setClock([this] { return m_now; });
    QVERIFY(document().pickWorker("J. Moor"));
    m_window->goToCheck("again@engine");
    QApplication::processEvents();
    choose(inPanel<QComboBox>(QStringLiteral("look.usual")),
           QStringLiteral("Oil and filter change"));
    typeInPanel(QStringLiteral("look.hours"), QStringLiteral("20"));
    typeInPanel(QStringLiteral("look.days"), QStringLiteral("180"));
    clickInPanel("look.keep");
    QCOMPARE(build().nextLooks.size(), size_t(1));
    QCOMPARE(build().nextLooks.back().by, std::string("J. Moor"));
    QVERIFY(plainly(rowText("lookRows", 1)).contains(QStringLiteral("20 h or 180 days")));
    QCOMPARE(document().judgement().checks.find("again@engine")->state, CheckState::Proven);
    m_now = m_now.addDays(5);
    typeInPanel(QStringLiteral("ran.hours"), QStringLiteral("21"));
    clickInPanel("ran.note");
    QVERIFY(looks().front().isDue());
    QVERIFY(plainly(rowText("lookRows", 1)).contains(QStringLiteral("due: 21 h of 20 h")));
    QCOMPARE(document().judgement().checks.find("again@engine")->state, CheckState::LookAgain);
    document().undoStack().undo();
    QVERIFY(!looks().front().isDue());
    document().undoStack().redo();
    m_now = m_now.addDays(1);
    clickInPanel("look.done");
    QVERIFY(!looks().front().isDue());
    // Days pass by themselves.
    m_now = m_now.addDays(200);
    document().followDay();
    QApplication::processEvents();
    QCOMPARE(document().judgement().checks.find("again@engine")->state, CheckState::LookAgain);
    // A changed interval runs from when it was set, not from the change.
    const std::string set = build().nextLooks.back().at;
    typeInPanel(QStringLiteral("look.days"), QStringLiteral("300"));
    clickInPanel("look.keep");
    QCOMPARE(build().nextLooks.back().at, set);
    QVERIFY(!looks().front().isDue());
    clickInPanel("look.drop");
    QVERIFY(looks().empty());
}

void TestHandover::look_wantsAnInterval()
{
    page<Bench>("after", "looks");
    typeInPanel(QStringLiteral("look.item"), QStringLiteral("Baffle"));
    clickInPanel("look.keep");
    QVERIFY(build().nextLooks.empty());
    QVERIFY(message().contains(QStringLiteral("after how many hours")));
    typeInPanel(QStringLiteral("look.days"), QStringLiteral("2.5")); // no whole number of days
    clickInPanel("look.keep");
    QVERIFY(build().nextLooks.empty());
}

void TestHandover::run_wantsAFigure()
{
    page<Bench>("after", "looks");
    const size_t before = build().acts.size();
    clickInPanel("ran.note");
    QCOMPARE(build().acts.size(), before);
    QVERIFY(message().contains(QStringLiteral("how long or how far")));
    typeInPanel(QStringLiteral("ran.km"), QStringLiteral("100 mi"));
    typeInPanel(QStringLiteral("ran.trackDays"), QStringLiteral("2"));
    clickInPanel("ran.note");
    QCOMPARE(build().acts.size(), before + 1);
    verifyClose(*build().acts.back().ran_km, 160.9344, 1e-6);
    QCOMPARE(*build().acts.back().trackDays, 2);
}

void TestHandover::ownCheck_isAddedAnsweredAndTakenOff()
{
    page<Bench>("work", "own");
    addOwn(QStringLiteral("Rear seal dish faces the crank"));
    QVERIFY(own());
    QCOMPARE(own()->state, CheckState::NotDone);
    choose(inPanel<QComboBox>(QStringLiteral("own.place")), QStringLiteral("Main 3"));
    choose(inPanel<QComboBox>(QStringLiteral("own.class")), QStringLiteral("never"));
    choose(inPanel<QComboBox>(QStringLiteral("own.after")),
           QStringLiteral("Every bolt at its last stage, in order"));
    auto *tick = inPanel<QCheckBox>(QStringLiteral("own.after.torq"));
    QVERIFY(tick && tick->isChecked());
    clickInPanel("own.keep");
    QCOMPARE(own()->place.stop, std::string("main_3"));
    QVERIFY(own()->cls == CheckClass::Never);
    QCOMPARE(own()->after.size(), size_t(1)); // that of the mains' caps
    clickInPanel("own.go");
    QCOMPARE(m_window->currentBench()->place(), Place::Start);
    choose(inPanel<QComboBox>(QStringLiteral("check.by")), QStringLiteral("J. Moor"));
    clickInPanel("check.yes");
    QCOMPARE(own()->state, CheckState::Proven);
    page<Bench>("work", "own");
    QVERIFY(rowText("ownRows", 1).contains(QStringLiteral("Main 3")));
    clickInPanel("own.takeBack");
    QVERIFY(!own());
    document().undoStack().undo();
    QCOMPARE(own()->state, CheckState::Proven);
}

void TestHandover::ownCheck_isKeptForTheNextBuild()
{
    QTemporaryDir home;
    qputenv("XDG_DATA_HOME", home.path().toUtf8());
    page<Bench>("work", "own");
    QVERIFY(!inPanel<QPushButton>(QStringLiteral("own.template"))); // the demo has none
    QVERIFY(m_window->openTemplate(QStringLiteral("flat-four")));
    QVERIFY(document().pickWorker("J. Moor"));
    page<Bench>("work", "own");
    addOwn(QStringLiteral("Case bolts' O-rings are new"));
    clickInPanel("own.template");
    QVERIFY(panelText().contains(QStringLiteral("Kept")));
    document().giveUp();
    QVERIFY(m_window->openTemplate(QStringLiteral("flat-four")));
    QCOMPARE(build().ownChecks.size(), size_t(1));
    QCOMPARE(build().ownChecks.back().text, std::string("Case bolts' O-rings are new"));
    QVERIFY(message().contains(QStringLiteral("1 check of your own")));
    qunsetenv("XDG_DATA_HOME");
}

void TestHandover::ownCheck_inACircleIsRefused()
{
    page<Bench>("work", "own");
    addOwn(QStringLiteral("First is so"));
    auto *rows = find<RowList>("ownRows");
    clickAt(rows, QPointF(60, 0.5 * RowList::rowHeight)); // another one
    addOwn(QStringLiteral("Second is so"));
    choose(inPanel<QComboBox>(QStringLiteral("own.after")), QStringLiteral("First is so"));
    clickInPanel("own.keep");
    clickAt(rows, QPointF(60, 1.5 * RowList::rowHeight));
    choose(inPanel<QComboBox>(QStringLiteral("own.after")), QStringLiteral("Second is so"));
    const size_t before = build().ownChecks.size();
    clickInPanel("own.keep");
    QCOMPARE(build().ownChecks.size(), before);
    QVERIFY2(message().contains(QStringLiteral("would wait for itself")), qPrintable(message()));
}

void TestHandover::weights_areSetInThePanel()
{
    clearances("parts");
    choose(inPanel<QComboBox>(QStringLiteral("weights.part")),
           QStringLiteral("Piston and rod together"));
    typeInPanel(QStringLiteral("weights.tolerance"), QStringLiteral("1"));
    typeInPanel(QStringLiteral("weights.source"), QStringLiteral("shop"));
    clickInPanel("weights.keep");
    QCOMPARE(build().weighedParts.at("assembly").source, std::string("shop"));
    QCOMPARE(build().weighedParts.at("assembly").pieces.size(), size_t(2));
    auto *field = find<QuantityField>("weight.assembly.2");
    type(field, QStringLiteral("1020.5"));
    type(find<QuantityField>("weight.assembly.1"), QStringLiteral("1019"));
    const QString spread = plainly(find<QLabel>("spread.assembly")->text());
    QVERIFY2(spread.contains(QStringLiteral("allowed"))
                 && spread.contains(QStringLiteral("(shop)")),
             qPrintable(spread));
    typeInPanel(QStringLiteral("weights.tolerance"), QStringLiteral("0")); // refused
    clickInPanel("weights.keep");
    QCOMPARE(*build().weighedParts.at("assembly").tolerance_g, 1.0);
    clickInPanel("weights.drop"); // it was weighed
    QVERIFY(build().weighedParts.contains("assembly"));
    QVERIFY(message().contains(QStringLiteral("were weighed")));
    type(field, QStringLiteral("100000")); // 100 kg
    QCOMPARE(build().weighings.back().grams, 1019.0);
}

void TestHandover::sizeWrittenTwice_isAskedAbout()
{
    Json old = toJson(build());
    old["version"] = 11;
    for (Json &s : old["engine"]["stops"])
        if (s["id"] == "main_3")
            s["journal_mm"] = 58.5;
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("old.mildpath"));
    QVERIFY(writeTextFile(path.toStdString(), old.dump()).has_value());
    QVERIFY(m_window->openFile(path));
    QVERIFY2(message().contains(QStringLiteral("Written twice")), qPrintable(message()));
    QVERIFY(document().pickWorker("J. Moor"));
    m_window->goToCheck("pick@engine");
    QVERIFY(panelText().contains(QStringLiteral("Main 3")));
    auto *right = inPanel<QComboBox>(QStringLiteral("two.main_3"));
    QVERIFY(right);
    QCOMPARE(right->count(), 2);
    const Stop &main = *build().engine.find("main_3");
    verifyClose(journalOf_mm(build(), main), 60, 1e-9);
    choose(right, right->itemText(1));
    verifyClose(journalOf_mm(build(), *build().engine.find("main_3")), 58.5, 1e-9);
    QVERIFY(build().twoValues.empty());
    QVERIFY(!inPanel<QComboBox>(QStringLiteral("two.main_3")));
    document().undoStack().undo();
    QCOMPARE(build().twoValues.size(), size_t(1));
}

} // namespace tst_handover
MILDPATH_TEST(tst_handover, TestHandover)
} // namespace mildpath

#include "tst_handover.moc"
