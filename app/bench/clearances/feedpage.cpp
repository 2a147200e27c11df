// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/clearances/feedpage.h"

#include "assess/fits.h"
#include "assess/sizes.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "shell/stopfields.h"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>

namespace mildpath {
namespace {

const std::vector<double> covered { 0.0, 0.5, 0.8, 0.9, 0.95 };

} // namespace

FeedPage::FeedPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
{
    setObjectName(QStringLiteral("feedPage"));
}

std::vector<const Stop *> FeedPage::mains() const
{
    std::vector<const Stop *> out;
    for (const Stop &s : m_open.build().engine.stops)
        if (s.kind == StopKind::Main)
            out.push_back(&s);
    return out;
}

const Stop *FeedPage::inHand() const
{
    const auto all = mains();
    for (const Stop *s : all)
        if (s->id == m_stop)
            return s;
    return all.empty() ? nullptr : all.front();
}

const std::vector<CoverPoint> &FeedPage::sweep() const
{
    static const std::vector<CoverPoint> none;
    return m_sweep && m_sweep->answer ? *m_sweep->answer : none;
}

std::vector<FeedPage::Bar> FeedPage::barsOf(const CoverPoint &c)
{
    const Theme &t = Theme::current();
    std::vector<Bar> out { { tr("main"), c.main_pa, t.oil[3] } };
    if (c.bigEnd_pa)
        out.push_back({ tr("big-end"), *c.bigEnd_pa, t.oil[1] });
    out.push_back({ tr("gauge"), c.gauge_pa, t.selection });
    return out;
}

void FeedPage::refresh()
{
    const Stop *selected = m_open.build().engine.find(m_open.selectedStop().toStdString());
    if (selected && selected->kind == StopKind::Main)
        m_stop = selected->id;
    const Stop *stop = inHand();
    m_sweep.reset();
    QString spoken;
    if (stop) {
        m_stop = stop->id;
        clearVectorState();
        m_sweep = m_open.answers().now(ask::covered(stop->id, covered));
        for (const CoverPoint &c : sweep()) {
            spoken += tr("covered %1: ").arg(Figure::percent(c.covered).text());
            for (const auto &[name, pa, colour] : barsOf(c))
                spoken += name + u' ' + Figure::pressure(pa).text() + QStringLiteral(", ");
            spoken += QStringLiteral("; ");
        }
    }
    setAccessibleName(spoken);
    update();
}

QRectF FeedPage::holeArea(size_t i, size_t count) const
{
    const double width = this->width() / static_cast<double>(std::max<size_t>(1, count));
    return { width * static_cast<double>(i), 0, width, std::min(210.0, height() * 0.42) };
}

QPointF FeedPage::placeOf(const QString &stop) const
{
    const auto all = mains();
    for (size_t i = 0; i < all.size(); ++i)
        if (qs(all[i]->id) == stop)
            return holeArea(i, all.size()).center();
    return {};
}

void FeedPage::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto all = mains();
    for (size_t i = 0; i < all.size(); ++i)
        paintHole(p, *all[i], holeArea(i, all.size()));
    const double top = all.empty() ? 0 : holeArea(0, all.size()).bottom() + 10;
    paintSweep(p, QRectF(0, top, width(), height() - top));
}

