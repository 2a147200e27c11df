// SPDX-License-Identifier: GPL-3.0-or-later
#include "rules/ruletable.h"

namespace mildpath {
namespace {

/// The value of a row; a name there is not does not compile.
consteval double valueOf(std::string_view id)
{
    for (const Rule &r : ruleTable)
        if (r.id == id)
            return r.value;
    throw "there is no such rule";
}

} // namespace

std::span<const Rule> rules()
{
    return ruleTable;
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
const double solidMeter_mm = valueOf("diagnose.solidMeter_mm");
const double shorterRotors = valueOf("diagnose.shorterRotors");
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
const double plausibleWallShare = valueOf("plausible.wallShare");
const double plausibleSpeedRatio = valueOf("plausible.speedRatio");
const double plausiblePumpShare = valueOf("plausible.pumpShare");
const double displacementApart = valueOf("pump.displacementApart");
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
