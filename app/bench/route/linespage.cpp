// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/linespage.h"

#include "assess/lines.h"
#include "assess/rules.h"
#include "checks/judgement.h"
#include "entry/refusal.h"

#include "entry/rowlist.h"
#include "paint/card.h"
#include "paint/scrolled.h"
#include "quantity/dates.h"

#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

QString portName(const std::vector<Port> &ports, const std::string &id)
{
    const Port *p = findPort(ports, id);
    return p ? qs(p->partName) + QStringLiteral(", ") + qs(p->name) : qs(id);
}

const ExternalLine *lineOf(const Build &build, const std::string &id)
{
    for (const ExternalLine &l : build.plumbing.lines)
        if (l.id == id)
            return &l;
    return nullptr;
}

/// A line drawn at the desk is a plan: nobody has had a hand on the hose.
Result<void> putDrawn(OpenBuild &open, ExternalLine line)
{
    line.by.clear();
    line.at.clear();
    return open.edit(PutLine { std::move(line) });
}
/// Followed by hand from port to port.
Result<void> putTraced(OpenBuild &open, ExternalLine line)
{
    line.by = open.worker();
    line.at = OpenBuild::now();
    return open.edit(PutLine { std::move(line) });
}

Result<void> putCapSeen(OpenBuild &open, const std::string &port)
{
    return open.edit(CapPort { port, true, open.worker(), OpenBuild::now() });
}

} // namespace