void FeedPage::paintHole(QPainter &p, const Stop &stop, const QRectF &area) const
{
    const Theme &t = Theme::current();
    const bool selected = stop.id == m_stop;
    if (selected) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.selectionFill);
        p.drawRoundedRect(area.adjusted(3, 2, -3, -2), 6, 6);
    }
    drawLine(p, QRectF(area.left(), area.top() + 8, area.width(), 18), Qt::AlignCenter,
             qs(stop.name), textFont(TextSize::Body, selected), selected ? t.selection : t.ink);
    if (!stop.has("block_hole_mm") || !stop.has("shell_hole_mm")) {
        drawMark(p, QPointF(area.center().x(), area.center().y()), 14, Mark::NotDone);
        drawLine(p, QRectF(area.left() + 4, area.center().y() + 14, area.width() - 8, 16),
                 Qt::AlignCenter, tr("not measured"), textFont(TextSize::Small), t.muted);
        return;
    }
    const double d1 = stop.value("block_hole_mm"), d2 = stop.value("shell_hole_mm"),
                 offset = stop.value("hole_offset_mm");
    // One scale for all mains, so that they can be compared.
    double span = 1, largest = 1;
    for (const Stop *s : mains()) {
        const double d = std::max(s->value("block_hole_mm"), s->value("shell_hole_mm"));
        largest = std::max(largest, d);
        span = std::max(span, d + std::min(d, s->value("hole_offset_mm")));
    }
    const double scale = std::min((area.width() - 24) / span, (area.height() - 88) / largest);
    const QPointF centre(area.center().x() - offset * scale / 2,
                         area.top() + 30 + std::max(d1, d2) * scale / 2);
    QPainterPath block, shell;
    block.addEllipse(centre, d1 / 2 * scale, d1 / 2 * scale);
    shell.addEllipse(centre + QPointF(offset * scale, 0), d2 / 2 * scale, d2 / 2 * scale);
    p.setPen(Qt::NoPen);
    p.setBrush(t.oil[2]);
    p.drawPath(block.intersected(shell));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.6));
    p.drawPath(shell);
    p.setPen(QPen(t.muted, 1.4, Qt::DashLine));
    p.drawPath(block);
    for (const FeedHole &f : m_open.feedHoles()) {
        if (f.stop != stop.id)
            continue;
        const double y = area.bottom() - 44;
        drawMark(p, QPointF(area.center().x() - 34, y + 9), 12, f.mark);
        drawLine(p, QRectF(area.center().x() - 22, y, 90, 18), Qt::AlignVCenter,
                 tr("%1 open").arg(Figure::percent(f.openShare).text()),
                 textFont(TextSize::Body, true), t.mark(f.mark));
        drawLine(p, QRectF(area.left() + 4, y + 19, area.width() - 8, 15), Qt::AlignCenter,
                 inWords(Quantity { f.openArea_mm2 * 1e-6, Shows::Area, 0, 1 }),
                 textFont(TextSize::Small), t.muted);
    }
}

void FeedPage::paintSweep(QPainter &p, const QRectF &area) const
{
    const Theme &t = Theme::current();
    drawCard(p, area.adjusted(1, 1, -1, -1));
    const Stop *stop = inHand();
    if (!stop || sweep().empty())
        return;
    const double left = area.left() + 18;
    drawLine(p, QRectF(left, area.top() + 10, area.width() - 36, 18), Qt::AlignVCenter,
             tr("If the hole of %1 were covered").arg(qs(stop->name)),
             textFont(TextSize::Body, true), t.ink);
    drawLine(p, QRectF(left, area.top() + 28, area.width() - 36, 16), Qt::AlignVCenter,
             (sweep().back().gauge_pa >= sweep().front().gauge_pa
                  ? tr("hot oil, %1, the whole circuit: the gauge shows nothing of it")
                  : tr("hot oil, %1, the whole circuit"))
                 .arg(Figure::speed(m_open.build().use.highSpeed_rpm).text()),
             textFont(TextSize::Normal), t.muted);
    const double rowHeight
        = std::clamp((area.height() - 96) / static_cast<double>(sweep().size()), 22.0, 60.0);
    const double barLeft = left + 110, barRoom = area.width() - 36 - 110 - 190;
    double most = 1;
    for (const CoverPoint &c : sweep())
        for (const auto &[name, pa, colour] : barsOf(c))
            most = std::max(most, pa);
    double x = barLeft;
    for (const auto &[name, pa, colour] : barsOf(sweep().front())) {
        p.fillRect(QRectF(x, area.top() + 56, 10, 10), colour);
        drawLine(p, QRectF(x + 15, area.top() + 52, 80, 18), Qt::AlignVCenter, name,
                 textFont(TextSize::Small), t.muted);
        x += 90;
    }
    if (!sweep().front().bigEnd_pa)
        drawLine(p, QRectF(x, area.top() + 52, 160, 18), Qt::AlignVCenter, tr("feeds no rod"),
                 textFont(TextSize::Small), t.muted);
    for (size_t i = 0; i < sweep().size(); ++i) {
        const CoverPoint &c = sweep()[i];
        const double y = area.top() + 76 + rowHeight * static_cast<double>(i);
        drawLine(p, QRectF(left, y, 100, rowHeight - 4), Qt::AlignVCenter,
                 c.covered == 0 ? tr("fully open")
                                : tr("%1 covered").arg(Figure::percent(c.covered).text()),
                 textFont(TextSize::Normal), t.ink);
        const auto bars = barsOf(c);
        const double thick = (rowHeight - 6) / static_cast<double>(bars.size());
        double k = 0;
        QStringList figures;
        for (const auto &[name, pa, colour] : bars) {
            p.fillRect(
                QRectF(barLeft, y + thick * k++, std::max(1.0, barRoom * pa / most), thick - 1),
                colour);
            figures << (figures.size() + 1 < static_cast<qsizetype>(bars.size())
                            ? Figure::pressure(pa).number
                            : Figure::pressure(pa).text());
        }
        drawLine(p, QRectF(barLeft + barRoom + 10, y, 184, rowHeight - 4), Qt::AlignVCenter,
                 figures.join(QStringLiteral(" · ")), textFont(TextSize::Normal, true), t.ink);
    }
}

