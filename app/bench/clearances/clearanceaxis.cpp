// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/clearanceaxis.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double labelWidth = 116, top = 34, bottom = 64;
constexpr double thou_um = 25.4;

/// Distance of the uprights that gives about eight of them.
double stepFor(double range_um)
{
    for (const double step : { 2.0, 5.0, 10.0, 20.0, 50.0, 100.0 })
        if (range_um / step <= 9)
            return step;
    return 200;
}

} // namespace

ClearanceAxis::ClearanceAxis(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("clearanceAxis"));
    setMinimumHeight(196);
    setAccessibleName(
        tr("Clearances of the family on one axis; the figures stand in the entry cells"));
}

void ClearanceAxis::setFamily(const std::string &family)
{
    m_family = family;
    update();
}

void ClearanceAxis::setItem(const std::string &stop, int item)
{
    m_stop = stop;
    m_item = item;
    update();
}

std::vector<const GaugedSize *> ClearanceAxis::rows() const
{
    std::vector<const GaugedSize *> out;
    for (const GaugedSize &c : m_open.sizes())
        if (c.family == m_family)
            out.push_back(&c);
    return out;
}

ClearanceAxis::Scale ClearanceAxis::scale() const
{
    double low = 1e9, high = -1e9;
    const auto take = [&](double um) {
        low = std::min(low, um);
        high = std::max(high, um);
    };
    for (const GaugedSize *c : rows()) {
        if (!c->known)
            continue;
        take(c->running_um);
        take(c->cold_um.value);
        for (const JudgedReading &r : c->readings)
            if (!r.unlikely)
                take(r.at20_um);
        if (c->limits) {
            take(c->limits->min_um);
            take(c->limits->max_um);
            if (c->limits->target_um)
                take(*c->limits->target_um);
        }
    }
    if (low > high)
        low = 0, high = 100;
    const double step = stepFor(high - low);
    return { std::max(0.0, std::floor((low - 0.8 * step) / step) * step),
             std::ceil((high + 0.8 * step) / step) * step, labelWidth + 16, width() - 18.0 };
}

QRectF ClearanceAxis::rowArea(size_t row, size_t count) const
{
    const double height
        = (this->height() - top - bottom) / static_cast<double>(std::max<size_t>(1, count));
    return { 0, top + height * static_cast<double>(row), static_cast<double>(width()), height };
}

void ClearanceAxis::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto all = rows();
    if (all.empty())
        return;
    const Scale s = scale();
    for (size_t i = 0; i < all.size(); ++i)
        if (all[i]->stop == m_stop && all[i]->item == m_item) {
            p.setPen(Qt::NoPen);
            p.setBrush(Theme::current().selectionFill);
            p.drawRoundedRect(rowArea(i, all.size()).adjusted(0, 2, 0, -2), 5, 5);
        }
    paintLimits(p, s);
    paintRule(p, s);
    paintAxis(p, s);
    for (size_t i = 0; i < all.size(); ++i)
        paintRow(p, s, *all[i], rowArea(i, all.size()));
    paintKey(p);
}

void ClearanceAxis::paintLimits(QPainter &p, const Scale &s) const
{
    const Theme &t = Theme::current();
    const auto it = m_open.build().limits.find(m_family);
    if (it == m_open.build().limits.end())
        return;
    const Limits &l = it->second;
    const QRectF band(s.x(l.min_um), top - 4, s.x(l.max_um) - s.x(l.min_um),
                      height() - top - bottom + 8);
    QColor fill = t.proven;
    fill.setAlphaF(t.dark ? 0.16F : 0.11F);
    p.fillRect(band, fill);
    const QFont font = textFont(TextSize::Small);
    drawLine(p, QRectF(band.left() + 4, band.top() - 28, 260, 14), Qt::AlignVCenter,
             tr("%1 limits %2 to %3")
                 .arg(qs(l.source.empty() ? "the" : l.source), Figure::limit(l.min_um).number,
                      Figure::limit(l.max_um).text()),
             font, t.proven);
    if (l.target_um) {
        const double x = s.x(*l.target_um);
        p.setPen(QPen(t.proven, 1.4, Qt::DashLine));
        p.drawLine(QPointF(x, band.top() - 10), QPointF(x, band.bottom()));
        drawLine(p, QRectF(x + 4, band.top() - 14, 140, 14), Qt::AlignVCenter,
                 tr("target %1").arg(Figure::limit(*l.target_um).number), font, t.proven);
    }
}

