// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/finishviews.h"

#include "surface/finish.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double traceLeft = 48, traceRight = 14, traceTopGap = 44, traceBottomGap = 36;

QRectF plotArea(const QWidget *w)
{
    return QRectF(traceLeft, traceTopGap, w->width() - traceLeft - traceRight,
                  w->height() - traceTopGap - traceBottomGap);
}

void drawTitle(QPainter &p, const QWidget *w, const QString &title)
{
    const Theme &t = Theme::current();
    drawCard(p, QRectF(w->rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    drawLine(p, QRectF(14, 6, w->width() - 28, 18), Qt::AlignLeft | Qt::AlignVCenter, title,
             textFont(TextSize::Normal, true), t.ink);
}

Axis heights(const FinishScene &scene)
{
    Axis out { scene.low_um * 1e-6, scene.high_um * 1e-6, 0, 1, Shows::Roughness };
    out.count = 4;
    return out;
}

ChartLine straight(const QColor &colour, double width, Qt::PenStyle pen, QPointF from, QPointF to)
{
    ChartLine out { {}, colour, { from.x(), to.x() }, { from.y() * 1e-6, to.y() * 1e-6 } };
    out.width = width;
    out.pen = pen;
    return out;
}

/// A curve of heights over the material ratio, in some four hundred points.
ChartLine ratioLine(const MaterialRatioCurve &curve, const QColor &colour, double width,
                    Qt::PenStyle pen = Qt::SolidLine)
{
    constexpr int points = 400;
    ChartLine out { {}, colour, {}, {} };
    for (int i = 0; i <= points; ++i) {
        const double ratio = static_cast<double>(i) / points;
        out.x.push_back(ratio);
        out.y.push_back(curve.at(ratio) * 1e-6);
    }
    out.width = width;
    out.pen = pen;
    return out;
}

/// A triangle of the area of peaks or valleys, from its foot's edge to the point where it ends.
ChartLine triangle(const QColor &colour, double edge, double ends, double foot_um, double tip_um)
{
    const double foot = foot_um * 1e-6, tip = tip_um * 1e-6;
    ChartLine out { {}, colour, { edge, ends }, { foot, foot } };
    out.low = { std::min(foot, tip), foot };
    out.high = { std::max(foot, tip), foot };
    if (edge > ends)
        for (auto *v : { &out.x, &out.low, &out.high })
            std::swap(v->front(), v->back());
    out.width = 0;
    return out;
}

/// How Rk, Rpk, Rvk, Mr1 and Mr2 are drawn from the curve.
void addConstruction(Chart &chart, const CoreRoughness &c)
{
    const Theme &t = Theme::current();
    chart.lines.push_back(triangle(t.warm, 1, c.mr2, c.c2_um, c.c2_um - c.rvk_um));
    chart.lines.push_back(triangle(t.ink, 0, c.mr1, c.c1_um, c.c1_um + c.rpk_um));
    for (const double h : { c.c1_um, c.c2_um })
        chart.marks.push_back({ Qt::Horizontal, h * 1e-6, {}, t.cold, Qt::DashLine });
    for (const double mr : { c.mr1, c.mr2 })
        chart.marks.push_back({ Qt::Vertical, mr, {}, t.cold, Qt::DashLine });
    const auto core = [&](double ratio) { return QPointF(ratio, c.c1_um - c.rk_um * ratio); };
    chart.lines.push_back(straight(t.selection, 1.2, Qt::SolidLine, core(0), core(1)));
    chart.lines.push_back(
        straight(t.selection, 4, Qt::SolidLine, core(c.windowFrom), core(c.windowTo)));
}

} // namespace

void fitScale(FinishScene &scene)
{
    scene.low_um = 1e9;
    scene.high_um = -1e9;
    for (const auto *t : { scene.trace.get(), scene.other.get() })
        if (t) {
            // Lonely spikes must not flatten the rest.
            scene.low_um = std::min(scene.low_um, t->curve.at(0.9995));
            scene.high_um = std::max(scene.high_um, t->curve.at(0.0005));
        }
    const double air = 0.06 * (scene.high_um - scene.low_um);
    scene.low_um -= air;
    scene.high_um += air;
}

TraceView::TraceView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("traceView"));
    setAccessibleName(tr("Roughness profile"));
    setMinimumHeight(150);
}

void TraceView::show(const FinishScene &scene)
{
    m_scene = scene;
    if (m_scene.trace.get() != m_thinned)
        thin();
    update();
}

