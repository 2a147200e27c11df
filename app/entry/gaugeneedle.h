// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace mildpath {

class SerialGauge;

/// The live needle of the connected gauge and how far it has come to rest. Hidden without a gauge.
class GaugeNeedle : public QWidget
{
    Q_OBJECT
public:
    GaugeNeedle(SerialGauge *gauge, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    void follow();

    SerialGauge *m_gauge;
    double m_value_m = 0;
    bool m_any = false;
};

} // namespace mildpath
