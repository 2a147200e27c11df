// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/shopsheet.h"

#include "document/logbook.h"
#include "passage/plugs.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr std::string_view usualProof
    = "every passage named here brushed until the brush comes out white, and light, wire, fluid or "
      "a camera at its far end";

Phrase plugSize(const Plug &p)
{
    return p.thread.empty() ? Phrase("", "{0}", { asLength(p.d_mm) }) : Phrase(p.thread);
}

} // namespace

ShopSheet shopSheet(const Build &build, const std::string &date)
{
    ShopSheet out;
    out.build = build.name;
    out.engine = build.engine.name;
    out.date = date;
    const PassageNetwork network(build.passages, build.plugs);
    const auto kinds = stopKindsOf(build);
    const CleaningBook book = readBook(network, build.events, kinds);
    const auto plugIn
        = [&](int i) { return book.plugs[static_cast<size_t>(i)].place != PlugPlace::Out; };
    std::vector<bool> dirty(build.passages.size());
    for (const ShopJob *j : standing(build.shopJobs)) {
        if (!j->event.empty())
            continue;
        ShopSheet::Work work;
        work.id = j->id;
        const MachiningJob *job = findMachiningJob(j->job);
        work.what = job ? std::string(job->name) : j->note;
        work.note = job ? j->note : "";
        work.prove = j->prove;
        if (job) {
            CleanEvent as;
            as.kind = "machining";
            as.scope = "job";
            as.target = j->job;
            const auto reached = dirtiedBy(network, as, kinds, plugIn);
            for (size_t i = 0; i < reached.size(); ++i)
                if (reached[i]) {
                    work.dirties.push_back(build.passages[i].name);
                    out.parts.insert(build.passages[i].part);
                    dirty[i] = true;
                }
        }
        out.work.push_back(std::move(work));
    }
    for (size_t i = 0; i < build.plugs.size(); ++i) {
        const Plug &p = build.plugs[i];
        const Passage *in = findPassage(build.passages, p.passage);
        if (!out.parts.contains(in->part))
            continue;
        const PlugState &state = book.plugs[i];
        const bool isOut = state.place == PlugPlace::Out;
        out.plugs.push_back(
            { p.name, in->name,
              std::string(findPlugKind(p.kind)->name)
                  + (p.hidden() ? ", hidden behind " + findPlug(build.plugs, p.behind)->name : ""),
              plugSize(p), isOut,
              isOut ? "out: leave it out until the final wash"
                  : state.place == PlugPlace::Left
                  ? "left in" + (state.reason.empty() ? "" : ": " + state.reason)
                  : "in: comes out before the tank, unless agreed otherwise" });
    }
    if (std::find(dirty.begin(), dirty.end(), true) != dirty.end())
        out.prove.emplace_back(usualProof);
    if (!out.plugs.empty())
        out.prove.emplace_back("every plug accounted for: out, left with the reason, or in, sealed "
                               "and seen, hidden ones too");
    for (const ShopSheet::Work &w : out.work)
        if (!w.prove.empty())
            out.prove.push_back(w.what + ": " + w.prove);
    out.cautions
        = { "After any machining everything downstream is dirty again. New parts are not "
            "clean parts.",
            "Heads: caps out of the dead-end drillings before the tank.",
            "Line boring, crank grinding and crack tests belong to a qualified shop; local "
            "codes and the maker's word win.",
            std::string(magnetCaution()) };
    return out;
}

Mark ShopSheet::Work::mark() const
{
    return dirties.empty() ? Mark::NotDone : Mark::LookAgain;
}

} // namespace mildpath
