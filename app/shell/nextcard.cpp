// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/nextcard.h"

#include "checks/assessment.h"
#include "open/questions.h"
#include "paint/text.h"
#include "paint/theme.h"
#include "plan/workplan.h"

#include <QApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPainter>

namespace mildpath {
namespace {

constexpr int cardHeight = 92, margin = 6;

/// Somebody is in the middle of a word or a figure.
bool isTyping()
{
    const auto *line = qobject_cast<const QLineEdit *>(QApplication::focusWidget());
    return line && line->isModified();
}

} // namespace

NextCard::NextCard(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("nextCard"));
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(cardHeight);
    setToolTip(tr("What to do next (F8 goes there and back)"));
    connect(&open, &OpenBuild::opened, this, [this] {
        m_passedOver.clear();
        take();
    });
    connect(&open, &OpenBuild::changed, this, &NextCard::take);
    connect(&open, &OpenBuild::liveChanged, this, [this] {
        setAccessibleName(m_open.live().isEmpty() ? tr("Next: %1, %2").arg(m_text, m_minutes)
                                                  : tr("Running: %1").arg(m_open.live()));
        update();
    });
    // Whoever typed has done so.
    connect(qApp, &QApplication::focusChanged, this, &NextCard::take);
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic == qs(ask::plan().topic))
            take();
    });
}

QSize NextCard::sizeHint() const
{
    return { 200, cardHeight };
}

void NextCard::take()
{
    const auto plan = m_open.answers().ask(ask::plan());
    if (!plan || isTyping())
        return;
    const PlannedCheck *chosen = nullptr;
    m_now = 0;
    for (const PlannedCheck &r : plan->answer.rows) {
        if (!r.now)
            continue;
        ++m_now;
        if (m_passedOver.contains(r.check->id()))
            continue;
        if (!chosen || (r.late && !chosen->late)) // whom to ring stands first
            chosen = &r;
    }
    if (!chosen && m_now > 0) {
        m_passedOver.clear();
        chosen = plan->answer.next();
    }
    show(plan->answer, chosen);
}

void NextCard::show(const WorkPlan &plan, const PlannedCheck *row)
{
    if (row) {
        m_check = row->check->id();
        m_text = qs(doText(*row));
        m_why = qs(whyText(plan, *row));
        m_minutes = row->check->kind->minutes > 0 ? inWords(asMinutes(row->minutes)) : QString();
    } else {
        m_check.clear();
        m_text = plan.rows.empty() ? tr("Nothing is open") : tr("All that is open waits");
        m_why = plan.rows.empty() ? tr("Every check of the job is proven or signed off")
                                  : qs(waitText(plan.rows.front()));
        m_minutes.clear();
    }
    setAccessibleName(tr("Next: %1, %2").arg(m_text, m_minutes));
    setAccessibleDescription(m_why);
    update();
}

void NextCard::other()
{
    if (m_check.empty())
        return;
    m_passedOver.insert(m_check);
    take();
}

QRectF NextCard::otherArea() const
{
    return { width() - margin - 58.0, cardHeight - margin - 20.0, 52, 18 };
}

void NextCard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF card(margin - 0.5, margin - 0.5, width() - 2 * margin,
                      cardHeight - 2 * margin + 1);
    p.setPen(QPen(t.selection, hasFocus() ? 2 : 1.4));
    p.setBrush(t.bench);
    p.drawRoundedRect(card, 5, 5);
    const QRectF inside = card.adjusted(9, 6, -9, -5);
    const QFont small = textFont(TextSize::Small), bold = textFont(TextSize::Small, true);
    const QRectF words(inside.left(), inside.top() + 17, inside.width(), 32);
    if (!m_open.live().isEmpty()) { // what runs wants the eye first
        drawLine(p, QRectF(inside.left(), inside.top(), 90, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("Running"), bold, t.hold);
        p.setFont(bold);
        p.setPen(t.ink);
        p.drawText(words.adjusted(0, 0, 0, 20), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                   m_open.live());
        return;
    }
    drawLine(p, QRectF(inside.left(), inside.top(), 60, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("Next"), bold, t.selection);
    drawLine(p, QRectF(inside.right() - 80, inside.top(), 80, 16),
             Qt::AlignRight | Qt::AlignVCenter, m_minutes, small, t.muted);
    p.setFont(bold);
    p.setPen(t.ink);
    const QFontMetricsF metrics(bold);
    // Two lines; what does not fit is in the hint and read out.
    QString shown = m_text;
    while (shown.size() > 4
           && metrics.boundingRect(words, Qt::TextWordWrap, shown).height() > words.height() + 2)
        shown = shown.left(shown.size() - 4).trimmed() + u'…';
    p.drawText(words, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, shown);
    const bool more = m_now > 1;
    drawLine(p, QRectF(inside.left(), inside.bottom() - 18, inside.width() - (more ? 56 : 0), 18),
             Qt::AlignLeft | Qt::AlignVCenter, m_why, small, t.muted);
    if (more)
        drawLine(p, otherArea(), Qt::AlignRight | Qt::AlignVCenter, tr("Other"), small,
                 t.selection);
}

void NextCard::mousePressEvent(QMouseEvent *event)
{
    if (!m_open.live().isEmpty())
        Q_EMIT liveAsked();
    else if (m_now > 1 && otherArea().contains(event->position()))
        other();
    else if (!m_check.empty())
        Q_EMIT goAsked(m_check);
}

void NextCard::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter
        || event->key() == Qt::Key_Space) {
        if (!m_check.empty())
            Q_EMIT goAsked(m_check);
    } else if (event->key() == Qt::Key_Right || event->key() == Qt::Key_Plus) {
        other();
    } else {
        QWidget::keyPressEvent(event);
    }
}

} // namespace mildpath
