// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/friction.h"

#include "assess/operatingmodel.h"

#include <algorithm>

namespace mildpath {
namespace {

bool ofTheCrank(const BearingFilm &f)
{
    return f.family == "main" || f.family == "big_end";
}

} // namespace

JournalLoss CrankFriction::of(std::string_view family) const
{
    JournalLoss out { {}, std::string(family) };
    for (const JournalLoss &j : each)
        if (j.family == family) {
            out.now_w += j.now_w;
            out.changed_w += j.changed_w;
        }
    return out;
}

Result<std::vector<CrankFriction>> crankFriction(const Build &build,
                                                 const std::vector<GaugedSize> &sizes, double by_mm)
{
    const CircuitChange change = [&](Circuit &circuit, Oil &) -> Result<void> {
        for (const Stop &s : build.engine.stops)
            if (s.kind == StopKind::Main || s.kind == StopKind::BigEnd)
                for (const std::string &id : s.elements)
                    if (Element *e = circuit.find(id); e && e->kind == ElementKind::FilmBearing)
                        e->values["d_mm"] = std::max(1.0, e->value("d_mm") + by_mm);
        return {};
    };
    auto now = OperatingModel::make(build, sizes, build.use.hotOil_c);
    auto other = OperatingModel::make(build, sizes, build.use.hotOil_c, change);
    if (!now || !other)
        return tl::unexpected(now ? other.error() : now.error());
    std::vector<CrankFriction> out;
    for (const double rpm : { build.use.highSpeed_rpm, build.use.most_rpm }) {
        const auto a = now->at(rpm, OperatingModel::Detail::Films);
        const auto b = other->at(rpm, OperatingModel::Detail::Films);
        if (!a || !b)
            return tl::unexpected(a ? b.error() : a.error());
        CrankFriction &f = out.emplace_back();
        f.rpm = rpm;
        for (const BearingFilm &film : a->films) {
            const auto same = std::ranges::find(b->films, film.element, &BearingFilm::element);
            if (ofTheCrank(film) && same != b->films.end())
                f.each.push_back({ film.name, film.family, film.loss_w, same->loss_w });
        }
    }
    return out;
}

} // namespace mildpath
