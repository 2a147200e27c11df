// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/pump/rotorview.h"

#include "assess/sizes.h"
#include "circuit/elementtypes.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mildpath {
namespace {

const Element *pumpElement(const Build &build)
{
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            return &e;
    return nullptr;
}

QPainterPath outline(const std::vector<PlanePoint> &points, QPointF centre, double scale)
{
    QPainterPath path;
    for (size_t i = 0; i < points.size(); ++i) {
        const QPointF at = centre + QPointF(points[i].x, -points[i].y) * scale;
        if (i == 0)
            path.moveTo(at);
        else
            path.lineTo(at);
    }
    path.closeSubpath();
    return path;
}

} // namespace

RotorPictureView::RotorPictureView(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("rotorView"));
    setMinimumHeight(210);
}

void RotorPictureView::setFamily(const std::string &family)
{
    m_family = family;
    QString spoken;
    for (const GaugedSize &s : m_open.sizes())
        if (findFamily(s.family)->stopKind == StopKind::Pump)
            spoken += qs(s.name) + QStringLiteral(": ") + qs(s.verdict) + QStringLiteral("; ");
    setAccessibleName(spoken);
    update();
}

QRectF RotorPictureView::rotorArea() const
{
    const double side = std::min(height() - 20.0, width() * 0.42);
    return { 12, (height() - side) / 2, side, side };
}

QRectF RotorPictureView::sectionArea() const
{
    const double left = width() * 0.69;
    return { left, 34, width() - left - 12, std::min(116.0, height() * 0.4) };
}

std::vector<RotorPictureView::Label> RotorPictureView::labels() const
{
    const double left = rotorArea().right() + 26;
    const double room = sectionArea().left() - left - 14;
    std::vector<Label> out;
    double y = std::max(8.0, height() / 2.0 - 104);
    for (const char *family : { "pump_tip", "pump_body", "pump_backlash" }) {
        out.push_back({ family, QRectF(left, y, room, 62) });
        y += 72;
    }
    const QRectF section = sectionArea();
    out.push_back(
        { "pump_end", QRectF(section.left(), section.bottom() + 12, section.width(), 62) });
    return out;
}

void RotorPictureView::paintEvent(QPaintEvent *)
{
    const Element *pump = pumpElement(m_open.build());
    const Stop *stop = m_open.build().engine.ofKind(StopKind::Pump);
    if (!pump || !stop)
        return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto set = rotorSetFor(static_cast<int>(stop->value("lobes", 4)),
                                 pumpDisplacement_m3(*pump), pump->value("rotor_length_mm") * 1e-3);
    if (set)
        paintRotors(p, *set);
    paintSection(p);
}

void RotorPictureView::paintRotors(QPainter &p, const RotorSet &set) const
{
    const Theme &t = Theme::current();
    const QRectF area = rotorArea();
    const double scale = area.width() / 2 / (set.outerRadius_m * 1.09);
    const QPointF centre = area.center();
    // Half a pitch round, so that one tip stands open to where it is measured.
    const RotorPicture picture = rotorPicture(set, std::numbers::pi / set.innerLobes * 0.35, 72);
    const double body = set.outerRadius_m * 1.06 * scale, rim = set.outerRadius_m * scale;
    p.setPen(QPen(t.ink, 1.6));
    p.setBrush(t.line);
    p.drawEllipse(centre, body, body);
    QPainterPath ring;
    ring.addEllipse(centre, rim, rim);
    const QPainterPath hole = outline(picture.outerHole, centre, scale);
    const QPainterPath inner = outline(picture.inner, centre, scale);
    p.setBrush(t.bench);
    p.drawPath(ring.subtracted(hole));
    p.setPen(Qt::NoPen);
    p.setBrush(t.oil[0]);
    p.drawPath(hole.subtracted(inner));
    p.setPen(QPen(t.ink, 1.6));
    p.setBrush(t.panel);
    p.drawPath(inner);
    const QPointF shaft = centre + QPointF(picture.innerCentre.x, -picture.innerCentre.y) * scale;
    p.setBrush(t.bench);
    p.drawEllipse(shaft, 0.42 * set.innerRoot_m() * scale, 0.42 * set.innerRoot_m() * scale);

    // The tip nearest the right is the one the blade goes to.
    const auto tip
        = std::max_element(picture.toothCentres.begin(), picture.toothCentres.end(),
                           [](const PlanePoint &a, const PlanePoint &b) { return a.x < b.x; });
    const double reach = set.toothCentre_m - set.toothRadius_m;
    const double angle = std::atan2(tip->y, tip->x);
    for (const Label &label : labels()) {
        QPointF at = centre + QPointF(std::cos(angle), -std::sin(angle)) * reach * scale;
        if (label.family == "pump_body")
            at = centre + QPointF((rim + body) / 2, 0);
        else if (label.family == "pump_backlash")
            at = shaft + QPointF(0.42 * set.innerRoot_m() * scale, 0);
        else if (label.family == "pump_end")
            at = {};
        paintLabel(p, label, at);
    }
}

