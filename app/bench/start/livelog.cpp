// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/livelog.h"

#include "open/openbuild.h"
#include "paint/figure.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr int frame_ms = 16, tick_ms = 50, sync_ms = 1000;
constexpr size_t arrivalsKept = 40;

/// A date and time that may stand in a file's name.
std::string plainDate()
{
    std::string out = OpenBuild::now();
    std::erase_if(out, [](char c) { return c == ':' || c == '-'; });
    return out;
}

} // namespace

LiveLog::LiveLog(QString folder, QObject *parent)
    : QObject(parent)
    , m_folder(std::move(folder))
{
    m_clock.start();
    m_frame.setSingleShot(true);
    m_frame.setInterval(frame_ms);
    connect(&m_frame, &QTimer::timeout, this, &LiveLog::changed);
    m_tick.setInterval(tick_ms);
    connect(&m_tick, &QTimer::timeout, this, &LiveLog::tick);
    m_sync.setInterval(sync_ms);
    connect(&m_sync, &QTimer::timeout, this, [this] {
        if (m_file)
            m_file->sync();
    });
}

double LiveLog::now_s() const
{
    return static_cast<double>(m_clock.nsecsElapsed()) * 1e-9;
}

void LiveLog::note(const Result<void> &written)
{
    if (!written)
        m_trouble = qs(written.error().message);
}

Result<void> LiveLog::start(const std::string &kind, const AlarmLimits &limits)
{
    m_file.reset();
    m_trouble.clear();
    if (!m_folder.isEmpty()) {
        auto file = RunFile::start(m_folder.toStdString(), kind, plainDate());
        if (!file)
            return tl::unexpected(file.error());
        m_file = std::move(*file);
    }
    m_kind = kind;
    m_points.clear();
    m_buckets.clear();
    m_marks.clear();
    m_stopped.clear();
    m_watch.emplace(limits);
    m_base_s = m_lastSender_s;
    m_lastArrival_s = now_s();
    m_turned_s = 0;
    m_stopAt_s.reset();
    m_recording = true;
    m_tick.start();
    m_sync.start();
    Q_EMIT began();
    Q_EMIT changed();
    return {};
}

void LiveLog::stop(const QString &why)
{
    if (!m_recording)
        return;
    m_recording = false;
    m_tick.stop();
    m_sync.stop();
    m_stopped = why.toStdString();
    if (m_file)
        m_file->sync();
    Q_EMIT ended();
    Q_EMIT changed();
}

void LiveLog::mark(const QString &text)
{
    if (!m_recording)
        return;
    m_marks.push_back({ m_points.empty() ? 0 : m_points.back().read.t_s, text.toStdString() });
    if (m_file)
        note(m_file->mark(m_marks.back()));
    Q_EMIT changed();
}

std::optional<LikelyPressure> LiveLog::expected(const RunPoint &p) const
{
    if (m_kind == "prime") {
        if (!m_prime.time.time_s)
            return std::nullopt;
        const double low = m_prime.lower_pa(m_turned_s), high = m_prime.upper_pa(m_turned_s);
        return LikelyPressure { (low + high) / 2, low, high };
    }
    return m_map && p.rpm && p.oil_c ? m_map->at(*p.rpm, *p.oil_c) : std::nullopt;
}

void LiveLog::take(const SenderReading &reading, double at_s)
{
    // A sender that was switched off begins its clock anew: the log goes on where it was.
    if (at_s < m_lastSender_s)
        m_base_s -= m_lastSender_s - at_s;
    m_lastSender_s = at_s;
    m_lastArrival_s = now_s();
    m_arrivals.push_back(m_lastArrival_s);
    if (m_arrivals.size() > arrivalsKept)
        m_arrivals.erase(m_arrivals.begin());
    RunPoint p { std::max(0.0, at_s - m_base_s), std::nullopt, reading.rpm, reading.oil_c };
    if (reading.pressure_pa)
        p.pressure_kpa = std::max(0.0, *reading.pressure_pa / 1e3);
    m_latest = p;
    if (m_recording) {
        const bool turns = !p.rpm || *p.rpm >= turning_rpm;
        if (turns && !m_points.empty())
            m_turned_s += p.t_s - m_points.back().read.t_s;
        const auto band = expected(p);
        m_points.push_back({ p, band ? static_cast<float>(band->low_pa / 1e3) : -1.0F,
                             band ? static_cast<float>(band->high_pa / 1e3) : -1.0F });
        m_buckets.add(m_points.back());
        if (m_file)
            note(m_file->append(p));
        const auto begun = m_watch->take(p, band);
        if (m_watch->firstPressure_s())
            m_stopAt_s.reset();
        else if (const auto left = m_watch->untilStop_s(); left && *left > 0)
            m_stopAt_s = p.t_s + *left;
        for (const Alarm &a : begun)
            Q_EMIT alarmed(a);
    }
    if (!m_frame.isActive())
        m_frame.start();
}

