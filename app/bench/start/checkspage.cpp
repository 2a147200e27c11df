// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/checkspage.h"

#include "checks/ownkinds.h"
#include "checks/signing.h"
#include "checks/visible.h"
#include "document/logbook.h"
#include "entry/photostrip.h"
#include "entry/rowlist.h"
#include "open/questions.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "shell/costitems.h"
#include "shell/wordof.h"
#include "start/gate.h"

#include <QDate>
#include <QFileDialog>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
ChecksPage::ChecksPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.56, 0.86 }, 0, this))
{
    m_rows->setObjectName(QStringLiteral("checkRows"));
    m_rows->setAccessibleName(tr("Checks by stage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        const Item &item = m_items[static_cast<size_t>(row)];
        const std::string kind(item.kind ? item.kind->id : std::string_view());
        const bool again = kind == m_kind && item.place == m_place;
        m_kind = again && item.place.empty() ? std::string() : kind;
        m_place = item.place;
        m_typed.value_m.reset();
        m_typed.u_m.reset();
        m_typed.except.clear();
        m_typed.photos.clear();
        refresh();
        Q_EMIT changed();
    });
    connect(&open, &OpenBuild::workerChanged, this, [this] {
        m_typed.by = m_open.pickedWorker();
        if (isVisible())
            Q_EMIT changed();
    });
    connect(&open, &OpenBuild::checkSelected, this, [this] { choose(m_open.selectedCheck()); });
    connect(&open.answers(), &Answers::answered, this, [this](const QString &topic) {
        if (topic == qs(ask::checkCosts().topic) && isVisible())
            Q_EMIT changed();
    });
}

const CheckList &ChecksPage::list() const
{
    return m_open.judgement().checks;
}

QString ChecksPage::about() const
{
    return qs(list().says(CheckGate::Fire));
}

void ChecksPage::reset()
{
    m_kind = "job";
    m_place.clear();
    m_typed = {};
    m_typed.by = m_open.pickedWorker();
    m_job = {};
}

void ChecksPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

void ChecksPage::rowsOf(const CheckKind &kind, std::vector<Item> &items) const
{
    int places = 0;
    for (const Check &c : list().all())
        places += c.asked && c.kind == &kind;
    if (places == 0)
        return;
    if (kind.id == ownKind) { // each by itself
        for (const Check &c : list().all())
            if (c.asked && c.kind == &kind)
                items.push_back({ kind.stage, &kind, c.place.id });
        return;
    }
    items.push_back({ kind.stage, &kind });
    if (m_kind != kind.id || places < 2)
        return;
    for (const Check &c : list().all())
        if (c.asked && c.kind == &kind)
            items.push_back({ kind.stage, &kind, c.place.id });
}

