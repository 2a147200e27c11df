// SPDX-License-Identifier: GPL-3.0-or-later
// The plotting library's header is written with Qt's short keywords.
#undef QT_NO_KEYWORDS

#include "plot/curvechart.h"

#include "paint/text.h"
#include "quantity/rounding.h"

#include <QVBoxLayout>

#include <qcustomplot.h>

#include <algorithm>

namespace mildpath {
namespace {

QVector<double> vectorOf(const std::vector<double> &v)
{
    return { v.begin(), v.end() };
}

/// Numbers on the axes with the thin space that groups thousands everywhere else.
class GroupedTicker : public QCPAxisTicker
{
protected:
    QString getTickLabel(double tick, const QLocale &, QChar, int) override
    {
        const bool whole = std::abs(tick - std::round(tick)) < 1e-9;
        return qs(formatNumber(tick, whole ? 0 : 1));
    }
};

double valueAt(const Curve &curve, double x)
{
    for (size_t i = 1; i < curve.x.size(); ++i)
        if (x <= curve.x[i]) {
            const double t = (x - curve.x[i - 1]) / (curve.x[i] - curve.x[i - 1]);
            return curve.y[i - 1] + t * (curve.y[i] - curve.y[i - 1]);
        }
    return curve.y.back();
}

void addText(QCustomPlot *plot, const QString &text, double x, double y, const QColor &colour,
             bool bold, Qt::Alignment alignment)
{
    auto *item = new QCPItemText(plot);
    item->setText(text);
    item->position->setCoords(x, y);
    item->setPositionAlignment(alignment);
    item->setColor(colour);
    item->setFont(textFont(bold ? TextSize::Normal : TextSize::Small, bold));
    item->setPadding(QMargins(3, 2, 3, 2));
}

} // namespace

CurveChart::CurveChart(QWidget *parent)
    : QWidget(parent)
    , m_plot(new QCustomPlot(this))
{
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_plot);
    m_plot->setMinimumSize(300, 200);
    setFocusPolicy(Qt::NoFocus);
    for (QCPAxis *axis : { m_plot->xAxis, m_plot->yAxis })
        axis->setTicker(QSharedPointer<GroupedTicker>::create());
    m_plot->axisRect()->setMinimumMargins(QMargins(34, 8, 14, 30));
}

void CurveChart::setAxes(const QString &xName, const QString &yName)
{
    m_plot->xAxis->setLabel(xName);
    m_plot->yAxis->setLabel(yName);
}

void CurveChart::applyColours()
{
    const Theme &t = Theme::current();
    m_plot->setBackground(t.bench);
    for (QCPAxis *axis : { m_plot->xAxis, m_plot->yAxis }) {
        axis->setBasePen(QPen(t.line));
        axis->setTickPen(QPen(t.line));
        axis->setSubTickPen(Qt::NoPen);
        axis->setTickLabelColor(t.muted);
        axis->setLabelColor(t.muted);
        axis->setTickLabelFont(textFont(TextSize::Normal));
        axis->setLabelFont(textFont(TextSize::Small));
        axis->grid()->setPen(QPen(t.line, 1));
        axis->grid()->setZeroLinePen(QPen(t.line, 1));
        axis->grid()->setSubGridVisible(false);
    }
}

void CurveChart::setContent(const std::vector<Curve> &curves, const std::vector<ChartMark> &marks,
                            double mostY, double leastY)
{
    const Theme &t = Theme::current();
    applyColours();
    m_plot->clearGraphs();
    m_plot->clearItems();
    m_curveCount = static_cast<int>(curves.size());
    double left = 1e300, right = -1e300;
    for (const Curve &c : curves)
        for (const double x : c.x) {
            left = std::min(left, x);
            right = std::max(right, x);
        }
    if (left > right)
        return;
    m_plot->xAxis->setRange(left, right + 0.004 * (right - left));
    m_plot->yAxis->setRange(leastY, mostY);
    for (const Curve &c : curves) {
        if (!c.low.empty()) {
            QColor fill = c.colour;
            fill.setAlphaF(t.dark ? 0.22F : 0.18F);
            QCPGraph *low = m_plot->addGraph();
            low->setPen(Qt::NoPen);
            low->setData(vectorOf(c.x), vectorOf(c.low), true);
            QCPGraph *high = m_plot->addGraph();
            high->setPen(Qt::NoPen);
            high->setBrush(fill);
            high->setData(vectorOf(c.x), vectorOf(c.high), true);
            high->setChannelFillGraph(low);
        }
        QCPGraph *graph = m_plot->addGraph();
        graph->setPen(
            QPen(c.colour, c.dashed ? 1.2 : 2.4, c.dashed ? Qt::DashLine : Qt::SolidLine));
        graph->setData(vectorOf(c.x), vectorOf(c.y), true);
        graph->setAntialiased(true);
        const double x = left + c.labelAt * (right - left);
        addText(m_plot, c.name, x, valueAt(c, x), c.colour, !c.dashed,
                c.dashed ? Qt::AlignTop | Qt::AlignLeft : Qt::AlignBottom | Qt::AlignRight);
    }
    for (const ChartMark &mark : marks) {
        auto *line = new QCPItemLine(m_plot);
        line->setPen(QPen(t.muted, 1, Qt::DotLine));
        line->start->setCoords(mark.x, leastY);
        line->end->setCoords(mark.x, mostY);
        addText(m_plot, mark.text, mark.x, leastY, t.muted, false,
                // Toward the middle, so that the word stays on the chart.
                Qt::AlignBottom
                    | (mark.x > left + 0.7 * (right - left) ? Qt::AlignRight : Qt::AlignLeft));
    }
    // Hidden, it has no paint buffer yet; showing or resizing it replots anyway.
    if (isVisible())
        m_plot->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace mildpath
