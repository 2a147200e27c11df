// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/warmuppage.h"

#include "assess/figuremarks.h"
#include "bench/heat/materialspage.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/text.h"
#include "plot/chartview.h"
#include "shell/stopfields.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int coarse = 11, fine = 81;
constexpr int speedStep = 50;

QString minutes(double s)
{
    return s < 90 ? WarmUpPage::tr("%1 s").arg(qs(formatNumber(s, 0)))
                  : WarmUpPage::tr("%1 min").arg(qs(formatNumber(s / 60, s < 600 ? 1 : 0)));
}

/// First moment from which on a condition holds to the end; absent if it never does.
std::optional<double> settledFrom(const WarmUpRun &run,
                                  const std::function<bool(const WarmUpPoint &)> &holds)
{
    std::optional<double> from;
    for (const WarmUpPoint &p : run.points) {
        if (!holds(p))
            from.reset();
        else if (!from)
            from = p.time_s;
    }
    return from;
}

} // namespace

WarmUpPage::WarmUpPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_pressure(new ChartView(this))
    , m_temperatures(new ChartView(this))
    , m_clearances(new ChartView(this))
    , m_speed(new QSlider(Qt::Horizontal, this))
    , m_speedText(new QLabel(this))
    , m_problem(new QLabel(this))
{
    setObjectName(QStringLiteral("warmUpPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 0);
    column->setSpacing(6);
    auto *row = new QHBoxLayout;
    auto *label = new QLabel(tr("Pressure at idle, and held at"), this);
    label->setBuddy(m_speed);
    row->addWidget(label);
    m_speed->setObjectName(QStringLiteral("warmUpSpeed"));
    m_speed->setAccessibleName(tr("speed held while warming"));
    m_speed->setMaximumWidth(240);
    row->addWidget(m_speed, 1);
    m_speedText->setFont(textFont(TextSize::Body, true));
    row->addWidget(m_speedText);
    row->addStretch();
    column->addLayout(row);
    column->addWidget(m_problem);
    column->addWidget(m_pressure, 3);
    auto *lower = new QHBoxLayout;
    lower->addWidget(m_temperatures, 1);
    lower->addWidget(m_clearances, 1);
    column->addLayout(lower, 2);
    m_pressure->setObjectName(QStringLiteral("warmUpChart"));
    for (ChartView *c : { m_temperatures, m_clearances })
        c->setMinimumHeight(120);
    follow(qs(ask::warmUp(0, 0).topic));
    connect(m_speed, &QSlider::valueChanged, this, [this] {
        askRuns();
        Q_EMIT changed();
    });
}

void WarmUpPage::reset()
{
    m_runs.reset();
    m_idle = m_fast = nullptr;
}

void WarmUpPage::refresh()
{
    const Use &use = m_open.build().use;
    const QSignalBlocker quiet(m_speed);
    m_speed->setRange(static_cast<int>(std::ceil(use.hotIdle_rpm / speedStep)),
                      static_cast<int>(use.most_rpm / speedStep));
    if (!m_runs)
        m_speed->setValue(static_cast<int>(use.highSpeed_rpm / speedStep));
    askRuns();
}

/// What is there stands until the fine one comes; another speed is answered coarsely at once.
void WarmUpPage::askRuns()
{
    const double rpm = m_speed->value() * speedStep;
    Answers &answers = m_open.answers();
    if (auto runs = answers.ask(ask::warmUp(rpm, fine))) {
        m_runs = std::move(runs);
    } else if (!m_runs || rpm != m_rpm) {
        clearVectorState();
        m_runs = answers.now(ask::warmUp(rpm, coarse));
    }
    m_rpm = rpm;
    const auto &[idle, fast] = m_runs->answer;
    const bool solved = idle && fast;
    m_idle = solved ? &*idle : nullptr;
    m_fast = solved ? &*fast : nullptr;
    m_problem->setVisible(!solved);
    if (!solved) {
        m_problem->setText(qs((idle ? fast : idle).error().message));
        setTone(m_problem, Theme::current().hold);
    }
    m_speedText->setText(Figure::speed(m_speed->value() * speedStep).text());
    draw();
}

namespace {

using PointNumber = double (*)(const WarmUpPoint &);

ChartLine lineOf(const WarmUpRun &run, const QString &name, const QColor &colour, double labelAt,
                 PointNumber number)
{
    ChartLine out { name, colour, {}, {} };
    out.labelAt = labelAt;
    for (const WarmUpPoint &p : run.points) {
        out.x.push_back(p.time_s / 60);
        out.y.push_back(number(p));
    }
    return out;
}

double highest(const Chart &chart, double atLeast)
{
    for (const ChartLine &l : chart.lines)
        for (const double y : l.y)
            atLeast = std::max(atLeast, y);
    return atLeast;
}

Axis minutesOf(const WarmUpRun &run, const QString &speed = {})
{
    Axis out { 0, run.points.back().time_s / 60, 0, 1, Shows::Minutes };
    if (!speed.isEmpty())
        out.name = WarmUpPage::tr("%1, %2").arg(unitOf(Shows::Minutes), speed);
    return out;
}

} // namespace

void WarmUpPage::draw()
{
    const Theme &t = Theme::current();
    Chart chart;
    if (m_idle && m_fast) {
        const PointNumber gauge = [](const WarmUpPoint &p) { return p.gauge_pa; };
        const PointNumber weakest = [](const WarmUpPoint &p) { return p.weakest_pa; };
        const QString speed = Figure::speed(m_fast->rpm).text();
        chart.lines = { lineOf(*m_fast, tr("weakest stop, %1").arg(speed), t.warm, 0.80, weakest),
                        lineOf(*m_idle, tr("weakest stop, idle"), t.cold, 0.80, weakest),
                        lineOf(*m_fast, tr("gauge, %1").arg(speed), t.warm, 0.62, gauge),
                        lineOf(*m_idle, tr("gauge, idle"), t.cold, 0.62, gauge) };
        for (ChartLine *l : { &chart.lines[0], &chart.lines[1] }) {
            l->pen = Qt::DashLine;
            l->width = 1.2;
        }
        chart.x = minutesOf(*m_fast);
    }
    chart.y = { 0, roundedUp(highest(chart, 2e5), Shows::Pressure), 0, 1, Shows::Pressure };
    m_pressure->setChart(std::move(chart));
    drawParts();
}

void WarmUpPage::drawParts()
{
    if (!m_fast)
        return;
    const Theme &t = Theme::current();
    const Use &use = m_open.build().use;
    const WarmUpRun &run = *m_fast;
    const QString speed = Figure::speed(run.rpm).text();
    Chart heat;
    heat.lines = { lineOf(run, tr("block"), t.cold, 0.22,
                          [](const WarmUpPoint &p) { return p.parts.block_c; }),
                   lineOf(run, tr("oil"), t.oil[3], 0.42,
                          [](const WarmUpPoint &p) { return p.parts.oil_c; }),
                   lineOf(run, tr("journals"), t.hot, 0.16,
                          [](const WarmUpPoint &p) { return p.parts.journal_c; }) };
    heat.lines.back().pen = Qt::DashLine;
    heat.lines.back().width = 1.2;
    heat.x = minutesOf(run, speed);
    heat.y = { std::min(use.coldestStart_c, 0.0) - 5, use.hotOil_c + 10, 0, 1, Shows::Temperature };
    m_temperatures->setChart(std::move(heat));
    Chart gaps;
    gaps.lines = { lineOf(run, tr("mains"), t.oil[3], 0.55,
                          [](const WarmUpPoint &p) { return p.mains_um * 1e-6; }),
                   lineOf(run, tr("big-ends"), t.cold, 0.9,
                          [](const WarmUpPoint &p) { return p.bigEnds_um * 1e-6; }) };
    gaps.x = minutesOf(run, speed);
    gaps.y = { 0, roundedUp(highest(gaps, 20e-6) * 1.1, Shows::Clearance), 0, 1, Shows::Clearance };
    m_clearances->setChart(std::move(gaps));
}

PanelContent WarmUpPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("What follows"), {} });
    if (!m_idle || !m_fast) {
        out.push_back(PanelVerdict { unsolvedMark(), tr("No forecast"), m_problem->text() });
        settingFields(out);
        return out;
    }
    for (const WarmUpRun *run : { &*m_idle, &*m_fast }) {
        const WarmUpPoint &p = run->weakest();
        out.push_back(PanelVerdict {
            onSizes(supplyMark(p.weakestRatio), m_open.sizes()),
            tr("%1: at least %2 × its need")
                .arg(run == &*m_idle ? tr("idle") : Figure::speed(run->rpm).text(),
                     qs(formatNumber(p.weakestRatio, 1))),
            p.time_s > 0 ? tr("%1, after %2").arg(qs(p.weakestName), minutes(p.time_s))
                         : tr("%1, at the start").arg(qs(p.weakestName)) });
    }
    const auto widest = std::max_element(
        m_fast->points.begin(), m_fast->points.end(),
        [](const WarmUpPoint &a, const WarmUpPoint &b) { return a.mains_um < b.mains_um; });
    const double end_um = m_fast->points.back().mains_um;
    if (widest->mains_um > end_um + 2)
        out.push_back(PanelText { tr("Mains widest after %1: %2, hot %3. The block warms before "
                                     "the crank does.")
                                      .arg(minutes(widest->time_s),
                                           Figure::clearance(widest->mains_um, 1).text(),
                                           Figure::clearance(end_um, 1).text()) });
    out.push_back(PanelRule {});
    const double hot_c = m_open.build().use.hotOil_c;
    const auto row = [&](const QString &label, const WarmUpRun &run,
                         const std::function<bool(const WarmUpPoint &)> &holds) {
        const auto from = settledFrom(run, holds);
        out.push_back(PanelRow {
            label,
            { from ? minutes(*from) : tr("over %1").arg(minutes(warmUpLasts_s)), {}, {} },
            {} });
    };
    const auto shut = [](const WarmUpPoint &p) { return !p.reliefOpen; };
    const auto hot = [hot_c](const WarmUpPoint &p) { return p.parts.oil_c > hot_c - 5; };
    row(tr("relief shut, idle"), *m_idle, shut);
    row(tr("oil within %1 of hot, idle").arg(inWords(asTemperatureDifference(5))), *m_idle, hot);
    row(tr("the same at %1").arg(Figure::speed(m_fast->rpm).text()), *m_fast, hot);
    settingFields(out);
    return out;
}

void WarmUpPage::settingFields(PanelContent &out) const
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("How it warms: time constants") });
    const std::pair<const char *, QString> fields[] = {
        { "oil_at_idle_s", tr("oil, at idle") },
        { "oil_at_speed_s", tr("oil, at 3 000") },
        { "block_at_idle_s", tr("block, at idle") },
        { "block_at_speed_s", tr("block, at 3 000") },
        { "block_end_c", tr("block ends at") },
        { "journal_lag_s", tr("journals lag") },
        { "cap_lag_s", tr("caps lag") },
    };
    for (const auto &[key, label] : fields)
        out.push_back(heatField(m_open, key, label));
    out.push_back(
        PanelText { tr("Two masses: the coolant warms the block, the oil warms journals, rods and "
                       "caps. Own choice, no source: set them by what your engine does."),
                    Tone::Muted });
}

QString WarmUpPage::about() const
{
    return metalsText(m_open.build());
}

} // namespace mildpath
