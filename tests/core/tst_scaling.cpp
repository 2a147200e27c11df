// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/catalogue.h"
#include "quantity/json.h"
#include "testing.h"

// How the calculators' answers move when one input moves: by the power a law asks for where the law
// is a power, else up, down or not at all. Each row says which law. The inputs it starts from are
// the first worked example of each calculator.

using namespace mildpath;

namespace tst_scaling {

enum class Moves { Ratio, Up, Down, Not };

class TestScaling : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void answers_moveAsTheLawSays_data();
    void answers_moveAsTheLawSays();
    void everyCalculator_hasALawHere();
    void answers_areTheSameTwice_data();
    void answers_areTheSameTwice();
    void keyOrder_doesNotMatter_data();
    void keyOrder_doesNotMatter();

private:
    static Json example(const std::string &name)
    {
        static const Json all = jsonOf("calculators.json");
        for (const Json &e : all)
            if (e["name"] == name)
                return e["input"];
        return {};
    }
    void names()
    {
        QTest::addColumn<QString>("name");
        for (const Calculator *c : calculators())
            QTest::newRow(std::string(c->name).c_str())
                << QString::fromUtf8(c->name.data(), static_cast<int>(c->name.size()));
    }
};

struct Row
{
    const char *calculator, *input;
    double factor;
    const char *output;
    Moves moves;
    double ratio;
    const char *law;
};

/// Where a row says so, before the factor is applied.
struct Base
{
    const char *calculator, *input;
    double value;
};
// Away from caps, floors and switches, where the plain law holds.
const std::vector<Base> bases {
    { "annulus-leak", "ecc", 0 },
    { "network-bearing-leak", "speed_flow", 0 },
    { "prime-time", "suction_volume_l", 0 },
    { "suction-leak", "inlet_abs_kpa", 95 },
};

constexpr auto Ratio = Moves::Ratio, Up = Moves::Up, Down = Moves::Down, Not = Moves::Not;

