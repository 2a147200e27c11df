// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/oilpage.h"

#include "assess/operating.h"
#include "bench/after/oillanes.h"
#include "bench/after/tablefile.h"
#include "checks/assessment.h"
#include "diagnose/faults.h"
#include "document/logbook.h"
#include "entry/entryform.h"
#include "entry/quantityfield.h"
#include "entry/refusal.h"
#include "open/questions.h"
#include "paint/titledcard.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"
#include "storage/evidencetables.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QRegularExpression>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {

Result<std::map<std::string, double>> elementsFromText(const QString &text)
{
    // A laboratory's line: a symbol, a number, commas or semicolons between as they like.
    static const QRegularExpression one(
        QStringLiteral("([A-Za-z]{1,2})\\s*[:=]?\\s*([0-9]+(?:\\.[0-9]+)?)"));
    std::map<std::string, double> out;
    QString rest = text;
    for (auto it = one.globalMatch(text); it.hasNext();) {
        const auto match = it.next();
        QString symbol = match.captured(1).toLower();
        symbol[0] = symbol[0].toUpper();
        const std::string id = symbol.toStdString();
        if (!findOilElement(id))
            return fail(
                "",
                QObject::tr("“%1” is no element of a used-oil sheet").arg(symbol).toStdString());
        if (!out.emplace(id, match.captured(2).toDouble()).second)
            return fail("", QObject::tr("%1 is there twice").arg(symbol).toStdString());
    }
    rest.remove(one);
    static const QRegularExpression between(QStringLiteral("[\\s,;]+"));
    rest.remove(between);
    if (!rest.isEmpty())
        return fail("",
                    QObject::tr("“%1” is not understood; write “Fe 32, Cu 18”, in ppm (mg/kg), "
                                "with decimal points")
                        .arg(rest)
                        .toStdString());
    return out;
}

OilPage::OilPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_lanes(new OilLanes(nullptr))
{
    setObjectName(QStringLiteral("oilPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(
        titledCard(tr("Elements in the oil; dashed: what the new oil brings"), m_lanes, this), 1);
    auto *card = new CardWidget(this);
    makeEntry(card);
    column->addWidget(card);
    connect(m_lanes, &OilLanes::picked, this,
            [this](const QString &sample, const QString &element) {
                m_sample = sample.toStdString();
                m_element = element.toStdString();
                refresh();
                Q_EMIT changed();
            });
    connect(&open, &OpenBuild::opened, this, [this] {
        m_sample.clear();
        m_element.clear();
        m_form->clear();
    });
}

void OilPage::makeEntry(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 6, 12, 8);
    column->setSpacing(3);
    auto *head = new QHBoxLayout;
    auto *title = new QLabel(tr("An analysis"), card);
    title->setFont(textFont(TextSize::Normal, true));
    head->addWidget(title, 1);
    addTableButton(
        head, QStringLiteral("oil.table"), this,
        [this](const std::string &text) { return importTable(text); },
        [this](const QString &why) { m_form->say(why); });
    auto *done = new QPushButton(tr("Record"), card);
    done->setObjectName(QStringLiteral("oil.record"));
    done->setProperty("main", true);
    head->addWidget(done);
    column->addLayout(head);
    m_form = new EntryForm(QStringLiteral("oil"), 5, card);
    m_form->addChoice("of", tr("Of"),
                      { { QStringLiteral("used"), tr("oil that ran") },
                        { QStringLiteral("new"), tr("the new oil") } });
    m_form->addWord("oil", tr("Which oil and batch"), tr("SAE 15W-40, drum 3"));
    const RecordType &type = recordType<OilSample>();
    m_form->addNumber(type, "engine_hours_h", tr("Engine ran"), 1);
    m_form->addNumber(type, "oil_hours_h", tr("Oil in for"), 1);
    m_form->addNumber(type, "oil_added_kg", tr("Topped up"), 2);
    m_form->addNumber(type, "water_percent", tr("Water"), 2);
    m_form->addNumber(type, "fuel_percent", tr("Fuel"), 1);
    m_form->addNumber(type, "kv40_mm2_s", tr("At %1").arg(Figure::temperature(40).text()), 1);
    m_form->addNumber(type, "kv100_mm2_s", tr("At %1").arg(Figure::temperature(100).text()), 2);
    m_form->addWord("elements", tr("Elements, ppm"), tr("Fe 32, Cu 18, Pb 9"));
    column->addWidget(m_form);
    connect(m_form, &EntryForm::changed, this, &OilPage::showKind);
    connect(m_form, &EntryForm::submitted, this, &OilPage::record);
    connect(done, &QPushButton::clicked, this, &OilPage::record);
}

/// New oil has run no hours.
void OilPage::showKind()
{
    const bool used = m_form->choice("of") == "used";
    for (const char *key :
         { "engine_hours_h", "oil_hours_h", "oil_added_kg", "water_percent", "fuel_percent" })
        m_form->setShown(key, used);
}

