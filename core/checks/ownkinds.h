// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/places.h"

#include <deque>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Checks of one's own, each a kind by itself that stands at one place. Texts are kept here: the
/// kinds point to them.
class OwnKinds
{
public:
    struct Own
    {
        CheckKind kind;
        CheckPlace place; ///< its id is that of the check, as it was first written down
        std::vector<std::string> after; ///< own checks that come first, by these ids
    };

    explicit OwnKinds(const Build &build);
    OwnKinds(const OwnKinds &) = delete;
    OwnKinds &operator=(const OwnKinds &) = delete;
    const std::deque<Own> &all() const { return m_all; }

private:
    std::string_view kept(std::string text) { return m_texts.emplace_back(std::move(text)); }

    std::deque<std::string> m_texts;
    std::deque<Own> m_all;
};

} // namespace mildpath
