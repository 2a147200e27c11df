// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What was read off gauges, heard, and seen to flow; and what might be wrong.

/// A pressure read on the engine.
struct GaugeReading : Record
{
    std::string tap; ///< of the circuit
    double rpm = 0; ///< crankshaft; of the pump's shaft where a drill turned it
    double oil_c = 0; ///< in the sump
    double pressure_kpa = 0;
    double u_kpa = usualGaugeU_kpa; ///< standard uncertainty of gauge and eye
    std::string oil; ///< grade; empty: the build's
    bool byDrill = false; ///< the pump alone was turned, the crank at rest
    bool operator==(const GaugeReading &) const = default;

    /// 0.05 bar, own choice: a workshop gauge read to half a division.
    static constexpr double usualGaugeU_kpa = 5;
};

/// A symptom heard or seen, or said not to be there.
struct Symptom : Record
{
    std::string symptom; ///< see symptomKinds()
    bool there = true;
    std::string sound, heard; ///< of a noise, see noiseSounds() and noiseTimes(); empty: not said
    std::optional<double> gone_above_rpm; ///< a noise that stops above a speed
    bool operator==(const Symptom &) const = default;
};

/// Oil or fluid seen to come out somewhere.
struct FlowSeen : Record
{
    std::string stop;
    int outlet = 0; ///< see flowOutlets() of the stop; 0: all of them
    std::string saw; ///< flows, weak or dry
    std::string means; ///< pressure_pot, drill, starter, running
    std::string oil; ///< what was in it; empty: not said
    std::string filter; ///< fitted while looking; empty: not said
    std::optional<double> oil_c;
    std::optional<double> pressure_kpa; ///< of the pot or at the gauge
    std::optional<double> litres, seconds; ///< what came out in how long, where it was caught
    bool operator==(const FlowSeen &) const = default;
};

/// One thing wrong, and how much of it. The kinds and what they do to the oil: diagnose/faults.h.
struct Fault
{
    std::string kind;
    std::string stop;
    int item = 0; ///< which of several alike at the stop; 0: the usual one, or all
    double severity = 1; ///< 0 nothing … 1 the worst that is looked at
    bool operator==(const Fault &) const = default;
};

/// A dimension of the circuit made otherwise: a drilling opened up, a restrictor fitted.
struct ElementChange
{
    std::string element;
    std::string key; ///< unit-suffixed, of the element's type
    double value = 0;
    bool operator==(const ElementChange &) const = default;
};

/// Faults, or changes to the engine, imagined together and kept.
struct Scenario : Record
{
    std::string name;
    std::vector<Fault> faults;
    std::vector<ElementChange> changes; ///< passages and parts made otherwise
    bool operator==(const Scenario &) const = default;
};

/// A symptom and the faults that make it. Source: own choice (docs/theory/diagnosis.md).
struct SymptomKind
{
    std::string_view id;
    std::string_view text;
    /// Kinds of fault; "lifter_swarf" is swarf at a lifter stop, "lifter_plug_missing" a plug
    /// behind one.
    std::vector<std::string_view> likely, possible;
};
std::span<const SymptomKind> symptomKinds();
/// @return null for an unknown id.
const SymptomKind *findSymptomKind(std::string_view id);

/// A noise that speaks for nothing in the table of symptoms.
inline constexpr std::string_view otherNoise = "noise_other";
/// What a noise is like, and when it is heard.
struct NoiseWord
{
    std::string_view id, text;
};
std::span<const NoiseWord> noiseSounds();
std::span<const NoiseWord> noiseTimes();
/// The symptom a noise is, by what it is like and when it is heard; otherNoise where the table has
/// none. Source: own choice (docs/theory/diagnosis.md).
std::string_view symptomOf(std::string_view sound, std::string_view heard);

/// Ways to see oil come, and what may be seen.
std::span<const std::string_view> flowMeans();
std::span<const std::string_view> flowSights();

template <> const RecordType &recordType<GaugeReading>();
template <> const RecordType &recordType<Symptom>();
template <> const RecordType &recordType<FlowSeen>();
template <> const RecordType &recordType<Scenario>();

} // namespace mildpath
