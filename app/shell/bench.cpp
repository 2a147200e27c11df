// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/bench.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

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

void Bench::makePageButtons(QHBoxLayout *head)
{
    const QStringList names = pages();
    for (int i = 0; i < names.size(); ++i) {
        auto *button = new QPushButton(names[i], this);
        button->setObjectName(QStringLiteral("page%1").arg(i));
        button->setCheckable(true);
        connect(button, &QPushButton::clicked, this, [this, i] { showPage(i); });
        head->addWidget(button);
        m_pageButtons.push_back(button);
    }
}

void Bench::markPage(int page)
{
    for (size_t i = 0; i < m_pageButtons.size(); ++i)
        m_pageButtons[i]->setChecked(static_cast<int>(i) == page);
}

} // namespace mildpath
