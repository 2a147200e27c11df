// SPDX-License-Identifier: GPL-3.0-or-later
// What the entry is made of and how its cells lie; what it does stands in readingentry.cpp.
#include "assess/sizes.h"
#include "entry/readingentry.h"
#include "quantity/rounding.h"

#include "entry/arrowcombo.h"
#include "entry/gaugeneedle.h"
#include "entry/shellview.h"
#include "entry/stripchart.h"
#include "paint/text.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr size_t mostCells = 12, columns = 6;

Result<void> checkPartTemperature(double c)
{
    if (!(c >= -40 && c <= 200))
        return fail(
            "",
            { "field.part_range",
              "{0} cannot be a part on the bench ({1})",
              { asTemperature(c), QuantityRange { asTemperature(-40), asTemperature(200) } } });
    return {};
}

} // namespace

QuantityField *ReadingEntry::smallField(const QString &name, const QString &label,
                                        Dimension dimension, const std::string &unit, int width)
{
    auto *field = new QuantityField(dimension, unit, this);
    field->setObjectName(name);
    field->setAccessibleName(label);
    field->setToolTip(label);
    field->setFixedWidth(width);
    connect(field, &QuantityField::refused, this, [this](const QString &why) { say(why, true); });
    connect(field, &QuantityField::entered, this, [this] { say({}, false); });
    return field;
}

void ReadingEntry::makeHead(QVBoxLayout *column)
{
    auto *head = new QHBoxLayout;
    head->setSpacing(6);
    m_title = new QLabel(this);
    m_title->setFont(textFont(TextSize::Title, true));
    head->addWidget(m_title);
    head->addStretch();
    const std::string celsius = "°C";
    m_housingT = smallField(QStringLiteral("housingTemperature"),
                            tr("block temperature while measuring; readings are corrected for it"),
                            Dimension::Temperature, celsius, 54);
    m_journalT = smallField(QStringLiteral("journalTemperature"),
                            tr("crank temperature while measuring; readings are corrected for it"),
                            Dimension::Temperature, celsius, 54);
    int i = 0;
    for (auto &[text, field] :
         { std::pair(tr("block"), m_housingT), std::pair(tr("crank"), m_journalT) }) {
        field->setCheck(checkPartTemperature);
        field->setValue(20);
        m_partLabels[i] = new QLabel(text, this);
        head->addWidget(m_partLabels[i++]);
        head->addWidget(field);
    }
    head->addSpacing(10);
    m_progress = new QLabel(this);
    head->addWidget(m_progress);
    column->addLayout(head);
}

void ReadingEntry::makeMethodRow(QVBoxLayout *column)
{
    auto *row = new QHBoxLayout;
    row->setSpacing(6);
    m_methods = new ArrowCombo(this);
    m_methods->setObjectName(QStringLiteral("method"));
    m_methods->setAccessibleName(tr("How it is measured"));
    m_methods->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_methods->setMinimumContentsLength(m_compact ? 12 : 24);
    connect(m_methods, &QComboBox::activated, this, [this] { chooseMethod(); });
    row->addWidget(m_methods);
    m_instrument = new ArrowCombo(this);
    m_instrument->setObjectName(QStringLiteral("instrument"));
    m_instrument->setAccessibleName(tr("Instrument"));
    m_instrument->setToolTip(
        tr("Which instrument; more of them are described on Work, Instruments"));
    m_instrument->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    m_instrument->setMinimumContentsLength(8);
    connect(m_instrument, &QComboBox::activated, this, [this] {
        // It brings its uncertainty along.
        for (const Instrument *i : standing(m_open.build().instruments))
            if (qs(i->name) == m_instrument->currentText() && i->u
                && findInstrumentKind(i->kind)->dimension == Dimension::Length)
                m_u->setValue(*i->u * 1e-6);
    });
    row->addWidget(m_instrument, 1);
    if (m_compact) {
        // Half the width: what belongs to the instrument goes below it.
        column->addLayout(row);
        row = new QHBoxLayout;
        row->setSpacing(6);
    }
    auto *uncertainty = new QLabel(this);
    row->addWidget(uncertainty);
    m_u = smallField(QStringLiteral("instrumentU"),
                     tr("standard uncertainty of one reading with this instrument"),
                     Dimension::Length, "µm", 50);
    m_u->setCheck([](double si) -> Result<void> {
        if (!(si >= 0 && si <= 100e-6))
            return fail("",
                        { "field.u_range",
                          "an instrument's uncertainty is {0}",
                          { QuantityRange { asWholeClearance(0), asWholeClearance(100) } } });
        return {};
    });
    nameWithUnit(uncertainty, tr("u"), m_u);
    row->addWidget(m_u);
    m_journalLabel = new QLabel(tr("journal"), this);
    m_journal = smallField(QStringLiteral("journalDiameter"),
                           tr("journal by micrometer; the cells take the bore"), Dimension::Length,
                           "mm", 84);
    m_journal->setDecimals(4);
    row->addWidget(m_journalLabel);
    row->addWidget(m_journal);
    m_repeatCount = new ArrowCombo(this);
    m_repeatCount->setObjectName(QStringLiteral("repeats"));
    m_repeatCount->setAccessibleName(tr("Readings at each position"));
    m_repeatCount->setToolTip(
        tr("Readings at each position; their mean is stored with its spread"));
    for (const int n : { 1, 2, 3, 5 })
        m_repeatCount->addItem(n == 1 ? tr("once") : tr("%1 times").arg(n), n);
    row->addWidget(m_repeatCount);
    if (m_compact)
        row->addStretch();
    column->addLayout(row);
}

