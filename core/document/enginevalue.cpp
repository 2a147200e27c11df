// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/enginevalue.h"

#include "circuit/elementtypes.h"
#include "document/afterrun.h"
#include "document/editkind.h"
#include "document/setvalues.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// "circuit/main_1/d_mm" in its three parts; "use/most_rpm" has no owner.
struct Place
{
    std::string_view part, owner, key;

    explicit Place(std::string_view at)
    {
        const auto first = at.find('/'), last = at.rfind('/');
        if (first == std::string_view::npos)
            return;
        part = at.substr(0, first);
        key = at.substr(last + 1);
        if (last > first)
            owner = at.substr(first + 1, last - first - 1);
    }
    std::string_view family() const { return owner.substr(0, owner.find('@')); }
    std::string_view stop() const
    {
        const auto at = owner.find('@');
        return at == std::string_view::npos ? std::string_view() : owner.substr(at + 1);
    }
};

struct LimitKey
{
    std::string_view key, meaning;
};
constexpr std::array<LimitKey, 3> limitKeys { {
    { "min_um", "least clearance allowed" },
    { "max_um", "most clearance allowed" },
    { "target_um", "clearance aimed at" },
} };

AboutValue about(const NumberKey &k)
{
    return { std::string(k.meaning), k.unit(), k.least, k.most, k.aboveLeast, k.yesNo };
}

std::optional<AboutValue> about(const RecordType &type, std::string_view key)
{
    const Field *f = type.find(key);
    if (!f || f->shape != MemberShape::Number || !f->isRanged())
        return std::nullopt;
    return AboutValue { std::string(f->meaning), f->unit, f->least, f->most, f->aboveLeast };
}

std::optional<double> limitValue(const Limits &l, std::string_view key)
{
    return key == limitKeys[0].key ? std::optional(l.min_um)
        : key == limitKeys[1].key  ? std::optional(l.max_um)
                                   : l.target_um;
}

/// Whose limits are, by the word that stands with them.
Origin originOf(const Limits &l)
{
    if (const auto known = fromWord<Origin>(l.source))
        return *known;
    if (l.source == "maker" || l.source.find("manufacturer") != std::string::npos)
        return Origin::Manufacturer;
    return l.source.empty() || l.source == "common practice" ? Origin::Typical : Origin::Shop;
}

/// Not a number of the element but where it leads: "circuit/relief/to_sump".
constexpr std::string_view toSumpKey = "to_sump";

/// The pump a relief valve guards: it opens at its outlet. Null for other elements.
const Element *pumpOf(const Build &build, const Element &relief)
{
    if (relief.kind != ElementKind::Relief)
        return nullptr;
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::Pump && e.to == relief.from)
            return &e;
    return nullptr;
}

Result<Build> setReliefReturn(Build build, const std::string &relief, bool toSump)
{
    Element *e = build.circuit.find(relief);
    const Element *pump = e ? pumpOf(build, *e) : nullptr;
    if (!pump)
        return fail(relief, "is no relief valve of the pump");
    e->to = toSump ? std::string(sumpNode) : pump->from;
    build.use.reliefReturnsTo.clear(); // the circuit says it
    return build;
}

Result<Build> setUnnoted(const Build &build, const Place &p, std::optional<double> value,
                         Origin origin)
{
    const std::string owner(p.owner), key(p.key);
    if (p.part == "stops")
        return setStopValue(build, { owner, key, value });
    if (p.part == "finish")
        return setSectionValue(build, { "finish", key, value });
    if (!value && p.part == "limits" && !p.stop().empty()) {
        Build out = build;
        out.limits.erase(owner);
        return out;
    }
    if (!value)
        return fail(owner + "/" + key, "must be there");
    if (p.part == "circuit" && key == toSumpKey && *value != 0 && *value != 1)
        return fail(key, "must be 1 (the sump) or 0 (the pump's inlet)");
    if (p.part == "circuit" && key == toSumpKey)
        return setReliefReturn(build, owner, *value > 0);
    if (p.part == "circuit")
        return setElementValue(build, { owner, key, *value });
    if (p.part == "engine")
        return setEngine(build, { key, *value });
    if (p.part == "use")
        return setUse(build, { key, *value });
    return setLimit(build, { owner, key, *value, std::string(wordOf(origin)) });
}

} // namespace

std::optional<AboutValue> aboutValue(const Build &build, std::string_view at)
{
    const Place p(at);
    if (p.part == "circuit") {
        const Element *e = build.circuit.find(p.owner);
        if (e && p.key == toSumpKey)
            return pumpOf(build, *e) ? std::optional(AboutValue {
                       "returns to the sump, else to the pump's inlet", "", 0, 1, false, true })
                                     : std::nullopt;
        const NumberKey *k = e ? findElementKey(e->kind, p.key) : nullptr;
        return k ? std::optional(about(*k)) : std::nullopt;
    }
    if (p.part == "stops") {
        const Stop *s = build.engine.find(p.owner);
        const NumberKey *k = s ? findStopKey(s->kind, p.key) : nullptr;
        return k ? std::optional(about(*k)) : std::nullopt;
    }
    if (p.part == "finish") {
        const NumberKey *k = findKey(finishKeys(), p.key);
        return k ? std::optional(about(*k)) : std::nullopt;
    }
    if (p.part == "engine")
        return about(recordType<Engine>(), p.key);
    if (p.part == "use")
        return about(recordType<Use>(), p.key);
    if (p.part != "limits" || !findFamily(p.family())
        || (!p.stop().empty() && !build.engine.find(p.stop())))
        return std::nullopt;
    for (const LimitKey &k : limitKeys)
        if (k.key == p.key)
            return AboutValue { std::string(k.meaning), "µm", 0, mostClearanceReading_um, false };
    return std::nullopt;
}

