// SPDX-License-Identifier: GPL-3.0-or-later
// What the benches show and how they answer, beyond what the window test walks through.
#include "assess/believed.h"
#include "assess/narrowed.h"
#include "bench/clearances/clearanceaxis.h"
#include "bench/clearances/clearancebench.h"
#include "bench/clearances/readingspage.h"
#include "bench/forecast/forecastbench.h"
#include "bench/forecast/forecastcards.h"
#include "bench/route/routebench.h"
#include "bench/route/routemap.h"
#include "checks/assessment.h"
#include "entry/readingentry.h"
#include "plot/chartview.h"
#include "testing.h"
#include "window/startup.h"
#include "window/window.h"

#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>

#include <memory>

using namespace mildpath;

namespace tst_benches {

namespace {

/// All the side panel would say, one item a line.
QString words(const PanelContent &content)
{
    QStringList lines;
    for (const PanelItem &item : content)
        std::visit(
            [&](const auto &i) {
                using T = std::decay_t<decltype(i)>;
                if constexpr (std::is_same_v<T, PanelTitle>)
                    lines << i.text;
                else if constexpr (std::is_same_v<T, PanelHeading> || std::is_same_v<T, PanelText>)
                    lines << i.text;
                else if constexpr (std::is_same_v<T, PanelRow>)
                    lines << i.label + QStringLiteral(" ") + i.value.text();
                else if constexpr (std::is_same_v<T, PanelChange>)
                    lines << i.label + QStringLiteral(" ") + i.before.text() + QStringLiteral(" > ")
                            + i.after.text();
                else if constexpr (std::is_same_v<T, PanelVerdict>)
                    lines << i.text + QStringLiteral(" ") + i.detail;
                else if constexpr (std::is_same_v<T, PanelField>)
                    lines << QStringLiteral("field ") + i.id;
                else if constexpr (std::is_same_v<T, PanelButton>)
                    lines << QStringLiteral("button ") + i.id;
            },
            item);
    return lines.join(QLatin1Char('\n'));
}

const PanelField *fieldOf(const PanelContent &content, const char *id)
{
    for (const PanelItem &item : content)
        if (const auto *field = std::get_if<PanelField>(&item);
            field && field->id == QLatin1String(id))
            return field;
    return nullptr;
}

} // namespace

class TestBenches : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void init();
    void clearancePanel_showsWhatTheTargetWouldDo();
    void clearancePanel_showsItsWorking();
    void clearanceLimits_areEditedInPlace();
    void clearanceAxis_selectsByClick();
    void emptiedCell_takesTheReadingBack();
    void partTemperatures_goWithTheReading();
    void sameReadingAgain_isNoNewEdit();
    void unlikelyReading_isKeptAndSaid();
    void routePanel_tellsWhyAStopHolds();
    void routePanel_offersWhatCanBeProven();
    void routePanel_offersEntranceDimensionsOnly_data();
    void routePanel_offersEntranceDimensionsOnly();
    void routeMap_coversEveryStopWithAClick();
    void forecastPanel_followsTheUse();
    void stripAndPanel_agreeOnEveryVerdict();
    void forecastPanel_saysWhenTheReliefStaysShut();
    void forecastPanel_saysWhatReadingsMakeOfIt();
    void wideForecast_saysWhatNarrowsIt();
    void forecastShares_areSpoken();
    void messageBar_asksAndCloses();
    void recentFiles_areOffered();
    void droppedFile_isOpened();
    void everyMenuEntry_hasAName();
    void journalFolder_followsTheEnvironment();

private:
    std::unique_ptr<OpenBuild> m_open;
};

void TestBenches::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
    applyTheme(*qApp, ThemeChoice::Light);
}

void TestBenches::init()
{
    Figure::setSystem(UnitSystem::Metric);
    m_open = std::make_unique<OpenBuild>(QString());
}

