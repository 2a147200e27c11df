// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/pressurepage.h"

#include "assess/believed.h"
#include "assess/cannotknow.h"
#include "assess/circuitof.h"
#include "assess/figuremarks.h"
#include "assess/narrowed.h"
#include "bench/forecast/forecastcards.h"
#include "bench/forecast/gaslayer.h"
#include "checks/assessment.h"
#include "checks/verdicttable.h"
#include "document/enginesheet.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/text.h"
#include "plot/chartview.h"
#include "shell/stopfields.h"
#include "start/gate.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int drawnSpeeds = 48;

/// A speed at which something begins: found to 25 rev/min, of a model good to a few percent.
QString aboutSpeed(double rpm)
{
    return PressurePage::tr("about %1").arg(Figure::speed(std::round(rpm / 50) * 50).text());
}

} // namespace

PressurePage::PressurePage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_gas(new GasLayer(open, this))
    , m_chart(new ChartView(this))
    , m_shares(new OilShareBar(open, this))
    , m_oils(new OtherOilsCard(open, this))
    , m_levers(new LeversCard(open, this))
    , m_progress(new QTimer(this))
    , m_cancel(new QPushButton(tr("Cancel"), this))
{
    m_cancel->setObjectName(QStringLiteral("cancelSamples"));
    m_cancel->hide();
    connect(m_cancel, &QPushButton::clicked, this, [this] {
        m_open.answers().giveUp(ask::likelyRange().topic);
        showSamples();
    });
    m_progress->setInterval(100);
    connect(m_progress, &QTimer::timeout, this, &PressurePage::showSamples);
    auto *pictures = new QVBoxLayout(this);
    pictures->setContentsMargins(0, 0, 0, 0);
    pictures->setSpacing(6);
    connect(m_gas, &GasLayer::changed, this, [this] {
        drawNow();
        Q_EMIT changed();
    });
    follow(qs(ask::forecastAt(drawnSpeeds).topic));
    follow(qs(ask::likelyRange().topic));
    follow(qs(ask::believed().topic));
    follow(qs(ask::verdictRanges().topic));
    auto *upper = new QHBoxLayout;
    upper->setSpacing(10);
    upper->addWidget(m_chart, 1);
    upper->addWidget(m_shares);
    pictures->addLayout(upper, 3);
    auto *lower = new QHBoxLayout;
    lower->setSpacing(12);
    lower->addWidget(m_oils, 1);
    lower->addWidget(m_levers, 1);
    pictures->addLayout(lower, 2);
    m_chart->setObjectName(QStringLiteral("forecastChart"));
    m_chart->setAccessibleName(
        tr("Pressure at the gauge against speed; its figures stand in the side panel"));
}

QWidget *PressurePage::headWidget()
{
    return m_cancel;
}

void PressurePage::leave()
{
    m_open.answers().giveUp(ask::likelyRange().topic);
    m_progress->stop();
    m_cancel->hide();
}

void PressurePage::refresh()
{
    if (!m_open.operating().unsolved) {
        m_open.answers().ask(ask::forecastAt(drawnSpeeds));
        m_open.answers().ask(ask::likelyRange());
        m_open.answers().ask(ask::believed());
        if (isWide(m_open.operating().hotIdle.gauge))
            m_open.answers().ask(ask::verdictRanges());
    }
    m_progress->start();
    showSamples();
    m_gas->refresh();
    drawNow();
    for (QWidget *w : { m_shares, m_oils, m_levers })
        w->update();
}

/// The forecast as it is, with more speeds once they are there.
void PressurePage::drawNow()
{
    const auto finer = m_open.answers().find(ask::forecastAt(drawnSpeeds));
    draw(finer && finer->answer ? *finer->answer : m_open.forecast().lines);
}

const SampledForecast *PressurePage::samples() const
{
    const auto drawn = m_open.answers().find(ask::likelyRange());
    return drawn && drawn->answer ? &*drawn->answer : nullptr;
}

