// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/finish/finishviews.h"

#include "paint/axes.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double traceLeft = 48, traceRight = 14, traceTopGap = 30, traceBottomGap = 36;

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

Axis heights(const FinishScene &scene, const QRectF &area)
{
    return { scene.low_um, scene.high_um, area.bottom(), area.top() };
}

/// A curve of heights over the material ratio, in some four hundred points.
QPainterPath curvePath(const MaterialRatioCurve &curve, const Axis &x, const Axis &y)
{
    constexpr int points = 400;
    QPainterPath path;
    for (int i = 0; i <= points; ++i) {
        const double ratio = static_cast<double>(i) / points;
        const QPointF at(x.at(100 * ratio), y.at(curve.at(ratio)));
        if (i == 0)
            path.moveTo(at);
        else
            path.lineTo(at);
    }
    return path;
}

/// How Rk, Rpk, Rvk, Mr1 and Mr2 are drawn from the curve.
void drawConstruction(QPainter &p, const CoreRoughness &c, const Axis &x, const Axis &y,
                      const QRectF &r)
{
    const Theme &t = Theme::current();
    // Triangles of equal area stand for peaks and valleys.
    QColor fill = t.oil[t.dark ? 3 : 1];
    p.setPen(Qt::NoPen);
    p.setBrush(fill);
    p.drawPolygon(
        QPolygonF { { QPointF(x.at(100), y.at(c.c2_um)), QPointF(x.at(100 * c.mr2), y.at(c.c2_um)),
                      QPointF(x.at(100), y.at(c.c2_um - c.rvk_um)) } });
    fill = t.line;
    p.setBrush(fill);
    p.drawPolygon(
        QPolygonF { { QPointF(x.at(0), y.at(c.c1_um)), QPointF(x.at(100 * c.mr1), y.at(c.c1_um)),
                      QPointF(x.at(0), y.at(c.c1_um + c.rpk_um)) } });
    p.setPen(QPen(t.cold, 1, Qt::DashLine));
    for (const double h : { c.c1_um, c.c2_um })
        p.drawLine(QPointF(r.left(), y.at(h)), QPointF(r.right(), y.at(h)));
    for (const double mr : { c.mr1, c.mr2 })
        p.drawLine(QPointF(x.at(100 * mr), r.top()), QPointF(x.at(100 * mr), r.bottom()));
    p.setPen(QPen(t.selection, 1.2));
    p.drawLine(QPointF(x.at(0), y.at(c.c1_um)), QPointF(x.at(100), y.at(c.c2_um)));
    const auto line = [&](double ratio) { return c.c1_um - c.rk_um * ratio; };
    p.setPen(QPen(t.selection, 4));
    p.drawLine(QPointF(x.at(100 * c.windowFrom), y.at(line(c.windowFrom))),
               QPointF(x.at(100 * c.windowTo), y.at(line(c.windowTo))));
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
    drawAlong(p, Axis { 0, length_mm, r.left(), r.right() }, r, tr("mm along the bore"));
    const Axis y = heights(m_scene, r);
    drawUpright(p, y, r, {}, 4);
    p.setClipRect(r.adjusted(0, -1, 1, 1));
    const double cut = m_scene.stroked ? m_scene.stroked->cut.height_um : 1e9;
    const double foot = std::min(cut, trace.core.c2_um);
    for (size_t c = 0; c < m_columns.size(); ++c) {
        const auto &[low, high] = m_columns[c];
        const double x = r.left() + static_cast<double>(c) + 0.5;
        if (low < foot) {
            p.setPen(QPen(t.oil[t.dark ? 3 : 1], 1));
            p.drawLine(QPointF(x, y.at(low)), QPointF(x, y.at(foot)));
        }
        if (high > cut) {
            p.setPen(QPen(t.line, 1));
            p.drawLine(QPointF(x, y.at(std::max(low, cut))), QPointF(x, y.at(high)));
        }
        if (low < cut) {
            p.setPen(QPen(t.ink, 1));
            p.drawLine(QPointF(x, y.at(low)), QPointF(x, y.at(std::min(high, cut))));
        } else {
            p.setPen(QPen(t.ink, 1));
            p.drawPoint(QPointF(x, y.at(cut)));
        }
    }
    p.setRenderHint(QPainter::Antialiasing);
    for (const double c : { trace.core.c1_um, trace.core.c2_um }) {
        p.setPen(QPen(t.cold, 1, Qt::DashLine));
        p.drawLine(QPointF(r.left(), y.at(c)), QPointF(r.right(), y.at(c)));
    }
    if (m_scene.stroked) {
        p.setPen(QPen(t.hold, 1.5));
        p.drawLine(QPointF(r.left(), y.at(cut)), QPointF(r.right(), y.at(cut)));
    }
}

RatioView::RatioView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("ratioView"));
    setAccessibleName(tr("Material-ratio curve"));
    setMinimumHeight(190);
}

void RatioView::show(const FinishScene &scene)
{
    m_scene = scene;
    update();
}

