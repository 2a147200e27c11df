// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"
#include "quantity/json.h"
#include "testing.h"

// Every kind of edit, done to the demo as a line of the journal: what changes, and what the Edit
// menu says; and what stands against an edit that cannot be. The document given is never touched.

using namespace mildpath;

namespace tst_deeds {

class TestDeeds : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { m_demo = demoBuild(); }
    void edit_changesWhatItSays_data();
    void edit_changesWhatItSays();
    void edit_isRefusedWithItsReason_data();
    void edit_isRefusedWithItsReason();
    void list_growsByOne_data();
    void list_growsByOne();
    void several_areAllOrNone();
    void edits_leaveTheGivenBuildAlone();

private:
    Build m_demo;
};

void TestDeeds::edit_changesWhatItSays_data()
{
    QTest::addColumn<QString>("line");
    QTest::addColumn<QString>("pointer");
    QTest::addColumn<QString>("value");
    QTest::addColumn<QString>("says");
    const auto row
        = [](const char *line, const char *pointer, const char *value, const char *says) {
              QTest::addRow("%s: %.50s", says, line)
                  << QString::fromUtf8(line) << QString::fromUtf8(pointer)
                  << QString::fromUtf8(value) << QString::fromUtf8(says);
          };
    row(R"({"edit":"rename","name":"Harbour pump 2"})", "/name", R"("Harbour pump 2")",
        "name Harbour pump 2");
    row(R"({"edit":"use","key":"coldest_start_c","value":-21})", "/use/coldest_start_c", "-21",
        "coldest start -21 °C");
    row(R"({"edit":"use","key":"hot_oil_c","value":117})", "/use/hot_oil_c", "117",
        "hot oil 117 °C");
    row(R"({"edit":"use","key":"hot_idle_rpm","value":730})", "/use/hot_idle_rpm", "730",
        "hot idle speed 730 rpm");
    row(R"({"edit":"use","key":"high_speed_rpm","value":4100})", "/use/high_speed_rpm", "4100",
        "higher speed shown 4100 rpm");
    row(R"({"edit":"use","key":"most_rpm","value":5600})", "/use/most_rpm", "5600",
        "highest speed 5600 rpm");
    row(R"({"edit":"use","key":"hot_idle_floor_kpa","value":93})", "/use/hot_idle_floor_kpa", "93",
        "least pressure wanted at hot idle 0.93 bar");
    row(R"({"edit":"use","key":"turn_g","value":0.62})", "/use/turn_g", "0.62",
        "turns, held, to either side 0.62 g");
    row(R"({"edit":"use","key":"heel_deg","value":17})", "/use/heel_deg", "17",
        "leaning to either side 17°");
    row(R"({"edit":"engine","key":"bore_mm","value":95.6})", "/engine/bore_mm", "95.6",
        "bore 95.6 mm");
    row(R"({"edit":"engine","key":"stroke_mm","value":97.1})", "/engine/stroke_mm", "97.1",
        "stroke 97.1 mm");
    row(R"({"edit":"engine","key":"reciprocating_g","value":815})", "/engine/reciprocating_g",
        "815", "reciprocating mass of a cylinder 815.00 g");
    row(R"({"edit":"heat","key":"housing_below_oil_k","value":14})", "/heat/housing_below_oil_k",
        "14", "housing below the oil, settled 14 °C");
    row(R"({"edit":"heat","key":"instrument_emissivity","value":0.87})",
        "/heat/instrument_emissivity", "0.87", "emissivity the thermometer is set to 0.87");
    row(R"({"edit":"heat","key":"cap_lag_s","value":250})", "/heat/cap_lag_s", "250",
        "cap or girdle behind the oil 250 s");
    row(R"({"edit":"limit","kind":"main","key":"target_um","value":47.5})",
        "/limits/main/target_um", "47.5", "Main bearings: target 47.5 µm");
    row(R"({"edit":"limit","kind":"big_end","key":"max_um","value":71})", "/limits/big_end/max_um",
        "71", "Big-end bearings: max 71.0 µm");
    row(R"({"edit":"limit","kind":"main","key":"min_um","value":31})", "/limits/main/min_um", "31",
        "Main bearings: min 31.0 µm");
    row(R"({"edit":"element","element":"relief","key":"crack_kpa","value":455})",
        "/circuit/elements/3/crack_kpa", "455", "pressure at which it begins to open 4.55 bar");
    row(R"({"edit":"element","element":"main_2","key":"groove_deg","value":210})",
        "/circuit/elements/16/groove_deg", "210",
        "oil groove extent, up to 300 or 360; 0: a single hole 210°");
    row(R"({"edit":"element","element":"pickup","key":"d_mm","value":17.5})",
        "/circuit/elements/1/d_mm", "17.5", "17.5 mm");
    row(R"({"edit":"alike","stop":"cooling_jets","type":"jet","key":"d_mm","value":1.55})", "/name",
        R"("Harbour fire-pump set · 2.7 L inline-four")", "Cooling jets, ");
    row(R"({"edit":"stop","stop":"main_3","key":"thrust_width_mm","value":26.4})",
        "/engine/stops/7/values/thrust_width_mm", "26.4", "Main 3, ");
    row(R"({"edit":"stop","stop":"main_3","key":"hole_offset_mm","value":null})",
        "/engine/stops/7/values/run_out_here", "1.0", "removed");
    row(R"({"edit":"stop","stop":"relief","key":"full_lift_mm","value":4.4})",
        "/engine/stops/2/values/full_lift_mm", "4.4", "Relief valve, ");
    row(R"({"edit":"oil","oil":{"grade":"20W-50","kv40_mm2_s":161,"kv100_mm2_s":18.2,
          "rho15_kg_m3":883}})",
        "/oil/kv40_mm2_s", "161", "oil 20W-50");
    row(R"({"edit":"keep_oil","oil":{"grade":"Shed oil","kv40_mm2_s":88,"kv100_mm2_s":12.8,
          "rho15_kg_m3":871}})",
        "/own_oils/0/grade", R"("Shed oil")", "oil Shed oil kept");
    row(R"({"edit":"material","part":"crank","material":"nodular_iron"})",
        "/engine/materials/crank", R"("nodular_iron")", "material of crank: nodular_iron");
    row(R"({"edit":"material","part":"main_cap","material":"crank_steel","fraction":0.4})",
        "/engine/materials/main_cap_fraction", "0.4", "material of main_cap: crank_steel");
    row(R"({"edit":"expansion","material":"grey_iron","expansion":{"per_k":1.04e-5}})",
        "/expansions/grey_iron/per_k", "1.04e-05", "expansion of grey_iron: 10.4 ×10⁻⁶/K");
    row(R"({"edit":"fit_shells","family":"main","stop":"main_2",
          "stock":{"fitted":{"main_2":{"upper":"slate","lower":"rust"}}}})",
        "/shells/main/fitted/main_2/upper", R"("slate")", "Main 2, shells slate/rust");
    row(R"({"edit":"shell_row","family":"main","stock":{"shells":[{"name":"chalk","wall_mm":2.011}]}})",
        "/shells/main/shells/5/name", R"("chalk")", "shell chalk");
    row(R"({"edit":"shell_row","family":"main","stock":{"shells":[{"name":"slate","wall_mm":1.991}]}})",
        "/shells/main/shells/0/wall_mm", "1.991", "shell slate");
    row(R"({"edit":"size_class","family":"big_end",
          "stock":{"journal_classes":[{"name":"C","least_mm":51.98,"most_mm":51.99}]}})",
        "/shells/big_end/journal_classes/0/name", R"("C")", "journal class C");
    row(R"({"edit":"name_stop","stop":"pump","name":"Twin pump"})", "/engine/stops/1/name",
        R"("Twin pump")", "named Twin pump");
    row(R"({"edit":"move_stop","stop":"chain_jet","by":-1})", "/engine/stops/15/id",
        R"("chain_jet")", "earlier in oil order");
    row(R"({"edit":"gauge","stop":"lifter_gallery","point":0})", "/name",
        R"("Harbour fire-pump set · 2.7 L inline-four")", "gauge on Lifter gallery");
    row(R"({"edit":"start","key":"prime_rpm","value":210})", "/name",
        R"("Harbour fire-pump set · 2.7 L inline-four")", "");
    row(R"({"edit":"sump","key":"fill_l","value":4.9})", "/sump/values/fill_l", "4.9", "4.9");
    row(R"({"edit":"sump","key":"leak_mm2","value":null})", "/sump/values/fill_l", "4.6",
        "removed");
    row(R"({"edit":"foreign","fuel":false,"word":"suspected"})", "/sump/coolant", R"("suspected")",
        "");
    row(R"({"edit":"foreign","fuel":true,"word":"confirmed"})", "/sump/fuel", R"("confirmed")", "");
    row(R"({"edit":"section","section":"finish","key":"top_ring_mm","value":1.72})",
        "/finish/values/top_ring_mm", "1.72", "");
    row(R"({"edit":"filter","remote":true,"build":"spin_on"})", "/plumbing/remote_filter", "true",
        "filter away from the block");
    row(R"({"edit":"drop_plug","plug":"none_such"})", "", "", "");
}

