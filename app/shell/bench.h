// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "open/openbuild.h"
#include "shell/page.h"
#include "shell/panel.h"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace mildpath {

/// A kind of file a bench takes in: a line of the File menu, and what may be dropped on the window.
struct Import
{
    QString id; ///< "run"
    QString text; ///< of the menu: "Import a &log of a run…"
    QString filter; ///< of the file dialog
    /// Whether a dropped file is one of these, by its text; null: only by the menu.
    std::function<bool(const std::string &text)> isOne;
    /// Takes it in. @return what is to be said, and whether it was taken
    struct Taken
    {
        bool ok;
        QString said; ///< empty: nothing
    };
    std::function<Taken(const QString &path)> take;
};

/// An answer to a question the window asks without stopping the work.
struct Answer
{
    QString text;
    std::function<void()> chosen;
};

/// One way to look at the build. Draws the assessment, asks the document for edits, keeps its own
/// state (sliders, family shown). Benches do not know each other, and the window knows none of
/// them by its type.
class Bench : public QWidget
{
    Q_OBJECT
public:
    Bench(OpenBuild &open, Place place, QWidget *parent)
        : QWidget(parent)
        , m_open(open)
        , m_place(place)
    {
        connect(&open, &OpenBuild::opened, this, [this] { reset(); });
    }

    Place place() const { return m_place; }
    QString title() const { return qs(placeName(m_place)); }
    /// Takes over the document, selection, units and theme as they are now. Called when one of them
    /// changed and the bench is shown.
    virtual void refresh() = 0;
    /// What the side panel says.
    virtual PanelContent panel() const = 0;
    /// Another build was opened.
    virtual void reset() { }
    /// The keyboard came to this bench: the place where work goes on takes the focus.
    virtual void takeFocus() { }
    /// Pages of the bench by name; empty where it has only one.
    virtual QStringList pages() const { return {}; }
    virtual void showPage(int) { }
    /// By the id of its button; nothing for an id there is not.
    virtual void showPage(const QString &) { }
    /// Id of the button of the page that is shown; empty where there is only one.
    virtual QString pageId() const { return {}; }
    /// What an earlier run of the program left unfinished, if the bench keeps such things: asked
    /// about by `asked`.
    virtual void offerLeftOvers() { }
    /// Files it takes in.
    virtual std::vector<Import> imports() { return {}; }

Q_SIGNALS:
    void panelChanged();
    void benchAsked(mildpath::Place place);
    void openAsked(const QString &path);
    void complained(const QString &text);
    void asked(const QString &question, const std::vector<mildpath::Answer> &answers);

protected:
    /// The row every bench begins with: what is shown, and a word about it that gives way first
    /// where there is little room.
    QHBoxLayout *makeHead(QVBoxLayout *column, QLabel *title, QLabel *subtitle);

    OpenBuild &m_open;

private:
    Place m_place;
};

/// A bench of pages: a button for each in the head row, and what else goes page by page.
class PagedBench : public Bench
{
    Q_OBJECT
public:
    /// @param name  of its parts in the object tree: "sump" names "sump.subtitle"
    PagedBench(OpenBuild &open, Place place, const QString &name, QWidget *parent);

    void refresh() override;
    PanelContent panel() const override;
    void reset() override;
    void takeFocus() override;
    QStringList pages() const override;
    void showPage(int page) override;
    void showPage(const QString &id) override;
    QString pageId() const override { return m_tabs[static_cast<size_t>(m_page)].id; }
    /// The first of this page's buttons, or one of them.
    void showPage(const Page *page, int tab = 0);
    Page *currentPage() const { return m_tabs[static_cast<size_t>(m_page)].page; }

protected:
    /// Adds a page behind those there are.
    template <class P> P *addPage(P *page)
    {
        add(page);
        return page;
    }
    /// For what a bench shows between its head and its pages.
    QVBoxLayout *column() const { return m_column; }
    QHBoxLayout *head() const { return m_head; }

private:
    struct Tab
    {
        Page *page;
        int tab; ///< of the page
        QString id, name;
        QPushButton *button;
    };
    void add(Page *page);
    void showWords();

    QVBoxLayout *m_column;
    QHBoxLayout *m_head;
    QLabel *m_title, *m_about;
    QStackedWidget *m_stack;
    std::vector<Tab> m_tabs;
    int m_page = 0;
};

} // namespace mildpath
