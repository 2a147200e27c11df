// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/startpage.h"

#include "bench/start/alarmsound.h"
#include "bench/start/cardlist.h"
#include "bench/start/causescard.h"
#include "bench/start/livetrace.h"
#include "bench/start/runimportcard.h"
#include "devices/serialsender.h"
#include "entry/photostrip.h"
#include "kinds/cautions.h"
#include "open/questions.h"
#include "paint/scrolled.h"

#include <QApplication>
#include <QFile>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QStyle>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double readOver_s = 2; ///< a reading is the mean of so long
constexpr int narrowestCard = 200, widestCard = 268;

/// No more digits than a gauge and a sender can mean.
std::optional<double> rounded(const std::optional<double> &value, double step)
{
    return value ? std::optional(std::round(*value / step) * step) : value;
}
RunPoint rounded(const RunPoint &p)
{
    return { p.t_s, rounded(p.pressure_kpa, 0.1), rounded(p.rpm, 1), rounded(p.oil_c, 0.1) };
}

} // namespace

StartPage::StartPage(OpenBuild &open, SerialSender *sender, QWidget *parent)
    : Page(open, parent)
    , m_sender(sender)
    , m_log(new LiveLog(open.stateFolder().isEmpty() ? QString()
                                                     : open.stateFolder() + QStringLiteral("/runs"),
                        this))
    , m_sound(new AlarmSound(this))
    , m_list(new CardList(nullptr))
    , m_left(new QWidget(this))
    , m_middle(new QStackedWidget(this))
{
    setObjectName(QStringLiteral("startPage"));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(12);
    m_left->setFixedWidth(widestCard);
    auto *leftColumn = new QVBoxLayout(m_left);
    leftColumn->setContentsMargins(0, 0, 0, 0);
    auto *cardTitle = new QLabel(tr("Start-up checklist"), m_left);
    cardTitle->setFont(textFont(TextSize::Body, true));
    leftColumn->addWidget(cardTitle);
    leftColumn->addWidget(scrolled(m_list, m_left), 1);
    row->addWidget(m_left);
    auto *live = new QWidget(m_middle);
    makeLive(live);
    m_import = new RunImportCard(m_middle);
    m_middle->addWidget(live);
    m_middle->addWidget(m_import);
    row->addWidget(m_middle, 1);
    connectParts();
    follow(qs(ask::diagnosis().topic));
}

void StartPage::reset()
{
    m_log->stop(tr("another build was opened"));
    m_step.clear();
    m_say.clear();
    m_typed = {};
    m_middle->setCurrentIndex(0);
}

/// Where there is little room the card gives way first.
void StartPage::resizeEvent(QResizeEvent *)
{
    m_left->setFixedWidth(std::clamp(width() * 34 / 100, narrowestCard, widestCard));
}

void StartPage::makeLive(QWidget *live)
{
    auto *column = new QVBoxLayout(live);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    m_trace = new LiveTrace(live);
    m_trace->setObjectName(QStringLiteral("start.trace"));
    column->addWidget(m_trace, 1);
    auto *buttons = new QHBoxLayout;
    buttons->setSpacing(10);
    const auto add = [&](const char *name, int stretch) {
        auto *button = new QPushButton(live);
        button->setObjectName(QLatin1String(name));
        button->setMinimumHeight(40);
        buttons->addWidget(button, stretch);
        return button;
    };
    m_record = add("start.record", 4);
    m_reading = add("start.reading", 3);
    m_mark = add("start.mark", 2);
    m_noteButton = add("start.noteButton", 2);
    m_reading->setText(tr("Reading (R)"));
    m_mark->setText(tr("Mark (M)"));
    m_noteButton->setText(tr("Note (N)"));
    column->addLayout(buttons);
    m_note = new QLineEdit(live);
    m_note->setObjectName(QStringLiteral("start.note"));
    m_note->setPlaceholderText(tr("What was seen or heard; Enter writes it at this moment"));
    m_note->setAccessibleName(tr("Note"));
    m_note->hide();
    column->addWidget(m_note);
    m_causes = new CausesCard(live);
    column->addWidget(m_causes);
}

