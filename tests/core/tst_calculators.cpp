// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/catalogue.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

namespace tst_calculators {

class TestCalculators : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void workedExamples_comeOut_data();
    void workedExamples_comeOut();
    void badInput_namesTheKey_data();
    void badInput_namesTheKey();
    void description_namesEveryKeyThatMatters();
    void nullCountsAsAbsent();
};

namespace {

void compare(const Json &actual, const Json &expected, const std::string &place, double rtol)
{
    if (expected.is_object()) {
        for (const auto &[key, value] : expected.items()) {
            QVERIFY2(actual.contains(key), (place + "/" + key).c_str());
            compare(actual[key], value, place + "/" + key, rtol);
        }
    } else if (expected.is_array() && actual.is_array()) {
        QCOMPARE(actual.size(), expected.size());
        for (size_t i = 0; i < expected.size(); ++i)
            compare(actual[i], expected[i], place + "/" + std::to_string(i), rtol);
    } else if (expected.is_number()) {
        verifyClose(actual.get<double>(), expected.get<double>(), rtol, 1e-12,
                    QString::fromStdString(place));
    } else {
        QVERIFY2(actual == expected, (place + " is " + actual.dump()).c_str());
    }
}

} // namespace

void TestCalculators::workedExamples_comeOut_data()
{
    QTest::addColumn<int>("row");
    const Json examples = jsonOf("calculators.json");
    for (size_t i = 0; i < examples.size(); ++i)
        QTest::addRow("%zu %s (%s)", i, examples[i]["name"].get<std::string>().c_str(),
                      examples[i]["source"].get<std::string>().c_str())
            << static_cast<int>(i);
}

void TestCalculators::workedExamples_comeOut()
{
    QFETCH(int, row);
    const Json example = jsonOf("calculators.json")[static_cast<size_t>(row)];
    const std::string name = example["name"];
    const Calculator *calculator = findCalculator(name);
    QVERIFY(calculator);
    const auto out = runCalculator(*calculator, example["input"]);
    QVERIFY2(out, out ? "" : (out.error().place + " " + said(out.error().message)).c_str());
    // Worked examples are printed to five figures; what stands on a grid says how close it is.
    compare(*out, example["output"], name, example.value("rtol", 6e-5));
    // No output the definition does not know, none it promises missing from the definition.
    for (const auto &[key, value] : out->items()) {
        const bool described = std::any_of(calculator->outputs.begin(), calculator->outputs.end(),
                                           [&](const CalcOutput &o) { return o.key == key; });
        QVERIFY2(described, key.c_str());
    }
}

