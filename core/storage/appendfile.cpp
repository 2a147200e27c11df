// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/appendfile.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

namespace mildpath {

Result<Appending> startAppending(const std::filesystem::path &folder,
                                 const std::function<std::string(int)> &name)
{
    std::error_code code;
    std::filesystem::create_directories(folder, code);
    if (code)
        return fail(folder.string(), "cannot be made: " + code.message());
    // What a build holds concerns its owner alone.
    std::filesystem::permissions(folder, std::filesystem::perms::owner_all, code);
    Appending out;
    for (int number = 1; out.fd < 0; ++number) {
        out.path = folder / name(number);
        out.fd = ::open(out.path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_APPEND | O_CLOEXEC, 0600);
        if (out.fd < 0 && errno != EEXIST)
            return fail(out.path.string(),
                        std::string("cannot be written: ") + std::strerror(errno));
    }
    ::flock(out.fd, LOCK_EX | LOCK_NB);
    return out;
}

Result<void> appendText(int fd, const std::filesystem::path &path, const std::string &text)
{
    size_t done = 0;
    while (done < text.size()) {
        const ssize_t n = ::write(fd, text.data() + done, text.size() - done);
        if (n < 0 && errno == EINTR)
            continue;
        if (n < 0)
            return fail(path.string(), std::string("cannot be written: ") + std::strerror(errno));
        done += static_cast<size_t>(n);
    }
    return {};
}

bool heldByAnother(const std::filesystem::path &path)
{
    const int fd = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    if (fd < 0)
        return true;
    const bool held = ::flock(fd, LOCK_EX | LOCK_NB) != 0;
    ::close(fd);
    return held;
}

} // namespace mildpath