void PressurePage::showSamples()
{
    const Progress *under = m_open.answers().progress(ask::likelyRange().topic);
    if (!under)
        m_progress->stop();
    m_cancel->setVisible(under != nullptr);
    Q_EMIT aboutChanged();
}

QString PressurePage::about() const
{
    const Progress *under = m_open.answers().progress(ask::likelyRange().topic);
    if (under && under->whole > 0)
        return tr("drawing possible builds, %1")
            .arg(Figure::percent(1.0 * under->done / under->whole).text());
    if (const SampledForecast *drawn = samples())
        return tr("Likely range of %1 simulated builds (seed %2), between speeds within %3")
            .arg(qs(formatNumber(drawn->samples, 0)))
            .arg(drawn->seed)
            .arg(inWords(asShare(drawn->interpolationError, 1)));
    return tr("Likely range: measuring, what is assumed, what a model leaves out");
}

/// The least pressure wanted over speed, as the builder chose it.
ChartLine PressurePage::ruleLine(double from_rpm, double to_rpm) const
{
    const Use &use = m_open.build().use;
    const bool usual
        = use.ruleBase_kpa == 0 && use.ruleRise_kpa_per_krpm == Use {}.ruleRise_kpa_per_krpm;
    const QString name = usual ? tr("%1 per %2")
                                     .arg(Figure::pressure(use.ruleRise_kpa_per_krpm * 1e3).text(),
                                          Figure::speed(1000).text())
                               : tr("minimum wanted");
    ChartLine rule { name, Theme::current().muted, { from_rpm, to_rpm }, {} };
    rule.pen = Qt::DashLine;
    rule.width = 1.2;
    rule.labelAt = 0.5;
    for (const double n : rule.x)
        rule.y.push_back(leastWanted_pa(use, n));
    return rule;
}

/// A condition's curve, its band the drawn builds' where they have come.
ChartLine PressurePage::lineOf(const ForecastLine &line, const QColor &colour) const
{
    ChartLine out { Figure::temperature(line.oil_c).text(), colour, line.rpm, {} };
    const SampledLine *drawn = nullptr;
    if (const SampledForecast *bands = samples())
        for (const SampledLine &s : bands->lines)
            if (s.oil_c == line.oil_c)
                drawn = &s;
    for (size_t k = 0; k < line.gauge.size(); ++k) {
        const LikelyPressure &p = line.gauge[k];
        out.y.push_back(p.value_pa);
        out.low.push_back(drawn ? drawn->at(SampledLine::Edge::Low, line.rpm[k]) : p.low_pa);
        out.high.push_back(drawn ? drawn->at(SampledLine::Edge::High, line.rpm[k]) : p.high_pa);
    }
    return out;
}

/// What hot oil has to meet: its entry into the crank, the speed where that fails, the relief's.
void PressurePage::addHot(const ForecastLine &line, Chart &chart) const
{
    const Theme &t = Theme::current();
    ChartLine need { tr("crank feed needs"), t.ink, line.rpm, line.crankNeed_pa };
    need.pen = Qt::DashLine;
    need.width = 1.2;
    need.labelAt = 0.8;
    if (!need.y.empty() && need.y.back() > 0)
        chart.lines.push_back(std::move(need));
    if (line.crankStarves_rpm)
        chart.marks.push_back(
            { Qt::Vertical, *line.crankStarves_rpm, tr("the crank is not fed"), t.hold });
    if (line.reliefOpens_rpm)
        chart.marks.push_back({ Qt::Vertical, *line.reliefOpens_rpm,
                                tr("relief opens, %1").arg(Figure::temperature(line.oil_c).text()),
                                t.muted });
}

