// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"

#include <QWidget>

namespace mildpath {

/// Where the oil goes, as a standing bar: shares of what the pump sweeps.
class OilShareBar : public QWidget
{
public:
    explicit OilShareBar(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    OpenBuild &m_open;
};

/// The same build with the other oils of the shelf, at hot idle: gauge and weakest stop.
class OtherOilsCard : public QWidget
{
public:
    explicit OtherOilsCard(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    OpenBuild &m_open;
};

/// What one step of each lever does to hot idle.
class LeversCard : public QWidget
{
public:
    explicit LeversCard(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    OpenBuild &m_open;
};

} // namespace mildpath
