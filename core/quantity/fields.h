// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/words.h"
#include "quantity/extrakeys.h"
#include "quantity/result.h"

#include <array>
#include <limits>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

namespace mildpath {

// A record described once: what its members are called in a file, what they mean, in which unit and
// range. Reading and writing, and whatever else goes member by member, follow from it. Members are
// reached without their type, so that one function out of line serves all records and a record's
// description compiles fast.
//
//     template <> const RecordType &recordType<Weighing>()
//     {
//         static const RecordType type = Describe<Weighing>("weighing")
//             .must<&Weighing::id>("id", "unique among the weighings")
//             .must<&Weighing::grams>("grams", "as weighed").in("g", 0, 50000)
//             .ifSet<&Weighing::note>("note", "free text")
//             .keepsUnknown<&Weighing::extra>();
//         return type;
//     }
//
//     const Weighing w = fromJson<Weighing>(json, "/weighings/3", errors);

struct RecordType;

/// Words a text may be.
using Words = std::vector<std::string_view>;
inline Words wordsOf(std::span<const std::string_view> words)
{
    return { words.begin(), words.end() };
}
/// "must be used or new, is \"old\""
std::string noSuchWord(const Words &words, const std::string &is);
/// The ids of a table of kinds.
template <class Kinds> Words idsOf(const Kinds &kinds)
{
    Words out;
    for (const auto &kind : kinds)
        out.push_back(kind.id);
    return out;
}

/// What a member is, as far as a file sees it.
enum class MemberShape {
    Number,
    OptionalNumber,
    Integer,
    OptionalInteger,
    Boolean,
    OptionalBoolean,
    Text,
    Word, ///< of an enumeration (kinds/words.h)
    Numbers, ///< a list of them
    Texts,
    NumbersByKey,
    Record,
    OptionalRecord, ///< null where there is none
    Records,
    RecordsByKey,
    Packed, ///< as one text, by functions of its own
    Custom, ///< as any JSON, by functions of its own
};

/// Receives the entries of a list or a map one by one; of a list the key is empty.
using VisitEntry = void (*)(void *context, std::string_view key, const void *entry);

/// A list, a map or an optional of records without its type.
struct EntriesAccess
{
    /// Reads one entry and adds it.
    void (*add)(void *list, const std::string &key, const Json &json, const std::string &place,
                std::vector<Error> &errors);
    void (*each)(const void *list, void *context, VisitEntry visit);
    size_t fixed; ///< length of an array; 0: any
};

/// One member of a record.
struct Field
{
    std::string_view key; ///< in a file, unit-suffixed
    std::string_view meaning; ///< in words
    MemberShape shape = MemberShape::Number;
    bool required = false; ///< must stand in a file
    bool onlyIfSet = false; ///< left out where it is as in a new record
    std::string_view unit {}; ///< of the file
    double least = -std::numeric_limits<double>::infinity(); ///< both allowed
    double most = std::numeric_limits<double>::infinity();
    bool aboveLeast = false; ///< `least` itself is refused
    Words (*words)() = nullptr; ///< a text is one of these
    std::string_view entry {}; ///< what an entry of a list is, for errors: "a file name"
    bool oneStandsAlone = false; ///< a list of one record is that record in a file
    bool asRows = false; ///< records of a list as arrays of their members, null for what is absent

    const void *(*at)(const void *record) = nullptr; ///< the member
    bool (*same)(const void *a, const void *b) = nullptr; ///< two records, by this member
    const RecordType &(*record)() = nullptr; ///< of Record, Records, RecordsByKey
    const EntriesAccess *entries = nullptr; ///< of lists, maps and optionals of records
    bool (*when)(const void *record) = nullptr; ///< only then it is in a file at all
    std::string (*pack)(const void *member) = nullptr;
    /// Errors: the reason.
    Result<void> (*unpack)(void *member, const std::string &text) = nullptr;
    void (*readCustom)(void *member, const Json &json, const std::string &place,
                       std::vector<Error> &errors)
        = nullptr;
    Json (*writeCustom)(const void *member) = nullptr;
    Json (*schemaOfCustom)() = nullptr; ///< null: anything

