// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/journal.h"

#include "quantity/json.h"
#include "storage/appendfile.h"
#include "storage/buildfile.h"
#include "storage/files.h"

#include <algorithm>
#include <ctime>
#include <fstream>
#include <sys/stat.h>
#include <unistd.h>
#include <utility>

namespace mildpath {

Result<Journal> Journal::start(const std::filesystem::path &folder, const Build &base,
                               const std::string &buildPath, bool baseUnsaved)
{
    auto file = startAppending(folder, [](int number) {
        return "edits-" + std::to_string(::getpid()) + "-" + std::to_string(number) + ".journal";
    });
    if (!file)
        return tl::unexpected(file.error());
    Journal out;
    out.m_path = std::move(file->path);
    out.m_fd = file->fd;
    if (auto ok = out.writeLine({ { "build_path", buildPath },
                                  { "base_unsaved", baseUnsaved },
                                  { "base", toJson(base) } });
        !ok) {
        out.discard();
        return tl::unexpected(ok.error());
    }
    return out;
}

Journal::Journal(Journal &&other) noexcept
    : m_path(std::move(other.m_path))
    , m_fd(std::exchange(other.m_fd, -1))
    , m_at(other.m_at)
    , m_top(other.m_top)
    , m_behind(other.m_behind)
{
}

Journal &Journal::operator=(Journal &&other) noexcept
{
    std::swap(m_path, other.m_path);
    std::swap(m_fd, other.m_fd);
    std::swap(m_at, other.m_at);
    std::swap(m_top, other.m_top);
    std::swap(m_behind, other.m_behind);
    return *this;
}

Journal::~Journal()
{
    if (m_fd >= 0)
        ::close(m_fd);
}

Result<void> Journal::writeLine(const Json &line)
{
    const std::string text = line.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
    const auto whole = ::lseek(m_fd, 0, SEEK_END);
    auto ok = appendText(m_fd, m_path, text);
    m_behind = !ok;
    // Half a line would swallow the next one.
    if (!ok && whole >= 0 && ::ftruncate(m_fd, whole) != 0)
        return fail(m_path.string(), { "", "is damaged: {0}", { ok.error().message } });
    return ok;
}

Result<void> Journal::writeState(const Build &state)
{
    auto ok = writeLine({ { "state", toJson(state) } });
    if (ok)
        m_at = m_top = 0;
    return ok;
}

Result<void> Journal::append(const Edit &edit, const Build &after)
{
    if (m_behind)
        return writeState(after);
    auto ok = writeLine(editToJson(edit));
    if (ok)
        m_top = ++m_at;
    return ok;
}

Result<void> Journal::appendUndo(const Build &after)
{
    if (m_behind || m_at == 0)
        return writeState(after);
    auto ok = writeLine({ { "undo", true } });
    if (ok)
        --m_at;
    return ok;
}

Result<void> Journal::appendRedo(const Build &after)
{
    if (m_behind || m_at == m_top)
        return writeState(after);
    auto ok = writeLine({ { "redo", true } });
    if (ok)
        ++m_at;
    return ok;
}

void Journal::sync()
{
    if (m_fd >= 0)
        ::fdatasync(m_fd);
}

void Journal::discard()
{
    if (m_fd < 0)
        return;
    ::unlink(m_path.c_str());
    ::close(std::exchange(m_fd, -1));
}

namespace {

/// "2026-03-12T14:05:09", local time.
std::string lastWritten(const std::filesystem::path &path)
{
    struct stat is;
    std::tm parts {};
    if (::stat(path.c_str(), &is) != 0 || !::localtime_r(&is.st_mtim.tv_sec, &parts))
        return {};
    char text[32];
    const size_t n = std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%S", &parts);
    return { text, n };
}

/// Why a file or a line did not become a document, in one line.
Phrase reasonOf(const LoadFailure &failure)
{
    const Error &e = failure.errors.front();
    return e.place.empty() ? e.message : named(e.place, e.message);
}

/// Edits as an undo stack holds them: those applied, and those that were undone.
struct History
{
    Build base;
    std::vector<Edit> edits;
    size_t at = 0;
    bool isRebased = false;

