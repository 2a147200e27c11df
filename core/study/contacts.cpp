// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/contacts.h"

#include "assess/circuitof.h"
#include "assess/operatingmodel.h"
#include "oil/blending.h"
#include "oil/grades.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double viscosityAt(const Build &build, double c)
{
    const auto line = waltherLine(build.oil.oil.kv40_mm2_s, build.oil.oil.kv100_mm2_s);
    return line ? oilState(*line, build.oil.oil.rho15_kg_m3, { c }).dynamicViscosity_pa_s : 0;
}

bool hasCams(const Build &build)
{
    return build.engine.ofKind(StopKind::CamBearing) != nullptr;
}

/// A bearing family by its thinnest film, without load and at full load.
void addBearings(std::string_view family, const std::string &id, const std::string &name,
                 const OperatingResult &point, const ContactShapes &s, std::vector<Contact> &out)
{
    const auto add = [&](const BearingFilm &f, bool full, const auto &film) {
        Contact c;
        c.id = full ? id + "_full" : id;
        c.name = full ? name + ", full load" : name;
        c.fullLoad = full;
        // Where no film bears the load there is none.
        if (film.carried) {
            c.film_m = film.smallest_m;
            c.filmParameter
                = filmParameter(film.smallest_m, s.journalRq_um * 1e-6, s.shellRq_um * 1e-6);
        }
        c.detail
            = { "film.bearing",
                "{0}, {1} in the film, {2} mean load",
                { f.name, asTemperature(film.film_c), Quantity { film.load_n, Shows::Force } } };
        out.push_back(std::move(c));
    };
    const auto thickness = [](const auto &film) { return film.carried ? film.smallest_m : 0; };
    const BearingFilm *least = nullptr, *loaded = nullptr;
    for (const BearingFilm &f : point.films) {
        if (f.family != family)
            continue;
        if (!least || thickness(f) < thickness(*least))
            least = &f;
        if (f.loaded && (!loaded || thickness(*f.loaded) < thickness(*loaded->loaded)))
            loaded = &f;
    }
    if (least)
        add(*least, false, *least);
    if (loaded)
        add(*loaded, true, *loaded->loaded);
}

void addRings(const Build &build, const OperatingResult &point, const ContactShapes &s,
              std::vector<Contact> &out)
{
    const auto train = crankTrainOf(build);
    if (!train)
        return;
    // The wall is warmer than the oil by some 20 K at mid-stroke (own choice).
    constexpr double wallWarmer_k = 20;
    const double mu = viscosityAt(build, point.oil_c + wallWarmer_k);
    const double speed = 2 * train->stroke_m * point.rpm / 60;
    const double film = ringFilm_m(mu, speed, s.ringPressure_pa);
    for (const bool top : { false, true }) {
        Contact c;
        c.id = top ? "rings_top" : "rings_mid";
        c.name = top ? "rings, top of stroke" : "rings, mid-stroke";
        c.filmParameter = filmParameter(film * (top ? ringEndShare : 1), s.ringRq_um * 1e-6,
                                        s.boreRq_um * 1e-6);
        c.detail = "regime only";
        out.push_back(std::move(c));
    }
}

void addCam(const Build &build, const OperatingResult &point, const ContactShapes &s,
            std::vector<Contact> &out)
{
    if (!hasCams(build))
        return;
    const double omega = point.rpm * 2 * pi / 60 / 2;
    const double nose_m = (s.baseRadius_mm + s.lift_mm) * 1e-3;
    const bool roller = tappetOf(build) == Tappet::Roller;
    const double mu = viscosityAt(build, point.oil_c);
    LineContact contact { .viscosity_pa_s = mu,
                          .entrainment_m_s = 0,
                          .radius1_m = std::max(1e-3, nose_m - s.noseFall_mm * 1e-3),
                          .load_n = s.springLoad_n,
                          .length_m = s.camWidth_mm * 1e-3,
                          .pressureViscosity_per_pa = pressureViscosity_per_pa(mu) };
    if (roller) {
        // Rolling: both surfaces move with the cam's.
        contact.entrainment_m_s = omega * nose_m;
        contact.radius2_m = s.rollerRadius_mm * 1e-3;
    } else {
        contact.entrainment_m_s = omega / 2 * std::abs(nose_m - 2 * s.noseFall_mm * 1e-3);
    }
    const auto film = lineContactFilm(contact);
    if (!film)
        return;
    Contact c;
    c.id = "cam";
    c.name = roller ? "cam on roller" : "cam on flat tappet";
    c.film_m = film->smallest_m;
    c.filmParameter = filmParameter(film->smallest_m, s.camRq_um * 1e-6, s.tappetRq_um * 1e-6);
    c.detail = { "film.cam",
                 "at the nose, {0} contact pressure",
                 { Quantity { film->hertz_pa, Shows::ContactPressure } } };
    out.push_back(std::move(c));
}

} // namespace

Tappet tappetOf(const Build &build)
{
    return choiceOf(build, "tappet") == "roller" ? Tappet::Roller : Tappet::Flat;
}

ContactShapes shapesOf(const Build &build)
{
    const auto value
        = [&](const char *key) { return *valueOf(build.finish.values, finishKeys(), key); };
    return { .journalRq_um = value("journal_rq_um"),
             .shellRq_um = value("shell_rq_um"),
             .ringRq_um = value("ring_rq_um"),
             .boreRq_um = value("bore_rpq_um"),
             .camRq_um = value("cam_rq_um"),
             .tappetRq_um = value("follower_rq_um"),
             .ringPressure_pa = value("gas_kpa") * 1e3,
             .baseRadius_mm = value("cam_base_mm"),
             .lift_mm = value("cam_lift_mm"),
             .noseFall_mm = value("nose_fall_mm"),
             .springLoad_n = value("spring_n"),
             .camWidth_mm = value("cam_width_mm"),
             .rollerRadius_mm = value("roller_mm") };
}

