// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPolygonF>
#include <QRectF>

#include <optional>
#include <vector>

namespace mildpath {

/// Where words may stand in a picture: inside its area, apart from each other, off the curves.
class LabelSpace
{
public:
    explicit LabelSpace(const QRectF &area)
        : m_area(area)
    {
    }
    /// Nothing may be written here.
    void block(const QRectF &area) { m_blocked.push_back(area); }
    /// Words keep off this line where they can.
    void avoid(const QPolygonF &line) { m_lines.push_back(line); }
    /// The first of the places that is free, or the one in the way of least; it is taken from then
    /// on. Words outside the area are pushed in first.
    QRectF findPlace(const std::vector<QRectF> &places);
    /// As findPlace(), but absent where words would stand over words or in what is blocked, or
    /// outside: nothing is taken then.
    std::optional<QRectF> takeFree(const std::vector<QRectF> &places);
    const std::vector<QRectF> &words() const { return m_words; }
    const std::vector<QRectF> &blocked() const { return m_blocked; }
    const QRectF &area() const { return m_area; }

private:
    double cost(const QRectF &place) const;
    bool isFree(const QRectF &place) const;

    QRectF m_area;
    std::vector<QRectF> m_blocked, m_words;
    std::vector<QPolygonF> m_lines;
};

} // namespace mildpath
