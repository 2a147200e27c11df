// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/forecastcards.h"

#include "assess/forecast.h"
#include "assess/operating.h"
#include "oil/grades.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

void cardHead(QPainter &p, double left, double width, const QString &title, const QString &detail)
{
    const Theme &t = Theme::current();
    drawLine(p, QRectF(left, 9, width, 18), Qt::AlignVCenter, title, textFont(TextSize::Body, true),
             t.ink);
    drawLine(p, QRectF(left, 27, width, 16), Qt::AlignVCenter, detail, textFont(TextSize::Small),
             t.muted);
}

QString conditions(const Build &build)
{
    return Figure::speed(build.use.hotIdle_rpm).text() + QStringLiteral(", ")
        + Figure::temperature(build.use.hotOil_c).text();
}

/// Tones of the bar: what leaves through bearings in oil tones, what never reaches them in grey.
QColor groupTone(const std::string &id, const Theme &t)
{
    if (id == "slip" || id == "air" || id == "relief" || id == "other") {
        QColor c = t.returns;
        return id == "relief" ? c.darker(125) : c;
    }
    static constexpr const char *order[]
        = { "mains", "big_ends", "cams", "lifters", "jets", "chain" };
    for (int i = 0; i < 6; ++i)
        if (id == order[i])
            return t.pressure((4.6 - 0.8 * i) * 1e5);
    return t.line;
}

} // namespace

OilShareBar::OilShareBar(OpenBuild &open, QWidget *parent)
    : BuildPicture(open, QStringLiteral("oilShares"), parent)
{
    setFixedWidth(206);
}

void OilShareBar::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawLine(p, QRectF(0, 2, width(), 18), Qt::AlignVCenter, tr("Where the oil goes"),
             textFont(TextSize::Body, true), t.ink);
    drawLine(p, QRectF(0, 20, width(), 16), Qt::AlignVCenter, conditions(m_open.build()),
             textFont(TextSize::Small), t.muted);
    const auto &shares = m_open.operating().hotIdle.shares;
    std::vector<double> parts;
    for (const OilShare &s : shares)
        parts.push_back(s.ofSwept);
    const std::vector<int> percents = wholePercents(parts);
    const double top = 46, bottom = height() - 68.0;
    double y = top, nextText = top - 20;
    QStringList spoken;
    QString shut;
    for (size_t i = 0; i < shares.size(); ++i) {
        const OilShare &s = shares[i];
        if (s.id == "jets" && s.ofSwept < 0.001)
            shut = tr("cooling jets still shut");
        if (s.ofSwept < 0.003)
            continue;
        const double h = (bottom - top) * s.ofSwept;
        p.fillRect(QRectF(4, y, 44, std::max(1.0, h - 1)), groupTone(s.id, t));
        const double middle = std::max(y + h / 2, nextText + 17);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(50, y + h / 2), QPointF(58, middle));
        const QString text
            = Figure::percent(percents[i] / 100.0).text() + QStringLiteral("  ") + qs(s.name);
        drawLine(p, QRectF(62, middle - 9, width() - 62, 18), Qt::AlignVCenter, text,
                 textFont(TextSize::Normal), t.ink);
        spoken << text;
        nextText = middle;
        y += h;
    }
    drawLine(p, QRectF(0, bottom + 8, width(), 16), Qt::AlignVCenter, shut,
             textFont(TextSize::Small), t.muted);
    setAccessibleName(tr("Where the oil goes: ") + spoken.join(QStringLiteral(", ")));
    paintCrankOil(p, bottom + 28);
}

/// Housings that outgrow their journals take the oil from the rods: cold, hot, hotter.
void OilShareBar::paintCrankOil(QPainter &p, double y) const
{
    QStringList shares, degrees;
    for (const ForecastLine &line : m_open.forecast().lines) {
        shares << Figure::percent(line.bigEndsOfCrank.front()).text();
        degrees << Figure::temperature(line.oil_c).number;
    }
    if (shares.isEmpty())
        return;
    const QString dot = QStringLiteral(" · ");
    const Theme &t = Theme::current();
    drawLine(p, QRectF(0, y, width(), 16), Qt::AlignVCenter,
             tr("big-ends' part of the crank's oil"), textFont(TextSize::Small), t.muted);
    drawLine(
        p, QRectF(0, y + 15, width(), 18), Qt::AlignVCenter,
        tr("%1 at %2 %3").arg(shares.join(dot), degrees.join(dot), Figure::temperature(0).unit),
        textFont(TextSize::Small), t.ink);
}

namespace {

constexpr double leastOtherRow = 17;

/// As many as there is room for: those that give most unlike pressures stand on their own page.
void keepNearest(std::vector<OtherOil> &oils, size_t most)
{
    const auto fitted = std::ranges::find_if(oils, [](const OtherOil &o) { return o.fitted; });
    if (fitted == oils.end())
        return;
    const double here_pa = fitted->gauge_pa;
    while (oils.size() > most) {
        const auto farthest = std::ranges::max_element(oils, {}, [&](const OtherOil &o) {
            return o.gearOil ? -1 : std::abs(o.gauge_pa - here_pa);
        });
        if (farthest->gearOil || farthest->fitted)
            return;
        oils.erase(farthest);
    }
}

} // namespace

