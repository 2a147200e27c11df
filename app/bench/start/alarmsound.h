// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QTemporaryDir>
#include <QTimer>

struct ca_context;

namespace mildpath {

/// Sounds while an alarm is on: two tones over and over. Where the machine has no sound, its bell;
/// the picture says the same in any case.
class AlarmSound : public QObject
{
    Q_OBJECT
public:
    explicit AlarmSound(QObject *parent = nullptr);
    ~AlarmSound() override;
    void setOn(bool on);
    bool isOn() const { return m_again.isActive(); }

Q_SIGNALS:
    void rang(); ///< every time it sounds

private:
    void ring();
    QTimer m_again;
    QTemporaryDir m_folder; ///< the sound as a file, as the sound service wants it
    QString m_file;
    ca_context *m_context = nullptr;
};

} // namespace mildpath
