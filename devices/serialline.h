// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/linestream.h"
#include "quantity/result.h"

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <memory>

class QSerialPort;

namespace mildpath {

/// A device on a serial port. Survives its cable: when the port goes away it says so and looks for
/// it again.
class SerialLine : public QObject
{
    Q_OBJECT
public:
    enum class State { Off, Listening, Lost };

    explicit SerialLine(QObject *parent);
    ~SerialLine() override;

    /// @param port a device name or path. Errors: why it cannot be opened; nothing is changed then.
    Result<void> open(const QString &port, int baud = 9600);
    void close();
    State state() const { return m_state; }
    const QString &portName() const { return m_name; }
    /// Ports this machine has.
    static QStringList ports();

Q_SIGNALS:
    void stateChanged();
    /// Something arrived that cannot be used, or the cable is out; of the former at most one a
    /// second.
    void complained(const QString &text);

protected:
    /// What arrived. `at_s` on a clock that only goes forward.
    virtual void received(const QByteArray &bytes, double at_s) = 0;
    /// A break: what was half said is lost.
    virtual void broken() = 0;
    virtual LineStream &stream() = 0;
    double now_s() const;
    void complain(const QString &text);

private:
    void read();
    void lost(const QString &why);
    void lookAgain();

    std::unique_ptr<QSerialPort> m_port;
    QElapsedTimer m_clock, m_sinceComplaint;
    QTimer m_again;
    QString m_name;
    int m_baud = 9600;
    State m_state = State::Off;
    double m_opened_s = 0;
    bool m_heard = false; ///< anything since the port was opened
};

} // namespace mildpath
