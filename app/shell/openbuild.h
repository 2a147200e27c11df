// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/faults.h"
#include "document/edit.h"

#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>

#include <memory>
#include <optional>

namespace mildpath {

class Journal;
struct Assessment;

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
    const Assessment &assessment() const { return *m_assessment; }
    /// Another number after every change of the document: what was worked out for one stands as
    /// long as it is the same.
    quint64 revision() const { return m_revision; }
    /// What it was before the last edit; null right after opening.
    const Assessment *previous() const { return m_previous.get(); }
    QUndoStack &undoStack() { return m_undo; }

    const QString &path() const { return m_path; }
    const QString &stateFolder() const { return m_stateFolder; }
    bool isModified() const { return m_baseUnsaved || !m_undo.isClean(); }

    /// Replaces the document; undo history and journal start anew.
    /// @param unsaved  the document is in no file yet (recovered work)
    void open(Build build, const QString &path, const std::string &olderText = {},
              bool unsaved = false);
    /// Writes to the path. Errors: the document and its path stay as they were.
    Result<void> save(const QString &path);
    /// The user gives up what is not saved: nothing to offer at the next start.
    void giveUp();
    /// Makes an edit, undoable and journalled. Errors: nothing changed.
    Result<void> edit(const Edit &edit);

    /// Writes an entry into the logbook, with who and when unless it says when itself.
    Result<void> record(LogEntry entry);
    /// Takes an entry of a list (by its key in a file) back.
    Result<void> takeBack(const std::string &log, const std::string &id);

    /// Answers a question practitioners answer differently; who and when with it.
    Result<void> choose(const std::string &question, const std::string &answer);

    const QString &selectedStop() const { return m_selectedStop; }
    void selectStop(const QString &id);

    /// Faults imagined on this engine, for all benches: not part of the document until a scenario
    /// of them is kept.
    const std::vector<Fault> &imagined() const { return m_imagined; }
    /// Errors: as applyFault, for one that cannot happen on this engine; nothing changed.
    Result<void> imagine(std::vector<Fault> faults);
    /// The same, and asks for the map that shows what follows.
    void showImagined(std::vector<Fault> faults);

    /// Who and when of the next reading or proof.
    static std::string userName();
    static std::string now();

Q_SIGNALS:
    /// The document changed: by edit, undo, redo, or another was opened.
    void changed();
    void opened();
    void stopSelected(const QString &id);
    void imaginedChanged();
    void mapWanted(); ///< what is imagined is to be seen
    void titleChanged();
    void journalFailed(const QString &reason);

private:
    class EditCommand;
    void setBuild(std::shared_ptr<const Build> build);
    void startJournal(bool baseUnsaved);
    void note(const Result<void> &written);

    QString m_stateFolder;
    std::shared_ptr<const Build> m_build;
    std::shared_ptr<const Assessment> m_assessment, m_previous;
    std::unique_ptr<Journal> m_journal;
    QUndoStack m_undo;
    QTimer m_syncSoon;
    QString m_path, m_selectedStop;
    std::vector<Fault> m_imagined;
    quint64 m_revision = 0;
    std::string m_olderText;
    bool m_baseUnsaved = false;
};

} // namespace mildpath
