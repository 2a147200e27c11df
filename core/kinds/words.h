// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// The words an enumeration has in files, in the order of its values, which begin at 0; specialised
/// beside each. Text becomes a kind where it is read and nowhere else.
template <class E> std::span<const std::string_view> enumWords();

template <class E> std::string_view wordOf(E value)
{
    return enumWords<E>()[static_cast<size_t>(value)];
}
/// @return nothing for a word that is none of them
template <class E> std::optional<E> fromWord(std::string_view word)
{
    const auto words = enumWords<E>();
    const auto at = std::find(words.begin(), words.end(), word);
    if (at == words.end())
        return std::nullopt;
    return static_cast<E>(at - words.begin());
}

/// All of them, in their order.
template <class E> std::vector<E> everyKind()
{
    std::vector<E> out;
    for (size_t i = 0; i < enumWords<E>().size(); ++i)
        out.push_back(static_cast<E>(i));
    return out;
}

} // namespace mildpath
