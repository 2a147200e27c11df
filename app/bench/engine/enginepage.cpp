// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/engine/enginepage.h"

#include "document/plausible.h"
#include "entry/quantityfield.h"
#include "paint/scrolled.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Unit and decimals a number of the engine is shown with.
FieldShape shapeOf(const AboutValue &about)
{
    FieldShape out = fieldShape(about.unit, Fineness::Measured);
    if (about.unit == "mm")
        out.decimals = 3;
    return out;
}

} // namespace

EnginePage::EnginePage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_table(new ValueTable(this))
{
    m_table->setObjectName(QStringLiteral("engineTable"));
    m_table->setAccessibleName(tr("Sizes of the engine"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(scrolled(m_table, this), 1);
    connect(m_table, &ValueTable::chosen, this, [this] {
        endEdit();
        m_unlikely.reset();
        m_said.clear();
        Q_EMIT changed();
    });
    connect(m_table, &ValueTable::editAsked, this, &EnginePage::edit);
    connect(m_table, &ValueTable::deleteAsked, this, &EnginePage::takeAway);
    connect(m_table, &ValueTable::alikeAsked, this, &EnginePage::makeAlike);
    connect(m_table, &ValueTable::copyAsked, this, &EnginePage::copy);
    connect(m_table, &ValueTable::pasteAsked, this, &EnginePage::paste);
    connect(m_table, &ValueTable::openAsked, this, [this] {
        if (const EngineFamily *f = family()) {
            if (!m_opened.erase(f->id))
                m_opened.insert(f->id);
            refresh();
            Q_EMIT changed();
        }
    });
    connect(m_table, &ValueTable::sourceAsked, this, [this] {
        const Origin now = chosenCell().origin;
        setOrigin(now == Origin::Measured ? Origin::Shop
                                          : static_cast<Origin>(static_cast<int>(now) + 1));
    });
}

QString EnginePage::about() const
{
    return qs(typicalText(typicalSizes(m_open.build()).size()));
}

void EnginePage::showTab(int tab)
{
    endEdit();
    m_tab = tab;
    m_table->choose(0, 0);
}

void EnginePage::reset()
{
    endEdit();
    m_opened.clear();
    m_unlikely.reset();
    m_paste.reset();
    m_said.clear();
}

void EnginePage::takeFocus()
{
    m_table->setFocus(Qt::OtherFocusReason);
}

QString EnginePage::shownValue(const std::string &at, std::optional<double> value) const
{
    const auto about = aboutValue(m_open.build(), at);
    if (!about || !value)
        return {};
    const FieldShape shape = shapeOf(*about);
    const ShownField field = shownField(shape.unit, shape.decimals, Figure::system());
    const double si = *value * shape.siPerFile;
    // A size needs no more noughts than one behind its point.
    std::string number = formatNumber(toUnit(si, field.unit, shape.dimension), field.decimals);
    if (const auto point = number.find('.'); point != std::string::npos)
        while (number.back() == '0' && number.size() > point + 2)
            number.pop_back();
    return qs(number);
}

ValueTable::Cell EnginePage::cellOf(const EngineCell &cell) const
{
    if (cell.at.empty())
        return {};
    return { true, shownValue(cell.at.front(), cell.value), cell.origin };
}

void EnginePage::makeFamilies(std::vector<ValueTable::Row> &rows)
{
    const Build &build = m_open.build();
    for (size_t f = 0; f < m_families.size(); ++f) {
        const EngineFamily &family = m_families[f];
        const auto differing = differingMembers(build, family);
        QString note = inWords(asCount(family.members.size()));
        if (family.members.size() == 1)
            note.clear();
        else if (differing.empty())
            note = tr("%1, all alike").arg(note);
        else
            note = QStringLiteral("%1, %2").arg(
                note, counted(differing.size(), tr("differs"), tr("differ")));
        ValueTable::Row row { ValueTable::Row::Family, qs(family.name), note, {} };
        std::vector<EngineCell> shared;
        for (size_t c = 0; c < sheetWidth; ++c) {
            shared.push_back(sharedCell(build, family, c));
            row.cells.push_back(cellOf(shared.back()));
        }
        rows.push_back(std::move(row));
        m_lines.push_back({ static_cast<int>(f), -1 });
        const bool opened = m_opened.contains(family.id) && family.members.size() > 1;
        for (size_t m = 0; m < family.members.size(); ++m) {
            if (!opened && std::ranges::find(differing, m) == differing.end())
                continue;
            ValueTable::Row part { ValueTable::Row::Member, qs(family.members[m].name), {}, {} };
            for (size_t c = 0; c < sheetWidth; ++c) {
                const std::string &at = family.members[m].at[c];
                const bool differs
                    = std::ranges::find(shared[c].differing, m) != shared[c].differing.end();
                if (at.empty() || !(opened || differs)) {
                    part.cells.push_back({});
                    continue;
                }
                part.cells.push_back({ true, shownValue(at, engineValue(build, at)),
                                       originOf(build, at), !differs });
            }
            rows.push_back(std::move(part));
            m_lines.push_back({ static_cast<int>(f), static_cast<int>(m) });
        }
    }
}

void EnginePage::makeLists(std::vector<ValueTable::Row> &rows)
{
    for (size_t l = 0; l < m_lists.size(); ++l) {
        rows.push_back({ ValueTable::Row::Heading, qs(m_lists[l].name), {}, {} });
        m_lines.push_back({});
        for (size_t e = 0; e < m_lists[l].entries.size(); ++e) {
            const EngineEntry &entry = m_lists[l].entries[e];
            const EngineCell cell = sharedCell(m_open.build(), entry);
            ValueTable::Row row { ValueTable::Row::Entry, qs(entry.name), {}, { cellOf(cell) } };
            if (const auto about = aboutValue(m_open.build(), cell.at.front())) {
                const FieldShape shape = shapeOf(*about);
                const auto field = shownField(shape.unit, shape.decimals, Figure::system());
                if (!row.cells[0].text.isEmpty() && !field.unit.empty())
                    row.cells[0].text += QChar(0xA0) + qs(field.unit);
                // What is written alike in every system stands with the name.
                if (field.unit.empty() && !about->unit.empty())
                    row.name += QStringLiteral(", ") + qs(about->unit);
                if (about->yesNo)
                    row.cells[0].text = cell.value.value_or(0) > 0 ? tr("yes") : tr("no");
            }
            rows.push_back(std::move(row));
            m_lines.push_back({ -1, -1, static_cast<int>(l), static_cast<int>(e) });
        }
    }
}

void EnginePage::refresh()
{
    endEdit();
    m_families = sheetFamilies(m_open.build());
    m_lists = sheetLists(m_open.build());
    m_lines.clear();
    std::vector<ValueTable::Row> rows;
    std::vector<ValueTable::Column> columns;
    if (m_tab == 0) {
        for (const EngineColumn &c : sheetColumns()) {
            const FieldShape shape = fieldShape(c.unit);
            columns.push_back(
                { qs(c.title), qs(shownField(shape.unit, shape.decimals, Figure::system()).unit) });
        }
        makeFamilies(rows);
    } else {
        columns.push_back({ tr("value"), {} });
        makeLists(rows);
    }
    m_table->setTable(m_tab == 0 ? 0.22 : 0.5, std::move(columns), std::move(rows));
}

const EnginePage::Line *EnginePage::line() const
{
    const int row = m_table->row();
    return row >= 0 && row < static_cast<int>(m_lines.size()) ? &m_lines[static_cast<size_t>(row)]
                                                              : nullptr;
}

const EngineFamily *EnginePage::family() const
{
    const Line *l = line();
    return l && l->family >= 0 ? &m_families[static_cast<size_t>(l->family)] : nullptr;
}

EngineCell EnginePage::chosenCell() const
{
    const Line *l = line();
    const Build &build = m_open.build();
    if (!l || m_table->column() < 0)
        return {};
    const auto column = static_cast<size_t>(m_table->column());
    if (l->list >= 0)
        return sharedCell(
            build, m_lists[static_cast<size_t>(l->list)].entries[static_cast<size_t>(l->entry)]);
    if (l->family < 0)
        return {};
    const EngineFamily &f = m_families[static_cast<size_t>(l->family)];
    if (l->member < 0)
        return sharedCell(build, f, column);
    const std::string &at = f.members[static_cast<size_t>(l->member)].at[column];
    return { { at }, engineValue(build, at), originOf(build, at), {} };
}

void EnginePage::edit(QKeyEvent *typed)
{
    const EngineCell cell = chosenCell();
    const auto about = cell.at.empty() ? std::nullopt : aboutValue(m_open.build(), cell.at.front());
    if (!about)
        return;
    endEdit();
    if (about->yesNo)
        return set(cell.value.value_or(0) > 0 ? 0 : 1, m_origin);
    const FieldShape shape = shapeOf(*about);
    m_field = new QuantityField(shape.dimension, shape.unit, m_table);
    m_field->setObjectName(QStringLiteral("engineField"));
    m_field->setAccessibleName(qs(about->meaning));
    m_field->setDecimals(shape.decimals);
    m_field->setValue(cell.value ? std::optional(*cell.value * shape.siPerFile) : std::nullopt);
    QRectF box = m_table->cellRect(m_table->row(), m_table->column());
    box.setTop(box.top() - 1);
    box.setHeight(26);
    box.setLeft(std::min(box.left(), box.right() - 84));
    m_field->setGeometry(box.toRect());
    m_field->installEventFilter(this);
    connect(m_field, &QuantityField::entered, this, &EnginePage::store);
    connect(m_field, &QuantityField::moveOn, this, [this] {
        endEdit();
        m_table->step(1, 0);
    });
    connect(m_field, &QuantityField::refused, this, [this](const QString &why) {
        m_said = why;
        m_saidTone = Tone::Bad;
        Q_EMIT changed();
    });
    m_field->show();
    m_field->setFocus(Qt::OtherFocusReason);
    m_field->selectAll();
    if (typed) {
        QKeyEvent again(typed->type(), typed->key(), typed->modifiers(), typed->text());
        QCoreApplication::sendEvent(m_field, &again);
    }
}

bool EnginePage::eventFilter(QObject *watched, QEvent *event)
{
    if (watched != m_field || event->type() != QEvent::KeyPress)
        return Page::eventFilter(watched, event);
    const auto *key = static_cast<QKeyEvent *>(event);
    if (key->key() == Qt::Key_Escape) {
        endEdit();
        return true;
    }
    if (key->key() == Qt::Key_Tab || key->key() == Qt::Key_Backtab) {
        const int by = key->key() == Qt::Key_Tab ? 1 : -1;
        m_table->setFocus(Qt::TabFocusReason); // stores what was typed
        endEdit();
        if (!m_unlikely)
            m_table->step(0, by);
        return true;
    }
    return false;
}

void EnginePage::endEdit()
{
    if (!m_field)
        return;
    QuantityField *field = std::exchange(m_field, nullptr);
    const bool had = field->hasFocus();
    field->disconnect(this);
    field->setObjectName({}); // it is as good as gone
    field->hide();
    field->deleteLater();
    if (had)
        m_table->setFocus(Qt::OtherFocusReason);
}

void EnginePage::store(double si, bool down)
{
    const EngineCell cell = chosenCell();
    const auto about = cell.at.empty() ? std::nullopt : aboutValue(m_open.build(), cell.at.front());
    if (!about)
        return;
    const double value = std::round(si / shapeOf(*about).siPerFile * 1e6) / 1e6;
    if (!about->allows(value)) {
        m_said = tr("That cannot be: %1.").arg(qs(about->about()));
        m_saidTone = Tone::Bad;
        endEdit();
        Q_EMIT changed();
        return;
    }
    if (Phrase why = whyUnlikely(m_open.build(), cell.at.front(), value); !why.empty()) {
        m_unlikely = Unlikely { cell.at.front(), value, std::move(why) };
        m_said.clear();
        endEdit();
        Q_EMIT changed();
        return;
    }
    set(value, m_origin);
    if (down && m_said.isEmpty())
        m_table->step(1, 0);
}

void EnginePage::say(const Result<void> &done)
{
    m_said = done ? QString() : qs(done.error());
    m_saidTone = Tone::Bad;
    refresh();
    Q_EMIT changed();
}

void EnginePage::set(double value, Origin origin)
{
    const EngineCell cell = chosenCell();
    m_unlikely.reset();
    std::vector<Edit> edits;
    for (const std::string &at : cell.at)
        edits.emplace_back(SetEngineValue { at, value, origin, m_open.worker(), OpenBuild::now() });
    endEdit();
    if (edits.size() == 1)
        return say(m_open.edit(edits.front()));
    const EngineFamily *f = family();
    const QString what = f ? qs(f->name) : QString();
    say(m_open.editAll(tr("%1: %2").arg(what, shownValue(cell.at.front(), value)),
                       std::move(edits)));
}

void EnginePage::setOrigin(Origin origin)
{
    const EngineCell cell = chosenCell();
    m_origin = origin == Origin::Typical ? m_origin : origin;
    if (cell.value && origin != cell.origin)
        set(*cell.value, origin);
}

void EnginePage::takeAway()
{
    const EngineCell cell = chosenCell();
    const Line *l = line();
    if (cell.at.size() == 1 && l && (l->member >= 0 || cell.at.front().starts_with("stops/")))
        say(m_open.edit(SetEngineValue { cell.at.front(), std::nullopt }));
}

void EnginePage::makeAlike()
{
    const EngineFamily *f = family();
    const EngineCell cell = chosenCell();
    if (!f || !cell.value)
        return;
    const Edit all = mildpath::makeAlike(m_open.build(), *f, static_cast<size_t>(m_table->column()),
                                         *cell.value, m_origin, m_open.worker(), OpenBuild::now());
    say(m_open.editAll(tr("%1 all alike").arg(qs(f->name)), all.as<EditAll>()->edits));
}

void EnginePage::copy()
{
    if (const EngineFamily *f = family())
        QGuiApplication::clipboard()->setText(
            qs(engineTable(m_open.build(), *f, shownField("mm", 3, Figure::system()).unit,
                           shownField("µm", 0, Figure::system()).unit)));
}

void EnginePage::paste()
{
    const EngineFamily *f = family();
    if (!f)
        return;
    if (m_paste && !m_paste->empty()) {
        const Edit taken = takePaste(*f, *std::exchange(m_paste, std::nullopt), m_origin,
                                     m_open.worker(), OpenBuild::now());
        const EditAll &all = *taken.as<EditAll>();
        return say(m_open.editAll(qs(all.name), all.edits));
    }
    m_paste = readEnginePaste(*f, static_cast<size_t>(std::max(0, m_table->column())),
                              QGuiApplication::clipboard()->text().toStdString(),
                              shownField("mm", 3, Figure::system()).unit,
                              shownField("µm", 0, Figure::system()).unit);
    Q_EMIT changed();
}

PanelContent EnginePage::panel()
{
    PanelContent out;
    if (m_paste)
        pastePanel(out);
    else
        chosenPanel(out);
    if (!m_said.isEmpty())
        out.push_back(PanelText { m_said, m_saidTone });
    out.push_back(PanelRule {});
    out.push_back(
        PanelText { tr("Type over a number; Enter goes down, Tab along the row. Space shows "
                       "each part of a family, Ctrl+D makes all alike, Alt+Down changes "
                       "the source, Ctrl+C and Ctrl+V take tables."),
                    Tone::Muted });
    return out;
}

void EnginePage::chosenPanel(PanelContent &out)
{
    const EngineCell cell = chosenCell();
    const Line *l = line();
    const auto about = cell.at.empty() ? std::nullopt : aboutValue(m_open.build(), cell.at.front());
    if (!l || !about) {
        out.push_back(PanelTitle { tr("The engine"), {} });
        return;
    }
    const EngineFamily *f = family();
    const QString name = f
        ? l->member >= 0 ? qs(f->members[static_cast<size_t>(l->member)].name) : qs(f->name)
        : qs(m_lists[static_cast<size_t>(l->list)].name);
    out.push_back(PanelTitle { name, qs(about->meaning) });
    out.push_back(PanelText { qs(about->about()), Tone::Muted });
    if (f && l->member < 0 && f->members.size() > 1)
        out.push_back(
            PanelText { cell.differing.empty()
                            ? tr("The same for all %1.").arg(inWords(asCount(f->members.size())))
                            : tr("Shared by %1; those that differ stand below.")
                                  .arg(inWords(asCount(f->members.size() - cell.differing.size()))),
                        Tone::Plain });
    if (m_unlikely && m_unlikely->at == cell.at.front()) {
        out.push_back(PanelText {
            tr("%1 is not kept yet: %2.")
                .arg(shownValue(m_unlikely->at, m_unlikely->value), qs(m_unlikely->why)),
            Tone::Warn });
        out.push_back(
            PanelButton { QStringLiteral("engine.keep"), tr("Keep it all the same"), [this] {
                             const double value = m_unlikely->value;
                             set(value, m_origin);
                         } });
    }
    sourcePanel(cell, out);
}

void EnginePage::sourcePanel(const EngineCell &cell, PanelContent &out)
{
    out.push_back(PanelRule {});
    PanelChoice c { QStringLiteral("engine.source"), tr("where it comes from"), {}, 0, {} };
    const std::vector<Origin> origins { Origin::Measured, Origin::Manufacturer, Origin::Shop,
                                        Origin::Typical };
    for (const Origin o : origins) {
        if (o == cell.origin)
            c.current = static_cast<int>(c.options.size());
        c.options << originWord(o);
    }
    c.chosen = [this, origins](int i) -> Result<void> {
        setOrigin(origins[static_cast<size_t>(i)]);
        return {};
    };
    out.push_back(std::move(c));
    const auto it = m_open.build().origins.find(cell.at.front());
    if (it != m_open.build().origins.end() && !it->second.by.empty())
        out.push_back(PanelText { qs(it->second.by), Tone::Muted });
    for (const auto &[origin, value] : otherValues(m_open.build(), cell.at.front()))
        out.push_back(
            PanelRow { originWord(origin), { shownValue(cell.at.front(), value), {}, {} } });
    if (cell.origin == Origin::Typical)
        out.push_back(PanelText { tr("Nobody said it of this engine yet: it counts as assumed."),
                                  Tone::Warn });
}

void EnginePage::pastePanel(PanelContent &out)
{
    const EngineFamily *f = family();
    out.push_back(PanelTitle { tr("In the clipboard"), f ? qs(f->name) : QString() });
    if (m_paste->empty())
        out.push_back(PanelText { tr("No table of numbers for this family."), Tone::Warn });
    else
        out.push_back(
            PanelText { tr("%1 with %2, sizes in %3, clearances in %4.")
                            .arg(counted(m_paste->rows, tr("row"), tr("rows")),
                                 counted(m_paste->cells.size(), tr("number"), tr("numbers")),
                                 qs(shownField("mm", 3, Figure::system()).unit),
                                 qs(shownField("µm", 0, Figure::system()).unit)),
                        Tone::Plain });
    for (const std::string &row : m_paste->without)
        out.push_back(PanelText { tr("%1 has no place here.").arg(qs(row)), Tone::Warn });
    for (const std::string &cell : m_paste->unread)
        out.push_back(PanelText { tr("\"%1\" is not taken.").arg(qs(cell)), Tone::Warn });
    if (!m_paste->empty() && f)
        out.push_back(PanelButton { QStringLiteral("engine.paste"),
                                    tr("Take it into %1").arg(qs(f->name)), [this] { paste(); } });
    out.push_back(PanelButton { QStringLiteral("engine.dropPaste"), tr("Leave it"), [this] {
                                   m_paste.reset();
                                   Q_EMIT changed();
                               } });
}

} // namespace mildpath
