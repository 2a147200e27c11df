// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/whatifpanel.h"
#include "entry/refusal.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

QString withMeasure(const Build &build, const Fault &f)
{
    return qs(joinedBy({ faultName(build, f), severityText(build, f) }));
}

/// Changes one of the imagined faults and hands all of them back.
template <class Change> auto changing(OpenBuild &open, size_t i, Change change)
{
    return [open = &open, i, change](auto value) -> Result<void> {
        std::vector<Fault> faults = open->imagined();
        if (i >= faults.size())
            return {};
        change(faults[i], value);
        return open->imagine(std::move(faults));
    };
}

void chooseFault(OpenBuild &open, const Stop &stop, PanelContent &out)
{
    const std::vector<Fault> here = faultsAt(open.build(), stop);
    PanelChoice c { QStringLiteral("whatIf.add"), QObject::tr("what can happen here"), {}, -1, {} };
    for (const Fault &f : here)
        c.options << qs(findFaultKind(f.kind)->name);
    c.chosen = [open = &open, here](int i) -> Result<void> {
        std::vector<Fault> faults = open->imagined();
        const Fault &f = here[static_cast<size_t>(i)];
        const bool there = std::any_of(faults.begin(), faults.end(), [&](const Fault &o) {
            return o.kind == f.kind && o.stop == f.stop && o.item == f.item;
        });
        if (there)
            return fail("fault", "is imagined already");
        faults.push_back(f);
        return open->imagine(std::move(faults));
    };
    if (here.empty())
        out.push_back(PanelText { QObject::tr("Nothing is looked at here."), Tone::Muted });
    else
        out.push_back(std::move(c));
}

/// One imagined fault: how bad, where of several places, and away with it.
void imaginedFault(OpenBuild &open, size_t i, PanelContent &out)
{
    const Fault &f = open.imagined()[i];
    const FaultKind &kind = *findFaultKind(f.kind);
    const Stop &stop = *open.build().engine.find(f.stop);
    const QString id = QStringLiteral("whatIf.%1").arg(i);
    if (graded(kind))
        out.push_back(
            PanelSlider { id + QStringLiteral(".severity"), qs(faultName(open.build(), f)),
                          qs(severityText(open.build(), f)), f.severity,
                          changing(open, i, [](Fault &g, double s) { g.severity = s; }) });
    else
        out.push_back(PanelText { qs(faultName(open.build(), f)) });
    const auto items = faultItems(open.build(), kind, stop);
    if (items.size() > 1) {
        PanelChoice c { id + QStringLiteral(".item"), QObject::tr("which"), {}, f.item - 1, {} };
        for (const std::string &name : items)
            c.options << qs(name);
        c.chosen = changing(open, i, [](Fault &g, int item) { g.item = item + 1; });
        out.push_back(std::move(c));
    }
    if (!kind.mind.empty())
        out.push_back(PanelText { qs(kind.mind) + u'.', Tone::Muted });
    out.push_back(PanelButton { id + QStringLiteral(".away"), QObject::tr("Take this one away"),
                                [open = &open, i] {
                                    std::vector<Fault> faults = open->imagined();
                                    if (i < faults.size())
                                        faults.erase(faults.begin() + static_cast<long>(i));
                                    saidIfRefused(open->imagine(std::move(faults)));
                                } });
}

