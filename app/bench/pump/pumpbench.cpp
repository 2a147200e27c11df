// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/pump/pumpbench.h"

#include "assess/circuitof.h"
#include "assess/figuremarks.h"
#include "assess/fits.h"
#include "bench/pump/dressingview.h"
#include "bench/pump/rotorview.h"
#include "checks/judgement.h"
#include "checks/visible.h"
#include "circuit/elementtypes.h"
#include "diagnose/flowevidence.h"
#include "entry/readingentry.h"
#include "entry/tickcheck.h"
#include "kinds/cautions.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/card.h"
#include "paint/elidedlabel.h"
#include "paint/text.h"
#include "shell/stopfields.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
PumpBench::PumpBench(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : Bench(open, Place::Pump, parent)
    , m_title(new QLabel(tr("Rotor set, seen from the cover"), this))
    , m_subtitle(new ElidedLabel(this))
    , m_dressing(new QLabel(this))
    , m_why(new QLabel(this))
    , m_rotors(new RotorPictureView(open, this))
    , m_gasket(new GasketPicture(open, this))
    , m_view(new DressingView(this))
    , m_entry(new ReadingEntry(open, gauge, true, this))
{
    auto *column = new QVBoxLayout(this);
    makeHead(column, m_title, m_subtitle);
    column->addWidget(m_rotors, 1);
    auto *row = new QHBoxLayout;
    row->setSpacing(4);
    for (const Family &f : families()) {
        if (f.stopKind != StopKind::Pump)
            continue;
        auto *button = new QPushButton(qs(f.tab), this);
        button->setObjectName(QStringLiteral("family_") + qs(f.id));
        button->setToolTip(qs(f.plural));
        button->setCheckable(true);
        connect(button, &QPushButton::clicked, this,
                [this, id = std::string(f.id)] { chooseFamily(id); });
        row->addWidget(button);
        m_families.push_back({ std::string(f.id), button });
    }
    row->addStretch();
    column->addLayout(row);
    auto *bottom = new QHBoxLayout;
    bottom->setSpacing(10);
    QWidget *card = makeCard();
    m_entry->setFixedHeight(262);
    bottom->addWidget(card, 1);
    bottom->addWidget(m_entry, 1);
    column->addLayout(bottom);
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic != qs(ask::pump().topic) || !isVisible())
            return;
        refresh();
        Q_EMIT panelChanged();
    });
    connect(&open, &OpenBuild::checkSelected, this, [this] {
        const Check *c = m_open.judgement().checks.find(m_open.selectedCheck());
        const std::string family = c ? sizeFamilyOf(m_open.build(), *c) : std::string();
        const Family *f = findFamily(family);
        if (f && f->stopKind == StopKind::Pump)
            chooseFamily(family);
    });
    connect(m_rotors, &RotorPictureView::chosen, this, &PumpBench::chooseFamily);
    const auto next = [this](int by) {
        const auto at = std::find_if(m_families.begin(), m_families.end(),
                                     [&](const auto &f) { return f.first == m_family; });
        const auto index = at - m_families.begin() + by;
        if (index < 0 || index >= static_cast<std::ptrdiff_t>(m_families.size()))
            return;
        chooseFamily(m_families[static_cast<size_t>(index)].first);
        m_entry->cell(by > 0 ? 0 : m_entry->positions() - 1)->setFocus();
    };
    connect(m_entry, &ReadingEntry::pastEnd, this, [next] { next(1); });
    connect(m_entry, &ReadingEntry::beforeStart, this, [next] { next(-1); });
}

/// The dressing plan, or the gasket in its stead.
QWidget *PumpBench::makeCard()
{
    auto *card = new CardWidget(this);
    auto *cardColumn = new QVBoxLayout(card);
    cardColumn->setContentsMargins(14, 8, 14, 8);
    cardColumn->setSpacing(2);
    m_dressing->setFont(textFont(TextSize::Body, true));
    m_dressing->setObjectName(QStringLiteral("dressing"));
    m_why->setWordWrap(true);
    auto *cardHead = new QHBoxLayout;
    cardHead->addWidget(m_dressing, 1);
    auto *gasket = new QPushButton(tr("Gasket"), card);
    gasket->setObjectName(QStringLiteral("showGasket"));
    gasket->setCheckable(true);
    cardHead->addWidget(gasket);
    cardColumn->addLayout(cardHead);
    cardColumn->addWidget(m_why);
    cardColumn->addWidget(m_view, 1);
    cardColumn->addWidget(m_gasket);
    m_gasket->hide();
    connect(gasket, &QPushButton::toggled, this, [this](bool on) {
        m_gasket->setVisible(on);
        for (QWidget *w : { static_cast<QWidget *>(m_view), static_cast<QWidget *>(m_why) })
            w->setVisible(!on);
        showDressing();
    });
    card->setFixedHeight(262);
    return card;
}

