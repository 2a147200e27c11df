// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/cleaning.h"
#include "passage/passage.h"

namespace mildpath {

template <> const RecordType &recordType<PassageEnd>()
{
    static const RecordType type
        = Describe<PassageEnd>("passage_end")
              .must<&PassageEnd::kind>("kind", "plug, hole, joint or blind")
              .ifSet<&PassageEnd::passage>(
                  "passage", "joint: the one it runs into; hole: what it meets once assembled")
              .field<&PassageEnd::at_mm>("at_mm", "where on that one")
              .in("mm")
              .when([](const PassageEnd &e) { return !e.passage.empty(); })
              .ifSet<&PassageEnd::straight>("straight",
                                            "joint at the other's end: runs on in one line")
              .ifSet<&PassageEnd::stop>("stop", "hole: the stop at which it opens")
              .keepsUnknown<&PassageEnd::extra>();
    return type;
}

template <> const RecordType &recordType<Crossing>()
{
    static const RecordType type
        = Describe<Crossing>("crossing")
              .must<&Crossing::at_mm>("at_mm", "where on this passage")
              .in("mm")
              .must<&Crossing::passage>("passage", "the one it runs through")
              .must<&Crossing::there_mm>("there_mm", "where on that one")
              .in("mm");
    return type;
}

template <> const RecordType &recordType<Restrictor>()
{
    static const RecordType type = Describe<Restrictor>("restrictor")
                                       .must<&Restrictor::at_mm>("at_mm", "where on the passage")
                                       .in("mm")
                                       .must<&Restrictor::d_mm>("d_mm", "diameter")
                                       .in("mm");
    return type;
}

template <> const RecordType &recordType<Passage>()
{
    static const RecordType type
        = Describe<Passage>("passage")
              .must<&Passage::id>("id", "unique among the passages")
              .field<&Passage::name>("name", "as people call it")
              .must<&Passage::part>("part", "the part it runs through")
              .field<&Passage::stop>("stop", "the stop whose cleanness it is")
              .field<&Passage::made>("made", "drilled, cast or tube")
              .ifSet<&Passage::elements>("elements", "of the circuit it is: its bore is theirs")
              .of("an element's id")
              .field<&Passage::d_mm>("d_mm", "diameter")
              .in("mm")
              .when([](const Passage &p) { return p.elements.empty(); })
              .must<&Passage::l_mm>("l_mm", "length")
              .in("mm")
              .ifSet<&Passage::curved>("curved", "no brush goes round its bends")
              .must<&Passage::ends>("ends", "end 0 and end 1")
              .of("a passage has two ends")
              .ifSet<&Passage::crossings>("crossings", "where it runs through others")
              .ifSet<&Passage::restrictors>("restrictors",
                                            "narrow places oil passes and a brush does not")
              .ifSet<&Passage::splitFrom>("split_from", "the passage it was a part of")
              .field<&Passage::splitAfter>("split_after_events",
                                           "how many events were recorded when it was split off")
              .when([](const Passage &p) { return !p.splitFrom.empty(); })
              .then([](Passage &p) {
                  if (p.name.empty())
                      p.name = p.id;
              })
              .keepsUnknown<&Passage::extra>();
    return type;
}

template <> const RecordType &recordType<Plug>()
{
    static const RecordType type
        = Describe<Plug>("plug")
              .must<&Plug::id>("id", "unique among the plugs")
              .field<&Plug::name>("name", "as people call it")
              .must<&Plug::kind>("kind", "screw, cup …")
              .must<&Plug::passage>("passage", "the one it closes")
              .must<&Plug::at_mm>("at_mm", "where on it")
              .in("mm")
              .must<&Plug::d_mm>("d_mm", "of the hole it closes")
              .in("mm")
              .ifSet<&Plug::thread>("thread", "as stamped or measured: M10x1")
              .ifSet<&Plug::behind>("behind", "id of the outer plug that hides it")
              .ifSet<&Plug::stop>("stop", "a stop of its own; else that of its passage")
              .then([](Plug &p) {
                  if (p.name.empty())
                      p.name = p.id;
              })
              .keepsUnknown<&Plug::extra>();
    return type;
}

template <> const RecordType &recordType<CleanEvent>()
{
    static const RecordType type
        = describeRecord<CleanEvent>("event")
              .must<&CleanEvent::kind>("kind", "what was done: hot_tank, brush, plug_out …")
              .field<&CleanEvent::scope>("scope", "passage, part, all, plug or job")
              .ifSet<&CleanEvent::target>("target", "id of passage, part, plug or job")
              .ifSet<&CleanEvent::result>("result", "by kind: white, grey; through, blocked …")
              .ifSet<&CleanEvent::means>("means", "looks: light, wire, fluid or camera")
              .ifSet<&CleanEvent::days>("days", "storage")
              .in("d", 0, 36500)
              .ifSet<&CleanEvent::covered>("covered", "storage: under cover")
              .ifSet<&CleanEvent::seen>("seen", "plug in its place: somebody looked at it there")
              .ifSet<&CleanEvent::dated>(
                  "dated", "the time was given by hand: the entry goes where it belongs");
    return type;
}

} // namespace mildpath
