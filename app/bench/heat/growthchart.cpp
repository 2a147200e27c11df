// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/growthchart.h"

#include "paint/text.h"
#include "study/room.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

/// °C and µm to the widget.
struct GrowthChart::Scale
{
    QRectF area;
    double coldest_c, hottest_c, most_um;
    double x(double c) const
    {
        return area.left() + (c - coldest_c) / (hottest_c - coldest_c) * area.width();
    }
    double y(double um) const { return area.bottom() - um / most_um * area.height(); }
    QPointF at(double c, double um) const { return { x(c), y(um) }; }
};

namespace {

/// Right of the chart, for the names of the lines.
constexpr double nameRoom = 62;

} // namespace

GrowthChart::GrowthChart(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
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
    update();
}

GrowthChart::Scale GrowthChart::scale() const
{
    const Build &b = m_open.build();
    Scale s { QRectF(34, 24, width() - 34.0 - nameRoom, height() - 62.0),
              std::floor((std::min(b.use.coldestStart_c, 0.0) - 10) / 20) * 20,
              std::ceil((b.use.hotOil_c + 20) / 20) * 20, 40 };
    for (const char *family : { "main", "big_end" })
        for (const double c : { s.coldest_c, s.hottest_c })
            s.most_um
                = std::max(s.most_um, meanOf(m_open.sizes(), family, allAt(c)).value_or(0) + 8);
    for (const JudgedHeatPoint &p : m_log.points)
        s.most_um = std::max(s.most_um, p.reading_um.value_or(0) + 8);
    s.most_um = std::ceil(s.most_um / 20) * 20;
    return s;
}

void GrowthChart::paintGrid(QPainter &p, const Scale &s) const
{
    const Theme &t = Theme::current();
    const Build &b = m_open.build();
    const QFont small = textFont(TextSize::Small);
    const double floor_um = b.use.coldestClearanceFloor_um;
    p.fillRect(
        QRectF(s.area.left(), s.y(floor_um), s.area.width(), s.area.bottom() - s.y(floor_um)),
        t.holdFill);
    const bool narrow = s.area.width() < 260;
    for (const double m :
         niceTicks(0, s.most_um * 1e-6, Shows::Clearance, static_cast<int>(s.area.height() / 30))) {
        const double um = m * 1e6;
        p.setPen(QPen(t.line, 1));
        p.drawLine(s.at(s.coldest_c, um), s.at(s.hottest_c, um));
        drawLine(p, QRectF(0, s.y(um) - 8, 29, 16), Qt::AlignRight | Qt::AlignVCenter,
                 tickOf(m, Shows::Clearance), small, t.muted);
    }
    drawLine(p, QRectF(0, 2, 120, 16), Qt::AlignVCenter, Figure::limit(0).unit, small, t.muted);
    for (const double c : niceTicks(s.coldest_c, s.hottest_c, Shows::Temperature,
                                    static_cast<int>(s.area.width() / 44))) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(s.at(c, 0), s.at(c, s.most_um));
        drawLine(p, QRectF(s.x(c) - 24, s.area.bottom() + 3, 48, 15), Qt::AlignCenter,
                 Figure::temperature(c).number, small, t.muted);
    }
    drawLine(p, QRectF(s.area.right() - 240, s.area.bottom() + 19, 240, 15),
             Qt::AlignRight | Qt::AlignVCenter,
             narrow ? Figure::temperature(0).unit
                    : tr("%1, block and crank alike").arg(Figure::temperature(0).unit),
             small, t.muted);
    drawLine(p, QRectF(s.area.left() + 6, s.y(floor_um / 2) - 8, s.area.width() - 10, 16),
             Qt::AlignVCenter,
             tr("too tight to turn: floor %1").arg(Figure::limit(floor_um).text()), small, t.hold);
    for (const auto &[c, word] : { std::pair(b.use.coldestStart_c, tr("coldest start %1")),
                                   std::pair(b.use.hotOil_c, tr("hot %1")) }) {
        p.setPen(QPen(t.selection, 1, Qt::DashLine));
        p.drawLine(s.at(c, 0), s.at(c, s.most_um));
        const bool right = s.x(c) > s.area.center().x();
        drawLine(p, QRectF(right ? s.x(c) - 124 : s.x(c) + 4, s.area.top() - 17, 120, 16),
                 (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                 word.arg(Figure::temperature(c).text()), small, t.selection);
    }
}

void GrowthChart::paintFamily(QPainter &p, const Scale &s, const std::string &family,
                              const QColor &colour) const
{
    const Build &b = m_open.build();
    const auto &sizes = m_open.sizes();
    const auto from = meanOf(sizes, family, allAt(s.coldest_c));
    const auto to = meanOf(sizes, family, allAt(s.hottest_c));
    if (!from || !to)
        return;
    p.setPen(QPen(colour, 2.4));
    p.drawLine(s.at(s.coldest_c, *from), s.at(s.hottest_c, *to));
    // Where it runs, hot: housing a little below the oil.
    p.setPen(QPen(Theme::current().bench, 1.5));
    p.setBrush(colour);
    p.drawEllipse(
        s.at(b.use.hotOil_c, *meanOf(sizes, family, settledTemperatures(b, b.use.hotOil_c))), 4.5,
        4.5);
}

