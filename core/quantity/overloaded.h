// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace mildpath {

/// One visitor out of several lambdas.
template <class... Ts> struct Overloaded : Ts...
{
    using Ts::operator()...;
};
template <class... Ts> Overloaded(Ts...) -> Overloaded<Ts...>;

} // namespace mildpath
