// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "pump/rotor.h"

#include <QWidget>

class QPainterPath;

namespace mildpath {

/// The rotor set seen from the cover with its gaps named where they are measured, and the end
/// clearance in section. A click on a gap takes it in hand.
class RotorPictureView : public QWidget
{
    Q_OBJECT
public:
    explicit RotorPictureView(OpenBuild &open, QWidget *parent = nullptr);
    void setFamily(const std::string &family);

Q_SIGNALS:
    void chosen(const std::string &family);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Label
    {
        std::string family;
        QRectF area;
    };
    QRectF rotorArea() const;
    QRectF sectionArea() const;
    std::vector<Label> labels() const;
    void paintRotors(QPainter &p, const RotorSet &set) const;
    void paintSection(QPainter &p) const;
    void paintLabel(QPainter &p, const Label &label, QPointF from) const;

    OpenBuild &m_open;
    std::string m_family;
};

/// The pump's base with its gasket laid on: ports open, or one shut by the wrong gasket.
class GasketPicture : public QWidget
{
public:
    explicit GasketPicture(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    OpenBuild &m_open;
};

} // namespace mildpath
