// SPDX-License-Identifier: GPL-3.0-or-later
// Nothing typed is lost, whatever goes wrong with files: failed openings, two windows, read-only
// files, a full disk, a killed process at each of them.
#include "benchfixture.h"
#include "checks/assessment.h"

#include "document/edit.h"
#include "document/logbook.h"
#include "entry/refusal.h"
#include "storage/journal.h"

#include <QFileInfo>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QProcess>
#include <QTemporaryDir>
#include <QTimer>

#include <csignal>
#include <fstream>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace mildpath;

namespace tst_files {

namespace {

/// Presses a button of the next question, found by its text or role.
void answer(QMessageBox::StandardButton button)
{
    QTimer::singleShot(0, [button] {
        auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget());
        QVERIFY(box);
        QVERIFY(box->button(button));
        box->button(button)->click();
    });
}
void answer(const QString &text)
{
    QTimer::singleShot(0, [text] {
        auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget());
        QVERIFY(box);
        for (QAbstractButton *b : box->buttons())
            if (b->text() == text)
                return b->click();
        box->reject();
        QFAIL(qPrintable(text));
    });
}

std::string textAt(const QString &path)
{
    return readTextFile(path.toStdString()).value();
}

} // namespace

class TestFiles : public QObject
{
    Q_OBJECT
private Q_SLOTS:
    void initTestCase();
    void init();
    void cleanup();
    void failedOpening_keepsJournalAndEdits_data();
    void failedOpening_keepsJournalAndEdits();
    void revert_asksAndKeepsByDefault();
    void revert_isOffWithoutAFile();
    void secondWindow_isOfferedReadOnlyOrACopy();
    void fileChangedOutside_isAskedAbout();
    void saveWithoutAChange_writesNothing();
    void save_keepsModeAndLink();
    void save_refusesReadOnlyFilesAndDevices();
    void fullDisk_isSaidAndTheWorkStays();
    void demo_isAnUntitledCopy();
    void recoveredWork_neverGoesOverNewerWork();
    void restoring_asksAboutWhatWasTypedSince();
    void lostJournal_isSaidAndKept();
    void table_isOneEditAndKeepsItsAuthor();
    void refusedClick_saysWhyBesideIt();
    void clickIntoAFilledCell_takesItsPlace();
    void readingAtAnyAngle_neverEndsTheProgram();
    void killedDuring_losesNoStoredEdit_data();
    void killedDuring_losesNoStoredEdit();

private:
    QString at(const char *name) const { return m_dir->filePath(QString::fromLatin1(name)); }
    QString saved(const char *name = "mine.mildpath")
    {
        const QString path = at(name);
        [&] { QVERIFY(saveBuild(path.toStdString(), demoBuild())); }();
        return path;
    }
    OpenBuild &open() { return m_window->openBuild(); }
    void edit(double hot_c) { QVERIFY(open().edit(SetUse { "hot_oil_c", hot_c })); }
    /// What a crash right now would leave.
    FoundJournals crashed()
    {
        const QString copy = at("crashed");
        std::filesystem::remove_all(copy.toStdString());
        std::filesystem::copy(at("state").toStdString(), copy.toStdString());
        return findRecoveries(copy.toStdString());
    }
    QAction *menuEntry(const QString &text)
    {
        for (QMenu *menu : m_window->findChildren<QMenu *>()) {
            Q_EMIT menu->aboutToShow();
            for (QAction *a : menu->actions())
                if (a->text().remove(u'&') == text)
                    return a;
        }
        return nullptr;
    }

    std::unique_ptr<QTemporaryDir> m_dir;
    std::unique_ptr<MainWindow> m_window;
};

void TestFiles::initTestCase()
{
    QStandardPaths::setTestModeEnabled(true);
}

void TestFiles::init()
{
    freshSettings();
    m_dir = std::make_unique<QTemporaryDir>();
    m_window = std::make_unique<MainWindow>(at("state"));
    QVERIFY(m_window->openFile(saved()));
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
}

void TestFiles::cleanup()
{
    m_window.reset();
}

void TestFiles::failedOpening_keepsJournalAndEdits_data()
{
    QTest::addColumn<QString>("way");
    QTest::newRow("a recent file that is no build") << QStringLiteral("recent");
    QTest::newRow("revert to a file that was damaged since") << QStringLiteral("revert");
    QTest::newRow("a table dropped on the window") << QStringLiteral("drop");
}

