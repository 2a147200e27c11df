// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/diagnosispage.h"

#include "document/logbook.h"
#include "paint/text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double scaleTop = 44, scaleRow = 34;
constexpr double barsTop = 8, barRow = 25;
constexpr size_t mostBars = 9;

void cross(QPainter &p, QPointF c, const QColor &tone)
{
    p.setPen(QPen(tone, 2.4));
    p.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
    p.drawLine(c - QPointF(0, 5), c + QPointF(0, 5));
}

} // namespace

ReadingScale::ReadingScale(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("readingScale"));
}

void ReadingScale::setAnswer(std::shared_ptr<const AnsweredDiagnosis> answer, size_t candidate)
{
    m_answer = std::move(answer);
    m_candidate = candidate;
    const size_t n = m_answer ? m_answer->answer->readings.size() : 0;
    setFixedHeight(
        static_cast<int>(scaleTop + scaleRow * static_cast<double>(std::max<size_t>(2, n))));
    QStringList spoken;
    if (m_answer)
        for (size_t i = 0; i < n; ++i) {
            const GaugeReading &r = *m_answer->answer->readings[i];
            spoken << tr("%1 reads %2, healthy %3")
                          .arg(qs(placeText(*m_answer->about.build, r)),
                               Figure::pressure(r.pressure_kpa * 1e3).text(),
                               Figure::pressure(m_answer->answer->healthy_pa[i]).text());
        }
    setAccessibleName(tr("Readings: ") + spoken.join(QStringLiteral("; ")));
    update();
}

void ReadingScale::choose(const std::string &reading)
{
    m_chosen = reading;
    update();
}

void ReadingScale::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const size_t n = m_answer ? m_answer->answer->readings.size() : 0;
    if (n == 0) {
        drawLine(p, QRectF(12, 30, width() - 24, 20), Qt::AlignVCenter,
                 tr("No readings yet: record them in the side panel."), textFont(TextSize::Normal),
                 t.muted);
        return;
    }
    const Diagnosis &d = *m_answer->answer;
    const Candidate &leader = d.candidates[std::min(m_candidate, d.candidates.size() - 1)];
    double most = 1e5;
    for (size_t i = 0; i < n; ++i)
        most = std::max({ most, d.readings[i]->pressure_kpa * 1e3, d.healthy_pa[i] });
    const double left = 14, right = width() - 22.0;
    const auto x = [&](double pa) {
        return left + (right - left) * std::clamp(pa / (1.06 * most), 0.0, 1.0);
    };
    // Key.
    double k = left;
    const auto key = [&](const QString &text) {
        drawLine(p, QRectF(k, 4, std::min(240.0, width() - k - 8), 16), Qt::AlignVCenter, text,
                 textFont(TextSize::Small), t.muted);
        k += QFontMetricsF(textFont(TextSize::Small)).horizontalAdvance(text) + 14;
    };
    cross(p, { k + 5, 12 }, t.ink);
    k += 15;
    key(tr("read"));
    p.setPen(QPen(t.proven, 2));
    p.setBrush(t.panel);
    p.drawEllipse(QPointF(k + 5, 12), 4.5, 4.5);
    k += 15;
    key(tr("healthy"));
    if (!leader.faults.empty()) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.hold);
        p.drawEllipse(QPointF(k + 5, 12), 4.5, 4.5);
        k += 15;
        key(qs(leader.name));
    }
    for (const double pa : niceTicks(0, most, Shows::Pressure, 5)) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x(pa), scaleTop - 6), QPointF(x(pa), height() - 4.0));
        drawLine(p, QRectF(x(pa) - 24, scaleTop - 22, 48, 15), Qt::AlignCenter,
                 Figure::pressure(pa).number, textFont(TextSize::Small), t.muted);
    }
    for (size_t i = 0; i < n; ++i) {
        const GaugeReading &r = *d.readings[i];
        const double y = scaleTop + scaleRow * static_cast<double>(i);
        if (r.id == m_chosen) {
            p.setPen(Qt::NoPen);
            QColor fill = t.selectionFill;
            fill.setAlpha(130);
            p.setBrush(fill);
            p.drawRoundedRect(QRectF(4, y, width() - 8, scaleRow - 1), 4, 4);
        }
        drawLine(p, QRectF(left, y + 1, right - left, 15), Qt::AlignVCenter,
                 qs(placeText(*m_answer->about.build, r)), textFont(TextSize::Small),
                 r.id == m_chosen ? t.selection : t.muted);
        const double line = y + 24;
        p.setPen(QPen(t.line, 4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(x(r.pressure_kpa * 1e3), line), QPointF(x(d.healthy_pa[i]), line));
        p.setPen(QPen(t.proven, 2));
        p.setBrush(t.panel);
        p.drawEllipse(QPointF(x(d.healthy_pa[i]), line), 4.5, 4.5);
        if (!leader.faults.empty()) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.hold);
            p.drawEllipse(QPointF(x(leader.predicted_pa[i]), line), 4.5, 4.5);
        }
        cross(p, { x(r.pressure_kpa * 1e3), line }, t.ink);
    }
}

