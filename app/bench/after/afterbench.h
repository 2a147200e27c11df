// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/place.h"
#include "shell/bench.h"

class QLabel;
class QStackedWidget;

namespace mildpath {

class FilterPage;
class HeardPage;
class OilPage;
class RecheckPage;
class ShelfPage;

/// What a run leaves to look at: filter, oil, the opened engine, noises; and other builds.
class AfterBench : public Bench
{
    Q_OBJECT
public:
    AfterBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    void takeFocus() override;
    QStringList pages() const override;
    void showPage(int page) override;
    enum Page { Filter, Oil, Recheck, Heard, Shelf };
    FilterPage &filter() { return *m_filter; }
    OilPage &oil() { return *m_oil; }
    ShelfPage &shelf() { return *m_shelf; }

Q_SIGNALS:
    void benchAsked(mildpath::Place place);
    void openAsked(const QString &path);

private:
    void showWords();

    QLabel *m_title, *m_subtitle;
    QStackedWidget *m_stack;
    FilterPage *m_filter;
    OilPage *m_oil;
    RecheckPage *m_recheck;
    HeardPage *m_heard;
    ShelfPage *m_shelf;
    int m_page = Filter;
};

} // namespace mildpath