const std::vector<Row> &rows()
{
    static const std::vector<Row> all {
        // Drillings, orifices, gaps.
        { "pipe-drop", "flow_l_min", 2, "velocity_m_s", Ratio, 2, "continuity" },
        { "pipe-drop", "d_mm", 2, "velocity_m_s", Ratio, 0.25, "continuity: 1/d²" },
        { "pipe-drop", "flow_l_min", 2, "dp_minor_kpa", Ratio, 4, "minor losses: ½ ρ v²" },
        { "pipe-drop", "k", 3, "dp_minor_kpa", Ratio, 3, "minor losses: K" },
        { "pipe-drop", "l_mm", 2, "dp_friction_kpa", Ratio, 2, "Darcy: L/d" },
        { "pipe-drop", "rho_kg_m3", 2, "re", Ratio, 2, "Re = ρ v d/µ" },
        { "pipe-drop", "mu_pa_s", 2, "re", Ratio, 0.5, "Re = ρ v d/µ" },
        { "pipe-drop", "mu_pa_s", 10, "friction_factor", Ratio, 4.8906, "laminar: 64/Re at 299.6" },
        { "pipe-drop", "rough_um", 20, "dp_friction_kpa", Up, 0, "a rougher wall costs more" },
        { "orifice-flow", "dp_kpa", 4, "flow_l_min", Up, 0, "Torricelli, Cd rises too" },
        { "orifice-flow", "dp_kpa", 4, "cd_effective", Up, 0, "Cd rises with Re" },
        { "orifice-flow", "mu_pa_s", 4, "flow_l_min", Down, 0, "thick oil passes less" },
        { "orifice-flow", "d_mm", 2, "flow_l_min", Up, 0, "with the area and more" },
        { "orifice-flow", "l_mm", 4, "flow_l_min", Down, 0, "a longer hole passes less" },
        { "annulus-leak", "dp_kpa", 2, "flow_l_min", Ratio, 2, "laminar: Δp" },
        { "annulus-leak", "mu_pa_s", 2, "flow_l_min", Ratio, 0.5, "laminar: 1/µ" },
        { "annulus-leak", "l_mm", 2, "flow_l_min", Ratio, 0.5, "laminar: 1/L" },
        { "annulus-leak", "clearance_um", 2, "flow_l_min", Ratio, 8, "laminar: h³" },
        { "annulus-leak", "d_mm", 2, "flow_l_min", Ratio, 2, "laminar: π d" },
        { "annulus-leak", "clearance_um", 2, "eccentricity_factor", Not, 0, "1 + 1.5 ε² alone" },
        { "network-bearing-leak", "dp_kpa", 2, "pressure_flow_l_min", Ratio, 2, "laminar: Δp" },
        { "network-bearing-leak", "mu_pa_s", 2, "pressure_flow_l_min", Ratio, 0.5, "laminar" },
        { "network-bearing-leak", "clearance_um", 2, "pressure_flow_l_min", Ratio, 8, "h³" },
        { "network-bearing-leak", "d_mm", 2, "pressure_flow_l_min", Ratio, 2, "width of the way" },
        { "network-bearing-leak", "dp_kpa", 2, "speed_flow_l_min", Not, 0, "none is asked for" },
        { "network-bearing-leak", "ecc", 1.3, "pressure_flow_l_min", Up, 0, "the wide side" },
        { "groove-flow", "pressure_kpa", 2, "pressure_flow_l_min", Ratio, 2, "laminar: Δp" },
        { "groove-flow", "viscosity_pa_s", 2, "pressure_flow_l_min", Ratio, 0.5, "laminar: 1/µ" },
        { "groove-flow", "diametral_clearance_um", 2, "pressure_flow_l_min", Ratio, 8, "h³" },
        { "groove-flow", "bearing_length_mm", 1.5, "pressure_flow_l_min", Down, 0, "longer lands" },
        { "hole-flow", "pressure_kpa", 2, "pressure_flow_l_min", Ratio, 2, "laminar: Δp" },
        { "hole-flow", "viscosity_pa_s", 2, "pressure_flow_l_min", Ratio, 0.5, "laminar: 1/µ" },
        { "hole-flow", "diametral_clearance_um", 2, "film_at_hole_um", Ratio, 2, "c (1 + ε)" },
        { "hole-flow", "diametral_clearance_um", 2, "pressure_flow_l_min", Ratio, 8, "h³" },
        { "hole-flow", "hole_diameter_mm", 1.3, "pressure_flow_l_min", Up, 0, "a longer edge" },
        { "feed-overlap", "pressure_drop_kpa", 4, "orifice_flow_l_min", Ratio, 2, "√Δp" },
        { "feed-overlap", "offset_mm", 1.5, "overlap_area_mm2", Down, 0, "circles move apart" },
        { "feed-overlap", "offset_mm", 0, "fraction_of_smaller", Ratio, 1.71356, "whole: 1" },
        { "cam-timed-feed", "alignments_per_rev", 2, "open_share_of_rev", Ratio, 2, "per turn" },
        { "cam-timed-feed", "bearing_hole_mm", 1.3, "open_share_of_rev", Up, 0, "open longer" },
        { "cam-timed-feed", "journal_d_mm", 2, "open_share_of_rev", Down, 0, "passes faster" },
        { "cam-timed-feed", "dp_kpa", 4, "flow_mean_l_min", Up, 0, "Torricelli" },
        // Bearings.
        { "crank-drilling-head", "rpm", 2, "head_kpa", Ratio, 4, "½ ρ ω² (R² − r²)" },
        { "crank-drilling-head", "rho_kg_m3", 1.1, "head_kpa", Ratio, 1.1, "½ ρ ω² (R² − r²)" },
        { "crank-drilling-head", "rpm", 2, "supply_needed_kpa", Ratio, 4, "½ ρ ω² (r² − …)" },
        { "crank-feed-pressure", "speed_rpm", 0.5, "required_main_kpa", Down, 0, "½ ρ ω² r²" },
        { "crank-feed-pressure", "speed_rpm", 0.5, "rule_of_thumb_kpa", Ratio, 0.5,
          "10 psi a 1 000" },
        { "crank-feed-pressure", "main_radius_mm", 1.5, "required_main_kpa", Up, 0, "½ ρ ω² r²" },
        { "crank-feed-pressure", "pin_exit_radius_mm", 1.2, "pin_pressure_kpa", Up, 0,
          "thrown out" },
        { "crank-feed-pressure", "main_kpa", 1.5, "required_main_kpa", Not, 0, "need, not supply" },
        { "crank-feed-pressure", "groove_angle_deg", 0.5, "feed_fraction", Down, 0,
          "fed for less" },
        { "crank-feed-flow", "speed_rpm", 0.5, "required_main_kpa", Ratio, 0.25, "½ ρ ω² r²" },
        { "crank-feed-flow", "main_kpa", 1.5, "flow_l_min", Up, 0, "more to drive it" },
        { "crank-feed-flow", "speed_rpm", 0.5, "window_ms", Ratio, 2, "open longer" },
        { "shell-form", "relief_um", 2, "form_factor", Up, 0, "a wider joint" },
        { "shell-form", "relief_um", 2, "upright_um", Not, 0, "not where it is read" },
        { "journal-temperature", "diametral_clearance_um", 0.5, "x_journal", Up, 0,
          "a thinner film" },
        { "tensioner-seep", "dp_kpa", 2, "seep_l_min", Ratio, 2, "laminar: Δp" },
        { "tensioner-seep", "clearance_um", 2, "seep_l_min", Ratio, 8, "h³" },
        { "tensioner-seep", "mu_pa_s", 2, "seep_l_min", Ratio, 0.5, "laminar: 1/µ" },
        { "likely-band", "value_kpa", 2, "low_kpa", Ratio, 2, "relative" },
        { "likely-band", "own", 3, "sigma_ln", Up, 0, "more doubt" },
        { "band-update", "own", 3, "chi2", Down, 0, "more doubt" },
        { "stop-need", "rpm", 1.2, "need_kpa", Up, 0, "more at speed" },
        { "stop-need", "most_rpm", 1.2, "need_kpa", Down, 0, "less steep" },
        { "bearing-film", "speed_rpm", 2, "petroff_power_w", Ratio, 4, "Petroff: µ U²" },
        { "bearing-film", "viscosity_pa_s", 2, "petroff_power_w", Ratio, 2, "Petroff: µ" },
        { "bearing-film", "diametral_clearance_um", 2, "petroff_power_w", Ratio, 0.5,
          "Petroff: 1/c" },
        { "bearing-film", "viscosity_pa_s", 2, "sommerfeld_number", Ratio, 2, "S = (R/c)² µ N/P" },
        { "bearing-film", "speed_rpm", 2, "sommerfeld_number", Ratio, 2, "S = (R/c)² µ N/P" },
        { "bearing-film", "load_n", 2, "sommerfeld_number", Ratio, 0.5, "S = (R/c)² µ N/P" },
        { "bearing-film", "diametral_clearance_um", 2, "sommerfeld_number", Ratio, 0.25, "(R/c)²" },
        { "bearing-film", "load_n", 2, "min_film_um", Down, 0, "load presses it thinner" },
        { "bearing-film", "viscosity_pa_s", 2, "min_film_um", Up, 0, "thicker oil carries more" },
        { "bearing-film", "load_n", 2, "eccentricity_ratio", Up, 0, "the journal sinks" },
        { "bearing-film", "load_n", 2, "mean_pressure_kpa", Ratio, 2, "W/(L d)" },
        { "bearing-film", "load_n", 2, "max_pressure_kpa", Up, 0, "more than the mean" },
        { "bearing-heat", "oil_inlet_c", 0.8, "effective_temp_c", Down, 0, "a cooler inlet" },
        { "bearing-heat", "speed_rpm", 1.3, "effective_temp_c", Up, 0, "more shearing" },
        { "bearing-heat", "viscosity_40_mm2_s", 1.5, "effective_viscosity_pa_s", Down, 0,
          "steeper through the same 100 °C: thinner above it" },
        { "bearing-heat", "load_n", 1.5, "min_film_um", Down, 0, "load presses it thinner" },
        // Sizes and heat.
        { "clearance-from-diameters", "bore_uncertainty_um", 2, "standard_uncertainty_um", Ratio,
          1.70880, "√(4² + 1.5²)/2.5: independent readings" },
        { "clearance-from-diameters", "bore_temp_c", 1.2, "bore_20c_mm", Down, 0, "gauged warm" },
        { "clearance-from-diameters", "journal_temp_c", 1.5, "clearance_um", Up, 0,
          "a warm journal" },
        { "thermal-clearance", "housing_temp_c", 1.2, "clearance_um", Up, 0, "the bore grows" },
        { "thermal-clearance", "journal_temp_c", 1.2, "clearance_um", Down, 0,
          "the journal grows" },
        { "thermal-clearance", "cold_clearance_um", 1.5, "change_um", Up, 0, "the bore is larger" },
        { "thermal-clearance", "journal_alpha_per_k", 2, "journal_growth_um", Ratio, 2, "α d ΔT" },
        { "thermal-clearance", "shell_wall_mm", 2, "bore_growth_um", Up, 0, "a larger housing" },
        { "cold-lock-temperature", "cold_clearance_um", 1.2, "lock_temp_c", Down, 0,
          "more to lose" },
        { "cold-lock-temperature", "floor_um", 2, "lock_temp_c", Up, 0, "less to lose" },
        { "end-float", "thrust_width_mm", 2, "change_um", Ratio, 2, "α L ΔT" },
        { "end-float", "end_float_um", 1.5, "change_um", Not, 0, "growth of the width" },
        { "heated-block-test", "journal_diameter_mm", 2, "overstatement_um", Ratio, 2, "α d ΔT" },
        { "heated-block-test", "reading_um", 1.5, "overstatement_um", Not, 0,
          "the journal's alone" },
        { "expansion-fit", "bore_diameter_mm", 2, "alpha_per_k", Ratio, 0.5, "slope/d" },
        { "expansion-fit", "reading_u_um", 2, "alpha_per_k", Not, 0, "the line is the same" },
        { "clearance-window", "floor_um", 1.5, "c0_min_um", Up, 0, "more asked for" },
        { "clearance-window", "ceiling_um", 1.2, "c0_max_um", Up, 0, "more allowed" },
        { "clearance-window", "start_temp_c", 2, "c0_min_um", Up, 0, "a colder start" },
        { "emissivity-correction", "emissivity", 2, "amplification", Down, 0, "less to make up" },
        { "emissivity-correction", "emissivity", 2, "temp_c", Down, 0, "less to make up" },
        { "emissivity-correction", "emissivity_u", 2, "temp_u_k", Ratio, 2, "linear in it" },
        // Oil.
        { "viscosity-at", "temperature_c", 0.5, "kinematic_viscosity_mm2_s", Up, 0, "colder" },
        { "viscosity-at", "density_15_kg_m3", 1.02, "kinematic_viscosity_mm2_s", Not, 0,
          "ν = µ/ρ" },
        { "viscosity-at", "density_15_kg_m3", 1.02, "dynamic_viscosity_pa_s", Up, 0, "µ = ν ρ" },
        { "viscosity-index", "kv40_mm2_s", 1.1, "viscosity_index", Down, 0, "thins more" },
        { "viscosity-index", "kv40_mm2_s", 1.1, "l_mm2_s", Not, 0, "of kv100 alone" },
        { "fuel-dilution", "fuel_mass_fraction", 2, "blend_kinematic_viscosity_mm2_s", Down, 0,
          "more fuel" },
        { "fuel-dilution", "fuel_mass_fraction", 2, "vbn_oil", Not, 0, "of the oil alone" },
        { "high-shear-viscosity", "shear_rate_per_s", 5, "viscosity_pa_s", Down, 0, "shear thins" },
        { "high-shear-viscosity", "shear_rate_per_s", 5, "low_shear_viscosity_pa_s", Not, 0,
          "unsheared" },
        { "falling-ball-ratio", "time_unknown_s", 2, "time_ratio", Ratio, 2, "t/t" },
        { "falling-ball-ratio", "time_unknown_s", 2, "viscosity_ratio", Ratio, 2, "Stokes" },
        { "falling-ball-ratio", "viscosity_reference_pa_s", 3, "viscosity_unknown_pa_s", Ratio, 3,
          "Stokes" },
        { "film-parameter", "h_min_um", 2, "film_parameter", Ratio, 2, "Λ = h/Rq" },
        { "film-parameter", "h_min_um", 2, "combined_rq_um", Not, 0, "of the surfaces alone" },
        { "line-contact-film", "load_n", 4, "hertz_half_width_um", Ratio, 2, "Hertz: √w" },
        { "line-contact-film", "load_n", 4, "hertz_pressure_pa", Ratio, 2, "Hertz: √w" },
        { "line-contact-film", "entrainment_speed_m_s", 2, "speed_parameter", Ratio, 2, "U" },
        { "line-contact-film", "load_n", 2, "h_min_um", Down, 0, "a little" },
        { "line-contact-film", "viscosity_pa_s", 2, "h_rigid_um", Ratio, 2, "Martin: µ u/w" },
        { "fuel-mass-ratio", "stoich_afr_2", 2, "mass_ratio", Ratio, 0.5, "λ = 1 for both" },
        { "fuel-mass-ratio", "density_2_kg_m3", 2, "volume_ratio", Ratio, 0.5, "m/ρ" },
        { "fuel-mass-ratio", "density_2_kg_m3", 2, "mass_ratio", Not, 0, "by mass" },
        { "oil-volume-at-temperature", "volume_l", 3, "volume_us_qt", Ratio, 3, "linear" },
        { "oil-volume-at-temperature", "volume_l", 3, "change_l", Ratio, 3, "linear" },
        { "oil-volume-at-temperature", "to_c", 1.2, "change_l", Up, 0, "warmer" },
        // Pump, relief, filter, suction.
        { "pump-delivery", "rpm", 2, "theoretical_l_min", Ratio, 2, "displacement × speed" },
        { "pump-delivery", "rpm", 2, "leak_tip_l_min", Not, 0, "of the pressure" },
        { "pump-delivery", "dp_kpa", 2, "leak_tip_l_min", Ratio, 2, "laminar: Δp" },
        { "pump-delivery", "dp_kpa", 2, "leak_end_l_min", Ratio, 2, "laminar: Δp" },
        { "pump-delivery", "end_clearance_um", 2, "leak_end_l_min", Ratio, 8, "h³" },
        { "pump-delivery", "tip_clearance_um", 2, "leak_tip_l_min", Ratio, 8, "h³" },
        { "pump-delivery", "body_clearance_um", 2, "leak_body_l_min", Ratio, 8, "h³" },
        { "pump-delivery", "mu_pa_s", 2, "leak_body_l_min", Ratio, 0.5, "laminar: 1/µ" },
        { "pump-delivery", "mu_pa_s", 2, "volumetric_efficiency", Up, 0, "less slip" },
        { "relief-flow", "dp_kpa", 1.2, "open_fraction", Up, 0, "the spring gives" },
        { "relief-flow", "full_area_mm2", 2, "area_mm2", Ratio, 2, "share of the full area" },
        { "relief-flow", "dp_kpa", 0.8, "flow_l_min", Down, 0, "all but shut below its setting" },
        { "relief-setting-from-spring", "spring_rate_n_per_mm", 2, "preload_n", Ratio, 2, "k x" },
        { "relief-setting-from-spring", "plunger_d_mm", 2, "crack_kpa", Ratio, 0.25, "F/(π d²/4)" },
        { "relief-setting-from-spring", "full_lift_mm", 1.5, "crack_kpa", Not, 0, "at its seat" },
        { "relief-setting-from-spring", "full_lift_mm", 1.5, "full_kpa", Up, 0, "k × lift" },
        { "filter-drop", "flow_l_min", 2, "dp_kpa", Ratio, 2, "Darcy, bypass shut" },
        { "filter-drop", "permeance_m3", 0.5, "dp_kpa", Ratio, 2, "Darcy, bypass shut" },
        { "filter-drop", "mu_pa_s", 20, "bypass_share", Up, 0, "thick oil opens the bypass" },
        { "inlet-pressure", "lift_mm", 2, "lift_kpa", Ratio, 2, "ρ g h" },
        { "inlet-pressure", "flow_l_min", 2, "screen_drop_kpa", Up, 0, "½ ρ v², Cd rises too" },
        { "inlet-pressure", "flow_l_min", 2, "inlet_abs_kpa", Down, 0, "more is lost" },
        { "pump-inlet-pressure", "lift_mm", 2, "static_kpa", Ratio, 2, "ρ g h" },
        { "pump-inlet-pressure", "k_minor", 2, "minor_kpa", Ratio, 2, "K ½ ρ v²" },
        { "pump-inlet-pressure", "flow_l_min", 2, "velocity_head_kpa", Ratio, 4, "½ ρ v²" },
        { "pump-inlet-pressure", "bore_mm", 2, "velocity_m_s", Ratio, 0.25, "continuity" },
        { "suction-leak", "area_mm2", 2, "mass_flow_g_s", Ratio, 2, "linear in the hole" },
        { "suction-leak", "area_mm2", 2, "void_fraction_inlet", Up, 0, "less than twice" },
        { "suction-leak", "pump_flow_l_min", 2, "void_fraction_inlet", Down, 0, "more oil to it" },
        { "oring-squeeze", "gland_depth_mm", 1.1, "squeeze_percent", Down, 0, "a deeper groove" },
        { "oring-squeeze", "compression_set", 1.5, "squeeze_after_set_percent", Down, 0,
          "has set" },
        { "oring-squeeze", "compression_set", 1.5, "squeeze_percent", Not, 0, "as new" },
        { "compression-set", "h1_mm", 0.9, "squeeze_percent", Up, 0, "(h0 − h1)/h0" },
        { "pickup-gap", "gap_mm", 2, "area_ratio", Ratio, 2, "π d h/(π d²/4)" },
        { "pickup-gap", "flow_l_min", 2, "gap_velocity_m_s", Ratio, 2, "continuity" },
        { "pickup-gap", "flow_l_min", 2, "gap_loss_kpa", Ratio, 4, "½ ρ v²" },
        // Sump and air.
        { "sump-level", "flow_l_min", 2, "dynamic_holdup_l", Ratio, 2, "flow × time" },
        { "sump-level", "residence_s", 2, "dynamic_holdup_l", Ratio, 2, "flow × time" },
        { "sump-level", "fill_l", 1.2, "level_rest_mm", Up, 0, "more oil" },
        { "sump-level", "flow_l_min", 2, "level_rest_mm", Not, 0, "at rest" },
        { "sump-level", "flow_l_min", 2, "level_running_mm", Down, 0, "more on its way" },
        { "tilted-sump", "volume_l", 1.2, "mean_depth_mm", Ratio, 1.2, "V/(L b)" },
        { "tilted-sump", "width_mm", 2, "mean_depth_mm", Ratio, 0.5, "V/(L b)" },
        { "tilted-sump", "accel_g", 0.5, "tilt_deg", Down, 0, "atan g" },
        { "tilted-sump", "pickup_height_mm", 0.5, "submergence_mm", Up, 0, "lower mouth" },
        { "tilted-sump-profile", "volume_l", 1.1, "submergence_mm", Up, 0, "more oil" },
        { "tilted-sump-profile", "crank_z_mm", 1.1, "crank_clearance_mm", Up, 0, "a higher crank" },
        { "tilted-sump-profile", "crank_z_mm", 1.1, "submergence_mm", Not, 0, "of the oil alone" },
        { "fill-window", "submergence_mm", 1.2, "fill_min_l", Up, 0, "more asked for" },
        { "fill-window", "submergence_mm", 1.2, "fill_max_l", Not, 0, "of the crank" },
        { "fill-window", "crank_z_mm", 1.05, "fill_max_l", Up, 0, "a higher crank" },
        { "fill-window", "allowance_mm", 1.5, "fill_max_l", Down, 0, "more air kept" },
        { "pickup-uncover-time", "area_mm2", 1.5, "time_s", Up, 0, "more oil round it" },
        { "pickup-uncover-time", "pump_flow_l_min", 1.5, "time_s", Down, 0, "drawn faster" },
        { "windage-index", "rpm", 0.5, "tip_speed_m_s", Ratio, 0.5, "ω r" },
        { "windage-index", "rpm", 0.5, "surface_wind_m_s", Ratio, 0.5, "share of the tip's" },
        { "windage-index", "rpm", 0.5, "kh_speed_m_s", Not, 0, "of oil and air" },
        { "windage-index", "gap_mm", 2, "index", Down, 0, "further from the oil" },
        { "critical-submergence", "flow_l_min", 2, "velocity_m_s", Ratio, 2, "continuity" },
        { "critical-submergence", "flow_l_min", 2, "froude", Ratio, 2, "v/√(g d)" },
        { "critical-submergence", "nu_mm2_s", 2, "radial_reynolds", Ratio, 0.5, "Q/(ν s)" },
        { "dissolved-air-release", "pressure_abs_kpa", 0.8, "released_ratio", Up, 0, "Henry" },
        { "bubble-rise", "diameter_um", 0.5, "velocity_mm_s", Ratio, 0.25, "Stokes: d²" },
        { "bubble-rise", "nu_mm2_s", 2, "velocity_mm_s", Ratio, 0.5, "Stokes: 1/ν" },
        { "bubble-rise", "sump_volume_l", 2, "residence_s", Ratio, 2, "V/Q" },
        { "bubble-rise", "depth_mm", 2, "rise_time_s", Ratio, 2, "h/v" },
        { "aerated-delivery", "displacement_flow_l_min", 2, "liquid_flow_l_min", Ratio, 2,
          "share" },
        { "aerated-delivery", "void_fraction", 2, "liquid_flow_l_min", Down, 0, "room taken" },
        { "aerated-delivery", "outlet_abs_kpa", 2, "void_fraction_outlet", Down, 0, "squeezed" },
        { "bulk-modulus-aerated", "void_fraction", 2, "bulk_modulus_pa", Down, 0, "softer" },
        { "bulk-modulus-aerated", "pressure_abs_kpa", 4, "sound_speed_m_s", Up, 0, "stiffer" },
        { "drainback-time", "hole_count", 2, "time_s", Down, 0, "more holes" },
        { "drainback-time", "nu_mm2_s", 4, "time_s", Up, 0, "thick oil" },
        { "drainback-time", "pool_area_mm2", 1.2, "time_s", Ratio, 1.2, "more oil over the holes" },
        // Priming and evidence.
        { "prime-volume", "filter_l", 2, "filter_to_fill_l", Ratio, 2, "what is not filled yet" },
        { "prime-volume", "filter_l", 2, "passage_volume_l", Not, 0, "of the drillings" },
        { "prime-lift", "rpm", 0.5, "dry_suction_kpa", Ratio, 0.5, "displacement over slip" },
        { "prime-lift", "lift_mm", 2, "dry_lift_mm", Not, 0, "of the pump alone" },
        { "prime-time", "volume_l", 2, "time_s", Ratio, 2, "volume over delivery" },
        { "prime-time", "rpm", 0.5, "time_s", Ratio, 2, "volume over delivery" },
        { "wear-rate", "sump_mass_kg", 2, "wear_mass_mg", Up, 0, "the same in more oil" },
        { "wear-rate", "hours_h", 2, "wear_rate_mg_h", Ratio, 0.5, "per hour" },
        { "wear-rate", "element_mg_kg", 2, "net_mg_kg", Ratio, 62.0 / 30, "less the new oil's" },
        { "count-comparison", "count_2", 2, "rate_ratio", Ratio, 2, "rates" },
        { "count-comparison", "hours_2_h", 2, "rate_ratio", Ratio, 0.5, "per hour" },
        { "count-comparison", "area_1_cm2", 2, "rate_ratio", Ratio, 2, "per area" },
        { "count-comparison", "count_2", 2, "p_value", Down, 0, "less by chance" },
        { "bore-finish", "spacing_um", 2, "rk_um", Not, 0, "heights alone" },
        { "strip-gauge-clearance", "step_um", 2, "clearance_um", Not, 0, "the mean stays" },
        { "strip-gauge-clearance", "step_um", 2, "standard_uncertainty_um", Ratio, 2,
          "half a step" },
    };
    return all;
}

