// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/openbuild.h"
#include "paint/figure.h"
#include "shell/bench.h"
#include "shell/panel.h"
#include "testing.h"
#include "window/window.h"

#include <QComboBox>
#include <QLineEdit>
#include <QSettings>
#include <QStandardPaths>
#include <QUndoStack>

// Every field, choice, word and tick of every side panel, at every stop: what is entered is in the
// document and shown, one undo takes it back, and what cannot be is refused in words and changes
// nothing.

using namespace mildpath;

namespace tst_panelfields {

class TestPanelFields : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void fields_storeAndUndo_data() { places(); }
    void fields_storeAndUndo();
    void fields_refuseNonsense_data() { places(); }
    void fields_refuseNonsense();
    void choices_storeAndUndo_data() { places(); }
    void choices_storeAndUndo();
    void words_storeAndUndo_data() { places(); }
    void words_storeAndUndo();
    void ids_areUniqueInAPanel_data() { places(); }
    void ids_areUniqueInAPanel();
    void typedFields_reachTheDocument();
    void typedNonsense_isSaidBelowTheField();

private:
    void places()
    {
        QTest::addColumn<int>("bench");
        QTest::addColumn<int>("page");
        for (size_t b = 0; b < m_window->benches().size(); ++b) {
            const QStringList names = m_window->benches()[b]->pages();
            for (int p = 0; p < std::max<int>(1, static_cast<int>(names.size())); ++p)
                QTest::addRow("%s, %s", qPrintable(m_window->benches()[b]->title()),
                              qPrintable(names.value(p, QStringLiteral("alone"))))
                    << static_cast<int>(b) << p;
        }
    }
    /// One panel of each kind of stop the page speaks of.
    template <class Item> std::vector<std::pair<std::string, QString>> items()
    {
        QFETCH(int, bench);
        QFETCH(int, page);
        Bench &b = *m_window->benches()[static_cast<size_t>(bench)];
        m_window->showBench(b.place());
        b.showPage(page);
        std::vector<std::pair<std::string, QString>> out;
        std::set<QString> seen;
        std::set<StopKind> kinds;
        for (const Stop &s : open().build().engine.stops) {
            if (!kinds.insert(s.kind).second)
                continue;
            open().selectStop(qs(s.id));
            b.refresh();
            for (const PanelItem &i : b.panel())
                if (const auto *item = std::get_if<Item>(&i))
                    if (seen.insert(item->id + qs(wordOf(s.kind))).second)
                        out.emplace_back(s.id, item->id);
        }
        // A handful of each page, spread over its stops: an edit assesses the whole engine.
        std::vector<std::pair<std::string, QString>> some;
        for (size_t i = 0; i < out.size(); i += 1 + out.size() / 6)
            some.push_back(out[i]);
        return some;
    }
    /// The item again, as it is now: panels are made anew with every change.
    template <class Item> std::optional<Item> again(const std::string &stop, const QString &id)
    {
        open().selectStop(qs(stop));
        m_window->currentBench()->refresh();
        for (const PanelItem &i : m_window->currentBench()->panel())
            if (const auto *item = std::get_if<Item>(&i); item && item->id == id)
                return *item;
        return std::nullopt;
    }
    void undoAll(int to)
    {
        while (open().undoStack().index() > to)
            open().undoStack().undo();
    }
    OpenBuild &open() { return m_window->openBuild(); }

    std::unique_ptr<MainWindow> m_window;
};

void TestPanelFields::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
    freshSettings();
    Figure::setSystem(UnitSystem::Metric);
    m_window = std::make_unique<MainWindow>(QString());
    m_window->resize(1280, 800);
    QVERIFY(m_window->openCopy(qs(demoBuildPath().string())));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
}

void TestPanelFields::fields_storeAndUndo()
{
    for (const auto &[stop, id] : items<PanelField>()) {
        const auto field = again<PanelField>(stop, id);
        if (!field)
            continue;
        const int at = open().undoStack().index();
        const Build before = open().build();
        const double old = field->value_si.value_or(0);
        const double wanted = old == 0 ? 1e-3 : old * 1.02;
        const auto ok = field->store(wanted);
        if (!ok) { // past what there can be, and said
            QVERIFY2(!ok.error().message.empty(), qPrintable(id));
            QVERIFY2(open().build() == before, qPrintable(id));
            continue;
        }
        const auto now = again<PanelField>(stop, id);
        // What is stored keeps the digits of a file; some fields do something with the number and
        // are empty again.
        if (old != 0 && now && now->value_si && open().undoStack().index() > at)
            verifyClose(*now->value_si, wanted, 0.02, 1e-4, id);
        QVERIFY2(open().undoStack().index() <= at + 1, qPrintable(id)); // one step, or none
        undoAll(at);
        QVERIFY2(open().build() == before, qPrintable(id));
    }
}

