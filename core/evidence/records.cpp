// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/afterlog.h"
#include "evidence/debris.h"
#include "evidence/failure.h"
#include "evidence/flow.h"
#include "evidence/startlog.h"

#include "rules/rules.h"

#include <charconv>

namespace mildpath {

template <> const RecordType &recordType<DebrisFind>()
{
    static const RecordType type
        = describeRecord<DebrisFind>("find")
              .ifSet<&DebrisFind::stop>("stop", "where it was found")
              .ifSet<&DebrisFind::place>("place", "where, in words: under the baffle")
              .ifSet<&DebrisFind::size>("size", "speck, grit, flake, curl or lump")
              .oneOf([] { return wordsOf(debrisSizes()); })
              .ifSet<&DebrisFind::colour>("colour", "what it looks like")
              .oneOf([] { return wordsOf(debrisColours()); })
              .ifSet<&DebrisFind::hardness>("hardness", "hard, soft or pliable; else not tried")
              .oneOf([] { return wordsOf(debrisHardnesses()); })
              .ifSet<&DebrisFind::magnetic>("magnetic", "yes or no; else not tried")
              .oneOf([] {
                  return Words { "yes", "no" };
              })
              .ifSet<&DebrisFind::settled>("settled", "what was done about it; else open");
    return type;
}

template <> const RecordType &recordType<Sign>()
{
    static const RecordType type
        = describeRecord<Sign>("sign")
              .must<&Sign::stop>("stop", "where it was looked for")
              .must<&Sign::sign>("sign", "what was looked for")
              .oneOf([] { return idsOf(signKinds()); })
              .field<&Sign::there>("there", "false: looked for, and not there")
              .ifSet<&Sign::settled>("settled", "what was done about it; else open");
    return type;
}

template <> const RecordType &recordType<BearingFailure>()
{
    static const RecordType type
        = describeRecord<BearingFailure>("failure").must<&BearingFailure::stop>("stop",
                                                                                "the bearing");
    return type;
}

template <> const RecordType &recordType<Repair>()
{
    static const RecordType type = describeRecord<Repair>("repair")
                                       .must<&Repair::failure>("failure", "id of the failure")
                                       .must<&Repair::item>("item", "a stop, or a part")
                                       .must<&Repair::done>("done", "cleaned, flushed or replaced")
                                       .oneOf([] {
                                           return Words { "cleaned", "flushed", "replaced" };
                                       });
    return type;
}

template <> const RecordType &recordType<ShopJob>()
{
    static const RecordType type
        = describeRecord<ShopJob>("shop_job")
              .ifSet<&ShopJob::job>("job", "the machining job; else the note says it")
              .ifSet<&ShopJob::prove>("prove", "what is to be shown on return; else the usual")
              .ifSet<&ShopJob::event>("event",
                                      "entry of the cleaning logbook, written when it came back");
    return type;
}

template <> const RecordType &recordType<GaugeReading>()
{
    static const RecordType type
        = describeRecord<GaugeReading>("gauge_reading")
              .must<&GaugeReading::tap>("tap", "where the gauge sat")
              .must<&GaugeReading::rpm>("rpm",
                                        "of the crankshaft; of the pump's shaft with by_drill")
              .above(0, "rev/min", mostGaugeReading_rpm)
              .must<&GaugeReading::oil_c>("oil_temp_c", "in the sump")
              .in("°C", -60, 200)
              .must<&GaugeReading::pressure_kpa>("pressure_kpa", "over the air outside")
              .in("kPa", 0, mostGaugeReading_kpa)
              .field<&GaugeReading::u_kpa>("u_kpa", "standard uncertainty of gauge and eye")
              .above(0, "kPa", 500)
              .ifSet<&GaugeReading::oil>("oil", "grade; else the build's")
              .ifSet<&GaugeReading::byDrill>(
                  "by_drill", "priming: a drill turned the pump alone, the crank at rest");
    return type;
}

template <> const RecordType &recordType<Symptom>()
{
    static const RecordType type
        = describeRecord<Symptom>("symptom")
              .must<&Symptom::symptom>("symptom", "what was noticed")
              .oneOf([] { return idsOf(symptomKinds()); })
              .field<&Symptom::there>("there", "false: looked for, and not there")
              .ifSet<&Symptom::sound>("sound", "of a noise")
              .oneOf([] { return idsOf(noiseSounds()); })
              .ifSet<&Symptom::heard>("heard", "when a noise is heard")
              .oneOf([] { return idsOf(noiseTimes()); })
              .ifSet<&Symptom::gone_above_rpm>("gone_above_rpm", "speed above which a noise stops")
              .in("rev/min", 1, mostGaugeReading_rpm);
    return type;
}

template <> const RecordType &recordType<FlowSeen>()
{
    static const RecordType type
        = describeRecord<FlowSeen>("flow")
              .must<&FlowSeen::stop>("stop", "where oil was looked for")
              .ifSet<&FlowSeen::outlet>("outlet", "which outlet of the stop, from 1; else all")
              .must<&FlowSeen::saw>("saw", "flows, weak or dry")
              .oneOf([] { return wordsOf(flowSights()); })
              .must<&FlowSeen::means>("means", "pressure_pot, drill, starter or running")
              .oneOf([] { return wordsOf(flowMeans()); })
              .ifSet<&FlowSeen::oil>("oil", "what was in it")
              .ifSet<&FlowSeen::filter>("filter", "fitted while looking")
              .ifSet<&FlowSeen::oil_c>("oil_temp_c", "of the oil")
              .in("°C")
              .ifSet<&FlowSeen::pressure_kpa>("pressure_kpa", "of the pot or at the gauge")
              .above(0, "kPa", 10000)
              .ifSet<&FlowSeen::litres>("caught_l", "what came out")
              .above(0, "l", 10000)
              .ifSet<&FlowSeen::seconds>("time_s", "in how long")
              .above(0, "s", 10000);
    return type;
}

template <> const RecordType &recordType<Fault>()
{
    static const RecordType type
        = Describe<Fault>("fault")
              .must<&Fault::kind>("kind", "what is wrong")
              .must<&Fault::stop>("stop", "where")
              .field<&Fault::severity>("severity", "0 nothing … 1 the worst that is looked at")
              .in("", 0, 1)
              .ifSet<&Fault::item>("item", "which of several alike; else the usual one, or all")
              .strict();
    return type;
}

template <> const RecordType &recordType<ElementChange>()
{
    static const RecordType type
        = Describe<ElementChange>("change")
              .must<&ElementChange::element>("element", "of the circuit")
              .must<&ElementChange::key>("key", "of its dimension")
              .must<&ElementChange::value>("value", "in the unit of the key");
    return type;
}

template <> const RecordType &recordType<Scenario>()
{
    static const RecordType type
        = describeRecord<Scenario>("scenario")
              .must<&Scenario::name>("name", "as people call it")
              .field<&Scenario::faults>("faults", "what is wrong in it")
              .ifSet<&Scenario::changes>("changes", "passages and parts made otherwise");
    return type;
}

template <> const RecordType &recordType<SignOff>()
{
    static const RecordType type
        = describeRecord<SignOff>("signoff")
              .ifSet<&SignOff::hold>("hold", "in older files: what was signed; it is void")
              .ifSet<&SignOff::check>("check", "id of the check")
              .field<&SignOff::said>("said", "its reason when it was signed")
              .ifSet<&SignOff::state>("state", "its state when it was signed")
              .oneOf([] {
                  return Words { "look_again", "hold", "not_done" };
              })
              .ifSet<&SignOff::value>("value", "its figure then, how far inside its limits")
              .in("")
              .ifSet<&SignOff::u>("u", "standard uncertainty of that")
              .in("")
              .ifSet<&SignOff::gate>("gate", "it was signed at")
              .oneOf([] {
                  return Words { "turn", "fire", "load", "handover" };
              });
    return type;
}

template <> const RecordType &recordType<CardStep>()
{
    static const RecordType type
        = describeRecord<CardStep>("card_step")
              .must<&CardStep::step>("step", "of the run card")
              .field<&CardStep::outcome>("outcome", "done, or how else it went")
              .oneOf([] { return wordsOf(cardOutcomes()); })
              .ifSet<&CardStep::pressure_kpa>("pressure_kpa", "as read")
              .in("kPa", 0, mostGaugeReading_kpa)
              .ifSet<&CardStep::rpm>("rpm", "as read")
              .in("rev/min", 0, mostGaugeReading_rpm)
              .ifSet<&CardStep::oil_c>("oil_temp_c", "as read")
              .in("°C", -60, 200)
              .ifSet<&CardStep::seconds>("time_s", "as read")
              .in("s", 0, 1e6);
    return type;
}

template <> const RecordType &recordType<RunPoint>()
{
    static const RecordType type = Describe<RunPoint>("run_point")
                                       .must<&RunPoint::t_s>("time_s", "since the log began")
                                       .in("s")
                                       .field<&RunPoint::pressure_kpa>("pressure_kpa", "as read")
                                       .in("kPa")
                                       .field<&RunPoint::rpm>("rpm", "as read")
                                       .in("rev/min")
                                       .field<&RunPoint::oil_c>("oil_temp_c", "as read")
                                       .in("°C");
    return type;
}

template <> const RecordType &recordType<RunMark>()
{
    static const RecordType type
        = Describe<RunMark>("run_mark")
              .must<&RunMark::t_s>("time_s", "since the log began")
              .in("s")
              .field<&RunMark::text>("text", "may be empty: a mark without a word");
    return type;
}

template <> const RecordType &recordType<RunLog>()
{
    static const RecordType type
        = describeRecord<RunLog>("run_log")
              .must<&RunLog::kind>("kind", "what was run")
              .oneOf([] { return wordsOf(runKinds()); })
              .ifSet<&RunLog::source>("source", "where the values came from")
              .must<&RunLog::tap>("tap", "where the pressure was taken")
              .ifSet<&RunLog::file>("file", "all readings, CSV, in the folder beside the build")
              .ifSet<&RunLog::stopped>("stopped", "why it ended")
              .field<&RunLog::readings>("readings", "how many there were")
              .field<&RunLog::seconds>("time_s", "how long it ran")
              .in("s")
              .ifSet<&RunLog::firstPressure_s>("first_pressure_s", "first reading with pressure")
              .in("s")
              .field<&RunLog::most_kpa>("most_kpa", "highest pressure read")
              .in("kPa")
              .field<&RunLog::trace>("trace", "readings thinned out")
              .rows("seconds, kPa, rev/min and °C, null for what was not said")
              .field<&RunLog::marks>("marks", "what was marked while it ran");
    return type;
}

template <> const RecordType &recordType<BelievedInput>()
{
    static const RecordType type
        = Describe<BelievedInput>("believed_input")
              .must<&BelievedInput::cause>("cause", "as the input names itself")
              .must<&BelievedInput::z>("z", "by how many of its standard deviations it is moved")
              .in("", -20, 20)
              .field<&BelievedInput::narrows>("narrows", "its part of what each reading tells");
    return type;
}

template <> const RecordType &recordType<Calibration>()
{
    static const RecordType type
        = describeRecord<Calibration>("calibration")
              .must<&Calibration::input>("input", "readings, or oil, gauge, model or a family")
              .must<&Calibration::amount>("amount",
                                          "oil, model: relative; gauge: kPa; clearances: µm")
              .in("", -500, 500)
              .field<&Calibration::z>("z", "the same in its standard uncertainties")
              .field<&Calibration::readings>("readings", "gauge readings it explains")
              .of("the id of a gauge reading")
              .ifSet<&Calibration::believed>("believed",
                                             "of readings: the inputs as they have them")
              .ifSet<&Calibration::off>("off_probability",
                                        "of readings: chance that something else is at work")
              .in("", 0, 1);
    return type;
}

template <> const RecordType &recordType<DebrisCount>()
{
    static const RecordType type = Describe<DebrisCount>("count")
                                       .must<&DebrisCount::kind>("kind", "of particle")
                                       .oneOf([] { return idsOf(cutKinds()); })
                                       .field<&DebrisCount::where>("where", "pleats or can")
                                       .oneOf([] {
                                           return Words { "pleats", "can" };
                                       })
                                       .field<&DebrisCount::count>("count", "how many")
                                       .in("", 0, 1e6)
                                       .ifSet<&DebrisCount::largest_mm>("largest_mm", "the largest")
                                       .in("mm", 0, 100);
    return type;
}

template <> const RecordType &recordType<FilterCut>()
{
    static const RecordType type
        = describeRecord<FilterCut>("filter_cut")
              .must<&FilterCut::engine_h>("engine_hours_h", "of the engine since the build")
              .in("h", 0, mostHours_h)
              .must<&FilterCut::filter_h>("filter_hours_h", "this filter saw oil")
              .in("h", 0, mostHours_h)
              .must<&FilterCut::area_cm2>("area_cm2", "of the medium that was looked at")
              .above(0, "cm²", 1e5)
              .field<&FilterCut::counts>("counts", "particles by kind and place")
              .ifSet<&FilterCut::settled>("settled", "what was done about it; else open");
    return type;
}

template <> const RecordType &recordType<OilSample>()
{
    constexpr auto isUsed = [](const OilSample &s) { return s.of == "used"; };
    static const RecordType type
        = describeRecord<OilSample>("oil_sample")
              .field<&OilSample::of>("of", "used or new")
              .oneOf([] {
                  return Words { "used", "new" };
              })
              .ifSet<&OilSample::oil>("oil", "which oil and batch")
              .field<&OilSample::engine_h>("engine_hours_h", "of the engine")
              .in("h", 0, mostHours_h)
              .when(isUsed)
              .field<&OilSample::oil_h>("oil_hours_h", "this fill has run")
              .in("h", 0, mostHours_h)
              .when(isUsed)
              .field<&OilSample::added_kg>("oil_added_kg", "topped up since the fill")
              .in("kg", 0, 10000)
              .when(isUsed)
              .field<&OilSample::elements>("elements_mg_kg", "by symbol")
              .in("mg/kg", 0, 1e6)
              .ifSet<&OilSample::water_percent>("water_percent", "by mass")
              .in("%", 0, 100)
              .ifSet<&OilSample::fuel_percent>("fuel_percent", "by mass")
              .in("%", 0, 50)
              .ifSet<&OilSample::kv40_mm2_s>("kv40_mm2_s", "viscosity at 40 °C")
              .in("mm²/s", 1, 5000)
              .ifSet<&OilSample::kv100_mm2_s>("kv100_mm2_s", "viscosity at 100 °C")
              .in("mm²/s", 1, 500)
              .ifSet<&OilSample::settled>("settled", "what was done about it; else open");
    return type;
}

template <> const RecordType &recordType<Opening>()
{
    static const RecordType type
        = describeRecord<Opening>("opening")
              .must<&Opening::engine_h>("engine_hours_h", "of the engine")
              .in("h", 0, mostHours_h)
              .field<&Opening::readings>("readings", "how many the logbook held by then");
    return type;
}

template <> const RecordType &recordType<SealCheck>()
{
    constexpr auto isVacuum = [](const SealCheck &s) { return s.kind == "vacuum"; };
    constexpr auto isBlowBy = [](const SealCheck &s) { return s.kind != "vacuum"; };
    static const RecordType type
        = describeRecord<SealCheck>("seal_check")
              .must<&SealCheck::kind>("kind", "blow_by or vacuum")
              .oneOf([] {
                  return Words { "blow_by", "vacuum" };
              })
              .must<&SealCheck::phase>("phase", "before or after what was changed")
              .oneOf([] { return wordsOf(phases()); })
              .must<&SealCheck::rpm>("rpm", "of the crankshaft")
              .in("rev/min", 1, mostGaugeReading_rpm)
              .field<&SealCheck::load_percent>("load_percent", "of full load")
              .in("%", 0, 100)
              .must<&SealCheck::value>("vacuum_kpa", "below the air outside")
              .in("kPa", 0, 101)
              .when(isVacuum)
              .ifSet<&SealCheck::pump_rpm>("pump_rpm", "of the vacuum pump")
              .in("rev/min", 1, mostGaugeReading_rpm)
              .when(isVacuum)
              .ifSet<&SealCheck::relief_kpa>("relief_kpa", "vacuum its relief opens at")
              .in("kPa", 0, 101)
              .when(isVacuum)
              .must<&SealCheck::value>("flow_l_min", "blow-by as read")
              .in("l/min", 0, 10000)
              .when(isBlowBy)
              .field<&SealCheck::gas_c>("gas_temp_c", "of the gas at the meter")
              .in("°C", -40, 250)
              .when(isBlowBy)
              .field<&SealCheck::gas_kpa>("gas_absolute_kpa", "of the gas at the meter")
              .in("kPa", 50, 200)
              .when(isBlowBy);
    return type;
}

namespace {

/// Heights as one text, blanks between: an array would take a line each in a file for people.
std::string heightsText(const void *member)
{
    std::string out;
    std::array<char, 32> digits {};
    for (const double v : static_cast<const Heights *>(member)->um()) {
        if (!out.empty())
            out += ' ';
        const auto end = std::to_chars(digits.data(), digits.data() + digits.size(), v);
        out.append(digits.data(), end.ptr);
    }
    return out;
}

Result<void> heightsOf(void *member, const std::string &text)
{
    std::vector<double> out;
    out.reserve(text.size() / 6 + 1);
    const char *at = text.data(), *end = at + text.size();
    while (at < end) {
        if (*at == ' ') {
            ++at;
            continue;
        }
        double v = 0;
        const auto read = std::from_chars(at, end, v);
        if (read.ec != std::errc() || (read.ptr < end && *read.ptr != ' ')
            || !(v > -1e6 && v < 1e6))
            return fail("", "height " + std::to_string(out.size() + 1) + " is no number");
        out.push_back(v);
        at = read.ptr;
    }
    *static_cast<Heights *>(member) = Heights(std::move(out));
    return {};
}

} // namespace

template <> const RecordType &recordType<BoreTrace>()
{
    static const RecordType type
        = describeRecord<BoreTrace>("bore_trace")
              .field<&BoreTrace::bore>("bore", "cylinder")
              .field<&BoreTrace::phase>("phase", "before or after finishing strokes")
              .oneOf([] { return wordsOf(phases()); })
              .ifSet<&BoreTrace::place>("place", "where in the bore")
              .ifSet<&BoreTrace::source>("source", "file it was read from")
              .must<&BoreTrace::spacing_um>("spacing_um", "between heights")
              .in("µm", 1e-3, 1000)
              .packed<&BoreTrace::z>("z_um", "heights along the trace, blanks between", heightsText,
                                     heightsOf);
    return type;
}

} // namespace mildpath