void PumpBench::takeFocus()
{
    m_entry->takeFocus();
}

void PumpBench::chooseFamily(const std::string &id)
{
    m_family = id;
    refresh();
    Q_EMIT panelChanged();
}

void PumpBench::refresh()
{
    const Stop *pump = m_open.build().engine.ofKind(StopKind::Pump);
    if (!pump)
        return;
    const int lobes = static_cast<int>(pump->value("lobes", 4));
    QString about = tr("%1 lobes in %2").arg(lobes).arg(lobes + 1);
    for (const Element &e : m_open.build().circuit.elements)
        if (e.kind == ElementKind::Pump)
            about += tr(", %1 deep, %2 a turn")
                         .arg(inWords(asLength(e.value("rotor_length_mm"))),
                              inWords(Quantity { pumpDisplacement_m3(e), Shows::SmallVolume }));
    m_subtitle->setText(about);
    setTone(m_subtitle, Theme::current().muted);
    for (const auto &[id, button] : m_families)
        button->setChecked(id == m_family);
    m_rotors->setFamily(m_family);
    m_gasket->update();
    for (const SizeItem &item : sizeItems(m_open.build()))
        if (item.family->id == m_family && item.stop == pump)
            m_entry->setItem(item);
    clearVectorState();
    m_study = m_open.answers().latestOrNow(ask::pump());
    showDressing();
}

void PumpBench::showDressing()
{
    if (!m_gasket->isHidden()) {
        m_dressing->setText(tr("On the pump's own base"));
        return;
    }
    setTone(m_why, Theme::current().muted);
    if (!m_study)
        return;
    const auto &plan = m_study->answer.plan;
    if (!plan) {
        m_dressing->setText(tr("Dressing plan"));
        m_why->setText(qs(plan.error().message));
        m_view->setPlan(std::nullopt);
        return;
    }
    const double take = plan->take_um();
    m_dressing->setText(take < 0.5 ? tr("Dressing: leave it")
                                   : tr("Dress: remove %1, stop at %2")
                                         .arg(Figure::limit(std::round(take)).text(),
                                              Figure::limit(std::round(plan->stop.end_um)).text()));
    QString why = tr("hot idle %1 to %2; %3.")
                      .arg(Figure::pressure(plan->now.gauge_pa).number,
                           Figure::pressure(plan->stop.gauge_pa).text(), qs(plan->why));
    if (plan->scoreLeft_um > 0.5)
        why += tr(" %1 of the scoring stays.")
                   .arg(Figure::limit(std::round(plan->scoreLeft_um)).text());
    m_why->setText(why);
    m_view->setPlan(*plan);
}

PanelContent PumpBench::panel() const
{
    PanelContent out;
    const Stop *pump = m_open.build().engine.ofKind(StopKind::Pump);
    if (!pump)
        return out;
    out.push_back(PanelTitle { tr("Pump and suction"), {} });
    fitLines(out);
    out.push_back(PanelRule {});
    optionLines(out);
    out.push_back(PanelRule {});
    fields(out);
    return out;
}

void PumpBench::fitLines(PanelContent &out) const
{
    for (const FitVerdict &f : m_open.fits())
        out.push_back(
            PanelVerdict { f.mark, qs(f.title),
                           qs(f.mark == Mark::NotDone || f.detail.empty() ? f.next : f.detail) });
    for (const StopKind kind : { StopKind::Pump, StopKind::Relief, StopKind::Pickup }) {
        const Stop *stop = m_open.build().engine.ofKind(kind);
        for (const TickKind &c : tickKinds()) {
            if (!stop || c.stopKind != kind)
                continue;
            const Proof *p = standingCheck(m_open.build(), stop->id, c.id);
            const Mark mark = tickMark(p);
            const bool so = mark == Mark::Proven;
            out.push_back(PanelTick { QStringLiteral("check.") + qs(c.id), mark, qs(c.text),
                                      so ? QString() : qs(c.reason), so,
                                      [open = &m_open, id = stop->id, check = &c](bool on) {
                                          tickCheck(*open, id, *check, on);
                                      } });
        }
    }
}

