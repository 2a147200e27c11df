// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/clearancebench.h"

#include "bearing/thermal.h"
#include "bench/clearances/clearanceaxis.h"
#include "bench/clearances/readingentry.h"
#include "calc/catalogue.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {

ClearanceBench::ClearanceBench(OpenBuild &open, QWidget *parent)
    : Bench(open, tr("Clearances"), parent)
    , m_title(new QLabel(this))
    , m_subtitle(new QLabel(this))
    , m_axis(new ClearanceAxis(open, this))
    , m_entry(new ReadingEntry(open, this))
    , m_kind("main")
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 10);
    column->setSpacing(6);
    auto *head = new QHBoxLayout;
    m_title->setFont(textFont(TextSize::Title, true));
    head->addWidget(m_title);
    head->addSpacing(8);
    head->addWidget(m_subtitle, 1);
    for (const auto &[kind, name] :
         { std::pair("main", tr("Mains")), std::pair("big_end", tr("Big-ends")) }) {
        auto *button = new QPushButton(name, this);
        button->setObjectName(QStringLiteral("family_") + QLatin1String(kind));
        button->setCheckable(true);
        const size_t index = m_families.size();
        connect(button, &QPushButton::clicked, this, [this, index] { chooseFamily(index); });
        head->addWidget(button);
        m_families.push_back({ kind, button, {} });
    }
    column->addLayout(head);
    column->addWidget(m_axis, 1);
    m_entry->setFixedHeight(248);
    column->addWidget(m_entry);
    connect(m_entry, &ReadingEntry::pastEnd, this, [this] {
        step(1);
        m_entry->cell(0)->setFocus();
    });
    connect(m_entry, &ReadingEntry::beforeStart, this, [this] {
        step(-1);
        m_entry->cell(readingPlan().size() - 1)->setFocus();
    });
}

void ClearanceBench::chooseFamily(size_t index)
{
    QString stop = m_families[index].lastStop;
    for (const BearingClearance &c : m_open.assessment().clearances)
        if (stop.isEmpty() && c.kind == m_families[index].kind)
            stop = qs(c.stop);
    if (stop.isEmpty() || stop == m_stop)
        refresh();
    else
        m_open.selectStop(stop);
}

void ClearanceBench::step(int by)
{
    const auto &all = m_open.assessment().clearances;
    for (size_t i = 0; i < all.size(); ++i)
        if (qs(all[i].stop) == m_stop) {
            const auto next = static_cast<int>(i) + by;
            if (next >= 0 && next < static_cast<int>(all.size()))
                m_open.selectStop(qs(all[static_cast<size_t>(next)].stop));
            return;
        }
}

void ClearanceBench::refresh()
{
    const Assessment &a = m_open.assessment();
    const BearingClearance *chosen = a.clearance(m_open.selectedStop().toStdString());
    if (!chosen)
        chosen = a.clearance(m_stop.toStdString());
    if (!chosen && !a.clearances.empty())
        chosen = &a.clearances.front();
    if (!chosen)
        return;
    m_stop = qs(chosen->stop);
    m_kind = chosen->kind;
    for (Family &family : m_families) {
        family.button->setChecked(family.kind == m_kind);
        if (family.kind == m_kind)
            family.lastStop = m_stop;
    }
    m_title->setText(qs(findStopKind(m_kind)->plural));
    m_subtitle->setText(tr("diametral, at 20 °C and running"));
    QPalette palette = m_subtitle->palette();
    palette.setColor(QPalette::WindowText, Theme::current().muted);
    m_subtitle->setPalette(palette);
    m_axis->setKind(m_kind);
    m_entry->setStop(m_stop);
}