void ReadingEntry::makeBody(QVBoxLayout *column)
{
    m_shell = new ShellView(this);
    m_strip = new StripChart(this);
    m_needle = new GaugeNeedle(m_gauge, this);
    m_message = new QLabel(this);
    m_verdict = new QLabel(this);
    m_next = new QLabel(this);
    m_form = new QLabel(this);
    m_message->setObjectName(QStringLiteral("entryMessage"));
    m_verdict->setObjectName(QStringLiteral("entryVerdict"));
    m_verdict->setFont(textFont(TextSize::Body, true));
    for (QLabel *label : { m_message, m_verdict, m_next }) {
        label->setWordWrap(true);
        label->setAlignment(Qt::AlignTop);
    }
    auto *body = new QHBoxLayout;
    body->setSpacing(14);
    body->addWidget(m_shell, 0, Qt::AlignTop);
    body->addWidget(m_strip, 0, Qt::AlignTop);
    auto *centre = new QVBoxLayout;
    centre->setSpacing(3);
    m_grid = new QGridLayout;
    m_grid->setHorizontalSpacing(8);
    m_grid->setVerticalSpacing(5);
    for (size_t i = 0; i < mostCells; ++i) {
        m_cells.push_back(makeCell(i));
        m_cellNames.push_back(new QLabel(this));
        m_cellNames.back()->setAlignment(Qt::AlignCenter);
    }
    for (QLabel *&name : m_rowNames)
        name = new QLabel(this);
    centre->addLayout(m_grid);
    makeFeelRow();
    centre->addWidget(m_feelRow);
    m_overHole = new QCheckBox(tr("the strip lay over the oil hole"), this);
    m_overHole->setObjectName(QStringLiteral("overHole"));
    m_overHole->setToolTip(tr("It flows into the hole and reads wrong: kept, not used"));
    centre->addWidget(m_overHole);
    m_cap = new QCheckBox(tr("the cap stands at its last stage"), this);
    m_cap->setObjectName(QStringLiteral("capTorqued"));
    m_cap->setToolTip(tr("As the torque card has it, unless you say so here: a bore is only round, "
                         "and only this size, with its cap at torque"));
    centre->addWidget(m_cap);
    centre->addWidget(m_needle);
    centre->addWidget(m_message);
    centre->addStretch();
    body->addLayout(centre, 5);
    if (m_compact) {
        centre->insertWidget(centre->count() - 1, m_verdict);
        centre->insertWidget(centre->count() - 1, m_next);
    } else {
        auto *right = new QVBoxLayout;
        right->setContentsMargins(0, 2, 0, 0);
        m_verdict->setMinimumWidth(124);
        right->addWidget(m_verdict);
        right->addWidget(m_next);
        right->addStretch();
        body->addLayout(right, 3);
    }
    column->addLayout(body, 1);
    connect(m_strip, &StripChart::chosen, this, [this](double um) {
        const int at = positionInHand();
        store(static_cast<size_t>(std::max(0, at)), um * 1e-6);
        go(static_cast<size_t>(std::max(0, at)), 1);
    });
}

