// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/film/oilchart.h"

#include "oil/grades.h"
#include "paint/text.h"
#include "study/contacts.h"

#include <QPainterPath>

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double leastC = 0, mostC = 150;
constexpr double leastKv = 3, mostKv = 4000;

double doubleLog(double kv)
{
    return std::log10(std::log10(kv + 0.7));
}

} // namespace

OilChart::OilChart(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("oilChart"));
    setMinimumSize(330, 200);
}

std::vector<OilChart::Line> OilChart::lines() const
{
    const Theme &t = Theme::current();
    const Build &build = m_open.build();
    const ChosenOil &own = build.oil;
    std::vector<Line> out { { tr("%1, this build").arg(qs(own.grade)), own.oil, t.oil[3], true,
                              false } };
    if (m_fuel > 0)
        out.push_back({ tr("with %1 % petrol").arg(qs(formatNumber(m_fuel * 100, 0))),
                        dilutedOil(own.oil, m_fuel), t.hold, false, false });
    // Its neighbours on the shelf, the oils of one's own, and what people take for like it.
    const ShelfOil *thicker = nextThickerOil(own.oil), *thinner = nullptr;
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil && o.oil.kv100_mm2_s < 0.95 * own.oil.kv100_mm2_s
            && (!thinner || o.oil.kv100_mm2_s > thinner->oil.kv100_mm2_s))
            thinner = &o;
    if (thicker)
        out.push_back({ qs(thicker->grade), thicker->oil, t.selection, false, false });
    if (thinner)
        out.push_back({ qs(thinner->grade), thinner->oil, t.muted, false, false });
    for (const ChosenOil &o : build.ownOils)
        if (o.grade != own.grade && out.size() < 6)
            out.push_back({ qs(o.grade), o.oil, t.proven, false, false });
    if (const ShelfOil *gear = findShelfOil("75W-90 gear"))
        out.push_back({ tr("75W-90 gear: thins like a 40, wrong additives"), gear->oil, t.hold,
                        false, true });
    return out;
}

QStringList OilChart::oils() const
{
    QStringList out;
    for (const Line &l : lines())
        out << l.name;
    return out;
}

void OilChart::setFuel(double fraction)
{
    m_fuel = fraction;
    update();
}

QPointF OilChart::at(double celsius, double kv) const
{
    const auto x = [](double c) { return std::log10(c + 273.15); };
    const double across = (x(celsius) - x(leastC)) / (x(mostC) - x(leastC));
    const double up
        = (doubleLog(kv) - doubleLog(leastKv)) / (doubleLog(mostKv) - doubleLog(leastKv));
    return { m_area.left() + across * m_area.width(), m_area.bottom() - up * m_area.height() };
}

void OilChart::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    m_area = QRectF(42, 22, width() - 42 - 132, height() - 22 - 34);
    paintScale(p);
    const auto drawn = lines();
    p.save();
    p.setClipRect(m_area);
    for (auto it = drawn.rbegin(); it != drawn.rend(); ++it) {
        const auto walther = waltherLine(it->oil.kv40_mm2_s, it->oil.kv100_mm2_s);
        if (!walther)
            continue;
        QPainterPath path;
        for (double c = leastC; c <= mostC; c += 10) {
            const QPointF here = at(c, kinematicViscosity_mm2_s(*walther, { c }));
            c == leastC ? path.moveTo(here) : path.lineTo(here);
        }
        p.setPen(
            QPen(it->colour, it->thick ? 2.4 : 1.6, it->dashed ? Qt::DashLine : Qt::SolidLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
    }
    p.restore();
    paintWindows(p);
    paintLegend(p, drawn);
    setAccessibleName(tr("Viscosity against temperature: ") + oils().join(QStringLiteral(", ")));
}

void OilChart::paintScale(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    drawLine(p, QRectF(0, 2, 60, 16), Qt::AlignVCenter, unitOf(Shows::KinematicViscosity), small,
             t.muted);
    for (const double kv : { 3.0, 5.0, 10.0, 20.0, 50.0, 100.0, 500.0, 2000.0 }) {
        const double y = at(leastC, kv).y();
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(m_area.left(), y), QPointF(m_area.right(), y));
        drawLine(p, QRectF(0, y - 8, 36, 16), Qt::AlignVCenter | Qt::AlignRight,
                 qs(formatNumber(kv, 0)), small, t.muted);
    }
    for (const double c : niceTicks(leastC, mostC, Shows::Temperature, 8)) {
        const double x = at(c, leastKv).x();
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x, m_area.top()), QPointF(x, m_area.bottom()));
        drawLine(p, QRectF(x - 22, m_area.bottom() + 3, 44, 16), Qt::AlignCenter,
                 Figure::temperature(c).number, small, t.muted);
    }
    drawLine(p, QRectF(m_area.right() - 40, m_area.bottom() + 18, 62, 16), Qt::AlignCenter,
             unitOf(Shows::Temperature), small, t.muted);
}

