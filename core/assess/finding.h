// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "assess/rules.h"
#include "quantity/phrase.h"

#include <string>
#include <vector>

namespace mildpath {

/// Something worth saying.
struct Finding
{
    std::string id; ///< stable: kind@stop
    Mark mark;
    std::string stop; ///< empty: the whole engine
    Phrase text; ///< what it is
    Phrase action; ///< what to do
    Place place = Place::Route; ///< where it is mended
};

struct StopMarks
{
    std::string stop;
    Mark size, clean, flow;
    Phrase sizeReason, cleanReason, flowReason;
    bool operator==(const StopMarks &) const = default;
};

} // namespace mildpath
