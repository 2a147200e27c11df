// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/turnspage.h"

#include "assess/air.h"
#include "bench/sump/casesheet.h"
#include "entry/rowlist.h"
#include "open/vectorstate.h"
#include "paint/card.h"
#include "paint/scrolled.h"
#include "plot/chartview.h"
#include "quantity/rounding.h"
#include "shell/stopfields.h"
#include "storage/drivetable.h"
#include "storage/files.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

QString mm(double m)
{
    return inWords(asLength(m * 1e3, 0));
}

QString seconds(double s)
{
    return qs(formatNumber(s, 1)) + QStringLiteral(" s");
}

} // namespace

TurnsPage::TurnsPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_sheet(new CaseSheet(open, this))
    , m_list(new RowList({ 0, 0.31, 0.44, 0.57, 0.80 }, 0, this))
    , m_shut(new QLabel(this))
    , m_steady(new QLabel(this))
    , m_file(new QLabel(this))
    , m_problem(new QLabel(this))
    , m_chart(new ChartView(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(m_sheet, 5);
    auto *cases = new CardWidget(this);
    auto *inside = new QVBoxLayout(cases);
    inside->setContentsMargins(4, 6, 4, 6);
    inside->addWidget(scrolled(m_list, cases));
    column->addWidget(cases, 3);
    m_list->setObjectName(QStringLiteral("turns.list"));
    m_list->setAccessibleName(
        tr("Uses: over the mouth, wanted, clear of the crank, how hard it may be"));
    const auto choose = [this](int row) {
        Q_EMIT caseChosen(qs(m_open.air().cases[static_cast<size_t>(row)].id));
    };
    connect(m_list, &RowList::picked, this, choose);
    connect(m_list, &RowList::pointed, m_sheet, &CaseSheet::point);
    connect(m_sheet, &CaseSheet::picked, this, choose);
    connect(m_sheet, &CaseSheet::pointed, m_list, &RowList::choose);
    auto *trade = new CardWidget(this);
    auto *two = new QHBoxLayout(trade);
    two->setContentsMargins(14, 8, 14, 8);
    two->setSpacing(20);
    m_shut->setObjectName(QStringLiteral("turns.shut"));
    m_steady->setObjectName(QStringLiteral("turns.steady"));
    for (QLabel *l : { m_shut, m_steady }) {
        l->setWordWrap(true);
        l->setAlignment(Qt::AlignTop);
        two->addWidget(l, 1);
    }
    column->addWidget(trade);
    auto *row = new QHBoxLayout;
    auto *load = new QPushButton(tr("Replay a drive…"), this);
    load->setObjectName(QStringLiteral("turns.load"));
    load->setToolTip(tr("CSV with time_s, lateral_g, longitudinal_g"));
    connect(load, &QPushButton::clicked, this, &TurnsPage::ask);
    row->addWidget(load);
    m_file->setObjectName(QStringLiteral("turns.file"));
    row->addWidget(m_file, 1);
    column->addLayout(row);
    m_problem->setObjectName(QStringLiteral("turns.problem"));
    m_problem->setWordWrap(true);
    m_problem->hide();
    column->addWidget(m_problem);
    m_chart->setObjectName(QStringLiteral("turns.chart"));
    m_chart->setAccessibleName(tr("Oil over the pickup against time"));
    column->addWidget(m_chart, 4);
}

void TurnsPage::ask()
{
    const QString path = QFileDialog::getOpenFileName(this, tr("Replay a drive"), {},
                                                      tr("Tables (*.csv *.tsv *.txt)"));
    if (!path.isEmpty())
        replay(path);
}

void TurnsPage::reset()
{
    m_drive.clear();
    m_name.clear();
    m_replay.reset();
    m_problem->hide();
}

QString TurnsPage::replay(const QString &path)
{
    QString problem;
    if (const auto text = readTextFile(path.toStdString()); !text) {
        problem = qs(text.error().message);
    } else {
        DriveImport in = driveFromTable(*text);
        if (in.errors.empty()) {
            m_drive = std::move(in.moments);
            m_name = QFileInfo(path).fileName();
        } else {
            problem = qs(in.errors.front());
            if (in.errors.size() > 1)
                problem += tr(" (and %1 more)").arg(in.errors.size() - 1);
        }
    }
    m_problem->setText(problem);
    m_problem->setVisible(!problem.isEmpty());
    setTone(m_problem, Theme::current().hold);
    refresh();
    Q_EMIT changed();
    return problem;
}

void TurnsPage::refresh()
{
    const AirReport &air = m_open.air();
    const bool gap = pickupGap_m(m_open.build()).has_value();
    std::vector<RowList::Row> rows;
    for (const AirCase &c : air.cases) {
        QString limit;
        if (c.accel_g != 0 && gap)
            limit = c.uncovers_g ? tr("air from %1 g").arg(qs(formatNumber(*c.uncovers_g, 2)))
                                 : tr("covered to 3 g");
        rows.push_back({ markOf(c, gap),
                         { qs(c.name), gap ? mm(c.submergence_m) : tr("not known"),
                           tr("%1 wanted").arg(mm(c.wanted.required_m)),
                           c.clearance_m > 1e6     ? QString()
                               : c.clearance_m < 0 ? tr("crank dips %1").arg(mm(-c.clearance_m))
                                                   : tr("crank %1 clear").arg(mm(c.clearance_m)),
                           limit },
                         tr("click: see it in section") });
    }
    m_list->setRows(std::move(rows));
    m_sheet->refresh();
    showTrade();
    clearVectorState();
    m_replay.reset();
    if (!m_drive.empty()) {
        auto replay = replayDrive(m_open.build(), m_open.air(), m_drive);
        if (replay) {
            m_replay = std::move(*replay);
        } else {
            m_problem->setText(qs(replay.error().message));
            m_problem->show();
        }
    }
    showReplay();
}

void TurnsPage::showTrade()
{
    const AirReport &air = m_open.air();
    if (!air.baffle) {
        m_shut->setText(tr("<b>No baffle round the pickup.</b> One school: run none and keep the "
                           "level high; welded tabs crack."));
        m_steady->setText(tr("The other: a baffle holds oil at the pickup in hard turns. Its floor "
                             "and opening stand at the side."));
        return;
    }
    const BaffleTrade &b = *air.baffle;
    const double turn = m_open.build().use.turn_s;
    QString shut = tr("<b>Doors shut it holds.</b> ");
    shut += b.start_m <= b.limit_m ? tr("Nothing: the running level is below the mouth's limit.")
        : b.shut_s ? tr("%1 of the %2 a turn lasts.").arg(seconds(*b.shut_s), seconds(turn))
                   : tr("For ever: all of it falls straight back.");
    if (b.open_s)
        shut += tr(" With oil standing outside, %1 through the opening.").arg(seconds(*b.open_s));
    else if (b.costs_m > 0 && b.start_m > b.limit_m)
        shut += tr(" With oil standing outside it never uncovers.");
    if (b.refill_s)
        shut += tr(" Nine tenths back in %1.").arg(seconds(*b.refill_s));
    m_shut->setText(shut);
    m_steady->setText(
        b.costs_m > 0
            ? tr("<b>Open it costs level.</b> %1 in steady running, hot; %2 at idle with the oil "
                 "of "
                 "the coldest start. A smaller opening holds longer and costs more: neither school "
                 "is "
                 "wrong.")
                  .arg(mm(b.costs_m), mm(b.costsCold_m))
            : tr("<b>No opening said.</b> What a closed baffle costs is all the oil outside it."));
}

/// A stripe along the bottom where the signal is quicker than the model.
ChartLine TurnsPage::quickStripe(const Replay &r, const Axis &y)
{
    ChartLine out { tr("quicker than oil follows: not modelled"), Theme::current().faint, {}, {} };
    out.pen = Qt::DashLine;
    out.labelAt = 0.6;
    for (const ReplayMoment &m : r.moments) {
        out.x.push_back(m.time_s);
        out.y.push_back(m.modelled ? std::nan("") : y.from + 0.02 * (y.to - y.from));
    }
    return out;
}

void TurnsPage::showReplay()
{
    m_chart->setVisible(m_replay.has_value());
    // A drive takes the pictures' place: its curve says more.
    m_sheet->setVisible(!m_replay);
    setTone(m_file, Theme::current().muted);
    if (!m_replay) {
        m_file->setText(
            tr("a lap or a crossing: time_s, lateral_g (left turn positive), longitudinal_g"));
        return;
    }
    const Theme &t = Theme::current();
    const Replay &r = *m_replay;
    Chart chart;
    ChartLine cover { {}, t.warm, {}, {} }; // the axis names it
    double most = r.wanted_m, least = 0;
    for (const ReplayMoment &m : r.moments) {
        cover.x.push_back(m.time_s);
        cover.y.push_back(m.cover_m);
        most = std::max(most, m.cover_m);
        least = std::min(least, m.cover_m);
    }
    chart.x = { cover.x.front(), cover.x.back(), 0, 1, Shows::Time };
    chart.y = { least, roundedUp(most * 1.1, Shows::Length), 0, 1, Shows::Length };
    chart.y.name = tr("%1 over the mouth").arg(unitOf(Shows::Length));
    chart.marks = { { Qt::Horizontal, r.wanted_m, tr("wanted"), t.lookAgain, Qt::DashLine },
                    { Qt::Horizontal, r.dip_m, tr("draws air below"), t.hold, Qt::DashLine } };
    chart.lines.push_back(std::move(cover));
    if (r.notModelled > 0)
        chart.lines.push_back(quickStripe(r, chart.y));
    m_chart->setChart(std::move(chart));
    m_file->setText(
        tr("%1: %2 moments, averaged over one slosh of %3; quicker than that %4 of the time")
            .arg(m_name)
            .arg(r.moments.size())
            .arg(seconds(r.slosh_s), Figure::percent(r.notModelled).text()));
}

void TurnsPage::baffleChoice(PanelContent &out) const
{
    if (m_open.build().engine.ofKind(StopKind::Tank))
        return;
    out.push_back(PanelHeading { tr("Baffle: two schools") });
    const std::string answer = choiceOf(m_open.build(), "pan_baffle");
    out.push_back(PanelChoice { QStringLiteral("turns.baffle"),
                                tr("You chose"),
                                { tr("not chosen"), tr("baffle"), tr("none, level high") },
                                answer == "baffle"     ? 1
                                    : answer == "none" ? 2
                                                       : 0,
                                [open = &m_open](int i) -> Result<void> {
                                    if (i == 0)
                                        return {};
                                    return open->choose("pan_baffle", i == 1 ? "baffle" : "none");
                                } });
    for (const NumberKey &k : sumpKeys())
        if (k.group == "baffle")
            out.push_back(sumpField(m_open, k));
}

PanelChoice TurnsPage::useChoice() const
{
    struct Preset
    {
        QString name;
        double turn, brake, accelerate, heel, incline;
    };
    // Typical, no source: for the user to set.
    static const Preset presets[] = { { tr("standing"), 0, 0, 0, 0, 0 },
                                      { tr("road"), 0.5, 0.6, 0.3, 0, 0 },
                                      { tr("track, slicks"), 1.25, 1.2, 0.6, 0, 0 },
                                      { tr("boat"), 0.2, 0, 0, 15, 12 } };
    static constexpr std::pair<const char *, double Preset::*> keys[]
        = { { "turn_g", &Preset::turn },
            { "braking_g", &Preset::brake },
            { "accelerating_g", &Preset::accelerate },
            { "heel_deg", &Preset::heel },
            { "incline_deg", &Preset::incline } };
    const Use &u = m_open.build().use;
    const Preset now { {}, u.turn_g, u.braking_g, u.accelerating_g, u.heel_deg, u.incline_deg };
    PanelChoice use { QStringLiteral("turns.use"), tr("Use"), {}, -1, {} };
    for (const Preset &p : presets) {
        if (std::all_of(std::begin(keys), std::end(keys),
                        [&](const auto &k) { return p.*k.second == now.*k.second; }))
            use.current = static_cast<int>(use.options.size());
        use.options << p.name;
    }
    if (use.current < 0) {
        use.current = static_cast<int>(use.options.size());
        use.options << tr("as entered");
    }
    use.chosen = [open = &m_open](int i) -> Result<void> {
        if (i >= static_cast<int>(std::size(presets)))
            return {};
        Result<void> ok;
        open->undoStack().beginMacro(tr("use: %1").arg(presets[i].name));
        for (const auto &[key, member] : keys)
            if (auto done = open->edit(SetUse { key, presets[i].*member }); !done)
                ok = done;
        open->undoStack().endMacro();
        return ok;
    };
    return use;
}

PanelContent TurnsPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("What it must stand"), tr("held, not for a moment") });
    out.push_back(useChoice());
    for (const auto &[key, label] : { std::pair("turn_g", tr("Turns to either side, g")),
                                      std::pair("braking_g", tr("Braking, g")),
                                      std::pair("accelerating_g", tr("Accelerating, g")),
                                      std::pair("turn_s", tr("Longest turn held")),
                                      std::pair("heel_deg", tr("Leaning to either side, °")),
                                      std::pair("incline_deg", tr("Installed, rear lower, °")) })
        out.push_back(useField(m_open, key, label));
    baffleChoice(out);
    const AirReport &air = m_open.air();
    if (air.slosh_s)
        out.push_back(
            PanelText { tr("One slosh of this pan takes %1. A turn shorter than half of it is "
                           "a matter of slosh, which is not modelled; a longer one may "
                           "overshoot toward twice the tilt before it settles.")
                            .arg(seconds(*air.slosh_s)),
                        Tone::Muted });
    if (m_replay) {
        const Replay &r = *m_replay;
        out.push_back(PanelRule {});
        out.push_back(PanelHeading { tr("The drive") });
        out.push_back(PanelVerdict {
            markOf(r),
            r.short_s == 0            ? tr("Covered all the way")
                : r.uncovered.empty() ? tr("Less than wanted for %1").arg(seconds(r.short_s))
                                      : tr("Draws air %1 times, %2 in all")
                                            .arg(r.uncovered.size())
                                            .arg(seconds(r.uncovered_s)),
            tr("least %1 at %2").arg(mm(r.least_m), seconds(r.leastAt_s)) });
        constexpr size_t shown = 6;
        for (size_t i = 0; i < std::min(shown, r.uncovered.size()); ++i) {
            const Uncovered &u = r.uncovered[i];
            out.push_back(PanelRow { tr("%1 to %2").arg(seconds(u.from_s), seconds(u.to_s)),
                                     mildpath::shown(asLength(u.least_m * 1e3, 0)) });
        }
        if (r.notModelled > 0)
            out.push_back(
                PanelText { tr("For %1 of the time the signal moves quicker than oil follows: "
                               "there the curve is not to be trusted.")
                                .arg(Figure::percent(r.notModelled).text()),
                            Tone::Warn });
        out.push_back(
            PanelText { tr("Turns and braking are each seen in their own section; both at once "
                           "are not put together."),
                        Tone::Muted });
    }
    return out;
}

} // namespace mildpath
