// SPDX-License-Identifier: GPL-3.0-or-later
// A whole job from the first page on, led by F8 alone: what is next is gone to and entered there,
// until the gate of the first start is open.
#include "begin/beginpage.h"
#include "begin/firstquestions.h"
#include "begin/tiles.h"
#include "benchfixture.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "checks/signing.h"
#include "checks/visible.h"
#include "open/questions.h"
#include "plan/workplan.h"
#include "shell/nextcard.h"

#include <QCheckBox>

namespace mildpath {
namespace tst_ledjob {

class TestLedJob : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void cleanup()
    {
        m_window.reset();
        OpenBuild::setClock({});
    }
    void freshenUp_isLedFromTheFirstPageToTheOpenGate();

private:
    void beginJob();
    /// Answers the check F8 led to, at the place where the keyboard is. @return what is wrong
    QString answerHere(const std::string &id);
    void typeReadings(const Check &check);
    QString signHere(const std::string &id);
    NextCard &card() { return m_window->nextCard(); }
    void key(Qt::Key which) { QTest::keyClick(QApplication::focusWidget(), which); }
    /// A button of the panel by the keyboard.
    void pressInPanel(const char *name)
    {
        auto *b = inPanel<QPushButton>(QString::fromLatin1(name));
        QVERIFY2(b, name);
        b->setFocus(Qt::TabFocusReason);
        QTest::keyClick(b, Qt::Key_Space);
        QApplication::processEvents();
    }
    /// Why what was tried is open still.
    QString reasonsOf(const std::set<std::string> &tried)
    {
        QStringList out;
        for (const std::string &id : tried)
            if (const Check *c = document().judgement().checks.find(id); c && c->isOpen())
                out << qs(id) + QStringLiteral(": ") + qs(c->reason);
        return out.join(u'\n');
    }
    bool mayFire() const
    {
        return m_window->openBuild().judgement().checks.gate(CheckGate::Fire).open;
    }

    QDateTime m_now { QDate(2026, 4, 6), QTime(8, 0) };
};

void TestLedJob::beginJob()
{
    m_window = std::make_unique<MainWindow>(QString());
    m_window->begin();
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
    m_window->activateWindow();
    auto *timer = new QTimer(this);
    connect(timer, &QTimer::timeout, this, [timer] {
        auto *ask = qobject_cast<FirstQuestions *>(QApplication::activeModalWidget());
        if (!ask)
            return;
        timer->deleteLater();
        auto *who = ask->findChild<QLineEdit *>(QStringLiteral("first.worker"));
        who->selectAll();
        QTest::keyClicks(who, QStringLiteral("A. Reed"));
        ask->findChild<QCheckBox *>(QStringLiteral("first.job.R"))->click();
        QTest::keyClick(ask->findChild<QPushButton *>(QStringLiteral("first.later")),
                        Qt::Key_Space);
    });
    timer->start(20);
    QTest::keyClick(&m_window->beginPage().tiles(), Qt::Key_Return);
    m_window->activateWindow();
    QVERIFY(QTest::qWaitForWindowActive(m_window.get()));
    // A second pair of eyes, and a ring that is on its way.
    Person second;
    second.name = "B. Lane";
    QVERIFY(document().record(second));
    Order ring;
    ring.row = "own_ring";
    ring.what = "Ring of the pickup";
    for (const Stop &s : build().engine.stops)
        if (s.kind == StopKind::Pickup)
            ring.places = { s.id };
    ring.promised = "2026-04-09";
    QVERIFY(document().record(ring));
}

/// Middle of the limits, at every place the instrument is put to.
void TestLedJob::typeReadings(const Check &check)
{
    auto *cell = qobject_cast<QuantityField *>(QApplication::focusWidget());
    QVERIFY2(cell, check.id().c_str());
    ReadingEntry *entry = nullptr;
    for (QWidget *w = cell; w && !entry; w = w->parentWidget())
        entry = qobject_cast<ReadingEntry *>(w);
    QVERIFY2(entry, check.id().c_str());
    const std::string family = sizeFamilyOf(build(), check);
    const GaugedSize *size
        = assessment().size(check.place.stop, family, std::max(1, check.place.item));
    QVERIFY2(size && size->limits, check.id().c_str());
    const double middle = (size->limits->min_um + size->limits->max_um) / 2;
    if (entry->method() == "two_instruments")
        entry->setMethod("zeroed_bore_gauge");
    // Its cap was drawn down for it; which the card need not know.
    if (auto *cap = entry->findChild<QCheckBox *>(QStringLiteral("capTorqued"));
        cap->isVisible() && !cap->isChecked())
        QTest::keyClick(cap, Qt::Key_Space);
    const size_t positions = entry->positions();
    for (size_t i = 0; i < positions; ++i) {
        QuantityField *field = entry->cell(i);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, QString::number(middle, 'f', 0));
        QTest::keyClick(field, Qt::Key_Return);
    }
    QApplication::processEvents();
}

