// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string_view>

namespace mildpath {

/// A number no publication gives, or one among several it could be: a limit, a prior, the size of a
/// fault, a margin. Each stands once, in the table of rules.cpp; docs/theory/rules.md lists them
/// and a test compares. What a number means and where it comes from is said there.
struct Rule
{
    std::string_view id; ///< "folder.name"
    double value;
    std::string_view unit, meaning, source;
};
std::span<const Rule> rules();

// assess
extern const double mostGasShare;
extern const double oilModulus_pa;
extern const double scavengeEnough;
extern const double bigFlake_mm;
extern const double plateauScatter;
extern const double valleyScatter;
extern const double sameWarmth_k;
extern const double coldForecast_c;
extern const double hotterBy_k;
extern const double evenSpread_k;
extern const double spotU_k;
extern const double expansionLeeway;
extern const double sameFill_h;
extern const double watchWater_percent;
extern const double watchFuel_percent;
extern const double holdFuel_percent;
extern const double alikeViscosity;
extern const double quickSignal_g;
extern const double mostRoom_um;
extern const double crankShareKept;
extern const double usualAirShare;
extern const double bandAir;
extern const double bandWarmth;
extern const double bandDisplacement_ln;
extern const double bandDisplacementTypical_ln;
extern const double bandPumpPath_ln;
extern const double bandPumpPaths_ln;
extern const double bandBearing_ln;
extern const double bandBearings_ln;
extern const double bandHole_ln;
extern const double bandHoles_ln;
extern const double bandBoreMeasured_mm;
extern const double bandBoreDrawn_mm;
extern const double bandBoreTypical;
extern const double bandSeepEccentricity;
extern const double bandFilter_ln;
extern const double bandSpringMeasured_ln;
extern const double bandSpring_ln;
extern const double bandOilNew_ln;
extern const double bandOilUsed_ln;
extern const double bandOil_k;
extern const double bandModelCommon_ln;
extern const double bandModelOwn_ln;
extern const double bandModel_ln; ///< both together
extern const double likelyFactor;
extern const double ruleClearancePerDiameter;
extern const double beyondStrength_pa;
extern const double reliefOpenShare;
extern const double unlikelyWidths;
extern const double crankFedFine;
extern const double crankFedLeast;
extern const double roomFilmParameter;
extern const double noiseMains;
extern const double noiseBigEnds;
extern const double unwintered_c;
extern const double crankingLeeway_k;
extern const double filmWarm_c;
extern const double filmHot_c;
extern const double feedShareFine;
extern const double feedShareLeast;
extern const double coveredHoleDischarge;
extern const double shutHoleSeeps;
extern const double bevelDischarge;
extern const double rotorsBind_um;
extern const double dressingWorth;
extern const double commonTipLimit_um;
extern const double commonEndLimit_um;
extern const double pumpEfficiency;
extern const double needCamIdle_pa;
extern const double needCamMost_pa;
extern const double needRockerIdle_pa;
extern const double needRockerMost_pa;
extern const double needLifterIdle_pa;
extern const double needLifterMost_pa;
extern const double needTensionerIdle_pa;
extern const double needTensionerMost_pa;
extern const double needPhaserIdle_pa;
extern const double needPhaserMost_pa;
extern const double needTurboIdle_pa;
extern const double needTurboMost_pa;
extern const double needTurboBallIdle_pa;
extern const double needTurboBallMost_pa;
extern const double needBalanceIdle_pa;
extern const double needBalanceMost_pa;
extern const double needIdlerIdle_pa;
extern const double needIdlerMost_pa;
extern const double needIdlerFlow_l_min;
extern const double needRockerIdleFlow_l_min;
extern const double needRockerMostFlow_l_min;
extern const double needTurboIdleFlow_l_min;
extern const double needTurboMostFlow_l_min;
extern const double needTurboBallIdleFlow_l_min;
extern const double needTurboBallMostFlow_l_min;
extern const double needChainIdleFlow_l_min;
extern const double needChainMostFlow_l_min;
extern const double needGaugeMost_pa;
extern const double farBelowLike;
extern const double gaugeHolds;
extern const double filterWarn_pa;
extern const double filterHold_pa;
extern const double elementWarn_pa;
extern const double elementHold_pa;
extern const double coolerWarn_pa;
extern const double coolerHold_pa;
// bearing
extern const double neverWithin_deg;
extern const double ringEndShare;
extern const double holeExponent;
extern const double arcExponent;
extern const double mostInfraredAmplification;
extern const double lineBelow;
extern const double leastGap_m;
extern const double fullLoadPeak_pa;
extern const double fullLoadPeakBoosted_pa;
extern const double filmWarmth;
extern const double filmRiseMost_k;
extern const double oilHeat_j_kg_k;
extern const double warmUpSpeed_rpm;
// circuit
extern const double laminarBelow;
extern const double rotationFade_pa;
extern const double valveSeatLeak;
extern const double closestShare;
extern const double massTolerance;
extern const double fillTolerance;
extern const double oilTearsAt_pa;
extern const double gateTolerance;
extern const double filmTolerance_k;
extern const double largestStep_pa;
extern const double slopeLeft;
extern const double roughTolerance;
// diagnose
extern const double readingSpeed_rpm;
extern const double readingSpeedShare;
extern const double readingTemperature_k;
extern const double offPrior;
extern const double offCommon_ln;
extern const double offEach_ln;
extern const double coolantFroth;
extern const double toldApart;
extern const double healthyPrior;
extern const double fittedMinutes;
extern const double otherPortMinutes;
extern const double gaugeOwnShare;
extern const double symptomLikely;
extern const double symptomPossible;
extern const double symptomOtherwise;
extern const double lookShows;
extern const double lookMistakes;
extern const double seenDistance;
extern const double sureEnough;
extern const double pushrodRestrictor_mm;
extern const double leastOpenFeed;
extern const double comesFrom;
extern const double noneBelow;
extern const double softness;
extern const double together;
extern const double camRestrictor_mm;
extern const double bushed_um;
extern const double tighter_um;
extern const double longerRotors;
extern const double stiffer_kpa;
extern const double pushrodSeat_mm;
extern const double lashOpen;
extern const double needleUp_pa;
extern const double nothing_pa;
extern const double muchOver;
extern const double costly;
extern const double solidMeter_mm;
extern const double shorterRotors;
extern const double usualLash_mm;
extern const double stuckShutBy_kpa;
extern const double missingPlugDischarge;
extern const double missingPlugLength_mm;
extern const double helperLineBore_mm;
extern const double helperLineLength_mm;
// document
extern const double mostClearanceReading_um;
extern const double usualStripStep_um;
extern const double mostGaugeReading_kpa;
extern const double mostGaugeReading_rpm;
extern const double mostHours_h;
extern const double straightLoss;
extern const double stub_mm;
extern const double hiddenDepth_mm;
// evidence
extern const double firstPressure_kpa;
extern const double watchZ;
extern const double alarmZ;
// oil
extern const double petrolAt40_mm2_s;
extern const double petrolAt100_mm2_s;
extern const double petrolAirFuel;
extern const double methanolAirFuel;
extern const double creepingTo;
extern const double shearKnownTo_per_s;
// passage
extern const double openDaysToWash;
extern const double coveredDaysToWash;
extern const double mostOfPlug;
extern const double brushYields;
// plausible
extern const double plausibleWallShare;
extern const double plausibleSpeedRatio;
extern const double plausiblePumpShare;
// pump
extern const double displacementApart;
extern const double leastInlet_pa;
// start
extern const double turning_rpm;
extern const double confirm_s;
extern const double silence_s;
extern const double belowBand_s;
extern const double tooHot_k;
extern const double longestStep_s;
extern const double spinUp_s;
extern const double fullRise_s;
extern const double timesSpread;
extern const double warmingSpread;
extern const double outletFills_s;
extern const double hunting;
extern const double flowsFrom;
extern const double weakFrom;
extern const double fillEfficiency;
extern const double halfFull;
extern const double quickestRise_s;
extern const double slowestRise_s;
extern const double bearingStandsIdle_s;
extern const double bearingStandsFast_s;
extern const double othersStand_s;
extern const double fastFrom_rpm;
extern const double gaugeAgain_min;
extern const double gaugeMoved_min;
// sump
extern const double usualBunsen;
extern const double viscosityUnimportant;
extern const double oilExpansion_per_k;
extern const double windCoupling;
extern const double usualRipple_m;
// surface
extern const double cutFromRatio;
extern const double mostCut;
extern const double mostS;
extern const double bendFromEnd;
extern const double bendGap;
extern const double leastSteepening;
extern const double leastBend;
extern const double mostBend;

} // namespace mildpath