void TestDeeds::edit_changesWhatItSays()
{
    QFETCH(QString, line);
    QFETCH(QString, pointer);
    QFETCH(QString, value);
    QFETCH(QString, says);
    const auto edit = editFromJson(*parseJson(line.toStdString()));
    QVERIFY2(edit, edit ? "" : said(edit.error().message).c_str());
    const auto after = applyEdit(m_demo, *edit);
    if (pointer.isEmpty() || (!after && says.isEmpty())) { // what cannot be says why
        QVERIFY(!after);
        QVERIFY(!after.error().message.empty());
        return;
    }
    QVERIFY2(after, after ? "" : (after.error().place + " " + said(after.error().message)).c_str());
    const QString menu = QString::fromStdString(said(describeEdit(m_demo, *edit)));
    QVERIFY2(menu.contains(says) && !menu.isEmpty(), qPrintable(menu));
    const Json json = toJson(*after);
    const Json expected = *parseJson("[" + value.toStdString() + "]")->begin();
    const Json &now = json[Json::json_pointer(pointer.toStdString())];
    if (expected.is_number())
        verifyClose(now.get<double>(), expected.get<double>(), 1e-12);
    else
        QVERIFY2(now == expected, now.dump().c_str());
    QVERIFY(!(*after == m_demo) || pointer == QStringLiteral("/name"));
    QVERIFY(validateBuild(*after).empty());
    // Written, read and done again it is the same.
    const auto again = applyEdit(m_demo, *editFromJson(editToJson(*edit)));
    QVERIFY(again && *again == *after);
}

