// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/journal.h"
#include "testing.h"

#include <QTemporaryDir>

#include <memory>
#include <random>
#include <sys/resource.h>

#include <csignal>
#include <fstream>
#include <sys/wait.h>
#include <unistd.h>

using namespace mildpath;

namespace tst_journal {

namespace {

/// Nothing the process writes grows past so many bytes while it lasts: a full disk, for anybody.
class FullDisk
{
public:
    explicit FullDisk(rlim_t bytes)
    {
        ::getrlimit(RLIMIT_FSIZE, &m_before);
        const rlimit now { bytes, m_before.rlim_max };
        ::signal(SIGXFSZ, SIG_IGN);
        ::setrlimit(RLIMIT_FSIZE, &now);
    }
    ~FullDisk() { ::setrlimit(RLIMIT_FSIZE, &m_before); }
    FullDisk(const FullDisk &) = delete;
    FullDisk &operator=(const FullDisk &) = delete;

private:
    rlimit m_before {};
};

Edit reading(double um)
{
    Reading r;
    r.id = "x";
    r.stop = "main_1";
    r.value_um = um;
    return EnterReading { r };
}

Build start()
{
    return loadTemplate("inline-four-wet-sump")->build;
}

/// A program at work: document, undo stack and journal together, as the application drives them.
struct Program
{
    Journal journal;
    std::vector<Build> states;
    size_t at = 0;

    Program(const std::string &folder, Build base, const std::string &path, bool unsaved = false)
        : journal(Journal::start(folder, base, path, unsaved).value())
        , states { std::move(base) }
    {
    }
    const Build &build() const { return states[at]; }
    Result<void> edit(const Edit &edit)
    {
        states.resize(at + 1);
        states.push_back(applyEdit(states[at], edit).value());
        ++at;
        return journal.append(edit, build());
    }
    Result<void> undo()
    {
        --at;
        return journal.appendUndo(build());
    }
    Result<void> redo()
    {
        ++at;
        return journal.appendRedo(build());
    }
};

double main1(const Build &build)
{
    const Reading *r = readingAt(build, gaugePlace("main_1", 1, 90));
    return r && r->value_um ? *r->value_um : 0;
}

} // namespace

class TestJournal : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void init() { m_folder = std::make_unique<QTemporaryDir>(); }
    void killedProcess_losesNoStoredEdit();
    void halfWrittenLine_isLeftOut();
    void runningProgramsJournal_isNotOffered();
    void savedWork_leavesNothing();
    void undoneEdits_stayUndone();
    void undoPastASave_isRecoveredAsTheScreenShowedIt();
    void anyWayToAndFro_isRecoveredAsTheScreenShowedIt();
    void recoveredWork_isOfferedAgain();
    void damagedLine_losesItselfAlone();
    void damagedOrNewerBeginning_isSaidAndKept();
    void fullDisk_losesNothingThatCameBefore();
    void newerSavedWork_isSaidToBeNewer();
    void workThatIsInItsFile_isNotOffered();
    void editsMadeAsOne_comeBackAsOne();
    void editThatMakesNoSense_leavesTheOthers();
    void folder_isItsOwnersAlone();

private:
    std::string folder() const { return m_folder->path().toStdString(); }
    FoundJournals found() const { return findRecoveries(folder()); }
    std::unique_ptr<QTemporaryDir> m_folder;
};

void TestJournal::killedProcess_losesNoStoredEdit()
{
    const std::string path = folder();
    const pid_t child = fork();
    if (child == 0) {
        Program p(path, start(), "/somewhere/x.mildpath");
        static_cast<void>(p.edit(reading(50)));
        static_cast<void>(p.edit(SetUse { "hot_oil_c", 95 }));
        static_cast<void>(p.edit(reading(58)));
        ::raise(SIGKILL);
    }
    int status = 0;
    QCOMPARE(::waitpid(child, &status, 0), child);
    QVERIFY(WIFSIGNALED(status) && WTERMSIG(status) == SIGKILL);
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u);
    QCOMPARE(all[0].edits.size(), 3u);
    QCOMPARE(all[0].buildPath, std::string("/somewhere/x.mildpath"));
    QVERIFY(all[0].file == Recovery::File::Missing);
    QCOMPARE(all[0].at.size(), std::string("2026-03-12T14:05:09").size());
    QCOMPARE(main1(all[0].recovered), 58.0);
    QCOMPARE(all[0].recovered.use.hotOil_c, 95.0);
    QCOMPARE(main1(recoveredUpTo(all[0], 2)), 50.0);
}