std::vector<Contact> contactsOf(const Build &build, const OperatingResult &point,
                                const ContactShapes &shapes)
{
    std::vector<Contact> out;
    addBearings("main", "mains", "mains", point, shapes, out);
    addBearings("big_end", "big_ends", "big-ends", point, shapes, out);
    addRings(build, point, shapes, out);
    addCam(build, point, shapes, out);
    for (Contact &c : out)
        c.regime = regimeOf(c.filmParameter);
    return out;
}

Result<std::optional<double>> floatsFrom_rpm(const Build &build,
                                             const std::vector<GaugedSize> &sizes, double oil_c)
{
    auto model = OperatingModel::make(build, sizes, oil_c);
    if (!model)
        return tl::unexpected(model.error());
    const auto floats = [&](double rpm) -> Result<bool> {
        const auto r = model->at(rpm, OperatingModel::Detail::Films);
        if (!r)
            return tl::unexpected(r.error());
        const auto contacts = contactsOf(build, *r);
        return std::all_of(contacts.begin(), contacts.end(), [](const Contact &c) {
            return !c.ofTheCrank() || c.fullLoad || c.regime == Regime::FullFilm;
        });
    };
    // Inertia loads films again at speed: the first speed that floats is asked, in coarse steps.
    double before = 300;
    const double step = 200;
    for (double rpm = before; rpm <= build.use.most_rpm; rpm += step) {
        const auto now = floats(rpm);
        if (!now)
            return tl::unexpected(now.error());
        if (!*now) {
            before = rpm;
            continue;
        }
        double low = before, high = rpm;
        while (high - low > 10) {
            const double middle = (low + high) / 2;
            const auto m = floats(middle);
            if (!m)
                return tl::unexpected(m.error());
            (*m ? high : low) = middle;
        }
        return std::optional(high);
    }
    return std::optional<double>();
}

Oil dilutedOil(const Oil &oil, double x)
{
    if (x <= 0)
        return oil;
    return { fuelBlend(oil.kv40_mm2_s, petrolAt40_mm2_s, x).kv_mm2_s,
             fuelBlend(oil.kv100_mm2_s, petrolAt100_mm2_s, x).kv_mm2_s, oil.rho15_kg_m3 };
}

CrankFilms crankFilms(const std::vector<Contact> &contacts)
{
    CrankFilms out;
    for (const Contact &c : contacts)
        if (c.ofTheCrank()) {
            out.regime = std::min(out.regime, c.regime);
            out.mark = worse(out.mark, markOf(c));
        }
    return out;
}

Mark markOf(const Contact &contact)
{
    const bool floats = contact.ofTheCrank();
    switch (contact.regime) {
    case Regime::FullFilm:
        return Mark::Proven;
    case Regime::Mixed:
        return Mark::LookAgain;
    case Regime::Boundary:
        break;
    }
    return floats ? Mark::Hold : Mark::LookAgain;
}

CrankingTest crankingTestOf(const Build &build)
{
    const auto tested = crankingTested_c(build.oil.grade);
    const double least_c = tested.value_or(unwintered_c), coldest_c = build.use.coldestStart_c;
    return { least_c, tested.has_value(),
             coldest_c >= least_c                          ? Mark::Proven
                 : coldest_c >= least_c - crankingLeeway_k ? Mark::LookAgain
                                                           : Mark::Hold };
}

HighShear highShearOf(const ChosenOil &oil)
{
    HighShear out;
    if (!oil.hths_mpa_s)
        return out;
    std::optional<std::string> winter;
    if (const size_t dash = oil.grade.find('-');
        dash != std::string::npos && dash > 0 && crankingTested_c(oil.grade))
        winter = oil.grade.substr(0, dash);
    const auto g = gradeOf(oil.oil.kv100_mm2_s, *oil.hths_mpa_s * 1e-3, winter);
    out.mark = g && g->engineGrade ? Mark::Proven : Mark::LookAgain;
    if (g && g->engineGrade) {
        out.grade = *g->engineGrade;
        out.floor_pa_s = *g->hthsMinimum_pa_s;
    }
    return out;
}

AntiWearAdvice antiWearAdvice(const Build &build)
{
    AntiWearAdvice out { 600, 800, "", Mark::NotDone };
    const auto ppm = [](double mg_kg) { return Quantity { mg_kg, Shows::Concentration, 0, 0 }; };
    if (hasCams(build) && tappetOf(build) == Tappet::Flat) {
        out.least_mg_kg = 1000;
        out.most_mg_kg = 1500;
        out.text
            = Phrase { "oil.antiwear.flat",
                       "Flat tappets live on the additive: {0} of phosphorus, with heavy "
                       "springs or for running in up to {1}; beyond that no gain is agreed. "
                       "Full-film bearings do not need it. Common practice, no source: ask "
                       "the cam's maker.",
                       { QuantityRange { ppm(out.least_mg_kg), ppm(1200) }, ppm(out.most_mg_kg) } };
    } else {
        out.text = Phrase { "oil.antiwear.roller",
                            "Rollers and full-film bearings are content with the {0} of phosphorus "
                            "of a modern road oil. Common practice, no source.",
                            { QuantityRange { ppm(out.least_mg_kg), ppm(out.most_mg_kg) } } };
    }
    if (const auto p = build.oil.phosphorus_mg_kg)
        out.mark = *p < out.least_mg_kg ? Mark::LookAgain : Mark::Proven;
    return out;
}

} // namespace mildpath