void TestDeeds::edit_isRefusedWithItsReason_data()
{
    QTest::addColumn<QString>("line");
    QTest::addColumn<QString>("place");
    QTest::addColumn<QString>("says");
    const auto row = [](const char *line, const char *place, const char *says) {
        QTest::addRow("%s: %.60s", says, line)
            << QString::fromUtf8(line) << QString::fromUtf8(place) << QString::fromUtf8(says);
    };
    row(R"({"edit":"rename","name":""})", "/name", "empty");
    row(R"({"edit":"use","key":"hot_oil_c","value":900})", "/use/hot_oil_c",
        "must be 60 to 150 °C");
    row(R"({"edit":"use","key":"colour","value":1})", "use/colour", "is not known");
    row(R"({"edit":"engine","key":"wings","value":2})", "engine/wings", "is not known");
    row(R"({"edit":"engine","key":"cylinders","value":6})", "engine/cylinders", "is not known");
    row(R"({"edit":"engine","key":"bore_mm","value":-2})", "/engine/bore_mm", "must be 0 to 400");
    row(R"({"edit":"heat","key":"mood","value":2})", "heat/mood", "is not known");
    row(R"({"edit":"heat","key":"block_end_c","value":500})", "/heat/block_end_c",
        "must be 30 to 150 °C");
    row(R"({"edit":"limit","kind":"wheel","key":"min_um","value":20})", "", "");
    row(R"({"edit":"limit","kind":"main","key":"mood","value":20})", "", "");
    row(R"({"edit":"limit","kind":"main","key":"min_um","value":90})", "/limits/main/max_um",
        "above the minimum");
    row(R"({"edit":"element","element":"nobody","key":"d_mm","value":5})", "", "nobody");
    row(R"({"edit":"element","element":"relief","key":"d_mm","value":5})", "", "d_mm");
    row(R"({"edit":"element","element":"relief","key":"crack_kpa","value":-5})", "", "");
    row(R"({"edit":"element","element":"pickup","key":"d_mm","value":0})", "", "");
    row(R"({"edit":"stop","stop":"nobody","key":"lobes","value":5})", "", "nobody");
    row(R"({"edit":"stop","stop":"pump","key":"thrust_width_mm","value":5})", "", "");
    row(R"({"edit":"stop","stop":"pump","key":"lobes","value":-5})", "", "");
    row(R"({"edit":"tick","tick":{"id":"x","card":"wheel_nuts","fastener":1,"stage":1}})", "",
        "there is no torque card \"wheel_nuts\"");
    row(R"({"edit":"tick","tick":{"id":"x","card":"main_caps","fastener":77,"stage":1}})", "",
        "is not on the card");
    row(R"({"edit":"tick","tick":{"id":"x","card":"main_caps","fastener":1,"stage":9}})", "",
        "is not on the card");
    row(R"({"edit":"fit_shells","family":"main","stop":"main_2",
          "stock":{"fitted":{"main_2":{"upper":"mauve","lower":"rust"}}}})",
        "/shells/main/fitted/main_2", "there is no shell \"mauve\"");
    row(R"({"edit":"shell_row","family":"main","stock":{"shells":[{"name":"x","wall_mm":90}]}})",
        "/shells/main/shells/5/wall_mm", "must be 0.3 to 20.0 mm");
    row(R"({"edit":"weigh","weighing":{"id":"x","part":"rod","item":1,"grams":0}})", "",
        "must be above 0");
    row(R"({"edit":"material","part":"crank","material":"wood"})", "/engine/materials/crank",
        "unknown material");
    row(R"({"edit":"material","part":"wing","material":"steel"})", "", "");
    row(R"({"edit":"expansion","material":"cheese","expansion":{"per_k":1e-5}})",
        "/expansions/cheese", "there is no material \"cheese\"");
    row(R"({"edit":"expansion","material":"grey_iron","expansion":{"per_k":1}})",
        "/expansions/grey_iron/per_k", "at most 60.0 ×10⁻⁶/K");
    row(R"({"edit":"heat_point","point":{"id":"x","stop":"pump","spots_c":[20]}})", "",
        "there is no main bearing \"pump\"");
    row(R"({"edit":"heat_point","point":{"id":"x","stop":"main_3","spots_c":[900]}})", "",
        "must be -60 to 250 °C");
    row(R"({"edit":"proof","proof":{"id":"x","stop":"nobody","aspect":"clean"}})", "",
        "there is no stop \"nobody\"");
    row(R"({"edit":"proof","proof":{"id":"x","stop":"pump","aspect":"smell"}})", "",
        "must be size, clean or flow");
    row(R"({"edit":"drop_oil","name":"Moon oil"})", "grade", "there is no oil \"Moon oil\"");
    row(R"({"edit":"oil","oil":{"grade":"x","kv40_mm2_s":1,"kv100_mm2_s":1,"rho15_kg_m3":870}})",
        "/oil/kv40_mm2_s", "at least 2");
    row(R"({"edit":"add_stop","kind":"wheel","behind":"main_gallery"})", "/kind",
        "must be tank, pickup");
    row(R"({"edit":"add_stop","kind":"turbo","behind":"nobody"})", "", "nobody");
    row(R"({"edit":"remove_stop","stop":"nobody"})", "", "nobody");
    row(R"({"edit":"remove_stop","stop":"main_1"})", "", "");
    row(R"({"edit":"turn_stop","stop":"pump","kind":"jet"})", "", "");
    row(R"({"edit":"feed_stop","stop":"pump","from":"main_1"})", "", "");
    row(R"({"edit":"name_stop","stop":"pump","name":""})", "", "");
    row(R"({"edit":"gauge","stop":"nobody","point":0})", "", "nobody");
    row(R"({"edit":"gauge","stop":"lifter_gallery","point":99})", "", "");
    row(R"({"edit":"alike","stop":"cooling_jets","type":"jet","key":"wings","value":2})", "", "");
    row(R"({"edit":"withdraw","stop":"main_1","family":"main","method":"guess","angle_deg":90})",
        "", "");
    row(R"({"edit":"reading","reading":{"id":"x","stop":"main_1","family":"main","value_um":-5}})",
        "", "");
    row(R"({"edit":"reading","reading":{"id":"x","stop":"main_9","family":"main","value_um":50}})",
        "", "main_9");
    row(R"({"edit":"reading","reading":{"id":"x","stop":"main_1","family":"main","value_um":50,
          "method":"guess"}})",
        "", "does not measure");
    row(R"({"edit":"reading","reading":{"id":"x","stop":"main_1","family":"main","value_um":50,
          "station":40}})",
        "", "must be 1 to 12");
    row(R"({"edit":"take_back","log":"events","id":"e9999","by":"t","at":""})", "id", "");
    row(R"({"edit":"take_back","log":"gossip","id":"e1","by":"t","at":""})", "", "");
    row(R"({"edit":"add_entry","log":"signs","entry":{"id":"x","stop":"pump","sign":"unicorn"}})",
        "", "is \"unicorn\"");
    row(R"({"edit":"add_entry","log":"flows","entry":{"id":"x","stop":"main_1","saw":"maybe",
          "means":"drill"}})",
        "", "must be flows, weak or dry");
    row(R"({"edit":"add_entry","log":"gauge_readings","entry":{"id":"x","tap":"moon","rpm":800,
          "oil_temp_c":90,"pressure_kpa":100}})",
        "", "there is no gauge tap \"moon\"");
    row(R"({"edit":"add_entry","log":"finds","entry":{"id":"x","stop":"pump","colour":"plaid"}})",
        "", "is \"plaid\"");
    row(R"({"edit":"add_entry","log":"signoffs","entry":{"id":"x","hold":"h"}})", "",
        "somebody must sign");
    row(R"({"edit":"drop_passage","passage":"nowhere"})", "passage", "there is no passage");
    row(R"({"edit":"drop_passage","passage":"main_gallery"})", "passage", "");
    row(R"({"edit":"cut_passage","passage":"main_gallery","at_mm":9999})", "at_mm", "");
    row(R"({"edit":"drop_plug","plug":"nowhere"})", "plug", "there is no plug \"nowhere\"");
    row(R"({"edit":"draw_passages"})", "passages", "there are passages already");
    row(R"({"edit":"drop_line","line":"l9"})", "line", "there is no line \"l9\"");
    row(R"({"edit":"cap_port","port":"moon.in","capped":true})", "port",
        "there is no port \"moon.in\"");
    row(R"({"edit":"filter","remote":false,"build":"paper_bag"})", "build",
        "there is no filter \"paper_bag\"");
    row(R"({"edit":"sump","key":"wings","value":2})", "", "");
    row(R"({"edit":"sump","key":"fill_l","value":-2})", "/sump/values/fill_l", "must be");
    row(R"({"edit":"foreign","fuel":true,"word":"much"})", "/sump/fuel",
        "must be none, suspected or confirmed");
    row(R"({"edit":"section","section":"kitchen","key":"top_ring_mm","value":1})", "", "");
    row(R"({"edit":"section","section":"finish","key":"wings","value":1})", "", "");
    row(R"({"edit":"start","key":"wings","value":1})", "", "");
}

