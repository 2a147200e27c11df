// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"

#include <QWidget>

namespace mildpath {

/// A picture of the open build's assessment, painted whole.
class BuildPicture : public QWidget
{
public:
    BuildPicture(OpenBuild &open, const QString &name, QWidget *parent)
        : QWidget(parent)
        , m_open(open)
    {
        setObjectName(name);
    }

protected:
    OpenBuild &m_open;
};

/// Where the oil goes, as a standing bar: shares of what the pump sweeps.
class OilShareBar : public BuildPicture
{
public:
    explicit OilShareBar(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    void paintCrankOil(QPainter &p, double y) const;
};

/// The same build with the other oils of the shelf, at hot idle.
class OtherOilsCard : public BuildPicture
{
public:
    explicit OtherOilsCard(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;
};

/// What one step of each lever does to hot idle.
class LeversCard : public BuildPicture
{
public:
    explicit LeversCard(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;
};

} // namespace mildpath