void TestScaling::answers_moveAsTheLawSays_data()
{
    QTest::addColumn<int>("row");
    for (size_t i = 0; i < rows().size(); ++i)
        QTest::addRow("%s: %s by %s (%s)", rows()[i].calculator, rows()[i].output, rows()[i].input,
                      rows()[i].law)
            << static_cast<int>(i);
}

void TestScaling::answers_moveAsTheLawSays()
{
    QFETCH(int, row);
    const Row &r = rows()[static_cast<size_t>(row)];
    const Calculator *calculator = findCalculator(r.calculator);
    QVERIFY(calculator);
    Json input = example(r.calculator);
    for (const Base &b : bases)
        if (std::string_view(b.calculator) == r.calculator && std::string_view(b.input) != r.input)
            input[b.input] = b.value;
    const auto before = runCalculator(*calculator, input);
    QVERIFY2(before, before ? "" : said(before.error().message).c_str());
    QVERIFY2(input.contains(r.input), r.input);
    const Json &old = input[r.input];
    input[r.input] = old.is_number_integer() && r.factor == std::floor(r.factor)
        ? Json(old.get<int>() * static_cast<int>(r.factor))
        : Json(old.get<double>() * r.factor);
    const auto after = runCalculator(*calculator, input);
    QVERIFY2(after, after ? "" : (after.error().place + " " + said(after.error().message)).c_str());
    const double a = (*before)[r.output].get<double>(), b = (*after)[r.output].get<double>();
    const QString moved = QStringLiteral("%1 → %2").arg(a, 0, 'g', 8).arg(b, 0, 'g', 8);
    if (r.moves == Moves::Ratio)
        verifyClose(b, a * r.ratio, 2e-4, 1e-12, QString::fromLatin1(r.output));
    else if (r.moves == Moves::Up)
        QVERIFY2(b > a, qPrintable(moved));
    else if (r.moves == Moves::Down)
        QVERIFY2(b < a, qPrintable(moved));
    else
        QVERIFY2(b == a, qPrintable(moved));
}

