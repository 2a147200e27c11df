// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/livelog.h"
#include "plot/chartview.h"

namespace mildpath {

/// What a trace shows. Pressures in kPa.
struct TraceScene
{
    const TraceBuckets *trace = nullptr;
    std::vector<RunMark> marks;
    /// Corridor of priming from the last reading on; null: none.
    const PrimeForecast *prime = nullptr;
    double turned_s = 0; ///< of the pump at the last reading
    std::optional<double> stopAt_s; ///< on the log's clock
    std::optional<double> floor_kpa;
    double least_s = 30; ///< the time axis is at least as long
    bool minutes = false; ///< the axis in minutes once it is long enough for them
    std::optional<Shown> big; ///< the figure that is read from across the shop
    QString under; ///< what goes with it
    QString alarm; ///< over the picture, in the colour of a hold; empty: none
    QString say; ///< over the picture, plain: what to switch off; empty: nothing
};

/// Pressure against time inside its corridor, with very large digits. As many points are drawn as
/// there are pixels, however long it runs.
class LiveTrace : public ChartView
{
    Q_OBJECT
public:
    explicit LiveTrace(QWidget *parent = nullptr);
    void setScene(TraceScene scene);
    const TraceScene &scene() const { return m_scene; }
    int paints() const { return m_paints; } ///< so far, for the benchmark

protected:
    void paintOver(QPainter &p, LabelSpace &space) override;
    QSize minimumSizeHint() const override { return { 380, 220 }; }

private:
    void addBand(Chart &chart) const;
    void addTrace(Chart &chart) const;
    void addMarks(Chart &chart) const;
    void drawFigure(QPainter &p) const;
    void drawWords(QPainter &p) const;

    TraceScene m_scene;
    double m_perUnit = 1; ///< seconds of the axis' unit
    int m_paints = 0;
};

} // namespace mildpath
