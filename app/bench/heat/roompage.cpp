// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/roompage.h"

#include "assess/figuremarks.h"
#include "bearing/thermal.h"
#include "bench/heat/growthchart.h"
#include "bench/heat/heatlogcard.h"
#include "bench/heat/materialspage.h"
#include "bench/heat/roomview.h"
#include "calc/catalogue.h"
#include "entry/refusal.h"
#include "kinds/cautions.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/text.h"
#include "shell/stopfields.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double sectionStep = 0.05;
constexpr int idleStep = 10;

} // namespace

RoomPage::RoomPage(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : Page(open, parent)
{
    makePage(gauge);
    follow(qs(ask::room({}, {}).topic));
    resetSliders();
}

void RoomPage::makePage(SerialGauge *gauge)
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *upper = new QHBoxLayout;
    upper->setSpacing(14);
    m_chart = new GrowthChart(m_open, this);
    upper->addWidget(m_chart, 1);
    auto *right = new QVBoxLayout;
    right->setSpacing(4);
    auto *row = new QHBoxLayout;
    auto *title = new QLabel(tr("Room to choose"), this);
    title->setFont(textFont(TextSize::Body, true));
    row->addWidget(title);
    row->addStretch();
    for (const char *family : { "main", "big_end" }) {
        auto *button = new QPushButton(qs(findFamily(family)->tab), this);
        button->setObjectName(QStringLiteral("room_") + QLatin1String(family));
        button->setToolTip(tr("Cold clearance of the %1 against oil, hot idle in the circuit")
                               .arg(qs(findFamily(family)->plural).toLower()));
        button->setCheckable(true);
        connect(button, &QPushButton::clicked, this, [this, family] {
            m_family = family;
            refresh();
        });
        row->addWidget(button);
        m_familyButtons.push_back(button);
    }
    m_reset = new QPushButton(tr("As built"), this);
    m_reset->setObjectName(QStringLiteral("asBuilt"));
    m_reset->setToolTip(tr("Sliders back to what the build says"));
    row->addWidget(m_reset);
    connect(m_reset, &QPushButton::clicked, this, [this] {
        resetSliders();
        refresh();
        Q_EMIT changed();
    });
    right->addLayout(row);
    m_room = new RoomView(m_open, this);
    right->addWidget(m_room, 1);
    right->addWidget(makeSliders(this));
    upper->addLayout(right, 1);
    column->addLayout(upper, 3);
    m_log = new HeatLogCard(m_open, gauge, this);
    m_log->setMaximumHeight(252);
    column->addWidget(m_log, 2);
}

QWidget *RoomPage::makeSliders(QWidget *parent)
{
    auto *box = new QWidget(parent);
    auto *grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(6);
    grid->setVerticalSpacing(3);
    int at = 0;
    const auto make = [&](const QString &name, const QString &id, int least, int most) {
        Lever l { new QSlider(Qt::Horizontal, box), new QLabel(box) };
        l.slider->setObjectName(id);
        l.slider->setAccessibleName(name);
        l.slider->setRange(least, most);
        l.slider->setMinimumWidth(36);
        l.slider->setMinimumHeight(20);
        l.text->setFont(textFont(TextSize::Small));
        auto *label = new QLabel(name, box);
        label->setFont(textFont(TextSize::Small));
        label->setBuddy(l.slider);
        const int row = at / 2, column = at % 2 * 3;
        grid->addWidget(label, row, column);
        grid->addWidget(l.slider, row, column + 1);
        grid->addWidget(l.text, row, column + 2);
        grid->setColumnMinimumWidth(column + 2, 44);
        connect(l.slider, &QSlider::valueChanged, this, [this] {
            showSliders();
            askRoom();
            Q_EMIT changed();
        });
        ++at;
        return l;
    };
    m_start = make(tr("start"), QStringLiteral("startSlider"), -60, 60);
    m_hot = make(tr("hot oil"), QStringLiteral("hotSlider"), 60, 150);
    m_idle = make(tr("idle"), QStringLiteral("idleSlider"), 20, 300);
    m_section = make(tr("pump"), QStringLiteral("sectionSlider"), 10, 40);
    return box;
}

void RoomPage::takeFocus()
{
    m_log->takeFocus();
}

RoomConditions RoomPage::asked() const
{
    return asInTheBuild() ? conditionsOf(m_open.build()) : sliders();
}

