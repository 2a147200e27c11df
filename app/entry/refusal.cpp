// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/refusal.h"

#include "paint/text.h"

#include <QAccessible>
#include <QApplication>
#include <QEvent>
#include <QLabel>
#include <QTimer>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int shownFor_ms = 12000, widest = 340, gapBelow = 4;

/// One note a window, over everything; the next click or key takes it away.
class RefusalNote : public QLabel
{
public:
    explicit RefusalNote(QWidget *window)
        : QLabel(window)
    {
        setObjectName(QStringLiteral("refusal"));
        setWordWrap(true);
        setMargin(7);
        setAttribute(Qt::WA_TransparentForMouseEvents);
        qApp->installEventFilter(this);
        QTimer::singleShot(shownFor_ms, this, &QObject::deleteLater);
    }

    void place(const QWidget *thing)
    {
        setMaximumWidth(widest);
        setMinimumWidth(std::min(widest, fontMetrics().horizontalAdvance(text()) + 24));
        adjustSize();
        const QWidget *window = parentWidget();
        QPoint at = thing == window ? QPoint(window->width() / 3, window->height() / 3)
                                    : thing->mapTo(window, QPoint(0, thing->height() + gapBelow));
        if (at.y() + height() > window->height() - gapBelow)
            at.setY(thing->mapTo(window, QPoint()).y() - height() - gapBelow);
        at.setX(
            std::clamp(at.x(), gapBelow, std::max(gapBelow, window->width() - width() - gapBelow)));
        at.setY(std::max(at.y(), gapBelow));
        move(at);
        raise();
        show();
    }

protected:
    bool eventFilter(QObject *, QEvent *event) override
    {
        if (event->type() == QEvent::MouseButtonPress || event->type() == QEvent::KeyPress)
            deleteLater();
        return false;
    }
};

} // namespace

void sayRefusal(const QString &why, QWidget *beside)
{
    QWidget *thing = beside ? beside : QApplication::focusWidget();
    if (!thing)
        thing = QApplication::activeWindow();
    if (!thing)
        return;
    for (QLabel *old : thing->window()->findChildren<QLabel *>(QStringLiteral("refusal"))) {
        old->setObjectName({});
        old->hide();
        old->deleteLater();
    }
    auto *note = new RefusalNote(thing->window());
    const Theme &t = Theme::current();
    note->setStyleSheet(
        QStringLiteral("background:%1;color:%2;border:1px solid %2;border-radius:4px")
            .arg(t.panel.name(), t.hold.name()));
    note->setText(why);
    note->setTextFormat(Qt::PlainText);
    note->setAccessibleName(why);
    note->place(thing);
    QAccessibleEvent said(note, QAccessible::Alert);
    QAccessible::updateAccessibility(&said);
}

void sayRefusal(const Error &why, QWidget *beside)
{
    sayRefusal(qs(why), beside);
}

} // namespace mildpath
