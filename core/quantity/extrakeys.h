// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json_fwd.hpp>

#include <memory>

namespace mildpath {

/// Key order is kept, so a file that is read and written again differs only where it was edited.
/// Complete in quantity/json.h.
using Json = nlohmann::ordered_json;

/// The keys of a JSON object that this version does not know, kept so that they are written back.
/// A value: immutable and shared, so that copying a document does not copy them.
class ExtraKeys
{
public:
    ExtraKeys() = default; ///< none
    ExtraKeys(const Json &object);

    const Json &json() const; ///< an object, empty when there are none
    bool operator==(const ExtraKeys &other) const;

private:
    std::shared_ptr<const Json> m_json; ///< null when there are none
};

} // namespace mildpath
