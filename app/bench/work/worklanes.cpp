// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/work/worklanes.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double laneNames = 140, lineHeight = 37, markStep = 15, spotGap = 4, groupGap = 10;
constexpr double leastGroup = 46, legendHeight = 30, laneAir = 5;
constexpr double gateHeight = 22, numberAir = 3;
constexpr double axisWidth = 128, axisHead = 16; ///< of the hours, at the right
/// Up to so many alike stand mark by mark.
constexpr size_t mostMarks = 9;

/// The first words of a statement: what the group is about.
QString captionOf(const CheckKind &kind)
{
    const std::string_view words = kind.statement;
    return qs(words.substr(0, words.find_first_of(":,;("))).trimmed();
}

} // namespace

WorkLanes::WorkLanes(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("workLanes"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("What is left to prove, by stage"));
}

void WorkLanes::setPlan(const CheckList *list, const WorkPlan *plan)
{
    m_list = list;
    m_plan = plan;
    lay();
    update();
}

void WorkLanes::choose(const std::string &check)
{
    m_chosen = check;
    if (const Check *c = m_list ? m_list->find(check) : nullptr) {
        const PlannedCheck *row = m_plan ? m_plan->find(check) : nullptr;
        setAccessibleDescription(
            qs(c->statement()) + QStringLiteral(", ") + qs(markWord(markOf(*c)))
            + (row && row->now ? tr(", can be done now") : QString())
            + (row && row->time.isCritical() && showsHours() ? tr(", no day to spare")
                                                             : QString()));
    }
    update();
}

void WorkLanes::addGroup(Lane &lane, const CheckKind &kind) const
{
    Group group { &kind, {}, {} };
    std::vector<const Check *> checks;
    for (const Check &c : m_list->all())
        if (c.asked && c.kind == &kind)
            checks.push_back(&c);
    if (checks.empty())
        return;
    for (const Check *c : checks) {
        const PlannedCheck *row = m_plan ? m_plan->find(*c) : nullptr;
        const bool now = row && row->now;
        ++lane.asked;
        lane.open += c->isOpen();
        lane.minutes += row ? row->minutes : 0;
        const auto same = [&](const Spot &s) { return s.mark == markOf(*c) && s.now == now; };
        const auto at = checks.size() > mostMarks ? std::ranges::find_if(group.spots, same)
                                                  : group.spots.end();
        Spot &spot = at == group.spots.end()
            ? group.spots.emplace_back(Spot { {}, markOf(*c), now, {} })
            : *at;
        spot.checks.push_back(c);
        spot.critical = spot.critical || (row && row->time.isCritical());
    }
    lane.groups.push_back(std::move(group));
}

double WorkLanes::lanesRight() const
{
    return width() - (showsHours() ? axisWidth : 0);
}

bool WorkLanes::showsHours() const
{
    return m_plan && m_plan->showsHours() && width() > 640;
}

/// Groups flow from left to right and go on in a second line where a lane has no more room.
void WorkLanes::lay()
{
    m_lanes.clear();
    if (!m_list)
        return;
    for (const CheckKind *kind : m_list->kinds()) {
        if (m_lanes.empty() || m_lanes.back().stage != kind->stage)
            m_lanes.push_back({ kind->stage });
        addGroup(m_lanes.back(), *kind);
    }
    std::erase_if(m_lanes, [](const Lane &l) { return l.groups.empty(); });
    for (size_t i = 1; i < m_lanes.size(); ++i)
        if (const CheckGate before = m_lanes[i - 1].groups.front().kind->gate();
            m_lanes[i].groups.front().kind->gate() != before)
            m_lanes[i].opens = before;
    const QFont small = textFont(TextSize::Small);
    double y = showsHours() ? axisHead : 2;
    for (Lane &lane : m_lanes) {
        if (lane.opens)
            y += gateHeight;
        lane.top = y;
        double x = laneNames, line = y + laneAir;
        for (Group &g : lane.groups) {
            double marks = 0;
            for (const Spot &s : g.spots)
                marks += s.checks.size() > 1 ? markStep + numberAir
                        + widthOf(QString::number(s.checks.size()), small) + spotGap
                                             : markStep;
            const double wide = std::max(
                { marks, leastGroup, std::min(widthOf(captionOf(*g.kind), small), 78.0) });
            if (x + wide > lanesRight() - 4 && x > laneNames) {
                x = laneNames;
                line += lineHeight;
            }
            g.area = QRectF(x, line, wide, lineHeight - 4);
            double at = x;
            for (Spot &s : g.spots) {
                const double w = s.checks.size() > 1
                    ? markStep + numberAir + widthOf(QString::number(s.checks.size()), small)
                    : markStep;
                s.area = QRectF(at, line, w, 17);
                at += w + (s.checks.size() > 1 ? spotGap : 0);
            }
            x += wide + groupGap;
        }
        lane.height = line + lineHeight - y;
        y += lane.height;
    }
    setMinimumHeight(static_cast<int>(y + legendHeight));
}

