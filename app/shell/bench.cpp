// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/bench.h"

#include <QHBoxLayout>
#include <QLabel>

namespace mildpath {

QHBoxLayout *Bench::makeHead(QVBoxLayout *column, QLabel *title, QLabel *subtitle)
{
    column->setContentsMargins(12, 8, 12, 10);
    column->setSpacing(6);
    auto *head = new QHBoxLayout;
    head->setSpacing(4);
    title->setFont(textFont(TextSize::Title, true));
    title->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Preferred);
    head->addWidget(title);
    head->addSpacing(8);
    subtitle->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    head->addWidget(subtitle, 1);
    column->addLayout(head);
    return head;
}

} // namespace mildpath
