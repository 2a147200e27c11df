// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/json.h"
#include "testing.h"

// One value of a whole build set wrong at a time: the file is refused, the place is named as a JSON
// pointer and the reason says what would do. The build is the demo with a history, which has an
// entry in nearly every list.

using namespace mildpath;

namespace tst_damage {

class TestDamage : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void theWholeBuild_isInOrder();
    void oneWrongValue_isNamed_data();
    void oneWrongValue_isNamed();
    void missingLists_areNoFault_data();
    void missingLists_areNoFault();
    void idUsedTwice_isNamed_data();
    void idUsedTwice_isNamed();
    void replacingWhatIsNotThere_isNamed_data();
    void replacingWhatIsNotThere_isNamed();
    void everyNumber_mayBeTextNowhere();

private:
    Json m_whole;
};

void TestDamage::initTestCase()
{
    const auto path = demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath";
    m_whole = *parseJson(*readTextFile(path));
    // Long traces only take time here.
    for (Json &trace : m_whole["bore_traces"]) {
        std::string z = trace["z_um"];
        z.resize(z.rfind(' ', std::min<size_t>(z.size(), 1500)));
        trace["z_um"] = z;
    }
    for (Json &log : m_whole["run_logs"])
        while (log["trace"].size() > 10)
            log["trace"].erase(log["trace"].size() - 1);
}

void TestDamage::theWholeBuild_isInOrder()
{
    const auto loaded = parseBuild(m_whole.dump());
    QVERIFY2(loaded, loaded ? "" : loaded.error().errors.front().place.c_str());
}

