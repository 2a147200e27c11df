// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/window.h"
#include "storage/journal.h"

#include "bench/after/afterbench.h"
#include "entry/readingentry.h"
#include "shell/newbuild.h"
#include "storage/buildfile.h"
#include "storage/evidencetables.h"
#include "storage/files.h"
#include "storage/templates.h"

#include <QActionGroup>
#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPixmap>
#include <QSettings>
#include <QStackedWidget>
#include <QTabBar>

namespace mildpath {
namespace {

constexpr int mostRecent = 8;
const QString recentKey = QStringLiteral("recentFiles");
const QString fileFilter = QStringLiteral("Builds (*.mildpath);;All files (*)");

QString failureText(const LoadFailure &failure)
{
    QStringList lines;
    for (const Error &e : failure.errors) {
        if (lines.size() == 4) {
            lines
                << MainWindow::tr("… and %1 more").arg(static_cast<int>(failure.errors.size()) - 4);
            break;
        }
        lines << qs(e.place.empty() ? e.message : e.place + ": " + e.message);
    }
    return lines.join(u'\n');
}

} // namespace

bool MainWindow::openFile(const QString &path)
{
    auto loaded = loadBuild(path.toStdString());
    if (!loaded) {
        m_messages->say(tr("%1 was not opened.\n%2")
                            .arg(QFileInfo(path).fileName(), failureText(loaded.error())));
        return false;
    }
    m_messages->hide();
    m_open->open(std::move(loaded->build), QFileInfo(path).absoluteFilePath(), loaded->olderText);
    noteRecent(m_open->path());
    if (!loaded->olderText.empty())
        m_messages->say(
            tr("This build is of an older version (%1). Saving keeps the old file as %2.bak.")
                .arg(loaded->fileVersion)
                .arg(QFileInfo(path).fileName()));
    return true;
}

bool MainWindow::openTemplate(const QString &name)
{
    auto loaded = loadTemplate(name.toStdString());
    if (!loaded) {
        m_messages->say(failureText(loaded.error()));
        return false;
    }
    m_messages->hide();
    m_open->open(std::move(loaded->build), QString());
    return true;
}

void MainWindow::openNew(Build build)
{
    m_messages->hide();
    m_open->open(std::move(build), QString());
}

bool MainWindow::saveTo(const QString &path)
{
    if (const auto ok = m_open->save(path); !ok) {
        m_messages->say(tr("Not saved. %1: %2. Your work is still here; save it elsewhere.")
                            .arg(qs(ok.error().place), qs(ok.error().message)));
        return false;
    }
    noteRecent(m_open->path());
    return true;
}

bool MainWindow::save()
{
    return m_open->path().isEmpty() ? saveAs() : saveTo(m_open->path());
}

bool MainWindow::saveAs()
{
    const QString start = m_open->path().isEmpty()
        ? QDir::homePath() + QStringLiteral("/build.mildpath")
        : m_open->path();
    QString path = QFileDialog::getSaveFileName(this, tr("Save build as"), start, fileFilter);
    if (path.isEmpty())
        return false;
    if (QFileInfo(path).suffix().isEmpty())
        path += QStringLiteral(".mildpath");
    return saveTo(path);
}

bool MainWindow::mayLeave()
{
    if (!m_open->isModified()) {
        m_open->giveUp();
        return true;
    }
    const auto answer = QMessageBox::question(
        this, tr("Unsaved work"),
        tr("%1 has edits that are in no file yet.").arg(qs(m_open->build().name)),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Cancel)
        return false;
    if (answer == QMessageBox::Save && !save())
        return false;
    m_open->giveUp();
    return true;
}

void MainWindow::offerRecovery()
{
    if (m_open->stateFolder().isEmpty())
        return;
    const auto found = findRecoveries(m_open->stateFolder().toStdString());
    if (found.empty()) {
        offerRuns();
        return;
    }
    const Recovery recovery = found.front();
    const QString where = recovery.buildPath.empty() ? tr("a build never saved")
                                                     : QFileInfo(qs(recovery.buildPath)).fileName();
    const auto forget = [journal = qs(recovery.journal.string())] { QFile::remove(journal); };
    m_messages->say(tr("The last run ended without saving: %1, %2 edits. Take it back?")
                        .arg(where)
                        .arg(recovery.edits),
                    { { tr("Take it back"),
                        [this, recovery, forget] {
                            m_open->open(recovery.recovered, qs(recovery.buildPath), {}, true);
                            forget();
                            offerRuns();
                        } },
                      { tr("Give it up"), forget } });
}

void MainWindow::noteRecent(const QString &path)
{
    QSettings settings;
    QStringList recent = settings.value(recentKey).toStringList();
    recent.removeAll(path);
    recent.prepend(path);
    settings.setValue(recentKey, recent.mid(0, mostRecent));
    updateRecent();
}

void MainWindow::updateRecent()
{
    m_recent->clear();
    const QStringList recent = QSettings().value(recentKey).toStringList();
    for (const QString &path : recent)
        m_recent
            ->addAction(QFileInfo(path).fileName(), this,
                        [this, path] {
                            if (mayLeave())
                                openFile(path);
                        })
            ->setToolTip(path);
    m_recent->setEnabled(!recent.isEmpty());
}

void MainWindow::dragEnterEvent(QDragEnterEvent *event)
{
    if (event->mimeData()->hasUrls() && event->mimeData()->urls().first().isLocalFile())
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent *event)
{
    const QString path = event->mimeData()->urls().first().toLocalFile();
    event->acceptProposedAction();
    // Tables go into the open build; anything else is a build to be opened.
    const auto text = path.endsWith(QStringLiteral(".csv")) ? readTextFile(path.toStdString())
                                                            : Result<std::string>(std::string());
    if (text && (isCutTable(*text) || isSampleTable(*text)))
        importEvidence(path);
    else if (mayLeave())
        openFile(path);
}

void MainWindow::exportPicture()
{
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save this bench as a picture"),
        QDir::homePath() + u'/' + currentBench()->title().toLower() + QStringLiteral(".png"),
        tr("Pictures (*.png)"));
    if (!path.isEmpty() && !currentBench()->grab().save(path))
        m_messages->say(tr("%1 could not be written.").arg(path));
}

