// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/lines.h"
#include "assess/rules.h"
#include "bench/route/linespage.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Where a part stands: column and row of a loose grid, left to right as the oil goes.
struct BoxPlace
{
    const char *part;
    double column, row;
};
constexpr BoxPlace drySumpPlaces[] = {
    { "tank", 0, 0.55 }, { "pump", 1, 0.1 },    { "scavenge", 1, 1.3 },
    { "filter", 2, 0 },  { "cooler", 2, 0.95 }, { "engine", 3, 0.05 },
    { "pan", 3, 1.5 },   { "gauge", 3, 0.85 },  { "turbo", 0, 1.6 },
};
constexpr BoxPlace wetSumpPlaces[] = {
    { "engine", 0.4, 0.4 }, { "filter", 2.1, 0 },  { "cooler", 2.1, 0.8 },
    { "gauge", 2.1, 1.55 }, { "turbo", 0.4, 1.5 },
};

constexpr double boxWidth = 138, headHeight = 24, portPitch = 24;

/// Ports that look to the left of their part: where the oil comes from.
bool looksLeft(const Port &p)
{
    if (p.part == "engine")
        return p.id != "engine.out" || p.service != Service::Pressure;
    if (p.part == "pan")
        return true;
    if (p.part == "scavenge")
        return p.way == Way::Out;
    if (p.part == "tank")
        return false;
    if (p.service == Service::Gauge)
        return p.part != "filter";
    return p.way == Way::In || p.id == "cooler.a";
}

QColor toneOf(Service s, const Theme &t)
{
    switch (s) {
    case Service::Pressure:
        return t.oil[3];
    case Service::Suction:
        return t.cold;
    case Service::Scavenge:
    case Service::Drain:
        return t.returns;
    case Service::Gauge:
        return t.muted;
    }
    return t.muted;
}

} // namespace

LinesDiagram::LinesDiagram(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("linesDiagram"));
    setMinimumHeight(280);
}

void LinesDiagram::choose(const std::string &line, const std::string &port)
{
    m_line = line;
    m_port = port;
    update();
}

void LinesDiagram::relayout()
{
    m_boxes.clear();
    m_spots.clear();
    placeParts();
    placePorts();
    update();
}

void LinesDiagram::placeParts()
{
    const auto ports = portsOf(m_open.build());
    const bool dry = findPort(ports, "tank.out") != nullptr;
    const std::span<const BoxPlace> places
        = dry ? std::span<const BoxPlace>(drySumpPlaces) : std::span<const BoxPlace>(wetSumpPlaces);
    const double columns = dry ? 3 : 2.6, top = 18;
    const double room = width() - boxWidth - 24.0;
    for (const BoxPlace &place : places) {
        int left = 0, right = 0;
        QString name;
        for (const Port &p : ports)
            if (p.part == place.part) {
                (looksLeft(p) || p.part == "filter" ? left : right) += 1;
                name = qs(p.partName);
            }
        if (left + right == 0)
            continue;
        const double h = headHeight + portPitch * std::max(left, right) + 8;
        const double y = top + (height() - top - 40.0) / 2.1 * place.row;
        m_boxes[place.part] = { name,
                                QRectF(12 + room * std::min(1.0, place.column / columns),
                                       std::min(y, height() - h - 6.0), boxWidth, h) };
    }
}

void LinesDiagram::placePorts()
{
    std::map<std::string, int> left, right;
    for (const Port &p : portsOf(m_open.build())) {
        const auto box = m_boxes.find(p.part);
        if (box == m_boxes.end())
            continue;
        const bool toLeft = looksLeft(p);
        // Of a filter every port has a line of its own: their names are long.
        const int n = (toLeft || p.part == "filter" ? left : right)[p.part]++;
        const QRectF &a = box->second.area;
        const double y = a.top() + headHeight + portPitch * (n + 0.5);
        m_spots.push_back({ p, { toLeft ? a.left() : a.right(), y }, { toLeft ? -1.0 : 1.0, 0 } });
    }
}

const LinesDiagram::Spot *LinesDiagram::spot(const std::string &port) const
{
    for (const Spot &s : m_spots)
        if (s.port.id == port)
            return &s;
    return nullptr;
}

QPointF LinesDiagram::placeOf(const std::string &port) const
{
    const Spot *s = spot(port);
    return s ? s->at : QPointF();
}

