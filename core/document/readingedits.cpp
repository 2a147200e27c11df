// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include "quantity/json.h"
#include "quantity/jsonreader.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// Adds a reading without looking at the whole document.
Result<void> addReading(Build &out, Reading r)
{
    if (r.bore_mm && r.journal_mm)
        r.value_um = (*r.bore_mm - *r.journal_mm) * 1e3;
    if (!r.value_um)
        return fail("value_um", "is missing");
    if (const Stop *stop = out.engine.find(r.stop); stop && r.family.empty())
        r.family = wordOf(stop->kind);
    const Family *family = findFamily(r.family);
    if (!family)
        return fail("family", "there is no family \"" + r.family + "\"");
    if (auto ok = checkReadingValue(*family, *r.value_um); !ok)
        return ok;
    r.id = nextReadingId(out);
    if (const Reading *standing = readingAt(out, placeOf(r)))
        r.replaces = standing->id;
    out.readings.push_back(std::move(r));
    return {};
}

Result<Build> enterReadings(Build out, const std::vector<Reading> &readings)
{
    for (const Reading &r : readings)
        if (auto ok = addReading(out, r); !ok)
            return tl::unexpected(ok.error());
    return out;
}

Result<Build> withdrawReading(Build out, const WithdrawReading &e)
{
    const Reading *standing = readingAt(out, e.place);
    if (!standing)
        return fail("readings", "there is no reading at this position");
    Reading r = *standing;
    r.replaces = standing->id;
    r.id = nextReadingId(out);
    r.value_um = std::nullopt;
    r.by = e.by;
    r.at = e.at;
    out.readings.push_back(std::move(r));
    return out;
}

/// The row of that name, replaced or added.
template <class Row> void putRow(std::vector<Row> &rows, const Row &row)
{
    const auto it
        = std::find_if(rows.begin(), rows.end(), [&](const Row &r) { return r.name == row.name; });
    if (it == rows.end())
        rows.push_back(row);
    else
        *it = row;
}

Result<Build> setShellRow(Build out, const SetShellRow &e)
{
    putRow(out.shells[e.family].shells, e.row);
    return out;
}

Phrase describeHeatPoint(const HeatPoint &p)
{
    if (p.takenBack)
        return "heated block: a point withdrawn";
    Phrase out = "heated block";
    if (!p.spots_c.empty())
        append(out, asPhrase(asTemperature(p.spots_c.front())), "{*|, }");
    if (p.reading_um)
        append(out, asPhrase(asClearance(*p.reading_um)), "{*|: }");
    return out;
}

/// "Main 4, front 90°", "Cam 2, rear", "Tips, lobe 3".
std::string placeText(const Build &build, const ReadingPlace &place)
{
    const Family *family = findFamily(place.family);
    std::string name = stopName(build, place.stop);
    for (const SizeItem &i : sizeItems(build))
        if (i.family == family && i.stop->id == place.stop && i.item == place.item)
            name = i.name;
    if (!family || family->plan == PlanKind::Single)
        return name;
    name += ", " + stationName(*family, place.station);
    return family->plan == PlanKind::Shell ? name + " " + formatPlain(place.angle_deg, 0) + "°"
                                           : name;
}

// Shells stand in a line of the journal as a stock that holds the one thing that was set.

template <class E, auto fill, auto take>
void readStock(void *record, const Json &json, const std::string &place, std::vector<Error> &errors)
{
    const ShellStock stock = fromJson<ShellStock>(json, place, errors);
    if (!take(*static_cast<E *>(record), stock))
        errors.push_back({ place, "is empty" });
}
template <class E, auto fill, auto take> Json writeStock(const void *record)
{
    ShellStock one;
    fill(*static_cast<const E *>(record), one);
    return toJson(one);
}
/// The description of such an edit. @tparam fill, take  puts it into a stock, takes it out again
template <class E, auto fill, auto take> Describe<E> &&stockOf(Describe<E> &&type)
{
    return std::move(type).custom("stock", "holds what was set", readStock<E, fill, take>,
                                  writeStock<E, fill, take>);
}

constexpr auto fillFitted = [](const FitShells &e, ShellStock &s) { s.fitted[e.stop] = e.fitted; };
constexpr auto takeFitted = [](FitShells &e, const ShellStock &s) {
    if (!s.fitted.empty())
        e.fitted = s.fitted.begin()->second;
    return !s.fitted.empty();
};
constexpr auto fillRow = [](const SetShellRow &e, ShellStock &s) { s.shells.push_back(e.row); };
constexpr auto takeRow = [](SetShellRow &e, const ShellStock &s) {
    if (!s.shells.empty())
        e.row = s.shells.front();
    return !s.shells.empty();
};
constexpr auto fillClass = [](const SetSizeClass &e, ShellStock &s) {
    (e.journal ? s.journals : s.housings).push_back(e.sizeClass);
};
constexpr auto takeClass = [](SetSizeClass &e, const ShellStock &s) {
    e.journal = !s.journals.empty();
    const auto &list = e.journal ? s.journals : s.housings;
    if (!list.empty())
        e.sizeClass = list.front();
    return !list.empty();
};

} // namespace