/// A thousandth of the journal: a line to compare with, no limit.
void ClearanceAxis::paintRule(QPainter &p, const Scale &s) const
{
    const auto all = rows();
    if (all.empty() || !findFamily(m_family)->shells)
        return;
    const double rule = all.front()->rule_um;
    if (!(rule > s.from && rule < s.to))
        return;
    const Theme &t = Theme::current();
    p.setPen(QPen(t.muted, 1, Qt::DotLine));
    p.drawLine(QPointF(s.x(rule), top - 4), QPointF(s.x(rule), height() - bottom + 4));
    // Beside the target's words, away from them.
    const Limits *l = all.front()->limits ? &*all.front()->limits : nullptr;
    const bool left = l && l->target_um && rule < *l->target_um;
    drawLine(p, QRectF(left ? s.x(rule) - 124 : s.x(rule) + 4, top - 18, 120, 14),
             (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
             tr("rule of thumb: %1").arg(Figure::limit(rule).number), textFont(TextSize::Small),
             t.muted);
}

void ClearanceAxis::paintAxis(QPainter &p, const Scale &s) const
{
    const Theme &t = Theme::current();
    const double end = height() - bottom;
    const QFont first = textFont(TextSize::Normal), second = textFont(TextSize::Small);
    const auto row = [&](UnitSystem system, double y, const QFont &font, const QColor &colour) {
        for (const double m : niceTicks(s.from * 1e-6, s.to * 1e-6, Shows::Clearance, 9, system))
            drawLine(p, QRectF(s.x(m * 1e6) - 24, y, 48, 15), Qt::AlignCenter,
                     tickOf(m, Shows::Clearance, system), font, colour);
        drawLine(p, QRectF(s.left - 72, y, 50, 15), Qt::AlignRight | Qt::AlignVCenter,
                 qs(shownUnit(Shows::Clearance, system)), font, t.muted);
    };
    const UnitSystem system = Figure::system();
    p.setPen(QPen(t.line, 1));
    for (const double m : niceTicks(s.from * 1e-6, s.to * 1e-6, Shows::Clearance, 9))
        p.drawLine(QPointF(s.x(m * 1e6), top - 4), QPointF(s.x(m * 1e6), end + 4));
    row(system == UnitSystem::Imperial ? system : UnitSystem::Metric, end + 7, first, t.ink);
    // The other system's own round numbers, where both are asked for.
    if (system == UnitSystem::Both)
        row(UnitSystem::Imperial, end + 22, second, t.muted);
}

void ClearanceAxis::paintRow(QPainter &p, const Scale &s, const GaugedSize &c,
                             const QRectF &area) const
{
    const Theme &t = Theme::current();
    const bool selected = c.stop == m_stop && c.item == m_item;
    const double y = area.center().y();
    drawLine(p, QRectF(10, y - 10, 82, 20), Qt::AlignVCenter, qs(c.name),
             textFont(TextSize::Body, selected), selected ? t.selection : t.ink);
    drawMark(p, QPointF(labelWidth - 14, y), 13, c.mark);

    const double cold = s.x(c.cold_um.value);
    if (!c.measured) {
        // Assumed: a faint bar as wide as what is not known.
        p.setPen(QPen(t.faint, 1.2, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        if (c.limits)
            p.drawRoundedRect(QRectF(s.x(c.limits->min_um), y - 8,
                                     s.x(c.limits->max_um) - s.x(c.limits->min_um), 16),
                              8, 8);
        drawLine(p, QRectF(cold - 80, y - 8, 160, 16), Qt::AlignCenter, tr("not gauged, assumed"),
                 textFont(TextSize::Small), t.muted);
    }
    paintReadings(p, s, c, y);
    if (!c.measured || !c.growth.grows())
        return;
    // Running: a triangle just under the line, its figure to the left.
    const double running = s.x(c.running_um);
    const double base = y + std::min(19.0, area.height() / 2 + 3);
    p.setPen(QPen(t.oil[3], 1));
    p.setBrush(t.oil[2]);
    p.drawPolygon(QPolygonF {
        { QPointF(running, base - 12), QPointF(running + 6, base), QPointF(running - 6, base) } });
    drawLine(p, QRectF(running - 90, base - 13, 80, 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("%1 hot").arg(Figure::clearance(c.running_um, 1).number), textFont(TextSize::Small),
             t.warm);
}

void ClearanceAxis::paintReadings(QPainter &p, const Scale &s, const GaugedSize &c, double y) const
{
    const Theme &t = Theme::current();
    double least = 1e9, most = -1e9;
    for (const JudgedReading &r : c.readings) {
        if (r.method == "drop_feel")
            continue;
        least = std::min(least, std::clamp(s.x(r.at20_um), s.left, s.right));
        most = std::max(most, std::clamp(s.x(r.at20_um), s.left, s.right));
    }
    for (const MethodResult &m : c.methods)
        if (m.method == "drop_feel") {
            // A feel is a band, so it is drawn as one.
            const double from = std::clamp(s.x(m.low_um), s.left, s.right);
            const double to = std::clamp(s.x(m.high_um), s.left, s.right);
            p.setPen(QPen(t.lookAgain, 1, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(QRectF(from, y - 9, to - from, 18), 4, 4);
        }
    if (most > least) {
        p.setPen(QPen(t.line, 5, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(least, y), QPointF(most, y));
    }
    for (const JudgedReading &r : c.readings) {
        if (r.method == "drop_feel")
            continue;
        const QPointF at(std::clamp(s.x(r.at20_um), s.left, s.right), y);
        const QColor colour = r.pastLimit ? t.hold : t.ink;
        p.setPen(QPen(colour, 1.8));
        p.setBrush(r.station == 1 ? colour : t.panel);
        // Round: the method that decides. Square: one that only compares.
        if (r.method == c.method())
            p.drawEllipse(at, 5, 5);
        else
            p.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8));
    }
}

void ClearanceAxis::paintKey(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont font = textFont(TextSize::Small);
    const double y = height() - 12;
    const QString hot
        = tr("running, oil %1").arg(Figure::temperature(m_open.build().use.hotOil_c).text());
    const auto all = rows();
    double x = width() - 18;
    const auto word = [&](const QString &text) {
        x -= QFontMetricsF(font).horizontalAdvance(text);
        drawLine(p, QRectF(x, y - 8, 240, 16), Qt::AlignVCenter, text, font, t.muted);
        x -= 12;
    };
    if (std::any_of(all.begin(), all.end(),
                    [](const GaugedSize *c) { return c->measured && c->growth.grows(); })) {
        word(hot);
        p.setPen(QPen(t.oil[3], 1));
        p.setBrush(t.oil[2]);
        p.drawPolygon(
            QPolygonF { { QPointF(x, y - 6), QPointF(x + 6, y + 5), QPointF(x - 6, y + 5) } });
        x -= 24;
    }
    const bool compared = std::any_of(all.begin(), all.end(), [](const GaugedSize *c) {
        return std::any_of(c->readings.begin(), c->readings.end(), [&](const JudgedReading &r) {
            return r.method != c->method() && r.method != "drop_feel";
        });
    });
    if (compared) {
        word(tr("compared only"));
        p.setPen(QPen(t.ink, 1.6));
        p.setBrush(t.panel);
        p.drawRect(QRectF(x - 4, y - 4, 8, 8));
        x -= 24;
    }
    const PlanKind plan = findFamily(m_family)->plan;
    if (plan != PlanKind::Shell && plan != PlanKind::Bush)
        return;
    for (const auto &[name, front] :
         { std::pair(plan == PlanKind::Shell ? tr("rear of the shell") : tr("rear"), false),
           std::pair(tr("front"), true) }) {
        word(name);
        p.setPen(QPen(t.ink, 1.6));
        p.setBrush(front ? t.ink : t.panel);
        p.drawEllipse(QPointF(x, y), 4.5, 4.5);
        x -= 24;
    }
}

void ClearanceAxis::mousePressEvent(QMouseEvent *event)
{
    const auto all = rows();
    for (size_t i = 0; i < all.size(); ++i)
        if (rowArea(i, all.size()).contains(event->position()))
            Q_EMIT chosen(qs(all[i]->stop), all[i]->item);
}

} // namespace mildpath