/// The gauge first, then what suffers most, then the stop that is looked at.
void consequences(const Stop &stop, const WhatIf &r, PanelContent &out)
{
    out.push_back(PanelRule {});
    const bool hidden = !r.taps.front().shows() && !r.starved.empty();
    out.push_back(PanelHeading { QObject::tr("What follows"), hidden ? Tone::Bad : Tone::Plain });
    out.push_back(PanelChange { QObject::tr("gauge"), Figure::pressure(r.taps.front().before_pa),
                                Figure::pressure(r.taps.front().after_pa), Tone::Plain });
    std::vector<size_t> shown(r.starved.begin(),
                              r.starved.begin()
                                  + static_cast<long>(std::min<size_t>(4, r.starved.size())));
    for (size_t i = 0; i < r.after.points.size(); ++i)
        if (r.after.points[i].stop == stop.id && shown.size() < 6
            && std::find(shown.begin(), shown.end(), i) == shown.end())
            shown.push_back(i);
    for (const size_t i : shown) {
        const PointPressure &p = r.after.points[i];
        const bool starves = p.need_pa > 0 && p.ratio() < 1;
        out.push_back(PanelChange { qs(p.name), Figure::pressure(r.before.points[i].pressure_pa),
                                    Figure::pressure(p.pressure_pa),
                                    starves ? Tone::Bad : Tone::Plain });
    }
    if (r.starved.size() > 4)
        out.push_back(
            PanelText { QObject::tr("and %1 more starve").arg(r.starved.size() - 4), Tone::Bad });
    out.push_back(PanelText { qs(r.gauge) + u'.', hidden ? Tone::Bad : Tone::Plain });
    if (!r.elsewhere.empty())
        out.push_back(PanelText { qs(r.elsewhere) + u'.' });
    else if (!r.taps.front().shows())
        out.push_back(
            PanelText { QObject::tr("No gauge port on this engine shows it here."), Tone::Muted });
}

void keeping(OpenBuild &open, PanelContent &out)
{
    out.push_back(PanelRule {});
    auto kept = standing(open.build().scenarios);
    std::erase_if(kept, [](const Scenario *s) { return s->faults.empty(); });
    const Scenario *same = nullptr;
    for (const Scenario *s : kept)
        if (s->faults == open.imagined())
            same = s;
    if (!open.imagined().empty()) {
        if (!same)
            out.push_back(PanelButton { QStringLiteral("whatIf.keep"),
                                        QObject::tr("Keep with the build"), [open = &open] {
                                            Scenario s;
                                            s.name = imaginedText(*open).toStdString();
                                            s.faults = open->imagined();
                                            saidIfRefused(open->record(s));
                                        } });
        out.push_back(
            PanelButton { QStringLiteral("whatIf.drop"),
                          same ? QObject::tr("Put it aside") : QObject::tr("Throw it away"),
                          [open = &open] { saidIfRefused(open->imagine({})); } });
        if (same)
            out.push_back(PanelButton { QStringLiteral("whatIf.takeBack"),
                                        QObject::tr("Take it off the build"),
                                        [open = &open, id = same->id] {
                                            saidIfRefused(open->takeBack("scenarios", id));
                                        } });
    }
    if (kept.empty())
        return;
    PanelChoice c { QStringLiteral("whatIf.kept"), QObject::tr("kept with the build"), {}, -1, {} };
    std::vector<std::vector<Fault>> faults;
    for (const Scenario *s : kept) {
        if (s == same)
            c.current = static_cast<int>(faults.size());
        c.options << qs(s->name);
        faults.push_back(s->faults);
    }
    c.chosen = [open = &open, faults](int i) -> Result<void> {
        return open->imagine(faults[static_cast<size_t>(i)]);
    };
    out.push_back(std::move(c));
}

} // namespace

QString imaginedText(const OpenBuild &open)
{
    QStringList out;
    for (const Fault &f : open.imagined())
        out << withMeasure(open.build(), f);
    return out.join(QStringLiteral("; "));
}

void whatIfPanel(OpenBuild &open, const Stop &stop, const std::optional<WhatIf> &result,
                 PanelContent &out)
{
    out.push_back(PanelTitle { QObject::tr("What if…"), qs(stop.name), {} });
    chooseFault(open, stop, out);
    if (open.imagined().empty()) {
        out.push_back(PanelText {
            QObject::tr(
                "Choose a fault and slide how bad it is: the map shows before and after. "
                "Nothing is recorded until you keep it. Select another stop to add what can "
                "happen there."),
            Tone::Muted });
    } else {
        out.push_back(PanelRule {});
        for (size_t i = 0; i < open.imagined().size(); ++i)
            imaginedFault(open, i, out);
    }
    if (result)
        consequences(stop, *result, out);
    else if (!open.imagined().empty())
        out.push_back(
            PanelText { QObject::tr("No solution at this speed and oil: nothing is shown for it."),
                        Tone::Bad });
    keeping(open, out);
}

} // namespace mildpath
