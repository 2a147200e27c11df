// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/senderline.h"
#include "devices/serialline.h"

namespace mildpath {

/// A sender of pressure, speed and oil temperature on a serial port: every reading as it comes.
class SerialSender : public SerialLine
{
    Q_OBJECT
public:
    explicit SerialSender(QObject *parent = nullptr);

Q_SIGNALS:
    /// @param at_s  when: by the sender's own clock where it has one, else when it arrived. Falls
    ///              only when a sender was switched off and began anew.
    void read(const mildpath::SenderReading &reading, double at_s);

protected:
    void received(const QByteArray &bytes, double at_s) override;
    void broken() override { }
    LineStream &stream() override { return m_stream; }

private:
    static constexpr size_t longestLine = 120;
    LineStream m_stream { longestLine };
    double m_last_s = 0;
};

} // namespace mildpath
