// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/stribeckview.h"

#include "paint/marks.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double leastLambda = 0.05, mostLambda = 60;
constexpr double leastFriction = 0.0015, mostFriction = 0.2;

Chart frictionChart()
{
    const Theme &t = Theme::current();
    Chart chart;
    chart.x = { leastLambda, mostLambda, 0, 1, Shows::Number, Scale::Log };
    chart.x.name = StribeckView::tr("film ÷ roughness, λ");
    chart.x.own = { 0.1, 0.3, 1, 3, 10, 30 };
    chart.y = { leastFriction, mostFriction, 0, 1, Shows::Number, Scale::Log };
    chart.y.name = StribeckView::tr("friction");
    chart.y.count = 0;
    const double edges[] = { leastLambda, 1, 3, mostLambda };
    const QColor tones[] = { t.hold, t.lookAgain, t.proven };
    const QString names[] = { StribeckView::tr("boundary"), StribeckView::tr("mixed"),
                              StribeckView::tr("full film") };
    for (size_t i = 0; i < 3; ++i) {
        QColor fill = tones[i];
        fill.setAlpha(t.dark ? 46 : 34);
        chart.zones.push_back({ names[i], fill, tones[i], edges[i], edges[i + 1] });
    }
    ChartLine curve { {}, t.ink, {}, {} };
    curve.width = 2;
    for (int i = 0; i <= 120; ++i) {
        curve.x.push_back(leastLambda * std::pow(mostLambda / leastLambda, i / 120.0));
        curve.y.push_back(
            std::clamp(stribeckFriction(curve.x.back()), leastFriction, mostFriction));
    }
    chart.lines.push_back(std::move(curve));
    return chart;
}

} // namespace

StribeckView::StribeckView(QWidget *parent)
    : ChartView(parent)
{
    setObjectName(QStringLiteral("stribeck"));
    setMinimumSize(240, 200);
}

void StribeckView::setContacts(std::vector<Contact> contacts)
{
    m_contacts = std::move(contacts);
    QStringList spoken;
    for (const Contact &c : m_contacts)
        spoken << tr("%1 λ %2, %3")
                      .arg(qs(c.name), qs(formatNumber(c.filmParameter, 1)),
                           QString::fromUtf8(regimeWord(c.regime)));
    setAccessibleName(tr("Contacts on the friction curve: ") + spoken.join(QStringLiteral("; ")));
    Chart chart = frictionChart();
    std::sort(m_contacts.begin(), m_contacts.end(),
              [](const Contact &a, const Contact &b) { return a.filmParameter < b.filmParameter; });
    setChart(std::move(chart));
}

QPointF StribeckView::placeOf(const Contact &c) const
{
    return at(std::clamp(c.filmParameter, leastLambda, mostLambda),
              std::clamp(stribeckFriction(c.filmParameter), leastFriction, mostFriction));
}

/// Every contact its mark on the curve, its name beside: near where there is room, else led there.
void StribeckView::paintOver(QPainter &p, LabelSpace &space)
{
    const Theme &t = Theme::current();
    for (const Contact &c : m_contacts)
        space.block(QRectF(placeOf(c) - QPointF(10, 10), QSizeF(20, 20)));
    for (const Contact &c : m_contacts) {
        const QPointF here = placeOf(c);
        p.setPen(QPen(t.ink, 1.5));
        p.setBrush(t.panel);
        p.drawEllipse(here, 9, 9);
        drawMark(p, here, 11, markOf(c));
    }
    const QFont bold = textFont(TextSize::Normal, true);
    for (const Contact &c : m_contacts) {
        const QPointF here = placeOf(c);
        const QString text = tr("%1  λ %2").arg(qs(c.name), qs(formatNumber(c.filmParameter, 1)));
        const double w = QFontMetricsF(bold).horizontalAdvance(text) + 4;
        std::vector<QRectF> places;
        for (double away = 0; away < 130; away += 18)
            for (const double top : { here.y() - 29 - away, here.y() + 12 + away })
                for (const double left : { here.x() - w / 2, here.x() + 6, here.x() - w - 6 })
                    if (top > space.area().top() && top + 17 < space.area().bottom())
                        places.push_back({ left, top, w, 17 });
        if (places.empty())
            continue;
        const QRectF label = space.findPlace(places);
        const double gap
            = label.bottom() < here.y() ? here.y() - label.bottom() : label.top() - here.y();
        if (gap > 16) {
            const bool above = label.bottom() < here.y();
            p.setPen(QPen(t.muted, 1));
            p.drawLine(here + QPointF(0, above ? -10 : 10),
                       QPointF(std::clamp(here.x(), label.left() + 4, label.right() - 4),
                               above ? label.bottom() : label.top()));
        }
        drawLine(p, label, Qt::AlignCenter, text, bold, t.ink);
    }
}

} // namespace mildpath
