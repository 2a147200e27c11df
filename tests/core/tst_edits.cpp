// SPDX-License-Identifier: GPL-3.0-or-later
// Edits of a bare circuit, and its way to JSON and back.
#include "circuit/edits.h"
#include "circuit/elementtypes.h"
#include "quantity/json.h"
#include "testing.h"

#include <algorithm>

using namespace mildpath;

namespace tst_edits {

namespace {

Circuit edited(const char *edits)
{
    const auto c = applyEdits(inlineFour(), *parseJson(edits));
    if (!c)
        qFatal("%s %s", c.error().place.c_str(), said(c.error().message).c_str());
    return *c;
}

} // namespace

class TestEdits : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void set_changesOneOrSeveral();
    void set_mayChangeTheType();
    void scale_multipliesWhatIsThere();
    void addAndRemove_undoEachOther();
    void reverse_swapsTheEnds();
    void engine_changesTheTop();
    void engine_reachesThePumpAndRefusesWhatItDoesNotKnow();
    void editsApplyInOrder();
    void failedEdit_leavesNothingHalfDone();
    void circuit_survivesJson();
    void unknownKeys_areKept();
    void wrongElements_areNamed_data();
    void wrongElements_areNamed();
    void keys_tellTheirUnit();
};

void TestEdits::set_changesOneOrSeveral()
{
    const Circuit c = edited(R"([{"op":"set","id":["main_1","main_2"],"values":{"clearance_um":77}},
                                 {"op":"set","id":"relief","values":{"stuck_open_fraction":0.1}}])");
    QCOMPARE(c.find("main_1")->value("clearance_um"), 77.0);
    QCOMPARE(c.find("main_2")->value("clearance_um"), 77.0);
    QCOMPARE(c.find("main_3")->value("clearance_um"), 50.0);
    QCOMPARE(c.find("relief")->value("stuck_open_fraction"), 0.1); // a key it did not have before
}

void TestEdits::set_mayChangeTheType()
{
    const Circuit c = edited(
        R"([{"op":"set","id":"piston_jet_4","values":{"type":"orifice","d_mm":4,"l_mm":6}}])");
    const Element *e = c.find("piston_jet_4");
    QCOMPARE(e->kind, ElementKind::Orifice);
    QCOMPARE(e->value("d_mm"), 4.0);
    // What the new type does not know is kept aside, without effect.
    QVERIFY(!e->values.contains("open_kpa") && e->extra.json().contains("open_kpa"));
    QVERIFY(checkElement(*e));
}

void TestEdits::scale_multipliesWhatIsThere()
{
    const Circuit c = edited(
        R"([{"op":"scale","id":"pump","values":{"displacement_m3":1.25,"rotor_length_mm":1.25}}])");
    verifyClose(c.find("pump")->value("displacement_m3"), 8.5e-6, 1e-12);
    verifyClose(c.find("pump")->value("rotor_length_mm"), 15, 1e-12);
    QVERIFY(!applyEdits(
        inlineFour(),
        *parseJson(R"([{"op":"scale","id":"pump","values":{"suction_air_hole_mm":2}}])")));
}

void TestEdits::addAndRemove_undoEachOther()
{
    const Circuit c = edited(
        R"([{"op":"add","element":{"id":"leak","type":"orifice","from":"g3","to":"sump","d_mm":2}},
                                 {"op":"remove","id":"leak"}])");
    QVERIFY(c == inlineFour());
}

void TestEdits::reverse_swapsTheEnds()
{
    const Circuit c = edited(R"([{"op":"reverse","id":["filter_check","filter_bypass"]}])");
    QCOMPARE(c.find("filter_check")->from, std::string("filt_mid"));
    QCOMPARE(c.find("filter_check")->to, std::string("filt_in"));
    QVERIFY(edited(R"([{"op":"reverse","id":"relief"},{"op":"reverse","id":"relief"}])")
            == inlineFour());
}

void TestEdits::engine_changesTheTop()
{
    const Circuit c
        = edited(R"([{"op":"engine","values":{"bearing_dt":{"base_k":9,"per_krpm_k":0}}}])");
    QCOMPARE(c.bearingRise.base_k, 9.0);
    QCOMPARE(c.bearingRise.perKrpm_k, 0.0);
    QCOMPARE(c.elements.size(), inlineFour().elements.size());
}

