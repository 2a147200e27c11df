// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/journal.h"
#include "testing.h"

#include <QTemporaryDir>

#include <csignal>
#include <fstream>
#include <sys/wait.h>
#include <unistd.h>

using namespace mildpath;

namespace tst_journal {

class TestJournal : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void killedProcess_losesNoStoredEdit();
    void halfWrittenLine_isLeftOut();
    void runningProgramsJournal_isNotOffered();
    void savedWork_leavesNothing();
    void undoneEdits_stayUndone();
    void recoveredWork_isOfferedAgain();
    void nonsense_isSkipped();

private:
    static Edit reading(double um)
    {
        Reading r;
        r.id = "x";
        r.stop = "main_1";
        r.value_um = um;
        return EnterReading { r };
    }
    static Build start() { return loadTemplate("inline-four-wet-sump")->build; }
};

void TestJournal::killedProcess_losesNoStoredEdit()
{
    QTemporaryDir folder;
    const std::string path = folder.path().toStdString();
    const pid_t child = fork();
    if (child == 0) {
        auto journal = Journal::start(path, start(), "/somewhere/x.mildpath");
        static_cast<void>(journal->append(reading(50)));
        static_cast<void>(journal->append(SetUse { "hot_oil_c", 95 }));
        static_cast<void>(journal->append(reading(58)));
        ::raise(SIGKILL);
    }
    int status = 0;
    QCOMPARE(::waitpid(child, &status, 0), child);
    QVERIFY(WIFSIGNALED(status) && WTERMSIG(status) == SIGKILL);
    const auto found = findRecoveries(path);
    QCOMPARE(found.size(), 1u);
    QCOMPARE(found[0].edits, 3);
    QCOMPARE(found[0].buildPath, std::string("/somewhere/x.mildpath"));
    QCOMPARE(*readingAt(found[0].recovered, gaugePlace("main_1", 1, 90))->value_um, 58.0);
    QCOMPARE(found[0].recovered.use.hotOil_c, 95.0);
}

void TestJournal::halfWrittenLine_isLeftOut()
{
    QTemporaryDir folder;
    std::filesystem::path path;
    {
        auto journal = Journal::start(folder.path().toStdString(), start(), "");
        QVERIFY(journal->append(reading(50)));
        path = journal->path();
    }
    std::ofstream(path, std::ios::app) << R"({"edit":"reading","reading":{"id":"y","sto)";
    const auto found = findRecoveries(folder.path().toStdString());
    QCOMPARE(found.size(), 1u);
    QCOMPARE(found[0].edits, 1);
}

void TestJournal::runningProgramsJournal_isNotOffered()
{
    QTemporaryDir folder;
    auto journal = Journal::start(folder.path().toStdString(), start(), "");
    QVERIFY(journal->append(reading(50)));
    QVERIFY(findRecoveries(folder.path().toStdString()).empty());
}

void TestJournal::savedWork_leavesNothing()
{
    QTemporaryDir folder;
    {
        auto journal = Journal::start(folder.path().toStdString(), start(), "");
        QVERIFY(journal->append(reading(50)));
        journal->discard();
    }
    QVERIFY(std::filesystem::is_empty(folder.path().toStdString()));
}

void TestJournal::undoneEdits_stayUndone()
{
    QTemporaryDir folder;
    {
        auto journal = Journal::start(folder.path().toStdString(), start(), "");
        QVERIFY(journal->append(reading(50)));
        QVERIFY(journal->append(reading(60)));
        QVERIFY(journal->appendUndo());
        QVERIFY(journal->appendUndo());
        QVERIFY(journal->appendRedo());
    }
    const auto found = findRecoveries(folder.path().toStdString());
    QCOMPARE(found.size(), 1u);
    QCOMPARE(*readingAt(found[0].recovered, gaugePlace("main_1", 1, 90))->value_um, 50.0);
}

void TestJournal::recoveredWork_isOfferedAgain()
{
    QTemporaryDir folder;
    {
        auto journal = Journal::start(folder.path().toStdString(), start(), "", true);
    }
    QCOMPARE(findRecoveries(folder.path().toStdString()).size(), 1u);
    {
        auto journal = Journal::start(folder.path().toStdString() + "/b", start(), "", false);
    }
    QVERIFY(findRecoveries(folder.path().toStdString() + "/b").empty());
}

void TestJournal::nonsense_isSkipped()
{
    QTemporaryDir folder;
    std::ofstream((folder.path() + QStringLiteral("/a.journal")).toStdString())
        << "not a journal\n";
    std::ofstream((folder.path() + QStringLiteral("/b.journal")).toStdString()) << "";
    QVERIFY(findRecoveries(folder.path().toStdString()).empty());
    QVERIFY(findRecoveries("/nonexistent").empty());
}

} // namespace tst_journal

MILDPATH_TEST(tst_journal, TestJournal)
#include "tst_journal.moc"
