// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/gaslayer.h"

#include "open/vectorstate.h"

#include <algorithm>

namespace mildpath {

GasLayer::GasLayer(OpenBuild &open, QObject *parent)
    : QObject(parent)
    , m_open(open)
{
}

void GasLayer::refresh()
{
    m_effect.reset();
    m_line.reset();
    if (!m_on || m_open.operating().unsolved || m_open.forecast().lines.empty())
        return;
    clearVectorState();
    const double share = m_share.value_or(
        std::min(mostGasShare, m_open.air().releaseShare + m_open.air().leakShare));
    if (auto effect = gasEffect(m_open.build(), m_open.sizes(), m_open.operating(), share))
        m_effect = *effect;
    if (auto lines = forecastLines(m_open.build(), m_open.sizes(), { m_open.build().use.hotOil_c },
                                   m_open.forecast().lines.front().rpm, withGas(share)))
        m_line = std::move(lines->front());
}

void GasLayer::panel(PanelContent &out)
{
    out.push_back(PanelTick {
        QStringLiteral("forecast.gas"), Mark::NotDone, tr("With gas at the pump"),
        tr("an estimate: how much gas there is can be bounded, not known"), m_on, [this](bool on) {
            m_on = on;
            refresh();
            Q_EMIT changed();
        } });
    if (!m_effect)
        return;
    const GasEffect &e = *m_effect;
    const QString share = Figure::percent(e.share).text();
    out.push_back(
        PanelSlider { QStringLiteral("forecast.gasShare"), tr("Gas in what the pump takes"),
                      m_share ? share : tr("%1: the most the suction may bring").arg(share),
                      e.share / mostGasShare, [this](double v) {
                          m_share = v * mostGasShare;
                          refresh();
                          Q_EMIT changed();
                      } });
    const auto row = [&](const QString &label, const Shown &before, const Shown &after) {
        out.push_back(PanelChange { label, before, after,
                                    before.number == after.number ? Tone::Plain : Tone::Warn });
    };
    row(tr("Hot idle"), Figure::pressure(e.idleBefore.value_pa),
        Figure::pressure(e.idleAfter.value_pa));
    row(tr("Higher speed"), Figure::pressure(e.fastBefore.value_pa),
        Figure::pressure(e.fastAfter.value_pa));
    row(tr("Delivery"), Figure::flow(e.flowBefore_m3_s), Figure::flow(e.flowAfter_m3_s));
    if (e.share > 0)
        out.push_back(
            PanelText { tr("Oil %1 times softer at the inlet, %2 at the gauge's pressure: "
                           "the needle shivers, hydraulic lifters tap.")
                            .arg(qs(formatNumber(1 / e.stiffness, 0)),
                                 qs(formatNumber(1 / e.stiffnessAtGauge, 0))),
                        Tone::Muted });
}

} // namespace mildpath