void TestDamage::oneWrongValue_isNamed_data()
{
    QTest::addColumn<QString>("pointer");
    QTest::addColumn<QString>("value");
    QTest::addColumn<QString>("says");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *pointer, const char *value, const char *says,
                        const char *place = nullptr) {
        QTest::addRow("%s = %.40s", pointer, value)
            << QString::fromUtf8(pointer) << QString::fromUtf8(value) << QString::fromUtf8(says)
            << QString::fromUtf8(place ? place : pointer);
    };
    // The build and its engine.
    row("/name", R"("")", "is empty");
    row("/name", "7", "must be text");
    row("/notes", "[]", "must be text");
    row("/engine/cylinders", "4.5", "whole number");
    row("/engine/displacement_l", "-1", "must be 0 to 100 L");
    row("/engine/displacement_l", "101", "must be 0 to 100 L");
    row("/engine/bore_mm", "401", "must be 0 to 400 mm");
    row("/engine/stroke_mm", "-3", "must be 0 to 600 mm");
    row("/engine/reciprocating_g", "60000", "must be 0 to 50000 g");
    row("/engine/materials/crank", R"("wood")", "unknown material \"wood\"; known: ");
    row("/engine/materials/rod", R"("")", "unknown material");
    row("/engine/materials/block", "null", "is missing");
    row("/engine/stops/5/kind", R"("wheel")", "must be tank, pickup");
    row("/engine/stops/5/id", R"("main_2")", "is used twice", "/engine/stops/6/id");
    row("/two_values", R"([{"element": "main_1", "key": "wings", "other": 1}])",
        "there is no wings of \"main_1\"", "/two_values/0");
    row("/engine/stops/5/values/shell_wall_mm", "21", "must be 0 to 20 mm");
    row("/engine/stops/5/elements/0", R"("nothing")", "the circuit has no element \"nothing\"");
    row("/engine/stops/5/points", "[]", "exactly one point");
    row("/engine/stops/5/values", R"({"wings": 2})", "is not a number of a stop of kind \"main\"",
        "/engine/stops/5/values/wings");
    // The circuit.
    row("/circuit/gauge_tap", R"("nowhere")", "is not one of the taps");
    row("/circuit/gauge_tap", "5", "is missing");
    row("/circuit/elements/0/type", R"("teapot")", "teapot");
    row("/circuit/elements/0/from", "null", "is missing");
    // The oil and the use.
    row("/oil/kv40_mm2_s", "1", "at least 2");
    row("/oil/kv100_mm2_s", "400", "", "/oil/kv100_mm2_s");
    row("/oil/rho15_kg_m3", "599", "must be 600 to 1200 kg/m³");
    row("/oil/rho15_kg_m3", "1201", "must be 600 to 1200");
    row("/oil/kv100_mm2_s", "null", "is missing");
    row("/use/coldest_start_c", "-61", "must be -60 to 60 °C");
    row("/use/hot_oil_c", "59", "must be 60 to 150 °C");
    row("/use/hot_oil_c", "151", "must be 60 to 150 °C");
    row("/use/hot_idle_rpm", "199", "must be 200 to 3000 rpm");
    row("/use/high_speed_rpm", "15001", "must be 500 to 15000 rpm");
    row("/use/most_rpm", "15001", "must be 1000 to 15000 rpm");
    row("/use/hot_idle_floor_kpa", "-1", "must be 0 to 10 bar");
    row("/use/coldest_clearance_floor_um", "201", "must be 0 to 200 µm");
    row("/use/combustion_peak_kpa", "30001", "must be 0 to 300 bar");
    row("/use/turn_g", "3.1", "must be 0 to 3 g");
    row("/use/incline_deg", "46", "must be -45 to 45°");
    row("/use/heel_deg", "61", "must be 0 to 60°");
    row("/use/turn_s", "0", "must be 0 to 600 s");
    // Limits and readings.
    row("/limits/main/min_um", "-1", "limits must lie within 0 to 1000 µm", "/limits/main");
    row("/limits/main/max_um", "1001", "limits must lie within 0 to 1000 µm", "/limits/main");
    row("/limits/main/max_um", "1", "must be above the minimum (35 µm)");
    row("/limits/main/target_um", "0", "must be 0 to 1000 µm");
    row("/readings/0/stop", R"("main_9")", "there is no stop \"main_9\"");
    row("/readings/0/family", R"("wheel")", "is nothing that is gauged");
    row("/readings/0/item", "3", "number 3");
    row("/readings/0/method", R"("guess")", "\"guess\" does not measure");
    row("/readings/0/value_um", "0", "must be above 0 and at most 1000 µm");
    row("/readings/0/value_um", "1000.5", "must be above 0 and at most 1000 µm");
    row("/readings/0/u_um", "-1", "must be 0 to 100 µm");
    row("/readings/0/u_um", "101", "must be 0 to 100 µm");
    row("/readings/0/angle_deg", "361", "must be 0 to 360°");
    row("/readings/0/angle_deg", "-1", "must be 0 to 360°");
    row("/readings/0/station", "0", "must be 1 to 12");
    row("/readings/0/station", "13", "must be 1 to 12");
    row("/readings/0/housing_temp_c", "201", "must be -40 to 200 °C");
    row("/readings/0/journal_temp_c", "-41", "must be -40 to 200 °C");
    row("/readings/0/bore_mm", "601", "must be 1 to 600 mm");
    row("/readings/0/journal_mm", "0.5", "must be 1 to 600 mm");
    row("/readings/0/journal_u_um", "-2", "must be 0 to 100 µm");
    row("/readings/0/over_oil_hole", R"("yes")", "must be true or false");
    row("/proofs/0/stop", R"("nowhere")", "there is no stop \"nowhere\"");
    row("/proofs/0/aspect", R"("smell")", "must be size, clean or flow, is \"smell\"");
    row("/proofs/0/verdict", R"("fine")", "must be proven, look_again or hold, is \"fine\"");
    // Caps, shells, weights.
    row("/torque_cards/0/stages", "[]", "needs stages and fasteners", "/torque_cards/0");
    row("/torque_cards/0/stages/0/torque", "2001", "is above 2000 N·m", "/torque_cards/0/stages/0");
    row("/torque_cards/0/stages/2/angle_deg", "721", "360° is the most",
        "/torque_cards/0/stages/2");
    row("/torque_cards/0/fasteners/0/stop", R"("main_9")", "there is no stop");
    row("/torque_ticks/0/card", R"("wheel_nuts")", "there is no torque card \"wheel_nuts\"");
    row("/torque_ticks/0/fastener", "99", "is not on the card");
    row("/torque_ticks/0/stage", "4", "is not on the card");
    row("/torque_ticks/0/stage", "-1", "is not on the card");
    row("/shells/main/shells/0/wall_mm", "0.2", "must be 0.3 to 20.0 mm");
    row("/shells/main/shells/0/name", R"("")", "is empty");
    row("/shells/main/shells/0/halves", "1001", "must be 0 to 1000");
    row("/shells/big_end/undersizes_mm/0", "3.5", "must be above 0 and at most 3.0 mm",
        "/shells/big_end/undersizes_mm");
    row("/shells/big_end/fitted/big_end_1/upper", R"("mauve")", "there is no shell \"mauve\"",
        "/shells/big_end/fitted/big_end_1");
    row("/weighings/0/grams", "0", "must be above 0 to 99999 g");
    row("/weighings/0/item", "49", "must be 1 to 48");
    row("/weighed_parts/rod/tolerance_g", "0", "must be above 0 to 1000 g");
    // Heat.
    row("/heat/housing_below_oil_k", "81", "must be -40 to 80 °C");
    row("/heat/block_end_c", "29", "must be 30 to 150 °C");
    row("/heat/oil_at_idle_s", "9", "must be 10 to 7200 s");
    row("/heat/journal_lag_s", "-1", "must be 0 to 3600 s");
    row("/heat/instrument_emissivity", "0.04", "must be 0.05 to 1.00");
    row("/heat_points/0/stop", R"("pump")", "there is no main bearing \"pump\"");
    row("/heat_points/0/surface", R"("mirror")", "unknown surface \"mirror\"; known: ");
    row("/heat_points/0/spots_c/1", "251", "must be -60 to 250 °C");
    row("/heat_points/0/reading_um", "1001", "µm");
    row("/heat_points/0/zero_temp_c", "-41", "must be -40 to 200 °C");
    // Passages and plugs.
    row("/passages/0/part", R"("wing")", "there is no part \"wing\"");
    row("/passages/0/made", R"("carved")", "must be drilled, cast or tube, is \"carved\"");
    row("/passages/0/d_mm", "9", "is that of its elements");
    row("/passages/4/d_mm", "0.2", "must be 0.3 to 200.0 mm");
    row("/passages/0/l_mm", "0.5", "must be 1 to 10000 mm");
    row("/passages/0/stop", R"("nowhere")", "nowhere");
    row("/passages/0/ends/0/kind", R"("open")", "must be plug, hole, joint or blind, is \"open\"");
    row("/passages/0/ends/0/kind", R"("hole")", "has a plug, and says it is a hole",
        "/passages/0/ends/0");
    row("/plugs/0/kind", R"("cork")", "there is no kind of plug \"cork\"");
    row("/plugs/0/passage", R"("nowhere")", "there is no passage \"nowhere\"");
    row("/plugs/0/at_mm", "500", "must be 0 to 450 mm");
    row("/plugs/0/d_mm", "0.4", "must be 0.5 to 200.0 mm");
    // Lines and the sump.
    row("/plumbing/filter_build", R"("paper_bag")", "there is no filter \"paper_bag\"");
    row("/plumbing/lines", R"([{"id": "l1", "from": "engine.gauge", "to": "moon.in"}])", "moon.in",
        "/plumbing/lines/0/");
    row("/plumbing/capped", R"([{"port": "moon.in"}])", "moon.in", "/plumbing/capped/0/port");
    row("/sump/coolant", R"("some")", "must be none, suspected or confirmed, is \"some\"");
    row("/sump/fuel", R"("much")", "must be none, suspected or confirmed, is \"much\"");
    row("/sump/across_mm", "[[-90, 5], [90, 5], [90, 300], [-90, 300]]",
        "its lowest point must stand at height 0, stands at 5.0 mm");
    row("/sump/values/stick_high_mm", "60", "must be above the low mark");
    row("/sump/values/static_holdup_l", "4.7", "is more than was poured in");
    row("/sump/values/pickup_along_mm", "460", "outside the pan");
    row("/sump/values/fill_l", "-1", "oil poured in must be 0 to 500 L");
    row("/sump/values", R"({"wings": 1})", "is not known here", "/sump/values/wings");
    row("/start/values", R"({"wings": 1})", "is not known here", "/start/values/wings");
    row("/finish/values/valley_um3_um2", "-1", "must be");
    row("/after/values", R"({"wings": 1})", "is not known here", "/after/values/wings");
    // The logbook.
    row("/events/0/kind", R"("prayed")", "there is no kind of event \"prayed\"");
    row("/events/0/scope", R"("job")", "", "/events/0/scope");
    row("/events/0/target", R"("no_plug")", "there is no plug \"no_plug\"");
    row("/events/0/result", R"("white")", "\"white\" does not go with plug_out");
    row("/signs/0/sign", R"("unicorn")", "is \"unicorn\"");
    row("/signs/0/stop", R"("nowhere")", "there is no stop \"nowhere\"");
    row("/finds/0/stop", R"("nowhere")", "there is no stop \"nowhere\"");
    row("/finds/0/size", R"("whale")", "must be speck, grit, flake, curl or lump, is \"whale\"");
    row("/gauge_readings/0/tap", R"("nowhere")", "there is no gauge tap \"nowhere\"");
    row("/gauge_readings/0/rpm", "0", "must be above 0 to 20000 rpm, is 0 rpm");
    row("/gauge_readings/0/oil_temp_c", "201", "must be -60 to 200 °C");
    row("/gauge_readings/0/pressure_kpa", "5001", "must be 0 to 50 bar");
    row("/gauge_readings/0/u_kpa", "0", "must be above 0 to 5 bar");
    row("/symptoms/0/symptom", R"("sneeze")", "is \"sneeze\"");
    row("/symptoms/0/sound", R"("song")",
        "must be rattle, tapping, knock, whine or squeal, is \"song\"");
    row("/flows/0/saw", R"("maybe")", "must be flows, weak or dry, is \"maybe\"");
    row("/flows/0/means", R"("magic")",
        "must be pressure_pot, drill, starter or running, is \"magic\"");
    row("/flows/0/outlet", "99", "must be 0 to");
    row("/flows/0/pressure_kpa", "-1", "must be above 0");
    row("/scenarios/0/faults", "[]", "is empty");
    row("/scenarios/0/faults/0/severity", "1.5", "must be 0 to 1");
    row("/scenarios/0/faults/0/stop", R"("nowhere")", "there is no stop \"nowhere\"");
    row("/card_steps/0/outcome", R"("perhaps")", "must be done, not_so or skipped, is \"perhaps\"");
    row("/card_steps/0/step", R"("")", "names no step");
    row("/run_logs/0/kind", R"("sprint")", "must be prime, start or run, is \"sprint\"");
    row("/run_logs/0/tap", R"("nowhere")", "there is no gauge tap \"nowhere\"");
    row("/run_logs/0/file", R"("../x.csv")", "must be a plain file name");
    row("/run_logs/0/trace/1/0", "-5", "time goes back", "/run_logs/0/trace/1");
    row("/filter_cuts/0/filter_hours_h", "0", "must be above 0: a filter that saw no oil");
    row("/filter_cuts/0/area_cm2", "0", "must be above 0");
    row("/filter_cuts/0/filter_hours_h", "9", "is more than the engine has run");
    row("/filter_cuts/0/counts/0/kind", R"("gold")",
        "must be bright, copper, magnetic, black or pliable, is \"gold\"");
    row("/filter_cuts/0/counts/0/where", R"("bin")", "must be pleats or can, is \"bin\"");
    row("/filter_cuts/0/counts/0/count", "-1", "must be 0 to 1000000");
    row("/filter_cuts/0/counts/1/where", R"("pleats")", "is counted twice",
        "/filter_cuts/0/counts/1");
    row("/oil_samples/0/of", R"("old")", "must be used or new, is \"old\"");
    row("/oil_samples/1/oil_hours_h", "0", "must be above 0: oil that did not run is new oil");
    row("/oil_samples/1/oil_hours_h", "99999", "");
    row("/bore_traces/0/bore", "5", "must be 1 to 4");
    row("/bore_traces/0/phase", R"("during")", "must be before or after, is \"during\"");
    row("/bore_traces/0/z_um", R"("1 2 3")", "has fewer than 100 heights");
    row("/bore_traces/0/z_um", R"("1 2 x")", "height 3 is no number");
    row("/seal_checks/0/kind", R"("whistle")", "must be blow_by or vacuum, is \"whistle\"");
    row("/seal_checks/0/phase", R"("during")", "must be before or after, is \"during\"");
    row("/openings/0/readings", "9999", "");
    // Beyond a build.
    row("/version", "99", "newer");
    row("/format", R"("recipe")", "is not a build");
    row("/readings", R"("many")", "must be a list, is string");
    row("/readings/3", "17", "must be an object, is number");
    row("/engine", "[]", "must be an object, is array");
}

