// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/extrakeys.h"
#include "quantity/result.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// Reads one JSON object key by key, collects every error with its JSON pointer instead of stopping
/// at the first, and afterwards hands over the keys nobody asked for.
///
/// A failed read returns the fallback, so reading can go on; the caller checks `errors` at the end.
class JsonReader
{
public:
    /// @param object  if it is not an object, that is the first error
    /// @param place   JSON pointer of the object ("" for the root)
    /// @param errors  receives the errors; must outlive the reader
    JsonReader(const Json &object, std::string place, std::vector<Error> &errors);

    const std::string &place() const { return m_place; }
    std::string placeOf(const std::string &key) const { return m_place + "/" + key; }
    bool has(const std::string &key) const;

    /// A number that must be there; missing, null, text, boolean or not finite is an error.
    double number(const std::string &key);
    double number(const std::string &key, double fallback);
    std::optional<double> optionalNumber(const std::string &key);
    int integer(const std::string &key, int fallback);
    std::string text(const std::string &key);
    std::string text(const std::string &key, const std::string &fallback);
    bool boolean(const std::string &key, bool fallback);
    /// The array under the key, or an empty one; something else there is an error.
    const Json &array(const std::string &key);
    /// The object under the key, or an empty one; something else there is an error.
    const Json &object(const std::string &key);

    void error(const std::string &key, Phrase message);
    /// The value under the key, null where there is none; counts as read.
    const Json *value(const std::string &key) { return find(key); }
    /// The keys that were in the object and never read, with their values.
    Json leftOver() const;

private:
    const Json *find(const std::string &key);

    const Json *m_object;
    std::string m_place;
    std::vector<Error> &m_errors;
    std::vector<const Json *> m_read; ///< values that were asked for; a few, so a list is quickest
};

/// Parses text; the error tells line and column.
Result<Json> parseJson(const std::string &text);

} // namespace mildpath