/// The grades as boxes on the chart's own scale, the build's own lit.
void OilChart::paintWindows(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const double kv = m_open.build().oil.oil.kv100_mm2_s;
    const double left = m_area.right() + 24;
    drawLine(p, QRectF(left - 8, 0, 116, 15), Qt::AlignCenter,
             tr("grades at %1").arg(Figure::temperature(100).text()), small, t.ink);
    double lastTop = 0;
    const auto column = [&](std::span<const GradeWindow> windows, double x, const QString &name,
                            const QColor &fill, bool own) {
        double highest = m_area.bottom();
        for (const GradeWindow &w : windows) {
            // The overlapping thin ones and the thickest lie outside what engines use.
            if (w.below_mm2_s > 35 || w.atLeast_mm2_s < 6 || w.name == "16")
                continue;
            const double top = at(0, w.below_mm2_s).y(), bottom = at(0, w.atLeast_mm2_s).y();
            const bool lit = own && kv >= w.atLeast_mm2_s && kv < w.below_mm2_s;
            const QRectF box(x, top + 1, 44, bottom - top - 2);
            p.fillRect(box, lit ? t.oil[1] : fill);
            if (bottom - top > 8)
                drawLine(p, QRectF(x, (top + bottom) / 2 - 8, 44, 16), Qt::AlignCenter, qs(w.name),
                         textFont(TextSize::Small, lit), t.ink);
            highest = std::min(highest, top);
        }
        drawLine(p, QRectF(x - 4, highest - 17, 52, 15), Qt::AlignCenter, name, small, t.muted);
        lastTop = highest;
    };
    QColor engine = t.oil[0], gear = t.holdFill;
    if (t.dark)
        engine = t.line;
    column(engineGradeWindows(), left, tr("engine"), engine, true);
    column(gearGradeWindows(), left + 52, tr("gear"), gear, false);
    const QPointF here = at(100, kv);
    p.setPen(QPen(t.oil[3], 1.2, Qt::DashLine));
    p.drawLine(here, QPointF(left, here.y()));
    drawLine(p, QRectF(left - 12, m_area.bottom() + 3, 124, 16), Qt::AlignCenter,
             tr("two unlike scales"), small, t.muted);
}

void OilChart::paintLegend(QPainter &p, const std::vector<Line> &drawn) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    double y = m_area.bottom() - 8 - 15.0 * static_cast<double>(drawn.size());
    for (const Line &l : drawn) {
        p.setPen(QPen(l.colour, l.thick ? 2.4 : 1.6, l.dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawLine(QPointF(m_area.left() + 8, y + 8), QPointF(m_area.left() + 32, y + 8));
        const double w = QFontMetricsF(small).horizontalAdvance(l.name) + 6;
        QColor back = t.bench;
        back.setAlpha(215);
        p.fillRect(QRectF(m_area.left() + 36, y, w, 15), back);
        drawLine(p, QRectF(m_area.left() + 38, y, w + 40, 15), Qt::AlignVCenter, l.name, small,
                 t.ink);
        y += 15;
    }
}

} // namespace mildpath
