// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/gaugeline.h"
#include "devices/serialline.h"

namespace mildpath {

/// A gauge on a serial port: readings as they come, and settled ones.
class SerialGauge : public SerialLine
{
    Q_OBJECT
public:
    /// How a reading is given.
    enum class Sends {
        AsItMoves, ///< a stream: a reading is taken when the needle holds still
        ByKey, ///< one line each time a key is pressed: each is a reading
    };

    explicit SerialGauge(QObject *parent = nullptr);

    void setSends(Sends sends) { m_sends = sends; }
    void setBareUnit(const std::string &unit) { m_stream.setBareUnit(unit); }
    void setSettling(const Settler::Options &options) { m_settler = Settler(options); }
    const Settler &settler() const { return m_settler; }

Q_SIGNALS:
    /// The needle: the latest reading, at most once a frame.
    void moved(double value_m);
    void settled(double mean_m, double spread_m);

protected:
    void received(const QByteArray &bytes, double at_s) override;
    void broken() override { m_settler.restart(); }
    LineStream &stream() override { return m_stream.lines(); }

private:
    GaugeStream m_stream;
    Settler m_settler;
    QTimer m_frame, m_gap;
    double m_latest_m = 0;
    Sends m_sends = Sends::AsItMoves;
};

} // namespace mildpath
