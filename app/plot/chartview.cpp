// SPDX-License-Identifier: GPL-3.0-or-later
// The plotting library's header is written with Qt's short keywords.
#undef QT_NO_KEYWORDS

#include "plot/chartview.h"

#include "paint/card.h"
#include "plot/charttable.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>

#include <qcustomplot.h>

#include <algorithm>
#include <cmath>

namespace mildpath {

/// The library's widget: lies over the whole view, leaves the pointer to it, and lets it write.
class ChartCanvas : public QCustomPlot
{
public:
    explicit ChartCanvas(ChartView *view)
        : QCustomPlot(view)
        , m_view(view)
    {
        setAttribute(Qt::WA_TransparentForMouseEvents);
        setFocusPolicy(Qt::NoFocus);
    }

protected:
    void paintEvent(QPaintEvent *event) override
    {
        QCustomPlot::paintEvent(event);
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        m_view->paintWords(painter);
    }

private:
    ChartView *m_view;
};

namespace {

/// The ticks of an axis of ours on the library's, which is straight where ours is bent.
class AxisTicker : public QCPAxisTicker
{
public:
    explicit AxisTicker(const Axis &axis)
        : m_axis(axis)
    {
    }

protected:
    QVector<double> createTickVector(double, const QCPRange &) override
    {
        QVector<double> out;
        for (const double v : m_axis.ticks())
            out << m_axis.bent(v);
        return out;
    }
    QString getTickLabel(double tick, const QLocale &, QChar, int) override
    {
        return m_axis.tick(m_axis.straight(tick));
    }

private:
    Axis m_axis;
};

QVector<double> bent(const std::vector<double> &values, const Axis &axis)
{
    QVector<double> out;
    out.reserve(static_cast<qsizetype>(values.size()));
    for (const double v : values)
        out << axis.bent(v);
    return out;
}

QCPScatterStyle lookOf(const ChartDot &dot, const QColor &ground)
{
    switch (dot.shape) {
    case DotShape::Square:
        return { QCPScatterStyle::ssSquare, QPen(dot.colour, 1.6), Qt::NoBrush, 7 };
    case DotShape::Cross:
        return { QCPScatterStyle::ssPlus, QPen(dot.colour, 1.6), Qt::NoBrush, 12 };
    case DotShape::Ring:
        return { QCPScatterStyle::ssCircle, QPen(dot.colour, 2), QBrush(ground), 10 };
    case DotShape::Round:
        break;
    }
    return { QCPScatterStyle::ssCircle, QPen(ground, 1.5), QBrush(dot.colour), 9 };
}

void setLook(QCPAxis *axis, const Axis &of)
{
    const Theme &t = Theme::current();
    axis->setRange(of.bent(std::min(of.from, of.to)), of.bent(std::max(of.from, of.to)));
    axis->setRangeReversed(of.from > of.to);
    axis->setTicker(QSharedPointer<AxisTicker>::create(of));
    axis->setTicks(!of.ticks().empty());
    axis->setTickLabels(!of.ticks().empty());
    axis->setBasePen(QPen(t.line));
    axis->setTickPen(QPen(t.line));
    axis->setTickLength(0, 3);
    axis->setSubTicks(false);
    axis->setTickLabelColor(t.muted);
    axis->setTickLabelFont(textFont(TextSize::Small));
    axis->grid()->setPen(QPen(t.line, 1));
    axis->grid()->setZeroLinePen(QPen(t.line, 1));
    axis->grid()->setSubGridVisible(false);
}

} // namespace

ChartView::ChartView(QWidget *parent)
    : QWidget(parent)
    , m_plot(new ChartCanvas(this))
{
    setMinimumSize(240, 120);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    m_plot->axisRect()->setAutoMargins(QCP::msNone);
    m_plot->axisRect()->setupFullAxesBox(false);
    for (QCPAxis *axis : { m_plot->xAxis2, m_plot->yAxis2 })
        axis->setVisible(false);
}

QRectF ChartView::roomFor() const
{
    const QFont small = textFont(TextSize::Small);
    double left = 14;
    for (const double v : m_chart.y.ticks())
        left = std::max(left, widthOf(m_chart.y.tick(v), small) + 6);
    const bool head = std::any_of(m_chart.marks.begin(), m_chart.marks.end(),
                                  [](const ChartMark &m) { return m.top; });
    // Beside a short title of the axis there is room for words over the chart.
    const bool apart = head && widthOf(m_chart.y.title(), small) > left;
    const double top
        = topGap + m_chart.headRoom + (apart ? 16 : 0) + (m_chart.title.isEmpty() ? 0 : 22);
    return QRectF(rect()).adjusted(std::ceil(left), top, -m_chart.rightRoom, -36);
}

QColor ChartView::ground() const
{
    for (const QWidget *w = parentWidget(); w; w = w->parentWidget())
        if (dynamic_cast<const CardWidget *>(w))
            return Theme::current().panel;
    return m_chart.title.isEmpty() ? Theme::current().bench : Theme::current().panel;
}

QPointF ChartView::at(double x, double y) const
{
    const QRectF r = area();
    return { m_chart.x.between(r.left(), r.right()).at(x),
             m_chart.y.between(r.bottom(), r.top()).at(y) };
}

void ChartView::setChart(Chart chart)
{
    m_chart = std::move(chart);
    draw();
}

void ChartView::draw()
{
    m_plot->setBackground(ground());
    m_plot->clearGraphs();
    m_plot->clearItems();
    setLook(m_plot->xAxis, m_chart.x);
    setLook(m_plot->yAxis, m_chart.y);
    for (const ChartZone &z : m_chart.zones)
        addZone(z);
    for (const ChartLine &l : m_chart.lines)
        addLine(l);
    for (const ChartMark &m : m_chart.marks) {
        auto *line = new QCPItemLine(m_plot);
        line->setPen(QPen(m.colour, 1, m.pen));
        const bool upright = m.along == Qt::Vertical;
        const double v = upright ? m_chart.x.bent(m.value) : m_chart.y.bent(m.value);
        for (auto *end : { line->start, line->end }) {
            upright ? end->setTypeY(QCPItemPosition::ptAxisRectRatio)
                    : end->setTypeX(QCPItemPosition::ptAxisRectRatio);
            const double edge = end == line->start ? 0 : 1;
            end->setCoords(upright ? v : edge, upright ? edge : v);
        }
    }
    addDots();
    layOut();
}

void ChartView::addZone(const ChartZone &zone)
{
    auto *item = new QCPItemRect(m_plot);
    item->setPen(Qt::NoPen);
    item->setBrush(zone.fill);
    item->setLayer(QStringLiteral("background"));
    const auto &x = m_chart.x, &y = m_chart.y;
    item->topLeft->setCoords(x.bent(zone.fromX.value_or(x.from)), y.bent(zone.toY.value_or(y.to)));
    item->bottomRight->setCoords(x.bent(zone.toX.value_or(x.to)),
                                 y.bent(zone.fromY.value_or(y.from)));
}

void ChartView::addLine(const ChartLine &line)
{
    const QVector<double> x = bent(line.x, m_chart.x);
    if (!line.low.empty()) {
        QColor fill = line.colour;
        fill.setAlphaF(Theme::current().dark ? 0.22F : 0.18F);
        QCPGraph *low = m_plot->addGraph();
        low->setPen(Qt::NoPen);
        low->setData(x, bent(line.low, m_chart.y), true);
        QCPGraph *high = m_plot->addGraph();
        high->setPen(Qt::NoPen);
        high->setBrush(fill);
        high->setData(x, bent(line.high, m_chart.y), true);
        high->setChannelFillGraph(low);
    }
    QCPGraph *graph = m_plot->addGraph();
    graph->setPen(line.width > 0 ? QPen(line.colour, line.width, line.pen) : QPen(Qt::NoPen));
    graph->setData(x, bent(line.y, m_chart.y), true);
    // Thousands of steep lines smoothed would cost the frame.
    graph->setAntialiased(line.x.size() < 2000);
}

void ChartView::addDots()
{
    for (const ChartDot &d : m_chart.dots) {
        QCPGraph *graph = m_plot->addGraph();
        graph->setLineStyle(QCPGraph::lsNone);
        graph->setScatterStyle(lookOf(d, ground()));
        graph->addData(m_chart.x.bent(d.x), m_chart.y.bent(d.y));
    }
}

QPolygonF ChartView::pixels(const ChartLine &line) const
{
    QPolygonF out;
    const QRectF r = area();
    const Axis x = m_chart.x.between(r.left(), r.right()),
               y = m_chart.y.between(r.bottom(), r.top());
    for (size_t i = 0; i < line.x.size(); ++i)
        if (std::isfinite(line.y[i]))
            out << QPointF(x.at(line.x[i]), y.at(line.y[i]));
    return out;
}

QStringList ChartView::readAt(double x) const
{
    QStringList out { m_chart.x.inWords(x) };
    for (const ChartLine &l : m_chart.lines) {
        const auto y = heightAt(l, x);
        if (!y || !std::isfinite(*y))
            continue;
        QString line = l.name.isEmpty() ? m_chart.y.title() : l.name;
        if (l.width > 0)
            line += QStringLiteral("  ") + m_chart.y.inWords(*y);
        if (!l.low.empty())
            line += tr(", %1").arg(
                inWords(QuantityRange { { *heightAt(l, l.low, x), m_chart.y.as },
                                        { *heightAt(l, l.high, x), m_chart.y.as } }));
        out << line;
    }
    return out;
}

void ChartView::pointAt(std::optional<double> x)
{
    if (x)
        x = std::clamp(*x, std::min(m_chart.x.from, m_chart.x.to),
                       std::max(m_chart.x.from, m_chart.x.to));
    m_pointed = x;
    m_plot->update();
}

void ChartView::paintNow()
{
    m_plot->replot(QCustomPlot::rpImmediateRefresh);
}

void ChartView::showTable()
{
    ChartTableDialog(accessibleName(), tableOf(m_chart), this).exec();
}

void ChartView::changeEvent(QEvent *event)
{
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange)
        draw();
    QWidget::changeEvent(event);
}

