// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "build/document.h"

#include <string>
#include <variant>

namespace mildpath {

// An edit is a value: what was done, not how. Applied to a document it makes a new one; written as
// a line it is the journal.

/// A reading at a position; if one stands there, the new one strikes it and both are kept.
struct EnterReading
{
    Reading reading; ///< id and replaces are filled in when it is applied
    bool operator==(const EnterReading &) const = default;
};
/// Takes the standing reading at a position back, keeping it struck.
struct WithdrawReading
{
    std::string stop;
    int station;
    double angle_deg;
    std::string by, at;
    bool operator==(const WithdrawReading &) const = default;
};
struct SetOil
{
    ChosenOil oil;
    bool operator==(const SetOil &) const = default;
};
struct SetUse
{
    std::string key; ///< see useKeys()
    double value;
    bool operator==(const SetUse &) const = default;
};
struct SetLimit
{
    std::string kind;
    std::string key; ///< min_um, max_um or target_um
    double value;
    bool operator==(const SetLimit &) const = default;
};
/// A dimension of a circuit element, in the unit of its key.
struct SetElementValue
{
    std::string element;
    std::string key;
    double value;
    bool operator==(const SetElementValue &) const = default;
};
struct AddProof
{
    Proof proof; ///< id is filled in when it is applied
    bool operator==(const AddProof &) const = default;
};
struct Rename
{
    std::string name;
    bool operator==(const Rename &) const = default;
};

using Edit = std::variant<EnterReading, WithdrawReading, SetOil, SetUse, SetLimit, SetElementValue,
                          AddProof, Rename>;

/// The document after the edit. Errors: the place is what was edited, the reason says what would be
/// allowed; the document given is untouched in any case.
Result<Build> applyEdit(const Build &build, const Edit &edit);

/// Whether a number may be a clearance reading at all. Errors: the reason, place empty.
Result<void> checkClearanceReading(double value_um);

/// One sentence for the Edit menu: "Main 4, front 90°: 58 µm".
std::string describeEdit(const Build &build, const Edit &edit);

Json editToJson(const Edit &edit);
Result<Edit> editFromJson(const Json &json);

} // namespace mildpath
