// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/journal.h"
#include "window/window.h"

#include "entry/readingentry.h"
#include "storage/buildfile.h"
#include "storage/evidencetables.h"
#include "storage/files.h"
#include "storage/keptchecks.h"
#include "storage/templates.h"
#include "window/newbuild.h"

#include <QActionGroup>
#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QDateTime>
#include <QDir>
#include <QDragEnterEvent>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QLocale>
#include <QMenu>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPixmap>
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>
#include <QTabBar>

namespace mildpath {
namespace {

constexpr int mostRecent = 8;
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
        lines << qs(e);
    }
    return lines.join(u'\n');
}

} // namespace

bool MainWindow::openFile(const QString &path)
{
    return openAs(path, isShipped(path.toStdString()) ? As::Copy : As::File);
}

bool MainWindow::openReadOnly(const QString &path)
{
    return openAs(path, As::ReadOnly);
}

bool MainWindow::openCopy(const QString &path)
{
    return openAs(path, As::Copy);
}

bool MainWindow::openAs(const QString &path, As as)
{
    const QString file = QFileInfo(path).fileName(), whole = QFileInfo(path).absoluteFilePath();
    // Before it is read: what somebody writes meanwhile is then seen as changed.
    OpenedFrom from { .stamp = stampOf(path.toStdString()) };
    auto loaded = loadBuild(path.toStdString());
    if (!loaded) {
        m_messages->say(tr("%1 was not opened.\n%2").arg(file, failureText(loaded.error())));
        return false;
    }
    (as == As::Copy ? from.origin : from.path) = whole;
    from.readOnly = as == As::ReadOnly;
    from.olderText = as == As::Copy ? std::string() : loaded->olderText;
    // Reverting, the window holds the lock already.
    const bool held = as == As::File && whole == m_open->path() && !m_open->isReadOnly();
    if (as == As::File && !held && !(from.lock = OpenBuild::lockOf(whole))) {
        m_messages->say(tr("%1 is open in another window or program.").arg(file),
                        { { tr("Open read-only"),
                            [this, path] {
                                if (mayLeave())
                                    openReadOnly(path);
                            } },
                          { tr("Open a copy"), [this, path] {
                               if (mayLeave())
                                   openCopy(path);
                           } } });
        return false;
    }
    if (!stand(std::move(loaded->build), std::move(from)))
        return false;
    noteRecent(whole);
    QStringList said;
    if (as == As::ReadOnly)
        said << tr("%1 is open read-only: changes are saved under another name.").arg(file);
    else if (as == As::File && !loaded->olderText.empty())
        said << tr("This build is of an older version (%1). Saving keeps the old file as %2.bak.")
                    .arg(loaded->fileVersion)
                    .arg(file);
    if (const auto &two = m_open->build().twoValues; !two.empty())
        said << tr("Written twice in this file, differently: %1. Say which is right under "
                   "First start, Checks, open questions.")
                    .arg(qs(twoValuesText(m_open->build(), two.front())));
    if (!said.isEmpty())
        m_messages->say(said.join(u'\n'));
    return true;
}

/// Puts a build in place of the open one. @return false: it cannot be assessed, which is said
bool MainWindow::stand(Build build, OpenedFrom from)
{
    const QString name = from.path.isEmpty() ? qs(build.name) : QFileInfo(from.path).fileName();
    m_messages->hide();
    if (const auto ok = m_open->open(std::move(build), std::move(from)); !ok) {
        m_messages->say(tr("%1 was not opened: %2.").arg(name, qs(ok.error().message)));
        return false;
    }
    showBegin(false);
    return true;
}

bool MainWindow::openTemplate(const QString &name)
{
    auto loaded = loadTemplate(name.toStdString());
    if (!loaded) {
        m_messages->say(failureText(loaded.error()));
        return false;
    }
    const auto own = takeKeptChecks(loaded->build);
    if (!stand(std::move(loaded->build), {}))
        return false;
    if (!own)
        m_messages->say(tr("Your own checks could not be read: %1: %2.")
                            .arg(qs(own.error().place), qs(own.error().message)));
    else if (*own > 0)
        m_messages->say(
            tr("%1 of your own, kept with this template, %2 in the list.")
                .arg(counted(*own, tr("check"), tr("checks")), *own == 1 ? tr("is") : tr("are")));
    return true;
}

void MainWindow::openNew(Build build)
{
    stand(std::move(build), {});
}

