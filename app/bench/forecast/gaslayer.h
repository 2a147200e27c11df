// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "assess/forecast.h"
#include "open/openbuild.h"
#include "shell/panel.h"
#include "study/gaseffect.h"

#include <QObject>

#include <optional>

namespace mildpath {

/// The forecast with gas in what the pump takes: a layer one lays over it, marked as an estimate.
class GasLayer : public QObject
{
    Q_OBJECT
public:
    explicit GasLayer(OpenBuild &open, QObject *parent = nullptr);
    /// Works out what the gas does to the document as it is; nothing while the layer is off.
    void refresh();
    /// Pressure over speed with it, hot; absent while it is off.
    const std::optional<ForecastLine> &line() const { return m_line; }
    void panel(PanelContent &out);

Q_SIGNALS:
    void changed();

private:
    OpenBuild &m_open;
    bool m_on = false;
    std::optional<double> m_share; ///< as slid; none: what the suction may bring
    std::optional<GasEffect> m_effect;
    std::optional<ForecastLine> m_line;
};

} // namespace mildpath