    /// What it is and may be.
    Phrase about() const { return aboutNumber(meaning, least, most, unit); }
    bool isRanged() const { return most < std::numeric_limits<double>::infinity(); }
    /// The number of a record this is a field of; only for MemberShape::Number.
    double number(const void *of) const { return *static_cast<const double *>(at(of)); }
    /// The same, or of MemberShape::OptionalNumber; absent where none is entered.
    std::optional<double> entered(const void *of) const
    {
        return shape == MemberShape::OptionalNumber
            ? *static_cast<const std::optional<double> *>(at(of))
            : number(of);
    }
    void setNumber(void *of, double value) const
    {
        auto *where = const_cast<void *>(static_cast<const void *>(at(of)));
        if (shape == MemberShape::OptionalNumber)
            *static_cast<std::optional<double> *>(where) = value;
        else
            *static_cast<double *>(where) = value;
    }
};

/// A kind of record.
struct RecordType
{
    std::string_view name; ///< "reading"; of an edit its word in a file
    std::vector<Field> fields; ///< in the order of a file
    const void *fresh = nullptr; ///< one as it is new
    const ExtraKeys *(*extra)(const void *record) = nullptr; ///< null: unknown keys are not kept
    bool strict = false; ///< unknown keys are errors
    void (*complete)(void *record) = nullptr; ///< after reading: what follows from the rest

    /// @return null for an unknown key
    const Field *find(std::string_view key) const;
};

/// The description of a record; specialised in the source that owns it.
template <class T> const RecordType &recordType();

/// Reads a record over what it holds. Errors are collected with their JSON pointers: what is
/// missing, of another kind than described, or not known to a strict record.
void readRecord(const RecordType &type, void *record, const Json &json, const std::string &place,
                std::vector<Error> &errors);
Json writeRecord(const RecordType &type, const void *record);
/// A record as JSON Schema (draft 2020-12), as far as its description goes.
Json schemaOf(const RecordType &type);
/// Members out of their range and texts that are none of their words, with places; those of the
/// records it is made of too.
void checkRanges(const RecordType &type, const void *record, const std::string &place,
                 std::vector<Error> &errors);

template <class T>
T fromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    T out {};
    readRecord(recordType<T>(), &out, json, place, errors);
    return out;
}
/// `J` keeps the JSON library out of those who only describe records.
template <class T, class J = Json> J toJson(const T &record)
{
    return writeRecord(recordType<T>(), &record);
}

namespace fields {

template <class T, class = void> struct IsList : std::false_type
{
};
template <class T>
struct IsList<
    T, std::void_t<decltype(std::declval<T &>().push_back(std::declval<typename T::value_type>()))>>
    : std::true_type
{
};
template <class T> struct IsMap : std::false_type
{
};
template <class T> struct IsMap<std::map<std::string, T>> : std::true_type
{
};
template <class T> struct IsArray : std::false_type
{
};
template <class T, size_t n> struct IsArray<std::array<T, n>> : std::true_type
{
};
template <class T> struct IsOptional : std::false_type
{
};
template <class T> struct IsOptional<std::optional<T>> : std::true_type
{
};

template <class M> struct EntryOf
{
    using Type = typename M::value_type;
};
template <class T> struct EntryOf<std::map<std::string, T>>
{
    using Type = T;
};

template <class M> constexpr MemberShape shapeOf()
{
    if constexpr (std::is_same_v<M, double>)
        return MemberShape::Number;
    else if constexpr (std::is_same_v<M, std::optional<double>>)
        return MemberShape::OptionalNumber;
    else if constexpr (std::is_same_v<M, int>)
        return MemberShape::Integer;
    else if constexpr (std::is_same_v<M, std::optional<int>>)
        return MemberShape::OptionalInteger;
    else if constexpr (std::is_same_v<M, bool>)
        return MemberShape::Boolean;
    else if constexpr (std::is_same_v<M, std::optional<bool>>)
        return MemberShape::OptionalBoolean;
    else if constexpr (std::is_same_v<M, std::string>)
        return MemberShape::Text;
    else if constexpr (std::is_enum_v<M>)
        return MemberShape::Word;
    else if constexpr (std::is_same_v<M, std::vector<double>>)
        return MemberShape::Numbers;
    else if constexpr (std::is_same_v<M, std::vector<std::string>>)
        return MemberShape::Texts;
    else if constexpr (std::is_same_v<M, std::map<std::string, double>>)
        return MemberShape::NumbersByKey;
    else if constexpr (IsMap<M>::value)
        return MemberShape::RecordsByKey;
    else if constexpr (IsOptional<M>::value)
        return MemberShape::OptionalRecord;
    else if constexpr (IsArray<M>::value || IsList<M>::value)
        return MemberShape::Records;
    else
        return MemberShape::Record;
}

template <class M>
void addEntry(void *list, const std::string &key, const Json &json, const std::string &place,
              std::vector<Error> &errors)
{
    using E = typename EntryOf<M>::Type;
    M &all = *static_cast<M *>(list);
    if constexpr (IsMap<M>::value)
        readRecord(recordType<E>(), &all[key], json, place, errors);
    else if constexpr (IsArray<M>::value)
        readRecord(recordType<E>(), &all[static_cast<size_t>(std::stoul(key))], json, place,
                   errors);
    else if constexpr (IsOptional<M>::value)
        readRecord(recordType<E>(), &all.emplace(), json, place, errors);
    else
        all.push_back(fromJson<E>(json, place, errors));
}

template <class M> void eachEntry(const void *list, void *context, VisitEntry visit)
{
    const M &all = *static_cast<const M *>(list);
    if constexpr (IsMap<M>::value) {
        for (const auto &[key, entry] : all)
            visit(context, key, &entry);
    } else if constexpr (IsOptional<M>::value) {
        if (all)
            visit(context, {}, &*all);
    } else {
        for (const auto &entry : all)
            visit(context, {}, &entry);
    }
}

template <class M> constexpr size_t fixedSize()
{
    if constexpr (IsArray<M>::value)
        return std::tuple_size_v<M>;
    else
        return 0;
}
template <class M> constexpr EntriesAccess entriesOf { addEntry<M>, eachEntry<M>, fixedSize<M>() };

/// A member of a member: `memberOf<&ChosenOil::oil, &Oil::kv40_mm2_s>(chosen)`.
template <auto first, auto... rest, class T> const auto &memberOf(const T &record)
{
    if constexpr (sizeof...(rest) == 0)
        return record.*first;
    else
        return memberOf<rest...>(record.*first);
}

template <class T> struct Access
{
    template <auto... path> static const void *at(const void *record)
    {
        return &memberOf<path...>(*static_cast<const T *>(record));
    }
    template <auto... path> static bool same(const void *a, const void *b)
    {
        return memberOf<path...>(*static_cast<const T *>(a))
            == memberOf<path...>(*static_cast<const T *>(b));
    }
};

template <class T, auto... path>
using MemberOf = std::remove_cvref_t<decltype(memberOf<path...>(std::declval<const T &>()))>;

} // namespace fields