void TestCalculators::badInput_namesTheKey_data()
{
    QTest::addColumn<QString>("name");
    QTest::addColumn<QString>("input");
    QTest::addColumn<QString>("key");
    const auto row = [](const char *what, const char *name, const char *input, const char *key) {
        QTest::newRow(what) << QString::fromLatin1(name) << QString::fromLatin1(input)
                            << QString::fromLatin1(key);
    };
    row("unknown key", "grade", R"({"kv100_mm2_s":10,"colour":3})", "colour");
    row("missing key", "viscosity-at", R"({"kv40_mm2_s":110,"kv100_mm2_s":14.5})", "temperature_c");
    row("text for a number", "grade", R"({"kv100_mm2_s":"ten"})", "kv100_mm2_s");
    row("trace too short", "bore-finish", R"({"z_um":[1,2,3],"spacing_um":1})", "z_um");
    row("trace is no list", "bore-finish", R"({"z_um":1,"spacing_um":1})", "z_um");
    row("trace without a step", "bore-finish", R"({"z_um":[1,2,3]})", "spacing_um");
    row("step of nothing", "bore-finish", R"({"z_um":[1,2,3],"spacing_um":0})", "spacing_um");
    row("unknown filter", "bore-finish", R"({"z_um":[1],"spacing_um":1,"filter":"best"})",
        "filter");
    row("sump of nothing", "wear-rate",
        R"({"sump_mass_kg":0,"element_mg_kg":1,"baseline_mg_kg":1,"hours_h":1})", "sump_mass_kg");
    row("negative hours", "wear-rate",
        R"({"sump_mass_kg":4,"element_mg_kg":1,"baseline_mg_kg":1,"hours_h":-1})", "hours_h");
    row("half a particle", "count-comparison",
        R"({"count_1":0.5,"hours_1_h":1,"area_1_cm2":1,"count_2":1,"hours_2_h":1,"area_2_cm2":1})",
        "count_1");
    row("boolean is no number", "grade", R"({"kv100_mm2_s":true})", "kv100_mm2_s");
    row("out of range", "viscosity-at",
        R"({"kv40_mm2_s":110,"kv100_mm2_s":14.5,"temperature_c":400})", "temperature_c");
    row("thicker hot", "viscosity-index", R"({"kv40_mm2_s":10,"kv100_mm2_s":11})", "kv100_mm2_s");
    row("unknown choice", "grade", R"({"kv100_mm2_s":10,"winter_grade":"3W"})", "winter_grade");
    row("per million forgotten", "thermal-clearance",
        R"({"cold_clearance_um":50,"journal_diameter_mm":60,"housing_alpha_per_k":21.5,"housing_temp_c":100,
            "journal_alpha_per_k":11.7e-6,"journal_temp_c":100})",
        "housing_alpha_per_k");
    row("in a list", "strip-gauge-clearance",
        R"({"step_um":12,"readings":[{"clearance_um":40},{"clearance_um":-1}]})",
        "readings/1/clearance_um");
    row("nothing usable", "strip-gauge-clearance", R"({"step_um":12,"readings":[]})", "readings");
    row("nearer than the axis", "crank-feed-flow",
        R"({"speed_rpm":8500,"main_radius_mm":26,"pin_exit_radius_mm":62,"drilling_diameter_mm":5,
            "drilling_length_mm":80,"viscosity_pa_s":0.01,"main_kpa":380,"r_min_mm":30})",
        "r_min_mm");
    row("drilling as wide as the journal", "crank-feed-flow",
        R"({"speed_rpm":8500,"main_radius_mm":2,"pin_exit_radius_mm":62,"drilling_diameter_mm":5,
            "drilling_length_mm":80,"viscosity_pa_s":0.01,"main_kpa":380})",
        "drilling_diameter_mm");
    row("nothing upright", "shell-form",
        R"({"readings":[{"angle_deg":45,"station":1,"clearance_um":50}],"journal_diameter_mm":60,
            "bearing_length_mm":20,"groove_axial_mm":3,"extent_deg":180})",
        "readings");
    row("groove as wide as the bearing", "shell-form",
        R"({"readings":[{"angle_deg":90,"station":1,"clearance_um":50}],"journal_diameter_mm":60,
            "bearing_length_mm":20,"groove_axial_mm":20,"extent_deg":180})",
        "groove_axial_mm");
    row("matrix of another size", "band-update",
        R"({"prior_kpa":[140,380],"jacobian":[0.1,0.2,0.3],"inputs":2,"read_index":[0],
            "read_kpa":[118],"read_u_kpa":[5]})",
        "jacobian");
    row("reading of no point", "band-update",
        R"({"prior_kpa":[140],"jacobian":[0.1],"inputs":1,"read_index":[1],"read_kpa":[118],
            "read_u_kpa":[5]})",
        "read_index");
    row("gap wider than any", "tensioner-seep",
        R"({"plunger_mm":14,"clearance_um":6000,"length_mm":18,"vent_mm":0,"dp_kpa":1,
            "rho_kg_m3":826,"mu_pa_s":0.01})",
        "clearance_um");
    row("other method's key", "clearance-from-diameters",
        R"({"method":"zeroed_gauge","journal_mm":60,"bore_mm":60.05,"gauge_reading_um":50})",
        "bore_mm");
    row("method's key missing", "clearance-from-diameters", R"({"journal_mm":60})", "bore_mm");
    row("relief backward", "relief-flow",
        R"({"crack_kpa":500,"full_kpa":400,"full_area_mm2":60,"dp_kpa":1,"rho_kg_m3":826,"mu_pa_s":0.01})",
        "full_kpa");
    row("negative pressure on the pump", "pump-delivery",
        R"({"displacement_m3":6.8e-6,"rpm":800,"rotor_length_mm":12,"tip_clearance_um":90,"end_clearance_um":76,"body_clearance_um":160,
            "tip_land_mm":1,"end_path_width_mm":90,"end_path_length_mm":6,"body_path_length_mm":35,"dp_kpa":-1,"mu_pa_s":0.01})",
        "dp_kpa");
    row("fuel thicker than the oil", "fuel-dilution",
        R"({"oil_kinematic_viscosity_mm2_s":10,"fuel_kinematic_viscosity_mm2_s":12,"fuel_mass_fraction":0.1})",
        "fuel_kinematic_viscosity_mm2_s");
    row("more fuel than oil", "fuel-dilution",
        R"({"oil_kinematic_viscosity_mm2_s":10,"fuel_kinematic_viscosity_mm2_s":0.5,"fuel_mass_fraction":0.6})",
        "fuel_mass_fraction");
    row("thicker under shear", "high-shear-viscosity",
        R"({"kv40_mm2_s":110,"kv100_mm2_s":14.5,"hths_pa_s":0.006,"temperature_c":100,"shear_rate_per_s":1e6})",
        "hths_pa_s");
    row("ball that floats", "falling-ball-ratio",
        R"({"time_reference_s":8,"time_unknown_s":9,"density_reference_kg_m3":865,"density_unknown_kg_m3":885,
            "ball_density_kg_m3":870,"viscosity_reference_pa_s":0.2,"ball_diameter_m":0.001,"glass_diameter_m":0.04,
            "fall_height_m":0.2})",
        "ball_density_kg_m3");
    row("ball that fills the glass", "falling-ball-ratio",
        R"({"time_reference_s":8,"time_unknown_s":9,"density_reference_kg_m3":865,"density_unknown_kg_m3":885,
            "viscosity_reference_pa_s":0.2,"ball_diameter_m":0.03,"glass_diameter_m":0.04,"fall_height_m":0.2})",
        "ball_diameter_m");
    row("two mirrors", "film-parameter", R"({"h_min_um":1,"rq_1_um":0,"rq_2_um":0})", "rq_1_um");
    row("rounder than its cup", "line-contact-film",
        R"({"viscosity_pa_s":0.01,"entrainment_speed_m_s":2,"radius_1_m":0.02,"radius_2_m":-0.01,"load_n":10,
            "contact_length_m":0.01,"pressure_viscosity_per_pa":2e-8})",
        "radius_2_m");
    row("mixture out of range", "fuel-mass-ratio",
        R"({"stoich_afr_1":14.7,"stoich_afr_2":6.4,"lambda_2":5})", "lambda_2");
    row("holes that never part", "cam-timed-feed",
        R"({"journal_d_mm":10,"cam_hole_mm":8,"bearing_hole_mm":8,"alignments_per_rev":3,"dp_kpa":100,"rho_kg_m3":826,
            "mu_pa_s":0.01})",
        "alignments_per_rev");
    row("half an alignment", "cam-timed-feed",
        R"({"journal_d_mm":46,"cam_hole_mm":3,"bearing_hole_mm":3,"alignments_per_rev":1.5,"dp_kpa":100,"rho_kg_m3":826,
            "mu_pa_s":0.01})",
        "alignments_per_rev");
    row("suction that pushes", "inlet-pressure",
        R"({"flow_l_min":-2,"screen_d_mm":20,"tube_d_mm":16,"tube_l_mm":200,"rho_kg_m3":826,"mu_pa_s":0.01})",
        "flow_l_min");
    row("one mouth of the drilling", "crank-feed-pressure",
        R"({"speed_rpm":6000,"main_radius_mm":30,"main_hole_xy_mm":[30,0]})", "pin_hole_xy_mm");
    row("mouth with three numbers", "crank-feed-pressure",
        R"({"speed_rpm":6000,"main_radius_mm":30,"main_hole_xy_mm":[30,0,1],"pin_hole_xy_mm":[0,60]})",
        "main_hole_xy_mm");
    row("drilling outside its journal", "crank-feed-pressure",
        R"({"speed_rpm":6000,"main_radius_mm":30,"r_min_mm":40})", "r_min_mm");
    row("no feed hole named", "crank-feed-pressure",
        R"({"speed_rpm":6000,"main_radius_mm":30,"groove":"none","drilling_diameter_mm":5})",
        "feed_hole_diameter_mm");
    row("more vacuum than there is", "crank-feed-pressure",
        R"({"speed_rpm":6000,"main_radius_mm":30,"main_kpa":-120})", "main_kpa");
    row("thicker hot in a bearing", "bearing-heat",
        R"({"journal_diameter_mm":50,"length_mm":20,"diametral_clearance_um":50,"speed_rpm":6000,"load_n":5000,
            "oil_inlet_c":90,"viscosity_40_mm2_s":10,"viscosity_100_mm2_s":13})",
        "viscosity_100_mm2_s");
    row("no film for this load", "bearing-heat",
        R"({"journal_diameter_mm":50,"length_mm":20,"diametral_clearance_um":50,"speed_rpm":100,"load_n":500000,
            "oil_inlet_c":90,"viscosity_40_mm2_s":90,"viscosity_100_mm2_s":13})",
        "load_n");
    row("not an object", "grade", "[1]", "input");
}

