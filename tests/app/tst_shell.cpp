// SPDX-License-Identifier: GPL-3.0-or-later
// The parts of the shell by themselves: theme, marks, figures, rail, panel, strip, open build.
#include "checks/assessment.h"
#include "core/checksfixture.h"
#include "entry/quantityfield.h"
#include "open/openbuild.h"
#include "paint/marks.h"
#include "paint/theme.h"
#include "shell/panel.h"
#include "shell/rail.h"
#include "shell/readoutstrip.h"
#include "start/gate.h"
#include "storage/journal.h"
#include "testing.h"

#include <QAbstractItemModelTester>
#include <QFontInfo>
#include <QImage>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QSignalSpy>
#include <QTemporaryDir>

using namespace mildpath;

namespace tst_shell {

namespace {

/// Relative luminance and contrast: WCAG 2.1, definitions; from memory.
double luminance(const QColor &c)
{
    const auto channel
        = [](float v) { return v <= 0.03928F ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * channel(c.redF()) + 0.7152 * channel(c.greenF()) + 0.0722 * channel(c.blueF());
}

double contrast(const QColor &a, const QColor &b)
{
    const double la = luminance(a), lb = luminance(b);
    return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

QImage picture(Mark mark)
{
    QImage image(40, 40, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::white);
    QPainter p(&image);
    drawMark(p, QPointF(20, 20), 30, mark);
    p.end();
    return image.convertToFormat(QImage::Format_Mono, Qt::ThresholdDither); // shape without colour
}

} // namespace

class TestShell : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void init() { Figure::setSystem(UnitSystem::Metric); }
    void text_hasContrastInBothThemes_data();
    void text_hasContrastInBothThemes();
    void pressureTones_runOneWay_data() { themes(); }
    void pressureTones_runOneWay();
    void marks_differByShapeAlone();
    void type_isOurOwnAndProportional();
    void figures_followTheUnitSystem_data();
    void figures_followTheUnitSystem();
    void figures_sayNoMoreThanIsKnown();
    void railModel_isAProperModel();
    void rail_tellsTheMarksInWords();
    void rail_refreshesOnlyChangedRows();
    void panel_keepsItsFieldWhileTyping();
    void panel_rebuildsWhenItsShapeChanges();
    void panelField_refusesInPlace();
    void readouts_appearOnlyWhenComputed();
    void readouts_countOnlyHoldsThatAreOpen();
    void readouts_tellWhatItWas();
    void freshTemplate_isNotProven();
    void orderlyEnd_leavesNoJournal();
    void failedSave_keepsEverything();
    void undo_isJournalled();

private:
    void themes()
    {
        QTest::addColumn<ThemeChoice>("choice");
        QTest::newRow("light") << ThemeChoice::Light;
        QTest::newRow("dark") << ThemeChoice::Dark;
    }
};

void TestShell::initTestCase()
{
    applyTheme(*qApp, ThemeChoice::Light);
}

void TestShell::text_hasContrastInBothThemes_data()
{
    themes();
}

void TestShell::text_hasContrastInBothThemes()
{
    QFETCH(ThemeChoice, choice);
    applyTheme(*qApp, choice);
    const Theme &t = Theme::current();
    QCOMPARE(t.dark, choice == ThemeChoice::Dark);
    for (const QColor &ground : { t.bench, t.panel }) {
        for (const QColor &text : { t.ink, t.muted, t.selection, t.hold, t.proven })
            QVERIFY2(contrast(text, ground) >= 4.5,
                     qPrintable(text.name() + QStringLiteral(" on ") + ground.name()));
        // The warning tone is a given of the light theme; it is set in bold or beside a mark.
        QVERIFY(contrast(t.lookAgain, ground) >= 3.5);
    }
    QVERIFY(contrast(t.stripInk, t.strip) >= 7 && contrast(t.stripMuted, t.strip) >= 4.5);
    QVERIFY(contrast(t.selection, t.selectionFill) >= 4.5);
    applyTheme(*qApp, ThemeChoice::Light);
}

void TestShell::pressureTones_runOneWay()
{
    QFETCH(ThemeChoice, choice);
    applyTheme(*qApp, choice);
    const Theme &t = Theme::current();
    double before = luminance(t.pressure(0));
    for (double bar = 0.25; bar <= 5; bar += 0.25) {
        const double now = luminance(t.pressure(bar * 1e5));
        QVERIFY(t.dark ? now > before : now < before);
        before = now;
    }
    QCOMPARE(t.pressure(9e5), t.pressure(5e5));
    QCOMPARE(t.pressure(-1e4), t.pressure(0));
    applyTheme(*qApp, ThemeChoice::Light);
}

void TestShell::marks_differByShapeAlone()
{
    const Mark all[] = { Mark::Proven, Mark::LookAgain, Mark::Hold, Mark::NotDone };
    for (const Mark a : all)
        for (const Mark b : all) {
            if (a == b)
                continue;
            const QImage pa = picture(a), pb = picture(b);
            int differing = 0;
            for (int y = 0; y < pa.height(); ++y)
                for (int x = 0; x < pa.width(); ++x)
                    differing += pa.pixelIndex(x, y) != pb.pixelIndex(x, y);
            QVERIFY2(differing > 60, qPrintable(QStringLiteral("%1 pixels").arg(differing)));
        }
}

void TestShell::type_isOurOwnAndProportional()
{
    for (const bool bold : { false, true }) {
        const QFontInfo info(textFont(TextSize::Body, bold));
        QCOMPARE(info.family(), QStringLiteral("Mild Path B612"));
        QVERIFY(!info.fixedPitch());
        const QFontMetrics metrics(textFont(TextSize::Body, bold));
        QCOMPARE(metrics.horizontalAdvance(QLatin1Char('1')),
                 metrics.horizontalAdvance(QLatin1Char('8'))); // tabular
        QVERIFY(metrics.horizontalAdvance(QLatin1Char('i'))
                < metrics.horizontalAdvance(QLatin1Char('m')));
    }
}

void TestShell::figures_followTheUnitSystem_data()
{
    QTest::addColumn<UnitSystem>("system");
    QTest::addColumn<QString>("pressure");
    QTest::addColumn<QString>("clearance");
    QTest::addColumn<QString>("temperature");
    QTest::newRow("metric") << UnitSystem::Metric << QStringLiteral("1.50 bar")
                            << QStringLiteral("50.8 µm") << QStringLiteral("100 °C");
    QTest::newRow("imperial") << UnitSystem::Imperial << QStringLiteral("21.8 psi")
                              << QStringLiteral("2.00 thou") << QStringLiteral("212 °F");
    QTest::newRow("both") << UnitSystem::Both << QStringLiteral("1.50 bar · 21.8 psi")
                          << QStringLiteral("50.8 µm · 2.00 thou")
                          << QStringLiteral("100 °C · 212 °F");
}

void TestShell::figures_followTheUnitSystem()
{
    QFETCH(UnitSystem, system);
    QFETCH(QString, pressure);
    QFETCH(QString, clearance);
    QFETCH(QString, temperature);
    Figure::setSystem(system);
    QCOMPARE(plainly(Figure::pressure(1.5e5).text()), pressure);
    QCOMPARE(plainly(Figure::clearance(50.8, 1.3).text()), clearance);
    QCOMPARE(plainly(Figure::temperature(100).text()), temperature);
    QVERIFY(findUnit(Figure::pressureUnit(), Dimension::Pressure));
    QVERIFY(findUnit(Figure::clearanceUnit(), Dimension::Length));
    QVERIFY(findUnit(Figure::temperatureUnit(), Dimension::Temperature));
}

void TestShell::figures_sayNoMoreThanIsKnown()
{
    QCOMPARE(plainly(Figure::clearance(50.04, 8.7).text()), QStringLiteral("50 µm"));
    QCOMPARE(Figure::limit(65).number, QStringLiteral("65"));
    QCOMPARE(Figure::limit(62.5).number, QStringLiteral("62.5"));
    QCOMPARE(plainly(Figure::pressure(47e5).text()),
             QStringLiteral("> 15 bar")); // beyond what filter cans stand
    QCOMPARE(Figure::pressureChange(1.2e4).number, QStringLiteral("+0.12"));
    QCOMPARE(Figure::pressureChange(-1.2e4).number, QStringLiteral("\u22120.12"));
    QCOMPARE(Figure::pressureChange(3).number, QStringLiteral("0.00"));
}

void TestShell::railModel_isAProperModel()
{
    OpenBuild open({});
    open.open(demoBuild(), {});
    RailModel model(open);
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::QtTest);
    QCOMPARE(model.rowCount(), static_cast<int>(open.build().engine.stops.size()));
    for (int row = 0; row < model.rowCount(); ++row)
        QCOMPARE(model.rowOf(model.stopAt(row)), row);
    QCOMPARE(model.rowOf(QStringLiteral("nobody")), -1);
    open.open(loadTemplate("inline-four-alloy")->build, {});
    QCOMPARE(model.rowCount(), static_cast<int>(open.build().engine.stops.size()));
}

void TestShell::rail_tellsTheMarksInWords()
{
    OpenBuild open({});
    open.open(demoBuild(), {});
    RailModel model(open);
    const QModelIndex main4 = model.index(model.rowOf(QStringLiteral("main_4")));
    QCOMPARE(main4.data(Qt::AccessibleTextRole).toString(),
             QStringLiteral("Main 4; size holds the start, clean proven, flow not done"));
    QVERIFY(main4.data(Qt::ToolTipRole).toString().contains(QStringLiteral("above the maximum")));
    QCOMPARE(main4.data(RailModel::LevelRole).toInt(), 1);
}

void TestShell::rail_refreshesOnlyChangedRows()
{
    OpenBuild open({});
    open.open(demoBuild(), {});
    RailModel model(open);
    QSignalSpy changed(&model, &QAbstractItemModel::dataChanged);
    CheckEntry camhole;
    camhole.kind = "camhole";
    camhole.says = "no";
    QVERIFY(open.record(camhole));
    QCOMPARE(changed.size(), 1);
    QCOMPARE(changed[0][0].toModelIndex().data().toString(), QStringLiteral("Cam bearings"));
}

void TestShell::panel_keepsItsFieldWhileTyping()
{
    SidePanel panel;
    double stored = 0;
    const auto content = [&](double value, const QString &title) {
        return PanelContent { PanelTitle { title, {} },
                              PanelField { QStringLiteral("f"), QStringLiteral("width"),
                                           Dimension::Length, "mm", 2, value,
                                           [&](double si) -> Result<void> {
                                               stored = si;
                                               return {};
                                           } } };
    };
    panel.setContent(content(5e-3, QStringLiteral("one")));
    panel.show();
    panel.activateWindow();
    QVERIFY(QTest::qWaitForWindowActive(&panel));
    auto *field = panel.findChild<QuantityField *>(QStringLiteral("f"));
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("6.2"));
    panel.setContent(content(5e-3, QStringLiteral("two"))); // something else changed meanwhile
    QCOMPARE(panel.findChild<QuantityField *>(QStringLiteral("f")), field);
    QCOMPARE(field->text(), QStringLiteral("6.2"));
    QTest::keyClick(field, Qt::Key_Return);
    verifyClose(stored, 6.2e-3, 1e-12);
}

