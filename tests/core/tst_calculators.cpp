// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/catalogue.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

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
    QVERIFY2(out, out ? "" : (out.error().place + " " + out.error().message).c_str());
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

QTEST_APPLESS_MAIN(TestCalculators)
#include "tst_calculators.moc"