std::optional<double> engineValue(const Build &build, std::string_view at)
{
    const Place p(at);
    const auto known = aboutValue(build, at);
    if (!known)
        return std::nullopt;
    const std::string key(p.key);
    if (p.part == "circuit" && key == toSumpKey)
        return build.circuit.find(p.owner)->to == sumpNode ? 1 : 0;
    if (p.part == "circuit")
        return build.circuit.find(p.owner)->value(key);
    if (p.part == "finish")
        return valueOf(build.finish.values, finishKeys(), key);
    if (p.part == "stops") {
        const Stop &s = *build.engine.find(p.owner);
        return s.has(key) ? std::optional(s.value(key)) : std::nullopt;
    }
    if (p.part == "engine" || p.part == "use") {
        const bool engine = p.part == "engine";
        const double v = engine ? recordType<Engine>().find(key)->number(&build.engine)
                                : recordType<Use>().find(key)->number(&build.use);
        return v == 0 && engine ? std::nullopt : std::optional(v);
    }
    const Limits *l = limitsFor(build, std::string(p.family()), std::string(p.stop()));
    return l ? limitValue(*l, key) : std::nullopt;
}

Origin originOf(const Build &build, const std::string &at)
{
    if (const auto it = build.origins.find(at); it != build.origins.end())
        return it->second.origin;
    const Place p(at);
    if (p.part != "limits")
        return Origin::Typical;
    const Limits *l = limitsFor(build, std::string(p.family()), std::string(p.stop()));
    return l ? originOf(*l) : Origin::Typical;
}

std::vector<std::pair<Origin, double>> otherValues(const Build &build, const std::string &at)
{
    std::vector<std::pair<Origin, double>> out;
    if (const auto it = build.origins.find(at); it != build.origins.end())
        for (const auto &[word, value] : it->second.others)
            if (const auto origin = fromWord<Origin>(word))
                out.emplace_back(*origin, value);
    return out;
}

const Limits *limitsFor(const Build &build, const std::string &family, const std::string &stop)
{
    if (!stop.empty())
        if (const auto own = build.limits.find(family + "@" + stop); own != build.limits.end())
            return &own->second;
    const auto it = build.limits.find(family);
    return it == build.limits.end() ? nullptr : &it->second;
}

void noteOrigin(Build &build, const std::string &at, std::optional<double> before, Origin origin,
                const std::string &by, const std::string &when)
{
    const Origin was = originOf(build, at);
    ValueOrigin &o = build.origins[at];
    if (was != origin && before)
        o.others[std::string(wordOf(was))] = *before;
    o.others.erase(std::string(wordOf(origin)));
    o.origin = origin;
    o.by = by;
    o.at = when;
}

void dropLooseOrigins(Build &build)
{
    std::erase_if(build.limits, [&](const auto &entry) {
        const auto at = entry.first.find('@');
        return at != std::string::npos && !build.engine.find(entry.first.substr(at + 1));
    });
    std::erase_if(build.origins,
                  [&](const auto &entry) { return !aboutValue(build, entry.first); });
}

template <> const RecordType &recordType<ValueOrigin>()
{
    static const RecordType type
        = Describe<ValueOrigin>("origin")
              .must<&ValueOrigin::origin>("source", "typical, shop, manufacturer or measured")
              .ifSet<&ValueOrigin::others>("others", "what it was by other sources")
              .ifSet<&ValueOrigin::by>("by", "who said so")
              .ifSet<&ValueOrigin::at>("at", "when, ISO 8601")
              .keepsUnknown<&ValueOrigin::extra>();
    return type;
}

template <> const RecordType &recordType<SetEngineValue>()
{
    static const RecordType type
        = Describe<SetEngineValue>("value")
              .must<&SetEngineValue::at>("at", "where it stands: circuit/main_1/d_mm")
              .field<&SetEngineValue::value>("value", "in the key's unit; null takes it away")
              .field<&SetEngineValue::origin>("source", "where it comes from")
              .ifSet<&SetEngineValue::by>("by", "who")
              .ifSet<&SetEngineValue::when>("when", "ISO 8601");
    return type;
}

template <> const EditKind &editKind<SetEngineValue>()
{
    static const EditKind kind = kindOf<SetEngineValue>(
        [](const Build &build, const SetEngineValue &e) -> Result<Build> {
            if (!aboutValue(build, e.at))
                return fail(e.at, "there is no such number");
            const auto before = engineValue(build, e.at);
            auto out = setUnnoted(build, Place(e.at), e.value, e.origin);
            if (!out)
                return out;
            if (e.value)
                noteOrigin(*out, e.at, before, e.origin, e.by, e.when);
            else
                out->origins.erase(e.at);
            return out;
        },
        [](const Build &build, const SetEngineValue &e) -> Phrase {
            const auto about = aboutValue(build, e.at);
            const std::string name = about ? about->meaning : e.at;
            return e.value ? withValue(name, *e.value, about ? about->unit : "")
                           : Phrase(name + " taken away");
        });
    return kind;
}

} // namespace mildpath
