// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/ownpage.h"

#include "checks/assessment.h"
#include "checks/judgement.h"
#include "checks/ownkinds.h"
#include "document/logbook.h"
#include "entry/rowlist.h"
#include "paint/scrolled.h"
#include "shell/wordof.h"
#include "storage/keptchecks.h"

#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

/// Words of a list with what they mean, the first of them for an empty word.
PanelChoice choiceOf(const char *id, const QString &label, std::string &word,
                     std::vector<std::pair<std::string, QString>> options)
{
    PanelChoice out { QString::fromLatin1(id), label, {}, 0, {} };
    std::vector<std::string> words;
    for (const auto &[each, name] : options) {
        if (each == word)
            out.current = static_cast<int>(words.size());
        words.push_back(each);
        out.options << name;
    }
    out.chosen = [&word, words](int index) -> Result<void> {
        word = words[static_cast<size_t>(index)];
        return {};
    };
    return out;
}

} // namespace

OwnPage::OwnPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.5, 0.72, 0.86 }, 0, this))
{
    m_rows->setObjectName(QStringLiteral("ownRows"));
    m_rows->setAccessibleName(tr("Checks of one's own"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        const std::string id = m_ids[static_cast<size_t>(row)];
        m_chosen = id == m_chosen ? std::string() : id;
        const OwnCheck *c = chosen();
        m_typed = c ? *c : OwnCheck {};
        refresh();
        Q_EMIT changed();
    });
}

void OwnPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

void OwnPage::reset()
{
    m_chosen.clear();
    m_typed = {};
    m_said.clear();
}

const OwnCheck *OwnPage::chosen() const
{
    const auto &all = m_open.build().ownChecks;
    for (const OwnCheck *c : standing(all))
        if (firstEntry(all, *c).id == m_chosen)
            return c;
    return nullptr;
}

void OwnPage::refresh()
{
    m_ids.assign(1, {});
    std::vector<RowList::Row> rows;
    rows.push_back({ Mark::NotAsked,
                     { tr("Another one"), tr("at"), tr("stage"), tr("state") },
                     tr("Describe another check in the panel"),
                     true });
    const CheckList &list = m_open.judgement().checks;
    int at = 0;
    for (const Check &c : list.all()) {
        if (c.kind->id != ownKind)
            continue;
        if (c.place.id == m_chosen)
            at = static_cast<int>(rows.size());
        m_ids.push_back(c.place.id);
        rows.push_back({ worstAsked(list, { ownKind }, c.place.id),
                         { qs(c.kind->statement), qs(c.place.name),
                           qs(aboutStage(c.kind->stage).name), qs(c.reason) } });
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
}

PanelContent OwnPage::panel()
{
    PanelContent out;
    const OwnCheck *c = chosen();
    out.push_back(PanelTitle { c ? qs(c->text) : tr("A check of one's own"), {} });
    if (!c)
        out.push_back(PanelText { tr("What this type of engine is known for, or a step of your own "
                                     "order. It stands in the list and in the plan as all others "
                                     "do."),
                                  Tone::Muted });
    out.push_back(wordOf(m_typed, "own.text", tr("True when"), &OwnCheck::text));
    wherePanel(out);
    afterPanel(out);
    out.push_back(PanelButton { QStringLiteral("own.keep"),
                                c ? tr("Keep what is changed") : tr("Add it"),
                                [this] { keep(); } });
    if (c) {
        out.push_back(PanelButton { QStringLiteral("own.go"), tr("Answer it"),
                                    [this] { m_open.wantCheck("own@" + m_chosen); } });
        out.push_back(PanelButton { QStringLiteral("own.takeBack"), tr("Take it off the list"),
                                    [this, id = c->id] { m_open.takeBack("own_checks", id); } });
    }
    out.push_back(PanelRule {});
    const std::string &from = m_open.build().fromTemplate;
    if (from.empty())
        out.push_back(
            PanelText { tr("This build was begun from no template: its own checks stay with it."),
                        Tone::Muted });
    else
        out.push_back(PanelButton { QStringLiteral("own.template"),
                                    tr("Keep these with the template"),
                                    [this] { keepWithTemplate(); } });
    if (!m_said.isEmpty())
        out.push_back(PanelText { m_said, Tone::Good });
    return out;
}

void OwnPage::wherePanel(PanelContent &out)
{
    std::vector<std::pair<std::string, QString>> places { { "", tr("the engine") } };
    for (const Stop &s : m_open.build().engine.stops)
        places.emplace_back(s.id, qs(s.name));
    for (const PassagePart &p : passageParts())
        places.emplace_back(std::string(p.id), qs(p.name));
    out.push_back(choiceOf("own.place", tr("At"), m_typed.place, std::move(places)));
    std::vector<std::pair<std::string, QString>> stages { { "", tr("as it comes") } };
    for (const std::string_view word : stageWords())
        stages.emplace_back(std::string(word), qs(aboutStage(*stageOf(word)).name));
    out.push_back(choiceOf("own.stage", tr("Stage"), m_typed.stage, std::move(stages)));
    out.push_back(choiceOf("own.class", tr("Open, it may pass"), m_typed.cls,
                           { { "0", tr("as it is") },
                             { "1", tr("signed by one") },
                             { "2", tr("signed by two") },
                             { "!", tr("never") } }));
}

QString OwnPage::nameOf(const std::string &before) const
{
    if (const CheckKind *k = findCheckKind(before))
        return qs(k->statement);
    for (const Check &c : m_open.judgement().checks.all())
        if (c.place.id == before)
            return qs(c.kind->statement);
    return qs(before);
}

/// What comes first: ticked away, or chosen to be one of them.
void OwnPage::afterPanel(PanelContent &out)
{
    std::vector<std::string> ids;
    PanelChoice add { QStringLiteral("own.after"), tr("Comes after"), { tr("add one…") }, 0, {} };
    const auto offer = [&](const std::string &id) {
        if (std::ranges::find(m_typed.after, id) == m_typed.after.end() && id != m_chosen) {
            ids.push_back(id);
            add.options << nameOf(id);
        }
    };
    for (const CheckKind &k : checkKinds())
        if (k.id != ownKind && k.id != "sheet")
            offer(std::string(k.id));
    for (const std::string &id : m_ids)
        if (!id.empty())
            offer(id);
    add.chosen = [this, ids](int index) -> Result<void> {
        if (index > 0)
            m_typed.after.push_back(ids[static_cast<size_t>(index - 1)]);
        Q_EMIT changed();
        return {};
    };
    for (const std::string &id : m_typed.after)
        out.push_back(PanelTick { QStringLiteral("own.after.") + qs(id), Mark::NotAsked, nameOf(id),
                                  tr("comes first"), true, [this, id](bool on) {
                                      if (!on)
                                          std::erase(m_typed.after, id);
                                      Q_EMIT changed();
                                  } });
    out.push_back(std::move(add));
}

void OwnPage::keep()
{
    OwnCheck next = m_typed;
    const OwnCheck *c = chosen();
    next.id.clear();
    next.by.clear();
    next.at.clear();
    next.replaces = c ? c->id : std::string();
    const auto done = m_open.record(next);
    if (!done) {
        Q_EMIT complained(qs(done.error()));
        return;
    }
    if (!c)
        m_chosen = *done;
    refresh();
    Q_EMIT changed();
}

void OwnPage::keepWithTemplate()
{
    if (const auto done = keepOwnChecks(m_open.build()); !done)
        Q_EMIT complained(qs(done.error()));
    else
        m_said = tr("Kept: the next build from this template has them.");
    Q_EMIT changed();
}

} // namespace mildpath
