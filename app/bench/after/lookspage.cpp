// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/lookspage.h"

#include "document/logbook.h"
#include "entry/rowlist.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "quantity/dates.h"
#include "shell/wordof.h"

#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// A whole number of something, kept beside where it is typed. How much it may be says the record.
PanelField wholeField(const char *id, const QString &label, std::optional<int> &number)
{
    return { QString::fromLatin1(id),
             label,
             Dimension::Number,
             "",
             0,
             number ? std::optional<double>(*number) : std::nullopt,
             [&number](double n) -> Result<void> {
                 if (!(n >= 0 && n < 1e9 && n == std::floor(n)))
                     return fail("", "must be a whole number");
                 number = static_cast<int>(n);
                 return {};
             } };
}

PanelField amountField(const char *id, const QString &label, Dimension dimension, const char *unit,
                       std::optional<double> &amount)
{
    return { QString::fromLatin1(id),
             label,
             dimension,
             unit,
             0,
             amount ? std::optional(fromUnit(*amount, unit, dimension)) : std::nullopt,
             [&amount, dimension, unit](double si) -> Result<void> {
                 amount = toUnit(si, unit, dimension);
                 return {};
             } };
}

} // namespace

LooksPage::LooksPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.4, 0.64, 0.86 }, 0, this))
{
    m_rows->setObjectName(QStringLiteral("lookRows"));
    m_rows->setAccessibleName(tr("Looks to come"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        const std::string item
            = row == 0 ? std::string() : m_looks[static_cast<size_t>(row - 1)].look->item;
        m_chosen = item == m_chosen ? std::string() : item;
        const LookToCome *l = chosen();
        m_typed = l ? *l->look : NextLook {};
        refresh();
        Q_EMIT changed();
    });
}

void LooksPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

void LooksPage::reset()
{
    m_chosen.clear();
    m_typed = {};
    m_ran = {};
}

QString LooksPage::about() const
{
    const auto due = std::ranges::count_if(m_looks, &LookToCome::isDue);
    if (m_looks.empty())
        return {};
    return tr("%1 set, %2 due").arg(m_looks.size()).arg(due);
}

const LookToCome *LooksPage::chosen() const
{
    const auto at
        = std::ranges::find(m_looks, m_chosen, [](const LookToCome &l) { return l.look->item; });
    return at == m_looks.end() ? nullptr : &*at;
}

void LooksPage::refresh()
{
    m_looks = looksToCome(m_open.build(), OpenBuild::now().substr(0, 10));
    std::vector<RowList::Row> rows;
    rows.push_back({ Mark::NotAsked,
                     { tr("Another one"), tr("every"), tr("when"), tr("since") },
                     tr("Say in the panel what else is looked at again"),
                     true });
    int at = 0;
    for (const LookToCome &l : m_looks) {
        if (l.look->item == m_chosen)
            at = static_cast<int>(rows.size());
        rows.push_back(
            { l.mark(),
              { qs(l.look->item), qs(l.every), qs(l.says), qs(nearDayText(l.look->at)) } });
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
}

PanelContent LooksPage::panel()
{
    PanelContent out;
    const LookToCome *l = chosen();
    out.push_back(PanelTitle { l ? qs(l->look->item) : tr("A look to come"), {} });
    if (l)
        out.push_back(PanelVerdict { l->mark(), qs(l->says), tr("every %1").arg(qs(l->every)) });
    formPanel(out);
    out.push_back(PanelButton { QStringLiteral("look.keep"),
                                l ? tr("Keep what is changed") : tr("Set it"),
                                [this] { keep(m_typed); } });
    if (l) {
        out.push_back(PanelButton { QStringLiteral("look.done"), tr("Looked at now: begin again"),
                                    [this, look = *l->look]() mutable {
                                        look.by.clear();
                                        look.at.clear(); // from now on
                                        keep(look);
                                    } });
        out.push_back(PanelButton { QStringLiteral("look.drop"), tr("Not looked at again"),
                                    [this, item = l->look->item] {
                                        NextLook none;
                                        none.item = item;
                                        keep(none);
                                    } });
    }
    out.push_back(PanelRule {});
    ranPanel(out);
    return out;
}

void LooksPage::formPanel(PanelContent &out)
{
    if (!chosen()) {
        PanelChoice usual { QStringLiteral("look.usual"), tr("Of the usual ones"), {}, -1, {} };
        for (const std::string_view item : lookItems()) {
            if (item == m_typed.item)
                usual.current = static_cast<int>(usual.options.size());
            usual.options << qs(item);
        }
        usual.chosen = [this](int index) -> Result<void> {
            m_typed.item = lookItems()[static_cast<size_t>(index)];
            Q_EMIT changed();
            return {};
        };
        out.push_back(std::move(usual));
        out.push_back(wordOf(m_typed, "look.item", tr("What is looked at"), &NextLook::item));
    }
    out.push_back(PanelText { tr("Whichever is over first:"), Tone::Muted });
    out.push_back(amountField("look.hours", tr("Every, hours it ran"), Dimension::Number, "",
                              m_typed.every_h));
    out.push_back(
        amountField("look.km", tr("Every, driven"), Dimension::Length, "km", m_typed.every_km));
    out.push_back(wholeField("look.days", tr("Every, days"), m_typed.everyDays));
    out.push_back(wholeField("look.trackDays", tr("Every, track days"), m_typed.everyTrackDays));
    out.push_back(wholeField("look.passes", tr("Every, passes"), m_typed.everyPasses));
}

void LooksPage::ranPanel(PanelContent &out)
{
    out.push_back(PanelTitle { tr("It ran"), {} });
    out.push_back(amountField("ran.hours", tr("Hours"), Dimension::Number, "", m_ran.ran_h));
    out.push_back(amountField("ran.km", tr("Driven"), Dimension::Length, "km", m_ran.ran_km));
    out.push_back(wholeField("ran.trackDays", tr("Track days"), m_ran.trackDays));
    out.push_back(wholeField("ran.passes", tr("Passes"), m_ran.passes));
    out.push_back(
        PanelButton { QStringLiteral("ran.note"), tr("Note the run"), [this] { noteRun(); } });
    out.push_back(PanelText { tr("Since the last note. Hours written with a filter, an oil sample "
                                 "or an opening count as well."),
                              Tone::Muted });
}

/// Intervals run from when it was set or looked at.
void LooksPage::keep(NextLook look)
{
    const bool drops = !look.isSet();
    if (drops && !chosen()) {
        Q_EMIT complained(tr("Say after how many hours, days or runs it is looked at"));
        return;
    }
    look.id.clear();
    look.replaces.clear();
    if (const auto done = m_open.record(look); !done) {
        Q_EMIT complained(qs(done.error()));
        return;
    }
    m_chosen = drops ? std::string() : look.item;
    refresh();
    m_typed = chosen() ? *chosen()->look : NextLook {};
    Q_EMIT changed();
}

void LooksPage::noteRun()
{
    m_ran.act = "ran";
    if (const auto done = m_open.record(m_ran); !done) {
        Q_EMIT complained(m_ran.ran_h || m_ran.ran_km || m_ran.trackDays || m_ran.passes
                              ? qs(done.error())
                              : tr("Say how long or how far it ran"));
        return;
    }
    m_ran = {};
    refresh();
    Q_EMIT changed();
}

} // namespace mildpath