void TestFiles::failedOpening_keepsJournalAndEdits()
{
    QFETCH(QString, way);
    edit(95);
    const Build before = open().build();
    const QString bad = way == QStringLiteral("revert") ? open().path() : at("bad.csv");
    std::ofstream(bad.toStdString(), std::ios::trunc) << "a,b\n1,2\n";
    answer(QMessageBox::Discard);
    if (way == QStringLiteral("recent")) {
        QSettings().setValue(QStringLiteral("recentFiles"), QStringList { bad });
        m_window->close(); // a window reads the list when it begins
        m_window = std::make_unique<MainWindow>(at("state"));
        QVERIFY(m_window->openFile(saved()));
        edit(95);
        answer(QMessageBox::Discard);
        QVERIFY(menuEntry(QStringLiteral("bad.csv")));
        menuEntry(QStringLiteral("bad.csv"))->trigger();
    } else if (way == QStringLiteral("revert")) {
        menuEntry(QStringLiteral("Revert to file…"))->trigger();
    } else {
        QMimeData data;
        data.setUrls({ QUrl::fromLocalFile(bad) });
        QDragEnterEvent enter(QPoint(5, 5), Qt::CopyAction, &data, Qt::LeftButton, {});
        QApplication::sendEvent(m_window.get(), &enter);
        QDropEvent drop(QPointF(5, 5), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_window.get(), &drop);
    }
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("was not opened")));
    QVERIFY(open().build() == before);
    QVERIFY(open().isModified());
    edit(96);
    const auto all = crashed().recoveries;
    QCOMPARE(all.size(), 1u);
    QVERIFY(all[0].recovered == open().build());
}

void TestFiles::revert_asksAndKeepsByDefault()
{
    edit(95);
    QTimer::singleShot(0, [] {
        auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget());
        QVERIFY(box);
        QVERIFY(box->defaultButton() == box->button(QMessageBox::Cancel));
        QTest::keyClick(box, Qt::Key_Return);
    });
    menuEntry(QStringLiteral("Revert to file…"))->trigger();
    QCOMPARE(open().build().use.hotOil_c, 95.0);
    answer(QMessageBox::Discard);
    menuEntry(QStringLiteral("Revert to file…"))->trigger();
    QVERIFY(open().build() == demoBuild());
    QVERIFY(!open().isModified());
    edit(97); // it still holds its lock and its journal
    QVERIFY(m_window->save());
    QCOMPARE(crashed().recoveries.size(), 0u);
}

void TestFiles::revert_isOffWithoutAFile()
{
    QVERIFY(menuEntry(QStringLiteral("Revert to file…"))->isEnabled());
    QVERIFY(m_window->openTemplate(QStringLiteral("inline-four-alloy")));
    QVERIFY(!menuEntry(QStringLiteral("Revert to file…"))->isEnabled());
}

void TestFiles::secondWindow_isOfferedReadOnlyOrACopy()
{
    const QString path = open().path();
    MainWindow second(at("state2"));
    QVERIFY(!second.openFile(path));
    QVERIFY(second.messageBar().text().contains(QStringLiteral("is open in another window")));
    second.messageBar().findChild<QPushButton *>(QStringLiteral("answer0"))->click();
    QVERIFY(second.openBuild().isReadOnly());
    QVERIFY(second.openBuild().edit(SetUse { "hot_oil_c", 95 }));
    QVERIFY(!second.openBuild().save(path));
    QVERIFY(second.openBuild().save(at("other.mildpath")));
    QVERIFY(!second.openBuild().isReadOnly());
    // Nobody saves over what another window holds.
    QVERIFY(!open().save(at("other.mildpath")));
    QCOMPARE(textAt(path), buildText(demoBuild()));
    second.openTemplate(QStringLiteral("inline-four-alloy"));
    QVERIFY(open().save(at("other.mildpath")));
}

void TestFiles::fileChangedOutside_isAskedAbout()
{
    edit(95);
    const QString path = open().path();
    const Build theirs = applyEdit(demoBuild(), Rename { "theirs" }).value();
    QVERIFY(saveBuild(path.toStdString(), theirs));
    QVERIFY(open().isChangedOutside());
    answer(QMessageBox::Cancel);
    QVERIFY(!m_window->save());
    QCOMPARE(textAt(path), buildText(theirs));
    answer(QStringLiteral("Save anyway"));
    QVERIFY(m_window->save());
    QCOMPARE(textAt(path), buildText(open().build()));
    QVERIFY(!open().isChangedOutside());
}