void StartPage::connectParts()
{
    connect(m_list, &CardList::picked, this, &StartPage::showStep);
    connect(m_record, &QPushButton::clicked, this, &StartPage::record);
    connect(m_reading, &QPushButton::clicked, this, &StartPage::takeLatest);
    connect(m_mark, &QPushButton::clicked, this, [this] { m_log->mark({}); });
    connect(m_noteButton, &QPushButton::clicked, this, [this] {
        m_note->show();
        m_note->setFocus();
    });
    connect(m_note, &QLineEdit::returnPressed, this, &StartPage::addNote);
    connect(m_causes, &CausesCard::picked, &m_open, &OpenBuild::selectStop);
    connect(m_sender, &SerialSender::read, m_log, &LiveLog::take);
    connect(m_sender, &SerialSender::complained, this, &StartPage::complained);
    connect(m_sender, &SerialSender::stateChanged, this, [this] {
        showLive();
        Q_EMIT changed();
    });
    connect(m_log, &LiveLog::changed, this, &StartPage::showLive);
    connect(m_log, &LiveLog::changed, this, &StartPage::sayLive);
    connect(m_log, &LiveLog::began, this, &StartPage::sayLive);
    connect(m_log, &LiveLog::ended, this, &StartPage::sayLive);
    connect(m_log, &LiveLog::changed, this, &Page::aboutChanged);
    connect(m_log, &LiveLog::alarmed, this, [this](const Alarm &alarm) {
        if (alarm.stop)
            m_sound->setOn(true);
        // Whoever looks at another bench sees it too.
        if (!isVisible())
            Q_EMIT complained(qs(alarm.text));
        showLive();
    });
    connect(m_import, &RunImportCard::cancelled, this, [this] { m_middle->setCurrentIndex(0); });
    connect(m_import, &RunImportCard::taken, this,
            [this](const RunImport &run, const QString &kind, const QString &from) {
                RunLog log;
                log.kind = kind.toStdString();
                summariseRun(run.points, log);
                log.marks = run.marks;
                log.source = from.toStdString();
                log.tap = m_open.build().gaugeTap;
                m_middle->setCurrentIndex(0);
                if (const auto ok = m_open.record(std::move(log)); !ok)
                    Q_EMIT complained(qs(ok.error().message));
            });
    // Keys while it records, wherever the focus is: Space must stop it from any bench.
    qApp->installEventFilter(this);
}

bool StartPage::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() != QEvent::KeyPress || !m_log->recording() || !watched->isWidgetType()
        || static_cast<QWidget *>(watched)->window() != window())
        return QWidget::eventFilter(watched, event);
    // In the note a space is a space; Escape leaves it.
    QWidget *focus = QApplication::focusWidget();
    auto *key = static_cast<QKeyEvent *>(event);
    if (focus == m_note) {
        if (key->key() == Qt::Key_Escape) {
            m_note->clear();
            m_note->hide();
            return true;
        }
        return QWidget::eventFilter(watched, event);
    }
    if (key->key() == Qt::Key_Space && key->modifiers() == Qt::NoModifier) {
        stopLog(tr("ended by hand"));
        return true;
    }
    const bool types = focus && focus->inherits("QLineEdit");
    if (types || key->modifiers() != Qt::NoModifier)
        return QWidget::eventFilter(watched, event);
    if (key->key() == Qt::Key_M)
        m_log->mark({});
    else if (key->key() == Qt::Key_N)
        m_noteButton->click();
    else if (key->key() == Qt::Key_R && m_reading->isEnabled())
        takeLatest();
    else
        return QWidget::eventFilter(watched, event);
    return true;
}

void StartPage::judge()
{
    const auto judged = m_open.answers().now(ask::start());
    if (judged == m_judged)
        return;
    m_judged = judged;
    m_log->setPrime(prime());
    m_log->setMap(std::make_shared<PressureMap>(m_open.document(), m_open.sizes()));
    m_list->setCard(card());
    m_causes->setCauses(prime().causes);
    if (!card().find(m_step.toStdString())) {
        const int next = card().next();
        m_step = next >= 0 ? qs(card().items[static_cast<size_t>(next)].id) : QString();
    }
}

