// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/edits.h"
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "quantity/json.h"
#include "testing.h"

using namespace mildpath;

namespace tst_network {

namespace {

/// Pressures within 2 % or 2 kPa, flows within 3 % or 0.03 l/min of the independent SciPy solution;
/// the tables are rounded, which the absolute parts cover.
struct Checked
{
    const Network &network;
    const Solution &solution;

    double bar(const char *node) const
    {
        return solution.pressure_pa[static_cast<size_t>(network.nodeIndex(node))] / 1e5;
    }
    double litres(const std::string &element) const
    {
        return solution.flow_m3_s[static_cast<size_t>(network.elementIndex(element))] * 60000;
    }
    double litresOf(std::initializer_list<std::string> stems, int count) const
    {
        double sum = 0;
        for (const std::string &stem : stems)
            for (int i = 1; i <= count; ++i)
                if (network.elementIndex(stem + std::to_string(i)) >= 0)
                    sum += litres(stem + std::to_string(i));
        return sum;
    }
    void pressure(const char *node, double expected_bar, double rounding = 0) const
    {
        verifyClose(bar(node), expected_bar, 0.02, std::max(rounding, 0.02),
                    QString::fromLatin1(node));
    }
    void flow(const QString &what, double actual, double expected) const
    {
        verifyClose(actual, expected, 0.03, 0.03, what);
    }
};

Network compiled(const Circuit &circuit)
{
    auto network = Network::compile(circuit);
    if (!network)
        qFatal("%s: %s", network.error().place.c_str(), said(network.error().message).c_str());
    return *network;
}

/// The inline-four with its bearings running on films.
Circuit onFilms(double load_n)
{
    Circuit out = inlineFour();
    for (Element &e : out.elements)
        if (e.kind == ElementKind::Bearing) {
            e.kind = ElementKind::FilmBearing;
            e.values.erase("ecc");
            e.values.erase("speed_flow");
            e.values["load_n"] = load_n;
        }
    return out;
}

Network edited(const Json &edits)
{
    return compiled(*applyEdits(inlineFour(), edits));
}

void addRows(const char *file, int nameColumns)
{
    QTest::addColumn<QStringList>("cells");
    for (const QStringList &row : rowsOf(file))
        QTest::newRow(qPrintable(row.mid(0, nameColumns).join(QLatin1Char(' ')))) << row;
}

} // namespace

class TestNetwork : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void healthyEngine_agreesWithReference_data() { addRows("inline_four_points.csv", 3); }
    void healthyEngine_agreesWithReference();
    void openedMains_agreeWithReference_data() { addRows("inline_four_growth.csv", 2); }
    void openedMains_agreeWithReference();
    void faults_agreeWithReference_data() { addRows("inline_four_faults.csv", 1); }
    void faults_agreeWithReference();
    void heatBalance_agreesWithReference_data();
    void heatBalance_agreesWithReference();
    void everyPoint_convergesAndBalances();
    void fewNewtonSteps_areEnough();
    void warmStart_givesTheSameAnswer();
    void returnsToSump_equalTheStrainersFlow();
    void aLeak_raisesNoPressure();
    void mirroredNetwork_givesMirroredAnswer();
    void splitPipe_changesNothingWhileLaminar();
    void reliefSpring_doesNothingWhileShut();
    void adjoint_agreesWithDifferences();
    void pumpAlone_isAGearedPumpOnACrankAtRest();
    void badCircuits_nameTheirPlace_data();
    void badCircuits_nameTheirPlace();
    void badEdits_nameTheirPlace_data();
    void badEdits_nameTheirPlace();
    void remarkableStates_areWarnedOf();
};

void TestNetwork::healthyEngine_agreesWithReference()
{
    QFETCH(QStringList, cells);
    const auto n = [&](int i) { return cells[i].toDouble(); };
    const Network network = compiled(inlineFour());
    const auto s = network.solve({ referenceOil(static_cast<int>(n(0))), n(2), n(1) });
    QVERIFY(s);
    const Checked c { network, *s };
    int column = 3;
    for (const char *node : { "pump_out", "filt_in", "g1", "tap_rear", "m3", "b1", "b4", "l8" })
        c.pressure(node, n(column++), 0.0005);
    verifyClose(c.bar("inlet") * 100, n(11), 0.02, 0.05, QStringLiteral("inlet kPa"));
    c.flow(QStringLiteral("pump"), c.litres("pump"), n(12));
    c.flow(QStringLiteral("relief"), c.litres("relief"), n(13));
    const double net = c.litres("pump") - c.litres("relief");
    const auto share = [&](const QString &what, double litres, double percent) {
        verifyClose(100 * litres / net, percent, 0.03, 0.1, what);
    };
    share(QStringLiteral("mains"), c.litresOf({ "main_" }, 5), n(14));
    share(QStringLiteral("big-ends"), c.litresOf({ "big_end_" }, 4), n(15));
    share(QStringLiteral("cams"), c.litresOf({ "cam_" }, 5), n(16));
    share(QStringLiteral("jets"), c.litresOf({ "piston_jet_" }, 4), n(17));
    share(QStringLiteral("chain"), c.litres("chain_jet") + c.litres("tensioner"), n(18));
    share(QStringLiteral("lifters"), c.litresOf({ "lifter_bore_", "pushrod_" }, 8), n(19));
}