/// Answers and slider positions of the document before mean nothing any more.
void RoomPage::forget()
{
    m_study.reset();
    m_room->forget();
    resetSliders();
}

RoomConditions RoomPage::sliders() const
{
    return { double(m_start.slider->value()), double(m_hot.slider->value()),
             double(m_idle.slider->value() * idleStep), m_section.slider->value() * sectionStep };
}

bool RoomPage::asInTheBuild() const
{
    const RoomConditions a = sliders(), b = conditionsOf(m_open.build());
    return std::abs(a.coldestStart_c - b.coldestStart_c) < 0.6
        && std::abs(a.hotOil_c - b.hotOil_c) < 0.6
        && std::abs(a.idle_rpm - b.idle_rpm) < 0.6 * idleStep && a.pumpSection == 1;
}

void RoomPage::resetSliders()
{
    const RoomConditions c = conditionsOf(m_open.build());
    const auto set = [](QSlider *s, double v) {
        const QSignalBlocker quiet(s);
        s->setValue(static_cast<int>(std::lround(v)));
    };
    set(m_start.slider, c.coldestStart_c);
    set(m_hot.slider, c.hotOil_c);
    set(m_idle.slider, c.idle_rpm / idleStep);
    set(m_section.slider, 1 / sectionStep);
    showSliders();
}

void RoomPage::showSliders()
{
    const RoomConditions c = asked();
    m_start.text->setText(Figure::temperature(c.coldestStart_c).text());
    m_hot.text->setText(Figure::temperature(c.hotOil_c).text());
    m_idle.text->setText(qs(formatNumber(c.idle_rpm, 0)));
    m_section.text->setText(Figure::percent(c.pumpSection).text());
    m_reset->setEnabled(!asInTheBuild());
}

std::string RoomPage::logStop() const
{
    const Engine &e = m_open.build().engine;
    const Stop *chosen = e.find(m_open.selectedStop().toStdString());
    if (chosen && chosen->kind == StopKind::Main)
        return chosen->id;
    if (const Stop *last = e.find(m_lastMain); last && last->kind == StopKind::Main)
        return last->id;
    // The bore that was gauged warm already, or the first.
    for (const Stop &s : e.stops)
        if (s.kind == StopKind::Main && !standingHeatPoints(m_open.build(), s.id).empty())
            return s.id;
    const Stop *first = e.ofKind(StopKind::Main);
    return first ? first->id : "";
}

void RoomPage::refresh()
{
    for (size_t i = 0; i < m_familyButtons.size(); ++i)
        m_familyButtons[i]->setChecked((i == 0) == (m_family == "main"));
    m_lastMain = logStop();
    const HeatLog log = judgeHeatLog(m_open.build(), m_open.sizes(), m_lastMain);
    m_chart->setLog(log);
    m_log->setLog(log);
    if (!m_reset->isEnabled())
        resetSliders();
    showSliders();
    askRoom();
}

void RoomPage::askRoom()
{
    m_room->ask(m_family, asked());
    clearVectorState();
    m_study = m_open.answers().latestOrNow(ask::room(m_family, asked()));
    m_room->setRoom(found());
}

PanelContent RoomPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("What follows"), {} });
    if (!found()) {
        out.push_back(
            PanelVerdict { unsolvedMark(), tr("No forecast"),
                           m_study ? qs(m_study->answer.room.error().message) : QString() });
        return out;
    }
    verdicts(out);
    out.push_back(PanelRule {});
    leverLines(out);
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What you ask of it") });
    out.push_back(useField(m_open, "coldest_start_c", tr("coldest start")));
    out.push_back(useField(m_open, "coldest_clearance_floor_um", tr("least clearance there")));
    out.push_back(useField(m_open, "hot_oil_c", tr("hot oil")));
    out.push_back(useField(m_open, "hot_idle_floor_kpa", tr("floor at hot idle")));
    out.push_back(PanelRule {});
    infraredLines(out);
    return out;
}