void TestShell::panel_rebuildsWhenItsShapeChanges()
{
    SidePanel panel;
    int pressed = 0;
    panel.setContent(
        { PanelButton { QStringLiteral("b"), QStringLiteral("go"), [&] { ++pressed; } } });
    panel.findChild<QPushButton *>(QStringLiteral("b"))->click();
    QCOMPARE(pressed, 1);
    panel.setContent({ PanelText { QStringLiteral("words"), Tone::Muted }, PanelRule {},
                       PanelRow { QStringLiteral("label"),
                                  { QStringLiteral("5"), QStringLiteral("bar"), {} } } });
    QVERIFY(!panel.findChild<QPushButton *>(QStringLiteral("b")));
    const auto views
        = panel.widget()->findChildren<QWidget *>(QString(), Qt::FindDirectChildrenOnly);
    QCOMPARE(views.size(), 3);
    QVERIFY(std::any_of(views.begin(), views.end(), [](const QWidget *w) {
        return plainly(w->accessibleName()) == QStringLiteral("label: 5 bar");
    }));
}

void TestShell::panelField_refusesInPlace()
{
    SidePanel panel;
    panel.setContent({ PanelField {
        QStringLiteral("f"), QStringLiteral("width"), Dimension::Length, "mm", 2, 5e-3,
        [](double) -> Result<void> { return fail("width", "is too wide"); } } });
    panel.show();
    auto *field = panel.findChild<QuantityField *>(QStringLiteral("f"));
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("9"));
    QTest::keyClick(field, Qt::Key_Return);
    QCOMPARE(field->text(), QStringLiteral("5.00"));
    const auto labels = panel.findChildren<QLabel *>();
    QVERIFY(std::any_of(labels.begin(), labels.end(), [](const QLabel *l) {
        return l->text() == QStringLiteral("width: is too wide") && !l->isHidden();
    }));
}

