// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/afterpage.h"

#include "assess/narrowed.h"
#include "bench/start/livetrace.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/refusal.h"
#include "open/questions.h"
#include "paint/marks.h"
#include "paint/titledcard.h"
#include "quantity/dates.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double afterRowHigh = 40, afterHead = 8;

QString kindWord(const std::string &kind)
{
    return kind == "prime" ? QObject::tr("priming")
        : kind == "start"  ? QObject::tr("first start")
                           : QObject::tr("run");
}

} // namespace

ResidualView::ResidualView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("after.residuals"));
    setAccessibleName(tr("Read against forecast"));
}

void ResidualView::setAnswer(std::shared_ptr<const AfterAnswer> answer)
{
    m_answer = std::move(answer);
    const size_t rows = m_answer ? m_answer->answer->residuals.size() : 0;
    setFixedHeight(static_cast<int>(
        afterHead + afterRowHigh * static_cast<double>(std::max<size_t>(1, rows))));
    update();
}

void ResidualView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!m_answer || m_answer->answer->residuals.empty()) {
        drawLine(p, QRectF(12, afterHead, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("No gauge was read on this engine yet."), textFont(TextSize::Normal), t.muted);
        return;
    }
    double most = 1e5;
    for (const Residual &r : m_answer->answer->residuals)
        most = std::max({ most, r.expected.high_pa, r.reading->pressure_kpa * 1e3 });
    most *= 1.05;
    const double left = 250, right = width() - 84;
    const auto x = [&](double pa) { return left + pa / most * (right - left); };
    for (size_t i = 0; i < m_answer->answer->residuals.size(); ++i) {
        const Residual &r = m_answer->answer->residuals[i];
        const double y = afterHead + afterRowHigh * (static_cast<double>(i) + 0.5);
        drawMark(p, { 16, y - 8 }, 12, r.mark);
        drawLine(p, QRectF(28, y - 17, left - 34, 18), Qt::AlignLeft | Qt::AlignVCenter,
                 qs(tapName(*m_answer->about.build, r.reading->tap)),
                 textFont(TextSize::Normal, true), t.ink);
        drawLine(p, QRectF(28, y, left - 34, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 qs(turnedText(r.reading->rpm, r.reading->byDrill)) + QStringLiteral(" · ")
                     + tr("oil %1").arg(Figure::temperature(r.reading->oil_c).text()),
                 textFont(TextSize::Small), t.muted);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(left, y), QPointF(right, y));
        p.setPen(Qt::NoPen);
        p.setBrush(t.oil[t.dark ? 3 : 0]);
        p.drawRect(
            QRectF(x(r.expected.low_pa), y - 8, x(r.expected.high_pa) - x(r.expected.low_pa), 16));
        p.setPen(QPen(t.warm, 1.5));
        p.drawLine(QPointF(x(r.expected.value_pa), y - 8), QPointF(x(r.expected.value_pa), y + 8));
        p.setPen(QPen(t.panel, 1));
        p.setBrush(t.mark(r.mark));
        p.drawEllipse(QPointF(x(r.reading->pressure_kpa * 1e3), y), 5, 5);
        mildpath::drawFigure(p, { width() - 14.0, y + 5 },
                             Figure::pressure(r.reading->pressure_kpa * 1e3),
                             textFont(TextSize::Body, true), t.ink, t.muted);
    }
}

