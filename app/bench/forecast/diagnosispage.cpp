// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/diagnosispage.h"

#include "document/logbook.h"
#include "entry/refusal.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "paint/text.h"
#include "paint/titledcard.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {

DiagnosisPage::DiagnosisPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_verdict(new QLabel(this))
    , m_advice(new QLabel(this))
    , m_cancel(new QPushButton(tr("Cancel"), this))
    , m_scale(new ReadingScale(nullptr))
    , m_bars(new CandidateBars(nullptr))
    , m_next(new RowList({ 0, 0.72, 0.86 }, 0, nullptr))
    , m_progress(new QTimer(this))
{
    setObjectName(QStringLiteral("diagnosisPage"));
    follow(qs(ask::diagnosis().topic));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto *row = new QHBoxLayout;
    m_verdict->setObjectName(QStringLiteral("diagnosis.verdict"));
    m_verdict->setFont(textFont(TextSize::Body, true));
    row->addWidget(m_verdict, 1);
    m_cancel->setObjectName(QStringLiteral("cancelDiagnosis"));
    m_cancel->hide();
    row->addWidget(m_cancel);
    column->addLayout(row);
    m_advice->setObjectName(QStringLiteral("diagnosis.advice"));
    m_advice->setWordWrap(true);
    column->addWidget(m_advice);
    auto *cards = new QHBoxLayout;
    cards->setSpacing(10);
    cards->addWidget(titledCard(tr("Read against forecast"), m_scale, this), 1);
    cards->addWidget(titledCard(tr("What fits"), m_bars, this), 1);
    column->addLayout(cards, 3);
    m_next->setObjectName(QStringLiteral("diagnosis.next"));
    m_next->setAccessibleName(tr("Next: what, information, minutes"));
    column->addWidget(titledCard(tr("Next check, most useful per minute"), m_next, this), 2);
    connect(m_cancel, &QPushButton::clicked, this, &DiagnosisPage::giveUp);
    m_progress->setInterval(100);
    connect(m_progress, &QTimer::timeout, this, &DiagnosisPage::showProgress);
    connect(m_bars, &CandidateBars::picked, this, [this](int i) {
        m_candidate = static_cast<size_t>(i);
        m_bars->choose(m_candidate);
        m_scale->setAnswer(m_answer, m_candidate);
        Q_EMIT changed();
    });
    connect(m_scale, &ReadingScale::picked, this, [this](const QString &id) {
        m_reading = id.toStdString();
        m_scale->choose(m_reading);
        Q_EMIT changed();
    });
    connect(m_next, &RowList::picked, this, [this](int i) {
        // A reading is at once the next one to record.
        const NextStep &n = m_answer->answer->next[static_cast<size_t>(i)];
        m_next->choose(i);
        if (n.look)
            return;
        int tap = 0;
        for (const auto &[name, node] : m_open.build().circuit.taps) {
            if (name == n.id)
                m_tap = tap;
            ++tap;
        }
        m_rpm = n.condition.rpm;
        m_byDrill = n.condition.byDrill;
        m_oil_c = n.condition.oil_c;
        Q_EMIT changed();
    });
    connect(&open, &OpenBuild::opened, this, [this] {
        take(nullptr); // nothing of the other document stays
        m_reading.clear();
        m_tap = -1;
    });
}

void DiagnosisPage::refresh()
{
    const Build &b = m_open.build();
    if (m_tap < 0 || m_tap >= static_cast<int>(b.circuit.taps.size())) {
        m_tap = 0;
        for (const auto &[name, node] : b.circuit.taps) {
            if (name == b.gaugeTap)
                break;
            ++m_tap;
        }
        m_rpm = b.use.hotIdle_rpm;
        m_byDrill = false;
        m_oil_c = b.use.hotOil_c;
    }
    const auto answer = m_open.answers().ask(ask::diagnosis());
    m_progress->start();
    if (answer != nullptr && answer != m_shown)
        take(answer);
    else
        showNext(); // in the units chosen since
    showProgress();
}

/// Nothing stands then; it is asked again after the next change, or when the page comes back.
void DiagnosisPage::giveUp()
{
    m_open.answers().giveUp(ask::diagnosis().topic);
    take(nullptr);
    m_noAnswer = tr("Given up");
    showProgress();
    Q_EMIT changed();
}

void DiagnosisPage::showNext()
{
    m_scale->setAnswer(m_answer, m_candidate);
    m_scale->choose(m_reading);
    std::vector<RowList::Row> rows;
    if (m_answer)
        for (const NextStep &n : m_answer->answer->next)
            rows.push_back({ Mark::NotDone,
                             { qs(n.text), tr("%1 bit").arg(qs(formatNumber(n.bits, 2))),
                               tr("%1 min").arg(qs(formatNumber(n.minutes, 0))) } });
    m_next->setRows(std::move(rows));
}

