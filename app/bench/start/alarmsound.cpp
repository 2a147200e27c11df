// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/alarmsound.h"

#include <QApplication>
#include <QDataStream>
#include <QFile>

#include <canberra.h>

#include <cmath>

namespace mildpath {
namespace {

constexpr int again_ms = 900;
constexpr int samplesPerSecond = 22050;
constexpr double tone_s = 0.25;

/// Two tones, the second lower, as a sound file: 16 bit, one channel.
bool writeSound(const QString &path)
{
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly))
        return false;
    const int perTone = static_cast<int>(tone_s * samplesPerSecond);
    const auto bytes = static_cast<quint32>(2 * 2 * perTone);
    QDataStream out(&file);
    out.setByteOrder(QDataStream::LittleEndian);
    out.writeRawData("RIFF", 4);
    out << quint32(36 + bytes);
    out.writeRawData("WAVEfmt ", 8);
    out << quint32(16) << quint16(1) << quint16(1) << quint32(samplesPerSecond)
        << quint32(2 * samplesPerSecond) << quint16(2) << quint16(16);
    out.writeRawData("data", 4);
    out << bytes;
    for (const double hertz : { 880.0, 660.0 })
        for (int i = 0; i < perTone; ++i) {
            const double t = static_cast<double>(i) / samplesPerSecond;
            // Soft at both ends, so that it does not click.
            const double loud = std::min({ 1.0, t / 0.01, (tone_s - t) / 0.01 });
            out << qint16(std::lround(24000 * loud * std::sin(2 * M_PI * hertz * t)));
        }
    return file.error() == QFile::NoError;
}

} // namespace

AlarmSound::AlarmSound(QObject *parent)
    : QObject(parent)
{
    m_again.setInterval(again_ms);
    connect(&m_again, &QTimer::timeout, this, &AlarmSound::ring);
}

AlarmSound::~AlarmSound()
{
    if (m_context)
        ca_context_destroy(m_context);
}

void AlarmSound::setOn(bool on)
{
    if (on == isOn())
        return;
    if (!on) {
        m_again.stop();
        if (m_context)
            ca_context_cancel(m_context, 1);
        return;
    }
    m_again.start();
    ring();
}

void AlarmSound::ring()
{
    Q_EMIT rang();
    if (m_file.isEmpty() && m_folder.isValid()) {
        const QString path = m_folder.filePath(QStringLiteral("alarm.wav"));
        if (writeSound(path))
            m_file = path;
    }
    if (!m_context && ca_context_create(&m_context) != CA_SUCCESS)
        m_context = nullptr;
    const bool plays = m_context && !m_file.isEmpty()
        && ca_context_play(m_context, 1, CA_PROP_MEDIA_FILENAME, m_file.toLocal8Bit().constData(),
                           CA_PROP_EVENT_DESCRIPTION, "alarm", CA_PROP_CANBERRA_CACHE_CONTROL,
                           "volatile", nullptr)
            == CA_SUCCESS;
    if (!plays)
        QApplication::beep();
}

} // namespace mildpath