void WorkLanes::resizeEvent(QResizeEvent *event)
{
    QWidget::resizeEvent(event);
    lay();
}

std::vector<const WorkLanes::Spot *> WorkLanes::spots() const
{
    std::vector<const Spot *> out;
    for (const Lane &l : m_lanes)
        for (const Group &g : l.groups)
            for (const Spot &s : g.spots)
                out.push_back(&s);
    return out;
}

const WorkLanes::Spot *WorkLanes::spotAt(QPointF at) const
{
    for (const Spot *s : spots())
        if (s->area.adjusted(-1, -3, 1, 5).contains(at))
            return s;
    return nullptr;
}

const WorkLanes::Spot *WorkLanes::spotOf(std::string_view check) const
{
    const Check *wanted = m_list ? m_list->find(check) : nullptr;
    for (const Spot *s : spots())
        if (wanted && std::ranges::find(s->checks, wanted) != s->checks.end())
            return s;
    return nullptr;
}

QPointF WorkLanes::placeOf(const std::string &check) const
{
    const Spot *s = spotOf(check);
    return s ? QPointF(s->markX(), s->area.center().y()) : QPointF();
}

void WorkLanes::paintSpot(QPainter &p, const Spot &s, bool chosen) const
{
    const Theme &t = Theme::current();
    if (chosen || s.now) {
        p.setPen(QPen(t.selection, chosen ? 2 : 1.2));
        p.setBrush(s.now ? QBrush(t.selectionFill) : QBrush(Qt::NoBrush));
        p.drawRoundedRect(s.area.adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
    }
    if (s.critical && showsHours()) {
        p.setPen(QPen(t.ink, 1));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(QPointF(s.markX(), s.area.center().y()), 7.2, 7.2);
    }
    if (s.mark == Mark::NotDone && !s.now) { // it waits
        p.setPen(QPen(t.muted, 1.2, Qt::CustomDashLine));
        QPen dashed = p.pen();
        dashed.setDashPattern({ 2, 1.6 });
        p.setPen(dashed);
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(QPointF(s.markX(), s.area.center().y()), 4.4, 4.4);
    } else {
        drawMark(p, QPointF(s.markX(), s.area.center().y()), 10, s.mark);
    }
    if (s.checks.size() > 1)
        drawLine(p, s.area.adjusted(markStep, 0, 2, 0), Qt::AlignLeft | Qt::AlignVCenter,
                 QString::number(s.checks.size()), textFont(TextSize::Small), t.ink);
}

void WorkLanes::paintLane(QPainter &p, const Lane &lane) const
{
    const Theme &t = Theme::current();
    p.fillRect(QRectF(0, lane.top, width(), 1), t.line);
    drawLine(p, QRectF(0, lane.top + laneAir, laneNames - 10, 17), Qt::AlignLeft | Qt::AlignVCenter,
             qs(aboutStage(lane.stage).name), textFont(TextSize::Small, true), t.ink);
    QString about = lane.open == 0 ? tr("all %1 proven").arg(lane.asked)
                                   : tr("%1 of %2 open").arg(lane.open).arg(lane.asked);
    if (lane.open > 0 && m_plan && m_plan->showsHours())
        about += QStringLiteral(" · ") + inWords(asHours(lane.minutes / 60));
    drawLine(p, QRectF(0, lane.top + laneAir + 16, laneNames - 10, 16),
             Qt::AlignLeft | Qt::AlignVCenter, about, textFont(TextSize::Small), t.muted);
    const Spot *chosen = spotOf(m_chosen);
    for (const Group &g : lane.groups) {
        for (const Spot &s : g.spots)
            paintSpot(p, s, &s == chosen);
        const bool now = std::ranges::any_of(g.spots, &Spot::now);
        drawLine(p, QRectF(g.area.left(), g.area.top() + 17, g.area.width() + groupGap - 3, 15),
                 Qt::AlignLeft | Qt::AlignVCenter, captionOf(*g.kind), textFont(TextSize::Small),
                 now ? t.ink : t.muted);
    }
}

/// Hours left of each lane on one axis: a dot where they likely are, a bar nine jobs in ten long.
void WorkLanes::paintHours(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const double left = lanesRight() + 14, right = width() - 10;
    double most = 0.5;
    for (const auto &[stage, h] : m_plan->stageHours)
        most = std::max(most, h.high_h);
    const auto x = [&](double h) { return left + (right - left) * h / most; };
    const double step = most > 24 ? 10 : most > 8 ? 4 : most > 3 ? 2 : 1;
    for (double h = 0; h <= most; h += step) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x(h), axisHead), QPointF(x(h), minimumHeight() - legendHeight));
        drawLine(p, QRectF(x(h) - 24, 0, 48, 14), Qt::AlignCenter,
                 QString::number(h) + (h + step > most ? tr(" h") : QString()), small, t.muted);
    }
    for (const Lane &lane : m_lanes) {
        const auto at = m_plan->stageHours.find(lane.stage);
        if (at == m_plan->stageHours.end() || at->second.likely_h <= 0)
            continue;
        const double y = lane.top + lane.height / 2;
        p.setPen(QPen(t.oil[2], 5, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(x(at->second.low_h), y), QPointF(x(at->second.high_h), y));
        p.setPen(Qt::NoPen);
        p.setBrush(t.ink);
        p.drawEllipse(QPointF(x(at->second.likely_h), y), 3.5, 3.5);
    }
}

