// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/faults.h"
#include "document/edit.h"
#include "open/answers.h"
#include "storage/files.h"

#include <QDateTime>
#include <QLockFile>
#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>

#include <functional>
#include <memory>
#include <optional>

namespace mildpath {

class Journal;
struct AirReport;
struct Assessment;
struct CleaningBook;
struct FamilySummary;
struct FeedHole;
struct FitVerdict;
struct Forecast;
struct GaugedSize;
struct Judgement;
struct LinesReport;
struct Operating;
struct Spread;

/// Where a document comes from.
struct OpenedFrom
{
    QString path {}; ///< the file it is saved to; empty: none yet
    QString origin {}; ///< file it is an untitled copy of: its photos are shown from there
    std::string olderText {}; ///< of a file of an older version
    std::optional<FileStamp> stamp {}; ///< of the file when it was read
    std::unique_ptr<QLockFile> lock {}; ///< of the path; null: it could not be locked
    bool unsaved = false; ///< the document is in no file yet (recovered work)
    bool readOnly = false; ///< never saved to its path
};

/// The open document: the value, what follows from it, and the way back. The only writer;
/// everything else reads and asks for edits.
class OpenBuild : public QObject
{
    Q_OBJECT
public:
    /// @param stateFolder  where edit journals are kept; empty: no journal (tests, screenshots)
    explicit OpenBuild(QString stateFolder, QObject *parent = nullptr);
    ~OpenBuild() override;

    const Build &build() const { return *m_build; }
    /// The document itself, for whoever needs it as it is now: another one after every change.
    const std::shared_ptr<const Build> &document() const { return m_build; }
    const std::shared_ptr<const Assessment> &sharedAssessment() const { return m_assessment; }
    const Assessment &assessment() const { return *m_assessment; }
    // Its parts, for whoever needs no more than them.
    const std::vector<GaugedSize> &sizes() const;
    const std::vector<FamilySummary> &families() const;
    const std::vector<FeedHole> &feedHoles() const;
    const std::vector<FitVerdict> &fits() const;
    const CleaningBook &cleaning() const;
    const std::vector<Spread> &spreads() const;
    const LinesReport &lines() const;
    const Operating &operating() const;
    const Forecast &forecast() const;
    const AirReport &air() const;
    const Judgement &judgement() const;
    /// What is asked beyond the assessment; open/questions.h lists it.
    Answers &answers() { return m_answers; }
    const Answers &answers() const { return m_answers; }
    /// What it was before the last edit; null right after opening.
    const Assessment *previous() const { return m_previous.get(); }
    QUndoStack &undoStack() { return m_undo; }

    const QString &path() const { return m_from.path; }
    const QString &stateFolder() const { return m_stateFolder; }
    bool isModified() const { return m_from.unsaved || !m_undo.isClean(); }
    bool isReadOnly() const { return m_from.readOnly; }
    /// Where photos and traces stand beside: the file, or the one this is a copy of.
    const QString &besideFile() const
    {
        return m_from.path.isEmpty() ? m_from.origin : m_from.path;
    }
    /// Somebody else has written to the file, or removed it, since it was read or saved.
    bool isChangedOutside() const;

    /// Replaces the document; undo history and journal start anew. Errors: it cannot be assessed;
    /// the open document and its journal stay as they were.
    Result<void> open(Build build, OpenedFrom from);
    /// Takes the lock of a build's file. @return the lock, held or not (a folder nobody may write
    /// to); null: another window or program holds it
    static std::unique_ptr<QLockFile> lockOf(const QString &path);
    /// Whether every edit is kept against a crash.
    bool isJournalled() const { return m_journal && !m_journalFailed; }
    /// Writes to the path; nothing where all is saved already. What stands there is written over:
    /// isChangedOutside() is asked before. Errors: the document and its path stay as they were.
    Result<void> save(const QString &path);
    /// The user gives up what is not saved: nothing to offer at the next start.
    void giveUp();
    /// Makes an edit, undoable and journalled. Errors: nothing changed.
    Result<void> edit(const Edit &edit);

