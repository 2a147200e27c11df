// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/livelog.h"
#include "shell/page.h"
#include "start/rehearsal.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;
class QStackedWidget;
class QTextBrowser;
class QVBoxLayout;

namespace mildpath {

class LiveTrace;
class RowList;

/// The trainer: a fault hidden in a copy of the build, to be found before it does harm.
class RehearsalPage : public Page
{
    Q_OBJECT
public:
    RehearsalPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "rehearse", tr("Rehearsal") } }; }
    QString title() const override { return tr("Rehearsal"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;

    /// Hides a fault. @return why it cannot be; empty: it is hidden
    QString begin(unsigned seed);
    /// A fault of one's choice: for teaching, pictures and tests.
    QString beginWith(const Fault &fault, unsigned seed);
    Rehearsal *rehearsal() { return m_rehearsal ? &*m_rehearsal : nullptr; }
    /// Lets time go on, as the timer does. @param dt_s  of the engine
    void advance(double dt_s);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void makeControls(QVBoxLayout *column);
    void begun(Result<Rehearsal> rehearsal);
    void turn(Turning how, double rpm);
    void look(int row);
    void readTap();
    void nameIt();
    void show();
    void showDebrief();

    std::optional<Rehearsal> m_rehearsal;
    std::shared_ptr<const Build> m_hidIn; ///< the build it was hidden in
    TraceBuckets m_played;
    std::optional<RunPoint> m_now; ///< what the sender last said
    QString m_said; ///< what was last seen
    unsigned m_seed = 0;
    QTimer *m_timer;
    LiveTrace *m_trace;
    QStackedWidget *m_stack;
    QTextBrowser *m_debrief;
    QPushButton *m_begin, *m_stop, *m_read, *m_name, *m_giveUp;
    std::vector<QPushButton *> m_turns;
    QComboBox *m_tap, *m_answer;
    QLabel *m_harm, *m_saw;
    RowList *m_looks, *m_path;
};

} // namespace mildpath
