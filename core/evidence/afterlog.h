// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"

#include <map>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What a run leaves to look at: the filter cut open, the oil analysed, the engine opened and gauged
// again, how rings and bore seal.

/// Particles of one kind in one place of a filter. A kind nobody looked for has no entry; 0 says
/// that it was looked for and there was none.
struct DebrisCount
{
    std::string kind; ///< see cutKinds()
    std::string where = "pleats"; ///< pleats or can
    int count = 0;
    std::optional<double> largest_mm;
    bool operator==(const DebrisCount &) const = default;
};

/// A filter cut open.
struct FilterCut : Record
{
    double engine_h = 0; ///< hours of the engine since the build
    double filter_h = 0; ///< hours this filter saw oil
    double area_cm2 = 0; ///< of the medium spread out and looked at
    std::vector<DebrisCount> counts;
    std::string settled; ///< what was done about what it showed; empty: open
    /// Particles of a kind, in pleats and can together; absent: not looked for.
    std::optional<int> count(std::string_view kind) const;
    std::optional<int> count(std::string_view kind, std::string_view where) const;
    bool operator==(const FilterCut &) const = default;
};

/// Kinds of particle a cut tells apart. What they may be: common practice, no source.
struct CutKind
{
    std::string_view id, name;
    std::string_view means;
    bool always; ///< a finding however few
};
std::span<const CutKind> cutKinds();
const CutKind *findCutKind(std::string_view id);

/// An oil analysis: of the new oil, or of oil that ran.
struct OilSample : Record
{
    std::string of = "used"; ///< used or new
    std::string
        oil; ///< which oil and batch; used oil is compared with the new oil of the same word
    double engine_h = 0; ///< used: hours of the engine
    double oil_h = 0; ///< used: hours this fill has run
    double added_kg = 0; ///< topped up since the fill
    std::map<std::string, double> elements; ///< mg/kg by symbol, see knownOilElements()
    std::optional<double> water_percent, fuel_percent; ///< by mass
    std::optional<double> kv40_mm2_s, kv100_mm2_s;
    std::string settled; ///< what was done about what it showed; empty: open
    bool operator==(const OilSample &) const = default;
};

/// The engine opened again: what is gauged after this entry is after the run.
struct Opening : Record
{
    double engine_h = 0;
    int readings = 0; ///< how many readings the logbook held by then
    bool operator==(const Opening &) const = default;
};

/// Blow-by or crankcase vacuum at one speed and load.
struct SealCheck : Record
{
    std::string kind; ///< blow_by or vacuum
    std::string phase = "before"; ///< before or after what was changed
    double rpm = 0;
    double load_percent = 0;
    double value = 0; ///< blow-by: l/min as read; vacuum: kPa below the air outside
    double gas_c = 25, gas_kpa = 101.325; ///< blow-by: of the gas at the meter, absolute
    std::optional<double> pump_rpm, relief_kpa; ///< vacuum
    bool operator==(const SealCheck &) const = default;
};

/// Heights of a trace (µm). A value: immutable and shared, so that copying a document does not copy
/// them.
class Heights
{
public:
    Heights() = default;
    Heights(std::vector<double> z_um);
    std::span<const double> um() const;
    size_t size() const { return um().size(); }
    bool operator==(const Heights &other) const;

private:
    std::shared_ptr<const std::vector<double>> m_z;
};

/// A stylus trace of a bore.
struct BoreTrace : Record
{
    int bore = 1; ///< cylinder
    std::string phase = "before"; ///< before or after finishing strokes
    std::string place; ///< "mid stroke, thrust side"
    std::string source; ///< file it was read from
    double spacing_um = 0;
    Heights z;
    bool operator==(const BoreTrace &) const = default;
};

/// before, after
std::span<const std::string_view> phases();

template <> const RecordType &recordType<FilterCut>();
template <> const RecordType &recordType<OilSample>();
template <> const RecordType &recordType<Opening>();
template <> const RecordType &recordType<SealCheck>();
template <> const RecordType &recordType<BoreTrace>();

} // namespace mildpath