void TestShell::readouts_appearOnlyWhenComputed()
{
    Build build = demoBuild();
    const auto ids = [&] {
        QStringList out;
        const Assessment a = assess(build);
        for (const Readout &r : readoutsOf(build, a, nullptr))
            out << r.id;
        return out;
    };
    QCOMPARE(ids(),
             (QStringList { QStringLiteral("hotIdleGauge"), QStringLiteral("hotIdleWeakest"),
                            QStringLiteral("highSpeedGauge"), QStringLiteral("coldestClearance"),
                            QStringLiteral("airRisk"), QStringLiteral("holds") }));
    build.gaugeTap = "nowhere"; // no forecast: no cell that shows one
    QVERIFY(!ids().contains(QStringLiteral("hotIdleGauge")));
    QVERIFY(ids().contains(QStringLiteral("holds")));
}

void TestShell::readouts_countOnlyHoldsThatAreOpen()
{
    Build build = demoBuild();
    const Assessment a = assess(build);
    const auto holds = [&] { return readoutsOf(build, assess(build), nullptr).back(); };
    QCOMPARE(holds().value.number, QString::number(gateOf(a).holds()));
    QCOMPARE(holds().place, Place::Start);
    fixture::By by(std::move(build));
    by.as("A").says("clr", { "main_4" }).says("plugin").says("plugseen", {}, "yes", "camera");
    fixture::settleEverything(by);
    build = by.build();
    QCOMPARE(holds().value.number, QStringLiteral("0"));
    QVERIFY2(holds().detail.contains(QStringLiteral("signed off")), qPrintable(holds().detail));
    QCOMPARE(holds().mark, Mark::SignedOff); // signed for is not proven
}