void ReadingScale::mousePressEvent(QMouseEvent *event)
{
    const auto i = static_cast<int>(std::floor((event->position().y() - scaleTop) / scaleRow));
    if (m_answer && i >= 0 && static_cast<size_t>(i) < m_answer->answer->readings.size())
        Q_EMIT picked(qs(m_answer->answer->readings[static_cast<size_t>(i)]->id));
}

CandidateBars::CandidateBars(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("candidateBars"));
    setFocusPolicy(Qt::StrongFocus);
}

size_t CandidateBars::rows() const
{
    return m_answer ? std::min(mostBars, m_answer->answer->candidates.size()) : 0;
}

void CandidateBars::setAnswer(std::shared_ptr<const AnsweredDiagnosis> answer)
{
    m_answer = std::move(answer);
    setMinimumHeight(static_cast<int>(barsTop + barRow * static_cast<double>(mostBars + 3)));
    QStringList spoken;
    for (size_t i = 0; i < rows(); ++i) {
        const Candidate &c = m_answer->answer->candidates[i];
        spoken << qs(c.name) + u' ' + Figure::percent(c.posterior).text();
    }
    setAccessibleName(tr("What fits: ") + spoken.join(QStringLiteral(", ")));
    update();
}

void CandidateBars::choose(size_t candidate)
{
    m_chosen = candidate;
    update();
}

void CandidateBars::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double percentWidth = 52, wide = width() - 24.0 - percentWidth;
    const auto row
        = [&](double y, const QString &name, const QString &much, double share, bool chosen) {
              p.setPen(chosen ? QPen(t.selection, hasFocus() ? 1.6 : 1) : QPen(Qt::NoPen));
              p.setBrush(t.selectionFill);
              p.drawRoundedRect(QRectF(12, y + 2, std::max(3.0, wide * share), barRow - 4), 3, 3);
              drawLine(p, QRectF(20, y, wide - 12, barRow), Qt::AlignVCenter,
                       much.isEmpty() ? name : name + QStringLiteral(" · ") + much,
                       textFont(TextSize::Normal, chosen), chosen ? t.selection : t.ink);
              const QString percent
                  = share < 0.0095 && share > 0 ? tr("< 1 %") : Figure::percent(share).text();
              drawLine(p, QRectF(width() - percentWidth - 10, y, percentWidth, barRow),
                       Qt::AlignVCenter | Qt::AlignRight, percent, textFont(TextSize::Normal, true),
                       chosen ? t.selection : t.ink);
          };
    if (!m_answer) {
        drawLine(p, QRectF(12, 10, width() - 24, 20), Qt::AlignVCenter, tr("working it out…"),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    double y = barsTop;
    for (size_t i = 0; i < rows(); ++i, y += barRow) {
        const Candidate &c = m_answer->answer->candidates[i];
        const QString much = c.faults.empty() || !c.severityKnown
            ? QString()
            : qs(severityText(*m_answer->about.build, c.faults.front()));
        row(y, qs(c.name), much, c.posterior, i == m_chosen);
    }
    if (m_answer->answer->pairs.empty() || m_answer->answer->pairs.front().posterior < 0.005)
        return;
    drawLine(p, QRectF(12, y + 4, wide, 18), Qt::AlignVCenter, tr("two at once, against one alone"),
             textFont(TextSize::Small), t.muted);
    y += 24;
    for (size_t i = 0; i < std::min<size_t>(2, m_answer->answer->pairs.size()); ++i, y += barRow)
        row(y, qs(m_answer->answer->pairs[i].name), {}, m_answer->answer->pairs[i].posterior,
            false);
}

void CandidateBars::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    const auto i = static_cast<int>(std::floor((event->position().y() - barsTop) / barRow));
    if (i >= 0 && static_cast<size_t>(i) < rows())
        Q_EMIT picked(i);
}

void CandidateBars::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (by == 0 || rows() == 0)
        return QWidget::keyPressEvent(event);
    Q_EMIT picked(std::clamp(static_cast<int>(m_chosen) + by, 0, static_cast<int>(rows()) - 1));
}

} // namespace mildpath