void TestNetwork::openedMains_agreeWithReference()
{
    QFETCH(QStringList, cells);
    const auto n = [&](int i) { return cells[i].toDouble(); };
    const std::string name = cells[0].toStdString();
    const Network network = edited(jsonOf("growth_edits.json")[name]);
    const auto s = network.solve({ referenceOil(name.ends_with("grade 50") ? 50 : 40), n(1), 100 });
    QVERIFY(s);
    const Checked c { network, *s };
    int column = 2;
    for (const char *node : { "pump_out", "tap_rear", "m3", "b1", "b4" })
        c.pressure(node, n(column++), 0.005);
    c.flow(QStringLiteral("mains"), c.litresOf({ "main_" }, 5), n(7));
    c.flow(QStringLiteral("big-ends"), c.litresOf({ "big_end_" }, 4), n(8));
    c.flow(QStringLiteral("pump"), c.litres("pump"), n(11));
    c.flow(QStringLiteral("relief"), c.litres("relief"), n(12));
}

void TestNetwork::faults_agreeWithReference()
{
    QFETCH(QStringList, cells);
    const Network network = edited(jsonOf("fault_edits.json")[cells[0].toStdString()]);
    const std::pair<double, double> points[] = { { 20, 800 }, { 100, 800 }, { 100, 3000 } };
    for (int i = 0; i < 3; ++i) {
        const auto s = network.solve({ referenceOil(40), points[i].second, points[i].first });
        QVERIFY2(s, qPrintable(cells[0]));
        const Checked c { network, *s };
        const QStringList gauges = cells[1 + i].split(QLatin1Char('/'));
        c.pressure("filt_in", gauges[0].toDouble(), 0.005);
        c.pressure("tap_rear", gauges[1].toDouble(), 0.005);
        c.pressure("l8", gauges[2].toDouble(), 0.005);
        if (i < 2)
            continue;
        int column = 4;
        for (const char *node : { "m2", "m3", "b2", "b4" })
            c.pressure(node, cells[column++].toDouble(), 0.005);
        c.flow(QStringLiteral("bearings"), c.litresOf({ "main_", "big_end_" }, 5),
               cells[8].toDouble());
        c.flow(QStringLiteral("relief"), c.litres("relief"), cells[9].toDouble());
    }
}

void TestNetwork::heatBalance_agreesWithReference_data()
{
    QTest::addColumn<double>("t");
    QTest::addColumn<double>("rpm");
    QTest::addColumn<QList<double>>("rise");
    // Film rise of main 1, big-end 1, cam 1 (K), independent SciPy computation.
    QTest::newRow("cold idle") << 20.0 << 800.0 << QList<double> { 29.5, 20.4, 9.3 };
    QTest::newRow("hot idle") << 100.0 << 800.0 << QList<double> { 3.8, 2.3, 0.2 };
    QTest::newRow("hot 3000") << 100.0 << 3000.0 << QList<double> { 12.6, 7.6, 0.9 };
    QTest::newRow("hot 6000") << 100.0 << 6000.0 << QList<double> { 23.7, 13.3, 2.7 };
}

void TestNetwork::heatBalance_agreesWithReference()
{
    QFETCH(double, t);
    QFETCH(double, rpm);
    QFETCH(QList<double>, rise);
    const Network network = compiled(inlineFour());
    const auto s = network.solve({ referenceOil(40), rpm, t, BearingTemperature::Energy });
    QVERIFY(s);
    const char *elements[] = { "main_1", "big_end_1", "cam_1" };
    for (int i = 0; i < 3; ++i)
        verifyClose(s->oilTemperature_c[static_cast<size_t>(network.elementIndex(elements[i]))] - t,
                    rise[i], 0.01, 0.06);
}

