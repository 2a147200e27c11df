// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/fields.h"

#include "quantity/json.h"
#include "quantity/jsonreader.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

template <class M> M &memberIn(const Field &f, void *record)
{
    return *const_cast<M *>(static_cast<const M *>(f.at(record)));
}
template <class M> const M &memberIn(const Field &f, const void *record)
{
    return *static_cast<const M *>(f.at(record));
}

/// Reads one record, member by member.
class RecordReader
{
public:
    RecordReader(const RecordType &type, void *record, const Json &json, const std::string &place,
                 std::vector<Error> &errors)
        : m_type(type)
        , m_record(record)
        , m_in(json, place, errors)
        , m_errors(errors)
    {
    }

    void run()
    {
        for (const Field &f : m_type.fields)
            if (!f.when || f.when(m_record))
                read(f, std::string(f.key));
        if (m_type.complete)
            m_type.complete(m_record);
        if (!m_type.extra && !m_type.strict)
            return;
        const Json unknown = m_in.leftOver();
        if (m_type.extra)
            *const_cast<ExtraKeys *>(m_type.extra(m_record)) = unknown;
        else
            for (const auto &[key, value] : unknown.items())
                m_in.error(key, "is not known");
    }

private:
    void read(const Field &f, const std::string &key)
    {
        switch (f.shape) {
        case MemberShape::Number: {
            double &v = memberIn<double>(f, m_record);
            v = f.required ? m_in.number(key) : m_in.number(key, v);
            break;
        }
        case MemberShape::OptionalNumber:
            memberIn<std::optional<double>>(f, m_record)
                = f.required ? m_in.number(key) : m_in.optionalNumber(key);
            break;
        case MemberShape::Integer: {
            int &v = memberIn<int>(f, m_record);
            if (f.required && !m_in.has(key))
                m_in.error(key, "is missing");
            v = m_in.integer(key, v);
            break;
        }
        case MemberShape::OptionalInteger:
            if (m_in.has(key))
                memberIn<std::optional<int>>(f, m_record) = m_in.integer(key, 0);
            break;
        case MemberShape::Boolean: {
            bool &v = memberIn<bool>(f, m_record);
            v = m_in.boolean(key, v);
            break;
        }
        case MemberShape::OptionalBoolean:
            if (m_in.has(key))
                memberIn<std::optional<bool>>(f, m_record) = m_in.boolean(key, false);
            break;
        case MemberShape::Text: {
            std::string &v = memberIn<std::string>(f, m_record);
            v = f.required ? m_in.text(key) : m_in.text(key, v);
            break;
        }
        case MemberShape::Word:
            word(f, key);
            break;
        case MemberShape::Packed:
            unpack(f, key);
            break;
        case MemberShape::Custom:
            if (const Json *value = here(key))
                f.readCustom(m_record, *value, m_in.placeOf(key), m_errors);
            break;
        default:
            readMany(f, key);
        }
    }

    /// What is none of the words is an error here: there is no kind for it to become.
    void word(const Field &f, const std::string &key)
    {
        if (!f.required && !m_in.has(key))
            return;
        const size_t before = m_errors.size();
        const std::string is = m_in.text(key);
        if (m_errors.size() > before)
            return; // missing, or no text at all
        const auto words = f.words();
        const auto at = std::find(words.begin(), words.end(), is);
        if (at != words.end())
            memberIn<unsigned char>(f, m_record) = static_cast<unsigned char>(at - words.begin());
        else
            m_errors.push_back({ m_in.placeOf(key), noSuchWord(words, is) });
    }