void DiagnosisPage::take(std::shared_ptr<const AnsweredDiagnosis> answer)
{
    m_shown = answer;
    m_answer = answer && answer->answer ? answer : nullptr;
    m_noAnswer = answer && !answer->answer ? qs(answer->answer.error().message) : QString();
    m_candidate = 0;
    m_bars->setAnswer(m_answer);
    m_bars->choose(0);
    showNext();
    m_next->choose(-1);
}

void DiagnosisPage::showProgress()
{
    const Progress *under = m_open.answers().progress(ask::diagnosis().topic);
    if (!under)
        m_progress->stop();
    m_cancel->setVisible(under != nullptr);
    const Theme &t = Theme::current();
    setTone(m_advice, t.muted);
    if (under && under->whole > 0)
        m_verdict->setText(tr("trying every fault, %1")
                               .arg(Figure::percent(1.0 * under->done / under->whole).text()));
    else if (under)
        m_verdict->setText(tr("trying every fault"));
    else
        m_verdict->setText(m_answer ? qs(m_answer->answer->verdict) : m_noAnswer);
    QString advice = m_answer && !under ? qs(m_answer->answer->advice) : QString();
    if (!advice.isEmpty() && !advice.endsWith(u'.'))
        advice += u'.';
    m_advice->setText(advice);
}

PanelContent DiagnosisPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Find the fault"), {}, {} });
    if (m_answer)
        for (const std::string_view c : cautionsOf(m_answer->answer->next))
            out.push_back(PanelText { qs(c), Tone::Warn });
    candidatePanel(out);
    out.push_back(PanelRule {});
    readingPanel(out);
    out.push_back(PanelRule {});
    symptomPanel(out);
    return out;
}

void DiagnosisPage::candidatePanel(PanelContent &out) const
{
    if (!m_answer || m_answer->answer->candidates.empty())
        return;
    const Candidate &c
        = m_answer->answer
              ->candidates[std::min(m_candidate, m_answer->answer->candidates.size() - 1)];
    out.push_back(PanelHeading { qs(c.name) });
    out.push_back(PanelRow { tr("fits"), Figure::percent(c.posterior),
                             tr("before any reading: %1").arg(Figure::percent(c.prior).text()) });
    if (c.faults.empty())
        return;
    const Build &build = *m_answer->about.build;
    const Phrase much = severityText(build, c.faults.front());
    if (!much.empty())
        out.push_back(PanelText { c.severityKnown
                                      ? tr("Likely %1.").arg(qs(much))
                                      : tr("These readings do not show how severe it is."),
                                  Tone::Muted });
    if (!c.gaugesCanFrom)
        out.push_back(PanelText { tr("No pressure gauge can tell this one."), Tone::Bad });
    else if (!c.seenFrom)
        out.push_back(PanelText { tr("These readings do not tell it; other taps or speeds would."),
                                  Tone::Warn });
    else if (const Phrase from = severityAt(build, c, *c.seenFrom); !from.empty())
        out.push_back(PanelText { tr("Detectable from %1.").arg(qs(from)), Tone::Muted });
    for (const Look *l : c.looks)
        out.push_back(PanelText { tr("Would show it: %1, %2 min.")
                                      .arg(qs(l->text))
                                      .arg(qs(formatNumber(l->minutes, 0))) });
    if (c.places.size() > 1) {
        QStringList places;
        for (const Fault &f : c.places)
            places << qs(faultName(build, f));
        out.push_back(PanelText {
            tr("No gauge tells which: %1.").arg(places.join(QStringLiteral("; "))), Tone::Muted });
    }
    out.push_back(
        PanelButton { QStringLiteral("diagnosis.whatIf"), tr("Open as what-if"),
                      [open = &m_open, faults = c.faults] { open->showImagined(faults); } });
}