/// What an oiled rod did, in three words.
void ReadingEntry::makeFeelRow()
{
    m_feelRow = new QWidget(this);
    auto *feel = new QHBoxLayout(m_feelRow);
    feel->setContentsMargins(0, 0, 0, 0);
    for (const DropFeel &f : dropFeels()) {
        auto *button = new QPushButton(qs(f.words), m_feelRow);
        button->setObjectName(QStringLiteral("feel_") + qs(f.id));
        button->setToolTip(
            tr("%1, common practice")
                .arg(inWords(QuantityRange {
                    asWholeClearance(f.low_um),
                    asWholeClearance(std::min(f.high_um, mostClearanceReading_um)) })));
        connect(button, &QPushButton::clicked, this, [this, id = std::string(f.id)] {
            const DropFeel &felt = *findDropFeel(id);
            Reading r = blank(0);
            r.feel = id;
            r.value_um = (felt.low_um + std::min(felt.high_um, 100.0)) / 2;
            keep(std::move(r));
        });
        feel->addWidget(button);
    }
    feel->addStretch();
}

QuantityField *ReadingEntry::makeCell(size_t i)
{
    auto *cell = new QuantityField(Dimension::Length, "µm", this);
    cell->setObjectName(QStringLiteral("reading%1").arg(i + 1));
    cell->setFont(textFont(TextSize::Title, true));
    cell->setMinimumSize(58, 32);
    cell->setMaximumWidth(112);
    cell->setCheck([this](double si) -> Result<void> {
        double um = si * 1e6;
        if (m_method == "two_instruments") {
            if (!m_journal->value())
                return fail("", "enter the journal diameter first, then bores");
            um = (si - *m_journal->value()) * 1e6;
        }
        return m_family ? checkReadingValue(*m_family, um) : Result<void> {};
    });
    cell->installEventFilter(this);
    connect(cell, &QuantityField::entered, this, [this, i](double si, bool moveOn) {
        const int wanted = m_repeatCount->currentData().toInt();
        if (wanted > 1 && moveOn) {
            takeFromGauge(si);
            return;
        }
        store(i, si);
        if (moveOn)
            go(i, 1);
    });
    connect(cell, &QuantityField::cleared, this, [this, i] { withdraw(i); });
    connect(cell, &QuantityField::moveOn, this, [this, i] { go(i, 1); });
    connect(cell, &QuantityField::goBack, this, [this, i] { go(i, -1); });
    connect(cell, &QuantityField::refused, this, [this](const QString &why) { say(why, true); });
    connect(cell, &QuantityField::understood, this, [this](const QString &text) {
        say(text.isEmpty() ? QString() : tr("understood as %1").arg(text), false);
    });
    return cell;
}

/// The shop's instruments of length, and by name those this engine was read with.
void ReadingEntry::fillInstruments(const QString &inHand)
{
    QStringList names;
    for (const Instrument *i : standing(m_open.build().instruments))
        if (const InstrumentKind *kind = findInstrumentKind(i->kind);
            kind && kind->dimension == Dimension::Length)
            names << qs(i->name);
    for (const Reading *r : standingReadings(m_open.build()))
        if (r->method == m_method && !r->instrument.empty())
            names << qs(r->instrument);
    names << qs(findMethod(m_method)->instrument);
    names.prepend(inHand);
    names.removeDuplicates();
    m_instrument->clear();
    m_instrument->addItems(names);
    m_instrument->setCurrentIndex(0);
}

