// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QProcess>
#include <QString>
#include <QtTest>

namespace mildpath {

/// The simulated engine as a process beside the application, with somebody at drill and switch.
class EngineSim
{
public:
    /// @param arguments  after the build's file
    bool start(const QString &file, std::initializer_list<const char *> arguments)
    {
        QStringList words { file };
        for (const char *a : arguments)
            words << QString::fromUtf8(a);
        m_process.setProgram(QString::fromUtf8(engineSimProgram));
        m_process.setArguments(words);
        m_process.start();
        if (!m_process.waitForStarted(5000) || !m_process.waitForReadyRead(20000))
            return false;
        m_port = QString::fromUtf8(m_process.readLine()).trimmed();
        return !m_port.isEmpty();
    }
    const QString &port() const { return m_port; }
    void order(const char *text)
    {
        m_process.write(QByteArray(text) + '\n');
        m_process.waitForBytesWritten(1000);
    }
    /// What is seen with the cover off: "Lifter 1: flows" …
    QStringList look()
    {
        m_process.readAllStandardOutput();
        order("look");
        QString out;
        for (int i = 0; i < 50 && !out.contains(QStringLiteral("Lifter 8")); ++i) {
            QTest::qWait(40);
            out += QString::fromUtf8(m_process.readAllStandardOutput());
        }
        return out.split(u'\n', Qt::SkipEmptyParts);
    }
    ~EngineSim()
    {
        order("quit");
        if (!m_process.waitForFinished(3000))
            m_process.kill();
        m_process.waitForFinished(3000);
    }

private:
    QProcess m_process;
    QString m_port;
};

} // namespace mildpath