void RotorPictureView::paintLabel(QPainter &p, const Label &label, QPointF from) const
{
    const GaugedSize *s = nullptr;
    for (const GaugedSize &size : m_open.sizes())
        if (size.family == label.family)
            s = &size;
    if (!s)
        return;
    const Theme &t = Theme::current();
    const Family &family = *findFamily(label.family);
    const bool inHand = label.family == m_family;
    if (inHand) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.selectionFill);
        p.drawRoundedRect(label.area.adjusted(-6, -3, 4, 3), 5, 5);
    }
    if (!from.isNull()) {
        p.setPen(QPen(inHand ? t.selection : t.muted, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(from, 6, 6);
        const QPointF to(label.area.left() - 8, label.area.top() + 26);
        const QPointF direction = to - from;
        const double length = std::hypot(direction.x(), direction.y());
        p.drawLine(from + direction / length * 6, to);
    }
    drawMark(p, QPointF(label.area.left() + 6, label.area.top() + 9), 12, s->mark);
    QString name = qs(family.quantity);
    if (family.plan == PlanKind::Lobes)
        name = tr("tip, widest of %1")
                   .arg(static_cast<int>(
                       m_open.build().engine.ofKind(StopKind::Pump)->value("lobes", 4)));
    else if (label.family == "pump_body")
        name = tr("outer rotor in body");
    drawLine(p, QRectF(label.area.left() + 18, label.area.top(), label.area.width() - 18, 18),
             Qt::AlignVCenter, name, textFont(TextSize::Normal), t.muted);
    const QString value = !s->known ? tr("not measured")
        : s->measured ? Figure::clearance(s->cold_um.value, s->cold_um.standardUncertainty).text()
                      : tr("%1 assumed").arg(Figure::limit(s->cold_um.value).text());
    drawLine(p, QRectF(label.area.left() + 18, label.area.top() + 19, label.area.width() - 18, 22),
             Qt::AlignVCenter, value, textFont(TextSize::Title, s->measured),
             s->measured ? t.ink : t.muted);
    QString limit;
    if (s->limits)
        limit = tr("limit %1, %2")
                    .arg(Figure::limit(s->limits->max_um).text(), qs(s->limits->source));
    const double common = label.family == "pump_tip" ? commonTipLimit_um
        : label.family == "pump_end"                 ? commonEndLimit_um
                                                     : 0;
    if (common > 0 && !s->limits)
        limit = tr("%1, common practice").arg(Figure::limit(common).text());
    drawLine(p, QRectF(label.area.left() + 18, label.area.top() + 42, label.area.width() - 18, 16),
             Qt::AlignVCenter, limit, textFont(TextSize::Small), t.muted);
}

void RotorPictureView::paintSection(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QRectF area = sectionArea();
    drawLine(p, QRectF(area.left(), area.top() - 26, area.width(), 18), Qt::AlignVCenter,
             tr("In section, cover on top"), textFont(TextSize::Normal, true), t.ink);
    const double cover = area.height() * 0.2, gap = 7, wall = 24;
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.line);
    p.drawRect(QRectF(area.left(), area.top(), area.width(), cover));
    const QRectF body(area.left(), area.top() + cover, area.width(), area.height() - cover);
    p.drawRect(QRectF(body.left(), body.top(), wall, body.height()));
    p.drawRect(QRectF(body.right() - wall, body.top(), wall, body.height()));
    p.drawRect(QRectF(body.left(), body.bottom() - cover, body.width(), cover));
    p.setBrush(t.panel);
    p.drawRect(QRectF(body.left() + wall + 3, body.top() + gap, body.width() - 2 * wall - 6,
                      body.height() - cover - gap));
    // Oil in the gap, drawn wide enough to see.
    p.fillRect(QRectF(body.left() + wall + 2, body.top() + 1, body.width() - 2 * wall - 4, gap - 1),
               t.oil[1]);
    p.setPen(QPen(t.selection, 1.4));
    const double x = body.right() - wall - 16;
    p.drawLine(QPointF(x, body.top() - 7), QPointF(x, body.top() + gap + 8));
    const Stop *stop = m_open.build().engine.ofKind(StopKind::Pump);
    if (stop && stop->value("body_score_um") > 0)
        drawLine(p, QRectF(area.left(), labels().back().area.bottom() + 6, area.width(), 16),
                 Qt::AlignVCenter,
                 tr("body scored %1 deep").arg(Figure::limit(stop->value("body_score_um")).text()),
                 textFont(TextSize::Normal), t.lookAgain);
}

