// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/json.h"
#include "testing.h"

#include <random>

namespace mildpath {

/// A value for each member, none of them what a new record has.
class Sample
{
public:
    explicit Sample(unsigned seed)
        : m_random(seed)
    {
    }

    Json of(const RecordType &type)
    {
        Json out = Json::object();
        for (const Field &f : type.fields)
            out[std::string(f.key)] = value(f);
        return out;
    }

private:
    double number(double from, double to)
    {
        // Steps of 1/8 are exact in binary and in print.
        return std::round(std::uniform_real_distribution(from, to)(m_random) * 8) / 8;
    }
    int count() { return static_cast<int>(m_random() % 3) + 2; }
    std::string word() { return "word" + std::to_string(m_random() % 1000); }

    Json value(const Field &f)
    {
        switch (f.shape) {
        case MemberShape::Number:
            return f.isRanged() ? number(f.least + (f.most - f.least) * 0.3, f.most)
                                : number(31, 97) + 0.125;
        case MemberShape::OptionalNumber:
            return number(31, 97);
        case MemberShape::Integer:
        case MemberShape::OptionalInteger:
            return count() + 7;
        case MemberShape::Boolean: {
            // The one a new record has not.
            return true;
        }
        case MemberShape::OptionalBoolean:
            return true;
        case MemberShape::Text:
            return word();
        case MemberShape::Word: {
            const auto words = f.words();
            return std::string(words[static_cast<size_t>(count()) % words.size()]);
        }
        default:
            return many(f);
        }
    }

    Json many(const Field &f)
    {
        Json out = Json::array();
        const int entries
            = f.entries && f.entries->fixed ? static_cast<int>(f.entries->fixed) : count();
        switch (f.shape) {
        case MemberShape::Numbers:
            for (int i = 0; i < entries; ++i)
                out.push_back(number(1, 90));
            return out;
        case MemberShape::Texts:
            for (int i = 0; i < entries; ++i)
                out.push_back(word());
            return out;
        case MemberShape::NumbersByKey:
            out = Json::object();
            for (int i = 0; i < entries; ++i)
                out["key" + std::to_string(i)] = number(1, 90);
            return out;
        case MemberShape::Record:
        case MemberShape::OptionalRecord:
            return of(f.record());
        case MemberShape::Records:
            for (int i = 0; i < entries; ++i) {
                const Json one = of(f.record());
                Json row = Json::array();
                for (const auto &[key, v] : one.items())
                    row.push_back(v);
                out.push_back(f.asRows ? row : one);
            }
            return out;
        case MemberShape::RecordsByKey:
            out = Json::object();
            for (int i = 0; i < entries; ++i)
                out["key" + std::to_string(i)] = of(f.record());
            return out;
        case MemberShape::Packed:
            return "1.5 -2 3.25";
        default:
            return Json::object();
        }
    }

    std::mt19937 m_random;
};

/// Members that are in a file under this record's own values, in a list of text.
inline QStringList keysWritten(const RecordType &type, const void *record)
{
    QStringList out;
    const Json written = writeRecord(type, record);
    for (const auto &[key, value] : written.items())
        out << QString::fromStdString(key);
    return out;
}

/// Takes away from an object what its record does not put into a file as it is now: members that
/// go with another value of some other member.
inline void dropUnwritten(const RecordType &type, const void *record, Json &object)
{
    for (const Field &f : type.fields) {
        const std::string key(f.key);
        bool elsewhere = false; // the same key for another value of the record
        for (const Field &other : type.fields)
            elsewhere = elsewhere
                || (&other != &f && other.key == f.key && (!other.when || other.when(record)));
        if (f.when && !f.when(record) && !elsewhere)
            object.erase(key);
    }
}

inline bool hasPlace(const std::vector<Error> &errors, const std::string &place)
{
    return std::any_of(errors.begin(), errors.end(),
                       [&](const Error &e) { return e.place == place; });
}

} // namespace mildpath
