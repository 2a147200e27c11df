// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/growthchart.h"

#include "study/room.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

namespace {

/// Right of the chart, for the names of the lines.
constexpr double nameRoom = 62;

} // namespace

GrowthChart::GrowthChart(OpenBuild &open, QWidget *parent)
    : ChartView(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("growthChart"));
    setMinimumSize(220, 150);
}

void GrowthChart::setLog(const HeatLog &log)
{
    m_log = log;
    const Build &b = m_open.build();
    const auto &sizes = m_open.sizes();
    const PartTemperatures hot = settledTemperatures(b, b.use.hotOil_c);
    const auto figure = [&](const char *family, const PartTemperatures &t) {
        const auto um = meanOf(sizes, family, t);
        return um ? Figure::clearance(*um).text() : tr("not known");
    };
    setAccessibleName(tr("mains %1 at %5, %2 hot; big-ends %3, %4 hot")
                          .arg(figure("main", allAt(20)), figure("main", hot),
                               figure("big_end", allAt(20)), figure("big_end", hot),
                               Figure::temperature(20).text()));
    redraw();
}

void GrowthChart::redraw()
{
    const Theme &t = Theme::current();
    const Use &use = m_open.build().use;
    Chart chart;
    chart.rightRoom = nameRoom;
    chart.x = { std::floor((std::min(use.coldestStart_c, 0.0) - 10) / 20) * 20,
                std::ceil((use.hotOil_c + 20) / 20) * 20, 0, 1, Shows::Temperature };
    chart.x.count = std::max(3, width() / 60);
    chart.x.name = width() < 360 ? QString()
                                 : tr("%1, block and crank alike").arg(unitOf(Shows::Temperature));
    const double floor = use.coldestClearanceFloor_um * 1e-6;
    chart.zones.push_back(
        { tr("too tight to turn: floor %1").arg(Figure::limit(use.coldestClearanceFloor_um).text()),
          t.holdFill,
          t.hold,
          {},
          {},
          {},
          floor });
    for (const auto &[c, word] : { std::pair(use.coldestStart_c, tr("coldest start %1")),
                                   std::pair(use.hotOil_c, tr("hot %1")) })
        chart.marks.push_back({ Qt::Vertical, c, word.arg(Figure::temperature(c).text()),
                                t.selection, Qt::DashLine, true });
    double most = 40e-6;
    addFamily(chart, "big_end", t.cold);
    addFamily(chart, "main", t.oil[3]);
    for (const ChartLine &l : chart.lines)
        most = std::max({ most, l.y.front() + 8e-6, l.y.back() + 8e-6 });
    for (const JudgedHeatPoint &p : m_log.points)
        most = std::max(most, (p.reading_um.value_or(0) + 8) * 1e-6);
    chart.y = { 0, roundedUp(most, Shows::Clearance, 5), 0, 1, Shows::Clearance };
    chart.y.count = std::max(3, height() / 40);
    addLog(chart);
    setChart(std::move(chart));
}

/// Its line from cold to hot, and where it runs: hot, the housing a little below the oil.
void GrowthChart::addFamily(Chart &chart, const std::string &family, const QColor &colour) const
{
    const Build &b = m_open.build();
    const auto &sizes = m_open.sizes();
    const auto from = meanOf(sizes, family, allAt(chart.x.from));
    const auto to = meanOf(sizes, family, allAt(chart.x.to));
    if (!from || !to)
        return;
    chart.lines.push_back(
        { {}, colour, { chart.x.from, chart.x.to }, { *from * 1e-6, *to * 1e-6 } });
    if (const auto runs = meanOf(sizes, family, settledTemperatures(b, b.use.hotOil_c)))
        chart.dots.push_back({ b.use.hotOil_c, *runs * 1e-6, colour });
}

