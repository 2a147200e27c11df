// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/grades.h"

#include "oil/shear.h"
#include "quantity/rounding.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

struct EngineGrade
{
    std::string_view name;
    double atLeast_mm2_s;
    double below_mm2_s;
    double hths_pa_s;
};

constexpr std::array<EngineGrade, 8> engineGrades { {
    { "8", 4.0, 6.1, 0.0017 },
    { "12", 5.0, 7.1, 0.0020 },
    { "16", 6.1, 8.2, 0.0023 },
    { "20", 6.9, 9.3, 0.0026 },
    { "30", 9.3, 12.5, 0.0029 },
    { "40", 12.5, 16.3, 0.0037 },
    { "50", 16.3, 21.9, 0.0037 },
    { "60", 21.9, 26.1, 0.0037 },
} };

constexpr std::array<GradeWindow, 10> gearGrades { {
    { "65", 3.8, 5.0 },
    { "70", 5.0, 6.5 },
    { "75", 6.5, 8.5 },
    { "80", 8.5, 11.0 },
    { "85", 11.0, 13.5 },
    { "90", 13.5, 18.5 },
    { "110", 18.5, 24.0 },
    { "140", 24.0, 32.5 },
    { "190", 32.5, 41.0 },
    { "250", 41.0, 1e9 },
} };

struct WinterGrade
{
    std::string_view name;
    double minimum_mm2_s;
    double cranking_c;
};

constexpr std::array<WinterGrade, 6> winterGrades { {
    { "0W", 3.8, -35 },
    { "5W", 3.8, -30 },
    { "10W", 4.1, -25 },
    { "15W", 5.6, -20 },
    { "20W", 5.6, -15 },
    { "25W", 9.3, -10 },
} };

/// SAE 40 has two high-shear minima: lower with the three lightest winter grades.
double hthsMinimum_pa_s(const EngineGrade &grade, std::string_view winter)
{
    if (grade.name == "40" && (winter == "0W" || winter == "5W" || winter == "10W"))
        return 0.0035;
    return grade.hths_pa_s;
}

constexpr std::array<ShelfOil, 14> shelf { {
    { "0W-20", { 44, 8.3, 848 }, 2.7, false },
    { "0W-40", { 78, 13.6, 846 }, 3.7, false },
    { "5W-30", { 62, 10.6, 854 }, 3.1, false },
    { "5W-40", { 85, 13.9, 856 }, 3.7, false },
    { "5W-50", { 108, 17.6, 857 }, 4.4, false },
    { "10W-30", { 66, 10.5, 868 }, 3.1, false },
    { "10W-40", { 96, 14.4, 866 }, 3.8, false },
    { "15W-40", { 105, 14.2, 878 }, 3.9, false },
    { "20W-50", { 160, 18.5, 884 }, 4.9, false },
    { "10W-60", { 165, 23.5, 866 }, 5.4, false },
    { "SAE 30", { 95, 11.2, 887 }, 3.4, false },
    { "SAE 60", { 310, 24.2, 898 }, 6.0, false },
    { "75W-85 gear", { 65, 11.6, 866 }, std::nullopt, true },
    { "75W-90 gear", { 100, 15.2, 868 }, std::nullopt, true },
} };

} // namespace

Result<GradeResult> gradeOf(double kv100_mm2_s, std::optional<double> hths_pa_s,
                            const std::optional<std::string> &winterGrade)
{
    if (!(kv100_mm2_s > 0) || !std::isfinite(kv100_mm2_s))
        return fail("kv100_mm2_s", "must be above 0, is " + formatPlain(kv100_mm2_s, 3));
    if (hths_pa_s && (!(*hths_pa_s > 0) || !std::isfinite(*hths_pa_s)))
        return fail("hths_pa_s", "must be above 0, is " + formatPlain(*hths_pa_s, 6));
    const WinterGrade *winter = nullptr;
    if (winterGrade) {
        for (const WinterGrade &w : winterGrades)
            if (w.name == *winterGrade)
                winter = &w;
        if (!winter)
            return fail("winter_grade",
                        "must be one of 0W, 5W, 10W, 15W, 20W, 25W, is \"" + *winterGrade + "\"");
    }
    GradeResult out;
    out.hthsChecked = hths_pa_s.has_value();
    for (const EngineGrade &g : engineGrades) {
        if (!(kv100_mm2_s >= g.atLeast_mm2_s && kv100_mm2_s < g.below_mm2_s))
            continue;
        out.engineCandidates.emplace_back(g.name);
        const double minimum = hthsMinimum_pa_s(g, winter ? winter->name : "");
        if (!hths_pa_s || *hths_pa_s >= minimum) {
            out.engineGrade = std::string(g.name);
            out.hthsMinimum_pa_s = minimum;
        }
    }
    for (const GradeWindow &g : gearGrades)
        if (kv100_mm2_s >= g.atLeast_mm2_s && kv100_mm2_s < g.below_mm2_s)
            out.gearGrade = std::string(g.name);
    if (winter)
        out.winterMinimumMet = kv100_mm2_s >= winter->minimum_mm2_s;
    return out;
}

std::span<const GradeWindow> engineGradeWindows()
{
    static const auto windows = [] {
        std::array<GradeWindow, engineGrades.size()> out {};
        for (size_t i = 0; i < out.size(); ++i)
            out[i] = { engineGrades[i].name, engineGrades[i].atLeast_mm2_s,
                       engineGrades[i].below_mm2_s };
        return out;
    }();
    return windows;
}

std::span<const GradeWindow> gearGradeWindows()
{
    return gearGrades;
}

std::optional<double> crankingTested_c(std::string_view gradeName)
{
    const auto dash = gradeName.find('-');
    for (const WinterGrade &w : winterGrades)
        if (gradeName.substr(0, dash) == w.name)
            return w.cranking_c;
    return std::nullopt;
}

std::span<const ShelfOil> oilShelf()
{
    return shelf;
}

const ShelfOil *findShelfOil(std::string_view grade)
{
    for (const ShelfOil &o : shelf)
        if (o.grade == grade)
            return &o;
    return nullptr;
}

const ShelfOil *nextThickerOil(const Oil &oil)
{
    const ShelfOil *next = nullptr;
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil && o.oil.kv100_mm2_s > oil.kv100_mm2_s * 1.05
            && (!next || o.oil.kv100_mm2_s < next->oil.kv100_mm2_s))
            next = &o;
    return next;
}

Oil runningOil(const ShelfOil &oil)
{
    return thinning(oil.oil, oil.grade, oil.hths_mpa_s);
}

std::string_view gearOilCaution()
{
    return "Gear grades are only a viscosity comparison. Gear oil's extreme-pressure chemistry "
           "(active sulphur) does not belong in an engine: it can attack copper-bearing metals at "
           "engine temperature and lacks the detergent an engine needs.";
}

} // namespace mildpath
