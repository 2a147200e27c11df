// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/start/livelog.h"
#include "diagnose/diagnosis.h"
#include "shell/page.h"
#include "start/runcard.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace mildpath {

class AlarmSound;
class CardList;
class CausesCard;
class LiveTrace;
class RunImportCard;
class SerialSender;

/// Gate, run card and live log: prime, then start.
class StartPage : public Page
{
    Q_OBJECT
public:
    StartPage(OpenBuild &open, SerialSender *sender, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "live", tr("Start-up") } }; }
    QString title() const override { return tr("Prime, then start"); }
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override;
    /// What is listened to, for the bench's subtitle.
    QString about() const override;

    LiveLog &log() { return *m_log; }
    /// Takes in a table of somebody else's logger: columns are chosen in place.
    /// @return why it cannot be; empty: it is shown
    QString showImport(const QString &path);
    /// A run a crash left behind becomes a run of this build; its file goes beside it, or is kept.
    Result<void> takeUnfinished(const UnfinishedRun &run);

Q_SIGNALS:
    void checksAsked(); ///< to the list of checks

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;
    void resizeEvent(QResizeEvent *) override;

private:
    void makeLive(QWidget *live);
    void connectParts();
    void judge(); ///< gate, prime forecast and card of the document as it is now
    void askDiagnosis();
    void sayLive();
    void showLive();
    void showStep(const QString &step);
    void record(); ///< or stop
    void stopLog(const QString &why);
    void startSeen(); ///< the first pressure of a start goes onto the card at once
    void storeRun();
    void keepFile(RunLog &run);
    void addNote();
    Result<void> takeReading(const CardItem &item, const RunPoint &read);
    Result<void> takePriming(double pressure_pa);
    void takeLatest();
    Result<void> goThrough(const std::string &step, const std::string &outcome,
                           const RunPoint *read = nullptr, std::optional<double> seconds = {});
    const StartCard &judged() const
    {
        static const StartCard none {};
        return m_judged ? m_judged->answer : none;
    }
    const StartGate &gate() const { return judged().gate; }
    const PrimeForecast &prime() const { return judged().prime; }
    const RunCard &card() const { return judged().card; }
    const CardItem *item() const { return card().find(m_step.toStdString()); }
    QString switchOff() const;

    // The side panel, part by part (startpanel.cpp).
    void stepPanel(const CardItem &item, PanelContent &out);
    void tickPanel(const CardItem &item, PanelContent &out);
    void choicePanel(const CardItem &item, PanelContent &out);
    void watchPanel(const CardItem &item, PanelContent &out);
    void readPanel(const CardItem &item, PanelContent &out);
    void primePanel(PanelContent &out);
    void gatePanel(PanelContent &out);
    void goTo(Place place, QString stop);
    void holdsPanel(PanelContent &out);
    void senderPanel(PanelContent &out);
    void numbersPanel(const CardItem &item, PanelContent &out);
    void explainedPanel(PanelContent &out) const;
    void cautionsPanel(PanelContent &out) const;
    PanelField numberField(const char *key) const;

    SerialSender *m_sender;
    LiveLog *m_log;
    AlarmSound *m_sound;
    CardList *m_list;
    LiveTrace *m_trace;
    CausesCard *m_causes;
    RunImportCard *m_import;
    QWidget *m_left; ///< the run card's side
    QStackedWidget *m_middle;
    QPushButton *m_record, *m_mark, *m_noteButton, *m_reading;
    QLineEdit *m_note;
    QString m_step;
    QString m_say; ///< what to switch off
    std::shared_ptr<const Answered<StartCard>> m_judged; ///< shown
    std::shared_ptr<const Answered<Result<Diagnosis>>> m_diagnosis; ///< null: none
    RunPoint m_typed; ///< of a reading entered by hand
    bool m_startSeen = false;
};

} // namespace mildpath
