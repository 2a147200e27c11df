// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "paint/passagelayout.h"
#include "passage/cleaningplan.h"

#include <QPainter>

namespace mildpath {

/// What is drawn of a build's passages.
struct PassagePicture
{
    const Build &build;
    const PassageNetwork &network;
    std::vector<Mark> passages; ///< one each
    std::vector<Mark> plugs;
    std::vector<bool> plugOut; ///< drawn: an open seat
    std::vector<bool> pocket; ///< one a stretch
    const CleaningStep *step = nullptr; ///< drawn along its lengths
    int stepNumber = 0;
    int selected = -1; ///< passage
    int selectedPlug = -1;
};
/// Pictures need the build, the network and what follows from both.
PassagePicture pictureOf(const Build &build, const CleaningBook &cleaning,
                         const PassageNetwork &network, std::vector<bool> pockets);
/// Stop id → name, for layouts.
std::map<std::string, std::string> stopNamesOf(const Build &build);
/// Draws one part; the same on the screen and on paper.
void paintPassages(QPainter &painter, const PassagePicture &picture, const PassageLayout &layout);

} // namespace mildpath
