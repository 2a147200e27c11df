// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/passagelayout.h"

#include "paint/figure.h"
#include "paint/theme.h"

#include <QFontMetricsF>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

/// Between two branches drawn apart though they meet a gallery at one place.
constexpr double apart = 18;
constexpr double labelHeight = 13;
constexpr double riserAside_mm = 18;
/// A column of what stands beside the galleries.
constexpr double column = 36, leastColumn = 25;
/// Beyond the galleries, for labels of what meets them at their ends.
constexpr double margin = 80;

constexpr std::array downward { StopKind::Main,   StopKind::BalanceShaft, StopKind::Idler,
                                StopKind::Filter, StopKind::Chain,        StopKind::Tensioner };

class Layer
{
public:
    Layer(const PassageNetwork &network, std::string_view part, const QRectF &area,
          const std::map<std::string, std::string> &names,
          const std::map<std::string, StopKind> &kinds)
        : m_network(network)
        , m_area(area)
        , m_names(names)
        , m_kinds(kinds)
    {
        for (int i = 0; i < count(); ++i)
            if (passage(i).part == part)
                m_here.push_back(i);
    }

    PassageLayout run()
    {
        findGalleries();
        placeGalleries();
        placeBranches();
        placeBeside();
        placeLabels();
        return std::move(m_out);
    }

private:
    struct Gallery
    {
        int passage;
        double shift_mm = 0; ///< its end 0 on the common scale
        double y = 0;
        bool placed = false;
    };
    struct Branch
    {
        int passage;
        int gallery; ///< index in m_galleries
        double at_mm;
        int joint; ///< which of its ends meets the gallery; −1: it crosses
        int other = -1; ///< a second gallery it meets
        double otherAt_mm = 0;
        double hereOther_mm = 0; ///< where along the branch
    };

    int count() const { return static_cast<int>(m_network.passages().size()); }
    const Passage &passage(int i) const { return m_network.passages()[static_cast<size_t>(i)]; }
    int galleryOf(int passage) const
    {
        for (size_t g = 0; g < m_galleries.size(); ++g)
            if (m_galleries[g].passage == passage)
                return static_cast<int>(g);
        return -1;
    }

    int met(int i) const
    {
        int out = 0;
        for (const int k : m_here) {
            for (const PassageEnd &e : passage(k).ends)
                out += e.kind == "joint" && !e.straight && e.passage == passage(i).id;
            for (const Crossing &c : passage(k).crossings)
                out += c.passage == passage(i).id;
        }
        return out;
    }
    bool runsOn(int i) const { return passage(i).ends[0].straight || passage(i).ends[1].straight; }

    void findGalleries()
    {
        std::set<int> is;
        for (const int i : m_here)
            if (met(i) >= 2)
                is.insert(i);
        // The rest of a gallery that was cut in two is a gallery as well.
        for (bool grown = true; grown;) {
            grown = false;
            for (const int i : m_here)
                for (const PassageEnd &e : passage(i).ends) {
                    const int o = m_network.indexOf(e.passage);
                    if (e.straight && o >= 0 && is.contains(i) != is.contains(o)) {
                        is.insert(i);
                        is.insert(o);
                        grown = true;
                    }
                }
        }
        for (const int i : is)
            m_galleries.push_back({ i });
        for (const int i : m_here)
            if (!is.contains(i))
                findBranch(i);
    }

    void findBranch(int i)
    {
        const Passage &p = passage(i);
        Branch b { i, -1, 0, -1 };
        const auto meets = [&](const std::string &id, double at, int joint, double here) {
            const int g = galleryOf(m_network.indexOf(id));
            if (g < 0)
                return;
            if (b.gallery < 0) {
                b.gallery = g;
                b.at_mm = at;
                b.joint = joint;
            } else if (g != b.gallery && b.other < 0) {
                b.other = g;
                b.otherAt_mm = at;
                b.hereOther_mm = here;
            }
        };
        for (int e = 0; e < 2; ++e)
            if (p.ends[static_cast<size_t>(e)].kind == "joint")
                meets(p.ends[static_cast<size_t>(e)].passage, p.ends[static_cast<size_t>(e)].at_mm,
                      e, e == 0 ? 0 : p.l_mm);
        for (const Crossing &c : p.crossings)
            meets(c.passage, c.there_mm, -1, c.at_mm);
        if (b.gallery >= 0)
            m_branches.push_back(b);
        else
            m_beside.push_back(i);
    }

