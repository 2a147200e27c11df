// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace mildpath {

/// The far end of a serial cable for a simulated device: a pseudo-terminal that others open by
/// path.
class PseudoTerminal
{
public:
    PseudoTerminal() = default;
    PseudoTerminal(const PseudoTerminal &) = delete;
    PseudoTerminal &operator=(const PseudoTerminal &) = delete;
    ~PseudoTerminal();

    /// @param link  symbolic link to make to it; empty: none
    /// @return why it failed; empty: it is there
    std::string open(const std::string &link);
    /// What others open.
    const std::string &path() const { return m_path; }
    /// Sends a line; one that nobody reads is lost, the device goes on.
    /// @return false when the terminal is gone
    bool send(std::string_view text);

private:
    int m_port = -1;
    std::string m_path, m_link;
};

} // namespace mildpath
