// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/buildsheet.h"

#include "assess/airreport.h"
#include "assess/cannotknow.h"
#include "assess/figuremarks.h"
#include "assess/flowproof.h"
#include "checks/assessment.h"
#include "checks/verdicttable.h"
#include "document/dimensions.h"
#include "document/logbook.h"
#include "kinds/cautions.h"
#include "quantity/dates.h"
#include "report/aftersheet.h"
#include "report/pictures.h"
#include "report/sheetrecords.h"
#include "report/summarypictures.h"
#include "start/afterwards.h"
#include "start/runcard.h"

#include <algorithm>
#include <functional>
#include <iterator>

namespace mildpath {
namespace {

std::string spaced(std::string id)
{
    std::replace(id.begin(), id.end(), '_', ' ');
    return id;
}
Phrase likely(const LikelyPressure &p)
{
    return { "sheet.likely",
             "{0}, likely {1}",
             { asPressure(p.value_pa),
               QuantityRange { asPressure(p.low_pa), asPressure(p.high_pa) } } };
}
Phrase condition(std::string_view pattern, const OperatingResult &r)
{
    return { "", pattern, { asSpeed(r.rpm), asTemperature(r.oil_c) } };
}

class Writer
{
public:
    Writer(const Build &build, const Assessment &assessment, const std::string &date,
           const UnitStyle &style)
        : m_build(build)
        , m_assessment(assessment)
        , m_gate(gateOf(assessment))
        , m_prime(primeForecast(build, assessment))
        , m_card(runCardOf(build, assessment, m_prime, m_gate))
        , m_date(date)
    {
        m_out.style = style;
    }

    BuildSheet run()
    {
        head();
        firstPage();
        section("All that is open");
        holds();
        section("Sizes and instruments");
        add(instrumentBlocks(m_build));
        clearances();
        add(weightBlocks(m_build));
        add(ownBlocks(m_assessment));
        section("Passages, plugs, bolts");
        add(plugBlocks(m_build, m_assessment));
        add(cleaningBlocks(m_build));
        add(torqueBlocks(m_build, m_assessment));
        add(lineBlocks(m_build, m_assessment));
        add(findBlocks(m_build));
        add(failureBlocks(m_build, m_assessment));
        stops();
        proofs();
        section("Forecast");
        forecast();
        section("Priming and first start");
        start();
        readings();
        after();
        section("How it was worked out");
        air();
        choices();
        worked();
        dropEmpty();
        m_out.blocks.emplace_back(SheetNotes {});
        return std::move(m_out);
    }

private:
    /// No heading over nothing.
    void dropEmpty()
    {
        std::vector<SheetBlock> kept;
        for (auto b = m_out.blocks.rbegin(); b != m_out.blocks.rend(); ++b) {
            const auto *h = std::get_if<SheetHeading>(&*b);
            const auto *next = kept.empty() ? nullptr : std::get_if<SheetHeading>(&kept.back());
            if (h && (kept.empty() || (next && (next->section || !h->section))))
                continue;
            kept.push_back(std::move(*b));
        }
        m_out.blocks.assign(std::make_move_iterator(kept.rbegin()),
                            std::make_move_iterator(kept.rend()));
    }

    void heading(Phrase text) { m_out.blocks.push_back(SheetHeading { std::move(text) }); }
    void section(Phrase text) { m_out.blocks.push_back(SheetHeading { std::move(text), true }); }
    void add(std::vector<SheetBlock> blocks)
    {
        std::ranges::move(blocks, std::back_inserter(m_out.blocks));
    }
    void text(Phrase text, bool muted = false)
    {
        m_out.blocks.push_back(SheetText { std::move(text), muted });
    }
    void picture(SheetPicture p)
    {
        if (!p.svg.empty())
            m_out.blocks.push_back(std::move(p));
    }
    void table(SheetTable t)
    {
        if (!t.rows.empty())
            m_out.blocks.push_back(std::move(t));
    }

    void head()
    {
        const Engine &e = m_build.engine;
        m_out.title = m_build.name;
        m_out.under = { displacement_l(e) > 0 ? Phrase("sheet.engine", "{0}, {1}",
                                                       { e.name, asVolume(displacement_l(e), 1) })
                                              : Phrase(e.name),
                        "Oil " + m_build.oil.grade, dayText(m_date) };
        m_out.mark = m_gate.mark();
        m_out.state = m_gate.says();
        const Check *handed = m_assessment.checks.find("sheet@" + std::string(wholeEngine));
        const bool draft = !handed || handed->isOpen();
        if (draft)
            m_out.under.insert(m_out.under.begin(), "draft, not handed over");
        const Job *job = currentJob(m_build);
        const std::string number = job ? job->jobNumber : "";
        m_out.foot
            = joinedBy({ Phrase(m_build.name), number.empty() ? Phrase() : Phrase("job " + number),
                         Phrase("printed " + dayText(m_date)), draft ? Phrase("draft") : Phrase() },
                       "{*| · }");
    }