void TestNetwork::everyPoint_convergesAndBalances()
{
    const Network network = compiled(inlineFour());
    for (const Oil &oil : { Oil { 44, 8.3, 848 }, Oil { 105, 14.2, 878 }, Oil { 310, 24.2, 898 } })
        for (double t = -10; t <= 150; t += 20)
            for (double rpm = 600; rpm <= 7500; rpm += 690) {
                const auto s = network.solve({ oil, rpm, t });
                QVERIFY2(s, s ? "" : said(s.error().message).c_str());
                QVERIFY(s->massErrorRelative < 1e-9);
            }
}

void TestNetwork::fewNewtonSteps_areEnough()
{
    const Network network = compiled(inlineFour());
    for (const Oil &oil : { Oil { 44, 8.3, 848 }, Oil { 105, 14.2, 878 }, Oil { 310, 24.2, 898 } })
        for (double t = -10; t <= 150; t += 10) {
            SolveState walking;
            for (double rpm = 600; rpm <= 7500; rpm += 100) {
                const auto cold = network.solve({ oil, rpm, t });
                QVERIFY(cold->mostStepsInOneRound <= 12);
                QVERIFY(cold->newtonSteps <= (t >= 20 && t <= 120 ? 20 : 60));
                const auto next = network.solve({ oil, rpm, t }, &walking);
                QVERIFY(rpm == 600 || next->newtonSteps <= 8);
            }
        }
}

void TestNetwork::warmStart_givesTheSameAnswer()
{
    const Network network = compiled(inlineFour());
    SolveState state;
    for (const double rpm : { 6000.0, 800.0, 3000.0 }) {
        const auto warm = network.solve({ referenceOil(40), rpm, 100 }, &state);
        const auto cold = network.solve({ referenceOil(40), rpm, 100 });
        for (size_t i = 0; i < cold->pressure_pa.size(); ++i)
            verifyClose(warm->pressure_pa[i], cold->pressure_pa[i], 1e-6, 1);
    }
}

void TestNetwork::returnsToSump_equalTheStrainersFlow()
{
    const Network network = compiled(inlineFour());
    const auto s = network.solve({ referenceOil(40), 3000, 60 });
    double back = 0, out = 0;
    for (size_t e = 0; e < network.elementCount(); ++e) {
        back += network.toNode(static_cast<int>(e)) == 0 ? s->flow_m3_s[e] : 0;
        out += network.fromNode(static_cast<int>(e)) == 0 ? s->flow_m3_s[e] : 0;
    }
    verifyClose(back, out, 1e-8);
}

void TestNetwork::aLeak_raisesNoPressure()
{
    // Monotone networks: a new leak to the sump can only lower pressures. Fill hardly answers here
    // (hot idle), so it may be left live.
    const Network whole = compiled(inlineFour());
    const Network leaking = edited(*parseJson(
        R"([{"op":"add","element":{"id":"leak","type":"orifice","from":"m3","to":"sump","d_mm":1}}])"));
    const auto before = whole.solve({ referenceOil(40), 800, 100 }),
               after = leaking.solve({ referenceOil(40), 800, 100 });
    for (const std::string &node : whole.nodes())
        if (node != "inlet" && node != "inlet_tube")
            QVERIFY2(after->pressure_pa[static_cast<size_t>(leaking.nodeIndex(node))]
                         <= before->pressure_pa[static_cast<size_t>(whole.nodeIndex(node))] + 1e-3,
                     node.c_str());
}

void TestNetwork::mirroredNetwork_givesMirroredAnswer()
{
    const Network network = compiled(inlineFour());
    Circuit turned = inlineFour();
    std::reverse(turned.elements.begin(), turned.elements.end());
    const Network mirrored = compiled(turned);
    const auto a = network.solve({ referenceOil(40), 3000, 100 }),
               b = mirrored.solve({ referenceOil(40), 3000, 100 });
    for (const std::string &node : network.nodes())
        verifyClose(b->pressure_pa[static_cast<size_t>(mirrored.nodeIndex(node))],
                    a->pressure_pa[static_cast<size_t>(network.nodeIndex(node))], 1e-7, 0.1);
}

void TestNetwork::splitPipe_changesNothingWhileLaminar()
{
    Circuit c = inlineFour();
    Element &first = *c.find("gallery_23");
    Element second = first;
    first.values["l_mm"] = second.values["l_mm"] = 50;
    first.to = "half";
    second.id = "gallery_23b";
    second.from = "half";
    second.values["k"] = 0;
    c.elements.push_back(second);
    const Network whole = compiled(inlineFour()), split = compiled(c);
    const auto a = whole.solve({ referenceOil(50), 800, 20 }),
               b = split.solve({ referenceOil(50), 800, 20 });
    for (const char *node : { "g1", "g3", "g5", "m4" })
        verifyClose(b->pressure_pa[static_cast<size_t>(split.nodeIndex(node))],
                    a->pressure_pa[static_cast<size_t>(whole.nodeIndex(node))], 1e-6);
}

