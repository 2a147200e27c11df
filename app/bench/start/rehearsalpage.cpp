// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/rehearsalpage.h"

#include "bench/start/livetrace.h"
#include "document/logbook.h"
#include "entry/arrowcombo.h"
#include "entry/rowlist.h"
#include "paint/titledcard.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QRandomGenerator>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace mildpath {
namespace {

constexpr int rehearsalTick_ms = 50;
constexpr double timesFaster = 4; ///< the engine's time against the clock's
constexpr double pointEvery_s = 0.1;
constexpr double harmWarns = 0.4;

QString minutes(double m)
{
    return m < 1 ? QObject::tr("< 1 min") : QObject::tr("%1 min").arg(qs(formatNumber(m, 0)));
}

} // namespace

RehearsalPage::RehearsalPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_timer(new QTimer(this))
    , m_trace(new LiveTrace(this))
    , m_stack(new QStackedWidget(this))
    , m_debrief(new QTextBrowser(this))
    , m_looks(new RowList({ 0, 0.8 }, 0, nullptr))
    , m_path(new RowList({ 0, 0.36, 0.86 }, 0, nullptr))
{
    setObjectName(QStringLiteral("rehearsalPage"));
    m_trace->setObjectName(QStringLiteral("rehearsal.trace"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    makeControls(column);
    column->addWidget(m_trace, 5);
    m_harm = new QLabel(this);
    m_harm->setObjectName(QStringLiteral("rehearsal.harm"));
    column->addWidget(m_harm);
    m_saw = new QLabel(this);
    m_saw->setObjectName(QStringLiteral("rehearsal.saw"));
    m_saw->setFont(textFont(TextSize::Body, true));
    m_saw->setWordWrap(true);
    column->addWidget(m_saw);
    auto *cards = new QWidget(this);
    auto *row = new QHBoxLayout(cards);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(10);
    m_looks->setObjectName(QStringLiteral("rehearsal.looks"));
    m_looks->setAccessibleName(tr("Look at something: what, effort"));
    row->addWidget(titledCard(tr("Look"), m_looks, cards), 4);
    m_path->setObjectName(QStringLiteral("rehearsal.path"));
    m_path->setAccessibleName(tr("What was done so far"));
    row->addWidget(titledCard(tr("Done so far"), m_path, cards), 5);
    m_stack->addWidget(cards);
    m_debrief->setObjectName(QStringLiteral("rehearsal.debrief"));
    m_debrief->setFrameShape(QFrame::NoFrame);
    m_stack->addWidget(m_debrief);
    column->addWidget(m_stack, 4);
    std::vector<RowList::Row> rows;
    for (const Look &l : looks())
        rows.push_back({ Mark::NotDone, { qs(l.text), minutes(l.minutes) }, {} });
    m_looks->setRows(std::move(rows));
    connect(m_looks, &RowList::picked, this, &RehearsalPage::look);
    m_timer->setInterval(rehearsalTick_ms);
    connect(m_timer, &QTimer::timeout, this,
            [this] { advance(timesFaster * rehearsalTick_ms / 1000.0); });
    qApp->installEventFilter(this);
    show();
}

void RehearsalPage::reset()
{
    m_timer->stop();
    m_rehearsal.reset();
    m_played.clear();
    m_now.reset();
    m_said.clear();
}

void RehearsalPage::makeControls(QVBoxLayout *column)
{
    auto *first = new QHBoxLayout, *second = new QHBoxLayout;
    const auto button = [this](QHBoxLayout *row, const char *name, const QString &text) {
        auto *b = new QPushButton(text, this);
        b->setObjectName(QLatin1String(name));
        row->addWidget(b);
        return b;
    };
    m_begin = button(first, "rehearsal.begin", tr("Hide a fault"));
    m_begin->setProperty("main", true);
    connect(m_begin, &QPushButton::clicked, this,
            [this] { begin(QRandomGenerator::global()->bounded(1, 1000000)); });
    const std::pair<const char *, QString> ways[] = {
        { "rehearsal.drill", tr("Prime by drill") },
        { "rehearsal.idle", tr("Start, idle") },
        { "rehearsal.fast", Figure::speed(2000).text() },
    };
    for (const auto &[name, text] : ways)
        m_turns.push_back(button(first, name, text));
    connect(m_turns[0], &QPushButton::clicked, this,
            [this] { turn(Turning::Drill, *m_open.build().start.value("drill_rpm")); });
    connect(m_turns[1], &QPushButton::clicked, this,
            [this] { turn(Turning::Running, m_open.build().use.hotIdle_rpm); });
    connect(m_turns[2], &QPushButton::clicked, this,
            [this] { turn(Turning::Running, *m_open.build().start.value("fast_rpm")); });
    m_stop = button(first, "rehearsal.stop", tr("Switch off (simulated)"));
    m_stop->setProperty("danger", true);
    connect(m_stop, &QPushButton::clicked, this, [this] { turn(Turning::Still, 0); });
    first->addStretch();
    column->addLayout(first);
    m_tap = new ArrowCombo(this);
    m_tap->setObjectName(QStringLiteral("rehearsal.tap"));
    m_tap->setAccessibleName(tr("Where the gauge is read"));
    second->addWidget(m_tap);
    m_read = button(second, "rehearsal.read", tr("Read the gauge"));
    connect(m_read, &QPushButton::clicked, this, &RehearsalPage::readTap);
    second->addSpacing(16);
    m_answer = new ArrowCombo(this);
    m_answer->setObjectName(QStringLiteral("rehearsal.answer"));
    m_answer->setAccessibleName(tr("Which fault it is"));
    m_answer->setMinimumWidth(210);
    second->addWidget(m_answer, 1);
    m_name = button(second, "rehearsal.name", tr("That is it"));
    connect(m_name, &QPushButton::clicked, this, &RehearsalPage::nameIt);
    m_giveUp = button(second, "rehearsal.giveUp", tr("Give up"));
    connect(m_giveUp, &QPushButton::clicked, this, [this] {
        turn(Turning::Still, 0);
        m_rehearsal->giveUp();
        show();
    });
    column->addLayout(second);
}

bool RehearsalPage::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::KeyPress && isVisible() && m_rehearsal && watched->isWidgetType()
        && static_cast<QWidget *>(watched)->window() == window()
        && m_rehearsal->engine().turning() != Turning::Still
        && static_cast<QKeyEvent *>(event)->key() == Qt::Key_Space) {
        turn(Turning::Still, 0);
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

QString RehearsalPage::begin(unsigned seed)
{
    m_seed = seed;
    auto rehearsal = Rehearsal::make(m_open.build(), m_open.assessment(), seed);
    const QString why = rehearsal ? QString() : qs(rehearsal.error().message);
    begun(std::move(rehearsal));
    return why;
}

QString RehearsalPage::beginWith(const Fault &fault, unsigned seed)
{
    m_seed = seed;
    auto rehearsal = Rehearsal::with(m_open.build(), m_open.assessment(), fault, seed);
    const QString why = rehearsal ? QString() : qs(rehearsal.error().message);
    begun(std::move(rehearsal));
    return why;
}

void RehearsalPage::begun(Result<Rehearsal> rehearsal)
{
    m_played.clear();
    m_now.reset();
    m_rehearsal.reset();
    if (!rehearsal) {
        m_said = qs(rehearsal.error().message);
        show();
        return;
    }
    m_rehearsal = std::move(*rehearsal);
    m_hidIn = m_open.document();
    m_said = tr("One fault is hidden in a copy of this build. Prime, look, read; name it before it "
                "does harm.");
    const QSignalBlocker block(m_answer);
    m_answer->clear();
    for (const RehearsalAnswer &a : m_rehearsal->answers())
        m_answer->addItem(qs(a.name));
    m_answer->setCurrentIndex(-1);
    m_answer->setPlaceholderText(tr("which fault is it?"));
    m_tap->clear();
    for (const auto &[tap, node] : m_open.build().circuit.taps)
        m_tap->addItem(qs(tapName(m_open.build(), tap)), qs(tap));
    m_tap->setCurrentIndex(m_tap->findData(qs(m_open.build().gaugeTap)));
    m_timer->start();
    show();
    Q_EMIT changed();
}

void RehearsalPage::turn(Turning how, double rpm)
{
    if (!m_rehearsal)
        return;
    m_rehearsal->turn(how, rpm);
    show();
    Q_EMIT changed();
}

void RehearsalPage::advance(double dt_s)
{
    if (!m_rehearsal || m_rehearsal->ended())
        return;
    // Nothing turns: no time goes by, so that one may think.
    if (m_rehearsal->engine().turning() == Turning::Still && m_rehearsal->engine().crank_rpm() <= 0)
        return;
    while (dt_s > 1e-9) {
        const double step = std::min(dt_s, pointEvery_s);
        m_rehearsal->advance(step);
        dt_s -= step;
        if (const auto read = m_rehearsal->engine().read()) {
            m_played.add({ *read });
            m_now = read;
        }
    }
    show();
    if (m_rehearsal->ended())
        Q_EMIT changed();
}

void RehearsalPage::look(int row)
{
    if (!m_rehearsal || m_rehearsal->ended())
        return;
    m_looks->choose(row);
    const Look &l = looks()[static_cast<size_t>(row)];
    m_said = qs(l.text) + QStringLiteral(": ") + qs(m_rehearsal->look(l));
    show();
    Q_EMIT changed();
}

void RehearsalPage::readTap()
{
    const QString tap = m_tap->currentData().toString();
    const double kpa = m_rehearsal->readGauge(tap.toStdString());
    m_said = m_tap->currentText() + QStringLiteral(": ") + Figure::pressure(kpa * 1e3).text();
    show();
    Q_EMIT changed();
}

void RehearsalPage::nameIt()
{
    const int i = m_answer->currentIndex();
    if (!m_rehearsal || i < 0)
        return;
    turn(Turning::Still, 0);
    m_rehearsal->name(m_rehearsal->answers()[static_cast<size_t>(i)].fault);
    show();
    Q_EMIT changed();
}

QString RehearsalPage::about() const
{
    if (!m_rehearsal)
        return tr("no fault is hidden");
    return tr("%1 of effort so far · seed %2").arg(minutes(m_rehearsal->minutes())).arg(m_seed);
}

void RehearsalPage::refresh()
{
    // The build went on: what is hidden is hidden in the old one.
    if (m_rehearsal && !m_rehearsal->ended() && m_hidIn != m_open.document()) {
        m_rehearsal.reset();
        m_played.clear();
        m_now.reset();
        m_said = tr("The build was changed: hide a fault anew.");
        Q_EMIT changed();
    }
    show();
}

void RehearsalPage::show()
{
    const Theme &t = Theme::current();
    const bool on = m_rehearsal && !m_rehearsal->ended();
    const bool turns = on && m_rehearsal->engine().turning() != Turning::Still;
    const bool runs = on && m_rehearsal->engine().turning() == Turning::Running;
    for (QPushButton *b : m_turns)
        b->setEnabled(on && (!turns || (runs && b != m_turns[0])));
    m_stop->setEnabled(turns);
    m_read->setEnabled(on);
    m_name->setEnabled(on);
    m_giveUp->setEnabled(on);
    m_tap->setEnabled(on);
    m_answer->setEnabled(on);
    if (!on)
        m_timer->stop();
    TraceScene scene;
    scene.trace = &m_played;
    scene.minutes = true;
    scene.least_s = 60;
    scene.floor_kpa = m_open.build().engine.stops.empty()
        ? std::nullopt
        : std::optional(m_open.build().use.hotIdleFloor_kpa);
    if (m_rehearsal && m_now) {
        scene.big = Figure::pressure(*m_now->pressure_kpa * 1e3);
        scene.under = Figure::speed(*m_now->rpm).text() + QStringLiteral(" · ")
            + tr("oil %1").arg(Figure::temperature(*m_now->oil_c).text());
    }
    const double harm = m_rehearsal ? m_rehearsal->harm().worst() : 0;
    if (harm >= 1)
        scene.alarm = tr("Harm done: %1 ran too long below what it needs.")
                          .arg(qs(m_rehearsal->harm().where()));
    m_trace->setScene(std::move(scene));
    // What suffers is not told: the gauge and the eyes must find it. That something does, is.
    m_harm->setText(!on                     ? QString()
                        : harm >= harmWarns ? tr("Something runs dry. Stop before it is harmed.")
                                            : tr("No harm yet."));
    setTone(m_harm, harm >= harmWarns ? t.hold : t.muted);
    m_saw->setText(m_said);
    std::vector<RowList::Row> rows;
    if (m_rehearsal)
        for (const RehearsalStep &s : m_rehearsal->steps())
            rows.push_back(
                { Mark::NotAsked, { qs(s.what), qs(s.saw), minutes(s.minutes) }, qs(s.saw), true });
    m_path->setRows(std::move(rows));
    const bool over = m_rehearsal && m_rehearsal->ended();
    if (over)
        showDebrief();
    m_stack->setCurrentIndex(over ? 1 : 0);
    m_harm->setVisible(!over);
    m_saw->setVisible(!over);
    // What it comes to wants more room than the trace that led there.
    auto *column = static_cast<QVBoxLayout *>(layout());
    column->setStretchFactor(m_trace, over ? 3 : 5);
    column->setStretchFactor(m_stack, over ? 6 : 4);
}

void RehearsalPage::showDebrief()
{
    const Debrief d = m_rehearsal->debrief(m_open.assessment());
    const auto list = [](const std::vector<RehearsalStep> &steps) {
        QString out;
        for (const RehearsalStep &s : steps)
            out += QStringLiteral("<li>%1: %2 <i>(%3)</i></li>")
                       .arg(qs(s.what).toHtmlEscaped(), qs(s.saw).toHtmlEscaped(),
                            minutes(s.minutes).toHtmlEscaped());
        return QStringLiteral("<ol>%1</ol>").arg(out);
    };
    QString signs;
    for (const Phrase &s : d.signs)
        signs += QStringLiteral("<li>%1</li>").arg(qs(s).toHtmlEscaped());
    const QString html
        = QStringLiteral("<h3>%1</h3><p>%2</p><table width='100%'><tr><td width='50%'><b>%3</b>%4"
                         "</td><td><b>%5</b>%6<b>%7</b><ul>%8</ul></td></tr></table>")
              .arg(qs(d.verdict).toHtmlEscaped(),
                   tr("Hidden fault: <b>%1</b>.%2")
                       .arg(qs(d.hidden).toHtmlEscaped(),
                            d.named.empty()
                                ? QString()
                                : tr(" Named was: %1.").arg(qs(d.named).toHtmlEscaped())),
                   tr("Your way, %1").arg(minutes(d.minutes).toHtmlEscaped()), list(d.path),
                   tr("The shortest way, %1").arg(minutes(d.bestMinutes).toHtmlEscaped()),
                   list(d.best), tr("Signs that were there"), signs);
    if (m_debrief->toHtml() != html)
        m_debrief->setHtml(html);
}

PanelContent RehearsalPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("A fault, hidden"), tr("in a copy: this build stays as it is") });
    out.push_back(PanelText { tr(
        "Its clearances, oil and gauge are drawn within their uncertainties, so that it is never "
        "the forecast's own engine. Time goes four times as fast, and stands while nothing "
        "turns.") });
    if (m_rehearsal) {
        const PrimeForecast &p = m_rehearsal->prime();
        if (p.time.time_s)
            out.push_back(PanelRow { tr("Prime: pressure in"),
                                     Shown { qs(formatNumber(*p.time.low_s, 0)) + tr(" to ")
                                                 + qs(formatNumber(*p.time.high_s, 0)),
                                             QStringLiteral("s"),
                                             {} } });
        out.push_back(PanelRow { tr("then at the gauge"), Figure::pressure(p.steady.value_pa) });
        out.push_back(PanelRow { tr("Hot idle at the gauge"),
                                 Figure::pressure(m_open.operating().hotIdle.gauge.value_pa) });
    }
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("When harm is done") });
    out.push_back(PanelText {
        tr("Running with a bearing below its required pressure: 20 s at idle, 5 s above %1. "
           "Lifters, rockers and cam bearings: 300 s. Priming harms nothing.")
            .arg(Figure::speed(2000).text()) });
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Effort") });
    out.push_back(
        PanelText { tr("Every look costs its minutes and shows only what it can show. The gauge "
                       "again: 2 min; at "
                       "another port: 15 min. Afterwards the shortest way stands beside yours."),
                    Tone::Muted });
    return out;
}

} // namespace mildpath
