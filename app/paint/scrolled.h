// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>
#include <QVBoxLayout>

namespace mildpath {

/// A widget that scrolls up and down where it is higher than its place, on what lies behind it.
inline QScrollArea *scrolled(QWidget *inner, QWidget *parent)
{
    auto *scroll = new QScrollArea(parent);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto *page = new QWidget;
    auto *rows = new QVBoxLayout(page);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->addWidget(inner);
    rows->addStretch();
    scroll->setWidget(page);
    // Only now: setWidget() gives the page a background of its own.
    page->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    return scroll;
}

} // namespace mildpath
