// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/plansizes.h"

#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// The engine the usual sizes were taken for.
constexpr double usualBore_mm = 91.4;

} // namespace

double usualMainJournal_mm(const EnginePlan &plan)
{
    return roundedToStep(60 * std::pow(plan.bore_mm / usualBore_mm, 0.85), 1);
}

double usualRodJournal_mm(const EnginePlan &plan)
{
    return roundedToStep(50 * std::pow(plan.bore_mm / usualBore_mm, 0.85), 1);
}

void putUsualLimits(Build &build, const EnginePlan &plan)
{
    const double b = plan.bore_mm / usualBore_mm;
    const auto set
        = [&](const char *family, double least, double most, double target, const char *source) {
              Limits l;
              l.min_um = std::round(least);
              l.max_um = std::round(most);
              if (target > 0)
                  l.target_um = std::round(target);
              l.source = source;
              build.limits[family] = l;
          };
    const char *common = "common practice";
    const double m = usualMainJournal_mm(plan), r = usualRodJournal_mm(plan);
    set("main", 0.58 * m, 1.08 * m, 0.80 * m, common);
    set("big_end", 0.8 * r, 1.44 * r, 1.08 * r, common);
    set("end_float", 100 * m / 60, 360 * m / 60, 180 * m / 60, common);
    set("run_out", 0, 40, 0, common);
    set("small_end", 8, 30, 0, common);
    set("pump_tip", 60, 127, 0, common);
    set("pump_end", 32, 152, 0, common);
    set("pump_body", 100, 220, 0, common);
    const double cam = plan.valveGear == "pushrods" ? 46 * b : 26 * b;
    set("cam_bearing", 28 + 0.5 * cam, 56 + 0.55 * cam, 0, common);
    if (plan.valveGear == "pushrods")
        set("lifter", 26, 46, 0, common);
    else if (!plan.solidLifters)
        set("lifter", 12, 28, 0, common);
    if (plan.balanceShafts)
        set("balance_shaft", 50 * b, 80 * b, 0, common);
}

void putUsualCards(Build &build, const EnginePlan &plan)
{
    const double b = plan.bore_mm / usualBore_mm;
    const auto numbered = [](const char *what, int n) { return what + ("_" + std::to_string(n)); };
    TorqueCard mains, rods;
    mains.id = "main_caps";
    mains.name = "Main caps";
    rods.id = "rod_caps";
    rods.name = "Rod caps";
    mains.threads = rods.threads = "oiled";
    rods.capByCap = true;
    mains.source = rods.source = std::string(wordOf(Origin::Typical));
    TorqueStage first, second;
    first.torque = roundedToStep(30 * b * b, 5);
    second.torque = roundedToStep(65 * b * b, 5);
    mains.stages = { first, second };
    first.torque = roundedToStep(20 * b * b, 5);
    second.torque = roundedToStep(45 * b * b, 5);
    rods.stages = { first, second };
    const int count = plan.mainCount();
    // From the middle outward.
    std::vector<int> order;
    for (int i = 1; i <= count; ++i)
        order.push_back(i);
    const double middle = (count + 1) / 2.0;
    std::stable_sort(order.begin(), order.end(),
                     [&](int a, int c) { return std::abs(a - middle) < std::abs(c - middle); });
    for (const int i : order)
        for (const double side : { -1.0, 1.0 })
            mains.fasteners.push_back(
                { numbered("main", i), 100.0 * (i - 1),
                  side * roundedToStep(0.75 * usualMainJournal_mm(plan), 1) });
    for (int i = 1; i <= plan.cylinders; ++i)
        for (const double side : { -1.0, 1.0 })
            rods.fasteners.push_back({ numbered("big_end", i), 100.0 * i - 50,
                                       side * roundedToStep(0.56 * usualRodJournal_mm(plan), 1) });
    build.torqueCards = { mains, rods };
}

} // namespace mildpath
