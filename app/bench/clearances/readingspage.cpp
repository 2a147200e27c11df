// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/readingspage.h"

#include "assess/figuremarks.h"
#include "assess/operating.h"
#include "bearing/thermal.h"
#include "bench/clearances/clearanceaxis.h"
#include "calc/catalogue.h"
#include "checks/judgement.h"
#include "checks/visible.h"
#include "entry/readingentry.h"
#include "entry/refusal.h"
#include "open/vectorstate.h"
#include "paint/text.h"
#include "shell/stopfields.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Pump families have a bench of their own.
bool belongsHere(const Family &family)
{
    return family.stopKind != StopKind::Pump;
}

} // namespace

ReadingsPage::ReadingsPage(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : Page(open, parent)
    , m_familyBar(new QWidget(this))
    , m_axis(new ClearanceAxis(open, this))
    , m_entry(new ReadingEntry(open, gauge, false, this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    m_familyRow = new QHBoxLayout(m_familyBar);
    m_familyRow->setContentsMargins(0, 0, 0, 0);
    m_familyRow->setSpacing(4);
    column->addWidget(m_familyBar);
    column->addWidget(m_axis, 1);
    m_entry->setFixedHeight(264);
    column->addWidget(m_entry);
    connect(&open, &OpenBuild::checkSelected, this, [this] {
        const Check *c = m_open.judgement().checks.find(m_open.selectedCheck());
        const std::string family = c ? sizeFamilyOf(m_open.build(), *c) : std::string();
        if (family.empty() || !belongsHere(*findFamily(family)))
            return;
        m_family = family;
        choose(qs(c->place.stop), std::max(1, c->place.item));
    });
    connect(m_axis, &ClearanceAxis::chosen, this, &ReadingsPage::choose);
    connect(m_entry, &ReadingEntry::pastEnd, this, [this] {
        step(1);
        m_entry->cell(0)->setFocus();
    });
    connect(m_entry, &ReadingEntry::beforeStart, this, [this] {
        step(-1);
        m_entry->cell(m_entry->positions() - 1)->setFocus();
    });
}

QString ReadingsPage::title() const
{
    return qs(findFamily(m_family)->plural);
}

QString ReadingsPage::about() const
{
    return tr("%1, at %2").arg(qs(findFamily(m_family)->quantity), Figure::temperature(20).text());
}

void ReadingsPage::takeFocus()
{
    m_entry->takeFocus();
}

/// One button for every family the engine has.
void ReadingsPage::showFamilies()
{
    std::vector<std::string> wanted;
    for (const FamilySummary &f : m_open.families())
        if (belongsHere(*findFamily(f.family)))
            wanted.push_back(f.family);
    const bool same
        = std::equal(wanted.begin(), wanted.end(), m_tabs.begin(), m_tabs.end(),
                     [](const std::string &a, const FamilyTab &b) { return a == b.family; });
    if (!same) {
        while (QLayoutItem *item = m_familyRow->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        m_tabs.clear();
        for (const std::string &id : wanted) {
            auto *button = new QPushButton(qs(findFamily(id)->tab), m_familyBar);
            button->setObjectName(QStringLiteral("family_") + qs(id));
            button->setCheckable(true);
            connect(button, &QPushButton::clicked, this, [this, id] { chooseFamily(id); });
            m_familyRow->addWidget(button);
            m_tabs.push_back({ id, button });
        }
        m_familyRow->addStretch();
    }
    for (const FamilyTab &tab : m_tabs)
        tab.button->setChecked(tab.family == m_family);
}

void ReadingsPage::chooseFamily(const std::string &id)
{
    const auto last = m_last.find(id);
    const GaugedSize *to = last == m_last.end()
        ? nullptr
        : sizeOf(m_open.sizes(), last->second.stop, id, last->second.item);
    for (const GaugedSize &s : m_open.sizes())
        if (!to && s.family == id)
            to = &s;
    if (!to)
        return;
    m_family = id;
    choose(qs(to->stop), to->item);
}

void ReadingsPage::choose(const QString &stop, int item)
{
    m_stop = stop.toStdString();
    m_item = item;
    if (m_open.selectedStop() == stop) {
        refresh();
        Q_EMIT changed();
    } else {
        m_open.selectStop(stop);
    }
}

void ReadingsPage::step(int by)
{
    const auto &all = m_open.sizes();
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const GaugedSize &s = all[static_cast<size_t>(i)];
        if (s.family != m_family || s.stop != m_stop || s.item != m_item)
            continue;
        const int next = i + by;
        if (next < 0 || next >= static_cast<int>(all.size()))
            return;
        const GaugedSize &to = all[static_cast<size_t>(next)];
        if (!belongsHere(*findFamily(to.family)))
            return;
        m_family = to.family;
        choose(qs(to.stop), to.item);
        return;
    }
}

const GaugedSize *ReadingsPage::inHand() const
{
    return sizeOf(m_open.sizes(), m_stop, m_family, m_item);
}

void ReadingsPage::refresh()
{
    const std::string selected = m_open.selectedStop().toStdString();
    // A stop chosen elsewhere brings its family along, unless the family in hand lives there too.
    if (selected != m_stop || !inHand()) {
        const GaugedSize *here = nullptr;
        for (const GaugedSize &s : m_open.sizes())
            if (s.stop == selected && belongsHere(*findFamily(s.family))
                && (!here || s.family == m_family))
                here = &s;
        if (!here && !inHand() && !m_open.sizes().empty())
            here = &m_open.sizes().front();
        if (here) {
            m_family = here->family;
            m_stop = here->stop;
            m_item = here->item;
        }
    }
    showFamilies();
    if (!inHand())
        return;
    m_last[m_family] = { m_stop, m_item };
    m_axis->setFamily(m_family);
    m_axis->setItem(m_stop, m_item);
    for (const SizeItem &item : sizeItems(m_open.build()))
        if (item.family == findFamily(m_family) && item.stop->id == m_stop && item.item == m_item)
            m_entry->setItem(item);
}

PanelContent ReadingsPage::panel()
{
    PanelContent out;
    const GaugedSize *c = inHand();
    if (!c)
        return out;
    oilLines(*c, out);
    out.push_back(PanelRule {});
    familyLines(out);
    out.push_back(PanelRule {});
    limitFields(*c, out);
    if (c->rule_um > 0) {
        out.push_back(PanelRule {});
        workingLines(*c, out);
    }
    return out;
}

void ReadingsPage::oilLines(const GaugedSize &c, PanelContent &out) const
{
    out.push_back(PanelTitle { tr("What it does to the oil"), {} });
    if (m_open.operating().unsolved) {
        out.push_back(PanelVerdict { unsolvedMark(), tr("No forecast"),
                                     qs(m_open.operating().unsolved->message) });
        return;
    }
    const auto *stop = m_open.build().engine.find(c.stop);
    for (const OilGroup &group : oilGroups())
        for (const OilShare &s : m_open.operating().hotIdle.shares)
            if (s.id == group.id
                && std::find(group.stopKinds.begin(), group.stopKinds.end(), stop->kind)
                    != group.stopKinds.end())
                out.push_back(PanelRow { tr("%1, hot idle").arg(qs(s.name)),
                                         Figure::flow(s.flow_m3_s), tr("oil that leaves there") });
    out.push_back(PanelRow {
        tr("gauge, hot idle"), Figure::pressure(m_open.operating().hotIdle.gauge.value_pa), {} });
    if (c.element.empty()) {
        out.push_back(
            PanelText { tr("No oil of the circuit is measured out by this size."), Tone::Muted });
        return;
    }
    if (!c.limits || !c.limits->target_um)
        return;
    clearVectorState();
    const auto index = static_cast<size_t>(&c - m_open.sizes().data());
    if (const auto then
        = hotIdleWith(m_open.build(), m_open.sizes(), { { index, *c.limits->target_um } })) {
        const double change = then->gauge.value_pa - m_open.operating().hotIdle.gauge.value_pa;
        out.push_back(PanelHeading { tr("If %1 were at target").arg(qs(c.name)) });
        out.push_back(PanelChange {
            tr("gauge, hot idle"), Figure::pressure(m_open.operating().hotIdle.gauge.value_pa),
            Figure::pressure(then->gauge.value_pa), change > 500 ? Tone::Good : Tone::Plain });
    }
}

void ReadingsPage::familyLines(PanelContent &out) const
{
    const FamilySummary *f = familyOf(m_open.families(), m_family);
    if (!f)
        return;
    out.push_back(PanelVerdict { f->mark, qs(findFamily(m_family)->plural), qs(f->verdict) });
    if (f->measured == 0)
        return;
    const auto um = [&](double v) { return Figure::clearance(v, f->expanded_um / 2); };
    out.push_back(
        PanelRow { tr("mean of %1").arg(f->measured), um(f->mean_um),
                   tr("%1 counted").arg(counted(f->readings, tr("reading"), tr("readings"))) });
    out.push_back(
        PanelRow { tr("range"),
                   { um(f->least_um).number + QStringLiteral(" to ") + um(f->most_um).number,
                     um(f->most_um).unit,
                     {} },
                   {} });
    out.push_back(PanelRow { tr("U (k = 2)"), um(f->expanded_um), {} });
    out.push_back(PanelText { tr("weakest method: %1").arg(qs(f->weakestMethod)), Tone::Muted });
    if (f->weakestMethod != findMethod("plastic_strip")->name)
        return;
    const bool counts = choiceOf(m_open.build(), "strip_counts") == "yes";
    out.push_back(PanelText {
        counts
            ? tr("You chose that a strip is proof enough. The other school: only bore gauge and "
                 "micrometer count.")
            : tr("A strip is taken as a check. The other school: good enough, cheap, and done even "
                 "after the machine shop."),
        Tone::Muted });
    out.push_back(PanelButton {
        QStringLiteral("stripCounts"),
        counts ? tr("Take it as a check only") : tr("Let a strip count"), [open = &m_open, counts] {
            saidIfRefused(open->choose("strip_counts", counts ? "no" : "yes"));
        } });
}

void ReadingsPage::limitFields(const GaugedSize &c, PanelContent &out) const
{
    const QString source = c.limits ? qs(c.limits->source) : QString();
    out.push_back(PanelHeading { source.isEmpty() ? tr("Limits") : tr("Limits, %1").arg(source) });
    out.push_back(limitField(m_open, c.family, "min_um", tr("least")));
    out.push_back(limitField(m_open, c.family, "max_um", tr("most")));
    out.push_back(limitField(m_open, c.family, "target_um", tr("shop target")));
    if (findFamily(c.family)->shells) {
        out.push_back(PanelRow { tr("1 in 1000, a rule"), Figure::clearance(c.rule_um, 1),
                                 tr("a thousandth of an inch per inch of journal") });
        out.push_back(PanelText { tr("The rule is common practice, no source."), Tone::Muted });
    }
    if (c.family == "end_float")
        out.push_back(
            stopValueField(m_open, *m_open.build().engine.find(c.stop), "thrust_width_mm"));
}

void ReadingsPage::workingLines(const GaugedSize &c, PanelContent &out) const
{
    const Calculator *calculator = findCalculator("thermal-clearance");
    const Build &build = m_open.build();
    const Stop *stop = build.engine.find(c.stop);
    JournalParts parts;
    for (const SizeItem &i : sizeItems(build))
        if (i.stop == stop && i.family->id == c.family && i.item == c.item)
            parts = journalPartsOf(build, i);
    const Engine &engine = build.engine;
    const auto metal = [](const std::string &id) {
        const Material *m = findMaterial(id);
        return m ? qs(m->name) : qs(id);
    };
    const QString housing = parts.effective
        ? tr("main housings")
        : metal(parts.part == HousingPart::Rod ? engine.rod : engine.block);
    const PartTemperatures t = settledTemperatures(build, build.use.hotOil_c);
    const auto expansion = [](double per_k) {
        return inWords(Quantity { per_k, Shows::Expansion });
    };
    out.push_back(PanelHeading { tr("Working") });
    out.push_back(PanelText { qs(calculator->formula), Tone::Muted });
    out.push_back(PanelText { tr("C0 %1, Dj %2, t %3")
                                  .arg(Figure::clearance(c.cold_um.value).text(),
                                       inWords(asLength(c.journal_mm, 2)),
                                       inWords(asLength(stop->value("shell_wall_mm"), 2))) });
    out.push_back(
        PanelText { tr("%1 αh %2 (%3), Th %4")
                        .arg(housing, expansion(parts.housing.per_k), qs(parts.housing.source),
                             Figure::temperature(c.growth.housing_c(t)).text()) });
    out.push_back(
        PanelText { tr("%1 αj %2 (%3), Tj %4")
                        .arg(metal(findFamily(c.family)->shells ? engine.crank : "crank_steel"),
                             expansion(parts.journal.per_k), qs(parts.journal.source),
                             Figure::temperature(t.journal_c).text()) });
    out.push_back(PanelText { tr("running C = %1").arg(Figure::clearance(c.running_um).text()) });
    out.push_back(PanelText { tr("Source: %1").arg(qs(calculator->source)), Tone::Muted });
}

} // namespace mildpath
