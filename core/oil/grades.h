// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "oil/viscosity.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Where an oil stands on the engine and on the gear scale by its viscosity at 100 °C.
struct GradeResult
{
    std::vector<std::string> engineCandidates; ///< ascending; grades 8 to 20 overlap on purpose
    std::optional<std::string> engineGrade;
    std::optional<double> hthsMinimum_pa_s; ///< of `engineGrade`
    bool hthsChecked = false; ///< false: no high-shear viscosity was given
    std::optional<std::string> gearGrade;
    std::optional<bool> winterMinimumMet; ///< only when a winter grade was asked for
};

/// Grades by viscosity at 100 °C (and at high shear, when known).
///
/// The winter letter cannot be computed from these numbers (it needs cold cranking and pumping
/// tests) and is never guessed; given one, only its minimum at 100 °C is checked.
/// Source: SAE J300 (2015 values) and SAE J306 (2019 values), from memory.
/// Errors: kv100_mm2_s not above 0; hths_pa_s not above 0; winter_grade unknown.
Result<GradeResult> gradeOf(double kv100_mm2_s, std::optional<double> hths_pa_s,
                            const std::optional<std::string> &winterGrade);

/// A grade's window of viscosity at 100 °C: at least, below.
struct GradeWindow
{
    std::string_view name;
    double atLeast_mm2_s, below_mm2_s;
};
std::span<const GradeWindow> engineGradeWindows();
std::span<const GradeWindow> gearGradeWindows();

/// Temperature at which a winter grade is tested to crank (°C); absent where the grade's name
/// begins with no winter letter. SAE J300, from memory.
std::optional<double> crankingTested_c(std::string_view gradeName);

/// An oil one can choose. All values typical of the grade, no source; the data sheet of the oil at
/// hand is better and may be entered instead.
struct ShelfOil
{
    std::string_view grade;
    Oil oil;
    std::optional<double> hths_mpa_s; ///< at 150 °C, 1e6 1/s
    bool gearOil; ///< for comparison only: its additives do not belong in an engine
};

/// The oils on the shelf, thin to thick within each kind; engine oils first.
std::span<const ShelfOil> oilShelf();

/// @return null when no oil of that name is on the shelf.
const ShelfOil *findShelfOil(std::string_view grade);

/// The engine oil on the shelf next thicker at 100 °C, by a twentieth at least; null for the
/// thickest.
const ShelfOil *nextThickerOil(const Oil &oil);
/// As it runs: thinning under shear.
Oil runningOil(const ShelfOil &oil);

/// Shown with every gear oil.
std::string_view gearOilCaution();

} // namespace mildpath