void TestNetwork::reliefSpring_doesNothingWhileShut()
{
    const Network network = compiled(inlineFour());
    const Network stiffer = edited(
        *parseJson(R"([{"op":"set","id":"relief","values":{"crack_kpa":570,"full_kpa":800}}])"));
    const int tap = network.nodeIndex("tap_rear");
    const auto at = [&](const Network &n, double rpm) {
        return n.solve({ referenceOil(40), rpm, 100 })->pressure_pa[static_cast<size_t>(tap)];
    };
    verifyClose(at(stiffer, 800), at(network, 800), 0, 5);
    QVERIFY(at(stiffer, 6000) > at(network, 6000) + 50e3);
}

void TestNetwork::adjoint_agreesWithDifferences()
{
    for (const bool film : { false, true }) {
        const Circuit circuit = film ? onFilms(2000) : inlineFour();
        const Network network = compiled(circuit);
        const OperatingPoint point { referenceOil(40), 800, 100 };
        const auto s = network.solve(point);
        const int tap = network.nodeIndex("tap_rear");
        const std::vector<double> answer = network.adjoint(*s, tap);
        for (const char *id : { "main_3", "cam_1", "big_end_2" }) {
            Circuit wider = circuit;
            wider.find(id)->values["clearance_um"] += 0.2;
            const int e = network.elementIndex(id);
            const auto law = makeLaw(*wider.find(id));
            const double predicted
                = answer[static_cast<size_t>(e)] * network.flowChange(e, *law, *s, point);
            const double solved
                = compiled(wider).solve(point)->pressure_pa[static_cast<size_t>(tap)]
                - s->pressure_pa[static_cast<size_t>(tap)];
            verifyClose(predicted, solved, film ? 0.05 : 0.02, 0, QString::fromLatin1(id));
        }
    }
}

/// A pump turned alone is what one geared up so far would be on a crank a hand turns.
void TestNetwork::pumpAlone_isAGearedPumpOnACrankAtRest()
{
    for (const bool film : { false, true }) {
        const Circuit circuit = film ? onFilms(500) : inlineFour();
        constexpr double rpm = 80;
        Circuit geared = circuit;
        for (Element &e : geared.elements)
            if (e.kind == ElementKind::Pump)
                e.values["drive_ratio"] = e.value("drive_ratio") * rpm;
        for (const double oil_c : { 20.0, 80.0 }) {
            const Network network = compiled(circuit);
            const auto alone = network.solve({ referenceOil(40), { rpm, true }, oil_c });
            const auto asGeared = compiled(geared).solve({ referenceOil(40), 1, oil_c });
            const auto turning = network.solve({ referenceOil(40), rpm, oil_c });
            QVERIFY(alone && asGeared && turning);
            for (size_t n = 0; n < alone->pressure_pa.size(); ++n)
                verifyClose(alone->pressure_pa[n], asGeared->pressure_pa[n], 1e-6, 1);
            QVERIFY(alone->pressure_pa != turning->pressure_pa);
        }
    }
}

void TestNetwork::badCircuits_nameTheirPlace_data()
{
    QTest::addColumn<QString>("edits");
    QTest::addColumn<QString>("place");
    const auto row = [](const char *name, const char *edits, const char *place) {
        QTest::newRow(name) << QString::fromLatin1(edits) << QString::fromLatin1(place);
    };
    row("zero bore", R"([{"op":"set","id":"main_feed_1","values":{"d_mm":0}}])",
        "/elements/13/d_mm");
    row("duty above one", R"([{"op":"set","id":"crank_drill_1","values":{"duty":1.5}}])", "/duty");
    row("eccentricity above one", R"([{"op":"set","id":"main_1","values":{"ecc":1.2}}])", "/ecc");
    row("relief opens backward", R"([{"op":"set","id":"relief","values":{"full_kpa":400}}])",
        "/full_kpa");
    row("groove wider than bearing",
        R"([{"op":"set","id":"main_1","values":{"groove_width_mm":25}}])", "/groove_width_mm");
    row("same id twice",
        R"([{"op":"add","element":{"id":"main_1","type":"orifice","from":"g1","to":"sump","d_mm":1}}])",
        "/id");
    row("no pump", R"([{"op":"remove","id":"pump"}])", "/elements");
    row("second pump",
        R"([{"op":"add","element":{"id":"p2","type":"pump","from":"inlet","to":"pump_out","displacement_m3":1e-6,
        "rotor_length_mm":12,"tip_clearance_um":90,"end_clearance_um":76,"body_clearance_um":160,"tip_land_mm":1,
        "end_path_width_mm":90,"end_path_length_mm":6,"body_path_length_mm":35}}])",
        "/type");
    row("island",
        R"([{"op":"add","element":{"id":"x","type":"orifice","from":"island","to":"isle","d_mm":1}}])",
        "/from");
    row("missing dimension",
        R"([{"op":"add","element":{"id":"x","type":"orifice","from":"g1","to":"sump"}}])", "/d_mm");
    row("tap nowhere", R"([{"op":"engine","values":{"taps":{"front":"nowhere"}}}])", "/taps/front");
}