void GrowthChart::addLog(Chart &chart) const
{
    const Theme &t = Theme::current();
    if (m_log.fit) {
        // As the gauge reads it: the journal stays cold, so the line is steeper.
        const auto reads
            = [&](double c) { return m_log.fit->at20_m + m_log.fit->slope_m_per_k * (c - 20); };
        const double slope = std::max(1e-12, m_log.fit->slope_m_per_k);
        const double to = std::min(chart.x.to, 20 + (chart.y.to - reads(20)) / slope);
        ChartLine line {
            tr("as the gauge reads, journal cold"), t.muted, { 20, to }, { reads(20), reads(to) }
        };
        line.pen = Qt::DashLine;
        line.width = 1.2;
        line.labelAt = 0.75;
        chart.lines.push_back(std::move(line));
    }
    for (const JudgedHeatPoint &j : m_log.points) {
        if (!j.metal_c || !j.reading_um)
            continue;
        const QColor tone = j.counts ? t.ink : t.hold;
        chart.dots.push_back({ *j.metal_c, *j.reading_um * 1e-6, tone, {}, DotShape::Square });
        if (j.counts)
            chart.dots.push_back({ *j.metal_c, *j.running_um * 1e-6, tone, {}, DotShape::Cross });
    }
}

void GrowthChart::resizeEvent(QResizeEvent *event)
{
    ChartView::resizeEvent(event);
    redraw(); // as many ticks as there is room for
}

/// Beside the ends of the lines, apart from each other: the family and what it runs at, hot.
void GrowthChart::paintNames(QPainter &p) const
{
    const Theme &t = Theme::current();
    const Build &b = m_open.build();
    const auto &sizes = m_open.sizes();
    const PartTemperatures hot = settledTemperatures(b, b.use.hotOil_c);
    struct Name
    {
        QString family;
        QColor colour;
        double y, running_um;
    };
    std::vector<Name> names;
    for (const auto &[id, name, colour] : { std::tuple("main", tr("mains"), t.oil[3]),
                                            std::tuple("big_end", tr("big-ends"), t.cold) })
        if (const auto end = meanOf(sizes, id, allAt(chart().x.to)))
            names.push_back(
                { name, colour, at(chart().x.to, *end * 1e-6).y(), *meanOf(sizes, id, hot) });
    constexpr double height = 32;
    if (names.size() == 2) {
        Name &upper = names[0].y < names[1].y ? names[0] : names[1];
        Name &lower = names[0].y < names[1].y ? names[1] : names[0];
        const double push = std::max(0.0, height + 2 - (lower.y - upper.y)) / 2;
        upper.y -= push;
        lower.y += push;
    }
    for (const Name &n : names) {
        const QRectF box(area().right() + 5, n.y - height / 2, nameRoom - 6, height);
        drawLine(p, box.adjusted(0, 0, 0, -height / 2), Qt::AlignVCenter, n.family,
                 textFont(TextSize::Normal, true), n.colour);
        drawLine(p, box.adjusted(0, height / 2, 0, 0), Qt::AlignVCenter,
                 Figure::clearance(n.running_um, 1).text(), textFont(TextSize::Small), n.colour);
    }
}

/// What the points of a warming test are.
void GrowthChart::paintKey(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    double x = 4;
    const double y = height() - 9;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 2));
    p.drawLine(QPointF(x, y), QPointF(x + 10, y));
    p.drawLine(QPointF(x + 5, y - 5), QPointF(x + 5, y + 5));
    const QString runs = tr("test, as it runs");
    const double wide = QFontMetricsF(small).horizontalAdvance(runs) + 4;
    drawLine(p, QRectF(x + 15, y - 8, wide, 16), Qt::AlignVCenter, runs, small, t.muted);
    x += 15 + wide + 8;
    p.setPen(QPen(t.ink, 1.4));
    p.drawRect(QRectF(x, y - 3.5, 7, 7));
    drawLine(p, QRectF(x + 12, y - 8, 60, 16), Qt::AlignVCenter, tr("as read"), small, t.muted);
}

void GrowthChart::paintOver(QPainter &p, LabelSpace &)
{
    paintNames(p);
    if (m_log.fit)
        paintKey(p);
}

} // namespace mildpath