    void apply(Edit edit)
    {
        edits.erase(edits.begin() + static_cast<std::ptrdiff_t>(at), edits.end());
        edits.push_back(std::move(edit));
        ++at;
    }
    void undo() { at -= at > 0; }
    void redo() { at += at < edits.size(); }
    void goOnFrom(Build state)
    {
        base = std::move(state);
        edits.clear();
        at = 0;
        isRebased = true;
    }
};

/// One line after the first. @return whether it could be read
bool take(const std::string &line, History &history)
{
    const auto json = parseJson(line);
    if (!json || !json->is_object())
        return false;
    if (json->contains("undo")) {
        history.undo();
    } else if (json->contains("redo")) {
        history.redo();
    } else if (json->contains("state")) {
        auto state = parseBuild((*json)["state"].dump());
        if (!state)
            return false;
        history.goOnFrom(std::move(state->build));
    } else {
        auto edit = editFromJson(*json);
        if (!edit)
            return false;
        history.apply(std::move(*edit));
    }
    return true;
}

/// Base and edits as one document. Edits that no longer make sense are left out, one by one.
void replay(Recovery &out)
{
    if (auto all = replayEdits(out.base, out.edits)) {
        out.recovered = std::move(*all);
        return;
    }
    out.recovered = out.base;
    std::vector<Edit> good;
    for (Edit &edit : out.edits) {
        auto next = applyEdit(out.recovered, edit);
        out.unreadable += !next;
        if (!next)
            continue;
        out.recovered = std::move(*next);
        good.push_back(std::move(edit));
    }
    out.edits = std::move(good);
}

/// What a journal holds; without work in it, absent.
tl::expected<std::optional<Recovery>, Phrase> readJournal(const std::filesystem::path &path)
{
    std::ifstream in(path, std::ios::binary);
    std::string line;
    if (!in)
        return tl::unexpected(std::string("cannot be read"));
    // Nothing follows on a first line that is not there or was cut short: nothing was edited.
    if (!std::getline(in, line) || in.eof())
        return std::optional<Recovery> {};
    const auto header = parseJson(line);
    if (!header || !header->is_object() || !header->contains("base"))
        return tl::unexpected(Phrase("its first line is damaged"));
    auto base = parseBuild((*header)["base"].dump());
    if (!base)
        return tl::unexpected(reasonOf(base.error()));
    const bool baseUnsaved = header->value("base_unsaved", false);
    const Build begun = base->build;
    History history { std::move(base->build), {}, 0, false };
    Recovery out;
    while (std::getline(in, line))
        if (!in.eof()) // else the line a crash cut short
            out.unreadable += !take(line, history);
    history.edits.erase(history.edits.begin() + static_cast<std::ptrdiff_t>(history.at),
                        history.edits.end());
    out.journal = path;
    out.buildPath = header->value("build_path", std::string());
    out.at = lastWritten(path);
    out.base = std::move(history.base);
    out.edits = std::move(history.edits);
    replay(out);
    if (out.recovered == begun && !baseUnsaved && out.unreadable == 0)
        return std::optional<Recovery> {};
    if (!out.buildPath.empty()) {
        const auto file = loadBuild(out.buildPath);
        if (file && file->build == out.recovered)
            return std::optional<Recovery> {};
        out.file = !file           ? Recovery::File::Missing
            : file->build == begun ? Recovery::File::Same
                                   : Recovery::File::Changed;
    }
    return std::optional<Recovery>(std::move(out));
}

} // namespace

Build recoveredUpTo(const Recovery &recovery, size_t edits)
{
    Build out = recovery.base;
    for (size_t i = 0; i < std::min(edits, recovery.edits.size()); ++i)
        if (auto next = applyEdit(out, recovery.edits[i]))
            out = std::move(*next);
    return out;
}

FoundJournals findRecoveries(const std::filesystem::path &folder)
{
    std::vector<std::filesystem::path> paths;
    std::error_code code;
    for (const auto &entry : std::filesystem::directory_iterator(folder, code))
        if (entry.path().extension() == ".journal" && !heldByAnother(entry.path()))
            paths.push_back(entry.path());
    std::sort(paths.begin(), paths.end());
    FoundJournals out;
    for (const auto &path : paths) {
        auto found = readJournal(path);
        if (!found)
            out.lost.push_back({ path, lastWritten(path), found.error() });
        else if (*found)
            out.recoveries.push_back(std::move(**found));
        else
            std::filesystem::remove(path, code);
    }
    std::stable_sort(out.recoveries.begin(), out.recoveries.end(),
                     [](const Recovery &a, const Recovery &b) { return a.at > b.at; });
    return out;
}

} // namespace mildpath
