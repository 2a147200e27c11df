// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/waitscard.h"

#include "paint/text.h"
#include "plan/workplan.h"
#include "quantity/dates.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double waitRow = 24, waitHead = 26, waitNames = 268, waitAir = 18, waitFoot = 8;
constexpr size_t mostWaits = 4;
constexpr int leastCalendar = 7, mostCalendar = 42;

} // namespace

WaitsCard::WaitsCard(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("waitsCard"));
    setAccessibleName(tr("What it waits for"));
    setCursor(Qt::PointingHandCursor);
    setToolTip(tr("To the lists to order and to send"));
}

void WaitsCard::addToOrder(const Orders &orders)
{
    Row row { tr("To order"), {}, m_today, {}, false, false, true };
    QStringList names;
    for (const ToBuy &b : orders.buy)
        if (b.isToOrder()) {
            names << qs(b.row.what);
            if (!b.latest.empty() && (row.to.empty() || b.latest < row.to))
                row.to = b.latest;
        }
    if (names.isEmpty())
        return;
    row.detail = counted(names.size(), tr("thing"), tr("things"));
    if (row.to.empty())
        row.to = m_today;
    m_rows.push_back(std::move(row));
}

void WaitsCard::addUnderWay(const Orders &orders)
{
    const auto put = [&](const QString &name, const Order &order, const Check *check) {
        if (check && check->isUnderWay())
            m_rows.push_back({ name, qs(order.from), order.at.substr(0, 10), check->due,
                               check->promised, check->isLate(m_today), false });
    };
    for (const ToSend &s : orders.send)
        if (s.isUnderWay())
            put(qs(s.what()), *s.order, s.back);
    for (const ToBuy &b : orders.buy)
        if (b.isUnderWay())
            put(qs(b.row.what), *b.order, b.hand);
}

void WaitsCard::show(const Orders &orders, const WorkPlan *plan)
{
    m_rows.clear();
    m_start.reset();
    m_days = leastCalendar;
    if (plan) {
        m_today = plan->begins;
        addToOrder(orders);
        addUnderWay(orders);
        std::ranges::stable_sort(m_rows, {},
                                 [](const Row &r) { return std::pair(!r.toOrder, r.to); });
        const bool promised = std::ranges::any_of(m_rows, &Row::promised);
        if (plan->start_d && (promised || plan->showsHours()))
            m_start = plan->startDay(plan->start_d->likely_h);
        for (const Row &r : m_rows)
            m_days = std::max(m_days, daysBetween(m_today, r.to).value_or(0) + 2);
        if (m_start)
            m_days = std::max(m_days, daysBetween(m_today, *m_start).value_or(0) + 2);
        m_days = std::min(m_days, mostCalendar);
    }
    m_more = static_cast<int>(m_rows.size() - std::min(m_rows.size(), mostWaits));
    m_rows.resize(m_rows.size() - static_cast<size_t>(m_more));
    QStringList spoken;
    for (const Row &r : m_rows)
        spoken << QStringList { r.name, r.detail, saidOf(r) }.join(QStringLiteral(", "));
    if (m_start)
        spoken << tr("first start %1").arg(qs(nearDayText(*m_start)));
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    setVisible(!m_rows.empty());
    setFixedHeight(
        static_cast<int>(waitHead + waitRow * static_cast<double>(m_rows.size()) + waitFoot));
    update();
}

QString WaitsCard::saidOf(const Row &r) const
{
    const QString day = qs(nearDayText(r.to));
    if (r.late)
        return tr("was due %1").arg(day);
    if (r.toOrder)
        return r.to <= m_today ? tr("order at once") : tr("order by %1").arg(day);
    return r.promised ? tr("promised %1").arg(day) : tr("usually by %1").arg(day);
}

double WaitsCard::xOf(const std::string &day) const
{
    const double at = daysBetween(m_today, day).value_or(0);
    return waitNames
        + (width() - waitNames - waitAir) * std::clamp(at, 0.0, double(m_days)) / m_days;
}

void WaitsCard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small), bold = textFont(TextSize::Small, true);
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    drawLine(p, QRectF(12, 4, waitNames - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
             m_more > 0 ? tr("What it waits for, and %1 more").arg(m_more)
                        : tr("What it waits for"),
             textFont(TextSize::Normal, true), t.ink);
    const int step = std::max(1, static_cast<int>(70 * m_days / (width() - waitNames)) + 1);
    for (int d = 0; d <= m_days; d += step) {
        const std::string day = dayAfter(m_today, d);
        const double x = xOf(day);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x, waitHead - 3), QPointF(x, height() - waitFoot));
        if (x + 34 > width())
            break; // no room for its name
        drawLine(p, QRectF(x - 34, 4, 68, 16), Qt::AlignCenter, qs(nearDayText(day)),
                 d == 0 ? bold : small, d == 0 ? t.ink : t.muted);
    }
    for (size_t i = 0; i < m_rows.size(); ++i) {
        const Row &r = m_rows[i];
        const double y = waitHead + waitRow * (static_cast<double>(i) + 0.5);
        const double named = std::min(widthOf(r.name, bold), waitNames - 90);
        drawLine(p, QRectF(12, y - 9, named + 2, 18), Qt::AlignLeft | Qt::AlignVCenter, r.name,
                 bold, t.ink);
        drawLine(p, QRectF(18 + named, y - 9, waitNames - named - 30, 18),
                 Qt::AlignLeft | Qt::AlignVCenter, r.detail, small, t.muted);
        const double from = xOf(r.from < m_today ? m_today : r.from), to = xOf(r.to);
        QPen bar(r.toOrder ? t.oil[3] : t.cold, 5,
                 r.promised || r.toOrder ? Qt::SolidLine : Qt::DotLine, Qt::FlatCap);
        p.setPen(bar);
        p.drawLine(QPointF(from, y), QPointF(std::max(to, from + 2), y));
        p.setPen(QPen(r.late ? t.hold : t.ink, 2.5));
        p.drawLine(QPointF(to, y - 7), QPointF(to, y + 7));
        const QString said = saidOf(r);
        const double wide = widthOf(said, small) + 4;
        const bool rightOf = to + 8 + wide < width() - 4;
        drawLine(p, QRectF(rightOf ? to + 7 : to - 9 - wide, y - 9, wide, 18),
                 rightOf ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignRight | Qt::AlignVCenter,
                 said, small, r.late ? t.hold : t.ink);
    }
    if (m_start) {
        const double x = xOf(*m_start);
        QPen dashed(t.proven, 1.6, Qt::DashLine);
        p.setPen(dashed);
        p.drawLine(QPointF(x, waitHead - 3), QPointF(x, height() - waitFoot));
        const QString said = tr("first start");
        const double wide = widthOf(said, small) + 4;
        const bool rightOf = x + 6 + wide < width();
        drawLine(p, QRectF(rightOf ? x + 6 : x - wide - 4, height() - waitFoot - 16, wide, 16),
                 rightOf ? Qt::AlignLeft : Qt::AlignRight, said, small, t.proven);
    }
}

void WaitsCard::mousePressEvent(QMouseEvent *)
{
    Q_EMIT listAsked();
}

} // namespace mildpath
