// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/elementtypes.h"
#include "circuit/network.h"
#include "document/dimensions.h"
#include "quantity/json.h"
#include "testing.h"

#include <random>

// Every type of element by what its own table of keys says: read and written, refused past its
// range, and its law as a law: no flow without a pressure, more flow by more pressure, a slope that
// is one.

using namespace mildpath;

namespace tst_elements {

class TestElements : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void files_keepEveryKey_data() { types(); }
    void files_keepEveryKey();
    void ranges_areChecked_data() { types(); }
    void ranges_areChecked();
    void requiredKeys_areMissed_data() { types(); }
    void requiredKeys_areMissed();
    void flow_growsWithPressure_data() { types(); }
    void flow_growsWithPressure();
    void slope_isOne_data() { types(); }
    void slope_isOne();
    void thickOil_passesLess_data() { types(); }
    void thickOil_passesLess();
    void units_followTheSuffix_data();
    void units_followTheSuffix();
    void unknownTypes_areRefused();
    void twoAlike_passTwiceTheFlow_data() { types(); }
    void twoAlike_passTwiceTheFlow();
    void chainOfElements_balances_data();
    void chainOfElements_balances();

private:
    void types()
    {
        QTest::addColumn<int>("type");
        for (size_t i = 0; i < elementTypes().size(); ++i)
            QTest::newRow(std::string(wordOf(elementTypes()[i].kind)).c_str())
                << static_cast<int>(i);
    }
    static const ElementType &here()
    {
        QFETCH(int, type);
        return elementTypes()[static_cast<size_t>(type)];
    }
    /// One of the demo's or a template's elements of this kind; sizes somebody could have.
    static std::optional<Element> example(ElementKind kind)
    {
        static const std::map<ElementKind, Element> all = [] {
            std::map<ElementKind, Element> found;
            for (const TemplateInfo &t : listTemplates()) {
                const auto loaded = loadTemplate(t.name);
                for (const Element &e : wholeCircuit(loaded->build).elements)
                    found.emplace(e.kind, e);
            }
            return found;
        }();
        const auto it = all.find(kind);
        return it == all.end() ? std::nullopt : std::optional(it->second);
    }
    /// A template's pump that draws from the sump itself.
    static Circuit pumpAlone(const char *to)
    {
        Element pump = *example(ElementKind::Pump);
        pump.id = "pump";
        pump.from = "sump";
        pump.to = to;
        Circuit out;
        out.elements.push_back(pump);
        return out;
    }
    struct Tried
    {
        std::unique_ptr<Law> law;
        Prepared prepared;
        double lagged = 0;
    };
    /// The law of an example, at a speed and an oil.
    static Tried tried(const Element &e, double mu = 0.0117, double rpm = 2000)
    {
        Tried out { makeLaw(e), {}, 0 };
        const LawConditions at { { 826, mu }, rpm * 3.14159265 / 30, 100 };
        out.prepared = out.law->prepare(at);
        if (out.law->lagged() != Lagged::None)
            out.lagged = out.law->laggedTarget(3e5, out.prepared).value;
        return out;
    }
    /// Laws that need what a network gives them.
    static bool standsAlone(const Element &e) { return e.kind != ElementKind::FilmBearing; }
};

void TestElements::files_keepEveryKey()
{
    const auto e = example(here().kind);
    if (!e)
        QSKIP("no template has one");
    Json json = elementToJson(*e);
    json["from_a_newer_version"] = 7;
    std::vector<Error> errors;
    const Element back = elementFromJson(json, "", errors);
    QVERIFY(errors.empty());
    QCOMPARE(elementToJson(back).dump(), json.dump());
    for (const auto &[key, value] : e->values)
        QVERIFY2(findElementKey(e->kind, key), key.c_str());
}

void TestElements::ranges_areChecked()
{
    const auto e = example(here().kind);
    if (!e)
        QSKIP("no template has one");
    QVERIFY(checkElement(*e));
    for (const NumberKey &k : here().keys) {
        Element wrong = *e;
        const std::string key(k.key);
        wrong.values[key] = k.least - std::max(1.0, std::abs(k.least));
        const auto low = checkElement(wrong);
        QVERIFY2(!low && low.error().place == key, key.c_str());
        QVERIFY(!low.error().message.empty());
        if (k.most < 1e11) {
            wrong.values[key] = k.most * 2 + 1;
            const auto high = checkElement(wrong);
            QVERIFY2(!high, key.c_str());
        }
        wrong.values[key] = std::nan("");
        QVERIFY2(!checkElement(wrong), key.c_str());
        if (k.aboveLeast) {
            wrong.values[key] = k.least;
            QVERIFY2(!checkElement(wrong), key.c_str());
        }
        if (k.usual) // what is taken where nothing is said is in its range
            QVERIFY2(*k.usual == -1 || (*k.usual >= k.least && *k.usual <= k.most),
                     key.c_str()); // −1: not given
        QVERIFY2(!k.meaning.empty(), key.c_str());
    }
}

