// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include <algorithm>
#include <array>
#include <set>

namespace mildpath {
namespace {

bool sameWork(const TorqueCard &a, const TorqueCard &b)
{
    return a.stages == b.stages && a.fasteners == b.fasteners && a.threads == b.threads
        && a.washers == b.washers;
}

std::string freeCardId(const Build &build)
{
    for (size_t n = build.torqueCards.size() + 1;; ++n)
        if (const std::string id = "card_" + std::to_string(n);
            std::ranges::find(build.torqueCards, id, &TorqueCard::id) == build.torqueCards.end())
            return id;
}

Result<Build> putTorqueCard(Build build, const PutTorqueCard &edit)
{
    TorqueCard card = edit.card;
    if (card.name.find_first_not_of(" \t") == std::string::npos)
        return fail("name", "a card needs a name");
    if (auto ok = checkStages(card.stages); !ok)
        return tl::unexpected(ok.error());
    if (card.id.empty()) {
        card.id = freeCardId(build);
        build.torqueCards.push_back(std::move(card));
        return build;
    }
    const auto it = std::ranges::find(build.torqueCards, card.id, &TorqueCard::id);
    if (it == build.torqueCards.end())
        return fail(card.id, "there is no such card");
    for (const TorqueTick &t : build.ticks)
        if (t.card == card.id && t.fastener > static_cast<int>(card.fasteners.size()))
            return fail(card.name, "bolts were ticked that would not be on it any more");
    // What was ticked before was ticked under another card.
    card.edition = it->edition + (sameWork(*it, card) ? 0 : 1);
    *it = std::move(card);
    return build;
}

Result<Build> dropTorqueCard(Build build, const DropTorqueCard &edit)
{
    for (const TorqueTick &t : build.ticks)
        if (t.card == edit.card)
            return fail(edit.card, "bolts were ticked on it: it stays");
    for (TorqueCard &c : build.torqueCards)
        if (c.after == edit.card)
            c.after.clear();
    if (std::erase_if(build.torqueCards, [&](const TorqueCard &c) { return c.id == edit.card; })
        == 0)
        return fail(edit.card, "there is no such card");
    return build;
}

} // namespace

template <> const RecordType &recordType<PutTorqueCard>()
{
    static const RecordType type
        = Describe<PutTorqueCard>("put_torque_card")
              .must<&PutTorqueCard::card>("card", "found by its id, or added");
    return type;
}

template <> const EditKind &editKind<PutTorqueCard>()
{
    static const EditKind kind = kindOf<PutTorqueCard>(
        [](const Build &build, const PutTorqueCard &e) -> Result<Build> {
            return putTorqueCard(build, e);
        },
        [](const Build &, const PutTorqueCard &e) -> Phrase {
            return { "", "{0}: {1}", { e.card.name, stagesText(e.card.stages) } };
        });
    return kind;
}

template <> const RecordType &recordType<DropTorqueCard>()
{
    static const RecordType type = Describe<DropTorqueCard>("drop_torque_card")
                                       .must<&DropTorqueCard::card>("card", "its id");
    return type;
}

template <> const EditKind &editKind<DropTorqueCard>()
{
    static const EditKind kind = kindOf<DropTorqueCard>(
        [](const Build &build, const DropTorqueCard &e) -> Result<Build> {
            return dropTorqueCard(build, e);
        },
        [](const Build &build, const DropTorqueCard &e) -> Phrase {
            for (const TorqueCard &c : build.torqueCards)
                if (c.id == e.card)
                    return c.name + " taken off";
            return e.card + " taken off";
        });
    return kind;
}

std::span<const EditKind *const> torqueEdits()
{
    static const std::array kinds { &editKind<PutTorqueCard>(), &editKind<DropTorqueCard>() };
    return kinds;
}

} // namespace mildpath
