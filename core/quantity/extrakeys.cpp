// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/json.h"

namespace mildpath {

ExtraKeys::ExtraKeys(const Json &object)
    : m_json(object.empty() ? nullptr : std::make_shared<const Json>(object))
{
}

const Json &ExtraKeys::json() const
{
    static const Json none = Json::object();
    return m_json ? *m_json : none;
}

bool ExtraKeys::operator==(const ExtraKeys &other) const
{
    return m_json == other.m_json || json() == other.json();
}

} // namespace mildpath