void DiagnosisPage::readingPanel(PanelContent &out)
{
    const Build &b = m_open.build();
    for (const GaugeReading *r : standing(b.gaugeReadings))
        if (r->id == m_reading) {
            out.push_back(PanelHeading { tr("This reading") });
            out.push_back(PanelText { qs(placeText(b, *r)) + QStringLiteral(": ")
                                      + Figure::pressure(r->pressure_kpa * 1e3).text()
                                      + QStringLiteral(" ± ")
                                      + Figure::pressure(r->u_kpa * 1e3).number });
            out.push_back(PanelButton { QStringLiteral("reading.takeBack"), tr("Take it back"),
                                        [open = &m_open, id = r->id] {
                                            saidIfRefused(open->takeBack("gauge_readings", id));
                                        } });
        }
    out.push_back(PanelHeading { tr("A gauge was read") });
    PanelChoice tap { QStringLiteral("reading.tap"), tr("at"), {}, m_tap, {} };
    for (const auto &[name, node] : b.circuit.taps)
        tap.options << qs(tapName(b, name));
    tap.chosen = [this](int i) -> Result<void> {
        m_tap = i;
        return {};
    };
    out.push_back(std::move(tap));
    const auto range = [](const Quantity &least, const Quantity &most) {
        return Phrase("field.range", "enter {0}", { QuantityRange { least, most } });
    };
    const auto keep = [](double *to, double least, double most, const Phrase &say) {
        return [=](double v) -> Result<void> {
            if (!(v >= least && v <= most))
                return fail("", say);
            *to = v;
            return {};
        };
    };
    out.push_back(PanelChoice { QStringLiteral("reading.turned"),
                                tr("turned"),
                                { tr("running"), tr("by a drill, crank at rest") },
                                m_byDrill ? 1 : 0,
                                [this](int i) -> Result<void> {
                                    m_byDrill = i == 1;
                                    if (m_byDrill)
                                        m_rpm = *m_open.build().start.value("drill_rpm");
                                    Q_EMIT changed();
                                    return {};
                                } });
    out.push_back(PanelField {
        QStringLiteral("reading.rpm"), m_byDrill ? tr("pump shaft") : tr("speed"), Dimension::Speed,
        "rev/min", 0, m_rpm,
        keep(&m_rpm, 1, mostGaugeReading_rpm, range(asSpeed(1), asSpeed(mostGaugeReading_rpm))) });
    out.push_back(PanelField {
        QStringLiteral("reading.oil"), tr("oil at"), Dimension::Temperature, "°C", 0, m_oil_c,
        keep(&m_oil_c, -60, 200, range(asTemperature(-60), asTemperature(200))) });
    out.push_back(PanelField { QStringLiteral("reading.u"), tr("reading uncertainty (1σ)"),
                               Dimension::Pressure, "bar", 2, m_u_pa,
                               keep(&m_u_pa, 100, 5e5, "must be above 0") });
    out.push_back(PanelField {
        QStringLiteral("reading.pressure"), tr("it reads"), Dimension::Pressure, "bar", 2,
        std::nullopt, [this, range](double pa) -> Result<void> {
            if (!(pa >= 0 && pa <= mostGaugeReading_kpa * 1e3))
                return fail("", range(asPressure(0, 0), asPressure(mostGaugeReading_kpa * 1e3, 0)));
            recordReading(pa);
            return {};
        } });
    out.push_back(PanelText { tr("Oil: %1. Enter on the pressure records it.").arg(qs(b.oil.grade)),
                              Tone::Muted });
}

void DiagnosisPage::recordReading(double pressure_pa)
{
    GaugeReading r;
    int i = 0;
    for (const auto &[name, node] : m_open.build().circuit.taps)
        if (i++ == m_tap)
            r.tap = name;
    r.rpm = m_rpm;
    r.byDrill = m_byDrill;
    r.oil_c = m_oil_c;
    r.pressure_kpa = pressure_pa / 1e3;
    r.u_kpa = m_u_pa / 1e3;
    r.oil = m_open.build().oil.grade;
    if (!findOil(m_open.build(), r.oil))
        r.oil.clear();
    // The same place read again corrects what stands there.
    for (const GaugeReading *old : standing(m_open.build().gaugeReadings))
        if (old->tap == r.tap && old->rpm == r.rpm && old->byDrill == r.byDrill
            && old->oil_c == r.oil_c && old->oil == r.oil)
            r.replaces = old->id;
    saidIfRefused(m_open.record(r));
}

void DiagnosisPage::symptomPanel(PanelContent &out) const
{
    out.push_back(PanelHeading { tr("Heard or seen") });
    for (const SymptomKind &kind : symptomKinds()) {
        if (kind.id == otherNoise)
            continue; // speaks for nothing; logged on After run
        const Symptom *said = nullptr;
        for (const Symptom *s : standing(m_open.build().symptoms))
            if (s->symptom == kind.id)
                said = s;
        PanelChoice c { QStringLiteral("symptom.") + qs(kind.id),
                        qs(kind.text),
                        { tr("not said"), tr("yes"), tr("no") },
                        !said             ? 0
                            : said->there ? 1
                                          : 2,
                        {} };
        c.chosen = [open = &m_open, id = std::string(kind.id),
                    old = said ? said->id : std::string()](int i) -> Result<void> {
            if (i == 0)
                return old.empty() ? Result<void> {} : open->takeBack("symptoms", old);
            Symptom s;
            s.symptom = id;
            s.there = i == 1;
            s.replaces = old;
            return outcome(open->record(s));
        };
        out.push_back(std::move(c));
    }
    out.push_back(PanelText {
        tr("With no pressure, stop at once: minutes undo months. Hair, sleeves, leads clear of "
           "belts."),
        Tone::Muted });
}

} // namespace mildpath