void TestElements::requiredKeys_areMissed()
{
    const auto e = example(here().kind);
    if (!e)
        QSKIP("no template has one");
    for (const NumberKey &k : here().keys) {
        if (k.usual)
            continue;
        Element without = *e;
        without.values.erase(std::string(k.key));
        const auto missed = checkElement(without);
        QVERIFY2(!missed && missed.error().place == k.key, std::string(k.key).c_str());
    }
}

void TestElements::flow_growsWithPressure()
{
    const auto e = example(here().kind);
    if (!e || !standsAlone(*e))
        QSKIP("needs a network around it");
    const Tried t = tried(*e);
    double memory = 0, before = -1e9;
    for (const double dp : { -5e5, -2e5, -1e5, -1e4, -1e2, 0.0, 1e2, 1e4, 1e5, 2e5, 5e5, 9e5 }) {
        const double q = t.law->flow(dp, t.prepared, t.lagged, memory).flow_m3_s;
        QVERIFY2(std::isfinite(q) && q >= before - 1e-15,
                 qPrintable(QStringLiteral("%1 at %2 Pa").arg(q).arg(dp)));
        before = q;
    }
}

void TestElements::slope_isOne()
{
    const auto e = example(here().kind);
    if (!e || !standsAlone(*e))
        QSKIP("needs a network around it");
    const Tried t = tried(*e);
    double memory = 0;
    for (const double dp : { -3e5, -7e4, 6e4, 1.7e5, 3.1e5, 6.6e5 }) {
        const double h = 5;
        const double up = t.law->flow(dp + h, t.prepared, t.lagged, memory).flow_m3_s;
        const double down = t.law->flow(dp - h, t.prepared, t.lagged, memory).flow_m3_s;
        const double slope = t.law->flow(dp, t.prepared, t.lagged, memory).slope_m3_s_pa;
        verifyClose(slope, (up - down) / (2 * h), 5e-3, 1e-15,
                    QStringLiteral("slope at %1 Pa").arg(dp));
        QVERIFY(slope >= 0);
    }
}

void TestElements::thickOil_passesLess()
{
    const auto e = example(here().kind);
    // A pump slips less through thick oil; what turns with the crank has its own column.
    if (!e || !standsAlone(*e) || e->kind == ElementKind::Pump
        || e->kind == ElementKind::CrankDrilling)
        QSKIP("not for this one");
    double memory = 0, before = 1e9;
    for (const double mu : { 0.003, 0.01, 0.03, 0.1, 0.6 }) {
        const Tried t = tried(*e, mu);
        const double q = t.law->flow(4e5, t.prepared, t.lagged, memory).flow_m3_s;
        QVERIFY2(q <= before * (1 + 1e-9) + 1e-15,
                 qPrintable(QStringLiteral("%1 at %2 Pa s").arg(q).arg(mu)));
        before = q;
    }
}

void TestElements::units_followTheSuffix_data()
{
    QTest::addColumn<QString>("key");
    QTest::addColumn<QString>("unit");
    const std::pair<const char *, const char *> rows[] = {
        { "d_mm", "mm" },       { "clearance_um", "µm" },
        { "crack_kpa", "kPa" }, { "full_area_mm2", "mm²" },
        { "groove_deg", "°" },  { "permeance_m3", "m³" },
        { "dt_k", "K" },        { "load_n", "N" },
        { "cd", "" },           { "count", "" },
    };
    for (const auto &[key, unit] : rows)
        QTest::newRow(key) << QString::fromLatin1(key) << QString::fromUtf8(unit);
}

void TestElements::units_followTheSuffix()
{
    QFETCH(QString, key);
    QFETCH(QString, unit);
    const std::string_view found = unitOfKey(key.toStdString());
    QCOMPARE(QString::fromUtf8(found.data(), static_cast<qsizetype>(found.size())), unit);
}