void ChecksPage::refresh()
{
    m_items.clear();
    std::vector<RowList::Row> rows;
    int chosen = -1;
    for (const CheckKind *each : list().kinds()) {
        const CheckKind &kind = *each;
        std::vector<Item> items;
        rowsOf(kind, items);
        if (items.empty())
            continue;
        if (m_items.empty() || m_items.back().stage != kind.stage) {
            m_items.push_back({ kind.stage });
            rows.push_back({ Mark::NotAsked,
                             { qs(aboutStage(kind.stage).name).toUpper(), {}, {} },
                             qs(aboutStage(kind.stage).needs),
                             true });
        }
        for (const Item &item : items) {
            GateGroup group { &kind, {}, 0 };
            int open = 0;
            for (const Check &c : list().all())
                if (c.asked && c.kind == &kind
                    && (item.place.empty() || c.place.id == item.place)) {
                    group.checks.push_back(&c);
                    open += c.isOpen();
                }
            const bool one = !item.place.empty() || group.checks.size() == 1;
            rows.push_back(
                { group.mark(),
                  { item.place.empty() ? qs(kind.statement)
                        : kind.id == ownKind
                        ? qs(group.checks.front()->statement())
                        : QStringLiteral("      ") + qs(group.checks.front()->place.name),
                    one ? qs(group.checks.front()->reason) : qs(group.where()),
                    one             ? qs(markWord(group.mark()))
                        : open == 0 ? tr("all %1").arg(group.checks.size())
                                    : tr("%1 of %2 open").arg(open).arg(group.checks.size()) },
                  qs(kind.statement) });
            if (m_kind == kind.id && m_place == item.place)
                chosen = static_cast<int>(rows.size()) - 1;
            m_items.push_back(item);
        }
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(chosen);
}

const ChecksPage::Item *ChecksPage::chosen() const
{
    const int row = m_rows->chosen();
    return row < 0 ? nullptr : &m_items[static_cast<size_t>(row)];
}

std::vector<const Check *> ChecksPage::chosenChecks() const
{
    std::vector<const Check *> out;
    for (const Check &c : list().all())
        if (c.asked && c.kind->id == m_kind && (m_place.empty() || c.place.id == m_place))
            out.push_back(&c);
    return out;
}

PanelContent ChecksPage::panel()
{
    PanelContent out;
    for (const std::string_view word : enumWords<CheckGate>()) {
        const CheckGate gate = *fromWord<CheckGate>(word);
        out.push_back(PanelVerdict { list().markOf(gate), qs(list().says(gate)), {} });
    }
    out.push_back(PanelRule {});
    const Item *item = chosen();
    if (m_kind == "job" || !item || !item->kind) {
        jobPanel(out);
        return out;
    }
    answerPanel(*item, out);
    return out;
}

void ChecksPage::choose(const std::string &check)
{
    const Check *c = list().find(check);
    if (!c)
        return;
    m_kind = c->kind->id;
    // The only one of its kind has no row of its own below the kind's.
    const auto alike = std::ranges::count_if(
        list().all(), [&](const Check &other) { return other.asked && other.kind == c->kind; });
    m_place = alike > 1 || c->kind->id == ownKind ? c->place.id : std::string();
    m_typed.photos.clear();
    if (!isVisible())
        return;
    refresh();
    m_rows->showChosen();
    Q_EMIT changed();
}

void ChecksPage::statePanel(const std::vector<const Check *> &checks, PanelContent &out) const
{
    constexpr size_t most = 6;
    for (size_t i = 0; i < std::min(checks.size(), most); ++i)
        out.push_back(
            PanelVerdict { markOf(*checks[i]), qs(checks[i]->place.name), qs(checks[i]->reason) });
    if (checks.size() > most)
        out.push_back(PanelText { tr("and %1 more").arg(checks.size() - most), Tone::Muted });
}

PanelChoice ChecksPage::person(const QString &id, const QString &label, std::string Typed::*which,
                               bool mayBeNobody)
{
    PanelChoice out { id, label, {}, -1, {} };
    std::vector<std::string> names;
    if (mayBeNobody) {
        out.options << tr("nobody");
        names.emplace_back();
    }
    for (const Person *p : standing(m_open.build().people)) {
        out.options << qs(p->name);
        names.push_back(p->name);
    }
    const auto at = std::find(names.begin(), names.end(), m_typed.*which);
    out.current = at == names.end() ? -1 : static_cast<int>(at - names.begin());
    out.chosen = [this, which, names](int index) -> Result<void> {
        m_typed.*which = names[static_cast<size_t>(index)];
        return {};
    };
    return out;
}

PanelField ChecksPage::clearance(const QString &id, const QString &label,
                                 std::optional<double> Typed::*which)
{
    return { id,
             label,
             Dimension::Length,
             "µm",
             0,
             m_typed.*which,
             [this, which](double si) -> Result<void> {
                 m_typed.*which = si;
                 return {};
             } };
}

/// Which of two sizes of an older file is right.
void ChecksPage::twoValuesPanel(PanelContent &out)
{
    const Build &build = m_open.build();
    for (const TwoValues &t : build.twoValues) {
        const double here = countedValue(build, t);
        const std::string_view unit = unitOfKey(t.key);
        out.push_back(PanelText { qs(twoValuesText(build, t)), Tone::Warn });
        out.push_back(PanelChoice { QStringLiteral("two.") + qs(t.element),
                                    tr("Right is"),
                                    { inFileUnit(here, unit), inFileUnit(t.other, unit) },
                                    -1,
                                    [this, t](int index) -> Result<void> {
                                        return m_open.edit(
                                            settledBy(m_open.build(), t, index == 1));
                                    } });
    }
}

void ChecksPage::answerPanel(const Item &item, PanelContent &out)
{
    const CheckKind &kind = *item.kind;
    const auto checks = chosenChecks();
    out.push_back(PanelTitle { qs(kind.statement), qs(aboutStage(kind.stage).name) });
    if (!aboutStage(kind.stage).caution.empty())
        out.push_back(PanelText { qs(aboutStage(kind.stage).caution), Tone::Warn });
    statePanel(checks, out);
    addCost(m_open, checks, out);
    out.push_back(PanelButton { QStringLiteral("check.go"), tr("Go there"), [this, &kind] {
                                   const auto here = chosenChecks();
                                   if (!here.empty() && !here.front()->place.stop.empty())
                                       m_open.selectStop(qs(here.front()->place.stop));
                                   Q_EMIT benchAsked(placeOf(kind));
                               } });
    if (kind.id == "pick")
        twoValuesPanel(out);
    if (!kind.isComputed() || isDeclared(kind)) {
        out.push_back(PanelRule {});
        out.push_back(PanelHeading { checks.size() > 1 ? tr("Answer for all %1").arg(checks.size())
                                                       : tr("Answer") });
        out.push_back(person(QStringLiteral("check.by"), tr("Done by"), &Typed::by, false));
        out.push_back(person(QStringLiteral("check.seenBy"), tr("Seen by"), &Typed::seenBy, true));
        PanelChoice means { QStringLiteral("check.means"), tr("By"), {}, 0, {} };
        for (const CheckMeans &m : checkMeans())
            means.options << qs(m.name);
        for (size_t i = 0; i < checkMeans().size(); ++i)
            if (m_typed.means == checkMeans()[i].id)
                means.current = static_cast<int>(i);
        means.chosen = [this](int index) -> Result<void> {
            m_typed.means = checkMeans()[static_cast<size_t>(index)].id;
            return {};
        };
        out.push_back(std::move(means));
        if (checks.size() == 1 && takesFigure(*checks.front())) {
            out.push_back(clearance(QStringLiteral("check.value"), tr("Figure"), &Typed::value_m));
            out.push_back(clearance(QStringLiteral("check.u"), tr("± U, k = 2"), &Typed::u_m));
        }
        if (checks.size() > 1)
            out.push_back(wordOf(m_typed, "check.except", tr("Except"), &Typed::except));
        out.push_back(wordOf(m_typed, "check.on", tr("On, else today"), &Typed::on));
        out.push_back(PanelField { QStringLiteral("check.minutes"), tr("Hands took, min"),
                                   Dimension::Number, "", 0, m_typed.minutes,
                                   [this](double minutes) -> Result<void> {
                                       m_typed.minutes = minutes;
                                       return {};
                                   },
                                   tr("Teaches the plan how long such work takes here") });
        out.push_back(wordOf(m_typed, "check.note", tr("Note"), &Typed::note));
        photoPanel(out);
        const auto button = [this](const char *id, const QString &text, const char *says) {
            return PanelButton { QString::fromLatin1(id), text,
                                 [this, says] { say(answer(says)); } };
        };
        out.push_back(button("check.yes", tr("Yes, it is so"), "yes"));
        out.push_back(button("check.no", tr("No"), "no"));
        if (mayBeNone(kind))
            out.push_back(button("check.none", tr("None on this engine"), "none"));
    }
    signPanel(checks, out);
}

void ChecksPage::photoPanel(PanelContent &out)
{
    if (!m_typed.photos.empty())
        out.push_back(
            PanelText { counted(m_typed.photos.size(), tr("photo with it"), tr("photos with it")),
                        Tone::Muted });
    out.push_back(PanelButton {
        QStringLiteral("check.photo"), tr("Add a photo…"), [this] {
            const QString file = QFileDialog::getOpenFileName(
                this, tr("Photo of what was seen"), {}, tr("Pictures (*.png *.jpg *.jpeg)"));
            if (const QString why = file.isEmpty() ? QString() : addPhoto(file); !why.isEmpty())
                Q_EMIT complained(why);
        } });
}

QString ChecksPage::addPhoto(const QString &file)
{
    const auto name = takePhoto(m_open, file);
    if (!name)
        return qs(name.error().message);
    m_typed.photos.push_back(*name);
    Q_EMIT changed();
    return {};
}

Result<std::string> ChecksPage::answeredAt() const
{
    const std::string now = OpenBuild::now();
    if (m_typed.on.empty())
        return now;
    const QDate today = QDate::fromString(qs(now).left(10), Qt::ISODate);
    const QDate day = QDate::fromString(qs(m_typed.on), Qt::ISODate);
    if (!day.isValid())
        return fail("on",
                    "\"" + m_typed.on + "\" is no day: write it as "
                        + today.toString(Qt::ISODate).toStdString());
    if (day > today)
        return fail("on", m_typed.on + " is yet to come");
    return day == today ? now : day.toString(Qt::ISODate).toStdString() + "T12:00:00";
}

void ChecksPage::signPanel(const std::vector<const Check *> &checks, PanelContent &out)
{
    const Job *job = currentJob(m_open.build());
    const auto maySign = std::any_of(checks.begin(), checks.end(), [&](const Check *c) {
        return c->isOpen() && signaturesNeeded(*c, job && job->alone);
    });
    if (!maySign) {
        const bool open
            = std::any_of(checks.begin(), checks.end(), [](const Check *c) { return c->isOpen(); });
        if (open)
            out.push_back(PanelText { tr("Nobody may sign for this: prove it, or change what is "
                                         "asked."),
                                      Tone::Muted });
        return;
    }
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Or sign it off") });
    out.push_back(person(QStringLiteral("check.signer"), tr("Who signs"), &Typed::by, false));
    out.push_back(wordOf(m_typed, "check.why", tr("Reason"), &Typed::why));
    out.push_back(
        PanelButton { QStringLiteral("check.sign"), tr("Sign"), [this] { signChosen(); } });
}

Result<void> ChecksPage::answer(const std::string &says)
{
    CheckEntry e;
    e.kind = m_kind;
    e.says = says;
    e.by = m_typed.by.empty() ? m_open.worker() : m_typed.by;
    e.seenBy = m_typed.seenBy;
    e.means = m_typed.means;
    e.note = m_typed.note;
    const auto when = answeredAt();
    if (!when)
        return tl::unexpected(when.error());
    e.at = *when;
    e.photos = m_typed.photos;
    e.minutes = m_typed.minutes;
    if (e.by.empty())
        return fail("by", "Say who: choose a name, or add one under the job");
    const auto checks = chosenChecks();
    if (!m_place.empty())
        e.places = { m_place };
    for (const QString &name : qs(m_typed.except).split(u',', Qt::SkipEmptyParts)) {
        const auto at = std::find_if(checks.begin(), checks.end(), [&](const Check *c) {
            return qs(c->place.name) == name.trimmed() || qs(c->place.id) == name.trimmed();
        });
        if (at == checks.end())
            return fail("except", "there is no " + name.trimmed().toStdString() + " among them");
        e.except.push_back((*at)->place.id);
    }
    if (m_typed.value_m) {
        e.value = *m_typed.value_m * 1e6;
        if (m_typed.u_m)
            e.u = *m_typed.u_m * 1e6 / 2;
    }
    const auto done = m_open.record(e);
    if (!done)
        return tl::unexpected(done.error());
    m_typed.note.clear();
    m_typed.on.clear();
    m_typed.photos.clear();
    m_typed.minutes.reset();
    m_typed.value_m.reset();
    m_typed.u_m.reset();
    m_typed.except.clear();
    return {};
}

void ChecksPage::signChosen()
{
    std::vector<std::string> ids;
    for (const Check *c : chosenChecks())
        if (c->isOpen())
            ids.push_back(c->id());
    const auto signs = signChecks(m_open.build(), list(), ids, m_typed.by, m_typed.why, "fire");
    if (!signs) {
        say(tl::unexpected(signs.error()));
        return;
    }
    std::vector<Edit> edits;
    for (SignOff s : *signs) {
        s.at = OpenBuild::now();
        edits.emplace_back(AddEntry { std::move(s) });
    }
    say(m_open.editAll(tr("signed off"), std::move(edits)));
}

void ChecksPage::say(const Result<void> &done)
{
    if (!done)
        Q_EMIT complained(qs(done.error().message));
    Q_EMIT changed();
}

} // namespace mildpath