    void placeGalleries()
    {
        const double used = m_galleries.empty() ? 0
                                                : m_area.width()
                - static_cast<double>(m_beside.size())
                    * std::clamp(0.32 * m_area.width()
                                     / static_cast<double>(std::max<size_t>(1, m_beside.size())),
                                 leastColumn, column);
        m_along = QRectF(m_area.left(), m_area.top(), used, m_area.height());
        if (m_galleries.empty())
            return;
        m_galleries.front().placed = true;
        for (size_t guard = 0; guard < m_galleries.size(); ++guard) {
            for (const Branch &b : m_branches)
                if (b.other >= 0)
                    // A little aside, so that what meets the other there stands clear of the riser.
                    inLine(m_galleries[static_cast<size_t>(b.gallery)], b.at_mm,
                           m_galleries[static_cast<size_t>(b.other)], b.otherAt_mm + riserAside_mm);
            for (Gallery &g : m_galleries)
                runOn(g);
        }
        double least = 1e9, most = -1e9;
        for (const Gallery &g : m_galleries) {
            least = std::min(least, g.shift_mm);
            most = std::max(most, g.shift_mm + passage(g.passage).l_mm);
        }
        m_scale = (m_along.width() - 2 * margin) / std::max(1.0, most - least);
        m_zero = m_along.left() + margin - least * m_scale;
        placeRows();
        for (const Gallery &g : m_galleries) {
            const double x = m_zero + g.shift_mm * m_scale;
            DrawnPassage d {
                g.passage, QPointF(x, g.y), QPointF(x + passage(g.passage).l_mm * m_scale, g.y),
                true,      false,           qs(passage(g.passage).name)
            };
            m_out.passages.push_back(std::move(d));
        }
    }

    static void inLine(Gallery &a, double atA, Gallery &b, double atB)
    {
        if (a.placed && !b.placed) {
            b.shift_mm = a.shift_mm + atA - atB;
            b.placed = true;
        } else if (b.placed && !a.placed) {
            a.shift_mm = b.shift_mm + atB - atA;
            a.placed = true;
        }
    }

    void runOn(Gallery &g)
    {
        for (int e = 0; e < 2; ++e) {
            const PassageEnd &end = passage(g.passage).ends[static_cast<size_t>(e)];
            const int o = end.straight ? galleryOf(m_network.indexOf(end.passage)) : -1;
            if (o >= 0)
                inLine(g, e == 0 ? 0 : passage(g.passage).l_mm, m_galleries[static_cast<size_t>(o)],
                       end.at_mm);
        }
    }

    /// The first gallery lowest, each next one above; parts of one line share their row.
    void placeRows()
    {
        std::vector<int> row(m_galleries.size(), -1);
        int rows = 0;
        for (size_t g = 0; g < m_galleries.size(); ++g) {
            if (row[g] < 0)
                row[g] = rows++;
            for (size_t guard = 0; guard < m_galleries.size(); ++guard)
                for (size_t o = 0; o < m_galleries.size(); ++o)
                    for (const PassageEnd &e : passage(m_galleries[o].passage).ends) {
                        const int on = e.straight ? galleryOf(m_network.indexOf(e.passage)) : -1;
                        if (on >= 0 && row[o] < 0 && row[static_cast<size_t>(on)] == row[g])
                            row[o] = row[g];
                    }
        }
        bool down = false;
        for (const Branch &b : m_branches)
            down = down || goesDown(b);
        const double below = down ? 0.95 : 0.2;
        const double slots = rows + below + 0.1;
        m_rowHeight = m_along.height() / slots;
        for (size_t g = 0; g < m_galleries.size(); ++g)
            m_galleries[g].y = m_along.bottom() - below * m_rowHeight - m_rowHeight * row[g];
    }

