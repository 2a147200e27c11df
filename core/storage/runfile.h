// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/startlog.h"
#include "quantity/result.h"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// Recorded runs as files: CSV, RFC 4180, one reading a line.

/// The header of a run's file.
inline constexpr std::string_view runHeader = "time_s,pressure_kpa,rpm,oil_temp_c,mark";

/// A run while it is recorded. Every reading is in the file as soon as it came, so a killed program
/// loses at most the line being written; sync() keeps it against a power failure too. The writing
/// process holds a lock on the file: one that nobody holds is one a crash left behind.
class RunFile
{
public:
    /// Starts KIND-DATE-N.csv in the folder (made if missing). @param date  for the name, any text
    /// that may stand in one. Errors: place = path.
    static Result<RunFile> start(const std::filesystem::path &folder, const std::string &kind,
                                 const std::string &date);
    RunFile(RunFile &&other) noexcept;
    RunFile &operator=(RunFile &&other) noexcept;
    RunFile(const RunFile &) = delete;
    RunFile &operator=(const RunFile &) = delete;
    ~RunFile();

    Result<void> append(const RunPoint &point);
    Result<void> mark(const RunMark &mark);
    void sync();
    /// Finished, and to stay: moves it into the folder `kept` beside it, where it is not taken for
    /// one a crash left. Errors: place = path.
    Result<void> setAside();
    /// Kept elsewhere, or not wanted: removes the file.
    void discard();
    const std::filesystem::path &path() const { return m_path; }

private:
    RunFile() = default;
    Result<void> write(const std::string &text);

    std::filesystem::path m_path;
    int m_fd = -1;
};

/// Moves a finished run into the folder `kept` beside it. @return where it is now. Errors: place =
/// path.
Result<std::filesystem::path> setRunAside(const std::filesystem::path &path);

/// A run as text, as a RunFile writes it.
std::string runToCsv(std::span<const RunPoint> points, std::span<const RunMark> marks);

/// What a file of a run holds.
struct RunImport
{
    std::vector<RunPoint> points;
    std::vector<RunMark> marks;
    std::vector<Error> errors; ///< "line N, column"; empty: all of it was understood
};

/// What an unfinished file holds: its kind by its name. A last line that was cut short is left out.
struct UnfinishedRun
{
    std::filesystem::path path;
    std::string kind;
    RunImport run;
};
/// Files in the folder that no running program holds and that hold readings.
std::vector<UnfinishedRun> findUnfinishedRuns(const std::filesystem::path &folder);

/// Where a table of somebody else's logger has what; −1: nowhere.
struct RunColumns
{
    int time = -1, pressure = -1, rpm = -1, oil = -1;
    std::string timeUnit = "s"; ///< s, ms, min
    std::string pressureUnit = "kPa"; ///< kPa, bar, psi
    std::string oilUnit = "°C"; ///< °C, °F
    bool decimalComma = false;
    bool operator==(const RunColumns &) const = default;
};
/// A table to be imported: its header, and its rows.
struct RunTable
{
    std::vector<std::string> header;
    std::vector<std::vector<std::string>> rows; ///< without the header
};
/// Errors: an unclosed quote; no header with at least two columns; no rows.
Result<RunTable> runTable(std::string_view text);
/// Columns by their names, units by what stands in them in brackets or behind an underscore.
RunColumns guessColumns(const RunTable &table);
/// Errors, all of them, each with "line N, column NAME": not a number, out of range, a time that
/// goes back; "time" or "pressure" when no column was named.
RunImport runFromTable(const RunTable &table, const RunColumns &columns);

} // namespace mildpath
