// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/cutviews.h"

#include "paint/marks.h"
#include "plot/axis.h"
#include "quantity/rounding.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int rowHigh = 20;
constexpr double labels = 168, rightGap = 16, topGap = 20, axisGap = 34, firstShare = 0.24;

} // namespace

CutChart::CutChart(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("cutChart"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(200);
}

void CutChart::show(const Build &build, const CutReport &report, const std::string &chosen)
{
    m_report = report;
    m_chosen = chosen;
    m_bars.clear();
    m_most_h = 1;
    QStringList spoken;
    for (const JudgedCut &j : report.cuts) {
        for (const FilterCut &c : build.filterCuts)
            if (c.id == j.id)
                m_bars.push_back({ c.engine_h - c.filter_h, c.engine_h });
        m_most_h = std::max(m_most_h, j.engine_h);
        spoken << tr("%1 h: %2").arg(qs(formatPlain(j.engine_h, 0)), qs(j.verdict));
    }
    m_first_h = std::max(1.0, *valueOf(build.after.values, afterKeys(), "first_hours_h"));
    m_most_h = std::max(m_most_h * 1.04, m_first_h * 2);
    setAccessibleName(tr("Particles by kind against hours"));
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

QRectF CutChart::area() const
{
    return QRectF(labels, topGap, width() - labels - rightGap, height() - topGap - axisGap);
}

/// The first hours take a share of the width of their own: they are short, and full of filters.
double CutChart::x(double hours) const
{
    const QRectF r = area();
    const double first = r.width() * firstShare;
    return hours <= m_first_h
        ? r.left() + hours / m_first_h * first
        : r.left() + first + (hours - m_first_h) / (m_most_h - m_first_h) * (r.width() - first);
}

void CutChart::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    const QRectF r = area();
    if (m_report.cuts.empty()) {
        drawLine(p, QRectF(14, 12, width() - 28, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("No filter was cut yet. Record the first one below."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    p.fillRect(QRectF(r.left(), r.top(), x(m_first_h) - r.left(), r.height()), t.selectionFill);
    drawLine(p, QRectF(r.left() + 3, 4, 260, 14), Qt::AlignLeft,
             tr("first hours, on scales of their own"), textFont(TextSize::Small), t.muted);
    Axis first { 0, m_first_h, r.left(), x(m_first_h) };
    first.count = 2;
    drawAlong(p, first, r);
    Axis later { m_first_h, m_most_h, x(m_first_h), r.right() };
    later.name = tr("hours of the engine");
    drawAlong(p, later, r);
    const double lane = r.height() / static_cast<double>(cutKinds().size());
    for (size_t k = 0; k < cutKinds().size(); ++k)
        paintLane(p, k, QRectF(r.left(), r.top() + lane * static_cast<double>(k), r.width(), lane));
    for (size_t i = 0; i < m_bars.size(); ++i)
        if (m_report.cuts[i].id == m_chosen) {
            p.setPen(QPen(t.selection, hasFocus() ? 2 : 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(QRectF(QPointF(x(m_bars[i].from_h) - 1, r.top() - 2),
                                     QPointF(x(m_bars[i].to_h) + 1, r.bottom() + 1)),
                              3, 3);
        }
}

void CutChart::paintLane(QPainter &p, size_t kind, const QRectF &lane) const
{
    const Theme &t = Theme::current();
    const CutKind &k = cutKinds()[kind];
    double most[] = { 1e-9, 1e-9 }; // later, first hours
    for (const JudgedCut &c : m_report.cuts)
        most[c.firstHours] = std::max(most[c.firstHours], c.kinds[kind].per100h_100cm2);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(8, lane.bottom()), QPointF(lane.right(), lane.bottom()));
    drawLine(p, QRectF(12, lane.center().y() - 15, labels - 20, 15), Qt::AlignLeft, qs(k.name),
             textFont(TextSize::Normal, true), t.ink);
    drawLine(p, QRectF(12, lane.center().y() + 1, labels - 20, 14), Qt::AlignLeft, qs(k.means),
             textFont(TextSize::Small), t.muted);
    for (size_t i = 0; i < m_report.cuts.size(); ++i) {
        const JudgedKind &j = m_report.cuts[i].kinds[kind];
        const QRectF slot(QPointF(x(m_bars[i].from_h) + 1, lane.top() + 16),
                          QPointF(x(m_bars[i].to_h) - 1, lane.bottom()));
        if (!j.count) {
            drawLine(p, slot.adjusted(-20, -4, 20, -2), Qt::AlignHCenter | Qt::AlignBottom,
                     QStringLiteral("–"), textFont(TextSize::Small), t.faint);
            continue;
        }
        const double high = j.per100h_100cm2 / most[m_report.cuts[i].firstHours] * slot.height();
        const QRectF bar(slot.left(), slot.bottom() - high, slot.width(), high);
        const bool plain = j.mark == Mark::Proven || j.mark == Mark::NotDone;
        p.fillRect(bar, plain ? t.oil[1] : t.mark(j.mark));
        const double above = bar.top() - 14;
        const QString number = qs(formatNumber(*j.count, 0));
        drawLine(p, QRectF(bar.center().x() - 30, above, 60, 13), Qt::AlignHCenter, number,
                 textFont(TextSize::Small, !plain), plain ? t.muted : t.mark(j.mark));
        if (!plain)
            drawMark(p, { bar.center().x() - 16, above + 7 }, 10, j.mark);
    }
}

void CutChart::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    for (size_t i = m_bars.size(); i-- > 0;)
        if (event->position().x() >= x(m_bars[i].from_h) - 4
            && event->position().x() <= x(m_bars[i].to_h) + 4)
            return Q_EMIT picked(qs(m_report.cuts[i].id));
}

void CutChart::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Left ? -1 : event->key() == Qt::Key_Right ? 1 : 0;
    const auto at = std::ranges::find(m_report.cuts, m_chosen, &JudgedCut::id);
    if (by == 0 || m_report.cuts.empty())
        return QWidget::keyPressEvent(event);
    const auto i = std::clamp<std::ptrdiff_t>(at - m_report.cuts.begin() + by, 0,
                                              std::ssize(m_report.cuts) - 1);
    Q_EMIT picked(qs(m_report.cuts[static_cast<size_t>(i)].id));
}

CutComparison::CutComparison(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("cutComparison"));
    setAccessibleName(tr("Against the cut before"));
}

void CutComparison::show(const JudgedCut *cut)
{
    m_kinds.clear();
    QStringList spoken;
    if (cut)
        for (const JudgedKind &k : cut->kinds)
            // None in either says nothing more.
            if (k.against && k.against->low95) {
                m_kinds.push_back(k);
                spoken << qs(findCutKind(k.kind)->name) + QStringLiteral(": ")
                        + qs(comparisonText(*k.against));
            }
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    setFixedHeight(28 + rowHigh * static_cast<int>(std::max<size_t>(1, m_kinds.size())) + 20);
    update();
}

void CutComparison::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    drawLine(p, QRectF(14, 6, width() - 28, 18), Qt::AlignLeft | Qt::AlignVCenter,
             tr("Times the rate of the other cut, by hours and area, with the 95 % interval"),
             textFont(TextSize::Normal, true), t.ink);
    if (m_kinds.empty()) {
        drawLine(p, QRectF(14, 28, width() - 28, 18), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("Nothing like it in hours was cut before: choose another cut beside."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    const double text = std::min(330.0, width() * 0.42);
    const QRectF r(labels, 28, width() - labels - rightGap - text, height() - 28 - 20);
    const Axis axis { 0.02, 50, r.left(), r.right(), Shows::Number, Scale::Log };
    for (const double v : { 0.1, 1.0, 10.0 }) {
        p.setPen(QPen(v == 1 ? t.muted : t.line, 1, v == 1 ? Qt::DashLine : Qt::SolidLine));
        p.drawLine(QPointF(axis.at(v), r.top()), QPointF(axis.at(v), r.bottom() + 2));
        drawLine(p, QRectF(axis.at(v) - 40, r.bottom() + 3, 80, 14), Qt::AlignHCenter,
                 v == 1 ? tr("same rate") : QStringLiteral("×") + axis.tick(v),
                 textFont(TextSize::Small), t.muted);
    }
    const auto inside = [&](double v) { return std::clamp(axis.at(v), r.left(), r.right()); };
    for (size_t i = 0; i < m_kinds.size(); ++i) {
        const CountComparison &c = *m_kinds[i].against;
        const double y = r.top() + rowHigh * (static_cast<double>(i) + 0.5);
        drawLine(p, QRectF(12, y - 9, labels - 16, 18), Qt::AlignLeft | Qt::AlignVCenter,
                 qs(findCutKind(m_kinds[i].kind)->name), textFont(TextSize::Normal), t.ink);
        const bool plain = m_kinds[i].mark == Mark::Proven;
        const QColor colour = plain ? t.ink : t.mark(m_kinds[i].mark);
        p.setPen(QPen(colour, 2));
        // An end that is not known runs off the scale.
        p.drawLine(QPointF(inside(std::max(*c.low95, 1e-9)), y),
                   QPointF(c.high95 ? inside(std::max(*c.high95, 1e-9)) : r.right(), y));
        if (c.ratio) {
            p.setBrush(colour);
            p.drawEllipse(QPointF(inside(std::max(*c.ratio, 1e-9)), y), 3.5, 3.5);
        }
        drawLine(p, QRectF(r.right() + 10, y - 9, text, 18), Qt::AlignLeft | Qt::AlignVCenter,
                 qs(comparisonText(c)), textFont(TextSize::Small), plain ? t.muted : colour);
    }
}

} // namespace mildpath