void TestShell::readouts_tellWhatItWas()
{
    const Build build = demoBuild();
    const Assessment before = assess(build);
    const Build after = applyEdit(build, SetUse { "hot_oil_c", 110 }).value();
    const Assessment now = assess(after);
    const auto readouts = readoutsOf(after, now, &before);
    QCOMPARE(readouts[0].was,
             QStringLiteral("was ")
                 + Figure::pressure(before.operating.hotIdle.gauge.value_pa).number);
    QVERIFY(readouts[0].detail.contains(
        shown(QuantityRange { asPressure(now.operating.hotIdle.gauge.low_pa),
                              asPressure(now.operating.hotIdle.gauge.high_pa) })
            .number));
    QVERIFY(readoutsOf(build, before, &before)[0].was.isEmpty());
}

void TestShell::freshTemplate_isNotProven()
{
    Build build = loadTemplate("inline-four-wet-sump")->build;
    // Nothing holds, and nothing is proven: it says what the job is first.
    const Readout open = readoutsOf(build, assess(build), nullptr).back();
    QCOMPARE(open.value.number, QStringLiteral("0"));
    QCOMPARE(open.mark, Mark::NotDone);
    QVERIFY(open.detail.contains(QStringLiteral("1 check")));
    build = fixture::withJob(std::move(build), "N");
    const Readout asked = readoutsOf(build, assess(build), nullptr).back();
    QVERIFY(asked.mark != Mark::Proven && asked.detail.contains(QStringLiteral("checks open")));
}

void TestShell::orderlyEnd_leavesNoJournal()
{
    QTemporaryDir folder;
    const auto journals = [&] { return QDir(folder.path()).entryList(QDir::Files).size(); };
    {
        OpenBuild open(folder.path());
        open.open(demoBuild(), {});
        QVERIFY(open.edit(SetUse { "hot_oil_c", 95 }));
        QCOMPARE(journals(), 1);
        QVERIFY(open.isModified());
        open.undoStack().undo();
    }
    QCOMPARE(journals(), 0);
    {
        OpenBuild open(folder.path());
        open.open(demoBuild(), {});
        QVERIFY(open.edit(SetUse { "hot_oil_c", 95 }));
    }
    QCOMPARE(journals(), 1); // unsaved edits stay to be offered
}

void TestShell::failedSave_keepsEverything()
{
    QTemporaryDir folder;
    OpenBuild open(folder.filePath(QStringLiteral("state")));
    open.open(demoBuild(), { .path = QStringLiteral("/somewhere/demo.mildpath") });
    QVERIFY(open.edit(SetUse { "hot_oil_c", 95 }));
    QVERIFY(!open.save(QStringLiteral("/nonexistent/folder/x.mildpath")));
    QCOMPARE(open.path(), QStringLiteral("/somewhere/demo.mildpath"));
    QVERIFY(open.isModified() && open.undoStack().canUndo());
    QCOMPARE(open.build().use.hotOil_c, 95.0);
    QVERIFY(!open.edit(SetUse { "hot_oil_c", 900 }));
    QCOMPARE(open.build().use.hotOil_c, 95.0);
}

void TestShell::undo_isJournalled()
{
    QTemporaryDir folder;
    {
        OpenBuild open(folder.path());
        open.open(demoBuild(), {});
        QVERIFY(open.edit(SetUse { "hot_oil_c", 95 }));
        QVERIFY(open.edit(SetUse { "hot_oil_c", 105 }));
        open.undoStack().undo();
    }
    const auto found = findRecoveries(folder.path().toStdString());
    QCOMPARE(found.recoveries.size(), 1u);
    QCOMPARE(found.recoveries[0].recovered.use.hotOil_c, 95.0);
}

} // namespace tst_shell

MILDPATH_TEST(tst_shell, TestShell)
#include "tst_shell.moc"
