// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/serialgauge.h"

namespace mildpath {
namespace {

constexpr int frame_ms = 16, gap_ms = 1000;

} // namespace

SerialGauge::SerialGauge(QObject *parent)
    : SerialLine(parent)
{
    m_frame.setSingleShot(true);
    m_frame.setInterval(frame_ms);
    connect(&m_frame, &QTimer::timeout, this, [this] { Q_EMIT moved(m_latest_m); });
    m_gap.setSingleShot(true);
    m_gap.setInterval(gap_ms);
    connect(&m_gap, &QTimer::timeout, this, [this] {
        // A gap: what was held is no longer one hold.
        m_settler.restart();
    });
}

void SerialGauge::received(const QByteArray &bytes, double at_s)
{
    const auto taken = m_stream.take({ bytes.constData(), static_cast<size_t>(bytes.size()) });
    for (const double value : taken.readings_m)
        if (m_sends == Sends::ByKey)
            Q_EMIT settled(value, 0);
        else if (m_settler.take(value, at_s))
            Q_EMIT settled(m_settler.settled().mean_m, m_settler.settled().spread_m);
    if (!taken.readings_m.empty()) {
        m_latest_m = taken.readings_m.back();
        if (!m_frame.isActive())
            m_frame.start();
    }
    // Something unreadable between two readings breaks the hold: it may have been the needle
    // moving.
    if (taken.refused > 0) {
        m_settler.restart();
        complain(QString::fromStdString(render(taken.reason)));
    }
    m_gap.start();
}

} // namespace mildpath