void TestFiles::saveWithoutAChange_writesNothing()
{
    const auto before = stampOf(open().path().toStdString());
    QVERIFY(m_window->save());
    QVERIFY(stampOf(open().path().toStdString()) == before);
    edit(95);
    QVERIFY(m_window->save());
    QVERIFY(stampOf(open().path().toStdString()) != before);
}

void TestFiles::save_keepsModeAndLink()
{
    const QString target = at("target.mildpath"), link = at("link.mildpath");
    QVERIFY(saveBuild(target.toStdString(), demoBuild()));
    std::filesystem::permissions(target.toStdString(), std::filesystem::perms(0600));
    std::filesystem::create_symlink("target.mildpath", link.toStdString());
    const pid_t gone = fork(); // the number of a process that is no more
    if (gone == 0)
        _exit(0);
    ::waitpid(gone, nullptr, 0);
    const QString left = target + QStringLiteral(".new-%1").arg(gone);
    std::ofstream(left.toStdString()) << "half";
    QVERIFY(m_window->openFile(link));
    edit(95);
    QVERIFY(m_window->save());
    QVERIFY(std::filesystem::is_symlink(link.toStdString()));
    QCOMPARE(textAt(target), buildText(open().build()));
    QVERIFY(std::filesystem::status(target.toStdString()).permissions()
            == std::filesystem::perms(0600));
    QVERIFY(!QFileInfo::exists(left));
}

void TestFiles::save_refusesReadOnlyFilesAndDevices()
{
    edit(95);
    const QString path = open().path();
    std::filesystem::permissions(path.toStdString(), std::filesystem::perms(0444));
    QVERIFY(!m_window->save());
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("set read-only")));
    QCOMPARE(textAt(path), buildText(demoBuild()));
    QVERIFY(!m_window->saveTo(QStringLiteral("/dev/null")));
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("a device")));
    // A link somebody put where the temporary file goes is not followed.
    const QString other = at("other.mildpath"),
                  trap = other + QStringLiteral(".new-%1").arg(getpid());
    std::ofstream(at("precious").toStdString()) << "precious";
    std::filesystem::create_symlink(at("precious").toStdString(), trap.toStdString());
    QVERIFY(m_window->saveTo(other));
    QCOMPARE(textAt(at("precious")), std::string("precious"));
}

void TestFiles::fullDisk_isSaidAndTheWorkStays()
{
    edit(94);
    rlimit before {};
    ::getrlimit(RLIMIT_FSIZE, &before);
    ::signal(SIGXFSZ, SIG_IGN);
    const rlimit full { 20000, before.rlim_max };
    ::setrlimit(RLIMIT_FSIZE, &full);
    edit(95);
    const bool journalled = open().isJournalled();
    const bool done = m_window->save();
    const QString says = m_window->messageBar().text();
    ::setrlimit(RLIMIT_FSIZE, &before);
    QVERIFY(!journalled && !done);
    QVERIFY2(says.contains(QStringLiteral("Not saved")), qPrintable(says));
    QCOMPARE(textAt(open().path()), buildText(demoBuild()));
    QVERIFY(open().isModified());
    // Room again: the journal holds everything, the file can be saved.
    edit(96);
    QVERIFY(open().isJournalled());
    QVERIFY(m_window->messageBar().text().contains(QStringLiteral("kept against a crash again")));
    QVERIFY(crashed().recoveries.at(0).recovered == open().build());
    QVERIFY(m_window->save());
}

void TestFiles::demo_isAnUntitledCopy()
{
    QVERIFY(m_window->openFile(qs(demoBuildPath().string())));
    QVERIFY(open().path().isEmpty());
    QCOMPARE(open().besideFile(), QFileInfo(qs(demoBuildPath().string())).absoluteFilePath());
}

void TestFiles::recoveredWork_neverGoesOverNewerWork()
{
    edit(95);
    const Build lost = open().build();
    const QString path = open().path(), state = at("crashed");
    QCOMPARE(crashed().recoveries.size(), 1u);
    m_window.reset();
    const Build newer = applyEdit(demoBuild(), Rename { "newer" }).value();
    QVERIFY(saveBuild(path.toStdString(), newer));
    MainWindow next(state);
    QVERIFY(next.openTemplate(QStringLiteral("inline-four-alloy")));
    next.offerRecovery();
    QVERIFY(next.messageBar().text().contains(QStringLiteral("mine.mildpath, 1 edit")));
    QVERIFY(next.messageBar().text().contains(QStringLiteral("was saved since then")));
    next.messageBar().findChild<QPushButton *>(QStringLiteral("answer0"))->click();
    QVERIFY(next.openBuild().build() == lost);
    QVERIFY(next.openBuild().path().isEmpty()); // a copy
    QCOMPARE(textAt(path), buildText(newer));
    next.openBuild().giveUp();
}

