// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finishreport.h"
#include "plot/chartview.h"

#include <QWidget>

namespace mildpath {

/// What the three pictures of a finish show. Heights share one scale.
struct FinishScene
{
    std::shared_ptr<const FinishedTrace> trace; ///< null: nothing to show
    PlateauFit fit;
    std::optional<StrokedTrace> stroked; ///< more strokes, imagined
    /// The same bore in the other phase, for its curve; null without one.
    std::shared_ptr<const FinishedTrace> other;
    QString otherName;
    /// The other traces of the same bore and phase: how far they lie apart.
    std::vector<std::shared_ptr<const FinishedTrace>> siblings;
    double low_um = -1, high_um = 1;
};
/// Fills the scale.
void fitScale(FinishScene &scene);

/// The roughness profile, its valleys filled, what strokes would take off.
class TraceView : public QWidget
{
    Q_OBJECT
public:
    explicit TraceView(QWidget *parent = nullptr);
    void show(const FinishScene &scene);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;

private:
    void thin();
    QRectF area() const;

    FinishScene m_scene;
    const FinishedTrace *m_thinned = nullptr; ///< whose columns these are
    std::vector<std::pair<double, double>> m_columns; ///< lowest and highest of each pixel
};

/// The material-ratio curve and how Rk, Rpk, Rvk, Mr1 and Mr2 are drawn from it.
class RatioView : public ChartView
{
    Q_OBJECT
public:
    explicit RatioView(QWidget *parent = nullptr);
    void show(const FinishScene &scene);

protected:
    void paintOver(QPainter &p, LabelSpace &space) override;

private:
    FinishScene m_scene;
};

/// The same heights over the normal quantile, with the two lines of plateau and valleys.
class ProbabilityView : public ChartView
{
    Q_OBJECT
public:
    explicit ProbabilityView(QWidget *parent = nullptr);
    void show(const FinishScene &scene);
};

} // namespace mildpath