void TestJournal::halfWrittenLine_isLeftOut()
{
    std::filesystem::path path;
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        path = p.journal.path();
    }
    std::ofstream(path, std::ios::app) << R"({"edit":"reading","reading":{"id":"y","sto)";
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u);
    QCOMPARE(all[0].edits.size(), 1u);
    QCOMPARE(all[0].unreadable, 0); // nobody had finished typing it
}

void TestJournal::runningProgramsJournal_isNotOffered()
{
    Program p(folder(), start(), "");
    QVERIFY(p.edit(reading(50)));
    QVERIFY(found().recoveries.empty());
}

void TestJournal::savedWork_leavesNothing()
{
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        p.journal.discard();
    }
    QVERIFY(std::filesystem::is_empty(folder()));
}

void TestJournal::undoneEdits_stayUndone()
{
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        QVERIFY(p.edit(reading(60)));
        QVERIFY(p.undo());
        QVERIFY(p.undo());
        QVERIFY(p.redo());
    }
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u);
    QCOMPARE(main1(all[0].recovered), 50.0);
}

void TestJournal::undoPastASave_isRecoveredAsTheScreenShowedIt()
{
    {
        Program p(folder(), start(), "");
        for (const double um : { 41.1, 42.2, 43.3 })
            QVERIFY(p.edit(reading(um)));
        // Saved: a new journal begins with what was saved, the undo stack goes on.
        p.journal.discard();
        p.journal = Journal::start(folder(), p.build(), "").value();
        QVERIFY(p.undo());
        QVERIFY(p.undo());
        QVERIFY(p.edit(reading(44.4)));
    }
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u);
    std::vector<double> entered;
    for (const Reading &r : all[0].recovered.readings)
        entered.push_back(*r.value_um);
    QCOMPARE(entered, (std::vector<double> { 41.1, 44.4 }));
}

void TestJournal::anyWayToAndFro_isRecoveredAsTheScreenShowedIt()
{
    std::mt19937 random(20260312);
    for (int way = 0; way < 12; ++way) {
        init();
        Build shown;
        {
            Program p(folder(), start(), "", true);
            for (int step = 0; step < 25; ++step) {
                const auto what = random() % 5;
                if (what == 0 && p.at > 0)
                    QVERIFY(p.undo());
                else if (what == 1 && p.at + 1 < p.states.size())
                    QVERIFY(p.redo());
                else if (what == 2 && step % 4 == 0)
                    p.journal = Journal::start(folder(), p.build(), "", true).value();
                else
                    QVERIFY(p.edit(reading(40 + step)));
            }
            shown = p.build();
        }
        const auto all = found().recoveries;
        QVERIFY(std::any_of(all.begin(), all.end(),
                            [&](const Recovery &r) { return r.recovered == shown; }));
    }
}

void TestJournal::recoveredWork_isOfferedAgain()
{
    {
        Program p(folder(), start(), "", true);
    }
    QCOMPARE(found().recoveries.size(), 1u);
    init();
    {
        Program p(folder(), start(), "", false);
    }
    QVERIFY(found().recoveries.empty());
    QVERIFY(std::filesystem::is_empty(folder())); // nothing in it: cleared away
}

void TestJournal::damagedLine_losesItselfAlone()
{
    std::filesystem::path path;
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        QVERIFY(p.edit(SetUse { "hot_oil_c", 95 }));
        QVERIFY(p.edit(SetUse { "hot_idle_rpm", 850 }));
        path = p.journal.path();
    }
    std::string text = readTextFile(path).value();
    text[text.rfind("hot_oil_c")] = '"';
    std::ofstream(path, std::ios::trunc) << text;
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u);
    QCOMPARE(all[0].unreadable, 1);
    QCOMPARE(main1(all[0].recovered), 50.0);
    QCOMPARE(all[0].recovered.use.hotIdle_rpm, 850.0);
    QCOMPARE(all[0].recovered.use.hotOil_c, start().use.hotOil_c);
}

