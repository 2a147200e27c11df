// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/runimportcard.h"

#include "entry/arrowcombo.h"
#include "quantity/rounding.h"
#include "storage/files.h"

#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace mildpath {
namespace {

constexpr int previewRows = 6;

QStringList list(std::initializer_list<const char *> words)
{
    QStringList out;
    for (const char *w : words)
        out << QString::fromUtf8(w);
    return out;
}

} // namespace

QComboBox *RunImportCard::addChoice(QGridLayout *grid, int row, const QString &label,
                                    const QString &name, const QStringList &units, QComboBox **unit)
{
    auto *words = new QLabel(label, this);
    grid->addWidget(words, row, 0);
    auto *column = new ArrowCombo(this);
    column->setObjectName(QStringLiteral("import.") + name);
    column->setAccessibleName(label);
    words->setBuddy(column);
    grid->addWidget(column, row, 1);
    connect(column, &QComboBox::currentIndexChanged, this, &RunImportCard::check);
    if (unit) {
        *unit = new ArrowCombo(this);
        (*unit)->setObjectName(QStringLiteral("import.") + name + QStringLiteral("Unit"));
        (*unit)->setAccessibleName(tr("Unit of: %1").arg(label));
        (*unit)->addItems(units);
        grid->addWidget(*unit, row, 2);
        connect(*unit, &QComboBox::currentIndexChanged, this, &RunImportCard::check);
    }
    return column;
}

