// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <string>
#include <vector>

namespace mildpath {

/// Something wrong with the lines outside the engine.
struct LineFault
{
    std::string
        id; ///< out_to_out, in_to_in, open_port, capped, lines_swapped, no_vacuum,
            ///< vacuum_unknown, gauge_on_filter, wrong_stage, port_twice, line_on_cap, no_way
    Mark mark; ///< Hold or LookAgain
    std::vector<std::string> ports; ///< it is about
    std::string stop; ///< empty: the whole engine
    Phrase text, reason, action;
};

/// Where the oil goes by the lines as they are joined.
struct LineTrace
{
    std::vector<std::string> ports; ///< from the pump, in the order the oil meets them
    bool reachesEngine = false;
    bool throughFilter = false;
    bool filterReversed = false; ///< enters by the filter's outlet
};

struct LinesReport
{
    std::vector<Port> ports;
    std::vector<LineFault> faults; ///< holds first
    LineTrace trace;
    int looked = 0; ///< lines somebody has seen
    bool written = false; ///< any line is written down
};

/// The lines of a build against the rules: out of one part goes into the next, suction hoses stand
/// vacuum, the gauge sits on the engine. Nothing is said of an engine whose lines nobody wrote
/// down. Source: common practice, no source.
LinesReport judgeLines(const Build &build);

/// What is known of one line: the worst said of its ports, else whether somebody looked.
Mark markOf(const LinesReport &report, const ExternalLine &line);

/// The worst said of one port, and no better than `otherwise`.
Mark portMark(const LinesReport &report, std::string_view port, Mark otherwise = Mark::NotDone);

/// Whether the oil enters the filter from its clean side, so that its check valve shuts.
bool filterReversed(const Build &build);

/// Whether the document's gauge reads ahead of the engine, on the filter's head.
bool gaugeOnFilterHead(const Build &build);

} // namespace mildpath
