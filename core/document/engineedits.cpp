// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include "circuit/elementtypes.h"
#include "document/enginevalue.h"
#include "document/recipes.h"

#include <array>

namespace mildpath {
namespace {

/// The document without lines that lead nowhere, and notes of numbers that are gone.
Build withLines(Build &&build)
{
    dropLooseLines(build);
    dropLooseOrigins(build);
    return std::move(build);
}

} // namespace

template <> const RecordType &recordType<AddStop>()
{
    static const RecordType type = Describe<AddStop>("add_stop")
                                       .must<&AddStop::kind>("kind", "of stop")
                                       .field<&AddStop::name>("name", "else the kind's usual name")
                                       .must<&AddStop::behind>("behind", "which stop");
    return type;
}

template <> const EditKind &editKind<AddStop>()
{
    static const EditKind kind = kindOf<AddStop>(
        [](const Build &build, const AddStop &e) -> Result<Build> { return addStop(build, e); },
        [](const Build &build, const AddStop &e) -> Phrase {
            return (e.name.empty() ? usualName(e.kind) : e.name) + " behind "
                + stopName(build, e.behind);
        });
    return kind;
}

template <> const RecordType &recordType<RemoveStop>()
{
    static const RecordType type
        = Describe<RemoveStop>("remove_stop").must<&RemoveStop::stop>("stop", "id");
    return type;
}

template <> const EditKind &editKind<RemoveStop>()
{
    static const EditKind kind = kindOf<RemoveStop>(
        [](const Build &build, const RemoveStop &e) -> Result<Build> {
            return removeStop(build, e).map(withLines);
        },
        [](const Build &build, const RemoveStop &e) -> Phrase {
            return stopName(build, e.stop) + " taken out";
        });
    return kind;
}

template <> const RecordType &recordType<MoveStop>()
{
    static const RecordType type = Describe<MoveStop>("move_stop")
                                       .must<&MoveStop::stop>("stop", "id")
                                       .field<&MoveStop::by>("by", "places; negative: earlier");
    return type;
}

template <> const EditKind &editKind<MoveStop>()
{
    static const EditKind kind = kindOf<MoveStop>(
        [](const Build &build, const MoveStop &e) -> Result<Build> { return moveStop(build, e); },
        [](const Build &build, const MoveStop &e) -> Phrase {
            return stopName(build, e.stop) + (e.by < 0 ? " earlier" : " later") + " in oil order";
        });
    return kind;
}

template <> const RecordType &recordType<TurnStop>()
{
    static const RecordType type = Describe<TurnStop>("turn_stop")
                                       .must<&TurnStop::stop>("stop", "id")
                                       .must<&TurnStop::kind>("kind", "that it becomes");
    return type;
}

template <> const EditKind &editKind<TurnStop>()
{
    static const EditKind kind = kindOf<TurnStop>(
        [](const Build &build, const TurnStop &e) -> Result<Build> {
            return turnStop(build, e).map(withLines);
        },
        [](const Build &build, const TurnStop &e) -> Phrase {
            return stopName(build, e.stop) + " becomes " + usualName(e.kind);
        });
    return kind;
}

template <> const RecordType &recordType<FeedStop>()
{
    static const RecordType type = Describe<FeedStop>("feed_stop")
                                       .must<&FeedStop::stop>("stop", "id")
                                       .must<&FeedStop::from>("from", "stop that feeds it");
    return type;
}

template <> const EditKind &editKind<FeedStop>()
{
    static const EditKind kind = kindOf<FeedStop>(
        [](const Build &build, const FeedStop &e) -> Result<Build> { return feedStop(build, e); },
        [](const Build &build, const FeedStop &e) -> Phrase {
            return stopName(build, e.stop) + " fed from " + stopName(build, e.from);
        });
    return kind;
}

template <> const RecordType &recordType<NameStop>()
{
    static const RecordType type = Describe<NameStop>("name_stop")
                                       .must<&NameStop::stop>("stop", "id")
                                       .must<&NameStop::name>("name", "as people call it");
    return type;
}

template <> const EditKind &editKind<NameStop>()
{
    static const EditKind kind = kindOf<NameStop>(
        [](const Build &build, const NameStop &e) -> Result<Build> { return nameStop(build, e); },
        [](const Build &build, const NameStop &e) -> Phrase {
            return stopName(build, e.stop) + " named " + e.name;
        });
    return kind;
}

template <> const RecordType &recordType<MoveGauge>()
{
    static const RecordType type = Describe<MoveGauge>("gauge")
                                       .must<&MoveGauge::stop>("stop", "where it goes")
                                       .field<&MoveGauge::point>("point", "of the stop, from 0");
    return type;
}

template <> const EditKind &editKind<MoveGauge>()
{
    static const EditKind kind = kindOf<MoveGauge>(
        [](const Build &build, const MoveGauge &e) -> Result<Build> { return moveGauge(build, e); },
        [](const Build &build, const MoveGauge &e) -> Phrase {
            return "gauge on " + stopName(build, e.stop);
        });
    return kind;
}

template <> const RecordType &recordType<SetAlike>()
{
    static const RecordType type = Describe<SetAlike>("alike")
                                       .must<&SetAlike::stop>("stop", "id")
                                       .must<&SetAlike::elements>("type", "of its elements")
                                       .must<&SetAlike::key>("key", "of the dimension")
                                       .must<&SetAlike::value>("value", "in the key's unit");
    return type;
}

template <> const EditKind &editKind<SetAlike>()
{
    static const EditKind kind = kindOf<SetAlike>(
        [](const Build &build, const SetAlike &e) -> Result<Build> { return setAlike(build, e); },
        [](const Build &build, const SetAlike &e) -> Phrase {
            const NumberKey *key = findElementKey(e.elements, e.key);
            return withValue(stopName(build, e.stop) + ", "
                                 + (key ? std::string(key->meaning) : e.key),
                             e.value, unitOfKey(e.key));
        });
    return kind;
}

std::span<const EditKind *const> engineEdits()
{
    static const std::array kinds { &editKind<AddStop>(),   &editKind<RemoveStop>(),
                                    &editKind<MoveStop>(),  &editKind<TurnStop>(),
                                    &editKind<FeedStop>(),  &editKind<NameStop>(),
                                    &editKind<MoveGauge>(), &editKind<SetAlike>() };
    return kinds;
}

} // namespace mildpath
