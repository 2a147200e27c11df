// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "benchfixture.h"
#include "entry/quantityfield.h"

#include <QLineEdit>

namespace mildpath {

/// A window with the engine that ran a season.
class HistoryFixture : public BenchFixture
{
protected:
    static std::filesystem::path historyPath()
    {
        return demoBuildPath().parent_path() / "harbour-fire-pump-history.mildpath";
    }
    void openHistory()
    {
        open();
        QVERIFY(m_window->openFile(qs(historyPath().string())));
    }
    /// Types into a field of an entry form and goes on with Enter.
    void enter(const char *name, const char *text)
    {
        auto *field = find<QLineEdit>(name);
        QVERIFY2(field && field->isVisible(), name);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, QString::fromUtf8(text));
        QTest::keyClick(field, Qt::Key_Return);
        QApplication::processEvents();
    }
    QString said(const char *name)
    {
        auto *label = find<QLabel>(name);
        return label && label->isVisible() ? label->text() : QString();
    }
    void writeWord(const char *name, const char *text)
    {
        auto *field = inPanel<QLineEdit>(QString::fromLatin1(name));
        QVERIFY2(field, name);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, QString::fromUtf8(text));
        QTest::keyClick(field, Qt::Key_Return);
        QApplication::processEvents();
    }
};

} // namespace mildpath
