// SPDX-License-Identifier: GPL-3.0-or-later
// The bench Bore finish: a trace read from a file, its figures, more strokes, ring seal.
#include "bench/finish/finishbench.h"
#include "bench/finish/finishpage.h"
#include "bench/finish/sealpage.h"
#include "bench/finish/traceimport.h"
#include "historyfixture.h"
#include "storage/tracefile.h"

#include <QSlider>
#include <QTemporaryDir>

using namespace mildpath;

namespace tst_finishbench {

class TestFinishBench : public QObject, HistoryFixture
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase() { prepare(); }
    void init() { openHistory(); }
    void cleanup() { m_window.reset(); }
    void traces_areReadAndTheirFiguresAreTheCores();
    void strokes_sayWhatTheValleysStillHold();
    void traceFile_isTakenWithItsUnits();
    void traceFile_withAGapIsRefusedWithItsLine();
    void oneTrace_isSaidToBeWeak();
    void filter_changesTheFigures();
    void schools_standSideBySide();
    void rpq_goesToTheRings();
    void seal_isTypedAndCompared();
    void trace_isTakenBackAndUndone();

private:
    FinishBench &bench(const char *at = "traces")
    {
        FinishBench &b = page<FinishBench>("bore_finish", at);
        if (b.currentPage() == &b.trace())
            [&] { QTRY_VERIFY(!b.trace().busy()); }();
        return b;
    }
    const Build &build() { return document().build(); }
};

void TestFinishBench::traces_areReadAndTheirFiguresAreTheCores()
{
    FinishPage &page = bench().trace();
    QVERIFY(page.scene().trace && page.scene().other);
    const BoreTrace &first = build().boreTraces.front();
    const ReadTrace want = readTrace(first, 0.8, ProfileFilter::TwoStep);
    verifyClose(page.scene().trace->core.rk_um, want.trace->core.rk_um, 1e-12);
    QCOMPARE(find<QComboBox>("finish.traces")->count(),
             static_cast<int>(build().boreTraces.size()));
    QVERIFY(panelText().contains(u"Bore 1"));
    QVERIFY(page.scene().fit.twoProcess);
}

void TestFinishBench::strokes_sayWhatTheValleysStillHold()
{
    FinishPage &page = bench().trace();
    const double whole = page.scene().trace->core.vo_um3_um2;
    auto *slider = find<QSlider>("finish.strokes");
    slider->setFocus();
    QVERIFY(said("finish.left").contains(u"as traced"));
    QTest::keyClick(slider, Qt::Key_PageUp);
    QVERIFY(page.scene().stroked);
    QVERIFY(said("finish.left").contains(u"is plateau"));
    verifyClose(page.scene().stroked->cut.valleyLeft_um3_um2, whole, 1e-9);
    slider->setValue(slider->maximum() - 30);
    QVERIFY(page.scene().stroked->cut.valleyLeft_um3_um2 < whole);
    // The measured trace is as it was.
    QVERIFY(!document().isModified());
    slider->setValue(0);
    QVERIFY(!page.scene().stroked);
}

void TestFinishBench::traceFile_isTakenWithItsUnits()
{
    bench();
    QTemporaryDir dir;
    const BoreTrace &model = build().boreTraces.front();
    QString text = QStringLiteral("x [um]\tz [nm]\n");
    const auto z = model.z.um();
    for (size_t i = 0; i < z.size(); ++i)
        text += QStringLiteral("%1\t%2\n")
                    .arg(static_cast<double>(i) * model.spacing_um)
                    .arg(1000 * z[i], 0, 'f', 3);
    const QString path = dir.filePath(QStringLiteral("bore3.txt"));
    QVERIFY(writeTextFile(path.toStdString(), text.toStdString()));
    QVERIFY(m_window->importFile(QStringLiteral("trace"), path));
    QCOMPARE(find<QComboBox>("trace.x")->currentText(), QStringLiteral("µm"));
    QCOMPARE(find<QComboBox>("trace.z")->currentText(), QStringLiteral("nm"));
    QVERIFY(said("trace.said").contains(u"2 801 heights")
            || said("trace.said").contains(u"mm long"));
    choose(find<QComboBox>("trace.bore"), QStringLiteral("bore 3"));
    choose(find<QComboBox>("trace.phase"), QStringLiteral("after finishing strokes"));
    enter("trace.place", "bottom of travel");
    click("trace.take");
    const BoreTrace &taken = build().boreTraces.back();
    QCOMPARE(taken.bore, 3);
    QCOMPARE(taken.phase, std::string("after"));
    QCOMPARE(taken.place, std::string("bottom of travel"));
    QCOMPARE(taken.source, std::string("bore3.txt"));
    verifyClose(taken.spacing_um, model.spacing_um, 1e-9);
    verifyClose(taken.z.um()[7], z[7], 1e-6, 1e-9);
    FinishBench &b = bench();
    QVERIFY(b.trace().scene().trace);
    QVERIFY(panelText().contains(u"Bore 3"));
}

