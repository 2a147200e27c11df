// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/readoutstrip.h"

#include "assess/air.h"
#include "assess/figuremarks.h"
#include "checks/verdicttable.h"
#include "paint/marks.h"
#include "paint/text.h"
#include "start/gate.h"

#include <QHBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

QString likelyText(const LikelyPressure &p)
{
    return tr("likely %1")
        .arg(shown(QuantityRange { asPressure(p.low_pa), asPressure(p.high_pa) }).number);
}

/// "was 1.46", when that differs as shown.
QString wasText(const Shown &before, const Shown &now)
{
    return before.number == now.number ? QString() : tr("was %1").arg(before.number);
}

Readout gaugeReadout(const Build &build, const Assessment &now, const Assessment *before)
{
    Readout r { QStringLiteral("hotIdleGauge"),
                tr("Hot idle, at the gauge"),
                Figure::pressure(now.operating.hotIdle.gauge.value_pa),
                {},
                likelyText(now.operating.hotIdle.gauge),
                leadingVerdicts(build, now).idle.mark,
                Place::Forecast,
                {} };
    if (before)
        r.was = wasText(Figure::pressure(before->operating.hotIdle.gauge.value_pa), r.value);
    return r;
}

std::optional<Readout> weakestReadout(const Build &build, const Assessment &now,
                                      const Assessment *before)
{
    if (now.operating.hotIdle.weakest < 0)
        return std::nullopt;
    const PointPressure &p
        = now.operating.hotIdle.points[static_cast<size_t>(now.operating.hotIdle.weakest)];
    const LikelyPressure &value = now.operating.hotIdle.weakestPressure;
    Readout r { QStringLiteral("hotIdleWeakest"),
                tr("Hot idle, weakest feed"),
                Figure::pressure(value.value_pa),
                {},
                tr("%1 · %2 × required · %3")
                    .arg(
                        qs(p.name), qs(formatNumber(p.ratio(), 1)),
                        shown(QuantityRange { asPressure(value.low_pa), asPressure(value.high_pa) })
                            .number),
                leadingVerdicts(build, now).weakest,
                Place::Route,
                qs(p.stop) };
    if (before)
        r.was = wasText(Figure::pressure(before->operating.hotIdle.weakestPressure.value_pa),
                        r.value);
    return r;
}

Readout highSpeedReadout(const Build &build, const Assessment &now, const Assessment *before)
{
    const GaugeVerdict fast = leadingVerdicts(build, now).fast;
    const LikelyPressure &value = now.operating.highSpeed.gauge;
    Readout r { QStringLiteral("highSpeedGauge"),
                tr("Hot %1, gauge").arg(Figure::speed(build.use.highSpeed_rpm).text()),
                Figure::pressure(value.value_pa),
                {},
                tr("%1 · rule %2").arg(likelyText(value), Figure::pressure(fast.least_pa).number),
                fast.mark,
                Place::Forecast,
                {} };
    if (before)
        r.was = wasText(Figure::pressure(before->operating.highSpeed.gauge.value_pa), r.value);
    return r;
}

std::optional<Readout> coldestReadout(const Build &build, const Assessment &now,
                                      const Assessment *before)
{
    const GaugedSize *coldest = coldestOf(now.sizes);
    if (!coldest)
        return std::nullopt;
    const GaugedSize &c = *coldest;
    const double u = c.cold_um.standardUncertainty;
    const double floor = clearanceFloor_um(build, c);
    Readout r { QStringLiteral("coldestClearance"),
                tr("Coldest-start clearance"),
                Figure::clearance(c.coldestStart_um, std::max(u, 1.0)),
                {},
                tr("%1 at %2 · floor %3")
                    .arg(qs(c.name), Figure::temperature(build.use.coldestStart_c).text(),
                         Figure::limit(floor).number),
                coldestMark(build, c),
                Place::Clearances,
                qs(c.stop) };
    if (const GaugedSize *was = before ? coldestOf(before->sizes) : nullptr)
        r.was = wasText(Figure::clearance(was->coldestStart_um, std::max(u, 1.0)), r.value);
    return r;
}

/// The worst known state leads; what is unknown never counts as low.
Readout airReadout(const Assessment &now, const Assessment *before)
{
    const AirReport &air = now.air;
    Readout r { QStringLiteral("airRisk"),
                tr("Air risk"),
                { qs(airStateWord(air.overall)), {}, {} },
                {},
                {},
                markOf(air),
                Place::Sump,
                {} };
    const auto open = std::count_if(air.rows.begin(), air.rows.end(), [](const AirRow &row) {
        return row.state == AirState::Unknown;
    });
    if (const AirRow *leads = air.leading()) {
        r.detail
            = open > 0 ? tr("%1 · %2 not known").arg(qs(leads->name)).arg(open) : qs(leads->name);
    } else if (open > 0) {
        r.detail = tr("%1 of 11 not known").arg(open);
    } else {
        r.detail = tr("all eleven ways looked at");
    }
    if (before)
        r.was = wasText({ qs(airStateWord(before->air.overall)), {}, {} }, r.value);
    return r;
}

