// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"

#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// What every entry of the logbook carries. Entries are never overwritten: a correction is a new
/// one whose `replaces` names the old one, and one that is taken back says so.
struct Record
{
    std::string id;
    std::string by, at; ///< who, and when (ISO 8601, local time)
    std::string note;
    std::string replaces; ///< id of the entry it strikes
    bool takenBack = false; ///< strikes without putting something in its place
    std::vector<std::string> photos; ///< names within the folder beside the build
    ExtraKeys extra {};
    bool operator==(const Record &) const = default;
};

/// Who made an entry, for people. Older entries may hold nobody's name.
inline std::string whoText(std::string_view by)
{
    return by.empty() || by == "unnamed" ? "name not recorded" : std::string(by);
}

template <class T> Describe<T> describeRecordBy(Describe<T> &&type)
{
    return std::move(type)
        .template field<&T::by>("by", "who did or saw it")
        .template field<&T::at>("at", "when: ISO 8601, local time")
        .template ifSet<&T::note>("note", "in one's own words")
        .template ifSet<&T::replaces>("replaces", "id of the entry it strikes")
        .template ifSet<&T::takenBack>("taken_back",
                                       "strikes without putting something in its place")
        .template ifSet<&T::photos>("photos", "names within the folder beside the build")
        .of("a file name")
        .template keepsUnknown<&T::extra>();
}
/// The description of an entry of the logbook, begun with the members all of them have.
template <class T> Describe<T> describeRecord(std::string_view name)
{
    return describeRecordBy<T>(Describe<T>(name).template must<&T::id>("id", "unique in its list"));
}
/// The same of entries people may write by hand without an id: it is made up when they are read.
template <class T> Describe<T> describeNamelessRecord(std::string_view name)
{
    return describeRecordBy<T>(Describe<T>(name).template field<&T::id>(
        "id", "unique in its list; made up where it lacks"));
}

/// Records that no later one strikes, in order of entry; those taken back are left out.
template <class List> auto standing(const List &records)
{
    using T = typename List::value_type;
    std::set<std::string_view> struck;
    for (const T &r : records)
        if (!r.replaces.empty())
            struck.insert(r.replaces);
    std::vector<const T *> out;
    for (const T &r : records)
        if (!r.takenBack && !struck.contains(r.id))
            out.push_back(&r);
    return out;
}

/// The entry this one corrects, and the one that corrected, back to the first: its id stays the
/// same however often it was said anew.
template <class List>
const typename List::value_type &firstEntry(const List &records,
                                            const typename List::value_type &record)
{
    const auto *out = &record;
    for (auto r = records.rbegin(); r != records.rend(); ++r)
        if (!out->replaces.empty() && r->id == out->replaces)
            out = &*r;
    return *out;
}

} // namespace mildpath
