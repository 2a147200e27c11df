// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/engineplan.h"

#include "quantity/json.h"
#include "quantity/jsonreader.h"

namespace mildpath {

EnginePlan planFromJson(const Json &json, std::vector<Error> &errors)
{
    JsonReader in(json, "", errors);
    EnginePlan p;
    for (const auto &[key, member] :
         { std::pair("name", &EnginePlan::name), std::pair("layout", &EnginePlan::layout),
           std::pair("block", &EnginePlan::block), std::pair("main_cap", &EnginePlan::mainCap),
           std::pair("valve_gear", &EnginePlan::valveGear), std::pair("order", &EnginePlan::order),
           std::pair("overhead", &EnginePlan::overhead), std::pair("oil", &EnginePlan::oil) })
        p.*member = in.text(key, p.*member);
    for (const auto &[key, member] : { std::pair("bore_mm", &EnginePlan::bore_mm),
                                       std::pair("stroke_mm", &EnginePlan::stroke_mm),
                                       std::pair("hot_idle_rpm", &EnginePlan::hotIdle_rpm),
                                       std::pair("most_rpm", &EnginePlan::most_rpm) })
        p.*member = in.number(key, p.*member);
    for (const auto &[key, member] :
         { std::pair("solid_lifters", &EnginePlan::solidLifters),
           std::pair("dry_sump", &EnginePlan::drySump),
           std::pair("remote_filter", &EnginePlan::remoteFilter),
           std::pair("cooler", &EnginePlan::cooler), std::pair("jets", &EnginePlan::jets),
           std::pair("tensioner", &EnginePlan::tensioner),
           std::pair("phasers", &EnginePlan::phasers), std::pair("turbo", &EnginePlan::turbo),
           std::pair("balance_shafts", &EnginePlan::balanceShafts) })
        p.*member = in.boolean(key, p.*member);
    p.cylinders = in.integer("cylinders", p.cylinders);
    if (!in.leftOver().empty())
        in.error(in.leftOver().begin().key(), "is no part of an engine's description");
    return p;
}

} // namespace mildpath
