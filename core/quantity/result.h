// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"

#include <string>
#include <tl/expected.hpp>

namespace mildpath {

/// What went wrong with something a user gave us, said so that it can be mended.
struct Error
{
    /// Where: a key as in the JSON (`journal_mm`), or a JSON pointer (`/circuit/elements/3/d_mm`).
    std::string place;
    /// Why, with the offending value and what is permitted.
    Phrase message;

    bool operator==(const Error &) const = default;
};

/// A value, or the reason why there is none. Errors are values at every edge of the core.
template <class T> using Result = tl::expected<T, Error>;

/// Whether it was done, without what came of it.
template <class T> Result<void> outcome(const Result<T> &result)
{
    return result ? Result<void>() : tl::unexpected(result.error());
}

/// The failed branch of a Result.
inline tl::unexpected<Error> fail(std::string place, Phrase message)
{
    return tl::unexpected<Error>(Error { std::move(place), std::move(message) });
}

} // namespace mildpath
