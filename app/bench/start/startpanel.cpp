// SPDX-License-Identifier: GPL-3.0-or-later
// What the side panel says of the gate and the run card.
#include "bench/start/startpage.h"

#include "assess/flowproof.h"
#include "devices/serialsender.h"
#include "document/logbook.h"
#include "entry/refusal.h"
#include "kinds/cautions.h"
#include "shell/stopfields.h"

#include <algorithm>

namespace mildpath {
namespace {

const QStringList &sights()
{
    static const QStringList words { QObject::tr("oil comes"), QObject::tr("only little"),
                                     QObject::tr("nothing comes") };
    return words;
}

/// Outlets that do not fill at the end of a row whose beginning does: behind them something is open
/// or shut.
bool lastOnesDry(const FlowProof &proof)
{
    const auto dry = [](const FlowOutlet &o) { return o.seen && o.seen->saw == "dry"; };
    return proof.outlets.size() > 1 && dry(proof.outlets.back()) && proof.outlets.front().seen
        && proof.outlets.front().seen->saw == "flows";
}

} // namespace

PanelContent StartPage::panel()
{
    PanelContent out;
    judge();
    const CardItem *i = item();
    cautionsPanel(out);
    if (i)
        stepPanel(*i, out);
    if (!i || i->kind != CardKind::Gate) {
        out.push_back(PanelRule {});
        holdsPanel(out);
    }
    explainedPanel(out);
    out.push_back(PanelRule {});
    senderPanel(out);
    if (i && !i->locked)
        numbersPanel(*i, out);
    return out;
}

void StartPage::senderPanel(PanelContent &out)
{
    out.push_back(PanelHeading { tr("Sender") });
    out.push_back(PanelWord { QStringLiteral("start.port"), tr("Port"), m_sender->portName(),
                              [this](const QString &port) -> Result<void> {
                                  if (port.trimmed().isEmpty()) {
                                      m_sender->close();
                                      return {};
                                  }
                                  return m_sender->open(port.trimmed());
                              } });
    if (m_sender->state() != SerialLine::State::Off)
        out.push_back(PanelButton { QStringLiteral("start.disconnect"), tr("Disconnect"),
                                    [this] { m_sender->close(); } });
    else
        for (const QString &port : SerialLine::ports())
            out.push_back(PanelButton { QStringLiteral("start.listen.") + port,
                                        tr("Listen to %1").arg(port), [this, port] {
                                            if (const auto ok = m_sender->open(port); !ok)
                                                Q_EMIT complained(qs(ok.error().message));
                                        } });
}

void StartPage::stepPanel(const CardItem &i, PanelContent &out)
{
    out.push_back(PanelTitle { qs(i.text), {} });
    if (!i.threshold.empty())
        out.push_back(PanelText { qs(i.threshold), Tone::Muted });
    if (!i.caution.empty())
        out.push_back(PanelText { qs(i.caution), Tone::Warn });
    if (i.mark != Mark::NotDone || !i.said.empty())
        out.push_back(PanelVerdict { i.mark, qs(markWord(i.mark)),
                                     qs(joinedBy({ i.said, i.why }, "{*|; }")) });
    if (i.locked) {
        out.push_back(PanelText { tr("Not yet: %1.").arg(qs(i.why)), Tone::Bad });
        return;
    }
    switch (i.kind) {
    case CardKind::Prime:
        primePanel(out);
        [[fallthrough]];
    case CardKind::Tick:
    case CardKind::Start:
        tickPanel(i, out);
        break;
    case CardKind::Choice:
        choicePanel(i, out);
        break;
    case CardKind::Watch:
        watchPanel(i, out);
        break;
    case CardKind::Read:
        readPanel(i, out);
        break;
    case CardKind::Gate:
        gatePanel(out);
        break;
    }
    if (i.done)
        out.push_back(PanelButton { QStringLiteral("card.takeBack"), tr("Take back"),
                                    [open = &m_open, id = i.done->id] {
                                        saidIfRefused(open->takeBack("card_steps", id));
                                    } });
}

/// What the gauge came to rest at: it narrows the forecast like any other reading.
Result<void> StartPage::takePriming(double pressure_pa)
{
    const CardItem *step = card().find("prime");
    if (!step || !(pressure_pa >= 0 && pressure_pa <= mostGaugeReading_kpa * 1e3))
        return fail(
            "",
            { "field.range",
              "enter {0}",
              { QuantityRange { asPressure(0, 0), asPressure(mostGaugeReading_kpa * 1e3, 0) } } });
    const bool gone = step->done && step->done->outcome == "done";
    GaugeReading g;
    g.tap = m_open.build().gaugeTap;
    g.byDrill = prime().drill;
    g.rpm = g.byDrill ? prime().shaft_rpm : prime().crank_rpm;
    g.oil_c = prime().oil_c;
    g.pressure_kpa = pressure_pa / 1e3;
    g.note = mildpath::render(step->text, fileStyle);
    const RunPoint read { 0, g.pressure_kpa, std::nullopt, g.oil_c };
    if (auto ok = m_open.record(std::move(g)); !ok)
        return outcome(ok);
    return gone ? Result<void> {} : goThrough("prime", "done", &read);
}

/// What a step's threshold is made from.
void StartPage::numbersPanel(const CardItem &i, PanelContent &out)
{
    std::vector<const char *> keys;
    if (i.id == "drive" || i.id == "prime_by")
        keys = { prime().drill ? "drill_rpm" : "starter_rpm" };
    else if (i.id == "prefill")
        keys = { "filter_l" };
    else if (i.id == "warm_up" || i.id == "hot_idle")
        keys = { "hot_after_min" };
    else if (i.id == "fast")
        keys = { "fast_rpm" };
    else if (i.kind == CardKind::Start)
        keys = { "pressure_within_s" };
    else if (i.kind == CardKind::Prime)
        keys = { prime().drill ? "drill_rpm" : "starter_rpm",
                 "burst_s",
                 "rest_s",
                 "filter_l",
                 "cooler_l",
                 "other_l",
                 "suction_l",
                 "oil_temp_c" };
    if (keys.empty())
        return;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Numbers of this step") });
    for (const char *key : keys)
        out.push_back(numberField(key));
    out.push_back(PanelText { tr("Where nothing is entered the usual stands: common practice or "
                                 "assumption, no source."),
                              Tone::Muted });
    if (i.kind != CardKind::Prime)
        return;
    addWorking(out, { "prime-volume", "prime-lift", "prime-time" });
}

void StartPage::tickPanel(const CardItem &i, PanelContent &out)
{
    const std::string id(i.id);
    const bool ran = i.kind == CardKind::Prime || i.kind == CardKind::Start;
    const std::pair<const char *, QString> ways[] = {
        { "done", ran ? tr("Pressure came") : tr("Yes") },
        { "not_so", ran ? tr("No pressure") : tr("Not so") },
        { "skipped", tr("Skip it") },
    };
    for (const auto &[outcome, text] : ways) {
        const bool skip = std::string_view(outcome) == "skipped";
        if ((i.kind == CardKind::Start && skip) || (i.kind == CardKind::Read && !skip))
            continue;
        out.push_back(PanelButton {
            QStringLiteral("card.") + QLatin1String(outcome), text,
            [this, id, way = std::string(outcome)] { static_cast<void>(goThrough(id, way)); } });
    }
}

void StartPage::choicePanel(const CardItem &i, PanelContent &out)
{
    PanelChoice c { QStringLiteral("card.answer"), tr("Recorded"), {}, -1, {} };
    const std::string now = choiceOf(m_open.build(), i.question);
    std::vector<std::string> ids;
    for (const CardAnswer &a : i.answers) {
        out.push_back(PanelText { qs(a.text) + QStringLiteral(": ") + qs(a.reason), Tone::Muted });
        if (a.id == now)
            c.current = static_cast<int>(ids.size());
        c.options << qs(a.text);
        ids.emplace_back(a.id);
    }
    c.chosen = [open = &m_open, question = std::string(i.question), ids](int k) {
        return open->choose(question, ids[static_cast<size_t>(k)]);
    };
    out.push_back(std::move(c));
}

PanelField StartPage::numberField(const char *key) const
{
    return startField(m_open, *findKey(startKeys(), key));
}

void StartPage::primePanel(PanelContent &out)
{
    const PrimeTime &t = prime().time;
    const auto seconds = [](const std::optional<double> &s) {
        return s ? Shown { qs(formatNumber(*s, 0)), QStringLiteral("s"), {} }
                 : Shown { tr("never"), {}, {} };
    };
    out.push_back(PanelRow { tr("To fill"), Figure::volume(prime().volume_m3()) });
    for (const PrimeVolume &v : prime().volumes)
        out.push_back(PanelRow { QStringLiteral("  ") + qs(v.name), Figure::volume(v.volume_m3),
                                 qs(v.from) });
    out.push_back(PanelRow { tr("Pressure at the earliest"), seconds(t.low_s) });
    out.push_back(PanelRow { tr("Pressure at the latest"), seconds(t.high_s) });
    out.push_back(PanelRow { tr("Stop and look"), seconds(t.stop_s) });
    out.push_back(PanelRow { tr("Then at the gauge"),
                             shown(QuantityRange { asPressure(prime().steady.low_pa),
                                                   asPressure(prime().steady.high_pa) }) });
    out.push_back(PanelField { QStringLiteral("card.prime_pressure"), tr("It settled at"),
                               Dimension::Pressure, "bar", 2, std::nullopt,
                               [this](double pa) { return takePriming(pa); } });
    if (prime().dryLift_m)
        out.push_back(
            PanelText { tr("Pump is %1 above the oil; dry, it lifts about %2 (uncertain by a "
                           "factor of 2 to 3).")
                            .arg(inWords(asLength(prime().lift_m * 1e3, 0)),
                                 inWords(asLength(*prime().dryLift_m * 1e3, 0))),
                        t.time_s ? Tone::Muted : Tone::Bad });
}

void StartPage::watchPanel(const CardItem &i, PanelContent &out)
{
    const std::string means = m_open.build().cardSteps.empty() || !card().find("start")->done
        ? (prime().drill ? "drill" : "starter")
        : "running";
    const auto record
        = [open = &m_open, means](const std::string &stop, int outlet, const std::string &saw) {
              FlowSeen f;
              f.stop = stop;
              f.outlet = outlet;
              f.saw = saw;
              f.means = means;
              f.oil = open->build().oil.grade;
              return outcome(open->record(f));
          };
    for (const std::string &id : i.watched) {
        const Stop *stop = m_open.build().engine.find(id);
        const FlowProof proof = flowProof(m_open.build(), *stop);
        out.push_back(PanelHeading { qs(stop->name) });
        out.push_back(PanelButton { QStringLiteral("watch.all.") + qs(id), tr("Oil comes at all"),
                                    [record, id] { saidIfRefused(record(id, 0, "flows")); } });
        for (size_t k = 0; k < proof.outlets.size(); ++k) {
            const FlowOutlet &o = proof.outlets[k];
            PanelChoice c { QStringLiteral("watch.") + qs(id) + u'.' + QString::number(k + 1),
                            qs(o.name),
                            sights(),
                            -1,
                            {} };
            const auto words = flowSights();
            for (size_t w = 0; o.seen && w < words.size(); ++w)
                if (o.seen->saw == words[w])
                    c.current = static_cast<int>(w);
            const int outlet = proof.outlets.size() > 1 ? static_cast<int>(k) + 1 : 0;
            c.chosen = [record, id, outlet](int w) {
                return record(id, outlet, std::string(flowSights()[static_cast<size_t>(w)]));
            };
            out.push_back(std::move(c));
        }
        if (!lastOnesDry(proof))
            continue;
        const auto symptoms = standing(m_open.build().symptoms);
        const bool said = std::any_of(symptoms.begin(), symptoms.end(), [](const Symptom *s) {
            return s->symptom == "last_lifters_dry" && s->there;
        });
        if (!said)
            out.push_back(PanelButton { QStringLiteral("watch.tell"),
                                        tr("Tell the diagnosis: the last do not fill"),
                                        [open = &m_open] {
                                            Symptom s;
                                            s.symptom = "last_lifters_dry";
                                            saidIfRefused(open->record(s));
                                        } });
    }
    if (!i.done)
        out.push_back(PanelButton {
            QStringLiteral("card.skipped"), tr("Skip it"),
            [this, id = std::string(i.id)] { static_cast<void>(goThrough(id, "skipped")); } });
}

void StartPage::readPanel(const CardItem &i, PanelContent &out)
{
    if (i.expected)
        out.push_back(
            PanelRow { tr("Expected at %1, oil %2")
                           .arg(Figure::speed(i.rpm).text(), Figure::temperature(i.oil_c).text()),
                       Figure::pressure(i.expected->value_pa), qs(i.threshold) });
    out.push_back(PanelText { tr("With a sender: hold the speed and take the reading. By hand: "
                                 "type what the gauge says."),
                              Tone::Muted });
    const double rpm = m_typed.rpm.value_or(i.rpm), oil = m_typed.oil_c.value_or(i.oil_c);
    out.push_back(PanelField { QStringLiteral("card.rpm"), tr("Speed"), Dimension::Speed, "rev/min",
                               0, rpm, [this](double v) -> Result<void> {
                                   if (!(v > 0 && v <= mostGaugeReading_rpm))
                                       return fail("",
                                                   { "field.above_0",
                                                     "enter above 0, at most {0}",
                                                     { asSpeed(mostGaugeReading_rpm) } });
                                   m_typed.rpm = v;
                                   return {};
                               } });
    out.push_back(PanelField {
        QStringLiteral("card.oil"), tr("Oil"), Dimension::Temperature, "°C", 0, oil,
        [this](double v) -> Result<void> {
            if (!(v >= -60 && v <= 200))
                return fail("",
                            { "field.range",
                              "enter {0}",
                              { QuantityRange { asTemperature(-60), asTemperature(200) } } });
            m_typed.oil_c = v;
            return {};
        } });
    out.push_back(PanelField {
        QStringLiteral("card.pressure"), tr("Gauge"), Dimension::Pressure, "bar", 2, std::nullopt,
        [this, id = std::string(i.id), rpm, oil](double v) -> Result<void> {
            const CardItem *now = card().find(id);
            if (!(v >= 0 && v <= mostGaugeReading_kpa * 1e3))
                return fail("",
                            { "field.range",
                              "enter {0}",
                              { QuantityRange { asPressure(0, 0),
                                                asPressure(mostGaugeReading_kpa * 1e3, 0) } } });
            return now ? takeReading(
                       *now, { 0, v / 1e3, m_typed.rpm.value_or(rpm), m_typed.oil_c.value_or(oil) })
                       : Result<void> {};
        } });
    tickPanel(i, out);
}

/// What is open in short; the list of checks is where it is answered and signed for.
void StartPage::holdsPanel(PanelContent &out)
{
    const StartGate &g = gate();
    out.push_back(PanelHeading { qs(g.says()), g.mayStart() ? Tone::Good : Tone::Bad });
    for (const GateGroup &group : g.open)
        for (const Check *c : group.checks)
            if (c->state == CheckState::Hold)
                out.push_back(PanelVerdict { markOf(*c), qs(c->statement()), qs(c->reason) });
    if (!g.mayStart())
        out.push_back(PanelButton { QStringLiteral("gate.open"), tr("Show what is open"),
                                    [this] { showStep(QStringLiteral("gate")); } });
}

/// By stage: what shuts the gate, then what was signed off, to be read aloud.
void StartPage::gatePanel(PanelContent &out)
{
    const StartGate &g = gate();
    out.push_back(PanelHeading { qs(g.says()), g.mayStart() ? Tone::Good : Tone::Bad });
    out.push_back(PanelButton { QStringLiteral("gate.checks"), tr("Answer and sign: the list"),
                                [this] { Q_EMIT checksAsked(); } });
    std::optional<Stage> stage;
    for (const GateGroup &group : g.open) {
        if (stage != group.kind->stage) {
            stage = group.kind->stage;
            out.push_back(PanelRule {});
            out.push_back(PanelHeading { qs(aboutStage(*stage).name) });
        }
        out.push_back(PanelVerdict { group.mark(), qs(group.kind->statement),
                                     group.holds > 0 ? qs(group.checks.front()->reason)
                                                     : qs(group.where()) });
    }
    for (const Check *c : g.signedOff)
        out.push_back(PanelVerdict { markOf(*c), qs(c->statement()), qs(c->reason) });
}

/// By value: the panel is another one by then.
void StartPage::goTo(Place place, QString stop)
{
    if (!stop.isEmpty())
        m_open.selectStop(stop);
    Q_EMIT benchAsked(place);
}

void StartPage::explainedPanel(PanelContent &out) const
{
    if (!m_diagnosis || !m_diagnosis->answer)
        return;
    const Diagnosis &d = *m_diagnosis->answer;
    constexpr size_t most = 3;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("What you saw, explained") });
    for (size_t i = 0; i < d.candidates.size() && i < most; ++i) {
        const Candidate &c = d.candidates[i];
        out.push_back(PanelRow { c.faults.empty() && !c.unlisted ? tr("nothing wrong") : qs(c.name),
                                 Figure::percent(c.posterior) });
    }
    if (!d.advice.empty())
        out.push_back(PanelText { qs(d.advice) });
}

void StartPage::cautionsPanel(PanelContent &out) const
{
    out.push_back(PanelText { qs(caution::start()), Tone::Warn });
    out.push_back(PanelRule {});
}

} // namespace mildpath