/// Instrument and uncertainty as last used with the method, and the cells it wants.
void ReadingEntry::showMethod()
{
    const Method &method = *findMethod(m_method);
    const Reading *last = nullptr;
    for (const Reading *r : standingReadings(m_open.build()))
        if (r->method == m_method && (!last || r->family == m_family->id))
            last = r;
    fillInstruments(last ? qs(last->instrument) : qs(method.instrument));
    m_u->setValue((last ? last->u_um : method.u_um) * 1e-6);
    m_u->setToolTip(tr("Standard uncertainty of one reading; usual: %1 (%2)")
                        .arg(Figure::clearance(method.u_um).text(), qs(method.source)));
    const bool two = m_method == "two_instruments", strip = m_method == "plastic_strip",
               feel = m_method == "drop_feel";
    m_journal->setVisible(two);
    m_journalLabel->setVisible(two);
    m_overHole->setVisible(strip);
    m_feelRow->setVisible(feel);
    m_repeatCount->setVisible(!feel && !strip);
    m_strip->setVisible(strip && !m_compact);
    m_shell->setVisible(m_family->plan == PlanKind::Shell && !strip && !m_compact);
    for (QWidget *w :
         { static_cast<QWidget *>(m_housingT), static_cast<QWidget *>(m_journalT),
           static_cast<QWidget *>(m_partLabels[0]), static_cast<QWidget *>(m_partLabels[1]) })
        w->setVisible(m_family->housing != HousingPart::None);
    m_partLabels[0]->setText(m_family->housing == HousingPart::Rod ? tr("rod") : tr("block"));
    m_partLabels[1]->setText(m_family->shells ? tr("crank") : tr("shaft"));
    if (two) {
        const Stop *stop = m_open.build().engine.find(m_stop);
        double nominal_mm = stop ? journalOf_mm(m_open.build(), *stop) : 0;
        for (const Reading *r : standingReadings(m_open.build()))
            if (r->stop == m_stop && r->family == m_family->id && r->item == m_item
                && r->journal_mm)
                nominal_mm = *r->journal_mm;
        if (nominal_mm == 0)
            if (const GaugedSize *s = size())
                nominal_mm = s->journal_mm;
        m_journal->setValue(nominal_mm > 0 ? std::optional(nominal_mm * 1e-3) : std::nullopt);
    }
    layCells();
}

/// Puts the cells where the plan wants them: stations as rows under the lines, or all in a row.
void ReadingEntry::layCells()
{
    const bool shell = m_family->plan == PlanKind::Shell, strip = m_method == "plastic_strip";
    const bool feel = m_method == "drop_feel";
    for (QuantityField *cell : m_cells) {
        m_grid->removeWidget(cell);
        cell->hide();
    }
    for (QLabel *label : m_cellNames) {
        m_grid->removeWidget(label);
        label->hide();
    }
    for (QLabel *label : m_rowNames) {
        m_grid->removeWidget(label);
        label->hide();
    }
    int shown = 0;
    for (size_t i = 0; i < m_plan.size() && i < mostCells && !feel; ++i) {
        // A strip lies along the shaft: upright only.
        if (strip && m_plan[i].angle_deg != 90)
            continue;
        int row = 1 + 2 * (shown / static_cast<int>(columns)),
            column = 1 + shown % static_cast<int>(columns);
        QString name = qs(m_plan[i].name);
        if (shell && !strip) {
            row = m_plan[i].station;
            column = 1 + static_cast<int>(i % 3);
        } else if (strip) {
            name = qs(stationName(*m_family, m_plan[i].station));
        }
        if (m_method == "two_instruments" && m_family->plan == PlanKind::Single)
            name = tr("bore, mm");
        m_grid->addWidget(m_cells[i], row, column);
        m_cells[i]->show();
        if (!shell || strip || row == 1) {
            m_cellNames[i]->setText(name);
            m_grid->addWidget(m_cellNames[i], row - 1, column);
            m_cellNames[i]->show();
        }
        ++shown;
    }
    if (shell && !strip && !feel)
        for (int station : { 1, 2 }) {
            m_rowNames[station - 1]->setText(qs(stationName(*m_family, station)));
            m_rowNames[station - 1]->setBuddy(m_cells[static_cast<size_t>(3 * (station - 1))]);
            m_grid->addWidget(m_rowNames[station - 1], station, 0);
            m_rowNames[station - 1]->show();
        }
    m_grid->setColumnStretch(static_cast<int>(columns) + 1, 1);
}

} // namespace mildpath