void LiveLog::tick()
{
    if (!m_watch || m_points.empty())
        return;
    // Time that went by here since the last reading, on the log's own clock.
    const double t_s = m_points.back().read.t_s + (now_s() - m_lastArrival_s);
    const auto begun = m_watch->tick(t_s);
    for (const Alarm &a : begun)
        Q_EMIT alarmed(a);
    if (!begun.empty())
        Q_EMIT changed();
}

double LiveLog::rate() const
{
    if (m_arrivals.size() < 2 || now_s() - m_arrivals.back() > 2 * silence_s)
        return 0;
    const double span = m_arrivals.back() - m_arrivals.front();
    return span > 0 ? static_cast<double>(m_arrivals.size() - 1) / span : 0;
}

std::vector<Alarm> LiveLog::alarms() const
{
    return m_recording && m_watch ? m_watch->standing() : std::vector<Alarm> {};
}

namespace {

/// Mean of readings from some index on.
std::optional<RunPoint> meanOf(const std::vector<LivePoint> &points, size_t from, size_t to)
{
    if (to < from + 3)
        return std::nullopt;
    RunPoint out;
    out.t_s = points[to - 1].read.t_s;
    const auto mean = [&](std::optional<double> RunPoint::*member) {
        double sum = 0;
        int count = 0;
        for (size_t i = from; i < to; ++i)
            if (points[i].read.*member) {
                sum += *(points[i].read.*member);
                ++count;
            }
        return count > 0 ? std::optional(sum / count) : std::nullopt;
    };
    out.pressure_kpa = mean(&RunPoint::pressure_kpa);
    out.rpm = mean(&RunPoint::rpm);
    out.oil_c = mean(&RunPoint::oil_c);
    return out;
}

} // namespace

std::optional<RunPoint> LiveLog::mean(double seconds) const
{
    size_t from = m_points.size();
    while (from > 0 && m_points[from - 1].read.t_s >= m_points.back().read.t_s - seconds)
        --from;
    return meanOf(m_points, from, m_points.size());
}

std::optional<RunPoint> LiveLog::lastTurning(double seconds) const
{
    // The speed it had is the fastest it turned at of late: running down does not count.
    double most = 0;
    for (const LivePoint &p : m_points)
        most = std::max(most, p.read.rpm.value_or(0));
    size_t to = m_points.size();
    while (to > 0 && m_points[to - 1].read.rpm && *m_points[to - 1].read.rpm < 0.9 * most)
        --to;
    size_t from = to;
    while (from > 0 && m_points[from - 1].read.t_s >= m_points[to - 1].read.t_s - seconds)
        --from;
    return meanOf(m_points, from, to);
}

RunLog LiveLog::summary() const
{
    RunLog out;
    out.kind = m_kind;
    summariseRun(readings(), out);
    out.marks = m_marks;
    out.stopped = m_stopped;
    return out;
}

std::vector<RunPoint> LiveLog::readings() const
{
    std::vector<RunPoint> out;
    out.reserve(m_points.size());
    for (const LivePoint &p : m_points)
        out.push_back(p.read);
    return out;
}

QString LiveLog::setFileAside()
{
    if (!m_file)
        return {};
    note(m_file->setAside());
    const QString path = QString::fromStdString(m_file->path().string());
    m_file.reset();
    return path;
}

void LiveLog::forgetFile()
{
    if (m_file)
        m_file->discard();
    m_file.reset();
}

} // namespace mildpath
