// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/readingentry.h"

#include "bench/clearances/shellview.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QEvent>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

void setTone(QLabel *label, const QColor &colour)
{
    QPalette palette = label->palette();
    palette.setColor(QPalette::WindowText, colour);
    label->setPalette(palette);
}

Result<void> checkPartTemperature(double c)
{
    if (!(c >= -40 && c <= 200))
        return fail("", formatPlain(c, 0) + " °C cannot be a part on the bench (−40 to 200)");
    return {};
}

} // namespace

ReadingEntry::ReadingEntry(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
    , m_title(new QLabel(this))
    , m_method(new QLabel(tr("bore gauge zeroed on the journal"), this))
    , m_progress(new QLabel(this))
    , m_form(new QLabel(this))
    , m_message(new QLabel(this))
    , m_verdict(new QLabel(this))
    , m_next(new QLabel(this))
    , m_shell(new ShellView(this))
{
    setObjectName(QStringLiteral("readingEntry"));
    m_title->setFont(textFont(TextSize::Title, true));
    m_message->setObjectName(QStringLiteral("entryMessage"));
    m_verdict->setObjectName(QStringLiteral("entryVerdict"));
    m_verdict->setWordWrap(true);
    m_verdict->setFont(textFont(TextSize::Body, true));
    m_next->setWordWrap(true);
    m_next->setAlignment(Qt::AlignTop);
    m_message->setWordWrap(true);
    m_message->setAlignment(Qt::AlignTop);

    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(16, 10, 16, 10);
    column->setSpacing(4);
    auto *head = new QHBoxLayout;
    head->setSpacing(8);
    head->addWidget(m_title);
    head->addWidget(m_method);
    m_housing = temperatureField(QStringLiteral("housingTemperature"), tr("block temperature"));
    m_journal = temperatureField(QStringLiteral("journalTemperature"), tr("crank temperature"));
    head->addWidget(new QLabel(QStringLiteral("·  ") + tr("block"), this));
    head->addWidget(m_housing);
    head->addWidget(new QLabel(tr("crank"), this));
    head->addWidget(m_journal);
    head->addStretch();
    head->addWidget(m_progress);
    column->addLayout(head);

    auto *body = new QHBoxLayout;
    body->setSpacing(14);
    body->addWidget(m_shell, 0, Qt::AlignTop);
    auto *centre = new QVBoxLayout;
    auto *grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(7);
    makeCells(grid);
    centre->addLayout(grid);
    centre->addWidget(m_message);
    centre->addStretch();
    body->addLayout(centre, 5);
    auto *right = new QVBoxLayout;
    right->setContentsMargins(0, 4, 0, 0);
    m_verdict->setMinimumWidth(128);
    right->addWidget(m_verdict);
    right->addWidget(m_next);
    right->addStretch();
    body->addLayout(right, 3);
    column->addLayout(body, 1);
    column->addWidget(m_form);
}

QuantityField *ReadingEntry::temperatureField(const QString &name, const QString &label)
{
    auto *field = new QuantityField(Dimension::Temperature, Figure::temperatureUnit(), this);
    field->setObjectName(name);
    field->setAccessibleName(label);
    field->setToolTip(tr("%1 while gauging; readings are brought to 20 °C with it").arg(label));
    field->setFixedWidth(58);
    field->setCheck(checkPartTemperature);
    field->setValue(20);
    connect(field, &QuantityField::refused, this, [this](const QString &why) { say(why, true); });
    connect(field, &QuantityField::entered, this, [this] { say({}, false); });
    return field;
}

void ReadingEntry::makeCells(QGridLayout *grid)
{
    const auto plan = readingPlan();
    for (size_t i = 0; i < plan.size(); ++i) {
        const int column = 1 + static_cast<int>(i % 3), row = 1 + static_cast<int>(i / 3);
        if (row == 1) {
            auto *name = new QLabel(qs(plan[i].name), this);
            name->setAlignment(Qt::AlignCenter);
            grid->addWidget(name, 0, column);
        }
        auto *cell = new QuantityField(Dimension::Length, Figure::clearanceUnit(), this);
        cell->setObjectName(QStringLiteral("reading%1").arg(i + 1));
        cell->setFont(textFont(TextSize::Title, true));
        cell->setMinimumSize(66, 34);
        cell->setMaximumWidth(112);
        cell->setCheck([](double si) { return checkClearanceReading(si * 1e6); });
        cell->installEventFilter(this);
        grid->addWidget(cell, row, column);
        connect(cell, &QuantityField::entered, this, [this, i](double si, bool moveOn) {
            store(i, si);
            if (moveOn)
                go(i, 1);
        });
        connect(cell, &QuantityField::cleared, this, [this, i] { withdraw(i); });
        connect(cell, &QuantityField::moveOn, this, [this, i] { go(i, 1); });
        connect(cell, &QuantityField::goBack, this, [this, i] { go(i, -1); });
        connect(cell, &QuantityField::refused, this,
                [this](const QString &why) { say(why, true); });
        connect(cell, &QuantityField::understood, this, [this](const QString &text) {
            say(text.isEmpty() ? QString() : tr("understood as %1").arg(text), false);
        });
        m_cells.push_back(cell);
    }
    int row = 1;
    for (const QString &name : { tr("front"), tr("rear") }) {
        auto *label = new QLabel(name, this);
        label->setBuddy(m_cells[static_cast<size_t>(3 * (row - 1))]);
        grid->addWidget(label, row++, 0);
    }
    grid->setColumnStretch(4, 1);
}

void ReadingEntry::setStop(const QString &stop)
{
    if (stop != m_stop)
        say({}, false);
    m_stop = stop;
    refresh();
}

void ReadingEntry::refresh()
{
    const Stop *stop = m_open.build().engine.find(m_stop.toStdString());
    if (!stop)
        return;
    m_title->setText(qs(stop->name));
    const auto plan = readingPlan();
    int taken = 0;
    const Reading *last = nullptr;
    for (size_t i = 0; i < plan.size(); ++i) {
        const Reading *r = readingAt(m_open.build(), stop->id, plan[i].station, plan[i].angle_deg);
        QuantityField *cell = m_cells[i];
        cell->setUnit(Figure::clearanceUnit());
        cell->setDecimals(Figure::system() == UnitSystem::Imperial ? 2 : 1);
        cell->setNudge(Figure::system() == UnitSystem::Imperial ? 0.05 : 0.5);
        // What is being typed in the cell in hand stays, whatever else changed.
        if (!(cell->hasFocus() && cell->isModified()))
            cell->setValue(r ? std::optional(*r->value_um * 1e-6) : std::nullopt);
        cell->setAccessibleName(tr("%1, %2, %3")
                                    .arg(qs(stop->name),
                                         plan[i].station == 1 ? tr("front") : tr("rear"),
                                         qs(plan[i].name)));
        const BearingClearance *c = m_open.assessment().clearance(stop->id);
        const bool past = r && c
            && std::any_of(c->readings.begin(), c->readings.end(), [&](const JudgedReading &j) {
                              return j.id == r->id && (j.pastLimit || j.unlikely);
                          });
        QPalette palette = cell->palette();
        palette.setColor(QPalette::Text, past ? Theme::current().hold : Theme::current().ink);
        cell->setPalette(palette);
        taken += r != nullptr;
        last = r ? r : last;
    }
    for (QuantityField *field : { m_housing, m_journal }) {
        field->setUnit(Figure::temperatureUnit());
        if (!field->hasFocus() && last && !field->isModified())
            field->setValue(field == m_housing ? last->housing_c : last->journal_c);
    }
    m_progress->setText(tr("%1 of %2 readings").arg(taken).arg(plan.size()));
    refreshVerdict();
    for (QLabel *label : { m_method, m_progress, m_next })
        setTone(label, Theme::current().muted);
}

void ReadingEntry::refreshVerdict()
{
    const BearingClearance *c = m_open.assessment().clearance(m_stop.toStdString());
    if (!c)
        return;
    m_verdict->setText(qs(c->verdict));
    setTone(m_verdict,
            c->mark == Mark::NotDone ? Theme::current().ink : Theme::current().mark(c->mark));
    QString next = c->next.empty() ? QString() : qs(c->next) + u'.';
    for (const JudgedReading &r : c->readings)
        if (r.unlikely)
            next += tr("\n%1 is unlikely for this bearing; kept, and worth a second look.")
                        .arg(Figure::clearance(r.read_um, 0.5).text());
    m_next->setText(next);
    if (c->form && c->measured)
        m_form->setText(
            tr("taper %1 · out of round %2 · upright mean %3 ± %4 at 20 °C")
                .arg(Figure::clearance(c->form->taper_m * 1e6).text(),
                     Figure::clearance(c->form->outOfRound_m * 1e6).text(),
                     Figure::clearance(c->cold_um.value, c->cold_um.standardUncertainty).number,
                     Figure::clearance(c->cold_um.expanded()).text()));
    else
        m_form->setText(tr("Upright makes the clearance; the flanks tell the form."));
    update();
}

void ReadingEntry::store(size_t position, double si)
{
    const ReadingPosition &at = readingPlan()[position];
    Reading r;
    r.stop = m_stop.toStdString();
    r.station = at.station;
    r.angle_deg = at.angle_deg;
    // A tenth of a nanometre: below any gauge, above the noise of changing units.
    r.value_um = std::round(si * 1e10) / 1e4;
    r.housing_c = m_housing->value().value_or(20);
    r.journal_c = m_journal->value().value_or(20);
    r.instrument = "bore gauge";
    r.by = OpenBuild::userName();
    r.at = OpenBuild::now();
    const Reading *standing = readingAt(m_open.build(), r.stop, r.station, r.angle_deg);
    if (standing && standing->value_um == r.value_um && standing->housing_c == r.housing_c
        && standing->journal_c == r.journal_c)
        return; // the same reading again is no new one
    if (const auto ok = m_open.edit(EnterReading { r }); !ok) {
        refresh();
        say(qs(ok.error().message), true);
        return;
    }
    say({}, false);
}

void ReadingEntry::withdraw(size_t position)
{
    const ReadingPosition &at = readingPlan()[position];
    const auto ok = m_open.edit(WithdrawReading { m_stop.toStdString(), at.station, at.angle_deg,
                                                  OpenBuild::userName(), OpenBuild::now() });
    if (!ok)
        say(qs(ok.error().message), true);
}

void ReadingEntry::go(size_t position, int by)
{
    const auto count = static_cast<int>(m_cells.size());
    const int next = static_cast<int>(position) + by;
    if (next >= count)
        Q_EMIT pastEnd();
    else if (next < 0)
        Q_EMIT beforeStart();
    else
        m_cells[static_cast<size_t>(next)]->setFocus();
}

void ReadingEntry::say(const QString &text, bool refused)
{
    m_message->setText(
        text.isEmpty() ? tr("Enter takes the reading and moves on; a gauge cable types here too.")
                       : text);
    setTone(m_message, refused ? Theme::current().hold : Theme::current().muted);
}

bool ReadingEntry::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) {
        const auto it = std::find(m_cells.begin(), m_cells.end(), watched);
        if (it != m_cells.end())
            m_shell->setCurrent(
                event->type() == QEvent::FocusIn
                    ? readingPlan()[static_cast<size_t>(it - m_cells.begin())].angle_deg
                    : -1);
    }
    return QWidget::eventFilter(watched, event);
}

void ReadingEntry::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    drawCard(p, rect());
}

} // namespace mildpath
