// SPDX-License-Identifier: GPL-3.0-or-later
// Going to where a check is answered, and back to where one was.
#include "window/window.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "checks/visible.h"
#include "shell/nextcard.h"

#include <QApplication>

#include <array>
#include <utility>

namespace mildpath {
namespace {

/// The first of the side panel's parts that is there and can be used.
QWidget *firstOf(const SidePanel &panel, std::initializer_list<const char *> names)
{
    for (const char *name : names)
        if (auto *part = panel.findChild<QWidget *>(QString::fromLatin1(name));
            part && part->isVisibleTo(&panel) && part->isEnabled())
            return part;
    return nullptr;
}

/// The page of its bench where it is answered or mended; empty: whichever is shown.
QString pageFor(const CheckKind &kind)
{
    struct Row
    {
        std::string_view kinds;
        const char *page;
    };
    static constexpr std::array<Row, 5> rows { {
        { "shell", "shells" },
        { "clr bush lifclr float runout form", "readings" },
        { "cold heat", "room" },
        { "again", "looks" },
        { "idle need speed over crank", "verdicts" },
    } };
    for (const Row &r : rows)
        if (hasWord(r.kinds, kind.id))
            return QString::fromLatin1(r.page);
    return {};
}

} // namespace

/// Sizes are read where the instruments are, what is computed is mended at its bench; all else is
/// answered in the list.
void MainWindow::goToCheck(const std::string &id)
{
    const Check *check = m_open->judgement().checks.find(id);
    if (!check)
        return;
    const Before before { currentBench()->place(), currentBench()->pageId(),
                          QApplication::focusWidget() };
    if (!check->place.stop.empty())
        m_open->selectStop(qs(check->place.stop));
    const QString page = pageFor(*check->kind);
    // Looks to come are set where they stand with their intervals.
    if (isAnsweredInList(*check) && check->kind->id != "again") {
        showPage(Place::Start, QStringLiteral("checks"));
        m_open->selectCheck(id);
        if (QWidget *part = firstOf(*m_panel, { "check.value", "check.by", "check.yes", "job.by" }))
            part->setFocus(Qt::ShortcutFocusReason);
        else
            currentBench()->takeFocus();
    } else {
        if (!page.isEmpty())
            showPage(placeOf(*check->kind), page);
        else
            showBench(placeOf(*check->kind));
        m_open->selectCheck(id); // the very size is put in hand
        currentBench()->takeFocus();
    }
    m_before = before;
    m_goneTo = id;
}

/// To the next thing; from there, while it is still the next, back.
void MainWindow::goNext()
{
    const std::string next = m_next->check();
    if (!m_open->live().isEmpty()) {
        showPage(Place::Start, QStringLiteral("live"));
        currentBench()->takeFocus();
        return;
    }
    if (m_before && (next == m_goneTo || next.empty())) {
        const Before back = *std::exchange(m_before, std::nullopt);
        m_goneTo.clear();
        showPage(back.place, back.page);
        if (back.focus && back.focus->isVisible())
            back.focus->setFocus(Qt::ShortcutFocusReason);
        return;
    }
    if (next.empty())
        m_messages->say(m_next->text() + QStringLiteral(". ") + m_next->why());
    else
        goToCheck(next);
}

} // namespace mildpath