QPainterPath LinesDiagram::pathOf(const ExternalLine &line) const
{
    QPainterPath path;
    const Spot *a = spot(line.from), *b = spot(line.to);
    if (!a || !b)
        return path;
    const double reach
        = std::clamp(std::hypot(b->at.x() - a->at.x(), b->at.y() - a->at.y()) / 2, 34.0, 120.0);
    path.moveTo(a->at);
    path.cubicTo(a->at + a->out * reach, b->at + b->out * reach, b->at);
    return path;
}

void LinesDiagram::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Plumbing &plumbing = m_open.build().plumbing;
    const LinesReport &report = m_open.lines();
    for (const ExternalLine &l : plumbing.lines) {
        const Spot *a = spot(l.from);
        if (!a)
            continue;
        const QPainterPath path = pathOf(l);
        const Mark mark = markOf(report, l);
        const bool wrong = mark == Mark::Hold;
        const QColor tone = wrong ? t.hold : toneOf(a->port.service, t);
        const double w = a->port.service == Service::Gauge ? 1.6 : 5;
        p.setBrush(Qt::NoBrush);
        if (l.id == m_line) {
            p.setPen(QPen(t.selection, w + 5, Qt::SolidLine, Qt::RoundCap));
            p.drawPath(path);
        }
        p.setPen(QPen(t.bench, w + 2, Qt::SolidLine, Qt::RoundCap));
        p.drawPath(path);
        p.setPen(QPen(tone, w,
                      a->port.service == Service::Scavenge || a->port.service == Service::Drain
                          ? Qt::DotLine
                          : Qt::SolidLine,
                      Qt::RoundCap));
        p.drawPath(path);
        drawMark(p, path.pointAtPercent(0.5), 13, mark);
    }
    for (const auto &[id, box] : m_boxes) {
        drawCard(p, box.area);
        drawLine(
            p,
            box.area.adjusted(10, 2, -8, 0)
                .intersected(QRectF(box.area.topLeft(), QSizeF(box.area.width(), headHeight + 2))),
            Qt::AlignVCenter, box.name, textFont(TextSize::Normal, true), t.ink);
    }
    for (const Spot &s : m_spots) {
        const bool cap = plumbing.capOf(s.port.id) != nullptr;
        const bool joined
            = std::any_of(plumbing.lines.begin(), plumbing.lines.end(),
                          [&](const auto &l) { return l.from == s.port.id || l.to == s.port.id; });
        const bool wrong = portMark(report, s.port.id) == Mark::Hold;
        p.setPen(QPen(s.port.id == m_port ? t.selection
                          : wrong         ? t.hold
                                          : t.ink,
                      s.port.id == m_port ? 3 : 1.6));
        p.setBrush(joined && !cap ? toneOf(s.port.service, t) : t.panel);
        if (cap)
            p.drawRect(QRectF(s.at - QPointF(6, 6), QSizeF(12, 12)));
        else
            p.drawEllipse(s.at, 6, 6);
        const QRectF text(s.out.x() < 0 ? s.at.x() + 11 : s.at.x() - boxWidth + 6, s.at.y() - 9,
                          boxWidth - 17, 18);
        const QString arrow = s.port.way == Way::Out ? tr(" out")
            : s.port.way == Way::In                  ? tr(" in")
                                                     : QString();
        // "oil in", "out 1" say their way themselves.
        const QString name = qs(s.port.name);
        const bool says = name.contains(QLatin1String("in")) || name.contains(QLatin1String("out"))
            || s.port.service == Service::Gauge || s.port.service == Service::Drain
            || s.port.service == Service::Suction || name == tr("return");
        drawLine(p, text, Qt::AlignVCenter | (s.out.x() < 0 ? Qt::AlignLeft : Qt::AlignRight),
                 says ? name : name + arrow, textFont(TextSize::Small), wrong ? t.hold : t.muted);
    }
}

void LinesDiagram::mousePressEvent(QMouseEvent *event)
{
    for (const Spot &s : m_spots)
        if (std::hypot(s.at.x() - event->position().x(), s.at.y() - event->position().y()) < 12) {
            Q_EMIT portChosen(qs(s.port.id));
            return;
        }
    for (const ExternalLine &l : m_open.build().plumbing.lines) {
        QPainterPathStroker wide;
        wide.setWidth(16);
        if (wide.createStroke(pathOf(l)).contains(event->position())) {
            Q_EMIT lineChosen(qs(l.id));
            return;
        }
    }
}

} // namespace mildpath
