// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/sectionpage.h"

#include "bench/sump/fillbar.h"
#include "entry/arrowcombo.h"
#include "open/vectorstate.h"
#include "paint/text.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int turnSteps = 100; ///< of the slider, a g
constexpr int mostTurn = 150;

QString litres(double m3)
{
    return Figure::volume(m3).text();
}

} // namespace

SectionPage::SectionPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto *row = new QHBoxLayout;
    row->setSpacing(6);
    m_along = new QPushButton(tr("Along"), this);
    m_along->setObjectName(QStringLiteral("sump.along"));
    m_across = new QPushButton(tr("Across"), this);
    m_across->setObjectName(QStringLiteral("sump.across"));
    for (auto *b : { m_along, m_across }) {
        b->setCheckable(true);
        row->addWidget(b);
        connect(b, &QPushButton::clicked, this,
                [this, b] { chooseWay(b == m_along ? PanWay::Along : PanWay::Across); });
    }
    m_level = new ArrowCombo(this);
    m_level->setObjectName(QStringLiteral("sump.level"));
    m_level->setAccessibleName(tr("Which level is drawn"));
    m_level->setMinimumWidth(150);
    row->addWidget(m_level);
    connect(m_level, &QComboBox::activated, this, [this](int i) {
        m_shown = m_level->itemData(i).toString().toStdString();
        draw();
    });
    row->addStretch();
    m_turnLabel = new QLabel(tr("Turn"), this);
    row->addWidget(m_turnLabel);
    m_turn = new QSlider(Qt::Horizontal, this);
    m_turn->setObjectName(QStringLiteral("sump.turn"));
    m_turn->setAccessibleName(tr("How hard it turns, brakes or accelerates"));
    m_turn->setRange(-mostTurn, mostTurn);
    m_turn->setPageStep(10);
    m_turn->setProperty("bothWays", true); // zero lies in its middle
    m_turn->setMinimumWidth(100);
    m_turnLabel->setBuddy(m_turn);
    row->addWidget(m_turn);
    m_turnText = new QLabel(this);
    m_turnText->setMinimumWidth(124);
    row->addWidget(m_turnText);
    connect(m_turn, &QSlider::valueChanged, this, [this] { draw(); });
    column->addLayout(row);
    m_view = new SumpView(m_open, this);
    column->addWidget(m_view, 1);
    m_bar = new FillBar(this);
    column->addWidget(m_bar);
    connect(m_bar, &FillBar::dragged, this, &SectionPage::dragFill);
    connect(m_bar, &FillBar::dropped, this, [this](double l) {
        m_fill_l.reset();
        const auto ok = m_open.edit(SetSumpValue { "fill_l", std::round(l * 100) / 100 });
        refresh();
        if (!ok)
            m_bar->set(m_air, m_open.build().sump.own("fill_l"), qs(ok.error().message));
    });
}

void SectionPage::reset()
{
    const QSignalBlocker block(m_turn);
    m_turn->setValue(0);
    m_way = PanWay::Along;
    m_fill_l.reset();
}

QString SectionPage::title() const
{
    return m_open.build().engine.ofKind(StopKind::Tank) ? tr("Oil tank") : tr("Sump");
}

void SectionPage::chooseWay(PanWay way)
{
    m_way = way;
    draw();
    Q_EMIT changed();
}

void SectionPage::showCase(const QString &id)
{
    const AirCase *c = m_open.air().find(id.toStdString());
    if (!c)
        return;
    m_way = c->way;
    m_shown = id == QStringLiteral("start") ? "rest_cold"
        : id == QStringLiteral("idle")      ? "idle"
                                            : "running";
    {
        const QSignalBlocker block(m_turn);
        m_turn->setValue(static_cast<int>(std::lround(c->accel_g * turnSteps)));
    }
    draw();
    Q_EMIT changed();
}

void SectionPage::dragFill(double litres_)
{
    m_fill_l = litres_;
    clearVectorState();
    Build other = m_open.build();
    other.sump.values["fill_l"] = litres_;
    m_air = judgeAir(other, m_open.operating());
    draw();
}

void SectionPage::refresh()
{
    if (!m_fill_l)
        m_air = m_open.air();
    draw();
}

void SectionPage::draw()
{
    const Sump &s = m_open.build().sump;
    m_along->setChecked(m_way == PanWay::Along);
    m_across->setChecked(m_way == PanWay::Across);
    const QSignalBlocker block(m_level);
    m_level->clear();
    for (const AirLevel &l : m_air.levels)
        if (l.id == "rest_cold" || l.id == "rest_hot" || l.id == "idle" || l.id == "running") {
            m_level->addItem(qs(l.name), qs(l.id));
            if (l.id == m_shown)
                m_level->setCurrentIndex(m_level->count() - 1);
        }
    const AirLevel *shown = m_air.level(m_shown);
    if (!shown && !m_air.levels.empty() && !m_air.tank)
        shown = &m_air.levels.front();
    const double g = static_cast<double>(m_turn->value()) / turnSteps;
    const bool along = m_way == PanWay::Along;
    SumpScene scene { m_way, g, along ? m_open.build().use.incline_deg * pi / 180 : 0.0,
                      shown ? shown->volume_m3 : 0 };
    m_view->setScene(scene, m_air);
    const QString way = g == 0 ? tr("straight on")
        : along                ? (g > 0 ? tr("accelerating") : tr("braking"))
                               : (g > 0 ? tr("left turn") : tr("right turn"));
    m_turnText->setText(g == 0 ? way : tr("%1 g, %2").arg(qs(formatNumber(std::abs(g), 2)), way));
    const auto fill = m_fill_l ? m_fill_l : s.own("fill_l");
    const auto advice = fillAdvice(fill, m_air);
    m_bar->set(m_air, fill, advice ? qs(advice->text) : QString());
    for (QWidget *w : { static_cast<QWidget *>(m_turn), static_cast<QWidget *>(m_level),
                        static_cast<QWidget *>(m_along), static_cast<QWidget *>(m_across),
                        static_cast<QWidget *>(m_turnText), static_cast<QWidget *>(m_turnLabel) })
        w->setVisible(!m_air.tank);
    m_about = fill ? tr("fill %1").arg(litres(*fill * 1e-3)) : tr("fill not said");
    if (shown && shown->id == "running" && fill)
        m_about += tr(" · %1 left here").arg(litres(shown->volume_m3));
}

