// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/serialline.h"

#include <QFileInfo>
#include <QSerialPort>
#include <QSerialPortInfo>

#include <utility>

namespace mildpath {
namespace {

constexpr int lookAgain_ms = 500, complaint_ms = 1000;
/// A stream speaks more often than this; silence as long after opening means no line was cut.
constexpr double silence_s = 0.2;

} // namespace

SerialLine::SerialLine(QObject *parent)
    : QObject(parent)
{
    m_clock.start();
    m_again.setInterval(lookAgain_ms);
    connect(&m_again, &QTimer::timeout, this, &SerialLine::lookAgain);
}

SerialLine::~SerialLine() = default;

Result<void> SerialLine::open(const QString &port, int baud)
{
    auto fresh = std::make_unique<QSerialPort>(port);
    fresh->setBaudRate(baud);
    if (!fresh->open(QIODevice::ReadOnly))
        return fail(port.toStdString(), fresh->errorString().toStdString());
    if (m_port)
        m_port->disconnect(this);
    m_port = std::move(fresh);
    m_name = port;
    m_baud = baud;
    stream().forgetHalfLine();
    broken();
    m_opened_s = now_s();
    m_heard = false;
    connect(m_port.get(), &QSerialPort::readyRead, this, &SerialLine::read);
    connect(m_port.get(), &QSerialPort::errorOccurred, this,
            [this](QSerialPort::SerialPortError error) {
                if (error == QSerialPort::ResourceError || error == QSerialPort::DeviceNotFoundError
                    || error == QSerialPort::ReadError)
                    lost(m_port->errorString());
            });
    m_again.start();
    m_state = State::Listening;
    Q_EMIT stateChanged();
    return {};
}

void SerialLine::close()
{
    m_again.stop();
    if (m_port)
        m_port->disconnect(this);
    m_port.reset();
    m_state = State::Off;
    Q_EMIT stateChanged();
}

double SerialLine::now_s() const
{
    return static_cast<double>(m_clock.nsecsElapsed()) * 1e-9;
}

void SerialLine::read()
{
    const QByteArray bytes = m_port->readAll();
    const double at_s = now_s();
    if (!std::exchange(m_heard, true) && at_s - m_opened_s > silence_s)
        stream().beginsWhole();
    received(bytes, at_s);
}

void SerialLine::complain(const QString &text)
{
    if (m_sinceComplaint.isValid() && m_sinceComplaint.elapsed() <= complaint_ms)
        return;
    m_sinceComplaint.start();
    Q_EMIT complained(text);
}

void SerialLine::lost(const QString &why)
{
    if (m_state != State::Listening)
        return;
    m_state = State::Lost;
    stream().forgetHalfLine();
    broken();
    Q_EMIT complained(
        tr("The device is gone (%1). What was read stays; it is looked for again.").arg(why));
    Q_EMIT stateChanged();
}

void SerialLine::lookAgain()
{
    const bool there = QFileInfo::exists(m_name) || !QSerialPortInfo(m_name).isNull();
    if (m_state == State::Listening && !there)
        lost(tr("unplugged"));
    else if (m_state == State::Lost && there) {
        // The dead port still holds the name; it goes before the new one comes.
        if (m_port) {
            m_port->disconnect(this);
            m_port.reset();
        }
        open(m_name, m_baud);
    }
}

QStringList SerialLine::ports()
{
    QStringList out;
    for (const QSerialPortInfo &info : QSerialPortInfo::availablePorts())
        out << info.systemLocation();
    return out;
}

} // namespace mildpath