void TestFinishBench::traceFile_withAGapIsRefusedWithItsLine()
{
    bench();
    QTemporaryDir dir;
    QString text;
    for (int i = 0; i < 3000; ++i)
        text += i == 99 ? QStringLiteral("scratch\n") : QStringLiteral("0.%1\n").arg(i % 7);
    const QString path = dir.filePath(QStringLiteral("single.txt"));
    QVERIFY(writeTextFile(path.toStdString(), text.toStdString()));
    QVERIFY(m_window->importFile(QStringLiteral("trace"), path));
    QVERIFY(find<QLineEdit>("trace.spacing")->isVisible()); // one column: the step is asked for
    QVERIFY(said("trace.said").contains(u"line 100"));
    QVERIFY(!find<QPushButton>("trace.take")->isEnabled());
    const size_t before = build().boreTraces.size();
    click("trace.leave");
    QCOMPARE(build().boreTraces.size(), before);
}

void TestFinishBench::oneTrace_isSaidToBeWeak()
{
    bench();
    auto *traces = find<QComboBox>("finish.traces");
    QVERIFY(!panelText().contains(u"weak evidence"));
    choose(traces, traces->itemText(traces->count() - 1)); // bore 2 has one
    QVERIFY(panelText().contains(u"weak evidence"));
}

void TestFinishBench::filter_changesTheFigures()
{
    FinishPage &page = bench().trace();
    const double twoStep = page.scene().trace->core.rk_um;
    choose(find<QComboBox>("finish.filter"), QStringLiteral("Gaussian filter"));
    QTRY_VERIFY(!page.busy());
    QVERIFY(page.scene().trace->core.rk_um != twoStep);
    type(inPanel<QuantityField>(QStringLiteral("finish.cutoff_mm")), QStringLiteral("2.6"));
    QTRY_VERIFY(!page.busy());
    QVERIFY(said("finish.said").contains(u"sampling length")); // 5.6 mm hold one of 2.6
    type(inPanel<QuantityField>(QStringLiteral("finish.cutoff_mm")), QStringLiteral("4"));
    QTRY_VERIFY(!page.busy());
    QVERIFY(said("finish.said").contains(u"shorter than two cut-offs"));
    QVERIFY(!page.scene().trace);
}

void TestFinishBench::schools_standSideBySide()
{
    bench();
    QVERIFY(panelText().contains(u"doubling school"));
    QVERIFY(panelText().contains(u"smooth school"));
    auto *factor = inPanel<QuantityField>(QStringLiteral("finish.methanol_factor"));
    type(factor, QStringLiteral("1.5")); // offered, not imposed
    verifyClose(valleyTarget(build())->doubled, 1.5 * valleyTarget(build())->petrol, 1e-12);
    auto *school = inPanel<QComboBox>(QStringLiteral("finish.school"));
    QVERIFY(school);
    choose(school, QStringLiteral("more valley for the fuel"));
    QCOMPARE(choiceOf(build(), "rough_valleys"), std::string("more"));
}

void TestFinishBench::rpq_goesToTheRings()
{
    bench();
    QVERIFY(!ownValue(build().finish.values, "bore_rpq_um"));
    clickInPanel("finish.useRpq");
    const auto taken = ownValue(build().finish.values, "bore_rpq_um");
    QVERIFY(taken && *taken > 0.05 && *taken < 0.5);
    document().undoStack().undo();
    QVERIFY(!ownValue(build().finish.values, "bore_rpq_um"));
}

void TestFinishBench::seal_isTypedAndCompared()
{
    bench("ring_seal");
    QVERIFY(panelText().contains(u"seals better"));
    choose(find<QComboBox>("seal.kind"), QStringLiteral("crankcase vacuum"));
    QVERIFY(!find<QLineEdit>("seal.gas_temp_c")->isVisible());
    for (const auto &[phase, kpa] : { std::pair("before", "20"), { "after", "26" } }) {
        choose(find<QComboBox>("seal.phase"), QString::fromLatin1(phase));
        enter("seal.rpm", "6000");
        enter("seal.vacuum_kpa", kpa);
        enter("seal.pump_rpm", "4000");
        click("seal.record");
        QCOMPARE(said("seal.refusal"), QString());
    }
    QVERIFY(find<SealView>("sealView")->accessibleDescription().contains(u"20.0 kPa → 26.0 kPa"));
    QVERIFY(panelText().contains(u"vacuum cannot tell which"));
    click("seal.record");
    QVERIFY(said("seal.refusal").contains(u"speed"));
    const size_t before = standing(build().sealChecks).size();
    clickInPanel("seal.takeBack");
    QCOMPARE(standing(build().sealChecks).size(), before - 1);
}

void TestFinishBench::trace_isTakenBackAndUndone()
{
    FinishPage &page = bench().trace();
    const size_t before = standing(build().boreTraces).size();
    clickInPanel("finish.takeBack");
    QTRY_VERIFY(!page.busy());
    QCOMPARE(standing(build().boreTraces).size(), before - 1);
    QCOMPARE(find<QComboBox>("finish.traces")->count(), static_cast<int>(before) - 1);
    document().undoStack().undo();
    QTRY_VERIFY(!page.busy());
    QCOMPARE(find<QComboBox>("finish.traces")->count(), static_cast<int>(before));
}

} // namespace tst_finishbench

MILDPATH_TEST(tst_finishbench, TestFinishBench)
#include "tst_finishbench.moc"
