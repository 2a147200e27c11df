// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/readingentry.h"

#include "assess/rules.h"
#include "assess/sizes.h"
#include "devices/serialgauge.h"
#include "entry/shellview.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "storage/readingtable.h"

#include <QCheckBox>
#include <QComboBox>
#include <QEvent>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// A tenth of a nanometre: below any gauge, above the noise of changing units.
double tidy_um(double m)
{
    return std::round(m * 1e10) / 1e4;
}

} // namespace

ReadingEntry::ReadingEntry(OpenBuild &open, SerialGauge *gauge, bool compact, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
    , m_gauge(gauge)
    , m_compact(compact)
{
    setObjectName(QStringLiteral("readingEntry"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(16, 8, 16, 8);
    column->setSpacing(4);
    makeHead(column);
    makeMethodRow(column);
    makeBody(column);
    column->addWidget(m_form);
    if (!m_gauge)
        return;
    connect(m_gauge, &SerialGauge::settled, this, [this](double mean) { takeFromGauge(mean); });
    connect(m_gauge, &SerialGauge::complained, this, [this](const QString &why) {
        if (isVisible())
            say(why, true);
    });
}

void ReadingEntry::setItem(const SizeItem &item)
{
    const bool other = m_stop != item.stop->id || m_family != item.family || m_item != item.item;
    const bool otherFamily = m_family != item.family;
    if (other) {
        say({}, false);
        m_repeats_m.clear();
    }
    m_stop = item.stop->id;
    m_family = item.family;
    m_item = item.item;
    m_name = item.name;
    m_plan = readingPlan(*item.family, *item.stop);
    if (otherFamily) {
        m_methods->clear();
        for (const std::string_view id : m_family->methods)
            m_methods->addItem(qs(findMethod(id)->name), qs(id));
    }
    if (other) {
        // The method in use stays within a family; a new family begins with what it last had, or
        // with what its readings were taken by.
        std::string method = m_chosen[std::string(m_family->id)];
        if (method.empty())
            for (const Reading *r : standingReadings(m_open.build()))
                if (r->family == m_family->id && r->method != "drop_feel"
                    && r->method != "plastic_strip")
                    method = r->method;
        setMethod(method.empty() ? std::string(m_family->methods.front()) : method);
    } else {
        refresh();
    }
}

std::string ReadingEntry::method() const
{
    return m_method;
}

void ReadingEntry::setMethod(const std::string &id)
{
    const int index = m_methods->findData(qs(id));
    if (index < 0)
        return;
    m_methods->setCurrentIndex(index);
    m_method = id;
    showMethod();
    refresh();
}

void ReadingEntry::setRepeats(int count)
{
    m_repeatCount->setCurrentIndex(std::max(0, m_repeatCount->findData(count)));
}

void ReadingEntry::chooseMethod()
{
    setMethod(m_methods->currentData().toString().toStdString());
    m_chosen[std::string(m_family->id)] = m_method;
    say({}, false);
    takeFocus();
}

const GaugedSize *ReadingEntry::size() const
{
    return m_family ? sizeOf(m_open.sizes(), m_stop, m_family->id, m_item) : nullptr;
}

ReadingPlace ReadingEntry::placeAt(size_t i) const
{
    return { m_stop,   std::string(m_family->id), m_item,
             m_method, m_plan[i].station,         m_plan[i].angle_deg };
}

void ReadingEntry::refresh()
{
    const Stop *stop = m_open.build().engine.find(m_stop);
    if (!stop || !m_family)
        return;
    m_title->setText(qs(m_name));
    // As the card has it; said otherwise here it stays so for this bearing until the card moves.
    const auto card = m_family->shells ? capTorqued(m_open.build(), m_stop) : std::nullopt;
    m_cap->setVisible(card.has_value());
    if (const auto at = std::pair(m_stop, card); at != m_capOf) {
        m_capOf = at;
        m_cap->setChecked(card.value_or(false));
    }
    refreshCells();
    refreshVerdict();
    for (QLabel *label : { m_progress, m_next, m_partLabels[0], m_partLabels[1] })
        setTone(label, Theme::current().muted);
}

void ReadingEntry::refreshCells()
{
    const bool two = m_method == "two_instruments";
    const GaugedSize *s = size();
    int taken = 0, wanted = 0;
    const Reading *last = nullptr;
    std::map<std::pair<int, double>, const Reading *> here;
    for (const Reading *r : standingReadings(m_open.build()))
        if (r->stop == m_stop && r->family == m_family->id && r->item == m_item
            && r->method == m_method)
            here[{ r->station, r->angle_deg }] = r;
    for (size_t i = 0; i < m_plan.size() && i < m_cells.size(); ++i) {
        const auto found = here.find({ m_plan[i].station, m_plan[i].angle_deg });
        const Reading *r = found == here.end() ? nullptr : found->second;
        QuantityField *cell = m_cells[i];
        cell->setUnit(two ? "mm" : "µm");
        cell->setDecimals(two ? 4 : 1);
        cell->setNudge(two ? 0.0005 : 0.5);
        cell->setFont(textFont(two ? TextSize::Body : TextSize::Title, true));
        // What is being typed in the cell in hand stays, whatever else changed.
        if (!(cell->hasFocus() && cell->isModified())) {
            std::optional<double> value;
            if (r)
                value = two && r->bore_mm ? *r->bore_mm * 1e-3 : *r->value_um * 1e-6;
            cell->setValue(value);
        }
        cell->setAccessibleName(tr("%1, %2, %3")
                                    .arg(qs(m_name), qs(stationName(*m_family, m_plan[i].station)),
                                         qs(m_plan[i].name)));
        cell->setToolTip(r ? historyOf(*r) : QString());
        const bool past = r && s
            && std::any_of(s->readings.begin(), s->readings.end(), [&](const JudgedReading &j) {
                              return j.id == r->id && (j.pastLimit || j.unlikely);
                          });
        QPalette palette = cell->palette();
        palette.setColor(QPalette::Text, past ? Theme::current().hold : Theme::current().ink);
        cell->setPalette(palette);
        wanted += !cell->isHidden();
        taken += r != nullptr && !cell->isHidden();
        last = r ? r : last;
    }
    for (QuantityField *field : { m_housingT, m_journalT }) {
        if (!field->hasFocus() && last && !field->isModified())
            field->setValue(field == m_housingT ? last->housing_c : last->journal_c);
    }
    const QString where = m_open.build().engine.find(m_stop)
            && capTorqued(m_open.build(), m_stop) == false && m_family->shells
        ? tr("cap not torqued · ")
        : QString();
    m_progress->setText(wanted == 0 ? where
                                    : where + tr("%1 of %2 readings").arg(taken).arg(wanted));
}

/// Who, when, with what; and what this reading struck.
QString ReadingEntry::historyOf(const Reading &reading) const
{
    QStringList lines;
    const auto &all = m_open.build().readings;
    const Reading *r = &reading;
    for (int depth = 0; r && depth < 5; ++depth) {
        QString line = r->value_um ? Figure::clearance(*r->value_um).text() : tr("taken back");
        for (const std::string &part : { r->instrument, r->by, r->at })
            if (!part.empty())
                line += QStringLiteral(" · ") + qs(part);
        lines << (depth == 0 ? line : tr("before: %1").arg(line));
        const auto older = std::find_if(all.begin(), all.end(), [&](const Reading &o) {
            return !r->replaces.empty() && o.id == r->replaces;
        });
        r = older == all.end() ? nullptr : &*older;
    }
    return lines.join(u'\n');
}

void ReadingEntry::refreshVerdict()
{
    const GaugedSize *s = size();
    if (!s)
        return;
    const Theme &t = Theme::current();
    m_verdict->setText(qs(s->verdict));
    setTone(m_verdict, s->mark == Mark::NotDone ? t.ink : t.mark(s->mark));
    QString next = s->next.empty() ? QString() : qs(s->next) + u'.';
    for (const JudgedReading &r : s->readings)
        if (r.unlikely)
            next += tr("\n%1 is unusual for this bearing. Saved; measure it again.")
                        .arg(Figure::clearance(r.read_um, 0.5).text());
    for (size_t i = 1; i < s->methods.size(); ++i)
        next += tr("\n%1: %2, compared only.")
                    .arg(qs(findMethod(s->methods[i].method)->name),
                         inWords(QuantityRange {
                             asWholeClearance(s->methods[i].low_um),
                             asWholeClearance(
                                 std::min(s->methods[i].high_um, mostClearanceReading_um)) }));
    m_next->setText(next);
    const bool shaped = m_family->plan == PlanKind::Shell || m_family->plan == PlanKind::Bush;
    if (s->form && s->measured) {
        const QString value
            = tr("%1 ± %2 (k = 2)")
                  .arg(Figure::clearance(s->cold_um.value, s->cold_um.standardUncertainty).number,
                       Figure::clearance(s->cold_um.expanded(), s->cold_um.standardUncertainty)
                           .text());
        m_form->setText(shaped ? tr("taper %1 · out-of-round %2 · fitted mean %3 at %4")
                                     .arg(Figure::clearance(s->form->taper_m * 1e6).text(),
                                          Figure::clearance(s->form->outOfRound_m * 1e6).text(),
                                          value, Figure::temperature(20).text())
                               : value);
    } else {
        m_form->setText(m_family->plan == PlanKind::Shell
                            ? tr("Upright makes the clearance; the flanks tell the form.")
                            : QString());
    }
    update();
}

Reading ReadingEntry::blank(size_t position) const
{
    Reading r;
    r.stop = m_stop;
    r.family = m_family->id;
    r.item = m_item;
    r.method = m_method;
    r.station = m_plan[position].station;
    r.angle_deg = m_plan[position].angle_deg;
    r.u_um = tidy_um(m_u->value().value_or(findMethod(m_method)->u_um * 1e-6));
    r.housing_c = m_housingT->value().value_or(20);
    r.journal_c = m_journalT->value().value_or(20);
    if (m_family->shells) {
        if (capTorqued(m_open.build(), m_stop))
            r.capTorqued = m_cap->isChecked();
        r.shells = fittedShells(m_open.build(), r.family, m_stop);
    }
    r.instrument = m_instrument->currentText().toStdString();
    r.by = m_open.worker();
    r.at = OpenBuild::now();
    return r;
}

void ReadingEntry::store(size_t position, double si, const std::vector<double> &repeats_m)
{
    Reading r = blank(position);
    if (m_method == "two_instruments") {
        r.bore_mm = std::round(si * 1e7) / 1e4;
        r.journal_mm = std::round(*m_journal->value() * 1e7) / 1e4;
        r.journalU_um = r.u_um;
    }
    r.value_um = r.bore_mm ? tidy_um((*r.bore_mm - *r.journal_mm) * 1e-3) : tidy_um(si);
    for (const double v : repeats_m)
        r.repeats_um.push_back(
            tidy_um(m_method == "two_instruments" ? v - *m_journal->value() : v));
    r.overOilHole = m_method == "plastic_strip" && m_overHole->isChecked();
    keep(std::move(r));
}

void ReadingEntry::keep(Reading r)
{
    const Reading *standing = readingAt(m_open.build(), placeOf(r));
    if (standing && standing->value_um == r.value_um && standing->housing_c == r.housing_c
        && standing->journal_c == r.journal_c && standing->feel == r.feel
        && standing->bore_mm == r.bore_mm && standing->overOilHole == r.overOilHole
        && standing->repeats_um == r.repeats_um && standing->instrument == r.instrument
        && standing->capTorqued == r.capTorqued)
        return; // the same reading again is no new one
    const bool loose = r.capTorqued == false;
    const bool overHole = r.overOilHole;
    if (const auto ok = m_open.edit(EnterReading { std::move(r) }); !ok) {
        refresh();
        say(qs(ok.error().message), true);
        return;
    }
    m_overHole->setChecked(false);
    if (loose)
        say(tr("Kept, and flagged: the cap does not stand at its torque."), true);
    else
        say(overHole ? tr("Kept, not used: over an oil hole a strip reads wrong.") : QString(),
            overHole);
}

void ReadingEntry::withdraw(size_t position)
{
    const auto ok
        = m_open.edit(WithdrawReading { placeAt(position), m_open.worker(), OpenBuild::now() });
    if (!ok)
        say(qs(ok.error().message), true);
}

void ReadingEntry::go(size_t position, int by)
{
    for (int next = static_cast<int>(position) + by;; next += by) {
        if (next >= static_cast<int>(std::min(m_plan.size(), m_cells.size()))) {
            Q_EMIT pastEnd();
            return;
        }
        if (next < 0) {
            Q_EMIT beforeStart();
            return;
        }
        if (!m_cells[static_cast<size_t>(next)]->isHidden()) {
            m_cells[static_cast<size_t>(next)]->setFocus();
            return;
        }
    }
}

int ReadingEntry::positionInHand() const
{
    for (size_t i = 0; i < m_plan.size() && i < m_cells.size(); ++i)
        if (m_cells[i]->hasFocus())
            return static_cast<int>(i);
    return -1;
}

void ReadingEntry::takeFocus()
{
    QuantityField *first = nullptr;
    for (size_t i = 0; i < m_plan.size() && i < m_cells.size(); ++i) {
        if (m_cells[i]->isHidden())
            continue;
        first = first ? first : m_cells[i];
        if (!m_cells[i]->value()) {
            m_cells[i]->setFocus();
            return;
        }
    }
    if (first)
        first->setFocus();
}

/// A settled or typed value for the position in hand; with repeats, stored when all are there.
void ReadingEntry::takeFromGauge(double value_m)
{
    const int at = positionInHand();
    if (at < 0 || m_method == "drop_feel" || m_method == "plastic_strip")
        return; // nobody is measuring here
    const auto position = static_cast<size_t>(at);
    QuantityField *cell = m_cells[position];
    if (const auto ok = cell->check(value_m); !ok) {
        say(tr("The gauge reads %1: not taken, %2")
                .arg(Figure::clearance(value_m * 1e6).text(), qs(ok.error().message)),
            true);
        return;
    }
    if (m_repeatsAt != at)
        m_repeats_m.clear();
    m_repeatsAt = at;
    m_repeats_m.push_back(value_m);
    const auto wanted = static_cast<size_t>(m_repeatCount->currentData().toInt());
    if (m_repeats_m.size() < wanted) {
        QStringList so;
        for (const double v : m_repeats_m)
            so << Figure::clearance(v * 1e6, 0.5).number;
        cell->setValue(std::nullopt);
        say(tr("%1 of %2: %3")
                .arg(m_repeats_m.size())
                .arg(wanted)
                .arg(so.join(QStringLiteral(" · "))),
            false);
        return;
    }
    double mean = 0;
    for (const double v : m_repeats_m)
        mean += v / static_cast<double>(wanted);
    const std::vector<double> all = wanted > 1 ? m_repeats_m : std::vector<double> {};
    m_repeats_m.clear();
    cell->setValue(mean);
    store(position, mean, all);
    go(position, 1);
}

bool ReadingEntry::paste(const QString &text)
{
    const auto numbers = numbersOf(text.toStdString());
    if (numbers.empty())
        return false;
    size_t at = static_cast<size_t>(std::max(0, positionInHand()));
    EnterReadings all;
    const bool two = m_method == "two_instruments";
    for (const double n : numbers) {
        while (at < m_plan.size() && m_cells[at]->isHidden())
            ++at;
        if (at >= m_plan.size())
            break;
        const std::string &unit = m_cells[at]->shownUnit();
        const auto si = parseQuantity(formatPlain(n, 6), Dimension::Length, unit);
        if (!si || !m_cells[at]->check(si->si)) {
            say(tr("%1 cannot be pasted here; nothing was changed.").arg(n), true);
            return true;
        }
        Reading r = blank(at++);
        if (two) {
            r.bore_mm = n;
            r.journal_mm = m_journal->value().value_or(0) * 1e3;
            r.journalU_um = r.u_um;
        }
        r.value_um = two ? tidy_um((n - *r.journal_mm) * 1e-3) : tidy_um(si->si);
        all.readings.push_back(std::move(r));
    }
    const size_t count = all.readings.size();
    if (const auto ok = m_open.edit(std::move(all)); !ok)
        say(qs(ok.error().message), true);
    else
        say(tr("%1 pasted%2.")
                .arg(counted(count, tr("reading"), tr("readings")))
                .arg(numbers.size() > count ? tr("; %1 had no place").arg(numbers.size() - count)
                                            : QString()),
            numbers.size() > count);
    return true;
}

QString ReadingEntry::copied() const
{
    QStringList rows, row;
    int station = m_plan.empty() ? 1 : m_plan.front().station;
    for (size_t i = 0; i < m_plan.size() && i < m_cells.size(); ++i) {
        if (m_cells[i]->isHidden())
            continue;
        if (m_plan[i].station != station && m_family->plan == PlanKind::Shell) {
            rows << row.join(u'\t');
            row.clear();
            station = m_plan[i].station;
        }
        row << m_cells[i]->text();
    }
    rows << row.join(u'\t');
    return rows.join(u'\n') + u'\n';
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
    const auto it = std::find(m_cells.begin(), m_cells.end(), watched);
    if (it == m_cells.end())
        return QWidget::eventFilter(watched, event);
    if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) {
        const auto i = static_cast<size_t>(it - m_cells.begin());
        m_shell->setCurrent(
            event->type() == QEvent::FocusIn && i < m_plan.size() ? m_plan[i].angle_deg : -1);
    }
    return QWidget::eventFilter(watched, event);
}

void ReadingEntry::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    drawCard(p, rect());
}

} // namespace mildpath
