// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/entryform.h"

#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "paint/card.h"
#include "paint/figure.h"
#include "paint/text.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>

#include <algorithm>

namespace mildpath {

EntryForm::EntryForm(const QString &prefix, int columns, QWidget *parent)
    : QWidget(parent)
    , m_prefix(prefix)
    , m_columns(columns)
    , m_grid(new QGridLayout)
    , m_beside(new QHBoxLayout)
    , m_refusal(new QLabel(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    m_grid->setHorizontalSpacing(6);
    m_grid->setVerticalSpacing(columns > 0 ? 1 : 3);
    for (int c = 0; c < columns; ++c)
        m_grid->setColumnStretch(c, 1);
    m_beside->setSpacing(16);
    m_beside->addLayout(m_grid, 2);
    column->addLayout(m_beside);
    m_refusal->setObjectName(prefix + QStringLiteral(".refusal"));
    m_refusal->setWordWrap(true);
    m_refusal->hide();
    column->addWidget(m_refusal);
}

void EntryForm::place(const char *key, const QString &label, QWidget *widget, Field field)
{
    const bool left = m_columns == 0;
    if (m_column == std::max(1, m_columns))
        newRow();
    auto *text = new QLabel(label, this);
    text->setFont(textFont(TextSize::Small));
    text->setBuddy(widget);
    field.label = text;
    field.widget = widget;
    m_grid->addWidget(text, left ? m_row : 2 * m_row, m_column);
    m_grid->addWidget(widget, left ? m_row : 2 * m_row + 1, left ? 1 : m_column);
    ++m_column;
    keep(key, label, std::move(field));
}

void EntryForm::keep(const std::string &key, const QString &spoken, Field field)
{
    field.widget->setObjectName(m_prefix + u'.' + QString::fromStdString(key));
    field.widget->setAccessibleName(spoken);
    field.widget->setMinimumWidth(40);
    m_order.push_back(field.widget);
    m_fields.emplace(key, std::move(field));
}

void EntryForm::addNumber(const char *key, const QString &label, Dimension dimension,
                          const std::string &unit, int decimals)
{
    QuantityField *field = makeNumber(label, dimension, unit, decimals);
    place(key, label, field, { nullptr, nullptr, unit, dimension });
    nameWithUnit(static_cast<QLabel *>(m_fields.at(key).label), label, field);
}

void EntryForm::addNumber(const RecordType &type, const char *key, const QString &label,
                          int decimals)
{
    const mildpath::Field &field = *type.find(key);
    const auto unit = std::ranges::find(unitTable(), field.unit, &Unit::symbol);
    const bool bare = unit == unitTable().end();
    addNumber(key,
              bare && !field.unit.empty() ? label + QStringLiteral(", ") + qs(field.unit) : label,
              bare ? Dimension::Number : unit->dimension,
              bare ? std::string() : std::string(field.unit), decimals);
    m_fields.at(key).widget->setWhatsThis(qs(field.about()));
    m_described.emplace_back(key);
}

void EntryForm::fillRecord(const RecordType &type, void *record) const
{
    for (const std::string &key : m_described) {
        const mildpath::Field &field = *type.find(key);
        const auto typed = number(key.c_str());
        if (!typed || m_fields.at(key).widget->isHidden())
            continue;
        void *member = const_cast<void *>(field.at(record));
        if (field.shape == MemberShape::OptionalNumber)
            *static_cast<std::optional<double> *>(member) = *typed;
        else
            *static_cast<double *>(member) = *typed;
    }
}

void EntryForm::addMatrix(const std::vector<MatrixRow> &rows,
                          const std::vector<std::pair<QString, QString>> &columns)
{
    auto *matrix = new QGridLayout;
    matrix->setHorizontalSpacing(6);
    matrix->setVerticalSpacing(3);
    for (size_t c = 0; c < columns.size(); ++c) {
        auto *head = new QLabel(columns[c].second, this);
        head->setFont(textFont(TextSize::Small, true));
        matrix->addWidget(head, 0, static_cast<int>(c) + 1);
        matrix->setColumnStretch(static_cast<int>(c) + 1, 1);
    }
    for (size_t r = 0; r < rows.size(); ++r) {
        const MatrixRow &row = rows[r];
        auto *text = new QLabel(row.label, this);
        text->setFont(textFont(TextSize::Small));
        matrix->addWidget(text, static_cast<int>(r) + 1, 0);
        for (size_t c = 0; c < columns.size(); ++c) {
            const QString spoken = columns[c].second + QStringLiteral(", ") + row.label;
            QuantityField *field = makeNumber(spoken, row.dimension, row.unit, row.decimals);
            matrix->addWidget(field, static_cast<int>(r) + 1, static_cast<int>(c) + 1);
            if (c == 0)
                nameWithUnit(text, row.label, field);
            keep(columns[c].first.toStdString() + "." + row.key, spoken,
                 { text, field, row.unit, row.dimension });
        }
    }
    m_beside->addLayout(matrix, 3);
}

QuantityField *EntryForm::makeNumber(const QString &label, Dimension dimension,
                                     const std::string &unit, int decimals)
{
    auto *field = new QuantityField(dimension, unit, this);
    field->setDecimals(decimals);
    field->setNudge(1);
    connect(field, &QuantityField::refused, this,
            [this, label](const QString &why) { say(label + QStringLiteral(": ") + why); });
    connect(field, &QuantityField::entered, this, [this, field](double, bool moveOn) {
        say({});
        Q_EMIT changed();
        if (moveOn)
            step(field, 1);
    });
    connect(field, &QuantityField::cleared, this, [this, field] {
        field->setValue(std::nullopt);
        Q_EMIT changed();
    });
    connect(field, &QuantityField::moveOn, this, [this, field] { step(field, 1); });
    connect(field, &QuantityField::goBack, this, [this, field] { step(field, -1); });
    return field;
}

void EntryForm::addWord(const char *key, const QString &label, const QString &placeholder)
{
    auto *field = new QLineEdit(this);
    field->setPlaceholderText(placeholder);
    field->installEventFilter(this);
    place(key, label, field, { nullptr, nullptr });
    connect(field, &QLineEdit::editingFinished, this, &EntryForm::changed);
}

void EntryForm::addChoice(const char *key, const QString &label,
                          const std::vector<std::pair<QString, QString>> &options)
{
    auto *box = new ArrowCombo(this);
    for (const auto &[id, word] : options)
        box->addItem(word, id);
    place(key, label, box, { nullptr, nullptr });
    connect(box, &QComboBox::activated, this, &EntryForm::changed);
}

void EntryForm::newRow()
{
    ++m_row;
    m_column = 0;
}

void EntryForm::sameCell()
{
    --m_column;
}

std::optional<double> EntryForm::number(const char *key) const
{
    const Field &f = m_fields.at(key);
    const auto si = static_cast<QuantityField *>(f.widget)->value();
    if (!si)
        return std::nullopt;
    // Nine digits: what was typed, without the noise of changing units.
    return std::round(toUnit(*si, f.unit, f.dimension) * 1e6) / 1e6;
}

void EntryForm::setNumber(const char *key, std::optional<double> value)
{
    const Field &f = m_fields.at(key);
    static_cast<QuantityField *>(f.widget)->setValue(
        value ? std::optional(fromUnit(*value, f.unit, f.dimension)) : std::nullopt);
}

std::string EntryForm::word(const char *key) const
{
    return static_cast<QLineEdit *>(m_fields.at(key).widget)->text().trimmed().toStdString();
}

void EntryForm::setWord(const char *key, const QString &text)
{
    static_cast<QLineEdit *>(m_fields.at(key).widget)->setText(text);
}

std::string EntryForm::choice(const char *key) const
{
    return choiceBox(key)->currentData().toString().toStdString();
}

QComboBox *EntryForm::choiceBox(const char *key) const
{
    return static_cast<QComboBox *>(m_fields.at(key).widget);
}

void EntryForm::setShown(const char *key, bool shown)
{
    const Field &f = m_fields.at(key);
    f.label->setVisible(shown);
    f.widget->setVisible(shown);
}

void EntryForm::clear()
{
    for (const auto &[key, field] : m_fields) {
        if (auto *number = qobject_cast<QuantityField *>(field.widget))
            number->setValue(std::nullopt);
        else if (auto *word = qobject_cast<QLineEdit *>(field.widget))
            word->clear();
    }
    say({});
}

void EntryForm::say(const QString &refusal)
{
    m_refusal->setText(refusal);
    m_refusal->setVisible(!refusal.isEmpty());
    setTone(m_refusal, Theme::current().hold);
}

void EntryForm::focusFirst()
{
    if (!m_order.empty())
        m_order.front()->setFocus();
}

void EntryForm::step(QWidget *from, int by)
{
    auto at = std::find(m_order.begin(), m_order.end(), from) - m_order.begin();
    const auto count = std::ssize(m_order);
    do
        at += by;
    while (at >= 0 && at < count && !m_order[static_cast<size_t>(at)]->isVisibleTo(this));
    if (at >= count)
        Q_EMIT submitted();
    else if (at >= 0)
        m_order[static_cast<size_t>(at)]->setFocus();
}

bool EntryForm::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::KeyPress) {
        auto *field = static_cast<QLineEdit *>(watched);
        const int key = static_cast<QKeyEvent *>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            step(field, 1);
            return true;
        }
        if (key == Qt::Key_Backspace && field->text().isEmpty()) {
            step(field, -1);
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

QWidget *entryCard(EntryForm *form, const QString &buttonName, QWidget *parent)
{
    auto *card = new CardWidget(parent);
    auto *row = new QHBoxLayout(card);
    row->setContentsMargins(14, 8, 12, 8);
    row->addWidget(form, 1);
    auto *done = new QPushButton(QObject::tr("Record"), card);
    done->setObjectName(buttonName);
    done->setProperty("main", true);
    row->addWidget(done, 0, Qt::AlignBottom);
    QObject::connect(done, &QPushButton::clicked, form, &EntryForm::submitted);
    return card;
}

} // namespace mildpath
