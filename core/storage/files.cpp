// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/files.h"

#include "storage/appendfile.h"

#include <cerrno>
#include <charconv>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>

namespace mildpath {
namespace {

constexpr int mostLinks = 40;
constexpr mode_t usualMode = 0666; // less what the user's mask takes away
constexpr std::string_view temporaryMark = ".new-";

tl::unexpected<Error> failWithErrno(const std::filesystem::path &path, const char *what)
{
    return fail(path.string(), std::string(what) + ": " + std::strerror(errno));
}

/// Closes on every way out.
struct Descriptor
{
    int fd;
    ~Descriptor()
    {
        if (fd >= 0)
            ::close(fd);
    }
};

/// The file a chain of links ends at, be it there or not.
Result<std::filesystem::path> behindLinks(std::filesystem::path path)
{
    const std::filesystem::path asked = path;
    std::error_code code;
    for (int i = 0; i < mostLinks; ++i) {
        if (!std::filesystem::is_symlink(std::filesystem::symlink_status(path, code)))
            return path;
        const std::filesystem::path target = std::filesystem::read_symlink(path, code);
        if (code)
            break;
        path = path.parent_path() / target; // an absolute target replaces the folder
    }
    return fail(asked.string(), "cannot be written: its links lead nowhere");
}

/// What is there may be replaced. @return its mode, or the usual one where nothing is there
Result<mode_t> modeToKeep(const std::filesystem::path &asked, const std::filesystem::path &path)
{
    struct stat is;
    if (::lstat(path.c_str(), &is) != 0) {
        if (errno == ENOENT)
            return usualMode;
        return failWithErrno(asked, "cannot be written");
    }
    if (!S_ISREG(is.st_mode))
        return fail(asked.string(),
                    S_ISDIR(is.st_mode) ? "cannot be written: it is a folder"
                                        : "cannot be written: it is a device, not a file");
    if ((is.st_mode & 0222) == 0)
        return fail(asked.string(), "cannot be written: the file is set read-only");
    if (::access(path.c_str(), W_OK) != 0)
        return failWithErrno(asked, "cannot be written");
    return is.st_mode & 07777;
}

std::filesystem::path temporaryOf(const std::filesystem::path &path, long process)
{
    std::filesystem::path out = path;
    out += std::string(temporaryMark) + std::to_string(process);
    return out;
}

/// Temporary files of this target whose writer is no more.
void clearLeftOvers(const std::filesystem::path &path)
{
    const std::string stem = path.filename().string() + std::string(temporaryMark);
    std::error_code code;
    const auto folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    for (const auto &entry : std::filesystem::directory_iterator(folder, code)) {
        const std::string name = entry.path().filename().string();
        if (name.compare(0, stem.size(), stem) != 0)
            continue;
        int process = 0;
        const auto [end, bad]
            = std::from_chars(name.data() + stem.size(), name.data() + name.size(), process);
        if (bad == std::errc() && end == name.data() + name.size() && process > 0
            && ::kill(process, 0) != 0 && errno == ESRCH)
            std::filesystem::remove(entry.path(), code);
    }
}

/// All of the text on disk. @return the system's reason
Result<void> fill(int fd, const std::filesystem::path &path, const std::string &text, mode_t mode)
{
    if (auto ok = appendText(fd, path, text); !ok)
        return ok;
    if (mode != usualMode && ::fchmod(fd, mode) != 0)
        return failWithErrno(path, "cannot keep its mode");
    if (::fsync(fd) != 0)
        return failWithErrno(path, "cannot be written");
    return {};
}

bool isBuildFile(const std::filesystem::path &path)
{
    std::ifstream in(path, std::ios::binary);
    std::string head(4096, '\0');
    in.read(head.data(), static_cast<std::streamsize>(head.size()));
    head.resize(static_cast<size_t>(std::max<std::streamsize>(in.gcount(), 0)));
    return head.find("\"mild-path-build\"") != std::string::npos;
}

} // namespace

Result<std::string> readTextFile(const std::filesystem::path &path)
{
    std::error_code code;
    if (std::filesystem::is_directory(path, code))
        return fail(path.string(), "is a folder, not a file");
    const auto size = std::filesystem::file_size(path, code);
    if (code)
        return fail(path.string(), "cannot be read: " + code.message());
    if (size > mostFileBytes)
        return fail(path.string(), "is larger than 64 MiB; no build is");
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return failWithErrno(path, "cannot be read");
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

Result<void> writeTextFile(const std::filesystem::path &asked, const std::string &text)
{
    if (text.size() > mostFileBytes)
        return fail(asked.string(), "would be larger than 64 MiB and could not be opened again");
    const auto target = behindLinks(asked);
    if (!target)
        return tl::unexpected(target.error());
    const std::filesystem::path &path = *target;
    const auto mode = modeToKeep(asked, path);
    if (!mode)
        return tl::unexpected(mode.error());
    clearLeftOvers(path);
    const std::filesystem::path temporary = temporaryOf(path, ::getpid());
    ::unlink(temporary.c_str()); // of this very process: a write that was given up
    {
        const Descriptor file { ::open(
            temporary.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, usualMode) };
        if (file.fd < 0)
            return failWithErrno(asked, "cannot be written");
        if (auto ok = fill(file.fd, asked, text, *mode); !ok) {
            ::unlink(temporary.c_str());
            return ok;
        }
    }
    if (::rename(temporary.c_str(), path.c_str()) != 0) {
        const auto error = failWithErrno(asked, "cannot be replaced");
        ::unlink(temporary.c_str());
        return error;
    }
    // The rename itself must reach the disk too; a folder that cannot be synced is no failure.
    const std::filesystem::path folder = path.has_parent_path() ? path.parent_path() : ".";
    const Descriptor directory { ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC) };
    if (directory.fd >= 0)
        ::fsync(directory.fd);
    return {};
}

Result<void> mayWriteOutput(const std::filesystem::path &path, Over over)
{
    std::error_code code;
    const auto status = std::filesystem::status(path, code);
    if (!std::filesystem::exists(status))
        return {};
    if (!std::filesystem::is_regular_file(status))
        return fail(path.string(),
                    std::filesystem::is_directory(status) ? "cannot be written: it is a folder"
                                                          : "cannot be written: it is a device");
    if (isBuildFile(path))
        return fail(path.string(), "is a build and is not written over; choose another name");
    if (over == Over::Nothing)
        return fail(path.string(), "is there already; --force writes over it");
    return {};
}

Result<void> writeOutput(const std::filesystem::path &path, const std::string &text, Over over)
{
    if (auto ok = mayWriteOutput(path, over); !ok)
        return ok;
    return writeTextFile(path, text);
}

std::optional<FileStamp> stampOf(const std::filesystem::path &path)
{
    struct stat is;
    if (::stat(path.c_str(), &is) != 0)
        return std::nullopt;
    return FileStamp { is.st_dev, is.st_ino, static_cast<std::uint64_t>(is.st_size),
                       static_cast<std::int64_t>(is.st_mtim.tv_sec) * 1'000'000'000
                           + is.st_mtim.tv_nsec };
}

} // namespace mildpath