void PressurePage::draw(const std::vector<ForecastLine> &lines)
{
    if (lines.empty() || lines.front().rpm.empty()) {
        m_chart->setChart({});
        return;
    }
    const Theme &t = Theme::current();
    const double from = lines.front().rpm.front(), to = lines.front().rpm.back();
    Chart chart;
    double most = 4e5;
    const QColor tones[] = { t.cold, t.warm, t.hot };
    const double labels[] = { 0.30, 0.42, 0.56 };
    for (size_t i = 0; i < lines.size(); ++i) {
        chart.lines.push_back(lineOf(lines[i], tones[std::min<size_t>(i, 2)]));
        chart.lines.back().labelAt = labels[std::min<size_t>(i, 2)];
        for (const double high : chart.lines.back().high)
            most = std::max(most, high);
    }
    for (const ForecastLine &line : lines)
        if (line.oil_c == m_open.build().use.hotOil_c)
            addHot(line, chart);
    if (const ForecastLine *line = m_gas->line()) {
        ChartLine gas { tr("%1 with gas, estimate").arg(Figure::temperature(line->oil_c).text()),
                        t.hold,
                        line->rpm,
                        {} };
        gas.pen = Qt::DashLine;
        gas.labelAt = 0.7;
        for (const LikelyPressure &p : line->gauge)
            gas.y.push_back(p.value_pa);
        chart.lines.push_back(std::move(gas));
    }
    chart.lines.push_back(ruleLine(from, to));
    chart.x = { from, to, 0, 1, Shows::Speed };
    chart.y = { 0, roundedUp(most, Shows::Pressure), 0, 1, Shows::Pressure };
    m_chart->setChart(std::move(chart));
}

PanelContent PressurePage::panel()
{
    PanelContent out;
    verdict(out);
    return out;
}

void PressurePage::verdict(PanelContent &out) const
{
    const Build &build = m_open.build();
    out.push_back(PanelTitle { tr("Verdict"), {} });
    for (const Calibration *c : standing(build.calibrations))
        out.push_back(PanelText {
            (c->input == "readings" ? tr("By readings: %1.") : tr("Calibrated by running: %1."))
                .arg(qs(c->note)),
            Tone::Warn });
    if (const Phrase typical = typicalText(typicalSizes(build).size()); !typical.empty())
        out.push_back(PanelText { qs(typical) + tr("; Engine says which."), Tone::Muted });
    if (m_open.operating().unsolved) {
        out.push_back(PanelVerdict { unsolvedMark(), tr("No forecast"),
                                     qs(m_open.operating().unsolved->message) });
    } else {
        const LeadingVerdicts verdicts = leadingVerdicts(build, m_open.assessment());
        const LikelyPressure &idle = m_open.operating().hotIdle.gauge;
        out.push_back(PanelVerdict {
            verdicts.idle.mark, tr("Hot idle %1").arg(Figure::pressure(idle.value_pa).text()),
            tr("your minimum: %1").arg(Figure::pressure(verdicts.idle.least_pa).text()) });
        if (const auto ranges = m_open.answers().find(ask::verdictRanges()); ranges && isWide(idle))
            if (const VerdictRange *cell = ranges->answer.find("gauge", "hot_idle"))
                out.push_back(PanelText {
                    qs(narrowest(cell->doubtful, verdicts.idle.least_pa, ranges->answer.priming())
                           .what),
                    Tone::Plain });
        if (const auto believed = m_open.answers().find(ask::believed());
            believed && believed->answer)
            out.push_back(
                PanelText { qs(believedText(*believed->answer)),
                            believed->answer->nothingExplains ? Tone::Warn : Tone::Muted });
        if (m_open.operating().hotIdle.weakest >= 0) {
            const PointPressure &p
                = m_open.operating()
                      .hotIdle.points[static_cast<size_t>(m_open.operating().hotIdle.weakest)];
            out.push_back(PanelVerdict {
                verdicts.weakest,
                tr("%1 gets %2").arg(qs(p.name), Figure::pressure(p.pressure_pa).text()),
                tr("%1 × its need of %2")
                    .arg(qs(formatNumber(p.ratio(), 1)), Figure::pressure(p.need_pa).number) });
        }
        for (const ForecastLine &line : m_open.forecast().lines)
            if (line.oil_c == build.use.hotOil_c)
                out.push_back(
                    line.reliefOpens_rpm
                        ? PanelVerdict { onSizes(reliefMark(line), m_open.sizes()),
                                         tr("Relief valve limits pressure"),
                                         tr("from %1 hot; below that a stiffer spring does nothing")
                                             .arg(aboutSpeed(*line.reliefOpens_rpm)) }
                        : PanelVerdict { onSizes(reliefMark(line), m_open.sizes()),
                                         tr("Relief stays shut"),
                                         tr("hot, up to %1: the pump never reaches it, a stiffer "
                                            "spring does nothing")
                                             .arg(Figure::speed(build.use.most_rpm).text()) });
        crankVerdict(out);
    }
    const StartGate gate = gateOf(m_open.judgement());
    out.push_back(PanelVerdict { gate.mark(), qs(gate.says()), {} });
    out.push_back(PanelRule {});
    m_gas->panel(out);
    out.push_back(PanelRule {});
    useFields(out);
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What no forecast can know") });
    for (const Phrase &sentence : cannotKnow(m_open.build()))
        out.push_back(PanelText { qs(sentence), Tone::Muted });
    addWorking(out, { "likely-band", "band-update", "crank-feed-flow" });
}