    void readMany(const Field &f, const std::string &key)
    {
        switch (f.shape) {
        case MemberShape::Numbers:
            for (const Json &v : entriesOf(f, key, "a number", &Json::is_number))
                memberIn<std::vector<double>>(f, m_record).push_back(v.get<double>());
            break;
        case MemberShape::Texts:
            for (const Json &v : entriesOf(f, key, "text", &Json::is_string))
                memberIn<std::vector<std::string>>(f, m_record).push_back(v.get<std::string>());
            break;
        case MemberShape::NumbersByKey: {
            const Json &all = m_in.object(key);
            JsonReader each(all, m_in.placeOf(key), m_errors);
            for (const auto &[name, value] : all.items())
                memberIn<std::map<std::string, double>>(f, m_record)[name] = each.number(name);
            break;
        }
        case MemberShape::Record:
            readRecord(f.record(), const_cast<void *>(f.at(m_record)), m_in.object(key),
                       m_in.placeOf(key), m_errors);
            break;
        case MemberShape::OptionalRecord:
            if (m_in.has(key))
                addEntry(f, {}, m_in.object(key), m_in.placeOf(key));
            break;
        case MemberShape::RecordsByKey:
            for (const auto &[name, value] : m_in.object(key).items())
                addEntry(f, name, value, m_in.placeOf(key) + "/" + name);
            break;
        default:
            readList(f, key);
        }
    }

    /// The entries of a list that are of the kind wanted; the others are errors.
    std::vector<Json> entriesOf(const Field &f, const std::string &key, const char *usual,
                                bool (Json::*is)() const noexcept)
    {
        const Json &all = m_in.array(key);
        std::vector<Json> out;
        for (size_t i = 0; i < all.size(); ++i) {
            if ((all[i].*is)())
                out.push_back(all[i]);
            else
                m_in.error(key + "/" + std::to_string(i),
                           "must be " + std::string(f.entry.empty() ? usual : f.entry));
        }
        return out;
    }

    void readList(const Field &f, const std::string &key)
    {
        if (f.required && !m_in.has(key))
            m_in.error(key, "is missing");
        if (f.oneStandsAlone && m_in.has(key) && m_in.value(key)->is_object()) {
            addEntry(f, "0", *m_in.value(key), m_in.placeOf(key));
            return;
        }
        const Json &all = m_in.array(key);
        if (f.entries->fixed && all.size() != f.entries->fixed) {
            m_in.error(key, std::string(f.entry));
            return;
        }
        for (size_t i = 0; i < all.size(); ++i) {
            const std::string at = std::to_string(i);
            if (!f.asRows)
                addEntry(f, at, all[i], m_in.placeOf(key) + "/" + at);
            else if (const auto object = fromRow(f.record(), all[i]))
                addEntry(f, at, *object, m_in.placeOf(key) + "/" + at);
            else
                m_in.error(key + "/" + at, "must be " + std::string(f.entry));
        }
    }

    /// A row of values as the object it stands for; absent where it is none.
    static std::optional<Json> fromRow(const RecordType &type, const Json &row)
    {
        if (!row.is_array() || row.size() != type.fields.size())
            return std::nullopt;
        Json out = Json::object();
        for (size_t k = 0; k < row.size(); ++k) {
            const bool mayLack = type.fields[k].shape == MemberShape::OptionalNumber;
            if (!row[k].is_number() && !(mayLack && row[k].is_null()))
                return std::nullopt;
            out[std::string(type.fields[k].key)] = row[k];
        }
        return out;
    }

    void addEntry(const Field &f, const std::string &key, const Json &json,
                  const std::string &place)
    {
        f.entries->add(const_cast<void *>(f.at(m_record)), key, json, place, m_errors);
    }

    void unpack(const Field &f, const std::string &key)
    {
        const std::string text = m_in.text(key);
        if (const auto ok = f.unpack(const_cast<void *>(f.at(m_record)), text); !ok)
            m_in.error(key, ok.error().message);
    }

    const Json *here(const std::string &key)
    {
        if (!m_in.has(key))
            return nullptr;
        return m_in.value(key);
    }

    const RecordType &m_type;
    void *m_record;
    JsonReader m_in;
    std::vector<Error> &m_errors;
};

template <class M> Json orNull(const std::optional<M> &value)
{
    return value ? Json(*value) : Json();
}

Json rowOf(const Json &object)
{
    Json out = Json::array();
    for (const auto &[key, value] : object.items())
        out.push_back(value);
    return out;
}