AfterPage::AfterPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_runs(new ArrowCombo(this))
    , m_about(new QLabel(this))
    , m_trace(new LiveTrace(this))
    , m_view(new ResidualView(nullptr))
{
    setObjectName(QStringLiteral("afterPage"));
    m_trace->setObjectName(QStringLiteral("after.trace"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *row = new QHBoxLayout;
    m_runs->setObjectName(QStringLiteral("after.runs"));
    m_runs->setAccessibleName(tr("Recorded run"));
    m_runs->setMinimumWidth(240);
    row->addWidget(m_runs);
    row->addWidget(m_about, 1);
    column->addLayout(row);
    column->addWidget(m_trace, 5);
    column->addWidget(titledCard(tr("Read against forecast"), m_view, this), 4);
    connect(m_runs, &QComboBox::activated, this, [this](int i) {
        m_run = m_runs->itemData(i).toString().toStdString();
        showRun();
    });
    follow(qs(ask::readings().topic));
    connect(&open, &OpenBuild::opened, this, [this] {
        m_answer.reset();
        m_run.clear();
    });
}

void AfterPage::refresh()
{
    const auto runs = standing(m_open.build().runs);
    const QSignalBlocker block(m_runs);
    m_runs->clear();
    if (std::none_of(runs.begin(), runs.end(), [&](const RunLog *r) { return r->id == m_run; }))
        m_run = runs.empty() ? "" : runs.back()->id;
    for (const RunLog *r : runs) {
        m_runs->addItem(qs(dayText(r->at)) + QStringLiteral(", ") + kindWord(r->kind), qs(r->id));
        if (r->id == m_run)
            m_runs->setCurrentIndex(m_runs->count() - 1);
    }
    m_runs->setVisible(!runs.empty());
    showRun();
    if (const auto answer = m_open.answers().latest(ask::readings())) {
        m_answer = answer->answer ? answer : nullptr;
        m_trouble = answer->answer ? QString() : qs(answer->answer.error().message);
    }
    m_view->setAnswer(m_answer);
}

void AfterPage::showRun()
{
    m_buckets.clear();
    TraceScene scene;
    scene.minutes = true;
    setTone(m_about, Theme::current().muted);
    m_about->setText(tr("No run is recorded yet."));
    for (const RunLog *r : standing(m_open.build().runs)) {
        if (r->id != m_run)
            continue;
        for (const RunPoint &p : r->trace)
            m_buckets.add({ p });
        scene.marks = r->marks;
        if (r->kind != "prime")
            scene.floor_kpa = m_open.build().use.hotIdleFloor_kpa;
        m_about->setText(
            tr("%1, %2, up to %3; %4")
                .arg(
                    counted(r->readings, tr("reading"), tr("readings")),
                    r->firstPressure_s
                        ? tr("first pressure at %1 s").arg(qs(formatNumber(*r->firstPressure_s, 1)))
                        : tr("no pressure"),
                    Figure::pressure(r->most_kpa * 1e3).text(), qs(r->source)));
    }
    scene.trace = &m_buckets;
    scene.least_s = m_buckets.all().empty() ? 60 : std::max(5.0, m_buckets.last_s());
    m_trace->setScene(std::move(scene));
}

QString AfterPage::about() const
{
    if (!m_trouble.isEmpty())
        return m_trouble;
    if (!m_answer || m_answer->answer->residuals.empty())
        return tr("nothing read yet");
    const auto off
        = std::count_if(m_answer->answer->residuals.begin(), m_answer->answer->residuals.end(),
                        [](const Residual &r) { return r.mark != Mark::Proven; });
    return off == 0
        ? tr("%1, all as forecast")
              .arg(counted(m_answer->answer->residuals.size(), tr("reading"), tr("readings")))
        : tr("%1 of %2 off the forecast")
              .arg(off)
              .arg(counted(m_answer->answer->residuals.size(), tr("reading"), tr("readings")));
}

/// What is believed now and why, and one button to go by it.
void AfterPage::believedLines(const BelievedIdle &b, PanelContent &out) const
{
    const auto range = [](const LikelyPressure &p) {
        return tr("%1 to %2")
            .arg(Figure::pressure(p.low_pa).number, Figure::pressure(p.high_pa).text());
    };
    out.push_back(PanelHeading { tr("Hot idle, likely") });
    out.push_back(PanelRow { tr("forecast alone"), { range(b.alone), {}, {} }, {} });
    out.push_back(PanelRow { b.readings == 1 ? tr("with the reading")
                                             : tr("with %1 readings").arg(b.readings),
                             { range(b.with), {}, {} },
                             {} });
    if (b.nothingExplains)
        out.push_back(PanelVerdict { b.mark(), tr("Nothing on the list explains them"),
                                     tr("no input is named; look for a fault") });
    else
        out.push_back(PanelText { tr("%1 left for something that is not on this list")
                                      .arg(Figure::percent(b.offProbability).text()),
                                  Tone::Muted });
    if (const auto told = b.told(); !told.empty()) {
        out.push_back(PanelHeading { tr("Why: what they move") });
        for (const BelievedInput &i : told)
            out.push_back(PanelText { qs(movedText(i)), Tone::Plain });
    }
    const Calibration *used = readingsInForce(m_open.build());
    if (used && used->readings == b.calibration.readings)
        return;
    Calibration next = b.calibration;
    if (used)
        next.replaces = used->id;
    out.push_back(PanelButton { QStringLiteral("after.useReadings"),
                                used ? tr("Use the new readings too") : tr("Use readings"),
                                [open = &m_open, next] { saidIfRefused(open->record(next)); } });
}

PanelContent AfterPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("What the readings say"), {} });
    if (!m_answer || !m_answer->answer->believed)
        out.push_back(PanelText { tr("Read the gauge cold, fast and hot: then forecast and engine "
                                     "can be compared."),
                                  Tone::Muted });
    else
        believedLines(*m_answer->answer->believed, out);
    out.push_back(PanelText {
        tr("Using readings moves the forecast and narrows its range, never what was measured. It "
           "stands here and on the build sheet, and can be taken back. Where nothing explains the "
           "readings, look for a fault: Forecast, Find the fault."),
        Tone::Muted });
    const auto calibrations = standing(m_open.build().calibrations);
    if (calibrations.empty())
        return out;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("In force") });
    for (const Calibration *c : calibrations) {
        out.push_back(PanelText {
            qs(c->note + " (" + whoText(c->by) + ", " + dayText(c->at.substr(0, 10)) + ")"),
            Tone::Warn });
        out.push_back(PanelButton {
            QStringLiteral("after.takeBack.") + qs(c->id), tr("Take back"),
            [open = &m_open, id = c->id] { saidIfRefused(open->takeBack("calibrations", id)); } });
    }
    return out;
}

} // namespace mildpath
