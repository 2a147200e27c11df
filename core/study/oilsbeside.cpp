// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/oilsbeside.h"

#include "assess/operatingmodel.h"
#include "oil/grades.h"
#include "quantity/json.h"
#include "quantity/rounding.h"

#include <algorithm>

namespace mildpath {
namespace {

/// Pumping is tested so much colder than cranking. SAE J300, from memory.
constexpr double pumpsBelow_k = 5;

std::vector<ChosenOil> oilsOf(const Build &build)
{
    std::vector<ChosenOil> out;
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil)
            out.push_back({ std::string(o.grade), o.oil, o.hths_mpa_s });
    for (const ChosenOil &own : build.ownOils)
        out.push_back(own);
    // The fitted one with all that is known of it.
    std::erase_if(out, [&](const ChosenOil &o) {
        return o.oil == build.oil.oil && o.grade == build.oil.grade;
    });
    out.push_back(build.oil);
    std::ranges::stable_sort(out, {}, [](const ChosenOil &o) { return o.oil.kv100_mm2_s; });
    return out;
}

} // namespace

Mark OilBeside::idleMark(const Build &build) const
{
    const bool low = gauge_pa < build.use.hotIdleFloor_kpa * 1e3;
    return low || (weakestRatio > 0 && weakestRatio < 1) ? Mark::Hold : Mark::Proven;
}

Mark OilBeside::markOf(const Contact &contact) const
{
    return shearAssumed ? Mark::NotDone : mildpath::markOf(contact);
}

const Contact *OilBeside::leastOfTheCrank(bool atMost) const
{
    const Contact *out = nullptr;
    for (const Contact &c : atMost ? most : idle)
        if (c.ofTheCrank() && c.fullLoad == atMost
            && (!out || c.filmParameter < out->filmParameter))
            out = &c;
    return out;
}

const Contact *OilBeside::cam(bool atMost) const
{
    const auto &all = atMost ? most : idle;
    const auto it = std::ranges::find(all, "cam", &Contact::id);
    return it == all.end() ? nullptr : &*it;
}

Result<std::vector<OilBeside>> oilsBeside(const Build &build, const std::vector<GaugedSize> &sizes)
{
    auto model = OperatingModel::make(build, sizes, build.use.hotOil_c);
    if (!model)
        return tl::unexpected(model.error());
    const ContactShapes shapes = shapesOf(build);
    std::vector<OilBeside> out;
    for (const ChosenOil &oil : oilsOf(build)) {
        Build with = build;
        with.oil = oil;
        const Oil running = runningOil(oil);
        const auto idle = model->at(build.use.hotIdle_rpm, running, OperatingModel::Detail::Films);
        if (!idle)
            return tl::unexpected(idle.error());
        const auto most = model->at(build.use.most_rpm, running, OperatingModel::Detail::Films);
        if (!most)
            return tl::unexpected(most.error());
        OilBeside row;
        row.oil = oil;
        row.fitted = oil == build.oil;
        row.shearAssumed = !oil.hths_mpa_s;
        row.gauge_pa = idle->gauge.value_pa;
        if (idle->weakest >= 0)
            row.weakestRatio = idle->points[static_cast<size_t>(idle->weakest)].ratio();
        row.idle = contactsOf(with, *idle, shapes);
        row.most = contactsOf(with, *most, shapes);
        for (const BearingFilm &f : most->films)
            if (f.loaded)
                row.film_c = std::max(row.film_c, f.loaded->film_c);
        row.cranks = crankingTestOf(with);
        row.pumpsTo_c = row.cranks.tested_c - pumpsBelow_k;
        row.antiWear = antiWearAdvice(with);
        out.push_back(std::move(row));
    }
    return out;
}

Json oilsToJson(const std::vector<OilBeside> &oils)
{
    Json all = Json::object();
    Json &out = all["oils"] = Json::array();
    for (const OilBeside &o : oils) {
        const auto contacts = [](const std::vector<Contact> &list) {
            Json rows = Json::array();
            for (const Contact &c : list)
                rows.push_back({ { "id", c.id },
                                 { "film_parameter", roundedTo(c.filmParameter, 3) },
                                 { "regime", regimeId(c.regime) } });
            return rows;
        };
        out.push_back({ { "grade", o.oil.grade },
                        { "fitted", o.fitted },
                        { "high_shear_assumed", o.shearAssumed },
                        { "gauge_kpa", roundedTo(o.gauge_pa / 1e3, 2) },
                        { "weakest_ratio", roundedTo(o.weakestRatio, 3) },
                        { "hot_idle", contacts(o.idle) },
                        { "most_speed", contacts(o.most) },
                        { "film_c", roundedTo(o.film_c, 1) },
                        { "cranks_to_c", o.cranks.tested_c },
                        { "pumps_to_c", o.pumpsTo_c },
                        { "phosphorus_mg_kg",
                          o.oil.phosphorus_mg_kg ? Json(*o.oil.phosphorus_mg_kg) : Json() } });
    }
    return all;
}

} // namespace mildpath
