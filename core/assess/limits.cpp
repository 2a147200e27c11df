// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/limits.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double sameFigure = 1e-9;

} // namespace

std::optional<double> LimitedFigure::margin() const
{
    std::optional<double> out;
    if (least)
        out = value - *least;
    if (most)
        out = std::min(out.value_or(*most - value), *most - value);
    return out;
}

Evident evidentOf(const LimitedFigure &figure)
{
    const auto margin = figure.margin();
    if (!margin)
        return Evident::Unsure;
    const double same = sameFigure * (1 + std::abs(figure.value));
    if (*margin < -figure.expanded - same)
        return Evident::No;
    const bool inside = *margin >= -same;
    return inside && *margin >= figure.expanded - same ? Evident::Yes : Evident::Unsure;
}

bool disagree(const LimitedFigure &a, const LimitedFigure &b)
{
    return std::abs(a.value - b.value) > std::hypot(a.expanded, b.expanded) + sameFigure;
}

} // namespace mildpath