void TestCalculators::badInput_namesTheKey()
{
    QFETCH(QString, name);
    QFETCH(QString, input);
    QFETCH(QString, key);
    const auto out
        = runCalculator(*findCalculator(name.toStdString()), *parseJson(input.toStdString()));
    QVERIFY(!out);
    QCOMPARE(QString::fromStdString(out.error().place), key);
    QVERIFY(!out.error().message.empty());
}

void TestCalculators::description_namesEveryKeyThatMatters()
{
    for (const Calculator *c : calculators()) {
        const Json d = describeCalculator(*c);
        QVERIFY(!d["source"].get<std::string>().empty()
                && !d["formula"].get<std::string>().empty());
        QCOMPARE(d["inputs"].size(), c->inputs.size());
        for (const Json &in : d["inputs"]) {
            const std::string key = in["key"];
            // A key that carries a unit says which in its description too.
            if (key.ends_with("_mm") || key.ends_with("_um") || key.ends_with("_kpa")
                || key.ends_with("_c"))
                QVERIFY2(in.contains("unit"), key.c_str());
        }
    }
}

void TestCalculators::nullCountsAsAbsent()
{
    QVERIFY(runCalculator(*findCalculator("grade"),
                          *parseJson(R"({"kv100_mm2_s":10,"hths_pa_s":null})")));
}

} // namespace tst_calculators

MILDPATH_TEST(tst_calculators, TestCalculators)
#include "tst_calculators.moc"
