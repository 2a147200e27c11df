// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/gaugeline.h"

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <memory>

class QSerialPort;

namespace mildpath {

/// A gauge on a serial port: readings as they come, and settled ones. Survives its cable: when the
/// port goes away it says so and looks for it again.
class SerialGauge : public QObject
{
    Q_OBJECT
public:
    enum class State { Off, Listening, Lost };
    /// How a reading is given.
    enum class Sends {
        AsItMoves, ///< a stream: a reading is taken when the needle holds still
        ByKey, ///< one line each time a key is pressed: each is a reading
    };

    explicit SerialGauge(QObject *parent = nullptr);
    ~SerialGauge() override;

    /// @param port a device name or path. Errors: why it cannot be opened; nothing is changed then.
    Result<void> open(const QString &port, int baud = 9600);
    void close();
    State state() const { return m_state; }
    const QString &portName() const { return m_name; }
    void setSends(Sends sends) { m_sends = sends; }
    void setBareUnit(const std::string &unit) { m_stream.setBareUnit(unit); }
    void setSettling(const Settler::Options &options) { m_settler = Settler(options); }
    const Settler &settler() const { return m_settler; }
    /// Ports this machine has.
    static QStringList ports();

Q_SIGNALS:
    /// The needle: the latest reading, at most once a frame.
    void moved(double value_m);
    void settled(double mean_m, double spread_m);
    void stateChanged();
    /// Something arrived that is no reading; said at most once a second.
    void complained(const QString &text);

private:
    double now_s() const;
    void read();
    void lost(const QString &why);
    void lookAgain();

    std::unique_ptr<QSerialPort> m_port;
    GaugeStream m_stream;
    Settler m_settler;
    QElapsedTimer m_clock, m_sinceComplaint;
    QTimer m_frame, m_again, m_gap;
    QString m_name;
    int m_baud = 9600;
    double m_latest_m = 0;
    State m_state = State::Off;
    Sends m_sends = Sends::AsItMoves;
    double m_opened_s = 0;
    bool m_heard = false; ///< anything since the port was opened
};

} // namespace mildpath
