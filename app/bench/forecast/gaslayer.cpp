// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/forecast/gaslayer.h"

#include "assess/airreport.h"
#include "open/questions.h"
#include "open/vectorstate.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {

GasLayer::GasLayer(OpenBuild &open, QObject *parent)
    : QObject(parent)
    , m_open(open)
{
}

void GasLayer::refresh()
{
    m_study.reset();
    if (!m_on || m_open.operating().unsolved)
        return;
    clearVectorState();
    m_study = m_open.answers().now(ask::gas(m_share.value_or(
        std::min(mostGasShare, m_open.air().releaseShare + m_open.air().leakShare))));
}

const ForecastLine *GasLayer::line() const
{
    return m_study && m_study->answer ? &m_study->answer->line : nullptr;
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
    if (!line())
        return;
    const GasEffect &e = m_study->answer->effect;
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
