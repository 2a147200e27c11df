// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "benchfixture.h"
#include "core/checksfixture.h"
#include "enginesim.h"

#include "bench/start/cardlist.h"
#include "bench/start/livetrace.h"
#include "bench/start/startbench.h"
#include "bench/start/startpage.h"
#include "devices/serialsender.h"
#include "shell/rail.h"

#include <QDropEvent>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenuBar>
#include <QMimeData>
#include <QTabBar>
#include <QTemporaryDir>

namespace mildpath {

/// A copy of the demo in a folder of its own, and the ways a person goes about its first start.
class StartFixture : protected BenchFixture
{
protected:
    void openDemo();
    void openAt(const QString &file);
    StartBench &start(int bench = 0) { return page<StartBench>("start", bench); }
    LiveTrace &trace() { return *find<LiveTrace>("start.trace"); }
    void step(const char *id);
    void seen(const char *id)
    {
        step(id);
        clickInPanel("card.done");
    }
    void goTo(const char *bench, int page);
    void walkTo(const char *stop);
    void listen(const QString &port)
    {
        typeInPanel(QStringLiteral("start.port"), port);
        QCOMPARE(m_window->sender().state(), SerialLine::State::Listening);
    }
    void signAll();
    void readyToStart();
    QAction *menuEntry(const QString &text);
    const CardStep *lastStep(const char *id)
    {
        const CardStep *out = nullptr;
        for (const CardStep *s : standing(build().cardSteps))
            if (s->step == id)
                out = s;
        return out;
    }

    std::unique_ptr<QTemporaryDir> m_dir;
    QString m_file;
};

inline void StartFixture::openDemo()
{
    m_dir = std::make_unique<QTemporaryDir>();
    m_file = m_dir->filePath(QStringLiteral("build.mildpath"));
    QVERIFY(QFile::copy(qs(demoBuildPath().string()), m_file));
    QFile::setPermissions(m_file, QFile::ReadOwner | QFile::WriteOwner);
    openAt(m_file);
}

inline void StartFixture::openAt(const QString &file)
{
    m_window = std::make_unique<MainWindow>(m_dir->filePath(QStringLiteral("state")));
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-wet-sump")));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
    m_window->activateWindow();
    QMimeData data;
    data.setUrls({ QUrl::fromLocalFile(file) });
    QDragEnterEvent enter(QPoint(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(m_window.get(), &enter);
    QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(m_window.get(), &drop);
    QTRY_COMPARE(document().path(), file);
}

inline void StartFixture::goTo(const char *bench, int page)
{
    const QString title = qs(placeName(placeOf(bench).value()));
    auto *tabs = m_window->findChild<QTabBar *>(QStringLiteral("benchTabs"));
    for (int i = 0; i < tabs->count(); ++i)
        if (tabs->tabText(i) == title)
            QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(i).center());
    QCOMPARE(m_window->currentBench()->title(), title);
    if (auto *button = find<QPushButton>(qPrintable(QStringLiteral("page%1").arg(page))))
        QTest::mouseClick(button, Qt::LeftButton);
    QApplication::processEvents();
}

inline void StartFixture::walkTo(const char *stop)
{
    auto *rail = m_window->findChild<Rail *>();
    rail->setFocus();
    for (const Qt::Key key : { Qt::Key_Up, Qt::Key_Down })
        for (int i = 0; i < 40 && document().selectedStop() != QLatin1String(stop); ++i)
            QTest::keyClick(rail, key);
    QCOMPARE(document().selectedStop(), QLatin1String(stop));
    QApplication::processEvents();
}

inline void StartFixture::step(const char *id)
{
    auto *list = find<CardList>("start.card");
    list->setFocus();
    for (const Qt::Key key : { Qt::Key_Up, Qt::Key_Down })
        for (int i = 0; i < 30 && list->chosen() != QLatin1String(id); ++i)
            QTest::keyClick(list, key);
    QCOMPARE(list->chosen(), QLatin1String(id));
    QApplication::processEvents();
}

/// Everything the job asks answered and signed for, as one edit: what is typed for it is tried by
/// itself.
inline void StartFixture::signAll()
{
    Build before = build();
    before.cardSteps = {};
    fixture::By by(std::move(before));
    by.as("A").says("clr", { "main_4" }).says("plugin").says("plugseen", {}, "yes", "camera");
    fixture::settleEverything(by);
    std::vector<Edit> edits;
    const auto add = [&](const auto &now, const auto &was) {
        for (size_t i = was.size(); i < now.size(); ++i)
            edits.emplace_back(AddEntry { now[i] });
    };
    add(by.build().people, build().people);
    add(by.build().checkEntries, build().checkEntries);
    add(by.build().signOffs, build().signOffs);
    QVERIFY(document().editAll(QStringLiteral("everything answered"), std::move(edits)));
    QVERIFY2(gateOf(document().judgement()).mayStart(),
             said(gateOf(document().judgement()).says()).c_str());
}

inline void StartFixture::readyToStart()
{
    start();
    signAll();
}

inline QAction *StartFixture::menuEntry(const QString &text)
{
    for (QAction *menu : m_window->menuBar()->actions())
        for (QAction *a : menu->menu()->actions())
            if (a->text() == text)
                return a;
    qFatal("no menu entry %s", qPrintable(text));
}

} // namespace mildpath
