// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/card.h"
#include "start/prime.h"

#include <QWidget>

namespace mildpath {

/// Where to look when nothing comes, in the order worth looking, in two columns. A click goes to
/// the stop.
class CausesCard : public QWidget
{
    Q_OBJECT
public:
    explicit CausesCard(QWidget *parent = nullptr);
    void setCauses(const std::vector<PrimeCause> &causes);

Q_SIGNALS:
    void picked(const QString &stop);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;
    void resizeEvent(QResizeEvent *) override { settle(); }

private:
    bool narrow() const;
    double rowHigh() const;
    void settle(); ///< as high as its rows are at this width
    QRectF cell(size_t i) const;
    int cellAt(QPointF at) const;
    std::vector<PrimeCause> m_causes;
};

} // namespace mildpath