void TestPanelFields::fields_refuseNonsense()
{
    for (const auto &[stop, id] : items<PanelField>()) {
        const auto field = again<PanelField>(stop, id);
        if (!field)
            continue;
        const int at = open().undoStack().index();
        const Build before = open().build();
        for (const double nonsense : { 1e12, std::nan("") }) {
            const auto ok = field->store(nonsense);
            if (ok && open().undoStack().index() == at)
                continue; // asked about something that is not the document's
            QVERIFY2(!ok, qPrintable(id + QStringLiteral(" took %1").arg(nonsense)));
            QVERIFY2(!ok.error().message.empty(), qPrintable(id));
            QVERIFY2(open().build() == before, qPrintable(id));
        }
        undoAll(at);
    }
}

void TestPanelFields::choices_storeAndUndo()
{
    for (const auto &[stop, id] : items<PanelChoice>()) {
        const auto choice = again<PanelChoice>(stop, id);
        if (!choice)
            continue;
        QVERIFY2(choice->current >= -1 && choice->current < choice->options.size(), qPrintable(id));
        const int at = open().undoStack().index();
        const Build before = open().build();
        const int to = choice->options.size() > 1
            ? (choice->current + 1) % static_cast<int>(choice->options.size())
            : 0;
        if (choice->options.isEmpty())
            continue;
        const auto ok = choice->chosen(to);
        if (!ok) {
            QVERIFY2(!ok.error().message.empty(), qPrintable(id));
            QVERIFY2(open().build() == before, qPrintable(id));
        } else if (open().undoStack().index() > at) {
            if (const auto now = again<PanelChoice>(stop, id);
                now && now->options == choice->options)
                QVERIFY2(now->current == to || now->current == choice->current, qPrintable(id));
        }
        undoAll(at);
        QVERIFY2(open().build() == before, qPrintable(id));
    }
}

void TestPanelFields::words_storeAndUndo()
{
    for (const auto &[stop, id] : items<PanelWord>()) {
        const auto word = again<PanelWord>(stop, id);
        if (!word)
            continue;
        const int at = open().undoStack().index();
        const Build before = open().build();
        const auto ok = word->store(QStringLiteral("A word typed here"));
        if (!ok)
            QVERIFY2(!ok.error().message.empty(), qPrintable(id));
        undoAll(at);
        QVERIFY2(open().build() == before, qPrintable(id));
        // Nothing typed where something must stand is refused or taken, never a crash.
        static_cast<void>(word->store(QString()));
        undoAll(at);
        QVERIFY2(open().build() == before, qPrintable(id));
    }
}

void TestPanelFields::ids_areUniqueInAPanel()
{
    QFETCH(int, bench);
    QFETCH(int, page);
    Bench &b = *m_window->benches()[static_cast<size_t>(bench)];
    m_window->showBench(b.place());
    b.showPage(page);
    for (const Stop &s : open().build().engine.stops) {
        open().selectStop(qs(s.id));
        b.refresh();
        std::set<QString> seen;
        for (const PanelItem &i : b.panel())
            std::visit(
                [&]<class T>(const T &item) {
                    if constexpr (requires { item.id; })
                        QVERIFY2(seen.insert(item.id).second, qPrintable(item.id));
                    if constexpr (requires {
                                      item.id;
                                      item.label;
                                  })
                        QVERIFY2(!item.label.isEmpty(), qPrintable(item.id));
                },
                i);
    }
}

void TestPanelFields::typedFields_reachTheDocument()
{
    m_window->showBench(Place::Forecast);
    m_window->currentBench()->showPage(0);
    QApplication::processEvents();
    auto *field = m_window->sidePanel().findChild<QLineEdit *>(QStringLiteral("use.hot_idle_rpm"));
    QVERIFY(field);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("870"));
    QTest::keyClick(field, Qt::Key_Return);
    QApplication::processEvents();
    QCOMPARE(open().build().use.hotIdle_rpm, 870.0);
    open().undoStack().undo();
    QApplication::processEvents();
    QCOMPARE(open().build().use.hotIdle_rpm, 800.0);
}

void TestPanelFields::typedNonsense_isSaidBelowTheField()
{
    m_window->showBench(Place::Forecast);
    m_window->currentBench()->showPage(0);
    QApplication::processEvents();
    auto *field = m_window->sidePanel().findChild<QLineEdit *>(QStringLiteral("use.hot_idle_rpm"));
    QVERIFY(field);
    const Build before = open().build();
    for (const QString &text : { QStringLiteral("fast"), QStringLiteral("90000"),
                                 QStringLiteral("12 bar"), QStringLiteral("-5") }) {
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        QApplication::processEvents();
        QVERIFY2(open().build() == before, qPrintable(text));
    }
    field->setText(QStringLiteral("800"));
}

} // namespace tst_panelfields

MILDPATH_TEST(tst_panelfields, TestPanelFields)
#include "tst_panelfields.moc"
