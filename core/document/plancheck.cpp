// SPDX-License-Identifier: GPL-3.0-or-later
// What an engine's description may say.
#include "document/engineplan.h"

#include "oil/grades.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

constexpr std::array<int, 1> singles { 1 };
constexpr std::array<int, 5> inlines { 2, 3, 4, 5, 6 };
constexpr std::array<int, 3> flats { 2, 4, 6 };
constexpr std::array<int, 4> vees { 6, 8, 10, 12 };
constexpr std::array<LayoutChoice, 4> layouts { {
    { "single", "single", singles },
    { "inline", "inline", inlines },
    { "flat", "flat", flats },
    { "vee", "V", vees },
} };

} // namespace

Result<void> checkPlan(const EnginePlan &p)
{
    const auto choice = std::find_if(layouts.begin(), layouts.end(),
                                     [&](const LayoutChoice &l) { return l.layout == p.layout; });
    if (choice == layouts.end())
        return fail("layout", "must be single, inline, flat or vee, is \"" + p.layout + "\"");
    if (std::find(choice->cylinders.begin(), choice->cylinders.end(), p.cylinders)
        == choice->cylinders.end()) {
        std::string known;
        for (const int n : choice->cylinders)
            known += (known.empty() ? "" : ", ") + std::to_string(n);
        return fail("cylinders",
                    "must be " + known + " for " + std::string(choice->name) + ", is "
                        + std::to_string(p.cylinders));
    }
    std::vector<Error> errors;
    checkRanges(recordType<EnginePlan>(), &p, "", errors);
    if (!errors.empty())
        return fail(errors.front().place.substr(1), errors.front().message);
    if (p.mains != 0 && (p.mains < leastMains(p) || p.mains > mostMains(p)))
        return fail("mains",
                    { "plan.mains",
                      "must be {0} to {1} for {2} with {3}, is {4}",
                      { asCount(leastMains(p)), asCount(mostMains(p)), std::string(choice->name),
                        Phrase("plan.cylinders", "{0} cylinders", { asCount(p.cylinders) }),
                        asCount(p.mains) } });
    const auto oneOf = [&](const char *key, const std::string &v,
                           std::initializer_list<const char *> allowed) -> Result<void> {
        for (const char *a : allowed)
            if (v == a)
                return {};
        return fail(key, "is unknown: \"" + v + "\"");
    };
    for (const auto &r :
         { oneOf("valve_gear", p.valveGear, { "pushrods", "one_cam", "two_cams" }),
           oneOf("order", p.order, { "mains_first", "lifters_first", "lifters_series" }),
           oneOf("pump", p.pump, { "gerotor", "gear", "vane" }),
           oneOf("overhead", p.overhead, { "camshaft", "pushrods", "head" }),
           oneOf("relief_to", p.reliefTo, { "inlet", "sump" }),
           oneOf("turbo_feed", p.turboFeed, { "gallery", "filter" }),
           oneOf("phaser_feed", p.phaserFeed, { "cam", "own" }) })
        if (!r)
            return r;
    if (p.oldPumpPort && !p.drySump)
        return fail("old_pump_port", "an engine with its pump in place has no port to spare");
    if (!findShelfOil(p.oil) || findShelfOil(p.oil)->gearOil)
        return fail("oil", "there is no engine oil \"" + p.oil + "\" on the shelf");
    return {};
}

int leastMains(const EnginePlan &plan)
{
    return plan.layout == "single" ? 1 : 2;
}

int mostMains(const EnginePlan &plan)
{
    // One beside every throw; a V's rods share theirs.
    const int throws = plan.layout == "vee" ? plan.cylinders / 2 : plan.cylinders;
    return std::min(9, throws + 1);
}

int EnginePlan::mainCount() const
{
    if (mains > 0)
        return mains;
    return layout == "single" ? 2 : layout == "inline" ? cylinders + 1 : cylinders / 2 + 1;
}

std::span<const LayoutChoice> layoutChoices()
{
    return layouts;
}

} // namespace mildpath