void TestElements::unknownTypes_areRefused()
{
    const auto read = [](const char *type) {
        std::vector<Error> errors;
        elementFromJson({ { "id", "x" }, { "type", type }, { "from", "a" }, { "to", "b" } }, "/e",
                        errors);
        return errors;
    };
    const auto errors = read("teapot");
    QCOMPARE(errors.size(), size_t(1));
    QCOMPARE(errors[0].place, std::string("/e/type"));
    QVERIFY(said(errors[0].message).find("teapot") != std::string::npos);
    for (const ElementType &t : elementTypes()) {
        const std::string word(wordOf(t.kind));
        QVERIFY(said(errors[0].message).find(word) != std::string::npos);
        QVERIFY(read(word.c_str()).empty());
    }
    QVERIFY(!findElementKey(ElementKind::Pipe, "wings"));
    QVERIFY(findElementKey(ElementKind::Pipe, "count")); // common to all
}

/// In a circuit of a pump and this one way back, two alike side by side pass as one that counts
/// double.
void TestElements::twoAlike_passTwiceTheFlow()
{
    const auto e = example(here().kind);
    const std::set<ElementKind> outlets { ElementKind::Pipe, ElementKind::Orifice,
                                          ElementKind::Annulus, ElementKind::Jet,
                                          ElementKind::Bearing };
    if (!e || !outlets.contains(e->kind))
        QSKIP("no way out by itself");
    const auto circuitOf = [&](int alike, double count) {
        Circuit c = pumpAlone("out");
        for (int i = 0; i < alike; ++i) {
            Element one = *e;
            one.id = "way" + std::to_string(i);
            one.from = "out";
            one.to = "sump";
            one.values["count"] = count;
            c.elements.push_back(one);
        }
        return c;
    };
    const auto pressureOf = [&](const Circuit &c) {
        const auto network = Network::compile(c);
        const auto s = network ? network->solve({ { 105, 14.2, 878 }, 1500, 90 })
                               : Result<Solution>(tl::unexpected(network.error()));
        if (!s) {
            qWarning("%s: %s", s.error().place.c_str(), said(s.error().message).c_str());
            return std::nan("");
        }
        return s->pressure_pa[static_cast<size_t>(network->nodeIndex("out"))];
    };
    const double two = pressureOf(circuitOf(2, 1)), doubled = pressureOf(circuitOf(1, 2));
    verifyClose(two, doubled, 1e-6);
    QVERIFY(pressureOf(circuitOf(1, 1)) > two);
}

void TestElements::chainOfElements_balances_data()
{
    QTest::addColumn<unsigned>("seed");
    for (unsigned seed = 1; seed <= 20; ++seed)
        QTest::addRow("%u", seed) << seed;
}

/// Trees of pipes by chance, fed by a pump: at every node as much comes as goes, and pressure falls
/// along the way the oil runs.
void TestElements::chainOfElements_balances()
{
    QFETCH(unsigned, seed);
    std::mt19937 random(seed);
    const auto between
        = [&](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
    Circuit c = pumpAlone("n0");
    const int nodes = 4 + static_cast<int>(random() % 12);
    for (int i = 1; i < nodes; ++i) {
        Element pipe;
        pipe.id = "p" + std::to_string(i);
        pipe.kind = ElementKind::Pipe;
        pipe.from = "n" + std::to_string(random() % static_cast<unsigned>(i));
        pipe.to = "n" + std::to_string(i);
        pipe.values = { { "d_mm", between(4, 14) }, { "l_mm", between(20, 400) } };
        c.elements.push_back(pipe);
    }
    for (int i = 0; i < nodes; ++i) {
        Element hole;
        hole.id = "h" + std::to_string(i);
        hole.kind = ElementKind::Orifice;
        hole.from = "n" + std::to_string(i);
        hole.to = "sump";
        hole.values = { { "d_mm", between(0.8, 2) } };
        c.elements.push_back(hole);
    }
    const auto network = Network::compile(c);
    QVERIFY2(network, network ? "" : said(network.error().message).c_str());
    const auto s = network->solve({ { 105, 14.2, 878 }, between(600, 5000), between(20, 130) });
    QVERIFY(s);
    std::map<std::string, double> balance;
    double through = 0;
    for (size_t i = 0; i < c.elements.size(); ++i) {
        const double q = s->flow_m3_s[i];
        balance[c.elements[i].from] -= q;
        balance[c.elements[i].to] += q;
        through = std::max(through, std::abs(q));
        if (c.elements[i].kind == ElementKind::Pipe) {
            const auto at = [&](const std::string &n) {
                return s->pressure_pa[static_cast<size_t>(network->nodeIndex(n))];
            };
            QVERIFY(q * (at(c.elements[i].from) - at(c.elements[i].to)) >= -1e-9);
        }
    }
    for (const auto &[node, left] : balance)
        if (node != "sump")
            QVERIFY2(std::abs(left) < 1e-6 * through, node.c_str());
}

} // namespace tst_elements

MILDPATH_TEST(tst_elements, TestElements)
#include "tst_elements.moc"
