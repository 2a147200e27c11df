// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/labels.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// How much of the segment lies inside, in pixels: Liang and Barsky's clipping.
double insideOf(const QRectF &r, const QPointF &a, const QPointF &b)
{
    // Nearly all of a long line lies aside.
    if (std::max(a.x(), b.x()) < r.left() || std::min(a.x(), b.x()) > r.right())
        return 0;
    double from = 0, to = 1;
    const QPointF d = b - a;
    const auto cut = [&](double p, double q) {
        if (p == 0)
            return q >= 0;
        const double t = q / p;
        (p < 0 ? from : to) = p < 0 ? std::max(from, t) : std::min(to, t);
        return from <= to;
    };
    const bool meets = cut(-d.x(), a.x() - r.left()) && cut(d.x(), r.right() - a.x())
        && cut(-d.y(), a.y() - r.top()) && cut(d.y(), r.bottom() - a.y());
    return meets ? (to - from) * std::hypot(d.x(), d.y()) : 0;
}

QRectF pushedInto(QRectF place, const QRectF &area)
{
    if (place.right() > area.right())
        place.moveRight(area.right());
    if (place.left() < area.left())
        place.moveLeft(area.left());
    if (place.bottom() > area.bottom())
        place.moveBottom(area.bottom());
    if (place.top() < area.top())
        place.moveTop(area.top());
    return place;
}

} // namespace

/// A word over a word is worse than a word over a line; both by how much.
double LabelSpace::cost(const QRectF &place) const
{
    double out = 0;
    for (const auto *those : { &m_blocked, &m_words })
        for (const QRectF &b : *those) {
            const QRectF both = b.intersected(place);
            if (!both.isEmpty())
                out += 200 + both.width() * both.height();
        }
    const QRectF breath = place.adjusted(-2, -2, 2, 2);
    for (const QPolygonF &line : m_lines)
        for (qsizetype i = 1; i < line.size(); ++i)
            if (const double in = insideOf(breath, line[i - 1], line[i]); in > 0)
                out += 40 + in;
    return out;
}

bool LabelSpace::isFree(const QRectF &place) const
{
    const auto meets = [&](const QRectF &other) { return other.intersects(place); };
    return m_area.contains(place) && std::ranges::none_of(m_blocked, meets)
        && std::ranges::none_of(m_words, meets);
}

std::optional<QRectF> LabelSpace::takeFree(const std::vector<QRectF> &places)
{
    std::vector<QRectF> free;
    std::ranges::copy_if(places, std::back_inserter(free),
                         [&](const QRectF &place) { return isFree(place); });
    return free.empty() ? std::nullopt : std::optional(findPlace(free));
}

QRectF LabelSpace::findPlace(const std::vector<QRectF> &places)
{
    QRectF best;
    double least = 1e300;
    for (const QRectF &wanted : places) {
        const QRectF place = pushedInto(wanted, m_area);
        const double here = cost(place);
        if (here < least) {
            least = here;
            best = place;
        }
        if (here == 0)
            break;
    }
    m_words.push_back(best);
    return best;
}

} // namespace mildpath