/// What the readings say is wrong, while there is anything to go by.
void StartPage::askDiagnosis()
{
    m_diagnosis.reset();
    const Build &build = m_open.build();
    if (!standing(build.gaugeReadings).empty() || !standing(build.symptoms).empty()
        || !pumpedFlows(build).empty())
        m_diagnosis = m_open.answers().ask(ask::diagnosis());
}

void StartPage::refresh()
{
    judge();
    askDiagnosis();
    m_list->setCard(card()); // in the units chosen since
    m_list->choose(m_step);
    showLive();
}

void StartPage::takeFocus()
{
    m_list->setFocus();
}

void StartPage::showStep(const QString &step)
{
    m_step = step;
    m_typed = {};
    m_list->choose(step);
    showLive();
    Q_EMIT changed();
}

QString StartPage::about() const
{
    const QString marks
        = m_log->trouble().isEmpty() ? QString() : tr(" · not kept: %1").arg(m_log->trouble());
    switch (m_sender->state()) {
    case SerialLine::State::Off:
        return tr("no sender connected") + marks;
    case SerialLine::State::Lost:
        return tr("sender on %1 is gone; looked for again").arg(m_sender->portName()) + marks;
    case SerialLine::State::Listening:
        break;
    }
    const double rate = m_log->rate();
    return (rate > 0 ? tr("listening to %1, %2 readings a second")
                           .arg(m_sender->portName(), qs(formatNumber(rate, 0)))
                     : tr("listening to %1, nothing comes").arg(m_sender->portName()))
        + marks;
}

/// At the head of the rail, on every bench: what is recorded just now.
void StartPage::sayLive()
{
    if (!m_log->recording()) {
        m_open.setLive({});
        return;
    }
    const auto &latest = m_log->latest();
    const double seconds = m_log->watch() ? m_log->watch()->turned_s() : 0;
    QString text = tr("%1, %2 turning")
                       .arg(m_log->kind() == "prime" ? tr("Priming") : tr("Engine watched"),
                            inWords(asTime(seconds, 0)));
    if (latest && latest->pressure_kpa)
        text += QStringLiteral(", ") + inWords(asPressure(*latest->pressure_kpa * 1e3, 1));
    if (!m_log->alarms().empty())
        text += tr(": ALARM");
    m_open.setLive(text);
}

void StartPage::showLive()
{
    startSeen();
    const CardItem *chosen = item();
    const bool recording = m_log->recording();
    const bool priming = recording ? m_log->kind() == "prime" : chosen && chosen->group == "prime";
    TraceScene scene;
    scene.trace = &m_log->buckets();
    scene.marks = m_log->marks();
    scene.minutes = !priming;
    const bool shown = !m_log->points().empty();
    if (priming && (recording || !shown)) {
        scene.prime = &prime();
        scene.least_s = std::max(30.0, 1.2 * prime().time.stop_s.value_or(25));
    } else if (!priming) {
        scene.floor_kpa = m_open.build().use.hotIdleFloor_kpa;
        scene.least_s = 60;
    }
    if (recording && m_log->watch()) {
        scene.turned_s = m_log->watch()->turned_s();
        scene.stopAt_s = m_log->stopAt_s();
    } else if (priming && !shown) {
        scene.stopAt_s = prime().time.stop_s;
    }
    if (const auto &latest = m_log->latest();
        latest && m_sender->state() != SerialLine::State::Off) {
        scene.big = latest->pressure_kpa ? Figure::pressure(*latest->pressure_kpa * 1e3)
                                         : Shown { QStringLiteral("–"), {}, {} };
        QStringList under;
        // What is to be done soon stands first.
        if (recording)
            if (const auto left = m_log->watch()->untilStop_s())
                under << tr("stop in %1 s").arg(qs(formatNumber(std::ceil(*left), 0)));
        if (latest->rpm)
            under << Figure::speed(*latest->rpm).text()
                    + (priming && prime().drill ? tr(" primer") : QString());
        if (latest->oil_c)
            under << tr("oil %1").arg(Figure::temperature(*latest->oil_c).text());
        if (recording)
            if (const auto rest = m_log->watch()->restLeft_s())
                under << tr("starter cools, %1 s").arg(qs(formatNumber(std::ceil(*rest), 0)));
        scene.under = under.join(QStringLiteral(" · "));
    }
    bool stop = false, nothing = false;
    QStringList alarms;
    for (const Alarm &a : m_log->alarms()) {
        alarms << qs(a.text);
        stop = stop || a.stop;
        nothing = nothing || a.kind == AlarmKind::NoPressure;
    }
    m_sound->setOn(stop);
    if (stop)
        scene.alarm = alarms.join(QStringLiteral("\n"));
    else if (!alarms.isEmpty())
        scene.say = alarms.join(QStringLiteral("\n"));
    else
        scene.say = recording ? qs(caution::cannotStop) : m_say;
    m_trace->setScene(std::move(scene));

    m_record->setProperty("danger", recording);
    m_record->setProperty("main", !recording);
    m_record->style()->polish(m_record);
    m_record->setText(recording     ? tr("End log (Space)")
                          : priming ? tr("Record prime")
                                    : tr("Record start"));
    m_mark->setEnabled(recording);
    m_noteButton->setEnabled(recording);
    m_reading->setEnabled(chosen && chosen->kind == CardKind::Read
                          && m_log->mean(readOver_s).has_value());
    m_causes->setVisible(priming || nothing);
}