void MainWindow::makeMenus()
{
    makeFileMenu();
    makeEditMenu();
    makeDevicesMenu();
    makeViewMenu();
    makeHelpMenu();
}

void MainWindow::makeFileMenu()
{
    QMenu *file = menuBar()->addMenu(tr("&File"));
    QMenu *fresh = file->addMenu(tr("&New build from"));
    for (const TemplateInfo &t : listTemplates())
        fresh->addAction(qs(t.title), this, [this, name = qs(t.name)] {
            if (mayLeave())
                openTemplate(name);
        });
    file->addAction(tr("New build, &described…"), QKeySequence::New, this, [this] {
        NewBuildDialog dialog(this);
        if (dialog.exec() == QDialog::Accepted && mayLeave())
            openNew(dialog.build());
    });
    file->addAction(tr("&Open…"), QKeySequence::Open, this, [this] {
        const QString path
            = QFileDialog::getOpenFileName(this, tr("Open build"), QDir::homePath(), fileFilter);
        if (!path.isEmpty() && mayLeave())
            openFile(path);
    });
    m_recent = file->addMenu(tr("Open &recent"));
    updateRecent();
    file->addAction(tr("Shelf of &builds"), this, [this] {
        showBench(m_after->title());
        m_after->showPage(AfterBench::Shelf);
    });
    file->addSeparator();
    file->addAction(tr("&Save"), QKeySequence::Save, this, &MainWindow::save);
    file->addAction(tr("Save &as…"), QKeySequence::SaveAs, this, &MainWindow::saveAs);
    file->addAction(tr("Re&vert to file"), this, [this] {
        if (!m_open->path().isEmpty() && mayLeave())
            openFile(m_open->path());
    });
    file->addSeparator();
    file->addAction(tr("Save &picture of this bench…"), this, &MainWindow::exportPicture);
    makeImports(file);
    file->addAction(tr("&Export readings…"), this, [this] {
        const QString path = QFileDialog::getSaveFileName(
            this, tr("Export readings"), QStringLiteral("readings.csv"), tr("Tables (*.csv)"));
        if (!path.isEmpty())
            exportReadings(path);
    });
    for (const bool letter : { false, true })
        file->addAction(
            letter ? tr("Build sheet, Letter…") : tr("&Build sheet, A4…"), this, [this, letter] {
                const QString path = QFileDialog::getSaveFileName(
                    this, tr("Build sheet"), qs(m_open->build().name) + QStringLiteral(".pdf"),
                    tr("PDF (*.pdf);;HTML (*.html)"));
                if (!path.isEmpty())
                    writeSheet(path, letter);
            });
    file->addSeparator();
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);
}

void MainWindow::makeImports(QMenu *file)
{
    const auto add = [&](const QString &text, bool (MainWindow::*import)(const QString &)) {
        file->addAction(text, this, [this, text, import] {
            QString title = text;
            const QString path = QFileDialog::getOpenFileName(
                this, title.remove(u'&').remove(u'…'), {}, tr("Tables (*.csv *.tsv *.txt *.prn)"));
            if (!path.isEmpty())
                (this->*import)(path);
        });
    };
    add(tr("&Import readings…"), &MainWindow::importReadings);
    add(tr("Import a &log of a run…"), &MainWindow::importRun);
    add(tr("Import a bore &trace…"), &MainWindow::importTrace);
    add(tr("Import filter &cuts or oil samples…"), &MainWindow::importEvidence);
}

