// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "open/openbuild.h"

#include <QWidget>

namespace mildpath {

/// Every turn and slope as a small section, side by side.
class CaseSheet : public QWidget
{
    Q_OBJECT
public:
    explicit CaseSheet(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    void point(int index); ///< −1: none
    QRectF areaOf(int index) const; ///< for tests

Q_SIGNALS:
    void picked(int index);
    void pointed(int index);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void leaveEvent(QEvent *) override;

private:
    int at(QPointF p) const;
    int columns() const;

    OpenBuild &m_open;
    std::vector<AirCase> m_cases;
    std::optional<HungSection> m_along, m_across;
    bool m_gap = false;
    int m_pointed = -1;
};

} // namespace mildpath