void TestJournal::damagedOrNewerBeginning_isSaidAndKept()
{
    const auto journal = [this](const char *name) { return folder() + "/" + name; };
    std::ofstream(journal("a.journal")) << "not a journal\n";
    std::ofstream(journal("b.journal")) << "";
    std::filesystem::path newer;
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        newer = p.journal.path();
    }
    std::string text = readTextFile(newer).value();
    const std::string now = "\"version\":" + std::to_string(buildVersion);
    text.replace(text.find(now), now.size(), "\"version\":99");
    std::ofstream(newer, std::ios::trunc) << text;
    const FoundJournals all = found();
    QVERIFY(all.recoveries.empty());
    QCOMPARE(all.lost.size(), 2u); // the empty one holds nothing
    QVERIFY(said(all.lost[0].reason).find("first line is damaged") != std::string::npos);
    QVERIFY(said(all.lost[1].reason).find("Use a newer one") != std::string::npos);
    QVERIFY(std::filesystem::exists(newer));
    QVERIFY(findRecoveries("/nonexistent").recoveries.empty());
}

void TestJournal::fullDisk_losesNothingThatCameBefore()
{
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        const auto size = std::filesystem::file_size(p.journal.path());
        {
            const FullDisk full(size + 20); // half a line
            QVERIFY(!p.edit(reading(60)));
            QVERIFY(p.journal.isBehind());
            QVERIFY(!p.edit(reading(61)));
            QCOMPARE(std::filesystem::file_size(p.journal.path()), size);
        }
        {
            const FullDisk full(1000);
            QVERIFY(!Journal::start(folder(), start(), ""));
        }
        // There is room again: what was not written before is kept with the next edit.
        QVERIFY(p.edit(SetUse { "hot_oil_c", 95 }));
        QVERIFY(!p.journal.isBehind());
        QVERIFY(p.undo());
    }
    const auto all = found().recoveries;
    QCOMPARE(all.size(), 1u); // the one that could not be begun left nothing
    QCOMPARE(main1(all[0].recovered), 61.0);
    QCOMPARE(all[0].recovered.use.hotOil_c, start().use.hotOil_c);
}

void TestJournal::newerSavedWork_isSaidToBeNewer()
{
    const std::string file = folder() + "/x.mildpath";
    QVERIFY(saveBuild(file, start()));
    {
        Program p(folder(), start(), file);
        QVERIFY(p.edit(reading(50)));
    }
    QVERIFY(found().recoveries.at(0).file == Recovery::File::Same);
    Build later = applyEdit(start(), SetUse { "hot_oil_c", 95 }).value();
    QVERIFY(saveBuild(file, later));
    QVERIFY(found().recoveries.at(0).file == Recovery::File::Changed);
    std::filesystem::remove(file);
    QVERIFY(found().recoveries.at(0).file == Recovery::File::Missing);
}

void TestJournal::workThatIsInItsFile_isNotOffered()
{
    const std::string file = folder() + "/x.mildpath";
    {
        Program p(folder(), start(), file);
        QVERIFY(p.edit(reading(50)));
        QVERIFY(saveBuild(file, p.build())); // killed between the save and the new journal
    }
    QVERIFY(found().recoveries.empty());
}

void TestJournal::editsMadeAsOne_comeBackAsOne()
{
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(EditAll { "two", { reading(50), SetUse { "hot_oil_c", 95 } } }));
    }
    const auto all = found().recoveries;
    QCOMPARE(all.at(0).edits.size(), 1u);
    QCOMPARE(said(describeEdit(start(), all[0].edits[0])), std::string("two"));
    QCOMPARE(main1(all[0].recovered), 50.0);
    QCOMPARE(all[0].recovered.use.hotOil_c, 95.0);
}

void TestJournal::editThatMakesNoSense_leavesTheOthers()
{
    {
        Program p(folder(), start(), "");
        QVERIFY(p.edit(reading(50)));
        QVERIFY(p.journal.append(SetUse { "hot_oil_c", 9000 }, p.build()));
        QVERIFY(p.edit(SetUse { "hot_idle_rpm", 850 }));
    }
    const auto all = found().recoveries;
    QCOMPARE(all.at(0).unreadable, 1);
    QCOMPARE(all[0].edits.size(), 2u);
    QCOMPARE(all[0].recovered.use.hotIdle_rpm, 850.0);
    QCOMPARE(main1(all[0].recovered), 50.0);
}

void TestJournal::folder_isItsOwnersAlone()
{
    const std::string state = folder() + "/state";
    std::filesystem::create_directory(state);
    std::filesystem::permissions(state, std::filesystem::perms(0755));
    Program p(state, start(), "");
    QVERIFY(std::filesystem::status(state).permissions() == std::filesystem::perms(0700));
}

} // namespace tst_journal

MILDPATH_TEST(tst_journal, TestJournal)
#include "tst_journal.moc"