/// Which log the button begins: priming while a step of priming is chosen, else the start.
void StartPage::record()
{
    if (m_log->recording()) {
        stopLog(tr("ended by hand"));
        return;
    }
    const CardItem *chosen = item();
    const bool priming = chosen && chosen->group == "prime";
    const CardItem *step = card().find(priming ? "prime" : "start");
    if (step && step->locked) {
        showStep(priming                 ? QStringLiteral("fuel_off")
                     : gate().mayStart() ? qs(step->id)
                                         : QStringLiteral("gate"));
        Q_EMIT complained(tr("%1: %2.").arg(qs(step->text), qs(step->why)));
        return;
    }
    if (m_sender->state() == SerialLine::State::Off) {
        Q_EMIT complained(
            tr("No sender is connected: name its port in the side panel, or go through the step by "
               "hand."));
        return;
    }
    m_say.clear();
    m_startSeen = false;
    const auto ok = m_log->start(priming ? "prime" : "start",
                                 priming ? primeLimits(m_open.build(), prime())
                                         : startLimits(m_open.build()));
    if (!ok)
        Q_EMIT complained(tr("The log cannot be kept: %1 %2. Nothing is recorded.")
                              .arg(qs(ok.error().place), qs(ok.error().message)));
    setFocus();
    showLive();
}

QString StartPage::switchOff() const
{
    if (m_log->kind() == "prime")
        return prime().drill
            ? tr("Log ended. Switch off now: let go of the drill, pull its plug.")
            : tr("Log ended. Switch off now: key out, battery lead off before hands go in.");
    return tr("Log ended. Switch off now: ignition, fuel. Wait until it stands still.");
}

void StartPage::stopLog(const QString &why)
{
    m_log->stop(why);
    m_sound->setOn(false);
    m_say = switchOff();
    storeRun();
    showLive();
    Q_EMIT changed();
}

void StartPage::startSeen()
{
    if (m_startSeen || !m_log->recording() || m_log->kind() != "start" || !m_log->watch()
        || !m_log->watch()->firstPressure_s())
        return;
    m_startSeen = true;
    static_cast<void>(goThrough("start", "done", nullptr, m_log->watch()->firstPressure_s()));
}

void StartPage::storeRun()
{
    RunLog run = m_log->summary();
    if (run.readings == 0) {
        m_log->forgetFile();
        return;
    }
    run.source = tr("sender on %1").arg(m_sender->portName()).toStdString();
    run.tap = m_open.build().gaugeTap;
    keepFile(run);
    const auto last = m_log->lastTurning(readOver_s);
    const auto came = m_log->watch()->firstPressure_s();
    const std::string kind = m_log->kind();
    if (const auto ok = m_open.record(std::move(run)); !ok)
        Q_EMIT complained(qs(ok.error().message));
    if (kind == "prime" || !m_startSeen)
        static_cast<void>(goThrough(kind, came ? "done" : "not_so", last ? &*last : nullptr,
                                    came ? came : std::optional(m_log->watch()->turned_s())));
}