    void firstPage()
    {
        facts();
        mostHarmful();
        signatures();
        const auto residuals = residualsOf(m_build, m_assessment.sizes);
        if (residuals)
            picture(readAgainstPicture(*residuals, m_out.style));
        picture(sizesPicture(m_assessment, m_out.style));
        picture(plugsPicture(m_build, m_assessment));
        if (!m_build.notes.empty())
            text(m_build.notes, true);
    }

    void facts()
    {
        const Job *job = currentJob(m_build);
        const auto people = standing(m_build.people);
        SheetFacts out;
        const auto fact = [&](const char *label, Phrase value) {
            out.facts.emplace_back(label, value.empty() ? Phrase("not said") : std::move(value));
        };
        std::string kinds;
        for (const JobKind &k : jobKinds())
            if (job && std::ranges::find(job->kinds, std::string(1, k.letter)) != job->kinds.end())
                kinds += (kinds.empty() ? "" : ", ") + std::string(k.name);
        fact("job", job ? joinedBy({ Phrase(job->jobNumber), Phrase(kinds) }) : Phrase());
        fact("engine", m_build.engine.layout);
        fact("built by", people.empty() ? Phrase() : Phrase(people.front()->name));
        fact("customer", job ? Phrase(job->customer) : Phrase());
        const auto fill = m_build.sump.own("fill_l");
        fact("oil, fill",
             fill ? Phrase("sheet.fill", "{0}, {1}", { m_build.oil.grade, asVolume(*fill) })
                  : Phrase(m_build.oil.grade));
        fact("second person",
             people.size() > 1       ? Phrase(people[1]->name)
                 : job && job->alone ? Phrase("works alone")
                                     : Phrase());
        fact("engine number", job ? Phrase(job->number) : Phrase());
        fact("use",
             { "sheet.use",
               "from {0}, to {1}",
               { asTemperature(m_build.use.coldestStart_c), asSpeed(m_build.use.most_rpm) } });
        fact("workshop", job ? Phrase(job->shop) : Phrase());
        m_out.blocks.emplace_back(std::move(out));
    }

    /// What holds, then what is open, the class no signature passes first.
    void mostHarmful()
    {
        heading("Still open, the most harmful first");
        std::vector<const GateGroup *> groups;
        for (const GateGroup &g : m_gate.open)
            groups.push_back(&g);
        const auto rank = [](const GateGroup *g) {
            CheckClass cls = CheckClass::Open;
            for (const Check *c : g->checks)
                cls = std::max(cls, c->cls);
            return std::pair(g->holds > 0, cls);
        };
        std::ranges::stable_sort(groups, std::greater {}, rank);
        constexpr size_t most = 7;
        SheetTable t { { "what", "where", "why it matters", "what to do" },
                       { 0.3, 0.18, 0.27, 0.25 },
                       {} };
        for (size_t i = 0; i < std::min(most, groups.size()); ++i) {
            const GateGroup &g = *groups[i];
            const Check *worst = g.checks.front();
            for (const Check *c : g.checks)
                if (c->state > worst->state)
                    worst = c;
            t.rows.push_back({ { g.kind->statement, g.mark() },
                               { g.where() },
                               { worst->reason },
                               { worst->next.empty() ? provenWhen(*g.kind) : worst->next } });
        }
        if (t.rows.empty())
            text("Nothing keeps it from its first start.");
        table(std::move(t));
        if (groups.size() > most)
            text({ "sheet.more",
                   "And {0} more kinds of check, listed under \"All that is open\".",
                   { asCount(groups.size() - most) } },
                 true);
    }

