// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/stribeckview.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double leastLambda = 0.05, mostLambda = 60;
constexpr double leastFriction = 0.0015, mostFriction = 0.2;

} // namespace

StribeckView::StribeckView(QWidget *parent)
    : QWidget(parent)
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
    update();
}

double StribeckView::xOf(double lambda) const
{
    const double l = std::clamp(lambda, leastLambda, mostLambda);
    return m_area.left()
        + m_area.width() * std::log(l / leastLambda) / std::log(mostLambda / leastLambda);
}

double StribeckView::yOf(double friction) const
{
    const double f = std::clamp(friction, leastFriction, mostFriction);
    return m_area.bottom()
        - m_area.height() * std::log(f / leastFriction) / std::log(mostFriction / leastFriction);
}

void StribeckView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    m_area = QRectF(2, 2, width() - 6, height() - 24);
    const QFont small = textFont(TextSize::Small);
    const double edges[] = { leastLambda, 1, 3, mostLambda };
    const QColor tones[] = { t.hold, t.lookAgain, t.proven };
    const QString names[] = { tr("boundary"), tr("mixed"), tr("full film") };
    for (int i = 0; i < 3; ++i) {
        QColor fill = tones[i];
        fill.setAlpha(t.dark ? 46 : 34);
        const QRectF band(xOf(edges[i]), m_area.top(), xOf(edges[i + 1]) - xOf(edges[i]),
                          m_area.height());
        p.fillRect(band, fill);
        drawLine(p, QRectF(band.left(), m_area.bottom() - 19, band.width(), 16), Qt::AlignCenter,
                 names[i], small, tones[i]);
    }
    QPainterPath curve;
    for (int i = 0; i <= 120; ++i) {
        const double l = leastLambda * std::pow(mostLambda / leastLambda, i / 120.0);
        const QPointF here(xOf(l), yOf(stribeckFriction(l)));
        i == 0 ? curve.moveTo(here) : curve.lineTo(here);
    }
    p.setPen(QPen(t.ink, 2));
    p.setBrush(Qt::NoBrush);
    p.drawPath(curve);
    // Names find their own height: those to the left of the valley above the curve, the rest too,
    // one step higher where two would touch.
    std::vector<const Contact *> order;
    for (const Contact &c : m_contacts)
        order.push_back(&c);
    std::sort(order.begin(), order.end(), [](const Contact *a, const Contact *b) {
        return a->filmParameter < b->filmParameter;
    });
    std::vector<QRectF> used; // no name covers another contact
    for (const Contact *c : order) {
        const QPointF there(xOf(c->filmParameter), yOf(stribeckFriction(c->filmParameter)));
        used.push_back(QRectF(there - QPointF(11, 11), QSizeF(22, 22)));
    }
    for (const Contact *c : order) {
        const QPointF here(xOf(c->filmParameter), yOf(stribeckFriction(c->filmParameter)));
        p.setPen(QPen(t.ink, 1.5));
        p.setBrush(t.panel);
        p.drawEllipse(here, 9, 9);
        drawMark(p, here, 11, markOf(*c));
        const QString text = tr("%1  λ %2").arg(qs(c->name), qs(formatNumber(c->filmParameter, 1)));
        const QFont bold = textFont(TextSize::Normal, true);
        const double w = QFontMetricsF(bold).horizontalAdvance(text) + 4;
        QRectF label(std::clamp(here.x() - w / 2, m_area.left() + 2, m_area.right() - w - 2),
                     here.y() - 30, w, 17);
        const auto touches = [&](const QRectF &r) {
            return std::any_of(used.begin(), used.end(),
                               [&](const QRectF &u) { return u.intersects(r); });
        };
        bool below = false;
        while (touches(label) || label.top() < m_area.top() + 2) {
            if (!below && label.top() - 18 < m_area.top() + 2) {
                below = true;
                label.moveTop(here.y() + 14);
            } else {
                label.translate(0, below ? 18 : -18);
            }
        }
        if (!below && label.bottom() < here.y() - 16) {
            p.setPen(QPen(t.muted, 1));
            p.drawLine(QPointF(here.x(), here.y() - 10), QPointF(here.x(), label.bottom()));
        }
        drawLine(p, label, Qt::AlignCenter, text, bold, t.ink);
        used.push_back(label);
    }
    drawLine(p, QRectF(m_area.left(), m_area.bottom() + 4, m_area.width() / 2, 16),
             Qt::AlignVCenter, tr("friction up, film to the right"), small, t.muted);
    drawLine(p, QRectF(m_area.center().x(), m_area.bottom() + 4, m_area.width() / 2, 16),
             Qt::AlignVCenter | Qt::AlignRight, tr("film ÷ roughness, λ"), small, t.muted);
}

} // namespace mildpath
