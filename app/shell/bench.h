// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "shell/figure.h"
#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace mildpath {

/// One way to look at the build. Draws the assessment, asks the document for edits, keeps its own
/// state (sliders, family shown). Benches do not know each other.
class Bench : public QWidget
{
    Q_OBJECT
public:
    Bench(OpenBuild &open, Place place, QWidget *parent)
        : QWidget(parent)
        , m_open(open)
        , m_place(place)
    {
    }

    Place place() const { return m_place; }
    QString title() const { return qs(placeName(m_place)); }
    /// Takes over the document, selection, units and theme as they are now. Called when one of them
    /// changed and the bench is shown.
    virtual void refresh() = 0;
    /// What the side panel says.
    virtual PanelContent panel() const = 0;
    /// The keyboard came to this bench: the place where work goes on takes the focus.
    virtual void takeFocus() { }
    /// Pages of the bench by name; empty where it has only one.
    virtual QStringList pages() const { return {}; }
    virtual void showPage(int) { }

Q_SIGNALS:
    void panelChanged();

protected:
    /// The row every bench begins with: what is shown, and a word about it that gives way first
    /// where there is little room.
    QHBoxLayout *makeHead(QVBoxLayout *column, QLabel *title, QLabel *subtitle);

    /// A button for every page in the head row; showPage() is called by them.
    void makePageButtons(QHBoxLayout *head);
    void markPage(int page);

    OpenBuild &m_open;

private:
    Place m_place;
    std::vector<QPushButton *> m_pageButtons;
};

} // namespace mildpath