    /// The end of a branch that is not at the gallery.
    int farEnd(const Branch &b) const { return b.joint == 0 ? 1 : 0; }

    std::optional<StopKind> kindAt(const PassageEnd &e) const
    {
        const auto it = m_kinds.find(e.stop);
        return it == m_kinds.end() ? std::nullopt : std::optional(it->second);
    }

    bool goesDown(const Branch &b) const
    {
        if (b.other >= 0)
            return false;
        const auto kind = kindAt(passage(b.passage).ends[static_cast<size_t>(farEnd(b))]);
        return kind && std::find(downward.begin(), downward.end(), *kind) != downward.end();
    }

    void placeBranches()
    {
        // What meets a gallery at one place on one side is drawn side by side.
        std::map<std::tuple<int, long, bool>, std::vector<const Branch *>> groups;
        for (const Branch &b : m_branches)
            groups[{ b.gallery, std::lround(b.at_mm), goesDown(b) }].push_back(&b);
        for (auto &[key, all] : groups) {
            // A riser keeps its true place: the galleries were brought in line by it.
            std::stable_sort(all.begin(), all.end(), [](const Branch *a, const Branch *b) {
                return (a->other >= 0) < (b->other >= 0);
            });
            const auto n = static_cast<double>(all.size());
            // What goes down stands between what goes up, so that no two look like one line.
            const auto &[gallery, at, down] = key;
            const auto up = groups.find({ gallery, at, false });
            const bool between = down && up != groups.end()
                && up->second.size() % 2 == all.size() % 2 && (n > 1 || up->second.size() > 1);
            for (size_t i = 0; i < all.size(); ++i)
                place(*all[i],
                      (static_cast<double>(i) - (n - 1) / 2 + (between ? 0.5 : 0)) * apart);
        }
    }

    void place(const Branch &b, double aside)
    {
        const Gallery &g = m_galleries[static_cast<size_t>(b.gallery)];
        const Passage &p = passage(b.passage);
        const double x = m_zero + (g.shift_mm + b.at_mm) * m_scale + aside;
        const bool down = goesDown(b);
        double far = down ? g.y + 0.42 * m_rowHeight : g.y - 0.42 * m_rowHeight;
        if (b.other >= 0) {
            // Up to the other gallery and beyond it as far as it was drilled.
            const double there = m_galleries[static_cast<size_t>(b.other)].y;
            const double share = std::max(0.2, b.hereOther_mm / p.l_mm);
            far = g.y + (there - g.y) / share;
            far = std::max(far, there - 0.42 * m_rowHeight);
        }
        const QPointF at(x, g.y), end(x, std::max(far, m_area.top() + 4));
        DrawnPassage d { b.passage, b.joint == 1 ? end : at, b.joint == 1 ? at : end, false,
                         false,     labelOf(p, farEnd(b)) };
        if (b.joint < 0) { // crosses: runs to both sides
            d.a = QPointF(x, g.y + 0.3 * m_rowHeight);
            d.b = QPointF(x, g.y - 0.3 * m_rowHeight);
        }
        m_out.passages.push_back(std::move(d));
    }

    /// What it leads to: its name without the word for the drilling. A plug at its end names
    /// itself.
    static QString labelOf(const Passage &p, int end)
    {
        if (p.ends[static_cast<size_t>(end)].kind == "plug")
            return {};
        QString out = qs(p.name);
        for (const char *word : { " feed", " hole", " drilling" })
            out.remove(QLatin1String(word));
        return out;
    }

