// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"
#include "rules/rules.h"

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What happened from the gate to the first warm stop: holds signed for, steps of the run card,
// recorded runs, and what running taught the forecast.

/// Somebody lets a check pass that is not proven, and says why in the record's note. It keeps what
/// stood when it was signed: it is void once that is worse.
struct SignOff : Record
{
    std::string hold; ///< in older files: the finding that was signed for; such a signature is void
    std::string check; ///< id of the check
    std::string said; ///< its reason when it was signed
    std::string state; ///< its state then: look_again, hold or not_done
    std::optional<double> value,
        u; ///< its figure then, where it has one: how far inside its limits
    std::string gate; ///< it was signed at; empty: none in particular
    bool operator==(const SignOff &) const = default;
};

/// A step of the run card, gone through.
struct CardStep : Record
{
    std::string step; ///< a step of the run card (start/runcard.cpp)
    std::string outcome = "done"; ///< see cardOutcomes()
    std::optional<double> pressure_kpa, rpm, oil_c, seconds; ///< what was read, where something was
    bool operator==(const CardStep &) const = default;
};
/// done, not_so, skipped
std::span<const std::string_view> cardOutcomes();

/// One moment of a recorded run; what the sender did not say is absent.
struct RunPoint
{
    double t_s = 0; ///< since the log began
    std::optional<double> pressure_kpa, rpm, oil_c;
    bool operator==(const RunPoint &) const = default;
};
/// Something marked while it ran.
struct RunMark
{
    double t_s = 0;
    std::string text; ///< empty: a mark without a word
    bool operator==(const RunMark &) const = default;
};

/// A run that was recorded. The document keeps a thinned trace; every reading is in the file.
struct RunLog : Record
{
    std::string kind = "start"; ///< see runKinds()
    std::string source; ///< "sender on /dev/ttyUSB0", "log.csv"
    std::string tap; ///< where the pressure was taken
    std::string file; ///< all readings, CSV, in the folder beside the build; empty: none kept
    std::string stopped; ///< why it ended
    int readings = 0;
    double seconds = 0;
    std::optional<double> firstPressure_s; ///< first reading above firstPressure_kpa
    double most_kpa = 0;
    std::vector<RunPoint> trace;
    std::vector<RunMark> marks;
    bool operator==(const RunLog &) const = default;
};
/// prime, start, run
std::span<const std::string_view> runKinds();
/// A trace keeps at most so many points.
inline constexpr size_t mostTracePoints = 600;

/// Fills readings, seconds, first and most pressure, and a trace that keeps the highest and lowest
/// pressure of every stretch of time. @param points  t_s never falling
void summariseRun(std::span<const RunPoint> points, RunLog &out);
/// At most `most` points that keep every stretch's lowest and highest pressure, in order.
std::vector<RunPoint> thinned(std::span<const RunPoint> points, size_t most);

/// What readings make of one uncertain input of the forecast.
struct BelievedInput
{
    std::string cause; ///< as the input names itself
    double z = 0; ///< by how many of its standard deviations it is moved
    std::vector<double> narrows; ///< one a reading: its part of what the readings tell
    bool operator==(const BelievedInput &) const = default;
};

/// Uncertain inputs moved so that forecast and readings agree; in force while it stands. Of input
/// `readings`: all of them at once, as far as the readings go (assess/believed.h). One input alone
/// stands in older documents.
struct Calibration : Record
{
    std::string input; ///< readings; oil, gauge, model, or a family of clearances
    double amount = 0; ///< oil, model: relative; gauge: kPa; clearances: µm
    double z = 0; ///< the same in its standard uncertainties
    std::vector<std::string> readings; ///< ids of the gauge readings it explains
    std::vector<BelievedInput> believed; ///< of `readings`
    double off = 0; ///< of `readings`: chance that something else is at work
    bool operator==(const Calibration &) const = default;
};

template <> const RecordType &recordType<SignOff>();
template <> const RecordType &recordType<CardStep>();
template <> const RecordType &recordType<RunLog>();
template <> const RecordType &recordType<BelievedInput>();
template <> const RecordType &recordType<Calibration>();

} // namespace mildpath
