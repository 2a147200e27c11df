// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "report/svg.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace mildpath {

struct Assessment;

// The sheet that is handed over with the engine: a page's parts in order, for HTML and for paper.

struct SheetHeading
{
    Phrase text;
    bool section = false; ///< begins a part of the sheet: told at the foot of the first page
};
struct SheetText
{
    Phrase text;
    bool muted = false;
};
struct SheetCell
{
    Phrase text;
    std::optional<Mark> mark {}; ///< stands before the text
};
struct SheetTable
{
    std::vector<Phrase> head;
    std::vector<double> widths; ///< shares of the page's width, one a column
    std::vector<std::vector<SheetCell>> rows;
};
/// Short facts, a label and its value, three beside each other.
struct SheetFacts
{
    std::vector<std::pair<Phrase, Phrase>> facts;
};
/// Lines to sign on, beside each other.
struct SheetSignatures
{
    struct Slot
    {
        Phrase what; ///< "Built and measured"
        std::string name, date; ///< as recorded; empty: to be written by hand
    };
    std::vector<Slot> lines;
};
/// Ruled lines for what is written by hand, to the end of the page.
struct SheetNotes
{
};
using SheetBlock = std::variant<SheetHeading, SheetText, SheetTable, SheetPicture, SheetFacts,
                                SheetSignatures, SheetNotes>;

struct BuildSheet
{
    std::string title; ///< the build's name
    UnitStyle style; ///< its pictures are drawn in these units, its words rendered in them
    std::vector<Phrase> under; ///< engine, oil, date
    Phrase state; ///< in one sentence: may it start
    Mark mark = Mark::NotDone;
    std::vector<SheetBlock> blocks;
    Phrase foot {}; ///< of every page: build, job, printed when
};

/// Page one: may it start, the job, what is open first, signatures, read against forecast, every
/// size between its limits, plugs and passages. Then what was measured with what, passages, plugs,
/// bolts, what was found, forecast, start, what a run left, and how it was worked out.
/// @param date  as printed; the core has no clock
BuildSheet buildSheet(const Build &build, const Assessment &assessment, const std::string &date,
                      const UnitStyle &style);

enum class Paper { A4, Letter };
/// One HTML file with its pictures in it, laid out for the paper when printed.
std::string sheetToHtml(const BuildSheet &sheet, Paper paper);

} // namespace mildpath
