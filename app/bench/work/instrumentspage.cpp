// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/instrumentspage.h"

#include "assess/figuremarks.h"
#include "document/logbook.h"
#include "entry/rowlist.h"
#include "paint/scrolled.h"
#include "paint/text.h"
#include "quantity/dates.h"
#include "shell/wordof.h"

#include <QVBoxLayout>

namespace mildpath {
namespace {

QString figureShown(const InstrumentKind &kind, const std::optional<double> &value, double times)
{
    return value ? inWords(kind.figure(*value * times)) : QString();
}

} // namespace

InstrumentsPage::InstrumentsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_rows(new RowList({ 0, 0.34, 0.54, 0.66, 0.76 }, 0, this))
{
    m_rows->setObjectName(QStringLiteral("instrumentRows"));
    m_rows->setAccessibleName(tr("Instruments"));
    m_typed.kind = instrumentKinds().front().id;
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_rows, this), 1);
    connect(m_rows, &RowList::picked, this, [this](int row) {
        const std::string id = row == 0 ? std::string() : m_ids[static_cast<size_t>(row)];
        m_chosen = id == m_chosen ? std::string() : id;
        const Instrument *i = chosen();
        m_typed = i ? *i : Instrument {};
        if (!i)
            m_typed.kind = instrumentKinds().front().id;
        refresh();
        Q_EMIT changed();
    });
}

void InstrumentsPage::takeFocus()
{
    m_rows->setFocus(Qt::OtherFocusReason);
}

void InstrumentsPage::reset()
{
    m_chosen.clear();
    m_typed = {};
    m_typed.kind = instrumentKinds().front().id;
}

QString InstrumentsPage::about() const
{
    return counted(standing(m_open.build().instruments).size(), tr("instrument"),
                   tr("instruments"));
}

const Instrument *InstrumentsPage::chosen() const
{
    for (const Instrument *i : standing(m_open.build().instruments))
        if (i->id == m_chosen)
            return i;
    return nullptr;
}

void InstrumentsPage::refresh()
{
    m_ids.assign(1, {});
    std::vector<RowList::Row> rows;
    rows.push_back({ Mark::NotAsked,
                     { tr("A new one"), tr("kind"), tr("± U, k = 2"), tr("zero"),
                       tr("held against a standard") },
                     tr("Describe another instrument in the panel"),
                     true });
    int at = 0;
    for (const Instrument *i : standing(m_open.build().instruments)) {
        const InstrumentKind *kind = findInstrumentKind(i->kind);
        if (i->id == m_chosen)
            at = static_cast<int>(rows.size());
        m_ids.push_back(i->id);
        rows.push_back(
            { markOf(*i),
              { qs(i->name), kind ? qs(kind->name) : qs(i->kind),
                kind ? figureShown(*kind, i->u, 2) : QString(),
                kind ? figureShown(*kind, i->zero, 1) : QString(),
                i->checked.empty() ? tr("not said")
                                   : qs(dayText(i->checked))
                        + (i->standard.empty() ? QString()
                                               : QStringLiteral(", ") + qs(i->standard)) } });
    }
    m_rows->setRows(std::move(rows));
    m_rows->choose(at);
}

/// Shown in the unit of its kind; stored in it as well.
PanelField InstrumentsPage::figure(const char *id, const QString &label,
                                   std::optional<double> Instrument::*which, double times,
                                   const QString &about)
{
    const InstrumentKind &kind = *findInstrumentKind(m_typed.kind);
    const Dimension dimension = kind.dimension;
    const std::string unit(kind.unit);
    const auto &value = m_typed.*which;
    return { QString::fromLatin1(id),
             label,
             dimension,
             unit,
             dimension == Dimension::Length ? 1 : 2,
             value ? std::optional(fromUnit(*value * times, unit, dimension)) : std::nullopt,
             [this, which, times, unit, dimension](double si) -> Result<void> {
                 m_typed.*which = toUnit(si, unit, dimension) / times;
                 return {};
             },
             about };
}

PanelContent InstrumentsPage::panel()
{
    PanelContent out;
    const Instrument *i = chosen();
    out.push_back(PanelTitle { i ? qs(i->name) : tr("A new instrument"), {} });
    formPanel(out);
    out.push_back(PanelButton { QStringLiteral("instrument.keep"),
                                i ? tr("Keep what is changed") : tr("Add it"),
                                [this] { keep(); } });
    if (i)
        out.push_back(PanelButton { QStringLiteral("instrument.takeBack"),
                                    tr("Take it off the list"),
                                    [this, id = i->id] { m_open.takeBack("instruments", id); } });
    out.push_back(PanelRule {});
    out.push_back(PanelText { tr("Where sizes are read the instruments are chosen from this list, "
                                 "and bring their uncertainty along. One that is found out of true "
                                 "makes its readings since then for another look."),
                              Tone::Muted });
    return out;
}

void InstrumentsPage::formPanel(PanelContent &out)
{
    out.push_back(wordOf(m_typed, "instrument.name", tr("Name"), &Instrument::name));
    PanelChoice kind { QStringLiteral("instrument.kind"), tr("Kind"), {}, 0, {} };
    for (size_t k = 0; k < instrumentKinds().size(); ++k) {
        kind.options << qs(instrumentKinds()[k].name);
        if (m_typed.kind == instrumentKinds()[k].id)
            kind.current = static_cast<int>(k);
    }
    kind.chosen = [this](int index) -> Result<void> {
        m_typed.kind = instrumentKinds()[static_cast<size_t>(index)].id;
        Q_EMIT changed();
        return {};
    };
    out.push_back(std::move(kind));
    out.push_back(figure("instrument.u", tr("± U, k = 2"), &Instrument::u, 2,
                         tr("of one reading, as its certificate says or as repeats show")));
    out.push_back(figure("instrument.zero", tr("Shows at zero"), &Instrument::zero, 1,
                         tr("what it shows where it should show nothing")));
    out.push_back(wordOf(m_typed, "instrument.checked", tr("Held against a standard on"),
                         &Instrument::checked));
    out.push_back(
        wordOf(m_typed, "instrument.standard", tr("Which standard"), &Instrument::standard));
}

void InstrumentsPage::keep()
{
    Instrument next = m_typed;
    const auto day = dayFrom(next.checked, OpenBuild::now().substr(0, 10));
    if (next.name.empty() || !day) {
        Q_EMIT complained(next.name.empty() ? tr("An instrument needs a name")
                                            : qs(day.error().message));
        return;
    }
    next.checked = *day;
    next.by.clear();
    next.at.clear();
    next.replaces = m_chosen;
    const auto done = m_open.record(next);
    if (!done) {
        Q_EMIT complained(qs(done.error()));
        return;
    }
    m_chosen = *done;
    refresh();
    Q_EMIT changed();
}

} // namespace mildpath