Readout holdsReadout(const Build &build, const Assessment &now, const Assessment *before)
{
    const StartGate gate = gateOf(now);
    Readout r { QStringLiteral("holds"),
                tr("Holds before start"),
                { QString::number(gate.holds()), {}, {} },
                {},
                {},
                gate.mark(),
                Place::Start,
                {} };
    const int others = gate.openChecks() - gate.holds();
    r.detail = gate.mayStart() ? qs(gate.says())
                               : tr("%1 open").arg(counted(others, tr("check"), tr("checks")));
    QStringList names;
    for (const GateGroup &g : gate.open)
        for (const Check *c : g.checks) {
            if (c->state != CheckState::Hold)
                continue;
            const Stop *stop = build.engine.find(c->place.stop);
            const QString name = stop ? qs(stop->name) : qs(c->place.name);
            if (!names.contains(name))
                names << name;
            if (r.stop.isEmpty())
                r.stop = qs(c->place.stop);
        }
    if (!names.isEmpty())
        r.detail = names.join(QStringLiteral(" · "));
    if (before)
        r.was = wasText({ QString::number(gateOf(*before).holds()), {}, {} }, r.value);
    return r;
}

} // namespace

std::vector<Readout> readoutsOf(const Build &build, const Assessment &now, const Assessment *before)
{
    std::vector<Readout> out;
    // A forecast that could not be solved has nothing to compare with.
    if (before && before->operating.unsolved)
        before = nullptr;
    if (!now.operating.unsolved && !now.forecast.lines.empty()) {
        out.push_back(gaugeReadout(build, now, before));
        if (auto r = weakestReadout(build, now, before))
            out.push_back(*r);
        out.push_back(highSpeedReadout(build, now, before));
    }
    if (auto r = coldestReadout(build, now, before))
        out.push_back(*r);
    if (!now.air.rows.empty())
        out.push_back(airReadout(now, before));
    out.push_back(holdsReadout(build, now, before));
    return out;
}

ReadoutCell::ReadoutCell(QWidget *parent)
    : QAbstractButton(parent)
{
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
}

void ReadoutCell::set(const Readout &readout)
{
    m_readout = readout;
    setObjectName(readout.id);
    const QString spoken = tr("%1: %2, %3, %4. %5")
                               .arg(readout.title, readout.value.text(), readout.detail,
                                    qs(markWord(readout.mark)), readout.was);
    setAccessibleName(spoken);
    setToolTip(readout.title + u'\n' + readout.value.text() + u'\n' + readout.detail + u'\n'
               + qs(markWord(readout.mark)));
    update();
}

void ReadoutCell::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (hasFocus() || underMouse()) {
        p.setPen(QPen(hasFocus() ? t.stripInk : t.stripLine, 1));
        p.drawRoundedRect(QRectF(rect()).adjusted(2.5, 2.5, -2.5, -2.5), 5, 5);
    }
    const double left = 14, right = width() - 12;
    drawLine(p, QRectF(left, 6, right - left - 18, 16), Qt::AlignVCenter, m_readout.title,
             textFont(TextSize::Small), t.stripMuted);
    drawMark(p, QPointF(right - 6, 14), 11, m_readout.mark, true);
    const QFont big = textFont(TextSize::Readout, true);
    const QFontMetricsF metrics(big);
    p.setFont(big);
    p.setPen(t.stripInk);
    p.drawText(QPointF(left, 42), m_readout.value.number);
    double x = left + metrics.horizontalAdvance(m_readout.value.number) + 6;
    QString unit = m_readout.value.unit;
    if (!m_readout.value.second.isEmpty())
        unit += QStringLiteral(" · ") + m_readout.value.second;
    const double wasWidth
        = QFontMetricsF(textFont(TextSize::Small)).horizontalAdvance(m_readout.was);
    drawLine(p, QRectF(x, 28, right - x - (m_readout.was.isEmpty() ? 0 : wasWidth + 8), 16),
             Qt::AlignVCenter, unit, textFont(TextSize::Normal), t.stripMuted);
    drawLine(p, QRectF(right - wasWidth - 2, 28, wasWidth + 4, 16), Qt::AlignVCenter, m_readout.was,
             textFont(TextSize::Small), t.stripMuted);
    drawLine(p, QRectF(left, 46, right - left, 14), Qt::AlignVCenter, m_readout.detail,
             textFont(TextSize::Small), t.stripMuted);
}

ReadoutStrip::ReadoutStrip(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("readoutStrip"));
    setFixedHeight(64);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    connect(&open, &OpenBuild::changed, this, &ReadoutStrip::refresh);
}

void ReadoutStrip::refresh()
{
    const auto readouts = readoutsOf(m_open.build(), m_open.assessment(), m_open.previous());
    while (m_cells.size() < readouts.size()) {
        auto *cell = new ReadoutCell(this);
        connect(cell, &QAbstractButton::clicked, this,
                [this, cell] { Q_EMIT benchAsked(cell->readout().place, cell->readout().stop); });
        layout()->addWidget(cell);
        cell->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
        m_cells.push_back(cell);
    }
    for (size_t i = 0; i < m_cells.size(); ++i) {
        m_cells[i]->setVisible(i < readouts.size());
        if (i < readouts.size())
            m_cells[i]->set(readouts[i]);
    }
}

void ReadoutStrip::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.fillRect(rect(), t.strip);
    p.setPen(t.stripLine);
    for (size_t i = 1; i < m_cells.size(); ++i)
        if (m_cells[i]->isVisible())
            p.drawLine(m_cells[i]->x(), 10, m_cells[i]->x(), height() - 10);
}

} // namespace mildpath