    /// Places that are taken: lines, plugs with their names, and labels as they are set.
    void placeLabels()
    {
        std::vector<QRectF> taken;
        for (const DrawnPassage &d : m_out.passages)
            taken.push_back(QRectF(d.a, d.b).normalized().adjusted(-6, -6, 6, 6));
        for (const Plug &plug : m_network.plugs())
            if (const DrawnPassage *d = m_out.find(m_network.indexOf(plug.passage))) {
                const QPointF at = d->at(passage(d->passage), plug.at_mm);
                taken.push_back(QRectF(at - QPointF(11, 13), QSizeF(22, 26)));
                taken.push_back(plugLabelArea(*d, at, plug.hidden()));
            }
        const QFontMetricsF small(textFont(TextSize::Small)), normal(textFont(TextSize::Normal));
        const auto put = [&](DrawnPassage &d, const std::vector<QRectF> &places) {
            for (const QRectF &r : places)
                if (m_area.adjusted(-10, -12, 10, 10).contains(r)
                    && std::none_of(taken.begin(), taken.end(),
                                    [&](const QRectF &t) { return t.intersects(r); })) {
                    d.labelArea = r;
                    taken.push_back(r);
                    return true;
                }
            return false;
        };
        for (DrawnPassage &d : m_out.passages)
            if (d.gallery)
                put(d, besideGallery(d, normal.horizontalAdvance(d.label) + 20));
        // Alike but for their number: a row, in the order they are met.
        std::vector<std::pair<QString, std::vector<DrawnPassage *>>> rows;
        for (DrawnPassage &d : m_out.passages) {
            if (d.gallery || d.beside || d.label.isEmpty())
                continue;
            const bool numbered = d.label.back().isDigit();
            const QString key = numbered ? d.label.section(u' ', 0, -2) : d.label;
            auto it = std::find_if(rows.begin(), rows.end(),
                                   [&](const auto &row) { return row.first == key; });
            if (it == rows.end())
                it = rows.insert(rows.end(), { key, {} });
            it->second.push_back(&d);
        }
        for (const auto &[key, row] : rows)
            nameRow(row, small, taken, put);
    }

    /// All of a row in full where that fits; else the first, and of the others the number.
    template <class Put>
    void nameRow(const std::vector<DrawnPassage *> &row, const QFontMetricsF &font,
                 std::vector<QRectF> &taken, const Put &put) const
    {
        const auto places = [&](const DrawnPassage &d, int levels) {
            return roundEnd(d, font.horizontalAdvance(d.label) + 4, levels);
        };
        const size_t before = taken.size();
        bool all = true;
        for (size_t i = 0; i < row.size() && all; ++i)
            all = put(*row[i], places(*row[i], i == 0 ? 3 : 1));
        if (all)
            return;
        taken.resize(before);
        for (size_t i = 0; i < row.size(); ++i) {
            row[i]->labelArea = {};
            if (i > 0)
                row[i]->label = row[i]->label.section(u' ', -1);
            put(*row[i], places(*row[i], 3));
        }
    }

    /// Where a gallery's name may stand, the better places first.
    std::vector<QRectF> besideGallery(const DrawnPassage &d, double w) const
    {
        std::vector<QRectF> out;
        for (const double y : { d.a.y() - 9 - labelHeight, d.a.y() + 9 })
            for (double x = d.a.x() + 20; x + w < d.b.x() - 14; x += 8)
                out.push_back(QRectF(x, y, w, labelHeight));
        out.push_back(QRectF(d.b.x() + 14, d.b.y() - labelHeight / 2, w, labelHeight));
        return out;
    }

    /// Where the name of a branch's far end may stand.
    std::vector<QRectF> roundEnd(const DrawnPassage &d, double w, int levels) const
    {
        const Passage &p = passage(d.passage);
        const bool fromA = p.ends[0].kind == "joint" && p.ends[1].kind != "joint";
        const QPointF end = fromA ? d.b : d.a, other = fromA ? d.a : d.b;
        const double away = end.y() > other.y() ? 1 : -1;
        const auto at = [&](double dx, double dy) {
            return QRectF(end.x() + dx, end.y() + dy - labelHeight / 2, w, labelHeight);
        };
        std::vector<QRectF> out;
        for (int level = 0; level < levels; ++level)
            for (const double shift : { 0.0, -0.3, 0.3 })
                out.push_back(at(-w / 2 + shift * w, away * (14 + 13.0 * level)));
        for (const double level : { 0.0, 12.0, -12.0 }) {
            out.push_back(at(-8 - w, away * level));
            out.push_back(at(8, away * level));
        }
        return out;
    }

