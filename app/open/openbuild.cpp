// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/openbuild.h"

#include "checks/assessment.h"
#include "open/vectorstate.h"
#include "paint/figure.h"
#include "storage/buildfile.h"
#include "storage/journal.h"
#include "storage/photos.h"

#include <QDateTime>
#include <QFileInfo>
#include <QUndoCommand>

#include <cstdlib>
#include <exception>
#include <utility>

namespace mildpath {

namespace {

/// Another clock than the machine's; none as a rule.
std::function<QDateTime()> ownClock;

/// What follows from a document. Errors: a document the checks let through and the assessment
/// cannot cope with: said, not crashed on.
Result<std::shared_ptr<const Assessment>> assessed(const Build &build)
{
    clearVectorState(); // the last painting's leavings slow the checks down
    try {
        return std::make_shared<const Assessment>(build, OpenBuild::now().substr(0, 10));
    } catch (const std::exception &e) {
        return fail("", std::string("it cannot be assessed (") + e.what() + ")");
    }
}

/// The id the last entry of a list was given.
std::string lastId(const Build &build, std::string_view list)
{
    std::string out;
    forEachLog([&](const auto &log) {
        if (log.key == list && !(build.*log.list).empty())
            out = (build.*log.list).back().id;
    });
    return out;
}

} // namespace

/// Holds both documents (they share what neither changed) and the edit's name. The journal is told
/// of undo and redo, but not of the first redo: that is the edit itself.
class OpenBuild::EditCommand : public QUndoCommand
{
public:
    EditCommand(OpenBuild &open, const Edit &edit, std::shared_ptr<const Build> after,
                std::shared_ptr<const Assessment> assessment)
        : QUndoCommand(qs(describeEdit(open.build(), edit)))
        , m_open(open)
        , m_before(open.m_build)
        , m_after(std::move(after))
        , m_assessment(std::move(assessment))
    {
    }

    void undo() override
    {
        m_open.journal([this](Journal &j) { return j.appendUndo(*m_before); });
        m_open.setBuild(m_before);
    }

