// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

class QLabel;
class QStackedWidget;

namespace mildpath {

class FinishPage;
class SealPage;

/// The bore: what its traces say, and how the rings seal on it.
class FinishBench : public Bench
{
    Q_OBJECT
public:
    FinishBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    void takeFocus() override;
    QStringList pages() const override;
    void showPage(int page) override;
    enum Page { Trace, Seal };
    FinishPage &trace() { return *m_trace; }
    /// A file dropped on the window. @return why it cannot be a trace; empty: it is shown
    QString importTrace(const QString &path);

private:
    void showWords();

    QLabel *m_title, *m_subtitle;
    QStackedWidget *m_stack;
    FinishPage *m_trace;
    SealPage *m_seal;
    int m_page = Trace;
};

} // namespace mildpath
