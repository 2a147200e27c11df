// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/fastening.h"
#include "document/parts.h"

// How torque cards, shells, weighings and choices stand in a build's file.

namespace mildpath {

template <> const RecordType &recordType<TorqueStage>()
{
    static const RecordType type
        = Describe<TorqueStage>("stage")
              .ifSet<&TorqueStage::torque>("torque", "to a torque, in its unit")
              .ifSet<&TorqueStage::unit>("unit", "as entered; else N m")
              .ifSet<&TorqueStage::angle_deg>("angle_deg", "or on by an angle")
              .in("°");
    return type;
}

template <> const RecordType &recordType<Fastener>()
{
    static const RecordType type
        = Describe<Fastener>("fastener")
              .must<&Fastener::stop>("stop", "whose cap it holds")
              .field<&Fastener::x_mm>("x_mm", "seen from above, to the rear")
              .in("mm")
              .field<&Fastener::y_mm>("y_mm", "seen from above, across")
              .in("mm");
    return type;
}

template <> const RecordType &recordType<TorqueCard>()
{
    static const RecordType type
        = Describe<TorqueCard>("torque_card")
              .must<&TorqueCard::id>("id", "unique among the cards")
              .field<&TorqueCard::name>("name", "as people call it")
              .field<&TorqueCard::threads>("threads", "oiled, dry …")
              .field<&TorqueCard::capByCap>("cap_by_cap", "each cap is a set by itself")
              .ifSet<&TorqueCard::washers>("washers", "under the heads; else as the threads")
              .ifSet<&TorqueCard::uses>("uses", "how often a bolt may be used; 1: it stretches")
              .ifSet<&TorqueCard::after>("after", "id of the card of the bolts that come first")
              .ifSet<&TorqueCard::edition>("edition", "counts changes of what is on it")
              .field<&TorqueCard::stages>("stages", "passes over all fasteners")
              .field<&TorqueCard::fasteners>("fasteners", "in the order they are tightened")
              .field<&TorqueCard::source>(
                  "source", "typical, shop, manufacturer, measured, or in one's own words")
              .then([](TorqueCard &c) {
                  if (c.name.empty())
                      c.name = c.id;
              })
              .keepsUnknown<&TorqueCard::extra>();
    return type;
}

template <> const RecordType &recordType<TorqueTick>()
{
    static const RecordType type
        = Describe<TorqueTick>("torque_tick")
              .must<&TorqueTick::id>("id", "unique among the ticks")
              .must<&TorqueTick::card>("card", "id of the torque card")
              .must<&TorqueTick::fastener>("fastener", "from 1, in the order of the card")
              .must<&TorqueTick::stage>("stage", "reached, from 1; 0: loosened")
              .ifSet<&TorqueTick::newBolt>("new_bolt", "of a single-use set: the one for the build")
              .ifSet<&TorqueTick::edition>("edition", "of the card as it was")
              .field<&TorqueTick::by>("by", "who did it")
              .field<&TorqueTick::at>("at", "when: ISO 8601, local time")
              .keepsUnknown<&TorqueTick::extra>();
    return type;
}

template <> const RecordType &recordType<ShellStockRow>()
{
    static const RecordType type
        = Describe<ShellStockRow>("shells")
              .must<&ShellStockRow::name>("name", "colour or mark")
              .must<&ShellStockRow::wall_mm>("wall_mm", "wall of one half")
              .in("mm")
              .ifSet<&ShellStockRow::halves>("halves", "in stock; else as many as wanted");
    return type;
}

template <> const RecordType &recordType<SizeClass>()
{
    static const RecordType type = Describe<SizeClass>("size_class")
                                       .must<&SizeClass::name>("name", "as stamped")
                                       .must<&SizeClass::least_mm>("least_mm", "from")
                                       .in("mm")
                                       .must<&SizeClass::most_mm>("most_mm", "to")
                                       .in("mm");
    return type;
}

template <> const RecordType &recordType<FittedShells>()
{
    static const RecordType type
        = Describe<FittedShells>("fitted")
              .ifSet<&FittedShells::upper>("upper", "shells in the housing")
              .ifSet<&FittedShells::lower>("lower", "shells in the cap")
              .ifSet<&FittedShells::housingClass>("housing_class", "as stamped")
              .ifSet<&FittedShells::journalClass>("journal_class", "as stamped");
    return type;
}

template <> const RecordType &recordType<ShellStock>()
{
    static const RecordType type
        = Describe<ShellStock>("shell_stock")
              .field<&ShellStock::shells>("shells", "size classes of shells")
              .field<&ShellStock::housings>("housing_classes", "stamped on the block")
              .field<&ShellStock::journals>("journal_classes", "stamped on the crank")
              .field<&ShellStock::undersizes_mm>("undersizes_mm", "regrind steps that can be had")
              .in("mm")
              .field<&ShellStock::fitted>("fitted", "what sits where, by stop")
              .field<&ShellStock::source>("source", "maker, shop …")
              .keepsUnknown<&ShellStock::extra>();
    return type;
}

template <> const RecordType &recordType<WeighedPart>()
{
    static const RecordType type
        = Describe<WeighedPart>("weighed_part")
              .ifSet<&WeighedPart::tolerance_g>("tolerance_g", "allowed spread")
              .above(0, "g", 1000)
              .ifSet<&WeighedPart::source>("source", "of the tolerance")
              .ifSet<&WeighedPart::pieces>("pieces", "of parts weighed together")
              .keepsUnknown<&WeighedPart::extra>();
    return type;
}

template <> const RecordType &recordType<Weighing>()
{
    static const RecordType type = Describe<Weighing>("weighing")
                                       .must<&Weighing::id>("id", "unique among the weighings")
                                       .must<&Weighing::part>("part", "as weighed_parts names it")
                                       .must<&Weighing::item>("item", "cylinder, from 1")
                                       .must<&Weighing::grams>("grams", "as weighed")
                                       .above(0, "g", 99999)
                                       .field<&Weighing::by>("by", "who weighed it")
                                       .field<&Weighing::at>("at", "when: ISO 8601, local time")
                                       .keepsUnknown<&Weighing::extra>();
    return type;
}

template <> const RecordType &recordType<Choice>()
{
    static const RecordType type = Describe<Choice>("choice")
                                       .must<&Choice::question>("question", "which question")
                                       .must<&Choice::answer>("answer", "how it was answered")
                                       .field<&Choice::reason>("reason", "in one's own words")
                                       .field<&Choice::by>("by", "who decided")
                                       .field<&Choice::at>("at", "when: ISO 8601, local time")
                                       .keepsUnknown<&Choice::extra>();
    return type;
}

} // namespace mildpath