    void signatures()
    {
        const auto people = standing(m_build.people);
        SheetSignatures out;
        out.lines.push_back(
            { "Built and measured", people.empty() ? "" : people.front()->name, {} });
        out.lines.push_back(
            { "Plugs and start seen", people.size() > 1 ? people[1]->name : "", {} });
        out.lines.push_back({ "Received, with what is open", {}, {} });
        m_out.blocks.emplace_back(std::move(out));
        // What was wrong and signed away stands on the first page, each with who and why.
        int others = 0;
        SheetTable away = signedOff([&](const Check &c) {
            const bool wrong = c.evident == Evident::No;
            others += !wrong;
            return wrong;
        });
        table(std::move(away));
        if (m_gate.signedOff.empty())
            text("Signed off: nothing.", true);
        else if (others > 0)
            text({ "sheet.signed",
                   "Signed off though not proven: {0} {0|check|checks}, listed under \"All that is "
                   "open\".",
                   { asCount(others) } },
                 true);
    }

    template <class Which> SheetTable signedOff(Which which) const
    {
        SheetTable out { { "signed off", "by, and why" }, { 0.4, 0.6 }, {} };
        for (const Check *c : m_gate.signedOff)
            if (which(*c))
                out.rows.push_back({ { c->statement(), Mark::SignedOff }, { c->reason } });
        return out;
    }

    void forecast()
    {
        if (m_assessment.operating.unsolved) {
            text({ "", "No forecast: {0}", { m_assessment.operating.unsolved->message } });
            return;
        }
        const OperatingResult &idle = m_assessment.operating.hotIdle,
                              &fast = m_assessment.operating.highSpeed;
        SheetTable t { { "", "likely range of the model", "asked for" }, { 0.44, 0.32, 0.24 }, {} };
        const LeadingVerdicts verdicts = leadingVerdicts(m_build, m_assessment);
        t.rows.push_back(
            { { condition("Hot idle at the pressure gauge, {0}, {1}", idle), verdicts.idle.mark },
              { likely(idle.gauge) },
              { { "sheet.minimum", "minimum {0}", { asPressure(verdicts.idle.least_pa) } } } });
        if (idle.weakest >= 0) {
            const PointPressure &w = idle.points[static_cast<size_t>(idle.weakest)];
            t.rows.push_back(
                { { "Hot idle at the weakest feed, " + w.name, verdicts.weakest },
                  { likely(idle.weakestPressure) },
                  { { "sheet.required", "required pressure {0}", { asPressure(w.need_pa) } } } });
        }
        t.rows.push_back(
            { { condition("Hot, {0}, at the pressure gauge", fast), verdicts.fast.mark },
              { likely(fast.gauge) },
              { { "sheet.rule", "rule of thumb {0}", { asPressure(verdicts.fast.least_pa) } } } });
        table(std::move(t));
        picture(forecastPicture(m_build, m_assessment, m_out.style));
        picture(sharesPicture(m_assessment, m_out.style));
        for (const Calibration *c : standing(m_build.calibrations))
            text((c->input == "readings" ? "By readings: " : "Calibrated by running: ") + c->note
                 + " (" + whoText(c->by) + ", " + dayText(c->at) + ").");
        for (const Phrase &sentence : cannotKnow(m_build))
            text(sentence);
    }

    void holds()
    {
        SheetTable open { { "check", "where", "open", "holds" }, { 0.5, 0.3, 0.1, 0.1 }, {} };
        for (const GateGroup &g : m_gate.open)
            open.rows.push_back({ { g.kind->statement, g.mark() },
                                  { g.where() },
                                  { asPhrase(asCount(g.checks.size())) },
                                  { g.holds ? asPhrase(asCount(g.holds)) : Phrase() } });
        if (open.rows.empty())
            text(m_gate.says());
        table(std::move(open));
        SheetTable held { { "holds", "why", "next" }, { 0.34, 0.4, 0.26 }, {} };
        for (const GateGroup &g : m_gate.open)
            for (const Check *c : g.checks)
                if (c->state == CheckState::Hold)
                    held.rows.push_back(
                        { { c->statement(), Mark::Hold }, { c->reason }, { c->next } });
        table(std::move(held));
        table(signedOff([](const Check &c) { return c.evident != Evident::No; }));
        SheetTable further { { "look at", "do" }, { 0.55, 0.45 }, {} };
        for (const Finding &f : m_assessment.findings)
            further.rows.push_back({ { f.text, f.mark }, { f.action } });
        table(std::move(further));
    }

    void clearances()
    {
        for (const FamilySummary &f : m_assessment.families) {
            picture(clearancePicture(m_build, m_assessment, f.family, m_out.style));
            SheetTable t { { "",
                             { "sheet.at20", "at {0}", { asTemperature(20) } },
                             "limits",
                             "how",
                             "by",
                             "when" },
                           { 0.16, 0.14, 0.14, 0.28, 0.1, 0.18 },
                           {} };
            for (const GaugedSize &s : m_assessment.sizes)
                if (s.family == f.family && s.known)
                    t.rows.push_back(size(s));
            table(std::move(t));
        }
    }