/// Beside the ends of the lines, apart from each other: the family and what it runs at, hot.
void GrowthChart::paintNames(QPainter &p, const Scale &s) const
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
        if (const auto end = meanOf(sizes, id, allAt(s.hottest_c)))
            names.push_back({ name, colour, s.y(*end), *meanOf(sizes, id, hot) });
    constexpr double height = 32;
    if (names.size() == 2) {
        Name &upper = names[0].y < names[1].y ? names[0] : names[1];
        Name &lower = names[0].y < names[1].y ? names[1] : names[0];
        const double push = std::max(0.0, height + 2 - (lower.y - upper.y)) / 2;
        upper.y -= push;
        lower.y += push;
    }
    for (const Name &n : names) {
        const QRectF box(s.area.right() + 5, n.y - height / 2, nameRoom - 6, height);
        drawLine(p, box.adjusted(0, 0, 0, -height / 2), Qt::AlignVCenter, n.family,
                 textFont(TextSize::Normal, true), n.colour);
        drawLine(p, box.adjusted(0, height / 2, 0, 0), Qt::AlignVCenter,
                 Figure::clearance(n.running_um, 1).text(), textFont(TextSize::Small), n.colour);
    }
}

void GrowthChart::paintLabel(QPainter &p, const QRectF &box, const QString &text, const QFont &font,
                             const QColor &colour) const
{
    const double w = QFontMetricsF(font).horizontalAdvance(text) + 4;
    QColor ground = Theme::current().bench;
    ground.setAlphaF(0.85F);
    p.fillRect(QRectF(box.right() - w, box.top() + 1, w + 2, box.height() - 2), ground);
    drawLine(p, box, Qt::AlignRight | Qt::AlignVCenter, text, font, colour);
}

void GrowthChart::paintLog(QPainter &p, const Scale &s) const
{
    const Theme &t = Theme::current();
    if (m_log.fit) {
        // As the gauge reads it: the journal stays cold, so the line is steeper.
        const auto reads = [&](double c) {
            return (m_log.fit->at20_m + m_log.fit->slope_m_per_k * (c - 20)) * 1e6;
        };
        p.setPen(QPen(t.muted, 1.2, Qt::DashLine));
        const double from = 20,
                     to
            = std::min(s.hottest_c,
                       20 + (s.most_um - reads(20)) / std::max(1e-6, reads(21) - reads(20)));
        p.drawLine(s.at(from, reads(from)), s.at(to, reads(to)));
        const double c = from + 0.85 * (to - from);
        paintLabel(p, QRectF(s.x(c) - 204, s.y(reads(c)) - 18, 196, 16),
                   tr("as the gauge reads, journal cold"), textFont(TextSize::Small), t.muted);
    }
    for (const JudgedHeatPoint &j : m_log.points) {
        if (!j.metal_c || !j.reading_um)
            continue;
        const QColor tone = j.counts ? t.ink : t.hold;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(tone, 1.4));
        const QPointF read = s.at(*j.metal_c, *j.reading_um);
        if (s.area.adjusted(-1, -1, 1, 1).contains(read))
            p.drawRect(QRectF(read.x() - 3.5, read.y() - 3.5, 7, 7));
        if (!j.counts)
            continue;
        p.setPen(QPen(tone, 2));
        const QPointF runs = s.at(*j.metal_c, *j.running_um);
        p.drawLine(runs - QPointF(6, 0), runs + QPointF(6, 0));
        p.drawLine(runs - QPointF(0, 6), runs + QPointF(0, 6));
    }
    if (m_log.fit) {
        double x = s.area.left() + 2;
        const double y = s.area.bottom() + 27;
        p.setPen(QPen(t.ink, 2));
        p.drawLine(QPointF(x, y), QPointF(x + 10, y));
        p.drawLine(QPointF(x + 5, y - 5), QPointF(x + 5, y + 5));
        drawLine(p, QRectF(x + 15, y - 8, s.area.width() / 2 - 20, 16), Qt::AlignVCenter,
                 tr("test, as it runs"), textFont(TextSize::Small), t.muted);
        p.setPen(QPen(t.ink, 1.4));
        x += 15 + QFontMetricsF(textFont(TextSize::Small)).horizontalAdvance(tr("test, as it runs"))
            + 10;
        p.drawRect(QRectF(x, y - 3.5, 7, 7));
        drawLine(p, QRectF(x + 12, y - 8, 60, 16), Qt::AlignVCenter, tr("as read"),
                 textFont(TextSize::Small), t.muted);
    }
}

void GrowthChart::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Scale s = scale();
    paintGrid(p, s);
    paintFamily(p, s, "big_end", t.cold);
    paintFamily(p, s, "main", t.oil[3]);
    paintLog(p, s);
    paintNames(p, s);
}

} // namespace mildpath
