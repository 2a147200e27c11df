// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/recheckpage.h"

#include "circuit/elementtypes.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/entryform.h"
#include "entry/refusal.h"
#include "open/questions.h"
#include "paint/marks.h"
#include "paint/titledcard.h"
#include "plot/chartview.h"
#include "shell/fallback.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace mildpath {
namespace {

constexpr double recheckLabels = 150, recheckFigures = 150, recheckTopGap = 6, recheckAxisGap = 34;

} // namespace

RecheckView::RecheckView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("recheckView"));
    setAccessibleName(tr("Before and after the run"));
}

void RecheckView::show(const Recheck &recheck, const QString &stop)
{
    m_recheck = recheck;
    m_stop = stop;
    setFixedHeight(static_cast<int>(recheckTopGap + recheckAxisGap)
                   + rowHeight * static_cast<int>(std::max<size_t>(2, recheck.sizes.size())));
    QStringList spoken;
    for (const Rechecked &r : recheck.sizes)
        spoken << qs(r.name) + QStringLiteral(": ") + qs(r.verdict);
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

void RecheckView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (m_recheck.sizes.empty()) {
        drawLine(p, QRectF(12, 6, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 m_recheck.opening.empty()
                     ? tr("Not opened yet: note the hours when it is, then gauge on Clearances.")
                     : tr("Nothing gauged again yet: gauge on Clearances."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    const QRectF area(recheckLabels, recheckTopGap, width() - recheckLabels - recheckFigures,
                      height() - recheckTopGap - recheckAxisGap);
    Axis axis { 1e9, 0, area.left(), area.right(), Shows::Clearance };
    for (const Rechecked &r : m_recheck.sizes) {
        for (const double v :
             { r.after_um.value, r.before_um ? r.before_um->value : r.after_um.value,
               r.limits ? r.limits->min_um : r.after_um.value,
               r.limits ? r.limits->max_um : r.after_um.value }) {
            axis.from = std::min(axis.from, v * 1e-6);
            axis.to = std::max(axis.to, v * 1e-6);
        }
    }
    axis.widen(0.06);
    axis.name = tr("diametral clearance at %1, %2")
                    .arg(Figure::temperature(20).text(), unitOf(Shows::Clearance));
    drawAlong(p, axis, area);
    for (size_t i = 0; i < m_recheck.sizes.size(); ++i)
        paintRow(p, m_recheck.sizes[i], axis,
                 recheckTopGap + rowHeight * (static_cast<double>(i) + 0.5));
}

void RecheckView::paintRow(QPainter &p, const Rechecked &r, const Axis &axis, double y) const
{
    const Theme &t = Theme::current();
    if (qs(r.stop) == m_stop)
        p.fillRect(QRectF(4, y - rowHeight / 2.0 + 1, width() - 8, rowHeight - 2), t.selectionFill);
    drawMark(p, { 16, y }, 11, r.mark);
    drawLine(p, QRectF(28, y - 10, recheckLabels - 32, 20), Qt::AlignLeft | Qt::AlignVCenter,
             qs(r.name), textFont(TextSize::Normal, true), t.ink);
    if (r.limits) {
        p.fillRect(QRectF(QPointF(axis.at(r.limits->min_um * 1e-6), y - 5),
                          QPointF(axis.at(r.limits->max_um * 1e-6), y + 5)),
                   t.line);
        p.setPen(QPen(t.muted, 1.5));
        for (const double l : { r.limits->min_um, r.limits->max_um })
            p.drawLine(QPointF(axis.at(l * 1e-6), y - 7), QPointF(axis.at(l * 1e-6), y + 7));
    }
    const double after = axis.at(r.after_um.value * 1e-6);
    const QColor colour = t.mark(r.mark);
    if (r.before_um) {
        const double before = axis.at(r.before_um->value * 1e-6);
        p.setPen(QPen(colour, 1.5));
        p.drawLine(QPointF(before, y), QPointF(after, y));
        p.setPen(QPen(t.ink, 1.5));
        p.setBrush(t.panel);
        p.drawEllipse(QPointF(before, y), 4, 4);
    }
    p.setPen(Qt::NoPen);
    p.setBrush(colour);
    p.drawEllipse(QPointF(after, y), 4.5, 4.5);
    drawLine(
        p, QRectF(axis.end + 12, y - 10, recheckFigures - 16, 20), Qt::AlignLeft | Qt::AlignVCenter,
        r.before_um ? QStringLiteral("%1 → %2").arg(Figure::clearance(r.before_um->value).number,
                                                    Figure::clearance(r.after_um.value).text())
                    : Figure::clearance(r.after_um.value).text(),
        textFont(TextSize::Normal), r.changed ? colour : t.ink);
}

void RecheckView::mousePressEvent(QMouseEvent *event)
{
    const int row = static_cast<int>((event->position().y() - recheckTopGap) / rowHeight);
    if (row >= 0 && row < static_cast<int>(m_recheck.sizes.size()))
        Q_EMIT picked(row);
}

RecheckPage::RecheckPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_openings(new ArrowCombo(this))
    , m_form(new EntryForm(QStringLiteral("opening"), 2, this))
    , m_view(new RecheckView(nullptr))
    , m_chart(new ChartView(this))
    , m_said(new QLabel(this))
    , m_fallBack(new FallBackNote(open, QStringLiteral("opening.fallBack"), this))
{
    setObjectName(QStringLiteral("recheckPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *row = new QHBoxLayout;
    m_form->addNumber(recordType<Opening>(), "engine_hours_h", tr("Opened again after"), 1);
    m_form->addWord("note", tr("Why"));
    row->addWidget(m_form, 3);
    auto *note = new QPushButton(tr("Note it opened"), this);
    note->setObjectName(QStringLiteral("opening.record"));
    row->addWidget(note, 0, Qt::AlignBottom);
    row->addSpacing(12);
    m_openings->setObjectName(QStringLiteral("openings"));
    m_openings->setAccessibleName(tr("Which opening"));
    row->addWidget(m_openings, 2, Qt::AlignBottom);
    column->addLayout(row);
    column->addWidget(m_fallBack);
    column->addWidget(
        titledCard(tr("Ring: before the run. Dot: gauged again. Bar: limits"), m_view, this), 5);
    auto *card = new CardWidget(this);
    makeChange(card);
    column->addWidget(card, 5);
    connect(note, &QPushButton::clicked, this, &RecheckPage::noteOpening);
    connect(m_form, &EntryForm::submitted, this, &RecheckPage::noteOpening);
    connect(m_openings, &QComboBox::activated, this, [this](int i) {
        m_opening = m_openings->itemData(i).toString().toStdString();
        refresh();
        Q_EMIT changed();
    });
    connect(m_view, &RecheckView::picked, this,
            [this](int i) { m_open.selectStop(qs(m_recheck.sizes[static_cast<size_t>(i)].stop)); });
    connect(&open, &OpenBuild::opened, this, [this] {
        m_opening.clear();
        m_answer.reset();
        m_modified = nullptr;
        m_changes.clear();
        m_said->clear();
    });
    follow(qs(ask::modified({}).topic));
}

void RecheckPage::makeChange(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(14, 6, 12, 8);
    column->setSpacing(4);
    auto *title = new QLabel(tr("A passage made otherwise: what it would do"), card);
    title->setFont(textFont(TextSize::Normal, true));
    column->addWidget(title);
    auto *row = new QHBoxLayout;
    m_change = new EntryForm(QStringLiteral("modified"), 3, card);
    m_change->addChoice("element", tr("Part of the circuit"), {});
    m_change->addChoice("key", tr("Dimension"), {});
    m_change->addNumber("value", tr("Made to"), Dimension::Number, "", 2);
    row->addWidget(m_change, 1);
    auto *compare = new QPushButton(tr("Compare"), card);
    compare->setObjectName(QStringLiteral("modified.compare"));
    row->addWidget(compare, 0, Qt::AlignBottom);
    column->addLayout(row);
    m_said->setObjectName(QStringLiteral("modified.said"));
    m_said->setWordWrap(true);
    column->addWidget(m_said);
    column->addWidget(m_chart, 1);
    column->addStretch();
    connect(m_change->choiceBox("element"), &QComboBox::currentIndexChanged, this,
            &RecheckPage::fillKeys);
    connect(compare, &QPushButton::clicked, this, &RecheckPage::compare);
    connect(m_change, &EntryForm::submitted, this, &RecheckPage::compare);
}

/// Passages and restrictions of the circuit: what a drill or a jet can change.
void RecheckPage::fillElements()
{
    std::string shape;
    std::vector<std::pair<QString, QString>> options;
    for (const Element &e : m_open.build().circuit.elements) {
        if (e.kind != ElementKind::Pipe && e.kind != ElementKind::Drilling
            && e.kind != ElementKind::Orifice && e.kind != ElementKind::Jet
            && e.kind != ElementKind::CrankDrilling)
            continue;
        QString name = qs(e.id);
        name.replace(u'_', u' ');
        options.emplace_back(qs(e.id), name);
        shape += e.id + ";";
    }
    if (shape == m_shape)
        return;
    m_shape = shape;
    QComboBox *box = m_change->choiceBox("element");
    const QSignalBlocker block(box);
    box->clear();
    for (const auto &[id, name] : options)
        box->addItem(name, id);
    fillKeys();
}

void RecheckPage::fillKeys()
{
    QComboBox *box = m_change->choiceBox("key");
    box->clear();
    const Element *e = m_open.build().circuit.find(m_change->choice("element"));
    if (!e)
        return;
    for (const NumberKey &k : elementType(e->kind).keys) {
        const double now = e->value(k.key);
        box->addItem(tr("%1, now %2").arg(qs(k.meaning), inFileUnit(now, unitOfKey(k.key))),
                     qs(k.key));
    }
}

void RecheckPage::noteOpening()
{
    if (!m_form->number("engine_hours_h"))
        return m_form->say(tr("Enter the engine's hours."));
    Opening o;
    m_form->fill(o);
    o.note = m_form->word("note");
    o.readings = static_cast<int>(m_open.build().readings.size());
    if (const auto done = m_open.record(o); !done)
        return m_form->say(qs(done.error().message));
    m_opening = m_open.build().openings.back().id;
    m_form->clear();
    refresh();
    Q_EMIT changed();
}

const Opening *RecheckPage::chosen() const
{
    for (const Opening *o : standing(m_open.build().openings))
        if (o->id == m_opening)
            return o;
    return nullptr;
}

void RecheckPage::refresh()
{
    if (m_modified) {
        m_said->setText(qs(m_modified->verdict)); // in the units chosen since
        showModified();
    }
    Opening opened; // what opening it now would take back
    opened.at = OpenBuild::endOfToday();
    opened.readings = static_cast<int>(m_open.build().readings.size());
    m_fallBack->propose({ AddEntry { std::move(opened) } });
    const auto all = standing(m_open.build().openings);
    if (!chosen())
        m_opening = all.empty() ? "" : all.back()->id;
    {
        const QSignalBlocker block(m_openings);
        m_openings->clear();
        for (const Opening *o : all) {
            m_openings->addItem(tr("opened at %1 h").arg(qs(formatPlain(o->engine_h, 0))),
                                qs(o->id));
            if (o->id == m_opening)
                m_openings->setCurrentIndex(m_openings->count() - 1);
        }
    }
    m_openings->setVisible(!all.empty());
    m_recheck = chosen() ? recheckOf(m_open.build(), *chosen()) : Recheck {};
    m_view->show(m_recheck, m_open.selectedStop());
    fillElements();
    // The first look shows what is kept; the stop in hand is what one would change.
    if (m_changes.empty())
        for (const Scenario *s : standing(m_open.build().scenarios))
            if (m_changes.empty() && !s->changes.empty())
                m_changes = s->changes;
    // Of the engine as it is now: anew after every edit, and what is there stands until then.
    if (!m_changes.empty())
        take(m_open.answers().latest(ask::modified(m_changes)));
    if (m_stop != m_open.selectedStop()) {
        m_stop = m_open.selectedStop();
        if (const Stop *stop = m_open.build().engine.find(m_stop.toStdString()))
            for (const std::string &id : stop->elements)
                if (const int i = m_change->choiceBox("element")->findData(qs(id)); i >= 0) {
                    m_change->choiceBox("element")->setCurrentIndex(i);
                    break;
                }
    }
    showModified();
    setTone(m_said, Theme::current().ink);
}

void RecheckPage::compare()
{
    const auto value = m_change->number("value");
    if (!value)
        return m_change->say(tr("Enter what it is made to."));
    m_changes = { { m_change->choice("element"), m_change->choice("key"), *value } };
    m_change->say({});
    refresh();
}

void RecheckPage::take(std::shared_ptr<const Answered<Result<Modified>>> answer)
{
    if (!answer || answer == m_answer)
        return;
    m_answer = std::move(answer);
    const Result<Modified> &made = m_answer->answer;
    m_modified = made ? &*made : nullptr;
    m_said->setText(made ? qs(made->verdict) : QString());
    m_change->say(made ? QString() : qs(made.error().message));
    if (!made)
        m_changes.clear();
}

void RecheckPage::showModified()
{
    m_chart->setVisible(m_modified != nullptr);
    if (!m_modified)
        return;
    const Theme &t = Theme::current();
    Chart chart;
    double most = 1e5;
    const auto add
        = [&](const ForecastLine &line, const QString &name, const QColor &colour, bool made) {
              ChartLine l { name, colour, line.rpm, {} };
              l.pen = made ? Qt::DashLine : Qt::SolidLine;
              l.labelAt = made ? 0.75 : 0.4;
              for (const LikelyPressure &g : line.gauge) {
                  l.y.push_back(g.value_pa);
                  most = std::max(most, made ? g.value_pa : g.high_pa);
                  if (made)
                      continue;
                  l.low.push_back(g.low_pa);
                  l.high.push_back(g.high_pa);
              }
              chart.lines.push_back(std::move(l));
          };
    add(m_modified->before.front(), tr("as it is"), t.warm, false);
    add(m_modified->after.front(), tr("made so"), t.ink, true);
    const std::vector<double> &rpm = chart.lines.front().x;
    chart.x = { rpm.front(), rpm.back(), 0, 1, Shows::Speed };
    chart.y = { 0, roundedUp(most, Shows::Pressure), 0, 1, Shows::Pressure };
    chart.y.name = tr("%1 at the pressure gauge, hot oil").arg(unitOf(Shows::Pressure));
    m_chart->setChart(std::move(chart));
}

QString RecheckPage::about() const
{
    if (m_recheck.opening.empty())
        return tr("not opened since the build");
    const auto off
        = std::ranges::count_if(m_recheck.sizes, [](const Rechecked &r) { return r.changed; });
    return tr("%1 measured again, %2 changed")
        .arg(counted(m_recheck.sizes.size(), tr("size"), tr("sizes")))
        .arg(off);
}

/// Changes kept with the build, to be compared again.
void RecheckPage::keptPanel(PanelContent &out)
{
    PanelChoice c { QStringLiteral("modified.kept"), tr("Kept with the build"), {}, -1, {} };
    std::vector<std::vector<ElementChange>> changes;
    for (const Scenario *s : standing(m_open.build().scenarios)) {
        if (s->changes.empty())
            continue;
        if (s->changes == m_changes)
            c.current = static_cast<int>(changes.size());
        c.options << qs(s->name);
        changes.push_back(s->changes);
    }
    if (changes.empty())
        return;
    c.chosen = [this, changes](int i) -> Result<void> {
        m_changes = changes[static_cast<size_t>(i)];
        refresh();
        return {};
    };
    out.push_back(PanelRule {});
    out.push_back(std::move(c));
}

PanelContent RecheckPage::panel()
{
    PanelContent out;
    const Opening *o = chosen();
    if (o) {
        out.push_back(
            PanelTitle { tr("Opened at %1 h").arg(qs(formatPlain(o->engine_h, 0))), qs(o->note) });
        for (const Rechecked &r : m_recheck.sizes)
            if (r.changed || r.mark == Mark::Hold || qs(r.stop) == m_open.selectedStop())
                out.push_back(PanelVerdict { r.mark, qs(r.name), qs(r.verdict) });
        if (m_recheck.notAgain > 0)
            out.push_back(
                PanelText { tr("%1 not measured again.")
                                .arg(counted(m_recheck.notAgain, tr("size"), tr("sizes"))),
                            Tone::Muted });
        out.push_back(PanelButton {
            QStringLiteral("opening.takeBack"), tr("Take the opening back"),
            [open = &m_open, id = o->id] { saidIfRefused(open->takeBack("openings", id)); } });
        out.push_back(PanelRule {});
    }
    out.push_back(PanelText {
        tr("What is gauged after the opening was noted counts as after the run, by the order of "
           "the logbook. Readings from before stay. Gauge with the same instrument, cold, caps "
           "torqued as before: then a difference is wear."),
        Tone::Muted });
    keptPanel(out);
    if (!m_modified)
        return out;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Made otherwise") });
    out.push_back(PanelChange { tr("Hot idle, gauge"),
                                Figure::pressure(m_modified->idleBefore.gauge.value_pa),
                                Figure::pressure(m_modified->idleAfter.gauge.value_pa) });
    out.push_back(PanelChange { tr("Hot idle, weakest feed"),
                                Figure::pressure(m_modified->idleBefore.weakestPressure.value_pa),
                                Figure::pressure(m_modified->idleAfter.weakestPressure.value_pa) });
    if (!m_modified->readings.empty())
        out.push_back(PanelText { tr("Read; forecast as it is → made so:"), Tone::Muted });
    for (const ModifiedReading &r : m_modified->readings)
        out.push_back(PanelRow {
            qs(turnedText(r.rpm, r.byDrill)),
            { tr("%1 read; %2 → %3")
                  .arg(Figure::pressure(r.read_pa).number, Figure::pressure(r.asIs_pa).number,
                       Figure::pressure(r.modified_pa).number),
              unitOf(Shows::Pressure),
              {} },
            tr("read, then forecast as it is and made so") });
    const auto all = standing(m_open.build().scenarios);
    const bool kept
        = std::ranges::any_of(all, [&](const Scenario *one) { return one->changes == m_changes; });
    // An edit renews the side panel and with it these functions: they only call on.
    if (!kept)
        out.push_back(PanelButton { QStringLiteral("modified.keep"), tr("Keep it as a scenario"),
                                    [this] { keep(); } });
    out.push_back(PanelButton { QStringLiteral("modified.make"),
                                tr("It is made so: change the build"), [this] { make(); } });
    return out;
}

void RecheckPage::keep()
{
    Scenario s;
    s.changes = m_changes;
    QString name = qs(m_changes.front().element);
    name.replace(u'_', u' ');
    s.name = (name + tr(" made otherwise")).toStdString();
    if (const auto done = m_open.record(s); !done)
        m_change->say(qs(done.error().message));
}

void RecheckPage::make()
{
    // What is made is nothing to compare with any more.
    const std::vector<ElementChange> changes = std::exchange(m_changes, {});
    m_answer.reset();
    m_modified = nullptr;
    m_said->clear();
    for (const ElementChange &c : changes)
        if (const auto done = m_open.edit(SetElementValue { c.element, c.key, c.value }); !done)
            m_change->say(qs(done.error().message));
}

} // namespace mildpath
