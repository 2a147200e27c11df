// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/valuekey.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;
struct Engine;

// The sump as the document has it: sections, what hangs in them, what becomes of the fill.

/// A corner of a section. Across: x to the right, seen from the flywheel; along: x to the rear. z
/// up from the lowest inside point of the pan.
struct PanPoint
{
    double x_mm = 0, z_mm = 0;
    bool operator==(const PanPoint &) const = default;
};
/// Litres poured into the bare pan and how high they stood.
struct BenchFill
{
    double height_mm = 0, litres = 0;
    bool operator==(const BenchFill &) const = default;
};

/// Which way a section looks.
enum class PanWay { Along, Across };

struct Sump
{
    std::vector<PanPoint> along,
        across; ///< simple polygons, the crankcase's room included; empty: not known
    std::vector<BenchFill> benchFill; ///< the sections were made from it; empty: they were not
    std::string shape; ///< preset they were made from; empty: typed
    OwnValues values; ///< by sumpKeys()
    std::string coolant, fuel; ///< in the oil: none, suspected, confirmed; empty: not said
    ExtraKeys extra {};

    const std::vector<PanPoint> &section(PanWay way) const
    {
        return way == PanWay::Along ? along : across;
    }
    /// As entered; absent where nothing was.
    std::optional<double> own(std::string_view key) const;
    /// As entered, or what is usual; absent where neither is.
    std::optional<double> value(std::string_view key) const;
    /// The same of a key in millimetres, in metres.
    std::optional<double> metres(std::string_view key) const;
    bool operator==(const Sump &) const = default;
};

std::span<const NumberKey> sumpKeys();
/// @return null for an unknown key
const NumberKey *findSumpKey(std::string_view key);

/// Fields that belong together, in the order they are asked.
struct SumpGroup
{
    std::string_view id, title;
    bool drySump; ///< only for an engine with a tank
};
std::span<const SumpGroup> sumpGroups();

/// What foreign matter in the oil may be said to be.
std::span<const std::string_view> foreignWords();

/// A usual shape of pan.
struct PanShape
{
    std::string_view id, name;
};
std::span<const PanShape> panShapes();

/// Sizes a shape is made from.
struct PanSizes
{
    double length_mm, width_mm; ///< inside
    double bowlLength_mm, bowlDepth_mm; ///< of the deep part, below the shallow floor
    double crank_mm; ///< crank centre over the shallow floor
    double sweep_mm; ///< radius swept by the crank
};
/// In proportion to an engine: a beginning to be corrected. Own choice, no source.
PanSizes usualPanSizes(const Engine &engine, double fill_l);
/// A sump of a shape: sections, widths, crank and pickup where they usually are.
Sump shapedSump(std::string_view shape, const PanSizes &sizes);
/// The usual sump of an engine, its fill included.
Sump usualSump(const Build &build);

/// Sections anew, or typed over. An empty section is taken away.
struct SetPan
{
    std::vector<PanPoint> along, across;
    std::vector<BenchFill> benchFill;
    std::string shape;
    /// Numbers that go with the sections; the others stay.
    OwnValues values;
    bool operator==(const SetPan &) const = default;
};
/// A number of the sump; absent takes it away.
struct SetSumpValue
{
    std::string key;
    std::optional<double> value;
    bool operator==(const SetSumpValue &) const = default;
};
/// Coolant or fuel in the oil.
struct SetForeign
{
    bool fuel;
    std::string word;
    bool operator==(const SetForeign &) const = default;
};

/// Sections that hold what was measured in the bare pan, as long and wide as the sump says.
/// Errors: `bench_fill/2`, `pan_length_mm`, `pan_width_mm`.
Result<SetPan> panFromBenchFill(const Sump &sump, std::vector<BenchFill> steps);

template <> const RecordType &recordType<PanPoint>();
template <> const RecordType &recordType<BenchFill>();
template <> const RecordType &recordType<Sump>();
/// Faults of sense: sections that cross themselves, values out of range, a pickup outside the pan,
/// a crank under its floor.
void checkSump(const Build &build, std::vector<Error> &errors);

} // namespace mildpath
