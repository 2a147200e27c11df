// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/tracebuckets.h"
#include "devices/senderline.h"
#include "start/alarms.h"
#include "storage/runfile.h"

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <memory>
#include <optional>
#include <vector>

namespace mildpath {

/// A run while it is watched: listens to a sender, records to a file, calls out. Listens also when
/// nothing is recorded, so that the needle is seen before the start.
class LiveLog : public QObject
{
    Q_OBJECT
public:
    /// @param folder  where runs are kept while they are recorded; empty: in memory only
    explicit LiveLog(QString folder, QObject *parent = nullptr);

    /// What a reading is held against while priming; by the map otherwise.
    void setPrime(const PrimeForecast &prime) { m_prime = prime; }
    void setMap(std::shared_ptr<PressureMap> map) { m_map = std::move(map); }

    /// Begins to record. Errors: the file cannot be made; nothing is recorded then.
    Result<void> start(const std::string &kind, const AlarmLimits &limits);
    /// Ends it; the file stays until keepFile() or forget().
    void stop(const QString &why);
    bool recording() const { return m_recording; }
    const std::string &kind() const { return m_kind; }
    /// A mark at the last reading.
    void mark(const QString &text);

    /// A reading of the sender. @param at_s  its time, on any clock
    void take(const SenderReading &reading, double at_s);

    const std::vector<LivePoint> &points() const { return m_points; }
    const TraceBuckets &buckets() const { return m_buckets; }
    const std::vector<RunMark> &marks() const { return m_marks; }
    /// The last reading, recorded or not.
    const std::optional<RunPoint> &latest() const { return m_latest; }
    /// Readings a second, over the last few.
    double rate() const;
    const std::optional<AlarmWatch> &watch() const { return m_watch; }
    /// When it must be stopped without pressure, on the log's clock; stays where it was once that
    /// time has come. Absent while nothing turned, and once pressure came.
    const std::optional<double> &stopAt_s() const { return m_stopAt_s; }
    /// Alarms that are on; none when nothing is recorded.
    std::vector<Alarm> alarms() const;
    /// Mean of the last `seconds` of readings; absent with less than three.
    std::optional<RunPoint> mean(double seconds) const;
    /// The same over the last seconds that something turned.
    std::optional<RunPoint> lastTurning(double seconds) const;
    /// The run as it stands: summary, trace, marks.
    RunLog summary() const;
    std::vector<RunPoint> readings() const;
    const std::optional<RunFile> &file() const { return m_file; }
    /// The file stays where runs are kept. @return its path; empty: there is none
    QString setFileAside();
    /// The file is kept elsewhere, or nobody wants it.
    void forgetFile();
    const QString &trouble() const { return m_trouble; } ///< why nothing is written; empty: all is

Q_SIGNALS:
    void changed(); ///< at most once a frame
    void alarmed(const mildpath::Alarm &alarm);
    void began();
    void ended();

private:
    void tick();
    double now_s() const;
    void note(const Result<void> &written);
    std::optional<LikelyPressure> expected(const RunPoint &point) const;

    QString m_folder, m_trouble;
    std::string m_kind;
    bool m_recording = false;
    PrimeForecast m_prime;
    std::shared_ptr<PressureMap> m_map;
    std::optional<AlarmWatch> m_watch;
    std::optional<RunFile> m_file;
    std::vector<LivePoint> m_points;
    TraceBuckets m_buckets;
    std::vector<RunMark> m_marks;
    std::optional<RunPoint> m_latest;
    std::vector<double> m_arrivals; ///< of the last readings, s on m_clock
    QElapsedTimer m_clock;
    QTimer m_frame, m_tick, m_sync;
    std::string m_stopped;
    double m_base_s = 0; ///< of the sender's clock at the beginning
    double m_lastSender_s = 0, m_lastArrival_s = 0;
    std::optional<double> m_stopAt_s;
    double m_turned_s = 0; ///< priming: since the pump first turned
};

} // namespace mildpath