void TestScaling::everyCalculator_hasALawHere()
{
    // Words instead of numbers, or a whole list of readings.
    const std::set<std::string_view> without { "bore-form", "grade", "sender-thread",
                                               "aeration-risk" };
    for (const Calculator *c : calculators()) {
        const bool here = std::any_of(rows().begin(), rows().end(),
                                      [&](const Row &r) { return c->name == r.calculator; });
        QVERIFY2(here || without.contains(c->name), std::string(c->name).c_str());
    }
}

void TestScaling::answers_areTheSameTwice_data()
{
    names();
}

void TestScaling::answers_areTheSameTwice()
{
    QFETCH(QString, name);
    const Calculator *calculator = findCalculator(name.toStdString());
    const Json input = example(name.toStdString());
    const auto once = runCalculator(*calculator, input), twice = runCalculator(*calculator, input);
    QVERIFY(once && twice);
    QCOMPARE(once->dump(), twice->dump());
}

void TestScaling::keyOrder_doesNotMatter_data()
{
    names();
}

void TestScaling::keyOrder_doesNotMatter()
{
    QFETCH(QString, name);
    const Calculator *calculator = findCalculator(name.toStdString());
    const Json input = example(name.toStdString());
    Json turned = Json::object();
    std::vector<std::string> keys;
    for (const auto &[key, value] : input.items())
        keys.push_back(key);
    for (auto key = keys.rbegin(); key != keys.rend(); ++key)
        turned[*key] = input[*key];
    QCOMPARE(runCalculator(*calculator, turned)->dump(), runCalculator(*calculator, input)->dump());
}

} // namespace tst_scaling

MILDPATH_TEST(tst_scaling, TestScaling)
#include "tst_scaling.moc"