void FeedPage::mousePressEvent(QMouseEvent *event)
{
    const auto all = mains();
    for (size_t i = 0; i < all.size(); ++i)
        if (holeArea(i, all.size()).contains(event->position()))
            m_open.selectStop(qs(all[i]->id));
}

PanelContent FeedPage::panel()
{
    PanelContent out;
    const Stop *stop = inHand();
    if (!stop)
        return out;
    out.push_back(PanelTitle { qs(stop->name), tr("how its oil comes in") });
    for (const FeedHole &f : m_open.feedHoles())
        if (f.stop == stop->id)
            out.push_back(PanelVerdict { f.mark, qs(f.verdict), qs(f.next) });
    for (const char *key : { "block_hole_mm", "shell_hole_mm", "hole_offset_mm" })
        out.push_back(stopValueField(m_open, *stop, key));
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { tr("Groove") });
    const auto choose = [&](const QString &id, const QString &text, const char *key, double value) {
        out.push_back(PanelButton { id, text, [open = &m_open, stopId = stop->id, key, value] {
                                       open->edit(SetStopValue { stopId, key, value });
                                   } });
    };
    const double groove = stop->value("groove_deg", -1);
    out.push_back(PanelText { groove < 0          ? tr("as the circuit has it")
                                  : groove == 0   ? tr("none: a single hole")
                                  : groove >= 360 ? tr("all round the shell")
                                                  : tr("in one shell, %1°").arg(groove) });
    if (groove != 180)
        choose(QStringLiteral("grooveHalf"), tr("Groove in the upper shell only"), "groove_deg",
               180);
    if (groove != 360)
        choose(QStringLiteral("grooveFull"), tr("Groove all round"), "groove_deg", 360);
    if (groove != 0)
        choose(QStringLiteral("grooveNone"), tr("No groove"), "groove_deg", 0);
    const bool journalGroove = stop->value("journal_groove") > 0,
               crossed = stop->value("cross_drilled") > 0;
    choose(QStringLiteral("journalGroove"),
           journalGroove ? tr("Journal has no groove") : tr("Journal is grooved"), "journal_groove",
           journalGroove ? 0 : 1);
    if (groove > 0)
        out.push_back(stopValueField(m_open, *stop, "groove_depth_mm"));
    if (journalGroove)
        for (const char *key : { "journal_groove_width_mm", "journal_groove_depth_mm" })
            out.push_back(stopValueField(m_open, *stop, key));
    choose(QStringLiteral("crossDrilled"),
           crossed ? tr("Journal is not drilled across") : tr("Journal is drilled across"),
           "cross_drilled", crossed ? 0 : 1);
    if (const auto share = feedShareOfTurn(m_open.build(), *stop))
        out.push_back(PanelRow { tr("rod fed, share of a turn"), Figure::percent(*share), {} });
    out.push_back(stopValueField(m_open, *stop, "thrust_bevel_mm2"));
    out.push_back(
        PanelText { tr("A bevel at the parting line brings oil to the thrust face; too big, "
                       "it loses pressure."),
                    Tone::Muted });
    return out;
}

} // namespace mildpath