void TestFiles::restoring_asksAboutWhatWasTypedSince()
{
    edit(95);
    QCOMPARE(crashed().recoveries.size(), 1u);
    const QString state = at("crashed");
    MainWindow next(state);
    QVERIFY(next.openTemplate(QStringLiteral("inline-four-alloy")));
    next.offerRecovery();
    QVERIFY(next.openBuild().edit(Rename { "typed since" }));
    answer(QMessageBox::Cancel);
    next.messageBar().findChild<QPushButton *>(QStringLiteral("answer0"))->click();
    QCOMPARE(next.openBuild().build().name, std::string("typed since"));
    QCOMPARE(findRecoveries(state.toStdString()).recoveries.size(), 1u); // still there
    next.openBuild().giveUp();
}

void TestFiles::lostJournal_isSaidAndKept()
{
    std::filesystem::create_directories(at("lost").toStdString());
    const QString journal = at("lost/edits-1-1.journal");
    std::ofstream(journal.toStdString()) << "{\"base\": damaged}\n{}\n";
    MainWindow next(at("lost"));
    QVERIFY(next.openTemplate(QStringLiteral("inline-four-alloy")));
    next.offerRecovery();
    QVERIFY(next.messageBar().text().contains(QStringLiteral("cannot be read")));
    QVERIFY(next.messageBar().text().contains(journal));
    next.messageBar().findChild<QPushButton *>(QStringLiteral("answer0"))->click();
    QVERIFY(QFileInfo::exists(journal));
    next.offerRecovery();
    next.messageBar().findChild<QPushButton *>(QStringLiteral("answer1"))->click();
    QVERIFY(!QFileInfo::exists(journal));
}

void TestFiles::table_isOneEditAndKeepsItsAuthor()
{
    CleanEvent a;
    a.kind = "plug_seen";
    a.scope = "plug";
    a.target = demoBuild().plugs.front().id;
    a.by = "Ana";
    CleanEvent b = a;
    b.by.clear();
    const int before = open().undoStack().count();
    QVERIFY(open().editAll(QStringLiteral("2 plugs seen"), { AddEntry { a }, AddEntry { b } }));
    QCOMPARE(open().undoStack().count(), before + 1);
    QCOMPARE(open().undoStack().undoText(), QStringLiteral("2 plugs seen"));
    QCOMPARE(open().build().events[demoBuild().events.size()].by, std::string("Ana"));
    const auto id = open().record(a);
    QVERIFY(id);
    QCOMPARE(open().build().events.back().id, *id);
    QCOMPARE(open().build().events.back().by, std::string("Ana"));
    // All or none.
    CleanEvent bad = a;
    bad.replaces = "nobody";
    const Build stands = open().build();
    QVERIFY(!open().editAll(QStringLiteral("x"), { AddEntry { a }, AddEntry { bad } }));
    QVERIFY(open().build() == stands);
}

void TestFiles::refusedClick_saysWhyBesideIt()
{
    auto *name = m_window->findChild<QLineEdit *>(QStringLiteral("buildName"));
    QVERIFY(!saidIfRefused(open().edit(SetUse { "hot_oil_c", 9000 }), name));
    auto *note = m_window->findChild<QLabel *>(QStringLiteral("refusal"));
    QVERIFY(note && note->isVisible());
    QVERIFY2(note->text().contains(QStringLiteral("hot")), qPrintable(note->text()));
    const QRect field(name->mapTo(m_window.get(), QPoint()), name->size());
    QVERIFY(!note->geometry().intersects(field));
    QVERIFY(std::abs(note->y() - field.bottom()) < 20);
    QTest::keyClick(name, Qt::Key_Escape);
    QTRY_VERIFY(!m_window->findChild<QLabel *>(QStringLiteral("refusal")));
}

