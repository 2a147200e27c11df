// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <string>
#include <string_view>

namespace mildpath {

/// One line of a sender: what it said, SI apart from the temperature.
struct SenderReading
{
    std::optional<double> pressure_pa; ///< gauge
    std::optional<double> rpm; ///< of the crank, or of the pump's shaft while priming by drill
    std::optional<double> oil_c;
    std::optional<double> clock_s; ///< of the sender
    bool operator==(const SenderReading &) const = default;
};

/// "p=362.1kPa n=812 t=19.4C ms=12340": pairs of key and value, blanks between them.
///
/// p: pressure, kPa, bar or psi, kPa without a unit. n: rev/min. t: °C (C) or °F (F), °C without a
/// unit. ms: the sender's own clock. Keys that are not known are passed over; a known one with
/// anything but a number in range makes the whole line worthless, and so does a line without p.
/// A trailing "*HH" is a check: the exclusive or of all bytes before the star, in hexadecimal.
/// Errors: the reason, place empty. Documented for makers in docs/sender-protocol.md.
Result<SenderReading> parseSenderLine(std::string_view line);
/// The same line, check included.
std::string senderLine(const SenderReading &reading);

} // namespace mildpath