struct Writing
{
    const Field &field;
    Json out;
};

void writeEntry(void *context, std::string_view key, const void *entry)
{
    Writing &to = *static_cast<Writing *>(context);
    Json one = writeRecord(to.field.record(), entry);
    if (to.field.shape == MemberShape::RecordsByKey)
        to.out[std::string(key)] = std::move(one);
    else if (to.field.shape == MemberShape::OptionalRecord)
        to.out = std::move(one);
    else
        to.out.push_back(to.field.asRows ? rowOf(one) : std::move(one));
}

Json writeEntries(const Field &f, const void *record)
{
    Writing to { f, {} };
    if (f.shape == MemberShape::RecordsByKey)
        to.out = Json::object();
    else if (f.shape == MemberShape::Records)
        to.out = Json::array();
    f.entries->each(f.at(record), &to, writeEntry);
    if (f.oneStandsAlone && to.out.size() == 1)
        return std::move(to.out.front());
    return std::move(to.out);
}

Json writeField(const Field &f, const void *record)
{
    switch (f.shape) {
    case MemberShape::Number:
        return memberIn<double>(f, record);
    case MemberShape::OptionalNumber:
        return orNull(memberIn<std::optional<double>>(f, record));
    case MemberShape::Integer:
        return memberIn<int>(f, record);
    case MemberShape::OptionalInteger:
        return orNull(memberIn<std::optional<int>>(f, record));
    case MemberShape::Boolean:
        return memberIn<bool>(f, record);
    case MemberShape::OptionalBoolean:
        return orNull(memberIn<std::optional<bool>>(f, record));
    case MemberShape::Text:
        return memberIn<std::string>(f, record);
    case MemberShape::Word:
        return std::string(f.words()[memberIn<unsigned char>(f, record)]);
    case MemberShape::Numbers:
        return memberIn<std::vector<double>>(f, record);
    case MemberShape::Texts:
        return memberIn<std::vector<std::string>>(f, record);
    case MemberShape::NumbersByKey:
        return memberIn<std::map<std::string, double>>(f, record);
    case MemberShape::Record:
        return writeRecord(f.record(), f.at(record));
    case MemberShape::Packed:
        return f.pack(f.at(record));
    case MemberShape::Custom:
        return f.writeCustom(record);
    case MemberShape::OptionalRecord:
    case MemberShape::Records:
    case MemberShape::RecordsByKey:
        return writeEntries(f, record);
    }
    return {};
}

} // namespace

std::string noSuchWord(const Words &words, const std::string &is)
{
    std::string known;
    for (size_t i = 0; i < words.size(); ++i)
        known += std::string(i == 0                      ? ""
                                 : i + 1 == words.size() ? " or "
                                                         : ", ")
            + std::string(words[i]);
    return "must be " + known + ", is \"" + is + "\"";
}

const Field *RecordType::find(std::string_view key) const
{
    for (const Field &f : fields)
        if (f.key == key)
            return &f;
    return nullptr;
}

void readRecord(const RecordType &type, void *record, const Json &json, const std::string &place,
                std::vector<Error> &errors)
{
    RecordReader(type, record, json, place, errors).run();
}

Json writeRecord(const RecordType &type, const void *record)
{
    Json out = Json::object();
    for (const Field &f : type.fields)
        if ((!f.when || f.when(record)) && !(f.onlyIfSet && f.same(record, type.fresh)))
            out[std::string(f.key)] = writeField(f, record);
    if (type.extra)
        out.update(type.extra(record)->json());
    return out;
}

namespace {

class RangeCheck
{
public:
    RangeCheck(const void *record, const std::string &place, std::vector<Error> &errors)
        : m_record(record)
        , m_place(place)
        , m_errors(errors)
    {
    }