void TestFiles::clickIntoAFilledCell_takesItsPlace()
{
    QWidget window;
    auto *field = new QuantityField(Dimension::Length, "mm", &window);
    auto *other = new QLineEdit(&window);
    other->move(0, 60);
    field->setValue(41.1e-3);
    window.resize(200, 120);
    window.show();
    QVERIFY(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();
    other->setFocus();
    QTest::mouseClick(field, Qt::LeftButton, {}, QPoint(8, field->height() / 2));
    QCOMPARE(field->selectedText(), field->text());
    QTest::keyClicks(field, QStringLiteral("4"));
    QCOMPARE(field->text(), QStringLiteral("4"));
    QTest::mouseClick(field, Qt::LeftButton, {}, QPoint(2, field->height() / 2));
    QVERIFY(field->selectedText().isEmpty()); // the next one sets a cursor
}

void TestFiles::readingAtAnyAngle_neverEndsTheProgram()
{
    // Every family, every method, every kind of angle: judged, or refused with a reason.
    const Build demo = demoBuild();
    for (const SizeItem &item : sizeItems(demo))
        for (const std::string_view method : item.family->methods)
            for (const double angle : { 0.0, 20.0, 45.0, 359.0, 400.0, -1.0 }) {
                Reading r;
                r.stop = item.stop->id;
                r.family = item.family->id;
                r.item = item.item;
                r.method = method;
                r.angle_deg = angle;
                r.value_um = 40;
                r.feel = method == "drop_feel" ? "smooth" : "";
                const auto after = applyEdit(demo, EnterReading { r });
                const bool possible = angle >= 0 && angle <= 360;
                QVERIFY2(possible == after.has_value(), item.name.c_str());
                if (after)
                    assess(*after);
            }
}

void TestFiles::killedDuring_losesNoStoredEdit_data()
{
    QTest::addColumn<QString>("during");
    for (const char *what : { "edits", "failed opening", "save", "revert" })
        QTest::newRow(what) << QString::fromLatin1(what);
}

/// A process of its own does the work and is killed at a place nobody chose.
void TestFiles::killedDuring_losesNoStoredEdit()
{
    QFETCH(QString, during);
    const std::string state = at("killed").toStdString(),
                      file = at("victim.mildpath").toStdString();
    QVERIFY(saveBuild(file, demoBuild()));
    std::ofstream(at("bad.mildpath").toStdString()) << "{";
    int told[2];
    QCOMPARE(::pipe(told), 0);
    const pid_t child = fork();
    if (child == 0) {
        // No window: a forked copy of a graphical process cannot draw. The document is the same.
        OpenBuild open(QString::fromStdString(state));
        if (!open.open(loadBuild(file)->build, { .path = QString::fromStdString(file) }))
            _exit(1);
        for (int i = 0;; ++i) {
            if (!open.edit(SetUse { "hot_oil_c", 90.0 + i % 20 }))
                _exit(1);
            const double stored = open.build().use.hotOil_c;
            static_cast<void>(!::write(told[1], &stored, sizeof stored));
            if (during == QStringLiteral("failed opening"))
                static_cast<void>(loadBuild(file + ".none").has_value());
            else if (during == QStringLiteral("save") && i % 3 == 2)
                static_cast<void>(open.save(QString::fromStdString(file)).has_value());
            else if (during == QStringLiteral("revert") && i % 5 == 4)
                static_cast<void>(
                    open.open(loadBuild(file)->build, { .path = QString::fromStdString(file) })
                        .has_value());
        }
    }
    ::close(told[1]);
    double last = 0, one = 0;
    int stored = 0;
    // However busy the machine is, some edits are told before it dies.
    while (stored < 3 && ::read(told[0], &one, sizeof one) == sizeof one) {
        last = one;
        ++stored;
    }
    QTest::qWait(400);
    ::kill(child, SIGKILL);
    ::waitpid(child, nullptr, 0);
    while (::read(told[0], &one, sizeof one) == sizeof one) {
        last = one;
        ++stored;
    }
    ::close(told[0]);
    QVERIFY(stored > 2);
    const FoundJournals all = findRecoveries(state);
    QVERIFY(all.lost.empty());
    const auto onDisk = loadBuild(file);
    QVERIFY(onDisk); // the old or the new one, whole
    // At most the edit being made is lost: what was last told is in the journal or in the file; the
    // one under way may be there as well; a revert gives up what it was asked to.
    const auto isLast = [&](const Build &b) {
        const double next = 90 + std::fmod(last - 90 + 1, 20);
        return b.use.hotOil_c == last || b.use.hotOil_c == next;
    };
    const bool kept = isLast(onDisk->build)
        || std::any_of(all.recoveries.begin(), all.recoveries.end(),
                       [&](const Recovery &r) { return isLast(r.recovered); });
    QVERIFY(kept || (during == QStringLiteral("revert") && stored % 5 == 0));
}

} // namespace tst_files

MILDPATH_TEST(tst_files, TestFiles)
#include "tst_files.moc"
