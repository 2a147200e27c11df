// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/answers.h"
#include "open/openbuild.h"

#include <QWidget>

#include <memory>
#include <set>
#include <string>

namespace mildpath {

struct PlannedCheck;
struct WorkPlan;

/// At the head of the rail: the one thing to do next, how long it takes and why. It changes when
/// work was recorded, never while somebody types.
class NextCard : public QWidget
{
    Q_OBJECT
public:
    explicit NextCard(OpenBuild &open, QWidget *parent);

    /// Id of the check it names; empty: nothing is open, or not known yet.
    std::string check() const { return m_check; }
    QString text() const { return m_text; }
    QString why() const { return m_why; }
    /// Another of what can be done now; after the last the first again.
    void other();

Q_SIGNALS:
    void goAsked(const std::string &check);
    void liveAsked(); ///< to what runs just now

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    QSize sizeHint() const override;

private:
    void take();
    void show(const WorkPlan &plan, const PlannedCheck *row);
    QRectF otherArea() const;

    OpenBuild &m_open;
    std::string m_check;
    std::set<std::string> m_passedOver; ///< not now, somebody said
    QString m_text, m_why, m_minutes;
    int m_now = 0;
};

} // namespace mildpath