/// How one member is reached: a constant of each.
struct MemberAccess
{
    MemberShape shape;
    const void *(*at)(const void *record);
    bool (*same)(const void *a, const void *b);
    const RecordType &(*record)();
    const EntriesAccess *entries;
    Words (*words)() = nullptr; ///< of an enumeration
};

namespace fields {

template <class M> constexpr auto enumWordsOf() -> Words (*)()
{
    if constexpr (std::is_enum_v<M>) {
        static_assert(sizeof(M) == 1, "an enumeration in a file is an unsigned char");
        return [] { return mildpath::wordsOf(enumWords<M>()); };
    } else {
        return nullptr;
    }
}

template <class M> constexpr auto recordOf() -> const RecordType &(*)()
{
    constexpr MemberShape shape = shapeOf<M>();
    if constexpr (shape == MemberShape::Record)
        return recordType<M>;
    else if constexpr (shape == MemberShape::Records || shape == MemberShape::RecordsByKey
                       || shape == MemberShape::OptionalRecord)
        return recordType<typename EntryOf<M>::Type>;
    else
        return nullptr;
}
template <class M> constexpr const EntriesAccess *entriesAccessOf()
{
    constexpr MemberShape shape = shapeOf<M>();
    if constexpr (shape == MemberShape::Records || shape == MemberShape::RecordsByKey
                  || shape == MemberShape::OptionalRecord)
        return &entriesOf<M>;
    else
        return nullptr;
}
template <class T, auto... path>
constexpr MemberAccess memberAccess {
    shapeOf<MemberOf<T, path...>>(),         Access<T>::template at<path...>,
    Access<T>::template same<path...>,       recordOf<MemberOf<T, path...>>(),
    entriesAccessOf<MemberOf<T, path...>>(), enumWordsOf<MemberOf<T, path...>>(),
};
/// Of a member kept as one text: what it is made of need not be described.
template <class T, auto... path>
constexpr MemberAccess packedAccess { MemberShape::Packed, Access<T>::template at<path...>,
                                      Access<T>::template same<path...>, nullptr, nullptr };

} // namespace fields

/// The part of a description that needs no type, out of line: a member costs its user one call.
class Description
{
public:
    Description(std::string_view name, const void *fresh);
    ~Description();
    Description(Description &&) noexcept;

protected:
    void add(std::string_view key, std::string_view meaning, const MemberAccess &access);
    /// Of the whole record.
    void addOfAll(std::string_view key, std::string_view meaning, MemberShape shape);
    void addPacked(std::string_view key, std::string_view meaning, const MemberAccess &access,
                   std::string (*pack)(const void *),
                   Result<void> (*unpack)(void *, const std::string &));
    void limit(std::string_view unit, double least, double most);
    Field &last();
    RecordType take();

