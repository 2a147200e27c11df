// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/openbuild.h"

#include "assess/assessment.h"
#include "shell/figure.h"
#include "shell/vectorstate.h"
#include "storage/buildfile.h"
#include "storage/journal.h"
#include "storage/photos.h"

#include <QDateTime>
#include <QUndoCommand>

#include <cstdlib>

namespace mildpath {

/// Holds both documents (they share nothing mutable) and the edit's name. The journal is told of
/// undo and redo, but not of the first redo: that is the edit itself.
class OpenBuild::EditCommand : public QUndoCommand
{
public:
    EditCommand(OpenBuild &open, const Edit &edit, std::shared_ptr<const Build> after)
        : QUndoCommand(qs(describeEdit(open.build(), edit)))
        , m_open(open)
        , m_before(open.m_build)
        , m_after(std::move(after))
    {
    }

    void undo() override
    {
        if (m_open.m_journal)
            m_open.note(m_open.m_journal->appendUndo());
        m_open.setBuild(m_before);
    }

    void redo() override
    {
        if (!m_first && m_open.m_journal)
            m_open.note(m_open.m_journal->appendRedo());
        m_first = false;
        m_open.setBuild(m_after);
    }

private:
    OpenBuild &m_open;
    std::shared_ptr<const Build> m_before, m_after;
    bool m_first = true;
};

OpenBuild::OpenBuild(QString stateFolder, QObject *parent)
    : QObject(parent)
    , m_stateFolder(std::move(stateFolder))
    , m_build(std::make_shared<const Build>())
    , m_assessment(std::make_shared<const Assessment>())
{
    m_syncSoon.setSingleShot(true);
    m_syncSoon.setInterval(1000);
    connect(&m_syncSoon, &QTimer::timeout, this, [this] {
        if (m_journal)
            m_journal->sync();
    });
    connect(&m_undo, &QUndoStack::cleanChanged, this, &OpenBuild::titleChanged);
}

OpenBuild::~OpenBuild()
{
    // Edits nobody saved stay in the journal; an orderly end without them leaves none behind.
    m_undo.disconnect(this);
    if (m_journal && !isModified())
        m_journal->discard();
}

void OpenBuild::note(const Result<void> &written)
{
    if (!written)
        Q_EMIT journalFailed(qs(written.error().place + ": " + written.error().message));
    m_syncSoon.start();
}

void OpenBuild::startJournal(bool baseUnsaved)
{
    if (m_journal)
        m_journal->discard();
    m_journal.reset();
    if (m_stateFolder.isEmpty())
        return;
    auto journal
        = Journal::start(m_stateFolder.toStdString(), *m_build, m_path.toStdString(), baseUnsaved);
    if (journal)
        m_journal = std::make_unique<Journal>(std::move(*journal));
    else
        Q_EMIT journalFailed(qs(journal.error().place + ": " + journal.error().message));
}

void OpenBuild::open(Build build, const QString &path, const std::string &olderText, bool unsaved)
{
    m_path = path;
    m_imagined.clear();
    m_olderText = olderText;
    m_baseUnsaved = unsaved;
    m_build = std::make_shared<const Build>(std::move(build));
    ++m_revision;
    clearVectorState();
    m_assessment = std::make_shared<const Assessment>(assess(*m_build));
    m_previous.reset();
    m_undo.clear();
    startJournal(unsaved);
    if (!m_build->engine.find(m_selectedStop.toStdString()))
        m_selectedStop
            = m_build->engine.stops.empty() ? QString() : qs(m_build->engine.stops.front().id);
    Q_EMIT opened();
    Q_EMIT changed();
    Q_EMIT stopSelected(m_selectedStop);
    Q_EMIT titleChanged();
}

Result<void> OpenBuild::save(const QString &path)
{
    // Photos first: a build that names pictures which are not there yet would look as if they had
    // been lost.
    if (!m_path.isEmpty() && path != m_path)
        if (auto ok = copyPhotos(*m_build, m_path.toStdString(), path.toStdString()); !ok)
            return ok;
    if (auto ok = saveBuild(path.toStdString(), *m_build, path == m_path ? m_olderText : ""); !ok)
        return ok;
    m_path = path;
    m_olderText.clear();
    m_baseUnsaved = false;
    m_undo.setClean();
    startJournal(false);
    Q_EMIT titleChanged();
    return {};
}

void OpenBuild::giveUp()
{
    if (m_journal)
        m_journal->discard();
    m_journal.reset();
}

Result<void> OpenBuild::record(LogEntry entry)
{
    std::visit(
        [](Record &r) {
            r.by = userName();
            if (r.at.empty())
                r.at = now();
        },
        entry);
    return edit(PassageEdit(AddEntry { std::move(entry) }));
}

Result<void> OpenBuild::choose(const std::string &question, const std::string &answer)
{
    Choice c;
    c.question = question;
    c.answer = answer;
    c.by = userName();
    c.at = now();
    return edit(Choose { std::move(c) });
}

Result<void> OpenBuild::takeBack(const std::string &log, const std::string &id)
{
    return edit(PassageEdit(TakeBackEntry { log, id, userName(), now() }));
}

Result<void> OpenBuild::edit(const Edit &edit)
{
    clearVectorState(); // the last painting's leavings slow the checks down
    auto after = applyEdit(*m_build, edit);
    if (!after)
        return tl::unexpected(after.error());
    if (m_journal)
        note(m_journal->append(edit));
    m_undo.push(new EditCommand(*this, edit, std::make_shared<const Build>(std::move(*after))));
    return {};
}

void OpenBuild::setBuild(std::shared_ptr<const Build> build)
{
    m_build = std::move(build);
    ++m_revision;
    m_previous = m_assessment;
    clearVectorState();
    m_assessment = std::make_shared<const Assessment>(assess(*m_build));
    // What was imagined at a stop that is no longer there is gone with it.
    std::erase_if(m_imagined, [this](const Fault &f) { return !checkFaults(*m_build, { f }); });
    Q_EMIT changed();
}

Result<void> OpenBuild::imagine(std::vector<Fault> faults)
{
    if (faults == m_imagined)
        return {};
    if (auto ok = checkFaults(*m_build, faults); !ok)
        return ok;
    m_imagined = std::move(faults);
    Q_EMIT imaginedChanged();
    return {};
}

void OpenBuild::showImagined(std::vector<Fault> faults)
{
    if (!faults.empty())
        selectStop(QString::fromStdString(faults.front().stop));
    static_cast<void>(imagine(std::move(faults))); // found on this very engine
    Q_EMIT mapWanted();
}

void OpenBuild::selectStop(const QString &id)
{
    if (id == m_selectedStop || !m_build->engine.find(id.toStdString()))
        return;
    m_selectedStop = id;
    Q_EMIT stopSelected(id);
}

std::string OpenBuild::userName()
{
    for (const char *name : { "MILDPATH_USER", "USER", "LOGNAME" })
        if (const char *value = std::getenv(name); value && *value)
            return value;
    return "unnamed";
}

std::string OpenBuild::now()
{
    return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
}

} // namespace mildpath