LinesPage::LinesPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_diagram(new LinesDiagram(open, this))
    , m_list(new RowList({ 0, 0.33, 0.66, 0.82 }, 0, this))
    , m_verdict(new QLabel(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    column->addWidget(m_diagram, 3);
    m_verdict->setObjectName(QStringLiteral("lines.verdict"));
    m_verdict->setFont(textFont(TextSize::Body, true));
    column->addWidget(m_verdict);
    auto *card = new CardWidget(this);
    m_card = card;
    auto *inside = new QVBoxLayout(card);
    inside->setContentsMargins(4, 6, 4, 6);
    auto *scroll = scrolled(m_list, card);
    inside->addWidget(scroll);
    column->addWidget(card, 2);
    m_list->setObjectName(QStringLiteral("lines.list"));
    m_list->setAccessibleName(tr("Lines: from, to, made for, seen by"));
    connect(m_list, &RowList::picked, this, [this](int row) {
        choose(m_open.build().plumbing.lines[static_cast<size_t>(row)].id, "");
    });
    connect(m_diagram, &LinesDiagram::lineChosen, this,
            [this](const QString &id) { choose(id.toStdString(), ""); });
    connect(m_diagram, &LinesDiagram::portChosen, this,
            [this](const QString &id) { choose("", id.toStdString()); });
}

void LinesPage::choose(const std::string &line, const std::string &port)
{
    m_line = line;
    m_port = port;
    refresh();
    Q_EMIT changed();
}

void LinesPage::refresh()
{
    const Build &build = m_open.build();
    const LinesReport &report = m_open.lines();
    const auto ports = portsOf(build);
    std::vector<RowList::Row> rows;
    int chosen = -1;
    for (const ExternalLine &l : build.plumbing.lines) {
        if (l.id == m_line)
            chosen = static_cast<int>(rows.size());
        rows.push_back({ markOf(report, l),
                         { portName(ports, l.from), portName(ports, l.to),
                           l.rating.empty() ? tr("not known") : qs(l.rating),
                           l.by.empty() ? tr("not looked at") : tr("seen, %1").arg(qs(l.by)) },
                         {} });
    }
    m_list->setRows(std::move(rows));
    m_list->choose(chosen);
    m_card->setVisible(!build.plumbing.lines.empty());
    const auto holds = std::count_if(report.faults.begin(), report.faults.end(),
                                     [](const LineFault &f) { return f.mark == Mark::Hold; });
    const Theme &t = Theme::current();
    if (!report.written)
        m_verdict->setText(hasLines(build) ? tr("No lines written down yet")
                                           : tr("No lines outside the engine but the gauge's"));
    else if (holds > 0)
        m_verdict->setText(holds == 1
                               ? tr("1 thing wrong with the lines holds the start")
                               : tr("%1 things wrong with the lines hold the start").arg(holds));
    else
        m_verdict->setText(
            tr("Joined right, %1 of %2 seen").arg(report.looked).arg(build.plumbing.lines.size()));
    setTone(m_verdict, holds > 0 ? t.hold : t.ink);
    m_diagram->choose(m_line, m_port);
    m_diagram->relayout();
}

PanelContent LinesPage::panel()
{
    PanelContent out;
    const Build &build = m_open.build();
    out.push_back(PanelTitle { tr("Lines"), tr("out of one part into the next"), {} });
    faults(out);
    const auto ports = portsOf(build);
    if (const ExternalLine *line = lineOf(build, m_line))
        linePanel(*line, out);
    else if (const Port *port = findPort(ports, m_port))
        portPanel(*port, out);
    else if (build.plumbing.lines.empty())
        out.push_back(
            PanelButton { QStringLiteral("lines.draw"), tr("Draw the usual lines"),
                          [open = &m_open] { saidIfRefused(open->edit(DrawLines {})); } });
    else
        out.push_back(PanelText { tr("Choose a line or a port."), Tone::Muted });
    filterPanel(out);
    return out;
}

void LinesPage::faults(PanelContent &out) const
{
    for (const LineFault &f : m_open.lines().faults)
        out.push_back(PanelVerdict { f.mark, qs(f.text),
                                     qs(f.reason) + QStringLiteral(". ") + qs(f.action) + u'.' });
    for (const Finding &f : m_open.judgement().findings)
        if (f.id == "gauge@engine" || f.id == "blank@engine")
            out.push_back(PanelVerdict { f.mark, qs(f.text), qs(f.action) });
}

void LinesPage::linePanel(const ExternalLine &line, PanelContent &out) const
{
    const auto ports = portsOf(m_open.build());
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("This line") });
    const auto end = [&](const char *id, const QString &label, std::string ExternalLine::*which) {
        PanelChoice c { QString::fromLatin1(id), label, {}, -1, {} };
        std::vector<std::string> ids;
        for (const Port &p : ports) {
            if (p.id == line.*which)
                c.current = static_cast<int>(ids.size());
            ids.push_back(p.id);
            c.options << qs(p.partName) + QStringLiteral(", ") + qs(p.name);
        }
        c.chosen = [open = &m_open, line, which, ids](int i) {
            ExternalLine changed = line;
            changed.*which = ids[static_cast<size_t>(i)];
            return putDrawn(*open, changed);
        };
        out.push_back(std::move(c));
    };
    end("line.from", tr("from"), &ExternalLine::from);
    end("line.to", tr("to"), &ExternalLine::to);
    PanelChoice rating { QStringLiteral("line.rating"),
                         tr("made for"),
                         { tr("not known"), tr("pressure"), tr("suction (stands vacuum)") },
                         line.rating.empty()             ? 0
                             : line.rating == "pressure" ? 1
                                                         : 2,
                         {} };
    rating.chosen = [open = &m_open, line](int i) {
        ExternalLine changed = line;
        changed.rating = i == 0 ? "" : i == 1 ? "pressure" : "suction";
        return open->edit(PutLine { changed });
    };
    out.push_back(std::move(rating));
    out.push_back(PanelField { QStringLiteral("line.bore"), tr("bore"), Dimension::Length, "mm", 1,
                               line.bore_mm > 0 ? std::optional(line.bore_mm * 1e-3) : std::nullopt,
                               [open = &m_open, line](double si) {
                                   ExternalLine changed = line;
                                   changed.bore_mm = si * 1e3;
                                   return open->edit(PutLine { changed });
                               } });
    if (line.by.empty() && line.at.empty())
        out.push_back(
            PanelButton { QStringLiteral("line.seen"), tr("Traced by hand: correct"),
                          [open = &m_open, line] { saidIfRefused(putTraced(*open, line)); } });
    else
        out.push_back(PanelText {
            tr("Seen so by %1, %2").arg(qs(line.by), qs(dayText(line.at.substr(0, 10)))),
            Tone::Good });
    out.push_back(PanelButton {
        QStringLiteral("line.drop"), tr("Take the line off"),
        [open = &m_open, id = line.id] { saidIfRefused(open->edit(DropLine { id })); } });
}