PanelContent ClearanceBench::panel() const
{
    PanelContent out;
    const Assessment &a = m_open.assessment();
    const BearingClearance *c = a.clearance(m_stop.toStdString());
    if (!c)
        return out;
    const QString name = qs(m_open.build().engine.find(c->stop)->name);
    out.push_back(PanelTitle { tr("What it does to the oil"), {} });
    if (a.unsolved) {
        out.push_back(PanelVerdict { Mark::Hold, tr("No forecast"), qs(a.unsolved->message) });
    } else {
        double mains = 0, bigEnds = 0;
        for (const OilShare &s : a.hotIdle.shares) {
            mains += s.id == "mains" ? s.flow_m3_s : 0;
            bigEnds += s.id == "big_ends" ? s.flow_m3_s : 0;
        }
        out.push_back(PanelRow { tr("Mains, hot idle"), Figure::flow(mains),
                                 tr("oil that leaves through the mains") });
        out.push_back(PanelRow { tr("Big-ends"), Figure::flow(bigEnds), {} });
        out.push_back(
            PanelRow { tr("Gauge, hot idle"), Figure::pressure(a.hotIdle.gauge.value_pa), {} });
        if (c->limits && c->limits->target_um)
            if (const auto then = hotIdleIf(m_open.build(), a, c->stop, *c->limits->target_um)) {
                const double change = then->gauge.value_pa - a.hotIdle.gauge.value_pa;
                out.push_back(PanelRule {});
                out.push_back(PanelHeading { tr("If %1 were at target").arg(name) });
                out.push_back(PanelChange { tr("Gauge, hot idle"),
                                            Figure::pressure(a.hotIdle.gauge.value_pa),
                                            Figure::pressure(then->gauge.value_pa),
                                            change > 500 ? Tone::Good : Tone::Plain });
            }
    }
    out.push_back(PanelRule {});
    limitFields(*c, out);
    out.push_back(PanelRule {});
    workingLines(*c, out);
    return out;
}

void ClearanceBench::limitFields(const BearingClearance &c, PanelContent &out) const
{
    if (!c.limits)
        return;
    out.push_back(PanelHeading {
        tr("Limits, from the %1").arg(qs(c.limits->source.empty() ? "build" : c.limits->source)) });
    const auto field = [&](const char *key, const QString &label, double value_um) {
        out.push_back(
            PanelField { qs("limit." + c.kind + "." + key), label, Dimension::Length,
                         Figure::clearanceUnit(), Figure::system() == UnitSystem::Imperial ? 2 : 1,
                         value_um * 1e-6, [open = &m_open, kind = c.kind, key](double si) {
                             return open->edit(SetLimit { kind, key, std::round(si * 1e10) / 1e4 });
                         } });
    };
    field("min_um", tr("least"), c.limits->min_um);
    field("max_um", tr("most"), c.limits->max_um);
    if (c.limits->target_um)
        field("target_um", tr("shop target"), *c.limits->target_um);
    const Stop *stop = m_open.build().engine.find(c.stop);
    const double rule_um = ruleClearancePerDiameter * stop->journal_mm * 1e3;
    out.push_back(
        PanelRow { tr("rule of thumb"), Figure::clearance(rule_um, 1),
                   tr("a thousandth of an inch per inch of journal; common practice, no source") });
}

void ClearanceBench::workingLines(const BearingClearance &c, PanelContent &out) const
{
    const Calculator *calculator = findCalculator("thermal-clearance");
    const Build &build = m_open.build();
    const Stop *stop = build.engine.find(c.stop);
    const bool bigEnd = c.kind == "big_end";
    const Material *housing = findMaterial(bigEnd ? build.engine.rod : build.engine.block);
    const Material *journal = findMaterial(build.engine.crank);
    const double oil = build.use.hotOil_c;
    const auto n = [](double v, int d) { return qs(formatNumber(v, d)); };
    out.push_back(PanelHeading { tr("Working") });
    out.push_back(PanelText { qs(calculator->formula), Tone::Muted });
    out.push_back(PanelText {
        tr("C0 %1 µm, Dj %2 mm, t %3 mm")
            .arg(n(c.cold_um.value, 1), n(stop->journal_mm, 2), n(stop->shellWall_mm, 2)) });
    out.push_back(PanelText { tr("%1 αh %2, Th %3 °C")
                                  .arg(qs(housing->name),
                                       n(housing->expansion_per_k * 1e6, 1) + QStringLiteral("e-6"),
                                       n(oil - housingBelowOil_k, 0)) });
    out.push_back(PanelText { tr("%1 αj %2, Tj %3 °C")
                                  .arg(qs(journal->name),
                                       n(journal->expansion_per_k * 1e6, 1) + QStringLiteral("e-6"),
                                       n(oil, 0)) });
    out.push_back(PanelText { tr("running C = %1 µm").arg(n(c.running_um, 1)) });
    out.push_back(PanelText { tr("Source: %1").arg(qs(calculator->source)), Tone::Muted });
}

} // namespace mildpath
