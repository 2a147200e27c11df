// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/historychain.h"

#include "assess/cleanmarks.h"
#include "document/logbook.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "passage/cleaning.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

QString titleOf(const CleanEvent &e)
{
    const MachiningJob *job = e.scope == "job" ? findMachiningJob(e.target) : nullptr;
    if (job)
        return qs(job->name);
    const EventKind *k = findEventKind(e.kind);
    if (e.kind == "look")
        return (e.result == "through" ? HistoryChain::tr("Far end seen, %1")
                                      : HistoryChain::tr("Far end not seen, %1"))
            .arg(qs(e.means));
    if (e.kind == "storage")
        return (e.covered ? HistoryChain::tr("Stored %1 days, covered")
                          : HistoryChain::tr("Stored %1 days, open"))
            .arg(e.days, 0, 'f', 0);
    return qs(k ? k->name : e.kind)
        + (e.result.empty() ? QString() : QStringLiteral(", ") + qs(e.result));
}

/// "10 Mar 15:20" of an ISO time.
QString shortTime(const std::string &at)
{
    const QDateTime t = QDateTime::fromString(qs(at), Qt::ISODate);
    return t.isValid() ? QLocale::c().toString(t, QStringLiteral("d MMM HH:mm")) : qs(at);
}

} // namespace

HistoryChain::HistoryChain(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("historyChain"));
    setFixedHeight(132);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(14, 6, 12, 8);
    column->addStretch();
    auto *row = new QHBoxLayout;
    row->setSpacing(4);
    column->addLayout(row);
    const auto word = [&](const QString &text) {
        auto *label = new QLabel(text, this);
        setTone(label, Theme::current().muted);
        row->addWidget(label);
    };
    CleanEvent e;
    word(tr("brush"));
    e.kind = "brush";
    e.result = "white";
    addKey(row, QStringLiteral("record.white"), tr("white"), tr("The brush came out white"), e);
    e.result = "grey";
    addKey(row, QStringLiteral("record.grey"), tr("grey"), tr("It did not: brush again"), e);
    row->addSpacing(4);
    word(tr("flush"));
    e.kind = "flush";
    e.result = "clear";
    addKey(row, QStringLiteral("record.clear"), tr("clear"),
           tr("Fluid came out of the far end, clear"), e);
    row->addSpacing(4);
    word(tr("far end by"));
    e.kind = "look";
    e.result = "through";
    for (const std::string_view means : { "light", "wire", "camera" }) {
        e.means = means;
        addKey(row, QStringLiteral("record.") + qs(means), qs(means),
               tr("The far end was seen by %1").arg(qs(means)), e);
    }
    e.result = "blocked";
    e.means = "light";
    addKey(row, QStringLiteral("record.blocked"), tr("not seen"),
           tr("Looked for at the far end, and not seen"), e);
    row->addStretch();
}

void HistoryChain::addKey(QHBoxLayout *row, const QString &name, const QString &text,
                          const QString &tip, const CleanEvent &event)
{
    auto *key = new QPushButton(text, this);
    key->setObjectName(name);
    key->setToolTip(tip);
    key->setAccessibleName(tip);
    row->addWidget(key);
    connect(key, &QPushButton::clicked, this, [this, event] { record(event); });
}

void HistoryChain::record(CleanEvent event)
{
    event.target = m_passage;
    const auto done = m_open.record(event);
    Q_EMIT refused(done ? QString() : qs(done.error().message));
}

void HistoryChain::show(const std::string &passage)
{
    m_passage = passage;
    refresh();
}

void HistoryChain::refresh()
{
    const Build &build = m_open.build();
    const Passage *p = findPassage(build.passages, m_passage);
    setVisible(p != nullptr);
    if (!p)
        return;
    const auto &states = m_open.cleaning().passages;
    const PassageState &s = states[static_cast<size_t>(p - build.passages.data())];
    m_title = qs(p->name);
    m_detail = tr("%1, Ø %2 · %3")
                   .arg(qs(p->made), inWords(asLength(p->d_mm)), inWords(asLength(p->l_mm)));
    m_reason = qs(s.reason);
    m_links.clear();
    for (const ChainLink &l : s.chain) {
        const CleanEvent &e = build.events[static_cast<size_t>(l.event)];
        m_links.push_back({ markOf(l, e), titleOf(e), shortTime(e.at), false });
    }
    for (const std::string &m : s.missing)
        m_links.push_back({ missingMark(s), qs(m), tr("not yet"), true });
    QStringList spoken;
    for (const Link &l : m_links)
        spoken << l.title + u' ' + l.detail;
    setAccessibleName(m_title + QStringLiteral(": ") + spoken.join(QStringLiteral(", ")));
    update();
}

void HistoryChain::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    const QFont bold = textFont(TextSize::Body, true);
    const double w = QFontMetricsF(bold).horizontalAdvance(m_title) + 14;
    drawLine(p, QRectF(16, 8, w, 18), Qt::AlignVCenter, m_title, bold, t.ink);
    // The latest links; of a long chain the beginning is left out, and how many is said.
    const double least = 118;
    const auto fits = static_cast<size_t>(std::max(2.0, (width() - 24) / least));
    const size_t from = m_links.size() > fits ? m_links.size() - fits : 0;
    const double step = (width() - 24.0)
        / static_cast<double>(std::max<size_t>(1, std::min(fits, m_links.size())));
    const QString earlier = from > 0 ? tr("   %1 earlier").arg(from) : QString();
    drawLine(p, QRectF(16 + w, 8, width() - w - 28, 18), Qt::AlignVCenter,
             m_detail + QStringLiteral("   ") + m_reason + earlier, textFont(TextSize::Normal),
             t.muted);
    const double y = 42;
    for (size_t i = from; i < m_links.size(); ++i) {
        const Link &l = m_links[i];
        const double x = 22 + std::min(step, 190.0) * static_cast<double>(i - from);
        const double wide = std::min(step, 190.0);
        if (i + 1 < m_links.size()) {
            p.setPen(QPen(t.line, 1.6, m_links[i + 1].pending ? Qt::DotLine : Qt::SolidLine));
            p.drawLine(QPointF(x + 10, y), QPointF(x + wide - 10, y));
        }
        drawMark(p, QPointF(x, y), 13, l.mark);
        drawLine(p, QRectF(x - 6, y + 10, wide - 8, 16), Qt::AlignVCenter, l.title,
                 textFont(TextSize::Small, !l.pending), l.pending ? t.muted : t.ink);
        drawLine(p, QRectF(x - 6, y + 25, wide - 8, 15), Qt::AlignVCenter, l.detail,
                 textFont(TextSize::Small), t.muted);
    }
}

} // namespace mildpath