/// Beside the build, where it has a file; else it stays where it was recorded, and is said.
void StartPage::keepFile(RunLog &run)
{
    if (!m_log->file())
        return;
    const QString path = qs(m_log->file()->path().string());
    const auto name = takeFile(m_open, path, QStringLiteral("csv"));
    if (name) {
        run.file = *name;
        m_log->forgetFile();
    } else {
        Q_EMIT complained(
            tr("Every reading is in %1; the build keeps the trace.").arg(m_log->setFileAside()));
    }
}

void StartPage::addNote()
{
    const QString text = m_note->text().trimmed();
    if (!text.isEmpty())
        m_log->mark(text);
    m_note->clear();
    m_note->hide();
    setFocus();
}

Result<void> StartPage::goThrough(const std::string &step, const std::string &how,
                                  const RunPoint *read, std::optional<double> seconds)
{
    CardStep s;
    s.step = step;
    s.outcome = how;
    s.seconds = rounded(seconds, 0.1);
    if (read) {
        const RunPoint plain = rounded(*read);
        s.pressure_kpa = plain.pressure_kpa;
        s.rpm = plain.rpm;
        s.oil_c = plain.oil_c;
    }
    const auto ok = m_open.record(std::move(s));
    if (!ok)
        Q_EMIT complained(qs(ok.error().message));
    return outcome(ok);
}

/// A reading goes onto the card, and into the logbook where forecast and diagnosis find it.
Result<void> StartPage::takeReading(const CardItem &item, const RunPoint &read)
{
    if (!read.pressure_kpa || !read.rpm || !read.oil_c)
        return fail("reading", "wants pressure, speed and oil temperature");
    // The card is made anew by the first edit.
    const std::string step(item.id);
    GaugeReading g;
    g.tap = m_open.build().gaugeTap;
    const RunPoint plain = rounded(read);
    g.rpm = *plain.rpm;
    g.oil_c = *plain.oil_c;
    g.pressure_kpa = *plain.pressure_kpa;
    g.note = mildpath::render(item.text, fileStyle);
    if (auto ok = m_open.record(g); !ok)
        return outcome(ok);
    return goThrough(step, "done", &read);
}

void StartPage::takeLatest()
{
    const CardItem *chosen = item();
    const auto read = m_log->mean(readOver_s);
    if (!chosen || chosen->kind != CardKind::Read || !read)
        return;
    // What the sender does not say is taken as the card has it, or as it was typed.
    RunPoint whole = *read;
    if (!whole.rpm)
        whole.rpm = m_typed.rpm.value_or(chosen->rpm);
    if (!whole.oil_c)
        whole.oil_c = m_typed.oil_c.value_or(chosen->oil_c);
    if (const auto ok = takeReading(*chosen, whole); !ok)
        Q_EMIT complained(qs(ok.error().message));
}

QString StartPage::showImport(const QString &path)
{
    const QString why = m_import->load(path);
    if (why.isEmpty())
        m_middle->setCurrentWidget(m_import);
    return why;
}

Result<void> StartPage::takeUnfinished(const UnfinishedRun &unfinished)
{
    RunLog run;
    const auto kinds = runKinds();
    run.kind = std::find(kinds.begin(), kinds.end(), unfinished.kind) == kinds.end()
        ? "run"
        : unfinished.kind;
    summariseRun(unfinished.run.points, run);
    run.marks = unfinished.run.marks;
    run.source = "a log that was not finished";
    run.stopped = "the program ended";
    run.tap = m_open.build().gaugeTap;
    const auto name = takeFile(m_open, qs(unfinished.path.string()), QStringLiteral("csv"));
    if (name)
        run.file = *name;
    if (auto ok = m_open.record(std::move(run)); !ok)
        return outcome(ok);
    // Beside the build now; where that has no file yet, all readings stay where runs are kept.
    if (name) {
        QFile::remove(qs(unfinished.path.string()));
        return {};
    }
    const auto kept = setRunAside(unfinished.path);
    if (!kept)
        return tl::unexpected(kept.error());
    Q_EMIT complained(
        tr("Every reading is in %1; the build keeps the trace.").arg(qs(kept->string())));
    return {};
}

} // namespace mildpath
