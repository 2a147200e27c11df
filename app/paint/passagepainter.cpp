// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/passagepainter.h"

#include "assess/cleanmarks.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double thickness(const Passage &p)
{
    return std::clamp(3.5 + 0.35 * p.d_mm, 4.5, 9.0);
}

class Painter
{
public:
    Painter(QPainter &p, const PassagePicture &picture, const PassageLayout &layout)
        : m_p(p)
        , m_picture(picture)
        , m_layout(layout)
        , m_theme(Theme::current())
    {
    }

    void run()
    {
        m_p.setRenderHint(QPainter::Antialiasing);
        for (const DrawnPassage &d : m_layout.passages)
            bed(d);
        for (const DrawnPassage &d : m_layout.passages)
            line(d);
        for (const DrawnPassage &d : m_layout.passages)
            narrow(d);
        step();
        for (const DrawnPassage &d : m_layout.passages)
            ends(d);
        plugs();
        for (const DrawnPassage &d : m_layout.passages)
            label(d);
    }

private:
    const Passage &passage(const DrawnPassage &d) const
    {
        return m_picture.network.passages()[static_cast<size_t>(d.passage)];
    }
    Mark mark(const DrawnPassage &d) const
    {
        return m_picture.passages[static_cast<size_t>(d.passage)];
    }

    /// The metal round a passage, and what is chosen.
    void bed(const DrawnPassage &d)
    {
        const bool chosen = d.passage == m_picture.selected;
        m_p.setPen(QPen(chosen ? m_theme.selection : m_theme.line,
                        thickness(passage(d)) + (chosen ? 7 : 5), Qt::SolidLine, Qt::RoundCap));
        m_p.drawLine(d.a, d.b);
        if (chosen) {
            m_p.setPen(QPen(m_theme.selectionFill, thickness(passage(d)) + 4, Qt::SolidLine,
                            Qt::RoundCap));
            m_p.drawLine(d.a, d.b);
        }
    }

    /// Proven is whole, look again is broken, not done is hollow; what holds is whole and dark red.
    void line(const DrawnPassage &d)
    {
        const double w = thickness(passage(d));
        const Mark m = mark(d);
        QPen pen(m == Mark::NotDone ? m_theme.faint : m_theme.mark(m), w, Qt::SolidLine,
                 Qt::FlatCap);
        if (m == Mark::LookAgain)
            pen.setDashPattern({ 2.2, 0.8 });
        m_p.setPen(pen);
        m_p.drawLine(d.a, d.b);
        if (m == Mark::NotDone) {
            m_p.setPen(QPen(m_theme.panel, w - 2.4, Qt::SolidLine, Qt::FlatCap));
            m_p.drawLine(d.a, d.b);
        }
        // Pockets, where no oil passes, are drawn thin and open.
        for (size_t i = 0; i < m_picture.network.stretches().size(); ++i) {
            const Stretch &s = m_picture.network.stretches()[i];
            if (s.passage != d.passage || !m_picture.pocket[i])
                continue;
            m_p.setPen(QPen(m_theme.bench, std::max(1.5, w - 3.5), Qt::SolidLine, Qt::FlatCap));
            m_p.drawLine(d.at(passage(d), s.from_mm), d.at(passage(d), s.to_mm));
        }
    }

    /// Restrictors pinch the line from both sides.
    void narrow(const DrawnPassage &d)
    {
        const QPointF along = d.b - d.a;
        const double length = std::hypot(along.x(), along.y());
        if (length < 1)
            return;
        const QPointF across(-along.y() / length, along.x() / length);
        m_p.setPen(Qt::NoPen);
        m_p.setBrush(m_theme.ink);
        for (const Restrictor &r : passage(d).restrictors) {
            const QPointF at = d.at(passage(d), r.at_mm), way = along / length;
            for (const double side : { -1.0, 1.0 })
                m_p.drawPolygon(
                    QPolygonF { { at + across * side * 8 - way * 4,
                                  at + across * side * 8 + way * 4, at + across * side * 2 } });
        }
    }

    void step()
    {
        if (!m_picture.step)
            return;
        m_p.setPen(QPen(m_theme.selection, 1.6, Qt::DotLine));
        m_p.setBrush(m_theme.selection);
        QPointF last, before;
        bool any = false;
        for (const Length &l : m_picture.step->lengths) {
            const DrawnPassage *d = m_layout.find(l.passage);
            if (!d)
                continue;
            const Passage &p = passage(*d);
            const QPointF aside = d->gallery ? QPointF(0, 10) : QPointF(9, 0);
            before = d->at(p, l.from_mm) + aside;
            last = d->at(p, l.to_mm) + aside;
            m_p.drawLine(before, last);
            if (!any)
                nameStep(before, last, d->gallery);
            any = true;
            m_p.setPen(QPen(m_theme.selection, 1.6, Qt::DotLine));
        }
        const QPointF way = last - before;
        const double length = std::hypot(way.x(), way.y());
        if (!any || length < 1)
            return;
        const QPointF unit = way / length, across(-unit.y(), unit.x());
        m_p.setPen(Qt::NoPen);
        m_p.setBrush(m_theme.selection);
        m_p.drawPolygon(
            QPolygonF { { last, last - unit * 9 + across * 4.5, last - unit * 9 - across * 4.5 } });
    }

