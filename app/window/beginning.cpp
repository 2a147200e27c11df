// SPDX-License-Identifier: GPL-3.0-or-later
// The first page of the window: no build is open yet.
#include "window/window.h"

#include "begin/beginpage.h"
#include "begin/firstquestions.h"
#include "begin/tiles.h"
#include "storage/templates.h"
#include "window/whoworks.h"

#include <QBoxLayout>
#include <QFile>
#include <QMenu>
#include <QSettings>
#include <QStackedWidget>

namespace mildpath {

void MainWindow::makeBegin()
{
    m_begin = new BeginPage(m_faces);
    m_faces->addWidget(m_begin);
    connect(m_begin, &BeginPage::openAsked, this, [this](const QString &path) {
        if (!m_open->path().isEmpty() && path == m_open->path())
            showBegin(false); // it is open still
        else if (mayLeave())
            openFile(path);
    });
    connect(m_begin, &BeginPage::fileAsked, this, &MainWindow::pickFile);
    connect(m_begin, &BeginPage::templateAsked, this, [this](const QString &name) {
        if (mayLeave())
            beginNew(name);
    });
    connect(m_begin, &BeginPage::describeAsked, this, &MainWindow::describe);
    connect(m_begin, &BeginPage::practiseAsked, this, [this] {
        if (mayLeave())
            openCopy(qs(demoBuildPath().string()));
    });
    connect(m_begin, &BeginPage::restoreAsked, this, [this](const Recovery &recovery) {
        if (mayLeave())
            takeBack(recovery);
    });
    connect(m_begin, &BeginPage::leaveAsked, this,
            [](const Recovery &recovery) { QFile::remove(qs(recovery.journal.string())); });
}

bool MainWindow::isBeginning() const
{
    return m_faces->currentWidget() == m_begin;
}

/// What is said stands over whichever face is shown.
void MainWindow::showBegin(bool shown)
{
    m_faces->setCurrentWidget(shown ? static_cast<QWidget *>(m_begin) : m_faces->widget(0));
    QWidget *place = shown ? m_begin : m_messagePlace;
    static_cast<QBoxLayout *>(place->layout())->insertWidget(0, m_messages);
    for (QMenu *menu : m_workMenus)
        for (QAction *action : menu->actions())
            action->setEnabled(!shown);
    m_worker->setVisible(!shown);
}

void MainWindow::begin()
{
    FoundJournals found;
    if (!m_open->stateFolder().isEmpty())
        found = findRecoveries(m_open->stateFolder().toStdString());
    showBegin(true);
    m_begin->show(QSettings().value(recentFilesKey).toStringList(), std::move(found.recoveries));
    found.recoveries.clear();
    if (!found.lost.empty())
        offerRecovery(std::move(found));
}

void MainWindow::beginNew(const QString &name)
{
    if (openTemplate(name))
        askFirst();
}

void MainWindow::askFirst()
{
    FirstQuestions questions(m_open->build(), m_worker->lastName(), this);
    if (questions.exec() != QDialog::Accepted)
        return;
    if (!questions.worker().empty())
        m_worker->pick(questions.worker());
    auto edits = questions.edits();
    if (edits.empty())
        return;
    if (const auto done = m_open->editAll(tr("the first questions"), std::move(edits)); !done)
        m_messages->say(qs(done.error()));
}

} // namespace mildpath
