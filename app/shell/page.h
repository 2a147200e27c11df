// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "open/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

namespace mildpath {

/// A button of a page in its bench's head row.
struct PageTab
{
    const char *id; ///< "torque": for showing it by name, never translated
    QString name;
};

/// One page of a bench: draws the build one way, says what the side panel says, asks the document
/// for edits. Pages do not know each other.
///
/// To add one, derive from it and add it in its bench's constructor (CONTRIBUTING.md).
class Page : public QWidget
{
    Q_OBJECT
public:
    Page(OpenBuild &open, QWidget *parent)
        : QWidget(parent)
        , m_open(open)
    {
    }

    /// What its button says; several where one page looks at the same thing in several ways.
    virtual std::vector<PageTab> tabs() const = 0;
    /// One of its buttons was pressed; comes before refresh().
    virtual void showTab(int) { }
    /// What stands over the page.
    virtual QString title() const = 0;
    /// A word beside the title; as it is after refresh().
    virtual QString about() const { return {}; }
    virtual Tone aboutTone() const { return Tone::Muted; }
    /// Takes over document, selection, units and theme as they are now. Called when one of them
    /// changed and the page is shown.
    virtual void refresh() = 0;
    /// What the side panel says.
    virtual PanelContent panel() = 0;
    /// Another page of the bench is shown: what runs for this one alone stops.
    virtual void leave() { }
    /// What stands in the bench's head row beside the buttons, shown and hidden by the page.
    virtual QWidget *headWidget() { return nullptr; }
    /// Another build was opened: what was chosen in the old one means nothing any more.
    virtual void reset() { }
    /// The keyboard came to this page: the place where work goes on takes the focus.
    virtual void takeFocus() { }

Q_SIGNALS:
    void changed(); ///< title, about or panel
    void aboutChanged(); ///< only what stands beside the title
    void tabAsked(int tab); ///< another of its own buttons
    void pageAsked(const QString &page); ///< another page of its bench, by the id of its button
    void benchAsked(mildpath::Place place); ///< to go on there; its stop is selected
    void openAsked(const QString &path); ///< another build
    void complained(const QString &text); ///< what could not be done, for the window to say

protected:
    /// Looks again, while it is shown, when a question of this topic was answered.
    void follow(const QString &topic)
    {
        connect(&m_open.answers(), &Answers::answered, this,
                [this, topic](const QString &answered) {
                    if (answered != topic || !isVisible())
                        return;
                    refresh();
                    Q_EMIT changed();
                });
    }

    OpenBuild &m_open;
};

} // namespace mildpath