    void run(const Field &f) const
    {
        const std::string place = m_place + "/" + std::string(f.key);
        switch (f.shape) {
        case MemberShape::Number:
            number(f, f.number(m_record), place);
            break;
        case MemberShape::Integer:
            number(f, memberIn<int>(f, m_record), place);
            break;
        case MemberShape::OptionalNumber:
            if (const auto &v = memberIn<std::optional<double>>(f, m_record))
                number(f, *v, place);
            break;
        case MemberShape::OptionalInteger:
            if (const auto &v = memberIn<std::optional<int>>(f, m_record))
                number(f, *v, place);
            break;
        case MemberShape::Text:
            text(f, memberIn<std::string>(f, m_record), place);
            break;
        case MemberShape::NumbersByKey:
            for (const auto &[key, v] : memberIn<std::map<std::string, double>>(f, m_record))
                number(f, v, place + "/" + key);
            break;
        case MemberShape::Record:
            checkRanges(f.record(), f.at(m_record), place, m_errors);
            break;
        case MemberShape::OptionalRecord:
        case MemberShape::Records:
        case MemberShape::RecordsByKey: {
            Each each { f, place, m_errors, 0 };
            f.entries->each(f.at(m_record), &each, checkEntry);
            break;
        }
        default:
            break;
        }
    }

private:
    struct Each
    {
        const Field &field;
        const std::string &place;
        std::vector<Error> &errors;
        size_t index;
    };
    static void checkEntry(void *context, std::string_view key, const void *entry)
    {
        Each &each = *static_cast<Each *>(context);
        std::string place = each.place;
        if (each.field.shape == MemberShape::Records)
            place += "/" + std::to_string(each.index++);
        else if (each.field.shape == MemberShape::RecordsByKey)
            place += "/" + std::string(key);
        checkRanges(each.field.record(), entry, place, each.errors);
    }

    void number(const Field &f, double v, const std::string &place) const
    {
        if (!f.isRanged() || (v <= f.most && (f.aboveLeast ? v > f.least : v >= f.least)))
            return;
        m_errors.push_back({ place,
                             f.aboveLeast ? mustBeAbove(f.least, f.most, v, f.unit)
                                          : mustBe(f.least, f.most, v, f.unit) });
    }

    void text(const Field &f, const std::string &is, const std::string &place) const
    {
        if (!f.words || (is.empty() && f.onlyIfSet))
            return;
        const auto words = f.words();
        if (std::find(words.begin(), words.end(), is) != words.end())
            return;
        m_errors.push_back({ place, noSuchWord(words, is) });
    }

    const void *m_record;
    const std::string &m_place;
    std::vector<Error> &m_errors;
};

} // namespace

void checkRanges(const RecordType &type, const void *record, const std::string &place,
                 std::vector<Error> &errors)
{
    const RangeCheck check(record, place, errors);
    for (const Field &f : type.fields)
        if (!f.when || f.when(record))
            check.run(f);
}

Description::Description(std::string_view name, const void *fresh)
{
    m_type.name = name;
    m_type.fresh = fresh;
}
Description::Description(Description &&) noexcept = default;
Description::~Description() = default;

void Description::add(std::string_view key, std::string_view meaning, const MemberAccess &access)
{
    Field f;
    f.key = key;
    f.meaning = meaning;
    f.shape = access.shape;
    f.at = access.at;
    f.same = access.same;
    f.record = access.record;
    f.entries = access.entries;
    f.words = access.words;
    m_type.fields.push_back(f);
}

void Description::addOfAll(std::string_view key, std::string_view meaning, MemberShape shape)
{
    const auto itself = [](const void *record) { return record; };
    add(key, meaning, { shape, itself, nullptr, nullptr, nullptr });
}

void Description::addPacked(std::string_view key, std::string_view meaning,
                            const MemberAccess &access, std::string (*pack)(const void *),
                            Result<void> (*unpack)(void *, const std::string &))
{
    add(key, meaning, access);
    last().required = true;
    last().pack = pack;
    last().unpack = unpack;
}

void Description::limit(std::string_view unit, double least, double most)
{
    last().unit = unit;
    last().least = least;
    last().most = most;
}

Field &Description::last()
{
    return m_type.fields.back();
}

RecordType Description::take()
{
    return std::move(m_type);
}

} // namespace mildpath
