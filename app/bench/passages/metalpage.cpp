// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/metalpage.h"

#include "assess/cleanmarks.h"
#include "bench/passages/historychain.h"
#include "bench/passages/passagefields.h"
#include "bench/passages/passagemap.h"
#include "bench/passages/planlist.h"
#include "bench/passages/plugledger.h"
#include "document/logbook.h"
#include "entry/refusal.h"
#include "kinds/cautions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "shell/fallback.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {

MetalPage::MetalPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_headline(new QLabel(this))
    , m_partBar(new QWidget(this))
    , m_map(new PassageMap(open, this))
    , m_lower(new QStackedWidget(this))
    , m_plan(new PlanList(open, nullptr))
    , m_chain(new HistoryChain(open, nullptr))
    , m_plugs(new PlugLedger(open, nullptr))
    , m_refusal(new QLabel(this))
{
    m_parts = new QHBoxLayout(m_partBar);
    m_parts->setContentsMargins(0, 0, 0, 0);
    m_parts->setSpacing(4);
    makePage();
    connect(m_map, &PassageMap::passageChosen, this,
            [this](const QString &id) { choosePassage(id.toStdString()); });
    connect(m_map, &PassageMap::plugChosen, this, [this](const QString &id) {
        choosePlug(id.toStdString());
        if (!onPlugs())
            Q_EMIT tabAsked(1);
    });
    connect(m_plan, &PlanList::passageChosen, this,
            [this](const QString &id) { choosePassage(id.toStdString()); });
    connect(m_plan, &PlanList::stepShown, this, [this](int step, int number) {
        m_map->showStep(step < 0 || onPlugs() ? nullptr
                                              : &m_plan->plan().steps[static_cast<size_t>(step)],
                        number);
    });
    connect(m_plugs, &PlugLedger::plugChosen, this,
            [this](const QString &id) { choosePlug(id.toStdString()); });
    connect(m_chain, &HistoryChain::refused, this, [this](const QString &why) {
        m_refusal->setText(why);
        m_refusal->setVisible(!why.isEmpty());
    });
}

void MetalPage::makePage()
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    column->addWidget(m_partBar);
    column->addWidget(m_map, 8);
    auto *clean = new QWidget(m_lower);
    auto *rows = new QVBoxLayout(clean);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(5);
    m_headline->setFont(textFont(TextSize::Body, true));
    m_headline->setObjectName(QStringLiteral("planHeadline"));
    rows->addWidget(m_headline);
    auto *scroll = scrolled(m_plan, clean);
    rows->addWidget(scroll, 1);
    rows->addWidget(m_chain);
    m_lower->addWidget(clean);
    m_lower->addWidget(m_plugs);
    column->addWidget(m_lower, 9);
    m_refusal->setObjectName(QStringLiteral("passageRefusal"));
    m_refusal->hide();
    column->addWidget(m_refusal);
    m_fallBack = new FallBackNote(m_open, QStringLiteral("event.fallBack"), this);
    column->addWidget(m_fallBack);
}

void MetalPage::showTab(int tab)
{
    m_lower->setCurrentIndex(tab);
}

bool MetalPage::onPlugs() const
{
    return m_lower->currentIndex() == 1;
}

QString MetalPage::about() const
{
    return onPlugs() ? tr("one nobody saw in place holds")
                     : tr("each hole has an exit or is a pocket");
}

void MetalPage::takeFocus()
{
    m_map->setFocus();
}

/// A stop chosen elsewhere brings its passage along.
void MetalPage::followStop()
{
    const std::string stop = m_open.selectedStop().toStdString();
    const Build &build = m_open.build();
    if (stop == m_followed && findPassage(build.passages, m_passage))
        return;
    m_followed = stop;
    const Passage *now = findPassage(build.passages, m_passage);
    if (now && now->stop == stop)
        return;
    const Passage *to = nullptr;
    for (const Passage &p : build.passages)
        if (!to && p.stop == stop)
            to = &p;
    // A plug's stop has no passage of its own.
    for (const Plug &p : build.plugs)
        if (!to && p.stop == stop) {
            to = findPassage(build.passages, p.passage);
            m_plugs->show(p.id);
        }
    if (!to && !now && !build.passages.empty())
        to = &build.passages.front();
    if (to)
        m_passage = to->id;
    if (const Passage *p = findPassage(build.passages, m_passage); p && to)
        m_map->setPart(p->part);
}

void MetalPage::refresh()
{
    followStop();
    m_refusal->hide();
    if (onPlugs())
        m_plugs->refresh();
    showParts();
    m_map->refresh();
    m_map->select(onPlugs() ? "" : m_passage, onPlugs() ? m_plugs->shown() : "");
    if (onPlugs()) {
        m_map->showStep(nullptr, 0);
        return;
    }
    m_plan->refresh(m_map->part());
    m_headline->setText(m_plan->headline());
    m_chain->show(m_passage);
    m_plan->choosePassage(m_passage);
}

