// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "open/openbuild.h"

#include <QWidget>

namespace mildpath {

/// What of the sump is looked at.
struct SumpScene
{
    PanWay way = PanWay::Along;
    double accel_g = 0, incline_rad = 0;
    double volume_m3 = 0; ///< in the pan
    bool operator==(const SumpScene &) const = default;
};

/// The pan in section with its oil, levels, what the crank sweeps and the pickup; a dry sump's tank
/// in its stead.
class SumpView : public QWidget
{
    Q_OBJECT
public:
    explicit SumpView(OpenBuild &open, QWidget *parent = nullptr);
    /// @param air  of the document, or of one with another fill
    void setScene(const SumpScene &scene, const AirReport &air);
    /// The oil as drawn; absent where there is no section.
    const std::optional<TurnedOil> &oil() const { return m_oil; }

protected:
    void paintEvent(QPaintEvent *) override;

private:
    QPointF at(SectionPoint p) const;
    void layOut();
    void paintPan(QPainter &p) const;
    void paintOil(QPainter &p) const;
    void paintLevels(QPainter &p) const;
    void paintSweeps(QPainter &p) const;
    void paintPickup(QPainter &p) const;
    void paintMarks(QPainter &p) const;
    void paintTank(QPainter &p) const;

    OpenBuild &m_open;
    SumpScene m_scene;
    AirReport m_air;
    std::optional<HungSection> m_section;
    std::optional<TurnedOil> m_oil;
    double m_scale = 1; ///< px per metre
    QPointF m_origin;
};

} // namespace mildpath