void LinesPage::portPanel(const Port &port, PanelContent &out) const
{
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { qs(port.partName) + QStringLiteral(", ") + qs(port.name) });
    out.push_back(PanelText {
        port.way == Way::Out      ? tr("Oil leaves here, %1.").arg(qs(serviceWord(port.service)))
            : port.way == Way::In ? tr("Oil comes in here, %1.").arg(qs(serviceWord(port.service)))
                                  : tr("Either way, %1.").arg(qs(serviceWord(port.service))),
        Tone::Muted });
    const PortCap *cap = m_open.build().plumbing.capOf(port.id);
    out.push_back(PanelTick {
        QStringLiteral("port.capped"),
        portMark(m_open.lines(), port.id),
        tr("Capped or plugged"),
        {},
        cap != nullptr,
        [open = &m_open, id = port.id](bool on) {
            saidIfRefused(on ? putCapSeen(*open, id) : open->edit(CapPort { id, false }));
        } });
    if (cap && cap->by.empty() && cap->at.empty())
        out.push_back(PanelButton {
            QStringLiteral("port.seen"), tr("Cap seen, tight"),
            [open = &m_open, id = port.id] { saidIfRefused(putCapSeen(*open, id)); } });
    else if (cap)
        out.push_back(PanelText {
            tr("Seen so by %1, %2").arg(qs(cap->by), qs(dayText(cap->at.substr(0, 10)))),
            Tone::Good });
    const auto ports = portsOf(m_open.build());
    PanelChoice c { QStringLiteral("port.join"), tr("a line from here to"), {}, -1, {} };
    std::vector<std::string> ids;
    for (const Port &p : ports)
        if (p.id != port.id) {
            ids.push_back(p.id);
            c.options << qs(p.partName) + QStringLiteral(", ") + qs(p.name);
        }
    c.chosen = [open = &m_open, from = port.id, ids](int i) {
        ExternalLine line;
        line.from = from;
        line.to = ids[static_cast<size_t>(i)];
        return putDrawn(*open, line);
    };
    out.push_back(std::move(c));
}

/// How the filter is made tells which way it wants its oil.
void LinesPage::filterPanel(PanelContent &out) const
{
    const Build &build = m_open.build();
    const Stop *filter = build.engine.ofKind(StopKind::Filter);
    if (!filter)
        return;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { qs(filter->name) });
    const Plumbing &p = build.plumbing;
    if (!build.engine.ofKind(StopKind::Tank) && !build.engine.ofKind(StopKind::Line))
        out.push_back(
            PanelTick { QStringLiteral("filter.remote"),
                        Mark::NotDone,
                        tr("Away from the block, on lines"),
                        {},
                        p.remoteFilter,
                        [open = &m_open, p](bool on) {
                            saidIfRefused(open->edit(SetFilter { on, p.filterBuild, p.spares }));
                        } });
    PanelChoice c { QStringLiteral("filter.build"), tr("made as"), {}, 0, {} };
    for (const FilterBuild &b : filterBuilds()) {
        if (b.id == p.filterBuild)
            c.current = static_cast<int>(c.options.size());
        c.options << qs(b.name);
    }
    c.chosen = [open = &m_open, p](int i) {
        return open->edit(SetFilter {
            p.remoteFilter, std::string(filterBuilds()[static_cast<size_t>(i)].id), p.spares });
    };
    out.push_back(std::move(c));
    out.push_back(PanelText { qs(filterBuild(p.filterBuild).why) + u'.', Tone::Muted });
    PanelChoice spares {
        QStringLiteral("filter.spares"), tr("spare ports"), { tr("none") }, p.spares, {}
    };
    for (int n = 1; n <= 4; ++n)
        spares.options << QString::number(n);
    spares.chosen = [open = &m_open, p](int n) {
        return open->edit(SetFilter { p.remoteFilter, p.filterBuild, n });
    };
    out.push_back(std::move(spares));
}

} // namespace mildpath
