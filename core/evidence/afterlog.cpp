// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/afterlog.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

// Common practice, no source.
constexpr std::array cutKindRows {
    CutKind { "bright", "bright, soft, not magnetic", "alloy or bearing overlay", false },
    CutKind { "copper", "copper colour", "bearing underlayer, bush", true },
    CutKind { "magnetic", "magnetic", "iron or steel", false },
    CutKind { "black", "black, hard", "burnt oil, guide plastic", false },
    CutKind { "pliable", "pliable, grey or black", "sealant", false },
};
constexpr std::array<std::string_view, 2> phaseWords { "before", "after" };

} // namespace

std::span<const CutKind> cutKinds()
{
    return cutKindRows;
}

const CutKind *findCutKind(std::string_view id)
{
    for (const CutKind &k : cutKindRows)
        if (k.id == id)
            return &k;
    return nullptr;
}

std::span<const std::string_view> phases()
{
    return phaseWords;
}

std::optional<int> FilterCut::count(std::string_view kind) const
{
    const auto pleats = count(kind, "pleats"), can = count(kind, "can");
    if (!pleats && !can)
        return std::nullopt;
    return pleats.value_or(0) + can.value_or(0);
}

std::optional<int> FilterCut::count(std::string_view kind, std::string_view where) const
{
    std::optional<int> out;
    for (const DebrisCount &c : counts)
        if (c.kind == kind && c.where == where)
            out = out.value_or(0) + c.count;
    return out;
}

Heights::Heights(std::vector<double> z_um)
    : m_z(std::make_shared<const std::vector<double>>(std::move(z_um)))
{
}

std::span<const double> Heights::um() const
{
    return m_z ? std::span<const double>(*m_z) : std::span<const double>();
}

bool Heights::operator==(const Heights &other) const
{
    return m_z == other.m_z || std::ranges::equal(um(), other.um());
}

} // namespace mildpath
