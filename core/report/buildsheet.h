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
using SheetBlock = std::variant<SheetHeading, SheetText, SheetTable, SheetPicture>;

struct BuildSheet
{
    std::string title; ///< the build's name
    UnitStyle style; ///< its pictures are drawn in these units, its words rendered in them
    std::vector<Phrase> under; ///< engine, oil, date
    Phrase state; ///< in one sentence: may it start
    Mark mark = Mark::NotDone;
    std::vector<SheetBlock> blocks;
};

/// What was measured, how and by whom; what is proven; forecast; holds and who signed them; the
/// start; what a run left; what to check next. @param date  as printed; the core has no clock
BuildSheet buildSheet(const Build &build, const Assessment &assessment, const std::string &date,
                      const UnitStyle &style);

enum class Paper { A4, Letter };
/// One HTML file with its pictures in it, laid out for the paper when printed.
std::string sheetToHtml(const BuildSheet &sheet, Paper paper);

} // namespace mildpath