/// One button a part, with the worst of its passages' marks.
void MetalPage::showParts()
{
    const Build &build = m_open.build();
    const auto parts = partsOf(build.passages);
    const bool same = parts.size() == m_partButtons.size()
        && std::equal(parts.begin(), parts.end(), m_partButtons.begin(),
                      [](const std::string &a, const auto &b) { return a == b.first; });
    if (!same) {
        while (QLayoutItem *item = m_parts->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        m_partButtons.clear();
        for (const std::string &part : parts) {
            QString name = qs(partName(part));
            name[0] = name[0].toUpper();
            auto *button = new QPushButton(name, m_partBar);
            button->setObjectName(QStringLiteral("part.") + qs(part));
            button->setCheckable(true);
            connect(button, &QPushButton::clicked, this, [this, part] { choosePart(part); });
            m_parts->addWidget(button);
            m_partButtons.push_back({ part, button });
        }
        m_parts->addStretch();
    }
    if (std::find(parts.begin(), parts.end(), m_map->part()) == parts.end() && !parts.empty())
        m_map->setPart(parts.front());
    for (const auto &[part, button] : m_partButtons) {
        button->setChecked(part == m_map->part());
        int open = 0;
        for (size_t i = 0; i < build.passages.size(); ++i)
            open += build.passages[i].part == part
                && markOf(m_open.cleaning().passages[i]) != Mark::Proven;
        button->setToolTip(open == 0 ? tr("all proven") : tr("%1 not proven").arg(open));
    }
}

void MetalPage::choosePart(const std::string &part)
{
    m_map->setPart(part);
    for (const Passage &p : m_open.build().passages)
        if (p.part == part)
            return choosePassage(p.id);
}

void MetalPage::choosePassage(const std::string &id)
{
    m_passage = id;
    const Passage *p = passage();
    if (!p)
        return;
    m_map->setPart(p->part);
    m_followed = p->stop;
    if (!p->stop.empty() && m_open.selectedStop() != qs(p->stop)) {
        m_open.selectStop(qs(p->stop));
    } else {
        refresh();
        Q_EMIT changed();
    }
}

void MetalPage::choosePlug(const std::string &id)
{
    m_plugs->show(id);
    if (const Plug *p = findPlug(m_open.build().plugs, id)) {
        m_passage = p->passage;
        if (const Passage *in = passage())
            m_map->setPart(in->part);
    }
    refresh();
    Q_EMIT changed();
}

const Passage *MetalPage::passage() const
{
    return findPassage(m_open.build().passages, m_passage);
}

PanelContent MetalPage::panel()
{
    if (onPlugs())
        return m_plugs->panel();
    PanelContent out;
    const Passage *p = passage();
    if (!p) {
        out.push_back(PanelTitle { tr("No passages yet"), {} });
        out.push_back(PanelText { tr("A plausible set for this engine can be drawn up from its "
                                     "circuit, to be corrected by what you see.") });
        out.push_back(PanelButton { QStringLiteral("drawPassages"),
                                    tr("Draw up the usual passages"),
                                    [this] { saidIfRefused(m_open.edit(DrawPassages {})); } });
        return out;
    }
    const PassageState &s
        = m_open.cleaning().passages[static_cast<size_t>(p - m_open.build().passages.data())];
    const Stop *stop = m_open.build().engine.find(p->stop);
    out.push_back(PanelTitle {
        qs(p->name),
        qs(partName(p->part)) + (stop ? tr(", cleanness of %1").arg(qs(stop->name)) : QString()) });
    QStringList missing;
    for (const std::string &m : s.missing)
        missing << qs(m);
    out.push_back(PanelVerdict {
        markOf(s), qs(s.reason),
        missing.isEmpty() ? QString() : tr("Asked for: %1").arg(missing.join(tr(", then "))) });
    if (s.flush && !s.brush)
        out.push_back(PanelText {
            tr("No brush gets in here: fluid through it, clear at the far end."), Tone::Muted });
    foundHere(out);
    record(out);
    addPassageFields(m_open, *p, out);
    return out;
}

void MetalPage::foundHere(PanelContent &out)
{
    bool any = false;
    for (const DebrisFind *f : standing(m_open.build().finds)) {
        if (f->stop != passage()->stop)
            continue;
        if (!std::exchange(any, true))
            out.push_back(PanelHeading { tr("Found so far") });
        const auto guesses = guessDebris(*f);
        out.push_back(PanelVerdict {
            markOf(*f), guesses.empty() ? qs(f->colour + " " + f->size) : qs(guesses.front().kind),
            qs(f->settled) });
    }
}

namespace {

/// What can be recorded beside the keys below the map.
struct OtherEvent
{
    QString name;
    CleanEvent event;
};

std::vector<OtherEvent> otherEvents()
{
    std::vector<OtherEvent> out;
    for (const char *kind : { "hot_tank", "solvent", "ultrasonic", "air", "wash", "assembly",
                              "taken_apart", "machining" }) {
        CleanEvent e;
        e.kind = kind;
        out.push_back({ qs(findEventKind(kind)->name), e });
    }
    for (const bool covered : { false, true }) {
        CleanEvent e;
        e.kind = "storage";
        e.covered = covered;
        out.push_back(
            { covered ? MetalPage::tr("Stored, covered") : MetalPage::tr("Stored, open"), e });
    }
    for (const MachiningJob &j : machiningJobs()) {
        CleanEvent e;
        e.kind = "machining";
        e.scope = "job";
        e.target = j.id;
        out.push_back({ qs(j.name), e });
    }
    return out;
}

/// The caution that belongs to a way of cleaning; empty: none.
QString cautionOf(const std::string &kind)
{
    if (kind == "air")
        return qs(caution::compressedAir);
    if (kind == "hot_tank")
        return qs(caution::caustic) + u' '
            + MetalPage::tr("Caps out of dead ends first: a tank does not reach behind them.");
    if (kind == "solvent" || kind == "ultrasonic")
        return qs(caution::solvent);
    return {};
}

} // namespace

void MetalPage::record(PanelContent &out)
{
    const std::vector<OtherEvent> all = otherEvents();
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Something else was done") });
    PanelChoice what { QStringLiteral("event.what"), tr("what"), {}, m_what, {} };
    for (const OtherEvent &w : all)
        what.options << w.name;
    what.chosen = [this](int i) -> Result<void> {
        m_what = i;
        Q_EMIT changed();
        return {};
    };
    out.push_back(std::move(what));
    const CleanEvent event = all[static_cast<size_t>(m_what)].event;
    recordDetails(event, out);
    std::vector<Edit> cut; // what dirties is told before it is recorded
    if (event.kind == "machining") {
        CleanEvent e = placed(event);
        if (e.at.empty())
            e.at = OpenBuild::endOfToday();
        cut.emplace_back(AddEntry { std::move(e) });
    }
    m_fallBack->propose(std::move(cut));
    if (const QString caution = cautionOf(event.kind); !caution.isEmpty())
        out.push_back(PanelText { caution, Tone::Warn });
    out.push_back(PanelButton { QStringLiteral("event.record"), tr("Record it"),
                                [this, event] { store(event); } });
    const PassageState &s
        = m_open.cleaning()
              .passages[static_cast<size_t>(passage() - m_open.build().passages.data())];
    if (!s.chain.empty())
        out.push_back(PanelButton {
            QStringLiteral("event.takeBack"), tr("Take the last one back"),
            [this, id = m_open.build().events[static_cast<size_t>(s.chain.back().event)].id] {
                saidIfRefused(m_open.takeBack("events", id));
            } });
}

/// Of what, when, and for storage how long.
void MetalPage::recordDetails(const CleanEvent &event, PanelContent &out)
{
    if (event.scope != "job") {
        PanelChoice on { QStringLiteral("event.on"),
                         tr("on"),
                         { qs(passage()->name),
                           tr("all of the %1").arg(qs(partName(passage()->part))),
                           tr("the whole engine") },
                         m_on,
                         {} };
        on.chosen = [this](int i) -> Result<void> {
            m_on = i;
            return {};
        };
        out.push_back(std::move(on));
    }
    out.push_back(PanelWord {
        QStringLiteral("event.when"), tr("when"), m_when,
        [this](const QString &text) -> Result<void> { return takeWhen(text.trimmed()); } });
    if (event.kind == "storage")
        out.push_back(PanelField { QStringLiteral("event.days"), tr("days"), Dimension::Number, "",
                                   0, m_days, [this](double days) -> Result<void> {
                                       if (!(days >= 0 && days <= 36500))
                                           return fail("", "days, 0 to 36 500");
                                       m_days = days;
                                       return {};
                                   } });
}

/// With where and when as chosen in the panel.
CleanEvent MetalPage::placed(CleanEvent e) const
{
    if (e.scope != "job") {
        e.scope = m_on == 0 ? "passage" : m_on == 1 ? "part" : "all";
        e.target = m_on == 0 ? m_passage : m_on == 1 ? passage()->part : "";
    }
    if (e.kind == "storage")
        e.days = m_days;
    e.dated = !m_when.isEmpty();
    e.at = m_when.toStdString();
    return e;
}

void MetalPage::store(const CleanEvent &event)
{
    const CleanEvent e = placed(event);
    m_when.clear();
    saidIfRefused(m_open.record(e));
}

/// "2026-03-10" or "2026-03-10 14:00"; empty: now. What is dated by hand goes where it belongs.
Result<void> MetalPage::takeWhen(const QString &text)
{
    QString iso = text;
    iso.replace(u' ', u'T');
    if (!iso.isEmpty() && !iso.contains(u'T'))
        iso += QStringLiteral("T12:00");
    if (!iso.isEmpty() && !QDateTime::fromString(iso, Qt::ISODate).isValid())
        return fail("", "a day like 2026-03-10, with a time like 14:00 if you know it");
    m_when = iso;
    return {};
}

} // namespace mildpath