    std::vector<SheetCell> size(const GaugedSize &s) const
    {
        const Reading *last = nullptr;
        for (const Reading *r : standingReadings(m_build))
            for (const JudgedReading &j : s.readings)
                if (j.id == r->id)
                    last = r;
        const Method *method = findMethod(s.method());
        std::string how
            = s.measured && method ? std::string(method->name) : "assumed, middle of limits";
        if (last && !last->instrument.empty())
            how += ", " + last->instrument;
        return { { s.name, s.mark },
                 { asPhrase(withUncertainty(
                     asClearance(s.cold_um.value, s.cold_um.standardUncertainty))) },
                 { s.limits ? Phrase(
                       "", "{0}",
                       { QuantityRange { asLimit(s.limits->min_um), asLimit(s.limits->max_um) } })
                            : Phrase() },
                 { std::move(how) },
                 { last ? whoText(last->by) : "" },
                 { last ? dayText(last->at) : "" } };
    }

    void stops()
    {
        heading("Proven, checkpoint by checkpoint");
        SheetTable t { { "along the oil path", "size", "clean", "flow" },
                       { 0.28, 0.24, 0.24, 0.24 },
                       {} };
        for (const StopMarks &m : m_assessment.marks) {
            const Stop *s = m_build.engine.find(m.stop);
            const auto cell = [](Mark mark) {
                return SheetCell { std::string(markWord(mark)), mark };
            };
            t.rows.push_back(
                { { s ? s->name : m.stop }, cell(m.size), cell(m.clean), cell(m.flow) });
        }
        table(std::move(t));
    }

    /// Points ticked at a stop by one person at one time stand in one row.
    void proofs()
    {
        SheetTable t { { "seen", "how", "by", "when" }, { 0.24, 0.46, 0.12, 0.18 }, {} };
        const Proof *before = nullptr;
        for (const Proof &p : m_build.proofs) {
            const Proof *stands = p.check.empty() ? standingProof(m_build, p.stop, p.aspect)
                                                  : standingCheck(m_build, p.stop, p.check);
            const Stop *s = m_build.engine.find(p.stop);
            if (!s || stands != &p)
                continue;
            const TickKind *check = findTickKind(p.check);
            const std::string how = check ? std::string(check->text) : p.how;
            if (before && check && !before->check.empty() && before->stop == p.stop
                && before->by == p.by && dayText(before->at) == dayText(p.at)
                && before->verdict == p.verdict)
                append(t.rows.back()[1].text, how);
            else
                t.rows.push_back({ { s->name + (check ? "" : ": " + p.aspect), proofMark(p) },
                                   { how },
                                   { whoText(p.by) },
                                   { dayText(p.at) } });
            before = &p;
        }
        for (const FlowSeen *f : standing(m_build.flows)) {
            const Stop *s = m_build.engine.find(f->stop);
            if (!s)
                continue;
            const auto names = flowOutlets(m_build, *s);
            const auto at = static_cast<size_t>(f->outlet);
            t.rows.push_back(
                { { (at > 0 && at <= names.size() ? names[at - 1] : s->name) + ": oil " + f->saw,
                    markOfSight(f->saw) },
                  { spaced(f->means) },
                  { whoText(f->by) },
                  { dayText(f->at) } });
        }
        if (!t.rows.empty())
            heading("Who saw it");
        table(std::move(t));
    }

    void start()
    {
        const auto runs = standing(m_build.runs);
        const bool any = !standing(m_build.cardSteps).empty() || !runs.empty();
        if (m_prime.time.time_s)
            text({ "sheet.prime",
                   "Forecast: {0} to fill, pressure after {1} at {2} of the pump; time limit {3}.",
                   { asVolume(m_prime.volume_m3() * 1e3),
                     QuantityRange { asTime(*m_prime.time.low_s, 0),
                                     asTime(*m_prime.time.high_s, 0) },
                     asSpeed(m_prime.shaft_rpm), asTime(*m_prime.time.stop_s) } });
        if (!any)
            text("Not primed or started yet.");
        SheetTable t { { "start-up checklist", "asked", "seen", "by", "when" },
                       { 0.25, 0.27, 0.2, 0.1, 0.18 },
                       {} };
        for (const CardItem &i : m_card.items)
            t.rows.push_back({ { i.text, i.mark },
                               { i.threshold },
                               { i.done ? joinedBy({ i.said, i.why }) : i.said },
                               { whoText(i.by) },
                               { dayText(i.at) } });
        table(std::move(t));
        for (const RunLog *r : runs) {
            picture(runPicture(*r, m_prime, m_build.use.hotIdleFloor_kpa * 1e3, m_out.style));
            text(joinedBy(
                     { { "sheet.run",
                         "{0} {0|reading|readings} in {1} from {2} at {3}",
                         { asCount(r->readings), asTime(r->seconds),
                           r->source.empty() ? "a log" : r->source, tapName(m_build, r->tap) } },
                       r->firstPressure_s ? Phrase("sheet.came", "first pressure after {0}",
                                                   { asTime(*r->firstPressure_s, 1) })
                                          : Phrase("no pressure"),
                       r->stopped,
                       whoText(r->by) },
                     "{*|; }"),
                 true);
        }
    }

