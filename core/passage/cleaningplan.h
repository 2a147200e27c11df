// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "passage/passagenetwork.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace mildpath {

// A brush pull is one straight drilling entered from one open end, no corners. A flush is any way
// between two open ends. Every length a brush can reach is brushed; a flush is for what no brush
// reaches. Minimal: fewest pulls, then fewest flushes, then fewest plugs drawn. Own choice;
// docs/theory/cleaning.md.

/// How a length of passage can be cleaned once every plug that may be drawn is out.
enum class CleanBy { Brush, Flush, Nothing };

/// One for each stretch of the network.
/// @param staying  plugs (index) that are not drawn, whatever they hide
std::vector<CleanBy> waysToClean(const PassageNetwork &network, const std::set<int> &staying);

/// Stretches no oil passes while every plug is in: what lies there stays. One flag a stretch.
std::vector<bool> pockets(const PassageNetwork &network);

/// Part of one passage.
struct Length
{
    int passage; ///< index
    double from_mm, to_mm;
    double length_mm() const { return to_mm - from_mm; }
};

struct CleaningStep
{
    bool flush = false; ///< else a brush pull
    OpenEnd in {}; ///< where brush or fluid goes in
    std::optional<OpenEnd> out; ///< where it comes out; absent: a pull that ends in the metal
    std::vector<Length> lengths; ///< covered, in the order they are passed
    double brush_mm = 0; ///< stock size, for a pull
    double narrowest_mm = 0; ///< bore
    std::vector<int> plugs; ///< that must be out for it
    std::string word; ///< where a pull comes out or ends: filled where `out` is absent
};

/// What stays as it is, and why.
struct LeftLength
{
    Length length;
    std::string why;
};

struct CleaningPlan
{
    std::vector<CleaningStep> steps; ///< branches first, galleries after them, flushes last
    std::vector<int> draw; ///< plugs to draw, outer ones before those behind them
    std::vector<LeftLength> left;
    int pulls = 0, flushes = 0;
    double passable_mm = 0, covered_mm = 0;
    bool minimal = true; ///< false: the search was given up at its limit, the plan still covers
};

/// What steers a plan beside the metal.
struct CleaningWishes
{
    std::map<int, std::string> staying; ///< plug → why it is not drawn
    std::map<std::string, int> rank; ///< stop → place in the oil's order; later ones are entered
    bool drawAll = false; ///< the school that draws every plug it may
};

CleaningPlan planCleaning(const PassageNetwork &network, const CleaningWishes &wishes);

/// "P1", "Main 3", "pump face": an end in words.
std::string endName(const PassageNetwork &network, const OpenEnd &end);

} // namespace mildpath
