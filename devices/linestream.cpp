// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/linestream.h"

#include <utility>

namespace mildpath {

std::vector<std::optional<std::string>> LineStream::take(std::string_view bytes)
{
    std::vector<std::optional<std::string>> out;
    for (const char c : bytes) {
        if (c != '\n' && c != '\r') {
            if (m_line.size() < m_longest)
                m_line += c;
            else
                m_tooLong = true;
            continue;
        }
        // What was joined midway may lack its first digits and still look like a number.
        const bool whole = std::exchange(m_joined, true);
        if (m_line.empty())
            continue; // the other half of CR LF
        if (whole) {
            if (m_tooLong)
                out.push_back(std::nullopt);
            else
                out.push_back(m_line);
        }
        m_line.clear();
        m_tooLong = false;
    }
    return out;
}

void LineStream::forgetHalfLine()
{
    m_line.clear();
    m_tooLong = false;
    m_joined = false;
}

std::string printableLine(std::string_view line)
{
    std::string out;
    for (const char c : line.substr(0, 24))
        out += c >= 32 && c < 127 ? c : '?';
    return out;
}

} // namespace mildpath