bool MainWindow::saveTo(const QString &path)
{
    if (path == m_open->path() && m_open->isChangedOutside()) {
        QMessageBox box(
            QMessageBox::Warning, tr("Changed outside"),
            tr("%1 was written to by somebody else since it was opened. Saving replaces "
               "what they wrote.")
                .arg(QFileInfo(path).fileName()),
            QMessageBox::Cancel, this);
        QPushButton *over = box.addButton(tr("Save anyway"), QMessageBox::DestructiveRole);
        QPushButton *other = box.addButton(tr("Save as…"), QMessageBox::AcceptRole);
        box.setDefaultButton(QMessageBox::Cancel);
        box.exec();
        if (box.clickedButton() == other)
            return saveAs();
        if (box.clickedButton() != over)
            return false;
    }
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
    return m_open->path().isEmpty() || m_open->isReadOnly() ? saveAs() : saveTo(m_open->path());
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
    if (!m_open->isModified())
        return true;
    const auto answer = QMessageBox::question(
        this, tr("Unsaved work"),
        tr("%1 has edits that are in no file yet.").arg(qs(m_open->build().name)),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    return answer == QMessageBox::Discard || (answer == QMessageBox::Save && save());
}

void MainWindow::revert()
{
    const QString file = QFileInfo(m_open->path()).fileName();
    if (m_open->path().isEmpty())
        return;
    const auto answer = QMessageBox::question(
        this, tr("Revert to file"),
        tr("Give up every change since %1 was saved? They cannot be taken back.").arg(file),
        QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Cancel);
    if (answer == QMessageBox::Discard)
        openAs(m_open->path(), m_open->isReadOnly() ? As::ReadOnly : As::File);
}

void MainWindow::offerRecovery()
{
    if (m_open->stateFolder().isEmpty())
        return;
    offerRecovery(findRecoveries(m_open->stateFolder().toStdString()));
}

/// One at a time, newest first; then journals nothing can be taken from; then logs.
void MainWindow::offerRecovery(FoundJournals found)
{
    const auto when = [](const std::string &at) {
        return QLocale(QLocale::English)
            .toString(QDateTime::fromString(qs(at), Qt::ISODate),
                      QStringLiteral("d MMM yyyy, HH:mm"));
    };
    const auto next = [this](FoundJournals rest) {
        return [this, rest = std::move(rest)] { offerRecovery(rest); };
    };
    const auto forget
        = [](const std::filesystem::path &journal) { QFile::remove(qs(journal.string())); };
    if (!found.recoveries.empty()) {
        const Recovery first = std::move(found.recoveries.front());
        found.recoveries.erase(found.recoveries.begin());
        const QString where = first.buildPath.empty()
            ? tr("%1 (never saved)").arg(qs(first.recovered.name))
            : QFileInfo(qs(first.buildPath)).fileName();
        QString text = tr("The last run ended without saving: %1, %2, the last on %3.")
                           .arg(where)
                           .arg(counted(first.edits.size(), tr("edit"), tr("edits")))
                           .arg(when(first.at));
        if (first.file == Recovery::File::Changed)
            text += tr(" The file was saved since then: this opens as a copy beside it.");
        if (first.file == Recovery::File::Missing)
            text += tr(" Its file cannot be read any more: this opens as a new build.");
        if (first.unreadable > 0)
            text += tr(" Damaged entries left out: %1.").arg(first.unreadable);
        const auto rest = next(std::move(found));
        m_messages->say(text + tr(" Take it back?"),
                        { { tr("Take it back"),
                            [this, first, rest] {
                                if (mayLeave())
                                    takeBack(first);
                                rest();
                            } },
                          { tr("Give it up"), [first, rest, forget] {
                               forget(first.journal);
                               rest();
                           } } });
        return;
    }
    if (!found.lost.empty()) {
        const LostJournal first = std::move(found.lost.front());
        found.lost.erase(found.lost.begin());
        const auto rest = next(std::move(found));
        m_messages->say(tr("Unsaved work of %1 cannot be read: %2. It is kept as %3.")
                            .arg(when(first.at), qs(first.reason), qs(first.journal.string())),
                        { { tr("Keep it"), rest }, { tr("Delete it"), [first, rest, forget] {
                                                        forget(first.journal);
                                                        rest();
                                                    } } });
        return;
    }
    for (Bench *bench : m_benches)
        bench->offerLeftOvers();
}

/// The recovered work becomes the open build. It goes to its own file only where that still is what
/// the edits began with; what was saved since is never written over.
void MainWindow::takeBack(const Recovery &recovery)
{
    const QString path = qs(recovery.buildPath);
    for (size_t edits = recovery.edits.size() + 1; edits-- > 0;) {
        OpenedFrom from { .unsaved = true };
        from.origin = path;
        if (recovery.file == Recovery::File::Same)
            if (auto lock = OpenBuild::lockOf(path)) {
                from.path = path;
                from.stamp = stampOf(recovery.buildPath);
                from.lock = std::move(lock);
            }
        Build build
            = edits == recovery.edits.size() ? recovery.recovered : recoveredUpTo(recovery, edits);
        if (!stand(std::move(build), std::move(from)))
            continue; // the last edit cannot be assessed: those before it can
        // The new journal holds it; without one, the old one stays the only copy.
        if (m_open->isJournalled())
            QFile::remove(qs(recovery.journal.string()));
        if (edits < recovery.edits.size())
            m_messages->say(tr("Edits that cannot be assessed were left out: %1.")
                                .arg(recovery.edits.size() - edits));
        return;
    }
}

void MainWindow::pickFile()
{
    const QString path
        = QFileDialog::getOpenFileName(this, tr("Open build"), QDir::homePath(), fileFilter);
    if (!path.isEmpty() && mayLeave())
        openFile(path);
}

void MainWindow::describe()
{
    NewBuildDialog dialog(this);
    if (dialog.exec() != QDialog::Accepted || !mayLeave())
        return;
    openNew(dialog.build());
    askFirst();
    showBench(Place::Engine); // its sizes are a beginning
}

void MainWindow::noteRecent(const QString &path)
{
    QSettings settings;
    QStringList recent = settings.value(recentFilesKey).toStringList();
    recent.removeAll(path);
    recent.prepend(path);
    settings.setValue(recentFilesKey, recent.mid(0, mostRecent));
    updateRecent();
}

void MainWindow::updateRecent()
{
    m_recent->clear();
    const QStringList recent = QSettings().value(recentFilesKey).toStringList();
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
    if ((isBeginning() || !importDropped(path)) && mayLeave())
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
                beginNew(name);
        });
    file->addAction(tr("New build, &described…"), QKeySequence::New, this, &MainWindow::describe);
    file->addAction(tr("&Open…"), QKeySequence::Open, this, &MainWindow::pickFile);
    file->addAction(tr("S&tart page"), this, &MainWindow::begin);
    m_recent = file->addMenu(tr("Open &recent"));
    updateRecent();
    file->addAction(tr("Compare &builds"), this,
                    [this] { showPage(Place::After, QStringLiteral("shelf")); });
    file->addSeparator();
    file->addAction(tr("&Save"), QKeySequence::Save, this, &MainWindow::save);
    file->addAction(tr("Save &as…"), QKeySequence::SaveAs, this, &MainWindow::saveAs);
    m_revert = file->addAction(tr("Re&vert to file…"), this, &MainWindow::revert);
    connect(file, &QMenu::aboutToShow, this,
            [this] { m_revert->setEnabled(!m_open->path().isEmpty()); });
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
    const auto add = [&](const QString &text, const QString &filter,
                         std::function<void(const QString &)> take) {
        file->addAction(text, this, [this, text, filter, take = std::move(take)] {
            QString title = text;
            const QString path
                = QFileDialog::getOpenFileName(this, title.remove(u'&').remove(u'…'), {}, filter);
            if (!path.isEmpty())
                take(path);
        });
    };
    add(tr("&Import readings…"), tr("Tables (*.csv *.tsv *.txt *.prn)"),
        [this](const QString &path) { importReadings(path); });
    for (Bench *bench : m_benches)
        for (const Import &import : bench->imports())
            add(import.text, import.filter,
                [this, bench, import](const QString &path) { takeIn(*bench, import, path); });
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
    m_workMenus.push_back(bench);
    int numbered = 0;
    for (size_t i = 0; i < m_benches.size(); ++i) {
        // Work beside what is next (F8), the engine by its letter; nine of the others by their
        // number, the tenth by 0.
        const Place place = m_benches[i]->place();
        const bool named = place == Place::Work || place == Place::Engine;
        const int n = named ? 0 : ++numbered;
        const QKeySequence key = place == Place::Work ? QKeySequence(Qt::Key_F7)
            : place == Place::Engine                  ? QKeySequence(Qt::CTRL | Qt::Key_E)
            : n <= 10 ? QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_0 + n % 10))
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
    bench->addAction(tr("What to do next, and back"), QKeySequence(Qt::Key_F8), this,
                     &MainWindow::goNext);
    bench->addSeparator();
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