    void readings()
    {
        const auto all = residualsOf(m_build, m_assessment.sizes);
        if (!all || all->empty())
            return;
        heading("Read against forecast");
        SheetTable t { { "gauge port", "at", "read", "likely", "by", "when" },
                       { 0.22, 0.2, 0.1, 0.2, 0.1, 0.18 },
                       {} };
        for (const Residual &r : *all)
            t.rows.push_back({ { tapName(m_build, r.reading->tap), r.mark },
                               { { "",
                                   "{0}, {1}",
                                   { turnedText(r.reading->rpm, r.reading->byDrill),
                                     asTemperature(r.reading->oil_c) } } },
                               { asPhrase(asPressure(r.reading->pressure_kpa * 1e3)) },
                               { likely(r.expected) },
                               { whoText(r.reading->by) },
                               { dayText(r.reading->at) } });
        table(std::move(t));
    }

    void air()
    {
        if (m_assessment.air.rows.empty())
            return;
        heading("Air in the oil");
        SheetTable t { { "way in", "state", "found" }, { 0.3, 0.14, 0.56 }, {} };
        for (const AirRow &r : m_assessment.air.rows)
            t.rows.push_back(
                { { r.name }, { std::string(airStateWord(r.state)) }, { r.quantity } });
        table(std::move(t));
    }

    void choices()
    {
        SheetTable t { { "question", "answer", "by", "when" }, { 0.4, 0.3, 0.12, 0.18 }, {} };
        std::vector<std::string> seen;
        for (auto c = m_build.choices.rbegin(); c != m_build.choices.rend(); ++c) {
            if (std::find(seen.begin(), seen.end(), c->question) != seen.end())
                continue;
            seen.push_back(c->question);
            t.rows.insert(t.rows.begin(),
                          { { spaced(c->question) },
                            { spaced(c->answer) + (c->reason.empty() ? "" : ": " + c->reason) },
                            { whoText(c->by) },
                            { dayText(c->at) } });
        }
        if (!t.rows.empty())
            heading("Chosen where practice differs");
        table(std::move(t));
    }

    void after()
    {
        auto blocks = afterRunBlocks(m_build);
        SheetTable t { { "after the run", "asked" }, { 0.6, 0.4 }, {} };
        for (const CardItem &i : m_card.items)
            if (i.mark == Mark::NotDone && i.group == "after")
                t.rows.push_back({ { i.text, i.mark }, { i.threshold } });
        auto looks = lookBlocks(m_build, m_date);
        if (blocks.empty() && t.rows.empty() && looks.empty())
            return;
        section("Filter, oil and next looks");
        add(std::move(blocks));
        table(std::move(t));
        add(std::move(looks));
    }

    void worked()
    {
        std::vector<std::string_view> told;
        for (const CardItem &i : m_card.items)
            if (!i.caution.empty() && std::ranges::find(told, i.caution) == told.end())
                told.push_back(i.caution);
        for (const std::string_view caution : told)
            text(std::string(caution));
        text("Clearances are diametral. Pressures are gauge pressures. A forecast is no "
             "measurement: "
             "compare it with what is read cold and after 10 to 15 minutes hot.",
             true);
        text(std::string(caution::deferring), true);
    }

    const Build &m_build;
    const Assessment &m_assessment;
    StartGate m_gate;
    PrimeForecast m_prime;
    RunCard m_card;
    std::string m_date;
    BuildSheet m_out;
};

} // namespace

BuildSheet buildSheet(const Build &build, const Assessment &assessment, const std::string &date,
                      const UnitStyle &style)
{
    return Writer(build, assessment, date, style).run();
}

} // namespace mildpath