void TestDeeds::edit_isRefusedWithItsReason()
{
    QFETCH(QString, line);
    QFETCH(QString, place);
    QFETCH(QString, says);
    const auto edit = editFromJson(*parseJson(line.toStdString()));
    // What no kind has for a name is refused where it is read, the rest where it is applied.
    const auto after
        = edit ? applyEdit(m_demo, *edit) : Result<Build>(tl::unexpected(edit.error()));
    QVERIFY(!after);
    const QString at = QString::fromStdString(after.error().place);
    const QString why = QString::fromStdString(said(after.error().message));
    QVERIFY2(at.startsWith(place), qPrintable(at + QStringLiteral(": ") + why));
    QVERIFY2(why.contains(says) || (at + why).contains(says),
             qPrintable(at + QStringLiteral(": ") + why));
    QVERIFY(!why.isEmpty());
}

void TestDeeds::list_growsByOne_data()
{
    QTest::addColumn<QString>("list");
    QTest::addColumn<QString>("line");
    const auto row = [](const char *list, const char *line) {
        QTest::addRow("%s: %.50s", list, line)
            << QString::fromUtf8(list) << QString::fromUtf8(line);
    };
    row("readings", R"({"edit":"reading","reading":{"id":"x","stop":"main_1","family":"main",
         "value_um":51.3,"angle_deg":90,"station":1,"u_um":1.3}})");
    row("proofs", R"({"edit":"proof","proof":{"id":"x","stop":"pump","aspect":"clean"}})");
    row("torque_ticks",
        R"({"edit":"tick","tick":{"id":"x","card":"main_caps","fastener":1,"stage":0}})");
    row("weighings",
        R"({"edit":"weigh","weighing":{"id":"x","part":"rod","item":2,"grams":611.2}})");
    row("choices", R"({"edit":"choose","choice":{"question":"strip_counts","answer":"no"}})");
    row("heat_points",
        R"({"edit":"heat_point","point":{"id":"x","stop":"main_3","spots_c":[55,56],"reading_um":70}})");
    row("signs", R"({"edit":"add_entry","log":"signs","entry":{"id":"x","stop":"sump_pickup",
         "sign":"oring_flat","there":false}})");
    row("finds", R"({"edit":"add_entry","log":"finds","entry":{"id":"x","stop":"pump",
         "size":"speck","colour":"bright"}})");
    row("flows", R"({"edit":"add_entry","log":"flows","entry":{"id":"x","stop":"main_1",
         "saw":"flows","means":"drill"}})");
    row("failures", R"({"edit":"add_entry","log":"failures","entry":{"id":"x","stop":"main_2"}})");
    row("gauge_readings", R"({"edit":"add_entry","log":"gauge_readings","entry":{"id":"x",
         "tap":"rear_main_gallery","rpm":800,"oil_temp_c":90,"pressure_kpa":140}})");
    row("symptoms", R"({"edit":"add_entry","log":"symptoms","entry":{"id":"x","symptom":"foam"}})");
    row("scenarios", R"({"edit":"add_entry","log":"scenarios","entry":{"id":"x","name":"n",
         "faults":[{"kind":"shell_spun","stop":"main_2","severity":0.5}]}})");
    row("signoffs", R"({"edit":"add_entry","log":"signoffs","entry":{"id":"x","hold":"h",
         "by":"J. Moor","note":"seen"}})");
    row("card_steps",
        R"({"edit":"add_entry","log":"card_steps","entry":{"id":"x","step":"oil_in"}})");
    row("filter_cuts", R"({"edit":"add_entry","log":"filter_cuts","entry":{"id":"x",
         "engine_hours_h":20,"filter_hours_h":20,"area_cm2":400,
         "counts":[{"kind":"copper","count":2}]}})");
    row("oil_samples", R"({"edit":"add_entry","log":"oil_samples","entry":{"id":"x","of":"new",
         "oil":"15W-40","elements_mg_kg":{"Fe":1}}})");
    row("openings",
        R"({"edit":"add_entry","log":"openings","entry":{"id":"x","engine_hours_h":30}})");
    row("seal_checks", R"({"edit":"add_entry","log":"seal_checks","entry":{"id":"x",
         "kind":"vacuum","phase":"after","rpm":3000,"vacuum_kpa":12}})");
}