void TestEdits::engine_reachesThePumpAndRefusesWhatItDoesNotKnow()
{
    const Circuit c = edited(R"([{"op":"engine","values":{"suction_air_hole_mm":1.5}}])");
    const auto pump = std::find_if(c.elements.begin(), c.elements.end(),
                                   [](const Element &e) { return e.kind == ElementKind::Pump; });
    QCOMPARE(pump->value("suction_air_hole_mm"), 1.5);
    for (const char *values : { R"({"suction_air_holes_mm":1.5})", R"({"clearance_um":50})",
                                R"({"bearing_dt":{"base_k":9},"rpm":800})" }) {
        const auto refused = applyEdits(
            inlineFour(), *parseJson(std::string(R"([{"op":"engine","values":)") + values + "}]"));
        QVERIFY(!refused);
        QVERIFY(refused.error().place.starts_with("/0/values/"));
        QVERIFY(said(refused.error().message).starts_with("is not known here"));
    }
}

void TestEdits::editsApplyInOrder()
{
    const Circuit c = edited(R"([{"op":"set","id":"main_1","values":{"clearance_um":100}},
                                 {"op":"scale","id":"main_1","values":{"clearance_um":0.5}}])");
    QCOMPARE(c.find("main_1")->value("clearance_um"), 50.0);
}

void TestEdits::failedEdit_leavesNothingHalfDone()
{
    const Circuit before = inlineFour();
    QVERIFY(!applyEdits(
        before, *parseJson(R"([{"op":"remove","id":"main_1"},{"op":"remove","id":"nobody"}])")));
    QVERIFY(before == inlineFour());
}

void TestEdits::circuit_survivesJson()
{
    std::vector<Error> errors;
    const Circuit back = circuitFromJson(circuitToJson(inlineFour()), "", errors);
    QVERIFY(errors.empty());
    QVERIFY(back == inlineFour());
}

void TestEdits::unknownKeys_areKept()
{
    std::vector<Error> errors;
    const Json json = *parseJson(
        R"({"maker":"ours","elements":[{"id":"x","type":"orifice","from":"a","to":"sump","d_mm":1,"lot":7}]})");
    const Json back = circuitToJson(circuitFromJson(json, "", errors));
    QCOMPARE(back["maker"], json["maker"]);
    QCOMPARE(back["elements"][0]["lot"], json["elements"][0]["lot"]);
}

void TestEdits::wrongElements_areNamed_data()
{
    QTest::addColumn<QString>("element");
    QTest::addColumn<QString>("place");
    QTest::newRow("no type") << QStringLiteral(R"({"id":"x","from":"a","to":"b"})")
                             << QStringLiteral("/type");
    QTest::newRow("unknown type") << QStringLiteral(
        R"({"id":"x","type":"tap","from":"a","to":"b"})")
                                  << QStringLiteral("/type");
    QTest::newRow("no id") << QStringLiteral(R"({"type":"pipe","from":"a","to":"b"})")
                           << QStringLiteral("/id");
    QTest::newRow("text for a bore")
        << QStringLiteral(R"({"id":"x","type":"pipe","from":"a","to":"b","d_mm":"wide"})")
        << QStringLiteral("/d_mm");
    QTest::newRow("not an object") << QStringLiteral("5") << QStringLiteral("/here");
}

void TestEdits::wrongElements_areNamed()
{
    QFETCH(QString, element);
    QFETCH(QString, place);
    std::vector<Error> errors;
    elementFromJson(*parseJson(element.toStdString()), "/here", errors);
    QVERIFY(std::any_of(errors.begin(), errors.end(), [&](const Error &e) {
        return QString::fromStdString(e.place).endsWith(place);
    }));
}

void TestEdits::keys_tellTheirUnit()
{
    QCOMPARE(unitOfKey("clearance_um"), std::string_view("µm"));
    QCOMPARE(unitOfKey("full_area_mm2"), std::string_view("mm²"));
    QCOMPARE(unitOfKey("crack_kpa"), std::string_view("kPa"));
    QCOMPARE(unitOfKey("growth_um_per_k"), std::string_view("µm/K"));
    QCOMPARE(unitOfKey("ecc"), std::string_view());
    QVERIFY(findElementKey(ElementKind::Pump, "tip_clearance_um")
            && findElementKey(ElementKind::Pump, "duty"));
    QVERIFY(!findElementKey(ElementKind::Pump, "ecc"));
}

} // namespace tst_edits

MILDPATH_TEST(tst_edits, TestEdits)
#include "tst_edits.moc"