void TestDamage::oneWrongValue_isNamed()
{
    QFETCH(QString, pointer);
    QFETCH(QString, value);
    QFETCH(QString, says);
    QFETCH(QString, place);
    Json json = m_whole;
    json[Json::json_pointer(pointer.toStdString())]
        = *parseJson("[" + value.toStdString() + "]")->begin();
    const auto loaded = parseBuild(json.dump());
    QVERIFY(!loaded);
    QStringList all;
    for (const Error &e : loaded.error().errors) {
        const QString at = QString::fromStdString(e.place);
        const QString message = QString::fromStdString(said(e.message));
        if (at.startsWith(place) && message.contains(says))
            return;
        all << at + QStringLiteral(": ") + message;
    }
    QFAIL(qPrintable(all.join(QStringLiteral(" | "))));
}

void TestDamage::missingLists_areNoFault_data()
{
    QTest::addColumn<QString>("key");
    for (const auto &[key, value] : m_whole.items())
        if (value.is_array())
            QTest::newRow(key.c_str()) << QString::fromStdString(key);
}

void TestDamage::missingLists_areNoFault()
{
    QFETCH(QString, key);
    Json json = m_whole;
    json.erase(key.toStdString());
    // What points into the list that went is a fault of its own, not of the list.
    const auto loaded = parseBuild(json.dump());
    if (loaded)
        return;
    for (const Error &e : loaded.error().errors)
        QVERIFY2(!e.place.starts_with("/" + key.toStdString() + "/")
                     && e.place != "/" + key.toStdString(),
                 e.place.c_str());
}