void RoomPage::verdicts(PanelContent &out) const
{
    const Build &build = m_open.build();
    const Room &r = *found();
    const QString bearings = r.family == "main" ? tr("mains") : tr("big-ends");
    const QString floor = Figure::limit(build.use.coldestClearanceFloor_um).text();
    const auto whole = [](double um) { return Figure::limit(std::round(um)); };
    if (r.preheat_c)
        out.push_back(PanelVerdict {
            r.coldMark(),
            tr("Preheat to %1").arg(Figure::temperature(std::ceil(*r.preheat_c)).text()),
            tr("below it the %1 close past the floor of %2").arg(bearings, floor) });
    else if (r.turnsDownTo_c)
        out.push_back(
            PanelVerdict { r.coldMark(),
                           tr("Turns free down to %1")
                               .arg(Figure::temperature(std::ceil(*r.turnsDownTo_c)).text()),
                           tr("floor %1").arg(floor) });
    else
        out.push_back(PanelVerdict { r.coldMark(), tr("Cold does not close the %1").arg(bearings),
                                     tr("the housing shrinks no more than the journal") });
    const auto &sizes = m_open.sizes();
    const PartTemperatures hot = settledTemperatures(build, asked().hotOil_c);
    const auto mains = meanOf(sizes, "main", hot), rods = meanOf(sizes, "big_end", hot);
    if (mains && rods)
        out.push_back(PanelText {
            tr("Hot mains %1: %2 times the big-ends")
                .arg(Figure::clearance(*mains, 1).text(), qs(formatNumber(*mains / *rods, 1))) });
    if (const auto &crank = m_study->answer.crankOil; crank.size() == 2) {
        const double cold = crank[0].bigEndsShare, warm = crank[1].bigEndsShare;
        out.push_back(PanelVerdict {
            crankOilMark(crank[0], crank[1]),
            tr("Big-ends get %1").arg(Figure::percent(warm).text()),
            tr("of the crank's oil hot, %1 at %2")
                .arg(Figure::percent(cold).text(), Figure::temperature(20).text()) });
    }
    const QString most = r.most_um >= mostRoom_um ? tr("over %1").arg(whole(mostRoom_um).text())
                                                  : whole(r.most_um).text();
    QString title = tr("Room: %1 to %2").arg(whole(r.least_um).number, most);
    QString detail = tr("%1 cold with %2, ended by the %3; hot up to %4, this build %5")
                         .arg(bearings, qs(build.oil.grade), qs(roomBoundName(r.mostBy)),
                              whole(r.hotCeiling_um).text(), whole(r.hot_um).text());
    if (r.most_um <= 0) {
        // Below 0 there is no figure.
        title = tr("No room to choose");
        detail = tr("no clearance of the %1 keeps the pressure hot with %2")
                     .arg(bearings, qs(build.oil.grade));
    } else if (r.width_um() < 0) {
        title = tr("No room to choose");
        detail = tr("the %1 asks %2 at least, the %3 allows %4")
                     .arg(qs(roomBoundName(r.leastBy)), whole(r.least_um).text(),
                          qs(roomBoundName(r.mostBy)), most);
    }
    out.push_back(PanelVerdict { r.mark(), title, detail });
    edgeLines(out);
    filmLines(out);
    for (const GaugedSize &s : sizes)
        if (const double spread = s.growth.spread_um(hot);
            s.family == "main" && outOfRoundMark(spread) != Mark::Proven) {
            out.push_back(PanelVerdict {
                outOfRoundMark(spread),
                tr("Bores up to %1 out of round hot").arg(Figure::clearance(spread, 1).text()),
                tr("block and caps grow apart; the running value is good to half of that") });
            break;
        }
}

void RoomPage::edgeLines(PanelContent &out) const
{
    const Room &r = *found();
    out.push_back(PanelHeading { tr("Edges, mean cold clearance") });
    const auto add = [&](const QString &name, std::optional<double> um, const QString &tip) {
        out.push_back(PanelRow {
            name, um ? Figure::limit(std::round(*um)) : Shown { tr("none"), {}, {} }, tip });
    };
    for (const RoomEdge &e : r.edges) {
        add(qs(roomBoundName(e.bound)), e.um,
            e.bound == r.leastBy || e.bound == r.mostBy ? tr("ends the room") : QString());
        if (e.bound == RoomBound::Pressure)
            add(tr("low end of its range"), r.pressureLow_um, {});
    }
    out.push_back(PanelText { tr("Past need or pressure is no room. Past limits, film or noise is "
                                 "the builder's choice, with a reason signed."),
                              Tone::Muted });
}