void TestNetwork::badCircuits_nameTheirPlace()
{
    QFETCH(QString, edits);
    QFETCH(QString, place);
    const auto circuit = applyEdits(inlineFour(), *parseJson(edits.toStdString()));
    QVERIFY2(circuit, circuit ? "" : said(circuit.error().message).c_str());
    const auto network = Network::compile(*circuit);
    QVERIFY(!network);
    QVERIFY2(QString::fromStdString(network.error().place).endsWith(place),
             network.error().place.c_str());
    QVERIFY(!network.error().message.empty());
}

void TestNetwork::badEdits_nameTheirPlace_data()
{
    QTest::addColumn<QString>("edits");
    QTest::addColumn<QString>("place");
    QTest::newRow("absent id") << QStringLiteral(R"([{"op":"set","id":"nobody","values":{}}])")
                               << QStringLiteral("/0/id");
    QTest::newRow("unknown op") << QStringLiteral(R"([{"op":"explode","id":"pump"}])")
                                << QStringLiteral("/0/op");
    QTest::newRow("second edit") << QStringLiteral(
        R"([{"op":"remove","id":"relief"},{"op":"remove","id":"relief"}])")
                                 << QStringLiteral("/1/id");
    QTest::newRow("unknown type") << QStringLiteral(
        R"([{"op":"set","id":"pump","values":{"type":"turbine"}}])")
                                  << QStringLiteral("/0/values/type");
    QTest::newRow("scaled text") << QStringLiteral(
        R"([{"op":"scale","id":"pump","values":{"from":2}}])")
                                 << QStringLiteral("/0/values/from");
    QTest::newRow("not a list") << QStringLiteral(R"({"op":"set"})") << QStringLiteral("/");
}

void TestNetwork::badEdits_nameTheirPlace()
{
    QFETCH(QString, edits);
    QFETCH(QString, place);
    const auto circuit = applyEdits(inlineFour(), *parseJson(edits.toStdString()));
    QVERIFY(!circuit);
    QCOMPARE(QString::fromStdString(circuit.error().place), place);
}

void TestNetwork::remarkableStates_areWarnedOf()
{
    const auto ids = [](const Network &network, double rpm, double t) {
        QStringList out;
        const auto solution = network.solve({ referenceOil(40), rpm, t });
        for (const Warning &w : solution->warnings)
            out << QString::fromStdString(w.id);
        return out;
    };
    QVERIFY(ids(compiled(inlineFour()), 3000, 100).isEmpty());
    QVERIFY(ids(edited(jsonOf("fault_edits.json")["filter_clogged"]), 3000, 100)
                .contains(QStringLiteral("filter_bypassed")));
    QVERIFY(ids(edited(jsonOf("fault_edits.json")["relief_stuck_open"]), 800, 100)
                .contains(QStringLiteral("relief_open_at_hot_idle")));
    QVERIFY(ids(edited(jsonOf("fault_edits.json")["relief_stuck_shut"]), 6000, 20)
                .contains(QStringLiteral("beyond_strength")));
    QVERIFY(
        ids(compiled(inlineFour()), 800, 160).contains(QStringLiteral("temperature_extrapolated")));
    QVERIFY(ids(edited(jsonOf("fault_edits.json")["pump_gasket_port_open"]), 6000, 100)
                .contains(QStringLiteral("crank_not_fed")));
    QVERIFY(
        ids(edited(*parseJson(R"([{"op":"set","id":"pump","values":{"colour":"red"}}])")), 800, 100)
            .contains(QStringLiteral("unknown_key")));
}

} // namespace tst_network

MILDPATH_TEST(tst_network, TestNetwork)
#include "tst_network.moc"