void TestDamage::idUsedTwice_isNamed_data()
{
    QTest::addColumn<QString>("key");
    for (const auto &[key, value] : m_whole.items())
        if (value.is_array() && value.size() > 1 && value[0].contains("id"))
            QTest::newRow(key.c_str()) << QString::fromStdString(key);
}

void TestDamage::idUsedTwice_isNamed()
{
    QFETCH(QString, key);
    Json json = m_whole;
    Json &list = json[key.toStdString()];
    list[1]["id"] = list[0]["id"];
    const auto loaded = parseBuild(json.dump());
    if (key == QStringLiteral("weighings")) { // the last of an item stands; its id says nothing
        QVERIFY(loaded);
        return;
    }
    QVERIFY(!loaded);
    const bool named = std::any_of(
        loaded.error().errors.begin(), loaded.error().errors.end(), [&](const Error &e) {
            return e.place == "/" + key.toStdString() + "/1/id"
                && said(e.message).find("is used twice") != std::string::npos;
        });
    QVERIFY2(named, loaded.error().errors.front().place.c_str());
}

void TestDamage::replacingWhatIsNotThere_isNamed_data()
{
    QTest::addColumn<QString>("key");
    for (const char *key :
         { "readings", "heat_points", "events", "finds", "signs", "gauge_readings", "symptoms",
           "flows", "scenarios", "card_steps", "run_logs", "filter_cuts", "oil_samples",
           "bore_traces", "seal_checks", "openings" })
        QTest::newRow(key) << QString::fromLatin1(key);
}

