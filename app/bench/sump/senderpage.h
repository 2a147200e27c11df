// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace mildpath {

class SenderBars;
class ThreadView;

/// Whether a sender's thread fits its hole, and where one that reads temperature sees oil.
class SenderPage : public QWidget
{
    Q_OBJECT
public:
    explicit SenderPage(OpenBuild &open, QWidget *parent = nullptr);
    void refresh();
    void panel(PanelContent &out) const;

private:
    void showMatch();

    OpenBuild &m_open;
    QComboBox *m_male, *m_female;
    QLabel *m_verdict, *m_detail;
    ThreadView *m_thread;
    SenderBars *m_places;
};

} // namespace mildpath