QString TestLedJob::signHere(const std::string &id)
{
    for (const char *by : { "A. Reed", "B. Lane" }) {
        const Check *c = document().judgement().checks.find(id);
        if (!c->isOpen())
            return {};
        auto signs = signChecks(build(), document().judgement().checks, { id }, by,
                                "looked at together and accepted", "fire");
        if (!signs)
            return qs(signs.error().message);
        for (SignOff s : *signs) {
            s.at = OpenBuild::now();
            if (const auto done = document().record(s); !done)
                return qs(done.error().message);
        }
    }
    return {};
}

QString TestLedJob::answerHere(const std::string &id)
{
    const Check *check = document().judgement().checks.find(id);
    if (takesFigure(*check)) {
        typeReadings(*check);
        return {};
    }
    if (!isAnsweredInList(*check))
        return signHere(id);
    // The keyboard is in the panel, on an answer to this very check.
    QWidget *focus = QApplication::focusWidget();
    if (!focus || !m_window->sidePanel().isAncestorOf(focus))
        return QStringLiteral("the keyboard is elsewhere");
    auto *seen = inPanel<QComboBox>(QStringLiteral("check.seenBy"));
    if (!seen)
        return QStringLiteral("no answer is asked");
    if (seen->currentText() != QStringLiteral("B. Lane"))
        choose(seen, QStringLiteral("B. Lane"));
    auto *means = inPanel<QComboBox>(QStringLiteral("check.means"));
    if (means->currentText() != QStringLiteral("camera"))
        choose(means, QStringLiteral("camera"));
    pressInPanel("check.yes");
    const CheckEntry &last = build().checkEntries.back();
    if (last.kind != check->kind->id || last.by != "A. Reed")
        return QStringLiteral("another check was answered: ") + qs(last.kind);
    return {};
}

void TestLedJob::freshenUp_isLedFromTheFirstPageToTheOpenGate()
{
    OpenBuild::setClock([this] { return m_now; });
    beginJob();
    const auto plan = [&] { return document().answers().ask(ask::plan()); };
    std::set<std::string> tried;
    int answered = 0, asked = 0, waited = 0;
    constexpr int most = 900;
    for (int step = 0; step < most && !mayFire(); ++step) {
        m_now = m_now.addSecs(90);
        QTRY_VERIFY_WITH_TIMEOUT(plan() != nullptr, 60000);
        QApplication::processEvents();
        std::string next = card().check();
        for (int other = 0; other < most && !next.empty() && tried.contains(next); ++other) {
            card().other();
            next = card().check();
        }
        if (next.empty() || tried.contains(next)) {
            // All that is open waits: the night passes.
            QVERIFY2(++waited < 20,
                     qPrintable(card().text() + u' ' + card().why() + u'\n' + reasonsOf(tried)));
            m_now = QDateTime(m_now.date().addDays(1), QTime(8, 0));
            document().followDay();
            continue;
        }
        const Check *c = document().judgement().checks.find(next);
        QVERIFY2(c && c->asked && c->isOpen(), next.c_str());
        tried.insert(next);
        QTest::keyClick(m_window.get(), Qt::Key_F8);
        QApplication::processEvents();
        const QString wrong = answerHere(next);
        QVERIFY2(wrong.isEmpty(), qPrintable(qs(next) + QStringLiteral(": ") + wrong));
        ++answered;
    }
    for (const Check &c : document().judgement().checks.all())
        asked += c.asked;
    QStringList open;
    for (const Check &c : document().judgement().checks.all())
        if (c.asked && c.isOpen() && CheckList::shuts(c) && c.kind->gate() <= CheckGate::Fire)
            open << qs(c.id()) + u' ' + qs(c.reason);
    QVERIFY2(mayFire(), qPrintable(open.join(u'\n')));
    QVERIFY(waited >= 1); // the ring was waited for
    QCOMPARE(document().judgement().checks.count(CheckState::Hold), 0);
    qInfo("%d of %d asked checks answered, %d nights waited", answered, asked, waited);
}

} // namespace tst_ledjob
MILDPATH_TEST(tst_ledjob, TestLedJob)
} // namespace mildpath

#include "tst_ledjob.moc"
