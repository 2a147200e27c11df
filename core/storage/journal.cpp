// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/journal.h"

#include "quantity/json.h"
#include "storage/appendfile.h"
#include "storage/buildfile.h"
#include "storage/files.h"

#include <algorithm>
#include <sstream>
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
                                  { "base", buildToJson(base) } });
        !ok)
        return tl::unexpected(ok.error());
    return out;
}

Journal::Journal(Journal &&other) noexcept
    : m_path(std::move(other.m_path))
    , m_fd(std::exchange(other.m_fd, -1))
{
}

Journal &Journal::operator=(Journal &&other) noexcept
{
    std::swap(m_path, other.m_path);
    std::swap(m_fd, other.m_fd);
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
    return appendText(m_fd, m_path, text);
}

Result<void> Journal::append(const Edit &edit)
{
    return writeLine(editToJson(edit));
}
Result<void> Journal::appendUndo()
{
    return writeLine({ { "undo", true } });
}
Result<void> Journal::appendRedo()
{
    return writeLine({ { "redo", true } });
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

/// The undo stack as it stood: documents, and how many of them are applied.
struct History
{
    std::vector<Build> states;
    size_t at = 0;

    void apply(const Edit &edit)
    {
        if (auto next = applyEdit(states[at], edit)) {
            states.resize(at + 1);
            states.push_back(std::move(*next));
            ++at;
        }
    }
    void undo() { at -= at > 0; }
    void redo() { at += at + 1 < states.size(); }
};

std::optional<Recovery> replay(const std::filesystem::path &path)
{
    const auto text = readTextFile(path);
    if (!text)
        return std::nullopt;
    std::istringstream lines(*text);
    std::string line;
    if (!std::getline(lines, line))
        return std::nullopt;
    const auto header = parseJson(line);
    if (!header || !header->is_object() || !header->contains("base"))
        return std::nullopt;
    const auto base = parseBuild((*header)["base"].dump());
    if (!base)
        return std::nullopt;
    History history { { base->build } };
    while (std::getline(lines, line)) {
        const auto json = parseJson(line);
        if (!json || !json->is_object())
            continue; // the line a crash cut short
        if (json->contains("undo"))
            history.undo();
        else if (json->contains("redo"))
            history.redo();
        else if (const auto edit = editFromJson(*json))
            history.apply(*edit);
    }
    if (history.at == 0 && !header->value("base_unsaved", false))
        return std::nullopt;
    return Recovery { path, header->value("build_path", std::string()), base->build,
                      history.states[history.at], static_cast<int>(history.at) };
}

} // namespace

std::vector<Recovery> findRecoveries(const std::filesystem::path &folder)
{
    std::vector<std::filesystem::path> paths;
    std::error_code code;
    for (const auto &entry : std::filesystem::directory_iterator(folder, code))
        if (entry.path().extension() == ".journal")
            paths.push_back(entry.path());
    std::sort(paths.begin(), paths.end());
    std::vector<Recovery> out;
    for (const auto &path : paths)
        if (!heldByAnother(path))
            if (auto recovery = replay(path))
                out.push_back(std::move(*recovery));
    return out;
}

} // namespace mildpath
