// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/elementkind.h"
#include "quantity/jsonreader.h"
#include "quantity/numberkey.h"
#include "quantity/result.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// The node every return flows to; fixed at 0 gauge.
inline constexpr std::string_view sumpNode = "sump";

/// One hydraulic element as written in a file. Its keys and their ranges belong to its kind
/// (circuit/elementtypes.h).
struct Element
{
    std::string id;
    ElementKind kind {};
    std::string from, to; ///< positive flow runs from → to
    std::map<std::string, double> values;
    ExtraKeys extra {}; ///< keys this version does not know, kept

    /// As entered, or what is usual for its kind; 0 where neither is.
    double value(std::string_view key) const;
    /// The same, by the keys of its kind.
    double value(std::string_view key, std::span<const NumberKey> keys) const;
    bool operator==(const Element &) const = default;
};

/// Film rise of the bearings above the sump (K): base + perKrpm × rev/min / 1000.
/// Own choice between cold and hot energy balances, no source.
struct BearingRise
{
    double base_k = 5;
    double perKrpm_k = 4;
    bool operator==(const BearingRise &) const = default;
};

/// A lubrication circuit: elements between named nodes.
struct Circuit
{
    std::vector<Element> elements;
    BearingRise bearingRise;
    std::map<std::string, std::string> taps; ///< gauge taps: name → node
    std::map<std::string, double> fixed_kpa; ///< further nodes of known pressure (a tank)
    ExtraKeys extra {};

    const Element *find(std::string_view id) const;
    Element *find(std::string_view id);
    bool operator==(const Circuit &) const = default;
};

/// Reads a circuit; every error goes to `errors` with its JSON pointer. Element keys that the kind
/// does not know are kept in `extra`. Sense (paths, ranges) is checked by Network::compile().
Circuit circuitFromJson(const Json &json, const std::string &place, std::vector<Error> &errors);
Element elementFromJson(const Json &json, const std::string &place, std::vector<Error> &errors);

Json circuitToJson(const Circuit &circuit);
/// What such JSON may be, as JSON Schema.
Json circuitSchema();
Json elementToJson(const Element &element);

} // namespace mildpath
