// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/serialsender.h"

#include <algorithm>

namespace mildpath {

SerialSender::SerialSender(QObject *parent)
    : SerialLine(parent)
{
}

void SerialSender::received(const QByteArray &bytes, double at_s)
{
    for (const auto &line :
         m_stream.take({ bytes.constData(), static_cast<size_t>(bytes.size()) })) {
        const auto reading = line
            ? parseSenderLine(*line)
            : Result<SenderReading>(fail("", "a line of more than 120 characters is no reading"));
        if (!reading) {
            complain(QString::fromStdString(render(reading.error().message)));
            continue;
        }
        const double said_s = reading->clock_s.value_or(at_s);
        // A sender that was switched off begins anew; its clock must not take the log back.
        m_last_s = said_s < m_last_s - 1 ? said_s : std::max(m_last_s, said_s);
        Q_EMIT read(*reading, m_last_s);
    }
}

} // namespace mildpath
