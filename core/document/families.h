// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/elementkind.h"
#include "kinds/stopkind.h"
#include "quantity/numberkey.h"
#include "rules/rules.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;
struct Stop;

/// A way of measuring a size.
struct Method
{
    std::string_view id; ///< as in a file
    std::string_view name; ///< "bore gauge zeroed on the journal"
    std::string_view instrument; ///< usual name of what is used
    int strength; ///< the strongest method present decides; a weaker one only compares
    double u_um; ///< usual standard uncertainty of one reading
    std::string_view source; ///< of u
    bool onlyCheck; ///< says "look", never "proven", unless the builder chose otherwise
};
std::span<const Method> methods();
/// @return null for an unknown id.
const Method *findMethod(std::string_view id);

/// What an oiled rod does on its journal: a band, not a figure. Common practice, no source.
struct DropFeel
{
    std::string_view id;
    std::string_view words;
    double low_um, high_um; ///< at least ± 10 µm round what the saying means
};
std::span<const DropFeel> dropFeels();
const DropFeel *findDropFeel(std::string_view id);

/// Where the readings of a family are taken.
enum class PlanKind {
    Shell, ///< bearing with shells: three lines at two stations
    Bush, ///< round bush or bore: upright at two stations
    Single, ///< one place
    Spots, ///< two places
    Lobes, ///< every lobe of the rotor
};

/// What of the readings is held against the limits.
enum class Summary {
    Upright, ///< mean of the readings 90° from the parting line
    Mean, ///< mean of all
    Widest, ///< the largest
};

/// The part round a journal, as far as growth goes.
enum class HousingPart { None, Block, Rod };

/// A kind of size that is measured alike on several stops or parts of an engine, with limits of its
/// own. A new family is a row here.
struct Family
{
    std::string_view id; ///< key in the document's `limits` and `readings`
    StopKind stopKind;
    std::string_view plural; ///< "Main bearings"
    std::string_view tab; ///< short name
    std::string_view quantity; ///< "diametral clearance"
    std::string_view itemName; ///< "Cam", with a number where the stop names none
    std::optional<ElementKind> element; ///< of the circuit, either law of a bearing; none: none
    std::string_view elementKey;
    PlanKind plan;
    Summary summary;
    HousingPart housing;
    bool shells; ///< selected shells, a parting line, a cap
    bool optional; ///< its absence does not leave the stop's size open
    std::string_view needsKey; ///< stop key that must be above 0 for the family to be there
    std::span<const std::string_view> methods; ///< the first is the usual one
};
std::span<const Family> families();
/// @return null for an unknown id.
const Family *findFamily(std::string_view id);

/// One place in the plan of readings of a size.
struct ReadingPosition
{
    int station; ///< from the front; lobe or spot number
    double angle_deg; ///< from the parting line; 90 where there is none
    std::string name; ///< of the line: "A upright", "lobe 3"
};
/// In the order they are taken.
std::vector<ReadingPosition> readingPlan(const Family &family, const Stop &stop);
/// "front", "rear", "lobe 2" …
std::string stationName(const Family &family, int station);

/// One thing of a family that is measured: a bearing, a bush, the pump's tips.
struct SizeItem
{
    const Family *family;
    const Stop *stop;
    int item; ///< from 1 within the stop
    std::string name; ///< "Main 4", "Cam 2"
    std::string element; ///< of the circuit; empty without one
};
/// Everything an engine has to measure, family by family, in oil order.
std::vector<SizeItem> sizeItems(const Build &build);

/// Numbers that belong to a stop and are no dimension of a circuit element; grouped by its kind.
std::span<const NumberKey> stopKeys();
/// @return null where a stop of this kind has no such key.
const NumberKey *findStopKey(StopKind stopKind, std::string_view key);

} // namespace mildpath
