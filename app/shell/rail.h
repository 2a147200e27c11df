// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"

#include <QAbstractListModel>
#include <QListView>

namespace mildpath {

/// The stops in oil order with their three marks; reads the open build, holds nothing.
class RailModel : public QAbstractListModel
{
    Q_OBJECT
public:
    enum Role { LevelRole = Qt::UserRole, SizeRole, CleanRole, FlowRole };

    explicit RailModel(OpenBuild &open, QObject *parent = nullptr);
    int rowCount(const QModelIndex &parent = {}) const override;
    QVariant data(const QModelIndex &index, int role) const override;
    int rowOf(const QString &stop) const;
    QString stopAt(int row) const;

private:
    OpenBuild &m_open;
};

/// The rail: the oil's way as navigator. Arrow keys walk it.
class Rail : public QListView
{
    Q_OBJECT
public:
    explicit Rail(OpenBuild &open, QWidget *parent = nullptr);

protected:
    void currentChanged(const QModelIndex &current, const QModelIndex &previous) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    OpenBuild &m_open;
    RailModel *m_model;
};

/// The rail's head: what the three columns are.
class RailHead : public QWidget
{
public:
    using QWidget::QWidget;

protected:
    void paintEvent(QPaintEvent *) override;
};

} // namespace mildpath