template <> const RecordType &recordType<EnterReading>()
{
    static const RecordType type
        = Describe<EnterReading>("reading").must<&EnterReading::reading>("reading", "the reading");
    return type;
}

template <> const EditKind &editKind<EnterReading>()
{
    static const EditKind kind = kindOf<EnterReading>(
        [](const Build &build, const EnterReading &e) -> Result<Build> {
            return enterReadings(build, { e.reading });
        },
        [](const Build &build, const EnterReading &e) -> Phrase {
            const Reading &r = e.reading;
            if (!r.feel.empty())
                return named(placeText(build, placeOf(r)), r.feel);
            const double um = r.bore_mm && r.journal_mm ? (*r.bore_mm - *r.journal_mm) * 1e3
                                                        : r.value_um.value_or(0);
            return named(placeText(build, placeOf(r)), asPhrase(asClearance(um)));
        });
    return kind;
}

template <> const RecordType &recordType<EnterReadings>()
{
    static const RecordType type
        = Describe<EnterReadings>("readings")
              .must<&EnterReadings::readings>("readings", "all or none of them");
    return type;
}

template <> const EditKind &editKind<EnterReadings>()
{
    static const EditKind kind = kindOf<EnterReadings>(
        [](const Build &build, const EnterReadings &e) -> Result<Build> {
            return enterReadings(build, e.readings);
        },
        [](const Build &, const EnterReadings &e) -> Phrase {
            return Phrase("edit.readings", "{0} {0|reading|readings}",
                          { asCount(e.readings.size()) });
        });
    return kind;
}

template <> const RecordType &recordType<WithdrawReading>()
{
    using E = WithdrawReading;
    using P = ReadingPlace;
    static const RecordType type
        = Describe<E>("withdraw")
              .must<&E::place, &P::stop>("stop", "where it was read")
              .must<&E::place, &P::family>("family", "of the size")
              .field<&E::place, &P::item>("item", "within the stop")
              .must<&E::place, &P::method>("method", "how it was read")
              .field<&E::place, &P::station>("station", "from the front")
              .must<&E::place, &P::angle_deg>("angle_deg", "from the parting line")
              .in("°")
              .field<&E::by>("by", "who took it back")
              .field<&E::at>("at", "when");
    return type;
}

template <> const EditKind &editKind<WithdrawReading>()
{
    static const EditKind kind = kindOf<WithdrawReading>(
        [](const Build &build, const WithdrawReading &e) -> Result<Build> {
            return withdrawReading(build, e);
        },
        [](const Build &build, const WithdrawReading &e) -> Phrase {
            return placeText(build, e.place) + " withdrawn";
        });
    return kind;
}

template <> const RecordType &recordType<TickFastener>()
{
    static const RecordType type
        = Describe<TickFastener>("tick").must<&TickFastener::tick>("tick", "the tick");
    return type;
}

template <> const EditKind &editKind<TickFastener>()
{
    static const EditKind kind = kindOf<TickFastener>(
        [](const Build &build, const TickFastener &e) -> Result<Build> {
            Build out = build;
            out.ticks.push_back(e.tick);
            out.ticks.back().id = nextTickId(build);
            for (const TorqueCard &c : build.torqueCards)
                if (c.id == e.tick.card)
                    out.ticks.back().edition = c.edition;
            return out;
        },
        [](const Build &, const TickFastener &e) -> Phrase {
            return "bolt " + std::to_string(e.tick.fastener)
                + (e.tick.stage > 0 ? ", stage " + std::to_string(e.tick.stage) : " loosened");
        });
    return kind;
}

template <> const RecordType &recordType<FitShells>()
{
    static const RecordType type = Describe<FitShells>("fit_shells")
                                       .must<&FitShells::family>("family", "of bearings")
                                       .must<&FitShells::stop>("stop", "the bearing")
                                       .with(stockOf<FitShells, fillFitted, takeFitted>);
    return type;
}

template <> const EditKind &editKind<FitShells>()
{
    static const EditKind kind = kindOf<FitShells>(
        [](const Build &build, const FitShells &e) -> Result<Build> {
            Build out = build;
            out.shells[e.family].fitted[e.stop] = e.fitted;
            return out;
        },
        [](const Build &build, const FitShells &e) -> Phrase {
            return stopName(build, e.stop) + ", shells " + e.fitted.upper + "/" + e.fitted.lower;
        });
    return kind;
}