void OilPage::record()
{
    OilSample s;
    s.of = m_form->choice("of");
    s.oil = m_form->word("oil");
    m_form->fill(s);
    if (s.of == "used") {
        if (!m_form->number("engine_hours_h") || !m_form->number("oil_hours_h"))
            return m_form->say(tr("Enter the hours of engine and oil: without them there is no "
                                  "rate."));
        for (const OilSample *other : standing(m_open.build().oilSamples))
            if (other->of == "used" && other->engine_h == s.engine_h)
                return m_form->say(
                    tr("A sample at %1 h is there already. Take it back, or correct the hours.")
                        .arg(qs(formatPlain(s.engine_h, 1))));
    }
    auto elements = elementsFromText(QString::fromStdString(m_form->word("elements")));
    if (!elements)
        return m_form->say(qs(elements.error().message));
    s.elements = std::move(*elements);
    if (s.elements.empty() && !s.kv100_mm2_s)
        return m_form->say(tr("Enter at least an element or a viscosity."));
    if (const auto done = m_open.record(s); !done)
        return m_form->say(qs(done.error().message));
    if (s.of == "used")
        m_sample = m_open.build().oilSamples.back().id;
    m_form->clear();
    m_form->focusFirst();
    refresh();
    Q_EMIT changed();
}

QString OilPage::importTable(const std::string &text)
{
    const SampleImport table = samplesFromTable(m_open.build(), text);
    return takeTable(table.errors, table.samples, tr("%1 oil samples").arg(table.samples.size()),
                     m_open);
}

const OilSample *OilPage::chosen() const
{
    for (const OilSample *s : standing(m_open.build().oilSamples))
        if (s->id == m_sample)
            return s;
    return nullptr;
}

const OilReport &OilPage::report() const
{
    return m_open.answers().now(ask::usedOil())->answer;
}

const JudgedSample *OilPage::judged() const
{
    const auto it = std::ranges::find(report().samples, m_sample, &JudgedSample::id);
    return it == report().samples.end() ? nullptr : &*it;
}

Result<void> OilPage::amend(OilSample next)
{
    next.replaces = next.id;
    next.by.clear();
    next.at.clear();
    const auto done = m_open.record(next);
    m_sample = done.value_or(m_sample);
    refresh();
    Q_EMIT changed();
    return outcome(done);
}

void OilPage::refresh()
{
    if (!judged())
        m_sample = report().samples.empty() ? "" : report().samples.back().id;
    if (std::ranges::find(report().symbols, m_element) == report().symbols.end())
        m_element.clear();
    // Something that rang is looked at first.
    if (const JudgedSample *j = judged(); j && m_element.empty())
        for (const JudgedElement &e : j->elements)
            if (m_element.empty() || (e.alarm && !j->element(m_element)->alarm))
                m_element = e.symbol;
    m_lanes->show(m_open.build(), report(), m_sample, m_element);
    showKind();
}

QString OilPage::about() const
{
    if (report().samples.empty())
        return tr("no sample yet");
    const JudgedSample &last = report().samples.back();
    return tr("%1; last at %2 h: %3")
        .arg(counted(report().samples.size(), tr("sample"), tr("samples")),
             qs(formatPlain(last.engine_h, 0)), qs(last.verdict));
}

void OilPage::takeFocus()
{
    m_form->focusFirst();
}

PanelContent OilPage::panel()
{
    PanelContent out;
    const JudgedSample *j = judged();
    const OilSample *s = chosen();
    if (j && s)
        samplePanel(*s, *j, out);
    out.push_back(PanelText {
        tr("An element can come from the new oil's own additives: the new oil's analysis is taken "
           "off first. The laboratory sees only the smallest particles, up to %1; what is "
           "larger lies in the filter.")
            .arg(inWords(QuantityRange { asWholeClearance(5), asWholeClearance(10) })),
        Tone::Muted });
    out.push_back(PanelHeading { tr("Reckoned with") });
    out.push_back(sectionField(m_open, "after", "sump_kg"));
    if (report().sump_kg)
        out.push_back(PanelRow { tr("Oil in the engine, kg"),
                                 { qs(formatNumber(*report().sump_kg, 2)), {}, {} },
                                 qs(report().sumpFrom) });
    out.push_back(sectionField(m_open, "after", "first_hours_h"));
    const auto news = standing(m_open.build().oilSamples);
    for (const OilSample *n : news)
        if (n->of == "new")
            out.push_back(PanelRow { tr("New oil analysed"),
                                     { n->oil.empty() ? tr("yes") : qs(n->oil), {}, {} } });
    out.push_back(PanelRule {});
    addWorking(out, { "wear-rate", "fuel-dilution" });
    return out;
}