    /// Several edits as one: one step to undo, named so. Errors: none of them was made.
    Result<void> editAll(const QString &name, std::vector<Edit> edits);

    /// Writes an entry into the logbook, with who and when unless it says so itself. @return its id
    Result<std::string> record(LogEntry entry);
    /// Takes an entry of a list (by its key in a file) back.
    Result<void> takeBack(const std::string &log, const std::string &id);

    /// Answers a question practitioners answer differently; who and when with it.
    Result<void> choose(const std::string &question, const std::string &answer);

    const QString &selectedStop() const { return m_selectedStop; }
    void selectStop(const QString &id);
    /// A check that is to be answered: where checks are answered it is chosen.
    void selectCheck(const std::string &id);
    /// Somebody wants to go where a check is answered.
    void wantCheck(const std::string &id) { Q_EMIT checkWanted(id); }
    const std::string &selectedCheck() const { return m_selectedCheck; }

    /// Faults imagined on this engine, for all benches: not part of the document until a scenario
    /// of them is kept.
    const std::vector<Fault> &imagined() const { return m_imagined; }
    /// Errors: as applyFault, for one that cannot happen on this engine; nothing changed.
    Result<void> imagine(std::vector<Fault> faults);
    /// The same, and asks for the map that shows what follows.
    void showImagined(std::vector<Fault> faults);

    /// Who works now: what is entered next carries the name. Where nobody is picked it is asked,
    /// once a day. @return empty: nobody said
    std::string worker();
    /// The same without asking.
    const std::string &pickedWorker() const { return m_worker; }
    /// Whoever is new to this engine becomes one of its people. Errors: as an edit; nobody is
    /// picked then.
    Result<void> pickWorker(const std::string &name);
    /// How a name is asked for; nothing: it is not.
    void setWorkerQuestion(std::function<std::string()> ask) { m_askWorker = std::move(ask); }
    /// What runs just now, in a line: "Priming, 12 s, 1.2 bar"; empty: nothing. Whoever runs it
    /// says so; it stands where what is next stands.
    void setLive(const QString &text)
    {
        if (text == m_live)
            return;
        m_live = text;
        Q_EMIT liveChanged();
    }
    const QString &live() const { return m_live; }
    /// When of the next entry.
    static std::string now();
    /// After all that was entered today: when something proposed would happen.
    static std::string endOfToday() { return now().substr(0, 10) + "T23:59:59"; }
    /// Another clock than the machine's, as for passing a week in a test; none: the machine's
    /// again.
    static void setClock(std::function<QDateTime()> clock);
    /// Judges anew where the day has changed since: proofs age and promised days pass by
    /// themselves. Looked at every minute.
    void followDay();

Q_SIGNALS:
    void workerChanged();
    void liveChanged();
    /// The document changed: by edit, undo, redo, or another was opened.
    void changed();
    void opened();
    void stopSelected(const QString &id);
    void checkSelected();
    void checkWanted(const std::string &id);
    void imaginedChanged();
    void mapWanted(); ///< what is imagined is to be seen
    void titleChanged();
    void journalFailed(const QString &reason); ///< edits are not kept against a crash
    void journalKept(); ///< they are again

private:
    std::string m_worker, m_judgedOn; ///< who works; the day of the assessment
    QTimer m_day;
    QString m_live;
    std::function<std::string()> m_askWorker;
    class EditCommand;
    void setBuild(std::shared_ptr<const Build> build,
                  std::shared_ptr<const Assessment> assessment = {});
    void startJournal();
    template <class Write> void journal(Write write);
    void note(const Result<void> &written);

    QString m_stateFolder;
    std::shared_ptr<const Build> m_build;
    std::shared_ptr<const Assessment> m_assessment, m_previous;
    Answers m_answers;
    std::unique_ptr<Journal> m_journal;
    QUndoStack m_undo;
    QTimer m_syncSoon;
    OpenedFrom m_from;
    QString m_selectedStop;
    std::string m_selectedCheck;
    std::vector<Fault> m_imagined;
    bool m_journalFailed = false;
};

} // namespace mildpath
