// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Cuts what arrives on a serial line into lines: keeps half a line until it is whole, drops what
/// is too long to be a reading, and does not trust a first line that may have begun before we
/// listened.
class LineStream
{
public:
    explicit LineStream(size_t longest)
        : m_longest(longest)
    {
    }
    /// Whole lines without their ends, empty ones left out; absent: one that was too long.
    std::vector<std::optional<std::string>> take(std::string_view bytes);
    /// Nothing had begun when we started to listen, so the first line is whole.
    void beginsWhole() { m_joined = true; }
    /// Forgets a half line: after a pause, or when the cable was out, its start is lost.
    void forgetHalfLine();

private:
    size_t m_longest;
    std::string m_line;
    bool m_tooLong = false;
    bool m_joined = false; ///< the first line may have begun before we listened
};

/// The line as it may be shown to people: at most 24 characters, no control codes.
std::string printableLine(std::string_view line);

} // namespace mildpath
