// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"

#include "quantity/json.h"
#include "quantity/jsonreader.h"

// How edits stand in a line of the journal: a record whose name is the edit's word.

namespace mildpath {

template <> const RecordType &recordType<EnterReading>()
{
    static const RecordType type
        = Describe<EnterReading>("reading").must<&EnterReading::reading>("reading", "the reading");
    return type;
}

template <> const RecordType &recordType<EnterReadings>()
{
    static const RecordType type
        = Describe<EnterReadings>("readings")
              .must<&EnterReadings::readings>("readings", "all or none of them");
    return type;
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

template <> const RecordType &recordType<SetOil>()
{
    static const RecordType type
        = Describe<SetOil>("oil").must<&SetOil::oil>("oil", "the oil in the engine");
    return type;
}

template <> const RecordType &recordType<SetUse>()
{
    static const RecordType type = Describe<SetUse>("use")
                                       .must<&SetUse::key>("key", "of the use")
                                       .must<&SetUse::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<SetLimit>()
{
    static const RecordType type = Describe<SetLimit>("limit")
                                       .must<&SetLimit::kind>("kind", "family of clearances")
                                       .must<&SetLimit::key>("key", "min_um, max_um or target_um")
                                       .must<&SetLimit::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<SetElementValue>()
{
    static const RecordType type = Describe<SetElementValue>("element")
                                       .must<&SetElementValue::element>("element", "of the circuit")
                                       .must<&SetElementValue::key>("key", "of its dimension")
                                       .must<&SetElementValue::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<SetStopValue>()
{
    static const RecordType type
        = Describe<SetStopValue>("stop")
              .must<&SetStopValue::stop>("stop", "id")
              .must<&SetStopValue::key>("key", "of this kind of stop")
              .field<&SetStopValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const RecordType &recordType<TickFastener>()
{
    static const RecordType type
        = Describe<TickFastener>("tick").must<&TickFastener::tick>("tick", "the tick");
    return type;
}

namespace {

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

template <> const RecordType &recordType<FitShells>()
{
    static const RecordType type = Describe<FitShells>("fit_shells")
                                       .must<&FitShells::family>("family", "of bearings")
                                       .must<&FitShells::stop>("stop", "the bearing")
                                       .with(stockOf<FitShells, fillFitted, takeFitted>);
    return type;
}

template <> const RecordType &recordType<SetShellRow>()
{
    static const RecordType type = Describe<SetShellRow>("shell_row")
                                       .must<&SetShellRow::family>("family", "of bearings")
                                       .with(stockOf<SetShellRow, fillRow, takeRow>);
    return type;
}

template <> const RecordType &recordType<SetSizeClass>()
{
    static const RecordType type = Describe<SetSizeClass>("size_class")
                                       .must<&SetSizeClass::family>("family", "of bearings")
                                       .with(stockOf<SetSizeClass, fillClass, takeClass>);
    return type;
}

template <> const RecordType &recordType<WeighPart>()
{
    static const RecordType type
        = Describe<WeighPart>("weigh").must<&WeighPart::weighing>("weighing", "the weighing");
    return type;
}

template <> const RecordType &recordType<Choose>()
{
    static const RecordType type
        = Describe<Choose>("choose").must<&Choose::choice>("choice", "the answer");
    return type;
}

template <> const RecordType &recordType<SetHeat>()
{
    static const RecordType type = Describe<SetHeat>("heat")
                                       .must<&SetHeat::key>("key", "of the heat")
                                       .must<&SetHeat::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<SetMaterial>()
{
    static const RecordType type
        = Describe<SetMaterial>("material")
              .must<&SetMaterial::part>("part", "block, crank, rod or main_cap")
              .must<&SetMaterial::material>("material", "id; of a main cap empty: as the block")
              .field<&SetMaterial::fraction>("fraction",
                                             "main cap: its share of the bore's growth");
    return type;
}

template <> const RecordType &recordType<SetExpansion>()
{
    static const RecordType type
        = Describe<SetExpansion>("expansion")
              .must<&SetExpansion::material>("material", "id, or main_housing")
              .field<&SetExpansion::expansion>("expansion", "null: the handbook's again");
    return type;
}

template <> const RecordType &recordType<EnterHeatPoint>()
{
    static const RecordType type
        = Describe<EnterHeatPoint>("heat_point").must<&EnterHeatPoint::point>("point", "the point");
    return type;
}

template <> const RecordType &recordType<AddProof>()
{
    static const RecordType type
        = Describe<AddProof>("proof").must<&AddProof::proof>("proof", "what was seen");
    return type;
}

template <> const RecordType &recordType<Rename>()
{
    static const RecordType type
        = Describe<Rename>("rename").must<&Rename::name>("name", "of the build");
    return type;
}

template <> const RecordType &recordType<SetEngine>()
{
    static const RecordType type = Describe<SetEngine>("engine")
                                       .must<&SetEngine::key>("key", "of the engine")
                                       .must<&SetEngine::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<KeepOil>()
{
    static const RecordType type
        = Describe<KeepOil>("keep_oil").must<&KeepOil::oil>("oil", "for the build's own list");
    return type;
}

template <> const RecordType &recordType<DropOil>()
{
    static const RecordType type
        = Describe<DropOil>("drop_oil").must<&DropOil::name>("name", "off the build's own list");
    return type;
}

template <> const RecordType &recordType<AddStop>()
{
    static const RecordType type = Describe<AddStop>("add_stop")
                                       .must<&AddStop::kind>("kind", "of stop")
                                       .field<&AddStop::name>("name", "else the kind's usual name")
                                       .must<&AddStop::behind>("behind", "which stop");
    return type;
}

template <> const RecordType &recordType<RemoveStop>()
{
    static const RecordType type
        = Describe<RemoveStop>("remove_stop").must<&RemoveStop::stop>("stop", "id");
    return type;
}

template <> const RecordType &recordType<MoveStop>()
{
    static const RecordType type = Describe<MoveStop>("move_stop")
                                       .must<&MoveStop::stop>("stop", "id")
                                       .field<&MoveStop::by>("by", "places; negative: earlier");
    return type;
}

template <> const RecordType &recordType<TurnStop>()
{
    static const RecordType type = Describe<TurnStop>("turn_stop")
                                       .must<&TurnStop::stop>("stop", "id")
                                       .must<&TurnStop::kind>("kind", "that it becomes");
    return type;
}

template <> const RecordType &recordType<FeedStop>()
{
    static const RecordType type = Describe<FeedStop>("feed_stop")
                                       .must<&FeedStop::stop>("stop", "id")
                                       .must<&FeedStop::from>("from", "stop that feeds it");
    return type;
}

template <> const RecordType &recordType<NameStop>()
{
    static const RecordType type = Describe<NameStop>("name_stop")
                                       .must<&NameStop::stop>("stop", "id")
                                       .must<&NameStop::name>("name", "as people call it");
    return type;
}

template <> const RecordType &recordType<MoveGauge>()
{
    static const RecordType type = Describe<MoveGauge>("gauge")
                                       .must<&MoveGauge::stop>("stop", "where it goes")
                                       .field<&MoveGauge::point>("point", "of the stop, from 0");
    return type;
}

template <> const RecordType &recordType<SetAlike>()
{
    static const RecordType type = Describe<SetAlike>("alike")
                                       .must<&SetAlike::stop>("stop", "id")
                                       .must<&SetAlike::type>("type", "of its elements")
                                       .must<&SetAlike::key>("key", "of the dimension")
                                       .must<&SetAlike::value>("value", "in the key's unit");
    return type;
}

template <> const RecordType &recordType<SetSectionValue>()
{
    static const RecordType type
        = Describe<SetSectionValue>("section")
              .must<&SetSectionValue::section>("section", "finish or after")
              .must<&SetSectionValue::key>("key", "of the section")
              .field<&SetSectionValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const RecordType &recordType<SetStartValue>()
{
    static const RecordType type
        = Describe<SetStartValue>("start")
              .must<&SetStartValue::key>("key", "of the start")
              .field<&SetStartValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const RecordType &recordType<SetPan>()
{
    static const RecordType type
        = Describe<SetPan>("pan")
              .field<&SetPan::along>("along_mm", "section along the engine")
              .rows("a pair of numbers")
              .field<&SetPan::across>("across_mm", "section across the engine")
              .rows("a pair of numbers")
              .field<&SetPan::benchFill>("bench_fill", "litres poured in and how high they stood")
              .rows("a height in mm and litres")
              .field<&SetPan::shape>("shape", "the usual shape it was made from")
              .field<&SetPan::values>("values", "numbers that go with the sections");
    return type;
}

template <> const RecordType &recordType<SetSumpValue>()
{
    static const RecordType type
        = Describe<SetSumpValue>("sump")
              .must<&SetSumpValue::key>("key", "of the sump")
              .field<&SetSumpValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const RecordType &recordType<SetForeign>()
{
    static const RecordType type
        = Describe<SetForeign>("foreign")
              .field<&SetForeign::fuel>("fuel", "fuel; else coolant")
              .field<&SetForeign::word>("word", "none, suspected or confirmed");
    return type;
}

template <> const RecordType &recordType<PutLine>()
{
    static const RecordType type
        = Describe<PutLine>("line").must<&PutLine::line>("line", "the line");
    return type;
}

template <> const RecordType &recordType<DropLine>()
{
    static const RecordType type
        = Describe<DropLine>("drop_line").must<&DropLine::line>("line", "its id");
    return type;
}

template <> const RecordType &recordType<CapPort>()
{
    static const RecordType type
        = Describe<CapPort>("cap_port")
              .must<&CapPort::port>("port", "part.port")
              .field<&CapPort::capped>("capped", "false: the cap comes off");
    return type;
}

template <> const RecordType &recordType<SetFilter>()
{
    static const RecordType type
        = Describe<SetFilter>("filter")
              .field<&SetFilter::remote>("remote", "sits away from the block")
              .must<&SetFilter::build>("build", "how it is made");
    return type;
}

template <> const RecordType &recordType<DrawLines>()
{
    static const RecordType type = Describe<DrawLines>("draw_lines");
    return type;
}

template <> const RecordType &recordType<TakeBackEntry>()
{
    static const RecordType type = Describe<TakeBackEntry>("take_back")
                                       .must<&TakeBackEntry::log>("log", "key of the list")
                                       .must<&TakeBackEntry::id>("id", "of the entry")
                                       .field<&TakeBackEntry::by>("by", "who took it back")
                                       .field<&TakeBackEntry::at>("at", "when");
    return type;
}

template <> const RecordType &recordType<PutPassage>()
{
    static const RecordType type
        = Describe<PutPassage>("passage").must<&PutPassage::passage>("passage", "the passage");
    return type;
}

template <> const RecordType &recordType<DropPassage>()
{
    static const RecordType type
        = Describe<DropPassage>("drop_passage").must<&DropPassage::passage>("passage", "its id");
    return type;
}

template <> const RecordType &recordType<CutPassage>()
{
    static const RecordType type = Describe<CutPassage>("cut_passage")
                                       .must<&CutPassage::passage>("passage", "its id")
                                       .must<&CutPassage::at_mm>("at_mm", "where")
                                       .in("mm");
    return type;
}

template <> const RecordType &recordType<PutPlug>()
{
    static const RecordType type
        = Describe<PutPlug>("plug").must<&PutPlug::plug>("plug", "the plug");
    return type;
}

template <> const RecordType &recordType<DropPlug>()
{
    static const RecordType type
        = Describe<DropPlug>("drop_plug").must<&DropPlug::plug>("plug", "its id");
    return type;
}

template <> const RecordType &recordType<DrawPassages>()
{
    static const RecordType type = Describe<DrawPassages>("draw_passages");
    return type;
}

namespace {

void readEntryOf(void *record, const Json &json, const std::string &place,
                 std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    const std::string list = in.text("log");
    bool known = false;
    forEachLog([&]<class L>(const L &log) {
        if (log.key != list)
            return;
        known = true;
        static_cast<AddEntry *>(record)->entry
            = fromJson<typename L::Entry>(in.object("entry"), place + "/entry", errors);
    });
    if (!known)
        in.error("log", "there is no list \"" + list + "\"");
}

void readEdits(void *record, const Json &json, const std::string &place, std::vector<Error> &errors)
{
    for (size_t i = 0; i < json.size(); ++i) {
        const std::string at = place + "/" + std::to_string(i);
        if (json[i].is_object() && json[i].value("edit", Json()) == "all")
            errors.push_back({ at, "edits made as one cannot be made as one again" });
        else if (auto one = editFromJson(json[i]))
            static_cast<EditAll *>(record)->edits.push_back(std::move(*one));
        else
            errors.push_back({ at + one.error().place, one.error().message });
    }
}

Json writeEdits(const void *record)
{
    Json out = Json::array();
    for (const Edit &one : static_cast<const EditAll *>(record)->edits)
        out.push_back(editToJson(one));
    return out;
}

} // namespace

template <> const RecordType &recordType<EditAll>()
{
    static const RecordType type = Describe<EditAll>("all")
                                       .must<&EditAll::name>("name", "what people call it")
                                       .custom("edits", "in order", readEdits, writeEdits);
    return type;
}

/// Which list an entry goes to is said beside it: it is read and written as a whole.
template <> const RecordType &recordType<AddEntry>()
{
    static const RecordType type = Describe<AddEntry>("add_entry");
    return type;
}

namespace {

template <class T> struct IsEdits : std::false_type
{
};
template <class... T> struct IsEdits<std::variant<T...>> : std::true_type
{
};

Json lineOf(const RecordType &type, const void *edit)
{
    Json out = Json::object();
    out["edit"] = type.name;
    out.update(writeRecord(type, edit));
    return out;
}

Json entryLine(const AddEntry &edit)
{
    Json out = lineOf(recordType<AddEntry>(), &edit);
    out["log"] = logOf(edit.entry);
    out["entry"] = std::visit([](const auto &entry) { return toJson(entry); }, edit.entry);
    return out;
}

template <class T> Json writeEdit(const T &edit)
{
    if constexpr (IsEdits<T>::value)
        return std::visit([](const auto &one) { return writeEdit(one); }, edit);
    else if constexpr (std::is_same_v<T, AddEntry>)
        return entryLine(edit);
    else
        return lineOf(recordType<T>(), &edit);
}

/// The edit of that word, if it is among these. @return whether it is
template <class T>
bool readEdit(const std::string &word, const Json &json, std::optional<Edit> &out,
              std::vector<Error> &errors)
{
    if (recordType<T>().name != word)
        return false;
    T edit {};
    if constexpr (std::is_same_v<T, AddEntry>)
        readEntryOf(&edit, json, "", errors);
    else
        readRecord(recordType<T>(), &edit, json, "", errors);
    out = std::move(edit);
    return true;
}

template <class T> struct EditReader
{
    static bool read(const std::string &word, const Json &json, std::optional<Edit> &out,
                     std::vector<Error> &errors)
    {
        return readEdit<T>(word, json, out, errors);
    }
};
template <class... T> struct EditReader<std::variant<T...>>
{
    static bool read(const std::string &word, const Json &json, std::optional<Edit> &out,
                     std::vector<Error> &errors)
    {
        return (EditReader<T>::read(word, json, out, errors) || ...);
    }
};

} // namespace

Json editToJson(const Edit &edit)
{
    return writeEdit(edit);
}

Result<Edit> editFromJson(const Json &json)
{
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    const std::string word = in.text("edit");
    std::optional<Edit> out;
    if (!EditReader<Edit>::read(word, json, out, errors) && errors.empty())
        in.error("edit", "unknown edit \"" + word + "\"");
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return *std::move(out);
}

} // namespace mildpath