void RotorPictureView::mousePressEvent(QMouseEvent *event)
{
    for (const Label &label : labels())
        if (label.area.contains(event->position()))
            Q_EMIT chosen(label.family);
}

GasketPicture::GasketPicture(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("gasketPicture"));
    setFixedHeight(128);
    setAccessibleName(
        QObject::tr("Left: the right gasket leaves both ports open. Right: the gasket of "
                    "a like pump leaves part of the suction port open to the air."));
}

void GasketPicture::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double half = width() / 2.0;
    for (const bool right : { true, false }) {
        const double left = right ? 6 : half + 4;
        const QRectF base(left, 8, half - 14, 84);
        p.setPen(QPen(t.ink, 1.4));
        p.setBrush(t.line);
        p.drawRoundedRect(base, 8, 8);
        const QPointF in(base.left() + base.width() * 0.33, base.center().y());
        const QPointF out(base.left() + base.width() * 0.7, base.center().y());
        // The gasket, with holes of its own; the wrong one's port hole runs out past the base.
        p.setPen(QPen(t.selection, 1.4, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(base.adjusted(4, 4, -4, -4), 6, 6);
        p.setPen(QPen(t.ink, 1.4));
        p.setBrush(t.oil[2]);
        p.drawEllipse(in, 15, 15);
        p.drawEllipse(out, 11, 11);
        if (!right) {
            QPainterPath leak;
            leak.addEllipse(in + QPointF(-22, 10), 21, 21);
            QPainterPath port;
            port.addEllipse(in, 15, 15);
            p.setPen(QPen(t.hold, 1.6, Qt::DashLine));
            p.setBrush(t.holdFill);
            p.drawPath(leak.subtracted(port));
        }
        drawLine(p, QRectF(left, 96, half - 10, 16), Qt::AlignCenter,
                 right ? QObject::tr("right: both ports sealed round")
                       : QObject::tr("wrong: the suction side is open"),
                 textFont(TextSize::Small), right ? t.proven : t.hold);
    }
    const Stop *stop = m_open.build().engine.ofKind(StopKind::Pump);
    const Proof *seen = stop ? standingCheck(m_open.build(), stop->id, "pump_gasket") : nullptr;
    drawLine(p, QRectF(6, 112, width() - 12, 16), Qt::AlignCenter,
             seen && seen->verdict == "proven" ? QObject::tr("seen on this pump's own base")
                                               : QObject::tr("not seen yet: lay it on and look"),
             textFont(TextSize::Small), seen && seen->verdict == "proven" ? t.proven : t.hold);
}

} // namespace mildpath
