// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/torquepage.h"

#include "bench/engine/valuetable.h"
#include "entry/refusal.h"
#include "paint/text.h"

#include <QPushButton>

#include <algorithm>

// What is on a torque card, and how it is changed.

namespace mildpath {
namespace {

/// Where bolts of a further group on the same caps lie: outside those there are.
constexpr double furtherOut = 1.7;

/// Caps of a kind with two bolts each, from the middle outward.
TorqueCard cardFor(const Build &build, StopKind kind, const std::string &name)
{
    TorqueCard out;
    out.name = name;
    out.threads = "oiled";
    out.source = wordOf(Origin::Shop);
    out.capByCap = kind == StopKind::BigEnd;
    std::vector<const Stop *> stops;
    for (const Stop &s : build.engine.stops)
        if (s.kind == kind)
            stops.push_back(&s);
    std::vector<size_t> order(stops.size());
    for (size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    const auto fromMiddle = [&](size_t i) {
        return std::abs(2.0 * static_cast<double>(i) + 1 - static_cast<double>(stops.size()));
    };
    if (!out.capByCap)
        std::ranges::stable_sort(order, {}, fromMiddle);
    for (const size_t i : order)
        for (const double side : { -45.0, 45.0 })
            out.fasteners.push_back({ stops[i]->id, 100.0 * static_cast<double>(i), side });
    return out;
}

} // namespace

Result<void> TorquePage::put(TorqueCard changed)
{
    const bool adding = changed.id.empty();
    if (auto ok = m_open.edit(PutTorqueCard { std::move(changed) }); !ok)
        return ok;
    if (adding)
        m_card = m_open.build().torqueCards.back().id;
    refresh();
    Q_EMIT TorquePage::changed();
    return {};
}

void TorquePage::cardPanel(PanelContent &out)
{
    const TorqueCard *c = card();
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What is on the card") });
    if (c) {
        const QString example = Figure::system() == UnitSystem::Imperial
            ? tr("22 lb ft, 44 lb ft, +90°")
            : tr("30 N m, 60 N m, +90°");
        out.push_back(PanelText { tr("Stages as the manual has them: %1. Torques in N m, lb ft or "
                                     "kg m. Threads dry, oiled or with assembly paste.")
                                      .arg(example),
                                  Tone::Muted });
        wordsPanel(*c, out);
        choicesPanel(*c, out);
        if (m_ordering)
            out.push_back(
                PanelText { tr("Click the bolts in the order they are tightened: %1 of %2.")
                                .arg(m_ordering->size())
                                .arg(c->fasteners.size()),
                            Tone::Warn });
        out.push_back(PanelButton {
            QStringLiteral("card.order"),
            m_ordering ? tr("Leave the order as it was") : tr("Set the order by clicking bolts"),
            [this] {
                m_ordering ? m_ordering.reset() : static_cast<void>(m_ordering.emplace());
                Q_EMIT changed();
            } });
        out.push_back(PanelButton { QStringLiteral("card.outer"),
                                    tr("Add outer bolts on these caps"), [this] { addOuter(); } });
        out.push_back(
            PanelButton { QStringLiteral("card.drop"), tr("Take the card off"), [this, id = c->id] {
                             saidIfRefused(m_open.edit(DropTorqueCard { id }));
                         } });
    }
    const auto add = [this](const char *id, const QString &text, StopKind kind, const char *name) {
        return PanelButton { QString::fromLatin1(id), text, [this, kind, name] {
                                TorqueCard made = cardFor(m_open.build(), kind, name);
                                made.stages = { { 30, "N m", 0 } };
                                saidIfRefused(put(std::move(made)));
                            } };
    };
    out.push_back(add("card.mains", tr("New card for main caps"), StopKind::Main, "Main caps"));
    out.push_back(add("card.rods", tr("New card for rod caps"), StopKind::BigEnd, "Rod caps"));
}

void TorquePage::wordsPanel(const TorqueCard &c, PanelContent &out)
{
    const auto word = [&](const char *id, const QString &label, std::string TorqueCard::*which) {
        out.push_back(PanelWord { QString::fromLatin1(id), label, qs(c.*which),
                                  [this, which](const QString &text) -> Result<void> {
                                      TorqueCard now = *card();
                                      now.*which = text.trimmed().toStdString();
                                      return put(std::move(now));
                                  } });
    };
    word("card.name", tr("name"), &TorqueCard::name);
    out.push_back(PanelWord { QStringLiteral("card.stages"), tr("stages"), qs(stagesText(c.stages)),
                              [this](const QString &text) -> Result<void> {
                                  const bool imperial = Figure::system() == UnitSystem::Imperial;
                                  const auto stages
                                      = readStages(text.toStdString(), imperial ? "lb ft" : "N m");
                                  if (!stages)
                                      return tl::unexpected(stages.error());
                                  TorqueCard now = *card();
                                  now.stages = *stages;
                                  if (now.isStartingValue())
                                      now.source = wordOf(Origin::Shop); // somebody entered them
                                  return put(std::move(now));
                              } });
    word("card.threads", tr("threads"), &TorqueCard::threads);
    word("card.washers", tr("under the heads"), &TorqueCard::washers);
}

void TorquePage::choicesPanel(const TorqueCard &c, PanelContent &out)
{
    PanelChoice uses { QStringLiteral("card.uses"),
                       tr("a bolt may be used"),
                       { tr("as the manual says"), tr("once"), tr("2 times"), tr("3 times"),
                         tr("4 times"), tr("5 times") },
                       std::min(c.uses, 5),
                       {} };
    uses.chosen = [this](int n) -> Result<void> {
        TorqueCard now = *card();
        now.uses = n;
        return put(std::move(now));
    };
    out.push_back(std::move(uses));
    PanelChoice source { QStringLiteral("card.source"), tr("whose figures"), {}, -1, {} };
    const std::vector<Origin> origins { Origin::Manufacturer, Origin::Shop, Origin::Typical };
    for (size_t i = 0; i < origins.size(); ++i) {
        if (c.source == wordOf(origins[i]))
            source.current = static_cast<int>(i);
        source.options << originWord(origins[i]);
    }
    source.chosen = [this, origins](int i) -> Result<void> {
        TorqueCard now = *card();
        now.source = wordOf(origins[static_cast<size_t>(i)]);
        return put(std::move(now));
    };
    out.push_back(std::move(source));
    PanelChoice after {
        QStringLiteral("card.after"), tr("these come after"), { tr("none") }, 0, {}
    };
    std::vector<std::string> ids { "" };
    for (const TorqueCard &other : m_open.build().torqueCards) {
        if (other.id == c.id)
            continue;
        if (other.id == c.after)
            after.current = static_cast<int>(ids.size());
        ids.push_back(other.id);
        after.options << qs(other.name);
    }
    after.chosen = [this, ids](int i) -> Result<void> {
        TorqueCard now = *card();
        now.after = ids[static_cast<size_t>(i)];
        return put(std::move(now));
    };
    out.push_back(std::move(after));
}

void TorquePage::addOuter()
{
    TorqueCard outer = *card();
    outer.after = outer.id;
    outer.id.clear();
    outer.edition = 0;
    outer.name += tr(", outer bolts").toStdString();
    outer.stages.resize(1);
    for (Fastener &f : outer.fasteners)
        f.y_mm *= furtherOut;
    saidIfRefused(put(std::move(outer)));
}

void TorquePage::orderBy(int fastener)
{
    const TorqueCard *c = card();
    const auto bolt = static_cast<size_t>(fastener - 1);
    if (std::ranges::find(*m_ordering, bolt) != m_ordering->end())
        return;
    m_ordering->push_back(bolt);
    if (m_ordering->size() < c->fasteners.size()) {
        Q_EMIT changed();
        return;
    }
    TorqueCard now = *c;
    for (size_t i = 0; i < m_ordering->size(); ++i)
        now.fasteners[i] = c->fasteners[(*m_ordering)[i]];
    m_ordering.reset();
    saidIfRefused(put(std::move(now)));
}

} // namespace mildpath
