// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string_view>

namespace mildpath {

/// What hurts people, each in one wording whoever says it: window, command line, printed sheet.
/// They stand where the danger is and defer to local codes, the manufacturer and qualified shops.
/// Common practice, no source.
namespace caution {

inline constexpr std::string_view exhaust
    = "Exhaust gas kills: run outdoors or duct the exhaust outside. Carbon monoxide has no smell.";
inline constexpr std::string_view atTheStart
    = "Extinguisher ready, second person at the switch, coolant in, no fuel leaks, ear protection. "
      "Diesel: air shut-off ready. Engine held on its mounts, never under a hoist.";
inline constexpr std::string_view belts
    = "Hair, sleeves and leads clear of belts. Hot oil, block and exhaust burn.";
inline constexpr std::string_view deferring
    = "Local codes and the manufacturer come first; a doubtful engine goes to a qualified shop.";
inline constexpr std::string_view cannotStop
    = "This program cannot stop the engine. Ignition off, fuel off.";
inline constexpr std::string_view drillSnatches
    = "A priming drill can snatch: both hands, side handle, trigger not locked, sleeves and hair "
      "clear.";
inline constexpr std::string_view pressurePot = "Use a pot rated for the pressure, with regulator "
                                                "and relief valve. Goggles. Release pressure "
                                                "before opening.";
inline constexpr std::string_view coverOff
    = "Cover off, engine running: idle only, face shield, hands and tools out.";
inline constexpr std::string_view hardTurns
    = "Sustained turns on closed ground; a passenger or logger reads the pressure, never the "
      "driver.";
inline constexpr std::string_view hoist = "Support the engine with rated equipment before "
                                          "loosening mounts or pan. Never reach under an "
                                          "engine held only by a hoist.";
inline constexpr std::string_view draining
    = "Let oil cool before draining. Gloves. Used oil: follow local rules.";
inline constexpr std::string_view spoiltOil = "Check the dipstick for milky oil or fuel smell, "
                                              "then send a sample. Never heat a sample. Fuel "
                                              "in oil: no flames. Coolant is poisonous.";
inline constexpr std::string_view coolingSystem
    = "Pressure-test the cooling system cold, within its cap rating. Never open it hot.";
inline constexpr std::string_view drawingPlugs
    = "Goggles. Never heat metal wet with solvent or oil.";
inline constexpr std::string_view drillingPlugs
    = "Grease drill and tap; brush the passage afterwards.";
inline constexpr std::string_view caustic
    = "Caustic burns: face shield, gloves, apron. Never aluminium or magnesium in caustic.";
inline constexpr std::string_view solvent = "Ventilate; gloves, goggles. No flame or hot metal "
                                            "near solvent. No petrol. Nothing flammable "
                                            "in an ultrasonic bath.";
inline constexpr std::string_view compressedAir
    = "Goggles. Never aim at skin. Blow from the feed to the open end.";
inline constexpr std::string_view metalDust
    = "Gloves, goggles; keep it wet: do not breathe metal dust.";
inline constexpr std::string_view hotMetal
    = "Hot metal looks cold: gloves. Heat only clean, dry metal, never unattended. Extinguisher "
      "ready.";
inline constexpr std::string_view preheat
    = "Preheat with a block, coolant or sump heater. Never a flame under the engine.";
inline constexpr std::string_view welding = "Wash, dry and ventilate before welding. No "
                                            "chlorinated solvent: welding turns it into poison "
                                            "gas. Wash again afterwards.";
/// Before an engine is started.
std::string_view start();
inline constexpr std::string_view usedOil
    = "Let it cool. Gloves: used oil harms skin, bearing debris may contain lead. Cut edges are "
      "sharp. Used oil: follow local rules.";
inline constexpr std::string_view methanol
    = "Methanol is poisonous, also through skin; its flame is hard to see. Gloves, goggles, "
      "ventilate.";

} // namespace caution

} // namespace mildpath