void MainWindow::makeEditMenu()
{
    QMenu *edit = menuBar()->addMenu(tr("&Edit"));
    QAction *undo = m_open->undoStack().createUndoAction(this, tr("Undo"));
    undo->setShortcut(QKeySequence::Undo);
    undo->setObjectName(QStringLiteral("undo"));
    QAction *redo = m_open->undoStack().createRedoAction(this, tr("Redo"));
    redo->setShortcuts(
        { QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y) });
    redo->setObjectName(QStringLiteral("redo"));
    edit->addActions({ undo, redo });
    edit->addSeparator();
    QAction *copy = edit->addAction(tr("&Copy readings"), this, [this] {
        if (ReadingEntry *entry = currentBench()->findChild<ReadingEntry *>())
            QGuiApplication::clipboard()->setText(entry->copied());
    });
    copy->setObjectName(QStringLiteral("copyReadings"));
    copy->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_C));
    QAction *paste = edit->addAction(tr("&Paste readings"), this, [this] {
        pasteReadings(QGuiApplication::clipboard()->text());
    });
    paste->setObjectName(QStringLiteral("pasteReadings"));
    paste->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_V));

    QMenu *bench = menuBar()->addMenu(tr("&Bench"));
    for (size_t i = 0; i < m_benches.size(); ++i) {
        // Nine by their number, the tenth by 0; any by going on.
        const QKeySequence key = i < 9
            ? QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i))
            : i == 9 ? QKeySequence(Qt::CTRL | Qt::Key_0)
                     : QKeySequence();
        bench->addAction(m_benches[i]->title(), key, this, [this, i] {
            m_tabs->setCurrentIndex(static_cast<int>(i));
            currentBench()->takeFocus();
        });
    }
    bench->addSeparator();
    const auto step = [this](int by) {
        const int count = m_tabs->count();
        m_tabs->setCurrentIndex((m_tabs->currentIndex() + by + count) % count);
        currentBench()->takeFocus();
    };
    bench->addAction(tr("Next bench"), QKeySequence(Qt::CTRL | Qt::Key_PageDown), this,
                     [step] { step(1); });
    bench->addAction(tr("Bench before"), QKeySequence(Qt::CTRL | Qt::Key_PageUp), this,
                     [step] { step(-1); });
}

void MainWindow::makeViewMenu()
{
    QMenu *view = menuBar()->addMenu(tr("&View"));
    QAction *side = view->addAction(tr("Side &panel"));
    side->setShortcut(Qt::Key_F9);
    side->setCheckable(true);
    side->setChecked(true);
    connect(side, &QAction::toggled, this, [this](bool shown) {
        findChild<QWidget *>(QStringLiteral("panelSide"))->setVisible(shown);
    });
    const auto choices = [&](const QString &title, const std::vector<std::pair<QString, int>> &rows,
                             auto current, auto chosen) {
        QMenu *menu = view->addMenu(title);
        auto *group = new QActionGroup(menu);
        for (const auto &[name, value] : rows) {
            QAction *action = menu->addAction(name);
            action->setCheckable(true);
            group->addAction(action);
            connect(action, &QAction::triggered, this, [chosen, value = value] { chosen(value); });
            connect(menu, &QMenu::aboutToShow, action,
                    [action, current, value = value] { action->setChecked(current() == value); });
        }
    };
    view->addSeparator();
    choices(
        tr("&Theme"),
        { { tr("As the system"), static_cast<int>(ThemeChoice::System) },
          { tr("Light"), static_cast<int>(ThemeChoice::Light) },
          { tr("Dark"), static_cast<int>(ThemeChoice::Dark) } },
        [this] { return static_cast<int>(m_theme); },
        [this](int v) { setTheme(static_cast<ThemeChoice>(v)); });
    choices(
        tr("&Units"),
        { { tr("Metric"), static_cast<int>(UnitSystem::Metric) },
          { tr("Imperial"), static_cast<int>(UnitSystem::Imperial) },
          { tr("Both"), static_cast<int>(UnitSystem::Both) } },
        [] { return static_cast<int>(Figure::system()); },
        [this](int v) { setUnits(static_cast<UnitSystem>(v)); });
}

void MainWindow::makeHelpMenu()
{
    QMenu *help = menuBar()->addMenu(tr("&Help"));
    help->addAction(tr("&About Mild Path"), this, &MainWindow::showAbout);
    help->addAction(tr("About &Qt"), qApp, &QApplication::aboutQt);
}

void MainWindow::showAbout()
{
    QFile licence(QStringLiteral(":/fonts/OFL.txt"));
    const QString fonts
        = licence.open(QIODevice::ReadOnly) ? QString::fromUtf8(licence.readAll()) : QString();
    QMessageBox box(this);
    box.setWindowTitle(tr("About Mild Path"));
    box.setText(tr("Mild Path %1\nProves an engine's lubrication system during a build.")
                    .arg(QStringLiteral(MILDPATH_VERSION)));
    box.setInformativeText(
        tr("GNU General Public License, version 3 or later. Type: B612, SIL Open Font "
           "License 1.1. Plots: QCustomPlot, GPL 3. Qt, LGPL 3."));
    box.setDetailedText(fonts);
    box.exec();
}

} // namespace mildpath