void TestDeeds::list_growsByOne()
{
    QFETCH(QString, list);
    QFETCH(QString, line);
    const auto edit = editFromJson(*parseJson(line.toStdString()));
    QVERIFY2(edit, edit ? "" : (edit.error().place + said(edit.error().message)).c_str());
    const Json before = toJson(m_demo);
    const auto once = applyEdit(m_demo, *edit);
    QVERIFY2(once, once ? "" : (once.error().place + " " + said(once.error().message)).c_str());
    const auto twice = applyEdit(*once, *edit);
    QVERIFY2(twice, twice ? "" : (twice.error().place + " " + said(twice.error().message)).c_str());
    const Json after = toJson(*twice);
    for (const auto &[key, value] : before.items()) {
        if (QString::fromStdString(key) == list)
            QCOMPARE(after[key].size(), value.size() + 2);
        else
            QVERIFY2(after[key] == value, key.c_str()); // nothing else moved
    }
    // Ids are made by the document, never two alike.
    std::set<std::string> ids;
    for (const Json &entry : after[list.toStdString()])
        if (entry.contains("id"))
            QVERIFY(ids.insert(entry["id"].get<std::string>()).second);
    QVERIFY(!ids.contains("x"));
}

void TestDeeds::several_areAllOrNone()
{
    const EditAll good { "two numbers",
                         { SetUse { "hot_oil_c", 111 }, SetUse { "hot_idle_rpm", 777 } } };
    const auto both = applyEdit(m_demo, good);
    QVERIFY(both);
    QCOMPARE(both->use.hotOil_c, 111.0);
    QCOMPARE(both->use.hotIdle_rpm, 777.0);
    QCOMPARE(said(describeEdit(m_demo, good)), std::string("two numbers"));
    const EditAll bad { "one wrong", { SetUse { "hot_oil_c", 111 }, SetUse { "wings", 2 } } };
    const auto none = applyEdit(m_demo, bad);
    QVERIFY(!none);
    QVERIFY(none.error().place.find("wings") != std::string::npos);
    // What is out of range on the way and right at the end is right.
    const EditAll through { "by way of",
                            { SetUse { "hot_idle_rpm", 2900 }, SetUse { "hot_idle_rpm", 801 } } };
    QCOMPARE(applyEdit(m_demo, through)->use.hotIdle_rpm, 801.0);
}

void TestDeeds::edits_leaveTheGivenBuildAlone()
{
    const std::string before = buildText(m_demo);
    const Edit edits[] = { SetUse { "hot_oil_c", 111 },
                           Rename { "other" },
                           SetLimit { "main", "target_um", 44 },
                           SetElementValue { "relief", "crack_kpa", 500 },
                           EnterReading { gaugeReading("main_1", 1, 90, 52) },
                           SetUse { "wings", 1 },
                           RemoveStop { "main_1" } };
    for (const Edit &edit : edits)
        static_cast<void>(applyEdit(m_demo, edit));
    QCOMPARE(buildText(m_demo), before);
}

} // namespace tst_deeds

MILDPATH_TEST(tst_deeds, TestDeeds)
#include "tst_deeds.moc"