/// Whether oil enters the crank up to the highest speed, at the hottest line.
void PressurePage::crankVerdict(PanelContent &out) const
{
    const auto &lines = m_open.forecast().lines;
    const Mark mark = onSizes(crankFeedMark(m_open.forecast()), m_open.sizes());
    if (const ForecastLine *first = starvesCrankFirst(m_open.forecast()))
        out.push_back(PanelVerdict {
            mark, tr("Crank not fed above %1").arg(aboutSpeed(*first->crankStarves_rpm)),
            tr("at %1: the column in the drilling breaks and the rods run dry")
                .arg(Figure::temperature(first->oil_c).text()) });
    else if (!lines.empty() && !lines.back().crankNeed_pa.empty()
             && lines.back().crankNeed_pa.back() > 0)
        out.push_back(
            PanelVerdict { mark, tr("Oil enters the crank"),
                           tr("at all speeds; at the highest it needs %1")
                               .arg(Figure::pressure(lines.back().crankNeed_pa.back()).text()) });
}

void PressurePage::useFields(PanelContent &out) const
{
    out.push_back(PanelHeading { tr("What you ask of it") });
    const std::pair<const char *, QString> fields[] = {
        { "hot_oil_c", tr("hot oil") },
        { "hot_idle_rpm", tr("hot idle") },
        { "hot_idle_floor_kpa", tr("floor at hot idle") },
        { "high_speed_rpm", tr("higher speed") },
        { "coldest_start_c", tr("coldest start") },
        { "combustion_peak_kpa", tr("combustion peak, no load") },
        { "full_load_peak_kpa",
          m_open.build().use.fullLoadPeak_kpa
              ? tr("peak at full load")
              : tr("peak at full load, else %1")
                    .arg(inWords(asPressure(fullLoadPeakOf_pa(m_open.build()), 0))) },
        { "rule_base_kpa", tr("least wanted, at 0") },
        { "rule_rise_kpa_per_krpm", tr("and per %1").arg(Figure::speed(1000).text()) },
    };
    for (const auto &[key, label] : fields)
        out.push_back(useField(m_open, key, label));
    out.push_back(PanelText {
        tr("Combustion peaks load the bearings: %1 without load; at full load %2, %3 diesel or "
           "boosted. Our choice, no source.")
            .arg(inWords(asPressure(15e5, 0)), inWords(asPressure(fullLoadPeak_pa, 0)),
                 inWords(asPressure(fullLoadPeakBoosted_pa, 0))),
        Tone::Muted });
}

} // namespace mildpath
