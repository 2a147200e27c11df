// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

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
    /// Pressure over speed with it, hot; null while it is off.
    const ForecastLine *line() const;
    void panel(PanelContent &out);

Q_SIGNALS:
    void changed();

private:
    OpenBuild &m_open;
    bool m_on = false;
    std::optional<double> m_share; ///< as slid; none: what the suction may bring
    std::shared_ptr<const Answered<Result<GasStudy>>> m_study; ///< shown; null: off
};

} // namespace mildpath