RunImportCard::RunImportCard(QWidget *parent)
    : CardWidget(parent)
    , m_title(new QLabel(this))
    , m_said(new QLabel(this))
    , m_preview(new QTableWidget(this))
    , m_take(new QPushButton(tr("Take the log"), this))
{
    setObjectName(QStringLiteral("runImport"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(14, 10, 14, 12);
    m_title->setFont(textFont(TextSize::Body, true));
    column->addWidget(m_title);
    auto *grid = new QGridLayout;
    m_time = addChoice(grid, 0, tr("Time"), QStringLiteral("time"), list({ "s", "ms", "min" }),
                       &m_timeUnit);
    m_pressure = addChoice(grid, 1, tr("Pressure"), QStringLiteral("pressure"),
                           list({ "kPa", "bar", "psi" }), &m_pressureUnit);
    m_rpm = addChoice(grid, 2, tr("Speed, rpm"), QStringLiteral("rpm"), {}, nullptr);
    m_oil = addChoice(grid, 3, tr("Oil temperature"), QStringLiteral("oil"), list({ "°C", "°F" }),
                      &m_oilUnit);
    m_kind = new ArrowCombo(this);
    m_kind->setObjectName(QStringLiteral("import.kind"));
    m_kind->setAccessibleName(tr("What was run"));
    m_kind->addItem(tr("the first start"), QStringLiteral("start"));
    m_kind->addItem(tr("priming"), QStringLiteral("prime"));
    m_kind->addItem(tr("another run"), QStringLiteral("run"));
    grid->addWidget(new QLabel(tr("It is"), this), 4, 0);
    grid->addWidget(m_kind, 4, 1);
    grid->setColumnStretch(1, 1);
    column->addLayout(grid);
    m_preview->setObjectName(QStringLiteral("import.preview"));
    m_preview->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_preview->setSelectionMode(QAbstractItemView::NoSelection);
    m_preview->verticalHeader()->hide();
    column->addWidget(m_preview, 1);
    m_said->setObjectName(QStringLiteral("import.said"));
    m_said->setWordWrap(true);
    column->addWidget(m_said);
    auto *row = new QHBoxLayout;
    m_take->setObjectName(QStringLiteral("import.take"));
    m_take->setProperty("main", true);
    row->addWidget(m_take);
    auto *cancel = new QPushButton(tr("Leave it"), this);
    cancel->setObjectName(QStringLiteral("import.leave"));
    row->addWidget(cancel);
    row->addStretch();
    column->addLayout(row);
    connect(m_take, &QPushButton::clicked, this, &RunImportCard::take);
    connect(cancel, &QPushButton::clicked, this, &RunImportCard::cancelled);
}

QString RunImportCard::load(const QString &path)
{
    const auto text = readTextFile(path.toStdString());
    if (!text)
        return qs(text.error().message);
    auto table = runTable(*text);
    if (!table)
        return qs(table.error().place) + u' ' + qs(table.error().message);
    m_table = std::move(*table);
    m_path = path;
    m_title->setText(tr("%1, %2 rows: which column is what?")
                         .arg(QFileInfo(path).fileName())
                         .arg(m_table.rows.size()));
    const RunColumns guess = guessColumns(m_table);
    m_comma = guess.decimalComma;
    const auto fill = [&](QComboBox *box, int column) {
        const QSignalBlocker block(box);
        box->clear();
        box->addItem(tr("none"));
        for (const std::string &h : m_table.header)
            box->addItem(qs(h).trimmed());
        box->setCurrentIndex(column + 1);
    };
    fill(m_time, guess.time);
    fill(m_pressure, guess.pressure);
    fill(m_rpm, guess.rpm);
    fill(m_oil, guess.oil);
    m_timeUnit->setCurrentText(qs(guess.timeUnit));
    m_pressureUnit->setCurrentText(qs(guess.pressureUnit));
    m_oilUnit->setCurrentText(qs(guess.oilUnit));
    m_preview->setColumnCount(static_cast<int>(m_table.header.size()));
    QStringList names;
    for (const std::string &h : m_table.header)
        names << qs(h).trimmed();
    m_preview->setHorizontalHeaderLabels(names);
    const int rows = std::min<int>(previewRows, static_cast<int>(m_table.rows.size()));
    m_preview->setRowCount(rows);
    for (int r = 0; r < rows; ++r) {
        const auto &cells = m_table.rows[static_cast<size_t>(r)];
        for (int c = 0; c < m_preview->columnCount(); ++c)
            m_preview->setItem(r, c,
                               new QTableWidgetItem(static_cast<size_t>(c) < cells.size()
                                                        ? qs(cells[static_cast<size_t>(c)])
                                                        : QString()));
    }
    check();
    return {};
}

RunColumns RunImportCard::columns() const
{
    RunColumns out;
    out.time = m_time->currentIndex() - 1;
    out.pressure = m_pressure->currentIndex() - 1;
    out.rpm = m_rpm->currentIndex() - 1;
    out.oil = m_oil->currentIndex() - 1;
    out.timeUnit = m_timeUnit->currentText().toStdString();
    out.pressureUnit = m_pressureUnit->currentText().toStdString();
    out.oilUnit = m_oilUnit->currentText().toStdString();
    out.decimalComma = m_comma;
    return out;
}

void RunImportCard::check()
{
    if (m_table.header.empty())
        return;
    const RunImport run = runFromTable(m_table, columns());
    m_take->setEnabled(run.errors.empty());
    const Theme &t = Theme::current();
    if (!run.errors.empty()) {
        const Error &e = run.errors.front();
        m_said->setText(tr("%1: %2%3")
                            .arg(qs(e.place), qs(e.message),
                                 run.errors.size() > 1
                                     ? tr("; %1 more like it").arg(run.errors.size() - 1)
                                     : QString()));
        setTone(m_said, t.hold);
        return;
    }
    RunLog log;
    summariseRun(run.points, log);
    m_said->setText(tr("%1 over %2 s, up to %3.")
                        .arg(counted(log.readings, tr("reading"), tr("readings")),
                             qs(formatNumber(log.seconds, 0)),
                             Figure::pressure(log.most_kpa * 1e3).text()));
    setTone(m_said, t.muted);
}

void RunImportCard::take()
{
    Q_EMIT taken(runFromTable(m_table, columns()), m_kind->currentData().toString(),
                 QFileInfo(m_path).fileName());
}

} // namespace mildpath
