// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/serialgauge.h"

#include <QFileInfo>
#include <QSerialPort>
#include <QSerialPortInfo>

#include <utility>

namespace mildpath {
namespace {

constexpr int frame_ms = 16, lookAgain_ms = 500, gap_ms = 1000, complaint_ms = 1000;
/// A stream speaks more often than this; silence as long after opening means no line was cut.
constexpr double silence_s = 0.2;

} // namespace

SerialGauge::SerialGauge(QObject *parent)
    : QObject(parent)
{
    m_clock.start();
    m_frame.setSingleShot(true);
    m_frame.setInterval(frame_ms);
    connect(&m_frame, &QTimer::timeout, this, [this] { Q_EMIT moved(m_latest_m); });
    m_again.setInterval(lookAgain_ms);
    connect(&m_again, &QTimer::timeout, this, &SerialGauge::lookAgain);
    m_gap.setSingleShot(true);
    m_gap.setInterval(gap_ms);
    connect(&m_gap, &QTimer::timeout, this, [this] {
        // A gap: what was held is no longer one hold.
        m_settler.restart();
    });
}

SerialGauge::~SerialGauge() = default;

Result<void> SerialGauge::open(const QString &port, int baud)
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
    m_stream.forgetHalfLine();
    m_settler.restart();
    m_opened_s = now_s();
    m_heard = false;
    connect(m_port.get(), &QSerialPort::readyRead, this, &SerialGauge::read);
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

void SerialGauge::close()
{
    m_again.stop();
    m_gap.stop();
    if (m_port)
        m_port->disconnect(this);
    m_port.reset();
    m_state = State::Off;
    Q_EMIT stateChanged();
}

double SerialGauge::now_s() const
{
    return static_cast<double>(m_clock.nsecsElapsed()) * 1e-9;
}

void SerialGauge::read()
{
    const QByteArray bytes = m_port->readAll();
    const double at_s = now_s();
    if (!std::exchange(m_heard, true) && at_s - m_opened_s > silence_s)
        m_stream.beginsWhole();
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
        if (!m_sinceComplaint.isValid() || m_sinceComplaint.elapsed() > complaint_ms) {
            m_sinceComplaint.start();
            Q_EMIT complained(QString::fromStdString(taken.reason));
        }
    }
    m_gap.start();
}

void SerialGauge::lost(const QString &why)
{
    if (m_state != State::Listening)
        return;
    m_state = State::Lost;
    m_settler.restart();
    m_stream.forgetHalfLine();
    Q_EMIT complained(
        tr("The gauge is gone (%1). Readings stay; it is looked for again.").arg(why));
    Q_EMIT stateChanged();
}

void SerialGauge::lookAgain()
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

QStringList SerialGauge::ports()
{
    QStringList out;
    for (const QSerialPortInfo &info : QSerialPortInfo::availablePorts())
        out << info.systemLocation();
    return out;
}

} // namespace mildpath
