// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/laws.h"
#include "quantity/numberkey.h"
#include "quantity/result.h"

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace mildpath {

/// A type of element. A new one is a law in laws.cpp and a row in elementtypes.cpp.
struct ElementType
{
    ElementKind kind;
    std::string_view meaning;
    std::span<const NumberKey> keys;
    std::unique_ptr<Law> (*make)(const ElementValues &);
};

/// A journal bearing of either law.
bool isBearing(const Element &element);

/// What a pump's rotors move in a turn by their sizes (m³); 0: they are not known.
double rotorsDisplacement_m3(const Element &pump);
/// What a pump moves in a turn (m³): as entered, else as its rotors' sizes give.
double pumpDisplacement_m3(const Element &pump);

/// The catalogue of element types, in the order of the help text.
std::span<const ElementType> elementTypes();
const ElementType &elementType(ElementKind kind);
/// `count`, `duty`, `dt_k`: understood by every type.
std::span<const NumberKey> commonElementKeys();
/// Comma-separated, for messages.
std::string elementTypeNames();

/// The law of an element.
std::unique_ptr<Law> makeLaw(const Element &element);

/// Checks every value of an element against its type's ranges and cross-conditions.
/// Errors: key = the offending key.
Result<void> checkElement(const Element &element);

/// The key's definition for this element type, common keys included; null if it has none.
const NumberKey *findElementKey(ElementKind kind, std::string_view key);

} // namespace mildpath
