// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"

#include <QWidget>

#include <string>

namespace mildpath {

/// All bearings of a family on one clearance axis: limits, target, every reading, the running
/// value. A click selects the bearing.
class ClearanceAxis : public QWidget
{
    Q_OBJECT
public:
    explicit ClearanceAxis(OpenBuild &open, QWidget *parent = nullptr);
    void setKind(const std::string &kind);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    /// Readings and limits decide the range; limits take the middle of it.
    struct Scale
    {
        double from, to, left, right;
        double x(double um) const { return left + (um - from) / (to - from) * (right - left); }
    };
    Scale scale() const;
    std::vector<const BearingClearance *> rows() const;
    QRectF rowArea(size_t row, size_t rows) const;
    void paintAxis(QPainter &p, const Scale &s) const;
    void paintLimits(QPainter &p, const Scale &s) const;
    void paintRow(QPainter &p, const Scale &s, const BearingClearance &c, const QRectF &area) const;
    void paintKey(QPainter &p) const;

    OpenBuild &m_open;
    std::string m_kind;
};

} // namespace mildpath
