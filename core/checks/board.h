// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "checks/ownkinds.h"

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace mildpath {

/// The list while it is being made: what the records say is laid onto it, source by source.
class CheckBoard
{
public:
    CheckBoard(const Build &build, const Figures &figures, std::string_view today);

    const Build &build;
    const Figures &figures;
    const std::string today;
    std::vector<Check> checks;
    const std::shared_ptr<const OwnKinds> own;

    /// @return null where the engine has no such check
    Check *find(std::string_view kind, std::string_view place);
    /// Lays evidence onto a check; nothing happens where the engine has no such check.
    void say(std::string_view kind, std::string_view place, Evidence evidence);
    /// Every check of a kind.
    void each(std::string_view kind, const std::function<void(Check &)> &visit);
    /// Every check that an id of a place means: its own id, its place's, or what it belongs to.
    void eachAt(std::string_view id, const std::function<void(Check &)> &visit);

private:
    std::unordered_map<std::string, size_t> m_byId;
    std::unordered_map<std::string_view, std::pair<size_t, size_t>> m_byKind; ///< first, end
};

/// When what the document says without a day counts: now, after every entry.
inline constexpr const char *asItIsNow = "9999";

/// Time of the entries of one list: a clock that was set back moves none before its fellows.
class EntryClock
{
public:
    const std::string &operator()(const std::string &at)
    {
        m_latest = std::max(m_latest, at);
        return m_latest;
    }

private:
    std::string m_latest;
};

/// Evidence out of what the document records, by where it is recorded.
void laySizes(CheckBoard &board); ///< readings, fits, feed holes, points ticked, fasteners
void layWork(CheckBoard &board); ///< cleaning logbook, plugs, finds, signs, shop, lines
void layStart(CheckBoard &board); ///< run card, recorded runs, oil seen, filters, oil
void layEntries(CheckBoard &board); ///< what was said of checks by themselves
void layActs(CheckBoard &board); ///< what takes proofs away; after all others
/// Whether a part was replaced, by what was done on the bench or after a failure.
bool wasReplaced(const Build &build, const CheckPlace &place);
/// Which checks the jobs ask, and which this engine has none of.
void markAsked(CheckBoard &board);
/// What comes before each, by index.
void linkAfter(CheckBoard &board);
/// What is computed rather than seen.
void layComputed(CheckBoard &board);
/// States by the nine rules, closing points and signatures included.
void settle(CheckBoard &board);

} // namespace mildpath
