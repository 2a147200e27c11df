// SPDX-License-Identifier: GPL-3.0-or-later
// The engine described by keyboard: sizes typed along the sheet, sources, exceptions, tables pasted
// and copied; torque cards as a manual has them.
#include "benchfixture.h"

#include "bench/clearances/torquepage.h"
#include "bench/engine/valuetable.h"
#include "document/dimensions.h"
#include "document/enginesheet.h"
#include "entry/quantityfield.h"
#include "window/newbuild.h"

#include <QClipboard>
#include <QGuiApplication>

namespace mildpath {
namespace tst_enginebench {

class TestEngineBench : public QObject, private BenchFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init();
    void cleanup()
    {
        Figure::setSystem(UnitSystem::Metric);
        m_window.reset();
    }
    void number_isTypedOverAndUndone();
    void row_isWalkedByTab();
    void source_goesWithTheNumber();
    void part_thatDiffersStandsBelow();
    void limits_ofOneBearing();
    void unlikely_isAskedAbout();
    void refused_isSaidAndNothingChanges();
    void table_isPastedAsOneStep();
    void table_inInches();
    void table_isCopied();
    void lists_holdWhatFitsNoColumn();
    void torqueCard_isEnteredAsTheManualHasIt();
    void torqueOrder_isSetByClicking();
    void bolts_outsideComeAfter();
    void ownSix_isDescribedByKeyboard();
    void lifterSeriesEight_isDescribedByKeyboard();

private:
    /// A key that is no digit: counted.
    void key(QWidget *to, Qt::Key which)
    {
        QVERIFY(to);
        QTest::keyClick(to, which);
        ++m_keys;
    }
    void tabTo(QWidget *wanted)
    {
        for (int i = 0; i < 60 && QApplication::focusWidget() != wanted; ++i)
            key(QApplication::focusWidget(), Qt::Key_Tab);
        QCOMPARE(QApplication::focusWidget(), wanted);
    }
    void pick(QDialog &dialog, const char *combo, const char *data)
    {
        auto *c = dialog.findChild<QComboBox *>(QString::fromLatin1(combo));
        QVERIFY2(c, combo);
        tabTo(c);
        for (int i = 0; i < 20 && c->currentData().toString() != QString::fromLatin1(data); ++i)
            key(c,
                c->currentIndex() < c->findData(QString::fromLatin1(data)) ? Qt::Key_Down
                                                                           : Qt::Key_Up);
        QCOMPARE(c->currentData().toString(), QString::fromLatin1(data));
    }
    void fill(QDialog &dialog, const char *field, const char *digits)
    {
        auto *f = dialog.findChild<QuantityField *>(QString::fromLatin1(field));
        QVERIFY2(f, field);
        tabTo(f);
        f->selectAll();
        QTest::keyClicks(f, QString::fromLatin1(digits));
        key(f, Qt::Key_Return);
    }
    /// A family's row, number by number; "" leaves one as it is.
    void row(const QString &name, std::initializer_list<const char *> numbers)
    {
        // Down to it from where the last one ended, then along it.
        for (int i = 0; i < 60 && table()->row() != rowNamed(name); ++i)
            key(table(), table()->row() < rowNamed(name) ? Qt::Key_Down : Qt::Key_Up);
        while (table()->column() > 0) {
            const int before = table()->column();
            key(table(), Qt::Key_Left);
            if (table()->row() != rowNamed(name)) { // it begins further right
                table()->choose(rowNamed(name), before);
                break;
            }
        }
        for (const char *n : numbers) {
            if (*n) {
                typeHere(QString::fromLatin1(n), Qt::Key_Tab);
                ++m_keys;
            } else {
                key(table(), Qt::Key_Tab);
            }
        }
    }
    void begin(NewBuildDialog &dialog)
    {
        m_keys = 0;
        dialog.show();
        QVERIFY(QTest::qWaitForWindowExposed(&dialog));
        dialog.activateWindow();
        QApplication::processEvents();
        dialog.findChild<QComboBox *>(QStringLiteral("layout"))->setFocus();
    }
    void describeAndOpen(NewBuildDialog &dialog)
    {
        auto *make = dialog.findChild<QPushButton *>(QStringLiteral("makeBuild"));
        QVERIFY(make && make->isEnabled());
        tabTo(make);
        key(make, Qt::Key_Space);
        QCOMPARE(dialog.result(), static_cast<int>(QDialog::Accepted));
        QVERIFY(document().open(dialog.build(), {}));
        m_window->activateWindow();
        m_window->showBench(Place::Engine);
        QApplication::processEvents();
        table()->setFocus();
        table()->choose(0, 0);
    }
    int m_keys = 0; ///< beyond the digits
    ValueTable *table() { return find<ValueTable>("engineTable"); }
    int rowNamed(const QString &name)
    {
        const auto &rows = table()->rows();
        for (size_t i = 0; i < rows.size(); ++i)
            if (rows[i].name == name)
                return static_cast<int>(i);
        return -1;
    }
    QString cell(const QString &row, int column)
    {
        const int r = rowNamed(row);
        return r < 0
            ? QString()
            : table()->rows()[static_cast<size_t>(r)].cells[static_cast<size_t>(column)].text;
    }
    void at(const QString &row, EngineSize column)
    {
        table()->setFocus();
        table()->choose(rowNamed(row), static_cast<int>(column));
        QApplication::processEvents();
    }
    /// As people do: a digit opens the field, the rest goes into it.
    void typeHere(const QString &text, Qt::Key end = Qt::Key_Return)
    {
        QApplication::processEvents();
        QTest::keyClick(table(), text.at(0).toLatin1());
        auto *field = table()->findChild<QuantityField *>(QStringLiteral("engineField"));
        QVERIFY(field);
        QTest::keyClicks(field, text.mid(1));
        QTest::keyClick(field, end);
        QApplication::processEvents();
    }
    double value(const char *at) { return engineValue(build(), at).value_or(-1); }
    const TorqueCard &card(const char *name)
    {
        for (const TorqueCard &c : build().torqueCards)
            if (c.name == name)
                return c;
        qFatal("no card %s", name);
    }
};

void TestEngineBench::init()
{
    open();
    QVERIFY(document().pickWorker("J. Moor"));
    m_window->showBench(Place::Engine);
    QApplication::processEvents();
}

void TestEngineBench::number_isTypedOverAndUndone()
{
    const double before = value("circuit/main_1/d_mm");
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    typeHere(QStringLiteral("59.98"));
    for (const char *main : { "circuit/main_1/d_mm", "circuit/main_5/d_mm" })
        verifyClose(value(main), 59.98, 1e-9);
    QCOMPARE(cell(QStringLiteral("Main bearings"), 0), QStringLiteral("59.98"));
    QVERIFY(table()->row() > rowNamed(QStringLiteral("Main bearings"))); // Enter goes down
    document().undoStack().undo(); // one step for all five
    verifyClose(value("circuit/main_1/d_mm"), before, 1e-9);
    verifyClose(value("circuit/main_5/d_mm"), before, 1e-9);
    QVERIFY(build().origins.empty() || originOf(build(), "circuit/main_1/d_mm") == Origin::Typical);
}

void TestEngineBench::row_isWalkedByTab()
{
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    typeHere(QStringLiteral("60.01"), Qt::Key_Tab);
    QCOMPARE(table()->column(), static_cast<int>(EngineSize::Width));
    typeHere(QStringLiteral("21.5"), Qt::Key_Tab);
    typeHere(QStringLiteral("2.1"), Qt::Key_Tab);
    verifyClose(value("circuit/main_2/d_mm"), 60.01, 1e-9);
    verifyClose(value("circuit/main_2/width_mm"), 21.5, 1e-9);
    verifyClose(value("stops/main_2/shell_wall_mm"), 2.1, 1e-9);
    // Arrows only look.
    const Build was = build();
    for (const auto key : { Qt::Key_Down, Qt::Key_Right, Qt::Key_Up, Qt::Key_Left })
        QTest::keyClick(table(), key);
    QVERIFY(build() == was);
}

void TestEngineBench::source_goesWithTheNumber()
{
    at(QStringLiteral("Big-end bearings"), EngineSize::Journal);
    QVERIFY(panelText().contains(QStringLiteral("counts as assumed")));
    choose(inPanel<QComboBox>(QStringLiteral("engine.source")), QStringLiteral("manufacturer"));
    QCOMPARE(originOf(build(), "circuit/big_end_2/d_mm"), Origin::Manufacturer);
    // The next is the manufacturer's too, until something else is chosen.
    at(QStringLiteral("Big-end bearings"), EngineSize::Width);
    typeHere(QStringLiteral("20.5"));
    QCOMPARE(originOf(build(), "circuit/big_end_2/width_mm"), Origin::Manufacturer);
    at(QStringLiteral("Big-end bearings"), EngineSize::Width);
    QTest::keyClick(table(), Qt::Key_Down, Qt::AltModifier);
    QCOMPARE(originOf(build(), "circuit/big_end_2/width_mm"), Origin::Measured);
    QCOMPARE(build().origins.at("circuit/big_end_2/width_mm").by, std::string("J. Moor"));
}

void TestEngineBench::part_thatDiffersStandsBelow()
{
    QCOMPARE(rowNamed(QStringLiteral("Main 4")), -1);
    at(QStringLiteral("Main bearings"), EngineSize::Width);
    QTest::keyClick(table(), Qt::Key_Space); // each of them
    QVERIFY(rowNamed(QStringLiteral("Main 4")) > 0);
    at(QStringLiteral("Main 4"), EngineSize::Width);
    typeHere(QStringLiteral("24"));
    verifyClose(value("circuit/main_4/width_mm"), 24, 1e-9);
    at(QStringLiteral("Main bearings"), EngineSize::Width);
    QTest::keyClick(table(), Qt::Key_Space);
    QVERIFY(rowNamed(QStringLiteral("Main 4")) > 0); // it differs
    QCOMPARE(rowNamed(QStringLiteral("Main 2")), -1);
    QVERIFY(panelText().contains(QStringLiteral("those that differ stand below")));
    at(QStringLiteral("Main bearings"), EngineSize::Width);
    QTest::keyClick(table(), Qt::Key_D, Qt::ControlModifier);
    QCOMPARE(rowNamed(QStringLiteral("Main 4")), -1);
    verifyClose(value("circuit/main_4/width_mm"), value("circuit/main_2/width_mm"), 1e-9);
}

void TestEngineBench::limits_ofOneBearing()
{
    at(QStringLiteral("Main bearings"), EngineSize::Most);
    QTest::keyClick(table(), Qt::Key_Space);
    at(QStringLiteral("Main 3"), EngineSize::Most);
    const double family = value("limits/main/max_um");
    typeHere(QString::number(family + 6));
    verifyClose(limitsFor(build(), "main", "main_3")->max_um, family + 6, 1e-9);
    verifyClose(limitsFor(build(), "main", "main_2")->max_um, family, 1e-9);
    at(QStringLiteral("Main 3"), EngineSize::Most);
    QTest::keyClick(table(), Qt::Key_Delete);
    verifyClose(limitsFor(build(), "main", "main_3")->max_um, family, 1e-9);
}

void TestEngineBench::unlikely_isAskedAbout()
{
    const double before = value("stops/main_1/shell_wall_mm");
    at(QStringLiteral("Main bearings"), EngineSize::Wall);
    typeHere(QStringLiteral("12"));
    verifyClose(value("stops/main_1/shell_wall_mm"), before, 1e-9);
    QVERIFY2(panelText().contains(QStringLiteral("not kept yet")), qPrintable(panelText()));
    clickInPanel("engine.keep");
    verifyClose(value("stops/main_1/shell_wall_mm"), 12, 1e-9);
    at(QStringLiteral("Main bearings"), EngineSize::Target);
    typeHere(QStringLiteral("300"));
    QVERIFY(panelText().contains(QStringLiteral("outside the limits")));
    at(QStringLiteral("Main bearings"), EngineSize::Feed);
    typeHere(QStringLiteral("600"));
    QVERIFY(panelText().contains(QStringLiteral("wider than the bearing")));
}

void TestEngineBench::refused_isSaidAndNothingChanges()
{
    const Build was = build();
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    typeHere(QStringLiteral("0"));
    QVERIFY(build() == was);
    QVERIFY2(plainly(panelText()).contains(QStringLiteral("That cannot be: journal diameter")),
             qPrintable(panelText()));
    // Above the most: asked about first, since the target would lie outside, and then refused.
    at(QStringLiteral("Main bearings"), EngineSize::Least);
    typeHere(QStringLiteral("400"));
    QVERIFY(panelText().contains(QStringLiteral("outside the limits")));
    clickInPanel("engine.keep");
    QVERIFY(build() == was);
    QVERIFY2(panelText().contains(QStringLiteral("above the minimum")), qPrintable(panelText()));
}

void TestEngineBench::table_isPastedAsOneStep()
{
    QGuiApplication::clipboard()->setText(
        QStringLiteral("bearing\tjournal\twidth\nMain 1\t60.001\t20.1\nMain 2\t59.999\t20.2\n"
                       "Thrust\t60.0\t27\nMain 5\t60,003\tx\n"));
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    const Build was = build();
    QTest::keyClick(table(), Qt::Key_V, Qt::ControlModifier);
    QVERIFY(build() == was); // shown first
    QVERIFY(panelText().contains(QStringLiteral("Thrust has no place here")));
    QVERIFY(panelText().contains(QStringLiteral("\"x\" is not taken")));
    QTest::keyClick(table(), Qt::Key_V, Qt::ControlModifier);
    verifyClose(value("circuit/main_1/d_mm"), 60.001, 1e-9);
    verifyClose(value("circuit/main_2/width_mm"), 20.2, 1e-9);
    verifyClose(value("circuit/main_5/d_mm"), 60.003, 1e-9);
    document().undoStack().undo();
    QVERIFY(build() == was);
}

void TestEngineBench::table_inInches()
{
    Figure::setSystem(UnitSystem::Imperial);
    Q_EMIT document().changed();
    QApplication::processEvents();
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    QGuiApplication::clipboard()->setText(QStringLiteral("2.3625\n2.3620\n"));
    QTest::keyClick(table(), Qt::Key_V, Qt::ControlModifier);
    clickInPanel("engine.paste");
    verifyClose(value("circuit/main_1/d_mm"), 2.3625 * 25.4, 1e-6);
    verifyClose(value("circuit/main_2/d_mm"), 2.3620 * 25.4, 1e-6);
}

void TestEngineBench::table_isCopied()
{
    at(QStringLiteral("Main bearings"), EngineSize::Journal);
    QTest::keyClick(table(), Qt::Key_C, Qt::ControlModifier);
    const QString text = QGuiApplication::clipboard()->text();
    QVERIFY2(text.startsWith(QStringLiteral("Main bearings\tjournal, mm\t")), qPrintable(text));
    QCOMPARE(text.count(u'\n'), 6);
    // What was copied is taken back as it was.
    const Build was = build();
    QTest::keyClick(table(), Qt::Key_V, Qt::ControlModifier);
    QTest::keyClick(table(), Qt::Key_V, Qt::ControlModifier);
    verifyClose(value("circuit/main_4/d_mm"), *engineValue(was, "circuit/main_4/d_mm"), 1e-9);
    verifyClose(value("limits/main/max_um"), *engineValue(was, "limits/main/max_um"), 1e-9);
}

void TestEngineBench::lists_holdWhatFitsNoColumn()
{
    m_window->showPage(Place::Engine, QStringLiteral("more"));
    QApplication::processEvents();
    QVERIFY(rowNamed(QStringLiteral("Pump")) >= 0);
    const int stroke = rowNamed(QStringLiteral("stroke"));
    QVERIFY(stroke > 0);
    table()->setFocus();
    table()->choose(stroke, 0);
    typeHere(QStringLiteral("88.9"));
    verifyClose(build().engine.stroke_mm, 88.9, 1e-9);
    const int length = rowNamed(QStringLiteral("pump, rotor length"));
    QVERIFY(length > 0);
    table()->choose(length, 0);
    typeHere(QStringLiteral("60")); // five times too long
    QVERIFY2(panelText().contains(QStringLiteral("the pump would move")), qPrintable(panelText()));
}

void TestEngineBench::torqueCard_isEnteredAsTheManualHasIt()
{
    clearances("torque");
    const QString before = find<QLabel>("nextBolt")->text();
    typeInPanel(QStringLiteral("card.stages"), QStringLiteral("30 N m, 60 N m, +90°"));
    QCOMPARE(card("Main caps").stages.size(), size_t(3));
    verifyClose(card("Main caps").stages[2].angle_deg, 90, 1e-12);
    typeInPanel(QStringLiteral("card.stages"), QStringLiteral("22 lb ft, 44 lb ft"));
    QCOMPARE(card("Main caps").stages.size(), size_t(2));
    QVERIFY(plainly(find<QLabel>("nextBolt")->text()).contains(QStringLiteral("22 lb ft")));
    typeInPanel(QStringLiteral("card.stages"), QStringLiteral("60 N m, 30 N m")); // refused
    QCOMPARE(card("Main caps").stages.size(), size_t(2));
    QTest::keyClick(m_window->currentBench()->findChild<TorquePage *>(), Qt::Key_Space);
    QCOMPARE(build().ticks.back().card, std::string("main_caps"));
    choose(inPanel<QComboBox>(QStringLiteral("card.uses")), QStringLiteral("once"));
    QVERIFY(card("Main caps").singleUse());
    choose(inPanel<QComboBox>(QStringLiteral("card.source")), QStringLiteral("manufacturer"));
    QCOMPARE(card("Main caps").source, std::string("manufacturer"));
}

void TestEngineBench::torqueOrder_isSetByClicking()
{
    clearances("torque");
    auto *picture = find<BoltPicture>("boltPicture");
    const std::vector<Fastener> was = card("Main caps").fasteners;
    clickInPanel("card.order");
    std::vector<int> wanted;
    for (int i = static_cast<int>(was.size()); i >= 1; --i)
        wanted.push_back(i);
    std::vector<QPointF> places;
    for (const int bolt : wanted)
        places.push_back(picture->placeOf(bolt));
    for (const QPointF &p : places)
        clickAt(picture, p);
    QCOMPARE(card("Main caps").fasteners.size(), was.size());
    QVERIFY(card("Main caps").fasteners.front() == was.back());
    QVERIFY(card("Main caps").fasteners.back() == was.front());
}

void TestEngineBench::bolts_outsideComeAfter()
{
    clearances("torque");
    clickInPanel("card.outer");
    const TorqueCard outer = build().torqueCards.back();
    QCOMPARE(outer.after, std::string("main_caps"));
    typeInPanel(QStringLiteral("card.stages"), QStringLiteral("22 N m"));
    verifyClose(build().torqueCards.back().stages.front().torque_nm(), 22, 1e-9);
    clickInPanel("card.drop");
    QVERIFY(build().torqueCards.back().id != outer.id);
}

/// An inline-six with seven mains in a light-alloy block: from nothing to its forecast.
void TestEngineBench::ownSix_isDescribedByKeyboard()
{
    NewBuildDialog dialog;
    begin(dialog);
    pick(dialog, "cylinders", "6");
    fill(dialog, "bore", "84.0");
    fill(dialog, "stroke", "89.6");
    pick(dialog, "block", "cast_aluminium");
    pick(dialog, "gear", "two_cams");
    describeAndOpen(dialog);
    row(QStringLiteral("Main bearings"),
        { "59.98", "19.5", "2.5", "3.2", "6.5", "5.5", "24", "58", "40" });
    row(QStringLiteral("Big-end bearings"), { "49.97", "19", "1.6", "5", "5", "20", "55", "38" });
    row(QStringLiteral("Cam bearings"), { "27.98", "18" });
    QVERIFY2(m_keys < 150, qPrintable(QString::number(m_keys)));
    QCOMPARE(std::ranges::count_if(build().engine.stops,
                                   [](const Stop &s) { return s.kind == StopKind::Main; }),
             std::ptrdiff_t(7));
    verifyClose(value("circuit/main_7/d_mm"), 59.98, 1e-9);
    verifyClose(value("limits/main/target_um"), 40, 1e-9);
    verifyClose(value("circuit/big_end_6/d_mm"), 49.97, 1e-9);
    verifyClose(displacement_l(build().engine), 2.979, 0.001);
    QVERIFY(document().operating().hotIdle.gauge.value_pa > 0.2e5);
}

/// A V8 whose mains hang behind the lifter gallery.
void TestEngineBench::lifterSeriesEight_isDescribedByKeyboard()
{
    NewBuildDialog dialog;
    begin(dialog);
    pick(dialog, "layout", "vee");
    pick(dialog, "cylinders", "8");
    fill(dialog, "bore", "101.6");
    fill(dialog, "stroke", "88.4");
    pick(dialog, "order", "lifters_series");
    pick(dialog, "overhead", "pushrods");
    describeAndOpen(dialog);
    row(QStringLiteral("Main bearings"),
        { "62.2", "21", "2.4", "3.4", "6", "6", "25", "65", "45" });
    row(QStringLiteral("Big-end bearings"), { "53.3", "20", "1.6", "5", "5", "25", "66", "46" });
    QVERIFY2(m_keys < 150, qPrintable(QString::number(m_keys)));
    QVERIFY(build().circuit.find("crossover"));
    verifyClose(value("circuit/main_5/d_mm"), 62.2, 1e-9);
    QVERIFY(document().operating().hotIdle.gauge.value_pa > 0.5e5);
}

} // namespace tst_enginebench

MILDPATH_TEST(tst_enginebench, TestEngineBench)
} // namespace mildpath

#include "tst_enginebench.moc"