void PumpBench::optionLines(PanelContent &out) const
{
    if (!m_study || m_study->answer.options.empty())
        return;
    const auto &options = m_study->answer.options;
    out.push_back(PanelHeading { tr("Hot idle at the gauge") });
    for (const PumpOption &o : options)
        out.push_back(PanelRow { qs(o.name), Figure::pressure(o.gauge_pa), qs(o.remark) });
    out.push_back(PanelHeading {
        tr("Power at %1").arg(Figure::speed(m_open.build().use.highSpeed_rpm).text()) });
    for (const PumpOption &o : options)
        if (o.name == options.front().name || o.name == "longer rotors +25 %")
            out.push_back(PanelRow { qs(o.name),
                                     { qs(formatNumber(o.power_w, 0)), QStringLiteral("W"), {} },
                                     qs(o.remark) });
    for (const PumpOption &o : options)
        if (!o.remark.empty())
            out.push_back(
                PanelText { qs(o.name) + QStringLiteral(": ") + qs(o.remark), Tone::Muted });
    out.push_back(
        PanelText { tr("High volume, one school: needed for sustained high speed and wide "
                       "clearances. The other: wasted power and heat on the road; mend the "
                       "leak."),
                    Tone::Muted });
}

/// What the pump moves in a turn: as its rotors' sizes give, unless it is entered.
void PumpBench::displacement(PanelContent &out) const
{
    const Element *pump = pumpOf(m_open.build());
    if (!pump)
        return;
    const auto size = [&](const char *key, const QString &label) {
        const double mm = pump->value(key);
        return PanelField { QStringLiteral("pump.") + QLatin1String(key),
                            label,
                            Dimension::Length,
                            "mm",
                            3,
                            mm > 0 ? std::optional(mm * 1e-3) : std::nullopt,
                            [this, id = pump->id, key = std::string(key)](double si) {
                                return m_open.edit(SetElementValue { id, key, si * 1e3 });
                            } };
    };
    out.push_back(size("rotor_length_mm", tr("Rotor length")));
    out.push_back(size("eccentricity_mm", tr("Eccentricity")));
    out.push_back(size("inner_tip_mm", tr("Inner rotor over its tips")));
    const double entered = pump->value("displacement_m3"), given = rotorsDisplacement_m3(*pump);
    if (given > 0)
        out.push_back(PanelRow { tr("The rotors move, a turn"),
                                 shown(Quantity { given, Shows::SmallVolume, 0, 2 }) });
    out.push_back(PanelField {
        QStringLiteral("pump.displacement_m3"), tr("Entered instead, a turn"), Dimension::Volume,
        "cm³", 2, entered > 0 ? std::optional(entered) : std::nullopt,
        [this, id = pump->id](double si) {
            return m_open.edit(SetElementValue { id, "displacement_m3", si });
        },
        tr("as its maker says it; 0: as the rotors' sizes give") });
    if (const Mark mark = displacementMark(*pump); mark == Mark::LookAgain)
        out.push_back(PanelVerdict { mark, tr("Entered and rotors are far apart"),
                                     tr("one of them is wrong") });
}

/// As long as nobody knows, the suction is reckoned with the sump and it stays open.
void PumpBench::reliefReturn(PanelContent &out) const
{
    const ReliefReturn now = reliefReturnOf(m_open.build());
    out.push_back(PanelChoice { QStringLiteral("reliefReturns"),
                                tr("lets its oil go to"),
                                { tr("the pump's inlet"), tr("the sump"), tr("not known") },
                                now == ReliefReturn::AsDrawn
                                    ? (reliefToSump(m_open.build()) ? 1 : 0)
                                    : static_cast<int>(now) - 1,
                                [open = &m_open](int i) {
                                    return open->edit(SetReliefReturn {
                                        std::string(reliefReturns[static_cast<size_t>(i)]) });
                                } });
}

void PumpBench::fields(PanelContent &out) const
{
    const Build &build = m_open.build();
    const std::pair<StopKind, QString> groups[] = {
        { StopKind::Pump, tr("Rotors and faces") },
        { StopKind::Relief, tr("Relief spring") },
        { StopKind::Pickup, tr("Pickup") },
    };
    for (const auto &[kind, title] : groups) {
        const Stop *stop = build.engine.ofKind(kind);
        if (!stop)
            continue;
        out.push_back(PanelHeading { title });
        for (const NumberKey &key : stopKeys())
            if (key.group == wordOf(kind))
                out.push_back(stopValueField(m_open, *stop, std::string(key.key)));
        if (kind == StopKind::Pump)
            displacement(out);
        if (kind == StopKind::Relief)
            reliefReturn(out);
    }
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("How to take it off") });
    for (const QString &line : { tr("Flat glass, 320 then 400 paper stuck down, wet."),
                                 tr("A few strokes, turn a quarter, again: a part pressed on one "
                                    "side comes out tapered."),
                                 tr("Light and dark patches show high and low."),
                                 tr("Measure after every pass; stop at the plan's figure."),
                                 tr("Round the feather edge inside the port, no more."),
                                 tr("Wash, brush, wash. Oil it. Turn it by hand.") })
        out.push_back(PanelText { line });
    out.push_back(PanelText { qs(caution::metalDust), Tone::Warn });
}

} // namespace mildpath
