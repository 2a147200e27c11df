// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routelabels.h"

#include "plot/labels.h"

#include <QFontMetricsF>

#include <algorithm>
#include <array>
#include <numeric>

namespace mildpath {
namespace {

struct Side
{
    double dx, dy; ///< -1, 0, 1: which way from the point
    Qt::Alignment align;
};
constexpr Side right { 1, 0, Qt::AlignLeft }, left { -1, 0, Qt::AlignRight },
    above { 0, -1, Qt::AlignHCenter }, below { 0, 1, Qt::AlignHCenter },
    aboveRight { 1, -1, Qt::AlignLeft }, belowRight { 1, 1, Qt::AlignLeft },
    aboveLeft { -1, -1, Qt::AlignRight }, belowLeft { -1, 1, Qt::AlignRight };

/// As the layout would have it first.
std::vector<Side> sidesOf(RoutePoint::Label wanted)
{
    switch (wanted) {
    case RoutePoint::Left:
        return { left, aboveLeft, belowLeft, above, below, right, aboveRight, belowRight };
    case RoutePoint::Above:
        return { above, below, aboveRight, aboveLeft, right, left, belowRight, belowLeft };
    case RoutePoint::Below:
        return { below, above, belowRight, belowLeft, right, left, aboveRight, aboveLeft };
    case RoutePoint::Right:
        break;
    }
    return { right, aboveRight, belowRight, above, below, left, aboveLeft, belowLeft };
}

class Placer
{
public:
    Placer(const RouteLayout &layout, const std::vector<QRectF> &taken)
        : m_layout(layout)
        , m_space(layout.area.adjusted(2, 2, -2, 2))
    {
        for (const RoutePoint &p : layout.points)
            m_space.block(circleOf(p));
        for (const QRectF &area : taken)
            m_space.block(area);
        for (const RouteLine &line : layout.lines)
            m_space.avoid(line.path);
        m_space.avoid(layout.gaugeLine);
        for (const QPolygonF &drop : layout.drops)
            m_space.avoid(drop);
    }

    RouteLabel place(const RoutePoint &point, const RouteWords &words)
    {
        for (const QString &name : { words.name, words.brief, QString() }) {
            if (name.isEmpty() && words.figure.isEmpty())
                return {};
            // Name over figure; where points stand close above each other, in one line.
            for (const bool inLine : { false, true })
                if (auto found = tried(point, words, name, inLine))
                    return *found;
        }
        return {};
    }

private:
    static QRectF circleOf(const RoutePoint &p)
    {
        const double r = radiusOf(p);
        return { p.at - QPointF(r, r), QSizeF(2 * r, 2 * r) };
    }

    std::optional<RouteLabel> tried(const RoutePoint &point, const RouteWords &words,
                                    const QString &name, bool inLine)
    {
        const QFontMetricsF nameMetrics(words.nameFont), figureMetrics(words.figureFont);
        const double nameHeight = name.isEmpty() ? 0 : std::ceil(nameMetrics.height());
        const double figureHeight
            = words.figure.isEmpty() ? 0 : std::ceil(figureMetrics.height()) - 1;
        // A breath on both sides, as drawLine() wants one.
        constexpr double breath = 4;
        const double nameWidth = name.isEmpty() ? 0 : nameMetrics.horizontalAdvance(name) + breath;
        const double figureWidth
            = words.figure.isEmpty() ? 0 : figureMetrics.horizontalAdvance(words.figure) + breath;
        const double width
            = std::ceil(inLine ? nameWidth + figureWidth : std::max(nameWidth, figureWidth));
        const double height
            = inLine ? std::max(nameHeight, figureHeight) : nameHeight + figureHeight;
        const double gap = radiusOf(point) + point.away + 3;
        std::vector<QRectF> places;
        const auto sides = sidesOf(point.label);
        for (const Side &s : sides) {
            const double reach = s.dx != 0 && s.dy != 0 ? 0.72 * gap : gap;
            const QPointF corner(s.dx > 0       ? reach
                                     : s.dx < 0 ? -reach - width
                                                : -width / 2,
                                 s.dy > 0       ? reach
                                     : s.dy < 0 ? -reach - height
                                                : -height / 2);
            places.emplace_back(point.at + corner, QSizeF(width, height));
        }
        const auto area = m_space.takeFree(places);
        if (!area)
            return std::nullopt;
        RouteLabel out { name, words.figure, QRectF(area->topLeft(), QSizeF(width, nameHeight)),
                         QRectF(area->topLeft() + QPointF(0, nameHeight),
                                QSizeF(width, figureHeight)) };
        if (inLine) {
            out.nameArea = QRectF(area->topLeft(), QSizeF(nameWidth, height));
            out.figureArea = QRectF(out.nameArea.topRight(), QSizeF(figureWidth, height));
        }
        const double middle = area->center().x() - point.at.x();
        out.align = std::abs(middle) < width / 4 ? Qt::AlignHCenter
            : middle > 0                         ? Qt::AlignLeft
                                                 : Qt::AlignRight;
        return out;
    }

    const RouteLayout &m_layout;
    LabelSpace m_space;
};

} // namespace

std::vector<RouteLabel> placeLabels(const RouteLayout &layout, const std::vector<RouteWords> &words,
                                    const std::vector<QRectF> &taken)
{
    std::vector<RouteLabel> out(layout.points.size());
    std::vector<size_t> order(layout.points.size());
    std::iota(order.begin(), order.end(), size_t(0));
    // What stands alone first: one of many alike is known by its neighbours.
    std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) {
        return layout.points[a].small < layout.points[b].small;
    });
    Placer placer(layout, taken);
    for (const size_t i : order)
        out[i] = placer.place(layout.points[i], words[i]);
    return out;
}

} // namespace mildpath
