// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/files.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <sstream>
#include <unistd.h>

namespace mildpath {
namespace {

constexpr std::uintmax_t mostBytes = 64u << 20;

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

} // namespace

Result<std::string> readTextFile(const std::filesystem::path &path)
{
    std::error_code code;
    if (std::filesystem::is_directory(path, code))
        return fail(path.string(), "is a folder, not a file");
    const auto size = std::filesystem::file_size(path, code);
    if (code)
        return fail(path.string(), "cannot be read: " + code.message());
    if (size > mostBytes)
        return fail(path.string(), "is larger than 64 MiB; no build is");
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return failWithErrno(path, "cannot be read");
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

Result<void> writeTextFile(const std::filesystem::path &path, const std::string &text)
{
    std::filesystem::path temporary = path;
    temporary += ".new-" + std::to_string(::getpid());
    {
        const Descriptor file { ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC,
                                       0644) };
        if (file.fd < 0)
            return failWithErrno(path, "cannot be written");
        size_t done = 0;
        while (done < text.size()) {
            const ssize_t n = ::write(file.fd, text.data() + done, text.size() - done);
            if (n < 0 && errno == EINTR)
                continue;
            if (n < 0) {
                const auto error = failWithErrno(path, "cannot be written");
                ::unlink(temporary.c_str());
                return error;
            }
            done += static_cast<size_t>(n);
        }
        if (::fsync(file.fd) != 0) {
            const auto error = failWithErrno(path, "cannot be written");
            ::unlink(temporary.c_str());
            return error;
        }
    }
    if (::rename(temporary.c_str(), path.c_str()) != 0) {
        const auto error = failWithErrno(path, "cannot be replaced");
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

} // namespace mildpath
