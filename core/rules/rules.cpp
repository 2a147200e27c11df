// SPDX-License-Identifier: GPL-3.0-or-later
#include "rules/rules.h"

#include <array>

namespace mildpath {
namespace {

constexpr auto table = std::to_array<Rule>({
    { "assess.mostGasShare", 0.3, "", "more gas than this a pump is not asked to take here",
      "own choice, no source" },
    { "assess.oilModulus_pa", 1.5e9, "Pa", "of mineral oil, from memory", "handbook, from memory" },
    { "assess.scavengeEnough", 1.5, "",
      "scavenge stages should take this much more than comes: oil comes back as foam",
      "own choice, no source" },
    { "assess.bigFlake_mm", 1, "mm",
      "a flake of metal from this size on is looked at whatever the count",
      "own choice, no source" },
    { "assess.plateauScatter", 0.1, "",
      "what one trace of a wall scatters by, standard deviation as a share: twenty synthetic "
      "traces of one wall (docs/theory/finish.md)",
      "own choice, no source" },
    { "assess.valleyScatter", 0.3, "",
      "what one trace of a wall scatters by, standard deviation as a share: twenty synthetic "
      "traces of one wall (docs/theory/finish.md)",
      "own choice, no source" },
    { "assess.sameWarmth_k", 10, "K",
      "apart by more than this, two temperatures are not \"about as warm\"",
      "own choice, no source" },
    { "assess.coldForecast_c", 40, "°C", "oil of the cold curve of the forecast",
      "own choice, no source" },
    { "assess.hotterBy_k", 30, "K", "oil of the hottest curve above the hot oil of the build",
      "own choice, no source" },
    { "assess.evenSpread_k", 6, "K",
      "a block counts as evenly warm while its spots lie within this (K)",
      "own choice, no source" },
    { "assess.spotU_k", 1, "K",
      "standard uncertainty of a temperature taken on a dull spot or by contact (K)",
      "own choice, no source" },
    { "assess.expansionLeeway", 0.1, "",
      "share by which a housing may leave its handbook range before a reading counts as "
      "impossible: billet blocks are seen to grow 8 % less than the handbook says (",
      "common practice, no source" },
    { "assess.sameFill_h", 0.5, "h",
      "two samples are of one fill when their fills began within this of each other",
      "own choice, no source" },
    { "assess.watchWater_percent", 0.1, "%", "from here on another look",
      "common practice, no source" },
    { "assess.watchFuel_percent", 2, "%", "from here on another look",
      "common practice, no source" },
    { "assess.holdFuel_percent", 5, "%", "from here on another look",
      "common practice, no source" },
    { "assess.alikeViscosity", 0.05, "",
      "viscosities that differ by less than this share are alike", "own choice, no source" },
    { "assess.quickSignal_g", 0.15, "g",
      "what of the signal is quicker than the oil follows and still counts (g)",
      "own choice, no source" },
    { "assess.mostRoom_um", 250, "µm", "widest cold clearance on the map of room to choose",
      "own choice, no source" },
    { "assess.crankShareKept", 0.6, "",
      "below this share of what the big-ends get cold, their hot share is worth a look",
      "own choice, no source" },
    { "assess.modelUncertainty", 0.06, "",
      "common factor between model and engine (standard uncertainty, relative)",
      "own choice, no source" },
    { "assess.likelyFactor", 1.645, "",
      "\"Likely\" ranges hold nine builds in ten: ± 1.645 standard uncertainties (normal "
      "distribution)",
      "normal distribution, 95 % quantile" },
    { "assess.ruleClearancePerDiameter", 0.001, "",
      "a thousandth of an inch per inch of journal diameter", "common practice, no source" },
    { "assess.beyondStrength_pa", 15e5, "Pa",
      "above this no pressure is shown: beyond what filter cans stand",
      "common practice, no source" },
    { "assess.reliefOpenShare", 0.01, "",
      "relief counts as open from this share of the pump's flow", "own choice, no source" },
    { "assess.unlikelyWidths", 1.0, "",
      "a reading this far outside the limits (in widths of the limits) is kept and marked unlikely",
      "own choice, no source" },
    { "assess.feedShareFine", 0.7, "", "open share of a feed hole from which on nothing is said",
      "own choice, no source" },
    { "assess.feedShareLeast", 0.6, "", "open share of a feed hole below which it holds",
      "own choice, no source" },
    { "assess.coveredHoleDischarge", 0.65, "",
      "loss of a partly covered hole, on the drilling's velocity head: 1/(Cd f)², f its open share "
      "of the drilling. Cd of a covered edge",
      "own choice, no source" },
    { "assess.shutHoleSeeps", 2e-3, "",
      "a hole quite shut still seeps behind the shell: this share of the drilling",
      "own choice, no source" },
    { "assess.bevelDischarge", 0.6, "",
      "discharge coefficient of an oil bevel toward the thrust face", "own choice, no source" },
    { "assess.rotorsBind_um", 40, "µm",
      "end clearance below which rotors may bind when the pump warms (µm)",
      "common practice, no source" },
    { "assess.dressingWorth", 0.004, "",
      "dressing is worth its trouble while 10 µm still buy this share of hot idle",
      "own choice, no source" },
    { "assess.commonTipLimit_um", 127, "µm",
      "workshop limits of a rotor pump (µm): 0.005 in tip, 0.006 in end",
      "common practice, no source" },
    { "assess.commonEndLimit_um", 152, "µm",
      "workshop limits of a rotor pump (µm): 0.005 in tip, 0.006 in end",
      "common practice, no source" },
    { "assess.pumpEfficiency", 0.85, "", "pump power = outlet pressure × swept flow over this",
      "own choice, no source" },
    { "assess.needCamIdle_pa", 0.2e5, "Pa", "pressure a cam bearing needs at hot idle",
      "common practice, no source" },
    { "assess.needCamMost_pa", 0.5e5, "Pa", "pressure a cam bearing needs at the highest speed",
      "common practice, no source" },
    { "assess.needRockerIdle_pa", 0.1e5, "Pa", "pressure a rocker needs at hot idle",
      "common practice, no source" },
    { "assess.needRockerMost_pa", 0.3e5, "Pa", "pressure a rocker needs at the highest speed",
      "common practice, no source" },
    { "assess.needLifterIdle_pa", 0.3e5, "Pa", "pressure a lifter needs at hot idle",
      "common practice, no source" },
    { "assess.needLifterMost_pa", 0.7e5, "Pa", "pressure a lifter needs at the highest speed",
      "common practice, no source" },
    { "assess.needTensionerIdle_pa", 0.5e5, "Pa", "pressure a chain tensioner needs at hot idle",
      "common practice, no source" },
    { "assess.needTensionerMost_pa", 1e5, "Pa",
      "pressure a chain tensioner needs at the highest speed", "common practice, no source" },
    { "assess.needPhaserIdle_pa", 0.7e5, "Pa", "pressure a phaser needs at hot idle",
      "common practice, no source" },
    { "assess.needPhaserMost_pa", 1.5e5, "Pa", "pressure a phaser needs at the highest speed",
      "common practice, no source" },
    { "assess.needTurboIdle_pa", 0.7e5, "Pa",
      "pressure a turbocharger on floating bushes needs at hot idle",
      "common practice, no source" },
    { "assess.needTurboMost_pa", 2e5, "Pa",
      "pressure a turbocharger on floating bushes needs at the highest speed",
      "common practice, no source" },
    { "assess.needTurboBallIdle_pa", 0.4e5, "Pa",
      "pressure a turbocharger on ball bearings needs at hot idle", "common practice, no source" },
    { "assess.needTurboBallMost_pa", 1e5, "Pa",
      "pressure a turbocharger on ball bearings needs at the highest speed",
      "common practice, no source" },
    { "assess.needBalanceIdle_pa", 0.3e5, "Pa",
      "pressure a balance shaft bearing needs at hot idle", "common practice, no source" },
    { "assess.needBalanceMost_pa", 0.8e5, "Pa",
      "pressure a balance shaft bearing needs at the highest speed", "common practice, no source" },
    { "assess.needRockerIdleFlow_l_min", 0.005, "l/min", "oil a rocker needs at hot idle",
      "common practice, no source" },
    { "assess.needRockerMostFlow_l_min", 0.010, "l/min", "oil a rocker needs at the highest speed",
      "common practice, no source" },
    { "assess.needTurboIdleFlow_l_min", 0.4, "l/min",
      "oil a turbocharger on floating bushes needs at hot idle", "common practice, no source" },
    { "assess.needTurboMostFlow_l_min", 1.0, "l/min",
      "oil a turbocharger on floating bushes needs at the highest speed",
      "common practice, no source" },
    { "assess.needTurboBallIdleFlow_l_min", 0.2, "l/min",
      "oil a turbocharger on ball bearings needs at hot idle", "common practice, no source" },
    { "assess.needTurboBallMostFlow_l_min", 0.4, "l/min",
      "oil a turbocharger on ball bearings needs at the highest speed",
      "common practice, no source" },
    { "assess.needChainIdleFlow_l_min", 0.05, "l/min", "oil a chain jet needs at hot idle",
      "common practice, no source" },
    { "assess.needChainMostFlow_l_min", 0.15, "l/min", "oil a chain jet needs at the highest speed",
      "common practice, no source" },
    { "assess.farBelowLike", 0.5, "",
      "share of what most of its kind get below which a feed is looked at again",
      "own choice, no source" },
    { "assess.needGaugeMost_pa", 4e5, "Pa", "the rule of pressure over speed asks no more",
      "common practice, no source" },
    { "assess.gaugeHolds", 0.6, "", "share of the rule below which the gauge holds the start",
      "own choice, no source" },
    { "assess.filterWarn_pa", 800000, "Pa",
      "at the filter inlet: cans and gaskets are near their end", "common practice, no source" },
    { "assess.filterHold_pa", 1e+06, "Pa", "at the filter inlet: gaskets weep from here on",
      "common practice, no source" },
    { "assess.elementWarn_pa", 300000, "Pa", "over the filter element",
      "common practice, no source" },
    { "assess.elementHold_pa", 500000, "Pa", "over the filter element: it collapses",
      "common practice, no source" },
    { "assess.coolerWarn_pa", 700000, "Pa", "at a cooler or hose without a rating",
      "common practice, no source" },
    { "assess.coolerHold_pa", 1e+06, "Pa", "at a cooler or hose without a rating",
      "common practice, no source" },
    { "bearing.neverWithin_deg", 30, "°",
      "nobody gauges nearer the parting line than this (degrees)", "own choice, no source" },
    { "bearing.ringEndShare", 0.1, "",
      "share of a ring's stroke, from its ends, that counts as mid-stroke no more",
      "own choice, no source" },
    { "bearing.holeExponent", 0.6, "", "exponent of a feed hole's size in the feed factor",
      "docs/theory/film.md" },
    { "bearing.arcExponent", 0.7, "", "exponent of a groove's arc in the feed factor",
      "docs/theory/film.md" },
    { "bearing.mostInfraredAmplification", 2, "",
      "above this amplification a corrected reading is not to be trusted",
      "own choice, no source" },
    { "bearing.lineBelow", 1e-3, "",
      "below this share of the side flow the joining rule gives way to a straight line",
      "own choice, no source" },
    { "bearing.leastGap_m", 0.2e-6, "m",
      "what is left of a gap that has closed: the equations stay regular, the judgement holds it",
      "own choice, no source" },
    { "bearing.filmWarmth", 0.8, "",
      "film temperature above the oil that comes in, as a share of what the oil takes up: T_eff = "
      "T_in + 0.8 ΔT (Cameron, as in Stachowiak and Batchelor, from memory)",
      "handbook, from memory" },
    { "bearing.filmRiseMost_k", 80, "K", "most a film may warm above its supply",
      "own choice, no source" },
    { "bearing.oilHeat_j_kg_k", 2000, "J/(kg K)", "specific heat, handbook, from memory",
      "handbook, from memory" },
    { "bearing.warmUpSpeed_rpm", 3000, "rev/min",
      "the speed the second time constants stand for (rev/min); 1/τ is linear in speed between "
      "idle and it, and goes on so above",
      "own choice, no source" },
    { "circuit.laminarBelow", 500, "", "Reynolds number below which an orifice is taken as laminar",
      "own choice, no source" },
    { "circuit.rotationFade_pa", 20e3, "Pa",
      "pressure over which a bearing's rotation flow fades in", "own choice, no source" },
    { "circuit.valveSeatLeak", 1e-6, "",
      "least opening of a relief or bypass valve as a share of its full area: seat leak, and what "
      "keeps the equations regular",
      "own choice, no source" },
    { "circuit.closestShare", 0.6, "",
      "the drilling comes this near to the crank axis unless stated: share of its inlet radius",
      "own choice, no source" },
    { "circuit.massTolerance", 1e-9, "", "imbalance left, as a share of the pump's flow",
      "own choice, no source" },
    { "circuit.fillTolerance", 1e-6, "", "change of the pump's fill left, relative",
      "own choice, no source" },
    { "circuit.gateTolerance", 1e-4, "", "change of a valve's opening left",
      "own choice, no source" },
    { "circuit.filmTolerance_k", 0.02, "K", "change of a film's warmth left",
      "own choice, no source" },
    { "circuit.largestStep_pa", 10e5, "Pa", "largest step of a pressure in one round",
      "own choice, no source" },
    { "circuit.slopeLeft", 0.2, "",
      "a Newton step is searched along until a fifth of its slope is left: cheap passes instead of "
      "steps where valves begin to open",
      "own choice, no source" },
    { "circuit.roughTolerance", 3e-4, "", "of the pump's flow: near enough for coupled steps",
      "own choice, no source" },
    { "diagnose.coolantFroth", 0.25, "",
      "share of air that goes through the pump with the worst of coolant in the oil",
      "own choice, no source" },
    { "diagnose.toldApart", 1, "",
      "suspects nearer to each other than this (standard deviations, all taps under all "
      "conditions) no gauge tells apart",
      "own choice, no source" },
    { "diagnose.healthyPrior", 0.20, "", "prior of nothing wrong, in the unit of the kinds' priors",
      "own choice, no source" },
    { "diagnose.fittedMinutes", 2, "",
      "a gauge that is fitted is read in two minutes; another port wants a fitting",
      "own choice, no source" },
    { "diagnose.otherPortMinutes", 15, "",
      "a gauge that is fitted is read in two minutes; another port wants a fitting",
      "own choice, no source" },
    { "diagnose.independentError", 0.03, "",
      "independent error of the model, one reading to the next, relative",
      "own choice, no source" },
    { "diagnose.oilViscosityU", 0.05, "",
      "what an engine may be off by beside the model's own errors: its oil's viscosity (relative), "
      "and of a gauge's uncertainty the share that is its own, alike in all its readings; the rest "
      "is the eye's Clearances are off by their own uncertainty",
      "own choice, no source" },
    { "diagnose.gaugeOwnShare", 0.6, "",
      "what an engine may be off by beside the model's own errors: its oil's viscosity (relative), "
      "and of a gauge's uncertainty the share that is its own, alike in all its readings; the rest "
      "is the eye's Clearances are off by their own uncertainty",
      "own choice, no source" },
    { "diagnose.symptomLikely", 0.8, "", "chance to see a symptom, by how a fault goes with it",
      "own choice, no source" },
    { "diagnose.symptomPossible", 0.3, "", "chance to see a symptom, by how a fault goes with it",
      "own choice, no source" },
    { "diagnose.symptomOtherwise", 0.05, "", "chance to see a symptom, by how a fault goes with it",
      "own choice, no source" },
    { "diagnose.lookShows", 0.9, "",
      "chance that a look shows a fault it can show, and that it seems to show one that is not "
      "there",
      "own choice, no source" },
    { "diagnose.lookMistakes", 0.03, "",
      "chance that a look shows a fault it can show, and that it seems to show one that is not "
      "there",
      "own choice, no source" },
    { "diagnose.seenDistance", 2, "",
      "Mahalanobis distance from the healthy engine below which readings do not tell a fault",
      "own choice, no source" },
    { "diagnose.sureEnough", 0.8, "",
      "more certain than this one may act; below, look or read first", "own choice, no source" },
    { "diagnose.pushrodRestrictor_mm", 1.0, "mm", "what is fitted into a pushrod to restrict it",
      "own choice, no source" },
    { "diagnose.leastOpenFeed", 0.02, "",
      "a feed is never looked at as more than this shut: what is left still seeps",
      "own choice, no source" },
    { "diagnose.comesFrom", 0.9, "", "share of the usual flow from which on oil comes",
      "own choice, no source" },
    { "diagnose.noneBelow", 0.5, "", "share of the usual flow below which none comes",
      "own choice, no source" },
    { "diagnose.softness", 0.12, "", "softness of both edges", "own choice, no source" },
    { "diagnose.together", 0.5, "", "what the sum over outlets counts", "own choice, no source" },
    { "diagnose.camRestrictor_mm", 1.5, "mm", "restrictor in the feed of the head as a remedy",
      "own choice, no source" },
    { "diagnose.bushed_um", 25, "µm", "lifter in its bush, diametral", "own choice, no source" },
    { "diagnose.tighter_um", 10, "µm", "a tighter clearance as a remedy", "own choice, no source" },
    { "diagnose.longerRotors", 1.25, "", "longer rotors as a remedy", "own choice, no source" },
    { "diagnose.stiffer_kpa", 100, "kPa", "a stiffer spring as a remedy", "own choice, no source" },
    { "diagnose.pushrodSeat_mm", 8, "mm", "across the ball the lash opens around",
      "own choice, no source" },
    { "diagnose.lashOpen", 0.65, "", "share of a turn the lash stands open",
      "own choice, no source" },
    { "diagnose.needleUp_pa", 2e3, "Pa",
      "a gauge that rises by more while the weakest bearing gains less than half of it is an "
      "illusion",
      "own choice, no source" },
    { "diagnose.nothing_pa", 1e3, "Pa", "nothing that a gauge could tell",
      "own choice, no source" },
    { "diagnose.muchOver", 0.25, "",
      "from this share of the pump's flow on, much goes over the relief", "own choice, no source" },
    { "diagnose.costly", 1.15, "", "more than this, a remedy costs power",
      "own choice, no source" },
    { "diagnose.usualLash_mm", 0.25, "mm",
      "lash of solid lifters taken for the comparison (mm at the pushrod's seat)",
      "own choice, no source" },
    { "diagnose.stuckShutBy_kpa", 9000, "kPa",
      "a relief valve stuck shut: added to its opening pressures", "own choice, no source" },
    { "diagnose.missingPlugDischarge", 0.65, "",
      "discharge coefficient of a hole a plug is missing from", "own choice, no source" },
    { "diagnose.missingPlugLength_mm", 3, "mm", "length of a hole a plug is missing from",
      "own choice, no source" },
    { "diagnose.helperLineBore_mm", 6, "mm", "bore of a line from pump to gauge port",
      "own choice, no source" },
    { "diagnose.helperLineLength_mm", 800, "mm", "length of a line from pump to gauge port",
      "own choice, no source" },
    { "document.mostClearanceReading_um", 1000, "µm",
      "a clearance reading must be above 0 and at most this to be taken at all",
      "own choice, no source" },
    { "document.usualStripStep_um", 12.7, "µm", "step of a plastic strip's chart (µm)",
      "common practice, no source" },
    { "document.mostGaugeReading_kpa", 5000, "kPa",
      "a gauge reading is at most this to be taken at all", "own choice, no source" },
    { "document.mostGaugeReading_rpm", 20000, "rev/min", "speed of a gauge reading is at most this",
      "own choice, no source" },
    { "document.mostHours_h", 1e6, "h", "hours of an entry are at most this",
      "own choice, no source" },
    { "document.straightLoss", 1, "",
      "a pipe that loses less than this of its velocity head runs straight on; more is a corner",
      "own choice, no source" },
    { "document.stub_mm", 25, "mm", "from the last thing that meets a gallery to its end",
      "own choice, no source" },
    { "document.hiddenDepth_mm", 38, "mm", "a hidden plug sits this far in",
      "own choice, no source" },
    { "evidence.firstPressure_kpa", 20, "kPa", "a gauge that shows this much shows pressure (kPa)",
      "own choice, no source" },
    { "evidence.watchZ", 2, "", "deviations from an engine's own rate from which on it is watched",
      "own choice, no source" },
    { "evidence.alarmZ", 3, "", "deviations from an engine's own rate from which on it is an alarm",
      "own choice, no source" },
    { "oil.petrolAt40_mm2_s", 0.55, "mm²/s",
      "petrol in oil as far as viscosity goes (mm²/s): at 100 °C the light part has left",
      "common practice, no source" },
    { "oil.petrolAt100_mm2_s", 0.42, "mm²/s",
      "petrol in oil as far as viscosity goes (mm²/s): at 100 °C the light part has left",
      "common practice, no source" },
    { "oil.petrolAirFuel", 14.7, "", "air to fuel by mass, at which all is burnt",
      "stoichiometry, handbook" },
    { "oil.methanolAirFuel", 6.4, "", "air to fuel by mass, at which all is burnt",
      "stoichiometry, handbook" },
    { "oil.creepingTo", 0.2, "", "Reynolds number up to which a ball falls creeping",
      "own choice, no source" },
    { "oil.shearKnownTo_per_s", 3e6, "1/s", "above this the curve is extrapolated: ± 16 % at 1e7",
      "own choice, no source" },
    { "passage.openDaysToWash", 1, "d",
      "storage after which a washed passage asks for the final wash", "own choice, no source" },
    { "passage.coveredDaysToWash", 21, "d", "the same, covered", "own choice, no source" },
    { "passage.mostOfPlug", 0.55, "", "share of a plug's bore its drill may take",
      "own choice, no source" },
    { "passage.brushYields", 0.6, "", "a brush still goes through a bore of this share of its size",
      "own choice, no source" },
    { "pump.leastInlet_pa", 5e3, "Pa", "the law diverges toward vacuum", "own choice, no source" },
    { "start.turning_rpm", 20, "rev/min",
      "a crank or pump shaft turning faster than this turns (rev/min)", "own choice, no source" },
    { "start.confirm_s", 0.2, "s",
      "a low reading that nothing contradicts for so long is true (s): one line lost to the "
      "ignition is not",
      "own choice, no source" },
    { "start.silence_s", 1.0, "s", "a sender silent for so long is an alarm (s)",
      "own choice, no source" },
    { "start.belowBand_s", 3.0, "s", "under the band for so long, it is said (s)",
      "own choice, no source" },
    { "start.tooHot_k", 30, "K", "hotter than hot oil by this much (K)", "own choice, no source" },
    { "start.longestStep_s", 0.05, "s", "longest step of the played engine",
      "own choice, no source" },
    { "start.spinUp_s", 0.4, "s", "until a drill or starter has its speed",
      "own choice, no source" },
    { "start.fullRise_s", 0.25, "s", "of the pressure once all is full", "own choice, no source" },
    { "start.timesSpread", 0.35, "", "of fill volumes and rise, natural logarithm",
      "own choice, no source" },
    { "start.warmingSpread", 0.12, "", "of the time constants of warming",
      "own choice, no source" },
    { "start.outletFills_s", 4, "s", "a lifter with the pressure it needs",
      "own choice, no source" },
    { "start.hunting", 0.006, "", "of an engine's speed, relative", "own choice, no source" },
    { "start.flowsFrom", 0.9, "", "share of the need from which on an outlet flows",
      "own choice, no source" },
    { "start.weakFrom", 0.5, "", "share of the need from which on it is weak",
      "own choice, no source" },
    { "start.fillEfficiency", 0.85, "", "of what a pump sweeps while it fills",
      "own choice, no source" },
    { "start.halfFull", 0.5, "", "share of a filter filled by hand", "own choice, no source" },
    { "start.quickestRise_s", 0.6, "s",
      "pressure rises with these time constants once it comes (s): the upper and the lower edge of "
      "the corridor",
      "own choice, no source" },
    { "start.slowestRise_s", 2.5, "s",
      "pressure rises with these time constants once it comes (s): the upper and the lower edge of "
      "the corridor",
      "own choice, no source" },
    { "start.bearingStandsIdle_s", 20, "s",
      "running with a stop below its need, how long it stands it (s)", "own choice, no source" },
    { "start.bearingStandsFast_s", 5, "s",
      "running with a stop below its need, how long it stands it (s)", "own choice, no source" },
    { "start.othersStand_s", 300, "s",
      "running with a stop below its need, how long it stands it (s)", "own choice, no source" },
    { "start.fastFrom_rpm", 2000, "rev/min", "the faster time holds from here on (rev/min)",
      "own choice, no source" },
    { "start.gaugeAgain_min", 2, "min",
      "effort (min) of reading the gauge again, and of reading it at another port",
      "own choice, no source" },
    { "start.gaugeMoved_min", 15, "min",
      "effort (min) of reading the gauge again, and of reading it at another port",
      "own choice, no source" },
    { "sump.usualBunsen", 0.09, "",
      "gas (at 0 °C, 1 atm) mineral oil holds per volume and atmosphere. About 0.09 at 20 °C, "
      "nearly independent of temperature and thickness; common in hydraulics books, from memory",
      "handbook, from memory" },
    { "sump.viscosityUnimportant", 3e4, "",
      "Reynolds number on the submergence from which thickness no longer calms an intake's vortex. "
      "Anwar, Weller and Amphlett (1978), from memory",
      "handbook, from memory" },
    { "sump.oilExpansion_per_k", 0.0007, "1/K",
      "expansion of mineral oil by volume (1/K): 0.00065…0.0007. Common value, no source",
      "common value, no source" },
    { "sump.windCoupling", 0.2, "",
      "shares that no publication gives; shown as assumptions. of the crank's speed that the air "
      "takes up",
      "own choice, no source" },
    { "sump.usualRipple_m", 0.010, "m", "ripple of the surface while it runs",
      "own choice, no source" },
    { "surface.cutFromRatio", 0.01, "", "material ratio the strokes are cut from",
      "own choice, no source" },
    { "surface.mostCut", 0.95, "", "most of a trace strokes may cut", "own choice, no source" },
    { "surface.mostS", 3, "", "deviations the fit of the plateau reaches to",
      "docs/theory/finish.md" },
    { "surface.bendFromEnd", 1, "", "deviations the bend keeps from the ends",
      "own choice, no source" },
    { "surface.bendGap", 0.5, "", "deviations left out around the bend", "own choice, no source" },
    { "surface.leastSteepening", 1.5, "", "steepening from which on there is a valley part",
      "docs/theory/finish.md" },
    { "surface.leastBend", 10, "", "material ratio of the bend, least", "own choice, no source" },
    { "surface.mostBend", 99.5, "", "material ratio of the bend, most", "own choice, no source" },
});

/// The value of a row; a name there is not does not compile.
consteval double valueOf(std::string_view id)
{
    for (const Rule &r : table)
        if (r.id == id)
            return r.value;
    throw "there is no such rule";
}

} // namespace

std::span<const Rule> rules()
{
    return table;
}

const double mostGasShare = valueOf("assess.mostGasShare");
const double oilModulus_pa = valueOf("assess.oilModulus_pa");
const double scavengeEnough = valueOf("assess.scavengeEnough");
const double bigFlake_mm = valueOf("assess.bigFlake_mm");
const double plateauScatter = valueOf("assess.plateauScatter");
const double valleyScatter = valueOf("assess.valleyScatter");
const double sameWarmth_k = valueOf("assess.sameWarmth_k");
const double coldForecast_c = valueOf("assess.coldForecast_c");
const double hotterBy_k = valueOf("assess.hotterBy_k");
const double evenSpread_k = valueOf("assess.evenSpread_k");
const double spotU_k = valueOf("assess.spotU_k");
const double expansionLeeway = valueOf("assess.expansionLeeway");
const double sameFill_h = valueOf("assess.sameFill_h");
const double watchWater_percent = valueOf("assess.watchWater_percent");
const double watchFuel_percent = valueOf("assess.watchFuel_percent");
const double holdFuel_percent = valueOf("assess.holdFuel_percent");
const double alikeViscosity = valueOf("assess.alikeViscosity");
const double quickSignal_g = valueOf("assess.quickSignal_g");
const double mostRoom_um = valueOf("assess.mostRoom_um");
const double crankShareKept = valueOf("assess.crankShareKept");
const double modelUncertainty = valueOf("assess.modelUncertainty");
const double likelyFactor = valueOf("assess.likelyFactor");
const double ruleClearancePerDiameter = valueOf("assess.ruleClearancePerDiameter");
const double beyondStrength_pa = valueOf("assess.beyondStrength_pa");
const double reliefOpenShare = valueOf("assess.reliefOpenShare");
const double unlikelyWidths = valueOf("assess.unlikelyWidths");
const double feedShareFine = valueOf("assess.feedShareFine");
const double feedShareLeast = valueOf("assess.feedShareLeast");
const double coveredHoleDischarge = valueOf("assess.coveredHoleDischarge");
const double shutHoleSeeps = valueOf("assess.shutHoleSeeps");
const double bevelDischarge = valueOf("assess.bevelDischarge");
const double rotorsBind_um = valueOf("assess.rotorsBind_um");
const double dressingWorth = valueOf("assess.dressingWorth");
const double commonTipLimit_um = valueOf("assess.commonTipLimit_um");
const double commonEndLimit_um = valueOf("assess.commonEndLimit_um");
const double pumpEfficiency = valueOf("assess.pumpEfficiency");
const double needCamIdle_pa = valueOf("assess.needCamIdle_pa");
const double needCamMost_pa = valueOf("assess.needCamMost_pa");
const double needRockerIdle_pa = valueOf("assess.needRockerIdle_pa");
const double needRockerMost_pa = valueOf("assess.needRockerMost_pa");
const double needLifterIdle_pa = valueOf("assess.needLifterIdle_pa");
const double needLifterMost_pa = valueOf("assess.needLifterMost_pa");
const double needTensionerIdle_pa = valueOf("assess.needTensionerIdle_pa");
const double needTensionerMost_pa = valueOf("assess.needTensionerMost_pa");
const double needPhaserIdle_pa = valueOf("assess.needPhaserIdle_pa");
const double needPhaserMost_pa = valueOf("assess.needPhaserMost_pa");
const double needTurboIdle_pa = valueOf("assess.needTurboIdle_pa");
const double needTurboMost_pa = valueOf("assess.needTurboMost_pa");
const double needTurboBallIdle_pa = valueOf("assess.needTurboBallIdle_pa");
const double needTurboBallMost_pa = valueOf("assess.needTurboBallMost_pa");
const double needBalanceIdle_pa = valueOf("assess.needBalanceIdle_pa");
const double needBalanceMost_pa = valueOf("assess.needBalanceMost_pa");
const double needRockerIdleFlow_l_min = valueOf("assess.needRockerIdleFlow_l_min");
const double needRockerMostFlow_l_min = valueOf("assess.needRockerMostFlow_l_min");
const double needTurboIdleFlow_l_min = valueOf("assess.needTurboIdleFlow_l_min");
const double needTurboMostFlow_l_min = valueOf("assess.needTurboMostFlow_l_min");
const double needTurboBallIdleFlow_l_min = valueOf("assess.needTurboBallIdleFlow_l_min");
const double needTurboBallMostFlow_l_min = valueOf("assess.needTurboBallMostFlow_l_min");
const double needChainIdleFlow_l_min = valueOf("assess.needChainIdleFlow_l_min");
const double needChainMostFlow_l_min = valueOf("assess.needChainMostFlow_l_min");
const double farBelowLike = valueOf("assess.farBelowLike");
const double needGaugeMost_pa = valueOf("assess.needGaugeMost_pa");
const double gaugeHolds = valueOf("assess.gaugeHolds");
const double filterWarn_pa = valueOf("assess.filterWarn_pa");
const double filterHold_pa = valueOf("assess.filterHold_pa");
const double elementWarn_pa = valueOf("assess.elementWarn_pa");
const double elementHold_pa = valueOf("assess.elementHold_pa");
const double coolerWarn_pa = valueOf("assess.coolerWarn_pa");
const double coolerHold_pa = valueOf("assess.coolerHold_pa");
const double neverWithin_deg = valueOf("bearing.neverWithin_deg");
const double ringEndShare = valueOf("bearing.ringEndShare");
const double holeExponent = valueOf("bearing.holeExponent");
const double arcExponent = valueOf("bearing.arcExponent");
const double mostInfraredAmplification = valueOf("bearing.mostInfraredAmplification");
const double lineBelow = valueOf("bearing.lineBelow");
const double leastGap_m = valueOf("bearing.leastGap_m");
const double filmWarmth = valueOf("bearing.filmWarmth");
const double filmRiseMost_k = valueOf("bearing.filmRiseMost_k");
const double oilHeat_j_kg_k = valueOf("bearing.oilHeat_j_kg_k");
const double warmUpSpeed_rpm = valueOf("bearing.warmUpSpeed_rpm");
const double laminarBelow = valueOf("circuit.laminarBelow");
const double rotationFade_pa = valueOf("circuit.rotationFade_pa");
const double valveSeatLeak = valueOf("circuit.valveSeatLeak");
const double closestShare = valueOf("circuit.closestShare");
const double massTolerance = valueOf("circuit.massTolerance");
const double fillTolerance = valueOf("circuit.fillTolerance");
const double gateTolerance = valueOf("circuit.gateTolerance");
const double filmTolerance_k = valueOf("circuit.filmTolerance_k");
const double largestStep_pa = valueOf("circuit.largestStep_pa");
const double slopeLeft = valueOf("circuit.slopeLeft");
const double roughTolerance = valueOf("circuit.roughTolerance");
const double coolantFroth = valueOf("diagnose.coolantFroth");
const double toldApart = valueOf("diagnose.toldApart");
const double healthyPrior = valueOf("diagnose.healthyPrior");
const double fittedMinutes = valueOf("diagnose.fittedMinutes");
const double otherPortMinutes = valueOf("diagnose.otherPortMinutes");
const double independentError = valueOf("diagnose.independentError");
const double oilViscosityU = valueOf("diagnose.oilViscosityU");
const double gaugeOwnShare = valueOf("diagnose.gaugeOwnShare");
const double symptomLikely = valueOf("diagnose.symptomLikely");
const double symptomPossible = valueOf("diagnose.symptomPossible");
const double symptomOtherwise = valueOf("diagnose.symptomOtherwise");
const double lookShows = valueOf("diagnose.lookShows");
const double lookMistakes = valueOf("diagnose.lookMistakes");
const double seenDistance = valueOf("diagnose.seenDistance");
const double sureEnough = valueOf("diagnose.sureEnough");
const double pushrodRestrictor_mm = valueOf("diagnose.pushrodRestrictor_mm");
const double leastOpenFeed = valueOf("diagnose.leastOpenFeed");
const double comesFrom = valueOf("diagnose.comesFrom");
const double noneBelow = valueOf("diagnose.noneBelow");
const double softness = valueOf("diagnose.softness");
const double together = valueOf("diagnose.together");
const double camRestrictor_mm = valueOf("diagnose.camRestrictor_mm");
const double bushed_um = valueOf("diagnose.bushed_um");
const double tighter_um = valueOf("diagnose.tighter_um");
const double longerRotors = valueOf("diagnose.longerRotors");
const double stiffer_kpa = valueOf("diagnose.stiffer_kpa");
const double pushrodSeat_mm = valueOf("diagnose.pushrodSeat_mm");
const double lashOpen = valueOf("diagnose.lashOpen");
const double needleUp_pa = valueOf("diagnose.needleUp_pa");
const double nothing_pa = valueOf("diagnose.nothing_pa");
const double muchOver = valueOf("diagnose.muchOver");
const double costly = valueOf("diagnose.costly");
const double usualLash_mm = valueOf("diagnose.usualLash_mm");
const double stuckShutBy_kpa = valueOf("diagnose.stuckShutBy_kpa");
const double missingPlugDischarge = valueOf("diagnose.missingPlugDischarge");
const double missingPlugLength_mm = valueOf("diagnose.missingPlugLength_mm");
const double helperLineBore_mm = valueOf("diagnose.helperLineBore_mm");
const double helperLineLength_mm = valueOf("diagnose.helperLineLength_mm");
const double mostClearanceReading_um = valueOf("document.mostClearanceReading_um");
const double usualStripStep_um = valueOf("document.usualStripStep_um");
const double mostGaugeReading_kpa = valueOf("document.mostGaugeReading_kpa");
const double mostGaugeReading_rpm = valueOf("document.mostGaugeReading_rpm");
const double mostHours_h = valueOf("document.mostHours_h");
const double straightLoss = valueOf("document.straightLoss");
const double stub_mm = valueOf("document.stub_mm");
const double hiddenDepth_mm = valueOf("document.hiddenDepth_mm");
const double firstPressure_kpa = valueOf("evidence.firstPressure_kpa");
const double watchZ = valueOf("evidence.watchZ");
const double alarmZ = valueOf("evidence.alarmZ");
const double petrolAt40_mm2_s = valueOf("oil.petrolAt40_mm2_s");
const double petrolAt100_mm2_s = valueOf("oil.petrolAt100_mm2_s");
const double petrolAirFuel = valueOf("oil.petrolAirFuel");
const double methanolAirFuel = valueOf("oil.methanolAirFuel");
const double creepingTo = valueOf("oil.creepingTo");
const double shearKnownTo_per_s = valueOf("oil.shearKnownTo_per_s");
const double openDaysToWash = valueOf("passage.openDaysToWash");
const double coveredDaysToWash = valueOf("passage.coveredDaysToWash");
const double mostOfPlug = valueOf("passage.mostOfPlug");
const double brushYields = valueOf("passage.brushYields");
const double leastInlet_pa = valueOf("pump.leastInlet_pa");
const double turning_rpm = valueOf("start.turning_rpm");
const double confirm_s = valueOf("start.confirm_s");
const double silence_s = valueOf("start.silence_s");
const double belowBand_s = valueOf("start.belowBand_s");
const double tooHot_k = valueOf("start.tooHot_k");
const double longestStep_s = valueOf("start.longestStep_s");
const double spinUp_s = valueOf("start.spinUp_s");
const double fullRise_s = valueOf("start.fullRise_s");
const double timesSpread = valueOf("start.timesSpread");
const double warmingSpread = valueOf("start.warmingSpread");
const double outletFills_s = valueOf("start.outletFills_s");
const double hunting = valueOf("start.hunting");
const double flowsFrom = valueOf("start.flowsFrom");
const double weakFrom = valueOf("start.weakFrom");
const double fillEfficiency = valueOf("start.fillEfficiency");
const double halfFull = valueOf("start.halfFull");
const double quickestRise_s = valueOf("start.quickestRise_s");
const double slowestRise_s = valueOf("start.slowestRise_s");
const double bearingStandsIdle_s = valueOf("start.bearingStandsIdle_s");
const double bearingStandsFast_s = valueOf("start.bearingStandsFast_s");
const double othersStand_s = valueOf("start.othersStand_s");
const double fastFrom_rpm = valueOf("start.fastFrom_rpm");
const double gaugeAgain_min = valueOf("start.gaugeAgain_min");
const double gaugeMoved_min = valueOf("start.gaugeMoved_min");
const double usualBunsen = valueOf("sump.usualBunsen");
const double viscosityUnimportant = valueOf("sump.viscosityUnimportant");
const double oilExpansion_per_k = valueOf("sump.oilExpansion_per_k");
const double windCoupling = valueOf("sump.windCoupling");
const double usualRipple_m = valueOf("sump.usualRipple_m");
const double cutFromRatio = valueOf("surface.cutFromRatio");
const double mostCut = valueOf("surface.mostCut");
const double mostS = valueOf("surface.mostS");
const double bendFromEnd = valueOf("surface.bendFromEnd");
const double bendGap = valueOf("surface.bendGap");
const double leastSteepening = valueOf("surface.leastSteepening");
const double leastBend = valueOf("surface.leastBend");
const double mostBend = valueOf("surface.mostBend");

} // namespace mildpath