void RatioView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawTitle(p, this, tr("Material ratio: Rpk, Rk, Rvk"));
    if (!m_scene.trace)
        return;
    const QRectF r = plotArea(this);
    const CoreRoughness &c = m_scene.trace->core;
    const Axis x { 0, 100, r.left(), r.right() }, y = heights(m_scene, r);
    drawAlong(p, x, r, tr("% of the wall at or above the height"), 5);
    drawUpright(p, y, r, {}, 4);
    p.setClipRect(r.adjusted(0, 0, 1, 1));
    drawConstruction(p, c, x, y, r);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.faint, 1));
    for (const auto &s : m_scene.siblings)
        p.drawPath(curvePath(s->curve, x, y));
    if (m_scene.other) {
        p.setPen(QPen(t.muted, 1.4, Qt::DotLine));
        p.drawPath(curvePath(m_scene.other->curve, x, y));
    }
    p.setPen(QPen(t.ink, 2));
    p.drawPath(curvePath(m_scene.trace->curve, x, y));
    if (m_scene.stroked) {
        const double cut = m_scene.stroked->cut.height_um;
        p.setPen(QPen(t.hold, 1.5));
        p.drawLine(QPointF(r.left(), y.at(cut)), QPointF(r.right(), y.at(cut)));
    }
    const auto label = [&](double top, double bottom, const QString &name) {
        if (std::abs(y.at(bottom) - y.at(top)) >= 11)
            drawLine(p, QRectF(r.right() - 44, (y.at(top) + y.at(bottom)) / 2 - 8, 40, 16),
                     Qt::AlignRight | Qt::AlignVCenter, name, textFont(TextSize::Small, true),
                     t.ink);
    };
    label(c.c1_um, c.c2_um, QStringLiteral("Rk"));
    label(c.c1_um + c.rpk_um, c.c1_um, QStringLiteral("Rpk"));
    drawLine(p, QRectF(x.at(100 * c.mr2) - 44, y.at(c.c2_um - c.rvk_um / 2) - 8, 40, 16),
             Qt::AlignRight | Qt::AlignVCenter, QStringLiteral("Rvk"),
             textFont(TextSize::Small, true), t.ink);
    if (m_scene.other)
        drawLine(p, QRectF(r.left() + 6, r.bottom() - 18, r.width() * 0.84, 16),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 tr("dotted: %1; thin: other traces").arg(m_scene.otherName),
                 textFont(TextSize::Small), t.muted);
}

ProbabilityView::ProbabilityView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("probabilityView"));
    setAccessibleName(tr("Probability plot"));
    setMinimumHeight(190);
}

void ProbabilityView::show(const FinishScene &scene)
{
    m_scene = scene;
    update();
}

void ProbabilityView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawTitle(p, this,
              m_scene.trace && !m_scene.fit.twoProcess ? tr("Probability plot: one process only")
                                                       : tr("Probability plot: Rpq, Rvq, Rmq"));
    if (!m_scene.trace)
        return;
    const QRectF r = plotArea(this);
    const Axis x { -3.1, 3.1, r.left(), r.right() }, y = heights(m_scene, r);
    for (const double percent : { 0.1, 1.0, 10.0, 50.0, 90.0, 99.0, 99.9 }) {
        const double at = x.at(normalQuantile(percent / 100));
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(at, r.top()), QPointF(at, r.bottom() + 3));
        drawLine(p, QRectF(at - 30, r.bottom() + 4, 60, 14), Qt::AlignHCenter,
                 tickText(percent, percent), textFont(TextSize::Small), t.muted);
    }
    drawLine(p, QRectF(r.left(), r.bottom() + 18, r.width(), 14), Qt::AlignRight,
             tr("% of the wall, normal scale"), textFont(TextSize::Small), t.muted);
    drawUpright(p, y, r, {}, 4);
    p.setClipRect(r.adjusted(0, 0, 1, 1));
    const PlateauFit &f = m_scene.fit;
    QPainterPath path;
    for (size_t i = 0; i < f.s.size(); ++i) {
        const QPointF at(x.at(f.s[i]), y.at(f.z_um[i]));
        if (i == 0)
            path.moveTo(at);
        else
            path.lineTo(at);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 2));
    p.drawPath(path);
    const auto line = [&](const PlateauFit::Line &l, double from, double to, const QColor &colour) {
        p.setPen(QPen(colour, 1.5));
        p.drawLine(QPointF(x.at(from), y.at(l.at(from))), QPointF(x.at(to), y.at(l.at(to))));
    };
    if (!f.twoProcess) {
        line(f.plateau, -3.1, 3.1, t.selection);
        return;
    }
    const double bend = normalQuantile(*f.rmq_percent / 100);
    line(f.plateau, -3.1, std::min(3.1, bend + 0.8), t.selection);
    line(f.valley, std::max(-3.1, bend - 0.4), 3.1, t.warm);
    p.setPen(QPen(t.muted, 1, Qt::DashLine));
    p.drawLine(QPointF(x.at(bend), y.at(f.plateau.at(bend))), QPointF(x.at(bend), r.bottom()));
    const auto word = [&](double s, const PlateauFit::Line &l, double up, const QString &name,
                          const QColor &colour) {
        drawLine(p, QRectF(x.at(s) - 90, y.at(l.at(s)) + up, 86, 16),
                 Qt::AlignRight | Qt::AlignVCenter, name, textFont(TextSize::Small, true), colour);
    };
    drawLine(p, QRectF(x.at(-1), y.at(f.plateau.at(-1)) - 22, 120, 16), Qt::AlignLeft,
             QStringLiteral("Rpq %1").arg(qs(formatNumber(f.rpq_um, 3))),
             textFont(TextSize::Small, true), t.selection);
    word(std::min(2.4, bend + 1.1), f.valley, 6,
         QStringLiteral("Rvq %1").arg(qs(formatNumber(*f.rvq_um, 2))), t.warm);
    drawLine(p, QRectF(x.at(bend) - 84, r.bottom() - 18, 80, 16), Qt::AlignRight,
             QStringLiteral("Rmq %1 %").arg(qs(formatNumber(*f.rmq_percent, 1))),
             textFont(TextSize::Small, true), t.muted);
}

} // namespace mildpath