    void redo() override
    {
        if (!m_first)
            m_open.journal([this](Journal &j) { return j.appendRedo(*m_after); });
        m_first = false;
        m_open.setBuild(m_after, std::exchange(m_assessment, nullptr));
    }

private:
    OpenBuild &m_open;
    std::shared_ptr<const Build> m_before, m_after;
    std::shared_ptr<const Assessment> m_assessment; ///< for the first time only
    bool m_first = true;
};

OpenBuild::OpenBuild(QString stateFolder, QObject *parent)
    : QObject(parent)
    , m_stateFolder(std::move(stateFolder))
    , m_build(std::make_shared<const Build>())
    , m_assessment(std::make_shared<const Assessment>(*m_build, now().substr(0, 10)))
{
    m_answers.setAbout({ m_build, m_assessment }, true);
    m_syncSoon.setSingleShot(true);
    m_syncSoon.setInterval(1000);
    connect(&m_syncSoon, &QTimer::timeout, this, [this] {
        if (m_journal)
            m_journal->sync();
    });
    connect(&m_undo, &QUndoStack::cleanChanged, this, &OpenBuild::titleChanged);
    constexpr int everyMinute_ms = 60'000;
    m_day.start(everyMinute_ms);
    connect(&m_day, &QTimer::timeout, this, &OpenBuild::followDay);
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
    if (!written) {
        m_journalFailed = true;
        Q_EMIT journalFailed(qs(written.error()));
    } else if (std::exchange(m_journalFailed, false)) {
        Q_EMIT journalKept();
    }
    m_syncSoon.start();
}

/// Writes to the journal. Where none could be begun, setBuild() tries again.
template <class Write> void OpenBuild::journal(Write write)
{
    if (m_journal)
        note(write(*m_journal));
}

/// The old journal goes only when the new one stands: until then it is the only one.
void OpenBuild::startJournal()
{
    if (m_stateFolder.isEmpty())
        return;
    auto journal = Journal::start(m_stateFolder.toStdString(), *m_build, m_from.path.toStdString(),
                                  m_from.unsaved);
    note(journal ? Result<void>() : tl::unexpected(journal.error()));
    if (!journal)
        return;
    if (m_journal)
        m_journal->discard();
    m_journal = std::make_unique<Journal>(std::move(*journal));
}

Result<void> OpenBuild::open(Build build, OpenedFrom from)
{
    auto assessment = assessed(build);
    if (!assessment)
        return tl::unexpected(assessment.error());
    if (!from.lock && !from.readOnly && from.path == m_from.path) // opened again
        from.lock = std::move(m_from.lock);
    m_from = std::move(from);
    m_imagined.clear();
    m_build = std::make_shared<const Build>(std::move(build));
    m_worker.clear(); // who works on one engine need not work on another
    m_assessment = std::move(*assessment);
    m_judgedOn = now().substr(0, 10);
    m_answers.setAbout({ m_build, m_assessment }, true);
    m_previous.reset();
    m_undo.clear();
    const auto old = std::move(m_journal);
    startJournal();
    if (old)
        old->discard();
    if (!m_build->engine.find(m_selectedStop.toStdString()))
        m_selectedStop
            = m_build->engine.stops.empty() ? QString() : qs(m_build->engine.stops.front().id);
    Q_EMIT opened();
    Q_EMIT changed();
    Q_EMIT stopSelected(m_selectedStop);
    Q_EMIT titleChanged();
    return {};
}

std::unique_ptr<QLockFile> OpenBuild::lockOf(const QString &path)
{
    const QFileInfo file(path);
    auto lock = std::make_unique<QLockFile>(file.absolutePath() + QStringLiteral("/.")
                                            + file.fileName() + QStringLiteral(".lock"));
    lock->setStaleLockTime(0); // held as long as the build is open; one of a dead program is not
    if (!lock->tryLock(0) && lock->error() == QLockFile::LockFailedError)
        return nullptr;
    return lock;
}

const std::vector<GaugedSize> &OpenBuild::sizes() const
{
    return m_assessment->sizes;
}

const std::vector<FamilySummary> &OpenBuild::families() const
{
    return m_assessment->families;
}

const std::vector<FeedHole> &OpenBuild::feedHoles() const
{
    return m_assessment->feedHoles;
}

const std::vector<FitVerdict> &OpenBuild::fits() const
{
    return m_assessment->fits;
}

const CleaningBook &OpenBuild::cleaning() const
{
    return m_assessment->cleaning;
}

const std::vector<Spread> &OpenBuild::spreads() const
{
    return m_assessment->spreads;
}

const LinesReport &OpenBuild::lines() const
{
    return m_assessment->lines;
}

const Operating &OpenBuild::operating() const
{
    return m_assessment->operating;
}

const Forecast &OpenBuild::forecast() const
{
    return m_assessment->forecast;
}

const AirReport &OpenBuild::air() const
{
    return m_assessment->air;
}

const Judgement &OpenBuild::judgement() const
{
    return *m_assessment;
}

bool OpenBuild::isChangedOutside() const
{
    return !m_from.path.isEmpty() && m_from.stamp
        && stampOf(m_from.path.toStdString()) != m_from.stamp;
}

Result<void> OpenBuild::save(const QString &path)
{
    const bool samePath = path == m_from.path;
    if (samePath && m_from.readOnly)
        return fail(path.toStdString(), "was opened read-only: save it under another name");
    if (samePath && !isModified() && m_from.olderText.empty() && !isChangedOutside())
        return {};
    std::unique_ptr<QLockFile> lock;
    if (!samePath && !(lock = lockOf(path)))
        return fail(path.toStdString(), "is open in another window or program");
    // Photos first: a build that names pictures which are not there yet would look as if they had
    // been lost.
    if (const QString beside = besideFile(); !beside.isEmpty() && path != beside)
        if (auto ok = copyPhotos(*m_build, beside.toStdString(), path.toStdString()); !ok)
            return ok;
    if (auto ok
        = saveBuild(path.toStdString(), *m_build, samePath ? m_from.olderText : std::string());
        !ok)
        return ok;
    m_from = { .path = path,
               .stamp = stampOf(path.toStdString()),
               .lock = samePath ? std::move(m_from.lock) : std::move(lock) };
    m_undo.setClean();
    startJournal();
    Q_EMIT titleChanged();
    return {};
}

void OpenBuild::giveUp()
{
    if (m_journal)
        m_journal->discard();
    m_journal.reset();
}

Result<std::string> OpenBuild::record(LogEntry entry)
{
    std::visit(
        [this](Record &r) {
            if (r.by.empty())
                r.by = worker();
            if (r.at.empty())
                r.at = now();
        },
        entry);
    const std::string_view list = logOf(entry);
    if (auto ok = edit(AddEntry { std::move(entry) }); !ok)
        return tl::unexpected(ok.error());
    return lastId(*m_build, list);
}

Result<void> OpenBuild::editAll(const QString &name, std::vector<Edit> edits)
{
    return edit(EditAll { name.toStdString(), std::move(edits) });
}

Result<void> OpenBuild::choose(const std::string &question, const std::string &answer)
{
    Choice c;
    c.question = question;
    c.answer = answer;
    c.by = worker();
    c.at = now();
    return edit(Choose { std::move(c) });
}

Result<void> OpenBuild::takeBack(const std::string &log, const std::string &id)
{
    return edit(TakeBackEntry { log, id, worker(), now() });
}

Result<void> OpenBuild::edit(const Edit &edit)
{
    auto after = applyEdit(*m_build, edit);
    if (!after)
        return tl::unexpected(after.error());
    auto assessment = assessed(*after);
    if (!assessment) // neither the document nor the journal takes what cannot be assessed
        return tl::unexpected(assessment.error());
    const auto build = std::make_shared<const Build>(std::move(*after));
    journal([&](Journal &j) { return j.append(edit, *build); });
    m_undo.push(new EditCommand(*this, edit, build, std::move(*assessment)));
    return {};
}

void OpenBuild::setBuild(std::shared_ptr<const Build> build,
                         std::shared_ptr<const Assessment> assessment)
{
    m_build = std::move(build);
    m_previous = m_assessment;
    if (!assessment) // undone or done again: it was assessed once
        assessment = assessed(*m_build).value_or(m_assessment);
    m_assessment = std::move(assessment);
    m_judgedOn = now().substr(0, 10);
    m_answers.setAbout({ m_build, m_assessment }, false);
    // What was imagined at a stop that is no longer there is gone with it.
    std::erase_if(m_imagined, [this](const Fault &f) { return !checkFaults(*m_build, { f }); });
    if (!m_journal && m_journalFailed) {
        // There was no room for one when the build was opened. What it begins with is in no file.
        const bool unsaved = std::exchange(m_from.unsaved, true);
        startJournal();
        m_from.unsaved = unsaved;
    }
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

void OpenBuild::selectCheck(const std::string &id)
{
    m_selectedCheck = id;
    Q_EMIT checkSelected();
}

std::string OpenBuild::worker()
{
    if (m_worker.empty() && m_askWorker)
        if (const std::string name = m_askWorker(); !name.empty())
            (void)pickWorker(name); // refused, nobody is picked
    return m_worker;
}

Result<void> OpenBuild::pickWorker(const std::string &name)
{
    const auto people = standing(m_build->people);
    const bool known
        = std::ranges::any_of(people, [&](const Person *p) { return p->name == name; });
    if (!known && !name.empty()) {
        Person p;
        p.name = p.by = name;
        p.at = now();
        if (auto ok = edit(AddEntry { std::move(p) }); !ok)
            return ok;
    }
    m_worker = name;
    Q_EMIT workerChanged();
    return {};
}

void OpenBuild::setClock(std::function<QDateTime()> clock)
{
    ownClock = std::move(clock);
}

void OpenBuild::followDay()
{
    if (now().substr(0, 10) != m_judgedOn && !m_build->engine.stops.empty())
        setBuild(m_build);
}

std::string OpenBuild::now()
{
    // What is entered later counts as later, though the clock was put back meanwhile (summer time's
    // end, a correction over the network).
    constexpr qint64 putBack_s = 2 * 3600;
    static QDateTime last;
    const QDateTime clock = ownClock ? ownClock() : QDateTime::currentDateTime();
    const QDateTime local(clock.date(), clock.time(), Qt::UTC); // as it reads
    const qint64 behind_s = last.isValid() ? local.secsTo(last) : 0;
    if (behind_s <= 0 || behind_s > putBack_s)
        last = local;
    return last.toString(u"yyyy-MM-ddTHH:mm:ss").toStdString();
}

} // namespace mildpath
