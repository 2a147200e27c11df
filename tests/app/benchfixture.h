// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/clearances/clearancebench.h"
#include "bench/clearances/readingspage.h"
#include "bench/pump/pumpbench.h"
#include "entry/readingentry.h"
#include "testing.h"
#include "window/window.h"

#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>

namespace mildpath {

/// A window with the demo build, and the ways a person reaches into it.
class BenchFixture
{
protected:
    void prepare()
    {
        QStandardPaths::setTestModeEnabled(true);
        freshSettings();
    }
    void open()
    {
        m_window = std::make_unique<MainWindow>(QString());
        QVERIFY(m_window->openFile(qs(demoBuildPath().string())));
        m_window->show();
        QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
        m_window->activateWindow();
    }
    /// The readings page, whatever page is shown.
    ReadingsPage &clearances(const char *page = "readings")
    {
        m_window->showBench(Place::Clearances);
        auto &bench = static_cast<ClearanceBench &>(*m_window->currentBench());
        bench.showPage(QString::fromLatin1(page));
        QApplication::processEvents();
        return bench.readings();
    }
    PumpBench &pump()
    {
        m_window->showBench(Place::Pump);
        QApplication::processEvents();
        return static_cast<PumpBench &>(*m_window->currentBench());
    }
    /// A bench by its name, at one of its pages.
    template <class Some> Some &page(const char *bench, int page)
    {
        m_window->showBench(placeOf(bench).value());
        auto &b = static_cast<Some &>(*m_window->currentBench());
        b.showPage(page);
        QApplication::processEvents();
        return b;
    }
    /// The same by the id of the page's button.
    template <class Some> Some &page(const char *bench, const char *page)
    {
        m_window->showPage(placeOf(bench).value(), QString::fromLatin1(page));
        QApplication::processEvents();
        return static_cast<Some &>(*m_window->currentBench());
    }
    template <class Widget> Widget *find(const char *name)
    {
        return m_window->currentBench()->findChild<Widget *>(QString::fromLatin1(name));
    }
    template <class Widget> Widget *inPanel(const QString &name)
    {
        QApplication::processEvents();
        return m_window->sidePanel().findChild<Widget *>(name);
    }
    void type(QuantityField *field, const QString &text)
    {
        QVERIFY(field);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        QApplication::processEvents();
    }
    void click(const char *name)
    {
        auto *b = find<QPushButton>(name);
        QVERIFY2(b && b->isVisible(), name);
        QTest::mouseClick(b, Qt::LeftButton);
        QApplication::processEvents();
    }
    void typeInPanel(const QString &name, const QString &text)
    {
        auto *field = inPanel<QLineEdit>(name);
        QVERIFY2(field, qPrintable(name));
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        QApplication::processEvents();
    }
    void clickInPanel(const char *name)
    {
        auto *b = inPanel<QPushButton>(QString::fromLatin1(name));
        QVERIFY2(b, name);
        QTest::mouseClick(b, Qt::LeftButton);
        QApplication::processEvents();
    }
    void choose(QComboBox *combo, const QString &text)
    {
        QVERIFY(combo);
        const int i = combo->findText(text);
        QVERIFY2(i >= 0, qPrintable(text));
        combo->setCurrentIndex(i);
        Q_EMIT combo->activated(i);
        QApplication::processEvents();
    }
    void clickAt(QWidget *widget, QPointF at)
    {
        QTest::mouseClick(widget, Qt::LeftButton, {}, at.toPoint());
        QApplication::processEvents();
    }
    OpenBuild &document() { return m_window->openBuild(); }
    void select(const char *stop)
    {
        document().selectStop(QString::fromLatin1(stop));
        QApplication::processEvents();
    }
    /// Words of the panel, joined.
    QString panelText()
    {
        QStringList out;
        for (const PanelItem &i : m_window->currentBench()->panel())
            std::visit(
                [&]<class T>(const T &item) {
                    if constexpr (requires { item.text; })
                        out << item.text;
                    if constexpr (requires { item.detail; })
                        out << item.detail;
                },
                i);
        return out.join(u'\n');
    }
    const PanelChange *change(const PanelContent &content, const QString &label)
    {
        for (const PanelItem &i : content)
            if (const auto *c = std::get_if<PanelChange>(&i); c && c->label == label)
                return c;
        return nullptr;
    }
    const Build &build() { return m_window->openBuild().build(); }
    const Assessment &assessment() { return m_window->openBuild().assessment(); }
    QString message(ReadingEntry &e)
    {
        return e.findChild<QLabel *>(QStringLiteral("entryMessage"))->text();
    }

    std::unique_ptr<MainWindow> m_window;
};

} // namespace mildpath