void OilPage::samplePanel(const OilSample &s, const JudgedSample &j, PanelContent &out)
{
    out.push_back(
        PanelTitle { tr("Sample at %1 h").arg(qs(formatPlain(j.engine_h, 0))),
                     tr("%1 h on this oil, rates over %2 h")
                         .arg(qs(formatPlain(s.oil_h, 0)), qs(formatPlain(j.stretch_h, 0))) });
    out.push_back(PanelVerdict { j.mark, qs(j.verdict), {} });
    for (const Phrase &r : j.remarks)
        out.push_back(PanelText { qs(r), Tone::Warn });
    elementPanel(j, out);
    forecastPanel(s, out);
    out.push_back(PanelWord { QStringLiteral("oil.settled"), tr("What was done about it"),
                              qs(s.settled), [this, sample = s](const QString &text) {
                                  OilSample next = sample;
                                  next.settled = text.trimmed().toStdString();
                                  return next.settled == sample.settled ? Result<void> {}
                                                                        : amend(next);
                              } });
    out.push_back(PanelButton {
        QStringLiteral("oil.takeBack"), tr("Take this sample back"),
        [open = &m_open, id = s.id] { saidIfRefused(open->takeBack("oil_samples", id)); } });
    out.push_back(PanelRule {});
}

void OilPage::elementPanel(const JudgedSample &j, PanelContent &out) const
{
    const JudgedElement *e = j.element(m_element);
    if (!e)
        return;
    const OilElement *kind = findOilElement(e->symbol);
    out.push_back(PanelHeading { (kind ? qs(kind->name) : qs(e->symbol))
                                 + QStringLiteral(" (%1)").arg(qs(e->symbol)) });
    out.push_back(PanelVerdict { e->mark, qs(e->verdict), {} });
    if (kind && !kind->parts.empty())
        out.push_back(PanelText { tr("Common practice: from %1.").arg(qs(kind->parts)) });
    if (kind && !kind->additive.empty())
        out.push_back(PanelText { tr("New oil may carry it: %1.").arg(qs(kind->additive)) });
    const auto row = [&](const QString &label, double v, int decimals, const QString &unit) {
        out.push_back(PanelRow { label, { qs(formatNumber(v, decimals)), unit, {} } });
    };
    row(tr("In the sample"), e->mg_kg, 1, QStringLiteral("ppm"));
    if (e->baseline_mg_kg)
        row(tr("In the new oil"), *e->baseline_mg_kg, 1, QStringLiteral("ppm"));
    else
        out.push_back(PanelRow { tr("In the new oil"),
                                 { e->assumed ? tr("taken as 0") : tr("not analysed"), {}, {} } });
    if (!e->wear)
        return;
    row(tr("Gain without make-up"), e->wear->gain_mg_kg, 1, QStringLiteral("ppm"));
    row(tr("Metal worn off"), e->wear->mass_mg, 0, QStringLiteral("mg"));
    row(tr("In 100 h"), e->wear->per100h_mg_kg, 1, QStringLiteral("ppm"));
    if (!e->pattern)
        return;
    row(tr("Earlier median, of %1").arg(e->earlier), e->pattern->median, 1, QStringLiteral("ppm"));
    if (e->pattern->z)
        row(tr("Deviation from usual (σ)"), *e->pattern->z, 1, QString());
}

/// What the sampled oil would do to the pressure.
void OilPage::forecastPanel(const OilSample &s, PanelContent &out) const
{
    const JudgedSample *j = judged();
    if (j && !j->viscosity.empty())
        out.push_back(PanelVerdict { j->viscosityMark, tr("Viscosity"), qs(j->viscosity) });
    if (!s.kv100_mm2_s && !s.fuel_percent)
        return;
    const Assessment &a = m_open.assessment();
    const auto with = hotIdleWithSample(m_open.build(), a, s);
    if (!with || m_open.operating().unsolved)
        return;
    out.push_back(PanelChange {
        tr("Hot idle with it"), Figure::pressure(m_open.operating().hotIdle.gauge.value_pa),
        Figure::pressure(with->gauge.value_pa),
        with->gauge.value_pa < m_open.build().use.hotIdleFloor_kpa * 1e3 ? Tone::Bad
                                                                         : Tone::Plain });
    imaginePanel(s, out);
}

/// The fuel of the sample as a what-if: the map and the forecast then show it everywhere.
void OilPage::imaginePanel(const OilSample &s, PanelContent &out) const
{
    const FaultKind *kind = findFaultKind("fuel_in_oil");
    const double fuel = s.fuel_percent.value_or(0) / 100;
    if (!kind || !(fuel > 0) || fuel > kind->most)
        return;
    for (const Stop &stop : m_open.build().engine.stops)
        if (happensAt(*kind, stop)) {
            out.push_back(PanelButton {
                QStringLiteral("oil.imagine"), tr("Show this fuel on the map"),
                [open = &m_open, f = Fault { "fuel_in_oil", stop.id, 0, fuel / kind->most }] {
                    open->showImagined({ f });
                } });
            return;
        }
}

} // namespace mildpath