    void placeBeside()
    {
        // Smaller pieces that meet one of these hang on it.
        std::vector<int> roots;
        for (const int i : m_beside)
            if (!hangsOn(i))
                roots.push_back(i);
        if (roots.empty())
            return;
        const double left = m_galleries.empty() ? m_area.left() : m_along.right();
        // Side by side at ease; where there is room no further apart than is good to read.
        const double step
            = std::min((m_area.right() - left) / static_cast<double>(roots.size()), 3.5 * column);
        const double top = m_area.top() + 16, bottom = m_area.bottom() - 16;
        for (size_t k = 0; k < roots.size(); ++k) {
            const Passage &p = passage(roots[k]);
            const double x = left + step * (static_cast<double>(k) + 0.5);
            const DrawnPassage d { roots[k],
                                   QPointF(x, bottom),
                                   QPointF(x, top),
                                   false,
                                   true,
                                   qs(p.name),
                                   QRectF(x - 17, top, 13, bottom - top) };
            m_out.passages.push_back(d);
            for (const int i : m_beside)
                if (hangsOn(i) && joined(i) == p.id)
                    hang(i, d);
        }
    }

    std::string joined(int i) const
    {
        for (const PassageEnd &e : passage(i).ends)
            if (e.kind == "joint")
                return e.passage;
        return {};
    }
    bool hangsOn(int i) const
    {
        const int on = m_network.indexOf(joined(i));
        return on >= 0 && std::find(m_beside.begin(), m_beside.end(), on) != m_beside.end()
            && joined(on).empty();
    }
    void hang(int i, const DrawnPassage &on)
    {
        const Passage &p = passage(i);
        const int joint = p.ends[0].kind == "joint" ? 0 : 1;
        const QPointF at = on.at(passage(on.passage), p.ends[static_cast<size_t>(joint)].at_mm);
        const QPointF end = at + QPointF(20, 0);
        m_out.passages.push_back(
            { i, joint == 0 ? at : end, joint == 0 ? end : at, false, true, {} });
    }

    const PassageNetwork &m_network;
    QRectF m_area, m_along;
    const std::map<std::string, std::string> &m_names;
    const std::map<std::string, StopKind> &m_kinds;
    std::vector<int> m_here, m_beside;
    std::vector<Gallery> m_galleries;
    std::vector<Branch> m_branches;
    double m_scale = 1, m_zero = 0, m_rowHeight = 60;
    PassageLayout m_out;
};

} // namespace

QRectF plugLabelArea(const DrawnPassage &d, QPointF at, bool hidden)
{
    // Outside the ends of lying lines; a hidden plug below.
    constexpr double w = 26;
    if (!d.gallery) {
        // Over the top end of a standing line, below its lower one.
        const bool top = std::abs(at.y() - std::min(d.a.y(), d.b.y())) < 2;
        return { at.x() - w / 2, top ? at.y() - 12 - labelHeight : at.y() + 12, w, labelHeight };
    }
    if (hidden)
        return { at.x() - w / 2, at.y() + 12, w, labelHeight };
    return at.x() < (d.a.x() + d.b.x()) / 2 ? QRectF(at.x() - 12 - w, at.y() - 7, w, labelHeight)
                                            : QRectF(at.x() + 12, at.y() - 7, w, labelHeight);
}

const DrawnPassage *PassageLayout::find(int passage) const
{
    for (const DrawnPassage &d : passages)
        if (d.passage == passage)
            return &d;
    return nullptr;
}

PassageLayout layOutPart(const PassageNetwork &network, std::string_view part, const QRectF &area,
                         const std::map<std::string, std::string> &stopNames,
                         const std::map<std::string, StopKind> &stopKinds)
{
    return Layer(network, part, area, stopNames, stopKinds).run();
}

std::vector<std::string> partsOf(std::span<const Passage> passages)
{
    std::vector<std::string> out;
    for (const PassagePart &part : passageParts())
        for (const Passage &p : passages)
            if (p.part == part.id) {
                out.emplace_back(part.id);
                break;
            }
    return out;
}

} // namespace mildpath