    RecordType m_type;
};

/// Builds the description of a record; what follows a member changes that member.
template <class T> class Describe : public Description
{
public:
    /// @param name  see RecordType
    explicit Describe(std::string_view name)
        : Description(name, &fresh())
    {
    }

    /// A member that may be missing in a file (it stays as it was then) and is always written.
    template <auto... path> Describe &&field(std::string_view key, std::string_view meaning) &&
    {
        add(key, meaning, fields::memberAccess<T, path...>);
        return std::move(*this);
    }
    /// One that must be there.
    template <auto... path> Describe &&must(std::string_view key, std::string_view meaning) &&
    {
        std::move(*this).template field<path...>(key, meaning);
        last().required = true;
        return std::move(*this);
    }
    /// One that is left out where it is as in a new record.
    template <auto... path> Describe &&ifSet(std::string_view key, std::string_view meaning) &&
    {
        std::move(*this).template field<path...>(key, meaning);
        last().onlyIfSet = true;
        return std::move(*this);
    }
    /// Members of this same record that a file keeps in an object of their own.
    Describe &&within(std::string_view key, std::string_view meaning,
                      const RecordType &(*type)()) &&
    {
        addOfAll(key, meaning, MemberShape::Record);
        last().record = type;
        return std::move(*this);
    }
    /// A member kept as one text.
    template <auto member>
    Describe &&packed(std::string_view key, std::string_view meaning,
                      std::string (*pack)(const void *),
                      Result<void> (*unpack)(void *, const std::string &)) &&
    {
        addPacked(key, meaning, fields::packedAccess<T, member>, pack, unpack);
        return std::move(*this);
    }
    /// What no other shape fits: the functions are given the whole record.
    Describe &&custom(std::string_view key, std::string_view meaning,
                      void (*read)(void *, const Json &, const std::string &, std::vector<Error> &),
                      Json (*write)(const void *), Json (*schema)() = nullptr) &&
    {
        addOfAll(key, meaning, MemberShape::Custom);
        last().readCustom = read;
        last().writeCustom = write;
        last().schemaOfCustom = schema;
        return std::move(*this);
    }

    /// Unit and range of the last member.
    Describe &&in(std::string_view unit, double least = -std::numeric_limits<double>::infinity(),
                  double most = std::numeric_limits<double>::infinity()) &&
    {
        limit(unit, least, most);
        return std::move(*this);
    }
    /// The same, where the least itself is refused.
    Describe &&above(double least, std::string_view unit, double most) &&
    {
        limit(unit, least, most);
        last().aboveLeast = true;
        return std::move(*this);
    }
    /// The last member is one of these words. One that is left out where it is empty may be.
    Describe &&oneOf(Words (*words)()) &&
    {
        last().words = words;
        return std::move(*this);
    }
    /// The last member is in a file only where this holds.
    template <class Question> Describe &&when(Question) &&
    {
        last().when
            = [](const void *record) { return Question {}(*static_cast<const T *>(record)); };
        return std::move(*this);
    }
    /// What an entry of the last list is, for errors.
    Describe &&of(std::string_view entry) &&
    {
        last().entry = entry;
        return std::move(*this);
    }
    /// The last list may be in a file as its one entry.
    Describe &&oneStandsAlone() &&
    {
        last().oneStandsAlone = true;
        return std::move(*this);
    }
    /// Records of the last list as rows of values. @param entry  what a row holds, for errors
    Describe &&rows(std::string_view entry) &&
    {
        last().asRows = true;
        last().entry = entry;
        return std::move(*this);
    }
    /// What follows from the rest once all is read.
    template <class Complete> Describe &&then(Complete) &&
    {
        m_type.complete = [](void *record) { Complete {}(*static_cast<T *>(record)); };
        return std::move(*this);
    }
    Describe &&strict() &&
    {
        m_type.strict = true;
        return std::move(*this);
    }
    /// The member that keeps the keys this version does not know.
    template <auto member> Describe &&keepsUnknown() &&
    {
        m_type.extra = [](const void *record) -> const ExtraKeys * {
            return &(static_cast<const T *>(record)->*member);
        };
        return std::move(*this);
    }
    /// Adds the members of another part of the description.
    template <class Part> Describe &&with(Part part) && { return part(std::move(*this)); }

    operator RecordType() && { return take(); }

private:
    static const T &fresh()
    {
        static const T record {};
        return record;
    }
};

} // namespace mildpath
