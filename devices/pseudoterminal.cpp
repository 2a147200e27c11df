// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/pseudoterminal.h"

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

namespace mildpath {

PseudoTerminal::~PseudoTerminal()
{
    if (!m_link.empty())
        unlink(m_link.c_str());
    if (m_port >= 0)
        close(m_port);
}

std::string PseudoTerminal::open(const std::string &link)
{
    m_port = posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK);
    if (m_port < 0 || grantpt(m_port) != 0 || unlockpt(m_port) != 0)
        return std::string("no pseudo-terminal: ") + std::strerror(errno);
    m_path = ptsname(m_port);
    // Held open and raw, so that the first line is not echoed back into the device.
    const int other = ::open(m_path.c_str(), O_RDWR | O_NOCTTY);
    termios raw {};
    tcgetattr(other, &raw);
    cfmakeraw(&raw);
    tcsetattr(other, TCSANOW, &raw);
    if (link.empty())
        return {};
    unlink(link.c_str());
    if (symlink(m_path.c_str(), link.c_str()) != 0)
        return link + ": " + std::strerror(errno);
    m_path = m_link = link;
    return {};
}

bool PseudoTerminal::send(std::string_view text)
{
    return write(m_port, text.data(), text.size()) >= 0 || errno == EAGAIN;
}

} // namespace mildpath