void ChartView::contextMenuEvent(QContextMenuEvent *event)
{
    QMenu menu(this);
    menu.addAction(tr("Show as a table…"), this, &ChartView::showTable);
    menu.exec(event->globalPos());
}

void ChartView::keyPressEvent(QKeyEvent *event)
{
    const QRectF r = area();
    const Axis x = m_chart.x.between(r.left(), r.right());
    const double step = event->modifiers() & Qt::ShiftModifier ? 20 : 4;
    const double here = m_pointed ? x.at(*m_pointed) : r.center().x();
    switch (event->key()) {
    case Qt::Key_Left:
        return pointAt(x.valueAt(here - step));
    case Qt::Key_Right:
        return pointAt(x.valueAt(here + step));
    case Qt::Key_Return:
    case Qt::Key_Enter:
        return showTable();
    case Qt::Key_Escape:
        if (m_pointed)
            return pointAt(std::nullopt);
        break;
    default:
        break;
    }
    QWidget::keyPressEvent(event);
}

void ChartView::mouseMoveEvent(QMouseEvent *event)
{
    const QRectF r = area();
    if (r.contains(event->position()))
        pointAt(m_chart.x.between(r.left(), r.right()).valueAt(event->position().x()));
    else
        pointAt(std::nullopt);
}

void ChartView::leaveEvent(QEvent *)
{
    pointAt(std::nullopt);
}

void ChartView::focusInEvent(QFocusEvent *event)
{
    QWidget::focusInEvent(event);
    m_plot->update();
}

void ChartView::focusOutEvent(QFocusEvent *event)
{
    QWidget::focusOutEvent(event);
    pointAt(std::nullopt);
}

void ChartView::resizeEvent(QResizeEvent *)
{
    layOut();
}

void ChartView::layOut()
{
    m_area = roomFor();
    const QRectF &r = m_area;
    m_plot->setGeometry(rect());
    m_plot->axisRect()->setMargins(QMargins(static_cast<int>(r.left()), static_cast<int>(r.top()),
                                            static_cast<int>(width() - r.right()),
                                            static_cast<int>(height() - r.bottom())));
    // Hidden, it has no paint buffer yet; showing it replots anyway.
    if (isVisible())
        m_plot->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace mildpath
