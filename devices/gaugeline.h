// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/linestream.h"
#include "quantity/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// One line of a gauge as a length (m).
///
/// Understood: an optional sign, digits with a point or a comma, and an optional unit: mm, um, µm,
/// in, inch, ", thou, mil. Blanks anywhere between them. Without a unit the line takes `bareUnit`.
/// Everything else on the line makes it worthless: half a line must never pass for a number, so a
/// number needs a digit on both sides of its mark, or no mark at all.
/// Errors: the reason, place empty. Documented for device makers in docs/gauge-protocol.md.
Result<double> parseGaugeLine(std::string_view line, std::string_view bareUnit = "mm");

/// Turns what arrives on a line into readings, and says what it could not use.
class GaugeStream
{
public:
    struct Taken
    {
        std::vector<double> readings_m; ///< in order
        size_t refused = 0; ///< lines that were none
        Phrase reason; ///< of the last refused
    };
    /// Unit of a line that names none.
    void setBareUnit(std::string unit) { m_bareUnit = std::move(unit); }
    Taken take(std::string_view bytes);
    LineStream &lines() { return m_lines; }

private:
    static constexpr size_t longestLine = 64;
    std::string m_bareUnit = "mm";
    LineStream m_lines { longestLine };
};

/// Hold-to-settle: a reading is taken when the needle has stayed within a band for a while, and the
/// next only after it has clearly moved. A single line out of the band is a jump of the
/// electronics, not of the needle: it is left out of the mean, and neither breaks a hold nor counts
/// as moving.
class Settler
{
public:
    struct Options
    {
        double band_m = 1.5e-6; ///< largest less smallest while settled
        double hold_s = 0.7;
        double leave_m = 6e-6; ///< how far it must move before it may settle again
        size_t least = 5; ///< readings in the band
    };
    struct Settled
    {
        double mean_m = 0, spread_m = 0;
        size_t readings = 0;
    };

    Settler() = default;
    explicit Settler(const Options &options)
        : m_options(options)
    {
    }
    const Options &options() const { return m_options; }
    /// @param at_s  time of the reading, never falling
    /// @return true when this reading completed a settled one; see settled()
    bool take(double value_m, double at_s);
    const Settled &settled() const { return m_settled; }
    /// How far the hold has come, 0…1; 0 while it waits for the needle to move away.
    double progress() const { return m_progress; }
    /// Nothing held so far counts: a gap, garbage, an unplugged cable. A value already taken still
    /// has to be left before the next.
    void restart();

private:
    struct Sample
    {
        double value_m, at_s;
    };
    Options m_options {};
    bool holds(double value_m) const;

    std::vector<Sample> m_held;
    std::optional<Sample> m_aside; ///< out of the band, until the next tells what it was
    size_t m_away = 0; ///< readings in a row away from the last settled one
    double m_least = 0, m_most = 0;
    bool m_waiting = false; ///< for the needle to leave the last settled value
    double m_progress = 0;
    Settled m_settled;
};

} // namespace mildpath