/// What comes first says whether the next lane may begin.
void WorkLanes::paintGate(QPainter &p, const Lane &lane) const
{
    const Theme &t = Theme::current();
    const QRectF row(0, lane.top - gateHeight, width(), gateHeight);
    p.fillRect(QRectF(0, row.top(), width(), 1), t.line);
    const Mark mark = m_list->markOf(*lane.opens);
    p.fillRect(QRectF(laneNames - 1, row.top() + 3, 3, gateHeight - 6), t.mark(mark));
    drawLine(p, row.adjusted(laneNames + 8, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
             qs(m_list->says(*lane.opens)), textFont(TextSize::Small, true), t.ink);
}

/// From what is chosen to what of it must come first.
void WorkLanes::paintWays(QPainter &p) const
{
    const Check *chosen = m_list->find(m_chosen);
    const Spot *to = spotOf(m_chosen);
    if (!chosen || !to || !chosen->isOpen())
        return;
    const Theme &t = Theme::current();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.selection, 1.5));
    for (const size_t before : chosen->after) {
        const Check &c = m_list->all()[before];
        const Spot *from = c.isOpen() ? spotOf(c.id()) : nullptr;
        if (!from || from == to)
            continue;
        const QPointF a(to->markX(), to->area.top()), b(from->markX(), from->area.bottom() + 1);
        const double middle = std::max(b.y() + 3, a.y() - 4);
        if (b.y() < a.y())
            p.drawPolyline(QPolygonF { a, QPointF(a.x(), middle), QPointF(b.x(), middle), b });
        else
            p.drawLine(QPointF(to->area.left(), to->area.center().y()),
                       QPointF(from->area.right(), from->area.center().y()));
    }
}

