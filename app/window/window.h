// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/theme.h"
#include "shell/bench.h"
#include "shell/rail.h"
#include "shell/readoutstrip.h"
#include "storage/journal.h"

#include <QMainWindow>
#include <QPointer>

#include <optional>
#include <string>

class QLabel;
class QLineEdit;
class QMenu;
class QPushButton;
class QStackedWidget;
class QTabBar;

namespace mildpath {

class BeginPage;
class NextCard;
class SerialGauge;
class SerialSender;
class WhoWorks;

/// Files opened lately, in the settings.
inline const QString recentFilesKey = QStringLiteral("recentFiles");

/// A line above the benches for what went wrong or waits for an answer; never in the way.
class MessageBar : public QWidget
{
    Q_OBJECT
public:
    explicit MessageBar(QWidget *parent);
    /// Replaces what is shown. Every answer also closes the bar; "Close" is added by itself.
    void say(const QString &text, const std::vector<Answer> &answers = {});
    QString text() const;

protected:
    void paintEvent(QPaintEvent *) override;

private:
    QLabel *m_text;
    QWidget *m_buttons;
};

class MainWindow : public QMainWindow
{
    Q_OBJECT
public:
    /// @param stateFolder  for edit journals; empty: none
    explicit MainWindow(const QString &stateFolder, QWidget *parent = nullptr);

    OpenBuild &openBuild() { return *m_open; }
    /// Opens a file; on failure says why and keeps the open build. One that another window holds is
    /// offered read-only or as a copy. @return whether it was opened
    bool openFile(const QString &path);
    /// Opens a file to look at: it is never saved to.
    bool openReadOnly(const QString &path);
    /// Opens an untitled copy: what is shipped with the program is never the target of a save.
    bool openCopy(const QString &path);
    /// Shows the first page: what one worked on, what to begin from, what was not saved.
    void begin();
    bool isBeginning() const;
    BeginPage &beginPage() { return *m_begin; }
    /// A new build from a template, and the first questions about it.
    void beginNew(const QString &name);
    /// Gives up every edit since the last save, after a question.
    void revert();
    /// A new build from a template, not yet in a file.
    bool openTemplate(const QString &name);
    /// A build that was just described; it has no file yet.
    void openNew(Build build);
    bool save();
    bool saveTo(const QString &path);
    /// Listens to a gauge on a port; on failure says why. @return whether it listens
    bool connectGauge(const QString &port);
    SerialGauge &gauge() { return *m_gauge; }
    /// The same for a sender of pressure, speed and oil temperature.
    bool connectSender(const QString &port);
    SerialSender &sender() { return *m_sender; }
    /// Takes a file in through the bench that has this import. @return whether it was taken
    bool importFile(const QString &import, const QString &path);
    /// A file dropped on the window goes to the bench that knows it by its text.
    /// @return whether one did; what came of it is said
    bool importDropped(const QString &path);
    /// The build sheet, as PDF or HTML by the ending. @return whether it was written
    bool writeSheet(const QString &path, bool letter = false);
    /// Readings from a table, all or none. @return whether they were taken
    bool importReadings(const QString &path);
    bool exportReadings(const QString &path);
    /// A table with a header, or numbers for the cells in hand.
    void pasteReadings(const QString &text);
    /// Offers what a crash left behind.
    void offerRecovery();

    const std::vector<Bench *> &benches() const { return m_benches; }
    Bench *currentBench() const;
    void showBench(Place place);
    /// The same, at one of its pages by the id of its button.
    void showPage(Place place, const QString &page);
    Bench *benchAt(Place place) const;
    /// To the very place where a check is answered, its field or button in hand.
    void goToCheck(const std::string &id);
    /// The same of the next thing to do; from there back to where one was.
    void goNext();
    NextCard &nextCard() { return *m_next; }
    void setTheme(ThemeChoice choice);
    void setUnits(UnitSystem system);
    MessageBar &messageBar() { return *m_messages; }
    SidePanel &sidePanel() { return *m_panel; }

protected:
    void closeEvent(QCloseEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    void makeHead(QWidget *page);
    void makeMiddle(QWidget *page);
    void connectParts();
    void addBench(Bench *bench);
    void makeMenus();
    void makeFileMenu();
    void makeImports(QMenu *file);
    void makeEditMenu();
    void makeDevicesMenu();
    void makeViewMenu();
    void makeSenderMenu(QMenu *devices);
    bool takeIn(Bench &bench, const Import &import, const QString &path);
    bool takeTable(const std::string &text, const QString &from);
    void makeHelpMenu();
    void makeBegin();
    void showBegin(bool shown);
    void describe();
    void pickFile();
    void askFirst();
    void refresh();
    void updateTitle();
    void rename();
    void updateRecent();
    void noteRecent(const QString &path);
    /// Asks about unsaved work and changes nothing: the journal of the open build goes when another
    /// build stands in its place. @return false: stay
    bool mayLeave();
    enum class As { File, ReadOnly, Copy };
    bool openAs(const QString &path, As as);
    bool stand(Build build, OpenedFrom from);
    void offerRecovery(FoundJournals found);
    void takeBack(const Recovery &recovery);
    bool saveAs();
    void exportPicture();
    void showAbout();

    OpenBuild *m_open;
    SerialGauge *m_gauge;
    SerialSender *m_sender;
    Rail *m_rail;
    QTabBar *m_tabs;
    QStackedWidget *m_stack;
    SidePanel *m_panel;
    /// Where one was before going to a check.
    struct Before
    {
        Place place;
        QString page;
        QPointer<QWidget> focus;
    };
    std::optional<Before> m_before {};
    std::string m_goneTo; ///< check
    NextCard *m_next;
    WhoWorks *m_worker;
    QStackedWidget *m_faces; ///< the benches, or the first page
    QWidget *m_messagePlace;
    BeginPage *m_begin;
    std::vector<QMenu *> m_workMenus; ///< nothing for them without a build
    ReadoutStrip *m_strip;
    MessageBar *m_messages;
    QLineEdit *m_name; ///< the build's name, changed in place
    QMenu *m_recent = nullptr;
    QAction *m_revert = nullptr;
    QMenu *m_gaugeMenu = nullptr;
    std::vector<Bench *> m_benches;
    ThemeChoice m_theme = ThemeChoice::Light;
};

} // namespace mildpath
