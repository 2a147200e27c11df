// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class SenderBars;
class ThreadView;

/// Whether a sender's thread fits its hole, and where one that reads temperature sees oil.
class SenderPage : public Page
{
    Q_OBJECT
public:
    explicit SenderPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "senders", tr("Senders") } }; }
    QString title() const override { return tr("Where a sender sits"); }
    void refresh() override;
    PanelContent panel() override;

private:
    void showMatch();

    QComboBox *m_male, *m_female;
    QLabel *m_verdict, *m_detail;
    ThreadView *m_thread;
    SenderBars *m_places;
};

} // namespace mildpath