PanelContent SectionPage::panel()
{
    PanelContent out;
    rows(out);
    out.push_back(PanelRule {});
    levels(out);
    out.push_back(PanelRule {});
    fields(out);
    return out;
}

void SectionPage::rows(PanelContent &out) const
{
    const AirReport &air = m_open.air();
    out.push_back(PanelTitle { tr("Where air can come in"), {} });
    for (const AirRow &r : air.rows) {
        // What is well needs no remedy, but the state it is told of all the same.
        Phrase detail = r.quantity;
        append(detail, r.reason);
        if (r.state != AirState::Low)
            append(detail, r.remedy);
        out.push_back(PanelVerdict { markOf(air, r), qs(r.name), qs(detail) });
    }
    const AirRow *leads = air.leading();
    out.push_back(PanelHeading {
        tr("Worst known: %1").arg(qs(airStateWord(leads ? leads->state : air.overall))) });
    const auto open = std::count_if(air.rows.begin(), air.rows.end(),
                                    [](const AirRow &r) { return r.state == AirState::Unknown; });
    out.push_back(PanelText { (open > 0 ? tr("%1 of 11 not known. ").arg(open) : QString())
                                  + tr("Ranked by state, never added up. No drawing can tell a "
                                       "percentage of air."),
                              Tone::Muted });
    if (air.foreign)
        out.push_back(PanelText { tr("Coolant in the oil: nothing else here holds until it is "
                                     "changed."),
                                  Tone::Bad });
}

void SectionPage::levels(PanelContent &out) const
{
    const AirReport &air = m_open.air();
    out.push_back(PanelHeading { tr("Levels, each by itself") });
    if (!air.balance.empty())
        out.push_back(PanelText { tr("Running: %1.").arg(qs(air.balance)), Tone::Muted });
    for (const AirLevel &l : air.levels)
        out.push_back(
            PanelRow { tr("%1: %2").arg(qs(l.name), inWords(asLength(l.level_m * 1e3, 0))),
                       Figure::volume(l.volume_m3), qs(l.note) });
    const AirLevel *low = air.level("stick_low"), *high = air.level("stick_high");
    if (low && high)
        out.push_back(PanelText { tr("From the low mark to the high one: %1.")
                                      .arg(Figure::volume(high->volume_m3 - low->volume_m3).text()),
                                  Tone::Muted });
    if (const auto seen = m_open.build().sump.own("bench_level_mm"))
        if (const AirLevel *bench = air.level("bench"))
            out.push_back(PanelText {
                tr("Seen in the bare pan: %1, the section says %2.")
                    .arg(inWords(asLength(*seen, 0)), inWords(asLength(bench->level_m * 1e3, 0))),
                std::abs(*seen - bench->level_m * 1e3) > 5 ? Tone::Warn : Tone::Good });
    if (const auto fill = m_open.build().sump.own("fill_l"))
        out.push_back(PanelText {
            tr("The fill is %1 L, %2 US quarts, %3 imperial quarts.")
                .arg(qs(formatNumber(*fill, 2)),
                     qs(formatNumber(toUnit(*fill * 1e-3, "US qt", Dimension::Volume), 2)),
                     qs(formatNumber(toUnit(*fill * 1e-3, "imp qt", Dimension::Volume), 2))),
            Tone::Muted });
    out.push_back(PanelHeading { tr("Held up, by cause") });
    for (const HeldOil &h : air.held)
        out.push_back(PanelRow { qs(h.name),
                                 h.volume_m3 ? Figure::volume(*h.volume_m3)
                                             : Shown { tr("not known"), {}, {} },
                                 qs(h.why) });
    if (!air.heldKnown && !air.held.empty())
        out.push_back(PanelText { tr("Not every cause is known: the running level is at most what "
                                     "stands here."),
                                  Tone::Warn });
}

void SectionPage::fields(PanelContent &out) const
{
    const bool dry = m_open.build().engine.ofKind(StopKind::Tank) != nullptr;
    for (const SumpGroup &g : sumpGroups()) {
        // The pan's own sizes and its baffle stand on their pages.
        if ((g.drySump && !dry) || g.id == "pan" || g.id == "crank" || g.id == "baffle")
            continue;
        out.push_back(PanelHeading { tr(g.title.data()) });
        for (const NumberKey &k : sumpKeys())
            if (k.group == g.id)
                out.push_back(sumpField(m_open, k));
        if (g.id == "suction")
            for (const bool fuel : { false, true })
                out.push_back(foreignChoice(m_open, fuel));
    }
    out.push_back(PanelRule {});
    addWorking(out, { "sump-level", "fill-window", "windage-index", "critical-submergence" });
    out.push_back(
        PanelText { tr("Hot oil burns. Used oil goes where local rules say."), Tone::Muted });
}

} // namespace mildpath