void WorkLanes::paintLegend(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont font = textFont(TextSize::Small);
    const double y = minimumHeight() - legendHeight + 8.0;
    double x = 2;
    const auto say = [&](const QString &text) {
        drawLine(p, QRectF(x, y, widthOf(text, font) + 2, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 text, font, t.muted);
        x += widthOf(text, font) + 16;
    };
    p.setPen(QPen(t.selection, 1.2));
    p.setBrush(t.selectionFill);
    p.drawRoundedRect(QRectF(x, y, 16, 16), 5, 5);
    x += 21;
    say(tr("can be done now"));
    QPen dashed(t.muted, 1.2, Qt::CustomDashLine);
    dashed.setDashPattern({ 2, 1.6 });
    p.setPen(dashed);
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(QPointF(x + 5, y + 8), 4.4, 4.4);
    x += 14;
    say(tr("waits"));
    for (const Mark m :
         { Mark::Proven, Mark::LookAgain, Mark::Hold, Mark::NotDone, Mark::SignedOff }) {
        drawMark(p, QPointF(x + 5, y + 8), 10, m);
        x += 14;
        say(qs(markWord(m)));
    }
    say(tr("a number: so many alike"));
    if (showsHours()) {
        p.setPen(QPen(t.ink, 1));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(QPointF(x + 7, y + 8), 7.2, 7.2);
        x += 19;
        say(tr("no day to spare"));
        say(tr("bar: hours, nine jobs in ten"));
    }
}

void WorkLanes::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!m_list)
        return;
    for (const Lane &l : m_lanes) {
        paintLane(p, l);
        if (l.opens)
            paintGate(p, l);
    }
    if (showsHours())
        paintHours(p);
    paintWays(p);
    paintLegend(p);
}

void WorkLanes::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    if (const Spot *s = spotAt(event->position())) {
        // Of several alike the next at each click.
        const auto at
            = std::ranges::find_if(s->checks, [&](const Check *c) { return c->id() == m_chosen; });
        const Check *next
            = at == s->checks.end() || at + 1 == s->checks.end() ? s->checks.front() : *(at + 1);
        Q_EMIT picked(next->id());
    }
}

void WorkLanes::mouseDoubleClickEvent(QMouseEvent *)
{
    if (!m_chosen.empty())
        Q_EMIT goAsked(m_chosen);
}

/// Left and right walk the checks in their order; up and down the lanes; Enter goes there.
void WorkLanes::keyPressEvent(QKeyEvent *event)
{
    if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && !m_chosen.empty()) {
        Q_EMIT goAsked(m_chosen);
        return;
    }
    const auto all = spots();
    const Spot *here = spotOf(m_chosen);
    const auto at = std::ranges::find(all, here);
    const int across = (event->key() == Qt::Key_Right) - (event->key() == Qt::Key_Left);
    const int down = (event->key() == Qt::Key_Down) - (event->key() == Qt::Key_Up);
    if (all.empty() || (!across && !down)) {
        QWidget::keyPressEvent(event);
        return;
    }
    const Spot *next = all.front();
    if (here && across) {
        const auto i = std::clamp<std::ptrdiff_t>((at - all.begin()) + across, 0,
                                                  static_cast<std::ptrdiff_t>(all.size()) - 1);
        next = all[static_cast<size_t>(i)];
    } else if (here) {
        // The nearest one of the next line that way.
        double best = 1e9;
        next = here;
        for (const Spot *s : all) {
            const double dy = (s->area.center().y() - here->area.center().y()) * down;
            const double score = dy * 4 + std::abs(s->area.left() - here->area.left());
            if (dy > 5 && score < best) {
                best = score;
                next = s;
            }
        }
    }
    Q_EMIT picked(next->checks.front()->id());
}

bool WorkLanes::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        const auto *help = static_cast<QHelpEvent *>(event);
        if (const Spot *s = spotAt(help->pos())) {
            const Check &c = *s->checks.front();
            QToolTip::showText(help->globalPos(),
                               s->checks.size() > 1 ? qs(c.kind->statement)
                                                    : qs(c.statement()) + u'\n' + qs(c.reason),
                               this);
            return true;
        }
        for (const Lane &l : m_lanes)
            for (const Group &g : l.groups)
                if (g.area.contains(help->pos())) {
                    QToolTip::showText(help->globalPos(), qs(g.kind->statement), this);
                    return true;
                }
    }
    return QWidget::event(event);
}

} // namespace mildpath
