// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"
#include "document/engineplan.h"
#include "document/logbook.h"
#include "quantity/json.h"
#include "quantity/jsonreader.h"

// How the records of a build stand in its file; the logbook's are described beside their structs.

namespace mildpath {

template <> const RecordType &recordType<StopPoint>()
{
    static const RecordType type
        = Describe<StopPoint>("point")
              .field<&StopPoint::name>("name", "as people call it; else the stop's name")
              .must<&StopPoint::node>("node", "of the circuit");
    return type;
}

template <> const RecordType &recordType<Stop>()
{
    static const RecordType type
        = Describe<Stop>("stop")
              .must<&Stop::id>("id", "unique among the stops")
              .field<&Stop::name>("name", "as people call it")
              .must<&Stop::kind>("kind", "pump, filter, main, big_end, gallery …")
              .field<&Stop::points>("points", "places where pressure is looked at")
              .field<&Stop::elements>("elements", "of the circuit that belong to it")
              .of("an element's id")
              .ifSet<&Stop::values>("values", "numbers of this kind of stop, by key")
              .ifSet<&Stop::needSource>("need_source", "where its required pressure is from")
              .then([](Stop &s) {
                  if (s.name.empty())
                      s.name = s.id;
                  for (StopPoint &p : s.points)
                      if (p.name.empty())
                          p.name = s.name;
              })
              .keepsUnknown<&Stop::extra>();
    return type;
}

namespace {

const RecordType &materialsType()
{
    static const RecordType type
        = Describe<Engine>("materials")
              .must<&Engine::block>("block", "material id")
              .must<&Engine::crank>("crank", "material id")
              .must<&Engine::rod>("rod", "material id")
              .ifSet<&Engine::mainCap>("main_cap", "material id; else as the block")
              .field<&Engine::mainCapFraction>("main_cap_fraction",
                                               "its share of the main bore's growth")
              .when([](const Engine &e) { return !e.mainCap.empty(); });
    return type;
}

} // namespace

template <> const RecordType &recordType<Engine>()
{
    static const RecordType type
        = Describe<Engine>("engine")
              .field<&Engine::name>("name", "as people call it")
              .field<&Engine::layout>("layout", "inline-4 and so on")
              .field<&Engine::cylinders>("cylinders", "how many")
              .ifSet<&Engine::displacement_l>("displacement_l",
                                              "displacement, where bore or stroke is not known")
              .in("l", 0, 100)
              .ifSet<&Engine::bore_mm>("bore_mm", "bore")
              .in("mm", 0, 400)
              .ifSet<&Engine::stroke_mm>("stroke_mm", "stroke")
              .in("mm", 0, 600)
              .ifSet<&Engine::reciprocating_g>("reciprocating_g",
                                               "reciprocating mass of a cylinder")
              .in("g", 0, 50000)
              .ifSet<&Engine::rotating_g>("rotating_g", "rotating mass of a cylinder")
              .in("g", 0, 50000)
              .within("materials", "what its parts are made of", materialsType)
              .must<&Engine::stops>("stops", "stations on the oil's way, in oil order")
              .keepsUnknown<&Engine::extra>();
    return type;
}

template <> const RecordType &recordType<Use>()
{
    static const RecordType type
        = Describe<Use>("use")
              .field<&Use::coldestStart_c>("coldest_start_c", "coldest start")
              .in("°C", -60, 60)
              .field<&Use::hotOil_c>("hot_oil_c", "hot oil")
              .in("°C", 60, 150)
              .field<&Use::hotIdle_rpm>("hot_idle_rpm", "hot idle speed")
              .in("rev/min", 200, 3000)
              .field<&Use::highSpeed_rpm>("high_speed_rpm", "higher speed shown")
              .in("rev/min", 500, 15000)
              .field<&Use::most_rpm>("most_rpm", "highest speed")
              .in("rev/min", 1000, 15000)
              .field<&Use::hotIdleFloor_kpa>("hot_idle_floor_kpa",
                                             "least pressure wanted at hot idle")
              .in("kPa", 0, 1000)
              .field<&Use::coldestClearanceFloor_um>("coldest_clearance_floor_um",
                                                     "least clearance at the coldest start")
              .in("µm", 0, 200)
              .field<&Use::combustionPeak_kpa>("combustion_peak_kpa",
                                               "combustion peak, for bearing loads")
              .in("kPa", 0, 30000)
              .field<&Use::fullLoadPeak_kpa>("full_load_peak_kpa",
                                             "combustion peak at full load; absent: by the kind "
                                             "of engine")
              .in("kPa", 500, 30000)
              .ifSet<&Use::reliefReturnsTo>("relief_returns_to",
                                            "where the relief valve lets its oil go")
              .oneOf([] { return Words(reliefReturns.begin(), reliefReturns.end()); })
              .field<&Use::ruleBase_kpa>("rule_base_kpa", "least pressure wanted, at standstill")
              .in("kPa", 0, 1000)
              .field<&Use::ruleRise_kpa_per_krpm>("rule_rise_kpa_per_krpm", "and per 1 000 rev/min")
              .in("kPa", 0, 500)
              .field<&Use::turn_g>("turn_g", "turns, held, to either side")
              .in("g", 0, 3)
              .field<&Use::braking_g>("braking_g", "braking, held")
              .in("g", 0, 3)
              .field<&Use::accelerating_g>("accelerating_g", "accelerating, held")
              .in("g", 0, 3)
              .field<&Use::incline_deg>("incline_deg", "installed aslant, the rear lower")
              .in("°", -45, 45)
              .field<&Use::heel_deg>("heel_deg", "leaning to either side")
              .in("°", 0, 60)
              .field<&Use::turn_s>("turn_s", "longest turn held")
              .in("s", 0.1, 600)
              .keepsUnknown<&Use::extra>();
    return type;
}

template <> const RecordType &recordType<Limits>()
{
    static const RecordType type
        = Describe<Limits>("limits")
              .must<&Limits::min_um>("min_um", "least clearance allowed, diametral")
              .in("µm")
              .must<&Limits::max_um>("max_um", "largest clearance allowed, diametral")
              .in("µm")
              .ifSet<&Limits::target_um>("target_um", "clearance aimed at")
              .in("µm")
              .field<&Limits::source>("source", "maker, shop or common practice")
              .keepsUnknown<&Limits::extra>();
    return type;
}

template <> const RecordType &recordType<ChosenOil>()
{
    static const RecordType type
        = Describe<ChosenOil>("oil")
              .field<&ChosenOil::grade>("grade", "as on the can")
              .must<&ChosenOil::oil, &Oil::kv40_mm2_s>("kv40_mm2_s", "viscosity at 40 °C")
              .in("mm²/s", 0, 1e5)
              .must<&ChosenOil::oil, &Oil::kv100_mm2_s>("kv100_mm2_s", "viscosity at 100 °C")
              .in("mm²/s", 0, 1e4)
              .must<&ChosenOil::oil, &Oil::rho15_kg_m3>("rho15_kg_m3", "density at 15 °C")
              .in("kg/m³")
              .ifSet<&ChosenOil::hths_mpa_s>("hths_mpa_s", "high-shear viscosity at 150 °C")
              .in("mPa·s", 0.5, 50)
              .ifSet<&ChosenOil::phosphorus_mg_kg>("phosphorus_mg_kg", "of the anti-wear additive")
              .in("mg/kg", 0, 1e4)
              .keepsUnknown<&ChosenOil::extra>();
    return type;
}

template <> const RecordType &recordType<Reading>()
{
    static const RecordType type
        = Describe<Reading>("reading")
              .must<&Reading::id>("id", "unique among the readings")
              .must<&Reading::stop>("stop", "where it was read")
              .field<&Reading::family>("family", "of the size: mains, big_ends, rotor_tip …")
              .oneOf([] { return idsOf(families()); })
              .field<&Reading::item>("item", "within the stop, from 1")
              .field<&Reading::method>("method", "how it was read")
              .oneOf([] { return idsOf(methods()); })
              .field<&Reading::station>("station", "from the front, from 1; lobe or spot")
              .field<&Reading::angle_deg>("angle_deg", "from the parting line")
              .in("°")
              .field<&Reading::value_um>("value_um", "as read, diametral; null: taken back")
              .in("µm")
              .field<&Reading::u_um>("u_um", "standard uncertainty of the reading")
              .in("µm")
              .field<&Reading::housing_c>("housing_temp_c", "of the housing when gauged")
              .in("°C")
              .field<&Reading::journal_c>("journal_temp_c", "of the journal when gauged or zeroed")
              .in("°C")
              .ifSet<&Reading::bore_mm>("bore_mm", "two instruments: the bore")
              .in("mm")
              .ifSet<&Reading::journal_mm>("journal_mm", "two instruments: the journal")
              .in("mm")
              .ifSet<&Reading::journalU_um>("journal_u_um",
                                            "two instruments: standard, of the micrometer")
              .in("µm")
              .ifSet<&Reading::overOilHole>("over_oil_hole", "plastic strip: kept, not used")
              .ifSet<&Reading::feel>("feel", "how a part dropped")
              .oneOf([] { return idsOf(dropFeels()); })
              .ifSet<&Reading::repeats_um>("repeats_um", "what the value is the mean of")
              .in("µm")
              .ifSet<&Reading::capTorqued>("cap_torqued", "whether the cap stood at its last stage")
              .ifSet<&Reading::shells>("shells", "fitted when gauged, upper/lower")
              .field<&Reading::instrument>("instrument", "what it was read with")
              .field<&Reading::by>("by", "who read it")
              .field<&Reading::at>("at", "when: ISO 8601, local time")
              .ifSet<&Reading::replaces>("replaces", "id of the reading it strikes")
              .keepsUnknown<&Reading::extra>();
    return type;
}

template <> const RecordType &recordType<Proof>()
{
    static const RecordType type
        = Describe<Proof>("proof")
              .must<&Proof::id>("id", "unique among the proofs")
              .must<&Proof::stop>("stop", "what was looked at")
              .must<&Proof::aspect>("aspect", "size, clean or flow")
              .oneOf([] {
                  return Words { "size", "clean", "flow" };
              })
              .field<&Proof::verdict>("verdict", "proven, look_again or hold")
              .oneOf([] {
                  return Words { "proven", "look_again", "hold" };
              })
              .field<&Proof::how>("how", "in one's own words")
              .field<&Proof::by>("by", "who saw it")
              .field<&Proof::at>("at", "when: ISO 8601, local time")
              .ifSet<&Proof::check>("check", "one ticked point of the aspect; else all of it")
              .then([](Proof &p) {
                  if (p.verdict.empty())
                      p.verdict = "proven";
              })
              .keepsUnknown<&Proof::extra>();
    return type;
}

template <> const RecordType &recordType<Heat>()
{
    static const RecordType type
        = Describe<Heat>("heat")
              .field<&Heat::housingBelowOil_k>("housing_below_oil_k",
                                               "housing below the oil, settled")
              .in("K", -40, 80)
              .field<&Heat::capBelowOil_k>("cap_below_oil_k",
                                           "cap or girdle below the oil, settled")
              .in("K", -40, 80)
              .field<&Heat::journalBelowOil_k>("journal_below_oil_k",
                                               "journal below the oil, settled")
              .in("K", -40, 80)
              .field<&Heat::blockEnd_c>("block_end_c", "what the coolant makes of the block")
              .in("°C", 30, 150)
              .field<&Heat::oilAtIdle_s>("oil_at_idle_s", "oil, time constant at idle")
              .in("s", 10, 7200)
              .field<&Heat::oilAtSpeed_s>("oil_at_speed_s", "oil, time constant at 3 000 rev/min")
              .in("s", 10, 7200)
              .field<&Heat::blockAtIdle_s>("block_at_idle_s", "block, time constant at idle")
              .in("s", 10, 7200)
              .field<&Heat::blockAtSpeed_s>("block_at_speed_s",
                                            "block, time constant at 3 000 rev/min")
              .in("s", 10, 7200)
              .field<&Heat::journalLag_s>("journal_lag_s", "journal and rods behind the oil")
              .in("s", 0, 3600)
              .field<&Heat::capLag_s>("cap_lag_s", "cap or girdle behind the oil")
              .in("s", 0, 3600)
              .field<&Heat::surroundings_c>("surroundings_c",
                                            "surroundings of the infrared thermometer")
              .in("°C", -40, 60)
              .field<&Heat::instrumentEmissivity>("instrument_emissivity",
                                                  "emissivity the thermometer is set to")
              .in("", 0.05, 1)
              .keepsUnknown<&Heat::extra>();
    return type;
}

template <> const RecordType &recordType<HeatPoint>()
{
    static const RecordType type
        = Describe<HeatPoint>("heat_point")
              .must<&HeatPoint::id>("id", "unique among the points")
              .must<&HeatPoint::stop>("stop", "the main whose bore was gauged")
              .field<&HeatPoint::spots_c>("spots_c", "as read, over the block")
              .in("°C")
              .field<&HeatPoint::surface>("surface", "what was aimed at")
              .field<&HeatPoint::instrumentEmissivity>("instrument_emissivity",
                                                       "the thermometer was set to")
              .in("", 0.05, 1)
              .field<&HeatPoint::surroundings_c>("surroundings_c", "of the thermometer")
              .in("°C", -40, 60)
              .field<&HeatPoint::reading_um>("reading_um",
                                             "of the gauge, diametral; null: not gauged yet")
              .in("µm")
              .field<&HeatPoint::u_um>("u_um", "standard uncertainty of the reading")
              .in("µm", 0, 100)
              .field<&HeatPoint::zero_c>("zero_temp_c", "of the journal when the gauge was zeroed")
              .in("°C", -40, 200)
              .ifSet<&HeatPoint::journalWithBlock>("journal_with_block",
                                                   "zeroed on a journal as warm as the block")
              .ifSet<&HeatPoint::takenBack>("taken_back",
                                            "strikes without putting something in its place")
              .field<&HeatPoint::instrument>("instrument", "what it was read with")
              .field<&HeatPoint::by>("by", "who read it")
              .field<&HeatPoint::at>("at", "when: ISO 8601, local time")
              .ifSet<&HeatPoint::replaces>("replaces", "id of the point it strikes")
              .keepsUnknown<&HeatPoint::extra>();
    return type;
}

template <> const RecordType &recordType<OwnExpansion>()
{
    static const RecordType type
        = Describe<OwnExpansion>("expansion")
              .must<&OwnExpansion::per_k>("per_k", "linear expansion")
              .in("1/K")
              .field<&OwnExpansion::u_per_k>("u_per_k", "its standard uncertainty")
              .in("1/K")
              .field<&OwnExpansion::source>("source", "maker, or the heated-block test")
              .field<&OwnExpansion::by>("by", "who set it")
              .field<&OwnExpansion::at>("at", "when: ISO 8601, local time")
              .keepsUnknown<&OwnExpansion::extra>();
    return type;
}

template <> const RecordType &recordType<PanPoint>()
{
    static const RecordType type
        = Describe<PanPoint>("corner")
              .must<&PanPoint::x_mm>("x_mm", "to the right, or to the rear")
              .in("mm")
              .must<&PanPoint::z_mm>("z_mm", "up from the lowest point")
              .in("mm");
    return type;
}

template <> const RecordType &recordType<BenchFill>()
{
    static const RecordType type
        = Describe<BenchFill>("fill")
              .must<&BenchFill::height_mm>("height_mm", "how high it stood")
              .in("mm")
              .must<&BenchFill::litres>("litres", "what was poured in")
              .in("l");
    return type;
}

template <> const RecordType &recordType<Sump>()
{
    static const RecordType type
        = Describe<Sump>("sump")
              .ifSet<&Sump::along>("along_mm", "section along the engine")
              .rows("a pair of numbers")
              .ifSet<&Sump::across>("across_mm", "section across the engine")
              .rows("a pair of numbers")
              .ifSet<&Sump::benchFill>("bench_fill", "litres poured in and how high they stood")
              .rows("a height in mm and litres")
              .ifSet<&Sump::shape>("shape", "the usual shape the sections were made from")
              .ifSet<&Sump::coolant>("coolant", "in the oil: none, suspected or confirmed")
              .ifSet<&Sump::fuel>("fuel", "in the oil: none, suspected or confirmed")
              .ifSet<&Sump::values>("values", "numbers of the sump, by key")
              .keepsUnknown<&Sump::extra>();
    return type;
}

template <> const RecordType &recordType<ValueSection>()
{
    static const RecordType type
        = Describe<ValueSection>("section")
              .field<&ValueSection::values>("values", "numbers that were entered, by key")
              .keepsUnknown<&ValueSection::extra>();
    return type;
}

template <> const RecordType &recordType<Start>()
{
    static const RecordType type
        = Describe<Start>("start")
              .field<&Start::values>("values", "numbers of priming and first start, by key")
              .keepsUnknown<&Start::extra>();
    return type;
}

namespace {

void readCircuit(void *record, const Json &json, const std::string &place,
                 std::vector<Error> &errors)
{
    Build &b = *static_cast<Build *>(record);
    Json circuit = json.is_object() ? json : Json::object();
    if (circuit.contains("gauge_tap") && circuit["gauge_tap"].is_string())
        b.gaugeTap = circuit["gauge_tap"].get<std::string>();
    else
        errors.push_back({ place + "/gauge_tap", "is missing: the tap the gauge sits on" });
    circuit.erase("gauge_tap");
    b.circuit = circuitFromJson(circuit, place, errors);
}

Json writeCircuit(const void *record)
{
    const Build &b = *static_cast<const Build *>(record);
    Json out = Json::object();
    out["gauge_tap"] = b.gaugeTap;
    out.update(circuitToJson(b.circuit));
    return out;
}

Json schemaOfCircuit()
{
    Json out = circuitSchema();
    out["required"].push_back("gauge_tap");
    out["properties"]["gauge_tap"] = { { "type", "string" } };
    return out;
}

void pass(void *, const Json &, const std::string &, std::vector<Error> &) { }

/// Entries written by hand need no id of their own.
template <class T> void nameNameless(SharedList<T> &list, std::string_view prefix)
{
    size_t n = 0;
    if (std::any_of(list.begin(), list.end(), [](const T &r) { return r.id.empty(); }))
        list.change([&](T &r) {
            ++n;
            if (r.id.empty())
                r.id = std::string(prefix) + std::to_string(n);
        });
}

template <size_t i = 0> Describe<Build> &&withLogs(Describe<Build> &&type)
{
    if constexpr (i == std::tuple_size_v<std::remove_const_t<decltype(logs)>>) {
        return std::move(type);
    } else {
        constexpr auto &log = std::get<i>(logs);
        if constexpr (log.oneStandsAlone)
            return withLogs<i + 1>(
                std::move(type).ifSet<log.list>(log.key, log.meaning).oneStandsAlone());
        else
            return withLogs<i + 1>(std::move(type).field<log.list>(log.key, log.meaning));
    }
}

} // namespace

template <> const RecordType &recordType<TwoValues>()
{
    static const RecordType type
        = Describe<TwoValues>("two_values")
              .must<&TwoValues::element>("element",
                                         "of the circuit, plug, or engine: its size counts")
              .must<&TwoValues::key>("key", "of its dimension")
              .must<&TwoValues::other>("other", "as it was written elsewhere, in the key's unit");
    return type;
}

template <> const RecordType &recordType<Build>()
{
    static const RecordType type
        = Describe<Build>("build")
              .custom(
                  "format", "what kind of file this is", pass,
                  [](const void *) { return Json(buildFormat); },
                  [] {
                      return Json { { "const", buildFormat } };
                  })
              .custom(
                  "version", "of the format", pass, [](const void *) { return Json(buildVersion); },
                  [] {
                      return Json { { "const", buildVersion } };
                  })
              .must<&Build::name>("name", "as people call it")
              .field<&Build::notes>("notes", "in one's own words")
              .field<&Build::engine>("engine", "what the engine is")
              .custom("circuit", "the oil's way as elements between nodes", readCircuit,
                      writeCircuit, schemaOfCircuit)
              .field<&Build::oil>("oil", "the oil in it")
              .field<&Build::use>("use", "how the engine will be used, what is asked of it")
              .field<&Build::ownOils>("own_oils", "oils beside the shelf")
              .field<&Build::limits>("limits", "of clearances, by family, at 20 °C")
              .field<&Build::readings>("readings", "every size that was read")
              .field<&Build::proofs>("proofs", "what somebody saw")
              .field<&Build::torqueCards>("torque_cards", "how sets of caps are tightened")
              .field<&Build::ticks>("torque_ticks", "fasteners tightened and loosened")
              .field<&Build::shells>("shells", "shells, by family")
              .field<&Build::weighings>("weighings", "weights of parts")
              .ifSet<&Build::twoValues>("two_values", "sizes to be settled")
              .ifSet<&Build::origins>("sources", "of the engine's numbers, by where they stand")
              .ifSet<&Build::fromTemplate>("template", "it was begun from")
              .field<&Build::weighedParts>("weighed_parts", "what is weighed, by part")
              .field<&Build::choices>("choices", "questions answered")
              .field<&Build::heat>("heat", "part temperatures and how they are reached")
              .field<&Build::expansions>("expansions", "of one's own, by material")
              .field<&Build::heatPoints>("heat_points", "the heated-block log")
              .field<&Build::passages>("passages", "the oil's passages as metal")
              .field<&Build::plugs>("plugs", "what closes them")
              .field<&Build::plumbing>("plumbing", "lines outside the engine")
              .field<&Build::sump>("sump", "the sump")
              .field<&Build::start>("start", "priming and first start")
              .field<&Build::finish>("finish", "bore finish")
              .field<&Build::after>("after", "what is looked at after a run")
              .with(withLogs<>)
              // Older files name no family: a reading then is of its stop's kind.
              .then([](Build &b) {
                  b.readings.change([&](Reading &r) {
                      if (const Stop *stop = r.family.empty() ? b.engine.find(r.stop) : nullptr)
                          r.family = wordOf(stop->kind);
                  });
                  forEachLog([&](const auto &log) { nameNameless(b.*log.list, log.prefix); });
              })
              .keepsUnknown<&Build::extra>();
    return type;
}

template <> const RecordType &recordType<EnginePlan>()
{
    using P = EnginePlan;
    static const RecordType type
        = Describe<P>("plan")
              .field<&P::name>("name", "as people call it")
              .field<&P::layout>("layout", "single, inline, flat or vee")
              .field<&P::cylinders>("cylinders", "how many")
              .field<&P::mains>("mains", "main bearings, 1 to 9; 0: as usual")
              .field<&P::bore_mm>("bore_mm", "bore")
              .in("mm", 30, 250)
              .field<&P::stroke_mm>("stroke_mm", "stroke")
              .in("mm", 20, 300)
              .field<&P::block>("block", "material id")
              .field<&P::mainCap>("main_cap", "material id; empty: as the block")
              .field<&P::valveGear>("valve_gear", "pushrods, one_cam or two_cams, overhead")
              .field<&P::order>("order", "mains_first, lifters_first or lifters_series")
              .field<&P::crossover_mm>("crossover_mm",
                                       "bore between lifter galleries; 0: two thirds of theirs")
              .in("mm", 0, 30)
              .field<&P::overhead>("overhead", "rockers fed through camshaft, pushrods or head")
              .field<&P::solidLifters>("solid_lifters", "no hydraulic lifters")
              .field<&P::pump>("pump", "gerotor, gear or vane")
              .field<&P::reliefTo>("relief_to", "the relief valve's oil goes to inlet or sump")
              .field<&P::drySump>("dry_sump", "with tank and scavenge stages")
              .field<&P::tankReturns>("tank_returns", "return ports of the tank")
              .in("", 1, 2)
              .field<&P::oldPumpPort>("old_pump_port", "the block keeps its own pump's port")
              .field<&P::remoteFilter>("remote_filter", "the filter hangs on lines")
              .field<&P::cooler>("cooler", "with a thermostat")
              .field<&P::jets>("jets", "piston cooling jets")
              .field<&P::squirtHoles>("squirt_holes", "one in every rod")
              .field<&P::tensioner>("tensioner", "chain tensioner")
              .field<&P::tensionerVent_mm>("tensioner_vent_mm", "the tensioner's vent; 0: none")
              .in("mm", 0, 5)
              .field<&P::chainJet>("chain_jet", "open jet at the chain or the drive")
              .field<&P::bushGrooves>("bush_grooves", "groove round every cam bush; else one hole")
              .field<&P::hollowCams>("hollow_cams", "camshafts that carry the oil in their bore")
              .field<&P::phasers>("phasers", "one a camshaft")
              .field<&P::phaserFeed>("phaser_feed", "cam, or own through a screen")
              .field<&P::turbo>("turbo", "turbocharger")
              .field<&P::turboFeed>("turbo_feed", "gallery, or filter: its head's clean side")
              .field<&P::balanceShafts>("balance_shafts", "two of them")
              .field<&P::idlers>("idlers", "idler shafts of a gear drive")
              .in("", 0, 6)
              .field<&P::hotIdle_rpm>("hot_idle_rpm", "hot idle speed")
              .in("rev/min", 300, 2000)
              .field<&P::most_rpm>("most_rpm", "highest speed")
              .in("rev/min", 2000, 15000)
              .field<&P::oil>("oil", "grade")
              .strict();
    return type;
}

} // namespace mildpath