void TraceView::resizeEvent(QResizeEvent *)
{
    thin();
}

QRectF TraceView::area() const
{
    return plotArea(this);
}

/// Lowest and highest height of every pixel: however long the trace is, it is drawn as quickly.
void TraceView::thin()
{
    m_thinned = m_scene.trace.get();
    m_columns.clear();
    if (!m_thinned)
        return;
    const std::vector<double> &r = m_thinned->profile.r_um;
    const auto columns = static_cast<size_t>(std::max(1.0, area().width()));
    for (size_t c = 0; c < columns; ++c) {
        const size_t from = c * r.size() / columns;
        const size_t to = std::max(from + 1, (c + 1) * r.size() / columns);
        const auto [low, high] = std::minmax_element(
            r.begin() + static_cast<std::ptrdiff_t>(from),
            r.begin() + static_cast<std::ptrdiff_t>(std::min(to + 1, r.size())));
        m_columns.emplace_back(*low, *high);
    }
}

void TraceView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    drawTitle(p, this, tr("Trace over the mean line; valleys below the core hold oil"));
    const QRectF r = area();
    if (!m_scene.trace) {
        drawLine(p, r, Qt::AlignCenter, tr("No trace of this bore was read yet."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    const FinishedTrace &trace = *m_scene.trace;
    const double length_mm
        = static_cast<double>(trace.profile.r_um.size() - 1) * trace.spacing_um / 1000;
    Axis x { 0, length_mm * 1e-3, r.left(), r.right(), Shows::Length };
    x.name = tr("%1 along the bore").arg(unitOf(Shows::Length));
    drawAlong(p, x, r);
    const Axis y = heights(m_scene).between(r.bottom(), r.top());
    drawUpright(p, y, r);
    const auto up = [&](double um) { return y.at(um * 1e-6); };
    p.setClipRect(r.adjusted(0, -1, 1, 1));
    const double cut = m_scene.stroked ? m_scene.stroked->cut.height_um : 1e9;
    const double foot = std::min(cut, trace.core.c2_um);
    for (size_t c = 0; c < m_columns.size(); ++c) {
        const auto &[low, high] = m_columns[c];
        const double column = r.left() + static_cast<double>(c) + 0.5;
        if (low < foot) {
            p.setPen(QPen(t.oil[t.dark ? 3 : 1], 1));
            p.drawLine(QPointF(column, up(low)), QPointF(column, up(foot)));
        }
        if (high > cut) {
            p.setPen(QPen(t.line, 1));
            p.drawLine(QPointF(column, up(std::max(low, cut))), QPointF(column, up(high)));
        }
        if (low < cut) {
            p.setPen(QPen(t.ink, 1));
            p.drawLine(QPointF(column, up(low)), QPointF(column, up(std::min(high, cut))));
        } else {
            p.setPen(QPen(t.ink, 1));
            p.drawPoint(QPointF(column, up(cut)));
        }
    }
    p.setRenderHint(QPainter::Antialiasing);
    for (const double c : { trace.core.c1_um, trace.core.c2_um }) {
        p.setPen(QPen(t.cold, 1, Qt::DashLine));
        p.drawLine(QPointF(r.left(), up(c)), QPointF(r.right(), up(c)));
    }
    if (m_scene.stroked) {
        p.setPen(QPen(t.hold, 1.5));
        p.drawLine(QPointF(r.left(), up(cut)), QPointF(r.right(), up(cut)));
    }
}

RatioView::RatioView(QWidget *parent)
    : ChartView(parent)
{
    setObjectName(QStringLiteral("ratioView"));
    setAccessibleName(tr("Material-ratio curve"));
    setMinimumHeight(190);
}

void RatioView::show(const FinishScene &scene)
{
    m_scene = scene;
    const Theme &t = Theme::current();
    Chart chart;
    chart.title = tr("Material ratio: Rpk, Rk, Rvk");
    chart.x = { 0, 1, 0, 1, Shows::Share };
    chart.x.count = 5;
    chart.x.name = tr("% of the wall at or above the height");
    chart.y = heights(scene);
    if (scene.trace) {
        addConstruction(chart, scene.trace->core);
        for (const auto &s : scene.siblings)
            chart.lines.push_back(ratioLine(s->curve, t.faint, 1));
        if (scene.other) {
            chart.lines.push_back(ratioLine(scene.other->curve, t.muted, 1.4, Qt::DotLine));
            chart.lines.back().name = tr("dotted: %1").arg(scene.otherName);
            chart.lines.back().labelAt = 0.3;
        }
        chart.lines.push_back(ratioLine(scene.trace->curve, t.ink, 2));
        if (scene.stroked)
            chart.marks.push_back({ Qt::Horizontal, scene.stroked->cut.height_um * 1e-6,
                                    tr("after the strokes"), t.hold, Qt::SolidLine });
    } else {
        chart.x.count = chart.y.count = 0;
    }
    setChart(std::move(chart));
}

void RatioView::paintOver(QPainter &p, LabelSpace &space)
{
    if (!m_scene.trace)
        return;
    const CoreRoughness &c = m_scene.trace->core;
    const auto label = [&](double ratio, double top_um, double bottom_um, const QString &name) {
        const double top = at(0, top_um * 1e-6).y(), bottom = at(0, bottom_um * 1e-6).y();
        if (bottom - top < 11)
            return;
        const double x = at(ratio, 0).x(), y = (top + bottom) / 2 - 8;
        drawLine(p, space.findPlace({ { x - 36, y, 34, 16 }, { x - 72, y, 34, 16 } }),
                 Qt::AlignCenter, name, textFont(TextSize::Small, true), Theme::current().ink);
    };
    label(1, c.c1_um, c.c2_um, QStringLiteral("Rk"));
    label(1, c.c1_um + c.rpk_um, c.c1_um, QStringLiteral("Rpk"));
    label(c.mr2, c.c2_um, c.c2_um - c.rvk_um, QStringLiteral("Rvk"));
}

ProbabilityView::ProbabilityView(QWidget *parent)
    : ChartView(parent)
{
    setObjectName(QStringLiteral("probabilityView"));
    setAccessibleName(tr("Probability plot"));
    setMinimumHeight(190);
}

void ProbabilityView::show(const FinishScene &scene)
{
    constexpr double edge = 3.1; // standard deviations
    const Theme &t = Theme::current();
    const PlateauFit &f = scene.fit;
    Chart chart;
    chart.title = scene.trace && !f.twoProcess ? tr("Probability plot: one process only")
                                               : tr("Probability plot: Rpq, Rvq, Rmq");
    const auto share = [&](double s) { return chart.x.straight(s); };
    chart.x.scale = Scale::Quantile;
    chart.x.as = Shows::Share;
    chart.x.from = share(-edge);
    chart.x.to = share(edge);
    chart.x.name = tr("% of the wall, normal scale");
    chart.y = heights(scene);
    chart.x.count = 0;
    if (!scene.trace) {
        chart.y.count = 0;
        return setChart(std::move(chart));
    }
    chart.x.own = { 0.001, 0.01, 0.1, 0.5, 0.9, 0.99, 0.999 };
    ChartLine own { {}, t.ink, {}, {} };
    own.width = 2;
    for (size_t i = 0; i < f.s.size(); ++i)
        if (std::abs(f.s[i]) <= edge) {
            own.x.push_back(share(f.s[i]));
            own.y.push_back(f.z_um[i] * 1e-6);
        }
    chart.lines.push_back(std::move(own));
    const auto line = [&](const PlateauFit::Line &l, double from, double to, const QColor &colour,
                          const QString &name, double labelAt) {
        chart.lines.push_back(straight(colour, 1.5, Qt::SolidLine, { share(from), l.at(from) },
                                       { share(to), l.at(to) }));
        chart.lines.back().name = name;
        chart.lines.back().labelAt = labelAt;
    };
    if (!f.twoProcess) {
        line(f.plateau, -edge, edge, t.selection, {}, 0.5);
        return setChart(std::move(chart));
    }
    const double bend = normalQuantile(*f.rmq_percent / 100);
    line(f.plateau, -edge, std::min(edge, bend + 0.8), t.selection,
         QStringLiteral("Rpq %1").arg(inWords(Quantity { f.rpq_um * 1e-6, Shows::Roughness })),
         0.35);
    line(f.valley, std::max(-edge, bend - 0.4), edge, t.warm,
         QStringLiteral("Rvq %1").arg(inWords(Quantity { *f.rvq_um * 1e-6, Shows::Roughness })),
         0.85);
    chart.marks.push_back({ Qt::Vertical, share(bend),
                            QStringLiteral("Rmq %1").arg(inWords(asShare(*f.rmq_percent / 100))),
                            t.muted, Qt::DashLine });
    setChart(std::move(chart));
}

} // namespace mildpath
