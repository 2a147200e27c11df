// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "open/openbuild.h"

#include <QWidget>

#include <string>

namespace mildpath {

/// All of a family on one axis: limits, target, rule of thumb, every reading, the running value. A
/// click selects the row.
class ClearanceAxis : public QWidget
{
    Q_OBJECT
public:
    explicit ClearanceAxis(OpenBuild &open, QWidget *parent = nullptr);
    void setFamily(const std::string &family);
    /// The row in hand.
    void setItem(const std::string &stop, int item);

Q_SIGNALS:
    void chosen(const QString &stop, int item);

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
    std::vector<const GaugedSize *> rows() const;
    QRectF rowArea(size_t row, size_t rows) const;
    void paintAxis(QPainter &p, const Scale &s) const;
    void paintLimits(QPainter &p, const Scale &s) const;
    void paintRule(QPainter &p, const Scale &s) const;
    void paintRow(QPainter &p, const Scale &s, const GaugedSize &c, const QRectF &area) const;
    void paintReadings(QPainter &p, const Scale &s, const GaugedSize &c, double y) const;
    void paintKey(QPainter &p) const;

    OpenBuild &m_open;
    std::string m_family, m_stop;
    int m_item = 1;
};

} // namespace mildpath
