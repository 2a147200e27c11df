// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "study/senders.h"
#include "sump/threads.h"

#include <QWidget>

namespace mildpath {

/// A sender's thread laid into that of its hole, six turns long.
class ThreadView : public QWidget
{
    Q_OBJECT
public:
    explicit ThreadView(QWidget *parent = nullptr);
    void setThreads(const Thread *male, const Thread *female);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    const Thread *m_male = nullptr, *m_female = nullptr;
};

/// Oil passing each place a temperature sender could sit, idling and at speed.
class SenderBars : public QWidget
{
    Q_OBJECT
public:
    explicit SenderBars(QWidget *parent = nullptr);
    void setPlaces(std::vector<SenderPlace> places, double fast_rpm);
    const std::vector<SenderPlace> &places() const { return m_places; }

protected:
    void paintEvent(QPaintEvent *) override;

private:
    std::vector<SenderPlace> m_places;
    double m_fast_rpm = 0;
};

} // namespace mildpath