OtherOilsCard::OtherOilsCard(OpenBuild &open, QWidget *parent)
    : BuildPicture(open, QStringLiteral("otherOils"), parent)
{
}

void OtherOilsCard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, rect());
    cardHead(p, 16, width() - 32, tr("Same build, other oils"),
             tr("hot idle, at the gauge; dotted: floor %1")
                 .arg(Figure::pressure(m_open.build().use.hotIdleFloor_kpa * 1e3).number));
    // From the least pressure to the most; what never belongs into an engine last.
    std::vector<OtherOil> oils = m_open.forecast().otherOils;
    if (oils.empty())
        return;
    std::stable_sort(oils.begin(), oils.end(), [](const OtherOil &a, const OtherOil &b) {
        return std::pair(a.gearOil, a.gauge_pa) < std::pair(b.gearOil, b.gauge_pa);
    });
    const double top = 50, bottom = height() - 26.0;
    keepNearest(oils, static_cast<size_t>(std::max(3.0, (bottom - top) / leastOtherRow)));
    double most = 0;
    for (const OtherOil &o : oils)
        most = std::max(most, o.gauge_pa);
    const double floor_pa = m_open.build().use.hotIdleFloor_kpa * 1e3;
    most = std::max(most, floor_pa) * 1.02;
    const double step = (bottom - top) / static_cast<double>(oils.size());
    const double left = 146, right = width() - 88.0;
    const auto x = [&](double pa) { return left + pa / most * (right - left); };
    p.setPen(QPen(t.muted, 1, Qt::DotLine));
    p.drawLine(QPointF(x(floor_pa), top - 3), QPointF(x(floor_pa), bottom));
    double y = top + step / 2;
    bool gear = false;
    for (const OtherOil &o : oils) {
        if (o.fitted) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.selectionFill);
            p.drawRoundedRect(QRectF(8, y - step / 2, width() - 16.0, step), 4, 4);
        }
        drawLine(p, QRectF(16, y - 9, 96, 18), Qt::AlignVCenter, qs(o.grade),
                 textFont(TextSize::Normal, o.fitted), o.fitted ? t.selection : t.ink);
        drawMark(p, QPointF(126, y), 10.5, o.mark);
        const QPointF gauge(x(o.gauge_pa), y);
        p.setPen(QPen(t.line, 4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(left, y), gauge);
        p.setPen(QPen(t.ink, 1.6));
        p.setBrush(t.ink);
        p.drawEllipse(gauge, 4, 4);
        drawFigure(p, QPointF(width() - 16, y + 4), Figure::pressure(o.gauge_pa),
                   textFont(TextSize::Normal, true), t.ink, t.muted);
        gear = gear || o.gearOil;
        y += step;
    }
    if (gear) {
        const QString caution = qs(gearOilCaution());
        setToolTip(caution);
        drawLine(p, QRectF(16, bottom + 4, width() - 32.0, 16), Qt::AlignVCenter,
                 tr("gear oil: to compare only, never in an engine"), textFont(TextSize::Small),
                 t.hold);
    }
}

LeversCard::LeversCard(OpenBuild &open, QWidget *parent)
    : BuildPicture(open, QStringLiteral("levers"), parent)
{
}

void LeversCard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    const auto &levers = m_open.forecast().levers;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, rect());
    cardHead(p, 16, width() - 32, tr("What moves hot idle"),
             tr("at the gauge, for a step you could make"));
    if (levers.empty())
        return;
    double most = 1;
    for (const Lever &l : levers)
        most = std::max(most, std::abs(l.change_pa));
    const double top = 50, bottom = height() - 12.0;
    const double step = (bottom - top) / static_cast<double>(levers.size());
    const double left = std::min(192.0, 0.6 * width()), right = width() - 66.0;
    double y = top + step / 2;
    for (const Lever &l : levers) {
        drawLine(p, QRectF(10, y - 9, left - 20, 18), Qt::AlignRight | Qt::AlignVCenter, qs(l.name),
                 textFont(TextSize::Normal), t.ink);
        const double w = std::abs(l.change_pa) / most * (right - left);
        p.setPen(Qt::NoPen);
        p.setBrush(l.change_pa >= 0 ? t.oil[2] : t.hold);
        if (l.remark.empty()) {
            p.drawRoundedRect(QRectF(left, y - 6.5, std::max(2.0, w), 13), 2, 2);
            drawLine(p, QRectF(left + w + 8, y - 9, 70, 18), Qt::AlignVCenter,
                     Figure::pressureChange(l.change_pa).number, textFont(TextSize::Normal), t.ink);
        } else {
            p.setPen(QPen(t.muted, 1.4));
            p.drawLine(QPointF(left, y - 7), QPointF(left, y + 7));
            drawLine(p, QRectF(left + 8, y - 9, width() - left - 20, 18), Qt::AlignVCenter,
                     qs(l.remark), textFont(TextSize::Small), t.muted);
        }
        y += step;
    }
}

} // namespace mildpath