void TestDamage::replacingWhatIsNotThere_isNamed()
{
    QFETCH(QString, key);
    Json json = m_whole;
    json[key.toStdString()][0]["replaces"] = "x99";
    const auto loaded = parseBuild(json.dump());
    QVERIFY(!loaded);
    const Error &e = loaded.error().errors.front();
    QCOMPARE(QString::fromStdString(e.place), u'/' + key + QStringLiteral("/0/replaces"));
    QVERIFY(said(e.message).find("\"x99\"") != std::string::npos);
}

/// Every number anywhere in the build, one after the other, as text: refused at its own place.
void TestDamage::everyNumber_mayBeTextNowhere()
{
    const Json flat = m_whole.flatten();
    int tried = 0;
    for (const auto &[pointer, value] : flat.items()) {
        // Long lists are alike: every seventh number there.
        if (!value.is_number() || (++tried % 7 != 0 && pointer.find("/readings/") == 0))
            continue;
        if (tried % (sanitized ? 301 : 43) != 0)
            continue;
        Json json = m_whole;
        json[Json::json_pointer(pointer)] = "wide";
        const auto loaded = parseBuild(json.dump());
        QVERIFY2(!loaded, pointer.c_str());
        const std::string &place = loaded.error().errors.front().place;
        QVERIFY2(pointer.starts_with(place) && place.size() > 1,
                 (pointer + " is named as " + place).c_str());
    }
    QVERIFY(tried > 500);
}

} // namespace tst_damage

MILDPATH_TEST(tst_damage, TestDamage)
#include "tst_damage.moc"
