// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/engineeditor.h"

#include "circuit/elementtypes.h"
#include "document/recipes.h"
#include "entry/refusal.h"
#include "shell/stopfields.h"

#include <QCoreApplication>

#include <algorithm>

namespace mildpath {
namespace {

void choiceOfKind(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    const auto kinds = kindsInstead(stop);
    if (kinds.size() < 2)
        return;
    PanelChoice c { QStringLiteral("stopKind"), tr("what it is"), {}, 0, {} };
    for (const auto kind : kinds)
        c.options << qs(usualName(kind));
    c.chosen = [&open, id = stop.id, kinds](int i) {
        return open.edit(TurnStop { id, kinds[static_cast<size_t>(i)] });
    };
    out.push_back(std::move(c));
}

void choiceOfFeeder(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    if (formOf(stop.kind) != StopForm::Branch)
        return;
    const Build &build = open.build();
    const Stop *feeder = feederOf(build, stop);
    PanelChoice c { QStringLiteral("stopFeeder"), tr("fed from"), {}, -1, {} };
    std::vector<std::string> ids;
    for (const Stop &s : build.engine.stops) {
        if (s.id == stop.id || outletOf(build, s).empty() || s.kind == StopKind::Tank
            || s.kind == StopKind::Pickup)
            continue;
        if (feeder && s.id == feeder->id)
            c.current = static_cast<int>(ids.size());
        c.options << qs(s.name);
        ids.push_back(s.id);
    }
    c.chosen = [&open, id = stop.id, ids](int i) {
        return open.edit(FeedStop { id, ids[static_cast<size_t>(i)] });
    };
    out.push_back(std::move(c));
}

void choiceBehind(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    PanelChoice c { QStringLiteral("addBehind"), tr("add behind it"), {}, -1, {} };
    std::vector<StopKind> kinds;
    for (const StopKind k : everyKind<StopKind>()) {
        // Only what could stand here is offered.
        if (formOf(k) == StopForm::Fixed || !addStop(open.build(), { k, "", stop.id }))
            continue;
        c.options << qs(usualName(k));
        kinds.push_back(k);
    }
    if (kinds.empty())
        return;
    c.chosen = [&open, id = stop.id, kinds](int i) {
        return open.edit(AddStop { kinds[static_cast<size_t>(i)], "", id });
    };
    out.push_back(std::move(c));
}

void choiceOfGauge(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    if (stop.points.empty())
        return;
    PanelChoice c { QStringLiteral("gaugeHere"), tr("gauge on it"), {}, -1, {} };
    const Circuit &circuit = open.build().circuit;
    const auto tap = circuit.taps.find(open.build().gaugeTap);
    for (size_t i = 0; i < stop.points.size(); ++i) {
        if (tap != circuit.taps.end() && tap->second == stop.points[i].node)
            c.current = static_cast<int>(i);
        c.options << qs(stop.points[i].name);
    }
    c.chosen = [&open, id = stop.id](int i) { return open.edit(MoveGauge { id, i }); };
    out.push_back(std::move(c));
}

/// Sizes of what the stop is made of, of each type the first: many alike share their size.
void dimensions(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    std::vector<ElementKind> seen;
    const Build &build = open.build();
    for (const std::string &id : stop.elements) {
        const Element *e = build.circuit.find(id);
        if (!e || std::find(seen.begin(), seen.end(), e->kind) != seen.end())
            continue;
        seen.push_back(e->kind);
        const ElementType &type = elementType(e->kind);
        out.push_back(PanelHeading { qs(type.meaning) });
        for (const NumberKey &key : type.keys) {
            if (!key.typed)
                continue;
            if (key.yesNo) {
                out.push_back(PanelTick {
                    qs(id) + u'.' + qs(key.key),
                    Mark::NotAsked,
                    qs(key.meaning),
                    {},
                    e->value(key.key) > 0,
                    [&open, kind = e->kind, stopId = stop.id,
                     name = std::string(key.key)](bool on) {
                        saidIfRefused(open.edit(SetAlike { stopId, kind, name, on ? 1.0 : 0.0 }));
                    } });
                continue;
            }
            const FieldShape shape = fieldShape(key.unit());
            out.push_back(
                PanelField { qs(id) + u'.' + qs(key.key), qs(key.meaning), shape.dimension,
                             shape.unit, shape.decimals, e->value(key.key) * shape.siPerFile,
                             [&open, kind = e->kind, stopId = stop.id, name = std::string(key.key),
                              per = shape.siPerFile](double si) -> Result<void> {
                                 return open.edit(SetAlike { stopId, kind, name, si / per });
                             },
                             qs(key.about()) });
        }
    }
}

} // namespace

void engineEditor(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    out.push_back(
        PanelText { tr("Change the engine here; everything can be undone."), Tone::Muted });
    out.push_back(PanelWord { QStringLiteral("stopName"), tr("name"), qs(stop.name),
                              [&open, id = stop.id](const QString &text) {
                                  return open.edit(NameStop { id, text.toStdString() });
                              } });
    choiceOfKind(open, stop, out);
    choiceOfFeeder(open, stop, out);
    choiceBehind(open, stop, out);
    choiceOfGauge(open, stop, out);
    out.push_back(PanelRule {});
    const auto move = [&open, id = stop.id](int by) {
        return [&open, id, by] { saidIfRefused(open.edit(MoveStop { id, by })); };
    };
    out.push_back(
        PanelButton { QStringLiteral("stopEarlier"), tr("Earlier in oil order"), move(-1) });
    out.push_back(PanelButton { QStringLiteral("stopLater"), tr("Later in oil order"), move(1) });
    if (formOf(stop.kind) != StopForm::Fixed) {
        // Why not is said beforehand; a button that only refuses helps nobody.
        if (const auto ok = removeStop(open.build(), { stop.id }))
            out.push_back(PanelButton {
                QStringLiteral("removeStop"), tr("Take it out"),
                [&open, id = stop.id] { saidIfRefused(open.edit(RemoveStop { id })); } });
        else
            out.push_back(PanelText { tr("Cannot be taken out: %1.").arg(qs(ok.error().message)),
                                      Tone::Muted });
    }
    out.push_back(PanelRule {});
    if (stop.kind == StopKind::Scavenge)
        for (const char *key : { "stages", "stage_cm3" })
            out.push_back(stopValueField(open, stop, key));
    if (stop.kind == StopKind::Main || stop.kind == StopKind::BigEnd)
        out.push_back(stopValueField(open, stop, "load_n"));
    dimensions(open, stop, out);
    if (stop.kind == StopKind::Gallery || stop.kind == StopKind::Main) {
        out.push_back(PanelHeading { tr("The engine") });
        for (const char *key : { "bore_mm", "stroke_mm" }) {
            const Field &k = *recordType<Engine>().find(key);
            out.push_back(PanelField { QStringLiteral("engine.") + QLatin1String(key),
                                       qs(k.meaning), Dimension::Length, "mm", 1,
                                       k.number(&open.build().engine) * 1e-3,
                                       [&open, name = std::string(key)](double si) {
                                           return open.edit(SetEngine { name, si * 1e3 });
                                       } });
        }
    }
}

} // namespace mildpath
