// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/card.h"
#include "paint/scrolled.h"

#include <QLabel>

namespace mildpath {

/// A card with a title over a widget that scrolls.
inline QWidget *titledCard(const QString &title, QWidget *inner, QWidget *parent)
{
    auto *card = new CardWidget(parent);
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(2, 6, 2, 4);
    column->setSpacing(2);
    auto *head = new QLabel(title, card);
    head->setFont(textFont(TextSize::Body, true));
    head->setContentsMargins(10, 0, 0, 0);
    column->addWidget(head);
    column->addWidget(scrolled(inner, card), 1);
    return card;
}

} // namespace mildpath
