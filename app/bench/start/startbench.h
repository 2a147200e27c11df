// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "shell/bench.h"

class QLabel;
class QStackedWidget;

namespace mildpath {

class AfterPage;
class RehearsalPage;
class SerialSender;
class StartPage;

/// The gate, the run card and the live log; a rehearsal of them; and what the start taught.
class StartBench : public Bench
{
    Q_OBJECT
public:
    StartBench(OpenBuild &open, SerialSender *sender, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    void takeFocus() override;
    QStringList pages() const override;
    void showPage(int page) override;
    StartPage &start() { return *m_start; }
    RehearsalPage &rehearsal() { return *m_rehearsal; }

Q_SIGNALS:
    void complained(const QString &text);
    void benchAsked(mildpath::Place place);

private:
    enum Page { Start, Rehearse, After };
    void showWords();

    QLabel *m_title, *m_subtitle;
    QStackedWidget *m_stack;
    StartPage *m_start;
    RehearsalPage *m_rehearsal;
    AfterPage *m_after;
    int m_page = Start;
};

} // namespace mildpath