template <> const RecordType &recordType<SetShellRow>()
{
    static const RecordType type = Describe<SetShellRow>("shell_row")
                                       .must<&SetShellRow::family>("family", "of bearings")
                                       .with(stockOf<SetShellRow, fillRow, takeRow>);
    return type;
}

template <> const EditKind &editKind<SetShellRow>()
{
    static const EditKind kind = kindOf<SetShellRow>(
        [](const Build &build, const SetShellRow &e) -> Result<Build> {
            return setShellRow(build, e);
        },
        [](const Build &, const SetShellRow &e) -> Phrase { return "shell " + e.row.name; });
    return kind;
}

template <> const RecordType &recordType<SetSizeClass>()
{
    static const RecordType type = Describe<SetSizeClass>("size_class")
                                       .must<&SetSizeClass::family>("family", "of bearings")
                                       .with(stockOf<SetSizeClass, fillClass, takeClass>);
    return type;
}

template <> const EditKind &editKind<SetSizeClass>()
{
    static const EditKind kind = kindOf<SetSizeClass>(
        [](const Build &build, const SetSizeClass &e) -> Result<Build> {
            Build out = build;
            ShellStock &stock = out.shells[e.family];
            putRow(e.journal ? stock.journals : stock.housings, e.sizeClass);
            return out;
        },
        [](const Build &, const SetSizeClass &e) -> Phrase {
            return (e.journal ? "journal class " : "housing class ") + e.sizeClass.name;
        });
    return kind;
}

template <> const RecordType &recordType<WeighPart>()
{
    static const RecordType type
        = Describe<WeighPart>("weigh").must<&WeighPart::weighing>("weighing", "the weighing");
    return type;
}

template <> const EditKind &editKind<WeighPart>()
{
    static const EditKind kind = kindOf<WeighPart>(
        [](const Build &build, const WeighPart &e) -> Result<Build> {
            Build out = build;
            out.weighings.push_back(e.weighing);
            out.weighings.back().id = nextWeighingId(build);
            return out;
        },
        [](const Build &, const WeighPart &e) -> Phrase {
            return named(weighedPartName(e.weighing.part) + " " + std::to_string(e.weighing.item),
                         asPhrase(Quantity { e.weighing.grams, Shows::Mass, 0, 1 }));
        });
    return kind;
}

template <> const RecordType &recordType<SetWeighedPart>()
{
    static const RecordType type = Describe<SetWeighedPart>("weighed_part")
                                       .must<&SetWeighedPart::part>("part", "what is weighed")
                                       .ifSet<&SetWeighedPart::about>("about", "how alike it is");
    return type;
}

template <> const EditKind &editKind<SetWeighedPart>()
{
    static const EditKind kind = kindOf<SetWeighedPart>(
        [](const Build &build, const SetWeighedPart &e) -> Result<Build> {
            if (e.part.find_first_not_of(" \t") == std::string::npos)
                return fail("part", "say what is weighed");
            Build out = build;
            if (e.about) {
                out.weighedParts[e.part] = *e.about;
                return out;
            }
            if (std::ranges::find(build.weighings, e.part, &Weighing::part)
                != build.weighings.end())
                return fail("part", weighedPartName(e.part) + " were weighed: they stay");
            out.weighedParts.erase(e.part);
            return out;
        },
        [](const Build &, const SetWeighedPart &e) -> Phrase {
            const std::string name = weighedPartName(e.part);
            if (!e.about)
                return name + " no longer weighed";
            if (!e.about->tolerance_g)
                return name + " are weighed";
            return { "edit.tolerance",
                     "{0} within {1}",
                     { name, Quantity { *e.about->tolerance_g, Shows::Mass, 0, 1 } } };
        });
    return kind;
}

template <> const RecordType &recordType<EnterHeatPoint>()
{
    static const RecordType type
        = Describe<EnterHeatPoint>("heat_point").must<&EnterHeatPoint::point>("point", "the point");
    return type;
}

template <> const EditKind &editKind<EnterHeatPoint>()
{
    static const EditKind kind = kindOf<EnterHeatPoint>(
        [](const Build &build, const EnterHeatPoint &e) -> Result<Build> {
            Build out = build;
            if (auto ok = addHeatPoint(out, e.point); !ok)
                return tl::unexpected(ok.error());
            return out;
        },
        [](const Build &, const EnterHeatPoint &e) -> Phrase {
            return describeHeatPoint(e.point);
        });
    return kind;
}

std::span<const EditKind *const> readingEdits()
{
    static const std::array kinds { &editKind<EnterReading>(),    &editKind<EnterReadings>(),
                                    &editKind<WithdrawReading>(), &editKind<TickFastener>(),
                                    &editKind<FitShells>(),       &editKind<SetShellRow>(),
                                    &editKind<SetSizeClass>(),    &editKind<WeighPart>(),
                                    &editKind<SetWeighedPart>(),  &editKind<EnterHeatPoint>() };
    return kinds;
}

} // namespace mildpath
