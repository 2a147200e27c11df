// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/evidence.h"

#include "quantity/dates.h"

#include <algorithm>

namespace mildpath {
namespace {

bool isProof(const Evidence &e)
{
    return e.kind <= Evidence::Kind::Figure;
}

Evident saidBy(const Evidence &e)
{
    switch (e.kind) {
    case Evidence::Kind::Yes:
        return Evident::Yes;
    case Evidence::Kind::No:
        return Evident::No;
    case Evidence::Kind::Figure:
        return evidentOf(*e.figure);
    default:
        return Evident::Unsure;
    }
}

/// Whether two people or instruments say what cannot both be so.
bool disagree(const Evidence &a, const Evidence &b)
{
    if (a.figure && b.figure)
        return disagree(*a.figure, *b.figure);
    const Evident x = saidBy(a), y = saidBy(b);
    return (x == Evident::Yes && y == Evident::No) || (x == Evident::No && y == Evident::Yes);
}

Phrase dated(const Evidence &e)
{
    if (e.at.empty())
        return e.text;
    return joinedBy({ e.text, dayText(std::string_view(e.at).substr(0, 10)) }, "{*|, }");
}

} // namespace

Finds findsOf(std::span<const Evidence> timeline)
{
    Finds out;
    const Evidence *broken = nullptr, *aged = nullptr;
    std::vector<const Evidence *> beside; // proofs with nothing done between, one for each way
    for (const Evidence &e : timeline) {
        if (isProof(e)) {
            std::erase_if(beside,
                          [&](const Evidence *b) { return b->by == e.by && b->means == e.means; });
            beside.push_back(&e);
            out.last = &e;
            broken = aged = nullptr;
            continue;
        }
        beside.clear();
        if (e.kind == Evidence::Kind::Ages)
            aged = out.last && !broken ? &e : aged;
        else if (e.kind == Evidence::Kind::Breaks || out.last)
            broken = &e;
    }
    if (broken) {
        out.evident = Evident::No;
        out.spoilt = broken;
        out.reason = { "check.broken", "{0}, not proven since", { dated(*broken) } };
        return out;
    }
    if (!out.last)
        return out;
    out.evident = saidBy(*out.last);
    out.reason = out.last->text;
    if (out.evident == Evident::No)
        return out;
    if (aged) {
        out.evident = Evident::Unsure;
        out.spoilt = aged;
        out.reason = dated(*aged);
    } else if (const auto other
               = std::find_if(beside.begin(), beside.end(),
                              [&](const Evidence *b) { return disagree(*b, *out.last); });
               other != beside.end()) {
        out.evident = Evident::Unsure;
        out.reason = { "check.disagree",
                       "{0} and {1} disagree: find out which is wrong",
                       { (*other)->text, out.last->text } };
    }
    return out;
}

} // namespace mildpath
