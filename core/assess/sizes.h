// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/growth.h"
#include "assess/rules.h"
#include "bearing/clearance.h"
#include "bearing/shellform.h"
#include "document/document.h"
#include "quantity/rounding.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// One standing reading as the judgement sees it.
struct JudgedReading
{
    std::string id;
    std::string method;
    int station;
    double angle_deg;
    double read_um; ///< as read
    double at20_um; ///< normalised to 20 °C
    double u_um; ///< standard, repeats included
    ReadingUse use;
    bool pastLimit; ///< by itself, whatever the mean says
    bool unlikely; ///< kept, but worth a second look
};

/// What one method says of a size.
struct MethodResult
{
    std::string method;
    int readings = 0; ///< that count
    Measured value_um { 0, 0 };
    double low_um = 0, high_um = 0; ///< about 95 %; the band itself for a feel
    double taper_um = 0;
};

/// What a pair of shells leaks over a round bore, as read, else as shells usually are.
struct ShellLeak
{
    ShellShape shape;
    bool read = false; ///< its wall's eccentricity, on the flanks
    ShellGeometry bearing {}; ///< length 0: fed so that the shells' shape does not count
    /// Logarithm of the factor, by a standard deviation of what is usual.
    double byEccentric_ln = 0, byRelief_ln = 0;
    /// At an upright clearance, within 0.2…10; 1 where the shape does not count.
    double factorAt(double upright_um) const;
};

/// A size that is measured: readings → value → verdict.
struct GaugedSize
{
    std::string stop;
    std::string family;
    int item = 1;
    std::string name; ///< "Main 4", "Cam 2"
    std::string element; ///< of the circuit; empty without one
    std::vector<JudgedReading> readings;
    std::vector<MethodResult> methods; ///< the deciding one first
    std::optional<BoreForm> form; ///< of the deciding method's counted readings at 20 °C
    std::optional<ShellLeak> leak; ///< of a pair of shells
    bool measured = false; ///< false: middle of the limits, assumed
    bool known = true; ///< false: neither measured nor limited, there is no value
    Measured cold_um { 0, 0 }; ///< at 20 °C; diametral where it is a clearance
    double circuit_um = 0; ///< what the circuit takes: lobes that differ count by their cube
    double running_um = 0; ///< at hot oil
    double coldestStart_um = 0; ///< block and crank at the coldest start
    /// Where it reaches a floor on cooling, block and crank alike (°C); absent where cold does not
    /// close it, or only below −80 °C.
    std::optional<double> closesAt_c(double floor_um) const;
    Growth growth;
    SettledParts settled;
    /// µm, with the parts at these temperatures.
    double at(const PartTemperatures &parts) const { return circuit_um + growth.change_um(parts); }
    double runningAt(double oil_c) const; ///< µm, settled at this oil temperature
    double journal_mm = 0; ///< 0: no growth is computed
    double rule_um = 0; ///< a thousandth of the journal (common practice); 0 without one
    std::optional<Limits> limits;
    Mark mark = Mark::NotDone;
    Phrase verdict; ///< one line
    Phrase next; ///< what to do
    Phrase disagreement; ///< between methods; empty: none
    std::string method() const { return methods.empty() ? "" : methods.front().method; }
};

/// A family in one line.
struct FamilySummary
{
    std::string family;
    int items = 0, measured = 0;
    int readings = 0; ///< that count for the deciding methods
    double mean_um = 0, least_um = 0, most_um = 0; ///< of the measured items
    double taper_um = 0, outOfRound_um = 0; ///< the worst
    double expanded_um = 0; ///< U, k = 2, the largest
    Mark mark = Mark::NotDone; ///< the worst
    Phrase verdict;
    std::string weakestMethod; ///< of the deciding ones
};

/// Readings → sizes of everything that is measured, in the order of sizeItems().
std::vector<GaugedSize> judgeSizes(const Build &build);
std::vector<FamilySummary> summarise(const std::vector<GaugedSize> &sizes);

/// Sizes with every one of a family moved alike.
std::vector<GaugedSize> movedBy(std::vector<GaugedSize> sizes, const std::string &family,
                                double by_um);

/// The first of a stop: its clearance, where it has one; null without.
const GaugedSize *sizeOf(const std::vector<GaugedSize> &sizes, std::string_view stop);
const GaugedSize *sizeOf(const std::vector<GaugedSize> &sizes, std::string_view stop,
                         std::string_view family, int item);

/// Null where the engine has none of it.
const FamilySummary *familyOf(const std::vector<FamilySummary> &families, std::string_view id);
/// The shelled bearing least open at the coldest start; null without one.
const GaugedSize *coldestOf(const std::vector<GaugedSize> &sizes);

} // namespace mildpath
