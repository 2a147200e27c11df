// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/gaugeneedle.h"

#include "devices/serialgauge.h"
#include "paint/text.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr double travel_um = 120; // what the scale shows

} // namespace

GaugeNeedle::GaugeNeedle(SerialGauge *gauge, QWidget *parent)
    : QWidget(parent)
    , m_gauge(gauge)
{
    setObjectName(QStringLiteral("gaugeNeedle"));
    setFixedHeight(26);
    setAccessibleName(tr("Gauge"));
    hide();
    if (!gauge)
        return;
    connect(gauge, &SerialGauge::stateChanged, this, &GaugeNeedle::follow);
    connect(gauge, &SerialGauge::moved, this, [this](double value) {
        m_value_m = value;
        m_any = true;
        update();
    });
    follow();
}

void GaugeNeedle::follow()
{
    m_any = m_any && m_gauge->state() == SerialGauge::State::Listening;
    setVisible(m_gauge->state() != SerialGauge::State::Off);
    update();
}

void GaugeNeedle::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF scale(4, 15, std::min(260.0, width() - 130.0), 5);
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.bench);
    p.drawRoundedRect(scale, 2, 2);
    const QFont font = textFont(TextSize::Small);
    if (m_gauge->state() == SerialGauge::State::Lost) {
        drawLine(p, QRectF(4, 0, width() - 8, 14), Qt::AlignVCenter,
                 tr("gauge unplugged, looking for it"), font, t.hold);
        return;
    }
    if (!m_any) {
        drawLine(p, QRectF(4, 0, width() - 8, 14), Qt::AlignVCenter,
                 tr("gauge connected, nothing heard yet"), font, t.muted);
        return;
    }
    const double um = m_value_m * 1e6;
    const double held = m_gauge->settler().progress();
    if (held > 0) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.selection);
        p.drawRoundedRect(QRectF(scale.left(), scale.top(), scale.width() * held, scale.height()),
                          2, 2);
    }
    const double x = scale.left() + scale.width() * std::clamp(um / travel_um, 0.0, 1.0);
    p.setPen(QPen(t.ink, 2));
    p.drawLine(QPointF(x, 3), QPointF(x, scale.bottom() + 2));
    drawLine(p, QRectF(scale.right() + 10, 6, 120, 18), Qt::AlignVCenter,
             Figure::clearance(um, 0.5).text(), textFont(TextSize::Body, true), t.ink);
}

} // namespace mildpath