void TestBenches::clearancePanel_showsWhatTheTargetWouldDo()
{
    ClearanceBench bench(*m_open, nullptr, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(QStringLiteral("main_4"));
    bench.refresh();
    const QString text = words(bench.panel());
    const double now = m_open->assessment().operating.hotIdle.gauge.value_pa;
    const auto main4 = static_cast<size_t>(m_open->assessment().size("main_4")
                                           - m_open->assessment().sizes.data());
    const double then
        = hotIdleWith(m_open->build(), m_open->assessment().sizes, { { main4, 48.0 } })
              ->gauge.value_pa;
    QVERIFY(then > now);
    QVERIFY2(text.contains(Figure::pressure(now).text() + QStringLiteral(" > ")
                           + Figure::pressure(then).text()),
             qPrintable(text));
    QVERIFY(text.contains(QStringLiteral("If Main 4 were at target")));
}

void TestBenches::clearancePanel_showsItsWorking()
{
    ClearanceBench bench(*m_open, nullptr, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(QStringLiteral("big_end_1"));
    bench.refresh();
    const QString text = words(bench.panel());
    const GaugedSize *c = m_open->assessment().size("big_end_1");
    QVERIFY(
        text.contains(QStringLiteral("running C = ") + Figure::clearance(c->running_um).text()));
    QVERIFY(text.contains(QStringLiteral("Source: standard linear-expansion result")));
    QVERIFY(text.contains(
        QStringLiteral("crank or forged steel αh"))); // the rod's material, not the block's
}

void TestBenches::clearanceLimits_areEditedInPlace()
{
    ClearanceBench bench(*m_open, nullptr, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(QStringLiteral("main_4"));
    bench.refresh();
    const PanelContent content = bench.panel();
    const PanelField *most = fieldOf(content, "limit.main.max_um");
    QVERIFY(most);
    QVERIFY(most->store(80e-6));
    QCOMPARE(m_open->build().limits.at("main").max_um, 80.0);
    QCOMPARE(m_open->assessment().size("main_4")->mark, Mark::Proven);
    const auto refused = most->store(10e-6); // below the least
    QVERIFY(!refused);
    QCOMPARE(m_open->build().limits.at("main").max_um, 80.0);
}

void TestBenches::clearanceAxis_selectsByClick()
{
    ClearanceAxis axis(*m_open);
    m_open->open(demoBuild(), {});
    axis.setFamily("main");
    axis.resize(700, 400);
    axis.show();
    QStringList chosen;
    connect(&axis, &ClearanceAxis::chosen, this, [&](const QString &stop) {
        if (!chosen.contains(stop))
            chosen << stop;
    });
    for (int y = 50; y < 330; y += 14)
        QTest::mouseClick(&axis, Qt::LeftButton, {}, QPoint(300, y));
    QCOMPARE(
        chosen,
        (QStringList { QStringLiteral("main_1"), QStringLiteral("main_2"), QStringLiteral("main_3"),
                       QStringLiteral("main_4"), QStringLiteral("main_5") }));
}

void TestBenches::emptiedCell_takesTheReadingBack()
{
    ReadingEntry entry(*m_open, nullptr, false);
    m_open->open(demoBuild(), {});
    entry.setItem(sizeItem(m_open->build(), "main_1"));
    entry.show();
    entry.cell(0)->selectAll();
    QTest::keyClick(entry.cell(0), Qt::Key_Delete);
    QTest::keyClick(entry.cell(0), Qt::Key_Return);
    QCOMPARE(readingAt(m_open->build(), gaugePlace("main_1", 1, 90)), nullptr);
    QCOMPARE(m_open->build().readings.size(),
             demoBuild().readings.size() + 1); // struck, not erased
    m_open->undoStack().undo();
    QVERIFY(readingAt(m_open->build(), gaugePlace("main_1", 1, 90)));
}

void TestBenches::partTemperatures_goWithTheReading()
{
    ReadingEntry entry(*m_open, nullptr, false);
    m_open->open(loadTemplate("inline-four-alloy")->build, {});
    entry.setItem(sizeItem(m_open->build(), "main_1"));
    entry.show();
    auto *housing = entry.findChild<QuantityField *>(QStringLiteral("housingTemperature"));
    housing->selectAll();
    QTest::keyClicks(housing, QStringLiteral("86 F"));
    QTest::keyClick(housing, Qt::Key_Return);
    QTest::keyClicks(entry.cell(0), QStringLiteral("60"));
    QTest::keyClick(entry.cell(0), Qt::Key_Return);
    const Reading *r = readingAt(m_open->build(), gaugePlace("main_1", 1, 90));
    verifyClose(r->housing_c, 30, 1e-9);
    QCOMPARE(r->journal_c, 20.0);
    // 10 K on an aluminium bore of 60 mm: 12.9 µm of the 60 are heat.
    verifyClose(m_open->assessment().size("main_1")->cold_um.value, 60 - 60.06e3 * 21.5e-6 * 10,
                1e-3);
    housing->selectAll();
    QTest::keyClicks(housing, QStringLiteral("900"));
    QTest::keyClick(housing, Qt::Key_Return);
    QVERIFY(entry.findChild<QLabel *>(QStringLiteral("entryMessage"))
                ->text()
                .contains(QStringLiteral("cannot be")));
}

void TestBenches::sameReadingAgain_isNoNewEdit()
{
    ReadingEntry entry(*m_open, nullptr, false);
    m_open->open(demoBuild(), {});
    entry.setItem(sizeItem(m_open->build(), "main_1"));
    entry.show();
    const QString same = entry.cell(0)->text();
    entry.cell(0)->selectAll();
    QTest::keyClicks(entry.cell(0), same);
    QTest::keyClick(entry.cell(0), Qt::Key_Return);
    QCOMPARE(m_open->undoStack().count(), 0);
}

void TestBenches::unlikelyReading_isKeptAndSaid()
{
    ClearanceBench bench(*m_open, nullptr, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(QStringLiteral("main_1"));
    bench.refresh();
    bench.show();
    bench.readings().entry().cell(0)->selectAll();
    QTest::keyClicks(bench.readings().entry().cell(0), QStringLiteral("0.3 mm"));
    QTest::keyClick(bench.readings().entry().cell(0), Qt::Key_Return);
    bench.refresh();
    bool said = false;
    for (const QLabel *label : bench.readings().entry().findChildren<QLabel *>())
        said = said || label->text().contains(QStringLiteral("unusual"));
    QVERIFY(said);
    QCOMPARE(*readingAt(m_open->build(), gaugePlace("main_1", 1, 90))->value_um, 300.0);
}

void TestBenches::routePanel_tellsWhyAStopHolds()
{
    RouteBench bench(*m_open, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(QStringLiteral("main_4"));
    bench.refresh();
    const QString text = words(bench.panel());
    QVERIFY(text.contains(QStringLiteral("71.3 ± 2.6 µm is above the maximum of 65")));
    QVERIFY(text.contains(QStringLiteral("swap the shells")));
    QVERIFY(text.contains(QStringLiteral("Working")));
}

void TestBenches::routePanel_offersWhatCanBeProven()
{
    RouteBench bench(*m_open, nullptr);
    m_open->open(demoBuild(), {});
    // What is only looked at is ticked in place, with its caution; a size is told.
    m_open->selectStop(QStringLiteral("sump_pickup"));
    bench.refresh();
    const PanelContent content = bench.panel();
    const auto tick = std::find_if(content.begin(), content.end(), [](const PanelItem &i) {
        const auto *t = std::get_if<PanelTick>(&i);
        return t && t->id == QStringLiteral("stop.check.baffle@sump_pickup");
    });
    QVERIFY(tick != content.end());
    QVERIFY(words(content).contains(QStringLiteral("Metal dust")));
    std::get<PanelTick>(*tick).toggled(true);
    QCOMPARE(m_open->judgement().checks.find("baffle@sump_pickup")->evident, Evident::Yes);
    bench.refresh();
    QVERIFY(!words(bench.panel()).contains(QStringLiteral("stop.check.baffle")));
}

void TestBenches::routePanel_offersEntranceDimensionsOnly_data()
{
    QTest::addColumn<QString>("stop");
    QTest::addColumn<QStringList>("fields");
    QTest::newRow("pump: measured on its own bench") << QStringLiteral("pump") << QStringList();
    QTest::newRow("relief: its spring was measured") << QStringLiteral("relief") << QStringList();
    QTest::newRow("lifters: the restrictor, not the eight meters")
        << QStringLiteral("lifter_gallery")
        << QStringList { QStringLiteral("lifter_restrictor.d_mm") };
    QTest::newRow("four jets alike: none") << QStringLiteral("cooling_jets") << QStringList();
    QTest::newRow("chain jet") << QStringLiteral("chain_jet")
                               << QStringList { QStringLiteral("chain_jet.d_mm") };
}

void TestBenches::routePanel_offersEntranceDimensionsOnly()
{
    QFETCH(QString, stop);
    QFETCH(QStringList, fields);
    RouteBench bench(*m_open, nullptr);
    m_open->open(demoBuild(), {});
    m_open->selectStop(stop);
    bench.refresh();
    QStringList found;
    for (const PanelItem &item : bench.panel())
        if (const auto *field = std::get_if<PanelField>(&item))
            found << field->id;
    QCOMPARE(found, fields);
}

void TestBenches::routeMap_coversEveryStopWithAClick()
{
    RouteMap map(*m_open);
    m_open->open(demoBuild(), {});
    map.resize(800, 600);
    map.show();
    map.setResult(assessAt(m_open->build(), m_open->assessment().sizes, 800, 100).value());
    for (const Stop &stop : m_open->build().engine.stops) {
        if (stop.kind == StopKind::Gallery)
            continue;
        QTest::mouseClick(&map, Qt::LeftButton, {}, map.placeOf(qs(stop.id)).toPoint());
        QCOMPARE(m_open->selectedStop(), qs(stop.id));
    }
    map.setResult(std::nullopt); // nothing to draw is said, not drawn as zeros
    QVERIFY(!map.grab().isNull());
}

void TestBenches::forecastPanel_followsTheUse()
{
    ForecastBench bench(*m_open, nullptr);
    m_open->open(demoBuild(), {});
    const PanelContent content = bench.panel();
    const PanelField *floor = fieldOf(content, "use.hot_idle_floor_kpa");
    QVERIFY(floor->store(2e5));
    QCOMPARE(m_open->build().use.hotIdleFloor_kpa, 200.0);
    const QString text = words(bench.panel());
    QVERIFY(text.contains(QStringLiteral("your minimum: 2.00 bar")));
    QVERIFY(std::any_of(
        m_open->assessment().findings.begin(), m_open->assessment().findings.end(),
        [](const Finding &f) { return f.id == "idle@engine" && f.mark == Mark::Hold; }));
    QVERIFY(!fieldOf(content, "use.hot_oil_c")->store(900));
}

void TestBenches::stripAndPanel_agreeOnEveryVerdict()
{
    ForecastBench bench(*m_open, nullptr);
    QSet<Mark> seen;
    for (const double floor_kpa : { 50.0, 130.0, 160.0 }) {
        Build build = demoBuild();
        build.use.hotIdleFloor_kpa = floor_kpa;
        m_open->open(build, {});
        const auto readouts = readoutsOf(build, m_open->assessment(), nullptr);
        std::vector<Mark> panel;
        for (const PanelItem &item : bench.panel())
            if (const auto *verdict = std::get_if<PanelVerdict>(&item))
                panel.push_back(verdict->mark);
        QCOMPARE(panel[0], readouts[0].mark); // gauge
        QCOMPARE(panel[1], readouts[1].mark); // weakest stop
        seen.insert(readouts[1].mark);
    }
    QCOMPARE(seen.size(), 3); // proven, look again and hold all came up
}

void TestBenches::forecastPanel_saysWhenTheReliefStaysShut()
{
    ForecastBench bench(*m_open, nullptr);
    Build build = demoBuild();
    for (Stop &stop : build.engine.stops)
        if (stop.kind == StopKind::Relief)
            stop.values.clear(); // a measured spring would set it
    build.circuit.find("relief")->values["crack_kpa"] = 900;
    build.circuit.find("relief")->values["full_kpa"] = 1100;
    m_open->open(build, {});
    QVERIFY(words(bench.panel()).contains(QStringLiteral("Relief stays shut")));
    m_open->open(demoBuild(), {});
    QVERIFY(words(bench.panel()).contains(QStringLiteral("Relief valve limits pressure")));
}

void TestBenches::forecastPanel_saysWhatReadingsMakeOfIt()
{
    ForecastBench bench(*m_open, nullptr);
    const Build started
        = loadBuild(demoBuildPath().parent_path() / "harbour-fire-pump-started.mildpath")->build;
    m_open->open(started, {});
    bench.refresh();
    QTRY_VERIFY_WITH_TIMEOUT(!m_open->answers().isBusy(), 60000);
    const auto idle = believedIdle(started, m_open->sizes());
    QVERIFY(idle && idle->readings == 3);
    QVERIFY(idle->with.high_pa - idle->with.low_pa
            < 0.67 * (idle->alone.high_pa - idle->alone.low_pa));
    QVERIFY(words(bench.panel()).contains(qs(believedText(*idle))));
    m_open->open(demoBuild(), {}); // nothing read, nothing said of it
    bench.refresh();
    QTRY_VERIFY_WITH_TIMEOUT(!m_open->answers().isBusy(), 60000);
    QVERIFY(!words(bench.panel()).contains(QStringLiteral("left for something")));
}

void TestBenches::wideForecast_saysWhatNarrowsIt()
{
    ForecastBench bench(*m_open, nullptr);
    m_open->open(loadTemplate("inline-four-alloy")->build, {});
    bench.refresh();
    const bool wide = isWide(m_open->operating().hotIdle.gauge);
    QVERIFY(wide); // nothing is gauged yet
    QTRY_VERIFY_WITH_TIMEOUT(words(bench.panel()).contains(QStringLiteral("then")), 60000);
    QVERIFY(words(bench.panel()).contains(QStringLiteral("Read the pressure gauge"))
            || words(bench.panel()).contains(QStringLiteral("Gauge all")));
    QVERIFY(words(bench.panel()).contains(QStringLiteral("mean load stands for it")));
}

void TestBenches::forecastShares_areSpoken()
{
    OilShareBar bar(*m_open);
    m_open->open(demoBuild(), {});
    bar.resize(200, 400);
    bar.grab();
    // In whole percent that add up, each within one of its own.
    static const QRegularExpression part(QStringLiteral("([0-9]+)\\D*?  (.+)"));
    int sum = 0, seen = 0;
    QString said = bar.accessibleName();
    said.remove(0, said.indexOf(u':') + 2);
    for (const QString &words : said.split(QStringLiteral(", "))) {
        const auto match = part.match(words);
        QVERIFY2(match.hasMatch(), qPrintable(words));
        sum += match.captured(1).toInt();
        for (const OilShare &s : m_open->operating().hotIdle.shares)
            if (match.captured(2) == qs(s.name)) {
                ++seen;
                QVERIFY(std::abs(match.captured(1).toInt() - 100 * s.ofSwept) < 1);
            }
    }
    QCOMPARE(sum, 100);
    QVERIFY(seen >= 5);
}

void TestBenches::messageBar_asksAndCloses()
{
    QWidget parent;
    MessageBar bar(&parent);
    parent.show();
    int chosen = 0;
    bar.say(QStringLiteral("which?"),
            { { QStringLiteral("this"), [&] { chosen = 1; } },
              { QStringLiteral("that"), [&] { chosen = 2; } } });
    QCOMPARE(bar.text(), QStringLiteral("which?"));
    bar.findChild<QPushButton *>(QStringLiteral("answer1"))->click();
    QCOMPARE(chosen, 2);
    QVERIFY(bar.text().isEmpty());
    bar.say(QStringLiteral("so it is"));
    bar.findChild<QPushButton *>(QStringLiteral("closeMessage"))->click();
    QVERIFY(bar.text().isEmpty());
}

void TestBenches::recentFiles_areOffered()
{
    freshSettings();
    QTemporaryDir folder;
    MainWindow window({});
    QVERIFY(window.openFile(qs(demoBuildPath().string())));
    const QString mine = folder.filePath(QStringLiteral("mine.mildpath"));
    QVERIFY(window.saveTo(mine));
    const QStringList recent = QSettings().value(QStringLiteral("recentFiles")).toStringList();
    QCOMPARE(recent, (QStringList { mine, qs(demoBuildPath().string()) }));
}

void TestBenches::droppedFile_isOpened()
{
    MainWindow window({});
    QVERIFY(window.openTemplate(QStringLiteral("inline-four-alloy")));
    QMimeData data;
    data.setUrls({ QUrl::fromLocalFile(qs(demoBuildPath().string())) });
    QDragEnterEvent enter(QPoint(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(&window, &enter);
    QVERIFY(enter.isAccepted());
    QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(&window, &drop);
    QCOMPARE(window.openBuild().build().name, demoBuild().name);
}

void TestBenches::everyMenuEntry_hasAName()
{
    MainWindow window({});
    QVERIFY(window.openTemplate(QStringLiteral("inline-four-alloy")));
    QSet<QString> shortcuts;
    for (const QAction *action : window.findChildren<QAction *>()) {
        if (action->isSeparator())
            continue;
        QVERIFY(!action->text().isEmpty());
        for (const QKeySequence &key : action->shortcuts()) {
            QVERIFY2(!shortcuts.contains(key.toString()), qPrintable(key.toString()));
            shortcuts.insert(key.toString());
        }
    }
    QVERIFY(shortcuts.contains(QStringLiteral("Ctrl+S"))
            && shortcuts.contains(QStringLiteral("Ctrl+Z")));
}

void TestBenches::journalFolder_followsTheEnvironment()
{
    qputenv("XDG_STATE_HOME", "/somewhere/state");
    QCOMPARE(journalFolder(), QStringLiteral("/somewhere/state/mildpath"));
    qunsetenv("XDG_STATE_HOME");
    QVERIFY(journalFolder().endsWith(QStringLiteral("/.local/state/mildpath")));
}

} // namespace tst_benches

MILDPATH_TEST(tst_benches, TestBenches)
#include "tst_benches.moc"