    /// Where the arrow begins: beyond the plug of a lying line, beside a standing one.
    void nameStep(QPointF from, QPointF to, bool along)
    {
        const bool leftward = to.x() < from.x();
        const QRectF area = !along ? QRectF(from + QPointF(5, -7), QSizeF(72, 14))
            : leftward             ? QRectF(from + QPointF(38, -17), QSizeF(64, 14))
                                   : QRectF(from + QPointF(-102, -17), QSizeF(64, 14));
        drawLine(m_p, area,
                 (along && !leftward ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                 (m_picture.step->flush ? QObject::tr("flush %1") : QObject::tr("pull %1"))
                     .arg(m_picture.stepNumber),
                 textFont(TextSize::Small, true), m_theme.selection);
    }

    /// Holes to the outside are open; blind ends are closed by a short bar.
    void ends(const DrawnPassage &d)
    {
        const Passage &p = passage(d);
        for (int e = 0; e < 2; ++e) {
            const PassageEnd &end = p.ends[static_cast<size_t>(e)];
            const QPointF at = e == 0 ? d.a : d.b;
            if (end.kind == "hole") {
                m_p.setPen(QPen(m_theme.ink, 1.2));
                m_p.setBrush(m_theme.panel);
                m_p.drawEllipse(at, 3.6, 3.6);
            } else if (end.kind == "blind") {
                m_p.setPen(QPen(m_theme.ink, 2));
                m_p.drawLine(at - QPointF(6, 0), at + QPointF(6, 0));
            }
        }
    }

    void plugs()
    {
        for (size_t i = 0; i < m_picture.build.plugs.size(); ++i) {
            const Plug &plug = m_picture.build.plugs[i];
            const int in = m_picture.network.indexOf(plug.passage);
            const DrawnPassage *d = m_layout.find(in);
            if (!d)
                continue;
            const QPointF at = d->at(passage(*d), plug.at_mm);
            const QSizeF size = plug.hidden() ? QSizeF(12, 18) : QSizeF(18, 22);
            const QRectF box(at - QPointF(size.width() / 2, size.height() / 2), size);
            const Mark mark = m_picture.plugs[i];
            const bool chosen = static_cast<int>(i) == m_picture.selectedPlug;
            QPen pen(chosen                                    ? m_theme.selection
                         : plug.hidden() && mark == Mark::Hold ? m_theme.hold
                                                               : m_theme.ink,
                     chosen ? 2.4 : 1.3);
            if (m_picture.plugOut[i])
                pen.setStyle(Qt::DashLine);
            m_p.setPen(pen);
            m_p.setBrush(m_theme.panel);
            m_p.drawRoundedRect(box, 4, 4);
            drawMark(m_p, at, plug.hidden() ? 8 : 11, mark);
            drawLine(m_p, plugLabelArea(*d, at, plug.hidden()),
                     (!d->gallery || plug.hidden()             ? Qt::AlignHCenter
                          : at.x() > (d->a.x() + d->b.x()) / 2 ? Qt::AlignLeft
                                                               : Qt::AlignRight)
                         | Qt::AlignVCenter,
                     qs(plug.name), textFont(TextSize::Small, chosen),
                     mark == Mark::Hold ? m_theme.hold : m_theme.muted);
        }
    }

    void label(const DrawnPassage &d)
    {
        if (d.labelArea.isEmpty())
            return;
        const bool chosen = d.passage == m_picture.selected;
        const QColor ink = chosen ? m_theme.selection : d.gallery ? m_theme.ink : m_theme.muted;
        const QFont font = textFont(d.gallery ? TextSize::Normal : TextSize::Small, chosen);
        if (d.beside) { // along the line, read from below
            m_p.save();
            m_p.translate(d.labelArea.left(), d.labelArea.bottom());
            m_p.rotate(-90);
            drawLine(m_p, QRectF(0, 0, d.labelArea.height(), d.labelArea.width()),
                     Qt::AlignHCenter | Qt::AlignVCenter, d.label, font, ink);
            m_p.restore();
            return;
        }
        if (d.gallery)
            drawMark(m_p, d.labelArea.topLeft() + QPointF(6, d.labelArea.height() / 2), 10,
                     mark(d));
        drawLine(m_p, d.labelArea.adjusted(d.gallery ? 16 : 0, 0, 0, 0),
                 (d.gallery ? Qt::AlignLeft : Qt::AlignHCenter) | Qt::AlignVCenter, d.label, font,
                 ink);
    }

    QPainter &m_p;
    const PassagePicture &m_picture;
    const PassageLayout &m_layout;
    const Theme &m_theme;
};

} // namespace

std::map<std::string, std::string> stopNamesOf(const Build &build)
{
    std::map<std::string, std::string> out;
    for (const Stop &s : build.engine.stops)
        out[s.id] = s.name;
    return out;
}

PassagePicture pictureOf(const Build &build, const CleaningBook &cleaning,
                         const PassageNetwork &network, std::vector<bool> pockets)
{
    PassagePicture out { build, network, {}, {}, {}, std::move(pockets), nullptr, 0, -1, -1 };
    for (const PassageState &s : cleaning.passages)
        out.passages.push_back(markOf(s));
    for (const PlugState &s : cleaning.plugs) {
        out.plugs.push_back(markOf(s));
        out.plugOut.push_back(s.place == PlugPlace::Out);
    }
    return out;
}

void paintPassages(QPainter &painter, const PassagePicture &picture, const PassageLayout &layout)
{
    Painter(painter, picture, layout).run();
}

} // namespace mildpath
