// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/finish/finishviews.h"
#include "open/questions.h"
#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QSlider;
class QStackedWidget;

namespace mildpath {

class TraceImportCard;

/// Stylus traces of the bores: what they say, before and after, and what more strokes would leave.
class FinishPage : public Page
{
    Q_OBJECT
public:
    FinishPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "traces", tr("Traces") } }; }
    QString title() const override { return tr("The wall of the bore"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    /// Shows how a file of a trace is to be read. @return why it cannot be; empty: it is shown
    QString importTrace(const QString &path);
    bool busy() const { return !m_open.answers().find(question()); }
    /// Strokes imagined, µm off the height at 1 %.
    void setStrokes(double depth_um);
    const FinishScene &scene() const { return m_scene; }

private:
    void makeTop(QWidget *page);
    void makeStrokes(QWidget *page);
    void fillTraces();
    void showTrace();
    void stroke();
    double deepest_um() const;
    const ReadTrace *chosen() const;
    void parameterPanel(PanelContent &out) const;
    void valleyPanel(PanelContent &out) const;
    void ringPanel(PanelContent &out);

    Question<std::vector<ReadTrace>> question() const;
    const std::vector<ReadTrace> &read() const; ///< of the standing traces, as shown

    std::shared_ptr<const Answered<std::vector<ReadTrace>>> m_read;
    std::string m_trace; ///< id
    FinishScene m_scene;
    QStackedWidget *m_stack;
    QComboBox *m_traces, *m_filter;
    QLabel *m_said, *m_left;
    QSlider *m_strokes;
    TraceView *m_view;
    RatioView *m_ratio;
    ProbabilityView *m_probability;
    TraceImportCard *m_import;
};

} // namespace mildpath