void RoomPage::filmLines(PanelContent &out) const
{
    const auto &film = m_study->answer.film;
    if (!film)
        return;
    const QString tip = tr("Mean-load indicator at the combustion peak you set");
    out.push_back(PanelHeading { tr("Smallest film at hot idle") });
    out.push_back(PanelRow { tr("mains"), Figure::clearance(film->mains_um, 1), tip });
    if (m_family == "main" && found()->width_um() >= 0)
        out.push_back(PanelRow { tr("mains, as wide as the room"),
                                 Figure::clearance(film->mainsAtCeiling_um, 1), tip });
    out.push_back(PanelRow { tr("big-ends"), Figure::clearance(film->bigEnds_um, 1), tip });
    out.push_back(PanelText {
        tr("mean-load indicator, no source; it tells which way, not how much"), Tone::Muted });
}

void RoomPage::leverLines(PanelContent &out) const
{
    out.push_back(PanelHeading { asInTheBuild() ? tr("What would open it")
                                                : tr("What would open it, sliders as set") });
    out.push_back(PanelText { tr("room, and hot idle at the gauge"), Tone::Muted });
    for (const RoomLever &l : found()->levers) {
        const bool nothing = std::abs(l.opens_um) < 0.2 && std::abs(l.idleChange) < 0.0005;
        const auto signed_ = [](const Shown &s, double v) {
            return v > 0 && s.number != u"0" ? u'+' + s.text() : s.text();
        };
        // Whole micrometres: the room is no finer known.
        const auto opens = [](double um) {
            return Figure::limit(std::abs(um) < 2 ? std::round(um * 10) / 10 : std::round(um));
        };
        Shown shown { tr("nothing"), {}, {} };
        if (!nothing) {
            const QString idle = signed_(Figure::percent(l.idleChange), l.idleChange);
            shown = std::abs(l.opens_um) < 0.2
                ? Shown { QStringLiteral("0"), idle, {} }
                : Shown { signed_(opens(l.opens_um), l.opens_um), idle, {} };
        }
        out.push_back(PanelRow { qs(l.name), shown, qs(l.remark) });
    }
    for (const RoomLever &l : found()->levers)
        if (l.idle)
            out.push_back(PanelText { tr("%1: %2").arg(qs(l.name), qs(l.remark)), Tone::Muted });
}

void RoomPage::journalTick(PanelContent &out) const
{
    const auto points = standingHeatPoints(m_open.build(), m_lastMain);
    if (points.empty())
        return;
    const bool on = points.back()->journalWithBlock;
    out.push_back(
        PanelTick { QStringLiteral("journalWithBlock"), Mark::NotDone,
                    tr("Gauge zeroed on a journal as warm as the block"),
                    tr("the log's last point, and those after it; usually the journal stays cold"),
                    on, [open = &m_open, p = *points.back()](bool warm) {
                        HeatPoint changed = p;
                        changed.replaces = p.id;
                        changed.journalWithBlock = warm;
                        changed.by = open->worker();
                        changed.at = OpenBuild::now();
                        open->edit(EnterHeatPoint { changed });
                    } });
}

void RoomPage::infraredLines(PanelContent &out) const
{
    journalTick(out);
    out.push_back(PanelHeading { tr("Infrared thermometer") });
    out.push_back(heatField(m_open, "instrument_emissivity", tr("set to emissivity")));
    out.push_back(heatField(m_open, "surroundings_c", tr("surroundings")));
    out.push_back(
        PanelTick { QStringLiteral("infraredTotal"), Mark::NotDone,
                    tr("Answers to all wavelengths"), tr("most hand-held ones see one narrow band"),
                    infraredBand(m_open.build()) == InfraredBand::Total, [open = &m_open](bool on) {
                        saidIfRefused(open->choose(std::string(infraredBandQuestion),
                                                   on ? "total" : "band_8_14"));
                    } });
    out.push_back(PanelText {
        tr("Bright metal mirrors the room: %1 can read %2. Aim at a dull, painted or taped "
           "spot, "
           "or say in the log what it was aimed at.")
            .arg(Figure::temperature(70).text(), Figure::temperature(30).text()),
        Tone::Muted });
    out.push_back(PanelText { qs(caution::hotMetal), Tone::Warn });
    const Calculator *calculator = findCalculator("heated-block-test");
    out.push_back(PanelHeading { tr("Working") });
    out.push_back(PanelText { qs(calculator->formula), Tone::Muted });
    out.push_back(PanelText { tr("Source: %1").arg(qs(calculator->source)), Tone::Muted });
}

QString RoomPage::about() const
{
    return metalsText(m_open.build());
}

} // namespace mildpath
